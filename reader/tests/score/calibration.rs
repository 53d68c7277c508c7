//! Whether the reader's confidence means something: of what it says with 0.9 or more, how much is right?
//!
//! The `.kinds` files beside the tuned narrations were drafted by the reader and then corrected by hand, so they judge it
//! kindly: take the figures as an upper bound.

use super::{narrations, recording};
use paso_reader::reading::read;

/// A statement's confidence and whether its kind is the one judged by hand.
fn judged() -> Vec<(f64, bool)> {
    let mut out = Vec::new();
    for file in narrations("tuned") {
        let kinds = std::fs::read_to_string(file.with_extension("kinds")).expect("kinds judged by hand");
        let judged: Vec<(&str, &str)> = kinds.lines().filter_map(|l| l.split_once('\t')).collect();
        for s in read(&recording(&file)).statements {
            let text = s.text.replace(['\n', '\t'], " ");
            // A sentence cut elsewhere since has no judgement.
            if let Some((kinds, _)) = judged.iter().find(|(_, t)| *t == text) {
                out.push((s.confidence, kinds.split('|').any(|k| k == s.kind.name())));
            }
        }
    }
    out
}

#[test]
fn confidence_means_something() {
    let judged = judged();
    println!("confidence   statements   right");
    for (low, high) in [(0.0, 0.7), (0.7, 0.8), (0.8, 0.9), (0.9, 0.93), (0.93, 1.01)] {
        let band: Vec<bool> = judged.iter().filter(|(c, _)| (low..high).contains(c)).map(|(_, r)| *r).collect();
        let right = band.iter().filter(|r| **r).count();
        println!("{low:.2}–{:.2}    {:>10}   {right:>5}", f64::min(high, 1.0), band.len());
    }
    let sure: Vec<bool> = judged.iter().filter(|(c, _)| *c >= 0.9).map(|(_, r)| *r).collect();
    let right = sure.iter().filter(|r| **r).count();
    let (share, precise) = (sure.len() as f64 / judged.len() as f64, right as f64 / sure.len() as f64);
    println!("{:.0} % are said with 0.9 or more; {:.1} % of those are right", share * 100.0, precise * 100.0);
    assert!(judged.len() > 150, "only {} statements are judged", judged.len());
    assert!(share >= 0.60 && precise >= 0.95, "{share:.2} of all, {precise:.3} right");
}
