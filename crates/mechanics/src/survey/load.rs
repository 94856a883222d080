//! What was put on between the empty and the loaded heights, and what each axle carries of it.

use super::vehicle::{Basis, End, Ends, VehicleFacts};
use crate::uncertain::Uncertain;
use crate::units::{Force, InShopUnits, Length, inches, metres, newtons, pounds};

/// What was put on, as the shop knows it.
#[derive(Debug, Clone, PartialEq)]
pub enum LoadPut {
    /// A weight at a place.
    Placed {
        /// Its weight.
        weight: Force,
        /// Rearward from the rear axle; negative is ahead of it.
        behind_rear_axle: Length,
    },
    /// The axles were weighed.
    Weighed {
        /// Rear axle, empty and loaded.
        rear: EmptyAndLoaded,
        /// Front axle, empty and loaded, when weighed too.
        front: Option<EmptyAndLoaded>,
    },
}

/// A pair of axle weights.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct EmptyAndLoaded {
    /// Without the load.
    pub empty: Force,
    /// With it.
    pub loaded: Force,
}

/// Something about a load that cannot be.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum LoadProblem {
    /// The place is not on the vehicle.
    OffTheVehicle {
        /// The furthest ahead of the rear axle that is.
        most_ahead: Length,
        /// The furthest behind it that is.
        most_behind: Length,
    },
    /// There is no weight.
    Nothing,
    /// The lever arm lifts the front axle off the ground.
    LiftsTheFront,
    /// An axle weighs no more loaded than empty, or less than its wheels.
    ScaleOrder(End),
}

/// Standard deviation of a weight known by scale, or of a load stated by weight (common practice).
pub fn scale_sd() -> Force {
    pounds(26.0)
}

/// Standard deviation of where a load is said to sit (common practice).
pub fn place_sd() -> Length {
    inches(2.0)
}

/// What the axles carry.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleLoads {
    /// Empty.
    pub empty: Ends<Force>,
    /// Whether the empty weights are stated or assumed.
    pub empty_basis: Ends<Basis>,
    /// What the load adds; the front's is not known when only the rear was weighed.
    pub change: Ends<Option<Uncertain<Force>>>,
}

impl AxleLoads {
    /// What an axle carries with the load on.
    pub fn loaded(&self, end: End) -> Option<Force> {
        self.change.get(end).map(|change| *self.empty.get(end) + change.value)
    }
}

impl LoadPut {
    /// What the axles carry with nothing put on.
    pub fn empty_loads(vehicle: &VehicleFacts) -> AxleLoads {
        let (front, front_basis) = vehicle.kerb_weight(End::Front);
        let (rear, rear_basis) = vehicle.kerb_weight(End::Rear);
        AxleLoads {
            empty: Ends { front, rear },
            empty_basis: Ends { front: front_basis, rear: rear_basis },
            change: Ends { front: None, rear: None },
        }
    }

    /// What the axles carry, empty and with the load.
    ///
    /// A placed load is shared by lever arms, `ΔR = W·x/L`, `ΔF = W − ΔR`, with
    /// `σ² = (x/L·σ_W)² + (W·σ_x/L)²`, `x` from the front axle. Weighed axles are taken as weighed.
    pub fn axle_loads(&self, vehicle: &VehicleFacts) -> AxleLoads {
        let mut loads = Self::empty_loads(vehicle);
        match self {
            LoadPut::Placed { weight, behind_rear_axle } => {
                let wheelbase = vehicle.wheelbase.si();
                let share = (wheelbase + behind_rear_axle.si()) / wheelbase;
                let place_part = weight.si() * place_sd().si() / wheelbase;
                let change = |share: f64| {
                    let sd = (share * scale_sd().si()).hypot(place_part);
                    Some(Uncertain::new(*weight * share, newtons(sd)))
                };
                loads.change = Ends { front: change(1.0 - share), rear: change(share) };
            }
            LoadPut::Weighed { rear, front } => {
                let change = |pair: &EmptyAndLoaded| {
                    Uncertain::new(pair.loaded - pair.empty, newtons(scale_sd().si() * std::f64::consts::SQRT_2))
                };
                loads.empty.rear = rear.empty;
                loads.empty_basis.rear = Basis::Stated;
                loads.change.rear = Some(change(rear));
                if let Some(front) = front {
                    loads.empty.front = front.empty;
                    loads.empty_basis.front = Basis::Stated;
                    loads.change.front = Some(change(front));
                }
            }
        }
        loads
    }

    /// Everything about the load that cannot be.
    pub fn problems(&self, vehicle: &VehicleFacts) -> Vec<LoadProblem> {
        match self {
            LoadPut::Placed { weight, .. } if weight.si() <= 0.0 => vec![LoadProblem::Nothing],
            LoadPut::Placed { behind_rear_axle, .. } => {
                let (most_ahead, most_behind) = reach(vehicle);
                if *behind_rear_axle > most_behind || -*behind_rear_axle > most_ahead {
                    return vec![LoadProblem::OffTheVehicle { most_ahead, most_behind }];
                }
                let loads = self.axle_loads(vehicle);
                // A coupler can be pulled up; that is an answer, and is warned of.
                let lifted = loads.loaded(End::Front).is_some_and(|front| front.si() < 0.0 && !vehicle.class.is_trailer())
                    || loads.loaded(End::Rear).is_some_and(|rear| rear.si() < 0.0);
                if lifted { vec![LoadProblem::LiftsTheFront] } else { Vec::new() }
            }
            LoadPut::Weighed { rear, .. } => {
                let least = 1.2 * vehicle.assumptions().rear_unsprung;
                let wrong = rear.loaded <= rear.empty || rear.empty < least;
                if wrong { vec![LoadProblem::ScaleOrder(End::Rear)] } else { Vec::new() }
            }
        }
    }
}

/// How far ahead of and behind the rear axle a load can sit: past the front bumper by no more than a
/// plough's reach (a trailer ends at its coupler), behind by no more than the longest overhang on the road.
fn reach(vehicle: &VehicleFacts) -> (Length, Length) {
    let ahead_of_front = if vehicle.class.is_trailer() { 0.0 } else { 1.5 };
    (vehicle.wheelbase + metres(ahead_of_front), 0.8 * vehicle.wheelbase)
}
