//! The demo shop's shelf: a part of every kind that is bought, and several of those that shops stock, in a table as any shop would
//! take one in.

use wise_badger_casework::entry::{BareUnits, Currency};
use wise_badger_casework::shelf::{ShelfChange, read_table};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, shelf};

use super::DemoError;

const TABLE: &str = include_str!("shelf.csv");

pub(super) fn load(connection: &mut PgConnection, person: &Person) -> Result<(), DemoError> {
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let read = read_table(TABLE, units, Currency::Usd)?;
    if let Some(row) = read.wrong.into_iter().next() {
        return Err(DemoError::Shelf(format!("row {}, {}: {}", row.row, row.at, row.what)));
    }
    let parts: Vec<ShelfChange> = read.parts.into_iter().map(|(_, part)| ShelfChange::New(Box::new(part))).collect();
    Ok(shelf::take_in(connection, person, &parts, |_| {})?)
}
