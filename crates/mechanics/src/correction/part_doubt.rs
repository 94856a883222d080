//! How far a part may be from what was said of it: every doubt of a part stands here, and each figure of each kind names its own.
//!
//! All of them are working rules of our own, as one standard deviation, until a part is known better.

use super::Quantity;
use crate::stance::ForceTable;
use crate::units::{InShopUnits, METRES_PER_INCH, PASCALS_PER_PSI, metres, newtons, newtons_per_metre, pascals};

/// How far a figure may be from what was said, as one standard deviation.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PartDoubt {
    /// It is what it is: a block's height, a place.
    Exact,
    /// A share of it.
    Share(f64),
    /// A length either way, m.
    Length(f64),
    /// A pressure either way, Pa.
    Pressure(f64),
}

impl PartDoubt {
    /// What a box says that a leaf lifts.
    pub const ADVERTISED_LIFT: PartDoubt = PartDoubt::Length(0.5 * METRES_PER_INCH);
    /// The rate of a leaf, a helper or a bar.
    pub const PART_RATE: PartDoubt = PartDoubt::Share(0.10);
    /// The force of a rubber at any squash, as typed.
    pub const RUBBER_FORCE: PartDoubt = PartDoubt::Share(0.10);
    /// Where a helper or a rubber begins to bear.
    pub const ENGAGEMENT: PartDoubt = PartDoubt::Length(0.125 * METRES_PER_INCH);
    /// What helpers carry, as their box says it.
    pub const HELPER_CAPACITY: PartDoubt = PartDoubt::Share(0.25);
    /// Where helpers begin to bear that are set as the box says.
    pub const ENGAGEMENT_AS_SOLD: PartDoubt = PartDoubt::Length(0.25 * METRES_PER_INCH);
    /// What a rubber carries, as its box says it.
    pub const RUBBER_CAPACITY: PartDoubt = PartDoubt::Share(0.35);
    /// What a bag carries at a pressure, as its sheet says it.
    pub const BAG_CAPACITY: PartDoubt = PartDoubt::Share(0.10);
    /// A bag's diameter inside its coil; its area is twice as far off.
    pub const BAG_DIAMETER: PartDoubt = PartDoubt::Share(0.05);
    /// What a gauge reads, as shops have them (2 psi).
    pub const GAUGE: PartDoubt = PartDoubt::Pressure(2.0 * PASCALS_PER_PSI);
    /// What a box says that coils lift.
    pub const COILS_LIFT: PartDoubt = PartDoubt::Length(0.75 * METRES_PER_INCH);
    /// How far springs have set that nobody measured.
    pub const SET: PartDoubt = PartDoubt::Length(0.5 * METRES_PER_INCH);
    /// The rate of springs that only a box speaks of.
    pub const BOUGHT_RATE: PartDoubt = PartDoubt::Share(0.20);
    /// A coil's free height beside another, by a tape.
    pub const FREE_HEIGHT: PartDoubt = PartDoubt::Length(0.125 * METRES_PER_INCH);
    /// A coil's rate from its wire, its diameter and its turns; laid on the turns, by which it goes one to one.
    pub const COIL_RATE: PartDoubt = PartDoubt::Share(0.05);
    /// An arm's length to where a strut stands: what an independent front makes of a spacer.
    pub const MOTION_RATIO: PartDoubt = PartDoubt::Share(0.15);
    /// What is left of an arch pressed in once the leaves have settled.
    pub const ARCH_GAINED: PartDoubt = PartDoubt::Share(0.10);
    /// A spacer's height, as it counts at the wheel.
    pub const SPACER: PartDoubt = PartDoubt::Length(METRES_PER_INCH / 32.0);
    /// A tire across, by its size.
    pub const TIRE_SIZE: PartDoubt = PartDoubt::Length(METRES_PER_INCH / 32.0);
    /// What a shackle lowers the eye by, of what it is longer: its slope takes or gives some of that.
    pub const SHACKLE_SLOPE: PartDoubt = PartDoubt::Share(0.10);
    /// What a pack worked out from its leaves' sizes carries more or less: thickness counts three times.
    pub const WORKED_OUT_FROM_LEAVES: PartDoubt = PartDoubt::Share(crate::pack::LEAF_RATE_SD);

    /// Such a share of it.
    #[must_use]
    pub fn left(self, share: f64) -> PartDoubt {
        match self {
            PartDoubt::Exact => PartDoubt::Exact,
            PartDoubt::Share(sd) => PartDoubt::Share(sd * share),
            PartDoubt::Length(sd) => PartDoubt::Length(sd * share),
            PartDoubt::Pressure(sd) => PartDoubt::Pressure(sd * share),
        }
    }

    /// A figure in SI units, so many standard deviations off; as it is, of an exact one.
    pub fn off(self, si: f64, deviations: f64) -> f64 {
        match self {
            PartDoubt::Exact => si,
            PartDoubt::Share(share) => si * (1.0 + share * deviations),
            PartDoubt::Length(sd) | PartDoubt::Pressure(sd) => si + sd * deviations,
        }
    }

    /// A figure so many standard deviations off; `None` for one that is exact, or that no such doubt goes with.
    pub(super) fn moved(self, figure: &Quantity, deviations: f64) -> Option<Quantity> {
        let number = |si: f64| (self != PartDoubt::Exact).then(|| self.off(si, deviations));
        Some(match figure {
            Quantity::Length(length) => Quantity::Length(metres(number(length.si())?)),
            Quantity::Weight(force) => Quantity::Weight(newtons(number(force.si())?)),
            Quantity::Rate(rate) => Quantity::Rate(newtons_per_metre(number(rate.si())?)),
            Quantity::Pressure(pressure) => Quantity::Pressure(pascals(number(pressure.si())?)),
            Quantity::Count(count) => Quantity::Count(number(*count)?),
            Quantity::Table(table) => {
                let points = table.points().map(|(travel, force)| Some((travel, newtons(number(force.si())?))));
                Quantity::Table(ForceTable::new(&points.collect::<Option<Vec<_>>>()?).ok()?)
            }
            Quantity::Pack(_) => return None,
        })
    }
}
