//! What the passes over a sentence hand to each other: the acts as told, the sentence, what was spoken of before it.

use super::super::Act;
use super::super::facts::Drive;
use super::super::quantities::Quantified;
use super::clauses::Clause;
use super::grammar::Kind;
use super::phrases::Phrase;
use super::words::Word;
use crate::units::Measure;
use compact_str::CompactString;

/// An act as told, before it is known what "it" is and which half of the work it belongs to.
#[derive(Debug, Clone)]
pub(super) struct Told {
    /// What it is while things come apart, and while they go together.
    pub apart: Option<(Act, &'static str)>,
    pub together: Option<(Act, &'static str)>,
    pub objects: Vec<Phrase>,
    pub places: Vec<(String, Phrase)>,
    pub particles: Vec<String>,
    pub by: Option<String>,
    pub count: Option<u32>,
    pub drive: Option<Drive>,
    pub bit: Option<String>,
    pub length_mm: Option<f64>,
    pub cue: usize,
    pub start: usize,
    pub end: usize,
    pub confidence: f64,
    /// A result or a summary of what was told before: counts only where it was not.
    pub result: bool,
    /// "There are four screws": to be undone, where nobody says so.
    pub presented: bool,
    /// A plug is pulled or made, and nobody has said whose it is.
    pub unowned: bool,
    /// "And the lamp plug.": the act of the one before.
    pub elliptic: bool,
    /// "Wide tag, narrow tag, and four screws.": named alone, which tells an act only while things go together.
    pub fragment: bool,
    pub new: bool,
    /// What the narrator aims at: "to separate the shell, insert a pick".
    pub aim: Option<Phrase>,
    /// Said of the clause: "aside", "away".
    pub aside: bool,
    /// "we are going to": may only announce.
    pub future: bool,
    /// "Make sure that …".
    pub making_sure: bool,
    /// "carefully", "straight".
    pub manner: Vec<String>,
    /// "if it breaks", in the speaker's words.
    pub condition: Option<String>,
    /// "the clips let go".
    pub until: Option<String>,
    /// "every key moves freely": what was looked for, should the act be a test.
    pub shows: Option<String>,
    /// Temperatures, times and angles told with it.
    pub measures: Vec<Measure>,
    pub hypothetical: bool,
    /// "The board is screwed down.": how it is while things come apart, what is done while they go together.
    pub state: bool,
}

/// What one sentence tells.
#[derive(Debug, Clone, Default)]
pub(super) struct Sentenced {
    pub number: usize,
    pub acts: Vec<Told>,
    pub words: Vec<String>,
    /// The same with blanks between, as dozens of rules ask for it.
    pub said: String,
    /// Announces that things go together from here.
    pub turns: bool,
    /// Announces that something comes apart from here.
    pub turns_back: bool,
    pub thanks: bool,
    /// Drives whose drivers are named.
    pub drivers: Vec<Drive>,
    /// The bit that is named with the only one of them.
    pub driver_bit: Option<String>,
    /// "Take the T5 driver.": in the hand, and not on a list.
    pub takes_driver: bool,
    /// Lists what is needed.
    pub lists: bool,
    /// "There are two.", "I counted twenty two.": of what was spoken of.
    pub counts: Option<u32>,
    /// Temperatures and times of a sentence without a deed: they belong to the deed before.
    pub measures: Vec<Measure>,
    /// Tools that somebody has, takes or needs.
    pub tools: Vec<String>,
    /// What has to come off before what, said beside the work.
    pub chain: Option<(Phrase, Vec<Phrase>)>,
    /// What everything has to come off for, to be named next: "To reach it you have to take off everything we just did."
    pub for_all: Option<Phrase>,
    /// "That's rear cover, cage and frame.": what is summed up.
    pub summed_up: Vec<Phrase>,
    /// What would be reached: "if you wanted to change the fan".
    pub target: Option<Phrase>,
    /// Segment in which it begins.
    pub cue: usize,
    /// Characters of the sentence.
    pub span: (usize, usize),
    /// Only names a thing: "Main board."
    pub heading: bool,
    /// "This one is for the buzzer.", "And that's the speaker.": shown, with what leads there; `true` where it says so.
    pub leads_to: Option<(Phrase, bool)>,
    /// "The board has four connectors.": how many plugs are shown, to be named next.
    pub row: Option<u32>,
    /// "Rear housing, the screws are as follows.": whose screws are listed from here on.
    pub screws_of: Option<Phrase>,
    /// One more line of such a list.
    pub lists_screws: bool,
    /// "For the frame …": what the sentences from here on are about.
    pub opens_with: Option<Phrase>,
    /// What a sentence without a deed is about.
    pub topic: Vec<Phrase>,
    /// Names for the whole device.
    pub devices: Vec<String>,
    /// Whole names that are spoken of, done to or not: "That leaves the camera module."
    pub whole: Vec<String>,
}

/// What was spoken of last, for "it" and "them".
#[derive(Debug, Default)]
pub(super) struct Topic {
    /// The noun that the title calls the device by.
    pub device: Option<CompactString>,
    /// The title in small letters, no longer than a title is.
    pub title: String,
    /// Things of the device that would be tools by their last word: "a bigger program card", "the new blade".
    pub own: Vec<CompactString>,
    /// Told as something that was done: "the lid was taken off".
    pub past: bool,
    /// The last two things that were named one after another, for "both".
    pub pair: Option<(usize, [Phrase; 2])>,
    /// Things that were shown together: "There's a lamp plug and a motor plug."
    pub couple: Option<(usize, Vec<Phrase>)>,
    /// One thing, and several, with the sentence that named them.
    pub one: Option<(usize, Phrase, bool)>,
    pub many: Option<(usize, Phrase, bool)>,
    pub tool: Option<(usize, Phrase, bool)>,
    /// Whom the last clause with a subject told of: "… because the gauge is stuck in the shell."
    pub subject: Option<(usize, Phrase)>,
    /// What was named last of all.
    pub last: Option<(usize, Phrase)>,
    /// The last cables or plugs that were several.
    pub plugs: Option<(usize, Phrase)>,
    /// The last single plug that was named, handled or not.
    pub plug: Option<(usize, Phrase)>,
    /// Where a list of screws was announced or went on: "Base plate, screws next."
    pub listing: Option<usize>,
    /// What is told to be clipped or glued on, and not yet off: a tool worked in parts it.
    pub clipped: Option<(usize, Phrase)>,
    /// What was told to be plugged in somewhere: "The fan is plugged in right here."
    pub plugged: Option<(usize, Phrase)>,
    /// What screws hide under: "a screw under each foot".
    pub cover: Option<(usize, Phrase)>,
    /// "That's the motor.": pointed out, and nothing else said.
    pub pointed_out: Option<(usize, Phrase)>,
    /// Things named one after another, and nothing said of them: "The motor, the sensor and the button."
    pub row: Option<(usize, Vec<Phrase>)>,
    /// The last screws, with the sentence that named them.
    pub screws: Option<(usize, Phrase)>,
    /// Whom the cable serves that was spoken of last.
    pub served: Option<(usize, Phrase)>,
}

impl Topic {
    pub fn put(&mut self, number: usize, p: &Phrase, acted: bool) {
        if p.is_pronoun() || !p.is_thing() {
            return;
        }
        if let Some((at, last, _)) = self.one.as_ref().filter(|_| !p.plural && !acted)
            && number == at + 1
            && last.kind == p.kind
            && last.words != p.words
        {
            self.pair = Some((number, [last.clone(), p.clone()]));
        }
        let place = match p.kind {
            Kind::Opener | Kind::Cup | Kind::Pinning | Kind::Heater | Kind::Meter => &mut self.tool,
            _ if p.plural => &mut self.many,
            _ => &mut self.one,
        };
        *place = Some((number, p.clone(), acted));
    }
}

/// One sentence with what was said before it.
pub(super) struct Reader<'a> {
    pub(super) words: &'a [Word],
    pub(super) lemmas: &'a [&'a str],
    pub(super) text: &'a str,
    pub(super) clauses: &'a [Clause],
    /// Figures with their unit, said or meant.
    pub(super) quantities: &'a [Quantified],
    /// It speaks of heat, so "degrees" are warmth.
    pub(super) heating: bool,
    pub(super) topic: &'a Topic,
    pub(super) number: usize,
}

/// Kinds of things that are used, and not worked on.
pub(super) const TOOLS: [Kind; 5] = [Kind::Opener, Kind::Cup, Kind::Heater, Kind::Pinning, Kind::Meter];

/// Whether a phrase stands in a text, as whole words.
pub(super) fn has(text: &str, phrase: &str) -> bool {
    // Asked some hundred times of every sentence: nothing is put together for it, and only beginnings of words are looked at.
    let (text, phrase) = (text.as_bytes(), phrase.as_bytes());
    let mut at = 0;
    while at + phrase.len() <= text.len() {
        let behind = at + phrase.len();
        if text[at..behind] == *phrase && text.get(behind).is_none_or(|b| *b == b' ') {
            return true;
        }
        match text[at..].iter().position(|b| *b == b' ') {
            Some(blank) => at += blank + 1,
            None => return false,
        }
    }
    false
}
