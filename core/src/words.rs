//! Every table of labels, for those who show them without knowing the types: the browser takes its words from here.

use crate::cautions::catalogue::WarnPlace;
use crate::cautions::coverage::Covered;
use crate::cautions::signs::Sign;
use crate::fasteners::mixup::Harm;
use crate::finding::Stop;
use crate::heat::media::Medium;
use crate::heat::plan::WarmedBy;
use crate::heat::presets::Preset;
use crate::labels::{Table, table};
use crate::manual::{
    ConnectorKind, FaceEdge, FastenerFate, Hazard, HeadForm, HeatFrom, HowCounted, Level, Locking, MarkKind, NoteKind,
    PartFate, Posture, Reason, SeamKind, Stored, TorqueFrom,
};
use crate::order::Risk;
use crate::publish::LineKind;
use crate::reading::{
    Act, CautionSubject, ConnectorOp, Consumable, DiscrepancyKind, Drive, FastenerOp, HeatSource, Mark, PartOp,
    StatementKind, Topic,
};
use crate::rebuild::{Classed, Clock, Counted, Grade, OrderRule, ProofKind};
use crate::screw::{Class, Material};
use crate::units::TorqueUnit;

/// All tables, by the names of the API's schema.
pub fn tables() -> Vec<Table> {
    vec![
        table::<Act>(),
        table::<Classed>(),
        table::<Counted>(),
        table::<Clock>(),
        table::<Grade>(),
        table::<OrderRule>(),
        table::<ProofKind>(),
        table::<CautionSubject>(),
        table::<Class>(),
        table::<ConnectorKind>(),
        table::<ConnectorOp>(),
        table::<Consumable>(),
        table::<DiscrepancyKind>(),
        table::<Drive>(),
        table::<FastenerFate>(),
        table::<FastenerOp>(),
        table::<Harm>(),
        table::<HeadForm>(),
        table::<HeatSource>(),
        table::<HowCounted>(),
        table::<LineKind>(),
        table::<Locking>(),
        table::<Mark>(),
        table::<Material>(),
        table::<Medium>(),
        table::<NoteKind>(),
        table::<PartFate>(),
        table::<PartOp>(),
        table::<Posture>(),
        table::<Preset>(),
        table::<Reason>(),
        table::<Risk>(),
        table::<SeamKind>(),
        table::<MarkKind>(),
        table::<FaceEdge>(),
        table::<HeatFrom>(),
        table::<Level>(),
        table::<Hazard>(),
        table::<Covered>(),
        table::<WarnPlace>(),
        table::<Sign>(),
        table::<StatementKind>(),
        table::<Stop>(),
        table::<Stored>(),
        table::<Topic>(),
        table::<TorqueFrom>(),
        table::<TorqueUnit>(),
        table::<WarmedBy>(),
    ]
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    /// A label that two values share cannot be told apart in a list, nor read back from a table.
    #[test]
    fn no_two_values_of_an_enum_share_a_label_or_a_key() {
        for table in tables() {
            let labels: BTreeSet<&str> = table.rows.iter().map(|r| r.label).collect();
            assert_eq!(labels.len(), table.rows.len(), "{}", table.of);
            let keys: Vec<&str> = table.rows.iter().filter_map(|r| r.key).collect();
            assert_eq!(keys.iter().collect::<BTreeSet<_>>().len(), keys.len(), "{}", table.of);
        }
    }

    /// Drives are told by shape and code; what shops call them are words that the reader understands, and no labels.
    #[test]
    fn drives_are_labelled_by_shape_and_code() {
        let drives = table::<Drive>();
        for row in &drives.rows {
            let trade = ["phillips", "pozidriv", "torx", "pentalobe", "tri-point"];
            assert!(trade.iter().all(|t| !row.label.to_lowercase().contains(t)), "{} is a trade name", row.label);
        }
    }
}
