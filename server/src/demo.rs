//! The demo: invented devices with narrations, worked into manuals at the first start.
//!
//! The narrations are read and drafted like any other; then a script of ordinary edits does what an author would do at
//! the stops, so that the demo can never show something the program cannot do.

use crate::store::{EditRequest, Store, StoreError};
use paso_core::checks::findings;
use paso_core::fasteners::balance::comes_out;
use paso_core::finding::RuleId;
use paso_core::heat::media::Medium;
use paso_core::heat::plan::{Heating, StackLayer, WarmedBy};
use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::reading::CautionSubject;
use paso_core::screw::{Class, Material};
use paso_core::stops::cautions::view as cautions;
use paso_core::units;
use uuid::Uuid;

/// Who works the demo manuals.
const AUTHOR: &str = "Demo author";

struct Device {
    title: &'static str,
    device: &'static str,
    file: &'static str,
    narration: &'static str,
    work: fn(&Manual) -> Vec<Edit>,
}

const DEVICES: [Device; 4] = [
    Device {
        title: "Opening the Harrow & Pell T40 bench lamp",
        device: "Harrow & Pell T40 bench lamp",
        file: "bench-lamp.md",
        narration: include_str!("../../demo/bench-lamp.md"),
        work: work_lamp,
    },
    Device {
        title: "New battery for the Mossby grain scale",
        device: "Mossby GS-2 grain scale",
        file: "grain-scale.srt",
        narration: include_str!("../../demo/grain-scale.srt"),
        work: work_scale,
    },
    Device {
        title: "Fennick WS3 weather station, front and rear",
        device: "Fennick WS3 weather station",
        file: "weather-station.md",
        narration: include_str!("../../demo/weather-station.md"),
        work: work_station,
    },
    Device {
        title: "Fan and sensor of the Brindle egg incubator",
        device: "Brindle E6 egg incubator",
        file: "egg-incubator.md",
        narration: include_str!("../../demo/egg-incubator.md"),
        work: work_incubator,
    },
];

/// Loads the demo unless the shelf ever held anything.
///
/// # Errors
/// What the store refused.
pub async fn load_once(store: &Store) -> Result<(), StoreError> {
    if !store.is_empty().await? {
        return Ok(());
    }
    for device in DEVICES.iter().rev() {
        let (id, recording) = (ManualId(Uuid::now_v7()), RecordingId(Uuid::now_v7()));
        store.bring(recording, device.file, device.narration.as_bytes().to_vec()).await?;
        store.create(id, device.title, device.device, &[recording.0]).await?;
        let (mut base_seq, manual) = store.manual(id).await?;
        for edit in (device.work)(&manual) {
            base_seq = store.edit(id, AUTHOR, &EditRequest { id: Uuid::now_v7(), base_seq, edit }).await?.seq;
        }
    }
    Ok(())
}

/// Edits in the making: the manual as it stands after them, so that each can look for what it is about.
struct Desk {
    manual: Manual,
    edits: Vec<Edit>,
}

/// What an author knows of the screws of one part.
struct Screws {
    thread: &'static str,
    head: HeadForm,
    class: Class,
    into: Material,
    /// In millimetres.
    depth: f64,
}

impl Desk {
    fn new(manual: &Manual) -> Self {
        Self { manual: manual.clone(), edits: Vec::new() }
    }

    /// An edit that the manual takes; one that it refuses is left out, because a better reader may have made it needless.
    fn edit(&mut self, edit: Edit) {
        if let Ok((next, _)) = self.manual.apply(&edit, AUTHOR) {
            self.manual = next;
            self.edits.push(edit);
        }
    }

    fn steps(&self, phase: Phase, title: &str) -> Vec<StepId> {
        self.manual.steps_in(phase).iter().filter(|s| s.title.starts_with(title)).map(|s| s.id).collect()
    }

    fn set(&mut self, id: StepId, field: StepField) {
        self.edit(Edit::Step(StepEdit::Set { id, field }));
    }

    fn title(&mut self, id: StepId, title: &str) {
        self.set(id, StepField::Title(title.to_owned()));
    }

    /// The sentences before `at` become a step of their own; the others keep the title.
    fn split(&mut self, id: StepId, at: usize, title: &str) {
        let Some(own) = self.manual.steps.get(&id).map(|s| s.title.clone()) else { return };
        let new_id = StepId(Uuid::now_v7());
        self.edit(Edit::Step(StepEdit::Split { id, at, new_id, title: Some(own) }));
        self.title(id, title);
    }

    /// Rewords the sentences of a step, keeping their acts, parts and evidence; `None` drops one.
    fn reword(&mut self, id: StepId, texts: &[Option<&str>]) {
        let Some(step) = self.manual.steps.get(&id) else { return };
        let reworded = step.actions.iter().enumerate().filter_map(|(i, a)| match texts.get(i) {
            Some(None) => None,
            Some(Some(text)) => Some(Action { text: Some((*text).to_owned()), said: false, ..a.clone() }),
            None => Some(a.clone()),
        });
        let actions = reworded.collect();
        self.set(id, StepField::Actions(actions));
    }

    fn group(&mut self, holds: &str, field: FastenerField) {
        if let Some(id) = self.group_of(holds) {
            self.edit(Edit::Fastener(FastenerEdit::Set { id, field }));
        }
    }

    /// The first group that comes out for a part; its screws may be spoken of again elsewhere.
    fn group_of(&self, holds: &str) -> Option<GroupId> {
        let of = |g: &&FastenerGroup| g.holds.iter().any(|p| self.manual.part_name(*p) == holds);
        let mut out = self.manual.groups_in_order().into_iter().map(|(_, g)| g).filter(|g| comes_out(g));
        out.find(of).map(|g| g.id)
    }

    fn layer(&mut self, name: &str, width_mm: f64, height_mm: f64, radius_mm: f64) -> LayerId {
        let (id, name) = (LayerId(Uuid::now_v7()), name.to_owned());
        self.edit(Edit::Layer(LayerEdit::Add {
            id,
            name,
            outline: Outline::Rectangle { width_mm, height_mm, radius_mm },
        }));
        id
    }

    fn place(&mut self, holds: &str, layer: LayerId, at: &[(f64, f64)]) {
        let holes = at.iter().map(|(x_mm, y_mm)| HolePlace { x_mm: *x_mm, y_mm: *y_mm }).collect();
        if let Some(id) = self.group_of(holds) {
            self.edit(Edit::Hole(HoleEdit::Place { id, layer, holes }));
        }
    }

    fn ring(&mut self, holds: &str, layer: LayerId, centre: (f64, f64), radius_mm: f64, count: u32) {
        let centre = HolePlace { x_mm: centre.0, y_mm: centre.1 };
        if let Some(id) = self.group_of(holds) {
            self.edit(Edit::Hole(HoleEdit::Ring { id, layer, centre, radius_mm, count }));
        }
    }

    fn screws(&mut self, holds: &str, screws: &Screws) {
        self.group(holds, FastenerField::Thread(Some(screws.thread.to_owned())));
        self.group(holds, FastenerField::Head(Some(screws.head)));
        let joint = JointFacts {
            class: Some(screws.class),
            into: Some(screws.into),
            engagement: Some(units::millimetres(screws.depth)),
            ..JointFacts::default()
        };
        self.group(holds, FastenerField::Joint(joint));
    }

    /// Words a caution as a reader needs it.
    fn caution(&mut self, said: &str, about: CautionSubject, text: &str) {
        let found = self.manual.cautions.values().find(|c| c.text.contains(said)).map(|c| c.id);
        if let Some(id) = found {
            self.edit(Edit::Caution(CautionEdit::Set { id, field: CautionField::About(about) }));
            self.edit(Edit::Caution(CautionEdit::Set { id, field: CautionField::Text(text.to_owned()) }));
        }
    }

    fn pair(&self, step: &str, before: &str) -> Option<(StepId, StepId)> {
        Some((self.called(step)?, self.called(before)?))
    }

    fn called(&self, title: &str) -> Option<StepId> {
        self.manual.steps_in(Phase::Teardown).iter().find(|s| s.title == title).map(|s| s.id)
    }

    /// One of several steps will do.
    fn either(&mut self, step: &str, before: &[&str], because: &str) {
        let ways: Option<Vec<Vec<StepId>>> = before.iter().map(|b| Some(vec![self.pair(step, b)?.1])).collect();
        let (Some(ways), Some(id)) = (ways, self.called(step)) else { return };
        let add =
            RequirementEdit::Add { id: RequirementId(Uuid::now_v7()), step: id, ways, because: because.to_owned() };
        self.edit(Edit::Requirement(add));
    }

    fn comes_first(&mut self, step: &str, before: &str, because: &str) {
        self.either(step, &[before], because);
    }

    fn does_not_wait(&mut self, step: &str, before: &str) {
        if let Some((step, before)) = self.pair(step, before) {
            let id = RequirementId(Uuid::now_v7());
            let (reason, standing) = (Reason::Covers, Standing::Dropped);
            self.edit(Edit::Requirement(RequirementEdit::Judge { id, step, before, reason, standing }));
        }
    }

    fn variant(&mut self, id: VariantId, name: &str, how_to_tell: &str) {
        let (name, how_to_tell) = (name.to_owned(), how_to_tell.to_owned());
        self.edit(Edit::Variant(VariantEdit::Add { id, name, how_to_tell }));
    }

    fn done_first(&mut self, job: &str, first: &str) {
        let called = |title: &str| self.manual.jobs.values().find(|j| j.title == title).map(|j| j.id);
        if let (Some(id), Some(first)) = (called(job), called(first)) {
            self.edit(Edit::Job(JobEdit::Call { id, calls: vec![first] }));
        }
    }

    fn about(&mut self, part: &str, field: PartField) {
        if let Some(id) = self.manual.parts.values().find(|p| p.name == part).map(|p| p.id) {
            self.edit(Edit::Part(PartEdit::Set { id, field }));
        }
    }

    fn job(&mut self, title: &str, part: &str, fate: PartFate) {
        let Some(part) = self.manual.parts.values().find(|p| p.name == part).map(|p| p.id) else { return };
        let id = JobId(Uuid::now_v7());
        self.edit(Edit::Job(JobEdit::Add { id, title: title.to_owned(), targets: vec![part], without: Vec::new() }));
        self.edit(Edit::Job(JobEdit::SetFate { id, part, fate }));
    }

    fn review_all(&mut self) {
        for id in self.manual.order() {
            self.set(id, StepField::Reviewed(true));
        }
    }
}

fn work_lamp(manual: &Manual) -> Vec<Edit> {
    let mut desk = Desk::new(manual);
    if let Some(id) = desk.called("Remove the diffuser ring") {
        desk.reword(
            id,
            &[
                Some("Heat the diffuser ring with the hair dryer at 70 °C for 2 to 3 minutes."),
                Some("Keep the hair dryer moving."),
                Some("Insert the spudger under the diffuser ring, not deeper than 3 mm."),
                Some("Pry the diffuser ring off and remove it."),
            ],
        );
    }
    if let Some(id) = desk.called("Remove the driver board") {
        desk.split(id, 1, "Disconnect the light sensor and the switch");
    }
    fasten_the_lamp(&mut desk);
    open_the_lamp(&mut desk);
    desk.review_all();
    desk.edits
}

/// A device that opens from two sides, in two variants, with five jobs cut from one manual.
fn work_station(manual: &Manual) -> Vec<Edit> {
    let mut desk = Desk::new(manual);
    // What lies behind the rear cover is reached just as well through the front.
    for title in
        ["Disconnect the battery cable", "Remove the battery bracket", "Remove the rain sensor", "Remove the fan"]
    {
        desk.either(title, &["Remove the rear cover", "Remove the display"], "both lead inside");
    }
    // The front needs nothing of the rear.
    for title in ["Remove the front glass", "Remove the display", "Remove the battery", "Remove the air filter"] {
        desk.does_not_wait(title, "Remove the rear cover");
    }
    desk.does_not_wait("Remove the display", "Disconnect the battery cable");
    desk.comes_first("Remove the display", "Remove the front glass", "the front glass lies over the display");
    desk.comes_first("Remove the battery", "Remove the battery bracket", "the bracket lies over the battery");
    desk.comes_first("Remove the main board", "Remove the fan", "the fan is screwed to the main board");
    let with_sensor = VariantId(Uuid::now_v7());
    desk.variant(with_sensor, "With rain sensor", "A round window of 12 mm stands above the display.");
    desk.variant(VariantId(Uuid::now_v7()), "Without rain sensor", "There is no window above the display.");
    if let Some(id) = desk.called("Remove the rain sensor") {
        desk.set(id, StepField::Variants(vec![with_sensor]));
    }
    if let Some(id) = desk.called("Remove the front glass") {
        let condition = "If the glass does not move after a minute".to_owned();
        let advice = "Warm the edge again for one minute. Do not pull harder.".to_owned();
        let cracked =
            "Stop. Cover the glass with tape, put on gloves and eye protection, and order a new one.".to_owned();
        desk.set(
            id,
            StepField::Branches(vec![
                Branch { condition, advice, tools: vec!["heat gun".to_owned()], resume: Some(id) },
                Branch {
                    condition: "If the glass has cracked".to_owned(),
                    advice: cracked,
                    tools: Vec::new(),
                    resume: None,
                },
            ]),
        );
        desk.set(id, StepField::TimeS(Some(240.0)));
    }
    for (title, part, fate) in [
        ("New battery", "battery", PartFate::Renew),
        ("New air filter", "air filter", PartFate::Renew),
        ("New fan", "fan", PartFate::Renew),
        ("New display", "display", PartFate::Renew),
        ("Send the main board in", "main board", PartFate::Keep),
    ] {
        desk.job(title, part, fate);
    }
    desk.done_first("New fan", "New battery");
    tell_of_the_station(&mut desk);
    fasten_the_station(&mut desk);
    open_the_station(&mut desk);
    plug_the_station(&mut desk);
    desk.review_all();
    desk.edits
}

/// A device on the mains: the guide stops where its readers may not go on, and warns of what they meet before.
fn work_incubator(manual: &Manual) -> Vec<Edit> {
    let mut desk = Desk::new(manual);
    for title in ["Remove the power supply board", "Remove the heating element"] {
        desk.comes_first(title, "Remove the control board", "the control board lies over it");
    }
    desk.set_aside(RuleId::LicensedWork, "a licensed electrician");
    // Half of the proposals are taken; one needs no warning here, and the rest wait for a decision.
    desk.take_proposals(&[Hazard::Germs, Hazard::CompressedAir, Hazard::Solvent]);
    desk.review_all();
    desk.edits
}

/// Screws of the lamp: the narrator tells how tight; what they go into is the author's knowledge.
fn fasten_the_lamp(desk: &mut Desk) {
    let foot = desk.layer("Foot, seen from below", 150.0, 150.0, 75.0);
    let head = desk.layer("Lamp head, open", 120.0, 120.0, 60.0);
    let plate =
        Screws { thread: "M3", head: HeadForm::Pan, class: Class::C48, into: Material::BrassInsert, depth: 6.0 };
    desk.screws("base plate", &plate);
    desk.ring("base plate", foot, (75.0, 75.0), 62.0, 6);
    desk.group("base plate", FastenerField::Stored(Some(Stored::Row)));
    // The plate of an insert turns at less than the narrator sets.
    let reason = "The maker's torque-out of these inserts is 1.4 N·m.".to_owned();
    desk.group("base plate", FastenerField::TorqueBecause(Some(reason)));
    let small = Screws {
        thread: "M2.5",
        head: HeadForm::Cylinder,
        class: Class::C88,
        into: Material::CastAluminium,
        depth: 4.0,
    };
    desk.screws("reflector", &small);
    desk.ring("reflector", head, (60.0, 60.0), 44.0, 4);
    desk.group("reflector", FastenerField::TightenTold(vec![1, 3, 2, 4]));
    desk.group("reflector", FastenerField::TwoPasses(true));
    desk.group("reflector", FastenerField::Stored(Some(Stored::Mat)));
    desk.screws("heat sink", &Screws { depth: 5.0, ..small });
    desk.place("heat sink", head, &[(38.0, 60.0), (82.0, 60.0)]);
    let board =
        Screws { thread: "M3", head: HeadForm::Pan, class: Class::C88, into: Material::CastAluminium, depth: 4.5 };
    desk.screws("driver board", &board);
    desk.place("driver board", head, &[(30.0, 40.0), (90.0, 40.0), (60.0, 92.0)]);
    desk.group("driver board", FastenerField::Stored(Some(Stored::Mat)));
}

/// Screws of the weather station on two layers, all with their joints.
fn fasten_the_station(desk: &mut Desk) {
    let rear = desk.layer("Rear", 160.0, 110.0, 10.0);
    let inside = desk.layer("Inside, rear cover off", 152.0, 102.0, 6.0);
    let insert =
        Screws { thread: "M3", head: HeadForm::Pan, class: Class::C48, into: Material::BrassInsert, depth: 5.0 };
    desk.screws("rear cover", &insert);
    desk.place("rear cover", rear, &[(9.0, 9.0), (151.0, 9.0), (151.0, 101.0), (9.0, 101.0)]);
    desk.screws("fan", &insert);
    desk.place("fan", inside, &[(18.0, 18.0), (46.0, 18.0), (32.0, 44.0)]);
    let m2 =
        Screws { thread: "M2", head: HeadForm::Wafer, class: Class::C88, into: Material::CastAluminium, depth: 3.0 };
    desk.screws("battery bracket", &m2);
    desk.place("battery bracket", inside, &[(70.0, 88.0), (112.0, 88.0)]);
    desk.group("battery bracket", FastenerField::TorqueNm(Some(0.15)));
    desk.group("battery bracket", FastenerField::TorqueFrom(Some(TorqueFrom::Maker)));
    desk.screws("rain sensor", &Screws { head: HeadForm::Pan, into: Material::Abs, depth: 3.5, ..m2 });
    desk.group("rain sensor", FastenerField::Forming(true));
    desk.place("rain sensor", inside, &[(68.0, 10.0), (88.0, 10.0)]);
    desk.screws("main board", &m2);
    desk.place("main board", inside, &[(60.0, 24.0), (140.0, 24.0), (140.0, 76.0), (60.0, 76.0), (100.0, 50.0)]);
    for part in ["rear cover", "fan", "battery bracket", "rain sensor", "main board"] {
        desk.group(part, FastenerField::Stored(Some(Stored::Mat)));
    }
}

/// A mark of a joint as the demo's author puts it: kind, where from, where to, and what else is told of it.
type Marked<'t> = (MarkKind, &'t str, &'t str, Vec<MarkField>);

impl Desk {
    /// The first joint of a step, or a new one.
    fn joint(&mut self, step: &str, kind: SeamKind) -> Option<SeamId> {
        let at = self.called(step)?;
        if let Some(seam) = self.manual.seams.values().find(|s| s.step == at) {
            return Some(seam.id);
        }
        let id = SeamId(Uuid::now_v7());
        self.edit(Edit::Seam(SeamEdit::Add { id, step: at, kind }));
        Some(id)
    }

    fn seam(&mut self, id: SeamId, field: SeamField) {
        self.edit(Edit::Seam(SeamEdit::Set { id, field }));
    }

    /// Marks on a face in the place of what was drafted in words.
    fn marks(&mut self, id: SeamId, face: LayerId, marks: Vec<Marked<'_>>) {
        let drafted: Vec<MarkId> =
            self.manual.seams.get(&id).map_or(Vec::new(), |s| s.marks.iter().map(|m| m.id).collect());
        let edited = |edit| Edit::Seam(SeamEdit::Mark { id, edit });
        drafted.into_iter().for_each(|mark| self.edit(edited(MarkEdit::Remove { id: mark })));
        self.seam(id, SeamField::Face(Some(face)));
        for (kind, from, to, fields) in marks {
            let mark = MarkId(Uuid::now_v7());
            let place = |told: &str| (!told.is_empty()).then(|| RimAsked::Words(told.to_owned()));
            self.edit(edited(MarkEdit::Add { id: mark, kind, place: place(from), to: place(to) }));
            fields.into_iter().for_each(|field| self.edit(edited(MarkEdit::Set { id: mark, field })));
        }
    }

    /// Findings of a rule are decided in one way.
    fn set_aside(&mut self, rule: RuleId, because: &str) {
        for finding in findings(&self.manual).into_iter().filter(|f| f.rule == rule && f.set_aside.is_none()) {
            let (id, rule, because) = (finding.key, finding.rule.name(), because.to_owned());
            self.edit(Edit::Finding(FindingEdit::SetAside { id, rule, because }));
        }
    }

    /// Warnings that the catalogue proposes are put where they belong.
    fn take_proposals(&mut self, hazards: &[Hazard]) {
        let rows = cautions(&self.manual).hazards.into_iter().filter(|h| hazards.contains(&h.hazard));
        for fix in rows.filter_map(|h| h.finding?.fixes.into_iter().next()) {
            self.edit(fix.edit);
        }
    }

    /// What is known of the connector of a part.
    fn plug(&mut self, serves: &str, fields: Vec<ConnectorField>) {
        let Some(part) = self.part_called(serves) else { return };
        let Some(id) = self.manual.connectors.values().find(|c| c.serves == Some(part)).map(|c| c.id) else { return };
        fields.into_iter().for_each(|field| self.edit(Edit::Connector(ConnectorEdit::Set { id, field })));
    }

    /// Where the cable of a part runs on a layer, place by place.
    fn runs(&mut self, serves: &str, layer: LayerId, at: &[(f64, f64)]) {
        let passes = at.iter().enumerate().map(|(number, (x_mm, y_mm))| ConnectorField::Passes {
            number,
            at: Some(LayerSpot { layer, x_mm: *x_mm, y_mm: *y_mm }),
        });
        self.plug(serves, passes.collect());
    }

    fn layer_called(&self, name: &str) -> Option<LayerId> {
        self.manual.layers.values().find(|l| l.name == name).map(|l| l.id)
    }

    fn part_called(&self, name: &str) -> Option<PartId> {
        self.manual.parts.values().find(|p| p.name == name).map(|p| p.id)
    }
}

fn with(tool: &str) -> MarkField {
    MarkField::Tool(Some(tool.to_owned()))
}

/// The glued front of the station, worked fully: entry, passes, depths, what to keep out of, heat, and how it is bonded again.
fn open_the_station(desk: &mut Desk) {
    let front = desk.layer("Front", 160.0, 110.0, 10.0);
    let Some(id) = desk.joint("Remove the front glass", SeamKind::Glue) else { return };
    let cable = desk.part_called("display cable").or_else(|| desk.part_called("display"));
    let sensor = MarkField::Landmark(Some("light sensor".to_owned()));
    desk.marks(
        id,
        front,
        vec![
            (MarkKind::KeepOut, "top edge, 66 mm from the left", "top edge, 66 mm from the right", vec![sensor]),
            (MarkKind::Shallow, "right edge", "", vec![MarkField::DepthMm(Some(3.0)), MarkField::Part(cable)]),
            (MarkKind::GlueSpot, "bottom left corner", "", vec![]),
            (MarkKind::Entry, "middle of the bottom edge", "", vec![with("suction cup")]),
            (
                MarkKind::Entry,
                "bottom edge, 60 mm from the left",
                "",
                vec![with("plastic card"), MarkField::DepthMm(Some(6.0))],
            ),
            (
                MarkKind::Run,
                "bottom edge, 60 mm from the left",
                "top edge, 50 mm from the left",
                vec![with("plastic card")],
            ),
            (MarkKind::Pick, "middle of the left edge", "", vec![with("plastic card")]),
            (
                MarkKind::Run,
                "bottom edge, 60 mm from the left",
                "top edge, 50 mm from the right",
                vec![with("second card"), MarkField::DepthMm(Some(3.0))],
            ),
        ],
    );
    let because = Some("the display cable".to_owned());
    desk.seam(id, SeamField::Swing(Some(Swing { hinge: Some(FaceEdge::Right), at_most_deg: Some(90.0), because })));
    desk.seam(id, SeamField::Posture(Some("stand the glass against a box until the display cable is off".to_owned())));
    desk.seam(
        id,
        SeamField::Rebond(Some(Rebond {
            with: Some("adhesive tape".to_owned()),
            width: Some(units::millimetres(3.0)),
            press: Some("two clamps over a board".to_owned()),
            press_for: Some(units::seconds(900.0)),
            cure: Some(units::seconds(86_400.0)),
            hook_first: None,
        })),
    );
    let layers = [
        (Medium::Glass, 1.1),
        (Medium::FoamTape, 0.3),
        (Medium::Polycarbonate, 2.0),
        (Medium::Air, 3.0),
        (Medium::CircuitBoard, 1.6),
    ];
    let layers = layers.into_iter().map(|(medium, thickness_mm)| StackLayer::of(medium, thickness_mm)).collect();
    let heating = Heating { layers, by: WarmedBy::HeatGun, setting_c: 110.0, seconds: 325.0, room_c: 21.0 };
    desk.seam(id, SeamField::Heating(Some(heating)));
}

/// The connectors of the station: kinds, routes, one through the hinge, and a pair of antennas that must not be swapped.
fn plug_the_station(desk: &mut Desk) {
    let board = desk.part_called("main board");
    let on = || ConnectorField::On(board);
    let place = |told: &str| ConnectorField::Place(Some(told.to_owned()));
    let route = |told: &[&str]| ConnectorField::Route(told.iter().map(|t| (*t).to_owned()).collect());
    let kind = |kind| ConnectorField::Kind(Some(kind));
    let wires = |told: &str| ConnectorField::Wires(told.to_owned());
    desk.plug("battery", vec![kind(ConnectorKind::Plug), on(), place("lower edge"), wires("red to 1; black to 2")]);
    desk.plug(
        "rain sensor",
        vec![kind(ConnectorKind::Friction), on(), route(&["through the slot beside the bracket"])],
    );
    desk.plug(
        "fan",
        vec![kind(ConnectorKind::Plug), on(), place("upper left"), route(&["behind the post", "under the clip"])],
    );
    let hinge = route(&["along the right edge of the frame", "through the hinge", "under the strip of tape"]);
    let held = ConnectorField::Tether(Some("stand the glass against a box; the cable is 6 cm long".to_owned()));
    desk.plug("display", vec![kind(ConnectorKind::LatchFlips), on(), hinge, held]);
    for (name, colour, to) in [("main antenna", "black", "MAIN"), ("auxiliary antenna", "white", "AUX")] {
        let (Some(step), part) = (desk.called("Remove the main board"), PartId(Uuid::now_v7())) else { return };
        desk.edit(Edit::Part(PartEdit::Add { id: part, name: name.to_owned() }));
        let id = ConnectorId(Uuid::now_v7());
        desk.edit(Edit::Connector(ConnectorEdit::Add { id, step }));
        let fields = [
            ConnectorField::Serves(Some(part)),
            kind(ConnectorKind::Coaxial),
            on(),
            wires(&format!("{colour} to {to}")),
            route(&["along the top edge of the frame"]),
        ];
        fields.into_iter().for_each(|field| desk.edit(Edit::Connector(ConnectorEdit::Set { id, field })));
    }
    lay_the_cables(desk);
}

/// Where the cables of the station run: inside, and one through the hinge to the back of the front.
fn lay_the_cables(desk: &mut Desk) {
    let (Some(inside), Some(front)) = (desk.layer_called("Inside, rear cover off"), desk.layer_called("Front")) else {
        return;
    };
    desk.runs("fan", inside, &[(48.0, 30.0), (56.0, 20.0)]);
    desk.runs("rain sensor", inside, &[(78.0, 18.0)]);
    desk.plug("display", vec![ConnectorField::SlackMm(Some(60.0)), ConnectorField::BendMm(Some(2.0))]);
    desk.runs("display", front, &[(118.0, 30.0), (154.0, 44.0)]);
    desk.plug("display", vec![ConnectorField::Through { number: 1, to: Some(inside) }]);
    let under_tape = LayerSpot { layer: inside, x_mm: 30.0, y_mm: 62.0 };
    desk.plug("display", vec![ConnectorField::Passes { number: 2, at: Some(under_tape) }]);
    desk.runs("main antenna", inside, &[(96.0, 6.0)]);
}

/// The glued ring of the lamp: one entry, one sensor behind it.
fn open_the_lamp(desk: &mut Desk) {
    let ring = desk.layer("Diffuser ring", 130.0, 130.0, 65.0);
    let Some(id) = desk.joint("Remove the diffuser ring", SeamKind::Glue) else { return };
    let sensor = desk.part_called("light sensor");
    desk.marks(
        id,
        ring,
        vec![
            (
                MarkKind::KeepOut,
                "11 o'clock",
                "1 o'clock",
                vec![MarkField::Part(sensor), MarkField::Landmark(Some("behind the notch".to_owned()))],
            ),
            (MarkKind::Entry, "6 o'clock", "", vec![with("spudger")]),
            (MarkKind::Run, "6 o'clock", "1:30", vec![with("spudger")]),
            (MarkKind::Run, "6 o'clock", "10:30", vec![with("spudger")]),
        ],
    );
}

/// The clipped bottom of the scale.
fn open_the_scale(desk: &mut Desk) {
    let bottom = desk.layer("Bottom", 200.0, 150.0, 12.0);
    let Some(id) = desk.joint("Remove the bottom cover", SeamKind::Clips) else { return };
    desk.seam(id, SeamField::Part(desk.part_called("bottom cover")));
    desk.marks(
        id,
        bottom,
        vec![
            (MarkKind::Clip, "left edge", "", vec![MarkField::Count(Some(2))]),
            (MarkKind::Clip, "right edge", "", vec![MarkField::Count(Some(2))]),
            (
                MarkKind::Shallow,
                "top edge",
                "",
                vec![MarkField::DepthMm(Some(4.0)), MarkField::Landmark(Some("short ribbon".to_owned()))],
            ),
            (MarkKind::Entry, "bottom edge, 50 mm from the left", "", vec![with("spudger")]),
            (MarkKind::Run, "bottom edge, 50 mm from the left", "top left corner", vec![with("spudger")]),
            (MarkKind::Run, "bottom edge, 50 mm from the left", "top right corner", vec![with("spudger")]),
        ],
    );
    let because = Some("a short ribbon leads to the display".to_owned());
    desk.seam(id, SeamField::Swing(Some(Swing { hinge: Some(FaceEdge::Top), at_most_deg: Some(60.0), because })));
    desk.seam(id, SeamField::Rebond(Some(Rebond { hook_first: Some(FaceEdge::Top), ..Rebond::default() })));
}

/// Stages, parts, tools and notes of the weather station.
fn tell_of_the_station(desk: &mut Desk) {
    for (step, stage) in [
        ("Remove the rear cover", "Opening the rear"),
        ("Remove the rain sensor", "The sensors and the air"),
        ("Remove the front glass", "Opening the front"),
    ] {
        if let Some(id) = desk.called(step) {
            desk.set(id, StepField::Stage(Some(stage.to_owned())));
        }
    }
    if let Some(id) = desk.called("Remove the front glass") {
        let any_of = ["spudger", "plastic card"].map(str::to_owned).to_vec();
        let preferred = any_of.last().cloned();
        let why = Some("it leaves no mark on the frame".to_owned());
        desk.set(id, StepField::Choices(vec![ToolChoice { any_of, preferred, why }]));
    }
    let cell = |mah, connector: &str| RatingLabel {
        voltage: Some(units::volts(3.6)),
        capacity: Some(units::milliampere_hours(mah)),
        connector: Some(connector.to_owned()),
        size: Some("50 × 34 × 7 mm".to_owned()),
        ..RatingLabel::default()
    };
    desk.about("battery", PartField::About(Some("one cell with its guard".to_owned())));
    desk.about(
        "battery",
        PartField::Fitted(RatingLabel { energy: Some(units::watt_hours(7.2)), ..cell(2000.0, "2-pin, red to 1") }),
    );
    let new = Replacement {
        number: Some("WS-2041".to_owned()),
        label: cell(1500.0, "2-pin, red to 1"),
        comes_with: Some("two bracket screws".to_owned()),
        price: Some(14.9),
        currency: Some("EUR".to_owned()),
        assembly: false,
    };
    desk.about("battery", PartField::Replacement(Some(new)));
    // The glue holds better than the glass: a way through the front costs a new one.
    desk.about("front glass", PartField::SingleUse(true));
    let glass = Replacement {
        number: Some("WS-3310".to_owned()),
        comes_with: Some("its adhesive frame".to_owned()),
        price: Some(21.5),
        currency: Some("EUR".to_owned()),
        ..Replacement::default()
    };
    desk.about("front glass", PartField::Replacement(Some(glass)));
    desk.about("main board", PartField::About(Some("clock, radio and the fan's controller".to_owned())));
    desk.about("main board", PartField::CooledBy(Some("the fan, through the air filter".to_owned())));
    desk.about("fan", PartField::Place(Some("behind the main board, top left".to_owned())));
    for (kind, text) in [
        (NoteKind::Damage, "A scratch across the front glass, from the upper left."),
        (NoteKind::Promise, "How to set the clock after the battery was out."),
        (NoteKind::Before, "The station has shown no alarm for an hour: the radio is idle."),
        (NoteKind::Lost, "The clock and the stored week."),
        (NoteKind::Harmless, "The display stays grey for ten seconds after the first start."),
        (NoteKind::MustPass, "The temperature shown agrees with a room thermometer within one degree."),
    ] {
        let id = NoteId(Uuid::now_v7());
        desk.edit(Edit::Note(NoteEdit::Add { id, kind, text: text.to_owned(), job: None }));
    }
}

/// Words that were said, what they warn of, and how the author puts it.
const SCALE_CAUTIONS: [(&str, CautionSubject, &str); 8] = [
    ("short ribbon", CautionSubject::Cable, "Go easy: a short ribbon leads to the display."),
    ("rip it open", CautionSubject::Cable, "Do not rip it open."),
    ("Grab the plug", CautionSubject::Cable, "Pulled by the wires, the plug tears off them."),
    ("mix them up", CautionSubject::ScrewMixup, "These screws are shorter than those of the cover: keep them apart."),
    ("bend the load cell", CautionSubject::Sensor, "Do not bend the load cell."),
    ("bend it the scale", CautionSubject::Sensor, "A bent load cell never weighs right again."),
    ("never stab it", CautionSubject::Battery, "Work it loose from the side and never stab it."),
    ("puffed up", CautionSubject::Battery, "If the battery is swollen, stop and hand it in at a battery drop-off."),
];

/// Steps of the scale as the author words them; what the narrator said twice is dropped.
const SCALE_SENTENCES: [(&str, &[Option<&str>]); 6] = [
    ("Remove the grain bowl", &[Some("Lift the grain bowl off.")]),
    (
        "Remove the rubber feet",
        &[
            Some("Turn the scale over."),
            Some("Peel off the four rubber feet; they hide the screws."),
            Some("Put them somewhere clean."),
        ],
    ),
    (
        "Remove the bottom cover",
        &[
            Some("Undo the four PH1 screws, 12 mm long, that hold the bottom cover."),
            Some("Run the spudger round the edge, then lift the bottom cover off slowly."),
        ],
    ),
    ("Disconnect the battery", &[Some("Unplug the battery: hold the plug, not the wires.")]),
    (
        "Remove the load cell bracket",
        &[
            Some("Flip up the latch."),
            Some("Pull out the display flex with the tweezers."),
            Some("Undo the three T6 screws of the load cell bracket, 6 mm long."),
            Some("Take off the load cell bracket."),
        ],
    ),
    (
        "Remove the battery",
        &[Some("Take out the battery: 3.7 V, 1800 mAh, 6.7 Wh."), Some("Let the tray dry for a minute.")],
    ),
];

fn work_scale(manual: &Manual) -> Vec<Edit> {
    let mut desk = Desk::new(manual);
    if let Some(id) = desk.steps(Phase::Teardown, "Switch off").first().copied() {
        desk.title(id, "Switch off the scale");
        desk.reword(id, &[Some("Switch the scale off at the side.")]);
    }
    for (title, sentences) in SCALE_SENTENCES {
        if let Some(id) = desk.called(title) {
            desk.reword(id, sentences);
        }
    }
    if let Some(id) = desk.called("Remove the load cell bracket") {
        desk.split(id, 2, "Disconnect the display");
    }
    for (said, about, text) in SCALE_CAUTIONS {
        desk.caution(said, about, text);
    }
    open_the_scale(&mut desk);
    // The narrator counts "one, two, that's it" on the way back: the demo keeps the screw that stays on the bench.
    desk.group("load cell bracket", FastenerField::Refitted(Some(2)));
    for title in ["Remove the grain bowl", "Remove the rubber feet", "Remove the battery"] {
        if let Some(id) = desk.steps(Phase::Teardown, title).first().copied() {
            desk.set(id, StepField::Reviewed(true));
        }
    }
    desk.edits
}
