//! The facts of a vehicle, as stated or as assumed.

use super::class::{ClassAssumptions, RearWheels, VehicleClass};
use crate::units::{Force, InShopUnits, Length, inches};

/// Front or rear of a two-axle vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum AxleEnd {
    /// The steered axle.
    Front,
    /// The axle that sags.
    Rear,
}

/// A thing for each axle of a two-axle vehicle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ends<T> {
    /// The front axle's.
    pub front: T,
    /// The rear axle's.
    pub rear: T,
}

impl<T> Ends<T> {
    /// The one at `end`.
    pub fn get(&self, end: AxleEnd) -> &T {
        match end {
            AxleEnd::Front => &self.front,
            AxleEnd::Rear => &self.rear,
        }
    }
}

/// Where a figure came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Basis {
    /// Weighed or stated for this vehicle.
    Stated,
    /// Assumed for the class.
    Assumed,
}

/// What intake knows of the vehicle.
#[derive(Debug, Clone, PartialEq)]
pub struct VehicleFacts {
    /// Its class.
    pub class: VehicleClass,
    /// Its rear wheels.
    pub rear_wheels: RearWheels,
    /// Between the axles.
    pub wheelbase: Length,
    /// What each axle is rated to carry.
    pub axle_ratings: Ends<Force>,
    /// What the whole vehicle is rated to weigh, where known.
    pub gross_rating: Option<Force>,
    /// Empty axle weights, where known.
    pub kerb: Ends<Option<Force>>,
}

/// Something about the facts that cannot be.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum VehicleProblem {
    /// No vehicle of the kind is this short or long between axles.
    Wheelbase {
        /// The shortest believed.
        least: Length,
        /// The longest believed.
        most: Length,
    },
    /// An axle is rated for less than it weighs empty.
    RatingBelowKerb {
        /// Which axle.
        end: AxleEnd,
        /// Its empty weight.
        kerb: Force,
        /// Whether that weight was stated or assumed.
        basis: Basis,
    },
    /// The gross rating is below the empty weight.
    GrossBelowKerb {
        /// The empty weight of both axles.
        kerb: Force,
    },
    /// An axle's empty weight does not even hold its wheels and beam down.
    KerbTooLight {
        /// Which axle.
        end: AxleEnd,
        /// The least believed.
        least: Force,
    },
}

impl VehicleFacts {
    /// What is assumed for its class.
    pub fn assumptions(&self) -> ClassAssumptions {
        self.class.assumptions(self.rear_wheels)
    }

    /// Empty weight of an axle, and whether it was stated or assumed.
    pub fn kerb_weight(&self, end: AxleEnd) -> (Force, Basis) {
        let assumed = self.assumptions();
        match (end, self.kerb.get(end)) {
            (_, Some(stated)) => (*stated, Basis::Stated),
            (AxleEnd::Front, None) => (assumed.kerb_front, Basis::Assumed),
            (AxleEnd::Rear, None) => (assumed.kerb_rear, Basis::Assumed),
        }
    }

    /// Everything about the facts that cannot be.
    pub fn problems(&self) -> Vec<VehicleProblem> {
        let mut problems = Vec::new();
        let (least, most) = (inches(60.0), inches(360.0));
        if self.wheelbase < least || self.wheelbase > most {
            problems.push(VehicleProblem::Wheelbase { least, most });
        }
        let unsprung = self.assumptions().rear_unsprung;
        for end in [AxleEnd::Front, AxleEnd::Rear] {
            let (kerb, basis) = self.kerb_weight(end);
            if kerb.si() < 1.2 * unsprung.si() {
                problems.push(VehicleProblem::KerbTooLight { end, least: 1.2 * unsprung });
            } else if *self.axle_ratings.get(end) < kerb {
                problems.push(VehicleProblem::RatingBelowKerb { end, kerb, basis });
            }
        }
        let kerb = self.kerb_weight(AxleEnd::Front).0 + self.kerb_weight(AxleEnd::Rear).0;
        if self.gross_rating.is_some_and(|gross| gross < kerb) {
            problems.push(VehicleProblem::GrossBelowKerb { kerb });
        }
        problems
    }
}
