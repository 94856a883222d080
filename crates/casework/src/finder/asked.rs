//! What would make a refused option possible.

use wise_badger_mechanics::correction::shocks;
use wise_badger_mechanics::units::{Length, metres};

use super::search::Search;
use crate::casework::Casework;
use crate::consequence::Consequence;
use crate::entry::{FigureEntry, ShelfPart};
use crate::look_over::{Addition, Measure};
use crate::survey::End;

/// Something that comes short for an option.
#[derive(Debug, Clone, PartialEq)]
pub struct Asked {
    /// What has to be put right.
    pub what: Addition,
    /// By how much it comes short.
    pub by: Length,
    /// The number of a part on the shelf that may do, laid beside the old one first; hoses and U-bolts that do are in the option already.
    pub may_do: Option<String>,
}

/// What comes short for the option on trial, and what of the shelf may make it good.
pub(super) fn asked(search: &Search<'_>, work: &Casework) -> Vec<Asked> {
    let of = |consequence: &Consequence| {
        let (what, by) = (consequence.too_short()?, -consequence.left()?);
        Some(Asked { what, by, may_do: may_do(search, consequence, by) })
    };
    work.consequences(0).iter().filter_map(of).collect()
}

/// Shocks whose stroke is that of the old ones and what comes short; of the old ones it is known where both ways were measured, at the
/// rear alone.
fn may_do(search: &Search<'_>, consequence: &Consequence, by: Length) -> Option<String> {
    match consequence {
        Consequence::ShockRod { end: End::Rear, .. } | Consequence::ShockCloses { .. } => {}
        _ => return None,
    }
    let look_over = search.work.look_over();
    let stroke = look_over.measured(Measure::ShockRod)? + look_over.measured(Measure::ShockCloses)?;
    let travels = |part: &ShelfPart| {
        let length = |name: &str| match part.best(name)? {
            FigureEntry::Typed(typed) => Some(metres(typed.si)),
            _ => None,
        };
        Some(length("new_open")? - length("new_closed")?)
    };
    let long_enough = |part: &&ShelfPart| travels(part).is_some_and(|travels| travels >= stroke + by);
    let of_kind = search.shelf.iter().filter(|part| part.kind == &shocks::ROW).filter(long_enough);
    of_kind.min_by_key(|part| part.price.as_ref().map_or(i64::MAX, |price| price.hundredths)).map(|part| part.number.clone())
}
