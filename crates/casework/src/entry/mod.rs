//! Quantities and small documents as people typed them.

mod aim;
mod bench;
mod call;
mod correction;
mod drive;
mod from_text;
mod intake_sheet;
mod load_plan;
mod look_over;
mod made;
mod option;
mod paper;
mod promise;
mod proof;
mod shelf_part;
mod sums;
mod tape_sheet;
mod tick;
mod understood;
mod work_plan;

pub use aim::{AimSheet, GoalEntry, MOST_GOALS, MarkEntry, WayWord, WhenEntry};
pub use bench::{BenchEntry, HelperEntry, LeafEntry, OverloadEntry, PackEntry, SidePackEntry, SteelEntry};
pub use call::{AboardEntry, CallEntry, LowWord, PlaceWord, ThingWord, WhenLow};
pub use correction::{CorrectionEntry, FigureEntry, NoCorrection, TypedTable};
pub use drive::{DriveEntry, Felt, Run, Score};
pub use from_text::{BareUnits, NoFigure, NoTable};
pub use intake_sheet::{
    Currency, DayEntry, DrivenWord, FirstWord, IntakeSheetEntry, ModificationEntry, MoneyEntry, ShareEntry, ShareOf,
};
pub use load_plan::{CaseEntry, ItemEntry, LiquidWord, LoadPlanEntry};
pub use look_over::{FindingEntry, LookOverEntry, MeasuredEntry};
pub use made::TypedIn;
pub use option::{MOST_PARTS, OptionEntry, PartEntry, SettingEntry};
pub use paper::{DRAWN, Drawn, MOST_LINES, NotDrawn, PaperEntry, PaperSection, PaperWord};
pub use promise::{PromiseEntry, PromisedMark, PromisedRate, PromisedSide, marks_of};
pub use proof::{CheckWord, CheckedWord, OtherwiseEntry, OtherwiseWord, OutsideReason, ProofSheetEntry};
pub use shelf_part::{EndWord, LONGEST_NAME, LONGEST_NUMBER, LONGEST_WORDS, MOST_COUNTED, PartRecord, ShelfPart, ShelfProblem};
pub use sums::{KeptSum, KeptSumsEntry, MOST_SUMS};
pub use tape_sheet::{ContactEntry, MOST_POINTS, PointEntry, PointHeightEntry, StateEntry, TapeSheetEntry};
pub use tick::{Answer, LONGEST_NOTE, TickEntry};
pub use work_plan::{
    BendWord, ExtraEntry, MOST_EXTRAS, MOST_HOURS, RaisedWord, RustWord, StandsEntry, SupplyEntry, SupplyWord, WorkPlanEntry,
};

use crate::prediction::Prediction;
use crate::survey::{EmptyAndLoaded, End, FurtherLoad, LoadPut, LoadState};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, metres, newtons, newtons_per_metre};

/// The unit a bare number was read in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum UnitWord {
    /// Inches.
    In,
    /// Millimetres.
    Mm,
    /// Pounds.
    Lb,
    /// Kilograms.
    Kg,
    /// Pounds per inch.
    LbPerIn,
    /// Newtons per millimetre.
    NPerMm,
    /// Gallons of the United States.
    Gal,
    /// Litres.
    L,
    /// Degrees.
    Deg,
    /// Pounds per square inch.
    Psi,
    /// Kilopascals.
    Kpa,
    /// Thousands of pounds per square inch.
    Ksi,
    /// Megapascals.
    Mpa,
    /// Turns of a coil.
    Turns,
    /// Foot-pounds.
    LbFt,
    /// Newton metres.
    Nm,
}

/// A quantity as it was typed and as it was understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Typed {
    /// What was typed, to the letter.
    pub text: String,
    /// The unit a bare number was read in.
    pub unit: UnitWord,
    /// The value understood: metres, newtons, newtons per metre, cubic metres, radians, pascals, turns or newton metres.
    pub si: f64,
}

impl Typed {
    /// As a length.
    pub fn length(&self) -> Length {
        metres(self.si)
    }

    /// As a weight.
    pub fn force(&self) -> Force {
        newtons(self.si)
    }

    /// As a spring rate.
    pub fn rate(&self) -> SpringRate {
        newtons_per_metre(self.si)
    }
}

/// What was put on, as typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum LoadEntry {
    /// A weight at a place.
    Placed {
        /// Its weight.
        weight: Typed,
        /// How far from the rear axle.
        distance: Typed,
        /// Whether that is ahead of the axle.
        ahead: bool,
    },
    /// Axles weighed.
    Weighed {
        /// Rear axle empty.
        rear_empty: Typed,
        /// Rear axle loaded.
        rear_loaded: Typed,
        /// Front axle empty.
        front_empty: Option<Typed>,
        /// Front axle loaded.
        front_loaded: Option<Typed>,
    },
    /// A case of the load plan.
    Planned {
        /// Its key.
        case: u8,
    },
    /// What another state carries, and perhaps a weight more: of a state beside empty and loaded.
    Over {
        /// That state.
        state: LoadState,
        /// The weight more.
        more: Option<MoreEntry>,
    },
}

/// A weight more than another state carries.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MoreEntry {
    /// The weight.
    pub weight: Typed,
    /// How far from the rear axle.
    pub distance: Typed,
    /// Whether that is ahead of the axle.
    pub ahead: bool,
}

impl MoreEntry {
    /// How far behind the rear axle it sits.
    pub fn behind_rear_axle(&self) -> Length {
        if self.ahead { -self.distance.length() } else { self.distance.length() }
    }
}

impl LoadEntry {
    /// As the mechanics take the load of a state beside empty and loaded.
    pub fn further(&self, plan: Option<&LoadPlanEntry>) -> FurtherLoad {
        match self {
            LoadEntry::Over { state, more } => {
                let more = more.as_ref().map(|more| (more.weight.force(), more.behind_rear_axle()));
                FurtherLoad::Over { state: *state, more }
            }
            _ => self.load_put(plan).map_or(FurtherLoad::NotKnown, FurtherLoad::Put),
        }
    }

    /// As the mechanics take it; `None` when the plan no longer has the case, or nothing comes aboard in it, or when it is more than
    /// another state carries.
    pub fn load_put(&self, plan: Option<&LoadPlanEntry>) -> Option<LoadPut> {
        let pair = |empty: &Typed, loaded: &Typed| EmptyAndLoaded { empty: empty.force(), loaded: loaded.force() };
        Some(match self {
            LoadEntry::Placed { weight, distance, ahead } => LoadPut::Placed {
                weight: weight.force(),
                behind_rear_axle: if *ahead { -distance.length() } else { distance.length() },
            },
            LoadEntry::Weighed { rear_empty, rear_loaded, front_empty, front_loaded } => LoadPut::Weighed {
                rear: pair(rear_empty, rear_loaded),
                front: front_empty.as_ref().zip(front_loaded.as_ref()).map(|(empty, loaded)| pair(empty, loaded)),
            },
            LoadEntry::Planned { case } => {
                let (plan, scale) = plan.and_then(|plan| Some((plan, plan.case(*case)?.scale())))?;
                let items = plan.items_of(*case);
                if items.is_empty() {
                    return None;
                }
                LoadPut::Planned { items, scale }
            }
            LoadEntry::Over { .. } => return None,
        })
    }
}

/// One predicted height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PredictedHeight {
    /// The height, in metres.
    pub height_m: f64,
    /// Half the width of the band in which it comes to rest, in metres.
    pub band_m: f64,
    /// Half the width of the band in which the tape will read it, in metres; nothing of what was predicted before that was told apart,
    /// and of an end that nothing was fitted to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tape_band_m: Option<f64>,
}

impl PredictedHeight {
    fn at_rest(height: Uncertain<Length>) -> Self {
        PredictedHeight { height_m: height.value.si(), band_m: height.band().si(), tape_band_m: None }
    }

    /// With what a fresh reading lies off from rest on top, as one standard deviation.
    fn read_anew(height: Uncertain<Length>, fresh: Length) -> Self {
        let tape = Uncertain::new(height.value, Length::hypot(height.sd, fresh));
        PredictedHeight { tape_band_m: Some(tape.band().si()), ..PredictedHeight::at_rest(height) }
    }

    /// Half the width of the band that a reading is held against.
    pub fn band_of_a_reading(&self) -> f64 {
        self.tape_band_m.unwrap_or(self.band_m)
    }
}

/// Either side of an end in a state, where one is predicted to stand above the other.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PredictedSides {
    /// Which end.
    pub end: End,
    /// In which state.
    pub state: LoadState,
    /// Its left side.
    pub left: PredictedHeight,
    /// Its right side.
    pub right: PredictedHeight,
}

/// The heights predicted when a correction was chosen.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PredictedHeights {
    /// Front, empty.
    pub front_empty: Option<PredictedHeight>,
    /// Rear, empty.
    pub rear_empty: Option<PredictedHeight>,
    /// Front, loaded.
    pub front_loaded: Option<PredictedHeight>,
    /// Rear, loaded.
    pub rear_loaded: Option<PredictedHeight>,
    /// Every end that was read on both sides, side by side.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub sides: Vec<PredictedSides>,
    /// In every state beside empty and loaded.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub further: Vec<PredictedFurther>,
}

/// Both ends in a state beside empty and loaded.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PredictedFurther {
    /// In which state.
    pub state: LoadState,
    /// Front.
    pub front: Option<PredictedHeight>,
    /// Rear.
    pub rear: PredictedHeight,
}

impl PredictedHeights {
    /// The heights of a prediction, as they stand when a correction is chosen.
    pub fn of(prediction: &Prediction) -> Self {
        let state = |state| prediction.at(state).ok();
        let rear = |of| state(of).map(|predicted| PredictedHeight::read_anew(predicted.rear, predicted.fresh));
        let sides = |of| -> Vec<PredictedSides> {
            let of_end = |end, sides: Option<Sides<Uncertain<Length>>>| {
                let fresh = state(of).map_or(Length::default(), |predicted| predicted.fresh);
                let height = |height| PredictedHeight::read_anew(height, fresh);
                sides.map(|sides| PredictedSides { end, state: of, left: height(sides.left), right: height(sides.right) })
            };
            let both = state(of).map(|it| [of_end(End::Front, it.front_sides), of_end(End::Rear, it.rear_sides)]);
            both.into_iter().flatten().flatten().collect()
        };
        let front = |of| state(of).and_then(|predicted| predicted.front).map(PredictedHeight::at_rest);
        let further = |of| rear(of).map(|rear| PredictedFurther { state: of, front: front(of), rear });
        PredictedHeights {
            front_empty: front(LoadState::Empty),
            rear_empty: rear(LoadState::Empty),
            front_loaded: front(LoadState::Loaded),
            rear_loaded: rear(LoadState::Loaded),
            sides: prediction.each().flat_map(|(state, _)| sides(state)).collect(),
            further: prediction.further.iter().filter_map(|(key, _)| further(LoadState::Further(*key))).collect(),
        }
    }

    /// Whether there is nothing to hold a proof against.
    pub fn is_empty(&self) -> bool {
        self.rear_empty.is_none() && self.rear_loaded.is_none() && self.further.is_empty()
    }

    /// What was predicted of an end in a state.
    pub fn get(&self, end: End, state: LoadState) -> Option<PredictedHeight> {
        match (end, state) {
            (End::Front, LoadState::Empty) => self.front_empty,
            (End::Rear, LoadState::Empty) => self.rear_empty,
            (End::Front, LoadState::Loaded) => self.front_loaded,
            (End::Rear, LoadState::Loaded) => self.rear_loaded,
            (end, further) => {
                let of_state = self.further.iter().find(|it| it.state == further)?;
                if end == End::Front { of_state.front } else { Some(of_state.rear) }
            }
        }
    }
}
