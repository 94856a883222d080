//! The shelf by keyboard, and a part of it tried from a phone.

use crate::site::Site;
use crate::workbench::at;
use thirtyfour::prelude::*;

#[tokio::test]
async fn a_part_is_found_and_changed_by_keyboard() {
    at(Site::demo(), "shelf-keys", async |bench| {
        bench.sign_on("Odalys").await?;
        bench.goto("/shelf").await?;
        bench.find("#words").await?.send_keys("steel helpers 1500" + Key::Enter).await?;
        bench.wait_for(".shelf-search", "1 part").await?;
        assert!(bench.text(".shelf-table tbody").await?.contains("HS-703"), "found by all of the words");
        bench.find(".shelf-table tbody a").await?.send_keys(Key::Enter).await?;
        bench.wait_for("h1", "Steel helpers, 1500 lb a pair").await?;
        assert_eq!(bench.value("helper_capacity").await?, "1500");
        bench.type_in("price", "twelve").await?;
        bench.find("[name='price']").await?.send_keys(Key::Enter).await?;
        bench.wait_for(".refusal", "Nothing was saved").await?;
        assert_eq!(bench.value("price").await?, "twelve", "what was typed is still there");
        bench.type_in("price", "305").await?;
        bench.find("[name='price']").await?.send_keys(Key::Enter).await?;
        bench.wait_for_path("/shelf").await?;
        bench.goto("/shelf?words=HS-703").await?;
        bench.wait_for(".shelf-table tbody", "US$ 305").await
    })
    .await;
}

#[tokio::test]
async fn what_it_would_take_leads_from_the_shelf_to_a_prediction_on_a_phone() {
    at(Site::demo(), "shelf-phone", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        for path in ["/shelf", "/shelf/new", "/jobs/4/shelf", "/jobs/4/finder", "/jobs/4/takes"] {
            bench.goto(path).await?;
            bench.find("main h1").await?;
            let wide = bench.page.execute("return document.documentElement.scrollWidth - innerWidth", vec![]).await?;
            assert!(wide.convert::<i64>()? <= 0, "{path} is wider than a phone");
        }
        bench.wait_for("main", "Nearest on the shelf").await?;
        bench.press("//tr[th='BL-502']//a").await?;
        bench.wait_for(".from-shelf", "BL-502").await?;
        assert_eq!(bench.value("thickness").await?, "1 1/2");
        bench.press("//form[contains(@class, 'try')]//button[.='Predict']").await?;
        bench.wait_for(".option", "From the shelf: BL-502 Lift blocks, 1 1/2 in, cast: US$ 52").await
    })
    .await;
}
