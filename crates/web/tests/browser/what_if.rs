//! What if by slider and by key, undone, and on a phone.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use thirtyfour::prelude::*;

const LOADED: &str = "#what-if-heights tbody tr:nth-child(2)";

async fn put_on_a_block(bench: &Workbench) -> WebDriverResult<()> {
    bench.goto("/jobs/4/what-if").await?;
    bench.find("#add_kind option[value='lift_block']").await?.click().await?;
    bench.press("//button[.='Put on']").await?;
    bench.find("[data-slides='p0_thickness']").await.map(|_| ())
}

#[tokio::test]
async fn a_slider_moved_by_key_writes_its_field_moves_the_vehicle_and_is_undone() {
    at(Site::demo(), "what-if-keys", async |bench| {
        bench.sign_on("Bram").await?;
        put_on_a_block(bench).await?;
        bench.type_in("p0_thickness", "1").await?;
        bench.wait_for(LOADED, "34 3/4").await?;
        let slider = bench.find("[data-slides='p0_thickness']").await?;
        assert_eq!(slider.attr("aria-valuetext").await?.as_deref(), Some("1 in"));
        for _ in 0..8 {
            slider.send_keys(Key::Right).await?;
        }
        assert_eq!(bench.value("p0_thickness").await?, "2");
        assert_eq!(slider.attr("aria-valuetext").await?.as_deref(), Some("2 in"));
        bench.wait_for(LOADED, "35 3/4").await?;
        bench.wait_for("#what-if-picture", "predicted loaded").await?;
        // A step back is where it stood before the last key, and what stands on the page is its address.
        bench.press("//button[@id='what-if-undo']").await?;
        bench.wait_for(LOADED, "35 5/8").await?;
        assert_eq!(bench.value("p0_thickness").await?, "1 7/8");
        bench.reload().await?;
        assert_eq!(bench.value("p0_thickness").await?, "1 7/8", "it survives a reload");
        bench.type_in("p0_thickness", "9").await?;
        bench.wait_for("#what-if-said", "Block height: A block is between").await?;
        bench.type_in("p0_thickness", "1 1/2").await?;
        bench.wait_for(LOADED, "35 1/4").await?;
        bench.type_in("option_name", "Blocks").await?;
        bench.press("//button[.='Keep as an option']").await?;
        bench.wait_for(".option h3", "Blocks: Lift block, 1 1/2 in").await
    })
    .await;
}

#[tokio::test]
async fn on_a_phone_the_sliders_stand_under_their_fields_and_nothing_is_wider_than_it() {
    at(Site::demo(), "what-if-phone", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        put_on_a_block(bench).await?;
        bench.type_in("p0_thickness", "1").await?;
        bench.wait_for(LOADED, "34 3/4").await?;
        let wide = bench.page.execute("return document.documentElement.scrollWidth - innerWidth", vec![]).await?;
        assert!(wide.convert::<i64>()? <= 0, "wider than a phone");
        let slider = bench.find("[data-slides='p0_thickness']").await?;
        assert!(slider.rect().await?.height >= 44.0, "a thumb finds it");
        Ok(())
    })
    .await;
}
