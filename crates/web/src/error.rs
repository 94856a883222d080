//! What a visitor is told when a page cannot be given.

use actix_web::http::StatusCode;
use actix_web::http::header::{ContentType, LOCATION};
use actix_web::{HttpResponse, ResponseError};
use askama::Template;
use wise_badger_store::{DieselError, StoreError};

use crate::photo::PhotoError;

/// Why a page cannot be given.
#[derive(Debug, thiserror::Error)]
pub(crate) enum WebError {
    /// Nobody has said who is working; leads to the picker and back to this path.
    #[error("nobody is signed on")]
    NobodyWorking {
        /// Where they were going.
        wanted: String,
    },
    /// There is nothing at that address.
    #[error("no such {0}")]
    NotFound(&'static str),
    /// The request is not one a page of ours sends.
    #[error("malformed request: {0}")]
    Malformed(String),
    /// More was sent than a form holds.
    #[error("the request is too large")]
    TooLarge,
    /// A photograph has too many bytes.
    #[error("the photograph is too large")]
    PhotoTooLarge,
    /// What was sent is no photograph.
    #[error(transparent)]
    NoPhoto(PhotoError),
    /// The form was sent from another site's page.
    #[error("sent from another site")]
    AnotherSite,
    /// The job is not at the point where that can be done.
    #[error("{0}")]
    NotNow(&'static str),
    /// The store could not do it.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// A template failed, which is a fault of ours.
    #[error("a page could not be drawn")]
    Drawing(#[from] askama::Error),
}

impl From<DieselError> for WebError {
    fn from(error: DieselError) -> Self {
        WebError::Store(StoreError::from(error))
    }
}

#[derive(Template)]
#[template(path = "error.html")]
struct ErrorPage<'a> {
    title: &'a str,
    what: &'a str,
    next: &'a str,
}

impl WebError {
    /// Title, what happened, what to do next.
    fn words(&self) -> (&'static str, String, &'static str) {
        match self {
            WebError::NobodyWorking { .. } => ("Who is working?", "Pick your name first.".to_owned(), "Go to the picker."),
            WebError::NotFound(what) | WebError::Store(StoreError::NotFound(what)) => {
                ("Not here", format!("There is no such {what} in this shop."), "Check the number, or pick it from the yard.")
            }
            WebError::Malformed(_) => (
                "Not understood",
                "That request is not one of this program's forms. Nothing was saved.".to_owned(),
                "Go back to the page, reload it, and send it again.",
            ),
            WebError::PhotoTooLarge => (
                "Too large",
                "That photograph is over 16 MB. Nothing was kept.".to_owned(),
                "Send a smaller one; a phone's own camera makes pictures of 2 to 8 MB.",
            ),
            WebError::NoPhoto(error) => ("No photograph", error.to_string(), "Go back, choose another file, and send it."),
            WebError::TooLarge => (
                "Too much at once",
                "More was sent than a form holds. Nothing was saved.".to_owned(),
                "Go back, shorten what was typed, and send it again.",
            ),
            WebError::AnotherSite => (
                "Not taken",
                "That form was sent from another site's page. Nothing was saved.".to_owned(),
                "Open the page here and send it from here.",
            ),
            WebError::NotNow(why) => ("Not yet", (*why).to_owned(), "Go back to the job and see what is next."),
            WebError::Store(StoreError::Stale { by, .. }) => (
                "Saved by somebody else",
                format!("{by} saved this job after the page was opened. Nothing of yours was saved."),
                "Go back, reload, and do it again on the new figures.",
            ),
            WebError::Store(StoreError::Unreachable(_)) => (
                "No database",
                "The database does not answer. Nothing was saved.".to_owned(),
                "Wait a moment and send it again; what you typed is kept on this device.",
            ),
            WebError::Store(_) | WebError::Drawing(_) => (
                "Our fault",
                "Something went wrong in the program. Nothing was saved.".to_owned(),
                "Try again; if it happens twice, tell whoever looks after the program.",
            ),
        }
    }
}

impl ResponseError for WebError {
    fn status_code(&self) -> StatusCode {
        match self {
            WebError::NobodyWorking { .. } => StatusCode::SEE_OTHER,
            WebError::NotFound(_) | WebError::Store(StoreError::NotFound(_)) => StatusCode::NOT_FOUND,
            WebError::Malformed(_) => StatusCode::BAD_REQUEST,
            WebError::TooLarge | WebError::PhotoTooLarge => StatusCode::PAYLOAD_TOO_LARGE,
            WebError::NoPhoto(_) => StatusCode::UNPROCESSABLE_ENTITY,
            WebError::AnotherSite => StatusCode::FORBIDDEN,
            WebError::NotNow(_) | WebError::Store(StoreError::Stale { .. }) => StatusCode::CONFLICT,
            WebError::Store(StoreError::Unreachable(_)) => StatusCode::SERVICE_UNAVAILABLE,
            WebError::Store(_) | WebError::Drawing(_) => StatusCode::INTERNAL_SERVER_ERROR,
        }
    }

    fn error_response(&self) -> HttpResponse {
        let mut answer = HttpResponse::build(self.status_code());
        if let WebError::NobodyWorking { wanted } = self {
            let query = form_urlencoded::Serializer::new(String::new()).append_pair("next", wanted).finish();
            return answer.insert_header((LOCATION, format!("/who?{query}"))).finish();
        }
        let (title, what, next) = self.words();
        let page = ErrorPage { title, what: &what, next }.render();
        // The page about an error must not fail in its turn.
        answer.insert_header(ContentType::html()).body(page.unwrap_or_else(|_| format!("{what} {next}")))
    }
}
