//! The wrench card on a phone: ticked with a connection and without, by two people, to its end.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use thirtyfour::prelude::*;

/// Presses what the work goes on with, and fills in a torque where one is asked for; says what was done, and nothing once there is none.
const NEXT: &str = r##"
const step = document.querySelector("#next");
const button = step?.querySelector(".step-acts button:not([disabled])");
if (!button) return "";
for (const [name, value] of [["target", "100"], ["read", "101"], ["wrench", "click"]]) {
  const field = step.querySelector(`[name=${name}]`);
  if (field) field.value = value;
}
button.click();
return step.dataset.step;
"##;

/// Ticks the first part that is not here yet; says whether there was one.
const HERE: &str = r#"
const here = [...document.querySelectorAll(".wrench-step button")].find((button) => button.textContent.startsWith("Here, and it fits"));
here?.click();
return Boolean(here);
"#;

/// Puts the rubber that the finder has for the clinic on the list, and chooses it.
async fn choose_a_rubber(bench: &Workbench) -> WebDriverResult<()> {
    bench.goto("/jobs/4/finder").await?;
    bench.until_gone("//*[@class='looking']").await?;
    let line = "//table[contains(@class, 'finder-list')]//tr[.//strong[starts-with(., 'Load rubber for')]]//button";
    bench.press(line).await?;
    bench.wait_for(".option h3", "Load rubber for").await?;
    bench.press("//form[contains(@action, '/choose')]//button").await?;
    bench.wait_for_path("/jobs/4/plan").await?;
    bench.goto("/jobs/4/wrench").await
}

/// Goes through a card from the floor to its end: every part is ticked as here first, then step after step. How many steps there were.
async fn walk_to_the_end(bench: &Workbench) -> WebDriverResult<usize> {
    bench.press("//button[.='From the floor, on stands']").await?;
    bench.wait_for(".pick.is-picked[aria-pressed]", "From the floor").await?;
    loop {
        let before = bench.text(".wrench-section .hint").await?;
        if !bench.page.execute(HERE, vec![]).await?.convert::<bool>()? {
            break;
        }
        bench.until_differs(&before, async || bench.text(".wrench-section .hint").await).await?;
    }
    let mut steps = 0;
    loop {
        let before = bench.text(".wrench-head strong").await?;
        let step = bench.page.execute(NEXT, vec![]).await?.convert::<String>()?;
        if step.is_empty() {
            break;
        }
        bench.until_differs(&before, async || bench.text(".wrench-head strong").await).await?;
        steps += 1;
    }
    bench.wait_for(".wrench-head", "All of it is done").await?;
    assert!(bench.page.find_all(By::Css("details.loose")).await?.is_empty(), "nothing is loose");
    let wide = bench.page.execute("return document.documentElement.scrollWidth - innerWidth", vec![]).await?;
    assert!(wide.convert::<i64>()? <= 0, "wider than a phone");
    Ok(steps)
}

#[tokio::test]
async fn a_rubber_is_ticked_to_its_end_on_a_phone() {
    at(Site::demo(), "wrench-rubber", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        choose_a_rubber(bench).await?;
        let steps = walk_to_the_end(bench).await?;
        assert!((13..60).contains(&steps), "a rubber is no long card: {steps}");
        Ok(())
    })
    .await;
}

/// A leaf into the pack, and other coils: each to its end, holds, torques and all.
#[tokio::test]
async fn a_leaf_job_and_a_coil_job_are_ticked_to_their_end_on_a_phone() {
    at(Site::demo(), "wrench-kinds", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        for (job, option, least, asks) in
            [(4, "Add-a-leaf", 60, "rear.left.drawn_by_clamps"), (8, "New coils", 30, "rear.coils_chained")]
        {
            bench.goto(&format!("/jobs/{job}/options")).await?;
            bench.press(&format!("//ol[@class='considered']//a[contains(., '{option}')]")).await?;
            bench.wait_for(".option h3", option).await?;
            bench.press("//form[contains(@action, '/choose')]//button").await?;
            bench.wait_for_path(&format!("/jobs/{job}/plan")).await?;
            bench.goto(&format!("/jobs/{job}/wrench")).await?;
            assert_eq!(bench.page.find_all(By::Css(format!("[data-step='{asks}']"))).await?.len(), 1, "job {job}: {asks}");
            let steps = walk_to_the_end(bench).await?;
            assert!(steps >= least, "job {job}: {steps} steps");
        }
        Ok(())
    })
    .await;
}

/// The connection goes in the middle of the card: it keeps working, and what was ticked meanwhile is on record once it is back; nothing is
/// doubled, and nothing lost when the page is loaded anew in between.
#[tokio::test]
async fn a_card_keeps_working_when_the_connection_goes() {
    at(Site::demo(), "wrench-offline", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        choose_a_rubber(bench).await?;
        bench.press("//button[.='On a lift']").await?;
        bench.wait_for(".pick.is-picked[aria-pressed]", "On a lift").await?;
        let offline = async |is: bool| {
            let rate = if is { 0 } else { -1 };
            let conditions = serde_json::json!({ "offline": is, "latency": 0, "downloadThroughput": rate, "uploadThroughput": rate });
            bench.browser.tell("Network.emulateNetworkConditions", conditions).await;
        };
        bench.browser.tell("Network.enable", serde_json::json!({})).await;
        offline(true).await;
        let tick = r#"
            const step = [...document.querySelectorAll(".wrench-step:not(.is-kept):not(.is-done)")].find((step) => step.querySelector("button:not([disabled])"));
            step.querySelector("button").click();
            return step.dataset.step;
        "#;
        let mut ticked = Vec::new();
        for _ in 0..4 {
            ticked.push(bench.page.execute(tick, vec![]).await?.convert::<String>()?);
        }
        bench.wait_for(".kept-here", "4 kept on this device").await?;
        offline(false).await;
        bench.goto("/jobs/4/wrench").await?;
        bench.until_gone("//*[contains(@class, 'kept-here') and not(@hidden)]").await?;
        for step in &ticked {
            let class = bench.find(&format!("[data-step='{step}']")).await?.attr("class").await?.unwrap_or_default();
            assert!(class.contains("is-done"), "{step}: {class}");
            let answered = bench.find(&format!("[data-step='{step}'] .answered")).await?.prop("textContent").await?;
            assert!(answered.is_some_and(|text| text.contains("Bram")), "{step}");
        }
        Ok(())
    })
    .await;
}
