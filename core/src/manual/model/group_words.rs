//! What is said of a group of screws, worded here and nowhere else.
//!
//! Steps, ledger, balance, reasons, tables, the guide and its files all speak of the same groups; a reader who meets one of
//! them twice must know it again.

use super::fasteners::FastenerGroup;
use crate::labels::Label;
use crate::manual::{FastenerFate, HeadForm, Manual};
use crate::screw::Thread;
use crate::units::{in_millimetres, number};

/// A group with the names that it needs to be spoken of.
#[derive(Debug, Clone, Copy)]
pub struct GroupWords<'m> {
    manual: &'m Manual,
    group: &'m FastenerGroup,
}

impl Manual {
    /// What is said of a group of this manual.
    pub fn words_of<'m>(&'m self, group: &'m FastenerGroup) -> GroupWords<'m> {
        GroupWords { manual: self, group }
    }
}

impl FastenerGroup {
    /// "4", or "?" where nobody counted.
    pub fn count_words(&self) -> String {
        self.count.map_or("?".to_owned(), |n| n.to_string())
    }

    /// The bit, else the drive: "PH0", "six-lobe".
    pub fn drive_words(&self) -> Option<String> {
        self.bit.clone().or_else(|| self.drive.map(|d| d.in_words().to_owned()))
    }

    /// "8 mm".
    pub fn length_words(&self) -> Option<String> {
        self.length.map(|l| format!("{} mm", number(in_millimetres(l))))
    }

    /// What kind of screw it is: "PH1, M3, 8 mm, pan head".
    pub fn kind_words(&self) -> String {
        kind_words(self.drive_words(), self.thread, self.length.map(in_millimetres), self.head, self.forming)
    }

    /// In a sentence: "4 PH1 screws", "the screw".
    pub fn in_a_sentence(&self) -> String {
        let count = self.count.map_or("the".to_owned(), |n| n.to_string());
        let drive = self.drive_words().map_or(String::new(), |d| format!(" {d}"));
        let screws = if self.count == Some(1) { "screw" } else { "screws" };
        format!("{count}{drive} {screws}")
    }
}

/// What makes screws alike, in words: drive, thread, length, head.
pub fn kind_words(
    drive: Option<String>,
    thread: Option<Thread>,
    length_mm: Option<f64>,
    head: Option<HeadForm>,
    forming: bool,
) -> String {
    let thread = thread.map(|t| t.to_string());
    let length = length_mm.map(|l| format!("{} mm", number(l)));
    let head = head.filter(|h| *h != HeadForm::None).map(|h| format!("{} head", h.label()));
    let forming = forming.then(|| "for plastic".to_owned());
    let words: Vec<String> = [drive, thread, length, head, forming].into_iter().flatten().collect();
    if words.is_empty() { "screws of unknown kind".to_owned() } else { words.join(", ") }
}

impl GroupWords<'_> {
    /// What they hold: "lid + rear frame"; empty where nobody said.
    pub fn holds(&self) -> String {
        self.group.holds.iter().map(|p| self.manual.part_name(*p)).collect::<Vec<_>>().join(" + ")
    }

    /// What it goes by: its name, else "PH0, 6 mm, rear housing".
    pub fn name(&self) -> String {
        if let Some(name) = &self.group.name {
            return name.clone();
        }
        let holds = Some(self.holds()).filter(|h| !h.is_empty());
        let words = [self.group.drive_words(), self.group.length_words(), holds];
        let words: Vec<String> = words.into_iter().flatten().collect();
        if words.is_empty() { "screws of unknown kind".to_owned() } else { words.join(", ") }
    }

    /// What is special about it: "captive, new ones, only for the blue one"; empty where nothing is.
    pub fn remarks(&self) -> Vec<String> {
        let only = self.manual.variant_names(&self.group.variants).join(", ");
        let fate = (self.group.fate != FastenerFate::Reuse).then(|| self.group.fate.label().to_owned());
        let mut out: Vec<String> = self.group.captive.then(|| "captive".to_owned()).into_iter().collect();
        out.extend(fate);
        out.extend((!only.is_empty()).then(|| format!("only for {only}")));
        out
    }

    /// One line for readers: "3 × T6, 4 mm, fan, captive, only for the blue one".
    pub fn line(&self) -> String {
        let mut words = vec![format!("{} ×", self.group.count_words())];
        if let Some(drive) = self.group.drive_words() {
            words[0].push_str(&format!(" {drive}"));
        }
        words.extend(self.group.length_words());
        words.extend(Some(self.holds()).filter(|h| !h.is_empty()));
        words.extend(self.remarks());
        words.join(", ")
    }
}

#[cfg(test)]
mod tests {
    use crate::manual::written::{group, manual};
    use rstest::rstest;

    #[rstest]
    #[case("1 lid: 4 PH1 8 mm, M3", "4 × PH1, 8 mm, lid", "PH1, M3, 8 mm", "4 PH1 screws")]
    #[case("1 lid: 1 T6", "1 × T6, lid", "T6", "1 T6 screw")]
    #[case("1 lid: ? PH1, captive", "? × PH1, lid, captive", "PH1", "the PH1 screws")]
    fn one_group_in_every_place(#[case] text: &str, #[case] line: &str, #[case] kind: &str, #[case] sentence: &str) {
        let m = manual(text);
        let g = &m.fasteners[&group(10)];
        let words = (m.words_of(g).line(), g.kind_words(), g.in_a_sentence());
        assert_eq!(words, (line.to_owned(), kind.to_owned(), sentence.to_owned()));
    }
}
