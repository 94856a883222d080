//! Spring and stance computation for vehicles that sag at the rear: physics only.
//!
//! What it computes: what a person typed at the tape as lengths ([`tape`]); where a vehicle sits with any spring, stop, helper,
//! block or tyre changed ([`stance`]); what else changes with that ([`side_effect`]); how a leaf pack bears, and what a leaf or an
//! arch more does to it ([`pack`]); an axle's rate from readings ([`axle_rate`]) and the whole vehicle behind them
//! ([`identification`]); what a correction changes on a vehicle ([`correction`]); and the open documents ([`document`]). It knows no
//! job, no class of vehicle and no shop: that is the casework crate's.
//!
//! Axes: x rearward from the front axle, y to the right, z up. Stroke is positive in bump. Everything
//! public is an SI quantity of `uom` ([`units`]); shop units exist only where text is read or written.
//!
//! It does no input or output, keeps no clock and knows no database. It does not model leaf windup,
//! shackle angle or damping.
//!
//! # Layers
//!
//! Each module uses only those above it in this list, which `tests/layers.rs` holds:
//! `units`, `bound`, `uncertain`, `mixture`, `side`, `cholesky`, `range`, `tape`, `stance`, `side_effect`, `pack`, `axle_rate`, `identification`,
//! `correction`, `document`.
//!
//! ```
//! use wise_badger_mechanics::stance::bounce_frequency;
//! use wise_badger_mechanics::units::{InShopUnits, pounds, pounds_per_inch};
//!
//! // A half-ton's rear: 372 lb/in under 2,800 lb.
//! let frequency = bounce_frequency(pounds_per_inch(372.0), pounds(2800.0)).expect("in range");
//! assert!((frequency.si() - 1.140).abs() < 5e-4);
//! ```

pub mod axle_rate;
pub mod bound;
mod cholesky;
pub mod correction;
pub mod document;
pub mod identification;
pub mod mixture;
pub mod pack;
mod range;
pub mod side;
pub mod side_effect;
pub mod stance;
pub mod tape;
pub mod uncertain;
pub mod units;
