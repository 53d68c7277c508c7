//! The reader's sentence for a deed: imperative, with count, kind, figures, place and tool, and nothing of the speaker.

use super::super::Statement;
use super::super::facts::Drive;
use super::grammar::GRAMMAR;
use super::{Deed, Do, ScrewGroup};
use crate::labels::Label;
use crate::units::{Measure, Quantity, number};

/// "Remove the rear cover", "Disconnect the pump and the valve".
pub fn title(deeds: &[Deed]) -> String {
    let rank = |d: &Deed| match d.act {
        Do::Remove | Do::Install | Do::Transfer => 0,
        Do::Test | Do::PowerOn => 1,
        Do::Disconnect | Do::Connect | Do::Desolder | Do::Solder => 2,
        Do::Open | Do::Close | Do::Apply | Do::PowerOff | Do::Unplug | Do::Peel => 3,
        Do::Pry | Do::Drive | Do::Unscrew => 4,
        Do::Turn | Do::Release | Do::Heat | Do::Clean => 5,
        _ => 6,
    };
    let named = |d: &&Deed| !d.what.is_empty();
    let main = deeds.iter().filter(named).min_by_key(|d| rank(d)).unwrap_or(&deeds[0]);
    let mut things: Vec<&String> = deeds.iter().filter(|d| d.act == main.act).flat_map(|d| &d.what).collect();
    things.dedup();
    things.truncate(3);
    let verb = verb(main.act);
    if things.is_empty() {
        return capital(&alone(main.act));
    }
    match main.act {
        Do::Unscrew | Do::Drive => format!("{verb} the screws of the {}", list(&things)),
        _ => format!("{verb} the {}", list(&things)),
    }
}

/// The reader's sentences for what a statement tells; `None` where the speaker's own words are an instruction already, or
/// where they tell no deed.
pub fn instruction(statement: &Statement, deeds: &[Deed]) -> Option<String> {
    if is_order(&statement.text) {
        return None;
    }
    let mut out: Vec<String> = Vec::new();
    for d in within(statement, deeds) {
        let text = sentence(d);
        if !out.contains(&text) {
            out.push(text);
        }
    }
    (!out.is_empty()).then(|| out.join(" "))
}

fn within<'a>(statement: &'a Statement, deeds: &'a [Deed]) -> impl Iterator<Item = &'a Deed> {
    let from = deeds.partition_point(|d| d.end <= statement.start);
    deeds[from..].iter().take_while(|d| d.start < statement.end).filter(|d| d.start >= statement.start)
}

/// Most words of an instruction.
const MAX_WORDS: usize = 25;

/// Whether a sentence begins with a verb that orders, and speaks of nobody.
pub fn is_order(text: &str) -> bool {
    let words: Vec<String> =
        text.split_whitespace().map(|w| w.trim_matches(|c: char| !c.is_alphanumeric()).to_lowercase()).collect();
    let speaker = |w: &String| {
        matches!(
            w.as_str(),
            "i" | "i'm"
                | "i'll"
                | "i've"
                | "we"
                | "we're"
                | "we'll"
                | "we've"
                | "our"
                | "us"
                | "let's"
                | "gonna"
                | "okay"
                | "so"
                | "now"
                | "just"
                | "basically"
                | "here"
                | "this"
        )
    };
    let verb = words.iter().find(|w| !(w.len() > 4 && w.ends_with("ly")));
    verb.is_some_and(|v| GRAMMAR.base(v) == Some(v.as_str())) && words.len() <= MAX_WORDS && !words.iter().any(speaker)
}

/// "Undo the four T5 screws (6 mm) of the pump bracket."
pub fn sentence(d: &Deed) -> String {
    let things: Vec<&String> = d.what.iter().collect();
    let the = if things.is_empty() { None } else { Some(format!("the {}", list(&things))) };
    let body = match d.act {
        Do::Unscrew | Do::Loosen | Do::Drive | Do::Tighten => screws(d, the.as_deref()),
        _ => match &the {
            Some(the) => format!("{} {the}", verb(d.act)),
            None => alone(d.act),
        },
    };
    let mut text = body;
    if !d.manner.is_empty() && !matches!(d.act, Do::Unscrew | Do::Drive) {
        text.push_str(&format!(" {}", d.manner.join(" and ")));
    }
    for (preposition, place) in d
        .places
        .iter()
        .filter(|(_, p)| !d.what.iter().any(|w| p.ends_with(w.as_str()) || w.ends_with(p.trim_start_matches("the "))))
        .take(2)
    {
        if text.split(' ').count() + place.split(' ').count() < 19 {
            text.push_str(&format!(" {preposition} {place}"));
        }
    }
    if let Some(by) = by(d) {
        text.push_str(&format!(" with {by}"));
    }
    for m in figures(d) {
        text.push_str(&m);
    }
    if let Some(until) = d.until.as_ref().filter(|u| text.split(' ').count() + u.split(' ').count() < 22) {
        text.push_str(&format!(" until {until}"));
    }
    format!("{}.", capital(&text))
}

/// Most sizes of screws that one sentence names behind its first.
const MAX_GROUPS: usize = 2;

fn screws(d: &Deed, the: Option<&str>) -> String {
    let of = the.filter(|t| *t != "the screws").map(|t| format!(" of {t}"));
    let of = of.unwrap_or_default();
    let whole = ScrewGroup { count: d.count, drive: d.drive, bit: d.bit.clone(), length_mm: d.length_mm };
    let group = match d.groups.split_first() {
        None => format!("{}{of}", group(&whole, true)),
        Some((first, rest)) => {
            let alike = |g: &ScrewGroup| (g.drive, &g.bit) == (first.drive, &first.bit);
            // The others are counted: nobody may think that these were all.
            let named = if rest.len() > MAX_GROUPS { 1 } else { rest.len() };
            let more: Vec<String> = rest.iter().take(named).map(|g| group(g, !alike(g))).collect();
            let others: u32 = rest.iter().skip(named).filter_map(|g| g.count).sum();
            let others = if others > 0 { format!(" and the {} others", numeral(others)) } else { String::new() };
            format!("{}{of}, then {}{others}", group(first, true), more.join(" and "))
        }
    };
    let verb = match d.act {
        Do::Drive => "Drive in",
        Do::Tighten => "Tighten",
        Do::Loosen => "Loosen",
        _ => "Undo",
    };
    format!("{verb} {group}")
}

/// "the four T5 screws (6 mm)"; of a further group of the same kind only "the two (8 mm)".
fn group(g: &ScrewGroup, named: bool) -> String {
    let kind = g.bit.clone().or_else(|| g.drive.map(|k: Drive| k.label().to_owned())).filter(|_| named);
    let noun = named.then_some(if g.count == Some(1) { " screw" } else { " screws" });
    let count = g.count.map(|n| format!(" {}", numeral(n)));
    let length = g.length_mm.map(|l| format!(" ({} mm)", number(l)));
    [Some("the".to_owned()), count, kind.map(|k| format!(" {k}")), noun.map(str::to_owned), length]
        .into_iter()
        .flatten()
        .collect()
}

/// Numerals from two digits on.
fn numeral(n: u32) -> String {
    const WORDS: [&str; 10] = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
    WORDS.get(n as usize).map_or_else(|| n.to_string(), |w| (*w).to_owned())
}

fn by(d: &Deed) -> Option<String> {
    let tool = d.by.as_deref()?;
    let implied = matches!(d.act, Do::Unscrew | Do::Drive | Do::Tighten | Do::Loosen) && tool.ends_with("screwdriver");
    let plural = matches!(tool, "tweezers" | "opening pliers" | "gloves" | "safety glasses" | "isopropyl alcohol");
    let article = if plural {
        ""
    } else if tool.starts_with(['a', 'e', 'i', 'o', 'u']) {
        "an "
    } else {
        "a "
    };
    (!implied && !matches!(d.act, Do::PowerOff | Do::PowerOn | Do::Turn | Do::Wait | Do::Mark))
        .then(|| format!("{article}{tool}"))
}

/// " to 80 °C", " for 3 minutes".
fn figures(d: &Deed) -> Vec<String> {
    let mut out: Vec<String> = Vec::new();
    let mut told: Vec<Quantity> = Vec::new();
    for m in &d.measures {
        if told.contains(&m.quantity) {
            continue;
        }
        let span = |unit: &str, f: &dyn Fn(f64) -> f64| match m.to {
            Some(to) => format!("{} to {} {unit}", number(f(m.value)), number(f(to))),
            None => format!("{} {unit}", number(f(m.value))),
        };
        let text = match (m.quantity, d.act) {
            (Quantity::Temperature, Do::Heat | Do::Solder | Do::Desolder) => {
                Some(format!(" to {}", span("°C", &|v| v.round())))
            }
            (Quantity::Duration, Do::Heat | Do::Press | Do::Wait | Do::PowerOn | Do::PowerOff) => {
                Some(format!(" for {}", duration(m)))
            }
            (Quantity::Angle, Do::Open | Do::Turn | Do::Adjust | Do::Release) => {
                Some(format!(" by {}", span("degrees", &|v| v)))
            }
            (Quantity::Torque, Do::Tighten | Do::Drive) => Some(format!(" to {}", span("N·m", &|v| v))),
            _ => None,
        };
        told.extend(text.is_some().then_some(m.quantity));
        out.extend(text);
    }
    out.truncate(2);
    out
}

fn duration(m: &Measure) -> String {
    let (unit, each) = if m.value >= 7200.0 {
        ("hours", 3600.0)
    } else if m.value >= 60.0 {
        ("minutes", 60.0)
    } else {
        ("seconds", 1.0)
    };
    let unit = if m.to.is_none() && m.value == each { &unit[..unit.len() - 1] } else { unit };
    match m.to {
        Some(to) => format!("{} to {} {unit}", number(m.value / each), number(to / each)),
        None => format!("{} {unit}", number(m.value / each)),
    }
}

/// What is done, before "the cover".
fn verb(act: Do) -> &'static str {
    match act {
        Do::Remove => "Remove",
        Do::Unscrew => "Undo",
        Do::Loosen => "Loosen",
        Do::Disconnect => "Disconnect",
        Do::Desolder => "Desolder",
        Do::Pry => "Pry up",
        Do::Release => "Release",
        Do::Peel => "Peel off",
        Do::Cut => "Cut",
        Do::Open => "Open",
        Do::Heat => "Heat",
        Do::PowerOff => "Switch off",
        Do::Unplug => "Unplug",
        Do::Discharge => "Discharge",
        Do::Drain => "Drain",
        Do::Install => "Fit",
        Do::Drive => "Drive in",
        Do::Tighten => "Tighten",
        Do::Connect => "Connect",
        Do::Solder => "Solder",
        Do::Close => "Close",
        Do::Apply => "Apply",
        Do::Press => "Press",
        Do::Transfer => "Move over",
        Do::Route => "Route",
        Do::PowerOn => "Switch on",
        Do::Protect => "Protect",
        Do::Turn => "Turn over",
        Do::Clean => "Clean",
        Do::Mark => "Mark",
        Do::Measure => "Measure",
        Do::Adjust => "Align",
        Do::Wait => "Wait",
        Do::Test => "Test",
    }
}

/// What is done where no thing is named.
fn alone(act: Do) -> String {
    match act {
        Do::Wait => "Wait".to_owned(),
        Do::PowerOff => "Switch off the device".to_owned(),
        Do::PowerOn => "Switch on the device".to_owned(),
        Do::Unplug => "Unplug the device".to_owned(),
        Do::Turn => "Turn the device over".to_owned(),
        Do::Protect => "Protect the parts".to_owned(),
        Do::Test => "Test the device".to_owned(),
        Do::Unscrew => "Undo the screws".to_owned(),
        Do::Drive => "Drive in the screws".to_owned(),
        Do::Disconnect => "Disconnect the cable".to_owned(),
        Do::Connect => "Connect the cable".to_owned(),
        Do::Pry => "Pry along the edge".to_owned(),
        other => format!("{} the part", verb(other)),
    }
}

fn list(things: &[&String]) -> String {
    match things {
        [] => String::new(),
        [one] => (*one).clone(),
        [first @ .., last] => {
            format!("{} and the {last}", first.iter().map(|s| s.as_str()).collect::<Vec<_>>().join(", the "))
        }
    }
}

fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |c| c.to_uppercase().chain(chars).collect())
}

#[cfg(test)]
mod tests {
    use super::super::super::{draft_guide, read};
    use super::instruction;
    use crate::recording::Recording;
    use rstest::rstest;

    fn recording(text: &str) -> Recording {
        Recording::parse(text.as_bytes()).unwrap()
    }

    #[rstest]
    #[case("So what I'm gonna do is undo the three T5 screws of the lid.", "Undo the three T5 screws of the lid.")]
    #[case(
        "The rim has to be heated with a hair dryer for two minutes.",
        "Heat the rim with a hair dryer for 2 minutes."
    )]
    #[case("We carefully lift out the fan.", "Remove the fan carefully.")]
    #[case("Then you can unplug the pump cable.", "Disconnect the pump cable.")]
    fn speech_becomes_an_instruction(#[case] said: &str, #[case] wanted: &str) {
        let reading = read(&recording(said));
        assert_eq!(instruction(&reading.statements[0], &reading.deeds).as_deref(), Some(wanted));
    }

    #[test]
    fn an_instruction_stays_as_it_was_said() {
        let reading = read(&recording("Lift the lid off at its front edge; a short cable still holds it."));
        assert_eq!(instruction(&reading.statements[0], &reading.deeds), None);
    }

    #[test]
    fn a_step_frees_one_part_and_is_named_for_it() {
        let text = "[0:00] Undo two screws of the lid. Take off the lid. Unplug the fan cable. Take the fan out.";
        let guide = draft_guide(&recording(text));
        let titles: Vec<&str> = guide.steps.iter().map(|s| s.title.as_str()).collect();
        assert_eq!(titles, ["Remove the lid", "Remove the fan"]);
        assert_eq!(guide.steps[0].acts[0].text, "Undo the two screws of the lid.");
    }

    #[test]
    fn a_row_of_plugs_is_one_step() {
        let text = "[0:00] Disconnect the pump cable. Disconnect the lamp cable. Take out the board.";
        assert_eq!(draft_guide(&recording(text)).steps.len(), 1);
    }
}
