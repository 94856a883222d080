//! Proof: predicted against measured after fitting.

mod cause;

pub use cause::{CauseOdds, Miss, MissCause, likely_causes};

use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length};

/// How a measured height compares with its prediction.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ProofGrade {
    /// Inside the predicted band.
    Inside,
    /// Outside a band that leaves the tape out, but by no more than the tape's own doubt.
    WithinTheTape,
    /// Outside, and the tape does not explain it.
    Outside,
}

/// One height, predicted and measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ProofCheck {
    /// What was predicted before the work, with the half-width of its band.
    pub predicted: Length,
    /// Half the width of the band.
    pub band: Length,
    /// Whether the band is that of what the tape will read, its own doubt in it, and not only of where it comes to rest.
    pub of_a_reading: bool,
    /// What the tape says now.
    pub measured: Uncertain<Length>,
}

impl ProofCheck {
    /// The same in figures as they are printed in steps of a length: what was promised is what was said.
    #[must_use]
    pub fn in_steps_of(self, step: Length) -> Self {
        let predicted = Uncertain::new(self.predicted, self.band / 2.0).in_steps_of(step);
        let measured = Uncertain { value: self.measured.in_steps_of(step).value, ..self.measured };
        ProofCheck { predicted: predicted.value, band: predicted.band(), measured, ..self }
    }

    /// Measured less predicted.
    pub fn difference(&self) -> Length {
        self.measured.value - self.predicted
    }

    /// Whether the prediction held.
    ///
    /// # Example
    /// ```
    /// use wise_badger_casework::proof::{ProofCheck, ProofGrade};
    /// use wise_badger_mechanics::uncertain::Uncertain;
    /// use wise_badger_mechanics::units::inches;
    /// let measured = Uncertain::new(inches(20.875), inches(0.0625));
    /// let check = ProofCheck { predicted: inches(20.8125), band: inches(0.125), of_a_reading: true, measured };
    /// assert_eq!(check.grade(), ProofGrade::Inside);
    /// ```
    pub fn grade(&self) -> ProofGrade {
        // Figures that are alike must not differ by rounding.
        let (off, band) = (self.difference().si().abs(), self.band.si() + 1e-6);
        if off <= band {
            ProofGrade::Inside
        } else if !self.of_a_reading && off <= band.hypot(self.measured.band().si()) {
            ProofGrade::WithinTheTape
        } else {
            ProofGrade::Outside
        }
    }
}
