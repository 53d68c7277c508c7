//! Joints: the screws that hold one part on one layer close together, so their order runs over all of their groups. What a
//! step opens besides is a joint of its own.
//!
//! A stated order stands where there is one; the computed one is kept beside it, so that the difference can be seen.

use super::kinds::sort;
use super::tighten::{Hole, Order, Pattern, both};
use crate::ids::*;
use crate::manual::{FastenerGroup, Manual};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// A hole by its group and its number there, from 1.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct HoleOf {
    pub group: GroupId,
    pub number: u32,
}

/// One order of a joint, computed or stated.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct JointOrder {
    /// The order in force.
    pub holes: Vec<HoleOf>,
    /// It was told or embossed.
    pub stated: bool,
    /// The computed order, where a stated one differs from it.
    pub computed: Option<Vec<HoleOf>>,
    /// Numbers in the computed order (from 1) at which another hole would do as well.
    pub ties: Vec<usize>,
}

/// The screws that close one joint.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Joint {
    pub step: StepId,
    /// What it holds, where that is known.
    pub part: Option<PartId>,
    pub layer: LayerId,
    pub groups: Vec<GroupId>,
    pub pattern: Pattern,
    pub tighten: JointOrder,
    pub loosen: JointOrder,
    pub two_passes: bool,
    /// What is to be done, in words.
    pub says: String,
}

/// All joints with placed holes, in the order in which they are opened. The order of one joint costs O(holes²).
pub fn joints(manual: &Manual) -> Vec<Joint> {
    let mut by: BTreeMap<(usize, LayerId), Vec<&FastenerGroup>> = BTreeMap::new();
    for (number, group) in manual.groups_in_order() {
        if let Some(layer) = group.layer.filter(|_| !group.holes.is_empty()) {
            by.entry((number, layer)).or_default().push(group);
        }
    }
    by.into_iter()
        .flat_map(|((_, layer), groups)| by_part(groups).into_iter().filter_map(move |held| joint(layer, &held)))
        .collect()
}

/// Groups that share a part they hold stand together, and so do those of which nobody knows what they hold.
fn by_part(groups: Vec<&FastenerGroup>) -> Vec<Vec<&FastenerGroup>> {
    let shares = |a: &FastenerGroup, b: &FastenerGroup| {
        a.holds.iter().any(|p| b.holds.contains(p)) || a.holds.is_empty() && b.holds.is_empty()
    };
    let mut joint_of: Vec<usize> = Vec::new();
    for (i, group) in groups.iter().enumerate() {
        let before = groups[..i].iter().zip(&joint_of).filter(|(other, _)| shares(other, group));
        // One that holds two parts brings their screws together.
        let met: BTreeSet<usize> = before.map(|(_, joint)| *joint).collect();
        let into = met.first().copied().unwrap_or(i);
        joint_of.iter_mut().filter(|joint| met.contains(joint)).for_each(|joint| *joint = into);
        joint_of.push(into);
    }
    let mut out: BTreeMap<usize, Vec<&FastenerGroup>> = BTreeMap::new();
    for (joint, group) in joint_of.into_iter().zip(groups) {
        out.entry(joint).or_default().push(group);
    }
    out.into_values().collect()
}

fn joint(layer: LayerId, groups: &[&FastenerGroup]) -> Option<Joint> {
    let of = |g: &&FastenerGroup| {
        let id = g.id;
        g.holes
            .iter()
            .enumerate()
            .map(move |(i, h)| (HoleOf { group: id, number: i as u32 + 1 }, *h))
            .collect::<Vec<_>>()
    };
    let all: Vec<_> = groups.iter().flat_map(of).collect();
    let holes: Vec<Hole> = all.iter().map(|(_, h)| Hole::at_mm(h.x_mm, h.y_mm)).collect();
    // Holes are checked when they are placed; what cannot be ordered is no joint.
    let (tight, loose) = both(&holes).ok()?;
    let named = |order: &Order| order.holes.iter().map(|i| all[*i].0).collect::<Vec<_>>();
    let two_passes = groups.iter().any(|g| g.two_passes);
    let tighten = in_force(named(&tight), &tight.ties, stated(groups, |g| &g.tighten_told));
    let loosen = in_force(named(&loose), &loose.ties, stated(groups, |g| &g.loosen_told));
    Some(Joint {
        step: groups[0].step,
        part: groups.iter().find_map(|g| g.holds.first()).copied(),
        layer,
        groups: groups.iter().map(|g| g.id).collect(),
        pattern: tight.pattern,
        says: says(tight.pattern, two_passes, tighten.stated, loosen.stated),
        tighten,
        loosen,
        two_passes,
    })
}

/// A stated order holds for the joint when all its screws are of one group.
fn stated(groups: &[&FastenerGroup], of: fn(&FastenerGroup) -> &Vec<u32>) -> Option<Vec<HoleOf>> {
    let [group] = groups else { return None };
    let order = of(group);
    let fits = order.len() == group.holes.len() && !order.is_empty();
    fits.then(|| order.iter().map(|n| HoleOf { group: group.id, number: *n }).collect())
}

fn in_force(computed: Vec<HoleOf>, ties: &[usize], stated: Option<Vec<HoleOf>>) -> JointOrder {
    let ties = ties.iter().map(|t| t + 1).collect();
    match stated {
        Some(told) if told != computed => {
            JointOrder { holes: told, stated: true, computed: Some(computed), ties: Vec::new() }
        }
        Some(told) => JointOrder { holes: told, stated: true, computed: None, ties: Vec::new() },
        None => JointOrder { holes: computed, stated: false, computed: None, ties },
    }
}

fn says(pattern: Pattern, two_passes: bool, stated: bool, loosen_stated: bool) -> String {
    let how = match (stated, pattern) {
        (true, _) => "in the order that was told",
        (false, Pattern::Few) => "by turns, a little each",
        (false, Pattern::Ring) => "crosswise",
        (false, Pattern::Plate) => "from the centre outwards",
    };
    let passes = passes(two_passes);
    let loosen = match (loosen_stated, pattern) {
        (true, _) => "in the order that was told",
        (false, Pattern::Few) => "by turns",
        (false, _) => "from the outside in, crosswise",
    };
    format!("Tighten {how}; {passes}. Loosen {loosen}, half a turn each.")
}

impl JointOrder {
    /// The holes in words, by the letters of their groups: "A1, A3, A2"; none for fewer than three.
    pub fn words(&self, letters: &BTreeMap<GroupId, String>) -> Option<String> {
        const WORTH_TELLING: usize = 3;
        let name = |h: &HoleOf| format!("{}{}", letters.get(&h.group).map_or("", String::as_str), h.number);
        let holes = &self.holes;
        (holes.len() >= WORTH_TELLING).then(|| holes.iter().map(name).collect::<Vec<_>>().join(", "))
    }
}

/// The orders of all joints in words, for readers.
pub struct Orders {
    joints: Vec<Joint>,
    letters: BTreeMap<GroupId, String>,
}

impl Orders {
    /// As [`joints`].
    pub fn of(manual: &Manual) -> Self {
        let letters = sort(manual).tags.into_iter().map(|(id, tag)| (id, tag.letter)).collect();
        Self { joints: joints(manual), letters }
    }

    /// What is loosened in a step, one line a joint.
    pub fn loosen(&self, step: StepId) -> Vec<String> {
        self.joints.iter().filter(|j| j.step == step).filter_map(|j| j.loosen_words(&self.letters)).collect()
    }

    /// What is tightened where these groups go in, one line a joint.
    pub fn tighten(&self, groups: &[GroupId]) -> Vec<String> {
        let driven = |j: &&Joint| j.groups.iter().any(|g| groups.contains(g));
        self.joints.iter().filter(driven).filter_map(|j| j.tighten_words(&self.letters)).collect()
    }
}

impl Joint {
    /// "Loosen A3, A1, A2, half a turn each, in the order that was told."; none for fewer than three screws.
    pub fn loosen_words(&self, letters: &BTreeMap<GroupId, String>) -> Option<String> {
        let told = if self.loosen.stated { ", in the order that was told" } else { "" };
        self.loosen.words(letters).map(|holes| format!("Loosen {holes}, half a turn each{told}."))
    }

    /// "Tighten A1, A3, A2: seat all by hand first."; none for fewer than three screws.
    pub fn tighten_words(&self, letters: &BTreeMap<GroupId, String>) -> Option<String> {
        let told = if self.tighten.stated { " in the order that was told" } else { "" };
        let passes = passes(self.two_passes);
        self.tighten.words(letters).map(|holes| format!("Tighten {holes}{told}: {passes}."))
    }
}

fn passes(two: bool) -> &'static str {
    if two { "first all to half the torque, then all in full" } else { "seat all by hand first, then tighten" }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::written::{group, manual};
    use crate::manual::{Edit, FastenerEdit, FastenerField};
    use rstest::rstest;

    const SQUARE: &str = "1 lid: 4 PH0 8 mm at 10,10 90,10 90,90 10,90";

    fn numbers(order: &JointOrder) -> Vec<u32> {
        order.holes.iter().map(|h| h.number).collect()
    }

    #[test]
    fn a_joint_runs_over_all_groups_of_its_part() {
        let m = manual(
            "1 lid: 2 PH0 8 mm at 10,10 90,90\n1 lid: 2 PH0 6 mm at 90,10 10,90\n2 fan: 2 PH0 6 mm at 40,40 60,60",
        );
        let found = joints(&m);
        assert_eq!(found.len(), 2);
        let told: Vec<(GroupId, u32)> = found[0].tighten.holes.iter().map(|h| (h.group, h.number)).collect();
        assert_eq!(told, [(group(10), 1), (group(10), 2), (group(11), 1), (group(11), 2)]);
        assert!(found[0].says.starts_with("Tighten crosswise; seat all by hand first"), "{}", found[0].says);
    }

    #[test]
    fn what_a_step_opens_besides_is_a_joint_of_its_own() {
        let m =
            manual("1 fan: 2 PH0 8 mm at 10,10 90,90\n1 bracket: 2 PH0 6 mm at 40,40 60,60\n1 fan: 1 T6 6 mm at 90,10");
        let groups: Vec<Vec<GroupId>> = joints(&m).into_iter().map(|j| j.groups).collect();
        assert_eq!(groups, [vec![group(10), group(12)], vec![group(11)]]);
    }

    #[test]
    fn screws_through_two_parts_bring_their_joints_together() {
        let mut m = manual("1 fan: 1 PH0 8 mm at 10,10\n1 bracket: 1 PH0 6 mm at 90,90\n1 fan: 1 T6 6 mm at 90,10");
        let both = m.parts.keys().copied().collect();
        m = m
            .apply(&Edit::Fastener(FastenerEdit::Set { id: group(12), field: FastenerField::Holds(both) }), "Ann")
            .unwrap()
            .0;
        assert_eq!(joints(&m).len(), 1);
    }

    #[rstest]
    #[case(FastenerField::LoosenTold(vec![4, 1, 3, 2]), "Loosen A4, A1, A3, A2, half a turn each, in the order that was told.", "Tighten A1, A3, A2, A4: seat all by hand first, then tighten.")]
    #[case(FastenerField::TightenTold(vec![1, 2, 3, 4]), "Loosen A1, A3, A2, A4, half a turn each.", "Tighten A1, A2, A3, A4 in the order that was told: seat all by hand first, then tighten.")]
    fn orders_read_as_orders(#[case] field: FastenerField, #[case] loosen: &str, #[case] tighten: &str) {
        let m = manual(SQUARE).apply(&Edit::Fastener(FastenerEdit::Set { id: group(10), field }), "Ann").unwrap().0;
        let letters = [(group(10), "A".to_owned())].into();
        let joint = &joints(&m)[0];
        assert_eq!(joint.loosen_words(&letters).as_deref(), Some(loosen));
        assert_eq!(joint.tighten_words(&letters).as_deref(), Some(tighten));
    }

    #[rstest]
    #[case(vec![1, 2, 3, 4], true)]
    #[case(vec![1, 3, 2, 4], false)]
    fn a_stated_order_stands_and_the_difference_is_kept(#[case] told: Vec<u32>, #[case] differs: bool) {
        let m = manual(SQUARE);
        let edit = FastenerEdit::Set { id: group(10), field: FastenerField::TightenTold(told.clone()) };
        let m = m.apply(&Edit::Fastener(edit), "Ann").unwrap().0;
        let joint = &joints(&m)[0];
        assert_eq!((numbers(&joint.tighten), joint.tighten.computed.is_some()), (told, differs));
        assert!(joint.tighten.stated && !joint.loosen.stated, "loosening is its own order");
    }

    #[rstest]
    #[case(vec![1, 2, 3])]
    #[case(vec![1, 2, 3, 3])]
    #[case(vec![0, 1, 2, 3])]
    fn an_order_names_every_hole_once(#[case] told: Vec<u32>) {
        let edit = FastenerEdit::Set { id: group(10), field: FastenerField::TightenTold(told) };
        let refused = manual(SQUARE).apply(&Edit::Fastener(edit), "Ann").unwrap_err().to_string();
        assert!(refused.contains("each of the 4 holes once, by their numbers 1 to 4"), "{refused}");
    }
}
