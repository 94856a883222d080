//! What stands over and beside every page of a job: the way back and on, key figures, options beside one another.

use crate::{BLOCK, Page, consider, measured_half_ton, open_half_ton, shop};

/// A row of the comparison: its label, how it stands now, and each option's cell.
fn row(page: &Page, label: &str) -> Vec<String> {
    let every = scraper::Selector::parse(".compare tbody tr").unwrap();
    let rows = page.html.select(&every);
    let cells = |row: scraper::ElementRef<'_>| -> Vec<String> {
        let cell = scraper::Selector::parse("th, td").unwrap();
        row.select(&cell).map(|cell| cell.text().collect::<String>().replace('\u{a0}', " ").trim().to_owned()).collect()
    };
    rows.map(cells).find(|cells| cells.first().is_some_and(|of| of == label)).unwrap_or_else(|| panic!("no row {label}"))
}

const HELPERS: [(&str, &str); 3] = [("kind", "helper_spring"), ("helper_rate", "200"), ("engagement_gap", "1")];

#[tokio::test]
async fn options_stand_beside_one_another_with_the_same_rows_and_how_it_stands_now() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    consider(&ada, &job, &BLOCK).await;
    let page = consider(&ada, &job, &HELPERS).await;
    assert_eq!(page.texts(".compare thead th").len(), 3, "now and two");
    // By hand, as in the cases worked there: a 2 in block to 23 1/2 and 20 13/16, helpers to 19.40 loaded.
    let empty = row(&page, "Rear, empty");
    assert_eq!(empty[1], "21 1/2 in");
    assert!(empty[2].starts_with("23 1/2 in ±") && empty[3].starts_with("21 1/2 in ±"), "{empty:?}");
    let loaded = row(&page, "Rear, loaded");
    assert!(loaded[2].starts_with("20 13/16 in ±") && loaded[3].starts_with("19 3/8 in ±"), "{loaded:?}");
    assert_eq!(row(&page, "Rake, empty")[1], "+1 in");
    // Every figure of the one looked at stands in its article to the same amount.
    assert_eq!(page.figure("Rear, loaded").0, loaded[3]);
    // The other one at a click.
    let other = page.attributes(".compare thead a", "href");
    let block = ada.get(&other[0]).await;
    assert_eq!(block.text(".option h3"), "Lift block, 2 in");
    assert_eq!(block.figure("Rear, loaded").0, row(&block, "Rear, loaded")[2]);
}

#[tokio::test]
async fn no_more_than_three_stand_beside_one_another_and_the_one_looked_at_is_among_them() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    for thickness in ["1", "1 1/2", "2", "2 1/2"] {
        consider(&ada, &job, &[("kind", "lift_block"), ("thickness", thickness)]).await;
    }
    let page = ada.get(&format!("{job}/options")).await;
    assert_eq!(page.texts(".compare thead a").len(), 3);
    assert_eq!(page.texts(".considered li").len(), 4, "none is lost");
    let first = page.attributes(".considered a", "href").remove(0);
    let page = ada.get(&first).await;
    let columns = page.texts(".compare thead a");
    assert!(columns.iter().any(|name| name.ends_with("Lift block, 1 in")), "{columns:?}");
    assert_eq!(page.texts(".compare th.is-shown").len(), 1);
}

#[tokio::test]
async fn the_route_leads_back_and_on_and_says_what_was_passed_over() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let tape = ada.get(&format!("{job}/tape")).await;
    assert_eq!(tape.text(".route-short summary"), "Tape, 3 of 11");
    assert_eq!(tape.attributes(".route-short > a", "href"), [format!("{job}/load"), format!("{job}/look-over")]);
    assert_eq!(ada.get(&format!("{job}/intake")).await.attributes(".route-short > a", "href"), [format!("{job}/load")]);
    assert!(tape.texts(".route-skipped").is_empty());
    // An aim set before anything was measured: the tape is next, the look-over was passed over.
    ada.fill(&format!("{job}/aim"), &[("kind", "level_empty"), ("tolerance", "1/4")]).await;
    let tape = ada.get(&format!("{job}/tape")).await;
    assert!(tape.text(".route-next").starts_with("Tape"), "{}", tape.text(".route"));
    let skipped = tape.texts(".route-skipped");
    assert!(skipped.iter().any(|stage| stage.starts_with("Look-over")), "{skipped:?}");
}

#[tokio::test]
async fn key_figures_under_the_picture_say_what_verdict_says() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    assert!(!ada.get(&format!("{job}/tape")).await.text(".key-figures").contains("Rear rate"), "nothing is measured yet");
    let job = measured_half_ton(&ada).await;
    let verdict = ada.get(&format!("{job}/verdict")).await;
    let rate = verdict.figure("Rear axle rate, both springs").0;
    let said = ada.get(&format!("{job}/tape")).await.text(".key-figures");
    assert!(said.contains(&format!("Rear rate {rate}, rough")), "{said}");
    assert!(said.contains("down 2 11/16 in"), "{said}");
}
