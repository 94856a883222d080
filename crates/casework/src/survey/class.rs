//! What is assumed about a vehicle by its class until something is measured.

use super::spring::SpringKind;
use wise_badger_mechanics::units::{Force, Length, SpringRate, inches, pounds, pounds_per_inch};

/// The kind of vehicle, for what is assumed and for how it is drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum VehicleClass {
    /// A light pickup with a box.
    HalfTonPickup,
    /// A smaller pickup with a box.
    MidSizePickup,
    /// A pickup between the light and the heavy one.
    ThreeQuarterTonPickup,
    /// A heavy pickup with a box.
    OneTonPickup,
    /// A heavy pickup chassis with a service body: boxes along both sides.
    ServiceBody,
    /// A wagon, on a frame of its own or not.
    Wagon,
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
    /// Between the axles; of a trailer, from the coupler to the middle between its axles.
    pub wheelbase: Length,
    /// All rear springs together.
    pub rear_rate: SpringRate,
    /// Both front springs together, at the wheel.
    pub front_rate: SpringRate,
    /// Travel from empty at which an overload leaf usually begins to bear.
    pub second_stage_from: Option<Length>,
    /// How many times stiffer the axle is past it, where that is known of the class.
    pub second_stage_times: Option<f64>,
    /// Clearance at the rear bump stops, empty.
    pub stop_gap: Length,
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

/// What is usual for a class, as a row: in lb, in and lb/in. Where a pair stands, it is for single and for dual rear wheels.
struct Usual {
    class: VehicleClass,
    /// Between the axles; of a trailer, from the coupler to the middle between its axles (from memory).
    wheelbase: f64,
    /// Axles of a trailer; 0 on everything else.
    trailer_axles: u8,
    rear_rate: f64,
    /// The same on coils, where that is another.
    on_coils: Option<f64>,
    /// Travel from empty at which an overload leaf begins to bear, and how many times stiffer the axle is past it, where known.
    second_stage: Option<(f64, Option<f64>)>,
    /// Clearance at the rear bump stops, empty (from memory; held against the facts of the trade).
    stop_gap: f64,
    front_rate: f64,
    tyre_rate: [f64; 2],
    unsprung: [f64; 2],
    kerb_front: f64,
    kerb_rear: f64,
}

/// Every class, in the order it is offered.
const CLASSES: [Usual; 13] = [
    Usual {
        class: VehicleClass::HalfTonPickup,
        wheelbase: 145.0,
        trailer_axles: 0,
        rear_rate: 370.0,
        on_coils: None,
        second_stage: Some((4.0, None)),
        stop_gap: 4.0,
        front_rate: 500.0,
        tyre_rate: [1450.0, 2900.0],
        unsprung: [450.0, 650.0],
        kerb_front: 3000.0,
        kerb_rear: 2250.0,
    },
    // Axle weights of the next two are from memory.
    Usual {
        class: VehicleClass::MidSizePickup,
        wheelbase: 128.0,
        trailer_axles: 0,
        rear_rate: 280.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 3.5,
        front_rate: 400.0,
        tyre_rate: [1350.0, 2700.0],
        unsprung: [400.0, 600.0],
        kerb_front: 2500.0,
        kerb_rear: 1800.0,
    },
    Usual {
        class: VehicleClass::ThreeQuarterTonPickup,
        wheelbase: 154.0,
        trailer_axles: 0,
        rear_rate: 550.0,
        on_coils: Some(450.0),
        second_stage: None,
        stop_gap: 4.0,
        front_rate: 600.0,
        tyre_rate: [1800.0, 3600.0],
        unsprung: [550.0, 800.0],
        kerb_front: 3900.0,
        kerb_rear: 2700.0,
    },
    Usual {
        class: VehicleClass::OneTonPickup,
        wheelbase: 160.0,
        trailer_axles: 0,
        rear_rate: 860.0,
        on_coils: None,
        second_stage: Some((2.4, Some(2060.0 / 860.0))),
        stop_gap: 4.0,
        front_rate: 710.0,
        tyre_rate: [2150.0, 4000.0],
        unsprung: [650.0, 900.0],
        kerb_front: 4300.0,
        kerb_rear: 3000.0,
    },
    Usual {
        class: VehicleClass::Flatbed,
        wheelbase: 165.0,
        trailer_axles: 0,
        rear_rate: 860.0,
        on_coils: None,
        second_stage: Some((2.4, Some(2060.0 / 860.0))),
        stop_gap: 4.0,
        front_rate: 710.0,
        tyre_rate: [2150.0, 4000.0],
        unsprung: [650.0, 900.0],
        kerb_front: 4300.0,
        kerb_rear: 3600.0,
    },
    Usual {
        class: VehicleClass::ServiceBody,
        wheelbase: 165.0,
        trailer_axles: 0,
        rear_rate: 860.0,
        on_coils: None,
        second_stage: Some((2.4, Some(2060.0 / 860.0))),
        stop_gap: 4.0,
        front_rate: 710.0,
        tyre_rate: [2150.0, 4000.0],
        unsprung: [650.0, 900.0],
        kerb_front: 4300.0,
        kerb_rear: 4500.0,
    },
    // Its axle weights are from memory.
    Usual {
        class: VehicleClass::Wagon,
        wheelbase: 110.0,
        trailer_axles: 0,
        rear_rate: 280.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.75,
        front_rate: 400.0,
        tyre_rate: [1350.0, 2700.0],
        unsprung: [400.0, 600.0],
        kerb_front: 2600.0,
        kerb_rear: 2300.0,
    },
    Usual {
        class: VehicleClass::Van,
        wheelbase: 148.0,
        trailer_axles: 0,
        rear_rate: 430.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.75,
        front_rate: 590.0,
        tyre_rate: [1370.0, 2740.0],
        unsprung: [400.0, 600.0],
        kerb_front: 3000.0,
        kerb_rear: 2400.0,
    },
    Usual {
        class: VehicleClass::BoxTruck,
        wheelbase: 200.0,
        trailer_axles: 0,
        rear_rate: 1600.0,
        on_coils: None,
        second_stage: Some((2.0, Some(2.0))),
        stop_gap: 2.75,
        front_rate: 1200.0,
        tyre_rate: [2150.0, 4000.0],
        unsprung: [900.0, 1100.0],
        kerb_front: 5200.0,
        kerb_rear: 5600.0,
    },
    Usual {
        class: VehicleClass::Motorhome,
        wheelbase: 158.0,
        trailer_axles: 0,
        rear_rate: 700.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.75,
        front_rate: 700.0,
        tyre_rate: [2000.0, 4000.0],
        unsprung: [700.0, 900.0],
        kerb_front: 4000.0,
        kerb_rear: 5200.0,
    },
    // Axles of 1,200 lb/in and 290 lb each; the coupler rests on no spring of the trailer's.
    Usual {
        class: VehicleClass::SingleTrailer,
        wheelbase: 110.0,
        trailer_axles: 1,
        rear_rate: 1200.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.5,
        front_rate: 0.0,
        tyre_rate: [1370.0, 2740.0],
        unsprung: [290.0, 390.0],
        kerb_front: 200.0,
        kerb_rear: 1400.0,
    },
    Usual {
        class: VehicleClass::TandemTrailer,
        wheelbase: 160.0,
        trailer_axles: 2,
        rear_rate: 2400.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.5,
        front_rate: 0.0,
        tyre_rate: [1370.0, 2740.0],
        unsprung: [580.0, 780.0],
        kerb_front: 350.0,
        kerb_rear: 2600.0,
    },
    Usual {
        class: VehicleClass::TripleTrailer,
        wheelbase: 210.0,
        trailer_axles: 3,
        rear_rate: 3600.0,
        on_coils: None,
        second_stage: None,
        stop_gap: 2.5,
        front_rate: 0.0,
        tyre_rate: [1370.0, 2740.0],
        unsprung: [870.0, 1170.0],
        kerb_front: 550.0,
        kerb_rear: 4200.0,
    },
];

impl VehicleClass {
    /// Every class, in the order it is offered.
    pub fn all() -> impl Iterator<Item = VehicleClass> {
        CLASSES.iter().map(|usual| usual.class)
    }

    fn usual(self) -> &'static Usual {
        CLASSES.iter().find(|usual| usual.class == self).expect("every class has its row")
    }

    /// Whether its front rests on a hitch, at a height that the tow vehicle decides.
    pub fn is_trailer(self) -> bool {
        self.usual().trailer_axles > 0
    }

    /// How many axles share the rear's load.
    pub fn rear_axles(self) -> u8 {
        self.usual().trailer_axles.max(1)
    }

    /// What is assumed for the class with these rear wheels, on this kind of rear spring where that is known (common practice).
    pub fn assumptions(self, wheels: RearWheels, rear_spring: Option<SpringKind>) -> ClassAssumptions {
        let usual = self.usual();
        // Only a leaf pack has an overload leaf.
        let second_stage = usual.second_stage.filter(|_| rear_spring.is_none_or(|rear| rear == SpringKind::Leaf));
        let rear_rate = usual.on_coils.filter(|_| rear_spring == Some(SpringKind::Coil)).unwrap_or(usual.rear_rate);
        let of = |[single, dual]: [f64; 2]| if wheels == RearWheels::Dual { dual } else { single };
        let [front_tyre, _] = usual.tyre_rate;
        ClassAssumptions {
            wheelbase: inches(usual.wheelbase),
            rear_rate: pounds_per_inch(rear_rate),
            front_rate: pounds_per_inch(usual.front_rate),
            second_stage_from: second_stage.map(|(from, _)| inches(from)),
            second_stage_times: second_stage.and_then(|(_, times)| times),
            stop_gap: inches(usual.stop_gap),
            rear_axles: self.rear_axles(),
            rear_tyre_rate: pounds_per_inch(of(usual.tyre_rate)),
            front_tyre_rate: pounds_per_inch(front_tyre),
            rear_unsprung: pounds(of(usual.unsprung)),
            kerb_front: pounds(usual.kerb_front),
            kerb_rear: pounds(usual.kerb_rear),
        }
    }
}
