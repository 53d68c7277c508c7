//! The guide as CommonMark, for people and for version control.
//!
//! Only what CommonMark 0.31 has: no tables, no raw HTML. Text from authors is escaped so that it reads as they wrote it.

use super::{Block, LineKind, Section, StepBlock, guide};
use crate::cautions::CautionHead;
use crate::labels::Label;
use crate::manual::Manual;

/// The whole guide, teardown and rebuild.
pub fn markdown(manual: &Manual) -> String {
    let guide = guide(manual);
    let mut out = format!("# {}\n", escape(&guide.title));
    if !guide.device.is_empty() {
        out.push_str(&format!("\nDevice: {}\n", escape(&guide.device)));
    }
    for section in &guide.sections {
        push_section(&mut out, section);
    }
    out
}

fn push_section(out: &mut String, section: &Section) {
    out.push_str(&format!("\n## {}\n", section.title));
    let mut in_list = false;
    for block in &section.blocks {
        let listed = matches!(block, Block::Item(_) | Block::Caution(_) | Block::Screws(_) | Block::Cables(_));
        if listed && !in_list {
            out.push('\n');
        }
        in_list = listed;
        match block {
            Block::Item(text) => out.push_str(&format!("- {}\n", escape(text))),
            Block::Caution(block) => out.push_str(&format!("- {}\n", told(&block.head, &block.text))),
            Block::Text(text) => out.push_str(&format!("\n{}\n", escape(text))),
            Block::Stage(title) => out.push_str(&format!("\n**{}**\n", escape(title))),
            Block::Step(step) => push_step(out, step),
            Block::Screws(rows) => {
                rows.iter().for_each(|row| out.push_str(&format!("- {}\n", escape(&row.words()))));
            }
            Block::Cables(rows) => {
                rows.iter().for_each(|row| out.push_str(&format!("- {}\n", escape(&row.words()))));
            }
            // CommonMark has no drawing; the orders tell the holes by letter and number.
            Block::Map(_) => {}
            Block::Routes(sheet) => {
                out.push_str(&format!("\nOn “{}”:\n\n", escape(&sheet.name)));
                sheet.ways.iter().for_each(|way| out.push_str(&format!("- {}\n", escape(way))));
            }
        }
    }
}

fn push_step(out: &mut String, step: &StepBlock) {
    out.push_str(&format!("\n### {}. {}\n", step.number, escape(&step.title)));
    for (head, line) in step.lines.iter().filter_map(|l| Some((l.head.as_ref()?, l))) {
        out.push_str(&format!("\n> {}\n", told(head, &line.text)));
    }
    let rest = || step.lines.iter().filter(|l| l.kind != LineKind::Caution);
    if rest().next().is_some() {
        out.push('\n');
    }
    for line in rest() {
        let text = escape(&line.text);
        out.push_str(&match line.kind {
            LineKind::Act | LineKind::Branch | LineKind::Note | LineKind::Caution => format!("- {text}\n"),
            LineKind::Posture => format!("- {} {text}\n", line.kind.label()),
            LineKind::Why => format!("  *{text}*\n"),
            _ => format!("- {}: {text}\n", line.kind.label()),
        });
    }
    for sheet in &step.opens {
        out.push_str(&format!("\n**{}**\n\n", escape(&sheet.title)));
        sheet.lines.iter().for_each(|line| out.push_str(&format!("- {}\n", escape(&line.words()))));
    }
}

/// "**Warning, battery cell:** A pierced cell burns. Never stab it."
fn told(head: &CautionHead, text: &str) -> String {
    let of = head.hazard.as_ref().map_or(String::new(), |h| format!(", {}", escape(h)));
    let told = [head.consequence.as_deref(), Some(text), head.avoidance.as_deref()];
    let told: Vec<String> = told.into_iter().flatten().filter(|t| !t.is_empty()).map(escape).collect();
    format!("**{}{of}:** {}", head.level.label(), told.join(" "))
}

/// Keeps an author's text from being read as markup.
fn escape(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    // Every character that ends a line somewhere: what follows a lone carriage return would be a block of its own.
    let ends_line = |c: char| matches!(c, '\n' | '\r' | '\u{b}' | '\u{c}' | '\u{85}' | '\u{2028}' | '\u{2029}');
    for line in text.split(ends_line).filter(|l| !l.trim().is_empty()) {
        if !out.is_empty() {
            out.push(' ');
        }
        let line = line.trim();
        for (i, c) in line.char_indices() {
            let starts_block = i == 0 && matches!(c, '#' | '+' | '-' | '=' | '~');
            // "A #" as a heading would lose its last word.
            let closes_heading = c == '#' && line[..i].ends_with(char::is_whitespace);
            // "5." at the start of a line would begin a list.
            let numbered = matches!(c, '.' | ')') && i > 0 && i < 10 && line[..i].chars().all(|d| d.is_ascii_digit());
            if starts_block
                || closes_heading
                || numbered
                || matches!(c, '\\' | '`' | '*' | '_' | '[' | ']' | '<' | '>' | '&' | '|' | '!')
            {
                out.push('\\');
            }
            out.push(c);
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::escape;
    use rstest::rstest;

    #[rstest]
    #[case("5. not a list", r"5\. not a list")]
    #[case("# no heading", r"\# no heading")]
    #[case("a *b* <c> [d]", r"a \*b\* \<c\> \[d\]")]
    #[case("two\nlines", "two lines")]
    #[case("windows\r\nlines", "windows lines")]
    #[case("a lone return\r    no code", "a lone return no code")]
    #[case("one\u{2028}two\u{2029}three", "one two three")]
    #[case("fence\n```\nopen", r"fence \`\`\` open")]
    #[case("A #", r"A \#")]
    #[case("A ## b C#", r"A \## b C#")]
    #[case("version 1.2", "version 1.2")]
    fn text_reads_as_written(#[case] text: &str, #[case] escaped: &str) {
        assert_eq!(escape(text), escaped);
    }
}
