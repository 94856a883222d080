//! A quick answer at the counter, kept as a call, and the job that it becomes.

use reqwest::StatusCode;

use crate::{INTAKE, Page, Visitor, shop};

const CALL: [(&str, &str); 6] = [
    ("class", "half_ton_pickup"),
    ("low", "two"),
    ("when", "loaded"),
    ("thing_toolbox", "yes"),
    ("aboard", "500"),
    ("place", "tail"),
];

async fn answered(ada: &Visitor, values: &[(&str, &str)]) -> Page {
    let form = ada.get("/quick").await.form("#quick-form").with(values);
    ada.post("/quick/preview", form.fields()).await
}

#[tokio::test]
async fn a_call_is_answered_as_it_is_told_and_nothing_is_kept_until_somebody_keeps_it() {
    let (_site, ada) = shop().await;
    let bare = ada.get("/quick").await;
    assert!(bare.text("#quick-answer").contains("Pick what kind of vehicle"), "{}", bare.text("main"));
    let answer = answered(&ada, &CALL).await;
    let said = answer.text("#quick-answer");
    assert!(said.contains("Probably helper springs") && said.contains("some 2 in, give or take 1 in"), "{said}");
    assert!(said.contains("Bring it as it is when it sits low") && said.contains("Nothing of this was measured"), "{said}");
    assert!(said.contains("No part raises a rating"), "{said}");
    let nothing = answered(&ada, &[("class", "van")]).await;
    assert!(nothing.text("#quick-answer").contains("Say how low it sits, or what it carries"), "{}", nothing.text("main"));
    let empty_too = answered(&ada, &[&CALL[..], &[("when", "empty")]].concat()).await;
    assert!(empty_too.text("#quick-answer").contains("Low with nothing aboard"), "{}", empty_too.text("#quick-answer"));
    let over = answered(&ada, &[&CALL[..], &[("rear_rating", "2,500")]].concat()).await;
    let said = over.text("#quick-answer");
    assert!(said.contains("Probably over its rear axle rating") && !said.contains("helper"), "no part is spoken of: {said}");
    for (name, text, wrong) in
        [("aboard", "lots", "“lots”"), ("rear_rating", "12", "between"), ("budget", "some", "no sum of money")]
    {
        let page = answered(&ada, &[&CALL[..], &[(name, text)]].concat()).await;
        assert!(page.text("#quick-answer").contains(wrong), "{name}: {}", page.text("#quick-answer"));
    }
    assert!(ada.get("/").await.texts("#calls li").is_empty());
    // The page is its own address where there is no script.
    let shown = ada.send(&bare.form("#quick-form").with(&CALL).with(&[("act", "show")])).await;
    assert!(shown.text("#quick-answer").contains("Probably helper springs"), "{}", shown.text("main"));
}

#[tokio::test]
async fn a_call_is_kept_changed_struck_off_put_back_and_becomes_a_job() {
    let (_site, ada) = shop().await;
    let form = ada.get("/quick").await.form("#quick-form").with(&CALL);
    let unnamed = ada.send(&form.clone().with(&[("act", "keep")])).await;
    assert_eq!(unnamed.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        unnamed.field("label").1.contains("what it goes by") && unnamed.field("aboard").0 == "500",
        "{}",
        unnamed.text("main")
    );
    let keep = form.with(&[("act", "keep"), ("label", "Orchard half-ton"), ("words", "Drags its hitch")]);
    let yard = ada.send(&keep).await;
    assert!(
        yard.text("#calls").contains("Orchard half-ton") && yard.text("#calls").contains("Drags its hitch"),
        "{}",
        yard.text("main")
    );
    let again = ada.send(&keep).await;
    assert_eq!(again.texts("#calls li").len(), 1, "a second tap keeps it once");
    let call = yard.attributes("#calls a", "href")[0].clone();
    let page = ada.get(&call).await;
    let stale = page.form("#quick-form");
    let changed = ada.send(&page.form("#quick-form").with(&[("act", "keep"), ("low", "three"), ("upkeep", "no")])).await;
    let now = changed.attributes("#calls a", "href")[0].clone();
    assert_ne!(now, call);
    let late = ada.send(&stale.with(&[("act", "keep"), ("words", "late")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert_eq!(late.form("#quick-form").value("words"), "late", "what was typed is still there");
    let struck = ada.send(&ada.get(&now).await.form("form[action$='/withdraw']")).await;
    assert!(struck.texts("#calls li").is_empty() && struck.text("main").contains("struck off"), "{}", struck.text("main"));
    let back = ada.send(&struck.form("form[action$='/restore']")).await;
    assert_eq!(back.texts("#calls li").len(), 1);
    // It comes in: what was told is there, and only what must be read off the vehicle is asked for.
    let new = ada.get(&ada.get(&now).await.attributes(".came-in a", "href")[0]).await;
    assert_eq!(new.field("label").0, "Orchard half-ton");
    let intake = INTAKE.iter().copied().filter(|(name, _)| *name != "label" && *name != "class");
    let open = new.form("form[data-draft][action='/jobs/new']").with(&intake.collect::<Vec<_>>());
    let tape = ada.send(&open).await;
    assert!(tape.path.ends_with("/tape"), "{}: {}", tape.path, tape.text("main"));
    let job = tape.path.trim_end_matches("/tape").to_owned();
    let load = ada.get(&format!("{job}/load")).await.text("main");
    assert!(load.contains("As told by phone") && load.contains("Toolbox, 350 lb, not weighed"), "{load}");
    let asked = ada.get(&format!("{job}/intake")).await;
    assert!(asked.text("main").contains("Drags its hitch"), "{}", asked.text("main"));
    assert!(ada.get("/").await.texts("#calls li").is_empty(), "it is no call any more");
    assert!(ada.get(&now).await.text("main").contains("It came in"));
    let twice = ada.send(&open).await;
    assert_eq!(twice.path, tape.path, "a second tap opens it once");
    assert_eq!(ada.get(&format!("/jobs/new?call={}", now.rsplit('/').next().unwrap())).await.path, job, "it leads to the job");
    for path in ["/quick/0", "/quick/999", "/jobs/new?call=999"] {
        assert_eq!(ada.get(path).await.status, StatusCode::NOT_FOUND, "{path}");
    }
}
