//! What a further recording of the same device adds to a manual.

use crate::manual::edits::refusal::Refusal;
use crate::manual::model::steps::rank_between;
use crate::manual::*;

/// Drafts a recording's steps behind those that a manual has; parts of the same name are the same parts.
///
/// # Errors
/// [`Refusal::Invalid`] where the draft cannot be put together, which would be a fault of this program.
pub fn draft_more(manual: &Manual, source: &Source<'_>) -> Result<Drafted, Refusal> {
    let more =
        draft(ManualId(source.recording.id.0), &manual.head.title, &manual.head.device, std::slice::from_ref(source));
    let mut drafted = Drafted {
        parts: more.parts.values().cloned().collect(),
        steps: Vec::new(),
        fasteners: more.fasteners.values().cloned().collect(),
        connectors: more.connectors.values().cloned().collect(),
        seams: more.seams.values().cloned().collect(),
        heats: more.heats.values().cloned().collect(),
        cautions: more.cautions.values().cloned().collect(),
    };
    for phase in [Phase::Teardown, Phase::Rebuild] {
        let mut last = manual.steps_in(phase).last().map(|s| s.rank.clone());
        for step in more.steps_in(phase) {
            let rank = rank_between(last.as_deref(), None);
            last = Some(rank.clone());
            drafted.steps.push(Step { rank, ..step.clone() });
        }
    }
    let known: Vec<(PartId, PartId)> = drafted
        .parts
        .iter()
        .filter_map(|p| {
            let twin = manual.parts.values().find(|k| k.name.eq_ignore_ascii_case(&p.name))?;
            Some((p.id, twin.id))
        })
        .collect();
    drafted.parts.retain(|p| known.iter().all(|(new, _)| *new != p.id));
    renamed(&drafted, &known)
}

/// The draft with the ids of parts that the manual already has. Ids stand in many fields; as text they are all alike.
fn renamed(drafted: &Drafted, known: &[(PartId, PartId)]) -> Result<Drafted, Refusal> {
    let fault = |e: serde_json::Error| Refusal::Invalid { field: "drafted", problem: e.to_string() };
    let text = serde_json::to_string(drafted).map_err(fault)?;
    let text = known.iter().fold(text, |text, (new, old)| text.replace(&new.to_string(), &old.to_string()));
    serde_json::from_str(&text).map_err(fault)
}
