//! When a vehicle can stand in a bay: how long the bay is taken by so many hours of work, and the earliest times at which bay and people are
//! free. Times are those of the shop's own clock.
//!
//! A vehicle that is not done by the evening stays on its stands: the bay is taken through the night. Whoever works on it is taken as long.
//!
//! ```
//! use chrono::NaiveDate;
//! use wise_badger_casework::bay_plan::WorkDays;
//! use wise_badger_casework::work_plan::ShopTerms;
//!
//! let days = WorkDays::of(&ShopTerms::default());
//! let at = |day, hour| NaiveDate::from_ymd_opt(2026, 12, day).and_then(|day| day.and_hms_opt(hour, 0, 0)).expect("a day of that month");
//! // Three hours on a Friday from one o'clock, and the other three on Monday from eight.
//! assert_eq!(days.ends(at(4, 13), 6.0), at(7, 11));
//! ```

use chrono::{Datelike, Days, NaiveDate, NaiveDateTime, NaiveTime, TimeDelta, Weekday};

use crate::work_plan::ShopTerms;

/// Nothing is looked for further ahead (our own working rule).
const FURTHEST: Days = Days::new(120);
/// Times are booked to the half hour.
pub const STEP_MINUTES: i64 = 30;

/// When a shop works.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WorkDays {
    opens: NaiveTime,
    /// Minutes that it works in a day.
    minutes: i64,
    saturdays: bool,
}

impl WorkDays {
    /// Those of a shop's terms.
    pub fn of(terms: &ShopTerms) -> Self {
        let minutes = |hours: f64| (hours * 60.0).round().clamp(0.0, 24.0 * 60.0);
        let opens = minutes(terms.opens_at.clamp(0.0, 23.0));
        let long = minutes(terms.hours_a_day).clamp(60.0, 24.0 * 60.0 - opens - 1.0);
        #[expect(clippy::cast_possible_truncation, reason = "minutes of a day")]
        let (opens, long) = (opens as i64, long as i64);
        let opens = NaiveTime::MIN.overflowing_add_signed(TimeDelta::minutes(opens)).0;
        WorkDays { opens, minutes: long, saturdays: terms.saturdays }
    }

    /// Whether it works on a day.
    pub fn works_on(&self, day: NaiveDate) -> bool {
        match day.weekday() {
            Weekday::Sun => false,
            Weekday::Sat => self.saturdays,
            _ => true,
        }
    }

    /// When it opens on a day.
    pub fn opens(&self, day: NaiveDate) -> NaiveDateTime {
        day.and_time(self.opens)
    }

    /// When it closes on a day.
    pub fn closes(&self, day: NaiveDate) -> NaiveDateTime {
        self.opens(day) + TimeDelta::minutes(self.minutes)
    }

    /// The first time from one on at which work can begin.
    pub fn at_work(&self, at: NaiveDateTime) -> NaiveDateTime {
        let mut day = at.date();
        loop {
            if self.works_on(day) && at < self.closes(day) {
                return at.max(self.opens(day));
            }
            day = day + Days::new(1);
        }
    }

    /// When so many hours of work that begin at a time are done: through the hours that the shop works alone.
    pub fn ends(&self, begins: NaiveDateTime, hours: f64) -> NaiveDateTime {
        #[expect(clippy::cast_possible_truncation, reason = "hours of work, bounded")]
        let mut left = (hours.clamp(0.0, 2_000.0) * 60.0).round() as i64;
        let mut at = self.at_work(begins);
        loop {
            let today = (self.closes(at.date()) - at).num_minutes();
            if left <= today {
                return at + TimeDelta::minutes(left);
            }
            left -= today;
            at = self.at_work(self.closes(at.date()));
        }
    }

    /// A time moved by so many half hours that the shop works, back or ahead.
    pub fn moved(&self, at: NaiveDateTime, steps: i64) -> NaiveDateTime {
        let step = TimeDelta::minutes(STEP_MINUTES);
        let mut at = self.at_work(at);
        for _ in 0..steps.abs().min(4_000) {
            at = if steps > 0 {
                self.at_work(at + step)
            } else if at - step >= self.opens(at.date()) {
                at - step
            } else {
                self.closes(self.day_before(at.date())) - step
            };
        }
        at
    }

    /// A time moved by so many days that the shop works, back or ahead, to the same hour; by 4,000 of them at most.
    pub fn moved_by_days(&self, at: NaiveDateTime, days: i64) -> NaiveDateTime {
        let mut day = at.date();
        for _ in 0..days.unsigned_abs().min(4_000) {
            day = if days > 0 { self.day_after(day) } else { self.day_before(day) };
        }
        day.and_time(at.time())
    }

    /// Hours that the shop works between two times, up to the quarter hour: those that [`WorkDays::ends`] takes from one to the other.
    pub fn hours_between(&self, begins: NaiveDateTime, ends: NaiveDateTime) -> f64 {
        let mut at = self.at_work(begins);
        let mut minutes = 0;
        while at < ends {
            minutes += (self.closes(at.date()).min(ends) - at).num_minutes();
            at = self.at_work(self.closes(at.date()));
        }
        let quarters = (minutes + 14) / 15;
        quarters as f64 / 4.0
    }

    fn day_after(&self, day: NaiveDate) -> NaiveDate {
        self.at_work((day + Days::new(1)).and_time(NaiveTime::MIN)).date()
    }

    fn day_before(&self, day: NaiveDate) -> NaiveDate {
        let mut day = day - Days::new(1);
        while !self.works_on(day) {
            day = day - Days::new(1);
        }
        day
    }
}

/// A bay.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FreeBay {
    /// Its key.
    pub id: i64,
    /// Whether there is a lift in it.
    pub has_lift: bool,
}

/// A vehicle that stands in a bay.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Taken {
    /// The bay.
    pub bay: i64,
    /// From when.
    pub begins: NaiveDateTime,
    /// Until when.
    pub ends: NaiveDateTime,
    /// Who works on it.
    pub people: [Option<i64>; 2],
}

impl Taken {
    fn overlaps(&self, begins: NaiveDateTime, ends: NaiveDateTime) -> bool {
        self.begins < ends && begins < self.ends
    }
}

/// What is looked for.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// Hours by the clock that the bay is needed.
    pub hours: f64,
    /// Not before.
    pub from: NaiveDateTime,
    /// Whether it needs a lift.
    pub lift: bool,
    /// Whether a second person is needed.
    pub two_people: bool,
    /// Who does it, where that is said.
    pub person: Option<i64>,
}

/// A time at which it can be done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slot {
    /// Where.
    pub bay: i64,
    /// From when.
    pub begins: NaiveDateTime,
    /// Until when.
    pub ends: NaiveDateTime,
    /// Who does it; nobody, where nobody is asked for and nobody is there to be.
    pub person: Option<i64>,
    /// Who helps.
    pub second: Option<i64>,
}

/// The earliest slot in each bay, the earliest of them first. `people` are those who may do it.
///
/// A slot begins when the shop works and something becomes free: that is when one can first be found.
pub fn earliest(wanted: &Wanted, days: &WorkDays, bays: &[FreeBay], people: &[i64], taken: &[Taken]) -> Vec<Slot> {
    let first = days.at_work(round_up(wanted.from));
    let furthest = first + FURTHEST;
    let mut begins: Vec<NaiveDateTime> = taken.iter().map(|taken| days.at_work(round_up(taken.ends))).collect();
    begins.push(first);
    begins.retain(|at| *at >= first && *at <= furthest);
    begins.sort_unstable();
    begins.dedup();
    let of_bay = |bay: &FreeBay| begins.iter().find_map(|begins| slot(wanted, days, bay.id, *begins, people, taken));
    let fit = bays.iter().filter(|bay| bay.has_lift || !wanted.lift);
    let mut slots: Vec<Slot> = fit.filter_map(of_bay).collect();
    slots.sort_by_key(|slot| slot.begins);
    slots
}

/// Up to the next half hour.
fn round_up(at: NaiveDateTime) -> NaiveDateTime {
    let past = (at - at.date().and_time(NaiveTime::MIN)).num_seconds() % (STEP_MINUTES * 60);
    if past == 0 { at } else { at + TimeDelta::seconds(STEP_MINUTES * 60 - past) }
}

fn slot(wanted: &Wanted, days: &WorkDays, bay: i64, begins: NaiveDateTime, people: &[i64], taken: &[Taken]) -> Option<Slot> {
    let ends = days.ends(begins, wanted.hours);
    let then = || taken.iter().filter(|taken| taken.overlaps(begins, ends));
    if then().any(|taken| taken.bay == bay) {
        return None;
    }
    let is_free = |person: &i64| then().all(|taken| !taken.people.contains(&Some(*person)));
    let mut free = people.iter().copied().filter(is_free);
    let person = match wanted.person {
        Some(person) => Some(Some(person).filter(is_free)?),
        None => free.next(),
    };
    let second = people.iter().copied().filter(is_free).find(|other| Some(*other) != person);
    match (wanted.two_people, second, person) {
        // Where nobody is put down who could do it, the bay alone decides.
        _ if people.is_empty() => Some(Slot { bay, begins, ends, person: None, second: None }),
        (_, _, None) | (true, None, _) => None,
        (two, second, person) => Some(Slot { bay, begins, ends, person, second: second.filter(|_| two) }),
    }
}

/// Which of the people of a slot is taken elsewhere at that time.
pub fn people_taken(people: [Option<i64>; 2], begins: NaiveDateTime, ends: NaiveDateTime, others: &[Taken]) -> Vec<i64> {
    let asked = people.into_iter().flatten();
    asked
        .filter(|person| others.iter().any(|taken| taken.overlaps(begins, ends) && taken.people.contains(&Some(*person))))
        .collect()
}
