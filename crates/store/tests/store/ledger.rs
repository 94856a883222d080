//! The ledger: what proofs say of parts, whether that counts, and how closely people read.

use chrono::NaiveDate;
use wise_badger_casework::shelf::ShelfDocument;
use wise_badger_store::job_list::{self, Gathered};
use wise_badger_store::ledger::{self, LedgerRow};
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, PgConnection, job, shelf};

use crate::{TestShop, intake};

const SHELF: &str = include_str!("../../../../docs/shelf.example.json");

fn row(person: &Person, job: JobId, number: &str, deviations: f64) -> LedgerRow {
    LedgerRow {
        shop_id: person.shop_id,
        job_id: job,
        kind: "leaf_by_lift".to_owned(),
        part_number: number.to_owned(),
        vehicle_class: "half_ton_pickup".to_owned(),
        axle_end: "rear".to_owned(),
        load_state: "empty".to_owned(),
        load_si: Some(9_000.0),
        before_m: 0.5,
        promised_m: 0.54,
        band_m: 0.02,
        read_m: 0.53,
        first_m: None,
        deviations: Some(deviations),
        sd: Some(0.4),
        says_the_most: true,
        read_on: NaiveDate::from_ymd_opt(2030, 5, 1).unwrap(),
    }
}

fn gathered(person: &Person, job: JobId, ledger: Vec<LedgerRow>) -> Gathered {
    let (standing, dues, searched) = (serde_json::json!({}), Vec::new(), String::new());
    Gathered { shop: person.shop_id, job, revision: 1, beside: 0, standing, dues, searched, ledger }
}

fn gather(connection: &mut PgConnection, person: &Person, number: &str, deviations: &[f64]) {
    for deviations in deviations {
        let job = job::open(connection, person, &intake("proved")).unwrap();
        let gathered = gathered(person, job.id, vec![row(person, job.id, number, *deviations)]);
        job_list::keep_gathered(connection, "rules", std::slice::from_ref(&gathered)).unwrap();
        // Gathered again, it counts once.
        job_list::keep_gathered(connection, "rules", &[gathered]).unwrap();
    }
}

#[test]
fn a_part_goes_by_its_own_proofs_from_three_jobs_on_and_while_a_lead_lets_it() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, .. } = &mut bench;
    let parts: Vec<_> = ShelfDocument::read(SHELF).unwrap().parts.into_iter().map(|(_, part)| part).collect();
    let id = shelf::put(connection, person, &parts[0]).unwrap();
    let number = parts[0].number.clone();
    let record = |connection: &mut PgConnection| shelf::find(connection, person.shop_id, id).unwrap().0.record;
    gather(connection, person, &number.to_uppercase(), &[-1.0, -1.2]);
    gather(connection, &stranger, &number, &[2.0, 2.0, 2.0, 2.0]);
    assert_eq!(record(connection), None, "two jobs say nothing, and another shop's are none of ours");
    let before = shelf::stamp(connection, person.shop_id).unwrap();
    gather(connection, person, &number, &[-0.8]);
    let grown = shelf::stamp(connection, person.shop_id).unwrap();
    let known = record(connection).unwrap();
    assert!(known.jobs == 3 && known.deviations < -0.5 && known.left < 0.8, "{known:?}");
    assert_ne!(shelf::stamp(connection, person.shop_id).unwrap(), before, "a search begins anew");
    let listed = shelf::all_as_known(connection, person.shop_id).unwrap();
    assert_eq!(listed[0].record, Some(known));
    assert_eq!(shelf::all(connection, person.shop_id).unwrap()[0].record, None, "a file of the shelf holds none");
    ledger::switch(connection, person, &number, false).unwrap();
    assert_eq!(record(connection), None);
    assert_eq!(ledger::switched_off(connection, person.shop_id).unwrap(), [number.trim().to_lowercase()]);
    ledger::switch(connection, person, &number, true).unwrap();
    assert_eq!(record(connection), Some(known));
    let mut told = parts[0].clone();
    told.record = Some(known);
    shelf::change(connection, person, id, &told).map(|_| ()).unwrap();
    assert_eq!(ledger::lines(connection, person.shop_id, 100).unwrap().len(), 3);
    assert_eq!(shelf::all(connection, person.shop_id).unwrap()[0].record, None, "and nobody types one");
    // The earliest job's proof goes, and the newest line stays: that is another ledger, too.
    let (first, row) = ledger::lines(connection, person.shop_id, 100).unwrap().pop().unwrap();
    let gathered = gathered(person, row.job_id, Vec::new());
    let before = shelf::stamp(connection, person.shop_id).unwrap();
    job_list::keep_gathered(connection, "rules", &[gathered]).unwrap();
    assert_ne!(shelf::stamp(connection, person.shop_id).unwrap(), before, "without the proof of job {first:?}");
    assert_ne!(before, grown, "a switched record is another as well");
}

#[test]
fn how_closely_somebody_reads_is_told_from_what_they_read_twice() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, job, .. } = &mut bench;
    assert!(ledger::readers(connection, person.shop_id).unwrap().is_empty());
    crate::readings::put(connection, person, job.id, &[("21 1/2", 21.5), ("21 5/8", 21.625)]);
    let readers = ledger::readers(connection, person.shop_id).unwrap();
    // Two readings an eighth apart: a standard deviation of an eighth over the root of two.
    assert_eq!((readers.len(), readers[0].spots, readers[0].person()), (1, 1, person.id));
    assert!((readers[0].sd_m - 0.125 * 0.0254 / 2.0_f64.sqrt()).abs() < 1e-9, "{readers:?}");
}
