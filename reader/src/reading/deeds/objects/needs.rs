//! Jobs that are told and not done: what has to come off before something is reached. They are needs, never acts.

use super::super::super::Act;
use super::super::Need;
use super::super::grammar::Kind;
use super::super::names::{name, plug_names};
use super::super::phrases::Phrase;
use super::super::told::{Sentenced, Told};

/// Jobs that are told and not done: what has to come off first to reach something.
pub(super) fn needs(told: &[Sentenced]) -> Vec<Need> {
    let mut out: Vec<(usize, Need)> = Vec::new();
    let mut chains: Vec<Need> = Vec::new();
    let mut everything: Option<(usize, Phrase)> = None;
    for s in told {
        // "To reach it you have to take off everything we just did. That's rear cover, cage and frame."
        if let Some((_, target)) = everything.take_if(|(at, _)| *at + 1 == s.number).filter(|_| !s.summed_up.is_empty())
        {
            let after = s.summed_up.iter().map(name).collect();
            chains.push(Need { target: name(&target), after, start: s.span.0, end: s.span.1 });
            continue;
        }
        everything = s.for_all.clone().map(|target| (s.number, target));
        let supposed: Vec<&Told> = s.acts.iter().filter(|a| a.hypothetical).collect();
        let undone = |a: &&&Told| {
            matches!(
                a.apart,
                Some((
                    Act::Remove | Act::Unscrew | Act::Disconnect | Act::Open | Act::Pry | Act::Release | Act::Peel,
                    _
                ))
            )
        };
        let names = supposed
            .iter()
            .filter(undone)
            .flat_map(|a| &a.objects)
            .filter(|o| !o.new && matches!(o.kind, Kind::Part | Kind::Plug | Kind::Film | Kind::Tape));
        let after: Vec<String> = names.map(name).collect();
        if let Some((target, after)) = &s.chain {
            let after: Vec<String> = after.iter().map(name).collect();
            // "Before you can reach the two plugs": each of them.
            let each = plug_names(target).into_iter();
            chains.extend(each.map(|target| Need { target, after: after.clone(), start: s.span.0, end: s.span.1 }));
            continue;
        }
        match &s.target {
            Some(target) if !supposed.is_empty() => {
                let target = name(target);
                // "To replace an input socket …, because the sockets are soldered": the thing itself.
                let itself = |a: &String| *a == target || target.ends_with(&format!(" {a}"));
                let after = after.into_iter().filter(|a| !itself(a)).collect();
                out.push((s.number, Need { target, after, start: s.span.0, end: s.span.1 }));
            }
            // "After that you'd be able to unplug the cable.": the same job goes on.
            None if !after.is_empty() => {
                if let Some((at, need)) = out.last_mut().filter(|(at, _)| *at + 2 >= s.number) {
                    *at = s.number;
                    let target = need.target.clone();
                    need.after.extend(after.into_iter().filter(|a| *a != target));
                }
            }
            _ => {}
        }
    }
    let jobs = out.into_iter().map(|(_, need)| need).filter(|n| !n.after.is_empty());
    jobs.chain(chains).collect()
}
