//! Springs over or beside the axle that bear past a gap.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::{Change, ElementKind, Mount};
use crate::units::{Length, SpringRate};

/// Helpers, one at each corner that they go on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HelperSpring {
    /// All helpers together.
    pub pair_rate: SpringRate,
    /// Clearance empty; negative is set tight by so much.
    pub engagement_gap: Length,
}

/// Between what its gap must lie.
pub(super) const GAP: Bound = Bound::inches(-3.0, 8.0);

/// Name of its element.
const HELPER: &str = "helper";

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "helper_spring",
    figures: &[KindFigure::rate("pair_rate"), KindFigure::within("engagement_gap", GAP, PartDoubt::ENGAGEMENT).as_set()],
    ends: Ends::Either,
    goes_on_one_side: true,
    // Steel helpers lie on the pack and are clamped with it.
    needs: Needs::Leaves,
    set_by_case: Some("engagement_gap"),
    read: |given| {
        let (pair_rate, engagement_gap) = (given.rate("pair_rate")?, given.length("engagement_gap")?);
        Some(Arc::new(HelperSpring { pair_rate, engagement_gap }))
    },
};

impl CorrectionKind for HelperSpring {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_rate("pair_rate", self.pair_rate).with_length("engagement_gap", self.engagement_gap)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let rate = self.pair_rate / on.corners;
        Some(on.adds(HELPER, Mount::Frame, ElementKind::Helper { gap: self.engagement_gap, rate, already_fitted: false }))
    }

    fn set_to_a_clearance(&self) -> Option<&'static str> {
        Some(HELPER)
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Helper
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![AddsNoCapacity, SetEqualSides, HoseSlack, ShockLength, DrivelineAngle, BarLinks, AimAndAlignment]
    }
}
