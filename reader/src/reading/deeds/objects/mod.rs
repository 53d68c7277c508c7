//! What each act is done to: names for "it", what screws hold, whom a cable serves; and what was told twice.

mod bench;
mod case;
mod meant;
mod named;
mod needs;
mod put;
mod rules;

use super::super::Act;
use super::super::facts::Drive;
use super::super::lexicon::{is_known, lemma};
use super::afterwards::{
    but_first, captive, counted_behind, doubled, due, implied, other_side, served, shown_back, slackened, trials,
};
use super::grammar::{GRAMMAR, Kind};
use super::names::{is_cable, name};
use super::phrases::Phrase;
use super::tethered::tethered;
use super::told::{Sentenced, Told, has};
use super::{Deed, Half, Need};
use bench::{Bench, Driver};
use case::Case;
use meant::meant;
use named::{named, sets_heater};
use needs::needs;
use put::put;
use rules::{BY_BENCH, BY_WORDS, pass};
use std::collections::{BTreeMap, BTreeSet};

/// The word for the whole device: one that the title has, else the first.
fn device(told: &[Sentenced], title: &str) -> Option<String> {
    let title = title.to_lowercase();
    let named = |d: &&String| d.rsplit(' ').next().is_some_and(|w| has(&title, w));
    let devices = || told.iter().flat_map(|s| &s.devices);
    let titled =
        || title.split(|c: char| !c.is_alphanumeric()).find(|w| GRAMMAR.kind(&[lemma(w)]) == Some(Kind::Device));
    let named = devices().find(named).cloned().or_else(|| titled().map(str::to_owned));
    named.or_else(|| headed(&title)).or_else(|| devices().next().cloned())
}

/// "Switch off the mossby grain scale.": the grain scale, whoever made it; a name that was only heard is spelt by chance.
fn leave_out_makes(told: &[Sentenced], deeds: &mut [Deed]) {
    let made = told.iter().flat_map(|s| &s.devices).filter(|d| without_its_make(d) != d.as_str());
    let made: BTreeSet<&str> = made.map(String::as_str).collect();
    for what in deeds.iter_mut().flat_map(|d| &mut d.what).filter(|w| made.contains(w.as_str())) {
        *what = without_its_make(what).to_owned();
    }
}

/// Without a leading word that means nothing, which is a name, and what stands behind it; two words tell which device.
fn without_its_make(device: &str) -> &str {
    const ENOUGH: usize = 2;
    let words: Vec<&str> = device.split_whitespace().collect();
    let means = |w: &str| is_known(w) || GRAMMAR.kind(&[lemma(w)]).is_some();
    if words.len() <= ENOUGH || means(words[0]) {
        return device;
    }
    let tail = words[words.len() - ENOUGH..].join(" ");
    if device.ends_with(&tail) { &device[device.len() - tail.len()..] } else { device }
}

/// "Hand dryer, a new motor": the device, before a title says what is done to it.
fn headed(title: &str) -> Option<String> {
    let end = [title.find(','), title.find(" with ")].into_iter().flatten().min()?;
    let head = &title[..end];
    let words: Vec<&str> = head.split_whitespace().collect();
    let plain = words.iter().all(|w| w.chars().all(char::is_alphabetic));
    // "Driver board replacement, bench lamp": what is done, and not to what.
    let job = words.last().is_some_and(|w| GRAMMAR.kind(&[lemma(w)]) == Some(Kind::Nothing));
    ((1..=3).contains(&words.len()) && plain && !job).then(|| words.join(" "))
}

pub(super) fn settle(
    told: Vec<Sentenced>,
    halves: &[Vec<Half>],
    title: &str,
    called: Option<&str>,
) -> (Vec<Deed>, Vec<Need>) {
    let needs = needs(&told);
    let mut deeds: Vec<Deed> = Vec::new();
    // "robot mower", spoken of as "the mower".
    let device = called.map(str::to_owned).or_else(|| device(&told, title));
    let named: BTreeSet<Drive> = told.iter().flat_map(|s| s.drivers.iter().copied()).collect();
    let only = named.first().copied().filter(|_| named.len() == 1);
    // The one driver of the list turns the screws, though another opens clips later.
    let listed: BTreeSet<Drive> = told.iter().filter(|s| s.lists).flat_map(|s| s.drivers.iter().copied()).collect();
    let listed = listed.first().copied().filter(|_| listed.len() == 1);
    let titled = headed(&title.to_lowercase()).and_then(|h| h.rsplit(' ').next().map(str::to_owned));
    let title = title.to_lowercase();
    let mut bench = Bench { device, titled, title, only_driver: only, listed, ..Bench::default() };
    bench.only = only_names(&told);
    let mut together = false;
    for (n, (s, halves)) in told.iter().zip(halves).enumerate() {
        bench.hear(s.number, &s.whole);
        if let [one] = s.drivers[..] {
            let in_hand = !s.lists && (s.takes_driver || !deeds.is_empty());
            bench.driver = Some(Driver { sentence: s.number, drive: one, bit: s.driver_bit.clone(), in_hand });
        }
        if s.thanks && s.acts.len() < 2 && s.words.len() < 8 {
            continue;
        }
        if let Some(part) = &s.opens_with {
            bench.at = Some(name(part));
        }
        if let Some(part) = &s.screws_of {
            bench.headed = Some((s.number, name(part)));
        }
        let listed = |n: usize| told.get(n).is_some_and(|s| s.heading && s.acts.is_empty());
        // "Window. Then the ring."
        let goes_on =
            || told.get(n + 1).and_then(|s| s.acts.first()).is_some_and(|a| a.elliptic && a.objects.len() == 1);
        if together && listed(n) && (listed(n + 1) || n > 0 && listed(n - 1) || goes_on()) {
            put_back(s, &mut bench, &mut deeds);
        }
        for (a, half) in s.acts.iter().zip(halves) {
            together = *half == Half::Together;
            if a.hypothetical {
                continue;
            }
            settle_one(s, a, *half, &mut bench, &mut deeds);
        }
        if let Some((at, _)) = bench.headed.as_mut().filter(|_| s.lists_screws) {
            *at = s.number;
        }
        if let Some(count) = s.row {
            bench.row = Some((s.number, count, s.cue));
        } else if s.heading && s.acts.iter().all(|a| a.fragment) && !together {
            named_plugs(s, &mut bench, &mut deeds);
        }
        if let Some((part, told)) = s.leads_to.as_ref().filter(|_| s.acts.is_empty()) {
            owned(s, part, &mut bench, &mut deeds);
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
        // "Next up is the pump.": only named, while things come apart.
        let only_named = s.acts.is_empty() || !together && s.acts.iter().all(Told::is_named_next);
        if let Some(thing) =
            s.topic.iter().find(|p| p.kind == Kind::Part && (p.definite || s.heading) && p.words.len() < 5)
            && only_named
            && !bench.out.contains(&name(thing))
        {
            bench.at = Some(name(thing));
            if s.heading {
                bench.headed = Some((s.number, name(thing)));
            }
        }
    }
    served(&mut deeds);
    tethered(&told, &mut deeds);
    but_first(&told, &mut deeds);
    shown_back(&mut deeds);
    doubled(&mut deeds);
    due(&mut deeds);
    slackened(&mut deeds);
    captive(&told, &mut deeds);
    counted_behind(&told, &mut deeds);
    other_side(&told, &mut deeds);
    implied(&mut deeds);
    trials(&mut deeds);
    leave_out_makes(&told, &mut deeds);
    (deeds, needs)
}

/// "the camera module", three times, and no other module: a bare "module" is it.
fn only_names(told: &[Sentenced]) -> BTreeMap<String, String> {
    const OFTEN: usize = 3;
    let mut heard: BTreeMap<String, BTreeMap<&str, usize>> = BTreeMap::new();
    for name in told.iter().flat_map(|s| &s.whole) {
        let last = lemma(name.rsplit(' ').next().unwrap_or(name)).to_string();
        *heard.entry(last).or_default().entry(name.as_str()).or_default() += 1;
    }
    let one = |(last, names): (String, BTreeMap<&str, usize>)| match names.into_iter().collect::<Vec<_>>()[..] {
        // "the front case": there is another.
        [(name, times)]
            if times >= OFTEN && !is_cable(&last) && !name.split(' ').any(|w| GRAMMAR.classes.which.contains(w)) =>
        {
            Some((last, name.to_owned()))
        }
        _ => None,
    };
    heard.into_iter().filter_map(one).collect()
}

/// "The board has four connectors. Motor. Lamp sensor.": each is undone by being named.
fn named_plugs(s: &Sentenced, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    let Some((at, left, cue)) = bench.row.filter(|(at, left, _)| *left > 0 && s.number == at + 1) else { return };
    let Some(last) = deeds.last().cloned() else { return };
    let plug = |p: &&Phrase| matches!(p.kind, Kind::Part | Kind::Plug | Kind::Key);
    let things = s.topic.iter().filter(plug).filter(|p| !p.is_pronoun());
    let what: Vec<String> = things.take(left as usize).map(name).collect();
    // "Main board. There's five T5s.": a heading of its own, and no plug of the row.
    let goes_on = s.cue == cue || s.topic.iter().all(|p| p.definite);
    if what.is_empty() || !goes_on {
        return;
    }
    bench.row = Some((at + 1, left - what.len() as u32, s.cue));
    bench.unplugged.extend(what.iter().cloned());
    for one in what {
        let plug = last.beside(Act::Disconnect, vec![one], "named in a row of plugs");
        deeds.push(plug.told_by(s, Half::Apart));
    }
}

/// "Pull the ribbon out of its socket. This is for the buttons.": whose it was.
fn owned(s: &Sentenced, part: &Phrase, bench: &mut Bench, deeds: &mut [Deed]) {
    let Some((at, place)) = bench.unowned.take().filter(|(at, _)| s.number == at + 1) else { return };
    let last = place + 1 == deeds.len();
    let Some(plug) = deeds.last_mut().filter(|d| last && d.sentence == at) else { return };
    if matches!(plug.act, Act::Disconnect | Act::Connect) {
        bench.unplugged.retain(|w| !plug.what.contains(w));
        plug.what = vec![name(part)];
        bench.unplugged.extend(plug.what.iter().filter(|_| plug.act == Act::Disconnect).cloned());
    }
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
    let plug = last.beside(Act::Disconnect, what, BECAUSE).told_by(s, Half::Apart);
    deeds.push(plug);
}

/// "The reflector. The glass.": in a row of names, what is out goes back.
fn put_back(s: &Sentenced, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    let named = |p: &&Phrase| p.kind == Kind::Part && (p.definite || s.words.len() <= 3);
    let Some(last) = deeds.last().cloned() else { return };
    let out = s.topic.iter().filter(named).map(name).find(|w| bench.out.contains(w));
    // "The coil. The radio.": their cables were pulled.
    let pulled = || s.topic.iter().filter(named).find_map(|p| bench.pulled(&name(p)).cloned());
    let Some((act, what)) = out.map(|w| (Act::Install, w)).or_else(|| pulled().map(|w| (Act::Connect, w))) else {
        return;
    };
    bench.out.retain(|w| *w != what);
    bench.unplugged.retain(|w| *w != what);
    let back = last.beside(act, vec![what], "named in a row in the rebuild");
    deeds.push(back.told_by(s, Half::Together));
}

/// One act: which it is, what it is done to, whether it is one at all; then it is laid in the row.
fn settle_one(s: &Sentenced, a: &Told, half: Half, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    if a.fragment && half == Half::Together {
        fragments(s, a, half, bench, deeds);
        return;
    }
    let Some((act, because)) = meant(s, a, half, bench, deeds) else { return };
    let mut c = Case { s, a, act, because, told_half: half, half, what: Vec::new() };
    if !pass(BY_WORDS, &mut c, bench, deeds) {
        return;
    }
    if sets_heater(&c, bench) {
        bench.warmth.extend(a.measures.iter().cloned());
        return;
    }
    if c.bare() {
        c.what = named(&c, bench);
    }
    // "the long ones and the short ones": two groups of one name.
    let mut seen = BTreeSet::new();
    c.what.retain(|w| seen.insert(w.clone()));
    if pass(BY_BENCH, &mut c, bench, deeds) {
        put(&c, bench, deeds);
        bench.unowned = (a.unowned && !deeds.is_empty()).then(|| (s.number, deeds.len() - 1));
    }
}

/// Places for leads.
fn laid_in(place: &str) -> bool {
    matches!(place, "slot" | "groove" | "channel" | "clip" | "hook" | "guide" | "duct")
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
            _ if bench.pulled(&name(o)).is_some() => Act::Connect,
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
        settle_one(s, &one, half, bench, deeds);
    }
}
