//! What a person may type, between a least and a most: wider than any vehicle of the trade, narrow enough to catch a wrong unit.

use wise_badger_mechanics::bound::Bound;

/// A ride height, from whichever datum.
pub const RIDE_HEIGHT: Bound = Bound::metres(0.03, 2.5);
/// The clearance at a bump stop; nought touches.
pub const STOP_GAP: Bound = Bound::metres(0.0, 0.5);
/// The clearance of an overload leaf at its pad; nought bears.
pub const PAD_GAP: Bound = Bound::metres(0.0, 0.3);
/// A coil as it stands in the vehicle.
pub const COIL_LENGTH: Bound = Bound::metres(0.05, 0.8);
/// The arch of a pack as it stands under the vehicle.
pub const ARCH_UNDER_THE_VEHICLE: Bound = Bound::metres(0.0, 0.6);
/// Between the middles of an axle's wheels.
pub const WHEEL_TRACK: Bound = Bound::metres(0.9, 2.6);
/// From the rear axle to the tail.
pub const OVERHANG: Bound = Bound::metres(0.2, 5.0);
/// Between the legs of a U-bolt.
pub const U_BOLT_WIDTH: Bound = Bound::metres(0.01, 0.3);
/// What a stand, or a pair of them, is rated for.
pub const STANDS: Bound = Bound::pounds(500.0, 100_000.0);
/// What an axle may carry.
pub const RATING: Bound = Bound::pounds(500.0, 40_000.0);
/// A weight aboard that is told, not weighed.
pub const TOLD_WEIGHT: Bound = Bound::pounds(1.0, 20_000.0);
/// Between the axles; of a trailer, from its coupler.
pub const WHEELBASE: Bound = Bound::inches(60.0, 360.0);
/// From one axle of a trailer to the next: closer, their wheels touch; further apart, they share no load.
pub const AXLE_SPREAD: Bound = Bound::inches(24.0, 72.0);
/// How far off an aim still counts.
pub const TOLERANCE: Bound = Bound::inches(1.0 / 16.0, 3.0);
/// A rake that a shop aims at.
pub const RAKE: Bound = Bound::inches(-8.0, 8.0);
/// Half of a clamp.
pub const HALF_CLAMP: Bound = Bound::inches(0.0, 12.0);
/// A leaf's width.
pub const LEAF_WIDTH: Bound = Bound::inches(1.0, 6.0);
/// A leaf's thickness.
pub const LEAF_THICKNESS: Bound = Bound::inches(0.1, 2.0);
/// A leaf from its centre hole to an end.
pub const LEAF_HALF: Bound = Bound::inches(2.0, 60.0);
/// The same of a main leaf that the others are stepped from.
pub const MAIN_LEAF_HALF: Bound = Bound::inches(4.0, 60.0);
