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

async fn file(by: &Visitor, path: &str) -> (StatusCode, String, Vec<u8>) {
    let answer = by.client().get(by.url(path)).send().await.expect("the site answers");
    let kind = answer.headers().get("content-type").map(|kind| kind.to_str().expect("western").to_owned()).unwrap_or_default();
    (answer.status(), kind, answer.bytes().await.expect("all of it").to_vec())
}

/// The file says what the page says, as a reader of PDFs reads it, a long name and a word it has no letters for included.
#[tokio::test]
async fn the_sheet_as_a_file_says_the_same() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let long = "Грузовик Übergrößenfahrzeug mit Kran und noch viel mehr daran";
    ada.fill(&format!("{job}/intake"), &[("label", long)]).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let (status, kind, bytes) = file(&ada, &format!("{job}/handover.pdf")).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "application/pdf"));
    let kept = tempfile::NamedTempFile::new().expect("room for a file");
    std::fs::write(kept.path(), &bytes).expect("room for a file");
    let read = std::process::Command::new("pdftotext").arg("-layout").arg(kept.path()).arg("-").output().expect("pdftotext");
    let text = String::from_utf8_lossy(&read.stdout).split_whitespace().collect::<Vec<_>>().join(" ");
    for words in
        ["Lift block, 1 3/4 in", "No rating is raised", "Still to be measured after the work", "Übergrößenfahrzeug", "Received"]
    {
        assert!(text.contains(words), "no “{words}” in {text}");
    }
    assert!(read.status.success() && !text.contains('Г'));
}

/// What is due is a calendar that a parser of its own takes: whole days, each known by what it is and no other time by another name.
#[tokio::test]
async fn what_is_due_is_a_calendar() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    assert_eq!(file(&ada, &format!("{job}/due.ics")).await.0, StatusCode::CONFLICT, "nothing is due of no work");
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let (status, kind, bytes) = file(&ada, &format!("{job}/due.ics")).await;
    assert_eq!(status, StatusCode::OK);
    assert!(kind.starts_with("text/calendar"), "{kind}");
    let again = file(&ada, &format!("{job}/due.ics")).await.2;
    let calendar = ical::IcalParser::new(bytes.as_slice()).next().expect("one calendar").expect("that can be read");
    let of = |event: &ical::parser::ical::component::IcalEvent, name: &str| {
        let property = event.properties.iter().find(|property| property.name == name);
        property.and_then(|property| property.value.clone()).unwrap_or_default()
    };
    let summaries: Vec<String> = calendar.events.iter().map(|event| of(event, "SUMMARY")).collect();
    assert_eq!(calendar.events.len(), 3, "{summaries:?}");
    assert!(summaries[0].starts_with("Lug nuts tightened again"), "{summaries:?}");
    for event in &calendar.events {
        assert!(of(event, "DTEND").is_empty(), "an end on the same day is none");
        let day = of(event, "DTSTART");
        assert!(day.len() == 8 && day.bytes().all(|digit| digit.is_ascii_digit()), "a whole day: {day}");
    }
    let names = |bytes: &[u8]| -> Vec<String> {
        let calendar = ical::IcalParser::new(bytes).next().expect("one calendar").expect("that can be read");
        calendar.events.iter().map(|event| of(event, "UID")).collect()
    };
    assert_eq!(names(&bytes), names(&again));
}

/// The customer signs what stands there; once the job is closed nothing is signed any more.
#[tokio::test]
async fn the_sheet_is_signed_and_a_closed_one_no_more() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    ada.fill(&format!("{job}/proof"), &crate::walk(["20 1/2", "20 1/2"], ["23 1/4", "20 9/16"])).await;
    let sheet = ada.get(&format!("{job}/handover")).await;
    let signed = ada.send(&sheet.form("form.sign").with(&[("signed_by", "A. Owner")])).await;
    assert!(signed.text(".signed").contains("A. Owner"), "{}", signed.text("main"));
    ada.press(&format!("{job}/proof"), "/finish").await;
    let closed = ada.get(&format!("{job}/handover")).await;
    assert!(closed.texts("form.sign").is_empty() && closed.text(".signed").contains("A. Owner"));
    let late = ada.send(&signed.form("form.sign").with(&[("signed_by", "B. Owner")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT, "{}", late.text("main"));
}
