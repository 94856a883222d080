//! The rear rate of the vehicle that agrees best with everything that was read.

use super::model::rear_axles;
use super::weighed::{Standing, Story, Weighed};
use crate::survey::{End, LoadState, Survey};
use crate::verdict::{Agreed, MeasuredStages, RateFigure, RateVerdict};
use wise_badger_mechanics::axle_rate::RateGrade;
use wise_badger_mechanics::mixture::Mixture;
use wise_badger_mechanics::stance::{AxleStance, Vehicle};
use wise_badger_mechanics::units::{InShopUnits, Length, SpringRate, newtons, newtons_per_metre};

/// The figure from two states brought to the rate that the identified vehicle has over the same travel: what its rear springs gain from
/// empty to loaded, over how far they come down. It is the leading account's; how sure it is goes by all accounts.
pub(super) fn agreed(
    survey: &Survey,
    figure: &RateFigure,
    weighed: &Weighed,
    empty: &Standing,
    loaded: &Standing,
) -> Option<RateVerdict> {
    let rates = weighed.log_rates(survey, empty, loaded);
    let (leading, _) = rates.first()?;
    let parts = rates.iter().map(|(told, account)| account.part(told));
    let relative_sd = Mixture::new(parts.collect()).half_width_about(leading.value) / 2.0;
    let rate = newtons_per_metre(leading.value.exp());
    let down = springs_down(survey, empty, loaded);
    let agreed = Agreed { load_change: newtons(rate.si() * down.si()), spring_drop: down };
    let Some(grade) = RateGrade::of(relative_sd) else {
        return Some(RateVerdict::TooWeak {
            relative_sd: relative_sd.is_finite().then_some(relative_sd),
            load_needed: figure.load_for_ten_percent,
            load_change: figure.load_change,
            drop: figure.drop,
        });
    };
    let grade = if tells_springs_alone(survey, weighed) { grade } else { RateGrade::Rough };
    let leads = weighed.leading();
    let stages = if leads.story == Story::SecondStage { stages_of(survey, &leads.identified.vehicle()) } else { None };
    Some(RateVerdict::Measured(RateFigure { rate, relative_sd, grade, stages, agreed: Some(agreed), ..*figure }))
}

/// With which odds one story alone may be called good beside the others, and with which where nobody looked at stops or leaves (our own
/// working rules; the table of truth shows what they are worth).
const LIKELY: f64 = 0.55;
const BEYOND_DOUBT: f64 = 0.95;

/// Whether the springs can be told from what else may have borne: by the gap with the load on, by whether the overload leaf bears then,
/// or by heights in so many states that no other story fits. Two heights never tell.
fn tells_springs_alone(survey: &Survey, weighed: &Weighed) -> bool {
    let leaf_seen = survey.overload_leaves.bears.get(LoadState::Loaded).is_some_and(Option::is_some);
    let least = if survey.gap(LoadState::Loaded).is_some() || leaf_seen { LIKELY } else { BEYOND_DOUBT };
    let read = survey.states().filter(|state| survey.height(End::Rear, *state).is_some()).count();
    let seen = least < BEYOND_DOUBT || read > 2;
    seen && weighed.odds().first().is_some_and(|(_, odds)| *odds >= least)
}

/// How far the rear springs come down from empty to loaded, by the leading account.
fn springs_down(survey: &Survey, empty: &Standing, loaded: &Standing) -> Length {
    let names = rear_axles(survey);
    let both = |name: &str| empty.leading().stance.axle(name).zip(loaded.leading().stance.axle(name));
    let down = |axle: &AxleStance| -(axle.hub_to_arch_change.left + axle.hub_to_arch_change.right) / 2.0;
    #[expect(clippy::cast_precision_loss, reason = "three axles at most")]
    let count = names.len().max(1) as f64;
    names.iter().filter_map(|name| both(name)).map(|(empty, loaded)| down(loaded) - down(empty)).sum::<Length>() / count
}

/// The two rates that the identified vehicle's rear springs have, all together.
fn stages_of(survey: &Survey, vehicle: &Vehicle) -> Option<MeasuredStages> {
    let names = rear_axles(survey);
    let axle = vehicle.axles.iter().find(|axle| names.first() == Some(&axle.name.as_str()))?;
    let spring = &axle.corners.left.spring;
    let stage = spring.stages.first()?;
    #[expect(clippy::cast_precision_loss, reason = "three axles at most")]
    let springs = 2.0 * names.len() as f64;
    let all = |rate: SpringRate| springs * rate;
    Some(MeasuredStages { from: stage.at_travel, first: all(spring.rate), added: all(stage.added_rate) })
}
