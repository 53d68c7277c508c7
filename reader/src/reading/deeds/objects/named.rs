//! What an act is done to: told, or "it", or what was in work.
//!
//! Every act has its own idea of its object: screws are told by what they hold, a plug by what it serves, a tool by what
//! it goes under, alcohol by what it cleans.

use super::super::super::Act;
use super::super::super::lexicon::{LEXICON, lemma};
use super::super::super::numbers;
use super::super::grammar::{GRAMMAR, Kind};
use super::super::names::{describes_screw, is_cable, name, plug_names, tells_no_owner};
use super::super::phrases::Phrase;
use super::super::told::Told;
use super::bench::Bench;
use super::case::Case;
use crate::units::Quantity;

/// Names of the things that the act is done to; empty where nothing is named and nothing in work.
pub(super) fn named(c: &Case, bench: &Bench) -> Vec<String> {
    let a = c.a;
    match c.act {
        // "Put a towel under the robot."
        Act::Protect if a.objects.iter().all(|o| o.kind == Kind::Nothing) => {
            a.objects.iter().take(1).map(name).collect()
        }
        Act::Loosen if c.because == "slack given" => on_which(a, bench),
        Act::Unscrew | Act::Loosen | Act::Drive | Act::Tighten => held(c, bench),
        // "Separate the foam tape at the four edges."
        Act::Pry if c.because == "tape parted" => a.objects.iter().take(1).map(name).collect(),
        Act::Pry => pried(a, bench, c.s.number),
        Act::Release | Act::Close if a.objects.iter().any(|o| matches!(o.kind, Kind::Latch | Kind::Lever)) => {
            // "Slide the lock on the ribbon.": the ribbon's.
            let cable = |np: &Phrase| matches!(np.head(), "ribbon" | "flex" | "cable");
            let plug = a.places.iter().find(|(p, np)| matches!(p.as_str(), "on" | "of") && cable(np));
            let bare = |o: &&Phrase| o.of.is_empty() && o.words.len() == 1;
            let its = |o: &Phrase| match plug.filter(|_| bare(&o)) {
                Some((_, plug)) => format!("{} {}", name(plug), o.text()),
                None => latch_name(o, just_plugged(c, bench), bench),
            };
            a.objects.iter().map(its).collect()
        }
        // The mains plug is the device's own.
        Act::Connect if c.because == "into the wall" => Vec::new(),
        Act::Connect => {
            all_pulled(a, bench).unwrap_or_else(|| plugs(a, bench).into_iter().map(|w| pulled(c, bench, w)).collect())
        }
        Act::Disconnect => plugs(a, bench),
        Act::Heat => heated(a, bench),
        // "Shut the power off.": of the device.
        Act::PowerOff | Act::PowerOn | Act::Unplug
            if c.points() || a.objects.iter().all(|o| o.kind == Kind::Nothing) =>
        {
            bench.device.clone().into_iter().collect()
        }
        Act::Unplug => {
            // "Pull the mains lead.", "Unplug the charger."
            let lead =
                |o: &Phrase| matches!(o.kind, Kind::Part | Kind::Plug) && o.text() != "plug" && o.text() != "cord";
            let named = |o: &&Phrase| (o.kind == Kind::Device || lead(o)) && !matches!(o.head(), "power" | "mains");
            a.objects.iter().filter(named).map(name).collect()
        }
        Act::PowerOff | Act::PowerOn => {
            let switched = |o: &&Phrase| matches!(o.kind, Kind::Device | Kind::Part | Kind::Key);
            a.objects.iter().filter(switched).map(name).collect()
        }
        Act::Wait => Vec::new(),
        // "Bleed off the pressure.", "Line up the holes."
        Act::Drain | Act::Adjust if !a.objects.is_empty() && a.objects.iter().all(|o| o.kind == Kind::Nothing) => {
            a.objects.iter().take(1).map(name).collect()
        }
        Act::Measure if a.objects.iter().all(|o| o.kind == Kind::Meter) => measured(a, bench),
        Act::Press if matches!(c.because, "pressed all round" | "pressure put on") => {
            bench.at.clone().into_iter().collect()
        }
        Act::Press if !a.objects.is_empty() && a.objects.iter().all(|o| o.kind == Kind::Weight) => {
            weighed_down(a, bench)
        }
        Act::Clean if a.objects.iter().any(|o| o.kind == Kind::Nothing && o.of.is_empty() && !o.said.is_empty()) => {
            a.objects.iter().filter(|o| !o.is_pronoun()).take(1).map(name).collect()
        }
        Act::Clean
            if a.objects
                .iter()
                .all(|o| matches!(o.kind, Kind::Dirt | Kind::Glue | Kind::Tape | Kind::Material | Kind::Liquid)) =>
        {
            cleaned(a, bench)
        }
        Act::Mark if c.because == "a line scribed" => on_which(a, bench),
        Act::Mark => marked(a, bench),
        Act::Remove if a.objects.iter().any(|o| o.kind == Kind::Device) && sleeve(a).is_some() => {
            sleeve(a).map(name).into_iter().collect()
        }
        // "With the board out I flip it over.": the board.
        Act::Turn if c.points() && lies_there(a, bench).is_some() => lies_there(a, bench).into_iter().collect(),
        // "The board lifts out, and we can turn it over."
        Act::Turn if c.points() && c.apart() && lifted_here(c).is_some() => {
            lifted_here(c).into_iter().flat_map(|o| one(o, bench)).collect()
        }
        // The device is turned; "it" is the device.
        Act::Turn if c.points() || c.lies_on_its_face() => bench.device.clone().into_iter().collect(),
        Act::Turn => a.objects.iter().take(1).flat_map(|o| one(o, bench)).collect(),
        // "Run it on low for a minute.": the device.
        Act::Test if c.because == "run for a while" && a.objects.first().is_none_or(|o| o.is_pronoun() || o.stands) => {
            Vec::new()
        }
        Act::Test => {
            let tried = |o: &&Phrase| o.is_thing() || o.kind == Kind::Picture;
            // "a function test": what is run, and nothing that is tested.
            let run = |o: &&Phrase| {
                let whole =
                    matches!(o.words[0].as_str(), "function" | "functional" | "final" | "quick" | "short" | "test");
                whole && matches!(o.head(), "test" | "check" | "trial" | "run")
            };
            a.objects.iter().filter(tried).filter(|o| !run(o)).flat_map(|o| one(o, bench)).collect()
        }
        _ => {
            let nothing = |o: &&Phrase| o.kind == Kind::Nothing && o.of.is_empty();
            a.objects.iter().filter(|o| !nothing(o)).flat_map(|o| one(o, bench)).collect()
        }
    }
}

/// "Set the mat to 80 degrees.": what the heater heats comes behind.
pub(super) fn sets_heater(c: &Case, bench: &Bench) -> bool {
    let heater = |o: &Phrase| {
        let bare = o.words.len() == 1 && matches!(o.head(), "mat" | "pad" | "plate" | "block" | "bag" | "iron");
        bare || o.kind == Kind::Heater
    };
    let in_use = bench.at.is_some() && c.measured(Quantity::Duration);
    c.act == Act::Heat && !c.a.objects.is_empty() && c.a.objects.iter().all(heater) && !in_use
}

fn plugs(a: &Told, bench: &Bench) -> Vec<String> {
    let mut what = Vec::new();
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
    let stands = a.objects.iter().any(|o| o.stands || o.is_pronoun());
    let on = a.places.iter().find(|(p, np)| p == "on" && np.kind == Kind::Part && np.definite && !stands);
    if let ([plug], Some((_, at))) = (&mut what[..], on)
        && plug.split(' ').all(is_cable)
    {
        *plug = format!("{} {plug}", name(at));
    }
    what
}

/// "With the board out …": the part on the bench, by its whole name.
fn lies_there(a: &Told, bench: &Bench) -> Option<String> {
    let (_, np) = a.places.iter().find(|(p, np)| p == "with" && np.kind == Kind::Part)?;
    let (own, end) = (name(np), format!(" {}", name(np)));
    bench.out.iter().rev().find(|o| **o == own || o.ends_with(&end)).cloned()
}

/// "Plug in the two flat cables.": those that were pulled, where that many are off.
fn all_pulled(a: &Told, bench: &Bench) -> Option<Vec<String>> {
    let [o] = &a.objects[..] else { return None };
    // Whose they are was not said with them.
    let own = |of: &Phrase| of.from >= o.from && of.to <= o.to;
    let bare = o.kind == Kind::Plug && o.plural && o.words.iter().all(|w| tells_no_owner(w)) && !o.of.iter().any(own);
    let off: Vec<String> = bench.unplugged.iter().filter(|w| w.split(' ').any(is_cable)).cloned().collect();
    let count = o.count.filter(|n| bare && *n > 1 && *n as usize == off.len());
    count.map(|_| off)
}

/// "Ribbon in.": the one that was pulled, where nobody says whose.
fn pulled(c: &Case, bench: &Bench, name: String) -> String {
    let Some((owner, cable)) = name.rsplit_once(' ') else { return name };
    let says =
        |said: &String, w: &str| said == w || LEXICON.same_part.get(lemma(said).as_str()).is_some_and(|s| s == w);
    // "the five-wire plug": what it is like, and not whose.
    let like = |w: &str| matches!(w, "wire" | "pin" | "core" | "pole") || numbers::figure_at(&[w], 0).is_some();
    let told = owner.split(' ').any(|w| !like(w) && c.s.words.iter().any(|said| says(said, w)));
    let counted = |w: &str| numbers::figure_at(&[w.split([' ', '-']).next().unwrap_or(w)], 0).is_some();
    let mut same = bench.unplugged.iter().filter(|w| w.ends_with(&format!(" {cable}")) && !counted(w));
    match (same.next(), same.next()) {
        (Some(one), None) if !told => one.clone(),
        _ => name,
    }
}

fn heated(a: &Told, bench: &Bench) -> Vec<String> {
    const AT: [&str; 6] = ["to", "around", "on", "at", "over", "along"];
    let places = a.places.iter().filter(|(p, np)| AT.contains(&p.as_str()) && np.kind != Kind::Heater);
    // "Lay the camera with its screen on the pad."
    let side = a.places.iter().find(|(p, np)| p == "with" && np.kind == Kind::Part && np.definite);
    if let (Some((_, side)), true) = (side, a.places.iter().any(|(p, np)| p == "on" && np.kind == Kind::Heater)) {
        return vec![name(side)];
    }
    let objects = a.objects.iter().filter(|o| !matches!(o.kind, Kind::Heat | Kind::Heater));
    let on = objects.chain(places.map(|(_, np)| np)).find(|o| o.is_thing() || !o.of.is_empty());
    let what = on.map(|o| one(o, bench)).unwrap_or_default();
    if what.is_empty() { bench.at.clone().into_iter().collect() } else { what }
}

/// The probes are held to something: that is measured.
fn measured(a: &Told, bench: &Bench) -> Vec<String> {
    a.places.iter().map(|(_, np)| np).find(|np| np.is_thing()).map(|np| one(np, bench)).unwrap_or_default()
}

/// Books are laid on: the part below is pressed.
fn weighed_down(a: &Told, bench: &Bench) -> Vec<String> {
    let below = a.places.iter().find(|(p, np)| matches!(p.as_str(), "on" | "onto" | "over") && np.is_thing());
    below.map(|(_, np)| one(np, bench)).unwrap_or_else(|| bench.at.clone().into_iter().collect())
}

/// "Wipe the glue off the frame": the frame.
fn cleaned(a: &Told, bench: &Bench) -> Vec<String> {
    let cleaned =
        |(p, np): &&(String, Phrase)| !matches!(p.as_str(), "with" | "using") && (np.is_thing() || !np.of.is_empty());
    let place = a.places.iter().find(cleaned).map(|(_, np)| np);
    place.or(a.objects.first()).map(|o| one(o, bench)).unwrap_or_default()
}

fn marked(a: &Told, bench: &Bench) -> Vec<String> {
    let mut what = Vec::new();
    for o in &a.objects {
        match o.kind {
            Kind::Screw => what.push(bench.screws.as_ref().map_or("screws".to_owned(), |h| format!("{h} screws"))),
            Kind::Picture => {
                let named = o.of.iter().rev().find(|p| p.is_thing() && !p.is_pronoun()).map(name);
                // "a picture of that": of the cables just spoken of, or of what is in work.
                let that = || o.of.first().and_then(|_| bench.plug.clone().or(bench.at.clone()));
                what.extend(named.or_else(that));
            }
            _ => what.extend(one(o, bench)),
        }
    }
    what
}

/// "Scratch a line across the flange.": the flange, else what is in work.
fn on_which(a: &Told, bench: &Bench) -> Vec<String> {
    let on = |p: &str| matches!(p, "across" | "on" | "along" | "over" | "onto" | "off" | "of" | "from");
    let thing = a.places.iter().find(|(p, np)| on(p) && np.is_thing());
    thing.map_or_else(|| bench.at.clone().into_iter().collect(), |(_, np)| one(np, bench))
}

/// What was taken out before in the sentence.
fn lifted_here<'a>(c: &'a Case) -> Option<&'a Phrase> {
    let before = c.s.acts.iter().take_while(|b| b.start < c.a.start);
    let out = before.filter(|b| matches!(b.apart, Some((Act::Remove, _))));
    out.flat_map(|b| &b.objects).find(|o| o.kind == Kind::Part && !o.is_pronoun())
}

/// "Slip the radio out of its sleeve": the sleeve comes off.
fn sleeve(a: &Told) -> Option<&Phrase> {
    let source = |(p, np): &&(String, Phrase)| matches!(p.as_str(), "of" | "from") && np.kind == Kind::Part;
    a.places.iter().find(source).map(|(_, np)| np)
}

/// The names that a phrase stands for.
pub(super) fn one(o: &Phrase, bench: &Bench) -> Vec<String> {
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

fn latch_name(o: &Phrase, plug: Option<&String>, bench: &Bench) -> String {
    if !o.of.is_empty() || o.words.len() > 1 {
        return name(o);
    }
    // "Connect the ribbon and close the latch.": the ribbon's.
    if let Some(plug) = plug.filter(|_| matches!(o.kind, Kind::Lever) && !o.plural) {
        return format!("{plug} {}", o.text());
    }
    // "Close the lock.": the one that was opened.
    if let Some(opened) = bench.released.get(&o.text()).filter(|_| !o.plural) {
        return opened.clone();
    }
    match &bench.at {
        Some(at) => format!("{at} {}", o.text()),
        None => o.text(),
    }
}

/// The plug that went in in the same sentence.
fn just_plugged<'a>(c: &Case, bench: &'a Bench) -> Option<&'a String> {
    let here = |b: &Told| matches!(b.together, Some((Act::Connect, _))) && b.start < c.a.start;
    bench.connected.as_ref().filter(|_| c.act == Act::Close && c.s.acts.iter().any(here))
}

/// What screws hold: told, in their name, or the thing in work.
fn held(c: &Case, bench: &Bench) -> Vec<String> {
    let (a, act) = (c.a, c.act);
    for o in &a.objects {
        match o.kind {
            Kind::Screw => {
                if let Some(of) = o.of.iter().find(|p| p.is_thing() && !p.is_pronoun()) {
                    return vec![name(of)];
                }
                // A mishearing of the drive is no owner.
                let known = |w: &str| LEXICON.part_heads.at(&[w], 0).is_some() || bench.named.contains(w);
                let owner: Vec<&str> = o
                    .words
                    .iter()
                    .zip(&o.said)
                    .filter(|(w, _)| !describes_screw(w) || **w == "socket" && bench.named.contains("socket"))
                    .map(|(_, s)| s.as_str())
                    .collect();
                // "Loosen the arbor nut.": there is one, and it is called by what it holds.
                let one = o.definite && !o.plural && o.count.is_none() && matches!(o.head(), "nut" | "bolt");
                if owner.last().is_some_and(|w| one || known(&lemma(w))) || owner.len() > 1 {
                    return vec![owner.join(" ")];
                }
                // "Undo the nut.": a part by itself.
                let alone = o.definite && !o.plural && o.count.is_none() && o.words.len() == 1;
                if alone && matches!(o.head(), "nut" | "standoff" | "stand-off") {
                    return vec![o.text()];
                }
            }
            Kind::Pronoun | Kind::Nothing => {}
            _ if o.words.iter().all(|w| describes_screw(w)) => {}
            _ => return vec![name(o)],
        }
    }
    let place = a.places.iter().find(|(p, np)| {
        matches!(p.as_str(), "from" | "of" | "on" | "in" | "into" | "at" | "for" | "to" | "onto")
            && (np.kind == Kind::Part || np.kind == Kind::Plug)
            && !np.is_pronoun()
            && !matches!(np.head(), "mat" | "tray" | "hole" | "foot" | "row" | "cup" | "pattern")
            // "One screw on the left and one on the right."
            && !GRAMMAR.classes.which.contains(np.head())
    });
    // "The six screws round the edge of the back cover."
    let edge = || {
        let round = |p: &str| matches!(p, "round" | "around" | "along" | "at" | "on" | "in");
        let rim = |np: &Phrase| matches!(np.head(), "edge" | "rim" | "outside" | "perimeter" | "corner" | "side");
        let (_, np) = a.places.iter().find(|(p, np)| round(p) && rim(np))?;
        np.of.first().filter(|of| of.kind == Kind::Part && of.definite)
    };
    if let Some(of) = edge().filter(|_| place.is_none()) {
        return vec![name(of)];
    }
    // "Two T10s at the front of the carriage.": the carriage's.
    let side = |np: &Phrase| matches!(np.head(), "front" | "back" | "rear" | "side" | "top" | "bottom" | "end");
    if let Some((_, np)) = place {
        let whole = np.of.iter().find(|p| side(np) && p.kind == Kind::Part && p.definite);
        return vec![name(whole.unwrap_or(np))];
    }
    if matches!(act, Act::Drive | Act::Tighten) {
        let routed = bench.at.as_ref().is_some_and(|at| at.split(' ').any(is_cable));
        // "The new gasket. Then four screws.": nothing screws a gasket down.
        let soft = bench.at.as_ref().is_none_or(|at| at.rsplit(' ').next().is_some_and(is_soft));
        if let Some(home) = soft.then(|| still_open(c, bench)).flatten() {
            return vec![home.clone()];
        }
        let fitted = bench.fitted.as_ref().filter(|_| routed);
        // "Screw the fan down. Then put all of the screws back in.": the lid's, which are still out.
        let every = |o: &Phrase| o.kind == Kind::Screw && o.plural && (o.count.is_none() || c.says("all"));
        let every = a.objects.iter().any(every) && !c.says("other") && !c.says("rest");
        let done = act == Act::Drive && every && bench.at.as_ref().is_some_and(|at| bench.driven.contains(at));
        let open = |w: &&String| bench.unscrewed.contains_key(*w) && !bench.driven.contains(*w);
        let next = bench.out.iter().rev().filter(|_| done && c.together()).find(open);
        return fitted.or(next).or(bench.at.as_ref()).cloned().into_iter().collect();
    }
    // "We're gonna take the back off. There's six screws."
    let due = bench.due.as_ref().filter(|_| a.presented && c.s.number <= bench.due_at + 1);
    if let Some(part) = due {
        return vec![part.clone()];
    }
    if let Some(aim) = a.aim.as_ref().filter(|p| p.kind == Kind::Part) {
        return vec![name(aim)];
    }
    // "Main board. There's six T10s."
    let headed =
        bench.headed.as_ref().filter(|(at, part)| a.presented && c.s.number == at + 1 && !bench.out.contains(part));
    headed.map(|(_, part)| part.clone()).into_iter().collect()
}

/// Nothing of the kind is screwed down.
fn is_soft(word: &str) -> bool {
    matches!(
        word,
        "gasket" | "seal" | "foam" | "tape" | "film" | "sticker" | "label" | "strip" | "belt" | "washer" | "o-ring"
    )
}

/// What screws go back into that are told by their number alone: the only part that is still without them.
fn still_open<'a>(c: &Case, bench: &'a Bench) -> Option<&'a String> {
    if !c.together() {
        return None;
    }
    if c.act == Act::Tighten {
        return bench.driven_last.as_ref();
    }
    let mut open = bench.unscrewed.iter().filter(|(part, count)| {
        !bench.driven.contains(*part) && (c.a.count.is_none() || count.is_none() || **count == c.a.count)
    });
    open.next().map(|(part, _)| part).filter(|_| open.next().is_none())
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
