//! Packs re-arched, by what they gain.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// The same leaves with more arch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RearchedPack {
    /// Free height gained.
    pub free_height_gained: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "rearched_pack",
    figures: &[KindFigure::within("free_height_gained", Bound::inches(0.125, 6.0), PartDoubt::ARCH_GAINED).of_the_vehicle()],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| Some(Arc::new(RearchedPack { free_height_gained: given.length("free_height_gained")? })),
};

impl CorrectionKind for RearchedPack {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("free_height_gained", self.free_height_gained)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let added_force = self.free_height_gained * on.corner_rate();
        Some(Change::Spring { axle: on.axle.name.clone(), side: on.side, added_force })
    }

    fn hangs_lower(&self) -> Length {
        self.free_height_gained
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Rearching]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            SoundPackOnly,
            StoredEnergy,
            NewUBolts,
            ClampsDraw,
            PinSeated,
            TakesASet,
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
