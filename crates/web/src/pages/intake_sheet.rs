//! The part of intake that asks beyond the vehicle itself.

use wise_badger_casework::entry::IntakeSheetEntry;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{Complaint, End, Modification, SpringKind, VehicleClass};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job_sheet};

use super::intake::intake_page;
use super::job_form::JobForm;
use super::{Hidden, Page, Refusal};
use crate::error::WebError;
use crate::form::intake_sheet::{self, complaint_field, modification_field, share_field, shared_between, size_field};
use crate::form::{Field, Picks, Sheet, Tick};
use crate::job_route::StageWords as _;
use crate::view::intake::{complaint_name, currency_name, modification_name, modification_size, spring_name};
use crate::view::{Units, datum_name, sentence, support_name};
use crate::worker::Worker;

/// The sheet's form as the template prints it.
pub(super) struct SheetForm {
    pub(super) hidden: Hidden,
    pub(super) complaint_words: String,
    pub(super) complaint_problem: String,
    pub(super) complaints: Vec<Tick>,
    pub(super) price: Vec<Field>,
    pub(super) wishes: Vec<Picks>,
    pub(super) shares: Vec<Field>,
    pub(super) springs: Vec<Picks>,
    pub(super) measures: Vec<Field>,
    pub(super) wheels: Vec<Field>,
    pub(super) modifications: Vec<DoneBefore>,
    pub(super) no_earlier_work: bool,
    pub(super) no_earlier_problem: String,
    pub(super) refusal: String,
}

/// Earlier work, and its size where it has one.
pub(super) struct DoneBefore {
    pub(super) tick: Tick,
    pub(super) size: Option<Field>,
}

const YES_OR_NO: [(&str, &str); 2] = [("yes", "yes"), ("no", "no")];

/// Whether earlier work is asked for: only where the class may have it, and spacers end by end, unless it was noted once.
fn offers(what: Modification, sheet: &Sheet, class: VehicleClass) -> bool {
    let asked = match what {
        Modification::Spacer => false,
        Modification::FrontSpacer => !class.is_trailer(),
        _ => true,
    };
    asked || sheet.is_filled(&modification_field(what))
}

/// A box for each complaint.
pub(super) fn complaint_ticks(sheet: &Sheet) -> Vec<Tick> {
    Complaint::ALL.into_iter().map(|complaint| sheet.tick(complaint_field(complaint), complaint_name(complaint))).collect()
}

impl SheetForm {
    /// Whether a field of a folded part was refused: then the part stands open.
    pub(super) fn wishes_open(&self) -> bool {
        self.shares.iter().any(Field::has_problem) || self.wishes.iter().any(Picks::has_problem)
    }

    pub(super) fn springs_open(&self) -> bool {
        self.measures.iter().any(Field::has_problem) || self.springs.iter().any(Picks::has_problem)
    }

    pub(super) fn wheels_open(&self) -> bool {
        self.wheels.iter().any(Field::has_problem)
    }

    pub(super) fn before_open(&self) -> bool {
        let sizes = self.modifications.iter().filter_map(|done| done.size.as_ref());
        !self.no_earlier_problem.is_empty() || sizes.into_iter().any(Field::has_problem)
    }

    pub(super) fn new(sheet: &Sheet, file: &JobFile, refusal: Option<&Refusal>) -> Self {
        let class = file.case().intake.class;
        let trailer = class.is_trailer();
        let pick =
            |name: &str, label: &str, offered: &[(&'static str, &'static str)]| sheet.picks(name, label, offered.iter().copied());
        let springs = SpringKind::ALL.map(|spring| (spring_name(spring), spring_name(spring)));
        let datum = file.case().measured.datum.map_or("measured as this job's heights are", |datum| datum_name(class, datum));
        let modification = |what: Modification| DoneBefore {
            tick: sheet.tick(modification_field(what), modification_name(what)),
            size: Some(modification_size(what))
                .filter(|label| !label.is_empty())
                .map(|label| sheet.length_field(&size_field(what), label)),
        };
        let [front, rear] = End::BOTH.map(|end| support_name(class, end));
        let mut measures = vec![
            sheet
                .length_field("sound_rear", "Rear height when sound, empty")
                .hint(format!("{datum}; the maker's sheet or a sound twin")),
            sheet.rate_field("sound_rate", "Rear rate when sound").hint("all rear springs together"),
            sheet.length_field("rear_track", "Rear track").hint("between the middles of the wheels"),
        ];
        if !trailer {
            measures.push(sheet.length_field("rear_overhang", "Rear axle to tail"));
        }
        let mut wheels = vec![
            sheet.text_field("rear_tyre", "Rear tire size").hint("as on the sidewall, like 245/75R16"),
            sheet.weight_field("rear_tyre_rating", "One rear tire may carry").hint("single or dual, as it is used"),
            sheet.weight_field("rear_wheel_rating", "One rear wheel may carry"),
        ];
        if !trailer {
            wheels.extend([
                sheet.text_field("front_tyre", "Front tire size"),
                sheet.weight_field("front_tyre_rating", "One front tire may carry"),
                sheet.weight_field("front_wheel_rating", "One front wheel may carry"),
                sheet.weight_field("hitch_rating", "The hitch may carry"),
            ]);
        }
        let mut spring_picks = vec![
            pick("rear_spring", &format!("{} on", sentence(rear)), &springs),
            pick("rear_over", "Rear spring", &[("over", "over the axle"), ("under", "under the axle")]),
        ];
        if !trailer {
            spring_picks.insert(
                0,
                pick("driven", "Driven by", &[("front", "front wheels"), ("rear", "rear wheels"), ("all", "all wheels")]),
            );
            spring_picks.insert(1, pick("front_spring", &format!("{} on", sentence(front)), &springs));
        }
        SheetForm {
            hidden: Hidden::new(sheet, file.job.revision),
            complaint_words: sheet.text("complaint_words").to_owned(),
            complaint_problem: sheet.problem("complaint_words").to_owned(),
            complaints: complaint_ticks(sheet),
            price: vec![
                sheet.number_field("budget", "It may cost", currency_name(sheet.units().currency)).hint("like 1,200"),
                sheet.text_field("budget_words", "What else of the price").hint("like without paint"),
                sheet.text_field("wanted_by", "Wanted by").hint("a day, like 5/14/2027"),
                sheet.text_field("wanted_words", "What else of when").hint("like before the fair"),
            ],
            wishes: vec![
                pick("first", "First comes", &[("ride", "the ride"), ("stability", "stability under load")]),
                pick("upkeep", "Will look after something that wants upkeep", &YES_OR_NO),
                pick("removable", "Must come off again", &YES_OR_NO),
            ],
            shares: shared_between(file.case().plan.as_ref())
                .into_iter()
                .map(|(of, label)| sheet.number_field(&share_field(of), &label, "%"))
                .collect(),
            springs: spring_picks,
            measures,
            wheels,
            modifications: Modification::ALL.into_iter().filter(|what| offers(*what, sheet, class)).map(modification).collect(),
            no_earlier_work: sheet.is_filled("no_earlier_work"),
            no_earlier_problem: sheet.problem("no_earlier_work").to_owned(),
            refusal: refusal.map(Refusal::words).unwrap_or_default(),
        }
    }
}

/// The form of that part.
pub(crate) struct IntakeSheetForm;

impl JobForm for IntakeSheetForm {
    type Read = JobFile;
    type Entry = IntakeSheetEntry;

    fn on_file(units: Units, file: &JobFile) -> Sheet {
        intake_sheet::on_file(units, &file.case().sheet)
    }

    fn check(sheet: &mut Sheet, file: &JobFile) -> Option<IntakeSheetEntry> {
        intake_sheet::check(sheet, file.case().plan.as_ref())
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &IntakeSheetEntry) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        intake_page(worker, file, None, refusal.map(|refusal| (sheet, refusal)))
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Intake.path(number)
    }
}
