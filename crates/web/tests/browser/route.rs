//! The whole route of a job with the mouse: measure, judge, aim, predict, choose, prove, finish.

use crate::half_ton::walk;
use crate::site::Site;
use crate::workbench::{Workbench, at};
use thirtyfour::prelude::*;

async fn measure(bench: &Workbench, rear: [&str; 2], weight: &str) -> WebDriverResult<()> {
    bench.pick("datum-hub_to_arch").await?;
    for (name, height) in walk(["20 1/2", "20 1/2"], rear) {
        bench.type_in(name, height).await?;
    }
    bench.pick("load_kind-placed").await?;
    bench.type_in("load_weight", weight).await?;
    bench.type_in("load_distance", "0").await?;
    bench.send().await?;
    bench.wait_for_path("/verdict").await
}

/// Opens the figure with a label and gives its sum.
async fn sum_of(bench: &Workbench, label: &str) -> WebDriverResult<String> {
    let path = format!("//details[summary/span[@class='figure-label' and .='{label}']]");
    let figure = bench.page.query(By::XPath(path)).first().await?;
    let open = "for (let fold = arguments[0].parentElement.closest('details'); fold; fold = fold.parentElement.closest('details')) fold.open = true";
    bench.page.execute(open, vec![figure.to_json()?]).await?;
    figure.find(By::Css("summary")).await?.click().await?;
    Ok(figure.find(By::Css(".sum")).await?.text().await?.replace('\u{a0}', " "))
}

/// The case worked by hand: 372 lb/in; the block sits at 23 1/2 and 20 13/16 in; helpers at 19.40 in loaded.
#[tokio::test]
async fn a_new_user_gets_from_an_empty_shop_to_a_proven_correction() {
    at(Site::empty(), "route", async |bench| {
        bench.sign_on("Ada").await?;
        assert_eq!(bench.text(".empty h2").await?, "No jobs here yet");
        bench.open_half_ton().await?;
        measure(bench, ["21 1/2", "18 13/16"], "1,000 lb").await?;
        bench.wait_for(".figure-value", "372 lb/in").await?;
        assert!(sum_of(bench, "Rear axle rate, both springs").await?.contains("1,000 lb / 2.69 in = 372 lb/in"));
        bench.find(".next a").await?.click().await?;
        bench.wait_for_path("/look-over").await?;
        bench.pick("leaves-fine").await?;
        bench.send().await?;
        bench.wait_for(".missing", "Not looked at yet: Eyes and bushings").await?;
        bench.find(".next a").await?.click().await?;
        bench.wait_for_path("/aim").await?;
        bench.type_in("rake", "1/4").await?;
        bench.type_in("tolerance", "3/4").await?;
        bench.send().await?;
        bench.wait_for(".figures", "Rear").await?;
        bench.find(".next a").await?.click().await?;
        bench.wait_for_path("/options").await?;
        bench.pick("kind-helper_spring").await?;
        bench.type_in("helper_rate", "200").await?;
        bench.type_in("engagement_gap", "1").await?;
        bench.send().await?;
        bench.wait_for(".option h3", "Helper springs").await?;
        assert!(sum_of(bench, "Rear, loaded").await?.contains("= 19.40 in"));
        bench.pick("kind-lift_block").await?;
        bench.type_in("thickness", "2").await?;
        bench.send().await?;
        bench.wait_for(".option h3", "Lift block, 2 in").await?;
        assert!(sum_of(bench, "Rear, empty").await?.contains("= 23.50 in (23 1/2 in)"));
        assert!(sum_of(bench, "Rear, loaded").await?.contains("= 20.81 in (20 13/16 in)"));
        let verdict = bench.text(".option .aim-verdict").await?;
        assert!(verdict.starts_with("Meets the aim"), "{verdict}");
        assert_eq!(bench.page.find_all(By::Css(".considered li")).await?.len(), 2);
        bench.find("form[action$='/choose'] button").await?.click().await?;
        bench.wait_for_path("/plan").await?;
        bench.goto("/jobs/1/proof").await?;
        for (name, height) in walk(["20 1/2", "20 9/16"], ["23 1/2", "20 3/4"]) {
            bench.type_in(name, height).await?;
        }
        bench.send().await?;
        bench.wait_for(".figure.is-good", "inside the band, as predicted").await?;
        bench.find("form[action$='/finish'] button").await?.click().await?;
        bench.wait_for(".stands", "Finished").await?;
        bench.goto("/").await?;
        bench.find(".yard-more a[href='/?finished=true']").await?.click().await?;
        bench.wait_for(".is-finished .job-stands", "Finished").await
    })
    .await;
}

#[tokio::test]
async fn too_small_a_load_says_so_and_blocks_are_predicted_all_the_same() {
    at(Site::empty(), "too_weak", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        measure(bench, ["21 1/2", "21 1/8"], "150").await?;
        bench.wait_for(".figure-value", "too weak to say").await?;
        bench.goto("/jobs/1/options").await?;
        bench.pick("kind-lift_block").await?;
        bench.type_in("thickness", "2").await?;
        bench.send().await?;
        bench.wait_for(".option h3", "Lift block").await?;
        assert!(sum_of(bench, "Rear, loaded").await?.contains("(23 1/8 in)"));
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn what_is_wrong_is_said_beside_its_field_without_leaving_the_page() {
    at(Site::empty(), "bad_input", async |bench| {
        bench.sign_on("Ada").await?;
        bench.open_half_ton().await?;
        bench.pick("datum-hub_to_arch").await?;
        bench.type_in("empty.front_left.0", "20 1/2").await?;
        bench.type_in("empty.rear_left.0", "38 3/").await?;
        bench.send().await?;
        bench.wait_for(".refusal", "Nothing was saved: one field").await?;
        assert_eq!(bench.focused().await?, "empty.rear_left.0", "the field that is wrong has the focus");
        assert_eq!(bench.value("empty.rear_left.0").await?, "38 3/");
        assert_eq!(bench.value("empty.front_left.0").await?, "20 1/2");
        let problem = bench.text("[id='empty.rear_left.0-said'] .problem").await?;
        assert!(problem.ends_with('.'), "{problem}");
        // Put right where it stands, it is understood at once and taken.
        bench.type_in("empty.rear_left.0", "38 3/4").await?;
        bench.wait_for("[id='empty.rear_left.0-said'] .understood", "38 3/4 in").await?;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.goto("/jobs/1/tape").await?;
        assert_eq!(bench.value("empty.rear_left.0").await?, "38 3/4");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn units_are_switched_in_place_and_the_drawing_follows() {
    at(Site::demo(), "units", async |bench| {
        bench.sign_on("Odalys").await?;
        bench.goto("/jobs/1").await?;
        bench.wait_for("svg.stance-wide", "L 18 15/16").await?;
        bench.find("button[value='mm']").await?.click().await?;
        bench.wait_for("svg.stance-wide", "L 481").await?;
        bench.find("button[value='kg']").await?.click().await?;
        bench.wait_for(".figures", "kg").await?;
        assert!(bench.page.current_url().await?.path().ends_with("/jobs/1"));
        Ok(())
    })
    .await;
}

/// No label of a drawing lies over another, and nothing on the page is cut off at its right edge.
#[tokio::test]
async fn labels_do_not_overlap_and_nothing_is_cut_off() {
    at(Site::demo(), "overlap", async |bench| {
        bench.sign_on("Odalys").await?;
        for (width, height) in [(1280, 800), (820, 1180), (390, 844)] {
            bench.browser.resize(width, height).await;
            for path in [
                "/",
                "/?finished=true",
                "/bays",
                "/ledger",
                "/people",
                "/me",
                "/jobs/1",
                "/jobs/2/options",
                "/jobs/3/verdict",
                "/jobs/4/options",
                "/jobs/4/tape",
                "/jobs/6/load",
                "/jobs/6/look-over",
                "/jobs/9/wrench",
                "/jobs/9/plan",
                "/jobs/11/estimate",
                "/jobs/10/proof/settled",
                "/jobs/10/handover",
                "/jobs/7/bench?load=loose",
                "/jobs/7/bench?load=0",
                "/jobs/7/bench?load=1975",
                "/jobs/7/bench?load=2889",
                "/jobs/7/bench/re-arch",
                "/jobs/7/bench/sheet",
            ] {
                bench.goto(path).await?;
                bench.find("main").await?;
                let found = bench.page.execute(CROWDED, vec![]).await?;
                let found: Vec<String> = found.convert()?;
                assert_eq!(found, Vec::<String>::new(), "{path} at {width}");
            }
        }
        Ok(())
    })
    .await;
}

const CROWDED: &str = r#"
    const found = [];
    const wide = document.documentElement.clientWidth;
    if (document.documentElement.scrollWidth > wide) found.push(`the page is ${document.documentElement.scrollWidth} wide`);
    for (const name of document.querySelectorAll("h1")) {
        if (name.textContent.trim() && name.getBoundingClientRect().width < 20) found.push(`not to be read: ${name.textContent}`);
    }
    for (const drawing of document.querySelectorAll("svg.stance")) {
        const frame = drawing.getBoundingClientRect();
        if (frame.width === 0) continue;
        const texts = [...drawing.querySelectorAll("text")].map((text) => [text.textContent, text.getBoundingClientRect()]);
        texts.forEach(([words, box], index) => {
            if (box.left < frame.left - 1 || box.right > frame.right + 1) found.push(`cut off: ${words}`);
            for (const [other, its] of texts.slice(index + 1)) {
                const across = Math.min(box.right, its.right) - Math.max(box.left, its.left);
                const down = Math.min(box.bottom, its.bottom) - Math.max(box.top, its.top);
                // Boxes hold room for descenders, so neighbours may share a little of it.
                if (across > 1 && down > 0.35 * Math.min(box.height, its.height)) found.push(`${words} over ${other}`);
            }
        });
    }
    return found;
"#;
