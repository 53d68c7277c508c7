//! Every way to change a manual, nested by aspect, and the one function that does it.

use super::change::{self, Aspect, Change, Refusal, Touched, text};
use super::steps::LONGEST_TITLE;
use super::*;

/// Changes of the manual's head.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeadEdit {
    Title(String),
    Device(String),
    Weights(WeightsInSeconds),
}

/// One change an author asks for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edit {
    Head(HeadEdit),
    Step(StepEdit),
    Part(PartEdit),
    Fastener(FastenerEdit),
    Connector(ConnectorEdit),
    Seam(SeamEdit),
    Heat(HeatEdit),
    Caution(CautionEdit),
    Reading(ReadingEdit),
    Recording(RecordingEdit),
    Job(JobEdit),
    Variant(VariantEdit),
    Requirement(RequirementEdit),
    Note(NoteEdit),
    Kit(KitEdit),
    Text(TextEdit),
    Layer(LayerEdit),
    Hole(HoleEdit),
}

impl Manual {
    /// Applies an edit in the name of an author. Pure: the manual itself stays as it is.
    ///
    /// # Errors
    /// A [`Refusal`] that says what was wrong; nothing has changed then.
    pub fn apply(&self, edit: &Edit, author: &str) -> Result<(Manual, Change), Refusal> {
        let mut next = self.clone();
        let mut touched = Touched::default();
        match edit {
            Edit::Head(edit) => {
                touched.add(Aspect::Head, self.id.0);
                match edit {
                    HeadEdit::Title(title) => next.head.title = text("title", title, LONGEST_TITLE)?,
                    HeadEdit::Device(device) => next.head.device = change::note("device", device, LONGEST_TITLE)?,
                    HeadEdit::Weights(weights) => next.head.weights = weights.checked()?,
                }
            }
            Edit::Step(edit) => next.edit_step(edit, author, &mut touched)?,
            Edit::Part(edit) => next.edit_part(edit, &mut touched)?,
            Edit::Fastener(edit) => next.edit_fastener(edit, author, &mut touched)?,
            Edit::Connector(edit) => next.edit_connector(edit, author, &mut touched)?,
            Edit::Seam(edit) => next.edit_seam(edit, author, &mut touched)?,
            Edit::Heat(edit) => next.edit_heat(edit, author, &mut touched)?,
            Edit::Caution(edit) => next.edit_caution(edit, author, &mut touched)?,
            Edit::Reading(edit) => next.edit_reading(edit, &mut touched)?,
            Edit::Recording(edit) => next.edit_recording(edit, &mut touched)?,
            Edit::Job(edit) => next.edit_job(edit, &mut touched)?,
            Edit::Variant(edit) => next.edit_variant(edit, &mut touched)?,
            Edit::Requirement(edit) => next.edit_requirement(edit, author, &mut touched)?,
            Edit::Note(edit) => next.edit_note(edit, author, &mut touched)?,
            Edit::Kit(edit) => next.edit_kit(edit, author, &mut touched)?,
            Edit::Layer(edit) => next.edit_layer(edit, &mut touched)?,
            Edit::Hole(edit) => next.edit_holes(edit, &mut touched)?,
            Edit::Text(edit) => next.edit_text(edit, &mut touched)?,
        }
        let change = change::compare(self, &mut next, &touched, author);
        Ok((next, change))
    }
}
