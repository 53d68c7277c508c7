//! The guide as CommonMark, for people and for version control.
//!
//! Only what CommonMark 0.31 has: no tables, no raw HTML. Text from authors is escaped so that it reads as they wrote it.

use super::{GuideStep, connector_name, guide};
use crate::manual::{Called, Manual, NoteKind};

/// The whole guide, teardown and rebuild.
pub fn markdown(manual: &Manual) -> String {
    let guide = guide(manual);
    let mut out = format!("# {}\n", escape(&guide.title));
    if !guide.device.is_empty() {
        out.push_str(&format!("\nDevice: {}\n", escape(&guide.device)));
    }
    section(&mut out, "Before you begin", &guide.care);
    let tell = |v: &super::VariantLine| format!("{}: {}", v.name, v.text);
    section(&mut out, "Which one is yours", &guide.variants.iter().map(tell).collect::<Vec<_>>());
    for note in guide.around.iter().filter(|n| n.kind != NoteKind::MustPass) {
        section(&mut out, &note.title, &note.lines);
    }
    let order = |o: &super::OrderLine| format!("{}: {}", o.name, o.text);
    section(&mut out, "To order", &guide.orders.iter().map(order).collect::<Vec<_>>());
    section(&mut out, "Tools", &guide.tools);
    section(&mut out, "Materials", &guide.consumables.iter().map(|c| c.name().to_owned()).collect::<Vec<_>>());
    out.push_str("\n## Taking apart\n");
    for step in &guide.steps {
        match guide.called.iter().find(|c| (c.from..=c.to).contains(&step.number)) {
            Some(called) if called.from == step.number => push_called(&mut out, called),
            Some(_) => {}
            None => push_step(&mut out, manual, step),
        }
    }
    out.push_str("\n## Putting together\n");
    for (n, step) in guide.fold.rebuild.iter().enumerate() {
        out.push_str(&format!("\n### {}. {}\n\n", n + 1, escape(&step.title)));
        for line in &step.lines {
            out.push_str(&format!("- {}\n", escape(&line.text)));
        }
        if let Some(why) = &step.displaced {
            out.push_str(&format!("\n{}\n", escape(why)));
        }
    }
    for note in guide.around.iter().filter(|n| n.kind == NoteKind::MustPass) {
        section(&mut out, &note.title, &note.lines);
    }
    push_screws(&mut out, &guide.screws);
    let balance = &guide.fold.balance;
    out.push_str(&format!(
        "\nScrews: {} out, {} back, {} new, {} left over.\n",
        balance.out, balance.back, balance.renewed, balance.left_over
    ));
    out
}

fn section(out: &mut String, title: &str, lines: &[String]) {
    if lines.is_empty() {
        return;
    }
    out.push_str(&format!("\n## {title}\n\n"));
    for line in lines {
        out.push_str(&format!("- {}\n", escape(line)));
    }
}

/// Settings and orders, for the bench.
fn push_screws(out: &mut String, sheet: &super::ScrewSheet) {
    section(out, "Screws", &sheet.rows.iter().map(super::SheetRow::words).collect::<Vec<_>>());
    let order = |j: &super::SheetJoint| {
        let numbers = j.order.as_ref().map_or(String::new(), |o| format!(" Order: {o}."));
        format!("{}: {}{numbers}", j.title, j.says)
    };
    section(out, "Tightening", &sheet.joints.iter().map(order).collect::<Vec<_>>());
}

/// "1–4. Follow the guide …" in place of its steps.
fn push_called(out: &mut String, called: &Called) {
    let numbers =
        if called.from == called.to { called.from.to_string() } else { format!("{}–{}", called.from, called.to) };
    out.push_str(&format!("\n### {numbers}. Follow the guide “{}”\n\n", escape(&called.title)));
    for line in &called.expects {
        out.push_str(&format!("- It expects: {}\n", escape(line)));
    }
    out.push_str(&format!("- It leaves out of the device: {}\n", escape(&called.leaves.join(", "))));
}

fn push_step(out: &mut String, manual: &Manual, step: &GuideStep) {
    if let Some(stage) = &step.stage {
        out.push_str(&format!("\n**{}**\n", escape(stage)));
    }
    out.push_str(&format!("\n### {}. {}\n", step.number, escape(&step.title)));
    for caution in &step.cautions {
        out.push_str(&format!("\n> **Caution:** {}\n", escape(&caution.text)));
    }
    out.push('\n');
    for line in &step.lines {
        out.push_str(&format!("- {}\n", escape(line)));
    }
    if !step.variants.is_empty() {
        out.push_str(&format!("- Only for: {}\n", escape(&step.variants.join(", "))));
    }
    if let Some(posture) = &step.posture {
        out.push_str(&format!("- The device lies {}\n", escape(posture)));
    }
    for branch in &step.branches {
        out.push_str(&format!("- {}\n", escape(branch)));
    }
    for screws in &step.screws {
        out.push_str(&format!("- Screws: {}\n", escape(&screws.words)));
    }
    for heat in &step.heat {
        out.push_str(&format!("- Heat: {}\n", escape(heat)));
    }
    for connector in manual.connectors_of(step.id) {
        out.push_str(&format!("- Connector: {}\n", escape(&connector_name(manual, connector))));
    }
    if let Some(note) = &step.note {
        out.push_str(&format!("\n{}\n", escape(note)));
    }
}

/// Keeps an author's text from being read as markup.
fn escape(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for line in text.split('\n') {
        if !out.is_empty() {
            out.push(' ');
        }
        let line = line.trim();
        for (i, c) in line.char_indices() {
            let starts_block = i == 0 && matches!(c, '#' | '+' | '-' | '=' | '~');
            // "5." at the start of a line would begin a list.
            let numbered = matches!(c, '.' | ')') && i > 0 && i < 10 && line[..i].chars().all(|d| d.is_ascii_digit());
            if starts_block || numbered || matches!(c, '\\' | '`' | '*' | '_' | '[' | ']' | '<' | '>' | '&' | '|' | '!')
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
    #[case("version 1.2", "version 1.2")]
    fn text_reads_as_written(#[case] text: &str, #[case] escaped: &str) {
        assert_eq!(escape(text), escaped);
    }
}
