//! What if: parts put together by hand under any load, by slider or key. It is seen at once, and kept as an option when it is right.

mod answer;
pub(super) mod trial;

use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use form_urlencoded::Serializer;
use wise_badger_casework::entry::{MOST_PARTS, OptionEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::LoadState;
use wise_badger_mechanics::bound::Bound;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{CorrectionId, Database, correction};

use self::answer::{Answer, Curve, Heights, More};
use self::trial::{MORE, MOVED, NO_CASE, OF, PULL, PULL_HEIGHT, Trial, free_place, is_part, part_name, take_off};
use super::job_frame::JobFrame;
use super::options::{newest_of, refuse_what_cannot_be_cured};
use super::shelf::picked::Picked;
use super::{Hidden, Kept, Page, Refusal, job_file, keep, keep_sheet, page, see_other};
use crate::correction::option_name;
use crate::correction::tried::{TriedPart, begin_to_try, fill_to_try, kinds_to_try, label_of, tried_part};
use crate::drawing::{Shown, StanceDrawing};
use crate::error::WebError;
use crate::form::load_plan::MOST_ITEMS;
use crate::form::{Choice, Field, Posted, Reach, Sheet, Slider, asked_by_address};
use crate::reckoning::{drawn, run};
use crate::view::aim::aim_words;
use crate::view::look_over::ruled_out;
use crate::view::{Units, state_of};
use crate::worker::Worker;

/// What it is pulled with to see how far it leans, until somebody says otherwise: in inches and pounds, and in millimeters and kilograms.
const PULLED: [(&str, &str); 2] = [("1,000", "48"), ("450", "1200")];

#[derive(Template)]
#[template(path = "what_if.html")]
struct WhatIfPage {
    frame: JobFrame,
    number: i32,
    hidden: Hidden,
    not_looked_over: bool,
    aim: String,
    parts: Vec<PartCard>,
    kinds: Vec<(&'static str, Vec<(&'static str, &'static str)>)>,
    is_full: bool,
    /// What is wrong with the parts together.
    parts_problem: String,
    load: LoadForm,
    pull: [WithSlider; 2],
    name: Field,
    said: Vec<String>,
    answer: Option<(Heights, More, Curve)>,
    refusal: String,
}

/// A part on the form.
struct PartCard {
    place: usize,
    beginning: String,
    /// What goes along unseen.
    hidden: Vec<(String, String)>,
    /// Its name, where it has no fields here.
    name: String,
    picked: Option<Picked>,
    tried: Option<TriedPart>,
    problem: String,
    /// What is wrong with where it goes.
    site_problem: String,
    sets_open: bool,
    /// Whether what is measured on the vehicle is still to be filled in.
    vehicle_open: bool,
}

/// A field with a slider.
struct WithSlider {
    field: Field,
    slider: Option<Slider>,
}

struct LoadForm {
    open: bool,
    from: Vec<Choice>,
    from_problem: String,
    moved: [WithSlider; 2],
    more: [WithSlider; 3],
    name: Field,
    /// Whether the plan has room for it.
    may_be_kept: bool,
}

#[derive(Template)]
#[template(path = "parts/what_if_preview.html")]
struct Preview {
    said: Vec<String>,
    picture: Option<Arc<StanceDrawing>>,
    answer: Option<(Heights, More, Curve)>,
}

fn address(number: i32) -> String {
    format!("/jobs/{number}/what-if")
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let mut sheet = Sheet::posted(asked_by_address(asked.into_inner()), worker.units());
    begin_from(&mut sheet, &file);
    begin_pull(&mut sheet);
    let trial = Trial::read(&database, &worker, &file, sheet).await?;
    drawn(move |_| what_if_page(&worker, &file, &trial, None)).await
}

/// What comes of the form as it stands. Nothing is saved.
pub(crate) async fn preview(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let trial = Trial::read(&database, &worker, &file, Sheet::posted(posted, worker.units())).await?;
    drawn(move |_| {
        let units = worker.units();
        let answer = Answer::new(&file, &trial, units);
        let picture = answer.as_ref().map(|answer| answer.picture(&file, units));
        let answer = answer.map(|answer| (answer.heights, answer.more, answer.curve));
        page(StatusCode::OK, &Preview { said: said(&trial.sheet), picture, answer })
    })
    .await
}

/// What a button of the form asks for.
pub(crate) async fn work(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let act = sheet.text("act").to_owned();
    match act.as_str() {
        "keep" => return keep_option(&database, worker, file, sheet).await,
        "keep_load" => return keep_load(&database, worker, file, sheet).await,
        "add" => {
            let (file, added) = run(move |_| {
                add(&mut sheet, &file);
                Ok((file, sheet))
            })
            .await?;
            if !added.is_sound() {
                let trial = Trial::read(&database, &worker, &file, added).await?;
                return drawn(move |_| what_if_page(&worker, &file, &trial, Some(&Refusal::Fields(1)))).await;
            }
            sheet = added;
        }
        other => {
            if let Some(place) = other.strip_prefix("drop:").and_then(|place| place.parse().ok()) {
                take_off(&mut sheet, place);
            }
        }
    }
    sheet.set("add_kind", "");
    if act == "shelf" {
        let query = Serializer::new(String::new()).append_pair("what_if", &sheet.as_query()).finish();
        return Ok(see_other(format!("/jobs/{number}/shelf?{query}")));
    }
    Ok(see_other(format!("{}?{}", address(*number), sheet.as_query())))
}

/// Puts a part of the kind that is picked into the first free place.
fn add(sheet: &mut Sheet, file: &JobFile) {
    let kind = sheet.text("add_kind").to_owned();
    let Some(place) = free_place(sheet) else {
        return sheet.refuse("add_kind", format!("An option has at most {MOST_PARTS} parts; take one off first."));
    };
    let mut inner = Sheet::blank(sheet.units());
    if begin_to_try(&mut inner, &kind, file) {
        sheet.put_under(&part_name(place), &inner);
    } else {
        sheet.refuse("add_kind", "Pick what to put on.");
    }
}

/// Begins with an option of the list.
fn begin_from(sheet: &mut Sheet, file: &JobFile) {
    let asked = sheet.text("from").parse().ok().map(CorrectionId);
    sheet.set("from", "");
    let place = asked.and_then(|id| file.considered.iter().position(|considered| *considered == id));
    let Some((id, option)) = asked.zip(place.and_then(|place| file.case().options.get(place))) else { return };
    for (place, part) in option.parts.iter().enumerate() {
        let mut inner = Sheet::blank(sheet.units());
        // Of a part from the shelf the figures stay as they stand on the option; a pack from the bench stays as a whole.
        if part.shelf.is_some() || !fill_to_try(&mut inner, part, file) {
            inner = Sheet::blank(sheet.units());
            inner.set(OF, format!("{}.{place}", id.0));
        }
        sheet.put_under(&part_name(place), &inner);
    }
    sheet.set("option_name", option.name.clone());
}

fn begin_pull(sheet: &mut Sheet) {
    let inches = sheet.units().length_name() == "in";
    let pounds = sheet.units().weight_name() == "lb";
    let [shop, metric] = PULLED;
    let pull = if pounds { shop.0 } else { metric.0 };
    let height = if inches { shop.1 } else { metric.1 };
    for (name, text) in [("pull", pull), ("pull_height", height)] {
        if !sheet.is_filled(name) {
            sheet.set(name, text);
        }
    }
}

/// What the fields beside the parts are called, where something is wrong with one.
const LABELS: [(&str, &str); 9] = [
    ("load_from", "Aboard to begin with"),
    ("load_back", "All of that moved back"),
    ("load_right", "And to the right"),
    ("more", "One thing more"),
    ("more_back", "Behind the rear axle"),
    ("more_right", "Right of the middle"),
    ("load_name", "What to call this load"),
    ("pull", "Pull"),
    ("pull_height", "Above the ground"),
];

/// Everything that is wrong, a sentence each: which field, and what.
fn said(sheet: &Sheet) -> Vec<String> {
    let words = |(name, problem): (&str, &str)| {
        let of_part = name.split_once('_').filter(|(part, _)| part.starts_with('p')).and_then(|(_, field)| label_of(field));
        let beside = || LABELS.iter().find(|(of, _)| *of == name).map(|(_, label)| *label);
        of_part.or_else(beside).map_or_else(|| problem.to_owned(), |label| format!("{label}: {problem}"))
    };
    sheet.problems().map(words).collect()
}

async fn keep_option(database: &Data<Database>, worker: Worker, file: JobFile, sheet: Sheet) -> Result<HttpResponse, WebError> {
    let mut trial = Trial::read(database, &worker, &file, sheet).await?;
    let entry = trial.entry.clone().filter(|_| trial.sheet.is_sound());
    if entry.as_ref().is_some_and(|entry| entry.parts.is_empty()) {
        trial.sheet.refuse("add_kind", "Nothing is put on yet: pick a part first.");
    }
    let out = entry.as_ref().and_then(|entry| entry.corrections(None)).map(|parts| ruled_out(&file.work.gate(&parts)));
    if let Some(why) = out.filter(|why| !why.is_empty()) {
        trial.sheet.refuse("parts", why);
    }
    let entry = entry.filter(|_| trial.sheet.is_sound());
    let job = file.job.id;
    let Some(entry) = entry else {
        let refusal = Refusal::Fields(trial.sheet.problem_count());
        return drawn(move |_| what_if_page(&worker, &file, &trial, Some(&refusal))).await;
    };
    let kept = keep(database, &worker, &trial.sheet, job, move |connection, person| {
        correction::consider(connection, person, job, &entry).map(|_| ())
    });
    match kept.await? {
        Kept::Saved => Ok(see_other(newest_of(file.job.number))),
        Kept::Refused(refusal) => refused(database, worker, file, trial.sheet, refusal).await,
    }
}

async fn keep_load(database: &Data<Database>, worker: Worker, file: JobFile, mut sheet: Sheet) -> Result<HttpResponse, WebError> {
    if !sheet.is_filled("load_name") {
        sheet.refuse("load_name", "Say what this load is to be called.");
    }
    let mut trial = Trial::read(database, &worker, &file, sheet).await?;
    match &trial.load {
        None if trial.sheet.is_sound() => trial.sheet.refuse("more", "Nothing is aboard: pick what is, or type one thing."),
        Some((plan, _)) if plan.items.len() > MOST_ITEMS => {
            let text = format!(
                "The load plan holds {MOST_ITEMS} things, and this load would make it more; take some off on Load first."
            );
            trial.sheet.refuse("load_name", text);
        }
        Some((_, NO_CASE)) => {
            trial.sheet.refuse("load_name", "The load plan has all the cases it may have; take one off on Load first.")
        }
        _ => {}
    }
    let plan = trial.load.clone().filter(|_| trial.sheet.is_sound());
    let Some((plan, _)) = plan else {
        let refusal = Refusal::Fields(trial.sheet.problem_count());
        return drawn(move |_| what_if_page(&worker, &file, &trial, Some(&refusal))).await;
    };
    match keep_sheet(database, &worker, &trial.sheet, file.job.id, plan).await? {
        Kept::Saved => {
            let mut sheet = trial.sheet;
            for name in ["load_from", "load_back", "load_right", "more", "more_back", "more_right", "load_name"] {
                sheet.set(name, "");
            }
            Ok(see_other(format!("{}?{}", address(file.job.number.0), sheet.as_query())))
        }
        Kept::Refused(refusal) => refused(database, worker, file, trial.sheet, refusal).await,
    }
}

/// The page with what was sent, on the job as it stands now.
async fn refused(
    database: &Data<Database>,
    worker: Worker,
    file: JobFile,
    mut sheet: Sheet,
    refusal: Refusal,
) -> Result<HttpResponse, WebError> {
    let file = job_file(database, &worker, file.job.number.0).await?;
    sheet.go_by_the_file();
    let trial = Trial::read(database, &worker, &file, sheet).await?;
    drawn(move |_| what_if_page(&worker, &file, &trial, Some(&refusal))).await
}

fn what_if_page(worker: &Worker, file: &JobFile, trial: &Trial, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, sheet, number) = (worker.units(), &trial.sheet, file.job.number.0);
    let answer = Answer::new(file, trial, units);
    let shown = answer.as_ref().map_or_else(Shown::default, |answer| answer.shown.clone());
    let template = WhatIfPage {
        // In the place of the few figures of every page stands the curve.
        frame: JobFrame { key_figures: Vec::new(), ..JobFrame::new(worker, file, Some(Stage::Options), &shown) },
        number,
        hidden: Hidden::new(sheet, file.job.revision),
        not_looked_over: file.case().look_over.is_none(),
        aim: aim_words(&file.work, units),
        parts: (0..MOST_PARTS).filter(|place| is_part(sheet, *place)).map(|place| card(file, trial, place, units)).collect(),
        kinds: kinds_to_try(&file.work.found().vehicle),
        is_full: free_place(sheet).is_none(),
        parts_problem: [sheet.problem("parts"), sheet.problem("add_kind")].join(" ").trim().to_owned(),
        load: load_form(file, trial),
        pull: [
            with_slider(sheet.weight_field("pull", "Pull"), "Pull", &PULL, sheet),
            with_slider(sheet.length_field("pull_height", "Above the ground"), "Height of the pull", &PULL_HEIGHT, sheet),
        ],
        name: sheet.text_field("option_name", "What to call the option").hint("may stay empty"),
        said: said(sheet),
        answer: answer.map(|answer| (answer.heights, answer.more, answer.curve)),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

fn card(file: &JobFile, trial: &Trial, place: usize, units: Units) -> PartCard {
    let (sheet, beginning) = (&trial.sheet, part_name(place));
    let named = |name: &str| format!("{beginning}{name}");
    let along = ["kind", "shelf", OF].map(named);
    let picked = trial.picked.get(place).and_then(Option::as_ref);
    let of_option = sheet.is_filled(&format!("{beginning}{OF}"));
    let tried = tried_part(sheet, &beginning, of_option || sheet.is_filled(&format!("{beginning}shelf")), file);
    let at = (0..place).filter(|place| is_part(sheet, *place)).count();
    let part = trial.entry.as_ref().filter(|_| of_option).and_then(|entry| entry.parts.get(at).cloned());
    let name = part.map(|part| {
        let alone = OptionEntry { name: String::new(), parts: vec![part] };
        option_name(&alone, file.case().intake.class, units)
    });
    let own = |name: &str| sheet.problem(&format!("{beginning}{name}")).to_owned();
    PartCard {
        place,
        hidden: along
            .into_iter()
            .filter(|name| sheet.is_filled(name))
            .map(|name| (name.clone(), sheet.text(&name).to_owned()))
            .collect(),
        name: name.unwrap_or_else(|| "A part of an option".to_owned()),
        picked: picked.map(|picked| Picked {
            key: picked.key.clone(),
            words: picked.words.clone(),
            problem: picked.problem.clone(),
        }),
        vehicle_open: tried.as_ref().is_some_and(|tried| tried.of_the_vehicle.iter().any(Field::has_problem)),
        sets_open: tried.as_ref().is_some_and(|tried| tried.settings.iter().any(|set| !set.field.is_blank())),
        tried,
        problem: [own(OF), own("kind")].join(" ").trim().to_owned(),
        site_problem: [own("axles"), own("side")].join(" ").trim().to_owned(),
        beginning,
    }
}

fn with_slider(field: Field, label: &str, bound: &Bound, sheet: &Sheet) -> WithSlider {
    let mut scratch = sheet.clone();
    let now = if sheet.is_filled(&field.name) { scratch.of_dimension(&field.name, bound).map(|typed| typed.si) } else { None };
    // What is not set stands at nought where that lies within.
    let slider = Slider::new(&field, label, (bound, Reach::Whole), now.or((bound.least <= 0.0).then_some(0.0)), sheet.units());
    WithSlider { field, slider }
}

fn load_form(file: &JobFile, trial: &Trial) -> LoadForm {
    let sheet = &trial.sheet;
    let found = file.work.found();
    let measured = found.load.is_some().then(|| ("loaded".to_owned(), format!("as read {}", state_of(found, LoadState::Loaded))));
    let cases = file.work.cases().iter().map(|case| (case.key.to_string(), case.name.clone()));
    let from = std::iter::once((String::new(), "nothing".to_owned())).chain(measured).chain(cases);
    let length = |name: &str, label: &str, hint: &str, bound: &Bound| {
        with_slider(sheet.length_field(name, label).hint(hint), label, bound, sheet)
    };
    let wheelbase = found.vehicle.wheelbase;
    let along = Bound { least: -wheelbase.value, ..MOVED };
    let weight = sheet.weight_field("more", "One thing more");
    let fields = ["load_from", "load_back", "load_right", "more", "more_back", "more_right", "load_name"];
    LoadForm {
        open: fields.iter().any(|name| sheet.is_filled(name) || !sheet.problem(name).is_empty()),
        from: sheet.choices("load_from", from),
        from_problem: sheet.problem("load_from").to_owned(),
        moved: [
            length("load_back", "All of that moved back", "forward with a minus", &MOVED),
            length("load_right", "And to the right", "left with a minus", &trial::ASIDE),
        ],
        more: [
            with_slider(weight, "One thing more", &MORE, sheet),
            length("more_back", "Behind the rear axle", "ahead with a minus", &along),
            length("more_right", "Right of the middle", "left with a minus", &trial::ASIDE),
        ],
        name: sheet.text_field("load_name", "What to call this load").hint("to keep it as a case of the load plan"),
        may_be_kept: trial.load.as_ref().is_none_or(|(_, key)| *key != NO_CASE),
    }
}
