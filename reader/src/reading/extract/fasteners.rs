//! Groups of screws: how many, of which drive and length, out or in.
//!
//! A sentence may tell several groups ("four of 5 millimetres and the two of 3.5"), a total with its groups, or count
//! aloud. Each group takes the words between its own beginning and the next group's.

use super::super::act::{Act, Direction};
use super::super::clauses::{Clause, Mood};
use super::super::facts::{Drive, FastenerFact, FastenerOp};
use super::super::lexicon::LEXICON;
use super::super::numbers;
use super::super::phrases::{self, NounPhrase, Thing, is_screw};
use super::super::quantities::Quantified;
use super::super::tags::Tag;
use super::{Memory, Scene, mentions};
use crate::units::{self, Quantity};

/// One group as found in the words.
#[derive(Debug, Clone)]
struct Group {
    at: usize,
    to: usize,
    count: Option<u32>,
    drive: Option<(Drive, Option<String>)>,
    length: Option<f64>,
    /// Told without the word screw: "two are 2.5 millimetres".
    sub: bool,
    definite: bool,
    /// "the others are 5 millimetres": as many as are left of the total.
    rest: bool,
    /// "the two long ones": by a word that sets it apart from others.
    told_apart: bool,
}

pub(super) fn fasteners(scene: &Scene<'_, '_>, memory: &mut Memory) -> Vec<FastenerFact> {
    let words = scene.words();
    // "Three at the top, 12 millimetres": going back, without the word.
    let short = memory.rebuild
        && words.len() < 12
        && memory.screws.sized
        && scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Length)
        && numbers::figure_at(words, 0)
            .is_some_and(|f| matches!(words.get(f.len), Some(&("at" | "in" | "on" | "along" | "by" | "of"))));
    if short {
        memory.screws.cue = Some(scene.cue);
        memory.screws.sentence = scene.number;
    }
    let named = words.iter().any(|w| is_screw(w))
        || phrases::phrases(scene.t, 0, words.len()).iter().any(|p| p.thing == Thing::Screw)
        || meant(scene);
    let near = memory.screws.cue == Some(scene.cue) && scene.number <= memory.screws.sentence + 4;
    if !named && !near {
        return Vec::new();
    }
    if stays(words) && !words.iter().any(|w| LEXICON.numbers.contains_key(*w)) {
        memory.screws.captive = true;
        memory.screws.loosened.extend(memory.screws.what.clone());
        return Vec::new();
    }
    let mut groups = find(scene, memory, named);
    counted(scene, &mut groups);
    count_the_rest(&mut groups, memory);
    drop_totals(words, &mut groups);
    let mut out = Vec::new();
    let told = held(scene);
    // "Put the cover on. Drive its four screws in.": whose they are is said.
    let its = words.iter().any(|w| matches!(*w, "its" | "their")) && memory.last_part.is_some();
    let guessed = told.is_none() && !its;
    let what = told.or_else(|| if named { spoken_of(scene, memory) } else { memory.screws.what.clone() });
    let sentence_drive = one_drive(words);
    for group in &groups {
        if let Some(fact) = fact(scene, group, &what, &sentence_drive, memory) {
            out.push(FastenerFact { guessed, ..fact });
        }
    }
    if named || !out.is_empty() {
        memory.screws.cue = Some(scene.cue);
        memory.screws.sentence = scene.number;
        memory.screws.what = what;
        memory.screws.sized |= scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Length);
    }
    out
}

/// Whether the verb over this word turns screws out.
fn unscrewing(scene: &Scene<'_, '_>, at: usize) -> bool {
    scene.clause_at(at).is_some_and(|c| c.is_plain() && c.act == Some(Act::Unscrew))
}

/// "Five in the lid, all T8", "undo the two long ones": screws, though nobody says the word.
fn meant(scene: &Scene<'_, '_>) -> bool {
    let unscrewed = scene.clauses.iter().any(|c| {
        c.is_plain()
            && c.act == Some(Act::Unscrew)
            && c.objects.iter().any(|o| o.thing == Thing::Pronoun && o.count.is_some_and(|n| n > 1))
    });
    let driven = one_drive(scene.words()).is_some() || driver_to(scene.words()).next().is_some();
    unscrewed || driven && !bare_counts(scene).is_empty()
}

/// "the pentalobe driver to the two beside the socket", "the Phillips for the four inside": the drive of a count, by its
/// place.
fn driver_to<'w>(words: &'w [&str]) -> impl Iterator<Item = (usize, (Drive, Option<String>))> + 'w {
    (3..words.len()).filter_map(|at| {
        let linked = matches!(words[at - 1], "the" | "these" | "those") && matches!(words[at - 2], "to" | "for" | "on");
        numbers::figure_at(words, at).filter(|f| linked && f.value.fract() == 0.0)?;
        let driver = usize::from(matches!(words[at - 3], "driver" | "screwdriver" | "bit"));
        let end = at - 2 - driver;
        let drive = drive_near(words, end.saturating_sub(2), end)?;
        Some((at, drive))
    })
}

fn fact(
    scene: &Scene<'_, '_>,
    group: &Group,
    what: &Option<String>,
    sentence_drive: &Option<(Drive, Option<String>)>,
    memory: &mut Memory,
) -> Option<FastenerFact> {
    let words = scene.words();
    let clause = scene.clause_at(group.at);
    if clause
        .is_some_and(|c| !matches!(c.mood, Mood::Plain | Mood::Relative) || c.mood == Mood::Relative && c.act.is_some())
    {
        return None;
    }
    // "A long screw in a wrong hole destroys the board": spoken of in general.
    let harms = clause.is_some_and(|c| c.verb.is_some_and(|v| LEXICON.harm.any(&[words[v]]).is_some()));
    if harms && !group.definite {
        return None;
    }
    // "It's a tiny brass nut", "the long one is the earth screw": told of a screw already known.
    let told_of = clause.is_some_and(|c| {
        let existential = c.subject.last().is_some_and(|s| matches!(s.words[0].as_str(), "there" | "here"));
        c.base == "be"
            && !existential
            && !group.sub
            && c.objects.iter().any(|o| o.from == group.at && !c.subject.iter().any(|s| s.from == o.from))
            && group.count.is_none_or(|n| n == 1)
    });
    // "All six screws are the same length.": which are to go back, and not yet.
    let alike = memory.rebuild
        && clause.is_some_and(|c| c.base == "be" && c.subject.iter().any(|s| s.thing == Thing::Screw))
        && ["length", "size"].iter().any(|w| mentions(words, &["same", w]));
    // "The foot stays on the screw.": on each of them.
    let stays_on = clause.is_some_and(|c| c.base == "stay" && c.places.iter().any(|(_, np)| np.from == group.at));
    if told_of || alike || stays_on {
        return None;
    }
    let own_captive = words.iter().any(|w| matches!(*w, "captive")) || stays(words);
    let (op, acted) = op(scene, group, clause, own_captive, memory);
    if restates(group, op, acted, clause, memory, scene) {
        memory.screws.announced = false;
        return None;
    }
    // Screws without a number, a drive or a length are spoken of, not worked on.
    let told = group.count.is_some()
        || (acted && group.definite && group.drive.is_some())
        || group.length.is_some()
        || (acted && own_captive && named_here(words));
    if !told || group.count == Some(0) {
        return None;
    }
    let captive =
        own_captive || (matches!(op, FastenerOp::Tighten | FastenerOp::Loosen) && was_captive(what, group, memory));
    let pointed = words.iter().any(|w| matches!(*w, "same" | "again" | "another" | "more" | "other"));
    let drive = group
        .drive
        .clone()
        .or_else(|| sentence_drive.clone())
        .or_else(|| {
            (group.sub || pointed)
                .then(|| memory.screws.drive.clone())
                .flatten()
                .filter(|_| memory.screws.cue == Some(scene.cue))
        })
        .filter(|(d, _)| !(*d == Drive::Hex && words.iter().any(|w| matches!(*w, "stand-off" | "standoff" | "nut"))))
        .or_else(|| mentions(words, &["same"]).then(|| memory.last_drive.clone()).flatten());
    // "the same drive again" goes without its size where another was said in between.
    if drive.is_some() {
        memory.last_drive.clone_from(&drive);
    }
    // "Three Allen bolts, two and a half millimetre.": the key's size.
    const LARGEST_SMALL_KEY: f64 = 3.0;
    let hex = drive.as_ref().is_some_and(|(d, _)| *d == Drive::Hex);
    // "The big nut, it's a ten millimetre.": across its flats.
    let nut = words.contains(&"nut") && !words.iter().any(|w| matches!(*w, "screw" | "bolt"));
    let length = group.length.filter(|l| !(nut || hex && *l <= LARGEST_SMALL_KEY));
    let op = if captive { turned_in_place(op) } else { op };
    if op == FastenerOp::Loosen && captive {
        memory.screws.loosened.extend(what.clone());
    }
    memory.screws.drive = drive.clone();
    memory.screws.op = Some(op);
    memory.screws.count = group.count;
    memory.screws.captive = captive;
    memory.screws.announced = !acted;
    Some(FastenerFact {
        op,
        count: group.count,
        drive: drive.as_ref().map(|(d, _)| *d),
        bit: drive.as_ref().and_then(|(_, b)| b.clone()),
        length: length.map(units::millimetres),
        captive,
        what: what.clone(),
        guessed: false,
    })
}

fn turned_in_place(op: FastenerOp) -> FastenerOp {
    match op {
        FastenerOp::Remove => FastenerOp::Loosen,
        FastenerOp::Install => FastenerOp::Tighten,
        op => op,
    }
}

fn named_here(words: &[&str]) -> bool {
    words.iter().any(|w| is_screw(w))
}

/// "The screws stay in the carriage", "they do not fall out".
fn stays(words: &[&str]) -> bool {
    // "The one in the middle stays in.": another one.
    let one = words.iter().position(|w| *w == "one").filter(|i| *i > 0 && words[i - 1] == "the");
    let other = one.is_some_and(|i| words[i..].iter().take(6).any(|w| *w == "stay"));
    mentions(words, &["stay", "in"]) && !other
        || mentions(words, &["don't", "fall", "out"])
        || mentions(words, &["not", "fall", "out"])
        || mentions(words, &["won't", "come", "out"])
        || mentions(words, &["stay", "with"])
        || mentions(words, &["don't", "come", "out"])
        || mentions(words, &["stay", "attached"])
}

fn was_captive(what: &Option<String>, group: &Group, memory: &Memory) -> bool {
    let same = |told: &String| what.as_ref().is_some_and(|w| w.split(' ').any(|x| told.split(' ').any(|y| x == y)));
    memory.rebuild
        && (memory.screws.loosened.iter().any(same)
            || (group.count == Some(1)
                && group.length.is_none()
                && what.is_none()
                && !memory.screws.loosened.is_empty()))
}

/// The verb that governs the screws, else the phase of the narration; and whether something is done to them.
fn op(
    scene: &Scene<'_, '_>,
    group: &Group,
    clause: Option<&Clause>,
    captive: bool,
    memory: &Memory,
) -> (FastenerOp, bool) {
    let default = match (memory.rebuild, captive) {
        (false, false) => FastenerOp::Remove,
        (false, true) => FastenerOp::Loosen,
        (true, false) => FastenerOp::Install,
        (true, true) => FastenerOp::Tighten,
    };
    let turned = |c: &Clause| match c.act? {
        Act::Loosen => Some(FastenerOp::Loosen),
        Act::Tighten => Some(FastenerOp::Tighten),
        Act::Unscrew => Some(FastenerOp::Remove),
        Act::Drive => Some(FastenerOp::Install),
        Act::Remove => Some(FastenerOp::Remove),
        Act::Install if !(c.base == "be" || (matches!(c.base, "go" | "come") && !memory.rebuild)) => {
            Some(FastenerOp::Install)
        }
        _ => None,
    };
    let owns = |c: &Clause| {
        c.objects.iter().any(|o| (o.from..o.to.max(o.from + 1)).contains(&group.at) || o.thing == Thing::Screw)
    };
    if let Some(op) = clause.filter(|c| owns(c)).and_then(turned) {
        // Putting screws in a cup takes nothing back.
        return (op, true);
    }
    // "There are four screws, take them out."
    let next = scene
        .clauses
        .iter()
        .filter(|c| c.is_plain() && c.from >= group.at)
        .find(|c| c.objects.iter().any(|o| o.thing == Thing::Screw));
    if let Some(op) = next.and_then(turned) {
        return (op, true);
    }
    if let Some(c) = clause.filter(|c| c.elliptic) {
        let before = scene.clauses.iter().rfind(|b| b.to <= c.from && b.is_plain() && b.act.is_some());
        if let Some(op) = before.and_then(turned).filter(|op| (*op == FastenerOp::Remove) != memory.rebuild) {
            return (op, true);
        }
    }
    (default, false)
}

/// Screws that were told a moment ago and are only named again.
fn restates(
    group: &Group,
    op: FastenerOp,
    acted: bool,
    clause: Option<&Clause>,
    memory: &Memory,
    scene: &Scene<'_, '_>,
) -> bool {
    let last = &memory.screws;
    let near = last.cue.is_some_and(|c| scene.cue <= c + 1);
    let same_way = last.op.is_some_and(|o| o.direction() == op.direction());
    let pronoun = clause.is_some_and(|c| {
        c.objects.iter().any(|o| {
            o.from == group.at
                && o.to - o.from <= 2
                && o.thing == Thing::Screw
                && scene.t.tag(o.from) == Some(Tag::Pronoun)
        })
    });
    // "With those four screws removed, the plate lifts off."
    let words = scene.words();
    let when = words[..group.at].iter().rev().take(2).any(|w| matches!(*w, "with" | "once" | "after" | "when"));
    let gone = words[group.to..].iter().take(2).any(|w| matches!(*w, "remove" | "removed" | "out" | "undone" | "gone"));
    let pointed = words[..=group.at].iter().rev().take(2).any(|w| matches!(*w, "that" | "those" | "these" | "all"));
    let same = pointed || group.count.is_none() || last.count.is_none() || group.count == last.count;
    if near && same && when && gone && group.definite && op.direction() == Direction::Out {
        return true;
    }
    if !near || !same_way || (last.count.is_none() && group.count.is_some()) {
        return false;
    }
    if op == FastenerOp::Tighten
        && last.op == Some(FastenerOp::Install)
        && (group.count.is_none() || group.count == last.count)
    {
        return true;
    }
    if group.length.is_some() || pronoun && group.count.is_none() {
        return group.length.is_none();
    }
    let announced = last.announced && acted && group.definite;
    announced && (group.count.is_none() || group.count == last.count) || (group.count.is_none() && group.definite)
}

/// Every group of the sentence with its words.
fn find(scene: &Scene<'_, '_>, memory: &Memory, named: bool) -> Vec<Group> {
    let t = scene.t;
    let words = scene.words();
    let mut out: Vec<Group> = Vec::new();
    fn take(out: &mut Vec<Group>, (at, to): (usize, usize), count: Option<u32>, sub: bool, definite: bool) {
        if !out.iter().any(|g| (g.at..g.to).contains(&at)) {
            out.push(Group { at, to, count, drive: None, length: None, sub, definite, rest: false, told_apart: false });
        }
    }
    // "That way each screw is in its place.": of no further screws.
    let each = |np: &NounPhrase| matches!(words[np.from], "each" | "every" | "any");
    for np in screws(t, 0, words.len()).into_iter().filter(|np| !each(np)) {
        // "the screw", "its screw": one.
        let single = np.count.or_else(|| {
            (!np.plural && t.said[np.to.min(words.len()) - 1].len() > 2 && np.definite && np.head() != "nut")
                .then_some(1)
        });
        // "screw heads" counts heads; "four Phillips-head screws" counts screws.
        let count = if matches!(np.head(), "head" | "hole") { None } else { single };
        let count = count.map(|n| if each_side(&words[np.to.min(words.len())..]) { 2 * n } else { n });
        take(&mut out, (np.from, np.to), count, false, np.definite);
    }
    let near = named || memory.screws.cue == Some(scene.cue);
    let mut counts = bare_counts(scene);
    // "the last one" before its "one".
    counts.sort_by_key(|(at, _, _)| *at);
    for (at, len, count) in counts {
        if near {
            take(&mut out, (at, at + len), Some(count), true, true);
        }
    }
    if !named && memory.screws.cue == Some(scene.cue) && out.is_empty() {
        // "All of those are 12 millimetres", "Phillips, six millimetres": a size for the screws just told.
        let drive = one_drive(words);
        let sized = scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Length && !is_depth(words, q));
        let all = words.iter().take(4).any(|w| matches!(*w, "all" | "they" | "those" | "these" | "each"));
        if (drive.is_some()
            && (sized && words.len() < 14 || words.len() < 10 && words.iter().any(|w| matches!(*w, "use" | "using"))))
            || (all && (sized || drive.is_some()))
        {
            take(&mut out, (0, words.len()), None, true, true);
        }
    }
    if !named
        && near
        && out.is_empty()
        && (said_in_all(words).is_some() || memory.screws.count.is_none() && counts_up(words))
    {
        take(&mut out, (0, words.len()), None, true, true);
    }
    if near
        && memory.screws.total.is_some()
        && let Some(at) = rest_at(scene)
        && !out.iter().any(|g| (g.at..g.to).contains(&at))
    {
        out.push(Group {
            at,
            to: at + 1,
            count: None,
            drive: None,
            length: None,
            sub: true,
            definite: true,
            rest: true,
            told_apart: false,
        });
    }
    out.sort_by_key(|g| g.at);
    let starts: Vec<usize> = out.iter().map(|g| g.at).collect();
    for (i, group) in out.iter_mut().enumerate() {
        let from = if i == 0 { 0 } else { starts[i] };
        let to = starts.get(i + 1).copied().unwrap_or(words.len());
        attributes(scene, group, from, to, memory);
    }
    // "three screws, T5, at the top and two at the bottom": what only the first tells holds for those that point back.
    if let Some(first) = out.first().and_then(|g| g.drive.clone()) {
        for g in out.iter_mut().skip(1).filter(|g| g.sub && g.drive.is_none()) {
            g.drive = Some(first.clone());
        }
    }
    out
}

/// "one screw each side", "two on either side": a device has two.
pub(in super::super) fn each_side(behind: &[&str]) -> bool {
    let behind = if behind.first() == Some(&"on") { &behind[1..] } else { behind };
    matches!(behind, ["each" | "either" | "per" | "every", "side", ..])
}

/// "the others", "the rest of them", "all the remaining ones", where a size is told of them.
fn rest_at(scene: &Scene<'_, '_>) -> Option<usize> {
    let words = scene.words();
    let at = (1..words.len()).find(|i| {
        matches!(scene.t.said[*i], "others" | "rest" | "remaining" | "remainder")
            && matches!(words[i - 1], "the" | "all")
    })?;
    let counted = numbers::figure_at(words, at + 1).is_some();
    let sized = (at..words.len().min(at + 8)).any(|i| is_length(scene, i) || drive_near(words, i, i + 1).is_some());
    (sized && !counted).then_some(at)
}

/// What is left of the last total once its other groups are taken off.
fn count_the_rest(groups: &mut [Group], memory: &mut Memory) {
    let here: u32 = groups.iter().filter(|g| g.sub).filter_map(|g| g.count).sum();
    let total = memory.screws.total.unwrap_or(0);
    let left = total.saturating_sub(memory.screws.given + here);
    for g in groups.iter_mut().filter(|g| g.rest) {
        g.count = Some(left).filter(|n| *n > 0);
    }
    memory.screws.given += here;
    let several = |g: &&Group| g.count.is_some_and(|n| n > 1);
    // "Five in the lid, all T8."
    let alone = || groups.first().filter(|g| groups.len() == 1 && g.length.is_none() && g.drive.is_some());
    if let Some(whole) = groups.iter().filter(|g| !g.sub).find(several).or_else(|| alone().filter(several)) {
        memory.screws.total = whole.count;
        memory.screws.given = if groups.len() > 1 { here } else { 0 };
    }
}

/// The screws among the phrases of a stretch, those behind "of" included.
fn screws(t: &super::super::tags::Tagged<'_>, from: usize, to: usize) -> Vec<NounPhrase> {
    phrases::phrases(t, from, to)
        .into_iter()
        .flat_map(|p| {
            let of = p.of.as_deref().cloned();
            [Some(p), of].into_iter().flatten()
        })
        .filter(|p| p.thing == Thing::Screw)
        .collect()
}

/// Counts without the word screw: "five of them are 12 millimetres", "and two at the back", "four of 5 millimetres".
fn bare_counts(scene: &Scene<'_, '_>) -> Vec<(usize, usize, u32)> {
    let t = scene.t;
    let words = scene.words();
    numbers::figures(words)
        .into_iter()
        .filter(|f| f.value.fract() == 0.0 && (1.0..=60.0).contains(&f.value) && t.tags[f.at] != Tag::Measure)
        .filter_map(|f| {
            let end = f.at + f.len;
            let before = f.at.checked_sub(1).map_or("", |i| words[i]);
            if LEXICON.drives.at(words, f.at.saturating_sub(1)).is_some_and(|_| f.at > 0)
                || matches!(
                    before,
                    "number"
                        | "t"
                        | "ph"
                        | "size"
                        | "step"
                        | "place"
                        | "zero"
                        | "section"
                        | "channel"
                        | "point"
                        | "to"
                        | "fixture"
                        | "order"
                        | "each"
                        | "every"
                        | "any"
                )
                || t.said[f.at].starts_with('0')
                || t.said[f.at] == "ones"
            {
                return None;
            }
            let next = words.get(end).copied().unwrap_or("");
            // "one at a time"
            if words.get(end..end + 3) == Some(&["at", "a", "time"]) {
                return None;
            }
            let of = next == "of" && matches!(words.get(end + 1), Some(&("them" | "these" | "those" | "which")));
            let sized = next == "of" && (t.tag(end + 1) == Some(Tag::Measure) || is_length(scene, end + 1));
            let direct = t.tag(end) == Some(Tag::Measure) && is_length(scene, end);
            let size_told = (end..(end + 12).min(words.len()))
                .any(|i| is_length(scene, i) || drive_near(words, i, i + 1).is_some());
            let size_told = size_told || bare_length(scene, end, (end + 10).min(words.len())).is_some();
            // "it's got two little holes": those are counted.
            let other = (end..words.len())
                .find(|i| t.tags[*i] != Tag::Adjective)
                .is_some_and(|i| t.tags[i] == Tag::Noun && !is_screw(words[i]) && !matches!(words[i], "one" | "piece"));
            let is = !other
                && (end..(end + 8).min(words.len())).any(|i| matches!(words[i], "is" | "are" | "'re" | "'s" | "be"))
                && size_told
                && !(end..(end + 8).min(words.len())).any(|i| {
                    LEXICON.part_heads.at(words, i).is_some() && t.tags[i] == Tag::Noun && !is_place(words, i)
                });
            let placed = matches!(
                next,
                "at" | "on"
                    | "along"
                    | "in"
                    | "by"
                    | "under"
                    | "here"
                    | "there"
                    | "up"
                    | "down"
                    | "near"
                    | "beside"
                    | "inside"
                    | "behind"
            ) && (named_here(words) || one_drive(words).is_some() || driver_to(words).next().is_some());
            // "the two black ones, 2.2 millimetres".
            let last_one = (end..words.len())
                .find(|i| t.tags[*i] != Tag::Adjective)
                .is_some_and(|i| words[i] == "one" && (i == end || t.said[i] == "ones"))
                && (size_told || unscrewing(scene, f.at));
            (of || sized || direct || is || placed || last_one).then_some((f.at, f.len, f.value as u32))
        })
        .chain(ordinals(scene))
        .collect()
}

/// "the ninth, at the foot, is 30 millimetres", "the last one is short, 8 millimetres", "the long one", "the earth screw".
fn ordinals<'s>(scene: &'s Scene<'_, '_>) -> impl Iterator<Item = (usize, usize, u32)> + 's {
    let words = &scene.t.words;
    const ORDINALS: [&str; 13] = [
        "last", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth", "other", "middle", "long",
        "short",
    ];
    (1..words.len()).filter_map(move |i| {
        let ordinal = ORDINALS.contains(&words[i]) && words[i - 1] == "the";
        let one = words.get(i + 1) == Some(&"one")
            || scene.t.pause[i]
            || matches!(words.get(i + 1), Some(&("is" | "at" | "by" | "in")));
        let sized = (i..(i + 12).min(words.len())).any(|n| is_length(scene, n));
        let noun = words.get(i + 1).is_some_and(|w| is_screw(w));
        (ordinal && one && sized && !noun).then_some((i - 1, 3, 1))
    })
}

fn is_place(words: &[&str], at: usize) -> bool {
    (at.saturating_sub(4)..at)
        .any(|i| matches!(words[i], "at" | "on" | "in" | "along" | "of" | "by" | "to" | "near" | "under"))
}

fn is_length(scene: &Scene<'_, '_>, at: usize) -> bool {
    scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Length && (q.at..q.at + q.len).contains(&at))
}

fn attributes(scene: &Scene<'_, '_>, group: &mut Group, from: usize, to: usize, memory: &Memory) {
    let words = scene.words();
    group.told_apart = words[group.at..(group.to + 2).min(to)].iter().any(|w| {
        matches!(*w, "long" | "short" | "longer" | "shorter" | "black" | "silver" | "brass" | "big" | "small" | "fat")
    });
    let by_driver = driver_to(words).find(|(at, _)| *at == group.at).map(|(_, drive)| drive);
    group.drive = by_driver.or_else(|| drive_near(words, group.at, to)).or_else(|| drive_near(words, from, group.at));
    let inside = |q: &&Quantified| {
        q.measure.quantity == Quantity::Length && (group.at..to).contains(&q.at) && !is_depth(words, q)
    };
    group.length = scene.quantities.iter().find(inside).map(|q| q.measure.value);
    if group.length.is_none() {
        let ahead = |q: &&Quantified| {
            q.measure.quantity == Quantity::Length
                && (from..group.at).contains(&q.at)
                && group.at - q.at <= 4
                && !is_depth(words, q)
        };
        group.length = scene.quantities.iter().find(ahead).map(|q| q.measure.value);
    }
    group.length = group.length.or_else(|| metric_length(words, group.at, to));
    if group.length.is_none()
        && (memory.screws.sized || scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Length))
    {
        group.length = bare_length(scene, group.to, to);
    }
}

/// "M2.5 by 6", "M2 x 4", "M3x8": the figure behind the thread is the length.
fn metric_length(words: &[&str], from: usize, to: usize) -> Option<f64> {
    (from..to).find_map(|i| {
        let code = words[i].strip_prefix('m').filter(|c| c.starts_with(|c: char| c.is_ascii_digit()))?;
        if let Some((thread, length)) = code.split_once('x') {
            thread.parse::<f64>().ok()?;
            return length.parse().ok();
        }
        code.parse::<f64>().ok()?;
        let by = words.get(i + 1).is_some_and(|w| matches!(*w, "by" | "x" | "times"));
        numbers::figure_at(words, i + 2).filter(|_| by).map(|f| f.value)
    })
}

/// "They're 25", "three of them are 20": millimetres, where those were said of the group before.
fn bare_length(scene: &Scene<'_, '_>, from: usize, to: usize) -> Option<f64> {
    let words = scene.words();
    (from..to).find_map(|i| {
        let f = numbers::figure_at(words, i)?;
        let is = i > 0 && matches!(words[i - 1], "is" | "are" | "'re" | "'s" | "at" | "of");
        let ends = i + f.len >= to
            || scene.t.pause[i + f.len - 1]
            || matches!(words[i + f.len], "and" | "they" | "so" | "but" | "long");
        (is && ends && (1.0..=80.0).contains(&f.value) && scene.t.tags[i] != Tag::Measure).then_some(f.value)
    })
}

/// How deep, how far or how thick is no length of a screw.
fn is_depth(words: &[&str], q: &Quantified) -> bool {
    let after = words.get(q.at + q.len).copied().unwrap_or("");
    let before = q.at.checked_sub(1).map_or("", |i| words[i]);
    q.sizes_a_tool(words)
        || matches!(after, "deep" | "thick" | "wide" | "away" | "gap")
        || matches!(before, "about" | "by" | "than")
}

/// Counting aloud and corrections: the last figure said of the whole wins.
fn counted(scene: &Scene<'_, '_>, groups: &mut Vec<Group>) {
    let words = scene.words();
    let Some(count) = said_in_all(words).or_else(|| aloud(words)) else { return };
    let Some(first) = groups.iter().position(|g| !g.sub).or((!groups.is_empty()).then_some(0)) else { return };
    let several = groups.iter().filter(|g| g.length.is_some()).count() > 1;
    if several {
        return;
    }
    let mut merged = groups[first].clone();
    merged.count = Some(count);
    merged.length = groups.iter().find_map(|g| g.length);
    merged.drive = groups.iter().rev().find_map(|g| g.drive.clone());
    *groups = vec![merged];
}

/// "so six", "that's eight in total", "seven in all".
fn said_in_all(words: &[&str]) -> Option<u32> {
    numbers::figures(words)
        .into_iter()
        .rev()
        .filter(|f| f.value.fract() == 0.0 && (1.0..=99.0).contains(&f.value))
        .find(|f| {
            let end = f.at + f.len;
            let before = f.at.checked_sub(1).map_or("", |i| words[i]);
            let before2 = f.at.checked_sub(2).map_or("", |i| words[i]);
            let total = matches!(words.get(end), Some(&("total" | "altogether")))
                || mentions(&words[end..words.len().min(end + 3)], &["in", "all"])
                || mentions(&words[end..words.len().min(end + 3)], &["in", "total"])
                || mentions(&words[end..words.len().min(end + 4)], &["screw", "total"]);
            let unit = LEXICON.units.at(words, end).is_some();
            let so = (before == "so" || before == "make" || (before == "'s" && before2 == "that"))
                && !unit
                && words.len() > 6;
            (total || so) && !unit
        })
        .map(|f| f.value as u32)
}

/// "One, two, three, four": said in a row.
fn counts_up(words: &[&str]) -> bool {
    let said = |n: &str| words.iter().position(|w| *w == n);
    matches!((said("one"), said("two"), said("three")), (Some(a), Some(b), Some(c)) if a < b && b < c)
}

/// "one here, one here and one down there", "one here, here, here and here", "one two three four five okay five".
pub(in super::super) fn aloud(words: &[&str]) -> Option<u32> {
    let place = |w: &str| {
        matches!(w, "here" | "there" | "down" | "up" | "on" | "at" | "under" | "over" | "in" | "by" | "and" | "along")
    };
    let ones = (0..words.len())
        .filter(|i| {
            // "except for this one": pointed at, and not counted.
            let pointed = *i > 0 && matches!(words[i - 1], "this" | "that");
            let last = i + 1 == words.len();
            words[*i] == "one"
                && !(pointed && last)
                && words
                    .get(i + 1)
                    .is_none_or(|w| place(w) || (is_screw(w) && words.get(i + 2).is_some_and(|x| place(x))))
        })
        .count();
    // "First screw, second screw, third screw."
    const ORDINALS: [&str; 8] = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];
    let screws = ORDINALS.iter().take_while(|nth| mentions(words, &[nth, "screw"])).count();
    if screws > 1 {
        return Some(screws as u32);
    }
    let heres = words.iter().filter(|w| **w == "here").count();
    // "one, two, three and a fourth one": from the third on; "second" is a time as well.
    let nth = |w: &str| ["third", "fourth", "fifth", "sixth"].iter().position(|o| *o == w).map(|n| n as f64 + 3.0);
    let numbers = words.iter().filter_map(|w| LEXICON.numbers.get(*w).copied().or_else(|| nth(w)));
    let run = numbers.fold((0.0_f64, 0.0_f64), |(next, best), n| {
        if n == next + 1.0 {
            (n, best.max(n))
        } else if n == 1.0 {
            (1.0, best)
        } else {
            (next, best)
        }
    });
    if run.1 >= 3.0 {
        let more = usize::from(mentions(words, &["one", "more"]) || mentions(words, &["another", "one"]));
        return Some(run.1 as u32 + more as u32);
    }
    // "A screw here, here, here and here."
    if ones <= 1 && heres >= 3 {
        return Some(heres as u32);
    }
    (ones >= 2).then_some(ones.max(heres.min(ones + 3)) as u32)
}

/// "Nine screws, eight of 16 and one of 30": the groups are the fact. Groups told only by their places make up one.
fn drop_totals(words: &[&str], groups: &mut Vec<Group>) {
    // "Five screws, three T5 and two T6": each kind with a drive of its own.
    if let [total, kinds @ ..] = &groups[..] {
        let sum: u32 = kinds.iter().filter_map(|g| g.count).sum();
        let new = |i: usize| kinds[i].drive.is_some() && kinds[..i].iter().all(|g| g.drive != kinds[i].drive);
        if kinds.len() > 1 && total.count == Some(sum) && (0..kinds.len()).all(new) {
            groups.remove(0);
            return;
        }
    }
    let subs: Vec<Group> = groups.iter().filter(|g| g.sub).cloned().collect();
    let Some(total) = groups.iter().find(|g| !g.sub).cloned() else {
        let apart = subs.iter().skip(1).any(|g| g.drive != subs[0].drive) || subs.iter().any(|g| g.told_apart);
        if subs.len() > 1 && subs.iter().all(|g| g.length.is_none()) && !apart {
            groups.truncate(1);
        }
        return;
    };
    // A drive that the whole sentence shares tells no group from another.
    let own =
        |g: &&Group| g.length.is_some_and(|l| Some(l) != total.length) || (g.drive.is_some() && g.drive != total.drive);
    let sized = subs.iter().filter(own).count();
    let lengths = subs.iter().filter(|g| g.length.is_some()).count();
    let sum: u32 = subs.iter().filter_map(|g| g.count).sum();
    let is_total = total.count.is_none_or(|c| sum <= c + 2) && subs.iter().all(|g| g.at > total.at);
    if lengths >= 1
        && (total.length.is_none() || subs.iter().all(|g| g.length != total.length))
        && is_total
        && sum > 0
        && (sum == total.count.unwrap_or(0) || lengths >= 2)
    {
        groups.retain(|g| g.sub);
        for g in groups.iter_mut().filter(|g| g.drive.is_none()) {
            g.drive.clone_from(&total.drive);
        }
        return;
    }
    // "five screws three at the top two at the bottom these are Phillips": the drive is that of all.
    let (last, ahead) = subs.split_last().map_or((None, &[][..]), |(last, ahead)| (last.drive.clone(), ahead));
    let said_of_all = total.drive.is_none() && last.is_some() && ahead.iter().all(|g| g.drive.is_none());
    if said_of_all && !ahead.is_empty() && lengths == 0 && total.count == Some(sum) {
        groups.retain(|g| !g.sub);
        groups.iter_mut().for_each(|g| g.drive.clone_from(&last));
        return;
    }
    // "Four screws along the top, two along the bottom": the first are no total.
    let along = |g: &Group| words.get(g.to).filter(|w| matches!(**w, "along" | "at" | "on" | "by" | "under"));
    let placed = along(&total).is_some() && subs.iter().all(|g| g.at > total.at && along(g) == along(&total));
    if sized == 0 && lengths == 0 && placed && !subs.is_empty() {
        groups.retain(|g| !g.sub);
        groups.iter_mut().for_each(|g| g.count = g.count.map(|n| n + sum));
        return;
    }
    if sized == 0 && !subs.is_empty() {
        // Places only: "seven along the top, seven along the bottom".
        let starts_with_sub = subs[0].at < total.at;
        let places_sum = total.count.is_some_and(|c| c < sum) || starts_with_sub;
        if places_sum && total.count.is_some() && groups.len() > 1 && !starts_with_sub {
            let all: u32 = groups.iter().filter_map(|g| g.count).sum();
            if let Some(g) = groups.iter_mut().find(|g| !g.sub) {
                g.count = Some(if sum > total.count.unwrap_or(0) { sum } else { all });
            }
        } else if total.count.is_some_and(|c| c > sum)
            && subs.len() == 1
            && subs[0].count == Some(1)
            && groups.len() == 2
        {
            // "three on the side and one under the cap".
        }
        groups.retain(|g| !g.sub);
    }
}

/// The part that was handled last, or the one just told of: "Then there's the drive. One screw."
fn spoken_of(scene: &Scene<'_, '_>, memory: &Memory) -> Option<String> {
    let told = memory.told.as_ref().filter(|(cue, _)| *cue == scene.cue).map(|(_, part)| part.clone());
    told.or_else(|| memory.last_part.clone())
}

/// What screws hold: "from the rear housing", "hold the driver plate", "the bracket is held by three screws".
fn held(scene: &Scene<'_, '_>) -> Option<String> {
    let screw_at = screws(scene.t, 0, scene.t.len()).first().map(|np| np.from)?;
    // "cross-head, four millimetres": how they are turned, and nothing they hold.
    let drive =
        |np: &NounPhrase| LEXICON.drives.any(&np.words.iter().map(|w| w.as_str()).collect::<Vec<_>>()).is_some();
    let part =
        |np: &NounPhrase| (np.is_part() && np.known() || np.thing == Thing::Unknown && np.definite) && !drive(np);
    let clause = scene.clause_at(screw_at);
    let of = screws(scene.t, 0, scene.t.len()).into_iter().find_map(|np| np.of.filter(|o| part(o)).map(|o| o.text()));
    let from = clause.and_then(|c| {
        c.places
            .iter()
            .find(|(p, np)| {
                matches!(p.as_str(), "from" | "of" | "on" | "in" | "into" | "for" | "to" | "out") && part(np)
            })
            .map(|(_, np)| np.text())
            .or_else(|| {
                // "along the edge of the base"
                let edge = c.places.iter().filter(|(p, _)| matches!(p.as_str(), "along" | "around" | "at"));
                edge.filter_map(|(_, np)| np.of.as_deref()).find(|of| part(of)).map(NounPhrase::text)
            })
    });
    let held_by = clause
        .filter(|c| matches!(c.base, "hold" | "secure" | "attach" | "fix" | "fasten" | "mount" | "have" | "keep"))
        .and_then(|c| c.objects.iter().chain(&c.subject).find(|np| part(np)).map(NounPhrase::text));
    let holding = scene
        .clauses
        .iter()
        .filter(|c| matches!(c.base, "hold" | "secure" | "keep" | "fasten" | "attach"))
        .flat_map(|c| c.objects.iter().chain(&c.subject))
        .find(|np| part(np))
        .map(NounPhrase::text);
    let freed = scene
        .clauses
        .iter()
        .filter(|c| matches!(c.act, Some(Act::Remove | Act::Open | Act::Install)))
        .flat_map(|c| &c.objects)
        .find(|np| np.thing == Thing::Part)
        .map(NounPhrase::text);
    of.or(from).or(held_by).or(holding).or(freed)
}

/// The drive of a sentence that names only one.
fn one_drive(words: &[&str]) -> Option<(Drive, Option<String>)> {
    let mut found: Vec<(Drive, Option<String>)> = Vec::new();
    for i in 0..words.len() {
        if let Some((drive, bit)) = drive_near(words, i, i + 1) {
            match found.iter_mut().find(|(d, _)| *d == drive) {
                Some(known) => known.1 = known.1.take().or(bit),
                None => found.push((drive, bit)),
            }
        }
    }
    match found.as_slice() {
        [one] => Some(one.clone()),
        _ => None,
    }
}

/// Drive and bit named within `from..to`.
pub(in super::super) fn drive_near(words: &[&str], from: usize, to: usize) -> Option<(Drive, Option<String>)> {
    let to = to.min(words.len());
    let mut found: Option<(Drive, Option<String>)> = None;
    for i in from..to {
        if let Some((drive, code)) = numbers::bit_code(words[i]) {
            // "the P0 Phillips-head screws": the drive's name says which of the letters "P" is meant.
            let size = words[i].trim_start_matches(|c: char| c.is_ascii_alphabetic());
            let named = LEXICON.drives.at(words, i + 1).map(|(_, drive)| *drive);
            if let Some(named) = named.filter(|n| *n != drive && words[i].starts_with('p')) {
                return Some((named, Some(named.bit(size))));
            }
            return Some((drive, Some(code)));
        }
        if words[i] == "t"
            && let Some((size, _)) = numbers::bit_size(words, i + 1)
        {
            return Some((Drive::Torx, Some(Drive::Torx.bit(&size))));
        }
        // "Y zero", "Y double zero"
        if words[i] == "y"
            && words.get(i + 1).is_some_and(|w| matches!(*w, "zero" | "double" | "triple"))
            && let Some((size, _)) = numbers::bit_size(words, i + 1)
        {
            return Some((Drive::TriPoint, Some(Drive::TriPoint.bit(&size))));
        }
        if words[i] == "ph"
            && let Some((size, _)) = numbers::bit_size(words, i + 1)
        {
            return Some((Drive::Phillips, Some(Drive::Phillips.bit(&size))));
        }
        if found.is_none()
            && let Some((len, drive)) = LEXICON.drives.at(words, i)
        {
            let drive = *drive;
            let code =
                (i + len..(i + len + 3).min(words.len())).find_map(|n| numbers::bit_code(words[n]).map(|(_, c)| c));
            let mut after = i + len;
            while after < words.len() && matches!(words[after], "screwdriver" | "driver" | "screw" | "size" | "bit") {
                after += 1;
            }
            let sized = if drive == Drive::Hex {
                hex_size(words, i)
            } else {
                numbers::bit_size(words, after)
                    .map(|(s, _)| drive.bit(&s))
                    .or_else(|| size_ahead(words, i).map(|s| drive.bit(&s)))
                    .or_else(|| (after..after + 2).find_map(|n| by_number(words, n)).map(|s| drive.bit(&s)))
                    .or_else(|| one_at_the_end(words, i, after).then(|| drive.bit("1")))
            };
            // "two phillips one is longer" is no PH1: a spoken size is a plain number right behind the drive.
            found = Some((drive, code.or(sized)));
        }
    }
    found
}

/// "five of them pozidriv one.", and no "a pozidriv one".
fn one_at_the_end(words: &[&str], drive: usize, at: usize) -> bool {
    let many = drive > 0 && matches!(words[drive - 1], "them" | "are" | "'re" | "those" | "these" | "all" | "screw");
    many && at + 1 == words.len() && words[at] == "one"
}

/// "a double zero Phillips".
fn size_ahead(words: &[&str], at: usize) -> Option<String> {
    let from = at.saturating_sub(2);
    match &words[from..at] {
        ["double", "zero" | "oh"] | ["zero", "zero"] => Some("00".to_owned()),
        ["triple", "zero" | "oh"] => Some("000".to_owned()),
        _ => at.checked_sub(2).and_then(|from| by_number(words, from)),
    }
}

/// "the number two Phillips", "a Phillips, number one": the larger the number, the larger the cross.
fn by_number(words: &[&str], at: usize) -> Option<String> {
    const LARGEST: f64 = 4.0;
    let figure = numbers::figure_at(words, at + 1).filter(|_| words.get(at) == Some(&"number"))?;
    (figure.value.fract() == 0.0 && figure.value <= LARGEST).then(|| format!("{}", figure.value))
}

/// A hex key goes by its size: "1.5 hex", "hex driver 2.5 millimetres".
fn hex_size(words: &[&str], at: usize) -> Option<String> {
    let before =
        (at.saturating_sub(5)..at).filter_map(|i| numbers::figure_at(words, i).filter(|f| f.at + f.len == at)).next();
    let after = || (at + 1..(at + 3).min(words.len())).find_map(|i| numbers::figure_at(words, i));
    let sized = |f: &numbers::Figure| {
        f.value < 8.0 && (f.value.fract() > 0.0 || LEXICON.units.at(words, f.at + f.len).is_some())
    };
    before.filter(sized).or_else(|| after().filter(sized)).map(|f| Drive::Hex.bit(&units::number(f.value)))
}
