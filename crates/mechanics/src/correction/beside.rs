//! Parts that carry nothing and go with a lift: each makes good one length that the lift uses up.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Given, KindRow, MakesGood, TakesUp, Work};
use crate::units::Length;

/// What sort of part it is.
#[derive(Debug)]
pub(super) struct Sort {
    pub(super) row: &'static KindRow,
    /// Its one figure.
    pub(super) figure: &'static str,
    pub(super) makes_good: MakesGood,
    pub(super) takes_up: TakesUp,
    pub(super) work: Work,
    pub(super) cautions: &'static [Caution],
}

/// A part of a sort, with its figure.
#[derive(Debug, Clone, Copy)]
struct Beside {
    sort: &'static Sort,
    by: Length,
}

/// A part of a sort with its figure; `None` where that is missing, or measures something else.
pub(super) fn read(sort: &'static Sort, given: &Given) -> Option<Arc<dyn CorrectionKind>> {
    Some(Arc::new(Beside { sort, by: given.length(sort.figure)? }))
}

impl CorrectionKind for Beside {
    fn row(&self) -> &'static KindRow {
        self.sort.row
    }

    fn given(&self) -> Given {
        Given::default().with_length(self.sort.figure, self.by)
    }

    fn makes_good(&self) -> Vec<(MakesGood, Length)> {
        vec![(self.sort.makes_good, self.by)]
    }

    fn takes_up(&self) -> TakesUp {
        self.sort.takes_up
    }

    fn works(&self) -> Vec<Work> {
        vec![self.sort.work]
    }

    fn cautions(&self) -> Vec<Caution> {
        self.sort.cautions.to_vec()
    }
}
