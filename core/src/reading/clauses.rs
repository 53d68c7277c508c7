//! Third pass: sentences to clauses, each with its verb and its objects.
//!
//! A clause is as much as one verb governs. The verb is found by grammar (it opens the clause after words like "now you
//! want to") and the lexicon; its objects are the noun phrases behind it, or in front of it for "the cover comes off".

use super::act::{Act, Direction};
use super::lexicon::{LEXICON, Lexicon};
use super::sentences::{Sentence, Token};

/// One verb with what it is done to.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Clause {
    /// Tokens of the sentence.
    pub from: usize,
    pub to: usize,
    pub act: Option<Act>,
    /// Index of the verb in the sentence.
    pub verb: Option<usize>,
    pub objects: Vec<NounPhrase>,
    pub mood: Mood,
}

/// Whether a clause tells what is done or something about it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Mood {
    Plain,
    /// "if", "when", "until" …
    Conditional,
    /// "don't", "never", "we're not touching".
    Negated,
    /// "because", "so that", "which".
    Reason,
}

/// A thing, by its words without articles and sides.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct NounPhrase {
    pub at: usize,
    pub words: Vec<String>,
    /// The head is a part by the lexicon.
    pub known: bool,
    /// The phrase names a connection ("keypad cable"); its words then say what it serves.
    pub connection: bool,
}

impl NounPhrase {
    pub fn text(&self) -> String {
        self.words.join(" ")
    }

    /// What a connection serves: the words before "cable", "flex", "connector" …
    pub fn serves(&self) -> Option<String> {
        let words: Vec<&str> = self.words.iter().map(String::as_str).collect();
        // The antenna is its own cable.
        if words.last().is_some_and(|w| matches!(*w, "antenna" | "aerial")) {
            return Some("antenna".to_owned());
        }
        let served: Vec<&str> = words
            .iter()
            .copied()
            .filter(|w| !is_connection(w) && !FLAVOUR.contains(w) && !LEXICON.numbers.contains_key(*w))
            .collect();
        (!served.is_empty()).then(|| served.join(" "))
    }
}

/// Words that describe a cable and not what it serves.
const FLAVOUR: [&str; 26] = [
    "flat", "white", "black", "red", "blue", "grey", "gray", "brown", "green", "little", "small", "tiny", "short",
    "long", "pin", "board", "zif", "thin", "wide", "flip", "plain", "main", "other", "new", "old", "thick",
];

fn is_connection(word: &str) -> bool {
    LEXICON.connections.at(&[word], 0).is_some() && !matches!(word, "antenna")
}

pub(super) fn split(sentence: &Sentence) -> Vec<Clause> {
    let lexicon = &*LEXICON;
    let words: Vec<&str> = sentence.tokens.iter().map(|t| t.lemma.as_str()).collect();
    let mut out = Vec::new();
    let mut from = 0;
    for at in 1..=words.len() {
        if at == words.len() || breaks(lexicon, &sentence.tokens, &words, at) {
            out.push(clause(lexicon, &words, from, at));
            from = at;
        }
    }
    out
}

/// A comma, or a joining word with a verb behind it, ends the clause before `at`.
fn breaks(lexicon: &Lexicon, tokens: &[Token], words: &[&str], at: usize) -> bool {
    let said = tokens[at].said.as_str();
    if matches!(
        said,
        "because"
            | "since"
            | "cause"
            | "if"
            | "when"
            | "until"
            | "till"
            | "which"
            | "but"
            | "unless"
            | "while"
            | "otherwise"
            | "before"
            | "after"
            | "so"
            | "then"
    ) {
        return true;
    }
    let joined = matches!(said, "and" | "or");
    if !joined && !tokens[at - 1].pause {
        return false;
    }
    let next = at + usize::from(joined);
    verb_index(lexicon, words, next, words.len(), 3).is_some() || subject_verb(lexicon, words, next)
}

/// "and the cover comes off": a noun phrase with its own verb.
fn subject_verb(lexicon: &Lexicon, words: &[&str], from: usize) -> bool {
    let end = (from + 6).min(words.len());
    (from..end)
        .take_while(|i| !matches!(words[*i], "and" | "or"))
        .any(|i| i > from && is_verb_form(lexicon, words[i]) && particle_follows(lexicon, words, i))
}

fn is_verb_form(lexicon: &Lexicon, word: &str) -> bool {
    lexicon.verb_forms.contains_key(word)
}

fn particle_follows(lexicon: &Lexicon, words: &[&str], at: usize) -> bool {
    phrase_at(lexicon, words, at, words.len()).is_some_and(|(_, particles, _)| particles > 0)
}

fn clause(lexicon: &Lexicon, words: &[&str], from: usize, to: usize) -> Clause {
    let leading = verb_index(lexicon, words, from, to, 14);
    let mood = mood(lexicon, words, from, to, leading.as_ref().map(|(at, ..)| *at));
    let (verb, act, mut objects) = match leading {
        Some((at, act, used)) => (Some(at), Some(act), noun_phrases(lexicon, words, at + 1, to, &used)),
        None => match passive(lexicon, words, from, to).or_else(|| verbless(lexicon, words, from, to)) {
            Some((at, act)) => (Some(at), Some(act), subject(lexicon, words, from, at)),
            None => (None, None, Vec::new()),
        },
    };
    // "Insert the spudger": a tool goes somewhere, no part goes back.
    let tool = verb.is_some_and(|v| (v + 1..to.min(v + 4)).any(|i| lexicon.tools.at(words, i).is_some()));
    let act = if tool && act == Some(Act::Install) { Some(Act::Place) } else { act };
    if act.is_none() {
        objects = noun_phrases(lexicon, words, from, to, &[]);
    }
    Clause { from, to, act, verb, objects, mood }
}

fn mood(lexicon: &Lexicon, words: &[&str], from: usize, to: usize, verb: Option<usize>) -> Mood {
    let head = &words[from..to.min(from + 4)];
    // "unplug the battery, not by the wires" forbids nothing: only what stands before the verb turns it.
    let before = verb.unwrap_or(to.min(from + 6));
    let negated = words[from..before]
        .iter()
        .any(|w| matches!(*w, "don't" | "never" | "not" | "cannot" | "can't" | "won't" | "doesn't" | "isn't"));
    if negated {
        Mood::Negated
    } else if head.iter().take(2).any(|w| lexicon.conditions.contains(*w))
        || head.first().is_some_and(|w| matches!(*w, "until" | "till" | "unless" | "while" | "before"))
    {
        Mood::Conditional
    } else if head.first().is_some_and(|w| matches!(*w, "because" | "since" | "cause" | "which" | "otherwise")) {
        Mood::Reason
    } else {
        Mood::Plain
    }
}

/// The imperative verb of a clause: the first verb after words that only lead in.
fn verb_index(
    lexicon: &Lexicon,
    words: &[&str],
    from: usize,
    to: usize,
    reach: usize,
) -> Option<(usize, Act, Vec<usize>)> {
    let mut at = from;
    while at < to && at < from + reach {
        // "three screws", "the plug": a number or an article in front makes the word a thing.
        let before = at.checked_sub(1).filter(|b| *b >= from).map_or("", |b| words[b]);
        let counted = matches!(before, "the" | "a" | "an" | "its" | "your")
            || (matches!(words[at], "screw" | "bolt") && lexicon.numbers.contains_key(before));
        if let Some((act, _, used)) =
            phrase_at(lexicon, words, at, to).filter(|_| !counted && !is_be(lexicon, words[at]))
        {
            return Some((at, act, used));
        }
        let skippable =
            lexicon.lead_in.contains(words[at]) || words[at].ends_with("ly") || lexicon.numbers.contains_key(words[at]);
        if !skippable {
            return None;
        }
        at += 1;
    }
    None
}

fn is_be(lexicon: &Lexicon, word: &str) -> bool {
    lexicon.verb_forms.get(word).is_some_and(|b| b == "be" || b == "come" || b == "go")
        || matches!(word, "be" | "come" | "go")
}

/// The verb phrase that begins at `at`, its particle count and the places its particles took.
fn phrase_at(lexicon: &Lexicon, words: &[&str], at: usize, to: usize) -> Option<(Act, usize, Vec<usize>)> {
    let base = lexicon.verb_forms.get(words[at])?;
    let list = lexicon.verbs.get(base)?;
    list.iter().find_map(|phrase| {
        let mut used = Vec::new();
        let mut after = at + 1;
        for particle in &phrase.particles {
            let limit = to.min(at + 9);
            let place = (after..limit).find(|i| words[*i] == particle)?;
            // "put the cover and take it off": a particle belongs to the nearest verb.
            if (after..place).any(|i| lexicon.verbs.contains_key(words[i]) && !lexicon.part_heads_or_never(words[i])) {
                return None;
            }
            // "turn it on", but "turn the lamp face down on a soft cloth".
            let switched =
                place == at + 1 || place + 1 == to || matches!(words[place + 1], "and" | "to" | "at" | "then" | "with");
            if phrase.act == Act::PowerOn && !switched {
                return None;
            }
            used.push(place);
            after = place + 1;
        }
        Some((phrase.act, phrase.particles.len(), used))
    })
}

impl Lexicon {
    fn part_heads_or_never(&self, word: &str) -> bool {
        self.part_heads.at(&[word], 0).is_some() || self.never_parts.contains(word)
    }
}

/// "the cover comes off", "the antenna goes back on", "the battery is out".
fn passive(lexicon: &Lexicon, words: &[&str], from: usize, to: usize) -> Option<(usize, Act)> {
    (from + 1..to).find_map(|at| {
        // Behind a subject, "screw" is a thing.
        if !is_verb_form(lexicon, words[at]) || words[at] == "screw" || lexicon.part_heads.at(words, at).is_some() {
            return None;
        }
        let (act, particles, used) = phrase_at(lexicon, words, at, to)?;
        // "the lid is on" ends there; "the sensor is in the middle" tells a place.
        if lexicon.verb_forms.get(words[at]).is_some_and(|b| b == "be") && used.last() != Some(&(to - 1)) {
            return None;
        }
        // A bare verb in the middle ("the screws hold the plate") is no act; a participle after "be" is.
        let participle =
            at > from && is_be(lexicon, words[at - 1]) && (words[at].ends_with("ed") || words[at].ends_with("en"));
        // "after the plug is pulled" places nothing; only what comes loose or goes back is told this way.
        let moves = act.direction() != Direction::Neutral;
        (particles > 0 || (participle && moves)).then_some((at, act))
    })
}

/// "battery out first", "keypad flex in", "trigger back on": a thing and a way, no verb.
fn verbless(lexicon: &Lexicon, words: &[&str], from: usize, to: usize) -> Option<(usize, Act)> {
    (from + 1..to).find_map(|at| {
        let act = match words[at] {
            "in" | "on" => Act::Install,
            "out" | "off" => Act::Remove,
            _ => return None,
        };
        let way = if matches!(words[at - 1], "back" | "straight" | "right") { at - 1 } else { at };
        let thing = way > from && (lexicon.part_heads.at(words, way - 1).is_some() || is_connection(words[way - 1]));
        // "the screws on the lid" goes on with a thing of its own; the way ends the thought or leads to how.
        let ends = at + 1 == to
            || matches!(
                words[at + 1],
                "first" | "last" | "with" | "until" | "till" | "then" | "and" | "again" | "to" | "its" | "front"
            );
        (thing && (ends || way < at)).then_some((at, act))
    })
}

/// The noun phrases in front of a verb; only known things can be told this way.
fn subject(lexicon: &Lexicon, words: &[&str], from: usize, verb: usize) -> Vec<NounPhrase> {
    let mut out = noun_phrases(lexicon, words, from, verb, &[]);
    out.retain(|np| np.known);
    out
}

/// Every known part named within a stretch, with up to two words in front of its head.
pub(super) fn things(words: &[&str], from: usize, to: usize) -> Vec<NounPhrase> {
    let lexicon = &*LEXICON;
    let mut out: Vec<NounPhrase> = Vec::new();
    let mut at = from;
    while at < to {
        let mut end = at;
        while end < to
            && !ends_phrase(lexicon, words, end, &[])
            && !(end > at && is_verb_form(lexicon, words[end]) && lexicon.part_heads.at(words, end).is_none())
        {
            end += 1;
        }
        if let Some(np) = noun_phrase(lexicon, &words[at..end], at).filter(|np| np.known) {
            out.push(np);
        }
        at = end.max(at) + 1;
    }
    out
}

/// Noun phrases of a stretch, joined ones included, until something that is not theirs.
fn noun_phrases(lexicon: &Lexicon, words: &[&str], from: usize, to: usize, particles: &[usize]) -> Vec<NounPhrase> {
    let mut out = Vec::new();
    let mut at = from;
    while at < to {
        let begin = at;
        let mut phrase: Vec<&str> = Vec::new();
        while at < to && !ends_phrase(lexicon, words, at, particles) {
            phrase.push(words[at]);
            at += 1;
        }
        // Only the thing right behind the verb may be unknown; further ones must be parts by the lexicon.
        if let Some(found) = noun_phrase(lexicon, &phrase, begin).filter(|np| np.known || out.is_empty()) {
            out.push(found);
        }
        // Behind a preposition other things follow than the object.
        if at < to && !out.is_empty() && !particles.contains(&at) && PREPOSITIONS.contains(&words[at]) {
            break;
        }
        at += 1;
    }
    out
}

const PREPOSITIONS: [&str; 32] = [
    "with", "from", "by", "until", "till", "using", "to", "into", "under", "behind", "next", "beside", "at", "through",
    "around", "for", "against", "towards", "of", "on", "in", "without", "as", "over", "between", "along", "off",
    "onto", "about", "than", "like", "near",
];

fn ends_phrase(lexicon: &Lexicon, words: &[&str], at: usize, particles: &[usize]) -> bool {
    // "the back shell": the side of a thing, not the way it goes.
    if words[at] == "back" && lexicon.part_heads.at(words, at + 1).is_some() {
        return false;
    }
    particles.contains(&at)
        || lexicon.stop.contains(words[at])
        || words[at].ends_with("ly")
        || words[at].starts_with(|c: char| c.is_ascii_digit())
}

fn noun_phrase(lexicon: &Lexicon, words: &[&str], at: usize) -> Option<NounPhrase> {
    let passing = ["new", "old", "little", "small", "tiny", "whole", "entire", "remaining"];
    let mut kept: Vec<&str> = words.iter().copied().skip_while(|w| passing.contains(w)).collect();
    // The last part noun is the head; what follows it ("cover half way") is not the thing.
    let head = (0..kept.len()).rev().find(|i| {
        lexicon.part_heads.at(&kept, *i).is_some_and(|(len, ())| i + len <= kept.len()) || is_connection(kept[*i])
    });
    let known = head.is_some();
    if let Some(head) = head {
        kept.truncate(head + lexicon.part_heads.at(&kept, head).map_or(1, |(len, ())| len));
    }
    const LONGEST: usize = 4;
    if kept.len() > LONGEST {
        kept.drain(..kept.len() - LONGEST);
    }
    let last = *kept.last()?;
    let usable = last.len() > 1
        && last.chars().any(char::is_alphabetic)
        && (known
            || !(lexicon.never_parts.contains(last) || lexicon.units.at(&[last], 0).is_some() || last.contains('\'')));
    let connection = is_connection(last) || (last == "antenna");
    usable.then(|| NounPhrase {
        at,
        words: kept.iter().map(|w| lexicon.same_part.get(*w).cloned().unwrap_or_else(|| (*w).to_owned())).collect(),
        known,
        connection,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::sentences;
    use crate::recording::Recording;
    use rstest::rstest;

    fn read(text: &str) -> Vec<(Option<Act>, Vec<String>)> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let sentence = sentences::split(&recording).remove(0);
        split(&sentence)
            .into_iter()
            .filter(|c| c.act.is_some())
            .map(|c| (c.act, c.objects.iter().map(NounPhrase::text).collect()))
            .collect()
    }

    #[rstest]
    #[case("Remove the rear cover.", Act::Remove, &["rear cover"])]
    #[case("Take the rear cover off.", Act::Remove, &["rear cover"])]
    #[case("now you want to carefully lift off the shield", Act::Remove, &["shield"])]
    #[case("The back shell comes right off.", Act::Remove, &["back shell"])]
    #[case("Transfer the pressure spring and the film guide from the old print head.", Act::Transfer, &["pressure spring", "film guide"])]
    #[case("Disconnect the coin cell cable from the main board.", Act::Disconnect, &["coin cell cable"])]
    #[case("Put the battery door on.", Act::Install, &["battery door"])]
    #[case("Lift the wobulator out.", Act::Remove, &["wobulator"])]
    fn finds_verb_and_objects(#[case] text: &str, #[case] act: Act, #[case] objects: &[&str]) {
        let found = read(text);
        assert_eq!(found[0].0, Some(act), "{found:?}");
        assert_eq!(found[0].1, objects);
    }

    #[test]
    fn parts_clauses_at_joining_words_with_a_verb() {
        let found = read("Open the latch of the keypad connector and pull out the flex cable.");
        assert_eq!(found.iter().map(|f| f.0.unwrap()).collect::<Vec<_>>(), [Act::Open, Act::Remove]);
    }

    #[rstest]
    #[case("keypad flex cable", Some("keypad"))]
    #[case("antenna", Some("antenna"))]
    #[case("flat plug", None)]
    fn tells_what_a_cable_serves(#[case] phrase: &str, #[case] serves: Option<&str>) {
        let np =
            NounPhrase { at: 0, words: phrase.split(' ').map(str::to_owned).collect(), known: true, connection: true };
        assert_eq!(np.serves().as_deref(), serves);
    }
}
