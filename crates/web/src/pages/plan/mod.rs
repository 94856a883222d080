//! The plan of the work: what it needs and when that is here, under what it is done, what comes on top, how long it takes, what it costs.

mod estimate;
mod layout;
mod timeline;

pub(crate) use estimate::{estimate, estimate_file, sign_estimate};

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use chrono::{Local, NaiveDate};
use wise_badger_casework::entry::{Currency, RustWord, TickEntry, WorkPlanEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::work_plan::{
    self, Estimate, Hours, MOST_OF_A_DAY, MOST_TAX, PlannedWork, Schedule, ShopTerms, Supplied, schedule, supplies,
};
use wise_badger_casework::wrench::{Lifting, Proposal, lifting};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::wrench_tick::Tick;
use wise_badger_store::{Database, JobId, JobNumber, PgConnection, StoreError, job_sheet, shop};

use super::job_form::{JobForm, ReadJob};
use super::wrench::ticked;
use super::{Names, Page, Refusal, job_file, once, see_other};
use crate::error::WebError;
use crate::form::work_plan as form;
use crate::form::{Posted, Sheet, complete_sentence};
use crate::job_route::StageWords as _;
use crate::reckoning::run;
use crate::view::Units;
use crate::view::work_plan::proposal_words;
use crate::worker::Worker;

/// A job with what was ticked on its card, and what the shop charges.
pub(crate) struct PlanRead {
    file: JobFile,
    ticks: Vec<Tick>,
    names: Names,
    terms: ShopTerms,
}

impl PlanRead {
    fn entries(&self) -> Vec<TickEntry> {
        self.ticks.iter().map(|tick| tick.entry.0.clone()).collect()
    }

    fn work(&self) -> PlannedWork {
        PlannedWork::of(&self.file.work, &self.entries())
    }

    /// What the page and the estimate both go by. `None` while nothing is chosen.
    fn reckoned<'a>(&'a self, work: &'a PlannedWork, currency: Currency, today: NaiveDate) -> Option<Reckoned<'a>> {
        let (option, _) = self.file.work.chosen()?;
        let plan = &self.file.case().work_plan;
        let supplied = supplies(&work.needed, option, plan, &work.missing, today);
        let soak = work.card.steps.iter().any(|step| step.operation.word == "threads_soaked")
            && !plan.soaked
            && plan.rust.is_some_and(|rust| rust != RustWord::None);
        let schedule = schedule(&supplied, work.in_the_bay, soak, &self.terms, today);
        let estimate = work_plan::estimate(&supplied, plan, work.labor, &self.terms, currency);
        Some(Reckoned { supplied, schedule, estimate })
    }
}

/// When everything is here, when it is done, and what it costs.
struct Reckoned<'a> {
    supplied: Vec<Supplied<'a>>,
    schedule: Schedule,
    estimate: Estimate<'a>,
}

impl ReadJob for PlanRead {
    async fn read(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Self, WebError> {
        let file = job_file(database, worker, number).await?;
        let (ticks, names) = ticked(database, worker, &file).await?;
        let shop = worker.shop_id();
        let terms = database.read(move |connection| shop::terms(connection, shop)).await.map_err(WebError::from)?;
        Ok(PlanRead { file, ticks, names, terms })
    }

    fn file(&self) -> &JobFile {
        &self.file
    }
}

/// What the plan of a job says of its days and its hours in the bay.
pub(super) struct PlannedDays {
    pub(super) file: JobFile,
    pub(super) entries: Vec<TickEntry>,
    /// Hours that the bay is taken; nothing while nothing is chosen.
    pub(super) in_the_bay: Option<Hours>,
    /// The first day on which it can be begun.
    pub(super) begun: Option<NaiveDate>,
    /// How many of the things it needs have no day.
    pub(super) not_known: usize,
    pub(super) two_people: bool,
}

pub(super) async fn planned_days(database: &Data<Database>, worker: &Worker, number: i32) -> Result<PlannedDays, WebError> {
    let read = PlanRead::read(database, worker, number).await?;
    let currency = worker.units().currency;
    run(move |_| {
        let entries = read.entries();
        let is_chosen = read.file.work.chosen().is_some();
        let work = is_chosen.then(|| read.work());
        let reckoned = work.as_ref().and_then(|work| read.reckoned(work, currency, Local::now().date_naive()));
        let schedule = reckoned.map(|reckoned| reckoned.schedule);
        Ok(PlannedDays {
            in_the_bay: work.as_ref().map(|work| work.in_the_bay),
            begun: schedule.as_ref().map(|schedule| schedule.begun[0]),
            not_known: schedule.map_or(0, |schedule| schedule.not_known),
            two_people: read.file.case().work_plan.two_people,
            entries,
            file: read.file,
        })
    })
    .await
}

/// The form of the plan.
pub(crate) struct PlanForm;

impl JobForm for PlanForm {
    type Read = PlanRead;
    type Entry = WorkPlanEntry;

    fn on_file(units: Units, read: &PlanRead) -> Sheet {
        let mut sheet = form::on_file(units, &read.file.case().work_plan);
        // How it is raised may have been said on the card.
        if let (true, Some(lifting)) = (!sheet.is_filled("raised"), lifting(&read.file.work, &read.entries())) {
            sheet.set("raised", if lifting == Lifting::Lift { "lift" } else { "floor" });
        }
        sheet
    }

    fn is_in_turn(read: &PlanRead) -> Result<(), WebError> {
        let chosen = read.file.work.chosen().map(|_| ());
        chosen.ok_or(WebError::NotNow("Nothing is chosen on this job yet, so there is no work to plan. Choose on Options first."))
    }

    fn change_the_page(sheet: &mut Sheet, _read: &PlanRead) -> bool {
        let asked = sheet.text("propose").to_owned();
        let Some(proposal) = Proposal::of(&asked) else { return false };
        form::propose(sheet, proposal, proposal_words(proposal));
        true
    }

    fn check(sheet: &mut Sheet, read: &PlanRead) -> Option<WorkPlanEntry> {
        form::check(sheet, &read.work().needed, &read.file.case().work_plan)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &WorkPlanEntry) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, read: &PlanRead, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        layout::plan_page(worker, read, sheet, refusal, Local::now().date_naive())
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Plan.path(number)
    }
}

/// Keeps what the shop charges and when it works, for every job from now on.
pub(crate) async fn keep_terms(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let terms = terms_of(&mut sheet)?;
    once(&database, &worker, &sheet, move |connection, person| shop::set_terms(connection, person, &terms)).await?;
    Ok(see_other(Stage::Plan.path_of(*number)))
}

fn terms_of(sheet: &mut Sheet) -> Result<ShopTerms, WebError> {
    let usual = ShopTerms::default();
    let mut number = |name: &str, usual: f64| if sheet.is_filled(name) { sheet.number(name).unwrap_or(f64::NAN) } else { usual };
    let (tax_on_parts, tax_on_work) = (number("tax_on_parts", 0.0), number("tax_on_work", 0.0));
    let hours_a_day = number("hours_a_day", usual.hours_a_day);
    let opens_at = number("opens_at", usual.opens_at);
    let taxes = [tax_on_parts, tax_on_work].iter().all(|tax| (0.0..=MOST_TAX).contains(tax));
    if !taxes {
        return Err(WebError::Refused(format!("Nothing was saved: a tax is from 0 to {MOST_TAX} percent.")));
    }
    if !(1.0..=MOST_OF_A_DAY).contains(&hours_a_day) {
        return Err(WebError::Refused(format!("Nothing was saved: a day has from 1 to {MOST_OF_A_DAY} hours.")));
    }
    if !(0.0..=23.0).contains(&opens_at) || opens_at + hours_a_day >= 24.0 {
        return Err(WebError::Refused(
            "Nothing was saved: a shop opens from 0 to 23 o'clock, and closes before midnight.".to_owned(),
        ));
    }
    let hourly = form::money(sheet, "hourly");
    if let Some((_, problem)) = sheet.problems().next() {
        return Err(WebError::Refused(format!("Nothing was saved: {}", complete_sentence(problem))));
    }
    Ok(ShopTerms { hourly, tax_on_parts, tax_on_work, hours_a_day, saturdays: sheet.is_filled("saturdays"), opens_at })
}
