//! The shop's sums, each by hand.

use reqwest::StatusCode;

use crate::{BLOCK, Page, consider, measured_half_ton, shop};

async fn ask(address: &str) -> Page {
    let (_site, ada) = shop().await;
    ada.get(address).await
}

#[tokio::test]
async fn every_sum_is_listed_and_opens() {
    let (_site, ada) = shop().await;
    let first = ada.get("/sums").await;
    assert_eq!(first.text(".sums-list a[aria-current]"), "Another tire size");
    let links = first.attributes(".sums-list a", "href");
    assert!(links.len() > 15, "{links:?}");
    for link in links {
        let page = ada.get(&link).await;
        assert_eq!((page.status, page.text("h1")), (StatusCode::OK, page.text(".sums-list a[aria-current]")), "{link}");
        // With nothing typed there is something to say at every field, and no answer.
        let empty = ada.get(&format!("{link}?length_unit=in")).await;
        assert_eq!((empty.status, empty.texts(".figure").len()), (StatusCode::UNPROCESSABLE_ENTITY, 0), "{link}");
    }
    assert_eq!(ada.get("/sums/none").await.status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_taller_tyre_moves_two_datums_and_the_speed() {
    let page = ask("/sums/tyre-change?old=245/75R16&new=35x12.50R15LT").await;
    // 773.9 mm and 35 in: the radius gains 17.5 − 15.234 in.
    assert_eq!(page.figure("Diameter now").0, "30.47 in");
    assert_eq!(page.figure("Ground to arch").0, "+2 1/4 in");
    assert_eq!(page.figure("Tire top to arch").0, "−2 1/4 in");
    assert_eq!(page.figure("At 60 shown, the true speed is").0, "68.9");
    let wrong = ask("/sums/tyre-change?old=245/75R16&new=round").await;
    assert!(wrong.text("[role=alert]").contains("round"), "{}", wrong.text("[role=alert]"));
}

#[tokio::test]
async fn frame_driveline_and_bolts_are_worked_out_as_by_hand() {
    let pitch = ask("/sums/pitch?front=0&rear=2&wheelbase=145&screen=25'&behind=40&lamps=0").await;
    // 300 × 2 / 145 = 4.14 in, and 2 × (1 + 40 / 145) = 2.55 in.
    assert_eq!(pitch.figure("Spots move on the screen").0, "4 1/8 in down");
    // Front up 1 in: 300 × 1 / 145 = 2.07 in of tilt, and lamps 24 in ahead come up by 1 + 24 / 145 = 1.17 in; asked as an older link did.
    let front = ask("/sums/pitch?front=1&rear=0&wheelbase=145&screen=25'&behind=0").await;
    let (spots, note, _) = front.figure("Spots move on the screen");
    assert_eq!(spots, "3 1/4 in up");
    assert!(note.contains("2 1/16 in up by the tilt, 1 3/16 in up by the lamp's own rise"), "{note}");
    assert_eq!(pitch.figure("The point comes up by").0, "+2 9/16 in");
    let shaft = ask("/sums/shaft?drop=5&span=57.15&gearbox=3&pinion=1&place=below").await;
    assert_eq!(shaft.figure("Shim for equal joints").0, "2.0°");
    // The shaft comes 4° to the pinion and 2° to the gearbox: the pinion's nose has to come up to meet it.
    assert_eq!(shaft.figure("Shim for equal joints").1, "thin end forward turns the pinion up");
    let clamp = ask("/sums/clamp?torque=100&diameter=9/16&pitch=0.0556&thread=dry&grade=sae8&weight_unit=lb").await;
    // 1,200 lb·in over 0.2 × 0.5625 in.
    assert_eq!(clamp.figure("Clamps with").0, "10,667 lb");
    let stands = ask("/sums/stands?weight=9,000&centre=80&stands=150&uneven=0.4").await;
    assert!(stands.text("[role=alert]").contains("from a half to one"));
}

#[tokio::test]
async fn a_coil_that_binds_and_a_shock_without_droop_ask_to_be_looked_at() {
    let coil = ask("/sums/coil?wire=16 mm&mean=120 mm&active=6&total=7.5&free=400 mm&load=1,000 kg").await;
    // 9,807 N over 62.66 kN/m: 157 mm of 280 used.
    assert_eq!(coil.figure("Rate").0, "358 lb/in");
    assert_eq!(coil.figure("Travel to bind").1, "left before its coils touch");
    // 94 and 62.7 kN/m in series; the softer part binds at 3.383 kN, 383 N past what is on it.
    let dual = ask(
        "/sums/dual-rate-coil?wire=16 mm&mean=120 mm&soft_coils=4&soft_free=100 mm&stiff_coils=6&stiff_free=250 mm&load=305.9 kg",
    )
    .await;
    assert_eq!(dual.figure("Rate at first").0, "215 lb/in");
    assert_eq!(dual.figure("Rate once the softer part has bound").0, "358 lb/in");
    assert_eq!(dual.figure("The softer part binds").0, "+3/8 in");
    let travel = ask("/sums/travel?length=20&closed=15&extended=21&ratio=1&bump=3&raise=2&how=away").await;
    assert_eq!(travel.figure("Droop travel after").0, "−1 in");
    assert_eq!(travel.figure("Bump travel after").0, "5 in");
    assert_eq!(travel.figure("At full droop the wheel hangs lower by").1, "as low as before");
    let strut = ask("/sums/travel?length=20&closed=15&extended=21&ratio=1&bump=3&raise=3&how=strut").await;
    assert_eq!(strut.figure("At full droop the wheel hangs lower by").0, "+3 in");
    assert!(strut.figure("At full droop the wheel hangs lower by").1.contains("half-shafts"));
    let wrong = ask("/sums/travel?length=20&closed=15&extended=21&ratio=one&bump=3&raise=2&how=away").await;
    assert!(wrong.field("ratio").1.contains("is not a number"));
}

#[tokio::test]
async fn a_sum_begins_with_the_job_s_figures_and_its_answer_is_kept_with_the_job() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    consider(&ada, &job, &BLOCK).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let list = ada.get("/sums?job=1").await;
    assert!(list.text("main").contains("job 1"), "{}", list.text("main"));
    let pitch = ada.get("/sums/pitch?job=1").await;
    assert_eq!(["wheelbase", "front", "rear", "screen"].map(|name| pitch.field(name).0), ["145", "0 in", "2 in", "25'"]);
    assert!(pitch.texts("form[action$='/jobs/1/sums']").is_empty(), "there is nothing to keep yet");
    let asked = ada.get("/sums/pitch?job=1&wheelbase=145&front=0&rear=2&screen=25'&lamps=0&behind=0").await;
    let kept = ada.send(&asked.form("form[action$='/jobs/1/sums']")).await;
    assert_eq!(kept.path, "/jobs/1");
    assert!(kept.text(".kept-sums").contains("Spots move on the screen 4 1/8 in down"), "{}", kept.text(".kept-sums"));
    // Kept twice it stands once, is told in the reader's own units, and is written with the job.
    let again = ada
        .send(
            &ada.get("/sums/pitch?job=1&wheelbase=145&front=0&rear=2&screen=25'&lamps=0&behind=0")
                .await
                .form("form[action$='/jobs/1/sums']"),
        )
        .await;
    assert_eq!(again.texts(".kept-sums li").len(), 1);
    let document = ada.client().get(ada.url("/jobs/1/job.json")).send().await.unwrap().text().await.unwrap();
    assert!(document.contains("\"sum\": \"pitch\"") || document.contains("\"sum\":\"pitch\""), "{document}");
    let gone = ada.press("/jobs/1", "/sums/0/drop").await;
    assert!(gone.texts(".kept-sums li").is_empty());
    assert_eq!(ada.get("/sums/pitch?job=99").await.status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_sum_that_the_program_does_not_have_is_said_and_the_one_meant_is_taken_off() {
    let (_site, ada) = shop().await;
    measured_half_ton(&ada).await;
    let document = ada.client().get(ada.url("/jobs/1/job.json")).send().await.unwrap().text().await.unwrap();
    let mut document: serde_json::Value = serde_json::from_str(&document).unwrap();
    let kept = |sum: &str, inputs: serde_json::Value| serde_json::json!({"sum": sum, "length_unit": "in", "weight_unit": "lb", "inputs": inputs});
    let tyres = kept("tyre-change", serde_json::json!({"old": "245/75R16", "new": "265/75R16"}));
    let lacking = kept("frequency", serde_json::json!({"rate": "much"}));
    document["sums"] = serde_json::json!({"sums": [kept("moon-phase", serde_json::json!({})), tyres, lacking]});
    let token = ada.get("/jobs/import").await.form("form[action='/jobs/import']").value("token").to_owned();
    let texts = [("token", token.as_str()), ("act", "open")];
    let opened = ada.send_file_as("document", "/jobs/import", &texts, document.to_string().into_bytes()).await;
    let job = if opened.path == "/jobs/2" { opened } else { ada.get("/jobs/2").await };
    let lines = job.texts(".kept-sums li");
    assert_eq!(lines.len(), 3, "{lines:?}");
    assert!(
        lines[0].contains("no such sum") && lines[1].contains("Ground to arch") && lines[2].contains("no answer"),
        "{lines:?}"
    );
    let left = ada.press("/jobs/2", "/sums/1/drop").await.texts(".kept-sums li");
    assert!(left.len() == 2 && left[0].contains("no such sum") && left[1].contains("no answer"), "{left:?}");
}
