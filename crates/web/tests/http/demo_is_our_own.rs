//! The demo is a scenario of its own: none of its readings is a figure that stands as a check value.

use crate::{Site, Visitor};

/// Heights and gaps, in inches, which the trade reports of such vehicles (common practice) and which are used to hold the physics
/// against, or were close enough to be taken for them: class, state, figure.
const CHECK_VALUES: [(&str, &str, &[f64]); 13] = [
    ("one_ton_pickup", "empty", &[42.0, 42.0625, 4.75]),
    ("one_ton_pickup", "loaded", &[38.125, 38.4375, 39.875, 2.0]),
    ("half_ton_pickup", "empty", &[40.0, 37.0, 37.375, 39.25, 39.5]),
    ("half_ton_pickup", "loaded", &[37.0, 38.5]),
    ("mid_size_pickup", "empty", &[37.75, 39.5, 6.25, 7.25]),
    ("mid_size_pickup", "loaded", &[37.75, 39.5]),
    ("van", "empty", &[37.75]),
    ("van", "loaded", &[37.75]),
    ("motorhome", "empty", &[33.5, 33.4375, 34.125, 33.875, 2.875]),
    ("motorhome", "loaded", &[33.5, 31.625, 31.25, 0.8125]),
    ("flatbed", "empty", &[42.0, 40.0]),
    ("tandem_trailer", "empty", &[40.0, 37.0]),
    ("tandem_trailer", "loaded", &[37.0, 38.5]),
];

#[tokio::test]
async fn no_reading_of_the_demo_is_a_check_value() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let mut held = 0;
    for job in 1..=11 {
        let text = bram.client().get(bram.url(&format!("/jobs/{job}/job.json"))).send().await.unwrap().text().await.unwrap();
        let document: serde_json::Value = serde_json::from_str(&text).unwrap();
        let class = document["vehicle"]["class"].as_str().unwrap();
        for reading in document["readings"].as_array().unwrap() {
            let (state, place) = (reading["state"].as_str().unwrap(), &reading["place"]);
            let figure = reading["value"]["si"].as_f64().unwrap() / 0.0254;
            let same = |(of, when, figures): &(&str, &str, &[f64])| {
                (*of, *when) == (class, state) && figures.iter().any(|check| (check - figure).abs() < 1e-6)
            };
            assert!(!CHECK_VALUES.iter().any(same), "job {job}: {place} {state} reads {figure} in");
            held += 1;
        }
    }
    assert!(held >= 60, "only {held} readings were looked at");
}
