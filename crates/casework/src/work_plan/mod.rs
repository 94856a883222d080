//! The plan of the work: what it needs and when that is here, how many hours it takes, what it costs, and when it is honestly done.

mod estimate;
mod hours;
mod lifting;
mod of_job;
mod schedule;
mod supply;
mod terms;

pub use estimate::{Estimate, Line, Told, estimate};
pub use hours::{Conditions, Hours, MINUTES, hours_of, minutes_of, shelf_scale};
pub use lifting::{StandsHold, stands_hold};
pub use of_job::PlannedWork;
pub use schedule::{Schedule, schedule};
pub use supply::{Supplied, Supply, supplies};
pub use terms::{MOST_OF_A_DAY, MOST_TAX, ShopTerms};
