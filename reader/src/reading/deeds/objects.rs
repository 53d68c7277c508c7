//! What each act is done to: names for "it", what screws hold, whom a cable serves; and what was told twice.

use super::super::Act;
use super::super::facts::Drive;
use super::super::lexicon::{LEXICON, lemma};
use super::super::phrases::describes_cable;
use super::super::wording::Whereabouts;
use super::afterwards::{doubled, implied, trials};
use super::grammar::{GRAMMAR, Kind};
use super::names::{describes_screw, is_cable, name, placed, plug_names, tells_where};
use super::phrases::Phrase;
use super::told::{Sentenced, Told, has};
use super::{Deed, Half, Need};
use crate::units::{Measure, Quantity};
use std::collections::{BTreeMap, BTreeSet};

/// What is on the bench while the narration goes on.
#[derive(Debug, Default)]
struct Bench {
    /// Parts that are out, by name.
    out: Vec<String>,
    /// The part in work.
    at: Option<String>,
    /// The last cable or plug.
    plug: Option<String>,
    /// Screws and latches told before the thing that they hold: places in the list of deeds.
    waiting: Vec<usize>,
    power_trial: bool,
    /// Temperatures that a heater was set to, until it heats something.
    warmth: Vec<Measure>,
    /// The only drive of the whole recording, and the one named last.
    only_driver: Option<Drive>,
    driver: Option<(usize, Drive)>,
    /// What came off last: "the new one" takes its place.
    last_out: Option<String>,
    /// Full names by their last word: "board" is the main board where only one board was named.
    full: BTreeMap<String, BTreeSet<String>>,
    /// Last words of everything named so far.
    named: BTreeSet<String>,
    /// What went in last: screws that go in behind it are its own.
    fitted: Option<String>,
    /// What the last screws held.
    screws: Option<String>,
    /// The device itself, as first named.
    device: Option<String>,
    /// What was warmed last, with the sentence: what holds it is soft, so that it is parted next.
    warmed: Option<(usize, String)>,
}

impl Bench {
    /// Puts the only full name known in the place of its last word, and learns full names.
    fn full_name(&mut self, name: &mut String) {
        match name.rsplit_once(' ') {
            Some((_, last)) => {
                let last = lemma(last).to_string();
                self.full.entry(last).or_default().insert(name.clone());
            }
            None => {
                let known = self.full.get(lemma(name).as_str()).filter(|full| full.len() == 1);
                match known.and_then(|k| k.first()) {
                    Some(full) => name.clone_from(full),
                    // A device has one main board, and only that one goes without a name.
                    None if name == "board" => "main board".clone_into(name),
                    None => {}
                }
            }
        }
    }
}

/// Jobs that are told and not done: what has to come off first to reach something.
fn needs(told: &[Sentenced]) -> Vec<Need> {
    let mut out: Vec<(usize, Need)> = Vec::new();
    let mut chains: Vec<Need> = Vec::new();
    for s in told {
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
            let need =
                Need { target: name(target), after: after.iter().map(name).collect(), start: s.span.0, end: s.span.1 };
            chains.push(need);
            continue;
        }
        match &s.target {
            Some(target) if !supposed.is_empty() => {
                let target = name(target);
                let after = after.into_iter().filter(|a| *a != target).collect();
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

/// The word for the whole device: one that the title has, else the first.
fn device(told: &[Sentenced], title: &str) -> Option<String> {
    let title = title.to_lowercase();
    let named = |d: &&String| d.rsplit(' ').next().is_some_and(|w| has(&title, w));
    let devices = || told.iter().flat_map(|s| &s.devices);
    let titled =
        || title.split(|c: char| !c.is_alphanumeric()).find(|w| GRAMMAR.kind(&[lemma(w)]) == Some(Kind::Device));
    devices().find(named).cloned().or_else(|| titled().map(str::to_owned)).or_else(|| devices().next().cloned())
}

pub(super) fn settle(told: Vec<Sentenced>, halves: &[Vec<Half>], title: &str) -> (Vec<Deed>, Vec<Need>) {
    let needs = needs(&told);
    let mut deeds: Vec<Deed> = Vec::new();
    let device = device(&told, title);
    let named: BTreeSet<Drive> = told.iter().flat_map(|s| s.drivers.iter().copied()).collect();
    let only = named.first().copied().filter(|_| named.len() == 1);
    let mut bench = Bench { device, only_driver: only, ..Bench::default() };
    for (s, halves) in told.iter().zip(halves) {
        if let [one] = s.drivers[..] {
            bench.driver = Some((s.number, one));
        }
        if s.thanks && s.acts.len() < 2 && s.words.len() < 8 {
            continue;
        }
        if let Some(part) = &s.opens_with {
            bench.at = Some(name(part));
        }
        for (a, half) in s.acts.iter().zip(halves) {
            if a.hypothetical {
                continue;
            }
            deed(s, a, *half, &mut bench, &mut deeds);
        }
        if let Some((part, told)) = s.leads_to.as_ref().filter(|_| s.acts.is_empty()) {
            row_of_plugs(s, part, *told, &bench, &mut deeds);
        }
        // "It takes 4 to 6 minutes.": belongs to what is being heated, pressed or waited for.
        if s.acts.is_empty()
            && let Some(last) = deeds
                .last_mut()
                .filter(|d| d.sentence + 2 >= s.number && matches!(d.act, Act::Heat | Act::Press | Act::Wait))
        {
            last.measures.extend(s.measures.iter().cloned());
        }
        if let Some(thing) =
            s.topic.iter().find(|p| p.kind == Kind::Part && (p.definite || s.heading) && p.words.len() < 5)
            && s.acts.is_empty()
            && !bench.out.contains(&name(thing))
        {
            bench.at = Some(name(thing));
        }
    }
    doubled(&mut deeds);
    implied(&mut deeds);
    trials(&mut deeds);
    (deeds, needs)
}

/// "Lift up the flap. That one is for the buzzer. This goes to the printer. And that's the speaker.": while a row of
/// plugs comes off, each is named by what it leads to.
fn row_of_plugs(s: &Sentenced, part: &Phrase, told: bool, bench: &Bench, deeds: &mut Vec<Deed>) {
    const BECAUSE: &str = "shown in a row of plugs";
    let Some(last) = deeds.iter().rev().find(|d| d.act != Act::Remove || !d.what.is_empty()) else { return };
    let latch = last.act == Act::Release
        && last.what.iter().any(|w| GRAMMAR.kind(&[lemma(w.rsplit(' ').next().unwrap_or(w))]) == Some(Kind::Lever));
    let row = latch || last.because == BECAUSE || last.act == Act::Disconnect && told;
    let what = vec![name(part)];
    if last.half != Half::Apart
        || !row
        || s.number > last.sentence + 2
        || bench.out.contains(&what[0])
        || last.what == what
    {
        return;
    }
    let plug = Deed {
        act: Act::Disconnect,
        what,
        by: None,
        count: None,
        places: Vec::new(),
        manner: Vec::new(),
        until: None,
        measures: Vec::new(),
        cue: s.cue,
        start: s.span.0,
        end: s.span.1,
        sentence: s.number,
        confidence: 0.5,
        because: BECAUSE,
        ..last.clone()
    };
    deeds.push(plug);
}

fn deed(s: &Sentenced, a: &Told, half: Half, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    let told_half = half;
    let mut half = half;
    let meant = match half {
        // A button that is pressed lets go of something only while things come apart.
        Half::Together => a.together.or(a.apart.filter(|(_, why)| !why.starts_with("a button"))),
        // Nothing goes in while things come apart; what reads so is a knack or a tool.
        _ => a.apart.or(a.together.filter(|(act, _)| matches!(act, Act::Apply | Act::Adjust))),
    };
    let (mut act, because) = match meant {
        Some(m) => m,
        None if a.fragment => {
            fragments(s, a, half, bench, deeds);
            return;
        }
        None if a.elliptic => {
            if half == Half::Apart
                && a.objects.iter().all(|o| o.kind == Kind::Part)
                && deeds.last().is_some_and(|d| d.act == Act::Disconnect)
            {
                return;
            }
            let Some(last) = deeds.last().filter(|d| d.sentence + 2 >= s.number).map(|d| d.act) else { return };
            let kind = a.objects.first().map(|o| o.kind);
            // "Connect the digitizer first, then the display": the verb of the sentence goes on.
            // What is out goes in, whatever was done before.
            let out = a.objects.first().is_some_and(|o| bench.out.contains(&name(o)));
            let same_sentence = deeds.last().is_some_and(|d| d.sentence == s.number);
            let act = match (half, kind) {
                (Half::Together, Some(Kind::Screw)) => Act::Drive,
                (Half::Together, Some(Kind::Plug)) => Act::Connect,
                (Half::Together, Some(Kind::Part)) if out && !(same_sentence && last == Act::Connect) => Act::Install,
                (Half::Apart, Some(Kind::Part)) if last == Act::Unscrew => Act::Remove,
                (Half::Together, Some(Kind::Part)) if last == Act::Drive || last == Act::Connect && !same_sentence => {
                    Act::Install
                }
                // Nothing is tried, waited for or noted by being named.
                (Half::Together, Some(Kind::Part))
                    if matches!(last, Act::Test | Act::Wait | Act::Mark | Act::PowerOn) =>
                {
                    return;
                }
                (Half::Apart, Some(Kind::Screw)) => Act::Unscrew,
                (Half::Apart, Some(Kind::Plug)) if matches!(last, Act::Disconnect | Act::Remove) => Act::Disconnect,
                _ => last,
            };
            (act, "goes on with the act before")
        }
        None => return,
    };
    // "Put in the card": one that came out, and no tool.
    let card = a.objects.first().filter(|o| act == Act::Pry && half == Half::Together && o.kind == Kind::Opener);
    let own = card.and_then(|o| bench.out.iter().find(|w| w.split(' ').next_back() == Some(o.head()))).cloned();
    if own.is_some() {
        act = Act::Install;
    }
    if act == Act::Tighten && a.objects.is_empty() {
        return;
    }
    // "The back comes off to about 60 degrees.": it is opened.
    let stiff = a.objects.iter().all(|o| matches!(o.kind, Kind::Part | Kind::Pronoun));
    if act == Act::Remove && half == Half::Apart && stiff && a.measures.iter().any(|m| m.quantity == Quantity::Angle) {
        act = Act::Open;
    }
    // "Go round a little at a time.": screws, and no pick.
    if act == Act::Pry && half == Half::Together && a.objects.is_empty() && a.by.is_none() {
        return;
    }
    if half == Half::Together && matches!(act, Act::Unscrew | Act::Disconnect | Act::Pry) && a.presented {
        return;
    }
    let mut what: Vec<String> = Vec::new();
    match act {
        Act::Install if own.is_some() => what.extend(own),
        // "Put a towel under the robot."
        Act::Protect if a.objects.iter().all(|o| o.kind == Kind::Nothing) => {
            what.extend(a.objects.iter().take(1).map(name));
        }
        Act::Unscrew | Act::Loosen | Act::Drive | Act::Tighten => {
            what = held(a, bench, act);
        }
        Act::Pry => what = pried(a, bench, s.number),
        Act::Release | Act::Close if a.objects.iter().any(|o| matches!(o.kind, Kind::Latch | Kind::Lever)) => {
            what = a.objects.iter().map(|o| latch_name(o, bench)).collect();
        }
        // The mains plug is the device's own.
        Act::Connect if because == "into the wall" => {}
        Act::Disconnect | Act::Connect => {
            for o in &a.objects {
                // "plug it in", said of the whole thing while a latch was spoken of last.
                if o.stands && matches!(o.kind, Kind::Lever | Kind::Latch | Kind::Film) {
                    continue;
                }
                if o.is_pronoun() {
                    what.extend(bench.plug.clone());
                } else {
                    what.extend(plug_names(o));
                }
            }
            // "On the radio board you only remove the cable."
            if let ([plug], Some((_, at))) =
                (&mut what[..], a.places.iter().find(|(p, np)| p == "on" && np.kind == Kind::Part && np.definite))
                && plug.split(' ').all(is_cable)
            {
                *plug = format!("{} {plug}", name(at));
            }
        }
        Act::Heat
            if !a.objects.is_empty()
                && a.objects.iter().all(|o| {
                    let bare =
                        o.words.len() == 1 && matches!(o.head(), "mat" | "pad" | "plate" | "block" | "bag" | "iron");
                    bare || o.kind == Kind::Heater
                })
                && !(bench.at.is_some() && a.measures.iter().any(|m| m.quantity == Quantity::Duration)) =>
        {
            // The heater is set; what it heats comes behind.
            bench.warmth.extend(a.measures.iter().cloned());
            return;
        }
        Act::Heat => {
            let places = a
                .places
                .iter()
                .filter(|(p, np)| {
                    matches!(p.as_str(), "to" | "around" | "on" | "at" | "over" | "along") && np.kind != Kind::Heater
                })
                .map(|(_, np)| np);
            let on = a
                .objects
                .iter()
                .filter(|o| !matches!(o.kind, Kind::Heat | Kind::Heater))
                .chain(places)
                .find(|o| o.is_thing() || !o.of.is_empty());
            what = on.map(|o| one(o, bench)).unwrap_or_default();
            if what.is_empty() {
                what.extend(bench.at.clone());
            }
        }
        Act::PowerOff | Act::PowerOn | Act::Unplug if a.objects.iter().all(|o| o.is_pronoun() || o.stands) => {
            what = bench.device.clone().into_iter().collect();
        }
        Act::Unplug => what = a.objects.iter().filter(|o| o.kind == Kind::Device).map(name).collect(),
        Act::PowerOff | Act::PowerOn => {
            what = a
                .objects
                .iter()
                .filter(|o| matches!(o.kind, Kind::Device | Kind::Part | Kind::Key))
                .map(name)
                .collect();
        }
        Act::Wait => {}
        // The probes are held to something: that is measured.
        Act::Measure if a.objects.iter().all(|o| o.kind == Kind::Meter) => {
            let at = a.places.iter().map(|(_, np)| np).find(|np| np.is_thing());
            what = at.map(|np| one(np, bench)).unwrap_or_default();
        }
        // Books are laid on: the part below is pressed.
        Act::Press if !a.objects.is_empty() && a.objects.iter().all(|o| o.kind == Kind::Weight) => {
            let below = a.places.iter().find(|(p, np)| matches!(p.as_str(), "on" | "onto" | "over") && np.is_thing());
            what = below.map(|(_, np)| one(np, bench)).unwrap_or_else(|| bench.at.clone().into_iter().collect());
        }
        Act::Clean if a.objects.iter().any(|o| o.kind == Kind::Nothing && o.of.is_empty() && !o.said.is_empty()) => {
            what = a.objects.iter().filter(|o| !o.is_pronoun()).take(1).map(name).collect();
        }
        Act::Clean
            if a.objects.iter().all(|o| matches!(o.kind, Kind::Dirt | Kind::Glue | Kind::Tape | Kind::Material)) =>
        {
            let place = a
                .places
                .iter()
                .find(|(p, np)| !matches!(p.as_str(), "with" | "using") && (np.is_thing() || !np.of.is_empty()));
            what = place.map(|(_, np)| np).or(a.objects.first()).map(|o| one(o, bench)).unwrap_or_default();
        }
        Act::Mark => {
            for o in &a.objects {
                match o.kind {
                    Kind::Screw => {
                        what.push(bench.screws.as_ref().map_or("screws".to_owned(), |h| format!("{h} screws")))
                    }
                    Kind::Picture => {
                        let named = o.of.iter().rev().find(|p| p.is_thing() && !p.is_pronoun()).map(name);
                        // "a picture of that": of the cables just spoken of, or of what is in work.
                        let that = || o.of.first().and_then(|_| bench.plug.clone().or(bench.at.clone()));
                        what.extend(named.or_else(that));
                    }
                    _ => what.extend(one(o, bench)),
                }
            }
        }
        // "Slip the radio out of its sleeve": the sleeve comes off.
        Act::Remove
            if a.objects.iter().any(|o| o.kind == Kind::Device)
                && a.places.iter().any(|(p, np)| matches!(p.as_str(), "of" | "from") && np.kind == Kind::Part) =>
        {
            what.extend(
                a.places
                    .iter()
                    .find(|(p, np)| matches!(p.as_str(), "of" | "from") && np.kind == Kind::Part)
                    .map(|(_, np)| name(np)),
            );
        }
        // The device is turned; "it" is the device.
        Act::Turn => {
            let pronoun = a.objects.iter().all(|o| o.is_pronoun() || o.stands);
            what = if pronoun {
                bench.device.clone().into_iter().collect()
            } else {
                a.objects.iter().take(1).flat_map(|o| one(o, bench)).collect()
            };
        }
        Act::Test => {
            what = a
                .objects
                .iter()
                .filter(|o| o.is_thing() || o.kind == Kind::Picture)
                .flat_map(|o| one(o, bench))
                .collect();
            half = Half::Check;
            bench.power_trial |= told_half == Half::Together;
        }
        _ => {
            for o in &a.objects {
                if o.kind == Kind::Nothing && o.of.is_empty() {
                    continue;
                }
                what.extend(one(o, bench));
            }
        }
    }
    // "The book is out": talk, where nothing was done yet.
    if a.result && deeds.is_empty() {
        return;
    }
    if matches!(act, Act::PowerOn) {
        bench.power_trial = true;
        let tried = s.acts.iter().any(|b| b.apart.is_some_and(|(act, _)| act == Act::Test))
            || ["see if", "check", "work", "test", "whether"].iter().any(|w| s.words.join(" ").contains(w));
        half = if tried || half == Half::Apart { Half::Check } else { Half::Together };
    }
    if matches!(act, Act::PowerOff) && bench.power_trial {
        half = Half::Check;
    }
    if a.result && act == Act::Remove && what.iter().any(|w| bench.out.contains(w)) {
        return;
    }
    // "after the plug is pulled": tells when, and not which plug.
    let bare = |o: &Phrase| o.kind == Kind::Plug && o.words.iter().all(|w| describes_cable(w));
    if a.result && act == Act::Disconnect && a.objects.iter().all(bare) {
        return;
    }
    // "when the cell is disconnected": told before, by a longer name.
    if a.result
        && act == Act::Disconnect
        && deeds
            .iter()
            .rev()
            .take(4)
            .any(|d| d.act == act && d.what.iter().any(|w| what.iter().any(|v| w.starts_with(v.as_str()))))
    {
        return;
    }
    // "Take the lid off the bench and slide it on.": it was off.
    if act == Act::Remove
        && told_half == Half::Together
        && !what.is_empty()
        && what.iter().all(|w| bench.out.contains(w))
    {
        return;
    }
    // "It comes out with the diffuser.": says of the part just taken out that it is.
    if act == Act::Remove
        && !what.is_empty()
        && a.objects.iter().any(|o| o.is_pronoun() || o.stands)
        && deeds.last().is_some_and(|d| d.act == Act::Remove && d.what == what && s.number == d.sentence + 1)
    {
        return;
    }
    // A part that is off cannot leave again.
    if act == Act::Remove
        && half == Half::Apart
        && !what.is_empty()
        && a.objects.iter().all(|o| o.is_pronoun() || o.to == o.from + 1)
        && what.iter().all(|w| bench.out.contains(w))
    {
        what.clear();
    }
    if matches!(act, Act::Remove) && a.objects.is_empty() {
        if a.particles.is_empty() {
            return;
        }
        what.extend(bench.at.clone());
    }
    // "Make sure the arrow points up.": set right, and only in the rebuild.
    if act == Act::Test && a.making_sure {
        if half == Half::Apart || told_half == Half::Apart {
            return;
        }
        act = Act::Adjust;
        half = Half::Together;
    }
    // A bar of a connector is its latch.
    if act == Act::Open && a.objects.iter().any(|o| o.of.iter().any(|p| p.kind == Kind::Plug)) {
        act = Act::Release;
    }
    // Old glue scraped away under a part, or a case opened with a tool: parted.
    let tool = a
        .by
        .as_deref()
        .is_some_and(|t| matches!(t, "opening pick" | "pry tool" | "spudger" | "knife" | "spatula" | "steel strip"));
    if half == Half::Apart
        && tool
        && (act == Act::Open
            || act == Act::Clean
                && a.places.iter().any(|(p, _)| matches!(p.as_str(), "under" | "underneath" | "behind")))
    {
        act = Act::Pry;
    }
    // A tool under a plug undoes the plug.
    let under = |p: &str| matches!(p, "under" | "underneath" | "beneath" | "below" | "between");
    let plug = a.places.iter().any(|(p, np)| np.kind == Kind::Plug && under(p))
        || a.objects.iter().any(|o| o.kind == Kind::Plug);
    if act == Act::Pry && plug {
        act = Act::Disconnect;
    }
    // Laid aside after it came off is no second removal.
    if act == Act::Remove
        && a.aside
        && deeds.iter().rev().take(2).any(|d| {
            let plug = d.act == Act::Disconnect && what.iter().all(|w| w.rsplit(' ').next().is_some_and(is_cable));
            (matches!(d.act, Act::Remove | Act::Peel | Act::Clean) || plug) && (d.what == what || what.is_empty())
        })
    {
        return;
    }
    for w in &mut what {
        bench.full_name(w);
    }
    // An aerial that is unclipped or pressed on is its plug.
    if !what.is_empty() && what.iter().all(|w| w.ends_with("antenna") || w.ends_with("aerial")) {
        act = match act {
            Act::Release => Act::Disconnect,
            Act::Press => Act::Connect,
            act => act,
        };
    }
    // Nothing named and nothing in work: only acts that need no thing stand alone.
    let bare = what.is_empty();
    let alone = matches!(
        act,
        Act::Pry
            | Act::Wait
            | Act::PowerOff
            | Act::PowerOn
            | Act::Unplug
            | Act::Turn
            | Act::Protect
            | Act::Clean
            | Act::Unscrew
            | Act::Loosen
            | Act::Drive
            | Act::Tighten
            | Act::Disconnect
            | Act::Connect
            | Act::Heat
            | Act::Press
            | Act::Remove
            | Act::Install
            | Act::Peel
            | Act::Measure
    );
    if bare && !alone && because != "a test run" {
        return;
    }
    // "Put it all back together.": summed up, and no act.
    if act == Act::Install
        && a.particles.iter().any(|p| p == "together")
        && a.objects.iter().all(|o| o.is_pronoun() || o.stands)
    {
        return;
    }
    // "You have to take off everything we just did."
    if a.objects.iter().any(|o| o.is_pronoun() && matches!(o.head(), "everything" | "anything" | "nothing")) {
        return;
    }
    // "Everything goes back together": summed up, and no act.
    if bare && a.objects.iter().any(|o| matches!(o.head(), "everything" | "all")) {
        return;
    }
    if bare && matches!(act, Act::Install | Act::Press | Act::Peel | Act::Adjust) && a.objects.is_empty() {
        return;
    }
    let waits = bare && matches!(act, Act::Unscrew | Act::Pry | Act::Release | Act::Loosen);
    let n = deeds.len();
    if a.presented
        && let Some(last) = deeds.iter_mut().rev().take(3).take_while(|d| !moves(d.act)).find(|d| {
            d.act == act
                && d.half == half
                && s.number <= d.sentence + 3
                && (d.count.is_none() || d.count == a.count)
                && (what.is_empty() || d.what == what || d.what.is_empty())
        })
    {
        last.count = last.count.or(a.count);
        if last.what.is_empty() {
            last.what = what;
        }
        return;
    }
    // Screws shown first and undone then are one act.
    if act == Act::Unscrew
        && !a.presented
        && let Some(shown) = deeds.iter_mut().rev().take(2).find(|d| {
            d.because.starts_with("screws are")
                && d.act == Act::Unscrew
                && s.number <= d.sentence + 4
                && (a.count.is_none() || d.count == a.count)
                && (what.is_empty() || d.what.is_empty() || d.what == what)
        })
    {
        if !what.is_empty() {
            shown.what = what;
        }
        shown.because = because;
        shown.confidence = 0.85;
        shown.sentence = s.number;
        shown.cue = a.cue;
        return;
    }
    if matches!(act, Act::Remove | Act::Open | Act::Pry)
        && half == Half::Apart
        && let Some(part) = what.first()
    {
        for i in std::mem::take(&mut bench.waiting) {
            if deeds[i].what.is_empty() && deeds[i].sentence + 8 > s.number {
                deeds[i].what = vec![part.clone()];
            }
        }
    }
    if matches!(act, Act::Install) && half == Half::Together {
        bench.waiting.clear();
    }
    // "pry off the bezel": parted, and off.
    let prised_off = act == Act::Pry
        && a.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away"))
        && !a.objects.iter().any(|o| o.kind == Kind::Opener);
    let screws = matches!(act, Act::Unscrew | Act::Loosen | Act::Drive | Act::Tighten);
    let recent = bench.driver.filter(|(at, _)| at + 2 >= s.number).map(|(_, d)| d);
    let drive = a.drive.or_else(|| recent.or(bench.only_driver).filter(|_| screws));
    let by =
        if screws { drive.map(|d| format!("{} screwdriver", d.name())).or_else(|| a.by.clone()) } else { a.by.clone() };
    let told = a.places.iter().filter(|(p, np)| tells_where(p, np));
    let places: Vec<Whereabouts> =
        told.map(|(p, np)| Whereabouts { preposition: p.clone(), thing: placed(np) }).collect();
    let make = |act: Act, what: Vec<String>| Deed {
        act,
        half,
        what,
        by: by.clone(),
        count: a.count,
        drive,
        bit: a.bit.clone(),
        length_mm: a.length_mm,
        groups: Vec::new(),
        cue: a.cue,
        start: a.start,
        end: a.end,
        confidence: a.confidence,
        future: a.future,
        places: places.clone(),
        manner: a.manner.clone(),
        until: a.until.clone(),
        measures: a.measures.clone(),
        new: a.new,
        because,
        sentence: s.number,
    };
    // "Press the ring on for 30 seconds.": what is out goes in with it.
    let pressed_in = act == Act::Press
        && half == Half::Together
        && a.particles.iter().any(|p| matches!(p.as_str(), "on" | "in" | "back" | "onto" | "into"))
        && what.iter().any(|w| bench.out.contains(w));
    if pressed_in {
        deeds.push(make(Act::Install, what.clone()));
        bench.out.retain(|p| !what.contains(p));
    }
    deeds.push(make(act, what.clone()));
    if let (Act::Heat, Some(part)) = (act, what.first()) {
        bench.warmed = Some((s.number, part.clone()));
    }
    if act == Act::Heat
        && let Some(heat) = deeds.last_mut()
    {
        heat.measures.append(&mut bench.warmth);
    }
    if waits {
        bench.waiting.push(n);
    }
    if prised_off {
        deeds.push(Deed { by: None, ..make(Act::Remove, what.clone()) });
    }
    bench.named.extend(what.iter().filter_map(|w| w.split(' ').next_back()).map(|w| lemma(w).to_string()));
    match act {
        Act::Remove => {
            bench.out.extend(what.iter().cloned());
            bench.last_out = what.first().cloned().or(bench.last_out.take());
            bench.at = None;
            bench.plug = None;
        }
        Act::Install => {
            bench.fitted = what.first().cloned().or(bench.fitted.take());
            bench.out.retain(|p| !what.contains(p));
            bench.at = what.first().cloned().or(bench.at.take());
        }
        Act::Disconnect | Act::Connect => {
            bench.plug = what.last().cloned().or(bench.plug.take());
        }
        Act::Unscrew | Act::Loosen if what.first().is_some_and(|w| w != "screws") => {
            bench.screws = what.first().cloned();
            bench.at = what.first().cloned();
        }
        Act::Pry
        | Act::Open
        | Act::Heat
        | Act::Unscrew
        | Act::Loosen
        | Act::Release
        | Act::Protect
        | Act::Clean
        | Act::Apply
        | Act::Peel
        | Act::Adjust
        | Act::Press
        | Act::Turn => {
            let worn = a.objects.iter().any(|o| matches!(o.kind, Kind::Strap | Kind::Lever | Kind::Latch));
            if let Some(w) = what.first().filter(|w| *w != "screws" && !worn) {
                bench.at = Some(w.clone());
            }
        }
        _ => {}
    }
    if prised_off {
        bench.out.extend(what);
    }
}

/// Places for leads.
fn laid_in(place: &str) -> bool {
    matches!(place, "slot" | "groove" | "channel" | "clip" | "hook" | "guide" | "duct")
}

/// A part leaves or goes in: screws told before and behind are two groups.
fn moves(act: Act) -> bool {
    matches!(act, Act::Remove | Act::Install)
}

/// "Wide tag, narrow tag, and four screws.": in the rebuild, what is out goes back by being named.
fn fragments(s: &Sentenced, a: &Told, half: Half, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    if half != Half::Together {
        return;
    }
    for o in &a.objects {
        let act = match o.kind {
            Kind::Screw => Act::Drive,
            Kind::Plug if a.places.iter().any(|(p, np)| p == "in" && laid_in(np.head())) => Act::Route,
            Kind::Plug => Act::Connect,
            _ if bench.out.iter().any(|w| w.rsplit(' ').next() == o.said.last().map(|s| s.as_str())) => Act::Install,
            _ => continue,
        };
        let one = Told {
            together: Some((act, "named in the rebuild")),
            objects: vec![o.clone()],
            count: o.count.filter(|_| o.kind == Kind::Screw),
            fragment: false,
            elliptic: false,
            ..a.clone()
        };
        deed(s, &one, half, bench, deeds);
    }
}

/// The names that a phrase stands for.
fn one(o: &Phrase, bench: &Bench) -> Vec<String> {
    if o.guess && matches!(o.kind, Kind::Part | Kind::Nothing) && bench.at.is_some() {
        return bench.at.clone().into_iter().collect();
    }
    if o.is_pronoun() && o.new {
        return bench.last_out.clone().into_iter().collect();
    }
    if o.is_pronoun() {
        return bench.at.clone().into_iter().collect();
    }
    if o.kind == Kind::Nothing {
        return o.of.first().filter(|p| p.is_thing() && !p.is_pronoun()).map(name).into_iter().collect();
    }
    vec![name(o)]
}

fn latch_name(o: &Phrase, bench: &Bench) -> String {
    if !o.of.is_empty() || o.words.len() > 1 {
        return name(o);
    }
    match &bench.at {
        Some(at) => format!("{at} {}", o.text()),
        None => o.text(),
    }
}

/// What screws hold: told, in their name, or the thing in work.
fn held(a: &Told, bench: &Bench, act: Act) -> Vec<String> {
    for o in &a.objects {
        match o.kind {
            Kind::Screw => {
                if let Some(of) = o.of.iter().find(|p| p.is_thing() && !p.is_pronoun()) {
                    return vec![name(of)];
                }
                // A mishearing of the drive is no owner.
                let known = |w: &str| LEXICON.part_heads.at(&[w], 0).is_some() || bench.named.contains(w);
                let owner: Vec<&str> =
                    o.words.iter().zip(&o.said).filter(|(w, _)| !describes_screw(w)).map(|(_, s)| s.as_str()).collect();
                if owner.last().is_some_and(|w| known(&lemma(w))) || owner.len() > 1 {
                    return vec![owner.join(" ")];
                }
            }
            Kind::Pronoun | Kind::Nothing => {}
            _ if o.words.iter().all(|w| describes_screw(w)) => {}
            _ => return vec![name(o)],
        }
    }
    let place = a.places.iter().find(|(p, np)| {
        matches!(p.as_str(), "from" | "of" | "on" | "in" | "into" | "at" | "for" | "by" | "to" | "onto")
            && (np.kind == Kind::Part || np.kind == Kind::Plug)
            && !np.is_pronoun()
            && !matches!(np.head(), "mat" | "tray" | "hole" | "foot" | "row" | "cup")
    });
    if let Some((_, np)) = place {
        return vec![name(np)];
    }
    if matches!(act, Act::Drive | Act::Tighten) {
        let routed = bench.at.as_ref().is_some_and(|at| at.split(' ').any(is_cable));
        let fitted = bench.fitted.as_ref().filter(|_| routed);
        return fitted.or(bench.at.as_ref()).cloned().into_iter().collect();
    }
    if let Some(aim) = a.aim.as_ref().filter(|p| p.kind == Kind::Part) {
        return vec![name(aim)];
    }
    Vec::new()
}

/// What a tool parts: told as object or place, else the aim, else what is in work.
fn pried(a: &Told, bench: &Bench, now: usize) -> Vec<String> {
    let tool = |o: &Phrase| matches!(o.kind, Kind::Opener | Kind::Cup | Kind::Pinning);
    let with_tool = a.objects.iter().any(&tool);
    if let Some(o) = a
        .objects
        .iter()
        .filter(|_| !with_tool)
        .find(|o| !tool(o) && !matches!(o.kind, Kind::Nothing | Kind::Glue | Kind::Tape) && !o.is_pronoun())
    {
        return vec![name(o)];
    }
    let place = a.places.iter().find(|(p, np)| {
        matches!(
            p.as_str(),
            "under"
                | "between"
                | "underneath"
                | "beneath"
                | "below"
                | "behind"
                | "into"
                | "of"
                | "from"
                | "on"
                | "to"
                | "along"
                | "around"
                | "in"
        ) && (np.is_thing()
            && np.head() != "front"
            && !tool(np)
            && !np.is_pronoun()
            && !matches!(np.kind, Kind::Glue | Kind::Tape)
            || np.of.iter().any(|p| p.is_thing()))
    });
    if let Some((_, np)) = place {
        if np.is_thing() && !matches!(np.kind, Kind::Nothing) {
            return vec![name(np)];
        }
        return np.of.iter().find(|p| p.is_thing()).map(name).into_iter().collect();
    }
    if let Some(aim) = a.aim.as_ref().filter(|p| !p.is_pronoun() && !tool(p) && p.kind != Kind::Glue) {
        return vec![name(aim)];
    }
    let warmed =
        bench.warmed.as_ref().filter(|(at, part)| now - at <= 8 && !bench.out.contains(part)).map(|(_, part)| part);
    warmed.or(bench.at.as_ref()).cloned().into_iter().collect()
}
