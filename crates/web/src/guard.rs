//! What every answer carries, and which requests are not taken at all.

use std::net::IpAddr;

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::{self, HeaderName, HeaderValue};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::web::Data;
use actix_web::{Error, HttpMessage, HttpRequest, ResponseError};
use tracing_actix_web::RequestId;

use crate::error::WebError;
use crate::keys::BehindTls;
use crate::log;

/// Everything comes from this server. Bootstrap's style sheet draws its marks from `data:` pictures.
pub(crate) const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; \
                      connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

/// The pages ask for nothing of the device but what a person types, and a file they pick.
const PERMISSIONS: &str = "accelerometer=(), autoplay=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), \
                           magnetometer=(), microphone=(), midi=(), payment=(), usb=(), serial=(), bluetooth=()";

/// Headers of every answer.
pub(crate) fn headers(behind_tls: bool) -> DefaultHeaders {
    let headers = DefaultHeaders::new()
        .add((header::CONTENT_SECURITY_POLICY, POLICY))
        .add((header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .add((header::REFERRER_POLICY, "same-origin"))
        .add((header::X_FRAME_OPTIONS, "DENY"))
        .add((HeaderName::from_static("permissions-policy"), PERMISSIONS));
    if behind_tls { headers.add((header::STRICT_TRANSPORT_SECURITY, "max-age=31536000")) } else { headers }
}

/// The names this server answers to.
#[derive(Debug, Clone)]
pub(crate) struct Hosts(Vec<String>);

impl Hosts {
    /// Names as told, and those of this machine to itself.
    pub(crate) fn new(told: &[String]) -> Self {
        let loopback = ["localhost", "127.0.0.1", "[::1]"].map(str::to_owned);
        Hosts(told.iter().map(|name| name.to_ascii_lowercase()).chain(loopback).collect())
    }

    /// Whether a request's `Host` names this server; its port does not matter.
    fn has(&self, host: &str) -> bool {
        let end = host.rfind(':').filter(|colon| host.get(*colon..).is_some_and(|rest| !rest.contains(']')));
        let name = end.and_then(|end| host.get(..end)).unwrap_or(host).trim_end_matches('.').to_ascii_lowercase();
        self.0.contains(&name)
    }
}

/// Turns away what was sent to another name: a page elsewhere that had a browser look here under its own.
pub(crate) async fn known_host_only(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let host = request.headers().get(header::HOST).and_then(|host| host.to_str().ok()).unwrap_or_default().to_owned();
    if request.app_data::<Data<Hosts>>().is_some_and(|hosts| hosts.has(&host)) {
        return Ok(next.call(request).await?.map_into_boxed_body());
    }
    log::security("unknown host", &host);
    Ok(refused(request, &WebError::UnknownHost))
}

/// Turns away a form sent from another site's page.
pub(crate) async fn same_site_only(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    if request.method().is_safe() || comes_from_here(&request) {
        return Ok(next.call(request).await?.map_into_boxed_body());
    }
    log::security("cross-site", request.path());
    Ok(refused(request, &WebError::AnotherSite))
}

fn refused(request: ServiceRequest, why: &WebError) -> ServiceResponse<BoxBody> {
    let (request, _) = request.into_parts();
    ServiceResponse::new(request, why.error_response())
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

/// Gives every failure a page, the sessions' own too, which otherwise end with an empty answer; and every answer its number.
pub(crate) async fn a_page_for_every_failure(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let id = request.extensions().get::<RequestId>().map(ToString::to_string);
    let answer = next.call(request).await.map_err(|error| match error.as_error::<WebError>() {
        Some(_) => error,
        None => WebError::of_a_layer(&error).into(),
    });
    let mut answer = answer?.map_into_boxed_body();
    if let Some(id) = id.and_then(|id| HeaderValue::from_str(&id).ok()) {
        answer.headers_mut().insert(HeaderName::from_static("x-request-id"), id);
    }
    Ok(answer)
}

/// The address that a request came from, as far as this server can tell: behind a proxy that hides what is sent, by the last that it
/// passed on. Of an IPv6 address its network counts, of which one household has all.
pub(crate) fn address_of(request: &HttpRequest) -> String {
    let behind_proxy = request.app_data::<Data<BehindTls>>().is_some_and(|tls| tls.0);
    let passed_on = request.headers().get("x-forwarded-for").and_then(|value| value.to_str().ok());
    let passed_on = passed_on.and_then(|all| all.rsplit(',').next()).and_then(|last| last.trim().parse::<IpAddr>().ok());
    let address = passed_on.filter(|_| behind_proxy).or_else(|| request.peer_addr().map(|address| address.ip()));
    match address {
        Some(IpAddr::V6(address)) => format!("{:x?}", address.segments().first_chunk::<4>()),
        Some(IpAddr::V4(address)) => address.to_string(),
        None => String::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_server_answers_to_its_own_names_only() {
        let hosts = Hosts::new(&["Springs.Example".to_owned()]);
        for ours in ["127.0.0.1:8460", "localhost", "[::1]:80", "springs.example", "springs.example.:443", "SPRINGS.example:1"] {
            assert!(hosts.has(ours), "{ours}");
        }
        for other in ["", "evil.example", "127.0.0.1.evil.example", "springs.example.evil", "[::1", "::1"] {
            assert!(!hosts.has(other), "{other}");
        }
    }
}
