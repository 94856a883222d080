//! Leaf packs with real contact between the leaves: where the eye sits under load, at what rate, and at what stress.
//!
//! One half at a time, front and rear each by itself: leaves are cantilevers from the edge of the clamp, bent from their own
//! free curvature, that press on each other at stations along their overlap and never pull. What is found is the least energy
//! under that condition, a linear complementarity problem: `w = q + rP + Aλ ≥ 0`, `λ ≥ 0`, `w·λ = 0`, with `w` the gaps and `λ`
//! the contact forces.
//!
//! Axes: x from the clamp's edge to the eye, heights up, leaf 0 the main leaf at the top, its eyes at its ends.
//!
//! Left out, and to be said wherever it matters: friction between the leaves (5 to 15 % of the load, so that a height is only
//! known to ±F/k until the vehicle is rolled and bounced), tapered leaves, shackle angle, windup.
//!
//! Around the engine: `reading` makes a pack of what was read on the bench, `fit` brings its arch to what stands under the
//! vehicle, `curve` hands it to the stance as a spring, `edit` puts leaves in and takes them out, `rearch` finds the arch that a
//! height needs, `sheet` and `bits` say what the smith and the fitter need, `steel` what a leaf may be asked, `set` what it loses past
//! yield, `overload` which leaf is the overload leaf.
//!
//! ```
//! use wise_badger_mechanics::pack::{Clamp, Leaf, Pack};
//! use wise_badger_mechanics::units::{InShopUnits, inches, newtons, per_metre};
//!
//! // Handbook: a single leaf of length L under a load at its middle has k = 4Ewt³/L³.
//! let leaf = Leaf { curvature: per_metre(0.6), ..Leaf::flat("main", inches(2.5), inches(0.3), inches(28.0)) };
//! let pack = Pack::of(vec![leaf], Clamp::default());
//! let state = pack.prepare(newtons(1500.0)).expect("sound").state(newtons(500.0)).expect("solved");
//! let handbook = 4.0 * 206e9 * 0.0635 * 0.00762_f64.powi(3) / 1.4224_f64.powi(3);
//! assert!((state.rate.si() - handbook).abs() / handbook < 1e-9);
//! ```

mod agreement;
mod arch;
mod bits;
mod check;
mod contact;
mod curve;
mod edit;
mod fit;
mod half;
mod helper;
mod loose;
mod overload;
mod reading;
mod rearch;
mod set;
mod sheet;
mod state;
mod steel;

pub use agreement::{ArchAgreement, RateAgreement};
pub use arch::{arch_with_large_deflection, radius_from_sagitta, sagitta_of_arc};
pub use bits::{Bits, BitsGiven, Clip, shim_for};
pub use check::PackError;
pub use curve::{PackCurve, PackWork};
pub use edit::{PackDoubt, PartKind};
pub use helper::OverHelper;
pub use overload::OverloadLeaf;
pub use reading::{Estimated, LeafReading, PackReading, ReadPack};
pub use rearch::{Presetting, Rearch, RearchRefusal, Rule, WantedArch};
pub use sheet::{ArchSheet, Offset};
pub use state::{Contact, CurvePoint, LeafLine, LeafStress, PackState, Prepared};
pub use steel::{Steel, Strained};

use crate::units::{Curvature, Length, Pressure, inches, pascals};

/// A leaf spring: leaves from top to bottom, clamped at the middle.
#[derive(Debug, Clone, PartialEq)]
pub struct Pack {
    /// Young's modulus of the steel.
    pub young_modulus: Pressure,
    /// What the clamp takes out of the bending.
    pub clamp: Clamp,
    /// From the main leaf down.
    pub leaves: Vec<Leaf>,
    /// A helper over the pack whose ends hold the main leaf up, where there is one.
    pub helper: Option<OverHelper>,
    /// Which of them is the overload leaf.
    pub overload: OverloadLeaf,
}

impl Pack {
    /// Leaves of usual spring steel with no helper.
    pub fn of(leaves: Vec<Leaf>, clamp: Clamp) -> Self {
        Pack { young_modulus: pascals(YOUNG_MODULUS_PA), clamp, leaves, helper: None, overload: OverloadLeaf::default() }
    }

    /// Where every leaf's middle line lies at the centre bolt, under that of the main leaf: nought, then below it.
    pub fn seats(&self) -> Vec<Length> {
        let mut seats: Vec<Length> = Vec::with_capacity(self.leaves.len());
        let mut above: Option<&Leaf> = None;
        for leaf in &self.leaves {
            let under = above.map_or(Length::default(), |above| (above.thickness + leaf.thickness) / 2.0 + leaf.spacer_above);
            seats.push(seats.last().copied().unwrap_or_default() - under);
            above = Some(leaf);
        }
        seats
    }

    /// All of its thickness at the centre bolt, spacers too.
    pub fn stack(&self) -> Length {
        self.leaves.iter().map(|leaf| leaf.thickness + leaf.spacer_above).sum()
    }
}

/// Share of its load that friction between its leaves may hold a pack from its height by, either way (common practice).
pub const LEAF_FRICTION: f64 = 0.05;

/// Standard deviation of a rate worked out from leaves, as a share of it: it goes with the third power of a thickness read to some
/// three hundredths.
pub const LEAF_RATE_SD: f64 = 0.10;

/// Young's modulus of spring steel, Pa (SAE HS-788, from memory: 29 to 30 million psi).
pub const YOUNG_MODULUS_PA: f64 = 206e9;

/// Inactive length either side of the centre bolt.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Clamp {
    /// Towards the front eye.
    pub front: Length,
    /// Towards the rear eye.
    pub rear: Length,
}

impl Clamp {
    /// What a clamp usually takes, until it is measured: three inches either side of the bolt, of a short half three tenths
    /// (common practice).
    pub fn usual(front: Length, rear: Length) -> Self {
        let half = |half: Length| inches(3.0).min(half * 0.3);
        Clamp { front: half(front), rear: half(rear) }
    }
}

/// One leaf as it is when free.
#[derive(Debug, Clone, PartialEq)]
pub struct Leaf {
    /// What it is called.
    pub name: String,
    /// Its width.
    pub width: Length,
    /// Its thickness.
    pub thickness: Length,
    /// From the centre bolt to its front end.
    pub front: Length,
    /// From the centre bolt to its rear end.
    pub rear: Length,
    /// Free curvature; positive, its ends stand above its seat.
    pub curvature: Curvature,
    /// Thickness of a spacer between it and the leaf above.
    pub spacer_above: Length,
}

impl Leaf {
    /// A flat leaf of equal halves with no spacer.
    pub fn flat(name: &str, width: Length, thickness: Length, half: Length) -> Self {
        let nothing = Length::default();
        Leaf {
            name: name.to_owned(),
            width,
            thickness,
            front: half,
            rear: half,
            curvature: Curvature::default(),
            spacer_above: nothing,
        }
    }
}

/// One half of a pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum HalfName {
    /// From the centre bolt to the front eye.
    Front,
    /// From the centre bolt to the rear eye.
    Rear,
}

impl HalfName {
    /// Front, then rear.
    pub const BOTH: [HalfName; 2] = [HalfName::Front, HalfName::Rear];

    /// The half's name as the documents write it.
    pub fn name(self) -> &'static str {
        match self {
            HalfName::Front => "front",
            HalfName::Rear => "rear",
        }
    }
}
