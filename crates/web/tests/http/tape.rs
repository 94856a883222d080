//! More than heights on Tape, mixed datums, corrected readings, and readings that are questioned as they are typed.

use crate::{measured_half_ton, open_half_ton, shop, walk};

#[tokio::test]
async fn weights_angles_pressures_and_body_points_are_kept_as_typed() {
    let (_site, ada) = shop().await;
    let path = format!("{}/tape", measured_half_ton(&ada).await);
    let read = [
        ("empty.step", "15 3/8"),
        ("empty.weight_rear", "2,260"),
        ("empty.pinion", "-2.5°"),
        ("loaded.tyre_rear_left", "4.5 bar"),
        ("loaded.arch_left", "3 1/4"),
        ("floor", "level slab"),
    ];
    ada.fill(&path, &read).await;
    let again = ada.get(&path).await;
    for (name, text) in read {
        assert_eq!(again.field(name).0, text, "{name}");
    }
    let refused = ada.fill(&path, &[("empty.pinion", "steep"), ("loaded.tyre_rear_left", "-3")]).await;
    assert!(refused.field("empty.pinion").1.contains("not a figure in degrees"));
    assert!(refused.field("loaded.tyre_rear_left").1.contains("below zero"));
}

#[tokio::test]
async fn a_front_read_from_the_ground_is_turned_into_hub_heights() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut values = vec![("datum", "hub_to_arch"), ("front_datum", "ground_to_arch"), ("load_kind", "none")];
    values.extend(walk(["35", "35"], ["21 1/2", "18 13/16"]));
    ada.fill(&format!("{job}/tape"), &values).await;
    let waits = ada.get(&format!("{job}/tape")).await;
    assert!(waits.text("form .missing").contains("wait to be turned into hub center to arch"), "{}", waits.text("form .missing"));
    ada.fill(&format!("{job}/tape"), &[("empty.hub_front", "14 1/2"), ("loaded.hub_front", "14 1/4")]).await;
    // Front 20 1/2 in empty, so that the rake is 21 1/2 − 20 1/2.
    assert_eq!(ada.get(&format!("{job}/verdict")).await.figure("Rake empty").0, "+1 in");
}

#[tokio::test]
async fn a_corrected_reading_stays_with_who_and_why() {
    let (_site, ada) = shop().await;
    let path = format!("{}/tape", measured_half_ton(&ada).await);
    ada.fill(&path, &[("empty.rear_left.0", "21 5/8"), ("why", "misread")]).await;
    let kept = ada.get(&path).await.text("form .aside:last-of-type");
    let kept = if kept.contains("corrected") { kept } else { ada.get(&path).await.texts("form .aside").join(" ") };
    assert!(kept.contains("Rear left, empty: 21 1/2 by Ada; corrected by Ada"), "{kept}");
    assert!(kept.contains("misread"), "{kept}");
}

#[tokio::test]
async fn several_reads_show_their_spread() {
    let (_site, ada) = shop().await;
    let path = format!("{}/tape", measured_half_ton(&ada).await);
    ada.fill(&path, &[("empty.rear_left.1", "21 5/8")]).await;
    let taken = ada.get(&path).await.text(".station-rear_left .taken");
    assert!(taken.contains("2 reads 1/8 in apart, mean 21.56 in"), "{taken}");
}

#[tokio::test]
async fn a_reading_that_does_not_fit_is_questioned_while_it_is_typed() {
    let (_site, ada) = shop().await;
    let asked = |held: &str| format!("/understood?reads=length&length_unit=in&weight_unit=lb&text=38+3%2F4&{held}");
    for (held, said) in [
        ("repeat=38", "3/4 in from the other reading"),
        ("side=36", "2 3/4 in from the other side"),
        ("empty=38+1%2F4", "1/2 in higher loaded than empty"),
    ] {
        let answer = ada.get(&asked(held)).await.html.root_element().text().collect::<String>().replace('\u{a0}', " ");
        assert!(answer.contains(said), "{held}: {answer}");
    }
    let fits = ada.get(&asked("repeat=38+5%2F8&side=38&empty=41")).await.html.root_element().text().collect::<String>();
    assert!(!fits.contains("doubt"), "{fits}");
}

#[tokio::test]
async fn a_control_drive_is_compared_before_and_after() {
    let (_site, ada) = shop().await;
    let path = format!("{}/drive", measured_half_ton(&ada).await);
    let refused = ada.fill(&path, &[("found_loaded.sway", "much")]).await;
    assert!(refused.field("route").1.contains("Name the route"));
    let scored = [("route", "mill lane and back"), ("found_loaded.sway", "much"), ("fitted_loaded.sway", "little")];
    let compared = ada.fill(&path, &scored).await;
    assert_eq!(compared.texts(".questions li"), ["Sway, loaded: much before, a little after: better"]);
}
