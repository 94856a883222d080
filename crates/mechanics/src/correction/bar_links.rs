//! Longer links between a sway bar's ends and what they hang on.

use super::beside::{Sort, read};
use super::{Caution, Ends, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "bar_links",
    figures: &[KindFigure::within("longer", Bound::inches(0.25, 10.0), PartDoubt::Exact)],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| read(&BAR_LINKS, given),
};

static BAR_LINKS: Sort = Sort {
    row: &ROW,
    figure: "longer",
    makes_good: MakesGood::BarLinks,
    takes_up: TakesUp::BarLinks,
    work: Work::Beside,
    cautions: &[Caution::BarLinks, Caution::WheelNuts],
};
