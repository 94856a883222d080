//! What a visitor is told when a page cannot be given.

use actix_session::storage::SaveError;
use actix_web::error::InternalError;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY, ContentType, LOCATION, RETRY_AFTER};
use actix_web::{HttpRequest, HttpResponse, ResponseError};
use askama::Template;
use wise_badger_store::{DieselError, StoreError};

use crate::guard::POLICY;
use crate::photo::PhotoError;
use crate::rights::Right;

/// Why a page cannot be given.
#[derive(Debug, thiserror::Error)]
pub(crate) enum WebError {
    /// Nobody is signed in; leads to the sign-in page and back to this path.
    #[error("nobody is signed in")]
    NobodyWorking {
        /// Where they were going.
        wanted: String,
    },
    /// Their role does not have the right that it takes.
    #[error("not allowed: {0:?}")]
    NotAllowed(Right),
    /// A link that lets nobody in: used, taken back, too old, or never made.
    #[error("a link that is good for nothing")]
    LinkUsed,
    /// What was to be shown once more was not theirs.
    #[error("not shown again who they are")]
    NotShownAgain,
    /// There is nothing at that address.
    #[error("no such {0}")]
    NotFound(&'static str),
    /// The request is not one a page of ours sends.
    #[error("malformed request: {0}")]
    Malformed(String),
    /// More was sent than a form holds.
    #[error("the request is too large")]
    TooLarge,
    /// A file has too many bytes.
    #[error("the file is over {limit} bytes")]
    UploadTooLarge {
        /// How many it may have.
        limit: u64,
    },
    /// What was sent is no photograph.
    #[error(transparent)]
    NoPhoto(PhotoError),
    /// Who is working could not be kept.
    #[error("the session could not be kept")]
    SessionNotKept,
    /// The request was sent to a name that is not this server's.
    #[error("sent to another host")]
    UnknownHost,
    /// Too many tries.
    #[error("too many tries")]
    TooOften,
    /// The sender, or the program, took too long.
    #[error("it took too long")]
    TooSlow,
    /// More is asked for than can be worked out at once.
    #[error("too much is asked for at once")]
    Busy,
    /// Whoever asked has gone; nobody reads this.
    #[error("the visitor has gone")]
    VisitorGone,
    /// A fault of the program's.
    #[error("a fault of the program: {0}")]
    Failed(String),
    /// A job's record cannot be read by this program.
    #[error("the record of job {number} cannot be read: {source}")]
    RecordUnreadable {
        /// The job's number.
        number: i32,
        /// What about it.
        source: StoreError,
    },
    /// The connection to the database was lost while saving, and whether it was saved cannot be found out now.
    #[error("it is not known whether this was saved")]
    NotKnownWhetherSaved,
    /// The form was sent from another site's page.
    #[error("sent from another site")]
    AnotherSite,
    /// The job is not at the point where that can be done.
    #[error("{0}")]
    NotNow(&'static str),
    /// What was asked for was not done, and why.
    #[error("{0}")]
    Refused(String),
    /// The store could not do it.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// A template failed, which is a fault of ours.
    #[error("a page could not be drawn")]
    Drawing(#[from] askama::Error),
}

/// What a finished job says to every change.
pub(crate) const FINISHED: &str = "This job is finished, and closed to changes. Nothing was saved.";

impl WebError {
    /// Nobody is signed in; where they wanted to go, as far as it can be gone to later.
    pub(crate) fn nobody_working(request: &HttpRequest) -> Self {
        let path = request.uri().path_and_query().map_or("/", |path| path.as_str());
        let wanted = if request.method().is_safe() { path } else { request.uri().path() };
        WebError::NobodyWorking { wanted: wanted.to_owned() }
    }

    /// What went wrong in a layer round the pages, by the store's error that lies under it.
    pub(crate) fn of_a_layer(error: &actix_web::Error) -> Self {
        let status = error.as_response_error().status_code();
        if status.is_client_error() {
            return WebError::Malformed(error.to_string());
        }
        // The session's store hands its error over in words alone.
        let cause = format!("{error:?}");
        tracing::error!(cause, "a layer failed");
        match error.as_error::<InternalError<SaveError>>() {
            Some(_) => WebError::SessionNotKept,
            None => WebError::Store(StoreError::Unreachable(cause.into())),
        }
    }
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
    /// A way on that is not the yard: address and words.
    way: Option<(String, &'static str)>,
}

impl WebError {
    /// Title, what happened, what to do next.
    fn words(&self) -> (&'static str, String, &'static str) {
        match self {
            WebError::NobodyWorking { .. } => ("Sign in", "Sign in first.".to_owned(), "Go to the sign-in page."),
            WebError::NotAllowed(right) => (
                "Not yours to do",
                format!("{} Nothing was saved.", right.words()),
                "Ask one of them to do it, or an owner to change what you are in the shop.",
            ),
            WebError::LinkUsed => (
                "This link is good for nothing",
                "It was used, taken back or is too old: each is good once, and for a while.".to_owned(),
                "Ask whoever gave it to you for another.",
            ),
            WebError::NotShownAgain => (
                "Not confirmed",
                "That was not your password, or on a shared tablet your PIN. Nothing was saved.".to_owned(),
                "Go back and type it again.",
            ),
            WebError::Store(StoreError::LastOwner) => (
                "An owner stays",
                "A shop keeps at least one owner, who says who works in it. Nothing was saved.".to_owned(),
                "Make somebody else an owner first.",
            ),
            WebError::Store(StoreError::StaleRow { what }) => (
                "Changed meanwhile",
                format!("Somebody changed this {what} after the page was opened. Nothing of yours was saved."),
                "Go back, reload, and do it again on what stands there now.",
            ),
            WebError::Store(StoreError::Overlaps { what }) => (
                "Taken then",
                format!("At that time {what} is taken. Nothing was booked."),
                "Go back and take another time or another bay.",
            ),
            WebError::Store(StoreError::Taken { what, number }) => (
                "Taken",
                format!("There is already a {what} “{number}”. Nothing was saved."),
                "Go back and take another.",
            ),
            WebError::NotFound(what) | WebError::Store(StoreError::NotFound(what)) => {
                ("Not here", format!("There is no such {what} in this shop."), "Check the number, or pick it from the yard.")
            }
            WebError::Malformed(_) => (
                "Not understood",
                "That request is not one of this program's forms. Nothing was saved.".to_owned(),
                "Go back to the page, reload it, and send it again.",
            ),
            WebError::UploadTooLarge { limit } => (
                "Too large",
                format!("That file is over {} MB. Nothing was kept.", limit / 1_000_000),
                "Send a smaller one.",
            ),
            WebError::SessionNotKept => (
                "Not signed in",
                "Who is working could not be kept: the records cannot be reached, or take no changes at present.".to_owned(),
                "Wait a moment and sign in again; if it stays so, tell whoever looks after the program.",
            ),
            WebError::UnknownHost => (
                "Not this server",
                "This address is not one that this program answers to.".to_owned(),
                "Open it by the name it was set up with, or name this one with --host when it is started.",
            ),
            WebError::TooOften => (
                "Too many tries",
                "There were too many tries that failed. Nobody is let in this way for now.".to_owned(),
                "Wait a quarter of an hour, or have an owner give you a link to set your password anew.",
            ),
            WebError::TooSlow => (
                "Too slow",
                "It took too long to arrive, so it was not taken. What you typed is still in its form.".to_owned(),
                "Look whether it was saved, and send it again when the connection is better.",
            ),
            WebError::Busy | WebError::Store(StoreError::Busy(_)) => (
                "Busy",
                "Too much is going on at once, so nothing was saved. What you typed is still in its form.".to_owned(),
                "Wait a moment and try again.",
            ),
            WebError::RecordUnreadable { number, .. } => (
                "This job's record cannot be read",
                format!("Something on the record of job {number} is not as this program writes it. Every other job is as it was."),
                "Nothing of it is lost: keep its record as it stands, and show it to whoever looks after the program.",
            ),
            WebError::NotKnownWhetherSaved | WebError::Store(StoreError::OutcomeUnknown(_)) => (
                "Not known whether it was saved",
                "The records were lost sight of while this was being saved: it may be on file, or not. What you typed is still in \
                 its form."
                    .to_owned(),
                "Open the page again in a moment and look what stands there; sending the same once more does no harm.",
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
            WebError::Refused(why) => ("Not saved", why.clone(), "Go back, reload, and do it again on what stands there now."),
            WebError::NotNow(why) => ("Not yet", (*why).to_owned(), "Go back to the job and see what is next."),
            WebError::Store(StoreError::Stale { by, .. }) => (
                "Saved by somebody else",
                format!("{by} saved this job after the page was opened. Nothing of yours was saved."),
                "Go back, reload, and do it again on the new figures.",
            ),
            WebError::Store(StoreError::Finished) => ("Finished", FINISHED.to_owned(), "Take the job up again on its Proof page first."),
            WebError::Store(StoreError::Full { what, most }) => (
                "The list is full",
                format!("{most} {what} are all that one job holds. Nothing was saved."),
                "Take one off that is not needed, and do it again.",
            ),
            WebError::Store(StoreError::Unreachable(_)) => (
                "No records",
                "The records cannot be reached; what you typed is still in its form. Nothing was saved.".to_owned(),
                "Wait a moment and send it again; it comes back by itself.",
            ),
            WebError::Store(StoreError::ReadOnly(_)) => (
                "No changes now",
                "The records take no changes at present. Nothing was saved; what you typed is still in its form.".to_owned(),
                "Read on, and tell whoever looks after the program that the database is read-only.",
            ),
            WebError::Store(StoreError::DiskFull(_)) => (
                "The disk is full",
                "There is no room left where the records are. Nothing was saved; what you typed is still in its form.".to_owned(),
                "Tell whoever looks after the program to make room on the database's disk, and send it again.",
            ),
            WebError::Store(_) | WebError::Drawing(_) | WebError::Failed(_) | WebError::VisitorGone => (
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
            WebError::NotFound(_) | WebError::LinkUsed | WebError::Store(StoreError::NotFound(_)) => StatusCode::NOT_FOUND,
            WebError::Malformed(_) => StatusCode::BAD_REQUEST,
            WebError::TooLarge | WebError::UploadTooLarge { .. } => StatusCode::PAYLOAD_TOO_LARGE,
            WebError::UnknownHost => StatusCode::MISDIRECTED_REQUEST,
            WebError::TooOften => StatusCode::TOO_MANY_REQUESTS,
            WebError::TooSlow => StatusCode::REQUEST_TIMEOUT,
            WebError::NoPhoto(_) => StatusCode::UNPROCESSABLE_ENTITY,
            WebError::AnotherSite | WebError::NotAllowed(_) | WebError::NotShownAgain => StatusCode::FORBIDDEN,
            WebError::NotNow(_)
            | WebError::Refused(_)
            | WebError::Store(
                StoreError::Stale { .. }
                | StoreError::StaleRow { .. }
                | StoreError::Overlaps { .. }
                | StoreError::Finished
                | StoreError::Full { .. }
                | StoreError::LastOwner
                | StoreError::Taken { .. },
            ) => StatusCode::CONFLICT,
            WebError::Busy
            | WebError::SessionNotKept
            | WebError::NotKnownWhetherSaved
            | WebError::Store(
                StoreError::Unreachable(_)
                | StoreError::Busy(_)
                | StoreError::OutcomeUnknown(_)
                | StoreError::ReadOnly(_)
                | StoreError::DiskFull(_),
            ) => StatusCode::SERVICE_UNAVAILABLE,
            WebError::RecordUnreadable { .. }
            | WebError::Store(_)
            | WebError::Drawing(_)
            | WebError::Failed(_)
            | WebError::VisitorGone => StatusCode::INTERNAL_SERVER_ERROR,
        }
    }

    fn error_response(&self) -> HttpResponse {
        let mut answer = HttpResponse::build(self.status_code());
        if let WebError::NobodyWorking { wanted } = self {
            let query = form_urlencoded::Serializer::new(String::new()).append_pair("next", wanted).finish();
            return answer.insert_header((LOCATION, format!("/sign-in?{query}"))).finish();
        }
        let (title, what, next) = self.words();
        let way = match self {
            WebError::RecordUnreadable { number, .. } => {
                Some((format!("/jobs/{number}/record.json"), "Keep the record as it stands"))
            }
            _ => None,
        };
        if matches!(self, WebError::TooOften | WebError::Busy) {
            let seconds = if matches!(self, WebError::Busy) { "60" } else { "900" };
            answer.insert_header((RETRY_AFTER, seconds));
        }
        let page = ErrorPage { title, what: &what, next, way }.render();
        // The page about an error must not fail in its turn.
        // Also where a failure passes by the layer that gives every answer its headers.
        answer.insert_header((CACHE_CONTROL, "no-store")).insert_header((CONTENT_SECURITY_POLICY, POLICY));
        answer.insert_header(ContentType::html()).body(page.unwrap_or_else(|_| format!("{what} {next}")))
    }
}
