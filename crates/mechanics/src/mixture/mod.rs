//! A figure of which several accounts are possible: each has its odds, and says the figure with a spread of its own.
//!
//! ```
//! use wise_badger_mechanics::mixture::{Mixture, Part};
//! // Nine to one that it is 10 ± 1, otherwise 14 ± 1 (one standard deviation each).
//! let told = Mixture::new(vec![Part { weight: 9.0, mean: 10.0, sd: 1.0 }, Part { weight: 1.0, mean: 14.0, sd: 1.0 }]);
//! assert!((told.mean() - 10.4).abs() < 1e-12);
//! let band = told.half_width_about(10.4);
//! assert!(band > 3.6 && band < 3.8, "{band}");
//! ```

mod narrowing;

pub use narrowing::{Foreseen, ForeseenAnswer, half_width_after_a_reading, half_width_after_an_answer};

/// Share of a normal distribution within two standard deviations: what a band holds.
const WITHIN_TWO: f64 = 0.954_499_736_103_642;
/// Rounds of a search for a half-width.
const MOST_ROUNDS: u32 = 60;
/// How near two of them end it, as a share of the half-width.
const CLOSE: f64 = 1e-7;

/// What one account says of the figure. All parts of a mixture are in one unit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// How likely the account is, beside the others; never negative.
    pub weight: f64,
    /// The figure by this account.
    pub mean: f64,
    /// One standard deviation of it; never negative.
    pub sd: f64,
}

/// A figure told by several accounts.
#[derive(Debug, Clone, PartialEq)]
pub struct Mixture {
    /// Their weights come to one.
    parts: Vec<Part>,
}

impl Mixture {
    /// Brings accounts together; their weights need not come to one.
    pub fn new(mut parts: Vec<Part>) -> Self {
        let total: f64 = parts.iter().map(|part| part.weight).sum();
        parts.iter_mut().for_each(|part| part.weight /= total);
        Mixture { parts }
    }

    /// The mean over all accounts.
    pub fn mean(&self) -> f64 {
        self.parts.iter().map(|part| part.weight * part.mean).sum()
    }

    /// Half-width of the band about a figure that holds the truth as often as two standard deviations of a normal distribution do.
    ///
    /// # Source     the normal integral by the error function (Abramowitz and Stegun, 26.2.29, from memory)
    pub fn half_width_about(&self, centre: f64) -> f64 {
        let furthest = |part: &Part| (part.mean - centre).abs() + 2.5 * part.sd;
        let (mut inside, mut outside) = (0.0, self.parts.iter().map(furthest).fold(0.0, f64::max));
        // By the slope where that leads into what is left, by halving where it does not; begun where one normal figure of the same spread
        // would have it.
        let mut tried = (2.0 * self.spread_about(centre)).min(outside);
        for _ in 0..MOST_ROUNDS {
            let (share, density) = self.share_and_density(centre, tried);
            let missing = WITHIN_TWO - share;
            if missing > 0.0 {
                inside = tried
            } else {
                outside = tried
            }
            let by_slope = tried + missing / density;
            let next = if by_slope > inside && by_slope < outside { by_slope } else { 0.5 * (inside + outside) };
            if (next - tried).abs() <= CLOSE * outside {
                return next;
            }
            tried = next;
        }
        outside
    }

    /// Root of the mean square by which the truth lies off a figure.
    fn spread_about(&self, centre: f64) -> f64 {
        let square = |part: &Part| part.weight * ((part.mean - centre).powi(2) + part.sd.powi(2));
        self.parts.iter().map(square).sum::<f64>().sqrt()
    }

    /// How likely the truth lies no further than `half_width` from a figure, and how fast that grows with it.
    fn share_and_density(&self, centre: f64, half_width: f64) -> (f64, f64) {
        let within = |part: &Part| {
            let off = part.mean - centre;
            if part.sd > 0.0 {
                let (high, low) = ((half_width - off) / part.sd, (-half_width - off) / part.sd);
                (below(high) - below(low), (bell(high) + bell(low)) / part.sd)
            } else {
                (f64::from(u8::from(off.abs() <= half_width)), 0.0)
            }
        };
        self.parts.iter().fold((0.0, 0.0), |(share, density), part| {
            let (of_part, growth) = within(part);
            (share + part.weight * of_part, density + part.weight * growth)
        })
    }
}

/// The standard normal density.
fn bell(x: f64) -> f64 {
    (-0.5 * x * x).exp() / std::f64::consts::TAU.sqrt()
}

/// How likely a standard normal figure is below `x`.
pub fn below(x: f64) -> f64 {
    0.5 * libm::erfc(-x * std::f64::consts::FRAC_1_SQRT_2)
}
