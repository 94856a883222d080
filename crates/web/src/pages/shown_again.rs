//! Asking somebody to show once more who they are, before something dangerous.

use actix_web::web::Data;
use askama::Template;
use wise_badger_store::Database;

use super::sign_in::tried_again;
use crate::error::WebError;
use crate::form::{Posted, SHOWN_AGAIN};
use crate::worker::{Again, Worker};

/// The field, where whoever is working has anything to show.
#[derive(Template)]
#[template(path = "parts/shown_again.html")]
pub(super) struct ShownAgain {
    /// Password or PIN; nothing is asked where they have neither.
    again: Option<Again>,
    name: &'static str,
    /// Names the field's form, where a page has several.
    of: &'static str,
}

impl askama::filters::HtmlSafe for ShownAgain {}

impl ShownAgain {
    pub(super) fn new(worker: &Worker, of: &'static str) -> Self {
        ShownAgain { again: worker.again, name: SHOWN_AGAIN, of }
    }
}

/// Goes on only where whoever is working shows who they are.
///
/// # Errors     [`WebError::NotShownAgain`], [`WebError::TooOften`]
pub(super) async fn must_be_shown(database: &Data<Database>, worker: &Worker, sent: Option<&str>) -> Result<(), WebError> {
    tried_again(database, worker, sent.unwrap_or_default()).await
}

/// What was sent in the field.
pub(super) fn sent(posted: &Posted) -> Option<&str> {
    posted.text(SHOWN_AGAIN)
}
