//! The bench and the vehicle that the pack came from: its load cases, its ratings, its axles, and two people at once.

use std::io::Write;
use std::process::{Command, Stdio};

use reqwest::StatusCode;

use crate::bench::{act, document, leaves, put_in, truck, with};
use crate::{BLOCK, Site, Visitor, consider, measured_half_ton, open_half_ton, shop, tape};

#[tokio::test]
async fn every_load_case_can_be_looked_at_and_is_predicted() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let plan = [
        ("case2_name", "Full"),
        ("i0_name", "Gravel"),
        ("i0_amount", "600"),
        ("i0_of", "weight"),
        ("i0_distance", "0"),
        ("i0_side", "behind"),
        ("i0_case2", "yes"),
    ];
    ada.fill(&format!("{job}/load"), &plan).await;
    let page = ada.get(&format!("{job}/bench")).await;
    // By hand: 2,250 lb empty less 450 of wheels and beam, half of it on each pack; 600 lb over the axle put 300 more on each.
    let picks = page.texts(".bench-load .pick");
    for pick in ["Empty 900", "Loaded 1400", "Full 1200", "Rated 1825"] {
        assert!(picks.iter().any(|there| there == pick), "{pick}: {picks:?}");
    }
    let lines = page.texts("#bench-heights tbody th");
    assert_eq!(lines, ["Empty", "Loaded", "Full"]);
    let full = page.texts("#bench-heights .cases td").pop().unwrap();
    assert!(full.contains("rate as measured 372 lb/in"), "a case opens to its sum: {full}");
}

#[tokio::test]
async fn a_pack_tells_the_rate_where_the_tape_has_not() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "21 1/8"], "150")).await;
    let helper = consider(&ada, &job, &[("kind", "added_leaf"), ("leaf_rate", "100"), ("lift", "1")]).await;
    assert_eq!(helper.figure("Rear, loaded").0, "too weak to say", "{}", helper.text("main"));
    put_in(&ada, &job).await;
    let now = ada.get(&format!("{job}/options")).await;
    assert!(now.figure("Rear, loaded").0.starts_with("22"), "{}", now.figure("Rear, loaded").0);
}

#[tokio::test]
async fn where_a_pack_is_on_the_bench_its_leaves_are_not_typed_beside_it() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let leaf = consider(&ada, &job, &[("kind", "added_leaf"), ("leaf_rate", "100"), ("lift", "1")]).await;
    assert_eq!(leaf.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(leaf.text(".picks .problem").contains("plan this on Bench"), "{}", leaf.text("main"));
    assert_eq!(consider(&ada, &job, &BLOCK).await.status, StatusCode::OK, "what is not of the pack is still typed");
}

#[tokio::test]
async fn over_a_rating_a_pack_is_worked_out_and_nothing_is_put_to_the_options() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    put_in(&bram, "/jobs/2").await;
    let worked = act(&bram, "/jobs/2", &[("insert", "yes"), ("kind", "long"), ("at", "1")]).await;
    assert_eq!(leaves(&worked)[1], "Long add-a-leaf");
    assert!(worked.text(".overload h2").starts_with("Take"), "what comes off is said first: {}", worked.text(".overload"));
    let query = "state=empty&height=42+1/2&rule=keep_nip&lost=10&rated=100&at_stop=152&yields=174";
    let arched = bram.get(&format!("/jobs/2/bench/re-arch?{query}")).await;
    assert!(arched.text(".overload").contains("over a rating"), "{}", arched.text("main"));
    assert!(arched.texts("#rearch-form .btn-primary").is_empty(), "no re-arch is proposed past a rating");
    let refused = bram.press("/jobs/2/bench", "/bench/option").await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(refused.text("main").contains("Weight comes off first"), "{}", refused.text("main"));
}

#[tokio::test]
async fn a_tandem_trailer_has_four_packs_alike() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let begin = bram.get("/jobs/5/bench").await.form("form[action$='/bench/begin']");
    let few = [
        ("few_count", "4"),
        ("few_width", "1 3/4"),
        ("few_thickness", "0.24"),
        ("few_front", "13"),
        ("few_rear", "13"),
        ("few_arch", "3"),
    ];
    let page = bram.send(&begin.with(&few)).await;
    // 2,480 lb on both axles less 2 × 290 of wheels and beams, a quarter on each pack.
    assert!(page.texts(".bench-load .pick").contains(&"Empty 475".to_owned()), "{:?}", page.texts(".bench-load .pick"));
    act(&bram, "/jobs/5", &[("insert", "yes"), ("kind", "short"), ("at", "")]).await;
    let options = bram.press("/jobs/5/bench", "/bench/option").await;
    let (value, note, _) = options.figure("Rear, empty");
    assert!(note.starts_with('+'), "it lifts: {value}, {note}");
}

#[tokio::test]
async fn two_people_at_one_bench_lose_nothing() {
    let (site, ada) = shop().await;
    let bo = Visitor::working(&site.address, "Bo").await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let path = format!("{job}/bench?pack=found");
    let old = ada.form(&path).await.with(&[("l0_arch", "6 1/2")]);
    bo.send(&bo.form(&path).await.with(&[("l0_arch", "6 1/4")])).await;
    let stale = ada.send(&old).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    let (mine, said) = stale.field("l0_arch");
    assert_eq!(mine, "6 1/2");
    assert!(said.contains("On file now: 6 1/4"), "{said}");
    assert_eq!(ada.get(&path).await.field("l0_arch").0, "6 1/4");
    // A step back from a page older than the job takes nothing back.
    let step = ada.get(&path).await.form("form[action$='/bench/step']").with(&[("way", "back")]);
    bo.send(&bo.form(&path).await.with(&[("l1_arch", "5 3/4")])).await;
    assert_eq!(ada.send(&step).await.status, StatusCode::CONFLICT);
    assert_eq!(ada.get(&path).await.field("l1_arch").0, "5 3/4");
    // A leaf that is put in twice by a double tap is there once.
    let twice = ada.form(&format!("{job}/bench?pack=planned")).await.with(&[("insert", "yes"), ("kind", "own"), ("at", "2")]);
    ada.send(&twice).await;
    assert_eq!(leaves(&ada.send(&twice).await), ["Main", "Second", "New leaf", "Third", "Overload"]);
    assert!(ada.get(&format!("{job}/history")).await.text("main").contains("worked on the pack"));
}

#[tokio::test]
async fn while_a_pack_is_typed_the_picture_follows_and_nothing_is_saved() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let path = format!("{job}/bench/preview");
    let asked = async |values: &[(&str, &str)]| {
        let mut fields = truck();
        let plain = [("pack", "found"), ("length_unit", "in"), ("weight_unit", "lb")];
        for (name, text) in plain.iter().chain(values) {
            fields.retain(|(other, _)| other != name);
            fields.push(((*name).to_owned(), (*text).to_owned()));
        }
        ada.post(&path, &fields).await
    };
    let load = asked(&[("part", "load"), ("load", "800")]).await;
    assert_eq!(load.figure("Rate of one pack").0, "186 lb/in");
    assert_eq!(load.texts("#bench-heights").len(), 0, "only what the load changes");
    let thicker = asked(&[("l1_thickness", "0.36"), ("load", "800")]).await;
    assert_ne!(thicker.figure("Rate of one pack").0, "186 lb/in");
    assert_eq!(thicker.texts("#bench-heights").len(), 1);
    assert_eq!(asked(&[("l1_thickness", "0.3.6")]).await.status, StatusCode::NO_CONTENT);
    assert_eq!(ada.get(&format!("{job}/bench?pack=found")).await.field("l1_thickness").0, "0.31");
}

#[tokio::test]
async fn a_helper_over_the_pack_is_set_by_its_tension() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    let plain = ada.get(&format!("{job}/bench?load=900")).await.figure("Arch").0;
    let helper = [("helper_reach", "20"), ("helper_rate", "60"), ("helper_tension", "80"), ("helper_under", "900")];
    let form = ada.form(&format!("{job}/bench?pack=planned")).await;
    let page = ada.send(&form.clone().with(&helper).with(&[("load", "900")])).await;
    assert_eq!(page.figure("Helper's ends").0, "80 lb");
    assert_ne!(page.figure("Arch").0, plain);
    let written = document(&ada, &format!("{job}/bench/pack.json?pack=planned")).await;
    assert!((written["helper"]["tension_n"].as_f64().unwrap() / 4.448_221_615 - 80.0).abs() < 0.1);
    let past = ada.send(&form.with(&helper).with(&[("helper_reach", "29")])).await;
    assert!(past.field("helper_reach").1.contains("before the eyes"), "{}", past.field("helper_reach").1);
}

fn told_by(program: &str, arguments: &[&str], file: &[u8]) -> String {
    let mut reader = Command::new(program).args(arguments).stdin(Stdio::piped()).stdout(Stdio::piped()).spawn().unwrap();
    reader.stdin.take().unwrap().write_all(file).unwrap();
    String::from_utf8_lossy(&reader.wait_with_output().unwrap().stdout).into_owned()
}

/// Read back by poppler: the sheets, their size, and what stands on each.
#[tokio::test]
async fn a_template_on_paper_has_its_check_bar_on_every_sheet() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    for (file, size) in [("a4.pdf", "841.89 x 595.276 pts (A4)"), ("letter.pdf", "792 x 612 pts (letter)")] {
        let answer = bram.client().get(bram.url(&format!("/jobs/7/bench/leaf/0/{file}"))).send().await.unwrap();
        let bytes = answer.bytes().await.unwrap();
        let told = told_by("pdfinfo", &["-"], &bytes);
        assert!(told.contains(size), "{told}");
        // 58 in of leaf, 56.8 of chord: six sheets lying, each but the last showing some 263 mm (245 of Letter) of new leaf.
        let words = told_by("pdftotext", &["-layout", "-", "-"], &bytes);
        assert_eq!(words.matches("4 in: print at 100%").count(), 6, "{told}");
        assert_eq!(words.matches("Job 7, leaf 1: Main leaf, as it is pressed").count(), 6, "{words}");
        assert!(words.contains("Sheet 6 of 6"), "{words}");
    }
    let metric = Visitor::working(&site.address, "Ines").await;
    metric
        .post(
            "/units",
            &[
                ("length".to_owned(), "mm".to_owned()),
                ("weight".to_owned(), "kg".to_owned()),
                ("next".to_owned(), "/".to_owned()),
            ],
        )
        .await;
    let sheet = metric.get("/jobs/7/bench/sheet").await;
    assert!(sheet.texts(".offsets thead th").contains(&"F 50".to_owned()), "{:?}", sheet.texts(".offsets thead th"));
    let answer = metric.client().get(metric.url("/jobs/7/bench/leaf/0/svg?of=found")).send().await.unwrap().text().await.unwrap();
    assert!(answer.contains("100 mm: check with a rule") && answer.contains("as found"), "{answer}");
    let no_such = metric.get("/jobs/7/bench/leaf/3/svg?of=found").await;
    assert_eq!(no_such.status, StatusCode::NOT_FOUND, "a leaf that is new was not found");
}

#[tokio::test]
async fn where_there_is_no_pack_everything_that_needs_one_says_so() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    for path in ["/bench/re-arch", "/bench/sheet", "/bench/leaf/0/svg"] {
        let page = ada.get(&format!("{job}{path}")).await;
        assert_eq!(page.status, StatusCode::CONFLICT, "{path}");
        assert!(page.text("main").contains("no pack on the bench yet"), "{path}: {}", page.text("main"));
    }
    assert_eq!(ada.get(&format!("{job}/bench/pack.json")).await.status, StatusCode::NOT_FOUND);
    let blank = ada.send(&ada.form(&format!("{job}/bench")).await).await;
    assert!(blank.field("l0_name").1.contains("one leaf or more"), "{}", blank.field("l0_name").1);
    // Before anything is on Tape a pack can be worked on, and no height of the vehicle is made up.
    let page = put_in(&ada, &job).await;
    assert_eq!(page.texts("#bench-heights tbody th").len(), 0);
    let asked = ada
        .get(&format!("{job}/bench/re-arch?state=empty&height=22&rule=keep_nip&lost=10&rated=100&at_stop=152&yields=174"))
        .await;
    assert!(asked.text(".problem").contains("not on Tape yet"), "{}", asked.text("main"));
    let one = with(ada.form(&format!("{job}/bench?pack=planned")).await, &[]);
    for row in ["3", "2", "1"] {
        act(&ada, &job, &[("remove", row)]).await;
    }
    let last = act(&ada, &job, &[("remove", "0")]).await;
    assert!(last.text(".bench-table .problem").contains("keeps one leaf"), "{}", last.text(".bench-table"));
    assert_eq!(one.value("l3_name"), "Overload");
}

#[tokio::test]
async fn past_flat_by_too_much_it_says_outside_the_model_and_stops() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let form = ada.form(&format!("{job}/bench")).await;
    let weak = [
        ("l0_name", "Main"),
        ("l0_width", "2.5"),
        ("l0_thickness", "0.25"),
        ("l0_front", "28"),
        ("l0_rear", "28"),
        ("l0_arch", "3"),
    ];
    ada.send(&form.with(&weak)).await;
    // A single leaf of this size stands flat under some 60 lb: what this pickup carries empty, 900 lb on a pack, is past anything.
    let page = ada.get(&format!("{job}/bench?load=900")).await;
    assert_eq!(page.figure("Arch").0, "outside the model");
    assert!(page.text("svg.stance-wide").contains("outside the model"), "{}", page.text("svg.stance-wide"));
    assert!(page.text("main").contains("softer on paper"), "{}", page.text("#bench-heights"));
    act(&ada, &job, &[("l0_arch", "4")]).await;
    let heights = ada.get(&format!("{job}/bench")).await.texts("#bench-heights .cases td");
    assert_eq!((heights[1].as_str(), heights[3].as_str()), ("outside the model", "outside the model"));
    let asked = ada
        .get(&format!("{job}/bench/re-arch?state=empty&height=22&rule=keep_nip&lost=10&rated=100&at_stop=152&yields=174"))
        .await;
    assert!(asked.text(".problem").contains("outside the model under what it carries empty"), "{}", asked.text("main"));
    assert!(asked.texts("#rearch-form .btn-primary").is_empty(), "nothing to take into the plan");
}

/// Whatever stands in the fields, the bench answers: with a picture, or with what is wrong, and never with a fault of its own.
#[tokio::test]
async fn no_figure_that_is_typed_brings_the_bench_down() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    put_in(&ada, &job).await;
    const ODD: [&str; 16] = [
        "",
        "0",
        "-1",
        "1e9",
        "nan",
        "∞",
        "60",
        "0.001",
        "3/0",
        "1 1/",
        "½",
        "999999",
        "12 mm",
        "2 ft",
        "<b>",
        "0.1999999999999999999",
    ];
    let fields = [
        "l0_arch",
        "l0_thickness",
        "l1_front",
        "l1_rear",
        "l1_arch",
        "l2_chord",
        "l2_width",
        "l3_spacer",
        "l3_arch",
        "clamp_front",
        "clamp_rear",
        "pack_arch",
        "helper_reach",
        "helper_rate",
        "helper_tension",
        "helper_under",
        "l5_name",
        "load",
        "young_modulus_pa",
    ];
    let form = ada.form(&format!("{job}/bench?pack=planned")).await;
    // A plain congruential generator: the same spoilt forms in every run.
    let mut seed: u32 = 20_261_125;
    let mut next = |below: usize| {
        seed = seed.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
        usize::try_from(seed >> 8).unwrap() % below
    };
    let mut taken = 0;
    for _ in 0..120 {
        let spoilt: Vec<(&str, &str)> = (0..1 + next(3)).map(|_| (fields[next(fields.len())], ODD[next(ODD.len())])).collect();
        let form = form.clone().with(&spoilt);
        let previewed = ada.post(&format!("{job}/bench/preview"), form.fields()).await;
        assert!(matches!(previewed.status, StatusCode::OK | StatusCode::NO_CONTENT), "{spoilt:?}: {}", previewed.status);
        if previewed.status == StatusCode::OK {
            let shown = previewed.text("#bench-at-load");
            assert!(!shown.contains("NaN") && !shown.contains("inf"), "{spoilt:?}: {shown}");
            taken += 1;
        }
    }
    assert!(taken > 10 && taken < 110, "{taken} of 120 made a pack");
    for (field, odd) in
        [("l0_arch", "∞"), ("load", "1e9"), ("kind", "anvil"), ("at", "99"), ("insert", "yes"), ("up", "4000"), ("remove", "-3")]
    {
        let saved = ada.send(&ada.form(&format!("{job}/bench?pack=planned")).await.with(&[(field, odd)])).await;
        assert!(!saved.status.is_server_error(), "{field} {odd}: {}", saved.status);
    }
    for query in [
        "?pack=anvil&load=nan",
        "?load=-5",
        "?load=1e300",
        "/re-arch?height=nan&rule=9",
        "/re-arch?state=loaded&height=1e9",
        "/sheet?tube=nan&u_bolt=-1",
        "/leaf/0/exe",
    ] {
        let page = ada.get(&format!("{job}/bench{query}")).await;
        assert!(!page.status.is_server_error(), "{query}: {}", page.status);
    }
}
