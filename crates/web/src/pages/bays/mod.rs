//! Bays: a week by bay, booked from the plan's hours.

mod book;
mod calendar;
mod meanwhile;

pub(crate) use book::{ask, put};
pub(crate) use calendar::{file as calendar_file, make_link, revoke_link};
pub(crate) use meanwhile::{change, move_on, show as show_booking, withdraw};

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use chrono::{DateTime, Datelike, Days, Local, NaiveDate, NaiveDateTime, TimeZone, Utc};
use serde::Deserialize;
use wise_badger_casework::bay_plan::{Taken, WorkDays, people_taken};
use wise_badger_casework::entry::DayEntry;
use wise_badger_casework::work_plan::ShopTerms;
use wise_badger_store::bay::{self, Bay};
use wise_badger_store::booking::{self, Booking};
use wise_badger_store::calendar_link::{self, CalendarLink};
use wise_badger_store::due::{self, DueListed};
use wise_badger_store::person::{self, Person};
use wise_badger_store::{BayId, Database, PersonId, PgConnection, ShopId, StoreError, shop};

use super::yard::{DueKind, waiting_for_work};
use super::{Hidden, Names, once, page, see_other};
use crate::drawing::bay_week::{BayBlock, bay_week_drawing};
use crate::drawing::svg::Drawing;
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::shell::Shell;
use crate::view::moment;
use crate::view::work_plan::day_words;
use crate::worker::Worker;

const BAYS: &str = "/bays";
/// Longest name of a bay.
const LONGEST_NAME: usize = 24;

#[derive(Template)]
#[template(path = "bays.html")]
struct BaysPage {
    shell: Shell,
    title: String,
    before: String,
    after: String,
    has_bays: bool,
    picture: Drawing,
    /// The same as a list, a day at a time, for a narrow page.
    list: Vec<(String, Vec<BookingLine>)>,
    /// What about the week does not go together.
    clashes: Vec<String>,
    /// Jobs whose work is next and that are in no bay yet.
    waiting: Vec<(i32, String)>,
    bays: Vec<(i64, String, bool)>,
    may_set: bool,
    may_book: bool,
    bay_hidden: Hidden,
    links: Vec<(i64, String)>,
    /// A calendar link just made: it is shown once.
    link: Option<String>,
    work_hours: String,
}

struct BookingLine {
    id: i64,
    words: String,
    clash: String,
}

/// What the bays and their bookings are drawn from.
pub(super) struct Read {
    pub(super) terms: ShopTerms,
    pub(super) bays: Vec<Bay>,
    pub(super) booked: Vec<Booking>,
    pub(super) people: Vec<Person>,
    links: Vec<CalendarLink>,
    /// Parts that are to come, by job and day.
    parts: Vec<DueListed>,
}

pub(super) fn read(connection: &mut PgConnection, shop: ShopId, from: NaiveDate, to: NaiveDate) -> Result<Read, StoreError> {
    Ok(Read {
        terms: shop::terms(connection, shop)?,
        bays: bay::of_shop(connection, shop)?,
        booked: booking::between(connection, shop, utc(from.and_time(Default::default())), utc(to.and_time(Default::default())))?,
        people: person::of_shop(connection, shop)?,
        links: calendar_link::of_shop(connection, shop)?,
        parts: due::until(connection, shop, &[DueKind::Parts.word()], to, 500)?,
    })
}

/// A time of the shop's clock.
pub(super) fn local(at: DateTime<Utc>) -> NaiveDateTime {
    at.with_timezone(&Local).naive_local()
}

/// A time of the shop's clock as the records keep it; one that the clock skips is taken an hour later.
pub(super) fn utc(at: NaiveDateTime) -> DateTime<Utc> {
    let found = Local.from_local_datetime(&at).earliest();
    found
        .or_else(|| Local.from_local_datetime(&(at + chrono::TimeDelta::hours(1))).earliest())
        .map_or_else(|| at.and_utc(), |at| at.with_timezone(&Utc))
}

/// Bookings as the search for a slot takes them.
pub(super) fn taken(booked: &[Booking]) -> Vec<Taken> {
    let each = booked.iter().map(|booking| Taken {
        bay: booking.slot.bay.0,
        begins: local(booking.slot.begins_at),
        ends: local(booking.slot.ends_at),
        people: [booking.slot.person.map(|id| id.0), booking.slot.second.map(|id| id.0)],
    });
    each.collect()
}

#[derive(Deserialize)]
pub(crate) struct Week {
    #[serde(default)]
    week: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, week: Query<Week>) -> Result<HttpResponse, WebError> {
    bays_page(&database, &worker, DayEntry::read(&week.week), None).await
}

async fn bays_page(
    database: &Data<Database>,
    worker: &Worker,
    week: Option<NaiveDate>,
    link: Option<String>,
) -> Result<HttpResponse, WebError> {
    let today = Local::now().date_naive();
    let shop_id = worker.shop_id();
    let terms = database.read(move |connection| shop::terms(connection, shop_id)).await?;
    // At the end of a week the next one is looked at.
    let asked = week.unwrap_or_else(|| WorkDays::of(&terms).at_work(Local::now().naive_local()).date());
    let monday = asked - Days::new(u64::from(asked.weekday().num_days_from_monday()));
    let read = database.read(move |connection| read(connection, shop_id, monday, monday + Days::new(7))).await?;
    let waiting = waiting_for_work(database, worker, &read.booked).await?;
    let work = WorkDays::of(&read.terms);
    let days: Vec<NaiveDate> = (0..7).map(|day| monday + Days::new(day)).filter(|day| work.works_on(*day)).collect();
    let names = Names::of_people(&read.people);
    let blocks = blocks(&read, &names);
    let list =
        days.iter().map(|day| (day_words(*day), lines_of_day(&read, &blocks, *day))).filter(|(_, lines)| !lines.is_empty());
    let (first, last) = (days.first().copied().unwrap_or(monday), days.last().copied().unwrap_or(monday));
    let template = BaysPage {
        shell: Shell::new(worker, "Bays", BAYS),
        title: format!("{} to {}", day_words(first), day_words(last)),
        before: format!("{BAYS}?week={}", monday - Days::new(7)),
        after: format!("{BAYS}?week={}", monday + Days::new(7)),
        has_bays: !read.bays.is_empty(),
        picture: bay_week_drawing(
            &days,
            &work,
            &read.bays.iter().map(|bay| (bay.name.clone(), bay.has_lift)).collect::<Vec<_>>(),
            &blocks,
            Local::now().naive_local(),
        ),
        list: list.collect(),
        clashes: read
            .booked
            .iter()
            .filter_map(|booking| Some(format!("{} {}: {}", booking.number.0, booking.label, clash_of(booking, &read, &names)?)))
            .collect(),
        waiting,
        bays: read.bays.iter().map(|bay| (bay.id.0, bay.name.clone(), bay.has_lift)).collect(),
        may_set: worker.may(Right::Terms),
        may_book: worker.may(Right::Plan),
        bay_hidden: Hidden::new(&Sheet::blank(worker.units()), 0),
        links: read.links.iter().map(|link| (link.id.0, moment(link.made_at))).collect(),
        link,
        work_hours: format!("{} to {}", work.opens(today).format("%-H:%M"), work.closes(today).format("%-H:%M")),
    };
    Ok(page(StatusCode::OK, &template)?.answer())
}

fn blocks(read: &Read, names: &Names) -> Vec<BayBlock> {
    let each = read.booked.iter().filter_map(|booking| {
        let bay = read.bays.iter().position(|bay| bay.id == booking.slot.bay)?;
        let (begins, ends) = (local(booking.slot.begins_at), local(booking.slot.ends_at));
        let who = who_words(booking, names);
        let clash = clash_of(booking, read, names);
        let bay_name = read.bays.get(bay).map(|bay| bay.name.as_str()).unwrap_or_default();
        let said = format!(
            "{bay_name}: {} {}, {} to {}, {who}{}",
            booking.number.0,
            booking.label,
            begins.format("%a %b %-d %-H:%M"),
            ends.format("%a %b %-d %-H:%M"),
            clash.as_ref().map_or_else(String::new, |clash| format!("; {clash}"))
        );
        let name = format!("{} {}", booking.number.0, booking.label);
        Some(BayBlock { id: booking.id.0, bay, begins, ends, name, who, clashes: clash.is_some(), said })
    });
    each.collect()
}

fn lines_of_day(read: &Read, blocks: &[BayBlock], day: NaiveDate) -> Vec<BookingLine> {
    let of_day = blocks.iter().filter(|block| block.begins.date() <= day && block.ends.date() >= day);
    let line = |block: &BayBlock| {
        let bay = read.bays.get(block.bay).map(|bay| bay.name.as_str()).unwrap_or_default();
        let words = format!(
            "{bay}, {} to {}: {} ({})",
            block.begins.format(if block.begins.date() == day { "%-H:%M" } else { "%a %-H:%M" }),
            block.ends.format(if block.ends.date() == day { "%-H:%M" } else { "%a %-H:%M" }),
            block.name,
            block.who
        );
        BookingLine { id: block.id, words, clash: if block.clashes { "clashes".to_owned() } else { String::new() } }
    };
    of_day.map(line).collect()
}

fn who_words(booking: &Booking, names: &Names) -> String {
    let people = [booking.slot.person, booking.slot.second];
    let named: Vec<&str> = people.into_iter().flatten().map(|id| names.of(id)).collect();
    if named.is_empty() { "nobody put down".to_owned() } else { named.join(" and ") }
}

/// What about a booking does not go with the others, or with what it waits for.
fn clash_of(booking: &Booking, read: &Read, names: &Names) -> Option<String> {
    let others: Vec<Booking> = read.booked.iter().filter(|other| other.id != booking.id).cloned().collect();
    let (begins, ends) = (local(booking.slot.begins_at), local(booking.slot.ends_at));
    let people = [booking.slot.person.map(|id| id.0), booking.slot.second.map(|id| id.0)];
    let twice = people_taken(people, begins, ends, &taken(&others));
    let gone = |id: &PersonId| read.people.iter().any(|person| person.id == *id && !person.is_here());
    let parts = read.parts.iter().find(|due| due.job == booking.job && due.day > begins.date());
    let twice = twice.first().map(|id| format!("{} is booked elsewhere then", names.of(PersonId(*id))));
    let gone = [booking.slot.person, booking.slot.second]
        .into_iter()
        .flatten()
        .find(gone)
        .map(|id| format!("{} has left the shop", names.of(id)));
    twice.or(gone).or(parts.map(|due| format!("its parts are to come {}", day_words(due.day))))
}

/// Puts a bay down.
pub(crate) async fn add(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let (name, lift) = (sheet.text("bay").to_owned(), sheet.is_filled("lift"));
    if name.is_empty() || name.chars().count() > LONGEST_NAME {
        return Err(WebError::Refused(format!(
            "Nothing was saved: a bay is called something, in up to {LONGEST_NAME} characters."
        )));
    }
    once(&database, &worker, &sheet, move |connection, person| bay::put(connection, person, &name, lift).map(|_| ())).await?;
    Ok(see_other(BAYS))
}

/// Takes a bay off.
pub(crate) async fn take_off(database: Data<Database>, worker: Worker, bay: Path<i64>) -> Result<HttpResponse, WebError> {
    let done: Result<(), StoreError> =
        database.write(move |connection| bay::withdraw(connection, &worker.person, BayId(*bay))).await;
    match done {
        Err(StoreError::Overlaps { .. }) => {
            Err(WebError::NotNow("Vehicles are booked in this bay. Move them to another before it is taken off."))
        }
        done => Ok(done.map(|()| see_other(BAYS))?),
    }
}
