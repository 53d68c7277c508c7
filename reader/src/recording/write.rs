//! Recordings back out, for other tools. Text without times has no cues to write.

use super::Recording;

/// The recording as WebVTT; cues without times are left out.
pub fn to_webvtt(recording: &Recording) -> String {
    let mut out = String::from("WEBVTT");
    if let Some(title) = &recording.title {
        out.push_str(&format!(" - {}", title.replace("-->", "→")));
    }
    out.push_str("\n\n");
    for (start, end, text) in timed(recording) {
        let text = text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;");
        out.push_str(&format!("{} --> {}\n{text}\n\n", stamp(start, '.'), stamp(end, '.')));
    }
    out
}

/// The recording as SubRip; cues without times are left out.
pub fn to_subrip(recording: &Recording) -> String {
    let mut out = String::new();
    for (n, (start, end, text)) in timed(recording).enumerate() {
        // SubRip has no escapes; the entities keep an angle bracket from being read as a tag.
        let text = text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;");
        out.push_str(&format!("{}\n{} --> {}\n{text}\n\n", n + 1, stamp(start, ','), stamp(end, ',')));
    }
    out
}

fn timed(recording: &Recording) -> impl Iterator<Item = (u64, u64, &str)> {
    recording.cues.iter().filter_map(|c| Some((c.start?, c.end.or(c.start)?, c.text.as_str())))
}

fn stamp(ms: u64, mark: char) -> String {
    let s = ms / 1000;
    format!("{:02}:{:02}:{:02}{mark}{:03}", s / 3600, s % 3600 / 60, s % 60, ms % 1000)
}
