//! What a shop charges, and when it works.

use serde::{Deserialize, Serialize};

use crate::entry::MoneyEntry;

/// The highest tax taken, in hundredths.
pub const MOST_TAX: f64 = 40.0;
/// The longest day worked, in hours.
pub const MOST_OF_A_DAY: f64 = 24.0;

/// The shop's terms.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(default)]
pub struct ShopTerms {
    /// An hour of work.
    pub hourly: Option<MoneyEntry>,
    /// Tax on parts, in hundredths.
    pub tax_on_parts: f64,
    /// Tax on work, in hundredths.
    pub tax_on_work: f64,
    /// Hours that a vehicle is worked on in a day.
    pub hours_a_day: f64,
    /// Whether it works on Saturdays.
    pub saturdays: bool,
    /// When it opens, in hours after midnight.
    pub opens_at: f64,
}

impl Default for ShopTerms {
    /// As a shop begins: nothing said of money, a day of eight hours, Monday to Friday.
    fn default() -> Self {
        ShopTerms { hourly: None, tax_on_parts: 0.0, tax_on_work: 0.0, hours_a_day: 8.0, saturdays: false, opens_at: 8.0 }
    }
}
