//! Parts: what the device is made of, named once and used everywhere.

use crate::ids::*;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, maybe_text, text};
use crate::manual::edits::sound::Sound;
use crate::manual::model::supply::{RatingLabel, Replacement};
use crate::manual::{Action, Aspect, Evidence, Manual, Variant};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use utoipa::ToSchema;

/// One part of the device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Part {
    pub id: PartId,
    pub name: String,
    /// As the reader named it, where an author calls it otherwise.
    #[serde(default)]
    pub heard_as: Option<String>,
    /// The part it sits inside.
    pub inside: Option<PartId>,
    /// The battery or another source of power: disconnected first, connected last.
    pub power_source: bool,
    /// Opening it destroys it: a seal, an adhesive, a rivet.
    #[serde(default)]
    pub single_use: bool,
    /// The maker's number on the fitted one.
    pub number: Option<String>,
    /// Where in the device it sits.
    #[serde(default)]
    pub place: Option<String>,
    /// What it is: "controller for the pump".
    #[serde(default)]
    pub about: Option<String>,
    /// What carries its heat away.
    #[serde(default)]
    pub cooled_by: Option<String>,
    /// What the label of the fitted one says.
    #[serde(default)]
    pub fitted: RatingLabel,
    /// What to order in its place.
    #[serde(default)]
    pub replacement: Option<Replacement>,
    /// Empty: in all variants.
    #[serde(default)]
    pub variants: Vec<VariantId>,
    pub evidence: Vec<Evidence>,
}

impl Part {
    /// A part of which only the name and its source are known.
    pub fn new(id: PartId, name: String, evidence: Vec<Evidence>) -> Self {
        Self {
            id,
            name,
            heard_as: None,
            inside: None,
            power_source: false,
            single_use: false,
            number: None,
            place: None,
            about: None,
            cooled_by: None,
            fitted: RatingLabel::default(),
            replacement: None,
            variants: Vec::new(),
            evidence,
        }
    }
}

/// One field of a part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartField {
    Inside(Option<PartId>),
    PowerSource(bool),
    SingleUse(bool),
    Number(Option<String>),
    Place(Option<String>),
    About(Option<String>),
    CooledBy(Option<String>),
    Fitted(RatingLabel),
    Replacement(Option<Replacement>),
    Variants(Vec<VariantId>),
}

/// Changes of parts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartEdit {
    Add {
        id: PartId,
        name: String,
    },
    /// Also in every title, sentence, note and caution that speaks of it by its old name.
    Rename {
        id: PartId,
        name: String,
    },
    Set {
        id: PartId,
        field: PartField,
    },
    /// Refused while something still refers to it.
    Remove {
        id: PartId,
    },
    /// Two names of one thing: whatever refers to `id` refers to `into`, which keeps its name; `id` is gone.
    Merge {
        id: PartId,
        into: PartId,
    },
}

impl Apply for PartEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, name } => {
                manual.must_be_new::<Part>(*id)?;
                let name = manual.free_name(*id, name)?;
                manual.put_entity(Part::new(*id, name, Vec::new()), touched);
            }
            Self::Rename { id, name } => manual.rename_part(*id, name, touched)?,
            Self::Set { id, field } => {
                match field {
                    PartField::Inside(Some(outer)) => manual.check_inside(*id, *outer)?,
                    PartField::Variants(variants) => manual.must_all_be_there::<Variant>(variants)?,
                    _ => {}
                }
                set_field(manual.change_entity::<Part>(*id, touched)?, field)?;
            }
            Self::Remove { id } => {
                if let Some(user) = manual.user_of(*id) {
                    let problem = format!("The part is still used by {user}. Take it out there first.");
                    return Err(Refusal::invalid("part", problem));
                }
                manual.take_entity::<Part>(*id, touched)?;
            }
            Self::Merge { id, into } => manual.merge_parts(*id, *into, touched)?,
        }
        Ok(())
    }
}

fn set_field(part: &mut Part, field: &PartField) -> Result<(), Refusal> {
    match field {
        PartField::Inside(outer) => part.inside = *outer,
        PartField::PowerSource(source) => part.power_source = *source,
        PartField::SingleUse(once) => part.single_use = *once,
        PartField::Number(value) => part.number = maybe_text("number", value, MAX_TEXT)?,
        PartField::Place(value) => part.place = maybe_text("place", value, MAX_TEXT)?,
        PartField::About(value) => part.about = maybe_text("about", value, MAX_TEXT)?,
        PartField::CooledBy(value) => part.cooled_by = maybe_text("cooled_by", value, MAX_TEXT)?,
        PartField::Fitted(label) => part.fitted = label.checked("fitted")?,
        PartField::Replacement(new) => part.replacement = new.as_ref().map(Replacement::checked).transpose()?,
        PartField::Variants(variants) => part.variants.clone_from(variants),
    }
    Ok(())
}

impl Manual {
    fn free_name(&self, id: PartId, name: &str) -> Result<String, Refusal> {
        let name = text("name", name, MAX_TITLE)?;
        let taken = self.parts.values().any(|p| p.id != id && p.name.eq_ignore_ascii_case(&name));
        if taken {
            let problem = format!("Another part is called “{name}” already. Choose a name that tells them apart.");
            return Err(Refusal::invalid("name", problem));
        }
        Ok(name)
    }

    pub(in crate::manual) fn check_inside(&self, id: PartId, outer: PartId) -> Result<(), Refusal> {
        let mut at = Some(outer);
        while let Some(part) = at {
            if part == id {
                let problem = "A part cannot sit inside itself or inside what it holds.";
                return Err(Refusal::invalid("inside", problem));
            }
            at = self.must_be_there::<Part>(part)?.inside;
        }
        Ok(())
    }

    pub(crate) fn user_of(&self, id: PartId) -> Option<String> {
        if let Some(step) = self.steps.values().find(|s| s.actions.iter().any(|a| a.parts.contains(&id))) {
            return Some(format!("the step “{}”", step.title));
        }
        if self.fasteners.values().any(|g| g.holds.contains(&id) || g.waits_for == Some(id)) {
            return Some("a group of screws".to_owned());
        }
        if self.connectors.values().any(|c| c.serves == Some(id) || c.on == Some(id)) {
            return Some("a connector".to_owned());
        }
        if self.heats.values().any(|h| h.target == Some(id)) || self.seams.values().any(|s| s.names(id)) {
            return Some("a seam or its heat".to_owned());
        }
        if let Some(job) = self.jobs.values().find(|j| j.targets.contains(&id)) {
            return Some(format!("the guide “{}”", job.title));
        }
        self.parts.values().find(|p| p.inside == Some(id)).map(|p| format!("the part “{}” inside it", p.name))
    }

    fn rename_part(&mut self, id: PartId, name: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let name = self.free_name(id, name)?;
        let part = self.change_entity::<Part>(id, touched)?;
        let old = std::mem::replace(&mut part.name, name.clone());
        if part.heard_as.is_none() && part.evidence.iter().any(|e| matches!(e, Evidence::Recording { .. })) {
            part.heard_as = Some(old.clone());
        }
        self.rename_words(&old, &name, touched);
        Ok(())
    }

    /// Most sentences are worded from the part itself, so few texts change; only these are written down.
    fn rename_words(&mut self, old: &str, name: &str, touched: &mut Touched) {
        for step in self.steps.values_mut() {
            let texts = std::iter::once(&mut step.title).chain(&mut step.note);
            if rename_all(texts.chain(step.actions.iter_mut().flat_map(Action::texts)), old, name) {
                touched.add(Aspect::Steps, step.id.0);
            }
        }
        for caution in self.cautions.values_mut() {
            if rename_all(std::iter::once(&mut caution.text), old, name) {
                touched.add(Aspect::Cautions, caution.id.0);
            }
        }
    }

    fn merge_parts(&mut self, id: PartId, into: PartId, touched: &mut Touched) -> Result<(), Refusal> {
        if id == into {
            return Err(Refusal::invalid("into", "This is the part itself. Choose the other name of it."));
        }
        let gone = self.must_be_there::<Part>(id)?.clone();
        // The kept part may sit inside the other one, which it is.
        let kept = self.change_entity::<Part>(into, touched)?;
        if kept.inside == Some(id) {
            kept.inside = gone.inside;
        }
        self.take_entity::<Part>(id, touched)?;
        self.refer_to(id.0, into.0, touched)?;
        let kept = self.change_entity::<Part>(into, touched)?;
        kept.power_source |= gone.power_source;
        kept.single_use |= gone.single_use;
        kept.number = kept.number.take().or(gone.number);
        kept.place = kept.place.take().or(gone.place);
        kept.about = kept.about.take().or(gone.about);
        kept.cooled_by = kept.cooled_by.take().or(gone.cooled_by);
        kept.replacement = kept.replacement.take().or(gone.replacement);
        if kept.fitted == RatingLabel::default() {
            kept.fitted = gone.fitted;
        }
        kept.evidence.extend(gone.evidence);
        let (name, inside) = (kept.name.clone(), kept.inside);
        if let Some(outer) = inside {
            self.check_inside(into, outer)?;
        }
        self.rename_words(&gone.name, &name, touched);
        Ok(())
    }
}

/// Renames in every text, and says whether one changed.
fn rename_all<'a>(texts: impl Iterator<Item = &'a mut String>, old: &str, new: &str) -> bool {
    let mut changed = false;
    for text in texts {
        let renamed = rename_in(text, old, new);
        changed |= renamed != *text;
        *text = renamed;
    }
    changed
}

/// Replaces whole words, whatever their case; a capital at the start stays one. Where the new name stands already nothing
/// happens, several of the old one become several of the new one, and "a" or "an" before it goes with the new one.
pub(crate) fn rename_in(sentence: &str, old: &str, new: &str) -> String {
    let (hay, needle) = (sentence.to_lowercase(), old.to_lowercase());
    // Lower-casing may change lengths outside ASCII; then only exact matches are safe.
    if hay.len() != sentence.len() || needle.is_empty() {
        return sentence.replace(old, new);
    }
    let wanted = new.to_lowercase();
    // "sheet" inside "insulating sheet", where that is the new name.
    let before = wanted.find(&needle).unwrap_or(0);
    let stands = |at: usize| {
        // Counted back in bytes: that may end inside a letter of another word.
        let around = at.checked_sub(before).and_then(|from| hay.get(from..));
        wanted.len() > needle.len() && around.is_some_and(|text| text.starts_with(&wanted))
    };
    let mut out = String::with_capacity(sentence.len());
    let mut rest = 0;
    for (at, _) in hay.match_indices(&needle) {
        let (end, several) = whole_word(sentence, at, &needle);
        let Some(end) = end.filter(|_| at >= rest && !stands(at)) else { continue };
        out.push_str(&sentence[rest..at]);
        let new = if several && !is_plural(new) { Cow::Owned(plural(new)) } else { Cow::Borrowed(new) };
        fit_article(&mut out, &new);
        let capital = sentence[at..].starts_with(char::is_uppercase) && old.starts_with(char::is_lowercase)
            || out.is_empty() && sentence.starts_with(char::is_uppercase);
        out.push_str(&if capital { capitalised(&new) } else { new.into_owned() });
        rest = end;
    }
    out.push_str(&sentence[rest..]);
    out
}

/// Where the word ends that begins at `at` with so many letters, and whether it stands in the plural; no end inside another
/// word.
fn whole_word(sentence: &str, at: usize, word: &str) -> (Option<usize>, bool) {
    let letters = word.len();
    let in_word = |c: char| c.is_alphanumeric();
    if sentence[..at].ends_with(in_word) {
        return (None, false);
    }
    let rest = &sentence[at + letters..];
    if !rest.starts_with(in_word) {
        return (Some(at + letters), false);
    }
    let ending = &plural(word)[letters..];
    let ends = rest.strip_prefix(ending).is_some_and(|r| !r.starts_with(in_word));
    (ends.then_some(at + letters + ending.len()), true)
}

/// Whether a name tells of several: "catches", not "glass".
pub fn is_plural(name: &str) -> bool {
    name.ends_with('s') && !name.ends_with("ss")
}

fn plural(name: &str) -> String {
    match name {
        n if ["s", "x", "ch", "sh"].iter().any(|end| n.ends_with(end)) => format!("{n}es"),
        n => format!("{n}s"),
    }
}

/// The article that the text ends with: "an" before a vowel, none before several.
fn fit_article(text: &mut String, name: &str) {
    let Some(word) = ["an ", "a "].into_iter().find(|a| text.to_ascii_lowercase().ends_with(a)) else { return };
    let at = text.len() - word.len();
    if text[..at].ends_with(char::is_alphanumeric) {
        return;
    }
    let capital = text[at..].starts_with('A');
    text.truncate(at);
    if is_plural(name) {
        return;
    }
    let article = if name.to_lowercase().starts_with(['a', 'e', 'i', 'o', 'u']) { "an " } else { "a " };
    text.push_str(&if capital { capitalised(article) } else { article.to_owned() });
}

pub fn capitalised(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or(String::new(), |c| c.to_uppercase().chain(chars).collect())
}

impl Sound for Part {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        text("name", &self.name, MAX_TITLE)?;
        manual.refers::<Part>("inside", self.inside)?;
        manual.refers::<Variant>("variants", self.variants.iter().copied())?;
        self.fitted.checked("fitted")?;
        self.replacement.as_ref().map(Replacement::checked).transpose()?;
        self.inside.map_or(Ok(()), |outer| manual.check_inside(self.id, outer))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Lift the lid.", "lid", "cover", "Lift the cover.")]
    #[case("Lid off, then slide it.", "lid", "cover", "Cover off, then slide it.")]
    #[case("The lids of the lid", "lid", "cover", "The covers of the cover")]
    #[case("The lidless base", "lid", "cover", "The lidless base")]
    #[case("Lift the sheet.", "sheet", "insulating sheet", "Lift the insulating sheet.")]
    #[case("Lift the insulating sheet.", "sheet", "insulating sheet", "Lift the insulating sheet.")]
    #[case("Put a knob on the shaft.", "knob", "knobs", "Put knobs on the shaft.")]
    #[case("A lid holds an arm.", "lid", "inner cover", "An inner cover holds an arm.")]
    #[case("Clean an arm.", "arm", "lever", "Clean a lever.")]
    #[case("Brush both knobs.", "knob", "switch", "Brush both switches.")]
    #[case("Fit the pines.", "pin", "post", "Fit the pines.")]
    #[case("Lift the switches.", "switch", "key", "Lift the keys.")]
    #[case("xüüü lid", "lid", "glass lid", "xüüü glass lid")]
    #[case("A knob turns.", "knob", "knobs", "Knobs turns.")]
    #[case("ÄLid İlid lid", "lid", "cover", "ÄLid İcover cover")]
    fn renames_whole_words(#[case] sentence: &str, #[case] old: &str, #[case] new: &str, #[case] wanted: &str) {
        assert_eq!(rename_in(sentence, old, new), wanted);
    }

    use crate::manual::drafted;
    use crate::manual::{Edit, JobEdit, Manual};
    use uuid::Uuid;

    const FAN: &str = "Undo the two screws of the fan. Disconnect the fan cable. Remove the fan. Clean the blower. \
                       Remove the tray.";

    fn part(manual: &Manual, name: &str) -> PartId {
        manual.parts.values().find(|p| p.name == name).unwrap_or_else(|| panic!("no {name}")).id
    }

    fn applied(manual: &Manual, edit: Edit) -> Result<Manual, Refusal> {
        manual.apply(&edit, "Ann").map(|(m, _)| m)
    }

    #[test]
    fn two_names_of_one_thing_become_one_everywhere() {
        let m = drafted::manual(FAN);
        let (fan, tray) = (part(&m, "fan"), part(&m, "tray"));
        let inside = PartEdit::Set { id: fan, field: PartField::Inside(Some(tray)) };
        let m = applied(&m, Edit::Part(inside)).unwrap();
        let id = JobId(Uuid::from_u128(1));
        let job = JobEdit::Add { id, title: "New fan".into(), targets: vec![fan, tray], without: vec![] };
        let m = applied(&m, Edit::Job(job)).unwrap();
        let (merged, change) = m.apply(&Edit::Part(PartEdit::Merge { id: fan, into: tray }), "Ann").unwrap();
        assert!(!merged.parts.contains_key(&fan));
        assert_eq!(merged.jobs[&id].targets, [tray], "and not twice");
        assert!(merged.fasteners.values().all(|g| g.holds == [tray]));
        assert!(merged.connectors.values().all(|c| c.serves == Some(tray)));
        let whole = serde_json::to_string(&merged).unwrap();
        assert!(!whole.replace(&format!("parts/{fan}"), "").contains(&fan.to_string()), "nothing speaks of it");
        assert!(merged.check_all().is_ok());
        assert_eq!(merged.revert(&change).unwrap().0.parts, m.parts, "one undo parts them again");
    }

    #[test]
    fn a_part_inside_the_one_it_is_merged_with_takes_its_place() {
        let m = drafted::manual(FAN);
        let (fan, tray) = (part(&m, "fan"), part(&m, "tray"));
        let m = applied(&m, Edit::Part(PartEdit::Set { id: fan, field: PartField::Inside(Some(tray)) })).unwrap();
        let merged = applied(&m, Edit::Part(PartEdit::Merge { id: tray, into: fan })).unwrap();
        assert_eq!(merged.parts[&fan].inside, None);
        assert!(applied(&m, Edit::Part(PartEdit::Merge { id: fan, into: fan })).is_err());
    }
}
