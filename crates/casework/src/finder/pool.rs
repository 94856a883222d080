//! The parts of a shelf that go onto a vehicle and move it, each in the place where it would do some good.

use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::{Axles, Correction, Site, TakesUp, rearched_pack};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres, psi};

use super::found::{Refused, Wanting};
use super::search::{Counted, Search};
use crate::aim::{Aim, GoalMark};
use crate::back_solve::{Needed, what_it_takes};
use crate::casework::{Casework, as_known};
use crate::entry::{CorrectionEntry, EndWord, OptionEntry, PartEntry, ShelfPart};
use crate::shelf_fit::{Setting, as_if, correction_of, entry_of, figures_wanted, settable};
use crate::survey::{End, LoadState, NoFit};

/// What a part does in a combination, which has one of each at most.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Role {
    /// The main spring is made another.
    MainSpring,
    /// Something helps it under load.
    LoadHelp,
    /// A block or a spacer raises it.
    Height,
    /// The front is raised.
    Front,
}

/// A part in its place, set in one way.
#[derive(Debug, Clone)]
pub(super) struct Piece {
    /// Its place on the shelf; none for work on what is there.
    pub(super) place: Option<usize>,
    pub(super) entry: PartEntry,
    pub(super) correction: Correction,
    pub(super) role: Role,
}

/// All that goes onto the vehicle, and what does not.
pub(super) struct Pool {
    pub(super) pieces: Vec<Piece>,
    pub(super) refused: Vec<Refused>,
    pub(super) wanting: Vec<Wanting>,
}

/// A lean smaller than this is nobody's (our own working rule).
const A_LEAN_IN: f64 = 0.25;

pub(super) fn pool(search: &Search<'_>, counted: &mut Counted) -> Pool {
    let mut pool = Pool { pieces: Vec::new(), refused: Vec::new(), wanting: Vec::new() };
    for (place, part) in search.shelf.iter().enumerate() {
        let before = (pool.pieces.len(), pool.refused.len());
        let mut wants_a_figure = false;
        for site in sites(search.work, part) {
            for set in settings(part) {
                let entry = entry_of(&search.work.found().vehicle, part, site, set, search.units);
                wants_a_figure |= entry.is_none();
                if let Some(entry) = entry {
                    put(search.work, &mut pool, place, part, entry);
                }
            }
        }
        let fits = pool.pieces.len() > before.0;
        counted.fit += usize::from(fits);
        if wants_a_figure && (pool.pieces.len(), pool.refused.len()) == before {
            pool.wanting.extend(wanting(search, part));
        }
    }
    counted.want_a_figure = pool.wanting.len();
    pool.pieces.extend(rearched(search));
    pool
}

/// What a part that would go onto the vehicle asks of it that nobody took.
fn wanting(search: &Search<'_>, part: &ShelfPart) -> Option<Wanting> {
    let vehicle = &search.work.found().vehicle;
    let goes_on = |site: &Site| {
        let correction = as_if(vehicle, part, *site, search.units).filter(|correction| role(correction).is_some());
        correction.is_some_and(|correction| vehicle.no_fit_of(&correction).is_none_or(|no_fit| !goes_without_saying(&no_fit)))
    };
    let site = sites(search.work, part).into_iter().find(goes_on)?;
    let figures = figures_wanted(vehicle, part.kind, site).into_iter().map(|figure| figure.name).collect();
    Some(Wanting { number: part.number.clone(), name: part.name.clone(), kind: part.kind, figures })
}

/// A part in a place joins the pool, or what is refused, or neither where it is nothing for this vehicle.
fn put(work: &Casework, pool: &mut Pool, place: usize, part: &ShelfPart, entry: CorrectionEntry) {
    let Some(correction) = entry.correction().filter(|correction| correction.problems().is_empty()) else { return };
    let correction = as_known(&work.found().vehicle, correction);
    let Some(role) = role(&correction).filter(|_| !is_a_shim(work, &correction)) else { return };
    if work.found().vehicle.no_fit_of(&correction).is_some_and(|no_fit| goes_without_saying(&no_fit)) {
        return;
    }
    let entry = PartEntry { shelf: Some(Box::new(part.clone())), ..PartEntry::by_itself(entry) };
    let gates = work.gate(std::slice::from_ref(&correction));
    if gates.is_empty() {
        pool.pieces.push(Piece { place: Some(place), entry, correction, role });
    } else if pool.refused.last().is_none_or(|last| last.places != [Some(place)]) {
        let option = OptionEntry { name: String::new(), parts: vec![entry] };
        pool.refused.push(Refused {
            option,
            places: vec![Some(place)],
            gates,
            unpredicted: None,
            misses_the_aim: None,
            asks: Vec::new(),
        });
    }
}

/// Whether nobody wonders why a part does not go on: what is for coils goes on no leaves.
fn goes_without_saying(no_fit: &NoFit) -> bool {
    match no_fit {
        NoFit::NoLeaves(..)
        | NoFit::NothingClamped(..)
        | NoFit::NoCoils(..)
        | NoFit::NoFront
        | NoFit::NotUnder(_)
        | NoFit::NoShackles
        | NoFit::NoBlockThere(_)
        | NoFit::NoneComesOut(_) => true,
        NoFit::Lowers(_)
        | NoFit::OnABlock(_)
        | NoFit::OnAir(_)
        | NoFit::OneComesOut(_)
        | NoFit::OtherComesOut(_)
        | NoFit::NotSaid(_)
        | NoFit::CoilsNotSaid(_) => false,
    }
}

/// What a part does, by what it takes up and where; `None` of what only goes along with others.
pub(super) fn role(correction: &Correction) -> Option<Role> {
    use TakesUp::*;
    let in_front = correction.site().axles == Axles::Front;
    match correction.takes_up() {
        MainSpring | OverloadLeaf | Shackle | Seat | CoilSeat | Helper | Stop | InsideTheCoil if in_front => Some(Role::Front),
        MainSpring | OverloadLeaf | Shackle => Some(Role::MainSpring),
        Helper | Stop | InsideTheCoil => Some(Role::LoadHelp),
        Seat | CoilSeat => Some(Role::Height),
        Tires | Bar | BarLinks | Shocks | Hoses | UBolts | TrackBar | RadiusArms | Differential => None,
    }
}

/// Less of a lift than this is none: what is tapered and lifts by less is there for the pinion's sake (our own working rule).
const A_LIFT_IN: f64 = 0.5;

/// Whether it is there to turn the pinion, and goes along with what turned it: a shim, and anything tapered where no shaft is.
fn is_a_shim(work: &Casework, correction: &Correction) -> bool {
    let tapered = correction.tapers().value.abs() > 0.0;
    tapered && (work.found().vehicle.class.is_trailer() || correction.off_the_seat() < inches(A_LIFT_IN))
}

/// Where a part could go: both sides of an end, and where the vehicle leans and that is to be put right, its low side alone.
fn sites(work: &Casework, part: &ShelfPart) -> Vec<Site> {
    let ends = part.kind.ends;
    let may = |end: EndWord| part.end.is_none_or(|made_for| made_for == end);
    let trailer = work.found().vehicle.class.is_trailer();
    let behind = ends.have_a_rear() && may(EndWord::Rear) && speaks_of_the_rear(work);
    // In front only where the aim speaks of the front: nobody lifts it for the rear's sake.
    let in_front = ends.have_a_front() && may(EndWord::Front) && !trailer && speaks_of_the_front(work);
    let both = [(behind, Axles::Rear, End::Rear), (in_front, Axles::Front, End::Front)];
    let of_end = |(goes, axles, end): (bool, Axles, End)| {
        let low = low_side(work, end).filter(|_| part.kind.goes_on_one_side);
        let sides = std::iter::once(None).chain(low.map(Some));
        goes.then(|| sides.map(move |side| Site { axles, side }).collect::<Vec<_>>())
    };
    both.into_iter().filter_map(of_end).flatten().collect()
}

/// Whether the customer came for the rear: not where every goal is of the front, and nothing that he complains of is of the rear.
fn speaks_of_the_rear(work: &Casework) -> bool {
    let mark = |goal: Aim| goal.wanted(work.found()).map(|(mark, _)| mark);
    let of_the_front = |goal| matches!(mark(goal), Some(GoalMark::Front | GoalMark::Lean(End::Front)));
    let mut complaints = work.case().sheet.complaints.iter();
    complaints.any(|complaint| complaint.is_of_the_rear()) || !work.goals().all(of_the_front)
}

/// Whether a goal may want the front higher. A rake does where the rear stands too high over the front, or where the rear is lifted for
/// another goal's sake; where the rear is low, a front that comes up only asks for more of it.
fn speaks_of_the_front(work: &Casework) -> bool {
    let about = |goal: &Aim| goal.wanted(work.found()).map(|(mark, _)| mark);
    let is_of_the_rear = |goal: Aim| matches!(about(&goal), Some(GoalMark::Rear | GoalMark::Point { .. }));
    let lifted_all_the_same = work.goals().any(is_of_the_rear);
    let rear_is_low = |place| work.above_goal(place).is_some_and(|above| above < Length::default());
    work.goals().enumerate().any(|(place, goal)| match about(&goal) {
        Some(GoalMark::Front | GoalMark::Lean(End::Front)) => true,
        Some(GoalMark::Rake) => lifted_all_the_same || !rear_is_low(place),
        _ => false,
    })
}

/// The side of an end that stands lower, where a goal speaks of its lean.
fn low_side(work: &Casework, end: End) -> Option<Side> {
    let spoken_of = work.goals().any(|goal| goal.wanted(work.found()).is_some_and(|(mark, _)| mark == GoalMark::Lean(end)));
    let survey = work.found();
    let side = |side, state| Some(survey.side(end, state, side)?.value);
    let lean = |state| Some(side(Side::Right, state)? - side(Side::Left, state)?);
    let lean: Length = lean(LoadState::Empty).or_else(|| lean(LoadState::Loaded))?;
    let leans = spoken_of && lean.abs() > inches(A_LEAN_IN);
    leans.then_some(if lean > Length::default() { Side::Left } else { Side::Right })
}

/// The ways in which a part is tried first: as its box says, and where it is set when it is fitted, from its least to its most.
fn settings(part: &ShelfPart) -> Vec<Option<Setting>> {
    let Some((figure, bound)) = settable(part) else { return vec![None] };
    let (steps, step) = match bound.dimension {
        Dimension::Pressure => (2.0, psi(1.0).si()),
        _ => (1.0, inches(0.125).si()),
    };
    let most = if bound.dimension == Dimension::Pressure { bound.most } else { bound.least + inches(0.5).si() };
    let at = |share: f64| {
        let si = ((bound.least + share * (most - bound.least)) / step).round() * step;
        Some(Setting { figure, dimension: bound.dimension, si: si.clamp(bound.least, bound.most) })
    };
    if steps > 1.0 { vec![at(0.0), at(0.5), at(1.0)] } else { vec![at(0.0), at(1.0)] }
}

/// Further than this no pack is arched again by its free height alone: past it the leaves' own sizes say, on the bench, what they bear
/// (our own working rule).
const MOST_ARCHED_IN: f64 = 2.0;

/// The leaves that are there, arched again by what the aim asks for, or as far as is usual.
fn rearched(search: &Search<'_>) -> Option<Piece> {
    let takes = what_it_takes(search.work)?;
    let needed = takes.kinds.iter().find(|kind| *kind.row == rearched_pack::ROW)?;
    let Needed::Of { value, .. } = &needed.answer else { return None };
    // As near as anybody arches.
    let step = inches(0.125).si();
    let gained = metres((value.si()? / step).round().max(1.0) * step).min(inches(MOST_ARCHED_IN));
    let gained = search.units.length(gained);
    let entry = CorrectionEntry::of(needed.row, [(needed.figure, gained.into())]).ok()?;
    let correction = correction_of(&search.work.found().vehicle, &entry)?;
    let sound = search.work.gate(std::slice::from_ref(&correction)).is_empty();
    sound.then(|| Piece { place: None, entry: PartEntry::by_itself(entry), correction, role: Role::MainSpring })
}
