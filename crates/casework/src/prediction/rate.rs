//! The rear rate of the vehicle that agrees best with everything that was read.

use super::model::rear_axles;
use crate::survey::Survey;
use crate::verdict::{Agreed, MeasuredStages, RateFigure};
use wise_badger_mechanics::identification::Forecast;
use wise_badger_mechanics::stance::{AxleStance, Vehicle};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, newtons_per_metre};

/// The figure from two states brought to the rate that the identified vehicle has over the same travel: what its rear axles gain from
/// empty to loaded, over how far their springs come down.
///
/// The front readings and the place of the load have a say in that; without them it is the figure from the two states. How sure it
/// is stays as the two states make it, which is never less than what all readings together leave open.
pub(super) fn agreed(
    survey: &Survey,
    figure: &RateFigure,
    vehicle: &Vehicle,
    empty: &Forecast,
    loaded: &Forecast,
) -> Option<RateFigure> {
    let names = rear_axles(survey);
    let both = |name: &str| empty.stance.axle(name).zip(loaded.stance.axle(name));
    let pairs: Vec<(&AxleStance, &AxleStance)> = names.iter().filter_map(|name| both(name)).collect();
    let down = |axle: &AxleStance| -(axle.hub_to_arch_change.left + axle.hub_to_arch_change.right) / 2.0;
    let load_change: Force = pairs.iter().map(|(empty, loaded)| loaded.load() - empty.load()).sum();
    #[expect(clippy::cast_precision_loss, reason = "three axles at most")]
    let spring_drop: Length =
        pairs.iter().map(|(empty, loaded)| down(loaded) - down(empty)).sum::<Length>() / pairs.len().max(1) as f64;
    let rate = newtons_per_metre(load_change.si() / spring_drop.si());
    let stages = figure.stages.filter(|_| survey.vehicle.rear_pack.is_none()).and_then(|_| stages_of(names, vehicle));
    let sound = rate.si().is_finite() && rate.si() > 0.0;
    let agreed = Agreed { load_change, spring_drop };
    sound.then_some(RateFigure { rate, stages: stages.or(figure.stages), agreed: Some(agreed), ..*figure })
}

/// The two rates that the identified vehicle's rear springs have, all together.
fn stages_of(names: &[&str], vehicle: &Vehicle) -> Option<MeasuredStages> {
    let axle = vehicle.axles.iter().find(|axle| names.first() == Some(&axle.name.as_str()))?;
    let spring = &axle.corners.left.spring;
    let stage = spring.stages.first()?;
    #[expect(clippy::cast_precision_loss, reason = "three axles at most")]
    let springs = 2.0 * names.len() as f64;
    Some(MeasuredStages { from: stage.at_travel, first: springs * spring.rate, added: springs * stage.added_rate })
}
