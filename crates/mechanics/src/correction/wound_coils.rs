//! New coils laid beside the old, both told by their wire, diameter and turns.

use std::sync::Arc;

use super::new_coils::CAUTIONS;
use super::{
    Caution, CorrectionKind, CorrectionProblem, Ends, FittedOn, Given, KindFigure, KindRow, MeasuredCoils, Needs, PartDoubt,
    Quantity, TakesUp, Work,
};
use crate::bound::Bound;
use crate::side_effect::coil::Coil;
use crate::stance::Change;
use crate::units::Length;

/// A coil of round wire as it is measured on the bench.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wound {
    /// Of the wire.
    pub wire: Length,
    /// Across the coil from outside to outside.
    pub outside: Length,
    /// Turns that are free to move: those that lie on a seat or on the next one do not work.
    pub turns: f64,
}

/// Turns that lie on the seats and add to the height pressed solid alone: one at either end (common practice for closed ends).
const SEATED_TURNS: f64 = 2.0;

impl Wound {
    fn coil(&self, free_length: Length) -> Coil {
        let (wire, active_coils) = (self.wire, self.turns);
        let mean_diameter = self.outside - self.wire;
        Coil { wire, mean_diameter, active_coils, total_coils: active_coils + SEATED_TURNS, free_length }
    }

    fn is_a_coil(&self) -> bool {
        self.outside > 2.0 * self.wire
    }
}

/// New coils in the place of the old: what [`MeasuredCoils`] asks for, the rates and what is left to solid by the wire.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WoundCoils {
    /// Free height of a new one.
    pub new_height: Length,
    /// Of an old one.
    pub old_height: Length,
    /// Of an old one in the vehicle, empty.
    pub standing_height: Length,
    /// How the new one is wound.
    pub new: Wound,
    /// How the old one is.
    pub old: Wound,
}

const HEIGHT: Bound = Bound::inches(4.0, 30.0);
const WIRE: Bound = Bound::inches(0.2, 1.5);
const OUTSIDE: Bound = Bound::inches(1.5, 12.0);
const TURNS: Bound = Bound::count(1.5, 25.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "wound_coils",
    figures: &[
        KindFigure::within("new_height", HEIGHT, PartDoubt::FREE_HEIGHT),
        KindFigure::within("old_height", HEIGHT, PartDoubt::FREE_HEIGHT).of_the_vehicle(),
        KindFigure::within("standing_height", HEIGHT, PartDoubt::FREE_HEIGHT).of_the_vehicle(),
        KindFigure::within("new_wire", WIRE, PartDoubt::Exact),
        KindFigure::within("new_outside", OUTSIDE, PartDoubt::Exact),
        KindFigure::within("new_turns", TURNS, PartDoubt::COIL_RATE),
        KindFigure::within("old_wire", WIRE, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("old_outside", OUTSIDE, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("old_turns", TURNS, PartDoubt::COIL_RATE).of_the_vehicle(),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| {
        let wound = |wire, outside, turns| {
            Some(Wound { wire: given.length(wire)?, outside: given.length(outside)?, turns: given.count(turns)? })
        };
        Some(Arc::new(WoundCoils {
            new_height: given.length("new_height")?,
            old_height: given.length("old_height")?,
            standing_height: given.length("standing_height")?,
            new: wound("new_wire", "new_outside", "new_turns")?,
            old: wound("old_wire", "old_outside", "old_turns")?,
        }))
    },
};

impl WoundCoils {
    /// The same by their rates; `None` where what was measured makes no coil.
    fn measured(&self) -> Option<MeasuredCoils> {
        let (new, old) = (self.new.coil(self.new_height), self.old.coil(self.old_height));
        Some(MeasuredCoils {
            new_height: self.new_height,
            old_height: self.old_height,
            standing_height: self.standing_height,
            solid_height: new.bind_length().ok()?,
            new_rate: new.rate().ok()?,
            old_rate: old.rate().ok()?,
        })
    }
}

impl CorrectionKind for WoundCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("new_height", self.new_height)
            .with_length("old_height", self.old_height)
            .with_length("standing_height", self.standing_height)
            .with_length("new_wire", self.new.wire)
            .with_length("new_outside", self.new.outside)
            .with("new_turns", Quantity::Count(self.new.turns))
            .with_length("old_wire", self.old.wire)
            .with_length("old_outside", self.old.outside)
            .with("old_turns", Quantity::Count(self.old.turns))
    }

    fn account(&self) -> Given {
        let worked_out = self.measured().map(|measured| measured.account());
        let others = worked_out.iter().flat_map(Given::each).filter(|(name, _)| self.given().get(name).is_none());
        others.fold(self.given(), |all, (name, quantity)| all.with(name, quantity.clone()))
    }

    /// As [`MeasuredCoils`], each rate by `G·d⁴ / (8·D³·n)`.
    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.measured()?.change(on)
    }

    fn solid_after(&self) -> Option<Length> {
        self.measured()?.solid_after()
    }

    fn loose_after(&self) -> Option<Length> {
        self.measured()?.loose_after()
    }

    fn problem(&self) -> Option<CorrectionProblem> {
        let too_narrow =
            |wound: &Wound, figure, than| (!wound.is_a_coil()).then_some(CorrectionProblem::NotLonger { figure, than });
        too_narrow(&self.new, "new_outside", "new_wire")
            .or_else(|| too_narrow(&self.old, "old_outside", "old_wire"))
            .or_else(|| self.measured()?.problem().map(|_| CorrectionProblem::SolidAlready { figure: "new_height" }))
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
