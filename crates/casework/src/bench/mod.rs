//! The pack on the bench: what is done to it, what it is under the vehicle, and what a re-arch asks of it.

mod acts;
mod loads;
mod rearch;
mod strain;

pub use acts::{Act, Cannot, as_before, done, found_bent_like, pack_entry, work_on};
pub use acts::{MOST_LEAVES, WorkOn};
pub use loads::{BenchWork, Benches, LoadName, NamedLoad, Packs, SideBench};
pub use rearch::{Against, Asked, CannotRearch, RearchPlan, plan_rearch};
pub use strain::{LeafStrain, Limit, StrainGrade, StrainedAt};
