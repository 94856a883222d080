//! Whether a pack as read on the bench agrees with what the tape says of it under the vehicle.

use super::{LEAF_RATE_SD, PackState};
use crate::units::{InShopUnits, Length, SpringRate, inches};

/// An arch under a vehicle is read to some sixteenth of an inch (common practice).
const TAPE_IN: f64 = 1.0 / 16.0;

/// The arch that leaves make against the one that was read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ArchAgreement {
    /// No further apart than leaf friction and the tape explain.
    Agrees,
    /// It was read lower by so much: sag that is not in the leaves as read.
    ReadLower(Length),
    /// It was read higher by so much.
    ReadHigher(Length),
}

/// The rate that leaves make against the one that was measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RateAgreement {
    /// As well as tape and thickness can tell.
    Agrees,
    /// The leaves are stiffer on paper.
    StifferOnPaper,
    /// The leaves are softer on paper.
    SofterOnPaper,
}

impl PackState {
    /// Holds the state's arch against one read under that load; `None` where the state is outside the model.
    pub fn against_arch(&self, read: Length) -> Option<ArchAgreement> {
        let off = self.arch? - read;
        Some(match off {
            off if off.abs() <= self.friction_band() + inches(TAPE_IN) => ArchAgreement::Agrees,
            off if off.si() > 0.0 => ArchAgreement::ReadLower(off),
            off => ArchAgreement::ReadHigher(-off),
        })
    }
}

impl RateAgreement {
    /// Holds the rate of all leaves together against the measured one, whose standard deviation is a share of it: two of both still
    /// agree.
    pub fn of(leaves: SpringRate, measured: SpringRate, relative_sd: f64) -> Self {
        match (leaves / measured).value - 1.0 {
            off if off.abs() <= 2.0 * relative_sd.hypot(LEAF_RATE_SD) => RateAgreement::Agrees,
            off if off > 0.0 => RateAgreement::StifferOnPaper,
            _ => RateAgreement::SofterOnPaper,
        }
    }
}
