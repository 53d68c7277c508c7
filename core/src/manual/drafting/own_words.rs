//! An order as the speaker gave it, fit to stand in a guide.
//!
//! A plain order says more than its act and its roles ("in the order that is stamped on the shield"), so its words are kept.
//! Beside the video "it" and "the shield" are plain; on paper a step is read alone, and a part has one name throughout. So
//! the names of the manual take the place of short ones, and of pronouns. Where the words say nothing that the roles do not
//! say, the sentence is worded like every other.

use crate::manual::model::parts::capitalised;
use crate::reading::{self, Deed};
use crate::things;

/// The words of an order, with the names of what it moves in them; `None` where it is no order, or is better worded.
pub(super) fn own_words(said: &str, deed: &Deed) -> Option<String> {
    if !reading::is_order(said) || things::vague_care(said).is_some() {
        return None;
    }
    let said = tool_behind(&sentence(said));
    if worded_better(&said, deed) {
        return None;
    }
    Some(named(&said, deed).unwrap_or(said))
}

/// A spoken sentence as one reads it: without the words that only open it, a capital, a full stop.
pub(super) fn sentence(text: &str) -> String {
    let text = capitalised(opened(text.trim()));
    if text.ends_with(['.', '!', '?', '…']) { text } else { format!("{text}.") }
}

/// What stands behind "so", "and now", "okay".
fn opened(text: &str) -> &str {
    const OPENERS: [&str; 9] = ["so", "and", "but", "now", "then", "okay", "alright", "right", "well"];
    const FEWEST: usize = 3;
    let mut rest = text;
    while let Some((first, behind)) = rest.split_once(' ') {
        let word = first.trim_end_matches(',').to_lowercase();
        // "Right side up", "Well done", "So that it fits" tell something.
        let tells = matches!(word.as_str(), "right" | "well") && !first.ends_with(',') || behind.starts_with("that ");
        if !OPENERS.contains(&word.as_str()) || tells || behind.split_whitespace().count() < FEWEST {
            break;
        }
        rest = behind.trim_start();
    }
    rest
}

/// "Use tweezers to roll up the foam." is an order to roll up, as all the others of a guide are.
fn tool_behind(order: &str) -> String {
    let parts = || {
        let rest = order.strip_prefix("Use ")?.strip_suffix('.')?;
        let (tool, act) = rest.split_once(" to ")?;
        // "Use heat and a pick to get under it": what is done is longer than what it is done with.
        (tool.split(' ').count() <= 4 && reading::is_order(&capitalised(act)))
            .then(|| format!("{} with {tool}.", capitalised(act)))
    };
    parts().unwrap_or_else(|| order.to_owned())
}

/// Of screws the roles know count, size and place; an order among them is in the words alone.
fn worded_better(said: &str, deed: &Deed) -> bool {
    const SAY_MORE: [&str; 20] = [
        "crosswise",
        "diagonally",
        "order",
        "sequence",
        "first",
        "then",
        "last",
        "middle",
        "inside",
        "outside",
        "opposite",
        "left",
        "right",
        "against",
        "clockwise",
        "anticlockwise",
        "turn",
        "turns",
        "one",
        "by",
    ];
    let words = things::words(said);
    // "Screw the ring on": the ring is turned.
    let of_screws = words.iter().skip(1).any(|w| matches!(w.as_str(), "screw" | "screws" | "bolt" | "bolts"));
    let more = words.iter().any(|w| SAY_MORE.contains(&w.as_str()));
    deed.act.turns_screws() && of_screws && !more && !deed.what.is_empty()
}

/// The order with the name of the one thing that it moves, where it only points at it.
fn named(said: &str, deed: &Deed) -> Option<String> {
    let [name] = &deed.what[..] else { return None };
    let spoken: Vec<&str> = said.split(' ').collect();
    let bare: Vec<String> = spoken.iter().map(|w| bare(w)).collect();
    let words: Vec<&str> = name.split(' ').collect();
    if words.iter().all(|w| bare.iter().any(|b| b == w)) {
        return None;
    }
    let (at, long) = short_name(&bare, &words).or_else(|| pronoun(&spoken, &bare).map(|at| (at, 0)))?;
    let full = match long {
        0 if deed.act.turns_screws() => format!("the screws of the {name}"),
        0 => format!("the {name}"),
        _ => name.clone(),
    };
    let last = at + long.max(1);
    let mark: String = spoken[last - 1].chars().rev().take_while(|c| !c.is_alphanumeric()).collect();
    let put = format!("{full}{}", mark.chars().rev().collect::<String>());
    Some([&spoken[..at], &[put.as_str()], &spoken[last..]].concat().join(" "))
}

/// Where the end of a name stands alone behind its article, and how many words of it: "the shield" of "main board shield".
fn short_name(said: &[String], name: &[&str]) -> Option<(usize, usize)> {
    let points = |at: &usize| at.checked_sub(1).is_some_and(|b| matches!(said[b].as_str(), "the" | "old" | "new"));
    (1..name.len()).rev().find_map(|long| {
        let tail = &name[name.len() - long..];
        let here = |at: &usize| said.get(*at..at + long).is_some_and(|w| w == tail);
        // "the plug of the lamp": its own words say which.
        let whole = |at: &usize| said.get(at + long).is_none_or(|w| w != "of");
        (0..said.len()).find(|at| here(at) && points(at) && whole(at)).map(|at| (at, long))
    })
}

/// Where a pronoun stands for what is moved: the first of the sentence, behind its verb.
fn pronoun(spoken: &[&str], said: &[String]) -> Option<usize> {
    const FARTHEST: usize = 3;
    // "those off" points at things, "those screws" names them.
    const BEHIND: [&str; 22] = [
        "off", "out", "up", "down", "away", "on", "in", "back", "over", "open", "too", "and", "with", "from", "to",
        "straight", "slowly", "gently", "until", "for", "aside", "apart",
    ];
    let ends = |at: usize| spoken[at].ends_with(|c: char| !c.is_alphanumeric());
    let alone = |at: usize| ends(at) || said.get(at + 1).is_some_and(|w| BEHIND.contains(&w.as_str()));
    (1..said.len().min(FARTHEST + 1)).find(|&at| match said[at].as_str() {
        "it" | "them" => true,
        "that" | "those" | "these" | "this" => alone(at),
        _ => false,
    })
}

fn bare(word: &str) -> String {
    word.trim_matches(|c: char| !c.is_alphanumeric()).to_lowercase()
}

#[cfg(test)]
mod tests {
    use super::own_words;
    use crate::reading;

    #[rstest::rstest]
    #[case("So pull the plug out of the wall.", "Pull the plug out of the wall.")]
    #[case("and now, lay it aside", "Lay it aside.")]
    #[case("Now stop.", "Now stop.")]
    #[case("Right side up, please.", "Right side up, please.")]
    fn what_only_opens_a_sentence_is_left_out(#[case] said: &str, #[case] wanted: &str) {
        assert_eq!(super::sentence(said), wanted);
    }

    /// The deed of the last sentence, with the words of that sentence.
    fn kept(told: &str) -> Option<String> {
        let recording = crate::recording::Recording::parse(told.as_bytes()).unwrap();
        let reading = reading::read(&recording);
        let (deed, last) = (reading.deeds.last().unwrap(), reading.statements.last().unwrap());
        assert!(deed.start >= last.start, "{deed:?}");
        own_words(&last.text, deed)
    }

    #[rstest::rstest]
    #[case("Undo two screws of the pump bracket. Lift the bracket out.", "Lift the pump bracket out.")]
    #[case("Unscrew the rear cover. Lift it off, towards the hinge.", "Lift the rear cover off, towards the hinge.")]
    #[case("Unscrew the pump. Pull that out and lay it down.", "Pull the pump out and lay it down.")]
    #[case(
        "Use tweezers to peel off the black foam around the lamp.",
        "Peel off the black foam around the lamp with tweezers."
    )]
    // The name is in it already, though in another order.
    #[case("Pull the plug of the lamp straight up.", "Pull the plug of the lamp straight up.")]
    // What the roles do not tell keeps the words.
    #[case(
        "Put the base plate on. Tighten the screws of the base plate crosswise.",
        "Tighten the screws of the base plate crosswise."
    )]
    fn an_order_names_what_it_moves(#[case] told: &str, #[case] wanted: &str) {
        assert_eq!(kept(&format!("[0:00] {told}")).as_deref(), Some(wanted));
    }

    #[rstest::rstest]
    #[case("Take the screwdriver and remove the screws of the lid.")]
    #[case("Carefully, we lift the lid.")]
    fn what_the_roles_tell_as_well_is_worded(#[case] told: &str) {
        assert_eq!(kept(&format!("[0:00] {told}")), None);
    }
}
