//! The wrench card: the work itself, step by step, ticked by whoever does it, with a connection or without.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::web::{Data, Path, Query};
use askama::Template;
use chrono::{DateTime, Utc};
use serde::Deserialize;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{Answer, LONGEST_NOTE, TickEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, VehicleClass};
use wise_badger_casework::wrench::{
    Asks, Card, FIRST, LIFTING, Lifting, Needed, Phase, Standing, Step, StepStands, chosen, lifting,
};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::wrench_tick::{self, Tick};
use wise_badger_store::{Database, StoreError, person};

use super::job_frame::{JobFrame, as_chosen};
use super::photographs::Album;
use super::{Names, Page, Record, job_file, job_record, page, see_other};
use crate::correction::option_name;
use crate::correction::parts::planned_setting;
use crate::error::WebError;
use crate::form::{Posted, Sheet, new_token};
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::rights::Right;
use crate::view::look_over::gates_words;
use crate::view::work_plan::needed_words;
use crate::view::wrench::{headings, loose_words, place_words, setting_of, side_words, stands_words, words_of};
use crate::view::{Cautions, Units, clock, sentence, typed_text};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "wrench.html")]
struct WrenchPage {
    frame: JobFrame,
    /// What is fitted; nothing where there is no card.
    option: String,
    /// Why there is no card, and where to go instead.
    no_card: Option<(String, String, &'static str)>,
    number: i32,
    not_looked_over: bool,
    cautions: Cautions,
    card: Option<CardView>,
    album: Option<Album>,
}

/// The card as it stands: put in anew whenever something is ticked.
#[derive(Template)]
#[template(path = "parts/wrench_card.html")]
struct CardView {
    number: i32,
    /// The place of the last tick that it knows of.
    last: i64,
    lifting: &'static str,
    first: &'static str,
    done: usize,
    of: usize,
    loose: Vec<String>,
    /// What on top waits for the customer's answer.
    unanswered: Vec<String>,
    parts: Vec<PartLine>,
    parts_missing: usize,
    /// Whether something is answered so that the work waits.
    stopped: bool,
    sections: Vec<Section>,
    is_done: bool,
    finished: bool,
    /// Kinds that nobody wrote a card for.
    unknown: Vec<String>,
}

impl askama::filters::HtmlSafe for CardView {}

/// Steps under one heading.
struct Section {
    title: String,
    steps: Vec<StepLine>,
    /// Whether all of it is done.
    is_done: bool,
    /// Whether the work goes on in it, or waits there.
    is_open: bool,
}

/// Something that must be here before anything comes apart.
struct PartLine {
    key: String,
    text: String,
    stock: String,
    here: bool,
    answered: String,
    token: String,
}

struct StepLine {
    key: String,
    place: String,
    /// Its side, where those under its heading are of both.
    side: &'static str,
    text: &'static str,
    caution: &'static str,
    /// What was worked out for it.
    figure: String,
    /// `done`, `hold`, `torque` or `picture`.
    asks: &'static str,
    /// `open`, `done`, `stopped` or `waits`.
    stands: &'static str,
    /// What it is answered with, by whom and when.
    answered: String,
    note: String,
    next: bool,
    /// Whether it is the first that waits for what the customer says.
    for_the_customer: bool,
    /// The holds that it waits for, by their keys.
    waits_for: String,
    target: String,
    read: String,
    wrench: String,
    /// For this drawing of the step, where the device makes no key of its own.
    token: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    drawn(move |_| wrench_page(&worker, &record)).await
}

/// What is asked of a card that lies open.
#[derive(Deserialize)]
pub(crate) struct Since {
    /// The last tick that it knows of.
    since: i64,
}

/// The card anew where something was ticked since, and nothing where not.
pub(crate) async fn since(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Since>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let (ticks, names) = ticked(&database, &worker, &file).await?;
    if ticks.last().map_or(0, |tick| tick.id) == asked.since {
        return Ok(HttpResponse::NoContent().insert_header((CACHE_CONTROL, "no-store")).finish());
    }
    card_alone(&worker, &file, &ticks, &names)
}

/// Takes a tick in, once, under the key that the device made for it.
pub(crate) async fn tick(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let (device_key, step) = (sheet.text("key").to_owned(), sheet.text("step").to_owned());
    if !is_key(&device_key) || !is_step(&step) {
        return Err(WebError::Malformed("a tick without its key or its step".to_owned()));
    }
    let answer = answer(&mut sheet)?;
    let note: String = sheet.text("note").chars().take(LONGEST_NOTE).collect();
    let ticked_at = ticked_at(&sheet);
    let entry = TickEntry { step, answer, note };
    if !worker.may(Right::Override) {
        let (ticks, _) = ticked(&database, &worker, &file).await?;
        if takes_a_lead(&file, &ticks, &entry) {
            return Err(WebError::NotAllowed(Right::Override));
        }
    }
    let (job, person) = (file.job.id, worker.person.clone());
    database
        .write(move |connection| wrench_tick::take(connection, &person, job, &device_key, ticked_at, &entry).map(|_| ()))
        .await?;
    if sheet.text("part") == "card" {
        let (ticks, names) = ticked(&database, &worker, &file).await?;
        return card_alone(&worker, &file, &ticks, &names);
    }
    Ok(see_other(format!("{}#next", Stage::Wrench.path(file.job.number))))
}

/// Steps whose yes with a reason in the note is the shop's word: that work begins while parts are missing, and that something is cut.
const PARTS_CHECKED: &str = "parts_checked";
const NOTHING_CUT: &str = "nothing_cut";

/// Whether a tick gives the shop's word, which a lead gives.
fn takes_a_lead(file: &JobFile, ticks: &[Tick], entry: &TickEntry) -> bool {
    if entry.answer != Answer::Yes || entry.note.trim().is_empty() {
        return false;
    }
    let word = Step::of_key(&entry.step).map_or("", |step| step.operation.word);
    let missing = || {
        let entries: Vec<TickEntry> = ticks.iter().map(|tick| tick.entry.0.clone()).collect();
        let card = Card::of_job(&file.work, &entries);
        let needed = file.work.case().chosen.map(|place| Needed::of(&file.work, place, &card)).unwrap_or_default();
        !Standing::of(&card, &needed, &entries).missing.is_empty()
    };
    word == NOTHING_CUT || word == PARTS_CHECKED && missing()
}

fn is_key(key: &str) -> bool {
    (8..=64).contains(&key.len()) && key.bytes().all(|sign| sign.is_ascii_alphanumeric() || sign == b'-')
}

fn is_step(step: &str) -> bool {
    (3..=80).contains(&step.len()) && step.bytes().all(|sign| sign.is_ascii_lowercase() || b"0123456789_.".contains(&sign))
}

/// When it was ticked by the device's clock; now, where that says nothing that can be.
fn ticked_at(sheet: &Sheet) -> DateTime<Utc> {
    let told = sheet.text("at").parse().ok().and_then(DateTime::from_timestamp_millis);
    let now = Utc::now();
    told.filter(|at| *at <= now && (now - at).num_days() < 60).unwrap_or(now)
}

fn answer(sheet: &mut Sheet) -> Result<Answer, WebError> {
    let told = sheet.text("answer").to_owned();
    Ok(match told.as_str() {
        "done" => Answer::Done,
        "yes" => Answer::Yes,
        "no" => Answer::No,
        "taken_back" => Answer::TakenBack,
        "torque" => {
            let (target, read) = (sheet.torque("target"), sheet.torque("read"));
            let problem = [("target", "The maker's figure"), ("read", "The reading")].into_iter().find_map(|(field, name)| {
                let problem = sheet.problem(field);
                (!problem.is_empty()).then(|| format!("{name}: {problem}"))
            });
            match (target, read, problem) {
                (Some(target), Some(read), None) => {
                    Answer::Torque { target, read, wrench: sheet.text("wrench").chars().take(80).collect() }
                }
                (.., problem) => {
                    return Err(WebError::Refused(problem.unwrap_or_else(|| {
                        "A torque needs the maker's figure and what the wrench read; without them nothing is released.".to_owned()
                    })));
                }
            }
        }
        word @ ("floor" | "lift" | "left" | "right") => Answer::Chosen(word.to_owned()),
        _ => return Err(WebError::Malformed("a tick with no answer".to_owned())),
    })
}

/// What was ticked on a job's card, and by whom.
pub(super) async fn ticked(database: &Data<Database>, worker: &Worker, file: &JobFile) -> Result<(Vec<Tick>, Names), WebError> {
    let (shop, job) = (worker.shop_id(), file.job.id);
    let read = database.read(move |connection| {
        let people = person::of_shop(connection, shop)?;
        let names = Names::of_people(&people);
        Ok::<_, StoreError>((wrench_tick::of_job(connection, shop, job)?, names))
    });
    Ok(read.await?)
}

fn card_alone(worker: &Worker, file: &JobFile, ticks: &[Tick], names: &Names) -> Result<HttpResponse, WebError> {
    let Ok(card) = card_view(worker.units(), file, ticks, names) else {
        return Err(WebError::NotNow(
            "What is fitted was changed meanwhile, and this card is not the one any more. Your tick is kept; open the card again.",
        ));
    };
    let mut answer = HttpResponse::Ok();
    Ok(answer.insert_header(ContentType::html()).insert_header((CACHE_CONTROL, "no-store")).body(card.render()?))
}

/// Whether by the card of a job, where anybody ticked one, something is not tight yet.
pub(super) fn is_something_loose(file: &JobFile, ticks: &[TickEntry]) -> bool {
    // Whatever rules the card out by now, or if nothing is chosen any more: what was loosened is loose.
    !Standing::of(&Card::of_job(&file.work, ticks), &[], ticks).loose.is_empty()
}

/// Why a job has no card: the sentence, and the way to what comes first.
pub(super) type NoCard = (String, Stage, &'static str);

/// Whether work may go on with the option that is chosen.
pub(super) fn may_be_worked_on(work: &Casework) -> Result<(), NoCard> {
    let nothing =
        || ("Nothing is chosen yet: the card is made from what is to be fitted.".to_owned(), Stage::Options, "Choose on Options");
    let place = work.case().chosen.ok_or_else(nothing)?;
    if work.overload().is_some() {
        let words = "The vehicle is over a rating. Weight comes off first; nothing is fitted for it.".to_owned();
        return Err((words, Stage::Tape, "Change the load on Tape"));
    }
    let gates = work.gate_of(place);
    if !gates.is_empty() {
        return Err((gates_words(&gates), Stage::LookOver, "Go to Look-over"));
    }
    Ok(())
}

fn card_of(file: &JobFile, ticks: &[TickEntry]) -> Result<Card, NoCard> {
    may_be_worked_on(&file.work)?;
    Ok(Card::of_job(&file.work, ticks))
}

/// The card of a job by what was ticked on it; `None` where there is none.
pub(super) fn card_of_job(file: &JobFile, ticks: &[Tick]) -> Option<Card> {
    let entries: Vec<TickEntry> = ticks.iter().map(|tick| tick.entry.0.clone()).collect();
    card_of(file, &entries).ok()
}

/// What is loose or open on a job that has no card any more.
fn still_loose(file: &JobFile, ticks: &[Tick]) -> String {
    let entries: Vec<TickEntry> = ticks.iter().map(|tick| tick.entry.0.clone()).collect();
    let class = file.work.found().vehicle.class;
    let loose = Standing::of(&Card::of_job(&file.work, &entries), &[], &entries).loose;
    let each: Vec<String> = loose.iter().map(|loose| loose_words(loose, class)).collect();
    if each.is_empty() { String::new() } else { format!(" Still loose or open on it: {}.", each.join("; ")) }
}

fn wrench_page(worker: &Worker, record: &Record) -> Result<Page, WebError> {
    let Record { file, ticks, names, .. } = record;
    let units = worker.units();
    let option = file.work.chosen();
    let (no_card, card) = match card_view(units, file, ticks, names) {
        Ok(card) => (None, Some(card)),
        Err((words, stage, link)) => {
            let still = still_loose(file, ticks);
            (Some((format!("{words}{still}"), stage.path(file.job.number), link)), None)
        }
    };
    let template = WrenchPage {
        frame: JobFrame::new(worker, file, Some(Stage::Wrench), &as_chosen(&file.work)),
        option: option.map_or_else(String::new, |(option, _)| option_name(option, file.work.found().vehicle.class, units)),
        no_card,
        number: file.job.number.0,
        not_looked_over: file.case().look_over.is_none(),
        cautions: Cautions::of(&option.map_or_else(Vec::new, |(_, parts)| file.work.cautions(parts))),
        album: card_of_job(file, ticks).map(|card| Album::of_card(record, &card, units)),
        card,
    };
    page(StatusCode::OK, &template)
}

fn card_view(units: Units, file: &JobFile, ticks: &[Tick], names: &Names) -> Result<CardView, NoCard> {
    let entries: Vec<TickEntry> = ticks.iter().map(|tick| tick.entry.0.clone()).collect();
    let card = card_of(file, &entries)?;
    let needed = file.work.case().chosen.map(|place| Needed::of(&file.work, place, &card)).unwrap_or_default();
    let unanswered = unanswered(file);
    let standing = Standing::of(&card, &needed, &entries);
    let standing = if unanswered.is_empty() { standing } else { standing.until_the_customer_answers(&card) };
    let unsaid = lifting(&file.work, &entries).is_none();
    let class = file.work.found().vehicle.class;
    let next = standing.next();
    let mut lines = card.steps.iter().zip(&standing.steps).enumerate().map(|(place, (step, stands))| {
        let tick = ticks.iter().rev().find(|tick| tick.entry.0.step == step.key());
        let line = step_line(step, *stands, tick, names, class, units);
        let mut waits_for = waits_for(&card, &standing, place);
        let figure = match (step.operation.word, step.place.end) {
            ("stands_set", Some(end)) => stands_words(file.work.found(), end, units),
            (word, Some(end)) => setting_of(word).zip(file.work.chosen()).map_or_else(String::new, |(figure, (option, _))| {
                planned_setting(option, figure, end == End::Front, file, units)
            }),
            _ => String::new(),
        };
        let mut line = StepLine { next: next == Some(place), figure, ..line };
        if standing.customer.is_some_and(|from| place >= from) && line.stands == "waits" {
            waits_for.push(CUSTOMER.to_owned());
            line.for_the_customer = standing.customer == Some(place);
        }
        // How it is raised is said before it is.
        if unsaid && step.operation.phase >= Phase::Raise {
            waits_for.insert(0, LIFTING.to_owned());
            line = StepLine { stands: "waits", next: false, ..line };
        }
        (step, StepLine { waits_for: waits_for.join(" "), ..line })
    });
    let sections = headings(&card.steps, class).into_iter().map(|heading| {
        let of_one = lines.by_ref().take(heading.steps.len());
        let steps: Vec<StepLine> = of_one
            .map(|(step, line)| StepLine { side: if heading.of_both_sides { side_words(step) } else { "" }, ..line })
            .collect();
        let is_done = steps.iter().all(|line| line.stands == "done");
        let is_open = steps.iter().any(|line| line.next || line.for_the_customer || line.stands == "stopped");
        Section { title: heading.title, steps, is_done, is_open }
    });
    let sections = sections.collect();
    Ok(CardView {
        number: file.job.number.0,
        last: ticks.last().map_or(0, |tick| tick.id),
        lifting: match lifting(&file.work, &entries) {
            Some(Lifting::Lift) => "lift",
            Some(Lifting::Floor) => "floor",
            None => "",
        },
        first: if chosen(&entries, FIRST) == "right" { "right" } else { "left" },
        done: standing.done(),
        of: standing.steps.len(),
        parts: needed.iter().map(|needed| part_line(needed, file, ticks, names, units)).collect(),
        parts_missing: standing.missing.len(),
        loose: standing.loose.iter().map(|loose| loose_words(loose, class)).collect(),
        unanswered,
        stopped: standing.steps.contains(&StepStands::Stopped),
        is_done: standing.is_done(),
        finished: file.job.finished_at.is_some(),
        unknown: card.unknown.iter().map(|word| sentence(word)).collect(),
        sections,
    })
}

/// What stands among the holds that a step waits for, where it waits for what the customer says: no tick answers that.
const CUSTOMER: &str = "card.customer";

/// What on top the customer was not asked about yet, or gave no answer to.
fn unanswered(file: &JobFile) -> Vec<String> {
    let extras = file.case().work_plan.extras.iter().filter(|extra| extra.agreed.is_none());
    extras.map(|extra| extra.what.clone()).collect()
}

fn step_line(step: &Step, stands: StepStands, tick: Option<&Tick>, names: &Names, class: VehicleClass, units: Units) -> StepLine {
    let words = words_of(step.operation.word);
    let tick = tick.filter(|tick| tick.entry.0.answer != Answer::TakenBack);
    let answer = tick.map(|tick| &tick.entry.0.answer);
    let (target, read, wrench) = match answer {
        Some(Answer::Torque { target, read, wrench }) => (typed_text(target, units), typed_text(read, units), wrench.clone()),
        _ => Default::default(),
    };
    let said = match answer {
        Some(Answer::Yes) => "Yes",
        Some(Answer::No) => "No",
        Some(Answer::Torque { .. }) => "Torqued",
        Some(_) => "Done",
        None => "",
    };
    StepLine {
        key: step.key(),
        place: place_words(&step.place, class),
        side: "",
        text: words.map_or(step.operation.word, |words| words.text),
        caution: words.map_or("", |words| words.caution),
        figure: String::new(),
        asks: match step.operation.asks {
            Asks::Done => "done",
            Asks::Hold => "hold",
            Asks::Torque(_) => "torque",
            Asks::Picture => "picture",
        },
        stands: match stands {
            StepStands::Open => "open",
            StepStands::Done => "done",
            StepStands::Stopped => "stopped",
            StepStands::Waits => "waits",
        },
        answered: tick
            .map_or_else(String::new, |tick| format!("{said}, {}, {}", names.of(tick.recorded_by), clock(tick.ticked_at))),
        note: tick.map_or_else(String::new, |tick| tick.entry.0.note.clone()),
        next: false,
        for_the_customer: false,
        waits_for: String::new(),
        target,
        read,
        wrench,
        token: new_token(),
    }
}

/// The open holds before a step that keep it waiting.
fn waits_for(card: &Card, standing: &Standing, place: usize) -> Vec<String> {
    let open = card.holds_up(place).filter(|hold| standing.steps.get(*hold) != Some(&StepStands::Done));
    open.filter_map(|hold| Some(card.steps.get(hold)?.key())).collect()
}

/// A part that is needed: what it is, what the shelf says of it, and who ticked it as here.
fn part_line(needed: &Needed, file: &JobFile, ticks: &[Tick], names: &Names, units: Units) -> PartLine {
    let (text, stock) = needed_words(needed, file, units);
    let tick = ticks.iter().rev().find(|tick| tick.entry.0.step == needed.key);
    let tick = tick.filter(|tick| tick.entry.0.answer != Answer::TakenBack);
    let answered = tick.map_or_else(String::new, |tick| {
        let note = if tick.entry.0.note.is_empty() { String::new() } else { format!(": {}", tick.entry.0.note) };
        format!("Here, {}, {}{note}", names.of(tick.recorded_by), clock(tick.ticked_at))
    });
    PartLine { key: needed.key.clone(), text, stock, here: tick.is_some(), answered, token: new_token() }
}
