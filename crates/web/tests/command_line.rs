//! The `wise-badger` program from a shell.

use std::io::Write;
use std::path::Path;
use std::process::{Command, Output, Stdio};

use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{Role, person, shop};

fn run(arguments: &[&str], input: &str) -> Output {
    let mut program = Command::new(env!("CARGO_BIN_EXE_wise-badger"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .expect("the program starts");
    program.stdin.take().expect("its input").write_all(input.as_bytes()).expect("it reads");
    program.wait_with_output().expect("it ends")
}

fn text(bytes: &[u8]) -> String {
    String::from_utf8_lossy(bytes).into_owned()
}

fn document(name: &str) -> String {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../mechanics/tests/reference/stance");
    folder.join(name).to_str().expect("a plain path").to_owned()
}

#[test]
fn a_stance_document_is_answered_from_a_file_or_standard_input() {
    let path = document("F05_lift_block_2in.json");
    let from_file = run(&["stance", &path], "");
    assert_eq!((from_file.status.code(), text(&from_file.stderr)), (Some(0), String::new()));
    let answer: serde_json::Value = serde_json::from_slice(&from_file.stdout).expect("a JSON document");
    assert_eq!(answer["format"], "wise-badger/stance-result");
    let from_input = run(&["stance", "-"], &std::fs::read_to_string(path).expect("the document"));
    assert_eq!(from_input.stdout, from_file.stdout);
}

#[test]
fn a_pack_document_is_loaded_and_a_spoilt_one_names_its_field() {
    let path = document("../pack/08_truck_overload.json");
    let loaded = run(&["pack", &path], "");
    assert_eq!((loaded.status.code(), text(&loaded.stderr)), (Some(0), String::new()));
    let answer: serde_json::Value = serde_json::from_slice(&loaded.stdout).expect("a JSON document");
    assert_eq!(answer["format"], "wise-badger/pack-result");
    assert_eq!(answer["states"][0]["leaves"][0]["name"], "main");
    let good = std::fs::read_to_string(path).expect("the document");
    let refused = run(&["pack", "-"], &good.replacen("\"thickness_m\": 0.007874", "\"thickness_m\": 0", 1));
    assert_eq!(refused.status.code(), Some(2));
    assert!(text(&refused.stderr).contains("leaves[0].thickness_m: must be above 0"), "{}", text(&refused.stderr));
}

#[test]
fn an_option_is_predicted_on_a_job() {
    let docs = |name: &str| {
        Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/examples").join(name).to_str().expect("plain").to_owned()
    };
    let (job, option) = (docs("job.json"), docs("option.json"));
    let answered = run(&["predict", &job, "--option", &option], "");
    assert_eq!((answered.status.code(), text(&answered.stderr)), (Some(0), String::new()));
    let answer: serde_json::Value = serde_json::from_slice(&answered.stdout).expect("a JSON document");
    assert_eq!((&answer["format"], &answer["states"][0]["state"]), (&"wise-badger/prediction".into(), &"empty".into()));
    let from_input = run(&["predict", "-", "--option", &option], &std::fs::read_to_string(&job).expect("the job"));
    assert_eq!(from_input.stdout, answered.stdout);
    let spoilt = std::fs::read_to_string(&option).expect("the option").replacen("lift_block", "lift_blok", 1);
    let refused = run(&["predict", &job, "--option", "-"], &spoilt);
    assert_eq!(refused.status.code(), Some(2));
    assert!(text(&refused.stderr).contains("there is no correction “lift_blok”"), "{}", text(&refused.stderr));
    assert_eq!(run(&["predict", &job], "").status.code(), Some(2), "an option is asked for");
    let schema: serde_json::Value = serde_json::from_slice(&run(&["predict", "--schema"], "").stdout).expect("a schema");
    assert_eq!(schema["title"], "OptionDocument");
}

#[test]
fn a_readings_document_is_fitted_and_predicted_from() {
    let path = document("../readings/half_ton.json");
    let fitted = run(&["fit", &path], "");
    assert_eq!((fitted.status.code(), text(&fitted.stderr)), (Some(0), String::new()));
    let answer: serde_json::Value = serde_json::from_slice(&fitted.stdout).expect("a JSON document");
    let figure = |pointer: &str| answer.pointer(pointer).and_then(serde_json::Value::as_f64).expect(pointer);
    // By hand: 1,000 lb over 2.6875 in is 372 lb/in, 65.2 kN/m; each spring was believed to have 32.4.
    assert!((figure("/doubts/0/factor") * 2.0 * 32_400.0 / 65_166.0 - 1.0).abs() < 0.005, "{answer}");
    assert_eq!((&answer["doubts"][0]["grade"], &answer["doubts"][1]["grade"]), (&"good".into(), &"too_weak".into()));
    assert!((figure("/predictions/0/heights/0/value_m") / 0.0254 - 20.8125).abs() < 0.02);
    assert!((figure("/predictions/0/heights/0/rise_sd_m")).abs() < 1e-7);
    assert!((figure("/axle_rates/0/rate_n_per_m") / 65_166.0 - 1.0).abs() < 0.01, "{answer}");
    assert!(answer["axle_rates"][0].get("contact_suspected_from_m").is_none());
    // 372·s + 200·(s − 1) = 1,000: helpers leave it at 19.40 in.
    assert!((figure("/predictions/1/heights/0/value_m") / 0.0254 - 19.40).abs() < 0.02);
    let good = std::fs::read_to_string(path).expect("the document");
    for (spoilt, names) in [
        (good.replacen("\"spring_rate\"", "\"spring_rat\"", 1), "doubts[0].what"),
        (good.replacen("\"sd_m\": 0.0012", "\"sd_m\": 0", 1), "precision"),
        (good.replacen("\"state\": \"half of it\"", "\"state\": \"none\"", 1), "predictions[2].state"),
        (good.replacen("\"axle\": \"R\"", "\"axle\": \"T\"", 1), "does not have"),
    ] {
        let answer = run(&["fit", "-"], &spoilt);
        let said = text(&answer.stderr);
        assert_eq!((answer.status.code(), said.trim_end().lines().count()), (Some(2), 1), "{said}");
        assert!(said.contains(names), "{said}");
    }
}

#[test]
fn what_is_not_understood_is_one_sentence_and_exit_2() {
    let good = std::fs::read_to_string(document("F05_lift_block_2in.json")).expect("the document");
    for (input, names) in [
        ("".to_owned(), "document"),
        ("7".to_owned(), "document"),
        (good.replacen("\"version\": 1", "\"version\": 9", 1), "version"),
        (good.replacen("\"position_m\"", "\"position_ft\"", 1), "position_ft"),
        ("x".repeat(1_000_050), "1 MB"),
    ] {
        let answer = run(&["stance", "-"], &input);
        let said = text(&answer.stderr);
        assert_eq!((answer.status.code(), answer.stdout.len()), (Some(2), 0), "{said}");
        assert_eq!(said.trim_end().lines().count(), 1, "{said}");
        assert!(said.contains(names), "{said}");
    }
    let missing = run(&["stance", "/no/such/file.json"], "");
    assert_eq!(missing.status.code(), Some(2));
    assert!(text(&missing.stderr).contains("/no/such/file.json cannot be opened"));
}

#[test]
fn a_link_that_opens_a_shop_is_given_as_often_as_it_is_asked_for() {
    let database = TestDatabase::create();
    let url = database.url();
    let invite = ["invite-shop", "--database-url", &url, "--at", "https://springs.example/"];
    let link = |answer: Output| text(&answer.stdout).lines().last().unwrap_or_default().to_owned();
    let (first, second) = (link(run(&invite, "")), link(run(&invite, "")));
    assert!(first.starts_with("https://springs.example/join?key=") && first.len() > 70, "{first}");
    assert_ne!(first, second);
}

#[test]
fn a_shop_is_named_where_there_are_several() {
    let database = TestDatabase::create();
    let url = database.url();
    let export = ["shelf", "export", "--database-url", &url];
    let said = |answer: Output| text(&answer.stderr);
    assert_eq!(said(run(&export, "")), "wise-badger: the database has no shop yet\n");
    open_shop(&database, "Corner Springs", "Ada");
    assert_eq!(run(&export, "").status.code(), Some(0));
    open_shop(&database, "Corner Springs", "Cy");
    assert!(said(run(&export, "")).contains("say which with --shop WORD"));
    let named = |word: &str| run(&[&export[..], &["--shop", word]].concat(), "");
    assert_eq!(named("corner-springs-2").status.code(), Some(0));
    assert!(said(named("corner")).contains("no shop signs in by “corner”"));
    let reset = |person: &str| run(&["reset-link", "--database-url", &url, "--shop", "corner-springs", "--person", person], "");
    assert!(text(&reset("Ada").stdout).contains("/join?key="));
    assert!(said(reset("Cy")).contains("there is no such person in Corner Springs"));
}

/// A shop with one person who owns it.
fn open_shop(database: &TestDatabase, name: &str, owner: &str) {
    let store = database.open();
    let connection = &mut store.connection().expect("a connection");
    let shop = shop::open(connection, name).expect("a shop");
    person::take_on(connection, shop.id, owner, "Owner", Role::Owner).expect("somebody");
}

#[test]
fn a_taken_port_and_a_silent_database_are_said_plainly() {
    let taken = std::net::TcpListener::bind("127.0.0.1:0").expect("a port");
    let address = taken.local_addr().expect("bound").to_string();
    let answer = run(&["serve", "--database-url", "postgres://127.0.0.1:1/none", "--listen", &address], "");
    assert_eq!(answer.status.code(), Some(1));
    assert!(text(&answer.stderr).contains("choose another port"), "{}", text(&answer.stderr));
    let away = ["serve", "--database-url", "postgres://127.0.0.1:1/none", "--listen", "127.0.0.1:0", "--wait-for-database", "0"];
    let answer = run(&away, "");
    assert!(text(&answer.stderr).contains("the database did not answer within 0 s"), "{}", text(&answer.stderr));
}

#[test]
fn a_job_is_given_out_and_taken_in_again_from_the_shell() {
    let database = TestDatabase::create();
    open_shop(&database, "Shop", "Odalys");
    let example = std::fs::read_to_string(Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/examples/job.json"));
    let example = example.expect("the example");
    let taken = run(&["job", "import", "--database-url", &database.url(), "-"], &example);
    assert_eq!((taken.status.code(), text(&taken.stdout)), (Some(0), "1\n".to_owned()), "{}", text(&taken.stderr));
    let given = run(&["job", "export", "--database-url", &database.url(), "1"], "");
    assert_eq!(given.status.code(), Some(0), "{}", text(&given.stderr));
    let same: [serde_json::Value; 2] =
        [&text(&given.stdout), &example].map(|text| serde_json::from_str(text).expect("a JSON document"));
    assert_eq!(same[0], same[1]);
    let newer =
        run(&["job", "import", "--database-url", &database.url(), "-"], &example.replace("\"version\": 5", "\"version\": 6"));
    assert_eq!(newer.status.code(), Some(2));
    assert!(text(&newer.stderr).contains("this document is of version 6"), "{}", text(&newer.stderr));
    let none = run(&["job", "export", "--database-url", &database.url(), "2"], "");
    assert_eq!(
        (none.status.code(), text(&none.stderr)),
        (Some(2), "wise-badger: there is no such job in this shop\n".to_owned())
    );
    let nobody = run(&["job", "import", "--database-url", &database.url(), "--person", "Nobody", "-"], &example);
    assert_eq!(nobody.status.code(), Some(2));
    let schema = run(&["job", "schema"], "");
    assert!(text(&schema.stdout).contains("\"title\": \"JobDocument\""));
}

#[test]
fn a_reader_that_stops_early_ends_the_program_quietly() {
    let mut program = Command::new(env!("CARGO_BIN_EXE_wise-badger"))
        .args(["job", "schema"])
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .expect("the program starts");
    // Nobody reads a line of it.
    drop(program.stdout.take());
    let ended = program.wait_with_output().expect("it ends");
    assert_eq!((ended.status.code(), text(&ended.stderr)), (Some(0), String::new()));
}
