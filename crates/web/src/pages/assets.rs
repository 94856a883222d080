//! Styles, scripts and fonts, which travel inside the program.

use actix_web::http::header::{CACHE_CONTROL, ETAG, IF_NONE_MATCH};
use actix_web::web::Path;
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::Embed;

use crate::error::WebError;

#[derive(Embed)]
#[folder = "static/"]
struct Assets;

pub(crate) async fn show(request: HttpRequest, path: Path<String>) -> Result<HttpResponse, WebError> {
    let asset = Assets::get(&path).ok_or(WebError::NotFound("file"))?;
    let tag: String = asset.metadata.sha256_hash().iter().take(12).map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("\"{tag}\"");
    let known = request.headers().get(IF_NONE_MATCH).and_then(|value| value.to_str().ok()) == Some(tag.as_str());
    let mut answer = if known { HttpResponse::NotModified() } else { HttpResponse::Ok() };
    answer.insert_header((ETAG, tag)).insert_header((CACHE_CONTROL, "no-cache"));
    if known {
        return Ok(answer.finish());
    }
    let kind = mime_guess::from_path(path.as_str()).first_or_octet_stream();
    Ok(answer.content_type(kind.essence_str()).body(asset.data.into_owned()))
}
