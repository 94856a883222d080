//! A booking that is there already: looked at, moved, struck off; and what is said where somebody else did so meanwhile.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use wise_badger_casework::bay_plan::WorkDays;
use wise_badger_store::booking::{self, Became, Booking, Slot};
use wise_badger_store::person::Person;
use wise_badger_store::{BookingId, Database, PersonId, PgConnection, StoreError};

use super::super::{once, see_other};
use super::book::{About, Asked, about, asked_of, book_page, first_asked, slot_of, taken_then};
use super::{BAYS, local, utc};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::view::moment;
use crate::worker::Worker;

/// A booking as it stands now, and what happened to it since it was last looked at.
struct Now {
    about: About,
    /// `None` once it is struck off.
    booking: Option<Booking>,
    /// Who did what meanwhile; empty where nobody did anything.
    meanwhile: String,
}

async fn now(database: &Data<Database>, worker: &Worker, id: i64) -> Result<Now, WebError> {
    let shop = worker.shop_id();
    let became = database.read(move |connection| booking::became(connection, shop, BookingId(id))).await?;
    let number = match &became {
        Became::Stands(booking) | Became::Moved { to: booking, .. } => booking.number,
        Became::StruckOff { number, .. } => *number,
    };
    let about = about(database, worker, number.0).await?;
    let name = |by: PersonId| about.read.people.iter().find(|person| person.id == by).map_or("Somebody", |person| &person.name);
    let (booking, meanwhile) = match became {
        Became::Stands(booking) => (Some(booking), String::new()),
        Became::Moved { to, by, at } => {
            let bay = about.read.bays.iter().find(|bay| bay.id == to.slot.bay).map_or("another bay", |bay| &bay.name);
            let begins = local(to.slot.begins_at).format("%a %b %-d, %-H:%M");
            let words = format!("{} put it in {bay}, {begins}, meanwhile ({}).", name(by), moment(at));
            (Some(to), words)
        }
        Became::StruckOff { by, at, .. } => {
            (None, format!("{} struck it off meanwhile ({}). It can be booked anew.", name(by), moment(at)))
        }
    };
    Ok(Now { about, booking, meanwhile })
}

impl Now {
    /// The page of the booking as it stands: with what was asked for, or else where it is.
    fn page(&self, worker: &Worker, asked: Option<&Asked>, refusal: &str, status: StatusCode) -> Result<HttpResponse, WebError> {
        let stands = match &self.booking {
            Some(booking) => Asked::of(&booking.slot, &self.days()),
            None => first_asked(&self.about),
        };
        let id = self.booking.as_ref().map(|booking| booking.id);
        book_page(worker, &self.about, id, asked.unwrap_or(&stands), refusal, status)
    }

    fn days(&self) -> WorkDays {
        WorkDays::of(&self.about.read.terms)
    }
}

/// A booking, to be looked at and moved; where somebody moved it since, as it stands now.
pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let now = now(&database, &worker, *id).await?;
    now.page(&worker, None, &now.meanwhile, StatusCode::OK)
}

/// Moves it to what the form says.
pub(crate) async fn change(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let now = now(&database, &worker, *id).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let asked = asked_of(&sheet);
    match slot_of(&asked, &now.days()) {
        Ok(slot) => moved(&database, &worker, &sheet, Move { id: *id, seen: now, asked: &asked, slot, follows: "" }).await,
        Err(refusal) => now.page(&worker, Some(&asked), &refusal, StatusCode::UNPROCESSABLE_ENTITY),
    }
}

/// Moves it by half hours that the shop works, and by bays, as it was dragged or moved by keys.
pub(crate) async fn move_on(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let now = now(&database, &worker, *id).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let number = |name: &str| sheet.text(name).parse::<i64>().unwrap_or(0).clamp(-400, 400);
    let (steps, rows, days_on) = (number("steps"), number("rows"), number("days"));
    let found = match &now.booking {
        Some(found) if now.meanwhile.is_empty() => found,
        // By so much from where it is no more, nobody meant it to go; unless this very sending moved it.
        _ => {
            let refused = |_: &mut PgConnection, _: &Person| Err(StoreError::StaleRow { what: "booking" });
            return match once(&database, &worker, &sheet, refused).await {
                Err(WebError::Store(StoreError::StaleRow { .. })) => {
                    now.page(&worker, None, &format!("Nothing was moved. {}", now.meanwhile), StatusCode::CONFLICT)
                }
                done => done.map(|()| see_other(BAYS)),
            };
        }
    };
    let (days, bays) = (now.days(), &now.about.read.bays);
    let (begins, ends) = (local(found.slot.begins_at), local(found.slot.ends_at));
    let hours = days.hours_between(begins, ends);
    let place = bays.iter().position(|bay| bay.id == found.slot.bay).unwrap_or(0);
    let last = i64::try_from(bays.len()).unwrap_or(1) - 1;
    let place = usize::try_from((i64::try_from(place).unwrap_or(0) + rows).clamp(0, last.max(0))).unwrap_or(0);
    let bay = bays.get(place).map_or(found.slot.bay, |bay| bay.id);
    let begins = days.moved(days.moved_by_days(begins, days_on), steps);
    let slot = Slot { bay, begins_at: utc(begins), ends_at: utc(days.ends(begins, hours)), ..found.slot };
    let (asked, follows) = (Asked::of(&slot, &days), format!("&moved={}", found.number.0));
    moved(&database, &worker, &sheet, Move { id: *id, seen: now, asked: &asked, slot, follows: &follows }).await
}

/// Where a booking is to be, as somebody asked who saw it as it was.
struct Move<'a> {
    id: i64,
    seen: Now,
    asked: &'a Asked,
    slot: Slot,
    /// What follows in the address of the week.
    follows: &'a str,
}

/// Keeps where a booking is to be, or says why it is not there.
async fn moved(database: &Data<Database>, worker: &Worker, sheet: &Sheet, to: Move<'_>) -> Result<HttpResponse, WebError> {
    let Move { id, seen, asked, slot, follows } = to;
    let of = BookingId(id);
    let done =
        once(database, worker, sheet, move |connection, person| booking::change(connection, person, of, &slot).map(|_| ()));
    match done.await {
        Err(WebError::Store(StoreError::Overlaps { what })) => {
            seen.page(worker, Some(asked), &taken_then(what), StatusCode::CONFLICT)
        }
        Err(WebError::Store(StoreError::StaleRow { .. })) => {
            let now = now(database, worker, id).await?;
            let refusal =
                format!("Nothing was moved. {} What you asked for is below: save again if it is still meant.", now.meanwhile);
            now.page(worker, Some(asked), &refusal, StatusCode::CONFLICT)
        }
        done => done.map(|()| see_other(format!("{BAYS}?week={}{follows}", local(slot.begins_at).date()))),
    }
}

/// Strikes it off; one that is struck off already is so.
pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let of = BookingId(*id);
    match once(&database, &worker, &sheet, move |connection, person| booking::withdraw(connection, person, of)).await {
        Err(WebError::Store(StoreError::StaleRow { .. })) => {
            let now = now(&database, &worker, *id).await?;
            if now.booking.is_none() {
                return Ok(see_other(BAYS));
            }
            let refusal = format!("Nothing was struck off. {}", now.meanwhile);
            now.page(&worker, None, &refusal, StatusCode::CONFLICT)
        }
        done => done.map(|()| see_other(BAYS)),
    }
}
