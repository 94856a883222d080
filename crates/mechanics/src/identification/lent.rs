//! What one account of the readings lends another: by how much the figures move a vehicle.

use super::doubt::Doubt;
use super::experiment::Unknown;
use super::forecast::Told;
use super::moving::Moving;
use super::posterior::Identified;

impl Identified {
    /// Whether another account has every figure that forecasts of this one do not move, so that it may lend how they move the vehicle.
    pub fn may_borrow_of(&self, other: &Identified, moving: Moving<'_>) -> bool {
        self.not_moved(moving).all(|(_, figure)| self.place_in(other, figure).is_some())
    }

    /// A figure told of a forecast in which not everything was moved, by how much the rest moves it lent by another account that tells
    /// the same: near enough where both are vehicles alike in what is lent. `None` where the other has not all of it.
    pub fn lent(&self, mut told: Told, moving: Moving<'_>, of: (&Identified, &Told)) -> Option<Told> {
        let (other, as_told) = of;
        for (place, figure) in self.not_moved(moving) {
            let theirs = self.place_in(other, figure)?;
            // Told for each standard deviation that the other leaves it, meant for each that this one leaves it.
            let wider = self.off_by(place, figure) / other.off_by(theirs, other.figures.get(theirs)?);
            let slope = as_told.slope(theirs) * wider;
            told.set_slope(place, if slope.is_finite() { slope } else { 0.0 });
        }
        Some(told)
    }

    fn not_moved<'i>(&'i self, moving: Moving<'i>) -> impl Iterator<Item = (usize, &'i Unknown)> {
        let of_the_vehicle =
            |figure: &Unknown| matches!(figure, Unknown::Doubt(_) | Unknown::LoadWeight { .. } | Unknown::LoadPlace { .. });
        let figures = self.figures.iter().enumerate();
        figures.filter(move |(_, figure)| of_the_vehicle(figure) && !moving.moves(&self.experiment, figure))
    }

    /// Where another account has the same figure.
    fn place_in(&self, other: &Identified, figure: &Unknown) -> Option<usize> {
        let Unknown::Doubt(index) = figure else { return other.figures.iter().position(|there| there == figure) };
        let own = self.experiment.doubts.get(*index)?;
        let same = |doubt: &Doubt| doubt.what == own.what && doubt.axles == own.axles;
        other.figures.iter().position(|there| match there {
            Unknown::Doubt(index) => other.experiment.doubts.get(*index).is_some_and(same),
            _ => false,
        })
    }

    /// One standard deviation of a figure, in a measure that is one for all accounts.
    fn off_by(&self, place: usize, figure: &Unknown) -> f64 {
        let unit = match figure {
            Unknown::Doubt(index) => self.experiment.doubts.get(*index).map_or(1.0, |doubt| doubt.relative_sd),
            _ => 1.0,
        };
        unit * self.sd(place)
    }
}
