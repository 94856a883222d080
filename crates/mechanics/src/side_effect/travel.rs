//! Bump and droop travel left, against stops and shock lengths.

use super::{OutOfRange, positive, within};
use crate::units::{InShopUnits, Length, metres};

/// A shock where the vehicle stands, and its limits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shock {
    /// Eye to eye as it stands.
    pub length: Length,
    /// Eye to eye fully closed.
    pub closed: Length,
    /// Eye to eye fully drawn out.
    pub extended: Length,
    /// Shock travel over wheel travel; above nought, 1 where it stands upright at the wheel.
    pub motion_ratio: f64,
}

/// Everything that ends a wheel's travel at one corner.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TravelLimits {
    /// The shock.
    pub shock: Shock,
    /// Clearance at the bump stop, where there is one.
    pub bump_gap: Option<Length>,
    /// Clearance at the rebound stop, strap or check, where there is one.
    pub droop_gap: Option<Length>,
}

/// What a wheel meets first at the end of its travel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TravelEnd {
    /// A stop, as it should be.
    Stop,
    /// The shock, which is then hammered at every bump or hangs the axle on its eyes.
    Shock,
}

/// How far a wheel can go one way, and what ends it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TravelLeft {
    /// Wheel travel left; negative, the part is past its limit as the vehicle stands.
    pub travel: Length,
    /// What ends it.
    pub ends_on: TravelEnd,
}

/// How a corner is raised.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RaisedBy {
    /// The axle goes further from the frame: a block, an arched spring, a coil or a coil spacer.
    AxleAway,
    /// A spacer on top of a strut moves spring, shock and stop together.
    WholeStrut,
}

impl TravelLimits {
    /// Wheel travel left in bump: the stop's clearance, or `(length − closed)/ratio` where the shock closes first.
    ///
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     geometry
    /// # Example
    /// ```
    /// use wise_badger_mechanics::side_effect::travel::{RaisedBy, Shock, TravelEnd, TravelLimits};
    /// use wise_badger_mechanics::units::{InShopUnits, inches};
    /// let shock = Shock { length: inches(20.0), closed: inches(15.0), extended: inches(23.0), motion_ratio: 1.0 };
    /// let limits = TravelLimits { shock, bump_gap: Some(inches(4.0)), droop_gap: None };
    /// // A 2 in block opens the stop's gap, and brings the shock that much nearer to its full length.
    /// let raised = limits.raised(inches(2.0), RaisedBy::AxleAway);
    /// assert!((raised.bump().expect("in range").travel.customary() - 6.0).abs() < 1e-9);
    /// let droop = raised.droop().expect("in range");
    /// assert!((droop.travel.customary() - 1.0).abs() < 1e-9 && droop.ends_on == TravelEnd::Shock);
    /// ```
    pub fn bump(&self) -> Result<TravelLeft, OutOfRange> {
        self.shock.left(self.shock.length - self.shock.closed, self.bump_gap)
    }

    /// Wheel travel left in droop: the rebound stop's clearance, or `(extended − length)/ratio` where the shock is drawn
    /// out first.
    ///
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     geometry
    pub fn droop(&self) -> Result<TravelLeft, OutOfRange> {
        self.shock.left(self.shock.extended - self.shock.length, self.droop_gap)
    }

    /// The same corner raised by so much at the wheel (negative: lowered), shock and stops left as they are.
    #[must_use]
    pub fn raised(self, by: Length, how: RaisedBy) -> Self {
        match how {
            // Spring, shock and stop keep their places to each other.
            RaisedBy::WholeStrut => self,
            RaisedBy::AxleAway => TravelLimits {
                shock: Shock { length: self.shock.length + by * self.shock.motion_ratio, ..self.shock },
                bump_gap: self.bump_gap.map(|gap| gap + by),
                droop_gap: self.droop_gap.map(|gap| gap - by),
            },
        }
    }
}

/// How much lower a wheel hangs from the body at full droop once it is raised by so much (at the wheel): a spacer on top of a strut takes
/// its droop limit down with it, while a shock that is left as it is lets an axle hang no lower.
///
/// # Sign       lower is positive
/// # Source     geometry
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::travel::{RaisedBy, hangs_lower};
/// use wise_badger_mechanics::units::inches;
/// assert_eq!(hangs_lower(inches(1.5), RaisedBy::WholeStrut), inches(1.5));
/// assert_eq!(hangs_lower(inches(1.5), RaisedBy::AxleAway), inches(0.0));
/// ```
pub fn hangs_lower(raised: Length, how: RaisedBy) -> Length {
    match how {
        RaisedBy::WholeStrut => raised,
        RaisedBy::AxleAway => metres(0.0),
    }
}

impl Shock {
    fn left(&self, stroke: Length, gap: Option<Length>) -> Result<TravelLeft, OutOfRange> {
        let closed = positive("closed length", self.closed)?;
        within("extended length", self.extended, self.extended.si() > closed, "more than the closed length")?;
        positive("length", self.length)?;
        let ratio = within("motion ratio", self.motion_ratio, self.motion_ratio > 0.0, "above zero")?;
        let shock = metres(stroke.si() / ratio);
        match gap {
            Some(gap) => {
                within("stop gap", gap, true, "a finite number")?;
                let ends_on = if gap <= shock { TravelEnd::Stop } else { TravelEnd::Shock };
                Ok(TravelLeft { travel: if gap <= shock { gap } else { shock }, ends_on })
            }
            None => Ok(TravelLeft { travel: shock, ends_on: TravelEnd::Shock }),
        }
    }
}
