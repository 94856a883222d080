//! A block that is taller at one end than at the other.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, LiftBlock, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Angle, InShopUnits, Length, radians};

/// A tapered block between spring and axle, on each side: it raises as its middle does, and turns the axle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TaperedBlock {
    /// Its height at the front end.
    pub front_end: Length,
    /// Its height at the rear end.
    pub rear_end: Length,
    /// From end to end.
    pub length: Length,
}

/// The height of an end of a tapered block, and how long it is.
pub(super) const END: Bound = Bound::inches(0.0, 7.0);
pub(super) const LENGTH: Bound = Bound::inches(2.0, 12.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "tapered_block",
    figures: &[
        KindFigure::within("front_end", END, PartDoubt::Exact),
        KindFigure::within("rear_end", END, PartDoubt::Exact),
        KindFigure::within("length", LENGTH, PartDoubt::Exact),
    ],
    // A block under a steered axle may let it turn about its own seat.
    ends: Ends::Rear,
    // On one side alone it would twist the axle.
    goes_on_one_side: false,
    needs: Needs::BareSeat,
    set_by_case: None,
    read: |given| {
        let (front_end, rear_end) = (given.length("front_end")?, given.length("rear_end")?);
        Some(Arc::new(TaperedBlock { front_end, rear_end, length: given.length("length")? }))
    },
};

impl TaperedBlock {
    /// Its height in its middle.
    pub fn middle(&self) -> Length {
        (self.front_end + self.rear_end) / 2.0
    }

    /// The straight block that raises as much.
    fn raises_like(&self) -> LiftBlock {
        LiftBlock { thickness: self.middle() }
    }

    /// How far it turns the axle, nose of the pinion up positive: with its short end forward the nose comes up.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::correction::TaperedBlock;
    /// use wise_badger_mechanics::units::inches;
    /// let block = TaperedBlock { front_end: inches(1.8), rear_end: inches(2.2), length: inches(5.75) };
    /// assert!((block.turns().value.to_degrees() - 3.98).abs() < 0.01);
    /// ```
    pub fn turns(&self) -> Angle {
        radians((self.rear_end - self.front_end).si().atan2(self.length.si()))
    }
}

impl CorrectionKind for TaperedBlock {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        let ends = Given::default().with_length("front_end", self.front_end).with_length("rear_end", self.rear_end);
        ends.with_length("length", self.length)
    }

    fn account(&self) -> Given {
        self.given().with_length("raises", self.middle())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.raises_like().change(on)
    }

    fn hangs_lower(&self) -> Length {
        self.raises_like().hangs_lower()
    }

    fn off_the_seat(&self) -> Length {
        self.raises_like().off_the_seat()
    }

    fn tapers(&self) -> Angle {
        self.turns()
    }

    fn takes_up(&self) -> TakesUp {
        self.raises_like().takes_up()
    }

    fn works(&self) -> Vec<Work> {
        self.raises_like().works()
    }

    fn cautions(&self) -> Vec<Caution> {
        self.raises_like().cautions()
    }
}
