//! What a vehicle's own readings say better of a part than its kind does.

use wise_badger_mechanics::correction::{Axles, Correction, PartDoubt};
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use crate::survey::VehicleFacts;

/// The figure of new springs that says how far those that come out have set.
const SET: &str = "set";
/// As finely as it is typed.
const AS_TYPED_IN: f64 = 1.0 / 16.0;

/// A part as it is known on a vehicle: how far its springs have set is no guess where it is known what it stood at when sound, and what
/// was typed of it is that. How far one spring of several has set by itself is not known by that.
pub(crate) fn as_known(vehicle: &VehicleFacts, correction: Correction) -> Correction {
    let figure = correction.row().figures.iter().find(|figure| figure.name == SET);
    let known = vehicle.rear_set.filter(|_| correction.site().axles != Axles::Front && correction.renews_the_pair());
    let (Some(figure), Some(typed), Some(known)) = (figure, correction.account().length(SET), known) else { return correction };
    let PartDoubt::Length(usual) = figure.doubt else { return correction };
    let is_that = (typed - known.value.max(Length::default())).abs() <= inches(AS_TYPED_IN);
    if is_that { correction.knowing(figure, known.sd.si() / usual) } else { correction }
}
