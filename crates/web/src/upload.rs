//! Forms that bring a file: read part by part, within bounds of size, number and time, and never longer than the sender sends.

use std::sync::LazyLock;
use std::time::Duration;

use actix_web::HttpRequest;
use actix_web::http::header::CONTENT_TYPE;
use actix_web::web::Payload;
use futures_util::TryStreamExt;
use multer::{Constraints, Multipart, SizeLimit};
use send_wrapper::SendWrapper;
use tokio::time::timeout;

use crate::error::WebError;
use crate::form::Posted;
use crate::turns::{Turn, Turns};

/// Most parts of one form.
const MOST_PARTS: usize = 16;
/// Most bytes of a part that is no file.
const LARGEST_TEXT: u64 = 4 * 1024;
/// Longest name of a part.
const LONGEST_NAME: usize = 100;
/// Longest silence of the sender.
const LONGEST_SILENCE: Duration = Duration::from_secs(15);
/// Longest time for all of it: 16 MB over a slow shop's Wi-Fi take a few minutes.
const LONGEST_BODY: Duration = Duration::from_secs(300);
/// Most files held at once; further senders wait with theirs.
const AT_ONCE: usize = 4;
/// Longest wait for a turn.
const LONGEST_WAIT: Duration = Duration::from_secs(30);

static TURNS: LazyLock<Turns> = LazyLock::new(|| Turns::new(AT_ONCE, LONGEST_WAIT));

/// A form with its file.
pub(crate) struct Upload {
    pub(crate) posted: Posted,
    pub(crate) file: Vec<u8>,
    /// Held as long as the file is.
    pub(crate) turn: Turn,
}

/// Reads a form whose file has a field of its own and at most so many bytes.
///
/// # Errors     [`WebError::UploadTooLarge`], [`WebError::Malformed`] (also for a body that ends too early), [`WebError::TooSlow`],
/// [`WebError::Busy`]
pub(crate) async fn read(request: &HttpRequest, payload: Payload, field: &str, largest: u64) -> Result<Upload, WebError> {
    timeout(LONGEST_BODY, read_parts(request, payload, field, largest)).await.unwrap_or(Err(WebError::TooSlow))
}

async fn read_parts(request: &HttpRequest, payload: Payload, field: &str, largest: u64) -> Result<Upload, WebError> {
    let kind = request.headers().get(CONTENT_TYPE).and_then(|kind| kind.to_str().ok()).unwrap_or_default();
    let boundary = multer::parse_boundary(kind).map_err(|error| WebError::Malformed(error.to_string()))?;
    let turn = TURNS.take().await?;
    let sizes = SizeLimit::new().whole_stream(largest + 64 * 1024).per_field(LARGEST_TEXT).for_field(field, largest);
    // A payload stays on its thread, and so does who reads it here.
    let body = SendWrapper::new(payload.map_err(|error| std::io::Error::other(error.to_string())));
    let mut parts = Multipart::with_constraints(body, boundary, Constraints::new().size_limit(sizes));
    let (mut pairs, mut file) = (Vec::new(), Vec::new());
    for count in 0.. {
        let Some(mut part) = heard(parts.next_field()).await? else { break };
        if count >= MOST_PARTS {
            return Err(WebError::Malformed(format!("more than {MOST_PARTS} parts")));
        }
        let name = part.name().unwrap_or_default().to_owned();
        if name.len() > LONGEST_NAME {
            return Err(WebError::Malformed(format!("a name of {} bytes", name.len())));
        }
        let mut bytes = Vec::new();
        while let Some(chunk) = heard(part.chunk()).await? {
            bytes.extend_from_slice(&chunk);
        }
        match name == field {
            true => file = bytes,
            false => pairs.push((name, String::from_utf8_lossy(&bytes).into_owned())),
        }
    }
    Ok(Upload { posted: Posted::new(request.path(), pairs, &file), file, turn })
}

/// What the sender sends next, unless nothing comes for too long.
async fn heard<T>(next: impl Future<Output = multer::Result<T>>) -> Result<T, WebError> {
    match timeout(LONGEST_SILENCE, next).await {
        Ok(Ok(heard)) => Ok(heard),
        Ok(Err(multer::Error::FieldSizeExceeded { limit, .. } | multer::Error::StreamSizeExceeded { limit })) => {
            Err(WebError::UploadTooLarge { limit })
        }
        Ok(Err(error)) => Err(WebError::Malformed(error.to_string())),
        Err(_silence) => Err(WebError::TooSlow),
    }
}
