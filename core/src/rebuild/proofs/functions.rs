//! What a touched part must do again, and how one sees it: one row a subsystem.
//!
//! Common practice, no source. A part belongs to a subsystem by the words of its name.

use super::ProofKind;

/// How one tries a subsystem.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Subsystem {
    /// Words of a part's name that bring it here.
    words: &'static [&'static str],
    pub name: &'static str,
    /// What to do.
    pub trial: &'static str,
    /// What must be seen, heard or felt.
    pub passes: &'static str,
    pub kind: ProofKind,
    /// Only tells something with the case closed.
    pub closed: bool,
}

const fn row(
    name: &'static str,
    words: &'static [&'static str],
    trial: &'static str,
    passes: &'static str,
) -> Subsystem {
    Subsystem { words, name, trial, passes, kind: ProofKind::Function, closed: false }
}

/// From the special to the common: the first row that a name's words bring it to is its own.
pub(super) const SUBSYSTEMS: [Subsystem; 19] = [
    row(
        "touch",
        &["touch", "touchscreen", "touchpad", "digitizer"],
        "Draw lines over the whole area, along all edges and across.",
        "every line follows the finger without a gap",
    ),
    row(
        "display",
        &["display", "lcd", "screen", "backlight"],
        "Show one picture all white and one all black.",
        "no dead line or dot, no bright edge, no flicker",
    ),
    row(
        "camera",
        &["camera", "lens", "shutter", "flash", "viewfinder"],
        "Take a picture of something near and of something far.",
        "both are sharp, no spot, no shake",
    ),
    row("microphone", &["microphone", "mic", "mics"], "Record a sentence and play it.", "every word is clear"),
    row(
        "sound",
        &["speaker", "loudspeaker", "buzzer", "chime", "earpiece", "earcup"],
        "Play a sound quietly, then loud.",
        "it is clear both times, nothing rattles",
    ),
    Subsystem {
        closed: true,
        ..row(
            "wireless charging",
            &["coil"],
            "Lay it on its charger, with the case closed.",
            "it charges, and gets no more than hand warm",
        )
    },
    Subsystem {
        closed: true,
        ..row(
            "radio",
            &["antenna", "antennas", "aerial", "wifi", "gps", "transceiver"],
            "Receive something with the case closed.",
            "it is received as well as before",
        )
    },
    Subsystem {
        kind: ProofKind::Instrument,
        ..row(
            "charging",
            &["battery", "cell", "cells", "charger", "charging", "usb"],
            "Connect the charger and read the current.",
            "it charges, and gets no more than hand warm",
        )
    },
    row(
        "fan",
        &["fan", "blower", "impeller"],
        "Turn the fan by hand before it runs, then let it run.",
        "it turns freely, blows the right way, and does not rub",
    ),
    row(
        "water",
        &["pump", "hose", "valve", "tank", "tube", "boiler"],
        "Fill in water and let it run over paper.",
        "the paper stays dry",
    ),
    row(
        "heating",
        &["heater", "element", "heating", "thermostat"],
        "Let it heat up once under your eyes.",
        "it reaches its temperature, switches off by itself, and nothing smells",
    ),
    row(
        "motor",
        &["motor", "motors", "gear", "gearbox", "wheel", "belt", "axle", "drive", "propeller"],
        "Let it run both ways, slowly first.",
        "it runs evenly, nothing grinds or slips",
    ),
    row(
        "keys",
        &[
            "button", "buttons", "key", "keys", "keypad", "knob", "knobs", "switch", "trigger", "triggers", "stick",
            "dial",
        ],
        "Press and turn every one of them.",
        "each clicks, springs back and does what it says",
    ),
    row(
        "sensor",
        &["sensor", "sensors", "probe", "photodiode", "thermistor"],
        "Change what it measures: shade it, warm it, blow at it.",
        "the reading follows, and comes back",
    ),
    row(
        "light",
        &["lamp", "led", "leds", "bulb", "light"],
        "Switch it on, and dim it over the whole range.",
        "it is steady and even",
    ),
    row(
        "socket",
        &["port", "socket", "jack", "slot", "reader", "connector"],
        "Plug something in and move the plug a little.",
        "the contact holds",
    ),
    row(
        "printing",
        &["printhead", "head", "roller", "platen", "cutter"],
        "Let it print one page or label.",
        "it is dark all over and straight",
    ),
    row("clock", &["clock", "rtc"], "Set the time and take the power away for a minute.", "the time is still right"),
    Subsystem {
        kind: ProofKind::Feel,
        ..row(
            "hinge",
            &["hinge", "lid", "flap", "door", "drawer"],
            "Open and close it a few times.",
            "it moves over its whole way and stays shut",
        )
    },
];

/// The subsystem that a part belongs to.
pub(super) fn of(name: &str) -> Option<&'static Subsystem> {
    let name = name.to_lowercase();
    let words: Vec<&str> = name.split(|c: char| !c.is_alphanumeric()).collect();
    // The noun that a name ends in is what it is; what holds or covers something else is not that.
    const HOLDS: [&str; 14] = [
        "cover", "bracket", "holder", "frame", "shield", "screw", "screws", "housing", "plate", "cage", "tape", "clip",
        "clamp", "washers",
    ];
    if words.last().is_some_and(|last| HOLDS.contains(last)) {
        return None;
    }
    let rated = SUBSYSTEMS.iter().filter(|s| s.words.iter().any(|w| words.contains(w)));
    // "Display cable" is tried by the display, "light sensor" by its last word.
    let last = |s: &&&Subsystem| words.last().is_some_and(|last| s.words.contains(last));
    let mut rated: Vec<&Subsystem> = rated.collect();
    rated.sort_by_key(|s| !last(&s));
    rated.first().copied()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("front display", Some("display"))]
    #[case("light sensor", Some("sensor"))]
    #[case("fan cable", Some("fan"))]
    #[case("fan cover", None)]
    #[case("battery pack", Some("charging"))]
    #[case("touch panel", Some("touch"))]
    #[case("main board", None)]
    #[case("Bluetooth antenna", Some("radio"))]
    fn a_part_is_tried_by_what_it_is(#[case] name: &str, #[case] wanted: Option<&str>) {
        assert_eq!(of(name).map(|s| s.name), wanted);
    }
}
