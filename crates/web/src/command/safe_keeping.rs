//! Backups, and a whole shop as open documents.

use std::fs::{self, File, OpenOptions};
use std::io::{BufReader, BufWriter};
use std::os::unix::fs::OpenOptionsExt as _;
use std::path::Path;

use wise_badger_casework::shelf::ShelfDocument;
use wise_badger_store::backup::{self, Counts};
use wise_badger_store::{JobNumber, job_document, job_list, photograph, shelf};

use super::{DatabaseOptions, Failure, ShopOption, print};

/// Jobs listed at once.
const AT_ONCE: i64 = 200;

fn counted(counts: &Counts) -> String {
    let of = |table: &str| counts.get(table).copied().unwrap_or_default();
    let rows: u64 = counts.values().sum();
    format!(
        "{} shops, {} jobs, {} readings, {} photographs; {rows} rows in all",
        of("shops"),
        of("jobs"),
        of("readings"),
        of("photographs")
    )
}

/// Writes a file that nobody else reads, under its name only once it is whole.
pub(super) fn back_up(database: &DatabaseOptions, file: &Path) -> Result<(), Failure> {
    if file.exists() {
        return Err(format!("{} is there already; give another name, no backup is written over", file.display()).into());
    }
    let part = file.with_extension("part");
    let mut connection = database.alone()?;
    let to = OpenOptions::new().write(true).create(true).truncate(true).mode(0o600).open(&part);
    let to = to.map_err(|error| format!("{} cannot be written: {error}", part.display()))?;
    let written = backup::write(&mut connection, BufWriter::new(to.try_clone()?));
    let kept = written.and_then(|counts| {
        to.sync_all()?;
        fs::rename(&part, file)?;
        Ok(counts)
    });
    match kept {
        Ok(counts) => print(&format!("{}: {}", file.display(), counted(&counts))),
        Err(error) => {
            // What is not whole is not left behind.
            let _ = fs::remove_file(&part);
            Err(error.into())
        }
    }
}

pub(super) fn restore(database: &DatabaseOptions, file: &Path) -> Result<(), Failure> {
    let from = File::open(file).map_err(|error| format!("{} cannot be opened: {error}", file.display()))?;
    let mut connection = database.alone()?;
    let counts = backup::restore(&mut connection, BufReader::new(from))?;
    print(&format!("Restored {}. Everybody signs in anew.", counted(&counts)))
}

pub(super) fn export(database: &DatabaseOptions, shop: &ShopOption, folder: &Path) -> Result<(), Failure> {
    let database = database.open(1)?;
    let mut connection = database.connection()?;
    let shop = shop.find(&mut connection)?;
    let photographs = folder.join("photographs");
    fs::create_dir_all(&photographs).map_err(|error| format!("{} cannot be made: {error}", photographs.display()))?;
    let shelf = ShelfDocument::new(shelf::all(&mut connection, shop.id)?);
    fs::write(folder.join("shelf.json"), serde_json::to_string_pretty(&shelf)?)?;
    let (mut jobs, mut pictures, mut unreadable, mut before) = (0_u32, 0_u32, Vec::new(), None);
    loop {
        let numbers: Vec<JobNumber> = job_list::numbers(&mut connection, shop.id, AT_ONCE, before)?;
        let Some(last) = numbers.last() else { break };
        before = Some(*last);
        for number in numbers {
            match job_document::export(&mut connection, shop.id, number) {
                Ok(document) => {
                    fs::write(folder.join(format!("job-{}.json", number.0)), serde_json::to_string_pretty(&document)?)?;
                    jobs += 1;
                }
                Err(error) => unreadable.push(format!("job {}: {error}", number.0)),
            }
            for (id, jpeg) in photograph::pictures_of(&mut connection, shop.id, number)? {
                fs::write(photographs.join(format!("job-{}-{}.jpg", number.0, id.0)), jpeg)?;
                pictures += 1;
            }
        }
    }
    print(&format!("{}: {jobs} jobs, the shelf, {pictures} photographs", folder.display()))?;
    if unreadable.is_empty() { Ok(()) } else { Err(format!("not written: {}", unreadable.join("; ")).into()) }
}
