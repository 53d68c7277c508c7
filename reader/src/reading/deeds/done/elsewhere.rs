//! What was done another time or to another device, what somebody only meant to do, and how things work: told in the same
//! words as what hands do now, and no act of this recording.

use super::super::super::tags::Form;
use super::super::clauses::{Clause, Mood};
use super::super::grammar::Kind;
use super::super::phrases::Phrase;
use super::super::told::{Reader, has};
use super::Sign;

/// Signs that what a clause tells is not done here and now.
pub(super) const ELSEWHERE: &[Sign] = &[
    another_time,
    another_device,
    makers,
    what_happens,
    online,
    only_meant,
    regretted,
    later_on,
    by_hearsay,
    not_today,
    to_and_fro,
    plugs_in_there,
    shown_again,
    slipped,
    careless,
    where_it_was,
    needless,
];

fn says(r: &Reader<'_>, phrases: &[&str]) -> bool {
    phrases.iter().any(|p| has(r.text, p))
}

fn before_verb<'a>(r: &'a Reader<'_>, c: &Clause) -> impl Iterator<Item = &'a str> {
    r.words[c.from..c.verb.unwrap_or(c.from)].iter().map(|w| w.said.as_str())
}

/// "In the last video we removed the heater.", "We took it off the way you see in our lid video."
fn another_time(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    const THEN: [&str; 19] = [
        "last year",
        "last month",
        "last week",
        "last time",
        "last video",
        "in the last part",
        "previous video",
        "in the previous part",
        "other video",
        "earlier video",
        "another video",
        "a lot of these",
        "many of these",
        "to sum up",
        "to recap",
        "on this channel",
        "over the years",
        "in the past",
        "back then",
    ];
    let our_video = || ["in", "from"].iter().any(|p| c.places.iter().any(|(q, np)| q == p && np.head() == "video"));
    let told = (c.form == Form::Past || c.perfect) && (c.agent() || c.passive) && !c.order;
    // "I've cleaned it a few times."; but "I wiped it a few times" is done.
    let often = c.perfect && c.agent() && says(r, &["a few times", "many times"]);
    // "This one has been opened before."
    let once = c.passive && c.perfect && r.text.ends_with(" before");
    // "I measured it before, it's two hundred ohms."
    let earlier = r.words.iter().any(|w| w.is("before") && w.pause) && c.form == Form::Past && c.agent();
    once || often || earlier || told && (says(r, &THEN) || our_video() || r.clauses.iter().any(shows_a_video))
}

fn shows_a_video(c: &Clause) -> bool {
    c.base == "see" && c.places.iter().any(|(p, np)| p == "in" && np.head() == "video")
}

/// "On some of these the cover slides off.", "The old style had a clip that came off."
fn another_device(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    const OTHERS: [&str; 12] = [
        "on some of these",
        "on some of those",
        "some of these have",
        "one of these last",
        "the newer ones",
        "the older ones",
        "other models",
        "newer models",
        "older models",
        "some models",
        "the old style",
        "the old model",
    ];
    !c.order && says(r, &OTHERS)
}

/// "They put a lot of glue on this.": the makers, and nobody here.
fn makers(_: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let others = |head: &str| matches!(head, "they" | "somebody" | "someone");
    let they = c.subjects.last().filter(|s| others(s.head()) && c.verb == Some(s.to));
    let made = matches!(c.base.as_str(), "put" | "glue" | "use" | "add" | "solder" | "change" | "fit");
    they.is_some() && made && !c.objects.is_empty()
}

/// "What usually happens is that the hose comes off.", "It goes off as soon as you open the door."
fn what_happens(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let by_itself = !c.agent() && !c.order && c.form == Form::Third;
    let turns = matches!(c.base.as_str(), "turn" | "switch" | "go" | "shut");
    by_itself && (says(r, &["usually happens", "happens is"]) || turns && says(r, &["as soon as", "when you"]))
}

/// "You can pull up the parts list on our site."
fn online(_: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let site = |p: &str| matches!(p, "site" | "website" | "webpage" | "channel" | "app");
    c.places.iter().any(|(p, np)| matches!(p.as_str(), "on" | "from") && site(np.head()))
}

/// "I was going to pull the drum, but there's no need."
fn only_meant(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let was = before_verb(r, c).any(|w| matches!(w, "was" | "were"));
    // "At first I wanted to unscrew the back."
    let wanted = c.agent() && says(r, &["at first", "first thought"]) && before_verb(r, c).any(|w| w == "wanted");
    wanted || was && before_verb(r, c).any(|w| w == "going") && before_verb(r, c).any(|w| w == "to")
}

/// "I should have unplugged it first."
fn regretted(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let should = before_verb(r, c).any(|w| matches!(w, "should" | "could" | "would" | "might"));
    c.agent() && should && before_verb(r, c).any(|w| matches!(w, "have" | "'ve"))
}

/// "Later on we're going to pull the drum."
fn later_on(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    // "The film is removed only after the test."
    let not_before = c.passive && !c.order && says(r, &["only after", "only when"]);
    let later = says(r, &["later on", "in the next video", "in the next part"]);
    not_before || c.agent() && later && before_verb(r, c).any(is_future)
}

fn is_future(word: &str) -> bool {
    matches!(word, "will" | "'ll" | "going" | "gonna")
}

/// "According to the manual you slide it to the left.", "You've seen me take out the pump."
fn by_hearsay(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let seen = n > 0 && r.clauses[n - 1].base == "see" && r.clauses[n - 1].perfect && r.clauses[n - 1].agent();
    !c.order && r.text.starts_with("according to") || seen
}

/// "It needs cleaning, but not today."
fn not_today(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    !c.order && says(r, &["not today", "another day", "some other time"])
}

/// "The filter slides in and out on these rails."
fn to_and_fro(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let Some(verb) = c.verb.filter(|_| !c.agent() && !c.order && c.form == Form::Third) else { return false };
    let behind: Vec<&str> = r.words[verb + 1..].iter().take(3).map(|w| w.said.as_str()).collect();
    matches!(behind.as_slice(), [a, "and", b] if matches!((*a, *b), ("in", "out") | ("up", "down") | ("on", "off")))
}

/// "The wire comes off of this corner and plugs in down here.": where it runs.
fn plugs_in_there(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let wire = c.subjects.last().is_some_and(|s| s.kind == Kind::Plug && !s.is_pronoun());
    let runs = c.base == "come" && wire && c.form == Form::Third;
    runs && says(r, &["and plugs in", "and plugs into", "and goes to", "and goes into", "and goes down", "and runs"])
}

/// "There are the four screws that I took out."
fn shown_again(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let shows = n > 0 && r.clauses[n - 1].base == "be" && r.clauses[n - 1].places.is_empty();
    c.mood == Mood::Relative && c.form == Form::Past && c.agent() && shows
}

/// "Hold on, I dropped the screw."
fn slipped(_: &Reader<'_>, _: usize, c: &Clause) -> bool {
    c.base == "drop" && c.form == Form::Past && c.agent() && c.places.is_empty() && c.particles.is_empty()
}

/// "The ring goes back on the glue it came off of."
fn where_it_was(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let Some(verb) = c.verb.filter(|_| c.base == "come" && c.form == Form::Past) else { return false };
    let it = c.subjects.last().is_some_and(Phrase::is_pronoun);
    let mut behind = r.words[verb + 1..c.to.max(verb + 1)].iter().map(|w| w.said.as_str());
    let dangles = matches!((behind.next(), behind.next(), behind.next()), (Some("off" | "out"), Some("of"), None));
    it && (dangles || c.mood == Mood::Question)
}

/// "The feet just pull off, you don't need to.", said of what may as well stay.
fn needless(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    !c.order && r.clauses.get(n + 1).is_some_and(Clause::spares)
}

/// "The spring pops out if you're not careful."
fn careless(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    !c.order && says(r, &["if you 're not careful", "if you are not careful", "if you aren't careful"])
}
