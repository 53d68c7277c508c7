//! Tools and materials that are named.

use super::super::facts::{Consumable, Drive};
use super::super::lexicon::LEXICON;
use super::super::numbers;
use super::super::phrases::is_screw;
use super::super::tags::Tagged;
use super::Scene;
use super::fasteners::drive_near;

pub(super) fn tools(scene: &Scene<'_, '_>) -> Vec<String> {
    named(scene.words())
}

/// Every tool of a sentence, by the names of the fact sheet.
pub(in super::super) fn named(words: &[&str]) -> Vec<String> {
    let mut out: Vec<String> = LEXICON
        .tools
        .all(words)
        .into_iter()
        .filter(|(at, ..)| !(words[*at] == "sucker" && *at > 0 && words[*at - 1].starts_with("solder")))
        .filter(|(at, len, _)| !turned_down(words, *at) && !is_verb(words, *at, *len) && !other_card(words, *at, *len))
        .map(|(_, _, t)| t.clone())
        .collect();
    for i in 0..words.len() {
        // "the driver board" is a part, not a tool; "the driver" of a loudspeaker neither.
        let part = LEXICON.part_heads.at(words, i + 1).is_some();
        if matches!(words[i], "screwdriver" | "driver" | "turner" | "bit")
            && !part
            && !of_sound(words, i)
            && !turned_down(words, i)
        {
            let drive = drive_near(words, i.saturating_sub(6), (i + 3).min(words.len())).map(|(d, _)| d);
            let known = drive.map(|d| format!("{} screwdriver", d.name()));
            match known {
                Some(name) => out.push(name),
                None if words[i] == "bit" => {}
                None if !out.iter().any(|t| t.ends_with("driver")) => out.push("screwdriver".to_owned()),
                None => {}
            }
        }
    }
    out.extend(by_drive(words));
    if words.contains(&"iron") && words.iter().any(|w| w.contains("solder")) {
        out.push("soldering iron".to_owned());
    }
    // In a list of tools a drive stands for its driver: "a T8 torx and a small philips".
    if list_opener(words).is_some() {
        out.extend(LEXICON.drives.all(words).into_iter().map(|(_, _, d)| format!("{} screwdriver", d.name())));
        out.extend(words.iter().filter_map(|w| numbers::bit_code(w)).map(|(d, _)| format!("{} screwdriver", d.name())));
    }
    if out.iter().any(|t| t.ends_with(" screwdriver")) {
        out.retain(|t| t != "screwdriver");
    }
    out.sort();
    out.dedup();
    out
}

/// "get a Phillips zero", "swap to the T6": a drive that is taken in the hand is its driver.
fn by_drive(words: &[&str]) -> Vec<String> {
    const AHEAD: usize = 3;
    let taken = |at: usize| {
        // "a number two Phillips"
        let sized = at > 2 && matches!(words[at - 2], "number" | "size");
        let at = if sized { at - 2 } else { at };
        let before = &words[at.saturating_sub(AHEAD)..at];
        let verb = before.iter().any(|w| {
            matches!(*w, "get" | "grab" | "take" | "use" | "using" | "need" | "swap" | "switch" | "change" | "with")
        });
        let article =
            before.last().is_some_and(|w| matches!(*w, "a" | "an" | "the" | "my" | "your" | "another" | "to"));
        verb && article
    };
    let mut out = Vec::new();
    for at in 0..words.len() {
        let Some((drive, len)) = drive_at(words, at).filter(|_| taken(at)) else { continue };
        let end = at + len + numbers::bit_size(words, at + len).map_or(0, |(_, n)| n);
        let of_screws =
            words.get(end).is_some_and(|w| is_screw(w) || matches!(*w, "head" | "out" | "one" | "off" | "bit"));
        if !of_screws {
            out.push(format!("{} screwdriver", drive.name()));
        }
    }
    out
}

fn drive_at(words: &[&str], at: usize) -> Option<(Drive, usize)> {
    let named = LEXICON.drives.at(words, at).map(|(len, drive)| (*drive, len));
    // "the T fifteen"
    if words[at] == "t"
        && let Some((_, len)) = numbers::bit_size(words, at + 1)
    {
        return Some((Drive::Torx, 1 + len));
    }
    named.or_else(|| numbers::bit_code(words[at]).map(|(drive, _)| (drive, 1)))
}

/// The words that open a list; "tool" and "material" do so only in front.
pub(in super::super) fn list_opener(words: &[&str]) -> Option<String> {
    const IN_FRONT: usize = 4;
    LEXICON
        .tool_list
        .all(words)
        .into_iter()
        .find(|(at, len, ())| {
            let bare = *len == 1 && matches!(words[*at], "tool" | "material" | "required")
                || words[*at..at + len] == ["the", "tool"];
            !bare
                || *at < IN_FRONT
                    && words
                        .get(at + len)
                        .is_none_or(|w| !matches!(*w, "into" | "in" | "at" | "to" | "under" | "between" | "and"))
        })
        .map(|(at, len, ())| words[at..at + len].join(" "))
}

/// "The only thing you need is a small Phillips screwdriver.": one tool is the whole list.
pub(in super::super) fn is_whole_list(text: &str) -> bool {
    ["only thing you need", "only tool you need", "all you need"].iter().any(|p| text.contains(p))
}

/// "lever it up", "pick it up", "do not use the pick as a lever".
fn is_verb(words: &[&str], at: usize, len: usize) -> bool {
    len == 1
        && matches!(words[at], "lever" | "pick" | "card" | "weight" | "oven" | "iron")
        && (matches!(
            words.get(at + 1),
            Some(&("it" | "the" | "them" | "on" | "up" | "slot" | "out" | "reader" | "that" | "this" | "a"))
        ) || matches!(
            at.checked_sub(1).map(|i| words[i]),
            Some("to" | "as" | "memory" | "sd" | "sim" | "don't" | "a" | "you" | "housing")
        ) && matches!(words[at], "lever" | "card" | "weight"))
}

/// A card slides under things; any other card is none of the tools.
fn other_card(words: &[&str], at: usize, len: usize) -> bool {
    let slides = words.iter().any(|w| {
        matches!(
            *w,
            "slide" | "slid" | "push" | "insert" | "under" | "glue" | "tape" | "cut" | "corner" | "edge" | "slit"
        )
    });
    let other = at > 0
        && matches!(
            words[at - 1],
            "memory" | "sd" | "sim" | "graphics" | "network" | "wifi" | "sound" | "the" | "wireless"
        )
        && !slides;
    len == 1 && words[at] == "card" && (other || !slides)
}

/// "we no longer use a heat gun": not a tool of this job.
fn turned_down(words: &[&str], at: usize) -> bool {
    let from = at.saturating_sub(6);
    let before = &words[from..at];
    let not = before.iter().any(|w| matches!(*w, "no" | "not" | "don't" | "never" | "without"));
    let uses = before.iter().any(|w| matches!(*w, "use" | "need" | "used" | "longer" | "using" | "with"));
    not && uses && !before.contains(&"only")
}

/// "a 76 millimetre driver with a magnet", "the driver plate" of headphones.
fn of_sound(words: &[&str], at: usize) -> bool {
    words[at] == "driver"
        && (words.iter().any(|w| matches!(*w, "woofer" | "tweeter" | "loudspeaker" | "magnet" | "ear"))
            || (words.iter().any(|w| matches!(*w, "wire" | "sound" | "plate"))
                && !words.iter().any(|w| matches!(*w, "screw"))))
}

pub(super) fn consumables(t: &Tagged<'_>) -> Vec<Consumable> {
    let mut out: Vec<Consumable> = LEXICON
        .consumables
        .all(&t.words)
        .into_iter()
        .filter(|(at, len, c)| !is_old(&t.words, *at, *len, **c))
        .map(|(_, _, c)| *c)
        .collect();
    out.sort();
    out.dedup();
    out
}

/// Glue that is scraped off or only spoken of is not used up.
fn is_old(words: &[&str], at: usize, len: usize, consumable: Consumable) -> bool {
    let before = &words[at.saturating_sub(4)..at];
    let old = before.iter().any(|w| matches!(*w, "old" | "same" | "remaining" | "leftover" | "remove" | "removed"));
    let bare = len == 1 && matches!(consumable, Consumable::Adhesive | Consumable::Gasket | Consumable::Tape);
    let new = before
        .iter()
        .any(|w| matches!(*w, "new" | "fresh" | "apply" | "need" | "replacement" | "some" | "own" | "lay" | "another"))
        || words[..at].first().is_some_and(|w| matches!(*w, "material" | "tool"))
        || list_opener(words).is_some();
    (old && !before.contains(&"new")) && bare || (bare && !new)
}

/// Every bit code of a sentence, for tools that were announced in another size.
pub(in super::super) fn bits_named(words: &[&str]) -> Vec<(Drive, String)> {
    (0..words.len()).filter_map(|i| drive_near(words, i, i + 1)).filter_map(|(d, bit)| Some((d, bit?))).collect()
}
