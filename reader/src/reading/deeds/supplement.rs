//! What the deeds tell, laid into the statements: facts for the sheet and for the drafted manual.
//!
//! The chain of statements and the reading of deeds see the same speech in two ways. What leaves, what goes in and what is
//! plugged is told by the deeds alone. Screws and heat stand as the statements tell them, which know groups and sizes
//! better; the deeds give them their direction, and speak where a segment's statements tell nothing of the kind.

use super::super::extract::drive_near;
use super::super::facts::{
    CautionSubject, ConnectorFact, ConnectorOp, Consumable, Drive, FastenerFact, FastenerOp, HeatFact, HeatSource,
    NeedFact, PartFact, PartOp,
};
use super::super::lexicon::lemma;
use super::super::wording::ScrewGroup;
use super::super::{Act, ActFact, Statement, StatementKind};
use super::afterwards::SLACKENED;
use super::grammar::{GRAMMAR, Kind};
use super::names::tells_no_owner;
use super::{Deed, Half, Need};
use crate::labels::Label;
use crate::units::{self, Measure, Quantity, Span};
use compact_str::CompactString;
use rustc_hash::{FxHashMap, FxHashSet};

/// Fewer acts of putting together, where no word announces them, are no rebuild.
const FEWEST: usize = 4;

/// The segment in which things begin to go together, by the deeds and by the statements.
pub fn turn(deeds: &[Deed], told: Option<usize>) -> Option<usize> {
    // "Move the sensor over to the new holder", and the taking apart goes on: it stands on the bench as yet.
    let goes_on = |n: usize| deeds.get(n + 1).is_some_and(|next| next.half == Half::Apart);
    let back = |(n, d): &(usize, &Deed)| d.half == Half::Together && !(d.act == Act::Transfer && goes_on(*n));
    let together: Vec<&Deed> = deeds.iter().enumerate().filter(back).map(|(_, d)| d).collect();
    let first = together.first().map(|d| d.cue);
    first.filter(|_| told.is_some() || together.len() >= FEWEST).or(told)
}

/// Deeds that are less sure are no facts.
const SURE: f64 = 0.7;

/// Kinds of facts, as far as a segment may hold them already.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
enum Slot {
    Screws(bool),
    Plug(bool),
    Part(bool),
    Heat,
}

/// Adds what the deeds tell to the statements that they stand in.
pub fn supplement(statements: &mut [Statement], deeds: &[Deed], needs: &[Need]) {
    for need in needs {
        let at = statements.partition_point(|s| s.end <= need.start);
        let here = |s: &Statement| s.start < need.end && s.kind != StatementKind::Noise;
        let Some(s) = statements.get_mut(at).filter(|s| here(s)) else { continue };
        let told = NeedFact { target: need.target.clone(), after: need.after.clone() };
        match s.facts.needs.first_mut() {
            None => s.facts.needs.push(told),
            // The job may go on in the sentences behind.
            Some(known) if known.target == told.target && known.after.len() < told.after.len() => *known = told,
            // "… and you wouldn't need to take the board out for it."
            Some(known) if known.target == told.target && told.after.is_empty() => *known = told,
            Some(_) => {}
        }
    }
    // What leaves, what goes in and what is plugged is told by the deeds alone; a doubted statement keeps its evident
    // reading.
    for s in statements.iter_mut().filter(|s| s.doubts.is_empty()) {
        s.facts.parts.clear();
        s.facts.connectors.clear();
    }
    loosened_first(statements, deeds);
    sides(statements, deeds);
    names(statements, deeds);
    let heated: Vec<bool> = statements.iter().map(|s| !s.facts.heat.is_empty()).collect();
    let of_cue: FxHashSet<u32> = statements.iter().filter(|s| !s.facts.heat.is_empty()).map(|s| s.cue).collect();
    // Where captions cut a sentence, the statements beside it hold the fact.
    let beside = |at: usize| heated[at.saturating_sub(1)..heated.len().min(at + 2)].contains(&true);
    let tells = |d: &&Deed| d.half != Half::Check && !(d.act == Act::Loosen && d.because == SLACKENED);
    for d in deeds.iter().filter(tells) {
        let moves = matches!(slot(d.act), Some(Slot::Part(_) | Slot::Plug(_)));
        if !moves && d.confidence < SURE {
            continue;
        }
        // A fact stands where it is complete: "take out" may end one segment, and "the tray" begin the next.
        let at = statements.partition_point(|s| s.end < d.end);
        let here = |s: &Statement| s.start < d.end && s.kind != StatementKind::Noise;
        let Some(statement) = statements.get_mut(at).filter(|s| here(s)) else { continue };
        if moves && !statement.doubts.is_empty() {
            continue;
        }
        match slot(d.act) {
            // What the sheet tells of screws is read off the acts (`figured`).
            Some(Slot::Screws(_)) => acted(statement, d),
            Some(Slot::Heat) if of_cue.contains(&(d.cue as u32)) || beside(at) => {}
            Some(slot) => {
                add(statement, d, slot);
                acted(statement, d);
            }
            None => acted(statement, d),
        }
    }
}

/// Screws that are only loosened here come out, counted, behind: they are no group of their own.
fn loosened_first(statements: &mut [Statement], deeds: &[Deed]) {
    for d in deeds.iter().filter(|d| d.act == Act::Loosen && d.because == SLACKENED) {
        let at = statements.partition_point(|s| s.end < d.end);
        if let Some(s) = statements.get_mut(at).filter(|s| s.start < d.end) {
            s.facts.fasteners.retain(|f| f.count.is_some());
        }
    }
}

/// The deeds know several turns, the statements one: where all deeds of a segment take screws out, none goes in there.
fn sides(statements: &mut [Statement], deeds: &[Deed]) {
    let cues = |acts: [Act; 2]| -> FxHashSet<u32> {
        deeds.iter().filter(|d| d.half != Half::Check && acts.contains(&d.act)).map(|d| d.cue as u32).collect()
    };
    let (out, back) = (cues([Act::Unscrew, Act::Loosen]), cues([Act::Drive, Act::Tighten]));
    for s in statements {
        let only_out = out.contains(&s.cue) && !back.contains(&s.cue);
        let only_back = back.contains(&s.cue) && !out.contains(&s.cue);
        // What only tells how tight says nothing of screws that come out.
        s.facts.fasteners.retain(|f| !(only_out && f.op == FastenerOp::Tighten && f.count.is_none()));
        for f in &mut s.facts.fasteners {
            f.op = match f.op {
                FastenerOp::Install | FastenerOp::Tighten if only_out => FastenerOp::Remove,
                FastenerOp::Remove | FastenerOp::Loosen if only_back => FastenerOp::Install,
                op => op,
            };
        }
    }
}

/// One name for one part: the deeds know "cord clamp" where a statement only says "clamp".
fn names(statements: &mut [Statement], deeds: &[Deed]) {
    let mut full: FxHashMap<u32, Vec<&String>> = FxHashMap::default();
    for d in deeds.iter().filter(|d| matches!(slot(d.act), Some(Slot::Screws(_) | Slot::Heat))) {
        full.entry(d.cue as u32).or_default().extend(&d.what);
    }
    let longer = |name: &str, cue: u32| {
        let ends = |w: &&&String| w.len() > name.len() && w.split(' ').any(|part| part == name);
        full.get(&cue).and_then(|names| names.iter().find(ends)).map(|w| (*w).clone())
    };
    let turned = turned(deeds);
    for s in statements {
        for f in &mut s.facts.fasteners {
            let out = matches!(f.op, FastenerOp::Remove | FastenerOp::Loosen);
            let row = turned.get(&(s.cue, out)).map_or(&[][..], Vec::as_slice);
            let mut same = row.iter().filter(|d| row.len() == 1 || d.count == f.count);
            if let (Some(d), None) = (same.next(), same.next()) {
                f.what = d.what.first().filter(|w| *w != "screws").cloned().or(f.what.take());
            }
        }
        let fasteners = s.facts.fasteners.iter_mut().filter_map(|f| f.what.as_mut());
        for what in fasteners.chain(s.facts.heat.iter_mut().filter_map(|h| h.target.as_mut())) {
            if let Some(name) = longer(what, s.cue) {
                *what = name;
            }
        }
    }
}

/// The deeds that turn screws out, and in, by segment.
fn turned(deeds: &[Deed]) -> FxHashMap<(u32, bool), Vec<&Deed>> {
    let mut turned: FxHashMap<(u32, bool), Vec<&Deed>> = FxHashMap::default();
    for d in deeds.iter().filter(|d| d.half != Half::Check) {
        if let Some(Slot::Screws(out)) = slot(d.act) {
            turned.entry((d.cue as u32, out)).or_default().push(d);
        }
    }
    turned
}

/// Tools that somebody has on the bench, takes or needs, where the statement passed them over as talk.
pub fn tools_at_hand(statements: &mut [Statement], tools: &[((usize, usize), Vec<String>)]) {
    for ((start, end), names) in tools {
        let from = statements.partition_point(|s| s.end <= *start);
        let to = statements.partition_point(|s| s.start < *end).max(from);
        for name in names.iter().filter(|n| is_tool(n)) {
            // Breathless speech is one sentence and several statements.
            let word = name.rsplit(' ').next().unwrap_or(name);
            let mut here = statements[from..to].iter_mut().filter(|s| s.kind != StatementKind::Noise);
            let named = here.find(|s| to == from + 1 || s.text.to_lowercase().contains(word));
            let Some(s) = named.filter(|s| !s.facts.tools.contains(name)) else { continue };
            s.facts.tools.push(name.clone());
            if s.kind == StatementKind::Chatter {
                s.kind = StatementKind::Observation;
                s.because = vec![format!("names a tool at hand: “{name}”")];
            }
        }
    }
}

/// One driver in the list of tools, and no other anywhere: it turns every screw.
pub fn only_driver(statements: &mut [Statement], deeds: &mut [Deed]) {
    let drive = |tool: &String| Drive::of_driver(tool);
    let named: FxHashSet<Drive> = statements.iter().flat_map(|s| s.facts.tools.iter().filter_map(drive)).collect();
    // "For the screws we use …" says so as well.
    let for_all = |s: &Statement| s.kind == StatementKind::Tool || s.text.to_lowercase().contains("for the screws");
    let listed = |s: &Statement| for_all(s) && s.facts.tools.iter().any(|t| drive(t).is_some());
    let Some(only) = named.iter().next().copied().filter(|_| named.len() == 1) else { return };
    if !statements.iter().any(listed) {
        return;
    }
    for f in statements.iter_mut().flat_map(|s| &mut s.facts.fasteners).filter(|f| f.drive.is_none()) {
        f.drive = Some(only);
        f.guessed = true;
    }
    for d in deeds.iter_mut().filter(|d| d.act.turns_screws() && d.drive.is_none()) {
        d.drive = Some(only);
    }
}

/// "The screws in this thing are all Torx, T6.", "Every screw is a Phillips.": whatever is turned, unless another is said.
///
/// `spoken`: the words of each statement.
pub fn all_alike(statements: &mut [Statement], deeds: &mut [Deed], spoken: &[&[&str]]) {
    let told = statements.iter().zip(spoken).find_map(|(s, words)| {
        let says = |one: &[&str]| words.iter().any(|w| one.contains(w));
        let all = says(&["all", "every", "everything", "each"]) && says(&["screw", "screws"]);
        // "All the screws of the lid are T8.", "Take out all six T8 screws.": of one part, and no others.
        let here = s.facts.fasteners.iter().any(|f| f.what.is_some() || f.count.is_some());
        drive_near(words, 0, words.len()).filter(|_| all && !here && s.kind != StatementKind::Noise)
    });
    let Some((drive, bit)) = told else { return };
    for f in statements.iter_mut().flat_map(|s| &mut s.facts.fasteners).filter(|f| f.drive.is_none()) {
        f.drive = Some(drive);
        f.bit.clone_from(&bit);
    }
    let turned = |d: &&mut Deed| matches!(d.act, Act::Unscrew | Act::Drive | Act::Tighten) && d.drive.is_none();
    for d in deeds.iter_mut().filter(turned) {
        d.drive = Some(drive);
        d.bit.clone_from(&bit);
    }
}

/// "A Phillips, double zero", and no other Phillips anywhere: its bit takes out every Phillips screw.
///
/// `spoken`: the words of each statement.
pub fn only_bit(statements: &mut [Statement], deeds: &mut [Deed], spoken: &[&[&str]]) {
    let mut bits: FxHashMap<Drive, FxHashSet<String>> = FxHashMap::default();
    let facts = statements.iter().flat_map(|s| &s.facts.fasteners).map(|f| (f.drive, &f.bit));
    for (drive, bit) in facts.chain(deeds.iter().map(|d| (d.drive, &d.bit))) {
        if let Some(drive) = drive {
            bits.entry(drive).or_default().extend(bit.clone());
        }
    }
    let kit = |s: &Statement| s.kind == StatementKind::Tool || s.facts.tools.len() >= 3;
    let listed = statements.iter().zip(spoken).filter(|(s, _)| kit(s));
    for words in listed.map(|(_, words)| words) {
        for (drive, bit) in (0..words.len()).filter_map(|at| drive_near(words, at, at + 1)) {
            bits.entry(drive).or_default().extend(bit);
        }
    }
    let only = |drive: Drive| bits.get(&drive).filter(|b| b.len() == 1).and_then(|b| b.iter().next().cloned());
    let out = |f: &&mut FastenerFact| matches!(f.op, FastenerOp::Remove | FastenerOp::Loosen);
    for f in statements.iter_mut().flat_map(|s| &mut s.facts.fasteners).filter(out).filter(|f| f.bit.is_none()) {
        f.bit = f.drive.and_then(only);
    }
    let undone = |d: &&mut Deed| matches!(d.act, Act::Unscrew | Act::Loosen) && d.bit.is_none();
    for d in deeds.iter_mut().filter(undone) {
        d.bit = d.drive.and_then(only);
    }
}

fn slot(act: Act) -> Option<Slot> {
    Some(match act {
        Act::Unscrew | Act::Loosen => Slot::Screws(true),
        Act::Drive | Act::Tighten => Slot::Screws(false),
        Act::Disconnect => Slot::Plug(true),
        Act::Connect => Slot::Plug(false),
        Act::Remove | Act::Peel => Slot::Part(true),
        Act::Install | Act::Transfer => Slot::Part(false),
        Act::Heat => Slot::Heat,
        _ => return None,
    })
}

fn add(s: &mut Statement, d: &Deed, slot: Slot) {
    match slot {
        Slot::Screws(_) => {}
        Slot::Plug(out) => {
            let op = if out { ConnectorOp::Disconnect } else { ConnectorOp::Connect };
            let rest = speaks_of_the_rest(&s.text);
            let served = |what: &String| ConnectorFact { op, what: serves(what, rest) };
            // "the two antenna leads": one name, and a plug each.
            let each = if !rest && d.what.len() == 1 && d.count == Some(2) { 2 } else { 1 };
            s.facts.connectors.extend(d.what.iter().flat_map(|w| std::iter::repeat_n(served(w), each)));
        }
        Slot::Part(out) => {
            let op = if out { PartOp::Remove } else { PartOp::Install };
            s.facts.parts.extend(d.moved().map(|what| PartFact { op, what: what.clone() }));
        }
        Slot::Heat => s.facts.heat.push(heat(d)),
    }
}

impl Deed {
    /// The parts that leave or go in by it. A film is a part; a liner and a strip of tape are not, nor what is pulled off
    /// something new.
    pub fn moved(&self) -> impl Iterator<Item = &String> {
        let moves = matches!(slot(self.act), Some(Slot::Part(_)));
        let kept = |what: &&String| self.act != Act::Peel || self.half == Half::Apart && is_film(what);
        self.what.iter().filter(move |_| moves).filter(kept).filter(|what| !(self.act == Act::Install && presses(what)))
    }
}

/// What tells a deed is an act, whatever else it looked like.
fn acted(s: &mut Statement, d: &Deed) {
    // "Pull on the tag with the tweezers, not on the wire.": a warning, and a tool all the same.
    if let Some(tool) = d.by.as_ref().filter(|t| is_tool(t) && !s.facts.tools.contains(t)) {
        s.facts.tools.push(tool.clone());
    }
    // "Put on the wrist strap.": says that charge harms.
    let strap = |name: &String| name == "esd strap" || ["wrist strap", "wrist band"].iter().any(|w| name.ends_with(w));
    if d.act == Act::Protect
        && d.by.iter().chain(&d.what).any(strap)
        && !s.facts.cautions.contains(&CautionSubject::Esd)
    {
        s.facts.cautions.push(CautionSubject::Esd);
    }
    if !matches!(s.kind, StatementKind::Observation | StatementKind::Chatter | StatementKind::Action) {
        return;
    }
    if !s.facts.acts.iter().any(|a| a.act == d.act) {
        s.facts.acts.push(ActFact { act: d.act, objects: d.what.clone(), start: d.start, end: d.end });
    }
    if s.kind != StatementKind::Action && d.confidence > SURE {
        s.kind = StatementKind::Action;
        s.confidence = d.confidence;
        s.because = vec![format!("tells a deed: {}", d.because)];
    }
}

pub(super) fn screws(d: &Deed, g: &ScrewGroup) -> FastenerFact {
    let op = match d.act {
        Act::Loosen => FastenerOp::Loosen,
        Act::Drive => FastenerOp::Install,
        Act::Tighten => FastenerOp::Tighten,
        _ => FastenerOp::Remove,
    };
    FastenerFact {
        op,
        count: g.count,
        drive: g.drive,
        bit: g.bit.clone(),
        length: g.length_mm.map(units::millimetres),
        captive: d.act == Act::Loosen,
        what: d.what.first().filter(|w| *w != "screws").cloned(),
        guessed: true,
    }
}

fn heat(d: &Deed) -> HeatFact {
    let of = |quantity: Quantity| d.measures.iter().find(|m| m.quantity == quantity);
    let span = |m: &Measure| (m.value, m.to.unwrap_or(m.value));
    HeatFact {
        source: d.by.as_deref().and_then(HeatSource::from_tool),
        target: d.what.first().cloned(),
        temperature: of(Quantity::Temperature)
            .map(span)
            .map(|(a, b)| Span { low: units::celsius(a), high: units::celsius(b) }),
        dwell: of(Quantity::Duration).map(span).map(|(a, b)| Span { low: units::seconds(a), high: units::seconds(b) }),
    }
}

/// Books lie on it while it sets.
fn presses(what: &str) -> bool {
    lemma(what) == "book"
}

fn is_film(what: &str) -> bool {
    let words: Vec<CompactString> = what.split(' ').map(lemma).collect();
    matches!(GRAMMAR.kind(&words), None | Some(Kind::Film | Kind::NeverAlone))
}

/// Materials are used up; tools are not.
fn is_tool(name: &str) -> bool {
    !Consumable::ALL.iter().any(|c| c.name() == name)
}

/// "The remaining connectors", "the other ribbon cables", "the rest of the plugs".
fn speaks_of_the_rest(text: &str) -> bool {
    let said = text.to_lowercase();
    said.split(|c: char| !c.is_alphanumeric()).any(|w| matches!(w, "remaining" | "other" | "others" | "rest"))
}

/// "keypad" of "keypad flex cable"; nothing of a bare "cable". A coaxial one is told by its kind, and cables that are the
/// rest of them are the "other" ones.
fn serves(what: &str, rest: bool) -> Option<String> {
    let mut kept: Vec<&str> = Vec::new();
    for w in what.split(' ') {
        // "main board plug" serves no one, "front board plug" the front board.
        let named = w == "board" && !kept.is_empty();
        if named || !tells_no_owner(&lemma(w)) {
            kept.push(w);
        }
    }
    let coaxial = || what.split(' ').any(|w| w.starts_with("coax")).then(|| "coaxial cable".to_owned());
    let several = || (rest && what.ends_with('s')).then(|| "other".to_owned());
    if kept.is_empty() { coaxial().or_else(several) } else { Some(kept.join(" ")) }
}
