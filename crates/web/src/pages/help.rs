//! Help where it is needed: what a page is for, its keys, its words.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::Query;
use askama::Template;
use serde::Deserialize;

use super::{local, page};
use crate::error::WebError;
use crate::shell::Shell;
use crate::view::help::{Help, KEYS, help_of};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "help.html")]
struct HelpPage {
    shell: Shell,
    back: String,
    help: &'static Help,
    keys: &'static [(&'static str, &'static str)],
    words: Vec<(&'static str, &'static str)>,
}

#[derive(Deserialize)]
pub(crate) struct At {
    #[serde(default)]
    at: String,
}

pub(crate) async fn show(worker: Worker, at: Query<At>) -> Result<HttpResponse, WebError> {
    let back = local(&at.at).to_owned();
    let help = help_of(&back);
    let template =
        HelpPage { shell: Shell::new(&worker, "Help", "/help"), help, keys: KEYS, words: help.words().collect(), back };
    Ok(page(StatusCode::OK, &template)?.answer())
}
