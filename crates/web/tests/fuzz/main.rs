//! Hostile requests by the thousand at every row of the table of addresses, against the program as it is run.
//!
//! `./check` sends a few; `scripts/fuzz` sends as many as it is told, from the seed it is told. No answer may be a fault of the
//! program's or come late, nothing may panic, memory must come back, and afterwards every job of the demo shop still opens.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod bombs;
mod requests;
mod tally;

#[path = "../support/dice.rs"]
mod dice;
#[path = "../support/program.rs"]
mod program;

use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::{Duration, Instant};

use dice::{Dice, told};
use program::Program;
use requests::{Attacker, Forms};
use tally::Tally;
use wise_badger_store::test_support::TestDatabase;

/// Attackers at once.
const ATTACKERS: u64 = 4;
/// Most memory that may not have come back at the end, in MB.
const MOST_KEPT_MB: u64 = 50;

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn no_request_however_hostile_brings_anything_down() {
    let (requests, seed) = (told("FUZZ_REQUESTS", 1_200), told("FUZZ_SEED", 20_261_127));
    // How late an answer may be is asked where the program is built to be quick and has the machine to itself.
    let latest = told("FUZZ_LATEST_MS", 0);
    if let Ok(address) = std::env::var("FUZZ_ADDRESS") {
        let tally = Arc::new(Tally::default());
        attack(&address, requests, seed, &Arc::default(), &tally).await;
        println!("{}\n{:#?}\n{:#?}", tally.report(), tally.faults(), tally.late(latest.max(2_000)));
        return;
    }
    let database = TestDatabase::create();
    let folder = tempfile::tempdir().unwrap();
    let program = Program::serve(&database.url(), "127.0.0.1:0", &folder.path().join("log")).expect("it serves");
    stranger(&database);
    let forms = Arc::new(Forms::default());
    let tally = Arc::new(Tally::default());
    // Warm: everything that is made once has been made before memory is looked at.
    let ada = Attacker::sign_on(&program.address, 1, Dice::new(seed), forms.clone()).await;
    ada.harvest_all().await;
    bombs::uploads(&program.address, 1).await;
    let before = program.memory();
    println!("seed {seed}, {requests} requests at {}, {before} MB", program.address);
    let slow_picture = attack(&program.address, requests, seed, &forms, &tally).await;
    println!("{}", tally.report());
    // What is given back to the system is given back some moments later.
    let mut after = program.memory();
    for _ in 0..20 {
        if after <= before + MOST_KEPT_MB {
            break;
        }
        tokio::time::sleep(Duration::from_millis(500)).await;
        after = program.memory();
    }
    println!("{before} MB before, {after} MB after; slowest picture {} ms", slow_picture.as_millis());
    let opened = ada.open_all().await;
    let logged = program.logged();
    let panics: Vec<&str> = logged.lines().filter(|line| line.contains("panicked at")).collect();
    assert!(panics.is_empty(), "{panics:#?}");
    let faults: Vec<&str> = logged.lines().filter(|line| line.contains("ERROR")).take(10).collect();
    assert!(tally.faults().is_empty(), "{:#?}\n{faults:#?}", tally.faults());
    assert!(latest == 0 || tally.late(latest).is_empty(), "{:#?}", tally.late(latest));
    assert!(opened.is_empty(), "these do not open any more: {opened:?}");
    assert!(after <= before + MOST_KEPT_MB, "{before} MB before, {after} MB after");
}

/// Everything at once: attackers at every address, dear files, and connections that say nothing. Gives the slowest answer to a file.
async fn attack(address: &str, requests: u64, seed: u64, forms: &Arc<Forms>, tally: &Arc<Tally>) -> Duration {
    let sent = Arc::new(AtomicU64::new(0));
    let attackers: Vec<_> = (0..ATTACKERS)
        .map(|number| {
            let (address, forms, tally, sent) = (address.to_owned(), forms.clone(), tally.clone(), sent.clone());
            tokio::spawn(async move {
                let dice = Dice::new(seed.wrapping_mul(31).wrapping_add(number));
                let mut attacker = Attacker::sign_on(&address, 1 + number % 4, dice, forms).await;
                while sent.fetch_add(1, Ordering::Relaxed) < requests {
                    let begun = Instant::now();
                    let (address, status) = attacker.knock().await;
                    tally.count(&address, status, begun.elapsed());
                }
            })
        })
        .collect();
    let hanging = bombs::hanging(address, 24);
    let slowest = bombs::uploads(address, usize::try_from(requests / 400).unwrap().max(2)).await;
    for attacker in attackers {
        attacker.await.unwrap();
    }
    drop(hanging);
    slowest
}

/// Another shop with a job, whose keys are worth trying.
fn stranger(database: &TestDatabase) {
    database.tell(
        "WITH s AS (INSERT INTO shops (name, handle) VALUES ('Another shop', 'another-shop') RETURNING id),
              p AS (INSERT INTO people (shop_id, name, trade, role) SELECT id, 'Cy', 'Lead', 'lead' FROM s RETURNING id, shop_id)
         INSERT INTO jobs (shop_id, number, label, vehicle_class, rear_wheels, wheelbase, front_rating, rear_rating, revised_by, opened_by)
         SELECT p.shop_id, 88, 'theirs', 'van', 'single', j.wheelbase, j.front_rating, j.rear_rating, p.id, p.id
           FROM p, (SELECT * FROM jobs ORDER BY id LIMIT 1) j",
    );
}
