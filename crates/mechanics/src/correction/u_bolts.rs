//! New U-bolts, by their leg from inside the bend to the end.

use super::beside::{Sort, read};
use super::{Caution, Ends, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "u_bolts",
    figures: &[KindFigure::within("leg", Bound::inches(3.0, 24.0), PartDoubt::Exact)],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| read(&U_BOLTS, given),
};

static U_BOLTS: Sort = Sort {
    row: &ROW,
    figure: "leg",
    makes_good: MakesGood::UBoltLeg,
    takes_up: TakesUp::UBolts,
    work: Work::Beside,
    cautions: &[Caution::NewUBolts, Caution::PinSeated, Caution::WheelNuts],
};
