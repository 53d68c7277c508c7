//! Second pass: words that a recogniser misheard.
//!
//! A word is repaired only where sound *and* context agree: it must sound like a word of the trade, be no everyday word
//! itself, and stand where such a word fits (before "screw", a size, or a thing of the bench). The original stays
//! visible. Words that decide safety ("connect", "don't") are never touched here.

use super::heard;
use super::hints::Hints;
use super::lexicon::{LEXICON, Lexicon, lemma};
use super::sentences::{Sentence, Token};
use super::sound::{sound, sounds, spelled};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
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
    /// An author's word, not the reader's.
    #[serde(default)]
    pub by_author: bool,
}

/// The words of a title are names, and nobody misheard them: the recogniser wrote no title.
pub(super) fn titled(title: Option<&str>) -> Vec<String> {
    let words = title.unwrap_or_default().split(|c: char| !c.is_alphanumeric());
    // A title that never ends costs no more than this.
    const LONGEST: usize = 30;
    words.filter(|w| !w.is_empty()).take(LONGEST).map(str::to_lowercase).collect()
}

pub(super) fn repair(sentence: &mut Sentence, hints: &Hints, titled: &[String]) -> Vec<Repair> {
    let lexicon = &*LEXICON;
    let mut out = torn_words(sentence, hints, |s, at| {
        let near = s.tokens.iter().any(shows_a_drive);
        torn_at(lexicon, s, at).filter(|_| near).map(|(len, meant)| (len, meant, "a screw or a size stands beside it"))
    });
    out.extend(torn_words(sentence, hints, |s, at| {
        heard::torn(s, at).map(|(len, meant)| (len, meant, "a cable stands behind it"))
    }));
    out.extend(torn_words(sentence, hints, |s, at| {
        heard::torn_disconnect(s, at).map(|(len, meant)| (len, meant, "an order begins here"))
    }));
    out.extend(torn_words(sentence, hints, |s, at| {
        heard::torn_noun(s, at).map(|(len, meant)| (len, meant, "it stands where a thing is named"))
    }));
    for i in 0..sentence.tokens.len() {
        // What an author wrote is what was said.
        if hints.written(sentence.tokens[i].start, sentence.tokens[i].end) {
            continue;
        }
        let known = titled.iter().any(|w| *w == sentence.tokens[i].said);
        let sounds = || better(lexicon, sentence, i).filter(|_| !known);
        let Some((meant, why)) = heard::meant(sentence, i).or_else(sounds) else { continue };
        let token = &mut sentence.tokens[i];
        out.push(Repair {
            said: token.said.to_string(),
            meant: meant.clone(),
            start: token.start,
            end: token.end,
            because: why,
            by_author: false,
        });
        token.lemma = lemma(&meant);
    }
    out
}

/// "fill ups zero zero", "pent a lobe screws", "coke seal leads": a name heard as several words. `torn` says how many
/// words from a place on are which name, and what speaks for it.
fn torn_words(
    sentence: &mut Sentence,
    hints: &Hints,
    torn: impl Fn(&Sentence, usize) -> Option<(usize, String, &'static str)>,
) -> Vec<Repair> {
    let mut out = Vec::new();
    let mut at = 0;
    while at + 1 < sentence.tokens.len() {
        let written = hints.written(sentence.tokens[at].start, sentence.tokens[at].end);
        if let Some((len, meant, beside)) = torn(sentence, at).filter(|_| !written) {
            let window = &sentence.tokens[at..at + len];
            let said = window.iter().map(|t| t.said.as_str()).collect::<Vec<_>>().join(" ");
            let (start, end) = (window[0].start, window[len - 1].end);
            let because = format!("“{said}” sounds like “{meant}”, and {beside}");
            out.push(Repair { said, meant: meant.clone(), start, end, because, by_author: false });
            let last = sentence.tokens[at + len - 1].clone();
            let first = Token { end, pause: false, stop: false, ..sentence.tokens[at].clone() };
            let mut put: Vec<Token> =
                meant.split(' ').map(|w| Token { lemma: lemma(w), said: w.into(), ..first.clone() }).collect();
            if let Some(end) = put.last_mut() {
                (end.pause, end.stop) = (last.pause, last.stop);
            }
            let words = put.len();
            sentence.tokens.splice(at..at + len, put);
            at += words - 1;
        }
        at += 1;
    }
    out
}

/// A drive's name with how it sounds, worked out once.
struct DriveName {
    name: String,
    /// Without its spaces.
    whole: String,
    sound: String,
    spelled: String,
}

static DRIVES: LazyLock<Vec<DriveName>> = LazyLock::new(|| {
    let names = LEXICON.drive_names.iter().map(|name| {
        let whole: String = name.split(' ').collect();
        DriveName { name: name.clone(), sound: sound(&whole), spelled: spelled(&whole), whole }
    });
    names.collect()
});

fn torn_at(lexicon: &Lexicon, sentence: &Sentence, at: usize) -> Option<(usize, String)> {
    const MOST: usize = 3;
    (2..=MOST).rev().filter(|len| at + len <= sentence.tokens.len()).find_map(|len| {
        let window = &sentence.tokens[at..at + len];
        let inside = window[..len - 1].iter().any(|t| t.pause || t.stop);
        if inside || !fits_a_drive(sentence, at, len) {
            return None;
        }
        let words: Vec<&str> = window.iter().map(|t| t.lemma.as_str()).collect();
        // "five Phillips" is a count and a drive.
        let whole = (0..len).any(|k| {
            lexicon.drives.at(&words, k).is_some()
                || lexicon.numbers.contains_key(words[k])
                || super::numbers::bit_code(words[k]).is_some()
        }) || words.iter().any(|w| super::phrases::is_screw(w) || lexicon.classes.pronoun.contains(*w))
            || lexicon.classes.determiner.contains(words[0])
            || lexicon.classes.conjunction.contains(words[0]);
        if whole {
            return None;
        }
        let joined: String = window.iter().map(|t| t.said.as_str()).collect();
        let (heard, letters) = (sound(&joined), spelled(&joined));
        let near = |drive: &&DriveName| {
            let whole = &drive.whole;
            if joined == *whole {
                return len > 1;
            }
            drive.sound == heard
                && whole.len() >= 4
                && strsim::damerau_levenshtein(&drive.spelled, &letters) <= whole.len() / 2
        };
        DRIVES.iter().find(near).map(|drive| (len, drive.name.clone()))
    })
}

/// A screw, a driver or a size stands right behind.
fn fits_a_drive(sentence: &Sentence, at: usize, len: usize) -> bool {
    sentence.tokens[at + len..].iter().take(3).any(shows_a_drive)
}

fn shows_a_drive(t: &Token) -> bool {
    matches!(
        t.lemma.as_str(),
        "screw" | "screwdriver" | "driver" | "bit" | "zero" | "double" | "triple" | "number" | "size" | "one" | "crew"
    ) || super::numbers::bit_code(&t.lemma).is_some()
}

fn better(lexicon: &Lexicon, sentence: &Sentence, i: usize) -> Option<(String, String)> {
    let word = sentence.tokens[i].lemma.as_str();
    let plain = word.len() >= 4 && word.chars().all(|c| c.is_ascii_alphabetic());
    if !plain || lexicon.knows(word) || does_it(lexicon, word) {
        return None;
    }
    let around = neighbour(lexicon, sentence, i)?;
    let said = sentence.tokens[i].said.as_str();
    let heard = sounds(said);
    let letters = spelled(said);
    let (distance, _, meant) = lexicon
        .trade_words
        .iter()
        .filter(|w| heard.iter().any(|h| alike(&w.sound, h)) || close(&w.word, said))
        .map(|w| (strsim::damerau_levenshtein(&w.spelled, &letters), usize::MAX - same_end(&w.word, said), &w.word))
        .min()?;
    // "charge" is no misheard "carriage", though the consonants agree: the letters must be near as well.
    let enough = distance <= (meant.len() / 3).max(1);
    enough.then(|| (meant.clone(), format!("“{said}” sounds like “{meant}”, and “{around}” stands beside it")))
}

/// "spinner", "clamper": what does something that the reader knows is a word, and no misheard "spanner".
fn does_it(lexicon: &Lexicon, word: &str) -> bool {
    let Some(stem) = word.strip_suffix("er") else { return false };
    let mut twice = stem.chars().rev();
    let single =
        twice.next().filter(|last| twice.next() == Some(*last)).map(|last| &stem[..stem.len() - last.len_utf8()]);
    single.is_some_and(|verb| verb.len() >= 3 && lexicon.verb_forms.contains_key(verb))
}

/// The same sounds, or one of at least five differs behind the first.
fn alike(a: &str, b: &str) -> bool {
    // The cheap questions first: this is asked of every word of the trade.
    let near = a.len().abs_diff(b.len()) <= 1 && a.len().max(b.len()) >= 5 && a.as_bytes()[0] == b.as_bytes()[0];
    a == b || (near && strsim::damerau_levenshtein(a, b) == 1)
}

/// How many letters two words share at their end: recognisers lose beginnings and middles first.
fn same_end(a: &str, b: &str) -> usize {
    a.bytes().rev().zip(b.bytes().rev()).take_while(|(x, y)| x == y).count()
}

/// One letter off in a long word; among short words too many lie one letter apart ("print", "point").
fn close(a: &str, b: &str) -> bool {
    a.len() >= 6
        && a.len().abs_diff(b.len()) <= 1
        && a.as_bytes()[0] == b.as_bytes()[0]
        && strsim::damerau_levenshtein(a, b) == 1
}

/// A trade word close by.
fn neighbour(lexicon: &Lexicon, sentence: &Sentence, i: usize) -> Option<String> {
    let from = i.saturating_sub(8);
    let to = (i + 7).min(sentence.tokens.len());
    let words: Vec<&str> = sentence.tokens.iter().map(|t| t.lemma.as_str()).collect();
    let trade = |n: usize| {
        matches!(words[n], "screw" | "screwdriver" | "driver" | "pull" | "flip" | "open" | "pry")
            || lexicon.part_heads.at(&words, n).is_some()
            || lexicon.connections.at(&words, n).is_some()
            || lexicon.tools.at(&words, n).is_some()
            || lexicon.drives.at(&words, n).is_some()
            || super::numbers::bit_code(words[n]).is_some()
    };
    // "take the sponger": what one takes in hand is a thing of the bench.
    let in_hand = i.checked_sub(2).filter(|n| matches!(words[*n], "take" | "use" | "with" | "grab" | "using"));
    // "What you need is a sponger": what is listed is a thing of the bench as well.
    let listed = (0..i).find(|n| lexicon.tool_list.at(&words, *n).is_some());
    (from..to)
        .filter(|n| *n != i)
        .find(|n| trade(*n))
        .or(in_hand)
        .or(listed)
        .map(|n| sentence.tokens[n].said.to_string())
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;
    use crate::reading::sentences::split;
    use crate::recording::Recording;
    use rstest::rstest;

    /// Every repaired word of a text, as said and as meant.
    pub fn repairs(text: &str) -> Vec<(String, String)> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let named = titled(recording.title.as_deref());
        split(&recording)
            .iter_mut()
            .flat_map(|s| repair(s, &Hints::default(), &named))
            .map(|r| (r.said, r.meant))
            .collect()
    }

    #[rstest]
    #[case("Pull the keypad flecks cable out.", "flecks", "flex")]
    #[case("Four filips screws hold the plate.", "filips", "philips")]
    #[case("Take the sponger and pry the cover.", "sponger", "spudger")]
    #[case("The board sticks to the frame with thermal past.", "past", "paste")]
    fn repairs_sound_alikes_in_context(#[case] text: &str, #[case] said: &str, #[case] meant: &str) {
        assert_eq!(repairs(text), [(said.to_owned(), meant.to_owned())]);
    }

    #[rstest]
    #[case("He owes me a fleck of paint.")]
    #[case("The driver board holds a charge after the plug is pulled.")]
    #[case("Do not connect the battery.")]
    #[case("The horse was only borrowed.")]
    #[case("The plastic lever is better, pull the cover out.")]
    #[case("Hold the blade, unscrew the spinner.")]
    #[case("Hold the light key until the screen goes dark.")]
    #[case("# Recording: Tyre inflator\n\n[0:00] Switch the inflator off at the rear switch.")]
    fn leaves_other_words_alone(#[case] text: &str) {
        assert!(repairs(text).is_empty(), "{:?}", repairs(text));
    }
}
