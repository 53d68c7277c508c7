//! The demo: invented devices with narrations, worked into manuals at the first start.
//!
//! The narrations are read and drafted like any other; then a script of ordinary edits does what an author would do at
//! the stops, so that the demo can never show something the program cannot do.

use crate::store::{EditRequest, Store, StoreError};
use paso_core::ids::*;
use paso_core::manual::*;
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

const DEVICES: [Device; 2] = [
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
        let recording = store.bring(device.file, device.narration.as_bytes().to_vec()).await?;
        let id = store.create(device.title, device.device, &[recording.id.0]).await?;
        let (mut base_seq, manual) = store.manual(id).await?;
        for edit in (device.work)(&manual) {
            base_seq = store.edit(id, AUTHOR, &EditRequest { id: Uuid::now_v7(), base_seq, edit }).await?.seq;
        }
    }
    Ok(())
}

/// The step whose title begins so.
fn step(manual: &Manual, title: &str) -> Option<StepId> {
    manual.order().into_iter().find(|id| manual.steps[id].title.starts_with(title))
}

fn reviewed(id: StepId) -> Edit {
    Edit::Step(StepEdit::Set { id, field: StepField::Reviewed(true) })
}

fn work_lamp(manual: &Manual) -> Vec<Edit> {
    manual.steps_in(Phase::Teardown).iter().map(|s| reviewed(s.id)).collect()
}

fn work_scale(manual: &Manual) -> Vec<Edit> {
    let mut edits: Vec<Edit> = Vec::new();
    if let Some(id) = step(manual, "Remove the battery") {
        edits.push(reviewed(id));
    }
    edits
}
