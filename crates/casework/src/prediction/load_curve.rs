//! Where the rear stands under any weight on its axle: one curve of the vehicle as it is, another with parts fitted.

use wise_badger_mechanics::correction::{BUMP_STOP, Correction};
use wise_badger_mechanics::stance::{Load, Vehicle};
use wise_badger_mechanics::units::{Force, InShopUnits, Length};

use super::answer::Unpredicted;
use super::model::end_mark;
use super::predictor::Predictor;
use crate::survey::{End, LoadState};

/// So many steps along a curve.
const STEPS: u8 = 24;

impl Predictor {
    /// Where the rear stands with parts fitted and from nothing up to `most` put over the rear axle, by the account that is told: weight
    /// beyond empty, and height. The curve ends where a part or the pack is bent past what it can be worked out for, or where stops
    /// bear whose force nobody knows.
    ///
    /// # Errors     [`Unpredicted`] where not even the empty vehicle is predicted
    pub fn load_curve(&self, parts: &[Correction], most: Force) -> Result<Vec<(Force, Length)>, Unpredicted> {
        self.may_be_predicted(parts, LoadState::Empty)?;
        let before = self.survey.height(End::Rear, LoadState::Empty).ok_or(Unpredicted::NotMeasured)?;
        let (plain, identified) = (self.plain(LoadState::Empty)?.leading(), &self.weighed()?.leading().identified);
        let (index, mark) = (self.index(LoadState::Empty), end_mark(&self.survey, End::Rear).ok_or(Unpredicted::NotSolved)?);
        let mut curve = Vec::with_capacity(usize::from(STEPS) + 1);
        for step in 0..=STEPS {
            let weight = most * (f64::from(step) / f64::from(STEPS));
            let loads = [Load::at(weight, self.survey.vehicle.wheelbase)];
            let changes = |vehicle: &Vehicle| self.changes(parts, vehicle);
            let there = identified.stand_with_loads(index, &loads, changes).map_err(|error| self.note(error));
            let stands = there.and_then(|there| {
                self.holds_where_it_stands(parts, identified, &there)?;
                if self.least_gap(&there, BUMP_STOP).is_some_and(|left| left.si() < 0.0) {
                    return Err(Unpredicted::OnTheStops);
                }
                Ok(before.value + plain.higher_in(&there, &mark).ok_or(Unpredicted::NotSolved)?)
            });
            match stands {
                Ok(height) => curve.push((weight, height)),
                Err(why) if curve.is_empty() => return Err(why),
                Err(_) => break,
            }
        }
        Ok(curve)
    }
}
