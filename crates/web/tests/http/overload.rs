//! Over a rating: what comes off leads, and no correction is offered or taken.

use reqwest::StatusCode;

use crate::{BLOCK, Site, Visitor, consider, measured_half_ton, open_half_ton, shop, tape};

#[tokio::test]
async fn over_a_rating_leads_with_what_to_take_off_and_offers_nothing() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let options = bram.get("/jobs/2/options").await;
    assert_eq!(options.text(".overload h2"), "Take 470 lb off, from 18 in behind the rear axle.");
    // By hand: 5,250 × (162 + 18) / 162 = 5,833 lb on 3,880 empty makes 9,713, which is 513 over 9,200.
    assert!(options.text(".overload").contains("carries 9,713 lb loaded, 513 lb over its rating of 9,200 lb"));
    assert!(options.text(".overload").contains("With that off and nothing fitted, the rear sits at about"));
    assert!(options.texts("form[data-draft], .figure").is_empty());
    let yard = bram.get("/").await;
    assert!(yard.text(".is-over").contains("Over a rating: weight must come off"));
}

/// The half-ton's rear may carry 4,100 and stands at 2,250 empty: 2,000 lb over the axle is 150 too many.
#[tokio::test]
async fn a_choice_is_not_taken_once_the_vehicle_is_over_a_rating() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/intake"), &[("kerb_front", "3000"), ("kerb_rear", "2250")]).await;
    let page = consider(&ada, &job, &BLOCK).await;
    let choose = page.form("form[action$='/choose']");
    let over = ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "18"], "2,000")).await;
    assert_eq!(over.text(".overload h2"), "Take 150 lb off, from over the rear axle.");
    let refused = ada.send(&choose).await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(refused.text("main").contains("Weight comes off first"), "{}", refused.text("main"));
    let considered = ada.get(&format!("{job}/options")).await;
    assert!(considered.texts(".considered li").is_empty());
    // Put right, the correction considered before is there again.
    ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "18 13/16"], "1,000")).await;
    assert_eq!(ada.get(&format!("{job}/options")).await.texts(".considered li").len(), 1);
}

/// The same with nothing weighed: the class's empty weight makes it over, and that is a reason to weigh it, not to refuse it.
#[tokio::test]
async fn over_a_rating_by_assumed_weights_it_says_weigh_it_first_and_goes_on_with_a_mark() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "18"], "2,000")).await;
    consider(&ada, &job, &BLOCK).await;
    for stage in ["verdict", "options", "aim", "proof", "bench", "tape"] {
        let page = ada.get(&format!("{job}/{stage}")).await;
        let mark = page.text(".weigh-first");
        assert!(mark.starts_with("Weigh it first.") && mark.contains("150 lb over its rating of 4,100 lb"), "{stage}: {mark}");
        assert!(page.texts(".overload").is_empty(), "{stage} is not shut");
    }
    let chosen = ada.press(&format!("{job}/options"), "/choose").await;
    assert_eq!(chosen.status, StatusCode::OK, "{}", chosen.text("main"));
    assert!(chosen.text(".weigh-first").contains("over its rating"), "the promise carries the mark");
    // The scale says less than the class: the mark is gone. It says as much: now it is shut.
    ada.fill(&format!("{job}/intake"), &[("kerb_front", "2900"), ("kerb_rear", "2050")]).await;
    assert!(ada.get(&format!("{job}/options")).await.texts(".weigh-first").is_empty());
    ada.fill(&format!("{job}/intake"), &[("kerb_rear", "2250")]).await;
    let shut = ada.get(&format!("{job}/options")).await;
    assert!(shut.texts(".weigh-first").is_empty() && shut.text(".overload h2").starts_with("Take 150 lb off"));
}

#[tokio::test]
async fn a_thing_from_the_shelf_weighs_what_it_usually_does_until_somebody_says_so() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    ada.fill(&format!("{job}/intake"), &[("kerb_front", "3000"), ("kerb_rear", "2250")]).await;
    let form = ada.form(&format!("{job}/load")).await;
    let with_it = ada.send(&form.with(&[("add", "slide_in_camper"), ("shown", "1")])).await;
    let saved = ada.send(&with_it.form("#load-form")).await;
    assert!(saved.text("details.item summary").contains("not weighed"), "{}", saved.text("#load-form"));
    let overload = saved.text(".overload");
    assert!(overload.starts_with("Weigh it first. By assumed weights: take off"), "{overload}");
    let weighed = ada.send(&saved.form("#load-form").with(&[("i0_weighed", "yes")])).await;
    assert!(!weighed.text("details.item summary").contains("not weighed"));
    assert!(weighed.text(".overload").starts_with("Take off"), "{}", weighed.text(".overload"));
    // Another weight typed over a usual one is known too.
    let with_two = ada.send(&weighed.form("#load-form").with(&[("add", "toolbox"), ("shown", "1")])).await;
    let typed = ada.send(&with_two.form("#load-form").with(&[("i1_amount", "290")])).await;
    assert!(
        typed.texts("details.item summary").iter().all(|words| !words.contains("not weighed")),
        "{}",
        typed.text("#load-form")
    );
}
