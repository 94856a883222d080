//! The gate before every handler: who is working, and whether their role has the right that the address takes.

use actix_session::SessionExt;
use actix_web::Error;
use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::middleware::Next;

use crate::error::WebError;
use crate::log;
use crate::rights::Right;
use crate::worker::Worker;

/// Lets a request through to its handler where whoever is working may do what the address takes.
pub(crate) async fn pass(
    right: Right,
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    if right != Right::Open {
        let worker = Worker::of_session(&request.get_session());
        let Some(worker) = worker else {
            return Err(WebError::nobody_working(request.request()).into());
        };
        if !right.is_of(worker.person.role) {
            log::security("not allowed", &format!("{} {}", worker.person.role.word(), request.path()));
            return Err(WebError::NotAllowed(right).into());
        }
    }
    Ok(next.call(request).await?.map_into_boxed_body())
}
