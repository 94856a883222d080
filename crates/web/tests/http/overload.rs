//! Over a rating: what comes off leads, and no correction is offered or taken.

use reqwest::StatusCode;

use crate::{BLOCK, Site, Visitor, consider, measured_half_ton, shop, tape};

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
