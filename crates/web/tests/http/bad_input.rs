//! What cannot be: a plain sentence beside the field, everything typed kept, nothing stored.

use reqwest::StatusCode;

use crate::{INTAKE, consider, measured_half_ton, open_half_ton, shop, tape};

const REFUSED: StatusCode = StatusCode::UNPROCESSABLE_ENTITY;

#[tokio::test]
async fn a_length_that_cannot_be_read_is_named_beside_its_field_and_kept() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    for (typed, said) in [
        ("38 3/", "“38 3/” has a fraction that is not finished; write it like 38 3/4."),
        ("-2", "“-2” is below zero; type how much, without a minus."),
        ("NaN", "“NaN” is not a length; write it like 38 3/4, 38.75 in, 3' 2 3/4\" or 985 mm."),
        ("9e99", "“9e99” is not a length; write it like 38 3/4, 38.75 in, 3' 2 3/4\" or 985 mm."),
        ("38 in lb", "“38 in lb” is not a length; write it like 38 3/4, 38.75 in, 3' 2 3/4\" or 985 mm."),
        ("1/0", "“1/0” has a fraction that is not finished; write it like 38 3/4."),
        ("<script>", "“<script>” is not a length; write it like 38 3/4, 38.75 in, 3' 2 3/4\" or 985 mm."),
    ] {
        let mut values = tape(["21 1/2", "18 13/16"], "1,000");
        values.retain(|(name, _)| *name != "empty.rear_left.0");
        values.push(("empty.rear_left.0", typed));
        let page = ada.fill(&format!("{job}/tape"), &values).await;
        assert_eq!(page.status, REFUSED, "{typed}");
        let (kept, problem) = page.field("empty.rear_left.0");
        assert_eq!(kept, typed);
        assert_eq!(problem, said, "{typed}");
        assert_eq!(page.field("load_weight").0, "1,000");
        assert!(page.text(".refusal").starts_with("Nothing was saved"), "{}", page.text(".refusal"));
    }
    assert_eq!(ada.get(&format!("{job}/tape")).await.field("empty.rear_right.0").0, "", "nothing stored half");
}

#[tokio::test]
async fn heights_that_cannot_belong_together_are_questioned() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut with = tape(["21 1/2", "18 13/16"], "1,000");
    with.push(("empty.rear_left.1", "24"));
    let verdict = ada.fill(&format!("{job}/tape"), &with).await;
    assert!(verdict.text(".look-again").contains("its readings are 2 1/2 in apart"), "{}", verdict.text("main"));
    let repeats = ada.get(&format!("{job}/tape")).await;
    assert!(repeats.field("empty.rear_left.0").1.contains("apart"), "{:?}", repeats.field("empty.rear_left.0"));
    ada.fill(&format!("{job}/tape"), &[("empty.rear_left.1", "")]).await;
    let mut apart = tape(["21 1/2", "18 13/16"], "1,000");
    apart.retain(|(name, _)| *name != "empty.rear_left.0");
    apart.push(("empty.rear_left.0", "33 1/2"));
    ada.fill(&format!("{job}/tape"), &apart).await;
    let sides = ada.get(&format!("{job}/tape")).await;
    assert_eq!(sides.field("empty.rear_left.0").0, "33 1/2", "kept as it was typed");
    assert!(sides.field("empty.rear_right.0").1.contains("12 in apart, empty: read both again"));
    // Nothing to ask about once it is put right.
    ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "18 13/16"], "1,000")).await;
    assert!(ada.get(&format!("{job}/verdict")).await.texts(".look-again").is_empty());
    let mut wrong_unit = tape(["215 mm", "18 13/16"], "1,000");
    wrong_unit.extend([("empty.rear_right.0", "3")]);
    assert_eq!(ada.fill(&format!("{job}/tape"), &wrong_unit).await.status, REFUSED);
}

#[tokio::test]
async fn a_rear_that_rises_with_load_is_asked_about_and_taken_when_confirmed() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let values = tape(["21 1/2", "21 3/4"], "1,000");
    let asked = ada.fill(&format!("{job}/tape"), &values).await;
    assert_eq!(asked.status, REFUSED);
    assert!(asked.text(".question").contains("stands higher loaded than empty"), "{}", asked.text(".question"));
    let confirmed = ada.send(&asked.form("form[data-draft]").with(&[("rise_confirmed", "yes")])).await;
    assert!(confirmed.path.ends_with("/verdict"), "{}", confirmed.text("main"));
    assert_eq!(confirmed.figure("Rear axle rate, both springs").0, "no rate");
    // The front may well rise; nobody asks about that.
    let other = open_half_ton(&ada).await;
    let mut nose_up = tape(["21 1/2", "18 13/16"], "1,000");
    nose_up.retain(|(name, _)| !name.starts_with("loaded.front"));
    nose_up.extend([("loaded.front_left.0", "21"), ("loaded.front_right.0", "21")]);
    let page = ada.fill(&format!("{other}/tape"), &nose_up).await;
    assert_eq!(page.figure("Front change").1, "the nose comes up");
}

/// A weight ahead of the front axle lifts the rear: that it rises with it is what lever arms say, and no slip.
#[tokio::test]
async fn a_rear_that_a_plow_lifts_is_not_asked_about() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut values = tape(["21 1/2", "22"], "400");
    values.retain(|(name, _)| *name != "load_distance");
    values.extend([("load_distance", "190"), ("load_side", "ahead")]);
    let page = ada.fill(&format!("{job}/tape"), &values).await;
    assert!(page.path.ends_with("/verdict"), "{}", page.text("main"));
    // The same weight ahead of the rear axle alone presses it down.
    values.extend([("load_distance", "20")]);
    let asked = ada.fill(&format!("{job}/tape"), &values).await;
    assert!(asked.text(".question").contains("stands higher loaded than empty"), "{}", asked.text("main"));
}

#[tokio::test]
async fn a_vehicle_that_cannot_be_is_refused_field_by_field() {
    let (_site, ada) = shop().await;
    for (name, typed, said) in [
        ("label", "", "calls this job"),
        ("label", "two\nlines", "one line"),
        ("class", "hovercraft", "Pick"),
        ("rear_wheels", "", "Pick single or dual"),
        ("wheelbase", "", "Nothing is typed"),
        ("wheelbase", "14 mm", "wheelbase is between"),
        ("front_rating", "many", "weight"),
        ("kerb_rear", "300", "No rear axle of this class"),
    ] {
        let form = ada.form("/jobs/new").await.with(&INTAKE).with(&[(name, typed)]);
        let page = ada.send(&form).await;
        assert_eq!(page.status, REFUSED, "{name} {typed:?}");
        let problems = page.texts(".problem").join(" ");
        assert!(problems.contains(said), "{name} {typed:?}: {problems}");
        assert_eq!(page.form("form[data-draft]").value("front_rating"), form.value("front_rating"));
    }
    // All that is wrong is told at once, whichever comes first.
    let form = ada.form("/jobs/new").await.with(&INTAKE);
    let page =
        ada.send(&form.with(&[("label", ""), ("wheelbase", "14 mm"), ("kerb_rear", "300"), ("gross_rating", "lots")])).await;
    for field in ["label", "wheelbase", "gross_rating"] {
        assert!(!page.field(field).1.is_empty(), "{field}");
    }
    assert_eq!(ada.get("/").await.text(".empty h2"), "No jobs here yet");
}

#[tokio::test]
async fn a_rating_that_is_a_slip_is_asked_about_where_it_stands_and_kept() {
    let (_site, ada) = shop().await;
    for (name, typed, asked) in [
        ("rear_rating", "39,000", "was 3,900 lb meant?"),
        ("rear_rating", "390", "assumed on this class's empty rear axle"),
        ("front_rating", "390", "assumed on this class's empty front axle"),
        ("gross_rating", "2,000", "assumed on this class's empty whole vehicle"),
    ] {
        let form = ada.form("/jobs/new").await.with(&INTAKE).with(&[(name, typed)]);
        let tape = ada.send(&form).await;
        let job = tape.path.trim_end_matches("/tape").to_owned();
        let intake = ada.get(&format!("{job}/intake")).await;
        let (value, said) = intake.field(name);
        assert!(value == typed && said.contains(asked), "{name} {typed}: {said}");
        assert!(ada.get(&format!("{job}/verdict")).await.text(".look-again").contains(asked));
    }
}

#[tokio::test]
async fn a_load_off_the_vehicle_or_none_at_all_is_refused() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    for (changes, field, said) in [
        (vec![("load_distance", "400"), ("load_side", "behind")], "load_distance", "off the vehicle"),
        (vec![("load_distance", "12")], "load_side", "Pick on which side of the rear axles it sits"),
        (vec![("load_weight", "0")], "load_weight", "weight that was put on"),
        (vec![("load_weight", "30000"), ("load_distance", "50"), ("load_side", "behind")], "load_weight", "lift an axle"),
    ] {
        let mut values = tape(["21 1/2", "18 13/16"], "1,000");
        values.retain(|(name, _)| !changes.iter().any(|(other, _)| other == name));
        values.extend(changes.clone());
        let page = ada.fill(&format!("{job}/tape"), &values).await;
        assert_eq!(page.status, REFUSED, "{changes:?}");
        let problem = if field == "load_side" { page.texts(".problem").join(" ") } else { page.field(field).1 };
        assert!(problem.contains(said), "{changes:?}: {problem}");
    }
    let mut weighed = tape(["21 1/2", "18 13/16"], "");
    weighed.extend([("load_kind", "weighed"), ("rear_empty", "3,200"), ("rear_loaded", "2,250")]);
    let page = ada.fill(&format!("{job}/tape"), &weighed).await;
    assert!(page.field("rear_loaded").1.contains("Loaded must be more than empty"), "{:?}", page.field("rear_loaded"));
    let half = weighed.iter().copied().chain([("rear_loaded", "3,400"), ("front_empty", "3,000")]).collect::<Vec<_>>();
    let page = ada.fill(&format!("{job}/tape"), &half).await;
    assert!(page.field("front_loaded").1.contains("one state only"), "{:?}", page.field("front_loaded"));
}

#[tokio::test]
async fn a_correction_that_cannot_be_is_refused() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let block = |thickness| vec![("kind", "lift_block"), ("thickness", thickness)];
    let helper = |rate, gap| vec![("kind", "helper_spring"), ("helper_rate", rate), ("engagement_gap", gap)];
    let rubber = |table| vec![("kind", "load_rubber"), ("clearance", "1/2"), ("force_table", table)];
    let bar = |rate, base| vec![("kind", "anti_roll_bar"), ("bar_rate", rate), ("bar_base", base)];
    let on = |mut values: Vec<_>, axles, side| {
        values.extend([("axles", axles), ("side", side)]);
        values
    };
    for (values, said) in [
        (vec![("kind", "")], "Pick a correction."),
        (vec![("kind", "reworked_pack")], "Pick a correction."),
        (block("40"), "A block is between 1/4 in and 6 in; check the figure and its unit. Did you mean 40 mm?"),
        (block("0"), "A block is between 1/4 in and 6 in; check the figure and its unit."),
        (block(""), "Nothing is typed here."),
        (helper("0", "1"), "The rate of helpers is between 1 lb/in and 50,000 lb/in; check the figure and its unit."),
        (helper("stiff", "1"), "“stiff” is not a spring rate; write it like 372 lb/in or 65 N/mm."),
        (helper("200", "12"), "A helper's gap is between −3 in and 8 in; check the figure and its unit. Did you mean 12 mm?"),
        (
            vec![("kind", "added_leaf"), ("leaf_rate", "90"), ("lift", "900 mm")],
            "An add-a-leaf's lift is between −1 in and 6 in; check the figure and its unit.",
        ),
        (rubber(""), "Type the rubber's force, one point a line, like: 1/2 in ; 180 lb"),
        (rubber("0;0"), "A force table needs 2 points or more, starting with 0 ; 0."),
        (
            rubber("0;0\n1;500\n1/2;700"),
            "Travel must start at 0 and grow from point to point; point 3 of the force table does not.",
        ),
        (rubber("0;0\n1 in 500 lb"), "Line 2 has no force; write compression ; force, like 1/2 in ; 180 lb."),
        (vec![("kind", "rearched_pack"), ("free_height_gained", "-1")], "“-1” is below zero; type how much, without a minus."),
        (
            bar("200", "4"),
            "A bar between its ends is between 20 in and 100 in; check the figure and its unit. Did you mean 4 ft?",
        ),
        (on(block("2"), "front", "both"), "Not on a steered axle: lift block goes at the rear only."),
        (on(bar("200", "40"), "rear", "left"), "Not on one side: sway bar goes on both alike."),
        (on(block("2"), "rear_2", "both"), "This vehicle has no such axle; pick another."),
        (on(block("2"), "rear", "top"), "Pick both sides, left or right."),
    ] {
        let page = consider(&ada, &job, &values).await;
        assert_eq!(page.status, REFUSED, "{values:?}");
        let problems: Vec<String> = page.texts(".try .problem").iter().map(|text| text.replace('\u{a0}', " ")).collect();
        assert_eq!(problems, [said], "{values:?}");
        let kept = page.form("form[data-draft]");
        for (name, typed) in values {
            if !["axles", "side"].contains(&name) {
                assert_eq!(kept.value(name).replace("\r\n", "\n"), if typed == "reworked_pack" { "" } else { typed });
            }
        }
    }
    assert!(ada.get(&format!("{job}/options")).await.texts(".considered li").is_empty());
}

#[tokio::test]
async fn what_is_typed_is_understood_or_questioned_at_once() {
    let (_site, ada) = shop().await;
    let ask = async |reads: &str, text: &str| {
        let query = [("reads", reads), ("text", text), ("length_unit", "in"), ("weight_unit", "lb")];
        let url = reqwest::Url::parse_with_params(&ada.url("/understood"), query).unwrap();
        let answer = ada.client().get(url).send().await.unwrap();
        (answer.status(), answer.text().await.unwrap().replace('\u{a0}', " "))
    };
    for (text, understood) in [
        ("38 3/4", "38 3/4 in"),
        ("38-3/4\"", "38 3/4 in"),
        ("38.75", "38 3/4 in"),
        ("985 mm", "38 3/4 in"),
        ("3' 2 3/4\"", "38 3/4 in"),
    ] {
        assert_eq!(ask("length", text).await, (StatusCode::OK, format!("{{\"understood\":\"{understood}\"}}")), "{text}");
    }
    assert_eq!(ask("weight", "1,000").await.1, "{\"understood\":\"1,000 lb\"}");
    assert_eq!(ask("rate", "35 N/mm").await.1, "{\"understood\":\"200 lb/in\"}");
    assert!(ask("length", "38 3/").await.1.starts_with("{\"problem\":"));
    assert_eq!(ask("length", "").await.1, "{}");
    assert_eq!(ask("colour", "red").await.0, StatusCode::BAD_REQUEST);
}
