//! The open document of an option, and what it would do to a job.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/in_short.rs"]
mod in_short;

use in_short::demo_shelf;
use serde_json::{Value, json};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::option_document::{OptionDocument, PredictionDocument};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::units::InShopUnits;

const SCHEMA: &str = include_str!("../../../docs/option.schema.json");
const OPTION: &str = include_str!("../../../docs/examples/option.json");
const JOB: &str = include_str!("../../../docs/examples/job.json");

fn example() -> Value {
    serde_json::from_str(OPTION).unwrap()
}

/// The example with something else at a place.
fn with(pointer: &str, value: Value) -> Value {
    let mut document = example();
    *document.pointer_mut(pointer).unwrap() = value;
    document
}

fn refused(document: &Value) -> String {
    OptionDocument::read(&document.to_string()).unwrap_err().to_string()
}

fn job(change: impl Fn(&mut Value)) -> JobDocument {
    let mut job: Value = serde_json::from_str(JOB).unwrap();
    change(&mut job);
    JobDocument::read(&job.to_string()).unwrap()
}

fn predicted(job: &JobDocument, option: &Value) -> Value {
    let option = OptionDocument::read(&option.to_string()).unwrap();
    serde_json::from_str(&PredictionDocument::of(job, &option).unwrap().to_json()).unwrap()
}

#[test]
fn the_schema_in_the_documentation_is_the_one_of_the_code_and_holds_the_example() {
    let of_code = serde_json::to_value(OptionDocument::schema()).unwrap();
    let in_docs: Value = serde_json::from_str(SCHEMA).unwrap();
    assert!(in_docs == of_code, "write it anew: wise-badger predict --schema > docs/option.schema.json");
    let schema = jsonschema::validator_for(&of_code).unwrap();
    assert!(schema.is_valid(&example()));
    assert!(!schema.is_valid(&json!({ "format": "wise-badger/option", "version": 1 })), "no parts");
    let again = OptionDocument::read(OPTION).unwrap();
    assert_eq!(serde_json::to_value(&again).unwrap(), example(), "what is read is what is written");
}

#[test]
fn it_says_what_the_job_itself_says_of_the_same_option() {
    let taken = job(|_| {});
    let answer = predicted(&taken, &example());
    assert_eq!((&answer["format"], &answer["refused"]), (&json!("wise-badger/prediction"), &json!([])));
    let mut case = taken.case();
    let place = case.options.len();
    case.options.push(serde_json::from_value(json!({ "parts": example()["parts"] })).unwrap());
    let work = Casework::new(case);
    let states = work.predicted(place).unwrap();
    let of_job: Vec<(LoadState, f64)> = states.each().map(|(state, it)| (state, it.as_ref().unwrap().rear.value.si())).collect();
    let printed = answer["states"].as_array().unwrap();
    assert_eq!(printed.len(), of_job.len());
    for (printed, (state, rear)) in printed.iter().zip(of_job) {
        assert_eq!(printed["state"], serde_json::to_value(state).unwrap());
        let height = &printed["heights"][0];
        assert!((height["value_m"].as_f64().unwrap() - rear).abs() < 1e-9, "{printed}");
        let [at_rest, tape] = ["sd_m", "tape_sd_m"].map(|name| height[name].as_f64().unwrap());
        assert!(at_rest > 0.0 && tape >= at_rest, "{height}");
    }
    assert_eq!(answer["cases"].as_array().unwrap().len(), work.cases().len());
    assert!(answer["cautions"].as_array().unwrap().contains(&json!("one_block_only")), "{}", answer["cautions"]);
    // Set tight with the load on it holds the rear higher than left hanging.
    let mut hanging = example();
    hanging["parts"][0].as_object_mut().unwrap().remove("settings");
    let loaded = |answer: &Value| answer["states"][1]["heights"][0]["value_m"].as_f64().unwrap();
    assert!(loaded(&answer) > loaded(&predicted(&taken, &hanging)) + 1e-3);
}

#[test]
fn points_of_the_body_go_with_both_ends() {
    let answer = predicted(&job(|_| {}), &example());
    let heights = answer["states"][1]["heights"].as_array().unwrap();
    let point = heights.iter().find(|height| height["mark"] == "point").expect("the example has one");
    // By similar triangles: a point o behind the rear axle rises by 1 + o/L of what the rear does, the front standing still.
    let of_job: Value = serde_json::from_str(JOB).unwrap();
    let (read, wheelbase) = (&of_job["tape"]["points"][0], of_job["vehicle"]["wheelbase"]["si"].as_f64().unwrap());
    let behind = read["distance"]["si"].as_f64().unwrap() * if read["ahead"] == true { -1.0 } else { 1.0 };
    let loaded = read["heights"].as_array().unwrap().iter().find(|height| height["state"] == "loaded").unwrap();
    let rise = heights[0]["rise_m"].as_f64().unwrap();
    let expected = loaded["height"]["si"].as_f64().unwrap() + rise * (1.0 + behind / wheelbase);
    assert!((point["value_m"].as_f64().unwrap() - expected).abs() < 1e-9, "{point}");
    assert_eq!(point["name"], read["name"]);
    // Larger tires lift it too, as a tape from the ground sees; one from the hub does not, and says nothing of it.
    let mut tires = example();
    tires["parts"] = json!([{ "correction": {
        "kind": "tires",
        "diameter": { "text": "33", "unit": "in", "si": 0.8382 },
        "old_diameter": { "text": "32", "unit": "in", "si": 0.8128 }
    } }]);
    let points = |datum: &str| {
        let job = job(|job| {
            job["datum"] = json!(datum);
            for reading in job["readings"].as_array_mut().unwrap() {
                if reading["datum"] == "ground_to_arch" {
                    reading["datum"] = json!(datum);
                }
            }
        });
        let answer = predicted(&job, &tires);
        answer["states"][1]["heights"].as_array().is_some_and(|heights| heights.iter().any(|height| height["mark"] == "point"))
    };
    assert!(points("ground_to_arch") && !points("hub_to_arch"));
}

fn inch(inches: f64) -> Value {
    json!({ "text": format!("{inches} in"), "unit": "in", "si": inches * 0.0254 })
}

/// A block of 2 in, and what goes with it, on a job whose hose was found 1 in slack and whose rear shock draws out 1 1/2 in further.
#[test]
fn what_else_changes_is_told_with_its_figures_and_what_comes_short_by_its_rule() {
    let hose = json!({ "area": "hoses_and_wires", "grade": "fine", "defects": [], "words": "", "measured": [{ "what": "hose_slack", "value": inch(1.0) }] });
    let shocks = json!({ "area": "shocks", "grade": "fine", "defects": [], "words": "", "measured": [{ "what": "shock_rod", "value": inch(1.5) }] });
    let job = job(|job| job["look_over"]["findings"] = json!([hose, shocks]));
    let block = json!({ "correction": { "kind": "lift_block", "thickness": inch(2.0) } });
    let parts = |parts: Value| {
        let mut option = example();
        option["parts"] = parts;
        option
    };
    let answer = predicted(&job, &parts(json!([block])));
    let short = |what: &str| json!({ "rule": "too_short", "found": what });
    assert_eq!(answer["refused"], json!([short("longer_hose"), short("longer_shocks")]));
    let told = |answer: &Value, what: &str| -> Value {
        let changes = answer["changes"].as_array().unwrap();
        changes.iter().find(|change| change["what"] == what).unwrap_or_else(|| panic!("{what}: {changes:?}")).clone()
    };
    let slack = told(&answer, "hose_slack");
    assert_eq!((&slack["end"], &slack["needs"]), (&json!("rear"), &json!("longer_hose")));
    assert!((slack["left_m"].as_f64().unwrap() + 0.0254).abs() < 1e-9, "{slack}");
    assert!((told(&answer, "stop_opens")["by_m"].as_f64().unwrap() - 0.0508).abs() < 1e-9);
    let with = |kind: &str, figures: &[(&str, f64)]| {
        let mut correction = json!({ "kind": kind });
        for (name, inches) in figures {
            correction[*name] = inch(*inches);
        }
        json!({ "correction": correction })
    };
    let hoses = with("brake_hoses", &[("longer", 2.5)]);
    let longer = [("new_open", 25.0), ("old_open", 23.0), ("new_closed", 15.0), ("old_closed", 15.0), ("mounts_nearer", 0.0)];
    let answer = predicted(&job, &parts(json!([block, hoses, with("shocks", &longer)])));
    assert_eq!(answer["refused"], json!([]), "what goes with it makes it good");
    assert!((told(&answer, "hose_slack")["left_m"].as_f64().unwrap() - 1.5 * 0.0254).abs() < 1e-9);
    // The mended hose on the job, and longer shocks in the option.
    let repaired = {
        let mut repaired = serde_json::to_value(&job).unwrap();
        repaired["look_over"]["repairs"] = json!(["longer_hose"]);
        JobDocument::read(&repaired.to_string()).unwrap()
    };
    assert_eq!(predicted(&repaired, &parts(json!([block, with("shocks", &longer)])))["refused"], json!([]));
}

/// The same in a case of the load plan: similar triangles over how far both ends rise from the empty vehicle.
#[test]
fn points_of_the_body_go_with_both_ends_in_a_case_too() {
    let tank = job(|job| {
        job["load_plan"] = json!({ "cases": [{ "key": 1, "name": "Tank full", "rear_scale": null, "front_scale": null }], "items": [{
            "name": "Tank", "cases": [1], "always": false, "amount": { "text": "600", "unit": "lb", "si": 2_668.93 }, "liquid": null,
            "distance": inch(10.0), "ahead": true, "lateral": null, "left": false, "height": null, "on_hitch": false
        }] });
    });
    let answer = predicted(&tank, &example());
    let case = &answer["cases"][0];
    let heights = case["heights"].as_array().unwrap();
    let height =
        |mark: &str| heights.iter().find(|height| height["mark"] == mark).map(|height| height["value_m"].as_f64().unwrap());
    let (point, rear, front) = (height("point").unwrap(), height("rear").unwrap(), height("front").unwrap());
    let of_job: Value = serde_json::from_str(JOB).unwrap();
    let (read, wheelbase) = (&of_job["tape"]["points"][0], of_job["vehicle"]["wheelbase"]["si"].as_f64().unwrap());
    let behind = read["distance"]["si"].as_f64().unwrap() * if read["ahead"] == true { -1.0 } else { 1.0 };
    let empty = read["heights"].as_array().unwrap().iter().find(|height| height["state"] == "empty").unwrap();
    let work = Casework::new(job(|_| {}).case());
    let before = |end| work.found().height(end, LoadState::Empty).unwrap().value.si();
    let (rear, front) = (rear - before(End::Rear), front - before(End::Front));
    let expected = empty["height"]["si"].as_f64().unwrap() + rear + (rear - front) * behind / wheelbase;
    assert!((point - expected).abs() < 1e-9, "{case}");
}

#[test]
fn what_speaks_against_it_is_told_by_its_rule() {
    let sound = job(|_| {});
    let coils = with(
        "/parts/0/correction",
        json!({
            "kind": "coil_spacer",
            "thickness": { "text": "1", "unit": "in", "si": 0.0254 },
            "replaces": { "text": "0", "unit": "in", "si": 0.0 }
        }),
    );
    let coils = {
        let mut only = coils;
        only["parts"] = json!([{ "correction": only["parts"][0]["correction"] }]);
        only
    };
    let rules = |answer: &Value| -> Vec<String> {
        answer["refused"].as_array().unwrap().iter().map(|refusal| refusal["rule"].as_str().unwrap().to_owned()).collect()
    };
    assert_eq!(rules(&predicted(&sound, &coils)), ["coils_not_said"]);
    let over = job(|job| job["vehicle"]["rear_rating"] = json!({ "text": "1,500", "unit": "lb", "si": 6_672.33 }));
    let answer = predicted(&over, &example());
    assert_eq!((rules(&answer), &answer["states"]), (vec!["over_a_rating".to_owned()], &json!([])), "nothing is proposed");
    let cracked = job(|job| {
        job["look_over"]["findings"] =
            json!([{ "area": "leaves", "grade": "stop", "defects": ["leaf_cracked"], "measured": [], "words": "" }]);
    });
    let answer = predicted(&cracked, &example());
    assert_eq!(answer["refused"][0], json!({ "rule": "defect", "found": "leaf_cracked" }));
}

#[test]
fn what_cannot_be_is_named_by_its_field() {
    for (document, said) in [
        (with("/format", json!("wise-badger/job")), "not a wise-badger/option document"),
        (with("/version", json!(2)), "not a wise-badger/option document"),
        (with("/parts", json!([])), "parts: an option has from 1 to 12 parts"),
        (with("/parts/0/correction/kind", json!("magic")), "there is no correction “magic”"),
        (
            with("/parts/1/correction/thickness", json!({ "text": "-1", "unit": "in", "si": -0.0254 })),
            "parts[1].correction: thickness",
        ),
        (with("/parts/1/correction/thickness", json!({ "text": "1", "unit": "in", "si": 0.254 })), "does not read as"),
        (
            with("/parts/0/settings/0/value", json!({ "text": "90", "unit": "in", "si": 2.286 })),
            "parts[0].settings[0]: engagement_gap",
        ),
        (
            with(
                "/parts/0",
                json!({ "correction": {
                    "kind": "measured_coils", "new_height": inch(7.0), "old_height": inch(14.0), "standing_height": inch(11.0),
                    "solid_height": inch(8.0),
                    "new_rate": { "text": "300", "unit": "lb_per_in", "si": 52_538.054 },
                    "old_rate": { "text": "300", "unit": "lb_per_in", "si": 52_538.054 }
                } }),
            ),
            "parts[0].correction: new_height must be more than solid_height",
        ),
        (
            with("/parts/1", json!({ "correction": { "kind": "differential_drop", "dropped": inch(1.0) } })),
            "parts[1].correction: it goes at the front only",
        ),
        (with("/parts/0", example()["parts"][1].clone()), "parts[1]: it takes up at one corner what parts[0] does"),
    ] {
        let refused = refused(&document);
        assert!(refused.contains(said) && !refused.contains('\n'), "{refused}");
    }
    let sited = |name: &str, word: &str| {
        let mut document = example();
        document["parts"][1]["correction"][name] = json!(word);
        refused(&document)
    };
    assert!(sited("axles", "middle").contains("does not go on “middle”") && sited("side", "top").contains("“top”"));
    assert!(sited("axles", "front").contains("never on a steered axle"));
    assert!(OptionDocument::read("{").unwrap_err().to_string().contains("not JSON text: from line 1"));
    assert!(OptionDocument::read(&" ".repeat(300_000)).unwrap_err().to_string().contains("larger than 256 kB"));
    let elsewhere = with("/parts/0/settings/0/when", json!({ "case": 77 }));
    let option = OptionDocument::read(&elsewhere.to_string()).unwrap();
    let error = PredictionDocument::of(&job(|_| {}), &option).unwrap_err().to_string();
    assert_eq!(error, "parts[0].settings[0].when: the job has no case 77 to be predicted in");
}

/// Parts asked for by their numbers are the parts of a document that says the same.
#[test]
fn parts_of_a_shelf_are_asked_for_by_number_place_and_setting() {
    let (job, shelf) = (job(|_| {}), demo_shelf());
    let asked = |with: &[&str]| {
        let with: Vec<String> = with.iter().map(|one| (*one).to_owned()).collect();
        OptionDocument::of_shelf(&job, &shelf, &with)
    };
    let option = asked(&["BL-502", "ab-801=35 psi", "BL-501@left"]).unwrap_err().to_string();
    assert!(option.contains("takes up at one corner"), "two blocks on one seat: {option}");
    let option = asked(&["BL-502", "ab-801=35 psi"]).unwrap();
    let parts = serde_json::to_value(&option.parts).unwrap();
    assert_eq!(parts[0]["correction"]["thickness"]["text"], "1 1/2");
    assert!((parts[1]["correction"]["pressure"]["si"].as_f64().unwrap() - 35.0 * 6_894.757_293_168).abs() < 1.0);
    assert_eq!(parts[1]["shelf"]["number"], "AB-801");
    let by_number: Value = serde_json::from_str(&PredictionDocument::of(&job, &option).unwrap().to_json()).unwrap();
    let written = serde_json::to_value(&option).unwrap();
    assert_eq!(predicted(&job, &written), by_number, "written down and read again it is the same");
    let front = asked(&["CO-605@front"]).unwrap();
    assert_eq!(serde_json::to_value(&front.parts).unwrap()[0]["correction"]["axles"], "front");
    for (with, what) in [
        ("XX-1", "the shelf has no part of this number"),
        ("BL-502@roof", "a part does not go on “roof”"),
        ("BL-502=3 in", "nothing of this part is set when it is fitted"),
        ("AB-801=a lot", "is no setting of this part"),
        ("AB-801=900 psi", "is no setting of this part"),
        ("SK-901", "it asks for a figure of the vehicle"),
    ] {
        let error = asked(&[with]).unwrap_err().to_string();
        assert!(error.contains(what) && error.contains(with), "{with}: {error}");
    }
}
