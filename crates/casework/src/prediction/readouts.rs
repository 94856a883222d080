//! What is read off the vehicle where it stands: clearances, how it bounces, and how far leaf friction may hold it.

use wise_badger_mechanics::correction::{BUMP_STOP, Correction};
use wise_badger_mechanics::identification::{Forecast, Identified};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{AxleStance, Stance, bounce_frequency};
use wise_badger_mechanics::units::{InShopUnits, Length, metres, newtons};

use super::answer::Bounce;
use super::experiment::friction_share_sd;
use super::model::{FRONT, rear_axles, site_axles};
use super::predictor::Predictor;
use super::weighed::{Standing, Weighed, bears_by};
use crate::survey::{End, LoadState, Manner};

impl Predictor {
    /// The rear axle, or every axle of a trailer, where it stands.
    pub(super) fn rear<'f>(&self, stance: &'f Stance) -> impl Iterator<Item = &'f AxleStance> {
        rear_axles(&self.survey).iter().filter_map(|name| stance.axle(name))
    }

    /// The rear axle that the first part at the rear goes on; the first one, where it goes on all of them or on none.
    pub(super) fn axle<'f>(&self, forecast: &'f Forecast, parts: &[Correction]) -> Option<&'f AxleStance> {
        let of_parts = parts.iter().flat_map(|part| site_axles(&self.survey, part.site()));
        let at_the_rear = of_parts.filter(|name| rear_axles(&self.survey).contains(name));
        let its_own = at_the_rear.filter_map(|name| forecast.stance.axle(name)).next();
        its_own.or_else(|| self.rear(&forecast.stance).next())
    }

    /// How far leaf friction may hold an end from where it comes to rest once it was brought there in a manner, as one standard
    /// deviation, on the axle where that is most; nothing but leaves has any.
    pub(super) fn friction_sd(&self, weighed: &Weighed, standing: &Forecast, end: End, manner: Manner) -> Length {
        let assumed = self.survey.vehicle.assumptions();
        // In front the model has no unsprung weight told apart.
        let (names, unsprung) = match end {
            End::Front => (&[FRONT][..], newtons(0.0)),
            End::Rear => (rear_axles(&self.survey), assumed.rear_unsprung / f64::from(assumed.rear_axles)),
        };
        let of_axle = |axle: &AxleStance| {
            let share = friction_share_sd(&self.survey, &axle.name, weighed.friction(&axle.name), manner);
            metres(share * (axle.load() - unsprung).si().max(0.0) / axle.spring_rate.si())
        };
        let axles = names.iter().filter_map(|name| standing.stance.axle(name));
        axles.map(of_axle).fold(metres(0.0), Length::max)
    }

    pub(super) fn bounce(&self, axle: &AxleStance) -> Option<Bounce> {
        let assumed = self.survey.vehicle.assumptions();
        let sprung = axle.load() - assumed.rear_unsprung / f64::from(assumed.rear_axles);
        // What the gauge was set to is no regulator: on the road the bag's air is shut in.
        let rate = axle.shut_in_rate;
        Some(Bounce { rate, sprung, frequency: bounce_frequency(rate, sprung).ok()? })
    }

    /// How much further the frame stands off an axle; nought of one that the vehicle does not have.
    pub(super) fn off_the_axle(&self, from: &Standing, to: &Standing, axle: &str) -> Sides<Length> {
        let stands = |standing: &Standing, side| Some(*standing.leading().stance.axle(axle)?.hub_to_arch_change.get(side));
        Sides::from_fn(|side| stands(to, side).zip(stands(from, side)).map_or(Length::default(), |(to, from)| to - from))
    }

    /// How far the overload leaf is clear, by the account that is told; `None` where nobody looked at it.
    pub(super) fn overload_clear(&self, leading: &Identified, stands: &Standing) -> Option<Length> {
        let seen = self.survey.has_seen_its_overload_leaf();
        let bears = seen.then(|| bears_by(&self.survey, &leading.vehicle(), &stands.leading().stance)).flatten();
        bears.map(|by| -by)
    }

    /// The clearance at an element of the rear once something is fitted. A gap read in this state counts for more than one carried
    /// over from the empty state; what was not there before is where the model has it.
    pub(super) fn clearance(&self, element: &str, state: LoadState, plain: &Standing, fitted: &Standing) -> Option<Length> {
        let after = self.least_gap(&fitted.leading().stance, element)?;
        let read = self.survey.gap(state).zip(self.least_gap(&plain.leading().stance, element));
        Some(read.map_or(after, |(read, modelled)| read + after - modelled))
    }

    /// The clearance at an element, on the rear axle and the side where it is least. That at the stops is known only where it was read.
    pub(super) fn least_gap(&self, stance: &Stance, element: &str) -> Option<Length> {
        if element == BUMP_STOP && self.survey.gap(LoadState::Empty).is_none() {
            return None;
        }
        let gaps = self.rear(stance).flat_map(|axle| Side::BOTH.into_iter().filter_map(|side| axle.gap(side, element)));
        gaps.reduce(|one, other| one.min(other))
    }
}
