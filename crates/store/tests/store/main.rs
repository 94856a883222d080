//! The store against a real PostgreSQL.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod backups;
mod bookings;
mod calls;
mod earlier;
mod entries;
mod jobs;
mod ledger;
mod opening;
mod papers;
mod people;
mod readings;
mod record;
mod saving;
mod schema;
mod sheets;
mod shelf;
mod sign_in;
mod wrench_ticks;
mod yard;

use wise_badger_casework::entry::{LoadEntry, TapeSheetEntry, Typed, UnitWord};
use wise_badger_casework::intake::Intake;
use wise_badger_casework::survey::{LoadState, Manner, RearWheels, VehicleClass};
use wise_badger_store::job::{self, Job};
use wise_badger_store::person::{self, Person};
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{PgConnection, Role, shop};

const INCH: f64 = 0.0254;
const POUND: f64 = 4.448_221_615_260_5;

/// A shop with somebody in it and a job, in a transaction that is never kept.
struct TestShop {
    connection: PgConnection,
    person: Person,
    job: Job,
    database: TestDatabase,
}

impl TestShop {
    fn new() -> Self {
        let database = TestDatabase::create();
        let mut connection = database.scratch_connection();
        let person = somebody(&mut connection, "Shop under test", "Ada");
        let job = job::open(&mut connection, &person, &intake("first")).unwrap();
        TestShop { connection, person, job, database }
    }

    fn colleague(&mut self) -> Person {
        person::take_on(&mut self.connection, self.person.shop_id, "Bo", "Apprentice", Role::Apprentice).unwrap()
    }

    fn stranger(&mut self) -> Person {
        somebody(&mut self.connection, "Another shop", "Cy")
    }
}

fn somebody(connection: &mut PgConnection, shop: &str, name: &str) -> Person {
    let shop = shop::open(connection, shop).unwrap();
    person::take_on(connection, shop.id, name, "Technician", Role::Owner).unwrap()
}

fn inches(text: &str, value: f64) -> Typed {
    Typed { text: text.to_owned(), unit: UnitWord::In, si: value * INCH }
}

fn pounds(text: &str, value: f64) -> Typed {
    Typed { text: text.to_owned(), unit: UnitWord::Lb, si: value * POUND }
}

fn intake(label: &str) -> Intake {
    Intake {
        label: label.to_owned(),
        class: VehicleClass::HalfTonPickup,
        rear_wheels: RearWheels::Single,
        wheelbase: inches("145", 145.0),
        axle_spread: None,
        equalised: true,
        front_rating: pounds("3,900", 3900.0),
        rear_rating: pounds("4,100", 4100.0),
        gross_rating: None,
        kerb_front: None,
        kerb_rear: Some(pounds("2,300 lb", 2300.0)),
    }
}

/// Both states rolled and bounced, with what was put on.
fn with_load(load: Option<LoadEntry>) -> TapeSheetEntry {
    let mut tape = TapeSheetEntry::default();
    tape.states.iter_mut().for_each(|state| state.manner = Manner::Rolled);
    tape.with_load(LoadState::Loaded, load)
}
