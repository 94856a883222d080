//! What was worked out of jobs lately, kept for the next page of the same job.
//!
//! A job is always read anew. Where it says what it said before, what follows from it was worked out then; where anything of it
//! is otherwise, it is worked out anew. So nothing kept here can be out of date.

use std::num::NonZeroUsize;
use std::sync::{Arc, LazyLock, Mutex, PoisonError};

use lru::LruCache;
use wise_badger_casework::casework::Casework;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{JobNumber, ShopId};

/// Jobs kept: more than a shop has open in a day, and a few megabytes.
const MOST: NonZeroUsize = NonZeroUsize::new(64).expect("more than none");

type Kept = LruCache<(ShopId, JobNumber), Arc<Casework>>;

static LATELY: LazyLock<Mutex<Kept>> = LazyLock::new(|| Mutex::new(LruCache::new(MOST)));

/// A job as read, with what was worked out of it before.
pub(crate) fn lately(file: JobFile) -> JobFile {
    let mut kept = LATELY.lock().unwrap_or_else(PoisonError::into_inner);
    let key = (file.job.shop_id, file.job.number);
    match kept.get(&key).filter(|work| work.case().says_the_same(file.case())) {
        Some(work) => JobFile { work: Arc::clone(work), ..file },
        None => {
            kept.put(key, Arc::clone(&file.work));
            file
        }
    }
}

#[cfg(test)]
mod tests {
    use chrono::Utc;
    use wise_badger_casework::case::Case;
    use wise_badger_casework::entry::{Typed, UnitWord};
    use wise_badger_casework::intake::Intake;
    use wise_badger_casework::survey::{RearWheels, VehicleClass};
    use wise_badger_store::job::Job;
    use wise_badger_store::{JobId, PersonId};

    use super::*;

    fn typed(text: &str, unit: UnitWord, si: f64) -> Typed {
        Typed { text: text.to_owned(), unit, si }
    }

    /// Job 7 of a shop, with a label, as it would be read.
    fn read(shop: i64, label: &str) -> JobFile {
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
        let job = Job {
            id: JobId(1),
            shop_id: ShopId(shop),
            number: JobNumber(7),
            revision: 1,
            revised_at: Utc::now(),
            opened_by: PersonId(1),
            opened_at: Utc::now(),
            finished_at: None,
        };
        let work = Arc::new(Casework::new(Case::opened(intake)));
        JobFile { job, work, taken: Vec::new(), considered: Vec::new(), fitting: None }
    }

    #[test]
    fn a_job_that_says_what_it_said_before_is_not_worked_out_again() {
        let first = lately(read(-1, "van"));
        assert!(Arc::ptr_eq(&lately(read(-1, "van")).work, &first.work));
    }

    #[test]
    fn a_job_that_says_anything_else_is_worked_out_anew_and_then_kept() {
        let first = lately(read(-2, "van"));
        let changed = lately(read(-2, "the other van"));
        assert_eq!(changed.case().intake.label, "the other van");
        assert!(!Arc::ptr_eq(&changed.work, &first.work));
        assert!(Arc::ptr_eq(&lately(read(-2, "the other van")).work, &changed.work));
    }

    #[test]
    fn no_shop_is_given_what_another_shop_s_job_of_the_same_number_says() {
        lately(read(-3, "ours"));
        assert_eq!(lately(read(-4, "theirs")).case().intake.label, "theirs");
        assert_eq!(lately(read(-3, "ours")).case().intake.label, "ours");
    }
}
