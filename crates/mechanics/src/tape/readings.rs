//! Repeat readings at the corners, and what they are good for.

use crate::side::{Side, Sides};
use crate::uncertain::Uncertain;
use crate::units::{InShopUnits, Length, inches, metres};

/// How well a tape reads a vehicle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadingPrecision {
    /// Standard deviation of one reading of the tape.
    pub tape: Length,
    /// The step the tape is read to.
    pub resolution: Length,
    /// How far the vehicle itself comes to rest differently each time; repeat readings do not average it out.
    pub settling: Length,
}

impl ReadingPrecision {
    /// What a shop tape read to 1/16 in does: 1/16 in a reading, 1/16 in of settling (common practice).
    pub fn shop_tape() -> Self {
        let sixteenth = inches(1.0 / 16.0);
        ReadingPrecision { tape: sixteenth, resolution: sixteenth, settling: sixteenth }
    }

    /// Standard deviation of the mean height of an axle.
    ///
    /// `σ_H² = σ_tape² / n + resolution² / (12·sides) + σ_settle²`, `n` all readings taken on the axle.
    fn of_axle(&self, readings: usize, sides: usize) -> Length {
        #[expect(clippy::cast_precision_loss, reason = "a handful of readings")]
        let (readings, sides) = (readings as f64, sides as f64);
        let variance =
            self.tape.si().powi(2) / readings + self.resolution.si().powi(2) / (12.0 * sides) + self.settling.si().powi(2);
        metres(variance.sqrt())
    }
}

/// Readings of one axle, all from one datum.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct AxleReadings {
    /// Every reading taken at either corner.
    pub corners: Sides<Vec<Length>>,
}

/// Several reads of one thing.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Repeats {
    /// How many.
    pub count: usize,
    /// From the least to the most.
    pub apart: Length,
    /// Their mean.
    pub mean: Length,
}

impl Repeats {
    /// What several reads come to; `None` of none.
    pub fn of(reads: &[Length]) -> Option<Self> {
        let values = || reads.iter().map(InShopUnits::si);
        let (least, most) = values().fold((f64::INFINITY, f64::NEG_INFINITY), |(l, m), v| (l.min(v), m.max(v)));
        #[expect(clippy::cast_precision_loss, reason = "a handful of readings")]
        let count = reads.len() as f64;
        let mean = || metres(values().sum::<f64>() / count);
        (!reads.is_empty()).then(|| Repeats { count: reads.len(), apart: metres(most - least), mean: mean() })
    }
}

/// What else was read, to hold a height against while it is typed.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Beside {
    /// Another read of the same corner.
    pub repeat: Option<Length>,
    /// The other side of the axle.
    pub other_side: Option<Length>,
    /// The same rear corner, empty, when this is a loaded height.
    pub empty: Option<Length>,
}

/// Why a height is worth a second look as soon as it is typed. A question, no refusal.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ReadingDoubt {
    /// So far from another read of the same corner.
    Repeat(Length),
    /// So far from the other side.
    Side(Length),
    /// So much higher loaded than empty.
    Rise(Length),
}

impl ReadingDoubt {
    /// What does not fit: repeats over 1/4 in apart, sides over 2 in apart, a rear over 1/8 in higher loaded (common practice).
    pub fn of(read: Length, beside: &Beside) -> Option<Self> {
        let apart = |other: Option<Length>, most: f64| other.map(|other| (read - other).abs()).filter(|by| *by > inches(most));
        let rise = || beside.empty.map(|empty| read - empty).filter(|rise| *rise > inches(0.125));
        let repeat = apart(beside.repeat, 0.25).map(ReadingDoubt::Repeat);
        repeat.or_else(|| apart(beside.other_side, 2.0).map(ReadingDoubt::Side)).or_else(|| rise().map(ReadingDoubt::Rise))
    }
}

impl AxleReadings {
    /// Mean of a corner's readings.
    pub fn corner(&self, side: Side) -> Option<Length> {
        Repeats::of(self.corners.get(side)).map(|repeats| repeats.mean)
    }

    /// Height of the axle: the mean of its sides, or of the one side read.
    pub fn height(&self, precision: &ReadingPrecision) -> Option<Uncertain<Length>> {
        let sides: Vec<f64> = Side::BOTH.into_iter().filter_map(|side| self.corner(side)).map(|mean| mean.si()).collect();
        if sides.is_empty() {
            return None;
        }
        #[expect(clippy::cast_precision_loss, reason = "one or two sides")]
        let mean = sides.iter().sum::<f64>() / sides.len() as f64;
        let readings = self.corners.left.len() + self.corners.right.len();
        Some(Uncertain::new(metres(mean), precision.of_axle(readings, sides.len())))
    }

    /// Standard deviation of half the lean: what either side may be off beside the axle, whose mean is not moved by it. `None`
    /// where one side was not read. Settling moves both sides alike, and has no part in it.
    ///
    /// `σ² = (σ_tape²/n_left + σ_tape²/n_right + 2·resolution²/12) / 4`
    pub fn half_lean_sd(&self, precision: &ReadingPrecision) -> Option<Length> {
        self.lean()?;
        #[expect(clippy::cast_precision_loss, reason = "a handful of readings")]
        let one = |side| 1.0 / self.corners.get(side).len() as f64;
        let tape = precision.tape.si().powi(2) * (one(Side::Left) + one(Side::Right));
        Some(metres(((tape + precision.resolution.si().powi(2) / 6.0) / 4.0).sqrt()))
    }

    /// How much higher the right side stands than the left.
    pub fn lean(&self) -> Option<Length> {
        Some(self.corner(Side::Right)? - self.corner(Side::Left)?)
    }
}

/// Readings all round the vehicle in one state.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct HeightReadings {
    /// The front axle's.
    pub front: AxleReadings,
    /// The rear axle's.
    pub rear: AxleReadings,
}

#[cfg(test)]
mod tests {
    use super::*;

    fn readings(left: &[f64], right: &[f64]) -> AxleReadings {
        let lengths = |values: &[f64]| values.iter().copied().map(inches).collect();
        AxleReadings { corners: Sides { left: lengths(left), right: lengths(right) } }
    }

    #[test]
    fn repeats_average_but_settling_stays() {
        let tape = ReadingPrecision::shop_tape();
        let once = readings(&[21.5], &[21.5]).height(&tape).expect("read").sd.customary();
        let often = readings(&[21.5; 50], &[21.5; 50]).height(&tape).expect("read").sd.customary();
        // By hand: √(0.0625²/2 + 0.0625²/24 + 0.0625²) = 0.0776 in; many readings leave √(0.0625²·(1 + 1/24 + 1/100)).
        assert!((once - 0.077_6).abs() < 1e-4, "{once}");
        assert!((often - 0.064_1).abs() < 1e-4, "{often}");
    }

    #[test]
    fn lean_is_right_less_left() {
        assert!((readings(&[38.0], &[38.5]).lean().expect("both").customary() - 0.5).abs() < 1e-12);
        assert_eq!(readings(&[38.0], &[]).lean(), None);
    }
}
