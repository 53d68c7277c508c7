//! Third pass and a half, for run-on speech alone: sentences end where a new clause can stand by itself.
//!
//! Where a recogniser writes no full stops, joining words alone leave sentences of fifty words, in which "it" means three
//! things and a condition swallows the acts behind it. The grammar sees where one ends: behind a whole clause, before an
//! order or before a thing with its own verb.

use super::clauses::{Clause, Mood};
use super::lexicon::LEXICON;
use super::phrases::Thing;
use super::sentences::Sentence;
use super::tags::{Tag, Tagged};

/// The words before which a sentence ends, in order.
pub(super) fn ends(t: &Tagged<'_>, clauses: &[Clause]) -> Vec<usize> {
    const SHORTEST: usize = 3;
    let mut out: Vec<usize> = Vec::new();
    if t.punctuated {
        return out;
    }
    for n in 1..clauses.len() {
        let at = clauses[n].from;
        let since = at - out.last().copied().unwrap_or(0);
        if since >= SHORTEST && t.len() - at >= SHORTEST - 1 && stands_alone(t, &clauses[n]) && whole(t, clauses, n) {
            out.extend(behind_its_object(t, clauses, n));
        }
    }
    for at in (SHORTEST..t.len().saturating_sub(SHORTEST - 1)).filter(|at| warns_anew(t, *at)) {
        if out.iter().all(|end| end.abs_diff(at) >= SHORTEST) {
            out.push(at);
        }
    }
    out.sort_unstable();
    out
}

/// Words with which a warning opens, whether or not a clause is seen behind them: "… lift the lid off no metal in here",
/// "… the other side don't skip this", "… and out it goes the thing to watch is the fuse".
fn warns_anew(t: &Tagged<'_>, at: usize) -> bool {
    const OPENERS: [&[&str]; 8] = [
        &["the", "thing", "to", "watch"],
        &["the", "only", "thing"],
        &["whatever", "you", "do"],
        &["be", "careful"],
        &["careful", "here"],
        &["please", "don't"],
        &["please", "no"],
        &["just", "don't"],
    ];
    let behind = &t.said[at..];
    let done = t.tags[at - 1] == Tag::Particle
        || matches!(t.said[at - 1], "it" | "them" | "side" | "here" | "there" | "now" | "again" | "way");
    let named = done || t.tags[at - 1] == Tag::Noun;
    let opens = OPENERS.iter().any(|o| behind.starts_with(o));
    let forbids =
        matches!(behind[0], "don't" | "never") && !matches!(t.said[at - 1], "just" | "please" | "still" | "also");
    let bars = behind[0] == "no" && LEXICON.kept_out.at(&t.words, at + 1).is_some();
    named && (opens || bars) || done && forbids
}

/// The clause begins with its own verb or its own subject, and nothing binds it to what stands before.
fn stands_alone(t: &Tagged<'_>, c: &Clause) -> bool {
    let Some(verb) = c.verb.filter(|_| !c.elliptic) else { return false };
    let told = matches!(c.mood, Mood::Plain | Mood::Negated | Mood::Potential);
    told && !bound(t, c.from) && opens(t, c, verb)
}

/// The word before wants another behind it.
fn bound(t: &Tagged<'_>, at: usize) -> bool {
    // "a nearly empty cell": what the adverb belongs to decides.
    let mut i = at - 1;
    while i > 0 && t.tags[i] == Tag::Adverb && LEXICON.classes.determiner.contains(t.words[i - 1]) {
        i -= 1;
    }
    let ends_alone = matches!(
        t.words[i],
        "hang"
            | "fall"
            | "stop"
            | "break"
            | "slip"
            | "work"
            | "dry"
            | "cool"
            | "click"
            | "move"
            | "rest"
            | "snap"
            | "rattle"
    );
    match t.tags[i] {
        // "the set screw", "a guitar pick"
        _ if t.words[at - 1] == "set" && t.words[at] == "screw" => true,
        _ if LEXICON.tools.at(&t.words[at - 1..=at], 0).is_some_and(|(len, _)| len == 2) => true,
        Tag::Conjunction | Tag::Subordinator | Tag::Preposition | Tag::Determiner | Tag::To | Tag::Modal => true,
        Tag::Negation | Tag::Auxiliary | Tag::Number => true,
        Tag::Verb => !ends_alone,
        _ => matches!(
            t.words[i],
            "that" | "this" | "which" | "who" | "what" | "how" | "where" | "when" | "just" | "then"
        ),
    }
}

fn opens(t: &Tagged<'_>, c: &Clause, verb: usize) -> bool {
    if c.from != verb {
        return !matches!(
            t.tags[c.from],
            Tag::Conjunction | Tag::Subordinator | Tag::Preposition | Tag::To | Tag::Particle
        ) && !matches!(t.words[c.from], "that" | "which" | "who")
            && (!c.subject.is_empty() || matches!(t.said[c.from], "do" | "don't" | "never" | "always" | "please"));
    }
    // An order: "lift the lid"; but "three cables go to it", "the knobs pull straight off" tell of what stands before.
    let before = t.said[c.from - 1];
    let several = t.tags[c.from - 1] == Tag::Noun && before.ends_with('s') && !before.ends_with("ss");
    let takes =
        t.tag(verb + 1).is_some_and(|n| matches!(n, Tag::Determiner | Tag::Pronoun | Tag::Number | Tag::Particle));
    let tells = matches!(c.base, "go" | "come" | "sit" | "lie" | "have" | "look" | "hold" | "stay" | "need" | "run");
    t.said[verb] == c.base && !(several && (tells || !takes))
}

/// What stands before is complete without it.
fn whole(t: &Tagged<'_>, clauses: &[Clause], n: usize) -> bool {
    // "make sure it's straight", "let it cool", "I think it's glued": the clause is what is thought or made.
    const TAKES_A_CLAUSE: [&str; 27] = [
        "let", "make", "help", "see", "watch", "feel", "hear", "know", "think", "say", "mean", "hope", "believe",
        "notice", "wonder", "guess", "want", "sure", "check", "remember", "bet", "show", "tell", "find", "look",
        "note", "need",
    ];
    let before = &clauses[n - 1];
    // "let the cell cool", but "so I know the order keep the iron away": what is known is told already.
    const TAKES_AN_ORDER: [&str; 7] = ["let", "make", "help", "see", "watch", "feel", "hear"];
    let near = clauses[n].from - before.verb.unwrap_or(before.from) <= 3;
    let told = !before.objects.is_empty()
        && clauses[n].verb == Some(clauses[n].from)
        && !TAKES_AN_ORDER.contains(&before.base);
    if TAKES_A_CLAUSE.contains(&before.base) && near && !told {
        return false;
    }
    // "if it breaks use some alcohol": a condition wants its consequence, unless it follows one.
    let first = clauses[..n - 1].iter().all(|c| c.to <= before.from && !c.is_plain()) || n == 1;
    let open = matches!(before.mood, Mood::Conditional | Mood::Purpose) && first;
    // "the screw that holds it comes out": so does a thing with a clause about it.
    let relative = before.mood == Mood::Relative && before.to == clauses[n].from && clauses[n].subject.is_empty();
    !open && !relative && !matches!(t.words[clauses[n].from - 1], "as" | "like")
}

/// "lay in the new gasket do not use the old one": the thing between two verbs belongs to the one that lacks its object.
fn behind_its_object(t: &Tagged<'_>, clauses: &[Clause], n: usize) -> Option<usize> {
    let (before, c) = (&clauses[n - 1], &clauses[n]);
    let ordered = before.verb == Some(before.from) && before.act.is_some();
    let lacks = ordered && before.objects.is_empty() && before.to == c.from;
    let Some(thing) = c.subject.first().filter(|s| lacks && s.from == c.from && s.thing != Thing::Pronoun) else {
        return Some(c.from);
    };
    // Without its subject the rest must be an order.
    matches!(t.said.get(thing.to), Some(&("do" | "don't" | "never"))).then_some(thing.to)
}

/// A sentence in its parts.
pub(super) fn part(sentence: Sentence, ends: &[usize]) -> Vec<Sentence> {
    let mut rest = sentence.tokens;
    let mut out = Vec::with_capacity(ends.len() + 1);
    for end in ends.iter().rev() {
        out.push(Sentence { tokens: rest.split_off(*end) });
    }
    out.push(Sentence { tokens: rest });
    out.reverse();
    out
}

#[cfg(test)]
mod tests {
    use super::super::read;
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case("so take the lid off and put it aside pull out the fan it's held by one clip", &["so take the lid off and put it aside", "pull out the fan", "it's held by one clip"])]
    #[case("if it breaks put some alcohol on it never bend the battery it can catch fire", &["if it breaks put some alcohol on it", "never bend the battery", "it can catch fire"])]
    #[case("there are four screws on the back the two in the corners are longer", &["there are four screws on the back", "the two in the corners are longer"])]
    #[case("I took a photo so I know the order keep the iron away from the white plug", &["I took a photo", "so I know the order", "keep the iron away from the white plug"])]
    #[case("make sure it's in straight and close the latch", &["make sure it's in straight and close the latch"])]
    #[case("undo the set screw on the arm look how dirty this thing is", &["undo the set screw on the arm look how dirty this thing is"])]
    #[case("let it cool down for a minute before you touch it", &["let it cool down for a minute before you touch it"])]
    #[case("lift the rear lid off no metal tools in here please", &["lift the rear lid off", "no metal tools in here please"])]
    #[case("do the same on the other side don't skip this or it'll leak", &["do the same on the other side", "don't skip this or it'll leak"])]
    #[case("the two clips on the lid don't come out", &["the two clips on the lid don't come out"])]
    #[case("there's no metal in this one", &["there's no metal in this one"])]
    fn run_on_speech_ends_where_a_clause_stands_alone(#[case] text: &str, #[case] parts: &[&str]) {
        let found: Vec<String> =
            read(&Recording::parse(text.as_bytes()).unwrap()).statements.into_iter().map(|s| s.text).collect();
        assert_eq!(found, parts);
    }
}
