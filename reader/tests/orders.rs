//! One order at a time, from many trades: which act a verb tells, whoever says it, and of which thing.
//!
//! A narration shows how sentences hang together; here each line stands alone behind the same beginning, so that a verb is
//! heard for what it is. The answers were written before the reader met the lines; `speech.rs` tells how they are marked.

mod marked;
mod told;

use paso_reader::reading::deeds;
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

/// What is heard in a line that follows these.
fn heard(before: &[&str], said: &str) -> String {
    let mut text = "# Recording: A try of the machine\n\n".to_owned();
    for (n, line) in before.iter().chain([&said]).enumerate() {
        text += &format!("[0:{:02}] {line}\n\n", n * 10);
    }
    let recording = Recording::parse(text.as_bytes()).expect("a transcript");
    let deeds = deeds(&recording);
    words(&deeds.iter().filter(|d| d.cue == before.len()).collect::<Vec<_>>())
}

#[rstest]
#[case::apart(include_str!("orders/apart.txt"), &[OPENED], 33)]
#[case::together(include_str!("orders/together.txt"), &[OPENED, CLOSING], 18)]
#[case::talk(include_str!("orders/talk.txt"), &[OPENED], 22)]
#[case::back(include_str!("orders/back.txt"), TAKEN_APART, 15)]
fn each_order_is_heard(#[case] file: &str, #[case] before: &[&str], #[case] missed: usize) {
    let lines = lines(file);
    let wrong: String = lines.iter().map(|l| marked::wrong(l.said, l.missed, l.told, &heard(before, l.said))).collect();
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(lines.iter().filter(|l| l.missed).count(), missed, "lines that are not heard yet");
}
