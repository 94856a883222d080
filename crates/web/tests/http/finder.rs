//! Find options: what the shelf has for a job, side by side and in a list, why not the others, and what leads before any spring.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{Page, Visitor, measured_half_ton, shop};

const RUBBER: [(&str, &str); 9] = [
    ("number", "RB 7"),
    ("name", "rubbers"),
    ("kind", "rubber_by_capacity"),
    ("rubber_capacity", "2,000"),
    ("rubber_height", "5"),
    ("price", "120"),
    ("hours", "0.5"),
    ("in_stock", "2"),
    ("rubber_clearance", "1/2"),
];

async fn put(ada: &Visitor, values: &[(&str, &str)]) {
    let form = ada.get("/shelf/new").await.form("form[action='/shelf/new']");
    let put = ada.send(&form.with(values)).await;
    assert_eq!(put.status, StatusCode::OK, "{:?}", put.texts(".problem"));
}

/// A half-ton that sags, a shelf with something for it, and the job's address.
async fn ready() -> (Site, Visitor, String) {
    let (site, ada) = shop().await;
    put(&ada, &RUBBER).await;
    put(
        &ada,
        &[
            ("number", "BL-2"),
            ("name", "blocks"),
            ("kind", "lift_block"),
            ("thickness", "1 3/4"),
            ("price", "58"),
            ("hours", "1.5"),
        ],
    )
    .await;
    put(&ada, &[("number", "CO-1"), ("name", "coils"), ("kind", "new_coils"), ("coils_lift", "2"), ("coils_added_rate", "0")])
        .await;
    let job = measured_half_ton(&ada).await;
    (site, ada, job)
}

async fn aimed(ada: &Visitor, job: &str) -> Page {
    ada.fill(&format!("{job}/aim"), &[("kind", "level_loaded"), ("rake", "0"), ("tolerance", "1/2")]).await;
    ada.get(&format!("{job}/finder")).await
}

#[tokio::test]
async fn without_an_aim_it_says_so_and_proposes_nothing() {
    let (_site, ada, job) = ready().await;
    let page = ada.get(&format!("{job}/finder")).await;
    assert!(page.text(".leads").contains("No aim is set"), "{}", page.text("main"));
    assert!(page.texts(".finder-columns th").is_empty() && page.texts(".finder-list tr").is_empty());
}

#[tokio::test]
async fn the_best_stand_side_by_side_with_the_same_rows_and_one_goes_onto_the_list_as_it_was_shown() {
    let (_site, ada, job) = ready().await;
    let page = aimed(&ada, &job).await;
    let heads = page.texts(".finder-columns thead th");
    assert!(heads.iter().any(|head| head.contains("Lift block, 1 3/4 in")), "{heads:?}");
    assert!(heads.iter().all(|head| !head.contains("Coils")), "coils do not go onto leaves: {heads:?}");
    let rows = page.texts(".finder-columns tbody th");
    for row in ["Chance", "Rear, empty", "Rear, loaded", "Ride, empty", "Upkeep", "Parts", "To the customer"] {
        assert!(rows.iter().any(|there| there == row), "no {row}: {rows:?}");
    }
    assert!(page.text(".to-customer").contains("It raises no rating"));
    let cautions = page.text("main");
    assert!(cautions.find("It adds no capacity").unwrap() < cautions.find("Chance").unwrap(), "cautions come before the choice");
    // The first is put on the list, and Options says the same height of it.
    let loaded = page.texts(".finder-columns tbody tr").into_iter().find(|row| row.starts_with("Rear, loaded")).unwrap();
    let name = heads[0].trim_start_matches('1').trim().to_owned();
    let kept = ada.send(&page.form(".finder-columns form")).await;
    assert_eq!(kept.status, StatusCode::OK, "{}", kept.text("main"));
    let shown = kept.text(".option h3");
    assert!(name.starts_with(&shown), "{name}: {shown}");
    let height = loaded.trim_start_matches("Rear, loaded").trim().split(" ±").next().unwrap().to_owned();
    assert!(kept.text("main").contains(&height), "{height}: {}", kept.text("main"));
}

/// Somebody takes the part off the shelf while it is looked at: what is not there any more is not put on the list.
#[tokio::test]
async fn an_option_that_is_not_found_any_more_is_not_put_on_the_list() {
    let (_site, ada, job) = ready().await;
    let page = aimed(&ada, &job).await;
    let forms: Vec<_> = page.texts(".finder-columns thead th");
    assert!(!forms.is_empty());
    let form = page.form(".finder-columns form");
    // The aim is changed meanwhile, so that nothing found for the old one is found again as it was.
    ada.fill(&format!("{job}/aim"), &[("kind", "stock_height"), ("rear", "21 1/2"), ("tolerance", "1/8")]).await;
    let refused = ada.send(&form).await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(refused.text("main").contains("look again"), "{}", refused.text("main"));
    let options = ada.get(&format!("{job}/options")).await;
    assert!(options.texts(".considered li").is_empty(), "nothing is half stored");
}

#[tokio::test]
async fn the_list_is_sorted_by_what_is_asked_and_weights_of_nonsense_are_as_usual() {
    let (_site, ada, job) = ready().await;
    aimed(&ada, &job).await;
    let by_price = ada.get(&format!("{job}/finder?sort=price")).await;
    let prices: Vec<f64> = by_price
        .texts(".finder-list tbody tr")
        .iter()
        .filter_map(|row| row.split("US$").nth(1)?.split_whitespace().next()?.replace(',', "").parse().ok())
        .collect();
    assert!(prices.len() >= 2 && prices.windows(2).all(|pair| pair[0] <= pair[1]), "{prices:?}");
    assert_eq!(by_price.attributes(".finder-list th[aria-sort]", "aria-sort"), ["ascending"]);
    let nonsense = ada.get(&format!("{job}/finder?price=lots&aim=-5&sort=beauty")).await;
    assert_eq!(nonsense.status, StatusCode::OK);
    assert_eq!(nonsense.field("price").0, "10", "{}", nonsense.text(".weights"));
}

#[tokio::test]
async fn over_a_rating_it_leads_with_the_weight_and_keeps_nothing() {
    let (_site, ada, job) = ready().await;
    let form = aimed(&ada, &job).await.form(".finder-columns form");
    ada.fill(&format!("{job}/tape"), &[("load_weight", "2900")]).await;
    let page = ada.get(&format!("{job}/finder")).await;
    assert!(page.text(".leads").contains("over a rating"), "{}", page.text("main"));
    assert!(page.texts(".finder-columns th").is_empty());
    assert_eq!(ada.send(&form).await.status, StatusCode::CONFLICT);
}

/// A block that is there: another is not put on it, and that stands under why not.
#[tokio::test]
async fn what_is_refused_stands_under_why_not_by_its_rule() {
    let (_site, ada, job) = ready().await;
    aimed(&ada, &job).await;
    let noted = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&noted.with(&[("done_rear_block", "yes"), ("done_rear_block_size", "1 1/4")])).await;
    let page = ada.get(&format!("{job}/finder")).await;
    assert!(page.text(".why-not").contains("never put on another"), "{}", page.text("main"));
    assert!(page.texts(".finder-list strong").iter().all(|name| !name.contains("Lift block, 1 3/4 in")));
}

#[tokio::test]
async fn the_list_is_narrowed_by_school_and_wish_and_says_when_nothing_is_left() {
    let (_site, ada, job) = ready().await;
    let all = aimed(&ada, &job).await;
    let names = |page: &Page| page.texts(".finder-list strong").join("; ");
    assert!(names(&all).contains("Lift block") && names(&all).contains("Load rubber"), "{}", names(&all));
    assert!(all.texts(".shelf-table tbody th").iter().any(|school| school == "Block or spacer"), "school stands against school");
    let without = ada.get(&format!("{job}/finder?without_block=yes")).await;
    assert!(!names(&without).contains("Lift block") && names(&without).contains("Load rubber"), "{}", names(&without));
    assert!(without.texts(".finder-columns thead th").iter().all(|head| !head.contains("Lift block")));
    let nothing = ada.get(&format!("{job}/finder?without_block=yes&without_rubber=yes&without_pack=yes")).await;
    assert!(nothing.text("main").contains("Nothing is left of it"), "{}", nothing.text("main"));
    // What costs more than the customer wants to spend goes against his wish.
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("budget", "60")])).await;
    let wished = ada.get(&format!("{job}/finder?only_wished=yes")).await;
    assert!(!names(&wished).contains("Load rubber") && names(&wished).contains("Lift block"), "{}", names(&wished));
}
