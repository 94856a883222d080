//! What every page carries round its own content.

use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

use crate::rights::Right;
use crate::routes::right_to_save;
use crate::view::Units;
use crate::worker::Worker;

/// Head of a page: who is working, in which units, and where they are.
pub(crate) struct Shell {
    pub(crate) title: String,
    pub(crate) shop: String,
    pub(crate) person: String,
    /// Their key: drafts on a shared device are kept apart by it.
    pub(crate) person_key: i64,
    pub(crate) trade: String,
    pub(crate) inches: bool,
    pub(crate) pounds: bool,
    /// Whether these units are the device's own.
    pub(crate) units_of_device: bool,
    /// Where the unit switch and the sign-in page lead back to.
    pub(crate) here: String,
    /// Who may save what stands on this page, where whoever looks may not; empty where they may.
    pub(crate) look_only: String,
}

impl Shell {
    pub(crate) fn new(worker: &Worker, title: impl Into<String>, here: impl Into<String>) -> Self {
        let Units { length, weight, .. } = worker.units();
        let here = here.into();
        let taken = right_to_save(&here).filter(|right| !worker.may(*right));
        Shell {
            title: title.into(),
            shop: worker.shop.name.clone(),
            person: worker.person.name.clone(),
            person_key: worker.person.id.0,
            trade: worker.person.trade.clone(),
            inches: length == LengthUnit::Inches,
            pounds: weight == WeightUnit::Pounds,
            units_of_device: worker.device_units.is_some(),
            look_only: taken.map(Right::words).unwrap_or_default(),
            here,
        }
    }
}
