//! Fourth pass: noun phrases.
//!
//! A noun phrase is what a verb of the bench takes hold of: its count, its words and what it belongs to ("the plug of the
//! lamp"). The lexicon says what kind of thing its last noun is; an unknown noun is taken for a part, because no list
//! holds every part of every device.

use super::lexicon::LEXICON;
use super::numbers;
use super::tags::{Tag, Tagged};
use compact_str::CompactString;

/// What kind of thing a phrase names.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Thing {
    /// A part by the lexicon.
    Part,
    /// Something no list knows.
    Unknown,
    /// A cable, plug or flex.
    Connection,
    Screw,
    Tool,
    /// Glue, tape, alcohol …
    Material,
    /// Edges, corners, latches, minutes: never a part.
    Never,
    /// "it", "them", "the other one".
    Pronoun,
}

/// A thing by its words, without articles.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct NounPhrase {
    pub from: usize,
    pub to: usize,
    pub count: Option<u32>,
    /// Words that tell the thing: no articles, no counts, no "new" and "little".
    pub words: Vec<CompactString>,
    pub thing: Thing,
    /// "of the lamp".
    pub of: Option<Box<NounPhrase>>,
    pub definite: bool,
    /// More than one, by its ending or its count.
    pub plural: bool,
}

impl NounPhrase {
    pub fn text(&self) -> String {
        self.words.join(" ")
    }

    pub fn known(&self) -> bool {
        matches!(self.thing, Thing::Part | Thing::Connection)
    }

    pub fn is_part(&self) -> bool {
        matches!(self.thing, Thing::Part | Thing::Unknown)
    }

    pub fn head(&self) -> &str {
        self.words.last().map_or("", CompactString::as_str)
    }

    /// What a connection serves: "keypad" of "keypad flex", "lamp" of "plug of the lamp".
    pub fn serves(&self) -> Option<String> {
        if matches!(self.head(), "antenna" | "aerial") {
            return Some("antenna".to_owned());
        }
        if self.thing != Thing::Connection {
            return self.is_part().then(|| self.text());
        }
        let words: Vec<&str> = self.words.iter().map(CompactString::as_str).collect();
        let of = self.of.as_ref().filter(|of| of.known()).and_then(|of| of.serves());
        // A type ("ribbon", "coaxial") serves nothing by itself.
        let served: Vec<&str> = words
            .iter()
            .copied()
            .filter(|w| {
                (!is_connection(w) || matches!(*w, "antenna" | "aerial"))
                    && !FLAVOUR.contains(w)
                    && !LEXICON.numbers.contains_key(*w)
                    && !w.starts_with(|c: char| c.is_ascii_digit())
            })
            .collect();
        of.or_else(|| (!served.is_empty()).then(|| served.join(" ").replace("aerial", "antenna")))
    }
}

/// The word says how a cable looks, not what it serves.
pub(super) fn describes_cable(word: &str) -> bool {
    is_connection(word) || FLAVOUR.contains(&word)
}

/// Words that describe a cable and not what it serves.
const FLAVOUR: [&str; 44] = [
    "flat", "white", "black", "red", "blue", "grey", "gray", "brown", "green", "yellow", "little", "small", "tiny",
    "short", "long", "pin", "board", "zif", "thin", "wide", "narrow", "flip", "plain", "main", "other", "new", "old",
    "thick", "snap", "push", "press", "lock", "locking", "latch", "hair", "big", "one", "two", "left", "right",
    "single", "fragile", "delicate", "data",
];

pub(super) fn is_connection(word: &str) -> bool {
    LEXICON.connections.at(&[word], 0).is_some()
}

pub(super) fn is_screw(word: &str) -> bool {
    matches!(word, "screw" | "bolt" | "nut" | "standoff" | "stand-off" | "fastener" | "thumbscrew" | "crew")
}

/// Every noun phrase of a stretch, in order; "of" phrases hang on the one before.
pub(super) fn phrases(t: &Tagged<'_>, from: usize, to: usize) -> Vec<NounPhrase> {
    let mut out: Vec<NounPhrase> = Vec::new();
    let mut at = from;
    while at < to {
        let Some((phrase, end)) = phrase_at(t, at, to) else {
            at += 1;
            continue;
        };
        at = end;
        out.push(phrase);
    }
    out
}

/// The phrase that begins at `at`, with what hangs on it by "of" or "'s"; and where it ends.
pub(super) fn phrase_at(t: &Tagged<'_>, at: usize, to: usize) -> Option<(NounPhrase, usize)> {
    let (mut phrase, mut end) = simple(t, at, to)?;
    let link = |i: usize| i < to && (t.words[i] == "of" || t.words[i] == "for") && !t.pause[i.saturating_sub(1)];
    if link(end)
        && let Some((of, after)) = phrase_at(t, end + 1, to)
    {
        let served = phrase.thing == Thing::Connection || t.words[end] == "of";
        if served {
            end = after;
            // "the edge of the glass", "a pair of tweezers", "all of the screws": the second names the thing.
            if matches!(phrase.thing, Thing::Pronoun)
                || matches!(phrase.head(), "pair" | "set" | "piece" | "bit" | "rest" | "couple")
            {
                let count = phrase.count.or(of.count);
                return Some((NounPhrase { count, from: phrase.from, ..of }, end));
            }
            phrase.of = Some(Box::new(of));
            phrase.to = end;
        }
    } else if end < to
        && t.said[end] == "'s"
        && t.tags[end] == Tag::Preposition
        && let Some((mut owned, after)) = simple(t, end + 1, to)
    {
        owned.from = phrase.from;
        owned.of = Some(Box::new(phrase));
        return Some((owned, after));
    }
    Some((phrase, end))
}

fn simple(t: &Tagged<'_>, at: usize, to: usize) -> Option<(NounPhrase, usize)> {
    let mut i = at;
    let mut count = None;
    let mut definite = false;
    let mut words: Vec<CompactString> = Vec::new();
    let mut nouns = 0;
    while i < to {
        match t.tags[i] {
            Tag::Determiner if words.is_empty() && nouns == 0 => {
                definite = !matches!(t.words[i], "a" | "an" | "some" | "any" | "no" | "another");
                if t.words[i] == "both" {
                    count = Some(2);
                } else if matches!(t.words[i], "a" | "an" | "another") {
                    count = Some(1);
                }
            }
            Tag::Number if nouns == 0 => {
                let figure = numbers::figure_at(&t.words, i)?;
                // "a double zero Phillips" is sized, not counted; "size 1" likewise.
                let counts =
                    figure.value.fract() == 0.0 && (1.0..=300.0).contains(&figure.value) && !t.said[i].starts_with('0');
                if counts && words.iter().all(|w| LEXICON.classes.adjective.contains(w)) {
                    count = Some(figure.value as u32);
                    words.clear();
                }
                i += figure.len - 1;
            }
            // "the two three millimetre screws", "a 3 mm thick pad".
            Tag::Measure if nouns == 0 && i > at => {}
            // "six screws length 6 millimetres": a size is no part of the name.
            Tag::Noun
                if nouns > 0
                    && matches!(t.words[i], "length" | "size" | "diameter")
                    && t.said[i - 1].ends_with('s')
                    && is_screw(t.words[i - 1]) =>
            {
                break;
            }
            Tag::Measure
                if nouns == 0
                    && t.tags.get(i + 1).is_some_and(|n| matches!(n, Tag::Noun | Tag::Adjective | Tag::Measure)) => {}
            Tag::Adjective => words.push(t.words[i].into()),
            // "four more screws".
            Tag::Adverb if nouns == 0 && count.is_some() && matches!(t.words[i], "more" | "further") => {}
            Tag::Noun => {
                nouns += 1;
                words.push(t.words[i].into());
            }
            // A size or code inside: "PH 00 screws", "the T 6 screws".
            Tag::Number if nouns > 0 && t.tags.get(i + 1) == Some(&Tag::Noun) && sized(t, i) => {}
            Tag::Pronoun if words.is_empty() && nouns == 0 => {
                return Some((pronoun(t, at, i, count), i + 1));
            }
            _ => break,
        }
        i += 1;
        if t.pause[i - 1] && nouns > 0 {
            break;
        }
    }
    if nouns == 0 {
        // "both", "the two", "the left": things without a noun.
        let sided = definite
            && words
                .last()
                .is_some_and(|w| matches!(w.as_str(), "top" | "bottom" | "front" | "rear" | "back" | "main"));
        if sided {
            let last = words.last().cloned().unwrap_or_default();
            return Some((
                NounPhrase {
                    from: at,
                    to: i,
                    count,
                    words: vec![last],
                    thing: Thing::Part,
                    of: None,
                    definite,
                    plural: false,
                },
                i,
            ));
        }
        if count.is_some() && i > at && (definite || t.tags[at] == Tag::Number) {
            return Some((pronoun(t, at, i - 1, count), i));
        }
        return None;
    }
    let plural = count.is_some_and(|c| c > 1) || t.said[i - 1].ends_with('s') && !t.said[i - 1].ends_with("ss");
    Some((named(t, at, i, words, count, definite, plural), i))
}

/// A figure right behind a drive belongs to the drive.
fn sized(t: &Tagged<'_>, at: usize) -> bool {
    at > 0
        && (LEXICON.drives.at(&t.words, at - 1).is_some() || matches!(t.words[at - 1], "t" | "ph" | "number" | "size"))
}

fn pronoun(t: &Tagged<'_>, from: usize, at: usize, count: Option<u32>) -> NounPhrase {
    NounPhrase {
        from,
        to: at + 1,
        count,
        words: vec![t.words[at].into()],
        thing: Thing::Pronoun,
        of: None,
        definite: true,
        plural: matches!(t.words[at], "they" | "them" | "these" | "those" | "both") || count.is_some_and(|c| c > 1),
    }
}

fn named(
    t: &Tagged<'_>,
    from: usize,
    to: usize,
    mut words: Vec<CompactString>,
    count: Option<u32>,
    definite: bool,
    plural: bool,
) -> NounPhrase {
    let all: Vec<&str> = t.words[from..to].to_vec();
    // "nine screws T10": the code follows the head.
    if words.len() > 1
        && words.last().is_some_and(|w| numbers::bit_code(w).is_some())
        && is_screw(&words[words.len() - 2])
    {
        words.pop();
    }
    let thing = kind(&all, &words);
    let passing = &LEXICON.classes.passing;
    while words.len() > 1 && passing.contains(&words[0]) {
        words.remove(0);
    }
    for word in &mut words {
        if let Some(same) = LEXICON.same_part.get(word.as_str()) {
            *word = same.into();
        }
    }
    if let [word] = &mut words[..]
        && let Some(same) = LEXICON.same_alone.get(word.as_str()).filter(|_| all.last().is_some_and(|w| w == word))
    {
        *word = same.into();
    }
    // A device has one main board, and only that one goes without a name.
    if words == ["board"] {
        words.insert(0, "main".into());
    }
    // "the back cover half way": what follows the last known head is no part of the name.
    if thing == Thing::Part {
        let refs: Vec<&str> = words.iter().map(CompactString::as_str).collect();
        let head = (0..refs.len()).rev().find_map(|i| LEXICON.part_heads.at(&refs, i).map(|(len, ())| i + len));
        if let Some(end) = head {
            words.truncate(end);
        }
    }
    const LONGEST: usize = 4;
    if words.len() > LONGEST {
        words.drain(..words.len() - LONGEST);
    }
    NounPhrase { from, to, count, words, thing, of: None, definite, plural }
}

fn kind(all: &[&str], words: &[CompactString]) -> Thing {
    let head = words.last().map_or("", CompactString::as_str);
    let refs: Vec<&str> = words.iter().map(CompactString::as_str).collect();
    let ends_with_tool = (0..all.len()).any(|i| LEXICON.tools.at(all, i).is_some_and(|(len, _)| i + len == all.len()));
    let ends_with_material =
        (0..all.len()).any(|i| LEXICON.consumables.at(all, i).is_some_and(|(len, _)| i + len == all.len()));
    if is_screw(head) || screws_by_drive(all) {
        return Thing::Screw;
    }
    if matches!(
        head,
        "one"
            | "thing"
            | "guy"
            | "stuff"
            | "rest"
            | "other"
            | "last"
            | "first"
            | "half"
            | "pair"
            | "piece"
            | "part"
            | "component"
    ) {
        return Thing::Pronoun;
    }
    if is_connection(head) {
        return Thing::Connection;
    }
    let two_words = (0..all.len().saturating_sub(1))
        .any(|i| LEXICON.tools.at(all, i).is_some_and(|(len, _)| len > 1 && i + len == all.len()));
    if two_words
        || ends_with_tool && LEXICON.part_heads.at(&refs, refs.len() - 1).is_none()
        || matches!(head, "screwdriver" | "driver" | "turner")
    {
        return Thing::Tool;
    }
    if matches!(
        head,
        "glue"
            | "adhesive"
            | "tape"
            | "alcohol"
            | "paste"
            | "isopropyl"
            | "grease"
            | "fat"
            | "swab"
            | "cloth"
            | "liner"
            | "residue"
            | "gunk"
    ) || ends_with_material && !matches!(head, "gasket" | "seal" | "ring" | "pad")
    {
        return Thing::Material;
    }
    if LEXICON.part_heads.at(&refs, refs.len() - 1).is_some()
        || (refs.len() > 1 && LEXICON.part_heads.at(&refs, refs.len() - 2).is_some_and(|(len, ())| len == 2))
    {
        return Thing::Part;
    }
    if LEXICON.never_parts.contains(head) || LEXICON.units.at(&[head], 0).is_some() {
        return Thing::Never;
    }
    // "the cover half way": a known head inside.
    if (0..refs.len()).any(|i| LEXICON.part_heads.at(&refs, i).is_some())
        && refs.len() > 1
        && LEXICON.verb_forms.contains_key(head)
    {
        return Thing::Part;
    }
    let usable = head.len() > 1 && head.chars().all(|c| c.is_alphabetic() || c == '-');
    if usable { Thing::Unknown } else { Thing::Never }
}

/// "the four T6s", "two Phillips": a drive in the plural stands for its screws.
fn screws_by_drive(all: &[&str]) -> bool {
    let Some(last) = all.last() else { return false };
    if all.iter().any(|w| matches!(*w, "turner" | "driver" | "screwdriver")) {
        return false;
    }
    let counted =
        all.len() > 1 && numbers::figure_at(all, 0).is_some_and(|f| f.value.fract() == 0.0 && f.len < all.len());
    let drive = numbers::bit_code(last).is_some() || LEXICON.drives.at(all, all.len() - 1).is_some();
    counted && drive
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::{sentences, tags};
    use crate::recording::Recording;
    use rstest::rstest;

    fn found(text: &str) -> Vec<(Option<u32>, String, Thing)> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let sentence = sentences::split(&recording).remove(0);
        let tagged = tags::tag(&sentence.tokens, true);
        phrases(&tagged, 0, tagged.len()).into_iter().map(|p| (p.count, p.text(), p.thing)).collect()
    }

    #[rstest]
    #[case("Remove the rear cover.", None, "rear cover", Thing::Part)]
    #[case("Remove the small keypad board.", None, "keypad board", Thing::Part)]
    #[case("Remove four Torx T6 screws.", Some(4), "torx t6 screw", Thing::Screw)]
    #[case("Lift the wobulator out.", None, "wobulator", Thing::Unknown)]
    #[case("Pull the keypad flex cable.", None, "keypad flex cable", Thing::Connection)]
    #[case("Take the plastic opening tool.", None, "plastic opening tool", Thing::Tool)]
    #[case("Remove both feet.", Some(2), "feet", Thing::Part)]
    fn finds_things(#[case] text: &str, #[case] count: Option<u32>, #[case] name: &str, #[case] thing: Thing) {
        assert_eq!(found(text)[0], (count, name.to_owned(), thing));
    }

    #[rstest]
    #[case("Pull off the plug of the lamp.", Some("lamp"))]
    #[case("Pull the keypad flex cable.", Some("keypad"))]
    #[case("Unplug the antenna.", Some("antenna"))]
    #[case("Pull the flat plug.", None)]
    #[case("Unplug the cable for the fan.", Some("fan"))]
    fn tells_what_a_cable_serves(#[case] text: &str, #[case] serves: Option<&str>) {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let sentence = sentences::split(&recording).remove(0);
        let tagged = tags::tag(&sentence.tokens, true);
        assert_eq!(phrases(&tagged, 1, tagged.len())[0].serves().as_deref(), serves);
    }
}
