//! What only the whole list of deeds tells: what was told twice, what must have come off, what was a trial.

use super::super::Act;
use super::super::lexicon::lemma;
use super::grammar::{GRAMMAR, Kind};
use super::names::{is_cable, side_across, tells_no_owner};
use super::told::{Sentenced, has};
use super::{Deed, Half};
use crate::units::Quantity;
use std::collections::{BTreeMap, BTreeSet};

/// The rules that read "there are 12 screws" and "three more screws, Phillips again".
pub(super) const SHOWN: &str = "screws are shown";
pub(super) const NAMED: &str = "screws are named";

/// The rule that reads "the board is held by two screws".
pub(super) const SHOWN_HELD: &str = "screws are shown with what they hold";

/// The frame that reads "that's got to go".
pub(super) const DUE: &str = "has to go";

/// "Pull the tray out, but first undo the two screws.", "Take the hood off, but not before you've unplugged the lamp."
pub(super) fn but_first(told: &[Sentenced], deeds: &mut [Deed]) {
    const FIRST: [&str; 4] = ["but first", "but before that", "but not before", "but only after"];
    for at in 1..deeds.len() {
        let (then, first) = (&deeds[at - 1], &deeds[at]);
        let here = then.sentence == first.sentence && then.half == first.half;
        let second = at < 2 || deeds[at - 2].sentence != then.sentence;
        let said = |s: &Sentenced| FIRST.iter().any(|words| has(&s.said, words));
        if !(here && second && told.get(first.sentence).is_some_and(said)) {
            continue;
        }
        let part = then.what.clone();
        deeds.swap(at - 1, at);
        if deeds[at - 1].act.turns_screws() && deeds[at - 1].what.is_empty() {
            deeds[at - 1].what = part;
        }
    }
}

/// "Take the left arm off. Do the same on the other side.": the right one.
pub(super) fn other_side(told: &[Sentenced], deeds: &mut Vec<Deed>) {
    let again = |s: &&Sentenced| {
        let same = ["same", "repeat", "likewise"].iter().any(|w| has(&s.said, w));
        same && ["other side", "other one", "opposite side"].iter().any(|w| has(&s.said, w))
    };
    let again: BTreeMap<usize, &Sentenced> =
        told.iter().filter(again).filter(|s| s.number > 0).map(|s| (s.number - 1, s)).collect();
    if again.is_empty() {
        return;
    }
    let done: BTreeSet<(usize, Vec<String>)> = deeds.iter().map(|d| (d.sentence, d.what.clone())).collect();
    let mut all = std::mem::take(deeds).into_iter().peekable();
    let mut copies = Vec::new();
    while let Some(d) = all.next() {
        if let (Some(s), Some(what)) = (again.get(&d.sentence), mirrored(&d.what))
            && !done.contains(&(s.number, what.clone()))
        {
            copies.push(Deed { what, ..d.clone() }.told_by(s, d.half));
        }
        let ends = all.peek().is_none_or(|next| next.sentence != d.sentence);
        deeds.push(d);
        if ends {
            deeds.append(&mut copies);
        }
    }
}

/// "right arm" of "left arm"; `None` where a thing has no side.
fn mirrored(what: &[String]) -> Option<Vec<String>> {
    let sided = |name: &String| name.split(' ').any(|w| side_across(w).is_some());
    let turned = |name: &String| name.split(' ').map(|w| side_across(w).unwrap_or(w)).collect::<Vec<_>>().join(" ");
    (!what.is_empty() && what.iter().all(sided)).then(|| what.iter().map(turned).collect())
}

/// "The bracket's got to go. There are five screws on it.", "We'll take the back off, there's six screws.": it goes when
/// they are out. "Now you can take the fan out. It's held by two screws.": so does what they hold.
pub(super) fn due(deeds: &mut [Deed]) {
    for at in 1..deeds.len() {
        let (gone, screws) = (&deeds[at - 1], &deeds[at]);
        let held = gone.act == Act::Remove && !gone.what.is_empty() && screws.because == SHOWN_HELD;
        let next = screws.act == Act::Unscrew && screws.sentence == gone.sentence + 1 && screws.half == gone.half;
        if held && next && (screws.what.is_empty() || screws.what == gone.what) {
            let part = gone.what.clone();
            deeds.swap(at - 1, at);
            deeds[at - 1].what = part;
            continue;
        }
        let its = screws.act == Act::Unscrew && screws.what == gone.what && screws.sentence <= gone.sentence + 2;
        let announced = gone.act == Act::Remove && (gone.because == DUE || gone.future);
        if announced && its {
            deeds.swap(at - 1, at);
        }
    }
}

/// The rule that reads "with the board out, I can flip it over".
pub(super) const OUT_BY_NOW: &str = "out by now";

/// The frame that reads "we loosen those screws".
pub(super) const SLACKENED: &str = "screws slackened";

/// "We loosen those screws. … And now pick the screws out by hand.": first only loosened.
pub(super) fn slackened(deeds: &mut [Deed]) {
    for at in 0..deeds.len() {
        let d = &deeds[at];
        let out = |e: &Deed| {
            e.act == Act::Unscrew
                && e.half == d.half
                && e.what == d.what
                && e.because != SLACKENED
                && !e.what.is_empty()
        };
        let near = deeds[at + 1..].iter().take(4).take_while(|e| e.sentence <= d.sentence + 8);
        if d.act == Act::Unscrew && d.because == SLACKENED && d.count.is_none() && near.clone().any(out) {
            deeds[at].act = Act::Loosen;
        }
    }
}

/// "Loosen all six. They are captive and stay in the cover.", "These are captive, so just loosen all three.": turned, and
/// not taken out.
pub(super) fn captive(told: &[Sentenced], deeds: &mut [Deed]) {
    let says = |s: &&Sentenced| {
        let at = |w: &str| s.words.iter().position(|said| said == w);
        let pointed = ["they", "these", "those"].iter().filter_map(|w| at(w)).min();
        at("captive").is_some_and(|c| pointed.is_some_and(|t| t < c && c - t <= 4))
    };
    for s in told.iter().filter(says) {
        let near = s.number.saturating_sub(1)..=s.number + 1;
        let turned = |d: &&mut Deed| d.act == Act::Unscrew && d.because == SLACKENED && near.contains(&d.sentence);
        if let Some(deed) = deeds.iter_mut().find(turned) {
            deed.act = Act::Loosen;
        }
    }
}

/// "Undo the bolts in the handle. There are two."
pub(super) fn counted_behind(told: &[Sentenced], deeds: &mut [Deed]) {
    for s in told {
        let Some(count) = s.counts else { continue };
        let to = deeds.partition_point(|d| d.start < s.span.1);
        let last = deeds[..to].last_mut();
        let near = |d: &&mut Deed| d.act.turns_screws() && d.count.is_none() && d.sentence + 1 >= s.number;
        if let Some(deed) = last.filter(near) {
            deed.count = Some(count);
        }
    }
}

/// The rule that reads "there's a single screw on this side" while things go together.
pub(super) const SHOWN_BACK: &str = "screws are shown in the rebuild";

/// "There's four screws here. … Drive them in.": told once.
pub(super) fn shown_back(deeds: &mut Vec<Deed>) {
    const NEAR: usize = 3;
    let driven: Vec<(usize, Option<u32>)> = deeds
        .iter()
        .filter(|d| matches!(d.act, Act::Drive | Act::Tighten) && d.because != SHOWN_BACK)
        .map(|d| (d.sentence, d.count))
        .collect();
    deeds.retain(|d| {
        let again = |(at, count): &(usize, Option<u32>)| {
            at.abs_diff(d.sentence) <= NEAR && (count.is_none() || *count == d.count)
        };
        d.because != SHOWN_BACK || !driven.iter().any(again)
    });
}

/// How the screws of the act before are driven.
pub(super) const GONE_ROUND: &str = "gone round the screws";
/// The rule that reads "there's another two under the feet".
pub(super) const MORE_SHOWN: &str = "more screws are shown";

/// "Two screws hold the sensor board. If we look at the board …": what screws that are shown hold has come off, even
/// where nobody says so.
pub(super) fn implied(deeds: &mut Vec<Deed>) {
    let last = |w: &str| w.rsplit(' ').next().unwrap_or(w).to_owned();
    let gone: BTreeSet<String> = deeds
        .iter()
        .filter(|e| {
            matches!(e.act, Act::Remove | Act::Open | Act::Pry | Act::Release | Act::Turn) && e.half == Half::Apart
        })
        .flat_map(|e| &e.what)
        .map(|w| last(w))
        .collect();
    let mut named: BTreeSet<String> = BTreeSet::new();
    let all = std::mem::take(deeds);
    for (n, d) in all.iter().enumerate() {
        deeds.push(d.clone());
        let shown = d.act == Act::Unscrew && d.half == Half::Apart && d.because == SHOWN_HELD;
        let Some(part) = d.what.first().filter(|_| shown) else { continue };
        let told = gone.contains(&last(part)) || !named.insert(last(part));
        let nameless = all[n + 1..].iter().take(3).any(|e| e.act == Act::Remove && e.what.is_empty());
        // "This wire is fastened with a nut.": its end comes off, and the wire stays.
        let wire = matches!(part.rsplit(' ').next(), Some("wire" | "cable" | "lead" | "ribbon" | "flex" | "cord"));
        if !told && !nameless && !wire {
            deeds.push(d.beside(Act::Remove, d.what.clone(), "its screws are out"));
        }
    }
}

/// What is put in, switched on and taken out again was a trial.
pub(super) fn trials(deeds: &mut [Deed]) {
    let last = deeds.iter().rposition(|d| matches!(d.act, Act::Install | Act::Drive | Act::Connect));
    for on in 0..deeds.len() {
        if deeds[on].act != Act::PowerOn {
            continue;
        }
        let ahead = on + 1..deeds.len().min(on + 7);
        // Whoever goes on with the rebuild afterwards only tried.
        let goes_on = last.is_some_and(|last| last > on);
        if goes_on || deeds[ahead.clone()].iter().take(3).any(|d| matches!(d.act, Act::Test | Act::PowerOff)) {
            deeds[on].half = Half::Check;
        }
        for out in ahead {
            let put = (on.saturating_sub(4)..on).find(|i| {
                deeds[*i].act == Act::Install && deeds[out].act == Act::Remove && deeds[*i].what == deeds[out].what
            });
            if let Some(put) = put {
                deeds[put..=out].iter_mut().for_each(|d| d.half = Half::Check);
            }
        }
    }
}

/// "Slide it under the connector and pop it up.", right after the cell was disconnected.
fn bare_plug(d: &Deed) -> bool {
    let bare = |w: &String| !w.ends_with('s') && !w.contains(' ') && is_cable(w);
    matches!(d.act, Act::Disconnect | Act::Connect) && !d.what.is_empty() && d.what.iter().all(bare)
}

/// "Disconnect the pump cable. Pull the pump plug and not the wires.": one plug by two names.
fn same_plug(a: &Deed, b: &Deed) -> bool {
    let serves = |d: &Deed| match &d.what[..] {
        [one] if one.rsplit(' ').next().is_some_and(tells_no_owner) => {
            let owner: Vec<&str> = one.split(' ').filter(|w| !tells_no_owner(w)).collect();
            (!owner.is_empty()).then(|| owner.join(" "))
        }
        _ => None,
    };
    let plugs = matches!(a.act, Act::Disconnect | Act::Connect) && b.sentence <= a.sentence + 2;
    // "Unplug the pump. It's a white two-pin plug."
    let longer = |short: &Deed, long: &Deed| match (&short.what[..], &long.what[..]) {
        ([own], [plug]) => {
            let rest = plug.strip_prefix(own.as_str()).and_then(|r| r.strip_prefix(' '));
            rest.is_some_and(|r| r.rsplit(' ').next().is_some_and(tells_no_owner))
        }
        _ => false,
    };
    // "Wide tag, narrow tag": two.
    let kind = |d: &Deed| {
        let mut words: Vec<&str> = d.what.iter().flat_map(|w| w.split(' ')).filter(|w| tells_no_owner(w)).collect();
        words.pop();
        words.join(" ")
    };
    let two = !kind(a).is_empty() && !kind(b).is_empty() && kind(a) != kind(b);
    plugs && !two && (longer(a, b) || serves(a).is_some_and(|owner| serves(b) == Some(owner)))
}

/// "unplug the leads from the relay board … unplug the leads from the sensor bar": two ends.
fn elsewhere(a: &Deed, b: &Deed) -> bool {
    let end = |d: &Deed| {
        d.places.iter().find(|p| matches!(p.preposition.as_str(), "from" | "into" | "to")).map(|p| p.thing.clone())
    };
    matches!(a.act, Act::Disconnect | Act::Connect) && matches!((end(a), end(b)), (Some(a), Some(b)) if a != b)
}

/// "drawer" after "memory card drawer".
fn shorter(a: &[String], b: &[String]) -> bool {
    matches!((a, b), ([a], [b]) if b.len() > a.len() && b.ends_with(a.as_str()) && b.as_bytes()[b.len() - a.len() - 1] == b' ')
}

/// "Put the lever under the cover. Release the side clips with it.": the tool serves the clips.
pub(super) fn served(deeds: &mut Vec<Deed>) {
    let led_in =
        |d: &Deed| d.act == Act::Pry && d.half == Half::Apart && d.by.is_some() && d.because == "a tool worked in";
    let mut out: Vec<Deed> = Vec::with_capacity(deeds.len());
    for mut d in std::mem::take(deeds) {
        let clips = d.act == Act::Release && d.half == Half::Apart && d.by.is_none();
        let tool = out.pop_if(|last| clips && led_in(last) && d.sentence <= last.sentence + 1);
        d.by = d.by.or(tool.and_then(|tool| tool.by));
        out.push(d);
    }
    *deeds = out;
}

/// Two mentions of one act in a row are one act; an announcement is done where it is done.
pub(super) fn doubled(deeds: &mut Vec<Deed>) {
    let mut out: Vec<Deed> = Vec::with_capacity(deeds.len());
    let all = std::mem::take(deeds);
    for (n, d) in all.iter().cloned().enumerate() {
        let ahead = all[n + 1..].iter().take(12);
        // "We are ready to take the screen out. Heat the rim. Take it out."
        let done = |e: &Deed| {
            let out = matches!(e.act, Act::Remove | Act::Open) && e.because != OUT_BY_NOW;
            e.half == d.half && e.what == d.what && out && e.sentence > d.sentence
        };
        let gone = |e: &Deed| e.act == Act::Remove && e.what == d.what;
        if d.because == OUT_BY_NOW && out.iter().any(gone) {
            continue;
        }
        let frees = |e: &Deed| matches!(e.act, Act::Unscrew | Act::Pry | Act::Heat | Act::Release | Act::Remove);
        let announced = d.future && d.act == Act::Remove && !d.what.is_empty();
        if announced && ahead.clone().position(done).is_some_and(|at| ahead.clone().take(at).any(frees)) {
            continue;
        }
        // "First you have to take off the foot, press the two buttons and pull it down.": what, and then how.
        let here = |e: &Deed| e.sentence == d.sentence && e.half == d.half;
        let again = |e: &Deed| here(e) && e.act == Act::Remove && e.what == d.what;
        let how = |e: &Deed| here(e) && matches!(e.act, Act::Release | Act::Unscrew);
        let tells_how = || ahead.clone().take(4).position(again).is_some_and(|at| ahead.clone().take(at).any(how));
        if d.act == Act::Remove && !d.what.is_empty() && tells_how() {
            continue;
        }
        // "Slide the lock and pull the ribbon out.": another plug than those before and behind.
        let ribbon = d.what.iter().any(|w| matches!(w.as_str(), "ribbon" | "flex"));
        let unlocked = ribbon && out.last().is_some_and(|e| e.act == Act::Release && e.sentence == d.sentence);
        // "Pull the plug and not the wires. Disconnect the cell.": how, and then what.
        let told_next = bare_plug(&d)
            && !unlocked
            && all[n + 1..]
                .iter()
                .take(2)
                .any(|e| e.act == d.act && e.half == d.half && !bare_plug(e) && e.sentence <= d.sentence + 2);
        let named_next = d.because != "unplugged"
            && all[n + 1..].iter().take(2).any(|e| e.half == d.half && e.because == "unplugged" && same_plug(&d, e));
        if told_next || named_next {
            continue;
        }
        // "Now route the wires. The speaker wires go behind this post.": announced, and then each.
        let fuller = |e: &Deed| {
            let same = |w: &String| {
                d.what.iter().any(|all| w.strip_suffix(all.as_str()).is_some_and(|own| own.ends_with(' ')))
            };
            e.act == d.act && e.half == d.half && e.sentence <= d.sentence + 1 && e.what.iter().all(same)
        };
        let all_of_them = d.act == Act::Route && d.places.is_empty() && d.what.len() == 1;
        if all_of_them && all.get(n + 1).is_some_and(fuller) {
            continue;
        }
        // "Before you put the new screen in, move the bracket over. … Put the new screen in."
        let surer = |e: &Deed| e.act == d.act && e.half == d.half && e.what == d.what && e.confidence > d.confidence;
        if d.act == Act::Install && d.confidence < 0.7 && d.because == "put in" && ahead.clone().any(surer) {
            continue;
        }
        // What was fitted is pressed and straightened with it.
        let bonded = d.act == Act::Press
            && (d.measures.iter().any(|m| m.quantity == Quantity::Duration)
                || d.what.iter().any(|w| {
                    GRAMMAR
                        .kind(&[lemma(w.rsplit(' ').next().unwrap_or(w))])
                        .is_some_and(|k| matches!(k, Kind::Tape | Kind::Glue))
                }));
        if matches!(d.act, Act::Press | Act::Adjust | Act::Close)
            && !bonded
            && out.iter().rev().take(3).any(|e| {
                matches!(e.act, Act::Install | Act::Connect | Act::Apply)
                    && e.what == d.what
                    && e.half == d.half
                    && d.sentence <= e.sentence + 2
            })
        {
            continue;
        }
        // "Fold the screen down and snap it into place."
        let shut =
            |e: &Deed| e.act == Act::Close && e.half == d.half && e.what == d.what && d.sentence <= e.sentence + 1;
        if d.act == Act::Install && !d.what.is_empty() && out.last().is_some_and(shut) {
            continue;
        }
        if d.act == Act::Adjust
            && all.get(n + 1).is_some_and(|e| {
                e.sentence == d.sentence && matches!(e.act, Act::Install | Act::Connect) && e.what == d.what
            })
        {
            continue;
        }
        // "Tear the paper off. Stick the tape on. Tear the paper off.": twice, with work in between.
        // and a device that is turned again lies otherwise.
        let near = if matches!(d.act, Act::Peel | Act::Press | Act::Turn) { 1 } else { 6 };
        // "It lifts out. Undo this little screw.": of the next part.
        let moved =
            |e: &&Deed| matches!(e.act, Act::Remove | Act::Install) && d.act == Act::Unscrew && d.what.is_empty();
        // "Take out these screws and unplug this connector.": after other work, another plug.
        let since = |e: &Deed| {
            let later = out.iter().rev().take_while(|k| k.start > e.start);
            later.filter(|k| matches!(k.act, Act::Unscrew | Act::Remove | Act::Open)).count() > 0
        };
        let again = out.iter().rev().take(near).take_while(|e| !moved(e)).any(|e| {
            e.act == d.act
                && e.half == d.half
                && !elsewhere(e, &d)
                && d.sentence <= e.sentence + 4
                && (e.what == d.what
                    || same_plug(e, &d)
                    || bare_plug(&d) && !unlocked && !since(e)
                    || shorter(&d.what, &e.what)
                    || d.what.is_empty() && d.act != Act::Remove && d.because != "into the wall")
                && (d.act != Act::Pry || d.by.is_none() || d.by == e.by)
                && (e.count == d.count || d.count.is_none())
        });
        // "We'll loosen those screws. I'm giving each one a few turns."
        let loose = |e: &Deed| {
            matches!(e.act, Act::Unscrew | Act::Loosen)
                && e.half == d.half
                && e.what == d.what
                && d.sentence <= e.sentence + 2
        };
        if d.because == "screws given a turn" && out.last().is_some_and(loose) {
            continue;
        }
        let waited = |e: &Deed| e.act == Act::Wait && e.sentence == d.sentence && e.measures == d.measures;
        if d.act == Act::Wait && out.last().is_some_and(waited) {
            continue;
        }
        if again && !matches!(d.act, Act::Wait | Act::Apply) && d.because != MORE_SHOWN {
            continue;
        }
        out.push(d);
    }
    deeds.extend(out);
}
