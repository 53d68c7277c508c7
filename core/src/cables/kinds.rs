//! Kinds of connectors: how each opens, how it is made, what tells that it sits, and what opening it wrongly breaks.
//!
//! Common practice, no source. How often a kind may be made is of the order that makers of such connectors state, from memory.

use crate::manual::{Connector, ConnectorKind};

/// What goes for all connectors of a kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Handling {
    pub opens: &'static str,
    pub makes: &'static str,
    /// What tells that it sits.
    pub sits: &'static str,
    /// What opening it the wrong way breaks.
    pub wrong: &'static str,
    /// How often it may be made; `None` where wear is no matter.
    pub times: Option<u32>,
}

/// One row a kind, in the order of [`Handling`]'s fields.
type Row = (ConnectorKind, [&'static str; 4], Option<u32>);

const HANDLING: [Row; 13] = [
    (
        ConnectorKind::PressFit,
        [
            "straight up with a flat tool under its long side",
            "lay it exactly over its socket, then press it down flat at both ends",
            "it snaps and lies flat",
            "Levered at the short side or pulled by the flex, it tears off its board.",
        ],
        Some(30),
    ),
    (
        ConnectorKind::Latch,
        [
            "open the latch first, then pull the flat cable out along its line",
            "slide the flat cable in square up to its line, then close the latch",
            "the line stands level with the edge, and the latch lies flat",
            "Pried under its edge or pulled while it is shut, the latch breaks off.",
        ],
        Some(20),
    ),
    (
        ConnectorKind::LatchFlips,
        [
            "flip the latch up by 90°, then slide the flat cable out, often at 45°",
            "slide the flat cable in square up to its line, then flip the latch down",
            "the line stands level with the edge, and the latch lies flat",
            "Pried under its hinge, the latch breaks off.",
        ],
        Some(20),
    ),
    (
        ConnectorKind::LatchSlides,
        [
            "slide the latch out evenly at both ends by about 1 mm, then pull the flat cable out",
            "slide the flat cable in square up to its line, then push the latch in at both ends",
            "the latch is flush at both ends",
            "Slid at one end alone or lifted, the latch breaks.",
        ],
        Some(20),
    ),
    (
        ConnectorKind::PullTab,
        [
            "pull its tab straight along the board",
            "slide it in straight until it stops",
            "no gap is left",
            "Pulled up instead of along, it bends its contacts.",
        ],
        Some(30),
    ),
    (
        ConnectorKind::Coaxial,
        [
            "straight up with a thin tool from below",
            "hold it centred over its socket, then press straight down",
            "it snaps, and it turns without coming off",
            "Pulled sideways or by its cable, the plug and its socket are bent.",
        ],
        Some(30),
    ),
    (
        ConnectorKind::Plug,
        [
            "pull the plug itself, rocking it a little, never by its wires",
            "push it in straight, its nose where the slot is",
            "it clicks or stops, and a light tug does not move it",
            "Pulled by its wires, they tear out of the plug, or the socket off its board.",
        ],
        Some(50),
    ),
    (
        ConnectorKind::Friction,
        [
            "pull the flat cable straight out along its line",
            "push the flat cable in square up to its line",
            "the line stands level with the edge",
            "Bent or pulled at an angle, the flat cable creases and breaks.",
        ],
        Some(20),
    ),
    (
        ConnectorKind::Spring,
        [
            "nothing is undone: the contacts part when the part is lifted",
            "clean the contacts, and see that none is bent before the part goes on",
            "all springs stand at one height",
            "Swept over sideways, the springs bend.",
        ],
        None,
    ),
    (
        ConnectorKind::Blade,
        [
            "release the catch, then slide the battery straight out",
            "slide the battery in straight until it stops",
            "the catch snaps",
            "Tilted on its way, it bends its blades.",
        ],
        None,
    ),
    (
        ConnectorKind::Spade,
        [
            "pull the tag off straight with flat pliers, never by its wire",
            "push the tag on straight until it stops",
            "a light tug does not move it",
            "Pulled by its wire, the tag tears off it.",
        ],
        None,
    ),
    (
        ConnectorKind::ScrewTerminal,
        [
            "loosen the screw, then pull the wire out",
            "push the wire in with no strand beside it, then tighten the screw",
            "a tug at the wire does not move it",
            "A strand left outside shorts to the next terminal.",
        ],
        None,
    ),
    (
        ConnectorKind::Soldered,
        [
            "melt the solder and lift the wire off without force",
            "solder the wire to its own point, and let it cool without moving it",
            "the joint is smooth and bright, and nothing bridges",
            "Pulled before the solder melts, the pad comes off the board.",
        ],
        None,
    ),
];

/// How connectors of a kind are handled.
pub fn handling(kind: ConnectorKind) -> Handling {
    let row = HANDLING.iter().find(|(k, ..)| *k == kind);
    let (_, [opens, makes, sits, wrong], times) = *row.expect("a test holds that every kind has its row");
    Handling { opens, makes, sits, wrong, times }
}

/// Kinds that are often opened in the wrong way, and break of it.
pub fn is_delicate(kind: ConnectorKind) -> bool {
    use ConnectorKind as Kind;
    matches!(kind, Kind::PressFit | Kind::Latch | Kind::LatchFlips | Kind::LatchSlides | Kind::Coaxial | Kind::Friction)
}

/// A connector of a kind seen from the side, in a box of 48 × 28, with the way it is undone: path data that is drawn as a
/// line. The long line below is the board.
pub fn drawing(kind: ConnectorKind) -> &'static str {
    match kind {
        ConnectorKind::PressFit => "M2 24H46M14 24V18H34V24M12 16V10H36V16ZM24 8V2M21 5L24 2L27 5",
        ConnectorKind::Latch => "M2 24H46M14 24V16H32V24M2 20H18M32 16L39 11",
        ConnectorKind::LatchFlips => "M2 24H46M14 24V16H32V24M2 20H18M32 16V5M44 14A12 12 0 0 0 35 5M35 9V5H39",
        ConnectorKind::LatchSlides => "M2 24H46M14 24V16H30V24M2 20H18M33 16H38V24H33ZM40 20H46M43 17L46 20L43 23",
        ConnectorKind::PullTab => "M2 24H46M20 24V16H36V24M20 20H13A4 4 0 1 1 13 19.9M10 11H2M5 8L2 11L5 14",
        ConnectorKind::Coaxial => "M2 24H46M18 24V20H30V24M16 18H32V12H16ZM32 15H46M24 10V2M21 5L24 2L27 5",
        ConnectorKind::Plug => "M2 24H46M12 24V14H26V24M28 14H38V22H28ZM38 16H46M38 20H46M30 9H42M39 6L42 9L39 12",
        ConnectorKind::Friction => "M2 24H46M20 24V17H36V24M2 20H24M14 12H4M7 9L4 12L7 15",
        ConnectorKind::Spring => {
            "M2 24H46M14 24C9 19 19 15 14 10M24 24C19 19 29 15 24 10M34 24C29 19 39 15 34 10M8 8H40"
        }
        ConnectorKind::Blade => "M2 24H46M12 24V8M17 24V8M22 24V8M26 6H42V22H26ZM30 2H42M39 -1L42 2L39 5",
        ConnectorKind::Spade => "M2 24H46M10 24V10H16V24M20 12H34V20H20ZM34 16H46M24 7H36M33 4L36 7L33 10",
        ConnectorKind::ScrewTerminal => {
            "M2 24H46M14 24V8H34V24M19 14A5 5 0 1 0 29 14A5 5 0 1 0 19 14M20 17L28 11M34 20H46"
        }
        ConnectorKind::Soldered => "M2 24H46M14 24C18 13 30 13 34 24M24 15V3",
    }
}

/// How this one opens: as its author says, else as its kind does.
pub fn opens(connector: &Connector) -> Option<&str> {
    connector.opens.as_deref().or_else(|| connector.kind.map(|k| handling(k).opens))
}

/// How this one is made.
pub fn makes(connector: &Connector) -> Option<&str> {
    connector.makes.as_deref().or_else(|| connector.kind.map(|k| handling(k).makes))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ids::{ConnectorId, StepId};
    use crate::labels::Label;
    use uuid::Uuid;

    #[test]
    fn every_kind_says_how_and_what_breaks() {
        for kind in ConnectorKind::ALL {
            let told = handling(*kind);
            assert!(told.wrong.ends_with('.') && !told.opens.ends_with('.'), "{kind:?}");
            assert!(told.opens.len() > 20 && told.makes.len() > 20 && !told.sits.is_empty(), "{kind:?}");
        }
    }

    /// Readers tell kinds by their drawings.
    #[test]
    fn every_kind_is_drawn_in_its_own_way() {
        let all: std::collections::BTreeSet<&str> = ConnectorKind::ALL.iter().map(|k| drawing(*k)).collect();
        assert_eq!(all.len(), ConnectorKind::ALL.len());
        assert!(all.iter().all(|d| d.starts_with("M2 24H46")), "each stands on a board");
    }

    #[test]
    fn what_an_author_says_stands_over_the_kind() {
        let id = |n| Uuid::from_u128(n);
        let mut connector = Connector::new(ConnectorId(id(1)), StepId(id(2)), Vec::new());
        assert_eq!(opens(&connector), None);
        connector.kind = Some(ConnectorKind::Coaxial);
        assert_eq!(opens(&connector), Some("straight up with a thin tool from below"));
        connector.opens = Some("with the forked tool".to_owned());
        assert_eq!(opens(&connector), Some("with the forked tool"));
        assert!(makes(&connector).is_some_and(|m| m.contains("press straight down")));
    }
}
