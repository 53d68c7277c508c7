//! Under which condition an act is done: "if it breaks, put a few drops along the edge".
//!
//! An order that holds only sometimes and is printed without its "if" is done always; so the condition stands first in the
//! sentence, in the speaker's words.

use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::told::Reader;
use super::words::Word;

/// Words of a condition beyond which it is a story.
const LONGEST: usize = 11;

impl Reader<'_> {
    /// "if it does break", "unless the tape is new"; `None` where the act is always done.
    pub(super) fn condition(&self, c: &Clause) -> Option<String> {
        let n = self.clauses.iter().position(|k| k.from == c.from)?;
        let told = matches!(c.mood, Mood::Plain | Mood::Purpose);
        let first = self.ahead(n).or_else(|| self.behind(n, c)).filter(|_| told)?;
        let last = self.end_of(first);
        let to = self.clauses[last - 1].to;
        let to = if last <= n { to.min(self.clauses[last].from) } else { to };
        self.in_words(first, self.clauses[first].from, to)
    }

    /// "If it breaks, put a few drops along the edge, wait, and lift it.": all of them, where marks tell it; else the next.
    fn ahead(&self, n: usize) -> Option<usize> {
        /// Words of a sentence beyond which nobody remembers how it began.
        const LONG: usize = 45;
        let first = self.clauses[..n].iter().position(|k| k.mood == Mood::If)?;
        let from = self.clauses[first].from;
        let opens = |w: &Word| w.pause || matches!(w.said.as_str(), "and" | "but" | "so" | "now" | "then");
        let begins = self.words[..from].last().is_none_or(opens);
        let last = self.end_of(first);
        let to = self.clauses.get(last).map_or(self.words.len(), |next| next.from);
        let marked = first == 0 && last <= n && self.words[..to].last().is_some_and(|w| w.pause);
        (begins && (n == last || marked && self.words.len() < LONG)).then_some(first)
    }

    /// "cracked or it's gone stiff": behind the last clause of the condition.
    fn end_of(&self, first: usize) -> usize {
        let joined = |k: &Clause| {
            let or = |at: usize| self.words.get(at).is_some_and(|w| w.is("or") || w.is("and"));
            k.mood == Mood::If && (or(k.from) || k.from > 0 && or(k.from - 1))
        };
        first + 1 + self.clauses[first + 1..].iter().take_while(|k| joined(k)).count()
    }

    /// "Replace the cord if it is cracked."; but "see if it works".
    fn behind(&self, n: usize, c: &Clause) -> Option<usize> {
        let asks =
            matches!(c.base.as_str(), "see" | "check" | "test" | "try" | "find" | "look" | "make" | "verify" | "ask");
        let next = self.clauses.get(n + 1).filter(|k| k.mood == Mood::If && !asks)?;
        let near = next.from <= c.to + 1 && !self.words[..next.from].last().is_some_and(|w| w.pause);
        near.then_some(n + 1)
    }

    fn in_words(&self, first: usize, from: usize, to: usize) -> Option<String> {
        let to = to.min(self.words.len());
        let opens = |at: &usize| matches!(self.words[*at].said.as_str(), "if" | "unless");
        let from = (from.saturating_sub(1)..to).find(opens)?;
        let k = &self.clauses[first];
        // "If you look here", "if you want to keep it": talk; "if I pull here": shown as it is done.
        let talk = matches!(
            k.base.as_str(),
            "look"
                | "see"
                | "want"
                | "remember"
                | "notice"
                | "watch"
                | "think"
                | "like"
                | "follow"
                | "get"
                | "do"
                | "go"
                | "need"
        );
        let heard = &self.words[from..to];
        let speaker = |w: &str| {
            matches!(
                w,
                "wanna"
                    | "gonna"
                    | "gotta"
                    | "want"
                    | "i"
                    | "i'm"
                    | "me"
                    | "my"
                    | "we"
                    | "we're"
                    | "our"
                    | "us"
                    | "this"
                    | "that"
                    | "here"
            )
        };
        if talk || k.supposed || heard.iter().any(|w| speaker(&w.said)) || heard.iter().rev().skip(1).any(|w| w.pause) {
            return None;
        }
        let filler =
            |w: &str| matches!(w, "just" | "really" | "actually" | "basically" | "okay" | "ok" | "so" | "now" | "uh");
        let mut told: Vec<String> = heard.iter().map(|w| w.said.to_string()).filter(|w| !filler(w)).collect();
        while told.last().is_some_and(|w| matches!(w.as_str(), "and" | "or" | "but" | "then" | "just" | "so")) {
            told.pop();
        }
        self.name_it(first, &mut told);
        let text = told.join(" ").replace(" 's ", " is ").replace(" 're ", " are ").replace(" 've ", " have ");
        let cut = text.ends_with(" is") || text.ends_with(" the") || text.contains(" '");
        ((3..=LONGEST).contains(&told.len()) && !cut).then_some(text)
    }

    /// "If it's cracked": what was spoken of, where speech tells it surely.
    fn name_it(&self, first: usize, told: &mut [String]) {
        let subject =
            self.clauses[first].subjects.first().filter(|s| s.is_pronoun() && matches!(s.head(), "it" | "they"));
        let thing = subject.and_then(|s| self.meant(first, s, false)).filter(|p| !p.guess && !p.is_pronoun());
        let named =
            thing.filter(|p| matches!(p.kind, Kind::Part | Kind::Plug | Kind::Film | Kind::Latch | Kind::Lever));
        if let (Some(p), Some(it)) = (named, told.iter_mut().find(|w| matches!(w.as_str(), "it" | "they"))) {
            *it = format!("the {}", p.text());
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::wording::sentence;
    use crate::reading::deeds;
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case::ahead(
        "If the tab breaks, remove the cell with tweezers.",
        "If the tab breaks, remove the cell with tweezers."
    )]
    #[case::behind("Clean the seal if it is dirty.", "If the seal is dirty, clean the seal.")]
    #[case::you("If you smell anything hot, unplug the fan.", "If you smell anything hot, disconnect the fan.")]
    #[case::unless("Unless the rim is soft, heat it.", "Heat the rim, unless the rim is soft.")]
    #[case::asks("See if the fan turns, then remove the lid.", "Remove the lid.")]
    #[case::talk("If you look at the rim, remove the lid.", "Remove the lid.")]
    #[case::shown("If I push the clip in, you can remove the lid.", "Remove the lid.")]
    #[case::next_sentence("Check if the belt moves. Remove the lid.", "Remove the lid.")]
    fn a_condition_stands_first(#[case] said: &str, #[case] wanted: &str) {
        let text = format!("[0:00] Remove the two screws of the frame. {said}");
        let told = deeds(&Recording::parse(text.as_bytes()).expect("a transcript"));
        assert_eq!(told.last().map(sentence).as_deref(), Some(wanted));
    }

    #[test]
    fn it_holds_for_all_that_is_told_with_it() {
        let text = "[0:00] Pull the tab slowly. If it does break, put a drop of alcohol along the edge, wait a minute, and pry the cell up.";
        let told: Vec<String> =
            deeds(&Recording::parse(text.as_bytes()).expect("a transcript")).iter().map(sentence).collect();
        let held = told.iter().filter(|t| t.starts_with("If ")).count();
        assert_eq!(held, told.len() - 1, "{told:#?}");
        assert!(held >= 2, "{told:#?}");
    }
}
