//! Who is working, and in which units.

use actix_session::Session;
use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Form, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::person::{self, Person};
use wise_badger_store::{Database, PersonId, StoreError, shop};

use super::{page, see_other};
use crate::error::WebError;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "who.html")]
struct WhoPage {
    shop: String,
    people: Vec<Person>,
    next: String,
}

#[derive(Deserialize)]
pub(crate) struct Wanted {
    #[serde(default)]
    next: String,
}

#[derive(Deserialize)]
pub(crate) struct SignOn {
    person: i64,
    #[serde(default)]
    next: String,
}

#[derive(Deserialize)]
pub(crate) struct UnitSwitch {
    length: Option<String>,
    weight: Option<String>,
    #[serde(default)]
    next: String,
}

/// A path of this program to go on to, or the yard. Never another site.
fn local(path: &str) -> &str {
    let mut signs = path.chars();
    let local = signs.next() == Some('/') && !matches!(signs.next(), Some('/' | '\\'));
    if local && !path.chars().any(char::is_control) { path } else { "/" }
}

pub(crate) async fn show(database: Data<Database>, wanted: Query<Wanted>) -> Result<HttpResponse, WebError> {
    let (shop, people) = database
        .read(|connection| {
            let shop = shop::first(connection)?.ok_or(StoreError::NotFound("shop; open one with “wise-badger open-shop”"))?;
            let people = person::of_shop(connection, shop.id)?;
            Ok::<_, StoreError>((shop, people))
        })
        .await?;
    page(StatusCode::OK, &WhoPage { shop: shop.name, people, next: local(&wanted.next).to_owned() })
}

pub(crate) async fn sign_on(database: Data<Database>, session: Session, form: Form<SignOn>) -> Result<HttpResponse, WebError> {
    let id = PersonId(form.person);
    let person = database
        .read(move |connection| {
            let shop = shop::first(connection)?.ok_or(StoreError::NotFound("shop"))?;
            person::find(connection, shop.id, id)
        })
        .await?;
    Worker::sign_on(&session, &person)?;
    Ok(see_other(local(&form.next)))
}

pub(crate) async fn set_units(
    database: Data<Database>,
    worker: Worker,
    form: Form<UnitSwitch>,
) -> Result<HttpResponse, WebError> {
    let units = worker.units();
    let length = match form.length.as_deref() {
        Some("in") => LengthUnit::Inches,
        Some("mm") => LengthUnit::Millimetres,
        _ => units.length,
    };
    let weight = match form.weight.as_deref() {
        Some("lb") => WeightUnit::Pounds,
        Some("kg") => WeightUnit::Kilograms,
        _ => units.weight,
    };
    let done: Result<(), StoreError> =
        database.write(move |connection| person::set_units(connection, &worker.person, length, weight)).await;
    done?;
    Ok(see_other(local(&form.next)))
}

#[cfg(test)]
mod tests {
    use super::local;

    #[test]
    fn the_picker_never_leads_to_another_site() {
        assert_eq!(local("/jobs/3/tape"), "/jobs/3/tape");
        for elsewhere in ["https://example.org/", "//example.org", "/\\example.org", "", "jobs/3", "/a\r\nSet-Cookie: x"] {
            assert_eq!(local(elsewhere), "/", "{elsewhere}");
        }
    }
}
