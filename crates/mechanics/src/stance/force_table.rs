//! A measured force table, drawn through by a monotone cubic.

use crate::units::{Force, InShopUnits, Length};

/// Why a list of points is not a force table.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum ForceTableError {
    /// Fewer than two points, or more than 200.
    #[error("a force table needs 2 to {max} points, this one has {0}", max = ForceTable::MOST_POINTS)]
    Count(usize),
    /// A point that is not a finite number.
    #[error("point {0} of the force table is not a finite number")]
    NotFinite(usize),
    /// Travel that does not grow from point to point, or does not start at nought.
    #[error("travel must start at 0 and grow from point to point; point {0} of the force table does not")]
    Travel(usize),
    /// A force that falls, or does not start at nought.
    #[error("force must start at 0 and never fall; point {0} of the force table does")]
    Force(usize),
}

/// Force of a rubber or stop against its compression.
///
/// Between the points runs the monotone piecewise cubic of Fritsch and Butland, "A method for
/// constructing local monotone piecewise cubic interpolants", SIAM J. Sci. Stat. Comput. 5 (1984),
/// 300–304, in its weighted-harmonic-mean form for uneven steps: it never overshoots, so a force
/// that rises in the table rises between the points. Past the last point the curve goes on at its
/// last slope, which never falls below the slope of the last step: a rubber does not soften.
///
/// # Sign       compression and force are positive
/// # Valid      2 to 200 points from (0, 0), travel growing, force never falling
#[derive(Debug, Clone, PartialEq)]
pub struct ForceTable {
    travel_m: Vec<f64>,
    force_n: Vec<f64>,
    slope_n_per_m: Vec<f64>,
}

impl ForceTable {
    /// The most points a table may have.
    pub const MOST_POINTS: usize = 200;

    /// Makes a table from (compression, force) points.
    ///
    /// # Errors     [`ForceTableError`] names the point, counted from 1
    /// # Example
    /// ```
    /// use wise_badger_mechanics::stance::ForceTable;
    /// use wise_badger_mechanics::units::{InShopUnits, metres, newtons};
    /// let table = ForceTable::new(&[(metres(0.0), newtons(0.0)), (metres(0.01), newtons(400.0)), (metres(0.02), newtons(1200.0))]).expect("as given");
    /// assert!((table.force(metres(0.01)).si() - 400.0).abs() < 1e-9);
    /// ```
    pub fn new(points: &[(Length, Force)]) -> Result<Self, ForceTableError> {
        if !(2..=Self::MOST_POINTS).contains(&points.len()) {
            return Err(ForceTableError::Count(points.len()));
        }
        let (mut last_travel, mut last_force) = (None, 0.0);
        for (number, (travel, force)) in (1..).zip(points) {
            let (travel, force) = (travel.si(), force.si());
            if !travel.is_finite() || !force.is_finite() {
                return Err(ForceTableError::NotFinite(number));
            }
            let (travel_holds, force_holds) = match last_travel {
                None => (travel.abs() <= 0.0, force.abs() <= 0.0),
                Some(last) => (travel > last, force >= last_force),
            };
            if !travel_holds {
                return Err(ForceTableError::Travel(number));
            }
            if !force_holds {
                return Err(ForceTableError::Force(number));
            }
            (last_travel, last_force) = (Some(travel), force);
        }
        let travel_m: Vec<f64> = points.iter().map(|(travel, _)| travel.si()).collect();
        let force_n: Vec<f64> = points.iter().map(|(_, force)| force.si()).collect();
        let slope_n_per_m = monotone_slopes(&travel_m, &force_n);
        Ok(ForceTable { travel_m, force_n, slope_n_per_m })
    }

    /// One of so many times the force at every compression.
    pub(super) fn times(&self, factor: f64) -> Self {
        let times = |values: &[f64]| values.iter().map(|value| value * factor).collect();
        ForceTable { travel_m: self.travel_m.clone(), force_n: times(&self.force_n), slope_n_per_m: times(&self.slope_n_per_m) }
    }

    /// Force at a compression; nought when not compressed.
    pub fn force(&self, compression: Length) -> Force {
        crate::units::newtons(self.force_and_rate(compression.si()).0)
    }

    /// The points as given, for showing them again.
    pub fn points(&self) -> impl Iterator<Item = (Length, Force)> {
        self.travel_m
            .iter()
            .zip(&self.force_n)
            .map(|(travel, force)| (crate::units::metres(*travel), crate::units::newtons(*force)))
    }

    /// Force (N) and slope (N/m) at a compression (m).
    #[expect(clippy::indexing_slicing, reason = "the three vectors are of one length of two or more, and `cell` stays below it")]
    pub(super) fn force_and_rate(&self, compression_m: f64) -> (f64, f64) {
        if compression_m <= 0.0 {
            return (0.0, 0.0);
        }
        if compression_m.is_nan() {
            return (compression_m, compression_m);
        }
        let last = self.travel_m.len() - 1;
        if compression_m >= self.travel_m[last] {
            let step_slope = (self.force_n[last] - self.force_n[last - 1]) / (self.travel_m[last] - self.travel_m[last - 1]);
            let slope = self.slope_n_per_m[last].max(step_slope);
            return (self.force_n[last] + slope * (compression_m - self.travel_m[last]), slope);
        }
        let cell = self.travel_m.partition_point(|travel| *travel <= compression_m) - 1;
        let width = self.travel_m[cell + 1] - self.travel_m[cell];
        let rise = (self.force_n[cell + 1] - self.force_n[cell]) / width;
        let (start, end) = (self.slope_n_per_m[cell], self.slope_n_per_m[cell + 1]);
        // Cubic Hermite: F = F0 + t(d0 + t(c2 + t c3)), c2 = (3Δ − 2d0 − d1)/h, c3 = (d0 + d1 − 2Δ)/h².
        let second = (3.0 * rise - 2.0 * start - end) / width;
        let third = (start + end - 2.0 * rise) / (width * width);
        let t = compression_m - self.travel_m[cell];
        (self.force_n[cell] + t * (start + t * (second + t * third)), start + t * (2.0 * second + 3.0 * t * third))
    }
}

/// Slopes at the points that keep the cubic monotone.
#[expect(clippy::indexing_slicing, reason = "every index is below the common length of the inputs")]
fn monotone_slopes(x: &[f64], y: &[f64]) -> Vec<f64> {
    let count = x.len();
    let width: Vec<f64> = x.windows(2).map(|w| w[1] - w[0]).collect();
    let rise: Vec<f64> = width.iter().zip(y.windows(2)).map(|(h, w)| (w[1] - w[0]) / h).collect();
    if count == 2 {
        return vec![rise[0]; 2];
    }
    let mut slopes = vec![0.0; count];
    for i in 1..count - 1 {
        if rise[i - 1] > 0.0 && rise[i] > 0.0 {
            // d = (w1 + w2) / (w1/Δ₋ + w2/Δ₊), w1 = 2h₊ + h₋, w2 = h₊ + 2h₋.
            let (w1, w2) = (2.0 * width[i] + width[i - 1], width[i] + 2.0 * width[i - 1]);
            slopes[i] = (w1 + w2) / (w1 / rise[i - 1] + w2 / rise[i]);
        }
    }
    slopes[0] = end_slope(width[0], width[1], rise[0], rise[1]);
    slopes[count - 1] = end_slope(width[count - 2], width[count - 3], rise[count - 2], rise[count - 3]);
    slopes
}

/// The three-point slope at an end, held to the range that keeps the end step monotone.
fn end_slope(near_width: f64, far_width: f64, near_rise: f64, far_rise: f64) -> f64 {
    let slope = ((2.0 * near_width + far_width) * near_rise - near_width * far_rise) / (near_width + far_width);
    // Rises are never negative here, so the limits of the published scheme are 0 and 3Δ.
    slope.clamp(0.0, 3.0 * near_rise)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::{metres, newtons};
    use proptest::prelude::*;

    fn table(points: &[(f64, f64)]) -> Result<ForceTable, ForceTableError> {
        ForceTable::new(&points.iter().map(|(t, f)| (metres(*t), newtons(*f))).collect::<Vec<_>>())
    }

    #[test]
    fn a_bad_point_is_named() {
        assert_eq!(table(&[(0.0, 0.0)]), Err(ForceTableError::Count(1)));
        assert_eq!(table(&[(0.0, 0.0), (f64::NAN, 1.0)]), Err(ForceTableError::NotFinite(2)));
        assert_eq!(table(&[(0.0, 0.0), (0.01, 5.0), (0.01, 6.0)]), Err(ForceTableError::Travel(3)));
        assert_eq!(table(&[(0.0, 0.0), (0.01, 5.0), (0.02, 4.0)]), Err(ForceTableError::Force(3)));
        assert_eq!(table(&[(0.0, 7.0), (0.01, 8.0)]), Err(ForceTableError::Force(1)));
    }

    proptest! {
        /// Fritsch and Butland's property: monotone data give a monotone curve through every point, slope continuous.
        #[test]
        fn the_curve_rises_with_its_points(steps in prop::collection::vec((0.001_f64..0.02, 0.0_f64..4000.0), 2..12)) {
            let mut points = vec![(0.0, 0.0)];
            for (dt, df) in steps {
                let (t, f) = points[points.len() - 1];
                points.push((t + dt, f + df));
            }
            let table = table(&points).expect("a rising table");
            for (t, f) in points.iter().skip(1) {
                let (before, at, after) = (table.force_and_rate(t - 1e-9), table.force_and_rate(*t), table.force_and_rate(t + 1e-12));
                prop_assert!((at.0 - f).abs() < 1e-6);
                prop_assert!(before.0 <= at.0 + 1e-6 && at.0 <= after.0 + 1e-6);
            }
            let end = points[points.len() - 1].0 * 1.2;
            let mut last = 0.0;
            for i in 0..=400 {
                let (force, slope) = table.force_and_rate(end * f64::from(i) / 400.0);
                prop_assert!(force >= last - 1e-9 * (1.0 + last), "falls at {i}");
                prop_assert!(slope >= -1e-6);
                last = force;
            }
        }
    }
}
