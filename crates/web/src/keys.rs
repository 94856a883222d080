//! Long keys that a browser or a link holds, of which only the hash is ever kept.

use actix_web::HttpRequest;
use actix_web::cookie::{Cookie, SameSite, time::Duration};
use sha2::{Digest, Sha256};

use crate::error::WebError;

/// Letters and digits of a key, drawn by the thread's cryptographic generator: some 285 bits.
const LENGTH: usize = 48;
/// Browsers keep a cookie no longer than this.
const KEPT_DAYS: i64 = 400;

/// Makes a key.
pub(crate) fn new_key() -> String {
    rand::distr::SampleString::sample_string(&rand::distr::Alphanumeric, &mut rand::rng(), LENGTH)
}

/// What is kept of a key, or of any text that must not be read back.
pub(crate) fn hash(key: &str) -> String {
    Sha256::digest(key.as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// A cookie that holds a key.
#[derive(Debug, Clone, Copy)]
pub(crate) struct KeyCookie(&'static str);

/// By this one a device is known on which somebody has signed in before.
pub(crate) const DEVICE: KeyCookie = KeyCookie("wise_badger_device");
/// By this one a tablet is known that an owner let into the shop.
pub(crate) const TABLET: KeyCookie = KeyCookie("wise_badger_tablet");

/// Whether cookies are sent over TLS alone.
#[derive(Debug, Clone, Copy)]
pub(crate) struct BehindTls(pub(crate) bool);

impl KeyCookie {
    fn name(self, tls: BehindTls) -> String {
        // A browser keeps a cookie of this prefix only where it is sent over TLS, to this host and from its root.
        if tls.0 { format!("__Host-{}", self.0) } else { self.0.to_owned() }
    }

    /// The key that a browser sent, where it could be one.
    pub(crate) fn of(self, request: &HttpRequest) -> Option<String> {
        let tls = *request.app_data::<actix_web::web::Data<BehindTls>>()?.get_ref();
        let key = request.cookie(&self.name(tls))?.value().to_owned();
        (key.len() == LENGTH && key.bytes().all(|sign| sign.is_ascii_alphanumeric())).then_some(key)
    }

    /// What a browser is to keep.
    pub(crate) fn keep(self, key: &str, tls: BehindTls) -> Cookie<'static> {
        self.cookie(key.to_owned(), tls, Duration::days(KEPT_DAYS))
    }

    /// What makes a browser forget it.
    pub(crate) fn forget(self, tls: BehindTls) -> Cookie<'static> {
        self.cookie(String::new(), tls, Duration::ZERO)
    }

    fn cookie(self, value: String, tls: BehindTls, kept: Duration) -> Cookie<'static> {
        let cookie = Cookie::build(self.name(tls), value).path("/").same_site(SameSite::Lax).http_only(true);
        cookie.secure(tls.0).max_age(kept).finish()
    }
}

/// Lays a cookie on an answer.
pub(crate) fn lay(answer: &mut actix_web::HttpResponse, cookie: &Cookie<'static>) -> Result<(), WebError> {
    answer.add_cookie(cookie).map_err(|error| WebError::Malformed(error.to_string()))
}
