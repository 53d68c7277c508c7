//! Sentences of a step as what they tell: an act, its parts, and the roles around it.
//!
//! Drafted words are never kept. A sentence is worded whenever somebody reads it, so that a part that was renamed or a count
//! that was put right is right in every sentence at once. Only words of its own are kept: an author's, or an order as the
//! speaker gave it.

use crate::ids::*;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, maybe_text, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, FastenerGroup, Heat, Manual, Part};
use crate::reading::{Act, Instruction, ScrewGroup, Whereabouts};
use crate::units::{Measure, Quantity, in_celsius, in_millimetres, in_newton_metres, in_seconds};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One act inside a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Action {
    pub id: ActionId,
    pub act: Act,
    /// Parts that it moves or works on.
    pub parts: Vec<PartId>,
    #[serde(default)]
    pub roles: Roles,
    /// Words of its own; without them readers see what act, parts and roles make.
    #[serde(default)]
    pub text: Option<String>,
    /// The words of its own are the speaker's: they give way as soon as an author puts act, part or role right.
    #[serde(default)]
    pub said: bool,
    /// A word that decides over safety and was hardly meant so; until somebody has chosen, the sentence is not published.
    #[serde(default)]
    pub doubt: Option<WordDoubt>,
    pub evidence: Vec<Evidence>,
}

/// A word that can hardly have been meant.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WordDoubt {
    pub heard: String,
    /// What it must have been.
    pub evident: String,
    pub because: String,
}

/// What a sentence is worded from beside act and parts.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default)]
pub struct Roles {
    /// What else it is done to: things that are no parts of the manual, without articles ("left latch").
    pub things: Vec<String>,
    /// The screws that it turns: count, size and what they hold are read off these groups.
    pub groups: Vec<GroupId>,
    /// Screws as told, where no group is known.
    pub screws: Vec<ScrewGroup>,
    /// Tool or material.
    pub by: Option<String>,
    pub places: Vec<Whereabouts>,
    pub manner: Vec<String>,
    /// "if it is tight": printed first, so that nobody does it always.
    pub condition: Option<String>,
    /// "the latch clicks"
    pub until: Option<String>,
    /// The heat that it applies: temperature and time are read off these settings.
    pub heats: Vec<HeatId>,
    /// Temperatures, times, angles and torques, as told.
    pub measures: Vec<Measure>,
}

/// One role of a sentence, as an author sets it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoleField {
    Things(Vec<String>),
    Groups(Vec<GroupId>),
    By(Option<String>),
    /// "under the lid", each with how it lies in front.
    Places(Vec<String>),
    Manner(Vec<String>),
    /// With its "if" or "unless".
    Condition(Option<String>),
    Until(Option<String>),
    Measures(Vec<Measure>),
}

/// Most entries of one role: more are no sentence.
const MOST: usize = 12;

impl Action {
    /// A sentence with words of its own and nothing else.
    pub fn typed(id: ActionId, act: Act, parts: Vec<PartId>, text: &str) -> Self {
        Self {
            id,
            act,
            parts,
            roles: Roles::default(),
            text: Some(text.to_owned()),
            said: false,
            doubt: None,
            evidence: Vec::new(),
        }
    }

    /// Whether it takes parts out or puts them in.
    pub fn moves(&self) -> bool {
        matches!(self.act, Act::Remove | Act::Install | Act::Peel | Act::Transfer)
    }

    /// Whether it turns screws.
    pub fn turns_screws(&self) -> bool {
        self.act.turns_screws()
    }

    /// An author put right what it tells: the speaker's words told something else.
    pub(in crate::manual) fn corrected(&mut self) {
        self.doubt = None;
        if std::mem::take(&mut self.said) {
            self.text = None;
        }
    }

    /// The same, its own words without blanks around them.
    ///
    /// # Errors
    /// A [`Refusal`] where they are empty or far too long.
    pub(super) fn checked(&self, field: &'static str) -> Result<Self, Refusal> {
        let words = self.text.as_deref().map(|t| text(field, t, MAX_TEXT)).transpose()?;
        Ok(Self { text: words, ..self.clone() })
    }

    /// Every text kept with it, for who renames or looks for a word.
    pub(in crate::manual) fn texts(&mut self) -> impl Iterator<Item = &mut String> {
        let roles = &mut self.roles;
        let words = self.text.iter_mut().chain(&mut roles.things).chain(&mut roles.manner);
        let signs = roles.until.iter_mut().chain(&mut roles.condition);
        words.chain(roles.places.iter_mut().map(|p| &mut p.thing)).chain(signs).chain(&mut roles.by)
    }
}

impl Manual {
    /// What a sentence is about, by name: its parts, and the things that are none.
    pub fn named<'m>(&'m self, action: &'m Action) -> impl Iterator<Item = &'m str> {
        let parts = action.parts.iter().map(|p| self.part_name(*p));
        parts.chain(action.roles.things.iter().map(String::as_str))
    }

    /// The sentence that readers see.
    pub fn sentence(&self, action: &Action) -> String {
        action.text.clone().unwrap_or_else(|| self.worded(action))
    }

    /// The sentence that act, parts and roles make, of every sentence.
    pub fn wordings(&self) -> std::collections::BTreeMap<ActionId, String> {
        self.steps.values().flat_map(|s| &s.actions).map(|a| (a.id, self.worded(a))).collect()
    }

    /// The sentence that act, parts and roles make, whatever words of its own it has.
    pub fn worded(&self, action: &Action) -> String {
        let roles = &action.roles;
        let groups: Vec<&FastenerGroup> = roles.groups.iter().filter_map(|g| self.fasteners.get(g)).collect();
        let told = action.parts.iter().map(|p| self.part_name(*p));
        let held = || groups.iter().flat_map(|g| &g.holds).map(|p| self.part_name(*p));
        let mut things: Vec<&str> = if action.turns_screws() { held().collect() } else { told.collect() };
        if things.is_empty() || !action.turns_screws() {
            things.extend(roles.things.iter().map(String::as_str));
        }
        let mut named = std::collections::BTreeSet::new();
        things.retain(|t| named.insert(t.to_lowercase()));
        let measures = self.measures(action, &groups);
        let going_in = matches!(action.act, Act::Drive | Act::Tighten);
        let sized = |g: &FastenerGroup| ScrewGroup {
            // What was counted going back may be less than what came out.
            count: g.refitted.filter(|_| going_in).or(g.count),
            ..sized(g)
        };
        let screws = if groups.is_empty() { roles.screws.clone() } else { groups.into_iter().map(sized).collect() };
        Instruction {
            act: action.act,
            things,
            screws,
            by: roles.by.as_deref(),
            places: &roles.places,
            manner: &roles.manner,
            condition: roles.condition.as_deref(),
            until: roles.until.as_deref(),
            measures: &measures,
        }
        .sentence()
    }

    /// What was told, in place of it what heat settings and screws say now.
    fn measures(&self, action: &Action, groups: &[&FastenerGroup]) -> Vec<Measure> {
        let heats: Vec<&Heat> = action.roles.heats.iter().filter_map(|h| self.heats.get(h)).collect();
        let torque = groups.iter().find_map(|g| g.torque).filter(|_| matches!(action.act, Act::Tighten | Act::Drive));
        let stands = |m: &&Measure| match m.quantity {
            Quantity::Temperature | Quantity::Duration => heats.is_empty(),
            Quantity::Torque => torque.is_none(),
            _ => true,
        };
        let mut out: Vec<Measure> = action.roles.measures.iter().filter(stands).cloned().collect();
        for heat in &heats {
            out.extend(heat.temperature.map(|t| span(Quantity::Temperature, in_celsius(t.low), in_celsius(t.high))));
            out.extend(heat.dwell.map(|t| span(Quantity::Duration, in_seconds(t.low), in_seconds(t.high))));
        }
        out.extend(torque.map(in_newton_metres).map(|t| span(Quantity::Torque, t, t)));
        out
    }
}

fn span(quantity: Quantity, low: f64, high: f64) -> Measure {
    Measure { quantity, value: low, to: (high > low).then_some(high), unit: String::new() }
}

fn sized(group: &FastenerGroup) -> ScrewGroup {
    ScrewGroup {
        count: group.count,
        drive: group.drive,
        bit: group.bit.clone(),
        length_mm: group.length.map(in_millimetres),
    }
}

impl Roles {
    /// Sets one role.
    ///
    /// # Errors
    /// A [`Refusal`] that names the role whose words are empty or too long.
    pub(super) fn set(&mut self, field: &RoleField) -> Result<(), Refusal> {
        match field {
            RoleField::Things(things) => self.things = list("things", things)?,
            RoleField::Groups(groups) => self.groups.clone_from(groups),
            RoleField::By(by) => self.by = maybe_text("by", by, MAX_TITLE)?,
            RoleField::Places(places) => {
                few("places", places.len())?;
                self.places = places.iter().map(|p| whereabouts(p)).collect::<Result<_, _>>()?;
            }
            RoleField::Manner(manner) => self.manner = list("manner", manner)?,
            RoleField::Condition(condition) => self.condition = checked_condition(condition)?,
            RoleField::Until(until) => self.until = maybe_text("until", until, MAX_TEXT)?,
            RoleField::Measures(measures) => {
                few("measures", measures.len())?;
                self.measures.clone_from(measures);
            }
        }
        Ok(())
    }
}

/// "If it is tight" as it stands in a sentence; words that open no condition would be printed as an order.
fn checked_condition(condition: &Option<String>) -> Result<Option<String>, Refusal> {
    let Some(words) = maybe_text("condition", condition, MAX_TEXT)? else { return Ok(None) };
    let words = words.trim_end_matches(['.', ',']);
    let opens = words.split(' ').next().unwrap_or_default().to_lowercase();
    let alone = opens.len() == words.len();
    if alone || !matches!(opens.as_str(), "if" | "unless" | "when" | "once" | "where") {
        let problem = format!("“{words}” is no condition. Begin with “if” or “unless”: “if it is tight”.");
        return Err(Refusal::invalid("condition", problem));
    }
    Ok(Some(format!("{opens}{}", &words[opens.len()..])))
}

fn whereabouts(place: &str) -> Result<Whereabouts, Refusal> {
    let place = text("places", place, MAX_TITLE)?;
    Whereabouts::parse(&place).ok_or_else(|| {
        let problem =
            format!("“{place}” does not say where. Begin with how it lies: “under the lid”, “in the groove”.");
        Refusal::invalid("places", problem)
    })
}

fn list(field: &'static str, words: &[String]) -> Result<Vec<String>, Refusal> {
    few(field, words.len())?;
    words.iter().map(|w| text(field, w, MAX_TITLE)).collect()
}

fn few(field: &'static str, count: usize) -> Result<(), Refusal> {
    if count > MOST {
        let problem = format!("One sentence tells {MOST} of these at most, not {count}. Make further sentences.");
        return Err(Refusal::invalid(field, problem));
    }
    Ok(())
}

impl Sound for Action {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        self.checked("actions")?;
        manual.refers::<Part>("actions", self.parts.iter().copied())?;
        let figures = self.roles.measures.iter().flat_map(|m| [Some(m.value), m.to]).flatten();
        match figures.into_iter().find(|f| !f.is_finite()) {
            Some(figure) => Err(Refusal::invalid("measures", format!("{figure} is no figure"))),
            None => Ok(()),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{
        Edit, FastenerEdit, FastenerField, HeatEdit, HeatField, PartEdit, SentenceEdit, SentenceField, StepEdit,
        TextEdit, Wanted,
    };
    use rstest::{fixture, rstest};
    use uuid::Uuid;

    /// A lamp, drafted: nothing of it was typed.
    #[fixture]
    fn lamp() -> Manual {
        let text = "[0:00] So now I'm undoing the four T10 screws of the base plate, six millimetres long. Then you can \
                    take the base plate off.\n\n[0:20] We're heating the bezel to 80 degrees for two minutes. Now the \
                    bezel can be lifted off.";
        crate::manual::drafted::manual(text)
    }

    fn apply(manual: &Manual, edit: Edit) -> Manual {
        manual.apply(&edit, "Ann").unwrap().0
    }

    fn all(manual: &Manual) -> Vec<String> {
        manual.order().iter().flat_map(|s| &manual.steps[s].actions).map(|a| manual.sentence(a)).collect()
    }

    fn set(manual: &Manual, sentence: &str, field: SentenceField) -> Manual {
        let step = manual.steps.values().find(|s| s.actions.iter().any(|a| manual.sentence(a) == sentence)).unwrap();
        let action = step.actions.iter().find(|a| manual.sentence(a) == sentence).unwrap();
        let edit = SentenceEdit::Set { id: action.id, field };
        apply(manual, Edit::Step(StepEdit::Sentence { id: step.id, sentence: edit }))
    }

    #[rstest]
    fn a_draft_keeps_no_words(lamp: Manual) {
        assert!(lamp.steps.values().flat_map(|s| &s.actions).all(|a| a.text.is_none()));
        assert_eq!(
            all(&lamp),
            [
                "Undo the four T10 screws (6 mm) of the base plate.",
                "Remove the base plate.",
                "Heat the bezel to 80 °C for 2 minutes.",
                "Remove the bezel."
            ]
        );
    }

    #[rstest]
    fn a_renamed_part_is_renamed_in_every_sentence(lamp: Manual) {
        let id = lamp.parts.values().find(|p| p.name == "base plate").unwrap().id;
        let renamed = apply(&lamp, Edit::Part(PartEdit::Rename { id, name: "foot".into() }));
        assert_eq!(all(&renamed)[..2], ["Undo the four T10 screws (6 mm) of the foot.", "Remove the foot."]);
    }

    #[rstest]
    fn a_changed_count_is_told(lamp: Manual) {
        let id = lamp.fasteners.values().next().unwrap().id;
        let counted = apply(&lamp, Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Count(Some(5)) }));
        assert_eq!(all(&counted)[0], "Undo the five T10 screws (6 mm) of the base plate.");
    }

    #[rstest]
    fn a_changed_heat_is_told(lamp: Manual) {
        let id = lamp.heats.values().next().unwrap().id;
        let field: HeatField = serde_json::from_value(serde_json::json!({ "temp_c": [70.0, 75.0] })).unwrap();
        let cooler = apply(&lamp, Edit::Heat(HeatEdit::Set { id, field }));
        assert_eq!(all(&cooler)[2], "Heat the bezel to 70 to 75 °C for 2 minutes.");
    }

    #[rstest]
    #[case::act(SentenceField::Act(Act::Open), "Open the bezel.")]
    #[case::tool(SentenceField::Role(RoleField::By(Some("opening pick".into()))), "Remove the bezel with an opening pick.")]
    #[case::manner(SentenceField::Role(RoleField::Manner(vec!["slowly".into()])), "Remove the bezel slowly.")]
    #[case::condition(
        SentenceField::Role(RoleField::Condition(Some("If it is tight".into()))),
        "If it is tight, remove the bezel."
    )]
    #[case::unless(
        SentenceField::Role(RoleField::Condition(Some("unless it is loose".into()))),
        "Remove the bezel, unless it is loose."
    )]
    #[case::sign(SentenceField::Role(RoleField::Until(Some("it clicks".into()))), "Remove the bezel until it clicks.")]
    #[case::place(
        SentenceField::Role(RoleField::Places(vec!["from the shade".into()])),
        "Remove the bezel from the shade."
    )]
    fn a_sentence_follows_its_fields(lamp: Manual, #[case] field: SentenceField, #[case] wanted: &str) {
        assert_eq!(all(&set(&lamp, "Remove the bezel.", field))[3], wanted);
    }

    #[rstest]
    fn words_typed_over_it_stay_until_it_is_worded_again(lamp: Manual) {
        let typed = set(&lamp, "Remove the bezel.", SentenceField::Text(Some("Ease the bezel off.".into())));
        let renamed = set(&typed, "Ease the bezel off.", SentenceField::Role(RoleField::Manner(vec!["slowly".into()])));
        assert_eq!(all(&renamed)[3], "Ease the bezel off.");
        assert_eq!(
            all(&set(&renamed, "Ease the bezel off.", SentenceField::Text(None)))[3],
            "Remove the bezel slowly."
        );
    }

    #[rstest]
    fn the_speakers_words_give_way_to_what_an_author_puts_right() {
        let mut action = Action::typed(ActionId(Uuid::nil()), Act::Open, Vec::new(), "Lift the lid at its front edge.");
        action.said = true;
        action.corrected();
        assert_eq!((action.text, action.said), (None, false));
    }

    #[rstest]
    #[case::too_many(RoleField::Manner(vec!["slowly".into(); 13]), "One sentence tells 12 of these at most")]
    #[case::nowhere(RoleField::Places(vec!["the shade".into()]), "“the shade” does not say where. Begin with how it lies")]
    #[case::if_alone(RoleField::Condition(Some("If".into())), "Begin with “if” or “unless”")]
    #[case::no_if(RoleField::Condition(Some("it is tight".into())), "Begin with “if” or “unless”")]
    #[case::empty(RoleField::Things(vec![" ".into()]), "Nothing is written here")]
    fn roles_that_no_sentence_can_hold_are_refused(#[case] field: RoleField, #[case] problem: &str) {
        let refusal = Roles::default().set(&field).unwrap_err();
        assert!(refusal.to_string().contains(problem), "{refusal}");
    }

    #[rstest]
    fn replacing_a_word_of_the_wording_gives_the_sentence_words_of_its_own(lamp: Manual) {
        let wanted = Wanted { find: "undo".into(), match_case: false, whole_words: true };
        let replaced = apply(&lamp, Edit::Text(TextEdit::Replace { wanted, with: "Loosen".into() }));
        assert_eq!(all(&replaced)[0], "Loosen the four T10 screws (6 mm) of the base plate.");
        assert_eq!(replaced.steps.values().flat_map(|s| &s.actions).filter(|a| a.text.is_some()).count(), 1);
    }

    #[rstest]
    fn replacing_a_name_leaves_the_sentence_worded(lamp: Manual) {
        let wanted = Wanted { find: "bezel".into(), match_case: false, whole_words: true };
        let replaced = apply(&lamp, Edit::Text(TextEdit::Replace { wanted, with: "rim".into() }));
        assert_eq!(all(&replaced)[2..], ["Heat the rim to 80 °C for 2 minutes.", "Remove the rim."]);
        assert!(replaced.steps.values().flat_map(|s| &s.actions).all(|a| a.text.is_none()));
    }

    /// Manuals that were saved while every sentence was kept as text.
    #[rstest]
    fn a_sentence_saved_as_text_alone_keeps_its_words() {
        let id = Uuid::nil();
        let saved =
            serde_json::json!({ "id": id, "act": "remove", "parts": [], "text": "Take it off.", "evidence": [] });
        let action: Action = serde_json::from_value(saved).unwrap();
        assert_eq!(action, Action::typed(ActionId(id), Act::Remove, Vec::new(), "Take it off."));
    }
}
