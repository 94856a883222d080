//! The facts of a vehicle, as stated or as assumed.

use wise_badger_mechanics::pack::PackCurve;
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, inches};

use super::basis::Basis;
use super::class::{ClassAssumptions, RearWheels, VehicleClass};
use super::end::{End, Ends};
use super::item::Item;
use super::spring::{PartThere, SpringKind};
use crate::bounds::{AXLE_SPREAD, WHEELBASE};

/// How the axles of a trailer stand, where there are several.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tandem {
    /// From one axle to the next.
    pub spread: Length,
    /// Whether rockers between the springs make both carry alike.
    pub equalised: bool,
}

impl Default for Tandem {
    /// What is assumed until it is known: 33 in apart, with rockers (common practice).
    fn default() -> Self {
        Tandem { spread: inches(33.0), equalised: true }
    }
}

/// What intake knows of the vehicle.
#[derive(Debug, Clone, PartialEq)]
pub struct VehicleFacts {
    /// Its class.
    pub class: VehicleClass,
    /// Its rear wheels.
    pub rear_wheels: RearWheels,
    /// Between the axles; of a trailer, from the coupler to the middle between its axles.
    pub wheelbase: Length,
    /// How a trailer's axles stand, where known; absent on everything else.
    pub tandem: Option<Tandem>,
    /// What each axle is rated to carry; of a trailer, what the hitch may carry and what both axles may together.
    pub axle_ratings: Ends<Force>,
    /// What the whole vehicle is rated to weigh, where known.
    pub gross_rating: Option<Force>,
    /// Empty axle weights as it stands, with what it always carries, where known.
    pub kerb: Ends<Option<Force>>,
    /// What one tyre of each end may carry as it is used there (single or dual), where known.
    pub tyre_ratings: Ends<Option<Force>>,
    /// What one wheel of each end may carry, where known.
    pub wheel_ratings: Ends<Option<Force>>,
    /// What may press on its own hitch, where known.
    pub hitch_rating: Option<Force>,
    /// From the rear axle to the tail, where measured.
    pub rear_overhang: Option<Length>,
    /// Between the middles of the rear wheels (of a dual pair: of the pairs), where measured.
    pub rear_track: Option<Length>,
    /// What all rear springs together should have when sound, where the maker or the spring's own sheet says.
    pub rear_rate_when_sound: Option<SpringRate>,
    /// How far the rear springs have set, by what it stood at when sound; of a vehicle to whose rear nothing was done since.
    pub rear_set: Option<Uncertain<Length>>,
    /// What either end rests on, where known.
    pub springs: Ends<Option<SpringKind>>,
    /// Whether the rear springs sit over their axle or under it, where known.
    pub rear_spring_over: Option<bool>,
    /// The blocks at its rear, where there are any.
    pub rear_block: Option<PartThere>,
    /// The spacers at its coils, where there are any.
    pub spacers: Ends<Option<PartThere>>,
    /// One of its rear packs as found on the bench, where it was read there: the others are taken to be like it.
    pub rear_pack: Option<Sides<PackCurve>>,
    /// What it always carries: part of its empty weight and of every height read.
    pub always: Vec<Item>,
}

/// Something about the facts that cannot be.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum VehicleProblem {
    /// No vehicle of the kind is this short or long between axles.
    Wheelbase,
    /// A trailer's axles are too close for their wheels, or too far apart to share a load.
    Spread,
    /// An axle's empty weight does not even hold its wheels and beam down.
    KerbTooLight {
        /// Which axle.
        end: End,
        /// The least believed.
        least: Force,
    },
}

impl VehicleFacts {
    /// What one rear spring carries of a load on the rear axle (of a trailer, on all its axles together).
    pub fn on_one_spring(&self, rear: Force) -> Force {
        let assumed = self.assumptions();
        (rear - assumed.rear_unsprung) / (2.0 * f64::from(assumed.rear_axles))
    }

    /// The load that a rear spring is looked at up to: twice its share of what the axle is rated to carry.
    pub fn most_spring_load(&self) -> Force {
        2.0 * self.on_one_spring(self.axle_ratings.rear)
    }

    /// A vehicle of which no more is known.
    pub fn new(class: VehicleClass, rear_wheels: RearWheels, wheelbase: Length, axle_ratings: Ends<Force>) -> Self {
        VehicleFacts {
            class,
            rear_wheels,
            wheelbase,
            axle_ratings,
            tandem: None,
            gross_rating: None,
            kerb: Ends::default(),
            tyre_ratings: Ends::default(),
            wheel_ratings: Ends::default(),
            hitch_rating: None,
            rear_overhang: None,
            rear_track: None,
            rear_rate_when_sound: None,
            rear_set: None,
            springs: Ends::default(),
            rear_spring_over: None,
            rear_block: None,
            spacers: Ends::default(),
            rear_pack: None,
            always: Vec::new(),
        }
    }

    /// How many tyres stand at an end; a trailer's coupler has none.
    pub fn tyre_count(&self, end: End) -> u8 {
        match end {
            End::Front if self.class.is_trailer() => 0,
            End::Front => 2,
            End::Rear => self.assumptions().rear_axles * if self.rear_wheels == RearWheels::Dual { 4 } else { 2 },
        }
    }

    /// Whether its rear rests on leaf packs, as far as anybody said: friction between leaves holds nothing else.
    pub fn rests_on_leaves(&self) -> bool {
        self.springs.rear.is_none_or(|rear| rear == SpringKind::Leaf)
    }

    /// What is assumed for its class.
    pub fn assumptions(&self) -> ClassAssumptions {
        self.class.assumptions(self.rear_wheels, self.springs.rear)
    }

    /// How a trailer's axles stand, assumed where it is not known; `None` on everything else.
    pub fn tandem(&self) -> Option<Tandem> {
        self.class.is_trailer().then(|| self.tandem.unwrap_or_default())
    }

    /// Empty weight of an axle, and whether it was stated or assumed. What is assumed for the class has nothing aboard, so
    /// what the vehicle always carries comes on top of it.
    pub fn kerb_weight(&self, end: End) -> (Force, Basis) {
        let assumed = self.assumptions();
        match (end, self.kerb.get(end)) {
            (_, Some(stated)) => (*stated, Basis::Stated),
            (End::Front, None) => (assumed.kerb_front + self.always_on(end), Basis::Assumed),
            (End::Rear, None) => (assumed.kerb_rear + self.always_on(end), Basis::Assumed),
        }
    }

    /// What an axle carries of that which is always aboard.
    pub fn always_on(&self, end: End) -> Force {
        self.always.iter().map(|item| item.weight * item.share_on(end, self.wheelbase)).sum()
    }

    /// Everything about the facts that cannot be.
    pub fn problems(&self) -> Vec<VehicleProblem> {
        let mut problems = Vec::new();
        if !WHEELBASE.holds(self.wheelbase.si()) {
            problems.push(VehicleProblem::Wheelbase);
        }
        if self.tandem().is_some_and(|tandem| !AXLE_SPREAD.holds(tandem.spread.si())) {
            problems.push(VehicleProblem::Spread);
        }
        let wheels = 1.2 * self.assumptions().rear_unsprung;
        for end in [End::Front, End::Rear] {
            let (kerb, _) = self.kerb_weight(end);
            // A coupler has no wheels of its own to hold down.
            let least = if end == End::Front && self.class.is_trailer() { Force::default() } else { wheels };
            if kerb < least {
                problems.push(VehicleProblem::KerbTooLight { end, least });
            }
        }
        problems
    }
}
