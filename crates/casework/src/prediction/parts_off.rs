//! What the parts themselves leave open: where the vehicle would stand were they not quite what was said of them.

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::identification::{Forecast, IdentificationError, TapeMark};
use wise_badger_mechanics::stance::Stance;
use wise_badger_mechanics::units::{Length, metres};

/// The vehicle with each figure of the parts that may be off moved by one standard deviation, up and down; all of them are in doubt each
/// by itself.
pub(super) struct PartsOff(Vec<[Stance; 2]>);

impl PartsOff {
    pub(super) fn new(
        parts: &[Correction],
        solve: impl Fn(&[Correction]) -> Result<Stance, IdentificationError>,
    ) -> Result<Self, IdentificationError> {
        let mut off = Vec::new();
        for (place, part) in parts.iter().enumerate() {
            for (_, [above, below]) in part.one_deviation_off() {
                let with = |other: Correction| {
                    let mut parts = parts.to_vec();
                    if let Some(part) = parts.get_mut(place) {
                        *part = other;
                    }
                    solve(&parts)
                };
                off.push([with(above)?, with(below)?]);
            }
        }
        Ok(PartsOff(off))
    }

    /// The standard deviation that they leave a mark. Where a figure moves it more one way than the other, the wider way counts.
    pub(super) fn sd(&self, fitted: &Forecast, mark: &TapeMark) -> Length {
        let moved = |pair: &[Stance; 2]| {
            let each = pair.iter().filter_map(|other| fitted.higher_in(other, mark)).map(Length::abs);
            each.fold(metres(0.0), Length::max)
        };
        self.0.iter().map(moved).fold(metres(0.0), Length::hypot)
    }
}
