//! The tape on a phone, with a thumb.

use crate::site::Site;
use crate::workbench::at;
use serde_json::json;
use thirtyfour::prelude::*;

#[tokio::test]
async fn a_gloved_thumb_walks_round_with_the_pad() {
    at(Site::empty(), "pad", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.browser.tell("Emulation.setTouchEmulationEnabled", json!({"enabled": true, "maxTouchPoints": 1})).await;
        let coarse = json!({"features": [{"name": "pointer", "value": "coarse"}]});
        bench.browser.tell("Emulation.setEmulatedMedia", coarse).await;
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.find("[name='empty.front_left.0']").await?.click().await?;
        let covered = "const box = document.activeElement.getBoundingClientRect();
            return document.querySelector('.pad').getBoundingClientRect().top - box.bottom";
        let clear: f64 = bench.page.execute(covered, vec![]).await?.convert()?;
        assert!(clear > 0.0, "the field in hand lies {clear} px under the pad");
        let press = async |keys: &[&str]| -> WebDriverResult<()> {
            for key in keys {
                bench.page.query(By::XPath(format!("//div[@class='pad']/button[.='{key}']"))).first().await?.click().await?;
            }
            Ok(())
        };
        press(&["2", "0", "1/2", "5/8", "Next"]).await?;
        assert_eq!(bench.value("empty.front_left.0").await?, "20 5/8");
        assert_eq!(bench.focused().await?, "empty.rear_left.0");
        press(&["2", "1", "7/8", "0/8", "⌫", "2"]).await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "22");
        bench.wait_for("[id='empty.rear_left.0-said'] .understood", "22 in").await?;
        let small = bench.page.execute(TOO_SMALL, vec![]).await?;
        assert_eq!(small.convert::<Vec<String>>()?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// Everything to be touched is at least 44 px high and wide, links within sentences aside.
const TOO_SMALL: &str = "return [...document.querySelectorAll('button, summary, .pick, .form-control, .route a, .bar a')]
    .filter((part) => part.offsetParent !== null)
    .map((part) => [part.textContent.trim() || part.name, part.getBoundingClientRect()])
    .filter(([, box]) => box.height < 43.5 || box.width < 37)
    .map(([name, box]) => `${name}: ${box.width} by ${box.height}`)";

#[tokio::test]
async fn one_load_case_is_drawn_at_a_time_and_switched() {
    at(Site::demo(), "cases", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/1").await?;
        let shown = async |css: &str| -> WebDriverResult<bool> { bench.find(css).await?.is_displayed().await };
        assert_eq!(
            (shown(".stance-loaded").await?, shown(".stance-empty").await?, shown(".stance-wide").await?),
            (true, false, false)
        );
        // It leans by an eighth, so that both sides are told.
        let loaded = bench.text(".stance-loaded").await?;
        assert!(loaded.contains("18 15/16 in") && loaded.contains("18 13/16 in"), "{loaded}");
        bench.find("label[for='case-empty']").await?.click().await?;
        assert_eq!((shown(".stance-loaded").await?, shown(".stance-empty").await?), (false, true));
        assert!(bench.text(".stance-empty").await?.contains("21 5/8 in"));
        Ok(())
    })
    .await;
}
