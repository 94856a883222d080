//! The program in a real browser, as a technician works it.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod accessibility;
mod bench;
mod camper;
mod drafts;
mod finder;
mod keyboard;
mod load_plan;
mod phone;
mod plan;
mod printing;
mod route;
mod shelf;
mod shop_day;
mod states;
mod trailer;
mod what_if;
mod wrench;

#[path = "../support/browser.rs"]
mod browser;
#[path = "../support/half_ton.rs"]
mod half_ton;
#[path = "../support/site.rs"]
mod site;
#[path = "../support/workbench.rs"]
mod workbench;

use workbench::Workbench;
