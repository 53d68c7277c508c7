//! The torque bench of a group: what is known of its joint, what is assumed for the rest, and how the setting stands.

use crate::labels::Label;
use crate::manual::{FastenerGroup, HeadForm, Locking, TorqueFrom};
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
    /// What a reader is told, in N·m: the setting that was given and stands, else the recommended one of a joint whose class,
    /// material and depth are known.
    pub in_force_nm: Option<f64>,
    /// Where the setting in force is from, for readers: "as the maker says", "computed for class 8.8 in steel, dry".
    pub from: Option<String>,
    /// Class, material and depth are known: only then may a computed window refuse a setting that somebody gave.
    pub certain: bool,
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
    let bearing = group.head.map(|h| h.bearing() * thread.diameter);
    let joint = Joint {
        thread,
        class,
        into,
        engagement: facts.engagement,
        friction: facts.friction.map(|[low, high]| (low, high)),
        head: group.head_width.filter(|_| group.head != Some(HeadForm::None)).or(bearing),
        cone: group.head == Some(HeadForm::Countersunk),
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
    // A guess neither hides what a maker measured nor tells readers a figure of its own.
    let certain = is_certain(group);
    let given = group.torque.filter(|_| fine || confirmed || !certain).map(in_newton_metres);
    let recommended =
        computed.as_ref().and_then(|w| w.recommended_nm).filter(|_| certain && group.torque.is_none() && !group.snug);
    let in_force_nm = given.or(recommended);
    Setting {
        window: computed.as_ref().map(|b| in_units(|u| u.range(b.min_nm, b.max_nm))).unwrap_or_default(),
        setting: in_force_nm.map(|nm| in_units(|u| u.text(nm))).unwrap_or_default(),
        by_hand: by_hand(group, in_force_nm),
        from: in_force_nm.and_then(|_| from(group)),
        certain,
        open: !fine && !confirmed,
        computed,
        assumed,
        in_force_nm,
        verdict,
    }
}

fn in_units(text: impl Fn(TorqueUnit) -> String) -> Vec<InUnit> {
    TorqueUnit::ALL.iter().map(|u| InUnit { unit: u.label().to_owned(), text: text(*u) }).collect()
}

fn is_certain(group: &FastenerGroup) -> bool {
    let joint = &group.joint;
    let deep = joint.engagement.is_some() || joint.measured_nm.is_some();
    group.thread.is_some() && joint.class.is_some() && joint.into.is_some() && deep
}

/// Where a setting is from and what it assumes.
fn from(group: &FastenerGroup) -> Option<String> {
    if group.torque.is_some() {
        let said = group.torque_from.unwrap_or(TorqueFrom::Author);
        // Readers know the author by the guide itself; of a value out of its window they are told why it stands.
        let who = (said != TorqueFrom::Author).then(|| format!("as {} says", said.label()));
        let why = group.torque_because.as_deref().map(|w| w.trim_end_matches('.').to_owned());
        return [who, why].into_iter().flatten().reduce(|a, b| format!("{a}; {b}"));
    }
    let (class, into) = (group.joint.class?.label(), group.joint.into?.phrase());
    let locked = match group.locking {
        Some(Locking::Patch) => ", and on top what the patch takes to turn, read before the head seats",
        Some(Locking::Liquid) => ", with wet thread locker: it lubricates, so stay at the lower end",
        _ => ", dry",
    };
    Some(format!("computed for class {class} in {into}{locked}"))
}

/// Hand-feel wording (common practice, no source).
fn by_hand(group: &FastenerGroup, setting: Option<f64>) -> String {
    const FINGERS_NM: f64 = 0.15;
    const SMALL_NM: f64 = 0.6;
    if group.snug && setting.is_none() {
        return "By hand, until it is snug: stop at the first firm resistance, and add no turn.".to_owned();
    }
    let plastic = group.forming || group.joint.into.is_some_and(Material::plastic);
    let wanted = setting.unwrap_or(FINGERS_NM);
    let feel = match wanted {
        t if t <= FINGERS_NM => "with two fingers on the driver: stop at the first firm resistance",
        t if t <= SMALL_NM => "with thumb and two fingers: stop when it is snug, and add no turn",
        // "A quarter turn more" stretches a short screw for good.
        _ => "with the whole hand: stop when it is snug, and add no turn",
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
    #[case::inside("class 4.8, 0.4 N·m", Some(TorqueVerdict::Inside), Some(0.4), false)]
    #[case::above("class 4.8, 0.7 N·m", Some(TorqueVerdict::Above), None, true)]
    #[case::below("class 4.8, 0.05 N·m", Some(TorqueVerdict::Below), None, true)]
    #[case::above_a_guess("0.7 N·m", Some(TorqueVerdict::Above), Some(0.7), true)]
    #[case::breaks_by_a_guess("0.9 N·m", Some(TorqueVerdict::Breaks), Some(0.9), true)]
    #[case::breaks("class 4.8, 0.9 N·m", Some(TorqueVerdict::Breaks), None, true)]
    // By hand: the middle of 0.303 and 0.6·1.58 N·m is 0.625; the mark of a driver's scale next to it is 0.65.
    #[case::none_given("class 8.8", None, Some(0.65), false)]
    #[case::guessed_class("pan", None, None, false)]
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
        assert_eq!(found.by_hand, "By hand, with thumb and two fingers: stop when it is snug, and add no turn.");
    }

    #[rstest]
    #[case::nothing_known("pan", None)]
    #[case::computed("class 8.8", Some("computed for class 8.8 in steel, dry"))]
    #[case::the_author("0.4 N·m", None)]
    #[case::and_why("0.7 N·m, because it was measured", Some("it was measured"))]
    fn readers_are_told_where_a_setting_is_from(#[case] given: &str, #[case] from: Option<&str>) {
        let found = of(&format!("1 lid: 4 PH1 8 mm, M3, into steel, 6 deep, {given}"));
        assert_eq!(found.from.as_deref(), from);
    }

    #[test]
    fn by_hand_nothing_is_turned_further_than_snug() {
        for nm in ["0.1", "0.4", "3"] {
            assert!(!of(&format!("1 lid: 4 PH1 8 mm, {nm} N·m")).by_hand.contains("quarter"));
        }
    }

    #[test]
    fn snug_is_a_setting_of_its_own() {
        use crate::manual::{Edit, FastenerEdit, FastenerField, Manual};
        let set =
            |m: &Manual, field| m.apply(&Edit::Fastener(FastenerEdit::Set { id: group(10), field }), "Ann").unwrap().0;
        let given = manual("1 lid: 4 PH1 8 mm, M3, into steel, 6 deep, class 8.8, 0.6 N·m");
        let snug = set(&given, FastenerField::Snug(true));
        let told = setting(&snug.fasteners[&group(10)]);
        assert_eq!((told.in_force_nm, told.open), (None, false), "no figure, and none recommended");
        assert!(told.by_hand.starts_with("By hand, until it is snug"), "{}", told.by_hand);
        let figure = set(&snug, FastenerField::TorqueNm(Some(0.6)));
        assert!(!figure.fasteners[&group(10)].snug, "a figure takes its place");
    }

    #[test]
    fn what_nobody_said_is_told_as_assumed() {
        let found = of("1 lid: 4 PH1 8 mm, M3, for plastic");
        assert!(found.assumed.iter().any(|a| a == "a hole in ABS"), "{:?}", found.assumed);
        assert!(found.by_hand.ends_with("Turn backwards first until the thread drops."));
    }
}
