//! What tape and scale say about a whole vehicle, and what they leave open.
//!
//! A vehicle as it is believed to be, what about it is in doubt, and the states it was measured in are brought
//! together: rates, loads and heights are moved until model, readings and what was believed beforehand agree best
//! (maximum a posteriori). What comes out is a vehicle with one covariance over everything that was in doubt, so that
//! whatever is predicted from it keeps the errors that hang together: a block's rise is exact though the rate is not.
//!
//! ```
//! use wise_badger_mechanics::identification::{Doubt, Doubtful, Experiment, LoadDoubt, TapeMark, MeasuredState, Measurement, Rest};
//! use wise_badger_mechanics::side::Sides;
//! use wise_badger_mechanics::stance::{Axle, AxleKind, Change, Corner, Load, MainSpring, State, Vehicle};
//! use wise_badger_mechanics::tape::Datum;
//! use wise_badger_mechanics::uncertain::Uncertain;
//! use wise_badger_mechanics::units::{InShopUnits, inches, newton_metres_per_radian, pounds, pounds_per_inch};
//!
//! let axle = |name: &str, position, rate| Axle {
//!     name: name.into(),
//!     position: inches(position),
//!     kind: AxleKind::Solid,
//!     track: inches(66.0),
//!     spring_base: inches(42.0),
//!     unsprung_weight: pounds(450.0),
//!     kerb_wheel_loads: Sides::both(pounds(1200.0)),
//!     tyre_rate: pounds_per_inch(1450.0),
//!     anti_roll: newton_metres_per_radian(0.0),
//!     roll_centre_height: inches(20.0),
//!     hub_height: inches(14.5),
//!     arch_lateral: None,
//!     corners: Sides::both(Corner { spring: MainSpring::linear(pounds_per_inch(rate)), elements: vec![] }),
//! };
//! let vehicle = Vehicle {
//!     axles: vec![axle("front", 0.0, 250.0), axle("rear", 145.0, 185.0)],
//!     points: vec![],
//!     sprung_cg_height: inches(28.0),
//!     coupler: None,
//!     equalisers: vec![],
//! };
//! let rear = TapeMark::axle("rear", Datum::HubToArch);
//! let state = |load: f64, height: f64| MeasuredState {
//!     settling: inches(0.06),
//!     rest: Rest::RolledAndBounced,
//!     load_doubts: vec![LoadDoubt { weight: pounds(26.0), position: inches(2.0) }],
//!     readings: vec![Measurement::Height { mark: rear.clone(), height: Uncertain::new(inches(height), inches(0.05)) }],
//!     state: State::with_loads(format!("{load} lb"), vec![Load::at(pounds(load), inches(145.0))]),
//! };
//! let doubts = vec![Doubt { what: Doubtful::SpringRate, axles: vec!["rear".into()], relative_sd: 0.35 }];
//! let experiment = Experiment { vehicle, doubts, friction: vec![], states: vec![state(0.0, 21.5), state(1000.0, 18.8125)] };
//! let found = experiment.identify().expect("sound readings");
//! // 1,000 lb over 2.6875 in.
//! assert!((found.shares()[0].factor() * 370.0 - 372.0).abs() < 1.0 && found.shares()[0].relative_sd < 0.06);
//! let block = |_: &Vehicle| vec![Change::Spacer { axle: "rear".into(), side: None, thickness: inches(2.0) }];
//! let (plain, fitted) = (found.forecast(1, |_| vec![]).expect("stands"), found.forecast(1, block).expect("stands"));
//! let rise = found.rise(&plain, &fitted, &rear).expect("read");
//! assert!((rise.value.customary() - 2.0).abs() < 1e-9 && rise.sd.customary() < 1e-6);
//! ```

mod arrow;
mod axle_states;
mod doubt;
mod experiment;
mod forecast;
mod friction;
mod lent;
mod measured;
mod moving;
mod posterior;
mod ready;

pub use doubt::{Doubt, Doubtful, Share};
pub use experiment::{Experiment, IdentificationError};
pub use forecast::{Forecast, Told};
pub use friction::{LeafFriction, Rest};
pub use lent::Borrowing;
pub use measured::{LoadDoubt, MeasuredState, Measurement, TapeMark};
pub use moving::Moving;
pub use posterior::{Identified, Misfit, Search};
