//! Chains that are told and not carried out: "to replace the fan you have to take off the lid and the board".

use super::super::clauses::{Clause, Mood};
use super::super::facts::NeedFact;
use super::super::lexicon::LEXICON;
use super::super::phrases::{self, NounPhrase, Thing};
use super::super::tags::Tagged;
use super::mentions;

/// Whether a sentence tells a chain, and the words that say so.
pub(in super::super) fn chain(t: &Tagged<'_>, clauses: &[Clause]) -> Option<String> {
    let words = &t.words;
    if free(words) && clauses.iter().any(|c| c.things().any(|np| np.known())) {
        return Some("nothing has to come off first".to_owned());
    }
    // "As for the seals, you don't have to order new ones."
    let spared = |d: usize| d > 0 && LEXICON.classes.negation.contains(words[d - 1]);
    let duty = duty_at(words).filter(|d| !spared(*d));
    let purpose = opens_with_purpose(t, clauses);
    if let Some(d) = duty
        && let Some(p) = purpose
    {
        let does = words[d..].iter().any(|w| {
            matches!(
                *w,
                "off"
                    | "out"
                    | "remove"
                    | "removed"
                    | "need"
                    | "have"
                    | "must"
                    | "take"
                    | "gotta"
                    | "first"
                    | "disconnect"
            )
        });
        // "To take it out I have to unplug …": who says that of himself does it.
        let own = d > 0 && matches!(words[d - 1], "i" | "we") && !p.starts_with("if");
        return (does && !own).then(|| format!("{p} … {}", words[d]));
    }
    let told = LEXICON.needs.any(words).filter(|told| !told.starts_with("you'd have") || !words.contains(&"screw"))?;
    let names = clauses.iter().flat_map(|c| c.things()).filter(|np| np.known()).count();
    (names >= 1 && (duty.is_some() || told.contains("only") || told.contains("before"))).then_some(told)
}

/// "if you wanted to …", "to get to …", "who wants to …".
fn opens_with_purpose(t: &Tagged<'_>, clauses: &[Clause]) -> Option<String> {
    let words = &t.words;
    for phrase in [
        &["if", "you"][..],
        &["if", "somebody"],
        &["if", "it", "'s", "just"],
        &["if", "your"],
        &["who", "want"],
        &["when", "you", "want"],
        &["to", "get", "to"],
        &["to", "get", "there"],
        &["to", "reach"],
        &["to", "replace"],
        &["to", "change"],
        &["for", "the"],
        &["for", "changing"],
        &["for", "replacing"],
        &["to", "remove"],
        &["to", "access"],
        &["to", "get", "at"],
        &["to", "take", "out"],
        &["to", "swap"],
        &["in", "order", "to"],
    ] {
        if let Some(at) = words.windows(phrase.len()).position(|w| w == phrase) {
            let wants =
                words[at..].iter().take(8).any(|w| {
                    matches!(
                        *w,
                        "want"
                            | "wanted"
                            | "wanna"
                            | "need"
                            | "needed"
                            | "had"
                            | "replace"
                            | "reach"
                            | "get"
                            | "change"
                            | "remove"
                            | "access"
                            | "take"
                            | "swap"
                            | "exchange"
                            | "just"
                            | "changing"
                            | "replacing"
                    )
                }) || (phrase[0] == "for" && at <= 1 && words.iter().any(|w| matches!(*w, "must" | "need" | "have")));
            // "now we have to remove these": a duty of the moment and no purpose.
            let duty = at > 0
                && phrase[0] == "to"
                && matches!(
                    words[at - 1],
                    "have"
                        | "need"
                        | "want"
                        | "going"
                        | "gotta"
                        | "got"
                        | "gonna"
                        | "ready"
                        | "able"
                        | "like"
                        | "try"
                        | "start"
                        | "careful"
                        | "sure"
                        | "use"
                        | "how"
                );
            if duty {
                continue;
            }
            let opens = at <= 6 || matches!(words[at - 1], "and" | "so" | "but" | "way") || t.pause[at - 1];
            if wants
                && opens
                && clauses.iter().any(|c| {
                    c.things().any(|np| np.known() || np.thing == Thing::Unknown || np.thing == Thing::Pronoun)
                })
            {
                return Some(phrase.join(" "));
            }
        }
    }
    None
}

/// Nothing has to come off first.
fn free(words: &[&str]) -> bool {
    let without = mentions(words, &["without"])
        && words.iter().any(|w| matches!(*w, "anything" | "any" | "everything" | "else" | "other"))
        && words.iter().any(|w| {
            matches!(
                *w,
                "replaced"
                    | "changed"
                    | "exchange"
                    | "removed"
                    | "swapped"
                    | "replace"
                    | "change"
                    | "out"
                    | "off"
                    | "exchanged"
                    | "swap"
            )
        });
    let opened = mentions(words, &["without", "opening"]) || mentions(words, &["without", "to", "open"]);
    let none = words.iter().any(|w| matches!(*w, "anything" | "nothing" | "else"))
        && (mentions(words, &["must", "not", "take"])
            || mentions(words, &["not", "have", "to", "take"])
            || mentions(words, &["don't", "have", "to", "take"])
            || mentions(words, &["don't", "have", "to", "remove"])
            || mentions(words, &["nothing", "else", "have", "to"])
            || mentions(words, &["don't", "need", "to", "remove"]));
    if none {
        return true;
    }
    let possible = words.iter().any(|w| matches!(*w, "can" | "could" | "one"));
    (without || opened) && possible && !words.contains(&"don't")
}

/// The words of duty: what stands before them is the target, what stands behind comes off.
fn duty_at(words: &[&str]) -> Option<usize> {
    (0..words.len()).find(|i| {
        let here = &words[*i..];
        here.starts_with(&["have", "to"])
            || here.starts_with(&["need", "to"]) && !before_is_want(words, *i)
            || here.starts_with(&["got", "to"])
            || here.starts_with(&["gotta"])
            || here.starts_with(&["must"])
            || here.starts_with(&["only", "after"])
            || here.starts_with(&["after"])
            || here.starts_with(&["take", "off"])
            || here.starts_with(&["take", "out"]) && *i > 4
            || here.starts_with(&["remove"]) && *i > 3
    })
}

/// "if you need to replace": the need belongs to the purpose.
fn before_is_want(words: &[&str], at: usize) -> bool {
    words[at.saturating_sub(4)..at].iter().any(|w| matches!(*w, "if" | "when" | "ever" | "who"))
}

/// The target and what has to come off before it.
pub(in super::super) fn needs(t: &Tagged<'_>, clauses: &[Clause], spoken_of: Option<&NounPhrase>) -> Vec<NeedFact> {
    let words = &t.words;
    if let Some(need) = before_another(t, clauses) {
        return vec![need];
    }
    let things = |from: usize, to: usize| -> Vec<NounPhrase> {
        phrases::phrases(t, from, to)
            .into_iter()
            .map(|np| match np.of.as_deref() {
                Some(of) if np.thing == Thing::Never && of.known() => of.clone(),
                _ => np,
            })
            .filter(|np| np.thing != Thing::Tool)
            .filter(|np| np.known() || (np.thing == Thing::Unknown && np.definite && np.words.len() <= 3))
            .collect()
    };
    if free(words) {
        let target = things(0, words.len()).first().map(NounPhrase::text);
        return target.into_iter().map(|target| NeedFact { target, after: Vec::new() }).collect();
    }
    let Some(duty) = duty_at(words) else { return Vec::new() };
    let target =
        things(0, duty).first().map(NounPhrase::text).or_else(|| spoken_of.filter(|f| f.known()).map(NounPhrase::text));
    let Some(target) = target else { return Vec::new() };
    let mut after: Vec<String> = Vec::new();
    for np in things(duty, words.len()) {
        let text = np.serves().filter(|_| np.thing == Thing::Connection).unwrap_or_else(|| np.text());
        let nameless = np.thing == Thing::Connection && np.serves().is_none();
        // "To replace an input socket …, because the sockets are soldered": the thing itself.
        let itself = text == target || target.ends_with(&format!(" {text}"));
        if !itself && !after.contains(&text) && !nameless {
            after.push(text);
        }
    }
    if after.is_empty() { Vec::new() } else { vec![NeedFact { target, after }] }
}

/// "The backup battery must be disconnected before the board is lifted": the board waits for the battery.
fn before_another(t: &Tagged<'_>, clauses: &[Clause]) -> Option<NeedFact> {
    let words = &t.words;
    let at = words.iter().position(|w| *w == "before")?;
    let duty = words.iter().any(|w| matches!(*w, "must" | "have" | "need" | "has"));
    if !duty {
        return None;
    }
    let part = |from: usize, to: usize| {
        clauses
            .iter()
            .filter(|c| c.from >= from && c.from < to)
            .flat_map(|c| c.objects.iter().chain(&c.subject))
            .find(|np| np.known())
            .map(|np| np.serves().unwrap_or_else(|| np.text()))
    };
    // "Before the shell can go, the chuck must be away."
    let (target, after) = if at <= 2 {
        let end = (at..words.len()).find(|i| t.pause[*i])? + 1;
        (part(at, end)?, part(end, words.len())?)
    } else {
        (part(at, words.len())?, part(0, at)?)
    };
    (target != after && clauses.iter().any(|c| c.mood == Mood::Conditional))
        .then(|| NeedFact { target, after: vec![after] })
}
