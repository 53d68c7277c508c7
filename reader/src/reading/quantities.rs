//! Quantities in speech: a figure with its unit, ranges, and figures whose unit goes without saying.
//!
//! People say a unit once and mean it on: "four are six millimetres and this one is nine". They count a range aloud ("ten,
//! fifteen seconds") and leave the hundreds out ("nine eighty milliamp hours"). A unit that is only meant is read where the
//! sentence has that unit already and the figure stands where a size stands; a bare figure is a count otherwise.

use super::lexicon::LEXICON;
use super::numbers::{Figure, figure_at, figures};
use crate::units::{Measure, Quantity, Unit};

/// A quantity with its unit and its place.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Quantified {
    pub at: usize,
    pub len: usize,
    pub unit: Unit,
    pub measure: Measure,
}

impl Quantified {
    fn end(&self) -> usize {
        self.at + self.len
    }

    /// "a 10 mm socket": how wide the tool is, and no length of what it turns.
    pub fn sizes_a_tool(&self, words: &[&str]) -> bool {
        let next = words.get(self.end()).copied().unwrap_or("");
        // "Take your hex key, two and a half millimetres."
        let key = self.at.checked_sub(1).and_then(|at| words.get(at));
        let behind = key.is_some_and(|w| matches!(*w, "key" | "wrench" | "spanner" | "allen"));
        if behind && !matches!(next, "screw" | "bolt") {
            return true;
        }
        matches!(next, "nut" | "hex" | "socket" | "blade" | "driver" | "key" | "wrench" | "spanner" | "allen")
    }
}

/// Words of a sentence and where the speaker stops: `pauses[i]` behind word `i`; none are known of a bare list.
#[derive(Clone, Copy)]
pub(super) struct Said<'a> {
    pub words: &'a [&'a str],
    pub pauses: &'a [bool],
}

impl<'a> Said<'a> {
    fn bare(words: &'a [&'a str]) -> Self {
        Self { words, pauses: &[] }
    }

    fn word(&self, at: usize) -> &'a str {
        self.words.get(at).copied().unwrap_or("")
    }

    fn before(&self, at: usize) -> &'a str {
        at.checked_sub(1).map_or("", |i| self.words[i])
    }

    /// Whether the speech ends or rests before word `at`.
    fn rests(&self, at: usize) -> bool {
        at >= self.words.len() || at.checked_sub(1).and_then(|i| self.pauses.get(i)).is_some_and(|p| *p)
    }
}

/// Every quantity with a unit: `2 to 3 minutes`, `80 degrees Celsius, that is 176 Fahrenheit` (once).
pub(super) fn quantities(words: &[&str]) -> Vec<Quantified> {
    once(joined(spoken(Said::bare(words)), Said::bare(words)))
}

/// Every quantity, also one that tells the same again in another unit.
pub(super) fn quantities_and_repeats(words: &[&str]) -> Vec<Quantified> {
    joined(spoken(Said::bare(words)), Said::bare(words))
}

/// Every quantity of a sentence, also those whose unit was said before; `before` is the unit of the sentence before.
/// Where the sentence is `heating`, a setting without a unit is a temperature.
pub(super) fn meant(said: Said<'_>, before: Option<Unit>, heating: bool) -> Vec<Quantified> {
    let mut all = joined(spoken(said), said);
    set_to(&mut all, said, heating);
    once(with_unsaid(all, said, before))
}

/// "the mat's at seventy", "hot air at three sixty": degrees Celsius, as nearly everybody sets them.
fn set_to(all: &mut Vec<Quantified>, said: Said<'_>, heating: bool) {
    let heats =
        |at: usize| said.words[at.saturating_sub(3)..at].iter().any(|w| LEXICON.heat_nicknames.at(&[w], 0).is_some());
    const SETTINGS: std::ops::RangeInclusive<f64> = 40.0..=500.0;
    let mut at = 1;
    while at < said.words.len() {
        let found = hundreds_unsaid(said.words, at).or_else(|| figure_at(said.words, at));
        let Some(f) = found else {
            at += 1;
            continue;
        };
        at += f.len;
        let free = !all.iter().any(|q| q.at < f.at + f.len && f.at < q.end());
        let set =
            matches!(said.before(f.at), "at" | "on" | "to") && SETTINGS.contains(&f.value) && (heating || heats(f.at));
        let behind = said.word(f.at + f.len);
        let ends = said.rests(f.at + f.len) || matches!(behind, "and" | "for" | "with" | "so" | "it");
        if free && set && ends {
            let unit = Unit::Celsius;
            let measure = Measure { quantity: unit.quantity(), value: f.value, to: None, unit: name(unit, "") };
            all.push(Quantified { at: f.at, len: f.len, unit, measure });
        }
    }
    all.sort_by_key(|q| q.at);
}

fn once(all: Vec<Quantified>) -> Vec<Quantified> {
    let mut out: Vec<Quantified> = Vec::new();
    for q in all {
        let again = out.iter().any(|o| {
            q.unit != o.unit
                && o.measure.quantity == q.measure.quantity
                && q.at <= o.end() + 5
                && (o.measure.value - q.measure.value).abs() < 1.0
        });
        if !again {
            out.push(q);
        }
    }
    out
}

fn spoken(said: Said<'_>) -> Vec<Quantified> {
    let mut out: Vec<Quantified> = Vec::new();
    let mut at = 0;
    while at < said.words.len() {
        let found = quantity_at(said, at);
        at += found.as_ref().map_or(1, |q| q.len);
        out.extend(found);
    }
    out
}

fn quantity_at(said: Said<'_>, at: usize) -> Option<Quantified> {
    let words = said.words;
    if let Some(told) = counted_out(said, at).or_else(|| threaded(said, at)) {
        return Some(told);
    }
    let (low, mut len) = first_figure(words, at)?;
    let mut high = None;
    if words.get(at + len).is_some_and(|w| matches!(*w, "to" | "or" | "and"))
        && let Some(f) = figure_at(words, at + len + 1).filter(|f| f.value > low)
    {
        high = Some(f.value);
        len += 1 + f.len;
    }
    if high.is_none()
        && let Some((h, more)) = next_in_count(said, at, at + len, low)
    {
        high = Some(h);
        len += more;
    }
    // "one more minute", "another full turn".
    len += usize::from(
        words
            .get(at + len)
            .is_some_and(|w| matches!(*w, "more" | "further" | "full" | "extra" | "whole" | "additional")),
    );
    let article = usize::from(matches!(words.get(at + len..at + len + 2), Some(["of", "a"]))) * 2;
    let (unit_len, unit) = unit_at(words, at + len + article)?;
    len += article + unit_len;
    let quantity = unit.quantity();
    let mut value = unit.to_sheet(low);
    // "an hour and a half".
    if quantity == Quantity::Duration
        && high.is_none()
        && words.get(at + len..at + len + 3) == Some(&["and", "a", "half"])
    {
        value += unit.to_sheet(0.5);
        len += 3;
    }
    // "two minutes thirty seconds" and "five minutes and ten seconds" are one figure.
    if quantity == Quantity::Duration && high.is_none() {
        let joint = usize::from(words.get(at + len) == Some(&"and"));
        if let Some(f) = figure_at(words, at + len + joint)
            && let Some((n, small)) = unit_at(words, at + len + joint + f.len)
            && small.quantity() == Quantity::Duration
            && small.to_sheet(1.0) < unit.to_sheet(1.0)
        {
            value += small.to_sheet(f.value);
            len += joint + f.len + n;
        }
    }
    let name = name(unit, words[at + len - 1]);
    let to = high.map(|h| unit.to_sheet(h));
    Some(Quantified { at, len, unit, measure: Measure { quantity, value, to, unit: name } })
}

/// "the 3 by 12 screws": the thread, and the length behind it.
fn threaded(said: Said<'_>, at: usize) -> Option<Quantified> {
    const THICKEST: f64 = 8.0;
    let thread = figure_at(said.words, at).filter(|f| f.value <= THICKEST)?;
    let by = at + thread.len;
    let length = figure_at(said.words, by + 1).filter(|_| matches!(said.word(by), "by" | "x"))?;
    let end = length.at + length.len;
    if !matches!(said.word(end), "screw" | "bolt") {
        return None;
    }
    let unit = Unit::Millimetre;
    let measure = Measure { quantity: unit.quantity(), value: length.value, to: None, unit: name(unit, "") };
    Some(Quantified { at, len: end - at, unit, measure })
}

/// "count to thirty", "to the count of three": as many seconds.
fn counted_out(said: Said<'_>, at: usize) -> Option<Quantified> {
    let words = said.words;
    let counts = matches!(words[at], "to" | "of") && said.before(at) == "count";
    let f = figure_at(words, at + 1).filter(|f| counts && said.rests(f.at + f.len))?;
    let unit = Unit::Second;
    let measure =
        Measure { quantity: Quantity::Duration, value: f.value, to: None, unit: Quantity::Duration.unit().to_owned() };
    Some(Quantified { at, len: 1 + f.len, unit, measure })
}

/// The unit of the fact sheet; money keeps its own.
fn name(unit: Unit, said: &str) -> String {
    match unit.quantity() {
        Quantity::Price => format!("{}s", said.trim_end_matches('s')),
        quantity => quantity.unit().to_owned(),
    }
}

fn first_figure(words: &[&str], at: usize) -> Option<(f64, usize)> {
    if let Some(f) = hundreds_unsaid(words, at).filter(|f| unit_at(words, at + f.len).is_some_and(|u| in_hundreds(u.1)))
    {
        return Some((f.value, f.len));
    }
    match figure_at(words, at) {
        Some(f) => Some((f.value, f.len)),
        None if matches!(words.get(at..at + 2), Some(["half", "a" | "an"])) => Some((0.5, 2)),
        None if words.get(at..at + 2) == Some(&["a", "quarter"]) => {
            let of = words.get(at + 2) == Some(&"of");
            let article = of && words.get(at + 3).is_some_and(|w| matches!(*w, "a" | "an"));
            Some((0.25, 2 + usize::from(of) + usize::from(article)))
        }
        None if words.get(at..at + 3) == Some(&["a", "couple", "of"]) => Some((2.0, 3)),
        None if words.get(at).is_some_and(|w| matches!(*w, "a" | "an" | "another")) && one_unit(words, at) => {
            Some((1.0, 1))
        }
        None => None,
    }
}

/// "nine eighty", "three fifty": a hundred that goes without saying.
fn hundreds_unsaid(words: &[&str], at: usize) -> Option<Figure> {
    let one = |i: usize| words.get(i).and_then(|w| LEXICON.numbers.get(*w)).copied();
    let hundreds = one(at).filter(|n| (1.0..10.0).contains(n))?;
    let rest = figure_at(words, at + 1).filter(|f| (20.0..100.0).contains(&f.value) && f.value.fract() == 0.0)?;
    one(at + 1)?;
    Some(Figure { at, len: 1 + rest.len, value: hundreds * 100.0 + rest.value })
}

/// Units of which people have hundreds on a bench, and speak of them so.
fn in_hundreds(unit: Unit) -> bool {
    matches!(unit, Unit::MilliampHour | Unit::Degree | Unit::Celsius | Unit::Fahrenheit | Unit::Gram | Unit::Volt)
}

/// "two three minutes", "ten, fifteen seconds", "two, three millimetres": from the first to the second.
fn next_in_count(said: Said<'_>, first: usize, at: usize, low: f64) -> Option<(f64, usize)> {
    let counting = first > 0 && figure_at(said.words, first - 1).is_some();
    let f = figure_at(said.words, at).filter(|f| f.value > low && f.value <= 3.0 * low && !counting)?;
    let (_, unit) = unit_at(said.words, at + f.len)?;
    let range = match unit.quantity() {
        Quantity::Duration => true,
        // "the black one, two millimetres": one of them, and no range.
        Quantity::Length => said.rests(at) && f.value - low <= 2.0 && low >= 2.0,
        _ => false,
    };
    range.then_some((f.value, f.len))
}

/// "for a minute", "another minute", "half an hour", "an hour and a half", but not "250 samples a second".
fn one_unit(words: &[&str], at: usize) -> bool {
    let before = at.checked_sub(1).map_or("", |i| words[i]);
    let unit =
        words.get(at + 1).is_some_and(|w| matches!(*w, "minute" | "second" | "hour" | "millimetre" | "millimeter"));
    let waits = matches!(
        before,
        "for"
            | "about"
            | "around"
            | "wait"
            | "like"
            | "give"
            | "given"
            | "it"
            | "take"
            | "after"
            | "least"
            | "than"
            | "edge"
            | "side"
    );
    let halves = words.get(at + 2..at + 5) == Some(&["and", "a", "half"]);
    unit && (words[at] == "another" || waits || halves)
}

fn unit_at(words: &[&str], at: usize) -> Option<(usize, Unit)> {
    LEXICON.units.at(words, at).map(|(len, unit)| (len, *unit))
}

/// "twenty minutes, half an hour", "two mil three mil", "thirty seconds, maybe forty": one range.
fn joined(all: Vec<Quantified>, said: Said<'_>) -> Vec<Quantified> {
    let mut out: Vec<Quantified> = Vec::new();
    for q in all {
        let last = out.last_mut().filter(|last| {
            let gap = q.at - last.end();
            let linked = gap == 0 || gap == 1 && matches!(said.word(last.end()), "or" | "maybe" | "perhaps" | "to");
            let (low, high) = (last.measure.value, q.measure.value);
            linked && last.measure.to.is_none() && q.measure.to.is_none() && ranges(last.unit, q.unit, low, high)
        });
        match last {
            Some(last) => {
                last.measure.to = Some(q.measure.value);
                last.len = q.end() - last.at;
            }
            None => out.push(q),
        }
    }
    for q in &mut out {
        if let Some((high, len)) = afterthought(q, said) {
            q.measure.to = Some(high);
            q.len += len;
        }
    }
    out
}

fn ranges(one: Unit, other: Unit, low: f64, high: f64) -> bool {
    let further = high > low && high <= 3.0 * low;
    match (one.quantity(), other.quantity()) {
        (Quantity::Duration, Quantity::Duration) => further,
        (Quantity::Length, Quantity::Length) => further && one == other && high - low <= 1.0,
        _ => false,
    }
}

/// "thirty seconds, forty", "thirty seconds, maybe forty": the second figure, and how many words tell it.
fn afterthought(q: &Quantified, said: Said<'_>) -> Option<(f64, usize)> {
    if q.measure.quantity != Quantity::Duration || q.measure.to.is_some() {
        return None;
    }
    let hedge = usize::from(matches!(said.word(q.end()), "or" | "maybe" | "perhaps" | "even"));
    let f = figure_at(said.words, q.end() + hedge)?;
    let high = q.unit.to_sheet(f.value);
    let ends = said.rests(f.at + f.len) && (hedge > 0 || said.rests(f.at));
    (ends && ranges(q.unit, q.unit, q.measure.value, high)).then_some((high, hedge + f.len))
}

/// The figures of a sentence that mean a unit said before, with those that say theirs.
fn with_unsaid(mut all: Vec<Quantified>, said: Said<'_>, before: Option<Unit>) -> Vec<Quantified> {
    if all.is_empty() && before.is_none() {
        return all;
    }
    let told = all.clone();
    let free = |f: &Figure| !told.iter().any(|q| q.at < f.at + f.len && f.at < q.end());
    for f in figures(said.words).into_iter().filter(free) {
        let last = told.iter().rev().find(|q| q.end() <= f.at).map(|q| (q.unit, said.words[q.end() - 1]));
        let unit = dimension(&told, f, said)
            .or_else(|| last.filter(|(unit, _)| is_size(f, *unit, said) || is_group_size(f, *unit, said)))
            .or_else(|| before.map(|u| (u, "")).filter(|(unit, _)| told.is_empty() && is_size(f, *unit, said)));
        let Some((unit, word)) = unit.filter(|(u, w)| u.quantity() != Quantity::Price || !w.is_empty()) else {
            continue;
        };
        let measure =
            Measure { quantity: unit.quantity(), value: unit.to_sheet(f.value), to: None, unit: name(unit, word) };
        all.push(Quantified { at: f.at, len: f.len, unit, measure });
    }
    all.sort_by_key(|q| q.at);
    all
}

/// "three hundred by two hundred by ninety millimetres": the unit stands behind the last, or behind the first.
fn dimension<'a>(told: &[Quantified], f: Figure, said: Said<'a>) -> Option<(Unit, &'a str)> {
    const FACES: usize = 3;
    let by = |i: usize| matches!(said.word(i), "by" | "x" | "times");
    let thread = f.at > 0 && said.before(f.at).starts_with('m') && said.before(f.at).len() < 5;
    let mut end = f.at + f.len;
    for _ in 1..FACES {
        if !by(end) {
            break;
        }
        let of = told.iter().find(|q| q.at == end + 1 && q.measure.quantity == Quantity::Length);
        if let Some(q) = of.filter(|_| !thread) {
            return Some((q.unit, said.words[q.end() - 1]));
        }
        let next = figure_at(said.words, end + 1)?;
        end = next.at + next.len;
    }
    let behind = f.at > 0 && by(f.at - 1);
    let q = told.iter().find(|q| behind && q.end() + 1 == f.at && q.measure.quantity == Quantity::Length)?;
    Some((q.unit, said.words[q.end() - 1]))
}

/// "this one is nine and a half", "and a hundred and four tall", "the new one twelve hundred": where a size stands.
fn is_size(f: Figure, unit: Unit, said: Said<'_>) -> bool {
    let (behind, ahead) = (said.word(f.at + f.len), said.before(f.at));
    if said.pauses.is_empty() || unit_at(said.words, f.at + f.len).is_some() {
        return false;
    }
    let length = unit.quantity() == Quantity::Length;
    if length && matches!(behind, "tall" | "wide" | "deep" | "thick" | "high" | "across" | "long") {
        return true;
    }
    let ends = said.rests(f.at + f.len)
        || matches!(
            behind,
            "and" | "but" | "so" | "for" | "with" | "because" | "cause" | "again" | "each" | "under" | "okay"
        );
    let quantity = unit.quantity();
    let sized = matches!(
        quantity,
        Quantity::Length | Quantity::Mass | Quantity::Voltage | Quantity::Capacity | Quantity::Price | Quantity::Torque
    );
    let settled = matches!(quantity, Quantity::Voltage | Quantity::Torque | Quantity::Temperature);
    let place = match ahead {
        "is" | "are" | "be" | "'s" | "'re" | "was" | "were" => sized && !counts_aloud(f.at, said),
        "at" => settled,
        // "in the order one to six".
        "to" => settled && (f.at < 2 || figure_at(said.words, f.at - 2).is_none()),
        "one" | "ones" => sized && f.value >= 13.0,
        _ => false,
    };
    place && ends
}

/// "there's two", "that's three", "it was one": counting, and no size.
fn counts_aloud(at: usize, said: Said<'_>) -> bool {
    at >= 2 && matches!(said.words[at - 2], "there" | "here" | "that" | "which" | "what" | "who")
}

/// "seven of five millimetres and one of nine": a size told as the one before.
fn is_group_size(f: Figure, unit: Unit, said: Said<'_>) -> bool {
    let counted =
        f.at >= 2 && matches!(said.words[f.at - 1], "of" | "from") && figure_at(said.words, f.at - 2).is_some();
    // "step one of four"
    let numbered =
        f.at >= 3 && matches!(said.words[f.at - 3], "step" | "number" | "part" | "page" | "chapter" | "sheet");
    let counted = counted && !numbered;
    let ends = said.rests(f.at + f.len) || matches!(said.word(f.at + f.len), "and" | "but");
    unit.quantity() == Quantity::Length && counted && ends
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn words(text: &str) -> Vec<&str> {
        text.split(' ').collect()
    }

    #[rstest]
    #[case("80 degree celsius that is 176 fahrenheit", &[(80.0, None, Quantity::Temperature)])]
    #[case("for two three minute", &[(120.0, Some(180.0), Quantity::Duration)])]
    #[case("two three millimetre", &[(3.0, None, Quantity::Length)])]
    #[case("for two to three minute", &[(120.0, Some(180.0), Quantity::Duration)])]
    #[case("two minute thirty second", &[(150.0, None, Quantity::Duration)])]
    #[case("an hour and a half", &[(5400.0, None, Quantity::Duration)])]
    #[case("twenty minute half an hour", &[(1200.0, Some(1800.0), Quantity::Duration)])]
    #[case("thirty second maybe forty", &[(30.0, Some(40.0), Quantity::Duration)])]
    #[case("wait half a minute", &[(30.0, None, Quantity::Duration)])]
    #[case("it cost 19.99 dollar", &[(19.99, None, Quantity::Price)])]
    #[case("nine eighty milliamp hour", &[(980.0, None, Quantity::Capacity)])]
    #[case("two twelve millimetre screw", &[(12.0, None, Quantity::Length)])]
    #[case("a hundred and ninety gram", &[(190.0, None, Quantity::Mass)])]
    #[case("90 degree celsius 165 degree fahrenheit", &[(90.0, None, Quantity::Temperature), (73.888888889, None, Quantity::Temperature)])]
    fn reads_quantities(#[case] text: &str, #[case] wanted: &[(f64, Option<f64>, Quantity)]) {
        assert_eq!(values(&quantities(&words(text))), wanted);
    }

    fn values(found: &[Quantified]) -> Vec<(f64, Option<f64>, Quantity)> {
        found.iter().map(|q| (q.measure.value, q.measure.to, q.measure.quantity)).collect()
    }

    /// A comma stands for a pause.
    #[rstest]
    #[case("four are six millimetre and this one is nine", &[6.0, 9.0])]
    #[case("seven of five millimetre and one of nine", &[5.0, 9.0])]
    #[case("three hundred by two hundred by ninety millimetre", &[300.0, 200.0, 90.0])]
    #[case("six millimetre screw, that 's one, that 's two", &[6.0])]
    #[case("they 're six millimetre and there are four", &[6.0])]
    #[case("it 's nine millimetre deep, step one of four", &[9.0])]
    #[case("an m3 by 8 millimetre bolt", &[8.0])]
    fn hears_a_unit_that_is_only_meant(#[case] text: &str, #[case] lengths: &[f64]) {
        let pauses: Vec<bool> = text.split(' ').map(|w| w.ends_with(',')).collect();
        let text = text.replace(',', "");
        let found = meant(Said { words: &words(&text), pauses: &pauses }, None, false);
        assert_eq!(found.iter().map(|q| q.measure.value).collect::<Vec<_>>(), lengths);
    }
}
