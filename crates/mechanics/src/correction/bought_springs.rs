//! Whole springs bought by what their maker says that they lift.

use std::sync::Arc;

use super::{Caution, CorrectionKind, FittedOn, Given, KindFigure, KindRow, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::{Change, SpringDifference};
use crate::units::{InShopUnits, Length, SpringRate, newtons, newtons_per_metre};

/// New springs in the place of the old.
///
/// A maker's lift is over a sound spring of the maker's own, empty. Over what the old ones were sold as the new ones lift by the
/// difference; and what the old ones have set comes out on top, since the whole spring goes.
#[derive(Debug, Clone, Copy)]
struct BoughtSprings {
    sort: &'static Sort,
    lift: Length,
    old_lift: Length,
    set: Length,
    added_rate: SpringRate,
    /// What their whole rate is times what is said of it.
    rate_times: f64,
}

/// What sort of springs they are: what packs and coils do not have in common.
#[derive(Debug)]
pub(super) struct Sort {
    pub(super) row: &'static KindRow,
    pub(super) work: Work,
    /// Whether shock and stop are one with the spring, and go up with it.
    pub(super) whole_strut: bool,
    pub(super) cautions: &'static [Caution],
}

/// Springs of a sort with these figures; `None` where one is missing, or measures something else.
pub(super) fn read(sort: &'static Sort, given: &Given) -> Option<Arc<dyn CorrectionKind>> {
    Some(Arc::new(BoughtSprings::read(sort, given)?))
}

/// Their figures, with how far off a maker's lift is.
pub(super) const fn figures(lift: PartDoubt) -> [KindFigure; 4] {
    [
        KindFigure::within("lift", Bound::inches(-4.0, 8.0), lift),
        KindFigure::within("old_lift", Bound::inches(-4.0, 8.0), PartDoubt::Exact).of_the_vehicle(),
        KindFigure::within("set", Bound::inches(0.0, 5.0), PartDoubt::SET).of_the_vehicle(),
        KindFigure::within("added_rate", ADDED_RATE, PartDoubt::BOUGHT_RATE),
    ]
}

/// What they add to the rate of the old ones, all of them together; less than nothing where they are softer.
const ADDED_RATE: Bound = Bound::pounds_per_inch(-2_000.0, 5_000.0);
/// Of the old rate, the least that is left however soft the new springs are said to be.
const LEAST_RATE: f64 = 0.2;

impl BoughtSprings {
    fn read(sort: &'static Sort, given: &Given) -> Option<Self> {
        Some(BoughtSprings {
            sort,
            lift: given.length("lift")?,
            old_lift: given.length("old_lift")?,
            set: given.length("set")?,
            added_rate: given.rate("added_rate")?,
            rate_times: 1.0,
        })
    }

    /// How much higher they hold the vehicle empty than the old ones do.
    fn rises(&self) -> Length {
        self.lift - self.old_lift + self.set
    }
}

impl CorrectionKind for BoughtSprings {
    fn row(&self) -> &'static KindRow {
        self.sort.row
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("lift", self.lift)
            .with_length("old_lift", self.old_lift)
            .with_length("set", self.set)
            .with_rate("added_rate", self.added_rate)
    }

    fn account(&self) -> Given {
        self.given().with_length("rises", self.rises())
    }

    /// What is off of the rate is a share of all of it, not of what is added.
    fn moved(&self, figure: &KindFigure, deviations: f64) -> Option<Arc<dyn CorrectionKind>> {
        match figure.doubt {
            PartDoubt::Share(share) => Some(Arc::new(BoughtSprings { rate_times: 1.0 + share * deviations, ..*self })),
            of_a_length => {
                let off = of_a_length.moved(self.given().get(figure.name)?, deviations)?;
                read(self.sort, &self.given().replacing(figure.name, off))
            }
        }
    }

    /// `F = k'·(s + R) − k·s` more than the old ones at a travel `s` from rest empty: there they carry, higher by `R`, what the old ones
    /// carried.
    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let old = on.corner_rate_at_kerb().si();
        let new = (old + self.added_rate.si() / on.corners).max(LEAST_RATE * old) * self.rate_times;
        let difference =
            SpringDifference { force: newtons(new * self.rises().si()), rate: newtons_per_metre(new - old), stages: Vec::new() };
        Some(Change::OtherSpring { axle: on.axle.name.clone(), side: on.side, difference })
    }

    fn hangs_lower(&self) -> Length {
        self.rises()
    }

    fn takes_the_shock_along(&self) -> Length {
        if self.sort.whole_strut { self.rises() } else { Length::default() }
    }

    fn renews_the_spring(&self) -> bool {
        true
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        vec![self.sort.work]
    }

    fn cautions(&self) -> Vec<Caution> {
        self.sort.cautions.to_vec()
    }
}
