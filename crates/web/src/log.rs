//! What the log says of a request: a line each, with its number, who by number, what, how it ended and how long it took.
//!
//! No names, no texts, no query of an address: what people type stays out of it.

use std::time::Instant;

use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::{Error, HttpMessage};
use tracing::{Level, Span, field};
use tracing_actix_web::{RequestId, RootSpanBuilder};

/// Makes one line of each request.
pub(crate) struct RequestLine;

struct Begun(Instant);

impl RootSpanBuilder for RequestLine {
    fn on_request_start(request: &ServiceRequest) -> Span {
        request.extensions_mut().insert(Begun(Instant::now()));
        let id = request.extensions().get::<RequestId>().map(ToString::to_string);
        let (method, path) = (request.method().as_str(), plain(request.path()));
        tracing::info_span!("request", id, method, path, person = field::Empty)
    }

    fn on_request_end<B: MessageBody>(span: Span, outcome: &Result<ServiceResponse<B>, Error>) {
        let (status, begun, cause) = match outcome {
            Ok(answer) => {
                let begun = answer.request().extensions().get::<Begun>().map(|begun| begun.0);
                (answer.status(), begun, answer.response().error().map(ToString::to_string))
            }
            Err(error) => (error.as_response_error().status_code(), None, Some(error.to_string())),
        };
        let ms = begun.map(|begun| begun.elapsed().as_millis());
        let (status, cause) = (status.as_u16(), cause.unwrap_or_default());
        match level(status) {
            Level::ERROR => tracing::error!(parent: &span, status, ms, %cause),
            _ => tracing::info!(parent: &span, status, ms),
        }
    }
}

/// Only what is the program's or its database's own fault is an error.
fn level(status: u16) -> Level {
    let server = StatusCode::from_u16(status).is_ok_and(|status| status.is_server_error());
    if server { Level::ERROR } else { Level::INFO }
}

/// A path as one word of a line.
fn plain(path: &str) -> String {
    path.chars().take(200).map(|sign| if sign.is_ascii_graphic() { sign } else { '?' }).collect()
}

/// Notes who is working for the line of their request.
pub(crate) fn note_person(person: i64) {
    Span::current().record("person", person);
}

/// Something that whoever watches over the program wants to know, by the word it is counted by.
pub(crate) fn security(event: &'static str, detail: &str) {
    tracing::warn!(target: "wise_badger_web::security", event, detail = plain(detail));
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_faults_of_ours_are_errors_and_a_path_stays_on_its_line() {
        assert_eq!([200, 303, 404, 409, 422].map(level), [Level::INFO; 5]);
        assert_eq!([500, 503].map(level), [Level::ERROR; 2]);
        assert_eq!(plain("/jobs/4\nforged line"), "/jobs/4?forged?line");
    }
}
