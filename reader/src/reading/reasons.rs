//! What stands beside a warning and gives its reason.
//!
//! Speech warns in several breaths: "don't lean on the arm", "it's two millimetres of plastic", "and it will snap". Only
//! the first is an order; the reader of a guide needs all three, and needs them in one place.

use super::Statement;
use super::facts::CautionSubject;
use super::lexicon::LEXICON;
use super::marks::Mark;
use super::sentences;
use super::statements::StatementKind;
use super::warned::{caution, forbids, tells_what_to_do};
use std::ops::Range;

/// The longest reason, in words: what goes on longer tells something else.
const LONGEST: usize = 16;

/// The most reasons of one warning.
const MOST: usize = 3;

/// Whether a guide prints a caution for it.
pub fn warns(s: &Statement) -> bool {
    s.kind == StatementKind::Caution || s.kind.is_work() && !s.facts.cautions.is_empty()
}

/// The statements whose words make the caution that statement `at` gives, itself among them.
pub fn breaths(statements: &[Statement], at: usize) -> Range<usize> {
    let warning = &statements[at];
    let said = warning.put_right();
    // What warns of something else besides keeps its own place: a fire is no mere reason not to bend.
    let subjects = subjects(statements, at);
    let beside = |s: &Statement| s.facts.cautions.iter().all(|about| subjects.contains(about));
    if !tells_what_to_do(&said) {
        let behind = at + 1 + usize::from(statements.get(at + 1).is_some_and(only_when));
        let answered = statements.get(behind).is_some_and(|next| answers(warning, next) && beside(next));
        return at..if answered { behind + 1 } else { at + 1 };
    }
    let leads = at > 0 && leads_to(&statements[at - 1], warning) && beside(&statements[at - 1]);
    let follow = |n: &usize| {
        let behind_a_ban = *n == at + 1 && forbids(&said);
        gives_reason(&statements[n - 1], &statements[*n], behind_a_ban) && beside(&statements[*n])
    };
    let to = (at + 1..statements.len()).take(MOST).take_while(follow).last().unwrap_or(at);
    at - usize::from(leads)..to + 1
}

/// What a warning is about: "don't overdo it" leaves that to the "they strip easily" behind it.
fn subjects(statements: &[Statement], at: usize) -> &[CautionSubject] {
    let told = statements[at..].iter().take(MOST + 1).map(|s| &s.facts.cautions[..]);
    told.into_iter().find(|about| !about.is_empty()).unwrap_or_default()
}

/// What the caution that statement `at` gives is about; nothing where neither it nor its reason says so.
pub fn subject_at(statements: &[Statement], at: usize) -> Option<CautionSubject> {
    statements[breaths(statements, at)].iter().find_map(|s| s.facts.cautions.first().copied())
}

/// The caution that statement `at` gives, with the reasons told beside it, as a guide prints it.
pub fn caution_at(statements: &[Statement], at: usize) -> String {
    let mut told: Vec<String> = Vec::new();
    for s in &statements[breaths(statements, at)] {
        match told.last_mut().filter(|_| only_when(s)) {
            Some(last) => *last = format!("{last} {}", s.put_right()),
            None => told.push(s.put_right()),
        }
    }
    told.iter().map(|said| caution(said)).collect::<Vec<_>>().join(" ")
}

/// Whether the statement `at` only gives the reason of the warning before it, and is printed there.
pub fn is_reason(statements: &[Statement], at: usize) -> bool {
    // What was tried in vain warns of nothing.
    let warns = |n: &usize| *n != at && warns(&statements[*n]) && !statements[*n].marks.contains(&Mark::DeadEnd);
    let near = at.saturating_sub(MOST)..statements.len().min(at + 2);
    near.filter(warns).any(|n| breaths(statements, n).contains(&at))
}

/// "There's a little spring under it" before "so don't lose that".
fn leads_to(lead: &Statement, warning: &Statement) -> bool {
    let words = words(&warning.put_right());
    let says = |w: &str| words.iter().any(|word| word == w);
    let points = ["it", "that", "them", "those"].iter().any(|w| says(w));
    let concludes = words.first().is_some_and(|w| w == "so");
    let tells = self::words(&lead.put_right());
    let shows = matches!(tells.first().map(String::as_str), Some("there's" | "there"));
    let is_told = lead.kind == StatementKind::Observation && tells.len() <= LONGEST && nothing_done(lead);
    points && concludes && shows && is_told && follows(lead, warning)
}

/// "If you look at it wrong" behind "the foil tears": when, and nothing that is done then.
fn only_when(s: &Statement) -> bool {
    const SHORT: usize = 8;
    let words = words(&s.put_right());
    s.kind == StatementKind::Condition
        && words.len() <= SHORT
        && words.first().is_some_and(|w| w == "if")
        && nothing_done(s)
        && !words.iter().any(|w| w == "don't")
}

/// "The foil tears" before "so peel it really slowly": what to do about it.
fn answers(hazard: &Statement, order: &Statement) -> bool {
    const SHORT: usize = 11;
    let text = order.put_right();
    let words = words(&text);
    let concludes = words.first().is_some_and(|w| w == "so") && (4..=SHORT).contains(&words.len());
    concludes && follows(hazard, order) && tells_what_to_do(text.trim_start_matches("so "))
}

/// "It's two millimetres of plastic", "because they strip", "there's a cable behind it", "and it will snap".
///
/// Right behind a ban, "you'll push the grit into the bearing" says what comes of it.
fn gives_reason(before: &Statement, reason: &Statement, behind_a_ban: bool) -> bool {
    let text = reason.put_right();
    let words = words(&text);
    let opener = |w: &&String| matches!(w.as_str(), "and" | "because" | "cause" | "since" | "or" | "otherwise");
    let openers = words.iter().take_while(opener).count();
    let rest: Vec<&str> = words[openers..].iter().map(String::as_str).collect();
    let [first, ..] = rest[..] else { return false };
    let told: Vec<&str> = words.iter().map(String::as_str).collect();
    let harms = LEXICON.harm.any(&told).is_some() || LEXICON.fragile.any(&told).is_some();
    let because = openers > 0 && words[openers - 1] != "and";
    let next = rest.get(1).copied().unwrap_or_default();
    let shows = first == "there's" || first == "there" && matches!(next, "is" | "are" | "'s");
    let describes = matches!(first, "it's" | "they're" | "that's")
        || matches!(first, "it" | "they" | "these" | "those" | "that")
            && matches!(next, "is" | "are" | "'s" | "will" | "can" | "only" | "just" | "go");
    let sees = ["see", "find", "notice", "need", "feel", "hear", "want", "have", "be"];
    let ends_badly = behind_a_ban && first == "you'll" && !sees.contains(&next)
        || behind_a_ban && rest.starts_with(&["you", "'ll"]) && !rest.get(2).is_some_and(|w| sees.contains(w));
    let suffers =
        ends_badly || matches!(first, "it" | "they" | "it'll" | "they'll" | "you'll" | "these" | "those") && harms;
    // "And it will snap", "these go into plastic": read as acts, and nobody does them.
    let material = matches!(first, "these" | "those" | "they") && told.iter().any(|w| is_soft(w));
    let only_told = behind_a_ban && describes && nothing_moved(reason);
    let tells = nothing_done(reason) || suffers || material || only_told || because && harms;
    words.len() <= LONGEST
        && follows(before, reason)
        && tells
        && !forbids(&text)
        && (suffers || because && !tells_what_to_do(&text) || shows || describes)
        && reason.kind != StatementKind::Noise
}

/// What gives way to a tool.
fn is_soft(word: &str) -> bool {
    matches!(word, "plastic" | "glass" | "brass" | "aluminium" | "aluminum" | "rubber" | "foam" | "wood" | "paper")
}

/// Told in the same breath: in one segment, or from one to the next.
fn follows(first: &Statement, second: &Statement) -> bool {
    second.cue <= first.last_cue + 1 && !first.text.ends_with('?')
}

/// It holds no work that stands in a step.
fn nothing_done(s: &Statement) -> bool {
    s.facts.acts.is_empty() && nothing_moved(s)
}

/// Whatever verb it has, no part, screw or plug is moved: "it's calibrated".
fn nothing_moved(s: &Statement) -> bool {
    let f = &s.facts;
    f.parts.is_empty() && f.fasteners.is_empty() && f.connectors.is_empty() && f.heat.is_empty()
}

fn words(text: &str) -> Vec<String> {
    sentences::words(text).map(|w| w.to_string()).collect()
}

#[cfg(test)]
mod tests {
    use super::super::draft_guide;
    use crate::recording::Recording;
    use rstest::rstest;

    /// The cautions of a teardown in which one breath is told between two acts.
    fn cautions(said: &str) -> Vec<String> {
        let end = if said.ends_with('.') { "." } else { "" };
        let told =
            format!("[0:00] now lift the rear lid off{end}\n\n[0:10] {said}\n\n[0:20] then take out the pump{end}\n");
        let draft = draft_guide(&Recording::parse(told.as_bytes()).unwrap());
        draft.steps.into_iter().flat_map(|s| s.cautions).collect()
    }

    #[rstest]
    #[case::how_thin_and_what_comes_of_it(
        "don't lean on the float arm it is like two millimetres of plastic and it will snap",
        "Do not lean on the float arm. It is two millimetres of plastic. It will snap."
    )]
    #[case::what_lies_behind(
        "don't go too deep with the blade there's a cable right behind the seam",
        "Do not go too deep with the blade. There is a cable right behind the seam."
    )]
    #[case::what_lies_there_first(
        "and then you take the nozzle off there's a little spring under it so don't lose that",
        "There is a little spring under it. Do not lose that."
    )]
    #[case::what_they_are_made_of(
        "never reuse those washers they're aluminium and they only crush once",
        "Never reuse the washers. They are aluminium. They only crush once."
    )]
    #[case::they_are_no_act(
        "just don't overdo it these go into plastic and they strip easily",
        "Do not overdo it. These go into plastic. They strip easily."
    )]
    #[case::in_sentences(
        "Do not lean on the float arm. It is brittle. Then undo the nozzle.",
        "Do not lean on the float arm. It is brittle."
    )]
    #[case::a_fourth_reason_is_another_tale(
        "don't bend the arm it's thin it's old it's brittle it's brown",
        "Do not bend the arm. It is thin. It is old. It is brittle."
    )]
    #[case::twice_is_once("don't bend the arm okay so don't bend the arm", "Do not bend the arm.")]
    fn a_reason_stands_with_its_warning(#[case] said: &str, #[case] wanted: &str) {
        assert_eq!(cautions(said), [wanted]);
    }

    /// "It can catch fire" is about the battery and weighs more than the force: it is not folded into the other.
    #[test]
    fn a_graver_warning_keeps_its_own_place() {
        let told = cautions("don't lean on the float arm the battery is under it and it can catch fire");
        assert!(told.iter().any(|c| c.starts_with("Do not lean on the float arm.") && !c.contains("fire")), "{told:?}");
        assert!(told.iter().any(|c| c.contains("fire")), "{told:?}");
    }

    #[rstest]
    #[case::the_work_goes_on("don't bend the arm it's held by two screws take those out", "Do not bend the arm.")]
    #[case::a_question("Don't bend the arm. Is it loose? It is held by a clip.", "Do not bend the arm.")]
    #[case::another_order("don't bend the arm put it on the towel", "Do not bend the arm.")]
    fn what_goes_on_with_the_work_is_no_reason(#[case] said: &str, #[case] first: &str) {
        assert_eq!(cautions(said).first().map(String::as_str), Some(first));
    }
}
