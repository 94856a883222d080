//! Corrections fitted together: what each corner has room for once, and what all of them take and warn of.

use super::{Axles, Caution, Correction, Site, TakesUp};
use crate::units::Length;

/// Why corrections do not go together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct NotTogether {
    /// The earlier of the two, by its place among the parts.
    pub one: usize,
    /// The later.
    pub other: usize,
    /// What both take up.
    pub of: TakesUp,
}

/// Whether two sites have a corner in common.
fn share_a_corner(one: Site, other: Site) -> bool {
    let axles = match (one.axles, other.axles) {
        (Axles::Front, Axles::Front) => true,
        (Axles::Front, _) | (_, Axles::Front) => false,
        (Axles::OneOfRear(one), Axles::OneOfRear(other)) => one == other,
        (Axles::Rear, _) | (_, Axles::Rear) => true,
    };
    let sides = one.side.zip(other.side).is_none_or(|(one, other)| one == other);
    axles && sides
}

/// The first two that take up the same at one corner.
///
/// # Example
/// ```
/// use wise_badger_mechanics::correction::{Correction, LiftBlock, not_together};
/// use wise_badger_mechanics::units::inches;
/// let block = |thickness| Correction::at_the_rear(LiftBlock { thickness: inches(thickness) });
/// assert!(not_together(&[block(1.0), block(2.0)]).is_some(), "blocks are never stacked");
/// assert!(not_together(&[block(1.0)]).is_none());
/// ```
pub fn not_together(parts: &[Correction]) -> Option<NotTogether> {
    parts.iter().enumerate().find_map(|(other, later)| {
        let clashes = |earlier: &Correction| {
            let of = later.takes_up();
            (earlier.takes_up() == of && share_a_corner(earlier.site(), later.site())).then_some(of)
        };
        let before = parts.iter().enumerate().take(other);
        before.filter_map(|(one, earlier)| clashes(earlier).map(|of| NotTogether { one, other, of })).next()
    })
}

/// How much of its room a coil loses to a spacer that is put at its seat with it.
pub fn on_the_coil_seat(parts: &[Correction], coil: &Correction) -> Length {
    let spacers = parts.iter().filter(|part| part.takes_up() == TakesUp::CoilSeat && share_a_corner(part.site(), coil.site()));
    spacers.map(Correction::opens_the_stop).fold(Length::default(), |all, each| all + each)
}

/// How far a corner may come down from where it stood empty until a coil is pressed solid, with what is put at its seat; `None` of what
/// nobody says it of.
pub fn solid_after(parts: &[Correction], coil: &Correction) -> Option<Length> {
    Some(coil.solid_after()? - on_the_coil_seat(parts, coil))
}

/// The cautions to show with parts, each once, the most particular of the first part first.
pub fn cautions_of(parts: &[Correction]) -> Vec<Caution> {
    each_once(parts.iter().flat_map(Correction::cautions))
}

fn each_once<T: PartialEq>(all: impl Iterator<Item = T>) -> Vec<T> {
    all.fold(Vec::new(), |mut once, item| {
        if !once.contains(&item) {
            once.push(item);
        }
        once
    })
}
