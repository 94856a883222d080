//! The aim: what height is right for this job, and what that does in the other load case.

use std::cmp::Reverse;

use actix_web::http::StatusCode;
use actix_web::web::Data;
use askama::Template;
use wise_badger_casework::entry::AimSheet;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::Survey;
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::units::metres;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::ledger::{self, SoundHeight};
use wise_badger_store::person::Person;
use wise_badger_store::{Database, JobId, JobNumber, PgConnection, StoreError, VehicleId, job_sheet, vehicle};

use super::job_form::{JobForm, ReadJob};
use super::job_frame::{JobFrame, as_chosen};
use super::ledger::sound_words;
use super::{Hidden, Page, Refusal, job_file, page};
use crate::error::WebError;
use crate::form::goals::{self, GoalForm};
use crate::form::{Field, Picks, Sheet, aim};
use crate::job_route::StageWords as _;
use crate::view::aim::{AimCase, aim_cases, aim_figures, goal_names, goals_as_found, side_to_side};
use crate::view::{Figure, Units, sentence};
use crate::worker::Worker;

/// So many sound heights are shown at most.
const MOST_SOUND: usize = 4;

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
    /// How high sound ones of its class stand, measured from the same.
    sound: Vec<SoundLine>,
    /// Whether none of them is this vehicle.
    others_alone: bool,
    refusal: String,
}

/// How high a sound one stands, and how that is known.
struct SoundLine {
    number: i32,
    height: String,
    how: &'static str,
    label: String,
    same_vehicle: bool,
}

/// What the page is drawn from.
pub(crate) struct AimRead {
    file: JobFile,
    /// Of the vehicle's class.
    sound: Vec<SoundHeight>,
    vehicle: Option<VehicleId>,
}

impl ReadJob for AimRead {
    async fn read(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Self, WebError> {
        let file = job_file(database, worker, number).await?;
        let (shop, job, class) = (worker.shop_id(), file.job.id, file.case().intake.class.word());
        let read = database.read(move |connection| {
            let vehicle = vehicle::of_job(connection, shop, job)?.map(|vehicle| vehicle.id);
            Ok::<_, StoreError>((ledger::sound_heights(connection, shop, Some(class))?, vehicle))
        });
        let (sound, vehicle) = read.await?;
        Ok(AimRead { file, sound, vehicle })
    }

    fn file(&self) -> &JobFile {
        &self.file
    }
}

impl AimRead {
    /// Sound ones measured as this one is: the same vehicle first, what was measured here before what was told, the newest first.
    fn sound_lines(&self, units: Units) -> Vec<SoundLine> {
        let datum = self.file.work.found().datum;
        let mut like: Vec<(bool, &SoundHeight)> = self
            .sound
            .iter()
            .filter(|of| of.datum == datum.word())
            .map(|of| (of.vehicle_id.is_some() && of.vehicle_id == self.vehicle, of))
            .collect();
        like.sort_by_key(|(same, of)| Reverse((*same, of.measured, of.number)));
        let line = |(same_vehicle, of): (bool, &SoundHeight)| SoundLine {
            number: of.number,
            height: units.height(metres(of.rear_m)),
            how: sound_words(of),
            label: of.label.clone(),
            same_vehicle,
        };
        like.into_iter().take(MOST_SOUND).map(line).collect()
    }
}

/// The aim's form.
pub(crate) struct AimForm;

impl JobForm for AimForm {
    type Read = AimRead;
    type Entry = AimSheet;

    fn on_file(units: Units, read: &AimRead) -> Sheet {
        aim::on_file(units, read.file.case().aim.as_ref())
    }

    fn check(sheet: &mut Sheet, read: &AimRead) -> Option<AimSheet> {
        aim::check(sheet, &read.file)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &AimSheet) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, read: &AimRead, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        aim_page(worker, read, sheet, refusal)
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

fn aim_page(worker: &Worker, read: &AimRead, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let file = &read.file;
    let (units, survey) = (worker.units(), file.work.found());
    let tolerance_hint =
        if units.length_name() == "in" { "how far off still counts, like 1/4" } else { "how far off still counts, like 6" };
    let sound = read.sound_lines(units);
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
        others_alone: !sound.iter().any(|of| of.same_vehicle),
        sound,
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
