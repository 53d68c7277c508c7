//! Everyday words that stand for words of the bench: "the bored" is the board, "live the frame" lifts it.
//!
//! Such a word means something itself, so its sound alone proves nothing: it must stand where the meant word would, as a
//! noun behind an article or as a verb with an object. Words that decide safety are in no
//! list; only "this connect" is read as the one word that it must be.

use super::lexicon::{LEXICON, lemma};
use super::numbers;
use super::sentences::{Sentence, Token};
use super::sound::sound;
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

#[derive(Deserialize)]
struct Verb {
    heard: Vec<String>,
    meant: String,
    #[serde(default)]
    near: Vec<String>,
    /// How many words behind it one of them must stand.
    #[serde(default)]
    within: usize,
}

#[derive(Deserialize)]
struct Torn {
    meant: String,
    before: Vec<String>,
}

#[derive(Deserialize)]
struct Heard {
    noun: BTreeMap<String, String>,
    verb: Vec<Verb>,
    torn: Vec<Torn>,
    /// Names that are read so behind an article or an adjective.
    torn_noun: BTreeMap<String, String>,
    /// Before the size of a bit.
    sized: BTreeMap<String, String>,
}

static HEARD: LazyLock<Heard> = LazyLock::new(|| {
    // Part of the program: a bad file is a bug that every test run meets at once.
    toml::from_str(include_str!("lexicon/heard.toml")).unwrap_or_else(|e| panic!("heard.toml: {e}"))
});

/// What the word at `at` was meant to be, with the reason.
pub(super) fn meant(sentence: &Sentence, at: usize) -> Option<(String, String)> {
    noun(sentence, at).or_else(|| verb(sentence, at)).or_else(|| sized(sentence, at))
}

/// "a small torques six": a drive with its size, and no figure with a unit.
fn sized(sentence: &Sentence, at: usize) -> Option<(String, String)> {
    /// A figure in words with its unit: "twenty one point five newton metres".
    const BEHIND: usize = 8;
    let said = sentence.tokens[at].said.as_str();
    let meant = HEARD.sized.get(said)?;
    let words: Vec<&str> = sentence.tokens[at + 1..].iter().take(BEHIND).map(|t| t.lemma.as_str()).collect();
    let code = words.first().is_some_and(|w| numbers::bit_code(w).is_some());
    (code || numbers::bit_size(&words, 0).is_some())
        .then(|| (meant.clone(), format!("“{said}” sounds like “{meant}”, and a size stands behind it")))
}

fn noun(sentence: &Sentence, at: usize) -> Option<(String, String)> {
    let said = sentence.tokens[at].said.as_str();
    let meant = HEARD.noun.get(said)?;
    let c = &LEXICON.classes;
    let why = || (meant.clone(), format!("“{said}” sounds like “{meant}”, and stands where a thing is named"));
    // "So spotter under it."
    let next = sentence.tokens.get(at + 1).map_or("", |t| t.said.as_str());
    let led = matches!(next, "under" | "in" | "into" | "between" | "along" | "behind");
    let opens = at.checked_sub(1).is_none_or(|n| {
        let before = &sentence.tokens[n];
        before.pause || matches!(before.said.as_str(), "so" | "and" | "then")
    });
    if led && opens && meant == "spudger" {
        return Some(why());
    }
    let before = sentence.tokens.get(at.checked_sub(1)?)?;
    let stands = !before.pause
        && (c.determiner.contains(before.said.as_str())
            || c.adjective.contains(before.lemma.as_str())
            // "the inter-board cable", written as it sounds.
            || matches!(before.said.as_str(), "inter" | "mother" | "daughter" | "sub")
            || LEXICON.numbers.contains_key(before.lemma.as_str())
            || LEXICON.part_heads.at(&[before.lemma.as_str()], 0).is_some());
    stands.then(why)
}

fn verb(sentence: &Sentence, at: usize) -> Option<(String, String)> {
    let said = sentence.tokens[at].said.as_str();
    let rule = HEARD.verb.iter().find(|v| v.heard.iter().any(|h| h == said))?;
    let c = &LEXICON.classes;
    let opens = match at.checked_sub(1).map(|n| &sentence.tokens[n]) {
        None => true,
        Some(t) => {
            t.pause
                || matches!(
                    t.lemma.as_str(),
                    "and" | "then" | "now" | "to" | "just" | "so" | "i" | "we" | "you" | "gonna"
                )
                || t.lemma.ends_with("ly")
        }
    };
    let next = sentence.tokens.get(at + 1)?;
    let object = c.determiner.contains(next.said.as_str()) || matches!(next.lemma.as_str(), "it" | "them");
    let near = rule.near.is_empty()
        || sentence.tokens[at + 1..].iter().take(rule.within).any(|t| rule.near.iter().any(|n| *n == t.lemma));
    let meant = &rule.meant;
    (opens && object && near && !sentence.tokens[at].pause).then(|| {
        (meant.clone(), format!("“{said}” sounds like “{meant}”, and is done to “{}”", thing(sentence, at + 1)))
    })
}

/// The words from an article on that name the thing.
fn thing(sentence: &Sentence, at: usize) -> String {
    let words = sentence.tokens[at..].iter().take(3).map(|t| t.said.as_str());
    words.collect::<Vec<_>>().join(" ")
}

/// "And this connect the plug.": no grammar says so; the two words are one. It turns an act round, so it is read only
/// where an order begins and its object follows, and is shown like every repair.
pub(super) fn torn_disconnect(sentence: &Sentence, at: usize) -> Option<(usize, String)> {
    let said = |n: usize| sentence.tokens.get(n).map_or("", |t| t.said.as_str());
    let begins = at == 0 || sentence.tokens[at - 1].pause || matches!(said(at - 1), "and" | "then" | "now" | "so");
    let object = LEXICON.classes.determiner.contains(said(at + 2));
    let torn = said(at) == "this" && said(at + 1) == "connect" && !sentence.tokens[at].pause;
    (torn && begins && object).then(|| (2, "disconnect".to_owned()))
}

/// A word of the trade written as two or three from `at` on: how many, and which.
pub(super) fn torn(sentence: &Sentence, at: usize) -> Option<(usize, String)> {
    (2..=3).rev().find_map(|len| {
        let window = sentence.tokens.get(at..at + len)?;
        let behind = sentence.tokens.get(at + len)?;
        let counts = |t: &Token| {
            LEXICON.numbers.contains_key(t.lemma.as_str()) || LEXICON.classes.determiner.contains(t.said.as_str())
        };
        if window[..len - 1].iter().any(|t| t.pause || t.stop) || window.iter().any(counts) {
            return None;
        }
        // "put it in and plug the cell in": an order, and no name.
        let orders =
            sentence.tokens.get(at + len + 1).is_some_and(|t| counts(t) || matches!(t.lemma.as_str(), "it" | "them"));
        if orders || window[len - 1].said.len() < 4 {
            return None;
        }
        // "the display cable and touch cable", "the pump and wifi cable": another name of the list, and no "antenna".
        let named = at > 0 && {
            let before = &sentence.tokens[at - 1];
            let c = &LEXICON.classes;
            let leads = counts(before) || c.adjective.contains(before.lemma.as_str());
            !before.pause && !leads && !LEXICON.verb_forms.contains_key(before.said.as_str())
        };
        let listed = window[0].said == "and" && (named || window[1..].iter().all(|t| LEXICON.knows(&t.lemma)));
        if listed {
            return None;
        }
        let joined: String = window.iter().map(|t| t.said.as_str()).collect();
        let rule = HEARD
            .torn
            .iter()
            .find(|r| r.before.contains(&behind.lemma.to_string()) && sounds_like(&joined, &r.meant))?;
        Some((len, rule.meant.clone()))
    })
}

/// "this black gas kit": a thing of the bench written as two words, where a thing is named.
pub(super) fn torn_noun(sentence: &Sentence, at: usize) -> Option<(usize, String)> {
    let window = sentence.tokens.get(at..at + 2).filter(|w| !w[0].pause && !w[0].stop)?;
    let before = &sentence.tokens[at.checked_sub(1)?];
    let c = &LEXICON.classes;
    let named = c.determiner.contains(before.said.as_str()) || c.adjective.contains(before.lemma.as_str());
    let said = format!("{} {}", window[0].said, window[1].said);
    HEARD.torn_noun.get(&said).filter(|_| named && !before.pause).map(|meant| (2, meant.clone()))
}

/// The same sounds, or one more or other behind the first two.
fn sounds_like(joined: &str, meant: &str) -> bool {
    let (a, b) = (sound(joined), sound(meant));
    a.len() >= 4 && a.get(..2) == b.get(..2) && strsim::damerau_levenshtein(&a, &b) <= 1 && lemma(joined) != meant
}

#[cfg(test)]
mod tests {
    use crate::reading::repair::tests::repairs;
    use rstest::rstest;

    #[rstest]
    #[case::a_noun("Lift out the main bored.", "bored", "board")]
    #[case::a_lead("Pop off the little coaxed lead.", "coaxed", "coax")]
    #[case::a_board_between("Unplug the inter bored cable.", "bored", "board")]
    #[case::a_verb("We slowly live the frame.", "live", "lift")]
    #[case::a_verb_with_its_way("Now left the hood off.", "left", "lift")]
    #[case::heat("Hit the rim with a hair dryer.", "hit", "heat")]
    #[case::with_its_size("You need a small torques six.", "torques", "torx")]
    #[case::torn("Unplug both coke seal leads.", "coke seal", "coaxial")]
    #[case::torn_order("And this connect the plug.", "this connect", "disconnect")]
    #[case::torn_name("Hook out the black gas kit.", "gas kit", "gasket")]
    #[case::torn_tool("Take the spot jar.", "spot jar", "spudger")]
    #[case::a_collar("Turn the caller to the left.", "caller", "collar")]
    #[case::torn_again("Unplug the two and tenor leads.", "and tenor", "antenna")]
    fn words_are_read_as_meant(#[case] text: &str, #[case] said: &str, #[case] meant: &str) {
        assert_eq!(repairs(text), [(said.to_owned(), meant.to_owned())]);
    }

    #[rstest]
    #[case("I was bored and had an hour.")]
    #[case("I coaxed it out with a pick.")]
    #[case("Does this connect the two halves?")]
    #[case("This connects the lamp to the board.")]
    #[case("We live in a small house.")]
    #[case("Leave the lid where it is.")]
    #[case("Set the torque to two newton metres.")]
    #[case("The torque is 2 Nm.")]
    #[case("Torque two newton metres, not more.")]
    #[case("Torque 25 newton centimetres.")]
    #[case("Hold the torch one more time.")]
    #[case("Hit the like button.")]
    #[case("Leave it at that angle and pull it out.")]
    #[case("Undo the screw and the two leads.")]
    #[case("Put the cell in and plug the lamp in.")]
    fn words_that_mean_themselves_stay(#[case] text: &str) {
        assert!(repairs(text).is_empty(), "{:?}", repairs(text));
    }
}
