//! Lists of jobs: open, finished, found; what is due; whose vehicles they are; and what happens, told to who listens.

use std::time::Duration;

use chrono::{NaiveDate, TimeDelta, Utc};
use diesel::{Connection as _, RunQueryDsl as _};
use wise_badger_casework::entry::{Answer, TickEntry};
use wise_badger_casework::survey::VehicleClass;
use wise_badger_store::customer::{self, CustomerWords};
use wise_badger_store::happening::Happening;
use wise_badger_store::job::{self, Hands};
use wise_badger_store::job_list::{self, Gathered, Which};
use wise_badger_store::person::Person;
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::vehicle::{self, Whose};
use wise_badger_store::{JobId, JobNumber, PgConnection, ShopId, StoreError, due, wrench_tick};

use crate::{TestShop, intake, somebody};

const RULES: &str = "these";
const DUES: [&str; 3] = ["lug_nuts", "heights", "parts"];

fn numbers(connection: &mut PgConnection, shop: ShopId, which: &Which) -> Vec<i32> {
    let listed = job_list::newest(connection, shop, which, RULES, 100, None).unwrap();
    listed.into_iter().map(|listed| listed.job.number.0).collect()
}

fn found(connection: &mut PgConnection, shop: ShopId, words: &[&str]) -> Vec<i32> {
    numbers(connection, shop, &Which::Found(words.iter().map(|word| (*word).to_owned()).collect()))
}

fn day(day: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(2030, 6, day).unwrap()
}

fn gathered(shop: ShopId, job: JobId, dues: Vec<(&'static str, NaiveDate)>, searched: &str) -> Gathered {
    let standing = serde_json::json!({"so": "far"});
    Gathered { shop, job, revision: 1, beside: 0, standing, dues, searched: searched.to_owned(), ledger: Vec::new() }
}

fn whose(customer: &str, phone: &str, plate: &str) -> Whose {
    Whose { customer: customer.to_owned(), phone: phone.to_owned(), plate: plate.to_owned() }
}

#[test]
fn jobs_are_open_or_finished_and_found_by_every_word() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let shop = person.shop_id;
    let second = job::open(connection, person, &intake("Blue flatbed 100% loaded_up")).unwrap();
    job::open(connection, &stranger, &intake("Blue flatbed of others")).unwrap();
    job::set_finished(connection, person, job.id, true).unwrap();
    assert_eq!(numbers(connection, shop, &Which::Open), [2]);
    assert_eq!(numbers(connection, shop, &Which::Finished), [1]);
    assert_eq!(found(connection, shop, &["flatbed", "blue"]), [2]);
    assert_eq!(found(connection, shop, &["100%"]), [2], "a sign stands for itself");
    assert_eq!(found(connection, shop, &["1_0"]), Vec::<i32>::new());
    assert_eq!(found(connection, shop, &["blue", "others"]), Vec::<i32>::new(), "nothing of another shop");
    job_list::keep_gathered(connection, RULES, &[gathered(shop, second.id, vec![], "blue flatbed ab12cd 555 0199 lb-150")])
        .unwrap();
    for words in [["ab12cd"], ["0199"], ["lb-150"]] {
        assert_eq!(found(connection, shop, &words), [2], "{words:?}");
    }
}

/// One plan kept for all words would go through the letters of every shop's jobs: a search leaves none behind, and a list does.
#[test]
fn a_search_is_planned_for_its_own_words() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, .. } = &mut bench;
    #[derive(diesel::QueryableByName)]
    struct Kept {
        #[diesel(sql_type = diesel::sql_types::BigInt)]
        kept: i64,
    }
    let kept = |connection: &mut PgConnection| {
        let asked = "SELECT count(*) AS kept FROM pg_prepared_statements WHERE statement LIKE '%job_standings%'";
        diesel::sql_query(asked).get_result::<Kept>(connection).unwrap().kept
    };
    for words in [["flatbed"], ["van"], ["no such thing"]] {
        found(connection, person.shop_id, &words);
    }
    assert_eq!(kept(connection), 0);
    numbers(connection, person.shop_id, &Which::Open);
    assert_eq!(kept(connection), 1);
}

/// Twenty shops with 400 jobs each, copies of the first one's.
const MANY: &str = "
    INSERT INTO shops (name, handle) SELECT 'Shop ' || n, 'other-shop-' || n FROM generate_series(1, 19) n;
    INSERT INTO people (shop_id, name, trade, role)
      SELECT id, 'Somebody', 'Lead', 'owner' FROM shops WHERE handle LIKE 'other-shop-%';
    INSERT INTO jobs (shop_id, number, label, vehicle_class, rear_wheels, wheelbase, front_rating, rear_rating, revised_by, opened_by,
                      finished_at, searched)
      SELECT p.shop_id, 1000 + n, 'Truck ' || n, j.vehicle_class, j.rear_wheels, j.wheelbase, j.front_rating, j.rear_rating, p.id, p.id,
             CASE WHEN n % 10 > 0 THEN now() END, 'route truck ' || n
        FROM people p, generate_series(1, 400) n, (SELECT * FROM jobs ORDER BY id LIMIT 1) j;
    INSERT INTO job_standings (job_id, shop_id, revision, rules, standing)
      SELECT id, shop_id, revision, 'these', '{}' FROM jobs WHERE number > 1000;
    INSERT INTO job_dues (shop_id, job_id, what, day)
      SELECT shop_id, id, 'heights', DATE '2030-06-01' + number % 400 FROM jobs WHERE number > 1000;
    ANALYZE";

/// However many shops there are, a list is found by an index: PostgreSQL's own count of tables read from end to end stays as it was.
#[test]
fn no_list_reads_through_the_jobs_of_other_shops() {
    let database = TestDatabase::create();
    let store = database.open();
    let connection = &mut *store.connection().unwrap();
    let person = somebody(connection, "Shop", "Ada");
    let job = job::open(connection, &person, &intake("first")).unwrap();
    let whose = whose("M. Customer", "555 0123", "AB 12");
    let vehicle = vehicle::tell(connection, &person, job.id, VehicleClass::Van, &whose).unwrap().unwrap();
    database.tell(MANY);
    let scans = |connection: &mut PgConnection| -> Vec<String> {
        diesel::sql_query("SELECT pg_stat_force_next_flush()").execute(connection).unwrap();
        database.ask(
            "SELECT relname || ' ' || seq_scan AS line FROM pg_stat_user_tables
              WHERE relname IN ('jobs', 'job_standings', 'job_dues') ORDER BY relname",
        )
    };
    let before = scans(connection);
    let shop = person.shop_id;
    for which in [Which::Open, Which::Finished, Which::OfVehicle(vehicle)] {
        assert!(!numbers(connection, shop, &which).is_empty() || which == Which::Finished, "{which:?}");
    }
    assert_eq!(found(connection, shop, &["truck", "399"]), [1399]);
    assert_eq!(found(connection, shop, &["route"]).len(), 100);
    assert_eq!(job_list::numbers(connection, shop, 50, None).unwrap().len(), 50);
    assert_eq!(due::until(connection, shop, &DUES, day(10), 20).unwrap().len(), 10);
    assert_eq!(vehicle::visits(connection, shop, vehicle).unwrap().len(), 1);
    assert_eq!(job_list::not_reckoned_among(connection, "others", shop, &[JobNumber(1001)]).unwrap().len(), 1);
    assert_eq!(scans(connection), before);
}

#[test]
fn where_a_job_stands_counts_only_at_its_revision_and_by_these_rules() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, job, .. } = &mut bench;
    let known = |connection: &mut PgConnection, rules: &str| {
        job_list::newest(connection, person.shop_id, &Which::Open, rules, 9, None).unwrap()[0].standing.is_some()
    };
    assert!(!known(connection, RULES));
    job_list::keep_gathered(connection, RULES, &[gathered(person.shop_id, job.id, vec![], "")]).unwrap();
    assert!(known(connection, RULES) && !known(connection, "others"));
    assert!(job_list::not_reckoned(connection, RULES, 9).unwrap().is_empty());
    assert_eq!(job_list::not_reckoned(connection, "others", 9).unwrap().len(), 1);
    job::revise(connection, person, job.id, 1, job::Closed::Refuses).unwrap();
    assert!(!known(connection, RULES), "saved since");
}

/// What was read before a tick, and is kept after it, is out of date: the tick counts in no revision.
#[test]
fn what_was_gathered_before_a_tick_does_not_stand_after_it() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, job, .. } = &mut bench;
    let read_before = gathered(person.shop_id, job.id, vec![("lug_nuts", day(3))], "");
    let tick = TickEntry { step: "rear.chocked".to_owned(), answer: Answer::Yes, note: String::new() };
    wrench_tick::take(connection, person, job.id, "device-a-1", Utc::now(), &tick).unwrap();
    job_list::keep_gathered(connection, RULES, std::slice::from_ref(&read_before)).unwrap();
    assert_eq!(job_list::not_reckoned(connection, RULES, 9).unwrap().len(), 1, "it is gathered anew");
    assert_eq!(due::until(connection, person.shop_id, &DUES, day(30), 9).unwrap(), []);
    job_list::keep_gathered(connection, RULES, &[Gathered { beside: 1, ..read_before }]).unwrap();
    assert!(job_list::not_reckoned(connection, RULES, 9).unwrap().is_empty());
}

/// Whoever gathers waits for nobody who saves, so that neither is ever turned away for the other.
#[test]
fn gathering_leaves_out_what_somebody_is_saving_just_now() {
    let database = TestDatabase::create();
    let store = database.open();
    let (saving, gathering) = (&mut *store.connection().unwrap(), &mut *store.connection().unwrap());
    let person = somebody(saving, "Shop", "Ada");
    let jobs = ["first", "second"].map(|label| job::open(saving, &person, &intake(label)).unwrap().id);
    let both = jobs.map(|job| gathered(person.shop_id, job, vec![], "found by this"));
    saving
        .transaction::<_, StoreError, _>(|saving| {
            job::must_be_open(saving, person.shop_id, jobs[0])?;
            gathering.transaction::<_, StoreError, _>(|gathering| job_list::keep_gathered(gathering, RULES, &both))?;
            let tick = TickEntry { step: "rear.chocked".to_owned(), answer: Answer::Yes, note: String::new() };
            wrench_tick::take(saving, &person, jobs[0], "device-a-1", Utc::now(), &tick).map(|_| ())
        })
        .unwrap();
    assert_eq!(found(saving, person.shop_id, &["found by this"]), [2]);
    let unknown = job_list::not_reckoned(saving, RULES, 9).unwrap();
    assert_eq!(unknown.iter().map(|job| job.id).collect::<Vec<_>>(), [jobs[0]]);
}

#[test]
fn what_is_due_is_due_until_it_is_done_or_declined() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let shop = person.shop_id;
    let dues = vec![("lug_nuts", day(3)), ("heights", day(20))];
    job_list::keep_gathered(connection, RULES, &[gathered(shop, job.id, dues, "")]).unwrap();
    job::set_finished(connection, person, job.id, true).unwrap();
    let until = |connection: &mut PgConnection, last: u32| -> Vec<(String, Option<String>)> {
        let due = due::until(connection, shop, &DUES, day(last), 9).unwrap();
        due.into_iter().map(|due| (due.what, due.mark.map(|mark| mark.mark))).collect()
    };
    assert_eq!(until(connection, 2), []);
    assert_eq!(until(connection, 3), [("lug_nuts".to_owned(), None)]);
    due::mark(connection, person, job.number, "lug_nuts", "called", "comes Thursday").unwrap();
    assert_eq!(until(connection, 3), [("lug_nuts".to_owned(), Some("called".to_owned()))], "called is not done");
    due::mark(connection, person, job.number, "lug_nuts", "done", "").unwrap();
    assert_eq!(until(connection, 30), [("heights".to_owned(), None)]);
    assert!(matches!(due::mark(connection, person, job.number, "lug_nuts", "eaten", ""), Err(StoreError::NotFound(_))));
    assert!(matches!(due::mark(connection, person, JobNumber(9), "heights", "done", ""), Err(StoreError::NotFound(_))));
    assert!(due::mark(connection, &stranger, job.number, "heights", "done", "").is_err());
    assert!(due::until(connection, stranger.shop_id, &DUES, day(30), 9).unwrap().is_empty());
}

/// What nobody answers is left out before what is due today is; and only what is asked for is told.
#[test]
fn of_much_that_is_due_the_longest_overdue_is_left_out() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, job, .. } = &mut bench;
    let dues = vec![("lug_nuts", day(3)), ("parts", day(9)), ("heights", day(20))];
    job_list::keep_gathered(connection, RULES, &[gathered(person.shop_id, job.id, dues, "")]).unwrap();
    let until = |connection: &mut PgConnection, of: &[&str], most: i64| -> Vec<String> {
        let due = due::until(connection, person.shop_id, of, day(20), most).unwrap();
        due.into_iter().map(|due| due.what).collect()
    };
    assert_eq!(until(connection, &DUES, 9), ["lug_nuts", "parts", "heights"]);
    assert_eq!(until(connection, &DUES, 2), ["parts", "heights"]);
    assert_eq!(until(connection, &["parts"], 1), ["parts"]);
}

#[test]
fn a_plate_that_is_known_is_the_same_vehicle_however_it_is_spaced() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let class = VehicleClass::HalfTonPickup;
    let tell = |connection: &mut PgConnection, by: &Person, job: JobId, whose: &Whose| {
        vehicle::tell(connection, by, job, class, whose).unwrap()
    };
    assert_eq!(tell(connection, person, job.id, &Whose::default()), None, "nothing said, nothing known");
    let first = tell(connection, person, job.id, &whose("M. Customer", "(555) 0199", "ab 12-cd")).unwrap();
    let second = job::open(connection, person, &intake("again")).unwrap();
    assert_eq!(tell(connection, person, second.id, &whose("", "", "AB12CD")), Some(first));
    let again = vehicle::find(connection, person.shop_id, first).unwrap();
    assert_eq!(again.customer.as_ref().map(|of| of.name.as_str()), Some("M. Customer"), "it stays the customer's");
    assert_eq!(vehicle::visits(connection, person.shop_id, first).unwrap().len(), 2);
    let other = job::open(connection, person, &intake("other")).unwrap();
    let trailer = tell(connection, person, other.id, &whose("m. customer", "555 0199", "")).unwrap();
    assert_ne!(trailer, first);
    let both = vehicle::find(connection, person.shop_id, trailer).unwrap().customer.unwrap();
    assert_eq!(both.id, again.customer.unwrap().id, "one customer of one name and telephone");
    let theirs = job::open(connection, &stranger, &intake("theirs")).unwrap();
    let elsewhere = vehicle::tell(connection, &stranger, theirs.id, class, &whose("", "", "AB12CD")).unwrap().unwrap();
    assert_ne!(elsewhere, first, "a plate is known in its own shop");
    assert!(vehicle::find(connection, stranger.shop_id, first).is_err());
    vehicle::comes_back_from(connection, person, second.id, Some(job.number)).unwrap();
    assert_eq!(vehicle::comebacks(connection, person.shop_id, second.id).unwrap().0, Some(job.number));
    assert_eq!(vehicle::comebacks(connection, person.shop_id, job.id).unwrap().1, [second.number]);
    assert!(vehicle::comes_back_from(connection, person, second.id, Some(second.number)).is_err(), "not from itself");
}

/// Whoever was here since a day is not long gone, whichever of their vehicles it was with; nor is who is erased, or another shop's.
#[test]
fn customers_who_were_not_here_since_a_day_are_found_the_longest_gone_first() {
    let database = TestDatabase::create();
    let store = database.open();
    let connection = &mut *store.connection().unwrap();
    let (person, stranger) = (somebody(connection, "Shop", "Ada"), somebody(connection, "Elsewhere", "Bo"));
    for (of, whose) in
        [(&person, whose("First", "1", "A 1")), (&person, whose("Second", "2", "B 2")), (&stranger, whose("Other", "3", "C 3"))]
    {
        let job = job::open(connection, of, &intake("visit")).unwrap();
        vehicle::tell(connection, of, job.id, VehicleClass::Van, &whose).unwrap();
    }
    let words = CustomerWords { name: "Only called".to_owned(), ..CustomerWords::default() };
    customer::put(connection, &person, &words).unwrap();
    let gone = |connection: &mut _, days: i64, most: i64| {
        let since = Utc::now() + TimeDelta::days(days);
        let gone = customer::not_here_since(connection, person.shop_id, since, most).unwrap();
        gone.into_iter().map(|of| of.name).collect::<Vec<_>>()
    };
    assert_eq!(gone(connection, -1, 9), Vec::<String>::new(), "all were here today");
    assert_eq!(gone(connection, 1, 9), ["First", "Second", "Only called"]);
    assert_eq!(gone(connection, 1, 2).len(), 2);
    let first = customer::not_here_since(connection, person.shop_id, Utc::now() + TimeDelta::days(1), 1).unwrap().remove(0).id;
    customer::erase(connection, &person, first).unwrap();
    assert_eq!(gone(connection, 1, 9), ["Second", "Only called"]);
}

#[test]
fn what_is_written_of_a_customer_is_changed_once_and_erased_without_a_trace() {
    let database = TestDatabase::create();
    let store = database.open();
    let connection = &mut *store.connection().unwrap();
    let person = somebody(connection, "Shop", "Ada");
    let job = job::open(connection, &person, &intake("first")).unwrap();
    let id = vehicle::tell(connection, &person, job.id, VehicleClass::Van, &whose("Secretname", "0177 1234", "ZZ 99")).unwrap();
    let of = vehicle::find(connection, person.shop_id, id.unwrap()).unwrap().customer.unwrap();
    let words = CustomerWords { name: "Secretname".to_owned(), phone: "0177 9999".to_owned(), note: "likes it level".to_owned() };
    customer::change(connection, &person, of.id, of.revision, &words).unwrap();
    let stale = customer::change(connection, &person, of.id, of.revision, &words);
    assert!(matches!(stale, Err(StoreError::StaleRow { .. })), "{stale:?}");
    let beside = job_list::newest(connection, person.shop_id, &Which::Open, RULES, 9, None).unwrap()[0].job.beside;
    let told = Gathered { beside, ..gathered(person.shop_id, job.id, vec![], "secretname 0177") };
    job_list::keep_gathered(connection, RULES, &[told]).unwrap();
    assert_eq!(found(connection, person.shop_id, &["secretname"]), [1]);
    customer::erase(connection, &person, of.id).unwrap();
    let tables = "SELECT c.table_name AS line FROM information_schema.tables c WHERE table_schema = 'public' AND table_name NOT LIKE '\\_\\_%'";
    for table in database.ask(tables) {
        for word in ["Secretname", "secretname", "0177", "ZZ 99", "ZZ99", "likes it level"] {
            let told = database.ask(&format!("SELECT t::TEXT AS line FROM {table} t WHERE t::TEXT LIKE '%{word}%'"));
            assert!(told.is_empty(), "{word} is in {table}: {told:?}");
        }
    }
    assert!(job::find(connection, person.shop_id, job.number).is_ok(), "the job stays");
}

#[test]
fn who_has_a_job_and_when_it_is_promised_goes_on_record() {
    let mut bench = TestShop::new();
    let (colleague, stranger) = (bench.colleague(), bench.stranger());
    let TestShop { connection, person, job, .. } = &mut bench;
    let hands = Hands { assigned_to: Some(colleague.id), promised_on: Some(day(4)) };
    job::set_hands(connection, person, job.id, hands).unwrap();
    assert_eq!(job::find(connection, person.shop_id, job.number).unwrap().job.hands, hands);
    let told = wise_badger_store::history::of_job(connection, person.shop_id, job.id, Utc::now() + chrono::TimeDelta::days(1));
    let told = told.unwrap();
    assert!(
        told.events.iter().any(|event| event.deed == wise_badger_store::history::Deed::Handed && event.differences.len() == 2)
    );
    let theirs = Hands { assigned_to: Some(stranger.id), promised_on: None };
    assert!(matches!(job::set_hands(connection, person, job.id, theirs), Err(StoreError::NotFound("person"))));
}

#[tokio::test]
async fn what_is_kept_is_told_to_who_listens_and_what_is_undone_is_not() {
    let database = TestDatabase::create();
    let (here, there) = (database.open(), database.open());
    let person = somebody(&mut here.connection().unwrap(), "Shop", "Ada");
    let mut heard = there.happenings();
    tokio::time::sleep(Duration::from_millis(600)).await;
    let who = person.clone();
    let undone: Result<(), StoreError> = here
        .write(move |connection| {
            job::open(connection, &who, &intake("undone"))?;
            Err(StoreError::Finished)
        })
        .await;
    assert!(undone.is_err());
    let who = person.clone();
    here.write(move |connection| job::open(connection, &who, &intake("kept"))).await.unwrap();
    let told = tokio::time::timeout(Duration::from_secs(10), heard.recv()).await.expect("something is heard").unwrap();
    assert_eq!(told, Happening::In { shop: person.shop_id, job: Some(JobNumber(1)), by: person.id });
    // The connection is lost, and what came meanwhile is made up for.
    database.tell(
        "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()",
    );
    let told = tokio::time::timeout(Duration::from_secs(15), heard.recv()).await.expect("it listens again").unwrap();
    assert_eq!(told, Happening::Unheard);
}
