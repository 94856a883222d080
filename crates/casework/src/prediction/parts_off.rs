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
    /// Of each of some states, by where the vehicle stands in all of them with parts fitted; of one in which it does not stand so, why.
    pub(super) fn of_each(
        parts: &[Correction],
        states: usize,
        solve: impl Fn(&[Correction]) -> Vec<Result<Stance, IdentificationError>>,
    ) -> Vec<Result<Self, IdentificationError>> {
        let off: Vec<Vec<[Correction; 2]>> =
            parts.iter().map(|part| part.one_deviation_off().into_iter().map(|(_, pair)| pair).collect()).collect();
        // The stances with one figure of some of the parts moved, up and down.
        let moved = |places: &[usize], figure: usize| -> Vec<Result<[Stance; 2], IdentificationError>> {
            let way = |way: fn(&[Correction; 2]) -> &Correction| {
                let other = |(place, part): (usize, &Correction)| {
                    let pair = off.get(place).filter(|_| places.contains(&place)).and_then(|figures| figures.get(figure));
                    pair.map_or(part, way).clone()
                };
                solve(&parts.iter().enumerate().map(other).collect::<Vec<_>>())
            };
            let (above, below) = (way(|[above, _]| above), way(|[_, below]| below));
            above.into_iter().zip(below).map(|(above, below)| Ok([above?, below?])).collect()
        };
        let figures = |place: usize| 0..off.get(place).map_or(0, Vec::len);
        let mut each: Vec<Result<Self, IdentificationError>> =
            (0..states).map(|_| Ok(PartsOff { alone: Vec::new(), alike: Vec::new() })).collect();
        for (place, part) in parts.iter().enumerate() {
            let of_kind = |(other, of): (usize, &Correction)| (of.row().word == part.row().word).then_some(other);
            let kin: Vec<usize> = parts.iter().enumerate().filter_map(of_kind).collect();
            for figure in figures(place) {
                let by_itself = moved(&[place], figure);
                if kin.len() == 1 {
                    put(&mut each, by_itself.clone(), |off| &mut off.alike);
                } else if kin.first() == Some(&place) {
                    put(&mut each, moved(&kin, figure), |off| &mut off.alike);
                }
                put(&mut each, by_itself, |off| &mut off.alone);
            }
        }
        each
    }

    /// The standard deviation that they leave a mark. Where a figure moves it more one way than the other, the wider way counts.
    pub(super) fn sd(&self, fitted: &Forecast, mark: &TapeMark) -> Length {
        all(&self.alone, fitted, mark).max(all(&self.alike, fitted, mark))
    }

    /// The standard deviation that they leave of how far one mark stands above another: what moves both alike falls out.
    pub(super) fn apart_sd(&self, fitted: &Forecast, more: &TapeMark, than: &TapeMark) -> Length {
        let apart = |other: &Stance| Some(fitted.higher_in(other, more)? - fitted.higher_in(other, than)?);
        together(&self.alone, apart).max(together(&self.alike, apart))
    }

    /// The figures by themselves or of a kind alike, whichever leaves a mark more: the vehicle with each moved up and down.
    pub(super) fn wider(&self, fitted: &Forecast, mark: &TapeMark) -> &[[Stance; 2]] {
        if all(&self.alone, fitted, mark) > all(&self.alike, fitted, mark) { &self.alone } else { &self.alike }
    }
}

/// What some figures leave a mark, all together.
fn all(pairs: &[[Stance; 2]], fitted: &Forecast, mark: &TapeMark) -> Length {
    together(pairs, |other| fitted.higher_in(other, mark))
}

/// What they leave of a length, each the wider way.
fn together(pairs: &[[Stance; 2]], off_by: impl Fn(&Stance) -> Option<Length>) -> Length {
    let moved = |pair: &[Stance; 2]| pair.iter().filter_map(&off_by).map(Length::abs).fold(metres(0.0), Length::max);
    pairs.iter().map(moved).fold(metres(0.0), Length::hypot)
}

/// Puts what was solved of each state to it; where that was nothing, there is none.
fn put(
    each: &mut [Result<PartsOff, IdentificationError>],
    solved: Vec<Result<[Stance; 2], IdentificationError>>,
    to: fn(&mut PartsOff) -> &mut Vec<[Stance; 2]>,
) {
    for (of, pair) in each.iter_mut().zip(solved) {
        match (of.as_mut(), pair) {
            (Ok(off), Ok(pair)) => to(off).push(pair),
            (Ok(_), Err(error)) => *of = Err(error),
            (Err(_), _) => {}
        }
    }
}
