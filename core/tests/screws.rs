//! Screws against the outside, and through the edits that authors make of them.

use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::reading::{Drive, read};
use paso_core::rebuild::fold;
use paso_core::recording::Recording;
use paso_core::screw::Thread;
use paso_core::screw::drive::{tip_to_tip_mm, usual_bits};
use paso_core::stops::screws;
use paso_core::{publish, units};
use rstest::rstest;
use uuid::Uuid;

/// Tables of the general-purpose parts library bd_warehouse 0.4.0 (PyPI, Apache-2.0), taken from its CSV files.
const LIBRARY: &str = include_str!("fixtures/bd_warehouse-0.4.0.csv");

fn library(what: &str) -> Vec<(String, String)> {
    let mut rows = csv::Reader::from_reader(LIBRARY.as_bytes());
    let of = |r: csv::StringRecord| (r[0] == *what).then(|| (r[1].to_owned(), r[2].to_owned()));
    rows.records().map(Result::unwrap).filter_map(of).collect()
}

/// The library also holds pitches that no longer are ISO's (M2×0.45, M3×0.6); only ISO's thirteen sizes are held against it.
#[rstest]
fn coarse_pitches_agree_with_a_parts_library(
    #[values("M1", "M1.2", "M1.4", "M1.6", "M1.8", "M2", "M2.2", "M2.5", "M3", "M3.5", "M4", "M5", "M6")] size: &str,
) {
    let pitch = units::number(units::in_millimetres(Thread::parse(size).unwrap().pitch));
    let known = library("pitch");
    assert!(known.contains(&(size.to_owned(), pitch.clone())), "{size}×{pitch} is not among {known:?}");
}

#[test]
fn tap_drills_agree_with_a_parts_library() {
    for (size, drill) in library("tap drill") {
        let thread = Thread::parse(&size).unwrap();
        let ours = units::in_millimetres(thread.diameter - thread.pitch);
        assert!((ours - drill.parse::<f64>().unwrap()).abs() < 0.011, "{size}: {ours} and {drill}");
    }
}

#[test]
fn hexalobular_sizes_agree_with_a_parts_library() {
    for (size, recess) in library("hexalobular") {
        let d = units::in_millimetres(Thread::parse(&size).unwrap().diameter);
        assert_eq!(usual_bits(Drive::Torx, d), [recess], "{size}");
    }
    for (size, across) in library("tip to tip") {
        let number = size.trim_start_matches('T').parse().unwrap();
        assert_eq!(tip_to_tip_mm(number), across.parse().ok(), "{size}");
    }
}

const PUMP: &str = "[0:00] Remove the handle.\n\n\
    [0:10] Remove four PH1 screws, 10 millimetres, from the cover. Take off the cover.\n\n\
    [0:30] Remove two T6 screws, 4 millimetres, from the board. Take out the board.\n\n\
    [0:50] Now the assembly. Put the board in and install two T6 screws, 4 millimetres, in the board.\n\n\
    [1:00] Put the cover on and install four PH1 screws, 10 millimetres, in the cover. Put the handle back.";

struct Bench {
    manual: Manual,
    layer: LayerId,
}

impl Bench {
    fn pump() -> Self {
        let recording = Recording::parse(PUMP.as_bytes()).unwrap();
        let about = RecordingRef { id: RecordingId(Uuid::nil()), title: "test".into(), duration_ms: 0 };
        let source = Source { recording: about, reading: &read(&recording) };
        let mut bench =
            Self { manual: draft(ManualId(Uuid::nil()), "Pump", "", &[source]), layer: LayerId(Uuid::from_u128(1)) };
        let outline = Outline::Rectangle { width_mm: 100.0, height_mm: 60.0, radius_mm: 3.0 };
        bench.edit(Edit::Layer(LayerEdit::Add { id: bench.layer, name: "Top".into(), outline }));
        bench
    }

    fn try_edit(&mut self, edit: Edit) -> Result<(), String> {
        let (next, change) = self.manual.apply(&edit, "Ann").map_err(|e| e.to_string())?;
        assert_eq!(next.revert(&change).unwrap().0, self.manual, "it can be undone");
        self.manual = next;
        Ok(())
    }

    fn edit(&mut self, edit: Edit) {
        self.try_edit(edit).unwrap();
    }

    fn group(&self, holds: &str) -> GroupId {
        let of = |g: &&FastenerGroup| g.holds.iter().any(|p| self.manual.part_name(*p) == holds);
        self.manual.fasteners.values().find(of).unwrap().id
    }

    fn set(&mut self, holds: &str, field: FastenerField) -> Result<(), String> {
        let id = self.group(holds);
        self.try_edit(Edit::Fastener(FastenerEdit::Set { id, field }))
    }

    fn holes(&mut self, holds: &str, at: &[(f64, f64)]) -> Result<(), String> {
        let holes = at.iter().map(|(x_mm, y_mm)| HolePlace { x_mm: *x_mm, y_mm: *y_mm }).collect();
        let (id, layer) = (self.group(holds), self.layer);
        self.try_edit(Edit::Hole(HoleEdit::Place { id, layer, holes }))
    }

    fn placed(&self, holds: &str) -> Vec<(f64, f64)> {
        self.manual.fasteners[&self.group(holds)].holes.iter().map(|h| (h.x_mm, h.y_mm)).collect()
    }
}

#[rstest]
#[case(&[(200.0, 5.0)], "Hole 1 at 200, 5 mm lies outside the outline of “Top”, which is 100 × 60 mm.")]
#[case(&[(5.0, 5.0), (9.0, 9.0), (5.0, 5.01)], "Holes 1 and 3 stand at the same place. Move one of them or take it away.")]
#[case(&[(f64::NAN, 5.0)], "Hole 1 has no place. Write its millimetres.")]
#[case(&[(50.0, 30.0)], "The place of hole 1 already has a screw of another group.")]
fn holes_that_cannot_be_say_why(#[case] at: &[(f64, f64)], #[case] says: &str) {
    let mut bench = Bench::pump();
    bench.holes("main board", &[(50.0, 30.0)]).unwrap();
    let refused = bench.holes("cover", at).unwrap_err();
    assert!(refused.contains(says), "{refused}");
}

#[test]
fn ten_thousand_holes_cannot_be_meant() {
    let mut bench = Bench::pump();
    let many: Vec<(f64, f64)> = (0..10_000).map(|i| (f64::from(i % 90) + 4.0, f64::from(i / 200) + 4.0)).collect();
    let refused = bench.holes("cover", &many).unwrap_err();
    assert!(refused.contains("10000 holes in one group cannot be meant; at most 500 fit."), "{refused}");
}

#[test]
fn holes_are_mirrored_and_spread_by_one_action() {
    let mut bench = Bench::pump();
    let (id, layer) = (bench.group("cover"), bench.layer);
    bench.holes("cover", &[(10.0, 30.0), (50.0, 8.0)]).unwrap();
    bench.edit(Edit::Hole(HoleEdit::Mirror { id, across: Across::Upright }));
    assert_eq!(bench.placed("cover"), [(10.0, 30.0), (50.0, 8.0), (90.0, 30.0)], "one stands on the middle line");
    bench.edit(Edit::Hole(HoleEdit::Clear { id }));
    let at = |x_mm, y_mm| HolePlace { x_mm, y_mm };
    bench.edit(Edit::Hole(HoleEdit::Spread { id, layer, from: at(10.0, 5.0), to: at(70.0, 5.0), count: 4 }));
    assert_eq!(bench.placed("cover"), [(10.0, 5.0), (30.0, 5.0), (50.0, 5.0), (70.0, 5.0)]);
    bench.edit(Edit::Hole(HoleEdit::Clear { id }));
    bench.edit(Edit::Hole(HoleEdit::Ring { id, layer, centre: at(50.0, 30.0), radius_mm: 20.0, count: 4 }));
    assert_eq!(bench.placed("cover"), [(50.0, 10.0), (70.0, 30.0), (50.0, 50.0), (30.0, 30.0)]);
    let says = |count| HoleEdit::Ring { id, layer, centre: at(50.0, 30.0), radius_mm: 20.0, count };
    assert!(bench.try_edit(Edit::Hole(says(1))).unwrap_err().contains("write 2 to 500"));
}

#[test]
fn where_nobody_said_a_number_the_drawing_counts() {
    let mut bench = Bench::pump();
    let (id, step) = (GroupId(Uuid::from_u128(9)), bench.manual.order()[0]);
    bench.edit(Edit::Fastener(FastenerEdit::Add { id, step }));
    let holes = vec![HolePlace { x_mm: 5.0, y_mm: 50.0 }, HolePlace { x_mm: 9.0, y_mm: 50.0 }];
    bench.edit(Edit::Hole(HoleEdit::Place { id, layer: bench.layer, holes }));
    assert_eq!(bench.manual.fasteners[&id].count, Some(2));
    bench.edit(Edit::Hole(HoleEdit::Clear { id }));
    assert_eq!(bench.manual.fasteners[&id].count, None);
}

#[test]
fn a_layer_goes_with_its_holes_and_shrinks_only_around_them() {
    let mut bench = Bench::pump();
    bench.holes("cover", &[(90.0, 30.0)]).unwrap();
    let small = Outline::Rectangle { width_mm: 60.0, height_mm: 60.0, radius_mm: 0.0 };
    let refused = bench.try_edit(Edit::Layer(LayerEdit::Redraw { id: bench.layer, outline: small })).unwrap_err();
    assert!(refused.contains("1 placed hole(s) would lie outside. Move them first."), "{refused}");
    bench.edit(Edit::Layer(LayerEdit::Remove { id: bench.layer }));
    let group = &bench.manual.fasteners[&bench.group("cover")];
    assert_eq!((group.holes.len(), group.layer, group.count), (0, None, Some(4)));
}

#[test]
fn parting_a_group_takes_its_holes_along() {
    let mut bench = Bench::pump();
    bench.holes("cover", &[(10.0, 10.0), (90.0, 10.0), (10.0, 50.0), (90.0, 50.0)]).unwrap();
    let (id, new_id) = (bench.group("cover"), GroupId(Uuid::from_u128(9)));
    let split = |count, holes: &[u32]| {
        Edit::Fastener(FastenerEdit::Split { id, new_id, count, holes: holes.to_vec(), name: "left".into() })
    };
    assert!(bench.try_edit(split(2, &[1, 7])).unwrap_err().contains("There is no hole 7 in this group; it has 4."));
    assert!(bench.try_edit(split(1, &[1, 2])).unwrap_err().contains("2 holes cannot go with 1 screws."));
    bench.edit(split(2, &[1, 3]));
    let [left, rest] = [new_id, id].map(|g| &bench.manual.fasteners[&g]);
    assert_eq!((left.count, left.refitted, left.holes.len()), (Some(2), Some(2), 2));
    assert_eq!((rest.count, rest.refitted, rest.holes[0].x_mm), (Some(2), Some(2), 90.0));
    assert_eq!(screws::view(&bench.manual).ledger.says, "0 left over.");
}

#[rstest]
#[case(FastenerField::Torque(Some("9 N·m".into())), "9 N·m breaks any M2 screw, which stands less than 0.4")]
#[case(FastenerField::Torque(Some("firm".into())), "“firm” is no torque.")]
#[case(FastenerField::TorqueNm(Some(-1.0)), "-1 N·m is out of range")]
#[case(FastenerField::Thread(Some("M99".into())), "“M99” is no metric thread.")]
#[case(FastenerField::HeadMm(Some(0.0)), "0 mm is out of range")]
#[case(FastenerField::EmptyOnArrival(9_999), "9999 screws in one group cannot be meant")]
#[case(FastenerField::Joint(JointFacts { friction: Some([0.3, 0.1]), ..JointFacts::default() }), "0.3 to 0.1 is no range of friction.")]
#[case(FastenerField::Joint(JointFacts { measured_nm: Some([0.5, 0.4]), ..JointFacts::default() }), "cannot take 0.5 N·m to drive the screw in")]
fn absurd_facts_say_why(#[case] field: FastenerField, #[case] says: &str) {
    let mut bench = Bench::pump();
    bench.set("main board", FastenerField::Thread(Some("M2".into()))).unwrap();
    let refused = bench.set("main board", field).unwrap_err();
    assert!(refused.contains(says), "{refused}");
}

#[test]
fn a_screw_waits_until_a_later_part_is_back() {
    let mut bench = Bench::pump();
    let handle = bench.manual.parts.values().find(|p| p.name == "handle").unwrap().id;
    let driven_with = |bench: &Bench| {
        let id = bench.group("cover");
        fold(&bench.manual).rebuild.iter().find(|s| s.groups.contains(&id)).unwrap().title.clone()
    };
    assert_eq!(driven_with(&bench), "Fit the cover");
    bench.set("cover", FastenerField::WaitsFor(Some(handle))).unwrap();
    assert_eq!(driven_with(&bench), "Fit the handle");
    let lines: Vec<String> =
        fold(&bench.manual).rebuild.iter().flat_map(|s| &s.lines).filter_map(|l| l.because.clone()).collect();
    assert!(lines.contains(&"These wait until the handle is back.".to_owned()), "{lines:?}");
}

#[test]
fn nothing_waits_for_a_part_that_never_left() {
    let mut bench = Bench::pump();
    let board = bench.manual.parts.values().find(|p| p.name == "main board").unwrap().id;
    bench.set("cover", FastenerField::WaitsFor(Some(board))).unwrap();
    let lines = fold(&bench.manual).rebuild.into_iter().flat_map(|s| s.lines);
    assert!(lines.filter_map(|l| l.because).all(|b| !b.contains("wait")), "the board is back before the cover anyway");
    assert!(!publish::markdown(&bench.manual).contains("only when the"));
}

#[test]
fn a_new_setting_is_not_the_narrators_any_more() {
    let mut bench = Bench::pump();
    bench.set("cover", FastenerField::Torque(Some("0.4 N·m".into()))).unwrap();
    bench.set("cover", FastenerField::TorqueFrom(Some(TorqueFrom::Narrator))).unwrap();
    bench.set("cover", FastenerField::TorqueBecause(Some("heard".into()))).unwrap();
    bench.set("cover", FastenerField::TorqueNm(Some(0.3))).unwrap();
    let group = &bench.manual.fasteners[&bench.group("cover")];
    assert_eq!((group.torque_from, group.torque_because.as_deref()), (None, None));
}

#[test]
fn empty_holes_are_not_doubled_by_parting() {
    let mut bench = Bench::pump();
    bench.set("cover", FastenerField::EmptyOnArrival(1)).unwrap();
    let (id, new_id) = (bench.group("cover"), GroupId(Uuid::from_u128(9)));
    bench.edit(Edit::Fastener(FastenerEdit::Split { id, new_id, count: 1, holes: vec![], name: "left".into() }));
    let empty: u32 = bench.manual.fasteners.values().map(|g| g.empty_on_arrival).sum();
    assert_eq!((empty, bench.manual.fasteners[&new_id].layer), (1, None));
}

#[test]
fn a_screw_of_two_parts_is_counted_once() {
    let mut bench = Bench::pump();
    let parts: Vec<PartId> =
        ["cover", "handle"].iter().map(|n| bench.manual.parts.values().find(|p| p.name == *n).unwrap().id).collect();
    let before = screws::view(&bench.manual).ledger.balance;
    bench.set("cover", FastenerField::Holds(parts)).unwrap();
    let after = screws::view(&bench.manual).ledger;
    assert_eq!((after.balance.out, after.balance.back), (before.out, before.back));
    assert_eq!(after.rows[0].label, "PH1, 10 mm, cover + handle");
}

#[test]
fn readers_are_told_how_tight_and_in_which_order() {
    let mut bench = Bench::pump();
    bench.holes("cover", &[(10.0, 10.0), (90.0, 10.0), (90.0, 50.0), (10.0, 50.0)]).unwrap();
    bench.set("cover", FastenerField::Torque(Some("40 N·cm".into()))).unwrap();
    let text = publish::markdown(&bench.manual);
    assert!(text.contains("- A: 4 × PH1, 10 mm, cover, step 2, 0.4 N·m (40 cN·m)\n"), "{text}");
    assert!(text.contains("Order: A1, A3, A4, A2."), "{text}");
    assert!(text.contains("Drive in the four PH1 screws (10 mm) of the cover to 0.4 N·m"), "{text}");
}
