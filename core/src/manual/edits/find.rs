//! Find and replace over all words of a manual.
//!
//! One walk visits every text that readers or authors see; finding and replacing share it, so that what is counted is
//! what is replaced.

use super::edit::Apply;
use super::place::Touched;
use super::refusal::{MAX_TEXT, MAX_TITLE, Refusal, note, text};
use crate::ids::*;
use crate::manual::{Action, Aspect, Manual, Phase, Roles, Step};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// What is looked for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Wanted {
    pub find: String,
    /// "Lid" is not "lid".
    #[serde(default)]
    pub match_case: bool,
    /// "lid" is not in "slide".
    #[serde(default)]
    pub whole_words: bool,
}

/// Changes of the words of the whole manual.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TextEdit {
    /// Everywhere, as one edit, undone at once.
    Replace { wanted: Wanted, with: String },
}

/// One text in which it was found.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct TextHit {
    pub aspect: Aspect,
    pub id: Uuid,
    /// "title", "sentence", "caution" …
    pub what: String,
    /// The step it stands in, where it stands in one.
    pub step: Option<StepId>,
    pub text: String,
    /// Where it was found, in characters of the text: start and end.
    pub at: Vec<[usize; 2]>,
}

/// Most characters looked for at once.
const MAX_WANTED: usize = 200;

/// A text with its place.
struct Spot<'a> {
    aspect: Aspect,
    id: Uuid,
    what: &'static str,
    step: Option<StepId>,
    longest: usize,
    may_be_empty: bool,
    text: &'a mut String,
}

impl Spot<'_> {
    fn may_be_empty(self) -> Self {
        Self { may_be_empty: true, ..self }
    }
}

/// A title of something in the manual, outside every step.
fn title<'a>(aspect: Aspect, id: Uuid, what: &'static str, text: &'a mut String) -> Spot<'a> {
    Spot { aspect, id, what, step: None, longest: MAX_TITLE, may_be_empty: false, text }
}

/// Running text of something in the manual, outside every step.
fn words<'a>(aspect: Aspect, id: Uuid, what: &'static str, text: &'a mut String) -> Spot<'a> {
    Spot { longest: MAX_TEXT, ..title(aspect, id, what, text) }
}

/// Visits every text, steps in their order first.
fn visit(manual: &mut Manual, mut seen: impl FnMut(Spot<'_>)) {
    let head = manual.id.0;
    seen(title(Aspect::Head, head, "title of the manual", &mut manual.head.title));
    seen(title(Aspect::Head, head, "device", &mut manual.head.device).may_be_empty());
    for id in manual.order() {
        let mut here = |spot: Spot<'_>| seen(Spot { step: Some(id), ..spot });
        visit_step(manual, id, &mut here);
        visit_beside_step(manual, id, &mut here);
    }
    visit_around(manual, &mut seen);
}

/// The texts of one step.
fn visit_step(manual: &mut Manual, id: StepId, seen: &mut impl FnMut(Spot<'_>)) {
    let Some(step) = manual.steps.get_mut(&id) else { return };
    if let Some(stage) = &mut step.stage {
        seen(title(Aspect::Steps, id.0, "stage", stage));
    }
    seen(title(Aspect::Steps, id.0, "title", &mut step.title));
    for text in step.actions.iter_mut().flat_map(Action::texts) {
        seen(words(Aspect::Steps, id.0, "sentence", text));
    }
    for branch in &mut step.branches {
        seen(words(Aspect::Steps, id.0, "branch", &mut branch.condition));
        seen(words(Aspect::Steps, id.0, "branch", &mut branch.advice).may_be_empty());
    }
    if let Some(note) = &mut step.note {
        seen(words(Aspect::Steps, id.0, "note", note));
    }
}

/// The texts of what hangs on one step.
fn visit_beside_step(manual: &mut Manual, id: StepId, seen: &mut impl FnMut(Spot<'_>)) {
    for c in manual.cautions.values_mut().filter(|c| c.step == id) {
        seen(words(Aspect::Cautions, c.id.0, "caution", &mut c.text));
    }
    for g in manual.fasteners.values_mut().filter(|g| g.step == id) {
        if let Some(note) = &mut g.note {
            seen(words(Aspect::Fasteners, g.id.0, "note of screws", note));
        }
    }
    for c in manual.connectors.values_mut().filter(|c| c.step == id) {
        for text in [&mut c.place, &mut c.opens, &mut c.makes, &mut c.tether, &mut c.note].into_iter().flatten() {
            seen(words(Aspect::Connectors, c.id.0, "connector", text));
        }
    }
    for s in manual.seams.values_mut().filter(|s| s.step == id) {
        let told = s.marks.iter_mut().map(|m| &mut m.landmark);
        for text in told.chain([&mut s.posture, &mut s.note]).flatten() {
            seen(words(Aspect::Seams, s.id.0, "seam", text));
        }
    }
}

/// The texts that stand in no step.
fn visit_around(manual: &mut Manual, seen: &mut impl FnMut(Spot<'_>)) {
    for part in manual.parts.values_mut() {
        seen(title(Aspect::Parts, part.id.0, "part", &mut part.name));
        for text in [&mut part.place, &mut part.about].into_iter().flatten() {
            seen(words(Aspect::Parts, part.id.0, "about a part", text));
        }
    }
    for n in manual.notes.values_mut() {
        seen(words(Aspect::Notes, n.id.0, "note around the work", &mut n.text));
    }
    for job in manual.jobs.values_mut() {
        seen(title(Aspect::Jobs, job.id.0, "title of a guide", &mut job.title));
        for (step, text) in &mut job.wording {
            seen(Spot { step: Some(*step), ..title(Aspect::Jobs, job.id.0, "title in a guide", text) });
        }
    }
    for v in manual.variants.values_mut() {
        seen(title(Aspect::Variants, v.id.0, "variant", &mut v.name));
        seen(title(Aspect::Variants, v.id.0, "variant", &mut v.how_to_tell));
    }
}

impl Wanted {
    fn check(&self) -> Result<(), Refusal> {
        text("find", &self.find, MAX_WANTED).map(drop)
    }

    /// Writes something else in its place, and says whether it stood there.
    fn put(&self, hay: &mut String, with: &str) -> bool {
        let places = self.places(hay);
        for place in places.iter().rev() {
            hay.replace_range(place.clone(), with);
        }
        !places.is_empty()
    }

    /// Where it stands in a text, in bytes; none inside another.
    fn places(&self, hay: &str) -> Vec<std::ops::Range<usize>> {
        let same = |a: char, b: char| a == b || (!self.match_case && a.to_lowercase().eq(b.to_lowercase()));
        let inside_word = |c: Option<char>| c.is_some_and(char::is_alphanumeric);
        let mut out: Vec<std::ops::Range<usize>> = Vec::new();
        for (at, _) in hay.char_indices() {
            if out.last().is_some_and(|last| at < last.end) {
                continue;
            }
            let mut rest = hay[at..].char_indices();
            let fits = self.find.chars().all(|w| rest.next().is_some_and(|(_, c)| same(c, w)));
            let end = rest.next().map_or(hay.len(), |(i, _)| at + i);
            let cuts = self.whole_words
                && (inside_word(hay[..at].chars().next_back()) || inside_word(hay[end..].chars().next()));
            if fits && !cuts {
                out.push(at..end);
            }
        }
        out
    }
}

impl Apply for TextEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let Self::Replace { wanted, with } = self;
        manual.replace(wanted, with, touched)
    }
}

impl Manual {
    /// Every text that holds what is wanted, in the order of the page.
    ///
    /// # Errors
    /// A [`Refusal`] where nothing, or far too much, is looked for.
    pub fn find(&self, wanted: &Wanted) -> Result<Vec<TextHit>, Refusal> {
        wanted.check()?;
        let mut out = Vec::new();
        visit(&mut self.spelt_out(), |spot| {
            let places = wanted.places(spot.text);
            if places.is_empty() {
                return;
            }
            let chars = |byte: usize| spot.text[..byte].chars().count();
            out.push(TextHit {
                aspect: spot.aspect,
                id: spot.id,
                what: spot.what.to_owned(),
                step: spot.step,
                at: places.iter().map(|p| [chars(p.start), chars(p.end)]).collect(),
                text: spot.text.clone(),
            });
        });
        Ok(out)
    }

    /// With every sentence as readers see it.
    fn spelt_out(&self) -> Manual {
        let mut shown = self.clone();
        for (id, step) in &mut shown.steps {
            for (action, here) in step.actions.iter_mut().zip(&self.steps[id].actions) {
                action.text = Some(self.sentence(here));
                action.roles = Roles::default();
            }
        }
        shown
    }

    fn replace(&mut self, wanted: &Wanted, with: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let found = self.find(wanted)?.len();
        let with = note("with", with, MAX_TEXT)?;
        let mut wrong = None;
        visit(self, |spot| {
            let places = wanted.places(spot.text);
            if places.is_empty() {
                return;
            }
            touched.add(spot.aspect, spot.id);
            wanted.put(spot.text, &with);
            let check = if spot.may_be_empty { note } else { text };
            if let Err(refusal) = check("with", spot.text, spot.longest) {
                wrong.get_or_insert((spot.what, refusal));
            }
        });
        if let Some((what, refusal)) = wrong {
            let problem = format!("One text cannot take it ({what}): {refusal}");
            return Err(Refusal::invalid("with", problem));
        }
        if found == 0 {
            let problem = format!("“{}” stands nowhere in this manual. Nothing was replaced.", wanted.find);
            return Err(Refusal::invalid("find", problem));
        }
        self.replace_in_worded(wanted, &with, touched)?;
        self.check_names_differ()
    }

    /// What no name and no role of a worded sentence took up is in its wording: the sentence gets words of its own.
    fn replace_in_worded(&mut self, wanted: &Wanted, with: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let still = |(step, a): (StepId, &Action)| {
            let mut words = self.sentence(a);
            wanted.put(&mut words, with).then_some((step, a.id, words))
        };
        let worded = self.steps.values().flat_map(|s| s.actions.iter().map(|a| (s.id, a)));
        let worded: Vec<_> = worded.filter(|(_, a)| a.text.is_none()).filter_map(still).collect();
        for (step, id, words) in worded {
            let step = self.change_entity::<Step>(step, touched)?;
            for action in step.actions.iter_mut().filter(|a| a.id == id) {
                action.text = Some(text("with", &words, MAX_TEXT)?);
            }
        }
        Ok(())
    }

    fn check_names_differ(&self) -> Result<(), Refusal> {
        let mut seen = std::collections::BTreeSet::new();
        match self.parts.values().find(|p| !seen.insert(p.name.to_lowercase())) {
            None => Ok(()),
            Some(p) => {
                let problem =
                    format!("Two parts would be called “{}” then. Choose words that tell them apart.", p.name);
                Err(Refusal::invalid("with", problem))
            }
        }
    }

    /// The title of the stage each teardown step stands in, in their order.
    pub fn stages(&self) -> Vec<(StepId, Option<&str>)> {
        let mut stage = None;
        let mut out = Vec::new();
        for step in self.steps_in(Phase::Teardown) {
            stage = step.stage.as_deref().or(stage);
            out.push((step.id, stage));
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, PartEdit, StepEdit, StepField};
    use rstest::{fixture, rstest};

    fn wanted(find: &str) -> Wanted {
        Wanted { find: find.to_owned(), match_case: false, whole_words: true }
    }

    #[fixture]
    fn manual() -> Manual {
        let step = StepId(Uuid::from_u128(7));
        let set = |field| Edit::Step(StepEdit::Set { id: step, field });
        let add = Edit::Step(StepEdit::Add {
            id: step,
            phase: Phase::Teardown,
            after: None,
            title: "Lift the lid".into(),
            actions: vec![],
        });
        let part =
            |n: u128, name: &str| Edit::Part(PartEdit::Add { id: PartId(Uuid::from_u128(n)), name: name.into() });
        let edits = [
            add,
            set(StepField::Note(Some("The Lid slides, it has no clips.".into()))),
            set(StepField::Stage(Some("Under the lid".into()))),
            part(1, "lid"),
            part(2, "cover"),
        ];
        edits.iter().fold(Manual::new(ManualId(Uuid::nil()), "Kettle", ""), |m, e| m.apply(e, "Ann").unwrap().0)
    }

    #[rstest]
    fn finds_every_text_in_the_order_of_the_page(manual: Manual) {
        let hits = manual.find(&wanted("lid")).unwrap();
        let found: Vec<(&str, &[[usize; 2]])> = hits.iter().map(|h| (h.what.as_str(), h.at.as_slice())).collect();
        assert_eq!(
            found,
            [("stage", &[[10, 13]][..]), ("title", &[[9, 12]][..]), ("note", &[[4, 7]][..]), ("part", &[[0, 3]][..])]
        );
    }

    #[rstest]
    #[case(true, false, 4)]
    #[case(false, false, 5)]
    #[case(false, true, 4)]
    fn case_and_words_narrow_it(
        manual: Manual,
        #[case] match_case: bool,
        #[case] whole_words: bool,
        #[case] hits: usize,
    ) {
        let hits_found = manual.find(&Wanted { find: "lid".into(), match_case, whole_words }).unwrap();
        assert_eq!(hits_found.iter().map(|h| h.at.len()).sum::<usize>(), hits, "{hits_found:?}");
    }

    #[rstest]
    fn replaces_all_at_once_and_comes_back_at_once(manual: Manual) {
        let edit = Edit::Text(TextEdit::Replace { wanted: wanted("lid"), with: "top".into() });
        let (after, change) = manual.apply(&edit, "Ann").unwrap();
        assert_eq!(after.find(&wanted("top")).unwrap().len(), 4);
        let mut back = after.revert(&change).unwrap().0;
        back.authored.clone_from(&manual.authored);
        assert_eq!(back, manual);
    }

    #[rstest]
    #[case("lid", "cover", "Two parts would be called “cover”")]
    #[case("lid", "", "One text cannot take it")]
    #[case("nowhere", "x", "stands nowhere")]
    #[case("", "x", "Nothing is written here")]
    fn what_cannot_be_says_why(manual: Manual, #[case] find: &str, #[case] with: &str, #[case] says: &str) {
        let edit = Edit::Text(TextEdit::Replace { wanted: wanted(find), with: with.into() });
        let refused = manual.apply(&edit, "Ann").unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }
}
