//! Names of things as a guide uses them: what a phrase stands for where nothing else has to be asked.

use super::super::lexicon::{LEXICON, lemma};
use super::super::numbers;
use super::super::phrases::{describes_cable, is_screw};
use super::grammar::{GRAMMAR, Kind};
use super::phrases::Phrase;
use compact_str::CompactString;

pub(super) fn is_cable(word: &str) -> bool {
    describes_cable(&lemma(word)) && word != "antenna"
}

/// The side across: "left" of "right".
pub(super) fn side_across(side: &str) -> Option<&'static str> {
    match side {
        "left" => Some("right"),
        "right" => Some("left"),
        _ => None,
    }
}

/// Says what a cable or its plug is like, and not whom it serves: "wide", "four-pin", "tag".
pub(super) fn tells_no_owner(word: &str) -> bool {
    // A cord leads to the wall or pulls a door, a ring has its seat, and an antenna is served by its cable.
    if matches!(word, "cord" | "seat" | "antenna" | "aerial") {
        return false;
    }
    let fitted = |w: &str| w.ends_with("-on") || w.ends_with("-off");
    describes_cable(word)
        || fitted(word)
        || numbers::figure_at(&[word.split('-').next().unwrap_or(word)], 0).is_some()
        || GRAMMAR.kind(&[word.into()]) == Some(Kind::Plug)
}

pub(super) fn is_part_head(word: &str) -> bool {
    LEXICON.part_heads.at(&[lemma(word).as_str()], 0).is_some()
}

/// A place that helps the reader: named, and not a tool, a time or a store.
pub(super) fn tells_where(preposition: &str, np: &Phrase) -> bool {
    let named = !np.is_pronoun() && !np.said.is_empty() && np.words.len() <= 4;
    let store = matches!(
        np.head(),
        "mat"
            | "cup"
            | "box"
            | "way"
            | "time"
            | "video"
            | "moment"
            | "bit"
            | "while"
            | "order"
            | "case"
            | "step"
            | "example"
            | "guide"
            | "purpose"
    );
    // "by hand": how, and not where.
    let by_hand = preposition == "by" && matches!(np.head(), "hand" | "finger" | "thumb");
    // "drop it into place"
    let bare_place = np.head() == "place" && np.words.len() == 1;
    // "on top of that", "from below", "to one side", "on low": said without an article, they name no place.
    const BARE: [&str; 16] = [
        "top", "below", "above", "behind", "low", "high", "side", "corner", "end", "bottom", "lot", "instance",
        "speed", "first", "position", "static",
    ];
    let bare_side = BARE.contains(&np.head()) && np.words.len() == 1 && (!np.definite || np.head() == "lot");
    named
        && !bare_place
        && !bare_side
        && !by_hand
        && !store
        && !matches!(
            preposition,
            "with"
                | "using"
                | "of"
                | "for"
                | "as"
                | "like"
                | "than"
                | "about"
                | "after"
                | "before"
                | "until"
                | "without"
                | "during"
                | "because"
        )
        && !matches!(np.kind, Kind::Time | Kind::Opener | Kind::Cup | Kind::Heater | Kind::Picture | Kind::Screw)
}

pub(super) fn placed(np: &Phrase) -> String {
    let own = np.text();
    let article = if np.definite || np.plural { "the " } else { "a " };
    match np.of.iter().find(|p| !p.is_pronoun()) {
        Some(of) if of.words.len() <= 3 => format!("{article}{own} of the {}", of.text()),
        _ => format!("{article}{own}"),
    }
}

/// "cable" of "the cable of the fan" → "fan cable"; one word for one thing.
pub(super) fn name(o: &Phrase) -> String {
    let same = |w: &CompactString| {
        LEXICON
            .same_part
            .get(lemma(w).as_str())
            .filter(|_| o.kind != Kind::Film)
            .cloned()
            .unwrap_or_else(|| w.to_string())
    };
    let alone = (o.said.len() == 1 && !o.plural).then(|| LEXICON.same_alone.get(o.said[0].as_str())).flatten();
    let own = match alone {
        Some(whole) => whole.clone(),
        None => o.said.iter().map(same).collect::<Vec<_>>().join(" "),
    };
    let of: Vec<String> = o.of.iter().filter(|p| !p.is_pronoun() && p.is_thing()).map(name).collect();
    match (o.kind, of.first()) {
        (Kind::Plug | Kind::Latch | Kind::Lever | Kind::Film | Kind::Liner | Kind::Screw, Some(owner))
            if !own.contains(owner.as_str()) =>
        {
            format!("{} {own}", single(owner))
        }
        // "The back comes off."
        _ if own == "back" || own == "rear" => format!("{own} cover"),
        _ => own,
    }
}

/// "rivet pins", and not "rivets pins": what owns stands in the singular.
fn single(owner: &str) -> String {
    match owner.rsplit_once(' ') {
        Some((front, last)) => format!("{front} {}", lemma(last)),
        None => lemma(owner).to_string(),
    }
}

pub(super) fn plug_names(o: &Phrase) -> Vec<String> {
    if o.kind == Kind::Plug && o.of.len() > 1 {
        let whole = |p: &Phrase| if p.kind == Kind::Plug { name(p) } else { format!("{} {}", name(p), o.text()) };
        return o.of.iter().map(whole).collect();
    }
    vec![name(o)]
}

pub(super) fn describes_screw(word: &str) -> bool {
    is_screw(word)
        || LEXICON.drives.at(&[word], 0).is_some()
        || numbers::bit_code(word).is_some()
        || numbers::figure_at(&[word], 0).is_some()
        || LEXICON.units.at(&[word], 0).is_some()
        || matches!(
            word,
            "head"
                | "phillip"
                | "pan"
                | "flat"
                | "countersunk"
                | "captive"
                | "pin"
                | "security"
                | "rubber"
                | "mounted"
                | "size"
                | "small"
                | "long"
                | "short"
                | "tiny"
                | "silver"
                | "black"
                | "brass"
                | "machine"
                | "self-tapping"
                | "length"
                | "cross"
                | "star"
                | "type"
                | "headed"
                | "hex"
                | "wing"
                | "tri"
                | "point"
                | "lobe"
                | "five"
                | "ph"
                | "torx"
                | "spring"
                | "shoulder"
                | "retaining"
                | "fixing"
                | "fastening"
                | "mounting"
                | "securing"
                | "left"
                | "right"
                | "upper"
                | "lower"
                | "top"
                | "bottom"
                | "outer"
                | "inner"
                | "middle"
                | "following"
                | "corner"
                | "socket"
                | "steel"
                | "metal"
                | "plastic"
                | "grub"
                | "set"
                | "driver"
                | "screwdriver"
                | "t"
                | "shiny"
                | "identical"
                | "remaining"
                | "longer"
                | "shorter"
        )
}
