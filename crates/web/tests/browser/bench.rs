//! The bench under a smith's hands: the slider, the keyboard, steps back, the way to the press, a phone, paper.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use serde_json::json;
use thirtyfour::error::WebDriverErrorInner;
use thirtyfour::prelude::*;

async fn figure(bench: &Workbench, place: usize) -> WebDriverResult<String> {
    // The figures are put in anew as the pack is: one that is just going is read once more.
    let value = format!("#bench-figures .figure:nth-child({place}) .figure-value");
    match bench.text(&value).await {
        Err(error) if matches!(error.as_inner(), WebDriverErrorInner::StaleElementReference(_)) => bench.text(&value).await,
        read => read,
    }
}

#[tokio::test]
async fn the_slider_and_the_keyboard_move_the_pack_and_a_step_can_be_taken_back() {
    at(Site::demo(), "bench_keys", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/7/bench").await?;
        let before = figure(bench, 1).await?;
        let slider = bench.find("#bench-load").await?;
        slider.send_keys(Key::Right + Key::Right + Key::Right + Key::Right).await?;
        bench.until_differs(&before, async || figure(bench, 1).await).await?;
        bench.wait_for("#bench-figures h3", "under 840 lb").await?;
        bench.find("a[data-load='loose']").await?.click().await?;
        bench.wait_for("#bench-picture svg.stance-wide", "loose").await?;
        bench.find("a[data-load='1975']").await?.click().await?;
        bench.wait_for("#bench-figures h3", "under 1,975 lb").await?;
        // A figure is opened, and stays open while another arch is typed.
        let open = "document.querySelector('#bench-figures .figure summary').click()";
        bench.page.execute(open, vec![]).await?;
        let before = figure(bench, 1).await?;
        bench.type_in("l0_arch", "5 1/2").await?;
        bench.until_differs(&before, async || figure(bench, 1).await).await?;
        bench.find("#bench-figures .figure[open] .sum").await?;
        // What cannot be read leaves the picture as it was, and says so.
        bench.type_in("l0_arch", "5 1/").await?;
        bench.find("#bench-picture.is-old").await?;
        bench.type_in("l0_arch", "5 1/2").await?;
        bench.until_gone("//*[@id='bench-picture'][contains(@class, 'is-old')]").await?;
        // Enter saves; then one step back, and forward again.
        bench.find("[name='l0_arch']").await?.send_keys(Key::Enter + "").await?;
        bench.find(".bench-tabs a[href*='load=']").await?;
        bench.find("button[value='back']").await?.click().await?;
        bench.until_differs("5 1/2", async || bench.value("l0_arch").await).await?;
        assert_eq!(bench.value("l0_arch").await?, "4 7/8");
        bench.find("button[value='forward']:not([disabled])").await?.click().await?;
        bench.until_differs("4 7/8", async || bench.value("l0_arch").await).await
    })
    .await;
}

#[tokio::test]
async fn a_smith_enters_a_pack_adds_a_leaf_re_arches_and_walks_to_the_press_with_the_sheet() {
    at(Site::demo(), "bench_route", async |bench| {
        bench.sign_on("Odalys").await?;
        bench.goto("/jobs/4/bench").await?;
        bench.wait_for(".empty", "No pack on the bench yet").await?;
        for (name, text) in [
            ("few_count", "11"),
            ("few_width", "3"),
            ("few_thickness", "3/8"),
            ("few_front", "27"),
            ("few_rear", "28"),
            ("few_arch", "3 3/4"),
        ] {
            bench.type_in(name, text).await?;
        }
        bench.find(".begin button").await?.click().await?;
        bench.wait_for("#bench-picture svg.stance-wide", "Leaf 11").await?;
        bench.find(".bench-tabs a[href*='planned']").await?.click().await?;
        bench.wait_for(".bench-tabs a[aria-current]", "As planned").await?;
        bench.press("//button[@name='insert']").await?;
        bench.wait_for("#bench-picture svg.stance-wide", "Add-a-leaf").await?;
        bench.wait_for("#bench-heights thead", "As planned").await?;
        bench.find("a[href*='/re-arch']").await?.click().await?;
        bench.wait_for_path("/re-arch").await?;
        bench.pick("state-empty").await?;
        bench.pick("rule-even_stress").await?;
        bench.type_in("height", "37 1/4").await?;
        bench.find("button[formmethod='get']").await?.click().await?;
        bench.wait_for(".stands", "37 1/4 in empty at the rear").await?;
        bench.find("#rearch-form .btn-primary").await?.click().await?;
        bench.wait_for_path("/bench").await?;
        bench.wait_for("#bench-heights .cases td", "37 1/4 in").await?;
        bench.find("a[href*='/sheet?']").await?.click().await?;
        bench.wait_for(".arching-leaf h2", "Add-a-leaf").await?;
        bench.wait_for(".offsets .is-press", "press to").await?;
        bench.find("a[href*='/leaf/0/a4.pdf']").await.map(drop)
    })
    .await;
}

#[tokio::test]
async fn what_was_typed_on_the_bench_survives_a_lost_connection() {
    at(Site::demo(), "bench_line", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/7/bench").await?;
        bench.browser.tell("Network.enable", json!({})).await;
        let line = |offline: bool| json!({"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1});
        bench.browser.tell("Network.emulateNetworkConditions", line(true)).await;
        bench.type_in("l1_arch", "4 1/2").await?;
        bench.find("#bench-form .send button").await?.click().await?;
        bench.wait_for("#bench-form .sending", "Not saved: no connection").await?;
        bench.browser.tell("Network.emulateNetworkConditions", line(false)).await;
        bench.reload().await?;
        bench.wait_for(".draft-note", "Not sent yet").await?;
        assert_eq!(bench.value("l1_arch").await?, "4 1/2");
        bench.find("#bench-form .send button").await?.click().await?;
        bench.until_gone("//*[@class='draft-note']").await?;
        bench.goto("/jobs/7/bench").await?;
        assert_eq!(bench.value("l1_arch").await?, "4 1/2");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn a_phone_shows_the_pack_and_nothing_runs_off_its_side() {
    at(Site::demo(), "bench_phone", async |bench| {
        bench.sign_on("Bram").await?;
        bench.browser.resize(390, 844).await;
        for path in ["/jobs/7/bench", "/jobs/7/bench/re-arch", "/jobs/7/bench/sheet"] {
            bench.goto(path).await?;
            let wide = "return document.documentElement.scrollWidth - document.documentElement.clientWidth";
            assert_eq!(bench.page.execute(wide, vec![]).await?.convert::<i64>()?, 0, "{path}");
        }
        bench.goto("/jobs/7/bench").await?;
        assert!(bench.find("#pack-narrow").await?.is_displayed().await?);
        let short = "return [...document.querySelectorAll('main a.pick, main button, main input:not([type=hidden]):not([type=radio])')]
            .filter((part) => part.offsetParent && !part.closest('.visually-hidden') && !part.classList.contains('visually-hidden') && part.getBoundingClientRect().height < 34).length";
        assert_eq!(bench.page.execute(short, vec![]).await?.convert::<i64>()?, 0, "nothing to touch is low");
        Ok(())
    })
    .await;
}
