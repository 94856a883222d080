//! Longer shackles in the place of those that are there.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, Quantity, TakesUp, Work};
use crate::bound::Bound;
use crate::side_effect::leaf_end;
use crate::stance::Change;
use crate::units::{Angle, Length, radians};

/// Shackles of another length at the rear ends of the packs. Both lengths are measured, so that what was made longer before is
/// never counted twice.
///
/// The eye comes down by what the shackle is longer, the frame over the axle up by the front half's share of that, and the seat
/// turns; the shackle's slope and the arc of the leaf are left out, which is what the doubt is for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LongerShackle {
    /// Bolt to bolt, of those that go in.
    pub new_length: Length,
    /// Bolt to bolt, of those that come out.
    pub old_length: Length,
    /// From the fixed eye to the centre bolt.
    pub front_half: Length,
    /// From the centre bolt to the shackle's eye.
    pub rear_half: Length,
}

const SHACKLE: Bound = Bound::inches(1.5, 14.0);
const HALF: Bound = Bound::inches(8.0, 60.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "longer_shackle",
    figures: &[
        KindFigure::within("new_length", SHACKLE, PartDoubt::SHACKLE_SLOPE),
        KindFigure::within("old_length", SHACKLE, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("front_half", HALF, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("rear_half", HALF, PartDoubt::Exact).of_the_vehicle(),
    ],
    // Which way a steered axle's caster goes hangs on which end the shackle is at.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::Shackle,
    set_by_case: None,
    read: |given| {
        let [new_length, old_length, front_half, rear_half] =
            ["new_length", "old_length", "front_half", "rear_half"].map(|name| given.length(name));
        Some(Arc::new(LongerShackle {
            new_length: new_length?,
            old_length: old_length?,
            front_half: front_half?,
            rear_half: rear_half?,
        }))
    },
};

impl LongerShackle {
    /// How far the frame comes up over the axle, and how far the seat turns, nose of the pinion up positive; nothing of figures that
    /// are none.
    fn raises_and_turns(&self) -> (Length, Angle) {
        let lowered = self.new_length - self.old_length;
        let found = leaf_end::longer_shackle(lowered, self.front_half, self.front_half + self.rear_half);
        found.unwrap_or((Length::default(), radians(0.0)))
    }
}

impl CorrectionKind for LongerShackle {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("new_length", self.new_length)
            .with_length("old_length", self.old_length)
            .with_length("front_half", self.front_half)
            .with_length("rear_half", self.rear_half)
    }

    /// What is in doubt of the length is a share of what it changes, not of the shackle.
    fn moved(&self, figure: &KindFigure, deviations: f64) -> Option<Arc<dyn CorrectionKind>> {
        let Quantity::Length(longer) = figure.doubt.moved(&Quantity::Length(self.new_length - self.old_length), deviations)?
        else {
            return None;
        };
        Some(Arc::new(LongerShackle { new_length: self.old_length + longer, ..*self }))
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let (thickness, _) = self.raises_and_turns();
        Some(Change::Spacer { axle: on.axle.name.clone(), side: on.side, thickness })
    }

    fn hangs_lower(&self) -> Length {
        self.raises_and_turns().0
    }

    fn opens_the_stop(&self) -> Length {
        self.raises_and_turns().0
    }

    fn turns_the_seat(&self) -> Angle {
        self.raises_and_turns().1
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Shackle
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Shackle]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            AddsNoCapacity,
            ShackleSlope,
            HoseSlack,
            ShockLength,
            DrivelineAngle,
            PivotsAtRideHeight,
            BarLinks,
            WheelNuts,
            AimAndAlignment,
        ]
    }
}
