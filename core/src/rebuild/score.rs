//! A score, only by the table that somebody filled in: points for each class, and how much each row weighs.

use super::classes::{ClassRow, Classed};
use crate::labels::Label;
use crate::manual::{ScoreRow, ScoreTable};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The score with what makes it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Score {
    pub rows: Vec<Scored>,
    /// The weighted mean of the points; `None` while points are missing or nothing weighs.
    pub total: Option<f64>,
    /// The same if every class were the best one.
    pub best: Option<f64>,
    /// "7.5 of 10", or what is still to be filled in.
    pub says: String,
}

/// One row that weighs something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Scored {
    pub of: Classed,
    pub class: char,
    pub weight: f64,
    /// What the table gives for this class.
    pub points: Option<f64>,
    /// The most that the row gives.
    pub best: Option<f64>,
}

/// Works it out; `steps` is the number that the standard's rule counts.
pub(super) fn score(table: &ScoreTable, classes: &[ClassRow], steps: usize) -> Score {
    let class_of = |of: Classed| match of {
        Classed::Steps => class_of_steps(table, steps),
        _ => classes.iter().find(|r| r.of == of).map(|r| r.class),
    };
    let rows: Vec<Scored> = ALL
        .into_iter()
        .filter_map(|of| {
            let row = row(table, of);
            let weight = row.weight.filter(|w| *w > 0.0)?;
            let class = class_of(of).unwrap_or('?');
            let best = [row.a, row.b, row.c].into_iter().flatten().reduce(f64::max);
            Some(Scored { of, class, weight, points: points(row, class), best })
        })
        .collect();
    let weighed: f64 = rows.iter().map(|r| r.weight).sum();
    let mean = |of: fn(&Scored) -> Option<f64>| {
        let sum: Option<f64> = rows.iter().map(|r| of(r).map(|p| p * r.weight)).sum();
        sum.filter(|_| weighed > 0.0).map(|s| s / weighed)
    };
    let (total, best) = (mean(|r| r.points), mean(|r| r.best));
    Score { says: says(&rows, total, best), rows, total, best }
}

const ALL: [Classed; 5] = [Classed::Steps, Classed::Fasteners, Classed::Tools, Classed::Place, Classed::Skill];

fn row(table: &ScoreTable, of: Classed) -> &ScoreRow {
    match of {
        Classed::Steps => &table.steps,
        Classed::Fasteners => &table.fasteners,
        Classed::Tools => &table.tools,
        Classed::Place => &table.place,
        Classed::Skill => &table.skill,
    }
}

/// `None` until the table says how many steps each class has.
fn class_of_steps(table: &ScoreTable, steps: usize) -> Option<char> {
    let up_to = |limit: Option<u32>| limit.map(|n| steps <= n as usize);
    match (up_to(table.steps_up_to.a)?, up_to(table.steps_up_to.b)?) {
        (true, _) => Some('A'),
        (false, true) => Some('B'),
        (false, false) => Some('C'),
    }
}

fn points(row: &ScoreRow, class: char) -> Option<f64> {
    match class {
        'A' => row.a,
        'B' => row.b,
        'C' => row.c,
        _ => None,
    }
}

fn says(rows: &[Scored], total: Option<f64>, best: Option<f64>) -> String {
    let round = |x: f64| crate::units::number((x * 10.0).round() / 10.0);
    if let (Some(total), Some(best)) = (total, best) {
        return format!("{} of {}", round(total), round(best));
    }
    let lacks: Vec<String> = rows
        .iter()
        .filter(|r| r.points.is_none())
        .map(|r| match r.class {
            '?' => "how many steps are class A and class B".to_owned(),
            class => format!("the points of {} in class {class}", r.of.label()),
        })
        .collect();
    match lacks.as_slice() {
        [] => "Give a row its weight to see a score.".to_owned(),
        lacks => format!("Still to fill in: {}.", lacks.join("; ")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{StepLimits, drafted};
    use crate::rebuild::fold;
    use rstest::rstest;

    const GLUED: &str =
        "[0:00] Heat the front glass with the heating pad to 70 degrees. Pry off the front glass, it is glued.";

    fn row(weight: f64, a: f64, b: f64, c: f64) -> ScoreRow {
        ScoreRow { weight: Some(weight), a: Some(a), b: Some(b), c: Some(c) }
    }

    /// Fasteners B, tools C, place B, skill B: computed by hand, (2·5 + 1·0 + 1·4) / 4.
    fn by_hand() -> ScoreTable {
        ScoreTable {
            fasteners: row(2.0, 10.0, 5.0, 0.0),
            tools: row(1.0, 10.0, 6.0, 0.0),
            place: row(1.0, 8.0, 4.0, 0.0),
            ..ScoreTable::default()
        }
    }

    fn scored(table: ScoreTable) -> Option<Score> {
        let mut manual = drafted::manual(GLUED);
        manual.head.scores = Some(table);
        fold(&manual).work.score
    }

    #[test]
    fn no_table_no_score() {
        assert_eq!(fold(&drafted::manual(GLUED)).work.score, None);
    }

    #[test]
    fn the_points_are_weighed() {
        let score = scored(by_hand()).unwrap();
        assert_eq!((score.total, score.best, score.says.as_str()), (Some(3.5), Some(9.5), "3.5 of 9.5"));
    }

    #[rstest]
    #[case::nothing_weighs(ScoreTable::default(), "Give a row its weight to see a score.")]
    #[case::a_hole(
        ScoreTable { tools: ScoreRow { c: None, ..row(1.0, 10.0, 6.0, 0.0) }, ..by_hand() },
        "Still to fill in: the points of tools in class C."
    )]
    #[case::no_limits(
        ScoreTable { steps: row(1.0, 10.0, 5.0, 0.0), ..by_hand() },
        "Still to fill in: how many steps are class A and class B."
    )]
    fn what_is_missing_is_said(#[case] table: ScoreTable, #[case] says: &str) {
        assert_eq!(scored(table).unwrap().says, says);
    }

    #[rstest]
    #[case(5, 'A')]
    #[case(6, 'B')]
    #[case(12, 'B')]
    #[case(13, 'C')]
    fn steps_are_classed_by_the_limits(#[case] steps: usize, #[case] class: char) {
        let limits = StepLimits { a: Some(5), b: Some(12) };
        let table = ScoreTable { steps: row(1.0, 10.0, 5.0, 0.0), steps_up_to: limits, ..ScoreTable::default() };
        assert_eq!(score(&table, &[], steps).rows[0].class, class);
    }
}
