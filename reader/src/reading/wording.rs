//! The sentences that readers of a guide see: imperative, with count, kind, figures, place and tool.
//!
//! Names go in, sentences come out, so that a draft, a hand-made step and a step whose part was renamed read alike.

use super::Act;
use super::facts::Drive;
use crate::labels::Label;
use crate::units::{Measure, Quantity, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Screws of one size among those of an act.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScrewGroup {
    pub count: Option<u32>,
    pub drive: Option<Drive>,
    pub bit: Option<String>,
    pub length_mm: Option<f64>,
}

/// Where something is done: a preposition and a thing with its article, "under the lid".
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Whereabouts {
    pub preposition: String,
    pub thing: String,
}

impl Whereabouts {
    /// Words that an author writes, "from under the lid"; `None` where they do not begin with how it lies, or name nothing.
    pub fn parse(text: &str) -> Option<Self> {
        // Longer ones first: "out of" is no "out".
        const PREPOSITIONS: [&str; 42] = [
            "in front of",
            "on top of",
            "on the side of",
            "from under",
            "from behind",
            "from inside",
            "out of",
            "off of",
            "next to",
            "close to",
            "as far as",
            "in",
            "into",
            "on",
            "onto",
            "at",
            "from",
            "to",
            "toward",
            "towards",
            "under",
            "underneath",
            "below",
            "beneath",
            "over",
            "above",
            "across",
            "along",
            "around",
            "round",
            "behind",
            "before",
            "beside",
            "between",
            "near",
            "inside",
            "outside",
            "through",
            "against",
            "off",
            "past",
            "by",
        ];
        let words = text.split_whitespace().collect::<Vec<_>>().join(" ");
        let lower = words.to_lowercase();
        let begins = |p: &&&str| lower.strip_prefix(**p).is_some_and(|rest| rest.starts_with(' '));
        let preposition = PREPOSITIONS.iter().find(begins)?;
        let thing = words.get(preposition.len() + 1..)?.to_owned();
        Some(Self { preposition: (*preposition).to_owned(), thing })
    }
}

/// What one sentence of a guide tells.
#[derive(Debug, Clone, PartialEq)]
pub struct Instruction<'a> {
    pub act: Act,
    /// What it is done to, without articles; of screws what they hold.
    pub things: Vec<&'a str>,
    /// Of an act that turns screws: their sizes.
    pub screws: Vec<ScrewGroup>,
    /// Tool or material, without an article.
    pub by: Option<&'a str>,
    pub places: &'a [Whereabouts],
    pub manner: &'a [String],
    /// Under which condition it is done, with its "if": stands first.
    pub condition: Option<&'a str>,
    /// A sign: to stop, and of a test what shows that all is good.
    pub until: Option<&'a str>,
    pub measures: &'a [Measure],
}

impl Instruction<'_> {
    /// "Undo the four T5 screws (6 mm) of the pump bracket.", "If it breaks, remove the tab with tweezers."
    pub fn sentence(&self) -> String {
        let Some(condition) = self.condition else { return self.order() };
        let order = self.order();
        if condition.starts_with("unless ") {
            return format!("{}, {condition}.", order.trim_end_matches('.'));
        }
        let mut letters = order.chars();
        let first = letters.next().map(char::to_lowercase);
        format!("{}, {}{}", capital(condition), first.into_iter().flatten().collect::<String>(), letters.as_str())
    }

    /// The same without its condition.
    fn order(&self) -> String {
        if let Some(checked) = self.checked() {
            return checked;
        }
        let the = if self.things.is_empty() { None } else { Some(format!("the {}", list(&self.things))) };
        let mut text = match self.act {
            Act::Loosen | Act::Tighten if self.turns_the_part() => {
                format!("{} the {}", verb(self.act), list(&self.things))
            }
            Act::Unscrew | Act::Loosen | Act::Drive | Act::Tighten => screws(self, the.as_deref()),
            Act::Turn if self.laid_on().is_some() => {
                format!("Turn the {} onto its {}", list(&self.things), self.laid_on().unwrap_or_default())
            }
            _ => the.map_or_else(|| alone(self.act), |the| format!("{} {the}", self.verb())),
        };
        // Of screws only "by hand" tells a reader something.
        let screws = matches!(self.act, Act::Unscrew | Act::Drive);
        let ways: Vec<&str> = self.manner.iter().map(String::as_str).filter(|m| !screws || of_screws(m)).collect();
        if !ways.is_empty() {
            text.push_str(&format!(" {}", ways.join(" and ")));
        }
        // "Remove the lid from the lid": a place that is the thing itself tells nothing.
        // "in the back" of the back cover.
        let begins = |w: &str, p: &str| w.strip_prefix(p).is_some_and(|rest| rest.starts_with(' '));
        let told = |p: &str| {
            let bare = p.trim_start_matches("the ");
            self.things.iter().any(|w| p.ends_with(w) || w.ends_with(bare) || begins(w, bare))
        };
        let mains = self.plugs_in();
        if let Some(wall) = mains {
            text = if wall == ITS_SUPPLY {
                "Plug the device in".to_owned()
            } else {
                format!("Plug the device into the {wall}")
            };
        }
        // "back to the holes": screws go nowhere else.
        let holes = |p: &str| screws && matches!(p.rsplit(' ').next(), Some("hole" | "holes"));
        let laid = |p: &str| self.laid_on().is_some_and(|side| p.ends_with(side));
        let told = |p: &str| told(p) || laid(p) || holes(p) || mains.is_some_and(|wall| p.ends_with(wall));
        for Whereabouts { preposition, thing } in self.places.iter().filter(|p| !told(&p.thing)).take(2) {
            // The tool goes into a joint; the part is pried up at it.
            let at_it = self.act == Act::Pry && matches!(preposition.as_str(), "in" | "into");
            let preposition = match () {
                () if at_it => "at",
                () if self.act == Act::Mark && is_kept_in(preposition, thing) => "into",
                () => preposition.as_str(),
            };
            if words(&text) + words(thing) < MAX_WORDS - 1 {
                text.push_str(&format!(" {preposition} {thing}"));
            }
        }
        if let Some(by) = by(self) {
            text.push_str(&format!(" with {by}"));
        }
        text.extend(figures(self));
        if let Some(until) = self.until.filter(|u| words(&text) + words(u) < MAX_WORDS + 2) {
            text.push_str(&format!(" until {until}"));
        }
        format!("{}.", capital(&text))
    }
}

impl Instruction<'_> {
    /// "Check that every key moves freely.": a test says what shows that it is good.
    fn checked(&self) -> Option<String> {
        let shows = self.until.filter(|_| self.act == Act::Test)?;
        // "that it sits flat": what, where the act names it.
        let named = shows.strip_prefix("it ").filter(|_| self.things.len() == 1);
        Some(match named {
            Some(rest) => format!("Check that the {} {rest}.", self.things[0]),
            None => format!("Check that {shows}."),
        })
    }

    /// "onto its back": on what the one thing is turned to lie.
    fn laid_on(&self) -> Option<&str> {
        let one = self.act == Act::Turn && self.things.len() == 1;
        let on = self.places.iter().filter(|p| one && matches!(p.preposition.as_str(), "on" | "onto"));
        on.map(|p| p.thing.trim_start_matches("the "))
            .find(|t| matches!(*t, "back" | "face" | "side" | "front" | "top"))
    }

    /// What is done, by what it is done with: a suction cup pries nothing.
    fn verb(&self) -> &'static str {
        let round = |m: &String| m.ends_with("round") || m.ends_with("times");
        match self.act {
            Act::Pry if self.by == Some("suction cup") => "Lift",
            Act::Adjust if self.manner.iter().any(round) => "Turn",
            act => verb_where(act, &self.things, self.places),
        }
    }

    /// A ring or a cap has its thread itself: no screws are turned.
    fn turns_the_part(&self) -> bool {
        const THREADED: [&str; 7] = ["ring", "collar", "nut", "locknut", "knob", "cap", "gland"];
        let threaded = |t: &&str| t.rsplit(' ').next().is_some_and(|head| THREADED.contains(&head));
        let uncounted = self.screws.iter().all(|g| g.count.is_none() && g.length_mm.is_none());
        uncounted && !self.things.is_empty() && self.things.iter().all(threaded)
    }
}

impl<'a> Instruction<'a> {
    /// Where the device itself is plugged in: "wall", "outlet".
    fn plugs_in(&self) -> Option<&'a str> {
        const SOCKETS: [&str; 5] = ["wall", "wall socket", "outlet", "wall outlet", ITS_SUPPLY];
        let bare = self.act == Act::Connect && self.things.is_empty();
        let things = self.places.iter().map(|p| p.thing.trim_start_matches("the ").trim_start_matches("a "));
        things.filter(|_| bare).find(|t| SOCKETS.contains(t))
    }
}

/// Most words of a sentence, about: a place goes first, a sign to stop last.
const MAX_WORDS: usize = 20;

fn words(text: &str) -> usize {
    text.split(' ').count()
}

/// Most sizes of screws that one sentence names behind its first.
const MAX_GROUPS: usize = 2;

fn screws(d: &Instruction<'_>, the: Option<&str>) -> String {
    let of = the.filter(|t| *t != "the screws").map(|t| format!(" of {t}"));
    let of = of.unwrap_or_default();
    let group = match d.screws.split_first() {
        None => format!("the screws{of}"),
        Some((whole, [])) => format!("{}{of}", group(whole, true)),
        Some((first, rest)) => {
            let alike = |g: &ScrewGroup| (g.drive, &g.bit) == (first.drive, &first.bit);
            // The others are counted: nobody may think that these were all.
            let named = if rest.len() > MAX_GROUPS { 1 } else { rest.len() };
            let more: Vec<String> = rest.iter().take(named).map(|g| group(g, !alike(g))).collect();
            let others: u32 = rest.iter().skip(named).filter_map(|g| g.count).sum();
            let others = if others > 0 { format!(" and the {} others", numeral(others)) } else { String::new() };
            format!("{}{of}, then {}{others}", group(first, true), more.join(" and "))
        }
    };
    let verb = match d.act {
        Act::Drive => "Drive in",
        Act::Tighten => "Tighten",
        Act::Loosen => "Loosen",
        _ => "Undo",
    };
    format!("{verb} {group}")
}

/// "the four T5 screws (6 mm)"; of a further group of the same kind only "the two (8 mm)".
fn group(g: &ScrewGroup, named: bool) -> String {
    let kind = g.bit.clone().or_else(|| g.drive.map(|k: Drive| k.in_words().to_owned())).filter(|_| named);
    let noun = named.then_some(if g.count == Some(1) { " screw" } else { " screws" });
    // "the 6 six-lobe screws"
    let figure = kind.as_ref().is_some_and(|k| k.contains("-lobe") || k.contains("-hole"));
    let count = g.count.map(|n| if figure { format!(" {n}") } else { format!(" {}", numeral(n)) });
    let length = g.length_mm.map(|l| format!(" ({} mm)", number(l)));
    [Some("the".to_owned()), count, kind.map(|k| format!(" {k}")), noun.map(str::to_owned), length]
        .into_iter()
        .flatten()
        .collect()
}

/// Numerals from two digits on.
pub(super) fn numeral(n: u32) -> String {
    const WORDS: [&str; 10] = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
    WORDS.get(n as usize).map_or_else(|| n.to_string(), |w| (*w).to_owned())
}

fn by(d: &Instruction<'_>) -> Option<String> {
    let tool = d.by?;
    let implied =
        matches!(d.act, Act::Unscrew | Act::Drive | Act::Tighten | Act::Loosen) && tool.ends_with("screwdriver");
    // "Put on the wrist strap": the strap is what is put on.
    let last = |name: &str| name.rsplit(' ').next().unwrap_or_default().to_owned();
    let itself = d.things.iter().any(|thing| last(thing) == last(tool));
    let plural = matches!(tool, "tweezers" | "opening pliers" | "gloves" | "safety glasses");
    // Stuff is not counted.
    let stuff = matches!(tool, "isopropyl alcohol" | "adhesive" | "tape" | "thermal paste" | "protective film");
    let article = if plural || stuff {
        ""
    } else if tool.starts_with(['a', 'e', 'i', 'o', 'u']) {
        "an "
    } else {
        "a "
    };
    let tool = Drive::tool_words(tool);
    (!implied && !itself && !matches!(d.act, Act::PowerOff | Act::PowerOn | Act::Turn | Act::Wait | Act::Mark))
        .then(|| format!("{article}{tool}"))
}

/// " to 80 °C", " for 3 minutes".
fn figures(d: &Instruction<'_>) -> Vec<String> {
    let mut out: Vec<String> = Vec::new();
    let mut told: Vec<Quantity> = Vec::new();
    for m in d.measures {
        if told.contains(&m.quantity) {
            continue;
        }
        let span = |unit: &str, f: &dyn Fn(f64) -> f64| match m.to {
            Some(to) => format!("{} to {} {unit}", number(f(m.value)), number(f(to))),
            None => format!("{} {unit}", number(f(m.value))),
        };
        let text = match (m.quantity, d.act) {
            (Quantity::Temperature, Act::Heat | Act::Solder | Act::Desolder) => {
                Some(format!(" to {}", span("°C", &|v| v.round())))
            }
            (Quantity::Duration, Act::Heat | Act::Press | Act::Wait | Act::PowerOn | Act::PowerOff) => {
                Some(format!(" for {}", duration(m)))
            }
            (Quantity::Angle, Act::Open | Act::Turn | Act::Adjust | Act::Release) => {
                Some(format!(" by {}", span("degrees", &|v| v)))
            }
            (Quantity::Torque, Act::Tighten | Act::Drive) => Some(format!(" to {}", span("N·m", &|v| v))),
            _ => None,
        };
        told.extend(text.is_some().then_some(m.quantity));
        out.extend(text);
    }
    out.truncate(2);
    out
}

fn duration(m: &Measure) -> String {
    let (unit, each) = if m.value >= 7200.0 {
        ("hours", 3600.0)
    } else if m.value >= 60.0 {
        ("minutes", 60.0)
    } else {
        ("seconds", 1.0)
    };
    let unit = if m.to.is_none() && m.value == each { &unit[..unit.len() - 1] } else { unit };
    match m.to {
        Some(to) => format!("{} to {} {unit}", number(m.value / each), number(to / each)),
        None => format!("{} {unit}", number(m.value / each)),
    }
}

/// What is done, before "the cover".
pub fn verb(act: Act) -> &'static str {
    match act {
        Act::Pry => "Pry up",
        Act::Peel => "Peel off",
        Act::Drive => "Drive in",
        other => other.label(),
    }
}

/// A key is pressed, and what it switches is not named: "Press the power button". A switch may be turned or thrown: it is
/// switched.
pub fn verb_on(act: Act, things: &[&str]) -> &'static str {
    let key = |t: &&str| matches!(t.rsplit(' ').next(), Some("button" | "key"));
    let keys = !things.is_empty() && things.iter().all(key);
    match act {
        Act::PowerOn if keys => "Press",
        Act::PowerOff if keys => "Hold",
        Act::Clean if !things.is_empty() && things.iter().all(|t| is_dirt(t)) => "Clean off",
        Act::Protect if !things.is_empty() && things.iter().all(|t| is_worn(t)) => "Put on",
        // A test is run; it is no thing that is tested.
        Act::Test if !things.is_empty() && things.iter().all(|t| t.ends_with(" test")) => "Run",
        _ => verb(act),
    }
}

/// As [`verb_on`]: what is put into a box, a cap or a bag is sorted there.
pub fn verb_where(act: Act, things: &[&str], places: &[Whereabouts]) -> &'static str {
    let kept = act == Act::Mark && places.iter().any(|p| is_kept_in(&p.preposition, &p.thing));
    if kept { "Sort" } else { verb_on(act, things) }
}

/// "in the bottle caps", "into a bag".
pub(super) fn is_kept_in(preposition: &str, thing: &str) -> bool {
    const KEPT_IN: [&str; 17] = [
        "cap", "caps", "tray", "trays", "jar", "jars", "bag", "bags", "box", "boxes", "cup", "cups", "tin", "tub",
        "bowl", "pot", "dish",
    ];
    matches!(preposition, "in" | "into") && thing.rsplit(' ').next().is_some_and(|last| KEPT_IN.contains(&last))
}

/// Whether screws are turned in such a way.
fn of_screws(way: &str) -> bool {
    way == BY_HAND || IN_TURN.iter().any(|(_, written)| *written == way)
}

/// What is cleaned off, and is not cleaned itself.
fn is_dirt(thing: &str) -> bool {
    const DIRT: [&str; 10] =
        ["dust", "dirt", "grease", "glue", "adhesive", "residue", "foam", "gunk", "crumbs", "remains"];
    thing.rsplit(' ').next().is_some_and(|last| DIRT.contains(&last))
}

/// Where a device is plugged in when nobody says into what: no sentence names it.
pub(super) const ITS_SUPPLY: &str = "its supply";

/// In which turn the screws of a part go in, as people say it and as it is written.
pub(super) const IN_TURN: [(&str, &str); 8] = [
    ("a little at a time", "a little at a time"),
    ("a bit at a time", "a little at a time"),
    ("bit by bit", "bit by bit"),
    ("opposite corners", "at opposite corners"),
    ("crosswise", "crosswise"),
    ("criss cross", "crosswise"),
    ("in a star", "in a star"),
    ("diagonally", "diagonally"),
];

/// Without a tool, told as a way.
pub(super) const BY_HAND: &str = "by hand";

/// What a person puts on: it protects, and is not protected.
fn is_worn(thing: &str) -> bool {
    const WORN: [&str; 11] = [
        "strap",
        "wristband",
        "band",
        "gloves",
        "glove",
        "goggles",
        "glasses",
        "spectacles",
        "bracelet",
        "mask",
        "apron",
    ];
    thing.rsplit(' ').next().is_some_and(|last| WORN.contains(&last))
}

/// What is done where no thing is named.
pub(super) fn alone(act: Act) -> String {
    match act {
        Act::Wait => "Wait".to_owned(),
        Act::PowerOff => "Switch off the device".to_owned(),
        Act::PowerOn => "Switch on the device".to_owned(),
        Act::Unplug => "Unplug the device".to_owned(),
        Act::Turn => "Turn the device over".to_owned(),
        Act::Protect => "Protect the parts".to_owned(),
        Act::Test => "Test the device".to_owned(),
        Act::Unscrew => "Undo the screws".to_owned(),
        Act::Drive => "Drive in the screws".to_owned(),
        Act::Disconnect => "Disconnect the cable".to_owned(),
        Act::Connect => "Connect the cable".to_owned(),
        Act::Pry => "Pry along the edge".to_owned(),
        other => format!("{} the part", verb(other)),
    }
}

/// "fan, the lid and the tray": several things behind one "the".
pub fn list(things: &[&str]) -> String {
    match things {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and the {last}", first.join(", the ")),
    }
}

pub(super) fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |c| c.to_uppercase().chain(chars).collect())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::Measure;
    use rstest::rstest;

    fn blank(act: Act) -> Instruction<'static> {
        Instruction {
            act,
            things: Vec::new(),
            screws: Vec::new(),
            by: None,
            places: &[],
            manner: &[],
            condition: None,
            until: None,
            measures: &[],
        }
    }

    fn screws_of(count: u32, bit: &str, length_mm: f64) -> ScrewGroup {
        ScrewGroup { count: Some(count), bit: Some(bit.into()), length_mm: Some(length_mm), ..ScrewGroup::default() }
    }

    #[test]
    fn what_is_put_on_is_no_tool() {
        let worn = Instruction { by: Some("esd strap"), things: vec!["wrist strap"], ..blank(Act::Protect) };
        assert_eq!(worn.sentence(), "Put on the wrist strap.");
        let taped = Instruction { by: Some("tape"), things: vec!["slot"], ..blank(Act::Protect) };
        assert_eq!(taped.sentence(), "Protect the slot with tape.");
    }

    #[rstest]
    #[case::one(vec![screws_of(1, "T5", 3.0)], "Undo the one T5 screw (3 mm) of the lid.")]
    #[case::numerals_from_two_digits(vec![screws_of(12, "T5", 3.0)], "Undo the 12 T5 screws (3 mm) of the lid.")]
    #[case::two_sizes(
        vec![screws_of(2, "T5", 3.0), screws_of(4, "T5", 8.0)],
        "Undo the two T5 screws (3 mm) of the lid, then the four (8 mm)."
    )]
    #[case::many_sizes_are_counted(
        vec![screws_of(2, "T5", 3.0), screws_of(4, "T5", 8.0), screws_of(1, "T6", 5.0), screws_of(1, "T6", 9.0)],
        "Undo the two T5 screws (3 mm) of the lid, then the four (8 mm) and the two others."
    )]
    #[case::nothing_known(vec![], "Undo the screws of the lid.")]
    fn screws_are_counted_sized_and_placed(#[case] screws: Vec<ScrewGroup>, #[case] wanted: &str) {
        assert_eq!(Instruction { things: vec!["lid"], screws, ..blank(Act::Unscrew) }.sentence(), wanted);
    }

    #[rstest]
    #[case::the_wall("in", "the wall", Act::Connect, &[], "Plug the device into the wall.")]
    #[case::nobody_says_where("into", ITS_SUPPLY, Act::Connect, &[], "Plug the device in.")]
    #[case::a_plug_on_a_board("on", "the board", Act::Connect, &["fan plug"], "Connect the fan plug on the board.")]
    #[case::side_of_itself("at", "the back", Act::Remove, &["back cover"], "Remove the back cover.")]
    #[case::side_of_another("at", "the back", Act::Remove, &["fan"], "Remove the fan at the back.")]
    fn a_place_is_told_where_it_tells_something(
        #[case] preposition: &str,
        #[case] thing: &str,
        #[case] act: Act,
        #[case] things: &[&str],
        #[case] wanted: &str,
    ) {
        let places = [Whereabouts { preposition: preposition.into(), thing: thing.into() }];
        assert_eq!(Instruction { things: things.to_vec(), places: &places, ..blank(act) }.sentence(), wanted);
    }

    #[rstest]
    #[case::pulled_up(Act::Pry, "display", Some("suction cup"), "Lift the display with a suction cup.")]
    #[case::prised_up(Act::Pry, "display", Some("spudger"), "Pry up the display with a spudger.")]
    #[case::put_on(Act::Protect, "cut resistant gloves", None, "Put on the cut resistant gloves.")]
    #[case::run(Act::Test, "leak test", None, "Run the leak test.")]
    #[case::tested(Act::Test, "fan", None, "Test the fan.")]
    fn the_verb_goes_by_tool_and_thing(
        #[case] act: Act,
        #[case] thing: &str,
        #[case] by: Option<&str>,
        #[case] wanted: &str,
    ) {
        assert_eq!(Instruction { things: vec![thing], by, ..blank(act) }.sentence(), wanted);
    }

    #[rstest]
    #[case::on_its_back("onto", "the back", "Turn the mower onto its back.")]
    #[case::somewhere("on", "the towel", "Turn over the mower on the towel.")]
    fn what_is_turned_comes_to_lie(#[case] preposition: &str, #[case] thing: &str, #[case] wanted: &str) {
        let places = [Whereabouts { preposition: preposition.into(), thing: thing.into() }];
        assert_eq!(Instruction { things: vec!["mower"], places: &places, ..blank(Act::Turn) }.sentence(), wanted);
    }

    #[rstest]
    #[case::of_lobes("six-lobe", "Undo the 6 six-lobe screws of the lid.")]
    #[case::of_a_code("PH", "Undo the six PH screws of the lid.")]
    fn two_numbers_do_not_meet(#[case] bit: &str, #[case] wanted: &str) {
        let screws = vec![ScrewGroup { count: Some(6), bit: Some(bit.into()), ..ScrewGroup::default() }];
        assert_eq!(Instruction { things: vec!["lid"], screws, ..blank(Act::Unscrew) }.sentence(), wanted);
    }

    #[test]
    fn screws_go_into_holes_without_a_word() {
        let places =
            ["the holes", "the left side"].map(|thing| Whereabouts { preposition: "to".into(), thing: thing.into() });
        let told = Instruction { things: vec!["lid"], places: &places, ..blank(Act::Drive) };
        assert_eq!(told.sentence(), "Drive in the screws of the lid to the left side.");
    }

    #[rstest]
    #[case::worn("gloves", "Put on the gloves.")]
    #[case::worn_of_some_kind("safety glasses", "Put on the safety glasses.")]
    #[case::covered("glass", "Protect the glass.")]
    fn who_is_protected_puts_it_on(#[case] thing: &str, #[case] wanted: &str) {
        assert_eq!(Instruction { things: vec![thing], ..blank(Act::Protect) }.sentence(), wanted);
    }

    #[rstest]
    #[case::a_key_on(Act::PowerOn, "power button", "Press the power button.")]
    #[case::a_key_off(Act::PowerOff, "side key", "Hold the side key.")]
    #[case::a_switch(Act::PowerOff, "rear switch", "Switch off the rear switch.")]
    #[case::the_device(Act::PowerOn, "radio", "Switch on the radio.")]
    fn keys_are_pressed_and_devices_switched(#[case] act: Act, #[case] thing: &str, #[case] wanted: &str) {
        assert_eq!(Instruction { things: vec![thing], ..blank(act) }.sentence(), wanted);
    }

    #[rstest]
    #[case::named(&["dome"], "it sits flat", "Check that the dome sits flat.")]
    #[case::unnamed(&[], "it sits flat", "Check that it sits flat.")]
    #[case::something_else(&["key"], "every key moves freely", "Check that every key moves freely.")]
    fn a_test_says_what_shows_that_it_is_good(#[case] things: &[&str], #[case] shows: &str, #[case] wanted: &str) {
        let told = Instruction { things: things.to_vec(), until: Some(shows), ..blank(Act::Test) };
        assert_eq!(told.sentence(), wanted);
    }

    #[rstest]
    #[case::a_ring(Act::Loosen, &["clamp ring"], "Loosen the clamp ring.")]
    #[case::a_cap(Act::Tighten, &["cap"], "Tighten the cap.")]
    #[case::what_screws_hold(Act::Loosen, &["lid"], "Loosen the screws of the lid.")]
    #[case::dirt(Act::Clean, &["old grease"], "Clean off the old grease.")]
    #[case::a_part(Act::Clean, &["mirror"], "Clean the mirror.")]
    fn a_thread_is_turned_and_dirt_goes_off(#[case] act: Act, #[case] things: &[&str], #[case] wanted: &str) {
        assert_eq!(Instruction { things: things.to_vec(), ..blank(act) }.sentence(), wanted);
    }

    #[rstest]
    #[case::by_hand(BY_HAND, "Undo the screws of the lid by hand.")]
    #[case::slowly("slowly", "Undo the screws of the lid.")]
    fn of_screws_only_the_hand_is_a_way(#[case] manner: &str, #[case] wanted: &str) {
        let manner = [manner.to_owned()];
        assert_eq!(Instruction { things: vec!["lid"], manner: &manner, ..blank(Act::Unscrew) }.sentence(), wanted);
    }

    #[rstest]
    #[case(60.0, None, "Heat the rim for 1 minute.")]
    #[case(120.0, None, "Heat the rim for 2 minutes.")]
    #[case(1.0, None, "Heat the rim for 1 second.")]
    #[case(90.0, Some(120.0), "Heat the rim for 1.5 to 2 minutes.")]
    #[case(7200.0, None, "Heat the rim for 2 hours.")]
    fn times_stand_in_the_unit_that_one_would_say(#[case] value: f64, #[case] to: Option<f64>, #[case] wanted: &str) {
        let measures = [Measure { quantity: Quantity::Duration, value, to, unit: "s".into() }];
        assert_eq!(Instruction { things: vec!["rim"], measures: &measures, ..blank(Act::Heat) }.sentence(), wanted);
    }

    #[rstest]
    #[case("under the lid", Some(("under", "the lid")))]
    #[case("  From under  the lid ", Some(("from under", "the lid")))]
    #[case("in front of the fan", Some(("in front of", "the fan")))]
    #[case("in", None)]
    #[case("into the groove", Some(("into", "the groove")))]
    #[case("the lid", None)]
    #[case("", None)]
    fn where_something_is_done_begins_with_how_it_lies(#[case] text: &str, #[case] wanted: Option<(&str, &str)>) {
        let found = Whereabouts::parse(text);
        assert_eq!(found.as_ref().map(|w| (w.preposition.as_str(), w.thing.as_str())), wanted);
    }

    #[rstest]
    #[case(Act::Disconnect, "Disconnect the cable.")]
    #[case(Act::Turn, "Turn the device over.")]
    #[case(Act::Hold, "Hold the part.")]
    fn an_act_alone_is_a_sentence_still(#[case] act: Act, #[case] wanted: &str) {
        assert_eq!(blank(act).sentence(), wanted);
    }

    #[test]
    fn a_sentence_never_grows_long() {
        let place =
            |n: usize| Whereabouts { preposition: "behind".into(), thing: format!("the lower left bracket {n}") };
        let places: Vec<Whereabouts> = (0..5).map(place).collect();
        let until = "the last of the four catches along the far edge has let go and the frame swings free";
        let order = Instruction {
            things: vec!["outer sensor cover", "inner sensor cover"],
            by: Some("opening pick"),
            places: &places,
            until: Some(until),
            ..blank(Act::Pry)
        };
        assert!(words(&order.sentence()) <= 25, "{}", order.sentence());
    }

    #[test]
    fn a_place_that_is_the_thing_itself_is_left_out() {
        let places = [Whereabouts { preposition: "of".into(), thing: "the lid".into() }];
        let order = Instruction { things: vec!["lid"], places: &places, ..blank(Act::Remove) };
        assert_eq!(order.sentence(), "Remove the lid.");
    }
}
