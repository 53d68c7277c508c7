//! What hangs on its own cable is not off until that is out.
//!
//! "Lift the grille slowly, because two plugs are on the back. Pull those off.": told in the order of the hands, who lift
//! first. A reader who removes the part when its sentence says so tears the cable; so the plug goes before, and where the
//! narrator tells that something still holds, its sentence says so.

use super::super::Act;
use super::names::is_cable;
use super::steps::LIDS;
use super::told::{Sentenced, has};
use super::{Deed, Half};

/// How many sentences behind the part its plug is still told with it.
const NEAR: usize = 3;

/// Puts a part behind the plugs that it hangs on.
pub(super) fn tethered(told: &[Sentenced], deeds: &mut [Deed]) {
    for at in 1..deeds.len() {
        let (off, plug) = (&deeds[at - 1], &deeds[at]);
        let Some(part) = leaves(off).filter(|_| pulled(plug) && near(off, plug)) else { continue };
        let between = told.get(off.sentence..=plug.sentence).unwrap_or_default();
        let tied = between.iter().any(|s| ties(s, part));
        if !tied && !belongs(plug, part) {
            continue;
        }
        // "It comes up on a wire. Pull the plug. And now the shell is off.": opened, and later off.
        let off_later = |d: &Deed| d.act == Act::Remove && d.half == off.half && d.what == off.what;
        if tied && opens(part) && deeds[at + 1..].iter().take(NEAR).any(off_later) {
            deeds[at - 1].act = Act::Open;
            deeds[at - 1].because = "open as far as its cable lets it";
            continue;
        }
        // Said with its first plug: by then the part is in the hand.
        let said = deeds[..at - 1].last().is_some_and(|d| pulled(d) && near(d, off) && d.condition.is_some());
        let first = format!("before you take the {part} away");
        deeds.swap(at - 1, at);
        if tied && !said {
            deeds[at - 1].condition.get_or_insert(first);
        }
    }
}

fn near(one: &Deed, other: &Deed) -> bool {
    one.half == other.half && one.sentence.abs_diff(other.sentence) <= NEAR
}

/// The one part that comes off.
fn leaves(d: &Deed) -> Option<&str> {
    match &d.what[..] {
        [part] if d.act == Act::Remove && d.half == Half::Apart && !is_cable(part) => Some(part),
        _ => None,
    }
}

/// A lid, or what folds up like one.
fn opens(part: &str) -> bool {
    part.rsplit(' ').next().is_some_and(|head| LIDS.contains(&head) || matches!(head, "screen" | "display" | "glass"))
}

fn pulled(d: &Deed) -> bool {
    matches!(d.act, Act::Disconnect | Act::Desolder)
}

/// "Lift the fan out and unplug its cable.": the part's own; what lies over a plug has none.
fn belongs(plug: &Deed, part: &str) -> bool {
    const OVER: [&str; 8] = ["bracket", "shield", "cage", "clamp", "retainer", "clip", "holder", "strip"];
    let lies_over = part.rsplit(' ').next().is_some_and(|head| OVER.contains(&head));
    !lies_over
        && plug.what.iter().all(|w| w.strip_prefix(part).is_some_and(|rest| rest.is_empty() || rest.starts_with(' ')))
}

/// "It's still connected", "the cable is attached to it", "two plugs are on the back".
fn ties(s: &Sentenced, part: &str) -> bool {
    const STILL: [&str; 6] = ["attached", "connected", "wired", "plugged", "hooked", "tethered"];
    const ON_IT: [&str; 11] = [
        "on a wire",
        "on a cable",
        "on a ribbon",
        "attached to it",
        "connected to it",
        "wired to it",
        "plugged into it",
        "going to it",
        "goes to it",
        "runs to it",
        "on the back of it",
    ];
    const BEHIND: [&str; 7] =
        ["on the back", "on its back", "on the underside", "underneath", "under it", "behind it", "on it"];
    const CARE: [&str; 9] =
        ["because", "but", "careful", "carefully", "slowly", "gently", "don't", "do not", "watch out"];
    let said = |phrase: &str| has(&s.said, phrase);
    let any = |all: &[&str]| all.iter().any(|p| said(p));
    let still = STILL.iter().any(|tie| said(&format!("still {tie}")));
    let to_part = [" to the ", " on the back of the "].iter().any(|way| s.said.contains(&format!("{way}{part}")));
    let tells_plug = s.words.iter().any(|w| is_cable(w) || w == "plugged" || w == "wired");
    // "Underneath you will find the plug.": laid bare, and reached when the part is off.
    let behind = any(&BEHIND) && any(&CARE) && !said("on the back of the");
    tells_plug && (still || any(&ON_IT) || to_part || behind)
}
