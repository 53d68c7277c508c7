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

impl Reader<'_> {
    pub(super) fn chain(&self) -> Option<Chain> {
        self.not_until()
            .or_else(|| self.before_reaching())
            .or_else(|| self.only_once())
            .or_else(|| self.asks_for())
            .or_else(|| self.aimed_at())
            .or_else(|| self.nothing_first())
    }

    /// "The lens can only be removed once the cover is off.", "The aerial is accessible after removing the cover."
    fn only_once(&self) -> Option<Chain> {
        let said =
            ["can only be", "only comes out", "only come out", "is accessible", "are accessible", "is only accessible"];
        if !said.iter().any(|p| has(self.text, p)) {
            return None;
        }
        let at = self.words.iter().position(|w| matches!(w.lemma.as_str(), "once" | "after" | "when"))?;
        let main = self.clauses.iter().find(|c| c.mood == Mood::Plain && !c.negated && !c.subjects.is_empty())?;
        let after = self.things(at + 1, self.words.len());
        (!after.is_empty()).then_some((main.subjects.iter().find(|p| comes_off(p)).cloned()?, after))
    }

    /// "Replacing the port means removing the battery and the board.", "Changing the fan requires removal of the lid."
    fn asks_for(&self) -> Option<Chain> {
        let job = self.words.first().filter(|w| w.form == Form::Ing && JOBS.contains(&w.verb()))?;
        let asks = |w: &Word| matches!(w.said.as_str(), "means" | "requires" | "involves");
        let at = self.words.iter().position(asks).filter(|_| !job.pause)?;
        let off = self.words[at..].iter().any(|w| {
            matches!(w.verb(), "remove" | "take" | "undo" | "open")
                || matches!(w.said.as_str(), "removal" | "disassembly")
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
        (!after.is_empty()).then_some((reached(main)?, after))
    }

    /// "Before you can reach the two plugs, you need to loosen the bracket."
    fn before_reaching(&self) -> Option<Chain> {
        let at = self.clauses.iter().position(|c| {
            c.mood == Mood::Before && matches!(c.base.as_str(), "reach" | "get" | "access") && !c.negated
        })?;
        let main = self.clauses[at + 1..].iter().find(|c| c.mood == Mood::Plain && !c.negated)?;
        let after = removed(main);
        (!after.is_empty()).then_some((reached(&self.clauses[at])?, after))
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
        ];
        if !nothing.iter().any(|p| has(self.text, p)) {
            return None;
        }
        let part = |p: &&Phrase| p.kind == Kind::Part && p.definite && !p.is_pronoun();
        self.clauses.iter().flat_map(|c| &c.subjects).find(part).map(|p| (p.clone(), Vec::new()))
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

fn comes_off(p: &Phrase) -> bool {
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
    fn a_chain_is_told_beside_the_work(#[case] text: &str, #[case] target: &str, #[case] after: &[&str]) {
        assert_eq!(needs(text), [(target.to_owned(), after.iter().map(|a| (*a).to_owned()).collect())]);
    }

    #[rstest]
    #[case("Wait until the glue is dry.")]
    #[case("Lift the tray before you pull the plug.")]
    #[case("Do not touch the board until it is cold.")]
    fn times_are_no_chains(#[case] text: &str) {
        assert_eq!(needs(text), []);
    }
}
