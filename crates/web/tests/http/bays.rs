//! Bays: booked by the plan's hours, moved, struck off, and read by a calendar program.

use std::io::BufReader;

use reqwest::StatusCode;

use crate::visitor::Page;
use crate::{Site, Visitor, open_half_ton, shop};

/// A shop with two bays and a job.
async fn with_bays() -> (Site, Visitor, String) {
    let (site, ada) = shop().await;
    for (name, lift) in [("Long bay", ""), ("Lift 1", "yes")] {
        let form = ada.get("/bays").await.form("form[action='/bays/new']").with(&[("bay", name), ("lift", lift)]);
        ada.send(&form).await;
    }
    let job = open_half_ton(&ada).await;
    (site, ada, job)
}

/// Books by hand.
async fn book(visitor: &Visitor, number: i32, bay: &str, day: &str, time: &str, hours: &str) -> Page {
    let page = visitor.get(&format!("/bays/book?job={number}")).await;
    let form = page.form("section[aria-labelledby='hand-head'] form");
    let values = [("bay", bay), ("day", day), ("time", time), ("hours", hours), ("person", ""), ("second", "")];
    visitor.send(&form.with(&values)).await
}

#[tokio::test]
async fn the_earliest_slot_is_found_and_booked_with_one_press() {
    let (_site, ada, _job) = with_bays().await;
    let page = ada.get("/bays/book?job=1").await;
    let slots = page.texts(".slots button");
    assert_eq!(slots.len(), 2, "one a bay: {slots:?}");
    assert!(slots[0].starts_with("Long bay, ") && slots[0].ends_with(", Ada"), "{slots:?}");
    let week = ada.send(&page.form(".slots form")).await;
    assert_eq!(week.path, "/bays");
    let booked = week.attributes("svg.bay-week a", "aria-label");
    assert!(booked.len() == 1 && booked[0].starts_with("Long bay: 1 Half-ton by hand, "), "{booked:?}");
    let next = ada.get("/bays/book?job=1").await;
    assert!(next.texts(".slots button").iter().all(|slot| !slot.starts_with(&slots[0][..28])), "that one is taken now");
}

#[tokio::test]
async fn nobody_books_what_is_taken_and_is_shown_what_is_free() {
    let (_site, ada, _job) = with_bays().await;
    open_half_ton(&ada).await;
    assert_eq!(book(&ada, 1, "1", "2030-12-02", "13:00", "6").await.path, "/bays");
    let taken = book(&ada, 2, "1", "2030-12-03", "08:00", "1").await;
    assert_eq!(taken.status, StatusCode::CONFLICT, "it stands there overnight");
    assert!(taken.text("[role=alert]").contains("the bay is taken"), "{}", taken.text("main"));
    assert!(!taken.texts(".slots button").is_empty());
    assert_eq!(taken.attributes("input#day", "value"), ["2030-12-03"], "what was typed is still there");
    for (day, time, hours, says) in [
        ("", "08:00", "1", "Say the day and the time"),
        ("2030-12-07", "08:00", "1", "The shop does not work then"),
        ("2030-12-02", "03:00", "1", "The shop does not work then"),
        ("2030-12-02", "08:00", "lots", "Hours are a number"),
        ("2030-12-02", "08:00", "-3", "Hours are a number"),
        ("2030-12-02", "08:00", "1e9", "Hours are a number"),
    ] {
        let page = book(&ada, 2, "2", day, time, hours).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{says}");
        assert!(page.text("[role=alert]").contains(says), "{says}: {}", page.text("[role=alert]"));
    }
    assert_eq!(book(&ada, 2, "99", "2030-12-02", "08:00", "1").await.status, StatusCode::NOT_FOUND);
    for far in ["+262142-12-31", "-262143-01-01", "9999-12-31", "nonsense"] {
        assert_eq!(book(&ada, 2, "2", far, "08:00", "1").await.status, StatusCode::UNPROCESSABLE_ENTITY, "{far}");
        let week = ada.get(&format!("/bays?week={}", far.replace('+', "%2B"))).await;
        assert_eq!(week.status, StatusCode::OK, "{far} shows the week that it is");
    }
}

#[tokio::test]
async fn a_booking_is_moved_by_steps_of_the_shops_own_hours_and_struck_off() {
    let (_site, ada, _job) = with_bays().await;
    book(&ada, 1, "1", "2030-12-02", "15:00", "1").await;
    let said =
        async |week: &str| ada.get(&format!("/bays?week={week}")).await.attributes("svg.bay-week a", "aria-label").join("|");
    let id = async |week: &str| ada.get(&format!("/bays?week={week}")).await.attributes("svg.bay-week a", "href")[0].clone();
    let moved = async |by: &[(&str, &str)]| {
        let path = format!("{}/move", id("2030-12-02").await);
        let hidden = ada.get("/bays?week=2030-12-02").await.form("form.bay-move");
        let mut fields: Vec<(String, String)> = hidden.fields().to_vec();
        fields.extend(by.iter().map(|(name, text)| ((*name).to_owned(), (*text).to_owned())));
        ada.post(&path, &fields).await
    };
    moved(&[("steps", "2")]).await;
    assert!(said("2030-12-02").await.contains("Tue Dec 3 8:00 to Tue Dec 3 9:00"), "{}", said("2030-12-02").await);
    moved(&[("rows", "1"), ("steps", "-1")]).await;
    assert!(
        said("2030-12-02").await.contains("Lift 1: ") && said("2030-12-02").await.contains("Mon Dec 2 15:30 to Tue Dec 3 8:30")
    );
    let first = id("2030-12-02").await;
    moved(&[("days", "1")]).await;
    assert!(said("2030-12-02").await.contains("Tue Dec 3 15:30"));
    let before = ada.get(&first).await;
    assert!(
        before.text("[role=alert]").starts_with("Ada put it in Lift 1, Tue Dec 3, 15:30, meanwhile"),
        "{}",
        before.text("main")
    );
    assert_eq!(before.form("section[aria-labelledby='hand-head'] form").value("time"), "15:30", "as it stands now");
    assert_eq!(ada.get("/bays/bookings/999999").await.status, StatusCode::NOT_FOUND);
    let page = ada.get(&id("2030-12-02").await).await;
    let struck = ada.send(&page.form("form[action$='/withdraw']")).await;
    assert_eq!((struck.status, said("2030-12-02").await), (StatusCode::OK, String::new()));
}

#[tokio::test]
async fn what_does_not_go_together_is_said() {
    let (_site, ada, _job) = with_bays().await;
    open_half_ton(&ada).await;
    for (number, bay) in [(1, "1"), (2, "2")] {
        let page = ada.get(&format!("/bays/book?job={number}")).await;
        let form = page.form("section[aria-labelledby='hand-head'] form");
        let values = [("bay", bay), ("day", "2030-12-02"), ("time", "09:00"), ("hours", "2"), ("person", "1"), ("second", "")];
        ada.send(&form.with(&values)).await;
    }
    let clashes = ada.get("/bays?week=2030-12-02").await.texts(".clashes li");
    assert_eq!(clashes.len(), 2, "{clashes:?}");
    assert!(clashes[0].contains("Ada is booked elsewhere then"));
}

#[tokio::test]
async fn a_calendar_program_reads_the_bays_by_a_link_that_can_be_taken_back() {
    let (site, ada, _job) = with_bays().await;
    let soon = (chrono::Local::now() + chrono::TimeDelta::days(7)).date_naive();
    let monday = soon - chrono::Days::new(u64::from(chrono::Datelike::weekday(&soon).num_days_from_monday()));
    book(&ada, 1, "1", &monday.to_string(), "09:00", "2").await;
    let made = ada.post("/bays/calendar", &[]).await;
    let link = made.attributes(".link-once input", "value")[0].clone();
    assert!(link.starts_with(&format!("{}/bays.ics?key=", site.address)), "{link}");
    assert!(ada.get("/bays").await.attributes(".link-once input", "value").is_empty(), "it is shown once");
    let text = reqwest::get(&link).await.unwrap().text().await.unwrap();
    let calendar = ical::IcalParser::new(BufReader::new(text.as_bytes())).next().unwrap().unwrap();
    let property = |name: &str| calendar.events[0].properties.iter().find(|of| of.name == name).and_then(|of| of.value.clone());
    assert_eq!(calendar.events.len(), 1);
    assert_eq!(property("SUMMARY").unwrap(), "Long bay: 1 Half-ton by hand");
    assert!(property("DTSTART").is_some() && property("DTEND").is_some());
    assert_eq!(reqwest::get(format!("{}/bays.ics?key=x", site.address)).await.unwrap().status(), StatusCode::NOT_FOUND);
    ada.press("/bays", "/revoke").await;
    assert_eq!(reqwest::get(&link).await.unwrap().status(), StatusCode::NOT_FOUND, "taken back");
}

/// Two look at one booking; who comes second loses nothing of what he asked, sees what the other did, and gets it with one press more.
#[tokio::test]
async fn two_who_move_one_booking_see_what_the_other_did() {
    let (site, ada, _job) = with_bays().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    book(&ada, 1, "1", "2030-12-02", "09:00", "1").await;
    let booking = ada.get("/bays?week=2030-12-02").await.attributes("svg.bay-week a", "href")[0].clone();
    let hand = "section[aria-labelledby='hand-head'] form";
    let (his, mine) = (bo.get(&booking).await, ada.get(&booking).await);
    bo.send(&his.form(hand).with(&[("time", "13:00")])).await;
    let late = ada.send(&mine.form(hand).with(&[("time", "10:30"), ("hours", "2")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    let said = late.text("[role=alert]");
    assert!(said.contains("Nothing was moved. Bo put it in Long bay, Mon Dec 2, 13:00, meanwhile"), "{said}");
    let form = late.form(hand);
    assert_eq!((form.value("time"), form.value("hours")), ("10:30", "2"), "what was asked is still there");
    let again = ada.send(&form).await;
    assert_eq!(again.status, StatusCode::OK, "{}", again.text("main"));
    let week = ada.get("/bays?week=2030-12-02").await.attributes("svg.bay-week a", "aria-label");
    assert!(week.len() == 1 && week[0].contains("10:30 to Mon Dec 2 12:30"), "{week:?}");
}

/// Dragged from where it is no more, struck off twice, moved after it was struck off.
#[tokio::test]
async fn what_somebody_struck_off_is_not_moved_and_can_be_booked_anew() {
    let (_site, ada, _job) = with_bays().await;
    book(&ada, 1, "1", "2030-12-02", "09:00", "1").await;
    let week = ada.get("/bays?week=2030-12-02").await;
    let booking = week.attributes("svg.bay-week a", "href")[0].clone();
    let moved = async |steps: &str| {
        let mut fields: Vec<(String, String)> = ada.get("/bays?week=2030-12-02").await.form("form.bay-move").fields().to_vec();
        fields.push(("steps".to_owned(), steps.to_owned()));
        ada.post(&format!("{booking}/move"), &fields).await
    };
    let page = ada.get(&booking).await;
    let mut twice: Vec<(String, String)> = week.form("form.bay-move").fields().to_vec();
    twice.push(("steps".to_owned(), "2".to_owned()));
    for _ in 0..2 {
        let sent = ada.post(&format!("{booking}/move"), &twice).await;
        assert_eq!(sent.status, StatusCode::OK, "one sending, arrived twice, moved it once: {}", sent.text("main"));
    }
    let again = moved("2").await;
    assert_eq!(again.status, StatusCode::CONFLICT, "by so much from where it is no more");
    assert!(
        again.text("[role=alert]").contains("Nothing was moved. Ada put it in Long bay, Mon Dec 2, 10:00"),
        "{}",
        again.text("main")
    );
    let off = ada.send(&page.form("form[action$='/withdraw']")).await;
    assert_eq!(off.status, StatusCode::CONFLICT, "it is another now");
    ada.send(&off.form("form[action$='/withdraw']")).await;
    assert!(ada.get("/bays?week=2030-12-02").await.attributes("svg.bay-week a", "href").is_empty());
    let gone = moved("2").await;
    assert!(gone.text("[role=alert]").contains("Ada struck it off meanwhile"), "{}", gone.text("main"));
    let anew =
        ada.send(&gone.form("section[aria-labelledby='hand-head'] form").with(&[("day", "2030-12-02"), ("time", "14:00")])).await;
    assert_eq!(anew.status, StatusCode::OK, "{}", anew.text("main"));
    assert_eq!(ada.get("/bays?week=2030-12-02").await.attributes("svg.bay-week a", "href").len(), 1);
}
