//! What parts really did: lines gathered from proofs, and what they say of each part of the shelf.

use std::collections::BTreeMap;

use chrono::NaiveDate;
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Double, Text};
use wise_badger_casework::entry::{PartRecord, ShelfPart};
use wise_badger_casework::ledger::record;

use crate::happening;
use crate::job_list::Gathered;
use crate::person::Person;
use crate::schema::{jobs, ledger_lines, record_switches};
use crate::{JobId, JobNumber, PersonId, ShopId, StoreError, VehicleId};

/// Most lines that a page or a file takes at once.
pub const MOST: i64 = 20_000;

/// A height after fitting, held against its promise; lengths in metres, loads in newtons.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Insertable)]
#[diesel(table_name = ledger_lines)]
pub struct LedgerRow {
    /// The shop.
    pub shop_id: ShopId,
    /// The job.
    pub job_id: JobId,
    /// Word of the kind of part that raises that end.
    pub kind: String,
    /// Its number on the shelf; empty of one from no shelf.
    pub part_number: String,
    /// Word of the vehicle's class.
    pub vehicle_class: String,
    /// `front` or `rear`.
    pub axle_end: String,
    /// Word of the state.
    pub load_state: String,
    /// What was on that axle then, where that is known.
    pub load_si: Option<f64>,
    /// Before fitting.
    pub before_m: f64,
    /// As promised.
    pub promised_m: f64,
    /// Half the band of what the tape would read.
    pub band_m: f64,
    /// As read last.
    pub read_m: f64,
    /// As read first, where it was read again since.
    pub first_m: Option<f64>,
    /// How far off its part was, in standard deviations of its kind.
    pub deviations: Option<f64>,
    /// With which standard deviation.
    pub sd: Option<f64>,
    /// Whether it is what its job says of the part.
    pub says_the_most: bool,
    /// When it was read.
    pub read_on: NaiveDate,
}

/// Puts the lines of jobs in the place of what was gathered of them before.
pub(crate) fn replace(connection: &mut PgConnection, gathered: &[&Gathered]) -> Result<(), StoreError> {
    let of: Vec<JobId> = gathered.iter().map(|one| one.job).collect();
    diesel::delete(ledger_lines::table.filter(ledger_lines::job_id.eq_any(of))).execute(connection)?;
    let rows: Vec<&LedgerRow> = gathered.iter().flat_map(|one| &one.ledger).collect();
    // A job in hand has none, and a statement holds only so many values.
    for rows in rows.chunks(1_000) {
        diesel::insert_into(ledger_lines::table).values(rows.to_vec()).execute(connection)?;
    }
    Ok(())
}

/// Lines of a shop with their jobs, the latest first.
pub fn lines(connection: &mut PgConnection, shop: ShopId, most: i64) -> Result<Vec<(JobNumber, LedgerRow)>, StoreError> {
    let joined = ledger_lines::table
        .inner_join(jobs::table.on(jobs::shop_id.eq(ledger_lines::shop_id).and(jobs::id.eq(ledger_lines::job_id))))
        .filter(ledger_lines::shop_id.eq(shop));
    let latest = joined.order((ledger_lines::read_on.desc(), ledger_lines::id.desc())).limit(most);
    Ok(latest.select((jobs::number, LedgerRow::as_select())).load(connection)?)
}

#[derive(QueryableByName)]
struct Said {
    #[diesel(sql_type = Text)]
    number: String,
    #[diesel(sql_type = Double)]
    deviations: f64,
    #[diesel(sql_type = Double)]
    sd: f64,
}

#[derive(QueryableByName)]
struct Off {
    #[diesel(sql_type = Text)]
    number: String,
}

/// What proofs say of parts by their numbers, in small letters: whether or not it counts.
pub fn records(connection: &mut PgConnection, shop: ShopId) -> Result<BTreeMap<String, PartRecord>, StoreError> {
    let said: Vec<Said> = diesel::sql_query(
        "SELECT lower(btrim(part_number)) AS number, deviations, sd FROM ledger_lines
          WHERE shop_id = $1 AND says_the_most AND part_number <> '' AND deviations IS NOT NULL AND sd IS NOT NULL ORDER BY id",
    )
    .bind::<BigInt, _>(shop.0)
    .load(connection)?;
    let mut by_number: BTreeMap<String, Vec<(f64, f64)>> = BTreeMap::new();
    for one in said {
        by_number.entry(one.number).or_default().push((one.deviations, one.sd));
    }
    Ok(by_number.into_iter().filter_map(|(number, jobs)| Some((number, record(&jobs)?))).collect())
}

/// Numbers of parts whose record does not count, in small letters.
pub fn switched_off(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<String>, StoreError> {
    let off: Vec<Off> = diesel::sql_query(
        "SELECT number FROM (SELECT DISTINCT ON (lower(btrim(part_number))) lower(btrim(part_number)) AS number, counts
           FROM record_switches WHERE shop_id = $1 ORDER BY lower(btrim(part_number)), id DESC) last WHERE NOT counts",
    )
    .bind::<BigInt, _>(shop.0)
    .load(connection)?;
    Ok(off.into_iter().map(|one| one.number).collect())
}

/// What tells one state of the ledger from another: it is another as soon as a line is gathered or goes, or a record is switched.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Stamp {
    lines: i64,
    newest_line: Option<i64>,
    newest_switch: Option<i64>,
}

/// The stamp of a ledger as it stands.
pub fn stamp(connection: &mut PgConnection, shop: ShopId) -> Result<Stamp, StoreError> {
    let said = || ledger_lines::table.filter(ledger_lines::shop_id.eq(shop)).filter(ledger_lines::says_the_most);
    let lines = said().count().get_result(connection)?;
    let newest_line = said().select(diesel::dsl::max(ledger_lines::id)).first(connection)?;
    let switches = record_switches::table.filter(record_switches::shop_id.eq(shop));
    Ok(Stamp { lines, newest_line, newest_switch: switches.select(diesel::dsl::max(record_switches::id)).first(connection)? })
}

/// Says whether a part's record counts in predictions.
pub fn switch(connection: &mut PgConnection, person: &Person, number: &str, counts: bool) -> Result<(), StoreError> {
    let row = (
        record_switches::shop_id.eq(person.shop_id),
        record_switches::part_number.eq(number),
        record_switches::counts.eq(counts),
        record_switches::recorded_by.eq(person.id),
    );
    diesel::insert_into(record_switches::table).values(row).execute(connection)?;
    happening::tell(connection, person, None)
}

/// Parts as the shop's own proofs know them, where those count.
pub fn as_known(connection: &mut PgConnection, shop: ShopId, parts: &mut [ShelfPart]) -> Result<(), StoreError> {
    let (records, off) = (records(connection, shop)?, switched_off(connection, shop)?);
    for part in parts {
        let number = part.number.trim().to_lowercase();
        part.record = records.get(&number).copied().filter(|_| !off.contains(&number));
    }
    Ok(())
}

/// How closely somebody reads: the spread of what they read twice at one spot.
#[derive(Debug, Clone, PartialEq, QueryableByName)]
pub struct ReaderSpread {
    #[diesel(sql_type = BigInt)]
    #[diesel(column_name = taken_by)]
    person: i64,
    /// Spots that they read more than once.
    #[diesel(sql_type = BigInt)]
    pub spots: i64,
    /// Standard deviation of one reading, in metres.
    #[diesel(sql_type = Double)]
    pub sd_m: f64,
}

impl ReaderSpread {
    /// Who.
    pub fn person(&self) -> PersonId {
        PersonId(self.person)
    }
}

/// How closely each of a shop's people reads, from the spots that they read more than once.
pub fn readers(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<ReaderSpread>, StoreError> {
    let spreads = diesel::sql_query(
        "SELECT taken_by, count(*) AS spots, sqrt(sum(var * (count - 1)) / sum(count - 1)) AS sd_m FROM (
           SELECT taken_by, count(*) AS count, var_samp(value_si) AS var FROM readings
            WHERE shop_id = $1 AND withdrawn_at IS NULL AND value_unit IN ('in', 'mm', 'cm', 'ft', 'm')
            GROUP BY taken_by, job_id, phase, load_state, place, datum HAVING count(*) > 1) spots
          GROUP BY taken_by HAVING sum(count - 1) > 0 ORDER BY taken_by",
    );
    Ok(spreads.bind::<BigInt, _>(shop.0).load(connection)?)
}

/// A height that a sound vehicle stood at.
#[derive(Debug, Clone, PartialEq, QueryableByName)]
pub struct SoundHeight {
    /// Its job.
    #[diesel(sql_type = diesel::sql_types::Integer)]
    pub number: i32,
    /// What the shop calls the job.
    #[diesel(sql_type = Text)]
    pub label: String,
    /// Word of the vehicle's class.
    #[diesel(sql_type = Text)]
    pub vehicle_class: String,
    /// Word of what it was measured from; empty where nobody said.
    #[diesel(sql_type = Text)]
    pub datum: String,
    /// Its rear height, empty, in metres.
    #[diesel(sql_type = Double)]
    pub rear_m: f64,
    /// Whether that was measured here, on springs newly set up, and not told.
    #[diesel(sql_type = diesel::sql_types::Bool)]
    pub measured: bool,
    /// The vehicle, where it is known which.
    #[diesel(sql_type = diesel::sql_types::Nullable<BigInt>)]
    pub vehicle_id: Option<VehicleId>,
}

/// Rear heights of sound vehicles, of all classes or one, by its word, the latest first: as told at the counter, and as measured here empty after new packs
/// or coils had settled.
pub fn sound_heights(
    connection: &mut PgConnection,
    shop: ShopId,
    of_class: Option<&str>,
) -> Result<Vec<SoundHeight>, StoreError> {
    let told = diesel::sql_query(
        "SELECT j.number, j.label, j.vehicle_class, coalesce(j.datum, '') AS datum,
                (s.entry -> 'sound_rear' ->> 'si')::DOUBLE PRECISION AS rear_m, FALSE AS measured, j.vehicle_id
           FROM job_sheets s JOIN jobs j ON j.shop_id = s.shop_id AND j.id = s.job_id
          WHERE s.shop_id = $1 AND s.kind = 'intake' AND s.withdrawn_at IS NULL AND s.entry -> 'sound_rear' ->> 'si' IS NOT NULL
            AND ($2 IS NULL OR j.vehicle_class = $2)
         UNION ALL
         SELECT j.number, j.label, j.vehicle_class, coalesce(j.datum, ''), l.read_m, TRUE, j.vehicle_id
           FROM ledger_lines l JOIN jobs j ON j.shop_id = l.shop_id AND j.id = l.job_id
          WHERE l.shop_id = $1 AND l.axle_end = 'rear' AND l.load_state = 'empty' AND l.first_m IS NOT NULL
            AND l.kind IN ('new_packs', 'new_coils') AND ($2 IS NULL OR j.vehicle_class = $2)
          ORDER BY vehicle_class, number DESC LIMIT 500",
    );
    Ok(told.bind::<BigInt, _>(shop.0).bind::<diesel::sql_types::Nullable<Text>, _>(of_class).load(connection)?)
}
