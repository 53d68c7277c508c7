//! How tight is tight: the window of settings between "holds" and "harms" for one joint, and which harm comes first.
//!
//! Everything is worked out at a middle friction, and told again at both ends of its range: the setting of a driver is
//! known, the friction is not. Each figure carries its formula and its source, so that the bench can show its work.

use super::thread::mm;
use super::{Class, Material, Thread};
use crate::units::{Length, Torque, in_newton_metres, millimetres, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is known of a joint.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Joint {
    pub thread: Thread,
    pub class: Class,
    pub into: Material,
    /// How deep the screw sits in its hole; `None`: as deep as is usual for the material.
    pub engagement: Option<Length>,
    /// Ends of the range of the friction coefficient; `None`: what is usual for the screw.
    pub friction: Option<(f64, f64)>,
    /// Outer diameter of the face under the head; `None`: that of a pan head; no wider than the hole: it bears nowhere.
    pub head: Option<Length>,
    /// The head sits in a cone of 90° (ISO 7721, from memory).
    pub cone: bool,
    /// What lies under the head; `None`: something that does not give.
    pub clamped: Option<Material>,
    /// The screw forms its own thread.
    pub forming: bool,
    /// Measured: the most that it takes to drive the screw in, and the least that strips the hole.
    pub measured: Option<(Torque, Torque)>,
}

/// What goes wrong first when the setting is too high.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Limit {
    /// The screw twists off.
    ScrewBreaks,
    /// The screw stretches for good.
    ScrewYields,
    /// The thread in the hole shears off.
    HoleStrips,
    /// The thread of the screw shears off.
    ScrewStrips,
    /// The part under the head is crushed.
    PartCrushed,
    /// The insert turns in its plastic.
    InsertTurns,
    /// The socket of a set screw gives.
    SocketGives,
}

impl Limit {
    /// "The thread in the hole shears off."
    pub fn words(self) -> &'static str {
        match self {
            Self::ScrewBreaks => "the screw twists off",
            Self::ScrewYields => "the screw stretches for good",
            Self::HoleStrips => "the thread in the hole strips",
            Self::ScrewStrips => "the thread of the screw strips",
            Self::PartCrushed => "the part under the head is crushed",
            Self::InsertTurns => "the insert turns in its plastic",
            Self::SocketGives => "the socket gives, or the key",
        }
    }
}

/// One figure with how it came about.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Worked {
    pub what: String,
    pub formula: String,
    pub value: f64,
    pub unit: String,
    pub source: String,
}

fn worked(what: &str, formula: &str, value: f64, unit: &str, source: &str) -> Worked {
    let [what, formula, unit, source] = [what, formula, unit, source].map(str::to_owned);
    Worked { what, formula, value, unit, source }
}

/// The bench's answer. Torques in N·m.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TorqueWindow {
    /// The least that holds, with its ends over the range of friction.
    pub min_nm: f64,
    pub min_range_nm: [f64; 2],
    /// The most that harms nothing, with its ends over the range of friction.
    pub max_nm: f64,
    pub max_range_nm: [f64; 2],
    pub limit: Limit,
    /// The limit in words: "the screw twists off".
    pub limit_says: String,
    /// A setting that a driver has; `None` where the window is empty: drive by hand.
    pub recommended_nm: Option<f64>,
    /// Least torque that breaks the screw.
    pub breaking_nm: f64,
    /// Clamping force at the recommended setting, at the most and the least friction, in newtons.
    pub clamp_n: Option<[f64; 2]>,
    /// Whole turns of thread that hold.
    pub turns: f64,
    /// Figures with formula and source.
    pub worked: Vec<Worked>,
    /// Cautions of the bench in sentences.
    pub notes: Vec<String>,
}

/// Tension of the standard torques at K = 0.2 in MPa; half of it is what small parts are held with. Series of Japanese
/// practice, quoted with JIS B 1083 (from memory).
const SERIES_MPA: f64 = 210.0;
const SOFT_SHARE: f64 = 0.25;
const HARD_SHARE: f64 = 0.5;
/// The share of the least breaking torque that a setting may reach (common practice, no source).
const SHARE_OF_BREAKING: f64 = 0.6;
const N_MM: f64 = 1000.0;

impl Joint {
    /// The window of this joint.
    pub fn window(&self) -> TorqueWindow {
        if self.forming { self.forming_window() } else { self.thread_window() }
    }

    /// Ends of the friction range: dry to oiled steel 0.10 to 0.16 (VDI 2230, from memory), stainless 0.14 to 0.30 because
    /// it galls, plastics 0.2 to 0.35 (common practice, no source).
    fn frictions(&self) -> (f64, f64) {
        let usual = if self.forming || (self.into.plastic()) {
            (0.20, 0.35)
        } else if self.class.stainless() {
            (0.14, 0.30)
        } else {
            (0.10, 0.16)
        };
        self.friction.unwrap_or(usual)
    }

    fn middle_friction(&self) -> f64 {
        let (low, high) = self.frictions();
        (low + high) / 2.0
    }

    fn engaged(&self) -> Length {
        self.engagement.unwrap_or(self.into.engagement() * self.thread.diameter)
    }

    /// Outer diameter of the head in millimetres: about twice the thread's (ISO 7045 pan heads, from memory).
    fn head_mm(&self) -> f64 {
        self.head.map_or(1.9 * mm(self.thread.diameter), mm)
    }

    /// Millimetres of lever by which a force in the screw becomes a torque at its head:
    /// P/2π + μ·d2/(2·cos 30°) + μ·D_Km/2 (VDI 2230, from memory).
    pub fn lever_mm(&self, friction: f64) -> f64 {
        let (p, d2) = (mm(self.thread.pitch), mm(self.thread.pitch_diameter()));
        let hole = 1.1 * mm(self.thread.diameter);
        let mean_bearing = if self.bears() { (self.head_mm() + hole) / 2.0 } else { 0.0 };
        // A cone presses harder than the force along its axis: by 1/sin of half its angle (cone friction, textbook of
        // machine elements, from memory).
        let wedged = if self.cone { 45f64.to_radians().sin() } else { 1.0 };
        lever(p, d2, mean_bearing / wedged, friction)
    }

    /// A set screw has no head to bear on.
    fn bears(&self) -> bool {
        self.head_mm() > 1.1 * mm(self.thread.diameter)
    }

    fn torque_nm(&self, force_n: f64, friction: f64) -> f64 {
        force_n * self.lever_mm(friction) / N_MM
    }

    fn thread_window(&self) -> TorqueWindow {
        let at = |friction: f64| self.window_at(friction);
        let (low, high) = self.frictions();
        let (holds, harms, limit) = at(self.middle_friction());
        let ends = [at(low), at(high)];
        let range = |of: fn(&(f64, f64, Limit)) -> f64| {
            let (a, b) = (of(&ends[0]), of(&ends[1]));
            [a.min(b), a.max(b)]
        };
        // The driver is set once, whatever the friction of this very screw: it must harm nothing at either end.
        let safe = range(|w| w.1)[0].min(harms);
        let recommended = settable(holds, safe, (holds + safe) / 2.0).filter(|nm| *nm > 0.0);
        let clamp = recommended.map(|t| [high, low].map(|f| t * N_MM / self.lever_mm(f)));
        let mut bench = TorqueWindow {
            min_nm: holds,
            min_range_nm: range(|w| w.0),
            max_nm: harms,
            max_range_nm: range(|w| w.1),
            limit,
            limit_says: limit.words().to_owned(),
            recommended_nm: recommended,
            breaking_nm: self.thread.breaking_torque_nm(self.class),
            clamp_n: clamp,
            turns: self.thread.turns_engaged(self.engaged()),
            worked: self.worked(),
            notes: Vec::new(),
        };
        self.note(&mut bench);
        bench
    }

    /// Holds, harms and what limits, at one friction.
    fn window_at(&self, friction: f64) -> (f64, f64, Limit) {
        if !self.bears() {
            return self.set_screw_at(friction);
        }
        let soft = self.into.plastic() || matches!(self.into, Material::BrassInsert | Material::Magnesium);
        let share = if soft { SOFT_SHARE } else { HARD_SHARE };
        let holds = self.torque_nm(share * SERIES_MPA * self.thread.stress_area_mm2(), friction);
        let mut limits: Vec<(f64, Limit)> = vec![
            (SHARE_OF_BREAKING * self.thread.breaking_torque_nm(self.class), Limit::ScrewBreaks),
            (self.torque_nm(self.assembly_force_n(friction), friction), Limit::ScrewYields),
            (self.into.share_of_stripping() * self.torque_nm(self.hole_strips_n(), friction), Limit::HoleStrips),
            (self.into.share_of_stripping() * self.torque_nm(self.screw_strips_n(), friction), Limit::ScrewStrips),
        ];
        if let Some(clamped) = self.clamped.filter(|_| self.bears()) {
            limits.push((self.torque_nm(self.crushing_force_n(clamped), friction), Limit::PartCrushed));
        }
        if self.into == Material::BrassInsert {
            limits.push((HARD_SHARE * self.series_nm(), Limit::InsertTurns));
        }
        let (harms, limit) =
            limits.into_iter().min_by(|a, b| a.0.total_cmp(&b.0)).expect("the screw itself always limits");
        (holds, harms, limit)
    }

    /// A set screw clamps nothing under a head: its table says how tight, and the hole how much it bears.
    fn set_screw_at(&self, friction: f64) -> (f64, f64, Limit) {
        let strips = self.into.share_of_stripping() * self.torque_nm(self.hole_strips_n(), friction);
        let seats = seating_torque_nm(mm(self.thread.diameter)).unwrap_or(0.0);
        let most = if strips < seats { (strips, Limit::HoleStrips) } else { (seats, Limit::SocketGives) };
        (HARD_SHARE * seats, most.0, most.1)
    }

    /// The standard torque T = 0.2·d·As·210 MPa in N·m.
    pub fn series_nm(&self) -> f64 {
        0.2 * mm(self.thread.diameter) * self.thread.stress_area_mm2() * SERIES_MPA / N_MM
    }

    /// Highest force at which tension and torsion together stay at nine tenths of the yield (VDI 2230, from memory).
    pub fn assembly_force_n(&self, friction: f64) -> f64 {
        let t = self.thread;
        let (d2, d3, p) = (mm(t.pitch_diameter()), mm(t.root_diameter()), mm(t.pitch));
        let d0 = (d2 + d3) / 2.0;
        let twist = 1.5 * (d2 / d0) * (p / (std::f64::consts::PI * d2) + 1.155 * friction);
        0.9 * self.class.strength().yields * t.stress_area_mm2() / (1.0 + 3.0 * twist * twist).sqrt()
    }

    /// Depth that holds: one turn is lost to the chamfer.
    fn bearing_mm(&self) -> f64 {
        (mm(self.engaged()) - mm(self.thread.pitch)).max(0.0)
    }

    /// Force that shears the thread out of the hole: τ·Asi·(Le − P).
    pub fn hole_strips_n(&self) -> f64 {
        self.into.strength().1 * self.thread.internal_shear_mm() * self.bearing_mm()
    }

    /// Torque at which the hole strips, at the least friction.
    fn strips_nm(&self) -> f64 {
        self.torque_nm(self.hole_strips_n(), self.frictions().0)
    }

    /// Torque at which a boss strips, estimated, at its lower end.
    fn window_of_boss_nm(&self) -> f64 {
        0.6 * self.boss_strips_nm(self.middle_friction())
    }

    /// Estimate of the torque that strips a boss: 0.5·τ·π·d·Le times the lever (common practice, ±40 %).
    fn boss_strips_nm(&self, friction: f64) -> f64 {
        let area = std::f64::consts::PI * mm(self.thread.diameter) * mm(self.engaged());
        self.torque_nm(0.5 * self.into.strength().1 * area, friction)
    }

    /// Force that shears the thread off the screw: 0.6·Rm·Ase·(Le − P).
    fn screw_strips_n(&self) -> f64 {
        0.6 * self.class.strength().tensile * self.thread.external_shear_mm() * self.bearing_mm()
    }

    fn crushing_force_n(&self, clamped: Material) -> f64 {
        let hole = 1.1 * mm(self.thread.diameter);
        let area = std::f64::consts::FRAC_PI_4 * (self.head_mm().powi(2) - hole * hole).max(0.0);
        clamped.crushed_at() * area
    }

    fn worked(&self) -> Vec<Worked> {
        let friction = self.middle_friction();
        if !self.bears() {
            let seats = seating_torque_nm(mm(self.thread.diameter)).unwrap_or(0.0);
            let seat = worked("Seated with", "cup point, 45H", seats, "N·m", "table of makers, from memory");
            return [vec![seat], self.worked_hole(friction)].concat();
        }
        [self.worked_screw(friction), self.worked_hole(friction), self.worked_part(friction)].concat()
    }

    /// What the screw itself gives.
    fn worked_screw(&self, friction: f64) -> Vec<Worked> {
        let d = mm(self.thread.diameter);
        let area = self.thread.stress_area_mm2();
        let textbook = 0.75 * self.class.strength().proof * area;
        let breaking = self.thread.breaking_torque_nm(self.class);
        let yielding = self.torque_nm(self.assembly_force_n(friction), friction);
        let k = self.lever_mm(friction) / d;
        vec![
            worked("Stress area", "As = π/4·((d2 + d3)/2)²", area, "mm²", "ISO 898-1, from memory"),
            worked("Torque coefficient", "K = (0.159·P + 0.577·μ·d2 + 0.5·μ·D_Km)/d", k, "", "VDI 2230, from memory"),
            worked("Torque at 90 % of the yield", "F_M·K·d", yielding, "N·m", "VDI 2230, from memory"),
            worked(
                "Joint to be opened again",
                "0.2·d·0.75·Sp·As",
                0.2 * d * textbook / N_MM,
                "N·m",
                "textbook of machine design (T = K·F·d), from memory",
            ),
            worked(
                "Standard torque of the size",
                "0.2·d·As·210 MPa",
                self.series_nm(),
                "N·m",
                "series quoted with JIS B 1083, from memory",
            ),
            worked(
                "Most by breaking",
                &format!("{SHARE_OF_BREAKING}·T_break"),
                SHARE_OF_BREAKING * breaking,
                "N·m",
                "share: common practice, no source",
            ),
            worked(
                "Least torque that breaks the screw",
                "X·Rm·π/16·d3,min³",
                breaking,
                "N·m",
                "ISO 898-7, from memory",
            ),
        ]
    }

    /// What the thread in the hole bears.
    fn worked_hole(&self, friction: f64) -> Vec<Worked> {
        let share = self.into.share_of_stripping();
        let strips = self.hole_strips_n();
        let mut out = vec![
            worked("Force that strips the hole", "τ·Asi·(Le − P)", strips, "N", "FED-STD-H28/2, from memory"),
            worked(
                "Most by stripping",
                &format!("{share}·F_strip·K·d"),
                share * self.torque_nm(strips, friction),
                "N·m",
                "share: common practice, no source",
            ),
        ];
        if !self.into.plastic() {
            let tensile = self.into.strength().0;
            let (hole, _) = refined_stripping_n(self.thread, self.class, tensile, millimetres(self.bearing_mm()));
            out.push(worked(
                "The same, refined for unlike threads",
                "0.6·Rm·Asi·C3·(Le − P)",
                hole,
                "N",
                "E. M. Alexander, SAE 770420 (1977), from memory",
            ));
        }
        out
    }

    /// What the part under the head bears, where it may give.
    fn worked_part(&self, friction: f64) -> Vec<Worked> {
        let crushed = self.clamped.map(|clamped| self.torque_nm(self.crushing_force_n(clamped), friction));
        let line = |torque| {
            worked(
                "Torque that crushes the part",
                "p·π/4·(dk² − dh²)·K·d",
                torque,
                "N·m",
                "pressures of the kind of VDI 2230, from memory",
            )
        };
        crushed.map(line).into_iter().collect()
    }

    fn note(&self, bench: &mut TorqueWindow) {
        const FEWEST_TURNS: f64 = 2.0;
        if self.engagement.is_none() && self.measured.is_none() {
            let half = Joint { engagement: Some(self.engaged() * 0.5), ..*self };
            let strips = if self.forming { half.window_of_boss_nm() } else { half.strips_nm() };
            bench.notes.push(format!(
                "Nobody measured how deep it sits. At half the usual depth the hole strips from about {} N·m.",
                number((strips * 1000.0).round() / 1000.0)
            ));
        }
        if bench.turns < FEWEST_TURNS {
            let turns = plural(bench.turns);
            bench.notes.push(format!("Only {turns} of thread hold: count them, and drive by hand."));
        }
        if self.into == Material::Magnesium && self.class.stainless() {
            bench.notes.push("Stainless in magnesium corrodes where it gets wet.".to_owned());
        }
        if self.into == Material::Pc {
            bench.notes.push("No thread locker and no oil: they crack polycarbonate.".to_owned());
        }
        if bench.recommended_nm.is_none() {
            bench.notes.push(
                "No setting both holds and does no harm: drive by hand, stop at the first firm resistance.".to_owned(),
            );
        }
    }

    /// A screw that forms its thread: 1.2 times what drives it in to 0.65 times what strips the boss (common practice).
    fn forming_window(&self) -> TorqueWindow {
        let (low, high) = self.frictions();
        let estimated = self.boss_strips_nm(self.middle_friction());
        let (strips, drives) = match self.measured {
            Some((drives, strips)) => (in_newton_metres(strips), in_newton_metres(drives)),
            // A good boss strips at four times what it takes to drive the screw.
            None => (estimated, estimated / 4.0),
        };
        let holds = 1.2 * drives;
        // The boss may outlast the screw: glass-filled polyamide does.
        let breaks = SHARE_OF_BREAKING * self.thread.breaking_torque_nm(self.class);
        let (harms, limit) =
            if breaks < 0.65 * strips { (breaks, Limit::ScrewBreaks) } else { (0.65 * strips, Limit::HoleStrips) };
        const MEASURED: f64 = 0.0;
        const ESTIMATED: f64 = 0.4;
        let spread = if self.measured.is_some() { MEASURED } else { ESTIMATED };
        let around = |v: f64| [v * (1.0 - spread), v * (1.0 + spread)];
        let most = if limit == Limit::ScrewBreaks { [harms, harms] } else { around(harms) };
        let recommended = settable(holds, harms, drives + 0.5 * (strips - drives));
        let mut bench = TorqueWindow {
            min_nm: holds,
            min_range_nm: around(holds),
            max_nm: harms,
            max_range_nm: most,
            limit,
            limit_says: limit.words().to_owned(),
            recommended_nm: recommended,
            breaking_nm: self.thread.breaking_torque_nm(self.class),
            clamp_n: recommended.map(|t| [high, low].map(|f| t * N_MM / self.lever_mm(f))),
            turns: self.thread.turns_engaged(self.engaged()),
            worked: self.worked_boss(drives, strips, breaks),
            notes: vec![
                "Start by hand: turn backwards until the thread drops, then forwards. A second thread halves what the boss bears."
                    .to_owned(),
                "From the second driving on, set four fifths; after about ten drivings the boss is worn.".to_owned(),
            ],
        };
        if let Some((least, most)) = usual_in_plastic(mm(self.thread.diameter)) {
            bench.worked.push(Worked {
                what: "Usual for this size".to_owned(),
                formula: format!("{} to {}", number(least), number(most)),
                value: (least + most) / 2.0,
                unit: "N·m".to_owned(),
                source: "common practice, no source".to_owned(),
            });
        }
        self.note(&mut bench);
        bench
    }

    /// What driving and stripping a boss take, and what the screw bears.
    fn worked_boss(&self, drives: f64, strips: f64, breaks: f64) -> Vec<Worked> {
        let source = if self.measured.is_some() { "measured" } else { "estimate, ±40 %; measure ten samples instead" };
        let line = |what: &str, formula: &str, value: f64| Worked {
            what: what.to_owned(),
            formula: formula.to_owned(),
            value,
            unit: "N·m".to_owned(),
            source: format!("{source}; common practice"),
        };
        let mut out = vec![
            line("Driving the screw in", "T_drive", drives),
            line("Stripping the boss", "0.5·τ·π·d·Le·K·d", strips),
            line("Ratio, good from 4 on", "T_strip/T_drive", strips / drives),
            worked(
                "Most by breaking",
                &format!("{SHARE_OF_BREAKING}·X·Rm·π/16·d3,min³"),
                breaks,
                "N·m",
                "ISO 898-7, from memory; share: common practice, no source",
            ),
        ];
        out[2].unit.clear();
        out
    }
}

/// What a socket set screw with a cup point, of class 45H, is seated with in N·m, by diameter; a table of makers, from memory.
fn seating_torque_nm(diameter: f64) -> Option<f64> {
    const SEATS: [(f64, f64); 7] =
        [(1.6, 0.09), (2.0, 0.21), (2.5, 0.57), (3.0, 0.92), (4.0, 2.2), (5.0, 4.0), (6.0, 7.2)];
    SEATS.iter().find(|(d, _)| (d - diameter).abs() < 0.051).map(|(_, nm)| *nm)
}

/// Usual settings of screws in plastic bosses in N·m, by diameter (common practice, no source).
fn usual_in_plastic(diameter: f64) -> Option<(f64, f64)> {
    const USUAL: [(f64, f64, f64); 7] = [
        (1.4, 0.03, 0.06),
        (1.7, 0.06, 0.12),
        (2.0, 0.10, 0.20),
        (2.3, 0.15, 0.25),
        (2.6, 0.20, 0.40),
        (3.0, 0.35, 0.70),
        (4.0, 0.9, 1.8),
    ];
    USUAL.iter().find(|(d, ..)| (d - diameter).abs() < 0.051).map(|(_, least, most)| (*least, *most))
}

fn plural(turns: f64) -> String {
    format!("{} {}", number(turns), if turns == 1.0 { "turn" } else { "turns" })
}

fn lever(pitch: f64, pitch_diameter: f64, mean_bearing: f64, friction: f64) -> f64 {
    pitch / std::f64::consts::TAU
        + friction * pitch_diameter / (2.0 * 30f64.to_radians().cos())
        + friction * mean_bearing / 2.0
}

/// The setting nearest to `wanted` that a driver has and that lies in the window; `None` where the window is empty.
pub fn settable(least: f64, most: f64, wanted: f64) -> Option<f64> {
    if least > most {
        return None;
    }
    let step = step_of(wanted);
    let (first, last) = ((least / step - 1e-9).ceil() * step, (most / step + 1e-9).floor() * step);
    // Where no mark of the scale lies inside, the middle of the window is written as it is, to a thousandth.
    let value = if first > last { wanted } else { ((wanted / step).round() * step).clamp(first, last) };
    Some((value * 1000.0).round() / 1000.0)
}

/// Marks of hand torque drivers, in N·m (common practice, no source).
fn step_of(torque: f64) -> f64 {
    match torque {
        t if t < 0.1 => 0.005,
        t if t < 0.5 => 0.01,
        t if t < 2.0 => 0.05,
        t if t < 10.0 => 0.1,
        _ => 0.5,
    }
}

/// How a given setting stands to the window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueVerdict {
    Inside,
    /// It may come loose.
    Below,
    /// It may do harm.
    Above,
    /// It breaks the screw.
    Breaks,
}

impl TorqueWindow {
    /// How a setting stands to the window; its edges belong to it, to a thousandth.
    pub fn judge(&self, setting: Torque) -> TorqueVerdict {
        const EDGE: f64 = 5e-4;
        let t = in_newton_metres(setting);
        if t >= self.breaking_nm - EDGE / 10.0 {
            TorqueVerdict::Breaks
        } else if t > self.max_nm + EDGE {
            TorqueVerdict::Above
        } else if t < self.min_nm - EDGE {
            TorqueVerdict::Below
        } else {
            TorqueVerdict::Inside
        }
    }
}

/// Factors by which a formula of stripping is refined for threads of unlike strength; internal and external force in N.
///
/// E. M. Alexander, "Analysis and Design of Threaded Assemblies", SAE paper 770420 (1977), from memory; the wall around the
/// hole is taken as thick.
pub fn refined_stripping_n(thread: Thread, class: Class, hole_tensile: f64, engaged: Length) -> (f64, f64) {
    let le = mm(engaged);
    let (asi, ase) = (thread.internal_shear_mm() * le, thread.external_shear_mm() * le);
    let screw = class.strength().tensile;
    let ratio = (hole_tensile * asi) / (screw * ase);
    let c2 = match ratio {
        r if r <= 1.0 => 0.897,
        r => 5.594 - 13.682 * r + 14.107 * r * r - 6.057 * r.powi(3) + 0.9353 * r.powi(4),
    };
    let c3 = match ratio {
        r if r >= 1.0 => 0.897,
        r => 0.728 + 1.769 * r - 2.896 * r * r + 1.296 * r.powi(3),
    };
    (0.6 * hole_tensile * asi * c3, 0.6 * screw * ase * c2)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::newton_metres;
    use rstest::rstest;

    fn joint(size: &str, class: Class, into: Material) -> Joint {
        Joint {
            thread: Thread::parse(size).unwrap(),
            class,
            into,
            engagement: None,
            friction: None,
            head: None,
            cone: false,
            clamped: None,
            forming: false,
            measured: None,
        }
    }

    fn depth(mm: f64) -> Option<Length> {
        Some(millimetres(mm))
    }

    fn near(found: f64, wanted: f64, within: f64) -> bool {
        (found - wanted).abs() <= within
    }

    /// T = K·F·d with F = 0.75·Sp·As and K = 0.20: textbook of machine design, from memory; worked with NumPy 2.4.6.
    #[rstest]
    #[case("M1.6", Class::C48, 0.0945)]
    #[case("M2", Class::C48, 0.193)]
    #[case("M2.5", Class::C48, 0.394)]
    #[case("M3", Class::C48, 0.702)]
    #[case("M3", Class::C88, 1.31)]
    #[case("M3", Class::A270, 1.02)]
    #[case("M4", Class::C109, 4.37)]
    #[case("M6", Class::C88, 10.5)]
    fn torque_of_the_textbook(#[case] size: &str, #[case] class: Class, #[case] nm: f64) {
        let worked = joint(size, class, Material::Steel).worked();
        let found = worked.iter().find(|w| w.what == "Joint to be opened again").unwrap().value;
        assert!(near(found, nm, nm * 0.005), "{found}");
    }

    /// VDI 2230 (from memory): assembly force at μ 0.12 and 90 % of 640 MPa; M6 stands in its table as 10.2 kN.
    #[rstest]
    #[case("M1", 221.0)]
    #[case("M1.6", 623.0)]
    #[case("M2", 1029.0)]
    #[case("M3", 2545.0)]
    #[case("M4", 4421.0)]
    #[case("M6", 10_182.0)]
    fn force_under_tension_and_torsion(#[case] size: &str, #[case] newtons: f64) {
        let found = joint(size, Class::C88, Material::Steel).assembly_force_n(0.12);
        assert!(near(found, newtons, newtons * 0.001), "{found}");
    }

    /// VDI 2230 (from memory): M3 at μ 0.12 with the bearing of its table: 0.07958 + 0.18535 + 0.25410 = 0.51903 mm.
    #[test]
    fn the_lever_of_the_friction_formula() {
        let thread = Thread::parse("M3").unwrap();
        let found = lever(0.5, mm(thread.pitch_diameter()), 4.235, 0.12);
        assert!(near(found, 0.51903, 1e-5), "{found}");
        // A head of 5.17 mm has that bearing; 2188 N then ask for 1.136 N·m.
        let table = Joint { head: depth(5.17), ..joint("M3", Class::C88, Material::Steel) };
        assert!(near(table.torque_nm(2188.0, 0.12), 1.136, 1e-3), "{}", table.torque_nm(2188.0, 0.12));
    }

    /// The series of standard torques (JIS practice, from memory) equals 0.2·d·As·210 MPa within 2.5 %.
    #[rstest]
    #[case("M1", 0.0195)]
    #[case("M1.6", 0.086)]
    #[case("M2", 0.176)]
    #[case("M2.5", 0.36)]
    #[case("M3", 0.63)]
    #[case("M3.5", 1.0)]
    #[case("M4", 1.5)]
    #[case("M5", 3.0)]
    #[case("M6", 5.2)]
    fn the_series_of_standard_torques(#[case] size: &str, #[case] nm: f64) {
        let found = joint(size, Class::C48, Material::Steel).series_nm();
        assert!(near(found, nm, nm * 0.026), "{found}");
    }

    /// A short boss worked by hand: M1.6 in magnesium, 1.5 mm deep: 1.15 mm bear, 430 N, 0.137 N·m at K 0.2, at most 0.055.
    #[test]
    fn a_short_boss_strips_before_the_screw_breaks() {
        let short = Joint { engagement: depth(1.5), ..joint("M1.6", Class::C48, Material::Magnesium) };
        let force = short.hole_strips_n();
        assert!(near(force, 430.0, 1.0), "{force}");
        assert!(force < short.thread.breaking_load_n(Class::C48));
        let bench = Joint { class: Class::C88, ..short }.window();
        assert_eq!(bench.limit, Limit::HoleStrips);
        // At K 0.2 the hand gets 0.4 of 0.137 N·m; the friction of steel lies within a tenth of that.
        assert!(near(bench.max_nm, 0.055, 0.0055), "{bench:?}");
    }

    /// Alexander (1977), from memory: M3 8.8 in aluminium of 310 MPa, 3 mm deep: 3180 N, and the screw breaks at 4025 N.
    #[test]
    fn stripping_refined_for_unlike_threads() {
        let thread = Thread::parse("M3").unwrap();
        let (hole, _) = refined_stripping_n(thread, Class::C88, 310.0, millimetres(3.0));
        assert!(near(hole, 3180.0, 5.0), "{hole}");
        assert!(near(thread.breaking_load_n(Class::C88), 4025.0, 1.0));
    }

    /// Strip force per millimetre (typical strengths, from memory; areas of 6H/6g): M2 and M3.
    #[rstest]
    #[case("M2", Material::BrassInsert, 897.0)]
    #[case("M3", Material::Aluminium, 1121.0)]
    #[case("M3", Material::Magnesium, 765.0)]
    #[case("M2", Material::Abs, 83.0)]
    fn force_that_strips_a_millimetre(#[case] size: &str, #[case] into: Material, #[case] newtons: f64) {
        let one = Joint {
            engagement: Some(millimetres(1.0) + Thread::parse(size).unwrap().pitch),
            ..joint(size, Class::C88, into)
        };
        let found = one.hole_strips_n();
        assert!(near(found, newtons, 1.0), "{found}");
    }

    /// Worked by hand (common practice): driving 0.12, stripping 0.48 N·m: window 0.144 to 0.312, setting 0.30 N·m.
    #[test]
    fn a_screw_that_forms_its_thread() {
        let boss = Joint {
            forming: true,
            measured: Some((newton_metres(0.12), newton_metres(0.48))),
            ..joint("M3", Class::C48, Material::Abs)
        };
        let bench = boss.window();
        assert!(near(bench.min_nm, 0.144, 1e-9) && near(bench.max_nm, 0.312, 1e-9), "{bench:?}");
        assert_eq!(bench.recommended_nm, Some(0.30));
    }

    /// The boss outlasts the screw: M3 of class 4.8 breaks at 0.84·420·π/16·d3,min³ = 0.83 N·m, M2 at 0.20 N·m (ISO 898-7
    /// from memory; worked by hand).
    #[rstest]
    #[case("M3", Material::Pa66Gf30, 0.83)]
    #[case("M2", Material::Pc, 0.20)]
    fn a_forming_screw_is_not_driven_until_it_breaks(#[case] size: &str, #[case] into: Material, #[case] breaks: f64) {
        let bench = Joint { forming: true, ..joint(size, Class::C48, into) }.window();
        assert!(near(bench.breaking_nm, breaks, 0.01), "{}", bench.breaking_nm);
        assert!(bench.max_nm <= 0.6 * bench.breaking_nm + 1e-9, "{bench:?}");
        assert!(bench.recommended_nm.is_none_or(|t| t <= bench.max_nm), "{bench:?}");
    }

    /// Whatever the friction of this very screw is, the recommended setting harms nothing.
    #[rstest]
    #[case("M3", Class::A250)]
    #[case("M4", Class::A270)]
    #[case("M3", Class::C88)]
    fn a_recommended_setting_is_safe_at_both_ends_of_friction(#[case] size: &str, #[case] class: Class) {
        let bench = Joint { engagement: depth(8.0), ..joint(size, class, Material::Steel) }.window();
        let setting = bench.recommended_nm.unwrap();
        assert!(setting <= bench.max_range_nm[0] + 1e-9, "{setting} of {:?}", bench.max_range_nm);
    }

    #[test]
    fn a_set_screw_bears_nowhere() {
        let headed = joint("M3", Class::C88, Material::Steel);
        let set = Joint { head: Some(millimetres(0.0)), clamped: Some(Material::Abs), ..headed };
        // P/2π + μ·d2/(2·cos 30°) alone: 0.07958 + 0.12·2.675/1.73205 = 0.26491 mm (VDI 2230, from memory).
        assert!(near(set.lever_mm(0.12), 0.26491, 1e-4), "{}", set.lever_mm(0.12));
        assert_ne!(set.window().limit, Limit::PartCrushed);
    }

    /// Table of makers for cup points of 45H (from memory): M3 0.92, M4 2.2 N·m; soft holes strip before.
    #[rstest]
    #[case("M3", Material::Steel, 0.92, Limit::SocketGives)]
    #[case("M4", Material::Steel, 2.2, Limit::SocketGives)]
    fn a_set_screw_is_set_by_its_own_table(
        #[case] size: &str,
        #[case] into: Material,
        #[case] most: f64,
        #[case] limit: Limit,
    ) {
        let set = Joint { head: Some(millimetres(0.0)), engagement: depth(10.0), ..joint(size, Class::C88, into) };
        let bench = set.window();
        assert!(near(bench.max_nm, most, 1e-9) && bench.limit == limit, "{bench:?}");
        let soft = Joint { into: Material::Abs, ..set }.window();
        assert!(soft.limit == Limit::HoleStrips && soft.max_nm < most, "{soft:?}");
    }

    #[test]
    fn a_set_screw_of_no_table_has_no_window() {
        let set = Joint { head: Some(millimetres(0.0)), ..joint("M1.2", Class::C88, Material::Steel) };
        assert_eq!(set.window().recommended_nm, None);
    }

    /// Cone friction, textbook of machine elements (from memory): 0.07958 + 0.18535 + 0.25410/sin 45° = 0.62428 mm.
    #[test]
    fn a_countersunk_head_rubs_more() {
        let flat = Joint { head: depth(5.17), ..joint("M3", Class::C88, Material::Steel) };
        let cone = Joint { cone: true, ..flat };
        assert!(near(cone.lever_mm(0.12), 0.62428, 1e-4), "{}", cone.lever_mm(0.12));
        assert!(near(flat.lever_mm(0.12), 0.51903, 1e-4), "{}", flat.lever_mm(0.12));
    }

    #[test]
    fn the_smallest_screw_in_steel_has_a_window() {
        let bench = joint("M1", Class::C48, Material::Steel).window();
        assert!(bench.min_nm < bench.max_nm, "{bench:?}");
    }

    #[test]
    fn a_depth_that_nobody_measured_is_said_with_its_worst_case() {
        let assumed = joint("M3", Class::C48, Material::Abs).window();
        assert!(
            assumed.notes.iter().any(|n| n.starts_with("Nobody measured how deep it sits.")),
            "{:?}",
            assumed.notes
        );
        let known = Joint { engagement: depth(6.0), ..joint("M3", Class::C48, Material::Abs) }.window();
        assert!(!known.notes.iter().any(|n| n.contains("how deep")), "{:?}", known.notes);
    }

    #[test]
    fn a_bad_boss_has_no_window() {
        let boss = Joint {
            forming: true,
            measured: Some((newton_metres(0.3), newton_metres(0.4))),
            ..joint("M3", Class::C48, Material::Abs)
        };
        let bench = boss.window();
        assert_eq!(bench.recommended_nm, None);
        assert!(bench.notes.iter().any(|n| n.contains("stop at the first firm resistance")), "{:?}", bench.notes);
    }

    #[rstest]
    #[case::broken(Joint { engagement: depth(6.0), ..joint("M3", Class::C48, Material::Steel) }, Limit::ScrewBreaks)]
    #[case::greased(Joint { engagement: depth(9.0), friction: Some((0.04, 0.06)), ..joint("M5", Class::A250, Material::Steel) }, Limit::ScrewYields)]
    #[case::hole(Joint { engagement: depth(2.0), ..joint("M3", Class::C88, Material::Pc) }, Limit::HoleStrips)]
    #[case::insert(joint("M2", Class::C88, Material::BrassInsert), Limit::InsertTurns)]
    #[case::part(Joint { clamped: Some(Material::Abs), ..joint("M3", Class::C88, Material::Steel) }, Limit::PartCrushed)]
    fn the_weakest_is_named(#[case] joint: Joint, #[case] limit: Limit) {
        assert_eq!(joint.window().limit, limit);
    }

    #[test]
    fn friction_widens_both_ends_and_halves_the_clamping_force() {
        let joint = Joint { friction: Some((0.10, 0.20)), ..joint("M3", Class::C88, Material::Steel) };
        let bench = joint.window();
        assert!(bench.min_range_nm[0] < bench.min_nm && bench.min_nm < bench.min_range_nm[1]);
        let [least, most] = bench.clamp_n.unwrap();
        // Doubling the friction leaves about 55 % of the clamping force (VDI 2230 style formula, from memory).
        assert!(near(least / most, 0.55, 0.02), "{}", least / most);
    }

    #[rstest]
    #[case(0.1, 0.2, 0.153, Some(0.15))]
    #[case(0.04, 0.06, 0.0518, Some(0.05))]
    #[case(0.5, 1.1, 0.83, Some(0.85))]
    #[case(0.151, 0.158, 0.1545, Some(0.155))]
    #[case(0.3, 0.2, 0.25, None)]
    fn a_setting_is_one_that_a_driver_has(
        #[case] least: f64,
        #[case] most: f64,
        #[case] wanted: f64,
        #[case] found: Option<f64>,
    ) {
        assert_eq!(settable(least, most, wanted), found);
    }

    #[test]
    fn settings_are_held_against_the_window() {
        let bench = joint("M3", Class::C88, Material::Steel).window();
        let stands = |nm: f64| bench.judge(newton_metres(nm));
        assert_eq!(stands(bench.recommended_nm.unwrap()), TorqueVerdict::Inside);
        assert_eq!((stands(0.05), stands(bench.max_nm + 0.01)), (TorqueVerdict::Below, TorqueVerdict::Above));
        assert_eq!(stands(bench.breaking_nm), TorqueVerdict::Breaks);
    }
}
