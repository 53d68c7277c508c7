//! Lays a settled act into the row of deeds, and keeps the bench.

use super::super::super::Act;
use super::super::super::lexicon::lemma;
use super::super::super::wording::{BY_HAND, ITS_SUPPLY, Whereabouts};
use super::super::Deed;
use super::super::afterwards::{DUE, GONE_ROUND, MORE_SHOWN, SHOWN_HELD};
use super::super::grammar::{GRAMMAR, Kind};
use super::super::names::{placed, tells_where};
use super::super::phrases::Phrase;
use super::bench::{Bench, Driver};
use super::case::Case;

pub(super) fn put(c: &Case, bench: &mut Bench, deeds: &mut Vec<Deed>) {
    if shown_again(c, deeds) || undone_after_shown(c, deeds) || told_in_turn(c, deeds) {
        return;
    }
    belated(c, bench, deeds);
    let deed = deed(c, bench);
    // "Press the ring on for 30 seconds.": what is out goes in with it.
    if c.act == Act::Press
        && c.together()
        && c.with_particle(&["on", "in", "back", "onto", "into"])
        && c.what.iter().any(|w| bench.out.contains(w))
    {
        deeds.push(Deed { act: Act::Install, ..deed.clone() });
        bench.out.retain(|p| !c.what.contains(p));
    }
    if c.bare() && matches!(c.act, Act::Unscrew | Act::Pry | Act::Release | Act::Loosen) {
        bench.waiting.push(deeds.len());
    }
    if c.bare() && c.act == Act::Unscrew {
        bench.undone = Some(c.s.number);
    }
    deeds.push(deed);
    if c.act == Act::Heat
        && let Some(heat) = deeds.last_mut()
    {
        heat.measures.append(&mut bench.warmth);
    }
    // "pry off the bezel": parted, and off.
    let prised_off = c.act == Act::Pry
        && c.with_particle(&["off", "out", "away"])
        && !c.a.objects.iter().any(|o| o.kind == Kind::Opener);
    if prised_off && let Some(pry) = deeds.last() {
        deeds.push(Deed { by: None, act: Act::Remove, ..pry.clone() });
    }
    // Other screws are told: another driver is in the hand, whoever named it.
    if c.screws() && c.a.drive.is_some_and(|d| bench.driver.as_ref().is_some_and(|driver| driver.drive != d)) {
        bench.driver = None;
    }
    bench.after(c);
    if prised_off {
        bench.out.extend(c.what.iter().cloned());
    }
}

/// Screws that are shown once more are those of the deed before.
fn shown_again(c: &Case, deeds: &mut [Deed]) -> bool {
    if !c.a.presented || c.because == MORE_SHOWN {
        return false;
    }
    // A part leaves or goes in: screws told before and behind are two groups.
    let moves = |d: &&mut Deed| matches!(d.act, Act::Remove | Act::Install);
    let same = |d: &&mut Deed| {
        d.act == c.act
            && d.half == c.half
            && c.s.number <= d.sentence + 3
            // "There's a single screw here that holds the bracket."
            && (d.count.is_none() || d.count == c.a.count || c.a.count.is_none() && d.sentence == c.s.number)
            && (c.bare() || d.what == c.what || d.what.is_empty())
    };
    let Some(last) = deeds.iter_mut().rev().take(3).take_while(|d| !moves(d)).find(same) else { return false };
    last.count = last.count.or(c.a.count);
    if last.what.is_empty() {
        last.what.clone_from(&c.what);
    }
    true
}

/// "Four screws. Go round a little at a time.": how those before are driven.
fn told_in_turn(c: &Case, deeds: &mut [Deed]) -> bool {
    let driven = |d: &&mut Deed| d.act == Act::Drive && c.s.number <= d.sentence + 2;
    let Some(last) = deeds.iter_mut().rev().take(2).find(driven).filter(|_| c.because == GONE_ROUND) else {
        return false;
    };
    last.manner.extend(c.a.manner.iter().cloned());
    last.end = last.end.max(c.a.end);
    true
}

/// Screws shown first and undone then are one act.
fn undone_after_shown(c: &Case, deeds: &mut Vec<Deed>) -> bool {
    if c.act != Act::Unscrew || c.a.presented {
        return false;
    }
    // "Undo the nut.": none of the screws that were shown.
    let alone = |w: &String| matches!(w.as_str(), "nut" | "standoff" | "stand-off");
    if c.what.iter().any(alone) {
        return false;
    }
    let same = |d: &&mut Deed| {
        d.because.starts_with("screws are")
            && d.act == Act::Unscrew
            && c.s.number <= d.sentence + 4
            && (c.a.count.is_none() || d.count == c.a.count)
            && (c.bare() || d.what.is_empty() || d.what == c.what)
    };
    // "The caddy is held by four screws. First the two plugs. Now take out those four screws."
    let pointed = c.a.objects.iter().any(|o| o.kind == Kind::Screw && o.definite && o.count.is_some());
    if pointed && let Some(at) = deeds.iter().rposition(|d| d.sentence + 8 >= c.s.number && d.because == SHOWN_HELD) {
        let far = deeds.len() - at > 2 && deeds[at].count == c.a.count && (c.bare() || deeds[at].what == c.what);
        if far {
            deeds.remove(at);
            return false;
        }
    }
    // What they held has left: other screws.
    let left = |d: &&mut Deed| d.act == Act::Remove && d.half == c.half;
    let Some(shown) = deeds.iter_mut().rev().take(2).take_while(|d| !left(d)).find(same) else { return false };
    if !c.bare() {
        shown.what.clone_from(&c.what);
    }
    shown.because = c.because;
    shown.confidence = 0.85;
    shown.sentence = c.s.number;
    shown.cue = c.a.cue;
    shown.end = shown.end.max(c.a.end);
    true
}

/// Screws and latches told before what they hold: the part that leaves next.
fn belated(c: &Case, bench: &mut Bench, deeds: &mut [Deed]) {
    if matches!(c.act, Act::Remove | Act::Open | Act::Pry)
        && c.apart()
        && let Some(part) = c.what.first()
    {
        // "Under the feet are the screws, so remove the feet.": they hold something else.
        let below = |d: &Deed| {
            let under = |p: &Whereabouts| matches!(p.preposition.as_str(), "under" | "behind" | "beneath");
            d.places.iter().any(|p| under(p) && p.thing.ends_with(part.as_str()))
        };
        for i in std::mem::take(&mut bench.waiting) {
            if deeds[i].what.is_empty() && below(&deeds[i]) {
                bench.waiting.push(i);
            } else if deeds[i].what.is_empty() && deeds[i].sentence + 8 > c.s.number {
                deeds[i].what = vec![part.clone()];
                if matches!(deeds[i].act, Act::Unscrew | Act::Loosen) {
                    bench.unscrewed.insert(part.clone(), deeds[i].count);
                }
            }
        }
    }
    if c.act == Act::Install && c.together() {
        bench.waiting.clear();
    }
}

fn deed(c: &Case, bench: &Bench) -> Deed {
    /// A driver is in the hand until another is named; sentences after which nobody remembers it. What goes back goes back
    /// as it came out, whatever was named last.
    const LAID_DOWN: usize = 60;
    const NAMED_BESIDE: usize = 2;
    let (a, s) = (c.a, c.s);
    let laid_down = |d: &Driver| if c.apart() && d.in_hand { LAID_DOWN } else { NAMED_BESIDE };
    let in_hand = bench.driver.as_ref().filter(|d| d.sentence + laid_down(d) >= s.number);
    let recent = in_hand.map(|d| d.drive);
    let drive = a.drive.or_else(|| recent.or(bench.only_driver).filter(|_| c.screws()));
    let its_bit = in_hand.and_then(|d| d.bit.clone()).filter(|_| a.drive.is_none() && c.screws());
    let probes = c.act == Act::Measure && a.objects.iter().any(|o| o.kind == Kind::Meter);
    let meter = probes.then(|| "multimeter".to_owned());
    let driver = drive.filter(|_| c.screws()).map(|d| format!("{} screwdriver", d.name()));
    let by_hand = a.manner.iter().any(|m| m == BY_HAND);
    let listed = bench.listed.filter(|_| c.screws() && !by_hand).map(|d| format!("{} screwdriver", d.name()));
    let told = a.places.iter().filter(|(p, np)| tells_where(p, np));
    let mut places: Vec<Whereabouts> =
        told.map(|(p, np)| Whereabouts { preposition: p.clone(), thing: placed(np) }).collect();
    // "Plug it in.": the device, and nobody says where.
    if c.because == "into the wall" && places.is_empty() {
        places.push(Whereabouts { preposition: "into".into(), thing: ITS_SUPPLY.into() });
    }
    Deed {
        act: c.act,
        half: c.half,
        what: c.what.clone(),
        by: driver.or_else(|| a.by.clone()).or(meter).or(listed),
        count: a.count,
        drive,
        bit: a.bit.clone().or(its_bit),
        length_mm: a.length_mm,
        groups: Vec::new(),
        cue: a.cue,
        start: a.start,
        end: a.end,
        confidence: a.confidence,
        future: a.future,
        places,
        manner: a.manner.clone(),
        // The sign that ends a test is what shows that all is good.
        condition: a.condition.clone(),
        until: a.shows.clone().filter(|_| c.act == Act::Test).or_else(|| a.until.clone()),
        measures: a.measures.clone(),
        new: a.new,
        because: c.because,
        sentence: s.number,
    }
}

impl Bench {
    /// What an act changes on the bench.
    fn after(&mut self, c: &Case) {
        let first = c.what.first();
        if let (Act::Heat, Some(part)) = (c.act, first) {
            self.warmed = Some((c.s.number, part.clone()));
        }
        if matches!(c.act, Act::Remove | Act::Open) {
            let announced = || ["let 's", "gonna do is", "going to do is", "want to do is"].iter().any(|w| c.says(w));
            self.due = first.filter(|_| c.because == DUE || c.a.future && announced()).cloned();
            self.due_at = c.s.number;
        }
        match c.act {
            Act::Release => {
                let by_last = |w: &String| (w.rsplit(' ').next().unwrap_or(w).to_owned(), w.clone());
                self.released.extend(c.what.iter().map(by_last));
            }
            Act::Connect => self.live = c.bare(),
            Act::Open => self.opened.extend(c.what.iter().cloned()),
            Act::Close => self.opened.retain(|p| !c.what.contains(p)),
            _ => {}
        }
        self.named.extend(c.what.iter().filter_map(|w| w.split(' ').next_back()).map(|w| lemma(w).to_string()));
        match c.act {
            // "It stands on rubber feet, squeeze them.": the work goes on where it was.
            Act::Release if c.because == "squeezed free" => {}
            // "Remove the screws and discard the gasket.": the work goes on where it was.
            Act::Remove if c.because == "thrown away" => self.out.extend(c.what.iter().cloned()),
            Act::Remove => {
                self.opened.retain(|p| !c.what.contains(p));
                self.out.extend(c.what.iter().cloned());
                self.last_out = first.cloned().or(self.last_out.take());
                self.at = None;
                self.plug = None;
            }
            Act::Install => {
                self.fitted = first.cloned().or(self.fitted.take());
                self.out.retain(|p| !c.what.contains(p));
                self.at = first.cloned().or(self.at.take());
            }
            Act::Desolder => self.desoldered.extend(c.what.iter().cloned()),
            Act::Disconnect | Act::Connect => {
                self.unplugged.retain(|p| !c.what.contains(p));
                self.connected = c.what.last().filter(|_| c.act == Act::Connect).cloned();
                if c.act == Act::Disconnect {
                    self.unplugged.extend(c.what.iter().cloned());
                }
                self.plug = c.what.last().cloned().or(self.plug.take());
            }
            Act::Unscrew | Act::Loosen if first.is_some_and(|w| w != "screws") => {
                self.unscrewed.extend(c.what.iter().map(|w| (w.clone(), c.a.count)));
                self.driven.retain(|part| !c.what.contains(part));
                self.screws = first.cloned();
                self.at = first.cloned();
            }
            Act::Drive => {
                self.driven.extend(c.what.iter().cloned());
                self.driven_last = first.cloned().or(self.driven_last.take());
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
            | Act::Close
            | Act::Turn => {
                let worn = c.a.objects.iter().any(|o| matches!(o.kind, Kind::Strap | Kind::Lever | Kind::Latch));
                if c.act == Act::Close && !worn {
                    self.fitted = first.cloned().or(self.fitted.take());
                }
                let dirt = |w: &String| {
                    let words: Vec<_> = w.split(' ').map(lemma).collect();
                    let kind = GRAMMAR.kind(&words);
                    // Alcohol and glue are on it, and are not in work.
                    let stuff = matches!(kind, Some(Kind::Glue | Kind::Material | Kind::Liquid));
                    c.act == Act::Clean && (kind == Some(Kind::Dirt) || stuff) || c.act == Act::Apply && stuff
                };
                let device = c.act == Act::Turn && first == self.device.as_ref();
                // "Peel up the pull tabs.": what they hold is in work.
                let label = |o: &Phrase| matches!(o.head(), "sticker" | "label");
                let strip =
                    |o: &Phrase| matches!(o.kind, Kind::Tape | Kind::Liner) || label(o) || o.of.iter().any(label);
                let strips = c.act == Act::Peel && self.at.is_some() && c.a.objects.iter().all(strip);
                if let Some(w) = first.filter(|w| *w != "screws" && !worn && !device && !strips && !dirt(w)) {
                    self.at = Some(w.clone());
                }
            }
            _ => {}
        }
    }
}
