//! A lost connection, a reload, a stale page: what was typed is never lost, and never said to be saved before it is.

use crate::site::Site;
use crate::workbench::at;
use serde_json::json;
use thirtyfour::prelude::*;

#[tokio::test]
async fn what_is_typed_survives_a_reload() {
    at(Site::empty(), "reload", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.rear_left.0", "21 1/2").await?;
        bench.reload().await?;
        bench.wait_for(".draft-note", "Not sent yet").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        assert_eq!(bench.find("#datum-hub_to_arch").await?.prop("checked").await?.as_deref(), Some("true"));
        bench.find(".draft-note button").await?.click().await?;
        bench.page.query(By::Css(".draft-note")).not_exists().await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "");
        Ok(())
    })
    .await;
}

/// What was typed in inches and not saved yet stays in inches when the page is turned to millimeters, and is taken as typed.
#[tokio::test]
async fn a_flip_of_units_never_refuses_what_was_typed_before() {
    at(Site::empty(), "flip", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.rear_left.0", "21 1/2").await?;
        bench.pick("load_kind-placed").await?;
        bench.type_in("load_weight", "150").await?;
        bench.type_in("load_distance", "0").await?;
        bench.find(".program button[value='mm']").await?.click().await?;
        bench.find(".program button[value='mm'][aria-pressed='true']").await?;
        bench.find(".program button[value='kg']").await?.click().await?;
        bench.wait_for(".draft-note", "Not sent yet").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.goto("/jobs/1/tape").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2 in", "546 mm, as typed");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn a_lost_connection_keeps_the_form_and_says_it_is_not_saved() {
    at(Site::empty(), "offline", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.rear_left.0", "21 1/2").await?;
        set_offline(bench, true).await;
        bench.send().await?;
        bench.wait_for(".sending", "Not saved: no connection").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        set_offline(bench, false).await;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.goto("/jobs/1/tape").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        assert!(bench.page.find_all(By::Css(".draft-note")).await?.is_empty(), "the draft is gone once it is saved");
        Ok(())
    })
    .await;
}

async fn set_offline(bench: &crate::Workbench, offline: bool) {
    bench.browser.tell("Network.enable", json!({})).await;
    let conditions = json!({"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1});
    bench.browser.tell("Network.emulateNetworkConditions", conditions).await;
}

#[tokio::test]
async fn a_double_click_sends_once() {
    at(Site::empty(), "double", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.goto("/jobs/1/options").await?;
        bench.pick("kind-lift_block").await?;
        bench.type_in("thickness", "2").await?;
        let twice = "const button = document.querySelector('.send button'); button.click(); button.click();";
        bench.page.execute(twice, vec![]).await?;
        bench.wait_for(".considered", "Lift block, 2 in").await?;
        assert_eq!(bench.page.find_all(By::Css(".considered li")).await?.len(), 1);
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn a_draft_typed_before_a_colleague_saved_is_compared_not_written_over() {
    at(Site::empty(), "stale", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.rear_left.0", "21 1/2").await?;
        // The same device goes to Bo, who sees nothing of what Ada typed, and saves his own reading.
        bench.sign_on("Bo").await?;
        bench.goto("/jobs/1/tape").await?;
        assert!(bench.page.find_all(By::Css(".draft-note")).await?.is_empty(), "what another typed is not his to see");
        assert_eq!(bench.value("empty.rear_left.0").await?, "");
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.rear_left.0", "21 7/8").await?;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        // The device still holds what Ada typed, for her.
        bench.sign_on("Ada").await?;
        bench.goto("/jobs/1/tape").await?;
        bench.wait_for(".draft-note", "Not sent yet").await?;
        bench.send().await?;
        bench.wait_for(".refusal", "Bo saved this job").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        bench.wait_for("[id='empty.rear_left.0-said']", "On file now: 21 7/8").await?;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.goto("/jobs/1/tape").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "21 1/2");
        Ok(())
    })
    .await;
}
