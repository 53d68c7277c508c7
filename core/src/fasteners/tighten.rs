//! In which order the screws of a joint are tightened, and in which they are loosened.
//!
//! Screws on a ring go crosswise, so that the joint closes without tilting; screws on a plate go from the centre outwards,
//! so that a bulge or trapped paste is pushed to the rim. Loosening is its own rule: from the outside in, crosswise, each a
//! half turn at a time. Source: cross patterns of flanged joints (ASME PCC-1, from memory); plates, odd rings and
//! loosening are common practice, no source.
//!
//! Where two screws would do as well as the next one, the choice is made the same way every time and told as a tie.

use crate::units::{Length, in_millimetres, millimetres};
use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

/// Where the axis of a hole stands on the outline of its layer.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hole {
    pub x: Length,
    pub y: Length,
}

impl Hole {
    /// A hole by its place in millimetres.
    pub fn at_mm(x: f64, y: f64) -> Self {
        Self { x: millimetres(x), y: millimetres(y) }
    }
}

/// How the screws stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Pattern {
    /// One or two screws: there is no pattern.
    Few,
    /// All near the rim: crosswise.
    Ring,
    /// Some inside: from the centre outwards.
    Plate,
}

/// An order of holes, by their numbers from 0.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Order {
    pub pattern: Pattern,
    pub holes: Vec<usize>,
    /// Places in `holes` at which another hole would have done as well.
    pub ties: Vec<usize>,
}

/// Why no order can be given.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum OrderError {
    #[error("Holes {} and {} stand at the same place. Move one of them or take it away.", .0 + 1, .1 + 1)]
    SamePlace(usize, usize),
    #[error("{0} holes in one joint cannot be meant; at most {MAX_HOLES} are ordered.")]
    TooMany(usize),
    #[error("Hole {} has no place. Write its millimetres.", .0 + 1)]
    NoPlace(usize),
}

/// More than any joint that is driven by hand.
pub const MAX_HOLES: usize = 1_000;
/// From here on the innermost screw counts as standing near the rim, as a share of the outermost.
const RIM: f64 = 0.70;
/// What differs by less, as a share of the outermost or in radians, is alike: holes are placed by hand.
const SAME: f64 = 1e-3;
/// How much wider than its first a band may grow, as a share of the outermost.
const BAND: f64 = 0.15;

/// The order in which the screws are tightened.
///
/// # Errors
/// A sentence where two holes fall together, one has no place, or there are absurdly many.
pub fn tightening(holes: &[Hole]) -> Result<Order, OrderError> {
    both(holes).map(|(tighten, _)| tighten)
}

/// The order in which the screws are loosened, half a turn each: from the outside in, crosswise.
///
/// # Errors
/// As [`tightening`].
pub fn loosening(holes: &[Hole]) -> Result<Order, OrderError> {
    both(holes).map(|(_, loosen)| loosen)
}

/// Both orders, tightening first.
///
/// # Errors
/// As [`tightening`].
pub fn both(holes: &[Hole]) -> Result<(Order, Order), OrderError> {
    let points = check(holes)?;
    if points.len() <= 2 {
        let order = Order { pattern: Pattern::Few, holes: (0..points.len()).collect(), ties: Vec::new() };
        return Ok((order.clone(), order));
    }
    let arms = Arms::of(&points);
    let smallest = arms.reach.iter().copied().fold(f64::INFINITY, f64::min);
    if smallest >= RIM * arms.longest {
        let order = arms.walk_all(Pattern::Ring, [(0..points.len()).collect()]);
        return Ok((order.clone(), order));
    }
    let bands = arms.bands();
    let inwards: Vec<Vec<usize>> = bands.iter().rev().cloned().collect();
    Ok((arms.walk_all(Pattern::Plate, bands), arms.walk_all(Pattern::Plate, inwards)))
}

/// Places in millimetres.
fn check(holes: &[Hole]) -> Result<Vec<(f64, f64)>, OrderError> {
    if holes.len() > MAX_HOLES {
        return Err(OrderError::TooMany(holes.len()));
    }
    let points: Vec<(f64, f64)> = holes.iter().map(|h| (in_millimetres(h.x), in_millimetres(h.y))).collect();
    if let Some(at) = points.iter().position(|(x, y)| !x.is_finite() || !y.is_finite()) {
        return Err(OrderError::NoPlace(at));
    }
    let mut sorted: Vec<usize> = (0..points.len()).collect();
    sorted.sort_by(|a, b| points[*a].partial_cmp(&points[*b]).unwrap_or(std::cmp::Ordering::Equal).then(a.cmp(b)));
    match sorted.windows(2).find(|w| points[w[0]] == points[w[1]]) {
        Some(same) => Err(OrderError::SamePlace(same[0].min(same[1]), same[0].max(same[1]))),
        None => Ok(points),
    }
}

/// The holes as arms from their common centre.
struct Arms {
    arm: Vec<(f64, f64)>,
    reach: Vec<f64>,
    longest: f64,
}

/// What makes one hole the better next one; smaller is better, compared part by part.
type Key = [f64; 3];

impl Arms {
    fn of(points: &[(f64, f64)]) -> Self {
        let n = points.len() as f64;
        let (cx, cy) = (points.iter().map(|p| p.0).sum::<f64>() / n, points.iter().map(|p| p.1).sum::<f64>() / n);
        let arm: Vec<(f64, f64)> = points.iter().map(|(x, y)| (x - cx, y - cy)).collect();
        let reach: Vec<f64> = arm.iter().map(|(x, y)| x.hypot(*y)).collect();
        let longest = reach.iter().copied().fold(0.0, f64::max);
        Self { arm, reach, longest }
    }

    /// Rings one around the other, the innermost first.
    fn bands(&self) -> Vec<Vec<usize>> {
        let mut sorted: Vec<usize> = (0..self.reach.len()).collect();
        sorted.sort_by(|a, b| self.reach[*a].total_cmp(&self.reach[*b]).then(a.cmp(b)));
        let mut bands: Vec<Vec<usize>> = Vec::new();
        for hole in sorted {
            match bands.last_mut() {
                Some(band) if self.reach[hole] - self.reach[band[0]] <= BAND * self.longest => band.push(hole),
                _ => bands.push(vec![hole]),
            }
        }
        bands
    }

    fn walk_all(&self, pattern: Pattern, bands: impl IntoIterator<Item = Vec<usize>>) -> Order {
        let mut out = Order { pattern, holes: Vec::new(), ties: Vec::new() };
        bands.into_iter().for_each(|band| self.walk(band, &mut out));
        out
    }

    /// One band: the next hole is the one that leaves the clamped ones best balanced about the centre, then farthest
    /// from them by its angle, then farthest from the last one.
    fn walk(&self, mut band: Vec<usize>, out: &mut Order) {
        band.sort();
        let widest = band.iter().map(|i| self.reach[*i]).fold(0.0, f64::max).max(f64::MIN_POSITIVE);
        let unit = |i: usize| (self.arm[i].0 / widest, self.arm[i].1 / widest);
        let mut last = band.remove(0);
        let mut sum = unit(last);
        // Angle to the nearest of those done, kept from one to the next.
        let mut spread = vec![f64::INFINITY; band.len()];
        out.holes.push(last);
        while !band.is_empty() {
            for (near, hole) in spread.iter_mut().zip(&band) {
                *near = near.min(self.angle(*hole, last));
            }
            let keys: Vec<Key> =
                band.iter().zip(&spread).map(|(i, near)| self.key(*i, unit(*i), sum, *near, last)).collect();
            let best = (0..band.len()).min_by(|a, b| compare(&keys[*a], &keys[*b]).then(band[*a].cmp(&band[*b])));
            let best = best.expect("the band is not empty");
            if keys.iter().filter(|k| compare(k, &keys[best]).is_eq()).count() > 1 {
                out.ties.push(out.holes.len());
            }
            last = band.remove(best);
            spread.remove(best);
            sum = (sum.0 + unit(last).0, sum.1 + unit(last).1);
            out.holes.push(last);
        }
    }

    fn key(&self, hole: usize, unit: (f64, f64), sum: (f64, f64), spread: f64, last: usize) -> Key {
        let balance = (sum.0 + unit.0).hypot(sum.1 + unit.1);
        let (dx, dy) = (self.arm[hole].0 - self.arm[last].0, self.arm[hole].1 - self.arm[last].1);
        [balance, -spread, -dx.hypot(dy) / self.longest].map(|v| (v / SAME).round() * SAME)
    }

    fn angle(&self, a: usize, b: usize) -> f64 {
        let ((ax, ay), (bx, by)) = (self.arm[a], self.arm[b]);
        let between = (ay.atan2(ax) - by.atan2(bx)).abs() % std::f64::consts::TAU;
        between.min(std::f64::consts::TAU - between)
    }
}

fn compare(a: &Key, b: &Key) -> std::cmp::Ordering {
    a.iter().zip(b).map(|(x, y)| x.total_cmp(y)).find(|o| o.is_ne()).unwrap_or(std::cmp::Ordering::Equal)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn circle(n: usize) -> Vec<Hole> {
        let at = |i: usize| i as f64 * std::f64::consts::TAU / n as f64;
        (0..n).map(|i| Hole::at_mm(50.0 * at(i).cos(), 50.0 * at(i).sin())).collect()
    }

    fn told(order: &Order) -> String {
        order.holes.iter().map(|i| (i + 1).to_string()).collect::<Vec<_>>().join("-")
    }

    /// Published cross patterns for 4 and 8 (ASME PCC-1, from memory); the others are the same rule worked out by hand.
    #[rstest]
    #[case(3, "1-2-3")]
    #[case(4, "1-3-2-4")]
    #[case(5, "1-3-5-2-4")]
    #[case(6, "1-4-2-5-3-6")]
    #[case(7, "1-4-6-2-5-3-7")]
    #[case(8, "1-5-3-7-2-6-4-8")]
    #[case(10, "1-6-3-8-2-7-4-9-5-10")]
    #[case(12, "1-7-4-10-3-9-2-8-12-6-11-5")]
    fn a_ring_closes_crosswise(#[case] n: usize, #[case] order: &str) {
        let found = tightening(&circle(n)).unwrap();
        assert_eq!((told(&found).as_str(), found.pattern), (order, Pattern::Ring));
    }

    #[rstest]
    #[case(&[(0., 0.), (80., 0.), (80., 80.), (0., 80.)], Pattern::Ring, "1-3-2-4")]
    #[case(&[(0., 0.), (60., 0.), (60., 40.), (0., 40.)], Pattern::Ring, "1-3-4-2")]
    #[case(&[(0., 0.), (50., 0.), (100., 0.), (100., 70.), (50., 70.), (0., 70.)], Pattern::Plate, "2-5-1-4-6-3")]
    #[case(&[(0., 0.), (30., 0.), (60., 0.), (90., 0.), (90., 60.), (60., 60.), (30., 60.), (0., 60.)], Pattern::Plate, "2-6-3-7-1-5-8-4")]
    #[case(&[(0., 0.), (100., 0.), (100., 60.), (0., 60.), (50., 30.)], Pattern::Plate, "5-1-3-4-2")]
    #[case(&[(0., 0.), (10., 0.)], Pattern::Few, "1-2")]
    #[case(&[], Pattern::Few, "")]
    fn a_plate_closes_from_its_centre(#[case] at: &[(f64, f64)], #[case] pattern: Pattern, #[case] order: &str) {
        let holes: Vec<Hole> = at.iter().map(|(x, y)| Hole::at_mm(*x, *y)).collect();
        let found = tightening(&holes).unwrap();
        assert_eq!((told(&found).as_str(), found.pattern), (order, pattern));
    }

    #[test]
    fn loosening_begins_outside() {
        let holes = [(0., 0.), (100., 0.), (100., 60.), (0., 60.), (50., 30.)].map(|(x, y)| Hole::at_mm(x, y));
        assert_eq!(told(&loosening(&holes).unwrap()), "1-3-4-2-5");
    }

    #[test]
    fn equally_good_ones_are_told() {
        assert_eq!(tightening(&circle(4)).unwrap().ties, [2], "the third could be the fourth");
    }

    #[rstest]
    #[case(vec![Hole::at_mm(1., 1.), Hole::at_mm(2., 1.), Hole::at_mm(1., 1.)], "Holes 1 and 3 stand at the same place. Move one of them or take it away.")]
    #[case(vec![Hole::at_mm(1., f64::NAN)], "Hole 1 has no place. Write its millimetres.")]
    #[case((0..10_000).map(|i| Hole::at_mm(i as f64, 0.)).collect(), "10000 holes in one joint cannot be meant; at most 1000 are ordered.")]
    fn what_cannot_be_ordered_says_why(#[case] holes: Vec<Hole>, #[case] says: &str) {
        assert_eq!(tightening(&holes).unwrap_err().to_string(), says);
        assert_eq!(loosening(&holes).unwrap_err().to_string(), says);
    }

    fn scattered() -> impl Strategy<Value = Vec<Hole>> {
        proptest::collection::btree_set((-200i32..200, -200i32..200), 0..40)
            .prop_map(|set| set.into_iter().map(|(x, y)| Hole::at_mm(f64::from(x), f64::from(y))).collect())
    }

    proptest! {
        #[test]
        fn every_hole_comes_once(holes in scattered()) {
            for order in [tightening(&holes).unwrap(), loosening(&holes).unwrap()] {
                let mut all = order.holes.clone();
                all.sort();
                prop_assert_eq!(all, (0..holes.len()).collect::<Vec<_>>());
            }
        }

        #[test]
        fn a_mirror_changes_nothing(holes in scattered()) {
            let mirrored: Vec<Hole> = holes.iter().map(|h| Hole { x: -h.x, y: h.y }).collect();
            prop_assert_eq!(tightening(&holes).unwrap(), tightening(&mirrored).unwrap());
        }

        #[test]
        fn on_a_ring_of_six_or_more_none_follows_its_neighbour(n in 6usize..60) {
            let order = tightening(&circle(n)).unwrap().holes;
            for pair in order.windows(2) {
                let apart = pair[0].abs_diff(pair[1]);
                prop_assert!(apart.min(n - apart) > 1, "{:?}", order);
            }
        }
    }
}
