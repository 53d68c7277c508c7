//! Words that decide over safety and are easily misheard: "connect" for "disconnect", "cannot" for "can now", a lost "don't".
//!
//! They are never repaired in silence. Where what was heard cannot be what was done, both readings stay on the statement;
//! the facts follow the evident one until the author has chosen.

use super::Statement;
use super::act::Act;
use super::clauses::{Clause, Mood};
use super::extract::named_hazard;
use super::facts::{ConnectorOp, FastenerOp, PartFact, PartOp};
use super::hints::Hints;
use super::lexicon::LEXICON;
use super::phrases::NounPhrase;
use super::sentences::Sentence;
use super::statements::StatementKind;
use super::tags::Tagged;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Two readings of one place, of which only one can be safe.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Doubt {
    /// Characters of the joined text; what is written there is replaced by the author's choice.
    pub start: usize,
    pub end: usize,
    pub heard: String,
    /// What it must have been; the facts follow this.
    pub evident: String,
    pub because: String,
}

/// One sentence with what the passes made of it.
pub(super) struct Told<'t, 'a> {
    pub sentence: &'t Sentence,
    pub tagged: &'t Tagged<'a>,
    pub clauses: &'t [Clause],
}

pub(super) fn doubt(statements: &mut [Statement], told: &[Told<'_, '_>], hints: &Hints) {
    let mut undone: Vec<String> = Vec::new();
    for i in 0..statements.len() {
        let found = wrong_way(statements, i, &told[i], &undone)
            .or_else(|| impossible(statements, i, &told[i]))
            .or_else(|| not_lost(statements, i, &told[i]));
        if let Some((doubt, settle)) = found
            && !hints.written(doubt.start, doubt.end)
        {
            settle(&mut statements[i]);
            statements[i].because.push(format!("“{}” can hardly be: {}", doubt.heard, doubt.because));
            statements[i].doubts.push(doubt);
        }
        for c in &statements[i].facts.connectors {
            let Some(what) = c.what.clone() else { continue };
            match c.op {
                ConnectorOp::Disconnect => undone.push(what),
                ConnectorOp::Connect => undone.retain(|u| *u != what),
            }
        }
    }
}

type Settle = Box<dyn Fn(&mut Statement)>;

/// Words at a clause's place as the author will see them.
fn at(told: &Told<'_, '_>, from: usize, to: usize) -> (usize, usize, String) {
    let tokens = &told.sentence.tokens;
    (tokens[from].start, tokens[to - 1].end, told.tagged.said[from..to].join(" "))
}

/// Connecting what is connected, or parting what is apart.
fn wrong_way(statements: &[Statement], i: usize, told: &Told<'_, '_>, undone: &[String]) -> Option<(Doubt, Settle)> {
    let s = &statements[i];
    let clause =
        told.clauses.iter().find(|c| c.is_plain() && matches!(c.base, "connect" | "disconnect") && c.verb.is_some())?;
    let verb = clause.verb?;
    let fact = s.facts.connectors.first()?;
    let what = fact.what.clone()?;
    let tests = |s: &Statement| {
        let words = s.text.to_lowercase();
        s.kind == StatementKind::Test
            || ["test", "check", "try", "see if", "position", "power", "turn on", "yet", "again"]
                .iter()
                .any(|w| words.contains(w))
    };
    let taken_apart = statements[..i].iter().any(|s| {
        s.facts.parts.iter().any(|p| p.op == PartOp::Remove)
            || s.facts.fasteners.iter().any(|f| f.op == FastenerOp::Remove)
    });
    let near_test = statements[i..].iter().take(3).any(tests);
    let parted = undone.contains(&what);
    let from = clause.place(&["from"]).is_some_and(NounPhrase::known);
    let (evident, because) = match fact.op {
        ConnectorOp::Connect if !s.rebuild && !parted && taken_apart && !near_test => (
            "disconnect",
            if from {
                format!("“from” stands behind it, and the {what} was still connected")
            } else {
                format!("the {what} was still connected, and things are being taken apart")
            },
        ),
        ConnectorOp::Disconnect if s.rebuild && parted && !near_test => {
            ("connect", format!("the {what} was disconnected before, and things are being put together"))
        }
        _ => return None,
    };
    let op = if evident == "connect" { ConnectorOp::Connect } else { ConnectorOp::Disconnect };
    let (start, end, heard) = at(told, verb, verb + 1);
    let doubt = Doubt { start, end, heard, evident: evident.to_owned(), because };
    let settle = move |s: &mut Statement| {
        s.facts.connectors.iter_mut().for_each(|c| c.op = op);
        for act in s.facts.acts.iter_mut().filter(|a| matches!(a.act, Act::Connect | Act::Disconnect)) {
            act.act = if op == ConnectorOp::Connect { Act::Connect } else { Act::Disconnect };
        }
    };
    Some((doubt, Box::new(settle)))
}

/// "You cannot lift the lid off", told right after its last screw came out.
fn impossible(statements: &[Statement], i: usize, told: &Told<'_, '_>) -> Option<(Doubt, Settle)> {
    let t = told.tagged;
    let reasons =
        ["until", "unless", "yet", "before", "because", "without", "if", "otherwise", "since", "first", "as", "so"];
    if t.words.iter().any(|w| reasons.contains(w)) {
        return None;
    }
    let clause = told.clauses.iter().find(|c| {
        c.mood == Mood::Negated
            && matches!(c.act, Some(Act::Remove | Act::Open))
            && c.objects.iter().any(NounPhrase::known)
    })?;
    let verb = clause.verb?;
    let not = (clause.from..verb).find(|n| matches!(t.said[*n], "cannot" | "can't"))?;
    let part = clause.objects.iter().find(|o| o.known())?.text();
    let freed = i.checked_sub(1).map(|p| &statements[p]).filter(|p| {
        let screws = p.facts.fasteners.iter().any(|f| matches!(f.op, FastenerOp::Remove | FastenerOp::Loosen));
        screws || p.facts.acts.iter().any(|a| a.act == Act::Pry)
    })?;
    let (start, end, heard) = at(told, not, not + 1);
    let because = format!("what held the {part} was just undone: “{}”", freed.text);
    let doubt = Doubt { start, end, heard, evident: "can now".to_owned(), because };
    let settle = move |s: &mut Statement| {
        s.facts.parts.push(PartFact { op: PartOp::Remove, what: part.clone() });
        s.facts.cautions.clear();
        s.kind = StatementKind::Action;
    };
    Some((doubt, Box::new(settle)))
}

/// "Pull on the wires, they tear": nobody tells to do harm.
fn not_lost(statements: &[Statement], i: usize, told: &Told<'_, '_>) -> Option<(Doubt, Settle)> {
    const HARMFUL: [&str; 16] = [
        "pull",
        "yank",
        "force",
        "touch",
        "bend",
        "twist",
        "stab",
        "poke",
        "pinch",
        "squeeze",
        "lever",
        "overtighten",
        "mix",
        "fold",
        "scratch",
        "puncture",
    ];
    const GENTLY: [&str; 18] = [
        "slowly",
        "slow",
        "gently",
        "carefully",
        "careful",
        "straight",
        "only",
        "flat",
        "evenly",
        "low",
        "until",
        "by",
        "with",
        "not",
        "don't",
        "never",
        "up",
        "out",
    ];
    let t = told.tagged;
    let clause = told.clauses.first().filter(|c| c.is_plain() && c.subject.is_empty() && c.from == 0)?;
    let verb = clause.verb.filter(|v| HARMFUL.contains(&t.words[*v]) && *v < 3)?;
    let own = &t.words[clause.from..clause.to];
    let rest = &t.words[clause.to..];
    let harmed = named_hazard(own)?;
    let harm = LEXICON.harm.any(rest)?;
    let hedged = t.words.iter().any(|w| GENTLY.contains(w)) || rest.first().is_some_and(|w| matches!(*w, "so" | "and"));
    if hedged || statements[i].kind == StatementKind::Noise {
        return None;
    }
    let (start, end, heard) = at(told, verb, verb + 1);
    let evident = format!("don't {heard}");
    let because = format!("it is told right away what harm that does: “{harm}”");
    let settle = move |s: &mut Statement| {
        s.kind = StatementKind::Caution;
        s.facts.parts.clear();
        s.facts.connectors.clear();
        s.facts.acts.clear();
        if s.facts.cautions.is_empty() {
            s.facts.cautions.push(harmed);
        }
    };
    Some((Doubt { start, end, heard, evident, because }, Box::new(settle)))
}

#[cfg(test)]
mod tests {
    use super::super::{ConnectorOp, Statement, StatementKind, read};
    use crate::recording::Recording;
    use rstest::rstest;

    fn last(text: &str) -> Statement {
        read(&Recording::parse(text.as_bytes()).unwrap()).statements.pop().unwrap()
    }

    fn readings(s: &Statement) -> Vec<(&str, &str)> {
        s.doubts.iter().map(|d| (d.heard.as_str(), d.evident.as_str())).collect()
    }

    #[test]
    fn connecting_what_is_connected_is_doubted_and_the_facts_take_the_evident() {
        let s = last("[0:00] Remove the lid. Remove the shield.\n\n[0:20] Connect the fan cable from the main board.");
        assert_eq!(readings(&s), [("connect", "disconnect")]);
        assert_eq!(s.facts.connectors[0].op, ConnectorOp::Disconnect);
    }

    #[rstest]
    #[case("[0:00] Remove the lid.\n\n[0:20] Connect the fan cable to test it.")]
    #[case("[0:00] Unplug the fan cable.\n\n[0:20] Connect the fan cable.")]
    #[case("[0:00] Remove the lid.\n\n[0:20] Disconnect the fan cable.")]
    fn what_can_be_is_not_doubted(#[case] text: &str) {
        assert_eq!(readings(&last(text)), []);
    }

    #[test]
    fn what_is_free_can_be_lifted() {
        let s = last("[0:00] Remove the four screws of the lid. You cannot lift the lid off.");
        assert_eq!(readings(&s), [("cannot", "can now")]);
        assert_eq!(s.facts.parts[0].what, "lid");
        assert_eq!(s.kind, StatementKind::Action);
        let held = last("[0:00] Remove the four screws of the lid. You cannot lift the lid off because it is glued.");
        assert_eq!(readings(&held), []);
    }

    #[rstest]
    #[case("Pull on the wires, they tear.", true)]
    #[case("Do not pull on the wires, they tear.", false)]
    #[case("Pull the tab slowly, or it will tear.", false)]
    #[case("Touch the membrane, it tears.", true)]
    #[case("Press the latch, it may break.", false)]
    fn a_lost_not_is_seen_by_the_harm(#[case] text: &str, #[case] doubted: bool) {
        let s = last(text);
        assert_eq!(!s.doubts.is_empty(), doubted, "{s:?}");
        if doubted {
            assert_eq!(s.kind, StatementKind::Caution);
        }
    }
}
