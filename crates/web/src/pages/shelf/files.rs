//! The shelf as files: given out, looked at, and taken in.

use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Payload};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::shelf::{LARGEST, ReadShelf, RowError, ShelfChange, ShelfDocument, changes, read_table, write_table};
use wise_badger_store::person::Person;
use wise_badger_store::{Database, PgConnection, StoreError, shelf};

use super::super::{Hidden, Page, once, page, see_other};
use super::SHELF;
use super::progress::Progress;
use crate::error::WebError;
use crate::form::{Sheet, clean};
use crate::reckoning::{drawn, run};
use crate::shell::Shell;
use crate::upload;
use crate::view::{Units, sentence};
use crate::worker::Worker;

/// Rows of each list that are shown; the others are counted.
const MOST_SHOWN: usize = 200;

#[derive(Template)]
#[template(path = "import_shelf.html")]
struct ImportPage {
    shell: Shell,
    hidden: Hidden,
    preview: Option<Preview>,
    refusal: String,
}

/// What a file would change.
struct Preview {
    text: String,
    new: usize,
    changed: usize,
    same: usize,
    wrong: Vec<RowError>,
    wrong_in_all: usize,
    lines: Vec<ChangeLine>,
    lines_in_all: usize,
}

struct ChangeLine {
    number: String,
    name: String,
    what: String,
}

pub(crate) async fn csv(database: Data<Database>, worker: Worker) -> Result<HttpResponse, WebError> {
    let parts = all(&database, &worker).await?;
    let text = run(move |_| write_table(&parts).map_err(|error| WebError::Failed(error.to_string()))).await?;
    // With the mark of the encoding a spreadsheet takes the text for what it is.
    Ok(file("text/csv; charset=utf-8", "shelf.csv", format!("\u{feff}{text}")))
}

pub(crate) async fn json(database: Data<Database>, worker: Worker) -> Result<HttpResponse, WebError> {
    let document = ShelfDocument::new(all(&database, &worker).await?);
    let text = run(move |_| serde_json::to_string_pretty(&document).map_err(|error| WebError::Failed(error.to_string()))).await?;
    Ok(file("application/json", "shelf.json", text))
}

async fn all(database: &Data<Database>, worker: &Worker) -> Result<Vec<ShelfPart>, WebError> {
    let shop = worker.shop_id();
    Ok(database.read(move |connection| shelf::all(connection, shop)).await?)
}

fn file(kind: &'static str, name: &str, text: String) -> HttpResponse {
    HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, kind))
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")))
        .body(text)
}

pub(crate) async fn ask(worker: Worker) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::blank(worker.units());
    drawn(move |_| import_page(&worker, &sheet, None, String::new())).await
}

/// A file that was sent: looked at first, and taken in when that was seen. What of it cannot be taken in stays out, and is said.
pub(crate) async fn import(
    database: Data<Database>,
    worker: Worker,
    request: HttpRequest,
    payload: Payload,
) -> Result<HttpResponse, WebError> {
    let largest = u64::try_from(LARGEST).unwrap_or(u64::MAX);
    let sent = upload::read(&request, payload, "file", largest).await?;
    let sheet = Sheet::posted(sent.posted, worker.units());
    let Ok(text) = String::from_utf8(sent.file) else {
        let refusal = "Nothing was taken in: the file is not UTF-8 text. Save it as CSV UTF-8, or as JSON.".to_owned();
        return drawn(move |_| import_page(&worker, &sheet, None, refusal)).await;
    };
    let progress = Progress::begin(worker.shop_id(), sheet.text("token"));
    let on_the_shelf = all(&database, &worker).await?;
    let units = worker.units();
    let read = run(move |_| {
        let text = clean_lines(&text);
        Ok(read_file(&text, units).map(|read| {
            let parts = read.parts.into_iter().map(|(_, part)| part).collect();
            let (changes, same) = changes(&on_the_shelf, parts);
            (text, changes, same, read.wrong)
        }))
    });
    let (text, changes, same, wrong) = match read.await? {
        Ok(read) => read,
        Err(problem) => return drawn(move |_| import_page(&worker, &sheet, None, problem)).await,
    };
    if sheet.text("act") != "take" || changes.is_empty() {
        let preview = Preview::new(text, &changes, same, wrong);
        return drawn(move |_| import_page(&worker, &sheet, Some(preview), String::new())).await;
    }
    progress.is_read(changes.len());
    let take_in = move |connection: &mut PgConnection, person: &Person| {
        shelf::take_in(connection, person, &changes, |done| progress.is_at(done))
    };
    match once(&database, &worker, &sheet, take_in).await {
        Ok(()) => Ok(see_other(SHELF)),
        Err(WebError::Store(StoreError::Taken { number, .. })) => {
            let refusal =
                format!("Nothing was taken in: somebody put a part “{number}” on the shelf meanwhile. Look at the file again.");
            drawn(move |_| import_page(&worker, &sheet, None, refusal)).await
        }
        Err(error) => Err(error),
    }
}

/// Texts cleaned as if they had been typed, line by line: the ends of lines tell rows apart.
fn clean_lines(text: &str) -> String {
    text.lines().map(|line| line.split('\t').map(clean).collect::<Vec<_>>().join("\t")).collect::<Vec<_>>().join("\n")
}

/// The parts of a file, and what is wrong with others.
///
/// # Errors     why it is no shelf at all, in a sentence
fn read_file(text: &str, units: Units) -> Result<ReadShelf, String> {
    let is_json = text.trim_start_matches(['\u{feff}', ' ', '\n']).starts_with(['{', '[']);
    let read = if is_json { ShelfDocument::read(text) } else { read_table(text, units.of_bare_numbers(), units.currency) };
    read.map_err(|error| format!("Nothing was taken in: {error}."))
}

impl Preview {
    fn new(text: String, changes: &[ShelfChange], same: usize, mut wrong: Vec<RowError>) -> Self {
        let new = changes.iter().filter(|change| matches!(change, ShelfChange::New(_))).count();
        let line = |change: &ShelfChange| {
            let part = change.after();
            let fields: Vec<String> = change.fields().iter().map(|field| field.replace('_', " ")).collect();
            let what = if fields.is_empty() { "new".to_owned() } else { format!("changed: {}", fields.join(", ")) };
            ChangeLine { number: part.number.clone(), name: part.name.clone(), what }
        };
        let wrong_in_all = wrong.len();
        wrong.truncate(MOST_SHOWN);
        for row in &mut wrong {
            row.what = sentence(row.what.trim_end_matches('.'));
        }
        Preview {
            text,
            new,
            changed: changes.len() - new,
            same,
            wrong,
            wrong_in_all,
            lines: changes.iter().take(MOST_SHOWN).map(line).collect(),
            lines_in_all: changes.len(),
        }
    }

    fn has_changes(&self) -> bool {
        self.lines_in_all > 0
    }
}

fn import_page(worker: &Worker, sheet: &Sheet, preview: Option<Preview>, refusal: String) -> Result<Page, WebError> {
    let status = if refusal.is_empty() { StatusCode::OK } else { StatusCode::UNPROCESSABLE_ENTITY };
    let template = ImportPage {
        shell: Shell::new(worker, "Take parts in", format!("{SHELF}/import")),
        hidden: Hidden::new(sheet, 0),
        preview,
        refusal,
    };
    page(status, &template)
}
