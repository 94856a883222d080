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

/// The pad closes as the field is left, which moves the page: the tap that leaves it is taken all the same.
#[tokio::test]
async fn one_tap_on_save_is_enough_with_the_pad_open() {
    at(Site::empty(), "pad-save", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.browser.tell("Emulation.setTouchEmulationEnabled", json!({"enabled": true, "maxTouchPoints": 1})).await;
        let coarse = json!({"features": [{"name": "pointer", "value": "coarse"}]});
        bench.browser.tell("Emulation.setEmulatedMedia", coarse).await;
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.press("//div[@class='walk-ways']/button[.='All']").await?;
        for (place, height) in
            [("front_left", "20 1/2"), ("front_right", "20 1/2"), ("rear_left", "21 1/2"), ("rear_right", "21 1/2")]
        {
            bench.find(&format!("[name='empty.{place}.0']")).await?.send_keys(height).await?;
        }
        let open = "return document.querySelector('.pad').checkVisibility()";
        assert!(bench.page.execute(open, vec![]).await?.convert::<bool>()?);
        // Down to where Save comes out above the pad.
        bench.page.execute("scrollTo(0, document.documentElement.scrollHeight)", vec![]).await?;
        bench.find(".send .btn-primary").await?.click().await?;
        bench.wait_for_path("/verdict").await?;
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
async fn one_corner_is_shown_at_a_time_with_what_comes_next_and_all_at_a_tap() {
    at(Site::empty(), "corner", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        let shown = async || -> WebDriverResult<Vec<String>> {
            let script =
                "return [...document.querySelectorAll('.plan-walk [data-walk]')].filter((field) => field.checkVisibility())
                .map((field) => field.name)";
            bench.page.execute(script, vec![]).await?.convert()
        };
        assert_eq!(shown().await?, ["empty.front_left.0"]);
        assert_eq!(bench.text(".walk-at").await?, "Empty, 1 of 5");
        assert_eq!(bench.text(".walk-next").await?, "Next: rear left, empty");
        bench.find("[name='empty.front_left.0']").await?.send_keys("20 1/2" + Key::Enter).await?;
        assert_eq!(shown().await?, ["empty.rear_left.0"]);
        assert_eq!(bench.text(".read-count").await?, "1 of 10");
        assert_eq!(bench.focused().await?, "empty.rear_left.0");
        for _ in 0..9 {
            bench.press("//div[@class='walk-ways']/button[.='Next']").await?;
        }
        assert_eq!(shown().await?, ["loaded.front_right.0"]);
        assert_eq!(bench.text(".walk-next").await?, "Next: save");
        bench.press("//div[@class='walk-ways']/button[.='All']").await?;
        assert_eq!(shown().await?.len(), 10);
        // What is refused is said beside Save, with a way to it: it is shown though another corner was.
        bench.press("//div[@class='walk-ways']/button[.='One at a time']").await?;
        bench.find("[name='loaded.front_right.0']").await?.send_keys("tall").await?;
        bench.find(".send .btn-primary").await?.click().await?;
        bench.wait_for(".send .refusal", "one field").await?;
        assert_eq!(shown().await?, ["loaded.front_right.0"]);
        bench.wait_for(".refusal-way", "Front right").await?;
        Ok(())
    })
    .await;
}

/// On a phone the first field of a stage stands within the upper half, and nothing is wider than its window.
#[tokio::test]
async fn the_first_field_of_every_stage_is_in_sight_on_a_phone_and_nothing_is_wider_than_the_window() {
    at(Site::demo(), "first-field", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        // A heading that unfolds picks is what is touched first where there is one.
        let script = "const seen = (part) => part.getClientRects().length > 0 && part.checkVisibility();
            const first = [...document.querySelectorAll('main :is(input:not([type=hidden]), select, textarea, .pick-group > summary)')].filter(seen)[0];
            return [first ? Math.round(first.getBoundingClientRect().top + scrollY) : -1, document.documentElement.scrollWidth]";
        let stages = ["intake", "load", "tape", "look-over", "verdict", "aim", "options", "bench", "proof"];
        // One on which nothing was read yet, so that everything is still said to be missing.
        bench.open_half_ton().await?;
        let path = bench.page.current_url().await?.path().to_owned();
        let fresh = path.trim_start_matches("/jobs/").trim_end_matches("/tape").to_owned();
        for (job, stage) in ["6", "7", &fresh].into_iter().flat_map(|job| stages.map(|stage| (job, stage))) {
            bench.goto(&format!("/jobs/{job}/{stage}")).await?;
            let [first, wide]: [i32; 2] = bench.page.execute(script, vec![]).await?.convert()?;
            assert!(first <= 420, "job {job}, {stage}: the first field stands at {first}");
            assert_eq!(wide, 390, "job {job}, {stage}");
        }
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn the_picture_and_the_route_fold_on_a_phone() {
    at(Site::demo(), "folds", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/1/tape").await?;
        let shown = async |css: &str| -> WebDriverResult<bool> { bench.find(css).await?.is_displayed().await };
        assert!(!shown(".stance-wide").await? && !shown(".route").await?);
        let drawn = "return document.querySelector('.stance-narrow').checkVisibility()";
        assert!(!bench.page.execute(drawn, vec![]).await?.convert::<bool>()?);
        bench.find(".picture-fold summary").await?.click().await?;
        assert!(bench.page.execute(drawn, vec![]).await?.convert::<bool>()?);
        // It leans by an eighth, so that both sides are told.
        let told = bench.text(".stance-narrow").await?;
        assert!(told.contains("L 18 15/16") && told.contains("R 18 13/16"), "{told}");
        assert_eq!(bench.text(".route-short summary").await?, "Tape, 3 of 11");
        bench.find(".route-short > a:last-child").await?.click().await?;
        bench.wait_for_path("/look-over").await?;
        bench.find(".route-short summary").await?.click().await?;
        bench.page.query(By::XPath("//nav[@class='route-short']//ol//a[contains(., 'Proof')]")).first().await?.click().await?;
        bench.wait_for_path("/proof").await?;
        bench.find(".menu summary").await?.click().await?;
        assert!(bench.text(".menu-list").await?.contains("Sums"));
        Ok(())
    })
    .await;
}

/// A height with sixteenths is read whole in its field: "20 13/1" would be another height.
#[tokio::test]
async fn no_height_is_cut_off_in_its_field() {
    at(Site::empty(), "cut-off", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        for (width, height) in [(1280, 800), (1024, 768), (820, 1180)] {
            bench.browser.resize(width, height).await;
            let script = "const fields = [...document.querySelectorAll('.plan-walk [data-walk]')].filter((field) => field.checkVisibility());
                for (const field of fields) field.value = '38 15/16';
                return [fields.length, fields.filter((field) => field.scrollWidth > field.clientWidth).length]";
            let [shown, cut]: [usize; 2] = bench.page.execute(script, vec![]).await?.convert()?;
            assert_eq!((shown, cut), (10, 0), "at {width}");
        }
        Ok(())
    })
    .await;
}
