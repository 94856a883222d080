//! What came back, counted.

use std::collections::BTreeMap;
use std::sync::Mutex;
use std::time::Duration;

/// How many of the slowest answers are kept.
const KEPT: usize = 20;

/// Counts of answers by row and status, and those that must not be.
#[derive(Default)]
pub(crate) struct Tally {
    counts: Mutex<BTreeMap<(String, u16), u64>>,
    faults: Mutex<Vec<String>>,
    /// The slowest answers, each with how many milliseconds it took.
    slow: Mutex<Vec<(u64, String)>>,
}

impl Tally {
    /// Counts an answer; a status of nought is none at all.
    pub(crate) fn count(&self, address: &Knocked, status: u16, took: Duration) {
        *self.counts.lock().unwrap().entry((address.row.clone(), status)).or_default() += 1;
        if status >= 500 || status == 0 {
            self.faults.lock().unwrap().push(format!("{status}: {} {}", address.row, address.told));
        }
        let ms = u64::try_from(took.as_millis()).unwrap_or(u64::MAX);
        let mut slow = self.slow.lock().unwrap();
        slow.push((ms, format!("{} {}", address.row, address.told)));
        slow.sort_by_key(|(ms, _)| std::cmp::Reverse(*ms));
        slow.truncate(KEPT);
    }

    pub(crate) fn faults(&self) -> Vec<String> {
        self.faults.lock().unwrap().iter().take(20).cloned().collect()
    }

    /// Answers that took longer than so many milliseconds, the slowest first.
    pub(crate) fn late(&self, latest: u64) -> Vec<String> {
        let slow = self.slow.lock().unwrap();
        slow.iter().filter(|(ms, _)| *ms > latest).map(|(ms, told)| format!("{ms} ms: {told}")).collect()
    }

    /// A line a row: how often it answered what.
    pub(crate) fn report(&self) -> String {
        let mut rows: BTreeMap<String, Vec<String>> = BTreeMap::new();
        for ((row, status), count) in self.counts.lock().unwrap().iter() {
            rows.entry(row.clone()).or_default().push(format!("{status}×{count}"));
        }
        rows.into_iter().map(|(row, counts)| format!("{row:55} {}", counts.join(" "))).collect::<Vec<_>>().join("\n")
    }
}

/// A request that was sent.
pub(crate) struct Knocked {
    /// Its row of the table.
    pub(crate) row: String,
    /// What was hostile about it, to send it again by hand.
    pub(crate) told: String,
}
