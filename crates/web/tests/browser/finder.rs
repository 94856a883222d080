//! Find options by keyboard, and one option at a time on a phone.

use crate::site::Site;
use crate::workbench::at;
use thirtyfour::prelude::*;

#[tokio::test]
async fn a_point_of_the_picture_leads_to_its_line_by_key_and_an_option_goes_onto_the_list() {
    at(Site::demo(), "finder-keys", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/4/options").await?;
        bench.press("//a[.='Find options']").await?;
        bench.wait_for("h1", "Find options").await?;
        let point = bench.find(".fit-cost a[href='#option-1']").await?;
        assert!(point.attr("aria-label").await?.unwrap_or_default().starts_with("1: "));
        bench.page.execute("arguments[0].focus()", vec![point.to_json()?]).await?;
        bench.page.active_element().await?.send_keys(Key::Enter).await?;
        let line = bench.page.execute("return document.querySelector(':target')?.id", vec![]).await?;
        assert_eq!(line.convert::<String>()?, "option-1");
        let name = bench.text("#option-1 strong").await?;
        bench.press("//tr[@id='option-1']//button").await?;
        bench.wait_for(".option h3", &name).await
    })
    .await;
}

#[tokio::test]
async fn on_a_phone_one_option_is_seen_at_a_time() {
    at(Site::demo(), "finder-phone", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/4/finder").await?;
        let shown = "return [...document.querySelectorAll('.finder-columns thead th')].filter((head) => head.offsetWidth).map((head) => head.querySelector('b').textContent)";
        let heads = async || bench.page.execute(shown, vec![]).await?.convert::<Vec<String>>();
        assert_eq!(heads().await?, ["1"]);
        bench.press("//label[@for='column-2']").await?;
        assert_ne!(heads().await?, ["1"]);
        let wide = bench.page.execute("return document.documentElement.scrollWidth - innerWidth", vec![]).await?;
        assert!(wide.convert::<i64>()? <= 0, "wider than a phone");
        Ok(())
    })
    .await;
}
