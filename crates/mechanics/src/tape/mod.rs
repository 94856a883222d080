//! The tape: lengths and weights as a person writes them, the datums heights are read from, and what repeat readings say.

mod conversion;
mod datum;
mod gauge;
mod length;
mod readings;
mod typed;
mod tyre;
mod weight;

pub use conversion::{WheelChange, WheelGeometry};
pub use datum::Datum;
pub use gauge::{parse_angle, parse_pressure, parse_stress, parse_torque, parse_turns};
pub use length::{LengthUnit, format_length, parse_length};
pub use readings::{AxleReadings, Beside, HeightReadings, ReadingDoubt, ReadingPrecision, Repeats};
pub use typed::TypedError;
pub use tyre::{TyreSize, TyreSizeError};
pub use weight::{WeightUnit, format_rate, format_volume, format_weight, parse_rate, parse_volume, parse_weight};
