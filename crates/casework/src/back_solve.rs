//! What a part would have to be for the rear to stand where the aim wants it, and which parts of the shelf come nearest.

use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::correction::{
    Correction, Given, KINDS, KindRow, Quantity, Site, coil_spacer, helper_by_capacity, lift_block, new_coils, new_packs,
    rearched_pack, rubber_by_capacity,
};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length, inches, pounds_per_inch};

use crate::casework::{Casework, as_known};
use crate::entry::{EndWord, ShelfPart, TypedIn, WhenEntry};
use crate::look_over::Gate;
use crate::prediction::Unpredicted;
use crate::shelf_fit::{Setting, bound_of, correction_of, entry_of, set_of, settable};
use crate::survey::{End, LoadState, VehicleFacts};

/// Halvings of the search for a figure: of its bounds, to less than a tape reads.
const HALVINGS: u32 = 20;
/// Most parts of the shelf that are given.
const MOST_NEAREST: usize = 8;

/// What it takes.
#[derive(Debug, Clone)]
pub struct WhatItTakes {
    /// The state that the aim speaks of.
    pub state: LoadState,
    /// Where the rear stands in it.
    pub stands: Length,
    /// Where it is to stand.
    pub wanted: Length,
    /// How much more than now must be carried where it is to stand, both sides together: what the springs lose on the way up. `None`
    /// where their rate is not known, or nothing is to be gained.
    pub more_to_carry: Option<Uncertain<Force>>,
    /// What each kind would have to be.
    pub kinds: Vec<KindNeeded>,
}

/// What a kind would have to be.
#[derive(Debug, Clone)]
pub struct KindNeeded {
    /// The kind.
    pub row: &'static KindRow,
    /// The figure that is looked for.
    pub figure: &'static str,
    /// How it ends.
    pub answer: Needed,
}

/// How a search for a figure ends.
#[derive(Debug, Clone)]
pub enum Needed {
    /// With this it stands where it is to.
    Of {
        /// The figure.
        value: Quantity,
        /// The part with it.
        part: Correction,
        /// Where it then stands, as it is predicted.
        rear: Uncertain<Length>,
        /// What rules such a part out all the same.
        gates: Vec<Gate>,
    },
    /// The least of its kind lifts it higher.
    TooMuch,
    /// The most of its kind does not lift it as high.
    NotEnough,
    /// Nothing can be said.
    Unpredicted(Unpredicted),
}

/// A part of the shelf that comes near.
#[derive(Debug, Clone)]
pub struct Near {
    /// Its place among the parts looked through.
    pub place: usize,
    /// The part, so set.
    pub part: Correction,
    /// How it is best set, where it is set.
    pub setting: Option<(&'static str, Quantity)>,
    /// How it is best set in each other state and case, where it is set by a gauge at any time.
    pub by_case: Vec<(WhenEntry, Quantity)>,
    /// Where the rear then stands, as it is predicted.
    pub rear: Uncertain<Length>,
    /// What is too short for it by itself, and must go with it.
    pub gates: Vec<Gate>,
}

/// A kind whose one figure is looked for, the others as they usually are.
struct Sized {
    row: &'static KindRow,
    figure: &'static str,
    others: fn(&VehicleFacts) -> Given,
}

/// Every such kind.
const SIZED: [Sized; 7] = [
    Sized { row: &lift_block::ROW, figure: "thickness", others: |_| Given::default() },
    Sized { row: &coil_spacer::ROW, figure: "thickness", others: |_| Given::default().with_length("replaces", inches(0.0)) },
    Sized { row: &rearched_pack::ROW, figure: "free_height_gained", others: |_| Given::default() },
    Sized { row: &new_packs::ROW, figure: "lift", others: of_new_springs },
    Sized { row: &new_coils::ROW, figure: "lift", others: of_new_springs },
    Sized {
        row: &helper_by_capacity::ROW,
        figure: "capacity",
        others: |_| Given::default().with_length("working_travel", inches(6.0)).with_length("engagement_gap", inches(0.0)),
    },
    Sized {
        row: &rubber_by_capacity::ROW,
        figure: "capacity",
        others: |_| Given::default().with_length("free_height", inches(5.0)).with_length("clearance", inches(0.5)),
    },
];

/// New springs in the place of those that came with the vehicle, which have set as far as is known, or as usual.
fn of_new_springs(vehicle: &VehicleFacts) -> Given {
    let lengths = Given::default().with_length("old_lift", inches(0.0)).with_length("set", set_of(vehicle, End::Rear));
    lengths.with_rate("added_rate", pounds_per_inch(0.0))
}

/// What it takes for the rear to stand in the middle of the aim. `None` over a rating and on a failed part, while there is no aim for the
/// rear, and while the rear was not read in the state that it speaks of.
pub fn what_it_takes(work: &Casework) -> Option<WhatItTakes> {
    if work.nothing_fits().is_some() {
        return None;
    }
    let (state, band) = work.target()?;
    let (wanted, stands) = (band.height, work.found().height(End::Rear, state)?.value);
    let gain = wanted - stands;
    let measured = work.rate().measured().filter(|_| gain > Length::default());
    let more_to_carry = measured.map(|measured| {
        let force = measured.rate * gain;
        Uncertain::new(force, force * measured.relative_sd)
    });
    let with = |part: &Correction| work.predictor().height_at_best(std::slice::from_ref(part), state);
    let looked_for = Wanted { vehicle: &work.found().vehicle, stands, wanted, with: &with };
    let fits = |sized: &&Sized| sized.row.ends.have_a_rear() && work.found().vehicle.fits_nowhere(sized.row).is_none();
    let kinds = SIZED.iter().filter(fits).map(|sized| KindNeeded {
        row: sized.row,
        figure: sized.figure,
        answer: needed(work, sized, state, &looked_for),
    });
    Some(WhatItTakes { state, stands, wanted, more_to_carry, kinds: kinds.collect() })
}

fn needed(work: &Casework, sized: &Sized, state: LoadState, looked_for: &Wanted<'_>) -> Needed {
    match size(sized, looked_for) {
        Ok((value, part)) => {
            let prediction = work.predictor().predict(&part);
            match prediction.at(state) {
                Ok(predicted) => {
                    let gates = work.gate_with(std::slice::from_ref(&part), &prediction);
                    Needed::Of { value, part, rear: predicted.rear, gates }
                }
                Err(why) => Needed::Unpredicted(why),
            }
        }
        Err(NoFigure::TooMuch) => Needed::TooMuch,
        Err(NoFigure::NotEnough) => Needed::NotEnough,
        Err(NoFigure::Unpredicted(why)) => Needed::Unpredicted(why),
    }
}

/// The figure of a kind with which the rear stands where it is wanted, and the part with it.
fn size(sized: &Sized, looked_for: &Wanted<'_>) -> Result<(Quantity, Correction), NoFigure> {
    let unsolved = NoFigure::Unpredicted(Unpredicted::NotSolved);
    let Some(bound) = bound_of(sized.row, sized.figure) else { return Err(unsolved) };
    // A figure that lowers is none that lifts.
    let least = bound.least.max(0.0);
    let part = |si: f64| {
        let given = (sized.others)(looked_for.vehicle).with(sized.figure, Quantity::of(bound.dimension, si));
        sized.row.correction(&given, Site::default()).map(|part| as_known(looked_for.vehicle, part))
    };
    let height = |si: f64| (looked_for.with)(&part(si).ok_or(Unpredicted::NotSolved)?);
    let si = search(least, bound.most, looked_for.wanted, &height)?;
    Ok((Quantity::of(bound.dimension, si), part(si).ok_or(unsolved)?))
}

/// The same of a kind by its row; `None` where no size is looked for of it, or none is found.
pub(crate) fn size_of(row: &KindRow, looked_for: &Wanted<'_>) -> Option<(&'static str, Quantity, Correction)> {
    let sized = SIZED.iter().find(|sized| sized.row == row)?;
    let (value, part) = size(sized, looked_for).ok()?;
    Some((sized.figure, value, part))
}

/// What is looked for: a height of the rear, and how a part is held against it.
pub(crate) struct Wanted<'w> {
    /// What parts are to go onto.
    pub(crate) vehicle: &'w VehicleFacts,
    /// Where the rear stands.
    pub(crate) stands: Length,
    /// Where it is to stand.
    pub(crate) wanted: Length,
    /// Where it stands with a part.
    pub(crate) with: &'w dyn Fn(&Correction) -> Result<Length, Unpredicted>,
}

/// Why no figure is found.
enum NoFigure {
    TooMuch,
    NotEnough,
    Unpredicted(Unpredicted),
}

/// The figure with which it stands as high as wanted, between the least and the most, the higher the more of it; a part that is pressed
/// past what it is made for is too little of one.
fn search(least: f64, most: f64, wanted: Length, height: &dyn Fn(f64) -> Result<Length, Unpredicted>) -> Result<f64, NoFigure> {
    let is_low = |si: f64| match height(si) {
        Ok(stands) => Ok(stands < wanted),
        Err(Unpredicted::PastThePart) => Ok(true),
        Err(why) => Err(NoFigure::Unpredicted(why)),
    };
    if !is_low(least)? {
        return Err(NoFigure::TooMuch);
    }
    if is_low(most)? {
        return Err(NoFigure::NotEnough);
    }
    let (mut low, mut high) = (least, most);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if is_low(middle)? { low = middle } else { high = middle }
    }
    Ok(high)
}

/// The parts of a shelf that bring the rear nearest to where the aim wants it, each as it is best set; those that anything rules out are
/// left out, but for what goes with them and makes that good.
pub fn nearest(work: &Casework, takes: &WhatItTakes, parts: &[ShelfPart]) -> Vec<Near> {
    let with = |part: &Correction| work.predictor().height_at_best(std::slice::from_ref(part), takes.state);
    let looked_for = Wanted { vehicle: &work.found().vehicle, stands: takes.stands, wanted: takes.wanted, with: &with };
    let mut near: Vec<(Length, usize, Tried)> = parts
        .iter()
        .enumerate()
        .filter_map(|(place, part)| {
            let tried = best_set(&looked_for, part)?;
            Some(((tried.height - takes.wanted).abs(), place, tried))
        })
        .collect();
    near.sort_by(|(one, ..), (other, ..)| one.partial_cmp(other).unwrap_or(std::cmp::Ordering::Equal));
    let sound = near.into_iter().filter_map(|(_, place, tried)| {
        let predicted = work.predictor().predict(&tried.part);
        let rear = predicted.at(takes.state).ok()?.rear;
        let gates = work.gate_with(std::slice::from_ref(&tried.part), &predicted);
        let curable = gates.iter().all(|gate| matches!(gate, Gate::TooShort(_)));
        let by_case = parts.get(place).map(|part| best_by_case(work, takes, part)).unwrap_or_default();
        curable.then_some(Near { place, part: tried.part, setting: tried.setting, by_case, rear, gates })
    });
    sound.take(MOST_NEAREST).collect()
}

/// A part as it is best set.
pub(crate) struct Tried {
    /// The part, so set.
    pub(crate) part: Correction,
    /// Where the rear then stands.
    pub(crate) height: Length,
    /// How it is set, where it is set.
    pub(crate) setting: Option<(&'static str, Quantity)>,
}

/// A part that lifts the rear by itself, as it is best set. `None` where it does not go there, or does not lift.
pub(crate) fn best_set(looked_for: &Wanted<'_>, part: &ShelfPart) -> Option<Tried> {
    let (row, vehicle) = (part.kind, looked_for.vehicle);
    if part.end == Some(EndWord::Front) || !row.ends.have_a_rear() || vehicle.fits_nowhere(row).is_some() {
        return None;
    }
    let height = |correction: &Correction| (looked_for.with)(correction).ok();
    let tried = |part: Correction, setting| {
        let height = height(&part)?;
        (height > looked_for.stands).then_some(Tried { part, height, setting })
    };
    match settable(part) {
        None => tried(behind(vehicle, part, None)?, None),
        Some((figure, bound)) => {
            let si = best_setting(looked_for, part, figure, bound);
            let set = behind(vehicle, part, Some(Setting { figure, dimension: bound.dimension, si }))?;
            tried(set, Some((figure, Quantity::of(bound.dimension, si))))
        }
    }
}

/// A part of the shelf as it goes onto a vehicle's rear; `None` where it does not.
fn behind(vehicle: &VehicleFacts, part: &ShelfPart, set: Option<Setting>) -> Option<Correction> {
    correction_of(vehicle, &entry_of(vehicle, part, Site::default(), set, TypedIn::default())?)
}

/// The setting between its limits at which the rear stands nearest: more of it lifts more, or less.
fn best_setting(looked_for: &Wanted<'_>, part: &ShelfPart, figure: &'static str, bound: Bound) -> f64 {
    let at = |si: f64| {
        let correction = behind(looked_for.vehicle, part, Some(Setting { figure, dimension: bound.dimension, si }));
        correction.and_then(|correction| (looked_for.with)(&correction).ok())
    };
    let rises = at(bound.most).unwrap_or_default() > at(bound.least).unwrap_or_default();
    let (mut low, mut high) = (bound.least, bound.most);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        let is_low = at(middle).is_some_and(|stands| stands < looked_for.wanted);
        if is_low == rises { low = middle } else { high = middle }
    }
    f64::midpoint(low, high)
}

/// How a bag is best filled in each other state and case, so that the rear stands as high there as the aim wants it: its least where the
/// rear stands higher without it. What is set once, when it is fitted, has no other setting.
fn best_by_case(work: &Casework, takes: &WhatItTakes, part: &ShelfPart) -> Vec<(WhenEntry, Quantity)> {
    let Some((figure, bound)) = settable(part).filter(|(_, bound)| bound.dimension == Dimension::Pressure) else {
        return Vec::new();
    };
    let (vehicle, predictor) = (&work.found().vehicle, work.predictor());
    let best = |with: &dyn Fn(&Correction) -> Result<Length, Unpredicted>| {
        let looked_for = Wanted { vehicle, stands: takes.stands, wanted: takes.wanted, with };
        let si = best_setting(&looked_for, part, figure, bound);
        // What cannot be predicted there has no best.
        let there = behind(vehicle, part, Some(Setting { figure, dimension: bound.dimension, si }))?;
        with(&there).ok().map(|_| Quantity::of(bound.dimension, si))
    };
    let others = work.found().states().filter(|state| *state != takes.state);
    let of_states = others.filter_map(|state| {
        let set = best(&|part| predictor.height_at_best(std::slice::from_ref(part), state))?;
        Some((WhenEntry::State(state), set))
    });
    let of_cases = work.cases().iter().filter_map(|case| {
        let plain = predictor.in_case(&case.survey, &[]).ok()?.rear.value;
        let with = |part: &Correction| Ok(plain + predictor.rises_in_case_at_best(&case.survey, std::slice::from_ref(part))?);
        Some((WhenEntry::Case(case.key), best(&with)?))
    });
    of_states.chain(of_cases).collect()
}

/// Words of the kinds of which parts are looked through.
pub fn kinds_looked_through(work: &Casework) -> Vec<&'static str> {
    let lifts = |row: &&'static KindRow| {
        ShelfPart::is_bought(row) && row.ends.have_a_rear() && work.found().vehicle.fits_nowhere(row).is_none()
    };
    KINDS.iter().copied().filter(lifts).map(|row| row.word).collect()
}
