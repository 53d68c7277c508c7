//! What the grammar made of a recording, in words: for whoever works on the reader.

use super::hints::Hints;
use super::{clauses, repair, sentences, tags};
use crate::recording::Recording;
use std::fmt::Write;

/// Every sentence with the class of each word and every clause with its verb, act, mood and things.
pub fn trace(recording: &Recording) -> String {
    let mut out = String::new();
    let punctuated = sentences::is_punctuated(recording);
    for mut sentence in sentences::split(recording) {
        repair::repair(&mut sentence, &Hints::default(), &[]);
        let tagged = tags::tag(&sentence.tokens, punctuated);
        let words: Vec<String> =
            (0..tagged.len()).map(|i| format!("{}/{:?}", tagged.words[i], tagged.tags[i])).collect();
        let _ = writeln!(out, "{}", words.join(" "));
        for c in clauses::split(&tagged) {
            let names = |list: &[super::phrases::NounPhrase]| {
                list.iter().map(|np| format!("{}:{:?}", np.text(), np.thing)).collect::<Vec<_>>().join(", ")
            };
            let places: Vec<String> =
                c.places.iter().map(|(p, np)| format!("{p} {}:{:?}", np.text(), np.thing)).collect();
            let _ = writeln!(
                out,
                "    {:?} {:?} {} | subject {} | moves {} | places {}{}",
                c.mood,
                c.act,
                c.base,
                names(&c.subject),
                names(&c.objects),
                places.join(", "),
                if c.elliptic { " | goes on" } else { "" },
            );
        }
    }
    out
}
