//! Whole new packs, by what their maker says that they lift, with their bushings.

use super::bought_springs::{Sort, figures, read};
use super::{Caution, Ends, KindRow, Needs, PartDoubt, Work};

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "new_packs",
    figures: &figures(PartDoubt::ADVERTISED_LIFT),
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| read(&PACKS, given),
};

/// The pack that comes out takes what was found on its leaves and in its eyes along.
static PACKS: Sort = Sort {
    row: &ROW,
    work: Work::WholePack,
    whole_strut: false,
    cautions: &[
        Caution::AddsNoCapacity,
        Caution::StoredEnergy,
        Caution::NewUBolts,
        Caution::PinSeated,
        Caution::TakesASet,
        Caution::FirmerEmpty,
        Caution::HoseSlack,
        Caution::ShockLength,
        Caution::DrivelineAngle,
        Caution::BarLinks,
        Caution::PivotsAtRideHeight,
        Caution::WheelNuts,
        Caution::AimAndAlignment,
    ],
};
