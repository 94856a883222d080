//! Load: what is aboard and where, case by case, and what that does to axles and heights.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ItemEntry, LoadPlanEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState, Survey, VehicleFacts};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::units::{Length, metres};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{Database, JobId, JobNumber, PgConnection, StoreError, job_sheet};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Page, Refusal, job_file, page};
use crate::drawing::{Aboard, LoadPlanDrawing};
use crate::error::WebError;
use crate::form::load_plan::{self, CASES, LATER, MOST_ITEMS, Readable, WITH, case_field, field_name};
use crate::form::{Choice, Field, Posted, Sheet, Tick};
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::view::load_plan::{CaseLine, along_words, case_figures, case_line, height_figure};
use crate::view::overload::{OverloadWords, overload_of_case};
use crate::view::{Figure, Units, sentence, support_name};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "load.html")]
struct LoadPage {
    frame: JobFrame,
    hidden: Hidden,
    picture: LoadPicture,
    cases: Vec<CaseForm>,
    rows: Vec<RowForm>,
    shelf: Vec<(&'static str, &'static str)>,
    add_problem: String,
    refusal: String,
}

/// What a case looks like: drawn anew while things are moved.
#[derive(Template)]
#[template(path = "parts/load_picture.html")]
struct LoadPicture {
    shown: Vec<ShownCase>,
    drawing: LoadPlanDrawing,
    overload: Option<OverloadWords>,
    figures: Vec<Figure>,
    table: Vec<CaseLine>,
    heads: [String; 2],
    /// How many rows cannot be read yet, and are left out.
    left_out: usize,
}

impl askama::filters::HtmlSafe for LoadPicture {}

/// The answer to a form that is being worked on.
#[derive(Template)]
#[template(path = "parts/load_preview.html")]
struct LoadPreview {
    picture: LoadPicture,
    /// Fields that a move has changed, with what stands in them now.
    moved: Vec<(String, String)>,
}

struct ShownCase {
    key: u8,
    name: String,
    chosen: bool,
}

struct CaseForm {
    name: Field,
    /// What else is aboard: everything of another case.
    with_name: String,
    with: Vec<Choice>,
    with_problem: String,
    front: Field,
    rear: Field,
    later: Tick,
}

/// One thing on the form.
struct RowForm {
    row: usize,
    summary: String,
    open: bool,
    used: bool,
    name: Field,
    of: Vec<Choice>,
    amount: Field,
    distance: Field,
    side: Vec<Choice>,
    lateral: Field,
    hand: Vec<Choice>,
    height: Field,
    /// The amount it was taken from the shelf with.
    usual: String,
    /// Whether it really weighs that, while nobody said so.
    weighed: Option<Tick>,
    ticks: Vec<Tick>,
}

/// The case looked at first: the one that was aboard when the tape was read, or the first with anything in it.
fn first_case(file: &JobFile) -> String {
    let plan = file.case().plan.as_ref();
    let filled = plan.and_then(|plan| plan.cases.iter().find(|case| plan.put_for(case.key).next().is_some()));
    file.case().measured_case().map(|case| case.key).or(filled.map(|case| case.key)).unwrap_or(1).to_string()
}

/// The load plan's form.
pub(crate) struct LoadForm;

impl JobForm for LoadForm {
    type Read = JobFile;
    type Entry = LoadPlanEntry;

    fn on_file(units: Units, file: &JobFile) -> Sheet {
        let mut sheet = load_plan::on_file(units, file.case().plan.as_ref());
        sheet.set("shown", first_case(file));
        sheet
    }

    fn change_the_page(sheet: &mut Sheet, file: &JobFile) -> bool {
        let (word, row) = (sheet.text("add").to_owned(), sheet.text("take_off").parse::<usize>());
        if !word.is_empty() {
            load_plan::add(sheet, &word, &file.case().vehicle());
        } else if let Ok(row) = row {
            load_plan::take_off(sheet, row);
        }
        !word.is_empty() || row.is_ok()
    }

    fn look_on(fresh: &mut Sheet, sent: &Sheet) {
        fresh.set("shown", sent.text("shown"));
    }

    fn check(sheet: &mut Sheet, file: &JobFile) -> Option<LoadPlanEntry> {
        load_plan::check(sheet, file.case())
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &LoadPlanEntry) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        load_page(worker, file, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Load.path(number)
    }
}

/// The picture of a plan being worked on. Nothing is saved.
pub(crate) async fn preview(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let moved = shift(&mut sheet);
    let moved = moved.into_iter().map(|name| (name.clone(), sheet.text(&name).to_owned())).collect();
    drawn(move |_| page(StatusCode::OK, &LoadPreview { picture: picture(&file, &sheet, worker.units()), moved })).await
}

fn shift(sheet: &mut Sheet) -> Vec<String> {
    let Ok(row) = sheet.text("move").parse::<usize>() else { return Vec::new() };
    let by = |name: &str| -> Length { metres(sheet.text(name).parse::<f64>().ok().filter(|by| by.is_finite()).unwrap_or(0.0)) };
    let (along, across, up) = (by("along"), by("across"), by("up"));
    if row < MOST_ITEMS { load_plan::shift(sheet, row, along, across, up) } else { Vec::new() }
}

fn load_page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let picture = picture(file, sheet, units);
    let vehicle = &survey.vehicle;
    let [front, rear] = End::BOTH.map(|end| support_name(vehicle.class, end));
    let case = |key: u8| {
        let with = case_field(key, WITH);
        let others = CASES.iter().filter(|(of, _)| *of != key && sheet.is_filled(&case_field(*of, "name")));
        let others = others.map(|(of, _)| (of.to_string(), format!("everything of “{}”", sheet.text(&case_field(*of, "name")))));
        let choices = std::iter::once((String::new(), "nothing more".to_owned())).chain(others);
        CaseForm {
            name: sheet.text_field(&case_field(key, "name"), &format!("Case {key}")),
            with: choices.map(|(word, label)| Choice { chosen: sheet.text(&with) == word, word, label }).collect(),
            with_problem: sheet.problem(&with).to_owned(),
            with_name: with,
            later: sheet.tick(case_field(key, LATER), "Not aboard yet: comes later"),
            front: sheet.weight_field(&case_field(key, "front"), &format!("Scale under the {front}")),
            rear: sheet.weight_field(&case_field(key, "rear"), &format!("Scale under the {rear}")),
        }
    };
    let fits = |thing: &wise_badger_casework::survey::Thing| thing.fits(vehicle);
    let template = LoadPage {
        frame: JobFrame::new(worker, file, Some(Stage::Load), &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        picture,
        cases: CASES.iter().map(|(key, _)| case(*key)).collect(),
        rows: (0..load_plan::rows_shown(sheet)).map(|row| row_form(sheet, row, vehicle, units)).collect(),
        shelf: load_plan::SHELF.iter().filter(|(thing, _)| fits(thing)).map(|(thing, label)| (thing.word(), *label)).collect(),
        add_problem: sheet.problem("add").to_owned(),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

fn row_form(sheet: &Sheet, row: usize, vehicle: &VehicleFacts, units: Units) -> RowForm {
    let name = |what: &str| field_name(row, what);
    let rear = support_name(vehicle.class, End::Rear);
    let used = load_plan::is_used(sheet, row);
    let readable = load_plan::read(&mut sheet.clone(), vehicle);
    let item = readable.rows.iter().position(|of| *of == row).and_then(|place| readable.plan.items.get(place));
    let tick = |what: &str, label: &str| sheet.tick(name(what), label);
    let cases = CASES.iter().filter(|(key, _)| sheet.is_filled(&case_field(*key, "name")));
    let case_ticks = cases.map(|(key, _)| tick(&format!("case{key}"), sheet.text(&case_field(*key, "name"))));
    let mut ticks = vec![tick("always", "Always, empty too")];
    ticks.extend(case_ticks);
    if !vehicle.class.is_trailer() {
        ticks.push(tick("hitch", "Presses on the hitch"));
    }
    let (side, hand) = (name("side"), name("hand"));
    RowForm {
        row,
        summary: item.map_or_else(
            || if used { "needs another look".to_owned() } else { "Something else".to_owned() },
            |item| item_words(item, vehicle, units),
        ),
        open: used && item.is_none(),
        used,
        name: sheet.text_field(&name("name"), "What it is"),
        of: sheet.choices(&name("of"), load_plan::GIVEN_BY),
        amount: sheet.text_field(&name("amount"), "How much").hint(format!(
            "{}, or of a liquid {}",
            units.weight_name(),
            units.volume_name()
        )),
        distance: sheet.length_field(&name("distance"), &format!("Its middle from the {rear}")),
        side: sheet.choices(&side, [("ahead", "ahead"), ("behind", "behind")]),
        lateral: sheet.length_field(&name("lateral"), "From the middle line"),
        hand: sheet.choices(&hand, [("left", "left"), ("right", "right")]),
        height: sheet.length_field(&name("height"), "Its middle above ground"),
        usual: sheet.text(&name(load_plan::USUAL)).to_owned(),
        weighed: load_plan::is_usual(sheet, row).then(|| tick(load_plan::WEIGHED, "It was weighed, or its papers say so")),
        ticks,
    }
}

/// A thing in a few words: name, weight, place.
fn item_words(entry: &ItemEntry, vehicle: &VehicleFacts, units: Units) -> String {
    let rear = support_name(vehicle.class, End::Rear);
    let item = entry.item();
    let weight = units.weight(item.weight);
    let basis = if entry.usual { ", not weighed" } else { "" };
    format!("{}, {weight}{basis}, {}", entry.name, along_words(item.behind_rear_axle, rear, units))
}

fn picture(file: &JobFile, sheet: &Sheet, units: Units) -> LoadPicture {
    let mut scratch = sheet.clone();
    let Readable { plan, rows } = load_plan::read(&mut scratch, &file.case().vehicle());
    let key = sheet.text("shown").parse::<u8>().ok().filter(|key| plan.case(*key).is_some());
    // A plan that is on file as it stands was worked out already.
    let drafted = (file.case().plan.as_ref() != Some(&plan)).then(|| Casework::new(file.case().clone().with_plan(plan.clone())));
    let work = drafted.as_ref().unwrap_or(&file.work);
    let (found, predictor) = (work.found(), work.predictor());
    let of_case = |case: Option<u8>| survey_of(found, &plan, case);
    let (shown, state) = of_case(key);
    let is_aboard = |item: &ItemEntry| item.always || key.is_some_and(|key| plan.put_for(key).any(|put| put == item));
    let class = found.vehicle.class;
    let aboard: Vec<Aboard> = plan
        .items
        .iter()
        .zip(&rows)
        .filter(|(item, _)| is_aboard(item))
        .map(|(item, row)| Aboard {
            row: *row,
            name: item_words(item, &found.vehicle, units),
            item: item.item(),
            always: item.always,
        })
        .collect();
    let items: Vec<_> = aboard.iter().map(|thing| thing.item).collect();
    let names: Vec<String> = key.map(|key| plan.put_for(key).map(|item| item.name.clone()).collect()).unwrap_or_default();
    let loads = shown.axle_loads();
    let carried = |end: End| if state == LoadState::Empty { Some(*loads.empty.get(end)) } else { loads.loaded(end) };
    let words = End::BOTH
        .map(|end| (sentence(support_name(class, end)), carried(end).map_or_else(String::new, |load| units.weight(load))));
    let [front, rear] = &words;
    let measured_case = file.case().measured_case().map(|case| case.key);
    let table = std::iter::once(None).chain(plan.cases.iter().map(|case| Some(case.key))).map(|case| {
        let (survey, state) = of_case(case);
        let measured = (case.is_none() || case == measured_case).then_some(found);
        let name = case.and_then(|key| plan.case(key)).map_or("Empty", |case| case.name.as_str());
        CaseLine { shown: case == key, ..case_line(name, &survey, state, measured, predictor, units) }
    });
    let shown_cases = std::iter::once((0, "Empty".to_owned())).chain(plan.cases.iter().map(|case| (case.key, case.name.clone())));
    let mut figures = case_figures(&shown, state, &items, &names, units);
    // A case that was measured shows what was read.
    if state == LoadState::Loaded && key != measured_case {
        figures.extend(height_figure(&shown, predictor, units));
    }
    LoadPicture {
        shown: shown_cases.map(|(of, name)| ShownCase { key: of, name, chosen: of == key.unwrap_or(0) }).collect(),
        drawing: LoadPlanDrawing::new(&found.vehicle, &aboard, [(&front.0, &front.1), (&rear.0, &rear.1)]),
        overload: if state == LoadState::Loaded { overload_of_case(&shown, &names, units) } else { None },
        figures,
        table: table.collect(),
        heads: crate::view::load_plan::end_heads(found),
        left_out: (0..MOST_ITEMS).filter(|row| load_plan::is_used(sheet, *row) && !rows.contains(row)).count(),
    }
}

/// The vehicle in a case of the plan; in none of them it is empty.
fn survey_of(found: &Survey, plan: &LoadPlanEntry, case: Option<u8>) -> (Survey, LoadState) {
    match case.and_then(|key| plan.case(key)) {
        Some(case) => (found.in_case(plan.items_of(case.key), case.scale()), LoadState::Loaded),
        None => (Survey { load: None, ..found.clone() }, LoadState::Empty),
    }
}
