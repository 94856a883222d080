//! Static stance: where a vehicle sits under given loads with given springs.
//!
//! # Axes       x rearward from the front axle, y to the right, z up
//! # Sign       stroke + = the axle comes up towards the body (bump); pitch + = rear up; roll + = right side up
//! # Zero       `q = 0` is the measured kerb state: its balance is exact, wherever the centre of gravity lies
//!
//! Unknowns are the body's heave, pitch and roll and the height of each wheel. Every spring, stop and
//! tyre is a linear map from those unknowns to a stroke, and a scalar curve from stroke to force; the
//! potential energy of all of them is brought to its minimum by a damped Newton iteration.
//!
//! ```
//! use wise_badger_mechanics::side::Sides;
//! use wise_badger_mechanics::stance::{Axle, AxleKind, Corner, Load, MainSpring, Outcome, State, Vehicle, settle};
//! use wise_badger_mechanics::units::{InShopUnits, inches, newton_metres_per_radian, pounds, pounds_per_inch};
//!
//! let axle = |name: &str, position, per_wheel: f64| Axle {
//!     name: name.into(),
//!     position: inches(position),
//!     kind: AxleKind::Solid,
//!     track: inches(66.0),
//!     spring_base: inches(42.0),
//!     unsprung_weight: pounds(450.0),
//!     kerb_wheel_loads: Sides::both(pounds(per_wheel)),
//!     tyre_rate: pounds_per_inch(1450.0),
//!     anti_roll: newton_metres_per_radian(0.0),
//!     roll_centre_height: inches(20.0),
//!     hub_height: inches(14.5),
//!     arch_lateral: None,
//!     corners: Sides::both(Corner { spring: MainSpring::linear(pounds_per_inch(186.0)), elements: vec![] }),
//! };
//! let vehicle = Vehicle {
//!     axles: vec![axle("F", 0.0, 1600.0), axle("R", 145.0, 1100.0)],
//!     points: vec![],
//!     sprung_cg_height: inches(28.0),
//!     coupler: None,
//!     equalisers: vec![],
//! };
//! let state = State::with_loads("1,000 lb over the axle", vec![Load::at(pounds(1000.0), inches(145.0))]);
//! let Outcome::Settled(stance) = settle(&vehicle, &state).expect("as given") else { panic!("it stands") };
//! // 1,000 lb on two springs of 186 lb/in.
//! assert!((stance.axles[1].hub_to_arch_change.left.customary() + 1000.0 / 372.0).abs() < 1e-6);
//! ```

mod air;
mod assembly;
mod changes;
mod check;
mod element;
mod force_table;
mod frequency;
mod newton;
mod outcome;
mod row;
mod solver;
mod state;
mod train;
mod unknowns;
mod vehicle;
mod weights;

pub use element::{AirBag, Element, ElementKind, Mount, StopCurve};
pub use force_table::{ForceTable, ForceTableError};
pub use frequency::bounce_frequency;
pub use outcome::{AxleStance, Effort, ElementGap, Outcome, Stance};
pub use solver::{Solver, settle};
pub use state::{Change, Load, SidewaysPull, State};
pub use train::{Ball, Train, settle_train};
pub use vehicle::{
    Axle, AxleKind, BodyPoint, Corner, Coupler, Equaliser, MainSpring, SpringDifference, SpringStage, StanceError, Vehicle,
};
