//! Axle and gross ratings against what the axles carry, and what must come off.

use crate::survey::{AxleLoads, Basis, End, Ends, Item, LoadPut, LoadState, Survey};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, metres, newtons};

/// What a rating is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rated {
    /// One axle.
    Axle(End),
    /// The whole vehicle.
    Gross,
    /// All tyres of one end.
    Tyres(End),
    /// All wheels of one end.
    Wheels(End),
    /// The vehicle's own hitch.
    Hitch,
}

impl Rated {
    /// The share of an item that counts against the rating.
    fn share_of(self, item: &Item, wheelbase: Length) -> f64 {
        match self {
            Rated::Axle(end) | Rated::Tyres(end) | Rated::Wheels(end) => item.share_on(end, wheelbase),
            Rated::Gross => 1.0,
            Rated::Hitch => f64::from(u8::from(item.on_hitch)),
        }
    }
}

/// One rating in one state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RatingCheck {
    /// What is rated.
    pub rated: Rated,
    /// In which state.
    pub state: LoadState,
    /// What it carries.
    pub load: Force,
    /// What it may carry.
    pub rating: Force,
    /// Whether all of that load was weighed or stated, or some of it assumed.
    pub basis: Basis,
    /// What it carries at least: what was weighed or stated of it, and of an assumed empty weight what no vehicle of the class is below.
    pub at_least: Force,
}

/// No vehicle is lighter than this share of what is assumed for its class (our own working rule).
const LEAST_OF_CLASS: f64 = 0.7;

/// What is assumed of a load, and how much of that there may not be.
#[derive(Clone, Copy)]
struct Assumed {
    anything: bool,
    may_lack: Force,
}

impl RatingCheck {
    /// What may still be added; negative, it is over by so much.
    pub fn margin(&self) -> Force {
        self.rating - self.load
    }

    /// Whether it is passed by what was weighed or stated alone.
    pub fn is_surely_over(&self) -> bool {
        self.margin().si() < 0.0 && self.at_least > self.rating
    }

    /// Every rating that can be checked, in every state.
    pub fn all(survey: &Survey) -> Vec<RatingCheck> {
        survey.states().flat_map(|state| Self::of_state(survey, state)).collect()
    }

    /// Every rating that can be checked in a state: axles, tyres and wheels of either end, the whole vehicle, the hitch.
    pub fn of_state(survey: &Survey, state: LoadState) -> Vec<RatingCheck> {
        let vehicle = &survey.vehicle;
        let Some(loads) = survey.axle_loads_in(state) else { return Vec::new() };
        let mut checks = Vec::new();
        for end in End::BOTH {
            let Some(load) = carried(&loads, end, state) else { continue };
            let (count, assumed) = (f64::from(vehicle.tyre_count(end)), assumed(survey, &loads, end, state));
            let each = |rating: &Option<Force>| rating.filter(|_| count > 0.0).map(|one| count * one);
            let ratings = [
                (Rated::Axle(end), Some(*vehicle.axle_ratings.get(end))),
                (Rated::Tyres(end), each(vehicle.tyre_ratings.get(end))),
                (Rated::Wheels(end), each(vehicle.wheel_ratings.get(end))),
            ];
            let rated = ratings.into_iter().filter_map(|(rated, rating)| Some((rated, rating?)));
            checks.extend(rated.map(|(rated, rating)| assumed.check(rated, state, load, rating)));
        }
        let whole = carried(&loads, End::Front, state).zip(carried(&loads, End::Rear, state));
        if let (Some((front, rear)), Some(rating)) = (whole, vehicle.gross_rating) {
            let [front_assumed, rear_assumed] = End::BOTH.map(|end| assumed(survey, &loads, end, state));
            checks.push(front_assumed.and(rear_assumed).check(Rated::Gross, state, front + rear, rating));
        }
        if let Some(rating) = vehicle.hitch_rating
            && let Some(load) = on_the_hitch(survey, state, |_| true)
        {
            let assumed = on_the_hitch(survey, state, |item| item.basis == Basis::Assumed);
            let assumed = Assumed { anything: assumed.is_some(), may_lack: assumed.unwrap_or_default() };
            checks.push(assumed.check(Rated::Hitch, state, load, rating));
        }
        checks
    }
}

impl Assumed {
    fn and(self, other: Assumed) -> Self {
        Assumed { anything: self.anything || other.anything, may_lack: self.may_lack + other.may_lack }
    }

    fn check(self, rated: Rated, state: LoadState, load: Force, rating: Force) -> RatingCheck {
        let basis = if self.anything { Basis::Assumed } else { Basis::Stated };
        RatingCheck { rated, state, load, rating, basis, at_least: load - self.may_lack }
    }
}

/// What of a load on an axle is assumed: nothing where a scale said what it carries.
fn assumed(survey: &Survey, loads: &AxleLoads, end: End, state: LoadState) -> Assumed {
    let empty = match loads.empty_basis.get(end) {
        Basis::Stated => Assumed { anything: false, may_lack: newtons(0.0) },
        Basis::Assumed => Assumed { anything: true, may_lack: (1.0 - LEAST_OF_CLASS) * *loads.empty.get(end) },
    };
    let weighed = |scale: &Ends<Option<Force>>| scale.get(end).is_some();
    if matches!(survey.put_in(state), Some(LoadPut::Planned { scale, .. }) if weighed(scale)) {
        return Assumed { anything: false, may_lack: newtons(0.0) };
    }
    let usual = survey.items_in(state).iter().filter(|item| item.basis == Basis::Assumed);
    let usual: Vec<f64> = usual.map(|item| item.weight.si() * item.share_on(end, survey.vehicle.wheelbase)).collect();
    // One that lightens the axle does not make it carry less by not being there.
    let may_lack = newtons(usual.iter().filter(|share| **share > 0.0).sum());
    empty.and(Assumed { anything: !usual.is_empty(), may_lack })
}

/// What an end carries in a state; `None` where what came aboard is not known.
pub fn carried(loads: &AxleLoads, end: End, state: LoadState) -> Option<Force> {
    if state == LoadState::Empty { Some(*loads.empty.get(end)) } else { loads.loaded(end) }
}

/// What presses on the hitch; `None` where nothing does.
fn on_the_hitch(survey: &Survey, state: LoadState, counts: impl Fn(&Item) -> bool) -> Option<Force> {
    let aboard = survey.vehicle.always.iter().chain(survey.items_in(state));
    let load: Force = aboard.filter(|item| item.on_hitch && counts(item)).map(|item| item.weight).sum();
    (load > newtons(0.0)).then_some(load)
}

/// How an overload is put right. No spring does it.
#[derive(Debug, Clone, PartialEq)]
pub enum Relief {
    /// Weight comes off where the load sits.
    TakeOff {
        /// How much.
        weight: Force,
        /// Where, rearward from the rear axle; absent when the axles were weighed and the place is not known.
        behind_rear_axle: Option<Length>,
        /// Moving the whole load this far forward would do instead, where the front axle can take it.
        or_move_forward: Option<Length>,
    },
    /// Things of the load plan come off, in whole or in part.
    TakeOffItems {
        /// Which, by its place among the items aboard, and how much of it; the most useful first.
        off: Vec<(usize, Force)>,
        /// Moving the first of them this far forward would do instead, where the front axle can take it.
        or_move_forward: Option<Length>,
    },
    /// Empty weight alone is over: taking the load off does not help.
    EmptyIsOver,
}

/// One rating or more is passed.
#[derive(Debug, Clone, PartialEq)]
pub struct Overload {
    /// The ratings passed.
    pub over: Vec<RatingCheck>,
    /// How to put it right.
    pub relief: Relief,
    /// What the rear axle carries less once that is done.
    pub rear_relief: Force,
}

impl Overload {
    /// Finds the ratings passed, empty or loaded, and what must come off, or `None` when all hold. What is read beside those two is
    /// told by [`RatingCheck::all`]: a test weight is taken off again, and a case of the plan is judged with the plan.
    ///
    /// For an axle that carries a share `s` of the load at its place (`x/L` rear, `1 − x/L` front, 1 for
    /// the gross rating), an excess `e` goes when `e/s` comes off there. Moving the load forward by `d`
    /// takes `W·d/L` off the rear axle and puts it on the front.
    ///
    /// # Source     lever arms; any statics text
    pub fn of(survey: &Survey) -> Option<Overload> {
        let checks = LoadState::BOTH.into_iter().flat_map(|state| RatingCheck::of_state(survey, state));
        let over: Vec<RatingCheck> = checks.filter(|check| check.margin().si() < 0.0).collect();
        if over.is_empty() {
            return None;
        }
        let (relief, rear_relief) = relief(survey, &over);
        Some(Overload { over, relief, rear_relief })
    }

    /// Whether any of them is passed by what was weighed or stated alone. Otherwise the vehicle is to be weighed first.
    pub fn is_sure(&self) -> bool {
        self.over.iter().any(RatingCheck::is_surely_over)
    }
}

fn relief(survey: &Survey, over: &[RatingCheck]) -> (Relief, Force) {
    let nothing = newtons(0.0);
    let wheelbase = survey.vehicle.wheelbase;
    if over.iter().any(|check| check.state == LoadState::Empty) {
        return (Relief::EmptyIsOver, nothing);
    }
    match &survey.load {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => {
            let item = Item::at(*weight, *behind_rear_axle);
            let need = |check: &RatingCheck| -check.margin().si() / check.rated.share_of(&item, wheelbase);
            let off = over.iter().map(need).fold(0.0, f64::max);
            let or_move_forward = move_forward(survey, over, *weight);
            let relief = Relief::TakeOff { weight: newtons(off), behind_rear_axle: Some(*behind_rear_axle), or_move_forward };
            (relief, newtons(off * item.rear_share(wheelbase)))
        }
        Some(LoadPut::Planned { items, .. }) => take_off_items(survey, over, items),
        _ => {
            let excess = |end| {
                let checks = over.iter().filter(move |check| check.rated == Rated::Axle(end));
                checks.map(|check| -check.margin().si()).fold(0.0, f64::max)
            };
            let gross =
                over.iter().filter(|check| check.rated == Rated::Gross).map(|check| -check.margin().si()).fold(0.0, f64::max);
            let off = (excess(End::Front) + excess(End::Rear)).max(gross);
            let relief = Relief::TakeOff { weight: newtons(off), behind_rear_axle: None, or_move_forward: None };
            (relief, newtons(excess(End::Rear)))
        }
    }
}

/// Takes off, time and again, as much as need be of the item that weighs most on the rating furthest passed.
fn take_off_items(survey: &Survey, over: &[RatingCheck], items: &[Item]) -> (Relief, Force) {
    let wheelbase = survey.vehicle.wheelbase;
    // Those that hold are counted too: what comes off at one end weighs on the other.
    let checks = RatingCheck::of_state(survey, LoadState::Loaded);
    let mut excess: Vec<(Rated, f64)> = checks.iter().map(|check| (check.rated, -check.margin().si())).collect();
    let mut left: Vec<f64> = items.iter().map(|item| item.weight.si()).collect();
    let mut off: Vec<(usize, Force)> = Vec::new();
    while let Some((rated, most)) = excess.iter().copied().max_by(|a, b| a.1.total_cmp(&b.1)).filter(|(_, most)| *most > 1e-6) {
        let eases = |index: usize, item: &Item| left.get(index).map_or(0.0, |weight| weight * rated.share_of(item, wheelbase));
        let best = items.iter().enumerate().max_by(|(a, x), (b, y)| eases(*a, x).total_cmp(&eases(*b, y)));
        // What is left over is empty weight, or came on the scale without being on the plan.
        let Some((index, item)) = best.filter(|(index, item)| eases(*index, item) > 1e-6) else { break };
        let Some(remaining) = left.get_mut(index) else { break };
        let taken = remaining.min(most / rated.share_of(item, wheelbase));
        *remaining -= taken;
        for (rated, excess) in &mut excess {
            *excess -= taken * rated.share_of(item, wheelbase);
        }
        match off.iter_mut().find(|(of, _)| *of == index) {
            Some((_, weight)) => *weight += newtons(taken),
            None => off.push((index, newtons(taken))),
        }
    }
    let first = off.first().and_then(|(index, _)| items.get(*index));
    let or_move_forward = first.and_then(|item| move_forward(survey, over, item.weight));
    let relieved = off.iter().filter_map(|(index, weight)| Some(*weight * items.get(*index)?.rear_share(wheelbase))).sum();
    (Relief::TakeOffItems { off, or_move_forward }, relieved)
}

/// How far forward the whole load would have to go, where only the rear axle is over and the front has room.
fn move_forward(survey: &Survey, over: &[RatingCheck], weight: Force) -> Option<Length> {
    let [RatingCheck { rated: Rated::Axle(End::Rear), .. }] = over else { return None };
    let excess = -over.first()?.margin();
    let front = survey.axle_loads().loaded(End::Front)?;
    let front_has_room = front + excess <= *survey.vehicle.axle_ratings.get(End::Front);
    let shift = metres(excess.si() * survey.vehicle.wheelbase.si() / weight.si());
    (front_has_room && shift < survey.vehicle.wheelbase).then_some(shift)
}
