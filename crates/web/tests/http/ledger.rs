//! The ledger page, its table, and a part's record in a prediction.

use std::time::{Duration, Instant};

use reqwest::StatusCode;

use crate::{Site, Visitor, measured_half_ton, shop};

/// Waits until the server has gathered where every job stands: what is put down before that is gathered away.
fn all_gathered(site: &Site) {
    let lacking =
        "SELECT j.number::TEXT AS line FROM jobs j WHERE NOT EXISTS (SELECT FROM job_standings s WHERE s.job_id = j.id)";
    let begun = Instant::now();
    while !site.ask_database(lacking).is_empty() {
        assert!(begun.elapsed() < Duration::from_secs(60), "every job is gathered");
        std::thread::sleep(Duration::from_millis(50));
    }
}

/// Proofs of a part of the demo shelf, as if from so many jobs.
fn proofs(site: &Site, number: &str, kind: &str, deviations: &[f64]) {
    all_gathered(site);
    for (place, deviations) in deviations.iter().enumerate() {
        site.tell_database(&format!(
            "INSERT INTO ledger_lines (shop_id, job_id, kind, part_number, vehicle_class, axle_end, load_state, before_m, promised_m,
               band_m, read_m, deviations, sd, says_the_most, read_on)
             SELECT shop_id, id, '{kind}', '{number}', 'half_ton_pickup', 'rear', 'empty', 0.5, 0.54, 0.02, 0.54 + 0.0127 * {deviations},
               {deviations}, 0.3, TRUE, '2026-05-0{day}' FROM jobs WHERE number = {job}",
            day = place % 9 + 1,
            job = place + 1
        ));
    }
}

#[tokio::test]
async fn what_parts_did_is_told_from_three_jobs_on() {
    let site = Site::demo();
    let odalys = Visitor::working(&site.address, "Odalys").await;
    let before = odalys.get("/ledger").await;
    assert_eq!(before.status, StatusCode::OK);
    proofs(&site, "AL-101", "leaf_by_lift", &[-1.0, -1.1]);
    let few = odalys.get("/ledger").await;
    let line = |page: &crate::Page| page.texts("tbody tr").into_iter().find(|row| row.contains("AL-101")).unwrap();
    assert!(line(&few).contains("too few to say (2 of 3)") && line(&few).contains("as its box says"), "{}", line(&few));
    site.tell_database("DELETE FROM ledger_lines");
    proofs(&site, "AL-101", "leaf_by_lift", &[-1.0, -1.1, -0.9, -1.2]);
    let page = odalys.get("/ledger").await;
    assert!(line(&page).contains("by 4 of our own jobs, where") && line(&page).contains("Counts."), "{}", line(&page));
    assert!(line(&page).contains("−1/2") || line(&page).contains("−9/16"), "half an inch lower than promised: {}", line(&page));
    assert!(page.text("svg.ledger-picture desc").contains("AL-101"));
    let off = odalys.send(&page.form("form[action='/ledger/switch']").with(&[("counts", "no")])).await;
    assert!(line(&off).contains("Does not count."));
    let tuck = Visitor::working(&site.address, "Tuck").await;
    assert!(tuck.get("/ledger").await.attributes("form[action='/ledger/switch']", "action").is_empty());
}

#[tokio::test]
async fn every_line_comes_as_a_table_that_holds_no_formula() {
    let site = Site::demo();
    proofs(&site, "=1+1", "leaf_by_lift", &[0.5]);
    let odalys = Visitor::working(&site.address, "Odalys").await;
    let text = odalys.client().get(odalys.url("/ledger.csv")).send().await.unwrap().text().await.unwrap();
    let mut table = csv::Reader::from_reader(text.as_bytes());
    assert!(table.headers().unwrap().iter().any(|head| head == "promised_in"));
    let rows: Vec<csv::StringRecord> = table.records().collect::<Result<_, _>>().unwrap();
    let ours = rows.iter().find(|row| row[4].contains("1+1")).unwrap();
    assert_eq!((&ours[3], &ours[4]), ("leaf_by_lift", "'=1+1"));
    assert!((ours[8].parse::<f64>().unwrap() - 0.54 / 0.0254).abs() < 1e-3);
}

#[tokio::test]
async fn a_part_that_always_came_lower_is_predicted_lower_and_surer() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let job = measured_half_ton(&bram).await;
    let shelf = bram.get("/shelf?words=AL-101").await;
    let part = shelf.attributes("a[href^='/shelf/parts/']", "href")[0].clone();
    let key = part.rsplit('/').next().unwrap().to_owned();
    let rise = async || {
        let page = bram.get(&format!("{job}/what-if?p0_shelf={key}")).await;
        page.text("#what-if-heights")
    };
    let before = rise().await;
    proofs(&site, "AL-101", "leaf_by_lift", &[-1.0, -1.1, -0.9, -1.2]);
    let known = bram.get(&part).await;
    assert!(known.text("main").contains("by 4 of our own jobs"), "{}", known.text("main"));
    assert_ne!(rise().await, before, "what earlier ones did counts");
    site.tell_database("DELETE FROM ledger_lines");
    assert_eq!(rise().await, before);
}

#[tokio::test]
async fn a_shop_with_nothing_proved_is_told_what_will_stand_here() {
    let (_site, ada) = shop().await;
    let page = ada.get("/ledger").await;
    assert!(page.text("main").contains("Nothing is proved yet"));
    assert_eq!(ada.get("/ledger?class=nonsense").await.status, StatusCode::OK);
}
