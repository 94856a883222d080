//! Documents that are solved as they are, without a database.

use std::io::Read;

use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ShelfPart, TypedIn};
use wise_badger_casework::finder::{Search, ToTheEnd, Weights, find};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::option_document::{OptionDocument, OptionsResult, PredictionDocument};
use wise_badger_casework::shelf::ShelfDocument;
use wise_badger_mechanics::document::{LARGEST_DOCUMENT, PackDocument, ReadingsDocument, StanceDocument};

use super::{Failure, print};

pub(super) fn solve_stance(file: &str) -> Result<(), Failure> {
    let document = StanceDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

pub(super) fn load_pack(file: &str) -> Result<(), Failure> {
    let document = PackDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

pub(super) fn fit_readings(file: &str) -> Result<(), Failure> {
    let document = ReadingsDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

pub(super) fn of_file(file: &str, why: &dyn std::error::Error) -> String {
    format!("{file}: {why}")
}

/// Predicts an option on a job.
pub(super) fn predict(job: &str, option: &str) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let option_document = OptionDocument::read(&read_document(option)?).map_err(|error| of_file(option, &error))?;
    let predicted = PredictionDocument::of(&job_document, &option_document).map_err(|error| of_file(option, &error))?;
    print(&predicted.to_json())
}

/// The same of parts of a shelf.
pub(super) fn predict_of_shelf(job: &str, shelf: &str, with: &[String]) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let read = ShelfDocument::read(&read_document(shelf)?).map_err(|error| of_file(shelf, &error))?;
    let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
    let option = OptionDocument::of_shelf(&job_document, &parts, with).map_err(|error| of_file(shelf, &error))?;
    let predicted = PredictionDocument::of(&job_document, &option).map_err(|error| of_file(shelf, &error))?;
    print(&predicted.to_json())
}

/// Looks through a shelf for what a job needs.
pub(super) fn options(job: &str, shelf: &str, today: Option<&str>) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let read = ShelfDocument::read(&read_document(shelf)?).map_err(|error| of_file(shelf, &error))?;
    let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
    let work = Casework::new(job_document.case());
    let weights = Weights::default();
    let found = find(&Search { work: &work, shelf: &parts, weights, today, units: TypedIn::default() }, &ToTheEnd);
    print(&OptionsResult::of(&work, &found, &weights, &read.wrong).to_json())
}

/// What a document holds.
pub(super) fn print_schema(schema: &impl serde::Serialize) -> Result<(), Failure> {
    print(&serde_json::to_string_pretty(schema)?)
}

/// Reads no more than a document may hold, so that an endless input is refused rather than swallowed.
pub(super) fn read_document(file: &str) -> Result<String, Failure> {
    let input: Box<dyn Read> = match file {
        "-" => Box::new(std::io::stdin()),
        path => Box::new(std::fs::File::open(path).map_err(|error| format!("{path} cannot be opened: {error}"))?),
    };
    let mut bytes = Vec::new();
    let most = u64::try_from(LARGEST_DOCUMENT)?.saturating_add(1);
    input.take(most).read_to_end(&mut bytes).map_err(|error| format!("{file} cannot be read: {error}"))?;
    Ok(String::from_utf8(bytes).map_err(|error| format!("the document is not UTF-8 text ({})", error.utf8_error()))?)
}
