//! Takes the pictures in `docs/screenshots` from a running demo.
//!
//! `cargo run --example screenshots -- http://127.0.0.1:8460 docs/screenshots [NAME=PATH[@WIDTHxHEIGHT]]...`

use std::path::Path;

use thirtyfour::prelude::*;

#[path = "../tests/support/browser.rs"]
mod browser;

/// Each main view of the demo shop: name, path, page size.
const VIEWS: [&str; 18] = [
    "yard=/",
    "job=/jobs/1@1280x1000",
    "intake=/jobs/6/intake@1280x1300",
    "load=/jobs/6/load@1280x1100",
    "load-phone=/jobs/6/load@390x1150",
    "tape=/jobs/6/tape@1280x1500",
    "look-over=/jobs/6/look-over@1280x1200",
    "verdict=/jobs/6/verdict@1280x1250",
    "aim=/jobs/4/aim",
    "options=/jobs/4/options@1280x1300",
    "over-a-rating=/jobs/2/options",
    "proof=/jobs/1/proof@1280x1300",
    "trailer=/jobs/5/options@1280x1150",
    "sums=/sums/shaft?drop=5&span=57.15&gearbox=3&pinion=1&place=below@1280x800",
    "tape-phone=/jobs/4/tape@390x844",
    "bench=/jobs/7/bench?load=1634@1280x1900",
    "re-arch=/jobs/7/bench/re-arch@1280x1150",
    "arching-sheet=/jobs/7/bench/sheet?tube=3.5&plate=1/2&block=&u_bolt=9/16@794x1123 on paper",
];

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
    browser.close().await;
}

async fn take(browser: &browser::Browser, address: &str, folder: &Path, views: &[String]) -> WebDriverResult<()> {
    browser.page.goto(format!("{address}/who")).await?;
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
        browser.page.goto(format!("{address}{path}")).await?;
        browser.page.execute("return document.fonts.ready", vec![]).await?;
        browser.page.screenshot(&folder.join(format!("{name}.png"))).await?;
    }
    Ok(())
}
