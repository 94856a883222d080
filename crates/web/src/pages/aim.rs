//! The aim: what height is right for this job, and what that does in the other load case.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::entry::AimSheet;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::Survey;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job_sheet};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Page, Refusal, page};
use crate::error::WebError;
use crate::form::goals::{self, GoalForm};
use crate::form::{Field, Picks, Sheet, aim};
use crate::job_route::StageWords as _;
use crate::view::aim::{AimCase, aim_cases, aim_figures, goal_names, goals_as_found, side_to_side};
use crate::view::{Figure, Units, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "aim.html")]
struct AimPage {
    frame: JobFrame,
    hidden: Hidden,
    aims: Picks,
    tolerance: Field,
    side_to_side: Field,
    goals: Vec<GoalForm>,
    /// Which goal matters most, where there are several.
    most: Option<Picks>,
    /// Goals beside the first, and whether each is met as the vehicle came in.
    beside: Vec<(String, &'static str)>,
    /// What it makes of every load case.
    cases: Vec<AimCase>,
    /// What the aim on file asks for and does.
    figures: Vec<Figure>,
    refusal: String,
}

/// The aim's form.
pub(crate) struct AimForm;

impl JobForm for AimForm {
    type Read = JobFile;
    type Entry = AimSheet;

    fn on_file(units: Units, file: &JobFile) -> Sheet {
        aim::on_file(units, file.case().aim.as_ref())
    }

    fn check(sheet: &mut Sheet, file: &JobFile) -> Option<AimSheet> {
        aim::check(sheet, file)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &AimSheet) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        aim_page(worker, file, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Aim.path(number)
    }
}

fn figures(file: &JobFile, survey: &Survey, units: Units) -> Vec<Figure> {
    let Some(aim) = &file.case().aim else { return Vec::new() };
    let mut figures = file.work.aim().map(|aim| aim_figures(&aim, survey, units)).unwrap_or_default();
    figures.extend(aim.side_to_side.iter().flat_map(|most| side_to_side(survey, most.length(), units)));
    figures
}

fn most(sheet: &Sheet, file: &JobFile, units: Units) -> Option<Picks> {
    let names = goal_names(&file.work, units);
    let offered = names.iter().enumerate().map(|(place, name)| (place.to_string(), sentence(name)));
    (names.len() > 1).then(|| sheet.picks("most", "What matters most", offered).tall())
}

fn aim_page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let tolerance_hint =
        if units.length_name() == "in" { "how far off still counts, like 1/4" } else { "how far off still counts, like 6" };
    let template = AimPage {
        frame: JobFrame::new(worker, file, Some(Stage::Aim), &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        aims: aim::picks(sheet, survey),
        tolerance: sheet.length_field("tolerance", "Tolerance, front to rear").hint(tolerance_hint),
        side_to_side: sheet.length_field("side_to_side", "Tolerance, side to side").hint("may stay empty"),
        cases: file.work.aim().map(|aim| aim_cases(&aim, &file.work, units)).unwrap_or_default(),
        goals: goals::forms(sheet, file),
        most: most(sheet, file, units),
        beside: goals_as_found(&file.work, units),
        figures: figures(file, survey, units),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
