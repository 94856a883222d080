//! The verdict: what the readings say, each figure with its sum.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_store::Database;

use super::job_frame::{JobFrame, as_chosen, found};
use super::{job_file, page};
use crate::error::WebError;
use crate::job_route::{Stage, missing_on_tape};
use crate::view::Figure;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::verdict::{height_figures, load_figures, rate_figures};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "verdict.html")]
struct VerdictPage {
    frame: JobFrame,
    missing: Vec<String>,
    overload: Option<OverloadWords>,
    heights: Vec<Figure>,
    loads: Vec<Figure>,
    rates: Vec<Figure>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let (units, survey) = found(&worker, &file);
    let template = VerdictPage {
        frame: JobFrame::new(&worker, &file, Some(Stage::Verdict), &as_chosen(&file, &survey)),
        missing: missing_on_tape(&survey),
        overload: overload_words(&survey, &file.names_aboard(), units),
        heights: height_figures(&survey, units),
        loads: load_figures(&survey, &file.names_aboard(), units),
        rates: rate_figures(&survey, units),
    };
    page(StatusCode::OK, &template)
}
