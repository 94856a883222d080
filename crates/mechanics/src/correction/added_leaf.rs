//! A leaf added to each pack.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::{Change, ElementKind, Mount};
use crate::units::{InShopUnits, Length, SpringRate, metres};

/// A leaf added to each pack that it goes on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AddedLeaf {
    /// What it adds to the rate, all packs together.
    pub pair_rate: SpringRate,
    /// What it lifts empty.
    pub lift: Length,
}

/// Between what its lift must lie.
pub(super) const LIFT: Bound = Bound::inches(-1.0, 6.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "added_leaf",
    figures: &[KindFigure::rate("pair_rate"), KindFigure::within("lift", LIFT, PartDoubt::ADVERTISED_LIFT)],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| Some(Arc::new(AddedLeaf { pair_rate: given.rate("pair_rate")?, lift: given.length("lift")? })),
};

impl CorrectionKind for AddedLeaf {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_rate("pair_rate", self.pair_rate).with_length("lift", self.lift)
    }

    /// A leaf that lifts by `d` empty carries `k·d` there, so at rest height it is compressed by `d·k/k_leaf` and stands
    /// `d·(1 + k/k_leaf)` into its travel at kerb.
    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let rate = self.pair_rate / on.corners;
        let gap = metres(-self.lift.si() * (1.0 + on.corner_rate().si() / rate.si()));
        Some(on.adds("add-a-leaf", Mount::Pack, ElementKind::Helper { gap, rate, already_fitted: false }))
    }

    /// With no load on it the pack stands higher by what the leaf lifts, less what the stiffer pack springs out less: at most by that.
    fn hangs_lower(&self) -> Length {
        self.lift
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::AddedLeaf]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            SoundPackOnly,
            StoredEnergy,
            NewUBolts,
            ClampsDraw,
            PinSeated,
            FirmerEmpty,
            HoseSlack,
            ShockLength,
            DrivelineAngle,
            BarLinks,
            PivotsAtRideHeight,
            WheelNuts,
            AimAndAlignment,
        ]
    }
}
