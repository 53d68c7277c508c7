//! Figures in speech: words, digits, counting aloud, sizes of bits. Those with a unit stand in [`quantities`](super::quantities).

use super::facts::Drive;
use super::lexicon::LEXICON;

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
    let (mut value, mut len) = match round_hundreds(words, at) {
        Some(one) => one,
        None => simple(words, at)?,
    };
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

/// "a hundred", "a thousand" and a bare "hundred" before what it counts: the one that the factor behind it multiplies.
fn round_hundreds(words: &[&str], at: usize) -> Option<(f64, usize)> {
    let factor = |i: usize| words.get(i).is_some_and(|w| matches!(*w, "hundred" | "thousand"));
    if words.get(at) == Some(&"a") && factor(at + 1) {
        return Some((1.0, 1));
    }
    let bare =
        factor(at) && (at == 0 || !matches!(words[at - 1], "the" | "of" | "few" | "couple" | "several" | "many"));
    bare.then_some((1.0, 0))
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

/// A bit's code in one word: `ph00`, `t6`, `pz1`, `y0`, `p2`.
pub(super) fn bit_code(word: &str) -> Option<(Drive, String)> {
    // Most words end with a letter, and nothing else has to be asked of them.
    if !word.ends_with(|c: char| c.is_ascii_digit()) {
        return None;
    }
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
    #[case("a hundred and four", 104.0)]
    #[case("a thousand", 1000.0)]
    #[case("hundred", 100.0)]
    fn reads_figures(#[case] text: &str, #[case] value: f64) {
        let figure = figure_at(&words(text), 0).unwrap();
        assert!((figure.value - value).abs() < 1e-9, "{figure:?}");
        assert_eq!(figure.len, words(text).len());
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
