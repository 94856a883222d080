//! The one reading that would settle most: each that could still be taken, by how narrow it is to be expected to leave the rear rate.

use super::experiment::aboard;
use super::model::end_mark;
use super::predictor::Predictor;
use super::weighed::{Standing, Weighed, Weighty, bears_by, chance_seen, stop_bears_by};
use crate::survey::{End, FurtherLoad, FurtherState, LoadState, MOST_FURTHER, Manner, Survey};
use crate::verdict::RatingCheck;
use wise_badger_mechanics::identification::Told;
use wise_badger_mechanics::mixture::{Foreseen, ForeseenAnswer, Mixture, half_width_after_a_reading, half_width_after_an_answer};
use wise_badger_mechanics::stance::{Load, Stance, Vehicle};
use wise_badger_mechanics::tape::ReadingPrecision;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, metres, pounds};

/// A reading that could still be taken.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum NextReading {
    /// The clearance at the stops with the load on.
    StopGap,
    /// Whether the overload leaf bears with the load on.
    LeafContact,
    /// A state with so much more over the rear axle.
    MoreLoad(Force),
    /// A state with half of the load.
    HalfTheLoad,
    /// The rear of a state once more, the vehicle rolled and bounced before.
    Again(LoadState),
    /// The loaded rear pressed down, and lifted.
    PressedAndLifted,
}

/// The reading that would settle most, and what it is to be expected to leave.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Settling {
    /// Which.
    pub reading: NextReading,
    /// Half-width of the rate's band as it is, as a share of the rate.
    pub now: f64,
    /// And once it is read.
    pub then: f64,
}

/// What is foreseen of a reading, account by account.
enum Foresight {
    Figure(Vec<Foreseen>),
    Answer(Vec<ForeseenAnswer>),
}

/// A reading that narrows the band by less is not worth naming (our own working rule).
const WORTH_IT: f64 = 0.9;
/// Of the load, what is put on more for another reading; in whole steps, and no less than one.
const MORE_SHARE: f64 = 0.25;
const STEP_LB: f64 = 100.0;

/// What is foreseen of one kind of reading; `None` where it was taken already, or cannot be.
type Row = fn(&Ground<'_>) -> Option<(NextReading, Foresight)>;

/// Every reading that could be taken: a row a kind.
const READINGS: &[Row] = &[stop_gap, leaf_contact, more_load, half_the_load, empty_again, loaded_again, pressed_and_lifted];

/// What foresight is built on.
struct Ground<'a> {
    predictor: &'a Predictor,
    survey: &'a Survey,
    weighed: &'a Weighed,
    empty: &'a Standing,
    loaded: &'a Standing,
    /// The logarithm of the rate by every account.
    rates: Vec<(Told, &'a Weighty)>,
}

impl Predictor {
    /// The one reading that would narrow the rear rate's band most; `None` where no rate was measured, or none would by much.
    pub fn settles_most(&self) -> Option<Settling> {
        let weighed = self.weighed().ok()?;
        let (empty, loaded) = (self.plain(LoadState::Empty).ok()?, self.plain(LoadState::Loaded).ok()?);
        self.two_states().measured()?;
        let survey = self.survey();
        let rates = weighed.log_rates(survey, empty, loaded);
        let ground = Ground { predictor: self, survey, weighed, empty, loaded, rates };
        let now = Mixture::new(ground.rates.iter().map(|(told, account)| account.part(told)).collect());
        let now = now.half_width_about(now.mean());
        let then = |(reading, foresight): (NextReading, Foresight)| {
            let then = match foresight {
                Foresight::Figure(parts) => half_width_after_a_reading(&parts),
                Foresight::Answer(parts) => half_width_after_an_answer(&parts),
            };
            Settling { reading, now, then }
        };
        let each = READINGS.iter().filter_map(|row| row(&ground)).map(then);
        let best = each.min_by(|a, b| a.then.total_cmp(&b.then))?;
        (best.then < WORTH_IT * best.now).then_some(best)
    }
}

impl Ground<'_> {
    /// What every account says to a question of yes or no about the loaded vehicle.
    fn answer(&self, by: impl Fn(&Survey, &Vehicle, &Stance) -> Option<Length>) -> Foresight {
        let stands = |account: &Weighty| self.weighed.one(self.loaded).find(|(of, _)| std::ptr::eq(*of, account));
        let each = self.rates.iter().filter_map(|(told, account)| {
            let (_, forecast) = stands(account)?;
            let by = by(self.survey, &account.identified.vehicle(), &forecast.stance);
            Some(ForeseenAnswer { figure: account.part(told), yes: chance_seen(by) })
        });
        Foresight::Answer(each.collect())
    }

    /// What every account foresees of the rear's height in a standing, read once more after it was brought to rest in a manner.
    fn height(&self, standing: &Standing, manner: Manner, readings: f64) -> Option<Foresight> {
        let mark = end_mark(self.survey, End::Rear)?;
        let tape = ReadingPrecision::shop_tape();
        let by_tape = metres(tape.tape.si() / 2.0_f64.sqrt());
        let friction = self.predictor.friction_sd(self.weighed, standing.leading(), End::Rear, manner);
        let noise = Length::hypot(Length::hypot(by_tape, tape.settling), friction).si().powi(2) / readings;
        let each = self.rates.iter().filter_map(|(told, account)| {
            let (_, forecast) = self.weighed.one(standing).find(|(of, _)| std::ptr::eq(*of, *account))?;
            let height = account.identified.height_told(forecast, &mark)?;
            let variance = account.identified.covariance(&height, &height).max(0.0) + noise;
            Some(Foreseen {
                figure: account.part(told),
                reading: height.value,
                reading_sd: variance.sqrt(),
                covariance: account.identified.covariance(&height, told),
            })
        });
        Some(Foresight::Figure(each.collect()))
    }

    /// What is aboard loaded.
    fn loads(&self) -> Vec<Load> {
        aboard(self.survey, &self.survey.axle_loads()).0.loads
    }

    fn with_loads(&self, loads: &[Load]) -> Option<Standing> {
        self.weighed.plain(self.predictor.index(LoadState::Loaded), Some(loads)).ok()
    }
}

fn stop_gap(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    ground.survey.gap(LoadState::Loaded).is_none().then(|| (NextReading::StopGap, ground.answer(stop_bears_by)))
}

fn leaf_contact(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    let seen = ground.survey.overload_leaves.bears.get(LoadState::Loaded).is_some_and(Option::is_some);
    let on_leaves = ground.survey.vehicle.rests_on_leaves() && ground.survey.vehicle.rear_pack.is_none();
    (on_leaves && !seen).then(|| (NextReading::LeafContact, ground.answer(bears_by)))
}

fn more_load(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    let change = ground.survey.axle_loads().change.rear?.value;
    let more = pounds(((MORE_SHARE * change.customary() / STEP_LB).round() * STEP_LB).max(STEP_LB));
    if change <= Force::default() || passes_a_rating(ground.survey, more) {
        return None;
    }
    let mut loads = ground.loads();
    loads.push(Load::at(more, ground.survey.vehicle.wheelbase));
    let standing = ground.with_loads(&loads)?;
    Some((NextReading::MoreLoad(more), ground.height(&standing, Manner::Rolled, 1.0)?))
}

/// Whether so much more over the rear axle would pass any rating: nothing is put on past one, not for a reading either.
fn passes_a_rating(survey: &Survey, more: Force) -> bool {
    let mut heavier = survey.clone();
    let load = FurtherLoad::Over { state: LoadState::Loaded, more: Some((more, Length::default())) };
    heavier.further.push(FurtherState { key: MOST_FURTHER + 1, name: String::new(), load, test_weight: true });
    let checks = RatingCheck::of_state(&heavier, LoadState::Further(MOST_FURTHER + 1));
    checks.is_empty() || checks.iter().any(|check| check.margin() < Force::default())
}

fn half_the_load(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    let halved: Vec<Load> = ground.loads().into_iter().map(|load| Load { weight: load.weight / 2.0, ..load }).collect();
    // Once there is a state between, another says little that is new.
    if !ground.survey.further.is_empty() {
        return None;
    }
    let standing = ground.with_loads(&halved)?;
    Some((NextReading::HalfTheLoad, ground.height(&standing, Manner::Rolled, 1.0)?))
}

fn empty_again(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    Some((NextReading::Again(LoadState::Empty), ground.height(ground.empty, Manner::Rolled, 1.0)?))
}

fn loaded_again(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    Some((NextReading::Again(LoadState::Loaded), ground.height(ground.loaded, Manner::Rolled, 1.0)?))
}

/// Two readings, of which each is held one way by all the friction that there is: their mean is nearly free of it.
fn pressed_and_lifted(ground: &Ground<'_>) -> Option<(NextReading, Foresight)> {
    let on_leaves = ground.survey.vehicle.rests_on_leaves();
    let held = ground.survey.states().any(|state| ground.survey.manner(state).is_held_by_friction());
    if !on_leaves || held {
        return None;
    }
    Some((NextReading::PressedAndLifted, ground.height(ground.loaded, Manner::PressedDown, 2.0)?))
}
