//! Lines of speech with the acts that a careful person hears in them, as they stand in files of the tests.

use paso_reader::reading::Deed;

#[derive(Debug, Default)]
pub struct Line<'a> {
    pub said: &'a str,
    pub told: &'a str,
    pub missed: bool,
}

pub fn lines(file: &str) -> Vec<Line<'_>> {
    let mut out: Vec<Line> = Vec::new();
    for line in file.lines().filter(|l| !l.trim().is_empty() && !l.starts_with('#')) {
        let line = line.trim();
        match (line.strip_prefix("> "), line.strip_prefix('?'), out.last_mut()) {
            (Some(told), _, Some(last)) => last.told = told,
            (_, Some(told), Some(last)) => (last.told, last.missed) = (told.trim(), true),
            _ => out.push(Line { said: line, ..Line::default() }),
        }
    }
    out
}

pub fn words(deeds: &[&Deed]) -> String {
    let one = |d: &&Deed| {
        let act = serde_json::to_value(d.act).expect("plain data");
        format!("{} {}", act.as_str().unwrap_or_default(), d.what.join(" + ")).trim_end().to_owned()
    };
    deeds.iter().map(one).collect::<Vec<_>>().join(", ")
}
