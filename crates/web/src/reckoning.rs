//! Sums and drawings run here, off the threads that answer: a bounded number at once, the others wait in turn, and what nobody
//! waits for any more is not worked out to its end.

use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, LazyLock};
use std::time::Duration;

use actix_web::HttpResponse;

use crate::error::WebError;
use crate::pages::Page;
use crate::turns::Turns;

/// Longest wait for a turn.
const LONGEST_WAIT: Duration = Duration::from_secs(10);

/// One turn a core: the cores are the process's, whatever else it serves.
static TURNS: LazyLock<Turns> =
    LazyLock::new(|| Turns::new(std::thread::available_parallelism().map_or(2, usize::from), LONGEST_WAIT));

/// Whether the visitor who asked has gone.
#[derive(Debug, Clone, Default)]
pub(crate) struct Gone(Arc<AtomicBool>);

impl Gone {
    /// Between two parts of a longer work: goes on only while somebody waits for it.
    ///
    /// # Errors     [`WebError::VisitorGone`]
    pub(crate) fn check(&self) -> Result<(), WebError> {
        if self.0.load(Ordering::Relaxed) { Err(WebError::VisitorGone) } else { Ok(()) }
    }
}

/// Says so when what waits is dropped.
struct Waiting(Gone);

impl Drop for Waiting {
    fn drop(&mut self) {
        self.0.0.store(true, Ordering::Relaxed);
    }
}

/// Runs `work` when its turn comes.
///
/// # Errors     what `work` says; [`WebError::Busy`] when no turn came in time
pub(crate) async fn run<T: Send + 'static>(
    work: impl FnOnce(&Gone) -> Result<T, WebError> + Send + 'static,
) -> Result<T, WebError> {
    let turn = TURNS.take().await?;
    let gone = Gone::default();
    let _waiting = Waiting(gone.clone());
    let task = tokio::task::spawn_blocking(move || {
        let _turn = turn;
        work(&gone)
    });
    task.await.unwrap_or_else(|failed| Err(WebError::Failed(failed.to_string())))
}

/// Works out a page and draws it.
///
/// # Errors     as [`run`]
pub(crate) async fn drawn(work: impl FnOnce(&Gone) -> Result<Page, WebError> + Send + 'static) -> Result<HttpResponse, WebError> {
    Ok(run(work).await?.answer())
}

#[cfg(test)]
mod tests {
    use tokio::time::timeout;

    use super::*;

    #[tokio::test]
    async fn what_nobody_waits_for_any_more_stops_between_its_parts() {
        let (told, hears) = tokio::sync::oneshot::channel();
        let work = run(move |gone| {
            while gone.check().is_ok() {
                std::thread::sleep(Duration::from_millis(1));
            }
            let _ = told.send(());
            gone.check()
        });
        assert!(timeout(Duration::from_millis(20), work).await.is_err(), "it goes on while somebody waits");
        assert!(timeout(Duration::from_secs(5), hears).await.is_ok(), "and stops when nobody does");
    }

    #[tokio::test]
    async fn a_work_that_fails_outright_takes_nothing_down() {
        let failed = run(|_| -> Result<(), WebError> { panic!("a fault of ours") }).await;
        assert!(matches!(failed, Err(WebError::Failed(_))));
        assert_eq!(run(|_| Ok(1)).await.ok(), Some(1));
    }
}
