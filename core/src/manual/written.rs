//! Screws written as an author would, one group a line, for tests.
//!
//! ```text
//! 1 cover: 4 PH1 10 mm, M3, countersunk, captive, 3 back, 0.4 N·m, into abs, for plastic at 5,5 50,5
//! ```
//!
//! The number is the step, the word behind it the part that the screws hold.

use crate::ids::*;
use crate::labels::Label;
use crate::manual::*;
use crate::reading::{Act, Drive};
use crate::screw::Material;
use uuid::Uuid;

/// An id for tests.
pub fn group(n: u128) -> GroupId {
    GroupId(Uuid::from_u128(n))
}

/// A manual with one layer of 100 × 100 mm.
pub fn manual(text: &str) -> Manual {
    let mut m = Manual::new(ManualId(Uuid::nil()), "Test", "");
    let mut ids = IdMaker::new(Uuid::nil());
    let layer = LayerId(Uuid::from_u128(1));
    let outline = Outline::Rectangle { width_mm: 100.0, height_mm: 100.0, radius_mm: 4.0 };
    let edit = |m: &mut Manual, edit: Edit| *m = m.apply(&edit, "Ann").expect("the line says what can be").0;
    edit(&mut m, Edit::Layer(LayerEdit::Add { id: layer, name: "Rear".into(), outline }));
    let mut steps: Vec<StepId> = Vec::new();
    for (n, line) in text.lines().map(str::trim).filter(|l| !l.is_empty()).enumerate() {
        let (head, rest) = line.split_once(": ").expect("a step and a part");
        let (number, part) = head.split_once(' ').expect("a number and a part");
        let number: usize = number.parse().expect("a number");
        let part = m.parts.values().find(|p| p.name == part).map(|p| p.id).unwrap_or_else(|| {
            let id = ids.make(PartId);
            edit(&mut m, Edit::Part(PartEdit::Add { id, name: part.to_owned() }));
            id
        });
        while steps.len() < number {
            let id = ids.make(StepId);
            let action = Action::typed(ids.make(ActionId), Act::Remove, vec![part], "Take it out.");
            let title = format!("Remove the {}", m.part_name(part));
            let after = steps.last().copied();
            edit(&mut m, Edit::Step(StepEdit::Add { id, phase: Phase::Teardown, after, title, actions: vec![action] }));
            steps.push(id);
        }
        let id = group(10 + n as u128);
        edit(&mut m, Edit::Fastener(FastenerEdit::Add { id, step: steps[number - 1] }));
        let mut made = FastenerGroup { holds: vec![part], ..m.fasteners[&id].clone() };
        let (spec, at) = rest.split_once(" at ").unwrap_or((rest, ""));
        for item in spec.split(", ") {
            describe(&mut made, item);
        }
        m.fasteners.insert(id, made);
        let holes: Vec<HolePlace> = at.split_whitespace().map(place).collect();
        if !holes.is_empty() {
            edit(&mut m, Edit::Hole(HoleEdit::Place { id, layer, holes }));
        }
    }
    m
}

fn place(text: &str) -> HolePlace {
    let (x, y) = text.split_once(',').expect("two figures");
    HolePlace { x_mm: x.parse().expect("a figure"), y_mm: y.parse().expect("a figure") }
}

pub fn describe(g: &mut FastenerGroup, item: &str) {
    let figure = |suffix: &str| item.strip_suffix(suffix).and_then(|n| n.trim().parse::<f64>().ok());
    if let Some(head) = HeadForm::ALL.iter().copied().find(|h| h.label() == item) {
        g.head = Some(head);
    } else if let Ok(thread) = item.parse() {
        g.thread = Some(thread);
    } else if let Some(n) = figure(" back") {
        g.refitted = Some(n as u32);
    } else if let Some(nm) = figure(" N·m") {
        g.torque = Some(crate::units::newton_metres(nm));
    } else if let Some(mm) = figure(" deep") {
        g.joint.engagement = Some(crate::units::millimetres(mm));
    } else if let Some(into) = item.strip_prefix("into ") {
        let json = serde_json::Value::String(into.to_owned());
        g.joint.into = Some(serde_json::from_value::<Material>(json).expect("a material"));
    } else {
        match item {
            "captive" => g.captive = true,
            _ if item.starts_with("class ") => {
                let class = serde_json::Value::from(&item["class ".len()..]);
                g.joint.class = Some(serde_json::from_value(class).expect("a class"));
            }
            "locker" => g.locking = Some(Locking::Liquid),
            "drawn 3" => g.claims.push(CountClaim { count: 3, how: HowCounted::Drawn, evidence: None }),
            "because it was measured" => g.torque_because = Some("it was measured".to_owned()),
            "renewed" => g.fate = FastenerFate::Renew,
            "left out" => g.fate = FastenerFate::LeaveOut,
            "for plastic" => g.forming = true,
            _ => describe_screws(g, item),
        }
    }
}

/// "4 PH1 10 mm", "4": how many, which bit, how long.
fn describe_screws(g: &mut FastenerGroup, item: &str) {
    let words: Vec<&str> = item.split(' ').collect();
    let (count, bit, length) = match words[..] {
        [count, bit, length, "mm"] => (count, bit, length),
        [count, bit] => (count, bit, ""),
        [count] => (count, "", ""),
        _ => panic!("nobody writes “{item}”"),
    };
    g.count = count.parse().ok();
    g.claims = g.count.map(|count| CountClaim { count, how: HowCounted::Said, evidence: None }).into_iter().collect();
    let drive = if bit.starts_with("PH") { Drive::Phillips } else { Drive::Torx };
    g.drive = Some(drive).filter(|_| !bit.is_empty());
    g.bit = Some(bit.to_owned()).filter(|b| !b.is_empty());
    g.length = length.parse().ok().map(crate::units::millimetres);
}
