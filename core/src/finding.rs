//! What does not fit in a manual, in one shape for every rule, every stop and every list.
//!
//! A rule (see `checks`) says what never changes about its findings: its name, where they are mended, why they matter and
//! where that is from. A finding is one place where the rule does not hold, with the presses that mend it.

use crate::ids::*;
use crate::labels;
use crate::labels::Label;
use crate::manual::{Edit, Manual};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A stop of the author's day, in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stop {
    Listen,
    Steps,
    Chain,
    Screws,
    Seams,
    Cables,
    Cautions,
    Fold,
    Rehearse,
    Publish,
}

labels!(Stop {
    Listen: "Listen",
    Steps: "Steps",
    Chain: "Chain",
    Screws: "Screws",
    Seams: "Seams",
    Cables: "Cables",
    Cautions: "Cautions",
    Fold: "Fold",
    Rehearse: "Rehearse",
    Publish: "Publish",
});

impl Stop {
    /// What a stop will be for that is not built yet; `None` where it is.
    pub fn to_come(self) -> Option<&'static str> {
        match self {
            Self::Rehearse => Some("One step at a time with busy hands: big type, timers, counts to confirm."),
            _ => None,
        }
    }

    /// The stops that can be gone to, in the order of the work.
    pub fn built() -> impl Iterator<Item = Self> {
        Self::ALL.iter().copied().filter(|s| s.to_come().is_none())
    }
}

/// Every rule there is, by its name.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum RuleId {
    // Listen: where a recording contradicts itself.
    CountContradicted,
    SizeContradicted,
    UnitContradicted,
    SideContradicted,
    OrderContradicted,
    ToldTwice,
    LeftOut,
    ToolToldLate,
    PostureToldLate,
    JobOffered,
    HouseWord,
    HouseName,
    // Steps: parts, tools, promises, the text itself.
    ReplacementVoltage,
    ReplacementCharge,
    ReplacementConnector,
    ReplacementSize,
    ReplacementCapacity,
    LabelArithmetic,
    LaidOutUnused,
    UsedNotLaidOut,
    PromiseOpen,
    NoSteps,
    EmptyStep,
    DoubtfulWord,
    NotReviewed,
    TwoInstructions,
    LongSentence,
    ConditionLate,
    ShouldForMust,
    VagueCare,
    NounString,
    OtherName,
    NoOrder,
    // Chain: the order.
    Ring,
    TooEarly,
    IdleStep,
    UnreachedPart,
    RoughOnKeptPart,
    PowerNotCut,
    // Screws: one group, or two that meet.
    TorqueOutside,
    CountDisagreement,
    ScrewMixUp,
    BitUnusual,
    LockerOnPolycarbonate,
    // Seams: what heat does, and what of the opening was never told.
    HeatHarms,
    EntryUntold,
    DepthUntold,
    // Cables: what is live, what hangs, which end goes where.
    SourceStillOn,
    HeldUntold,
    EndsAlike,
    RouteUntold,
    BendTight,
    CableShort,
    // Cautions: what belongs to licensed people, what is warned of, and when.
    LicensedWork,
    HazardUnsaid,
    SaidLate,
    TooManyWarnings,
    CautionLost,
    // Fold: what was told against what came off, and the balance.
    ToldTooEarly,
    UntoldBack,
    NeverOut,
    FittedTwice,
    ToolLeftInside,
    Uncounted,
    LeftOver,
    TooManyBack,
}

impl RuleId {
    /// "torque-outside".
    pub fn name(self) -> String {
        match serde_json::to_value(self) {
            Ok(serde_json::Value::String(name)) => name,
            other => panic!("a rule goes by a word, not {other:?}"),
        }
    }
}

/// One rule: what never changes about its findings.
#[derive(Debug, Clone, Copy)]
pub struct Rule {
    pub id: RuleId,
    /// Where it is mended.
    pub stop: Stop,
    /// Its findings stand against publishing.
    pub blocks: bool,
    /// An author may say that one of them does not matter here.
    pub may_set_aside: bool,
    /// What goes wrong if nobody minds.
    pub why: &'static str,
    /// Standard, formula, or "common practice, no source".
    pub source: &'static str,
}

/// What a finding is about.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Subject {
    Step(StepId),
    Part(PartId),
    Note(NoteId),
    Tool(ToolId),
    /// A tool that steps use and nobody laid out has no id.
    ToolNamed(String),
    Group(GroupId),
    /// Words of a recording, by the characters of its joined text.
    Words {
        recording: RecordingId,
        start: usize,
        end: usize,
    },
}

/// One press that mends a finding.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Fix {
    pub label: String,
    pub edit: Edit,
}

impl Fix {
    /// One press: what stands on it, and what it does.
    pub fn new(label: impl Into<String>, edit: Edit) -> Self {
        Self { label: label.into(), edit }
    }
}

/// Something that does not fit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Finding {
    /// Follows from the rule, what it is about and the facts it rests on; another fact makes another finding.
    pub key: FindingKey,
    pub rule: RuleId,
    pub stop: Stop,
    /// Stands against publishing; never where it was set aside.
    pub blocks: bool,
    /// The sentence that the author reads: what, where, what would be right.
    pub says: String,
    pub why: String,
    pub source: String,
    /// What it is about, the main thing first; empty for the manual as a whole.
    pub about: Vec<Subject>,
    /// One press each.
    pub fixes: Vec<Fix>,
    pub may_set_aside: bool,
    /// Why it does not matter here, where an author has said so, or what was decided.
    pub set_aside: Option<String>,
}

/// Keys of findings are looked up inside one manual only, so one namespace serves all of them.
const KEYS: Uuid = Uuid::from_u128(0x6f1d_3b52_8c1e_4d0b_9a7e_5f10_2c64_91aa);

impl Rule {
    /// A finding about one thing, resting on what its sentence says.
    pub fn finding(&self, about: Subject, says: String) -> Finding {
        self.finding_about(vec![about], says)
    }

    /// A finding about several things, or about none in particular.
    pub fn finding_about(&self, about: Vec<Subject>, says: String) -> Finding {
        Finding {
            key: key(self.id, &about, &says),
            rule: self.id,
            stop: self.stop,
            blocks: self.blocks,
            says,
            why: self.why.to_owned(),
            source: self.source.to_owned(),
            about,
            fixes: Vec::new(),
            may_set_aside: self.may_set_aside,
            set_aside: None,
        }
    }
}

fn key(rule: RuleId, about: &[Subject], facts: &impl Serialize) -> FindingKey {
    key_of(&(rule, about, facts))
}

/// The key under which an author's decision is kept that concerns no finding: a rule of another kind, and what it is about.
pub fn decision_key(rule: impl Serialize, about: &[Subject]) -> FindingKey {
    key_of(&(rule, about))
}

fn key_of(facts: &impl Serialize) -> FindingKey {
    let text = serde_json::to_string(facts).expect("findings are plain data");
    FindingKey(Uuid::new_v5(&KEYS, text.as_bytes()))
}

impl Finding {
    /// With the presses that mend it.
    pub fn with(mut self, fixes: impl IntoIterator<Item = Fix>) -> Self {
        self.fixes.extend(fixes);
        self
    }

    /// The facts it rests on, where they are fewer than its sentence tells: a part's new name changes the sentence, and
    /// not the finding.
    pub fn resting_on(mut self, facts: impl Serialize) -> Self {
        self.key = key(self.rule, &self.about, &facts);
        self
    }

    /// Blocks in some cases only.
    pub fn blocking(mut self, blocks: bool) -> Self {
        self.blocks = blocks;
        self
    }

    /// Under the author's decision, where there is one.
    pub fn decided(mut self, manual: &Manual) -> Self {
        if let Some(aside) = manual.set_aside.get(&self.key).filter(|_| self.may_set_aside) {
            self.blocks = false;
            self.set_aside = Some(aside.because.clone());
        }
        self
    }
}

/// Readers and authors of the API find every rule by its name.
#[cfg(test)]
mod tests {
    use super::*;

    const RULE: Rule =
        Rule { id: RuleId::PromiseOpen, stop: Stop::Steps, blocks: true, may_set_aside: true, why: "", source: "" };

    fn step(n: u128) -> Subject {
        Subject::Step(StepId(Uuid::from_u128(n)))
    }

    #[test]
    fn a_key_follows_the_rule_the_subject_and_the_facts() {
        let first = RULE.finding(step(1), "4 of 5".into());
        assert_eq!(first.key, RULE.finding(step(1), "4 of 5".into()).key);
        assert_ne!(first.key, RULE.finding(step(2), "4 of 5".into()).key);
        assert_ne!(first.key, RULE.finding(step(1), "3 of 5".into()).key);
        let other = Rule { id: RuleId::EmptyStep, ..RULE };
        assert_ne!(first.key, other.finding(step(1), "4 of 5".into()).key);
    }

    #[test]
    fn words_may_change_where_the_facts_stay() {
        let named = |name: &str, count: u32| RULE.finding(step(1), format!("{name}: {count}")).resting_on(count);
        assert_eq!(named("lid", 4).key, named("cover", 4).key);
        assert_ne!(named("lid", 4).key, named("lid", 5).key);
    }

    #[test]
    fn stops_that_are_built_come_in_the_order_of_the_work() {
        let built: Vec<&str> = Stop::built().map(Stop::label).collect();
        assert_eq!(built, ["Listen", "Steps", "Chain", "Screws", "Seams", "Cables", "Cautions", "Fold", "Publish"]);
    }
}
