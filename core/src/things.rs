//! What a part is, told by its name.
//!
//! The noun that a name ends in decides: a battery cover is a cover, a load cell bracket a bracket, and neither feeds the
//! device. Whatever acts on power or warns of a hazard asks here, so that one word never means two things.
//!
//! Words of the trade: common practice, no source.

/// What feeds a device.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Source {
    /// A cell, or a pack of them.
    Cell,
    /// The lead or plug from the mains.
    Mains,
    /// What makes the device's voltage of the mains; its primary side is live while it is plugged in.
    Supply,
    /// Stands outside and is unplugged from the device.
    Charger,
}

const CABLES: [&str; 20] = [
    "cable",
    "cables",
    "flex",
    "plug",
    "connector",
    "connectors",
    "lead",
    "leads",
    "wire",
    "wires",
    "wiring",
    "ribbon",
    "cord",
    "harness",
    "terminal",
    "terminals",
    "contact",
    "contacts",
    "tag",
    "tags",
];

/// Words that tell where or which, and not what.
const WHOLE: [&str; 6] = ["assembly", "assy", "unit", "module", "block", "pack"];

/// What a part feeds the device with, where it is a source itself.
pub fn source(name: &str) -> Option<Source> {
    let words = words(name);
    let mut rest: &[String] = &words;
    while let [front @ .., last] = rest
        && WHOLE.contains(&last.as_str())
        && !front.is_empty()
    {
        rest = front;
    }
    let (last, front) = rest.split_last()?;
    let before = front.last().map_or("", String::as_str);
    match last.as_str() {
        "battery" | "batteries" | "accumulator" => Some(Source::Cell),
        // A load cell weighs, a photo cell sees, a memory cell remembers.
        "cell" | "cells" if !matches!(before, "load" | "photo" | "memory" | "solar" | "flow" | "measuring") => {
            Some(Source::Cell)
        }
        "pack" | "packs" if matches!(before, "battery" | "power" | "rechargeable") => Some(Source::Cell),
        // A bare "pack" was "battery pack" when it was first named.
        "pack" if front.is_empty() => Some(Source::Cell),
        "lead" | "cord" | "plug" | "cable" if matches!(before, "mains" | "power") && front.len() == 1 => {
            (before == "mains" || matches!(last.as_str(), "cord" | "lead")).then_some(Source::Mains)
        }
        "supply" if before == "power" => Some(Source::Supply),
        "charger" | "adapter" | "adaptor" if before != "card" => Some(Source::Charger),
        _ => None,
    }
}

/// Whether what a connector serves feeds the device: the cable of a source, or the power cable itself.
pub fn feeds(serves: &str) -> bool {
    if source(serves).is_some() {
        return true;
    }
    let words = words(serves);
    let kept = words.iter().rposition(|w| !CABLES.contains(&w.as_str())).map_or(0, |at| at + 1);
    let bare = words[..kept].join(" ");
    matches!(bare.as_str(), "power" | "mains" | "main power" | "dc" | "dc power") || source(&bare).is_some()
}

/// A place on the wall that mains comes from.
pub fn is_outlet(name: &str) -> bool {
    words(name).iter().any(|w| matches!(w.as_str(), "wall" | "mains" | "outlet"))
}

/// A name without the words that tell which one of its kind: "the new fan" is a "fan". For who compares many.
pub fn bare(name: &str) -> String {
    const WHICH: [&str; 8] = ["the", "new", "old", "replacement", "spare", "other", "same", "original"];
    words(name).into_iter().skip_while(|w| WHICH.contains(&w.as_str())).collect::<Vec<_>>().join(" ")
}

/// A [`bare`] name with one word for each side, for who holds the names of two halves against each other: what came off as
/// the "rear cover" goes on as the "back cover".
pub fn one_name(name: &str) -> String {
    const SIDES: [(&str, &str); 5] =
        [("rear", "back"), ("upper", "top"), ("lower", "bottom"), ("lefthand", "left"), ("righthand", "right")];
    let side =
        |word: &str| SIDES.iter().find(|(said, _)| *said == word).map_or(word.to_owned(), |(_, one)| (*one).to_owned());
    bare(name).split(' ').map(side).collect::<Vec<_>>().join(" ")
}

/// Whether two names mean one thing: "new fan" goes in where the "fan" came out.
pub fn same_thing(a: &str, b: &str) -> bool {
    let (a, b) = (bare(a), bare(b));
    !a.is_empty() && a == b
}

/// Whether one [`bare`] name is the end of the other: "duct" and "fan duct".
pub fn ends_alike(a: &str, b: &str) -> bool {
    let ends = |long: &str, short: &str| {
        long.strip_suffix(short).is_some_and(|front| front.is_empty() || front.ends_with(' '))
    };
    !a.is_empty() && !b.is_empty() && (ends(a, b) || ends(b, a))
}

/// Whether two names mean one cable: "speaker lead" and "speaker wires", and the "speaker" they serve.
pub fn same_cable(a: &str, b: &str) -> bool {
    let serves = |name: &str| -> Vec<String> {
        words(name).into_iter().filter(|w| !CABLES.contains(&w.as_str()) && w != "the" && w != "new").collect()
    };
    let (a, b) = (serves(a), serves(b));
    !a.is_empty() && a == b
}

/// "The cable", "connector": any of them, and none by name.
pub fn is_any_cable(name: &str) -> bool {
    words(name).iter().all(|w| CABLES.contains(&w.as_str()) || w == "the")
}

/// A lithium cell, as far as its name does not say another kind.
pub fn is_lithium(name: &str) -> bool {
    let other = ["alkaline", "nimh", "nickel", "acid", "zinc", "saline"];
    source(name) == Some(Source::Cell) && !words(name).iter().any(|w| other.contains(&w.as_str()))
}

/// What is peeled off, by what becomes of it on the way back.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Peeled {
    /// Served its time: nothing goes back.
    Film,
    /// Sticks once.
    Tape,
    /// A foot, a foil, a label: cleaned, it may stick again.
    Pad,
    /// A part that glue held.
    Glued,
}

/// What a peeled thing is, by the noun that its name ends in.
pub fn peeled(name: &str) -> Peeled {
    match words(name).last().map_or("", String::as_str) {
        "film" | "films" | "liner" | "liners" | "backing" => Peeled::Film,
        "tape" | "tapes" | "strip" | "strips" => Peeled::Tape,
        "foot" | "feet" | "foil" | "foils" | "label" | "labels" | "sticker" | "stickers" | "bumper" | "bumpers" => {
            Peeled::Pad
        }
        _ => Peeled::Glued,
    }
}

/// What one looks or shines through, or sees in: it works only uncovered.
pub fn is_looked_through(name: &str) -> bool {
    const CLEAR: [&str; 13] = [
        "lens",
        "lenses",
        "glass",
        "window",
        "eyepiece",
        "viewfinder",
        "finder",
        "prism",
        "mirror",
        "sensor",
        "display",
        "screen",
        "objective",
    ];
    words(name).last().is_some_and(|last| CLEAR.contains(&last.as_str()))
}

/// Keeps water, dust or air out, and is counted apart from parts.
pub fn is_seal(name: &str) -> bool {
    let last = words(name).pop().unwrap_or_default();
    ["seal", "seals", "gasket", "gaskets", "ring", "rings"].contains(&last.as_str()) && {
        let own = words(name);
        !last.starts_with("ring") || own.iter().any(|w| matches!(w.as_str(), "o" | "rubber" | "sealing"))
    }
}

/// Lies loose until the next part holds it: a spring, a washer, a ball, a button.
///
/// Source: common practice, no source.
pub fn lies_loose(name: &str) -> bool {
    const LOOSE: [&str; 12] = [
        "spring", "washer", "ball", "spacer", "shim", "bushing", "button", "grommet", "roller", "circlip", "plunger",
        "bearing",
    ];
    let last = words(name).pop().unwrap_or_default();
    LOOSE.contains(&last.strip_suffix('s').unwrap_or(&last))
}

/// What holds until it is cut: a tie, a tape, a seal.
pub fn is_cut_to_open(name: &str) -> bool {
    let last = words(name).pop().unwrap_or_default();
    ["tie", "ties", "strap", "straps", "tape", "tapes", "seal", "seals", "string"].contains(&last.as_str())
}

/// Carries, or may hold, the voltage of the mains.
pub fn is_mains(name: &str) -> bool {
    let words = words(name);
    let Some((last, front)) = words.split_last() else { return false };
    let has = |word: &str| front.iter().any(|w| w == word);
    matches!(source(name), Some(Source::Mains | Source::Supply))
        || words.iter().any(|w| matches!(w.as_str(), "mains" | "transformer" | "magnetron" | "inverter" | "triac"))
        || matches!(last.as_str(), "element" | "elements") && (has("heating") || has("heater"))
        || matches!(last.as_str(), "socket" | "inlet") && (has("wall") || has("mains") || has("power"))
        || last == "board" && has("supply")
}

/// Holds a charge after it is unplugged.
pub fn holds_charge(name: &str) -> bool {
    let words = words(name);
    let Some(last) = words.last() else { return false };
    matches!(last.as_str(), "capacitor" | "capacitors" | "magnetron")
        || source(name) == Some(Source::Supply)
        || last == "board" && words.iter().any(|w| matches!(w.as_str(), "supply" | "inverter" | "flash" | "strobe"))
}

/// A circuit board: bare, it is live while a source is connected.
pub fn is_board(name: &str) -> bool {
    matches!(
        words(name).last().map(String::as_str),
        Some("board" | "boards" | "mainboard" | "motherboard" | "pcb" | "electronics" | "controller")
    )
}

/// Glass that can splinter.
pub fn is_glass(name: &str) -> bool {
    let words = words(name);
    let last = words.last().map_or("", String::as_str);
    matches!(last, "glass" | "display" | "screen" | "lens" | "window" | "tube" | "mirror" | "bulb")
        || matches!(last, "panel" | "assembly" | "unit" | "module" | "cover") && {
            words.iter().any(|w| matches!(w.as_str(), "glass" | "display" | "screen"))
        }
}

/// Work that belongs to licensed people.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Gate {
    Microwave,
    PictureTube,
    Gas,
    Refrigerant,
    MainsSide,
    SwollenCell,
}

impl Gate {
    /// What can happen, and to whom the work belongs; common practice, no source.
    pub fn belongs(self) -> &'static str {
        match self {
            Self::Microwave => {
                "Inside a microwave oven some thousand volts stay after unplugging, and its magnetron can be poisonous. \
                 Work on it belongs to specialists; local codes say to whom"
            }
            Self::PictureTube => {
                "A picture tube holds some ten thousand volts and can implode. Work on it belongs to specialists; local \
                 codes say to whom"
            }
            Self::Gas => {
                "Leaking gas burns and explodes. Work on it belongs to licensed fitters; local codes say what is tested \
                 afterwards"
            }
            Self::Refrigerant => {
                "A refrigerant circuit is under pressure and may burn. Opening it belongs to certified technicians; local \
                 codes forbid letting it out"
            }
            Self::MainsSide => {
                "The mains side can kill, and its capacitors stay charged after unplugging. Work on it belongs to \
                 qualified people; local codes say to whom"
            }
            Self::SwollenCell => {
                "A swollen cell can burst into flames when it is pressed, bent or pierced. Work on it belongs to people \
                 trained for it; local rules say where it is handed in"
            }
        }
    }
}

/// The line that work on a part, or inside a device of this name, crosses.
pub fn gate(name: &str) -> Option<Gate> {
    let words = words(name);
    let has = |word: &str| words.iter().any(|w| w == word);
    let last = words.last().map_or("", String::as_str);
    if has("magnetron") || has("microwave") && !matches!(last, "sensor" | "antenna" | "module" | "radio") {
        return Some(Gate::Microwave);
    }
    if is_swollen_cell(name) {
        return Some(Gate::SwollenCell);
    }
    if has("crt") || last == "tube" && (has("picture") || has("ray")) {
        return Some(Gate::PictureTube);
    }
    if has("gas") && !matches!(last, "spring" | "springs" | "strut" | "struts" | "sensor" | "cap" | "gauge") {
        return Some(Gate::Gas);
    }
    if has("refrigerant") || last == "evaporator" || last == "tube" && has("capillary") {
        return Some(Gate::Refrigerant);
    }
    let outside = matches!(source(name), Some(Source::Mains | Source::Charger)) || CABLES.contains(&last);
    (is_mains(name) && !outside).then_some(Gate::MainsSide)
}

/// Whether a name, or a note of how the device arrived, tells of a cell that has swollen.
pub fn is_swollen_cell(text: &str) -> bool {
    const SWOLLEN: [&str; 8] = ["swollen", "swelled", "bulging", "bulged", "bloated", "puffed", "puffy", "inflated"];
    const CELLS: [&str; 7] = ["battery", "batteries", "cell", "cells", "pack", "packs", "accumulator"];
    // "If the battery is swollen, stop" tells of none.
    const SUPPOSED: [&str; 8] = ["not", "no", "never", "if", "when", "should", "isn", "wasn"];
    let words = words(text);
    let Some(at) = words.iter().position(|w| SWOLLEN.contains(&w.as_str())) else { return false };
    words.iter().any(|w| CELLS.contains(&w.as_str())) && !words[..at].iter().any(|w| SUPPOSED.contains(&w.as_str()))
}

/// The words of a text in small letters.
/// "Carefully" in a sentence that does not say what to take care of.
pub(crate) fn vague_care(text: &str) -> Option<&'static str> {
    const VAGUE: [&str; 5] = ["very carefully", "carefully", "with care", "with great care", "with caution"];
    /// Who says one of these says what to take care of.
    const SAYS_WHAT: [&str; 8] = ["so that", "because", "do not", "don't", "without", "not to", "until", "or else"];
    let lower = text.to_lowercase();
    let vague = VAGUE.into_iter().find(|v| lower.contains(v))?;
    (!SAYS_WHAT.iter().any(|w| lower.contains(w))).then_some(vague)
}

/// The words of a text in small letters.
pub(crate) fn words(name: &str) -> Vec<String> {
    name.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).map(str::to_owned).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("battery", Some(Source::Cell))]
    #[case("Battery pack", Some(Source::Cell))]
    #[case("coin cell", Some(Source::Cell))]
    #[case("button cells", Some(Source::Cell))]
    #[case("battery assembly", Some(Source::Cell))]
    #[case("mains lead", Some(Source::Mains))]
    #[case("power cord", Some(Source::Mains))]
    #[case("mains plug", Some(Source::Mains))]
    #[case("power supply", Some(Source::Supply))]
    #[case("power supply unit", Some(Source::Supply))]
    #[case("charger", Some(Source::Charger))]
    #[case::cover("battery cover", None)]
    #[case::door("battery compartment door", None)]
    #[case::bracket("load cell bracket", None)]
    #[case::load_cell("load cell", None)]
    #[case::photo_cell("photo cell", None)]
    #[case::button("power button", None)]
    #[case::its_flex("power button flex", None)]
    #[case::board("power board", None)]
    #[case::port("charger port", None)]
    #[case::contacts("battery contacts", None)]
    #[case::nothing("", None)]
    fn the_last_noun_says_whether_it_is_a_source(#[case] name: &str, #[case] wanted: Option<Source>) {
        assert_eq!(source(name), wanted);
    }

    #[rstest]
    #[case("battery", true)]
    #[case("battery flex", true)]
    #[case("battery pack cable", true)]
    #[case("coin cell lead", true)]
    #[case("power cable", true)]
    #[case("power supply connector", true)]
    #[case("power button flex", false)]
    #[case("load cell cable", false)]
    #[case("battery cover latch", false)]
    #[case("battery temperature sensor cable", false)]
    #[case("speaker", false)]
    fn a_connector_feeds_where_it_serves_a_source(#[case] serves: &str, #[case] wanted: bool) {
        assert_eq!(feeds(serves), wanted);
    }

    #[rstest]
    #[case("mains transformer", true, false)]
    #[case("power supply board", true, true)]
    #[case("heating element", true, false)]
    #[case("smoothing capacitor", false, true)]
    #[case("memory socket", false, false)]
    #[case("heater hose", false, false)]
    #[case("load cell", false, false)]
    fn mains_and_stored_charge(#[case] name: &str, #[case] mains: bool, #[case] charge: bool) {
        assert_eq!((is_mains(name), holds_charge(name)), (mains, charge));
    }

    #[rstest]
    #[case("Hearth 20 microwave oven", Some(Gate::Microwave))]
    #[case("magnetron", Some(Gate::Microwave))]
    #[case("microwave motion sensor", None)]
    #[case("picture tube", Some(Gate::PictureTube))]
    #[case("inner tube", None)]
    #[case("gas valve", Some(Gate::Gas))]
    #[case("gas spring", None)]
    #[case("refrigerant line", Some(Gate::Refrigerant))]
    #[case("evaporator", Some(Gate::Refrigerant))]
    #[case("mains transformer", Some(Gate::MainsSide))]
    #[case("power supply", Some(Gate::MainsSide))]
    #[case("swollen battery", Some(Gate::SwollenCell))]
    #[case("The battery was already bulging.", Some(Gate::SwollenCell))]
    #[case("The battery is not swollen.", None)]
    #[case("swollen capacitor", None)]
    #[case("mains lead", None)]
    #[case("power supply cable", None)]
    #[case("charger", None)]
    #[case("battery", None)]
    fn lines_that_a_guide_stops_at(#[case] name: &str, #[case] wanted: Option<Gate>) {
        assert_eq!(gate(name), wanted);
    }

    #[rstest]
    #[case("fan", "new fan", true)]
    #[case("Fan", "the replacement fan", true)]
    #[case("fan", "fan guard", false)]
    #[case("", "new", false)]
    fn one_thing_by_two_names(#[case] a: &str, #[case] b: &str, #[case] same: bool) {
        assert_eq!(same_thing(a, b), same);
    }

    #[rstest]
    #[case("duct", "fan duct", true)]
    #[case("fan duct", "duct", true)]
    #[case("duct", "aqueduct", false)]
    #[case("fan duct", "fan guard", false)]
    #[case("", "fan", false)]
    fn one_name_is_the_end_of_the_other(#[case] a: &str, #[case] b: &str, #[case] alike: bool) {
        assert_eq!(ends_alike(a, b), alike);
    }

    #[rstest]
    #[case("speaker lead", "speaker wires", true)]
    #[case("battery", "battery connector", true)]
    #[case("left speaker", "right speaker cable", false)]
    #[case("cable", "plug", false)]
    fn one_cable_by_two_names(#[case] a: &str, #[case] b: &str, #[case] same: bool) {
        assert_eq!(same_cable(a, b), same);
    }

    #[rstest]
    #[case("battery", true)]
    #[case("alkaline batteries", false)]
    #[case("lead acid battery", false)]
    #[case("load cell", false)]
    #[case("battery tray", false)]
    fn lithium(#[case] name: &str, #[case] wanted: bool) {
        assert_eq!(is_lithium(name), wanted);
    }

    #[rstest]
    #[case("display", true)]
    #[case("display panel", true)]
    #[case("glass cover", true)]
    #[case("display cable", false)]
    #[case("lens holder", false)]
    fn glass(#[case] name: &str, #[case] wanted: bool) {
        assert_eq!(is_glass(name), wanted);
    }
}
