//! What intake still has to ask, and the words of its picks.

use wise_badger_casework::entry::Currency;
use wise_badger_casework::survey::{Complaint, Modification, SpringKind};
use wise_badger_store::job_file::JobFile;

pub(crate) fn complaint_name(complaint: Complaint) -> &'static str {
    match complaint {
        Complaint::LowEmpty => "sits low empty",
        Complaint::LowLoaded => "sits low loaded",
        Complaint::Leans => "leans",
        Complaint::Bottoms => "bottoms",
        Complaint::NoseUp => "nose up",
        Complaint::TooMuchRake => "too much rake",
        Complaint::LightsHigh => "lights too high",
        Complaint::FloatsOrSways => "floats or sways",
        Complaint::TooHarsh => "too harsh",
        Complaint::Drags => "drags a hitch, step or drain",
    }
}

pub(crate) fn modification_name(what: Modification) -> &'static str {
    match what {
        Modification::RearBlock => "blocks at the rear",
        Modification::FrontSpacer => "spacers at the front coils or struts",
        Modification::RearSpacer => "spacers at the rear coils",
        Modification::Spacer => "spacers, end not said",
        Modification::LongerShackle => "longer shackles",
        Modification::AddedLeaf => "add-a-leaves",
        Modification::AirHelper => "air helpers",
        Modification::Helper => "steel helpers or load rubbers",
        Modification::OtherSprings => "other springs than it was made with",
    }
}

/// What is measured of earlier work; empty where there is nothing to measure.
pub(crate) fn modification_size(what: Modification) -> &'static str {
    match what {
        Modification::RearBlock => "Block height",
        Modification::FrontSpacer | Modification::RearSpacer | Modification::Spacer => "Spacer height",
        Modification::LongerShackle => "Longer by",
        _ => "",
    }
}

/// A currency as its sums are marked.
pub(crate) fn currency_name(currency: Currency) -> &'static str {
    match currency {
        Currency::Usd => "US$",
        Currency::Cad => "CA$",
        Currency::Mxn => "MX$",
        Currency::Eur => "€",
        Currency::Gbp => "£",
        Currency::Aud => "AU$",
        Currency::Nzd => "NZ$",
    }
}

pub(crate) fn spring_name(spring: SpringKind) -> &'static str {
    match spring {
        SpringKind::Leaf => "leaf",
        SpringKind::Coil => "coil",
        SpringKind::Torsion => "torsion",
        SpringKind::Air => "air",
    }
}

/// What is not known yet, as questions. None of them blocks anything.
pub(crate) fn questions(file: &JobFile) -> Vec<&'static str> {
    let (sheet, intake) = (&file.case().sheet, &file.case().intake);
    let trailer = intake.class.is_trailer();
    let asked: [(bool, &'static str); 14] = [
        (sheet.complaints.is_empty() && sheet.complaint_words.is_empty(), "What does the customer complain of?"),
        (
            sheet.sound_rear.is_none(),
            "What did the rear stand at, empty, when it was sound? The maker's sheet or a sound twin tells.",
        ),
        (intake.kerb_rear.is_none(), "What do the axles weigh empty? The class's usual weight stands in until a scale says."),
        (file.case().plan.is_none(), "What is always aboard, and what sometimes?"),
        (sheet.rear_spring.is_none(), "What does the rear rest on: leaf, coil, torsion or air?"),
        (
            sheet.rear_spring == Some(SpringKind::Leaf) && sheet.rear_spring_over.is_none(),
            "Does the spring sit over the axle or under it?",
        ),
        (sheet.rear_tyre.is_empty(), "What size stands on the tires?"),
        (sheet.rear_tyre_rating.is_none(), "What may one rear tire carry, single or dual as it is used?"),
        (intake.gross_rating.is_none(), "What is the gross rating?"),
        (!trailer && sheet.hitch_rating.is_none() && tows(file), "What may press on the hitch?"),
        (sheet.modifications.is_empty() && !sheet.no_earlier_work, "Was anything done to it before?"),
        (sheet.first.is_none(), "Which comes first, ride or stability?"),
        (sheet.shares.is_empty(), "How much of the time is it empty, at its usual load, full?"),
        (sheet.wanted_by.is_none() && sheet.wanted_words.is_empty(), "By when is it wanted?"),
    ];
    asked.into_iter().filter(|(open, _)| *open).map(|(_, question)| question).collect()
}

fn tows(file: &JobFile) -> bool {
    file.case().plan.iter().flat_map(|plan| &plan.items).any(|item| item.on_hitch)
}
