//! Which act a clause tells: the frame that fits its verb, its ways and its things, and what a construction makes of it.
//!
//! A frame (`grammar.toml`) knows a verb with its particles, kinds and places; what hangs on more than one clause, on what
//! moves by itself, or on how long a key is held stands in the table here.

use super::super::Act;
use super::super::extract::{drive_near, tools_named};
use super::super::facts::Drive;
use super::super::tags::Form;
use super::Half;
use super::clauses::{Clause, Mood};
use super::grammar::{Frame, GRAMMAR, Kind};
use super::phrases::Phrase;
use super::told::{Reader, Told, has};
use super::words::Word;
use crate::units::Quantity;
use compact_str::CompactString;

/// A clause with the things of one kind that it is done to.
struct Group<'a> {
    n: usize,
    c: &'a Clause,
    objects: Vec<Phrase>,
    told: Told,
}

/// What a construction makes of the act, in this order; a later one sees what an earlier one made.
const MENDS: &[fn(&Reader<'_>, &mut Group<'_>)] = &[
    under_it,
    pops_up,
    by_hand,
    unclips,
    door_slid,
    pressed_to_see,
    held_until_dark,
    held_until,
    iron_for,
    pliers_on,
    picture_of,
    taped_over,
    glasses_on,
    filled,
    turned_to_point,
    turned_home,
    tucked,
    held_for_seconds,
    laid_on_heat,
    heat_given,
    captive,
    laid_beside,
    in_turn,
    led_behind,
    goes_there,
    only_described,
    onto_the_new,
];

impl Reader<'_> {
    pub(super) fn verbal(&self, n: usize, c: &Clause) -> Vec<Told> {
        // "The board goes back the same way it came out."
        let which_way = c.from > 0 && self.words[c.from - 1].is("way");
        if which_way && !c.agent() && c.subjects.first().is_some_and(Phrase::is_pronoun) {
            return Vec::new();
        }
        if let Some(told) = self.begun(c).or_else(|| self.gone_round(c)) {
            return vec![told];
        }
        let Some((objects, told)) = self.done(n, c) else { return Vec::new() };
        let groups = grouped(c, objects);
        let several = groups.len() > 1;
        let named = |g: &Vec<Phrase>| !several || g.iter().any(|p| p.kind != Kind::Nothing);
        let acts = groups.into_iter().filter(named).filter_map(|objects| self.grouped_act(n, c, objects, told.clone()));
        let with_screws = acts.flat_map(|told| {
            let driven = self.driven_with_it(&told);
            [Some(told), driven]
        });
        with_screws.flatten().collect()
    }

    /// The act of one group; `None` where none is told.
    fn grouped_act(&self, n: usize, c: &Clause, objects: Vec<Phrase>, mut told: Told) -> Option<Told> {
        told.new = objects.iter().any(|o| o.new);
        // "Two plugs are on the back. Pull those off."
        let plugs = || objects.iter().find(|o| o.kind == Kind::Plug && o.count.is_some_and(|n| n > 1));
        let screws = objects.iter().find(|o| o.kind == Kind::Screw);
        told.count = screws.or_else(plugs).and_then(|o| o.count);
        // The clause tells the drive of the first of them.
        let other = |(drive, _): &(Drive, Option<String>)| told.drive.is_some_and(|first| first != *drive);
        if let Some((drive, bit)) = screws.and_then(its_drive).filter(other) {
            (told.drive, told.bit) = (Some(drive), bit);
        }
        told.apart = self.frame(c, Half::Apart, &objects).map(|f| (f.act, f.name.as_str()));
        told.together = self.frame(c, Half::Together, &objects).map(|f| (f.act, f.name.as_str()));
        let mut group = Group { n, c, objects, told };
        for mend in MENDS {
            mend(self, &mut group);
        }
        if later(&group) {
            return None;
        }
        let Group { objects, mut told, .. } = group;
        told.objects = objects;
        (told.apart.is_some() || told.together.is_some()).then_some(told)
    }

    /// "Install the fan with three screws.": fitted, and its screws driven.
    pub(super) fn driven_with_it(&self, told: &Told) -> Option<Told> {
        let fits = matches!(told.together, Some((Act::Install, _)))
            && told.objects.iter().any(|o| matches!(o.kind, Kind::Part | Kind::Pronoun));
        let (_, screws) = told.places.iter().find(|(p, np)| fits && p == "with" && np.kind == Kind::Screw)?;
        let part = told.objects.first()?.clone();
        let mut group = screws.clone();
        if part.kind == Kind::Part {
            group.of.push(part);
        }
        Some(Told {
            apart: None,
            together: Some((Act::Drive, "fitted with its screws")),
            count: screws.count,
            objects: vec![group],
            places: Vec::new(),
            ..told.clone()
        })
    }

    pub(super) fn frame(&self, c: &Clause, half: Half, objects: &[Phrase]) -> Option<&'static Frame> {
        let away =
            c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away" | "apart" | "loose" | "free"));
        let whose = |o: &Phrase| if o.kind == Kind::Nothing { o.of.first().map_or(o.kind, |p| p.kind) } else { o.kind };
        // An aerial that is unclipped or pressed on is its plug.
        let aerial = |o: &Phrase| {
            matches!(o.head(), "antenna" | "aerial")
                && matches!(
                    c.base.as_str(),
                    "pop" | "unclip" | "unsnap" | "unplug" | "press" | "snap" | "clip" | "click" | "push"
                )
        };
        // "Pop the little bar up on the connector."
        let by_plug = || ["connector", "socket", "flex", "ribbon", "cable"].iter().any(|w| has(self.text, w));
        let bar = |o: &Phrase| o.head() == "bar" && o.words.len() == 1 && by_plug();
        // "Detach the rocker key.": a part, where nobody presses it.
        let pressed = matches!(
            c.base.as_str(),
            "press" | "push" | "hold" | "hit" | "keep" | "squeeze" | "depress" | "test" | "try" | "check"
        );
        let whose = |o: &Phrase| match whose(o) {
            _ if aerial(o) => Kind::Plug,
            _ if bar(o) => Kind::Lever,
            Kind::Key if !pressed => Kind::Part,
            kind => kind,
        };
        let kind = objects.iter().map(whose).find(|k| !matches!(k, Kind::Nothing)).unwrap_or(if objects.is_empty() {
            Kind::None
        } else {
            Kind::Nothing
        });
        // "loosen but don't remove"
        let but =
            self.lemmas.get(c.to.saturating_sub(1)..).is_some_and(|rest| rest.iter().take(2).any(|w| *w == "but"));
        let to = if but { (c.to + 3).min(self.words.len()) } else { c.to };
        // "see if it heats"
        let asks = |w: &Word| w.is("if") || w.is("whether") || w.is("that") && c.order;
        let whether = c.base == "see" && self.words.get(to).is_some_and(asks);
        let to = to + usize::from(whether);
        let (from, to) = (c.from, to.max(c.from));
        let text = self.words[from..to].iter().map(|w| w.lemma.as_str()).collect::<Vec<_>>().join(" ");
        let said = self.words[from..to].iter().map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
        let places: Vec<String> = c.places.iter().map(|(p, np)| format!("{p} {}", np.words.join(" "))).collect();
        let mut particles = c.particles.clone();
        if c.places.iter().any(|(p, np)| p == "to" && np.head() == "side" && (np.definite || np.count == Some(1))) {
            particles.push("aside".into());
        }
        // "Turn it away from you": a way to turn, and nothing that leaves.
        if c.places.iter().any(|(p, np)| p == "from" && matches!(np.head(), "you" | "me" | "yourself" | "myself")) {
            particles.retain(|p| p != "away");
        }
        // "Turn the gear by hand, in and out.": it stays.
        if ["in", "out"].iter().all(|w| particles.iter().any(|p| p == w)) && c.base == "turn" {
            particles.clear();
        }
        let particles = &particles;
        // "The flex goes in underneath": comes off by nothing that goes in.
        let inwards = !away && particles.iter().any(|p| matches!(p.as_str(), "in" | "into" | "onto"));
        GRAMMAR.frames_of(&c.base).find(|f| {
            !(inwards && f.act == Act::Disconnect)
                && (f.particles.is_empty() || f.particles.iter().any(|p| particles.contains(p)))
                && !(away
                    && matches!(
                        f.act,
                        Act::Install | Act::Connect | Act::Drive | Act::Close | Act::Press | Act::Adjust
                    ))
                && (f.kinds.is_empty() && (kind != Kind::Nothing || matches!(f.act, Act::Heat | Act::Clean))
                    || f.kinds.contains(&kind))
                && (f.words.is_empty() || f.words.iter().any(|p| has(&text, p) || has(&said, p)))
                && !f.unless.iter().any(|p| has(&text, p))
                && (f.places.is_empty()
                    || f.places.iter().any(|p| places.iter().any(|q| has(q, p)) || particles.iter().any(|q| q == p)))
                && f.half.is_none_or(|only| (only == Half::Together) == (half == Half::Together))
        })
    }
}

/// "The two Phillips and the three star screws": each drive has its own driver.
fn two_drives(a: &Phrase, b: &Phrase) -> bool {
    let counted = |p: &Phrase| p.kind == Kind::Screw && p.count.is_some();
    let drive = |p: &Phrase| its_drive(p).map(|(drive, _)| drive);
    counted(a) && counted(b) && drive(a).is_some() && drive(b).is_some() && drive(a) != drive(b)
}

fn its_drive(screws: &Phrase) -> Option<(Drive, Option<String>)> {
    let words: Vec<&str> = screws.words.iter().map(CompactString::as_str).collect();
    drive_near(&words, 0, words.len())
}

/// "Put back the bumpers and the eight screws.": each kind of thing has its own act.
fn grouped(c: &Clause, objects: Vec<Phrase>) -> Vec<Vec<Phrase>> {
    // "Unplug the power and the aerial.": the device, and then its plugs.
    let mains = |o: &Phrase| c.base == "unplug" && matches!(o.head(), "power" | "mains") && o.words.len() == 1;
    // "Check the window and the cable.": one look.
    let looks = matches!(c.base.as_str(), "check" | "inspect" | "test" | "verify" | "confirm");
    let alike = |a: &Phrase, b: &Phrase| {
        let same = |kind: Kind| (a.kind == kind) == (b.kind == kind);
        let stuff = |p: &Phrase| matches!(p.kind, Kind::Glue | Kind::Material | Kind::Liquid | Kind::Tape);
        let beside = !matches!(c.base.as_str(), "put" | "apply" | "add") || stuff(a) == stuff(b);
        looks || same(Kind::Screw) && same(Kind::Plug) && beside && !two_drives(a, b)
    };
    let mut groups: Vec<Vec<Phrase>> = Vec::new();
    // "Connect all the flexes, five pieces.": how many, and nothing else.
    let several = objects.len() > 1;
    let pieces = |o: &Phrase| several && o.is_pronoun() && o.head() == "piece";
    for o in objects.into_iter().filter(|o| !pieces(o)) {
        let o = if mains(&o) { Phrase { kind: Kind::Device, ..o } } else { o };
        match groups.iter_mut().find(|g| alike(&g[0], &o)) {
            Some(g) => g.push(o),
            None => groups.push(vec![o]),
        }
    }
    if groups.is_empty() {
        groups.push(Vec::new());
    }
    // What they hold is said of the last.
    let held = groups.last().and_then(|g| g.first()).map(|o| o.of.clone()).unwrap_or_default();
    let bare = |o: &&mut Phrase| o.kind == Kind::Screw && o.of.is_empty();
    groups.iter_mut().flatten().filter(bare).for_each(|o| o.of.clone_from(&held));
    groups
}

/// "The speaker is glued down, so slide your pick under it.": the speaker.
fn under_it(r: &Reader<'_>, g: &mut Group<'_>) {
    if !matches!(g.told.apart, Some((Act::Pry, _))) {
        return;
    }
    let glued = |k: &Clause| k.passive && matches!(k.base.as_str(), "glue" | "stick" | "hold" | "tape" | "bond");
    if !r.clauses[..g.n].iter().any(glued) {
        return;
    }
    let below = |p: &str| matches!(p, "under" | "underneath" | "beneath" | "behind" | "below" | "into" | "along");
    for (_, np) in g.told.places.iter_mut().filter(|(p, np)| below(p) && np.is_pronoun()) {
        if let Some(thing) = r.meant(g.n, np, false).filter(|thing| thing.kind == Kind::Part && !thing.guess) {
            *np = thing;
        }
    }
}

/// "It pops up by itself.": nobody parts it.
fn pops_up(_: &Reader<'_>, g: &mut Group<'_>) {
    let somebody = g.c.agent() || g.c.order;
    let parted = matches!(g.told.apart, Some((Act::Pry, "bond parted"))) && !g.c.passive;
    // "It can be tipped up and drawn out.": on its way out.
    let tipped = matches!(g.told.apart, Some((Act::Open, "tipped up")));
    if (parted || tipped) && !somebody {
        g.told.apart = None;
    }
}

/// "Unscrew the nozzle by hand.": it has the thread itself, and comes off.
fn by_hand(_: &Reader<'_>, g: &mut Group<'_>) {
    let hand = g.c.places.iter().any(|(p, np)| p == "by" && np.head() == "hand");
    let off = g.c.particles.iter().any(|p| p == "off");
    let turned = g.c.base == "unscrew" && (hand || off) && g.objects.iter().any(|o| o.kind == Kind::Part);
    if turned && matches!(g.told.apart, Some((Act::Unscrew, _))) {
        g.told.apart = Some((Act::Remove, "unscrewed by hand"));
    }
}

/// "That just unclips.": off it is, where a thing does so.
fn unclips(r: &Reader<'_>, g: &mut Group<'_>) {
    let c = g.c;
    let alone = !r.clauses[..g.n].iter().any(|k| k.order);
    let itself = alone && !c.subjects.is_empty() && !c.agent() && !c.passive && c.form == Form::Third;
    // "The ball on top just unscrews."
    let unclips = matches!(c.base.as_str(), "unclip" | "unhook")
        || c.base == "unscrew" && c.places.iter().all(|(p, _)| p != "to");
    if itself && unclips && g.objects.iter().all(|o| o.kind != Kind::Latch) {
        g.told.apart = Some((Act::Remove, "comes off its clips"));
    }
}

/// "Slide the battery door down.": a door that is only slid is open; "off" and "out" it leaves.
fn door_slid(_: &Reader<'_>, g: &mut Group<'_>) {
    let door = g.objects.iter().any(|o| matches!(o.head(), "door" | "hatch" | "shutter" | "drawer"));
    let leaves = g.c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away"));
    let slid = matches!(g.c.base.as_str(), "slide" | "push") && !g.c.particles.is_empty() && !leaves;
    if door && slid && matches!(g.told.apart, Some((Act::Remove, _))) {
        g.told.apart = Some((Act::Open, "a door slid"));
    }
}

fn key_pressed(g: &Group<'_>) -> bool {
    let key = g.objects.iter().any(|o| o.kind == Kind::Key);
    key && matches!(g.c.base.as_str(), "press" | "push" | "hold")
}

/// "I press the button to see if it turns on."
fn pressed_to_see(r: &Reader<'_>, g: &mut Group<'_>) {
    const ON: [&str; 5] = ["turns on", "comes on", "lights up", "starts up", "turn on"];
    if key_pressed(g) && ON.iter().any(|p| has(r.text, p)) {
        g.told.together = Some((Act::PowerOn, "a key pressed to see it come on"));
    }
}

/// "Hold the key until the lamp goes out.", "Hold both down till it shuts down."
fn held_until_dark(r: &Reader<'_>, g: &mut Group<'_>) {
    let pressed =
        |o: &Phrase| matches!(o.kind, Kind::Key | Kind::Pronoun) || matches!(o.head(), "trigger" | "switch" | "rocker");
    let held = matches!(g.c.base.as_str(), "hold" | "press" | "push" | "keep");
    let up = g.told.particles.iter().any(|p| p == "up");
    // "Hold the side button and slide to turn it off."
    let off = |k: &Clause| {
        k.mood == Mood::Purpose
            && matches!(k.base.as_str(), "turn" | "switch" | "power" | "shut")
            && k.particles.iter().any(|p| p == "off" || p == "down")
    };
    let taps_off = ["power off", "shut down", "switch off"].iter().any(|p| has(r.text, p));
    let to_turn_off = || r.clauses[g.n + 1..].iter().take(2).any(off) || taps_off;
    if held && !up && g.objects.iter().any(pressed) && (r.until_dark(g.c) || to_turn_off()) {
        g.told.apart = Some((Act::PowerOff, "held until it is off"));
        g.told.together = g.told.apart;
    }
}

/// "Hold the lid until the light goes out."
fn held_until(_: &Reader<'_>, g: &mut Group<'_>) {
    let part = g.objects.iter().any(|o| o.kind == Kind::Part);
    if g.c.base == "hold" && part && g.told.together.is_none() && g.told.until.is_some() {
        g.told.together = Some((Act::Press, "held until it is done"));
    }
}

/// "I'll need the iron for these two wires."
fn iron_for(_: &Reader<'_>, g: &mut Group<'_>) {
    if matches!(g.told.apart, Some((Act::Desolder, "the iron needed"))) {
        let wires = |(p, np): &&(CompactString, Phrase)| matches!(p.as_str(), "for" | "on") && np.kind == Kind::Plug;
        match g.c.places.iter().find(wires) {
            Some((_, wires)) => g.objects = vec![wires.clone()],
            None => g.told.apart = None,
        }
    }
}

/// "Receiver lead tucked under its clips.": told so, it goes in; while things come apart, that is how it is.
fn tucked(r: &Reader<'_>, g: &mut Group<'_>) {
    if r.only_participle(g.c) {
        g.told.apart = None;
    }
}

/// "Take a picture of the way the ribbon's looped.": the ribbon is noted.
fn picture_of(r: &Reader<'_>, g: &mut Group<'_>) {
    let Some(picture) = g.objects.iter().find(|o| o.kind == Kind::Picture) else { return };
    let marks = matches!(g.told.apart, Some((Act::Mark, _)));
    let named = |p: &&Phrase| matches!(p.kind, Kind::Plug | Kind::Part) && p.definite;
    let of = picture.of.iter().find(named).cloned();
    let how = || {
        let next = r
            .clauses
            .get(g.n + 1)
            .filter(|k| matches!(k.base.as_str(), "be" | "loop" | "route" | "run" | "go" | "lie" | "sit"))?;
        next.subjects.last().filter(|s| named(s) && s.from > picture.from).cloned()
    };
    if let Some(thing) = of.or_else(how).filter(|_| marks) {
        g.objects = vec![thing];
    }
}

/// "heat tape", "packing tape": it keeps what is below from harm.
pub(super) fn covers(tape: &Phrase) -> bool {
    const KINDS: [&str; 9] =
        ["heat", "kapton", "polyimide", "masking", "packing", "packaging", "aluminium", "aluminum", "painter"];
    tape.kind == Kind::Tape && tape.head() == "tape" && tape.words.iter().any(|w| KINDS.contains(&w.as_str()))
}

/// "Put some kapton tape over the connector.": the connector is protected.
fn taped_over(r: &Reader<'_>, g: &mut Group<'_>) {
    if !g.objects.iter().any(covers) || !matches!(g.told.apart, Some((Act::Apply, _))) {
        return;
    }
    let over = |(p, _): &&(CompactString, Phrase)| matches!(p.as_str(), "over" | "across" | "around" | "on");
    let below: Vec<Phrase> = g.c.places.iter().filter(over).map(|(_, np)| np.clone()).collect();
    let below: Vec<Phrase> = r.named(g.n, g.c, &below).into_iter().filter(Phrase::is_thing).collect();
    if !below.is_empty() {
        g.told.apart = Some((Act::Protect, "taped over"));
        g.told.together = g.told.apart;
        g.objects = below;
    }
}

/// "Put some glasses on."
fn glasses_on(_: &Reader<'_>, g: &mut Group<'_>) {
    let glasses = |o: &Phrase| o.words.len() == 1 && o.said.last().is_some_and(|w| w == "glasses");
    let wears = matches!(g.c.base.as_str(), "put" | "wear" | "get" | "have") && g.c.places.is_empty();
    if let Some(o) = g.objects.iter_mut().find(|o| wears && glasses(o)) {
        o.kind = Kind::Strap;
        o.words = vec!["safety".into(), "glass".into()];
        o.said = vec!["safety".into(), "glasses".into()];
        g.told.apart = Some((Act::Protect, "worn"));
        g.told.together = g.told.apart;
    }
}

/// "I use needle nose pliers on the nuts."
fn pliers_on(_: &Reader<'_>, g: &mut Group<'_>) {
    let grips = |o: &Phrase| matches!(o.head(), "plier" | "pliers" | "wrench" | "spanner" | "socket");
    let on = g.c.places.iter().find(|(p, np)| matches!(p.as_str(), "on" | "for") && np.kind == Kind::Screw);
    let uses = matches!(g.c.base.as_str(), "use" | "need" | "take" | "put") && g.objects.iter().any(grips);
    if let Some((_, nuts)) = on.filter(|_| uses) {
        g.told.apart = Some((Act::Unscrew, "a tool on the nuts"));
        g.told.count = nuts.count;
        g.objects = vec![nuts.clone()];
    }
}

/// "Fill the housing one third with gear grease.": the grease goes on.
fn filled(_: &Reader<'_>, g: &mut Group<'_>) {
    if matches!(g.told.together, Some((Act::Apply, "filled with grease" | "greased"))) {
        let grease = g.c.places.iter().find(|(p, np)| p == "with" && np.kind == Kind::Material);
        if let Some((_, grease)) = grease {
            let on = std::mem::replace(&mut g.objects, vec![grease.clone()]);
            g.told.places.extend(on.into_iter().filter(|o| o.kind == Kind::Part).map(|o| ("on".to_owned(), o)));
        } else if g.c.base == "fill" || g.c.base == "pack" {
            g.objects.clear();
        }
    }
}

/// "Turn the left gear so that its dot points to the right."
fn turned_to_point(r: &Reader<'_>, g: &mut Group<'_>) {
    let points = |k: &Clause| matches!(k.base.as_str(), "point" | "line" | "meet" | "face" | "match" | "align");
    let so_that = r.clauses.get(g.n + 1).is_some_and(|k| matches!(k.mood, Mood::Reason | Mood::Until) && points(k));
    let turns = matches!(g.c.base.as_str(), "turn" | "rotate" | "move") && g.c.particles.is_empty();
    if turns && so_that && g.told.together.is_none() && g.objects.iter().any(|o| o.kind == Kind::Part) {
        g.told.together = Some((Act::Adjust, "turned until it points"));
    }
}

/// "Turn the ring until it clicks."
fn turned_home(_: &Reader<'_>, g: &mut Group<'_>) {
    let turns = matches!(g.c.base.as_str(), "turn" | "twist" | "rotate") && g.c.particles.is_empty();
    let home = g.told.until.as_ref().is_some_and(|u| ["click", "lock", "stop", "snap"].iter().any(|w| u.contains(w)));
    let turned = g.objects.iter().any(|o| matches!(o.kind, Kind::Part | Kind::Latch));
    if turns && home && turned && g.told.together.is_none() {
        g.told.together = Some((Act::Tighten, "turned home"));
    }
}

/// "Push the button for eight seconds."
fn held_for_seconds(_: &Reader<'_>, g: &mut Group<'_>) {
    let seconds = g.told.measures.iter().any(|m| m.quantity == Quantity::Duration && m.value >= 2.0);
    if key_pressed(g) && seconds {
        g.told.together = Some((Act::PowerOn, "a key held for seconds"));
    }
}

/// "Lay the lid on the hot plate.": what it is laid on warms it.
fn laid_on_heat(r: &Reader<'_>, g: &mut Group<'_>) {
    let heats = matches!(g.told.apart, Some((Act::Heat, _))) && g.told.by.is_none();
    let warm = |(_, p): &&(CompactString, Phrase)| p.kind == Kind::Heater;
    if let Some((_, p)) = g.c.places.iter().find(warm).filter(|_| heats) {
        g.told.by = tools_named(&r.lemmas[p.from..p.to]).into_iter().next();
    }
}

/// "Give some heat to it.": to what was spoken of.
fn heat_given(r: &Reader<'_>, g: &mut Group<'_>) {
    if !matches!(g.told.apart, Some((Act::Heat, _))) {
        return;
    }
    for (_, place) in g.told.places.iter_mut().filter(|(_, p)| p.is_pronoun()) {
        if let [meant] = &r.named(g.n, g.c, std::slice::from_ref(place))[..] {
            *place = meant.clone();
        }
    }
}

/// What stays in its part is loosened and tightened.
fn captive(_: &Reader<'_>, g: &mut Group<'_>) {
    if !g.objects.iter().any(|o| o.kind == Kind::Screw && o.words.iter().any(|w| w == "captive")) {
        return;
    }
    g.told.apart = g.told.apart.map(|(act, why)| (if act == Act::Unscrew { Act::Loosen } else { act }, why));
    g.told.together = g.told.together.map(|(act, why)| (if act == Act::Drive { Act::Tighten } else { act }, why));
}

/// "Put it with the spring.": laid beside what it belongs to.
fn laid_beside(_: &Reader<'_>, g: &mut Group<'_>) {
    let c = g.c;
    let beside = |(p, np): &(CompactString, Phrase)| p == "with" && np.kind == Kind::Part && np.definite;
    let put = c.base == "put" && c.particles.is_empty() && !c.places.is_empty() && c.places.iter().all(beside);
    if put && matches!(g.told.together, Some((Act::Install, _))) {
        g.told.apart = Some((Act::Mark, "laid beside its part"));
        g.told.together = g.told.apart;
    }
}

/// "The battery plug comes last.", "The two leads gotta go first."
fn in_turn(r: &Reader<'_>, g: &mut Group<'_>) {
    if !r.comes_in_turn(g.c) {
        return;
    }
    let plug = g.objects.iter().all(|o| o.kind == Kind::Plug);
    let (out, back) = if plug { (Act::Disconnect, Act::Connect) } else { (Act::Remove, Act::Install) };
    let must = |w: &Word| matches!(w.said.as_str(), "gotta" | "have" | "has" | "must" | "need" | "needs");
    let due = r.words[g.c.from..g.c.verb.unwrap_or(g.c.from)].iter().any(must);
    g.told.apart = (due && g.c.base != "be").then_some((out, "its turn to go"));
    g.told.together = Some((back, "its turn in the rebuild"));
}

/// "The leads go behind the post."
fn led_behind(r: &Reader<'_>, g: &mut Group<'_>) {
    if r.laid(g.c) {
        (g.told.apart, g.told.together) = (None, Some((Act::Route, "leads run behind something")));
    }
}

/// "It goes around the big pulley.": in the rebuild it is put there.
fn goes_there(_: &Reader<'_>, g: &mut Group<'_>) {
    // "The four long screws go in the corners.", which may be told to whoever takes them out.
    if g.c.screws_go(&g.objects) && g.c.particles.is_empty() {
        (g.told.apart, g.told.together) = (None, Some((Act::Drive, "screws go there")));
        g.told.presented = true;
        return;
    }
    const THERE: [&str; 10] = ["around", "over", "onto", "into", "under", "behind", "through", "on", "in", "between"];
    let parts = !g.objects.is_empty() && g.objects.iter().all(|o| o.kind == Kind::Part);
    // "The board drops over the posts."
    let lands = matches!(g.c.base.as_str(), "drop" | "slip" | "lower") && g.c.form == Form::Third;
    let goes = g.c.base == "go" && matches!(g.c.form, Form::Third | Form::Base) || lands;
    let goes = goes && g.told.together.is_none();
    let there = g.c.places.iter().any(|(p, np)| THERE.contains(&p.as_str()) && (np.is_thing() || np.head() == "lot"));
    if goes && parts && there {
        (g.told.apart, g.told.together) = (None, Some((Act::Install, "goes to its place")));
    }
}

/// "The board is screwed down.": while things come apart, that is how it is.
fn only_described(_: &Reader<'_>, g: &mut Group<'_>) {
    // "An opening tool is inserted into the joint.": no tool is there by itself.
    let tool = !g.objects.is_empty() && g.objects.iter().all(|o| o.kind == Kind::Opener);
    if g.told.state && !tool {
        g.told.apart = None;
    }
}

/// "Peel the mesh off and stick it on the new one."
fn onto_the_new(_: &Reader<'_>, g: &mut Group<'_>) {
    let new = |(p, np): &(CompactString, Phrase)| {
        np.new && np.is_pronoun() && matches!(p.as_str(), "on" | "onto" | "to" | "into")
    };
    let stays = |o: &Phrase| !o.new && !matches!(o.kind, Kind::Tape | Kind::Glue | Kind::Screw);
    let own = !g.objects.is_empty() && g.objects.iter().all(stays);
    if own && g.c.places.iter().any(new) && matches!(g.told.together, Some((Act::Install | Act::Press, _))) {
        g.told.together = Some((Act::Transfer, "put on the new one"));
        g.told.apart = g.told.together;
    }
}

/// "We'll put in a new one.": later.
fn later(g: &Group<'_>) -> bool {
    let one = !g.objects.is_empty() && g.objects.iter().all(|o| o.new && o.is_pronoun() || o.head() == "one");
    g.told.future && g.c.agent() && one && matches!(g.told.together, Some((Act::Install, _)))
}
