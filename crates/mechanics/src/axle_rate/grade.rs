//! How far a rate can be leant on.

/// How far a rate can be leant on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RateGrade {
    /// One standard deviation is under 10 % of the rate.
    Good,
    /// Under 25 %.
    Rough,
}

impl RateGrade {
    /// The grade of a figure by its standard deviation as a share of it; `None` is too weak to say.
    pub fn of(relative_sd: f64) -> Option<Self> {
        match relative_sd {
            sd if sd < GOOD => Some(RateGrade::Good),
            sd if sd < ROUGH => Some(RateGrade::Rough),
            _ => None,
        }
    }
}

/// Share of the rate under which its standard deviation leaves it good.
pub const GOOD: f64 = 0.10;
/// And under which it is a rate at all.
const ROUGH: f64 = 0.25;
