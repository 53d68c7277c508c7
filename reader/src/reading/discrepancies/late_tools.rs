//! Tools and materials that the opening list does not hold.

use super::super::facts::{Consumable, Drive};
use super::super::lexicon::LEXICON;
use super::super::sheet::DiscrepancyKind;
use super::super::statements::StatementKind;
use super::super::{Statement, extract};
use super::{Contradiction, Story, finding};
use std::collections::BTreeSet;

/// A tool or material that the opening list doesn't hold.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let mut out = Vec::new();
    let mut listed: Option<Listed> = None;
    let mut list_cue = 0;
    let mut list_at = None;
    for (i, s) in story.statements.iter().enumerate() {
        let words = story.refs(i);
        let forgotten = LEXICON.forgotten.any(&words).is_some();
        let named = !s.facts.tools.is_empty()
            || !s.facts.consumables.is_empty()
            || !extract::tools_named(&words).is_empty()
            || LEXICON.consumables.any(&words).is_some()
            || words.iter().any(|w| matches!(*w, "screwdriver" | "driver" | "turner" | "tool"));
        if forgotten && named {
            out.push(late(spoken_of(s, &words), i, list_at));
            if let Some(l) = &mut listed {
                l.take(s, &words);
            }
            continue;
        }
        // The segment in which the list began is all list; the next one while it only names.
        let only_names = s.facts.parts.is_empty() && s.facts.fasteners.is_empty() && s.facts.connectors.is_empty();
        let lists = s.kind == StatementKind::Tool
            || (only_names
                && (s.cue == list_cue
                    || (s.cue == list_cue + 1 && s.facts.acts.is_empty() && s.kind != StatementKind::Caution)));
        match &mut listed {
            None if s.kind == StatementKind::Tool && s.cue < 8 => {
                let mut l = Listed::default();
                l.take(s, &words);
                listed = Some(l);
                list_cue = s.last_cue;
                list_at = Some(i);
            }
            Some(l) if lists && s.cue <= list_cue + 1 || s.kind == StatementKind::Tool && s.cue <= list_cue + 2 => {
                l.take(s, &words);
                if s.kind == StatementKind::Tool {
                    list_cue = s.last_cue;
                }
            }
            Some(l) if s.kind.is_work() && l.is_list() => {
                if let Some(what) = l.misses(s, &words) {
                    out.push(late(vec![what], i, list_at));
                    l.take(s, &words);
                }
            }
            _ => {}
        }
    }
    out
}

/// What a narrator admits to have forgotten; empty where he does not say what.
fn spoken_of(s: &Statement, words: &[&str]) -> Vec<String> {
    let materials = s.facts.consumables.iter().map(|c| c.name().to_owned());
    let used: Vec<String> = s.facts.tools.iter().cloned().chain(materials).collect();
    // "I didn't tell you to get a multimeter.": named, and nothing used yet.
    if used.is_empty() { extract::tools_named(words) } else { used }
}

fn late(names: Vec<String>, at: usize, list: Option<usize>) -> Contradiction {
    let what = if names.is_empty() { "something".to_owned() } else { names.join(", ") };
    let says = format!("Used here, and not in the list of tools and materials: {what}.");
    Contradiction { names, ..finding(DiscrepancyKind::LateTool, at, list, says) }
}

/// Tools that are in no tool box of the trade, by their last word.
const PLAIN: [&str; 9] = ["stick", "toothpick", "pliers", "plier", "hammer", "wrench", "skewer", "tester", "clamp"];

/// What the opening list holds.
#[derive(Default)]
struct Listed {
    tools: BTreeSet<String>,
    consumables: BTreeSet<Consumable>,
    bits: BTreeSet<(Drive, String)>,
    /// Every word of the list.
    words: BTreeSet<String>,
    /// "The only thing you need is a small Phillips screwdriver."
    only: bool,
}

impl Listed {
    /// A tour that once says "you'd want tape" lists nothing.
    fn is_list(&self) -> bool {
        self.tools.len() + self.consumables.len() > 1 || self.only && !self.tools.is_empty()
    }

    fn take(&mut self, s: &Statement, words: &[&str]) {
        self.only |= extract::is_whole_list(&words.join(" "));
        self.words.extend(words.iter().map(|w| (*w).to_owned()));
        self.tools.extend(extract::tools_named(words));
        self.consumables.extend(LEXICON.consumables.all(words).into_iter().map(|(_, _, c)| *c));
        self.tools.extend(s.facts.tools.iter().cloned());
        self.tools
            .extend(s.facts.fasteners.iter().filter_map(|f| f.drive).map(|d| format!("{} screwdriver", d.name())));
        self.consumables.extend(s.facts.consumables.iter().copied());
        self.bits.extend(extract::bits_named(words));
    }

    /// What the list lacks. Only what has to be fetched counts: a weight is found on any table, a part's own glue comes
    /// with it.
    fn misses(&self, s: &Statement, words: &[&str]) -> Option<String> {
        let any_driver = self.tools.contains("screwdriver") || self.tools.contains("power driver");
        let tool = s.facts.tools.iter().find(|t| {
            let driver = t.ends_with("screwdriver");
            !self.tools.contains(*t)
                && !(driver && (any_driver || *t == "screwdriver"))
                && !(matches!(t.as_str(), "pry tool" | "spudger" | "opening pick" | "spatula" | "knife")
                    && self
                        .tools
                        .iter()
                        .any(|k| matches!(k.as_str(), "pry tool" | "spudger" | "opening pick" | "spatula"))
                    && *t != "opening pick"
                    && *t != "knife")
        });
        let drivers = s.facts.fasteners.iter().filter_map(|f| f.drive).map(|d| format!("{} screwdriver", d.name()));
        let driver =
            drivers.into_iter().find(|name| !self.tools.contains(name) && !any_driver && !self.tools.is_empty());
        let bits = extract::bits_named(words);
        let bit = bits.iter().find(|(d, b)| {
            let known: Vec<&(Drive, String)> = self.bits.iter().filter(|(k, _)| k == d).collect();
            !known.is_empty() && !known.iter().any(|(_, k)| k == b)
        });
        let consumable = s.facts.consumables.iter().find(|c| {
            !self.consumables.contains(c)
                && matches!(
                    c,
                    Consumable::IsopropylAlcohol
                        | Consumable::CottonSwab
                        | Consumable::CleaningCloth
                        | Consumable::ThermalPaste
                        | Consumable::ProtectiveFilm
                )
        });
        let of_bit = || bit.map(|(drive, bit)| format!("{} {bit}", drive.name()));
        let of_consumable = || consumable.map(|c| c.name().to_owned());
        let plain = || self.plain_tool(words).map(str::to_owned);
        tool.cloned().or(driver).or_else(of_bit).or_else(of_consumable).or_else(plain)
    }

    /// "the glue with a wooden stick": a thing of any household that nobody spoke of.
    fn plain_tool<'w>(&self, words: &[&'w str]) -> Option<&'w str> {
        let led = |at: usize| {
            let before = &words[at.saturating_sub(4)..at];
            before.iter().any(|w| matches!(*w, "with" | "using" | "grab"))
        };
        let named = words.iter().enumerate().find(|(at, w)| PLAIN.contains(w) && led(*at))?;
        (!self.words.contains(*named.1) && extract::tools_named(words).is_empty()).then_some(*named.1)
    }
}
