//! The shelf: parts put there, changed, taken off and put back; files in and out; and a part of it on a job.

use reqwest::StatusCode;

use crate::{Page, Visitor, consider, measured_half_ton, shop};

const RUBBER: [(&str, &str); 9] = [
    ("number", "RB 7"),
    ("name", "Load rubbers, heavy"),
    ("kind", "rubber_by_capacity"),
    ("rubber_capacity", "2,000"),
    ("rubber_height", "5"),
    ("rubber_clearance", "1/2"),
    ("price", "189.50"),
    ("in_stock", "0"),
    ("lead_days", "4"),
];

async fn put(ada: &Visitor, values: &[(&str, &str)]) -> Page {
    let form = ada.get("/shelf/new").await.form("form[action='/shelf/new']");
    ada.send(&form.with(values)).await
}

/// The address of the only part that is found by some words.
async fn address(ada: &Visitor, words: &str) -> String {
    let page = ada.get(&format!("/shelf?words={words}")).await;
    let all = page.attributes(".shelf-table th a", "href");
    assert_eq!(all.len(), 1, "{}", page.text("main"));
    all[0].clone()
}

#[tokio::test]
async fn a_part_is_put_on_the_shelf_changed_taken_off_and_put_back() {
    let (_site, ada) = shop().await;
    assert!(ada.get("/shelf").await.text("main").contains("Nothing on the shelf yet"));
    let page = put(&ada, &RUBBER).await;
    assert_eq!(page.status, StatusCode::OK, "{}", page.text("main"));
    let row = page.text(".shelf-table tbody tr");
    assert!(row.contains("RB 7") && row.contains("US$ 189.50") && row.contains("to order, 4 days"), "{row}");
    assert!(row.contains("half-ton, rear: 0 in empty"), "{row}");
    assert_eq!(page.attributes(".shelf-table svg.effect", "role"), ["img"], "what it does is drawn");
    // A number is one part's, whatever its capitals.
    let twin = put(&ada, &[&[("number", "rb 7 ")][..], &RUBBER[1..]].concat()).await;
    assert_eq!(twin.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(twin.field("number").1.contains("Another part"), "{}", twin.text("main"));
    let part = address(&ada, "heavy").await;
    let form = || async { ada.get(&part).await.form(&format!("form[action='{part}']")) };
    let stale = form().await;
    let changed = ada.send(&form().await.with(&[("found_rubber_capacity", "1,700"), ("price", "199")])).await;
    assert!(changed.text(".shelf-table tbody tr").contains("as we found it"), "{}", changed.text("main"));
    // Whoever had the page open before is told, and nothing of his is lost.
    let late = ada.send(&stale.with(&[("price", "999")])).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert_eq!(late.field("price").0, "999");
    let part = address(&ada, "heavy").await;
    let off = ada.send(&ada.get(&part).await.form("form[action$='/withdraw']")).await;
    assert!(off.text("main").contains("Taken off the shelf"), "{}", off.text("main"));
    assert!(ada.get("/shelf?words=heavy").await.text("main").contains("No part has all of that"));
    let back = ada.send(&off.form("form[action$='/restore']")).await;
    assert!(back.text(".shelf-table").contains("US$ 199"), "{}", back.text("main"));
}

#[tokio::test]
async fn what_cannot_be_on_a_shelf_is_said_at_its_field() {
    let (_site, ada) = shop().await;
    let wrong = [
        ("number", "", "Type the number"),
        ("name", "", "Type what it is called"),
        ("rubber_capacity", "much", "“much”"),
        ("rubber_height", "90", "between"),
        ("price", "12.345,6,7", "no sum of money"),
        ("in_stock", "-1", "whole number"),
        ("lead_days", "1.5", "whole number"),
        ("hours", "long", "not a number"),
    ];
    for (name, text, said) in wrong {
        let page = put(&ada, &[&RUBBER[..], &[(name, text)]].concat()).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{name}");
        assert!(page.field(name).1.contains(said), "{name}: {:?}", page.field(name));
        assert_eq!(page.field("rubber_clearance").0, "1/2", "what was typed is still there");
    }
    let front =
        put(&ada, &[("number", "A"), ("name", "block"), ("kind", "lift_block"), ("thickness", "2"), ("end", "front")]).await;
    assert_eq!(front.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(front.text("main").contains("does not go on the front"), "{}", front.text("main"));
    let nothing = put(&ada, &[("number", "A"), ("name", "block")]).await;
    assert!(nothing.text("main").contains("Pick what it is"), "{}", nothing.text("main"));
    assert!(ada.get("/shelf").await.text("main").contains("Nothing on the shelf yet"), "nothing half stored");
}

#[tokio::test]
async fn a_file_is_looked_at_before_it_is_taken_in() {
    let (_site, ada) = shop().await;
    put(&ada, &RUBBER).await;
    let csv = ada.client().get(ada.url("/shelf.csv")).send().await.unwrap().text().await.unwrap();
    let send = |act: &'static str, text: String| {
        let ada = &ada;
        async move {
            let hidden = ada.get("/shelf/import").await;
            let token = hidden.attributes("input[name=token]", "value")[0].clone();
            let texts =
                [("token", token.as_str()), ("revision", "0"), ("length_unit", "in"), ("weight_unit", "lb"), ("act", act)];
            ada.send_file_as("file", "/shelf/import", &texts, text.into_bytes()).await
        }
    };
    let same = send("look", csv.clone()).await;
    assert!(same.text("main").contains("nothing in the file is new or changed"), "{}", same.text("main"));
    let more = csv.replace("189.50", "175").trim_end().to_owned() + "\n";
    let row = "BL-1,\"Blocks, cast\",lift_block";
    let more = format!("{more}{row}\n");
    // The exported table has no column for a block's thickness: the row says so, and the change of the other is shown.
    let page = send("look", more).await;
    let text = page.text("main");
    assert!(text.contains("changed: price") && text.contains("BL-1") && text.contains("wants its"), "{text}");
    assert!(ada.get("/shelf").await.text("main").contains("189.50"), "nothing is kept yet");
    let table = "number;name;kind;thickness;price\nBL-1;Blocks, cast;lift_block;37,5 mm;1.250,50\nBL-2;Blocks;lift_block;2;48\n";
    let taken = send("take", table.to_owned()).await;
    assert!(taken.text(".shelf-table").contains("US$ 1,250.50"), "{}", taken.text("main"));
    let json = ada.client().get(ada.url("/shelf.json")).send().await.unwrap().text().await.unwrap();
    let again = send("look", json.clone()).await;
    assert!(again.text("main").contains("nothing in the file is new or changed"), "{}", again.text("main"));
    for (text, said) in [
        (json.replace("\"version\": 1", "\"version\": 9"), "not a wise-badger/shelf document of version 1"),
        ("a,b\n1,2\n".to_owned(), "“number” is none of them"),
        ("{".to_owned(), "not JSON"),
        (String::new(), "names the columns"),
    ] {
        let page = send("look", text).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.text(".refusal").contains(said), "{said}: {}", page.text("main"));
    }
}

#[tokio::test]
async fn ten_thousand_parts_are_taken_in_and_the_shelf_still_answers_page_by_page() {
    let (_site, ada) = shop().await;
    let rows: String = (0..10_000).map(|number| format!("N{number:05},block {number},lift_block,2\n")).collect();
    let hidden = ada.get("/shelf/import").await;
    let token = hidden.attributes("input[name=token]", "value")[0].clone();
    let texts = [("token", token.as_str()), ("revision", "0"), ("length_unit", "in"), ("weight_unit", "lb"), ("act", "take")];
    let page =
        ada.send_file_as("file", "/shelf/import", &texts, format!("number,name,kind,thickness\n{rows}").into_bytes()).await;
    assert!(page.text("main").contains("10000 parts"), "{}", page.text(".shelf-search"));
    let told = |token: &str| ada.client().get(ada.url(&format!("/shelf/import/progress?token={token}"))).send();
    assert_eq!(told(&token).await.unwrap().text().await.unwrap(), "10000 10000", "who waits is told how far it has come");
    assert_eq!(told("another").await.unwrap().text().await.unwrap(), "");
    assert_eq!(page.texts(".shelf-table tbody tr").len(), 50);
    let next = page.attributes("a[href*='after=']", "href")[0].clone();
    let second = ada.get(&next).await;
    assert_eq!(second.texts(".shelf-table tbody th")[0], "N00050");
    assert_eq!(ada.get("/shelf?words=block+9999").await.texts(".shelf-table tbody tr").len(), 1);
}

#[tokio::test]
async fn a_part_of_the_shelf_is_tried_on_a_job_and_its_price_stays_with_it() {
    let (_site, ada) = shop().await;
    put(&ada, &RUBBER).await;
    put(&ada, &[("number", "CO-1"), ("name", "coils"), ("kind", "new_coils"), ("coils_lift", "2"), ("coils_added_rate", "0")])
        .await;
    let job = measured_half_ton(&ada).await;
    let pick = ada.get(&format!("{job}/shelf")).await;
    let offered = pick.text(".shelf-table");
    assert!(offered.contains("RB 7") && !offered.contains("CO-1"), "coils do not go onto leaves: {offered}");
    let try_it = pick.attributes(".shelf-table a", "href")[0].clone();
    let form = ada.get(&try_it).await;
    assert!(form.text(".from-shelf").contains("RB 7 Load rubbers, heavy: US$ 189.50"), "{}", form.text("main"));
    assert_eq!(form.field("rubber_capacity").0, "2,000");
    // Its own figures are the shelf's; how it is set is the job's.
    let other = ada.send(&form.form("form.try").with(&[("rubber_capacity", "3,000")])).await;
    assert_eq!(other.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(other.field("rubber_capacity").1.contains("The shelf says otherwise"), "{}", other.text("form.try"));
    let page = ada.send(&form.form("form.try").with(&[("rubber_clearance", "1")])).await;
    assert!(page.text(".option").contains("From the shelf: RB 7 Load rubbers, heavy: US$ 189.50"), "{}", page.text("main"));
    let by_hand =
        consider(&ada, &job, &[("kind", "rubber_by_capacity"), ("rubber_capacity", "2,000"), ("rubber_clearance", "1")]).await;
    assert_eq!(page.figure("Rear, loaded").0, by_hand.figure("Rear, loaded").0, "one part, one answer");
    // What is taken off the shelf stays on the job, and is not put down anew.
    let part = address(&ada, "heavy").await;
    ada.send(&ada.get(&part).await.form("form[action$='/withdraw']")).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert!(options.text("main").contains("Load rubber for 2,000 lb each, clearance 1 in"), "{}", options.text("main"));
    let late = ada.get(&try_it).await;
    assert!(late.text(".try-fold").contains("taken off the shelf meanwhile"), "who picks it late is told: {}", late.text("main"));
    let gone = ada.send(&form.form("form.try")).await;
    assert_eq!(gone.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(gone.text("form.try").contains("taken off the shelf meanwhile"), "{}", gone.text("form.try"));
    let document = ada.client().get(ada.url(&format!("{job}/job.json"))).send().await.unwrap().text().await.unwrap();
    assert!(document.contains("\"number\": \"RB 7\"") && document.contains("18950"), "the copy goes with the job");
}

#[tokio::test]
async fn what_it_would_take_is_said_by_kind_and_by_the_nearest_of_the_shelf() {
    let (_site, ada) = shop().await;
    put(&ada, &RUBBER).await;
    put(&ada, &[("number", "BL-2"), ("name", "blocks"), ("kind", "lift_block"), ("thickness", "2"), ("price", "58")]).await;
    put(&ada, &[("number", "CO-1"), ("name", "coils"), ("kind", "new_coils"), ("coils_lift", "2"), ("coils_added_rate", "0")])
        .await;
    let job = measured_half_ton(&ada).await;
    let before = ada.get(&format!("{job}/takes")).await;
    assert!(before.text("main").contains("No aim is set"), "{}", before.text("main"));
    ada.fill(&format!("{job}/aim"), &[("kind", "level_loaded"), ("rake", "0"), ("tolerance", "1/2")]).await;
    let page = ada.get(&format!("{job}/takes")).await;
    // Loaded the rear stands at 18 13/16 in and the front at 20 1/2.
    let main = page.text("main");
    assert!(main.contains("the rear stands at 18 13/16 in; the middle of the aim is 20 1/2 in"), "{main}");
    assert!(main.contains("Lift block Block height: 1.69 in 20 1/2 in ±"), "{main}");
    assert!(main.contains("BL-2") && !main.contains("CO-1"), "coils do not go onto leaves: {main}");
    let try_it = page.attributes(".takes-table a", "href");
    let rubber = try_it.iter().find(|href| href.contains("set=")).expect("a rubber is set").clone();
    let form = ada.get(&rubber).await;
    assert!(form.text(".from-shelf").contains("RB 7"), "{}", form.text("main"));
    let clearance = form.field("rubber_clearance").0;
    assert_eq!(clearance, "0.50 in", "as near as rubbers are set");
    let tried = ada.send(&form.form("form.try")).await;
    assert_eq!(tried.status, StatusCode::OK, "{}", tried.text("form.try"));
    assert!(tried.text(".option").contains("From the shelf: RB 7"), "{}", tried.text("main"));
}
