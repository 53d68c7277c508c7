//! Where a recording contradicts itself: the typed findings of the reader as rules, with the ways out.
//!
//! The reader says what does not agree and where; it needs that for its fact sheet. Here each kind becomes a rule with a
//! reason, a source and fixes. What an author decided of one (see `Settled`) sets it aside.

mod caution_lost;
mod count_contradicted;
mod house_name;
mod house_word;
mod job_offered;
mod left_out;
mod order_contradicted;
mod posture_told_late;
mod side_contradicted;
mod size_contradicted;
mod told_twice;
mod tool_told_late;
mod unit_contradicted;
#[cfg(test)]
mod written;

use crate::finding::{Finding, Fix, Rule, Subject};
use crate::ids::*;
use crate::manual::{CorrectedReading, Edit, Evidence, House, Manual, ReadingEdit};
use crate::reading::{Contradiction, DiscrepancyKind, Facts, Statement};
use std::collections::BTreeSet;
use uuid::Uuid;

/// One contradiction with the statements it stands in.
struct Clash<'a> {
    manual: &'a Manual,
    recording: RecordingId,
    statements: &'a [Statement],
    found: &'a Contradiction,
}

/// A rule with the presses that end a contradiction of its kind.
type ListenRule = (&'static Rule, fn(&Clash<'_>) -> Vec<Fix>);

fn rule_of(kind: DiscrepancyKind) -> ListenRule {
    match kind {
        DiscrepancyKind::Count => (&count_contradicted::RULE, count_contradicted::fixes),
        DiscrepancyKind::Size => (&size_contradicted::RULE, size_contradicted::fixes),
        DiscrepancyKind::Unit => (&unit_contradicted::RULE, unit_contradicted::fixes),
        DiscrepancyKind::Side => (&side_contradicted::RULE, side_contradicted::fixes),
        DiscrepancyKind::Order => (&order_contradicted::RULE, order_contradicted::fixes),
        DiscrepancyKind::Repeat => (&told_twice::RULE, told_twice::fixes),
        DiscrepancyKind::Omitted => (&left_out::RULE, left_out::fixes),
        DiscrepancyKind::LateTool => (&tool_told_late::RULE, tool_told_late::fixes),
        DiscrepancyKind::LatePosture => (&posture_told_late::RULE, posture_told_late::fixes),
    }
}

/// Every rule of recordings: one a kind of contradiction, and what is offered.
pub(super) fn rules() -> impl Iterator<Item = &'static Rule> {
    use crate::labels::Label;
    DiscrepancyKind::ALL.iter().map(|kind| rule_of(*kind).0).chain([
        &job_offered::RULE,
        &house_word::RULE,
        &house_name::RULE,
        &caution_lost::RULE,
    ])
}

/// All contradictions of one recording, what it offers and what the house put right elsewhere, under what the author
/// decided.
pub fn findings(manual: &Manual, read: &CorrectedReading, house: &House) -> Vec<Finding> {
    let statements = &read.reading.statements;
    let of = |found: &Contradiction| {
        let (rule, fixes) = rule_of(found.kind);
        let clash = Clash { manual, recording: read.recording, statements, found };
        let at = &statements[found.at];
        let settled = manual.settled.values().find(|s| s.fits(read.recording, found.kind, at, clash.against()));
        let about = [Some(found.at), found.against].into_iter().flatten().map(|i| clash.words(i)).collect();
        let finding = rule.finding_about(about, found.says.clone()).with(fixes(&clash));
        // What no sentence of the guide rests on misleads nobody.
        let blocks = finding.blocks && settled.is_none() && clash.reaches(manual);
        Finding { blocks, set_aside: settled.map(|s| s.how.clone()), ..finding }
    };
    // What is no part of the job contradicts nothing.
    let dropped = |i: usize| manual.correction_of(read.recording, &read.raw[i]).is_some_and(|c| c.dropped);
    // What lies on the list by now is no surprise any more.
    let listed = |found: &Contradiction| {
        found.kind == DiscrepancyKind::LateTool
            && tool_told_late::is_listed(&Clash { manual, recording: read.recording, statements, found })
    };
    let counts = |found: &&Contradiction| !dropped(found.at) && !found.against.is_some_and(dropped) && !listed(found);
    // Two statements that contradict each other do so once, from whichever side it was found.
    let mut told = BTreeSet::new();
    let once = |found: &&Contradiction| {
        let against = found.against.unwrap_or(found.at);
        told.insert((found.kind, found.at.min(against), found.at.max(against), found.says.clone()))
    };
    let offered = job_offered::find(manual, read);
    let lost = caution_lost::find(manual, read);
    let of_house = house_word::find(manual, read, house).chain(house_name::find(manual, read, house));
    read.reading
        .contradictions
        .iter()
        .filter(counts)
        .filter(once)
        .map(of)
        .chain(offered)
        .chain(of_house)
        .chain(lost)
        .collect()
}

/// So much of what was said as stands on a press.
fn shortened(text: &str) -> String {
    const MAX_CHARS: usize = 40;
    let end = text.char_indices().nth(MAX_CHARS);
    end.map_or(text.to_owned(), |(i, _)| format!("{} …", text[..i].trim_end()))
}

impl Clash<'_> {
    fn words(&self, statement: usize) -> Subject {
        let s = &self.statements[statement];
        Subject::Words { recording: self.recording, start: s.start, end: s.end }
    }

    fn at(&self) -> &Statement {
        &self.statements[self.found.at]
    }

    fn against(&self) -> Option<&Statement> {
        self.found.against.map(|i| &self.statements[i])
    }

    /// Whether a step, its screws or its heat rest on either side.
    fn reaches(&self, manual: &Manual) -> bool {
        let sides: Vec<(usize, usize)> =
            [Some(self.at()), self.against()].into_iter().flatten().map(|s| (s.start, s.end)).collect();
        let rests = |e: &Evidence| {
            e.span_in(self.recording).is_some_and(|(start, end)| sides.iter().any(|(s, t)| start < *t && *s < end))
        };
        manual.steps.values().flat_map(|s| &s.evidence).any(rests)
            || manual.fasteners.values().flat_map(|g| &g.evidence).any(rests)
            || manual.heats.values().flat_map(|h| &h.evidence).any(rests)
    }

    /// The same choice has the same id, however often it is offered.
    fn id(&self, label: &str) -> CorrectionId {
        let name = format!("{:?}/{}/{}/{label}", self.found.kind, self.at().start, self.at().end);
        CorrectionId(Uuid::new_v5(&self.recording.0, name.as_bytes()))
    }

    /// Nothing is changed; somebody has looked.
    fn settle(&self, how: &str) -> Fix {
        let (at, recording) = (self.at(), self.recording);
        let edit = ReadingEdit::Settle {
            id: self.id(how),
            recording,
            kind: self.found.kind,
            start: at.start,
            end: at.end,
            against: self.against().map(|s| s.start),
            how: Some(how.to_owned()),
        };
        Fix::new(how, Edit::Reading(edit))
    }

    fn set_facts(&self, label: String, statement: &Statement, facts: Facts) -> Fix {
        let edit = ReadingEdit::SetFacts {
            id: self.id(&label),
            recording: self.recording,
            start: statement.start,
            end: statement.end,
            facts: Some(facts),
        };
        Fix::new(label, Edit::Reading(edit))
    }

    /// One group of screws on each side: `take` puts the figure of the right one into the wrong one and says so.
    fn either_group(&self, take: fn(&mut Facts, &Facts) -> Option<String>) -> Vec<Fix> {
        let Some(against) = self.against() else { return Vec::new() };
        let pairs = [(self.at(), against), (against, self.at())];
        let fix = |(right, wrong): (&Statement, &Statement)| {
            let mut facts = wrong.facts.clone();
            let one_each = facts.fasteners.len() == 1 && right.facts.fasteners.len() == 1;
            let label = one_each.then(|| take(&mut facts, &right.facts))??;
            Some(self.set_facts(label, wrong, facts))
        };
        pairs.into_iter().filter_map(fix).collect()
    }
}
