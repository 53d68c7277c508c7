//! From readings to a whole manual at once.
//!
//! Nothing *needs* accepting: a draft is complete, and what nobody has reviewed is counted. A step ends where a part
//! leaves or goes back, and at a new paragraph; every step, count and setting carries the seconds it came from.

use super::device::DeviceTold;
use super::told_order::ToldOrder;
use crate::ids::IdMaker;
use crate::manual::edits::refusal::MAX_TITLE;
use crate::manual::model::parts::capitalised;
use crate::manual::model::steps::rank_between;
use crate::manual::*;
use crate::reading::{
    Act, ConnectorFact, FastenerFact, FastenerOp, HeatFact, Mark, PartFact, PartOp, Reading, Statement, StatementKind,
    instruction,
};
use crate::units::Quantity;

/// One recording with its reading, as input of a draft.
pub struct Source<'a> {
    pub recording: RecordingRef,
    pub reading: &'a Reading,
}

/// Drafts a manual from any number of recordings; the same sources give the same manual.
pub fn draft(id: ManualId, title: &str, device: &str, sources: &[Source<'_>]) -> Manual {
    let mut drafter = Drafter {
        manual: Manual::new(id, title, device),
        ids: IdMaker::new(id.0),
        open: None,
        pending: Vec::new(),
        told_order: ToldOrder::default(),
        device: DeviceTold::default(),
        last_group: None,
    };
    for source in sources {
        drafter.manual.recordings.insert(source.recording.id, source.recording.clone());
        let paragraphs = speaks_in_paragraphs(&source.reading.statements);
        for statement in &source.reading.statements {
            drafter.take(source, statement, paragraphs);
        }
        drafter.close();
    }
    drafter.finish()
}

/// Whether segments are paragraphs (several statements each) rather than captions.
fn speaks_in_paragraphs(statements: &[Statement]) -> bool {
    let segments = statements.iter().map(|s| s.cue).collect::<std::collections::BTreeSet<_>>().len();
    let chars: usize = statements.iter().map(|s| s.text.len()).sum();
    segments > 0 && chars / segments > 110
}

struct Open {
    step: Step,
    last_cue: u32,
    /// A part has left or gone back: the next act begins a new step.
    finished: bool,
    /// The power was cut here, at this source. Much waits for that, so only taking out the source itself goes on from it.
    power_cut: Option<String>,
    /// The best title so far, with how much it tells: a part that leaves more than a joint, a joint more than a turn of
    /// the hand.
    headline: Option<(u8, String)>,
}

struct Drafter {
    manual: Manual,
    ids: IdMaker,
    open: Option<Open>,
    /// Cautions told before any step they could belong to.
    pending: Vec<(CautionSubjectAndText, Evidence)>,
    told_order: ToldOrder,
    device: DeviceTold,
    /// The screws spoken of last: "tighten to …" alone means them.
    last_group: Option<GroupId>,
}

type CautionSubjectAndText = (crate::reading::CautionSubject, String);

impl Drafter {
    fn take(&mut self, source: &Source<'_>, statement: &Statement, paragraphs: bool) {
        let evidence = Evidence::Recording {
            recording: source.recording.id,
            start: statement.start,
            end: statement.end,
            from_ms: statement.from_ms,
            to_ms: statement.to_ms,
        };
        self.told_order.listen(statement, &evidence);
        self.device.listen(statement, &evidence);
        // What was tried in vain is no step.
        if statement.marks.contains(&Mark::DeadEnd) {
            return;
        }
        match statement.kind {
            StatementKind::Action | StatementKind::Test => self.act(source, statement, &evidence, paragraphs),
            StatementKind::Observation if !statement.facts.fasteners.is_empty() => {
                self.act(source, statement, &evidence, paragraphs)
            }
            StatementKind::Caution => {}
            StatementKind::Condition if !statement.facts.cautions.is_empty() => {}
            _ => return,
        }
        for about in statement.facts.cautions.iter().take(1) {
            let acts = matches!(statement.kind, StatementKind::Action | StatementKind::Test);
            // "… but don't bend it": told after the deed, it belongs before that same deed.
            let goes_on = statement.text.to_lowercase().starts_with("but ");
            let here = self.open.as_ref().is_some_and(|open| {
                let same_breath = if paragraphs { open.last_cue == statement.cue } else { !open.finished };
                acts || goes_on || same_breath
            });
            self.caution((*about, statement.text.clone()), evidence.clone(), here);
        }
    }

    #[allow(clippy::too_many_lines)] // One walk over the facts of a statement, in their order.
    fn act(&mut self, source: &Source<'_>, statement: &Statement, evidence: &Evidence, paragraphs: bool) {
        let phase = if statement.rebuild { Phase::Rebuild } else { Phase::Teardown };
        let breaks = self.open.as_ref().is_none_or(|open| {
            let new_segment = statement.cue != open.last_cue;
            open.step.phase != phase
                || (paragraphs && new_segment)
                || (open.finished && (new_segment || opens_anew(statement)))
                || (opens_anew(statement)
                    && open.power_cut.as_ref().is_some_and(|source| !takes_out(statement, source)))
        });
        if breaks {
            self.close();
            self.begin(phase, statement);
        }
        let step = self.open.as_ref().expect("a step is open").step.id;
        let parts = self.parts_of(statement, evidence);
        for f in &statement.facts.fasteners {
            self.fastener(f, step, evidence, phase, how_counted(&statement.text));
        }
        self.tightness(statement, evidence);
        self.stored(statement);
        for c in &statement.facts.connectors {
            self.connector(c, step, evidence);
            let source = c.what.as_ref().filter(|what| phase == Phase::Teardown && is_power(what));
            if let (Some(open), Some(source)) = (self.open.as_mut(), source) {
                open.power_cut = Some(source.clone());
            }
        }
        for h in &statement.facts.heat {
            self.heat(h, step, evidence);
        }
        self.seam(statement, step, parts.first().copied(), evidence);
        let action = Action {
            id: self.ids.make(ActionId),
            act: act_of(statement),
            parts,
            // The reader's sentence where the speaker's is none; the speech stays one press away, as evidence.
            text: instruction(statement, &source.reading.deeds).unwrap_or_else(|| sentence(&statement.text)),
            evidence: vec![evidence.clone()],
        };
        if phase == Phase::Teardown && pulls_the_plug(statement) {
            self.open.as_mut().expect("a step is open").power_cut = Some(String::new());
        }
        let headline = headline(source, statement);
        let open = self.open.as_mut().expect("a step is open");
        open.last_cue = statement.last_cue;
        open.finished |= !statement.facts.parts.is_empty();
        let told = open.headline.as_ref().map_or(0, |(weight, _)| *weight);
        if let Some(new) = headline
            && (new.0 > told || new.0 == PART_LEAVES)
        {
            open.headline = Some(new);
        }
        let step = &mut open.step;
        step.actions.push(action);
        step.evidence.push(evidence.clone());
        for tool in statement.facts.tools.iter().chain(drivers(&statement.facts.fasteners).iter()) {
            if !step.tools.contains(tool) {
                step.tools.push(tool.clone());
            }
        }
        for consumable in &statement.facts.consumables {
            if !step.consumables.contains(consumable) {
                step.consumables.push(*consumable);
            }
        }
    }

    fn begin(&mut self, phase: Phase, statement: &Statement) {
        let last = self.manual.steps_in(phase).last().map(|s| s.rank.clone());
        let rank = rank_between(last.as_deref(), None);
        let step = Step::new(self.ids.make(StepId), phase, rank, String::new());
        let id = step.id;
        self.open = Some(Open { step, last_cue: statement.cue, finished: false, power_cut: None, headline: None });
        for ((about, text), evidence) in std::mem::take(&mut self.pending) {
            self.add_caution(id, about, text, evidence);
        }
    }

    fn close(&mut self) {
        let Some(open) = self.open.take() else { return };
        let mut step = open.step;
        let first = step.actions.first().map_or_else(String::new, |a| shortened(&a.text));
        step.title = open.headline.map_or(first, |(_, title)| title);
        self.manual.steps.insert(step.id, step);
    }

    /// A caution belongs to the step it was told in, else to the next one.
    fn caution(&mut self, said: CautionSubjectAndText, evidence: Evidence, here: bool) {
        match self.open.as_ref().filter(|_| here).map(|o| o.step.id) {
            Some(step) => self.add_caution(step, said.0, said.1, evidence),
            None => self.pending.push((said, evidence)),
        }
    }

    fn add_caution(&mut self, step: StepId, about: crate::reading::CautionSubject, text: String, evidence: Evidence) {
        let id = self.ids.make(CautionId);
        // The sign beside it says "caution" already.
        let text = ["Caution.", "Caution,", "Attention.", "Warning."]
            .iter()
            .find_map(|w| text.strip_prefix(w))
            .unwrap_or(&text);
        self.manual.cautions.insert(id, Caution { id, step, about, text: sentence(text), evidence: vec![evidence] });
    }

    fn part(&mut self, name: &str, evidence: &Evidence) -> PartId {
        let same = self.manual.parts.values_mut().find(|p| p.name.eq_ignore_ascii_case(name));
        if let Some(part) = same {
            part.evidence.push(evidence.clone());
            return part.id;
        }
        let id = self.ids.make(PartId);
        let part = Part::new(id, name.to_owned(), vec![evidence.clone()]);
        self.manual.parts.insert(id, Part { power_source: is_power(name), single_use: is_used_up(name), ..part });
        id
    }

    fn parts_of(&mut self, statement: &Statement, evidence: &Evidence) -> Vec<PartId> {
        let mut out = Vec::new();
        for PartFact { what, .. } in &statement.facts.parts {
            let id = self.part(what, evidence);
            if !out.contains(&id) {
                out.push(id);
            }
        }
        out
    }

    fn fastener(&mut self, fact: &FastenerFact, step: StepId, evidence: &Evidence, phase: Phase, how: HowCounted) {
        if phase == Phase::Rebuild && self.refit(fact, evidence) {
            return;
        }
        let holds = fact.what.iter().map(|w| self.part(w, evidence)).collect();
        let claims = fact.count.map(|count| CountClaim { count, how, evidence: Some(evidence.clone()) });
        let group = FastenerGroup {
            op: fact.op,
            count: fact.count,
            claims: claims.into_iter().collect(),
            drive: fact.drive,
            bit: fact.bit.clone(),
            length: fact.length,
            captive: fact.captive,
            holds,
            evidence: vec![evidence.clone()],
            ..FastenerGroup::new(self.ids.make(GroupId), step)
        };
        self.last_group = Some(group.id);
        self.manual.fasteners.insert(group.id, group);
    }

    /// "Tighten them to 0.4 newton metres": for the one group that the sentence speaks of.
    fn tightness(&mut self, statement: &Statement, evidence: &Evidence) {
        let told = |m: &&crate::units::Measure| m.quantity == crate::units::Quantity::Torque && m.to.is_none();
        let mut torques = statement.facts.measures.iter().filter(told);
        let (Some(torque), None) = (torques.next(), torques.next()) else { return };
        let here: Vec<GroupId> =
            self.manual.fasteners.values().filter(|g| g.evidence.contains(evidence)).map(|g| g.id).collect();
        let meant = match here[..] {
            [] => self.last_group,
            [one] => Some(one),
            _ => None,
        };
        if let Some(group) = meant.and_then(|id| self.manual.fasteners.get_mut(&id)) {
            group.torque = Some(crate::units::newton_metres(torque.value));
            group.torque_from = Some(crate::manual::TorqueFrom::Narrator);
            if !group.evidence.contains(evidence) {
                group.evidence.push(evidence.clone());
            }
        }
    }

    /// "Put them in a row": where the screws spoken of last are kept.
    fn stored(&mut self, statement: &Statement) {
        let said = statement.text.to_lowercase();
        let word = |w: &str| said.split(|c: char| !c.is_alphanumeric()).any(|s| s == w);
        let speaks = word("them") || word("screw") || word("screws");
        let places = [
            (said.contains("in a row"), crate::manual::Stored::Row),
            (word("mat"), crate::manual::Stored::Mat),
            (word("pile"), crate::manual::Stored::Pile),
            (said.contains("in their holes"), crate::manual::Stored::InHole),
        ];
        let Some((_, place)) = places.into_iter().find(|(told, _)| *told) else { return };
        if let Some(group) = self.last_group.filter(|_| speaks).and_then(|id| self.manual.fasteners.get_mut(&id)) {
            group.stored = Some(place);
        }
    }

    /// Screws going back belong to the group that came out: same part, same length where both are told.
    fn refit(&mut self, fact: &FastenerFact, evidence: &Evidence) -> bool {
        let Some(what) = &fact.what else { return false };
        let part = self.manual.parts.values().find(|p| p.name.eq_ignore_ascii_case(what)).map(|p| p.id);
        let Some(part) = part else { return false };
        let mut groups: Vec<&mut FastenerGroup> = self
            .manual
            .fasteners
            .values_mut()
            .filter(|g| {
                g.holds.contains(&part)
                    && g.refitted.is_none()
                    && matches!(g.op, FastenerOp::Remove | FastenerOp::Loosen)
            })
            .collect();
        let exact = groups.iter().position(|g| g.length == fact.length && g.length.is_some());
        let Some(at) = exact.or((!groups.is_empty()).then_some(0)) else { return false };
        let group = &mut groups[at];
        group.refitted = fact.count;
        self.last_group = Some(group.id);
        group.evidence.push(evidence.clone());
        true
    }

    fn connector(&mut self, fact: &ConnectorFact, step: StepId, evidence: &Evidence) {
        if self.open.as_ref().is_some_and(|o| o.step.phase == Phase::Rebuild) {
            return;
        }
        let serves = fact.what.as_ref().map(|w| self.part(w, evidence));
        let id = self.ids.make(ConnectorId);
        self.manual.connectors.insert(
            id,
            Connector {
                id,
                step,
                serves,
                kind: None,
                power: fact.what.as_deref().is_some_and(is_power),
                temporary: false,
                route: Vec::new(),
                note: None,
                evidence: vec![evidence.clone()],
            },
        );
    }

    fn heat(&mut self, fact: &HeatFact, step: StepId, evidence: &Evidence) {
        let target = fact.target.as_ref().map(|t| self.part(t, evidence));
        let id = self.ids.make(HeatId);
        self.manual.heats.insert(
            id,
            Heat {
                id,
                step,
                source: fact.source,
                target,
                temperature: fact.temperature,
                dwell: fact.dwell,
                evidence: vec![evidence.clone()],
            },
        );
    }

    /// Prying and peeling open a seam; what holds it is told by the words beside it.
    fn seam(&mut self, statement: &Statement, step: StepId, part: Option<PartId>, evidence: &Evidence) {
        let acts: Vec<Act> = statement.facts.acts.iter().map(|a| a.act).collect();
        if !acts.iter().any(|a| matches!(a, Act::Pry | Act::Peel)) {
            return;
        }
        let text = statement.text.to_lowercase();
        let kind = if ["clip", "latch", "snap"].iter().any(|w| text.contains(w)) {
            SeamKind::Clips
        } else if text.contains("tape") {
            SeamKind::Tape
        } else {
            SeamKind::Glue
        };
        let depth = statement
            .facts
            .measures
            .iter()
            .find(|m| m.quantity == Quantity::Length && text.contains("deep"))
            .map(|m| crate::units::millimetres(m.value));
        let id = self.ids.make(SeamId);
        self.manual.seams.insert(
            id,
            Seam { id, step, kind, part, entry: None, depth, note: None, evidence: vec![evidence.clone()] },
        );
    }

    fn finish(mut self) -> Manual {
        self.close();
        std::mem::take(&mut self.told_order).settle(&mut self.manual, || self.ids.make(RequirementId));
        std::mem::take(&mut self.device).settle(&mut self.manual, &mut self.ids);
        // A caution with no step behind it (a closing remark) belongs to the last one.
        if let Some(last) = self.manual.order().last().copied() {
            for ((about, text), evidence) in std::mem::take(&mut self.pending) {
                self.add_caution(last, about, text, evidence);
            }
        }
        self.manual
    }
}

/// The act a sentence stands for: what it does to the part it moves, else the first thing it does.
fn act_of(statement: &Statement) -> Act {
    // What was peeled off has glue to renew: the rebuild must know.
    if statement.facts.acts.iter().any(|a| a.act == Act::Peel) && !statement.rebuild {
        return Act::Peel;
    }
    match statement.facts.parts.first().map(|p| p.op) {
        Some(PartOp::Remove) => Act::Remove,
        Some(PartOp::Install) => Act::Install,
        None => statement.facts.acts.first().map_or(Act::Place, |a| a.act),
    }
}

/// Off, and off the mains.
fn pulls_the_plug(statement: &Statement) -> bool {
    const PLUG: [&str; 5] = ["wall socket", "from the wall", "mains plug", "from the mains", "power cord"];
    let acts = |act: Act| statement.facts.acts.iter().any(|a| a.act == act);
    let text = statement.text.to_lowercase();
    acts(Act::PowerOff) || (acts(Act::Disconnect) && PLUG.iter().any(|p| text.contains(p)))
}

fn takes_out(statement: &Statement, what: &str) -> bool {
    statement.facts.parts.iter().any(|p| p.op == PartOp::Remove && p.what.eq_ignore_ascii_case(what))
}

/// A new thought: another part leaves, or it begins with an order word.
fn opens_anew(statement: &Statement) -> bool {
    !statement.facts.parts.is_empty() || !statement.facts.fasteners.is_empty() || !statement.facts.connectors.is_empty()
}

fn is_power(name: &str) -> bool {
    ["battery", "pack", "cell", "mains", "power"].iter().any(|w| name.split(' ').any(|n| n == *w))
}

/// "One, two, three, four": a count that is told while the hand does it.
fn how_counted(text: &str) -> HowCounted {
    let low = text.to_lowercase();
    let mut words = low.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty());
    let aloud = ["one", "two", "three"].into_iter().all(|n| words.any(|w| w == n));
    if aloud || low.matches("one here").count() > 1 { HowCounted::CountedAloud } else { HowCounted::Said }
}

/// Glue never holds twice; whether a gasket does is the author's to say.
fn is_used_up(name: &str) -> bool {
    name.split(' ').any(|n| matches!(n, "adhesive" | "glue"))
}

fn drivers(fasteners: &[FastenerFact]) -> Vec<String> {
    fasteners.iter().filter_map(|f| f.drive).map(|d| format!("{} screwdriver", d.name())).collect()
}

const PART_LEAVES: u8 = 3;
const JOINT: u8 = 2;
const HAND: u8 = 1;

/// What a step does, in a few words, and how much that tells.
fn headline(source: &Source<'_>, statement: &Statement) -> Option<(u8, String)> {
    let facts = &statement.facts;
    let join = |names: Vec<&str>| match names.as_slice() {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and the {last}", first.join(", the ")),
    };
    for (op, verb) in [(PartOp::Remove, "Remove"), (PartOp::Install, "Fit")] {
        let names: Vec<&str> = facts.parts.iter().filter(|p| p.op == op).map(|p| p.what.as_str()).collect();
        if !names.is_empty() {
            return Some((PART_LEAVES, shortened(&format!("{verb} the {}", join(names)))));
        }
    }
    if let Some(heat) = facts.heat.iter().find_map(|h| h.target.as_deref()) {
        return Some((JOINT, format!("Heat the {heat}")));
    }
    if let Some(f) = facts.fasteners.first() {
        let verb = match f.op {
            FastenerOp::Remove => "Undo",
            FastenerOp::Loosen => "Loosen",
            FastenerOp::Install => "Drive",
            FastenerOp::Tighten => "Tighten",
        };
        let what = f.what.as_deref().map_or(String::new(), |w| format!(" of the {w}"));
        return Some((JOINT, format!("{verb} the screws{what}")));
    }
    if let Some(c) = facts.connectors.first() {
        let verb = if c.op == crate::reading::ConnectorOp::Disconnect { "Disconnect" } else { "Connect" };
        return Some((JOINT, c.what.as_deref().map_or(format!("{verb} the cable"), |w| format!("{verb} the {w}"))));
    }
    if let Some(title) = crate::reading::headline(statement, &source.reading.deeds) {
        return Some((HAND, shortened(&title)));
    }
    let act = facts.acts.iter().find(|a| !a.objects.is_empty())?;
    Some((HAND, shortened(&format!("{} the {}", act.act.word(), act.objects[0]))))
}

/// A spoken sentence as one reads it: a capital, a full stop.
fn sentence(text: &str) -> String {
    let text = capitalised(text.trim());
    if text.ends_with(['.', '!', '?', '…']) { text } else { format!("{text}.") }
}

fn shortened(text: &str) -> String {
    const WORDS: usize = 9;
    let words: Vec<&str> = text.split_whitespace().collect();
    let short = if words.len() > WORDS { format!("{} …", words[..WORDS].join(" ")) } else { words.join(" ") };
    let short = short.trim_end_matches('.');
    capitalised(&short.chars().take(MAX_TITLE).collect::<String>())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::recording::Recording;
    use uuid::Uuid;

    fn drafted(text: &str) -> Manual {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let reading = crate::reading::read(&recording);
        let source = Source {
            recording: RecordingRef {
                id: RecordingId(Uuid::nil()),
                title: "test".into(),
                duration_ms: recording.duration_ms(),
            },
            reading: &reading,
        };
        draft(ManualId(Uuid::nil()), "Lamp", "Lamp 1", &[source])
    }

    const LAMP: &str = "[0:00] Remove four Phillips PH1 screws, length 8 millimetres, from the base plate. Lift off the base plate.\n\n\
        [0:20] Caution. The glass splinters. Disconnect the battery cable. Pull out the battery.\n\n\
        [0:40] Put the battery back in. Put the base plate on and install three Phillips PH1 screws, length 8 millimetres, in the base plate.";

    #[rstest::rstest]
    #[case("Put them in a row.", Some(crate::manual::Stored::Row))]
    #[case("Lay the screws on the mat.", Some(crate::manual::Stored::Mat))]
    #[case("Put the plate on the mat.", None)]
    fn where_screws_are_kept_is_told(#[case] said: &str, #[case] stored: Option<crate::manual::Stored>) {
        let manual =
            drafted(&format!("[0:00] Remove four PH1 screws from the base plate. {said} Lift off the base plate."));
        assert_eq!(manual.fasteners.values().next().unwrap().stored, stored);
    }

    #[test]
    fn how_tight_is_told_behind_the_screws() {
        let manual = drafted(
            "[0:00] Remove four Phillips PH1 screws from the base plate. Lift off the base plate.\n\n\
            [0:20] Now the assembly. Put the base plate on and install four Phillips PH1 screws in the base plate. Tighten to 0.5 newton metres.",
        );
        let group = manual.fasteners.values().next().unwrap();
        let nm = group.torque.map(crate::units::in_newton_metres);
        assert_eq!((nm, group.torque_from), (Some(0.5), Some(crate::manual::TorqueFrom::Narrator)));
    }

    #[rstest::rstest]
    #[case("One, two, three, four screws.", HowCounted::CountedAloud)]
    #[case("One here and one here.", HowCounted::CountedAloud)]
    #[case("Remove three screws and then one more.", HowCounted::Said)]
    fn counting_aloud_is_told_from_saying(#[case] text: &str, #[case] how: HowCounted) {
        assert_eq!(super::how_counted(text), how);
    }

    #[test]
    fn steps_end_where_a_part_leaves() {
        let manual = drafted(LAMP);
        let titles: Vec<&str> = manual.steps_in(Phase::Teardown).iter().map(|s| s.title.as_str()).collect();
        assert_eq!(titles, ["Remove the base plate", "Remove the battery"]);
    }

    #[test]
    fn screws_going_back_join_the_group_that_came_out() {
        let manual = drafted(LAMP);
        let group = manual.fasteners.values().next().unwrap();
        assert_eq!(
            (manual.fasteners.len(), group.count, group.refitted, group.evidence.len()),
            (1, Some(4), Some(3), 2)
        );
    }

    #[test]
    fn cautions_stand_before_the_step_they_belong_to() {
        let manual = drafted(LAMP);
        let caution = manual.cautions.values().next().unwrap();
        assert_eq!(manual.steps[&caution.step].title, "Remove the battery");
    }

    #[test]
    fn everything_drafted_has_evidence_and_nothing_is_reviewed() {
        let manual = drafted(LAMP);
        assert!(manual.steps.values().all(|s| !s.evidence.is_empty() && !s.reviewed));
        assert!(manual.fasteners.values().all(|g| !g.evidence.is_empty()));
        assert_eq!(manual, drafted(LAMP));
    }

    #[test]
    fn the_battery_brings_the_power() {
        let manual = drafted(LAMP);
        assert!(manual.connectors.values().next().unwrap().power);
    }
}
