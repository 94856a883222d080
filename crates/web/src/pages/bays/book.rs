//! Booking a job into a bay: the earliest slots found, or by hand.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use chrono::{Days, Local, NaiveDateTime, NaiveTime};
use serde::Deserialize;
use wise_badger_casework::bay_plan::{FreeBay, Slot as FreeSlot, Wanted, WorkDays, earliest};
use wise_badger_casework::entry::{DayEntry, RaisedWord};
use wise_badger_casework::wrench::{Lifting, lifting};
use wise_badger_store::booking::{self, Slot};
use wise_badger_store::{BayId, BookingId, Database, JobId, JobNumber, PersonId, StoreError, job};

use super::super::plan::{PlannedDays, planned_days};
use super::super::{Hidden, once, page, see_other};
use super::{BAYS, Read, local, read, taken, utc};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::shell::Shell;
use crate::view::work_plan::quarter_hours;
use crate::worker::Worker;

/// Slots offered.
const OFFERED: usize = 4;
/// Hours that are booked where no plan says how many.
const USUAL_HOURS: f64 = 2.0;
const MOST_HOURS: f64 = 200.0;
/// So far ahead bookings are looked at.
const AHEAD: Days = Days::new(150);

#[derive(Template)]
#[template(path = "book.html")]
struct BookPage {
    shell: Shell,
    title: String,
    number: i32,
    /// Where the forms are sent.
    action: String,
    /// What it goes by: hours, parts, lift, people.
    goes_by: Vec<String>,
    slots: Vec<SlotLine>,
    no_slot: bool,
    bays: Vec<(i64, String, bool)>,
    people: Vec<(i64, String, bool, bool)>,
    day: String,
    time: String,
    hours: String,
    refusal: String,
    /// The booking that is changed, where it is one.
    changes: bool,
    hidden: Hidden,
    strike_hidden: Hidden,
    may_book: bool,
}

struct SlotLine {
    words: String,
    bay: i64,
    day: String,
    time: String,
    hours: String,
    person: String,
    second: String,
    hidden: Hidden,
}

#[derive(Deserialize)]
pub(crate) struct Job {
    job: i32,
}

/// What a booking is asked to be.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Asked {
    pub(super) bay: Option<i64>,
    pub(super) begins: Option<NaiveDateTime>,
    pub(super) hours: f64,
    pub(super) person: Option<i64>,
    pub(super) second: Option<i64>,
}

impl Asked {
    /// As a booking stands, or would.
    pub(super) fn of(slot: &Slot, days: &WorkDays) -> Self {
        let (begins, ends) = (local(slot.begins_at), local(slot.ends_at));
        Asked {
            bay: Some(slot.bay.0),
            begins: Some(begins),
            hours: days.hours_between(begins, ends),
            person: slot.person.map(|id| id.0),
            second: slot.second.map(|id| id.0),
        }
    }
}

/// What the page is drawn from.
pub(super) struct About {
    job: JobId,
    number: JobNumber,
    label: String,
    planned: PlannedDays,
    lift: bool,
    pub(super) read: Read,
}

pub(super) async fn about(database: &Data<Database>, worker: &Worker, number: i32) -> Result<About, WebError> {
    let planned = planned_days(database, worker, number).await?;
    let file = &planned.file;
    let lift =
        file.case().work_plan.raised == Some(RaisedWord::Lift) || lifting(&file.work, &planned.entries) == Some(Lifting::Lift);
    let (shop, today) = (worker.shop_id(), Local::now().date_naive());
    let read = database.read(move |connection| read(connection, shop, today - Days::new(1), today + AHEAD)).await?;
    Ok(About { job: file.job.id, number: file.job.number, label: file.case().intake.label.clone(), lift, read, planned })
}

impl About {
    fn hours(&self) -> f64 {
        // Up to the half hour, at its longest: what is promised to the next one in the bay must hold.
        self.planned.in_the_bay.map_or(USUAL_HOURS, |hours| (hours.most * 2.0).ceil() / 2.0).clamp(0.5, MOST_HOURS)
    }

    /// Those who may do the work.
    fn people(&self) -> Vec<i64> {
        let may = self.read.people.iter().filter(|person| person.is_here() && Right::Work.is_of(person.role));
        may.map(|person| person.id.0).collect()
    }

    fn slots(&self, person: Option<i64>, but: Option<BookingId>) -> Vec<FreeSlot> {
        let days = WorkDays::of(&self.read.terms);
        let now = Local::now().naive_local();
        let from = self.planned.begun.map_or(now, |day| now.max(day.and_time(NaiveTime::MIN)));
        let wanted = Wanted { hours: self.hours(), from, lift: self.lift, two_people: self.planned.two_people, person };
        let bays: Vec<FreeBay> = self.read.bays.iter().map(|bay| FreeBay { id: bay.id.0, has_lift: bay.has_lift }).collect();
        let booked: Vec<_> = self.read.booked.iter().filter(|booking| Some(booking.id) != but).cloned().collect();
        let mut slots = earliest(&wanted, &days, &bays, &self.people(), &taken(&booked));
        slots.truncate(OFFERED);
        slots
    }

    fn goes_by(&self) -> Vec<String> {
        let hours = self.planned.in_the_bay.map_or_else(
            || format!("No plan says how long it takes: {} h are taken for it.", quarter_hours(USUAL_HOURS)),
            |_| format!("By its plan it takes the bay {} h at the longest.", quarter_hours(self.hours())),
        );
        let parts = match (self.planned.begun, self.planned.not_known) {
            (Some(day), 0) => {
                Some(format!("Not before {}: parts, and threads that soak overnight.", crate::view::work_plan::day_words(day)))
            }
            (Some(_), _) => {
                Some("Some of what it needs has no day yet: say so on Plan, or take a day that is surely late enough.".to_owned())
            }
            (None, _) => None,
        };
        let lift = self.lift.then(|| "It is raised on a lift.".to_owned());
        let two = self.planned.two_people.then(|| "Two people work on it.".to_owned());
        [hours].into_iter().chain(parts).chain(lift).chain(two).collect()
    }
}

pub(crate) async fn ask(database: Data<Database>, worker: Worker, asked: Query<Job>) -> Result<HttpResponse, WebError> {
    let about = about(&database, &worker, asked.job).await?;
    book_page(&worker, &about, None, &first_asked(&about), "", StatusCode::OK)
}

pub(super) fn first_asked(about: &About) -> Asked {
    let slot = about.slots(None, None).first().copied();
    Asked {
        bay: slot.map(|slot| slot.bay),
        begins: slot.map(|slot| slot.begins),
        hours: about.hours(),
        person: slot.and_then(|slot| slot.person),
        second: slot.and_then(|slot| slot.second),
    }
}

pub(super) fn book_page(
    worker: &Worker,
    about: &About,
    booking: Option<BookingId>,
    asked: &Asked,
    refusal: &str,
    status: StatusCode,
) -> Result<HttpResponse, WebError> {
    let hidden = || Hidden::new(&Sheet::blank(worker.units()), 0);
    let named = |id: i64| about.read.people.iter().find(|person| person.id.0 == id).map_or("", |person| person.name.as_str());
    let text = |id: Option<i64>| id.map(|id| id.to_string()).unwrap_or_default();
    let slots = about.slots(None, booking);
    let line = |slot: &FreeSlot| {
        let bay = about.read.bays.iter().find(|bay| bay.id.0 == slot.bay).map_or("", |bay| bay.name.as_str());
        let who: Vec<&str> = [slot.person, slot.second].into_iter().flatten().map(named).collect();
        let who = if who.is_empty() { String::new() } else { format!(", {}", who.join(" and ")) };
        let ends = if slot.ends.date() == slot.begins.date() { "%-H:%M" } else { "%a %b %-d %-H:%M" };
        SlotLine {
            words: format!("{bay}, {} to {}{who}", slot.begins.format("%a %b %-d, %-H:%M"), slot.ends.format(ends)),
            bay: slot.bay,
            day: slot.begins.date().to_string(),
            time: slot.begins.format("%H:%M").to_string(),
            hours: about.hours().to_string(),
            person: text(slot.person),
            second: text(slot.second),
            hidden: hidden(),
        }
    };
    let may_work = about.people();
    let people = about.read.people.iter().filter(|person| may_work.contains(&person.id.0));
    let template = BookPage {
        shell: Shell::new(worker, "Book a bay", BAYS),
        title: format!("{} {}", about.number.0, about.label),
        number: about.number.0,
        action: booking.map_or_else(|| "/bays/book".to_owned(), |id| format!("/bays/bookings/{}", id.0)),
        goes_by: about.goes_by(),
        no_slot: slots.is_empty(),
        slots: slots.iter().map(line).collect(),
        bays: about.read.bays.iter().map(|bay| (bay.id.0, bay.name.clone(), Some(bay.id.0) == asked.bay)).collect(),
        people: people
            .map(|person| {
                let id = person.id.0;
                (id, person.name.clone(), Some(id) == asked.person, Some(id) == asked.second)
            })
            .collect(),
        day: asked.begins.map(|at| at.date().to_string()).unwrap_or_default(),
        time: asked.begins.map(|at| at.format("%H:%M").to_string()).unwrap_or_default(),
        hours: asked.hours.to_string(),
        refusal: refusal.to_owned(),
        changes: booking.is_some(),
        hidden: hidden(),
        strike_hidden: hidden(),
        may_book: worker.may(Right::Plan),
    };
    Ok(page(status, &template)?.answer())
}

/// What a form asks for.
pub(super) fn asked_of(sheet: &Sheet) -> Asked {
    let id = |name: &str| sheet.text(name).parse::<i64>().ok();
    let time = sheet.text("time").parse::<NaiveTime>().or_else(|_| NaiveTime::parse_from_str(sheet.text("time"), "%H:%M"));
    let begins = DayEntry::read(sheet.text("day")).zip(time.ok()).map(|(day, time)| day.and_time(time));
    Asked {
        bay: id("bay"),
        begins,
        hours: sheet.text("hours").replace(',', ".").parse::<f64>().unwrap_or(f64::NAN),
        person: id("person"),
        second: id("second"),
    }
}

/// The slot that is asked for, or what is wrong with it.
pub(super) fn slot_of(asked: &Asked, days: &WorkDays) -> Result<Slot, String> {
    let bay = asked.bay.ok_or("Pick a bay.")?;
    let begins = asked.begins.ok_or("Say the day and the time at which it is driven in.")?;
    if !(0.25..=MOST_HOURS).contains(&asked.hours) {
        return Err(format!("Hours are a number from 0.25 to {MOST_HOURS}."));
    }
    if days.at_work(begins) != begins {
        return Err("The shop does not work then. Take a time within its hours.".to_owned());
    }
    if asked.second.is_some() && (asked.second == asked.person || asked.person.is_none()) {
        return Err("Whoever helps is somebody else than who does it.".to_owned());
    }
    let person = |id: Option<i64>| id.map(PersonId);
    Ok(Slot {
        bay: BayId(bay),
        begins_at: utc(begins),
        ends_at: utc(days.ends(begins, asked.hours)),
        person: person(asked.person),
        second: person(asked.second),
    })
}

/// Books it.
pub(crate) async fn put(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let number = sheet.text("job").parse().map_err(|error| WebError::Malformed(format!("no job: {error}")))?;
    let about = about(&database, &worker, number).await?;
    let asked = asked_of(&sheet);
    let slot = match slot_of(&asked, &WorkDays::of(&about.read.terms)) {
        Ok(slot) => slot,
        Err(refusal) => return book_page(&worker, &about, None, &asked, &refusal, StatusCode::UNPROCESSABLE_ENTITY),
    };
    let of = about.job;
    let done = once(&database, &worker, &sheet, move |connection, person| {
        job::must_be_open(connection, person.shop_id, of)?;
        booking::put(connection, person, of, &slot).map(|_| ())
    });
    match done.await {
        Err(WebError::Store(StoreError::Overlaps { what })) => {
            book_page(&worker, &about, None, &asked, &taken_then(what), StatusCode::CONFLICT)
        }
        done => done.map(|()| see_other(format!("{BAYS}?week={}", local(slot.begins_at).date()))),
    }
}

/// Why a slot is not to be had.
pub(super) fn taken_then(what: &str) -> String {
    format!("Nothing was booked: at that time {what} is taken. These are free.")
}
