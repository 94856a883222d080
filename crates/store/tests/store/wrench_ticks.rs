//! Ticks of the wrench card: none is lost, none is doubled, and no other shop sees them.

use chrono::Utc;
use wise_badger_casework::entry::{Answer, TickEntry};
use wise_badger_store::wrench_tick::{Taken, of_job, take};
use wise_badger_store::{StoreError, job};

use crate::TestShop;

fn tick(step: &str, answer: Answer) -> TickEntry {
    TickEntry { step: step.to_owned(), answer, note: "by the left wheel".to_owned() }
}

#[test]
fn a_tick_that_is_sent_twice_is_one_and_all_of_them_keep_their_order() {
    let mut shop = TestShop::new();
    let (connection, person, job) = (&mut shop.connection, &shop.person, &shop.job);
    let (chocked, wheels) = (tick("rear.chocked", Answer::Yes), tick("rear.wheels_off", Answer::Done));
    for (key, entry, taken) in [
        ("device-a-1", &chocked, Taken::New),
        ("device-b-1", &wheels, Taken::New),
        ("device-a-1", &chocked, Taken::Again),
        ("device-a-2", &tick("rear.chocked", Answer::TakenBack), Taken::New),
    ] {
        assert_eq!(take(connection, person, job.id, key, Utc::now(), entry).unwrap(), taken, "{key}");
    }
    let kept = of_job(connection, person.shop_id, job.id).unwrap();
    let keys: Vec<&str> = kept.iter().map(|tick| tick.device_key.as_str()).collect();
    assert_eq!(keys, ["device-a-1", "device-b-1", "device-a-2"]);
    assert_eq!(kept[0].entry.0, chocked);
    let revision = job::find(connection, person.shop_id, job.number).unwrap().job.revision;
    assert_eq!(revision, job.revision, "a tick is none of the job's revisions: two people can tick");
}

#[test]
fn a_finished_job_takes_no_tick_and_a_stranger_sees_none() {
    let mut shop = TestShop::new();
    let stranger = shop.stranger();
    let (connection, person, job) = (&mut shop.connection, &shop.person, &shop.job);
    let done = tick("driven", Answer::Done);
    take(connection, person, job.id, "device-a-1", Utc::now(), &done).unwrap();
    assert!(of_job(connection, stranger.shop_id, job.id).unwrap().is_empty());
    assert!(matches!(take(connection, &stranger, job.id, "device-c-1", Utc::now(), &done), Err(StoreError::NotFound(_))));
    job::set_finished(connection, person, job.id, true).unwrap();
    assert!(matches!(take(connection, person, job.id, "device-a-2", Utc::now(), &done), Err(StoreError::Finished)));
    assert_eq!(take(connection, person, job.id, "device-a-1", Utc::now(), &done).unwrap(), Taken::Again);
}
