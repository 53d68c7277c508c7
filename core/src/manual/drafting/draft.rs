//! From readings to a whole manual at once.
//!
//! Nothing *needs* accepting: a draft is complete, and what nobody has reviewed is counted. Steps and sentences come from
//! the deeds ([`super::row`]); screws, connectors, heat and warnings from the facts of the statements, which hang on the
//! step that tells of them. Every step, count and setting carries the seconds it came from.

use super::connectors::kind_told;
use super::device::DeviceTold;
use super::fit::fit;
use super::opening::{self, OpeningTold};
use super::own_words::{own_words, sentence};
use super::row::{Home, Row};
use super::told_order::ToldOrder;
use crate::ids::IdMaker;
use crate::labels::Label as _;
use crate::manual::edits::refusal::MAX_TITLE;
use crate::manual::model::steps::rank_between;
use crate::manual::*;
use crate::reading::{
    self, Act, ConnectorFact, Consumable, Deed, Drive, FastenerFact, FastenerOp, Half, HeatFact, Mark, PartFact,
    PartOp, Reading, ScrewGroup, Spelling, Statement, StatementKind, Whereabouts,
};
use crate::things;
use crate::units::{Measure, Quantity, Span, celsius, seconds};

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
        told_order: ToldOrder::default(),
        device: DeviceTold::default(),
        opening: OpeningTold::default(),
        warned_of: String::new(),
        last_group: None,
        spelling: Spelling::default(),
    };
    for source in sources {
        drafter.manual.recordings.insert(source.recording.id, source.recording.clone());
        drafter.read(source);
    }
    fit(drafter.finish())
}

struct Drafter {
    manual: Manual,
    ids: IdMaker,
    told_order: ToldOrder,
    device: DeviceTold,
    opening: OpeningTold,
    /// Warnings in the breath of the statement in hand: "pull the plug and not the wires".
    warned_of: String,
    /// The screws spoken of last: "tighten to …" alone means them.
    last_group: Option<GroupId>,
    /// Capitals of the recording in hand.
    spelling: Spelling,
}

impl Drafter {
    fn read(&mut self, source: &Source<'_>) {
        let statements = &source.reading.statements;
        self.spelling.clone_from(&source.reading.spelling);
        for statement in statements {
            let evidence = evidence(source, statement);
            self.told_order.listen(statement, &evidence);
            self.device.listen(statement, &evidence);
        }
        let mut row = Row::default();
        for group in super::row::groups(source.reading) {
            self.step(source, &group, &mut row);
        }
        // What was tried in vain is no step.
        for (n, statement) in statements.iter().enumerate().filter(|(_, s)| !s.marks.contains(&Mark::DeadEnd)) {
            let evidence = evidence(source, statement);
            if tells_facts(statement) {
                self.warned_of = warnings_beside(source.reading, statement);
                self.facts(statement, &evidence, &mut row);
            }
            if !reading::is_reason(statements, n) {
                self.warning(source, n, &mut row);
            }
            let warns = statement.kind == StatementKind::Caution;
            let home = if warns { row.warned(statement) } else { row.home(statement).map(|h| h.step) };
            if let Some(step) = home {
                self.opening.listen(step, statement, &evidence);
            }
        }
    }

    /// A step of the deeds, sentence by sentence.
    fn step(&mut self, source: &Source<'_>, group: &[Deed], row: &mut Row) {
        let phase = match group[0].half {
            Half::Apart => Phase::Teardown,
            Half::Together => Phase::Rebuild,
            // A trial stands in the half that it was made in.
            Half::Check => row.last_phase(),
        };
        let id = self.begin(phase, self.spelling.put(&shortened(&reading::title(group))));
        if let Some(step) = self.manual.steps.get_mut(&id) {
            step.trial = group[0].half == Half::Check;
        }
        for deed in group {
            let statement = super::row::told_in(source.reading, deed);
            let evidence = statement.map_or_else(|| told_alone(source, deed), |s| evidence(source, s));
            let mut parts: Vec<PartId> = Vec::new();
            for name in deed.moved() {
                let part = self.part(name, &evidence);
                if !parts.contains(&part) {
                    parts.push(part);
                }
            }
            // An order of one act reads well as it was said, and says more.
            let own = statement.filter(|s| alone_in(source.reading, s));
            let own = own.and_then(|s| own_words(&s.put_right(), deed)).map(|words| self.spelling.put(&words));
            let action = Action {
                id: self.ids.make(ActionId),
                act: statement.map_or(deed.act, |s| act_told(deed, s)),
                roles: roles(deed, &self.names_of(&parts), &self.spelling),
                parts,
                said: own.is_some(),
                text: own,
                doubt: None,
                evidence: vec![evidence],
            };
            self.add(id, action);
            self.done_with(id, deed);
            row.push(deed, id, phase);
        }
    }

    /// The tool of an act lies ready at its step, whatever kind of statement tells it: "Pull on the tag with the tweezers, not
    /// on the wire." Drivers follow from their screws, where it is known what turns these.
    fn done_with(&mut self, step: StepId, deed: &Deed) {
        let material = |name: &str| Consumable::ALL.iter().any(|c| c.name() == name);
        let follows = |name: &str| deed.drive.is_some() && Drive::of_driver(name).is_some();
        let tool = deed.by.as_deref().filter(|name| !material(name) && !follows(name)).map(Drive::tool_words);
        let Some(step) = self.manual.steps.get_mut(&step) else { return };
        step.tools.extend(tool.filter(|name| !step.tools.contains(name)));
    }

    /// An empty step behind those of its phase.
    fn begin(&mut self, phase: Phase, title: String) -> StepId {
        let last = self.manual.steps_in(phase).last().map(|s| s.rank.clone());
        let step = Step::new(self.ids.make(StepId), phase, rank_between(last.as_deref(), None), title);
        let id = step.id;
        self.manual.steps.insert(id, step);
        id
    }

    /// A sentence where its words stand among the others of the step.
    fn add(&mut self, step: StepId, action: Action) {
        let Some(step) = self.manual.steps.get_mut(&step) else { return };
        let start = |a: &Action| match a.evidence.first() {
            Some(Evidence::Recording { start, .. }) => *start,
            _ => 0,
        };
        for evidence in &action.evidence {
            if !step.evidence.contains(evidence) {
                step.evidence.push(evidence.clone());
            }
        }
        let at = step.actions.iter().position(|a| start(a) > start(&action)).unwrap_or(step.actions.len());
        step.actions.insert(at, action);
    }

    /// What a statement tells of screws, connectors, heat and tools, at the step that tells of it.
    fn facts(&mut self, statement: &Statement, evidence: &Evidence, row: &mut Row) {
        let home = row.home(statement);
        let told = matches!(home, Some(Home { here: true, .. }));
        let more = !told && stands_for_itself(statement);
        let (step, phase) = match home {
            Some(home) => (home.step, home.phase),
            None if more => {
                let phase = if statement.rebuild { Phase::Rebuild } else { Phase::Teardown };
                let id = self.begin(phase, shortened(&statement.text));
                row.put(statement, id, phase);
                (id, phase)
            }
            None => return,
        };
        let parts = self.parts_of(statement, evidence);
        if more && !self.told_again(step, statement) && !self.fills(step, statement, evidence) {
            let action = self.told_by_itself(statement, evidence, &parts);
            self.add(step, action);
        }
        let (mut groups, mut driven) = (Vec::new(), Vec::new());
        for f in &statement.facts.fasteners {
            // The deed knows what screws hold from all that was said before; the statement only from its own words.
            let held = self.held(step, f, evidence);
            let fact = FastenerFact { what: held.or(f.what.clone()), ..f.clone() };
            if phase == Phase::Rebuild
                && let Some(group) = [&fact, f].into_iter().find_map(|f| self.refit(f, evidence))
            {
                driven.push(group);
                continue;
            }
            groups.push(self.fastener(&fact, step, evidence, how_counted(&statement.text)));
        }
        self.turned(step, &groups, evidence);
        self.driven(step, &driven, evidence);
        self.tightness(statement, evidence);
        self.stored(statement);
        for c in statement.facts.connectors.iter().filter(|_| phase == Phase::Teardown) {
            self.connector(c, &statement.text, step, evidence);
        }
        for h in &statement.facts.heat {
            self.heat(h, step, evidence);
        }
        self.seam(statement, step, parts.first().copied(), evidence);
        let Some(step) = self.manual.steps.get_mut(&step) else { return };
        let tools = statement
            .facts
            .tools
            .iter()
            .chain(drivers(&statement.facts.fasteners).iter())
            .map(|t| Drive::tool_words(t))
            .collect::<Vec<_>>();
        for tool in tools {
            if !step.tools.contains(&tool) {
                step.tools.push(tool);
            }
        }
        for consumable in &statement.facts.consumables {
            if !step.consumables.contains(consumable) {
                step.consumables.push(*consumable);
            }
        }
    }

    /// "… and pry the ring off. Remove the ring.": the deeds count that as one, and so does the step.
    fn told_again(&self, step: StepId, statement: &Statement) -> bool {
        let Some(told) = statement.facts.acts.first() else { return false };
        let names = |a: &Action| {
            let words = self.manual.sentence(a).to_lowercase();
            told.objects.iter().any(|o| words.contains(&o.to_lowercase()))
        };
        self.manual.steps.get(&step).is_some_and(|s| s.actions.iter().any(|a| a.act == told.act && names(a)))
    }

    fn names_of(&self, parts: &[PartId]) -> Vec<String> {
        parts.iter().map(|p| self.manual.part_name(*p).to_owned()).collect()
    }

    /// The sentence of a statement that no deed was read from: screws by their facts, else the speech.
    fn told_by_itself(&mut self, statement: &Statement, evidence: &Evidence, parts: &[PartId]) -> Action {
        let facts = match &statement.facts.fasteners[..] {
            [group] if !reading::is_order(&statement.text) && statement.doubts.is_empty() => Some(group),
            _ => None,
        };
        let roles = Roles {
            things: facts.and_then(|f| f.what.clone()).into_iter().collect(),
            screws: facts.map(sized).into_iter().collect(),
            measures: statement.facts.measures.iter().filter(|m| m.quantity == Quantity::Torque).cloned().collect(),
            ..Roles::default()
        };
        // "Back cover on." is no order; what it tells is worded.
        let told = !statement.facts.acts.is_empty() && !parts.is_empty() && statement.doubts.is_empty();
        let own = facts.is_none() && (reading::is_order(&statement.text) || !told);
        Action {
            id: self.ids.make(ActionId),
            act: facts.map_or_else(|| act_of(statement), |f| turning(f.op)),
            parts: if facts.is_some() { Vec::new() } else { parts.to_vec() },
            roles,
            text: own.then(|| sentence(&statement.put_right())),
            said: own,
            doubt: doubt(statement),
            evidence: vec![evidence.clone()],
        }
    }

    /// What the screws of a fact hold, by the one sentence that turns them.
    fn held(&self, step: StepId, fact: &FastenerFact, evidence: &Evidence) -> Option<String> {
        let tells = |a: &&Action| a.act == turning(fact.op) && a.evidence.contains(evidence);
        let mut row = self.manual.steps.get(&step)?.actions.iter().filter(tells);
        let one = row.next().filter(|_| row.next().is_none())?;
        one.roles.things.first().filter(|t| !matches!(t.as_str(), "screws" | "part" | "parts")).cloned()
    }

    /// The sentences that turn screws tell of their groups: of one group each where there are as many, else one of all.
    fn turned(&mut self, step: StepId, groups: &[GroupId], evidence: &Evidence) {
        let manual = &mut self.manual;
        let Some(step) = manual.steps.get_mut(&step) else { return };
        for op in [FastenerOp::Remove, FastenerOp::Loosen] {
            let told: Vec<GroupId> = groups.iter().filter(|g| manual.fasteners[g].op == op).copied().collect();
            let tells = |a: &&mut Action| a.act == turning(op) && a.evidence.contains(evidence);
            let mut sentences: Vec<&mut Action> = step.actions.iter_mut().filter(tells).collect();
            match &mut sentences[..] {
                // Sizes that the facts do not know stay as they were told.
                [one] if told.len() < one.roles.screws.len() => {}
                [one] => {
                    if let ([group], [screws]) = (&told[..], &one.roles.screws[..])
                        && let Some(group) = manual.fasteners.get_mut(group)
                    {
                        complete(group, screws);
                    }
                    one.roles.groups.extend(told);
                }
                row if row.len() == told.len() => {
                    row.iter_mut().zip(told).for_each(|(a, g)| a.roles.groups.push(g));
                }
                _ => {}
            }
        }
    }

    /// Sentences that drive screws tell of the groups that came out, as far as it is clear which sentence drives which.
    fn driven(&mut self, step: StepId, groups: &[GroupId], evidence: &Evidence) {
        let Some(told) = self.manual.steps.get_mut(&step) else { return };
        let drives = |a: &&mut Action| matches!(a.act, Act::Drive | Act::Tighten) && a.evidence.contains(evidence);
        let mut sentences: Vec<&mut Action> = told.actions.iter_mut().filter(drives).collect();
        if sentences.is_empty() {
            return self.driven_before(step, groups, evidence);
        }
        match &mut sentences[..] {
            [one] => one.roles.groups.extend_from_slice(groups),
            row if row.len() == groups.len() => row.iter_mut().zip(groups).for_each(|(a, g)| a.roles.groups.push(*g)),
            _ => {}
        }
    }

    /// "Three at the top, 12 millimetres. Two of the 25s.": one deed that several sentences tell. Each drives its own screws;
    /// only the first stand at the top.
    fn driven_before(&mut self, step: StepId, groups: &[GroupId], evidence: &Evidence) {
        for id in groups {
            let group = &self.manual.fasteners[id];
            let told = |s: &ScrewGroup| s.count == group.refitted && s.count.is_some() && same_length(s, group);
            let all = |a: &&mut Action| a.act == Act::Drive && a.roles.screws.iter().any(told);
            let row = self.manual.steps.get_mut(&step).into_iter().flat_map(|s| &mut s.actions);
            let Some(action) = row.rev().find(all) else { continue };
            action.roles.screws.retain(|s| !told(s));
            let roles = Roles {
                things: action.roles.things.clone(),
                by: action.roles.by.clone(),
                groups: vec![*id],
                ..Roles::default()
            };
            let one = Action {
                id: self.ids.make(ActionId),
                act: Act::Drive,
                parts: action.parts.clone(),
                roles,
                said: false,
                text: None,
                doubt: None,
                evidence: vec![evidence.clone()],
            };
            self.add(step, one);
        }
    }

    /// "Undo the screws of the cover." gets the count and size that are told beside it; so nothing is told twice.
    fn fills(&mut self, step: StepId, statement: &Statement, evidence: &Evidence) -> bool {
        let [group] = &statement.facts.fasteners[..] else { return false };
        let Some(step) = self.manual.steps.get_mut(&step) else { return false };
        let told = |s: &ScrewGroup| s.count.is_some() && s.count != group.count;
        let open = |a: &&mut Action| {
            let unplaced = a.roles.things.is_empty() || a.roles.screws.iter().all(|s| s.count.is_none());
            a.act == turning(group.op) && a.roles.groups.is_empty() && unplaced && !a.roles.screws.iter().any(told)
        };
        let Some(action) = step.actions.iter_mut().find(open).filter(|_| group.count.is_some()) else { return false };
        action.corrected();
        action.roles.screws = vec![sized(group)];
        action.evidence.push(evidence.clone());
        step.evidence.push(evidence.clone());
        true
    }

    /// A caution stands at the step that it is told for, before the work.
    fn warning(&mut self, source: &Source<'_>, at: usize, row: &mut Row) {
        let statements = &source.reading.statements;
        let statement = &statements[at];
        let Some(about) = reading::subject_at(statements, at).filter(|_| reading::warns(statement)) else { return };
        let Some(step) = row.warned(statement) else { return };
        let text = reading::caution_at(statements, at);
        let said = statements[reading::breaths(statements, at)].iter().map(|s| evidence(source, s));
        // Said twice for one step, it is read once.
        if let Some(same) = self.manual.cautions.values_mut().find(|c| c.step == step && c.text == text) {
            same.evidence.extend(said);
            return;
        }
        let id = self.ids.make(CautionId);
        let caution = Caution { id, step, about, hazard: None, text, level: None, evidence: said.collect() };
        self.manual.cautions.insert(id, caution);
    }

    fn part(&mut self, name: &str, evidence: &Evidence) -> PartId {
        let same = self.manual.parts.values_mut().find(|p| p.name.eq_ignore_ascii_case(name));
        if let Some(part) = same {
            part.evidence.push(evidence.clone());
            return part.id;
        }
        let id = self.ids.make(PartId);
        let part = Part::new(id, self.spelling.put(name), vec![evidence.clone()]);
        self.manual
            .parts
            .insert(id, Part { power_source: things::source(name).is_some(), single_use: is_used_up(name), ..part });
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

    fn fastener(&mut self, fact: &FastenerFact, step: StepId, evidence: &Evidence, how: HowCounted) -> GroupId {
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
        let id = group.id;
        self.last_group = Some(id);
        self.manual.fasteners.insert(id, group);
        id
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
    fn refit(&mut self, fact: &FastenerFact, evidence: &Evidence) -> Option<GroupId> {
        let what = fact.what.as_ref()?;
        let part = self.manual.parts.values().find(|p| p.name.eq_ignore_ascii_case(what)).map(|p| p.id)?;
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
        let at = exact.or((!groups.is_empty()).then_some(0))?;
        let group = &mut groups[at];
        group.refitted = fact.count;
        self.last_group = Some(group.id);
        group.evidence.push(evidence.clone());
        Some(group.id)
    }

    fn connector(&mut self, fact: &ConnectorFact, said: &str, step: StepId, evidence: &Evidence) {
        let serves = fact.what.as_ref().map(|w| self.part(w, evidence));
        let id = self.ids.make(ConnectorId);
        self.manual.connectors.insert(
            id,
            Connector {
                serves,
                kind: kind_told(said).or_else(|| kind_told(&self.warned_of)),
                power: fact.what.as_deref().is_some_and(things::feeds),
                ..Connector::new(id, step, vec![evidence.clone()])
            },
        );
    }

    fn heat(&mut self, fact: &HeatFact, step: StepId, evidence: &Evidence) {
        let target = fact.target.as_ref().map(|t| self.part(t, evidence));
        let id = self.ids.make(HeatId);
        let row = self.manual.steps.get_mut(&step).into_iter().flat_map(|s| &mut s.actions);
        let mut warms = row.filter(|a| a.act == Act::Heat && a.evidence.contains(evidence));
        let (mut temperature, mut dwell) = (fact.temperature, fact.dwell);
        if let (Some(action), None) = (warms.next(), warms.next()) {
            action.roles.heats.push(id);
            // The setting stands for both from here on, so it takes what only the deed knew.
            let told = |q: Quantity| action.roles.measures.iter().find(|m| m.quantity == q);
            let ends = |m: &Measure| (m.value, m.to.unwrap_or(m.value));
            temperature = temperature
                .or(told(Quantity::Temperature).map(ends).map(|(a, b)| Span { low: celsius(a), high: celsius(b) }));
            dwell =
                dwell.or(told(Quantity::Duration).map(ends).map(|(a, b)| Span { low: seconds(a), high: seconds(b) }));
        }
        self.manual.heats.insert(
            id,
            Heat {
                id,
                step,
                source: fact.source,
                target,
                temperature,
                dwell,
                from: temperature.map(|_| HeatFrom::Narrator),
                evidence: vec![evidence.clone()],
            },
        );
    }

    /// A joint that is opened; what holds it is told by the words beside it. All that a step tells of one part is one joint.
    fn seam(&mut self, statement: &Statement, step: StepId, part: Option<PartId>, evidence: &Evidence) {
        let Some(kind) = opening::opens(statement).filter(|_| !statement.rebuild) else { return };
        let same = |s: &&mut Seam| s.step == step && (s.part == part || s.part.is_none() || part.is_none());
        if let Some(seam) = self.manual.seams.values_mut().find(same) {
            seam.part = seam.part.or(part);
            // Glue is what is taken where nothing was said.
            if seam.kind == SeamKind::Glue {
                seam.kind = kind;
            }
            seam.evidence.push(evidence.clone());
            return;
        }
        let id = self.ids.make(SeamId);
        self.manual.seams.insert(
            id,
            Seam {
                id,
                step,
                kind,
                part,
                face: None,
                marks: Vec::new(),
                swing: None,
                posture: None,
                rebond: None,
                depth: None,
                heating: None,
                note: None,
                evidence: vec![evidence.clone()],
            },
        );
    }

    fn finish(mut self) -> Manual {
        std::mem::take(&mut self.told_order).settle(&mut self.manual, || self.ids.make(RequirementId));
        std::mem::take(&mut self.device).settle(&mut self.manual, &mut self.ids);
        std::mem::take(&mut self.opening).settle(&mut self.manual, &mut self.ids);
        self.manual
    }
}

/// What is warned of in the segments that a statement stands in.
fn warnings_beside(reading: &Reading, statement: &Statement) -> String {
    let from = reading.statements.partition_point(|s| s.last_cue < statement.cue);
    let beside = reading.statements[from..].iter().take_while(|s| s.cue <= statement.last_cue);
    let warns = beside.filter(|s| s.kind == StatementKind::Caution);
    warns.map(|s| s.text.as_str()).collect::<Vec<_>>().join(" ")
}

fn evidence(source: &Source<'_>, statement: &Statement) -> Evidence {
    Evidence::Recording {
        recording: source.recording.id,
        start: statement.start,
        end: statement.end,
        from_ms: statement.from_ms,
        to_ms: statement.to_ms,
    }
}

/// A deed between statements.
fn told_alone(source: &Source<'_>, deed: &Deed) -> Evidence {
    let (recording, start, end) = (source.recording.id, deed.start, deed.end);
    Evidence::Recording { recording, start, end, from_ms: None, to_ms: None }
}

/// Work, or screws that are shown.
fn tells_facts(statement: &Statement) -> bool {
    match statement.kind {
        StatementKind::Action | StatementKind::Test => true,
        StatementKind::Observation => !statement.facts.fasteners.is_empty(),
        _ => false,
    }
}

/// No deed was read from it, and yet it surely tells work: a trial, screws, heat, an order, or words whose meaning decides
/// over safety, which stand as they were said.
fn stands_for_itself(statement: &Statement) -> bool {
    let facts = &statement.facts;
    matches!(statement.kind, StatementKind::Action | StatementKind::Test)
        && (statement.kind == StatementKind::Test && reading::is_order(&statement.text)
            || !facts.fasteners.is_empty()
            || !facts.heat.is_empty()
            || !statement.doubts.is_empty()
            // A warning stands before the step already.
            || reading::is_order(&statement.text)
                && !facts.acts.is_empty()
                && facts.cautions.is_empty()
                && !is_one_word(&statement.text)
                && !puts_aside(&statement.text))
}

/// "Pop.", "Pull.": said with the hands; nobody could follow it.
fn is_one_word(text: &str) -> bool {
    text.split_whitespace().nth(1).is_none()
}

/// "Put those aside.", "Set it to one side.": what is out lies on the bench; the step has said so.
fn puts_aside(text: &str) -> bool {
    let words = things::words(text);
    let has = |list: &[&str]| words.iter().any(|w| list.contains(&w.as_str()));
    let away = words.ends_with(&["aside".to_owned()])
        || words.ends_with(&["side".to_owned()]) && has(&["to"]) && has(&["the", "one"]);
    has(&["put", "set", "lay", "move"])
        && has(&["it", "that", "those", "these", "them", "this"])
        && away
        && words.len() <= 7
}

/// The first word of a statement that can hardly have been meant.
fn doubt(statement: &Statement) -> Option<WordDoubt> {
    let found = statement.doubts.first()?.clone();
    Some(WordDoubt { heard: found.heard, evident: found.evident, because: found.because })
}

/// What a sentence keeps of a deed beside its act and the parts that it moves.
fn roles(deed: &Deed, parts: &[String], spelling: &Spelling) -> Roles {
    let known = |w: &&String| parts.iter().any(|p| p.eq_ignore_ascii_case(w));
    Roles {
        things: deed.what.iter().filter(|w| !known(w)).map(|w| spelling.put(w)).collect(),
        screws: deed.screws(),
        by: deed.by.clone(),
        places: deed.places.iter().map(|p| Whereabouts { thing: spelling.put(&p.thing), ..p.clone() }).collect(),
        // Everybody is careful already: what to take care of stands in the cautions.
        manner: deed.manner.iter().filter(|m| things::vague_care(m).is_none()).cloned().collect(),
        condition: deed.condition.as_ref().map(|c| spelling.put(c)),
        until: deed.until.as_ref().map(|u| spelling.put(u)),
        measures: deed.measures.clone(),
        ..Roles::default()
    }
}

fn sized(f: &FastenerFact) -> ScrewGroup {
    let length_mm = f.length.map(crate::units::in_millimetres);
    ScrewGroup { count: f.count, drive: f.drive, bit: f.bit.clone(), length_mm }
}

fn same_length(told: &ScrewGroup, group: &FastenerGroup) -> bool {
    told.length_mm.map(crate::units::millimetres) == group.length
}

/// The group stands for the figures of its sentence from here on, so it takes what only the deed knew.
fn complete(group: &mut FastenerGroup, told: &ScrewGroup) {
    group.count = group.count.or(told.count);
    group.drive = group.drive.or(told.drive);
    group.bit = group.bit.take().or(told.bit.clone());
    group.length = group.length.or(told.length_mm.map(crate::units::millimetres));
}

fn turning(op: FastenerOp) -> Act {
    match op {
        FastenerOp::Remove => Act::Unscrew,
        FastenerOp::Loosen => Act::Loosen,
        FastenerOp::Install => Act::Drive,
        FastenerOp::Tighten => Act::Tighten,
    }
}

/// The act of a deed. What was peeled off has glue to renew: the rebuild must know.
fn act_told(deed: &Deed, statement: &Statement) -> Act {
    let peels = statement.facts.acts.iter().any(|a| a.act == Act::Peel);
    if deed.act == Act::Remove && deed.half == Half::Apart && peels { Act::Peel } else { deed.act }
}

/// Whether a statement tells one deed.
fn alone_in(reading: &Reading, statement: &Statement) -> bool {
    let from = reading.deeds.partition_point(|d| d.start < statement.start);
    reading.deeds[from..].iter().take_while(|d| d.start < statement.end).count() == 1
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

fn shortened(text: &str) -> String {
    const WORDS: usize = 9;
    let words: Vec<&str> = text.split_whitespace().collect();
    let short = if words.len() > WORDS { format!("{} …", whole_end(&words[..WORDS])) } else { words.join(" ") };
    let short = short.trim_end_matches('.');
    capitalised(&short.chars().take(MAX_TITLE).collect::<String>())
}

/// Words up to one that can end a title: not "the fan, the lamp and the".
fn whole_end(words: &[&str]) -> String {
    let open =
        |w: &&&str| matches!(**w, "and" | "or" | "the" | "a" | "an" | "of" | "with" | "from" | "to" | "in" | "on");
    let rest = words.iter().rev().take_while(open).count();
    words[..words.len() - rest].join(" ").trim_end_matches(',').to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual as drafted;
    use rstest::rstest;

    #[rstest]
    #[case::short("Lift the lid.", "Lift the lid")]
    #[case::at_a_whole_end(
        "Connect the touch connector, the display connector and the camera connector.",
        "Connect the touch connector, the display connector …"
    )]
    fn a_long_title_is_cut_where_it_can_end(#[case] text: &str, #[case] wanted: &str) {
        assert_eq!(shortened(text), wanted);
    }

    #[rstest]
    #[case::an_act("Pull the flex out with tweezers.", &["tweezers"])]
    #[case::a_warning("Pull on the tag with the tweezers, not on the wire.", &["tweezers"])]
    #[case::a_material_is_no_tool("Clean the rim with isopropyl alcohol.", &[])]
    fn what_an_act_is_done_with_lies_ready_at_its_step(#[case] said: &str, #[case] wanted: &[&str]) {
        let manual = drafted(&format!("[0:00] {said}"));
        let tools: Vec<&str> = manual.steps.values().flat_map(|s| &s.tools).map(String::as_str).collect();
        assert_eq!(tools, wanted);
    }

    /// Both seconds stand behind the words, and what only gives the reason is no caution of its own.
    #[test]
    fn a_caution_has_the_reasons_told_beside_it_and_their_seconds() {
        let manual = drafted(
            "[0:00] Lift off the rear lid. Do not pull on the wires. They tear. Then take out the pump. Do not pull on the wires. They tear.",
        );
        let told: Vec<(&str, usize)> = manual.cautions.values().map(|c| (&c.text[..], c.evidence.len())).collect();
        assert_eq!(told, [("Do not pull on the wires. They tear.", 4)]);
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

    #[rstest::rstest]
    // A doubted word: the statement speaks for itself.
    #[case("[0:00] Take off the lid. This connect the battery plug. Take out the battery.", &["Remove the lid", "Remove the battery"])]
    #[case("[0:00] Take off the lid. Switch the lamp off. Take out the fan.", &["Remove the lid", "Switch off the lamp", "Remove the fan"])]
    #[case("[0:00] Undo two screws of the lid. Take off the lid. Turn the lamp over. Take out the fan.", &["Remove the lid", "Remove the fan"])]
    fn steps_are_those_of_the_deeds(#[case] told: &str, #[case] titles: &[&str]) {
        let manual = drafted(told);
        assert_eq!(manual.steps_in(Phase::Teardown).iter().map(|s| s.title.as_str()).collect::<Vec<_>>(), titles);
    }

    #[test]
    fn each_act_is_a_sentence_with_its_evidence() {
        let manual = drafted("[0:00] Undo two screws of the lid and take the lid off, then we unplug the fan cable.");
        let step = manual.steps_in(Phase::Teardown)[0];
        let sentences: Vec<String> = step.actions.iter().map(|a| manual.sentence(a)).collect();
        assert_eq!(sentences, ["Undo the two screws of the lid.", "Remove the lid."]);
        assert!(step.actions.iter().all(|a| a.evidence.len() == 1));
        // Only what moves a part names it: the rebuild undoes the others from their own records.
        assert_eq!(step.actions.iter().map(|a| a.parts.len()).collect::<Vec<_>>(), [0, 1]);
    }

    #[test]
    fn screws_counted_beside_their_deed_are_told_once() {
        let manual = drafted(
            "[0:00] Take the bowl off. There's one screw here, one here and one here.\n\n[0:05] So three screws Phillips one \
            and they're twelve millimetres long.\n\n[0:10] They hold the bottom cover. Take the bottom cover off.",
        );
        let all: Vec<String> = manual.steps.values().flat_map(|s| &s.actions).map(|a| manual.sentence(a)).collect();
        assert_eq!(all.iter().filter(|t| t.contains("screw")).count(), 1, "{all:?}");
    }

    #[test]
    fn an_order_that_no_deed_was_read_from_stands_as_it_was_said() {
        let manual = drafted("[0:00] Take off the lid. Check that nothing rattles. Take out the fan.");
        let all: Vec<String> = manual.steps.values().flat_map(|s| &s.actions).map(|a| manual.sentence(a)).collect();
        assert!(all.iter().any(|s| s == "Check that nothing rattles."), "{all:?}");
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
