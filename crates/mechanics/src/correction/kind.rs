//! The corrections of the trade that this program predicts.

use super::model::{REAR, STOP};
use crate::stance::{Change, Element, ElementKind, ForceTable, Mount, StopCurve};
use crate::survey::LoadState;
use crate::units::{InShopUnits, Length, SpringRate, inches, metres};

/// One thing fitted to the rear axle, both sides alike.
#[derive(Debug, Clone, PartialEq)]
pub enum Correction {
    /// A block between spring and axle.
    LiftBlock {
        /// Its height.
        thickness: Length,
    },
    /// A pair of springs over or beside the axle that bear past a gap.
    HelperSpring {
        /// Both helpers together.
        pair_rate: SpringRate,
        /// Clearance empty; negative is set tight by so much.
        engagement_gap: Length,
    },
    /// A leaf added to each pack.
    AddedLeaf {
        /// What it adds to the rate, both sides together.
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
            Correction::RearchedPack { free_height_gained } => {
                within("free height gained", *free_height_gained, 0.125, 6.0).into_iter().collect()
            }
        }
    }

    /// What it changes on the vehicle, given the rate of both rear springs together.
    ///
    /// An added leaf that lifts by `d` empty carries `k·d` there, so at rest height it is compressed by
    /// `d·k/k_leaf` and stands `d·(1 + k/k_leaf)` into its travel at kerb.
    pub(super) fn changes(&self, pair_rate: SpringRate) -> Vec<Change> {
        match self {
            Correction::LiftBlock { thickness } => {
                vec![Change::Spacer { axle: REAR.to_owned(), side: None, thickness: *thickness }]
            }
            Correction::RearchedPack { free_height_gained } => {
                let added_force = *free_height_gained * pair_rate / 2.0;
                vec![Change::Spring { axle: REAR.to_owned(), side: None, added_force }]
            }
            Correction::HelperSpring { pair_rate: helper_rate, engagement_gap } => {
                vec![fit(HELPER, Mount::Frame, spring(*helper_rate, *engagement_gap))]
            }
            Correction::AddedLeaf { pair_rate: leaf_rate, lift } => {
                let gap = metres(-lift.si() * (1.0 + pair_rate.si() / leaf_rate.si()));
                vec![fit(ADDED_LEAF, Mount::Pack, spring(*leaf_rate, gap))]
            }
            Correction::LoadRubber { clearance, force } => {
                let kind = ElementKind::Bump { gap: *clearance, extension: metres(0.0), curve: StopCurve::Table(force.clone()) };
                vec![fit(LOAD_RUBBER, Mount::Frame, kind)]
            }
        }
    }

    /// Whether it moves the rear by as much whatever the rate of the springs: a block always does, and what does not
    /// bear yet moves nothing.
    pub(super) fn needs_no_rate(&self, state: LoadState) -> bool {
        match self {
            Correction::LiftBlock { .. } => true,
            Correction::HelperSpring { engagement_gap, .. } => state == LoadState::Empty && *engagement_gap >= metres(0.0),
            Correction::LoadRubber { .. } => state == LoadState::Empty,
            Correction::AddedLeaf { .. } | Correction::RearchedPack { .. } => false,
        }
    }

    /// Whether it takes the place of the bump stops, so that their gap no longer exists.
    pub(super) fn replaces_stops(&self) -> bool {
        matches!(self, Correction::LoadRubber { .. })
    }

    /// The element whose clearance tells how much travel is left.
    pub(super) fn travel_element(&self) -> &'static str {
        if self.replaces_stops() { LOAD_RUBBER } else { STOP }
    }
}

fn spring(pair_rate: SpringRate, gap: Length) -> ElementKind {
    ElementKind::Helper { gap, rate: pair_rate / 2.0, already_fitted: false }
}

fn fit(name: &str, mount: Mount, kind: ElementKind) -> Change {
    let element = Element { name: name.to_owned(), lateral: None, motion_ratio: 1.0, mount, kind };
    Change::Add { axle: REAR.to_owned(), side: None, element }
}
