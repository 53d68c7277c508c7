//! Manuals written as an author would, with the finding marked under its line, for the tests of the rules.
//!
//! ```text
//! part battery: 3.7 V, 2600 mAh, plug 2-pin, size 60 × 40 mm
//! new battery: 7.4 V
//! ~~~ replacement-voltage: The new battery …
//! laid out: spudger
//! promise: …            kept promise: …
//! step Remove the lid with spudger: Lever it up.
//! screws of the lid: 4 PH1 8 mm, M3, into steel, 0.4 N·m
//! reviewed step …          empty step …          free step …, which waits for none
//! waits: Remove the lid for Remove the fan
//! guide New pump: pump
//! joint of the lid: glue, 3 mm          (of the last step; the depth holds for all of it)
//! mark stay shallow: top edge, fan cable, 2 mm
//! ```
//!
//! A step "Remove the …" takes that part out, and each step waits for the one before.

use super::findings;
use crate::finding::{Finding, Rule, Subject};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::written::describe;
use crate::manual::*;
use crate::reading::Act;
use crate::units;
use uuid::Uuid;

struct Writer {
    manual: Manual,
    ids: IdMaker,
    last_step: Option<StepId>,
    last_joint: Option<SeamId>,
}

/// A manual as written, with the findings that are marked in it and what each is about.
pub(super) fn written(text: &str) -> (Manual, Vec<(Option<Subject>, String)>) {
    let mut writer = Writer {
        manual: Manual::new(ManualId(Uuid::nil()), "Test", ""),
        ids: IdMaker::new(Uuid::nil()),
        last_step: None,
        last_joint: None,
    };
    let mut marked = Vec::new();
    let mut about = None;
    for line in text.lines().map(str::trim).filter(|l| !l.is_empty()) {
        match line.strip_prefix("~~~ ") {
            Some(mark) => marked.push((about.clone(), mark.to_owned())),
            None => about = Some(writer.line(line)),
        }
    }
    (writer.manual, marked)
}

fn of(rule: &Rule, manual: &Manual) -> Vec<Finding> {
    findings(manual).into_iter().filter(|f| f.rule == rule.id).collect()
}

/// What a rule says of a manual.
pub(super) fn found(rule: &Rule, text: &str) -> Vec<String> {
    of(rule, &written(text).0).into_iter().map(|f| f.says).collect()
}

/// Checks that a rule finds what is marked, each under the line it is about, and nothing else; that every fix mends
/// something; and that a finding is set aside where its rule allows it, until its facts change.
#[track_caller]
pub(super) fn check(rule: &Rule, text: &str) {
    let (manual, mut marked) = written(text);
    let findings = of(rule, &manual);
    let mut shown: Vec<(Option<Subject>, String)> =
        findings.iter().map(|f| (f.about.first().cloned(), format!("{}: {}", f.rule.name(), f.says))).collect();
    marked.sort();
    shown.sort();
    assert_eq!(shown, marked, "\n{text}");
    for fix in findings.iter().flat_map(|f| &f.fixes) {
        let mended = manual.apply(&fix.edit, "Ann").expect("a fix can be applied").0;
        assert!(of(rule, &mended).len() < findings.len(), "“{}” mends nothing", fix.label);
    }
    for finding in &findings {
        let because = "nothing speaks against it".to_owned();
        let edit = FindingEdit::SetAside { id: finding.key, rule: finding.rule.name(), because };
        let aside = manual.apply(&Edit::Finding(edit), "Ann").expect("a reason was given").0;
        let again = of(rule, &aside).into_iter().find(|f| f.key == finding.key).expect("it is still there");
        assert_eq!(again.set_aside.is_some(), rule.may_set_aside);
        assert_eq!(again.blocks, finding.blocks && !rule.may_set_aside, "set aside, it is in nobody's way");
    }
}

impl Writer {
    fn edit(&mut self, edit: Edit) {
        self.manual = self.manual.apply(&edit, "Ann").expect("the line says what can be").0;
    }

    fn line(&mut self, line: &str) -> Subject {
        let after = |word: &str| line.strip_prefix(word).map(str::trim);
        if let Some(rest) = after("part ") {
            let (name, label) = rest.split_once(':').unwrap_or((rest, ""));
            let id = self.part(name.trim());
            self.edit(Edit::Part(PartEdit::Set { id, field: PartField::Fitted(label_of(label)) }));
            Subject::Part(id)
        } else if let Some(rest) = after("new ") {
            let (name, label) = rest.split_once(':').unwrap_or((rest, ""));
            let id = self.part(name.trim());
            let new = Replacement { label: label_of(label), ..Replacement::default() };
            self.edit(Edit::Part(PartEdit::Set { id, field: PartField::Replacement(Some(new)) }));
            Subject::Part(id)
        } else if let Some(name) = after("laid out:") {
            let id = self.ids.make(ToolId);
            self.edit(Edit::Kit(KitEdit::LayOut { id, name: name.to_owned() }));
            Subject::Tool(id)
        } else if let Some(text) = after("promise:").or_else(|| after("kept promise:")) {
            let id = self.ids.make(NoteId);
            self.edit(Edit::Note(NoteEdit::Add { id, kind: NoteKind::Promise, text: text.to_owned(), job: None }));
            let done = line.starts_with("kept");
            self.edit(Edit::Note(NoteEdit::Set { id, field: NoteField::Done(done) }));
            Subject::Note(id)
        } else if let Some((step, before)) = after("waits: ").and_then(|rest| rest.split_once(" for ")) {
            let named = |title: &str| self.manual.steps.values().find(|s| s.title == title).expect("a step").id;
            let (step, ways) = (named(step), vec![vec![named(before)]]);
            let id = self.ids.make(RequirementId);
            self.edit(Edit::Requirement(RequirementEdit::Add { id, step, ways, because: String::new() }));
            Subject::Step(step)
        } else if let Some(rest) = after("screws of the ") {
            let (part, spec) = rest.split_once(": ").expect("a part and its screws");
            let (id, part) = (self.ids.make(GroupId), self.part(part));
            let step = self.last_step.expect("screws belong to a step");
            self.edit(Edit::Fastener(FastenerEdit::Add { id, step }));
            let mut group = FastenerGroup { holds: vec![part], ..self.manual.fasteners[&id].clone() };
            spec.split(", ").for_each(|item| describe(&mut group, item));
            self.manual.fasteners.insert(id, group);
            Subject::Group(id)
        } else if let Some(rest) = after("joint of the ") {
            self.joint(rest)
        } else if let Some(rest) = after("mark ") {
            self.mark(rest);
            Subject::Step(self.last_step.expect("joints belong to a step"))
        } else if let Some(rest) = after("guide ") {
            let (title, part) = rest.split_once(": ").expect("a guide has a target");
            let target = self.part(part);
            let id = self.ids.make(JobId);
            let add = JobEdit::Add { id, title: title.to_owned(), targets: vec![target], without: vec![] };
            self.edit(Edit::Job(add));
            Subject::Part(target)
        } else {
            Subject::Step(self.any_step(line))
        }
    }

    /// "lid: glue, 3 mm": the part of the last step, what holds it, how deep a tool may go.
    fn joint(&mut self, line: &str) -> Subject {
        let (part, spec) = line.split_once(": ").expect("a part and what holds it");
        let (id, part) = (self.ids.make(SeamId), self.part(part));
        let step = self.last_step.expect("joints belong to a step");
        let (kind, depth) = spec.split_once(", ").unwrap_or((spec, ""));
        let kind = SeamKind::ALL.iter().copied().find(|k| k.label() == kind).expect("a kind of joint");
        self.edit(Edit::Seam(SeamEdit::Add { id, step, kind }));
        let set = |field| Edit::Seam(SeamEdit::Set { id, field });
        self.edit(set(SeamField::Part(Some(part))));
        self.edit(set(SeamField::DepthMm(millimetres(depth))));
        self.last_joint = Some(id);
        Subject::Step(step)
    }

    /// "stay shallow: top edge, fan cable, 2 mm": kind, place or landmark, what lies behind it, how deep.
    fn mark(&mut self, line: &str) {
        let (kind, rest) = line.split_once(": ").expect("a kind and a place");
        let kind = MarkKind::ALL.iter().copied().find(|k| k.label() == kind).expect("a kind of mark");
        let (mut items, id) = (rest.split(", "), self.ids.make(MarkId));
        let joint = self.last_joint.expect("marks belong to a joint");
        let edited = |edit| Edit::Seam(SeamEdit::Mark { id: joint, edit });
        let place = items.next().unwrap_or_default();
        let placed = rim::read(place, None).is_ok();
        let asked = placed.then(|| RimAsked::Words(place.to_owned()));
        self.edit(edited(MarkEdit::Add { id, kind, place: asked, to: None }));
        let landmark = (!placed).then(|| MarkField::Landmark(Some(place.to_owned())));
        let fields = items.map(|item| match millimetres(item) {
            Some(mm) => MarkField::DepthMm(Some(mm)),
            None => MarkField::Part(Some(self.part(item))),
        });
        let fields: Vec<MarkField> = landmark.into_iter().chain(fields).collect();
        fields.into_iter().for_each(|field| self.edit(edited(MarkEdit::Set { id, field })));
    }

    /// "step Remove the lid with spudger: Lever it off.", also reviewed, free of reasons, or empty.
    fn any_step(&mut self, line: &str) -> StepId {
        let Some((kind, rest)) = line.split_once("step ") else { panic!("nobody writes “{line}”") };
        let id = self.step(rest.trim());
        let set = |field| Edit::Step(StepEdit::Set { id, field });
        match kind {
            "" => {}
            "reviewed " => self.edit(set(StepField::Reviewed(true))),
            "free " => self.manual.requirements.retain(|_, r| r.step != id),
            "empty " => self.edit(set(StepField::Actions(Vec::new()))),
            _ => panic!("nobody writes “{line}”"),
        }
        id
    }

    fn step(&mut self, line: &str) -> StepId {
        let (head, says) = line.split_once(": ").unwrap_or((line, ""));
        let (title, tools) = head.split_once(" with ").unwrap_or((head, ""));
        let removed = title.strip_prefix("Remove the ").map(|part| self.part(part));
        let act = removed.map_or(Act::Place, |_| Act::Remove);
        let text = if says.is_empty() { title } else { says };
        let actions = vec![Action::typed(self.ids.make(ActionId), act, removed.into_iter().collect(), text)];
        let id = self.ids.make(StepId);
        let after = self.last_step;
        self.edit(Edit::Step(StepEdit::Add { id, phase: Phase::Teardown, after, title: title.to_owned(), actions }));
        let tools = tools.split(", ").filter(|t| !t.is_empty()).map(str::to_owned).collect();
        self.edit(Edit::Step(StepEdit::Set { id, field: StepField::Tools(tools) }));
        if let Some(before) = after {
            let wait = RequirementEdit::Add {
                id: self.ids.make(RequirementId),
                step: id,
                ways: vec![vec![before]],
                because: String::new(),
            };
            self.edit(Edit::Requirement(wait));
        }
        self.last_step = Some(id);
        id
    }

    fn part(&mut self, name: &str) -> PartId {
        if let Some(known) = self.manual.parts.values().find(|p| p.name == name) {
            return known.id;
        }
        let id = self.ids.make(PartId);
        self.edit(Edit::Part(PartEdit::Add { id, name: name.to_owned() }));
        id
    }
}

/// "2 mm".
fn millimetres(text: &str) -> Option<f64> {
    text.strip_suffix("mm")?.trim().parse().ok()
}

fn label_of(text: &str) -> RatingLabel {
    let mut label = RatingLabel::default();
    for item in text.split(',').map(str::trim).filter(|i| !i.is_empty()) {
        let figure = |unit: &str| item.strip_suffix(unit).and_then(|n| n.trim().parse::<f64>().ok());
        if let Some(mah) = figure("mAh") {
            label.capacity = Some(units::milliampere_hours(mah));
        } else if let Some(wh) = figure("Wh") {
            label.energy = Some(units::watt_hours(wh));
        } else if let Some(v) = item.strip_prefix("charged to ").and_then(|v| v.strip_suffix(" V")?.parse().ok()) {
            label.charge_voltage = Some(units::volts(v));
        } else if let Some(v) = figure("V") {
            label.voltage = Some(units::volts(v));
        } else if let Some(plug) = item.strip_prefix("plug ") {
            label.connector = Some(plug.to_owned());
        } else if let Some(size) = item.strip_prefix("size ") {
            label.size = Some(size.to_owned());
        } else {
            panic!("no label prints “{item}”")
        }
    }
    label
}
