//! A quick answer at the counter or on the phone, before anything is measured; kept as the beginning of a job.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use wise_badger_casework::entry::{CallEntry, ShelfPart};
use wise_badger_casework::quick_answer::{QuickAnswer, kinds_answered, quick_answer};
use wise_badger_casework::survey::{Thing, VehicleFacts};
use wise_badger_mechanics::correction::Correction;
use wise_badger_store::call::{self as calls, Found};
use wise_badger_store::shelf::Search;
use wise_badger_store::{CallId, Database, PgConnection, StoreError, saving, shelf};

use super::{Hidden, Page, Refusal, page, see_other};
use crate::correction::figure_label;
use crate::error::WebError;
use crate::form::call::{self as form, LOWS, PLACES, SPRINGS, WHENS, thing_field};
use crate::form::intake::class_choices;
use crate::form::load_plan::SHELF;
use crate::form::{Choice, Field, Picks, Posted, Sheet, Tick, asked_by_address};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::call::{
    answer_words, behind_words, cost_words, does_words, first_words, may_change_words, no_answer_words, plain_kind, rise_words,
    size_value,
};
use crate::view::shelf::{money_words, stock_words};
use crate::view::{Cautions, Units, sentence};
use crate::worker::Worker;

/// Where a quick answer is asked for.
pub(crate) const QUICK: &str = "/quick";
/// Most parts of the shelf that are looked through.
const MOST: i64 = 1_000;

#[derive(Template)]
#[template(path = "quick.html")]
struct QuickPage {
    shell: Shell,
    /// The call that was kept, with where it stands.
    kept: Option<KeptCall>,
    hidden: Hidden,
    action: String,
    label: Field,
    classes: Vec<Choice>,
    class_problem: String,
    wheels: Picks,
    springs: Picks,
    rating: Field,
    things: Vec<Tick>,
    aboard: Field,
    places: Vec<Choice>,
    lows: Picks,
    whens: Picks,
    leans: Tick,
    words: Field,
    upkeep: Picks,
    removable: Picks,
    budget: Field,
    answer: AnswerPart,
    refusal: String,
}

struct KeptCall {
    id: i64,
    stands: bool,
    job: Option<i32>,
}

/// The answer as it is drawn anew with every word.
#[derive(Template)]
#[template(path = "parts/quick_answer.html")]
struct AnswerPart {
    said: Vec<String>,
    /// Why there is none yet.
    none: String,
    answer: Option<AnswerWords>,
}

impl askama::filters::HtmlSafe for AnswerPart {}

struct AnswerWords {
    sentence: String,
    over: bool,
    behind: String,
    kinds: Vec<KindWords>,
    first: Vec<&'static str>,
    may_change: Vec<&'static str>,
    cautions: Cautions,
    /// What the customer wants that a kind does not go with.
    budget: String,
}

struct KindWords {
    name: String,
    /// What it would have to be, what that does, and what goes with it.
    does: String,
    cost: String,
    parts: Vec<String>,
}

#[derive(Template)]
#[template(path = "parts/quick_preview.html")]
struct Preview {
    answer: AnswerPart,
}

/// The parts of the shelf that may be the answer.
async fn on_the_shelf(database: &Data<Database>, worker: &Worker) -> Result<Vec<ShelfPart>, WebError> {
    let search = Search { kinds: kinds_answered().into_iter().map(str::to_owned).collect(), ..Search::default() };
    let shop = worker.shop_id();
    let parts = database.read(move |connection| shelf::page(connection, shop, &search, MOST)).await?;
    Ok(parts.into_iter().map(|found| found.part.0).collect())
}

pub(crate) async fn ask(
    database: Data<Database>,
    worker: Worker,
    asked: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(asked_by_address(asked.into_inner()), worker.units());
    let parts = on_the_shelf(&database, &worker).await?;
    drawn(move |_| quick_page(&worker, &sheet, None, &parts, None)).await
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let (found, parts) = (find(&database, &worker, *id).await?, on_the_shelf(&database, &worker).await?);
    let sheet = form::on_file(worker.units(), &found.entry);
    drawn(move |_| quick_page(&worker, &sheet, Some((CallId(*id), &found)), &parts, None)).await
}

async fn find(database: &Data<Database>, worker: &Worker, id: i64) -> Result<Found, WebError> {
    let shop = worker.shop_id();
    Ok(database.read(move |connection| calls::find(connection, shop, CallId(id))).await?)
}

/// What comes of the form as it stands. Nothing is kept.
pub(crate) async fn preview(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let parts = on_the_shelf(&database, &worker).await?;
    drawn(move |_| {
        let answer = AnswerPart::new(&mut sheet, &parts, worker.units());
        page(StatusCode::OK, &Preview { answer })
    })
    .await
}

/// Takes a call down, or only answers it.
pub(crate) async fn put(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    keep(database, worker, posted, None).await
}

pub(crate) async fn change(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let found = find(&database, &worker, *id).await?;
    keep(database, worker, posted, Some((CallId(*id), found))).await
}

async fn keep(
    database: Data<Database>,
    worker: Worker,
    posted: Posted,
    of: Option<(CallId, Found)>,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let entry = form::check(&mut sheet);
    if sheet.text("act") != "keep" {
        // The page is its own address: it can be gone back to.
        return Ok(see_other(format!("{QUICK}?{}", sheet.as_query())));
    }
    if !sheet.is_filled("label") {
        sheet.refuse("label", "Say what it goes by: the vehicle, who called.");
    }
    let entry = entry.filter(|_| sheet.is_sound());
    let Some(entry) = entry else {
        let parts = on_the_shelf(&database, &worker).await?;
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| {
            let of = of.as_ref().map(|(id, found)| (*id, found));
            quick_page(&worker, &sheet, of, &parts, Some(&refusal))
        })
        .await;
    };
    let (id, sending, person) = (of.as_ref().map(|(id, _)| *id), sheet.sending()?, worker.person.clone());
    let work = move |connection: &mut PgConnection| {
        saving::once(connection, &person, &sending, |connection, person| {
            match id {
                None => calls::put(connection, person, &entry),
                Some(id) => calls::change(connection, person, id, &entry),
            }
            .map(|_| ())
        })
    };
    match database.write(work).await {
        Ok(()) => Ok(see_other("/#calls")),
        Err(StoreError::NotFound(_)) if of.is_some() => {
            let text = "Somebody changed this call, struck it off or opened its job meanwhile. What you typed is still here.";
            let (refusal, parts) = (Refusal::Conflict(text.to_owned()), on_the_shelf(&database, &worker).await?);
            drawn(move |_| {
                let of = of.as_ref().map(|(id, found)| (*id, found));
                quick_page(&worker, &sheet, of, &parts, Some(&refusal))
            })
            .await
        }
        Err(error) => Err(error.into()),
    }
}

pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    strike(&database, &worker, *id, posted, calls::withdraw).await?;
    Ok(see_other(format!("/?struck={id}#calls")))
}

pub(crate) async fn restore(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    strike(&database, &worker, *id, posted, calls::restore).await?;
    Ok(see_other("/#calls"))
}

type Strike = fn(&mut PgConnection, &wise_badger_store::person::Person, CallId) -> Result<(), StoreError>;

async fn strike(database: &Data<Database>, worker: &Worker, id: i64, posted: Posted, work: Strike) -> Result<(), WebError> {
    let (sending, person) = (Sheet::posted(posted, worker.units()).sending()?, worker.person.clone());
    let once = move |connection: &mut PgConnection| {
        saving::once(connection, &person, &sending, |connection, person| work(connection, person, CallId(id)))
    };
    Ok(database.write(once).await?)
}

impl AnswerPart {
    /// Reads the form and answers it.
    fn new(sheet: &mut Sheet, parts: &[ShelfPart], units: Units) -> Self {
        let blank = AnswerPart { said: Vec::new(), none: String::new(), answer: None };
        if !sheet.is_filled("class") {
            return AnswerPart {
                none: "Pick what kind of vehicle it is, what it carries and how low it sits.".to_owned(),
                ..blank
            };
        }
        let Some(call) = form::check(sheet) else {
            return AnswerPart { said: sheet.problems().map(|(_, problem)| problem.to_owned()).collect(), ..blank };
        };
        match quick_answer(&call, parts) {
            Err(why) => AnswerPart { none: no_answer_words(why).to_owned(), ..blank },
            Ok(answer) => AnswerPart { answer: Some(AnswerWords::new(&call, &answer, parts, units)), ..blank },
        }
    }
}

impl AnswerWords {
    fn new(call: &CallEntry, answer: &QuickAnswer, parts: &[ShelfPart], units: Units) -> Self {
        let kinds = answer.kinds.iter().map(|kind| KindWords {
            name: sentence(&plain_kind(kind)),
            does: does_words(kind, answer, units),
            cost: cost_words(kind),
            parts: kind
                .shelf
                .iter()
                .filter_map(|near| {
                    let part = parts.get(near.place)?;
                    let set = near.setting.as_ref().map(|(figure, value)| {
                        let label = figure_label(part.kind, figure).split(',').next().unwrap_or_default().to_lowercase();
                        format!("{label} {}", size_value(value, units))
                    });
                    let rise = rise_words(near.rise, units);
                    let price = part.price.as_ref().map(money_words);
                    let stock = Some(stock_words(part)).filter(|words| !words.is_empty());
                    let each = [set, Some(rise), price, stock].into_iter().flatten().collect::<Vec<_>>().join(", ");
                    Some(format!("{} {}: {each}", part.number, part.name))
                })
                .collect(),
        });
        let shown: Vec<Correction> = answer.kinds.iter().filter_map(|kind| kind.part.clone()).collect();
        AnswerWords {
            sentence: answer_words(answer, units),
            over: answer.over.is_some(),
            behind: behind_words(call, answer, units),
            kinds: kinds.collect(),
            first: answer.first.iter().map(|first| first_words(*first)).collect(),
            may_change: answer.may_change.iter().map(|what| may_change_words(*what)).collect(),
            cautions: Cautions::of(&wise_badger_mechanics::correction::cautions_of(&shown)),
            budget: past_the_budget(call, answer),
        }
    }
}

/// What is said where even the cheapest costs more than was told.
fn past_the_budget(call: &CallEntry, answer: &QuickAnswer) -> String {
    let least =
        answer.kinds.iter().filter_map(|kind| kind.price.as_ref()).map(|(least, _)| least).min_by_key(|money| money.hundredths);
    match call.budget.as_ref().zip(least) {
        Some((budget, least)) if budget.currency == least.currency && least.hundredths > budget.hundredths => {
            format!(
                "The cheapest of these parts costs {}, more than the {} that was told.",
                money_words(least),
                money_words(budget)
            )
        }
        _ => String::new(),
    }
}

fn quick_page(
    worker: &Worker,
    sheet: &Sheet,
    of: Option<(CallId, &Found)>,
    parts: &[ShelfPart],
    refusal: Option<&Refusal>,
) -> Result<Page, WebError> {
    let units = worker.units();
    let mut read = sheet.clone();
    let answer = AnswerPart::new(&mut read, parts, units);
    let action = of.map_or_else(|| QUICK.to_owned(), |(id, _)| format!("{QUICK}/{}", id.0));
    let yes_or_no = [("", "not said"), ("yes", "yes"), ("no", "no")];
    let rows = |rows: &[(&'static str, &'static str)], none: &'static str| -> Vec<(&'static str, &'static str)> {
        std::iter::once(("", none)).chain(rows.iter().copied()).collect()
    };
    let template = QuickPage {
        shell: Shell::new(worker, "Quick answer", QUICK),
        kept: of.map(|(id, found)| KeptCall { id: id.0, stands: found.stands, job: found.job.map(|job| job.0) }),
        hidden: Hidden::new(sheet, 0),
        action,
        label: sheet.text_field("label", "Vehicle, who called").hint("what it goes by, to keep it"),
        classes: sheet.choices("class", class_choices()),
        class_problem: sheet.problem("class").to_owned(),
        wheels: sheet.picks("rear_wheels", "Rear wheels", [("single", "Single"), ("dual", "Dual")]).or_first(),
        springs: sheet
            .picks("rear_spring", "Behind it rests on", rows(&SPRINGS.map(|(_, word, label)| (word, label)), "not said"))
            .or_first(),
        rating: sheet.weight_field("rear_rating", "Rear axle rating").hint("if he can read it off the door"),
        things: SHELF.iter().map(|(thing, label)| sheet.tick(thing_field(*thing), *label)).collect(),
        aboard: sheet.weight_field("aboard", "And about"),
        places: sheet.choices("place", PLACES.map(|(_, word, label)| (word, label))),
        lows: sheet.picks("low", "How low it sits", rows(&LOWS.map(|(_, word, label)| (word, label)), "not said")).or_first(),
        whens: sheet.picks("when", "When", rows(&WHENS.map(|(_, word, label)| (word, label)), "not said")).or_first(),
        leans: sheet.tick("leans".to_owned(), "It leans to one side"),
        words: sheet.text_field("words", "In the customer's words").lines(2),
        upkeep: sheet.picks("upkeep", "Will look after air pressure", yes_or_no).or_first(),
        removable: sheet.picks("removable", "Must come off again", yes_or_no).or_first(),
        budget: sheet.number_field("budget", "May cost", ""),
        answer,
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

/// What a thing that was told to be aboard is called on the load plan.
pub(crate) fn thing_name(thing: Option<Thing>) -> &'static str {
    let named = thing.and_then(|thing| SHELF.iter().find(|(of, _)| *of == thing));
    named.map_or("As told", |(_, label)| label)
}

/// The case of the load plan that what was told becomes.
pub(crate) const TOLD_CASE: &str = "As told by phone";

/// The load plan that a call begins its job with.
pub(crate) fn plan_of(
    call: &CallEntry,
    vehicle: &VehicleFacts,
    units: Units,
) -> Option<wise_badger_casework::entry::LoadPlanEntry> {
    call.load_plan(vehicle, TOLD_CASE, units.typed_in(), thing_name)
}
