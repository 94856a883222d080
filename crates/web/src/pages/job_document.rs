//! A job as an open document: given out, looked at, and taken in as a new job.

use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE, ContentType};
use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use wise_badger_casework::case::Case;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::job_document::{JobDocument, LARGEST, readings_csv};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::route::Stage;
use wise_badger_store::{Database, JobNumber, StoreError, job_document, saving};

use super::{Hidden, Page, Refusal, page, see_other, stale_words};
use crate::correction::option_name;
use crate::error::WebError;
use crate::form::{Sheet, clean};
use crate::job_route::StageWords as _;
use crate::reckoning::{drawn, run};
use crate::shell::Shell;
use crate::upload;
use crate::view::aim::goal_names;
use crate::view::{Units, class_name, sentence, state_of, wheels_name};
use crate::worker::Worker;

/// The job as a document.
pub(crate) async fn export(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let (shop, job) = (worker.shop_id(), JobNumber(*number));
    let document = database.read(move |connection| job_document::export(connection, shop, job)).await?;
    let text = run(move |_| serde_json::to_string_pretty(&document).map_err(|error| WebError::Malformed(error.to_string())));
    let name = format!("attachment; filename=\"job-{number}.json\"");
    Ok(HttpResponse::Ok()
        .insert_header(ContentType::json())
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, name))
        .body(text.await?))
}

/// Its readings as a table.
pub(crate) async fn readings(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let (shop, job) = (worker.shop_id(), JobNumber(*number));
    let document = database.read(move |connection| job_document::export(connection, shop, job)).await?;
    let text = readings_csv(&document).map_err(|error| WebError::Malformed(error.to_string()))?;
    let name = format!("attachment; filename=\"job-{number}-readings.csv\"");
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "text/csv; charset=utf-8"))
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, name))
        .body(text))
}

#[derive(Template)]
#[template(path = "import_job.html")]
struct ImportPage {
    shell: Shell,
    hidden: Hidden,
    /// What the document says, once there is one.
    preview: Option<Preview>,
    refusal: String,
}

/// A document as it would be taken in.
struct Preview {
    text: String,
    lines: Vec<(&'static str, String)>,
}

impl Preview {
    fn new(text: String, document: &JobDocument, units: Units) -> Self {
        let work = Casework::new(document.case());
        let case: &Case = work.case();
        let (found, class) = (work.found(), case.intake.class);
        let states: Vec<String> = found.states().map(|state| state_of(found, state).to_owned()).collect();
        let before = case.readings.iter().filter(|reading| reading.spot.phase == Phase::Found).count();
        let options: Vec<String> = case.options.iter().map(|option| option_name(option, class, units)).collect();
        let or_none = |text: String| if text.is_empty() { "none".to_owned() } else { text };
        let vehicle = format!(
            "{}, {}, {} {}",
            class_name(class),
            wheels_name(case.intake.rear_wheels),
            if class.is_trailer() { "coupler to axles" } else { "wheelbase" },
            units.height(case.intake.wheelbase.length())
        );
        let chosen = case.chosen.and_then(|place| options.get(place).cloned());
        let readings = format!("{before} before fitting, {} after", case.readings.len() - before);
        let lines = vec![
            ("Job", case.intake.label.clone()),
            ("Vehicle", vehicle),
            ("States", states.join(", ")),
            ("Readings", readings),
            ("Look-over", if case.look_over.is_some() { "done" } else { "not done" }.to_owned()),
            ("Aim", or_none(goal_names(&work, units).into_iter().map(|name| sentence(&name)).collect::<Vec<_>>().join("; "))),
            ("Options", or_none(options.join("; "))),
            ("Chosen", or_none(chosen.unwrap_or_default())),
            ("Bench", if case.bench.is_some() { "a pack, leaf by leaf" } else { "none" }.to_owned()),
        ];
        Preview { text, lines }
    }
}

pub(crate) async fn ask(worker: Worker) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::blank(worker.units());
    drawn(move |_| import_page(&worker, &sheet, None, None)).await
}

/// A document that was sent: looked at first, and opened as a new job when that was seen.
pub(crate) async fn import(
    database: Data<Database>,
    worker: Worker,
    request: HttpRequest,
    payload: Payload,
) -> Result<HttpResponse, WebError> {
    let largest = u64::try_from(LARGEST).unwrap_or(u64::MAX);
    let sent = upload::read(&request, payload, "document", largest).await?;
    let sheet = Sheet::posted(sent.posted, worker.units());
    let text = String::from_utf8_lossy(&sent.file).into_owned();
    let read = run(move |_| Ok(read_cleaned(&text).map(|document| (text, document)))).await?;
    let (text, document) = match read {
        Ok(read) => read,
        Err(problem) => return drawn(move |_| import_page(&worker, &sheet, None, Some(problem))).await,
    };
    if sheet.text("act") != "open" {
        let units = worker.units();
        return drawn(move |_| import_page(&worker, &sheet, Some(Preview::new(text, &document, units)), None)).await;
    }
    let (sending, person) = (sheet.sending()?, worker.person.clone());
    let opened = database.write(move |connection| saving::take_in(connection, &person, &sending, &document)).await;
    match opened {
        Ok(number) => Ok(see_other(Stage::Tape.path(number))),
        Err(StoreError::Stale { by, at }) => {
            let words = stale_words(&worker, &by, at);
            drawn(move |_| import_page(&worker, &sheet, None, Some(words))).await
        }
        Err(error) => Err(error.into()),
    }
}

/// A document with its texts cleaned as if they had been typed.
///
/// # Errors     why it is not taken in, in a sentence
pub(crate) fn read_cleaned(text: &str) -> Result<JobDocument, String> {
    let told = |what: String| format!("The file was not taken in: {what}.");
    let document = JobDocument::read(text).map_err(|error| told(error.to_string()))?;
    let mut value = serde_json::to_value(&document).map_err(|error| told(error.to_string()))?;
    clean_texts(&mut value);
    JobDocument::read(&value.to_string()).map_err(|error| told(error.to_string()))
}

/// Signs that were escaped in the file come to light only once it is read.
fn clean_texts(value: &mut serde_json::Value) {
    match value {
        serde_json::Value::String(text) => *text = clean(text),
        serde_json::Value::Array(items) => items.iter_mut().for_each(clean_texts),
        serde_json::Value::Object(fields) => fields.values_mut().for_each(clean_texts),
        _ => {}
    }
}

fn import_page(worker: &Worker, sheet: &Sheet, preview: Option<Preview>, problem: Option<String>) -> Result<Page, WebError> {
    let status = if problem.is_some() { Refusal::Fields(1).status() } else { StatusCode::OK };
    let template = ImportPage {
        shell: Shell::new(worker, "Take a job in", "/jobs/import"),
        hidden: Hidden::new(sheet, 0),
        preview,
        refusal: problem.unwrap_or_default(),
    };
    page(status, &template)
}
