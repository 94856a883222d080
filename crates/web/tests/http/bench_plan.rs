//! Plans on the bench: what was estimated stays as it was, the overload leaf is marked, and the steel is held against every plan.

use reqwest::StatusCode;

use crate::bench::{act, leaves, put_in};
use crate::visitor::Form;
use crate::{Page, Visitor, measured_half_ton, open_half_ton, shop, tape};

/// A pack of which little is known: count, section, halves and arch.
async fn begun(visitor: &Visitor, job: &str) -> Page {
    let begin = visitor.get(&format!("{job}/bench")).await.form("form[action$='/bench/begin']");
    let few = [
        ("few_count", "4"),
        ("few_width", "3"),
        ("few_thickness", "0.325"),
        ("few_front", "27"),
        ("few_rear", "31"),
        ("few_arch", "5"),
    ];
    visitor.send(&begin.with(&few)).await
}

fn bench_form(page: &Page) -> Form {
    page.form("#bench-form")
}

/// The rise of the arch with no load, found and planned, as the sum of the planned height tells it.
fn arches(page: &Page) -> (f64, f64) {
    let sum = page.text("#bench-heights");
    let told = sum.split("arch with no load: found ").nth(1).expect("the sum tells both").to_owned();
    let number = |text: &str| text.split_whitespace().next().and_then(|text| text.parse().ok()).expect("a number");
    (number(&told), number(told.split("planned ").nth(1).expect("both")))
}

#[tokio::test]
async fn a_leaf_put_in_beside_the_pack_found_goes_into_the_plan_and_lifts() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let found = begun(&ada, &job).await;
    assert_eq!(found.text(".bench-tabs [aria-current]"), "As found");
    let planned = ada.send(&bench_form(&found).with(&[("insert", "yes"), ("kind", "long")])).await;
    assert_eq!(planned.text(".bench-tabs [aria-current]"), "As planned");
    assert_eq!(leaves(&planned), ["Main leaf", "Long add-a-leaf", "Leaf 2", "Leaf 3", "Leaf 4"]);
    assert_eq!(planned.field("l2_thickness").0, "", "what was not read stays so");
    assert_eq!(leaves(&ada.get(&format!("{job}/bench?pack=found")).await).len(), 4, "and was never in the pack that came in");
    let (before, after) = arches(&planned);
    assert!(after > before, "it lifts: {before} to {after}");
    // On the sheet for the press no leaf that was there is touched, and every row begins at the bolt.
    let sheet = ada.get(&format!("{job}/bench/sheet")).await;
    let heads = sheet.texts(".offsets thead tr");
    assert!(heads.iter().all(|head| head.contains("half bolt ")), "{heads:?}");
    let rows = sheet.texts(".offsets tbody tr");
    let offsets = |row: &String| row.split_whitespace().skip(2).map(str::to_owned).collect::<Vec<_>>();
    let touched = rows.chunks(3).filter(|rows| rows[0].starts_with("as found"));
    for rows in touched {
        assert_eq!(offsets(&rows[0]), offsets(&rows[2]), "nobody bends it: {rows:?}");
    }
}

#[tokio::test]
async fn the_leaf_marked_as_the_overload_leaf_is_exchanged_and_what_is_lost_with_it_is_said() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let page = begun(&ada, &job).await;
    let unmarked = ada.send(&bench_form(&page).with(&[("flatter", "yes")])).await;
    assert_eq!(unmarked.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(unmarked.text("#bench-form > .problem").contains("Say below the leaves which it is"), "{}", unmarked.text("main"));
    let page = ada.send(&bench_form(&page).with(&[("overload", "3")])).await;
    assert_eq!(bench_form(&page).value("overload"), "3");
    assert!(page.text("#bench-curve").contains("Leaf 4 is taken as flat"), "{}", page.text("#bench-curve"));
    let page = ada.send(&bench_form(&page).with(&[("flatter", "yes")])).await;
    assert_eq!(leaves(&page), ["Main leaf", "Leaf 2", "Leaf 3", "Flatter overload leaf"]);
    let steel = page.texts(".steel .doubt");
    assert!(steel.iter().any(|words| words.contains("holds up less") && words.contains("(Rated)")), "{steel:?}");
    let options = ada.press(&format!("{job}/bench"), "/bench/option").await;
    assert!(options.text(".option .steel").contains("holds up less"), "{}", options.text(".option"));
    // A leaf renamed where it was found is the same leaf in the plan.
    let found = ada.form(&format!("{job}/bench?pack=found")).await;
    ada.send(&found.with(&[("l1_name", "Second")])).await;
    let planned = ada.get(&format!("{job}/bench?pack=planned")).await;
    assert_eq!(leaves(&planned), ["Main leaf", "Second", "Leaf 3", "Flatter overload leaf"]);
}

/// A half-ton light enough for the truck's pack: some 1,000 lb on each spring under rated load.
async fn light_half_ton(visitor: &Visitor) -> String {
    let job = open_half_ton(visitor).await;
    visitor.fill(&format!("{job}/intake"), &[("rear_rating", "2450"), ("kerb_front", "2600"), ("kerb_rear", "1400")]).await;
    visitor.fill(&format!("{job}/tape"), &tape(["21 1/2", "20"], "500")).await;
    job
}

#[tokio::test]
async fn a_plan_whose_leaf_would_yield_is_not_taken_and_one_past_the_allowable_is_told_first() {
    let (_site, ada) = shop().await;
    let job = light_half_ton(&ada).await;
    put_in(&ada, &job).await;
    act(&ada, &job, &[("insert", "yes"), ("kind", "short"), ("at", "3")]).await;
    // A short leaf of far too much arch.
    let bold = act(&ada, &job, &[("l3_arch", "6 1/2")]).await;
    let steel = bold.text(".steel .problem");
    assert!(steel.starts_with("Add-a-leaf ") && steel.contains("of where it yields under rated load"), "{steel}");
    let refused = ada.press(&format!("{job}/bench"), "/bench/option").await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.text("main").contains("The plan is not taken"), "{}", refused.text("main"));
    assert!(ada.get(&format!("{job}/options")).await.texts(".option").is_empty());
    // Less of it is past the allowable only: taken, and told before it is chosen.
    act(&ada, &job, &[("l3_arch", "3 3/4")]).await;
    let options = ada.press(&format!("{job}/bench"), "/bench/option").await;
    assert_eq!(options.status, StatusCode::OK, "{}", options.text("main"));
    let told = options.text(".option .steel .doubt");
    assert!(told.contains("Add-a-leaf") && told.contains("of what it may be asked under rated load"), "{told}");
    let page = options.text(".option");
    let (told, choose) = (page.find("of what it may be asked"), page.find("Choose this one"));
    assert!(told.is_some() && told < choose, "before the choice: {page}");
}
