//! What somebody may be after, and what stands before it: "if you're after the relay, it's lid, shield and board", "should you
//! only need the lamp, you don't have to open anything".
//!
//! Such talk is as short as a shopping list, often without a verb, so it is read by its words and not by its clauses: a wish,
//! the thing wished for, and the things named behind it. It tells of another job; nobody does it now.

use super::chains::comes_off;
use super::grammar::Kind;
use super::phrases::{Phrase, phrase_at};
use super::told::Reader;
use super::words::{Tag, Word};

/// A job that is spoken of: what it is after, what comes off before it, and the words that speak of it.
pub(super) struct Wish {
    pub target: Phrase,
    pub after: Vec<Phrase>,
    /// Surely another job: "if you only wanted …", and not "if you want to get in, lift the lid".
    pub other: bool,
    /// Words from the wish to the end of what it lists.
    pub from: usize,
    pub to: usize,
}

/// Words that a wish and its list fit into: breathless speech has no ends of sentences.
const LONGEST: usize = 34;

/// Words from one thing of a list to the next.
const APART: usize = 8;

/// Words between "if" and what is wanted: "if all you really want is".
const NEAR: usize = 7;

impl Reader<'_> {
    pub(super) fn wish(&self) -> Option<Wish> {
        (0..self.words.len()).find_map(|from| self.wish_at(from))
    }

    fn wish_at(&self, from: usize) -> Option<Wish> {
        let end = self.words.len().min(from + LONGEST);
        let (target, after) = match self.words[from].said.as_str() {
            "if" => self.wanted(from, end).or_else(|| self.faulty(from, end))?,
            "should" | "whoever" | "who" | "whenever" | "were" => self.wanted(from, end)?,
            "for" if from <= 6 => self.only_for(from, end)?,
            "to" if from == 0 => self.to_reach(end)?,
            _ => return None,
        };
        let (after, to) = self.list_behind(&target, after, end)?;
        let says = |w: &Word| {
            is_any(
                w,
                &[
                    "all", "only", "just", "ever", "wanted", "needed", "after", "had", "should", "whoever", "who",
                    "were", "for",
                ],
            )
        };
        let other = self.words[from..target.from].iter().any(says);
        Some(Wish { target, after, other, from, to })
    }

    /// "To reach it you have to take off everything we just did.": what is reached so.
    pub(super) fn for_everything(&self) -> Option<Phrase> {
        let everything = self.words.iter().position(|w| is_any(w, &["everything", "all"]))?;
        let off = self.words[..everything].iter().any(|w| OFF_VERBS.contains(&w.verb()));
        let target = self.to_reach(everything).or_else(|| self.wanted(0, everything)).map(|(p, _)| p);
        target.filter(|_| off)
    }

    /// "That's rear cover, battery cage, main board and frame.": nothing but names.
    pub(super) fn summed_up(&self) -> Vec<Phrase> {
        let that = self.says_at(0, "that 's") || self.says_at(0, "that is") || self.says_at(0, "so that 's");
        let [only] = self.clauses else { return Vec::new() };
        let named = that && only.base == "be" && !only.negated && only.places.is_empty() && only.objects.len() > 1;
        if named && only.objects.iter().all(comes_off) { only.objects.clone() } else { Vec::new() }
    }

    /// The thing behind "want", "need", "are after", "had to do", "it's just", with its end.
    fn wanted(&self, from: usize, end: usize) -> Option<(Phrase, usize)> {
        let near = end.min(from + 1 + NEAR);
        let at = (from + 1..near).find(|i| self.wants(*i))?;
        // "If it sticks you want to lift the lid.": advice, and no wish.
        if !self.words[from + 1..at].iter().all(|w| is_any(w, &WHO)) {
            return None;
        }
        let mut at = at + 1;
        // "all you want is the fuse", "you wanted to get at the fuse"
        while at < end
            && (self.words[at].tag == Tag::Verb || is_any(&self.words[at], &["to", "at", "just", "only", "is"]))
        {
            at += 1;
        }
        self.wished_at(at, end)
    }

    /// "If one regulator is scratching, the way is knobs, nuts and plate.": what is broken is what somebody is after.
    fn faulty(&self, from: usize, end: usize) -> Option<(Phrase, usize)> {
        let (thing, after) = phrase_at(self.words, from + 1, end).filter(|(p, _)| comes_off(p) && !p.new)?;
        let is = self.words.get(after).filter(|w| is_any(w, &["is", "'s", "has", "are", "goes", "was", "ever"]))?;
        let broken = self.words[after..end].iter().take(4).any(|w| is_any(w, &BROKEN));
        // "If the lid is cracked, take the sticker off it": only a list is a way to something.
        let lists = (after..end).any(|i| WAYS.iter().any(|p| self.says_at(i, p)));
        (!is.pause && broken && lists).then_some((thing, after))
    }

    /// The thing that is named here, or that "it" and "that one" stand for.
    fn wished_at(&self, at: usize, end: usize) -> Option<(Phrase, usize)> {
        let (thing, after) = phrase_at(self.words, at, end)?;
        if is_wished(&thing) {
            return Some((thing, after));
        }
        let points = thing.is_pronoun() && matches!(self.words[at].said.as_str(), "it" | "that" | "this");
        let (_, last, _) =
            self.topic.one.as_ref().filter(|(n, p, _)| points && self.number - n <= 1 && is_wished(p))?;
        Some((Phrase { from: thing.from, to: thing.to, ..last.clone() }, after))
    }

    fn wants(&self, at: usize) -> bool {
        let w = &self.words[at];
        let before = |words: &[&str]| at > 0 && is_any(&self.words[at - 1], words);
        let behind = |words: &[&str]| self.words.get(at + 1).is_some_and(|n| is_any(n, words));
        match w.said.as_str() {
            "want" | "wants" | "wanted" | "wanna" => true,
            "need" | "needs" | "needed" => !behind(&["more", "some", "a", "any"]),
            "after" => before(&["'re", "are", "were", "be", "'s", "is"]),
            // "if it's only the belt"
            "just" | "only" => before(&["'s", "is"]) && behind(&["the", "your", "that"]),
            // "if you ever had to do the latch"
            "do" | "replace" | "change" | "swap" | "reach" | "get" | "access" => before(&["to"]),
            _ => false,
        }
    }

    /// "For the fan only the lid has to come off.": the thing, with its end.
    fn only_for(&self, from: usize, end: usize) -> Option<(Phrase, usize)> {
        let (thing, after) = self.wished_at(from + 1, end).or_else(|| self.new_one(from + 1, end))?;
        // "For a new pump that's the base, the hose and the bracket."
        let lists = thing.new && self.words.get(after).is_some_and(|w| is_any(w, &["that", "it", "you"]));
        let only = |w: &Word| is_any(w, &["only"]);
        (lists || self.words[after..end].iter().take(3).any(only)).then_some((thing, after))
    }

    fn new_one(&self, at: usize, end: usize) -> Option<(Phrase, usize)> {
        phrase_at(self.words, at, end).filter(|(p, _)| p.new && comes_off(p))
    }

    /// "To reach it you have to take off the lid and the tray.", "To do the hinge you'd go lid, panel, hinge."
    fn to_reach(&self, end: usize) -> Option<(Phrase, usize)> {
        let from = ["to reach", "to get to", "to get at", "to do", "to replace", "to change", "to access"]
            .iter()
            .find(|p| self.says_at(0, p))?
            .split(' ')
            .count();
        let (thing, after) = self.wished_at(from, end)?;
        let you = self.words.get(after).is_some_and(|w| is_any(w, &["you", "one"]));
        you.then_some((thing, after))
    }

    /// What is named behind the wish as coming off, up to where it says what need not, and where the list ends; `None` where it
    /// lists nothing.
    fn list_behind(&self, target: &Phrase, from: usize, end: usize) -> Option<(Vec<Phrase>, usize)> {
        let spared = (from..end).find(|i| NEED_NOT.iter().any(|p| self.says_at(*i, p)));
        let to = spared.unwrap_or(end);
        // "that means grille off", "it'd be the lid and the tray"
        let from = (from..to).find(|i| is_any(&self.words[*i], &["means"])).map_or(from, |i| i + 1);
        let comes = |w: &Word| is_any(w, &OFF) || OFF_VERBS.contains(&w.verb());
        let listed = self.words[from..to].iter().any(comes);
        let (out, last) = if listed { self.named_between(target, from, to) } else { (Vec::new(), from) };
        let to = spared.map_or(last + 2, |at| at + APART).min(end);
        (spared.is_some() || !out.is_empty()).then_some((out, to))
    }

    /// Things that are named one after another, and where the last of them ends.
    fn named_between(&self, target: &Phrase, from: usize, to: usize) -> (Vec<Phrase>, usize) {
        let (mut out, mut at, mut last): (Vec<Phrase>, _, _) = (Vec::new(), from, from);
        while at < to && at <= last + APART {
            let Some((p, after)) = phrase_at(self.words, at, to) else {
                at += 1;
                continue;
            };
            let place = at > 0 && is_any(&self.words[at - 1], &PLACES);
            // "the cell can stay"
            let stays = self.words[after..to].iter().take(2).any(|w| is_any(w, &["stay", "stays", "stayed"]));
            // "To do an input socket …, for the sockets are soldered": the thing itself.
            let itself = p.words == target.words || p.words.len() == 1 && p.head() == target.head();
            if !place && !stays && comes_off(&p) && !itself && out.iter().all(|o| o.words != p.words) {
                out.push(p);
                last = after;
            }
            at = after.max(at + 1);
        }
        (out, last)
    }

    pub(super) fn says_at(&self, at: usize, phrase: &str) -> bool {
        // Asked of every word for dozens of phrases: the first letter turns nearly all of them away.
        let first = self.words.get(at).and_then(|w| w.said.as_bytes().first());
        first == phrase.as_bytes().first()
            && phrase.split(' ').enumerate().all(|(i, said)| self.words.get(at + i).is_some_and(|w| w.said == said))
    }
}

fn is_wished(p: &Phrase) -> bool {
    comes_off(p) && !p.new || matches!(p.kind, Kind::Key | Kind::Latch | Kind::Lever) && !p.is_pronoun()
}

/// Who may be after something, and how much: "if all you ever really wanted …", "should somebody only need …".
const WHO: [&str; 26] = [
    "you", "somebody", "someone", "anybody", "anyone", "one", "people", "they", "all", "just", "only", "ever",
    "really", "it", "that", "'s", "'re", "are", "is", "be", "were", "had", "have", "to", "get", "for",
];

/// What makes somebody open a device.
const BROKEN: [&str; 16] = [
    "dead",
    "broken",
    "gone",
    "bad",
    "worn",
    "cracked",
    "faulty",
    "damaged",
    "noisy",
    "scratching",
    "leaking",
    "dies",
    "breaks",
    "fails",
    "blown",
    "failed",
];

/// Behind these stands the way to it.
const WAYS: [&str; 9] = [
    "the way is",
    "it 's",
    "that 's",
    "it 'd be",
    "that 'd be",
    "you 'd have",
    "you have to",
    "that means",
    "you 'd need",
];

/// Behind these stands what need not come off.
const NEED_NOT: [&str; 18] = [
    "don't have to",
    "do not have to",
    "doesn't have to",
    "does not have to",
    "won't have to",
    "wouldn't have to",
    "don't need",
    "do not need",
    "doesn't need",
    "wouldn't need",
    "won't need",
    "needn't",
    "need not",
    "no need to",
    "don't do any of this",
    "without",
    "leave the",
    "nothing has to",
];

/// Words of a list of what comes off.
const OFF: [&str; 13] = ["off", "out", "away", "must", "need", "have", "has", "'s", "is", "be", "are", "first", "gone"];

const OFF_VERBS: [&str; 8] = ["remove", "take", "undo", "open", "unplug", "disconnect", "lift", "pull"];

/// Behind these stands where, or with what.
const PLACES: [&str; 15] =
    ["in", "on", "under", "from", "at", "by", "through", "behind", "into", "to", "with", "for", "of", "below", "over"];

fn is_any(word: &Word, said: &[&str]) -> bool {
    said.contains(&word.said.as_str())
}

#[cfg(test)]
mod tests {
    use crate::reading::read;
    use crate::recording::Recording;
    use rstest::rstest;

    fn heard(text: &str) -> (Vec<(String, Vec<String>)>, Vec<String>) {
        let sheet = read(&Recording::parse(text.as_bytes()).unwrap()).sheet;
        let needs = sheet.needs.into_iter().map(|n| (n.fact.target, n.fact.after)).collect();
        (needs, sheet.parts.into_iter().map(|p| p.fact.what).collect())
    }

    #[rstest]
    #[case::after("If you're after the relay, it's lid, shield and relay board.", "relay", &["lid", "shield", "relay board"])]
    #[case::by_itself("If you wanted the buzzer by itself, it'd be the lid, the tray and then the board.", "buzzer", &["lid", "tray", "board"])]
    #[case::should("Should you only need the lamp, that means grille off, reflector out and you're there.", "lamp", &["grille", "reflector"])]
    #[case::all_you_want("If all you want is the fuse, take off the back and stop there.", "fuse", &["back cover"])]
    #[case::whoever("Whoever wants the display has to take the whole frame out first.", "display", &["frame"])]
    #[case::only_for("For the fan only the lid has to come off.", "fan", &["lid"])]
    #[case::a_new_one("For a new pump that's the base, the hose and the bracket.", "pump", &["base", "hose", "bracket"])]
    #[case::broken("If one dial is scratching, then the way is knobs, tray and main plate.", "dial", &["knobs", "tray", "main plate"])]
    #[case::need_not_out("If you ever had to do the trigger, you wouldn't need to take the board out for it.", "trigger", &[])]
    #[case::everything("To reach the pump you have to take off everything we just did. That's rear cover, cage and board.", "pump", &["rear cover", "cage", "board"])]
    #[case::itself("If you needed to replace an input socket you would have to take off the cover and the cage, because the sockets are soldered.", "input socket", &["cover", "cage"])]
    #[case::nothing("If you just want the filter you don't have to open anything, it slides out the side.", "filter", &[])]
    #[case::need_not("If it's only the belt, you needn't take anything apart.", "belt", &[])]
    #[case::leave_it("Should you be after the drive wheel, you can leave the lid on, it comes out from below.", "drive wheel", &[])]
    fn a_wish_tells_a_need_and_no_act(#[case] text: &str, #[case] target: &str, #[case] after: &[&str]) {
        let after = after.iter().map(|a| (*a).to_owned()).collect();
        assert_eq!(heard(text), (vec![(target.to_owned(), after)], Vec::new()));
    }

    #[test]
    fn it_stands_for_what_was_named_last() {
        let (needs, _) = heard("The relay is down there. To reach it you have to take off the lid and the tray.");
        assert_eq!(needs, [("relay".to_owned(), vec!["lid".to_owned(), "tray".to_owned()])]);
    }

    #[rstest]
    #[case::advice("If it sticks you want to lift the lid.")]
    #[case::how_to("If you want to get in, lift the lid off.")]
    #[case::nothing_to_do(
        "As for the seals, the one on the tray can be used again, so you don't have to order new ones."
    )]
    #[case::more_of_it("If you need more heat, take the lid off.")]
    fn no_wish_for_a_thing(#[case] text: &str) {
        assert_eq!(heard(text).0, []);
    }
}
