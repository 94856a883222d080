//! What came back, counted.

use std::collections::BTreeMap;
use std::sync::Mutex;
use std::time::Duration;

/// Counts of answers by row and status, and those that must not be.
#[derive(Default)]
pub(crate) struct Tally {
    counts: Mutex<BTreeMap<(String, u16), u64>>,
    faults: Mutex<Vec<String>>,
    late: Mutex<Vec<String>>,
}

impl Tally {
    /// Counts an answer; a status of nought is none at all.
    pub(crate) fn count(&self, address: &Knocked, status: u16, took: Duration, latest: Duration) {
        *self.counts.lock().unwrap().entry((address.row.clone(), status)).or_default() += 1;
        if status >= 500 || status == 0 {
            self.faults.lock().unwrap().push(format!("{status}: {} {}", address.row, address.told));
        }
        if took > latest {
            self.late.lock().unwrap().push(format!("{} ms: {} {}", took.as_millis(), address.row, address.told));
        }
    }

    pub(crate) fn faults(&self) -> Vec<String> {
        self.faults.lock().unwrap().iter().take(20).cloned().collect()
    }

    pub(crate) fn late(&self) -> Vec<String> {
        self.late.lock().unwrap().iter().take(20).cloned().collect()
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
