//! Tools: what the narrator lays out before the work, and what a step may be done with.
//!
//! The tool list of a guide follows from its steps. What was laid out stands beside it, so that a tool nobody uses and a
//! tool nobody was told of can be seen.

use crate::ids::*;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, maybe_text, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A tool or material that is laid out at the start.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LaidOut {
    pub id: ToolId,
    pub name: String,
    /// How much of it: "5 ml", "20 cm, 3 mm wide".
    #[serde(default)]
    pub amount: Option<String>,
    pub evidence: Vec<Evidence>,
}

/// Any of several tools does; one of them may be the best.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ToolChoice {
    pub any_of: Vec<String>,
    /// One of them.
    pub preferred: Option<String>,
    pub why: Option<String>,
}

impl ToolChoice {
    /// For readers: "spudger or pick (best: pick, it is thinner)".
    pub fn words(&self) -> String {
        let all = self.any_of.join(" or ");
        match (&self.preferred, &self.why) {
            (Some(best), Some(why)) => format!("{all} (best: {best}, {why})"),
            (Some(best), None) => format!("{all} (best: {best})"),
            (None, Some(why)) => format!("{all} ({why})"),
            (None, None) => all,
        }
    }
}

/// Changes of what is laid out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum KitEdit {
    LayOut { id: ToolId, name: String },
    PutAway { id: ToolId },
    Amount { id: ToolId, amount: Option<String> },
}

impl Apply for KitEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::LayOut { id, name } => {
                manual.must_be_new::<LaidOut>(*id)?;
                let name = text("name", name, MAX_TITLE)?;
                if manual.kit.values().any(|t| t.name.eq_ignore_ascii_case(&name)) {
                    let problem = format!("“{name}” is on the list already. Write another tool.");
                    return Err(Refusal::invalid("name", problem));
                }
                let evidence = vec![Evidence::author(author)];
                manual.put_entity(LaidOut { id: *id, name, amount: None, evidence }, touched);
            }
            Self::Amount { id, amount } => {
                let amount = maybe_text("amount", amount, MAX_TITLE)?;
                manual.change_entity::<LaidOut>(*id, touched)?.amount = amount;
            }
            Self::PutAway { id } => drop(manual.take_entity::<LaidOut>(*id, touched)?),
        }
        Ok(())
    }
}

impl ToolChoice {
    /// As it is kept: at least two different tools, the best one among them.
    pub(in crate::manual) fn checked(&self) -> Result<Self, Refusal> {
        let mut any_of: Vec<String> = Vec::new();
        for tool in &self.any_of {
            let tool = text("choices", tool, MAX_TITLE)?;
            if !any_of.iter().any(|t| t.eq_ignore_ascii_case(&tool)) {
                any_of.push(tool);
            }
        }
        if any_of.len() < 2 {
            let problem = "A choice has at least two tools. A tool without another stands among the tools.";
            return Err(Refusal::invalid("choices", problem));
        }
        if let Some(best) = self.preferred.as_ref().filter(|best| !any_of.contains(best)) {
            let problem = format!("“{best}” is none of the tools to choose from. Name one of them as the best.");
            return Err(Refusal::invalid("choices", problem));
        }
        Ok(Self { any_of, preferred: self.preferred.clone(), why: maybe_text("choices", &self.why, MAX_TEXT)? })
    }
}

impl Sound for LaidOut {
    fn sound(&self, _: &Manual) -> Result<(), Refusal> {
        text("name", &self.name, MAX_TITLE).map(drop)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn choice(any_of: &[&str], preferred: Option<&str>) -> ToolChoice {
        ToolChoice {
            any_of: any_of.iter().map(|t| (*t).to_owned()).collect(),
            preferred: preferred.map(str::to_owned),
            why: None,
        }
    }

    #[rstest]
    #[case(&["spudger", " pick "], Some("pick"), "spudger or pick (best: pick)")]
    #[case(&["spudger", "pick", "Pick"], None, "spudger or pick")]
    fn a_choice_reads_well(#[case] any_of: &[&str], #[case] best: Option<&str>, #[case] words: &str) {
        assert_eq!(choice(any_of, best).checked().unwrap().words(), words);
    }

    #[rstest]
    #[case(&["spudger"], None, "at least two")]
    #[case(&["spudger", "spudger"], None, "at least two")]
    #[case(&["spudger", "pick"], Some("oven"), "“oven” is none")]
    fn a_bad_choice_says_why(#[case] any_of: &[&str], #[case] best: Option<&str>, #[case] says: &str) {
        let refused = choice(any_of, best).checked().unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }
}
