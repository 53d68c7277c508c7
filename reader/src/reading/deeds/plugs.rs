//! Plugs that are told in passing: shown and then levered, named and then handled, said to be off.

use super::super::Act;
use super::super::lexicon::lemma;
use super::acts::leads_to;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::names::tells_no_owner;
use super::phrases::Phrase;
use super::told::{Reader, Told};
use super::words::Word;
use compact_str::CompactString;

/// "the speaker plug and the one for the buttons": another plug, and whose it is. "Two plugs, one for the fan and one for
/// the lamp": whose they are.
pub(super) fn the_one_for(words: &[Word], c: &mut Clause) {
    let plug = c.objects.iter().chain(&c.subjects).find(|p| p.kind == Kind::Plug).cloned();
    let Some(plug) = plug.or_else(|| unnamed_plug(c)) else { return };
    let one = |from: usize| {
        let of = from.checked_sub(2).map(|i| words[i].said.as_str());
        from > plug.to && matches!(of, Some("one" | "ones"))
    };
    let owns = |(p, np): &(CompactString, Phrase)| {
        matches!(p.as_str(), "for" | "from" | "of" | "on") && np.definite && !np.is_pronoun() && one(np.from)
    };
    let (owners, places) = std::mem::take(&mut c.places).into_iter().partition::<Vec<_>, _>(owns);
    c.places = places;
    if owners.is_empty() {
        return;
    }
    // "one for the fan and one for the lamp": the second one is no place of the first.
    c.places.retain(|(p, np)| !(p == "for" && np.is_pronoun() && np.said.is_empty()));
    let owners: Vec<Phrase> = owners.into_iter().map(|(_, np)| Phrase { kind: Kind::Part, ..np }).collect();
    c.objects.retain(|o| !(o.is_pronoun() && owners.iter().any(|owner| o.to + 1 >= owner.from)));
    if plug.plural && plug.count == Some(owners.len() as u32) {
        for p in c.objects.iter_mut().chain(&mut c.subjects).filter(|p| p.from == plug.from) {
            p.said = p.said.iter().map(|w| lemma(w)).collect();
            p.of.clone_from(&owners);
        }
        return;
    }
    let other = |owner: Phrase| Phrase {
        from: owner.from - 1,
        to: owner.to,
        words: plug.words.last().into_iter().cloned().collect(),
        said: plug.said.last().into_iter().cloned().collect(),
        of: vec![owner],
        ..plug.clone()
    };
    c.objects.extend(owners.into_iter().map(other));
}

/// "Unplug the one for the pump and the one for the lamp.": nothing else is unplugged.
fn unnamed_plug(c: &Clause) -> Option<Phrase> {
    let unplugs = matches!(c.base.as_str(), "unplug" | "disconnect" | "reconnect");
    let (_, owner) = c.places.first().filter(|_| unplugs && !c.negated && c.objects.iter().all(Phrase::is_pronoun))?;
    let plug = || vec!["plug".into()];
    let from = c.verb.unwrap_or(c.from);
    Some(Phrase { from, to: from + 1, words: plug(), said: plug(), kind: Kind::Plug, of: Vec::new(), ..owner.clone() })
}

/// "The last cable goes to the coil.": the coil's, for whoever takes "it" next.
pub(super) fn whose(c: &Clause) -> Option<Phrase> {
    let leads = matches!(c.base.as_str(), "go" | "lead" | "run" | "belong" | "feed") && !c.negated && !c.supposed;
    let plug = c.subjects.first().filter(|s| leads && s.kind == Kind::Plug && s.of.is_empty() && !s.plural)?;
    let own = plug.words.len() == 1;
    let (_, to) = c
        .places
        .iter()
        .find(|(p, np)| own && matches!(p.as_str(), "to" | "for") && np.kind == Kind::Part && np.definite)?;
    Some(Phrase { of: vec![to.clone()], ..plug.clone() })
}

/// "The fan is plugged in right here."
pub(super) fn plugged_in(clauses: &[Clause]) -> Option<&Phrase> {
    let plugged = |c: &&Clause| c.passive && c.base == "plug" && !c.negated;
    clauses.iter().filter(plugged).find_map(|c| c.subjects.last()).filter(|p| p.kind == Kind::Part)
}

impl Reader<'_> {
    /// "There's a connector under this flap, that's the display, get the spudger under it.": the connector is undone.
    pub(super) fn under_the_plug(&self, out: &mut [Told]) {
        let shows = |c: &Clause| matches!(c.base.as_str(), "have" | "be" | "see" | "get") && !c.negated && !c.order;
        let shown = |c: &Clause| c.objects.iter().find(|o| o.kind == Kind::Plug && !o.plural).cloned();
        let found =
            self.clauses.iter().enumerate().filter(|(_, c)| shows(c)).find_map(|(n, c)| Some((n, c, shown(c)?)));
        let Some((n, c, plug)) = found else { return };
        let named = || self.clauses[n + 1..].iter().filter(|k| k.base == "be").find_map(is_the);
        let owner = if c.base == "have" {
            self.named(n, c, &c.subjects).into_iter().find(|s| s.kind == Kind::Part)
        } else {
            named()
        };
        let behind = |t: &Told| self.words.get(c.to.saturating_sub(1)).is_some_and(|w| w.start <= t.start);
        for told in out.iter_mut().filter(|t| behind(t) && matches!(t.apart, Some((Act::Pry, _)))) {
            let under_it =
                told.places.iter().any(|(p, np)| p == "under" && (np.kind == Kind::Nothing || np.is_pronoun()));
            if under_it {
                told.apart = Some((Act::Disconnect, "a tool under the plug just shown"));
                let of = if plug.of.is_empty() { owner.clone().into_iter().collect() } else { plug.of.clone() };
                told.objects = vec![Phrase { of, ..plug.clone() }];
            }
        }
    }

    /// "Now the motor connector: squeeze the tab and pull on the housing.": the connector comes off.
    pub(super) fn plug_by_its_housing(&self, out: &mut Vec<Told>) {
        let named = self.clauses.first().filter(|c| c.verb.is_none() && c.particles.is_empty());
        let Some(plug) = named.and_then(|c| c.objects.first()).filter(|o| o.kind == Kind::Plug && o.definite) else {
            return;
        };
        let undone = |t: &Told| matches!(t.apart, Some((Act::Disconnect, _)));
        if self.clauses.len() < 2 || out.iter().any(undone) {
            return;
        }
        let grip =
            |p: &Phrase| matches!(p.head(), "housing" | "body" | "shell" | "head" | "tab" | "plug" | "side" | "end");
        let pulls = |c: &&Clause| {
            c.order
                && !c.negated
                && matches!(c.base.as_str(), "pull" | "lift" | "draw" | "wiggle")
                && c.places.iter().any(|(p, np)| matches!(p.as_str(), "on" | "by" | "at") && grip(np))
        };
        if let Some(c) = self.clauses.iter().find(pulls) {
            let plug = Phrase { from: c.from, to: c.from, ..plug.clone() };
            out.push(Told {
                apart: Some((Act::Disconnect, "a plug named, and pulled by its housing")),
                objects: vec![plug],
                places: Vec::new(),
                ..self.blank(c)
            });
        }
    }

    /// "Unplug this connector, that's the power.", "… both of those, this one's for the horn and this one's for the lamp.":
    /// whose they are is told behind.
    pub(super) fn told_behind(&self, out: &mut [Told]) {
        for t in out.iter_mut() {
            let undone = matches!(t.apart, Some((Act::Disconnect, _)));
            let joined = matches!(t.together, Some((Act::Connect, _)));
            let ([plug], true) = (&mut t.objects[..], undone || joined) else { continue };
            let as_said = self.clauses.iter().flat_map(Clause::things).find(|p| p.from == plug.from);
            t.unowned = as_said.is_some_and(serves_nobody);
            if !t.unowned || !t.places.iter().all(|(p, np)| p != "for" && np.kind != Kind::Plug) {
                continue;
            }
            let behind = self.clauses.iter().skip_while(|c| self.words[c.from].start <= t.start);
            let pointed = behind.take_while(|c| c.base == "be" && !c.negated).filter_map(leads_to);
            let owners: Vec<Phrase> = pointed.map(|(owner, _)| owner).collect();
            let several = owners.len() > 1 && plug.count.unwrap_or(2) == owners.len() as u32;
            if owners.len() == 1 && !plug.plural || several {
                plug.kind = Kind::Plug;
                plug.words = vec!["cable".into()];
                plug.said = vec!["cable".into()];
                plug.of = owners;
                t.unowned = false;
            }
        }
    }

    /// "The fan is plugged in right here, so pull that out.": its plug.
    pub(super) fn plugged_here(&self, out: &mut [Told]) {
        let before = || self.topic.plugged.as_ref().filter(|(at, _)| self.number - at == 1).map(|(_, p)| p);
        let Some(part) = plugged_in(self.clauses).or_else(before) else { return };
        for t in out.iter_mut().filter(|t| matches!(t.apart, Some((Act::Remove, "taken off by lifting")))) {
            let said = |o: &Phrase| self.clauses.iter().flat_map(|c| &c.objects).find(|p| p.from == o.from).cloned();
            let [pulled] = &t.objects[..] else { continue };
            if said(pulled).is_some_and(|p| p.is_pronoun() && matches!(p.head(), "that" | "it" | "this")) {
                t.apart = Some((Act::Disconnect, "pulled where it is plugged in"));
                let cable = || vec!["cable".into()];
                let plug = Phrase { kind: Kind::Plug, words: cable(), said: cable(), ..pulled.clone() };
                t.objects = vec![Phrase { of: vec![part.clone()], ..plug }];
            }
        }
    }

    /// "You can see the pump's plug, that's off too.", "The lamp flex is out now."
    pub(super) fn plug_is_off(&self, out: &mut Vec<Told>) {
        let off = |c: &Clause| c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "undone"));
        let that = |c: &Clause| c.subjects.is_empty() || c.subjects.iter().all(Phrase::is_pronoun);
        for (n, c) in self.clauses.iter().enumerate().skip(1) {
            let plain =
                matches!(c.mood, Mood::Plain | Mood::Relative) && !c.negated && !c.supposed && c.objects.is_empty();
            if !(c.base == "be" && plain && off(c) && that(c) && c.places.is_empty()) {
                continue;
            }
            let before = &self.clauses[n - 1];
            let seen = matches!(before.base.as_str(), "see" | "be" | "have" | "find") && !before.negated;
            let Some(plug) = before.objects.iter().rfind(|o| seen && o.kind == Kind::Plug && !o.of.is_empty()) else {
                continue;
            };
            if out.iter().all(|t| !matches!(t.apart, Some((Act::Disconnect, _)))) {
                out.push(Told {
                    apart: Some((Act::Disconnect, "a plug is seen, and off")),
                    objects: vec![Phrase { from: c.from, to: c.from, ..plug.clone() }],
                    places: Vec::new(),
                    confidence: 0.6,
                    ..self.blank(c)
                });
            }
        }
    }
}

/// A plug of which nobody has said whose it is.
fn serves_nobody(o: &Phrase) -> bool {
    o.of.is_empty() && (o.is_pronoun() || o.kind == Kind::Plug && o.words.iter().all(|w| tells_no_owner(w)))
}

/// "that's the display": what is pointed out.
fn is_the(c: &Clause) -> Option<Phrase> {
    let points = c.subjects.is_empty() || c.subjects.iter().all(Phrase::is_pronoun);
    c.objects.first().filter(|o| points && !c.negated && o.kind == Kind::Part && o.definite).cloned()
}
