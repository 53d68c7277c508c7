// Written by scripts/client from the tables of the core; edit those.
import type { components } from "./schema";

type Schemas = components["schemas"];

/** Words for people, by the value's name. */
export const labels = {
  Act: {
    "remove": "Remove",
    "unscrew": "Undo",
    "loosen": "Loosen",
    "disconnect": "Disconnect",
    "desolder": "Desolder",
    "pry": "Pry",
    "release": "Release",
    "peel": "Peel",
    "cut": "Cut",
    "open": "Open",
    "heat": "Heat",
    "power_off": "Switch off",
    "unplug": "Unplug",
    "discharge": "Discharge",
    "drain": "Drain",
    "install": "Fit",
    "connect": "Connect",
    "drive": "Drive",
    "tighten": "Tighten",
    "close": "Close",
    "apply": "Apply",
    "clean": "Clean",
    "route": "Route",
    "transfer": "Move over",
    "solder": "Solder",
    "power_on": "Switch on",
    "test": "Test",
    "measure": "Measure",
    "mark": "Mark",
    "hold": "Hold",
    "wait": "Wait",
    "place": "Place",
    "press": "Press",
    "adjust": "Align",
    "protect": "Protect",
    "turn": "Turn over",
  } satisfies Record<Schemas["Act"], string>,
  Classed: {
    "steps": "steps",
    "fasteners": "fasteners",
    "tools": "tools",
    "place": "place",
    "skill": "skill",
  } satisfies Record<Schemas["Classed"], string>,
  Counted: {
    "screws": "screws",
    "plugs": "plugs",
    "parts": "parts",
    "seals": "seals",
  } satisfies Record<Schemas["Counted"], string>,
  Clock: {
    "said": "an author's word",
    "shown": "the recording",
    "motions": "what is done",
  } satisfies Record<Schemas["Clock"], string>,
  Grade: {
    "easy": "easy",
    "moderate": "moderate",
    "hard": "hard",
    "expert": "for experts",
  } satisfies Record<Schemas["Grade"], string>,
  OrderRule: {
    "power-last": "power last",
    "pack-last": "pack behind all plugs",
    "switched-on-last": "switched on last",
    "told-elsewhere": "told here",
  } satisfies Record<Schemas["OrderRule"], string>,
  ProofKind: {
    "look": "look",
    "feel": "feel",
    "instrument": "measure",
    "function": "try",
  } satisfies Record<Schemas["ProofKind"], string>,
  CautionSubject: {
    "battery": "battery",
    "cable": "cable",
    "connector": "connector",
    "glass": "glass",
    "burn": "burn",
    "overheating": "overheating",
    "esd": "static charge",
    "liquid": "liquid",
    "stripped-screw": "stripped screw",
    "screw-mixup": "screw mix-up",
    "lost-screw": "lost screw",
    "sensor": "sensor",
    "lens": "lens",
    "membrane": "membrane",
    "pinch": "pinched cable",
    "seal": "seal",
    "power": "power",
    "short-circuit": "short circuit",
    "sharp-tool": "sharp tool",
    "force": "force",
    "orientation": "orientation",
    "contamination": "contamination",
    "wrong-part": "wrong part",
    "keep-part": "part to keep",
    "mains": "mains",
    "chemical": "chemical",
    "own-risk": "own risk",
    "other": "other",
  } satisfies Record<Schemas["CautionSubject"], string>,
  Class: {
    "4.8": "4.8",
    "5.8": "5.8",
    "8.8": "8.8",
    "10.9": "10.9",
    "A2-50": "A2-50",
    "A2-70": "A2-70",
    "A4-80": "A4-80",
  } satisfies Record<Schemas["Class"], string>,
  ConnectorKind: {
    "press_fit": "press fit",
    "latch": "latch",
    "latch_flips": "latch that flips up",
    "latch_slides": "latch that slides",
    "pull_tab": "pull tab",
    "coaxial": "coaxial",
    "plug": "plug with wires",
    "friction": "friction fit",
    "spring": "spring contact",
    "blade": "battery blades",
    "spade": "push-on tag",
    "screw_terminal": "screw terminal",
    "soldered": "soldered",
  } satisfies Record<Schemas["ConnectorKind"], string>,
  ConnectorOp: {
    "disconnect": "disconnect",
    "connect": "connect",
  } satisfies Record<Schemas["ConnectorOp"], string>,
  Consumable: {
    "adhesive": "adhesive",
    "tape": "tape",
    "thermal paste": "thermal paste",
    "thermal pad": "thermal pad",
    "isopropyl alcohol": "isopropyl alcohol",
    "cleaning cloth": "cleaning cloth",
    "cotton swab": "cotton swab",
    "protective film": "protective film",
    "gasket": "gasket",
  } satisfies Record<Schemas["Consumable"], string>,
  DiscrepancyKind: {
    "count": "Count",
    "unit": "Units",
    "size": "Size",
    "repeat": "Said twice",
    "omitted": "Left out",
    "late-tool": "Not on the list",
    "late-posture": "How it lies, told late",
    "side": "Left or right",
    "order": "Order",
  } satisfies Record<Schemas["DiscrepancyKind"], string>,
  Drive: {
    "phillips": "PH cross",
    "pozidriv": "PZ cross",
    "jis": "JIS cross",
    "slotted": "SL slot",
    "torx": "T six-lobe",
    "torx-plus": "IP six-lobe plus",
    "hex": "H hex socket",
    "pentalobe": "five-lobe",
    "tri-point": "three-lobe",
    "spanner": "two-hole",
    "square": "SQ square",
    "torx-pin": "TR six-lobe with pin",
    "triangle": "triangle",
  } satisfies Record<Schemas["Drive"], string>,
  FastenerFate: {
    "reuse": "the same ones",
    "renew": "new ones",
    "leave_out": "left out on purpose",
  } satisfies Record<Schemas["FastenerFate"], string>,
  FastenerOp: {
    "remove": "remove",
    "loosen": "loosen",
    "install": "install",
    "tighten": "tighten",
  } satisfies Record<Schemas["FastenerOp"], string>,
  Harm: {
    "too_long": "too long",
    "too_short": "too short",
    "wrong_thread": "thread",
    "wrong_head": "head",
  } satisfies Record<Schemas["Harm"], string>,
  HeadForm: {
    "pan": "pan",
    "countersunk": "countersunk",
    "cylinder": "cylinder",
    "wafer": "wafer",
    "flange": "flange",
    "hexagon": "hexagon",
    "none": "none: set screw",
  } satisfies Record<Schemas["HeadForm"], string>,
  HeatSource: {
    "heat gun": "heat gun",
    "hair dryer": "hair dryer",
    "heating pad": "heating pad",
    "heating element": "heating element",
    "oven": "oven",
    "soldering iron": "soldering iron",
  } satisfies Record<Schemas["HeatSource"], string>,
  HowCounted: {
    "said": "said",
    "counted_aloud": "counted aloud",
    "drawn": "drawn",
    "confirmed": "confirmed",
  } satisfies Record<Schemas["HowCounted"], string>,
  LineKind: {
    "variants": "Only for",
    "posture": "The device lies",
    "caution": "Caution",
    "act": "Do",
    "screws": "Screws",
    "heat": "Heat",
    "connector": "Unplug",
    "order": "In this order",
    "branch": "If",
    "note": "Note",
    "why": "Why",
    "check": "Check",
  } satisfies Record<Schemas["LineKind"], string>,
  Locking: {
    "liquid": "thread locker",
    "patch": "a patch",
    "washer": "a washer",
  } satisfies Record<Schemas["Locking"], string>,
  Mark: {
    "look_up": "look it up",
    "dead_end": "dead end",
    "rejected": "turned down",
    "decision": "decision",
    "complaint": "complaint",
    "branch": "if so",
    "alternative": "another way",
  } satisfies Record<Schemas["Mark"], string>,
  Material: {
    "steel": "steel",
    "brass_insert": "brass insert in plastic",
    "aluminium": "wrought aluminium",
    "cast_aluminium": "cast aluminium",
    "magnesium": "cast magnesium",
    "pa66_gf30": "glass-filled polyamide",
    "pc": "polycarbonate",
    "abs": "ABS",
  } satisfies Record<Schemas["Material"], string>,
  Medium: {
    "glass": "cover glass",
    "polycarbonate": "polycarbonate",
    "acrylic": "acrylic glass",
    "abs": "ABS",
    "nylon": "nylon",
    "aluminium": "aluminium",
    "magnesium": "magnesium",
    "steel": "steel",
    "stainless_steel": "stainless steel",
    "copper": "copper",
    "leather": "synthetic leather",
    "circuit_board": "circuit board",
    "air": "still air",
    "cell": "battery cell",
    "display_panel": "display panel",
    "foam_tape": "acrylic foam tape",
    "film_tape": "acrylic film tape",
    "hot_melt": "hot-melt adhesive",
    "butyl": "butyl",
    "stretch_strip": "stretch-release strip",
    "silicone": "silicone",
    "epoxy": "epoxy",
    "own": "own material",
  } satisfies Record<Schemas["Medium"], string>,
  NoteKind: {
    "damage": "damage",
    "missing_screw": "a screw is missing",
    "empty_hole": "an empty hole",
    "promise": "promised to readers",
    "before": "must hold before",
    "bound": "paired with its device",
    "lost": "lost by the work",
    "harmless": "looks bad, is not",
    "must_pass": "test at the end",
  } satisfies Record<Schemas["NoteKind"], string>,
  PartFate: {
    "keep": "stays",
    "renew": "is renewed",
    "scrap": "goes for scrap",
  } satisfies Record<Schemas["PartFate"], string>,
  PartOp: {
    "remove": "remove",
    "install": "install",
  } satisfies Record<Schemas["PartOp"], string>,
  Posture: {
    "face_up": "face up",
    "face_down": "face down",
    "on_side": "on its side",
    "propped": "propped up",
    "tethered": "open, held by its cables",
  } satisfies Record<Schemas["Posture"], string>,
  Preset: {
    "glass_back": "glass back over a cell",
    "plastic_lid": "plastic lid",
    "display_in_frame": "display glued into a frame",
    "metal_cover": "metal cover",
  } satisfies Record<Schemas["Preset"], string>,
  Reason: {
    "covers": "Covered",
    "holds": "Held",
    "connected_to": "Tied by a cable",
    "inside": "Inside",
    "power": "Power first",
    "cure": "Must soften, cool or dry",
    "stated": "Told",
    "author": "Author",
  } satisfies Record<Schemas["Reason"], string>,
  Risk: {
    "glued": "glued",
    "brittle": "brittle",
    "single_use": "something is used up",
    "battery": "battery",
    "mains": "mains or stored charge",
  } satisfies Record<Schemas["Risk"], string>,
  SeamKind: {
    "glue": "glue",
    "tape": "tape",
    "clips": "clips",
    "snap_edge": "snapped edge",
  } satisfies Record<Schemas["SeamKind"], string>,
  MarkKind: {
    "entry": "enter",
    "run": "run along",
    "shallow": "stay shallow",
    "keep_out": "keep out",
    "clip": "clip",
    "glue_spot": "extra glue",
    "pick": "leave a pick",
    "hand_over": "change the tool",
  } satisfies Record<Schemas["MarkKind"], string>,
  FaceEdge: {
    "top": "top",
    "right": "right",
    "bottom": "bottom",
    "left": "left",
  } satisfies Record<Schemas["FaceEdge"], string>,
  HeatFrom: {
    "narrator": "the narrator",
    "computed": "computed",
    "maker": "the maker",
    "author": "the author",
  } satisfies Record<Schemas["HeatFrom"], string>,
  Level: {
    "notice": "Notice",
    "caution": "Caution",
    "warning": "Warning",
    "danger": "Danger",
  } satisfies Record<Schemas["Level"], string>,
  Hazard: {
    "mains": "mains voltage",
    "stored_charge": "stored charge",
    "still_connected": "source still connected",
    "microwave": "microwave oven",
    "picture_tube": "picture tube",
    "refrigerant": "refrigerant",
    "gas": "gas",
    "cell_pried": "battery cell",
    "cell_heated": "heat at a battery cell",
    "cell_swollen": "swollen battery cell",
    "cell_shorted": "short circuit of a cell",
    "cell_soldered": "soldering at a battery cell",
    "splinters": "glass",
    "broken_glass": "broken glass",
    "sheet_edge": "sharp edge",
    "blade": "blade",
    "hot_part": "hot parts",
    "solder_fume": "hot solder and its fume",
    "solvent": "liquid and vapour",
    "solvent_heated": "vapour near heat",
    "compressed_air": "compressed air",
    "beam": "laser or bright beam",
    "ultraviolet": "ultraviolet light",
    "start_up": "part that starts up",
    "spring": "spring under tension",
    "magnet": "strong magnet",
    "dust": "harmful dust",
    "germs": "dirt that carries germs",
    "heavy": "heavy part",
    "earth": "protective earth",
    "safety_part": "part that safety hangs on",
    "water": "water beside live parts",
    "pressure": "pressure",
    "first_power": "first power after the work",
    "static": "static charge",
    "open_optics": "open optics",
    "screw_length": "screw that is too long or too tight",
    "rough": "rough handling",
    "data_loss": "data",
    "seal_opened": "seal",
    "curing": "bond that has not set",
  } satisfies Record<Schemas["Hazard"], string>,
  Covered: {
    "said": "said",
    "late": "said too late",
    "general": "said before all work",
    "unsaid": "not said",
    "others": "left to others",
  } satisfies Record<Schemas["Covered"], string>,
  WarnPlace: {
    "step": "before the step",
    "preparation": "before all work",
    "rebuild": "before the rebuild",
  } satisfies Record<Schemas["WarnPlace"], string>,
  Sign: {
    "general": "general warning",
    "explosive": "explosive",
    "laser": "laser beam",
    "beam": "bright light",
    "magnet": "magnetic field",
    "germs": "germs",
    "electricity": "electricity",
    "toxic": "poisonous",
    "hot": "hot surface",
    "flammable": "flammable",
    "sharp": "sharp edge",
    "fingers": "crushing of hands",
    "pressure": "pressure",
    "eyes": "wear eye protection",
    "static": "sensitive to static",
  } satisfies Record<Schemas["Sign"], string>,
  StatementKind: {
    "action": "Action",
    "caution": "Caution",
    "condition": "Condition",
    "observation": "Observation",
    "tool": "Tools",
    "test": "Test",
    "chatter": "Talk",
    "noise": "Noise",
  } satisfies Record<Schemas["StatementKind"], string>,
  Stop: {
    "listen": "Listen",
    "steps": "Steps",
    "chain": "Chain",
    "screws": "Screws",
    "seams": "Seams",
    "cables": "Cables",
    "cautions": "Cautions",
    "fold": "Fold",
    "rehearse": "Rehearse",
    "publish": "Publish",
  } satisfies Record<Schemas["Stop"], string>,
  Stored: {
    "mat": "on the mat",
    "row": "in a row",
    "pile": "in a pile",
    "in_hole": "in their holes",
  } satisfies Record<Schemas["Stored"], string>,
  Topic: {
    "screws": "Screws",
    "heat": "Heat",
    "setting": "Figure",
    "connector": "Connector",
    "order": "Order",
  } satisfies Record<Schemas["Topic"], string>,
  TorqueFrom: {
    "maker": "the maker",
    "narrator": "the narrator",
    "author": "the author",
  } satisfies Record<Schemas["TorqueFrom"], string>,
  TorqueUnit: {
    "newton_metre": "N·m",
    "centinewton_metre": "cN·m",
    "kilogram_centimetre": "kgf·cm",
    "pound_inch": "lbf·in",
    "ounce_inch": "ozf·in",
  } satisfies Record<Schemas["TorqueUnit"], string>,
  WarmedBy: {
    "plate": "heating plate or pad",
    "block": "warmed block",
    "gel_pack": "warmed gel pack",
    "hair_dryer": "hair dryer",
    "heat_gun": "hot-air gun",
  } satisfies Record<Schemas["WarmedBy"], string>,
};

/** Keys and letters that stand for a value. */
export const keys = {
  Reason: {
    "covers": "C",
    "holds": "H",
    "connected_to": "T",
    "inside": "I",
    "power": "P",
    "cure": "S",
    "stated": "N",
    "author": "A",
  } satisfies Record<Schemas["Reason"], string>,
  Sign: {
    "general": "W001",
    "explosive": "W002",
    "laser": "W004",
    "beam": "W027",
    "magnet": "W006",
    "germs": "W009",
    "electricity": "W012",
    "toxic": "W016",
    "hot": "W017",
    "flammable": "W021",
    "sharp": "W022",
    "fingers": "W024",
    "pressure": "W029",
    "eyes": "M004",
    "static": "IEC 60417-5134",
  } satisfies Record<Schemas["Sign"], string>,
  StatementKind: {
    "action": "a",
    "caution": "c",
    "condition": "i",
    "observation": "o",
    "tool": "t",
    "test": "e",
    "chatter": "b",
    "noise": "n",
  } satisfies Record<Schemas["StatementKind"], string>,
};

/** The stops in the order of the work; `later` says what one will be for that is not built yet. */
export const stops: readonly { stop: Schemas["Stop"]; name: string; later: string | null }[] = [
  {
    "stop": "listen",
    "name": "Listen",
    "later": null
  },
  {
    "stop": "steps",
    "name": "Steps",
    "later": null
  },
  {
    "stop": "chain",
    "name": "Chain",
    "later": null
  },
  {
    "stop": "screws",
    "name": "Screws",
    "later": null
  },
  {
    "stop": "seams",
    "name": "Seams",
    "later": null
  },
  {
    "stop": "cables",
    "name": "Cables",
    "later": null
  },
  {
    "stop": "cautions",
    "name": "Cautions",
    "later": null
  },
  {
    "stop": "fold",
    "name": "Fold",
    "later": null
  },
  {
    "stop": "rehearse",
    "name": "Rehearse",
    "later": "One step at a time with busy hands: big type, timers, counts to confirm."
  },
  {
    "stop": "publish",
    "name": "Publish",
    "later": null
  }
];

/** Stops that can be gone to. */
export type BuiltStop = "listen" | "steps" | "chain" | "screws" | "seams" | "cables" | "cautions" | "fold" | "publish";

/** Outlines of tags as path data, about as large as a circle of radius 1. */
export const outlines: Record<Schemas["Shape"], string> = {
  "circle": "M-1 0A1 1 0 1 1 1 0A1 1 0 1 1 -1 0Z",
  "square": "M0.849 0.849L-0.849 0.849L-0.849 -0.849L0.849 -0.849Z",
  "triangle": "M0 -1.15L1.169 0.875L-1.169 0.875Z",
  "diamond": "M1.2 0L0 1.2L-1.2 0L0 -1.2Z",
  "pentagon": "M0 -1.12L1.065 -0.346L0.658 0.906L-0.658 0.906L-1.065 -0.346Z",
  "hexagon": "M1.08 0L0.54 0.935L-0.54 0.935L-1.08 0L-0.54 -0.935L0.54 -0.935Z",
  "slab": "M-1.25 -0.75H1.25V0.75H-1.25Z",
  "drop": "M0 -1.3Q1.5 0.5 0 1Q-1.5 0.5 0 -1.3Z"
};

/** How a mark is painted: filled with ink or with paper, or a line so wide. */
export type Mark = { path: string; paint: "ink" | "paper" | number };
/** Recesses of drives, inside a head of radius 1. */
export const recesses: Record<Schemas["Drive"] | "unknown", Mark[]> = {
  "phillips": [
    {
      "path": "M0 -0.65V0.65M-0.65 0H0.65",
      "paint": 0.3
    }
  ],
  "pozidriv": [
    {
      "path": "M0 -0.65V0.65M-0.65 0H0.65",
      "paint": 0.3
    },
    {
      "path": "M0.3 0.3L0.5 0.5M-0.3 0.3L-0.5 0.5M0.3 -0.3L0.5 -0.5M-0.3 -0.3L-0.5 -0.5",
      "paint": 0.12
    }
  ],
  "jis": [
    {
      "path": "M0 -0.65V0.65M-0.65 0H0.65",
      "paint": 0.3
    }
  ],
  "slotted": [
    {
      "path": "M-0.7 0H0.7",
      "paint": 0.3
    }
  ],
  "torx": [
    {
      "path": "M0 -0.68L0.21 -0.364L0.589 -0.34L0.42 0L0.589 0.34L0.21 0.364L0 0.68L-0.21 0.364L-0.589 0.34L-0.42 0L-0.589 -0.34L-0.21 -0.364Z",
      "paint": "ink"
    }
  ],
  "torx-plus": [
    {
      "path": "M0 -0.68L0.21 -0.364L0.589 -0.34L0.42 0L0.589 0.34L0.21 0.364L0 0.68L-0.21 0.364L-0.589 0.34L-0.42 0L-0.589 -0.34L-0.21 -0.364Z",
      "paint": "ink"
    }
  ],
  "hex": [
    {
      "path": "M0.6 0L0.3 0.52L-0.3 0.52L-0.6 0L-0.3 -0.52L0.3 -0.52Z",
      "paint": "ink"
    }
  ],
  "pentalobe": [
    {
      "path": "M0 -0.68L0.247 -0.34L0.647 -0.21L0.399 0.13L0.4 0.55L0 0.42L-0.4 0.55L-0.399 0.13L-0.647 -0.21L-0.247 -0.34Z",
      "paint": "ink"
    }
  ],
  "tri-point": [
    {
      "path": "M0 0V-0.65M0 0L0.56 0.33M0 0L-0.56 0.33",
      "paint": 0.3
    }
  ],
  "spanner": [
    {
      "path": "M-0.51 0A0.16 0.16 0 1 1 -0.19 0A0.16 0.16 0 1 1 -0.51 0Z",
      "paint": "ink"
    },
    {
      "path": "M0.19 0A0.16 0.16 0 1 1 0.51 0A0.16 0.16 0 1 1 0.19 0Z",
      "paint": "ink"
    }
  ],
  "square": [
    {
      "path": "M0.424 0.424L-0.424 0.424L-0.424 -0.424L0.424 -0.424Z",
      "paint": "ink"
    }
  ],
  "torx-pin": [
    {
      "path": "M0 -0.68L0.21 -0.364L0.589 -0.34L0.42 0L0.589 0.34L0.21 0.364L0 0.68L-0.21 0.364L-0.589 0.34L-0.42 0L-0.589 -0.34L-0.21 -0.364Z",
      "paint": "ink"
    },
    {
      "path": "M-0.16 0A0.16 0.16 0 1 1 0.16 0A0.16 0.16 0 1 1 -0.16 0Z",
      "paint": "paper"
    }
  ],
  "triangle": [
    {
      "path": "M0 -0.6L0.52 0.3L-0.52 0.3Z",
      "paint": "ink"
    }
  ],
  "unknown": [
    {
      "path": "M-0.2 -0.24A0.22 0.22 0 1 1 0.1 -0.04C0.03 -0.01 0 0.04 0 0.14M0 0.4V0.42",
      "paint": 0.16
    }
  ]
};

/** Safety signs, drawn in a box of 24 × 24. */
export const signs: Record<Schemas["Sign"], { name: string; number: string; duty: boolean; frame: string; lines: string; fills: string }> = {
  "general": {
    "name": "general warning",
    "number": "ISO 7010-W001",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "",
    "fills": "M11 9h2l-.4 6h-1.2zM11 16.6h2v2h-2z"
  },
  "explosive": {
    "name": "explosive",
    "number": "ISO 7010-W002",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M12 10.2V8.4M8.6 11.6L7.5 10.4M15.4 11.6l1.1-1.2M7.6 15H6M16.4 15H18",
    "fills": "M12 11.6a3.4 3.4 0 1 0 .01 0z"
  },
  "laser": {
    "name": "laser beam",
    "number": "ISO 7010-W004",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M12 15h6M12 15l-3-3.2M12 15l-3 3.2M12 15l.6-4.4M12 15l.6 4.2M12 15H8",
    "fills": "M12 13.8a1.2 1.2 0 1 0 .01 0z"
  },
  "beam": {
    "name": "bright light",
    "number": "ISO 7010-W027",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M12 9v2M12 17.4v2M7 14.2h1.6M15.4 14.2H17M8.6 11l1.2 1.2M15.4 11l-1.2 1.2M8.6 17.6l1.2-1.2M15.4 17.6l-1.2-1.2",
    "fills": "M12 12.6a1.7 1.7 0 1 0 .01 0z"
  },
  "magnet": {
    "name": "magnetic field",
    "number": "ISO 7010-W006",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M9 10v4.4a3 3 0 0 0 6 0V10M8 11.6h2M14 11.6h2",
    "fills": ""
  },
  "germs": {
    "name": "germs",
    "number": "ISO 7010-W009",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M12 12.6a2 2 0 1 0 .01 0M12 8.8a2.4 2.4 0 1 0 .01 0M9 15a2.4 2.4 0 1 0 .01 0M15 15a2.4 2.4 0 1 0 .01 0",
    "fills": ""
  },
  "electricity": {
    "name": "electricity",
    "number": "ISO 7010-W012",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "",
    "fills": "M13.2 7.6L9.4 14.4h2.2l-1 5 4.2-6.6h-2.4l1.6-5.2z"
  },
  "toxic": {
    "name": "poisonous",
    "number": "ISO 7010-W016",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M8.4 17l7.2 2.6M15.6 17l-7.2 2.6",
    "fills": "M12 8.4a3.6 3.6 0 0 0-2.2 6.4V16.4h4.4v-1.6A3.6 3.6 0 0 0 12 8.4zM10.6 11a.9.9 0 1 1-.01 0zM13.4 11a.9.9 0 1 1-.01 0z"
  },
  "hot": {
    "name": "hot surface",
    "number": "ISO 7010-W017",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M8.6 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M12 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M15.4 16.6c-1-1.4 1-2.4 0-3.8s.6-2 .4-3M7 18.8h10",
    "fills": ""
  },
  "flammable": {
    "name": "flammable",
    "number": "ISO 7010-W021",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M8 19.2h8",
    "fills": "M12 7.8c.6 2.6 3.4 3.6 3.4 6.6a3.4 3.4 0 0 1-6.8 0c0-1.6.8-2.4 1.4-3.4.4 1 .8 1.2 1.2 1.2.2-1.4 0-3 .8-4.4z"
  },
  "sharp": {
    "name": "sharp edge",
    "number": "ISO 7010-W022",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M7.4 18.8h9.2M12 12v4.6M10 14.6c.6.8 1.2 1.4 2 2 .8-.6 1.4-1.2 2-2",
    "fills": "M12 8l4 4.4H8z"
  },
  "fingers": {
    "name": "crushing of hands",
    "number": "ISO 7010-W024",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M7 10.4h10M7 19h10M9.6 17v-3.4M11.4 17v-4M13.2 17v-3.6M15 17v-2.6",
    "fills": "M8.4 16.4h7v1.4h-7z"
  },
  "pressure": {
    "name": "pressure",
    "number": "ISO 7010-W029",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M12 10.8a4 4 0 1 0 .01 0M12 15l2-2.2M12 9v1.6",
    "fills": ""
  },
  "eyes": {
    "name": "wear eye protection",
    "number": "ISO 7010-M004",
    "duty": true,
    "frame": "M12 1a11 11 0 1 0 .01 0z",
    "lines": "M3.6 9.6h16.8M11 12.2c.6-.6 1.4-.6 2 0",
    "fills": "M4.4 10.4h6.2v2.2a3 3 0 0 1-6.2 0zM13.4 10.4h6.2v2.2a3 3 0 0 1-6.2 0z"
  },
  "static": {
    "name": "sensitive to static",
    "number": "IEC 60417-5134",
    "duty": false,
    "frame": "M12 2.2L23 21.4H1z",
    "lines": "M7.6 18.6c2-4 5.6-7 7-9.6M9 18.8c2.4-1.4 5-3 6.6-5.4M7 15l10 4.4",
    "fills": ""
  }
};
