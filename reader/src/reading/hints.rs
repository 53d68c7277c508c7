//! What an author put right before the reading begins: words, and where statements end.
//!
//! Corrections are anchored to characters of the recording, never to a statement's number, so a better reader finds them
//! again. They are an input of the reading and change nothing else: the same recording with the same hints always reads
//! the same.

use super::lexicon::lemma;
use super::repair::Repair;
use super::sentences::{Sentence, Token};

/// Words that are meant where others were heard.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Meant {
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
    /// Empty: the words are to be passed over.
    pub text: String,
}

/// An author's corrections of one recording.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Hints {
    /// In the order of the text, without overlaps.
    pub words: Vec<Meant>,
    /// Characters at which a new statement begins.
    pub cuts: Vec<usize>,
    /// Characters at which the statement before goes on.
    pub joins: Vec<usize>,
}

impl Hints {
    /// Whether the author wrote what is read at these characters.
    pub(super) fn written(&self, start: usize, end: usize) -> bool {
        self.words.iter().any(|m| m.start < end && start < m.end)
    }
}

/// Puts the author's words in the place of those heard, and says so as repairs.
pub(super) fn put_words(sentences: &mut [Sentence], hints: &Hints, text: &[char]) -> Vec<Vec<Repair>> {
    sentences
        .iter_mut()
        .map(|sentence| hints.words.iter().filter_map(|meant| put(sentence, meant, text)).collect())
        .collect()
}

fn put(sentence: &mut Sentence, meant: &Meant, text: &[char]) -> Option<Repair> {
    let covers = |t: &Token| t.start < meant.end && meant.start < t.end;
    let from = sentence.tokens.iter().position(covers)?;
    let to = sentence.tokens.iter().rposition(covers)? + 1;
    let (first, last) = (sentence.tokens[from].clone(), sentence.tokens[to - 1].clone());
    let mut put: Vec<Token> = super::sentences::words(&meant.text)
        .map(|said| Token { lemma: lemma(&said), said, end: last.end, pause: false, stop: false, ..first.clone() })
        .collect();
    if let Some(end) = put.last_mut() {
        (end.pause, end.stop) = (last.pause, last.stop);
    }
    // A sentence keeps at least one word, or it would have no place.
    if put.is_empty() && to - from == sentence.tokens.len() {
        return None;
    }
    sentence.tokens.splice(from..to, put);
    Some(Repair {
        said: text[meant.start.min(text.len())..meant.end.min(text.len())].iter().collect(),
        meant: meant.text.clone(),
        start: meant.start,
        end: meant.end,
        because: "you wrote it".to_owned(),
        by_author: true,
    })
}

/// Statements begin and go on where the author says so.
pub(super) fn put_ends(sentences: Vec<Sentence>, hints: &Hints) -> Vec<Sentence> {
    let mut out: Vec<Sentence> = Vec::with_capacity(sentences.len());
    for sentence in sentences {
        let goes_on = hints.joins.contains(&sentence.tokens[0].start);
        match out.last_mut() {
            Some(last) if goes_on => {
                if let Some(token) = last.tokens.last_mut() {
                    (token.stop, token.pause) = (false, true);
                }
                last.tokens.extend(sentence.tokens);
            }
            _ => out.push(sentence),
        }
    }
    if hints.cuts.is_empty() {
        return out;
    }
    out.into_iter().flat_map(|s| cut(s, &hints.cuts)).collect()
}

fn cut(sentence: Sentence, cuts: &[usize]) -> Vec<Sentence> {
    let mut out = vec![Sentence::default()];
    for token in sentence.tokens {
        let here = cuts.contains(&token.start) && out.last().is_some_and(|s| !s.tokens.is_empty());
        if here {
            out.push(Sentence::default());
        }
        if let Some(open) = out.last_mut() {
            open.tokens.push(token);
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::super::{StatementKind, read, read_with};
    use super::*;
    use crate::recording::Recording;

    const TEXT: &str = "[0:00] Remove four brews from the lid. Lift the lid. It is heavy.";

    fn span(word: &str) -> (usize, usize) {
        let text = TEXT.strip_prefix("[0:00] ").unwrap();
        let start = text.find(word).unwrap();
        (start, start + word.len())
    }

    fn texts(hints: &Hints) -> Vec<String> {
        let recording = Recording::parse(TEXT.as_bytes()).unwrap();
        read_with(&recording, hints).statements.into_iter().map(|s| s.text).collect()
    }

    #[test]
    fn the_authors_word_is_read_in_place_of_the_one_heard() {
        let recording = Recording::parse(TEXT.as_bytes()).unwrap();
        assert!(read(&recording).statements[0].facts.fasteners.is_empty());
        let (start, end) = span("brews");
        let hints = Hints { words: vec![Meant { start, end, text: "PH1 screws".into() }], ..Hints::default() };
        let first = read_with(&recording, &hints).statements.remove(0);
        assert_eq!(first.facts.fasteners[0].count, Some(4));
        assert_eq!(first.facts.fasteners[0].bit.as_deref(), Some("PH1"));
        assert_eq!(first.text, "Remove four brews from the lid.");
        assert_eq!((first.repairs[0].said.as_str(), first.repairs[0].by_author), ("brews", true));
    }

    #[test]
    fn a_cut_begins_a_statement_and_a_join_ends_none() {
        let cut = Hints { cuts: vec![span("from").0], ..Hints::default() };
        assert_eq!(texts(&cut), ["Remove four brews", "from the lid.", "Lift the lid.", "It is heavy."]);
        let join = Hints { joins: vec![span("It is").0], ..Hints::default() };
        assert_eq!(texts(&join), ["Remove four brews from the lid.", "Lift the lid. It is heavy."]);
    }

    #[test]
    fn hints_that_fit_nothing_change_nothing() {
        let far = Hints {
            words: vec![Meant { start: 900, end: 910, text: "lid".into() }],
            cuts: vec![5000],
            joins: vec![0, 7777],
        };
        let recording = Recording::parse(TEXT.as_bytes()).unwrap();
        assert_eq!(read_with(&recording, &far), read(&recording));
        assert_eq!(read(&recording).statements[1].kind, StatementKind::Action);
    }
}
