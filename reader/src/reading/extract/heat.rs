//! Heat: its source, place, temperature and time, gathered over the sentences of one segment.

use super::super::act::Act;
use super::super::clauses::Mood;
use super::super::facts::{HeatFact, HeatSource};
use super::super::lexicon::LEXICON;
use super::super::phrases::{NounPhrase, Thing};
use super::super::quantities::Quantified;
use super::{Ground, Memory, Scene};
use crate::units::{self, Measure, Quantity, Span, Unit};

/// Whether the sentence or its segment speaks of heat.
pub(super) fn spoken(words: &[&str], cue: usize, memory: &mut Memory) -> bool {
    let here = speaks(words);
    if here {
        memory.heat_cue = Some(cue);
    }
    here || memory.heat_cue == Some(cue)
}

/// Whether these words speak of heat, or name what gives it.
pub(in super::super) fn speaks(words: &[&str]) -> bool {
    // "Then air, three hundred and sixty degrees."
    let opens = words.iter().position(|w| !matches!(*w, "then" | "now" | "so" | "and" | "okay"));
    if opens.is_some_and(|at| words[at] == "air") {
        return true;
    }
    words.iter().any(|w| {
        matches!(
            *w,
            "heat"
                | "hot"
                | "warm"
                | "heating"
                | "heated"
                | "hotter"
                | "warmer"
                | "oven"
                | "hairdryer"
                | "dryer"
                | "temperature"
                | "celsius"
                | "iron"
                | "preheat"
                | "melt"
                | "soft"
                | "warmth"
                | "warming"
        )
    }) || LEXICON.tools.all(words).iter().any(|(_, _, name)| HeatSource::from_tool(name).is_some())
}

/// The quantities of a sentence; a bare "degrees" is a temperature where heat is spoken of, else an angle.
pub(in super::super) fn measures(quantities: &[Quantified], words: &[&str], heating: bool) -> Vec<Measure> {
    quantities.iter().map(|q| as_heat(q, words, heating)).collect()
}

fn as_heat(q: &Quantified, words: &[&str], heating: bool) -> Measure {
    const WARM: f64 = 40.0;
    let before = &words[q.at.saturating_sub(6)..q.at];
    let turned =
        before.iter().any(|w| matches!(*w, "open" | "lift" | "angle" | "turn" | "tilt" | "rotate" | "past" | "flip"));
    if q.unit == Unit::Degree && q.measure.value >= WARM && heating && !turned {
        return Measure {
            quantity: Quantity::Temperature,
            unit: Quantity::Temperature.unit().to_owned(),
            ..q.measure.clone()
        };
    }
    q.measure.clone()
}

/// One heat for each source; several sentences of a segment make up one, see `settle`.
pub(super) fn heat(scene: &Scene<'_, '_>, tools: &[String], ground: Ground, memory: &mut Memory) -> Vec<HeatFact> {
    let words = scene.words();
    memory.heating_pad |= tools.iter().any(|t| t == HeatSource::HeatingPad.name());
    // "with a heat gun or an ordinary hair dryer": the one named first is the one in use.
    let named = LEXICON.tools.all(words).into_iter().map(|(_, _, name)| name).filter(|name| tools.contains(name));
    let source = named
        .chain(tools)
        .find_map(|t| HeatSource::from_tool(t))
        .filter(|s| *s != HeatSource::SolderingIron)
        .or_else(|| nickname(scene, memory));
    // "Place the device on the mat": all of it is warmed.
    let device = words.iter().any(|w| matches!(*w, "device" | "phone" | "tablet" | "laptop" | "player" | "unit"));
    if device && source.is_some() {
        memory.device_warmed = Some(scene.cue);
    }
    let heating = scene
        .clauses
        .iter()
        .find(|c| c.does(Act::Heat) && !matches!(c.mood, Mood::Negated | Mood::Potential | Mood::Purpose));
    let forbidden = scene.clauses.iter().any(|c| c.mood == Mood::Negated && c.does(Act::Heat));
    let lists = super::tools::list_opener(words).is_some() && heating.is_none();
    if forbidden {
        return Vec::new();
    }
    let temperature = scene.quantities.iter().find(|q| as_heat(q, words, true).quantity == Quantity::Temperature);
    let dwell = scene.quantities.iter().find(|q| q.measure.quantity == Quantity::Duration);
    let lists = lists || heating.is_some_and(|c| c.objects.iter().any(|o| o.thing == Thing::Tool));
    if lists {
        return Vec::new();
    }
    let told_at =
        |q: &Quantified| scene.clause_at(q.at).is_none_or(|c| !matches!(c.mood, Mood::Negated | Mood::Potential));
    let laid = source.is_some() && temperature.or(dwell).is_some_and(told_at);
    let limit = words.iter().any(|w| matches!(*w, "above" | "below" | "never" | "over" | "hotter"));
    let goes_on = memory.heat_source.is_some()
        && memory.heat_cue == Some(scene.cue)
        && dwell.is_some()
        && scene
            .clauses
            .iter()
            .any(|c| matches!(c.act, Some(Act::Wait | Act::Hold | Act::Place)) && c.mood != Mood::Negated);
    let told = heating.is_some()
        && (ground == Ground::Work || dwell.is_some() || source.is_some() || temperature.is_some())
        || laid
        || goes_on;
    if !told || (limit && heating.is_none()) || dries(scene) {
        return Vec::new();
    }
    let target = heating
        .and_then(|c| c.objects.iter().find_map(heated))
        .or_else(|| scene.clauses.iter().flat_map(|c| c.things()).find_map(warmed))
        .or_else(|| memory.heat_target.clone())
        .or_else(|| {
            memory
                .focus
                .as_ref()
                .filter(|f| f.thing == Thing::Part && memory.device_warmed != Some(scene.cue))
                .map(|f| f.text())
        });
    memory.heat_target.clone_from(&target);
    memory.heat_source = source.or(memory.heat_source.filter(|_| memory.heat_cue == Some(scene.cue)));
    memory.heat_cue = Some(scene.cue);
    let span = |q: &Quantified| (q.measure.value, q.measure.to.unwrap_or(q.measure.value));
    vec![HeatFact {
        source,
        target,
        temperature: temperature.map(span).map(|(l, h)| Span { low: units::celsius(l), high: units::celsius(h) }),
        dwell: dwell.map(span).map(|(l, h)| Span { low: units::seconds(l), high: units::seconds(h) }),
    }]
}

/// The part that gets warm: "the cover", "the edge of the cover"; what heats is none.
fn warmed(np: &NounPhrase) -> Option<String> {
    let part = |np: &NounPhrase| {
        let heats = HeatSource::from_tool(&np.text()).is_some() || np.head() == "pad";
        (np.thing == Thing::Part && !heats).then(|| np.text())
    };
    part(np).or_else(|| np.of.as_deref().and_then(part))
}

/// "heat the badge", "heat the grip pad": the very thing that is heated, known or not.
fn heated(np: &NounPhrase) -> Option<String> {
    let part = |np: &NounPhrase| (np.thing == Thing::Part).then(|| np.text());
    let unknown = || (np.thing == Thing::Unknown && np.definite).then(|| np.text());
    part(np).or_else(|| np.of.as_deref().and_then(part)).or_else(unknown)
}

/// "the gun", "a dryer", "back on the plate": what heats by a short name, good only where heat is given.
fn nickname(scene: &Scene<'_, '_>, memory: &Memory) -> Option<HeatSource> {
    let words = scene.words();
    let named = LEXICON.heat_nicknames.all(words);
    let (at, len, source) = named.first().copied()?;
    let shown = at > 0 && matches!(words[at - 1], "the" | "my" | "a" | "that" | "this");
    let timed = scene.quantities.iter().any(|q| q.measure.quantity == Quantity::Duration);
    let laid_on = words[..at].iter().rev().take(2).any(|w| *w == "on") && timed;
    let here = speaks(words) || memory.heat_cue == Some(scene.cue) || laid_on || memory.heating_pad;
    let part = LEXICON.part_heads.at(words, at + len).is_some();
    (shown && here && !part && !words.contains(&"thermal")).then_some(*source)
}

/// Letting something dry or cool is no heating.
fn dries(scene: &Scene<'_, '_>) -> bool {
    scene.words().iter().any(|w| matches!(*w, "dry" | "cool" | "evaporate" | "weight" | "book"))
        && !scene.clauses.iter().any(|c| c.does(Act::Heat))
}
