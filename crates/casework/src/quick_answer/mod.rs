//! An answer before anything is measured: what a vehicle of its class probably needs, by what was said of it, with bands as wide as that
//! leaves them.

mod answer;
mod heard;
mod offer;

pub use answer::{Behind, First, FromTheShelf, KindAnswer, MayChange, NoAnswer, QuickAnswer};
pub use offer::kinds_answered;

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches};

use self::heard::{FIRST, Heard, MAY_CHANGE, told, vehicle_of};
use self::offer::kinds;
use crate::back_solve::Wanted;
use crate::entry::{CallEntry, LowWord, ShelfPart, WhenLow};
use crate::prediction::Predictor;
use crate::survey::{Basis, Ends, Item, Manner, OverloadLeaves, Seen, States, Survey, VehicleFacts};

/// What any height is counted from: only what it changes by is told.
const STANDS_IN: f64 = 35.0;
/// Where nobody said how low it sits, so much of what its load takes is to come back (common practice).
const SHARE_TO_GAIN: f64 = 0.5;
/// The least that is worth gaining.
const LEAST_GAIN_IN: f64 = 0.25;

/// How low it sits: the middle of what is meant, and one standard deviation, in inches (our own working rule).
const LOW: [(LowWord, f64, f64); 4] =
    [(LowWord::AnInch, 1.0, 0.5), (LowWord::TwoInches, 2.0, 0.5), (LowWord::ThreeInches, 3.0, 0.75), (LowWord::AHand, 4.5, 1.0)];

/// What a call comes to, with the parts of the shelf.
///
/// # Errors     [`NoAnswer`]
pub fn quick_answer(call: &CallEntry, shelf: &[ShelfPart]) -> Result<QuickAnswer, NoAnswer> {
    let vehicle = vehicle_of(call);
    let heard = Heard { call, told: told(call, &vehicle), vehicle };
    let empty = survey_of(&heard.vehicle);
    let predictor = Predictor::new(&empty);
    let told_low = told_low(call, &heard.vehicle);
    let comes_down = (!heard.told.is_empty()).then(|| {
        let heights = predictor.in_case(&empty.in_case(heard.told.clone(), Ends::default()), &[]);
        let down = heights.map(|heights| Uncertain::new(inches(STANDS_IN) - heights.rear.value, heights.rear.sd));
        down.map_err(|_why| NoAnswer::NotSolved)
    });
    let comes_down = comes_down.transpose()?;
    let behind = behind(call, told_low, comes_down);
    let gain = gain(told_low, comes_down).ok_or(NoAnswer::NothingSaid)?;
    let case = empty.in_case(aboard_or_as_low(&heard, gain), Ends::default());
    let over = heard.over();
    let is_over = over.is_some_and(|over| over.value - over.band() > Force::default());
    let stands = inches(STANDS_IN);
    let with = |part: &Correction| predictor.rises_in_case_at_best(&case, std::slice::from_ref(part)).map(|rise| stands + rise);
    let wanted = Wanted { vehicle: &heard.vehicle, stands, wanted: stands + gain.value, with: &with };
    let none = is_over || gain.value < inches(LEAST_GAIN_IN);
    let kinds = if none { Vec::new() } else { kinds(&heard, behind, &predictor, &case, &wanted, shelf) };
    Ok(QuickAnswer {
        comes_down,
        on_the_rear: (!heard.told.is_empty()).then(|| case.axle_loads().change.rear).flatten(),
        told_low,
        behind,
        gain,
        over: over.filter(|_| is_over).map(|over| over.value),
        kinds,
        first: FIRST.iter().filter(|(_, holds)| holds(&heard)).map(|(first, _)| *first).collect(),
        may_change: MAY_CHANGE.iter().filter(|(_, holds)| holds(&heard)).map(|(what, _)| *what).collect(),
    })
}

fn survey_of(vehicle: &VehicleFacts) -> Survey {
    let both = AxleReadings { corners: Sides::both(vec![inches(STANDS_IN)]) };
    Survey {
        vehicle: vehicle.clone(),
        datum: Datum::GroundToArch,
        heights: States::of(HeightReadings { front: both.clone(), rear: both }, HeightReadings::default()),
        load: None,
        stop_gap: States::default(),
        manner: States::of(Manner::Rolled, Manner::Rolled),
        further: Vec::new(),
        overload_leaves: OverloadLeaves::default(),
        test_weight: false,
        seen: Seen::default(),
    }
}

fn told_low(call: &CallEntry, vehicle: &VehicleFacts) -> Option<Uncertain<Length>> {
    let low = call.low?;
    Some(match LOW.iter().find(|(of, ..)| *of == low) {
        Some((_, middle, sd)) => Uncertain::new(inches(*middle), inches(*sd)),
        // Down by the whole gap of its class, or more than that.
        None => Uncertain::new(vehicle.assumptions().stop_gap, inches(1.0)),
    })
}

/// Whether the load explains how low it sits.
fn behind(call: &CallEntry, told_low: Option<Uncertain<Length>>, comes_down: Option<Uncertain<Length>>) -> Behind {
    if call.when == Some(WhenLow::EmptyToo) {
        return Behind::TiredSprings;
    }
    match told_low.zip(comes_down) {
        None if call.when == Some(WhenLow::Loaded) => Behind::TheLoad,
        None => Behind::Either,
        Some((low, down)) if low.value - down.value > 2.0 * Length::hypot(low.sd, down.sd) => Behind::TiredSprings,
        Some(_) => Behind::TheLoad,
    }
}

/// How far it is to come up: by how low it was said to sit, or by a part of what its load takes.
fn gain(told_low: Option<Uncertain<Length>>, comes_down: Option<Uncertain<Length>>) -> Option<Uncertain<Length>> {
    let part = |down: Uncertain<Length>| Uncertain::new(down.value * SHARE_TO_GAIN, down.sd * SHARE_TO_GAIN);
    told_low.or_else(|| comes_down.map(part)).filter(|gain| gain.value.si() > 0.0)
}

/// What was told to be aboard; where nothing was, what would press it down as far as it sits.
fn aboard_or_as_low(heard: &Heard<'_>, gain: Uncertain<Length>) -> Vec<Item> {
    if !heard.told.is_empty() {
        return heard.told.clone();
    }
    let weight = heard.vehicle.assumptions().rear_rate * gain.value;
    vec![Item { basis: Basis::Assumed, ..Item::at(weight, Length::default()) }]
}
