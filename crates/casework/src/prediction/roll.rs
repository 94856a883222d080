//! How far the body leans when something pulls it to one side.

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::stance::{Change, SidewaysPull, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Angle, Force, Length, radians};

use super::answer::Unpredicted;
use super::model::stiffer_in_roll;
use super::predictor::Predictor;
use crate::survey::LoadState;

impl Predictor {
    /// By how much the body leans in a state with parts fitted when it is pulled to one side, as by a strap, at a height above the
    /// ground, half-way along its wheelbase.
    ///
    /// How stiff the vehicle is in roll beside its rear springs, nobody measured: the answer lies half-way between bare springs and a
    /// heavy bar in front, and half of what lies between them is one standard deviation, as where the sides rise unlike. What the weight
    /// that leans out adds by itself is left out, before and after alike.
    ///
    /// # Sign       always positive: how far, whichever way it is pulled
    /// # Errors     [`Unpredicted`] as of a prediction; [`Unpredicted::NotSolved`] where it does not stand so
    pub fn leans_when_pulled(
        &self,
        parts: &[Correction],
        state: LoadState,
        force: Force,
        height: Length,
    ) -> Result<Uncertain<Angle>, Unpredicted> {
        self.may_be_predicted(parts, state)?;
        let (index, identified) = (self.index(state), &self.weighed()?.leading().identified);
        let pull = SidewaysPull { force, height, position: self.survey.vehicle.wheelbase / 2.0 };
        let leans = |stiffer: &[Change]| -> Result<Uncertain<f64>, Unpredicted> {
            let changes = |vehicle: &Vehicle| [&self.changes(parts, vehicle)[..], stiffer].concat();
            let still = identified.forecast(index, changes).map_err(|error| self.note(error))?;
            self.holds_where_it_stands(parts, identified, &still.stance)?;
            let pulled = identified.forecast_pulled(index, pull, changes).map_err(|error| self.note(error))?;
            // The right side goes down where it is pulled to the right: a roll below nought.
            let told = identified.tell(&[&still, &pulled], |_, stances| match stances {
                [still, pulled] => Some((still.roll - pulled.roll).value.abs()),
                _ => None,
            });
            let told = told.ok_or(Unpredicted::NotSolved)?;
            Ok(Uncertain::new(told.value, identified.covariance(&told, &told).sqrt()))
        };
        let bare = leans(&[])?;
        // Parts are not quite what was said of them; those of one kind may be off alike, so what they leave open is added up.
        let mut by_parts = 0.0;
        for (place, part) in parts.iter().enumerate() {
            for (_, pair) in part.one_deviation_off() {
                let mut moved = 0.0_f64;
                for other in pair {
                    let mut off = parts.to_vec();
                    if let Some(there) = off.get_mut(place) {
                        *there = other;
                    }
                    let changes = |vehicle: &Vehicle| self.changes(&off, vehicle);
                    let still = identified.stand(index, changes).map_err(|error| self.note(error))?;
                    let pulled = identified.stand_pulled(index, pull, changes).map_err(|error| self.note(error))?;
                    moved = moved.max(((still.roll - pulled.roll).value.abs() - bare.value).abs());
                }
                by_parts += moved;
            }
        }
        let Some(bar) = stiffer_in_roll(&self.survey) else {
            return Ok(Uncertain::new(radians(bare.value), radians(bare.sd.hypot(by_parts))));
        };
        let stiff = leans(&[bar])?;
        let (middle, apart) = ((bare.value + stiff.value) / 2.0, (bare.value - stiff.value).abs() / 2.0);
        Ok(Uncertain::new(radians(middle), radians(apart.hypot(bare.sd).hypot(by_parts))))
    }
}
