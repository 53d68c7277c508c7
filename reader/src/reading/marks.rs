//! What an author wants to find again: words that only point, dead ends, refused tools, decisions, branches.
//!
//! A mark is no kind: an act may be told as a dead end, and then it is no step.

use super::clauses::{Clause, Mood};
use super::extract;
use super::lexicon::LEXICON;
use super::statements::StatementKind;
use super::tags::Tagged;
use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Why a statement is worth another look.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Mark {
    /// "This one here": only the picture says which.
    LookUp,
    /// Tried in vain, or an accident; never a step.
    DeadEnd,
    /// A tool that the narrator turns down.
    Rejected,
    /// What the narrator decides.
    Decision,
    /// What the narrator complains about.
    Complaint,
    /// "If it tears …": another way, for one case.
    Branch,
    /// Another way that does as well, or the one preferred.
    Alternative,
}

labels!(Mark {
    LookUp: "look it up",
    DeadEnd: "dead end",
    Rejected: "turned down",
    Decision: "decision",
    Complaint: "complaint",
    Branch: "if so",
    Alternative: "another way",
});

pub(super) fn marks(t: &Tagged<'_>, clauses: &[Clause], kind: StatementKind) -> Vec<Mark> {
    if kind == StatementKind::Noise {
        return Vec::new();
    }
    let words = &t.words;
    let mut out = Vec::new();
    let mut mark = |mark, is: bool| out.extend(is.then_some(mark));
    mark(Mark::LookUp, points(t));
    mark(Mark::DeadEnd, LEXICON.dead_end.any(words).is_some());
    mark(Mark::Rejected, rejects(t));
    mark(Mark::Decision, LEXICON.decisions.any(words).is_some());
    mark(Mark::Complaint, LEXICON.complaints.any(words).is_some());
    mark(Mark::Branch, branches(t, clauses));
    mark(Mark::Alternative, LEXICON.alternatives.any(words).is_some());
    out
}

/// It points, and names nothing that the pointing is about.
fn points(t: &Tagged<'_>) -> bool {
    let Some((at, len, ())) = LEXICON.pointing.all(&t.words).first().copied() else { return false };
    let around = &t.words[at.saturating_sub(4)..t.len().min(at + len + 3)];
    let named = (0..around.len()).any(|i| LEXICON.part_heads.at(around, i).is_some());
    !named || matches!(t.words[at], "like")
}

/// The tool turned down stands behind the refusal.
fn rejects(t: &Tagged<'_>) -> bool {
    LEXICON.rejected.all(&t.words).iter().any(|(at, len, ())| {
        let behind = &t.words[at + len..t.len().min(at + len + 5)];
        !extract::tools_named(behind).is_empty()
            || behind.iter().any(|w| matches!(*w, "screwdriver" | "metal" | "knife"))
    })
}

fn branches(t: &Tagged<'_>, clauses: &[Clause]) -> bool {
    let opens = t.words.first().is_some_and(|w| matches!(*w, "if" | "unless" | "should"));
    let case = clauses.first().is_some_and(|c| c.mood == Mood::Conditional || opens);
    let yours = t.words.iter().take(3).any(|w| matches!(*w, "you" | "somebody"));
    opens && case && !(yours && t.words.iter().take(6).any(|w| matches!(*w, "want" | "need" | "wanted" | "needed")))
}

#[cfg(test)]
mod tests {
    use super::super::read;
    use super::Mark::{self, *};
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case("Take this little guy out.", &[LookUp])]
    #[case("You pull this one here and that one there.", &[LookUp])]
    #[case("The battery sits right here.", &[])]
    #[case("Oops, I just broke that clip.", &[DeadEnd])]
    #[case("Do not use a knife here.", &[Rejected])]
    #[case("I'm gonna leave the fan in.", &[Decision])]
    #[case("The cell is soldered, unfortunately.", &[Complaint])]
    #[case("If the tab tears, put alcohol under the battery.", &[Branch])]
    #[case("If you want to change the fan, you have to take off the lid.", &[])]
    #[case("Alternatively, use a card.", &[Alternative])]
    #[case("Lift the lid off.", &[])]
    fn marks_what_is_worth_a_look(#[case] text: &str, #[case] wanted: &[Mark]) {
        let found = read(&Recording::parse(text.as_bytes()).unwrap()).statements.remove(0).marks;
        assert_eq!(found, wanted);
    }
}
