//! What a job writes down of its vehicle, and of how it is measured.

use wise_badger_mechanics::tape::Datum;

use crate::entry::Typed;
use crate::survey::{Ends, RearWheels, Tandem, VehicleClass, VehicleFacts};

/// What intake writes down, as typed.
#[derive(Debug, Clone, PartialEq)]
pub struct Intake {
    /// What the shop calls the job.
    pub label: String,
    /// The vehicle's class.
    pub class: VehicleClass,
    /// Its rear wheels.
    pub rear_wheels: RearWheels,
    /// Between the axles; of a trailer, from the coupler to the middle between its axles.
    pub wheelbase: Typed,
    /// Between a trailer's axles, where known.
    pub axle_spread: Option<Typed>,
    /// Whether rockers make a trailer's axles carry alike.
    pub equalised: bool,
    /// Front axle rating; of a trailer, what the hitch may carry.
    pub front_rating: Typed,
    /// Rear axle rating; of a trailer, both axles together.
    pub rear_rating: Typed,
    /// Gross rating.
    pub gross_rating: Option<Typed>,
    /// Front axle, empty.
    pub kerb_front: Option<Typed>,
    /// Rear axle, empty.
    pub kerb_rear: Option<Typed>,
}

impl Intake {
    /// As the mechanics take it.
    pub fn vehicle(&self) -> VehicleFacts {
        let axle_ratings = Ends { front: self.front_rating.force(), rear: self.rear_rating.force() };
        VehicleFacts {
            tandem: self.class.is_trailer().then(|| self.tandem()),
            gross_rating: self.gross_rating.as_ref().map(Typed::force),
            kerb: Ends { front: self.kerb_front.as_ref().map(Typed::force), rear: self.kerb_rear.as_ref().map(Typed::force) },
            ..VehicleFacts::new(self.class, self.rear_wheels, self.wheelbase.length(), axle_ratings)
        }
    }

    fn tandem(&self) -> Tandem {
        let assumed = Tandem::default();
        Tandem { spread: self.axle_spread.as_ref().map_or(assumed.spread, Typed::length), equalised: self.equalised }
    }
}

/// How the heights of a job are read.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TapeManner {
    /// What they are measured from.
    pub datum: Datum,
    /// Whether a rear height that rises with load was said to be right.
    pub rear_rise_confirmed: bool,
}

/// How the heights of a job were read, as far as they were.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Measured {
    /// What they are measured from, once chosen.
    pub datum: Option<Datum>,
    /// Whether somebody said that a rear height that rises with load is right.
    pub rear_rise_confirmed: bool,
}
