//! Whether the stands at hand carry it.

use wise_badger_mechanics::units::{Force, InShopUnits};

use crate::entry::StandsEntry;
use crate::survey::{End, Survey};
use crate::wrench::{RATED_FOR, SHARE_OF_THE_WORSE, on_the_worse_stand};

/// Stands held against what they would carry.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StandsHold {
    /// What one of them is rated for.
    pub each: Force,
    /// What the worse of the pair carries, in the worst state that is known.
    pub carries: Force,
    /// What one carries alone, should the jack at the other side let go: all that lies on both.
    pub alone: Force,
    /// Whether any weight behind it was only assumed.
    pub assumed: bool,
}

impl StandsHold {
    /// How many times what it carries a stand is rated for.
    pub fn margin(&self) -> f64 {
        self.each.si() / self.carries.si()
    }

    /// Whether that is enough, and one holds alone, too.
    pub fn is_enough(&self) -> bool {
        self.margin() >= RATED_FOR && self.each.si() >= self.alone.si()
    }
}

/// How stands hold an end; `None` while its weight is not known, or where it tips.
pub fn stands_hold(survey: &Survey, end: End, stands: &StandsEntry) -> Option<StandsHold> {
    let each = if stands.of_the_pair { stands.rating.force() / 2.0 } else { stands.rating.force() };
    let loads = on_the_worse_stand(survey, end);
    let worst = loads.iter().max_by(|one, other| one.load.si().total_cmp(&other.load.si()))?;
    // With one side jacked and its jack gone the three points left carry it, and of an end all lies on the one stand there (lever arms
    // across: the wheels that stay down take up its moment between them).
    let alone = worst.load / SHARE_OF_THE_WORSE;
    Some(StandsHold { each, carries: worst.load, alone, assumed: loads.iter().any(|of| of.assumed) })
}
