//! Saving once, saving from a stale page, and what is turned away at the door.

use reqwest::StatusCode;

use crate::{INTAKE, Visitor, measured_half_ton, open_half_ton, shop, tape};

#[tokio::test]
async fn a_double_tap_opens_one_job() {
    let (_site, ada) = shop().await;
    let form = ada.form("/jobs/new").await.with(&INTAKE);
    let (first, second) = tokio::join!(ada.send(&form), ada.send(&form));
    assert_eq!((first.path.as_str(), second.path.as_str()), ("/jobs/1/tape", "/jobs/1/tape"));
    assert_eq!(ada.get("/").await.texts(".job-line").len(), 1);
}

#[tokio::test]
async fn a_double_tap_considers_a_correction_once() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let form = ada.form(&format!("{job}/options")).await.with(&crate::BLOCK);
    for _ in 0..2 {
        assert_eq!(ada.send(&form).await.status, StatusCode::OK);
    }
    assert_eq!(ada.get(&format!("{job}/options")).await.texts(".considered li").len(), 1);
}

#[tokio::test]
async fn a_stale_page_loses_nothing_and_shows_what_is_on_file_now() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/tape");
    let old = ada.form(&path).await.with(&tape(["21 1/2", "18 13/16"], "1,000"));
    bo.fill(&path, &tape(["21 3/4", "19"], "900")).await;
    let stale = ada.send(&old).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    assert!(stale.text(".refusal").starts_with("Bo saved this job"), "{}", stale.text(".refusal"));
    let (mine, said) = stale.field("empty.rear_left.0");
    assert_eq!(mine, "21 1/2");
    assert!(said.contains("On file now: 21 3/4"), "{said}");
    assert_eq!(ada.get(&path).await.field("empty.rear_left.0").0, "21 3/4", "nothing of the stale page is stored");
    // Knowing that, Ada saves her own.
    let saved = ada.send(&stale.form("form[data-draft]")).await;
    assert!(saved.path.ends_with("/verdict"), "{}", saved.text("main"));
    let tape = ada.get(&path).await;
    assert_eq!(tape.field("empty.rear_left.0").0, "21 1/2");
    assert!(tape.text("main").contains("corrected readings, kept on record"), "{}", tape.text("main"));
}

#[tokio::test]
async fn every_form_of_a_job_notices_a_stale_page() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = measured_half_ton(&ada).await;
    let aim = [("kind", "level_empty"), ("tolerance", "1/4")];
    for (path, values) in [("/intake", vec![("wheelbase", "150")]), ("/aim", aim.to_vec()), ("/options", crate::BLOCK.to_vec())] {
        let path = format!("{job}{path}");
        let old = ada.form(&path).await.with(&values);
        bo.fill(&format!("{job}/intake"), &[("label", "Renamed")]).await;
        let stale = ada.send(&old).await;
        assert_eq!(stale.status, StatusCode::CONFLICT, "{path}");
        assert!(stale.text(".refusal").contains("Bo saved this job"), "{path}");
        let own = stale.form(&format!("form[data-draft][action='{path}']"));
        for (name, typed) in values {
            assert_eq!(own.value(name), typed, "{path}");
        }
        assert!(ada.send(&own).await.status.is_success(), "{path}");
    }
}

#[tokio::test]
async fn readings_know_who_took_them() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = measured_half_ton(&ada).await;
    bo.fill(&format!("{job}/tape"), &[("empty.rear_left.0", "21 5/8")]).await;
    let taken = ada.get(&format!("{job}/tape")).await;
    assert!(taken.text(".station-rear_left .taken").starts_with("Bo, "));
    assert!(taken.text(".station-rear_right .taken").starts_with("Ada, "));
}
