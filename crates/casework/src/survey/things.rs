//! Things that vehicles commonly carry, and where they usually sit.

use super::basis::Basis;
use super::item::Item;
use super::vehicle::VehicleFacts;
use wise_badger_mechanics::units::{Force, Length, Volume, inches, kilograms, litres, pounds};

/// A liquid that is loaded by volume.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Liquid {
    /// Water.
    Water,
    /// Petrol.
    Petrol,
    /// Diesel.
    Diesel,
}

impl Liquid {
    /// Every liquid, in the order it is offered.
    pub const ALL: [Liquid; 3] = [Liquid::Water, Liquid::Petrol, Liquid::Diesel];

    /// What a volume of it weighs: 1.00, 0.7475 and 0.8325 kg a litre.
    ///
    /// # Source     water: definition of the litre's kilogram to 0.3 % at any tank's temperature; petrol 0.720 to 0.775 kg/L
    /// (EN 228) and diesel 0.820 to 0.845 kg/L (EN 590) at 15 °C, their middles; from memory
    /// # Example
    /// ```
    /// use wise_badger_casework::survey::Liquid;
    /// use wise_badger_mechanics::units::{InShopUnits, us_gallons};
    /// let tank = Liquid::Water.weight_of(us_gallons(30.0));
    /// assert!((tank.customary() - 250.4).abs() < 0.1);
    /// ```
    pub fn weight_of(self, volume: Volume) -> Force {
        let kilograms_per_litre = match self {
            Liquid::Water => 1.0,
            Liquid::Petrol => 0.7475,
            Liquid::Diesel => 0.8325,
        };
        kilograms(volume.value * 1000.0 * kilograms_per_litre)
    }
}

/// A thing on the shelf of common loads.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Thing {
    /// Somebody on a seat.
    Occupant,
    /// Somebody on a seat, with hand luggage.
    OccupantWithLuggage,
    /// A tank of water, by its volume.
    WaterTank,
    /// A tank of fuel, by its volume.
    FuelTank,
    /// A box of tools across the bed.
    Toolbox,
    /// Drawers along the bed or the walls.
    Drawers,
    /// A camper that slides into the bed.
    SlideInCamper,
    /// A plough on the front.
    SnowPlough,
    /// A trailer's tongue on the ball.
    TongueWeight,
    /// A rack with bicycles behind.
    BicycleRack,
    /// Loose goods in the middle of the load floor.
    Goods,
}

/// A thing at its usual weight and place, as a row.
struct Usual {
    thing: Thing,
    /// Nobody rides in a trailer, and no plough or ball hangs on one.
    on_a_trailer: bool,
    weight: fn() -> Force,
    /// From the rear axle, rearward.
    behind: fn(&VehicleFacts) -> Length,
    /// Of its middle above the ground, in inches.
    height_in: f64,
}

/// Every thing, in the order it is offered. An occupant weighs 68 kg, with hand luggage 75 kg; everything else is common practice,
/// rounded.
///
/// # Source     49 CFR 571.110 S3, "normal occupant weight" 68 kg; ISO 2416, 68 kg and 7 kg of luggage; both from memory
const THINGS: [Usual; 11] = [
    Usual {
        thing: Thing::Occupant,
        on_a_trailer: false,
        weight: || kilograms(68.0),
        behind: |vehicle| -0.57 * vehicle.wheelbase,
        height_in: 40.0,
    },
    Usual {
        thing: Thing::OccupantWithLuggage,
        on_a_trailer: false,
        weight: || kilograms(75.0),
        behind: |vehicle| -0.57 * vehicle.wheelbase,
        height_in: 40.0,
    },
    Usual {
        thing: Thing::WaterTank,
        on_a_trailer: true,
        weight: || Liquid::Water.weight_of(litres(100.0)),
        behind: |_| inches(-20.0),
        height_in: 30.0,
    },
    Usual {
        thing: Thing::FuelTank,
        on_a_trailer: true,
        weight: || Liquid::Petrol.weight_of(litres(100.0)),
        behind: |vehicle| -0.3 * vehicle.wheelbase,
        height_in: 24.0,
    },
    Usual {
        thing: Thing::Toolbox,
        on_a_trailer: true,
        weight: || pounds(350.0),
        behind: |vehicle| -0.3 * vehicle.wheelbase,
        height_in: 50.0,
    },
    Usual { thing: Thing::Drawers, on_a_trailer: true, weight: || pounds(400.0), behind: middle_of_the_floor, height_in: 40.0 },
    Usual {
        thing: Thing::SlideInCamper,
        on_a_trailer: false,
        weight: || pounds(3000.0),
        behind: |_| inches(-4.0),
        height_in: 60.0,
    },
    Usual {
        thing: Thing::SnowPlough,
        on_a_trailer: false,
        weight: || pounds(650.0),
        behind: |vehicle| -(vehicle.wheelbase + inches(42.0)),
        height_in: 24.0,
    },
    Usual {
        thing: Thing::TongueWeight,
        on_a_trailer: false,
        weight: || pounds(500.0),
        behind: behind_the_rear_axle,
        height_in: 20.0,
    },
    Usual {
        thing: Thing::BicycleRack,
        on_a_trailer: true,
        weight: || pounds(150.0),
        behind: |vehicle| behind_the_rear_axle(vehicle) + inches(18.0),
        height_in: 44.0,
    },
    Usual { thing: Thing::Goods, on_a_trailer: true, weight: || pounds(500.0), behind: middle_of_the_floor, height_in: 40.0 },
];

impl Thing {
    /// Every thing, in the order it is offered.
    pub fn all() -> impl Iterator<Item = Thing> {
        THINGS.iter().map(|usual| usual.thing)
    }

    fn row(self) -> &'static Usual {
        THINGS.iter().find(|usual| usual.thing == self).expect("every thing has its row")
    }

    /// Whether it is offered for a vehicle.
    pub fn fits(self, vehicle: &VehicleFacts) -> bool {
        self.row().on_a_trailer || !vehicle.class.is_trailer()
    }

    /// The thing at its usual weight and place: to begin with, until it is weighed and measured.
    pub fn usual(self, vehicle: &VehicleFacts) -> Item {
        let Usual { weight, behind, height_in, .. } = self.row();
        let item = Item::at(weight(), behind(vehicle));
        Item { height: Some(inches(*height_in)), on_hitch: self == Thing::TongueWeight, basis: Basis::Assumed, ..item }
    }
}

/// Half-way along the load floor, which ends at the tail and begins behind the cab.
fn middle_of_the_floor(vehicle: &VehicleFacts) -> Length {
    (behind_the_rear_axle(vehicle) - 0.38 * vehicle.wheelbase) / 2.0
}

/// From the rear axle to the tail: as measured, or a third of the wheelbase.
fn behind_the_rear_axle(vehicle: &VehicleFacts) -> Length {
    vehicle.rear_overhang.unwrap_or(vehicle.wheelbase / 3.0)
}

/// The furthest ahead of and behind the rear axle that anything can sit: a plough's reach past the front axle (a trailer
/// ends at its coupler), and the longest overhang on the road.
pub(super) fn reach(vehicle: &VehicleFacts) -> (Length, Length) {
    let ahead_of_front = if vehicle.class.is_trailer() { inches(0.0) } else { inches(60.0) };
    let behind = vehicle.rear_overhang.map_or(Length::default(), |overhang| overhang + inches(60.0));
    (vehicle.wheelbase + ahead_of_front, behind.max(0.8 * vehicle.wheelbase))
}

/// Furthest to either side that anything can sit.
pub(super) fn half_width() -> Length {
    inches(51.0)
}
