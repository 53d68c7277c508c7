//! Figures in speech: words, digits, counting aloud, sizes of bits, quantities with a unit.

use super::facts::Drive;
use super::lexicon::{LEXICON, PhraseTable};
use crate::units::{Measure, Quantity, Unit};

/// A figure at a place of a word list.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Figure {
    pub at: usize,
    pub len: usize,
    pub value: f64,
}

/// Nothing but a figure: the number of a page or step that was read out.
pub(super) fn lone(words: &[impl AsRef<str>]) -> bool {
    matches!(words, [one] if one.as_ref().parse::<u32>().is_ok())
}

/// The figure that begins at `at`, if one does: `35`, `0.18`, `1,2`, `thirty five`, `twelve hundred`, `two and a half`.
pub(super) fn figure_at(words: &[&str], at: usize) -> Option<Figure> {
    // A spoken figure has few words: "twenty one thousand three hundred and forty five point two five".
    const LONGEST: usize = 16;
    let words = &words[..words.len().min(at.saturating_add(LONGEST))];
    let (mut value, mut len) = simple(words, at)?;
    if len == 1
        && value.fract() == 0.0
        && (20.0..100.0).contains(&value)
        && value % 10.0 == 0.0
        && is_word(words, at)
        && let Some((unit, 1)) = simple(words, at + 1)
        && (1.0..10.0).contains(&unit)
        && is_word(words, at + 1)
    {
        value += unit;
        len += 1;
    }
    for (word, factor) in [("hundred", 100.0), ("thousand", 1000.0)] {
        if words.get(at + len).is_some_and(|w| *w == word) {
            value *= factor;
            len += 1;
            let joint = usize::from(words.get(at + len) == Some(&"and"));
            if let Some(rest) = figure_at(words, at + len + joint).filter(|r| r.value < factor && is_word(words, r.at))
            {
                value += rest.value;
                len += joint + rest.len;
            }
        }
    }
    if words.get(at + len) == Some(&"point")
        && let Some((decimals, used)) = decimals(words, at + len + 1)
    {
        value += decimals;
        len += 1 + used;
    }
    if words.get(at + len..at + len + 3) == Some(&["and", "a", "half"]) {
        value += 0.5;
        len += 3;
    }
    Some(Figure { at, len, value })
}

/// The figure of one word: "seven", "35".
pub fn figure_of(word: &str) -> Option<f64> {
    figure_at(&[word], 0).map(|f| f.value)
}

fn is_word(words: &[&str], at: usize) -> bool {
    words.get(at).is_some_and(|w| w.starts_with(|c: char| c.is_alphabetic()))
}

fn simple(words: &[&str], at: usize) -> Option<(f64, usize)> {
    let word = words.get(at)?;
    if let Some(value) = LEXICON.numbers.get(*word) {
        return Some((*value, 1));
    }
    if *word == "point" {
        return decimals(words, at + 1).map(|(v, used)| (v, used + 1));
    }
    if !word.starts_with(|c: char| c.is_ascii_digit()) {
        return None;
    }
    // A comma before exactly three digits groups thousands; any other comma is a decimal one.
    let grouped = word.split_once(',').is_some_and(|(_, d)| d.len() == 3);
    let text = if grouped { word.replace(',', "") } else { word.replace(',', ".") };
    text.parse().ok().filter(|v: &f64| v.is_finite()).map(|v| (v, 1))
}

/// Digits said after "point": `seven`, `one five`.
fn decimals(words: &[&str], at: usize) -> Option<(f64, usize)> {
    let digit = |w: &&str| {
        LEXICON
            .numbers
            .get(*w)
            .copied()
            .or_else(|| w.parse().ok())
            .filter(|d| (0.0..10.0).contains(d) && d.fract() == 0.0)
    };
    let digits: Vec<f64> = words.get(at..)?.iter().map_while(digit).take(4).collect();
    let value = digits.iter().enumerate().map(|(i, d)| d / 10f64.powi(i as i32 + 1)).sum();
    (!digits.is_empty()).then_some((value, digits.len()))
}

/// Every figure of the words, none inside another.
pub(super) fn figures(words: &[&str]) -> Vec<Figure> {
    let mut out = Vec::new();
    let mut at = 0;
    while at < words.len() {
        match figure_at(words, at) {
            Some(figure) => {
                at += figure.len;
                out.push(figure);
            }
            None => at += 1,
        }
    }
    out
}

/// A quantity with its unit and its place.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Quantified {
    pub at: usize,
    pub len: usize,
    pub unit: Unit,
    pub measure: Measure,
}

/// Every quantity with a unit: `2 to 3 minutes`, `80 degrees Celsius, that is 176 Fahrenheit` (once).
pub(super) fn quantities(words: &[&str]) -> Vec<Quantified> {
    let mut out: Vec<Quantified> = Vec::new();
    for q in quantities_and_repeats(words) {
        let again = out.iter().any(|o| {
            q.unit != o.unit
                && o.measure.quantity == q.measure.quantity
                && q.at <= o.at + o.len + 5
                && (o.measure.value - q.measure.value).abs() < 1.0
        });
        if !again {
            out.push(q);
        }
    }
    out
}

/// Every quantity, also one that tells the same again in another unit.
pub(super) fn quantities_and_repeats(words: &[&str]) -> Vec<Quantified> {
    let mut out: Vec<Quantified> = Vec::new();
    let mut at = 0;
    while at < words.len() {
        let found = quantity_at(words, at);
        at += found.as_ref().map_or(1, |q| q.len);
        out.extend(found);
    }
    out
}

fn quantity_at(words: &[&str], at: usize) -> Option<Quantified> {
    let (low, mut len) = match figure_at(words, at) {
        Some(f) => (f.value, f.len),
        None if words.get(at..at + 2) == Some(&["half", "a"]) => (0.5, 2),
        None if words.get(at..at + 2) == Some(&["a", "quarter"]) => {
            (0.25, if words.get(at + 2) == Some(&"of") { 3 } else { 2 })
        }
        None if words.get(at..at + 2) == Some(&["half", "an"]) => (0.5, 2),
        None if words.get(at..at + 3) == Some(&["a", "couple", "of"]) => (2.0, 3),
        None if words.get(at).is_some_and(|w| matches!(*w, "a" | "an" | "another")) && one_unit(words, at) => (1.0, 1),
        None => return None,
    };
    let mut high = None;
    if words.get(at + len).is_some_and(|w| matches!(*w, "to" | "or" | "and"))
        && let Some(f) = figure_at(words, at + len + 1).filter(|f| f.value > low)
    {
        high = Some(f.value);
        len += 1 + f.len;
    }
    if high.is_none()
        && let Some((h, more)) = next_in_count(words, at + len, low)
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
    let (unit_len, unit) = unit_at(&LEXICON.units, words, at + len + article)?;
    len += article + unit_len;
    let quantity = unit.quantity();
    let mut value = unit.to_sheet(low);
    // "two minutes thirty seconds" and "five minutes and ten seconds" are one figure.
    if quantity == Quantity::Duration && high.is_none() {
        let joint = usize::from(words.get(at + len) == Some(&"and"));
        if let Some(f) = figure_at(words, at + len + joint)
            && let Some((n, small)) = unit_at(&LEXICON.units, words, at + len + joint + f.len)
            && small.quantity() == Quantity::Duration
            && small.to_sheet(1.0) < unit.to_sheet(1.0)
        {
            value += small.to_sheet(f.value);
            len += joint + f.len + n;
        }
    }
    let unit_name = if quantity == Quantity::Price {
        format!("{}s", words[at + len - 1].trim_end_matches('s'))
    } else {
        quantity.unit().to_owned()
    };
    let to = high.map(|h| unit.to_sheet(h));
    Some(Quantified { at, len, unit, measure: Measure { quantity, value, to, unit: unit_name } })
}

/// "two three minutes": from two to three.
fn next_in_count(words: &[&str], at: usize, low: f64) -> Option<(f64, usize)> {
    let f = figure_at(words, at).filter(|f| f.value - low == 1.0 && low >= 1.0 && f.value <= 10.0)?;
    let (_, unit) = unit_at(&LEXICON.units, words, at + f.len)?;
    (unit.quantity() == Quantity::Duration).then_some((f.value, f.len))
}

/// "for a minute", "another minute", "half an hour", but not "250 samples a second".
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
            | "it"
            | "take"
            | "after"
            | "least"
            | "than"
            | "edge"
            | "side"
    );
    unit && (words[at] == "another"
        || (waits && words.get(at + 2) != Some(&"or"))
        || words.get(at + 2).is_some_and(|w| *w == "or") && waits)
}

fn unit_at(table: &PhraseTable<Unit>, words: &[&str], at: usize) -> Option<(usize, Unit)> {
    table.at(words, at).map(|(len, unit)| (len, *unit))
}

/// A bit's code in one word: `ph00`, `t6`, `pz1`, `y0`, `p2`.
pub(super) fn bit_code(word: &str) -> Option<(Drive, String)> {
    let (letters, digits) = word.split_at(word.bytes().take_while(u8::is_ascii_alphabetic).count());
    if digits.is_empty() || digits.len() > 3 || !digits.bytes().all(|c| c.is_ascii_digit()) {
        return None;
    }
    let drive = match letters {
        "ph" => Drive::Phillips,
        "t" | "tx" | "tr" => Drive::Torx,
        "pz" => Drive::Pozidriv,
        "y" => Drive::TriPoint,
        "p" | "pl" => Drive::Pentalobe,
        "j" => Drive::Jis,
        "ip" => Drive::TorxPlus,
        _ => return None,
    };
    Some((drive, drive.bit(digits)))
}

/// A size said after a drive: `zero zero`, `double zero`, `triple zero`, `number zero`, `1`, `6`.
pub(super) fn bit_size(words: &[&str], at: usize) -> Option<(String, usize)> {
    let skip = usize::from(words.get(at).is_some_and(|w| matches!(*w, "number" | "size" | "no")));
    let at = at + skip;
    let zeros = words[at.min(words.len())..].iter().take_while(|w| **w == "zero" || **w == "0" || **w == "oh").count();
    if zeros > 0 {
        return Some(("0".repeat(zeros), zeros + skip));
    }
    match words.get(at..at + 2) {
        Some(["double", "zero" | "oh"]) => return Some(("00".to_owned(), 2 + skip)),
        Some(["triple", "zero" | "oh"]) => return Some(("000".to_owned(), 2 + skip)),
        _ => {}
    }
    let word = words.get(at)?;
    if word.starts_with('0') && word.chars().all(|c| c == '0') {
        return Some(((*word).to_owned(), 1 + skip));
    }
    // "two of the little torx ones": those, and no size.
    let behind = words.get(at + 1).is_some_and(|w| matches!(*w, "screw" | "bolt" | "driver" | "screwdriver" | "bit"));
    if *word == "one" && skip == 0 && !behind {
        return None;
    }
    let f = figure_at(words, at).filter(|f| f.value.fract() == 0.0 && f.value <= 60.0)?;
    let is_count = LEXICON.units.at(words, at + f.len).is_some();
    (!is_count).then(|| (format!("{}", f.value), f.len + skip))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn words(text: &str) -> Vec<&str> {
        text.split(' ').collect()
    }

    #[rstest]
    #[case("35", 35.0)]
    #[case("thirty five", 35.0)]
    #[case("twelve hundred", 1200.0)]
    #[case("three hundred fifty", 350.0)]
    #[case("two thousand six hundred", 2600.0)]
    #[case("point one five", 0.15)]
    #[case("three point seven", 3.7)]
    #[case("0,5", 0.5)]
    #[case("1,200", 1200.0)]
    #[case("two and a half", 2.5)]
    fn reads_figures(#[case] text: &str, #[case] value: f64) {
        let figure = figure_at(&words(text), 0).unwrap();
        assert!((figure.value - value).abs() < 1e-9, "{figure:?}");
        assert_eq!(figure.len, words(text).len());
    }

    #[rstest]
    #[case("80 degree celsius that is 176 fahrenheit", &[(80.0, None, Quantity::Temperature)])]
    #[case("for two three minute", &[(120.0, Some(180.0), Quantity::Duration)])]
    #[case("two three millimetre", &[(3.0, None, Quantity::Length)])]
    #[case("for two to three minute", &[(120.0, Some(180.0), Quantity::Duration)])]
    #[case("two minute thirty second", &[(150.0, None, Quantity::Duration)])]
    #[case("wait half a minute", &[(30.0, None, Quantity::Duration)])]
    #[case("it cost 19.99 dollar", &[(19.99, None, Quantity::Price)])]
    #[case("90 degree celsius 165 degree fahrenheit", &[(90.0, None, Quantity::Temperature), (73.888888889, None, Quantity::Temperature)])]
    fn reads_quantities(#[case] text: &str, #[case] wanted: &[(f64, Option<f64>, Quantity)]) {
        let found: Vec<_> =
            quantities(&words(text)).into_iter().map(|q| (q.measure.value, q.measure.to, q.measure.quantity)).collect();
        assert_eq!(found, wanted);
    }

    #[rstest]
    #[case("ph00", Some("PH00"))]
    #[case("t6", Some("T6"))]
    #[case("y0", Some("Y0"))]
    #[case("p2", Some("P2"))]
    #[case("f118", None)]
    #[case("t1234", None)]
    fn reads_bit_codes(#[case] word: &str, #[case] code: Option<&str>) {
        assert_eq!(bit_code(word).map(|(_, c)| c).as_deref(), code);
    }

    #[rstest]
    #[case(&["torx", "one", "screw"], Some("1"))]
    #[case(&["phillips", "number", "one"], Some("1"))]
    #[case(&["torx", "one", "display"], None)]
    #[case(&["torx", "one"], None)]
    #[case(&["torx", "six"], Some("6"))]
    fn one_is_a_size_only_before_what_has_one(#[case] words: &[&str], #[case] size: Option<&str>) {
        assert_eq!(bit_size(words, 1).map(|(size, _)| size).as_deref(), size);
    }
}
