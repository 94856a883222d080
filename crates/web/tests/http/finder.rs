//! Find options: what the shelf has for a job, side by side and in a list, why not the others, and what leads before any spring.

use reqwest::StatusCode;

use crate::half_ton::walk;
use crate::site::Site;
use crate::{Page, Visitor, measured_half_ton, open_half_ton, shop};

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

/// The page once its search has come to its end.
async fn found(ada: &Visitor, path: &str) -> Page {
    loop {
        let page = ada.get(path).await;
        if page.texts(".looking").is_empty() {
            return page;
        }
    }
}

async fn aimed(ada: &Visitor, job: &str) -> Page {
    ada.fill(&format!("{job}/aim"), &[("kind", "level_loaded"), ("rake", "0"), ("tolerance", "1/2")]).await;
    found(ada, &format!("{job}/finder")).await
}

#[tokio::test]
async fn without_an_aim_it_says_so_and_proposes_nothing() {
    let (_site, ada, job) = ready().await;
    let page = found(&ada, &format!("{job}/finder")).await;
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
    let right = page.texts(".finder-columns tbody tr").into_iter().find(|row| row.starts_with("What is behind it")).unwrap();
    assert!(right.contains("Left: the load itself"), "a block helps no spring: {right}");
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
    let by_price = found(&ada, &format!("{job}/finder?sort=price")).await;
    let prices: Vec<f64> = by_price
        .texts(".finder-list tbody tr")
        .iter()
        .filter_map(|row| row.split("US$").nth(1)?.split_whitespace().next()?.replace(',', "").parse().ok())
        .collect();
    assert!(prices.len() >= 2 && prices.windows(2).all(|pair| pair[0] <= pair[1]), "{prices:?}");
    assert_eq!(by_price.attributes(".finder-list th[aria-sort]", "aria-sort"), ["ascending"]);
    let nonsense = found(&ada, &format!("{job}/finder?price=lots&aim=-5&sort=beauty")).await;
    assert_eq!(nonsense.status, StatusCode::OK);
    assert_eq!(nonsense.field("price").0, "10", "{}", nonsense.text(".weights"));
}

#[tokio::test]
async fn over_a_rating_it_leads_with_the_weight_and_keeps_nothing() {
    let (_site, ada, job) = ready().await;
    let form = aimed(&ada, &job).await.form(".finder-columns form");
    ada.fill(&format!("{job}/tape"), &[("load_weight", "2900")]).await;
    let page = found(&ada, &format!("{job}/finder")).await;
    let lead = page.text(".leads");
    assert!(lead.contains("over a rating") && lead.contains("over its rating of 4,100 lb"), "{}", page.text("main"));
    assert!(lead.contains("Take ") && lead.contains(" off"), "what comes off: {lead}");
    assert!(page.text("main").contains("looked through once that is settled") && !page.text("main").contains("0 go onto"));
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
    let page = found(&ada, &format!("{job}/finder")).await;
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
    let without = found(&ada, &format!("{job}/finder?without_block=yes")).await;
    assert!(!names(&without).contains("Lift block") && names(&without).contains("Load rubber"), "{}", names(&without));
    assert!(without.texts(".finder-columns thead th").iter().all(|head| !head.contains("Lift block")));
    let nothing = found(&ada, &format!("{job}/finder?without_block=yes&without_rubber=yes&without_pack=yes")).await;
    assert!(nothing.text("main").contains("Nothing is left of it"), "{}", nothing.text("main"));
    // What costs more than the customer wants to spend goes against his wish.
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("budget", "60")])).await;
    let wished = found(&ada, &format!("{job}/finder?only_wished=yes")).await;
    assert!(!names(&wished).contains("Load rubber") && names(&wished).contains("Lift block"), "{}", names(&wished));
}

/// Where the page asks how its search stands.
async fn stands(ada: &Visitor, page: &Page) -> String {
    let asks = page.attributes("[data-look]", "data-look").remove(0);
    ada.get(&asks).await.text("body")
}

/// A page that stays open is told when the shelf or the job is another, and by then the search for that has begun.
#[tokio::test]
async fn a_page_left_open_is_out_of_date_as_soon_as_the_shelf_or_the_job_is_another() {
    let (_site, ada, job) = ready().await;
    let page = aimed(&ada, &job).await;
    assert_eq!(stands(&ada, &page).await, "ended");
    put(&ada, &[("number", "BL-3"), ("name", "blocks"), ("kind", "lift_block"), ("thickness", "2")]).await;
    assert_eq!(stands(&ada, &page).await, "stale");
    let anew = found(&ada, &format!("{job}/finder")).await;
    assert_eq!(stands(&ada, &anew).await, "ended");
    ada.fill(&format!("{job}/tape"), &[("load_weight", "900")]).await;
    assert_eq!(stands(&ada, &anew).await, "stale");
    // A key that is none stops nothing.
    let form = anew.form("form[action$='/finder/weights']");
    let fields = [("token".to_owned(), form.value("token").to_owned()), ("look".to_owned(), "0".to_owned())];
    assert_eq!(ada.post(&format!("{job}/finder/stop"), &fields).await.status, StatusCode::OK);
}

#[tokio::test]
async fn what_counts_is_kept_as_the_shop_s_and_nought_counts_for_nothing() {
    let (_site, ada, job) = ready().await;
    aimed(&ada, &job).await;
    let dear = found(&ada, &format!("{job}/finder?aim=0&cause=0&ride=0&upkeep=0&removable=0&price=100&time=0&headroom=0")).await;
    let first = dear.text("#option-1 strong");
    assert!(first.contains("Lift block"), "the cheapest stands first: {first}");
    let kept = ada.send(&dear.form("form[action$='/finder/weights']")).await;
    assert_eq!(kept.status, StatusCode::OK, "{}", kept.text("main"));
    let usual = found(&ada, &format!("{job}/finder")).await;
    assert_eq!((usual.field("aim").0.as_str(), usual.field("price").0.as_str()), ("0", "100"));
    assert_eq!(usual.text("#option-1 strong"), first);
}

/// What is planned and not aboard yet is said first, and of every option what of it stays then.
#[tokio::test]
async fn a_case_that_comes_later_is_decided_again_once_it_is_weighed() {
    let (_site, ada, job) = ready().await;
    let saved = ada
        .fill(
            &format!("{job}/load"),
            &[
                ("case2_name", "Rack next spring"),
                ("case2_later", "yes"),
                ("i0_name", "Rack"),
                ("i0_of", "weight"),
                ("i0_amount", "1,300"),
                ("i0_distance", "0"),
                ("i0_case2", "yes"),
                ("shown", "2"),
            ],
        )
        .await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.text(".problem"));
    let plan = ada.get(&format!("{job}/load")).await;
    assert_eq!(plan.attributes("#case2_later[checked]", "name"), ["case2_later"], "it is kept");
    // While no goal speaks of it, nothing is said of it.
    let silent = found(&ada, &format!("{job}/finder")).await;
    assert!(!silent.text(".leads").contains("comes later"));
    let aims = [
        ("kind", "level_loaded"),
        ("rake", "0"),
        ("tolerance", "1/2"),
        ("goal.0.mark", "rear"),
        ("goal.0.way", "at_least"),
        ("goal.0.when", "case_2"),
        ("goal.0.height", "19 1/2"),
        ("goal.0.tolerance", "1/4"),
    ];
    let aimed = ada.fill(&format!("{job}/aim"), &aims).await;
    assert_eq!(aimed.status, StatusCode::OK, "{}", aimed.text(".problem"));
    let page = found(&ada, &format!("{job}/finder")).await;
    assert!(page.text(".leads").contains("“Rack next spring” comes later"), "{}", page.text("main"));
    let rows = page.texts(".finder-columns tbody tr");
    assert!(rows.iter().any(|row| row.starts_with("What comes later")), "{rows:?}");
    assert!(page.text(".finder-columns").contains("For what is aboard now"));
}

/// Read empty alone, nothing is said of a load to the customer; and that a block leaves tired springs tired is.
#[tokio::test]
async fn who_came_with_an_empty_vehicle_is_told_of_that() {
    let (_site, ada, _) = ready().await;
    let job = open_half_ton(&ada).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("complaint_low_empty", "on"), ("sound_rear", "23")])).await;
    let mut values = vec![("datum", "hub_to_arch"), ("load_kind", "")];
    values.extend(walk(["20 1/2", "20 1/2"], ["21 1/4", "21 1/4"]).into_iter().filter(|(name, _)| name.starts_with("empty")));
    ada.fill(&format!("{job}/tape"), &values).await;
    ada.fill(&format!("{job}/aim"), &[("kind", "stock_height"), ("rear", "23"), ("tolerance", "1/2")]).await;
    let page = found(&ada, &format!("{job}/finder")).await;
    let said = page.texts(".to-customer");
    assert!(said.iter().all(|said| said.contains("higher as it stands.") && !said.contains("your load")), "{said:?}");
    let (block, sound): (Vec<&String>, _) = said.iter().partition(|said| said.starts_with("Blocks or spacers."));
    assert!(!block.is_empty() && block.iter().all(|said| said.contains("Your springs stay as tired as they are.")), "{said:?}");
    assert!(!sound.is_empty() && sound.iter().all(|said| !said.contains("tired")), "{said:?}");
    let behind = page.texts(".finder-columns tbody tr").into_iter().find(|row| row.starts_with("What is behind it")).unwrap();
    assert!(behind.contains("Put right: the springs have set") && behind.contains("Left: the springs have set"), "{behind}");
}

/// A part that asks for a figure nobody took is named with it, where it would go onto the vehicle at all.
#[tokio::test]
async fn what_asks_for_a_figure_of_the_vehicle_is_named() {
    let (_site, ada, job) = ready().await;
    put(&ada, &[("number", "SH-6"), ("name", "shackles"), ("kind", "longer_shackle"), ("shackle_new", "6")]).await;
    ada.fill(&format!("{job}/aim"), &[("kind", "level_loaded"), ("rake", "0"), ("tolerance", "9/16")]).await;
    let page = found(&ada, &format!("{job}/finder")).await;
    let named = page.texts(".wanting li");
    assert_eq!(named.len(), 1, "{named:?}");
    assert!(named[0].starts_with("SH-6 shackles:") && named[0].contains("shackle that comes out, bolt to bolt"), "{named:?}");
    assert_eq!(page.attributes(".wanting a", "href"), [format!("{job}/options")]);
}

/// Without what was put on no part is told of, so that is asked for before anything is looked through.
#[tokio::test]
async fn it_asks_what_was_on_where_nobody_said_that() {
    let (_site, ada, job) = ready().await;
    aimed(&ada, &job).await;
    ada.fill(&format!("{job}/tape"), &[("load_kind", "")]).await;
    let page = found(&ada, &format!("{job}/finder")).await;
    assert!(page.text(".leads").contains("Nobody has said what was on when “loaded” was read"), "{}", page.text("main"));
    assert!(page.texts(".finder-columns th").is_empty());
    assert_eq!(page.attributes(".leads a", "href"), [format!("{job}/tape")]);
}

/// What one reason rules out stands under it once, and what comes nearest to the aim stands first.
#[tokio::test]
async fn why_not_is_told_by_its_reason_the_nearest_miss_first() {
    let (_site, ada, job) = ready().await;
    for (number, thickness) in [("BL-31", "4"), ("BL-32", "4 1/2"), ("BL-33", "2 1/2")] {
        put(&ada, &[("number", number), ("name", "blocks"), ("kind", "lift_block"), ("thickness", thickness)]).await;
    }
    let page = aimed(&ada, &job).await;
    let reasons = page.texts(".why-not strong");
    let mut once = reasons.clone();
    once.sort();
    once.dedup();
    assert_eq!(once.len(), reasons.len(), "{reasons:?}");
    let misses: Vec<f64> =
        reasons.iter().filter(|reason| reason.starts_with("Misses the aim")).map(|reason| chance(reason)).collect();
    assert!(!misses.is_empty() && misses.windows(2).all(|pair| pair[0] >= pair[1]), "{reasons:?}");
    assert!(reasons[..misses.len()].iter().all(|reason| reason.starts_with("Misses the aim")), "{reasons:?}");
}

/// Out of a hundred, as a miss is told.
fn chance(reason: &str) -> f64 {
    let figure = reason.split(" in 100").next().and_then(|to| to.rsplit(' ').next());
    figure.and_then(|figure| figure.parse().ok()).expect("a miss says its chance")
}
