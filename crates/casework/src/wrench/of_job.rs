//! The card of a job, by what is chosen on it and what was ticked.

use wise_badger_mechanics::correction::{KindRow, Site};
use wise_badger_mechanics::side::Side;

use super::apart::agreed_repairs;
use super::card::{Card, Ordered};
use super::carried_over::carry_over;
use super::operation::{Lifting, Setting};
use crate::casework::Casework;
use crate::entry::{Answer, DrivenWord, RaisedWord, TickEntry};
use crate::look_over::Addition;

/// The word under which it stands among the ticks how the vehicle is raised.
pub const LIFTING: &str = "card.lifting";
/// The word under which the side stands there that is begun with.
pub const FIRST: &str = "card.first";

/// What was chosen of one of the card's own questions; empty where nobody did.
pub fn chosen<'t>(ticks: &'t [TickEntry], step: &str) -> &'t str {
    let last = ticks.iter().rev().find(|tick| tick.step == step);
    last.map_or("", |tick| if let Answer::Chosen(word) = &tick.answer { word } else { "" })
}

/// How the vehicle is raised: as it was ticked on the card, or else as the plan says; `None` while nobody did.
pub fn lifting(work: &Casework, ticks: &[TickEntry]) -> Option<Lifting> {
    match (chosen(ticks, LIFTING), work.case().work_plan.raised) {
        ("lift", _) | ("", Some(RaisedWord::Lift)) => Some(Lifting::Lift),
        ("", None) => None,
        _ => Some(Lifting::Floor),
    }
}

impl Card {
    /// The card of what is chosen, whether work may go on with it or not, and of what was begun before and is not closed again.
    pub fn of_job(work: &Casework, ticks: &[TickEntry]) -> Card {
        Card::with(work, ticks, None)
    }

    /// The same with a repair more.
    pub fn with(work: &Casework, ticks: &[TickEntry], more: Option<Addition>) -> Card {
        let first = if chosen(ticks, FIRST) == "right" { Side::Right } else { Side::Left };
        let repairs: Vec<Addition> =
            work.look_over().repairs.iter().copied().chain(agreed_repairs(&work.case().work_plan)).chain(more).collect();
        let setting = setting(work, lifting(work, ticks).unwrap_or_default());
        let mut card = Card::of(&Ordered { repairs: &repairs, setting, first, ..ordered(work, &parts(work)) });
        carry_over(&mut card, ticks);
        card
    }

    /// The card of the parts alone, as they are usually fitted: from the floor, with nothing to be put right.
    pub fn of_parts(work: &Casework) -> Card {
        Card::of(&ordered(work, &parts(work)))
    }
}

type Part = (&'static KindRow, Site);

fn parts(work: &Casework) -> Vec<Part> {
    let chosen = work.chosen().map(|(option, _)| option.parts.as_slice()).unwrap_or_default();
    chosen.iter().map(|part| (part.correction.row, part.correction.site)).collect()
}

fn setting(work: &Casework, lifting: Lifting) -> Setting {
    Setting {
        lifting,
        trailer: work.found().vehicle.class.is_trailer(),
        // Where nobody said, its half-shafts are looked at.
        front_driven: work.case().sheet.driven != Some(DrivenWord::Rear),
    }
}

fn ordered<'a>(work: &Casework, parts: &'a [Part]) -> Ordered<'a> {
    let rear_axles = work.found().vehicle.class.rear_axles();
    Ordered { parts, repairs: &[], rear_axles, setting: setting(work, Lifting::Floor), first: Side::Left }
}
