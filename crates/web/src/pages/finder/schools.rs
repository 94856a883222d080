//! School against school: the best of each by itself.

use wise_badger_casework::consequence::Consequence;
use wise_badger_casework::finder::{Ranked, School};
use wise_badger_store::job_file::JobFile;

use crate::correction::option_name;
use crate::view::finder::{hours_words, in_a_hundred, leaning_words, price_words, rear_now, ride_words, school_name};
use crate::view::{Units, sentence};

/// The best of a school by itself.
pub(super) struct SchoolLine {
    pub(super) school: String,
    pub(super) name: String,
    pub(super) chance: String,
    pub(super) rear: String,
    pub(super) ride: [String; 2],
    pub(super) leaning: String,
    pub(super) upkeep: &'static str,
    pub(super) price: String,
    pub(super) hours: String,
}

/// The best of a school by itself, in a line.
pub(super) fn school_line(file: &JobFile, school: School, ranked: &Ranked, units: Units) -> SchoolLine {
    let work = &file.work;
    let trial = work.trying(ranked.option.clone(), file.case().plan.clone());
    let (state, _) = rear_now(work);
    let rear = trial.predicted(0).and_then(|predicted| predicted.at(state).ok()).map(|at| units.predicted(at.rear));
    let stiffer = trial.consequences(0).iter().find_map(|changed| match changed {
        Consequence::AgainstLeaning { share, .. } => Some(*share),
        _ => None,
    });
    SchoolLine {
        school: sentence(school_name(school)),
        name: option_name(&ranked.option, work.found().vehicle.class, units),
        chance: ranked.chance.as_ref().map_or_else(String::new, |chance| in_a_hundred(chance.all)),
        rear: rear.unwrap_or_default(),
        ride: ride_words(&ranked.worth),
        leaning: leaning_words(stiffer),
        upkeep: if ranked.worth.upkeep.is_empty() { "none" } else { "wants looking after" },
        price: price_words(&ranked.worth),
        hours: hours_words(&ranked.worth),
    }
}
