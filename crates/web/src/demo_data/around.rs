//! What stands around the demo shop's jobs: whose vehicles they are, who has them, its bays and what is booked in them. All of it made up.

use chrono::{Datelike, Days, Local, NaiveDate, NaiveDateTime, NaiveTime, TimeZone, Utc, Weekday};
use wise_badger_casework::bay_plan::WorkDays;
use wise_badger_casework::work_plan::ShopTerms;
use wise_badger_store::booking::{self, Slot};
use wise_badger_store::job::{self, Hands};
use wise_badger_store::person::Person;
use wise_badger_store::vehicle::{self, Whose};
use wise_badger_store::{BayId, JobNumber, PgConnection, bay};

use super::DemoError;

/// Whose the vehicles are: job, customer, telephone, plate.
const WHOSE: [(i32, &str, &str, &str); 8] = [
    (1, "Larkfield Grounds", "555 0142", "DEMO 101"),
    (2, "Post & Rail Fencing", "555 0178", "DEMO 202"),
    (4, "Ferrow Clinic on Wheels", "555 0119", "DEMO 404"),
    (5, "Larkfield Grounds", "555 0142", "DEMO 505"),
    (6, "T. Quillon", "555 0156", "DEMO 606"),
    (9, "M. Sandoval-Reyes", "555 0131", "DEMO 909"),
    (10, "Hollis Bakery Route", "555 0187", "DEMO 110"),
    (11, "J. Abernathy", "555 0163", "DEMO 111"),
];

/// Who has them, and in how many days from now they are promised.
const HANDS: [(i32, &str, Option<u64>); 5] =
    [(3, "Tuck", None), (4, "Odalys", Some(5)), (5, "Bram", Some(2)), (6, "Bram", Some(12)), (11, "Bram", Some(10))];

/// The people of the shop that are named above.
pub(super) struct Crew<'a> {
    pub(super) lead: &'a Person,
    pub(super) technician: &'a Person,
    pub(super) apprentice: &'a Person,
}

pub(super) fn load(connection: &mut PgConnection, crew: &Crew<'_>, terms: &ShopTerms) -> Result<(), DemoError> {
    for (number, customer, phone, plate) in WHOSE {
        let found = job::find(connection, crew.lead.shop_id, JobNumber(number))?;
        let whose = Whose { customer: customer.to_owned(), phone: phone.to_owned(), plate: plate.to_owned() };
        vehicle::tell(connection, crew.lead, found.job.id, found.intake.class, &whose)?;
    }
    let today = Local::now().date_naive();
    for (number, name, days) in HANDS {
        let found = job::find(connection, crew.lead.shop_id, JobNumber(number))?;
        let people = [crew.lead, crew.technician, crew.apprentice];
        let has = people.into_iter().find(|person| person.name == name).map(|person| person.id);
        let hands = Hands { assigned_to: has, promised_on: days.map(|days| today + Days::new(days)) };
        job::set_hands(connection, crew.lead, found.job.id, hands)?;
    }
    bays(connection, crew, terms, today)
}

fn bays(connection: &mut PgConnection, crew: &Crew<'_>, terms: &ShopTerms, today: NaiveDate) -> Result<(), DemoError> {
    let long = bay::put(connection, crew.lead, "Long bay", false)?;
    let lift = bay::put(connection, crew.lead, "Lift 1", true)?;
    bay::put(connection, crew.lead, "Lift 2", true)?;
    let days = WorkDays::of(terms);
    let monday = today - Days::new(u64::from(today.weekday().num_days_from_monday()));
    let monday = if matches!(today.weekday(), Weekday::Sat | Weekday::Sun) { monday + Days::new(7) } else { monday };
    let at = |day: u64, hour: u32| (monday + Days::new(day)).and_time(NaiveTime::from_hms_opt(hour, 0, 0).unwrap_or_default());
    let mut book = |number: i32, bay: BayId, begins: NaiveDateTime, hours: f64, person: &Person, second: Option<&Person>| {
        let found = job::find(connection, crew.lead.shop_id, JobNumber(number))?;
        let utc = |at: NaiveDateTime| {
            Local.from_local_datetime(&at).earliest().map_or_else(|| at.and_utc(), |at| at.with_timezone(&Utc))
        };
        let slot = Slot {
            bay,
            begins_at: utc(begins),
            ends_at: utc(days.ends(begins, hours)),
            person: Some(person.id),
            second: second.map(|second| second.id),
        };
        booking::put(connection, crew.lead, found.job.id, &slot).map(|_| ())
    };
    book(11, lift, at(8, 9), 6.0, crew.technician, None)?;
    book(9, lift, at(1, 9), 6.0, crew.technician, None)?;
    book(5, long, at(2, 13), 7.0, crew.technician, Some(crew.apprentice))?;
    book(4, long, at(0, 8), 5.0, crew.lead, None)?;
    Ok(())
}
