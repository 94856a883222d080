//! What a shop knows and judges about a job.
//!
//! What is known and assumed of the vehicle and what its axles carry ([`survey`]); what is found on it and what that rules out
//! ([`look_over`]); the rear rate with its uncertainty, which rating is passed and why it sags ([`verdict`]); where it will sit with a
//! correction fitted, with a band ([`prediction`]); whether that meets the [`aim`]; and whether the tape agreed afterwards
//! ([`proof`]). What people typed of all that is kept as they typed it ([`entry`], [`reading`], [`intake`]) and put together as a
//! [`case`], which goes abroad as a [`job_document`]; what follows from a case is worked out once ([`casework`]), and how far a job has come is its [`route`]. Every type
//! that is one of a few has its word in one place ([`words`]).
//!
//! It speaks in codes, not sentences; it knows no SQL and no HTML. Physics is the mechanics crate's.
//!
//! # Layers
//!
//! Each module uses only those above it in this list, which `tests/layers.rs` holds:
//! `bounds`, `table_cell`, `survey`, `words`, `look_over`, `verdict`, `prediction`, `aim`, `proof`, `entry`, `reading`, `intake`, `case`, `slips`, `job_document`, `shelf`, `bench`, `consequence`,
//! `casework`, `shelf_fit`, `back_solve`, `quick_answer`, `what_if`, `adjust`, `finder`, `wrench`, `work_plan`, `bay_plan`, `ledger`, `option_document`, `route`.
//!
//! ```
//! use wise_badger_casework::prediction::Predictor;
//! use wise_badger_mechanics::correction::{Correction, LiftBlock};
//! use wise_badger_mechanics::side::Sides;
//! use wise_badger_casework::survey::{Ends, LoadPut, Manner, RearWheels, Seen, States, Survey, VehicleClass, VehicleFacts};
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
//!     heights: States::of(
//!         HeightReadings { front: both(20.5), rear: both(21.5) },
//!         HeightReadings { front: both(20.5), rear: both(18.8125) },
//!     ),
//!     load: Some(LoadPut::Placed { weight: pounds(1000.0), behind_rear_axle: inches(0.0) }),
//!     stop_gap: States::default(),
//!     manner: States::of(Manner::Rolled, Manner::Rolled),
//!     further: Vec::new(),
//!     overload_leaves: Default::default(),
//!     test_weight: false,
//!     seen: Seen::default(),
//! };
//! let prediction = Predictor::new(&survey).predict(&Correction::at_the_rear(LiftBlock { thickness: inches(2.0) }));
//! let loaded = prediction.loaded.expect("as given");
//! assert!((loaded.rear.value.customary() - 20.8125).abs() < 1e-6);
//! ```

pub mod adjust;
pub mod aim;
pub mod back_solve;
pub mod bay_plan;
pub mod bench;
pub mod bounds;
pub mod case;
pub mod casework;
pub mod consequence;
pub mod entry;
pub mod finder;
pub mod intake;
pub mod job_document;
pub mod ledger;
pub mod look_over;
pub mod option_document;
pub mod prediction;
pub mod proof;
pub mod quick_answer;
pub mod reading;
pub mod route;
pub mod shelf;
mod shelf_fit;
pub mod slips;
pub mod survey;
pub mod table_cell;
pub mod verdict;
pub mod what_if;
pub mod words;
pub mod work_plan;
pub mod wrench;
