//! The program's pages over HTTP, through its real routes and a database of its own.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod access;
mod aim;
mod as_bought;
mod attack;
mod bad_input;
mod bays;
mod bench;
mod bench_plan;
mod bench_sides;
mod bench_under_the_vehicle;
mod calls;
mod classes;
mod demo_is_our_own;
mod finder;
mod frame;
mod hand_cases;
mod handover;
mod intake;
mod ledger;
mod load_plan;
mod look_over;
mod overload;
mod plan;
mod plan_elsewhere;
mod proof;
mod roles;
mod saving;
mod shelf;
mod sign_in;
mod spacers_and_shackles;
mod states;
mod stories;
mod sums;
mod sums_reproduce;
mod tape;
mod units;
mod what_if;
mod wrench;
mod yard;

#[path = "../support/half_ton.rs"]
mod half_ton;
#[path = "../support/site.rs"]
mod site;
#[path = "../support/visitor.rs"]
mod visitor;

use half_ton::{INTAKE, walk};
use site::Site;
use visitor::{Page, Visitor};

/// An empty shop with Ada at work in it. The site must be held as long as she works.
async fn shop() -> (Site, Visitor) {
    let site = Site::empty();
    let ada = Visitor::working(&site.address, "Ada").await;
    (site, ada)
}

/// Opens the half-ton's job and gives its path.
async fn open_half_ton(visitor: &Visitor) -> String {
    let page = visitor.fill("/jobs/new", &INTAKE).await;
    assert!(page.path.ends_with("/tape"), "{}: {}", page.path, page.text("main"));
    page.path.trim_end_matches("/tape").to_owned()
}

/// The half-ton's tape as the form takes it: both sides alike, hub to arch, a weight right over the rear axle.
fn tape<'a>(rear: [&'a str; 2], weight: &'a str) -> Vec<(&'static str, &'a str)> {
    let mut values = vec![("datum", "hub_to_arch"), ("load_kind", "placed"), ("load_weight", weight), ("load_distance", "0")];
    values.extend(walk(["20 1/2", "20 1/2"], rear));
    values
}

/// A half-ton's job, measured as in the hand sums: 18 13/16 in with 1,000 lb over the axle.
async fn measured_half_ton(visitor: &Visitor) -> String {
    let job = open_half_ton(visitor).await;
    let page = visitor.fill(&format!("{job}/tape"), &tape(["21 1/2", "18 13/16"], "1,000")).await;
    assert!(page.path.ends_with("/verdict"), "{}: {}", page.path, page.text("main"));
    job
}

/// Whether a figure that is printed lies within a share of what a hand makes of it: what the class usually has draws it a little.
fn near(figure: &str, by_hand: f64, share: f64) -> bool {
    let number: String = figure.chars().filter(|sign| sign.is_ascii_digit() || *sign == '.').collect();
    number.parse::<f64>().is_ok_and(|number| (number / by_hand - 1.0).abs() <= share)
}

/// Considers a correction and gives the page that shows its prediction.
async fn consider(visitor: &Visitor, job: &str, values: &[(&str, &str)]) -> Page {
    visitor.fill(&format!("{job}/options"), values).await
}

const BLOCK: [(&str, &str); 2] = [("kind", "lift_block"), ("thickness", "2")];
