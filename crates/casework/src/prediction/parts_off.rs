//! What the parts themselves leave open: where the vehicle would stand were they not quite what was said of them.

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::identification::{Forecast, IdentificationError, TapeMark};
use wise_badger_mechanics::stance::Stance;
use wise_badger_mechanics::units::{Length, metres};

/// The vehicle with each figure of the parts that may be off moved by one standard deviation, up and down. Parts of one kind, a pack on
/// either side, may be off alike (the same steel, the same model) or each by itself: which, nobody knows, so the wider of both counts.
pub(super) struct PartsOff {
    alone: Vec<[Stance; 2]>,
    alike: Vec<[Stance; 2]>,
}

impl PartsOff {
    pub(super) fn new(
        parts: &[Correction],
        solve: impl Fn(&[Correction]) -> Result<Stance, IdentificationError>,
    ) -> Result<Self, IdentificationError> {
        let off: Vec<Vec<[Correction; 2]>> =
            parts.iter().map(|part| part.one_deviation_off().into_iter().map(|(_, pair)| pair).collect()).collect();
        // The stance with one figure of some of the parts moved, up and down.
        let moved = |places: &[usize], figure: usize| -> Result<[Stance; 2], IdentificationError> {
            let way = |way: fn(&[Correction; 2]) -> &Correction| {
                let other = |(place, part): (usize, &Correction)| {
                    let pair = off.get(place).filter(|_| places.contains(&place)).and_then(|figures| figures.get(figure));
                    pair.map_or(part, way).clone()
                };
                solve(&parts.iter().enumerate().map(other).collect::<Vec<_>>())
            };
            Ok([way(|[above, _]| above)?, way(|[_, below]| below)?])
        };
        let figures = |place: usize| 0..off.get(place).map_or(0, Vec::len);
        let (mut alone, mut alike) = (Vec::new(), Vec::new());
        for (place, part) in parts.iter().enumerate() {
            let of_kind = |(other, of): (usize, &Correction)| (of.row().word == part.row().word).then_some(other);
            let kin: Vec<usize> = parts.iter().enumerate().filter_map(of_kind).collect();
            for figure in figures(place) {
                let by_itself = moved(&[place], figure)?;
                if kin.len() == 1 {
                    alike.push(by_itself.clone());
                } else if kin.first() == Some(&place) {
                    alike.push(moved(&kin, figure)?);
                }
                alone.push(by_itself);
            }
        }
        Ok(PartsOff { alone, alike })
    }

    /// The standard deviation that they leave a mark. Where a figure moves it more one way than the other, the wider way counts.
    pub(super) fn sd(&self, fitted: &Forecast, mark: &TapeMark) -> Length {
        let moved = |pair: &[Stance; 2]| {
            let each = pair.iter().filter_map(|other| fitted.higher_in(other, mark)).map(Length::abs);
            each.fold(metres(0.0), Length::max)
        };
        let all = |pairs: &[[Stance; 2]]| pairs.iter().map(moved).fold(metres(0.0), Length::hypot);
        all(&self.alone).max(all(&self.alike))
    }
}
