//! Spring and stance computation for vehicles that sag at the rear.
//!
//! What it computes: what a person typed at the tape as lengths ([`tape`]); what is known and assumed of
//! the vehicle and what its axles carry ([`survey`]); the rear rate with its uncertainty, and which
//! rating is passed ([`verdict`]); where the vehicle sits with any spring, stop, helper, block or tyre
//! changed ([`stance`]); where it will sit with a correction fitted, with a band ([`correction`]);
//! whether that meets the [`aim`]; how a leaf pack bears, and what a leaf or an arch more does to it ([`pack`]); and whether the
//! tape agreed afterwards ([`proof`]).
//!
//! Axes: x rearward from the front axle, y to the right, z up. Stroke is positive in bump. Everything
//! public is an SI quantity of `uom` ([`units`]); shop units exist only where text is read or written.
//!
//! It does no input or output, keeps no clock and knows no database. It does not model leaf windup,
//! shackle angle or damping.
//!
//! ```
//! use wise_badger_mechanics::correction::{Correction, Predictor};
//! use wise_badger_mechanics::side::Sides;
//! use wise_badger_mechanics::survey::{Ends, LoadPut, RearWheels, States, Survey, VehicleClass, VehicleFacts};
//! use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
//! use wise_badger_mechanics::units::{InShopUnits, inches, pounds};
//!
//! let both = |height| AxleReadings { corners: Sides::both(vec![inches(height)]) };
//! let survey = Survey {
//!     vehicle: VehicleFacts::new(
//!         VehicleClass::HalfTonPickup,
//!         RearWheels::Single,
//!         inches(145.0),
//!         Ends { front: pounds(3900.0), rear: pounds(4100.0) },
//!     ),
//!     datum: Datum::HubToArch,
//!     heights: States {
//!         empty: HeightReadings { front: both(20.5), rear: both(21.5) },
//!         loaded: HeightReadings { front: both(20.5), rear: both(18.8125) },
//!     },
//!     load: Some(LoadPut::Placed { weight: pounds(1000.0), behind_rear_axle: inches(0.0) }),
//!     stop_gap: States::default(),
//!     rolled_and_bounced: true,
//! };
//! let prediction = Predictor::new(&survey).predict(&Correction::LiftBlock { thickness: inches(2.0) });
//! let loaded = prediction.loaded.expect("as given");
//! assert!((loaded.rear.value.customary() - 20.8125).abs() < 1e-6);
//! ```

pub mod aim;
mod cholesky;
pub mod correction;
pub mod document;
pub mod identification;
pub mod look_over;
pub mod pack;
pub mod proof;
pub mod side;
pub mod side_effect;
pub mod stance;
pub mod survey;
pub mod tape;
pub mod uncertain;
pub mod units;
pub mod verdict;
