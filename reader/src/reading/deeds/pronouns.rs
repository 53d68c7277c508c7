//! What "it", "them" and "that one" mean, as far as speech alone tells it.
//!
//! Some constructions point at their thing ("a screw behind this plug, so hook that out"); else the thing named before in
//! the sentence is meant, and then what was spoken of last. What is on the bench decides later (`objects`).

use super::acts::hides_a_screw;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::names::side_across;
use super::phrases::Phrase;
use super::told::{Reader, TOOLS, has};
use compact_str::CompactString;

/// A pronoun where it stands.
struct It<'a> {
    /// Its clause, by number and itself.
    n: usize,
    c: &'a Clause,
    pronoun: &'a Phrase,
    /// "them", "each".
    many: bool,
    /// "it", "that".
    one: bool,
    /// A tool may be meant.
    tools: bool,
}

impl It<'_> {
    /// One thing is pulled, lifted, pushed.
    fn moves(&self) -> bool {
        matches!(self.c.base.as_str(), "pull" | "slide" | "lift" | "fold" | "swing" | "push")
    }

    fn out(&self) -> bool {
        self.c.particles.iter().any(|p| p == "out")
    }

    fn slid_out(&self) -> bool {
        self.one && self.out() && matches!(self.c.base.as_str(), "slide" | "lift" | "take")
    }

    /// "Blow the dust out. Plug it in.": nobody plugs dust.
    fn dusty(&self, p: &Phrase) -> bool {
        let cleans = matches!(self.c.base.as_str(), "clean" | "wipe" | "brush" | "blow" | "scrape" | "remove");
        self.one && p.kind == Kind::Dirt && !cleans
    }

    /// What is used up is not handled.
    fn spent(&self, p: &Phrase) -> bool {
        let handled = matches!(
            self.c.base.as_str(),
            "lay" | "put" | "place" | "set" | "take" | "lift" | "pull" | "work" | "push" | "slide" | "insert"
        );
        // "Peel off the liner. Line it up, drop it in."
        let fitted = handled || matches!(self.c.base.as_str(), "line" | "align" | "drop" | "plug" | "press" | "give");
        // "Fresh glue around the edge. And close it up."
        let shut = matches!(self.c.base.as_str(), "close" | "shut" | "flip" | "fold" | "plug" | "screw");
        // "Lens cleaner on a cloth, and wipe it.": not the cleaner.
        let wipes = matches!(self.c.base.as_str(), "wipe" | "clean" | "polish");
        // "Peel up the corner of the sticker. I'm going to warm it up.": not the sticker.
        let warms = matches!(self.c.base.as_str(), "warm" | "heat");
        warms && self.one && p.kind == Kind::Film
            || wipes && self.one && p.kind == Kind::Liquid
            || handled && matches!(p.kind, Kind::Material | Kind::Liquid | Kind::Dirt)
            || fitted && (p.kind == Kind::Liner || p.head() == "backing")
            || shut && matches!(p.kind, Kind::Glue | Kind::Material | Kind::Liquid | Kind::Tape)
            || self.dusty(p)
    }
}

fn is_latch(p: &Phrase) -> bool {
    matches!(p.kind, Kind::Lever | Kind::Latch)
}

impl Reader<'_> {
    /// What "it" and "them" mean: the thing named before in the sentence, else the one spoken of last.
    pub(super) fn meant(&self, n: usize, pronoun: &Phrase, tools: bool) -> Option<Phrase> {
        if matches!(pronoun.head(), "everything" | "all" | "anything" | "something" | "nothing") {
            return None;
        }
        // "Now it all goes back.": everything.
        let all = pronoun.head() == "it" && self.words.get(pronoun.to).is_some_and(|w| w.is("all"));
        if all {
            return None;
        }
        let each = pronoun.head() == "one" && self.words[pronoun.from].is("each") || pronoun.head() == "each";
        let many = pronoun.plural || each || matches!(pronoun.head(), "they" | "them" | "these" | "those" | "both");
        let one = matches!(pronoun.head(), "it" | "this" | "that" | "she" | "he") && pronoun.said.len() == 1;
        let it = It { n, c: &self.clauses[n], pronoun, many, one, tools };
        if let Some(film) = self.peeled(&it) {
            return Some(film);
        }
        if let Some(several) = self.of_these(&it) {
            return Some(several);
        }
        if self.numbered(pronoun) {
            let several = self.topic.many.as_ref().filter(|(at, p, _)| self.number - at <= 3 && p.kind != Kind::Screw);
            return several.map(|(_, p, _)| p.clone());
        }
        if let Some(opposite) = self.other_side(&it) {
            return Some(opposite);
        }
        if !many && !one {
            return None;
        }
        // What a construction points at comes first.
        let pointed = self
            .screws_undone(&it)
            .or_else(|| self.the_obstacle(&it))
            .or_else(|| self.hidden_behind(&it))
            .or_else(|| self.counted_here(&it))
            .or_else(|| self.held_by_a_clip(&it))
            .or_else(|| self.plug_of_its_latch(&it))
            .or_else(|| self.secured(&it))
            .or_else(|| self.the_one_screw(&it))
            .or_else(|| self.freed_of_dirt(&it))
            .or_else(|| self.smeared_with(&it));
        if let Some(pointed) = pointed.or_else(|| self.tool_in_hand(&it)) {
            return Some(pointed);
        }
        let here = self.named_here(&it);
        let on_top = self.on_top(&it);
        on_top.or_else(|| self.plug_unlocked(&it, here.is_none())).or_else(|| self.spoken_of(&it, here))
    }

    /// "Take out the left arm and then the right one.": its like, of the other side.
    fn other_side(&self, it: &It<'_>) -> Option<Phrase> {
        let side = match &it.pronoun.said[..] {
            [side] => side,
            [side, one] if one == "one" => side,
            _ => return None,
        };
        let other = side_across(side)?;
        let here = self.clauses[..=it.n].iter().rev().flat_map(|c| c.objects.iter().rev().chain(&c.subjects));
        let before = here.filter(|p| p.to <= it.pronoun.from).chain(self.topic.one.as_ref().map(|(_, p, _)| p));
        let like = |p: &&Phrase| p.kind == Kind::Part && p.said.len() > 1 && p.said.iter().any(|w| w == other);
        let turn = |w: &CompactString| if w == other { side.clone() } else { w.clone() };
        before.into_iter().find(like).map(|p| Phrase {
            words: p.words.iter().map(turn).collect(),
            said: p.said.iter().map(turn).collect(),
            ..p.clone()
        })
    }

    /// "These clips go back on, so I'm going to put this one on.": one of them.
    fn of_these(&self, it: &It<'_>) -> Option<Phrase> {
        let p = it.pronoun;
        let which = p.words.len() == 1 && matches!(p.head(), "this" | "that") && p.to > p.from + 1;
        let several = |p: &&Phrase| p.plural && !p.is_pronoun() && (is_latch(p) || p.kind == Kind::Plug);
        let told = self.clauses[..it.n].iter().rev().flat_map(|c| c.subjects.iter().chain(&c.objects));
        told.filter(|_| which || self.numbered(p)).find(several).cloned()
    }

    /// "There's one screw behind each foot. Undo all four of them.": the screws.
    fn screws_undone(&self, it: &It<'_>) -> Option<Phrase> {
        let undone = matches!(it.c.base.as_str(), "undo" | "unscrew" | "loosen" | "tighten") || self.these_screws(it.c);
        let counted = undone && it.pronoun.count.is_some_and(|n| n > 1);
        // "It's over the connectors, held with two screws. Get those out of there."
        let just_told = self.topic.screws.as_ref().is_some_and(|(was, p)| self.number == was + 1 && p.count.is_some());
        let handled = self.topic.many.as_ref().is_some_and(|(_, _, acted)| *acted);
        let taken = matches!(it.c.base.as_str(), "get" | "take") && it.out() && it.many && just_told && !handled;
        // "Underneath each of them is a small screw. I'll undo all of those."
        let newer = self.topic.many.as_ref().is_some_and(|(at, p, _)| *at == self.number || p.kind == Kind::Plug);
        let turned = matches!(it.c.base.as_str(), "undo" | "unscrew") && it.many && !newer;
        let shown = self.topic.screws.as_ref().is_some_and(|(was, _)| self.number == was + 1);
        // "The pot is held by one nut. Back it off."
        let backed = it.c.base == "back" && it.out();
        let counted = counted || taken || (turned || backed) && shown;
        let screws = self.topic.screws.as_ref().filter(|(was, _)| counted && self.number - was <= 3);
        screws.map(|(_, screws)| screws.clone())
    }

    /// "You can't lift it because of the ribbon to the keypad, so undo that first.": the ribbon.
    fn the_obstacle(&self, it: &It<'_>) -> Option<Phrase> {
        let undoes = matches!(it.c.base.as_str(), "undo" | "unplug" | "disconnect" | "unclip" | "release" | "remove");
        let c = self.clauses[..it.n].last().filter(|c| undoes && it.one && c.negated)?;
        let (_, thing) = c.places.iter().find(|(p, np)| p == "of" && np.definite)?;
        let told = has(self.text, "because of") && !thing.is_pronoun();
        let to = c.places.iter().find(|(p, np)| p == "to" && thing.kind == Kind::Plug && np.kind == Kind::Part);
        told.then(|| match to {
            Some((_, owner)) if thing.of.is_empty() => Phrase { of: vec![owner.clone()], ..thing.clone() },
            _ => thing.clone(),
        })
    }

    /// "Six along the edge, twelve millimetres, and out they come.": the screws that were counted.
    fn counted_here(&self, it: &It<'_>) -> Option<Phrase> {
        let leaves = it.many && it.out() && matches!(it.c.base.as_str(), "come" | "go" | "lift" | "pull");
        let counted = self.clauses[..it.n].iter().filter(|c| leaves && c.verb.is_none()).flat_map(|c| &c.objects);
        let several = |o: &&Phrase| o.is_pronoun() && o.count.is_some_and(|n| n > 1) && o.words.is_empty();
        let six = counted.rev().find(several)?;
        Some(Phrase { plural: true, ..six.clone() }.as_screws())
    }

    /// "There's a screw behind this plug, so I'll hook that out.": what hides it.
    fn hidden_behind(&self, it: &It<'_>) -> Option<Phrase> {
        let hooked = matches!(it.c.base.as_str(), "hook" | "pry" | "pick" | "peel" | "prise" | "pop");
        // "The screws are hidden underneath the feet, so we need to get those off."
        let taken = matches!(it.c.base.as_str(), "get" | "take" | "pull") && it.c.particles.iter().any(|p| p == "off");
        let that = it.pronoun.head() == "that" && (hooked || taken) || it.many && taken;
        let here = self.clauses[..it.n].last().filter(|_| that).and_then(hides_a_screw);
        // "Another two hide under these rubber feet. I just pick those off."
        let picked = hooked && it.many && it.c.particles.iter().any(|p| p == "off");
        let before =
            self.topic.cover.as_ref().filter(|(at, p)| picked && it.n == 0 && self.number == at + 1 && p.plural);
        here.or(before.map(|(_, p)| p)).cloned()
    }

    /// "The roller is held by an E-clip, pop it off.": the clip.
    fn held_by_a_clip(&self, it: &It<'_>) -> Option<Phrase> {
        let pops = matches!(it.c.base.as_str(), "pop" | "pry" | "prise" | "lever" | "pick") && it.one;
        let c = self.clauses[..it.n].last().filter(|c| pops && c.passive && c.base == "hold")?;
        let ring = |np: &Phrase| {
            matches!(np.text().as_str(), "e clip" | "e-clip" | "circlip" | "c clip" | "snap ring" | "retaining ring")
        };
        c.places.iter().find(|(p, np)| matches!(p.as_str(), "by" | "with") && ring(np)).map(|(_, np)| np.clone())
    }

    /// "Depress the tongue of the supply plug and remove it.": the plug.
    fn plug_of_its_latch(&self, it: &It<'_>) -> Option<Phrase> {
        let leaves = matches!(it.c.base.as_str(), "remove" | "withdraw" | "detach" | "disconnect" | "unplug");
        let c = self.clauses[..it.n].last().filter(|c| leaves && it.one && c.order && !c.negated)?;
        let latch = c.objects.iter().find(|o| is_latch(o))?;
        let before = self.topic.plug.as_ref().filter(|(at, _)| latch.of.is_empty() && self.number == at + 1);
        latch.of.iter().find(|p| p.kind == Kind::Plug).or(before.map(|(_, p)| p)).cloned()
    }

    /// "The motor sits in its own gearbox, and that's secured with four screws.": the gearbox.
    fn secured(&self, it: &It<'_>) -> Option<Phrase> {
        let held = it.c.passive && matches!(it.c.base.as_str(), "secure" | "hold" | "fasten" | "fix" | "screw");
        let that = it.pronoun.head() == "that" && it.pronoun.said.len() == 1;
        let c = self.clauses[..it.n].last().filter(|c| held && that && !c.passive && !c.negated)?;
        c.places.last().map(|(_, np)| np).filter(|np| np.kind == Kind::Part && np.definite).cloned()
    }

    /// "It has its own connector underneath this bit of tape. Take that off.": the tape, named last.
    fn on_top(&self, it: &It<'_>) -> Option<Phrase> {
        let off = it.c.particles.iter().any(|p| p == "off") && matches!(it.c.base.as_str(), "take" | "peel" | "pull");
        let that = it.pronoun.head() == "that" && it.n == 0 && off;
        let last = self.topic.last.as_ref().filter(|(at, _)| that && self.number == at + 1)?;
        matches!(last.1.kind, Kind::Tape | Kind::Film).then(|| last.1.clone())
    }

    /// "It is held in with one screw, so take that out.": the screw.
    fn the_one_screw(&self, it: &It<'_>) -> Option<Phrase> {
        let one_screw = |c: &Clause| {
            let held = c.passive && matches!(c.base.as_str(), "hold" | "secure" | "fix" | "fasten");
            let single = |np: &Phrase| np.kind == Kind::Screw && np.count == Some(1);
            c.places.iter().find(|(p, np)| held && p == "with" && single(np)).map(|(_, np)| np.clone())
        };
        let that = it.pronoun.head() == "that";
        self.clauses[..it.n].iter().rev().take(2).filter(|_| that).find_map(one_screw)
    }

    /// What is put between or along something is the tool.
    fn tool_in_hand(&self, it: &It<'_>) -> Option<Phrase> {
        if !(it.tools && it.one) {
            return None;
        }
        let at = it.pronoun.from;
        let here = self.before(it).flat_map(|c| c.objects.iter()).find(|p| p.to <= at && TOOLS.contains(&p.kind));
        let held = || self.topic.tool.as_ref().filter(|(was, _, _)| self.number - was <= 2).map(|t| t.1.clone());
        here.cloned().or_else(held)
    }

    /// The clauses in which it may have been named, the nearest first.
    fn before<'a>(&'a self, it: &It<'_>) -> impl Iterator<Item = &'a Clause> {
        let (at, one) = (it.pronoun.from, it.one);
        let that = it.pronoun.head() == "that";
        // "Under it is a foam pad, peel that away.": what lies there.
        let lies = move |c: &Clause| that && c.base == "be" && c.objects.len() == 1;
        // "Go in where the battery was, then work it up.": not what only tells where.
        let named = move |c: &&Clause| c.from < at && !(one && (c.beside_it() && !lies(c) || c.mood == Mood::Question));
        self.clauses[..=it.n].iter().rev().filter(named)
    }

    /// "Scrape the old glue off the frame and wipe it down.": the frame.
    fn freed_of_dirt(&self, it: &It<'_>) -> Option<Phrase> {
        let wipes = matches!(it.c.base.as_str(), "wipe" | "clean" | "brush" | "degrease" | "dust");
        let c = self.clauses[..it.n].last().filter(|_| wipes && it.one)?;
        let dirt = c.order && c.objects.iter().any(|o| matches!(o.kind, Kind::Glue | Kind::Dirt | Kind::Material));
        let from = c.places.iter().find(|(p, np)| dirt && p == "from" && np.kind == Kind::Part && np.definite);
        from.map(|(_, np)| np.clone())
    }

    /// "Put a dab of grease on the o-ring and slip it back on.": the ring.
    fn smeared_with(&self, it: &It<'_>) -> Option<Phrase> {
        let spreads =
            matches!(it.c.base.as_str(), "spread" | "smear" | "rub" | "wipe" | "squeeze" | "work" | "let" | "leave");
        let c = self.clauses[..it.n].last().filter(|c| !spreads && it.one && c.order)?;
        let stuff = c.objects.iter().any(|o| matches!(o.kind, Kind::Glue | Kind::Material | Kind::Liquid));
        let on = |p: &str| matches!(p, "on" | "onto" | "to" | "around" | "along");
        let thing = c.places.iter().find(|(p, np)| stuff && on(p) && np.kind == Kind::Part && np.definite);
        thing.map(|(_, np)| np.clone())
    }

    /// What is named before it in the sentence.
    fn named_here(&self, it: &It<'_>) -> Option<Phrase> {
        let (at, one) = (it.pronoun.from, it.one);
        let named = self.before(it).flat_map(|c| {
            // "It's stuck down with tape, so peel it up", "Grab it by the plug": not what holds it, nor where it is held.
            // "There's a screen that pulls out by its tab, rinse it": nor by what it is pulled.
            let itself = c.mood == Mood::Relative && !c.particles.is_empty();
            let means = move |p: &str| one && matches!(p, "with" | "by") && (c.passive || c.order || itself);
            // "It goes down the arm. Peel it out.", "Unhook it from its pin and lift it away.": it is still meant.
            let goes = one && c.subjects.iter().chain(&c.objects).any(|s| s.is_pronoun() && s.head() == "it");
            let places = c.places.iter().filter(move |(p, _)| !goes && !means(p)).map(|(_, p)| p);
            // "The new screen doesn't come with the button, so transfer it.": what is lacking.
            let lacking = c.places.iter().filter(|(p, _)| c.negated && c.base == "come" && p == "with").map(|(_, p)| p);
            // "Grab the corner of the film and peel it away.": the film.
            let whole = |p| if c.base == "grab" { of_nothing(p) } else { p };
            // "The camera is just clipped in the board, push it out.": what suffers.
            let suffers = c.subjects.iter().rev().filter(|_| c.passive && one);
            lacking.chain(suffers).chain(c.objects.iter().rev().map(whole)).chain(c.subjects.iter().rev()).chain(places)
        });
        named.filter(|p| p.to <= at).find(|p| self.fits(it, p)).cloned()
    }

    /// Whether it can stand for a thing of the sentence.
    fn fits(&self, it: &It<'_>, p: &Phrase) -> bool {
        // "Take out the screw and pull it to the front.": the part, and not its screw.
        let its_screw = it.one && it.moves() && it.c.from > 0 && p.kind == Kind::Screw;
        let turned_away = self.turned_over(it, p)
            || its_screw
            || self.pulled(it, p)
            || it.spent(p)
            || self.let_go(it, p)
            || p.is_pronoun();
        let handled = p.is_thing() && p.kind != Kind::Time && (it.tools || !TOOLS.contains(&p.kind));
        // "There's a clip on each side, just pop those out."
        let next = |n: usize| self.words.get(p.to + n).map_or("", |w| w.said.as_str());
        let on_each = matches!(next(0), "on" | "at" | "in") && matches!(next(1), "each" | "either" | "both" | "every");
        let as_many = if it.many {
            p.plural || p.of.len() > 1 || on_each && !matches!(p.kind, Kind::Glue | Kind::Material)
        } else {
            !p.plural || p.count == Some(1)
        };
        !turned_away && handled && as_many
    }

    /// "I pulled the plug. Flip it over.": nobody turns over a plug, a screw or a latch.
    fn turned_over(&self, it: &It<'_>, p: &Phrase) -> bool {
        let over = matches!(it.c.base.as_str(), "flip" | "turn" | "roll")
            && it.c.particles.iter().any(|w| matches!(w.as_str(), "over" | "around" | "round"));
        it.one && over && (is_latch(p) || matches!(p.kind, Kind::Plug | Kind::Screw))
    }

    /// "Flip up the bar and it slides out.", "Push this clip off, swing it up.": what the latch held, and not the latch.
    fn let_go(&self, it: &It<'_>, p: &Phrase) -> bool {
        let slips =
            it.moves() || matches!(it.c.base.as_str(), "come" | "slip" | "draw" | "pop" | "ease" | "wiggle" | "rock");
        let opens = |c: &Clause| c.order && c.particles.iter().any(|p| p == "off") && c.objects.iter().any(is_latch);
        let swings = matches!(it.c.base.as_str(), "swing" | "tilt" | "hinge");
        let swung = || swings && self.clauses[..it.n].iter().any(opens);
        it.one && is_latch(p) && (slips && it.out() || swung())
    }

    /// "It's held with a bit of tape, so peel that back.", "screws under the feet, so peel those up": what can be peeled.
    fn peeled(&self, it: &It<'_>) -> Option<Phrase> {
        if !matches!(it.c.base.as_str(), "peel" | "unstick") || !(it.one || it.many) {
            return None;
        }
        let foot = |p: &&Phrase| matches!(p.head(), "foot" | "feet" | "pad" | "badge" | "patch");
        let film = |p: &&Phrase| matches!(p.kind, Kind::Film | Kind::Tape | Kind::Liner) || foot(p);
        let fits = |p: &&Phrase| film(p) && p.plural == it.many && !p.is_pronoun();
        let named = self.clauses[..it.n].iter().rev();
        // "The cell is stuck down with tape, so peel it up.": the cell.
        let holds = |k: &Clause| it.pronoun.head() == "it" && k.passive && k.base == "stick";
        let places = |k: &Clause| if holds(k) { 0 } else { k.places.len() };
        named
            .flat_map(|k| k.places[..places(k)].iter().map(|(_, np)| np).chain(&k.objects).chain(&k.subjects))
            .find(fits)
            .cloned()
    }

    /// "Unplug this connector and slide it out.": what the plug belongs to, and not the plug.
    fn pulled(&self, it: &It<'_>, p: &Phrase) -> bool {
        let unplugs = |c: &Clause| {
            matches!(c.base.as_str(), "unplug" | "disconnect") && c.objects.iter().any(|o| o.from == p.from)
        };
        it.slid_out() && p.kind == Kind::Plug && self.clauses[..it.n].iter().any(unplugs)
    }

    /// "The pack is connected with a plug, so press the tab and pull it out.": the plug.
    fn plug_unlocked(&self, it: &It<'_>, alone: bool) -> Option<Phrase> {
        let parts = matches!(it.c.base.as_str(), "part" | "separate");
        let unlocks = |c: &&Clause| c.objects.iter().any(is_latch);
        self.clauses[..it.n].last().filter(unlocks).filter(|_| it.one && (it.out() || parts))?;
        // "This ribbon is the touch panel's. You flip up the bar and it slides out."
        let before =
            || self.topic.plug.as_ref().filter(|(at, _)| alone && self.number - at <= 2).map(|(_, p)| p.clone());
        self.plug_of(it.n).or_else(before)
    }

    /// What was named here, else what was spoken of last.
    fn spoken_of(&self, it: &It<'_>, here: Option<Phrase>) -> Option<Phrase> {
        let topic = if it.many { &self.topic.many } else { &self.topic.one };
        let guess = here.is_none() && topic.as_ref().is_some_and(|(_, _, acted)| !acted);
        let aged = |t: &Option<(usize, Phrase, bool)>| t.as_ref().map(|(at, p, _)| (p.clone(), self.number - at));
        let before = || {
            let tool = aged(&self.topic.tool).filter(|_| it.tools);
            match (aged(topic), tool) {
                (Some(named), Some(tool)) => Some(if tool.1 <= named.1 { tool } else { named }),
                (named, tool) => named.or(tool),
            }
        };
        let (was, age) = here.map(|p| (p, 0)).or_else(before).filter(|(p, _)| !self.turned_over(it, p))?;
        if was.kind == Kind::Screw && it.one && age > 0 && it.moves() || self.stays_plugged(it, age) {
            return None;
        }
        // "Latch of the lamp flex up. It slides out.": what the latch held.
        let held = was.of.first().filter(|o| age > 0 && self.let_go(it, &was) && o.kind == Kind::Plug);
        if let Some(plug) = held {
            return Some(Phrase { guess: false, ..plug.clone() });
        }
        (age <= 3 && !it.spent(&was)).then_some(Phrase { guess, ..was })
    }

    /// "Unplug this connector. And slide it out.": what is in work, and not the plug.
    fn stays_plugged(&self, it: &It<'_>, age: usize) -> bool {
        let just_now = |(at, p, acted): &(usize, Phrase, bool)| *acted && p.kind == Kind::Plug && self.number == at + 1;
        let goes_on = self.lemmas.first() == Some(&"and");
        age == 1 && goes_on && it.slid_out() && it.c.base == "slide" && self.topic.one.as_ref().is_some_and(just_now)
    }

    /// "The pack is connected with a white plug": the plug, and whose it is.
    fn plug_of(&self, n: usize) -> Option<Phrase> {
        // "There's a white connector, squeeze the tab and part it."
        let shown = self.clauses[..n].iter().find(|c| c.base == "be" && c.subjects.is_empty() && !c.negated);
        if let Some(plug) = shown.and_then(|c| c.objects.iter().find(|o| o.kind == Kind::Plug)) {
            return Some(plug.clone());
        }
        let c = self.clauses[..n].iter().find(|c| c.passive && c.base == "connect")?;
        let (_, plug) = c.places.iter().find(|(p, np)| matches!(p.as_str(), "with" | "by") && np.kind == Kind::Plug)?;
        let owner = c.subjects.first().filter(|s| s.kind == Kind::Part)?;
        Some(Phrase { of: vec![owner.clone()], ..plug.clone() })
    }

    /// "the first one", "the other one": of several that were spoken of.
    fn numbered(&self, p: &Phrase) -> bool {
        let which = |w: &str| matches!(w, "first" | "second" | "third" | "last" | "other");
        p.head() == "one" && self.words[p.from..p.to].iter().any(|w| which(&w.lemma))
    }
}

/// The film, of "the corner of the film".
fn of_nothing(p: &Phrase) -> &Phrase {
    if p.kind == Kind::Nothing { p.of.first().unwrap_or(p) } else { p }
}
