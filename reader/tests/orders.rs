//! One order at a time, from many trades: which act a verb tells, whoever says it, and of which thing.
//!
//! A narration shows how sentences hang together; here each line stands alone behind the same beginning, so that a verb is
//! heard for what it is. Warnings stand at the end, as a guide prints them. The answers were written before the reader met
//! the lines; where a narrator's own order of a warning reads as well, it was taken. `speech.rs` tells how they are marked.

mod marked;
mod told;

use paso_reader::reading::{deeds, draft_guide, read};
use paso_reader::recording::Recording;
use rstest::rstest;
use told::{lines, words};

const OPENED: &str = "Undo the four screws and lift off the rear lid.";
const CLOSING: &str =
    "Now we put it all back together. Slide the fan into the frame and screw it down with two screws.";

/// What a rebuild puts back, in the words that its narrator had for it.
const TAKEN_APART: &[&str] = &[
    "Peel off the four rubber feet and undo the four long screws under them. Then take the rear shell off.",
    "Unplug the battery. Undo the two screws of the battery bracket, lift the bracket off, and pull the battery out.",
    "Unplug the keypad cable and the amplifier cable. Take out the six screws of the main board and lift the main board out.",
    "Undo the three short screws that hold the driver ring, take the driver ring off, unplug the tweeter and lift the tweeter out. Peel the old gasket off.",
    "That is everything. Now we put it all back together. Put the new gasket in the groove.",
];

/// Before screws are counted: the device is open, and nothing of it is out.
const OPEN: &[&str] = &["Unplug the mains lead and lift off the rear lid."];

/// A rebuild in which screws are counted.
const IN_THE_REBUILD: &[&str] = &[
    OPEN[0],
    "Take out the fan with its two screws. Unplug the display cable. Undo the screws of the board and take out the board.",
    "Now we put it all back together. Slide the board into the frame. Plug in the display cable. Fit the fan.",
];

/// Everything is out, and one thing is back.
const GOING_BACK: &[&str] = &[
    "Unplug the battery and the lamp. Take off the hood with its six screws. Take out the tray with its two screws, the left arm and the right arm, the fan, the pump and its hose, the spring and the lever, the belt, the glass and the rubber feet.",
    "Now we put it all back together. Put the new gasket in the groove.",
];

/// A line behind these.
fn recording(before: &[&str], said: &str) -> Recording {
    let mut text = "# Recording: A try of the machine\n\n".to_owned();
    for (n, line) in before.iter().chain([&said]).enumerate() {
        text += &format!("[0:{:02}] {line}\n\n", n * 10);
    }
    Recording::parse(text.as_bytes()).expect("a transcript")
}

/// What is heard in a line that follows these.
fn heard(before: &[&str], said: &str) -> String {
    let deeds = deeds(&recording(before, said));
    words(&deeds.iter().filter(|d| d.cue == before.len()).collect::<Vec<_>>())
}

#[rstest]
#[case::apart(include_str!("orders/apart.txt"), &[OPENED], 33)]
#[case::together(include_str!("orders/together.txt"), &[OPENED, CLOSING], 18)]
#[case::talk(include_str!("orders/talk.txt"), &[OPENED], 22)]
#[case::back(include_str!("orders/back.txt"), TAKEN_APART, 14)]
#[case::when(include_str!("orders/when.txt"), OPEN, 7)]
#[case::when_back(include_str!("orders/when-back.txt"), GOING_BACK, 7)]
#[case::tethered(include_str!("orders/tethered.txt"), OPEN, 5)]
fn each_order_is_heard(#[case] file: &str, #[case] before: &[&str], #[case] missed: usize) {
    let lines = lines(file);
    let wrong: String = lines.iter().map(|l| marked::wrong(l.said, l.missed, l.told, &heard(before, l.said))).collect();
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(lines.iter().filter(|l| l.missed).count(), missed, "lines that are not heard yet");
}

/// Much is out, and goes back.
const MUCH_IS_OUT: &[&str] = &[
    "Unplug the mains lead and undo the four screws of the rear lid. Lift off the rear lid.",
    "Unplug the display cable. Take out the fan, the motherboard and the old battery. Take the speaker, the camera and the heat sink out. Pull off the knob with its washer. Take off the bezel, the grille and the hinge cover.",
    "Now we put it all back together. Slide the tray into the frame.",
];

/// What the fact sheet notes of a line in one field: "remove 2 8 mm, remove 4", "disconnect speaker".
fn noted(field: &str, before: &[&str], said: &str) -> String {
    let at_s = before.len() as u64 * 10;
    let sheet = serde_json::to_value(read(&recording(before, said)).sheet).expect("plain data");
    let here = |f: &&serde_json::Value| f["at_s"].as_u64() == Some(at_s);
    let told = |f: &serde_json::Value| {
        let count = f["count"].as_u64().map_or("some".to_owned(), |n| n.to_string());
        let length = f["length_mm"].as_f64().map_or(String::new(), |mm| format!(" {mm} mm"));
        let what = f["what"].as_str().unwrap_or("–").to_owned();
        let rest = if field == "fasteners" { count + &length } else { what };
        format!("{} {rest}", f["op"].as_str().unwrap_or_default())
    };
    let mut all: Vec<String> = sheet[field].as_array().into_iter().flatten().filter(here).map(told).collect();
    all.sort_unstable();
    all.join(", ")
}

#[rstest]
#[case::screws_out("fasteners", include_str!("orders/counts.txt"), OPEN, 47)]
#[case::screws_back("fasteners", include_str!("orders/counts-back.txt"), IN_THE_REBUILD, 15)]
#[case::plugs_out("connectors", include_str!("orders/unplugged.txt"), &MUCH_IS_OUT[..1], 9)]
#[case::plugs_back("connectors", include_str!("orders/plugged.txt"), MUCH_IS_OUT, 2)]
#[case::parts_out("parts", include_str!("orders/removed.txt"), &MUCH_IS_OUT[..1], 8)]
#[case::parts_back("parts", include_str!("orders/fitted.txt"), MUCH_IS_OUT, 6)]
fn each_fact_is_noted(#[case] field: &str, #[case] file: &str, #[case] before: &[&str], #[case] missed: usize) {
    let lines = lines(file);
    let heard = |said: &str| noted(field, before, said);
    let wrong: String = lines.iter().map(|l| marked::wrong(l.said, l.missed, l.told, &heard(l.said))).collect();
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(lines.iter().filter(|l| l.missed).count(), missed, "lines that are not heard yet");
}

/// The cautions of one breath of a run-on narration between two acts, as a guide prints them; "-" where it prints none.
fn printed(said: &str) -> String {
    let text = format!(
        "# Recording: A try of the fountain\n\n\
         [0:00] now take out the four screws of the rear lid and lift the rear lid off\n\n\
         [0:10] {said}\n\n\
         [0:20] then take out the pump\n"
    );
    let draft = draft_guide(&Recording::parse(text.as_bytes()).expect("a transcript"));
    let cautions: Vec<String> = draft.steps.into_iter().flat_map(|s| s.cautions).collect();
    if cautions.is_empty() { "-".to_owned() } else { cautions.join(" / ") }
}

#[test]
fn each_warning_is_printed_in_the_right_words() {
    let lines = lines(include_str!("printed/warnings.txt"));
    let wrong: String = lines.iter().map(|l| marked::wrong(l.said, l.missed, l.told, &printed(l.said))).collect();
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(lines.iter().filter(|l| l.missed).count(), 23, "lines that are not printed so yet");
}
