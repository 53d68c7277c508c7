//! Cables and connectors that are undone or made.

use super::super::act::Act;
use super::super::clauses::Clause;
use super::super::facts::{ConnectorFact, ConnectorOp};
use super::super::phrases::{self, NounPhrase, Thing};
use super::super::tags::Tag;
use super::{Memory, Scene};

pub(super) fn connectors(scene: &Scene<'_, '_>, memory: &mut Memory) -> Vec<ConnectorFact> {
    let mut out: Vec<ConnectorFact> = Vec::new();
    remember_served(scene, memory);
    for clause in scene.clauses.iter().filter(|c| c.is_plain()) {
        let op = if clause.elliptic { goes_on(scene, clause, memory) } else { op(scene, clause, memory) };
        if let Some(op) = op {
            let mut named: Vec<String> = Vec::new();
            for np in clause
                .objects
                .iter()
                .filter(|np| counts(scene, clause, np, memory) && !at_the_wall(scene, clause))
                .cloned()
                .collect::<Vec<_>>()
            {
                let np = &np;
                let what = what(np, scene, clause, memory);
                // "the wide antenna cable and the narrow antenna cable" are two.
                if named.iter().any(|n| *n != np.text()) && what.is_some() && np.thing == Thing::Connection {
                    out.push(ConnectorFact { op, what });
                } else {
                    push(&mut out, op, what);
                }
                named.push(np.text());
                if op == ConnectorOp::Disconnect {
                    memory.unplugged.extend(out.last().and_then(|f| f.what.clone()));
                }
            }
            if !out.is_empty() {
                memory.last_connector_op = Some(op);
                memory.last_was_connector = true;
            }
        }
        if let Some(again) = same_again(scene, clause)
            && let Some(op) = memory.last_connector_op.filter(|_| memory.last_was_connector)
        {
            push(&mut out, op, again.serves());
        }
    }
    all_undone(scene, memory, &mut out);
    out
}

fn push(out: &mut Vec<ConnectorFact>, op: ConnectorOp, what: Option<String>) {
    let fact = ConnectorFact { op, what };
    let told = out.iter().any(|f| f.op == op && (f.what == fact.what || fact.what.is_none()));
    if !told {
        out.retain(|f| !(f.op == op && f.what.is_none()));
        out.push(fact);
    }
}

/// "Pull the plug and not the wires" tells how, and of whichever plug comes next.
fn tells_where_to_hold(scene: &Scene<'_, '_>, clause: &Clause) -> bool {
    let bare = clause.objects.iter().all(|o| o.words.len() == 1);
    let behind = &scene.words()[clause.from..];
    bare && behind.windows(2).any(|w| matches!(w, ["not" | "never", "the" | "on" | "by" | "at"]))
}

/// Which way a clause takes its connections.
fn op(scene: &Scene<'_, '_>, clause: &Clause, memory: &Memory) -> Option<ConnectorOp> {
    use ConnectorOp::{Connect, Disconnect};
    let plugs = clause.objects.iter().any(|o| o.thing == Thing::Connection);
    let act = clause.act?;
    if plugs && (routed(scene, clause) || tells_where_to_hold(scene, clause)) {
        return None;
    }
    // "The cable comes out at the left" tells where it lies; "it goes back on last" what will be done.
    let tells = memory.rebuild && clause.base == "come" && clause.place(&["at", "on"]).is_some();
    let foretells = !memory.rebuild && clause.base == "go" && scene.words()[clause.from..clause.to].contains(&"last");
    if tells || foretells {
        return None;
    }
    match act {
        Act::Disconnect if matches!(clause.base, "disconnect" | "unplug" | "uncouple" | "plug") => Some(Disconnect),
        Act::Disconnect if plugs => Some(Disconnect),
        Act::Connect if clause.base == "latch" => None,
        Act::Connect => Some(Connect),
        Act::Remove | Act::Unscrew if plugs => Some(Disconnect),
        Act::Open if plugs && matches!(clause.base, "lift" | "raise") => Some(Disconnect),
        Act::Pry if plugs && matches!(clause.base, "pry" | "pop" | "release" | "lever") => {
            Some(if memory.rebuild && clause.base == "pop" { Connect } else { Disconnect })
        }
        Act::Peel if plugs => None,
        Act::Place if plugs && matches!(clause.base, "pull" | "draw" | "slide" | "wiggle" | "rock") => {
            Some(if memory.rebuild { Connect } else { Disconnect })
                .filter(|op| *op == Disconnect || clause.base == "slide")
        }
        Act::Install if plugs => Some(Connect),
        Act::Close if plugs && matches!(clause.base, "press" | "snap" | "push" | "click" | "clip") => Some(Connect),
        Act::Place if plugs && memory.rebuild && matches!(clause.base, "push" | "put" | "place" | "set") => {
            Some(Connect)
        }
        _ => None,
    }
}

fn goes_on(scene: &Scene<'_, '_>, clause: &Clause, memory: &Memory) -> Option<ConnectorOp> {
    if !memory.last_was_connector {
        return None;
    }
    let words = &scene.t.said[clause.from..clause.to];
    let then = words.iter().take(3).any(|w| matches!(*w, "then" | "next" | "finally" | "last" | "also"));
    let plugs = clause.objects.iter().any(|o| o.thing == Thing::Connection);
    let same_breath = scene.clauses.iter().any(|c| {
        c.from < clause.from
            && (matches!(c.act, Some(Act::Connect | Act::Disconnect))
                || c.objects.iter().any(|o| o.thing == Thing::Connection))
    });
    (same_breath && (then || plugs) || (plugs && (clause.from == 0 || then)))
        .then_some(memory.last_connector_op)
        .flatten()
}

/// "Pull the plug out of the wall" undoes no connector of the device.
fn at_the_wall(scene: &Scene<'_, '_>, clause: &Clause) -> bool {
    scene.words()[clause.from..clause.to].iter().any(|w| matches!(*w, "wall" | "mains" | "outlet"))
}

/// What of a clause is connected: its cables, or the first part of "unplug the battery".
fn counts(scene: &Scene<'_, '_>, clause: &Clause, np: &NounPhrase, memory: &Memory) -> bool {
    const WALL: [&str; 14] = [
        "cord",
        "wall",
        "mains",
        "charger",
        "adapter",
        "adaptor",
        "outlet",
        "brick",
        "power supply cable",
        "usb cable",
        "mat",
        "strap",
        "wrist strap",
        "everything",
    ];
    let text = np.text();
    // "Plug it in" at the end speaks of the device, unless it is something that was unplugged.
    let pronoun = scene.t.tag(np.from) == Some(Tag::Pronoun) && np.thing == Thing::Part;
    if pronoun
        && clause.does(Act::Connect)
        && !memory.unplugged.iter().any(|u| u.split(' ').next_back() == Some(np.head()))
    {
        return false;
    }
    if WALL.iter().any(|w| text.ends_with(w)) || np.of.as_ref().is_some_and(|of| WALL.contains(&of.text().as_str())) {
        return false;
    }
    let explicit = matches!(clause.act, Some(Act::Disconnect | Act::Connect));
    let cables = clause.objects.iter().any(|o| o.thing == Thing::Connection);
    match np.thing {
        Thing::Connection => true,
        // "unplug the battery and the display connector" names both.
        Thing::Part => explicit || clause.elliptic,
        Thing::Unknown => explicit && !cables && np.words.len() <= 3,
        _ => false,
    }
}

/// What a connection serves; where the phrase doesn't say, the talk around it does.
fn what(np: &NounPhrase, scene: &Scene<'_, '_>, clause: &Clause, memory: &Memory) -> Option<String> {
    np.serves()
        .or_else(|| clause.place(&["of", "for"]).filter(|p| p.known()).and_then(NounPhrase::serves))
        .or_else(|| {
            // "Open the latch of the keypad connector and pull out the flex."
            scene
                .clauses
                .iter()
                .filter(|c| c.from < clause.from)
                .flat_map(|c| c.things())
                .flat_map(|p| [Some(p), p.of.as_deref()].into_iter().flatten())
                .filter(|p| p.thing == Thing::Connection)
                .find_map(NounPhrase::serves)
        })
        .or_else(|| {
            // "The keypad has a flip latch, so tail up, flex out"; "microphones first, flex in".
            let before = scene.clauses.iter().filter(|c| c.from < clause.from);
            before
                .filter(|c| c.elliptic || matches!(c.base, "have" | "need"))
                .flat_map(|c| c.subject.iter().chain(&c.objects))
                .find(|p| p.thing == Thing::Part)
                .and_then(NounPhrase::serves)
        })
        .or_else(|| {
            // "For the joystick, flip up the latch on its connector and slide the ribbon out."
            let before = scene.clauses.iter().filter(|c| c.from <= clause.from);
            before.filter_map(|c| c.place(&["for"])).find(|p| p.thing == Thing::Part).and_then(NounPhrase::serves)
        })
        .or_else(|| memory.served.as_ref().filter(|(cue, _)| *cue == scene.cue).map(|(_, s)| s.clone()))
        .or_else(|| clause.subject.iter().filter(|s| s.thing == Thing::Part).find_map(NounPhrase::serves))
        .or_else(|| memory.topic.clone())
}

/// "The screen flex has a flip latch": what the next "flex" will mean.
fn remember_served(scene: &Scene<'_, '_>, memory: &mut Memory) {
    let named = phrases::phrases(scene.t, 0, scene.t.len());
    let served = named
        .iter()
        .flat_map(|p| [Some(p), p.of.as_deref()].into_iter().flatten())
        .filter(|p| p.thing == Thing::Connection)
        .find_map(NounPhrase::serves);
    // "a flat band from the aerial to the board", "the fan is on it, with a wire", "it's on a wire".
    let hangs = scene.clauses.iter().find_map(|c| {
        let cable = c.subject.iter().chain(&c.objects).any(|p| p.thing == Thing::Connection);
        let from = c.place(&["from"]).filter(|_| cable && !c.does(Act::Disconnect) && c.act != Some(Act::Remove));
        let on = c.place(&["on", "with"]).filter(|p| c.base == "be" && p.thing == Thing::Connection);
        let subject = || c.subject.iter().find(|s| s.thing == Thing::Part).and_then(NounPhrase::serves);
        from.and_then(NounPhrase::serves).or_else(|| on.and_then(|_| subject().or_else(|| memory.topic.clone())))
    });
    if let Some(served) = served.or(hangs) {
        memory.served = Some((scene.cue, served));
    }
    remember_topic(scene, memory);
}

/// "Okay, the speaker.", "The battery comes first.": the part a sentence is about, for a plug that nobody names.
fn remember_topic(scene: &Scene<'_, '_>, memory: &mut Memory) {
    let told = scene.clauses.iter().rev().find_map(|c| {
        let acted = c.act.is_some() && c.is_plain();
        let named =
            acted || c.verb.is_none() || matches!(c.base, "be" | "have" | "come" | "get" | "sit" | "hang" | "do");
        let first = c.place(&["for"]).filter(|_| c.from == 0 || acted).or(if acted {
            c.objects.first()
        } else {
            c.subject.first().or(c.objects.first())
        });
        first.filter(|p| named && p.thing == Thing::Part && p.definite)
    });
    let presented = scene.clauses.iter().rev().filter(|c| c.act.is_none() && c.is_plain()).find_map(|c| {
        let there = c.subject.first().is_some_and(|s| matches!(s.words[0].as_str(), "there" | "here"));
        let first = if there { c.objects.first() } else { c.subject.first().or(c.objects.first()) };
        let first = first.filter(|_| matches!(c.base, "be" | "have") || c.verb.is_none());
        first.filter(|p| p.thing == Thing::Part && (p.definite || !there) && !p.plural)
    });
    if let Some(part) = presented.and_then(NounPhrase::serves) {
        memory.told = Some((scene.cue, part));
    }
    if let Some(topic) = told.and_then(NounPhrase::serves) {
        memory.topic = Some(topic);
    }
}

/// "out of its channel", "along the rib": the cable is led, not connected.
fn routed(scene: &Scene<'_, '_>, clause: &Clause) -> bool {
    let words = &scene.words()[clause.from..clause.to];
    words
        .iter()
        .any(|w| matches!(*w, "channel" | "groove" | "hook" | "guide" | "aside" | "tape" | "rib" | "duct" | "clip"))
        || matches!(clause.base, "route" | "run" | "tuck" | "lay" | "feed" | "dress" | "bend" | "fold")
        || clause.place(&["around", "behind", "along", "under", "over"]).is_some()
}

/// "Same thing again for the light bar flex."
fn same_again(scene: &Scene<'_, '_>, clause: &Clause) -> Option<NounPhrase> {
    let words = &scene.words()[clause.from..clause.to];
    let same = words.windows(2).any(|w| matches!(w, ["same", "thing" | "way" | "again"]))
        || words.windows(2).any(|w| w == ["the", "same"]);
    let target = clause.place(&["for", "with", "on", "to"])?;
    (same && target.known()).then(|| target.clone())
}

/// "Three cables go to it, the left tweeter, the right tweeter and the microphone ribbon … with all three undone".
fn all_undone(scene: &Scene<'_, '_>, memory: &Memory, out: &mut Vec<ConnectorFact>) {
    if memory.rebuild || !out.is_empty() {
        return;
    }
    let Some(head) = scene.clauses.iter().find(|c| {
        c.is_plain()
            && matches!(c.base, "go" | "have" | "be" | "need" | "run" | "connect")
            && c.subject
                .iter()
                .chain(&c.objects)
                .any(|s| s.thing == Thing::Connection && s.count.is_some_and(|n| n > 1) && s.serves().is_none())
    }) else {
        return;
    };
    let listed = head
        .objects
        .iter()
        .chain(scene.clauses.iter().filter(|c| c.from >= head.to && c.elliptic).flat_map(|c| &c.objects))
        .filter(|np| np.known() && np.definite && !(np.thing == Thing::Connection && np.serves().is_none()));
    for np in listed {
        push(out, ConnectorOp::Disconnect, np.serves());
    }
}
