//! What has to come off first, as a sentence says it beside the work: "the power board will not come out until you remove
//! the main board", "before you can reach the plugs, loosen the bracket", "no need to open the base for that".

use super::super::tags::Form;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::{Phrase, phrase_at};
use super::told::{Reader, has};
use super::words::Word;

/// A thing, and what comes off before it.
pub(super) type Chain = (Phrase, Vec<Phrase>);

const REACHING: [&str; 8] = ["reach", "get", "access", "remove", "come", "take", "lift", "free"];

/// What somebody is after who has to take off something else first.
const JOBS: [&str; 8] = ["replace", "change", "swap", "exchange", "reach", "access", "fix", "upgrade"];

/// Said of what cannot be reached yet; what stands in the way follows "before", "without" or "until".
const BARS: [&str; 24] = [
    "no access to",
    "no getting to",
    "no getting at",
    "can't reach",
    "cannot reach",
    "can't get",
    "cannot get",
    "won't get",
    "won't reach",
    "don't get to",
    "can't take",
    "can't remove",
    "don't get at",
    "can't replace",
    "cannot replace",
    "can't change",
    "cannot change",
    "can't swap",
    "cannot swap",
    "can't come out",
    "cannot come out",
    "won't come out",
    "won't come off",
    "doesn't come out",
];

/// Words between what cannot be reached and "before".
const NEAR: usize = 9;

/// Words of what stands in the way.
const LONGEST_LIST: usize = 16;

impl Reader<'_> {
    pub(super) fn chain(&self) -> Option<Chain> {
        self.not_until()
            .or_else(|| self.barred())
            .or_else(|| self.barred_from_the_start())
            .or_else(|| self.way_to())
            .or_else(|| self.stays_closed())
            .or_else(|| self.hidden())
            .or_else(|| self.before_reaching())
            .or_else(|| self.only_once())
            .or_else(|| self.only_then())
            .or_else(|| self.in_the_way())
            .or_else(|| self.needs_off())
            .or_else(|| self.access_through())
            .or_else(|| self.asks_for())
            .or_else(|| self.aimed_at())
            .or_else(|| self.nothing_first())
    }

    /// "The lens can only be removed once the cover is off.", "The aerial is accessible after removing the cover."
    fn only_once(&self) -> Option<Chain> {
        let said = [
            "can only be",
            "only comes out",
            "only come out",
            "only reach",
            "only get to",
            "is accessible",
            "are accessible",
            "is only accessible",
        ];
        if !said.iter().any(|p| has(self.text, p)) {
            return None;
        }
        let at = self.words.iter().position(|w| matches!(w.lemma.as_str(), "once" | "after" | "when" | "soon"))?;
        let main = self.clauses.iter().find(|c| c.mood == Mood::Plain && !c.negated && !c.subjects.is_empty())?;
        let after = self.things(at + 1, self.words.len());
        let named = main.subjects.iter().find(|p| comes_off(p)).or_else(|| main.objects.iter().find(|p| comes_off(p)));
        (!after.is_empty()).then_some((named.cloned()?, after))
    }

    /// "Only once the ring has been unscrewed can the glass be taken out."
    fn only_then(&self) -> Option<Chain> {
        ["only once", "only when", "only after"].iter().find(|p| self.says_at(0, p))?;
        let then = |w: &Word| matches!(w.said.as_str(), "can" | "will" | "could" | "does" | "do");
        let at = 2 + self.words.get(2..)?.iter().position(then)?;
        let after = self.things(2, at);
        let target = self.things(at + 1, self.words.len()).into_iter().next()?;
        (!after.is_empty()).then_some((target, after))
    }

    /// "I'd do the port from here, but the speaker is in the way."
    fn in_the_way(&self) -> Option<Chain> {
        let lies = |c: &&Clause| {
            c.base == "be" && !c.negated && c.places.iter().any(|(p, np)| p == "in" && np.head() == "way")
        };
        let at = self.clauses.iter().position(|c| lies(&c))?;
        let blocks = self.clauses[at].subjects.iter().find(|p| comes_off(p) && p.definite)?;
        let wanted = |c: &&Clause| {
            JOBS.contains(&c.base.as_str()) || matches!(c.base.as_str(), "do" | "get" | "remove" | "take")
        };
        let job = self.clauses[..at].iter().rev().find(wanted)?;
        let target = job.objects.iter().find(|p| comes_off(p) && p.words != blocks.words)?;
        Some((target.clone(), vec![blocks.clone()]))
    }

    /// "The heater needs the whole tower apart."
    fn needs_off(&self) -> Option<Chain> {
        let off = |p: &compact_str::CompactString| matches!(p.as_str(), "apart" | "off" | "out");
        let needs =
            |c: &&Clause| c.base == "need" && !c.negated && c.mood == Mood::Plain && c.particles.iter().any(off);
        let c = self.clauses.iter().find(needs)?;
        let thing = c.subjects.iter().find(|p| comes_off(p) && p.definite)?;
        let after: Vec<Phrase> = c.objects.iter().filter(|p| comes_off(p)).cloned().collect();
        (!after.is_empty()).then_some((thing.clone(), after))
    }

    /// "Access to the coin cell is through the door at the back."
    fn access_through(&self) -> Option<Chain> {
        let at = (0..self.words.len()).find(|i| self.says_at(*i, "access to"))?;
        let through = |w: &Word| matches!(w.said.as_str(), "through" | "via" | "by");
        let by = at + 2 + self.words.get(at + 2..)?.iter().take(NEAR).position(through)?;
        let target = self.things(at + 2, by).into_iter().next()?;
        let after = self.things(by + 1, self.words.len().min(by + 1 + NEAR)).into_iter().next()?;
        Some((target, vec![after]))
    }

    /// "Replacing the port means removing the battery and the board.", "Changing the fan requires removal of the lid."
    fn asks_for(&self) -> Option<Chain> {
        let job =
            self.words.first().filter(|w| w.form == Form::Ing && (JOBS.contains(&w.verb()) || w.verb() == "get"))?;
        let asks = |w: &Word| matches!(w.said.as_str(), "means" | "mean" | "requires" | "involves" | "takes");
        let at = self.words.iter().position(asks).filter(|_| !job.pause)?;
        let off = self.words[at..].iter().any(|w| {
            matches!(w.verb(), "remove" | "take" | "undo" | "open")
                || matches!(w.said.as_str(), "removal" | "disassembly" | "past")
        });
        let after = self.things(at + 1, self.words.len());
        (off && !after.is_empty()).then_some((self.things(1, at).into_iter().next()?, after))
    }

    /// The parts and plugs named in a stretch, those behind "of" included.
    fn things(&self, from: usize, to: usize) -> Vec<Phrase> {
        let (mut out, mut at) = (Vec::new(), from);
        while at < to {
            let Some((p, after)) = phrase_at(self.words, at, to) else {
                at += 1;
                continue;
            };
            out.extend(if comes_off(&p) { vec![p] } else { p.of.into_iter().filter(comes_off).collect() });
            at = after.max(at + 1);
        }
        out
    }

    /// "In order to replace the hinge the display has to be removed first."
    fn aimed_at(&self) -> Option<Chain> {
        let aim = self.clauses.first().filter(|c| c.mood == Mood::Purpose && JOBS.contains(&c.base.as_str()))?;
        let main = self.clauses[1..].iter().find(|c| c.mood == Mood::Plain && c.passive && !c.negated)?;
        let thing = aim.objects.iter().find(|p| comes_off(p)).cloned()?;
        let after: Vec<Phrase> = removed(main).into_iter().filter(|p| p.words != thing.words).collect();
        (!after.is_empty()).then_some((thing, after))
    }

    /// "You can't get to the wire until you remove the cage."
    fn not_until(&self) -> Option<Chain> {
        let at = self.clauses.iter().position(|c| c.mood == Mood::Until && !c.negated)?;
        let main = self.clauses[..at].iter().rev().find(|c| c.negated && REACHING.contains(&c.base.as_str()))?;
        let after = removed(&self.clauses[at]);
        (!after.is_empty()).then_some((self.served(at, &reached(main)?), after))
    }

    /// "There's no access to the relay before the base plate is off.", "You can't reach the coil without taking the board out."
    fn barred(&self) -> Option<Chain> {
        let end = self.words.len();
        let at = (0..end).find_map(|i| BARS.iter().find(|p| self.says_at(i, p)).map(|p| i + p.split(' ').count()))?;
        let splits = |w: &Word| matches!(w.said.as_str(), "before" | "without" | "until" | "unless" | "till" | "while");
        let split = at + self.words[at..].iter().take(NEAR).position(splits)?;
        // "The motor can't come out while the shaft is in."
        let before = || self.things(at.saturating_sub(NEAR), at).pop();
        let target = self.things(at, split).into_iter().next().or_else(before)?;
        let after: Vec<Phrase> = self.things(split + 1, end.min(split + LONGEST_LIST)).into_iter().collect();
        (!after.is_empty()).then_some((target, after))
    }

    /// "Without taking off the guard the blade won't come out.", "As long as the fan is in you don't get to the screws."
    fn barred_from_the_start(&self) -> Option<Chain> {
        let from = ["without", "as long as", "unless"].iter().find(|p| self.says_at(0, p))?.split(' ').count();
        let bar = (from..self.words.len()).find_map(|i| BARS.iter().find(|p| self.says_at(i, p)).map(|p| (i, p)))?;
        let (at, behind) = (bar.0, bar.0 + bar.1.split(' ').count());
        let mut named = self.things(from, at);
        let reached = self.things(behind, self.words.len().min(behind + NEAR)).into_iter().next();
        let target = reached.or_else(|| named.pop())?;
        named.retain(|p| p.words != target.words);
        (!named.is_empty()).then_some((target, named))
    }

    /// "The way to the heater is cover, fan, plate and then the shield."
    fn way_to(&self) -> Option<Chain> {
        let at = (0..self.words.len()).find(|i| self.says_at(*i, "way to") || self.says_at(*i, "way in to"))?;
        let is =
            at + self.words[at..].iter().take(NEAR).position(|w| matches!(w.said.as_str(), "is" | "'s" | "means"))?;
        let target = self.things(at + 2, is).into_iter().next()?;
        let after = self.things(is + 1, self.words.len().min(is + LONGEST_LIST));
        (!after.is_empty()).then_some((target, after))
    }

    /// "You can swap the knob from outside.", "The wheels can be changed with the lid on."
    fn stays_closed(&self) -> Option<Chain> {
        let outside = [
            "from outside",
            "from the outside",
            "without opening",
            "without touching",
            "without taking",
            "lid on",
            "cover on",
            "on its own",
            "nothing else has to",
            "nothing else needs to",
        ];
        let c = self.clauses.iter().find(|c| c.possible && !c.negated && JOBS.contains(&c.base.as_str()))?;
        let free = outside.iter().any(|p| has(self.text, p));
        let thing = c.objects.iter().chain(&c.subjects).find(|p| comes_off(p));
        thing.filter(|_| free).map(|p| (p.clone(), Vec::new()))
    }

    /// "The pack sits under the board, so the board has to come out first."
    fn hidden(&self) -> Option<Chain> {
        let lies = |c: &&Clause| matches!(c.base.as_str(), "be" | "sit" | "lie" | "live" | "hide") && !c.negated;
        let c = self.clauses.iter().find(lies)?;
        let under = |p: &str| matches!(p, "under" | "underneath" | "below" | "beneath" | "behind");
        let (_, cover) = c.places.iter().find(|(p, np)| under(p) && comes_off(np) && np.definite)?;
        let hidden = c.subjects.iter().find(|p| comes_off(p) && p.definite)?;
        let again = self
            .clauses
            .iter()
            .find(|k| k.from >= c.to && k.subjects.iter().any(|s| cover.words.ends_with(&s.words)))?;
        let due = self.words[again.from..again.to]
            .iter()
            .any(|w| matches!(w.said.as_str(), "must" | "has" | "needs" | "gotta" | "first"));
        due.then(|| (hidden.clone(), vec![cover.clone()]))
    }

    /// "Before you can reach the two plugs, you need to loosen the bracket."
    fn before_reaching(&self) -> Option<Chain> {
        let at = self.clauses.iter().position(|c| {
            // "Before the drum can come out, …"
            let will =
                c.verb.is_some_and(|v| self.words[c.from..v].iter().any(|w| matches!(w.said.as_str(), "will" | "'ll")));
            let leaves = (c.possible || will) && matches!(c.base.as_str(), "come" | "go");
            c.mood == Mood::Before && (matches!(c.base.as_str(), "reach" | "get" | "access") || leaves) && !c.negated
        })?;
        let main = self.clauses[at + 1..].iter().find(|c| c.mood == Mood::Plain && !c.negated)?;
        let after = removed(main);
        // "…, the hose and the bracket both have to be off."
        let due = ["to be off", "to be out", "must be off", "must be out", "to come off", "to come out"];
        let off = due.iter().any(|p| has(self.text, p));
        let after = if after.is_empty() && off { self.things(self.clauses[at].to, self.words.len()) } else { after };
        (!after.is_empty()).then_some((self.served(at, &reached(&self.clauses[at])?), after))
    }

    /// "Those can be swapped, and there's no need to open the console for that."
    fn nothing_first(&self) -> Option<Chain> {
        let nothing = [
            "no need to open",
            "nothing has to be opened",
            "nothing needs to be opened",
            "nothing has to come off",
            "don't have to open",
            "without opening anything",
            "nothing needs to come apart",
            "nothing needs to come off",
            "nothing has to come apart",
        ];
        if !nothing.iter().any(|p| has(self.text, p)) {
            return None;
        }
        let part = |p: &&Phrase| p.kind == Kind::Part && p.definite && !p.is_pronoun();
        let fors =
            || self.clauses.iter().flat_map(|c| &c.places).filter(|(p, _)| p == "for").map(|(_, p)| p).find(part);
        let found = self.clauses.iter().flat_map(|c| &c.subjects).find(part).or_else(fors);
        found.map(|p| (p.clone(), Vec::new()))
    }
}

/// What is reached: the thing that comes out, or what somebody gets to.
fn reached(c: &Clause) -> Option<Phrase> {
    let named = |p: &&Phrase| matches!(p.kind, Kind::Part | Kind::Plug) && !p.is_pronoun();
    let to = c.places.iter().filter(|(p, _)| p == "to").map(|(_, p)| p);
    c.objects.iter().chain(to).chain(c.subjects.iter().rev()).find(named).cloned()
}

fn removed(c: &Clause) -> Vec<Phrase> {
    let off = ["remove", "take", "loosen", "undo", "open", "disconnect", "unplug", "lift", "pull", "be", "come", "go"];
    if !off.contains(&c.base.as_str()) {
        return Vec::new();
    }
    let things = if c.passive || matches!(c.base.as_str(), "be" | "come" | "go") { &c.subjects } else { &c.objects };
    things.iter().filter(|p| comes_off(p)).cloned().collect()
}

pub(super) fn comes_off(p: &Phrase) -> bool {
    matches!(p.kind, Kind::Part | Kind::Plug | Kind::Film) && !p.is_pronoun()
}

#[cfg(test)]
mod tests {
    use crate::reading::read;
    use crate::recording::Recording;
    use rstest::rstest;

    fn needs(text: &str) -> Vec<(String, Vec<String>)> {
        let reading = read(&Recording::parse(text.as_bytes()).unwrap());
        reading.sheet.needs.into_iter().map(|n| (n.fact.target, n.fact.after)).collect()
    }

    #[rstest]
    #[case::not_until("Seems like the power board will not come out until you remove the main board.", "power board", &["main board"])]
    #[case::not_get_to("So we can not get to that wire until we remove the cage.", "wire", &["cage"])]
    #[case::before("Before you can reach the two plugs, you need to loosen this bracket.", "plugs", &["bracket"])]
    #[case::nothing("The trigger caps are only snapped on, and there's no need to open the lamp for that.", "trigger caps", &[])]
    #[case::supposed("If you wanted to replace the pump, you'd need to take off the lid and the tray.", "pump", &["lid", "tray"])]
    #[case::only_once("The lens assembly can only be removed once the front cover and the display are off.", "lens assembly", &["front cover", "display"])]
    #[case::accessible("The antenna is accessible after removing the rear cover.", "antenna", &["rear cover"])]
    #[case::means("Replacing the charging port means removing the battery and the main board.", "charging port", &["battery", "main board"])]
    #[case::requires("Accessing the keyboard requires removal of the palm rest, the fan and the board.", "keyboard", &["palm rest", "fan", "board"])]
    #[case::in_order_to("In order to replace the hinge the display has to be removed first.", "hinge", &["display"])]
    #[case::no_access("There's no access to the relay before the base plate is off.", "relay", &["base plate"])]
    #[case::not_without("You can't reach the coil without taking the board out.", "coil", &["board"])]
    #[case::not_while("The motor can't come out while the shaft is in.", "motor", &["shaft"])]
    #[case::as_long_as("As long as the fan is in you don't get to the screws of the plate.", "plate", &["fan"])]
    #[case::the_way("The way to the heater is cover, fan, plate and then the shield.", "heater", &["cover", "fan", "plate", "shield"])]
    #[case::hidden("The pack sits under the board, so the board has to come out first.", "pack", &["board"])]
    #[case::only_reached("The pump you only reach from below, once the bottom cover is off.", "pump", &["bottom cover"])]
    #[case::from_outside("You can swap the knob from outside.", "knob", &[])]
    #[case::with_the_lid_on("You can change the wheels with the lid on.", "wheels", &[])]
    #[case::nothing_apart("Nothing needs to come apart for the filter.", "filter", &[])]
    fn a_chain_is_told_beside_the_work(#[case] text: &str, #[case] target: &str, #[case] after: &[&str]) {
        assert_eq!(needs(text), [(target.to_owned(), after.iter().map(|a| (*a).to_owned()).collect())]);
    }

    #[rstest]
    #[case("Wait until the glue is dry.")]
    #[case("Lift the tray before you pull the plug.")]
    #[case("Do not touch the board until it is cold.")]
    #[case("The board sits under the shield.")]
    #[case("You can't get the tape off without alcohol.")]
    fn times_are_no_chains(#[case] text: &str) {
        assert_eq!(needs(text), []);
    }
}
