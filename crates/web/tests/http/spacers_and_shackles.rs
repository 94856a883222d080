//! What was put in before comes out again: a spacer is never put on another, and a shackle goes in where another hung.

use reqwest::StatusCode;

use crate::{consider, measured_half_ton, shop};

const SHACKLE: [(&str, &str); 4] =
    [("kind", "longer_shackle"), ("shackle_new", "6"), ("shackle_old", "4"), ("shackle_front_half", "28")];

#[tokio::test]
async fn a_spacer_that_is_there_comes_out_and_its_height_is_taken_off() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let kinds = |page: &crate::Page| page.texts("form.try .picks label").join(", ");
    let on_leaves = ada.get(&format!("{job}/options")).await;
    assert!(!kinds(&on_leaves).contains("Coil spacer"), "{}", kinds(&on_leaves));
    let intake = format!("{job}/intake");
    let sheet = ada.get(&intake).await.form("form[action$='/intake/sheet']");
    let on_coils = sheet.with(&[("rear_spring", "coil")]);
    ada.send(&on_coils).await;

    // Nothing noted: nothing comes out.
    let options = ada.get(&format!("{job}/options")).await;
    assert!(kinds(&options).contains("Coil spacer") && !kinds(&options).contains("Longer shackles"), "{}", kinds(&options));
    assert_eq!(options.field("spacer_out").0, "0");
    let bare = consider(&ada, &job, &[("kind", "coil_spacer"), ("spacer", "1 1/2")]).await;
    let chosen = bare.attributes("form[action$='/choose']", "action");
    let bare_one = chosen.iter().find_map(|action| action.split('/').nth_back(1)).expect("it can be chosen").to_owned();
    assert_eq!(bare.text(".option h3"), "1 1/2 in coil spacer", "what comes out is not named where nothing does");
    assert!(bare.figure("Rear, empty").1.starts_with("+1 1/2 in from now"), "{}", bare.text("main"));
    let unsaid = consider(&ada, &job, &[("kind", "coil_spacer"), ("spacer", "1 1/2"), ("spacer_out", "1")]).await;
    assert_eq!(unsaid.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(unsaid.field("spacer_out").1.contains("note it there first"), "{}", unsaid.text("form.try"));

    let noted = ada.get(&intake).await.form("form[action$='/intake/sheet']");
    ada.send(&noted.with(&[("done_rear_spacer", "yes"), ("done_rear_spacer_size", "1")])).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert_eq!(options.field("spacer_out").0, "1", "what Intake notes comes out");
    let stacked = consider(&ada, &job, &[("kind", "coil_spacer"), ("spacer", "2"), ("spacer_out", "0")]).await;
    assert_eq!(stacked.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(stacked.field("spacer_out").1.contains("another height"), "{}", stacked.text("form.try"));
    let exchanged = consider(&ada, &job, &[("kind", "coil_spacer"), ("spacer", "2")]).await;
    assert!(exchanged.figure("Rear, empty").1.starts_with("+1 in from now"), "{}", exchanged.text("main"));
    assert_eq!(exchanged.text(".option h3"), "2 in coil spacer in place of 1 in");
    let considered = exchanged.texts(".option .figure-value").join(", ");
    assert!(considered.contains("1.00 in further off"), "{considered}");
    // The one that nothing was to come out for stands on the list, ruled out.
    assert!(ada.get(&format!("{job}/options?show={bare_one}")).await.text("main").contains("another height"));

    // In front nobody noted one, and nobody said what it rests on.
    let in_front = [("kind", "coil_spacer"), ("spacer", "2"), ("spacer_out", "0"), ("axles", "front")];
    let front = consider(&ada, &job, &in_front).await;
    assert_eq!(front.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        front.text("form.try").contains("nobody has said that the front rests on coil springs"),
        "{}",
        front.text("form.try")
    );
}

#[tokio::test]
async fn a_worn_isolator_bars_a_spacer_until_new_ones_are_on_the_job() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("rear_spring", "coil")])).await;
    let path = format!("{job}/look-over");
    ada.fill(&path, &[("coil_seats_grade", "put_right"), ("coil_seats_isolator_worn", "yes")]).await;
    let spacer = [("kind", "coil_spacer"), ("spacer", "1")];
    let refused = consider(&ada, &job, &spacer).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.text("form.try").contains("isolator"), "{}", refused.text("form.try"));
    ada.fill(&path, &[("repair_isolators", "yes")]).await;
    assert_eq!(consider(&ada, &job, &spacer).await.status, StatusCode::OK);
}

#[tokio::test]
async fn a_longer_shackle_says_what_it_turns_and_bad_lengths_are_refused() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let whole = [&SHACKLE[..], &[("shackle_rear_half", "28")]].concat();
    let worked = consider(&ada, &job, &whole).await;
    assert!(worked.figure("Rear, empty").1.starts_with("+1 in from now"), "{}", worked.text("main"));
    assert!(worked.figure("Seat and pinion turn").0.starts_with("2.0"), "{}", worked.figure("Seat and pinion turn").0);
    assert!(worked.figure("Seat and pinion turn").1.contains("to the rear where it is above"), "nobody said where it is");
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("rear_spring", "leaf"), ("rear_over", "under")])).await;
    let under = ada.get(&format!("{job}/options")).await.figure("Seat and pinion turn").1;
    assert!(under.contains("thin end to the rear, the axle being above its spring"), "{under}");
    assert!(worked.text("main").contains("neither lie flat nor turn over"), "its caution stands before the choice");
    let missing = consider(&ada, &job, &[&SHACKLE[..], &[("shackle_rear_half", "")]].concat()).await;
    assert_eq!(missing.status, StatusCode::UNPROCESSABLE_ENTITY);
    let in_front = consider(&ada, &job, &[&whole[..], &[("axles", "front")]].concat()).await;
    assert!(in_front.text("form.try").contains("Not on a steered axle"), "{}", in_front.text("form.try"));
    let long = consider(&ada, &job, &[&whole[..], &[("shackle_new", "60")]].concat()).await;
    assert!(long.field("shackle_new").1.contains("is between 1 1/2 in and 14 in"), "{}", long.field("shackle_new").1);
}
