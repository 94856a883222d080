//! The open document of a job: what it says is what the job knew, and what is not understood is named.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use serde_json::{Value, json};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::job_document::{JobDocument, JobDocumentError, LARGEST, VERSION, readings_csv};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::units::inches;

const EXAMPLE: &str = include_str!("../../../docs/examples/job.json");
const SCHEMA: &str = include_str!("../../../docs/job.schema.json");

fn example() -> Value {
    serde_json::from_str(EXAMPLE).unwrap()
}

/// The document with something of it put otherwise.
fn with(pointer: &str, value: Value) -> Value {
    let mut document = example();
    *document.pointer_mut(pointer).unwrap_or_else(|| panic!("no {pointer}")) = value;
    document
}

/// The document with a field more somewhere.
fn with_more(pointer: &str) -> Value {
    let mut document = example();
    let object = document.pointer_mut(pointer).unwrap().as_object_mut().unwrap();
    object.insert("surprise".to_owned(), json!(1));
    document
}

fn refusal(document: &Value) -> String {
    JobDocument::read(&document.to_string()).unwrap_err().to_string()
}

#[test]
fn the_example_is_read_and_says_the_same_again() {
    let document = JobDocument::read(EXAMPLE).unwrap();
    assert_eq!(serde_json::to_value(&document).unwrap(), example());
    let case = document.case();
    let again = JobDocument::of(&case, document.promise.clone());
    // Who took what, what was ticked and what was signed are none of a case.
    let without_people = |mut document: JobDocument| {
        (document.ticks, document.papers) = (Vec::new(), Vec::new());
        for reading in &mut document.readings {
            (reading.taken_by, reading.taken_at) = (None, None);
        }
        document
    };
    assert_eq!(again, without_people(document));
}

#[test]
fn the_example_holds_four_states_both_sides_and_three_goals_and_is_predicted() {
    let work = Casework::new(JobDocument::read(EXAMPLE).unwrap().case());
    let found = work.found();
    assert_eq!(found.states().count(), 4);
    let gaps = found.stop_gap.empty.rear;
    assert!(gaps.left.is_some() && gaps.right.is_some() && gaps.left != gaps.right, "{gaps:?}");
    assert_eq!(work.case().aim.as_ref().unwrap().goals.len(), 3);
    for state in found.states() {
        assert!(found.height(End::Rear, state).is_some());
        assert!(work.predicted(0).unwrap().at(state).unwrap().rear_sides.is_some(), "{state:?}");
        assert!((0..3).all(|goal| work.judged(goal, 0, inches(1.0 / 16.0)).is_some()));
    }
    assert!(found.leans(End::Rear, LoadState::Loaded));
}

#[test]
fn the_schema_in_the_documentation_is_the_one_of_the_code_and_holds_the_example() {
    let of_code = serde_json::to_value(JobDocument::schema()).unwrap();
    let in_docs: Value = serde_json::from_str(SCHEMA).unwrap();
    // Two schemas side by side are more than anybody reads.
    assert!(in_docs == of_code, "write it anew: wise-badger job schema > docs/job.schema.json");
    let schema = jsonschema::validator_for(&of_code).unwrap();
    assert!(schema.is_valid(&example()), "{:?}", schema.iter_errors(&example()).map(|e| e.to_string()).collect::<Vec<_>>());
    assert!(!schema.is_valid(&with_more("")), "a field that it does not know");
    assert!(!schema.is_valid(&with("/vehicle/class", json!("spaceship"))));
}

#[test]
fn a_field_that_is_not_known_is_named_with_its_place() {
    for (pointer, at) in [
        ("", "surprise"),
        ("/vehicle", "vehicle.surprise"),
        ("/readings/0", "readings[0].surprise"),
        ("/readings/0/value", "readings[0].value.surprise"),
        ("/intake", "intake.surprise"),
        ("/tape/states/1", "tape.states[1].surprise"),
        ("/tape/points/0", "tape.points[0].surprise"),
        ("/aim", "aim.surprise"),
        ("/options/0", "options[0].surprise"),
        ("/options/0/parts/0", "options[0].parts[0].surprise"),
    ] {
        let said = refusal(&with_more(pointer));
        assert!(said.starts_with(&format!("{at}: unknown field `surprise`")), "{pointer}: {said}");
    }
    // Where the kind is told by a field of its own, the list it stands in is named.
    for (pointer, at) in [("/tape/states/1/load", "tape.states[1].load"), ("/aim/goals/0", "aim.goals[0]")] {
        let said = refusal(&with_more(pointer));
        assert!(said.starts_with(at) && said.contains("unknown field `surprise`"), "{pointer}: {said}");
    }
    let said = refusal(&with_more("/options/0/parts/0/correction"));
    assert!(said.starts_with("options[0].parts[0].correction") && said.contains("surprise"), "{said}");
}

#[test]
fn a_document_of_the_first_version_is_read_and_what_came_later_is_no_field_of_it() {
    let mut first = with("/version", json!(1));
    let fields = first.as_object_mut().unwrap();
    let proof = fields.remove("proof").unwrap();
    for later in ["sums", "work_plan", "ticks", "papers"] {
        fields.remove(later);
    }
    let read = JobDocument::read(&first.to_string()).unwrap();
    assert_eq!(JobDocument::of(&read.case(), None).version, VERSION, "it goes out again as one of today");
    first.as_object_mut().unwrap().insert("proof".to_owned(), proof);
    assert_eq!(refusal(&first), "proof: version 1 has no such field; it came with version 2");
    assert_eq!(refusal(&with("/version", json!(0))), "version: it must be from 1 to 5");
}

/// A row a reading, as any reader of such tables reads it; a name that would be a formula is none.
#[test]
fn readings_go_out_as_a_table() {
    let mut document = JobDocument::read(EXAMPLE).unwrap();
    document.readings[0].taken_by = Some("=cmd()".to_owned());
    let text = readings_csv(&document).unwrap();
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    assert_eq!(reader.headers().unwrap().iter().take(3).collect::<Vec<_>>(), ["phase", "state", "place"]);
    let rows: Vec<csv::StringRecord> = reader.records().map(Result::unwrap).collect();
    assert_eq!(rows.len(), document.readings.len());
    assert_eq!(
        rows[0].iter().take(6).collect::<Vec<_>>(),
        ["found", "empty", "front_left", "ground_to_arch", "36 1/4 in", "0.92075"]
    );
    assert_eq!(&rows[0][6], "'=cmd()");
    assert_eq!(&rows[8][1], "further_1");
}

#[test]
fn work_that_cannot_be_is_named() {
    assert_eq!(refusal(&with("/version", json!(3))), "work_plan: version 3 has no such field; it came with version 4");
    assert_eq!(refusal(&with("/work_plan/took_hours", json!(-1.0))), "work_plan.took_hours: hours are from 0 to 999");
    assert!(refusal(&with("/work_plan/extras/0/what", json!(" "))).starts_with("work_plan.extras[0].what: "));
    assert!(refusal(&with("/work_plan/extras/0/price/text", json!("18o"))).starts_with("work_plan.extras[0].price: "));
    assert_eq!(refusal(&with("/ticks/0/tick/step", json!("Rear <b>"))), "ticks[0].tick.step: no step goes by that");
    assert!(refusal(&with("/papers/0/paper/drawn", json!("M 1 1 L 9999 2"))).starts_with("papers[0].paper.drawn: "));
}

#[test]
fn a_text_that_says_something_else_than_its_figure_is_named() {
    let refused = refusal(&with("/vehicle/wheelbase/text", json!("9000")));
    assert_eq!(refused, "vehicle.wheelbase: “9000” does not read as 3.683 in SI units");
    assert!(refusal(&with("/readings/0/value/unit", json!("mm"))).starts_with("readings[0].value: "));
    assert!(refusal(&with("/readings/0/value/text", json!("tall"))).starts_with("readings[0].value: "));
    // As anybody types the same: 145 in of wheelbase.
    for text in ["145\"", " 145.0 in", "3683 mm"] {
        assert!(JobDocument::read(&with("/vehicle/wheelbase/text", json!(text)).to_string()).is_ok(), "{text}");
    }
}

#[test]
fn a_state_goes_by_one_that_comes_before_it() {
    let refused = refusal(&with("/tape/states/2/load/state", json!("further_2")));
    assert_eq!(refused, "tape.states[2]: it goes by the state “further_2”, which does not come before it");
    assert!(refusal(&with("/tape/states/2/load/state", json!("further_1"))).starts_with("tape.states[2]: "), "nor by itself");
}

#[test]
fn what_is_no_job_of_ours_is_told_apart_from_one_of_a_newer_program() {
    assert_eq!(
        JobDocument::read(&with("/version", json!(VERSION + 1)).to_string()),
        Err(JobDocumentError::NewerVersion(VERSION + 1))
    );
    assert!(refusal(&with("/format", json!("wise-badger/pack"))).contains("its format is “wise-badger/pack”"));
    assert_eq!(JobDocument::read("{"), Err(JobDocumentError::NotJson(1)));
    assert_eq!(JobDocument::read("\u{feff} "), Err(JobDocumentError::Empty));
    assert!(JobDocument::read(&format!("\u{feff}{EXAMPLE}")).is_ok(), "as some editors write it");
    assert!(JobDocument::read(&format!("{EXAMPLE} 1")).is_err(), "something behind it");
    assert_eq!(JobDocument::read(&" ".repeat(LARGEST + 1)), Err(JobDocumentError::TooLarge));
}

#[test]
fn what_cannot_be_is_refused_with_its_place() {
    for (pointer, value, said) in [
        ("/label", json!(" "), "label: a job is called something"),
        ("/vehicle/class", json!("spaceship"), "vehicle.class: “spaceship” is no vehicle class"),
        ("/vehicle/wheelbase/si", json!(0.2), "vehicle: no such vehicle"),
        ("/readings/0/state", json!("further_7"), "readings[0]: the state “further_7” is not among tape.states"),
        ("/readings/0/state", json!("sideways"), "“sideways” is no state of a vehicle"),
        ("/readings/0/value/si", json!(80.0), "readings[0]: 80 in SI units is not what is read there"),
        ("/readings/0/value/si", json!("much"), "readings[0].value.si: invalid type"),
        ("/tape/states/0/state", json!("loaded"), "tape.states: the state “empty” is missing"),
        ("/tape/states/3/state", json!("further_1"), "tape.states[3]: the state “further_1” stands there twice"),
        ("/aim/most", json!(9), "aim.most: it is the place of one of the goals"),
        ("/aim/goals", json!([]), "aim.most: it is the place of one of the goals"),
        ("/tape/points", json!([]), "aim.goals[2]: what it is about is not on tape.points"),
        ("/options/0/parts", json!([]), "options[0].parts: an option has from 1 to 12 parts"),
        ("/options/0/parts/0/correction/kind", json!("jack"), "there is no correction “jack”"),
        ("/options/0/parts/0/correction/thickness/si", json!(2.0), "options[0].parts[0].correction: thickness is from"),
    ] {
        let told = refusal(&with(pointer, value));
        assert!(told.contains(said), "{pointer}: {told}");
    }
    let mut chosen = example();
    chosen["chosen"] = json!(7);
    assert!(refusal(&chosen).contains("chosen: it is the place of one of the options"));
    let mut twice = example();
    let part = twice["options"][0]["parts"][0].clone();
    twice["options"][0]["parts"].as_array_mut().unwrap().push(part);
    assert!(refusal(&twice).contains("options[0].parts[1]: it takes up at one corner what parts[0] does"));
}

#[test]
fn what_was_promised_says_what_it_was_said_from_and_notices_that_it_changed() {
    let case = JobDocument::read(EXAMPLE).unwrap().case();
    let work = Casework::new(case.clone());
    let (heights, promise) = work.promise(0, "the program").unwrap();
    assert_eq!(promise.heights(), heights, "every mark is there");
    assert_eq!(promise.option, case.options[0]);
    assert!(promise.rear_rate.is_some());
    assert!(!work.has_changed_since(&promise));
    let mut another = case.clone();
    another.readings[0].value.text = "36 5/16".to_owned();
    assert!(Casework::new(another).has_changed_since(&promise));
    let mut only_aimed = case;
    only_aimed.aim = None;
    assert!(!Casework::new(only_aimed).has_changed_since(&promise), "an aim has no part in what was worked out");
    let mut written = serde_json::to_value(&promise).unwrap();
    let read = serde_json::from_value(written.clone()).unwrap();
    assert_eq!(promise, read);
    written["inputs"] = Value::Null;
    let old = serde_json::from_value(written).unwrap();
    assert!(!work.has_changed_since(&old), "of what was not recorded nothing is claimed");
}
