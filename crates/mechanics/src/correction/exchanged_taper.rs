//! A tapered block in place of the block that is there.

use std::sync::Arc;

use super::exchanged_block::BLOCK;
use super::tapered_block::{END, LENGTH};
use super::{
    Caution, CorrectionKind, Ends, ExchangedBlock, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, TaperedBlock,
    Work,
};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Angle, InShopUnits, Length, radians};

/// A tapered block between spring and axle, on each side, that goes in where another comes out: it raises by what its middle is higher,
/// and turns the axle by what its taper differs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ExchangedTaper {
    /// The one that goes in.
    pub block: TaperedBlock,
    /// The height of the one that comes out, in its middle.
    pub replaces: Length,
    /// How much taller that one is behind than in front; nothing for a straight one.
    pub replaces_taper: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "exchanged_taper",
    figures: &[
        KindFigure::within("front_end", END, PartDoubt::Exact),
        KindFigure::within("rear_end", END, PartDoubt::Exact),
        KindFigure::within("length", LENGTH, PartDoubt::Exact),
        KindFigure::within("replaces", BLOCK, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("replaces_taper", Bound::inches(-3.0, 3.0), PartDoubt::Exact).of_the_vehicle(),
    ],
    // A block under a steered axle may let it turn about its own seat.
    ends: Ends::Rear,
    // On one side alone it would twist the axle.
    goes_on_one_side: false,
    needs: Needs::BlockThere,
    set_by_case: None,
    read: |given| {
        let (front_end, rear_end) = (given.length("front_end")?, given.length("rear_end")?);
        let block = TaperedBlock { front_end, rear_end, length: given.length("length")? };
        let (replaces, replaces_taper) = (given.length("replaces")?, given.length("replaces_taper")?);
        Some(Arc::new(ExchangedTaper { block, replaces, replaces_taper }))
    },
};

impl ExchangedTaper {
    /// The straight exchange that raises as much.
    fn raises_like(&self) -> ExchangedBlock {
        ExchangedBlock { thickness: self.block.middle(), replaces: self.replaces }
    }
}

impl CorrectionKind for ExchangedTaper {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        let out = self.block.given().with_length("replaces", self.replaces);
        out.with_length("replaces_taper", self.replaces_taper)
    }

    fn account(&self) -> Given {
        self.given().with_length("middle", self.block.middle())
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

    /// What comes out had turned the axle already: on the same seat, and so of the same length.
    fn tapers(&self) -> Angle {
        self.block.turns() - radians(self.replaces_taper.si().atan2(self.block.length.si()))
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
