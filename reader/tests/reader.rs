//! What the reader reads, sentence by sentence, as narrators of different schools say it.
//!
//! Each table is one kind of fact. All devices and sentences are invented for these tests.

use paso_reader::reading::{FactSheet, Reading, StatementKind, read};
use paso_reader::recording::Recording;
use rstest::rstest;
use serde_json::{Value, json};

fn reading(text: &str) -> Reading {
    read(&Recording::parse(text.as_bytes()).expect("a recording"))
}

fn sheet(text: &str) -> FactSheet {
    reading(text).sheet
}

/// One field of the fact sheet, without the times.
fn field(text: &str, name: &str) -> Value {
    let mut rows = serde_json::to_value(sheet(text)).expect("plain data")[name].take();
    for row in rows.as_array_mut().into_iter().flatten() {
        if let Some(map) = row.as_object_mut() {
            map.remove("at_s");
        }
    }
    rows
}

#[rstest]
#[case::service("Remove the lower housing.", &["lower housing"])]
#[case::separated("Now take the lower housing off.", &["housing"])]
#[case::friendly("And out comes the pump.", &["pump"])]
#[case::passive("The pump slides out.", &["pump"])]
#[case::verbless("Okay, battery out first.", &["battery"])]
#[case::two("Take out the pump and the float.", &["pump", "float"])]
#[case::three("Remove the filter, the hose and the nozzle.", &["filter", "hose", "nozzle"])]
#[case::unknown("Lift the gribble out.", &["gribble"])]
#[case::pronoun("The fan sits on two pins. Pull it out.", &["fan"])]
#[case::not_a_tool("Insert the spudger beside the pump.", &[])]
#[case::not_a_screw("Remove the two screws.", &[])]
#[case::pointed_at("The pump sits next to the filter.", &[])]
#[case::negated("Do not remove the pump.", &[])]
fn parts_that_leave(#[case] text: &str, #[case] names: &[&str]) {
    let parts = field(text, "parts");
    let found: Vec<&str> = parts.as_array().unwrap().iter().filter_map(|p| p["what"].as_str()).collect();
    assert_eq!(found.len(), names.len(), "{found:?}");
    for (found, name) in found.iter().zip(names) {
        assert!(found.ends_with(name), "{found} is no {name}");
    }
    assert!(parts.as_array().unwrap().iter().all(|p| p["op"] == "remove"));
}

#[rstest]
#[case("Put the fan back in.", &["fan"])]
#[case("Insert the battery pack.", &["battery pack"])]
#[case("Lay in the new seal.", &["seal"])]
#[case("The top cover goes back on.", &["top cover"])]
#[case("Trigger back on with the spring in its slot.", &["trigger"])]
fn parts_that_go_back(#[case] text: &str, #[case] names: &[&str]) {
    let told = format!(
        "[0:00] Remove the hood. Remove the knob.\n\n[0:20] Let's put it all back together. {text} Install the knob. Put the hood back on. Fasten the hood with two screws."
    );
    let parts = field(&told, "parts");
    let found: Vec<(&str, &str)> =
        parts.as_array().unwrap().iter().map(|p| (p["op"].as_str().unwrap(), p["what"].as_str().unwrap())).collect();
    assert_eq!(found[2..found.len() - 2], names.iter().map(|n| ("install", *n)).collect::<Vec<_>>());
}

#[rstest]
#[case::plain("Remove four Phillips PH0 screws from the lid.", json!([{"op": "remove", "count": 4, "drive": "phillips", "bit": "PH0", "length_mm": null, "captive": false, "what": "lid"}]))]
#[case::length("Undo two T8 screws, 12 millimetres, of the base plate.", json!([{"op": "remove", "count": 2, "drive": "torx", "bit": "T8", "length_mm": 12.0, "captive": false, "what": "base plate"}]))]
#[case::words_for_zero("Take out five Phillips double zero screws, they hold the shield.", json!([{"op": "remove", "count": 5, "drive": "phillips", "bit": "PH00", "length_mm": null, "captive": false, "what": "shield"}]))]
#[case::captive("Loosen the two captive T6 screws of the carriage.", json!([{"op": "loosen", "count": 2, "drive": "torx", "bit": "T6", "length_mm": null, "captive": true, "what": "carriage"}]))]
#[case::both("Remove both screws from the bracket.", json!([{"op": "remove", "count": 2, "drive": null, "bit": null, "length_mm": null, "captive": false, "what": "bracket"}]))]
#[case::pozi("Remove six pozi screws from the rear cover.", json!([{"op": "remove", "count": 6, "drive": "pozidriv", "bit": null, "length_mm": null, "captive": false, "what": "rear cover"}]))]
#[case::five_lobe("Remove two pentalobe P2 screws, 4 mm, from the frame.", json!([{"op": "remove", "count": 2, "drive": "pentalobe", "bit": "P2", "length_mm": 4.0, "captive": false, "what": "frame"}]))]
#[case::three_lobe("There are six tri point Y0 screws on the bottom cover.", json!([{"op": "remove", "count": 6, "drive": "tri-point", "bit": "Y0", "length_mm": null, "captive": false, "what": "bottom cover"}]))]
#[case::aloud("The screws of the lid come out one two three four.", json!([{"op": "remove", "count": 4, "drive": null, "bit": null, "length_mm": null, "captive": false, "what": "lid"}]))]
#[case::of_two_kinds("Remove the five screws of the lid, three T5 and two T6.", json!([{"op": "remove", "count": 3, "drive": "torx", "bit": "T5", "length_mm": null, "captive": false, "what": "lid"}, {"op": "remove", "count": 2, "drive": "torx", "bit": "T6", "length_mm": null, "captive": false, "what": "lid"}]))]
#[case::placed_without_marks("on the back there are five screws three along the top edge and then two at the bottom these are just regular phillips", json!([{"op": "remove", "count": 5, "drive": "phillips", "bit": null, "length_mm": null, "captive": false, "what": "back cover"}]))]
#[case::told_as_gone("Remove two screws from the lid. With those two screws out, take off the lid.", json!([{"op": "remove", "count": 2, "drive": null, "bit": null, "length_mm": null, "captive": false, "what": "lid"}]))]
#[case::each_in_its_place("Remove six screws from the cage. That way each screw is in the same place as it was.", json!([{"op": "remove", "count": 6, "drive": null, "bit": null, "length_mm": null, "captive": false, "what": "cage"}]))]
#[case::latches("Release the eight latches of the lid.", json!([]))]
#[case::spoken_of("Screws are a pain.", json!([]))]
#[case::feet("Peel off the four rubber feet, they hide the screws.", json!([]))]
fn screws(#[case] text: &str, #[case] groups: Value) {
    assert_eq!(field(text, "fasteners"), groups);
}

#[test]
fn groups_replace_the_total_that_announces_them() {
    let groups = field(
        "Turn out the nine screws T10 of the half shell. Eight of them are 16 millimetres long. The one at the foot, 30 millimetres.",
        "fasteners",
    );
    let told: Vec<(Option<u64>, Option<f64>)> =
        groups.as_array().unwrap().iter().map(|g| (g["count"].as_u64(), g["length_mm"].as_f64())).collect();
    assert_eq!(told[0], (Some(8), Some(16.0)), "{groups}");
    assert!(groups.as_array().unwrap().iter().all(|g| g["drive"] == "torx"), "{groups}");
}

#[rstest]
#[case("Disconnect the fan cable from the main board.", json!([{"op": "disconnect", "what": "fan"}]))]
#[case("Unplug the battery.", json!([{"op": "disconnect", "what": "battery"}]))]
#[case("Grab the plug and unplug the battery, not by the wires.", json!([{"op": "disconnect", "what": "battery"}]))]
#[case("Pull out the keypad flex.", json!([{"op": "disconnect", "what": "keypad"}]))]
#[case("Disconnect the print head flex, the roller motor cable and the antenna cable.", json!([{"op": "disconnect", "what": "print head"}, {"op": "disconnect", "what": "roller motor"}, {"op": "disconnect", "what": "antenna"}]))]
#[case("Connect the switch cable.", json!([{"op": "connect", "what": "switch"}]))]
#[case("Do not connect the battery yet.", json!([]))]
fn connectors(#[case] text: &str, #[case] rows: Value) {
    assert_eq!(field(text, "connectors"), rows);
}

#[rstest]
#[case("Heat the rear panel with the heat gun at 80 degrees Celsius for two to three minutes.", json!([{"source": "heat gun", "target": "rear panel", "temp_c": [80.0, 80.0], "dwell_s": [120.0, 180.0]}]))]
#[case("Warm the edge of the lid with a hair dryer for a minute.", json!([{"source": "hair dryer", "target": "lid", "temp_c": null, "dwell_s": [60.0, 60.0]}]))]
#[case("Above 80 degrees the lid goes soft.", json!([]))]
#[case("You need a heat gun and tweezers.", json!([]))]
#[case("Heat the edge of the lid with a hot air gun or an ordinary hair dryer.", json!([{"source": "heat gun", "target": "lid", "temp_c": null, "dwell_s": null}]))]
#[case("The lid has to be heated with either a heating pad or a heat gun.", json!([{"source": "heating pad", "target": "lid", "temp_c": null, "dwell_s": null}]))]
fn heat(#[case] text: &str, #[case] rows: Value) {
    assert_eq!(field(text, "heat"), rows);
}

#[rstest]
#[case("Do not pull on the wires, they tear.", &["cable"])]
#[case("Caution. Electrostatic discharge can destroy the board.", &["esd"])]
#[case("Never poke a sharp tool near the battery, the cell can catch fire.", &["battery"])]
#[case("Be careful not to strip the screw heads, the thread is soft.", &["stripped-screw"])]
#[case("Don't touch the membrane.", &["membrane"])]
#[case("These are shorter, so don't mix them up, keep them separate.", &["screw-mixup"])]
#[case("Caution. The cable must not be pinched under the lid.", &["pinch"])]
#[case("Remove the lid.", &[])]
#[case("Prop the lid on a book so that the ribbon is not stretched.", &["cable"])]
#[case("Hold the pump with one hand so the hose does not tear the membrane.", &["membrane"])]
#[case("We can't see the cable yet, so we don't get to the plug until the tray is out.", &[])]
#[case("Never pull on the wire of the coin cell.", &["cable"])]
#[case("Protect the scanner glass with a cloth.", &["glass"])]
#[case("Cover the lens with protective film before you turn the unit over.", &["lens"])]
#[case("The sensor is quite fragile, so never touch the two contacts on top.", &["sensor"])]
#[case("If you don't feel sure about it, ask somebody.", &[])]
#[case("Now you can push harder and still don't break anything.", &[])]
#[case("Gloves are not required.", &[])]
#[case("Place each screw on the tray in the same position it had in the housing.", &["screw-mixup"])]
#[case("A rubber strip that presses on the connectors runs along the edge.", &[])]
#[case("Keep the old bracket, the new pump comes without one.", &["keep-part"])]
#[case("Don't use acetone here because it attacks the plastic.", &["chemical"])]
#[case("The arrow should point to the hinge.", &["orientation"])]
#[case("Pull out the cassette and do not bend the springs.", &["other"])]
#[case("We do not touch the lens.", &["lens"])]
#[case("You can cut a card like that out of any old packaging.", &[])]
#[case("The frame sits very tight in that corner.", &[])]
#[case("Watch that the side keys are not broken off.", &["other"])]
fn cautions(#[case] text: &str, #[case] about: &[&str]) {
    let rows = field(text, "cautions");
    let found: Vec<&str> = rows.as_array().unwrap().iter().filter_map(|c| c["about"].as_str()).collect();
    assert_eq!(found, about);
}

#[rstest]
#[case("It has 14.4 volts and 2600 milliamp hours.", json!([{"quantity": "voltage", "value": 14.4, "to": null, "unit": "V"}, {"quantity": "capacity", "value": 2600.0, "to": null, "unit": "mAh"}]))]
#[case("Tighten to point one five newton metres.", json!([{"quantity": "torque", "value": 0.15, "to": null, "unit": "N·m"}]))]
#[case("Tighten to forty centinewton metres.", json!([{"quantity": "torque", "value": 0.4, "to": null, "unit": "N·m"}]))]
#[case("Tighten to 40 cN·m.", json!([{"quantity": "torque", "value": 0.4, "to": null, "unit": "N·m"}]))]
#[case("Tighten to four kilogram force centimetres.", json!([{"quantity": "torque", "value": 0.392266, "to": null, "unit": "N·m"}]))]
#[case("Tighten to 4 kgf·cm.", json!([{"quantity": "torque", "value": 0.392266, "to": null, "unit": "N·m"}]))]
#[case("Tighten to sixteen ounce inches.", json!([{"quantity": "torque", "value": 0.112984829, "to": null, "unit": "N·m"}]))]
#[case("Discharge it to 10 to 20 percent.", json!([{"quantity": "percent", "value": 10.0, "to": 20.0, "unit": "%"}]))]
#[case("Put a weight of 2 kilograms on it for one hour.", json!([{"quantity": "mass", "value": 2000.0, "to": null, "unit": "g"}, {"quantity": "duration", "value": 3600.0, "to": null, "unit": "s"}]))]
#[case("The pad is 80 degrees Celsius, that is 176 Fahrenheit.", json!([{"quantity": "temperature", "value": 80.0, "to": null, "unit": "degC"}]))]
#[case("Open the lid to 70 degrees.", json!([{"quantity": "angle", "value": 70.0, "to": null, "unit": "deg"}]))]
#[case("I give it 4 out of ten.", json!([{"quantity": "score", "value": 4.0, "to": null, "unit": "out of ten"}]))]
#[case("It costs 19.99 dollars.", json!([{"quantity": "price", "value": 19.99, "to": null, "unit": "dollars"}]))]
fn measures(#[case] text: &str, #[case] rows: Value) {
    assert_eq!(field(text, "measures"), rows);
}

#[rstest]
#[case("If you needed to replace the pump you would have to take off the base and the lid.", json!([{"target": "pump", "after": ["base", "lid"]}]))]
#[case("If you ever want to change the display you have to take off the bottom cover.", json!([{"target": "display", "after": ["bottom cover"]}]))]
#[case("The roller can only be changed after the housing and the carriage are removed.", json!([{"target": "roller", "after": ["housing", "carriage"]}]))]
#[case("The brush can be changed any time without taking anything else apart.", json!([{"target": "brush", "after": []}]))]
#[case("Take off the lid.", json!([]))]
fn needs(#[case] text: &str, #[case] rows: Value) {
    assert_eq!(field(text, "needs"), rows);
}

#[rstest]
#[case("Tools required, Phillips PH1 screwdriver, spudger, tweezers.", &["phillips screwdriver", "spudger", "tweezers"])]
#[case("You need a T8 torx, a suction cup and a hair dryer.", &["hair dryer", "suction cup", "torx screwdriver"])]
#[case("Remove two T6 screws from the lid.", &["torx screwdriver"])]
#[case("Disconnect the cable from the driver board.", &[])]
fn tools(#[case] text: &str, #[case] names: &[&str]) {
    assert_eq!(sheet(text).tools, names);
}

#[rstest]
#[case("Hello and welcome to the channel. Thanks for watching.", &[0])]
#[case("Thank you. Thank you. Thank you.", &[0])]
#[case("Remove the lid.", &[])]
fn idle_segments(#[case] text: &str, #[case] idle: &[u64]) {
    assert_eq!(sheet(&format!("[0:00] {text}")).idle_segments, idle);
}

#[rstest]
#[case::repeat("[0:00] Remove the lid from the base. Remove the lid from the base.", "repeat")]
#[case::forgotten(
    "[0:00] You need tweezers. \n\n[0:10] Oh, I forgot to say you also need isopropyl alcohol.",
    "late-tool"
)]
#[case::units("[0:00] Heat it to 90 degrees Celsius, 165 degrees Fahrenheit.", "unit")]
#[case::count(
    "[0:00] Remove six PH0 screws from the lid. Take off the lid.\n\n[0:20] Pull out the fan.\n\n[0:40] Put the fan in. Put the lid on. Install five PH0 screws in the lid.",
    "count"
)]
#[case::size(
    "[0:00] Remove six PH0 screws, 6 mm, from the lid. Take off the lid.\n\n[0:20] Pull out the fan.\n\n[0:40] Put the fan in. Put the lid on. Install six PH0 screws, 8 mm, in the lid.",
    "size"
)]
#[case::omitted(
    "[0:00] Take off the lid. Remove the spring.\n\n[0:20] Pull out the fan. Lift the grille off. Take the filter out.\n\n[0:40] Put the filter in. Put the fan in. Put the grille on. Put the lid on. Connect the fan cable.",
    "omitted"
)]
#[case::posture(
    "[0:00] Remove six PH0 screws from the lid. Take off the lid.\n\n[0:20] I should have said, the device has to lie face down for this.",
    "late-posture"
)]
fn discrepancies(#[case] text: &str, #[case] kind: &str) {
    let rows = field(text, "discrepancies");
    assert!(rows.as_array().unwrap().iter().any(|d| d["kind"] == kind), "{rows}");
}

#[test]
fn a_posture_told_in_time_is_no_finding() {
    let text = "[0:00] Lay it face down. Remove six PH0 screws from the lid.\n\n[0:20] I should have said, it has to lie face down so that the lid drops out.";
    let rows = field(text, "discrepancies");
    assert!(!rows.as_array().unwrap().iter().any(|d| d["kind"] == "late-posture"), "{rows}");
}

#[test]
fn a_clean_recording_contradicts_itself_nowhere() {
    let text = "[0:00] Remove six PH0 screws from the lid. Take off the lid.\n\n[0:20] Pull out the fan.\n\n[0:40] Put the fan in. Put the lid on. Install six PH0 screws in the lid.";
    assert!(sheet(text).discrepancies.is_empty(), "{:?}", sheet(text).discrepancies);
}

/// Punctuation helps, but run-on speech is the normal case: the facts must survive without it.
#[test]
fn run_on_speech_keeps_its_facts() {
    let text = "[0:00] okay so first take out the four screws of the bottom cover they're philips one and then lift off the bottom cover\n\n\
        [0:20] so now unplug the battery and then take out the battery\n\n[0:40] okay now put the new battery in and plug the battery in";
    let sheet = sheet(text);
    let screws = &sheet.fasteners[0].fact;
    assert_eq!((screws.count, screws.what.as_deref()), (Some(4), Some("bottom cover")));
    assert!(sheet.parts.iter().any(|p| p.fact.what == "bottom cover"), "{:?}", sheet.parts);
    assert!(sheet.connectors.iter().any(|c| c.fact.what.as_deref() == Some("battery")), "{:?}", sheet.connectors);
    assert_eq!(sheet.rebuild_from_s, Some(40));
}

#[test]
fn every_statement_says_why_and_where() {
    let text = include_str!("../../demo/bench-lamp.md");
    let recording = Recording::parse(text.as_bytes()).unwrap();
    let chars = paso_reader::reading::joined_text(&recording).chars().count();
    let reading = read(&recording);
    let mut last = 0;
    for s in &reading.statements {
        assert!(!s.because.is_empty() && (0.0..=1.0).contains(&s.confidence), "{s:?}");
        assert!(last <= s.start && s.start < s.end && s.end <= chars, "spans follow each other: {s:?}");
        assert!(s.from_ms <= s.to_ms && s.approximate, "{s:?}");
        last = s.end;
    }
}

#[test]
fn talk_and_noise_carry_no_facts() {
    for s in reading(include_str!("../../demo/grain-scale.srt")).statements {
        if matches!(s.kind, StatementKind::Chatter | StatementKind::Noise) {
            assert!(s.facts.is_empty(), "{s:?}");
        }
    }
}
