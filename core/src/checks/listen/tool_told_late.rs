//! A tool or material is used that was not on the list.

use super::Clash;
use crate::checks::steps::same_tool;
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::ids::ToolId;
use crate::manual::{Edit, KitEdit};
use crate::reading::Drive;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ToolToldLate,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers stand before an open device and have to go and look for it.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let missing = named(clash).into_iter().filter(|name| !lies_out(clash, name));
    let lay_out = |name: String| {
        // The same tool has the same id, wherever it is put on the list.
        let id = ToolId(Uuid::new_v5(&clash.manual.id.0, name.as_bytes()));
        Fix::new(format!("Put the {name} on the list"), Edit::Kit(KitEdit::LayOut { id, name }))
    };
    missing.map(lay_out).chain([clash.settle("Leave it off the list")]).collect()
}

/// Whether all that the contradiction names lies on the list.
pub(super) fn is_listed(clash: &Clash<'_>) -> bool {
    let named = named(clash);
    !named.is_empty() && named.iter().all(|name| lies_out(clash, name))
}

/// What is used, by the names of the tool list.
fn named(clash: &Clash<'_>) -> Vec<String> {
    clash.found.names.iter().map(|name| Drive::tool_words(name)).collect()
}

fn lies_out(clash: &Clash<'_>, name: &str) -> bool {
    clash.manual.kit.values().any(|t| same_tool(name, &t.name))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::findings;
    use crate::checks::listen::written::{check, manual_and_reading};
    use crate::manual::{House, Manual};
    use rstest::rstest;

    #[rstest]
    #[case::a_tool("Pull the flex out with tweezers.", "tweezers", "tweezers")]
    #[case::by_the_name_of_the_list(
        "Undo the clamp, that's two screws, flat blade.",
        "slotted screwdriver",
        "SL slot screwdriver"
    )]
    #[case::a_material("Clean the rim with isopropyl alcohol.", "isopropyl alcohol", "isopropyl alcohol")]
    fn what_is_used_comes_as_a_surprise(#[case] said: &str, #[case] used: &str, #[case] listed: &str) {
        let text = format!(
            "You need a spudger and a PH1 screwdriver.
            Remove four PH1 screws from the base plate. Lever the base plate off with the spudger.
            {said}
            ~~~ Used here, and not in the list of tools and materials: {used}. [Put the {listed} on the list | Leave it off the list]"
        );
        check(&RULE, &text);
    }

    /// "I forgot to say that you need tweezers", said where they are on the list by now.
    #[test]
    fn what_is_listed_is_no_surprise() {
        let said = "[0:00] You need a spudger and a PH1 screwdriver.\n\n[0:10] Remove four PH1 screws from the base plate.\n\n\
                    [0:20] Lever the base plate off with the spudger.\n\n[0:30] Pull the flex out with tweezers.";
        let (manual, read) = manual_and_reading(said);
        let late = |m: &Manual| findings(m, &read, &House::default()).into_iter().find(|f| f.rule == RULE.id);
        let listed = manual.apply(&late(&manual).expect("tweezers").fixes[0].edit, "Ann").expect("a tool").0;
        assert!(late(&listed).is_none());
        assert!(listed.kit.values().any(|t| t.name == "tweezers"));
    }
}
