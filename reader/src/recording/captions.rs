//! WebVTT and SubRip, read by one block reader.
//!
//! The two differ in a comma, and what recognisers write keeps to neither: cues without numbers or ends, cues out of
//! order, styling tags, two-line captions that roll. A grammar for the clean case would refuse most real files, so this
//! reader looks for time lines and takes what stands below them. Sources: W3C WebVTT (from memory); SubRip has no
//! standard (common practice).

use super::{Cue, MAX_MS, Mended, Recording, RecordingError, SourceFormat, fill_ends};

const WANTED: &str = "Write 00:01:02.500 --> 00:01:04.000 (WebVTT) or 00:01:02,500 --> 00:01:04,000 (SubRip).";

/// A line with `-->` whose left side begins with a digit; anything else with an arrow is speech.
pub(super) fn is_time_line(line: &str) -> bool {
    line.split_once("-->").is_some_and(|(left, _)| left.trim_start().starts_with(|c: char| c.is_ascii_digit()))
}

struct Raw {
    line: usize,
    start: u64,
    end: Option<u64>,
    lines: Vec<String>,
}

pub(super) fn parse(text: &str, format: SourceFormat) -> Result<Recording, RecordingError> {
    let mut mended = Vec::new();
    let mut raw = blocks(text, &mut mended)?;
    if !raw.is_sorted_by_key(|c| c.start) {
        mended.push(Mended { line: 1, what: "cues out of order were sorted by time".to_owned() });
        raw.sort_by_key(|c| c.start);
    }
    unroll(&mut raw, &mut mended);
    let mut cues: Vec<Cue> = raw
        .into_iter()
        .map(|c| Cue { start: Some(c.start), end: c.end, text: c.lines.join(" ") })
        .filter(|c| !c.text.is_empty())
        .collect();
    cut_overlaps(&mut cues);
    fill_ends(&mut cues);
    Ok(Recording { title: title(text), format, cues, mended })
}

/// What stands behind `WEBVTT` on the first line.
fn title(text: &str) -> Option<String> {
    let rest = text.lines().next()?.strip_prefix("WEBVTT")?.trim().trim_start_matches('-').trim();
    let rest = rest.strip_prefix("Recording:").unwrap_or(rest).trim();
    (!rest.is_empty()).then(|| rest.to_owned())
}

fn blocks(text: &str, mended: &mut Vec<Mended>) -> Result<Vec<Raw>, RecordingError> {
    let lines: Vec<&str> = text.lines().collect();
    let mut out: Vec<Raw> = Vec::new();
    let mut inside = false;
    for (n, line) in lines.iter().enumerate() {
        if is_time_line(line) {
            out.push(time_line(line, n + 1, mended)?);
            inside = true;
        } else if line.trim().is_empty() {
            inside = false;
        } else if inside && !is_counter(line, lines.get(n + 1)) {
            let spoken = clean(line);
            if !spoken.is_empty() {
                out.last_mut().expect("inside a cue").lines.push(spoken);
            }
        }
    }
    Ok(out)
}

/// A bare number right above a time line counts cues, even where the blank line before it is missing.
fn is_counter(line: &str, next: Option<&&str>) -> bool {
    line.trim().chars().all(|c| c.is_ascii_digit()) && next.is_some_and(|n| is_time_line(n))
}

fn time_line(line: &str, line_no: usize, mended: &mut Vec<Mended>) -> Result<Raw, RecordingError> {
    let (left, right) = line.split_once("-->").expect("a time line");
    let bad = |found: &str| RecordingError::BadTime { line: line_no, found: found.trim().to_owned(), wanted: WANTED };
    let start = milliseconds(left.trim()).ok_or_else(|| bad(left))?;
    // Cue settings (position, align, region) follow the end; none of them changes what was said.
    let mut end = match right.split_whitespace().next() {
        None => None,
        Some(word) => Some(milliseconds(word).ok_or_else(|| bad(word))?),
    };
    if start > MAX_MS || end.is_some_and(|e| e > MAX_MS) {
        return Err(RecordingError::TooLong { line: line_no, at: line.trim().to_owned() });
    }
    if end.is_none() {
        mended.push(Mended { line: line_no, what: "the cue says no end; it lasts to the next one".to_owned() });
    } else if end.is_some_and(|e| e < start) {
        mended
            .push(Mended { line: line_no, what: "the cue ends before it starts; it lasts to the next one".to_owned() });
        end = None;
    }
    Ok(Raw { line: line_no, start, end, lines: Vec::new() })
}

/// `[hh:]mm:ss[.,]ttt`; the fraction may be short or missing.
fn milliseconds(text: &str) -> Option<u64> {
    let (clock, fraction) = text.split_once([',', '.']).unwrap_or((text, "0"));
    let fields: Vec<u64> = clock.split(':').map(|f| f.parse().ok()).collect::<Option<_>>()?;
    let (h, m, s) = match fields[..] {
        [m, s] => (0, m, s),
        [h, m, s] => (h, m, s),
        _ => return None,
    };
    if m >= 60 || s >= 60 || !fraction.chars().all(|c| c.is_ascii_digit()) || fraction.is_empty() {
        return None;
    }
    let thousandths: u64 = format!("{fraction:0<3}").get(..3)?.parse().ok()?;
    h.checked_mul(3600)?.checked_add(m * 60 + s)?.checked_mul(1000)?.checked_add(thousandths)
}

/// Drops tags such as `<i>`, `<v Name>`, `<00:00:05.000>` and `{\an8}`, and unescapes the six WebVTT entities.
fn clean(line: &str) -> String {
    let mut out = String::with_capacity(line.len());
    let mut rest = line;
    while let Some(open) = rest.find(['<', '{']) {
        out.push_str(&rest[..open]);
        let close = if rest[open..].starts_with('<') { '>' } else { '}' };
        let tag = rest[open..].find(close).filter(|_| is_tag(&rest[open..]));
        match tag {
            Some(len) => rest = &rest[open + len + 1..],
            None => {
                out.push_str(&rest[open..=open]);
                rest = &rest[open + 1..];
            }
        }
    }
    out.push_str(rest);
    let entities = [("&lt;", "<"), ("&gt;", ">"), ("&nbsp;", " "), ("&lrm;", ""), ("&rlm;", ""), ("&amp;", "&")];
    let plain = entities.iter().fold(out, |text, (from, to)| text.replace(from, to));
    plain.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// `<` before a letter, a slash or a digit, or `{\`: speech like "a < b" stays.
fn is_tag(at: &str) -> bool {
    let mut chars = at.chars();
    match (chars.next(), chars.next()) {
        (Some('<'), Some(c)) => c.is_ascii_alphanumeric() || c == '/',
        (Some('{'), Some(c)) => c == '\\',
        _ => false,
    }
}

/// Rolling captions show the last line again above the new one. Only a file that rolls as a habit is unrolled, because
/// a sentence told twice is a fact of the recording.
fn unroll(raw: &mut Vec<Raw>, mended: &mut Vec<Mended>) {
    let shared: Vec<usize> =
        raw.windows(2).map(|w| if rolls(&w[0], &w[1]) { overlap(&w[0].lines, &w[1].lines) } else { 0 }).collect();
    let rolling = shared.iter().filter(|n| **n > 0).count();
    if raw.len() < 3 || rolling * 3 < shared.len() {
        return;
    }
    for (cue, n) in raw[1..].iter_mut().zip(&shared) {
        cue.lines.drain(..n);
    }
    mended.push(Mended { line: raw[0].line, what: format!("{rolling} rolling captions were read once each") });
    // A pause cue that only repeated its neighbours leaves its time to the cue before.
    let mut kept: Vec<Raw> = Vec::with_capacity(raw.len());
    for cue in raw.drain(..) {
        match kept.last_mut() {
            Some(before) if cue.lines.is_empty() => before.end = before.end.max(cue.end),
            _ => kept.push(cue),
        }
    }
    *raw = kept;
}

fn rolls(a: &Raw, b: &Raw) -> bool {
    const BREATH_MS: u64 = 300;
    a.end.is_none_or(|end| b.start <= end + BREATH_MS)
}

/// How many last lines of `a` open `b`.
fn overlap(a: &[String], b: &[String]) -> usize {
    (1..=a.len().min(b.len())).rev().find(|n| a[a.len() - n..] == b[..*n]).unwrap_or(0)
}

/// A cue never runs into the next: the strip of time shows each second once.
fn cut_overlaps(cues: &mut [Cue]) {
    for i in 1..cues.len() {
        let next = cues[i].start;
        if let (Some(end), Some(next)) = (cues[i - 1].end, next)
            && end > next
        {
            cues[i - 1].end = Some(next);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn texts(source: &str) -> Vec<String> {
        let format = if source.starts_with("WEBVTT") { SourceFormat::WebVtt } else { SourceFormat::SubRip };
        parse(source, format).unwrap().cues.into_iter().map(|c| c.text).collect()
    }

    #[rstest]
    #[case::tags("<v Ann><i>lift</i> it</v>", "lift it")]
    #[case::karaoke("<00:00:01.000><c>pull</c> <c.x>slowly</c>", "pull slowly")]
    #[case::override_block("{\\an8}pull", "pull")]
    #[case::entities("3 &lt; 4 &amp;&amp; more", "3 < 4 && more")]
    #[case::speech("a < b and {c}", "a < b and {c}")]
    #[case::escaped_amp("&amp;lt;", "&lt;")]
    fn cleans_lines(#[case] line: &str, #[case] spoken: &str) {
        // `&amp;` is undone last, so an escaped entity stays what the author wrote.
        assert_eq!(clean(line), spoken);
    }

    #[test]
    fn skips_notes_styles_ids_and_settings() {
        let vtt = "WEBVTT - Recording: Lamp\n\nNOTE made by hand\nsecond note line\n\nSTYLE\n::cue {}\n\nintro\n\
                   00:01.000 --> 00:02.000 align:start position:0%\nhello\n";
        assert_eq!(texts(vtt), ["hello"]);
        assert_eq!(title(vtt).as_deref(), Some("Lamp"));
    }

    #[test]
    fn reads_a_counter_without_its_blank_line() {
        let srt = "1\n00:00:01,000 --> 00:00:02,000\none\n2\n00:00:02,000 --> 00:00:03,000\n42\n";
        assert_eq!(texts(srt), ["one", "42"]);
    }

    #[test]
    fn unrolls_rolling_captions_but_keeps_true_repeats() {
        let rolling = "WEBVTT\n\n00:00.000 --> 00:02.000\nlift the\n\n00:02.000 --> 00:02.010\nlift the\n\n\
                       00:02.010 --> 00:04.000\nlift the\ncover slowly\n\n00:04.000 --> 00:06.000\ncover slowly\nand stop\n";
        assert_eq!(texts(rolling), ["lift the", "cover slowly", "and stop"]);
        let spoken = "WEBVTT\n\n00:00.000 --> 00:02.000\nstep seven\n\n00:02.000 --> 00:04.000\nstep seven\n\n\
                      00:04.000 --> 00:06.000\nlift\n\n00:06.000 --> 00:08.000\npull\n\n00:08.000 --> 00:10.000\nturn\n";
        assert_eq!(texts(spoken).len(), 5);
    }

    #[test]
    fn mends_ends_overlaps_and_order() {
        let srt =
            "1\n00:00:05,000 --> 00:00:09,000\nb\n\n2\n00:00:01,000 --> 00:00:06,000\na\n\n3\n00:00:08,000 -->\nc\n";
        let r = parse(srt, SourceFormat::SubRip).unwrap();
        let ends: Vec<_> = r.cues.iter().map(|c| (c.start.unwrap(), c.end.unwrap())).collect();
        assert_eq!(ends, [(1_000, 5_000), (5_000, 8_000), (8_000, 9_000)]);
        assert_eq!(r.mended.len(), 2);
    }

    #[rstest]
    #[case("1\n00:00:0x,000 --> 00:00:02,000\na", "Line 2: “00:00:0x,000” is not a time")]
    #[case("1\n00:00:01,000 --> soon\na", "Line 2: “soon” is not a time")]
    #[case("1\n30:00:00,000 --> 30:00:01,000\na", "Line 2: 30:00:00,000 --> 30:00:01,000 is past 24 hours")]
    fn names_line_and_reason(#[case] srt: &str, #[case] says: &str) {
        let error = parse(srt, SourceFormat::SubRip).unwrap_err().to_string();
        assert!(error.starts_with(says), "{error}");
    }
}
