//! What about a vehicle is in doubt.

use crate::axle_rate::RateGrade;
use crate::stance::{Axle, Corner, ElementKind, StopCurve, Vehicle};
use crate::units::Length;

/// A figure of the vehicle that may be off by a factor.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Doubtful {
    /// The main springs of an axle, stages and all, both sides by one factor.
    SpringRate,
    /// The right main spring of an axle against its left: the factor lies between them, half of it on either side.
    RightOverLeft,
    /// Where the stages of an axle's main springs begin to bear.
    StageTravel,
    /// What the stages add, against the first rate.
    StageRate,
    /// The clearance at an axle's bump stops, at kerb.
    StopGap,
    /// How hard an axle's bump stops are.
    StopRate,
    /// The tyres of an axle.
    TyreRate,
    /// An axle's anti-roll bar.
    AntiRoll,
}

/// A doubt, and how large it is before anything is read.
#[derive(Debug, Clone, PartialEq)]
pub struct Doubt {
    /// What may be off.
    pub what: Doubtful,
    /// On which axles; several are off by one factor.
    pub axles: Vec<String>,
    /// Standard deviation of the logarithm of the factor: roughly, the share by which it may be off. Above nought; 3 is
    /// as good as knowing nothing.
    pub relative_sd: f64,
}

/// What the readings say about one doubt.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Share {
    /// Natural logarithm of the factor on the figure that the vehicle was given with.
    pub log_factor: f64,
    /// Standard deviation of that logarithm, from the readings and what was believed before.
    pub relative_sd: f64,
    /// Of the doubt that there was, how much the readings took away: 0 nothing, 1 all.
    pub told_by_readings: f64,
}

impl Share {
    /// The factor on the figure that the vehicle was given with.
    pub fn factor(&self) -> f64 {
        self.log_factor.exp()
    }

    /// How far the figure can be leant on; `None` when it is too weak to say, or only believed and not read.
    pub fn grade(&self) -> Option<RateGrade> {
        RateGrade::of(self.relative_sd).filter(|_| self.told_by_readings > 0.5)
    }
}

impl Doubt {
    /// Lays a factor over the vehicle.
    pub(super) fn apply(&self, vehicle: &mut Vehicle, log_factor: f64) {
        let factor = log_factor.exp();
        for axle in vehicle.axles.iter_mut().filter(|axle| self.axles.contains(&axle.name)) {
            match self.what {
                Doubtful::SpringRate => each_corner(axle, |corner| scale_spring(corner, factor)),
                Doubtful::RightOverLeft => {
                    let half = (log_factor / 2.0).exp();
                    scale_spring(&mut axle.corners.left, 1.0 / half);
                    scale_spring(&mut axle.corners.right, half);
                }
                Doubtful::StageTravel => each_corner(axle, |corner| {
                    corner.spring.stages.iter_mut().for_each(|stage| stage.at_travel *= factor);
                }),
                Doubtful::StageRate => each_corner(axle, |corner| {
                    corner.spring.stages.iter_mut().for_each(|stage| stage.added_rate *= factor);
                }),
                Doubtful::StopGap => each_stop(axle, |gap, _| *gap *= factor),
                Doubtful::StopRate => each_stop(axle, |_, curve| *curve = curve.times(factor)),
                Doubtful::TyreRate => axle.tyre_rate *= factor,
                Doubtful::AntiRoll => axle.anti_roll *= factor,
            }
        }
    }
}

fn each_corner(axle: &mut Axle, work: impl Fn(&mut Corner)) {
    work(&mut axle.corners.left);
    work(&mut axle.corners.right);
}

fn each_stop(axle: &mut Axle, work: impl Fn(&mut Length, &mut StopCurve)) {
    each_corner(axle, |corner| {
        for element in &mut corner.elements {
            if let ElementKind::Bump { gap, curve, .. } = &mut element.kind {
                work(gap, curve);
            }
        }
    });
}

fn scale_spring(corner: &mut Corner, factor: f64) {
    corner.spring.rate *= factor;
    corner.spring.stages.iter_mut().for_each(|stage| stage.added_rate *= factor);
}
