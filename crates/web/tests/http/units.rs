//! Inches or millimetres, pounds or kilograms: each person's own, and what was typed is kept.

use crate::{BLOCK, INTAKE, Visitor, consider, measured_half_ton, near, shop};

pub(crate) async fn switch(visitor: &Visitor, name: &str, unit: &str) {
    let fields = [(name.to_owned(), unit.to_owned()), ("next".to_owned(), "/jobs/new".to_owned())];
    let page = visitor.post("/units", &fields).await;
    assert_eq!(page.path, "/jobs/new");
}

#[tokio::test]
async fn what_was_typed_stays_as_typed_when_the_units_are_switched() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    consider(&ada, &job, &BLOCK).await;
    switch(&ada, "length", "mm").await;
    switch(&ada, "weight", "kg").await;
    let tape = ada.get(&format!("{job}/tape")).await;
    assert_eq!(tape.field("empty.rear_left.0").0, "21 1/2 in");
    assert_eq!(tape.field("load_weight").0, "1,000 lb");
    // By hand: 2.6875 in is 68.3 mm; 372.1 lb/in is 65.2 N/mm; 18.8125 + 2 in is 528.6 mm.
    let verdict = ada.get(&format!("{job}/verdict")).await;
    assert_eq!(verdict.figure("Rear sag under the load").0, "68 mm");
    let rate = verdict.figure("Rear axle rate, both springs");
    assert!(near(&rate.0, 65.2, 0.01) && rate.2.contains("= 65.2 N/mm"), "{rate:?}");
    assert_eq!(verdict.figure("Rear axle, loaded").0, "1,474 kg");
    let options = ada.get(&format!("{job}/options")).await;
    assert_eq!(options.text(".option h3"), "Lift block, 2 in");
    assert!(options.figure("Rear, loaded").2.contains("= 528.6 mm"), "{}", options.figure("Rear, loaded").2);
    // Saving the page unchanged changes nothing.
    ada.fill(&format!("{job}/tape"), &[]).await;
    switch(&ada, "length", "in").await;
    switch(&ada, "weight", "lb").await;
    let again = ada.get(&format!("{job}/tape")).await;
    assert_eq!((again.field("empty.rear_left.0").0, again.field("load_weight").0), ("21 1/2".into(), "1,000".into()));
    assert!(!again.text("main").contains("stay on record"), "nothing was withdrawn");
}

#[tokio::test]
async fn the_sum_of_a_predicted_height_ends_at_the_figure_that_is_shown() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    consider(&ada, &job, &BLOCK).await;
    for length in ["mm", "in"] {
        switch(&ada, "length", length).await;
        let options = ada.get(&format!("{job}/options")).await;
        for label in ["Rear, empty", "Rear, loaded"] {
            let (shown, _, sum) = options.figure(label);
            let height = shown.split(" ±").next().unwrap();
            assert!(sum.contains(&format!("({height})")), "{label}: {shown}, and the sum ends otherwise: {sum}");
        }
    }
}

#[tokio::test]
async fn bare_numbers_are_read_in_the_units_the_page_was_drawn_in() {
    let (_site, ada) = shop().await;
    let form = ada.form("/jobs/new").await.with(&INTAKE);
    switch(&ada, "length", "mm").await;
    let page = ada.send(&form).await;
    assert!(page.path.ends_with("/tape"), "145 was typed on a page in inches: {}", page.text("main"));
    let vehicle = ada.get("/jobs/1/intake").await;
    assert_eq!(vehicle.field("wheelbase").0, "145 in");
    assert!(vehicle.text(".job-vehicle").contains("3683 mm"), "{}", vehicle.text(".job-vehicle"));
}

#[tokio::test]
async fn units_are_each_persons_own() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    switch(&ada, "length", "mm").await;
    assert_eq!(ada.get("/jobs/new").await.text(".field-unit"), "mm");
    assert_eq!(bo.get("/jobs/new").await.text(".field-unit"), "in");
    switch(&ada, "length", "furlong").await;
    assert_eq!(ada.get("/jobs/new").await.text(".field-unit"), "mm");
}

#[tokio::test]
async fn a_device_may_have_units_of_its_own_whoever_works_at_it() {
    let (site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let elsewhere = Visitor::working(&site.address, "Ada").await;
    let height = async |visitor: &Visitor| visitor.get(&format!("{job}/verdict")).await.figure("Rear sag under the load").0;
    switch(&ada, "for", "device").await;
    switch(&ada, "length", "mm").await;
    assert_eq!(height(&ada).await, "68 mm");
    assert_eq!(height(&elsewhere).await, "2 11/16 in", "on another device she reads as she always did");
    // Given back, her own count here again, and are switched for her everywhere.
    switch(&ada, "for", "person").await;
    assert_eq!(height(&ada).await, "2 11/16 in");
    switch(&ada, "length", "mm").await;
    assert_eq!((height(&ada).await, height(&elsewhere).await), ("68 mm".to_owned(), "68 mm".to_owned()));
}
