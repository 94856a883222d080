//! Wise Badger's pages, drawings and command line.
//!
//! A request flows one way: a handler in [`pages`] takes it in, checks its form with [`form`], asks the
//! store and the mechanics, and fills a page struct whose fields are ready to print ([`view`],
//! [`drawing`]); the template only places them. Rules and sums live in the mechanics crate, SQL in the
//! store. [`routes`] lists every address.

pub mod command;
mod correction;
mod demo_data;
mod device_units;
mod drawing;
mod error;
mod form;
mod full_size;
mod gate;
mod guard;
mod job_route;
mod keys;
mod log;
mod one_line;
mod pages;
mod paper_pdf;
mod password;
mod photo;
mod reckoning;
mod rights;
mod routes;
mod server;
mod session_store;
mod settings;
mod shell;
mod sums;
mod turns;
mod upload;
mod view;
mod worked_out;
mod worker;

pub use demo_data::load as load_demo_data;
pub use rights::Right;
pub use routes::{ADDRESSES, Address};
pub use server::serve;
pub use settings::Settings;
