//! The intake form: what the vehicle is.

use wise_badger_casework::bounds::{AXLE_SPREAD, WHEELBASE};
use wise_badger_casework::intake::Intake;
use wise_badger_casework::survey::{End, RearWheels, VehicleClass, VehicleProblem};
use wise_badger_casework::words::Word;
use wise_badger_store::job_file::JobFile;

use super::Sheet;
use crate::view::{Units, class_name, sentence, support_name};

const LONGEST_LABEL: usize = 80;

/// What may be picked as class, by its name.
pub(crate) fn class_choices() -> Vec<(&'static str, &'static str)> {
    VehicleClass::WORDS.iter().map(|(class, word)| (*word, class_name(*class))).collect()
}

/// The form of a job to be opened.
pub(crate) fn blank(units: Units) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("equalised", "yes");
    sheet
}

/// The form as it stands for a job on file.
pub(crate) fn on_file(units: Units, intake: &Intake) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("label", intake.label.clone());
    sheet.set("class", intake.class.word());
    sheet.set("rear_wheels", intake.rear_wheels.word());
    sheet.set_typed("wheelbase", &intake.wheelbase);
    sheet.set_typed("front_rating", &intake.front_rating);
    sheet.set_typed("rear_rating", &intake.rear_rating);
    sheet.set("equalised", if intake.equalised { "yes" } else { "no" });
    let optional = [
        ("axle_spread", &intake.axle_spread),
        ("gross_rating", &intake.gross_rating),
        ("kerb_front", &intake.kerb_front),
        ("kerb_rear", &intake.kerb_rear),
    ];
    for (name, typed) in optional {
        if let Some(typed) = typed {
            sheet.set_typed(name, typed);
        }
    }
    sheet
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet) -> Option<Intake> {
    let label = label(sheet);
    let class = class(sheet);
    if class.is_none() {
        sheet.refuse("class", "Pick what kind of vehicle it is.");
    }
    let rear_wheels = RearWheels::from_word(sheet.text("rear_wheels"));
    if rear_wheels.is_none() {
        sheet.refuse("rear_wheels", "Pick single or dual rear wheels.");
    }
    let wheelbase = sheet.length("wheelbase").and_then(|typed| sheet.within("wheelbase", "A wheelbase", typed, &WHEELBASE));
    // Fields of another class that were filled before the class was changed are no part of the answer.
    let trailer = class.is_some_and(|class| class.is_trailer() && class.rear_axles() > 1);
    let axle_spread = if trailer { sheet.optional_length("axle_spread") } else { None };
    let equalised = !trailer || sheet.text("equalised") != "no";
    let (front_rating, rear_rating) = (sheet.weight("front_rating"), sheet.weight("rear_rating"));
    let gross_rating = sheet.optional_weight("gross_rating");
    let (kerb_front, kerb_rear) = (sheet.optional_weight("kerb_front"), sheet.optional_weight("kerb_rear"));
    let intake = Intake {
        // Without a label the rest is looked at all the same.
        label: label.unwrap_or_default(),
        class: class?,
        rear_wheels: rear_wheels?,
        wheelbase: wheelbase?,
        axle_spread,
        equalised,
        front_rating: front_rating?,
        rear_rating: rear_rating?,
        gross_rating,
        kerb_front,
        kerb_rear,
    };
    for problem in intake.vehicle().problems() {
        say(sheet, intake.class, &problem);
    }
    sheet.is_sound().then_some(intake)
}

/// Reads the form for a job on file. What was read on a truck's arches cannot become a trailer's frame heights.
pub(crate) fn check_on_file(sheet: &mut Sheet, file: &JobFile) -> Option<Intake> {
    let was_trailer = file.case().intake.class.is_trailer();
    if !file.case().readings.is_empty() && class(sheet).is_some_and(|class| class.is_trailer() != was_trailer) {
        sheet.refuse("class", "The heights of this job were read on another kind of vehicle; open a new job for this one.");
        return None;
    }
    check(sheet)
}

fn class(sheet: &Sheet) -> Option<VehicleClass> {
    VehicleClass::from_word(sheet.text("class"))
}

fn label(sheet: &mut Sheet) -> Option<String> {
    let label = sheet.text("label").to_owned();
    let problem = if label.is_empty() {
        "Type what the shop calls this job.".to_owned()
    } else if label.chars().count() > LONGEST_LABEL {
        format!("Keep the label to {LONGEST_LABEL} characters.")
    } else if label.chars().any(char::is_control) {
        "Type the label on one line, without special characters.".to_owned()
    } else {
        return Some(label);
    };
    sheet.refuse("label", problem);
    None
}

fn say(sheet: &mut Sheet, class: VehicleClass, problem: &VehicleProblem) {
    let units = sheet.units();
    match problem {
        VehicleProblem::Wheelbase => sheet.ask_about("wheelbase", "A wheelbase", &WHEELBASE),
        VehicleProblem::Spread => sheet.ask_about("axle_spread", "The distance between a trailer's axles", &AXLE_SPREAD),
        VehicleProblem::KerbTooLight { end, least } => {
            let name = if *end == End::Front { "kerb_front" } else { "kerb_rear" };
            let text = format!("No {} of this class carries under {} empty.", support_name(class, *end), units.weight(*least));
            sheet.refuse(name, text);
        }
        _ => sheet.refuse("class", sentence("these facts do not go together; check them.")),
    }
}
