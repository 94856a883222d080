//! The ledger: what parts really did, sound heights, how closely each of the shop's people reads.

use std::collections::{BTreeMap, BTreeSet};

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::ledger::{LEAST_JOBS, ReadsHow, mean_and_sd, reads_how, taken_for_m};
use wise_badger_casework::survey::VehicleClass;
use wise_badger_casework::table_cell;
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::KindRow;
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::units::{metres, newtons};
use wise_badger_store::ledger::{self, LedgerRow, ReaderSpread, SoundHeight};
use wise_badger_store::person::Person;
use wise_badger_store::{Database, JobNumber, StoreError, person, shelf};

use super::{Hidden, Names, once, page, see_other};
use crate::correction::on_the_shelf::kind_name;
use crate::drawing::Drawing;
use crate::drawing::ledger::{Spread, ledger_drawing};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::shell::Shell;
use crate::view::shelf::record_words;
use crate::view::{Units, class_name, datum_name, sentence};
use crate::worker::Worker;

const LEDGER: &str = "/ledger";

#[derive(Template)]
#[template(path = "ledger.html")]
struct LedgerPage {
    shell: Shell,
    parts: Vec<PartLine>,
    picture: Option<Drawing>,
    /// Kinds of vehicle that any line is of, with which is picked.
    classes: Vec<(String, &'static str, bool)>,
    readers: Vec<(String, String)>,
    taken_for: String,
    sound: Vec<(String, String, String, i32)>,
    least: usize,
    may_switch: bool,
}

/// A part, or a kind of part from no shelf, with what its proofs say.
struct PartLine {
    name: String,
    number: String,
    jobs: usize,
    /// Higher or lower than promised, on the mean; nothing while too few say so.
    bias: String,
    spread: String,
    inside: String,
    settles: String,
    /// What that makes of the next one.
    record: String,
    counts: bool,
    hidden: Hidden,
}

#[derive(Deserialize)]
pub(crate) struct Asked {
    #[serde(default)]
    class: String,
}

struct Read {
    lines: Vec<(JobNumber, LedgerRow)>,
    parts: Vec<ShelfPart>,
    off: Vec<String>,
    readers: Vec<ReaderSpread>,
    sound: Vec<SoundHeight>,
    people: Vec<Person>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, asked: Query<Asked>) -> Result<HttpResponse, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| {
        let records = ledger::records(connection, shop)?;
        let mut parts = shelf::all(connection, shop)?;
        // Also what does not count is shown.
        parts.iter_mut().for_each(|part| part.record = records.get(&part.number.trim().to_lowercase()).copied());
        Ok::<_, StoreError>(Read {
            lines: ledger::lines(connection, shop, ledger::MOST)?,
            parts,
            off: ledger::switched_off(connection, shop)?,
            readers: ledger::readers(connection, shop)?,
            sound: ledger::sound_heights(connection, shop, None)?,
            people: person::of_shop(connection, shop)?,
        })
    });
    let read = read.await?;
    let units = worker.units();
    let of_class = |row: &LedgerRow| asked.class.is_empty() || row.vehicle_class == asked.class;
    let groups = groups(read.lines.iter().map(|(_, row)| row).filter(|row| of_class(row)));
    let parts: Vec<PartLine> = groups.iter().map(|(key, rows)| part_line(key, rows, &read, units)).collect();
    let spreads: Vec<Spread> = groups.iter().filter_map(|(key, rows)| spread(key, rows, &read)).collect();
    let classes: BTreeSet<&str> = read.lines.iter().map(|(_, row)| row.vehicle_class.as_str()).collect();
    let names = Names::of_people(&read.people);
    let template = LedgerPage {
        shell: Shell::new(&worker, "Ledger", LEDGER),
        picture: (!spreads.is_empty()).then(|| ledger_drawing(&spreads, units)),
        parts,
        classes: classes
            .into_iter()
            .filter_map(|word| Some((word.to_owned(), class_name(VehicleClass::from_word(word)?), word == asked.class)))
            .collect(),
        readers: read.readers.iter().map(|of| (names.of(of.person()).to_owned(), reader_words(of, units))).collect(),
        taken_for: units.height(metres(2.0 * taken_for_m())),
        sound: read.sound.iter().map(|of| sound_line(of, units)).collect(),
        least: LEAST_JOBS,
        may_switch: worker.may(Right::Terms),
    };
    Ok(page(StatusCode::OK, &template)?.answer())
}

/// A number of the shelf, or the word of a kind.
type Key = (String, String);

fn groups<'r>(rows: impl Iterator<Item = &'r LedgerRow>) -> BTreeMap<Key, Vec<&'r LedgerRow>> {
    let mut groups: BTreeMap<Key, Vec<&LedgerRow>> = BTreeMap::new();
    for row in rows {
        groups.entry((row.kind.clone(), row.part_number.trim().to_owned())).or_default().push(row);
    }
    groups
}

/// Each job counts once: the mean of its misses.
fn misses(rows: &[&LedgerRow]) -> Vec<f64> {
    let mut by_job: BTreeMap<i64, Vec<f64>> = BTreeMap::new();
    for row in rows {
        by_job.entry(row.job_id.0).or_default().push(row.read_m - row.promised_m);
    }
    by_job.into_values().map(|misses| misses.iter().sum::<f64>() / misses.len().max(1) as f64).collect()
}

fn named(key: &Key, read: &Read) -> String {
    let (kind, number) = key;
    let of_shelf = read.parts.iter().find(|part| !number.is_empty() && part.number.trim().eq_ignore_ascii_case(number));
    match of_shelf {
        Some(part) => format!("{} {}", part.number, part.name),
        None => {
            let kind = KindRow::of(kind).map_or_else(|| kind.clone(), |row| kind_name(row).to_owned());
            if number.is_empty() { format!("{}, from no shelf", sentence(&kind)) } else { format!("{number}, {kind}") }
        }
    }
}

fn part_line(key: &Key, rows: &[&LedgerRow], read: &Read, units: Units) -> PartLine {
    let misses = misses(rows);
    let (mean, sd) = mean_and_sd(&misses);
    let enough = misses.len() >= LEAST_JOBS;
    let inside = rows.iter().filter(|row| (row.read_m - row.promised_m).abs() <= row.band_m).count();
    let settled: Vec<f64> = rows.iter().filter_map(|row| Some(row.read_m - row.first_m?)).collect();
    let (settles, _) = mean_and_sd(&settled);
    let part = read.parts.iter().find(|part| !key.1.is_empty() && part.number.trim().eq_ignore_ascii_case(&key.1));
    let few = || format!("too few to say ({} of {LEAST_JOBS})", misses.len());
    PartLine {
        name: named(key, read),
        number: part.map(|part| part.number.clone()).unwrap_or_default(),
        jobs: misses.len(),
        bias: if enough { units.change(metres(mean)) } else { few() },
        spread: if enough { format!("± {}", units.height(metres(2.0 * sd))) } else { String::new() },
        inside: format!("{inside} of {}", rows.len()),
        settles: if settled.len() >= LEAST_JOBS { units.change(metres(settles)) } else { String::new() },
        record: part.and_then(|part| record_words(part, units)).unwrap_or_default(),
        counts: !read.off.contains(&key.1.to_lowercase()),
        hidden: Hidden::new(&Sheet::blank(units), 0),
    }
}

fn spread(key: &Key, rows: &[&LedgerRow], read: &Read) -> Option<Spread> {
    let misses = misses(rows);
    let (mean_m, sd_m) = mean_and_sd(&misses);
    (misses.len() >= LEAST_JOBS).then(|| Spread { name: named(key, read), misses_m: misses, mean_m, sd_m })
}

fn reader_words(of: &ReaderSpread, units: Units) -> String {
    let band = units.height(metres(2.0 * of.sd_m));
    let spots = if of.spots == 1 { "1 spot".to_owned() } else { format!("{} spots", of.spots) };
    let against = match reads_how(of.spots, of.sd_m) {
        ReadsHow::TooFew => "too few to go by",
        ReadsHow::AsTaken => "as close as the bands take a reading for, or closer",
        ReadsHow::Wider => "wider than the bands take a reading for: read each corner twice",
    };
    format!("reads again within {band} on {spots}: {against}")
}

/// How a sound height is known.
pub(super) fn sound_words(of: &SoundHeight) -> &'static str {
    if of.measured { "measured here, settled" } else { "told at the counter" }
}

fn sound_line(of: &SoundHeight, units: Units) -> (String, String, String, i32) {
    let class = VehicleClass::from_word(&of.vehicle_class);
    let datum = Datum::from_word(&of.datum).zip(class).map_or("datum not said", |(datum, class)| datum_name(class, datum));
    let class = class.map_or("", class_name);
    (
        format!("{class}: {}", of.label),
        format!("{}, {datum}", units.height(metres(of.rear_m))),
        sound_words(of).to_owned(),
        of.number,
    )
}

/// Says whether a part's record counts in predictions.
pub(crate) async fn switch(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let (number, counts) = (sheet.text("number").to_owned(), sheet.text("counts") == "yes");
    if number.is_empty() {
        return Err(WebError::Malformed("no part".to_owned()));
    }
    once(&database, &worker, &sheet, move |connection, person| ledger::switch(connection, person, &number, counts)).await?;
    Ok(see_other(LEDGER))
}

/// Every line as a table, in the units of whoever asks.
pub(crate) async fn csv(database: Data<Database>, worker: Worker) -> Result<HttpResponse, WebError> {
    let shop = worker.shop_id();
    let lines = database.read(move |connection| ledger::lines(connection, shop, ledger::MOST)).await?;
    let body = table(&lines, worker.units()).map_err(|error| WebError::Failed(error.to_string()))?;
    let mut answer = HttpResponse::Ok();
    answer.insert_header((CONTENT_TYPE, "text/csv; charset=utf-8")).insert_header((CACHE_CONTROL, "no-store"));
    Ok(answer.insert_header((CONTENT_DISPOSITION, "attachment; filename=\"ledger.csv\"")).body(body))
}

fn table(lines: &[(JobNumber, LedgerRow)], units: Units) -> Result<Vec<u8>, csv::Error> {
    let (length, weight) = (units.length_name(), units.weight_name());
    let mut table = csv::Writer::from_writer(Vec::new());
    table.write_record(
        ["job", "read_on", "class", "kind", "part", "end", "state"]
            .map(str::to_owned)
            .into_iter()
            .chain(["before", "promised", "band", "read", "read_first"].map(|of| format!("{of}_{length}")))
            .chain([format!("axle_{weight}"), "deviations".to_owned(), "deviations_sd".to_owned()]),
    )?;
    let of_length = |si: f64| format!("{:.4}", units.in_length(metres(si)));
    let maybe = |of: Option<String>| of.unwrap_or_default();
    for (JobNumber(number), row) in lines {
        table.write_record(
            [
                number.to_string(),
                row.read_on.to_string(),
                row.vehicle_class.clone(),
                row.kind.clone(),
                table_cell::written(&row.part_number),
                row.axle_end.clone(),
                row.load_state.clone(),
                of_length(row.before_m),
                of_length(row.promised_m),
                of_length(row.band_m),
                of_length(row.read_m),
                maybe(row.first_m.map(of_length)),
                maybe(row.load_si.map(|si| format!("{:.1}", units.in_weight(newtons(si))))),
                maybe(row.deviations.map(|of| format!("{of:.3}"))),
                maybe(row.sd.map(|of| format!("{of:.3}"))),
            ]
            .iter(),
        )?;
    }
    table.into_inner().map_err(|error| csv::Error::from(std::io::Error::other(error.to_string())))
}
