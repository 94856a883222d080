//! How far a file has been taken in, for whoever waits for it.

use std::num::NonZeroUsize;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, LazyLock, Mutex, PoisonError};

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::web::Query;
use lru::LruCache;
use serde::Deserialize;
use wise_badger_store::ShopId;

use crate::worker::Worker;

/// Files that are told of at once: more than a shop takes in.
const MOST: NonZeroUsize = NonZeroUsize::new(32).expect("more than none");

/// The files by shop and by the sending that each came with.
type Running = Mutex<LruCache<(ShopId, String), Arc<Progress>>>;

static RUNNING: LazyLock<Running> = LazyLock::new(|| Mutex::new(LruCache::new(MOST)));

/// How far one file has come: parts done, of how many.
#[derive(Debug, Default)]
pub(super) struct Progress {
    done: AtomicUsize,
    of: AtomicUsize,
}

impl Progress {
    /// Of a file that just came, by the token of its sending.
    pub(super) fn begin(shop: ShopId, token: &str) -> Arc<Progress> {
        let progress = Arc::new(Progress::default());
        RUNNING.lock().unwrap_or_else(PoisonError::into_inner).put((shop, token.to_owned()), Arc::clone(&progress));
        progress
    }

    /// It is read, and so many parts are to be kept.
    pub(super) fn is_read(&self, parts: usize) {
        self.of.store(parts, Ordering::Relaxed);
    }

    /// So many of them are kept.
    pub(super) fn is_at(&self, done: usize) {
        self.done.store(done, Ordering::Relaxed);
    }
}

#[derive(Deserialize)]
pub(crate) struct Asked {
    token: String,
}

/// Parts done, of how many; nothing while the file is being read, or where none is.
pub(crate) async fn show(worker: Worker, asked: Query<Asked>) -> HttpResponse {
    let found = RUNNING.lock().unwrap_or_else(PoisonError::into_inner).get(&(worker.shop_id(), asked.token.clone())).cloned();
    let told = found.map(|progress| (progress.done.load(Ordering::Relaxed), progress.of.load(Ordering::Relaxed)));
    let text = told.filter(|(_, of)| *of > 0).map_or_else(String::new, |(done, of)| format!("{done} {of}"));
    HttpResponse::Ok().insert_header(ContentType::plaintext()).insert_header((CACHE_CONTROL, "no-store")).body(text)
}
