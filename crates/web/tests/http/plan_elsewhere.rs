//! The plan of the work on vehicles and in units other than those that it was thought of on: a trailer, coils, one side, empty alone, in
//! millimeters and kilograms, with nothing weighed.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{Page, Visitor, shop};

async fn choose(by: &Visitor, job: &str, option: usize) {
    let page = by.get(&format!("{job}/options")).await;
    let href = page.attributes(".considered li a", "href").swap_remove(option);
    let shown = by.get(&href).await;
    let chosen = by.send(&shown.form("form[action$='/choose']")).await;
    assert_eq!(chosen.status, StatusCode::OK, "{}", chosen.text("main"));
}

fn heads(page: &Page) -> String {
    page.texts(".plan-heads dd").join(" | ")
}

#[tokio::test]
async fn every_demo_job_with_an_option_is_planned_to_a_day_and_hours() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    for (job, option) in [(4, 0), (5, 0), (5, 1), (8, 0), (8, 1)] {
        let path = format!("/jobs/{job}");
        choose(&bram, &path, option).await;
        let plan = bram.get(&format!("{path}/plan")).await;
        let said = heads(&plan);
        assert!(said.contains(" h") && !said.contains("NaN") && !said.contains("inf"), "job {job}: {said}");
        assert!(!plan.texts(".plan-part").is_empty(), "job {job} needs something");
        assert_eq!(bram.get(&format!("{path}/estimate")).await.status, StatusCode::OK, "job {job}");
        let pdf = bram.client().get(bram.url(&format!("{path}/handover.pdf"))).send().await.expect("the site answers");
        assert_eq!(pdf.status(), StatusCode::OK, "job {job}");
        let due = bram.client().get(bram.url(&format!("{path}/due.ics"))).send().await.expect("the site answers");
        assert_eq!(due.status(), StatusCode::OK, "job {job}");
    }
}

/// A trailer is held at its coupler and its stands carry what its axles do.
#[tokio::test]
async fn a_trailer_is_planned_with_its_own_words() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    choose(&bram, "/jobs/5", 1).await;
    let plan = bram.get("/jobs/5/plan").await;
    let text = plan.text("#plan-form");
    assert!(!text.contains("Rear up") && !text.contains("Front up"), "a trailer has neither: {text}");
    let saved = bram.send(&plan.form("#plan-form").with(&[("raised", "floor"), ("stand_rating", "6,000")])).await;
    assert_eq!(saved.status, StatusCode::OK);
    assert!(bram.get("/jobs/5/wrench").await.text("main").to_lowercase().contains("coupler"));
}

/// What was typed in pounds and inches is read so by whoever works in kilograms and millimeters, and the other way round.
#[tokio::test]
async fn a_plan_is_the_same_in_either_units() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let plan = bram.get("/jobs/11/plan").await;
    let before = heads(&plan);
    let form = plan.form("#plan-form").with(&[("u_bolt_width", "3 1/2"), ("stand_rating", "6,000")]);
    bram.send(&form).await;
    for (name, unit) in [("length", "mm"), ("weight", "kg")] {
        bram.post("/units", &[(name.to_owned(), unit.to_owned()), ("next".to_owned(), "/".to_owned())]).await;
    }
    let metric = bram.get("/jobs/11/plan").await;
    assert_eq!(heads(&metric), before, "days, hours and money know no unit");
    assert_eq!(metric.field("stand_rating").0, "6,000 lb");
    let said = metric.text("#plan-form .within");
    assert!(said.contains(" kg") && !said.contains(" lb "), "{said}");
    // Saved again as it stands, nothing of it is read as kilograms.
    let saved = bram.send(&metric.form("#plan-form")).await;
    assert_eq!((saved.status, saved.text("#plan-form .within")), (StatusCode::OK, said));
}

/// Empty alone, with no scale: stands are said by assumed weights, and nothing is made up of the loaded state.
#[tokio::test]
async fn with_nothing_weighed_it_is_said_what_is_assumed() {
    let (_site, ada) = shop().await;
    let job = crate::open_half_ton(&ada).await;
    let empty = [
        ("datum", "hub_to_arch"),
        ("empty.front_left.0", "20 1/2"),
        ("empty.front_right.0", "20 1/2"),
        ("empty.rear_left.0", "21 1/2"),
        ("empty.rear_right.0", "21 1/2"),
    ];
    ada.fill(&format!("{job}/tape"), &empty).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1")]).await;
    let chosen = ada.press(&format!("{job}/options"), "/choose").await;
    assert!(chosen.path.ends_with("/plan"), "{}", chosen.text("main"));
    let form = chosen.form("#plan-form").with(&[("raised", "floor"), ("stand_rating", "8,000")]);
    let saved = ada.send(&form).await;
    let said = saved.text("#plan-form");
    assert!(said.contains("by assumed weights"), "{said}");
}

/// Two people at one plan: the second is told, with what he typed still there, and nothing of the first is lost.
#[tokio::test]
async fn two_people_at_one_plan_do_not_write_over_each_other() {
    let site = Site::demo();
    let (bram, odalys) = (Visitor::working(&site.address, "Bram").await, Visitor::working(&site.address, "Odalys").await);
    let (mine, yours) =
        (bram.get("/jobs/11/plan").await.form("#plan-form"), odalys.get("/jobs/11/plan").await.form("#plan-form"));
    assert_eq!(odalys.send(&yours.with(&[("quoted_hours", "3")])).await.status, StatusCode::OK);
    let late = bram.send(&mine.clone().with(&[("took_hours", "2")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert_eq!(late.field("took_hours").0, "2", "what was typed is still there");
    assert!(late.text("#plan-form").contains("On file now: 3"), "{}", late.text("#plan-form"));
    assert_eq!(bram.get("/jobs/11/plan").await.field("quoted_hours").0, "3");
    // The same form sent twice is one.
    let again = bram.get("/jobs/11/plan").await.form("#plan-form").with(&[("took_hours", "2")]);
    let (first, second) = (bram.send(&again).await, bram.send(&again).await);
    assert_eq!((first.status, second.status), (StatusCode::OK, StatusCode::OK));
}
