//! Load rubbers of which the box says what one carries, and no force at a squash.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, LoadRubber, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::{Change, ForceTable};
use crate::units::{Force, InShopUnits, Length, metres, newtons};

/// Load rubbers as they are bought: what one carries, and how tall it is.
///
/// A rubber carries what it is sold for squashed to half of its height, and on the way there `capacity·(squash / most)^1.2` (our own
/// working rule: a hollow rubber is nearly even, and hardens at the end). Past that it is all but solid.
#[derive(Debug, Clone, PartialEq)]
pub struct RubberByCapacity {
    capacity: Force,
    free_height: Length,
    rubber: LoadRubber,
}

const CAPACITY: Bound = Bound::pounds(100.0, 15_000.0);
const HEIGHT: Bound = Bound::inches(1.0, 12.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "rubber_by_capacity",
    figures: &[
        KindFigure::within("capacity", CAPACITY, PartDoubt::RUBBER_CAPACITY),
        KindFigure::within("free_height", HEIGHT, PartDoubt::Exact),
        KindFigure::within("clearance", Bound::inches(0.0, 8.0), PartDoubt::ENGAGEMENT).as_set(),
    ],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: Some("clearance"),
    read: |given| {
        let (capacity, free_height) = (given.weight("capacity")?, given.length("free_height")?);
        Some(Arc::new(RubberByCapacity::new(capacity, free_height, given.length("clearance")?)))
    },
};

/// Of its height, what it is squashed by under what it is sold for.
const MOST_SQUASH: f64 = 0.5;
const HARDENS: f64 = 1.2;
/// Points of its curve.
const POINTS: u8 = 16;
/// Squashed by a tenth more than it is made for it pushes three times as hard.
const SOLID: (f64, f64) = (1.1, 3.0);

impl RubberByCapacity {
    /// Rubbers of which one carries so much, of a height, with a clearance empty. Figures past their bounds are kept, to be told of, and
    /// its curve is that of the nearest that are not.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::correction::RubberByCapacity;
    /// use wise_badger_mechanics::units::{InShopUnits, inches, pounds};
    /// let rubber = RubberByCapacity::new(pounds(3000.0), inches(5.0), inches(0.5));
    /// // A fifth of the way to 2 1/2 in: 3,000·0.2^1.2.
    /// assert!((rubber.force(inches(0.5)).customary() - 434.9).abs() < 2.0);
    /// ```
    pub fn new(capacity: Force, free_height: Length, clearance: Length) -> Self {
        let most = metres(within(HEIGHT, free_height.si())) * MOST_SQUASH;
        let carries = newtons(within(CAPACITY, capacity.si()));
        let even = (0..=POINTS).map(|point| f64::from(point) / f64::from(POINTS));
        let on_the_way = even.map(|share| (most * share, carries * share.powf(HARDENS)));
        let points: Vec<(Length, Force)> = on_the_way.chain([(most * SOLID.0, carries * SOLID.1)]).collect();
        let force = ForceTable::new(&points).expect("it grows from nought");
        RubberByCapacity { capacity, free_height, rubber: LoadRubber { clearance, force } }
    }

    /// What one of them pushes with at a squash.
    pub fn force(&self, squash: Length) -> Force {
        self.rubber.force.force(squash)
    }
}

fn within(bound: Bound, si: f64) -> f64 {
    if si.is_nan() { bound.least } else { si.clamp(bound.least, bound.most) }
}

impl CorrectionKind for RubberByCapacity {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_weight("capacity", self.capacity)
            .with_length("free_height", self.free_height)
            .with_length("clearance", self.rubber.clearance)
    }

    fn account(&self) -> Given {
        self.given().with_length("most_squash", self.free_height * MOST_SQUASH)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.rubber.change(on)
    }

    fn set_to_a_clearance(&self) -> Option<&'static str> {
        self.rubber.set_to_a_clearance()
    }

    fn most_pressed(&self) -> Option<Length> {
        Some(self.free_height * MOST_SQUASH)
    }

    fn takes_up(&self) -> TakesUp {
        self.rubber.takes_up()
    }

    fn works(&self) -> Vec<Work> {
        self.rubber.works()
    }

    fn cautions(&self) -> Vec<Caution> {
        self.rubber.cautions()
    }

    fn stands_for_the_stop(&self) -> Option<&'static str> {
        self.rubber.stands_for_the_stop()
    }
}
