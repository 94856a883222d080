//! Intake asks, refuses what cannot be, and offers what was likely meant.

use reqwest::StatusCode;

use crate::{INTAKE, measured_half_ton, open_half_ton, shop};

#[tokio::test]
async fn what_is_missing_is_asked_and_holds_nothing_up() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/intake");
    let sheet = ada.get(&path).await.form("form[action$='/intake/sheet']");
    let asked = ada.get(&path).await.texts(".questions li");
    assert!(asked.iter().any(|question| question.contains("when it was sound")), "{asked:?}");
    let filled =
        sheet.with(&[("complaint_leans", "yes"), ("rear_tyre", "LT245/75R16"), ("sound_rear", "22 1/2"), ("first", "ride")]);
    let saved = ada.send(&filled).await;
    let left = saved.texts(".questions li");
    assert_eq!(left.len(), asked.len() - 4, "{left:?}");
    assert_eq!(saved.form("form[action$='/intake/sheet']").value("sound_rear"), "22 1/2");
}

#[tokio::test]
async fn what_cannot_be_is_said_beside_its_field_and_nothing_is_lost() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    let wrong = [
        ("rear_tyre", "2450/75R16", "the width is out of range"),
        ("rear_track", "66 ft", "A wheel track is between"),
        ("sound_rear", "570", "Did you mean 570 mm?"),
        ("share_full", "130", "between 0 and 100"),
        ("budget", "little", "“little” is no sum of money"),
        ("wanted_by", "next week", "“next week” is no day"),
    ];
    let values: Vec<(&str, &str)> =
        wrong.iter().map(|(name, text, _)| (*name, *text)).chain([("budget_words", "no paint")]).collect();
    let refused = ada.send(&sheet.with(&values)).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    for (name, text, said) in wrong {
        let (stands, problem) = refused.field(name);
        assert_eq!(stands, text);
        assert!(problem.contains(said), "{name}: {problem}");
    }
    assert_eq!(refused.field("budget_words").0, "no paint");
}

#[tokio::test]
async fn what_the_customer_wishes_is_kept_as_a_sum_a_day_and_shares_of_the_time() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/intake");
    let sheet = async || ada.get(&path).await.form("form[action$='/intake/sheet']");
    let wishes =
        [("budget", "$1,250.50"), ("wanted_by", "5/14/2027"), ("share_empty", "60"), ("share_usual", "30"), ("share_full", "10")];
    let saved = ada.send(&sheet().await.with(&wishes)).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.text("main"));
    for (name, text) in wishes {
        assert_eq!(saved.field(name).0, text, "as typed");
    }
    let too_much = ada.send(&sheet().await.with(&[("share_full", "40")])).await;
    assert!(too_much.field("share_full").1.contains("The shares make 130, not 100."), "{}", too_much.field("share_full").1);
    let no_day = ada.send(&sheet().await.with(&[("wanted_by", "2/30/2027")])).await;
    assert!(no_day.field("wanted_by").1.contains("is no day"), "{}", no_day.field("wanted_by").1);
}

#[tokio::test]
async fn a_figure_in_another_unit_is_offered_as_that() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let refused = ada.fill(&format!("{job}/intake"), &[("wheelbase", "3,680")]).await;
    assert!(refused.field("wheelbase").1.contains("Did you mean 3,680 mm?"), "{:?}", refused.field("wheelbase"));
    let tape = ada.fill(&format!("{job}/tape"), &[("empty.rear_left.0", "546")]).await;
    assert!(tape.field("empty.rear_left.0").1.contains("Did you mean 546 mm?"), "{:?}", tape.field("empty.rear_left.0"));
}

#[tokio::test]
async fn tyre_and_hitch_ratings_are_held_against_the_axles() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("rear_tyre_rating", "1,500")])).await;
    ada.fill(&format!("{job}/intake"), &[("kerb_front", "3,000"), ("kerb_rear", "2,250")]).await;
    // 2,250 empty and 1,000 lb over the axle on two tyres of 1,500 lb.
    let verdict = ada.get(&format!("{job}/verdict")).await;
    assert_eq!(verdict.text(".overload h2"), "Take 250 lb off, from over the rear axle.");
    assert!(verdict.text(".overload").contains("The rear tires carry 3,250 lb loaded, 250 lb over their rating of 3,000 lb."));
    assert!(verdict.text(".cause h4").starts_with("It carries more than it may"));
}

#[tokio::test]
async fn every_aim_of_the_trade_can_be_set_and_tells_what_it_does_elsewhere() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/aim");
    let half =
        ada.fill(&path, &[("kind", "recover_sag"), ("percent", "50"), ("tolerance", "1/4"), ("side_to_side", "1/4")]).await;
    // 18 13/16 and half of 2 11/16 in.
    assert!(half.figure("Rear wanted, loaded").0.starts_with("20 3/16 in or more"), "{:?}", half.figure("Rear wanted, loaded"));
    assert_eq!(half.figure("Lean, rear, loaded").1, "within what is wanted side to side");
    let step = [
        ("kind", "clearance"),
        ("point", "step"),
        ("point_distance", "58"),
        ("point_side", "behind"),
        ("measured", "9"),
        ("wanted", "11 1/2"),
        ("tolerance", "1/4"),
    ];
    let clear = ada.fill(&path, &step).await;
    // 2 1/2 / (1 + 58/145) in above 18 13/16.
    assert_eq!(clear.figure("Rear must come up by").0, "1 13/16 in");
    let cases = clear.texts(".cases tbody tr");
    assert!(cases[0].starts_with("Empty, as measured") && cases[1].starts_with("Loaded, as measured"), "{cases:?}");
    let refused = ada.fill(&path, &[("kind", "recover_sag"), ("percent", "0"), ("tolerance", "1/4")]).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
}

/// What a person asks first at the counter is put down with the vehicle.
#[tokio::test]
async fn a_new_job_begins_with_the_complaint_and_keeps_it() {
    let (_site, ada) = shop().await;
    let form = ada.form("/jobs/new").await.with(&INTAKE);
    let asked = [("complaint_words", "drags its hitch on the ramp"), ("complaint_low_loaded", "yes"), ("wanted_by", "5/14/2027")];
    let opened = ada.send(&form.with(&asked)).await;
    assert!(opened.path.ends_with("/tape"), "{}", opened.text("main"));
    let job = opened.path.trim_end_matches("/tape").to_owned();
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    assert_eq!(sheet.value("complaint_words"), "drags its hitch on the ramp");
    assert_eq!((sheet.value("complaint_low_loaded"), sheet.value("wanted_by")), ("yes", "5/14/2027"));
    // What is wrong there is said with the rest, and nothing is opened.
    let form = ada.form("/jobs/new").await.with(&INTAKE);
    let refused = ada.send(&form.with(&[("wanted_by", "someday"), ("wheelbase", "tall")])).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.text(".send .refusal").contains("2 fields"), "{}", refused.text(".send"));
    assert_eq!(ada.get("/").await.texts(".job-line").len(), 1);
}
