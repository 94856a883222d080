//! The load plan under the pointer and the arrow keys, and when the connection goes.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use serde_json::json;
use thirtyfour::prelude::*;

async fn rear_load(bench: &Workbench) -> WebDriverResult<String> {
    bench.text("svg.stance-wide .plan-load ~ .plan-what ~ .plan-load").await
}

#[tokio::test]
async fn a_thing_is_taken_from_the_shelf_and_moved_by_arrow_keys_with_the_axles_following() {
    at(Site::empty(), "plan_keys", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.goto("/jobs/1/load").await?;
        bench.find("button[value='toolbox']").await?.send_keys(Key::Enter + "").await?;
        bench.wait_for(".item summary", "Toolbox, 350 lb").await?;
        let before = rear_load(bench).await?;
        bench.find("svg.stance-wide .plan-side[data-handle='0']").await?.send_keys(Key::Right + Key::Right).await?;
        bench.until_differs(before.as_str(), async || rear_load(bench).await).await?;
        bench.until_differs("41.5", async || bench.value("i0_distance").await).await?;
        // Two presses of 2 in each, from 43 1/2 in ahead of the axle.
        assert_eq!(bench.value("i0_distance").await?, "39.5");
        let held = "return document.activeElement.dataset.handle";
        assert_eq!(bench.page.execute(held, vec![]).await?.convert::<String>()?, "0", "the thing keeps the focus");
        bench.find("svg.stance-wide .plan-top[data-handle='0']").await?.send_keys(Key::Up + "").await?;
        bench.wait_for(".figure-note", "left of the middle").await?;
        bench.send().await?;
        bench.wait_for(".route-done", "Load").await?;
        bench.wait_for(".item summary", "39 1/2 in ahead of the rear axle").await
    })
    .await;
}

#[tokio::test]
async fn a_thing_is_dragged_and_what_was_not_sent_survives_a_lost_connection_and_a_reload() {
    at(Site::demo(), "plan_drag", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/6/load").await?;
        let tongue = bench.find("label[for='shown-3']").await?;
        tongue.click().await?;
        bench.wait_for(".cases tr[aria-current]", "Towing the chipper").await?;
        let two_up_front = bench.find("svg.stance-wide .plan-side[data-handle='2'] .plan-box").await?;
        let held_load = rear_load(bench).await?;
        bench.page.action_chain().click_and_hold_element(&two_up_front).move_by_offset(-60, 0).perform().await?;
        // The axles follow while it is still held.
        bench.until_differs(held_load.as_str(), async || rear_load(bench).await).await?;
        bench.page.action_chain().release().perform().await?;
        bench.until_differs("91", async || bench.value("i2_distance").await).await?;
        let moved = bench.value("i2_distance").await?;
        assert!(moved.parse::<f64>().is_ok_and(|inches| inches > 97.0), "{moved}");
        bench.browser.tell("Network.enable", json!({})).await;
        let line = |offline: bool| json!({"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1});
        bench.browser.tell("Network.emulateNetworkConditions", line(true)).await;
        bench.send().await?;
        bench.wait_for(".sending", "Not saved: no connection").await?;
        bench.browser.tell("Network.emulateNetworkConditions", line(false)).await;
        bench.reload().await?;
        bench.wait_for(".draft-note", "Not sent yet").await?;
        assert_eq!(bench.value("i2_distance").await?, moved);
        bench.send().await?;
        bench.until_gone("//*[@class='draft-note']").await?;
        bench.goto("/jobs/6/load").await?;
        assert_eq!(bench.value("i2_distance").await?, moved);
        Ok(())
    })
    .await;
}
