//! The plan of the work: where its parts are, what comes on top, what stands carry, what it costs, and the estimate that is signed.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{Page, Visitor, measured_half_ton, shop};

/// A half-ton with a block chosen, and the address of the job.
async fn chosen() -> (Site, Visitor, String) {
    let (site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/options"), &[("kind", "lift_block"), ("thickness", "1 3/4")]).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    (site, ada, job)
}

async fn save(ada: &Visitor, job: &str, values: &[(&str, &str)]) -> Page {
    let path = format!("{job}/plan");
    let form = ada.get(&path).await.form("#plan-form");
    ada.send(&form.with(values)).await
}

fn head(page: &Page, what: &str) -> (String, String) {
    let (names, all) = (page.texts(".plan-heads dt"), page.texts(".plan-heads dd"));
    let place = names.iter().position(|name| name == what).expect("it is on the page");
    (all[2 * place].clone(), all[2 * place + 1].clone())
}

#[tokio::test]
async fn without_a_choice_there_is_nothing_to_plan_and_on_a_failed_part_no_work() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let page = ada.get(&format!("{job}/plan")).await;
    assert!(page.text(".empty").contains("Nothing is chosen") && page.texts("#plan-form").is_empty());
    let (_site, ada, job) = chosen().await;
    let look_over = ada.get(&format!("{job}/look-over")).await.form("form[action$='/look-over']");
    ada.send(&look_over.with(&[("leaves_grade", "stop"), ("leaves_cracked_leaf", "yes")])).await;
    let cracked = ada.get(&format!("{job}/plan")).await;
    assert!(cracked.texts("#plan-form").is_empty() && !cracked.text(".missing").is_empty());
    assert_eq!(ada.get(&format!("{job}/estimate")).await.status, StatusCode::CONFLICT);
}

#[tokio::test]
async fn what_was_said_of_parts_and_of_the_work_stands_and_changes_days_and_hours() {
    let (_site, ada, job) = chosen().await;
    let before = ada.get(&format!("{job}/plan")).await;
    assert!(head(&before, "Done").0.starts_with("not before "), "{:?}", head(&before, "Done"));
    let values = [
        ("supply.part.option.0.stands", "on_the_shelf"),
        ("supply.part.option.0.price", "90"),
        ("supply.part.used.u_bolts.stands", "ordered"),
        ("supply.part.used.u_bolts.due", "2031-03-05"),
        ("supply.part.used.u_bolts.price", "64.50"),
        ("rust", "heavy"),
        ("two_people", "yes"),
        ("u_bolt_thread", "9/16-18"),
    ];
    let saved = save(&ada, &job, &values).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.text("main"));
    for (name, text) in &values[..5] {
        let stands = if name.ends_with("stands") { saved.form("#plan-form").value(name).to_owned() } else { saved.field(name).0 };
        assert_eq!(stands, *text, "{name}");
    }
    let (done, note) = head(&saved, "Done");
    assert!(!done.starts_with("not before") && note.contains("Soaked the evening before"), "{done}: {note}");
    assert!(done.contains("Mar "), "{done}");
    assert!(head(&saved, "Cost").0.contains("154.50 for parts"), "{}", head(&saved, "Cost").0);
    assert_ne!(head(&saved, "Work").0, head(&before, "Work").0);
    let card = ada.get(&format!("{job}/wrench")).await;
    assert!(card.text("[data-step='part.used.u_bolts']").contains("9/16-18"), "the card says what to look for");
    let history = ada.get(&format!("{job}/history")).await;
    assert!(history.text("main").contains("wrote the plan of the work"));
}

#[tokio::test]
async fn what_is_on_top_has_a_price_and_an_answer_before_the_job_is_finished() {
    let (_site, ada, job) = chosen().await;
    let asked = save(&ada, &job, &[("propose", "hoses")]).await;
    assert_eq!(asked.field("extra0_what").0, "New brake hoses, while their brackets are off");
    let card = ada.get(&format!("{job}/wrench")).await;
    assert!(card.text(".wrench-card .problem").contains("New brake hoses"), "{}", card.text(".wrench-card .problem"));
    assert!(card.texts("[data-step='rear.left.hose_off']").is_empty(), "nobody agreed to it yet");
    let waiting = |card: &Page| card.texts("[data-waits~='card.customer']").len();
    assert!(waiting(&card) > 0 && card.text(".wrench-step .problem").contains("waits here for the customer"));
    let no_price = save(&ada, &job, &[("extra0_agreed", "yes"), ("extra0_by", "owner, by telephone")]).await;
    assert_eq!(no_price.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(no_price.field("extra0_price").1.contains("agrees to a price"));
    let nobody = save(&ada, &job, &[("extra0_agreed", "no")]).await;
    assert!(nobody.field("extra0_by").1.contains("Who said so"));
    let path = format!("{job}/proof");
    ada.fill(&path, &crate::walk(["20 1/2", "20 1/2"], ["23 1/4", "20 9/16"])).await;
    let early = ada.press(&path, "/finish").await;
    assert_eq!(early.status, StatusCode::CONFLICT);
    assert!(early.text("main").contains("yes or no"), "{}", early.text("main"));
    let agreed =
        save(&ada, &job, &[("extra0_agreed", "yes"), ("extra0_price", "60"), ("extra0_by", "owner, by telephone")]).await;
    assert_eq!(agreed.status, StatusCode::OK, "{}", agreed.text(".problem"));
    let card = ada.get(&format!("{job}/wrench")).await;
    assert_eq!(waiting(&card), 0);
    assert!(!card.texts("[data-step='rear.left.hose_off']").is_empty() && !card.texts("[data-step='rear.bled']").is_empty());
    save(&ada, &job, &[("extra1_what", "Rear shocks"), ("extra1_price", "180"), ("extra1_agreed", "no"), ("extra1_by", "owner")])
        .await;
    let sheet = ada.get(&format!("{job}/handover")).await.text("main");
    assert!(sheet.contains("Rear shocks") && sheet.contains("Advised and declined"), "{sheet}");
}

#[tokio::test]
async fn stands_too_small_are_said_to_be_in_the_units_of_whoever_reads() {
    let (_site, ada, job) = chosen().await;
    let little = save(&ada, &job, &[("raised", "floor"), ("stand_rating", "1500")]).await;
    assert!(little.text("#plan-form .problem").contains("Too little: take heavier stands"), "{}", little.text("#plan-form"));
    let enough = save(&ada, &job, &[("stand_rating", "12000"), ("of_the_pair", "yes")]).await;
    assert!(enough.texts("#plan-form .problem").is_empty() && enough.text("#plan-form .within").contains("6,000 lb"));
    let none = save(&ada, &job, &[("stand_rating", "3")]).await;
    assert_eq!(none.status, StatusCode::UNPROCESSABLE_ENTITY);
    // What somebody typed that makes no sense is answered at its field, and nothing of it is kept.
    let bad = [("supply.part.option.0.due", "soon"), ("supply.part.option.0.price", "a lot"), ("quoted_hours", "-2")];
    let refused = save(&ada, &job, &bad).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    for (name, text) in bad {
        let (typed, said) = refused.field(name);
        assert!(typed == text && !said.is_empty(), "{name}: {typed} {said}");
    }
    assert_eq!(ada.get(&format!("{job}/plan")).await.field("quoted_hours").0, "");
}

#[tokio::test]
async fn what_an_hour_costs_counts_on_every_job_and_no_odd_figure_is_taken() {
    let (_site, ada, job) = chosen().await;
    save(&ada, &job, &[("quoted_hours", "4"), ("supply.part.option.0.price", "100"), ("supply.part.used.u_bolts.price", "50")])
        .await;
    let terms = |page: &Page| page.form("form[action$='/plan/terms']");
    let page = ada.get(&format!("{job}/plan")).await;
    let kept = ada.send(&terms(&page).with(&[("hourly", "120"), ("tax_on_parts", "10"), ("tax_on_work", "0")])).await;
    // 150 and a tenth of it, and four hours.
    assert!(head(&kept, "Cost").0.ends_with("645"), "{}", head(&kept, "Cost").0);
    for (name, text) in [("tax_on_parts", "95"), ("hours_a_day", "0"), ("hourly", "a bit"), ("hours_a_day", "x")] {
        let page = ada.get(&format!("{job}/plan")).await;
        let refused = ada.send(&terms(&page).with(&[(name, text)])).await;
        assert!(refused.status.is_client_error(), "{name} {text}: {}", refused.status);
    }
    let other = measured_half_ton(&ada).await;
    ada.fill(&format!("{other}/options"), &[("kind", "lift_block"), ("thickness", "1")]).await;
    ada.press(&format!("{other}/options"), "/choose").await;
    assert_eq!(ada.get(&format!("{other}/plan")).await.field("hourly").0, "120");
}

/// What was signed stays, word for word, with its strokes; what was changed meanwhile is not signed unseen.
#[tokio::test]
async fn an_estimate_is_signed_as_it_was_shown_and_never_changed() {
    let (_site, ada, job) = chosen().await;
    save(&ada, &job, &[("quoted_hours", "4"), ("supply.part.option.0.price", "100")]).await;
    let path = format!("{job}/estimate");
    let shown = ada.get(&path).await;
    let form = shown.form("form.sign");
    let nameless = ada.send(&form.clone()).await;
    assert!(nameless.status.is_client_error() && nameless.text("main").contains("name of whoever signs"));
    let scribble = ada.send(&form.clone().with(&[("signed_by", "A. Owner"), ("drawn", "M 1 1 <script>")])).await;
    assert_eq!(scribble.status, StatusCode::BAD_REQUEST);
    let signed = ada.send(&form.with(&[("signed_by", "A. Owner"), ("drawn", "M 20 80 L 60 40 L 90 95")])).await;
    assert!(signed.text(".signed").contains("Signed by A. Owner"), "{}", signed.text("main"));
    assert_eq!(signed.attributes(".signature path", "d"), ["M 20 80 L 60 40 L 90 95"]);
    assert!(signed.texts(".signed details").is_empty(), "what was signed is what stands there");
    let stale = signed.form("form.sign");
    save(&ada, &job, &[("supply.part.option.0.price", "150")]).await;
    let refused = ada.send(&stale.with(&[("signed_by", "A. Owner")])).await;
    assert!(refused.status.is_client_error() && refused.text("main").contains("something else by now"));
    let later = ada.get(&path).await;
    assert_eq!(later.texts(".signed").len(), 1);
    assert!(later.text(".signed details").contains("100"), "the first price is still to be read");
    let file = ada.client().get(ada.url(&format!("{path}.pdf"))).send().await.unwrap();
    assert_eq!(file.headers()["content-type"], "application/pdf");
    assert!(file.bytes().await.unwrap().starts_with(b"%PDF-"));
    let document = ada.get(&format!("{job}/job.json")).await.text("body");
    assert!(document.contains("\"signed_by\"") && document.contains("A. Owner"), "it goes along with the job");
}
