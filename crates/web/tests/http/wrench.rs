//! The wrench card without a script and as a device sends its ticks: once each, in any order, by two people, and never on a failed part.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{Page, Visitor, measured_half_ton, shop};

/// A half-ton with a block chosen, and the address of its card.
async fn chosen() -> (Site, Visitor, String) {
    chosen_of(&[("kind", "lift_block"), ("thickness", "1 3/4")]).await
}

async fn chosen_of(part: &[(&str, &str)]) -> (Site, Visitor, String) {
    let (site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/options"), part).await;
    let options = ada.get(&format!("{job}/options")).await;
    let chosen = ada.send(&options.form("form[action$='/choose']")).await;
    assert_eq!(chosen.status, StatusCode::OK, "{}", chosen.text("main"));
    (site, ada, format!("{job}/wrench"))
}

fn fields(step: &str, key: &str, answer: &str, more: &[(&str, &str)]) -> Vec<(String, String)> {
    let own = [("step", step), ("key", key), ("answer", answer), ("part", "card")];
    own.iter().chain(more).map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect()
}

async fn tick(by: &Visitor, card: &str, step: &str, key: &str, answer: &str) -> Page {
    by.post(&format!("{card}/ticks"), &fields(step, key, answer, &[])).await
}

fn stands(page: &Page, step: &str) -> String {
    page.attributes(&format!("[data-step='{step}']"), "class").pop().unwrap_or_default()
}

fn done(page: &Page) -> String {
    page.text(".wrench-head strong")
}

#[tokio::test]
async fn without_a_choice_there_is_no_card_and_the_way_to_one() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let page = ada.get(&format!("{job}/wrench")).await;
    assert!(page.text(".missing").contains("Nothing is chosen yet"), "{}", page.text("main"));
    assert!(page.texts(".wrench-step").is_empty());
}

/// Over a rating, and on a cracked leaf, nothing is fitted: the card says so in the place of its steps.
#[tokio::test]
async fn over_a_rating_or_on_a_failed_part_there_is_no_card() {
    let (_site, ada, card) = chosen().await;
    let job = card.trim_end_matches("/wrench").to_owned();
    assert!(!ada.get(&card).await.texts(".wrench-step").is_empty());
    let look_over = ada.get(&format!("{job}/look-over")).await.form("form[action$='/look-over']");
    ada.send(&look_over.with(&[("leaves_grade", "stop"), ("leaves_cracked_leaf", "yes")])).await;
    let cracked = ada.get(&card).await;
    assert!(cracked.texts(".wrench-step").is_empty(), "{}", cracked.text(".missing"));
    let (_site, ada, card) = chosen().await;
    let job = card.trim_end_matches("/wrench").to_owned();
    ada.fill(&format!("{job}/tape"), &[("load_weight", "2900")]).await;
    let over = ada.get(&card).await;
    assert!(over.text(".missing").contains("over a rating") && over.texts(".wrench-step").is_empty());
}

#[tokio::test]
async fn a_tick_is_taken_once_however_often_it_is_sent_and_two_people_tick_one_card() {
    let (site, ada, card) = chosen().await;
    let bo = Visitor::working(&site.address, "Ada").await;
    tick(&ada, &card, "part.option.0", "device-a-00001", "done").await;
    let first = tick(&ada, &card, "part.used.u_bolts", "device-a-00002", "done").await;
    assert_eq!(first.status, StatusCode::OK, "{}", first.text("body"));
    let checked = tick(&bo, &card, "parts_checked", "device-b-00001", "yes").await;
    assert_eq!(done(&checked).split(' ').next(), Some("1"), "{}", done(&checked));
    // The answer was lost, and the phone sends it again: nothing is doubled.
    let again = tick(&bo, &card, "parts_checked", "device-b-00001", "yes").await;
    assert_eq!(done(&again), done(&checked));
    let leveling = tick(&ada, &card, "leveling_off", "device-a-00003", "yes").await;
    assert!(stands(&leveling, "parts_checked").contains("is-done") && stands(&leveling, "leveling_off").contains("is-done"));
    let last = leveling.attributes(".wrench-card", "data-last").remove(0);
    let nothing_new = ada.get(&format!("{card}/card?since={last}")).await;
    assert_eq!(nothing_new.status, StatusCode::NO_CONTENT);
    let anew = ada.get(&format!("{card}/card?since=0")).await;
    assert_eq!((anew.status, done(&anew)), (StatusCode::OK, done(&leveling)));
    let record = ada.get(&format!("{}/record.json", card.trim_end_matches("/wrench"))).await;
    assert!(record.text("body").contains("leveling_off"), "ticks are in the job's record");
}

#[tokio::test]
async fn how_it_is_raised_is_said_before_anything_is_and_changes_the_card() {
    let (_site, ada, card) = chosen().await;
    for (step, key) in [("part.option.0", "device-a-00001"), ("part.used.u_bolts", "device-a-00002")] {
        tick(&ada, &card, step, key, "done").await;
    }
    for (step, key) in [("parts_checked", "device-a-00003"), ("leveling_off", "device-a-00004"), ("tip_back", "device-a-00005")] {
        tick(&ada, &card, step, key, "yes").await;
    }
    let unsaid = ada.get(&card).await;
    assert!(stands(&unsaid, "rear.chocked").contains("is-waits"));
    let lift = tick(&ada, &card, "card.lifting", "device-a-00006", "lift").await;
    assert!(stands(&lift, "rear.chocked").contains("is-open"), "{}", stands(&lift, "rear.chocked"));
    assert!(!stands(&lift, "rear.pads_checked").is_empty() && stands(&lift, "rear.stands_set").is_empty());
    let floor = tick(&ada, &card, "card.lifting", "device-a-00007", "floor").await;
    assert!(stands(&floor, "rear.pads_checked").is_empty() && !stands(&floor, "rear.stands_set").is_empty());
}

/// A torque needs its figure and its reading; one far from the figure, one with words, and one past all sense are told in a sentence.
#[tokio::test]
async fn a_torque_without_a_figure_or_far_from_it_is_not_done() {
    let (_site, ada, card) = chosen().await;
    let torque = async |key: &str, target: &str, read: &str| {
        let more = [("target", target), ("read", read), ("wrench", "half-inch")];
        ada.post(&format!("{card}/ticks"), &fields("rear.left.u_bolts_tight", key, "torque", &more)).await
    };
    for (key, target, read) in [
        ("device-a-00001", "", "100"),
        ("device-a-00002", "100", "tight"),
        ("device-a-00003", "100", "99999"),
        ("device-a-00004", "-5", "100"),
    ] {
        let refused = torque(key, target, read).await;
        assert_eq!(refused.status, StatusCode::CONFLICT, "{target} {read}: {}", refused.text("main"));
        assert!(refused.text("main").contains("figure") || refused.text("main").contains("reading"), "{}", refused.text("main"));
    }
    let metric = torque("device-a-00005", "100 ft-lb", "136 N·m").await;
    assert_eq!(metric.status, StatusCode::OK, "{}", metric.text("main"));
    let value = |page: &Page| page.texts("[data-step='rear.left.u_bolts_tight'] .answered");
    assert!(value(&metric)[0].contains("Torqued"), "{:?}", value(&metric));
}

#[tokio::test]
async fn what_is_no_tick_is_refused_and_nothing_is_kept_of_it() {
    let (_site, ada, card) = chosen().await;
    for (step, key, answer) in [
        ("rear.chocked", "short", "yes"),
        ("rear.chocked", "device/../a-00001", "yes"),
        ("Rear Chocked!", "device-a-00001", "yes"),
        ("rear.chocked", "device-a-00001", "perhaps"),
    ] {
        let refused = tick(&ada, &card, step, key, answer).await;
        assert_eq!(refused.status, StatusCode::BAD_REQUEST, "{step} {key} {answer}");
    }
    assert_eq!(done(&ada.get(&card).await).split(' ').next(), Some("0"));
    let finished = ada.get(&format!("{card}/card?since=soon")).await;
    assert_eq!(finished.status, StatusCode::BAD_REQUEST);
}

/// Without a script every step is a form of its own, and the page comes back where the work goes on.
#[tokio::test]
async fn without_a_script_every_step_is_a_form_of_its_own() {
    let (_site, ada, card) = chosen().await;
    let page = ada.get(&card).await;
    let form = page.form("[data-step='part.option.0'] form");
    let ticked = ada.send(&form.with(&[("answer", "done"), ("note", "both sides, 3 in wide")])).await;
    assert_eq!((ticked.status, ticked.path.as_str()), (StatusCode::OK, card.as_str()));
    assert!(ticked.text("[data-step='part.option.0'] .answered").contains("both sides, 3 in wide"));
    let back = ada.send(&ticked.form("[data-step='part.option.0'] form").with(&[("answer", "taken_back")])).await;
    assert!(back.texts("[data-step='part.option.0'] .answered").is_empty());
}

/// The option is swapped while the U-bolts are off, and then taken back altogether: they stay loose, and that is said.
#[tokio::test]
async fn what_is_loose_stays_so_when_the_parts_are_swapped_or_the_choice_is_taken_back() {
    let (_site, ada, card) = chosen().await;
    let job = card.trim_end_matches("/wrench").to_owned();
    tick(&ada, &card, "rear.left.u_bolts_off", "device-a-00001", "done").await;
    let options = ada
        .fill(
            &format!("{job}/options"),
            &[("kind", "helper_by_capacity"), ("helper_capacity", "600"), ("helper_travel", "6"), ("helper_gap", "1")],
        )
        .await;
    ada.send(&options.form("form[action$='/choose']")).await;
    let swapped = ada.get(&card).await;
    assert!(swapped.text(".for-job").contains("Helper springs"), "{}", swapped.text("main"));
    assert!(!stands(&swapped, "rear.left.u_bolts_tight").is_empty());
    assert!(swapped.texts(".loose li").iter().any(|line| line.contains("U-bolts")), "{:?}", swapped.texts(".loose li"));
    ada.press(&format!("{job}/options"), "/options/none").await;
    let none = ada.get(&card).await;
    assert!(none.text(".missing").contains("Still loose or open on it: U-bolts"), "{}", none.text("main"));
}

/// A photograph hangs on the step that it was taken at, and on no step that there is not.
#[tokio::test]
async fn a_photograph_is_taken_at_a_step() {
    let (_site, ada, card) = chosen().await;
    let job = card.trim_end_matches("/wrench").to_owned();
    let page = ada.get(&card).await;
    let subjects = page.attributes("#photo-subject option", "value");
    assert_eq!(subjects.first().map(String::as_str), Some("rear.left.stack_pictured"), "what is to be pictured comes first");
    let form = page.form("form[data-photo]");
    let picture = include_bytes!("../vendor/pixel.png").to_vec();
    let send = async |subject: &str, token: &str| {
        let texts = [("token", token), ("subject", subject), ("back", "wrench")];
        ada.send_file(&format!("{job}/photographs"), &texts, picture.clone()).await
    };
    let shown = send("rear.left.stack_pictured", form.value("token")).await;
    assert!(shown.path.ends_with("/wrench"), "{}", shown.text("main"));
    assert!(shown.text(".album li strong").contains("Stack photographed"), "{}", shown.text(".album"));
    let again = ada.get(&card).await.form("form[data-photo]").value("token").to_owned();
    assert_eq!(send("rear.left.no_such_step", &again).await.status, StatusCode::BAD_REQUEST);
}

/// What is set on the vehicle says to what at its step, in each state; and both sides that take turns stand under one heading.
#[tokio::test]
async fn what_was_planned_of_a_setting_stands_at_its_step() {
    let rubber = [
        ("kind", "rubber_by_capacity"),
        ("rubber_capacity", "2,000"),
        ("rubber_height", "5"),
        ("rubber_clearance", "5/8"),
        ("set_loaded", "3/4"),
    ];
    let (_site, ada, card) = chosen_of(&rubber).await;
    let page = ada.get(&card).await;
    for side in ["left", "right"] {
        let planned = page.text(&format!("[data-step='rear.{side}.clearance_read'] .step-figure"));
        assert_eq!(planned.replace('\u{a0}', " "), "Planned: 5/8 in; for Loaded: 3/4 in");
    }
    let heads = page.texts(".wrench-section > summary");
    let many = heads.iter().filter(|head| head.starts_with("Rear")).count();
    assert!(many <= 9, "{heads:?}");
    let both = page.text("[data-step='rear.right.clearance_read'] .step-text");
    assert_eq!(both.split_whitespace().next(), Some("Right"), "{both}");
}
