//! A strange slide-in camper on a phone, from arrival to a verdict; and a whole vehicle by keyboard alone.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use thirtyfour::prelude::*;

async fn opens(bench: &Workbench, summary: &str) -> WebDriverResult<()> {
    bench.press(&format!("//summary[contains(., '{summary}')]")).await
}

#[tokio::test]
async fn a_slide_in_camper_goes_from_arrival_to_a_verdict_on_a_phone() {
    at(Site::empty(), "camper", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Ada").await?;
        bench.goto("/jobs/new").await?;
        bench.pick("class-one_ton_pickup").await?;
        bench.pick("rear_wheels-single").await?;
        let typed = [("label", "camper"), ("wheelbase", "167"), ("front_rating", "5400"), ("rear_rating", "6900")];
        for (name, text) in typed.into_iter().chain([("kerb_front", "4210"), ("kerb_rear", "3060")]) {
            bench.type_in(name, text).await?;
        }
        bench.send().await?;
        bench.wait_for_path("/tape").await?;
        bench.goto("/jobs/1/intake").await?;
        bench.wait_for(".questions", "What does the customer complain of?").await?;
        bench.pick("complaint_low_loaded").await?;
        bench.type_in("sound_rear", "42 1/2").await?;
        bench.find("form[action$='/intake/sheet'] .send button").await?.click().await?;
        bench.until_gone("//ul[@class='questions'][contains(., 'complain')]").await?;
        bench.goto("/jobs/1/load").await?;
        bench.press("//button[@value='slide_in_camper']").await?;
        bench.wait_for(".item summary", "Slide-in camper, 3,000 lb").await?;
        bench.find(".route-done a[href$='/load']").await?;
        bench.goto("/jobs/1/tape").await?;
        bench.pick("datum-ground_to_arch").await?;
        for (state, front, rear) in [("empty", "38 7/8", "41 1/4"), ("loaded", "38 5/8", "37 7/8")] {
            for side in ["left", "right"] {
                bench.type_in(&format!("{state}.front_{side}.0"), front).await?;
                bench.type_in(&format!("{state}.rear_{side}.0"), rear).await?;
            }
        }
        bench.pick("load_kind-planned").await?;
        bench.pick("load_case-1").await?;
        opens(bench, "More, loaded").await?;
        bench.type_in("loaded.headlamp", "37 1/2").await?;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.wait_for(".cause.is-likely h4", "The springs have set").await?;
        assert!(bench.find("svg.way.stance-narrow").await?.is_displayed().await?);
        bench.goto("/jobs/1/look-over").await?;
        bench.pick("leaves-stop").await?;
        bench.pick("leaves_leaf_cracked").await?;
        bench.send().await?;
        bench.wait_for(".overload h2", "Stop: repair comes first").await?;
        bench.goto("/jobs/1/verdict").await?;
        bench.wait_for(".cause.is-likely h4", "Something has failed").await?;
        let wide = "return document.documentElement.scrollWidth > document.documentElement.clientWidth";
        for page in ["intake", "load", "tape", "look-over", "verdict", "drive", "history"] {
            bench.goto(&format!("/jobs/1/{page}")).await?;
            assert!(!bench.page.execute(wide, vec![]).await?.convert::<bool>()?, "{page} reaches past the screen's edge");
        }
        Ok(())
    })
    .await;
}

/// Tab to a control by its id and leave the focus there, without a pointer.
async fn tab_to(bench: &Workbench, id: &str) -> WebDriverResult<()> {
    for _ in 0..400 {
        let at = bench.page.active_element().await?;
        if at.attr("id").await?.as_deref() == Some(id) {
            return Ok(());
        }
        at.send_keys(Key::Tab + "").await?;
    }
    panic!("{id} cannot be reached by Tab");
}

#[tokio::test]
async fn a_whole_vehicle_is_measured_and_looked_over_by_keyboard_alone() {
    at(Site::empty(), "by_keyboard", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.goto("/jobs/1/tape").await?;
        tab_to(bench, "datum-ground_to_arch").await?;
        bench.page.active_element().await?.send_keys(" ").await?;
        tab_to(bench, "empty.front_left.0").await?;
        for height in ["35", "38 1/4", "3 1/2", "38 1/4", "35", "35 1/8", "35 1/2", "1", "35 3/8", "35 1/8"] {
            bench.page.active_element().await?.send_keys(height.to_owned() + Key::Enter).await?;
        }
        // The walk ends at the button; what was put on stands before it.
        bench.find("#load_kind-none").await?.send_keys(Key::Left + Key::Left + Key::Left).await?;
        tab_to(bench, "load_weight").await?;
        bench.page.active_element().await?.send_keys("950" + Key::Tab).await?;
        bench.page.active_element().await?.send_keys("0" + Key::Enter).await?;
        bench.wait_for_path("/verdict").await?;
        bench.wait_for(".figures", "lb/in").await?;
        bench.goto("/jobs/1/look-over").await?;
        tab_to(bench, "leaves-fine").await?;
        bench.page.active_element().await?.send_keys(" ").await?;
        tab_to(bench, "eyes_and_bushes-fine").await?;
        bench.page.active_element().await?.send_keys(" " + Key::Right).await?;
        tab_to(bench, "eyes_and_bushes_bush_play").await?;
        bench.page.active_element().await?.send_keys("1/4" + Key::Enter).await?;
        bench.wait_for(".additions", "new bushings").await
    })
    .await;
}
