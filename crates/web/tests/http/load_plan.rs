//! The load plan without a script: put aboard, taken off, refused, saved, and what it does to the verdict.

use reqwest::StatusCode;

use crate::{Site, Visitor, open_half_ton, shop, walk};

/// A row of the plan as its form takes it.
fn row<'a>(names: &'a [String; 5], values: [&'a str; 5]) -> Vec<(&'a str, &'a str)> {
    names.iter().map(String::as_str).zip(values).collect()
}

fn names(row: usize) -> [String; 5] {
    ["name", "amount", "distance", "side", "case1"].map(|part| format!("i{row}_{part}"))
}

#[tokio::test]
async fn the_shelf_fills_a_row_and_the_axles_follow() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/load");
    let with_tongue = ada.fill(&path, &[("add", "tongue"), ("shown", "1")]).await;
    assert_eq!(with_tongue.status, StatusCode::OK);
    assert_eq!(with_tongue.form("#load-form").value("i0_amount"), "500");
    assert_eq!(with_tongue.form("#load-form").value("i0_hitch"), "yes");
    // What was put aboard is on record before anything else is done.
    assert!(ada.get(&path).await.texts(".item summary")[0].contains("Trailer tongue, 500 lb, not weighed"));
    let saved = ada.send(&with_tongue.form("#load-form").with(&[("i0_distance", "50"), ("shown", "1")])).await;
    // By hand: 500 × 195/145 = 672 lb on 2,250; 172 lb off the front.
    assert_eq!(saved.figure("Rear axle, loaded").0, "2,922 lb");
    assert_eq!(saved.figure("Front axle lightened by").0, "172 lb");
    let taken_off = ada.fill(&path, &[("take_off", "0")]).await;
    assert_eq!(taken_off.form("#load-form").value("i0_name"), "");
    assert!(ada.get(&path).await.texts(".item summary")[0].contains("Something else"), "and off the record with it");
}

#[tokio::test]
async fn a_tongue_goes_into_the_case_in_which_something_is_towed() {
    let (_site, ada) = shop().await;
    let path = format!("{}/load", open_half_ton(&ada).await);
    let aboard = |page: &crate::Page| {
        let form = page.form("#load-form");
        (1..5).filter(|case| form.value(&format!("i0_case{case}")) == "yes").collect::<Vec<_>>()
    };
    let usual = ada.fill(&path, &[("add", "tongue"), ("shown", "1")]).await;
    assert_eq!(aboard(&usual), [3], "“Towing”, though the usual case was looked at");
    ada.fill(&path, &[("take_off", "0")]).await;
    let own = ada
        .fill(&path, &[("case3_name", "Horse trailer"), ("case4_name", "Towing the boat"), ("add", "tongue"), ("shown", "4")])
        .await;
    assert_eq!(aboard(&own), [4], "looked at, and it says so itself");
    ada.fill(&path, &[("take_off", "0")]).await;
    let none = [("case3_name", ""), ("case4_name", ""), ("add", "tongue"), ("shown", "2")];
    assert_eq!(aboard(&ada.fill(&path, &none).await), [2], "nothing is towed by name");
}

#[tokio::test]
async fn a_row_beside_one_that_cannot_be_read_is_shown_and_not_saved() {
    let (_site, ada) = shop().await;
    let path = format!("{}/load", open_half_ton(&ada).await);
    let half = ada.fill(&path, &[("i0_name", "Gravel"), ("i0_amount", "heaps"), ("add", "toolbox"), ("shown", "1")]).await;
    let form = half.form("#load-form");
    assert_eq!((form.value("i0_amount"), form.value("i1_name")), ("heaps", "Toolbox"));
    assert!(half.texts(".refusal").is_empty(), "nothing was sent yet");
    assert_eq!(ada.get(&path).await.form("#load-form").value("i0_name"), "");
}

#[tokio::test]
async fn a_case_takes_in_another_and_never_itself() {
    let (_site, ada) = shop().await;
    let path = format!("{}/load", open_half_ton(&ada).await);
    let (first, second) = (names(0), names(1));
    let mut plan = row(&first, ["Gravel", "700", "0", "behind", "yes"]);
    plan.extend([("i1_name", "Water"), ("i1_amount", "300"), ("i1_distance", "0"), ("i1_side", "behind"), ("i1_case2", "yes")]);
    plan.extend([("case2_with", "1"), ("shown", "2")]);
    assert!(second[0].starts_with("i1"));
    let full = ada.fill(&path, &plan).await;
    assert!(full.path.ends_with("/load"), "{}", full.text("main"));
    // By hand: 2,250 lb, 700 lb of the usual case and 300 lb of its own.
    let line = full.texts(".cases tbody tr").into_iter().find(|line| line.starts_with("Full")).unwrap();
    assert!(line.contains("3,250 lb"), "{line}");
    let ring = ada.fill(&path, &[("case1_with", "2")]).await;
    assert_eq!(ring.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(ring.text(".fields-case .problem").contains("cannot take in itself"), "{}", ring.text(".fields-case"));
    let gone = ada.fill(&path, &[("case1_name", ""), ("i0_case1", "")]).await;
    assert!(gone.texts(".fields-case .problem").join(" ").contains("has no name any more"), "{}", gone.text(".fields-case"));
}

#[tokio::test]
async fn a_row_put_on_an_old_page_does_not_write_over_what_another_saved() {
    let (site, ada) = shop().await;
    let path = format!("{}/load", open_half_ton(&ada).await);
    let bo = Visitor::working(&site.address, "Bo").await;
    let old = bo.get(&path).await.form("#load-form");
    let names = names(0);
    ada.fill(&path, &row(&names, ["Gravel", "700", "0", "behind", "yes"])).await;
    let late = bo.send(&old.with(&[("add", "toolbox"), ("shown", "1")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert!(late.text(".refusal").contains("Ada"), "{}", late.text(".refusal"));
    assert!(ada.get(&path).await.texts(".item summary")[0].contains("Gravel"));
}

#[tokio::test]
async fn a_case_of_the_plan_stands_for_what_was_put_on() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let (first, second) = (names(0), names(1));
    let mut plan = row(&first, ["Gravel", "700", "0", "behind", "yes"]);
    plan.extend(row(&second, ["Water", "36", "0", "behind", "yes"]));
    plan.push(("i1_of", "water"));
    let saved = ada.fill(&format!("{job}/load"), &plan).await;
    // 36 US gallons weigh 300.4 lb.
    assert_eq!(saved.figure("Rear axle, loaded").0, "3,250 lb");
    let mut tape = vec![("datum", "hub_to_arch"), ("load_kind", "planned"), ("load_case", "1")];
    tape.extend(walk(["20 1/2", "20 1/2"], ["21 1/2", "18 13/16"]));
    let verdict = ada.fill(&format!("{job}/tape"), &tape).await;
    assert_eq!(verdict.figure("Rear axle rate, both springs").0, "372 lb/in");
    assert!(verdict.figure("Rear axle, loaded").2.contains("Gravel: 700 lb × (145.00 in + 0.00 in) / 145.00 in = 700 lb"));
    // Overloaded, the thing to take off is named.
    ada.fill(&format!("{job}/intake"), &[("kerb_front", "3,000"), ("kerb_rear", "2,250")]).await;
    let heavy = ada.fill(&format!("{job}/load"), &[("i0_amount", "1,900"), ("shown", "1")]).await;
    assert_eq!(heavy.text(".overload h2"), "Take off 360 lb of the gravel.");
}

#[tokio::test]
async fn what_cannot_be_aboard_is_refused_and_kept_as_typed() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let first = names(0);
    for (values, field, said) in [
        (["Anvil", "-5", "0", "behind", "yes"], "i0_amount", "below zero"),
        (["Anvil", "200", "400", "behind", "yes"], "i0_distance", "off the vehicle"),
        (["", "200", "10", "behind", "yes"], "i0_name", "Say what it is"),
    ] {
        let refused = ada.fill(&format!("{job}/load"), &row(&first, values)).await;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{field}");
        assert!(refused.field(field).1.contains(said), "{field}: {:?}", refused.field(field));
        assert!(refused.text(".missing").contains("left out"), "{field}");
    }
}

#[tokio::test]
async fn a_scale_counts_for_more_than_the_plan_and_one_read_in_kilograms_is_asked_about() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/load");
    ada.fill(&format!("{job}/intake"), &[("kerb_rear", "2,200"), ("kerb_front", "3,000")]).await;
    let first = names(0);
    let mut plan = row(&first, ["Anvil", "1,000", "0", "behind", "yes"]);
    plan.push(("case1_rear", "1,450"));
    let asked = ada.fill(&path, &plan).await;
    assert!(asked.field("case1_rear").1.contains("Did you mean 1,450 kg?"), "{:?}", asked.field("case1_rear"));
    plan.push(("case1_rear", "3,380 lb"));
    let weighed = ada.fill(&path, &plan).await;
    assert_eq!(weighed.figure("Rear axle, loaded").0, "3,380 lb");
    let (difference, note, _) = weighed.figure("Scale against plan, rear axle");
    assert_eq!(difference, "+180 lb");
    assert!(note.contains("more is aboard than the plan says"), "{note}");
}

#[tokio::test]
async fn two_people_planning_at_once_both_keep_what_they_typed() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/load");
    let first = names(0);
    let hers = ada.get(&path).await.form("#load-form").with(&row(&first, ["Anvil", "200", "10", "behind", "yes"]));
    bo.fill(&path, &row(&first, ["Vise", "90", "20", "ahead", "yes"])).await;
    let stale = ada.send(&hers).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    assert!(stale.text(".refusal").contains("Bo saved this job"));
    assert_eq!(stale.form("#load-form").value("i0_name"), "Anvil");
    assert!(stale.field("i0_name").1.contains("On file now: Vise"), "{:?}", stale.field("i0_name"));
}

#[tokio::test]
async fn the_demo_water_tank_is_predicted_in_every_case() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let cases = bram.get("/jobs/6/load").await.texts(".cases tbody tr");
    assert_eq!(cases.len(), 4, "{cases:?}");
    assert!(cases[1].contains("37 5/16 in, measured"), "{cases:?}");
    assert!(cases[2].contains('±') && cases[3].contains('±'), "{cases:?}");
}

#[tokio::test]
async fn a_case_that_something_else_speaks_of_is_not_taken_off_under_it() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let path = format!("{job}/load");
    let first = names(0);
    let mut plan = row(&first, ["Gravel", "700", "0", "behind", "yes"]);
    plan.push(("i0_case2", "yes"));
    ada.fill(&path, &plan).await;
    let form = ada.get(&path).await;
    let cases = ["case1_name", "case2_name"].map(|name| form.field(name).0);
    let off = async |key: u8, words: &str| {
        let name = format!("case{key}_name");
        let refused = ada.fill(&path, &[(name.as_str(), ""), ("shown", "1")]).await;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{words}");
        let told = refused.field(&name).1;
        assert!(told.contains(words) && told.contains(&cases[usize::from(key) - 1]), "{told}");
    };
    let mut tape = vec![("datum", "hub_to_arch"), ("load_kind", "planned"), ("load_case", "1")];
    tape.extend(walk(["20 1/2", "20 1/2"], ["21 1/2", "18 13/16"]));
    ada.fill(&format!("{job}/tape"), &tape).await;
    off(1, "The tape speaks of").await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("share_case_2", "20")])).await;
    off(2, "The shares of the time speak of").await;
    let goal = [
        ("kind", "level_loaded"),
        ("rake", "0"),
        ("tolerance", "1/2"),
        ("goal.0.mark", "rear"),
        ("goal.0.when", "case_2"),
        ("goal.0.way", "at_least"),
        ("goal.0.height", "19"),
        ("goal.0.tolerance", "1/4"),
    ];
    let aim = ada.fill(&format!("{job}/aim"), &goal).await;
    assert_eq!(aim.status, StatusCode::OK, "{}", aim.text("main"));
    off(2, "The aim speaks of").await;
    let renamed = ada.fill(&path, &[("case2_name", "Another name"), ("shown", "1")]).await;
    assert_eq!(renamed.status, StatusCode::OK, "a case may be called otherwise");
}
