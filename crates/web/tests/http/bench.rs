//! The bench without a script: a pack put in, changed leaf by leaf, taken back, re-arched, and put to the options.

use reqwest::StatusCode;
use serde_json::Value;

use crate::visitor::Form;
use crate::{Page, Site, Visitor, measured_half_ton, open_half_ton, shop};

/// A light truck's pack in inches: radii of 60, 55 and 52 in over a flat overload leaf.
const LEAVES: [[&str; 8]; 4] = [
    ["Main", "2.5", "0.31", "28", "28", "6.414", "", ""],
    ["Second", "2.5", "0.31", "25", "25", "5.583", "", ""],
    ["Third", "2.5", "0.28", "19", "19", "3.433", "", ""],
    ["Overload", "2.5", "0.60", "13", "13", "0", "", "0.25"],
];
const PARTS: [&str; 8] = ["name", "width", "thickness", "front", "rear", "arch", "chord", "spacer"];

pub(crate) fn truck() -> Vec<(String, String)> {
    let rows = LEAVES.iter().enumerate();
    let cells = rows
        .flat_map(|(row, leaf)| PARTS.iter().zip(leaf).map(move |(part, text)| (format!("l{row}_{part}"), (*text).to_owned())));
    cells.chain(["clamp_front", "clamp_rear"].map(|clamp| (clamp.to_owned(), "3".to_owned()))).collect()
}

pub(crate) fn with(form: Form, values: &[(String, String)]) -> Form {
    let values: Vec<(&str, &str)> = values.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
    form.with(&values)
}

/// Puts the truck's pack on the bench of a job, as found.
pub(crate) async fn put_in(visitor: &Visitor, job: &str) -> Page {
    let form = visitor.form(&format!("{job}/bench")).await;
    let page = visitor.send(&with(form, &truck())).await;
    assert_eq!(page.status, StatusCode::OK, "{}", page.text("main"));
    page
}

/// Does something to the planned pack.
pub(crate) async fn act(visitor: &Visitor, job: &str, values: &[(&str, &str)]) -> Page {
    let form = visitor.form(&format!("{job}/bench?pack=planned")).await;
    visitor.send(&form.with(values)).await
}

pub(crate) fn leaves(page: &Page) -> Vec<String> {
    let rows = (0..12).map(|row| page.attributes(&format!("[name='l{row}_name']"), "value").concat());
    rows.filter(|name| !name.is_empty()).collect()
}

pub(crate) async fn document(visitor: &Visitor, path: &str) -> Value {
    let answer = visitor.client().get(visitor.url(path)).send().await.unwrap();
    assert_eq!(answer.status(), StatusCode::OK);
    serde_json::from_str(&answer.text().await.unwrap()).unwrap()
}

#[tokio::test]
async fn a_pack_read_leaf_by_leaf_stands_and_bears_as_worked_out_elsewhere() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let empty = ada.get(&format!("{job}/bench")).await;
    assert!(empty.text(".empty").contains("No pack on the bench yet"), "{}", empty.text("main"));
    put_in(&ada, &job).await;
    // The pack of the mechanics' own tests: 186 lb/in, 1.25 in small-slope under 800 lb, 348 lb/in under 1,600.
    let page = ada.get(&format!("{job}/bench?load=800")).await;
    assert_eq!(page.figure("Rate of one pack").0, "186 lb/in");
    assert!(page.figure("Arch").2.contains("small slopes 1.25 in"), "{}", page.figure("Arch").2);
    let full = ada.get(&format!("{job}/bench?load=1600")).await;
    assert!(full.figure("Rate of one pack").0.starts_with("34"), "{}", full.figure("Rate of one pack").0);
    assert_eq!(page.texts("svg.stance-wide .pack-leaf").len(), 4);
    assert!(page.text("#bench-figures .agreement").contains("The tape made a rear rate of 372 lb/in; these leaves make 37"));
    assert!(page.texts(".disagreement").is_empty(), "what agrees stands folded");
    // Loose, the nip is said; past the model it says so and stops.
    let loose = ada.get(&format!("{job}/bench?load=loose")).await;
    assert!(loose.text("svg.stance-wide").contains("nip"), "{}", loose.text("svg.stance-wide"));
    let exported = document(&ada, &format!("{job}/bench/pack.json?pack=found")).await;
    assert_eq!(exported["format"], "wise-badger/pack");
    assert!((exported["leaves"][0]["curvature_per_m"].as_f64().unwrap() * 60.0 * 0.0254 - 1.0).abs() < 1e-3);
}

/// Leaves that cannot be those of the vehicle that was measured are said to be so before anything is planned on them.
#[tokio::test]
async fn leaves_that_the_tape_speaks_against_are_told_in_the_open() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let few = [("few_count", "4"), ("few_width", "3"), ("few_thickness", "0.5"), ("few_front", "24"), ("few_rear", "24")];
    let page = ada.get(&format!("{job}/bench")).await.form("form[action$='/bench/begin']");
    let page = ada.send(&page.with(&few).with(&[("few_arch", "4")])).await;
    let told = page.text("#bench-heights .disagreement");
    assert!(told.contains("The tape made a rear rate of 372 lb/in") && told.contains("stiffer on paper"), "{told}");
}

#[tokio::test]
async fn a_leaf_goes_in_where_its_length_puts_it_and_every_step_can_be_taken_back() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let added = act(&ada, &job, &[("insert", "yes"), ("kind", "short"), ("at", "")]).await;
    assert_eq!(leaves(&added), ["Main", "Second", "Third", "Add-a-leaf", "Overload"]);
    assert!(added.text("#bench-figures").contains("found 186 lb/in"), "{}", added.text("#bench-figures"));
    let heights = added.texts("#bench-heights .cases td");
    assert_eq!(heights.len(), 4, "empty and loaded, found and planned: {heights:?}");
    assert_eq!(heights[0], "21 1/2 in, measured");
    assert!(heights[1].starts_with("22") || heights[1].starts_with("23"), "it lifts: {heights:?}");
    let turned = act(&ada, &job, &[("up", "3")]).await;
    assert_eq!(leaves(&turned), ["Main", "Second", "Add-a-leaf", "Third", "Overload"]);
    assert_eq!(leaves(&act(&ada, &job, &[("flatter", "yes")]).await)[4], "Flatter overload leaf");
    assert_eq!(leaves(&act(&ada, &job, &[("remove", "3")]).await).len(), 4);
    let step = async |way: &str| {
        let form = ada.get(&format!("{job}/bench?pack=planned")).await.form("form[action$='/bench/step']");
        leaves(&ada.send(&form.with(&[("way", way), ("pack", "planned")])).await)
    };
    assert_eq!(step("back").await[3], "Third");
    assert_eq!(step("back").await[4], "Overload");
    assert_eq!(step("back").await[3], "Add-a-leaf");
    assert_eq!(step("forward").await[2], "Add-a-leaf");
    // A step of its own after going back takes the place of what was gone back from.
    act(&ada, &job, &[("sort", "yes")]).await;
    assert_eq!(step("back").await[2], "Add-a-leaf");
    let found = ada.get(&format!("{job}/bench?pack=found")).await;
    assert_eq!(leaves(&found), ["Main", "Second", "Third", "Overload"], "what was found stays");
    // What would make no pack is not done: a shorter leaf as the main leaf.
    let refused = act(&ada, &job, &[("up", "1")]).await;
    assert!(refused.text(".bench-table .problem").contains("That makes no pack"), "{}", refused.text(".bench-table"));
    // A row left blank between leaves is none of the pack's: the fourth row's leaf is taken out, and not the one after it.
    let blank = PARTS.map(|part| (format!("l1_{part}"), String::new()));
    let blank: Vec<(&str, &str)> = blank.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
    let before = leaves(&ada.get(&format!("{job}/bench?pack=planned")).await);
    let form = ada.form(&format!("{job}/bench?pack=planned")).await;
    let taken_out = leaves(&ada.send(&form.with(&blank).with(&[("remove", "3")])).await);
    assert_eq!(taken_out.len(), before.len() - 2);
    assert!(!taken_out.contains(&before[1]) && !taken_out.contains(&before[3]), "{before:?} became {taken_out:?}");
}

#[tokio::test]
async fn what_no_pack_can_be_is_answered_at_its_field_and_kept() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let form = ada.form(&format!("{job}/bench")).await;
    for (field, text, says) in [
        ("l1_thickness", "0", "A leaf's thickness is between 1/8 in and 2 in"),
        ("l1_thickness", "7.9", "Did you mean 7.9 mm?"),
        ("l0_width", "", "Nothing is typed here"),
        ("l3_front", "29", "Overload reaches past the front eye of the main leaf."),
        ("l3_rear", "2", "The clamp reaches past the rear end of Overload."),
        ("l0_arch", "30", "Main is arched past half its chord."),
        ("l1_chord", "53", "is longer than the leaf itself"),
        ("helper_reach", "20", ""),
        ("l2_front", "many", "“many” is not"),
        ("l2_name", "Second", "Another leaf has this name"),
    ] {
        let mut values = truck();
        values.retain(|(name, _)| name != field);
        values.push((field.to_owned(), text.to_owned()));
        let page = ada.send(&with(form.clone(), &values)).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{field} {text}");
        let at = if field == "helper_reach" { "helper_rate" } else { field };
        let (_, said) = page.field(at);
        assert!(said.contains(says) && !said.is_empty(), "{field} {text}: {said}");
        assert_eq!(page.field("l0_name").0, "Main", "what was typed is kept");
        assert!(ada.get(&format!("{job}/bench")).await.text(".empty").contains("No pack"), "nothing is saved");
    }
}

#[tokio::test]
async fn pack_files_go_out_and_come_in_and_wrong_ones_are_named() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let file = document(&ada, &format!("{job}/bench/pack.json?pack=found")).await;
    let send = async |text: String| {
        let page = ada.get(&format!("{job}/bench")).await;
        let form = page.form("form[action$='/bench/import']");
        let texts = [("token", form.value("token")), ("revision", form.value("revision")), ("pack", "planned")];
        let texts = texts.map(|(name, text)| (name, text.to_owned()));
        let mut parts = reqwest::multipart::Form::new();
        for (name, text) in texts {
            parts = parts.text(name, text);
        }
        let parts = parts.part("file", reqwest::multipart::Part::bytes(text.into_bytes()).file_name("pack.json"));
        let answer = ada.client().post(ada.url(&format!("{job}/bench/import"))).multipart(parts).send().await.unwrap();
        (answer.status(), answer.text().await.unwrap())
    };
    let other_version = file.to_string().replacen("\"version\":1", "\"version\":2", 1);
    let (status, text) = send(other_version).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(text.contains("version: this is version 2"), "{text}");
    let (status, text) = send("a shopping list".to_owned()).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && text.contains("The file was not taken in"), "{text}");
    assert_eq!(send(" ".repeat(1_100_000)).await.0, StatusCode::PAYLOAD_TOO_LARGE);
    let mut thicker = file.clone();
    thicker["leaves"][1]["thickness_m"] = serde_json::json!(0.009);
    thicker["young_modulus_pa"] = serde_json::json!(200e9);
    assert_eq!(send(thicker.to_string()).await.0, StatusCode::OK);
    let back = document(&ada, &format!("{job}/bench/pack.json?pack=planned")).await;
    assert!((back["leaves"][1]["thickness_m"].as_f64().unwrap() - 0.009).abs() < 2e-5);
    assert!((back["young_modulus_pa"].as_f64().unwrap() - 200e9).abs() < 1.0);
    let found = document(&ada, &format!("{job}/bench/pack.json?pack=found")).await;
    assert_eq!(found, file, "what was found stays");
}

#[tokio::test]
async fn a_pack_begun_with_little_is_estimated_and_bent_to_what_the_tape_reads() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let begin = ada.get(&format!("{job}/bench")).await.form("form[action$='/bench/begin']");
    let few = [
        ("few_count", "4"),
        ("few_width", "2.5"),
        ("few_thickness", "5/16"),
        ("few_front", "27"),
        ("few_rear", "29"),
        ("few_arch", "5"),
    ];
    let wrong = ada.send(&begin.clone().with(&few).with(&[("few_count", "2.5")])).await;
    assert!(wrong.field("few_count").1.contains("from 1 to 12 leaves"), "{}", wrong.field("few_count").1);
    let page = ada.send(&begin.with(&few)).await;
    assert_eq!(leaves(&page), ["Main leaf", "Leaf 2", "Leaf 3", "Leaf 4"]);
    assert!(
        page.text("#bench-curve").contains("estimated so that the pack stands as it was read"),
        "{}",
        page.text("#bench-curve")
    );
    let fit = page.form("form[action$='/bench/fit']").with(&[("fit_arch", "1 1/4")]);
    let fitted = ada.send(&fit).await;
    assert_eq!(fitted.figure("Arch").0, "1 1/4 in", "under what it carries empty");
    // Read with the load on, it is bent to stand so under that: 500 lb more on each pack.
    let loaded = fitted.form("form[action$='/bench/fit']").with(&[("fit_arch", "1/8"), ("fit_state", "loaded")]);
    assert_eq!(ada.send(&loaded).await.status, StatusCode::OK);
    assert_eq!(ada.get(&format!("{job}/bench?pack=found&load=1400")).await.figure("Arch").0, "1/8 in");
    let absurd = ada.send(&fitted.form("form[action$='/bench/fit']").with(&[("fit_arch", "40")])).await;
    assert_eq!(absurd.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(absurd.field("fit_arch").1.contains("No arch that these leaves can have"), "{}", absurd.field("fit_arch").1);
}

#[tokio::test]
async fn a_re_arch_gives_every_leaf_its_arch_and_the_sheet_and_templates_follow() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let asked =
        bram.get("/jobs/7/bench/re-arch?state=empty&height=22+1/2&rule=keep_nip&lost=10&rated=100&at_stop=152&yields=174").await;
    assert!(asked.text(".stands").starts_with("22 1/2 in empty at the rear, hub center to arch"), "{}", asked.text("main"));
    assert!(asked.texts(".working .cases td")[1].starts_with("22 1/2 in"), "{:?}", asked.texts(".working .cases td"));
    let wanted = asked.texts(".arches tbody tr");
    assert_eq!(wanted.len(), 7);
    let taken = bram.send(&asked.form("#rearch-form")).await;
    assert_eq!(taken.path, "/jobs/7/bench");
    assert!(taken.texts("#bench-heights .cases td")[1].starts_with("22 1/2 in"), "{:?}", taken.texts("#bench-heights .cases td"));
    // What was asked of steel and setting is the shop's until it is asked otherwise: another job's pack begins with it.
    let again = "/jobs/7/bench/re-arch?state=empty&height=22+3/8&rule=keep_nip&lost=14&rated=97&at_stop=150&yields=170";
    bram.send(&bram.get(again).await.form("#rearch-form")).await;
    put_in(&bram, "/jobs/4").await;
    let begun = bram.get("/jobs/4/bench/re-arch").await;
    assert_eq!((begun.field("lost").0.as_str(), begun.field("rated").0.as_str()), ("14", "97"));
    let sheet = bram.get("/jobs/7/bench/sheet?tube=3.5&plate=1/2&block=&u_bolt=9/16").await;
    assert_eq!(sheet.texts(".arching-leaf h2").len(), 8, "seven leaves, and the bits");
    assert!(sheet.text(".bits").contains("order the next length up"), "{}", sheet.text(".bits"));
    for (file, kind, begins) in [
        ("svg", "image/svg+xml", "<svg"),
        ("dxf", "image/vnd.dxf", "  0\r\nSECTION"),
        ("a4.pdf", "application/pdf", "%PDF-1."),
        ("letter.pdf", "application/pdf", "%PDF-1."),
    ] {
        let answer = bram.client().get(bram.url(&format!("/jobs/7/bench/leaf/0/{file}"))).send().await.unwrap();
        assert_eq!(answer.headers()["content-type"], kind);
        assert!(answer.bytes().await.unwrap().starts_with(begins.as_bytes()), "{file}");
    }
    assert_eq!(bram.get("/jobs/7/bench/leaf/9/svg").await.status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn too_much_is_refused_with_what_to_do_instead() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let path = |height: &str, rated: &str| {
        format!("/jobs/7/bench/re-arch?state=empty&height={height}&rule=keep_nip&lost=10&rated={rated}&at_stop=152&yields=174")
    };
    for (height, rated, says) in [
        ("22", "80", "It needs more rate, not more arch"),
        ("20", "100", "It stands that high already"),
        ("60", "100", "No arch that these leaves can have"),
    ] {
        let page = bram.get(&path(height, rated)).await;
        assert!(page.text(".overload").contains(says) || page.text(".problem").contains(says), "{height}: {}", page.text("main"));
        let forced = bram.send(&page.form("#rearch-form")).await;
        assert_eq!(forced.status, StatusCode::UNPROCESSABLE_ENTITY, "{height}");
    }
    let wrong = bram.get(&path("22", "160")).await;
    assert!(wrong.field("rated").1.contains("less at rated load than at the stop"), "{}", wrong.field("rated").1);
    // A cracked leaf stops the work, whatever is planned.
    bram.fill("/jobs/7/look-over", &[("leaves_grade", "stop"), ("leaves_leaf_cracked", "yes")]).await;
    let bench = bram.get("/jobs/7/bench").await;
    assert!(bench.text(".overload").contains("leaf cracked"), "{}", bench.text(".overload"));
    let refused = act(&bram, "/jobs/7", &[("insert", "yes"), ("kind", "long"), ("at", "")]).await;
    assert!(refused.text(".bench-table .problem").contains("Ruled out by the look-over"), "{}", refused.text(".bench-table"));
    assert_eq!(bram.press("/jobs/7/bench", "/bench/option").await.status, StatusCode::CONFLICT);
    assert!(bram.get(&path("22", "100")).await.text(".overload").contains("Ruled out by the look-over"));
}

#[tokio::test]
async fn work_on_the_bench_is_predicted_chosen_and_held_against_the_proof() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let nothing = ada.get(&format!("{job}/bench")).await.form("form[action$='/bench/step']");
    assert!(nothing.value("token").len() > 10);
    act(&ada, &job, &[("insert", "yes"), ("kind", "short"), ("at", "")]).await;
    let options = ada.press(&format!("{job}/bench"), "/bench/option").await;
    assert_eq!(options.text(".option h3"), "Pack from the bench: Add-a-leaf in");
    let bench = ada.get(&format!("{job}/bench")).await.texts("#bench-heights .cases td summary");
    assert_eq!(options.figure("Rear, loaded").0, bench[1], "the same answer wherever it is asked");
    let proof = ada.press(&format!("{job}/options"), "/choose").await;
    assert!(proof.path.ends_with("/plan") && proof.text("main").contains("Add-a-leaf in"), "{}", proof.text("main"));
}

#[tokio::test]
async fn in_millimetres_and_kilograms_the_same_pack_stands_the_same() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    ada.post(
        "/units",
        &[("length".to_owned(), "mm".to_owned()), ("weight".to_owned(), "kg".to_owned()), ("next".to_owned(), "/".to_owned())],
    )
    .await;
    let page = ada.get(&format!("{job}/bench?load=363")).await;
    assert_eq!(page.figure("Rate of one pack").0, "32.6 N/mm");
    assert_eq!(page.form("form[data-draft]").value("l0_front"), "28 in", "what was typed is kept as typed");
    assert!(page.figure("Hardest worked").0.ends_with("MPa"));
}
