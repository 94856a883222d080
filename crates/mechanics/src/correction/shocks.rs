//! Shocks of other lengths, or with their mounts moved.

use std::sync::Arc;

use super::{
    Caution, CorrectionKind, CorrectionProblem, Ends, Given, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work,
};
use crate::bound::Bound;
use crate::units::Length;

/// Other shocks at both sides of an axle, each laid beside the old one, open and closed, eye to eye.
///
/// Mounts brought nearer to each other by so much leave the shock shorter by as much where the vehicle stands: it then draws out further,
/// and closes by less.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shocks {
    /// Drawn out, new.
    pub new_open: Length,
    /// Drawn out, old.
    pub old_open: Length,
    /// Pressed together, new.
    pub new_closed: Length,
    /// Pressed together, old.
    pub old_closed: Length,
    /// How much nearer the mounts are brought to each other; nought where they stay.
    pub mounts_nearer: Length,
}

const LENGTH: Bound = Bound::inches(5.0, 45.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "shocks",
    figures: &[
        KindFigure::within("new_open", LENGTH, PartDoubt::Exact),
        KindFigure::within("old_open", LENGTH, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("new_closed", LENGTH, PartDoubt::Exact),
        KindFigure::within("old_closed", LENGTH, PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("mounts_nearer", Bound::inches(-4.0, 8.0), PartDoubt::Exact).as_set(),
    ],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| {
        let (new_open, old_open) = (given.length("new_open")?, given.length("old_open")?);
        let (new_closed, old_closed) = (given.length("new_closed")?, given.length("old_closed")?);
        let mounts_nearer = given.length("mounts_nearer")?;
        Some(Arc::new(Shocks { new_open, old_open, new_closed, old_closed, mounts_nearer }))
    },
};

impl Shocks {
    /// How much further than the old ones they draw out from where the vehicle stands.
    pub fn opens(&self) -> Length {
        self.new_open - self.old_open + self.mounts_nearer
    }

    /// How much further than the old ones they close from there.
    pub fn closes(&self) -> Length {
        self.old_closed - self.new_closed - self.mounts_nearer
    }
}

impl CorrectionKind for Shocks {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("new_open", self.new_open)
            .with_length("old_open", self.old_open)
            .with_length("new_closed", self.new_closed)
            .with_length("old_closed", self.old_closed)
            .with_length("mounts_nearer", self.mounts_nearer)
    }

    fn account(&self) -> Given {
        self.given().with_length("opens", self.opens()).with_length("closes", self.closes())
    }

    fn makes_good(&self) -> Vec<(MakesGood, Length)> {
        vec![(MakesGood::ShockOpens, self.opens()), (MakesGood::ShockCloses, self.closes())]
    }

    fn problem(&self) -> Option<CorrectionProblem> {
        let new = (self.new_open <= self.new_closed).then_some(("new_open", "new_closed"));
        let pair = new.or_else(|| (self.old_open <= self.old_closed).then_some(("old_open", "old_closed")));
        pair.map(|(figure, than)| CorrectionProblem::NotLonger { figure, than })
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Shocks
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Beside]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![Caution::GasShock, Caution::AxleHeld, Caution::ShockLength, Caution::HoseSlack, Caution::PivotsAtRideHeight]
    }
}
