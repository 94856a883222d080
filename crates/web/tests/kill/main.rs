//! Server and database killed at random among savings: what was acknowledged is there, once, and what was told is true.
//!
//! `./check` kills a few times; `scripts/kill` as often as it is told, from the seed it is told.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod cluster;
mod saver;

#[path = "../support/dice.rs"]
mod dice;
#[path = "../support/program.rs"]
mod program;

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use cluster::Cluster;
use dice::{Dice, told};
use program::Program;
use saver::{Told, saver};

/// Technicians saving at once, each on a job of their own.
const SAVERS: usize = 3;

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn nothing_acknowledged_is_lost_however_the_server_and_the_database_end() {
    let (kills, seed) = (told("KILLS", 5), told("KILL_SEED", 20_261_127));
    let mut dice = Dice::new(seed);
    let folder = tempfile::tempdir().unwrap();
    let mut cluster = Cluster::make();
    let listen = format!("127.0.0.1:{}", cluster::free_port());
    let log = folder.path().join("log");
    let serve = |url: &str| loop {
        if let Some(program) = Program::serve(url, &listen, &log) {
            return program;
        }
        std::thread::sleep(Duration::from_millis(200));
    };
    let mut program = serve(cluster.url());
    let (stop, told) = (Arc::new(AtomicBool::new(false)), Arc::new(Told::default()));
    let savers: Vec<_> =
        (1..=SAVERS).map(|number| tokio::spawn(saver(program.address.clone(), number, told.clone(), stop.clone()))).collect();
    for kill in 1..=kills {
        tokio::time::sleep(Duration::from_millis(u64::try_from(150 + dice.below(900)).unwrap())).await;
        let (server, database) = *dice.pick(&[(true, false), (false, true), (false, true), (true, true)]);
        if server {
            program.kill();
        }
        if database {
            cluster.kill();
            cluster.start();
        }
        if server {
            program = serve(cluster.url());
        }
        if kill % 50 == 0 {
            println!("{kill} kills: {}", told.summary());
        }
    }
    tokio::time::sleep(Duration::from_secs(2)).await;
    stop.store(true, Ordering::Relaxed);
    for saver in savers {
        saver.await.unwrap();
    }
    let found = told.hold_against_the_record(&program.address).await;
    println!("seed {seed}: {kills} kills; {}; {found}", told.summary());
    let logged = program.logged();
    let panics: Vec<&str> = logged.lines().filter(|line| line.contains("panicked at")).collect();
    assert!(panics.is_empty(), "{panics:#?}");
    assert_eq!(told.untrue(), Vec::<String>::new());
    assert!(told.acknowledged() > kills, "savings went on between the kills: {}", told.summary());
}
