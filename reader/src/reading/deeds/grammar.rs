//! The grammar as data: frames, kinds of things and word lists of `grammar.toml`, turned into tables once.

use super::super::Act;
use super::super::lexicon::{LEXICON, forms, lemma};
use super::Half;
use compact_str::CompactString;
use rustc_hash::{FxHashMap, FxHashSet};
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// What kind of thing a phrase names, as far as it decides which act is meant.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Deserialize)]
#[serde(rename_all = "snake_case")]
pub(super) enum Kind {
    Screw,
    /// A latch of a socket: it shuts again.
    Lever,
    Latch,
    Plug,
    Glue,
    Tape,
    Film,
    Liner,
    Tie,
    Material,
    Liquid,
    Dirt,
    Key,
    Heat,
    Heater,
    Meter,
    Cup,
    Pinning,
    Opener,
    Strap,
    Weight,
    Picture,
    Time,
    /// No thing of the device at all.
    Nothing,
    Device,
    NeverAlone,
    /// "it", "them", "both".
    Pronoun,
    /// A named thing of no other kind.
    Part,
    /// Nothing is named.
    None,
}

/// When a verb tells an act.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub(super) struct Frame {
    pub name: String,
    #[serde(rename = "do")]
    pub act: Act,
    pub verbs: FxHashSet<CompactString>,
    #[serde(default)]
    pub particles: Vec<CompactString>,
    #[serde(default)]
    pub kinds: Vec<Kind>,
    /// Words one of which stands in the clause.
    #[serde(default)]
    pub words: Vec<String>,
    /// Words one of which stands in a place of the clause, or a preposition.
    #[serde(default)]
    pub places: Vec<String>,
    /// Words none of which stands in the clause.
    #[serde(default)]
    pub unless: Vec<String>,
    /// Only while things come apart, or only while they go together.
    #[serde(default)]
    pub half: Option<Half>,
}

/// What the words before it make of a kind: a "guide" is nothing to hold, a "light guide" is a part.
#[derive(Debug, Deserialize)]
pub(super) struct Compound {
    /// What somebody says; the tests hold the rule against it.
    #[cfg(test)]
    pub says: String,
    pub from: Kind,
    pub to: Kind,
    /// Only with a word before it.
    #[serde(default)]
    pub longer: bool,
    /// Last words for which it holds; empty: for all.
    #[serde(default)]
    pub heads: Vec<CompactString>,
    /// Last words for which it does not.
    #[serde(default)]
    pub not_heads: Vec<CompactString>,
    /// Words one of which stands in the name.
    #[serde(default)]
    pub with: Vec<CompactString>,
    /// Words none of which stands in it.
    #[serde(default)]
    pub without: Vec<CompactString>,
}

impl Compound {
    fn fits(&self, kind: Kind, words: &[CompactString]) -> bool {
        let Some(head) = words.last() else { return false };
        let says = |list: &[CompactString]| words.iter().any(|w| list.contains(w));
        self.from == kind
            && (!self.longer || words.len() > 1)
            && (self.heads.is_empty() || self.heads.contains(head))
            && !self.not_heads.contains(head)
            && (self.with.is_empty() || says(&self.with))
            && !says(&self.without)
    }
}

#[derive(Deserialize)]
struct Verbs {
    other: Vec<String>,
    nounlike: FxHashSet<CompactString>,
    things: FxHashSet<CompactString>,
    irregular: BTreeMap<String, Vec<String>>,
}

#[derive(Deserialize)]
struct Words {
    passing: FxHashSet<CompactString>,
}

/// Word classes that single rules ask for.
#[derive(Deserialize)]
pub(super) struct Classes {
    pub moves: FxHashSet<CompactString>,
    pub states: FxHashSet<CompactString>,
    pub fitted: FxHashSet<CompactString>,
    pub ordered: FxHashSet<CompactString>,
    pub compounding: FxHashSet<CompactString>,
    pub which: FxHashSet<CompactString>,
    pub no_manner: FxHashSet<CompactString>,
    pub dark: Vec<String>,
}

#[derive(Deserialize)]
struct Speech {
    together: Vec<String>,
    apart: Vec<String>,
    announced: Vec<String>,
    raising: FxHashSet<CompactString>,
}

#[derive(Deserialize)]
struct File {
    frame: Vec<Frame>,
    verbs: Verbs,
    kinds: BTreeMap<Kind, Vec<String>>,
    compound: Vec<Compound>,
    words: Words,
    classes: Classes,
    speech: Speech,
}

/// All of it.
pub(super) struct Grammar {
    pub frames: Vec<Frame>,
    /// Frames by the verb that they may stand with, in their order.
    by_verb: FxHashMap<CompactString, Vec<usize>>,
    forms: FxHashMap<String, String>,
    pub nounlike: FxHashSet<CompactString>,
    pub things: FxHashSet<CompactString>,
    /// Kinds by the last word of their names; longer names first.
    kinds: FxHashMap<CompactString, Vec<(Vec<CompactString>, Kind)>>,
    /// In their order; the first that fits holds.
    pub compounds: Vec<Compound>,
    pub passing: FxHashSet<CompactString>,
    pub classes: Classes,
    pub together: Vec<String>,
    pub apart: Vec<String>,
    pub announced: Vec<String>,
    pub raising: FxHashSet<CompactString>,
}

impl Grammar {
    fn new(file: File) -> Self {
        let mut table: FxHashMap<String, String> = FxHashMap::default();
        let mut by_verb: FxHashMap<CompactString, Vec<usize>> = FxHashMap::default();
        let bases = file.frame.iter().flat_map(|f| f.verbs.iter().map(|v| v.to_string()));
        let noun = |verb: &&String| file.verbs.nounlike.contains(verb.as_str());
        let talk = LEXICON.everyday_verbs.iter().filter(|v| !noun(v)).cloned();
        for base in bases.chain(file.verbs.other.iter().cloned()).chain(talk) {
            for form in forms(&base) {
                table.entry(form).or_insert_with(|| base.clone());
            }
        }
        for (base, list) in &file.verbs.irregular {
            table.extend(list.iter().map(|f| (f.clone(), base.clone())));
        }
        for (n, frame) in file.frame.iter().enumerate() {
            for verb in &frame.verbs {
                by_verb.entry(verb.clone()).or_default().push(n);
            }
        }
        let mut kinds: FxHashMap<CompactString, Vec<(Vec<CompactString>, Kind)>> = FxHashMap::default();
        for (kind, names) in file.kinds {
            for name in names {
                let words: Vec<CompactString> = name.split(' ').map(lemma).collect();
                let last = words.last().expect("a kind's name has a word").clone();
                kinds.entry(last).or_default().push((words, kind));
            }
        }
        for list in kinds.values_mut() {
            list.sort_by_key(|(words, kind)| (std::cmp::Reverse(words.len()), *kind));
        }
        Self {
            frames: file.frame,
            by_verb,
            forms: table,
            nounlike: file.verbs.nounlike,
            things: file.verbs.things,
            kinds,
            compounds: file.compound,
            passing: file.words.passing,
            classes: file.classes,
            together: file.speech.together,
            apart: file.speech.apart,
            announced: file.speech.announced,
            raising: file.speech.raising,
        }
    }

    /// The base of a verb's form.
    pub fn base(&self, said: &str) -> Option<&str> {
        // Regular endings make words of other meanings: "see" no "seed".
        if matches!(
            said,
            "seed"
                | "bed"
                | "feed"
                | "need"
                | "red"
                | "shed"
                | "speed"
                | "weed"
                | "ring"
                | "thing"
                | "string"
                | "king"
                | "wing"
                | "being"
                | "during"
                | "sting"
        ) && said != "feed"
            && said != "need"
        {
            return None;
        }
        LEXICON.verb_forms.get(said).or_else(|| self.forms.get(said)).map(String::as_str)
    }

    pub fn frames_of(&self, base: &str) -> impl Iterator<Item = &Frame> {
        self.by_verb.get(base).into_iter().flatten().map(|n| &self.frames[*n])
    }

    /// The kind that a name has as a whole.
    pub fn in_compound(&self, kind: Kind, words: &[CompactString]) -> Kind {
        self.compounds.iter().find(|c| c.fits(kind, words)).map_or(kind, |c| c.to)
    }

    /// The kind that a phrase's last words tell.
    pub fn kind(&self, words: &[CompactString]) -> Option<Kind> {
        let list = self.kinds.get(words.last()?)?;
        list.iter().find(|(name, _)| words.ends_with(name)).map(|(_, kind)| *kind)
    }
}

pub(super) static GRAMMAR: LazyLock<Grammar> = LazyLock::new(|| {
    // Part of the program: a bad file is a bug that every test run meets at once.
    Grammar::new(toml::from_str(include_str!("grammar.toml")).unwrap_or_else(|e| panic!("grammar.toml: {e}")))
});

#[cfg(test)]
mod tests {
    use super::*;

    /// The words of a name without what stands before it.
    fn named(says: &str) -> Vec<CompactString> {
        let before = ["the", "a", "our", "this", "little", "with"];
        says.split(' ').filter(|w| !before.contains(w)).map(lemma).collect()
    }

    #[test]
    fn every_compound_is_told_by_its_own_rule() {
        for (n, rule) in GRAMMAR.compounds.iter().enumerate() {
            let words = named(&rule.says);
            let kind = GRAMMAR.kind(&words);
            assert_eq!(kind, Some(rule.from), "“{}” is another kind of thing", rule.says);
            let first = GRAMMAR.compounds.iter().position(|c| c.fits(rule.from, &words));
            assert_eq!(first, Some(n), "“{}” is told by another rule", rule.says);
        }
    }
}
