//! Opening a job, and putting its vehicle right.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use chrono::Local;
use serde::Deserialize;
use wise_badger_casework::entry::{CallEntry, IntakeSheetEntry, LoadPlanEntry, LowWord, WhenLow};
use wise_badger_casework::intake::Intake;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{Complaint, RearWheels, Tandem, VehicleClass};
use wise_badger_casework::words::Word;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::submission::Sending;
use wise_badger_store::vehicle::{self, Vehicle, Whose};
use wise_badger_store::{CallId, Database, JobId, JobNumber, PgConnection, StoreError, VehicleId, call, job, saving};

use super::call::{QUICK, plan_of};
use super::hands::whose_of;
use super::intake_sheet::{SheetForm, complaint_ticks};
use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::shown_again::ShownAgain;
use super::{Hidden, Page, Refusal, page, see_other, stale_words};
use crate::error::WebError;
use crate::form::intake_sheet::complaint_field;
use crate::form::{Field, Picks, Posted, Sheet, Tick, intake, intake_sheet};
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::Units;
use crate::view::intake::questions;
use crate::view::slips;
use crate::view::work_plan::day_words;
use crate::worker::Worker;

/// What a form was begun from, kept beside its fields.
const FROM_BEFORE: &str = "from_before";
/// The hidden field of the call that a job begins with.
const CALL: &str = "call";

struct IntakeForm {
    hidden: Hidden,
    label: Field,
    classes: Picks,
    wheels: Picks,
    wheelbase: Field,
    axle_spread: Field,
    rockers: Picks,
    front_rating: Field,
    rear_rating: Field,
    gross_rating: Field,
    kerb_front: Field,
    kerb_rear: Field,
    /// Class, and what is assumed for it, single and dual.
    assumed: Vec<[String; 3]>,
    refusal: String,
}

#[derive(Template)]
#[template(path = "new_job.html")]
struct NewJobPage {
    shell: Shell,
    form: IntakeForm,
    /// What a person asks first at the counter.
    complaint: Field,
    complaints: Vec<Tick>,
    wanted_by: Field,
    /// The call that it begins with, by its key.
    call: String,
    customer: String,
    phone: String,
    plate: String,
    /// What the form was begun from, where the vehicle was here before.
    from_before: String,
}

#[derive(Template)]
#[template(path = "intake.html")]
struct IntakePage {
    frame: JobFrame,
    form: IntakeForm,
    sheet: SheetForm,
    questions: Vec<&'static str>,
    /// Over a rating, whoever raises one shows once more who they are.
    shown_again: Option<ShownAgain>,
}

impl IntakeForm {
    /// Whether a field of the folded part was refused or asked about.
    fn weights_open(&self) -> bool {
        [&self.gross_rating, &self.kerb_front, &self.kerb_rear]
            .into_iter()
            .any(|field| field.has_problem() || field.is_asked_about())
    }

    fn new(sheet: &Sheet, revision: i32, reader: Units, refusal: Option<&Refusal>) -> Self {
        let spread = format!("left empty, {} is assumed", reader.height(Tandem::default().spread));
        let assumed = "left empty, the class's usual weight is assumed and marked so";
        IntakeForm {
            hidden: Hidden::new(sheet, revision),
            label: sheet.text_field("label", "Label").hint("what the shop calls this job"),
            classes: sheet.picks("class", "Vehicle class", intake::class_choices()).marked("several-axles", has_several_axles),
            wheels: sheet.picks("rear_wheels", "Rear wheels", [("single", "Single"), ("dual", "Dual")]),
            wheelbase: sheet
                .length_field("wheelbase", "Wheelbase")
                .hint("of a trailer: from the coupler to its axle, or to the middle of its axles"),
            axle_spread: sheet.length_field("axle_spread", "Between the axles").hint(&spread),
            rockers: sheet.picks(
                "equalised",
                "The trailer's axles",
                [("yes", "An equalizer joins their springs"), ("no", "Each on its own")],
            ),
            front_rating: sheet.weight_field("front_rating", "Front axle rating").hint("of a trailer: what the hitch may carry"),
            rear_rating: sheet.weight_field("rear_rating", "Rear axle rating").hint("of a trailer: all axles together"),
            gross_rating: sheet.weight_field("gross_rating", "Gross rating, if known"),
            kerb_front: sheet.weight_field("kerb_front", "Front axle, or tongue, empty").hint(assumed),
            kerb_rear: sheet.weight_field("kerb_rear", "Rear axle or axles, empty").hint(assumed),
            assumed: VehicleClass::all().map(|class| assumptions(class, reader)).collect(),
            refusal: refusal.map(Refusal::words).unwrap_or_default(),
        }
    }
}

/// Whether a class has more than one axle at the rear.
fn has_several_axles(word: &str) -> bool {
    VehicleClass::from_word(word).is_some_and(|class| class.is_trailer() && class.rear_axles() > 1)
}

fn assumptions(class: VehicleClass, units: Units) -> [String; 3] {
    let with = |wheels| {
        let assumed = class.assumptions(wheels, None);
        format!(
            "front {}, rear {}; rear springs {}",
            units.weight(assumed.kerb_front),
            units.weight(assumed.kerb_rear),
            units.rate(assumed.rear_rate)
        )
    };
    [crate::view::class_name(class).to_owned(), with(RearWheels::Single), with(RearWheels::Dual)]
}

#[derive(Deserialize)]
pub(crate) struct Beginning {
    call: Option<i64>,
    /// A vehicle that was here before, by its key or by its plate.
    vehicle: Option<i64>,
    #[serde(default)]
    plate: String,
}

pub(crate) async fn new(database: Data<Database>, worker: Worker, beginning: Query<Beginning>) -> Result<HttpResponse, WebError> {
    let mut sheet = intake::blank(worker.units());
    if let Some(id) = beginning.call {
        let shop = worker.shop_id();
        let found = database.read(move |connection| call::find(connection, shop, CallId(id))).await?;
        if let Some(job) = found.job {
            return Ok(see_other(format!("/jobs/{}", job.0)));
        }
        if !found.stands {
            // Its page says that it was changed or struck off.
            return Ok(see_other(format!("{QUICK}/{id}")));
        }
        begin_with(&mut sheet, CallId(id), &found.entry);
    }
    if let Some(before) = been_here(&database, &worker, &beginning).await? {
        begin_with_vehicle(&mut sheet, &before, worker.units());
    } else if !beginning.plate.is_empty() {
        sheet.set("plate", beginning.plate.clone());
        sheet.set(FROM_BEFORE, format!("No vehicle with the plate {} was here before.", beginning.plate));
    }
    drawn(move |_| new_job_page(&worker, &sheet, StatusCode::OK, None)).await
}

/// A vehicle that was here before, with its last visit.
async fn been_here(
    database: &Data<Database>,
    worker: &Worker,
    beginning: &Beginning,
) -> Result<Option<(Vehicle, Option<JobFile>)>, WebError> {
    let (shop, id, plate) = (worker.shop_id(), beginning.vehicle.map(VehicleId), beginning.plate.clone());
    let read = database.read(move |connection| {
        let found = match id {
            Some(id) => Some(vehicle::find(connection, shop, id)?),
            None => vehicle::find_by_plate(connection, shop, &plate)?,
        };
        let Some(found) = found else { return Ok(None) };
        let last = vehicle::visits(connection, shop, found.id)?.first().map(|visit| visit.number);
        let last = last.map(|number| JobFile::find(connection, shop, number)).transpose()?;
        Ok::<_, StoreError>(Some((found, last)))
    });
    Ok(read.await?)
}

/// The form with what was put down of a vehicle when it was here last: marked so, and each figure to be held against the vehicle.
fn begin_with_vehicle(sheet: &mut Sheet, (vehicle, last): &(Vehicle, Option<JobFile>), units: Units) {
    if let Some(last) = last {
        let label = sheet.text("label").to_owned();
        *sheet = intake::on_file(units, &last.case().intake);
        sheet.set("label", label);
        let day = day_words(last.job.opened_at.with_timezone(&Local).date_naive());
        let rate = last.work.rate().measured().map(|rate| {
            format!(" Its rear rate was found to be {} ± {:.0} % then.", units.rate(rate.rate), 200.0 * rate.relative_sd)
        });
        sheet.set(
            FROM_BEFORE,
            format!(
                "From job {}, {day}: class, wheels, wheelbase, ratings and weights as they were put down then. Hold them against the door sticker.{}",
                last.job.number.0,
                rate.unwrap_or_default()
            ),
        );
    }
    sheet.set("plate", vehicle.plate.clone());
    if let Some(customer) = &vehicle.customer {
        sheet.set("customer", customer.name.clone());
        sheet.set("phone", customer.phone.clone());
    }
}

/// The form with what was told on the phone.
fn begin_with(sheet: &mut Sheet, id: CallId, call: &CallEntry) {
    sheet.set(CALL, id.0.to_string());
    sheet.set("label", call.label.clone());
    sheet.set("class", call.class.word());
    sheet.set("rear_wheels", call.rear_wheels.word());
    call.rear_rating.iter().for_each(|rating| sheet.set_typed("rear_rating", rating));
    sheet.set("complaint_words", call.words.clone());
    let picked = [
        (Complaint::LowEmpty, call.when == Some(WhenLow::EmptyToo)),
        (Complaint::LowLoaded, call.when == Some(WhenLow::Loaded)),
        (Complaint::Bottoms, call.low == Some(LowWord::OnItsStops)),
        (Complaint::Leans, call.leans),
    ];
    for (complaint, _) in picked.into_iter().filter(|(_, picked)| *picked) {
        sheet.set(&complaint_field(complaint), "yes");
    }
}

fn new_job_page(worker: &Worker, sheet: &Sheet, status: StatusCode, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let template = NewJobPage {
        shell: Shell::new(worker, "New job", "/jobs/new"),
        form: IntakeForm::new(sheet, 0, worker.units(), refusal),
        complaint: sheet.text_field("complaint_words", "The complaint, in the customer's words").lines(2),
        complaints: complaint_ticks(sheet),
        wanted_by: sheet.text_field("wanted_by", "Wanted by").hint("a day, like 5/14/2027"),
        call: sheet.text(CALL).to_owned(),
        customer: sheet.text("customer").to_owned(),
        phone: sheet.text("phone").to_owned(),
        plate: sheet.text("plate").to_owned(),
        from_before: sheet.text(FROM_BEFORE).to_owned(),
    };
    page(status, &template)
}

pub(crate) async fn open(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let sending = sheet.sending()?;
    let (intake, asked) = (intake::check(&mut sheet), intake_sheet::check(&mut sheet, None));
    let Some((intake, asked)) = intake.zip(asked).filter(|_| sheet.is_sound()) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| new_job_page(&worker, &sheet, refusal.status(), Some(&refusal))).await;
    };
    let call = call_of(&database, &worker, &sheet).await?;
    let asked = call.as_ref().map_or_else(|| asked.clone(), |(_, call)| with_wishes(asked.clone(), call));
    let began = call.map(|(id, call)| (id, plan_of(&call, &intake.vehicle(), worker.units())));
    let beside = Beside { began, whose: whose_of(&sheet) };
    match opened(&database, &worker, &sending, &intake, &asked, beside).await {
        Ok(number) => Ok(see_other(Stage::Tape.path(number))),
        Err(StoreError::Stale { by, at }) => {
            let refusal = Refusal::Conflict(stale_words(&worker, &by, at));
            drawn(move |_| new_job_page(&worker, &sheet, refusal.status(), Some(&refusal))).await
        }
        Err(error) => Err(error.into()),
    }
}

/// The call that a form was begun with.
async fn call_of(database: &Data<Database>, worker: &Worker, sheet: &Sheet) -> Result<Option<(CallId, CallEntry)>, WebError> {
    if !sheet.is_filled(CALL) {
        return Ok(None);
    }
    let id = sheet.text(CALL).parse().map_err(|error| WebError::Malformed(format!("no call: {error}")))?;
    let shop = worker.shop_id();
    let found = database.read(move |connection| call::find(connection, shop, CallId(id))).await?;
    Ok(Some((CallId(id), found.entry)))
}

/// What is asked at the counter, with what was told of springs and wishes before.
fn with_wishes(asked: IntakeSheetEntry, call: &CallEntry) -> IntakeSheetEntry {
    IntakeSheetEntry {
        rear_spring: asked.rear_spring.or(call.rear_spring),
        upkeep: asked.upkeep.or(call.upkeep),
        removable: asked.removable.or(call.removable),
        budget: asked.budget.or_else(|| call.budget.clone()),
        ..asked
    }
}

/// What is told of a job beside its own intake: the call that it began with, and whose vehicle it is about.
#[derive(Debug, Clone)]
struct Beside {
    began: Option<(CallId, Option<LoadPlanEntry>)>,
    whose: Whose,
}

/// Opens the job. When the connection is lost over it, it is asked for once more: what was opened is then found again.
async fn opened(
    database: &Data<Database>,
    worker: &Worker,
    sending: &Sending,
    intake: &Intake,
    asked: &IntakeSheetEntry,
    beside: Beside,
) -> Result<JobNumber, StoreError> {
    let open = || {
        let (person, sending, intake, asked) = (worker.person.clone(), sending.clone(), intake.clone(), asked.clone());
        let beside = beside.clone();
        database.write(move |connection| {
            let number = saving::open(connection, &person, &sending, &intake, &asked)?;
            if let Some((id, plan)) = &beside.began {
                call::came_in(connection, &person, *id, number, plan.as_ref())?;
            }
            let job = job::find(connection, person.shop_id, number)?.job.id;
            vehicle::tell(connection, &person, job, intake.class, &beside.whose)?;
            Ok(number)
        })
    };
    match open().await {
        Err(StoreError::OutcomeUnknown(source)) => open().await.map_err(|_also| StoreError::OutcomeUnknown(source)),
        done => done,
    }
}

/// The form of the vehicle itself.
pub(crate) struct IntakeVehicleForm;

impl JobForm for IntakeVehicleForm {
    type Read = JobFile;
    type Entry = Intake;

    fn on_file(units: Units, file: &JobFile) -> Sheet {
        intake::on_file(units, &file.case().intake)
    }

    fn check(sheet: &mut Sheet, file: &JobFile) -> Option<Intake> {
        intake::check_on_file(sheet, file)
    }

    fn is_dangerous(file: &JobFile, entry: &Intake) -> bool {
        // What was over a rating must not come under it by a stroke of the pen.
        file.work.overload().is_some() && raises_a_rating(&file.case().intake, entry)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &Intake) -> Result<(), StoreError> {
        job::set_intake(connection, person, job, entry)
    }

    fn page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        intake_page(worker, file, refusal.map(|refusal| (sheet, refusal)), None)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Intake.path(number)
    }
}

/// Whether any rating is put down higher than it stands, or not at all any more.
fn raises_a_rating(stands: &Intake, entry: &Intake) -> bool {
    let more = |before: f64, after: f64| after > before;
    let gross = match (&stands.gross_rating, &entry.gross_rating) {
        (Some(before), Some(after)) => more(before.si, after.si),
        (before, after) => before.is_some() && after.is_none(),
    };
    more(stands.front_rating.si, entry.front_rating.si) || more(stands.rear_rating.si, entry.rear_rating.si) || gross
}

/// The page, with one of its two forms as it was refused.
pub(super) fn intake_page(
    worker: &Worker,
    file: &JobFile,
    vehicle: Option<(&Sheet, &Refusal)>,
    asked: Option<(&Sheet, &Refusal)>,
) -> Result<Page, WebError> {
    let units = worker.units();
    let mut vehicle_sheet = vehicle.map_or_else(|| intake::on_file(units, &file.case().intake), |(sheet, _)| sheet.clone());
    if vehicle.is_none() {
        slips::ask(&mut vehicle_sheet, &file.work, Stage::Intake);
    }
    let asked_sheet = asked.map_or_else(|| intake_sheet::on_file(units, &file.case().sheet), |(sheet, _)| sheet.clone());
    let refusal = |of: Option<(&Sheet, &Refusal)>| of.map(|(_, refusal)| refusal.clone());
    let refused = refusal(vehicle).or(refusal(asked));
    let template = IntakePage {
        frame: JobFrame::new(worker, file, Some(Stage::Intake), &as_chosen(&file.work)),
        form: IntakeForm::new(&vehicle_sheet, file.job.revision, units, refusal(vehicle).as_ref()),
        sheet: SheetForm::new(&asked_sheet, file, refusal(asked).as_ref()),
        questions: questions(file),
        shown_again: file.work.overload().is_some().then(|| ShownAgain::new(worker, "vehicle")),
    };
    page(refused.as_ref().map_or(StatusCode::OK, Refusal::status), &template)
}
