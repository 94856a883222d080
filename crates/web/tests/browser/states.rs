//! A job with four states, gaps at both sides and an aim of three goals, entered by hand; taken along and taken in again.

use crate::site::Site;
use crate::workbench::{Workbench, at};
use thirtyfour::prelude::*;

/// Opens what is folded in, by the beginning of its heading.
async fn unfold(bench: &Workbench, heading: &str) -> WebDriverResult<()> {
    let path = format!("//details[not(@open)]/summary[starts-with(normalize-space(.), '{heading}')]");
    bench.press(&path).await
}

/// Chooses from a list.
async fn choose(bench: &Workbench, name: &str, value: &str) -> WebDriverResult<()> {
    bench.find(&format!("select[name='{name}'] option[value='{value}']")).await?.click().await
}

async fn walk(bench: &Workbench, state: &str, heights: [&str; 4]) -> WebDriverResult<()> {
    for (place, height) in ["front_left", "front_right", "rear_left", "rear_right"].into_iter().zip(heights) {
        bench.type_in(&format!("{state}.{place}.0"), height).await?;
    }
    Ok(())
}

/// Nothing may reach past the screen's edge.
async fn fits_the_screen(bench: &Workbench) -> WebDriverResult<()> {
    let script = "return document.documentElement.scrollWidth > document.documentElement.clientWidth";
    let wide: bool = bench.page.execute(script, vec![]).await?.convert()?;
    assert!(!wide, "{} reaches past the edge", bench.page.current_url().await?);
    Ok(())
}

/// The whole of it, as somebody with the tape in one hand does it; the path of the job.
async fn enter_four_states(bench: &Workbench) -> WebDriverResult<String> {
    bench.open_half_ton().await?;
    bench.pick("datum-ground_to_arch").await?;
    walk(bench, "empty", ["36 1/4", "36 1/8", "38", "37 7/8"]).await?;
    walk(bench, "loaded", ["36 1/4", "36 1/4", "35 7/8", "35 5/8"]).await?;
    unfold(bench, "More, empty").await?;
    bench.type_in("empty.gap_rear_left", "3 1/2").await?;
    bench.type_in("empty.gap_rear_right", "3 1/4").await?;
    unfold(bench, "More, loaded").await?;
    bench.type_in("loaded.gap_rear_left", "1 3/4").await?;
    bench.type_in("loaded.gap_rear_right", "1 1/2").await?;
    choose(bench, "loaded.contact_left_rear", "bears").await?;
    unfold(bench, "Points of the body").await?;
    bench.type_in("point.0.name", "step").await?;
    bench.type_in("point.0.distance", "40").await?;
    bench.type_in("point.0.loaded", "11 3/4").await?;
    bench.pick("load_kind-placed").await?;
    bench.type_in("load_weight", "800").await?;
    bench.type_in("load_distance", "0").await?;
    unfold(bench, "One more state").await?;
    bench.pick("further_1.load-over_loaded").await?;
    bench.type_in("further_1.weight", "200").await?;
    bench.type_in("further_1.distance", "0").await?;
    bench.find("[name='further_1.test']").await?.click().await?;
    walk(bench, "further_1", ["36 3/8", "36 3/8", "35 1/4", "35"]).await?;
    fits_the_screen(bench).await?;
    bench.send().await?;
    bench.wait_for_path("/verdict").await?;
    let job = bench.page.current_url().await?.path().trim_end_matches("/verdict").to_owned();
    bench.goto(&format!("{job}/tape")).await?;
    unfold(bench, "One more state").await?;
    bench.pick("further_2.load-over_loaded").await?;
    bench.pick("further_2.manner-pressed_down").await?;
    walk(bench, "further_2", ["36 1/4", "36 1/4", "35 1/2", "35 3/8"]).await?;
    bench.send().await?;
    bench.wait_for_path("/verdict").await?;
    bench.wait_for(".figure-label", "Lean rear, 200 lb more").await?;
    fits_the_screen(bench).await?;
    for (index, goal) in
        [["rear", "further_1", "at_least", "35 1/2"], ["point step", "loaded", "at_least", "12 1/2"]].iter().enumerate()
    {
        bench.goto(&format!("{job}/aim")).await?;
        if index == 0 {
            bench.type_in("rake", "0").await?;
            bench.type_in("tolerance", "1/2").await?;
            unfold(bench, "Goals beside that").await?;
        }
        let [mark, when, way, height] = goal;
        choose(bench, &format!("goal.{index}.mark"), mark).await?;
        choose(bench, &format!("goal.{index}.when"), when).await?;
        choose(bench, &format!("goal.{index}.way"), way).await?;
        bench.type_in(&format!("goal.{index}.height"), height).await?;
        bench.type_in(&format!("goal.{index}.tolerance"), "1/4").await?;
        fits_the_screen(bench).await?;
        bench.send().await?;
        bench
            .wait_for(
                "main li",
                &format!("{}: at least {height} in", if index == 0 { "rear 200 lb more" } else { "step loaded" }),
            )
            .await?;
    }
    Ok(job)
}

/// Two parts tried together, and what both sides come to in every state.
async fn try_two_parts(bench: &Workbench, job: &str) -> WebDriverResult<()> {
    bench.goto(&format!("{job}/options")).await?;
    bench.pick("kind-lift_block").await?;
    bench.type_in("thickness", "1").await?;
    bench.find(".try .send button").await?.click().await?;
    bench.wait_for(".option h3", "Lift block, 1 in").await?;
    bench.pick("kind-helper_spring").await?;
    bench.type_in("helper_rate", "200").await?;
    bench.type_in("engagement_gap", "1").await?;
    let together = bench.page.query(By::XPath("//label[contains(., 'together with Lift block')]")).first().await?;
    together.click().await?;
    bench.find(".try .send button").await?.click().await?;
    bench.wait_for(".option h3", "Lift block, 1 in + Helper springs").await?;
    unfold(bench, "Every figure with its sum").await?;
    for label in ["Rear left, 200 lb more", "Rear right, pressed down", "Rear left, loaded", "Rear right, empty"] {
        bench.wait_for(".figure-label", label).await?;
    }
    assert_eq!(bench.page.find_all(By::Css(".goal-verdicts li")).await?.len(), 3);
    fits_the_screen(bench).await
}

#[tokio::test]
async fn four_states_gaps_at_both_sides_and_three_goals_are_entered_on_a_desktop_and_taken_along() {
    at(Site::empty(), "states", async |bench| {
        bench.sign_on("Ada").await?;
        let job = enter_four_states(bench).await?;
        try_two_parts(bench, &job).await?;
        bench.goto(&job).await?;
        assert!(bench.find("a[href$='/job.json']").await?.is_displayed().await?);
        let given: String = bench
            .page
            .execute_async(
                "const [path, done] = arguments; fetch(path).then((a) => a.text()).then(done)",
                vec![format!("{job}/job.json").into()],
            )
            .await?
            .convert()?;
        let file = tempfile::Builder::new().suffix(".json").tempfile().expect("a file");
        std::fs::write(file.path(), &given).expect("written");
        bench.goto("/jobs/import").await?;
        bench.find("#document").await?.send_keys(file.path().to_str().expect("a plain path")).await?;
        bench.send().await?;
        bench.wait_for(".summary", "empty, loaded, 200 lb more, pressed down").await?;
        bench.send().await?;
        bench.wait_for_path("/tape").await?;
        assert_eq!(bench.value("further_1.rear_right.0").await?, "35");
        assert_eq!(bench.value("loaded.gap_rear_left").await?, "1 3/4");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn the_same_is_entered_on_a_phone_and_each_state_is_drawn_by_itself() {
    at(Site::empty(), "states-phone", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Ada").await?;
        let job = enter_four_states(bench).await?;
        try_two_parts(bench, &job).await?;
        bench.goto(&format!("{job}/verdict")).await?;
        bench.find(".picture-fold summary").await?.click().await?;
        let shown = bench.text(".stance-narrow").await?;
        assert!(shown.contains("L 35 1/4") && shown.contains("R 35"), "both sides: {shown}");
        assert!(shown.contains("200 lb more") && shown.contains("pressed down"), "every state: {shown}");
        Ok(())
    })
    .await;
}
