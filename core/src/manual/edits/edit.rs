//! Every way to change a manual, nested by aspect, and the one function that does it.

use super::change::{self, Change};
use super::place::Touched;
use super::refusal::{MAX_TITLE, Refusal, note, text};
use super::sound::Sound;
use crate::manual::*;
use crate::units::TorqueUnit;

/// What the edits of every aspect know how to do.
pub(in crate::manual) trait Apply {
    /// Changes the manual in the author's name and says what was touched.
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal>;
}

macro_rules! edits {
    ($($aspect:ident($edit:ident),)+) => {
        /// One change an author asks for.
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum Edit {
            $($aspect($edit),)+
        }

        impl Apply for Edit {
            fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
                match self {
                    $(Self::$aspect(edit) => edit.apply(manual, author, touched),)+
                }
            }
        }
    };
}

edits! {
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
    Finding(FindingEdit),
}

/// Changes of the manual's head.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeadEdit {
    Title(String),
    Device(String),
    Weights(WeightsInSeconds),
    SecondUnit(Option<TorqueUnit>),
    /// The whole table; `None` takes it away.
    Scores(Option<Box<ScoreTable>>),
}

impl Apply for HeadEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        touched.add(Aspect::Head, manual.id.0);
        match self {
            Self::Title(title) => manual.head.title = text("title", title, MAX_TITLE)?,
            Self::Device(device) => manual.head.device = note("device", device, MAX_TITLE)?,
            Self::Weights(weights) => manual.head.weights = weights.checked()?,
            Self::SecondUnit(unit) => manual.head.second_unit = *unit,
            Self::Scores(table) => {
                table.as_deref().map_or(Ok(()), ScoreTable::checked)?;
                manual.head.scores = table.as_deref().cloned();
            }
        }
        Ok(())
    }
}

impl Sound for Head {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        check_names(&self.title, &self.device)?;
        self.weights.sound()?;
        self.scores.as_ref().map_or(Ok(()), ScoreTable::checked)?;
        manual.refers::<RecordingRef>("follows", self.follows)
    }
}

impl Manual {
    /// Applies an edit in the name of an author. Pure: the manual itself stays as it is.
    ///
    /// # Errors
    /// A [`Refusal`] that says what was wrong; nothing has changed then.
    pub fn apply(&self, edit: &Edit, author: &str) -> Result<(Manual, Change), Refusal> {
        let mut next = self.clone();
        let mut touched = Touched::default();
        edit.apply(&mut next, author, &mut touched)?;
        // A new name changes words everywhere and the meaning of none.
        if !matches!(edit, Edit::Part(PartEdit::Rename { .. })) {
            next.take_back_reviews(self, &mut touched);
        }
        next.check_touched(&touched)?;
        let change = change::compare(self, &mut next, &touched, author)?;
        Ok((next, change))
    }
}

/// A copy of a manual on which edits are tried one after another: the rows of a table are each judged at their row, and
/// the manual is copied once for all of them.
pub struct Trial(Manual);

impl Trial {
    pub fn of(manual: &Manual) -> Self {
        Self(manual.clone())
    }

    /// Tries one more edit.
    ///
    /// # Errors
    /// What [`Manual::apply`] would say. A part of a refused edit may stay on the copy, which nobody sees.
    pub fn accepts(&mut self, edit: &Edit) -> Result<(), Refusal> {
        let mut touched = Touched::default();
        edit.apply(&mut self.0, "", &mut touched)?;
        touched.iter().try_for_each(|(aspect, id)| self.0.check_entity(*aspect, *id))
    }
}
