//! What settles an act beside its objects: what was told before, what cannot be, what another act is meant by.
//!
//! Ordered tables; a later rule sees what an earlier one made of the act. Above each stands what somebody says.

use super::super::super::Act;
use super::super::super::phrases::describes_cable;
use super::super::afterwards::{SHOWN, SHOWN_BACK};
use super::super::grammar::Kind;
use super::super::names::{is_cable, name};
use super::super::phrases::Phrase;
use super::super::told::{Told, has};
use super::super::turns::{IN_BY_NOW, NEXT};
use super::super::{Deed, Half};
use super::bench::Bench;
use super::case::{Case, is_turned, points};
use crate::units::Quantity;

pub(super) enum Rule {
    /// No act is told.
    Drop(fn(&Case, &Bench, &[Deed]) -> bool),
    /// The act, its half or its objects are other than they seem.
    Mend(fn(&mut Case, &mut Bench)),
}

/// Whether an act is left.
pub(super) fn pass(rules: &[Rule], c: &mut Case, bench: &mut Bench, deeds: &[Deed]) -> bool {
    rules.iter().all(|rule| match rule {
        Rule::Drop(told) => !told(c, bench, deeds),
        Rule::Mend(mend) => {
            mend(c, bench);
            true
        }
    })
}

use Rule::{Drop, Mend};

/// By the words alone, before it is known what "it" is.
pub(super) const BY_WORDS: &[Rule] = &[
    // "Turn the tap off first.": water, and no current.
    Mend(|c, _| {
        if c.act == Act::PowerOff && c.a.objects.iter().any(is_tap) {
            (c.act, c.because) = (Act::Close, "a tap shut off");
        }
    }),
    // "Turn the water back on.": a tap is opened.
    Mend(|c, _| {
        if c.act == Act::PowerOn && c.a.objects.iter().any(is_tap) {
            (c.act, c.because) = (Act::Open, "a tap turned on");
        }
    }),
    // "There's a spring that keeps the belt tight, and hook it.": unhook it, as it was heard.
    Mend(|c, _| {
        let hooks = c.a.objects.iter().all(|o| o.is_pronoun()) && !c.a.objects.is_empty() && c.says("and hook it");
        if c.act == Act::Install && c.apart() && hooks && c.a.particles.is_empty() {
            (c.act, c.because) = (Act::Release, "“and hook it” sounds like “unhook it”");
        }
    }),
    // "The motor, click.": its plug, where that was pulled and the motor stayed.
    Mend(|c, bench| {
        let pulled = |o: &Phrase| bench.pulled(&name(o)).is_some() && !bench.out.contains(&name(o));
        if c.because == "a part, and in" && c.a.objects.iter().all(pulled) {
            (c.act, c.because) = (Act::Connect, "a plug, and in");
        }
    }),
    // "Grasp the plug of the keys. And plug it, and the housing is free.": unplug it, as it was heard.
    Mend(|c, _| {
        let misheard = matches!(&c.s.words[..], [and, plug, it, ..] if and == "and" && plug == "plug" && it == "it");
        if c.act == Act::Connect && c.apart() && misheard && !c.with_particle(&["in", "back", "on"]) {
            (c.act, c.because) = (Act::Disconnect, "“and plug it” sounds like “unplug it”");
        }
    }),
    // "Grab the iron and take the two tabs off the board.": soldered off.
    Mend(|c, _| {
        let iron = c.a.by.as_deref() == Some("soldering iron") || c.says("grab the iron") || c.says("with the iron");
        let joined = |o: &Phrase| matches!(o.kind, Kind::Plug | Kind::Latch) && !o.is_pronoun();
        let off = matches!(c.act, Act::Remove | Act::Disconnect | Act::Release);
        if iron && off && c.apart() && !c.a.objects.is_empty() && c.a.objects.iter().all(joined) {
            (c.act, c.because) = (Act::Desolder, "taken off with the iron");
        }
    }),
    // "Take the heat gun and go around the edge.", "Give it thirty seconds.": warmed, and not parted.
    Mend(|c, _| {
        const WARM: [&str; 5] = ["heat gun", "hair dryer", "heating pad", "heating element", "oven"];
        let warm = c.a.by.as_deref().is_some_and(|t| WARM.contains(&t));
        let given = c.act == Act::Wait && c.says("give");
        if warm && (given || c.act == Act::Pry && c.because == "worked along") {
            (c.act, c.because) = (Act::Heat, "a warm tool led along");
        }
    }),
    // "Put in the card.": one that came out, and no tool.
    Mend(|c, bench| {
        let card = c.a.objects.first().filter(|o| c.act == Act::Pry && c.together() && o.kind == Kind::Opener);
        let own = card.and_then(|o| bench.out.iter().find(|w| w.split(' ').next_back() == Some(o.head())));
        if let Some(own) = own {
            c.act = Act::Install;
            c.what = vec![own.clone()];
        }
    }),
    // "This one has a left-hand thread, so you turn it clockwise.": how it turns.
    Drop(|c, _, _| c.because == "turned to come free" && c.a.objects.iter().any(|o| o.head() == "thread")),
    // "Turn the collar a quarter turn.": a thread, and no catch.
    Mend(|c, _| {
        let threaded = c.a.objects.iter().any(|o| matches!(o.head(), "collar" | "ring") && o.kind == Kind::Part);
        if threaded && c.because == "turned to come free" {
            c.act = if c.together() { Act::Tighten } else { Act::Loosen };
        }
    }),
    // "Let's take it apart.": what the whole recording does.
    Drop(|c, _, _| {
        let apart = ["take it apart", "take this apart", "take that apart"].iter().any(|w| c.says(w));
        c.act == Act::Remove && apart && c.points()
    }),
    // "Check check check.": of nothing.
    Drop(|c, _, _| {
        let checks = |o: &Phrase| o.words.iter().all(|w| w == "check");
        c.act == Act::Test && !c.a.objects.is_empty() && c.a.objects.iter().all(checks)
    }),
    // "Cotton swabs, because we'll clean a few things.": nothing is named.
    Drop(|c, _, _| ["few things", "some things", "couple of things"].iter().any(|w| c.says(w)) && c.points()),
    // "If you smell anything hot, pull the plug.": the device off the wall, in a trial.
    Mend(|c, _| {
        let smells = ["smell", "smoke", "sparks"].iter().any(|w| c.says(w));
        let plug = |o: &Phrase| o.kind == Kind::Plug && o.words.len() == 1;
        if c.act == Act::Disconnect && smells && c.a.objects.iter().all(plug) {
            (c.act, c.half) = (Act::Unplug, Half::Check);
        }
    }),
    // "Turn the shaft all the way round.": it stays where it is.
    Mend(|c, _| {
        if c.act == Act::Turn && c.a.objects.iter().any(is_turned) && !c.lies_on_its_face() {
            c.act = Act::Adjust;
        }
    }),
    // "Pull the cord out of the back.": off the mains, before anything is open.
    Mend(|c, bench| {
        let plug =
            |o: &Phrase| o.head() == "plug" && o.words.len() == 1 && o.definite && !o.stands && bench.plug.is_none();
        // "the pull cord" is no lead.
        let lead = |o: &Phrase| o.head() == "cord" && (o.words.len() == 1 || is_mains(&o.words[0]));
        let cord = |o: &Phrase| (lead(o) || plug(o)) && o.of.is_empty();
        let shut = bench.opened.is_empty() && bench.unplugged.is_empty();
        if c.act == Act::Disconnect && c.apart() && shut && !c.a.objects.is_empty() && c.a.objects.iter().all(cord) {
            c.act = Act::Unplug;
        }
    }),
    // "Taking the screws off the mat one at a time.": they were out.
    Drop(|c, _, _| {
        let kept = |np: &Phrase| matches!(np.head(), "mat" | "tray" | "cup" | "dish" | "magnet" | "bag" | "box");
        c.act == Act::Unscrew && c.a.places.iter().any(|(p, np)| p == "from" && kept(np))
    }),
    // "I'm just going around.": screws that were spoken of, and nothing that is parted.
    Drop(|c, _, deeds| {
        let turned =
            |d: &Deed| matches!(d.act, Act::Unscrew | Act::Loosen | Act::Tighten) && d.sentence + 2 >= c.s.number;
        let bare = c.a.by.is_none() && c.a.objects.is_empty() && c.a.places.is_empty();
        c.because == "worked along" && bare && deeds.last().is_some_and(turned)
    }),
    // "Unplug the fan.", of a desk fan that is whole: the device off the wall.
    Mend(|c, bench| {
        let it = |o: &Phrase| o.words.len() == 1 && Some(o.head()) == bench.titled.as_deref();
        let whole = bench.out.is_empty() && bench.opened.is_empty() && bench.screws.is_none();
        if c.act == Act::Disconnect
            && c.apart()
            && whole
            && c.says("unplug")
            && c.a.objects.iter().all(it)
            && !c.points()
        {
            c.act = Act::Unplug;
        }
    }),
    // "Unplugged. Filter cage off first.": the device off the wall.
    Mend(|c, bench| {
        let whole = bench.out.is_empty() && bench.opened.is_empty() && bench.screws.is_none() && bench.plug.is_none();
        if c.act == Act::Disconnect && c.apart() && whole && c.s.words.len() == 1 {
            c.act = Act::Unplug;
        }
    }),
    // "Disconnect the charger.": off the mains.
    Mend(|c, _| {
        let supply = |o: &Phrase| matches!(o.head(), "charger" | "adapter" | "mains");
        if c.act == Act::Disconnect && c.a.objects.iter().any(supply) {
            c.act = Act::Unplug;
        }
    }),
    // "That has to be pushed through too.": led through, and not unplugged.
    Drop(|c, _, _| c.act == Act::Disconnect && c.with_particle(&["through"]) && c.says("push")),
    // "Throw the old ones away.": when they are out.
    Drop(|c, _, _| c.act == Act::Remove && c.says("throw") && c.with_particle(&["away"])),
    // "They'll go back later.": not now.
    Drop(|c, _, _| c.a.future && c.says("back later")),
    // "Now back it goes, and I'll be quick.": the rebuild is announced.
    Drop(|c, _, _| c.act == Act::Install && c.s.turns && c.points() && c.says("back it goes")),
    // "Tighten.": of what, nobody knows.
    Drop(|c, _, _| c.act == Act::Tighten && c.a.objects.is_empty()),
    // "The back comes off to about 60 degrees.": it is opened.
    Mend(|c, _| {
        let stiff = c.a.objects.iter().all(|o| matches!(o.kind, Kind::Part | Kind::Pronoun));
        if c.act == Act::Remove && c.apart() && stiff && c.measured(Quantity::Angle) {
            c.act = Act::Open;
        }
    }),
    // "Go round a little at a time.": screws, and no pick.
    Drop(|c, _, _| {
        let nothing = c.a.objects.iter().all(|o| matches!(o.kind, Kind::Nothing | Kind::Pronoun));
        c.act == Act::Pry && c.because == "worked along" && c.together() && nothing && c.a.by.is_none()
    }),
    // "You are going to see a ring.", "Check which edition you have.": nothing is tried.
    Drop(|c, _, _| {
        c.act == Act::Test && ["going to see", "check which", "see which", "look which"].iter().any(|w| c.says(w))
    }),
    // "Six screws: here, here, and one more here.": pointed at, and counted before.
    Drop(|c, _, deeds| {
        let counted = |d: &Deed| d.act == c.act && d.count.is_some_and(|n| n > 1);
        c.a.elliptic && c.points() && deeds.last().is_some_and(counted) && c.says("here")
    }),
    // "There's a cable, so open it like a door.": what is in work, and no plug.
    Mend(|c, bench| {
        let work = bench.at.as_ref().filter(|at| !bench.out.contains(at));
        if let Some(at) = work.filter(|_| like_a_lid(c)) {
            c.act = Act::Open;
            c.what = vec![at.clone()];
        }
    }),
    Drop(|c, _, _| like_a_lid(c)),
    // "Then there's a single screw on this side.": shown while things go together, it goes in.
    Mend(|c, _| {
        let shown = c.act == Act::Unscrew && c.together() && c.a.presented && !c.a.hypothetical;
        let counted = c.a.count.is_some() && c.a.objects.iter().any(|o| o.kind == Kind::Screw && !o.definite);
        if shown && counted && c.because == SHOWN {
            (c.act, c.because) = (Act::Drive, SHOWN_BACK);
        }
    }),
    // "There are the four screws."
    Drop(|c, _, _| c.together() && c.a.presented && matches!(c.act, Act::Unscrew | Act::Disconnect | Act::Pry)),
];

/// The only one of them that goes by its last words: "the feet" are the rubber feet, "the display" the display assembly.
fn only_whole<'a>(names: impl IntoIterator<Item = &'a String>, short: &str) -> Option<&'a String> {
    let last = format!(" {short}");
    let bare = |name: &str| matches!(name.strip_prefix(short), Some(" assembly" | " unit" | " module"));
    let mut fits = names.into_iter().filter(|name| name.ends_with(&last) || bare(name));
    fits.next().filter(|one| fits.all(|other| other == *one))
}

/// "The back goes on.": the rear shell, the only back that is out.
fn the_back<'a>(names: impl IntoIterator<Item = &'a String>, name: &str) -> Option<&'a String> {
    const SHUTS: [&str; 9] = ["shell", "cover", "panel", "housing", "case", "lid", "plate", "half", "door"];
    let back = |name: &&String| {
        let last = name.rsplit(' ').next().unwrap_or(name);
        name.split(' ').any(|w| matches!(w, "rear" | "back")) && SHUTS.contains(&last)
    };
    let mut backs = names.into_iter().filter(back);
    backs.next().filter(|one| matches!(name, "back cover" | "rear cover") && backs.all(|other| other == *one))
}

/// Water or gas, and no current.
fn is_tap(o: &Phrase) -> bool {
    matches!(o.head(), "tap" | "valve" | "stopcock" | "water" | "gas")
}

fn is_mains(word: &str) -> bool {
    matches!(word, "power" | "mains" | "supply" | "wall" | "charging")
}

/// By what it is done to, and by what is on the bench.
pub(super) const BY_BENCH: &[Rule] = &[
    // "Screw the ball back on.": it came off by its own thread.
    Mend(|c, bench| {
        let with_screws = c.a.places.iter().any(|(p, np)| p == "with" && np.kind == Kind::Screw);
        let threaded = c.because == "screwed down" && c.together() && !c.bare() && all_out(c, bench) && !with_screws;
        if c.act == Act::Drive && threaded && !c.what.iter().any(|w| bench.unscrewed.contains_key(w)) {
            (c.act, c.because) = (Act::Install, "screwed on by its own thread");
        }
    }),
    // "Lift up the cage on the left side. It comes up pretty easily.": told already.
    Drop(|c, _, deeds| {
        let lifted = |d: &Deed| d.because.starts_with("lifted") && d.what == c.what && d.sentence + 1 >= c.s.number;
        c.because == "comes up" && deeds.last().is_some_and(lifted)
    }),
    // "Then the iron at three fifty. And off they come.": nobody takes off what heats, or wipes it.
    Drop(|c, _, _| {
        let heats = |w: &String| matches!(w.as_str(), "iron" | "soldering iron" | "heat gun" | "hot air gun");
        matches!(c.act, Act::Remove | Act::Install | Act::Clean | Act::Peel) && !c.bare() && c.what.iter().all(heats)
    }),
    // "The label faces you and the cable comes out at the left.": how it lies.
    Drop(|c, _, _| {
        const SIDES: [&str; 8] = ["left", "right", "top", "bottom", "side", "front", "back", "end"];
        let lies = |side: &&str| c.says(&format!("out at the {side}")) || c.says(&format!("out on the {side}"));
        c.act == Act::Disconnect && SIDES.iter().any(lies)
    }),
    // "The belt is off. Then it's four screws and the motor drops out.": screws hold nothing that is off already.
    Mend(|c, bench| {
        let announced = bench.due.is_some() && bench.due.as_ref() == c.what.first();
        let turned = matches!(c.act, Act::Unscrew | Act::Loosen) && !announced;
        if turned && c.apart() && !c.bare() && all_out(c, bench) {
            c.what.clear();
        }
    }),
    // "Put the lid down.": it stood open, and hung on.
    Mend(|c, bench| {
        let open = |w: &String| bench.opened.contains(w) && !bench.out.contains(w);
        let down = c.act == Act::Install && c.with_particle(&["down"]);
        if down && c.together() && !c.a.new && !c.bare() && c.what.iter().all(open) {
            c.act = Act::Close;
        }
    }),
    // "So flip it back up.": the device, where nothing stands open.
    Mend(|c, bench| {
        let flipped = c.because == "folded back" && ["flip it back", "turn it back"].iter().any(|w| c.says(w));
        if flipped && c.together() && c.points() && !c.what.iter().any(|w| bench.opened.contains(w)) {
            c.act = Act::Turn;
            c.what = bench.device.clone().into_iter().collect();
        }
    }),
    // "Plug it in and hit the button.": the device, where no plug of that name was pulled.
    Mend(|c, bench| {
        let it = c.a.objects.iter().all(|o| o.is_pronoun() || o.stands && o.kind == Kind::Part);
        let pulled = c.what.iter().any(|w| bench.unplugged.contains(w) || bench.desoldered.contains(w));
        // "Put the new pack in. Plug it in. Close the lid.": what has a plug of its own.
        let own = |w: &str| {
            matches!(w, "battery" | "pack" | "cell" | "fan" | "motor" | "sensor" | "screen" | "display" | "camera")
        };
        let fitted = c.what.iter().any(|w| bench.fitted.as_ref() == Some(w) && w.rsplit(' ').next().is_some_and(own));
        let pulled = pulled || fitted;
        if c.act == Act::Connect && c.together() && c.says("plug it in") && it && !pulled {
            c.because = "into the wall";
            c.what.clear();
        }
    }),
    // "Use a plastic tool to pop the cover off.": parted, and off.
    Mend(|c, _| {
        let popped =
            c.because == "taken off by lifting" && (c.says("pop") || c.says("snap")) && c.with_particle(&["off"]);
        if c.act == Act::Remove && c.apart() && thin(c) && popped {
            c.act = Act::Pry;
        }
    }),
    // "Hold the side button and slide to turn it off.": off once.
    Drop(|c, _, deeds| {
        let off = |d: &Deed| d.act == Act::PowerOff && d.sentence == c.s.number;
        c.act == Act::PowerOff && deeds.last().is_some_and(off)
    }),
    // "Lift off the upper shell slowly, the switch is fixed to it by three leads.": it hangs on.
    Mend(|c, _| {
        let cable = ["lead", "leads", "cable", "cables", "wires", "ribbon", "flex"].iter().any(|w| c.says(w));
        let hangs = ["to it by", "to it with", "to it via"].iter().any(|w| c.says(w));
        if c.act == Act::Remove && c.apart() && cable && hangs {
            c.act = Act::Open;
        }
    }),
    // "Try it.": a trial.
    Mend(|c, bench| {
        if c.act == Act::Test {
            c.half = Half::Check;
            bench.power_trial |= c.told_half == Half::Together;
        }
    }),
    // "The book is out.": talk, where nothing was done yet.
    Drop(|c, _, deeds| c.a.result && deeds.is_empty() && !(c.screws() && c.a.count.is_some())),
    // "Switch it on and see.": a trial, else the end of the rebuild.
    Mend(|c, bench| {
        if c.act == Act::PowerOn {
            bench.power_trial = true;
            c.half = if tried(c) || c.apart() { Half::Check } else { Half::Together };
        }
    }),
    // "It works, so unplug it again.": the trial is over.
    Mend(|c, bench| {
        let it = c.a.objects.first().is_some_and(points);
        if c.act == Act::Disconnect && bench.power_trial && it && c.says("again") {
            (c.act, c.half) = (Act::Unplug, Half::Check);
            c.what = bench.device.clone().into_iter().collect();
        }
    }),
    // "Plug it in. … Unplug it again.": the device.
    Mend(|c, bench| {
        let it = c.a.objects.first().is_some_and(points);
        if c.act == Act::Disconnect && bench.live && it && c.says("again") {
            (c.act, c.half) = (Act::Unplug, Half::Check);
            c.what = bench.device.clone().into_iter().collect();
        }
    }),
    // "Switch it off again.": the trial is over.
    Mend(|c, bench| {
        if c.act == Act::PowerOff && bench.power_trial {
            c.half = Half::Check;
        }
    }),
    // "With the lid off.": told before.
    // "Take the blade off. Set the blade somewhere safe.": only where it lies.
    Drop(|c, bench, _| {
        let lies = c.a.result || c.because == "put somewhere safe";
        lies && c.act == Act::Remove && c.what.iter().any(|w| bench.out.contains(w))
    }),
    // "After the plug is pulled.": tells when, and not which plug.
    Drop(|c, _, _| {
        let unnamed = |o: &Phrase| o.kind == Kind::Plug && o.words.iter().all(|w| describes_cable(w));
        c.a.result && c.act == Act::Disconnect && c.a.objects.iter().all(unnamed)
    }),
    // "After the sensor has been moved.": tells when.
    Drop(|c, _, _| c.a.result && c.act == Act::Adjust),
    // "Now that the fan is plugged in.": told before.
    Drop(|c, _, deeds| {
        let same = |d: &Deed| d.act == c.act && d.half == c.half && d.what == c.what;
        c.a.result && !c.bare() && deeds.iter().rev().take(12).any(same)
    }),
    // "Undo the four screws. … With the four screws out, turn it over."
    Drop(|c, _, deeds| {
        let same = |d: &Deed| d.act == c.act && d.half == c.half && d.screws().iter().any(|g| g.count == c.a.count);
        c.a.result && c.act == Act::Unscrew && c.a.count.is_some() && deeds.iter().rev().take(12).any(same)
    }),
    // "When the cell is disconnected.": told before, by a longer name.
    Drop(|c, _, deeds| {
        let longer = |d: &Deed| d.what.iter().any(|w| c.what.iter().any(|v| w.starts_with(v.as_str())));
        c.a.result && c.act == Act::Disconnect && deeds.iter().rev().take(4).any(|d| d.act == c.act && longer(d))
    }),
    // "Take the lid off the bench and slide it on.": it was off.
    Drop(|c, bench, _| c.act == Act::Remove && c.told_half == Half::Together && !c.bare() && all_out(c, bench)),
    // "Unlock the plugs of the lamp and the keypad. Pull both cables out."
    Drop(|c, _, deeds| {
        let both =
            |o: &Phrase| o.kind == Kind::Plug && o.count == Some(2) && o.words.iter().all(|w| describes_cable(w));
        let undone = |d: &Deed| d.act == Act::Disconnect && d.what.len() == 2 && d.half == c.half;
        c.act == Act::Disconnect
            && !c.a.objects.is_empty()
            && c.a.objects.iter().all(both)
            && deeds.last().is_some_and(undone)
    }),
    // "Lift the board and turn it over.": it is still in hand.
    Drop(|c, _, _| {
        let turned = |b: &Told| b.apart.is_some_and(|(act, _)| act == Act::Turn);
        c.act == Act::Remove && c.because == "lifted" && c.s.acts.iter().any(turned)
    }),
    // "It comes out with the diffuser.": says of the part just taken out that it is.
    Drop(|c, bench, deeds| {
        let announced = bench.due.is_some() && bench.due.as_ref() == c.what.first();
        let just_now =
            |d: &Deed| d.act == Act::Remove && d.what == c.what && c.s.number == d.sentence + 1 && !announced;
        c.act == Act::Remove && !c.bare() && c.a.objects.iter().any(points) && deeds.last().is_some_and(just_now)
    }),
    // "Remove.": of what, nobody knows.
    Drop(|c, _, _| c.act == Act::Remove && c.a.objects.is_empty() && c.a.particles.is_empty()),
    // "Lift out.": what is in work.
    Mend(|c, bench| {
        if c.act == Act::Remove && c.a.objects.is_empty() {
            c.what.extend(bench.at.clone());
        }
    }),
    // "Two bolts hold the bracket. It comes right up.": with its screws out, off.
    Mend(|c, bench| {
        let screws_out = !c.bare() && bench.screws.as_ref() == c.what.first();
        // "One screw, unscrew it. After that you can pull up the cover."
        let screws_out = screws_out || !c.bare() && bench.undone.is_some_and(|at| c.s.number <= at + 1);
        if c.act == Act::Open && c.apart() && c.because == "lifted up" && screws_out {
            c.act = Act::Remove;
        }
    }),
    // "Lift the housing until the cables can be reached.": no further as yet.
    Mend(|c, _| {
        const REACHED: [&str; 8] =
            ["can be reached", "can reach", "can see", "can be seen", "get at", "get to", "tight", "taut"];
        let reached = c.a.until.as_ref().is_some_and(|u| REACHED.iter().any(|r| u.contains(r)));
        if c.act == Act::Remove && c.apart() && reached {
            c.act = Act::Open;
        }
    }),
    // "Unplug the fan.", of a "tower fan", while nothing is open yet: the device.
    Mend(|c, bench| {
        let inside = |w: &str| matches!(w, "battery" | "pack" | "screen" | "display" | "cable" | "cord" | "lead");
        let titled = |w: &String| !w.contains(' ') && !inside(w) && has(&bench.title, w);
        let shut =
            bench.out.is_empty() && bench.opened.is_empty() && bench.unplugged.is_empty() && bench.screws.is_none();
        let plain = c.because == "unplugged" && c.apart() && shut && c.a.places.is_empty();
        if c.act == Act::Disconnect && plain && c.what.len() == 1 && c.what.iter().all(titled) {
            c.act = Act::Unplug;
        }
    }),
    // "Unplug it first.": nothing is open yet, so it is the device.
    Mend(|c, bench| {
        if c.act == Act::Disconnect
            && c.bare()
            && c.points()
            && c.apart()
            && bench.out.is_empty()
            && bench.plug.is_none()
        {
            c.act = Act::Unplug;
        }
    }),
    // "Twist the ring clockwise until it locks.": what turns to come free turns home.
    Mend(|c, bench| {
        let turned = matches!(c.because, "turned to come free" | "pushed along to come free");
        if c.act == Act::Release && c.together() && turned {
            c.act = if all_out(c, bench) { Act::Install } else { Act::Close };
        }
    }),
    // "Make sure it is off.": looked at before it is taken apart.
    Drop(|c, _, _| c.act == Act::Test && c.a.making_sure && (c.apart() || c.told_half == Half::Apart)),
    // "Make sure the arrow points up.": set right, and only in the rebuild.
    Mend(|c, _| {
        if c.act == Act::Test && c.a.making_sure {
            (c.act, c.half) = (Act::Adjust, Half::Together);
        }
    }),
    // "Open the case with a pick, scrape under the pad.": parted.
    Mend(|c, _| {
        let below = |p: &str| matches!(p, "under" | "underneath" | "behind");
        // "With a spatula we lift it from the edge."
        let at_edge = |np: &Phrase| matches!(np.head(), "edge" | "corner" | "side" | "end");
        let lifted = c.because == "lifted" && c.a.places.iter().any(|(p, np)| p == "from" && at_edge(np));
        let parted = lifted || c.act == Act::Open || c.act == Act::Clean && c.a.places.iter().any(|(p, _)| below(p));
        if c.apart() && thin(c) && parted {
            c.act = Act::Pry;
        }
    }),
    // "A spudger under the plug.": undoes the plug.
    Mend(|c, _| {
        let under = |p: &str| matches!(p, "under" | "underneath" | "beneath" | "below" | "between");
        let plug = c.a.places.iter().any(|(p, np)| np.kind == Kind::Plug && under(p))
            || c.a.objects.iter().any(|o| o.kind == Kind::Plug);
        if c.act == Act::Pry && plug {
            c.act = Act::Disconnect;
        }
    }),
    // "Put it aside.": it came off before.
    Drop(|c, _, deeds| {
        let cable = c.what.iter().all(|w| w.rsplit(' ').next().is_some_and(is_cable));
        let off =
            |d: &&Deed| matches!(d.act, Act::Remove | Act::Peel | Act::Clean) || d.act == Act::Disconnect && cable;
        let last = || deeds.iter().rev().take(2).filter(off);
        c.act == Act::Remove && c.a.aside && last().any(|d| d.what == c.what || c.bare())
    }),
    // "The new module goes in.": in the place of the storage module that came out.
    Mend(|c, bench| {
        if c.act == Act::Install && c.a.new && c.together() {
            for w in c.what.iter_mut().filter(|w| !w.contains(' ') && !bench.out.contains(w)) {
                let same = |o: &&String| o.ends_with(&format!(" {w}"));
                let last = bench.last_out.as_ref().filter(same);
                let mut out = bench.out.iter().filter(same);
                let only = match (out.next(), out.next()) {
                    (one, None) => one,
                    _ => None,
                };
                if let Some(old) = last.or(only) {
                    w.clone_from(old);
                }
            }
        }
    }),
    // "Stick the feet back on.": the rubber feet, the only ones that are out.
    Mend(|c, bench| {
        let fits = matches!(c.act, Act::Install | Act::Drive | Act::Close | Act::Press) && c.together() && !c.a.new;
        for w in c.what.iter_mut().filter(|w| fits && !bench.is_off(w)) {
            let whole = only_whole(&bench.out, w)
                .or_else(|| only_whole(bench.unscrewed.keys(), w))
                .or_else(|| the_back(&bench.out, w));
            if let Some(whole) = whole {
                w.clone_from(whole);
            }
        }
    }),
    // "The board.": the main board, where only one is named.
    Mend(|c, bench| {
        for w in c.what.iter_mut().filter(|_| !c.a.new) {
            bench.full_name(w);
        }
    }),
    // "Grab the new battery, line it up and press it on.": with that it is in.
    Mend(|c, bench| {
        if c.act == Act::Adjust && c.together() && c.with_particle(&["up"]) && !c.bare() && all_out(c, bench) {
            c.act = Act::Install;
        }
    }),
    // "Push the hoses back on.": what was unplugged is plugged in.
    Mend(|c, bench| {
        let was_plugged = !c.bare() && c.what.iter().all(|w| bench.unplugged.contains(w) && !bench.out.contains(w));
        if c.act == Act::Install && c.together() && was_plugged && !laid_on_tape(c) {
            c.act = Act::Connect;
        }
    }),
    // "They're soldered, so the iron goes on and off they come."
    Mend(|c, bench| {
        let iron = c.says("solder") && c.says("iron");
        if matches!(c.act, Act::Disconnect | Act::Remove) && c.apart() && iron {
            c.act = Act::Desolder;
        }
        let soldered = c.what.iter().all(|w| bench.desoldered.contains(w));
        if c.act == Act::Connect && c.together() && soldered && !c.bare() {
            c.act = Act::Solder;
        }
    }),
    // "The coil flex, the battery and the plate go back on.": the battery never left, only its plug is off.
    Mend(|c, bench| {
        let goes = matches!(c.because, "put in" | "not to be forgotten" | "a part in, without a verb" | NEXT);
        let lid = |w: &str| matches!(w, "cover" | "shell" | "lid" | "housing" | "panel" | "case" | "half" | "plate");
        let shuts = |w: &String| w.rsplit(' ').next().is_some_and(lid);
        let out = |w: &String| bench.out.contains(w) || bench.unscrewed.contains_key(w);
        let stays = |w: &String| !laid_on_tape(c) && !out(w) && !shuts(w) && bench.pulled(w).is_some();
        if c.act == Act::Install && c.together() && goes && !c.bare() && !c.a.new && c.what.iter().all(stays) {
            c.act = Act::Connect;
        }
    }),
    // "We reconnect the keyboard, then the trackpad, and the battery comes last."
    Mend(|c, _| {
        let connects = |b: &Told| matches!(b.together, Some((Act::Connect, _)));
        if c.act == Act::Install && c.because == "its turn in the rebuild" && c.s.acts.iter().any(connects) {
            c.act = Act::Connect;
        }
    }),
    // "Battery off again.": it was only plugged in.
    Mend(|c, bench| {
        let plugged = |w: &String| bench.connected.as_ref() == Some(w);
        if c.act == Act::Remove && c.because == "a part out, without a verb" && !c.bare() && c.what.iter().all(plugged)
        {
            c.act = Act::Disconnect;
        }
    }),
    // "Stick it on the new one.": goes into what is built.
    Mend(|c, _| {
        if c.act == Act::Transfer && c.apart() {
            c.half = Half::Together;
        }
    }),
    // "Unclip the aerial, press the antenna on.": its plug.
    Mend(|c, _| {
        if !c.bare() && c.what.iter().all(|w| w.ends_with("antenna") || w.ends_with("aerial")) {
            c.act = match c.act {
                Act::Release => Act::Disconnect,
                Act::Press => Act::Connect,
                act => act,
            };
        }
    }),
    // "Put the batteries in and try it.": the device, and no cable.
    Mend(|c, _| {
        let cable = |w: &String| w.rsplit(' ').next().is_some_and(is_cable);
        if c.act == Act::Test && c.points() && c.what.iter().all(cable) {
            c.what.clear();
        }
    }),
    // "Route.": nothing named and nothing in work.
    Drop(|c, _, _| {
        c.bare() && !stands_alone(c.act) && !tries_all(c) && c.because != "a picture taken" && !looks_at_it(c)
    }),
    // "The last thing is the lid.", "Once the cell's in, …": only what is out goes in.
    Drop(|c, bench, _| {
        let told = c.because == NEXT || c.because == IN_BY_NOW;
        told && !c.a.new && !c.screws() && !c.what.iter().any(|w| bench.is_off(w))
    }),
    // "Put it all back together.": summed up.
    Drop(|c, _, _| c.act == Act::Install && c.with_particle(&["together"]) && c.points()),
    // "You have to take off everything we just did."
    Drop(|c, _, _| {
        c.a.objects.iter().any(|o| o.is_pronoun() && matches!(o.head(), "everything" | "anything" | "nothing"))
    }),
    // "Everything goes back together.": summed up.
    Drop(|c, _, _| c.bare() && c.a.objects.iter().any(|o| matches!(o.head(), "everything" | "all"))),
    // "Press.": on what, nobody knows.
    Drop(|c, _, _| {
        c.bare() && c.a.objects.is_empty() && matches!(c.act, Act::Install | Act::Press | Act::Peel | Act::Adjust)
    }),
];

/// "We check.", "Try it.", "Let's see if it heats.", "Carry out a function test.": of the device.
fn tries_all(c: &Case) -> bool {
    let sees = ["see if it", "see whether it"].iter().any(|w| c.says(w));
    let short = c.s.words.len() <= 3 || !c.a.objects.is_empty() && c.points();
    c.act == Act::Test && (c.because == "a test run" || c.told_half == Half::Together && (sees || short))
}

/// "Check that it sits flat.", "Give it a quick spin to see that nothing rubs."
fn looks_at_it(c: &Case) -> bool {
    let it = ["check it", "check that it", "check if it", "verify that it", "and see that"].iter().any(|w| c.says(w));
    let alone = matches!(c.because, "given a tug" | "run for a while");
    c.act == Act::Test && c.told_half == Half::Together && (it && !c.says("it has") || alone)
}

fn like_a_lid(c: &Case) -> bool {
    let like =
        ["like a door", "like a book", "like door", "like a lid", "like a clam", "like a shell", "like the cover of"]
            .iter()
            .any(|w| c.says(w));
    c.act == Act::Disconnect && c.points() && like
}

/// Done with a tool that parts joints.
fn thin(c: &Case) -> bool {
    const THIN: [&str; 6] = ["opening pick", "pry tool", "spudger", "knife", "spatula", "steel strip"];
    c.a.by.as_deref().is_some_and(|t| THIN.contains(&t))
}

/// "The battery goes back on the same tape.": it did leave, whatever was heard of that.
fn laid_on_tape(c: &Case) -> bool {
    c.a.places.iter().any(|(p, np)| p == "on" && matches!(np.kind, Kind::Tape | Kind::Glue))
}

fn all_out(c: &Case, bench: &Bench) -> bool {
    c.what.iter().all(|w| bench.out.contains(w))
}

fn tried(c: &Case) -> bool {
    c.s.acts.iter().any(|b| b.apart.is_some_and(|(act, _)| act == Act::Test))
        || ["see if", "check", "work", "test", "whether"].iter().any(|w| c.says(w))
}

/// Acts that tell something without a thing: "wait", "two more screws", "heat again".
fn stands_alone(act: Act) -> bool {
    matches!(
        act,
        Act::Pry
            | Act::Wait
            | Act::PowerOff
            | Act::PowerOn
            | Act::Unplug
            | Act::Turn
            | Act::Protect
            | Act::Clean
            | Act::Unscrew
            | Act::Loosen
            | Act::Drive
            | Act::Tighten
            | Act::Disconnect
            | Act::Connect
            | Act::Heat
            | Act::Press
            | Act::Remove
            | Act::Install
            | Act::Peel
            | Act::Measure
    )
}
