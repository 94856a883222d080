//! Who may do what: every address, for every role, and over the edge of a shop.

use reqwest::StatusCode;
use wise_badger_store::{Role, person, shop};
use wise_badger_web::{ADDRESSES, Address, Right};

use crate::{Site, Visitor};

/// A path of an address, with a job of the demo shop and what is on it.
fn path_of(address: &Address) -> String {
    let filled = [("{number}", "11"), ("{sum}", "shim"), ("{form}", "svg")];
    let path = filled.iter().fold(address.path.to_owned(), |path, (from, to)| path.replace(from, to));
    path.split('/').map(|part| if part.starts_with('{') { "1" } else { part }).collect::<Vec<_>>().join("/")
}

async fn status(visitor: &Visitor, address: &Address) -> StatusCode {
    let url = visitor.url(&path_of(address));
    let client = visitor.client();
    let request = if address.method == "GET" { client.get(url) } else { client.post(url).form(&[("nothing", "sensible")]) };
    request.send().await.unwrap().status()
}

#[tokio::test]
async fn every_address_lets_through_whoever_its_row_says_and_nobody_else() {
    let site = Site::demo();
    for (name, role) in [("Odalys", Role::Lead), ("Bram", Role::Technician), ("Ines", Role::Desk), ("Tuck", Role::Apprentice)] {
        let visitor = Visitor::working(&site.address, name).await;
        for address in ADDRESSES.iter().filter(|address| !address.path.starts_with("/sign-") && !address.path.ends_with("/stop"))
        {
            let answered = status(&visitor, address).await;
            let barred = answered == StatusCode::FORBIDDEN;
            assert_eq!(barred, !address.right.is_of(role), "{name}: {} {} answered {answered}", address.method, address.path);
        }
    }
}

#[tokio::test]
async fn nobody_gets_in_anywhere_without_signing_in() {
    let site = Site::demo();
    let nobody = reqwest::Client::builder().no_proxy().redirect(reqwest::redirect::Policy::none()).build().unwrap();
    for address in ADDRESSES.iter().filter(|address| address.right != Right::Open) {
        let url = format!("{}{}", site.address, path_of(address));
        let request = if address.method == "GET" { nobody.get(url) } else { nobody.post(url).form(&[("a", "b")]) };
        let answer = request.send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::SEE_OTHER, "{} {}", address.method, address.path);
        let to = answer.headers().get("location").unwrap().to_str().unwrap();
        assert!(to.starts_with("/sign-in?next="), "{} {}: {to}", address.method, address.path);
    }
}

/// The rows of a shop, all of them, as text.
fn rows(site: &Site, shop: i64) -> Vec<String> {
    let tables = ["jobs", "readings", "job_sheets", "corrections", "fittings", "photographs", "shelf_parts", "calls", "papers"];
    let more = ["wrench_ticks", "people", "tablets", "job_changes", "shop_changes", "invitations"];
    let mut all = Vec::new();
    for table in tables.iter().chain(&more) {
        all.extend(site.ask_database(&format!("SELECT '{table} ' || t::text AS line FROM {table} t WHERE shop_id = {shop}")));
    }
    all.sort();
    all
}

#[tokio::test]
async fn nobody_sees_or_changes_a_row_of_another_shop_by_any_address() {
    let site = Site::demo();
    let store = site.open_again();
    // Where jobs stand is gathered before, so that it is not taken for a change.
    let bram = Visitor::working(&site.address, "Bram").await;
    for path in ["/", "/?finished=true"] {
        bram.get(path).await;
    }
    // The stranger is at home in the demo shop's place: one press signs them in, and the made-up shop is the other one.
    let connection = &mut store.connection().unwrap();
    let demo = shop::demo(connection).unwrap().unwrap();
    let own = shop::open_demo(connection, "Nosy neighbors").unwrap();
    person::take_on(connection, own.id, "Cy", "Owner", Role::Owner).unwrap();
    site.tell_database(&format!("UPDATE shops SET demo = (id = {})", own.id.0));
    let before = rows(&site, demo.id.0);
    assert!(before.len() > 200, "{}", before.len());
    let cy = Visitor::working(&site.address, "Cy").await;
    let secret = ["Grounds crew", "Millrace", "Odalys", "Mobile clinic", "Bram"];
    // A stream tells nothing while nothing happens; what it tells is tried by itself.
    for address in ADDRESSES.iter().filter(|address| !address.path.starts_with("/sign-") && address.path != "/events") {
        for number in ["1", "2", "7", "11"] {
            let path: Vec<&str> = address.path.split('/').map(|part| if part.starts_with('{') { number } else { part }).collect();
            let url = cy.url(&path.join("/"));
            let fields = [("person", number), ("role", "desk"), ("trade", "x"), ("reason", "x"), ("name", "x"), ("key", number)];
            let request = if address.method == "GET" { cy.client().get(url) } else { cy.client().post(url).form(&fields) };
            let answer = request.send().await.unwrap();
            let status = answer.status();
            let body = answer.text().await.unwrap_or_default();
            for word in secret {
                assert!(!body.contains(word), "{} {} with {number} tells “{word}”", address.method, address.path);
            }
            assert!(!status.is_server_error(), "{} {} with {number}: {status}", address.method, address.path);
            if address.path.contains('{') && address.method == "GET" && !address.path.starts_with("/sums") {
                assert!(status.is_client_error(), "{} {} with {number}: {status}", address.method, address.path);
            }
        }
    }
    assert_eq!(rows(&site, demo.id.0), before);
}

#[tokio::test]
async fn whoever_may_only_look_is_told_before_they_type() {
    let site = Site::demo();
    let (ines, tuck) = (Visitor::working(&site.address, "Ines").await, Visitor::working(&site.address, "Tuck").await);
    let tape = ines.get("/jobs/1/tape").await;
    assert_eq!(
        tape.text(".look-only"),
        "You can look at this page, and not save it. Only an owner, lead, technician or apprentice may put down what is measured."
    );
    assert!(tuck.get("/jobs/1/tape").await.texts(".look-only").is_empty());
    assert!(tuck.get("/jobs/4/aim").await.text(".look-only").contains("Only an owner, lead or technician may set aims"));
    let refused = tuck.post("/jobs/4/options/none", &[]).await;
    assert_eq!(refused.status, StatusCode::FORBIDDEN);
    assert!(
        refused
            .text("main")
            .contains("Only an owner, lead or technician may set aims and choose corrections. Nothing was saved.")
    );
    assert!(tuck.get("/people").await.texts("form[action^='/people']").is_empty(), "nothing to press that is not theirs");
    let me = tuck.get("/me").await;
    assert!(me.text(".may").contains("✓ tick the wrench card") && me.text(".may").contains("– not: release a job"));
}

#[tokio::test]
async fn a_cut_takes_the_word_of_a_lead_whoever_ticks() {
    let site = Site::demo();
    let tick = |key: &str, note: &str| {
        [("key", key), ("step", "rear.nothing_cut"), ("answer", "yes"), ("note", note)]
            .map(|(name, text)| (name.to_owned(), text.to_owned()))
    };
    let (bram, odalys) = (Visitor::working(&site.address, "Bram").await, Visitor::working(&site.address, "Odalys").await);
    let path = "/jobs/11/wrench/ticks";
    let refused = bram.post(path, &tick("tick-000001", "trimmed the fender lip")).await;
    assert_eq!(refused.status, StatusCode::FORBIDDEN);
    assert!(refused.text("main").contains("Only an owner or lead may say yes to a cut"), "{}", refused.text("main"));
    assert_eq!(bram.post(path, &tick("tick-000002", "")).await.status, StatusCode::OK, "nothing cut is his to say");
    assert_eq!(odalys.post(path, &tick("tick-000003", "trimmed the fender lip")).await.status, StatusCode::OK);
    let begun = [("key", "tick-000004"), ("step", "parts_checked"), ("answer", "yes"), ("note", "the bolts come at noon")];
    let begun = begun.map(|(name, text)| (name.to_owned(), text.to_owned()));
    assert_eq!(bram.post(path, &begun).await.status, StatusCode::FORBIDDEN, "nor that work begins while parts are missing");
}
