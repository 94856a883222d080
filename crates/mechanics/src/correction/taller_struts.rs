//! Struts or coil-overs in the place of the old, by what their box says that they lift at the wheel.

use super::bought_springs::{Sort, figures, read};
use super::new_coils::CAUTIONS;
use super::{Ends, KindRow, Needs, PartDoubt, Work};

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "taller_struts",
    figures: &figures(PartDoubt::COILS_LIFT),
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| read(&STRUTS, given),
};

static STRUTS: Sort = Sort { row: &ROW, work: Work::CoilSeat, whole_strut: true, cautions: CAUTIONS };
