//! The words of the trade, as data files compiled in.
//!
//! Lists are long and change often, code is short and should not: every list lives in a TOML file beside this one, and
//! this module only turns it into tables that find the longest phrase at a place.

use super::act::Act;
use super::facts::{CautionSubject, Consumable, Drive, HeatSource};
use super::sound::{sound, spelled};
use crate::units::Unit;
use compact_str::CompactString;
use rustc_hash::{FxHashMap, FxHashSet};
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// Everything the passes look up.
pub(super) struct Lexicon {
    pub verbs: FxHashMap<String, Vec<VerbPhrase>>,
    /// Every form of a verb to its base: `took` → `take`.
    pub verb_forms: FxHashMap<String, String>,
    pub part_heads: PhraseTable<()>,
    pub connections: PhraseTable<()>,
    pub never_parts: FxHashSet<CompactString>,
    /// Common nouns that name nothing one could hold: "pause", "renewal". From WordNet.
    pub no_things: FxHashSet<&'static str>,
    /// Adjectives of talk: "noisy", "filthy".
    pub everyday_adjectives: FxHashSet<CompactString>,
    /// Adverbs of talk, which are no names of things: "therefore", "rather".
    pub everyday_adverbs: FxHashSet<CompactString>,
    pub everyday_verbs: Vec<String>,
    /// Another word for a part to the one a guide uses.
    pub same_part: FxHashMap<String, String>,
    /// Words that stand for another only where nothing else is in the name.
    pub same_alone: FxHashMap<String, String>,
    pub tools: PhraseTable<String>,
    /// "the gun", "the plate": what heats, by names that mean other things elsewhere.
    pub heat_nicknames: PhraseTable<HeatSource>,
    pub consumables: PhraseTable<Consumable>,
    pub drives: PhraseTable<Drive>,
    pub units: PhraseTable<Unit>,
    pub numbers: FxHashMap<String, f64>,
    pub caution_triggers: PhraseTable<()>,
    pub harm: PhraseTable<()>,
    pub fragile: PhraseTable<()>,
    /// What "no …" keeps out: metal, water.
    pub kept_out: PhraseTable<()>,
    /// What a warning is about, with the weight of the words.
    pub caution_subjects: PhraseTable<(CautionSubject, u32)>,
    pub caution_order: Vec<CautionSubject>,
    pub decisive: PhraseTable<CautionSubject>,
    pub one_way: PhraseTable<()>,
    pub classes: Classes,
    pub forgotten: PhraseTable<()>,
    pub wrong_order: PhraseTable<()>,
    pub dead_end: PhraseTable<()>,
    pub rejected: PhraseTable<()>,
    pub pointing: PhraseTable<()>,
    pub decisions: PhraseTable<()>,
    pub complaints: PhraseTable<()>,
    pub alternatives: PhraseTable<()>,
    pub chatter: PhraseTable<()>,
    pub noise: PhraseTable<()>,
    pub tool_list: PhraseTable<()>,
    pub rebuild: PhraseTable<()>,
    pub rebuild_reverse: PhraseTable<()>,
    pub needs: PhraseTable<()>,
    pub tests: PhraseTable<()>,
    pub conditions: FxHashSet<CompactString>,
    /// Every word of every list: what already means something here is no mishearing.
    pub known: FxHashSet<CompactString>,
    /// Single words worth repairing a mishearing to.
    pub trade_words: Vec<TradeWord>,
    /// Every name of a drive, of one word or several.
    pub drive_names: Vec<String>,
}

/// A word of the trade with how it sounds and how its sounds are spelled, worked out once.
pub(super) struct TradeWord {
    pub word: String,
    pub sound: String,
    pub spelled: String,
}

/// A verb with its particles, and what is done.
#[derive(Debug, Clone)]
pub(super) struct VerbPhrase {
    pub particles: Vec<String>,
    pub act: Act,
}

/// Finds the longest of many phrases at one place of a text.
pub(super) struct PhraseTable<T> {
    by_first: FxHashMap<CompactString, Vec<(Vec<CompactString>, T)>>,
    openers: Openers,
}

/// Which lengths the first words have, by their first letter: most words open no phrase, and this says so without a hash.
struct Openers([u32; 256]);

impl Openers {
    fn of<'a>(words: impl Iterator<Item = &'a CompactString>) -> Self {
        let mut lengths = [0; 256];
        for word in words {
            if let Some((letter, length)) = Self::place(word) {
                lengths[letter] |= length;
            }
        }
        Self(lengths)
    }

    fn may_open(&self, word: &str) -> bool {
        Self::place(word).is_some_and(|(letter, length)| self.0[letter] & length != 0)
    }

    fn place(word: &str) -> Option<(usize, u32)> {
        let letter = *word.as_bytes().first()?;
        Some((letter.into(), 1 << word.len().min(31)))
    }
}

impl<T: Clone> PhraseTable<T> {
    fn new(phrases: impl IntoIterator<Item = (String, T)>) -> Self {
        let mut by_first: FxHashMap<CompactString, Vec<(Vec<CompactString>, T)>> = FxHashMap::default();
        for (phrase, value) in phrases {
            let words: Vec<CompactString> = phrase.split_whitespace().flat_map(contraction).map(lemma).collect();
            by_first.entry(words[0].clone()).or_default().push((words, value));
        }
        for list in by_first.values_mut() {
            list.sort_by_key(|(words, _)| std::cmp::Reverse(words.len()));
        }
        let openers = Openers::of(by_first.keys());
        Self { by_first, openers }
    }

    /// The longest phrase that begins at `at`: its length in words and its value.
    pub fn at(&self, words: &[&str], at: usize) -> Option<(usize, &T)> {
        let first = words.get(at).filter(|w| self.openers.may_open(w))?;
        let list = self.by_first.get(*first)?;
        let fits = |phrase: &[CompactString]| {
            words.len() >= at + phrase.len() && phrase.iter().zip(&words[at..]).all(|(p, w)| p == w)
        };
        list.iter().find(|(phrase, _)| fits(phrase)).map(|(phrase, value)| (phrase.len(), value))
    }

    /// Every longest, non-overlapping phrase: where, how many words, value.
    pub fn all<'a>(&'a self, words: &[&str]) -> Vec<(usize, usize, &'a T)> {
        let mut found = Vec::new();
        let mut at = 0;
        while at < words.len() {
            match self.at(words, at) {
                Some((len, value)) => {
                    found.push((at, len, value));
                    at += len;
                }
                None => at += 1,
            }
        }
        found
    }

    pub fn any(&self, words: &[&str]) -> Option<String> {
        let (at, len) = (0..words.len()).find_map(|at| self.at(words, at).map(|(len, _)| (at, len)))?;
        Some(words[at..at + len].join(" "))
    }
}

impl Lexicon {
    /// Whether a word means something to the reader: of the trade or of every day.
    pub fn knows(&self, word: &str) -> bool {
        self.known.contains(word) || self.verb_forms.contains_key(word) || self.numbers.contains_key(word)
    }
}

/// Whether a single word means something to the reader, in any case.
pub fn is_known(word: &str) -> bool {
    LEXICON.knows(&lemma(&word.to_lowercase()))
}

/// "it's" and "you'll" are two words: what they stand for has two places in the grammar.
pub(super) fn contraction(word: &str) -> impl Iterator<Item = &str> {
    const ENDS: [&str; 6] = ["'s", "'ll", "'re", "'ve", "'d", "'m"];
    let marked = word.as_bytes().contains(&b'\'');
    let end = ENDS.iter().filter(|_| marked).find(|e| word.len() > e.len() && word.ends_with(**e));
    let (stem, end) = word.split_at(word.len() - end.map_or(0, |e| e.len()));
    std::iter::once(stem).chain((!end.is_empty()).then_some(end))
}

/// The singular of a noun, roughly: enough to look words up, never shown.
pub(super) fn lemma(word: &str) -> CompactString {
    // "eight T5s": a code in the plural.
    if let Some(code) = word.strip_suffix('s').filter(|c| c.len() >= 2 && c.ends_with(|c: char| c.is_ascii_digit())) {
        return code.into();
    }
    let keep = word.len() < 4
        || matches!(
            word,
            "lens" | "gps" | "always" | "towards" | "upwards" | "downwards" | "outwards" | "sideways" | "backwards"
        )
        || ["ss", "us", "is", "'s", "ous"].iter().any(|e| word.ends_with(e));
    if keep || !word.ends_with('s') {
        return word.into();
    }
    if matches!(word, "goes" | "does" | "undoes") {
        return word[..word.len() - 2].into();
    }
    // "ties", "dies": one letter before it is no stem.
    if let Some(stem) = word.strip_suffix("ies").filter(|stem| stem.len() > 1) {
        return compact_str::format_compact!("{stem}y");
    }
    for end in ["ches", "shes", "xes", "sses"] {
        if word.ends_with(end) {
            return word[..word.len() - 2].into();
        }
    }
    word[..word.len() - 1].into()
}

#[derive(Deserialize)]
struct Named<T> {
    name: T,
    words: Vec<String>,
}

#[derive(Deserialize)]
struct VerbFile {
    verb: Vec<VerbRow>,
    other: WordRow,
    irregular: BTreeMap<String, Vec<String>>,
}

#[derive(Deserialize)]
struct WordRow {
    words: Vec<String>,
}

#[derive(Deserialize)]
struct VerbRow {
    act: Act,
    phrases: Vec<String>,
}

#[derive(Deserialize)]
struct PartFile {
    heads: Vec<String>,
    connections: Vec<String>,
    never: Vec<String>,
    same: FxHashMap<String, String>,
    alone: FxHashMap<String, String>,
}

#[derive(Deserialize)]
struct ToolFile {
    tool: Vec<Named<String>>,
    heat_nickname: Vec<Named<HeatSource>>,
    consumable: Vec<Named<Consumable>>,
}

#[derive(Deserialize)]
struct DriveFile {
    drive: Vec<Named<Drive>>,
}

#[derive(Deserialize)]
struct UnitRow {
    unit: Unit,
    words: Vec<String>,
}

#[derive(Deserialize)]
struct UnitFile {
    unit: Vec<UnitRow>,
    numbers: FxHashMap<String, f64>,
}

/// How much more a strong phrase tells than a weak one.
pub(super) const STRONG: u32 = 4;
const WEAK: u32 = 1;

#[derive(Deserialize)]
struct SubjectRow {
    about: CautionSubject,
    strong: Vec<String>,
    weak: Vec<String>,
}

#[derive(Deserialize)]
struct CautionFile {
    triggers: Vec<String>,
    harm: Vec<String>,
    fragile: Vec<String>,
    kept_out: Vec<String>,
    one_way: Vec<String>,
    decisive: Vec<DecisiveRow>,
    subject: Vec<SubjectRow>,
}

#[derive(Deserialize)]
struct DecisiveRow {
    about: CautionSubject,
    words: Vec<String>,
}

#[derive(Deserialize)]
struct SpeechFile {
    chatter: Vec<String>,
    noise: Vec<String>,
    tool_list: Vec<String>,
    rebuild: Vec<String>,
    rebuild_reverse: Vec<String>,
    needs: Vec<String>,
    conditions: Vec<String>,
    tests: Vec<String>,
    forgotten: Vec<String>,
    wrong_order: Vec<String>,
    dead_end: Vec<String>,
    rejected: Vec<String>,
    pointing: Vec<String>,
    decisions: Vec<String>,
    complaints: Vec<String>,
    alternatives: Vec<String>,
    classes: Classes,
}

/// Words of the closed classes, for the grammar.
#[derive(Deserialize)]
pub(super) struct Classes {
    pub determiner: FxHashSet<CompactString>,
    pub pronoun: FxHashSet<CompactString>,
    pub preposition: FxHashSet<CompactString>,
    pub modal: FxHashSet<CompactString>,
    pub be: FxHashSet<CompactString>,
    pub have: FxHashSet<CompactString>,
    #[serde(rename = "do")]
    pub does: FxHashSet<CompactString>,
    pub negation: FxHashSet<CompactString>,
    pub particle: FxHashSet<CompactString>,
    pub adverb: FxHashSet<CompactString>,
    pub adjective: FxHashSet<CompactString>,
    pub subordinator: FxHashSet<CompactString>,
    pub conjunction: FxHashSet<CompactString>,
    pub passing: FxHashSet<CompactString>,
}

fn load<'a, T: Deserialize<'a>>(name: &str, text: &'a str) -> T {
    // The files are part of the program: a bad one is a bug that every test run meets at once.
    toml::from_str(text).unwrap_or_else(|e| panic!("lexicon file {name}: {e}"))
}

fn plain(phrases: Vec<String>) -> PhraseTable<()> {
    PhraseTable::new(phrases.into_iter().map(|p| (p, ())))
}

fn named<T: Clone>(rows: Vec<Named<T>>) -> PhraseTable<T> {
    PhraseTable::new(rows.into_iter().flat_map(|r| r.words.into_iter().map(move |w| (w, r.name.clone()))))
}

/// Regular inflections of an English verb.
pub(super) fn forms(base: &str) -> Vec<String> {
    let stem = base.strip_suffix('e').unwrap_or(base);
    let doubled = base.chars().last().filter(|c| "bdgmnpt".contains(*c)).map(|c| format!("{base}{c}"));
    let mut out =
        vec![base.to_owned(), format!("{base}s"), format!("{base}es"), format!("{stem}ed"), format!("{stem}ing")];
    if let Some(stem) = base.strip_suffix('y') {
        out.extend([format!("{stem}ies"), format!("{stem}ied")]);
    }
    if let Some(doubled) = doubled.filter(|_| base.len() <= 6) {
        out.extend([format!("{doubled}ed"), format!("{doubled}ing")]);
    }
    out
}

/// Adjectives, verbs and nouns of talk, word by word.
const EVERYDAY: &str = include_str!("everyday.toml");

/// Nouns of WordNet without a sense among things; how they were chosen and their licence stand in the file.
const NO_THINGS: &str = include_str!("no_things.txt");

const ALL_FILES: [&str; 7] = [
    include_str!("verbs.toml"),
    include_str!("parts.toml"),
    include_str!("tools.toml"),
    include_str!("drives.toml"),
    include_str!("units.toml"),
    include_str!("cautions.toml"),
    include_str!("speech.toml"),
];

pub(super) static LEXICON: LazyLock<Lexicon> = LazyLock::new(|| {
    let verb_file: VerbFile = load("verbs", ALL_FILES[0]);
    let parts: PartFile = load("parts", ALL_FILES[1]);
    let tools: ToolFile = load("tools", ALL_FILES[2]);
    let drives: DriveFile = load("drives", ALL_FILES[3]);
    let units: UnitFile = load("units", ALL_FILES[4]);
    let cautions: CautionFile = load("cautions", ALL_FILES[5]);
    let speech: SpeechFile = load("speech", ALL_FILES[6]);

    let mut verbs: FxHashMap<String, Vec<VerbPhrase>> = FxHashMap::default();
    let mut verb_forms = FxHashMap::default();
    for row in verb_file.verb {
        for phrase in row.phrases {
            let mut words = phrase.split_whitespace().map(str::to_owned);
            let base = words.next().expect("a verb");
            for form in forms(&base) {
                verb_forms.entry(form).or_insert_with(|| base.clone());
            }
            verbs.entry(base).or_default().push(VerbPhrase { particles: words.collect(), act: row.act });
        }
    }
    for base in verb_file.other.words {
        for form in forms(&base) {
            verb_forms.entry(form).or_insert_with(|| base.clone());
        }
    }
    for (base, irregular) in verb_file.irregular {
        verb_forms.extend(irregular.into_iter().map(|form| (form, base.clone())));
    }
    for list in verbs.values_mut() {
        list.sort_by_key(|v| std::cmp::Reverse(v.particles.len()));
    }

    // Short words and everyday words are never the target of a repair: too many words sound like them.
    let mut trade_words: Vec<String> = tools
        .tool
        .iter()
        .flat_map(|t| &t.words)
        .chain(tools.consumable.iter().flat_map(|t| &t.words))
        .chain(drives.drive.iter().flat_map(|d| &d.words).filter(|w| !w.contains(' ')))
        .chain(&parts.heads)
        .chain(&parts.connections)
        .flat_map(|phrase| phrase.split_whitespace())
        .filter(|w| w.len() >= 5)
        .map(str::to_owned)
        .chain(["latch", "flex", "screw", "gasket"].map(str::to_owned))
        .collect();
    trade_words.sort();
    trade_words.dedup();

    let drive_names = drives.drive.iter().flat_map(|d| &d.words).filter(|w| w.len() > 3).cloned().collect();
    let everyday: BTreeMap<String, String> = load("everyday", EVERYDAY);
    let known = ALL_FILES
        .iter()
        .flat_map(|text| text.split('"').skip(1).step_by(2))
        .flat_map(str::split_whitespace)
        .flat_map(contraction)
        .chain(everyday.values().flat_map(|words| words.split_whitespace()))
        .map(lemma)
        .collect();

    Lexicon {
        known,
        verbs,
        verb_forms,
        part_heads: plain(parts.heads),
        connections: plain(parts.connections),
        everyday_verbs: everyday["verbs"].split_whitespace().map(str::to_owned).collect(),
        everyday_adjectives: everyday["adjectives"].split_whitespace().map(CompactString::from).collect(),
        everyday_adverbs: everyday["adverbs"].split_whitespace().map(CompactString::from).collect(),
        no_things: NO_THINGS.lines().filter(|l| !l.starts_with('#')).flat_map(str::split_whitespace).collect(),
        never_parts: parts.never.iter().map(|w| lemma(w)).collect(),
        same_part: parts.same,
        same_alone: parts.alone,
        tools: named(tools.tool),
        heat_nicknames: named(tools.heat_nickname),
        consumables: named(tools.consumable),
        drives: named(drives.drive),
        units: PhraseTable::new(units.unit.into_iter().flat_map(|u| u.words.into_iter().map(move |w| (w, u.unit)))),
        numbers: units.numbers,
        caution_triggers: plain(cautions.triggers),
        harm: plain(cautions.harm),
        fragile: plain(cautions.fragile),
        kept_out: plain(cautions.kept_out),
        one_way: plain(cautions.one_way),
        decisive: PhraseTable::new(
            cautions.decisive.into_iter().flat_map(|d| d.words.into_iter().map(move |w| (w, d.about))),
        ),
        caution_order: cautions.subject.iter().map(|s| s.about).collect(),
        caution_subjects: PhraseTable::new(cautions.subject.into_iter().flat_map(|s| {
            let strong = s.strong.into_iter().map(move |w| (w, (s.about, STRONG)));
            strong.chain(s.weak.into_iter().map(move |w| (w, (s.about, WEAK))))
        })),
        classes: speech.classes,
        forgotten: plain(speech.forgotten),
        wrong_order: plain(speech.wrong_order),
        dead_end: plain(speech.dead_end),
        rejected: plain(speech.rejected),
        pointing: plain(speech.pointing),
        decisions: plain(speech.decisions),
        complaints: plain(speech.complaints),
        alternatives: plain(speech.alternatives),
        chatter: plain(speech.chatter),
        noise: plain(speech.noise),
        tool_list: plain(speech.tool_list),
        rebuild: plain(speech.rebuild),
        rebuild_reverse: plain(speech.rebuild_reverse),
        needs: plain(speech.needs),
        tests: plain(speech.tests),
        conditions: speech.conditions.into_iter().map(CompactString::from).collect(),
        drive_names,
        trade_words: trade_words
            .into_iter()
            .map(|word| TradeWord { sound: sound(&word), spelled: spelled(&word), word })
            .collect(),
    }
});

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("screws", "screw")]
    #[case("latches", "latch")]
    #[case("batteries", "battery")]
    #[case("boxes", "box")]
    #[case("glass", "glass")]
    #[case("lens", "lens")]
    fn finds_the_singular(#[case] word: &str, #[case] singular: &str) {
        assert_eq!(lemma(word), singular);
    }

    #[test]
    fn the_longest_phrase_wins() {
        let words = ["the", "plastic", "opening", "tool"];
        let (at, len, name) = LEXICON.tools.all(&words)[0];
        assert_eq!((at, len, name.as_str()), (1, 3, "pry tool"));
    }

    #[rstest]
    #[case("took", "take")]
    #[case("sliding", "slide")]
    #[case("flipped", "flip")]
    #[case("undoes", "undo")]
    #[case("pries", "pry")]
    fn knows_verb_forms(#[case] form: &str, #[case] base: &str) {
        assert_eq!(LEXICON.verb_forms.get(form).map(String::as_str), Some(base));
    }
}
