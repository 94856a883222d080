//! A bench whose left and right packs differ: each is looked at, worked on and printed by itself, and the plan puts each in its place.

use reqwest::StatusCode;

use crate::bench::{document, leaves, put_in};
use crate::visitor::Form;
use crate::{Page, Visitor, measured_half_ton, shop};

fn bench_form(page: &Page) -> Form {
    page.form("#bench-form")
}

async fn bench(visitor: &Visitor, job: &str, pack: &str) -> Page {
    visitor.get(&format!("{job}/bench?pack={pack}")).await
}

/// The bench with the right pack told apart.
async fn told_apart(visitor: &Visitor, job: &str) -> Page {
    put_in(visitor, job).await;
    visitor.press(&format!("{job}/bench"), "/bench/sides").await
}

#[tokio::test]
async fn each_side_is_worked_on_by_itself_and_goes_to_the_options_as_a_part_of_its_own() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let page = told_apart(&ada, &job).await;
    assert_eq!(page.texts(".bench-tabs a"), ["Left, as found", "Left, as planned", "Right, as found", "Right, as planned"]);
    let before = leaves(&page);
    let right = bench(&ada, &job, "found_right").await;
    assert_eq!(leaves(&right), before, "told apart it begins as the left one");
    let planned = ada.send(&bench_form(&right).with(&[("insert", "yes"), ("kind", "short")])).await;
    assert_eq!(planned.text(".bench-tabs [aria-current]"), "Right, as planned");
    assert_eq!(leaves(&planned).len(), before.len() + 1);
    assert_eq!(leaves(&bench(&ada, &job, "planned_left").await), before, "the left pack is as it was");
    let heights = planned.text("#bench-heights");
    assert!(heights.contains(", L ") && heights.contains(", R "), "the lean is told: {heights}");
    let options = ada.press(&format!("{job}/bench"), "/bench/option").await;
    assert_eq!(options.status, StatusCode::OK, "{}", options.text("main"));
    let option = options.text(".option");
    assert!(option.contains("Pack from the bench: Add-a-leaf in; right only"), "{option}");
    // Work on the left is no part of it; work on the right puts it out of date.
    let left = bench(&ada, &job, "planned_left").await;
    ada.send(&bench_form(&left).with(&[("l1_arch", "3")])).await;
    assert!(!ada.get(&format!("{job}/options")).await.text(".option").contains("worked on since"));
    let right = bench(&ada, &job, "planned_right").await;
    ada.send(&bench_form(&right).with(&[("l1_arch", "3")])).await;
    let options = ada.get(&format!("{job}/options")).await.text("main");
    assert!(options.contains("since"), "{options}");
}

#[tokio::test]
async fn a_side_is_re_arched_and_its_sheet_and_templates_are_its_own() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    told_apart(&ada, &job).await;
    let page = bench(&ada, &job, "found_left").await;
    let link = page.attributes("a[href*='/bench/re-arch']", "href").concat();
    let rearch = ada.get(&link).await;
    assert_eq!(rearch.text("h2"), "Re-arch, left");
    let form = rearch.form("#rearch-form");
    let (state, height) = (form.value("state").to_owned(), form.value("height").to_owned());
    assert!(!height.is_empty(), "it begins with a height: {state}");
    let taken = ada
        .send(&form.with(&[("state", "empty"), ("height", "22"), ("rated", "150"), ("at_stop", "170"), ("yields", "190")]))
        .await;
    assert_eq!(taken.text(".bench-tabs [aria-current]"), "Left, as planned", "{}", taken.text("main"));
    let arch = |page: &Page| page.field("l0_arch").0;
    let right = (arch(&bench(&ada, &job, "found_right").await), arch(&bench(&ada, &job, "planned_right").await));
    assert_eq!(right.0, right.1, "nobody bent the right one");
    assert_ne!(arch(&taken), arch(&bench(&ada, &job, "found_left").await));
    let sheet = ada.get(&format!("{job}/bench/sheet?pack=planned_left")).await;
    assert!(sheet.text(".arching-head").contains("The left pack."), "{}", sheet.text(".arching-head"));
    let other = sheet.attributes("a[href*='sheet?pack=planned_right']", "href").concat();
    assert!(ada.get(&other).await.text(".arching-head").contains("The right pack."));
    let template = sheet.attributes("a[href$='svg?pack=planned_left']", "href").remove(0);
    let drawn = ada.get(&template).await.html.html();
    assert!(drawn.contains("left pack, leaf 1"), "it says whose it is");
}

#[tokio::test]
async fn both_sides_become_alike_again_and_a_step_back_brings_the_right_one_back() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    told_apart(&ada, &job).await;
    let right = bench(&ada, &job, "found_right").await;
    ada.send(&bench_form(&right).with(&[("l0_thickness", ".36")])).await;
    // It goes into the job's file and comes back with it.
    let document = document(&ada, &format!("{job}/job.json")).await;
    assert_eq!(document["bench"]["right"]["found"]["leaves"][0]["thickness"]["text"], ".36");
    let page = bench(&ada, &job, "found_right").await;
    let alike = ada.send(&page.form("form[action$='/bench/sides']").with(&[("sides", "alike")])).await;
    assert_eq!(alike.texts(".bench-tabs a"), ["As found", "As planned"]);
    assert_eq!(
        bench(&ada, &job, "found_right").await.text(".bench-tabs [aria-current]"),
        "As found",
        "an old address still leads there"
    );
    let step = alike.form("form[action$='/bench/step']").with(&[("way", "back")]);
    let back = ada.send(&step).await;
    assert_eq!(back.texts(".bench-tabs a").len(), 4);
    assert_eq!(bench(&ada, &job, "found_right").await.field("l0_thickness").0, ".36");
}
