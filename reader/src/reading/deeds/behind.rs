//! What stands behind a verb: what it is done to, which way, and where; and where the next thing begins that is none of it.
//!
//! Speech without marks runs on, so the words behind a verb are read one after another, and each phrase is a further
//! object, a place, or the end.

use super::super::tags::Form;
use super::clauses::{goes_on, sized};
use super::grammar::Kind;
use super::phrases::{Phrase, phrase_at};
use super::words::{Tag, Word};
use compact_str::CompactString;

/// Objects, and where the clause ends.
pub(super) struct Behind {
    pub objects: Vec<Phrase>,
    pub stop: usize,
}

/// Ways and places gathered before the verb, to which those behind it are added.
type Gathered<'a> = (&'a mut Vec<CompactString>, &'a mut Vec<(CompactString, Phrase)>);

pub(super) fn behind(w: &[Word], verb: usize, end: usize, subjects: &[Phrase], gathered: Gathered<'_>) -> Behind {
    // "Three cables go to the port, the left horn, the right horn and the lamp."
    let lists = subjects.iter().any(|s| s.kind == Kind::Plug && s.count.is_some_and(|n| n > 1));
    let (particles, places) = gathered;
    let mut reader = Reader {
        w,
        verb,
        end,
        subjects,
        lists,
        particles,
        places,
        objects: Vec::new(),
        after_place: false,
        joined: false,
    };
    let mut at = verb + 1;
    let mut stop = end;
    while at < end {
        match reader.step(at) {
            Some(next) => at = next,
            None => {
                stop = at;
                break;
            }
        }
    }
    Behind { objects: reader.objects, stop }
}

struct Reader<'a> {
    w: &'a [Word],
    verb: usize,
    end: usize,
    subjects: &'a [Phrase],
    /// The subject is several cables, whose names may follow.
    lists: bool,
    particles: &'a mut Vec<CompactString>,
    places: &'a mut Vec<(CompactString, Phrase)>,
    objects: Vec<Phrase>,
    after_place: bool,
    /// Behind "and".
    joined: bool,
}

impl Reader<'_> {
    /// Where the reading goes on; `None` where the clause ends here.
    fn step(&mut self, at: usize) -> Option<usize> {
        let w = self.w;
        let led_off =
            || w.get(at + 1).is_some_and(|x| x.tag == Tag::Part) && w.get(at + 2).is_some_and(|x| x.is("with"));
        // "Drive the pins up and out with a nail.": two ways of one movement.
        let two_ways = at > 0 && w[at - 1].tag == Tag::Part && !w[at - 1].pause;
        match w[at].tag {
            // "Press it in until it bottoms out.": what it does then is not this verb's.
            Tag::Part if w[self.verb..at].iter().any(|x| matches!(x.said.as_str(), "until" | "till")) => Some(at + 1),
            Tag::Part => Some(self.way(at)),
            Tag::Prep => Some(self.place(at)),
            // "kill it, and off with the battery"
            Tag::Conj if led_off() && !two_ways => None,
            Tag::Conj => {
                self.joined = true;
                Some(at + 1)
            }
            // "by the plug and not by the wires"
            Tag::Neg => None,
            Tag::Sub | Tag::To => Some(at + 1),
            // "The motor goes inside."
            Tag::Adv if w[at].said == "inside" && at == self.verb + 1 => {
                self.particles.push("in".into());
                Some(at + 1)
            }
            // "length 5 millimetres": a size, no thing.
            Tag::Num if sized(w, at).is_some_and(|n| at + n <= self.end) => Some(at + sized(w, at).unwrap_or(1)),
            _ => match phrase_at(w, at, self.end) {
                Some((p, after)) if p.kind == Kind::Nothing && p.of.is_empty() && !self.objects.is_empty() => {
                    Some(after)
                }
                Some((p, after)) => self.thing(at, p, after),
                None => self.word(at),
            },
        }
    }

    /// "take the bumpers off the grip", "the crank pops off its pin": which way, and off what.
    fn way(&mut self, at: usize) -> usize {
        let w = self.w;
        let way = w[at].lemma.as_str();
        let itself =
            matches!(w[self.verb].form, Form::Third | Form::Past) || self.subjects.last().is_some_and(|s| s.plural);
        let moves = !self.subjects.is_empty()
            && matches!(w[self.verb].verb(), "pop" | "come" | "slide" | "slip" | "drop" | "fall" | "pull")
            && matches!(way, "off" | "out")
            && itself
            && !self.subjects.iter().any(Phrase::is_pronoun);
        let leads = (!self.objects.is_empty() || moves)
            && !w[at].pause
            && matches!(way, "off" | "out" | "down" | "up" | "away" | "apart");
        // "wiggle that out three screws in the board": counted screws are spoken of next, and nothing comes from them.
        let counted = |p: &Phrase| p.kind == Kind::Screw && p.count.is_some() && !p.definite;
        let led = phrase_at(w, at + 1, self.end).filter(|(p, _)| leads && !counted(p));
        self.particles.push(w[at].lemma.clone());
        let joined = std::mem::take(&mut self.joined);
        match led {
            Some((p, after))
                if !joined && matches!(w[at + 1].tag, Tag::Det | Tag::Pron | Tag::Noun | Tag::Adj | Tag::Num) =>
            {
                self.places.push(("from".into(), p));
                self.after_place = true;
                after
            }
            _ => at + 1,
        }
    }

    fn place(&mut self, at: usize) -> usize {
        let w = self.w;
        let Some((p, after)) = phrase_at(w, at + 1, self.end) else { return at + 1 };
        let by = w[at].lemma.as_str();
        if by == "in" && p.head() == "place" && p.words.len() == 1 {
            self.particles.push("in".into());
        }
        let laid = matches!(w[self.verb].verb(), "fold" | "swing" | "flip" | "put" | "lay" | "place");
        if matches!(by, "into" | "onto") || by == "over" && laid {
            self.particles.push(w[at].lemma.clone());
        }
        // "at the bottom, next to the port": where, and not whose.
        let next = by == "to" && at > 0 && matches!(w[at - 1].lemma.as_str(), "next" | "close");
        self.places.push((if next { "beside".into() } else { w[at].lemma.clone() }, p));
        self.after_place = true;
        self.joined = false;
        after
    }

    /// A phrase: a further object, a further place, or the beginning of something else.
    fn thing(&mut self, at: usize, p: Phrase, after: usize) -> Option<usize> {
        let w = self.w;
        let paused = at > 0 && w[at - 1].pause && !self.joined;
        // "Connect the blue wires, it doesn't matter which one is left.": somebody explains.
        let explains = paused
            && matches!(w[at].said.as_str(), "it" | "they")
            && w.get(after).is_some_and(|n| matches!(n.tag, Tag::Neg | Tag::Does | Tag::Modal));
        if explains {
            return None;
        }
        let first = self.objects.is_empty();
        // "give it some alcohol", "give the cover a wiggle"
        let two = self.objects.len() == 1 && (self.objects[0].is_pronoun() || w[self.verb].verb() == "give");
        if first && !self.after_place && !paused {
            self.objects.push(p);
        } else if self.joined || paused && !first {
            self.listed(at, p, after, paused)?;
        } else if first && self.after_place && (!paused || self.lists) && matches!(w[at].tag, Tag::Det | Tag::Num) {
            self.objects.push(p);
        } else if paused {
            return None;
        // "the touch plug the lamp plug and the battery plug" without marks.
        } else if two || goes_on(w, &self.objects, &p, after) {
            self.objects.push(p);
        } else if !p.is_pronoun() && after > at {
            // Run-on: a thing of its own.
            return None;
        }
        self.joined = false;
        Some(after.max(at + 1))
    }

    /// A list goes on, or what stands behind a comma is a fragment of its own (`None`).
    fn listed(&mut self, at: usize, p: Phrase, after: usize, paused: bool) -> Option<()> {
        let w = self.w;
        let way = |n: &Word| n.tag == Tag::Part || n.tag == Tag::Adv && (n.is("back") || n.is("next"));
        if w.get(after).is_some_and(way) && (self.after_place || paused) && !self.joined {
            return None;
        }
        let is = w[self.verb].tag == Tag::Be;
        let again = self.joined && !self.objects.is_empty() && matches!(p.kind, Kind::Screw | Kind::Plug) && p.definite;
        // "There's a bracket over the plug, two screws.": shown beside it, and no place.
        let beside = paused && p.kind == Kind::Screw && p.count.is_some() && is;
        // "There's a screw at the bottom, little pin in the middle": how it looks.
        let looks = paused && is && w[at].tag == Tag::Adj;
        if !self.after_place || again || beside {
            self.objects.push(p);
        } else if !looks && let Some((prep, _)) = self.places.last().cloned() {
            self.places.push((prep, p));
        }
        Some(())
    }

    /// A word that names nothing.
    fn word(&self, at: usize) -> Option<usize> {
        let w = self.w;
        // "It's a press-on, so straight up with the stick."
        let timed = w.get(at + 1).is_some_and(|n| n.tag == Tag::Num);
        let paused = w[at - 1].pause;
        let so = w[at].is("so") && paused && (w[self.verb].tag == Tag::Be || timed);
        // "exactly where it was, then the glass"
        let ends = w[at].tag == Tag::Adv && (w[at].is("then") || so) && (at > self.verb + 1 || paused);
        (!ends).then_some(at + 1)
    }
}
