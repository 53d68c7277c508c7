//! What readers see of a deed: its sentence, and the title of the step that deeds make.

use super::super::Act;
use super::super::wording::{Instruction, alone, capital, list, verb_where};
use super::Deed;
use super::grammar::GRAMMAR;

/// "Remove the rear cover", "Disconnect the pump and the valve".
pub fn title(deeds: &[Deed]) -> String {
    let rank = |d: &Deed| match d.act {
        Act::Remove | Act::Install | Act::Transfer => 0,
        Act::Test | Act::PowerOn => 1,
        // Who opens a shell to reach a plug opens the shell.
        Act::Open => 2,
        Act::Disconnect | Act::Connect | Act::Desolder | Act::Solder => 2,
        Act::Close | Act::Apply | Act::PowerOff | Act::Unplug | Act::Peel => 3,
        Act::Pry | Act::Drive | Act::Unscrew => 4,
        Act::Turn | Act::Release | Act::Heat | Act::Clean => 5,
        _ => 6,
    };
    let named = |d: &&Deed| !d.what.is_empty();
    let main = deeds.iter().filter(named).min_by_key(|d| rank(d)).unwrap_or(&deeds[0]);
    let alike = deeds.iter().filter(|d| d.act == main.act);
    let mut things: Vec<&str> = alike.flat_map(|d| &d.what).map(String::as_str).collect();
    things.dedup();
    things.truncate(3);
    let verb = verb_where(main.act, &things, &main.places);
    if things.is_empty() {
        return capital(&alone(main.act));
    }
    match main.act {
        Act::Unscrew | Act::Drive => format!("{verb} the screws of the {}", list(&things)),
        _ => format!("{verb} the {}", list(&things)),
    }
}

/// Most words of an instruction.
const MAX_WORDS: usize = 25;

/// Whether a sentence begins with a verb that orders, and speaks of nobody.
pub fn is_order(text: &str) -> bool {
    let words: Vec<String> =
        text.split_whitespace().map(|w| w.trim_matches(|c: char| !c.is_alphanumeric()).to_lowercase()).collect();
    let speaker = |w: &String| {
        matches!(
            w.as_str(),
            "i" | "i'm"
                | "i'll"
                | "i've"
                | "we"
                | "we're"
                | "we'll"
                | "we've"
                | "our"
                | "us"
                | "let's"
                | "gonna"
                | "okay"
                | "so"
                | "now"
                | "just"
                | "basically"
                | "here"
                | "this"
        )
    };
    // "Back cover on.": a side of the thing, and no verb.
    const SIDES: [&str; 6] = ["back", "front", "top", "bottom", "side", "face"];
    if words.first().is_some_and(|w| SIDES.contains(&w.as_str())) {
        return false;
    }
    let verb = words.iter().find(|w| !(w.len() > 4 && w.ends_with("ly")));
    verb.is_some_and(|v| GRAMMAR.base(v) == Some(v.as_str())) && words.len() <= MAX_WORDS && !words.iter().any(speaker)
}

/// "Undo the four T5 screws (6 mm) of the pump bracket."
pub fn sentence(d: &Deed) -> String {
    Instruction {
        act: d.act,
        things: d.what.iter().map(String::as_str).collect(),
        screws: d.screws(),
        by: d.by.as_deref(),
        places: &d.places,
        manner: &d.manner,
        condition: d.condition.as_deref(),
        until: d.until.as_deref(),
        measures: &d.measures,
    }
    .sentence()
}

#[cfg(test)]
mod tests {
    use super::super::super::{deeds, draft_guide};
    use super::{is_order, sentence};
    use crate::recording::Recording;
    use rstest::rstest;

    fn recording(text: &str) -> Recording {
        Recording::parse(text.as_bytes()).unwrap()
    }

    #[rstest]
    #[case("So what I'm gonna do is undo the three T5 screws of the lid.", "Undo the three T5 screws of the lid.")]
    #[case(
        "The rim has to be heated with a hair dryer for two minutes.",
        "Heat the rim with a hair dryer for 2 minutes."
    )]
    #[case("We carefully lift out the fan.", "Remove the fan carefully.")]
    #[case("Then you can unplug the pump cable.", "Disconnect the pump cable.")]
    #[case("Turn the shaft all the way round, twenty times or so.", "Turn the shaft all the way round, 20 times.")]
    #[case("Put the screws in a jar.", "Sort the screws into a jar.")]
    fn speech_becomes_an_instruction(#[case] said: &str, #[case] wanted: &str) {
        let told: Vec<String> = deeds(&recording(said)).iter().map(sentence).collect();
        assert_eq!(told, [wanted]);
    }

    #[rstest]
    #[case("Lift the lid off at its front edge; a short cable still holds it.", true)]
    #[case("Carefully lift the lid.", true)]
    #[case("We lift the lid.", false)]
    #[case("The lid comes off.", false)]
    #[case("Back cover on.", false)]
    fn an_order_begins_with_its_verb_and_speaks_of_nobody(#[case] said: &str, #[case] order: bool) {
        assert_eq!(is_order(said), order);
    }

    #[test]
    fn a_step_frees_one_part_and_is_named_for_it() {
        let text = "[0:00] Undo two screws of the lid. Take off the lid. Unplug the fan cable. Take the fan out.";
        let guide = draft_guide(&recording(text));
        let titles: Vec<&str> = guide.steps.iter().map(|s| s.title.as_str()).collect();
        assert_eq!(titles, ["Remove the lid", "Remove the fan"]);
        assert_eq!(guide.steps[0].acts[0].text, "Undo the two screws of the lid.");
    }

    #[test]
    fn a_row_of_plugs_is_one_step() {
        let text = "[0:00] Disconnect the pump cable. Disconnect the lamp cable. Take out the board.";
        assert_eq!(draft_guide(&recording(text)).steps.len(), 1);
    }
}
