//! In whose hands a job is, when it is promised, and whose vehicle it is about.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::entry::DayEntry;
use wise_badger_store::job::{self, Hands};
use wise_badger_store::person::Person;
use wise_badger_store::vehicle::{self, Vehicle, Visit, Whose};
use wise_badger_store::{Database, JobId, JobNumber, PersonId, PgConnection, ShopId, StoreError, person};

use super::{Hidden, job_file, keep_or_fail, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::view::work_plan::day_words;
use crate::worker::Worker;

/// Longest words of whose a vehicle is.
const LONGEST: usize = 80;

/// What is known of a job beside its own record.
pub(super) struct Around {
    pub(super) people: Vec<Person>,
    pub(super) vehicle: Option<Vehicle>,
    /// Every visit of its vehicle, the latest first.
    pub(super) visits: Vec<Visit>,
    /// The job that it came back from, and those that came back from it.
    pub(super) comebacks: (Option<JobNumber>, Vec<JobNumber>),
}

impl Around {
    pub(super) async fn read(database: &Data<Database>, shop: ShopId, job: JobId) -> Result<Self, WebError> {
        let read = database.read(move |connection| {
            let vehicle = vehicle::of_job(connection, shop, job)?;
            let visits = match &vehicle {
                Some(vehicle) => vehicle::visits(connection, shop, vehicle.id)?,
                None => Vec::new(),
            };
            let comebacks = vehicle::comebacks(connection, shop, job)?;
            Ok::<_, StoreError>(Around { people: person::of_shop(connection, shop)?, vehicle, visits, comebacks })
        });
        Ok(read.await?)
    }
}

/// The two forms of it, on the job's own page.
#[derive(Template)]
#[template(path = "parts/hands.html")]
pub(super) struct HandsForm {
    number: i32,
    hidden: Hidden,
    whose_hidden: Hidden,
    people: Vec<(i64, String, bool)>,
    /// The day, as a date field takes it.
    promised: String,
    /// Who has it and when it is promised, in words.
    stands: String,
    customer: String,
    phone: String,
    plate: String,
    vehicle: Option<(i64, String)>,
    /// Earlier visits that it may come back from: number, label, whether it does.
    earlier: Vec<(i32, String, bool)>,
    came_back: Vec<i32>,
    closed: bool,
    /// Whether whoever looks may change it.
    may: bool,
}

impl askama::filters::HtmlSafe for HandsForm {}

impl HandsForm {
    pub(super) fn new(around: &Around, job: &job::Job, worker: &Worker) -> Self {
        let sheet = Sheet::blank(worker.units());
        let here = around.people.iter().filter(|person| person.is_here() || Some(person.id) == job.hands.assigned_to);
        let people = here.map(|person| (person.id.0, person.name.clone(), Some(person.id) == job.hands.assigned_to)).collect();
        let named = |id: PersonId| around.people.iter().find(|person| person.id == id).map(|person| person.name.clone());
        let has = job.hands.assigned_to.and_then(named).map(|name| format!("{name} has it"));
        let promised = job.hands.promised_on.map(|day| format!("promised {}", day_words(day)));
        let stands: Vec<String> = has.into_iter().chain(promised).collect();
        let customer = around.vehicle.as_ref().and_then(|vehicle| vehicle.customer.as_ref());
        let visits = around.visits.len();
        let earlier = around.visits.iter().filter(|visit| visit.number.0 < job.number.0);
        HandsForm {
            number: job.number.0,
            hidden: Hidden::new(&sheet, job.revision),
            whose_hidden: Hidden::new(&sheet, job.revision),
            people,
            promised: job.hands.promised_on.map(|day| day.to_string()).unwrap_or_default(),
            stands: if stands.is_empty() { "Nobody has it yet, and no day is promised".to_owned() } else { stands.join(", ") },
            customer: customer.map(|customer| customer.name.clone()).unwrap_or_default(),
            phone: customer.map(|customer| customer.phone.clone()).unwrap_or_default(),
            plate: around.vehicle.as_ref().map(|vehicle| vehicle.plate.clone()).unwrap_or_default(),
            vehicle: around
                .vehicle
                .as_ref()
                .map(|vehicle| (vehicle.id.0, if visits == 1 { "first visit".to_owned() } else { format!("{visits} visits") })),
            earlier: earlier
                .map(|visit| (visit.number.0, visit.label.clone(), around.comebacks.0 == Some(visit.number)))
                .collect(),
            came_back: around.comebacks.1.iter().map(|number| number.0).collect(),
            closed: job.finished_at.is_some(),
            may: worker.may(Right::Receive),
        }
    }
}

/// What a form says of whose a vehicle is.
pub(super) fn whose_of(sheet: &Sheet) -> Whose {
    let text = |name: &str| sheet.text(name).chars().take(LONGEST).collect::<String>();
    Whose { customer: text("customer"), phone: text("phone"), plate: text("plate") }
}

pub(crate) async fn set(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let person = match sheet.text("person") {
        "" => None,
        text => Some(PersonId(text.parse().map_err(|error| WebError::Malformed(format!("no person: {error}")))?)),
    };
    let promised = match sheet.text("promised") {
        "" => None,
        text => Some(DayEntry::read(text).ok_or_else(|| {
            WebError::Refused(format!("Nothing was saved: “{text}” is no day; pick one, or type it like 5/14/2027."))
        })?),
    };
    let hands = Hands { assigned_to: person, promised_on: promised };
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| job::set_hands(connection, person, job, hands))
        .await?;
    Ok(see_other(format!("/jobs/{number}")))
}

pub(crate) async fn set_whose(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let (whose, job, class) = (whose_of(&sheet), file.job.id, file.case().intake.class);
    let earlier = sheet.text("comes_back_from").parse().ok().map(JobNumber);
    let tell = move |connection: &mut PgConnection, person: &Person| {
        vehicle::tell(connection, person, job, class, &whose)?;
        vehicle::comes_back_from(connection, person, job, earlier)
    };
    keep_or_fail(&database, &worker, &sheet, job, tell).await?;
    Ok(see_other(format!("/jobs/{number}")))
}
