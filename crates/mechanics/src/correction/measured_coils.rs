//! New coils that were laid beside the old.

use std::sync::Arc;

use super::new_coils::CAUTIONS;
use super::{
    Caution, CorrectionKind, CorrectionProblem, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work,
};
use crate::bound::Bound;
use crate::stance::{Change, SpringDifference};
use crate::units::{InShopUnits, Length, SpringRate, newtons, newtons_per_metre};

/// New coils in the place of the old, both measured: how tall they stand free, how tall the old one stands in the empty vehicle, and
/// what one of each takes by its wire, its diameter and its turns. What the old one is squashed by is measured, and no weight is
/// assumed. That the coil may stand on an arm falls out: the old one stands on the same.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeasuredCoils {
    /// Free height of a new one.
    pub new_height: Length,
    /// Of an old one.
    pub old_height: Length,
    /// Of an old one in the vehicle, empty.
    pub standing_height: Length,
    /// Of a new one with all its turns on each other: turns times wire.
    pub solid_height: Length,
    /// Rate of one new coil.
    pub new_rate: SpringRate,
    /// Of one old coil.
    pub old_rate: SpringRate,
}

const HEIGHT: Bound = Bound::inches(4.0, 30.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "measured_coils",
    figures: &[
        KindFigure::within("new_height", HEIGHT, PartDoubt::FREE_HEIGHT),
        KindFigure::within("old_height", HEIGHT, PartDoubt::FREE_HEIGHT).of_the_vehicle(),
        KindFigure::within("standing_height", HEIGHT, PartDoubt::FREE_HEIGHT).of_the_vehicle(),
        KindFigure::within("solid_height", Bound::inches(1.0, 20.0), PartDoubt::Exact),
        KindFigure::within("new_rate", RATE, PartDoubt::COIL_RATE),
        KindFigure::within("old_rate", RATE, PartDoubt::COIL_RATE).of_the_vehicle(),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| {
        let (new_rate, old_rate) = (given.rate("new_rate")?, given.rate("old_rate")?);
        let (new_height, old_height) = (given.length("new_height")?, given.length("old_height")?);
        let (standing_height, solid_height) = (given.length("standing_height")?, given.length("solid_height")?);
        Some(Arc::new(MeasuredCoils { new_height, old_height, standing_height, solid_height, new_rate, old_rate }))
    },
};

const RATE: Bound = Bound::pounds_per_inch(30.0, 5_000.0);

impl CorrectionKind for MeasuredCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("new_height", self.new_height)
            .with_length("old_height", self.old_height)
            .with_length("standing_height", self.standing_height)
            .with_length("solid_height", self.solid_height)
            .with_rate("new_rate", self.new_rate)
            .with_rate("old_rate", self.old_rate)
    }

    fn account(&self) -> Given {
        self.given()
            .with_length("taller", self.new_height - self.old_height)
            .with_length("squashed", self.old_height - self.standing_height)
    }

    /// The old coil is squashed by `q` empty; the new one, taller by `d` and of `n` times its rate, by `d` more: it pushes with
    /// `n·k·(q + d + s)` at a travel `s`, and not with `k·(q + s)`.
    ///
    /// What is measured at the coil is taken to be as much at the wheel; where the coil stands on an arm the wheel goes further, and a
    /// taller coil lifts more.
    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let (old, times) = (on.corner_rate_at_kerb().si(), self.new_rate.si() / self.old_rate.si());
        let [old_squash, new_squash] = [self.old_height, self.new_height].map(|height| (height - self.standing_height).si());
        let difference = SpringDifference {
            force: newtons(old * (times * new_squash - old_squash)),
            rate: newtons_per_metre((times - 1.0) * old),
            stages: Vec::new(),
        };
        Some(Change::OtherSpring { axle: on.axle.name.clone(), side: on.side, difference })
    }

    /// At the coil as at the wheel, the coil is as much shorter as the corner came down.
    fn solid_after(&self) -> Option<Length> {
        Some(self.standing_height - self.solid_height)
    }

    fn loose_after(&self) -> Option<Length> {
        Some(self.new_height - self.standing_height)
    }

    fn problem(&self) -> Option<CorrectionProblem> {
        let bound = self.new_height <= self.solid_height;
        bound.then_some(CorrectionProblem::NotLonger { figure: "new_height", than: "solid_height" })
    }

    fn hangs_lower(&self) -> Length {
        self.new_height - self.old_height
    }

    fn renews_the_spring(&self) -> bool {
        true
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        CAUTIONS.to_vec()
    }
}
