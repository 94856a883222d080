//! The bays as a calendar that any calendar program reads, under a secret link that can be taken back.

use actix_web::http::header::{CACHE_CONTROL, CONTENT_TYPE};
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpRequest, HttpResponse};
use chrono::{Days, Local};
use icalendar::{Calendar, Component, Event, EventLike, Property};
use serde::Deserialize;
use wise_badger_store::booking::Booking;
use wise_badger_store::shop::{self, Shop};
use wise_badger_store::{CalendarLinkId, Database, StoreError, calendar_link};

use super::super::people::origin_of;
use super::super::{Names, see_other};
use super::{BAYS, Read, bays_page, read, who_words};
use crate::error::WebError;
use crate::keys::{self, BehindTls};
use crate::log;
use crate::worker::Worker;

/// So much is shown: what was lately, and what is to come.
const BACK: Days = Days::new(31);
const AHEAD: Days = Days::new(150);

#[derive(Deserialize)]
pub(crate) struct Link {
    #[serde(default)]
    key: String,
}

/// Makes a link, and shows it this once.
pub(crate) async fn make_link(
    database: Data<Database>,
    worker: Worker,
    tls: Data<BehindTls>,
    request: HttpRequest,
) -> Result<HttpResponse, WebError> {
    let key = keys::new_key();
    let (by, hash) = (worker.person.clone(), keys::hash(&key));
    let made: Result<(), StoreError> = database.write(move |connection| calendar_link::make(connection, &by, &hash)).await;
    made?;
    let link = format!("{}/bays.ics?key={key}", origin_of(&request, *tls.get_ref()));
    bays_page(&database, &worker, None, Some(link)).await
}

pub(crate) async fn revoke_link(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let done: Result<(), StoreError> =
        database.write(move |connection| calendar_link::revoke(connection, &worker.person, CalendarLinkId(*id))).await;
    done?;
    Ok(see_other(BAYS))
}

/// The calendar itself: job numbers, labels, bays and first names; nothing of the customer.
pub(crate) async fn file(database: Data<Database>, link: Query<Link>) -> Result<HttpResponse, WebError> {
    let hash = keys::hash(&link.key);
    let today = Local::now().date_naive();
    let found = database.read(move |connection| {
        let shop = calendar_link::shop_of(connection, &hash)?;
        Ok::<_, StoreError>((shop::find(connection, shop)?, read(connection, shop, today - BACK, today + AHEAD)?))
    });
    let (shop, read) = found.await.inspect_err(|_| log::security("calendar link good for nothing", ""))?;
    let mut answer = HttpResponse::Ok();
    answer.insert_header((CONTENT_TYPE, "text/calendar; charset=utf-8")).insert_header((CACHE_CONTROL, "no-store"));
    Ok(answer.body(calendar_of(&shop, &read)))
}

fn calendar_of(shop: &Shop, read: &Read) -> String {
    let names = Names::of_people(&read.people);
    let mut calendar = Calendar::empty();
    for (property, value) in [("VERSION", "2.0"), ("PRODID", "-//Wise Badger//Bays//EN"), ("CALSCALE", "GREGORIAN")] {
        calendar.append_property(Property::new(property, value));
    }
    calendar.name(&format!("{}: bays", shop.name));
    for booking in &read.booked {
        calendar.push(event(shop, booking, read, &names));
    }
    calendar.done().to_string()
}

fn event(shop: &Shop, booking: &Booking, read: &Read, names: &Names) -> Event {
    let bay = read.bays.iter().find(|bay| bay.id == booking.slot.bay).map_or("", |bay| bay.name.as_str());
    let who = who_words(booking, names);
    Event::new()
        // A booking that is moved is another row, and the same entry: the job's, by when it was first put into that bay's list.
        .uid(&format!("shop-{}-booking-{}@wise-badger", shop.id.0, booking.id.0))
        .summary(&format!("{bay}: {} {}", booking.number.0, booking.label))
        .description(&who)
        .location(bay)
        .starts(booking.slot.begins_at)
        .ends(booking.slot.ends_at)
        .done()
}
