//! Words of care that every guide begins with.

use crate::manual::Manual;

/// Words of care by what the guide touches; licensed work and local rules go first.
///
/// Source: hazards of the trade (common practice, no source).
pub(super) fn care(manual: &Manual) -> Vec<String> {
    let names: Vec<String> = manual.parts.values().map(|p| p.name.to_lowercase()).collect();
    let any = |words: &[&str]| names.iter().any(|n| words.iter().any(|w| n.split(' ').any(|x| x == *w)));
    let mut out = vec!["Switch the device off and unplug it before you begin. What local codes reserve for licensed people stays with them.".to_owned()];
    if any(&["battery", "pack", "cell"]) {
        out.push("Never pierce, bend, heat or short a lithium cell. Stop if it is swollen, and hand it in where local rules say.".to_owned());
    }
    if any(&["mains", "transformer", "socket", "element", "thermostat"]) {
        out.push("Mains parts can hold a charge after unplugging. Work on them belongs to licensed people; follow local codes.".to_owned());
    }
    if !manual.heats.is_empty() {
        out.push("Hot surfaces burn. Keep heat away from cells and let parts cool before you touch them.".to_owned());
    }
    if any(&["glass", "display", "screen", "lens"]) {
        out.push("Glass can splinter when it is lifted: wear eye protection.".to_owned());
    }
    out
}
