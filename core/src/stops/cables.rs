//! The Cables stop: the power along the steps, and every connector with its life from undone to made.

use crate::cables::kinds::{drawing, handling, makes, opens};
use crate::cables::lives::{Tether, tethers};
use crate::cables::power::{PowerLine, line};
use crate::cables::routes::{RouteLayer, layers};
use crate::cables::trials::{Trial, trials};
use crate::ids::*;
use crate::manual::{Connector, ConnectorKind, Manual, Phase, WireEnd};
use crate::order::Chain;
use crate::reading::Act;
use crate::rebuild::{RebuildStep, fold};
use crate::things::is_board;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One connector.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CableRow {
    pub connector: ConnectorId,
    pub step: StepId,
    /// Of the teardown, from 1.
    pub step_number: usize,
    pub serves: String,
    pub kind: Option<ConnectorKind>,
    /// Its kind from the side: path data in a box of 48 × 28.
    pub drawing: Option<String>,
    /// How it is opened and made: as its author says, else as its kind is.
    pub opens: Option<String>,
    pub makes: Option<String>,
    /// What tells that it sits.
    pub sits: Option<String>,
    /// What opening it wrongly breaks.
    pub wrong: Option<String>,
    /// How often it may be made, of that order.
    pub times: Option<u32>,
    pub on: Option<String>,
    /// "red to 1; black to 2".
    pub wires: String,
    pub power: bool,
    pub temporary: bool,
    /// What hangs on it for a while.
    pub tether: Option<Tether>,
    /// The step of the rebuild that makes it, from 1; `None`: none does.
    pub made_in: Option<usize>,
    /// What first lies over it again: its cable must run as it did before that.
    pub closes: Option<Closes>,
}

/// What lies over a cable on the way back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Closes {
    /// The step of the rebuild, from 1.
    pub step: usize,
    pub title: String,
}

/// What must be undone before a board can leave.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BoardRow {
    pub board: PartId,
    pub name: String,
    /// In the order of the steps.
    pub undo: Vec<ConnectorId>,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CablesView {
    pub power: PowerLine,
    pub cables: Vec<CableRow>,
    pub boards: Vec<BoardRow>,
    /// The layers with the ways of the cables.
    pub layers: Vec<RouteLayer>,
    /// Where the open device is live on purpose.
    pub trials: Vec<Trial>,
    /// Steps of teardown and rebuild: how long the lines of the lives are.
    pub teardown_steps: usize,
    pub rebuild_steps: usize,
    /// Connectors that are undone for good and that the rebuild never makes.
    pub not_made: usize,
}

/// Works out the stop, in the order of the teardown.
pub fn view(manual: &Manual) -> CablesView {
    let steps = manual.steps_in(Phase::Teardown);
    let rebuild = fold(manual).rebuild;
    let hanging = tethers(manual);
    let chain = Chain::of(manual);
    let row = |number: usize, c: &Connector| {
        let kind = c.kind.map(handling);
        CableRow {
            connector: c.id,
            step: c.step,
            step_number: number,
            serves: c.serves.map_or("cable", |p| manual.part_name(p)).to_owned(),
            kind: c.kind,
            drawing: c.kind.map(|k| drawing(k).to_owned()),
            opens: opens(c).map(str::to_owned),
            makes: makes(c).map(str::to_owned),
            sits: kind.map(|k| k.sits.to_owned()),
            wrong: kind.map(|k| k.wrong.to_owned()),
            times: kind.and_then(|k| k.times),
            on: c.on.map(|p| manual.part_name(p).to_owned()),
            wires: WireEnd::words(&c.wires),
            power: c.power,
            temporary: c.temporary,
            tether: hanging.iter().find(|t| t.connector == c.id).cloned(),
            made_in: rebuild.iter().position(|s| s.connectors.contains(&c.id)).map(|n| n + 1),
            closes: closes(&chain, &rebuild, c, number - 1),
        }
    };
    let rows = steps.iter().enumerate().flat_map(|(n, s)| manual.connectors_of(s.id).map(move |c| (n + 1, c)));
    let cables: Vec<CableRow> = rows.map(|(n, c)| row(n, c)).collect();
    CablesView {
        power: line(manual),
        boards: boards(manual, &chain, &cables),
        layers: layers(manual),
        trials: trials(manual),
        teardown_steps: steps.len(),
        rebuild_steps: rebuild.len(),
        not_made: cables.iter().filter(|c| !c.temporary && c.made_in.is_none()).count(),
        cables,
    }
}

/// The first step after a connector is made that brings back what had to leave before it could be reached.
fn closes(chain: &Chain, rebuild: &[RebuildStep], connector: &Connector, at: usize) -> Option<Closes> {
    let made = rebuild.iter().position(|s| s.connectors.contains(&connector.id))?;
    let before = chain.sure_graph().needed_for(&[at]);
    let covers = |s: &RebuildStep| s.lines.iter().any(|l| matches!(l.act, Some(Act::Install | Act::Close)));
    let over = |s: &RebuildStep| covers(s) && s.of_number.is_some_and(|n| n - 1 != at && before.contains(n - 1));
    let (n, step) = rebuild.iter().enumerate().skip(made + 1).find(|(_, s)| over(s))?;
    Some(Closes { step: n + 1, title: step.title.clone() })
}

/// Boards that leave, each with the connectors that stand on its way.
fn boards(manual: &Manual, chain: &Chain, cables: &[CableRow]) -> Vec<BoardRow> {
    let steps = manual.steps_in(Phase::Teardown);
    let leaving = steps.iter().enumerate().flat_map(|(n, s)| {
        let out = s.actions.iter().filter(|a| a.moves()).flat_map(|a| a.parts.iter().copied());
        out.filter(|p| is_board(manual.part_name(*p))).map(move |p| (n, p)).collect::<Vec<_>>()
    });
    let leaving: Vec<(usize, PartId)> = leaving.collect();
    if leaving.is_empty() {
        return Vec::new();
    }
    let graph = chain.sure_graph();
    let mut out: Vec<BoardRow> = Vec::new();
    for (at, board) in leaving {
        if out.iter().any(|b| b.board == board) {
            continue;
        }
        let before = graph.needed_for(&[at]);
        let elsewhere = |c: &CableRow| manual.connectors[&c.connector].on.is_some_and(|on| on != board);
        let here = |c: &CableRow| manual.connectors[&c.connector].on == Some(board);
        let undo = cables.iter().filter(|c| here(c) || before.contains(c.step_number - 1) && !elsewhere(c));
        let name = manual.part_name(board).to_owned();
        out.push(BoardRow { board, name, undo: undo.map(|c| c.connector).collect() });
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use crate::manual::{ConnectorEdit, ConnectorField, Edit, drafted};
    use proptest::prelude::*;
    use uuid::Uuid;

    fn told() -> Manual {
        drafted::manual(
            "[0:00] Unplug the power cord from the wall socket. Take off the cover. Disconnect the battery cable. Take out the \
             battery. Flip up the latch and disconnect the display flex. Take out the display. Disconnect the fan cable. Take \
             out the main board. Now we put it back together. Put the main board in. Connect the fan cable. Put the display \
             in. Connect the display flex. Put the battery in. Connect the battery cable. Put the cover back on.",
        )
    }

    #[test]
    fn every_connector_that_is_undone_is_made() {
        let view = view(&told());
        assert_eq!((view.cables.len(), view.not_made), (3, 0), "{:?}", view.cables);
        assert!(view.cables.iter().all(|c| c.made_in.is_some_and(|n| n <= view.rebuild_steps)));
    }

    #[test]
    fn a_cable_tells_what_lies_over_it_again() {
        let view = view(&told());
        let closes = |serves: &str| {
            let row = view.cables.iter().find(|c| c.serves == serves).expect("it is one of them");
            row.closes.as_ref().map(|c| (c.title.as_str(), c.step > row.made_in.expect("it is made")))
        };
        assert_eq!(closes("battery"), Some(("Fit the cover", true)), "{:?}", view.cables);
    }

    #[test]
    fn a_board_lists_what_stands_on_its_way() {
        let view = view(&told());
        let board = view.boards.iter().find(|b| b.name == "main board").expect("the board leaves");
        assert!(!board.undo.is_empty(), "{:?}", view.boards);
    }

    /// What random hands do to the connectors of a manual.
    #[derive(Debug, Clone)]
    enum Hand {
        Add(usize),
        Remove(usize),
        Field(usize, ConnectorField),
        Move(usize, usize),
    }

    fn hand() -> impl Strategy<Value = Hand> {
        let kind = proptest::sample::select(ConnectorKind::ALL);
        let field = prop_oneof![
            any::<bool>().prop_map(ConnectorField::Power),
            any::<bool>().prop_map(ConnectorField::Temporary),
            kind.prop_map(|k| ConnectorField::Kind(Some(k))),
        ];
        prop_oneof![
            (0_usize..9).prop_map(Hand::Add),
            (0_usize..9).prop_map(Hand::Remove),
            (0_usize..9, field).prop_map(|(n, f)| Hand::Field(n, f)),
            (0_usize..9, 0_usize..9).prop_map(|(a, b)| Hand::Move(a, b)),
        ]
    }

    fn edit(manual: &Manual, hand: &Hand, made: u128) -> Option<Edit> {
        let steps = manual.steps_in(Phase::Teardown);
        let step = |n: usize| steps[n % steps.len()].id;
        let plug = |n: usize| manual.connectors.keys().nth(n % manual.connectors.len().max(1)).copied();
        Some(Edit::Connector(match hand {
            Hand::Add(n) => ConnectorEdit::Add { id: ConnectorId(Uuid::from_u128(made)), step: step(*n) },
            Hand::Remove(n) => ConnectorEdit::Remove { id: plug(*n)? },
            Hand::Field(n, field) => ConnectorEdit::Set { id: plug(*n)?, field: field.clone() },
            Hand::Move(n, to) => ConnectorEdit::Set { id: plug(*n)?, field: ConnectorField::Step(step(*to)) },
        }))
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(200))]
        /// Whatever is done to them, what is undone for good is made again, once, and nothing else is.
        #[test]
        fn undone_is_made(hands in proptest::collection::vec(hand(), 0..14)) {
            let mut manual = told();
            for (n, hand) in hands.iter().enumerate() {
                if let Some(edit) = edit(&manual, hand, 1_000 + n as u128) {
                    manual = manual.apply(&edit, "Ann").expect("each can be").0;
                }
            }
            let mut made: Vec<ConnectorId> = fold(&manual).rebuild.into_iter().flat_map(|s| s.connectors).collect();
            made.sort();
            let mut undone: Vec<ConnectorId> = manual.connectors.values().filter(|c| !c.temporary).map(|c| c.id).collect();
            undone.sort();
            prop_assert_eq!(made, undone, "{:?}", hands);
        }
    }
}
