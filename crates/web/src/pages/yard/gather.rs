//! Where jobs stand, for lists: gathered from their records once at each revision, and kept beside them.

use std::collections::HashMap;
use std::panic::AssertUnwindSafe;
use std::sync::{Arc, LazyLock};

use actix_web::web::Data;
use chrono::{Local, NaiveDate};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sha2::{Digest, Sha256};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{Currency, DayEntry, SupplyWord, TickEntry};
use wise_badger_casework::ledger::{self, LedgerLine};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::route::Progress;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_casework::words::Word as _;
use wise_badger_casework::work_plan::PlannedWork;
use wise_badger_mechanics::correction::{Axles, Correction};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::InShopUnits as _;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::{self, Gathered, JobListed};
use wise_badger_store::ledger::LedgerRow;
use wise_badger_store::paper::{self, Paper};
use wise_badger_store::wrench_tick::{self, Tick};
use wise_badger_store::{Database, JobId, PgConnection, StoreError, vehicle};

use super::super::handover::{due_from, still_due};
use super::super::wrench::card_of_job;
use super::due::DueKind;
use crate::correction::option_name;
use crate::error::WebError;
use crate::reckoning::run;
use crate::view::Units;
use crate::view::visit::VisitFigures;

/// How far a job has come, and what it waits for.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Stands {
    pub(super) progress: Progress,
    /// Parts that are not here.
    pub(super) parts: usize,
    /// The day on which the last of what was ordered is to come.
    pub(super) parts_on: Option<NaiveDate>,
    /// Whether work on top waits for the customer's yes or no.
    pub(super) asks_customer: bool,
    /// The day that the customer wants it.
    pub(super) wanted_on: Option<NaiveDate>,
    /// What its vehicle's history tells of it.
    pub(crate) visit: VisitFigures,
}

/// By which program's rules jobs are reckoned: another program may have others.
pub(crate) static RULES: LazyLock<String> = LazyLock::new(|| {
    let program = std::env::current_exe().and_then(std::fs::read).unwrap_or_default();
    Sha256::digest(program).iter().take(8).map(|byte| format!("{byte:02x}")).collect()
});

/// A job with what is outside its revisions.
struct Read {
    file: JobFile,
    /// After how many changes beside its revisions: counted before anything of it was read.
    beside: i32,
    /// The same standing on the springs of its class: enough to say how far it has come.
    usual: JobFile,
    ticks: Vec<Tick>,
    papers: Vec<Paper>,
    /// What it is found by beside its own record.
    whose: String,
}

/// Where jobs stand of which it is not known, kept for the lists to come. A job whose record cannot be read has no part in the answer, and
/// takes nobody else's.
pub(super) async fn gather(database: &Data<Database>, unknown: Vec<JobListed>) -> Result<HashMap<JobId, Stands>, WebError> {
    if unknown.is_empty() {
        return Ok(HashMap::new());
    }
    let read = database.read(move |connection| read(connection, unknown)).await?;
    let gathered = run(move |gone| {
        let mut gathered = Vec::with_capacity(read.len());
        for job in &read {
            gone.check()?;
            // What a record that reads still cannot be worked out from is its own job's trouble, too.
            match std::panic::catch_unwind(AssertUnwindSafe(|| of_job(job))) {
                Ok(one) => gathered.push(one),
                Err(_) => tracing::error!(job = job.file.job.number.0, "where a job stands cannot be worked out"),
            }
        }
        Ok(gathered)
    });
    let gathered = gathered.await?;
    let known = gathered.iter().map(|(stands, one)| (one.job, stands.clone())).collect();
    let kept: Vec<Gathered> = gathered.into_iter().map(|(_, one)| one).collect();
    // The list is right without: a database that takes no changes still shows it.
    let kept: Result<(), StoreError> = database.write(move |connection| job_list::keep_gathered(connection, &RULES, &kept)).await;
    if let Err(error) = kept {
        tracing::warn!(cause = %error, "where jobs stand was not kept");
    }
    Ok(known)
}

fn read(connection: &mut PgConnection, unknown: Vec<JobListed>) -> Result<Vec<Read>, StoreError> {
    let mut read = Vec::with_capacity(unknown.len());
    for job in unknown {
        match JobFile::find(connection, job.shop_id, job.number) {
            Ok(file) => {
                let ticks = wrench_tick::of_job(connection, job.shop_id, job.id)?;
                let papers = paper::of_job(connection, job.shop_id, job.id)?;
                let whose = vehicle::of_job(connection, job.shop_id, job.id)?.map_or_else(String::new, |vehicle| {
                    let customer = vehicle.customer.map(|of| format!("{} {}", of.name, of.phone)).unwrap_or_default();
                    format!("{} {} {customer}", vehicle.plate, vehicle::plate_key(&vehicle.plate))
                });
                let beside = job.beside;
                read.push(Read { usual: on_usual_springs(&file), file, beside, ticks, papers, whose });
            }
            Err(error @ StoreError::Unreadable { .. }) => {
                tracing::error!(job = job.number.0, cause = %error, "a job's record cannot be read");
            }
            Err(StoreError::NotFound(_)) => {}
            Err(error) => return Err(error),
        }
    }
    Ok(read)
}

fn on_usual_springs(file: &JobFile) -> JobFile {
    JobFile {
        job: file.job.clone(),
        work: Arc::new(Casework::new(file.case().clone().on_usual_springs())),
        taken: file.taken.clone(),
        considered: file.considered.clone(),
        fitting: file.fitting.clone(),
    }
}

fn of_job(read: &Read) -> (Stands, Gathered) {
    let Read { file: whole, usual: file, beside, ticks, papers, whose } = read;
    let case = file.case();
    let finished = file.job.finished_at.is_some();
    let progress = Progress::of(&file.work, finished);
    let entries: Vec<TickEntry> = ticks.iter().map(|tick| tick.entry.0.clone()).collect();
    let work = (case.chosen.is_some() && !finished && !progress.over).then(|| PlannedWork::of(&file.work, &entries));
    let missing = work.as_ref().map(|work| work.missing.as_slice()).unwrap_or_default();
    let ordered = case.work_plan.supplies.iter().filter(|supply| supply.stands == Some(SupplyWord::Ordered));
    let ordered = ordered.filter(|supply| missing.contains(&supply.key));
    let parts_on = ordered.filter_map(|supply| supply.due.as_ref()?.date()).max();
    let stands = Stands {
        parts: missing.len(),
        parts_on,
        asks_customer: case.work_plan.extras.iter().any(|extra| extra.agreed.is_none()),
        visit: visit(whole),
        wanted_on: case.sheet.wanted_by.as_ref().and_then(DayEntry::date),
        progress,
    };
    let mut dues: Vec<(&'static str, NaiveDate)> = Vec::new();
    if !finished {
        dues.extend(parts_on.map(|day| (DueKind::Parts.word(), day)));
        let promised = file.job.hands.promised_on;
        let promised = promised.map(|day| (DueKind::Promised, day)).or(stands.wanted_on.map(|day| (DueKind::Wanted, day)));
        dues.extend(promised.map(|(kind, day)| (kind.word(), day)));
    }
    dues.extend(due_from(&file.job, papers).map(|from| of_work(file, ticks, from)).unwrap_or_default());
    let gathered = Gathered {
        shop: file.job.shop_id,
        job: file.job.id,
        revision: file.job.revision,
        beside: *beside,
        standing: serde_json::to_value(&stands).unwrap_or(Value::Null),
        dues,
        searched: searched(file, whose),
        ledger: ledger_rows(whole),
    };
    (stands, gathered)
}

/// What the customer comes back for, once the vehicle was handed over.
fn of_work(file: &JobFile, ticks: &[Tick], from: NaiveDate) -> Vec<(&'static str, NaiveDate)> {
    let card = card_of_job(file, ticks);
    let due = still_due(file, card.as_ref());
    due.into_iter().map(|due| (DueKind::AfterWork(due.what).word(), from + chrono::Days::new(due.days))).collect()
}

/// What a vehicle's history tells of a job. The rate is the one that its own readings say.
fn visit(file: &JobFile) -> VisitFigures {
    let (found, fitted) = (file.work.found(), file.work.fitted());
    let heights = |survey: &Survey| LoadState::BOTH.map(|state| survey.height(End::Rear, state).map(|height| height.value.si()));
    let rated = file.job.finished_at.is_some() || file.case().chosen.is_some();
    let rate = rated.then(|| file.work.rate().measured().map(|rate| (rate.rate.si(), rate.relative_sd))).flatten();
    let (class, chosen) = (file.case().intake.class, file.work.chosen());
    VisitFigures {
        datum: file.case().measured.datum.map(|datum| datum.word().to_owned()).unwrap_or_default(),
        found: heights(found),
        fitted: heights(fitted),
        rate,
        chosen: chosen.map(|(option, _)| option_name(option, class, FOUND_IN)).unwrap_or_default(),
        complaint: file.case().sheet.complaint_words.clone(),
    }
}

/// What the job's parts did, by its proof. They are reckoned on its own springs.
fn ledger_rows(file: &JobFile) -> Vec<LedgerRow> {
    let (Some(fitting), Some((option, parts)), true) = (&file.fitting, file.work.chosen(), file.work.is_measured_again()) else {
        return Vec::new();
    };
    let lines = ledger::lines(&file.work, &fitting.predicted.0);
    let read_on = file.case().readings.iter().zip(&file.taken).filter(|(reading, _)| reading.spot.phase != Phase::Found);
    let read_on = read_on.map(|(_, (_, at))| *at).max().unwrap_or(fitting.recorded_at).with_timezone(&Local).date_naive();
    let row = |line: &LedgerLine| {
        let at_end = |part: &Correction| (part.site().axles == Axles::Front) == (line.end == End::Front);
        let place = line.says.map(|says| says.place).or_else(|| parts.iter().position(at_end))?;
        let part = option.parts.get(place)?;
        let most = ledger::of_job(&lines, place);
        let loads = file.work.found().axle_loads_in(line.state);
        let load = loads.and_then(|loads| {
            if line.state == LoadState::Empty { Some(*loads.empty.get(line.end)) } else { loads.loaded(line.end) }
        });
        Some(LedgerRow {
            shop_id: file.job.shop_id,
            job_id: file.job.id,
            kind: part.correction.row.word.to_owned(),
            part_number: part.shelf.as_deref().map(|shelf| shelf.number.clone()).unwrap_or_default(),
            vehicle_class: file.case().intake.class.word().to_owned(),
            axle_end: if line.end == End::Front { "front" } else { "rear" }.to_owned(),
            load_state: line.state.word().to_owned(),
            load_si: load.map(|load| load.si()),
            before_m: line.before_m,
            promised_m: line.promised_m,
            band_m: line.band_m,
            read_m: line.read_m,
            first_m: line.first_m,
            deviations: line.says.map(|says| says.deviations),
            sd: line.says.map(|says| says.sd),
            says_the_most: line.says.is_some() && line.says == most,
            read_on,
        })
    };
    lines.iter().filter_map(row).collect()
}

/// Sizes among the words that a job is found by are in these, whatever anybody reads.
const FOUND_IN: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };

/// What a job is found by: what the shop calls it, whose it is, and what is fitted.
fn searched(file: &JobFile, whose: &str) -> String {
    let mut words = vec![file.case().intake.label.clone(), whose.to_owned()];
    if let Some((option, _)) = file.work.chosen() {
        words.push(option_name(option, file.case().intake.class, FOUND_IN));
        let of_shelf = option.parts.iter().filter_map(|part| part.shelf.as_deref());
        words.extend(of_shelf.map(|shelf| format!("{} {}", shelf.number, shelf.name)));
    }
    words.join(" ").to_lowercase()
}
