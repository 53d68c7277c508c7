//! Fourth pass: clauses to typed facts.
//!
//! One function a kind of fact. Each looks at one sentence and the little that is remembered of those before it (what
//! the last screws held, which drive was in hand), because narrators say "the same driver" and "three more".

use super::act::{Act, Direction};
use super::clauses::{self, Clause, Mood, NounPhrase};
use super::facts::{
    ActFact, CautionSubject, ConnectorFact, ConnectorOp, Drive, Facts, FastenerFact, FastenerOp, HeatFact, HeatSource,
    NeedFact, PartFact, PartOp,
};
use super::lexicon::LEXICON;
use super::numbers::{self, Quantified};
use super::sentences::Sentence;
use crate::units::{self, Quantity, Span, Unit};

/// What carries over from sentence to sentence.
#[derive(Debug, Clone, Default)]
pub(super) struct Memory {
    pub rebuild: bool,
    pub last_part: Option<String>,
    /// The thing last spoken of, for "it" and "that".
    pub topic: Option<String>,
    pub last_drive: Option<(Drive, Option<String>)>,
    /// The cue of the last sentence that spoke of screws.
    pub screws_in_cue: Option<usize>,
    pub last_screws: Option<String>,
}

/// What kind of sentence the facts are looked for in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Ground {
    Work,
    /// A list of tools, a chain told, a warning: things are named but nothing is done.
    Told,
}

pub(super) fn extract(sentence: &Sentence, clauses: &[Clause], ground: Ground, memory: &mut Memory) -> Facts {
    let words: Vec<&str> = sentence.tokens.iter().map(|t| t.lemma.as_str()).collect();
    let quantities = numbers::quantities(&words);
    let mut facts = Facts {
        measures: quantities.iter().map(|q| q.measure.clone()).collect(),
        tools: tools(&words),
        consumables: LEXICON.consumables.all(&words).into_iter().map(|(_, _, c)| *c).collect(),
        ..Facts::default()
    };
    facts.consumables.sort();
    facts.consumables.dedup();
    if ground == Ground::Work {
        facts.acts = acts(sentence, clauses);
        facts.heat = heat(&words, clauses, &quantities, &facts.tools);
        let screws = fasteners(sentence, &words, clauses, &quantities, memory);
        facts.connectors = connectors(&words, clauses, memory);
        facts.parts = parts(&words, clauses, memory);
        if let Some(part) = facts.parts.last() {
            memory.last_part = Some(part.what.clone());
        }
        facts.fasteners = screws;
    }
    if let Some(thing) = clauses::things(&words, 0, words.len()).iter().find(|np| !np.connection) {
        memory.topic = Some(thing.text());
    }
    facts
}

/// "pull it out", "unplug that": the object is what was last spoken of, in this sentence or before.
fn pointed_at(words: &[&str], clause: &Clause, memory: &Memory) -> Option<String> {
    let points =
        clause.objects.is_empty() && words[clause.from..clause.to].iter().any(|w| matches!(*w, "it" | "that" | "this"));
    let here = || clauses::things(words, 0, clause.from).iter().rfind(|np| !np.connection).map(NounPhrase::text);
    if points { here().or_else(|| memory.topic.clone()) } else { None }
}

fn tools(words: &[&str]) -> Vec<String> {
    let mut out: Vec<String> = LEXICON.tools.all(words).into_iter().map(|(_, _, t)| t.clone()).collect();
    for i in 0..words.len() {
        // "the driver board" is a part, not a tool.
        let part = words.get(i + 1).is_some_and(|_| LEXICON.part_heads.at(words, i + 1).is_some());
        if matches!(words[i], "screwdriver" | "driver" | "turner" | "bit")
            && !part
            && !out.iter().any(|t| t.ends_with("driver") && words[i] == "driver")
        {
            let drive = drive_near(words, i.saturating_sub(6), i + 1).map(|(d, _)| d);
            out.push(drive.map_or("screwdriver".to_owned(), |d| format!("{} screwdriver", d.name())));
        }
    }
    // In a list of tools a drive stands for its driver: "a T8 torx and a small philips".
    if LEXICON.tool_list.any(words).is_some() {
        out.extend(LEXICON.drives.all(words).into_iter().map(|(_, _, d)| format!("{} screwdriver", d.name())));
        out.extend(words.iter().filter_map(|w| numbers::bit_code(w)).map(|(d, _)| format!("{} screwdriver", d.name())));
        if out.iter().any(|t| t.ends_with(" screwdriver")) {
            out.retain(|t| t != "screwdriver");
        }
    }
    out.sort();
    out.dedup();
    out
}

fn acts(sentence: &Sentence, clauses: &[Clause]) -> Vec<ActFact> {
    clauses
        .iter()
        .filter(|c| c.mood == Mood::Plain)
        .filter_map(|c| {
            let act = c.act?;
            Some(ActFact {
                act,
                objects: c.objects.iter().map(NounPhrase::text).collect(),
                start: sentence.tokens[c.from].start,
                end: sentence.tokens[c.to - 1].end,
            })
        })
        .collect()
}

/// Drive and bit named within `from..to`.
fn drive_near(words: &[&str], from: usize, to: usize) -> Option<(Drive, Option<String>)> {
    let to = to.min(words.len());
    for i in from..to {
        if let Some((drive, code)) = numbers::bit_code(words[i]) {
            return Some((drive, Some(code)));
        }
        if words[i] == "t"
            && let Some((size, _)) = numbers::bit_size(words, i + 1)
        {
            return Some((Drive::Torx, Some(Drive::Torx.bit(&size))));
        }
        if let Some((len, drive)) = LEXICON.drives.at(words, i) {
            let drive = *drive;
            let code =
                (i + len..(i + len + 3).min(words.len())).find_map(|n| numbers::bit_code(words[n]).map(|(_, c)| c));
            let mut after = i + len;
            while after < words.len() && matches!(words[after], "screwdriver" | "driver" | "screw" | "size") {
                after += 1;
            }
            let sized = if drive == Drive::Hex {
                hex_size(words, i)
            } else {
                numbers::bit_size(words, after).map(|(s, _)| drive.bit(&s))
            };
            // "two phillips one is longer" is no PH1: a spoken size is a plain number right behind the drive.
            return Some((drive, code.or(sized)));
        }
    }
    None
}

/// A hex key goes by its size: "1.5 hex", "hex driver 2.5 millimetres".
fn hex_size(words: &[&str], at: usize) -> Option<String> {
    let before =
        (at.saturating_sub(5)..at).filter_map(|i| numbers::figure_at(words, i).filter(|f| f.at + f.len == at)).next();
    let after = || (at + 1..(at + 3).min(words.len())).find_map(|i| numbers::figure_at(words, i));
    before.or_else(after).filter(|f| f.value <= 10.0).map(|f| Drive::Hex.bit(&units::number(f.value)))
}

fn is_screw(word: &str) -> bool {
    matches!(word, "screw" | "bolt" | "nut")
}

fn fasteners(
    sentence: &Sentence,
    words: &[&str],
    clauses: &[Clause],
    quantities: &[Quantified],
    memory: &mut Memory,
) -> Vec<FastenerFact> {
    let cue = sentence.tokens[0].cue;
    let named = words.iter().any(|w| is_screw(w));
    let drive_here = drive_near(words, 0, words.len());
    // "Phillips, six millimetres": a drive and a size right after a sentence of screws go on about them.
    let goes_on = memory.screws_in_cue == Some(cue) && !named;
    if !named && !goes_on {
        return Vec::new();
    }
    let op = fastener_op(words, clauses, memory);
    let captive = words.iter().any(|w| matches!(*w, "captive")) || mentions(words, &["stay", "in"]);
    let what =
        if named { held(words, clauses).or_else(|| memory.last_part.clone()) } else { memory.last_screws.clone() };
    let drive = drive_here.clone().or_else(|| mentions(words, &["same"]).then(|| memory.last_drive.clone()).flatten());
    let groups = if named { counts(words, quantities) } else { sized_groups(words, quantities) };
    if drive_here.is_some() {
        memory.last_drive = drive_here;
    }
    if named {
        memory.screws_in_cue = Some(cue);
        memory.last_screws = what.clone();
    }
    // Screws without a number, a drive or a length are spoken of, not worked on.
    groups
        .into_iter()
        .filter(|(count, length)| count.is_some_and(|n| n > 0) || (count.is_none() && (length.is_some() || captive)))
        .map(|(count, length)| FastenerFact {
            op,
            count,
            drive: drive.as_ref().map(|(d, _)| *d),
            bit: drive.as_ref().and_then(|(_, b)| b.clone()),
            length: length.map(units::millimetres),
            captive,
            what: what.clone(),
        })
        .collect()
}

fn mentions(words: &[&str], phrase: &[&str]) -> bool {
    words.windows(phrase.len()).any(|w| w == phrase)
}

/// The verb that governs the screws, else the phase of the narration.
fn fastener_op(words: &[&str], clauses: &[Clause], memory: &Memory) -> FastenerOp {
    let captive = words.contains(&"captive");
    let governs = |c: &&Clause| words[c.from..c.to].iter().any(|w| is_screw(w));
    let turned = |act: Act| match act {
        Act::Loosen => Some(FastenerOp::Loosen),
        Act::Tighten => Some(if captive || !words.iter().any(|w| LEXICON.numbers.contains_key(*w)) {
            FastenerOp::Tighten
        } else {
            FastenerOp::Install
        }),
        Act::Unscrew => Some(FastenerOp::Remove),
        Act::Drive => Some(FastenerOp::Install),
        _ => None,
    };
    let moved = |act: Act| match act {
        Act::Remove => Some(FastenerOp::Remove),
        Act::Install => Some(FastenerOp::Install),
        _ => None,
    };
    let said = clauses.iter().filter(|c| c.mood != Mood::Negated).filter_map(|c| c.act).find_map(turned);
    let said = said.or_else(|| clauses.iter().filter(governs).filter_map(|c| c.act).find_map(moved));
    said.unwrap_or(match (memory.rebuild, captive) {
        (false, false) => FastenerOp::Remove,
        (false, true) => FastenerOp::Loosen,
        (true, false) => FastenerOp::Install,
        (true, true) => FastenerOp::Tighten,
    })
}

/// What screws hold: "from the rear housing", "of the shield", "hold the driver plate", "on the bottom cover".
fn held(words: &[&str], clauses: &[Clause]) -> Option<String> {
    let screw = words.iter().position(|w| is_screw(w))?;
    let after = (screw..words.len())
        .find(|i| matches!(words[*i], "from" | "of" | "in" | "hold" | "holding" | "on" | "out" | "into" | "through"))?;
    let phrase = clauses
        .iter()
        .flat_map(|c| &c.objects)
        .filter(|np| np.known && np.at > after && !np.words.iter().any(|w| is_screw(w)))
        .map(NounPhrase::text)
        .next();
    phrase.or_else(|| part_after(words, after)).or_else(|| unknown_after(words, after))
}

/// "from the wobulator": a thing that no list knows is still a thing.
fn unknown_after(words: &[&str], preposition: usize) -> Option<String> {
    let begin = preposition + 1 + usize::from(matches!(words.get(preposition + 1), Some(&("the" | "a" | "its"))));
    let named: Vec<&str> = words
        .get(begin..)?
        .iter()
        .copied()
        .take_while(|w| !LEXICON.stop.contains(*w) && !LEXICON.never_parts.contains(*w))
        .take(3)
        .collect();
    (begin > preposition + 1 && !named.is_empty()).then(|| named.join(" "))
}

/// The first part named after a place of the sentence.
fn part_after(words: &[&str], from: usize) -> Option<String> {
    (from..words.len()).find_map(|i| {
        let (mut len, ()) = LEXICON.part_heads.at(words, i)?;
        // "base plate": two part words in a row are one part.
        while let Some((more, ())) = LEXICON.part_heads.at(words, i + len) {
            len += more;
        }
        let begin = (from + 1..i)
            .rev()
            .take(2)
            .take_while(|n| !LEXICON.stop.contains(words[*n]) && !is_screw(words[*n]))
            .last()
            .unwrap_or(i);
        Some(words[begin..i + len].join(" "))
    })
}

/// Counts with lengths in a sentence that names screws.
fn counts(words: &[&str], quantities: &[Quantified]) -> Vec<(Option<u32>, Option<f64>)> {
    let lengths: Vec<f64> =
        quantities.iter().filter(|q| q.measure.quantity == Quantity::Length).map(|q| q.measure.value).collect();
    let count = counted_aloud(words).or_else(|| stated_count(words, quantities));
    vec![(count, lengths.first().copied())]
}

/// "four along the sides are 5 millimetres": a count and a length without the word screw.
fn sized_groups(words: &[&str], quantities: &[Quantified]) -> Vec<(Option<u32>, Option<f64>)> {
    let length = quantities.iter().find(|q| q.measure.quantity == Quantity::Length);
    let count = numbers::figures(words)
        .into_iter()
        .find(|f| f.value.fract() == 0.0 && !quantities.iter().any(|q| (q.at..q.at + q.len).contains(&f.at)));
    match (count, length) {
        (Some(c), Some(q)) => vec![(Some(c.value as u32), Some(q.measure.value))],
        _ => Vec::new(),
    }
}

/// "one here, one here and one down there" or "one two three four": the last figure or the number of ones.
fn counted_aloud(words: &[&str]) -> Option<u32> {
    let place = |w: &str| matches!(w, "here" | "there" | "down" | "up" | "on" | "at" | "under");
    let ones = words.windows(3).filter(|w| w[0] == "one" && (place(w[1]) || (is_screw(w[1]) && place(w[2])))).count()
        + usize::from(words.ends_with(&["one", "here"]));
    let run = words
        .iter()
        .filter_map(|w| LEXICON.numbers.get(*w))
        .fold((0.0, 0.0_f64), |(next, best), n| if *n == next + 1.0 { (*n, best.max(*n)) } else { (next, best) });
    // A correction after counting wins: "four okay five".
    if run.1 >= 3.0 {
        return Some(run.1 as u32);
    }
    (ones >= 2).then_some(ones as u32)
}

/// The figure nearest in front of the screws, if it is neither a size nor a measure.
fn stated_count(words: &[&str], quantities: &[Quantified]) -> Option<u32> {
    let screw = words.iter().position(|w| is_screw(w))?;
    let free = |f: &numbers::Figure| {
        f.value.fract() == 0.0
            && (1.0..=200.0).contains(&f.value)
            && !quantities.iter().any(|q| (q.at..q.at + q.len).contains(&f.at))
            && !f.at.checked_sub(1).is_some_and(|i| {
                LEXICON.drives.at(words, i).is_some() || matches!(words[i], "number" | "t" | "step" | "zero" | "size")
            })
    };
    let figures = numbers::figures(words);
    // "four rubber feet hide the screws" counts feet: no other thing may stand between.
    let other = |f: &numbers::Figure| (f.at + f.len..screw).any(|i| LEXICON.part_heads.at(words, i).is_some());
    let before = figures.iter().rev().find(|f| f.at < screw && screw - f.at <= 7 && free(f) && !other(f));
    let both = words[..screw].iter().rev().take(4).any(|w| *w == "both");
    before.map(|f| f.value as u32).or(both.then_some(2))
}

fn connectors(words: &[&str], clauses: &[Clause], memory: &Memory) -> Vec<ConnectorFact> {
    let mut out = Vec::new();
    for clause in clauses.iter().filter(|c| matches!(c.mood, Mood::Plain)) {
        let Some(act) = clause.act else { continue };
        let plugs: Vec<&NounPhrase> = clause.objects.iter().filter(|np| np.connection).collect();
        let op = match act {
            Act::Disconnect => Some(ConnectorOp::Disconnect),
            Act::Connect => Some(ConnectorOp::Connect),
            Act::Remove if !plugs.is_empty() => Some(ConnectorOp::Disconnect),
            Act::Install if !plugs.is_empty() => Some(ConnectorOp::Connect),
            _ => None,
        };
        let Some(op) = op else { continue };
        // "unplug the battery, grab the plug": the first thing named is what the plug serves.
        let first = clause
            .objects
            .first()
            .filter(|np| np.known && !np.connection && matches!(act, Act::Disconnect | Act::Connect));
        let served: Vec<&NounPhrase> = match (first, plugs.is_empty()) {
            (Some(first), _) => vec![first],
            (None, true) => clause.objects.iter().filter(|np| np.known).take(1).collect(),
            (None, false) => plugs,
        };
        out.extend(served.iter().map(|np| ConnectorFact { op, what: np.serves() }));
        let latch = words[clause.from..clause.to].contains(&"latch");
        if served.is_empty() && clause.objects.is_empty() && !latch {
            out.push(ConnectorFact { op, what: pointed_at(words, clause, memory) });
        }
    }
    out
}

fn parts(words: &[&str], clauses: &[Clause], memory: &Memory) -> Vec<PartFact> {
    let mut out: Vec<PartFact> = Vec::new();
    for clause in clauses.iter().filter(|c| c.mood == Mood::Plain) {
        let op = match clause.act {
            Some(Act::Remove) => PartOp::Remove,
            Some(Act::Install | Act::Transfer) => PartOp::Install,
            Some(Act::Peel) if !memory.rebuild => PartOp::Remove,
            Some(Act::Open) if !memory.rebuild && lifts_away(words, clause) => PartOp::Remove,
            _ => continue,
        };
        if let Some(what) = pointed_at(words, clause, memory) {
            let fact = PartFact { op, what };
            if !out.contains(&fact) {
                out.push(fact);
            }
        }
        for np in clause.objects.iter().filter(|np| !np.connection && !np.words.iter().any(|w| is_screw(w))) {
            let fact = PartFact { op, what: np.text() };
            let tool = LEXICON.tools.any(&np.words.iter().map(String::as_str).collect::<Vec<_>>()).is_some();
            if !tool && !out.contains(&fact) {
                out.push(fact);
            }
        }
    }
    out
}

/// "Lift the shield" takes it away; "lift it to 40 degrees" or "lift the latch" does not.
fn lifts_away(words: &[&str], clause: &Clause) -> bool {
    let verb = clause.verb.map_or("", |v| words[v]);
    let limited = words[clause.from..]
        .iter()
        .any(|w| matches!(*w, "degree" | "until" | "slightly" | "only" | "gap" | "corner" | "edge" | "end"));
    matches!(verb, "lift" | "lifted" | "lifts") && !limited
}

fn heat(words: &[&str], clauses: &[Clause], quantities: &[Quantified], tools: &[String]) -> Vec<HeatFact> {
    let source = tools.iter().find_map(|t| HeatSource::from_tool(t));
    let heating = clauses.iter().find(|c| c.act == Some(Act::Heat) && c.mood == Mood::Plain);
    let used = source.is_some()
        && clauses.iter().any(|c| c.act.is_some() && c.mood == Mood::Plain)
        && quantities.iter().any(|q| matches!(q.measure.quantity, Quantity::Temperature | Quantity::Duration));
    if heating.is_none() && !used {
        return Vec::new();
    }
    let pick = |quantity: Quantity| {
        quantities.iter().find(|q| {
            q.measure.quantity == quantity
                || (quantity == Quantity::Temperature && q.unit == Unit::Degree && q.measure.value > 50.0)
        })
    };
    let temperature = pick(Quantity::Temperature).map(|q| Span {
        low: units::celsius(q.measure.value),
        high: units::celsius(q.measure.to.unwrap_or(q.measure.value)),
    });
    let dwell = pick(Quantity::Duration).map(|q| Span {
        low: units::seconds(q.measure.value),
        high: units::seconds(q.measure.to.unwrap_or(q.measure.value)),
    });
    let target = heating
        .and_then(|c| {
            c.objects.iter().find(|np| np.known && HeatSource::from_tool(&np.text()).is_none()).map(NounPhrase::text)
        })
        .or_else(|| part_after(words, 0).filter(|p| HeatSource::from_tool(p).is_none()));
    vec![HeatFact { source, target, temperature, dwell }]
}

/// What a warning is about: the subject with the most words in the sentence, and one that ties with it.
pub(super) fn caution_subjects(words: &[&str]) -> Vec<CautionSubject> {
    let found = LEXICON.caution_subjects.all(words);
    let mut tally: Vec<(usize, usize, CautionSubject)> = LEXICON
        .caution_order
        .iter()
        .enumerate()
        .map(|(rank, s)| (found.iter().filter(|(_, _, about)| *about == s).count(), rank, *s))
        .filter(|(n, _, _)| *n > 0)
        .collect();
    tally.sort_by_key(|(n, rank, _)| (std::cmp::Reverse(*n), *rank));
    let most = tally.first().map_or(0, |(n, _, _)| *n);
    let named: Vec<CautionSubject> =
        tally.into_iter().take_while(|(n, _, _)| *n == most).take(2).map(|(_, _, s)| s).collect();
    if named.is_empty() { vec![CautionSubject::Other] } else { named }
}

/// "If you needed to replace the fan you would have to take off the cover and the board": a chain, no action.
///
/// The target stands before the words of duty ("have to", "must", "after"), what comes off stands behind them.
pub(super) fn needs(words: &[&str], memory: &Memory) -> Vec<NeedFact> {
    const FREE: [&[&str]; 4] =
        [&["without", "taking"], &["any", "time"], &["nothing", "has"], &["without", "to", "open"]];
    let nothing = FREE.iter().any(|f| mentions(words, f));
    let duty = (0..words.len()).find(|i| {
        words[*i] == "after"
            || words[*i] == "must"
            || words[*i..].starts_with(&["have", "to"])
            || words[*i..].starts_with(&["got", "to"])
            || words[*i..].starts_with(&["take", "off"])
            || words[*i..].starts_with(&["gotta"])
    });
    let split = duty.unwrap_or(words.len());
    let target = clauses::things(words, 0, split).first().map(NounPhrase::text).or_else(|| memory.topic.clone());
    let Some(target) = target else { return Vec::new() };
    let after: Vec<String> = if nothing {
        Vec::new()
    } else {
        clauses::things(words, split, words.len()).iter().map(NounPhrase::text).filter(|t| *t != target).collect()
    };
    if after.is_empty() && !nothing { Vec::new() } else { vec![NeedFact { target, after }] }
}

/// Whether the acts of a sentence take apart or put together, by majority.
pub(super) fn direction(clauses: &[Clause]) -> Direction {
    let count = |d: Direction| {
        clauses.iter().filter(|c| c.mood == Mood::Plain && c.act.is_some_and(|a| a.direction() == d)).count()
    };
    match count(Direction::Out).cmp(&count(Direction::In)) {
        std::cmp::Ordering::Greater => Direction::Out,
        std::cmp::Ordering::Less => Direction::In,
        std::cmp::Ordering::Equal => Direction::Neutral,
    }
}
