//! Kinds of screws: groups whose screws are alike share a shape, so that a mat or a map tells at a glance what may be
//! swapped and what must not.
//!
//! A tag is shape, letter and length: the shape is the kind, the letter the group, in the order of removal. Colour carries
//! nothing.

use crate::ids::*;
use crate::manual::{FastenerGroup, HeadForm, Manual, kind_words};
use crate::reading::Drive;
use crate::screw::Thread;
use crate::units::in_millimetres;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Outline of a tag.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Shape {
    Circle,
    Square,
    Triangle,
    Diamond,
    Pentagon,
    Hexagon,
    Slab,
    Drop,
}

impl Shape {
    /// In the order in which kinds take them.
    pub const ALL: [Self; 8] = [
        Self::Circle,
        Self::Square,
        Self::Triangle,
        Self::Diamond,
        Self::Pentagon,
        Self::Hexagon,
        Self::Slab,
        Self::Drop,
    ];
}

/// How a group is told from the others.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Tag {
    /// Alike for groups of one kind; beyond eight kinds shapes come again, and the letter tells.
    pub shape: Shape,
    pub letter: String,
    pub length_mm: Option<f64>,
}

/// What makes screws alike.
#[derive(Debug, Clone, PartialEq)]
pub struct Kind {
    pub drive: Option<Drive>,
    pub bit: Option<String>,
    pub length_mm: Option<f64>,
    pub thread: Option<Thread>,
    pub forming: bool,
    pub head: Option<HeadForm>,
}

impl Kind {
    /// Of the screws of a group.
    pub fn of(group: &FastenerGroup) -> Self {
        Self {
            drive: group.drive,
            bit: group.bit.clone(),
            length_mm: group.length.map(in_millimetres),
            thread: group.thread,
            forming: group.forming,
            head: group.head,
        }
    }

    /// "PH0, M2, 6 mm, pan head".
    pub fn words(&self) -> String {
        let drive = self.bit.clone().or_else(|| self.drive.map(|d| d.in_words().to_owned()));
        kind_words(drive, self.thread, self.length_mm, self.head, self.forming)
    }
}

/// Kinds with their groups, and the tag of every group.
#[derive(Debug, Clone, Default)]
pub struct Sorted {
    pub kinds: Vec<(Kind, Vec<GroupId>)>,
    pub tags: BTreeMap<GroupId, Tag>,
}

/// Sorts the groups of the teardown by kind, in the order of removal. O(groups · log groups).
pub fn sort(manual: &Manual) -> Sorted {
    let mut out = Sorted::default();
    let letters = manual.letters();
    for (_, group) in manual.groups_in_order() {
        let kind = Kind::of(group);
        let at = out.kinds.iter().position(|(k, _)| *k == kind).unwrap_or_else(|| {
            out.kinds.push((kind.clone(), Vec::new()));
            out.kinds.len() - 1
        });
        out.kinds[at].1.push(group.id);
        let shape = Shape::ALL[at % Shape::ALL.len()];
        out.tags.insert(
            group.id,
            Tag { shape, letter: letters.get(&group.id).cloned().unwrap_or_default(), length_mm: kind.length_mm },
        );
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::Evidence;
    use crate::manual::written::{group, manual};
    use uuid::Uuid;

    /// Ids are hashes: within a step the letters follow the words of the recording.
    #[test]
    fn letters_follow_the_telling() {
        let mut m = manual("1 lid: 4 PH0 8 mm\n1 lid: 2 PH0 6 mm\n1 lid: 1 T6 4 mm");
        for (n, start) in [(10, 300), (11, 100), (12, 200)] {
            let said = Evidence::Recording {
                recording: RecordingId(Uuid::nil()),
                start,
                end: start + 10,
                from_ms: None,
                to_ms: None,
            };
            m.fasteners.get_mut(&group(n)).unwrap().evidence.insert(0, said);
        }
        let tags = sort(&m).tags;
        let letters: Vec<&str> = [11, 12, 10].iter().map(|n| tags[&group(*n)].letter.as_str()).collect();
        assert_eq!(letters, ["A", "B", "C"]);
    }
}
