//! The torque bench of a group: what is known of its joint, what is assumed for the rest, and how the setting stands.

use crate::labels::Label;
use crate::manual::FastenerGroup;
use crate::screw::{Class, Joint, Material, TorqueVerdict, TorqueWindow};
use crate::units::{TorqueUnit, in_newton_metres, newton_metres};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A figure in one unit, for people.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct InUnit {
    pub unit: String,
    pub text: String,
}

/// The bench with the setting in force.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Setting {
    /// `None` while the thread is not known: nothing can be computed then.
    pub computed: Option<TorqueWindow>,
    /// What was taken as usual because nobody said.
    pub assumed: Vec<String>,
    /// What a reader is told, in N·m: the setting that was given and stands, else the recommended one of a joint whose class
    /// and material are known.
    pub in_force_nm: Option<f64>,
    /// The given setting against the window.
    pub verdict: Option<TorqueVerdict>,
    /// The window, the setting and the breaking torque in all units.
    pub window: Vec<InUnit>,
    pub setting: Vec<InUnit>,
    /// What to say where no torque driver is.
    pub by_hand: String,
    /// Outside the window and nobody has given a reason.
    pub open: bool,
}

/// What the bench reckons with for a group; `None` without a thread.
pub fn joint_of(group: &FastenerGroup) -> Option<(Joint, Vec<String>)> {
    let thread = group.thread?;
    let facts = &group.joint;
    let mut assumed = Vec::new();
    let class = facts.class.unwrap_or_else(|| {
        assumed.push("class 4.8, as is usual for small screws with a cross recess".to_owned());
        Class::C48
    });
    let into = facts.into.unwrap_or_else(|| {
        let usual = if group.forming { Material::Abs } else { Material::Steel };
        assumed.push(format!("a hole in {}", usual.phrase()));
        usual
    });
    if facts.engagement.is_none() {
        assumed.push(format!("{} diameters deep", into.engagement()));
    }
    if facts.friction.is_none() {
        assumed.push("the friction that is usual for such a screw".to_owned());
    }
    let width = group.head.map(|h| h.width() * thread.diameter);
    let joint = Joint {
        thread,
        class,
        into,
        engagement: facts.engagement,
        friction: facts.friction.map(|[low, high]| (low, high)),
        head: group.head_width.or(width),
        clamped: facts.clamped,
        forming: group.forming,
        measured: facts.measured_nm.map(|[drives, strips]| (newton_metres(drives), newton_metres(strips))),
    };
    Some((joint, assumed))
}

/// Works out the bench of a group.
pub fn setting(group: &FastenerGroup) -> Setting {
    let (computed, assumed) = match joint_of(group) {
        Some((joint, assumed)) => (Some(joint.window()), assumed),
        None => (None, Vec::new()),
    };
    let verdict = computed.as_ref().zip(group.torque).map(|(w, t)| w.judge(t));
    let fine = matches!(verdict, None | Some(TorqueVerdict::Inside));
    let confirmed = group.torque_because.is_some() && verdict != Some(TorqueVerdict::Breaks);
    let given = group.torque.filter(|_| fine || confirmed).map(in_newton_metres);
    // What is worked out from guesses is shown to the author and not told to readers.
    let known = group.joint.class.is_some() && group.joint.into.is_some();
    let recommended = computed.as_ref().and_then(|w| w.recommended_nm).filter(|_| known && group.torque.is_none());
    let in_force_nm = given.or(recommended);
    Setting {
        window: computed.as_ref().map(|b| in_units(|u| u.range(b.min_nm, b.max_nm))).unwrap_or_default(),
        setting: in_force_nm.map(|nm| in_units(|u| u.text(nm))).unwrap_or_default(),
        by_hand: by_hand(group, computed.as_ref()),
        open: !fine && !confirmed,
        computed,
        assumed,
        in_force_nm,
        verdict,
    }
}

fn in_units(text: impl Fn(TorqueUnit) -> String) -> Vec<InUnit> {
    TorqueUnit::ALL.into_iter().map(|u| InUnit { unit: u.name().to_owned(), text: text(u) }).collect()
}

/// Hand-feel wording (common practice, no source).
fn by_hand(group: &FastenerGroup, bench: Option<&TorqueWindow>) -> String {
    const FINGERS_NM: f64 = 0.15;
    const SMALL_NM: f64 = 0.6;
    let plastic = group.forming || group.joint.into.is_some_and(Material::plastic);
    let wanted = bench.and_then(|b| b.recommended_nm).unwrap_or(FINGERS_NM);
    let feel = match wanted {
        t if t <= FINGERS_NM => "with two fingers on the driver: stop at the first firm resistance",
        t if t <= SMALL_NM => "with thumb and two fingers: stop when it is snug, and add no turn",
        _ => "with the whole hand: snug, then a quarter turn",
    };
    let start = if plastic { " Turn backwards first until the thread drops." } else { "" };
    format!("By hand, {feel}.{start}")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::written::{group, manual};
    use rstest::rstest;

    fn of(text: &str) -> Setting {
        setting(&manual(text).fasteners[&group(10)])
    }

    #[rstest]
    #[case::inside("0.4 N·m", Some(TorqueVerdict::Inside), Some(0.4), false)]
    #[case::above("0.7 N·m", Some(TorqueVerdict::Above), None, true)]
    #[case::below("0.05 N·m", Some(TorqueVerdict::Below), None, true)]
    // By hand: the middle of 0.303 and 0.6·1.58 N·m is 0.625; the mark of a driver's scale next to it is 0.65.
    #[case::none_given("class 8.8", None, Some(0.65), false)]
    #[case::guessed("pan", None, None, false)]
    fn a_given_setting_stands_inside_the_window(
        #[case] given: &str,
        #[case] stands: Option<TorqueVerdict>,
        #[case] in_force: Option<f64>,
        #[case] open: bool,
    ) {
        let found = of(&format!("1 lid: 4 PH1 8 mm, M3, into steel, 6 deep, {given}"));
        assert_eq!((found.verdict, found.open), (stands, open), "{found:?}");
        assert_eq!(found.in_force_nm, in_force, "{found:?}");
    }

    #[test]
    fn without_a_thread_a_given_setting_is_told_as_it_is() {
        let found = of("1 lid: 4 PH1 8 mm, 0.4 N·m");
        assert_eq!((found.computed, found.in_force_nm, found.open), (None, Some(0.4), false));
        assert!(found.by_hand.contains("stop at the first firm resistance"), "{}", found.by_hand);
    }

    #[test]
    fn what_nobody_said_is_told_as_assumed() {
        let found = of("1 lid: 4 PH1 8 mm, M3, for plastic");
        assert!(found.assumed.iter().any(|a| a == "a hole in ABS"), "{:?}", found.assumed);
        assert!(found.by_hand.ends_with("Turn backwards first until the thread drops."));
    }
}
