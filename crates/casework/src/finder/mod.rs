//! The finder: every sensible combination of what is on the shelf, predicted in every load case, ranked, and why not the others.
//!
//! Parts that go onto the vehicle ([`pool`]) are combined, one of a role at most ([`combine`]); every combination is solved once by the
//! account that is told ([`screen`]); the best of them go the way of any option of the job, gates and all, and their chance of meeting the
//! aim is drawn from all that is in doubt together ([`judge`]). What the customer asked for and what it costs then ranks them ([`rank`]).
//! When no spring is the answer, that comes first ([`lead`]).

mod chance;
mod combine;
mod found;
mod judge;
mod lead;
mod pool;
mod rank;
mod school;
mod screen;
mod search;
mod weights;
mod worth;

pub use chance::Chance;
pub use found::{Found, Ranked, Refused};
pub use lead::Lead;
pub use school::School;
pub use search::{Counted, MOST_JUDGED, MOST_SCREENED, Search};
pub use weights::Weights;
pub use worth::{Wish, Worth};

/// Looks for the options of a job, for as long as somebody waits for them: `goes_on` is asked between one and the next, and what was
/// found until then is given.
pub fn find(search: &Search<'_>, goes_on: &dyn Fn() -> bool) -> Found {
    let work = search.work;
    let mut leads = lead::leads(work);
    let mut counted = Counted { parts: search.shelf.len(), ..Counted::default() };
    if leads.iter().any(Lead::bars_everything) {
        return Found { leads, ranked: Vec::new(), refused: Vec::new(), counted };
    }
    let pool = pool::pool(search, &mut counted);
    let ground = screen::Ground::of(work);
    let (pieces, unpredicted) = combine::apart(search, &ground, pool.pieces, &mut counted);
    let combined = combine::combinations(&ground, &pieces, &mut counted);
    let screened = screen::screen(search, &ground, &pieces, combined, &mut counted, goes_on);
    let mut judged = judge::judge(search, &ground, &pieces, &screened, &mut counted, goes_on);
    judged.refused.splice(0..0, pool.refused.into_iter().chain(unpredicted));
    rank::rank(search, &mut judged.ranked);
    if judged.ranked.is_empty() {
        leads.push(Lead::NothingAllowed);
    }
    Found { leads, ranked: judged.ranked, refused: judged.refused, counted }
}
