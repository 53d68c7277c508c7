//! Two scales of one temperature, or a label that does not add up.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::units::{Quantity, Span, celsius, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::UnitContradicted,
    stop: Stop::Listen,
    // A wrong figure in a published sentence does harm.
    blocks: true,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "A pad at 80 °F does nothing; one at 80 °C warms a cell.",
    source: "scales by their definition: °F = °C × 9/5 + 32; energy is voltage times charge",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let facts = &clash.at().facts;
    let told = facts.measures.iter().filter(|m| m.quantity == Quantity::Temperature).map(|m| m.value);
    let mut out: Vec<Fix> = told
        .map(|right| {
            let mut facts = facts.clone();
            facts.measures.retain(|m| m.quantity != Quantity::Temperature || m.value == right);
            for heat in &mut facts.heat {
                heat.temperature = Some(Span { low: celsius(right), high: celsius(right) });
            }
            clash.set_facts(format!("{} °C is right", number(right.round())), clash.at(), facts)
        })
        .collect();
    out.push(clash.settle("Both stand as said"));
    out
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::{blocks, check};

    #[test]
    fn a_figure_that_a_sentence_rests_on_blocks_until_somebody_has_chosen() {
        let told =
            "Heat the lid with a heat gun at 80 degrees Celsius, that is 100 degrees Fahrenheit. Take off the lid.";
        assert_eq!(blocks(&RULE, told), [true, false]);
    }

    #[test]
    fn eighty_celsius_is_no_hundred_fahrenheit() {
        check(
            &RULE,
            "
            Heat the lid with a heat gun at 80 degrees Celsius, that is 100 degrees Fahrenheit, for two minutes.
            ~~~ The two scales differ: 80 °C and 38 °C. [80 °C is right | 38 °C is right | Both stand as said]
            ",
        );
    }
}
