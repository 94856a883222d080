//! Whether the program is up, and whether it can serve: for whoever watches over it.

use actix_web::HttpResponse;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::web::Data;
use wise_badger_store::{Database, StoreError};

/// Up: says nothing of the records.
pub(crate) async fn up() -> HttpResponse {
    HttpResponse::Ok().insert_header((CACHE_CONTROL, "no-store")).body("up\n")
}

/// Ready: the records answer.
pub(crate) async fn ready(database: Data<Database>) -> HttpResponse {
    let answers: Result<(), StoreError> = database.read(wise_badger_store::answers).await;
    let mut answer = if answers.is_ok() { HttpResponse::Ok() } else { HttpResponse::ServiceUnavailable() };
    answer.insert_header((CACHE_CONTROL, "no-store")).body(if answers.is_ok() {
        "ready\n"
    } else {
        "the records do not answer\n"
    })
}
