//! Spacers that bring down a front differential between its mounts, so that its shafts lie flatter.

use super::beside::{Sort, read};
use super::{Caution, Ends, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "differential_drop",
    figures: &[KindFigure::within("dropped", Bound::inches(0.125, 4.0), PartDoubt::Exact)],
    ends: Ends::Front,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| read(&DIFFERENTIAL_DROP, given),
};

static DIFFERENTIAL_DROP: Sort = Sort {
    row: &ROW,
    figure: "dropped",
    makes_good: MakesGood::DifferentialDrop,
    takes_up: TakesUp::Differential,
    work: Work::BearsOnTheFrame,
    cautions: &[Caution::HeavyOnAJack, Caution::DrivelineAngle, Caution::WheelNuts],
};
