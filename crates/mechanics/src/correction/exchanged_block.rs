//! A block in place of the one that is there.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, LiftBlock, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// A block between spring and axle, on each side, that goes in where another comes out: one is never put on top of the other.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ExchangedBlock {
    /// Its height.
    pub thickness: Length,
    /// The height of the one that comes out.
    pub replaces: Length,
}

/// The height of a block.
pub(super) const BLOCK: Bound = Bound::inches(0.25, 6.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "exchanged_block",
    figures: &[
        KindFigure::within("thickness", BLOCK, PartDoubt::Exact),
        KindFigure::within("replaces", BLOCK, PartDoubt::Exact).of_the_vehicle(),
    ],
    // A block under a steered axle may let it turn about its own seat.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::BlockThere,
    set_by_case: None,
    read: |given| Some(Arc::new(ExchangedBlock { thickness: given.length("thickness")?, replaces: given.length("replaces")? })),
};

impl ExchangedBlock {
    /// The block that would do the same on a bare seat; where a lower one goes in, of a negative height.
    fn raises_like(&self) -> LiftBlock {
        LiftBlock { thickness: self.thickness - self.replaces }
    }
}

impl CorrectionKind for ExchangedBlock {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("thickness", self.thickness).with_length("replaces", self.replaces)
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

    fn takes_out(&self) -> Option<Length> {
        Some(self.replaces)
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
