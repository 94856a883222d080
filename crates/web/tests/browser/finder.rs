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
        bench.until_gone("//*[@class='looking']").await?;
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
        bench.until_gone("//*[@class='looking']").await?;
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

/// A search on the demo shelf shows how far it has come and what it has found, by itself, until it can be stopped or has ended; a page left
/// open says by itself that it is out of date.
#[tokio::test]
async fn a_search_shows_how_far_it_is_and_a_page_left_open_says_that_it_is_out_of_date() {
    at(Site::demo(), "finder-follows", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/4/finder").await?;
        bench.until_gone("//*[@class='looking']").await?;
        let count = bench.text(".finder-page > p.hint").await?;
        assert!(count.contains("combinations were worked out"), "{count}");
        assert!(!bench.find(".out-of-date").await?.is_displayed().await?);
        // Somebody else takes a part off the shelf.
        let here = bench.page.window().await?;
        bench.page.new_tab().await?;
        let tabs = bench.page.windows().await?;
        let other = tabs.into_iter().find(|tab| *tab != here).expect("the new one");
        bench.page.switch_to_window(other).await?;
        bench.goto("/shelf").await?;
        bench.press("//table//a[contains(@href, '/shelf/parts/')]").await?;
        bench.press("//button[contains(., 'off the shelf')]").await?;
        bench.page.close_window().await?;
        bench.page.switch_to_window(here).await?;
        bench.page.execute("window.dispatchEvent(new Event('focus'))", vec![]).await?;
        bench.wait_for(".out-of-date", "Out of date").await?;
        bench.press("//*[contains(@class, 'out-of-date')]//a").await?;
        bench.until_gone("//*[@class='looking']").await?;
        assert!(!bench.find(".out-of-date").await?.is_displayed().await?);
        Ok(())
    })
    .await;
}
