//! New coils, by what their box says that they lift.

use super::bought_springs::{Sort, figures, read};
use super::{Caution, Ends, KindRow, Needs, PartDoubt, Work};

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "new_coils",
    figures: &figures(PartDoubt::COILS_LIFT),
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| read(&COILS, given),
};

static COILS: Sort = Sort { row: &ROW, work: Work::CoilSeat, whole_strut: false, cautions: CAUTIONS };

/// The cautions of a coil that comes out and another that goes in.
pub(super) const CAUTIONS: &[Caution] = &[
    Caution::CoilStoresEnergy,
    Caution::AddsNoCapacity,
    Caution::CoilSeated,
    Caution::CoilBind,
    Caution::UnequalPair,
    Caution::FirmerEmpty,
    Caution::HoseSlack,
    Caution::ShockLength,
    Caution::DrivelineAngle,
    Caution::BarLinks,
    Caution::PivotsAtRideHeight,
    Caution::WheelNuts,
    Caution::AimAndAlignment,
];
