//! The whole of the records in one file, and back: every shop, photographs too, as they stood at one moment.
//!
//! A file is a line a row, each as JSON, packed with gzip. The first line says what it is and from which step of the schema; the last
//! how many rows there are and the hash of all lines before it, so that a file that was cut short or changed is noticed before
//! anything of it is kept.

use std::collections::BTreeMap;
use std::io::{BufRead, BufReader, Read, Write};

use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Text};
use flate2::Compression;
use flate2::read::GzDecoder;
use flate2::write::GzEncoder;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use sha2::{Digest, Sha256};

use crate::opening::{self, OpeningError};
use crate::{DieselError, StoreError};

const FORMAT: &str = "wise-badger/backup";
const VERSION: u32 = 1;
/// Rows fetched and put at once. A photograph is the largest row, of up to a few megabytes.
const AT_ONCE: usize = 50;
/// The longest line that is read: a photograph in hexadecimal, with room to spare.
const LONGEST_LINE: u64 = 64 * 1024 * 1024;

/// Every table that is in a backup, in an order in which its rows can be put back.
pub const TABLES: [&str; 27] = [
    "shops",
    "people",
    "tablets",
    "invitations",
    "known_devices",
    "shop_changes",
    "customers",
    "vehicles",
    "jobs",
    "readings",
    "corrections",
    "fittings",
    "job_sheets",
    "photographs",
    "wrench_ticks",
    "papers",
    "job_changes",
    "submissions",
    "due_marks",
    "calls",
    "shelf_parts",
    "record_switches",
    "bays",
    "bookings",
    "calendar_links",
    "loads",
    "aims",
];

/// Tables that are not: sessions and failed sign-ins end with the machine, and the others are gathered anew from the record.
pub const LEFT_OUT: [&str; 5] = ["sessions", "failed_sign_ins", "job_standings", "job_dues", "ledger_lines"];

/// Why a backup was not made, or not put back.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum BackupError {
    /// The records could not be read or written.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The schema could not be brought to the file's step, or from there to this program's.
    #[error(transparent)]
    Opening(#[from] OpeningError),
    /// The file could not be read or written.
    #[error("the file cannot be read or written: {0}")]
    File(#[from] std::io::Error),
    /// It is no backup.
    #[error("this is no backup of Wise Badger's; give the file that “wise-badger backup” wrote")]
    NotABackup,
    /// A newer program wrote it.
    #[error(
        "this backup was written by a newer version of this program (step {0} is unknown here); restore it with that version"
    )]
    Newer(String),
    /// Its end is missing, or something in it was changed.
    #[error("this backup is not whole: {0}; nothing was restored. Take another copy of it")]
    NotWhole(String),
    /// The database holds records already.
    #[error("the database holds a shop already, and a backup is never put on top of one; give an empty database")]
    NotEmpty,
}

impl From<DieselError> for BackupError {
    fn from(error: DieselError) -> Self {
        BackupError::Store(error.into())
    }
}

#[derive(Serialize, Deserialize)]
struct Head {
    format: String,
    version: u32,
    /// The last step of the schema that its rows are of.
    step: String,
}

#[derive(Serialize, Deserialize)]
struct Row<'r> {
    table: &'r str,
    #[serde(borrow)]
    row: &'r RawValue,
}

#[derive(Serialize, Deserialize)]
struct End {
    rows: BTreeMap<String, u64>,
    sha256: String,
}

#[derive(QueryableByName)]
struct Line {
    #[diesel(sql_type = Text)]
    line: String,
}

/// How many rows of each table there are in a backup.
pub type Counts = BTreeMap<String, u64>;

struct Writer<W: Write> {
    packed: GzEncoder<W>,
    hash: Sha256,
    rows: Counts,
}

impl<W: Write> Writer<W> {
    fn line(&mut self, line: &impl Serialize) -> Result<(), BackupError> {
        let mut bytes = serde_json::to_vec(line).map_err(std::io::Error::from)?;
        bytes.push(b'\n');
        self.hash.update(&bytes);
        Ok(self.packed.write_all(&bytes)?)
    }
}

fn hexadecimal(hash: Sha256) -> String {
    hash.finalize().iter().map(|byte| format!("{byte:02x}")).collect()
}

/// Writes everything to a file, as it stands at one moment; others go on working meanwhile.
///
/// # Errors     [`BackupError`]
pub fn write(connection: &mut PgConnection, to: impl Write) -> Result<Counts, BackupError> {
    // Every table is seen as of the same moment, and nothing waits for it.
    connection.batch_execute("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY; SET LOCAL statement_timeout = 0")?;
    let written = write_all(connection, to);
    connection.batch_execute("ROLLBACK")?;
    written
}

fn write_all(connection: &mut PgConnection, to: impl Write) -> Result<Counts, BackupError> {
    let step = opening::recorded_step(connection)?;
    let mut writer = Writer { packed: GzEncoder::new(to, Compression::fast()), hash: Sha256::new(), rows: Counts::new() };
    writer.line(&Head { format: FORMAT.to_owned(), version: VERSION, step })?;
    for table in there(connection)? {
        // In the order in which they came in, where rows of a table point to others of it.
        let order = if has_id(connection, table)? { "ORDER BY id" } else { "" };
        connection.batch_execute(&format!(
            "DECLARE rows NO SCROLL CURSOR FOR SELECT row_to_json(t)::TEXT AS line FROM {table} t {order}"
        ))?;
        loop {
            let lines: Vec<Line> = diesel::sql_query(format!("FETCH {AT_ONCE} FROM rows")).load(connection)?;
            if lines.is_empty() {
                break;
            }
            for Line { line } in &lines {
                let row = serde_json::from_str(line).map_err(std::io::Error::from)?;
                writer.line(&Row { table, row })?;
                *writer.rows.entry(table.to_owned()).or_default() += 1;
            }
        }
        connection.batch_execute("CLOSE rows")?;
    }
    let Writer { mut packed, hash, rows } = writer;
    let end = End { rows: rows.clone(), sha256: hexadecimal(hash) };
    packed.write_all(&serde_json::to_vec(&end).map_err(std::io::Error::from)?)?;
    packed.write_all(b"\n")?;
    packed.finish()?.flush()?;
    Ok(rows)
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    count: i64,
}

fn count(connection: &mut PgConnection, query: &str) -> Result<i64, BackupError> {
    Ok(diesel::sql_query(query).get_result::<Count>(connection)?.count)
}

/// The tables of a backup that the schema has at its step: earlier steps had some that are gone.
fn there(connection: &mut PgConnection) -> Result<Vec<&'static str>, BackupError> {
    let mut there = Vec::new();
    for table in TABLES {
        if count(connection, &format!("SELECT count(to_regclass('public.{table}')) AS count"))? > 0 {
            there.push(table);
        }
    }
    Ok(there)
}

fn has_id(connection: &mut PgConnection, table: &str) -> Result<bool, BackupError> {
    let asked = format!(
        "SELECT count(*) AS count FROM information_schema.columns
          WHERE table_schema = 'public' AND table_name = '{table}' AND column_name = 'id'"
    );
    Ok(count(connection, &asked)? > 0)
}

/// Puts a backup into an empty database: all of it or nothing. A file of an earlier version is brought up to this one.
///
/// # Errors     [`BackupError`]
pub fn restore(connection: &mut PgConnection, from: impl Read) -> Result<Counts, BackupError> {
    let mut lines = Lines { from: BufReader::new(GzDecoder::new(from)), hash: Sha256::new() };
    let first = lines.next()?.ok_or(BackupError::NotABackup)?;
    let head: Head = serde_json::from_str(&first).map_err(|_not| BackupError::NotABackup)?;
    if head.format != FORMAT {
        return Err(BackupError::NotABackup);
    }
    if head.version > VERSION || !opening::knows_step(&head.step)? {
        return Err(BackupError::Newer(head.step));
    }
    if opening::has_tables(connection)? && count(connection, "SELECT count(*) AS count FROM shops")? > 0 {
        return Err(BackupError::NotEmpty);
    }
    opening::bring_to(connection, &head.step)?;
    connection.batch_execute("BEGIN; SET LOCAL statement_timeout = 0")?;
    let put = put_all(connection, &mut lines);
    match put {
        Ok(rows) => {
            connection.batch_execute("COMMIT")?;
            opening::bring_up_to_date(connection)?;
            Ok(rows)
        }
        Err(error) => {
            connection.batch_execute("ROLLBACK")?;
            opening::bring_up_to_date(connection)?;
            Err(error)
        }
    }
}

struct Lines<R: Read> {
    from: BufReader<GzDecoder<R>>,
    hash: Sha256,
}

impl<R: Read> Lines<R> {
    /// The next line. What cannot be unpacked is a file that is not whole.
    fn next(&mut self) -> Result<Option<String>, BackupError> {
        let mut line = String::new();
        let mut limited = (&mut self.from).take(LONGEST_LINE);
        match limited.read_line(&mut line) {
            Ok(0) => Ok(None),
            Ok(_) if !line.ends_with('\n') => Err(BackupError::NotWhole("it ends in the middle of a line".to_owned())),
            Ok(_) => Ok(Some(line)),
            Err(error) => Err(BackupError::NotWhole(error.to_string())),
        }
    }
}

fn put_all<R: Read>(connection: &mut PgConnection, lines: &mut Lines<R>) -> Result<Counts, BackupError> {
    let mut rows = Counts::new();
    let mut waiting: (String, Vec<String>) = Default::default();
    // The first line counts in the hash, and was read before.
    let head = Head { format: FORMAT.to_owned(), version: VERSION, step: opening::last_step(connection)? };
    let mut first = serde_json::to_vec(&head).map_err(std::io::Error::from)?;
    first.push(b'\n');
    lines.hash.update(&first);
    loop {
        let line = lines.next()?.ok_or_else(|| BackupError::NotWhole("its end is missing".to_owned()))?;
        if let Ok(end) = serde_json::from_str::<End>(&line) {
            put(connection, &mut waiting)?;
            if end.sha256 != hexadecimal(lines.hash.clone()) || end.rows != rows {
                return Err(BackupError::NotWhole("its rows are not those that were written".to_owned()));
            }
            break;
        }
        lines.hash.update(line.as_bytes());
        let row: Row<'_> = serde_json::from_str(&line).map_err(|error| BackupError::NotWhole(error.to_string()))?;
        if !TABLES.contains(&row.table) {
            return Err(BackupError::NotWhole(format!("it holds a table that is none of ours, {}", row.table)));
        }
        if row.table != waiting.0 || waiting.1.len() >= AT_ONCE {
            put(connection, &mut waiting)?;
            waiting.0 = row.table.to_owned();
        }
        waiting.1.push(row.row.get().to_owned());
        *rows.entry(row.table.to_owned()).or_default() += 1;
    }
    for table in there(connection)? {
        if has_id(connection, table)? {
            connection.batch_execute(&format!(
                "SELECT setval(pg_get_serial_sequence('{table}', 'id'), coalesce((SELECT max(id) FROM {table}), 0) + 1, FALSE)"
            ))?;
        }
    }
    Ok(rows)
}

fn put(connection: &mut PgConnection, (table, rows): &mut (String, Vec<String>)) -> Result<(), BackupError> {
    if rows.is_empty() {
        return Ok(());
    }
    let all = format!("[{}]", rows.join(","));
    diesel::sql_query(format!(
        "INSERT INTO {table} OVERRIDING SYSTEM VALUE SELECT * FROM json_populate_recordset(NULL::{table}, $1::JSON)"
    ))
    .bind::<Text, _>(all)
    .execute(connection)
    .map_err(|error| match StoreError::from(error) {
        // A row that others point to is not there, or it is no row of that table.
        StoreError::Other(source) => BackupError::NotWhole(format!("its rows do not go together ({source})")),
        other => other.into(),
    })?;
    rows.clear();
    Ok(())
}
