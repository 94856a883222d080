//! Readings as a table that a spreadsheet opens.

use csv::WriterBuilder;

use super::content::JobDocument;
use crate::table_cell;
use crate::words::Word as _;

/// The columns, in their order: SI in the last figure, what was typed before it.
const COLUMNS: [&str; 8] = ["phase", "state", "place", "measured_from", "typed", "si", "taken_by", "taken_at"];

/// Every reading of a document, a row each, in the order in which it was put down.
///
/// # Errors     what the table could not be written for
pub fn readings_csv(document: &JobDocument) -> Result<String, csv::Error> {
    let mut writer = WriterBuilder::new().from_writer(Vec::new());
    writer.write_record(COLUMNS)?;
    for reading in &document.readings {
        let state = serde_json::to_value(reading.state).ok().and_then(|word| word.as_str().map(str::to_owned));
        let unit = serde_json::to_value(reading.value.unit).ok().and_then(|word| word.as_str().map(str::to_owned));
        writer.write_record([
            reading.phase.0.word(),
            &state.unwrap_or_default(),
            reading.place.0.word(),
            reading.datum.0.word(),
            &format!("{} {}", reading.value.text, unit.unwrap_or_default()),
            &reading.value.si.to_string(),
            &table_cell::written(reading.taken_by.as_deref().unwrap_or_default()),
            reading.taken_at.as_deref().unwrap_or_default(),
        ])?;
    }
    let written = writer.into_inner().map_err(csv::IntoInnerError::into_error)?;
    Ok(String::from_utf8_lossy(&written).into_owned())
}
