//! Safety signs: own drawings in the shapes of the standard, always beside their words.
//!
//! Shapes after ISO 3864-1 (triangle: warning; filled disc: must be done), numbers after ISO 7010, both from memory and to be
//! looked up before a sign is ordered. Black on white, the shape alone tells a warning from a duty.

use crate::labels;
use crate::labels::Label;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a sign warns of, or tells to do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sign {
    General,
    Explosive,
    Laser,
    Beam,
    Magnet,
    Germs,
    Electricity,
    Toxic,
    Hot,
    Flammable,
    Sharp,
    Fingers,
    Pressure,
    Eyes,
    Static,
}

labels!(Sign {
    General: "general warning" @ "W001",
    Explosive: "explosive" @ "W002",
    Laser: "laser beam" @ "W004",
    Beam: "bright light" @ "W027",
    Magnet: "magnetic field" @ "W006",
    Germs: "germs" @ "W009",
    Electricity: "electricity" @ "W012",
    Toxic: "poisonous" @ "W016",
    Hot: "hot surface" @ "W017",
    Flammable: "flammable" @ "W021",
    Sharp: "sharp edge" @ "W022",
    Fingers: "crushing of hands" @ "W024",
    Pressure: "pressure" @ "W029",
    Eyes: "wear eye protection" @ "M004",
    Static: "sensitive to static" @ "IEC 60417-5134",
});

/// How a sign is drawn, in a box of 24 × 24.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct DrawnSign {
    /// "electricity".
    pub name: String,
    /// "ISO 7010-W012".
    pub number: String,
    /// A duty is a filled disc, a warning a triangle.
    pub duty: bool,
    /// The rim as path data.
    pub frame: String,
    /// What stands inside as path data: drawn as lines, `fills` as areas.
    pub lines: String,
    pub fills: String,
}

const TRIANGLE: &str = "M12 2.2L23 21.4H1z";
const DISC: &str = "M12 1a11 11 0 1 0 .01 0z";

/// Draws a sign.
pub fn drawn(sign: Sign) -> DrawnSign {
    let duty = sign == Sign::Eyes;
    let number = sign.key().unwrap_or_default();
    let (lines, fills) = inside(sign);
    DrawnSign {
        name: sign.label().to_owned(),
        number: if number.starts_with("IEC") { number.to_owned() } else { format!("ISO 7010-{number}") },
        duty,
        frame: if duty { DISC } else { TRIANGLE }.to_owned(),
        lines: lines.to_owned(),
        fills: fills.to_owned(),
    }
}

/// Lines and areas inside the frame.
fn inside(sign: Sign) -> (&'static str, &'static str) {
    match sign {
        Sign::General => ("", "M11 9h2l-.4 6h-1.2zM11 16.6h2v2h-2z"),
        Sign::Explosive => {
            ("M12 10.2V8.4M8.6 11.6L7.5 10.4M15.4 11.6l1.1-1.2M7.6 15H6M16.4 15H18", "M12 11.6a3.4 3.4 0 1 0 .01 0z")
        }
        Sign::Laser => {
            ("M12 15h6M12 15l-3-3.2M12 15l-3 3.2M12 15l.6-4.4M12 15l.6 4.2M12 15H8", "M12 13.8a1.2 1.2 0 1 0 .01 0z")
        }
        Sign::Beam => (
            "M12 9v2M12 17.4v2M7 14.2h1.6M15.4 14.2H17M8.6 11l1.2 1.2M15.4 11l-1.2 1.2M8.6 17.6l1.2-1.2M15.4 17.6l-1.2-1.2",
            "M12 12.6a1.7 1.7 0 1 0 .01 0z",
        ),
        Sign::Magnet => ("M9 10v4.4a3 3 0 0 0 6 0V10M8 11.6h2M14 11.6h2", ""),
        Sign::Germs => (
            "M12 12.6a2 2 0 1 0 .01 0M12 8.8a2.4 2.4 0 1 0 .01 0M9 15a2.4 2.4 0 1 0 .01 0M15 15a2.4 2.4 0 1 0 .01 0",
            "",
        ),
        Sign::Electricity => ("", "M13.2 7.6L9.4 14.4h2.2l-1 5 4.2-6.6h-2.4l1.6-5.2z"),
        Sign::Toxic => (
            "M8.4 17l7.2 2.6M15.6 17l-7.2 2.6",
            "M12 8.4a3.6 3.6 0 0 0-2.2 6.4V16.4h4.4v-1.6A3.6 3.6 0 0 0 12 8.4zM10.6 11a.9.9 0 1 1-.01 0zM13.4 11a.9.9 0 1 1-.01 0z",
        ),
        Sign::Hot => (
            "M8.6 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M12 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M15.4 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M7 18.8h10",
            "",
        ),
        Sign::Flammable => (
            "M8 19.2h8",
            "M12 7.8c.6 2.6 3.4 3.6 3.4 6.6a3.4 3.4 0 0 1-6.8 0c0-1.6.8-2.4 1.4-3.4.4 1 .8 1.2 1.2 1.2.2-1.4 0-3 .8-4.4z",
        ),
        Sign::Sharp => ("M7.4 18.8h9.2M12 12v4.6M10 14.6c.6.8 1.2 1.4 2 2 .8-.6 1.4-1.2 2-2", "M12 8l4 4.4H8z"),
        Sign::Fingers => ("M7 10.4h10M7 19h10M9.6 17v-3.4M11.4 17v-4M13.2 17v-3.6M15 17v-2.6", "M8.4 16.4h7v1.4h-7z"),
        Sign::Pressure => ("M12 10.8a4 4 0 1 0 .01 0M12 15l2-2.2M12 9v1.6", ""),
        Sign::Eyes => (
            "M3.6 9.6h16.8M11 12.2c.6-.6 1.4-.6 2 0",
            "M4.4 10.4h6.2v2.2a3 3 0 0 1-6.2 0zM13.4 10.4h6.2v2.2a3 3 0 0 1-6.2 0z",
        ),
        Sign::Static => ("M7.6 18.6c2-4 5.6-7 7-9.6M9 18.8c2.4-1.4 5-3 6.6-5.4M7 15l10 4.4", ""),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    #[test]
    fn every_sign_has_its_own_picture_and_number() {
        let all: Vec<DrawnSign> = Sign::ALL.iter().map(|s| drawn(*s)).collect();
        let distinct = |of: fn(&DrawnSign) -> String| all.iter().map(of).collect::<BTreeSet<_>>().len();
        assert_eq!(distinct(|s| s.number.clone()), all.len());
        assert_eq!(distinct(|s| format!("{}{}", s.lines, s.fills)), all.len());
        assert!(all.iter().all(|s| s.frame.starts_with('M') && s.frame.ends_with('z')));
    }

    #[test]
    fn the_shape_tells_a_duty_from_a_warning() {
        let duties: Vec<String> = Sign::ALL.iter().map(|s| drawn(*s)).filter(|s| s.duty).map(|s| s.number).collect();
        assert_eq!(duties, ["ISO 7010-M004"]);
        assert!(Sign::ALL.iter().all(|s| drawn(*s).duty == (drawn(*s).frame == DISC)));
    }
}
