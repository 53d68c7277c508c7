//! Warnings: how a sentence warns, and what about.
//!
//! A warning forbids ("don't pull on the wires"), tells what may happen ("or it'll tear"), or says how a thing is ("this
//! glass is hot"). What it is about is the subject whose words weigh most, those of the warning itself twice; where it only
//! says "it", the thing spoken of before decides.

use super::super::clauses::{Clause, Mood};
use super::super::facts::CautionSubject;
use super::super::lexicon::{LEXICON, STRONG};
use super::super::phrases::NounPhrase;
use super::super::tags::{Tag, Tagged};
use super::mentions;
use std::ops::Range;

/// How a sentence warns.
#[derive(Debug, Clone, PartialEq)]
pub(in super::super) struct Warning {
    pub because: String,
    pub confidence: f64,
    /// It only warns: nothing is done in it.
    pub whole: bool,
    /// The words that warn.
    span: Range<usize>,
    /// It warns even where nothing tells what about.
    firm: bool,
    /// "… the glass will crack": what comes to harm by what is forbidden.
    harmed: Option<CautionSubject>,
}

pub(in super::super) fn warnings(t: &Tagged<'_>, clauses: &[Clause]) -> Option<Warning> {
    let words = &t.words;
    let all = 0..words.len();
    let warning = |because: String, confidence, span: Range<usize>, firm| {
        Some(Warning { because, confidence, whole: false, span, firm, harmed: None })
    };
    if words
        .first()
        .is_some_and(|w| matches!(*w, "caution" | "attention" | "warning" | "danger" | "beware" | "important"))
    {
        return Some(Warning {
            because: format!("opens with “{}”", words[0]),
            confidence: 0.95,
            whole: true,
            span: all,
            firm: true,
            harmed: None,
        });
    }
    if let Some(span) = forbidden(t, clauses) {
        let limit = t.words[span.clone()].iter().any(|w| matches!(*w, "deeper" | "further" | "again"));
        let harmed = harm(t, clauses)
            .filter(|(_, harm)| harm.start >= span.end)
            .and_then(|(_, harm)| named_hazard(&words[harm]))
            .or_else(|| delicate(t, clauses))
            .or_else(|| kept_off(clauses, &span));
        let because = format!("forbids: “{}”", t.said[span.start..span.end.min(span.start + 8)].join(" "));
        return Some(Warning { because, confidence: 0.9, whole: false, span, firm: !limit, harmed });
    }
    if let Some((span, harmed)) = forbidden_unknown(t, clauses) {
        let because = format!("forbids: “{}”", t.said[span.clone()].join(" "));
        return Some(Warning { because, confidence: 0.75, whole: false, span, firm: false, harmed: Some(harmed) });
    }
    if let Some((span, harmed)) = spared(t, clauses) {
        let because = format!("tells what must not happen: “{}”", t.said[span.clone()].join(" "));
        return Some(Warning { because, confidence: 0.85, whole: false, span, firm: false, harmed: Some(harmed) });
    }
    if let Some((span, harmed)) = protected(clauses) {
        let because = format!("tells to protect: “{}”", t.said[span.clone()].join(" "));
        return Some(Warning { because, confidence: 0.8, whole: false, span, firm: false, harmed: Some(harmed) });
    }
    if dead_first(t) {
        let because = "tells to take the power off before anything is touched".to_owned();
        let harmed = Some(CautionSubject::Power);
        return Some(Warning { because, confidence: 0.8, whole: false, span: all, firm: false, harmed });
    }
    if let Some(harmed) = kept_shallow(t) {
        let because = "tells how deep, and what lies behind".to_owned();
        return Some(Warning { because, confidence: 0.8, whole: false, span: all, firm: false, harmed: Some(harmed) });
    }
    if let Some((because, span)) = advised_against(t, clauses)
        && let Some(harmed) = named_hazard(words[span.clone()].split(|w| *w == "or").next_back().unwrap_or_default())
            .or_else(|| tally(&words[span.clone()], &[]).first().map(|(_, about)| *about))
    {
        return Some(Warning { because, confidence: 0.75, whole: false, span, firm: false, harmed: Some(harmed) });
    }
    if let Some(span) = contrasted(t) {
        return warning(format!("tells where not: “{}”", t.said[span.clone()].join(" ")), 0.9, span, true);
    }
    let harm = harm(t, clauses);
    // "I always slip the sleeve on first, because I've forgotten it so many times.": a habit, and no warning.
    let habit = words.windows(2).any(|w| matches!(w[0], "i" | "we") && w[1] == "always");
    let trigger = LEXICON.caution_triggers.any(words).filter(|t| !(habit && t.as_str() == "always"));
    if let (Some(trigger), Some((text, span))) = (&trigger, &harm) {
        return warning(format!("“{trigger}” and the harm “{text}”"), 0.9, span.clone(), true);
    }
    if let Some(span) = left_alone(t) {
        return warning(format!("tells what to leave: “{}”", t.said[span.clone()].join(" ")), 0.85, span, true);
    }
    if let Some(told) = learnt(t) {
        return warning(format!("tells what went wrong: “{told}”"), 0.75, all, true);
    }
    if let Some(trigger) = &trigger
        && !matches!(trigger.as_str(), "always" | "otherwise" | "must always")
    {
        return warning(format!("says “{trigger}”"), 0.75, all, false);
    }
    if let Some(fragile) = LEXICON.fragile.any(words) {
        return warning(format!("says that something is “{fragile}”"), 0.75, all, false);
    }
    if let Some((text, span)) = harm.filter(|(_, span)| possible(t, clauses, span)) {
        return warning(format!("says what may happen: “{text}”"), 0.75, span, false);
    }
    if let Some((span, harmed)) = kept_clear(t) {
        let because = format!("tells to keep off: “{}”", t.said[span.clone()].join(" "));
        return Some(Warning { because, confidence: 0.85, whole: false, span, firm: false, harmed: Some(harmed) });
    }
    if apart(t) {
        let because = "tells to keep things apart".to_owned();
        let harmed = Some(CautionSubject::ScrewMixup);
        return Some(Warning { because, confidence: 0.85, whole: false, span: all, firm: false, harmed });
    }
    if kept(words) {
        return warning("tells to keep a part".to_owned(), 0.7, all, false);
    }
    if snug(words) {
        return warning("tells how tight is enough".to_owned(), 0.7, all, false);
    }
    if let Some((at, len, ())) = LEXICON.one_way.all(words).first() {
        return warning(
            format!("tells which way it goes: “{}”", t.said[*at..at + len].join(" ")),
            0.75,
            *at..at + len,
            false,
        );
    }
    None
}

/// What the warning is about. `focus` is the thing spoken of before, `hazard` what the sentence before was about.
pub(in super::super) fn about(
    t: &Tagged<'_>,
    warning: &Warning,
    focus: Option<&NounPhrase>,
    hazard: Option<CautionSubject>,
) -> Vec<CautionSubject> {
    let mut about = main_subject(t, warning, focus, hazard);
    let caught = ["trapped", "caught", "pinched"].iter().any(|w| t.words[warning.span.clone()].contains(w));
    if caught && about == [CautionSubject::Cable] {
        return vec![CautionSubject::Pinch];
    }
    // What gets caught between two halves is told with what comes of it: a short circuit, a cut wire.
    if LEXICON
        .caution_subjects
        .all(&t.words)
        .iter()
        .any(|(_, _, (about, weight))| (*about, *weight) == (CautionSubject::Pinch, STRONG))
        && !about.is_empty()
        && !about.contains(&CautionSubject::Pinch)
    {
        about.push(CautionSubject::Pinch);
    }
    about
}

fn main_subject(
    t: &Tagged<'_>,
    warning: &Warning,
    focus: Option<&NounPhrase>,
    hazard: Option<CautionSubject>,
) -> Vec<CautionSubject> {
    let words = &t.words;
    if let Some((_, _, decisive)) = LEXICON.decisive.all(words).first() {
        return vec![**decisive];
    }
    if let Some(harmed) = &warning.harmed {
        return vec![*harmed];
    }
    let own = without_asides(&words[warning.span.clone()]);
    let sentence = without_asides(words);
    let tally = tally(&own, &sentence);
    // "Leave it until it's completely dry, because it burns.": what was wiped with, and no hot part.
    let of_liquid = words.contains(&"dry") || hazard == Some(CautionSubject::Chemical);
    if of_liquid && mentions(words, &["it", "burn"]) {
        return vec![CautionSubject::Chemical];
    }
    let best = tally.first();
    let refers = own.iter().any(|w| matches!(*w, "it" | "them" | "those" | "this"))
        && !own.iter().any(|w| named_hazard(&[w]).is_some());
    if refers && best.is_none_or(|(weight, about)| *weight < 2 * STRONG || is_way(*about)) {
        let before = named_hazard(&words[..warning.span.start]);
        let focused = || focus.and_then(|np| named_hazard(&np.words.iter().map(|w| w.as_str()).collect::<Vec<_>>()));
        if let Some(meant) = before.or_else(focused) {
            return vec![meant];
        }
    }
    // "Stay away with the blade, the sensor sits right behind.": what suffers, and not what does it.
    let suffers = named_hazard(&sentence).filter(|_| !warning.firm);
    match (best, hazard) {
        (Some((_, CautionSubject::SharpTool)), _) if suffers.is_some() => suffers.into_iter().collect(),
        (Some((weight, about)), _) if *weight >= STRONG => vec![*about],
        (_, Some(hazard)) if warning.firm => vec![hazard],
        // "pull out the microphone and do not touch the springs": the pull is not what is forbidden.
        (Some((_, about)), _) if !warning.firm || weight(&own, *about) > 0 => vec![*about],
        _ if warning.firm => vec![CautionSubject::Other],
        _ => Vec::new(),
    }
}

/// The thing that can be harmed or do harm which these words name last.
pub(in super::super) fn named_hazard(words: &[&str]) -> Option<CautionSubject> {
    use CautionSubject::*;
    LEXICON
        .caution_subjects
        .all(words)
        .into_iter()
        .filter(|(_, _, (about, weight))| {
            *weight == STRONG
                && matches!(
                    about,
                    Battery | Glass | Membrane | Sensor | Lens | Mains | Cable | Liquid | Chemical | Seal
                )
        })
        .max_by_key(|(at, _, _)| *at)
        .map(|(_, _, (about, _))| *about)
}

/// Subjects that say how something is done wrong, not what is harmed.
fn is_way(about: CautionSubject) -> bool {
    use CautionSubject::*;
    matches!(about, Force | Contamination | SharpTool | Other | Pinch)
}

/// Without "while the battery is fitted", which only says when.
fn without_asides<'a>(words: &[&'a str]) -> Vec<&'a str> {
    match words.iter().position(|w| matches!(*w, "while" | "when")) {
        Some(at) if at > 1 => words[..at].to_vec(),
        _ => words.to_vec(),
    }
}

fn weight(words: &[&str], about: CautionSubject) -> u32 {
    let found = LEXICON.caution_subjects.all(words);
    found.iter().filter(|(_, _, (a, _))| *a == about).map(|(_, _, (_, weight))| *weight).sum()
}

/// Subjects by weight: the words of the warning count twice more than those around it.
fn tally(own: &[&str], sentence: &[&str]) -> Vec<(u32, CautionSubject)> {
    let mut tally: Vec<(u32, CautionSubject)> = LEXICON
        .caution_order
        .iter()
        .map(|s| (2 * weight(own, *s) + weight(sentence, *s), *s))
        .filter(|(n, _)| *n > 0)
        .collect();
    tally.sort_by_key(|(n, _)| std::cmp::Reverse(*n));
    tally
}

/// "don't pull on the wires": an order not to, addressed to whoever works.
fn forbidden(t: &Tagged<'_>, clauses: &[Clause]) -> Option<Range<usize>> {
    // "we do not touch the lens": told of oneself, meant for whoever works.
    const HANDLED: [&str; 9] = ["touch", "bend", "scratch", "pull", "press", "force", "yank", "tear", "squeeze"];
    const HARMLESS: [&str; 23] = [
        "know", "worry", "need", "have", "forget", "think", "see", "want", "care", "like", "mind", "get", "be", "say",
        "do", "remember", "believe", "find", "matter", "love", "use", "hold", "require",
    ];
    clauses
        .iter()
        .enumerate()
        .find_map(|(n, c)| {
            if c.mood != Mood::Negated {
                return None;
            }
            let verb = c.verb?;
            let said = &t.said[c.from..verb];
            // "if you don't feel sure", "you can't get at it", "and still don't break anything", "not moving".
            let told = said.iter().any(|w| matches!(*w, "if" | "when" | "still" | "can" | "can't"))
                || t.said[verb].ends_with("ing") && !said.iter().any(|w| matches!(*w, "don't" | "never" | "without"));
            // "You don't have to order new ones."
            let spared = said.windows(2).any(|w| matches!(w, ["have" | "need", "to"]));
            if told || spared {
                return None;
            }
            let ours = said.contains(&"we")
                && said.iter().any(|w| matches!(*w, "do" | "don't" | "never"))
                && HANDLED.contains(&c.base)
                && c.objects.iter().any(|o| head_hazard(o).is_some());
            // "Whatever happens, do not turn the dial."
            let by_somebody = !ours
                && !matches!(t.said[c.from], "whatever" | "whichever")
                && (said.iter().any(|w| matches!(*w, "i" | "we" | "they" | "he" | "she" | "it" | "there" | "that"))
                    || !c.subject.is_empty() && !c.passive && !you(c) && (t.punctuated || !said.contains(&"don't")));
            let passive = c.passive && said.iter().any(|w| matches!(*w, "must" | "may" | "should" | "cannot"));
            let orders = said.iter().any(|w| matches!(*w, "don't" | "never" | "not" | "mustn't" | "shouldn't"));
            let unwanted = matches!(c.base, "want") && matches!(t.said.get(verb + 1), Some(&"to"));
            let harmless = HARMLESS.contains(&c.base)
                && !(matches!(c.base, "use" | "get" | "hold") && strict(t, c, verb))
                && !unwanted;
            // "don't close it yet" only tells the order; "don't throw it away yet" keeps it for good.
            let thrown = matches!(c.base, "throw" | "bin" | "toss" | "chuck");
            let behind = t.said.get(verb..t.len().min(c.to + 1)).unwrap_or_default();
            // "Don't just rip it off" never.
            let only_later = !thrown
                && (behind.iter().any(|w| matches!(*w, "yet" | "just")) || said.contains(&"just") && !is_rough(c.base));
            let span = c.from..if unwanted { clauses.get(n + 1).map_or(c.to, |next| next.to) } else { c.to };
            (((orders && !by_somebody) || passive) && !harmless && !only_later).then_some(span)
        })
        .or_else(|| {
            // "No liquids near the keyboard."
            let words = t.words.strip_prefix(&["please"]).unwrap_or(&t.words);
            let bare = words.first() == Some(&"no") && clauses.iter().all(|c| c.verb.is_none_or(|v| v > 4));
            (bare && LEXICON.kept_out.at(words, 1).is_some()).then_some(0..t.len().min(5))
        })
        .or_else(|| {
            // "never metal", "no grease".
            [
                &["never", "by"][..],
                &["never", "metal"],
                &["no", "metal"],
                &["no", "grease"],
                &["not", "too", "tight"],
                &["not", "at", "a", "slant"],
                &["no", "props"],
            ]
            .into_iter()
            .find_map(|p| t.words.windows(p.len()).position(|w| w == p).map(|at| at..at + p.len()))
        })
}

/// What does harm whenever it is done.
fn is_rough(verb: &str) -> bool {
    matches!(verb, "rip" | "yank" | "pull" | "tug" | "jerk" | "force" | "bend" | "twist" | "pry" | "tear" | "lift")
}

/// "Don't bridge those contacts": forbidden, by a word that no list has among the verbs.
fn forbidden_unknown(t: &Tagged<'_>, clauses: &[Clause]) -> Option<(Range<usize>, CautionSubject)> {
    let orders = |i: usize| {
        let opens = i == 0 || t.pause[i - 1] || matches!(t.said[i - 1], "and" | "so" | "but" | "please" | "just");
        opens && matches!(t.said[i], "don't" | "never")
    };
    let at = (0..t.len().saturating_sub(1)).find(|i| orders(*i))?;
    let known = clauses.iter().any(|c| c.verb.is_some_and(|v| v > at && v <= at + 2));
    let next = t.words[at + 1];
    let word = next.len() > 2
        && !matches!(next, "worry" | "bother" | "panic")
        && t.tags[at + 1] == Tag::Noun
        && !LEXICON.verb_forms.contains_key(next);
    let to = (at + 1..t.len()).find(|i| t.pause[*i]).map_or(t.len(), |i| i + 1);
    // "That cable is short, don't fling the cover open.": what suffers may stand before.
    let about = tally(&t.words[at..to], &[]).first().map(|(_, about)| *about);
    Some((at..to, about.or_else(|| named_hazard(&t.words[..at])).filter(|_| word && !known)?))
}

/// "so that this cable is not pulled", "watch that the keys are not broken off": an end that spares something.
fn spared(t: &Tagged<'_>, clauses: &[Clause]) -> Option<(Range<usize>, CautionSubject)> {
    const UNABLE: [&str; 3] = ["can", "can't", "cannot"];
    const NOT: [&str; 7] = ["not", "don't", "doesn't", "isn't", "aren't", "won't", "none"];
    clauses.iter().find_map(|c| {
        let verb = c.verb?;
        let told = &t.said[c.from.saturating_sub(3)..verb];
        let says = |words: &[&str]| told.iter().any(|w| words.contains(w));
        if !says(&NOT) || says(&UNABLE) {
            return None;
        }
        let suffers = c.objects.iter().rev().chain(c.places.iter().map(|(_, np)| np)).chain(c.subject.last());
        let harmed = suffers.filter_map(head_hazard).next();
        let watched = says(&["watch", "ensure", "sure", "see", "check"]) && (says(&["that"]) || c.passive);
        let harmed = harmed.or((watched && c.passive).then_some(CautionSubject::Other))?;
        (says(&["so"]) || watched).then_some((c.from..c.to, harmed))
    })
}

/// "Protect the viewfinder glass with film", "cover the lens with film".
fn protected(clauses: &[Clause]) -> Option<(Range<usize>, CautionSubject)> {
    clauses.iter().filter(|c| c.is_plain()).find_map(|c| {
        let wrapped = c.places.iter().any(|(_, np)| np.words.iter().any(|w| w == "film" || w == "protective"));
        let harmed = c.objects.first().and_then(head_hazard)?;
        // "Watch the ribbon on your left as you lift it."
        let minded = matches!(c.base, "watch" | "mind") && c.verb == Some(c.from);
        if c.base != "protect" && !minded && !(c.base == "cover" && wrapped) {
            return None;
        }
        Some((c.from..c.to, harmed))
    })
}

/// "The sensor is very delicate, so never touch the small contacts": what the ban is there for.
fn delicate(t: &Tagged<'_>, clauses: &[Clause]) -> Option<CautionSubject> {
    clauses
        .iter()
        .filter(|c| LEXICON.fragile.any(&t.words[c.from..c.to]).is_some())
        .find_map(|c| c.subject.last().and_then(head_hazard))
}

/// "do not pull on this wire from the coin cell": the wire, not the cell.
fn kept_off(clauses: &[Clause], span: &Range<usize>) -> Option<CautionSubject> {
    let c = clauses.iter().find(|c| c.from == span.start && c.mood == Mood::Negated)?;
    c.objects.last().and_then(head_hazard).or_else(|| c.places.first().and_then(|(_, np)| head_hazard(np)))
}

/// The hazard that the thing itself is: its last word says what it is.
fn head_hazard(np: &NounPhrase) -> Option<CautionSubject> {
    named_hazard(&[np.words.last()?.as_str()])
}

/// "by the plug, not by the wires", "not deeper than 3 millimetres, there lies the wire": only with something that is harmed.
fn contrasted(t: &Tagged<'_>) -> Option<Range<usize>> {
    const WHERE: [&str; 10] = ["by", "on", "at", "the", "with", "into", "onto", "in", "deeper", "further"];
    let at = (1..t.len()).find(|i| {
        t.words[*i] == "not"
            && t.words.get(i + 1).is_some_and(|w| WHERE.contains(w))
            && !matches!(t.tags[i - 1], Tag::Auxiliary | Tag::Modal)
            && t.tags[..*i].contains(&Tag::Verb)
    })?;
    let deep = matches!(t.words[at + 1], "deeper" | "further");
    let span = at..if deep { t.len() } else { t.len().min(at + 4) };
    named_hazard(&t.words[span.clone()]).map(|_| span)
}

/// "You don't want water in there", "I wouldn't use metal here", "…, or the buttons end up underneath", "too long with the
/// heat and it goes wavy": what should not be, said without an order.
fn advised_against(t: &Tagged<'_>, clauses: &[Clause]) -> Option<(String, Range<usize>)> {
    const LONGEST: usize = 12;
    let said = &t.said;
    let to = |from: usize| from..t.len().min(from + LONGEST);
    let text = |range: &Range<usize>| said[range.clone()].join(" ");
    let unwanted = (1..t.len()).find(|i| {
        let next = said.get(i + 1).copied().unwrap_or("");
        let you = said[i.saturating_sub(3)..*i].contains(&"you") && !said[..*i].contains(&"if");
        let want = matches!(said[*i], "don't" | "wouldn't") && next == "want" && i + 3 < t.len();
        let i_would = said[i - 1] == "i" && said[*i] == "wouldn't";
        you && want || i_would && !matches!(next, "know" | "say" | "mind" | "worry" | "bother" | "want" | "be")
    });
    if let Some(at) = unwanted {
        let span = to(at);
        return Some((format!("advises against: “{}”", text(&span)), span));
    }
    // "Yours has a weak battery, or it switches itself off?": told of the thing, and no order.
    let ordered = |or: usize| clauses.iter().any(|c| c.from < or && (c.subject.is_empty() || you(c)));
    let or_else = (2..t.len().saturating_sub(2)).find(|i| {
        let whose = matches!(said[i + 1], "the" | "it" | "they" | "you" | "your" | "it'll" | "you'll" | "they'll");
        said[*i] == "or" && t.pause[i - 1] && whose && ordered(*i) && ends_badly(t, *i)
    });
    if let Some(at) = or_else {
        let span = at.saturating_sub(LONGEST)..to(at).end;
        return Some((format!("tells what comes of it otherwise: “{}”", text(&to(at))), span));
    }
    let too = said.first() == Some(&"too")
        && matches!(said.get(1), Some(&("much" | "long" | "hard" | "far" | "deep" | "hot" | "tight" | "fast")))
        && said.contains(&"and");
    too.then(|| (format!("tells what too much does: “{}”", text(&to(0))), 0..t.len()))
}

/// A clause behind "or" that has its own verb, and offers nothing to choose.
fn ends_badly(t: &Tagged<'_>, or: usize) -> bool {
    let behind = &t.said[or + 1..];
    let chosen = behind.iter().any(|w| {
        matches!(*w, "can" | "could" | "use" | "want" | "like" | "prefer" | "if" | "need" | "twice" | "again" | "?")
    });
    !chosen && t.tags[or + 1..].iter().any(|tag| matches!(tag, Tag::Verb | Tag::Auxiliary | Tag::Modal))
}

/// "Unplug the battery before you touch anything else.", "Switch it off before you open it."
fn dead_first(t: &Tagged<'_>) -> bool {
    let said = &t.said;
    let Some(at) = said.iter().position(|w| *w == "before") else { return false };
    let behind: Vec<&str> =
        said[at + 1..said.len().min(at + 9)].iter().copied().filter(|w| !matches!(*w, "even" | "ever")).collect();
    let anything = behind.iter().any(|w| matches!(*w, "anything" | "else" | "thing" | "everything"))
        || behind.iter().take(2).any(|w| matches!(*w, "opening" | "touching" | "starting"))
        || matches!(
            behind[..],
            ["you", "open" | "start" | "touch" | "begin" | "go" | "put" | "stick" | "reach" | "work", ..]
        );
    let words = &t.words;
    let off = ["off", "disconnect", "disconnected", "unplug", "unplugged", "unhook", "unhooked", "out"];
    let cell = words.iter().any(|w| matches!(*w, "battery" | "cell" | "pack" | "power" | "mains" | "accumulator"))
        && words.iter().any(|w| off.contains(w));
    let switched =
        ["switch it off", "turn it off", "power it off", "pull the plug", "unplug it", "power off", "switch off"]
            .iter()
            .any(|p| mentions(said, &p.split(' ').collect::<Vec<_>>()));
    // "Before you even touch a screw, pull the mains plug."
    let pulled = words.windows(4).any(|w| w[0] == "pull" && w[1..].contains(&"plug"));
    anything && (cell || switched || pulled)
}

/// "two millimetres, no more, there's a flex right behind it": how deep, and what would come to harm.
fn kept_shallow(t: &Tagged<'_>) -> Option<CautionSubject> {
    let limit = mentions(&t.words, &["no", "more"])
        || mentions(&t.words, &["no", "deeper"])
        || mentions(&t.words, &["not", "deeper"])
        || t.words.contains(&"shallow")
        || mentions(&t.words, &["millimetre", "only"])
        || mentions(&t.words, &["millimeter", "only"]);
    let reason = ["because", "since", "cause", "behind", "underneath", "beneath", "there"];
    let at = t.words.iter().position(|w| reason.contains(w)).filter(|_| limit)?;
    named_hazard(&t.words[at..])
}

/// "do not use the old gasket again" forbids; "I don't use" doesn't.
fn strict(t: &Tagged<'_>, c: &Clause, verb: usize) -> bool {
    let addressed = c.subject.is_empty() || (!t.punctuated && t.said[c.from..verb].contains(&"don't"));
    (c.from..verb).any(|i| matches!(t.said[i], "not" | "don't" | "never" | "may" | "must")) && addressed
}

/// "Keep your fingers off the lens.", "Stay clear of that coil."
fn kept_clear(t: &Tagged<'_>) -> Option<(Range<usize>, CautionSubject)> {
    const FAR: usize = 4;
    let words = &t.words;
    let order = |i: usize| i == 0 || t.pause[i - 1] || matches!(words[i - 1], "and" | "so" | "but" | "please" | "just");
    let at = (0..words.len()).find(|i| matches!(words[*i], "keep" | "stay") && order(*i))?;
    let off = (at + 1..words.len().min(at + 1 + FAR)).find(|i| matches!(words[*i], "off" | "away" | "clear"))?;
    // "Keep dust off the mirror": the dust harms. "Keep it away for later": from nothing.
    let hands =
        words[at + 1..off].iter().all(|w| matches!(*w, "your" | "finger" | "hand" | "thumb" | "well" | "right"));
    let from = words.get(off + 1).is_some_and(|w| matches!(*w, "from" | "of" | "the" | "that" | "this" | "these"));
    let to = (off..words.len()).find(|i| t.pause[*i]).map_or(words.len(), |i| i + 1);
    let (_, about) = tally(&words[off + 1..to], &[]).first().copied().filter(|_| from && hands)?;
    Some((at..to, about))
}

/// "Whatever you do, leave that red screw alone."; "leave it alone for five minutes" only waits.
fn left_alone(t: &Tagged<'_>) -> Option<Range<usize>> {
    const FAR: usize = 6;
    let at = t.words.iter().position(|w| *w == "leave")?;
    let alone = (at + 2..t.len().min(at + FAR)).find(|i| t.words[*i] == "alone")?;
    if t.words.get(alone + 1) == Some(&"for") {
        return None;
    }
    Some(at..alone + 1)
}

/// "I broke one of these last time.": what happened to the narrator may happen to the reader.
fn learnt(t: &Tagged<'_>) -> Option<String> {
    const BROKE: [&str; 8] = ["broke", "snapped", "tore", "ripped", "cracked", "stripped", "lost", "ruined"];
    let broke = |w: &&[&str]| w[0] == "i" && BROKE.contains(&w[1]) && matches!(w[2], "one" | "mine" | "two");
    t.said.windows(3).find(broke).map(|w| w.join(" "))
}

fn you(c: &Clause) -> bool {
    c.subject.last().is_some_and(|s| s.words.first().is_some_and(|w| w == "you"))
}

/// The harm spoken of, with the clause it stands in.
fn harm(t: &Tagged<'_>, clauses: &[Clause]) -> Option<(String, Range<usize>)> {
    let words = &t.words;
    LEXICON.harm.all(words).into_iter().find_map(|(at, len, ())| {
        let clause = clauses.iter().find(|c| (c.from..c.to).contains(&at));
        let span = clause.map_or(at..at + len, |c| c.from..c.to.max(at + len));
        let done_already = clause.is_some_and(|c| c.mood == Mood::Conditional && !you(c) && clauses.len() > 1);
        let until = at >= 2 && (words[at - 1] == "until" || words[at - 2] == "until");
        let absent = mentions(&words[..at], &["there", "be", "no"]) || mentions(&words[..at], &["there", "is", "no"]);
        // "squeeze the two sides" is told to be done.
        let told = clause.is_some_and(|c| {
            let offered = you(c) && !c.objects.iter().any(|o| head_hazard(o).is_some());
            c.is_plain() && c.verb == Some(at) && (c.subject.is_empty() || offered) && c.act.is_some() && !c.passive
        });
        // "a foam strip", which is no screw that strips.
        // "You can see the crack in it": it has happened.
        let told_of = words[..at].iter().any(|w| matches!(*w, "see" | "there"));
        let seen = told_of && words[at] == "crack" && matches!(words[at - 1], "the" | "this" | "that" | "a" | "big");
        let noun = seen
            || words[at] == "strip"
                && (t.tags[at] == Tag::Noun
                    || words.get(at + 1) == Some(&"that") && at > 0 && t.tags[at - 1] == Tag::Noun);
        // "You'll hear it snap.": as it should.
        let sounds = words[at].starts_with("snap") && words[at.saturating_sub(3)..at].contains(&"hear");
        // "It holds the lid down so that it doesn't rattle.": what it is for.
        let kept = words[at].starts_with("rattle") && clause.is_some_and(|c| c.mood == Mood::Negated);
        (!noun && !done_already && !until && !absent && !told && !sounds && !kept)
            .then(|| (words[at..at + len].join(" "), span))
    })
}

/// Only possible: "will", "can", "or it", "if you pull"; or true at all times: "too much torque breaks the posts".
fn possible(t: &Tagged<'_>, clauses: &[Clause], span: &Range<usize>) -> bool {
    let said = &t.said;
    said.iter().any(|w| {
        matches!(
            *w,
            "will"
                | "can"
                | "may"
                | "could"
                | "easily"
                | "'ll"
                | "won't"
                | "would"
                | "might"
                | "gonna"
                | "else"
                | "otherwise"
                | "sometimes"
        )
    }) && !t.said.contains(&"still")
        || clauses.iter().any(|c| {
            c.mood == Mood::Conditional && (c.to <= span.start || c.from >= span.end && you(c) && said[c.from] == "if")
        })
        || span.clone().any(|i| {
            t.words.get(i).is_some_and(|w| *w != "lose" && LEXICON.harm.any(&[w]).is_some())
                && said[i].ends_with('s')
                && said[i] != t.words[i]
        })
        || clauses.iter().any(|c| always_happens(t, c))
        || mentions(&t.words, &["so", "that"])
        || mentions(said, &["who", "tears"])
}

/// "They snap.", "These wear out.": true at all times; "they snap in" tells how it goes.
fn always_happens(t: &Tagged<'_>, c: &Clause) -> bool {
    const HARM: [&str; 9] = ["break", "snap", "tear", "rip", "crack", "wear", "strip", "shatter", "split"];
    const WAYS: [&str; 16] = [
        "in", "into", "on", "onto", "off", "together", "apart", "back", "right", "over", "up", "down", "open", "shut",
        "to", "straight",
    ];
    let Some(verb) = c.verb.filter(|_| c.is_plain() && HARM.contains(&c.base) && c.objects.is_empty()) else {
        return false;
    };
    let several = |s: &NounPhrase| s.words.first().is_some_and(|w| matches!(w.as_str(), "they" | "these" | "those"));
    let at_will = t.said[c.from..verb].iter().any(|w| matches!(*w, "will" | "can"));
    let goes = t.words.get(verb + 1).is_some_and(|w| WAYS.contains(w));
    t.said[verb] == c.base && c.subject.last().is_some_and(several) && !at_will && !goes
}

fn apart(t: &Tagged<'_>) -> bool {
    let words = t.words.as_slice();
    // Not "a heap pipe", where sound made one word of another.
    let heap = words
        .iter()
        .enumerate()
        .any(|(i, w)| matches!(*w, "heap" | "pile") && t.tags.get(i + 1) != Some(&Tag::Noun) || *w == "sorted");
    let screws = words
        .iter()
        .any(|w| matches!(*w, "screw" | "longer" | "shorter" | "length" | "one" | "pile" | "heap" | "them"));
    screws
        && (mentions(words, &["keep", "them", "apart"])
            || words.contains(&"keep") && words.iter().any(|w| matches!(*w, "organized" | "organised" | "track"))
            || words.contains(&"apart") && words.contains(&"keep")
            || heap
            || laid_in_order(words)
            || mentions(words, &["bottle", "cap"])
            || words.contains(&"separate") && words.iter().any(|w| matches!(*w, "put" | "keep" | "one"))
            || mentions(words, &["different", "length"])
            // "Make sure the long ones go back where you got them."
            || mentions(words, &["back", "where"]) && !words.contains(&"cable"))
}

/// "lay the screws out on a mat in the same order": each is to go back where it was.
fn laid_in_order(words: &[&str]) -> bool {
    words.contains(&"screw")
        && words.iter().any(|w| matches!(*w, "lay" | "place" | "put" | "keep" | "set" | "arrange"))
        && words.iter().any(|w| matches!(*w, "mat" | "tray" | "box" | "paper" | "magnet" | "cell" | "compartment"))
        && [["same", "place"], ["same", "order"], ["same", "pattern"], ["same", "position"], ["own", "place"]]
            .iter()
            .any(|p| mentions(words, p))
}

fn kept(words: &[&str]) -> bool {
    if mentions(words, &["keep", "the", "old"]) {
        return true;
    }
    let named = |at: usize| {
        words[at..].iter().take(4).any(|w| matches!(*w, "it" | "those" | "them" | "that" | "safe" | "this"))
    };
    words.iter().enumerate().any(|(at, w)| matches!(*w, "keep" | "save") && named(at))
        && !words.contains(&"straight")
        && words
            .iter()
            .any(|w| matches!(*w, "back" | "again" | "safe" | "stop" | "somewhere" | "need" | "later" | "goes"))
}

fn snug(words: &[&str]) -> bool {
    let snug = words.iter().any(|w| matches!(*w, "snug" | "tight"));
    let turned = words.iter().any(|w| {
        matches!(
            *w,
            "screw"
                | "tighten"
                | "turn"
                | "nut"
                | "bolt"
                | "snug"
                | "drive"
                | "fasten"
                | "driver"
                | "torque"
                | "it"
                | "them"
                | "more"
                | "enough"
        )
    });
    snug && turned
        && !mentions(words, &["it", "is", "tight"])
        && !mentions(words, &["it", "be", "tight"])
        && words.iter().any(|w| matches!(*w, "just" | "enough" | "more" | "only" | "not" | "until" | "stop"))
}
