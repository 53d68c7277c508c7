//! Rules that judge what a narrator does, tried on a few spoken sentences.

use super::findings;
use crate::finding::Rule;
pub use crate::manual::drafted::manual;

/// Drafts a manual and holds what the rule says of it against `wanted`.
pub fn check(rule: &Rule, text: &str, wanted: &[&str]) {
    let manual = manual(text);
    let found = findings(&manual);
    let said: Vec<&str> = found.iter().filter(|f| f.rule == rule.id).map(|f| f.says.as_str()).collect();
    let titles: Vec<&str> = manual.steps_in(crate::manual::Phase::Teardown).iter().map(|s| s.title.as_str()).collect();
    assert_eq!(said, wanted, "of the steps {titles:?}");
}
