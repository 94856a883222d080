//! Slips of the hand, asked about where they stand.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::reading::Place;
use wise_badger_casework::route::Stage;
use wise_badger_casework::slips::Slip;
use wise_badger_casework::survey::{Basis, End, LoadState};
use wise_badger_casework::words::Word as _;

use super::{Units, datum_name, end_name, place_name, sentence, state_of, support_name};
use crate::form::Sheet;
use crate::form::tape::field_name;

/// A question with the fields it is about, and the stage they stand on.
pub(crate) struct SlipWords {
    pub(crate) stage: Stage,
    fields: Vec<String>,
    pub(crate) question: String,
}

/// Every question that a job's figures ask.
pub(crate) fn slip_words(work: &Casework, units: Units) -> Vec<SlipWords> {
    work.slips().iter().map(|slip| words(slip, work, units)).collect()
}

/// Asks beside the fields of one stage.
pub(crate) fn ask(sheet: &mut Sheet, work: &Casework, stage: Stage) {
    for slip in slip_words(work, sheet.units()).into_iter().filter(|slip| slip.stage == stage) {
        slip.fields.iter().for_each(|field| sheet.question(field, slip.question.clone()));
    }
}

fn words(slip: &Slip, work: &Casework, units: Units) -> SlipWords {
    let survey = work.found();
    let (class, state_words) = (survey.vehicle.class, |state: LoadState| state_of(survey, state).to_owned());
    let tape = |fields: Vec<String>, question: String| SlipWords { stage: Stage::Tape, fields, question };
    let rating = |end: Option<End>| match end {
        Some(End::Front) => "front_rating".to_owned(),
        Some(End::Rear) => "rear_rating".to_owned(),
        None => "gross_rating".to_owned(),
    };
    match slip {
        Slip::SidesApart { end, state, apart } => {
            let places = if *end == End::Front { ["front_left", "front_right"] } else { ["rear_left", "rear_right"] };
            let fields = places.map(|place| field_name(*state, place, 0)).into();
            let (end, by, state) = (end_name(class, *end), units.height(*apart), state_words(*state));
            tape(fields, format!("Left and right of the {end} are {by} apart, {state}: read both again."))
        }
        Slip::RepeatsApart { spot, apart } => {
            let (place, by, state) = (place_name(class, spot.place), units.height(*apart), state_words(spot.state));
            let question =
                format!("{}, {state}: its readings are {by} apart. Read again, and clear the wrong one.", sentence(place));
            tape(vec![field_name(spot.state, spot.place.word(), 0)], question)
        }
        Slip::HeightSeldom { spot, height, fits } => {
            let (place, state) = (place_name(class, spot.place), state_words(spot.state));
            let from = datum_name(class, survey.datum);
            let fits = fits.map_or_else(String::new, |datum| format!(" It would fit {}.", datum_name(class, datum)));
            let question = format!(
                "{}, {state}: {} is seldom read {from}. Look at figure and datum.{fits}",
                sentence(place),
                units.height(*height)
            );
            tape(vec![field_name(spot.state, spot.place.word(), 0)], question)
        }
        Slip::GapGrows { state, by } => {
            let question = format!(
                "The stop gap is {} wider {} than empty, though the rear stands lower: read both again.",
                units.height(*by),
                state_words(*state)
            );
            tape(vec![field_name(*state, Place::StopGap.word(), 0)], question)
        }
        Slip::LiftedStandsLower { pressed, lifted, by } => {
            let place = if class.is_trailer() { "trailer" } else { "rear" };
            let (by, lifted_words, pressed_words) = (units.height(*by), state_words(*lifted), state_words(*pressed));
            let question = format!(
                "The {place} stands {by} lower “{lifted_words}” than “{pressed_words}”, and leaves never hold it so: are the two \
                 swapped?"
            );
            let fields = [Place::RearLeft, Place::RearRight].map(|place| field_name(*lifted, place.word(), 0));
            tape(fields.into(), question)
        }
        Slip::RatingBelowEmpty { end, empty, basis } => {
            let what = end.map_or("whole vehicle", |end| support_name(class, end));
            let weight = units.weight(*empty);
            let question = match basis {
                Basis::Stated => format!("The {what} weighs {weight} empty, more than it is rated for: check both figures."),
                Basis::Assumed => {
                    format!("Less than the {weight} assumed on this class's empty {what}: check the rating, or give the weight.")
                }
            };
            SlipWords { stage: Stage::Intake, fields: vec![rating(*end)], question }
        }
        Slip::RatingFarAboveEmpty { end, likely } => {
            let what = support_name(class, *end);
            let question = format!("Far more than a {what} of this class is rated for: was {} meant?", units.weight(*likely));
            SlipWords { stage: Stage::Intake, fields: vec![rating(Some(*end))], question }
        }
    }
}
