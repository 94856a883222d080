//! What was worked out of jobs lately, kept for the next page of the same job, and its stance as last drawn.
//!
//! A job is always read anew. Where it says what it said before, what follows from it was worked out then; where anything of it
//! is otherwise, it is worked out anew. So nothing kept here can be out of date.

use std::num::NonZeroUsize;
use std::sync::{Arc, LazyLock, Mutex, MutexGuard, PoisonError};

use lru::LruCache;
use wise_badger_casework::casework::Casework;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{JobNumber, ShopId};

use crate::drawing::{Marks, Shown, StanceDrawing};
use crate::view::Units;

/// Jobs kept: more than a shop has open in a day, and a few megabytes.
const MOST: NonZeroUsize = NonZeroUsize::new(64).expect("more than none");

/// A job worked out.
struct Kept {
    work: Arc<Casework>,
    /// Its stance, in whose units and beside what it was drawn last.
    drawn: Option<(Units, Shown, Arc<StanceDrawing>)>,
}

static LATELY: LazyLock<Mutex<LruCache<(ShopId, JobNumber), Kept>>> = LazyLock::new(|| Mutex::new(LruCache::new(MOST)));

fn kept() -> MutexGuard<'static, LruCache<(ShopId, JobNumber), Kept>> {
    LATELY.lock().unwrap_or_else(PoisonError::into_inner)
}

/// A job as read, with what was worked out of it before.
pub(crate) fn lately(file: JobFile) -> JobFile {
    let mut kept = kept();
    let key = (file.job.shop_id, file.job.number);
    match kept.get(&key).filter(|kept| kept.work.case().says_the_same(file.case())) {
        Some(kept) => JobFile { work: Arc::clone(&kept.work), ..file },
        None => {
            kept.put(key, Kept { work: Arc::clone(&file.work), drawn: None });
            file
        }
    }
}

/// The job's stance beside what is to be shown: as drawn last, where that is what was shown and the job is still worked out as it was.
pub(crate) fn stance(file: &JobFile, shown: &Shown, units: Units) -> Arc<StanceDrawing> {
    let key = (file.job.shop_id, file.job.number);
    let same = |kept: &&mut Kept| Arc::ptr_eq(&kept.work, &file.work);
    let as_drawn = kept().get_mut(&key).filter(same).and_then(|kept| kept.drawn.clone());
    match as_drawn {
        Some((of, beside, drawing)) if of == units && beside == *shown => drawing,
        _ => {
            let found = file.work.found();
            let drawing = Arc::new(StanceDrawing::new(found, &Marks::new(found, shown, units), units));
            if let Some(kept) = kept().get_mut(&key).filter(same) {
                kept.drawn = Some((units, shown.clone(), Arc::clone(&drawing)));
            }
            drawing
        }
    }
}

#[cfg(test)]
mod tests {
    use chrono::Utc;
    use wise_badger_casework::case::Case;
    use wise_badger_casework::entry::{Currency, Typed, UnitWord};
    use wise_badger_casework::intake::Intake;
    use wise_badger_casework::survey::{RearWheels, VehicleClass};
    use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
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
            hands: wise_badger_store::job::Hands::default(),
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

    const INCHES: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };
    const METRIC: Units = Units { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms, currency: Currency::Usd };

    #[test]
    fn a_stance_is_drawn_again_only_where_the_job_the_units_or_what_is_shown_beside_it_are_otherwise() {
        let file = lately(read(-5, "van"));
        let drawn = stance(&file, &Shown::default(), INCHES);
        assert!(Arc::ptr_eq(&stance(&lately(read(-5, "van")), &Shown::default(), INCHES), &drawn));
        let metric = stance(&file, &Shown::default(), METRIC);
        assert!(!Arc::ptr_eq(&metric, &drawn));
        let beside = Shown { fitted: Some(file.work.found().clone()), ..Shown::default() };
        assert!(!Arc::ptr_eq(&stance(&file, &beside, METRIC), &metric));
        let changed = lately(read(-5, "the other van"));
        let of_the_other = stance(&changed, &Shown::default(), INCHES);
        assert!(!Arc::ptr_eq(&stance(&file, &Shown::default(), INCHES), &of_the_other), "a job read before it was changed");
        assert!(Arc::ptr_eq(&stance(&changed, &Shown::default(), INCHES), &of_the_other), "and the one now keeps its own");
    }
}
