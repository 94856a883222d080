//! What a reading not yet taken would be worth: the band to be expected once it is.

use super::{Mixture, Part};

/// What one account foresees of a reading, beside what it says of the figure.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Foreseen {
    /// The figure by this account, and the account's weight.
    pub figure: Part,
    /// What would be read.
    pub reading: f64,
    /// One standard deviation of that, the errors of the reading included; above nought.
    pub reading_sd: f64,
    /// Covariance of figure and reading.
    pub covariance: f64,
}

/// What one account foresees of an answer of yes or no.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ForeseenAnswer {
    /// The figure by this account, and the account's weight.
    pub figure: Part,
    /// How likely it is yes.
    pub yes: f64,
}

/// Five-point Gauss–Hermite rule of the standard normal distribution: places, and weights.
///
/// Source: Abramowitz and Stegun, table 25.10, with `x√2` and `w/√π` (from memory; the tests hold its moments).
const RULE: [(f64, f64); 5] = [
    (-2.856_970_013_872_806, 0.011_257_411_327_720_69),
    (-1.355_626_179_974_266, 0.222_075_922_005_612_6),
    (0.0, 0.533_333_333_333_333_3),
    (1.355_626_179_974_266, 0.222_075_922_005_612_6),
    (2.856_970_013_872_806, 0.011_257_411_327_720_69),
];

/// Half-width of the band about the mean that is to be expected once a reading is taken: every account is weighed anew by how well it
/// foresaw the reading, and its own figure moves with it.
///
/// # Source     preposterior analysis: Raiffa and Schlaifer, Applied Statistical Decision Theory (1961), chapter 4 (from memory)
pub fn half_width_after_a_reading(parts: &[Foreseen]) -> f64 {
    let total: f64 = parts.iter().map(|part| part.figure.weight).sum();
    let each = parts.iter().flat_map(|part| {
        RULE.into_iter().map(move |(place, weight)| (part.figure.weight * weight, part.reading + place * part.reading_sd))
    });
    each.map(|(weight, read)| weight / total * band(parts.iter().map(|part| part.once_read(read)))).sum()
}

/// The same of an answer of yes or no.
pub fn half_width_after_an_answer(parts: &[ForeseenAnswer]) -> f64 {
    let total: f64 = parts.iter().map(|part| part.figure.weight).sum();
    let answered = |chance: fn(&ForeseenAnswer) -> f64| {
        let weighed = || parts.iter().map(move |part| Part { weight: part.figure.weight * chance(part), ..part.figure });
        let likely: f64 = weighed().map(|part| part.weight).sum();
        if likely > 0.0 { likely / total * band(weighed()) } else { 0.0 }
    };
    answered(|part| part.yes) + answered(|part| 1.0 - part.yes)
}

fn band(parts: impl Iterator<Item = Part>) -> f64 {
    let mixture = Mixture::new(parts.collect());
    mixture.half_width_about(mixture.mean())
}

impl Foreseen {
    fn once_read(&self, read: f64) -> Part {
        let off = (read - self.reading) / self.reading_sd;
        let told = self.covariance / self.reading_sd;
        // A part that foresaw nothing like it must not leave all of them with nothing.
        let likely = (-0.5 * off * off).exp().max(f64::MIN_POSITIVE) / self.reading_sd;
        Part {
            weight: self.figure.weight * likely,
            mean: self.figure.mean + told * off,
            sd: (self.figure.sd.powi(2) - told * told).max(0.0).sqrt(),
        }
    }
}
