//! Longer brake hoses, or their brackets brought nearer.

use super::beside::{Sort, read};
use super::{Caution, Ends, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "brake_hoses",
    figures: &[KindFigure::within("longer", Bound::inches(0.25, 12.0), PartDoubt::Exact)],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| read(&BRAKE_HOSES, given),
};

static BRAKE_HOSES: Sort = Sort {
    row: &ROW,
    figure: "longer",
    makes_good: MakesGood::HoseSlack,
    takes_up: TakesUp::Hoses,
    work: Work::Beside,
    cautions: &[Caution::BrakesBled, Caution::HoseSlack, Caution::WheelNuts],
};
