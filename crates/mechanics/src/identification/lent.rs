//! What one account of the readings lends another: by how much the figures move a vehicle.

use super::doubt::Doubt;
use super::experiment::Unknown;
use super::forecast::Told;
use super::moving::Moving;
use super::posterior::Identified;

/// What an account borrows of another: of every figure that its forecasts do not move, how far it moves the vehicle. Near enough where
/// both are vehicles alike in what is lent.
#[derive(Debug, Clone)]
pub struct Borrowing {
    each: Vec<Borrowed>,
}

/// One figure of it.
#[derive(Debug, Clone, Copy)]
struct Borrowed {
    place: usize,
    /// Its place with the account that lends.
    theirs: usize,
    /// How much wider it is left to the account that borrows.
    wider: f64,
}

impl Borrowing {
    /// A figure told of a forecast in which not everything was moved, with the rest laid over it as the lending account tells the same.
    pub fn whole(&self, mut told: Told, as_told: &Told) -> Told {
        for borrowed in &self.each {
            // Told for each standard deviation that the other leaves it, meant for each that this one leaves it.
            let slope = as_told.slope(borrowed.theirs) * borrowed.wider;
            told.set_slope(borrowed.place, if slope.is_finite() { slope } else { 0.0 });
        }
        told
    }
}

impl Identified {
    /// What forecasts of this account borrow of another, of all that they do not move. `None` where the other has not all of it.
    pub fn borrowing(&self, other: &Identified, moving: Moving<'_>) -> Option<Borrowing> {
        let of_the_vehicle =
            |figure: &Unknown| matches!(figure, Unknown::Doubt(_) | Unknown::LoadWeight { .. } | Unknown::LoadPlace { .. });
        let figures = self.figures.iter().enumerate();
        let not_moved = figures.filter(|(_, figure)| of_the_vehicle(figure) && !moving.moves(&self.experiment, figure));
        let borrowed = |(place, figure)| {
            let theirs = self.place_in(other, figure)?;
            let wider = self.off_by(place, figure) / other.off_by(theirs, other.figures.get(theirs)?);
            Some(Borrowed { place, theirs, wider })
        };
        Some(Borrowing { each: not_moved.map(borrowed).collect::<Option<Vec<_>>>()? })
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
