//! The intake form: what the vehicle is.

use wise_badger_mechanics::survey::{AxleEnd, Basis, RearWheels, VehicleClass, VehicleProblem};
use wise_badger_store::job::Intake;

use super::{Sheet, outside};
use crate::view::{Units, class_name, end_name, sentence};

const LONGEST_LABEL: usize = 80;

/// Form word of each class.
pub(crate) const CLASSES: [(&str, VehicleClass); 6] = [
    ("half_ton_pickup", VehicleClass::HalfTonPickup),
    ("one_ton_pickup", VehicleClass::OneTonPickup),
    ("flatbed", VehicleClass::Flatbed),
    ("van", VehicleClass::Van),
    ("box_truck", VehicleClass::BoxTruck),
    ("motorhome", VehicleClass::Motorhome),
];

/// What may be picked as class, by its name.
pub(crate) fn class_choices() -> Vec<(&'static str, &'static str)> {
    CLASSES.iter().map(|(word, class)| (*word, class_name(*class))).collect()
}

/// The form as it stands for a job on file.
pub(crate) fn on_file(units: Units, intake: &Intake) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("label", intake.label.clone());
    let class = CLASSES.iter().find(|(_, class)| *class == intake.class).map_or("", |(word, _)| word);
    sheet.set("class", class);
    sheet.set("rear_wheels", if intake.rear_wheels == RearWheels::Dual { "dual" } else { "single" });
    sheet.set_typed("wheelbase", &intake.wheelbase);
    sheet.set_typed("front_rating", &intake.front_rating);
    sheet.set_typed("rear_rating", &intake.rear_rating);
    let optional = [("gross_rating", &intake.gross_rating), ("kerb_front", &intake.kerb_front), ("kerb_rear", &intake.kerb_rear)];
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
    let class = CLASSES.iter().find(|(word, _)| *word == sheet.text("class")).map(|(_, class)| *class);
    if class.is_none() {
        sheet.refuse("class", "Pick what kind of vehicle it is.");
    }
    let rear_wheels = match sheet.text("rear_wheels") {
        "single" => Some(RearWheels::Single),
        "dual" => Some(RearWheels::Dual),
        _ => None,
    };
    if rear_wheels.is_none() {
        sheet.refuse("rear_wheels", "Pick single or dual rear wheels.");
    }
    let wheelbase = sheet.length("wheelbase");
    let (front_rating, rear_rating) = (sheet.weight("front_rating"), sheet.weight("rear_rating"));
    let gross_rating = sheet.optional_weight("gross_rating");
    let (kerb_front, kerb_rear) = (sheet.optional_weight("kerb_front"), sheet.optional_weight("kerb_rear"));
    let intake = Intake {
        label: label?,
        class: class?,
        rear_wheels: rear_wheels?,
        wheelbase: wheelbase?,
        front_rating: front_rating?,
        rear_rating: rear_rating?,
        gross_rating,
        kerb_front,
        kerb_rear,
    };
    for problem in intake.vehicle().problems() {
        say(sheet, &problem);
    }
    sheet.is_sound().then_some(intake)
}

fn label(sheet: &mut Sheet) -> Option<String> {
    let label = sheet.text("label").to_owned();
    let problem = if label.is_empty() {
        "Type what the shop calls this job."
    } else if label.chars().count() > LONGEST_LABEL {
        "Keep the label to 80 signs."
    } else if label.chars().any(char::is_control) {
        "Type the label on one line, without special signs."
    } else {
        return Some(label);
    };
    sheet.refuse("label", problem);
    None
}

fn say(sheet: &mut Sheet, problem: &VehicleProblem) {
    let units = sheet.units();
    match problem {
        VehicleProblem::Wheelbase { least, most } => sheet.refuse("wheelbase", outside("A wheelbase", *least, *most, units)),
        VehicleProblem::RatingBelowKerb { end, kerb, basis } => {
            let name = if *end == AxleEnd::Front { "front_rating" } else { "rear_rating" };
            let (weight, end) = (units.weight(*kerb), end_name(*end));
            let text = match basis {
                Basis::Stated => format!("The {end} axle alone weighs {weight} empty, more than this rating; check both."),
                Basis::Assumed => format!(
                    "Less than the {weight} assumed for this class's empty {end} axle; check the rating, or give the weight below."
                ),
            };
            sheet.refuse(name, text);
        }
        VehicleProblem::GrossBelowKerb { kerb } => {
            sheet.refuse("gross_rating", format!("The empty vehicle weighs {} already; check the rating.", units.weight(*kerb)));
        }
        VehicleProblem::KerbTooLight { end, least } => {
            let name = if *end == AxleEnd::Front { "kerb_front" } else { "kerb_rear" };
            let text = format!("No {} axle of this class weighs under {} empty.", end_name(*end), units.weight(*least));
            sheet.refuse(name, text);
        }
        _ => sheet.refuse("class", sentence("these facts do not go together; check them.")),
    }
}
