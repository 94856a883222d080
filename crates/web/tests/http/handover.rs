//! The sheet that goes with the vehicle: what it says before anything is measured again, and what stands on it of a job that is done.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{Visitor, measured_half_ton, shop};

#[tokio::test]
async fn without_a_choice_there_is_nothing_to_hand_over() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let page = ada.get(&format!("{job}/handover")).await;
    assert_eq!(page.status, StatusCode::CONFLICT);
    assert!(page.text("main").contains("Nothing is chosen"), "{}", page.text("main"));
}

/// The torques that were read are on it, what is due is, and what was not measured again is said and not passed over.
#[tokio::test]
async fn a_sheet_says_what_was_torqued_what_is_due_and_what_is_still_to_be_measured() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let sheet = ada.get(&format!("{job}/handover")).await;
    assert!(sheet.text("main").contains("No torque is on record"), "{}", sheet.text("main"));
    assert!(sheet.text(".problem").contains("Still to be measured"));
    let fields = [
        ("step", "rear.left.u_bolts_tight"),
        ("key", "device-a-00001"),
        ("answer", "torque"),
        ("target", "120"),
        ("read", "118"),
        ("wrench", "long click"),
    ];
    let fields: Vec<(String, String)> = fields.iter().map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
    assert_eq!(ada.post(&format!("{job}/wrench/ticks"), &fields).await.status, StatusCode::OK);
    let sheet = ada.get(&format!("{job}/handover")).await;
    let rows = sheet.texts("table tbody tr");
    assert!(
        rows.iter()
            .any(|row| row.contains("U-bolts, rear left") && row.contains("120") && row.contains("118") && row.contains("Ada")),
        "{rows:?}"
    );
    let said = sheet.text("main");
    for words in
        ["No rating is raised", "After 50 to 100 miles: lug nuts", "After 500 to 1,000 miles: U-bolts", "Lift block, 1 3/4 in"]
    {
        assert!(said.contains(words), "no “{words}”: {said}");
    }
}

/// The demo's finished job: heights before and after with how far they moved, held against what was promised.
#[tokio::test]
async fn a_finished_job_has_its_heights_before_and_after() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let sheet = bram.get("/jobs/1/handover").await;
    assert_eq!(sheet.status, StatusCode::OK);
    let rows = sheet.texts("table tbody tr");
    assert!(rows.iter().any(|row| row.starts_with("Rear, loaded") && !row.contains("not measured")), "{rows:?}");
    assert!(!sheet.texts(".handover-line").is_empty(), "what was promised stands beside it");
}
