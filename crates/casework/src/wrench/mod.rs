//! The wrench card: what is done at the vehicle, step by step, in the order in which practitioners work.
//!
//! Every kind of step is a row of [`OPERATIONS`], and stands there in the order of the work; every kind of part and every repair is a row
//! that names its steps ([`work`]). A card takes the steps of all parts together, each once in its place ([`Card`]), and how far it has
//! come follows from what was ticked ([`Standing`]): what is loose, what holds, what may be done next.

pub mod work;

mod apart;
mod card;
mod carried_over;
mod due;
mod needed;
mod of_job;
mod operation;
mod operations;
mod proposed;
mod standing;
mod stands;

pub use apart::{PROPOSALS, Proposal};
pub use card::{Card, Ordered, Place, Step};
pub use carried_over::carry_over;
pub use due::{Due, DueWhat, due};
pub use needed::{Consumable, Needed, What};
pub use of_job::{FIRST, LIFTING, chosen, lifting};
pub use operation::{Asks, Catch, Each, Effect, Fastener, Lifting, Operation, Phase, Setting};
pub use operations::OPERATIONS;
pub use proposed::proposals;
pub use standing::{Loose, Standing, StepStands};
pub use stands::{OnTheWorseStand, RATED_FOR, SHARE_OF_THE_WORSE, STANDS_FROM_THE_AXLE_IN, on_the_worse_stand, tips_back};
