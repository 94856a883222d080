//! Aims: set, refused, judged against, and what they do in the other load case.

use reqwest::StatusCode;

use crate::{BLOCK, consider, measured_half_ton, open_half_ton, shop};

#[tokio::test]
async fn each_aim_is_judged_in_its_own_load_case() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/aim");
    consider(&ada, &job, &BLOCK).await;
    let verdict = async || ada.get(&format!("{job}/options")).await.text(".option .aim-verdict");
    // With 2 in of block the rear sits at 20.81 loaded over a front of 20.50: 5/16 in of rake.
    ada.fill(&path, &[("kind", "level_loaded"), ("rake", "1/4"), ("tolerance", "3/4")]).await;
    assert!(verdict().await.starts_with("Meets the aim"), "{}", verdict().await);
    ada.fill(&path, &[("kind", "level_loaded"), ("rake", "2"), ("tolerance", "1/4")]).await;
    assert!(verdict().await.starts_with("Misses the aim: 1 11/16 in below"), "{}", verdict().await);
    // Level when empty: 23.50 over 20.50 is 3 in too high.
    let aim = ada.fill(&path, &[("kind", "level_empty"), ("tolerance", "1/4")]).await;
    assert!(verdict().await.starts_with("Misses the aim: 3 in above"), "{}", verdict().await);
    assert!(aim.text("main").to_lowercase().contains("nose"), "what it does loaded is said: {}", aim.text("main"));
    ada.fill(&path, &[("kind", "stock_height"), ("rear", "23 1/2"), ("tolerance", "1/2")]).await;
    assert!(verdict().await.starts_with("Meets the aim"), "{}", verdict().await);
    assert_eq!(ada.get(&path).await.form("form[data-draft]").value("rear"), "23 1/2");
}

#[tokio::test]
async fn a_rake_is_wanted_empty_too_and_stays_as_it_was_typed() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/aim");
    // 21 1/2 over 20 1/2 in front: an inch of rake as it stands.
    let aim = ada.fill(&path, &[("kind", "level_empty"), ("rake_empty", "3"), ("tolerance", "1/4")]).await;
    assert_eq!(aim.figure("Rear wanted, empty").0, "23 1/2 in ± 1/4 in");
    let form = aim.form("form[data-draft]");
    assert_eq!((form.value("kind"), form.value("rake_empty")), ("level_empty", "3"));
    let block = consider(&ada, &job, &BLOCK).await;
    assert!(block.text(".option .aim-verdict").starts_with("Meets the aim"), "{}", block.text("main"));
    let level = ada.fill(&path, &[("kind", "level_empty"), ("rake_empty", "0"), ("tolerance", "1/4")]).await;
    assert_eq!(level.figure("Rear wanted, empty").0, "20 1/2 in ± 1/4 in");
    let far = ada.fill(&path, &[("kind", "level_empty"), ("rake_empty", "60"), ("tolerance", "1/4")]).await;
    assert_eq!((far.status, far.field("rake_empty").0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "60"));
    assert!(!far.field("rake_empty").1.is_empty());
}

#[tokio::test]
async fn an_aim_that_cannot_be_is_refused_and_kept() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    for (values, field) in [
        (vec![("kind", "level_loaded"), ("rake", "60"), ("tolerance", "1/4")], "rake"),
        (vec![("kind", "level_loaded"), ("rake", "1/"), ("tolerance", "1/4")], "rake"),
        (vec![("kind", "level_empty"), ("tolerance", "")], "tolerance"),
        (vec![("kind", "level_empty"), ("tolerance", "20")], "tolerance"),
        (vec![("kind", "stock_height"), ("rear", "38"), ("tolerance", "1/4")], "rear"),
    ] {
        let page = ada.fill(&format!("{job}/aim"), &values).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{values:?}");
        assert!(!page.field(field).1.is_empty(), "{values:?}");
        assert_eq!(page.field(field).0, values.iter().find(|(name, _)| *name == field).unwrap().1);
    }
    let none = ada.fill(&format!("{job}/aim"), &[("kind", "")]).await;
    assert!(none.text(".picks .problem").starts_with("Pick what height"));
}

#[tokio::test]
async fn each_stage_names_what_is_missing_and_leads_there() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let verdict = ada.get(&format!("{job}/verdict")).await;
    assert!(verdict.text(".missing").starts_with("Still to measure: empty heights, loaded heights, what was put on"));
    assert_eq!(verdict.text(".missing a"), "Go to Tape");
    assert!(ada.get(&format!("{job}/options")).await.text("main").contains("No aim is set"));
    assert!(ada.get(&format!("{job}/proof")).await.text(".empty").contains("Nothing is chosen"));
    assert!(ada.get("/").await.text(".job-stands").starts_with("To measure: empty heights"));
}

/// What a vehicle lost does not hang on what anybody wants of it.
#[tokio::test]
async fn where_the_inches_went_is_the_same_whatever_the_aim() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let verdict = format!("{job}/verdict");
    let way = async || ada.get(&verdict).await.texts("svg.way text");
    let before = way().await;
    assert!(before.iter().any(|words| words.contains("The load, on the springs")), "{before:?}");
    for aim in [
        &[("kind", "recover_sag"), ("percent", "35"), ("tolerance", "1/4")][..],
        &[("kind", "stock_height"), ("rear", "24"), ("tolerance", "1/4")],
        &[("kind", "level_loaded"), ("rake", "1"), ("tolerance", "1/4")],
    ] {
        let set = ada.fill(&format!("{job}/aim"), aim).await;
        assert_eq!(set.status, StatusCode::OK, "{}", set.text("main"));
        assert_eq!(way().await, before, "{aim:?}");
    }
    // The height when sound is where it begins, once that is known.
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("sound_rear", "22 1/2")])).await;
    let known = way().await;
    assert!(known.iter().any(|words| words.contains("Spring set")), "{known:?}");
}

#[tokio::test]
async fn a_job_about_the_vehicle_empty_is_not_asked_for_loaded_heights_again() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let corners = ["empty.front_left.0", "empty.front_right.0", "empty.rear_left.0", "empty.rear_right.0"];
    let mut read: Vec<_> = corners.into_iter().zip(["520 mm", "520 mm", "531 mm", "531 mm"]).collect();
    read.push(("datum", "hub_to_arch"));
    ada.fill(&format!("{job}/tape"), &read).await;
    let verdict = ada.get(&format!("{job}/verdict")).await;
    assert!(verdict.text("main").contains("Still to measure: loaded heights"), "{}", verdict.text("main"));
    // The picture shows what was read, and invents nothing of what was not.
    let drawn = verdict.text("svg.stance-narrow desc");
    assert!(drawn.contains("empty 20 7/8 in") && !drawn.contains("loaded"), "{drawn}");
    ada.fill(&format!("{job}/aim"), &[("kind", "level_empty"), ("tolerance", "5 mm")]).await;
    for page in ["/verdict", "/options", ""] {
        let page = ada.get(&format!("{job}{page}")).await;
        assert!(!page.text("main").contains("Still to measure"), "{}: {}", page.path, page.text("main"));
    }
    assert_eq!(ada.get(&job).await.text(".stands"), "To look over");
}

/// “Back to stock” has a number: what sound ones of the class stand at, measured from the same; in the units of whoever reads.
#[tokio::test]
async fn the_aim_tells_how_high_sound_ones_stand() {
    let (_site, ada) = shop().await;
    let first = measured_half_ton(&ada).await;
    assert!(ada.get(&format!("{first}/aim")).await.texts("#sound").is_empty(), "nobody told or measured one");
    let sheet = ada.get(&format!("{first}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("sound_rear", "22 1/2")])).await;
    let own = ada.get(&format!("{first}/aim")).await.text("#sound");
    assert!(own.contains("22 1/2 in") && own.contains("told at the counter"), "{own}");
    // Another of the class, measured from the same.
    let second = measured_half_ton(&ada).await;
    let other = ada.get(&format!("{second}/aim")).await.text("#sound");
    assert!(other.contains("22 1/2 in") && other.contains("Another model of the class may stand otherwise"), "{other}");
    // From the ground it does not compare.
    let ground = open_half_ton(&ada).await;
    let mut tape = crate::tape(["38", "36"], "1,000");
    tape[0] = ("datum", "ground_to_arch");
    ada.fill(&format!("{ground}/tape"), &tape).await;
    assert!(ada.get(&format!("{ground}/aim")).await.texts("#sound").is_empty(), "measured from the ground");
    let units = [("length".to_owned(), "mm".to_owned()), ("next".to_owned(), format!("{second}/aim"))];
    let in_mm = ada.post("/units", &units).await;
    assert!(in_mm.text("#sound").contains("572 mm"), "{} {}", in_mm.status, in_mm.text("#sound"));
}
