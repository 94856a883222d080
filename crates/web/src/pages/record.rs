//! A job's record as it stands in its rows: what is left to take along where this program cannot read it.

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, ContentType};
use actix_web::web::{Data, Path};
use wise_badger_store::{Database, JobNumber, job_record};

use crate::error::WebError;
use crate::worker::Worker;

pub(crate) async fn send(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let (shop, job) = (worker.shop_id(), JobNumber(*number));
    let record = database.read(move |connection| job_record::as_it_stands(connection, shop, job)).await?;
    let name = format!("attachment; filename=\"job-{number}-record.json\"");
    Ok(HttpResponse::Ok()
        .insert_header(ContentType::json())
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, name))
        .body(format!("{record:#}")))
}
