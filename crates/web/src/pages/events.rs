//! What happens in the shop, sent to open pages as it happens.

use std::time::Duration;

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING, CONTENT_TYPE, HeaderValue};
use actix_web::web::{Bytes, Data};
use futures_util::stream::unfold;
use tokio::sync::broadcast::Receiver;
use tokio::sync::broadcast::error::RecvError;
use tokio::sync::watch;
use tokio::time::{Instant, timeout_at};
use wise_badger_store::happening::Happening;
use wise_badger_store::{Database, PersonId, ShopId};

use crate::error::WebError;
use crate::worker::Worker;

/// A browser hears something at least so often, so that a connection that is gone is noticed at either end.
const HEARTBEAT: Duration = Duration::from_secs(20);
/// After so long a browser asks anew, and whoever has signed out meanwhile hears no more.
const LONGEST: Duration = Duration::from_secs(600);

struct Listening {
    heard: Receiver<Happening>,
    shop: ShopId,
    person: PersonId,
    until: Instant,
    stopping: Stopping,
}

/// Turns true when the server is told to stop: streams then end, and keep nobody waiting.
#[derive(Debug, Clone)]
pub(crate) struct Stopping(pub(crate) watch::Receiver<bool>);

/// A stream of server-sent events: the number of the job that something happened to, 0 for anything else, and whether it was oneself.
pub(crate) async fn stream(database: Data<Database>, worker: Worker, stopping: Data<Stopping>) -> Result<HttpResponse, WebError> {
    let listening = Listening {
        heard: database.happenings(),
        shop: worker.shop_id(),
        person: worker.person.id,
        until: Instant::now() + LONGEST,
        stopping: stopping.get_ref().clone(),
    };
    let events = unfold((listening, true), |(mut listening, begins)| async move {
        if begins {
            let hello = Bytes::from_static(b"retry: 2000\n: listening\n\n");
            return Some((Ok::<_, actix_web::Error>(hello), (listening, false)));
        }
        let sent = next(&mut listening).await?;
        Some((Ok(sent), (listening, false)))
    });
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "text/event-stream"))
        .insert_header((CACHE_CONTROL, "no-store"))
        // What is packed is held back until there is enough of it.
        .insert_header((CONTENT_ENCODING, HeaderValue::from_static("identity")))
        .insert_header(("x-accel-buffering", "no"))
        .streaming(events))
}

/// The next thing to send; `None` when the browser is to ask anew.
async fn next(listening: &mut Listening) -> Option<Bytes> {
    let heartbeat = Instant::now() + HEARTBEAT;
    loop {
        if Instant::now() >= listening.until {
            return None;
        }
        let heard = tokio::select! {
            heard = timeout_at(heartbeat, listening.heard.recv()) => heard,
            _ = listening.stopping.0.wait_for(|stops| *stops) => return None,
        };
        match heard {
            Err(_silent) => return Some(Bytes::from_static(b": here\n\n")),
            Ok(Err(RecvError::Closed)) => return None,
            Ok(Ok(Happening::Unheard) | Err(RecvError::Lagged(_))) => return Some(event(0, false)),
            Ok(Ok(Happening::In { shop, job, by })) if shop == listening.shop => {
                return Some(event(job.map_or(0, |job| job.0), by == listening.person));
            }
            Ok(Ok(Happening::In { .. })) => {}
        }
    }
}

fn event(job: i32, own: bool) -> Bytes {
    Bytes::from(format!("data: {{\"job\":{job},\"own\":{own}}}\n\n"))
}
