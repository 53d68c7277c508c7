//! Tools: what the narrator lays out before the work, and what a step may be done with.
//!
//! The tool list of a guide follows from its steps. What was laid out stands beside it, so that a tool nobody uses and a
//! tool nobody was told of can be seen.

use super::change::{Aspect, Refusal, Touched, note, text};
use super::steps::{LONGEST_TEXT, LONGEST_TITLE};
use super::{Evidence, Manual};
use crate::ids::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A tool or material that is laid out at the start.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LaidOut {
    pub id: ToolId,
    pub name: String,
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
}

impl Manual {
    pub(super) fn edit_kit(&mut self, edit: &KitEdit, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            KitEdit::LayOut { id, name } => {
                if self.kit.contains_key(id) {
                    return Err(Refusal::Exists { what: "tool", id: id.0 });
                }
                let name = text("name", name, LONGEST_TITLE)?;
                if self.kit.values().any(|t| t.name.eq_ignore_ascii_case(&name)) {
                    let problem = format!("“{name}” is laid out already. Write another tool.");
                    return Err(Refusal::Invalid { field: "name", problem });
                }
                touched.add(Aspect::Kit, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                self.kit.insert(*id, LaidOut { id: *id, name, evidence });
            }
            KitEdit::PutAway { id } => {
                touched.add(Aspect::Kit, id.0);
                self.kit.remove(id).ok_or(Refusal::Gone { what: "tool", id: id.0 })?;
            }
        }
        Ok(())
    }
}

/// A choice as it is kept: at least two different tools, the best one among them.
pub(super) fn checked(choice: &ToolChoice) -> Result<ToolChoice, Refusal> {
    let invalid = |problem: String| Err(Refusal::Invalid { field: "choices", problem });
    let mut any_of: Vec<String> = Vec::new();
    for tool in &choice.any_of {
        let tool = text("choices", tool, LONGEST_TITLE)?;
        if !any_of.iter().any(|t| t.eq_ignore_ascii_case(&tool)) {
            any_of.push(tool);
        }
    }
    if any_of.len() < 2 {
        return invalid("A choice has at least two tools. A tool without another stands among the tools.".to_owned());
    }
    if let Some(best) = choice.preferred.as_ref().filter(|best| !any_of.contains(best)) {
        return invalid(format!("“{best}” is none of the tools to choose from. Name one of them as the best."));
    }
    let why = choice.why.as_deref().map(|w| note("choices", w, LONGEST_TEXT)).transpose()?;
    Ok(ToolChoice { any_of, preferred: choice.preferred.clone(), why: why.filter(|w| !w.is_empty()) })
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
        assert_eq!(checked(&choice(any_of, best)).unwrap().words(), words);
    }

    #[rstest]
    #[case(&["spudger"], None, "at least two")]
    #[case(&["spudger", "spudger"], None, "at least two")]
    #[case(&["spudger", "pick"], Some("oven"), "“oven” is none")]
    fn a_bad_choice_says_why(#[case] any_of: &[&str], #[case] best: Option<&str>, #[case] says: &str) {
        let refused = checked(&choice(any_of, best)).unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }
}
