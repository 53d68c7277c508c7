const FLOORS_TUNED: Floors = [("fasteners", 650), ("connectors", 820), ("parts", 870), ("heat", 990), ("cautions", 820), ("measures", 990), ("needs", 950), ("discrepancies", 660), ("tools", 990), ("consumables", 990), ("idle_segments", 740), ("rebuild_from_s", 990)];
const FLOORS_UNSEEN: Floors = [("fasteners", 500), ("connectors", 900), ("parts", 850), ("heat", 280), ("cautions", 760), ("measures", 960), ("needs", 720), ("discrepancies", 540), ("tools", 970), ("consumables", 990), ("idle_segments", 930), ("rebuild_from_s", 990)];
/// The aim is 0.05; the reader is not there yet.
const STRIPPED_COST: f64 = 0.10;
