//! The open stance documents: reference answers, and what is refused.

#![allow(
    clippy::unwrap_used,
    clippy::indexing_slicing,
    clippy::cast_precision_loss,
    clippy::cast_possible_truncation,
    reason = "a test fails where it stands"
)]

use serde_json::Value;
use wise_badger_mechanics::document::{ReadingsDocument, StanceDocument};

fn reference_folder() -> std::path::PathBuf {
    std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference/stance")
}

fn read(name: &str) -> String {
    std::fs::read_to_string(reference_folder().join(name)).unwrap()
}

/// Compares every figure of the expected document with the answer, by the kind its key names.
fn compare(case: &str, key: &str, expected: &Value, answer: &Value, tolerance: &Value) {
    match expected {
        Value::Object(fields) => {
            for (name, value) in fields {
                let kind = if name.ends_with("_m") || name.ends_with("_n") || name.ends_with("_rad") || name.ends_with("_hz") {
                    name
                } else {
                    key
                };
                compare(&format!("{case}.{name}"), kind, value, &answer[name], tolerance);
            }
        }
        Value::Array(items) => {
            for (index, value) in items.iter().enumerate() {
                compare(&format!("{case}[{index}]"), key, value, &answer[index], tolerance);
            }
        }
        Value::Number(number) => {
            let allowed = match key {
                key if key.ends_with("_n") => &tolerance["load_n"],
                key if key.ends_with("_rad") => &tolerance["angle_rad"],
                key if key.ends_with("_hz") => &tolerance["frequency_hz"],
                _ => &tolerance["height_m"],
            };
            let (expected, allowed) = (number.as_f64().unwrap(), allowed.as_f64().unwrap());
            let got = answer.as_f64().unwrap_or_else(|| panic!("{case}: no figure in the answer"));
            assert!((got - expected).abs() <= allowed, "{case}: {got} where {expected} ± {allowed} was expected");
        }
        other => assert_eq!(other, answer, "{case}"),
    }
}

#[test]
fn every_reference_document_gets_its_expected_answer() {
    let mut cases = 0;
    for entry in std::fs::read_dir(reference_folder()).unwrap() {
        let name = entry.unwrap().file_name().into_string().unwrap();
        let Some(stem) = name.strip_suffix(".expected.json") else { continue };
        let mut expected: Value = serde_json::from_str(&read(&name)).unwrap();
        let tolerance = expected.as_object_mut().unwrap().remove("tolerance").unwrap();
        let answer = StanceDocument::read(&read(&format!("{stem}.json"))).unwrap().solve().unwrap();
        let answer: Value = serde_json::from_str(&answer.to_json()).unwrap();
        compare(stem, "", &expected, &answer, &tolerance);
        cases += 1;
    }
    assert!(cases >= 10, "only {cases} reference documents were found");
}

#[test]
fn what_is_not_understood_is_refused_by_the_name_of_its_field() {
    let good = read("F03_half_ton_1000lb_over_axle.json");
    let spoilt = |from: &str, to: &str| {
        assert!(good.contains(from), "{from} is not in the base case");
        let error = StanceDocument::read(&good.replacen(from, to, 1)).and_then(|document| document.solve().map(|_| ()));
        error.expect_err(&format!("{to} should be refused")).to_string()
    };
    for (from, to, names) in [
        ("\"version\": 1", "\"version\": 2", "version"),
        ("wise-badger/stance", "wise-badger/pack", "format"),
        ("\"track_m\"", "\"trakc_m\"", "trakc_m"),
        ("\"track_m\": 1.71", "\"track_m\": -1.71", "track"),
        ("\"track_m\": 1.71", "\"track_m\": 1e999", "track_m"),
        ("\"track_m\": 1.71", "\"track_m\": \"wide\"", "track_m"),
        ("\"kind\": \"bump\"", "\"kind\": \"bunp\"", "bunp"),
        ("\"force_table\"", "\"rate_n_per_m\": 5.0, \"force_table\"", "force_table"),
        ("\"name\": \"R\"", "\"name\": \"F\"", "“F”"),
        ("\"weight_n\": 4448.22162", "\"weight_n\": -1", "weight"),
    ] {
        let sentence = spoilt(from, to);
        assert!(sentence.contains(names), "{to}: “{sentence}” does not name {names}");
    }
    assert!(StanceDocument::read("{").unwrap_err().to_string().starts_with("document"));
    assert!(StanceDocument::read(&" ".repeat(1_000_001)).unwrap_err().to_string().contains("1 MB"));
    let trailing = StanceDocument::read(&format!("{good} 7")).unwrap_err().to_string();
    assert!(trailing.contains("trailing"), "{trailing}");
}

#[test]
fn trailers_and_air_are_refused_by_the_name_of_their_field() {
    let spoilt = |base: &str, from: &str, to: &str| {
        let good = read(base);
        assert!(good.contains(from), "{from} is not in {base}");
        let error = StanceDocument::read(&good.replacen(from, to, 1)).and_then(|document| document.solve().map(|_| ()));
        error.expect_err(&format!("{to} should be refused")).to_string()
    };
    let (air, trailer) = ("F09_bags_shared_line.json", "F12_tandem_equaliser.json");
    for (base, from, to, names) in [
        (air, "\"area_m2\": 0.0135", "\"area_m2\": 0", "area of “bag”"),
        (air, "\"volume_m3\": 0.0022", "\"volume_m3\": -1", "volume of “bag”"),
        (air, "\"line\": \"shared\"", "\"line\": \"left\"", "left"),
        (air, "\"fill_pressure_pa\": 172368.932", "\"fill_pressure_pa\": -5", "fill pressure of “bag”"),
        (trailer, "\"front_arm_m\": 0.09", "\"front_arm_m\": -0.09", "front arm of the left equalizer"),
        (trailer, "\"stop_rad\": 0.45", "\"stop_rad\": 0", "stop of the left equalizer"),
        (trailer, "\"kerb_load_n\"", "\"kerb_load_lb\"", "kerb_load_lb"),
        (trailer, "\"coupler_rise_m\": 0.12", "\"coupler_rise_m\": \"high\"", "coupler_rise_m"),
    ] {
        let sentence = spoilt(base, from, to);
        assert!(sentence.contains(names), "{to}: “{sentence}” does not name {names}");
    }
    let loose = read("F03_half_ton_1000lb_over_axle.json").replacen("\"loads\"", "\"coupler_rise_m\": 0.1, \"loads\"", 1);
    let refused = StanceDocument::read(&loose).unwrap_err().to_string();
    assert!(refused.contains("coupler_rise_m") && refused.contains("no coupler"), "{refused}");
}

/// The half-ton's readings with other states: loads in pounds and rear heights in inches.
fn with_states(states: &[(f64, f64)]) -> String {
    let mut document: Value = serde_json::from_str(&read("../readings/half_ton.json")).unwrap();
    let state = |(load, height): &(f64, f64)| {
        serde_json::json!({
            "state": {"name": format!("{load} lb"), "loads": [{"weight_n": load * 4.448_221_615, "position_m": 3.683}]},
            "load_doubts": [{"weight_n": 60.0}],
            "readings": [{"reading": "height", "axle": "R", "datum": "hub_to_arch", "value_m": height * 0.0254, "sd_m": 0.001}],
        })
    };
    document["states"] = states.iter().map(state).collect();
    document["predictions"] = serde_json::json!([]);
    document.to_string()
}

fn fitted(document: &str) -> Value {
    serde_json::from_str(&ReadingsDocument::read(document).unwrap().solve().unwrap().to_json()).unwrap()
}

#[test]
fn a_second_stage_and_a_contact_are_found_in_readings() {
    // By hand: 370 lb/in for 2 in of travel, 1,110 past it.
    let height = |load: f64| 21.5 - if load > 740.0 { 2.0 + (load - 740.0) / 1_110.0 } else { load / 370.0 };
    let states: Vec<(f64, f64)> = (0..8).map(|step| 250.0 * f64::from(step)).map(|load| (load, height(load))).collect();
    let answer = fitted(&with_states(&states));
    let rate = &answer["axle_rates"][0];
    let inches = |figure: &Value| figure.as_f64().unwrap() / 0.0254;
    assert!((inches(&rate["second_stage"]["at_travel_m"]) - 2.0).abs() < 0.25, "{rate}");
    assert!((inches(&rate["contact_suspected_from_m"]) - 2.0).abs() < 0.25, "{rate}");
    let even: Vec<(f64, f64)> = states.iter().map(|(load, _)| (*load, 21.5 - load / 370.0)).collect();
    let rate = &fitted(&with_states(&even))["axle_rates"][0];
    assert!(rate.get("second_stage").is_none() && rate.get("contact_suspected_from_m").is_none(), "{rate}");
}

#[test]
fn every_kind_of_reading_is_taken_and_one_that_does_not_fit_is_named() {
    let mut document: Value = serde_json::from_str(&read("../readings/half_ton.json")).unwrap();
    document["vehicle"]["points"] = serde_json::json!([{"name": "hitch", "position_m": 4.8}]);
    let stop = serde_json::json!([{"kind": "bump", "name": "stop", "gap_m": 0.1, "rate_n_per_m": 100_000}]);
    for side in 0..2 {
        document["vehicle"]["axles"][1]["corners"][side]["elements"] = stop.clone();
    }
    // Where the stance solver puts hitch, stop and wheels under 1,000 lb over the axle.
    let more = |hitch: f64, gap: f64, load: f64| {
        serde_json::json!([
            {"reading": "point", "point": "hitch", "value_m": hitch, "sd_m": 0.005},
            {"reading": "gap", "axle": "R", "element": "stop", "value_m": gap, "sd_m": 0.002},
            {"reading": "wheel_load", "axle": "R", "side": "left", "value_n": load, "sd_n": 100},
            {"reading": "axle_load", "axle": "R", "value_n": 2.0 * load, "sd_n": 150},
        ])
    };
    for (state, readings) in [(0, more(0.6, 0.1, 5_000.0)), (1, more(0.6 - 0.1003, 0.1 - 0.0683, 7_224.0))] {
        let list = document["states"][state]["readings"].as_array_mut().unwrap();
        list.extend(readings.as_array().unwrap().iter().cloned());
    }
    let answer = fitted(&document.to_string());
    assert!(answer.get("misfit").is_none(), "{}", answer["misfit"]);
    assert_eq!(answer["predictions"][0]["heights"].as_array().unwrap().len(), 3);
    document["states"][1]["readings"][3]["value_n"] = 8_200.into();
    let answer = fitted(&document.to_string());
    assert_eq!((&answer["misfit"]["state"], &answer["misfit"]["reading"]), (&"loaded".into(), &3.into()), "{answer}");
}

/// A document with something else where one of its values stands, so that most spoilt documents still have their shape.
fn spoil(good: &str, at: f64, length: usize, with: &str) -> String {
    let values: Vec<usize> = good.match_indices(": ").map(|(index, _)| index + 2).collect();
    let start = values[((values.len() - 1) as f64 * at) as usize];
    let value_end = good[start..].find([',', '\n', '}']).map_or(good.len(), |end| start + end);
    let end = if length < 8 { value_end } else { (start + length).min(good.len()) };
    format!("{}{with}{}", &good[..start], &good[end..])
}

fn has_null(text: &str) -> bool {
    text.lines().any(|line| line.trim_end_matches(',').ends_with("\": null"))
}

/// A state that lies just where a second stage joins stalls a search by slopes: the best there is is found all the same.
#[test]
fn readings_on_the_kink_of_a_second_stage_are_answered() {
    for number in 1..=3 {
        let document = ReadingsDocument::read(&read(&format!("../readings/on_the_kink_{number}.json"))).unwrap();
        let identified = document.experiment.identify().unwrap();
        assert!(identified.misfit(3.0).is_none(), "{number}: {:?}", identified.misfit(3.0));
        assert!(identified.shares().iter().all(|share| share.relative_sd > 0.0 && share.log_factor.abs() < 1.5));
    }
}

const SPOILT: [&str; 14] =
    ["", "0", "-1", "1e308", "-1e-300", "null", "[]", "{}", "\"x\"", "1e999", "true", ",", "}", "\u{fffd}"];

proptest::proptest! {
    /// A document spoilt anywhere is read, answered or refused; it never stops the program.
    #[test]
    fn no_document_makes_the_reader_stumble(
        which in 0..4_usize, at in 0.0..1.0_f64, length in 0..12_usize, with in proptest::sample::select(SPOILT.to_vec()),
    ) {
        static GOOD: std::sync::LazyLock<Vec<String>> = std::sync::LazyLock::new(|| {
            let names = ["F07_van_side_load_roll", "F09_bags_shared_line", "F12_tandem_equaliser", "F20_hard_bottoming_wheel_lift"];
            names.map(|name| read(&format!("{name}.json"))).to_vec()
        });
        if let Ok(answer) = StanceDocument::read(&spoil(&GOOD[which], at, length, with)).and_then(|document| document.solve()) {
            let text = answer.to_json();
            proptest::prop_assert!(!has_null(&text), "{text}");
        }
    }

    #[test]
    fn no_readings_make_the_fit_stumble(
        at in 0.0..1.0_f64, length in 0..12_usize, with in proptest::sample::select(SPOILT.to_vec()),
    ) {
        static GOOD: std::sync::LazyLock<String> = std::sync::LazyLock::new(|| read("../readings/half_ton.json"));
        if let Ok(answer) = ReadingsDocument::read(&spoil(&GOOD, at, length, with)).and_then(ReadingsDocument::solve) {
            let text = answer.to_json();
            proptest::prop_assert!(!has_null(&text), "{text}");
        }
    }
}
