//! Names as the recording writes them: the passes read in lower case, a guide prints "USB board" and "Wi-Fi antenna".

use super::lexicon::is_known;
use crate::recording::Recording;
use rustc_hash::FxHashMap;

/// How words with capitals of their own are written.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Spelling(FxHashMap<String, String>);

/// Most words of one written name ("power-over-Ethernet").
const LONGEST: usize = 3;

impl Spelling {
    /// Of words that carry a capital inside, and of those that are never written without one.
    ///
    /// A recording that shouts tells nothing; a title may put a capital on every word.
    pub fn of(recording: &Recording) -> Self {
        let mut seen: FxHashMap<String, String> = FxHashMap::default();
        let mut small: Vec<String> = Vec::new();
        let (mut words, mut shouted) = (0, 0);
        for cue in &recording.cues {
            let mut opens = true;
            for raw in cue.text.split_whitespace() {
                let word = raw.trim_matches(|c: char| !c.is_alphanumeric());
                let ends = raw.ends_with(['.', '!', '?', ':', '"', '”', '…']);
                if !word.is_empty() {
                    words += 1;
                    shouted += usize::from(word.len() > 3 && word.chars().all(char::is_uppercase));
                    match has_own_capital(word, opens) {
                        Some(true) => {
                            seen.entry(key(word)).or_insert_with(|| word.to_owned());
                        }
                        Some(false) => {}
                        None => small.push(key(word)),
                    }
                }
                opens = ends || opens && word.is_empty();
            }
        }
        const LOUD: usize = 4;
        if shouted * LOUD > words {
            return Self::default();
        }
        for word in recording.title.iter().flat_map(|t| t.split_whitespace()) {
            let word = word.trim_matches(|c: char| !c.is_alphanumeric());
            if has_own_capital(word, true) == Some(true) {
                seen.entry(key(word)).or_insert_with(|| word.to_owned());
            }
        }
        for word in small {
            seen.remove(&word);
        }
        seen.extend(recording.title.as_deref().and_then(model).map(|name| (key(&name), name)));
        Self(seen)
    }

    /// A text of the reader's with the words as they are written.
    pub fn put(&self, text: &str) -> String {
        if self.0.is_empty() {
            return text.to_owned();
        }
        let words: Vec<&str> = text.split(' ').collect();
        let mut out: Vec<String> = Vec::with_capacity(words.len());
        let mut at = 0;
        while at < words.len() {
            let most = LONGEST.min(words.len() - at);
            let found = (1..=most).rev().find_map(|n| Some((n, self.written(&words[at..at + n])?)));
            let (n, word) = found.unwrap_or_else(|| (1, words[at].to_owned()));
            out.push(word);
            at += n;
        }
        out.join(" ")
    }

    /// The words as one that is written, with what stands around them.
    fn written(&self, words: &[&str]) -> Option<String> {
        let said = words.join(" ");
        let core = said.trim_matches(|c: char| !c.is_alphanumeric());
        let written = self.0.get(&key(core))?;
        Some(said.replacen(core, written, 1))
    }
}

/// "Tarmo Echo 5 tide clock": the name before the figure of a model, whatever its words mean elsewhere.
fn model(title: &str) -> Option<String> {
    let capital = |w: &&str| w.starts_with(char::is_uppercase) && w.chars().all(char::is_alphabetic);
    let words: Vec<&str> = title.split_whitespace().take(LONGEST + 1).collect();
    let name = words.iter().take_while(|w| capital(w)).count();
    // "X4" names the model itself, and the words before it may be what it is.
    let figure = words.get(name).is_some_and(|w| w.chars().all(|c| c.is_ascii_digit()));
    (figure && name > 0).then(|| words[..name].join(" "))
}

fn key(word: &str) -> String {
    word.to_lowercase().replace('-', " ")
}

/// Whether a word is written with a capital that is its own; `None` where it is written without any.
///
/// At the opening of a sentence only a capital inside tells ("USB", "eSIM", "X4"), elsewhere also the first one of a word
/// that is no word of the trade or of every day.
fn has_own_capital(word: &str, opens: bool) -> Option<bool> {
    if !word.chars().any(char::is_uppercase) {
        return if word.chars().any(char::is_lowercase) { None } else { Some(false) };
    }
    let inside = word.chars().skip(1).any(char::is_uppercase);
    let code = word.chars().any(|c| c.is_ascii_digit());
    let is_i = word == "I" || word.starts_with("I'") || word.starts_with("I’");
    Some(!is_i && (inside || code || !opens && !is_known(&word.to_lowercase())))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn spelling(text: &str) -> Spelling {
        Spelling::of(&Recording::parse(text.as_bytes()).unwrap())
    }

    #[rstest]
    #[case::acronym("Lift off the USB board.", "Remove the usb board.", "Remove the USB board.")]
    #[case::hyphenated(
        "Unplug the Wi-Fi antenna here.",
        "Disconnect the wi fi antenna.",
        "Disconnect the Wi-Fi antenna."
    )]
    #[case::a_name(
        "This is the Tarmo tide clock.",
        "Switch on the tarmo tide clock.",
        "Switch on the Tarmo tide clock."
    )]
    #[case::opens_a_sentence("Pumps are here. Pumps go there.", "Remove the pumps.", "Remove the pumps.")]
    #[case::small_elsewhere("Take the Pump off. The pump is light.", "Fit the pump.", "Fit the pump.")]
    #[case::no_stop_before_it("Lift off the board Make sure it is dry", "Make sure it is dry.", "Make sure it is dry.")]
    #[case::a_verb_is_no_name("Lift off the board Remove the lid", "Then remove the lid.", "Then remove the lid.")]
    #[case::the_speaker("Then I lift it.", "Fit the i plate.", "Fit the i plate.")]
    #[case::a_code("Here is the clip X4b now.", "Remove the clip x4b.", "Remove the clip X4b.")]
    #[case::shouted("LIFT OFF THE BOARD AND THEN TAKE THE PUMP AWAY", "Remove the pump.", "Remove the pump.")]
    #[case::with_marks(
        "It feeds the GPS module.",
        "Route it along the gps, then stop.",
        "Route it along the GPS, then stop."
    )]
    fn names_keep_their_capitals(#[case] said: &str, #[case] text: &str, #[case] wanted: &str) {
        assert_eq!(spelling(&format!("[0:00] {said}")).put(text), wanted);
    }

    #[test]
    fn the_name_of_a_model_is_written_as_the_title_has_it() {
        let recording = Recording::parse(b"# Recording: Tarmo Echo 5 tide clock\n\n[0:00] Hear the echo.").unwrap();
        assert_eq!(Spelling::of(&recording).put("Switch on the tarmo echo."), "Switch on the Tarmo Echo.");
    }

    #[test]
    fn a_title_tells_only_capitals_inside() {
        let s = spelling("# Recording: Tarmo Tide Clock X4 teardown\n\n[0:00] lift off the tide clock x4 lid");
        assert_eq!(s.put("the tarmo tide clock"), "the tarmo tide clock");
    }
}
