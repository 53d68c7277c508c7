//! Noun phrases: what is named, how many, and what it belongs to.

use super::super::lexicon::LEXICON;
use super::super::{numbers, phrases::is_screw};
use super::grammar::{GRAMMAR, Kind};
use super::words::{Tag, Word};
use compact_str::CompactString;

/// Something named.
#[derive(Debug, Clone)]
pub(super) struct Phrase {
    /// Words of the sentence.
    pub from: usize,
    pub to: usize,
    /// The name's words as looked up (singular), without articles, counts and words that tell nothing.
    pub words: Vec<CompactString>,
    /// The name as said.
    pub said: Vec<CompactString>,
    pub count: Option<u32>,
    pub kind: Kind,
    /// "the": it is known which.
    pub definite: bool,
    pub plural: bool,
    /// "new", "old": which of two.
    pub new: bool,
    /// Stands for a pronoun, and nobody had it in hand when it was named.
    pub guess: bool,
    /// Named where a pronoun was said.
    pub stands: bool,
    /// "of the fan", "for the fan".
    pub of: Vec<Phrase>,
}

impl Phrase {
    pub fn head(&self) -> &str {
        self.words.last().map_or("", CompactString::as_str)
    }

    pub fn text(&self) -> String {
        self.said.join(" ")
    }

    pub fn is_pronoun(&self) -> bool {
        self.kind == Kind::Pronoun
    }

    /// As if "screws" had been said.
    pub fn as_screws(&self) -> Self {
        let said = if self.plural { "screws" } else { "screw" };
        Self { kind: Kind::Screw, words: vec!["screw".into()], said: vec![said.into()], ..self.clone() }
    }

    /// A thing of the device.
    pub fn is_thing(&self) -> bool {
        !matches!(self.kind, Kind::Nothing | Kind::None | Kind::Time | Kind::Heat | Kind::Picture)
    }
}

/// The phrase that begins at `at`, and where it ends.
pub(super) fn phrase_at(w: &[Word], at: usize, to: usize) -> Option<(Phrase, usize)> {
    let (mut phrase, mut end) = simple(w, at, to)?;
    // "the fan's cable"
    while end < to && w[end].tag == Tag::Owner && end + 1 < to {
        let Some((mut owned, after)) = simple(w, end + 1, to) else { break };
        owned.from = phrase.from;
        owned.of.push(phrase);
        phrase = owned;
        end = after;
    }
    let mut linked = 0;
    while linked < 3
        && end + 1 < to
        && !w[end - 1].pause
        && (w[end].is("of") || (w[end].is("for") && phrase.kind == Kind::Plug))
    {
        let Some((of, after)) = simple(w, end + 1, to) else { break };
        // "Check the cable for any crack.", "Inspect the lead for wear."
        let harm =
            matches!(of.head(), "crack" | "cut" | "nick" | "damage" | "wear" | "tear" | "corrosion" | "burn" | "break");
        if w[end].is("for") && (of.kind == Kind::Nothing || harm || w[end + 1].is("any")) {
            break;
        }
        linked += 1;
        // "a piece of tape", "the edge of the cover", "all of the screws", "a pair of tweezers".
        let empty = phrase.is_pronoun()
            || matches!(
                phrase.head(),
                "pair"
                    | "set"
                    | "piece"
                    | "amount"
                    | "layer"
                    | "coat"
                    | "blob"
                    | "dot"
                    | "smear"
                    | "strip"
                    | "bit"
                    | "rest"
                    | "couple"
                    | "drop"
                    | "dab"
                    | "lot"
                    | "row"
                    | "bunch"
                    | "total"
                    | "handful"
                    | "all"
                    | "one"
                    | "some"
                    | "each"
                    | "both"
                    | "none"
                    | "half"
            );
        // "a frame of new tape", "a ring of glue": the stuff.
        let stuff = matches!(phrase.head(), "frame" | "ring" | "sheet" | "line" | "roll" | "film" | "spot" | "patch")
            && matches!(of.kind, Kind::Tape | Kind::Glue | Kind::Material | Kind::Liquid);
        let empty = empty || stuff;
        end = after;
        // "all of those"
        if phrase.is_pronoun() && of.is_pronoun() {
            phrase = Phrase { from: phrase.from, plural: true, count: phrase.count, ..of };
        } else if phrase.is_pronoun() && phrase.count.is_some_and(|n| n > 1) && w[at].is("the") && of_one_part(&of) {
            // "Undo the three of the battery bracket.": nothing but screws is told so.
            phrase = Phrase { of: vec![of], ..phrase.as_screws() };
        } else if empty && w[after - 1].tag != Tag::Pron {
            // "four more of the T6": screws.
            let screws = phrase.is_pronoun()
                && phrase.count.is_some_and(|n| n > 1)
                && of.words.len() == 1
                && numbers::bit_code(of.head()).is_some();
            let kind = if screws { Kind::Screw } else { of.kind };
            let count = phrase.count.filter(|_| phrase.is_pronoun() || kind == Kind::Screw).or(of.count);
            phrase = Phrase { from: phrase.from, count, kind, ..of };
        } else {
            phrase.of.push(of);
        }
        // "the cable of the fan and the sensor"
        while end + 1 < to && w[end].is("and") && phrase.kind == Kind::Plug {
            let Some((more, after)) = simple(w, end + 1, to) else { break };
            let verb_next = w.get(after).is_some_and(|n| matches!(n.tag, Tag::Verb | Tag::Be | Tag::Modal | Tag::Have));
            if verb_next || more.is_pronoun() || more.kind != Kind::Part {
                break;
            }
            phrase.of.push(more);
            end = after;
        }
    }
    phrase.to = end;
    Some((phrase, end))
}

fn of_one_part(of: &Phrase) -> bool {
    of.kind == Kind::Part && of.definite && !of.plural && of.count.is_none()
}

fn simple(w: &[Word], at: usize, to: usize) -> Option<(Phrase, usize)> {
    let mut naming = Naming { w, at, to, ..Naming::default() };
    let mut i = at;
    while i < to {
        match naming.word(i) {
            Next::Word(next) => i = next,
            Next::End => break,
            Next::Pronoun => return Some((naming.pronoun(i), i + 1)),
            Next::No => return None,
        }
        if w[i - 1].pause && naming.nouns > 0 && !naming.size {
            break;
        }
    }
    if naming.nouns == 0 { naming.unnamed(i) } else { Some((naming.named(i), i)) }
}

/// What a word of a phrase leads to.
enum Next {
    /// The phrase goes on there.
    Word(usize),
    /// It ended before this word.
    End,
    /// It is this pronoun.
    Pronoun,
    /// It is none.
    No,
}

/// A noun phrase while it is read, word by word.
#[derive(Default)]
struct Naming<'a> {
    w: &'a [Word],
    at: usize,
    to: usize,
    count: Option<u32>,
    definite: bool,
    new: bool,
    words: Vec<CompactString>,
    said: Vec<CompactString>,
    nouns: usize,
    /// A size was read last: the phrase goes on behind it, whatever pause there is.
    size: bool,
}

impl Naming<'_> {
    fn word(&mut self, i: usize) -> Next {
        let word = &self.w[i];
        self.size = false;
        let unnamed = self.said.is_empty() && self.nouns == 0;
        match word.tag {
            Tag::Det if unnamed => self.article(word),
            Tag::Num => return self.number(i),
            Tag::Adj => {
                if !self.adjective(i) {
                    return Next::End;
                }
            }
            // "six tiny screws phillips double zero": which head they have, and no name.
            Tag::Noun
                if self.words.last().is_some_and(|w| is_screw(w))
                    && LEXICON.drives.at(&[word.lemma.as_str()], 0).is_some() =>
            {
                return Next::End;
            }
            // A verb that names: "opening pick", "charging board", "touch strip".
            Tag::Noun => {
                self.nouns += 1;
                self.words.push(word.lemma.clone());
                self.said.push(word.said.clone());
            }
            Tag::Adv
                if self.nouns == 0
                    && (self.definite || self.count.is_some())
                    && matches!(word.lemma.as_str(), "very" | "really" | "more" | "only" | "further") => {}
            // "Four screws, Philips one, they're long": no "one they".
            Tag::Pron if self.count.is_some() && matches!(word.said.as_str(), "they" | "i" | "you" | "we" | "it") => {
                return Next::End;
            }
            Tag::Pron if unnamed => return Next::Pronoun,
            _ => return Next::End,
        }
        Next::Word(i + 1)
    }

    fn article(&mut self, word: &Word) {
        self.definite = !matches!(word.said.as_str(), "a" | "an" | "some" | "any" | "no" | "another");
        match word.said.as_str() {
            "both" => self.count = Some(2),
            "a" | "an" | "another" => self.count = Some(1),
            _ => {}
        }
    }

    /// A count, a size, or a figure that belongs to the name.
    fn number(&mut self, i: usize) -> Next {
        let (w, to) = (self.w, self.to);
        let lemmas: Vec<&str> = w[i..to.min(i + 6)].iter().map(|w| w.lemma.as_str()).collect();
        let Some(figure) = numbers::figure_at(&lemmas, 0) else { return Next::No };
        let unit = LEXICON.units.at(&lemmas, figure.len).map(|(len, _)| len);
        if let Some(len) = unit.filter(|_| !is_screw(lemmas.get(figure.len).unwrap_or(&""))) {
            return self.sized(i + figure.len + len);
        }
        if let Some(kind) = how_many_of_it(w, i, figure.len, to) {
            self.words.extend([w[i].lemma.clone(), kind.lemma.clone()]);
            self.said.extend([w[i].said.clone(), kind.said.clone()]);
            self.size = true;
            return Next::Word(i + figure.len + 1);
        }
        // "two five-point screws": which head, and not how many.
        let point = |w: &Word| matches!(w.lemma.as_str(), "point" | "pointed" | "lobe" | "star");
        if self.count.is_some() && w.get(i + figure.len).is_some_and(point) {
            self.size = true;
            return Next::Word(i + figure.len + 1);
        }
        if self.nouns > 0 {
            // "torx size 5 screws", "lens puller LP8": a size inside goes with its name.
            let more = i + figure.len < to && w[i + figure.len].tag == Tag::Noun && !w[i - 1].pause;
            let behind = w.get(i + figure.len);
            let named = behind.is_some_and(|b| b.said == b.lemma && b.tag == Tag::Noun) && figure.len == 1;
            let sized = named
                || LEXICON.drives.at(&[w[i - 1].lemma.as_str()], 0).is_some()
                || matches!(w[i - 1].lemma.as_str(), "size" | "number");
            if !(more && sized) {
                return Next::End;
            }
        } else if figure.value.fract() == 0.0 && (1.0..=300.0).contains(&figure.value) && !w[i].said.starts_with('0') {
            let kept = self.count.filter(|_| figure.value == 1.0 && !self.said.is_empty());
            self.count = kept.or(Some(figure.value as u32));
        }
        Next::Word(i + figure.len)
    }

    /// Behind a figure with its unit.
    fn sized(&mut self, behind: usize) -> Next {
        let (w, to) = (self.w, self.to);
        self.size = true;
        // "the 20 millimetre speaker": a size, no count and no name.
        if behind < to && matches!(w[behind].tag, Tag::Noun | Tag::Adj | Tag::Num) {
            return Next::Word(behind);
        }
        // "thirty grams of new grease"
        if behind + 1 < to && w[behind].is("of") && self.nouns == 0 {
            return Next::Word(behind + 1);
        }
        Next::End
    }

    /// Whether the phrase goes on with it.
    fn adjective(&mut self, i: usize) -> bool {
        let (word, next) = (&self.w[i], self.w.get(i + 1));
        // "just the one screw in the middle"
        let single = word.is("one") && self.definite && next.is_some_and(|n| is_screw(&n.lemma));
        self.count = self.count.or(single.then_some(1));
        // "like a million screws"
        self.count = self.count.filter(|_| !matches!(word.lemma.as_str(), "million" | "thousand"));
        self.new |= word.is("new") || word.is("fresh") || word.is("replacement");
        // "the little board", and not the main one.
        let which = matches!(word.lemma.as_str(), "little" | "small") && next.is_some_and(|n| n.is("board"));
        if which || !GRAMMAR.passing.contains(&word.lemma) {
            self.words.push(word.lemma.clone());
            self.said.push(word.said.clone());
            return true;
        }
        self.nouns == 0
    }

    fn phrase(&mut self, to: usize, kind: Kind) -> Phrase {
        Phrase {
            from: self.at,
            to,
            words: std::mem::take(&mut self.words),
            said: std::mem::take(&mut self.said),
            count: self.count,
            kind,
            definite: self.definite,
            plural: false,
            new: self.new,
            guess: false,
            stands: false,
            of: Vec::new(),
        }
    }

    fn pronoun(&mut self, i: usize) -> Phrase {
        let word = &self.w[i];
        let plural = matches!(word.lemma.as_str(), "they" | "them" | "these" | "those" | "both" | "all" | "everything");
        let (words, said) = (vec![word.lemma.clone()], vec![word.said.clone()]);
        Phrase { words, said, definite: true, plural, new: false, ..self.phrase(i + 1, Kind::Pronoun) }
    }

    /// "these two", "the left", "both": no noun was said.
    fn unnamed(&mut self, i: usize) -> Option<(Phrase, usize)> {
        let (w, at) = (self.w, self.at);
        let which = |x: &Word| matches!(x.lemma.as_str(), "first" | "second" | "third" | "other" | "new");
        let ends_in_one = i > at + 1 && w[i - 1].is("one");
        let one = ends_in_one && w[at..i].iter().any(which);
        // "unplug that one"
        let pointed = ends_in_one && i == at + 2 && matches!(w[at].said.as_str(), "this" | "that");
        let bare = self.count.is_some() && i > at || self.definite && (!self.said.is_empty() || one || pointed);
        if !bare || i == at {
            return None;
        }
        // "Take the plastic and push it in."
        if matches!(self.said.last().map(CompactString::as_str), Some("plastic")) {
            return Some((self.phrase(i, Kind::Opener), i));
        }
        if pointed {
            self.said.push(w[at].said.clone());
        }
        match (self.said.is_empty(), one) {
            (true, true) => self.words = vec!["one".into()],
            _ if pointed => self.words = self.said.clone(),
            (true, false) => self.words = vec!["them".into()],
            _ => {}
        }
        let plural = self.count.is_some_and(|c| c > 1);
        Some((Phrase { definite: true, plural, ..self.phrase(i, Kind::Pronoun) }, i))
    }

    fn named(&mut self, i: usize) -> Phrase {
        let last = &self.w[i - 1];
        let feet = matches!(last.said.as_str(), "feet" | "teeth");
        let plural = feet || self.count.is_some_and(|c| c > 1) || last.said != last.lemma;
        let phrase = Phrase { plural, ..self.phrase(i, Kind::Part) };
        Phrase { kind: kind(&phrase, self.w), ..phrase }
    }
}

/// "the five-wire plug": tells which plug, not how many plugs.
fn how_many_of_it(w: &[Word], at: usize, figure: usize, to: usize) -> Option<&Word> {
    let of = w.get(at + figure)?;
    let named = at + figure + 1 < to && matches!(w[at + figure + 1].tag, Tag::Noun) && !of.pause;
    let counts =
        matches!(of.lemma.as_str(), "wire" | "pin" | "pole" | "core" | "way" | "lead" | "conductor" | "strand");
    (named && counts && of.said == of.lemma && !is_screw(&w[at + figure + 1].lemma)).then_some(of)
}

fn kind(p: &Phrase, w: &[Word]) -> Kind {
    let head = p.head();
    if is_screw(head) || screws_by_drive(p, w) {
        return Kind::Screw;
    }
    // "The half is removed.", and no half of something.
    if head == "half" && p.definite && p.words.len() == 1 && !w.get(p.to).is_some_and(|n| n.is("of")) {
        return Kind::Part;
    }
    if matches!(head, "behind" | "below" | "above" | "underneath" | "beneath") {
        return Kind::Nothing;
    }
    // "Insert the new mat.": no mat of the bench.
    if head == "mat" && (p.new || matches!(p.words[0].as_str(), "key" | "keypad" | "contact" | "button")) {
        return Kind::Part;
    }
    // "the rest", and not "the palm rest"
    let named_rest = head == "rest" && p.words.len() > 1;
    // "that front piece", "the plastic piece over the hinge"
    let stuff = |w: &str| {
        matches!(w, "plastic" | "metal" | "rubber" | "foam" | "glass" | "trim" | "corner" | "centre" | "center" | "end")
    };
    let made = |w: &CompactString| stuff(w) || GRAMMAR.classes.which.contains(w);
    if head == "piece" && p.definite && !p.plural && p.words.len() > 1 && p.words.iter().rev().skip(1).all(made) {
        return Kind::Part;
    }
    if matches!(head, "one" | "guy" | "other" | "piece" | "thing" | "stuff" | "rest") && !named_rest {
        return Kind::Pronoun;
    }
    // "the BK3", "the lens puller LP8": a tool goes by its code.
    let numbered = head.len() >= 2
        && head.ends_with(|c: char| c.is_ascii_digit())
        && head.starts_with(|c: char| c.is_ascii_alphabetic())
        && numbers::bit_code(head).is_none();
    let code = head.len() >= 3
        && head.ends_with(|c: char| c.is_ascii_digit())
        && head.starts_with(|c: char| c.is_ascii_alphabetic())
        && numbers::bit_code(head).is_none();
    // "label L5", "flat cable F6": the code only tells which.
    let named = GRAMMAR.kind(&p.words[..p.words.len() - 1]).filter(|_| numbered && p.words.len() > 1);
    if let Some(kind @ (Kind::Plug | Kind::Film | Kind::Tape | Kind::Latch | Kind::Lever | Kind::Liner)) = named {
        return kind;
    }
    if code
        && (p.words.len() == 1 && p.definite
            || p.words.len() > 1 && GRAMMAR.kind(&p.words[..p.words.len() - 1]) == Some(Kind::Opener))
    {
        return Kind::Opener;
    }
    if let Some(kind) = GRAMMAR.kind(&p.words) {
        // "board cover tab" is a tab; "power button flex" a plug; "keyboard" is one word.
        return GRAMMAR.in_compound(kind, &p.words);
    }
    let refs: Vec<&str> = p.words.iter().map(CompactString::as_str).collect();
    let tool = (0..refs.len()).any(|i| LEXICON.tools.at(&refs, i).is_some_and(|(len, _)| i + len == refs.len()));
    if tool || matches!(head, "screwdriver" | "driver" | "turner") {
        return Kind::Opener;
    }
    if (0..refs.len()).any(|i| LEXICON.units.at(&refs, i).is_some_and(|(len, _)| i + len == refs.len()))
        // "Take off the front.": named by its side.
        || LEXICON.never_parts.contains(head) && p.words.len() == 1 && !(head == "front" && p.definite)
    {
        return Kind::Nothing;
    }
    // "Phillips again", "T10": which driver, and no thing.
    let driver = numbers::bit_code(head).is_some() || LEXICON.drives.at(&[head], 0).is_some();
    if driver {
        let prefix = GRAMMAR.kind(&p.words[..p.words.len() - 1]);
        let bare = if p.words.len() == 1 { Kind::Nothing } else { Kind::Opener };
        // "piezo cable P3"
        return prefix.filter(|k| matches!(k, Kind::Plug | Kind::Film | Kind::Latch | Kind::Screw)).unwrap_or(bare);
    }
    // "the pause", "the renewal": a word that a recogniser put in the place of another.
    // But "power supply" is a part.
    let part = |from: usize| LEXICON.part_heads.at(&refs[from..], 0).is_some_and(|(len, _)| from + len == refs.len());
    if LEXICON.no_things.contains(head) && !(0..refs.len()).any(part) {
        return Kind::Nothing;
    }
    // What a recogniser writes into silence in another script names nothing.
    let usable = head.len() > 1 && head.chars().any(|c| c.is_ascii_alphabetic() || c.is_alphabetic() && c < '\u{250}');
    if usable { Kind::Part } else { Kind::Nothing }
}

/// "the four T6s", "two Phillips".
fn screws_by_drive(p: &Phrase, w: &[Word]) -> bool {
    let last = p.head();
    let drive = numbers::bit_code(last).is_some() || LEXICON.drives.at(&[last], 0).is_some();
    // "there's one Phillips on the inside"
    let shown = p.from > 1 && w[p.from].tag == Tag::Num && w[p.from - 1].tag == Tag::Be && w[p.from - 2].is("there");
    drive
        && p.count.is_some_and(|c| c > 1 || shown)
        && !w.get(p.to).is_some_and(|n| matches!(n.lemma.as_str(), "screwdriver" | "driver" | "bit"))
}
