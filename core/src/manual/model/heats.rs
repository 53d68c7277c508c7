//! Heat that softens what holds a part: source, target, temperature, time.

use crate::ids::*;
use crate::labels;
use crate::labels::Label;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{Refusal, range};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual, Part, Step};
use crate::reading::HeatSource;
use crate::units::{self, Span, ThermodynamicTemperature, Time};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One application of heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heat {
    pub id: HeatId,
    pub step: StepId,
    pub source: Option<HeatSource>,
    pub target: Option<PartId>,
    /// `[low, high]` in degrees Celsius.
    #[serde(rename = "temp_c", with = "units::serde_celsius::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub temperature: Option<Span<ThermodynamicTemperature>>,
    /// `[low, high]` in seconds.
    #[serde(rename = "dwell_s", with = "units::serde_seconds::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub dwell: Option<Span<Time>>,
    /// Who its figures are from.
    #[serde(default)]
    pub from: Option<HeatFrom>,
    pub evidence: Vec<Evidence>,
}

/// Where the figures of a heat setting are from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatFrom {
    Narrator,
    /// Worked out at the Seams stop.
    Computed,
    Maker,
    Author,
}

labels!(HeatFrom {
    Narrator: "the narrator" / "as told",
    Computed: "computed" / "computed, an estimate",
    Maker: "the maker" / "as its maker says",
    Author: "the author" / "as its author says",
});

/// One field of a heat setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatField {
    Source(Option<HeatSource>),
    Target(Option<PartId>),
    /// `[low, high]` in degrees Celsius.
    TempC(Option<[f64; 2]>),
    /// `[low, high]` in seconds.
    DwellS(Option<[f64; 2]>),
    From(Option<HeatFrom>),
}

/// Changes of heat settings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatEdit {
    Add { id: HeatId, step: StepId },
    Set { id: HeatId, field: HeatField },
    Remove { id: HeatId },
}

/// From a warm room to what no bench tool gives, in degrees Celsius.
const ENDS_C: [f64; 2] = [20.0, 500.0];
/// At most a day, in seconds.
const ENDS_S: [f64; 2] = [0.0, 86_400.0];

impl Heat {
    /// For people: "heating pad on the rear cover, 75–80 °C, 2 min to 3 min".
    pub fn words(&self, manual: &Manual) -> String {
        let on = self.target.map(|t| format!("the {}", manual.part_name(t)));
        let mut words = vec![match (self.source, on) {
            (Some(source), Some(on)) => format!("{} on {on}", source.name()),
            (None, Some(on)) => on,
            (source, None) => source.map_or("heat", |s| s.name()).to_owned(),
        }];
        words.extend(self.temperature.map(|t| {
            let [low, high] = [t.low, t.high].map(|t| units::number(units::in_celsius(t)));
            if low == high { format!("{low} °C") } else { format!("{low}–{high} °C") }
        }));
        words.extend(self.dwell.map(|d| {
            let [low, high] = [d.low, d.high].map(|t| units::duration_text(units::in_seconds(t)));
            if low == high { low } else { format!("{low} to {high}") }
        }));
        // What was told or typed goes without saying.
        let known = self.from.filter(|f| matches!(f, HeatFrom::Computed | HeatFrom::Maker));
        words.extend(known.map(|f| f.phrase().to_owned()));
        words.join(", ")
    }
}

impl Apply for HeatEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step } => {
                manual.must_be_new::<Heat>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                let evidence = vec![Evidence::author(author)];
                let heat = Heat {
                    id: *id,
                    step: *step,
                    source: None,
                    target: None,
                    temperature: None,
                    dwell: None,
                    from: None,
                    evidence,
                };
                manual.put_entity(heat, touched);
            }
            Self::Set { id, field } => {
                if let HeatField::Target(part) = field {
                    manual.may_be::<Part>(*part)?;
                }
                set_field(manual.change_entity::<Heat>(*id, touched)?, field)?;
            }
            Self::Remove { id } => drop(manual.take_entity::<Heat>(*id, touched)?),
        }
        Ok(())
    }
}

fn set_field(heat: &mut Heat, field: &HeatField) -> Result<(), Refusal> {
    match field {
        HeatField::Source(source) => heat.source = *source,
        HeatField::Target(part) => heat.target = *part,
        HeatField::From(from) => heat.from = *from,
        HeatField::TempC(ends) => {
            let ends = ends.map(|r| range("temp_c", r, ENDS_C, "°C")).transpose()?;
            heat.temperature = ends.map(|[low, high]| Span { low: units::celsius(low), high: units::celsius(high) });
        }
        HeatField::DwellS(ends) => {
            let ends = ends.map(|r| range("dwell_s", r, ENDS_S, "s")).transpose()?;
            heat.dwell = ends.map(|[low, high]| Span { low: units::seconds(low), high: units::seconds(high) });
        }
    }
    Ok(())
}

impl Sound for Heat {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Part>("target", self.target)?;
        if let Some(t) = self.temperature {
            range("temp_c", [t.low, t.high].map(units::in_celsius), ENDS_C, "°C")?;
        }
        if let Some(d) = self.dwell {
            range("dwell_s", [d.low, d.high].map(units::in_seconds), ENDS_S, "s")?;
        }
        Ok(())
    }
}
