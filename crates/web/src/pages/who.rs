//! Who is working, and in which units.

use std::time::Instant;

use actix_session::Session;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use serde::Deserialize;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::person::{self, Person};
use wise_badger_store::{Database, PersonId, StoreError, shop};

use super::{page, see_other};
use crate::device_units::DeviceUnits;
use crate::error::WebError;
use crate::form::Posted;
use crate::guard::peer;
use crate::log;
use crate::throttle::Throttle;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "who.html")]
struct WhoPage {
    shop: String,
    people: Vec<Person>,
    next: String,
    /// Who is signed on; empty when nobody is.
    working: String,
}

#[derive(Deserialize)]
pub(crate) struct Wanted {
    #[serde(default)]
    next: String,
}

/// A path of this program to go on to, or the yard. Never another site.
fn local(path: &str) -> &str {
    let mut signs = path.chars();
    let local = signs.next() == Some('/') && !matches!(signs.next(), Some('/' | '\\'));
    if local && !path.chars().any(char::is_control) { path } else { "/" }
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Option<Worker>,
    wanted: Query<Wanted>,
) -> Result<HttpResponse, WebError> {
    let (shop, people) = database
        .read(|connection| {
            let shop = shop::first(connection)?.ok_or(StoreError::NotFound("shop; open one with “wise-badger open-shop”"))?;
            let people = person::of_shop(connection, shop.id)?;
            Ok::<_, StoreError>((shop, people))
        })
        .await?;
    let next = local(&wanted.next).to_owned();
    let working = worker.map(|worker| worker.person.name).unwrap_or_default();
    Ok(page(StatusCode::OK, &WhoPage { shop: shop.name, people, next, working })?.answer())
}

pub(crate) async fn sign_on(
    database: Data<Database>,
    sign_ons: Data<Throttle>,
    session: Session,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    if !sign_ons.allows(peer(&request), Instant::now()) {
        log::security("too many sign-ons", "");
        return Err(WebError::TooOften);
    }
    let person = posted.text("person").and_then(|person| person.parse().ok());
    let id = PersonId(person.ok_or_else(|| WebError::Malformed("no person".to_owned()))?);
    let person = database
        .read(move |connection| {
            let shop = shop::first(connection)?.ok_or(StoreError::NotFound("shop"))?;
            person::find(connection, shop.id, id)
        })
        .await
        .inspect_err(|_| log::security("sign-on refused", &id.0.to_string()))?;
    Worker::sign_on(&session, &person)?;
    tracing::info!(target: "wise_badger_web::security", event = "sign-on", person = person.id.0);
    Ok(see_other(local(posted.text("next").unwrap_or_default())))
}

/// Ends the session, here and in the store.
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    see_other("/who")
}

/// Takes the units picked: the device's where it has its own, otherwise whoever works here's; or makes them the one or the other.
pub(crate) async fn set_units(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let units = worker.units();
    let length = match posted.text("length") {
        Some("in") => LengthUnit::Inches,
        Some("mm") => LengthUnit::Millimetres,
        _ => units.length,
    };
    let weight = match posted.text("weight") {
        Some("lb") => WeightUnit::Pounds,
        Some("kg") => WeightUnit::Kilograms,
        _ => units.weight,
    };
    let picked = DeviceUnits { length, weight };
    let cookie = match (posted.text("for"), worker.device_units) {
        (Some("person"), _) => Some(DeviceUnits::forgotten()),
        (Some(_), _) | (None, Some(_)) => Some(picked.cookie()),
        (None, None) => None,
    };
    let mut answer = see_other(local(posted.text("next").unwrap_or_default()));
    match cookie {
        Some(cookie) => answer.add_cookie(&cookie).map_err(|error| WebError::Malformed(error.to_string()))?,
        None => {
            let done: Result<(), StoreError> =
                database.write(move |connection| person::set_units(connection, &worker.person, length, weight)).await;
            done?;
        }
    }
    Ok(answer)
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
