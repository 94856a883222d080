//! Searches that are under way or were made lately, each kept for the next page that asks for the same.
//!
//! A search belongs to a job as it stands, a shelf as it stands, what counts, the day and the units. Whoever asks for the same joins it;
//! when anything of that is otherwise, another begins, and the one before is out of date.

use std::num::NonZeroUsize;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::sync::{Arc, LazyLock, Mutex, MutexGuard, OnceLock, PoisonError};
use std::time::{Duration, Instant};

use chrono::Utc;
use lru::LruCache;
use tokio::sync::Notify;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::finder::{Came, Found, Search, Watch, Weights, find};
use wise_badger_store::shelf::Stamp;
use wise_badger_store::{JobNumber, ShopId};

use crate::error::WebError;
use crate::reckoning;
use crate::view::Units;

/// Searches kept: more than a shop has open at once.
const MOST: NonZeroUsize = NonZeroUsize::new(48).expect("more than none");
/// A page shows what is found by then, and how far it has come.
const FIRST_LOOK: Duration = Duration::from_millis(250);
/// A search that nobody asked after for so long is not gone on with.
const NOBODY_WAITS: Duration = Duration::from_secs(20);
/// First results are put into order anew this often.
const SO_FAR_EVERY: Duration = Duration::from_millis(200);

/// What a search is about.
pub(super) struct Question {
    pub(super) shop: ShopId,
    pub(super) number: JobNumber,
    pub(super) work: Arc<Casework>,
    pub(super) shelf: Stamp,
    pub(super) weights: Weights,
    pub(super) today: String,
    pub(super) units: Units,
}

impl Question {
    fn is_the_same(&self, other: &Question) -> bool {
        let same_job = Arc::ptr_eq(&self.work, &other.work) || self.work.case().says_the_same(other.work.case());
        let (one, another) = ((self.shelf, &self.today, self.units), (other.shelf, &other.today, other.units));
        same_job && one == another && self.weights == other.weights
    }
}

/// One search.
pub(super) struct Looking {
    pub(super) id: u64,
    asked: Question,
    came: Mutex<Option<Came>>,
    so_far: Mutex<(Option<Arc<Found>>, Instant)>,
    /// When somebody last asked after it.
    wanted: Mutex<Instant>,
    called_off: AtomicBool,
    ended: OnceLock<Result<Arc<Found>, Fault>>,
    ends: Notify,
}

/// Why a search came to nothing.
enum Fault {
    Busy,
    Failed(String),
}

impl Fault {
    fn of(error: WebError) -> Self {
        match error {
            WebError::Busy => Fault::Busy,
            other => Fault::Failed(other.to_string()),
        }
    }

    fn as_error(&self) -> WebError {
        match self {
            Fault::Busy => WebError::Busy,
            Fault::Failed(what) => WebError::Failed(what.clone()),
        }
    }
}

/// By their keys; of one job several, since people may weigh and measure otherwise.
type Lately = LruCache<u64, Arc<Looking>>;

static LATELY: LazyLock<Mutex<Lately>> = LazyLock::new(|| Mutex::new(LruCache::new(MOST)));
/// Counted on from the clock, so that a page of before a restart knows no search of after it.
static NEXT: LazyLock<AtomicU64> = LazyLock::new(|| AtomicU64::new(Utc::now().timestamp_millis().unsigned_abs()));

fn lately() -> MutexGuard<'static, Lately> {
    LATELY.lock().unwrap_or_else(PoisonError::into_inner)
}

fn locked<T>(of: &Mutex<T>) -> MutexGuard<'_, T> {
    of.lock().unwrap_or_else(PoisonError::into_inner)
}

/// What a search has come to.
pub(super) enum Stands {
    /// It is found, or was called off: all that was found.
    Ended(Arc<Found>),
    /// It goes on: what is found by now, and how far it has come.
    GoesOn(Option<Arc<Found>>, Option<Came>),
}

impl Looking {
    /// The search for what is asked: the one under way or made lately, or another that begins now. `parts` are read for one that begins.
    pub(super) async fn join<F: Future<Output = Result<Vec<ShelfPart>, WebError>>>(
        asked: Question,
        parts: impl FnOnce() -> F,
    ) -> Result<Arc<Looking>, WebError> {
        let of_job = |looking: &Looking| (looking.asked.shop, looking.asked.number) == (asked.shop, asked.number);
        let same = lately().iter().map(|(_, looking)| looking).find(|of| of_job(of) && of.asked.is_the_same(&asked)).cloned();
        if let Some(looking) = same.filter(|looking| !looking.was_left()) {
            *locked(&looking.wanted) = Instant::now();
            lately().promote(&looking.id);
            return Ok(looking);
        }
        let parts = parts().await?;
        let looking = Arc::new(Looking {
            id: NEXT.fetch_add(1, Ordering::Relaxed),
            asked,
            came: Mutex::default(),
            so_far: Mutex::new((None, Instant::now())),
            wanted: Mutex::new(Instant::now()),
            called_off: AtomicBool::new(false),
            ended: OnceLock::new(),
            ends: Notify::new(),
        });
        lately().put(looking.id, Arc::clone(&looking));
        let begun = Arc::clone(&looking);
        tokio::spawn(async move {
            let work = Arc::clone(&begun);
            let found = reckoning::run(move |_| Ok(work.look(&parts))).await;
            let _ = begun.ended.set(found.map(Arc::new).map_err(Fault::of));
            begun.ends.notify_waiters();
        });
        Ok(looking)
    }

    fn look(&self, parts: &[ShelfPart]) -> Found {
        let Question { work, weights, today, units, .. } = &self.asked;
        let search = Search { work, shelf: parts, weights: *weights, today: Some(today), units: units.typed_in() };
        find(&search, self)
    }

    /// Whether it ended before its end since nobody waited for it any more.
    fn was_left(&self) -> bool {
        let cut_short =
            matches!(self.ended.get(), Some(Ok(found)) if found.called_off) || matches!(self.ended.get(), Some(Err(_)));
        cut_short && !self.called_off.load(Ordering::Relaxed)
    }

    /// Calls a search off: what was found by then stands. Nothing of another shop or job is called off.
    pub(super) fn call_off(id: u64, shop: ShopId, number: JobNumber) {
        if let Some(looking) = lately().peek(&id).filter(|of| (of.asked.shop, of.asked.number) == (shop, number)) {
            looking.called_off.store(true, Ordering::Relaxed);
        }
    }

    /// Forgets a search that was called off, so that the next page begins it anew.
    pub(super) fn forget(id: u64, shop: ShopId, number: JobNumber) {
        let mut lately = lately();
        if lately.peek(&id).is_some_and(|of| (of.asked.shop, of.asked.number) == (shop, number)) {
            lately.pop(&id);
        }
    }

    /// What it has come to, after the wait that a page has for it.
    ///
    /// # Errors     what went wrong in the search
    pub(super) async fn stands(&self) -> Result<Stands, WebError> {
        let _ = tokio::time::timeout(FIRST_LOOK, self.end()).await;
        self.now()
    }

    /// What it has come to by now.
    ///
    /// # Errors     what went wrong in the search
    pub(super) fn now(&self) -> Result<Stands, WebError> {
        match self.ended.get() {
            Some(Ok(found)) => Ok(Stands::Ended(Arc::clone(found))),
            Some(Err(fault)) => Err(fault.as_error()),
            None => Ok(Stands::GoesOn(locked(&self.so_far).0.clone(), *locked(&self.came))),
        }
    }

    /// All of it, however long it takes.
    ///
    /// # Errors     what went wrong in the search
    pub(super) async fn to_its_end(&self) -> Result<Arc<Found>, WebError> {
        loop {
            *locked(&self.wanted) = Instant::now();
            let _ = tokio::time::timeout(NOBODY_WAITS / 2, self.end()).await;
            if let Stands::Ended(found) = self.now()? {
                return Ok(found);
            }
        }
    }

    async fn end(&self) {
        let ends = self.ends.notified();
        if self.ended.get().is_none() {
            ends.await;
        }
    }
}

impl Watch for Looking {
    fn goes_on(&self) -> bool {
        !self.called_off.load(Ordering::Relaxed) && locked(&self.wanted).elapsed() < NOBODY_WAITS
    }

    fn comes(&self, came: Came) {
        *locked(&self.came) = Some(came);
    }

    fn found(&self, so_far: &dyn Fn() -> Found) {
        let due = {
            let last = locked(&self.so_far);
            last.0.is_none() || last.1.elapsed() >= SO_FAR_EVERY
        };
        if due {
            *locked(&self.so_far) = (Some(Arc::new(so_far())), Instant::now());
        }
    }
}

#[cfg(test)]
mod tests {
    use wise_badger_casework::case::Case;
    use wise_badger_casework::entry::{Currency, Typed, UnitWord};
    use wise_badger_casework::intake::Intake;
    use wise_badger_casework::survey::{RearWheels, VehicleClass};
    use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

    use super::*;

    /// Job 7 of a shop, with nothing read of it yet.
    fn question(shop: i64, label: &str) -> Question {
        let typed = |text: &str, unit, si| Typed { text: text.to_owned(), unit, si };
        let intake = Intake {
            label: label.to_owned(),
            class: VehicleClass::Van,
            rear_wheels: RearWheels::Single,
            wheelbase: typed("148", UnitWord::In, 3.7592),
            axle_spread: None,
            equalised: false,
            front_rating: typed("4,400", UnitWord::Lb, 1995.8),
            rear_rating: typed("5,600", UnitWord::Lb, 2540.1),
            gross_rating: None,
            kerb_front: None,
            kerb_rear: None,
        };
        Question {
            shop: ShopId(shop),
            number: JobNumber(7),
            work: Arc::new(Casework::new(Case::opened(intake))),
            shelf: Stamp::default(),
            weights: Weights::default(),
            today: "2026-11-29".to_owned(),
            units: Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd },
        }
    }

    async fn join(question: Question) -> Arc<Looking> {
        Looking::join(question, || async { Ok(Vec::new()) }).await.expect("it begins")
    }

    #[tokio::test]
    async fn who_asks_for_the_same_joins_and_who_asks_otherwise_begins_another() {
        let first = join(question(-11, "van")).await;
        assert_eq!(join(question(-11, "van")).await.id, first.id);
        let heavier = Weights { price: 99.0, ..Weights::default() };
        for other in [
            question(-11, "another van"),
            question(-12, "van"),
            Question { weights: heavier, ..question(-11, "van") },
            Question { today: "2026-11-30".to_owned(), ..question(-11, "van") },
        ] {
            assert_ne!(join(other).await.id, first.id);
        }
        let found = first.to_its_end().await.expect("it ends");
        assert!(found.ranked.is_empty() && !found.leads.is_empty(), "nothing is read yet, and that leads");
    }

    #[tokio::test]
    async fn a_search_is_called_off_and_forgotten_by_its_own_shop_alone() {
        let looking = join(question(-13, "van")).await;
        Looking::call_off(looking.id, ShopId(-14), JobNumber(7));
        Looking::call_off(looking.id, ShopId(-13), JobNumber(8));
        assert!(looking.goes_on());
        Looking::call_off(looking.id, ShopId(-13), JobNumber(7));
        assert!(!looking.goes_on());
        Looking::forget(looking.id, ShopId(-14), JobNumber(7));
        assert_eq!(join(question(-13, "van")).await.id, looking.id);
        Looking::forget(looking.id, ShopId(-13), JobNumber(7));
        assert_ne!(join(question(-13, "van")).await.id, looking.id);
    }

    #[tokio::test]
    async fn a_search_that_could_not_be_made_is_begun_again_by_the_next_who_asks() {
        let looking = join(question(-15, "van")).await;
        let _ = looking.to_its_end().await;
        assert!(!looking.was_left());
        let failed = Looking {
            id: 0,
            asked: question(-16, "van"),
            came: Mutex::default(),
            so_far: Mutex::new((None, Instant::now())),
            wanted: Mutex::new(Instant::now()),
            called_off: AtomicBool::new(false),
            ended: OnceLock::from(Err(Fault::Busy)),
            ends: Notify::new(),
        };
        assert!(failed.was_left() && matches!(failed.now(), Err(WebError::Busy)));
    }
}
