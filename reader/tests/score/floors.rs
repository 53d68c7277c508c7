const FLOORS_TUNED: Floors = [("fasteners", 686), ("connectors", 841), ("parts", 881), ("heat", 995), ("cautions", 837), ("measures", 995), ("needs", 995), ("discrepancies", 795), ("tools", 995), ("consumables", 995), ("idle_segments", 764), ("rebuild_from_s", 995)];
const FLOORS_UNSEEN: Floors = [("fasteners", 514), ("connectors", 918), ("parts", 871), ("heat", 281), ("cautions", 778), ("measures", 971), ("needs", 722), ("discrepancies", 540), ("tools", 977), ("consumables", 995), ("idle_segments", 942), ("rebuild_from_s", 995)];
/// The aim is 0.05; the reader is not there yet.
const STRIPPED_COST: f64 = 0.095;
