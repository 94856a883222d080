//! Vehicles seen from the side, in inches: x rearward from the front axle (a trailer: from its coupler), y up from the ground.

use wise_badger_casework::survey::{VehicleClass, VehicleFacts};
use wise_badger_mechanics::units::InShopUnits;

/// Half the width of a wheel arch, inches.
const ARCH_HALF_WIDTH: f64 = 19.5;
/// Height of the arch lip the outlines are drawn at, inches; a measured lip shifts the body from here.
const DRAWN_ARCH: f64 = 36.0;
/// The same for the lower edge of a trailer's frame.
const DRAWN_FRAME: f64 = 20.0;
const ARCH_STEPS: u32 = 10;

/// A body and what is seen on it.
pub(super) struct Outline {
    /// The body's edge, closed, arches cut out.
    pub(super) body: Vec<(f64, f64)>,
    /// Windows.
    pub(super) windows: Vec<Vec<(f64, f64)>>,
    /// Lines on the body: doors, the gap between cab and box.
    pub(super) seams: Vec<[(f64, f64); 2]>,
    /// Furthest forward.
    pub(super) nose: f64,
    /// Furthest back.
    pub(super) tail: f64,
    /// Where the steered wheels are; a trailer has none.
    pub(super) front_wheel: Option<f64>,
    /// Where the wheels of the rear axle or axles are.
    pub(super) rear_wheels: Vec<f64>,
    /// Height at which that is drawn whose height is measured.
    pub(super) drawn_mark: f64,
}

/// The outline of a vehicle.
pub(super) fn outline(vehicle: &VehicleFacts) -> Outline {
    let wheelbase = vehicle.wheelbase.customary();
    match vehicle.tandem() {
        Some(tandem) => trailer(wheelbase, tandem.spread.customary(), vehicle.class.rear_axles()),
        None => two_axles(vehicle.class, wheelbase),
    }
}

/// A box on a frame, its tongue reaching forward to the coupler.
fn trailer(middle: f64, spread: f64, axles: u8) -> Outline {
    let (front, tail) = (0.26 * middle, 1.62 * middle);
    let (frame, floor) = (DRAWN_FRAME, DRAWN_FRAME + 5.0);
    let body = vec![
        (-3.0, frame),
        (-3.0, floor - 1.0),
        (front, floor),
        (front, floor + 54.0),
        (front + 8.0, floor + 62.0),
        (tail, floor + 62.0),
        (tail, frame),
    ];
    Outline {
        body,
        windows: Vec::new(),
        seams: vec![[(front, floor), (tail, floor)], [(0.18 * middle, frame), (0.18 * middle, floor)]],
        nose: -3.0,
        tail,
        front_wheel: None,
        rear_wheels: (0..axles).map(|index| middle + (f64::from(index) - f64::from(axles - 1) / 2.0) * spread).collect(),
        drawn_mark: DRAWN_FRAME,
    }
}

/// The outline of a class at a wheelbase.
fn two_axles(class: VehicleClass, wheelbase: f64) -> Outline {
    // Top edge from nose to tail, then the heights of sill and tail.
    let cab = wheelbase * 0.62;
    let (upper, windows, seams, sill) = match class {
        VehicleClass::HalfTonPickup
        | VehicleClass::MidSizePickup
        | VehicleClass::ThreeQuarterTonPickup
        | VehicleClass::OneTonPickup => (
            vec![
                (-37.0, 24.0),
                (-38.0, 38.0),
                (-35.0, 46.0),
                (14.0, 50.0),
                (36.0, 73.0),
                (cab - 6.0, 74.0),
                (cab + 2.0, 53.0),
                (wheelbase + 49.0, 53.0),
                (wheelbase + 50.0, 24.0),
            ],
            vec![
                vec![(21.0, 52.0), (38.0, 69.5), (0.72 * cab, 70.0), (0.72 * cab, 52.0)],
                vec![(0.76 * cab, 52.0), (0.76 * cab, 70.0), (cab - 9.0, 70.0), (cab - 4.0, 52.0)],
            ],
            vec![[(0.74 * cab, 24.0), (0.74 * cab, 52.0)], [(cab + 3.0, 22.0), (cab + 3.0, 53.0)]],
            21.0,
        ),
        VehicleClass::Flatbed => (
            vec![
                (-37.0, 24.0),
                (-38.0, 38.0),
                (-35.0, 47.0),
                (14.0, 51.0),
                (36.0, 75.0),
                (cab - 8.0, 76.0),
                (cab - 5.0, 44.0),
                (cab + 1.0, 44.0),
                (cab + 1.0, 62.0),
                (cab + 4.0, 62.0),
                (cab + 4.0, 46.0),
                (wheelbase + 52.0, 46.0),
                (wheelbase + 52.0, 39.5),
            ],
            vec![vec![(21.0, 53.0), (38.0, 71.0), (cab - 11.0, 72.0), (cab - 9.0, 53.0)]],
            vec![[(cab - 6.0, 22.0), (cab - 6.0, 44.0)], [(cab + 4.0, 41.0), (wheelbase + 52.0, 41.0)]],
            21.0,
        ),
        VehicleClass::ServiceBody => (
            vec![
                (-37.0, 24.0),
                (-38.0, 38.0),
                (-35.0, 47.0),
                (14.0, 51.0),
                (36.0, 75.0),
                (cab - 8.0, 76.0),
                (cab - 4.0, 42.0),
                (cab + 1.0, 42.0),
                (cab + 1.0, 66.0),
                (wheelbase + 48.0, 66.0),
                (wheelbase + 48.0, 24.0),
            ],
            vec![vec![(21.0, 53.0), (38.0, 71.0), (cab - 11.0, 72.0), (cab - 9.0, 53.0)]],
            vec![
                [(cab + 20.0, 26.0), (cab + 20.0, 66.0)],
                [(wheelbase + 24.0, 26.0), (wheelbase + 24.0, 66.0)],
                [(cab + 20.0, 56.0), (wheelbase + 24.0, 56.0)],
            ],
            21.0,
        ),
        VehicleClass::Wagon => (
            vec![
                (-36.0, 23.0),
                (-37.0, 37.0),
                (-33.0, 45.0),
                (12.0, 49.0),
                (36.0, 72.0),
                (wheelbase + 20.0, 74.0),
                (wheelbase + 36.0, 50.0),
                (wheelbase + 38.0, 23.0),
            ],
            vec![
                vec![(20.0, 51.0), (38.0, 68.5), (0.5 * wheelbase, 69.0), (0.5 * wheelbase, 51.0)],
                vec![(0.54 * wheelbase, 51.0), (0.54 * wheelbase, 69.0), (0.8 * wheelbase, 69.5), (0.8 * wheelbase, 51.0)],
                vec![(0.86 * wheelbase, 51.0), (0.86 * wheelbase, 69.5), (wheelbase + 18.0, 70.0), (wheelbase + 30.0, 51.0)],
            ],
            vec![[(0.52 * wheelbase, 23.0), (0.52 * wheelbase, 51.0)], [(0.83 * wheelbase, 30.0), (0.83 * wheelbase, 51.0)]],
            20.0,
        ),
        VehicleClass::Van => (
            vec![
                (-34.0, 22.0),
                (-35.0, 36.0),
                (-28.0, 46.0),
                (2.0, 54.0),
                (30.0, 84.0),
                (48.0, 92.0),
                (wheelbase + 38.0, 93.0),
                (wheelbase + 42.0, 60.0),
                (wheelbase + 42.0, 22.0),
            ],
            vec![vec![(10.0, 55.0), (32.0, 79.0), (52.0, 79.0), (52.0, 55.0)]],
            vec![[(56.0, 22.0), (56.0, 82.0)], [(wheelbase * 0.68, 22.0), (wheelbase * 0.68, 88.0)]],
            20.0,
        ),
        VehicleClass::BoxTruck => (
            vec![
                (-36.0, 22.0),
                (-37.0, 44.0),
                (-30.0, 56.0),
                (-2.0, 62.0),
                (18.0, 92.0),
                (44.0, 94.0),
                (46.0, 52.0),
                (50.0, 52.0),
                (50.0, 128.0),
                (wheelbase + 66.0, 128.0),
                (wheelbase + 66.0, 42.0),
            ],
            vec![vec![(4.0, 63.0), (20.0, 88.0), (40.0, 88.0), (40.0, 63.0)]],
            vec![[(50.0, 44.0), (wheelbase + 66.0, 44.0)]],
            24.0,
        ),
        VehicleClass::Motorhome => (
            vec![
                (-34.0, 22.0),
                (-35.0, 38.0),
                (-28.0, 48.0),
                (0.0, 56.0),
                (18.0, 76.0),
                (-6.0, 84.0),
                (-4.0, 112.0),
                (wheelbase + 58.0, 112.0),
                (wheelbase + 62.0, 106.0),
                (wheelbase + 62.0, 24.0),
            ],
            vec![
                vec![(8.0, 57.0), (22.0, 73.0), (44.0, 73.0), (44.0, 57.0)],
                vec![(wheelbase * 0.62, 66.0), (wheelbase * 0.62, 84.0), (wheelbase * 0.92, 84.0), (wheelbase * 0.92, 66.0)],
                vec![(2.0, 90.0), (2.0, 104.0), (30.0, 104.0), (30.0, 90.0)],
            ],
            vec![[(48.0, 22.0), (48.0, 80.0)], [(-6.0, 84.0), (48.0, 84.0)]],
            20.0,
        ),
        VehicleClass::SingleTrailer | VehicleClass::TandemTrailer | VehicleClass::TripleTrailer => {
            return trailer(wheelbase, 0.0, class.rear_axles());
        }
    };
    let nose = upper.iter().map(|point| point.0).fold(f64::INFINITY, f64::min);
    let tail = upper.iter().map(|point| point.0).fold(f64::NEG_INFINITY, f64::max);
    let mut body = upper;
    body.extend(underside(wheelbase, sill));
    let (front_wheel, rear_wheels) = (Some(0.0), vec![wheelbase]);
    Outline { body, windows, seams, nose, tail, front_wheel, rear_wheels, drawn_mark: DRAWN_ARCH }
}

/// The lower edge from tail to nose, with an arch over either wheel.
fn underside(wheelbase: f64, sill: f64) -> Vec<(f64, f64)> {
    let arch = |axle: f64| {
        (0..=ARCH_STEPS).map(move |step| {
            let angle = std::f64::consts::PI * f64::from(step) / f64::from(ARCH_STEPS);
            (axle + ARCH_HALF_WIDTH * angle.cos(), sill + (DRAWN_ARCH - sill) * angle.sin())
        })
    };
    arch(wheelbase).chain(arch(0.0)).collect()
}
