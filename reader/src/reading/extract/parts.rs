//! Parts that leave or go back.

use super::super::act::Act;
use super::super::clauses::Clause;
use super::super::facts::{PartFact, PartOp};
use super::super::phrases::{NounPhrase, Thing};
use super::{Memory, Scene, is_surface, mentions, places_things};

pub(super) fn parts(scene: &Scene<'_, '_>, memory: &mut Memory) -> Vec<PartFact> {
    let mut out: Vec<PartFact> = Vec::new();
    for clause in scene.clauses.iter().filter(|c| c.is_plain()) {
        let op = if clause.elliptic { goes_on(scene, clause, memory) } else { op(scene, clause, memory) };
        let Some(op) = op else { continue };
        for np in clause.objects.iter().filter(|np| leaves(clause, np) && !(memory.cards && np.text() == "card")) {
            let fact = PartFact { op, what: np.text() };
            if out.contains(&fact) {
                continue;
            }
            memory.last_part = Some(fact.what.clone());
            memory.last_part_op = Some(op);
            memory.last_was_connector = false;
            if op == PartOp::Remove {
                *memory.removed.entry(np.head().to_owned()).or_default() += 1;
            }
            out.push(fact);
        }
        // Levering a shield off is told of the screws' part, too.
        if let Some(named) = clause.objects.iter().rfind(|o| o.thing == Thing::Part) {
            memory.last_part = Some(named.text());
            memory.told = None;
            if clause.act.is_some() && clause.base != "be" {
                memory.acted_in_cue = Some((scene.cue, named.text()));
            }
        }
    }
    out
}

/// Which way the parts of a clause go, if they go.
fn op(scene: &Scene<'_, '_>, clause: &Clause, memory: &Memory) -> Option<PartOp> {
    let words = &scene.words()[clause.from..clause.to];
    match clause.act? {
        Act::Remove if almost(words) || angled(scene, clause) => None,
        Act::Place if matches!(clause.base, "lay" | "put" | "set") && words.contains(&"aside") => {
            (!was_removed(clause, memory)).then_some(PartOp::Remove)
        }
        Act::Remove => Some(PartOp::Remove),
        Act::Disconnect if matches!(clause.base, "detach" | "unclip" | "unhook") => Some(PartOp::Remove),
        Act::Unscrew if clause.objects.iter().all(|o| o.thing == Thing::Part) => Some(PartOp::Remove),
        Act::Peel if !memory.rebuild && !partly(words) => Some(PartOp::Remove),
        Act::Open if !memory.rebuild && lifts_away(scene, clause) => Some(PartOp::Remove),
        Act::Install if clause.base == "replace" => memory.rebuild.then_some(PartOp::Install),
        Act::Install if on_a_surface(clause) || words.contains(&"together") => None,
        // "the battery is in the middle" tells a place.
        Act::Install if clause.base == "be" && (!memory.rebuild || !clause.places.is_empty()) => None,
        // "Put the fan back in": back is back, whenever it is said.
        Act::Install
            if words.contains(&"back")
                && clause.objects.iter().any(|o| o.thing == Thing::Part && o.head() != "back") =>
        {
            Some(PartOp::Install)
        }
        Act::Install
            if matches!(
                clause.base,
                "go" | "come" | "get" | "line" | "position" | "lower" | "secure" | "fasten" | "sit"
            ) && !memory.rebuild =>
        {
            None
        }
        // Before the turn only what is called fitting is one: "push the pin in" serves the taking apart.
        Act::Install
            if !memory.rebuild
                && !matches!(
                    clause.base,
                    "install" | "reinstall" | "refit" | "mount" | "remount" | "reattach" | "attach" | "fit"
                ) =>
        {
            None
        }
        Act::Install | Act::Transfer => Some(PartOp::Install),
        Act::Drive if clause.objects.iter().all(|o| o.thing == Thing::Part) => Some(PartOp::Install),
        Act::Close if memory.rebuild && was_removed(clause, memory) && clause.base != "press" => Some(PartOp::Install),
        Act::Place if memory.rebuild && places_things(clause) && set_in(clause) => Some(PartOp::Install),
        _ => None,
    }
}

/// "Then the windscreen": the act before goes on.
fn goes_on(scene: &Scene<'_, '_>, clause: &Clause, memory: &Memory) -> Option<PartOp> {
    let cables = scene.clauses.iter().any(|c| {
        c.from < clause.from
            && (matches!(c.act, Some(Act::Connect | Act::Disconnect))
                || c.objects.iter().any(|o| o.thing == Thing::Connection))
    });
    if cables || clause.objects.iter().any(|o| o.thing == Thing::Connection || o.thing == Thing::Screw) {
        return None;
    }
    let words = &scene.t.said[clause.from..clause.to];
    let alone =
        memory.rebuild && scene.clauses.iter().all(|c| c.elliptic) && words.first() == Some(&"and") && words.len() < 6;
    let then = alone || words.iter().take(3).any(|w| matches!(*w, "then" | "next" | "finally" | "last"));
    (then && !scene.t.said.contains(&"?") && clause.objects.iter().all(NounPhrase::known))
        .then(|| {
            if memory.rebuild { Some(PartOp::Install) } else { memory.last_part_op.filter(|op| *op == PartOp::Remove) }
        })
        .flatten()
}

/// What a clause takes along: parts, not tools, screws, glue or edges.
fn leaves(clause: &Clause, np: &NounPhrase) -> bool {
    let material =
        np.words.iter().any(|w| matches!(w.as_str(), "glue" | "adhesive" | "tape" | "residue" | "liner" | "backing"));
    let device =
        matches!(np.head(), "phone" | "laptop" | "tablet" | "computer" | "notebook" | "player" | "unit" | "handset");
    match np.thing {
        Thing::Part => !material && !device && np.words.len() <= 4,
        // Only what a verb takes directly may be unknown, or a word that happens to stand there would be a part.
        Thing::Unknown => {
            !material
                && !device
                && clause.verb.is_some()
                && !clause.elliptic
                && np.definite
                && matches!(clause.act, Some(Act::Remove | Act::Install | Act::Transfer | Act::Open))
                && !clause.subject.contains(np)
        }
        _ => false,
    }
}

/// "The back comes off to about 60 degrees": it hangs.
fn angled(scene: &Scene<'_, '_>, clause: &Clause) -> bool {
    scene
        .quantities
        .iter()
        .any(|q| q.measure.quantity == crate::units::Quantity::Angle && (clause.from..clause.to).contains(&q.at))
}

fn almost(words: &[&str]) -> bool {
    words.iter().any(|w| matches!(*w, "almost" | "nearly" | "halfway" | "partway" | "slightly"))
}

/// "Peel the corner of the sticker back".
fn partly(words: &[&str]) -> bool {
    words.iter().any(|w| matches!(*w, "corner" | "back" | "edge" | "end" | "half"))
}

/// "Lift the shield" takes it away; "lift it to 40 degrees" or "lift the latch" does not.
fn lifts_away(scene: &Scene<'_, '_>, clause: &Clause) -> bool {
    let end = scene
        .clauses
        .iter()
        .find(|c| c.from >= clause.to)
        .map_or(scene.words().len(), |c| if c.act.is_none() { c.to } else { c.from });
    let words = &scene.words()[clause.from..end.max(clause.to)];
    let limited = words.iter().any(|w| {
        matches!(
            *w,
            "degree"
                | "until"
                | "till"
                | "slightly"
                | "only"
                | "gap"
                | "corner"
                | "edge"
                | "end"
                | "like"
                | "bit"
                | "over"
                | "side"
                | "than"
                | "millimetre"
                | "millimeter"
                | "enough"
                | "little"
                | "carefully"
                | "open"
        )
    }) || clause.places.iter().any(|(p, np)| {
        matches!(p.as_str(), "from" | "at" | "to" | "with") && matches!(np.thing, Thing::Never | Thing::Tool)
    });
    clause.base == "lift" && !limited && !mentions(words, &["book"])
}

fn on_a_surface(clause: &Clause) -> bool {
    clause.place(&["on", "onto", "in", "into", "to"]).is_some_and(is_surface)
}

fn was_removed(clause: &Clause, memory: &Memory) -> bool {
    clause.objects.iter().any(|o| o.thing == Thing::Part && memory.removed.contains_key(o.head()))
}

/// "on the two pins", "in the frame", "over the posts": a place of the device.
fn set_in(clause: &Clause) -> bool {
    let back = clause.places.iter().any(|(p, np)| {
        matches!(p.as_str(), "in" | "into" | "on" | "onto" | "over" | "under" | "behind" | "through") && !is_surface(np)
    });
    back && clause.objects.iter().any(|o| o.thing == Thing::Part && !matches!(o.head(), "button" | "switch" | "key"))
}
