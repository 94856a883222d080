//! What else fits the readings, the reading that would settle most, and what leaf friction does to them.

use crate::{measured_half_ton, open_half_ton, shop, tape};

/// Half-width of the band of the rear rate on a page, lb/in.
fn band(note: &str) -> f64 {
    let after = note.split('±').nth(1).unwrap_or_else(|| panic!("no band in “{note}”"));
    let number: String = after.trim().chars().take_while(|sign| sign.is_ascii_digit() || *sign == '.').collect();
    number.parse().unwrap()
}

#[tokio::test]
async fn two_heights_say_what_they_cannot_know_and_the_reading_asked_for_narrows_the_band() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let verdict = ada.get(&format!("{job}/verdict")).await;
    let (_, before, _) = verdict.figure("Rear axle rate, both springs");
    assert!(before.starts_with("rough"), "{before}");
    let (told, note, sum) = verdict.figure("What fits the readings");
    assert!(told.starts_with("the springs alone, at one rate"), "{told}");
    assert!(note.contains("a bump stop that bears unseen") && note.contains("an overload leaf"), "{note}");
    assert!(sum.contains("Heights alone do not tell"), "{sum}");
    let (next, expected, _) = verdict.figure("To settle most, next");
    assert_eq!(next, "the rear with half of the load");
    assert!(expected.contains("±"), "{expected}");
    let path = format!("{job}/tape");
    assert!(
        ada.get(&path).await.text("main").contains("read next: the rear with half of the load"),
        "it is asked for where it is read"
    );
    // Half-way down under half of the load, as springs alone would be.
    let half = [
        ("further_1.load", "over_empty"),
        ("further_1.weight", "500"),
        ("further_1.distance", "0"),
        ("further_1.manner", "rolled"),
        ("further_1.rear_left.0", "20 1/8"),
        ("further_1.rear_right.0", "20 3/16"),
    ];
    let after = ada.fill(&path, &half).await;
    let (_, narrower, _) = after.figure("Rear axle rate, both springs");
    assert!(band(&narrower) < 0.75 * band(&before), "{narrower} {before}");
    // And a stop and a leaf that were seen clear cannot have borne.
    let seen = [("loaded.stop_gap.0", "2"), ("loaded.contact_left_rear", "clear"), ("loaded.contact_right_rear", "clear")];
    let clear = ada.fill(&path, &seen).await;
    let (_, seen, _) = clear.figure("Rear axle rate, both springs");
    assert!(band(&seen) < band(&narrower), "{seen} {narrower}");
    let (_, note, _) = clear.figure("What fits the readings");
    assert!(!note.contains("bump stop") && note.contains("misread"), "{note}");
}

#[tokio::test]
async fn two_quick_readings_measure_what_the_leaves_hold() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/tape");
    let asked = ada.get(&path).await.form("form[data-draft]").with(&[("also", "pressed_and_lifted")]);
    let page = ada.send(&asked).await;
    let form = page.form("form[data-draft]");
    assert_eq!((form.value("further_1.manner"), form.value("further_2.manner")), ("pressed_down", "lifted"));
    assert_eq!(form.value("further_1.name"), "loaded, pressed down");
    assert!(!page.text("main").contains("Two quick readings"), "they are there");
    let read = [
        ("further_1.rear_left.0", "18 5/8"),
        ("further_1.rear_right.0", "18 5/8"),
        ("further_2.rear_left.0", "19"),
        ("further_2.rear_right.0", "19"),
    ];
    let verdict = ada.fill(&path, &read).await;
    assert!(verdict.path.ends_with("/verdict"), "{}", verdict.text("main"));
    assert!(verdict.figure("Rear axle rate, both springs").0.ends_with("lb/in"));
    // Once on file they are not offered again.
    assert!(!ada.get(&path).await.text("main").contains("Two quick readings"));
}

#[tokio::test]
async fn leaves_that_rub_dry_leave_a_wider_band() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut values = tape(["21 1/2", "18 13/16"], "1,000");
    values.push(("loaded.stop_gap.0", "2"));
    let verdict = ada.fill(&format!("{job}/tape"), &values).await;
    let (_, smooth, _) = verdict.figure("Rear axle rate, both springs");
    let found = [("leaves_grade", "watch"), ("leaves_leaves_dry", "yes")];
    ada.fill(&format!("{job}/look-over"), &found).await;
    let (rate, dry, _) = ada.get(&format!("{job}/verdict")).await.figure("Rear axle rate, both springs");
    assert!(rate == "too weak to say" || band(&dry) > 1.5 * band(&smooth), "{rate} {dry} {smooth}");
}
