//! Photographs of a job: sent, shown, taken off.

use actix_multipart::Multipart;
use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::web::{Data, Path};
use askama::Template;
use futures_util::TryStreamExt;
use wise_badger_mechanics::look_over::Area;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::photograph::{self, NewPhotograph, Photograph};
use wise_badger_store::reading::Place;
use wise_badger_store::{Database, PhotographId, StoreError, submission};

use super::{Names, Posted, Record, job_file, see_other};
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::tape::{GAP, WALK, further_places};
use crate::form::{Sheet, new_token};
use crate::job_route::Stage;
use crate::photo::{self, LARGEST_BYTES};
use crate::view::look_over::area_name;
use crate::view::{clock, place_name};
use crate::worker::Worker;

/// Most photographs of one job.
const MOST: i64 = 200;
/// What a photograph of the whole vehicle is kept under.
const WHOLE: &str = "vehicle";

/// The photographs of a stage, and the form that sends another.
#[derive(Template)]
#[template(path = "parts/album.html")]
pub(super) struct Album {
    number: i32,
    token: String,
    /// The stage's word, to come back to.
    back: String,
    subjects: Vec<(String, &'static str)>,
    shown: Vec<Shown>,
}

impl askama::filters::HtmlSafe for Album {}

struct Shown {
    id: i64,
    subject: &'static str,
    taken: String,
    width: i32,
    height: i32,
}

impl Album {
    /// Those of readings.
    pub(super) fn of_readings(record: &Record) -> Self {
        let class = record.file.job.intake.class;
        let walk = WALK.into_iter().chain([GAP]).map(|(place, _)| place).chain(further_places(class));
        let mut subjects = vec![(WHOLE.to_owned(), "The whole vehicle")];
        subjects.extend(walk.map(|place: Place| (place.name().to_owned(), place_name(class, place))));
        Album::new(&record.file, &record.photographs, &record.names, Stage::Tape, subjects)
    }

    /// Those of the look-over.
    pub(super) fn of_look_over(record: &Record) -> Self {
        let subjects = Area::ALL.into_iter().map(|area| (word(area), area_name(area))).collect();
        Album::new(&record.file, &record.photographs, &record.names, Stage::LookOver, subjects)
    }

    fn new(file: &JobFile, all: &[Photograph], names: &Names, stage: Stage, subjects: Vec<(String, &'static str)>) -> Self {
        let shown = all.iter().filter_map(|photograph| {
            let (_, subject) = subjects.iter().find(|(word, _)| *word == photograph.subject)?;
            let taken = format!("{}, {}", names.of(photograph.taken_by), clock(photograph.taken_at));
            Some(Shown { id: photograph.id.0, subject, taken, width: photograph.width, height: photograph.height })
        });
        let shown = shown.collect();
        Album { number: file.job.number.0, token: new_token(), back: stage.name().to_lowercase(), subjects, shown }
    }
}

/// What a form with a file posts.
#[derive(Default)]
struct Sent {
    texts: Vec<(String, String)>,
    photo: Vec<u8>,
}

impl Sent {
    async fn read(mut parts: Multipart) -> Result<Self, WebError> {
        let malformed = |error: actix_multipart::MultipartError| WebError::Malformed(error.to_string());
        let mut sent = Sent::default();
        while let Some(mut part) = parts.try_next().await.map_err(malformed)? {
            let name = part.name().unwrap_or_default().to_owned();
            let is_photo = name == "photo";
            let mut bytes = Vec::new();
            while let Some(chunk) = part.try_next().await.map_err(malformed)? {
                bytes.extend_from_slice(&chunk);
                if bytes.len() > if is_photo { LARGEST_BYTES } else { 1024 } {
                    return Err(WebError::PhotoTooLarge);
                }
            }
            match is_photo {
                true => sent.photo = bytes,
                false => sent.texts.push((name, String::from_utf8_lossy(&bytes).into_owned())),
            }
        }
        Ok(sent)
    }
}

pub(crate) async fn send(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    parts: Multipart,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sent = Sent::read(parts).await?;
    let sheet = Sheet::posted(sent.texts, worker.units());
    let (token, subject, back) = (sheet.token()?, sheet.text("subject").to_owned(), back(&sheet));
    if sent.photo.is_empty() {
        return Err(WebError::NotNow("No photograph was chosen. Go back, choose one, and send it."));
    }
    if !is_subject(&subject) {
        return Err(WebError::Malformed(format!("a photograph of {subject}")));
    }
    // Reading a picture takes a while: not on a thread that answers others.
    let made = tokio::task::spawn_blocking(move || photo::remake(&sent.photo)).await;
    let made = made.map_err(|error| WebError::Malformed(error.to_string()))?.map_err(WebError::NoPhoto)?;
    let size = |pixels: u32| i32::try_from(pixels).unwrap_or(i32::MAX);
    let new = NewPhotograph { subject, width: size(made.width), height: size(made.height), jpeg: made.jpeg };
    let (person, job) = (worker.person.clone(), file.job.id);
    let kept = database.write(move |connection| -> Result<bool, StoreError> {
        if photograph::count(connection, person.shop_id, job)? >= MOST {
            return Ok(false);
        }
        if submission::claim(connection, &token, &person)? {
            photograph::keep(connection, &person, job, &new)?;
        }
        Ok(true)
    });
    if !kept.await? {
        return Err(WebError::NotNow("This job has 200 photographs; it takes no more."));
    }
    Ok(see_other(back.path(file.job.number)))
}

fn back(sheet: &Sheet) -> Stage {
    if sheet.text("back") == Stage::LookOver.name().to_lowercase() { Stage::LookOver } else { Stage::Tape }
}

fn is_subject(subject: &str) -> bool {
    let places = WALK.into_iter().chain([GAP]).map(|(place, _)| place).chain(Place::further());
    subject == WHOLE
        || places.map(Place::name).any(|name| name == subject)
        || Area::ALL.into_iter().any(|area| word(area) == subject)
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, path: Path<(i32, i64)>) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let shop = worker.shop_id();
    let jpeg = database
        .read(move |connection| photograph::jpeg(connection, shop, file.job.id, PhotographId(id)))
        .await
        .map_err(WebError::from)?;
    // A photograph never changes.
    Ok(HttpResponse::Ok()
        .insert_header(ContentType::jpeg())
        .insert_header((CACHE_CONTROL, "private, max-age=31536000, immutable"))
        .body(jpeg))
}

pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let back = back(&Sheet::posted(posted.into_inner(), worker.units()));
    let (person, job) = (worker.person.clone(), file.job.id);
    database.write(move |connection| photograph::withdraw(connection, &person, job, PhotographId(id))).await?;
    Ok(see_other(back.path(file.job.number)))
}
