//! Recordings: timed text in and out.
//!
//! Everything later stands on seconds and characters of the recording, so this module is strict about *where* and
//! tolerant about *how*: it takes what recognisers really write (rolling captions, missing ends, cues out of order) and
//! keeps a note of everything it mended. The format is told from the content, never from a file's name.

mod captions;
mod timed_text;
mod write;

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

pub use write::{to_subrip, to_webvtt};

/// Largest source taken, in bytes.
pub const MAX_BYTES: usize = 2_000_000;
/// Longest recording taken, in milliseconds (24 hours).
pub const MAX_MS: u64 = 24 * 3_600_000;

/// What kind of text a recording came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SourceFormat {
    /// Paragraphs with `[m:ss]` marks.
    TimedText,
    WebVtt,
    SubRip,
    /// Text without any times.
    Plain,
}

/// One segment of speech.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Cue {
    /// Milliseconds since the recording's start; `None` in text without times.
    pub start: Option<u64>,
    /// Milliseconds since the recording's start; from the next cue where the source doesn't say.
    pub end: Option<u64>,
    pub text: String,
}

/// Something the reader of the file had to mend, so that nobody wonders later.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Mended {
    /// Line of the source, from 1.
    pub line: usize,
    pub what: String,
}

/// A recording as text: cues in the order of time.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Recording {
    pub title: Option<String>,
    pub format: SourceFormat,
    pub cues: Vec<Cue>,
    pub mended: Vec<Mended>,
}

/// Why a source is no recording. Every variant says what was wrong, where, and what would be right.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum RecordingError {
    #[error(
        "The file holds {size} bytes; at most {MAX_BYTES} are taken. Split the recording or leave out what is not speech."
    )]
    TooLarge { size: usize },
    #[error("Line {line}: {at} is past 24 hours, the longest recording taken. Check the time, or split the recording.")]
    TooLong { line: usize, at: String },
    #[error("Line {line}: the text is not UTF-8 from here on. Save the file as UTF-8 and bring it again.")]
    NotUtf8 { line: usize },
    #[error("Line {line}: “{found}” is not a time. {wanted}")]
    BadTime { line: usize, found: String, wanted: &'static str },
    #[error("The file holds no speech. Bring a transcript with at least one line of text.")]
    Empty,
    #[error(
        "Line {line}: a zero byte stands in the text, so this is no text file. Bring the transcript as text, WebVTT or SubRip."
    )]
    Binary { line: usize },
}

impl Recording {
    /// Reads a source whose format is told from its content.
    ///
    /// # Errors
    /// Names the line and what would be right; see [`RecordingError`].
    pub fn parse(source: &[u8]) -> Result<Self, RecordingError> {
        if source.len() > MAX_BYTES {
            return Err(RecordingError::TooLarge { size: source.len() });
        }
        let (text, mended) = clean(&decode(source)?);
        let mut recording = match detect(&text) {
            SourceFormat::WebVtt => captions::parse(&text, SourceFormat::WebVtt)?,
            SourceFormat::SubRip => captions::parse(&text, SourceFormat::SubRip)?,
            SourceFormat::TimedText => timed_text::parse(&text)?,
            SourceFormat::Plain => timed_text::parse_plain(&text),
        };
        recording.mended.splice(..0, mended);
        if recording.cues.is_empty() { Err(RecordingError::Empty) } else { Ok(recording) }
    }

    /// When the last cue ends, in milliseconds; 0 for text without times.
    pub fn duration_ms(&self) -> u64 {
        self.cues.iter().filter_map(|c| c.end.or(c.start)).max().unwrap_or(0)
    }

    /// Whether the source said any times.
    pub fn timed(&self) -> bool {
        self.cues.iter().any(|c| c.start.is_some())
    }
}

fn decode(source: &[u8]) -> Result<String, RecordingError> {
    let line_of = |at: usize| source[..at].iter().filter(|b| **b == b'\n').count() + 1;
    let text = std::str::from_utf8(source).map_err(|e| RecordingError::NotUtf8 { line: line_of(e.valid_up_to()) })?;
    if let Some(at) = text.find('\0') {
        return Err(RecordingError::Binary { line: line_of(at) });
    }
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    Ok(text.replace("\r\n", "\n").replace('\r', "\n"))
}

/// Longest word taken, in characters: no word of speech comes near, an address of a page may.
const MAX_WORD: usize = 100;

/// Takes out what cannot be shown (control characters, marks that turn writing round) and cuts words that never end; what
/// was mended is noted, the first of each kind.
fn clean(text: &str) -> (String, Vec<Mended>) {
    let is_unseen = |c: char| {
        c.is_control() && !matches!(c, '\n' | '\t') || matches!(c, '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
    };
    let (mut out, mut mended) = (String::with_capacity(text.len()), Vec::new());
    let (mut unseen, mut endless, mut line, mut letters) = (false, false, 1, 0);
    for c in text.chars() {
        letters = if c.is_whitespace() { 0 } else { letters + 1 };
        line += usize::from(c == '\n');
        if is_unseen(c) {
            if !std::mem::replace(&mut unseen, true) {
                let what = format!("the character U+{:04X}, which cannot be shown, became a space", c as u32);
                mended.push(Mended { line, what });
            }
            out.push(' ');
        } else if letters <= MAX_WORD {
            out.push(c);
        } else if !std::mem::replace(&mut endless, true) {
            let what = format!("a word of more than {MAX_WORD} characters was cut");
            mended.push(Mended { line, what });
        }
    }
    (out, mended)
}

/// A time line outweighs everything else: a plain text never holds `-->` between two times.
fn detect(text: &str) -> SourceFormat {
    if text.starts_with("WEBVTT") {
        return SourceFormat::WebVtt;
    }
    if text.lines().any(captions::is_time_line) {
        let point = text.lines().find(|l| captions::is_time_line(l)).is_some_and(|l| !l.contains(','));
        return if point { SourceFormat::WebVtt } else { SourceFormat::SubRip };
    }
    if text.lines().any(|l| timed_text::mark(l).is_some()) { SourceFormat::TimedText } else { SourceFormat::Plain }
}

/// Gives every timed cue an end: the next cue's start, or for the last one a guess from its length.
fn fill_ends(cues: &mut [Cue]) {
    const SPEECH_CHARS_PER_S: u64 = 15; // common practice for captions, no source
    let starts: Vec<Option<u64>> = cues.iter().map(|c| c.start).collect();
    for (i, cue) in cues.iter_mut().enumerate() {
        let (Some(start), None) = (cue.start, cue.end) else { continue };
        let guess = start + (cue.text.chars().count() as u64 * 1000 / SPEECH_CHARS_PER_S).max(1000);
        cue.end = Some(starts[i + 1..].iter().flatten().next().copied().unwrap_or(guess).max(start));
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("WEBVTT\n\n00:01.000 --> 00:02.000\nhi", SourceFormat::WebVtt)]
    #[case("1\n00:00:01,000 --> 00:00:02,000\nhi", SourceFormat::SubRip)]
    #[case("00:00:01.000 --> 00:00:02.000\nhi", SourceFormat::WebVtt)]
    #[case("[0:05] lift the cover", SourceFormat::TimedText)]
    #[case("lift the cover", SourceFormat::Plain)]
    fn tells_the_format_from_the_content(#[case] text: &str, #[case] format: SourceFormat) {
        assert_eq!(Recording::parse(text.as_bytes()).unwrap().format, format);
    }

    #[rstest]
    #[case(b"".as_slice(), "holds no speech")]
    #[case(b"\n \n\r\n".as_slice(), "holds no speech")]
    #[case(b"fine\nbad \xff\xfe".as_slice(), "Line 2: the text is not UTF-8")]
    #[case(b"a\nb\0c".as_slice(), "Line 2: a zero byte")]
    #[case(b"[0:01] a\n\n[1:75] b".as_slice(), "Line 3: “[1:75]” is not a time")]
    #[case(b"[25:00:00] late".as_slice(), "Line 1: 25:00:00 is past 24 hours")]
    fn refuses_with_line_and_reason(#[case] source: &[u8], #[case] says: &str) {
        let error = Recording::parse(source).unwrap_err().to_string();
        assert!(error.contains(says), "{error}");
    }

    #[rstest]
    #[case("[0:01] lift\n\n[0:04] the co\u{7}ver", "lift|the co ver", 3, "U+0007")]
    #[case("lift the \u{202e}cover", "lift the  cover", 1, "U+202E")]
    #[case(&format!("lift {} off", "x".repeat(300)), &format!("lift {} off", "x".repeat(100)), 1, "a word of more than 100")]
    fn mends_what_cannot_be_shown(#[case] source: &str, #[case] text: &str, #[case] line: usize, #[case] says: &str) {
        let read = Recording::parse(source.as_bytes()).unwrap();
        let cues: Vec<&str> = read.cues.iter().map(|c| c.text.as_str()).collect();
        assert_eq!(cues.join("|").replace("  ", " "), text.replace("  ", " "));
        assert_eq!((read.mended.len(), read.mended[0].line), (1, line), "{:?}", read.mended);
        assert!(read.mended[0].what.contains(says), "{:?}", read.mended);
    }

    #[test]
    fn refuses_what_is_too_large() {
        let source = vec![b'a'; MAX_BYTES + 1];
        assert!(matches!(Recording::parse(&source), Err(RecordingError::TooLarge { size }) if size == MAX_BYTES + 1));
    }

    #[test]
    fn carriage_returns_and_a_byte_order_mark_change_nothing() {
        let plain = Recording::parse(b"[0:01] a\n\n[0:04] b\n").unwrap();
        let windows = Recording::parse("\u{feff}[0:01] a\r\n\r\n[0:04] b\r\n".as_bytes()).unwrap();
        assert_eq!(plain, windows);
    }
}
