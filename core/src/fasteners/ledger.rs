//! The ledger: every group with all that is known of it, and what is out, in and on the bench after each step.

use super::balance::{Balance, balance, comes_out};
use super::kinds::{Sorted, Tag};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{FastenerGroup, HowCounted, Manual, Phase};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// One group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LedgerRow {
    pub group: GroupId,
    pub tag: Tag,
    /// "4", or "?" where nobody counted.
    pub count: String,
    /// Its name, or what it is and holds.
    pub label: String,
    pub step: StepId,
    pub step_number: usize,
    /// Screws leave their holes; loosened and captive ones stay with their part.
    pub comes_out: bool,
    pub out: Option<u32>,
    pub back: Option<u32>,
    pub renewed: u32,
    pub left_over: Option<i64>,
    /// Left out on purpose.
    pub on_purpose: bool,
    /// Claims of the count that differ, in a sentence.
    pub disagreement: Option<String>,
}

/// One step with its screws.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LedgerStep {
    pub step: StepId,
    pub number: usize,
    pub title: String,
    /// Screws out in this step, of those counted.
    pub out: u32,
    /// Screws back when this step is undone.
    pub back: u32,
    /// On the bench after this step; `None` once a group was not counted: nobody knows from there on.
    pub on_bench: Option<u32>,
    /// Of those that came out here, neither back nor renewed nor left out on purpose.
    pub left_over: u32,
}

/// The whole ledger.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Ledger {
    pub rows: Vec<LedgerRow>,
    /// Only steps with screws.
    pub steps: Vec<LedgerStep>,
    pub balance: Balance,
    /// "0 left over.", or what is.
    pub says: String,
}

/// Works out the ledger: a row a group, a sum a step. O(groups · log groups).
pub fn ledger(manual: &Manual, sorted: &Sorted) -> Ledger {
    let balance = balance(manual);
    let of: BTreeMap<GroupId, usize> = balance.rows.iter().enumerate().map(|(i, r)| (r.group, i)).collect();
    let rows: Vec<LedgerRow> = manual
        .groups_in_order()
        .into_iter()
        .map(|(number, g)| {
            let row = of.get(&g.id).map(|i| &balance.rows[*i]);
            LedgerRow {
                group: g.id,
                tag: sorted.tags[&g.id].clone(),
                count: g.count_words(),
                label: manual.words_of(g).name(),
                step: g.step,
                step_number: number,
                comes_out: comes_out(g),
                out: row.and_then(|r| r.out),
                back: row.and_then(|r| r.back),
                renewed: row.map_or(0, |r| r.renewed),
                left_over: row.and_then(|r| r.left_over).filter(|_| row.is_some_and(|r| !r.on_purpose)),
                on_purpose: row.is_some_and(|r| r.on_purpose),
                disagreement: disagreement(g),
            }
        })
        .collect();
    Ledger { steps: steps(manual, &rows), says: says(&balance, &rows), rows, balance }
}

fn steps(manual: &Manual, rows: &[LedgerRow]) -> Vec<LedgerStep> {
    let mut on_bench = Some(0);
    let mut out = Vec::new();
    for (i, step) in manual.steps_in(Phase::Teardown).into_iter().enumerate() {
        let here: Vec<&LedgerRow> = rows.iter().filter(|r| r.step == step.id && r.comes_out).collect();
        if here.is_empty() {
            continue;
        }
        let sum = |of: fn(&LedgerRow) -> u32| here.iter().map(|r| of(r)).sum::<u32>();
        let taken = sum(|r| r.out.unwrap_or(0));
        let known = here.iter().all(|r| r.out.is_some());
        on_bench = on_bench.filter(|_| known).map(|lie| lie + taken);
        out.push(LedgerStep {
            step: step.id,
            number: i + 1,
            title: step.title.clone(),
            out: taken,
            back: sum(|r| r.back.unwrap_or(0) + r.renewed),
            on_bench,
            left_over: sum(|r| r.left_over.unwrap_or(0).max(0) as u32),
        });
    }
    out
}

/// The balance in words: nothing is claimed that is not proven.
fn says(balance: &Balance, rows: &[LedgerRow]) -> String {
    if balance.rows.is_empty() {
        return "No screws come out.".to_owned();
    }
    let mut parts = Vec::new();
    for row in rows {
        match row.left_over {
            Some(n) if n > 0 => parts.push(format!("{n} of {} ({}) left over", row.tag.letter, row.label)),
            Some(n) if n < 0 => parts.push(format!("{} too many in {} ({})", -n, row.tag.letter, row.label)),
            _ => {}
        }
    }
    if balance.uncounted > 0 {
        let uncounted: Vec<&str> =
            rows.iter().filter(|r| r.comes_out && r.out.is_none()).map(|r| r.tag.letter.as_str()).collect();
        parts.push(format!("not counted: {}", uncounted.join(", ")));
    }
    if parts.is_empty() { "0 left over.".to_owned() } else { format!("{}.", parts.join("; ")) }
}

/// How claims of one count differ: what a person confirmed settles what was said or drawn before it.
pub fn disagreement(group: &FastenerGroup) -> Option<String> {
    let confirmed = group.claims.iter().rposition(|c| c.how == HowCounted::Confirmed);
    let in_force = match confirmed {
        Some(at) => group.claims[at].count,
        None => group.count?,
    };
    let differ = |c: &&crate::manual::CountClaim| {
        c.count != in_force && (confirmed.is_none() || c.how == HowCounted::Drawn) && c.how != HowCounted::Confirmed
    };
    let against: Vec<String> =
        group.claims.iter().filter(differ).map(|c| format!("{} {}", c.count, c.how.label())).collect();
    if against.is_empty() {
        return None;
    }
    let stands = group.claims.iter().rev().find(|c| c.count == in_force).map_or("said", |c| c.how.label());
    Some(format!("{in_force} {stands}, but {}.", against.join(", ")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fasteners::kinds::sort;
    use crate::manual::written::{group, manual};
    use crate::manual::{Across, Edit, FastenerEdit, FastenerField, HoleEdit, HolePlace};
    use proptest::prelude::*;

    fn told(text: &str) -> String {
        let m = manual(text);
        ledger(&m, &sort(&m)).says
    }

    #[test]
    fn nothing_is_left_over_only_when_all_is_counted() {
        assert_eq!(told("1 cover: 4 PH1 10 mm"), "0 left over.");
        assert_eq!(told("1 cover: ? PH1 10 mm"), "not counted: A.");
        assert_eq!(told("1 cover: 4 PH1 10 mm, 3 back"), "1 of A (PH1, 10 mm, cover) left over.");
        assert_eq!(told("1 cover: 4 PH1 10 mm, 5 back"), "1 too many in A (PH1, 10 mm, cover).");
        assert_eq!(told("1 cover: 4 PH1 10 mm, captive"), "No screws come out.");
        assert_eq!(told("1 cover: 4 PH1 10 mm, left out"), "0 left over.");
    }

    #[test]
    fn the_bench_fills_step_by_step() {
        let m = manual("1 cover: 4 PH1 10 mm\n2 board: 2 T6 4 mm\n2 board: 1 T6 4 mm, 0 back");
        let steps: Vec<_> =
            ledger(&m, &sort(&m)).steps.iter().map(|s| (s.number, s.out, s.on_bench, s.left_over)).collect();
        assert_eq!(steps, [(1, 4, Some(4), 0), (2, 3, Some(7), 1)]);
    }

    #[test]
    fn from_an_uncounted_group_on_nobody_knows_what_lies_on_the_bench() {
        let m = manual("1 cover: 4 PH1 10 mm\n2 board: ? T6 4 mm\n3 frame: 2 T6 4 mm");
        let lie: Vec<Option<u32>> = ledger(&m, &sort(&m)).steps.iter().map(|s| s.on_bench).collect();
        assert_eq!(lie, [Some(4), None, None]);
    }

    #[test]
    fn what_is_drawn_is_held_against_what_was_said() {
        let m = manual("1 cover: 4 PH1 10 mm at 5,5 50,5 50,50");
        let row = &ledger(&m, &sort(&m)).rows[0];
        assert_eq!(row.disagreement.as_deref(), Some("4 said, but 3 drawn."));
        let edit = Edit::Fastener(FastenerEdit::Set { id: row.group, field: FastenerField::Count(Some(3)) });
        let m = m.apply(&edit, "Ann").unwrap().0;
        assert_eq!(ledger(&m, &sort(&m)).rows[0].disagreement, None);
    }

    #[derive(Debug, Clone)]
    enum Move {
        Split(usize, u32, Vec<u32>),
        Shift(usize, usize, u32),
        Count(usize, u32),
        Mirror(usize),
        Spread(usize, u32),
    }

    fn moves() -> impl Strategy<Value = Vec<Move>> {
        let one = prop_oneof![
            (0usize..6, 0u32..9, proptest::collection::vec(0u32..6, 0..3)).prop_map(|(g, n, h)| Move::Split(g, n, h)),
            (0usize..6, 0usize..6, 0u32..9).prop_map(|(a, b, n)| Move::Shift(a, b, n)),
            (0usize..6, 1u32..12).prop_map(|(g, n)| Move::Count(g, n)),
            (0usize..6).prop_map(Move::Mirror),
            (0usize..6, 1u32..6).prop_map(|(g, n)| Move::Spread(g, n)),
        ];
        proptest::collection::vec(one, 0..24)
    }

    /// How many screws lie in each group, by a count of its own.
    #[derive(Debug)]
    struct Tokens(BTreeMap<GroupId, u32>);

    impl Tokens {
        fn of(counts: &[u32], m: &Manual) -> Self {
            Self(m.fasteners.keys().copied().zip(counts.iter().copied()).collect())
        }

        fn take(&mut self, from: GroupId, to: GroupId, count: u32) {
            *self.0.get_mut(&from).unwrap() -= count;
            *self.0.entry(to).or_default() += count;
        }

        fn count(&mut self, group: GroupId, count: u32) {
            self.0.insert(group, count);
        }

        fn out(&self, group: GroupId) -> u32 {
            self.0[&group]
        }
    }

    proptest! {
        /// Screws held as tokens beside the ledger, each with where it is: whatever authors part, move or count, the
        /// ledger says of every step and of the whole what counting the tokens says.
        #[test]
        fn the_ledger_says_what_counting_says(moves in moves()) {
            let mut m = manual("1 cover: 4 PH1 10 mm at 5,5 50,5\n2 board: 7 T6 4 mm\n3 fan: 2 T6 4 mm, 1 back\n4 lid: 3 PH0 2 mm, renewed");
            let mut tokens = Tokens::of(&[4, 7, 2, 3], &m);
            for (n, step) in moves.into_iter().enumerate() {
                let ids: Vec<GroupId> = m.fasteners.keys().copied().collect();
                let at = |i: usize| ids[i % ids.len()];
                let layer = *m.layers.keys().next().unwrap();
                let spot = |x: f64| HolePlace { x_mm: x, y_mm: 20.0 + n as f64 };
                let edit = match &step {
                    Move::Split(g, count, holes) => {
                        let (new_id, holes) = (group(100 + n as u128), holes.clone());
                        Edit::Fastener(FastenerEdit::Split { id: at(*g), new_id, count: *count, holes, name: "left".into() })
                    }
                    Move::Shift(a, b, count) => {
                        Edit::Fastener(FastenerEdit::Shift { from: at(*a), to: at(*b), count: *count, holes: vec![] })
                    }
                    Move::Count(g, n) => {
                        Edit::Fastener(FastenerEdit::Set { id: at(*g), field: FastenerField::Count(Some(*n)) })
                    }
                    Move::Mirror(g) => Edit::Hole(HoleEdit::Mirror { id: at(*g), across: Across::Level }),
                    Move::Spread(g, count) => {
                        Edit::Hole(HoleEdit::Spread { id: at(*g), layer, from: spot(10.0), to: spot(90.0), count: *count })
                    }
                };
                let Ok((next, change)) = m.apply(&edit, "Ann") else { continue };
                prop_assert_eq!(next.revert(&change).unwrap().0, m.clone());
                match step {
                    Move::Split(g, count, _) => tokens.take(at(g), group(100 + n as u128), count),
                    Move::Shift(a, b, count) => tokens.take(at(a), at(b), count),
                    Move::Count(g, n) => tokens.count(at(g), n),
                    Move::Mirror(_) | Move::Spread(..) => {}
                }
                m = next;
                let all = ledger(&m, &sort(&m));
                for row in &all.balance.rows {
                    prop_assert_eq!(row.out, Some(tokens.out(row.group)), "{:?} of {:?}", row, tokens);
                }
                let total: u32 = m.fasteners.keys().map(|g| tokens.out(*g)).sum();
                prop_assert_eq!((all.balance.out, all.steps.last().and_then(|s| s.on_bench)), (total, Some(total)));
            }
        }
    }
}
