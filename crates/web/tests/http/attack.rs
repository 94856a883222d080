//! What an attack, a lost connection or an odd file does: it is told plainly, nobody else notices, and nothing is lost.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::Duration;

use reqwest::StatusCode;

use crate::{BLOCK, INTAKE, Visitor, measured_half_ton, open_half_ton, shop, tape};

/// Longest that is listened for an answer: what hung before this was mended never came.
const PATIENCE: Duration = Duration::from_secs(20);

/// A pack file with one figure put in the place of the main leaf's thickness.
fn pack_file(thickness: &str, name: &str) -> String {
    format!(
        r#"{{"format":"wise-badger/pack","version":1,"young_modulus_pa":206e9,"clamp":{{"front_m":0.07,"rear_m":0.07}},
        "leaves":[{{"name":"{name}","width_m":0.0635,"thickness_m":{thickness},"front_m":0.7,"rear_m":0.7,"curvature_per_m":0.5}}],
        "loads_n":[0,4000]}}"#
    )
}

async fn import(ada: &Visitor, job: &str, file: &str) -> crate::Page {
    let form = ada.get(&format!("{job}/bench")).await.form("form[action$='/bench/import']");
    let texts: Vec<(&str, &str)> =
        form.fields().iter().filter(|(name, _)| name != "file").map(|(n, v)| (n.as_str(), v.as_str())).collect();
    ada.send_file_as("file", &format!("{job}/bench/import"), &texts, file.as_bytes().to_vec()).await
}

#[tokio::test]
async fn a_pack_file_passes_the_bounds_of_the_form_and_cannot_shut_the_shop() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    for (thickness, name, said) in [
        ("1e308", "Main", "at most 10 m"),
        ("1e9", "Main", "at most 10 m"),
        ("0.5", "Main", "A leaf's thickness is between"),
        ("0.008", &"n".repeat(31), "Keep the name under 30 characters"),
        ("0.008", &"n".repeat(5_000), "longer than 200 characters"),
        ("1e999", "Main", "number out of range"),
    ] {
        let refused = import(&ada, &job, &pack_file(thickness, name)).await;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{thickness} {name}");
        let words = refused.text("main");
        assert!(words.contains("The file was not taken in") && words.contains(said), "{thickness} {name}: {words}");
        assert_eq!(ada.get("/").await.status, StatusCode::OK);
        assert!(ada.get(&format!("{job}/bench")).await.text(".empty").starts_with("No pack on the bench yet"), "nothing stored");
    }
    assert!(import(&ada, &job, &pack_file("0.008", "Main\\u0000 leaf\\u202e")).await.status.is_success());
    assert_eq!(ada.get(&format!("{job}/bench?pack=found")).await.field("l0_name").0, "Main leaf", "cleaned");
}

#[tokio::test]
async fn one_unreadable_record_is_told_by_its_number_and_everything_else_works() {
    let (site, ada) = shop().await;
    let (job, other) = (measured_half_ton(&ada).await, open_half_ton(&ada).await);
    assert!(import(&ada, &job, &pack_file("0.008", "Main leaf")).await.status.is_success());
    site.tell_database("UPDATE job_sheets SET entry = jsonb_set(entry, '{found,leaves,0,thickness,si}', 'null')");
    site.tell_database("DELETE FROM job_standings");
    let yard = ada.get("/").await;
    assert_eq!((yard.status, yard.texts(".job-line").len()), (StatusCode::OK, 2));
    assert_eq!(yard.texts(".job-stands")[1], "This job's record cannot be read");
    for stage in ["", "/tape", "/options", "/history"] {
        let page = ada.get(&format!("{job}{stage}")).await;
        assert_eq!(page.status, StatusCode::INTERNAL_SERVER_ERROR, "{stage}");
        assert_eq!(page.text("h1"), "This job's record cannot be read", "{stage}");
        assert_eq!(page.attributes("main a", "href")[0], "/jobs/1/record.json");
    }
    let record = ada.client().get(ada.url("/jobs/1/record.json")).send().await.unwrap();
    assert_eq!(record.status(), StatusCode::OK);
    let record: serde_json::Value = serde_json::from_str(&record.text().await.unwrap()).unwrap();
    assert_eq!(record["jobs"][0]["label"], "Half-ton by hand");
    assert_eq!(ada.get(&format!("{other}/tape")).await.status, StatusCode::OK);
    assert_eq!(ada.get("/jobs/9/record.json").await.status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn what_is_changed_after_a_lost_answer_is_saved_and_not_taken_for_what_was_sent_before() {
    let (site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/tape");
    let drawn = ada.form(&path).await;
    let first = drawn.clone().with(&tape(["21 5/8", "18 13/16"], "1,000"));
    let changed = drawn.with(&tape(["22", "18 13/16"], "1,000"));
    assert!(ada.send(&first).await.path.ends_with("/verdict"));
    assert!(ada.send(&changed).await.path.ends_with("/verdict"), "the same page, with what was typed since");
    assert_eq!(ada.get(&path).await.field("empty.rear_left.0").0, "22");
    assert!(ada.send(&changed).await.path.ends_with("/verdict"), "and again as before");
    // The first one once more: late, or meant. Whoever sent it is asked, and nothing typed is lost.
    let again = ada.send(&first).await;
    assert_eq!(again.status, StatusCode::CONFLICT);
    assert!(again.text(".refusal").starts_with("You saved this job"), "{}", again.text(".refusal"));
    assert_eq!(again.field("empty.rear_left.0").0, "21 5/8");
    assert_eq!(ada.get(&path).await.field("empty.rear_left.0").0, "22");
    // Somebody saved since: the changed one is a conflict too.
    let bo = Visitor::working(&site.address, "Bo").await;
    let drawn = ada.form(&path).await;
    assert!(ada.send(&drawn.clone().with(&[("empty.rear_left.0", "22 1/8")])).await.status.is_success());
    bo.fill(&path, &[("empty.rear_left.0", "22 1/4")]).await;
    let late = ada.send(&drawn.with(&[("empty.rear_left.0", "22 3/16")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert!(late.text(".refusal").starts_with("Bo saved this job"), "{}", late.text(".refusal"));
}

#[tokio::test]
async fn a_token_of_one_form_saves_another_all_the_same() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let (one, two) = (open_half_ton(&ada).await, open_half_ton(&ada).await);
    let token = ada.form(&format!("{one}/intake")).await.value("token").to_owned();
    for (who, job, label) in [(&ada, &one, "Ada's one"), (&ada, &two, "Ada's two"), (&bo, &one, "Bo's one")] {
        let path = format!("{job}/intake");
        who.fill(&path, &[("token", &token), ("label", label)]).await;
        assert_eq!(who.get(&path).await.field("label").0, label);
    }
}

/// Sends bytes as they are and gives what comes back, up to the end or so long.
fn raw(address: &str, bytes: &[u8], wait: Duration) -> String {
    let mut stream = TcpStream::connect(address.trim_start_matches("http://")).unwrap();
    stream.set_read_timeout(Some(wait)).unwrap();
    stream.write_all(bytes).unwrap();
    let (mut answer, mut chunk) = (Vec::new(), [0; 4096]);
    while let Ok(count @ 1..) = stream.read(&mut chunk) {
        answer.extend_from_slice(&chunk[..count]);
        if answer.windows(7).any(|bytes| bytes == b"</html>") {
            break;
        }
    }
    String::from_utf8_lossy(&answer).into_owned()
}

fn host(address: &str) -> &str {
    address.trim_start_matches("http://")
}

async fn cookie(address: &str) -> String {
    let client = reqwest::Client::builder().no_proxy().redirect(reqwest::redirect::Policy::none()).build().unwrap();
    let answer = client.post(format!("{address}/sign-in/demo")).form(&[("person", "1")]).send().await.unwrap();
    let cookie = answer.headers().get("set-cookie").unwrap().to_str().unwrap();
    cookie.split(';').next().unwrap().to_owned()
}

#[tokio::test]
async fn an_upload_that_ends_without_its_end_is_answered_at_once() {
    let (site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let cookie = cookie(&site.address).await;
    let body = "--x\r\nContent-Disposition: form-data; name=\"photo\"; filename=\"a\"\r\n\r\nhalf a picture";
    let request = format!(
        "POST {job}/photographs HTTP/1.1\r\nHost: {}\r\nCookie: {cookie}\r\nContent-Type: multipart/form-data; boundary=x\r\n\
         Content-Length: {}\r\n\r\n{body}",
        host(&site.address),
        body.len()
    );
    let address = site.address.clone();
    let answer = tokio::task::spawn_blocking(move || raw(&address, request.as_bytes(), PATIENCE)).await.unwrap();
    assert!(answer.starts_with("HTTP/1.1 400"), "{answer}");
}

#[tokio::test]
async fn too_many_parts_and_too_large_files_are_refused() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let many: Vec<(String, String)> = (0..40).map(|number| (format!("n{number}"), "x".to_owned())).collect();
    let many: Vec<(&str, &str)> = many.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
    let path = format!("{job}/photographs");
    assert_eq!(ada.send_file(&path, &many, vec![1]).await.status, StatusCode::BAD_REQUEST);
    let large = ada.send_file(&path, &[], vec![0; 17 * 1024 * 1024]).await;
    assert_eq!(large.status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(large.text("main").contains("over 16 MB"), "{}", large.text("main"));
    let long = ada.send_file(&path, &[("subject", &"x".repeat(9_000))], vec![1]).await;
    assert_eq!(long.status, StatusCode::PAYLOAD_TOO_LARGE);
}

#[tokio::test]
async fn signs_that_no_field_holds_are_cleaned_wherever_they_come_in() {
    let (_site, ada) = shop().await;
    let page =
        ada.fill("/jobs/new", &INTAKE.map(|(name, text)| (name, if name == "label" { "Half\0-ton\u{7}" } else { text }))).await;
    let job = page.path.trim_end_matches("/tape").to_owned();
    assert_eq!(ada.get(&format!("{job}/intake")).await.field("label").0, "Half-ton");
    for path in ["/intake", "/tape", "/look-over", "/load", "/aim", "/drive", "/options", "/bench"] {
        let form = ada.get(&format!("{job}{path}")).await.form("form[data-draft]");
        let names: Vec<String> = form.fields().iter().map(|(name, _)| name.clone()).collect();
        for name in names.iter().filter(|name| !["token", "revision"].contains(&name.as_str())) {
            let answer = ada.send(&form.clone().with(&[(name, "\0\u{8}\u{fffe}")])).await;
            assert!(!answer.status.is_server_error(), "{path} {name}: {}", answer.status);
        }
    }
    let made = import(&ada, &job, &pack_file("0.008", "Main leaf")).await;
    assert!(made.status.is_success());
    let form = ada.get(&format!("{job}/bench?pack=found")).await.form("form[data-draft]");
    let saved = ada.send(&form.with(&[("load", "a\r\nb"), ("l0_name", "Main\u{b}leaf")])).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.text("main"));
    let svg = ada.client().get(ada.url(&format!("{job}/bench/leaf/0/svg"))).send().await.unwrap().text().await.unwrap();
    assert!(!svg.chars().any(|sign| sign.is_control() && sign != '\n'), "{svg}");
}

#[tokio::test]
async fn a_finished_job_is_closed_to_every_form_until_it_is_taken_up_again() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/options"), &BLOCK).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let proof = format!("{job}/proof");
    ada.fill(&proof, &[("empty.rear_left.0", "23 1/2"), ("empty.rear_right.0", "23 1/2")]).await;
    let forms: Vec<(String, crate::visitor::Form)> = {
        let mut forms = Vec::new();
        for path in ["/intake", "/tape", "/look-over", "/load", "/aim", "/drive", "/options", "/proof"] {
            forms.push((path.to_owned(), ada.form(&format!("{job}{path}")).await));
        }
        forms
    };
    assert!(ada.press(&proof, "/finish").await.status.is_success());
    let revision = ada.get(&proof).await.form("form[action$='/reopen']").value("revision").to_owned();
    for (path, form) in forms {
        let typed = [
            ("revision", revision.as_str()),
            ("label", "After"),
            ("route", "mill lane"),
            ("kind", "level_empty"),
            ("tolerance", "1/4"),
        ];
        let answer = ada.send(&form.with(&typed)).await;
        assert!(answer.status.is_client_error(), "{path}: {}", answer.status);
        if answer.status == StatusCode::CONFLICT {
            assert!(answer.text(".refusal").contains("finished, and closed"), "{path}: {}", answer.text(".refusal"));
        }
    }
    assert!(ada.get(&format!("{job}/tape")).await.text(".finished-note").contains("closed to changes"));
    ada.press(&proof, "/reopen").await;
    assert!(ada.fill(&format!("{job}/intake"), &[("label", "Again")]).await.status.is_success());
    let history = ada.get(&format!("{job}/history")).await.text(".events");
    for told in ["finished the job", "took the job up again", "Half-ton by hand", "Again"] {
        assert!(history.contains(told), "{told}: {history}");
    }
}

#[tokio::test]
async fn ratings_changed_over_an_overload_stay_on_record_with_who_and_from_what() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = open_half_ton(&ada).await;
    bo.fill(&format!("{job}/intake"), &[("rear_rating", "4,600")]).await;
    let history = ada.get(&format!("{job}/history")).await;
    let event = history.texts(".events li").into_iter().find(|event| event.contains("changed the vehicle")).unwrap();
    assert!(event.contains("Bo") && event.contains("rear rating 4100 lb 4,600 lb"), "{event}");
}

#[tokio::test]
async fn while_the_records_are_away_it_is_said_and_styles_come_and_it_comes_back_by_itself() {
    let (site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let form = ada.form(&format!("{job}/intake")).await;
    site.shut_database(true);
    for path in ["/", job.as_str(), "/sign-in", "/sums"] {
        let page = ada.get(path).await;
        assert_eq!(page.status, StatusCode::SERVICE_UNAVAILABLE, "{path}");
        assert!(page.text("main").contains("The records cannot be reached; what you typed is still in its form"), "{path}");
    }
    assert_eq!(ada.send(&form).await.status, StatusCode::SERVICE_UNAVAILABLE);
    assert_eq!(ada.get("/static/css/theme.css").await.status, StatusCode::OK, "styles ask no database");
    site.shut_database(false);
    let mut back = false;
    for _ in 0..10 {
        back = back || ada.get("/").await.status == StatusCode::OK;
    }
    assert!(back);
}

#[tokio::test]
async fn a_database_that_takes_no_changes_still_shows_and_says_so_when_saving() {
    let (site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let form = ada.form(&format!("{job}/intake")).await.with(&[("label", "Changed")]);
    site.tell_database("DELETE FROM job_standings");
    site.tell_database(
        "DO $$ BEGIN EXECUTE format('ALTER DATABASE %I SET default_transaction_read_only = on', current_database()); END $$",
    );
    site.shut_database(true);
    site.shut_database(false);
    let mut yard = ada.get("/").await;
    for _ in 0..10 {
        if yard.status == StatusCode::OK {
            break;
        }
        yard = ada.get("/").await;
    }
    assert_eq!((yard.status, yard.texts(".job-line").len()), (StatusCode::OK, 1));
    let answer = ada.send(&form).await;
    assert_eq!(answer.status, StatusCode::SERVICE_UNAVAILABLE);
    assert!(answer.text("main").contains("take no changes"), "{}", answer.text("main"));
}

#[tokio::test]
async fn head_is_answered_as_get_without_a_body() {
    let (_site, ada) = shop().await;
    for path in ["/", "/sums", "/static/css/theme.css", "/sign-in"] {
        let answer = ada.client().head(ada.url(path)).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        assert!(answer.headers().contains_key("permissions-policy"), "{path}");
        assert_eq!(answer.text().await.unwrap(), "", "{path}");
    }
}

#[tokio::test]
async fn a_session_can_be_ended() {
    let (site, ada) = shop().await;
    assert!(ada.get("/sign-in").await.text("main").contains("Ada is signed in here"));
    let cookie = cookie(&site.address).await;
    let client = reqwest::Client::builder().no_proxy().build().unwrap();
    let out = client.post(ada.url("/sign-out")).header("cookie", cookie.clone()).send().await.unwrap();
    assert!(out.url().path() == "/sign-in");
    let used_again = client.get(ada.url("/")).header("cookie", cookie.clone()).send().await.unwrap();
    assert_eq!(used_again.url().path(), "/sign-in", "the key is worth nothing any more");
    let page = ada.press("/sign-in", "/sign-out").await;
    assert_eq!(page.path, "/sign-in");
    assert_eq!(ada.get("/").await.text("h1"), "Sign in");
}

#[tokio::test]
async fn a_host_that_is_not_ours_is_turned_away() {
    let (site, _ada) = shop().await;
    let address = site.address.clone();
    for (name, status) in [("evil.example", "421"), ("localhost", "200"), ("LOCALHOST:99", "200")] {
        let request = format!("GET /sign-in HTTP/1.1\r\nHost: {name}\r\nConnection: close\r\n\r\n");
        let address = address.clone();
        let answer = tokio::task::spawn_blocking(move || raw(&address, request.as_bytes(), PATIENCE)).await.unwrap();
        assert!(answer.starts_with(&format!("HTTP/1.1 {status}")), "{name}: {answer}");
    }
}

#[tokio::test]
async fn the_fullest_page_of_every_kind_can_be_saved() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    // Every field filled to its last sign, in a script of four bytes a sign.
    let long = "\u{20000}".repeat(400);
    for path in ["/look-over", "/tape", "/load", "/intake"] {
        let form = ada.get(&format!("{job}{path}")).await.form("form[data-draft]");
        let filled: Vec<(String, String)> = form
            .fields()
            .iter()
            .filter(|(name, _)| !["token", "revision", "length_unit", "weight_unit"].contains(&name.as_str()))
            .map(|(name, _)| (name.clone(), if name.ends_with("_words") { long.clone() } else { "1".to_owned() }))
            .collect();
        let filled: Vec<(&str, &str)> = filled.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
        let answer = ada.send(&form.with(&filled)).await;
        assert_ne!(answer.status, StatusCode::PAYLOAD_TOO_LARGE, "{path}");
        assert!(!answer.status.is_server_error(), "{path}");
    }
}

/// Lets the server lose its connection the moment a form has been kept: the trigger ends the backend as the transaction commits.
const CUT_AT_COMMIT: &str = "
    CREATE FUNCTION cut() RETURNS TRIGGER LANGUAGE plpgsql AS $$
      BEGIN PERFORM pg_terminate_backend(pg_backend_pid()); PERFORM pg_sleep(1); RETURN NULL; END $$;
    CREATE CONSTRAINT TRIGGER cut AFTER UPDATE ON jobs DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION cut()";

#[tokio::test]
async fn a_connection_cut_while_a_form_is_kept_is_answered_by_what_is_true() {
    let (site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/intake");
    let form = ada.form(&path).await.with(&[("label", "After the cut")]);
    site.tell_database(CUT_AT_COMMIT);
    let answer = ada.send(&form).await;
    assert_eq!(answer.status, StatusCode::SERVICE_UNAVAILABLE);
    assert!(answer.text("main").contains("Nothing was saved"), "{}", answer.text("main"));
    site.tell_database("DROP TRIGGER cut ON jobs");
    assert_eq!(ada.get(&path).await.field("label").0, "Half-ton by hand", "and nothing was");
    assert!(ada.send(&form).await.status.is_success(), "the same sending, once more");
    assert_eq!(ada.get(&path).await.field("label").0, "After the cut");
}
