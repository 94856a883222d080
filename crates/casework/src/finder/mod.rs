//! The finder: every sensible combination of what is on the shelf, predicted in every load case, ranked, and why not the others.
//!
//! Parts that go onto the vehicle ([`pool`]) are combined, one of a role at most ([`combine`]); every combination is solved once by the
//! account that is told ([`screen`]); the best of them go the way of any option of the job, gates and all, and their chance of meeting the
//! aim is drawn from all that is in doubt together ([`judge`]). What the customer asked for and what it costs then ranks them ([`rank`]).
//! When no spring is the answer, that comes first ([`lead`]).

mod asked;
mod chance;
mod combine;
mod cures;
mod found;
mod judge;
mod later;
mod lead;
mod leaning;
mod pool;
mod rank;
mod school;
mod screen;
mod search;
mod watch;
mod weights;
mod worth;

pub use asked::Asked;
pub use chance::Chance;
pub use found::{Found, Ranked, Refused, Survives, Wanting};
pub use lead::Lead;
pub use school::School;
pub use search::{Counted, MOST_JUDGED, MOST_SCREENED, Search};
pub use watch::{At, Came, ToTheEnd, Watch};
pub use weights::Weights;
pub use worth::{Cures, Wish, Worth};

use crate::prediction::Unpredicted;
use watch::Remembering;

/// Looks for the options of a job, for as long as somebody waits for them.
pub fn find(search: &Search<'_>, watch: &dyn Watch) -> Found {
    let work = search.work;
    let watch = &Remembering::new(watch);
    let leads = lead::leads(work);
    let mut counted = Counted { parts: search.shelf.len(), ..Counted::default() };
    if leads.iter().any(Lead::bars_everything) {
        return Found { leads, counted, ..Found::default() };
    }
    let pool = pool::pool(search, &mut counted);
    let ground = screen::Ground::of(work);
    let (pieces, unpredicted) = combine::apart(search, &ground, pool.pieces, &mut counted, watch);
    let combined = combine::combinations(&ground, &pieces, &mut counted);
    let screened = screen::screen(search, &ground, &pieces, combined, &mut counted, watch);
    let found = |judged: judge::Judged, counted: Counted| {
        let judge::Judged { mut ranked, mut refused } = judged;
        refused.splice(0..0, pool.refused.iter().chain(&unpredicted).cloned());
        rank::rank(search, &mut ranked);
        later::look_ahead(work, &mut ranked);
        Found {
            leads: leads.clone(),
            ranked,
            refused,
            wanting: pool.wanting.clone(),
            counted,
            called_off: watch.was_called_off(),
        }
    };
    let so_far = |judged: &judge::Judged, counted: Counted| watch.found(&|| found(judged.clone(), counted));
    let judged = judge::judge(search, &ground, &pieces, &screened, &mut counted, watch, &so_far);
    let mut found = found(judged, counted);
    if found.ranked.is_empty() && !found.called_off {
        let wants_the_rate = found.refused.iter().any(|refused| refused.unpredicted == Some(Unpredicted::NeedsRate));
        let why = lead::why_nothing(work, wants_the_rate, &found.leads);
        found.leads.extend(why);
    }
    found
}
