//! What is cheap to do while it is apart anyway.

use crate::entry::WorkPlanEntry;
use crate::look_over::Addition;

/// Something to propose.
#[derive(Debug)]
pub struct Proposal {
    /// What it goes by.
    pub word: &'static str,
    /// The step that opens the way to it.
    pub opened_by: &'static str,
    /// The repairs that it is; one that is on the job already is not proposed.
    pub repairs: &'static [Addition],
    /// The kinds of part that it is.
    pub kinds: &'static [&'static str],
    /// What it takes on top where no step of a card tells, in hours of one person for both sides (our own working rules).
    pub hours: f64,
}

impl Proposal {
    /// The row of a word.
    pub fn of(word: &str) -> Option<&'static Proposal> {
        PROPOSALS.iter().find(|of| of.word == word)
    }

    /// The repair that goes onto the card with it; none, where the card has no steps for it.
    pub fn repair(&self) -> Option<Addition> {
        self.repairs.first().copied()
    }
}

/// Everything that is proposed, a row each.
pub static PROPOSALS: &[Proposal] = &[
    Proposal {
        word: "shocks",
        opened_by: "shocks_off",
        repairs: &[Addition::Shocks, Addition::LongerShocks, Addition::ShorterShocks],
        kinds: &["shocks"],
        hours: 0.0,
    },
    Proposal { word: "links", opened_by: "links_off", repairs: &[], kinds: &["bar_links", "anti_roll_bar"], hours: 0.25 },
    Proposal {
        word: "shackles",
        opened_by: "shackle_off",
        repairs: &[Addition::Shackles],
        kinds: &["longer_shackle"],
        hours: 0.0,
    },
    Proposal {
        word: "hoses",
        opened_by: "hose_bracket_off",
        repairs: &[Addition::NewHose, Addition::LongerHose],
        kinds: &["brake_hoses"],
        hours: 0.0,
    },
    Proposal { word: "stops", opened_by: "wheels_off", repairs: &[Addition::BumpStops], kinds: STOPS, hours: 0.0 },
    Proposal { word: "strut_mounts", opened_by: "strut_top_off", repairs: &[], kinds: &[], hours: 0.5 },
    Proposal { word: "isolators", opened_by: "coil_out", repairs: &[], kinds: &[], hours: 0.1 },
];

const STOPS: &[&str] = &["rubber_by_capacity", "load_rubber", "stop_extension"];

/// The repairs that a customer agreed to of what was proposed.
pub(super) fn agreed_repairs(plan: &WorkPlanEntry) -> impl Iterator<Item = Addition> + '_ {
    let agreed = plan.extras.iter().filter(|extra| extra.agreed == Some(true));
    agreed.filter_map(|extra| Proposal::of(&extra.proposal)?.repair())
}
