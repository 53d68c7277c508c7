//! Paragraphs with `[m:ss]` or `[h:mm:ss]` marks, in front of a paragraph or on a line of their own, and text
//! without any.

use super::{Cue, MAX_MS, Mended, Recording, RecordingError, SourceFormat, fill_ends};

const WANTED: &str = "Write minutes and seconds as [m:ss] or [h:mm:ss], with seconds and minutes below 60.";

/// The inside of a leading `[…]` made of digits and colons, and what follows it.
pub(super) fn mark(line: &str) -> Option<(&str, &str)> {
    let rest = line.trim_start().strip_prefix('[')?;
    let (inside, after) = rest.split_once(']')?;
    let shaped = inside.contains(':') && inside.chars().all(|c| c.is_ascii_digit() || c == ':' || c == '.');
    shaped.then_some((inside, after))
}

/// `m:ss`, `h:mm:ss`, either with a fraction of a second.
fn milliseconds(text: &str) -> Option<u64> {
    let (clock, fraction) = text.split_once('.').unwrap_or((text, "0"));
    let fields: Vec<u64> = clock.split(':').map(|f| f.parse().ok()).collect::<Option<_>>()?;
    let (h, m, s) = match fields[..] {
        [m, s] => (0, m, s),
        [h, m, s] if m < 60 => (h, m, s),
        _ => return None,
    };
    if s >= 60 || fraction.is_empty() {
        return None;
    }
    let thousandths: u64 = format!("{fraction:0<3}").get(..3)?.parse().ok()?;
    h.checked_mul(3600)?.checked_add(m.checked_mul(60)?)?.checked_add(s)?.checked_mul(1000)?.checked_add(thousandths)
}

pub(super) fn parse(text: &str) -> Result<Recording, RecordingError> {
    let mut out = Recording { title: None, format: SourceFormat::TimedText, cues: Vec::new(), mended: Vec::new() };
    let mut before_first = Vec::new();
    for (n, line) in text.lines().enumerate() {
        let line_no = n + 1;
        if let Some((inside, rest)) = mark(line) {
            let start = milliseconds(inside).ok_or_else(|| RecordingError::BadTime {
                line: line_no,
                found: format!("[{inside}]"),
                wanted: WANTED,
            })?;
            if start > MAX_MS {
                return Err(RecordingError::TooLong { line: line_no, at: inside.to_owned() });
            }
            out.cues.push(Cue { start: Some(start), end: None, text: rest.trim().to_owned() });
        } else if let Some(heading) = heading(line) {
            // The first heading names the recording; later ones divide it and are no speech.
            out.title.get_or_insert(heading);
        } else if !line.trim().is_empty() {
            match out.cues.last_mut() {
                Some(cue) => append(&mut cue.text, line.trim()),
                None => before_first.push((line_no, line.trim())),
            }
        }
    }
    if let Some((line, _)) = before_first.first() {
        let text = before_first.iter().map(|(_, l)| *l).collect::<Vec<_>>().join(" ");
        out.mended.push(Mended { line: *line, what: "text before the first time was placed at 0:00".to_owned() });
        out.cues.insert(0, Cue { start: Some(0), end: None, text });
    }
    sort_by_time(&mut out);
    out.cues.retain(|c| !c.text.is_empty());
    fill_ends(&mut out.cues);
    Ok(out)
}

pub(super) fn parse_plain(text: &str) -> Recording {
    let mut out = Recording { title: None, format: SourceFormat::Plain, cues: Vec::new(), mended: Vec::new() };
    let mut open = false;
    for line in text.lines() {
        if line.trim().is_empty() {
            open = false;
        } else if let Some(heading) = heading(line) {
            out.title.get_or_insert(heading);
            open = false;
        } else if open {
            append(&mut out.cues.last_mut().expect("an open paragraph").text, line.trim());
        } else {
            out.cues.push(Cue { start: None, end: None, text: line.trim().to_owned() });
            open = true;
        }
    }
    out
}

fn heading(line: &str) -> Option<String> {
    let text = line.trim_start().strip_prefix('#')?.trim_start_matches('#').trim();
    let title = text.strip_prefix("Recording:").unwrap_or(text).trim();
    (!title.is_empty()).then(|| title.to_owned())
}

fn append(text: &mut String, more: &str) {
    if !text.is_empty() {
        text.push(' ');
    }
    text.push_str(more);
}

fn sort_by_time(recording: &mut Recording) {
    let sorted = recording.cues.is_sorted_by_key(|c| c.start);
    if !sorted {
        recording.cues.sort_by_key(|c| c.start);
        recording.mended.push(Mended { line: 1, what: "paragraphs out of order were sorted by time".to_owned() });
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("0:05", Some(5_000))]
    #[case("61:05", Some(3_665_000))]
    #[case("1:02:03", Some(3_723_000))]
    #[case("0:05.25", Some(5_250))]
    #[case("1:60", None)]
    #[case("1:60:00", None)]
    #[case("1:2:3:4", None)]
    #[case("99999999999999999999:00", None)]
    fn reads_marks(#[case] text: &str, #[case] ms: Option<u64>) {
        assert_eq!(milliseconds(text), ms);
    }

    #[test]
    fn takes_marks_before_a_paragraph_and_on_their_own_line() {
        let r = parse("# Recording: Lamp\n\n[0:00] first\nstill first\n\n[0:10]\nsecond\n").unwrap();
        assert_eq!(r.title.as_deref(), Some("Lamp"));
        let cues: Vec<_> = r.cues.iter().map(|c| (c.start.unwrap(), c.end.unwrap(), c.text.as_str())).collect();
        assert_eq!(cues[0], (0, 10_000, "first still first"));
        assert_eq!((cues[1].0, cues[1].2), (10_000, "second"));
    }

    #[test]
    fn sorts_and_says_so() {
        let r = parse("[0:10] b\n[0:01] a").unwrap();
        assert_eq!(r.cues[0].text, "a");
        assert!(r.mended[0].what.contains("sorted"));
    }

    #[test]
    fn plain_paragraphs_have_no_times() {
        let r = parse_plain("one\ntwo\n\nthree");
        assert_eq!(r.cues.len(), 2);
        assert!(r.cues.iter().all(|c| c.start.is_none()));
    }
}
