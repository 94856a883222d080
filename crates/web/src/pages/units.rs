//! In which units somebody reads, or a device does.

use actix_web::HttpResponse;
use actix_web::web::Data;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::{Database, StoreError, person};

use super::{local, see_other};
use crate::device_units::DeviceUnits;
use crate::error::WebError;
use crate::form::Posted;
use crate::worker::Worker;

/// Takes the units picked: the device's where it has its own, otherwise whoever works here's; or makes them the one or the other.
pub(crate) async fn set_units(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let units = worker.units();
    let length = match posted.text("length") {
        Some("in") => LengthUnit::Inches,
        Some("mm") => LengthUnit::Millimetres,
        _ => units.length,
    };
    let weight = match posted.text("weight") {
        Some("lb") => WeightUnit::Pounds,
        Some("kg") => WeightUnit::Kilograms,
        _ => units.weight,
    };
    let picked = DeviceUnits { length, weight };
    let cookie = match (posted.text("for"), worker.device_units) {
        (Some("person"), _) => Some(DeviceUnits::forgotten()),
        (Some(_), _) | (None, Some(_)) => Some(picked.cookie()),
        (None, None) => None,
    };
    let mut answer = see_other(local(posted.text("next").unwrap_or_default()));
    match cookie {
        Some(cookie) => answer.add_cookie(&cookie).map_err(|error| WebError::Malformed(error.to_string()))?,
        None => {
            let done: Result<(), StoreError> =
                database.write(move |connection| person::set_units(connection, &worker.person, length, weight)).await;
            done?;
        }
    }
    Ok(answer)
}
