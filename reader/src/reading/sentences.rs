//! First pass: cues to sentences.
//!
//! Run-on speech is the normal case. Where a recogniser wrote punctuation, it ends sentences; where it wrote none, the
//! words that open a new thought do ("okay so", "and then", "now"). A sentence may cross a cue when captions cut it.

use super::lexicon::{LEXICON, contraction, lemma};
use super::unmarked::restored;
use crate::recording::Recording;
use compact_str::CompactString;

/// One word of the recording.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Token {
    /// Lower case, as said.
    pub said: CompactString,
    /// What the passes look up; differs from the lemma of `said` after a repair.
    pub lemma: CompactString,
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
    pub cue: usize,
    /// A comma, semicolon or colon follows.
    pub pause: bool,
    /// A full stop, question or exclamation mark follows.
    pub stop: bool,
}

/// Words that belong together.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Sentence {
    pub tokens: Vec<Token>,
}

/// The recording's text as spans count it: the cues joined by line feeds.
pub fn joined_text(recording: &Recording) -> String {
    recording.cues.iter().map(|c| c.text.as_str()).collect::<Vec<_>>().join("\n")
}

pub(super) fn split(recording: &Recording) -> Vec<Sentence> {
    let punctuated = is_punctuated(recording);
    let paragraphs = speaks_in_paragraphs(recording) || !punctuated && speaks_in_captions(recording);
    let mut out: Vec<Sentence> = Vec::new();
    let mut open = Sentence::default();
    let mut offset = 0;
    for (n, cue) in recording.cues.iter().enumerate() {
        let tokens = tokens(&cue.text, n, offset);
        for (at, token) in tokens.iter().enumerate() {
            let anew = || {
                opens_a_thought(&open, &tokens[at..])
                    || announces(&open, &tokens[at..])
                    || begins_with_an_act(&open, token)
                    || begins_anew(&open, &tokens[at..])
            };
            if !punctuated && anew() {
                flush(&mut open, &mut out);
            }
            let token = token.clone();
            let ends = token.stop;
            open.tokens.push(token);
            if ends || open.tokens.len() >= LONGEST_IN_CUE {
                flush(&mut open, &mut out);
            }
        }
        // A paragraph is a breath; a two-second caption is not.
        if paragraphs || open.tokens.len() > LONGEST {
            flush(&mut open, &mut out);
        }
        offset += cue.text.chars().count() + 1;
    }
    flush(&mut open, &mut out);
    join_openers(running_numbers(title_read_out(out, recording)))
}

/// "Tide clock repair Put on your wrist band": a title that is read out, or was read off the picture, is no part of what
/// follows.
fn title_read_out(mut sentences: Vec<Sentence>, recording: &Recording) -> Vec<Sentence> {
    const FEWEST: usize = 2;
    // "Lamp repair is easy", "lamp repair guide for you".
    const GOES_ON: [&str; 16] = [
        "is", "isn't", "was", "has", "can", "will", "takes", "needs", "guide", "video", "for", "on", "in", "of", "and",
        "with",
    ];
    let title = recording.title.as_deref().unwrap_or_default().to_lowercase();
    let mut words = title.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).take(LONGEST).peekable();
    let Some(first) =
        sentences.first_mut().filter(|s| words.peek() == s.tokens.first().map(|t| t.said.as_str()).as_ref())
    else {
        return sentences;
    };
    // Words of the title may go unsaid; its last one ends it.
    let told = first.tokens.iter().take_while(|t| words.any(|w| w == t.said)).count();
    let capital = |t: &Token| joined_text(recording).chars().nth(t.start).is_some_and(char::is_uppercase);
    let anew = |t: &Token| if is_punctuated(recording) { capital(t) } else { !GOES_ON.contains(&t.said.as_str()) };
    if told < FEWEST || words.next().is_some() || !first.tokens.get(told).is_some_and(anew) {
        return sentences;
    }
    let rest = first.tokens.split_off(told);
    if let Some(last) = first.tokens.last_mut() {
        last.stop = true;
    }
    sentences.insert(1, Sentence { tokens: rest });
    sentences
}

/// "Take it off 11. Remove the battery 12.": numbers of pages or steps that are read out behind their orders stand alone.
fn running_numbers(sentences: Vec<Sentence>) -> Vec<Sentence> {
    const ENOUGH: usize = 4;
    let number = |s: &Sentence| {
        let [.., before, last] = &s.tokens[..] else { return None };
        let sizes =
            matches!(before.lemma.as_str(), "size" | "number" | "step" | "page" | "x" | "by" | "and" | "or" | "to");
        let word = before.said.chars().all(char::is_alphabetic) && before.said.len() > 1 && !before.pause && !sizes;
        let known = LEXICON.drives.at(&[before.lemma.as_str()], 0).is_some()
            || LEXICON.numbers.contains_key(before.said.as_str());
        last.said.parse::<u32>().ok().filter(|n| last.stop && word && !known && (1..200).contains(n))
    };
    let found: Vec<u32> = sentences.iter().filter_map(number).collect();
    let runs = found.windows(2).filter(|w| w[1] >= w[0] && w[1] <= w[0] + 3).count();
    if found.len() < ENOUGH || runs + 1 < found.len() {
        return sentences;
    }
    let mut out = Vec::with_capacity(sentences.len() + found.len());
    for mut sentence in sentences {
        let alone = number(&sentence).and_then(|_| sentence.tokens.pop());
        if let (Some(_), Some(last)) = (&alone, sentence.tokens.last_mut()) {
            last.stop = true;
        }
        out.push(sentence);
        out.extend(alone.map(|token| Sentence { tokens: vec![token] }));
    }
    out
}

/// "Caution." and "Tools required." open the sentence behind them; alone they say nothing.
fn join_openers(sentences: Vec<Sentence>) -> Vec<Sentence> {
    let mut out: Vec<Sentence> = Vec::with_capacity(sentences.len());
    for sentence in sentences {
        match out.last_mut() {
            Some(last) if only_opens(last) && last.tokens[0].cue == sentence.tokens[0].cue => {
                if let Some(token) = last.tokens.last_mut() {
                    token.stop = false;
                    token.pause = true;
                }
                last.tokens.extend(sentence.tokens);
            }
            _ => out.push(sentence),
        }
    }
    out
}

fn only_opens(sentence: &Sentence) -> bool {
    let words: Vec<&str> = sentence.tokens.iter().map(|t| t.lemma.as_str()).collect();
    let warns = matches!(words[..], ["caution" | "attention" | "warning" | "note" | "important" | "danger"]);
    let lists = LEXICON.tool_list.at(&words, 0).is_some_and(|(len, ())| len == words.len());
    warns || lists
}

/// Past this many words a sentence is cut at the next chance, so that no pass ever sees an hour as one sentence.
const LONGEST: usize = 60;

/// Inside a cue a sentence may be longer, because an end may still come; past this many words none will.
const LONGEST_IN_CUE: usize = 4 * LONGEST;

/// No word is longer; what is, is cut.
const LONGEST_WORD: usize = 64;

fn flush(open: &mut Sentence, out: &mut Vec<Sentence>) {
    if !open.tokens.is_empty() {
        out.push(std::mem::take(open));
    }
}

pub(super) fn is_punctuated(recording: &Recording) -> bool {
    let (mut words, mut stops) = (0, 0);
    for word in recording.cues.iter().flat_map(|c| c.text.split_ascii_whitespace()) {
        words += 1;
        stops += usize::from(matches!(word.as_bytes().last(), Some(b'.' | b'!' | b'?')));
    }
    stops * 40 > words
}

fn speaks_in_paragraphs(recording: &Recording) -> bool {
    let chars: usize = recording.cues.iter().map(|c| c.text.len()).sum();
    chars / recording.cues.len().max(1) > 110
}

/// "unplug the fan", "two screws behind it": captions that somebody wrote, one thought each. A recogniser that cuts by
/// seconds ends one in three with "the", "to" or "and"; whoever writes captions ends hardly any so.
pub(super) fn speaks_in_captions(recording: &Recording) -> bool {
    const FEWEST: usize = 8;
    const ONE_IN: usize = 12;
    const WORDS: usize = 14;
    let last = |text: &str| text.split_ascii_whitespace().last().unwrap_or_default().to_lowercase();
    let c = &LEXICON.classes;
    let open = |word: &str| {
        c.determiner.contains(word)
            || c.conjunction.contains(word)
            || c.be.contains(word)
            || c.modal.contains(word)
            || matches!(word, "to" | "of" | "with" | "from" | "for" | "at" | "into" | "i" | "we" | "you" | "so")
    };
    let cut = recording.cues.iter().filter(|cue| open(&last(&cue.text))).count();
    let words: usize = recording.cues.iter().map(|cue| cue.text.split_ascii_whitespace().count()).sum();
    let cues = recording.cues.len();
    cues >= FEWEST && words <= WORDS * cues && cut * ONE_IN <= cues
}

/// In speech without punctuation: "okay", "so", "now", "then", "oh" and "next" begin anew once something was said.
fn opens_a_thought(open: &Sentence, rest: &[Token]) -> bool {
    let next = &rest[0];
    const SHORTEST: usize = 4;
    let last = open.tokens.last().map(|t| t.said.as_str());
    let glued = matches!(
        last,
        Some(
            "see"
                | "check"
                | "know"
                | "wonder"
                | "sure"
                | "even"
                | "as"
                | "what"
                | "like"
                | "and"
                | "so"
                | "okay"
                | "right"
                | "but"
                | "oh"
                | "just"
                | "until"
                | "till"
                | "for"
                | "not"
                | "right now"
        )
    );
    let opens =
        matches!(next.said.as_str(), "okay" | "so" | "now" | "then" | "oh" | "alright" | "next" | "if" | "and" | "but");
    // "and" and "but" open only a long stretch: most of the time they join two nouns.
    let soft = matches!(next.said.as_str(), "and" | "but");
    let joins_a_thing = soft && rest.len() > 1 && !rest[1..].iter().take(6).any(acts_or_is);
    opens && !glued && !joins_a_thing && open.tokens.len() >= if soft { 14 } else { SHORTEST }
}

/// "caution", "step four", "section two": headings that recognisers write into the run of words.
fn announces(open: &Sentence, rest: &[Token]) -> bool {
    let Some(last) = open.tokens.last() else { return false };
    let numbered = |t: Option<&Token>| {
        t.is_some_and(|t| LEXICON.numbers.contains_key(t.said.as_str()) || t.said.parse::<u32>().is_ok())
    };
    let classes = &LEXICON.classes;
    let led = || {
        classes.determiner.contains(last.said.as_str())
            || classes.preposition.contains(last.said.as_str())
            || classes.be.contains(last.said.as_str())
            || matches!(
                last.said.as_str(),
                "next" | "last" | "this" | "that" | "and" | "very" | "so" | "extra" | "more" | "get"
            )
    };
    match rest[0].said.as_str() {
        "caution" | "attention" | "warning" | "danger" => !led(),
        "careful" => !led() && open.tokens.len() > 3,
        "step" | "section" | "chapter" => !led() && numbered(rest.get(1)),
        _ => false,
    }
}

fn acts_or_is(t: &Token) -> bool {
    let c = &LEXICON.classes;
    c.be.contains(t.said.as_str())
        || c.have.contains(t.said.as_str())
        || c.modal.contains(t.said.as_str())
        || LEXICON.verb_forms.contains_key(t.said.as_str())
        || matches!(t.said.as_str(), "don't" | "one" | "that" | "this" | "this's")
}

/// A caption that begins with a verb of the bench is a breath before a new act.
fn begins_with_an_act(open: &Sentence, next: &Token) -> bool {
    const SHORTEST: usize = 4;
    let Some(last) = open.tokens.last() else { return false };
    let classes = &LEXICON.classes;
    let leads = || {
        classes.adverb.contains(last.said.as_str())
            || classes.determiner.contains(last.said.as_str())
            || classes.pronoun.contains(last.said.as_str())
            || classes.modal.contains(last.said.as_str())
            || matches!(last.said.as_str(), "and" | "to" | "then")
            || LEXICON.conditions.contains(last.said.as_str())
            || matches!(last.said.as_str(), "or" | "but" | "until" | "till")
    };
    last.cue != next.cue && open.tokens.len() >= SHORTEST && LEXICON.verbs.contains_key(next.said.as_str()) && !leads()
}

/// A caption that begins with a thing and its verb ("the battery is glued"), behind one that ended with a thing.
fn begins_anew(open: &Sentence, rest: &[Token]) -> bool {
    const SHORTEST: usize = 4;
    const VERB_WITHIN: usize = 5;
    let (Some(last), Some(next)) = (open.tokens.last(), rest.first()) else { return false };
    if last.cue == next.cue || open.tokens.len() < SHORTEST {
        return false;
    }
    let ended = ends_with_a_thing(open)
        || matches!(last.said.as_str(), "it" | "them" | "out" | "off" | "away" | "slowly" | "carefully");
    let thing_only = ends_with_a_thing(open);
    let classes = &LEXICON.classes;
    let verb = |t: &Token| {
        classes.be.contains(t.said.as_str())
            || classes.have.contains(t.said.as_str())
            || LEXICON.verb_forms.contains_key(t.said.as_str())
    };
    match next.said.as_str() {
        "first" | "before" | "after" | "when" | "once" | "let" | "there" | "here" => ended,
        "to" => {
            thing_only
                && rest.get(1).is_some_and(verb)
                && rest.iter().take(12).any(|t| matches!(t.said.as_str(), "have" | "need" | "must" | "'ll" | "you"))
        }
        "it" | "i" | "you" | "we" | "they" => {
            ended
                && rest
                    .get(1)
                    .is_some_and(|t| verb(t) || t.said.starts_with('\'') || classes.modal.contains(t.said.as_str()))
        }
        said if classes.determiner.contains(said) => {
            thing_only
                && rest[1..].iter().take(VERB_WITHIN).take_while(|t| t.said != "and").any(|t| {
                    classes.be.contains(t.said.as_str())
                        || LEXICON.verb_forms.get(t.said.as_str()).is_some_and(|base| {
                            t.said != *base
                                && t.said.ends_with('s')
                                && LEXICON.part_heads.at(&[t.lemma.as_str()], 0).is_none()
                        })
                })
        }
        _ => false,
    }
}

fn ends_with_a_thing(open: &Sentence) -> bool {
    let Some(last) = open.tokens.last() else { return false };
    let word = [last.lemma.as_str()];
    LEXICON.part_heads.at(&word, 0).is_some()
        || LEXICON.connections.at(&word, 0).is_some()
        || LEXICON.units.at(&word, 0).is_some()
        || LEXICON.never_parts.contains(word[0])
        || LEXICON.tools.at(&word, 0).is_some()
        || matches!(word[0], "screw" | "screwdriver" | "driver" | "port" | "angle" | "fire" | "hour" | "today")
}

/// The words of a text that stands by itself, as the passes want them.
pub(super) fn words(text: &str) -> impl Iterator<Item = CompactString> {
    tokens(text, 0, 0).into_iter().map(|t| t.said)
}

/// Words with their places. Decimal figures stay whole, hyphens part words but not codes such as `F-118`.
fn tokens(text: &str, cue: usize, offset: usize) -> Vec<Token> {
    let chars: Vec<char> = text.chars().collect();
    let mut out: Vec<Token> = Vec::new();
    let mut at = 0;
    while at < chars.len() {
        let c = chars[at];
        if let Some(end) = sound_note(&chars, at) {
            at = end;
            continue;
        }
        if !is_word(c) {
            if let Some(last) = out.last_mut() {
                last.pause |= matches!(c, ',' | ';' | ':' | '—' | '(' | ')');
                last.stop |= matches!(c, '.' | '!' | '?' | '…' | '。' | '！' | '？');
            }
            at += 1;
            continue;
        }
        let start = at;
        while at < chars.len() && at - start < LONGEST_WORD && (is_word(chars[at]) || joins(&chars, at)) {
            at += 1;
        }
        // "Withdraw the lens (2).": a number of the figure.
        let bracketed = start > 0 && chars[start - 1] == '(' && chars.get(at) == Some(&')');
        if bracketed && chars[start..at].iter().all(char::is_ascii_digit) {
            continue;
        }
        let lower = chars[start..at].iter().map(|c| if *c == '’' { '\'' } else { *c }).flat_map(char::to_lowercase);
        let said: CompactString = lower.collect();
        let said = said.trim_matches('\'');
        let said = restored(said, &word_behind(&chars, at));
        let mut begin = start;
        for said in contraction(said) {
            let end = (begin + said.chars().count()).min(at);
            let place = (offset + begin, offset + end);
            begin = end;
            if said.is_empty() {
                continue;
            }
            push_word(
                &mut out,
                Token {
                    lemma: lemma(said),
                    said: said.into(),
                    start: place.0,
                    end: place.1,
                    cue,
                    pause: false,
                    stop: false,
                },
            );
        }
    }
    out
}

/// "[Music]", "[drill running]": what a captioner writes of sounds, and where it ends. Nobody says it.
fn sound_note(chars: &[char], at: usize) -> Option<usize> {
    const LONGEST_NOTE: usize = 40;
    if chars[at] != '[' {
        return None;
    }
    let end = at + 1 + chars[at + 1..].iter().take(LONGEST_NOTE).position(|c| *c == ']')?;
    let note = &chars[at + 1..end];
    note.iter().all(|c| c.is_alphabetic() || matches!(c, ' ' | '-' | '_' | '♪')).then_some(end + 1)
}

/// The next word in lower case, if nothing but blanks stands between.
fn word_behind(chars: &[char], at: usize) -> String {
    let rest = chars[at..].iter().skip_while(|c| **c == ' ');
    rest.take_while(|c| is_word(**c)).take(LONGEST_WORD).flat_map(|c| c.to_lowercase()).collect()
}

fn is_word(c: char) -> bool {
    c.is_alphanumeric() || matches!(c, '\'' | '’' | '°' | '%' | '·')
}

/// A point or comma inside a figure (0.18, 1,2), or a hyphen inside a code (F-118).
fn joins(chars: &[char], at: usize) -> bool {
    let before = at.checked_sub(1).and_then(|i| chars.get(i));
    let (Some(before), Some(after)) = (before, chars.get(at + 1)) else { return false };
    match chars[at] {
        // "M.2" is a name.
        '.' if after.is_ascii_digit() && before.is_ascii_uppercase() => true,
        '.' | ',' => before.is_ascii_digit() && after.is_ascii_digit(),
        '-' => (after.is_ascii_digit() && before.is_alphabetic()) || stands_off(chars, at),
        _ => false,
    }
}

/// "stand-off" is one word, and no stand that is off; so is a "push-on" tag.
fn stands_off(chars: &[char], at: usize) -> bool {
    const GOES_ON: [&str; 9] = ["stand", "push", "clip", "slide", "snap", "press", "screw", "bolt", "slip"];
    let letter = |c: &&char| c.is_alphabetic();
    let after: String = chars[at + 1..].iter().take_while(letter).collect();
    let mut before: Vec<char> = chars[..at].iter().rev().take_while(letter).take(6).copied().collect();
    before.reverse();
    let before = before.into_iter().collect::<String>().to_lowercase();
    GOES_ON.contains(&before.as_str()) && matches!(after.to_lowercase().as_str(), "off" | "offs" | "on")
}

/// "is2of torx", "Step1Hold", "length3millimeter": recognisers of some scripts write figures without blanks. The letters
/// before a figure that are a small word; the letters of a code ("PH000", "T6") are none.
fn before_a_figure(said: &str) -> Option<usize> {
    let letters = said.find(|c: char| c.is_ascii_digit())?;
    let word = said.get(..letters)?;
    let c = &LEXICON.classes;
    let small = c.be.contains(word)
        || c.conjunction.contains(word)
        || c.preposition.contains(word)
        || c.pronoun.contains(word)
        || c.determiner.contains(word)
        || matches!(word, "step" | "length" | "about" | "then" | "keep" | "has" | "than" | "number");
    (letters > 1 && small).then_some(letters)
}

/// `10mm` and `70°C` are a figure and a unit; `T6` and `PH0` stay codes.
fn push_word(out: &mut Vec<Token>, token: Token) {
    let digits = token.said.chars().take_while(|c| c.is_ascii_digit() || matches!(c, '.' | ',')).count();
    if digits == 0
        && let Some(letters) = before_a_figure(&token.said)
    {
        let middle = token.start + letters;
        let (word, rest) = token.said.split_at(letters);
        out.push(Token { lemma: lemma(word), said: word.into(), end: middle, ..token.clone() });
        push_word(out, Token { lemma: lemma(rest), said: rest.into(), start: middle, ..token });
        return;
    }
    if digits == 0 || digits == token.said.chars().count() {
        out.push(token);
        return;
    }
    let (figure, unit): (CompactString, CompactString) =
        (token.said.chars().take(digits).collect(), token.said.chars().skip(digits).collect());
    let middle = token.start + digits;
    out.push(Token { lemma: figure.clone(), said: figure, end: middle, ..token.clone() });
    out.push(Token { lemma: lemma(&unit), said: unit, start: middle, ..token });
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn sentences(source: &str) -> Vec<String> {
        let recording = Recording::parse(source.as_bytes()).unwrap();
        split(&recording)
            .iter()
            .map(|s| s.tokens.iter().map(|t| t.said.as_str()).collect::<Vec<_>>().join(" "))
            .collect()
    }

    #[test]
    fn keeps_figures_whole_and_parts_units_from_them() {
        assert_eq!(
            sentences("[0:00] Tighten to 0.18 Nm. Use a T6, 10mm long."),
            ["tighten to 0.18 nm", "use a t6 10 mm long"]
        );
    }

    #[test]
    fn an_opener_joins_what_it_opens() {
        let found = sentences("[0:00] Caution. The wires tear. Tools required. Tweezers.");
        assert_eq!(found, ["caution the wires tear", "tools required tweezers"]);
    }

    #[test]
    fn cuts_run_on_speech_where_a_thought_opens() {
        let found = sentences(
            "[0:00] so flip it over and there's one here okay so now take the spudger and go in then pull the ribbon out",
        );
        assert_eq!(
            found,
            [
                "so flip it over and there 's one here",
                "okay so now take the spudger and go in",
                "then pull the ribbon out"
            ]
        );
    }

    #[rstest]
    #[case("Tarmo K4 Repair Put on the strap. Stop.", &["tarmo k4 repair", "put on the strap", "stop"])]
    #[case("tarmo k4 tide clock repair notice anyone who tries this", &["tarmo k4 tide clock repair", "notice anyone who tries this"])]
    #[case("tarmo k4 tide clock repair is easy", &["tarmo k4 tide clock repair is easy"])]
    #[case("Tarmo K4 tide clocks break. Stop.", &["tarmo k4 tide clocks break", "stop"])]
    fn a_title_that_is_read_out_stands_alone(#[case] said: &str, #[case] wanted: &[&str]) {
        assert_eq!(sentences(&format!("# Recording: Tarmo K4 tide clock repair\n\n[0:00] {said}")), wanted);
    }

    #[test]
    fn a_sentence_may_cross_captions() {
        let srt = "1\n00:00:00,000 --> 00:00:02,000\nLift the\n\n2\n00:00:02,000 --> 00:00:04,000\nrear cover. Stop.\n";
        assert_eq!(sentences(srt), ["lift the rear cover", "stop"]);
    }

    #[rstest]
    #[case("[Music] Lift it out.", "lift it out")]
    #[case("Lift it [drill running] out.", "lift it out")]
    #[case("Lift [the two] 2 clips [see 4].", "lift 2 clips see 4")]
    #[case("Lift it [and never closed", "lift it and never closed")]
    fn sounds_in_brackets_are_not_said(#[case] text: &str, #[case] said: &str) {
        let words: Vec<_> = tokens(text, 0, 0).into_iter().map(|t| t.said).collect();
        assert_eq!(words.join(" "), said);
    }

    #[test]
    fn spans_count_characters_of_the_joined_text() {
        let recording = Recording::parse("[0:00] é ü.\n\n[0:05] pull it.".as_bytes()).unwrap();
        let text: Vec<char> = joined_text(&recording).chars().collect();
        let token = &split(&recording)[1].tokens[0];
        assert_eq!(text[token.start..token.end].iter().collect::<String>(), "pull");
    }
}
