//! The yard: jobs by what comes next, found, due, in somebody's hands, and followed as things happen.

use std::time::Duration;

use reqwest::StatusCode;

use crate::{INTAKE, Site, Visitor, measured_half_ton, open_half_ton, shop};

#[tokio::test]
async fn open_jobs_stand_under_what_comes_next_and_over_a_rating_comes_first() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let yard = bram.get("/").await;
    let groups = yard.texts(".yard-group h2");
    assert_eq!(groups[0], "Over a rating 1");
    assert!(groups.contains(&"Wrench, 10 of 11 1".to_owned()), "{groups:?}");
    let lines = yard.texts(".yard-group .job-line");
    assert_eq!(lines.len(), 9, "the finished ones are folded away");
    let nose_up = lines.iter().find(|line| line.starts_with("11 ")).unwrap();
    assert!(nose_up.contains("waits for: parts by") && nose_up.contains("Bram") && nose_up.contains("promised"), "{nose_up}");
    assert!(nose_up.contains("DEMO 111") && nose_up.contains("J. Abernathy"), "{nose_up}");
    assert_eq!(bram.get("/?finished=true").await.texts(".job-line").len(), 6);
}

#[tokio::test]
async fn a_job_is_found_by_vehicle_customer_plate_telephone_and_part() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    bram.get("/").await;
    bram.get("/?finished=true").await;
    let found = async |words: &str| {
        let page = bram.get(&format!("/?q={}", words.replace(' ', "+").replace('#', "%23"))).await;
        page.texts(".job-number").into_iter().filter(|number| !number.is_empty()).collect::<Vec<_>>()
    };
    assert_eq!(found("larkfield").await, ["5", "1"], "both vehicles of one customer");
    assert_eq!(found("DEMO404").await, ["4"]);
    assert_eq!(found("555 0163").await, ["11"]);
    assert_eq!(found("helper grounds").await, ["1"], "by what is fitted, finished or not");
    assert!(found("no such thing").await.is_empty());
    assert!(found("%").await.is_empty(), "a sign stands for itself");
    let none = bram.get("/?q=zebra").await;
    assert!(none.text(".empty").contains("No job is found by “zebra”"));
    assert_eq!(bram.get(&format!("/?q={}", "x".repeat(5_000))).await.status, StatusCode::OK);
}

#[tokio::test]
async fn whoever_has_a_job_and_its_day_are_put_down_and_told_of() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let form = ada.get(&job).await.form(&format!("form[action='{job}/hands']"));
    let before = ada.get(&job).await.form(&format!("form[action='{job}/hands']"));
    let bad = ada.send(&form.clone().with(&[("promised", "next week")])).await;
    assert_eq!(bad.status, StatusCode::CONFLICT);
    assert!(bad.text("main").contains("“next week” is no day"));
    let page = ada.send(&form.clone().with(&[("person", "2"), ("promised", "2020-02-03")])).await;
    assert!(page.text(".hands summary").starts_with("Bo has it, promised Mon Feb 3, 2020"), "{}", page.text(".hands summary"));
    let yard = ada.get("/").await;
    assert_eq!(
        (yard.text(".job-who"), yard.text(".job-by.is-late")),
        ("Bo".to_owned(), "promised Mon Feb 3, 2020, late".to_owned())
    );
    assert!(yard.text("#due").contains("promised to the customer"), "{}", yard.text("#due"));
    let stranger = ada.get(&job).await.form(&format!("form[action='{job}/hands']")).with(&[("person", "99")]);
    assert_eq!(ada.send(&stranger).await.status, StatusCode::NOT_FOUND);
    let stale = ada.send(&before.with(&[("person", "1")])).await;
    assert_eq!(stale.status, StatusCode::CONFLICT, "a page older than the job is turned away");
    assert!(ada.get(&format!("{job}/history")).await.text("main").contains("said who has it, or when it is promised"));
}

#[tokio::test]
async fn what_the_customer_comes_back_for_is_called_for_and_done() {
    let site = Site::demo();
    // Settled long ago by its own record: as if it had been handed over three weeks back.
    site.tell_database("UPDATE jobs SET finished_at = now() - interval '21 days' WHERE number = 12");
    site.tell_database("DELETE FROM job_standings");
    let ines = Visitor::working(&site.address, "Ines").await;
    ines.get("/?finished=true").await;
    let due = ines.get("/").await;
    let line = due.texts(".due-line").into_iter().find(|line| line.contains("Pool service")).expect("it is due");
    assert!(line.contains("late") && line.contains("tightened again"), "{line}");
    let tuck = Visitor::working(&site.address, "Tuck").await.get("/").await;
    assert!(tuck.text("#due").contains("Pool service"), "an apprentice sees what is due");
    assert!(tuck.attributes("#due form", "action").is_empty(), "and says nothing to it");
    let form = due.form("form[action='/jobs/12/due/lug_nuts']");
    let called = ines.send(&form.with(&[("mark", "called"), ("note", "comes Thursday")])).await;
    assert!(called.texts(".due-line").iter().any(|line| line.contains("called by Ines") && line.contains("comes Thursday")));
    let done = ines.send(&called.form("form[action='/jobs/12/due/lug_nuts']").with(&[("mark", "done")])).await;
    assert!(done.attributes("form[action='/jobs/12/due/lug_nuts']", "action").is_empty(), "done is not due");
    let done = [("token".into(), "a".repeat(20)), ("mark".into(), "done".into())];
    for made_up in ["nonsense", "%00"] {
        let answer = ines.post(&format!("/jobs/12/due/{made_up}"), &done).await;
        assert_eq!(answer.status, StatusCode::CONFLICT, "{made_up}");
    }
}

/// What nobody came back for is not passed over, and does not bury what is due today.
#[tokio::test]
async fn what_was_missed_long_ago_stands_apart_from_today() {
    let site = Site::demo();
    site.tell_database("UPDATE jobs SET finished_at = now() - interval '90 days' WHERE number = 12");
    site.tell_database("DELETE FROM job_standings");
    let ines = Visitor::working(&site.address, "Ines").await;
    ines.get("/?finished=true").await;
    let yard = ines.get("/").await;
    let missed = yard.texts("#due details").into_iter().find(|list| list.starts_with("More than two weeks over")).unwrap();
    assert!(missed.contains("Pool service"), "{missed}");
    assert!(!yard.texts("#due > .dues .due-line").iter().any(|line| line.contains("Pool service")), "{}", yard.text("#due"));
    let own = "form[action='/jobs/12/due/lug_nuts']";
    let done = ines.send(&yard.form(own).with(&[("mark", "done")])).await;
    assert!(done.attributes(own, "action").is_empty(), "and it is answered there");
}

#[tokio::test]
async fn a_plate_brings_what_was_put_down_before_and_its_visits_stand_together() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let whose = ada.get(&job).await.form(&format!("form[action='{job}/vehicle']"));
    ada.send(&whose.with(&[("customer", "M. Customer"), ("phone", "555 0123"), ("plate", "ab-12 cd")])).await;
    let nobody = ada.get("/jobs/new?plate=XX+99").await;
    assert!(nobody.text(".from-before").contains("No vehicle with the plate XX 99"));
    let again = ada.get("/jobs/new?plate=AB12CD").await;
    assert!(again.text(".from-before").starts_with("From job 1, "), "{}", again.text(".from-before"));
    assert!(again.text(".from-before").contains("Hold them against the door sticker"));
    assert!(again.field("wheelbase").0.starts_with("145"), "{:?}", again.field("wheelbase"));
    let opened = ada.send(&again.form("form[data-draft]").with(&[("label", "Back again")])).await;
    assert_eq!(opened.status, StatusCode::OK, "{}", opened.text("main"));
    let second = ada.get("/jobs/2").await;
    assert!(second.text("main").contains("2 visits"), "{}", second.text(".hands"));
    assert!(!second.text(".legend").contains("at its last visit"), "nothing was read yet of this visit, nor from what");
    ada.fill("/jobs/2/tape", &crate::tape(["21", "18 1/2"], "1,000")).await;
    let drawn = ada.get("/jobs/2").await;
    assert!(drawn.text(".legend").contains("at its last visit, with what was aboard then"));
    assert_eq!(drawn.attributes("svg .mark-earlier", "x1").len(), 4, "empty and loaded, in either picture");
    assert!(drawn.text("svg desc").contains("job 1, empty 21 1/2 in"), "{}", drawn.text("svg desc"));
    let second = ada.get("/jobs/2").await;
    let back = second.form("form[action='/jobs/2/vehicle']").with(&[("comes_back_from", "1")]);
    ada.send(&back).await;
    assert!(ada.get(&job).await.text("main").contains("It came back: job 2"));
    let vehicle = ada.get("/vehicles/1").await;
    assert_eq!(vehicle.texts("tbody tr").len(), 2);
    assert!(vehicle.texts("tbody tr")[1].contains("21 1/2 in empty, 18 13/16 in loaded"), "{:?}", vehicle.texts("tbody tr"));
    let gone = ada.get("/customers?years=1").await;
    assert!(gone.text("main").contains("Nobody: everyone on file was here since"), "{}", gone.text("main"));
    assert_eq!(
        ada.get("/customers?years=400").await.form("form[action='/customers']").value("years"),
        "7",
        "no such number of years"
    );
    let customer = ada.get("/customers/1").await;
    assert_eq!(customer.field("phone").0, "555 0123");
    let erased = ada.send(&customer.form("form[action='/customers/1/erase']")).await;
    assert_eq!(erased.text("h1"), "(erased)");
    assert!(!ada.get("/vehicles/1").await.text("main").contains("AB"), "the plate went too");
    assert!(ada.get("/?q=customer").await.text(".empty").contains("No job is found"), "and nothing is found by it");
    assert_eq!(ada.get(&job).await.status, StatusCode::OK, "what was measured stays");
}

/// What was read before the work of an earlier visit and what was read after it are not drawn as one.
#[tokio::test]
async fn of_an_earlier_visit_only_what_was_read_after_the_work_is_drawn() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let whose = ada.get(&job).await.form(&format!("form[action='{job}/vehicle']"));
    ada.send(&whose.with(&[("plate", "AB 12")])).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let after = [("loaded.rear_left.0", "20 9/16"), ("loaded.rear_right.0", "20 9/16")];
    ada.fill(&format!("{job}/proof"), &after).await;
    let again = ada.get("/jobs/new?plate=AB12").await.form("form[data-draft]").with(&[("label", "Back again")]);
    assert_eq!(ada.send(&again).await.status, StatusCode::OK);
    ada.fill("/jobs/2/tape", &crate::tape(["22", "20"], "1,000")).await;
    let drawn = ada.get("/jobs/2").await.text("svg desc");
    assert!(drawn.contains("job 1, loaded 20 9/16 in") && !drawn.contains("job 1, empty"), "{drawn}");
}

#[tokio::test]
async fn two_who_change_one_customer_do_not_write_over_each_other() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let form = ada.form("/jobs/new").await.with(&INTAKE).with(&[("customer", "M. Customer")]);
    ada.send(&form).await;
    let own = "form[action='/customers/1']";
    let (first, second) = (ada.get("/customers/1").await.form(own), bo.get("/customers/1").await.form(own));
    assert_eq!(ada.send(&first.with(&[("name", "M. Customer Sr.")])).await.status, StatusCode::OK);
    let late = bo.send(&second.with(&[("name", "Someone else")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert!(late.text(".refusal").contains("On file now: name “M. Customer Sr.”."), "{}", late.text(".refusal"));
    assert_eq!(late.field("name").0, "Someone else", "what was typed is still there");
    assert_eq!(bo.get("/customers/1").await.field("name").0, "M. Customer Sr.");
    let again = bo.send(&late.form(own)).await;
    assert_eq!((again.status, again.text("h1")), (StatusCode::OK, "Someone else".to_owned()), "saved on purpose");
    let nameless = ada.send(&again.form(own).with(&[("name", " "), ("note", "likes it level")])).await;
    assert_eq!(nameless.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(nameless.text("h1"), "Someone else");
    assert!(nameless.html.html().contains("likes it level"), "and nothing that was typed is lost");
}

/// The next event that a stream tells.
async fn event(stream: &mut reqwest::Response) -> String {
    let told = async {
        loop {
            let chunk = stream.chunk().await.unwrap().expect("the stream goes on");
            let text = String::from_utf8_lossy(&chunk).into_owned();
            if text.starts_with("data:") {
                return text.trim().to_owned();
            }
        }
    };
    tokio::time::timeout(Duration::from_secs(10), told).await.expect("something happens")
}

#[tokio::test]
async fn an_open_page_hears_what_others_do_in_its_own_shop() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let mut heard = bo.client().get(bo.url("/events")).send().await.unwrap();
    assert_eq!(heard.headers().get("content-type").unwrap(), "text/event-stream");
    let hello = heard.chunk().await.unwrap().unwrap();
    assert!(hello.starts_with(b"retry:"), "{hello:?}");
    tokio::time::sleep(Duration::from_millis(500)).await;
    open_half_ton(&ada).await;
    assert_eq!(event(&mut heard).await, "data: {\"job\":1,\"own\":false}");
    bo.fill("/jobs/1/intake", &[("label", "By Bo")]).await;
    assert_eq!(event(&mut heard).await, "data: {\"job\":1,\"own\":true}");
}

#[tokio::test]
async fn whoever_watches_over_the_program_learns_whether_it_is_well() {
    let (site, ada) = shop().await;
    let status = async |path: &str| reqwest::get(format!("{}{path}", site.address)).await.unwrap().status();
    assert_eq!((status("/health").await, status("/ready").await), (StatusCode::OK, StatusCode::OK));
    site.shut_database(true);
    assert_eq!((status("/health").await, status("/ready").await), (StatusCode::OK, StatusCode::SERVICE_UNAVAILABLE));
    site.shut_database(false);
    let mut back = status("/ready").await;
    for _ in 0..20 {
        if back == StatusCode::OK {
            break;
        }
        tokio::time::sleep(Duration::from_millis(300)).await;
        back = status("/ready").await;
    }
    assert_eq!(back, StatusCode::OK, "it comes back by itself");
    drop(ada);
}

#[tokio::test]
async fn every_page_tells_what_it_is_for() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let tape = ada.get(&format!("{job}/tape")).await;
    assert_eq!(tape.attributes("a.help-link", "href")[0], format!("/help?at={job}/tape"));
    let help = ada.get(&format!("/help?at={job}/tape")).await;
    assert_eq!(help.text(".help h1"), "Tape");
    assert!(help.text(".glossary").contains("What a height is measured from and to"));
    assert_eq!(help.attributes(".btn-primary", "href"), [format!("{job}/tape")]);
    let elsewhere = ada.get("/help?at=https://example.org/").await;
    assert_eq!(elsewhere.attributes(".btn-primary", "href"), ["/"], "back to this program alone");
}
