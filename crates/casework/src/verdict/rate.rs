//! The rear axle's rate from two states.

use crate::survey::{ASSUMED_TYRE_SD, End, LoadState, Survey};
use wise_badger_mechanics::axle_rate::{GOOD, RateGrade};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, inches, metres, newtons, newtons_per_metre};

/// A rate from the readings, and all that went into it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RateFigure {
    /// All rear springs together, at the axle.
    pub rate: SpringRate,
    /// One standard deviation as a share of the rate.
    pub relative_sd: f64,
    /// Whether it is good or rough.
    pub grade: RateGrade,
    /// What the load added to the axle.
    pub load_change: Uncertain<Force>,
    /// How far the tape came down.
    pub drop: Uncertain<Length>,
    /// How much of that the springs came down: what the tyres of the class leave of it, and the change of the stop gap where that was
    /// read in both states.
    pub spring_drop: Uncertain<Length>,
    /// What the stop gap alone says of that, where it was read in both states.
    pub by_gap: Option<GapDrop>,
    /// The load change that would bring the standard deviation to 10 %.
    pub load_for_ten_percent: Force,
    /// Whether the drop goes past where the class's overload leaf usually bears, so that the rate is a mix of two.
    pub past_second_stage: bool,
    /// The measured rate taken apart into two, where the class's usual second stage was passed and is known.
    pub stages: Option<MeasuredStages>,
    /// What load and drop come to once all readings are brought into agreement; absent where they were not.
    pub agreed: Option<Agreed>,
}

/// What the stop gap says of how far the springs came down.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct GapDrop {
    /// How much the gap closed.
    pub spring_drop: Uncertain<Length>,
    /// Whether that goes with the heights, the tyres of the class taken off; where it does not, it is left out.
    pub agrees: bool,
}

/// Load and drop of the rear springs in the vehicle that agrees best with everything read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Agreed {
    /// What the load adds to the axle.
    pub load_change: Force,
    /// How far the springs come down under it.
    pub spring_drop: Length,
}

/// What the readings say about the rear axle's rate.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum RateVerdict {
    /// A rear height is missing in one state, or what was put on is not known.
    NotMeasured,
    /// A rate that can be used.
    Measured(RateFigure),
    /// The drop or the load change is too small beside what tape and scale can tell.
    TooWeak {
        /// One standard deviation as a share of the rate, where that has a meaning.
        relative_sd: Option<f64>,
        /// The load change that would bring it to 10 %, going by the class's assumed rate.
        load_needed: Force,
        /// What the load added to the axle.
        load_change: Uncertain<Force>,
        /// How far the tape came down.
        drop: Uncertain<Length>,
    },
    /// The rear came up with a load that should push it down (or down with one that should lift it).
    WrongWay {
        /// What the load added to the axle.
        load_change: Uncertain<Force>,
        /// How far the tape came down; negative, it came up.
        drop: Uncertain<Length>,
    },
    /// The bump stops carry part of the load, so the springs cannot be told from the stops.
    OnTheStops {
        /// The clearance there was empty, where it was read.
        gap_empty: Option<Length>,
    },
}

/// Two rates that together make the drop that was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeasuredStages {
    /// Travel from empty at which the second bears: by its gap as read, or the class's usual one, assumed.
    pub from: Length,
    /// Rate before it.
    pub first: SpringRate,
    /// Rate it adds.
    pub added: SpringRate,
}

impl MeasuredStages {
    /// Takes a rate measured over a drop apart: `W = k₁·s + (m − 1)·k₁·(s − c)`, so `k₁ = W / (s + (m − 1)(s − c))`, with the
    /// travel `c` at which it joins in and the class's ratio `m` of the rates. `None` where the drop stays short of
    /// `c`, or somebody saw that it does not bear.
    pub(crate) fn of(survey: &Survey, rate: SpringRate, load_change: Force) -> Option<Self> {
        let assumed = survey.vehicle.assumptions();
        let stage = survey.second_stage()?;
        let (from, more) = (stage.from, assumed.second_stage_times? - 1.0);
        let drop: Length = load_change / rate;
        let past = drop - from;
        if past <= metres(0.0) || !survey.is_past_second_stage(drop) {
            return None;
        }
        let first = newtons_per_metre(load_change.si() / (drop + more * past).si());
        Some(MeasuredStages { from, first, added: more * first })
    }
}

impl RateFigure {
    /// How far the springs came down in the vehicle that agrees best with all readings, or by these two states alone.
    pub fn springs_down(&self) -> Length {
        self.agreed.map_or(self.spring_drop.value, |agreed| agreed.spring_drop)
    }
}

impl RateVerdict {
    /// Judges the rear axle's rate from its two states alone, whatever the front and the place of the load say.
    ///
    /// `k = ΔW / (ΔH − ΔW/K)` with `K` the rate of all rear tyres, and no tyre term from the hub.
    /// With two states this is the maximum-a-posteriori fit of rate, free height and true loads; its
    /// standard deviation follows to first order from those of `ΔH` and `ΔW` and 15 % on `K`:
    /// `(σ_k/k)² = k²·[(σ_H/ΔW)² + (ΔH·σ_W/ΔW²)² + (0.15/K)²]`. Where the stop gap was read in both states and goes with that, what
    /// the springs came down is the mean of both, each weighed by its variance.
    ///
    /// # Sign       the drop is positive downwards; the rate is always > 0
    /// # Valid      stops clear in both states; one rate over the travel measured
    /// # Source     first-order propagation of uncertainty, JCGM 100:2008 (GUM), 5.1.2
    pub fn of_two_states(survey: &Survey) -> RateVerdict {
        let (Some(drop), Some(load_change)) = (survey.drop(End::Rear), survey.axle_loads().change.rear) else {
            return RateVerdict::NotMeasured;
        };
        let (drop_m, change_n) = (drop.value.si(), load_change.value.si());
        let tyres = TyreGive::of(survey);
        let tyre_drop_m = change_n * tyres.compliance;
        if stops_in_contact(survey, drop_m - tyre_drop_m) {
            return RateVerdict::OnTheStops { gap_empty: survey.gap(LoadState::Empty) };
        }
        let height_sd = drop.sd.si();
        if drop_m * change_n < 0.0 && drop_m.abs() > 2.0 * height_sd {
            return RateVerdict::WrongWay { load_change, drop };
        }
        let by_heights =
            Uncertain::new(drop.value - metres(tyre_drop_m), metres(height_sd.hypot(tyres.compliance_sd * change_n)));
        let by_gap = GapDrop::of(survey, by_heights);
        let spring_drop = match by_gap.filter(|gap| gap.agrees) {
            Some(gap) => weighed_mean(by_heights, gap.spring_drop),
            None => by_heights,
        };
        let compliance = spring_drop.value.si() / change_n;
        let compliance_sd = (spring_drop.sd.si() / change_n).hypot(drop_m * load_change.sd.si() / (change_n * change_n));
        let relative_sd = compliance_sd / compliance;
        let Some(grade) = RateGrade::of(relative_sd).filter(|_| compliance > 0.0) else {
            let assumed = survey.vehicle.assumptions().rear_rate;
            return RateVerdict::TooWeak {
                relative_sd: (compliance > 0.0 && relative_sd.is_finite()).then_some(relative_sd),
                load_needed: load_for_ten_percent(assumed.si(), height_sd, load_change.sd.si()),
                load_change,
                drop,
            };
        };
        let rate = newtons_per_metre(1.0 / compliance);
        let stages = MeasuredStages::of(survey, rate, load_change.value);
        let past_second_stage = survey.is_past_second_stage(spring_drop.value);
        RateVerdict::Measured(RateFigure {
            rate,
            relative_sd,
            grade,
            load_change,
            drop,
            spring_drop,
            by_gap,
            load_for_ten_percent: load_for_ten_percent(rate.si(), height_sd, load_change.sd.si()),
            past_second_stage,
            stages,
            agreed: None,
        })
    }

    /// The measured rate, where there is one.
    pub fn measured(&self) -> Option<&RateFigure> {
        match self {
            RateVerdict::Measured(figure) => Some(figure),
            _ => None,
        }
    }
}

impl GapDrop {
    /// `None` where the gap was not read in both states, or was closed in one.
    fn of(survey: &Survey, by_heights: Uncertain<Length>) -> Option<Self> {
        let touching = inches(1.0 / 16.0);
        let read = |state| survey.middle_gap(state).filter(|_| survey.gap(state).is_some_and(|gap| gap > touching));
        let (empty, loaded) = (read(LoadState::Empty)?, read(LoadState::Loaded)?);
        let spring_drop = Uncertain::new(empty.value - loaded.value, Length::hypot(empty.sd, loaded.sd));
        let apart = (spring_drop.value - by_heights.value).abs();
        let agrees = apart <= AGREES_SDS * Length::hypot(spring_drop.sd, by_heights.sd);
        Some(GapDrop { spring_drop, agrees })
    }
}

/// Further apart than so many standard deviations two readings of the same do not go together.
const AGREES_SDS: f64 = 3.0;

/// The mean of two readings of the same, each weighed by its variance.
fn weighed_mean(one: Uncertain<Length>, other: Uncertain<Length>) -> Uncertain<Length> {
    let (a, b) = (one.sd.si().powi(-2), other.sd.si().powi(-2));
    Uncertain::new((one.value * a + other.value * b) / (a + b), metres((a + b).powf(-0.5)))
}

/// How much a ground datum sinks per newton on the axle because of the tyres (m/N).
struct TyreGive {
    compliance: f64,
    compliance_sd: f64,
}

impl TyreGive {
    fn of(survey: &Survey) -> Self {
        let seen = survey.datum.includes_tyre();
        let compliance = if seen { 1.0 / survey.vehicle.assumptions().rear_tyres().si() } else { 0.0 };
        TyreGive { compliance, compliance_sd: ASSUMED_TYRE_SD * compliance }
    }
}

/// Whether the readings say that the stops are touching with the load on.
fn stops_in_contact(survey: &Survey, spring_drop_m: f64) -> bool {
    // Under a sixteenth there is no telling clear from touching.
    let touching = inches(1.0 / 16.0);
    match (survey.gap(LoadState::Loaded), survey.gap(LoadState::Empty)) {
        (Some(loaded), _) => loaded <= touching,
        (None, Some(empty)) => spring_drop_m >= (empty - touching).si(),
        (None, None) => false,
    }
}

/// `ΔW = √(σ_ΔW² + k²·σ_ΔH²) / 0.10`.
fn load_for_ten_percent(rate: f64, drop_sd: f64, change_sd: f64) -> Force {
    newtons(change_sd.hypot(rate * drop_sd) / GOOD)
}
