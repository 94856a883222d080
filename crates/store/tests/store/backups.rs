//! Backups: written from one database, put into another, and refused where they are not whole.

use std::io::{Read as _, Write as _};

use diesel::prelude::*;
use diesel_migrations::{FileBasedMigrations, MigrationHarness};
use flate2::read::GzDecoder;
use flate2::write::GzEncoder;
use wise_badger_casework::entry::{PaperEntry, PaperWord};
use wise_badger_store::backup::{self, BackupError, LEFT_OUT, TABLES};
use wise_badger_store::photograph::{self, NewPhotograph};
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::vehicle::{self, Whose};
use wise_badger_store::{Database, JobNumber, ShopId, connection_alone, job, job_document, job_sheet, paper};

use crate::{intake, somebody, with_load};

fn alone(database: &TestDatabase) -> PgConnection {
    connection_alone(&database.url(), std::time::Duration::from_secs(5)).unwrap()
}

/// A database with two shops and a bit of everything in it.
fn filled() -> TestDatabase {
    let database = TestDatabase::create();
    let store = database.open();
    let connection = &mut *store.connection().unwrap();
    for (shop, name) in [("Corner Springs", "Ada"), ("Corner Springs", "Cy")] {
        let person = somebody(connection, shop, name);
        for label in ["first", "second; with \"quotes\", \\ and ½″"] {
            let job = job::open(connection, &person, &intake(label)).unwrap();
            job_sheet::replace(connection, &person, job.id, &with_load(None)).unwrap();
            crate::readings::put(connection, &person, job.id, &[("21 5/8", 21.625), ("21 1/2", 21.5)]);
            let picture = NewPhotograph { subject: "rear".to_owned(), jpeg: vec![0xff, 0xd8, 0, 1, 2, 255], width: 2, height: 3 };
            photograph::keep(connection, &person, job.id, &picture).unwrap();
            let whose = Whose { customer: "M. Customer".to_owned(), phone: "555".to_owned(), plate: format!("AB {}", job.id.0) };
            vehicle::tell(connection, &person, job.id, intake(label).class, &whose).unwrap();
        }
    }
    database
}

/// Every row of every table that is backed up, as text.
fn rows(database: &TestDatabase) -> Vec<String> {
    let mut all = Vec::new();
    for table in TABLES {
        if !database.ask(&format!("SELECT 'there' AS line WHERE to_regclass('public.{table}') IS NOT NULL")).is_empty() {
            all.extend(database.ask(&format!("SELECT '{table} ' || t::TEXT AS line FROM {table} t")));
        }
    }
    all.sort();
    all
}

#[test]
fn a_backup_put_into_an_empty_database_is_the_same_to_the_last_row() {
    let from = filled();
    let mut file = Vec::new();
    let written = backup::write(&mut alone(&from), &mut file).unwrap();
    assert_eq!((written["shops"], written["jobs"], written["photographs"]), (2, 4, 4));
    let to = TestDatabase::create();
    let put = backup::restore(&mut alone(&to), file.as_slice()).unwrap();
    assert_eq!(put, written);
    assert_eq!(rows(&to), rows(&from));
    // What is put down next gets keys of its own.
    let store = to.open();
    let connection = &mut *store.connection().unwrap();
    let person = somebody(connection, "Later shop", "Dee");
    job::open(connection, &person, &intake("later")).unwrap();
    let again = backup::restore(&mut alone(&to), file.as_slice());
    assert!(matches!(again, Err(BackupError::NotEmpty)), "{again:?}");
}

#[test]
fn every_table_is_backed_up_or_left_out_by_name() {
    let database = TestDatabase::create();
    drop(database.open());
    let there = database.ask(
        "SELECT table_name AS line FROM information_schema.tables
          WHERE table_schema = 'public' AND table_name NOT LIKE '\\_\\_%' ORDER BY 1",
    );
    let known = |table: &String| TABLES.contains(&table.as_str()) || LEFT_OUT.contains(&table.as_str());
    let forgotten: Vec<String> = there.into_iter().filter(|table| !known(table)).collect();
    assert!(forgotten.is_empty(), "{forgotten:?}");
}

#[test]
fn a_file_that_is_not_whole_leaves_nothing_behind() {
    let from = filled();
    let mut file = Vec::new();
    backup::write(&mut alone(&from), &mut file).unwrap();
    let mut text = String::new();
    GzDecoder::new(file.as_slice()).read_to_string(&mut text).unwrap();
    let pack = |text: &str| {
        let mut packed = GzEncoder::new(Vec::new(), flate2::Compression::fast());
        packed.write_all(text.as_bytes()).unwrap();
        packed.finish().unwrap()
    };
    let lines: Vec<&str> = text.lines().collect();
    let without_last = lines[..lines.len() - 1].join("\n") + "\n";
    let without_one = [&lines[..5], &lines[6..]].concat().join("\n") + "\n";
    let newer = text.replacen("\"step\":\"", "\"step\":\"9", 1);
    let other = TestDatabase::create();
    let tried = |bytes: &[u8]| backup::restore(&mut alone(&other), bytes).unwrap_err().to_string();
    assert!(tried(&file[..file.len() / 2]).contains("not whole"));
    assert!(tried(&pack(&without_last)).contains("its end is missing"));
    assert!(tried(&pack(&without_one)).contains("not whole"), "{}", tried(&pack(&without_one)));
    assert!(tried(&pack(&text.replacen("M. Customer", "N. Customer", 1))).contains("not those that were written"));
    assert!(tried(&pack(&newer)).contains("newer version"));
    assert!(tried(b"no gzip at all").contains("not whole"));
    assert!(tried(&pack("{\"format\":\"else\"}\n")).contains("no backup"));
    let store = other.open();
    drop(store);
    assert!(rows(&other).is_empty(), "nothing of any of them was kept");
    assert!(backup::restore(&mut alone(&other), file.as_slice()).is_ok(), "and the whole one goes in");
}

#[test]
fn a_backup_of_an_earlier_step_is_brought_up_to_this_one() {
    let from = TestDatabase::create();
    let mut old = alone(&from);
    let migrations = FileBasedMigrations::find_migrations_directory().unwrap();
    while old.run_next_migration(migrations.clone()).unwrap().to_string() != "20261127000001" {}
    diesel::connection::SimpleConnection::batch_execute(&mut old, include_str!("before/demo_2026_11_27.sql")).unwrap();
    let mut file = Vec::new();
    backup::write(&mut old, &mut file).unwrap();
    let to = TestDatabase::create();
    backup::restore(&mut alone(&to), file.as_slice()).unwrap();
    drop(old);
    let (here, there) = (from.open(), to.open());
    for number in 1..=7 {
        let document =
            |store: &Database| job_document::export(&mut store.connection().unwrap(), ShopId(1), JobNumber(number)).unwrap();
        assert_eq!(document(&there), document(&here), "job {number}, as if it had been brought up to date where it was");
    }
}

#[test]
fn what_was_signed_comes_through() {
    let from = filled();
    let store = from.open();
    let connection = &mut *store.connection().unwrap();
    let person = somebody(connection, "Third", "Eve");
    let job = job::open(connection, &person, &intake("signed")).unwrap();
    let entry = PaperEntry { paper: PaperWord::Handover, ..crate::papers::estimate("U-bolts, 4") };
    paper::keep(connection, &person, job.id, &entry).unwrap();
    let mut file = Vec::new();
    backup::write(&mut alone(&from), &mut file).unwrap();
    let to = TestDatabase::create();
    backup::restore(&mut alone(&to), file.as_slice()).unwrap();
    let kept = paper::of_job(&mut to.open().connection().unwrap(), person.shop_id, job.id).unwrap();
    assert_eq!(kept[0].entry.0, entry);
}
