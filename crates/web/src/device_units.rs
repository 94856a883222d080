//! Units that count on one device, whoever works at it: a plain cookie of the browser, since nothing in it is worth sealing.

use actix_web::HttpRequest;
use actix_web::cookie::{Cookie, SameSite, time::Duration};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

const NAME: &str = "wise_badger_units";
const KEPT_DAYS: i64 = 365;

/// Length and weight as they are read and written on this device.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct DeviceUnits {
    pub(crate) length: LengthUnit,
    pub(crate) weight: WeightUnit,
}

impl DeviceUnits {
    /// As this device has them; `None` where nobody said, or where the cookie says nothing known.
    pub(crate) fn of(request: &HttpRequest) -> Option<Self> {
        let cookie = request.cookie(NAME)?;
        let (length, weight) = cookie.value().split_once('-')?;
        let length = match length {
            "in" => LengthUnit::Inches,
            "mm" => LengthUnit::Millimetres,
            _ => return None,
        };
        let weight = match weight {
            "lb" => WeightUnit::Pounds,
            "kg" => WeightUnit::Kilograms,
            _ => return None,
        };
        Some(DeviceUnits { length, weight })
    }

    /// What the device is to keep.
    pub(crate) fn cookie(self) -> Cookie<'static> {
        let length = if self.length == LengthUnit::Inches { "in" } else { "mm" };
        let weight = if self.weight == WeightUnit::Pounds { "lb" } else { "kg" };
        with(format!("{length}-{weight}"), Duration::days(KEPT_DAYS))
    }

    /// What makes the device forget them: then each person's own count again.
    pub(crate) fn forgotten() -> Cookie<'static> {
        with(String::new(), Duration::ZERO)
    }
}

fn with(value: String, kept: Duration) -> Cookie<'static> {
    Cookie::build(NAME, value).path("/").same_site(SameSite::Lax).http_only(true).max_age(kept).finish()
}
