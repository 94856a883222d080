//! A spacer between a coil and its seat.

use std::sync::Arc;

use super::{Axles, Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, Site, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{InShopUnits, Length};

/// A spacer at each coil. Where one is there already it comes out: one is never put on top of the other.
///
/// Shock and stop stay where they are, so that the axle hangs no lower at full droop, and the stop's gap opens by what the coil
/// is set off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CoilSpacer {
    /// Its height as it counts at the wheel: its own where the coil stands on the axle, more where it stands on an arm.
    pub thickness: Length,
    /// The height of the one that comes out, counted alike; nought where none is there.
    pub replaces: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "coil_spacer",
    figures: &[
        KindFigure::within("thickness", Bound::inches(0.125, 6.0), PartDoubt::SPACER),
        KindFigure::within("replaces", Bound::inches(0.0, 6.0), PartDoubt::Exact).of_the_vehicle(),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| Some(Arc::new(CoilSpacer { thickness: given.length("thickness")?, replaces: given.length("replaces")? })),
};

impl CoilSpacer {
    /// How much further the coil's ends are held apart.
    fn sets_off(&self) -> Length {
        self.thickness - self.replaces
    }
}

impl CorrectionKind for CoilSpacer {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("thickness", self.thickness).with_length("replaces", self.replaces)
    }

    /// In front it stands on an arm more often than not, and what is told of it at the wheel is no better known than the arm.
    fn doubt_at(&self, figure: &KindFigure, site: Site) -> PartDoubt {
        let of_the_arm = PartDoubt::MOTION_RATIO.off(self.sets_off().si(), 1.0) - self.sets_off().si();
        match (site.axles, figure.doubt) {
            (Axles::Front, PartDoubt::Length(own)) => PartDoubt::Length(own.hypot(of_the_arm)),
            (_, doubt) => doubt,
        }
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Spacer { axle: on.axle.name.clone(), side: on.side, thickness: self.sets_off() })
    }

    fn opens_the_stop(&self) -> Length {
        self.sets_off()
    }

    fn takes_out(&self) -> Option<Length> {
        Some(self.replaces)
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::CoilSeat
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            CoilStoresEnergy,
            AddsNoCapacity,
            CoilSeated,
            CoilBind,
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
