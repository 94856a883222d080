//! What is assumed about a vehicle by its class until something is measured.

use wise_badger_mechanics::units::{Force, Length, SpringRate, inches, pounds, pounds_per_inch};

/// The kind of vehicle, for what is assumed and for how it is drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum VehicleClass {
    /// A light pickup with a box.
    HalfTonPickup,
    /// A heavy pickup with a box.
    OneTonPickup,
    /// A heavy pickup chassis with a flat deck.
    Flatbed,
    /// A panel van.
    Van,
    /// A medium truck with a cargo box.
    BoxTruck,
    /// A motorhome or camper van on a van frame.
    Motorhome,
    /// A trailer on one axle, its front on a hitch.
    SingleTrailer,
    /// A trailer on two axles close together.
    TandemTrailer,
    /// A trailer on three.
    TripleTrailer,
}

/// Tyres at each rear wheel end.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum RearWheels {
    /// One tyre a side.
    Single,
    /// Two tyres a side.
    Dual,
}

/// Everything assumed for a class. Common practice, not a maker's figure; any measurement replaces it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ClassAssumptions {
    /// All rear springs together.
    pub rear_rate: SpringRate,
    /// Both front springs together, at the wheel.
    pub front_rate: SpringRate,
    /// Travel from empty at which an overload leaf usually begins to bear.
    pub second_stage_from: Option<Length>,
    /// How many times stiffer the axle is past it, where that is known of the class.
    pub second_stage_times: Option<f64>,
    /// How many axles there are at the rear: up to three on a trailer.
    pub rear_axles: u8,
    /// One rear wheel end (a dual pair counts as one).
    pub rear_tyre_rate: SpringRate,
    /// One front tyre.
    pub front_tyre_rate: SpringRate,
    /// Rear wheels, hubs and beams.
    pub rear_unsprung: Force,
    /// Front axle, empty; of a trailer, its tongue.
    pub kerb_front: Force,
    /// Rear axle or axles, empty.
    pub kerb_rear: Force,
}

/// Standard deviation of an assumed spring rate, as a share of it (common practice).
pub const ASSUMED_RATE_SD: f64 = 0.35;
/// Standard deviation of an assumed tyre rate, as a share of it (common practice).
pub const ASSUMED_TYRE_SD: f64 = 0.15;

impl ClassAssumptions {
    /// All rear tyres together.
    pub fn rear_tyres(&self) -> SpringRate {
        2.0 * f64::from(self.rear_axles) * self.rear_tyre_rate
    }
}

impl VehicleClass {
    /// Every class, in the order it is offered.
    pub const ALL: [VehicleClass; 9] = [
        VehicleClass::HalfTonPickup,
        VehicleClass::OneTonPickup,
        VehicleClass::Flatbed,
        VehicleClass::Van,
        VehicleClass::BoxTruck,
        VehicleClass::Motorhome,
        VehicleClass::SingleTrailer,
        VehicleClass::TandemTrailer,
        VehicleClass::TripleTrailer,
    ];

    /// Whether its front rests on a hitch, at a height that the tow vehicle decides.
    pub fn is_trailer(self) -> bool {
        matches!(self, VehicleClass::SingleTrailer | VehicleClass::TandemTrailer | VehicleClass::TripleTrailer)
    }

    /// How many axles share the rear's load.
    pub fn rear_axles(self) -> u8 {
        match self {
            VehicleClass::TripleTrailer => 3,
            VehicleClass::TandemTrailer => 2,
            _ => 1,
        }
    }

    /// What is assumed for the class with these rear wheels (common practice).
    pub fn assumptions(self, wheels: RearWheels) -> ClassAssumptions {
        let dual = wheels == RearWheels::Dual;
        // (rear rate, second stage from, front rate, tyre single, tyre dual, unsprung single, unsprung dual, kerb front, kerb rear)
        let (rear, second, front, tyre, tyre_dual, unsprung, unsprung_dual, kerb_front, kerb_rear) = match self {
            VehicleClass::HalfTonPickup => (370.0, Some(4.0), 500.0, 1450.0, 2900.0, 450.0, 650.0, 3000.0, 2250.0),
            VehicleClass::OneTonPickup => (860.0, Some(2.4), 710.0, 2150.0, 4000.0, 650.0, 900.0, 4300.0, 3000.0),
            VehicleClass::Flatbed => (860.0, Some(2.4), 710.0, 2150.0, 4000.0, 650.0, 900.0, 4300.0, 3600.0),
            VehicleClass::Van => (430.0, None, 590.0, 1370.0, 2740.0, 400.0, 600.0, 3000.0, 2400.0),
            VehicleClass::BoxTruck => (1600.0, Some(2.0), 1200.0, 2150.0, 4000.0, 900.0, 1100.0, 5200.0, 5600.0),
            VehicleClass::Motorhome => (700.0, None, 700.0, 2000.0, 4000.0, 700.0, 900.0, 4000.0, 5200.0),
            // Axles of 1,200 lb/in and 290 lb each; the coupler rests on no spring of the trailer's.
            VehicleClass::SingleTrailer => (1200.0, None, 0.0, 1370.0, 2740.0, 290.0, 390.0, 200.0, 1400.0),
            VehicleClass::TandemTrailer => (2400.0, None, 0.0, 1370.0, 2740.0, 580.0, 780.0, 350.0, 2600.0),
            VehicleClass::TripleTrailer => (3600.0, None, 0.0, 1370.0, 2740.0, 870.0, 1170.0, 550.0, 4200.0),
        };
        let second_stage_times = match self {
            VehicleClass::OneTonPickup | VehicleClass::Flatbed => Some(2060.0 / 860.0),
            VehicleClass::BoxTruck => Some(2.0),
            _ => None,
        };
        ClassAssumptions {
            second_stage_times,
            rear_rate: pounds_per_inch(rear),
            front_rate: pounds_per_inch(front),
            second_stage_from: second.map(inches),
            rear_axles: self.rear_axles(),
            rear_tyre_rate: pounds_per_inch(if dual { tyre_dual } else { tyre }),
            front_tyre_rate: pounds_per_inch(tyre),
            rear_unsprung: pounds(if dual { unsprung_dual } else { unsprung }),
            kerb_front: pounds(kerb_front),
            kerb_rear: pounds(kerb_rear),
        }
    }
}
