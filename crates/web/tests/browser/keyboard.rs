//! The tape by keyboard alone.

use crate::site::Site;
use crate::workbench::at;
use thirtyfour::prelude::*;

/// Enter goes round the vehicle from the driver's door backwards, then to the loaded walk, then to the button.
#[tokio::test]
async fn enter_walks_round_the_vehicle_and_ends_at_the_button() {
    at(Site::empty(), "walk", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.find("[name='empty.front_left.0']").await?.click().await?;
        let mut walked = Vec::new();
        for _ in 0..10 {
            walked.push(bench.focused().await?);
            bench.page.active_element().await?.send_keys("20 1/2" + Key::Enter).await?;
        }
        let places = ["front_left", "rear_left", "stop_gap", "rear_right", "front_right"];
        let expected: Vec<String> =
            ["empty", "loaded"].iter().flat_map(|state| places.iter().map(move |place| format!("{state}.{place}.0"))).collect();
        assert_eq!(walked, expected);
        assert_eq!(bench.page.active_element().await?.text().await?, "Save readings");
        assert_eq!(bench.value("loaded.rear_right.0").await?, "20 1/2");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn the_whole_tape_can_be_put_down_without_a_mouse() {
    at(Site::empty(), "keyboard", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        // The first Tab leads past the program's bar.
        bench.find("body").await?.send_keys(Key::Tab + "").await?;
        assert_eq!(bench.page.active_element().await?.text().await?, "Skip to the page");
        bench.page.active_element().await?.send_keys(Key::Enter + "").await?;
        bench.find("#datum-ground_to_arch").await?.send_keys(" ").await?;
        bench.page.active_element().await?.send_keys(Key::Right + "").await?;
        assert_eq!(bench.page.active_element().await?.attr("id").await?.as_deref(), Some("datum-hub_to_arch"));
        bench.find("[name='empty.front_left.0']").await?.send_keys("").await?;
        for height in ["20 1/2", "21 1/2", "3", "21-1/2\"", "520.7 mm", "20.5", "18 13/16", "1", "1' 6 13/16\"", "20 1/2"] {
            bench.page.active_element().await?.send_keys(height.to_owned() + Key::Enter).await?;
        }
        bench.page.active_element().await?.send_keys(Key::Enter + "").await?;
        bench.wait_for_path("/verdict").await?;
        bench.wait_for(".figures", "2 11/16 in").await?;
        assert!(bench.text(".missing").await?.contains("what was put on"));
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn a_figure_opens_by_keyboard_and_focus_is_seen() {
    at(Site::demo(), "figure", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/1/verdict").await?;
        let summary = bench.find(".working > .figures .figure summary").await?;
        summary.send_keys(Key::Enter + "").await?;
        bench.wait_for(".figure[open] .sum-source", "Source:").await?;
        let outline: String =
            bench.page.execute("return getComputedStyle(document.activeElement).outlineStyle", vec![]).await?.convert()?;
        assert_eq!(outline, "solid");
        Ok(())
    })
    .await;
}
