//! Seventh pass: what kind of statement a sentence is, and why.
//!
//! The kinds are tried from the surest to the vaguest; each says which words decided it and how sure it is.

use super::act::Act;
use super::clauses::{Clause, Mood};
use super::extract::{self, Warning};
use super::facts::Facts;
use super::lexicon::LEXICON;
use super::numbers;
use super::phrases::Thing;
use super::tags::{Tag, Tagged};
use crate::labels;
use crate::labels::Label;
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

labels!(StatementKind {
    Action: "Action" @ "a",
    Caution: "Caution" @ "c",
    Condition: "Condition" @ "i",
    Observation: "Observation" @ "o",
    Tool: "Tools" @ "t",
    Test: "Test" @ "e",
    Chatter: "Talk" @ "b",
    Noise: "Noise" @ "n",
});

impl StatementKind {
    /// The name in files.
    pub fn name(self) -> &'static str {
        match self {
            Self::Action => "action",
            Self::Caution => "caution",
            Self::Condition => "condition",
            Self::Observation => "observation",
            Self::Tool => "tool",
            Self::Test => "test",
            Self::Chatter => "chatter",
            Self::Noise => "noise",
        }
    }

    /// The kind that goes by this name.
    pub fn from_name(name: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|k| k.name().eq_ignore_ascii_case(name))
    }

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
    pub warning: Option<Warning>,
}

impl Judged {
    fn new(kind: StatementKind, confidence: f64, because: String) -> Self {
        Self { kind, confidence, because: vec![because], chain: false, warning: None }
    }
}

impl Judged {
    /// The recording is over.
    pub fn after_the_farewell() -> Self {
        Self::new(StatementKind::Noise, 0.9, "stands behind the farewell of the recording".to_owned())
    }

    /// It was taken for talk, and numbers and sizes screws.
    pub fn screws(self) -> Self {
        Self {
            kind: StatementKind::Observation,
            because: vec!["numbers and sizes screws told before".to_owned()],
            ..self
        }
    }
}

/// Where in the recording a sentence stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Place {
    pub cue: usize,
    /// The sentence before listed tools.
    pub listing: bool,
    /// It names a tool, or numbers one, and tells nothing that is done.
    pub names: bool,
    /// Something has been done already.
    pub started: bool,
}

pub(super) fn judge(t: &Tagged<'_>, clauses: &[Clause], place: Place) -> Judged {
    use StatementKind::*;
    let lexicon = &*LEXICON;
    let words = t.words.as_slice();

    if let Some(heading) = heading(words) {
        return Judged::new(Chatter, 0.95, format!("a heading: “{heading}”"));
    }
    if let Some(noise) = mostly_noise(words) {
        return Judged::new(Noise, 0.95, format!("recogniser noise: “{noise}”, and no word of the work"));
    }
    if let Some(phrase) = extract::chain(t, clauses) {
        return Judged {
            chain: true,
            ..Judged::new(Condition, 0.9, format!("tells a chain and not an act: “{phrase}”"))
        };
    }
    if let Some(judged) = tool_list(t, clauses, place) {
        return judged;
    }
    if let Some(intro) = introduces(words, place) {
        return Judged::new(Chatter, 0.9, format!("introduces the recording: “{intro}”"));
    }
    let action = surest_action(clauses);
    let works = action.is_some_and(|c| c.act != Some(Act::Test) && !tells_of_a_state(c) && handles_something(c));
    let warning = extract::warnings(t, clauses);
    if let Some(warning) = &warning
        && (warning.whole || !works)
        && (lexicon.chatter.any(words).is_none() || names_something(clauses))
    {
        return Judged {
            warning: Some(warning.clone()),
            ..Judged::new(Caution, warning.confidence, warning.because.clone())
        };
    }
    if let Some(judged) = condition(t, clauses) {
        return Judged { warning, ..judged };
    }
    if let Some(clause) = action
        && let Some(judged) = acts(t, clause)
    {
        let mut judged = Judged { warning, ..judged };
        if let Some(w) = &judged.warning {
            judged.because.push(format!("it also warns: {}", w.because));
        }
        return judged;
    }
    Judged { warning, ..told(t, clauses) }
}

/// The plain act that tells most: one that handles a known thing before one that handles nothing.
fn surest_action(clauses: &[Clause]) -> Option<&Clause> {
    let plain = |c: &&Clause| c.is_plain() && c.act.is_some();
    clauses.iter().filter(plain).find(|c| handles_something(c)).or_else(|| clauses.iter().find(plain))
}

fn handles_something(clause: &Clause) -> bool {
    let moves = clause.act.is_some_and(|a| a.direction() != super::act::Direction::Neutral);
    clause.objects.iter().any(|o| {
        o.known()
            || o.thing == Thing::Screw
            || (moves
                && o.thing == Thing::Pronoun
                && matches!(o.words[0].as_str(), "it" | "that" | "this" | "them" | "those" | "one"))
    })
}

fn names_something(clauses: &[Clause]) -> bool {
    clauses.iter().flat_map(Clause::things).any(|np| np.known() || np.thing == Thing::Screw)
}

fn tool_list(t: &Tagged<'_>, clauses: &[Clause], place: Place) -> Option<Judged> {
    let lexicon = &*LEXICON;
    let words = t.words.as_slice();
    if place.listing && place.names && words.len() > 1 {
        return Some(Judged::new(StatementKind::Tool, 0.9, "the list of tools goes on".to_owned()));
    }
    // "No metal tools in here, please.": what is kept out is not fetched.
    if words.iter().find(|w| **w != "please") == Some(&"no") {
        return None;
    }
    let opens_with_tool = lexicon.tools.at(words, 0).is_some() || lexicon.consumables.at(words, 0).is_some();
    // "Torx Screwdriver T6 3.": what a list names, and nothing else.
    let goes_on = place.listing && (opens_with_tool || clauses.iter().all(|c| c.act.is_none() || c.verb.is_none()));
    let list = extract::list_opener(words).or_else(|| goes_on.then(|| "the list goes on".to_owned()))?;
    let named = extract::tools_named(words).into_iter().next().or_else(|| lexicon.consumables.any(words));
    // "Tools to be prepared for the work 1.": the list stands behind.
    let ahead = || list.starts_with("tool to").then(|| "what follows".to_owned());
    let named = named.or_else(ahead)?;
    // "you need to lift it with the spudger" does something.
    let handled =
        clauses.iter().any(|c| c.is_plain() && c.act.is_some_and(|a| a != Act::Place) && handles_something(c));
    (titled(t) || !handled).then(|| Judged {
        kind: StatementKind::Tool,
        confidence: 0.92,
        because: vec![format!("opens a list (“{list}”) and names “{named}”")],
        chain: false,
        warning: None,
    })
}

/// "Material required. Cleaning cloth, …": behind a title there is nothing but the list.
fn titled(t: &Tagged<'_>) -> bool {
    LEXICON.tool_list.at(&t.words, 0).is_some_and(|(len, ())| t.pause[len - 1])
}

/// "Step four.", "Section two."
fn heading(words: &[&str]) -> Option<String> {
    let number = |w: &str| LEXICON.numbers.contains_key(w) || w.parse::<f64>().is_ok();
    match words {
        [what @ ("step" | "section" | "chapter" | "part"), n] if number(n) => Some(format!("{what} {n}")),
        [n] if numbers::lone(words) => Some((*n).to_owned()),
        _ => None,
    }
}

/// The first minute of talk: what the video will show, who sent the device, why.
fn introduces(words: &[&str], place: Place) -> Option<String> {
    if place.started || place.cue > 2 {
        return None;
    }
    const INTRO: [&[&str]; 18] = [
        &["today"],
        &["this", "video"],
        &["show", "you"],
        &["welcome"],
        &["hello"],
        &["hey"],
        &["what", "'s", "up"],
        &["going", "on"],
        &["let", "'s", "see"],
        &["let", "'s", "find"],
        &["on", "the", "bench"],
        &["we", "'re", "gonna"],
        &["i", "'m", "gonna"],
        &["gave", "me"],
        &["sent", "me"],
        &["brought", "me"],
        &["looking", "forward"],
        &["and", "you", "do", "not", "need"],
    ];
    INTRO.iter().find(|p| words.windows(p.len()).any(|w| w == **p)).map(|p| p.join(" "))
}

fn condition(t: &Tagged<'_>, clauses: &[Clause]) -> Option<Judged> {
    let first = clauses.first()?;
    let opener = (first.from..first.to)
        .map(|i| t.words[i])
        .find(|w| !matches!(*w, "but" | "and" | "so" | "now" | "okay" | "oh" | "well" | "note"))?;
    let conditional = first.mood == Mood::Conditional && matches!(opener, "if" | "unless" | "who" | "whoever" | "in")
        || matches!(opener, "if" | "unless" | "whoever");
    // "If you liked this, leave a comment."
    let talk = LEXICON.chatter.any(&t.words).is_some() || !names_something(clauses);
    conditional.then(|| Judged {
        kind: StatementKind::Condition,
        confidence: if talk { 0.7 } else { 0.92 },
        because: vec![format!("begins with “{opener}”")],
        chain: false,
        warning: None,
    })
}

fn acts(t: &Tagged<'_>, clause: &Clause) -> Option<Judged> {
    use StatementKind::*;
    let act = clause.act.expect("an action has an act");
    let verb = clause.verb.map_or("", |v| t.said[v]);
    if act == Act::Test {
        return Some(Judged::new(Test, 0.9, format!("the verb “{verb}” checks something")));
    }
    if clause.base == "be" && !matches!(act, Act::Remove) {
        return None;
    }
    // "The fan is held by three screws" tells how it is; what is to be done with the screws follows from it.
    if tells_of_a_state(clause) {
        return Some(Judged::new(Observation, 0.9, format!("“{verb}” tells how something is held")));
    }
    if let Some(known) = clause.objects.iter().find(|o| o.known()) {
        let how = if verb.is_empty() { "a thing and a way".to_owned() } else { format!("verb “{verb}”") };
        return Some(Judged::new(Action, 0.95, format!("{how} + known part “{}”", known.text())));
    }
    if let Some(screw) = clause.objects.iter().find(|o| o.thing == Thing::Screw) {
        return Some(Judged::new(Action, 0.93, format!("verb “{verb}” + “{}”", screw.head())));
    }
    if let Some(tool) = clause.things().find(|o| o.thing == Thing::Tool) {
        return Some(Judged::new(Action, 0.85, format!("verb “{verb}” + tool “{}”", tool.text())));
    }
    if LEXICON.chatter.any(&t.words).is_none() {
        if ordered(t, clause) {
            return Some(Judged::new(Action, 0.92, format!("the order “{verb}” opens the sentence")));
        }
        return Some(Judged::new(Action, 0.65, format!("verb “{verb}” opens the clause")));
    }
    None
}

/// "The fan is held by three screws", "the board holds a charge": nobody does anything. In "you hold the cover" somebody
/// does, and in "hold the cover" it is an order.
fn tells_of_a_state(clause: &Clause) -> bool {
    clause.act == Some(Act::Hold) && (clause.passive || clause.subject.iter().any(|s| s.thing != Thing::Pronoun))
}

/// "Close the latch.", "then wait five minutes": the sentence begins with its order.
fn ordered(t: &Tagged<'_>, clause: &Clause) -> bool {
    let Some(verb) = clause.verb.filter(|v| t.said[*v] == clause.base) else { return false };
    let led = t.words[..verb]
        .iter()
        .all(|w| matches!(*w, "and" | "then" | "now" | "so" | "first" | "next" | "okay" | "again"));
    let with = !clause.objects.is_empty() || !clause.places.is_empty() || t.tags[verb..].contains(&Tag::Measure);
    led && with && clause.subject.is_empty()
}

/// Nothing is done: a test, talk, or something seen.
fn told(t: &Tagged<'_>, clauses: &[Clause]) -> Judged {
    use StatementKind::*;
    let lexicon = &*LEXICON;
    let words = t.words.as_slice();
    let named = names_something(clauses);
    if let Some(word) =
        lexicon.tests.any(words).filter(|_| words.len() > 2 && (named || lexicon.chatter.any(words).is_none()))
    {
        return Judged::new(Test, 0.7, format!("“{word}” speaks of checking"));
    }
    if let Some(talk) = lexicon.chatter.any(words).filter(|_| !named || words.len() < 6) {
        return Judged::new(Chatter, 0.9, format!("talk: “{talk}”, and nothing is done"));
    }
    let thing = clauses.iter().flat_map(Clause::things).find(|np| np.known() || np.thing == Thing::Screw);
    match thing {
        Some(np) => Judged::new(Observation, 0.9, format!("speaks of “{}” without doing anything", np.text())),
        None if !super::quantities::quantities(words).is_empty() => {
            Judged::new(Observation, 0.9, "gives a figure".to_owned())
        }
        None if lexicon.chatter.any(words).is_some() => {
            Judged::new(Chatter, 0.8, "talk, and nothing is done".to_owned())
        }
        None => Judged::new(Chatter, 0.6, "names no part, tool or act".to_owned()),
    }
}

/// Noise words make up most of it and nothing of the work is named.
fn mostly_noise(words: &[&str]) -> Option<String> {
    let found = LEXICON.noise.all(words);
    let covered: usize = found.iter().map(|(_, len, _)| len).sum();
    let work = (0..words.len()).any(|i| {
        LEXICON.part_heads.at(words, i).is_some()
            || LEXICON.tools.at(words, i).is_some()
            || super::phrases::is_screw(words[i])
    });
    let (at, len, _) = *found.first()?;
    (covered * 2 >= words.len() && !work).then(|| words[at..at + len].join(" "))
}

/// A statement of work names something or does something; a greeting that only happens to hold a verb does not.
pub(super) fn has_work(kind: StatementKind, facts: &Facts, confidence: f64) -> bool {
    let typed = !facts.fasteners.is_empty()
        || !facts.connectors.is_empty()
        || !facts.parts.is_empty()
        || !facts.heat.is_empty()
        || !facts.cautions.is_empty()
        || !facts.measures.is_empty()
        || !facts.needs.is_empty()
        || !facts.tools.is_empty()
        || !facts.consumables.is_empty();
    let handles = |a: &super::facts::ActFact| {
        !a.objects.is_empty() && !matches!(a.act, Act::Hold | Act::Place | Act::Wait | Act::Mark)
    };
    let acts = confidence > 0.6 && facts.acts.iter().any(handles);
    // "It takes about ten minutes" tells of the work, a price doesn't.
    if kind == StatementKind::Chatter && facts.measures.iter().any(|m| m.quantity != crate::units::Quantity::Price) {
        return true;
    }
    let says_little = matches!(kind, StatementKind::Observation | StatementKind::Condition) || confidence <= 0.65;
    kind.is_work() && (typed || acts || !says_little)
}
