//! Takes the pictures in `docs/screenshots` from a running demo, and measures its main views.
//!
//! `cargo run --example look -- http://127.0.0.1:8460 docs/screenshots [NAME=PATH[@WIDTHxHEIGHT]]...`; `scripts/look` does it with a demo
//! of its own. On the output is a table: how high a page is at 1280 by 800, where its first field stands at 390 by 844, and how many
//! elements are wider than their window at either.

use std::path::Path;

use thirtyfour::prelude::*;

#[path = "../tests/support/browser.rs"]
mod browser;

/// Each main view of the demo shop: name, path, page size.
const VIEWS: [&str; 19] = [
    "yard=/",
    "shelf=/shelf@1280x900",
    "intake=/jobs/6/intake@1280x960",
    "load=/jobs/6/load@1280x1000",
    "tape=/jobs/6/tape@1280x895",
    "look-over=/jobs/6/look-over@1280x1200",
    "verdict=/jobs/6/verdict@1280x1100",
    "bays=/bays",
    "ledger=/ledger",
    "options=/jobs/4/options@1280x1226",
    "what-if=/jobs/6/what-if?p0_kind=helper_by_capacity&p0_helper_capacity=1500&p0_helper_travel=6&p0_helper_gap=0&load_from=loaded&more=200&more_back=40@1280x1000",
    "over-a-rating=/jobs/2/options",
    "plan=/jobs/11/plan@1280x1500",
    "proof=/jobs/10/proof/settled@1280x1150",
    "handover=/jobs/10/handover@1280x1500",
    "wrench-phone=/jobs/9/wrench#next@390x844",
    "tape-phone=/jobs/4/tape@390x844",
    "bench=/jobs/7/bench?load=1634@1280x1288",
    "finder=/jobs/6/finder@1280x1500",
];

/// The views that are measured: name and path.
const MEASURED: [(&str, &str); 25] = [
    ("Yard", "/"),
    ("Bays", "/bays"),
    ("Ledger", "/ledger"),
    ("Vehicle", "/vehicles/1"),
    ("New job", "/jobs/new"),
    ("Job", "/jobs/1"),
    ("Intake", "/jobs/6/intake"),
    ("Load", "/jobs/6/load"),
    ("Tape", "/jobs/6/tape"),
    ("Look-over", "/jobs/6/look-over"),
    ("Verdict", "/jobs/6/verdict"),
    ("Aim", "/jobs/4/aim"),
    ("Options", "/jobs/4/options"),
    ("Find options", "/jobs/4/finder"),
    ("What it would take", "/jobs/4/takes"),
    ("What if", "/jobs/6/what-if?p0_kind=lift_block&p0_thickness=1"),
    ("Quick answer", "/quick/1"),
    ("Shelf", "/shelf"),
    ("Bench", "/jobs/7/bench?load=1634"),
    ("Plan", "/jobs/9/plan"),
    ("Wrench", "/jobs/9/wrench"),
    ("Proof", "/jobs/1/proof"),
    ("Handover", "/jobs/10/handover"),
    ("Control drive", "/jobs/6/drive"),
    ("Sums", "/sums/shaft?drop=5&span=57.15&gearbox=3&pinion=1&place=below"),
];

/// Height of the page; top of its first field; elements wider than the window, but for what scrolls in a box of its own; height of what
/// stands over the page.
const MEASURE: &str = r#"
const seen = (element) => element.getClientRects().length > 0 && element.checkVisibility();
const fields = [...document.querySelectorAll("main :is(input:not([type=hidden]), select, textarea)")].filter(seen);
const first = fields.map((field) => field.getBoundingClientRect().top + scrollY)[0];
const scrolls = (element) => element && (["auto", "scroll", "hidden"].includes(getComputedStyle(element).overflowX) || scrolls(element.parentElement));
const wide = [...document.body.querySelectorAll("*")].filter((element) => {
  const box = element.getBoundingClientRect();
  return seen(element) && !element.closest(".skip") && (box.right > innerWidth + 1 || box.left < -1) && box.width > 1 && !scrolls(element.parentElement);
});
const main = document.querySelector(".working, main");
return [
  document.documentElement.scrollHeight,
  first === undefined ? null : Math.round(first),
  wide.length,
  Math.round(main.getBoundingClientRect().top + scrollY),
  wide.slice(0, 3).map((element) => element.tagName.toLowerCase() + "." + element.className).join(" "),
];
"#;

/// What is measured of a page.
#[derive(serde::Deserialize)]
struct Measured(u32, Option<i32>, u32, u32, String);

#[tokio::main]
async fn main() {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let [address, folder, views @ ..] = arguments.as_slice() else {
        eprintln!("usage: screenshots ADDRESS FOLDER [NAME=PATH[@WIDTHxHEIGHT]]...");
        return;
    };
    let views = if views.is_empty() { VIEWS.map(str::to_owned).to_vec() } else { views.to_vec() };
    let browser = browser::Browser::open(1280, 800).await;
    if let Err(error) = take(&browser, address, Path::new(folder), &views).await {
        eprintln!("{error}");
    }
    if let Err(error) = measure(&browser, address).await {
        eprintln!("{error}");
    }
    browser.close().await;
}

/// Measures every view, a line each.
async fn measure(browser: &browser::Browser, address: &str) -> WebDriverResult<()> {
    println!(
        "| view | height at 1280 × 800 | first field at 390 × 844 | page begins at, 1280 and 390 | wider than the window, 1280 and 390 |"
    );
    println!("| --- | ---: | ---: | ---: | ---: |");
    browser.tell("Emulation.setEmulatedMedia", serde_json::json!({ "media": "" })).await;
    for (name, path) in MEASURED {
        let mut each = Vec::new();
        for (width, height) in [(1280, 800), (390, 844)] {
            browser.resize(width, height).await;
            browser.goto(&format!("{address}{path}")).await?;
            browser.page.execute("return document.fonts.ready", vec![]).await?;
            searched(browser).await?;
            each.push(browser.page.execute(MEASURE, vec![]).await?.convert::<Measured>()?);
        }
        let [desk, phone] = each.as_slice() else { continue };
        let first = phone.1.map_or_else(|| "–".to_owned(), |first| first.to_string());
        println!("| {name} | {} | {first} | {}, {} | {}, {} |", desk.0, desk.3, phone.3, desk.2, phone.2);
        for (of, width) in [(desk, 1280), (phone, 390)] {
            if of.2 > 0 {
                eprintln!("{name} at {width}: {}", of.4);
            }
        }
    }
    Ok(())
}

/// Waits until a search that the page shows has come to its end.
async fn searched(browser: &browser::Browser) -> WebDriverResult<()> {
    while !browser.page.find_all(By::Css(".looking")).await?.is_empty() {
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    Ok(())
}

async fn take(browser: &browser::Browser, address: &str, folder: &Path, views: &[String]) -> WebDriverResult<()> {
    browser.goto(&format!("{address}/sign-in")).await?;
    browser.page.query(By::Css(".person")).first().await?.click().await?;
    for view in views {
        let (name, rest) = view.split_once('=').unwrap_or((view, "/"));
        let (path, size) = rest.split_once('@').unwrap_or((rest, "1280x800"));
        // A size that ends so is drawn as it is printed.
        let (size, media) = size.strip_suffix(" on paper").map_or((size, ""), |size| (size, "print"));
        browser.tell("Emulation.setEmulatedMedia", serde_json::json!({ "media": media })).await;
        let (width, height) = size.split_once('x').unwrap_or((size, "800"));
        let (width, height) = (width.parse().unwrap_or(1280), height.parse().unwrap_or(800));
        browser.resize(width, height).await;
        browser.goto(&format!("{address}{path}")).await?;
        browser.page.execute("return document.fonts.ready", vec![]).await?;
        searched(browser).await?;
        browser.page.screenshot(&folder.join(format!("{name}.png"))).await?;
    }
    Ok(())
}
