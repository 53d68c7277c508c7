//! Which act is meant: what a verb tells depends on the half of the work, and "the lamp plug as well" has no verb.

use super::super::super::Act;
use super::super::grammar::Kind;
use super::super::names::name;
use super::super::phrases::Phrase;
use super::super::told::{Sentenced, Told};
use super::super::{Deed, Half};
use super::bench::Bench;

/// The act with the rule that read it; `None` where no act is told.
pub(super) fn meant(s: &Sentenced, a: &Told, half: Half, bench: &Bench, deeds: &[Deed]) -> Option<(Act, &'static str)> {
    let told = match half {
        // A button that is pressed lets go of something only while things come apart.
        Half::Together => a.together.or(a.apart.filter(|(_, why)| !why.starts_with("a button"))),
        // Nothing goes in while things come apart; what reads so is a knack or a tool.
        _ => a.apart.or(a.together.filter(|(act, _)| matches!(act, Act::Apply | Act::Adjust | Act::Transfer))),
    };
    told.or_else(|| (a.elliptic && !a.fragment).then(|| goes_on(s, a, half, bench, deeds)).flatten())
}

/// "And the lamp plug.": the act before, as it fits the thing named.
fn goes_on(s: &Sentenced, a: &Told, half: Half, bench: &Bench, deeds: &[Deed]) -> Option<(Act, &'static str)> {
    let parts = a.objects.iter().all(|o| o.kind == Kind::Part);
    // "Disconnect the battery, then the display, then the digitizer.": all in one breath.
    let listed = deeds.last().is_some_and(|d| d.sentence == s.number && d.because == "unplugged");
    if half == Half::Apart && parts && listed {
        return Some((Act::Disconnect, "unplugged"));
    }
    if half == Half::Apart && parts && deeds.last().is_some_and(|d| d.act == Act::Disconnect) {
        return None;
    }
    // "Connect the lamp plug. Push the slider home. Then the sensor.": the slider was only its latch.
    let latch = |o: &Phrase| matches!(o.kind, Kind::Latch | Kind::Lever);
    let latches = a.objects.iter().any(latch);
    let last = deeds.iter().rev().find(|d| latches || !matches!(d.act, Act::Close | Act::Release));
    // "Connect the display. Push both sliders home, evenly. One end alone, and it breaks. Then the sensor."
    const FAR: usize = 5;
    let pulled = |o: &Phrase| bench.pulled(&name(o)).is_some() && !bench.out.contains(&name(o));
    let goes_back = half == Half::Together && parts && !a.objects.is_empty() && a.objects.iter().all(pulled);
    if goes_back && last.is_some_and(|d| d.act == Act::Connect && (3..=FAR).contains(&(s.number - d.sentence))) {
        return Some((Act::Connect, "goes on with the plugs"));
    }
    let last = last.filter(|d| d.sentence + 2 >= s.number)?;
    let same_sentence = last.sentence == s.number;
    let last = last.act;
    let kind = a.objects.first().map(|o| o.kind);
    let out = a.objects.first().is_some_and(|o| bench.out.contains(&name(o)));
    let unplugged = a.objects.iter().all(|o| bench.pulled(&name(o)).is_some());
    let act = match (half, kind) {
        (Half::Together, Some(Kind::Screw)) => Act::Drive,
        (Half::Together, Some(Kind::Plug)) => Act::Connect,
        // "The coax leads. Then the trigger, the display.": plugs that were pulled.
        (Half::Together, Some(Kind::Part)) if !out && unplugged => Act::Connect,
        // What is out goes in, whatever was done before; but in "connect the digitizer first, then the display" the verb
        // of the sentence goes on.
        (Half::Together, Some(Kind::Part)) if out && !(same_sentence && last == Act::Connect) => Act::Install,
        (Half::Apart, Some(Kind::Part)) if last == Act::Unscrew => Act::Remove,
        (Half::Together, Some(Kind::Part)) if last == Act::Drive || last == Act::Connect && !same_sentence => {
            Act::Install
        }
        // Nothing is tried, waited for or noted by being named.
        (Half::Together, Some(Kind::Part)) if matches!(last, Act::Test | Act::Wait | Act::Mark | Act::PowerOn) => {
            return None;
        }
        (Half::Apart, Some(Kind::Tape | Kind::Film)) => Act::Peel,
        (Half::Apart, Some(Kind::Screw)) => Act::Unscrew,
        (Half::Apart, Some(Kind::Plug)) if matches!(last, Act::Disconnect | Act::Remove) => Act::Disconnect,
        _ => last,
    };
    Some((act, "goes on with the act before"))
}
