//! The corrections of the trade that this program predicts.

use crate::pack::PackWork;
use crate::stance::{Axle, Change, Element, ElementKind, ForceTable, Mount, StopCurve, Vehicle};
use crate::units::{Force, InShopUnits, Length, SpringRate, inches, metres};

/// One thing fitted at the rear, both sides and (on a trailer) both axles alike.
#[derive(Debug, Clone, PartialEq)]
pub enum Correction {
    /// A block between spring and axle.
    LiftBlock {
        /// Its height.
        thickness: Length,
    },
    /// A pair of springs over or beside the axle that bear past a gap.
    HelperSpring {
        /// All helpers together.
        pair_rate: SpringRate,
        /// Clearance empty; negative is set tight by so much.
        engagement_gap: Length,
    },
    /// A leaf added to each pack.
    AddedLeaf {
        /// What it adds to the rate, all packs together.
        pair_rate: SpringRate,
        /// What it lifts empty.
        lift: Length,
    },
    /// A rubber in place of each bump stop that carries load.
    LoadRubber {
        /// Clearance empty.
        clearance: Length,
        /// Force of one rubber against its compression.
        force: ForceTable,
    },
    /// The packs re-arched.
    RearchedPack {
        /// Free height gained.
        free_height_gained: Length,
    },
    /// The packs rebuilt on the bench, leaf by leaf, all alike.
    ReworkedPack(Box<PackWork>),
}

/// Why a correction is not one.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum CorrectionProblem {
    /// A length outside what such a part has.
    Length {
        /// Which.
        what: &'static str,
        /// The least believed.
        least: Length,
        /// The most believed.
        most: Length,
    },
    /// A rate of nought.
    NoRate,
}

/// What one main spring of an axle carries empty; left and right are alike here.
pub fn kerb_spring_force(axle: &Axle) -> Force {
    (axle.kerb_load() - axle.unsprung_weight) / 2.0
}

/// Rate of one main spring where the vehicle stands empty.
fn corner_rate_at_kerb(axle: &Axle) -> SpringRate {
    let spring = &axle.corners.left.spring;
    let joined = spring.stages.iter().filter(|stage| stage.at_travel.si() < 0.0);
    joined.fold(spring.rate, |rate, stage| rate + stage.added_rate)
}

/// Name of the element that stands for a corner's bump stop.
pub const BUMP_STOP: &str = "bump stop";
const HELPER: &str = "helper";
const ADDED_LEAF: &str = "added leaf";
const LOAD_RUBBER: &str = "load rubber";

impl Correction {
    /// Everything about the correction that cannot be.
    pub fn problems(&self) -> Vec<CorrectionProblem> {
        let within = |what, value: Length, least: f64, most: f64| {
            let (least, most) = (inches(least), inches(most));
            (value < least || value > most).then_some(CorrectionProblem::Length { what, least, most })
        };
        let rate = |rate: &SpringRate| (rate.si() <= 0.0).then_some(CorrectionProblem::NoRate);
        match self {
            Correction::LiftBlock { thickness } => within("block", *thickness, 0.25, 6.0).into_iter().collect(),
            Correction::HelperSpring { pair_rate, engagement_gap } => {
                rate(pair_rate).into_iter().chain(within("engagement gap", *engagement_gap, -3.0, 8.0)).collect()
            }
            Correction::AddedLeaf { pair_rate, lift } => {
                rate(pair_rate).into_iter().chain(within("lift", *lift, -1.0, 6.0)).collect()
            }
            Correction::LoadRubber { clearance, .. } => within("clearance", *clearance, 0.0, 8.0).into_iter().collect(),
            // The bench has looked at it leaf by leaf.
            Correction::ReworkedPack(_) => Vec::new(),
            Correction::RearchedPack { free_height_gained } => {
                within("free height gained", *free_height_gained, 0.125, 6.0).into_iter().collect()
            }
        }
    }

    /// What it changes on these axles of a vehicle, each taking its share of the rates.
    pub fn changes(&self, vehicle: &Vehicle, axles: &[&str]) -> Vec<Change> {
        let of_axle = |name: &str| vehicle.axles.iter().find(|axle| axle.name == name);
        let each = axles.iter().filter_map(|name| of_axle(name));
        each.map(|axle| self.change(axle, axles.len())).collect()
    }

    /// The change on one of so many axles.
    ///
    /// An added leaf that lifts by `d` empty carries `k·d` there, so at rest height it is compressed by
    /// `d·k/k_leaf` and stands `d·(1 + k/k_leaf)` into its travel at kerb.
    fn change(&self, axle: &Axle, of: usize) -> Change {
        #[expect(clippy::cast_precision_loss, reason = "one axle or two")]
        let corners = 2.0 * of as f64;
        let corner_rate = axle.corners.left.spring.rate;
        let fit = |name: &str, mount, kind| Change::Add {
            axle: axle.name.clone(),
            side: None,
            element: Element { name: name.to_owned(), lateral: None, motion_ratio: 1.0, mount, kind },
        };
        let spring = |rate: SpringRate, gap| ElementKind::Helper { gap, rate: rate / corners, already_fitted: false };
        match self {
            Correction::LiftBlock { thickness } => Change::Spacer { axle: axle.name.clone(), side: None, thickness: *thickness },
            Correction::RearchedPack { free_height_gained } => {
                let added_force = *free_height_gained * corner_rate;
                Change::Spring { axle: axle.name.clone(), side: None, added_force }
            }
            Correction::ReworkedPack(work) => {
                let difference = work.difference(kerb_spring_force(axle), corner_rate_at_kerb(axle));
                Change::OtherSpring { axle: axle.name.clone(), side: None, difference }
            }
            Correction::HelperSpring { pair_rate, engagement_gap } => {
                fit(HELPER, Mount::Frame, spring(*pair_rate, *engagement_gap))
            }
            Correction::AddedLeaf { pair_rate, lift } => {
                let gap = metres(-lift.si() * (1.0 + corners * corner_rate.si() / pair_rate.si()));
                fit(ADDED_LEAF, Mount::Pack, spring(*pair_rate, gap))
            }
            Correction::LoadRubber { clearance, force } => {
                let kind = ElementKind::Bump { gap: *clearance, extension: metres(0.0), curve: StopCurve::Table(force.clone()) };
                fit(LOAD_RUBBER, Mount::Frame, kind)
            }
        }
    }

    /// Whether a corner that carries so much empty, and has come down by so much from there, is still inside the model with it.
    pub fn holds_at(&self, carried: Force, down: Length) -> bool {
        match self {
            Correction::ReworkedPack(work) => down <= work.travel_inside_the_model(carried),
            _ => true,
        }
    }

    /// Whether it takes the place of the bump stops, so that their gap no longer exists.
    pub fn replaces_stops(&self) -> bool {
        matches!(self, Correction::LoadRubber { .. })
    }

    /// The element whose clearance tells how much travel is left.
    pub fn travel_element(&self) -> &'static str {
        if self.replaces_stops() { LOAD_RUBBER } else { BUMP_STOP }
    }
}
