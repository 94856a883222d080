//! What if: parts and loads tried by hand, seen at once, kept as an option or as a case.

use reqwest::StatusCode;

use crate::site::Site;
use crate::units::switch;
use crate::{Page, Visitor, consider, measured_half_ton, shop};

/// The page with a kind put on, and some of its fields set.
async fn put_on(ada: &Visitor, page: &Page, kind: &str, values: &[(&str, &str)]) -> Page {
    let put = ada.send(&page.form("#what-if-form").with(&[("add_kind", kind), ("act", "add")])).await;
    assert_eq!(put.status, StatusCode::OK, "{}", put.text("main"));
    act(ada, &put, "show", values).await
}

async fn act(ada: &Visitor, page: &Page, act: &str, values: &[(&str, &str)]) -> Page {
    ada.send(&page.form("#what-if-form").with(values).with(&[("act", act)])).await
}

/// What is drawn anew of a form, by the parts of the page that it goes into.
async fn preview(ada: &Visitor, page: &Page, job: &str, values: &[(&str, &str)]) -> Page {
    let form = page.form("#what-if-form").with(values);
    ada.post(&format!("{job}/what-if/preview"), form.fields()).await
}

/// The row of a state or a case.
fn row(page: &Page, name: &str) -> String {
    let rows = page.texts("#what-if-heights tbody tr");
    rows.into_iter().find(|row| row.starts_with(name)).unwrap_or_else(|| panic!("no {name}: {}", page.text("main")))
}

#[tokio::test]
async fn parts_are_put_together_by_hand_seen_at_once_and_kept_as_the_option_that_they_are() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let bare = ada.get(&format!("{job}/what-if")).await;
    assert!(row(&bare, "Loaded").contains("18 13/16"), "it stands where it was read: {}", bare.text("#what-if-heights"));
    let page = put_on(&ada, &bare, "lift_block", &[("p0_thickness", "2")]).await;
    // 18 13/16 in and 2 in of block, whatever the rate.
    assert!(row(&page, "Loaded").contains("20 13/16"), "{}", page.text("#what-if-heights"));
    assert!(page.text("#what-if-more").contains("New U-bolts"), "cautions stand before it is kept: {}", page.text("main"));
    let page = put_on(&ada, &page, "rubber_by_capacity", &[("p1_rubber_capacity", "2,000")]).await;
    let drawn = preview(&ada, &page, &job, &[("p0_thickness", "1")]).await;
    assert_eq!(drawn.status, StatusCode::OK);
    assert!(row(&drawn, "Empty").contains("22 1/2"), "a block of 1 in: {}", drawn.text("#what-if-heights"));
    assert_eq!(drawn.attributes("#what-if-picture svg", "role").len(), 2);
    assert!(drawn.text("#what-if-curve").contains("Loaded"), "{}", drawn.text("#what-if-curve"));
    assert!(ada.get(&format!("{job}/options")).await.texts(".considered li").is_empty(), "a picture keeps nothing");
    let predicted = row(&page, "Loaded");
    let kept = act(&ada, &page, "keep", &[("option_name", "Block and rubbers")]).await;
    assert!(kept.path.ends_with("/options"), "{}: {}", kept.path, kept.text("main"));
    assert!(kept.text(".option h3").starts_with("Block and rubbers: Lift block, 2 in"), "{}", kept.text(".option"));
    let height = kept.figure("Rear, loaded").0;
    let height = height.trim_end_matches("in").trim().split('±').next().unwrap_or_default().replace("in", "").trim().to_owned();
    assert!(predicted.contains(&height), "one part, one answer: {height} of {predicted}");
}

#[tokio::test]
async fn an_option_of_the_list_is_gone_on_with_and_a_part_from_the_shelf_is_set_otherwise() {
    let (_site, ada) = shop().await;
    let new = ada.get("/shelf/new").await.form("form[action='/shelf/new']");
    let rubber = [
        ("number", "RB 7"),
        ("name", "Load rubbers"),
        ("kind", "rubber_by_capacity"),
        ("rubber_capacity", "2,000"),
        ("rubber_height", "5"),
        ("rubber_clearance", "1/2"),
    ];
    ada.send(&new.with(&rubber)).await;
    let job = measured_half_ton(&ada).await;
    let start = put_on(&ada, &ada.get(&format!("{job}/what-if")).await, "lift_block", &[("p0_thickness", "1 1/2")]).await;
    // What is tried goes along to the shelf, and comes back with the part.
    let pick = act(&ada, &start, "shelf", &[]).await;
    assert!(pick.text("main").contains("Back to What if"), "{}", pick.text("main"));
    let try_it = pick.attributes(".shelf-table a", "href")[0].clone();
    let both = ada.get(&try_it).await;
    assert_eq!(both.field("p0_thickness").0, "1 1/2");
    assert!(both.texts(".tried legend")[1].contains("RB 7 Load rubbers"), "{}", both.text("form"));
    let set = act(&ada, &both, "show", &[("p1_rubber_clearance", "1")]).await;
    assert_eq!(set.field("p1_rubber_clearance").0, "1");
    let kept = act(&ada, &set, "keep", &[]).await;
    assert!(
        kept.text(".option").contains("clearance 1 in") && kept.text(".option").contains("From the shelf: RB 7"),
        "{}",
        kept.text(".option")
    );
    let from = kept.attributes(".option-acts a", "href")[0].clone();
    let again = ada.get(&from).await;
    assert_eq!((again.field("p0_thickness").0.as_str(), again.field("p1_rubber_clearance").0.as_str()), ("1 1/2", "1"));
    assert_eq!(row(&again, "Loaded"), row(&set, "Loaded"));
    // Its own figures are the shelf's, whatever is sent.
    let forged = preview(&ada, &again, &job, &[("p1_rubber_capacity", "9,000")]).await;
    assert_eq!(row(&forged, "Loaded"), row(&set, "Loaded"));
    // Taken off the list meanwhile, nothing is made of it.
    let id = from.rsplit('=').next().unwrap().to_owned();
    ada.press(&format!("{job}/options?show={id}"), "/withdraw").await;
    let gone = act(&ada, &again, "keep", &[]).await;
    assert_eq!(gone.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(gone.text("#what-if-said").contains("no longer on the list"), "{}", gone.text("main"));
}

#[tokio::test]
async fn a_load_is_moved_added_to_and_kept_as_a_case_like_others() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let bare = ada.get(&format!("{job}/what-if")).await;
    let rack = [("load_from", "loaded"), ("more", "200"), ("more_back", "20")];
    let page = act(&ada, &bare, "show", &rack).await;
    // 1,000 lb took it down 2 11/16 in, and 200 × (1 + 20/145) lb more goes on: 21 1/2 − 1,228 / 372 = 18 3/16.
    assert!(row(&page, "What-if load").contains("18 3/16"), "{}", page.text("#what-if-heights"));
    let ahead = preview(&ada, &page, &job, &[("load_back", "-30")]).await;
    assert!(
        row(&ahead, "What-if load").contains("18 3/4"),
        "moved forward it weighs less behind: {}",
        ahead.text("#what-if-heights")
    );
    let unnamed = act(&ada, &page, "keep_load", &[]).await;
    assert_eq!(unnamed.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(unnamed.field("load_name").1.contains("what this load is to be called"), "{}", unnamed.text("form"));
    assert_eq!(unnamed.field("more").0, "200", "what was typed is still there");
    let kept = act(&ada, &page, "keep_load", &[("load_name", "Rack, next spring")]).await;
    assert!(row(&kept, "Rack, next spring").contains("18 3/16"), "{}", kept.text("#what-if-heights"));
    assert_eq!(kept.field("more").0, "", "and the form is free for another");
    let load = ada.get(&format!("{job}/load")).await;
    assert!(load.text("main").contains("Rack, next spring"), "{}", load.text("main"));
    let option = consider(&ada, &job, &crate::BLOCK).await;
    assert!(option.text("main").contains("Rack, next spring"), "a case like others: {}", option.text("main"));
    // Over a rating it says so, and nothing is hidden.
    let heavy = act(&ada, &kept, "show", &[("more", "3,000"), ("more_back", "20")]).await;
    assert!(row(&heavy, "What-if load").contains("over by"), "{}", heavy.text("#what-if-heights"));
}

#[tokio::test]
async fn what_cannot_be_tried_is_said_by_its_field_and_nothing_is_kept() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let bare = ada.get(&format!("{job}/what-if")).await;
    let nothing = act(&ada, &bare, "add", &[("add_kind", "")]).await;
    assert_eq!(nothing.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(nothing.text("main").contains("Pick what to put on"), "{}", nothing.text("main"));
    let empty = act(&ada, &bare, "keep", &[]).await;
    assert!(empty.text("main").contains("Nothing is put on yet"), "{}", empty.text("main"));
    let page = put_on(&ada, &bare, "lift_block", &[("p0_thickness", "2")]).await;
    for (name, text, said) in [
        ("p0_thickness", "9", "Block height: A block is between"),
        ("p0_thickness", "", "Block height: Nothing is typed here"),
        ("p0_axles", "front", "Not on a steered axle"),
        ("p0_axles", "middle", "no such axle"),
        ("p0_side", "top", "Pick both sides"),
        ("load_back", "900", "All of that moved back"),
        ("more", "much", "One thing more: “much”"),
        ("pull", "9,000", "Pull: A pull is between"),
        ("load_from", "77", "no longer on the load plan"),
        ("load_from", "all of it", "no longer on the load plan"),
    ] {
        let drawn = preview(&ada, &page, &job, &[(name, text)]).await;
        assert_eq!(drawn.status, StatusCode::OK, "{name}");
        assert!(drawn.text("#what-if-said").contains(said), "{name}: {}", drawn.text("#what-if-said"));
        let kept = act(&ada, &page, "keep", &[(name, text)]).await;
        assert_eq!(kept.status, StatusCode::UNPROCESSABLE_ENTITY, "{name}");
        assert_eq!(kept.form("#what-if-form").value("p0_kind"), "lift_block", "what was put on is still there");
    }
    let two = put_on(&ada, &page, "lift_block", &[("p1_thickness", "1")]).await;
    assert!(two.text("#what-if-said").contains("blocks are never stacked"), "{}", two.text("main"));
    let one = act(&ada, &two, "drop:0", &[]).await;
    assert_eq!(one.field("p0_thickness").0, "1", "the other one moves up");
    assert!(one.texts("#what-if-said li").is_empty(), "{}", one.text("#what-if-said"));
    assert!(ada.get(&format!("{job}/options")).await.texts(".considered li").is_empty());
    // An address that nobody made is answered too.
    for query in
        ["p0_kind=nothing", "p0_kind=lift_block&p0_thickness=%00", "p0_of=9.9", "from=77", "p0_kind=reworked_pack", "p99_kind=x"]
    {
        let page = ada.get(&format!("{job}/what-if?{query}")).await;
        assert_eq!(page.status, StatusCode::OK, "{query}: {}", page.text("main"));
    }
    assert_eq!(ada.get(&format!("{job}/what-if?p0_shelf=none")).await.status, StatusCode::BAD_REQUEST);
}

#[tokio::test]
async fn in_millimeters_and_kilograms_the_sliders_go_in_them() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    switch(&ada, "length", "mm").await;
    switch(&ada, "weight", "kg").await;
    let bare = ada.get(&format!("{job}/what-if")).await;
    assert_eq!((bare.field("pull").0.as_str(), bare.field("pull_height").0.as_str()), ("450", "1200"));
    let page = put_on(&ada, &bare, "lift_block", &[("p0_thickness", "50")]).await;
    // 18 13/16 in is 478 mm.
    assert!(row(&page, "Loaded").contains("528"), "{}", page.text("#what-if-heights"));
    let texts = page.attributes("[data-slides='p0_thickness']", "data-texts")[0].clone();
    assert!(texts.contains("\"50\",\"55\""), "{texts}");
}

#[tokio::test]
async fn on_a_trailer_and_on_coils_it_is_tried_in_their_own_words() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let packs = "p0_kind=new_packs&p0_packs_lift=1&p0_packs_set=1/2&p0_packs_old_lift=0&p0_packs_added_rate=0";
    let trailer = bram.get(&format!("/jobs/5/what-if?{packs}")).await;
    assert!(trailer.text("#what-if-heights thead").contains("Coupler"), "{}", trailer.text("#what-if-heights"));
    assert!(row(&trailer, "Loaded").contains('±'), "{}", trailer.text("#what-if-heights"));
    assert!(trailer.text("#what-if-more").contains("Pulled sideways"), "{}", trailer.text("#what-if-more"));
    assert!(!trailer.text("#add_kind").contains("Longer shackles"), "{}", trailer.text("#add_kind"));
    let coils = bram.get("/jobs/8/what-if?p0_kind=coil_spacer&p0_spacer=1").await;
    let offered = coils.text("#add_kind");
    assert!(offered.contains("New coils") && !offered.contains("Add-a-leaf"), "{offered}");
    // Over a rating nothing is tried.
    let over = bram.get("/jobs/2/what-if").await;
    assert_eq!(over.status, StatusCode::CONFLICT);
    assert!(over.text("main").contains("Weight comes off first"), "{}", over.text("main"));
}
