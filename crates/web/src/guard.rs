//! What every answer carries, and which requests are not taken at all.

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header;
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{Error, ResponseError};

use crate::error::WebError;

/// Everything comes from this server. Bootstrap's style sheet draws its marks from `data:` pictures.
const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; \
                      connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

/// Headers of every answer.
pub(crate) fn headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add((header::CONTENT_SECURITY_POLICY, POLICY))
        .add((header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .add((header::REFERRER_POLICY, "same-origin"))
        .add((header::X_FRAME_OPTIONS, "DENY"))
}

/// Turns away a form sent from another site's page.
pub(crate) async fn same_site_only(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    if request.method().is_safe() || comes_from_here(&request) {
        return Ok(next.call(request).await?.map_into_boxed_body());
    }
    let (request, _) = request.into_parts();
    let answer = WebError::AnotherSite.error_response();
    Ok(ServiceResponse::new(request, answer))
}

fn comes_from_here(request: &ServiceRequest) -> bool {
    let text = |name: &str| request.headers().get(name).and_then(|value| value.to_str().ok());
    if let Some(site) = text("sec-fetch-site") {
        return site == "same-origin" || site == "none";
    }
    match (text("origin"), text("host")) {
        (None, _) => true,
        (Some(origin), Some(host)) => origin.split_once("://").is_some_and(|(_, origin_host)| origin_host == host),
        (Some(_), None) => false,
    }
}
