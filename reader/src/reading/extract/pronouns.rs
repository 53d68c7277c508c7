//! What "it", "that one" and "those" mean.
//!
//! Deixis carries half of the facts. A pronoun takes the thing last acted on or last told of in a leading place of a
//! sentence; a thing behind a preposition ("from the frame") is no candidate, or every "lift it off" would lift the frame.

use super::super::clauses::{Clause, Mood};
use super::super::lexicon::LEXICON;
use super::super::phrases::{NounPhrase, Thing};
use super::super::tags::Tagged;
use super::{Memory, Scene};

/// The clauses with their pronouns put as the things they mean.
pub(super) fn resolve(t: &Tagged<'_>, clauses: &[Clause], memory: &Memory) -> Vec<Clause> {
    let mut focus = memory.focus.clone();
    let mut plural = memory.focus_plural.clone();
    clauses
        .iter()
        .map(|clause| {
            let mut clause = clause.clone();
            let mut named = false;
            let elliptic = clause.elliptic;
            for object in clause.objects.iter_mut().filter(|_| !elliptic) {
                // "the stick module, the one that drifts" names one thing.
                if named && object.thing == Thing::Pronoun && !object.plural {
                    continue;
                }
                named |= object.thing != Thing::Pronoun;
                // "two 1.2 millimetres and one 1.0": a count and no thing.
                let counts = object.words.len() == 1
                    && object.to - object.from == 1
                    && LEXICON.numbers.contains_key(t.said[object.from]);
                if object.thing == Thing::Pronoun && !is_person(object) && !counts {
                    let meant = if object.plural { plural.as_ref().or(focus.as_ref()) } else { focus.as_ref() };
                    if let Some(meant) = meant {
                        *object = NounPhrase {
                            from: object.from,
                            to: object.to,
                            of: meant.of.clone(),
                            count: object.count.or(meant.count),
                            ..meant.clone()
                        };
                    }
                }
            }
            note(&clause, &mut focus, &mut plural);
            clause
        })
        .collect()
}

/// Keeps the things of a sentence in mind for the next.
pub(super) fn remember(scene: &Scene<'_, '_>, memory: &mut Memory) {
    for clause in scene.clauses {
        note(clause, &mut memory.focus, &mut memory.focus_plural);
        if let Some(part) = memory.focus.as_ref().filter(|f| f.thing == Thing::Part) {
            memory.focus_part = Some(part.clone());
        }
    }
}

fn note(clause: &Clause, focus: &mut Option<NounPhrase>, plural: &mut Option<NounPhrase>) {
    // What is only thought of ("because a bent cell can burn") is not what "it" will mean.
    if focus.is_some()
        && matches!(clause.mood, Mood::Reason | Mood::Relative | Mood::Potential | Mood::Conditional | Mood::Negated)
        && clause.act.is_none()
    {
        return;
    }
    // "The battery is a 7 volt pack": still the battery.
    let shown = clause
        .subject
        .last()
        .is_none_or(|s| matches!(s.words[0].as_str(), "there" | "here" | "that" | "this" | "these"));
    let objects: &[NounPhrase] = if clause.base == "be" && !shown { &[] } else { &clause.objects };
    let named = clause.subject.iter().chain(objects);
    // "open the latch of the cable": what comes out then is the cable.
    // "them" is the nearest of several things, whatever they are.
    if let Some(several) = clause.things().filter(|np| np.plural && np.thing != Thing::Pronoun).max_by_key(|np| np.from)
    {
        *plural = Some(several.clone());
    }
    for np in named
        .map(|np| np.of.as_deref().filter(|of| np.thing == Thing::Never && of.thing == Thing::Connection).unwrap_or(np))
    {
        if !matches!(np.thing, Thing::Part | Thing::Connection | Thing::Screw | Thing::Tool) {
            continue;
        }
        if np.plural && np.thing == Thing::Screw {
            continue;
        }
        *focus = Some(np.clone());
    }
    // "Slide the spudger under the plug and rock it off": nobody rocks the spudger.
    let under = clause.place(&["under", "behind", "beneath", "underneath", "below"]);
    if let Some(lifted) = under.filter(|np| np.known() && clause.objects.iter().any(|o| o.thing == Thing::Tool)) {
        *focus = Some(lifted.clone());
    }
    // "It's on a big plug that you can reach": the plug is what one takes hold of next.
    if let Some(plug) = clause.place(&["on", "with"]).filter(|np| clause.base == "be" && np.thing == Thing::Connection)
    {
        *focus = Some(plug.clone());
    }
}

fn is_person(np: &NounPhrase) -> bool {
    matches!(
        np.words[0].as_str(),
        "you"
            | "we"
            | "i"
            | "he"
            | "she"
            | "us"
            | "me"
            | "somebody"
            | "someone"
            | "nobody"
            | "there"
            | "here"
            | "what"
            | "who"
            | "everybody"
            | "nothing"
            | "anything"
    )
}
