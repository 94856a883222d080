//! Photographs of a job: sent, shown, taken off.

use actix_web::http::header::{CACHE_CONTROL, ContentType, ETAG, IF_NONE_MATCH};
use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use wise_badger_casework::look_over::Area;
use wise_badger_casework::reading::Place;
use wise_badger_casework::route::Stage;
use wise_badger_casework::words::Word;
use wise_badger_casework::wrench::{Asks, Card, Step};
use wise_badger_store::photograph::{self, NewPhotograph};
use wise_badger_store::{Database, PhotographId, StoreError, saving};

use super::{Hidden, Record, job_file, keep_or_fail, see_other, was_kept};
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::tape::{GAP, WALK, further_places};
use crate::form::{Posted, Sheet};
use crate::job_route::StageWords as _;
use crate::photo::{self, LARGEST_BYTES};
use crate::upload;
use crate::view::look_over::area_name;
use crate::view::wrench::{place_words, words_of};
use crate::view::{Units, clock, place_name};
use crate::worker::Worker;

/// What a photograph of the whole vehicle is kept under.
const WHOLE: &str = "vehicle";

/// The photographs of a stage, and the form that sends another.
#[derive(Template)]
#[template(path = "parts/album.html")]
pub(super) struct Album {
    number: i32,
    hidden: Hidden,
    /// The stage's word, to come back to.
    back: String,
    subjects: Vec<(String, String)>,
    shown: Vec<ShownPhotograph>,
}

impl askama::filters::HtmlSafe for Album {}

struct ShownPhotograph {
    id: i64,
    subject: String,
    taken: String,
    width: i32,
    height: i32,
}

impl Album {
    /// Those of readings.
    pub(super) fn of_readings(record: &Record, units: Units) -> Self {
        let class = record.file.case().intake.class;
        let walk = WALK.into_iter().chain([GAP]).map(|(place, _)| place).chain(further_places(&record.file));
        let mut subjects = vec![(WHOLE.to_owned(), "The whole vehicle".to_owned())];
        subjects.extend(walk.map(|place: Place| (place.word().to_owned(), place_name(class, place).to_owned())));
        Album::new(record, Stage::Tape, subjects, units)
    }

    /// Those of the look-over.
    pub(super) fn of_look_over(record: &Record, units: Units) -> Self {
        let subjects = Area::ALL.into_iter().map(|area| (word(area), area_name(area).to_owned())).collect();
        Album::new(record, Stage::LookOver, subjects, units)
    }

    /// Those of the steps of a card, what is to be pictured first.
    pub(super) fn of_card(record: &Record, card: &Card, units: Units) -> Self {
        let class = record.file.case().intake.class;
        let subject = |step: &&Step| {
            let words = words_of(step.operation.word).map_or(step.operation.word, |words| words.text);
            let place = place_words(&step.place, class);
            (step.key(), if place.is_empty() { words.to_owned() } else { format!("{place}: {words}") })
        };
        let is_picture = |step: &&Step| step.operation.asks == Asks::Picture;
        let pictures = card.steps.iter().filter(is_picture).map(|step| subject(&step));
        let others = card.steps.iter().filter(|step| !is_picture(step)).map(|step| subject(&step));
        Album::new(record, Stage::Wrench, pictures.chain(others).collect(), units)
    }

    fn new(record: &Record, stage: Stage, subjects: Vec<(String, String)>, units: Units) -> Self {
        let Record { file, names, photographs: all, .. } = record;
        let shown = all.iter().filter_map(|photograph| {
            let (_, subject) = subjects.iter().find(|(word, _)| *word == photograph.subject)?;
            let taken = format!("{}, {}", names.of(photograph.taken_by), clock(photograph.taken_at));
            Some(ShownPhotograph {
                id: photograph.id.0,
                subject: subject.clone(),
                taken,
                width: photograph.width,
                height: photograph.height,
            })
        });
        let (shown, hidden) = (shown.collect(), Hidden::new(&Sheet::blank(units), file.job.revision));
        Album { number: file.job.number.0, hidden, back: stage.name().to_lowercase(), subjects, shown }
    }
}

pub(crate) async fn send(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    request: HttpRequest,
    payload: Payload,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sent = upload::read(&request, payload, "photo", LARGEST_BYTES).await?;
    let sheet = Sheet::posted(sent.posted, worker.units());
    let (sending, subject, back) = (sheet.sending()?, sheet.text("subject").to_owned(), back(&sheet));
    if sent.file.is_empty() {
        return Err(WebError::NotNow("No photograph was chosen. Go back, choose one, and send it."));
    }
    if !is_subject(&subject) {
        return Err(WebError::Malformed(format!("a photograph of {subject}")));
    }
    let made = photo::remade(sent.file).await?;
    drop(sent.turn);
    let size = |pixels: u32| i32::try_from(pixels).unwrap_or(i32::MAX);
    let new = NewPhotograph { subject, width: size(made.width), height: size(made.height), jpeg: made.jpeg };
    let (person, job, sent) = (worker.person.clone(), file.job.id, sending.clone());
    let kept: Result<(), StoreError> = database
        .write(move |connection| {
            saving::add(connection, &person, &sent, job, |connection, person| {
                photograph::keep(connection, person, job, &new).map(|_| ())
            })
        })
        .await;
    match kept {
        Err(StoreError::OutcomeUnknown(_)) => was_kept(&database, &worker, sending).await?,
        kept => kept?,
    }
    Ok(see_other(back.path(file.job.number)))
}

fn back(sheet: &Sheet) -> Stage {
    let of = |stage: &Stage| sheet.text("back") == stage.name().to_lowercase();
    [Stage::LookOver, Stage::Wrench].into_iter().find(of).unwrap_or(Stage::Tape)
}

fn is_subject(subject: &str) -> bool {
    let places = WALK.into_iter().chain([GAP]).map(|(place, _)| place).chain(Place::further());
    subject == WHOLE
        || places.map(Word::word).any(|name| name == subject)
        || Area::ALL.into_iter().any(|area| word(area) == subject)
        || Step::of_key(subject).is_some_and(|step| step.key() == subject)
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    request: HttpRequest,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let shop = worker.shop_id();
    let jpeg = database
        .read(move |connection| photograph::jpeg(connection, shop, file.job.id, PhotographId(id)))
        .await
        .map_err(WebError::from)?;
    // The picture of a number never changes; whether it still stands is asked each time.
    let tag = format!("\"{id}\"");
    let known = request.headers().get(IF_NONE_MATCH).and_then(|known| known.to_str().ok()) == Some(tag.as_str());
    let mut answer = if known { HttpResponse::NotModified() } else { HttpResponse::Ok() };
    answer.insert_header((CACHE_CONTROL, "private, no-cache")).insert_header((ETAG, tag));
    Ok(if known { answer.finish() } else { answer.insert_header(ContentType::jpeg()).body(jpeg) })
}

pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let (back, job) = (back(&sheet), file.job.id);
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        photograph::withdraw(connection, person, job, PhotographId(id))
    })
    .await?;
    Ok(see_other(back.path(file.job.number)))
}
