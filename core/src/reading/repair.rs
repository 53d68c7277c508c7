//! Second pass: words that a recogniser misheard.
//!
//! A word is repaired only where sound *and* context agree: it must sound like a word of the trade, be no everyday word
//! itself, and stand where such a word fits (before "screw", a size, or a thing of the bench). The original stays
//! visible. Words that decide safety ("connect", "don't") are never touched here.

use super::lexicon::{LEXICON, Lexicon, lemma};
use super::sentences::Sentence;
use super::sound::{sound, spelled};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One repaired word.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Repair {
    pub said: String,
    pub meant: String,
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
    pub because: String,
}

pub(super) fn repair(sentence: &mut Sentence) -> Vec<Repair> {
    let lexicon = &*LEXICON;
    let mut out = Vec::new();
    for i in 0..sentence.tokens.len() {
        let Some((meant, why)) = better(lexicon, sentence, i) else { continue };
        let token = &mut sentence.tokens[i];
        out.push(Repair {
            said: token.said.clone(),
            meant: meant.clone(),
            start: token.start,
            end: token.end,
            because: why,
        });
        token.lemma = lemma(&meant);
    }
    out
}

fn better(lexicon: &Lexicon, sentence: &Sentence, i: usize) -> Option<(String, String)> {
    let word = sentence.tokens[i].lemma.as_str();
    let plain = word.len() >= 4 && word.chars().all(|c| c.is_ascii_alphabetic());
    if !plain || known(lexicon, word) {
        return None;
    }
    let around = neighbour(lexicon, sentence, i)?;
    let said = sentence.tokens[i].said.as_str();
    let heard = sound(said);
    let letters = spelled(said);
    let (distance, meant) = lexicon
        .trade_words
        .iter()
        .filter(|w| alike(&w.sound, &heard) || close(&w.word, said))
        .map(|w| (strsim::damerau_levenshtein(&w.spelled, &letters), &w.word))
        .min()?;
    // "charge" is no misheard "carriage", though the consonants agree: the letters must be near as well.
    let enough = distance <= (meant.len() / 3).max(1);
    enough.then(|| (meant.clone(), format!("“{said}” sounds like “{meant}”, and “{around}” stands beside it")))
}

/// The same sounds, or one of at least five differs behind the first.
fn alike(a: &str, b: &str) -> bool {
    a == b || (a.len() >= 5 && a.len() == b.len() && a[..1] == b[..1] && strsim::damerau_levenshtein(a, b) == 1)
}

/// One letter off in a long word; among short words too many lie one letter apart ("print", "point").
fn close(a: &str, b: &str) -> bool {
    a.len() >= 6 && a.as_bytes()[0] == b.as_bytes()[0] && strsim::damerau_levenshtein(a, b) == 1
}

/// A word that already means something here is left alone.
fn known(lexicon: &Lexicon, word: &str) -> bool {
    lexicon.known.contains(word) || lexicon.verb_forms.contains_key(word) || lexicon.numbers.contains_key(word)
}

/// A trade word within four words of the place.
fn neighbour(lexicon: &Lexicon, sentence: &Sentence, i: usize) -> Option<String> {
    let from = i.saturating_sub(4);
    let to = (i + 5).min(sentence.tokens.len());
    let words: Vec<&str> = sentence.tokens.iter().map(|t| t.lemma.as_str()).collect();
    let trade = |n: usize| {
        matches!(words[n], "screw" | "screwdriver" | "driver" | "pull" | "flip" | "open" | "pry")
            || lexicon.part_heads.at(&words, n).is_some()
            || lexicon.connections.at(&words, n).is_some()
            || lexicon.tools.at(&words, n).is_some()
            || lexicon.drives.at(&words, n).is_some()
            || super::numbers::bit_code(words[n]).is_some()
    };
    (from..to).filter(|n| *n != i).find(|n| trade(*n)).map(|n| sentence.tokens[n].said.clone())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::sentences::split;
    use crate::recording::Recording;
    use rstest::rstest;

    fn repairs(text: &str) -> Vec<(String, String)> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        split(&recording).iter_mut().flat_map(repair).map(|r| (r.said, r.meant)).collect()
    }

    #[rstest]
    #[case("Pull the keypad flecks cable out.", "flecks", "flex")]
    #[case("Four filips screws hold the plate.", "filips", "philips")]
    #[case("Take the sponger and pry the cover.", "sponger", "spudger")]
    fn repairs_sound_alikes_in_context(#[case] text: &str, #[case] said: &str, #[case] meant: &str) {
        assert_eq!(repairs(text), [(said.to_owned(), meant.to_owned())]);
    }

    #[rstest]
    #[case("He owes me a fleck of paint.")]
    #[case("The driver board holds a charge after the plug is pulled.")]
    #[case("Do not connect the battery.")]
    #[case("The horse was only borrowed.")]
    fn leaves_other_words_alone(#[case] text: &str) {
        assert!(repairs(text).is_empty(), "{:?}", repairs(text));
    }
}
