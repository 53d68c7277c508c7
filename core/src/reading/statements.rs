//! Fifth pass: what kind of statement a sentence is, and why.
//!
//! The kinds are tried from the surest to the vaguest; each says which words decided it and how sure it is.

use super::clauses::{Clause, Mood};
use super::facts::Facts;
use super::lexicon::LEXICON;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a statement does in the recording.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StatementKind {
    /// Something is done.
    Action,
    /// Something can hurt or break.
    Caution,
    /// Holds only if something is so, or tells a chain that nobody carries out.
    Condition,
    /// Something is seen or told.
    Observation,
    /// Tools and materials are listed.
    Tool,
    /// Something is checked.
    Test,
    /// Talk beside the work.
    Chatter,
    /// No speech: what a recogniser writes into silence.
    Noise,
}

impl StatementKind {
    /// Whether the statement carries work; talk and noise do not.
    pub fn is_work(self) -> bool {
        !matches!(self, Self::Chatter | Self::Noise)
    }
}

/// A kind with its reason.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Judged {
    pub kind: StatementKind,
    pub confidence: f64,
    pub because: Vec<String>,
    pub chain: bool,
}

pub(super) fn judge(words: &[&str], clauses: &[Clause]) -> Judged {
    use StatementKind::*;
    let lexicon = &*LEXICON;
    let judged = |kind, confidence, because: String| Judged { kind, confidence, because: vec![because], chain: false };

    if let Some(noise) = mostly_noise(words) {
        return judged(Noise, 0.9, format!("recogniser noise: “{noise}”, and no word of the work"));
    }
    if let Some(phrase) = lexicon.needs.any(words) {
        return Judged {
            chain: true, ..judged(Condition, 0.8, format!("tells a chain and not an act: “{phrase}”"))
        };
    }
    let action = clauses.iter().find(|c| c.mood == Mood::Plain && c.act.is_some());
    if let Some(list) = lexicon.tool_list.any(words) {
        let named = lexicon
            .tools
            .any(words)
            .or_else(|| lexicon.consumables.any(words))
            .or_else(|| lexicon.drives.any(words))
            .or_else(|| {
                words.iter().find(|w| matches!(**w, "screwdriver" | "driver" | "turner")).map(|w| (*w).to_owned())
            });
        if let Some(named) = named.filter(|_| lexicon.caution_triggers.any(words).is_none()) {
            return judged(Tool, 0.85, format!("opens a list (“{list}”) and names “{named}”"));
        }
    }
    if let Some(judged) = caution(words, clauses, action.is_some()) {
        return judged;
    }
    if words.first().is_some_and(|w| lexicon.conditions.contains(*w))
        && !matches!(words[0], "when")
        && clauses.iter().filter(|c| c.mood == Mood::Conditional).count() > 0
    {
        return judged(Condition, 0.8, format!("begins with “{}”", words[0]));
    }
    if let Some(clause) = action {
        let act = clause.act.expect("an action has an act");
        let verb = words[clause.verb.expect("an act has a verb")];
        if act == super::act::Act::Test {
            return judged(Test, 0.85, format!("the verb “{verb}” checks something"));
        }
        if clause.objects.iter().any(|o| o.known) {
            return judged(
                Action,
                0.92,
                format!(
                    "verb “{verb}” + known part “{}”",
                    clause.objects.iter().find(|o| o.known).expect("a known object").text()
                ),
            );
        }
        if let Some(screw) = words.iter().find(|w| matches!(**w, "screw" | "bolt" | "latch" | "clip")) {
            return judged(Action, 0.9, format!("verb “{verb}” + “{screw}”"));
        }
        if lexicon.chatter.any(words).is_none() {
            return judged(Action, 0.65, format!("verb “{verb}” opens the clause"));
        }
    }
    if let Some(word) = lexicon.tests.any(words).filter(|_| words.len() > 2) {
        return judged(Test, 0.6, format!("“{word}” speaks of checking"));
    }
    if let Some(talk) = lexicon.chatter.any(words) {
        return judged(Chatter, 0.75, format!("talk: “{talk}”, and nothing is done"));
    }
    let thing = (0..words.len()).find(|i| {
        lexicon.part_heads.at(words, *i).is_some()
            || lexicon.connections.at(words, *i).is_some()
            || words[*i] == "screw"
    });
    match thing {
        Some(i) => judged(Observation, 0.7, format!("speaks of “{}” without doing anything", words[i])),
        None if !super::numbers::quantities(words).is_empty() => judged(Observation, 0.6, "gives a figure".to_owned()),
        None if lexicon.observations.any(words).is_some() && words.len() > 6 => {
            judged(Observation, 0.4, "tells what is, names nothing known".to_owned())
        }
        None => judged(Chatter, 0.55, "names no part, tool or act".to_owned()),
    }
}

/// Noise words make up most of it and nothing of the work is named.
fn mostly_noise(words: &[&str]) -> Option<String> {
    let found = LEXICON.noise.all(words);
    let covered: usize = found.iter().map(|(_, len, _)| len).sum();
    let work =
        (0..words.len()).any(|i| LEXICON.part_heads.at(words, i).is_some() || LEXICON.tools.at(words, i).is_some());
    let (at, len, _) = *found.first()?;
    (covered * 2 >= words.len() && !work).then(|| words[at..at + len].join(" "))
}

pub(super) fn caution(words: &[&str], clauses: &[Clause], acts: bool) -> Option<Judged> {
    let trigger = LEXICON.caution_triggers.any(words);
    let harm = LEXICON.harm.any(words);
    let opens = words.first().is_some_and(|w| matches!(*w, "caution" | "attention" | "warning" | "careful" | "beware"));
    // "I don't know" forbids nothing; "don't touch it" does.
    let forbids = clauses.iter().any(|c| {
        let own = words[c.from..c.to].iter().take(2).any(|w| matches!(*w, "i" | "we" | "they" | "he" | "she" | "it"));
        c.mood == Mood::Negated && !own
    });
    let (confidence, because) = match (&trigger, &harm) {
        (Some(t), _) if opens => (0.95, format!("opens with “{t}”")),
        (Some(t), Some(h)) => (0.9, format!("“{t}” and the harm “{h}”")),
        (Some(t), None) if forbids => (0.8, format!("forbids something: “{t}”")),
        (None, Some(h))
            if !acts
                && words.iter().any(|w| {
                    matches!(
                        *w,
                        "will"
                            | "can"
                            | "may"
                            | "could"
                            | "easily"
                            | "if"
                            | "above"
                            | "below"
                            | "you'll"
                            | "it'll"
                            | "would"
                    )
                }) =>
        {
            (0.7, format!("says what may happen: “{h}”"))
        }
        _ => return None,
    };
    Some(Judged { kind: StatementKind::Caution, confidence, because: vec![because], chain: false })
}

/// A statement of work names something or does something; a greeting that only happens to hold a verb does not.
pub(super) fn has_work(kind: StatementKind, facts: &Facts) -> bool {
    kind.is_work() && (!facts.is_empty() || kind != StatementKind::Observation)
}
