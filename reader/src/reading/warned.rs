//! What a caution says, as a guide prints it: what is dangerous, what happens, what to do.
//!
//! A narrator warns in one breath ("and please don't pull on the wires, because they're forty years old and they tear").
//! Each clause of it is put into its own short sentence, orders speak to the reader, and what to do stands last, where it
//! is remembered. The words stay the narrator's: what was said stands beside it, at its second.

use super::clauses::{self, Clause, Mood};
use super::deeds::is_order;
use super::extract::named_hazard;
use super::lexicon::LEXICON;
use super::phrases::{NounPhrase, Thing};
use super::sentences::{self, Token};
use super::tags::{self, Tag, Tagged};
use super::wording::capital;
use crate::recording::{Cue, Recording, SourceFormat};
use compact_str::CompactString;
use std::ops::Range;

/// The sentences of a caution, made of what was said; what cannot be parted stays whole.
pub fn caution(said: &str) -> String {
    if disclaims(said) {
        return OWN_RISK.to_owned();
    }
    // A recogniser that writes no capitals writes none for the speaker.
    let said = said.replace('\n', " ").replace('’', "'").replace(" i ", " I ").replace(" i'", " I'");
    let said = without_fillers(&said);
    let said = &orders_apart(ban_alone(&said).unwrap_or(&said));
    let cue = Cue { start: None, end: None, text: said.clone() };
    let recording = Recording { title: None, format: SourceFormat::Plain, cues: vec![cue], mended: Vec::new() };
    // The point of "14.4" is no mark.
    let punctuated = said.split_whitespace().any(|w| w.ends_with([',', '.', ';', '!']));
    let chars: Vec<char> = sentences::joined_text(&recording).chars().collect();
    let mut told: Vec<Told> = Vec::new();
    let mut whole = Vec::new();
    for sentence in sentences::split(&recording) {
        let tagged = tags::tag(&sentence.tokens, punctuated);
        let clauses = clauses::split(&tagged);
        let sentence = Sentence { chars: &chars, tokens: &sentence.tokens, t: &tagged, clauses: &clauses };
        told.extend(sentence.told());
        whole.push(format!("{}.", capital(&trimmed(&sentence.words(sentence.first(0)..tagged.len(), true)))));
    }
    let whole = whole.join(" ");
    if told.iter().any(|t| t.part != Part::Talk) {
        told.retain(|t| t.part != Part::Talk);
    }
    if told.iter().all(|t| t.settled) {
        told.sort_by_key(|t| t.part);
    }
    if told.iter().any(|t| is_broken(&t.text)) {
        return whole;
    }
    let sentences: Vec<String> = told.iter().map(|t| format!("{}.", capital(&t.text))).collect();
    if sentences.is_empty() { whole } else { sentences.join(" ") }
}

/// What everybody who disclaims means, however it was said.
const OWN_RISK: &str = "You do this work at your own risk.";

/// "This is your own machine and your own risk", "I am not responsible if you break anything."; "open the capacitor bank at
/// your own risk, it holds a charge" warns of more than that, and stays as it was said.
fn disclaims(said: &str) -> bool {
    let told: Vec<CompactString> = sentences::words(said).collect();
    let told: Vec<&str> = told.iter().map(CompactString::as_str).collect();
    if named_hazard(&told).is_some() || LEXICON.fragile.any(&told).is_some() || forbids(said) {
        return false;
    }
    let said = said.to_lowercase();
    ["own risk", "not responsible", "no liability", "not liable", "nor the maker will pay"]
        .iter()
        .any(|w| said.contains(w))
}

/// "Take the arm out with tweezers and do not touch the springs.": the act stands in its step, what is forbidden warns.
fn ban_alone(said: &str) -> Option<&str> {
    const BANS: [&str; 4] = ["do not ", "don't ", "never ", "avoid "];
    // "Always pull slowly and never twist" is advice throughout.
    const ADVISES: [&str; 6] = ["always", "only", "first", "careful", "slow", "gentl"];
    let (act, ban) = [" and ", " but "].iter().find_map(|join| said.split_once(join))?;
    let bans = BANS.iter().any(|b| ban.starts_with(b));
    let plain =
        is_order(act) && !act.contains([',', '.', ';']) && !ADVISES.iter().any(|w| act.to_lowercase().contains(w));
    // "… and do not twist it": what "it" is stands before.
    let points = sentences::words(ban).any(|w| matches!(w.as_str(), "it" | "them" | "that" | "those"));
    (bans && plain && !points).then_some(ban)
}

/// "Press the tab and pull, not yank the wires", "then the glass on top, making sure you don't touch the edge": an order
/// of its own, without its "do".
fn orders_apart(said: &str) -> String {
    const ROUGH: [&str; 8] = ["yank", "pull", "tug", "jerk", "force", "bend", "twist", "pry"];
    let mut text = said.replace(", making sure", ". Make sure");
    for verb in ROUGH {
        text = text.replace(&format!(", not {verb} "), &format!(". Don't {verb} "));
    }
    text
}

/// "Whatever you do, don't pull it, by the way": words that weigh and say nothing.
fn without_fillers(said: &str) -> String {
    const FILLERS: [&str; 8] = [
        "whatever happens, ",
        "whatever happens ",
        "whatever you do, ",
        "whatever you do ",
        ", by the way",
        " by the way",
        "obviously, ",
        "obviously ",
    ];
    const PLAINLY: [(&str, &str); 12] = [
        ("never ever ", "never "),
        ("it's got ", "it has "),
        ("they've got ", "they have "),
        ("the only thing that can go wrong is you ", "you can "),
        ("the thing to watch out for is ", "watch out for "),
        ("the thing to look out for is ", "watch out for "),
        ("the thing to watch is ", "watch "),
        ("you really don't want to ", "you don't want to "),
        ("you definitely don't want to ", "you don't want to "),
        ("try not to ", "don't "),
        ("never to ", "never "),
        ("just don't ", "don't "),
    ];
    let mut text = said.to_owned();
    for filler in FILLERS {
        text = swapped(&text, filler, "");
    }
    for (long, short) in PLAINLY {
        text = swapped(&text, long, short);
    }
    text
}

/// A phrase replaced wherever it stands as words of its own, whatever its first letter.
fn swapped(text: &str, phrase: &str, by: &str) -> String {
    let mut out = String::new();
    let mut at = 0;
    while let Some(c) = text[at..].chars().next() {
        let here = text.get(at..at + phrase.len()).is_some_and(|t| t.eq_ignore_ascii_case(phrase));
        let inside = phrase.starts_with(char::is_alphabetic) && text[..at].ends_with(char::is_alphanumeric);
        if here && !inside {
            out.push_str(by);
            at += phrase.len();
        } else {
            out.push(c);
            at += c.len_utf8();
        }
    }
    out
}

/// A sentence that was parted where it holds together.
fn is_broken(text: &str) -> bool {
    const OPEN: [&str; 16] =
        ["with", "in", "the", "a", "an", "of", "as", "you", "we", "that", "to", "at", "is", "are", "from", "have"];
    let mut words = text.split(' ');
    let last = words.next_back().unwrap_or_default();
    words.next().is_none() || OPEN.contains(&last)
}

/// Whether a text says what not to do: "Do not pull on the wires.", "Never bend it."
pub fn forbids(text: &str) -> bool {
    let told: Vec<String> = sentences::words(text).map(|w| w.to_string()).collect();
    told.iter().any(|w| matches!(w.as_str(), "don't" | "never"))
        || told.windows(2).any(|w| matches!((w[0].as_str(), w[1].as_str()), ("may" | "do", "not")))
}

/// Whether a text tells what to do or to leave.
pub fn tells_what_to_do(text: &str) -> bool {
    let told: Vec<String> = sentences::words(text).map(|w| w.to_string()).collect();
    let says = |w: &String| matches!(w.as_str(), "must" | "mustn't" | "should" | "shouldn't" | "snug" | "advised");
    let suffices = told.last().is_some_and(|w| w == "enough");
    if told.iter().any(says) || forbids(text) || suffices {
        return true;
    }
    // "If it is cracked, put film over it": the order stands behind a comma.
    text.split(['.', '!', ';', ',']).any(|s| {
        let words: Vec<String> = sentences::words(s).map(|w| w.to_string()).collect();
        opens_an_order(&words.iter().map(String::as_str).collect::<Vec<_>>())
    })
}

/// "do not pull", "never", "keep it flat", "always unplug it", "only press".
fn opens_an_order(words: &[&str]) -> bool {
    let rest = match words {
        ["do", "not", ..] | ["don't" | "never" | "always", _, ..] => return true,
        ["no", rest @ ..] if LEXICON.kept_out.at(rest, 0).is_some() => return true,
        ["only" | "slowly" | "carefully" | "gently" | "just", rest @ ..] => rest,
        all => all,
    };
    let Some(first) = rest.first() else { return false };
    let is = |w: &&str| matches!(*w, "is" | "are" | "can" | "will" | "may" | "has" | "have" | "must" | "was");
    let base = LEXICON.verb_forms.get(*first).is_some_and(|base| base == first);
    base && !matches!(*first, "be" | "have") && !rest.iter().take(3).skip(1).any(is)
        || matches!(rest, ["be", "careful" | "gentle" | "sure", ..])
}

/// What a sentence of a caution does, in the order in which they are read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Part {
    /// How things are.
    Hazard,
    /// What comes of it.
    Consequence,
    /// What to do, and what not.
    Avoidance,
    /// Of the narrator, and not of the work.
    Talk,
}

/// One sentence to print.
struct Told {
    part: Part,
    text: String,
    /// It can stand before the others: it names what it speaks of.
    settled: bool,
}

struct Sentence<'s> {
    chars: &'s [char],
    tokens: &'s [Token],
    t: &'s Tagged<'s>,
    clauses: &'s [Clause],
}

impl Sentence<'_> {
    fn told(&self) -> Vec<Told> {
        let units = self.units();
        let mut out: Vec<Told> = units.iter().enumerate().filter_map(|(n, u)| self.unit(&units[..n], *u)).collect();
        // The first sentence may speak of what is in work, as the narrator did.
        if let Some(first) = out.first_mut() {
            first.settled |= first.part == Part::Hazard;
        }
        out
    }

    /// Ranges of words that make one sentence each.
    fn units(&self) -> Vec<(usize, usize)> {
        if !self.t.punctuated {
            return self.units_by_words();
        }
        let mut starts: Vec<usize> = vec![self.behind_a_call(self.first(0), self.t.len())];
        for (n, clause) in self.clauses.iter().enumerate() {
            if n > 0 && clause.from > starts[0] && self.begins(n, clause, starts[starts.len() - 1]) {
                starts.push(self.opener(clause.from));
            }
        }
        starts.dedup();
        let ends = starts.iter().skip(1).copied().chain([self.t.len()]);
        let units = starts.iter().copied().zip(ends).filter(|(from, to)| from < to);
        // "If it does not come out, double check …": a condition does not stand alone.
        units.fold(Vec::new(), |mut out: Vec<(usize, usize)>, (from, to)| {
            match out.last_mut().filter(|last| self.only_a_condition(**last)) {
                Some(last) => last.1 = to,
                None => out.push((from, to)),
            }
            out
        })
    }

    fn only_a_condition(&self, (from, to): (usize, usize)) -> bool {
        let first = self.first(from);
        let opens = self.t.said.get(first).is_some_and(|w| matches!(*w, "if" | "when" | "once"));
        // "If you strip the post you'll be there all night,": with what follows from it.
        let follows = (first..to).any(|i| matches!(self.t.said[i], "will" | "'ll" | "would" | "can"));
        opens && !follows && self.t.pause[to - 1] && self.condition(first, to).is_none()
    }

    /// Of speech without marks: clauses end anywhere there, so only words that open a warning part it.
    fn units_by_words(&self) -> Vec<(usize, usize)> {
        let said = &self.t.said;
        let opens = |i: usize| match said[i] {
            "don't" | "never" | "please" | "because" | "cause" | "otherwise" => true,
            "and" | "or" | "so" | "but" => said
                .get(i + 1)
                .is_some_and(|w| matches!(*w, "don't" | "never" | "please" | "it" | "it's" | "they" | "you")),
            _ => false,
        };
        // "If it looks flat get a new one don't …": what was waited for has come.
        let waits = |from: usize, at: usize| {
            let first = self.first(from);
            let goes_on = matches!(said[at], "and" | "or");
            matches!(said[first], "if" | "when" | "before") && (goes_on || self.main_behind(first, at).is_none())
        };
        let mut starts = vec![0];
        for at in 1..said.len() {
            let open = starts[starts.len() - 1];
            // "Keep the iron away from the plug it melts if you look at it": told anew behind an order.
            let short = said[open] == "be";
            if at + usize::from(short) > open + 2
                && !waits(open, at)
                && self.tells_anew(at)
                && opens_an_order(&said[self.first(open)..at])
            {
                starts.push(at);
                continue;
            }
            let asks = matches!(said[at - 1], "you" | "we" | "please" | "and" | "or" | "so" | "but") && opens(at - 1)
                || matches!(
                    said[at - 1],
                    "you" | "you'll" | "will" | "'ll" | "can" | "would" | "should" | "must" | "i"
                );
            if opens(at) && !asks && at > open + 1 && !waits(open, at) {
                starts.push(at);
            }
        }
        let ends = starts.iter().skip(1).copied().chain([said.len()]);
        starts.iter().copied().zip(ends).collect()
    }

    /// "… it melts", "… there's a flex", "… I've killed one", behind a name or a place.
    fn tells_anew(&self, at: usize) -> bool {
        let t = self.t;
        let behind = matches!(t.tags[at - 1], Tag::Noun | Tag::Adverb | Tag::Pronoun | Tag::Adjective)
            && !matches!(t.said[at - 1], "how" | "when" | "where" | "if" | "and" | "so" | "or" | "way" | "that");
        let verb = || t.tag(at + 1).is_some_and(|tag| matches!(tag, Tag::Verb | Tag::Auxiliary | Tag::Modal));
        behind
            && match t.said[at] {
                "it" | "they" | "i" | "there" => verb(),
                "it's" | "it'll" | "they're" | "they'll" | "there's" | "i've" => true,
                _ => false,
            }
    }

    /// Where the joining words before a clause begin: "and", "because", "so that".
    fn opener(&self, from: usize) -> usize {
        (0..from)
            .rev()
            .take_while(|i| {
                !self.t.pause[*i]
                    && (matches!(self.t.tags[*i], Tag::Conjunction | Tag::Subordinator) || is_opener(self.t.words[*i]))
            })
            .last()
            .unwrap_or(from)
    }

    /// Whether a clause opens a sentence of its own behind what is told already.
    fn begins(&self, n: usize, clause: &Clause, open: usize) -> bool {
        let t = self.t;
        let at = self.opener(clause.from);
        let told = || self.clauses[..n].iter().filter(|c| c.verb.is_some_and(|v| v >= open) && !self.bound(c));
        // What has waited for its main clause: "If it is tight, pull …", "To reach the fan, …".
        let waits = told().all(|c| matches!(c.mood, Mood::Conditional | Mood::Purpose));
        // "Three different lengths, so I put them in three caps": a thing, and what to do with it.
        let follows = t.words[at] == "so" && at > open && t.pause[at - 1];
        if waits && !follows || clause.verb.is_none() || self.bound(clause) {
            return false;
        }
        let paused = at > 0 && t.pause[at - 1];
        let joins = matches!(t.tags[at], Tag::Conjunction | Tag::Subordinator);
        if t.punctuated && !paused && !joins {
            return false;
        }
        match clause.mood {
            Mood::Conditional => paused,
            Mood::Reason => true,
            _ => {
                let own = !clause.subject.is_empty() || self.speaks(clause);
                let order = opens_an_order(&t.said[self.first(at)..]);
                let joined = matches!(t.words[at], "and" | "or" | "nor") && !paused;
                if joined { own && !order } else { own || order || paused && t.words[at] != "or" }
            }
        }
    }

    /// A clause that belongs into the sentence before it: "until …", "so that …", "the one that …".
    fn bound(&self, clause: &Clause) -> bool {
        let t = self.t;
        let at = self.opener(clause.from);
        let bound = match t.words[at] {
            "so" => t.said.get(at + 1) == Some(&"that"),
            word => matches!(
                word,
                "until" | "before" | "after" | "while" | "that" | "which" | "who" | "where" | "than" | "to" | "not"
            ),
        };
        bound && at > 0
            || t.tags[at] == Tag::To
            || clause.mood == Mood::Relative
            || t.said[at].ends_with("ing") && !t.pause[at.saturating_sub(1)]
    }

    /// Somebody is named who does it.
    fn speaks(&self, clause: &Clause) -> bool {
        let verb = clause.verb.unwrap_or(clause.from);
        self.t.said[clause.from..verb].iter().any(|w| is_person(w))
    }

    /// The first word behind what only joins or fills.
    fn first(&self, from: usize) -> usize {
        let t = self.t;
        let skipped = |i: &usize| {
            matches!(t.tags[*i], Tag::Conjunction)
                || is_opener(t.said[*i])
                || matches!(t.said[*i], "because" | "since" | "cause") && t.said.get(i + 1) != Some(&"of")
                || t.said[*i] == "as" && !t.said.get(i + 1).is_some_and(|w| matches!(*w, "soon" | "long" | "far" | "a"))
        };
        (from..t.len()).find(|i| !skipped(i)).unwrap_or(from)
    }

    fn unit(&self, before: &[(usize, usize)], (from, to): (usize, usize)) -> Option<Told> {
        let t = self.t;
        let consequent = (from..to.min(from + 3)).any(|i| matches!(t.said[i], "or" | "otherwise" | "else"));
        let mut first = self.first(from);
        if first >= to {
            return None;
        }
        // "be careful, …", "make sure you do not …": the order follows.
        first = self.behind_a_call(first, to);
        let lead = self.condition(first, to);
        let main = lead.unwrap_or(first);
        let (head, rest) = order(&t.said[main..to]);
        let mut text = self.words(first..main, true);
        let body = self.words(main + rest..to, true);
        if lead.is_some() && !text.ends_with(',') {
            text.push(',');
        }
        if let Some(head) = head {
            push(&mut text, head);
        }
        push(&mut text, &body);
        let said: Vec<&str> = t.said[main + rest..to].to_vec();
        let orders = head.is_some() || opens_an_order(&t.said[main..to]);
        let called = matches!(
            t.said[first..to],
            ["be", "careful"] | ["careful"] | ["watch", "out"] | ["careful", "here" | "now"]
        );
        let back = t.said[first..to]
            .windows(4)
            .any(|w| matches!(w, ["you", "'ll" | "will", "be", "back" | "there" | "here" | "soldering"]));
        // "… if you look at it": no sentence by itself.
        let alone = matches!(t.said[first], "if" | "when") && lead.is_none() && to == t.len() && to - first <= 6;
        let talk = called
            || back
            || alone && !t.punctuated
            || head.is_none() && t.said[main..to].first().is_some_and(|w| is_speaker(w));
        let harmful =
            LEXICON.harm.any(&t.words[main..to]).is_some() || LEXICON.fragile.any(&t.words[main..to]).is_some();
        let part = match () {
            () if talk => Part::Talk,
            () if orders => Part::Avoidance,
            () if harmful || consequent => Part::Consequence,
            () => Part::Hazard,
        };
        let mut settled = true;
        if part != Part::Avoidance {
            for (n, pronoun) in said.iter().enumerate().filter(|(_, w)| matches!(**w, "it" | "they" | "them")) {
                let own = n > 0 && said[..n].iter().any(|w| w == pronoun) || lead.is_some();
                match self.meant(before, pronoun, n == 0).filter(|_| !own) {
                    Some(meant) => text = replaced(&text, pronoun, &meant),
                    None => settled &= own && lead.is_none(),
                }
            }
            settled &= !said.first().is_some_and(|w| matches!(*w, "that" | "those" | "this"));
            settled &= !t.said[main..to].contains(&"would");
            // "Don't do one right up, or you'll twist the frame.": what the reader brings about is told behind it.
            let reader = text.starts_with("you ");
            if consequent && settled && !reader && text.contains(" will ") && !text.contains(" will not ") {
                text = text.replacen(" will ", " can ", 1);
            } else if consequent && !text.contains(" can ") {
                text = format!("otherwise {text}");
                settled = false;
            }
        }
        let text = trimmed(&text);
        Some(Told { part, text, settled })
    }

    /// What "it" and "they" stand for: of what was told before the subject where they are one, else what was named last.
    fn meant(&self, before: &[(usize, usize)], pronoun: &str, subject: bool) -> Option<String> {
        let (from, to) = *before.last()?;
        // "Don't get it on the window, it'll turn white": what "it" was before.
        if self.t.said[from..to].iter().any(|w| *w == pronoun || *w == "it") {
            return None;
        }
        let many = matches!(pronoun, "they" | "them");
        let fits = |np: &&NounPhrase| {
            np.plural == many && matches!(np.thing, Thing::Part | Thing::Connection | Thing::Screw | Thing::Material)
        };
        let within = || self.clauses.iter().filter(|c| c.from >= from && c.to <= to);
        let of_subject = within().flat_map(|c| &c.subject).rfind(fits).filter(|_| subject);
        let things = |c: &Clause| -> Vec<NounPhrase> { c.things().cloned().collect() };
        let named = within().flat_map(things).filter(|np| fits(&np)).max_by_key(|np| np.from);
        let found = of_subject.cloned().or(named)?;
        let article = |i: &usize| matches!(self.t.tags[*i], Tag::Determiner);
        let first = (found.from..found.to).find(|i| !article(i))?;
        Some(format!("the {}", self.words(first..found.to, true)))
    }

    /// Where the main clause begins behind "if …" and "when …", where these open the sentence.
    fn condition(&self, from: usize, to: usize) -> Option<usize> {
        if !matches!(self.t.said[from], "if" | "when" | "once" | "where" | "after") {
            return None;
        }
        if !self.t.punctuated {
            return self.main_behind(from, to);
        }
        let main = |c: &&Clause| c.mood != Mood::Conditional && !self.bound(c);
        let next = self.clauses.iter().filter(|c| c.from > from && c.from < to).filter(main);
        let told = next.map(|c| self.first(c.from)).find(|i| *i < to);
        // "…, double check": what no clause begins with.
        let order = (from + 1..to).find(|i| self.t.pause[i - 1] && opens_an_order(&self.t.said[*i..]));
        told.or(order)
    }

    /// Of speech without marks: "if it looks flat | get a new one", "if you want to keep it | don't turn it".
    fn main_behind(&self, from: usize, to: usize) -> Option<usize> {
        let t = self.t;
        let done =
            |i: usize| matches!(t.tags[i], Tag::Noun | Tag::Adjective | Tag::Particle | Tag::Adverb | Tag::Pronoun);
        let orders = |i: &usize| {
            let bare = t.tags[*i] == Tag::Verb && done(i - 1) && opens_an_order(&t.said[*i..to]);
            matches!(t.said[*i], "don't" | "never") || *i > from + 3 && bare
        };
        (from + 1..to).find(orders)
    }

    /// "be careful that you do not …", "make sure to …", "remember, …".
    fn behind_a_call(&self, first: usize, to: usize) -> usize {
        const CALLS: [&[&str]; 15] = [
            &["be", "careful", "so"],
            &["be", "careful", "that"],
            &["be", "careful", "not", "to"],
            &["we", "want", "to", "be", "careful", "so"],
            &["you", "want", "to", "be", "careful", "so"],
            &["make", "sure", "that"],
            &["make", "sure", "to"],
            &["make", "sure"],
            &["note", "that"],
            &["remember", "to"],
            &["remember", "that"],
            &["one", "thing", "to", "know"],
            &["watch", "out"],
            &["be", "careful"],
            &["careful"],
        ];
        let said = &self.t.said[first..to];
        let found = CALLS.iter().find(|c| said.starts_with(c) && said.len() > c.len() + 2);
        let Some(call) = found else { return first };
        let behind = self.first(first + call.len());
        let orders = order(&self.t.said[behind..to]).0.is_some() || opens_an_order(&self.t.said[behind..to]);
        // "be careful not to bend it": the "not" is the order.
        if call.ends_with(&["not", "to"]) {
            return first + 2;
        }
        if orders || call.last() == Some(&"know") { behind } else { first }
    }

    /// Words as they are written: contractions in full, "this old plastic" as "the old plastic", without fillers.
    fn words(&self, range: Range<usize>, opens: bool) -> String {
        let mut out = String::new();
        let Range { start, end } = range;
        for at in start..end {
            let token = &self.tokens[at];
            let raw: String = self.chars[token.start..token.end].iter().collect();
            let lower = token.said.as_str();
            let counts = matches!(self.t.tags[at], Tag::Number | Tag::Measure);
            let again = at > start && self.tokens[at - 1].said == token.said && !counts;
            // "It's like two millimetres"; "like glass" says how.
            let about = lower == "like" && at + 1 < end && matches!(self.t.tags[at + 1], Tag::Number | Tag::Measure);
            if is_filler(lower) || again || about {
                if token.pause && !out.is_empty() && !out.ends_with(',') {
                    out.push(',');
                }
                continue;
            }
            let points = self.points(at) && at + 1 < end;
            let word = match full(lower) {
                Some(full) => full.to_owned(),
                None if points => "the".to_owned(),
                None if opens && out.is_empty() && keeps_no_capital(&raw, self.t.tags[at]) => lower.to_owned(),
                None => raw,
            };
            let hyphen = at > start && self.chars[self.tokens[at - 1].end..token.start] == ['-'];
            let owns = word == "'s" && self.t.tags[at] != Tag::Auxiliary;
            match () {
                () if hyphen => out.push_str(&format!("-{word}")),
                () if owns => out.push_str("'s"),
                () if word == "'s" => push(&mut out, if self.many_are(at) { "are" } else { "is" }),
                () => push(&mut out, &word),
            }
            if token.pause && at + 1 < end {
                out.push(',');
            }
        }
        out
    }

    /// "there's two wires".
    fn many_are(&self, at: usize) -> bool {
        let many = self.t.tag(at + 1) == Some(Tag::Number) && self.t.said.get(at + 1) != Some(&"one");
        at > 0 && self.t.said[at - 1] == "there" && many
    }

    /// "this old plastic", and not "that is", "on this side": the reader of a guide sees no finger.
    fn points(&self, at: usize) -> bool {
        let t = self.t;
        let next = t.said.get(at + 1).copied().unwrap_or_default();
        let names = |from: usize| {
            let noun = (from..t.len()).find(|i| t.tags[*i] != Tag::Adjective);
            noun.is_some_and(|i| t.tags[i] == Tag::Noun && !t.said[i].ends_with("ed"))
        };
        matches!(t.said[at], "this" | "that" | "these" | "those")
            && t.tags[at] == Tag::Determiner
            // "keep those separate": how, and no name.
            && names(at + 1)
            && !matches!(
                next,
                "one"
                    | "ones"
                    | "side"
                    | "way"
                    | "place"
                    | "corner"
                    | "time"
                    | "end"
                    // "Don't get that wrong."
                    | "wrong"
                    | "right"
                    | "guide"
                    | "can"
                    | "will"
                    | "may"
                    | "is"
            )
    }
}

/// The first `pronoun` of a text in full.
fn replaced(text: &str, pronoun: &str, meant: &str) -> String {
    let is = |w: &str| w.trim_end_matches(',').eq_ignore_ascii_case(pronoun);
    let mut done = false;
    let words = text.split(' ').map(|w| match is(w) && !done {
        true => {
            done = true;
            format!("{meant}{}", if w.ends_with(',') { "," } else { "" })
        }
        false => w.to_owned(),
    });
    words.collect::<Vec<_>>().join(" ")
}

/// An order in what was said: how it begins as a guide says it, and how many words that takes the place of.
///
/// "you don't want to lever" is "do not", five words long.
fn order(said: &[&str]) -> (Option<&'static str>, usize) {
    if said.is_empty() {
        return (None, 0);
    }
    let mut at = 0;
    let person = said.first().is_some_and(|w| matches!(*w, "you" | "we"));
    if person {
        at += 1;
    }
    let mut softened = at;
    while said
        .get(softened)
        .is_some_and(|w| matches!(*w, "also" | "just" | "really" | "definitely" | "always" | "therefore"))
    {
        softened += 1;
    }
    if said[0] == "we" && said.get(1).is_some_and(|w| w.ends_with("ly")) && said.get(2).is_some_and(|w| orders_alone(w))
    {
        return (Some(""), 1);
    }
    let rest = &said[softened..];
    let wanted = |n: usize| if matches!(rest.get(n..), Some(["want" | "try", "to", ..])) { n + 2 } else { n };
    // "you don't have to", "you may not feel it" and "I don't want it" forbid nothing.
    let tells = |n: usize| rest.get(wanted(n)).is_some_and(|verb| is_no_order(verb));
    match rest {
        ["do", "not", ..] if !tells(2) => (Some("do not"), softened + wanted(2)),
        ["don't", ..] if !tells(1) => (Some("do not"), softened + wanted(1)),
        ["do", "not", ..] | ["don't", ..] => (None, 0),
        ["i", "don't", _, ..] if !is_no_order(rest[2]) => (Some("do not"), 2),
        ["i", "do", "not", _, ..] if !is_no_order(rest[3]) => (Some("do not"), 3),
        ["i'd", verb, _, ..] | ["i", "'d" | "would", verb, _, ..] if orders_alone(verb) && !is_opinion(verb) => {
            (Some(""), if rest[0] == "i" { 2 } else { 1 })
        }
        ["i", "always", verb, _, ..] if orders_alone(verb) => (Some("always"), 2),
        ["i", "wouldn't", _, ..] if !is_no_order(rest[2]) => (Some("do not"), 2),
        ["i", "never", _, ..] if !is_no_order(rest[2]) => (Some("never"), 2),
        ["must" | "should" | "may", "not", verb, ..] if person && is_no_order(verb) => (None, 0),
        ["must" | "should", verb, ..] if person && is_no_order(verb) => (None, 0),
        ["must" | "should" | "may", "not", ..] if person => (Some("do not"), softened + 2),
        ["mustn't" | "shouldn't", ..] if person => (Some("do not"), softened + 1),
        ["must" | "should" | "may" | "can", "never", ..] if person => (Some("never"), softened + 2),
        ["not", "to", _, ..] if !person => (Some("do not"), 2),
        ["must" | "should", "only", ..] if person => (Some("only"), softened + 2),
        ["must" | "should", _, ..] if person => (Some(""), softened + 1),
        ["have" | "need" | "want" | "ought", "to", _, ..] if person => (Some(""), softened + 2),
        ["i", verb, _, ..]
            if orders_alone(verb)
                // "I put mine in upside down the first time": once, and no order.
                && !said.contains(&"mine")
                && !is_opinion(verb) =>
        {
            (Some(""), 1)
        }
        [verb, ..] if person && said[0] == "we" && orders_alone(verb) => (Some(""), softened),
        _ => (None, 0),
    }
}

/// Verbs of what somebody feels, has or needs: nobody is told to.
fn is_no_order(verb: &str) -> bool {
    matches!(
        verb,
        "need" | "have" | "see" | "feel" | "notice" | "hear" | "know" | "like" | "enjoy" | "want" | "think" | "mean"
    )
}

/// "I'd say it holds": what somebody thinks, and nobody does.
fn is_opinion(verb: &str) -> bool {
    matches!(
        verb,
        "prefer"
            | "think"
            | "like"
            | "know"
            | "want"
            | "mean"
            | "say"
            | "guess"
            | "love"
            | "hate"
            | "recommend"
            | "suggest"
    )
}

/// "we lay the screws out": what we do is what to do.
fn orders_alone(verb: &str) -> bool {
    LEXICON.verb_forms.get(verb).is_some_and(|base| base == verb)
        && !matches!(verb, "have" | "see" | "be" | "need" | "can" | "get")
}

/// Adds a word behind a blank.
fn push(text: &mut String, word: &str) {
    if word.is_empty() {
        return;
    }
    if !text.is_empty() {
        text.push(' ');
    }
    text.push_str(word);
}

/// Without a comma or a joining word that nothing follows.
fn trimmed(text: &str) -> String {
    let mut text = text.trim().trim_end_matches(',');
    while let Some((rest, "because" | "and" | "or" | "so" | "but" | "then")) = text.rsplit_once(' ') {
        text = rest.trim_end_matches(',');
    }
    text.to_owned()
}

fn is_opener(word: &str) -> bool {
    matches!(
        word,
        "so" | "and"
            | "but"
            | "now"
            | "then"
            | "okay"
            | "well"
            | "therefore"
            | "otherwise"
            | "else"
            | "please"
            | "also"
            | "or"
            | "attention"
            | "caution"
            | "warning"
            | "important"
            | "remember"
            | "though"
            | "oh"
    )
}

fn is_filler(word: &str) -> bool {
    matches!(word, "please" | "uh" | "um" | "okay" | "guys" | "folks" | "er" | "erm" | "though")
}

fn is_person(word: &str) -> bool {
    matches!(word, "i" | "we" | "you" | "he" | "she" | "somebody" | "nobody") || is_speaker(word)
}

fn is_speaker(word: &str) -> bool {
    matches!(word, "i" | "i'm" | "i'd" | "i'll" | "i've" | "we're" | "we'll" | "we've" | "you're" | "you'll" | "you've")
}

/// A word that had its capital only from standing first.
fn keeps_no_capital(raw: &str, tag: Tag) -> bool {
    let rest = raw.chars().skip(1);
    let small = rest.clone().all(char::is_lowercase);
    small && !matches!(tag, Tag::Noun) && raw != "I"
}

/// Contractions as they are written.
fn full(word: &str) -> Option<&'static str> {
    Some(match word {
        "don't" => "do not",
        "doesn't" => "does not",
        "isn't" => "is not",
        "aren't" => "are not",
        "won't" => "will not",
        "can't" => "cannot",
        "mustn't" => "must not",
        "shouldn't" => "should not",
        "didn't" => "did not",
        "it's" => "it is",
        "it'll" => "it will",
        "it'd" => "it would",
        "they're" => "they are",
        "they'll" => "they will",
        "there's" => "there is",
        "that's" => "that is",
        "that'll" => "that will",
        "you're" => "you are",
        "you'll" => "you will",
        "we're" => "we are",
        "we'll" => "we will",
        "what's" => "what is",
        "'re" => "are",
        "'ll" => "will",
        "'ve" => "have",
        "'m" => "am",
        "'d" => "would",
        "gonna" => "going to",
        "wanna" => "want to",
        _ => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::reason_first(
        "Then lay it on a towel, and don't lean on the spout, because the valve behind it is brittle.",
        "Lay it on a towel. Do not lean on the spout. The valve behind it is brittle."
    )]
    #[case::what_may_happen_is_no_threat(
        "Keep the lid below 30 degrees, or the float wire will be torn.",
        "The float wire can be torn. Keep the lid below 30 degrees."
    )]
    #[case::what_the_reader_brings_about(
        "Go round a little at a time, don't do one right up tight or you'll twist the frame.",
        "Go round a little at a time. Do not do one right up tight. Otherwise you will twist the frame."
    )]
    #[case::it_is_what_was_named(
        "The gasket is soft and sometimes it tears.",
        "The gasket is soft. Sometimes the gasket tears."
    )]
    #[case::it_was_it_before(
        "Don't get it on the scale window, it'll turn the plastic white.",
        "Do not get it on the scale window. It will turn the plastic white."
    )]
    #[case::wishes_are_orders("You don't want to pry on that thin rim.", "Do not pry on the thin rim.")]
    #[case::duty(
        "You have to keep the old magnet, because the float doesn't read without it.",
        "The float does not read without the old magnet. Keep the old magnet."
    )]
    #[case::told_of_ourselves("We do not touch the nozzle itself.", "Do not touch the nozzle itself.")]
    #[case::a_way_of_doing_it(
        "I use the flat end of the lever and rock it, and please don't pull on the leads.",
        "Use the flat end of the lever and rock it. Do not pull on the leads."
    )]
    #[case::an_act_stands_in_its_step(
        "Draw the arm out with tweezers and do not touch the springs.",
        "Do not touch the springs."
    )]
    #[case::what_is_meant_stands_before(
        "Draw the arm out and don't twist it.",
        "Draw the arm out and do not twist it."
    )]
    #[case::advice_throughout(
        "Draw the arm out slowly and never touch the springs.",
        "Draw the arm out slowly and never touch the springs."
    )]
    #[case::a_condition_leads(
        "If the rim is cold, warm it first, you don't want to snap the catches.",
        "If the rim is cold, warm it first. Do not snap the catches."
    )]
    #[case::talk_is_left_out("I'm not being fussy, a frayed lead kills people.", "A frayed lead kills people.")]
    #[case::a_call_opens_it("Make sure you don't bend the probe.", "Do not bend the probe.")]
    #[case::a_joke_is_left_out("If you strip the post you'll be there all night, so stop early.", "Stop early.")]
    #[case::an_end_stays(
        "Guide the lead behind the rib so that it is not crushed.",
        "Guide the lead behind the rib so that it is not crushed."
    )]
    #[case::never(
        "So never poke anything in those vents, not even to clean them.",
        "Never poke anything in the vents, not even to clean them."
    )]
    #[case::hyphens_stay("It has a push-down plug, do not twist it.", "It has a push-down plug. Do not twist it.")]
    #[case::a_side_is_shown("Do not touch anything on this side.", "Do not touch anything on this side.")]
    #[case::many("There's two thin leads in there.", "There are two thin leads in there.")]
    #[case::pairs_stay(
        "The first model and the second model do not take the same pump.",
        "The first model and the second model do not take the same pump."
    )]
    #[case::need_not(
        "You don't have to unplug the pump, but the lead tears.",
        "You do not have to unplug the pump. The lead tears."
    )]
    #[case::not_yank(
        "You want to press the tab on it and pull, not yank the wires.",
        "Press the tab on it and pull. Do not yank the wires."
    )]
    #[case::making_sure(
        "Put the strip back where it was, making sure you don't touch the edge.",
        "Put the strip back where it was. Do not touch the edge."
    )]
    #[case::cannot_feel("You may not feel it, the rim is sharp.", "You may not feel it. The rim is sharp.")]
    #[case::the_speaker_never(
        "I never touch the coil with the power on, because it can give a shock.",
        "The coil can give a shock. Never touch the coil with the power on."
    )]
    #[case::as_soon_as(
        "As soon as it clicks, stop, or you strip the post.",
        "As soon as it clicks, stop, or you strip the post."
    )]
    #[case::nothing_to_part("Brittle.", "Brittle.")]
    #[case::a_condition_keeps_its_order(
        "If it does not want to come out, double check that you have not missed a screw.",
        "If it does not want to come out, double check that you have not missed a screw."
    )]
    #[case::own_risk("A word first, this is your own machine and your own risk.", "You do this work at your own risk.")]
    #[case::a_danger_at_your_own_risk(
        "Lift the glass at your own risk, it splinters.",
        "Lift the glass at your own risk, it splinters."
    )]
    #[case::a_material("Do not use super glue.", "Do not use super glue.")]
    #[case::what_it_is_like("The plastic is like glass.", "The plastic is like glass.")]
    #[case::like_a_figure("It is like two millimetres of plastic.", "It is two millimetres of plastic.")]
    #[case::not_merely("Don't just rip it off.", "Do not just rip it off.")]
    #[case::i_would("I'd stay away from the corner.", "Stay away from the corner.")]
    #[case::in_any_letters(
        "Whatever you do, don't lean on the spout – ever – at 30 °C, by the way.",
        "Do not lean on the spout ever at 30 °C."
    )]
    #[case::no_liability("I am not responsible if you break anything.", "You do this work at your own risk.")]
    #[case::fillers("Whatever you do, don't lean on the spout, by the way.", "Do not lean on the spout.")]
    #[case::try_not("Try not to touch the contacts.", "Do not touch the contacts.")]
    #[case::really("You really don't want to get oil on the belt.", "Do not get oil on the belt.")]
    #[case::i_would_not("I wouldn't use a blade here.", "Do not use a blade here.")]
    #[case::what_can_go_wrong("The only thing that can go wrong is you pinch the seal.", "You can pinch the seal.")]
    #[case::a_bent_apostrophe("Whatever you do, don’t lean on the spout.", "Do not lean on the spout.")]
    #[case::how_is_no_name("So keep those separate from the case ones.", "Keep those separate from the case ones.")]
    fn a_warning_becomes_short_sentences(#[case] said: &str, #[case] wanted: &str) {
        assert_eq!(caution(said), wanted);
    }

    #[rstest]
    #[case::an_order_opens("so don't bend the pump please go slow", "Do not bend the pump. Go slow.")]
    #[case::two_bans_wait(
        "if you want to keep the glass don't turn it and don't lift",
        "If you want to keep the glass, do not turn it and do not lift."
    )]
    #[case::a_condition_waits(
        "so if you want to keep the dial don't turn it",
        "If you want to keep the dial, do not turn it."
    )]
    #[case::cut_off("don't lift the dial because", "Do not lift the dial.")]
    #[case::told_anew(
        "don't pry here there's a flex right under this edge",
        "There is a flex right under the edge. Do not pry here."
    )]
    #[case::it_behind_a_name(
        "keep the iron away from that white plug it melts if you look at it",
        "The white plug melts. Keep the iron away from the white plug."
    )]
    #[case::once_is_no_order(
        "I put mine in upside down the first time so check the arrow points to the top",
        "Check the arrow points to the top."
    )]
    #[case::kept_out(
        "please no metal tools near the cells they can short",
        "No metal tools near the cells. They can short."
    )]
    #[case::gently("be gentle it's glass", "Be gentle. It is glass.")]
    #[case::never_will("you'll never get the print off again", "You will never get the print off again.")]
    #[case::no_order("the dial is very thin here", "The dial is very thin here.")]
    fn speech_without_marks_is_parted_by_its_orders(#[case] said: &str, #[case] wanted: &str) {
        assert_eq!(caution(said), wanted);
    }

    #[rstest]
    #[case("Do not pull on it.", true)]
    #[case("The rim is thin. Lift it slowly.", true)]
    #[case("If it is cracked, put film over it.", true)]
    #[case("Snug is enough.", true)]
    #[case("The pump lead lies below the slot.", false)]
    #[case("Seals leak.", false)]
    #[case("The shoulder screw is short.", false)]
    #[case("The rim is thin enough to crack.", false)]
    #[case("Heat can warp it.", false)]
    fn tells_whether_it_says_what_to_do(#[case] text: &str, #[case] wanted: bool) {
        assert_eq!(tells_what_to_do(text), wanted);
    }

    /// Whatever is said, what is printed has ends, no two blanks, and says nothing that was not said.
    #[rstest]
    #[case("don't")]
    #[case("because because because")]
    #[case("or else")]
    #[case("please, please, please")]
    #[case("If")]
    #[case("1 2 3, and don't 4")]
    #[case("don't — don't — don't … don't")]
    #[case("“Don’t!” she said; and so it goes: never, never, never.")]
    fn odd_speech_is_printed_too(#[case] said: &str) {
        let printed = caution(said);
        assert!(!printed.is_empty() && !printed.contains("  "), "{printed:?}");
        assert!(printed.chars().next().is_some_and(|c| !c.is_lowercase()), "{printed:?}");
    }
}
