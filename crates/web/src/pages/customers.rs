//! A customer: who they are, and which vehicles are theirs.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use chrono::{Months, Utc};
use serde::Deserialize;
use wise_badger_store::customer::{self, Customer, CustomerWords};
use wise_badger_store::{CustomerId, Database, StoreError, VehicleId, vehicle};

use super::shown_again::{self, ShownAgain, must_be_shown};
use super::{Hidden, once, page, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::shell::Shell;
use crate::view::day_of;
use crate::worker::Worker;

const LONGEST: usize = 80;
const LONGEST_NOTE: usize = 500;

#[derive(Template)]
#[template(path = "customer.html")]
struct CustomerPage {
    shell: Shell,
    id: i64,
    /// As it is on file.
    title: String,
    /// What the form shows: as it is on file, or as it was typed.
    words: CustomerWords,
    /// Why what was typed was not saved.
    problem: String,
    /// What is on file where something else was typed.
    on_file: Vec<(&'static str, String)>,
    erased: bool,
    vehicles: Vec<(i64, String, String)>,
    hidden: Hidden,
    shown_again: ShownAgain,
    may_erase: bool,
}

/// Whose names are kept no longer than they are needed: those who were not here for years, for the owner to erase.
#[derive(Template)]
#[template(path = "customers.html")]
struct LongGonePage {
    shell: Shell,
    years: u32,
    /// The numbers of years that may be picked.
    choices: Vec<u32>,
    /// Key, name, and the day that they were last here.
    gone: Vec<(i64, String, String)>,
    /// Whether there are more than are shown.
    more: bool,
}

/// What a shop keeps papers for, in years (our own working rule; the law of the place says).
const YEARS_KEPT: u32 = 7;
const YEARS: [u32; 6] = [1, 2, 3, 5, 7, 10];
const MOST_GONE: usize = 200;

#[derive(Deserialize)]
pub(crate) struct GoneFor {
    years: Option<u32>,
}

/// Customers who were not here for so many years.
pub(crate) async fn long_gone(database: Data<Database>, worker: Worker, asked: Query<GoneFor>) -> Result<HttpResponse, WebError> {
    let years = asked.years.filter(|years| YEARS.contains(years)).unwrap_or(YEARS_KEPT);
    let since = Utc::now() - Months::new(12 * years);
    let shop = worker.shop_id();
    let most = i64::try_from(MOST_GONE + 1).unwrap_or(i64::MAX);
    let mut gone = database.read(move |connection| customer::not_here_since(connection, shop, since, most)).await?;
    let more = gone.len() > MOST_GONE;
    gone.truncate(MOST_GONE);
    let template = LongGonePage {
        shell: Shell::new(&worker, "Not here for long", "/customers"),
        years,
        choices: YEARS.to_vec(),
        gone: gone.into_iter().map(|of| (of.id.0, of.name, day_of(of.last))).collect(),
        more,
    };
    Ok(page(StatusCode::OK, &template)?.answer())
}

/// What was typed, and why it was not saved.
struct NotSaved {
    words: CustomerWords,
    problem: &'static str,
    status: StatusCode,
}

const NAMELESS: &str = "Nothing was saved: a customer is called something.";
const CHANGED: &str = "Somebody changed this customer after the page was opened, so yours was not saved. What you typed is still here; \
                       compare it with what is on file now, and save again.";

pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    shown(&database, &worker, CustomerId(*id), None).await
}

async fn shown(
    database: &Data<Database>,
    worker: &Worker,
    id: CustomerId,
    not_saved: Option<NotSaved>,
) -> Result<HttpResponse, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| {
        Ok::<_, StoreError>((customer::find(connection, shop, id)?, vehicle::of_customer(connection, shop, id)?))
    });
    let (found, vehicles) = read.await?;
    let status = not_saved.as_ref().map_or(StatusCode::OK, |not_saved| not_saved.status);
    Ok(page(status, &customer_page(worker, found, vehicles, not_saved))?.answer())
}

fn customer_page(
    worker: &Worker,
    found: Customer,
    vehicles: Vec<(VehicleId, String, String)>,
    not_saved: Option<NotSaved>,
) -> CustomerPage {
    let kept = CustomerWords { name: found.name.clone(), phone: found.phone, note: found.note };
    let (words, problem) = match not_saved {
        Some(not_saved) => (not_saved.words, not_saved.problem.to_owned()),
        None => (kept.clone(), String::new()),
    };
    let both = [("Name", &kept.name, &words.name), ("Telephone", &kept.phone, &words.phone), ("Note", &kept.note, &words.note)];
    let otherwise = both.into_iter().filter(|(_, kept, typed)| kept != typed);
    let on_file = otherwise.map(|(label, kept, _)| (label, if kept.is_empty() { "nothing".to_owned() } else { kept.clone() }));
    CustomerPage {
        shell: Shell::new(worker, "Customer", format!("/customers/{}", found.id.0)),
        id: found.id.0,
        title: found.name,
        on_file: on_file.collect(),
        words,
        problem,
        erased: found.erased_at.is_some(),
        vehicles: vehicles.into_iter().map(|(id, plate, labels)| (id.0, plate, labels)).collect(),
        hidden: Hidden::new(&Sheet::blank(worker.units()), found.revision),
        shown_again: ShownAgain::new(worker, "erase"),
        may_erase: worker.may(Right::People),
    }
}

pub(crate) async fn change(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let text = |name: &str, most: usize| sheet.text(name).chars().take(most).collect::<String>();
    let words = CustomerWords { name: text("name", LONGEST), phone: text("phone", LONGEST), note: text("note", LONGEST_NOTE) };
    let (seen, of) = (sheet.revision()?, CustomerId(*id));
    if words.name.is_empty() {
        let not_saved = NotSaved { words, problem: NAMELESS, status: StatusCode::UNPROCESSABLE_ENTITY };
        return shown(&database, &worker, of, Some(not_saved)).await;
    }
    let typed = words.clone();
    let saved =
        once(&database, &worker, &sheet, move |connection, person| customer::change(connection, person, of, seen, &words));
    match saved.await {
        Err(WebError::Store(StoreError::StaleRow { .. } | StoreError::Stale { .. })) => {
            let not_saved = NotSaved { words: typed, problem: CHANGED, status: StatusCode::CONFLICT };
            shown(&database, &worker, of, Some(not_saved)).await
        }
        saved => saved.map(|()| see_other(format!("/customers/{id}"))),
    }
}

/// Erases what is written of a customer; what was measured of their vehicles stays.
pub(crate) async fn erase(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    must_be_shown(&database, &worker, shown_again::sent(&posted)).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let of = CustomerId(*id);
    once(&database, &worker, &sheet, move |connection, person| customer::erase(connection, person, of)).await?;
    Ok(see_other(format!("/customers/{id}")))
}
