//! Where the narration turns from taking apart to putting together.
//!
//! One turn is looked for: the place that leaves most "out" before it and most "in" behind it, with words such as
//! "assembly" as a strong hint. A recording that only says "in reverse" never turns.

use super::act::Act;
use super::clauses::Clause;
use super::lexicon::LEXICON;
use super::phrases::Thing;

/// Evidence of one sentence for the turn.
struct Lean {
    cue: usize,
    /// Positive: putting together.
    weight: i32,
    hint: bool,
}

/// The cue in which the rebuild begins, if one is narrated.
pub(super) fn turn(sentences: &[(usize, Vec<&str>, &[Clause])]) -> Option<usize> {
    let leans: Vec<Lean> = sentences.iter().map(|(cue, words, clauses)| lean(*cue, words, clauses)).collect();
    let inward: i32 = leans.iter().filter(|l| l.weight > 0).map(|l| l.weight).sum();
    let outward: i32 = leans.iter().filter(|l| l.weight < 0).map(|l| -l.weight).sum();
    // Two acts make a rebuild only where words announce it.
    const FEWEST: i32 = 3;
    const FEWEST_ANNOUNCED: i32 = 2;
    if inward < FEWEST_ANNOUNCED {
        return None;
    }
    if outward == 0 {
        // A recording of the second half alone.
        let opens = leans.iter().find(|l| l.weight > 0).map(|l| l.cue);
        return opens.filter(|_| inward >= FEWEST || leans.iter().any(|l| l.hint));
    }
    let mut best: Option<(i32, usize)> = None;
    let total: i32 = leans.iter().map(|l| l.weight).sum();
    let mut before = 0;
    for (i, here) in leans.iter().enumerate() {
        const HINT: i32 = 3;
        let opens_cue = i == 0 || leans[i - 1].cue != here.cue;
        if opens_cue {
            let of_cue = || leans[i..].iter().take_while(|l| l.cue == here.cue);
            let hint = of_cue().any(|l| l.hint);
            let own: i32 = of_cue().map(|l| l.weight).sum();
            let score = (total - before) - before + if hint { HINT } else { 0 };
            // The first of equals: a cue that only talks belongs to what follows it no more than to what came before.
            if own >= 0 && (own > 0 || hint) && best.is_none_or(|(s, _)| score > s) {
                best = Some((score, here.cue));
            }
        }
        before += here.weight;
    }
    let (_, cue) = best?;
    let after: i32 = leans.iter().filter(|l| l.cue >= cue && l.weight > 0).map(|l| l.weight).sum();
    let earlier = leans.iter().any(|l| l.cue < cue && l.weight < 0);
    let announced = leans.iter().any(|l| l.cue == cue && l.hint);
    (after >= if announced { FEWEST_ANNOUNCED } else { FEWEST } && earlier).then_some(cue)
}

fn lean(cue: usize, words: &[&str], clauses: &[Clause]) -> Lean {
    let told = LEXICON.needs.any(words).is_some() || LEXICON.rebuild_reverse.any(words).is_some();
    let weight = if told { 0 } else { clauses.iter().filter(|c| c.is_plain()).map(weight).sum() };
    Lean { cue, weight, hint: !told && LEXICON.rebuild.any(words).is_some() }
}

/// Only what happens to parts, screws and cables tells the direction; a press on a button does not.
fn weight(clause: &Clause) -> i32 {
    let handles = clause.objects.iter().any(|o| o.known() || matches!(o.thing, Thing::Screw));
    let pronoun = clause.objects.iter().any(|o| o.thing == Thing::Pronoun);
    let weight = match clause.act {
        Some(Act::Remove | Act::Unscrew | Act::Loosen | Act::Disconnect | Act::Desolder) => -1,
        Some(Act::Peel | Act::Open | Act::Pry) if handles => -1,
        Some(Act::Install) if matches!(clause.base, "be" | "come" | "secure" | "line" | "get") => 0,
        Some(Act::Install | Act::Connect | Act::Drive | Act::Tighten | Act::Transfer) => 1,
        _ => 0,
    };
    if handles || (pronoun && weight < 0) { weight } else { 0 }
}

#[cfg(test)]
mod tests {
    use crate::reading::read;
    use crate::recording::Recording;

    fn turn(text: &str) -> Option<u64> {
        read(&Recording::parse(text.as_bytes()).unwrap()).sheet.rebuild_from_s
    }

    #[test]
    fn finds_the_turn_by_what_is_done() {
        let text = "[0:00] Remove the lid. Remove the fan.\n\n[0:20] Pull out the board.\n\n[0:40] Put the board back in. \
                    Install the fan.\n\n[1:00] Put the lid on.";
        assert_eq!(turn(text), Some(40));
    }

    #[test]
    fn reverse_alone_is_no_turn() {
        assert_eq!(
            turn("[0:00] Remove the lid.\n\n[0:20] Pull out the board.\n\n[0:40] To put it back, reverse the steps."),
            None
        );
    }
}
