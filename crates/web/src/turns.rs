//! Turns at something that only so many may do at once: the others wait, and are told when they have waited too long.

use std::sync::Arc;
use std::time::Duration;

use tokio::sync::{OwnedSemaphorePermit, Semaphore};
use tokio::time::timeout;

use crate::error::WebError;

/// Held as long as the turn lasts.
pub(crate) type Turn = OwnedSemaphorePermit;

/// So many turns at once.
pub(crate) struct Turns {
    free: Arc<Semaphore>,
    longest_wait: Duration,
}

impl Turns {
    /// At most `at_once`, each waited for no longer than that.
    pub(crate) fn new(at_once: usize, longest_wait: Duration) -> Self {
        Turns { free: Arc::new(Semaphore::new(at_once)), longest_wait }
    }

    /// Waits for a turn.
    ///
    /// # Errors     [`WebError::Busy`] when none came in time
    pub(crate) async fn take(&self) -> Result<Turn, WebError> {
        match timeout(self.longest_wait, self.free.clone().acquire_owned()).await {
            Ok(Ok(turn)) => Ok(turn),
            _ => Err(WebError::Busy),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn who_waits_too_long_is_told_and_a_turn_given_back_is_the_next_ones() {
        let turns = Turns::new(1, Duration::from_millis(20));
        let first = turns.take().await.expect("nobody else is here");
        assert!(matches!(turns.take().await, Err(WebError::Busy)));
        drop(first);
        assert!(turns.take().await.is_ok());
    }
}
