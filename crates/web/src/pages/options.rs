//! Options: corrections considered on a job, and where each would leave it.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::casework::NothingFits;
use wise_badger_casework::entry::OptionEntry;
use wise_badger_casework::look_over::Gate;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{NoFit, VehicleClass, VehicleFacts};
use wise_badger_mechanics::correction::Correction;
use wise_badger_store::correction;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{CorrectionId, Database, JobNumber, fitting};

use super::job_frame::{JobFrame, with_prediction};
use super::shelf::picked::{self, Picked};
use super::{Hidden, Kept, Page, Refusal, job_file, keep, keep_or_fail, page, see_other};
use crate::correction::{self as kinds, SiteForm, option_name, parts};
use crate::error::WebError;
use crate::form::{Field, Picks, Posted, Sheet};
use crate::job_route::{StageWords as _, missing};
use crate::reckoning::{Gone, drawn, run};
use crate::view::aim::{aim_words, goal_names};
use crate::view::bench::sides_steel_words;
use crate::view::comparison::{CompareRow, MOST_BESIDE, compare_rows};
use crate::view::consequence::consequence_figures;
use crate::view::load_plan::{CaseHeightsLine, case_heights};
use crate::view::look_over::{gate_words, no_fit_words, put_right_words, ruled_out};
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::prediction::{Detail, goal_sentence, prediction_figures, prediction_line};
use crate::view::shelf::shelf_words;
use crate::view::{Cautions, Figure, Tone, Units, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "options.html")]
struct OptionsPage {
    frame: JobFrame,
    number: i32,
    overload: Option<OverloadWords>,
    /// What stops everything but repair.
    stops: Vec<String>,
    /// What is to be put right along with whatever is chosen.
    additions: Vec<String>,
    /// Whether nobody has looked the vehicle over yet.
    not_looked_over: bool,
    missing: Vec<String>,
    aim: String,
    considered: Vec<OptionLine>,
    /// The option looked at and those beside it.
    columns: Vec<CompareColumn>,
    rows: Vec<CompareRow>,
    shown: Option<ShownOption>,
    form: CorrectionForm,
    refusal: String,
    /// A correction just taken off, to be put back.
    withdrawn: Option<i64>,
}

/// The head of an option's column.
struct CompareColumn {
    letter: char,
    name: String,
    href: String,
    shown: bool,
    chosen: bool,
    verdict: String,
    verdict_class: &'static str,
}

struct OptionLine {
    name: String,
    line: String,
    verdict: String,
    verdict_class: &'static str,
    href: String,
    shown: bool,
    chosen: bool,
}

/// The option looked at.
struct ShownOption {
    id: i64,
    name: String,
    figures: Vec<Figure>,
    verdict: String,
    verdict_class: &'static str,
    /// Whether it holds a pack planned on a bench that was worked on since.
    out_of_date: bool,
    /// How its parts are set otherwise in some states and cases.
    settings: Vec<String>,
    /// Its parts from the shelf, with what it takes to have them.
    from_the_shelf: Vec<String>,
    /// Every goal of the job, where there are several, with what is said of it.
    goals: Vec<(String, String, &'static str)>,
    /// Where it would sit in the cases of the load plan that were not measured.
    cases: Vec<CaseHeightsLine>,
    /// What else changes.
    consequences: Vec<Figure>,
    /// How the leaves of its pack are worked past what they may be, and how each is to look.
    steel: Vec<(&'static str, String)>,
    cautions: Cautions,
    /// Why the look-over rules it out; empty when it does not.
    ruled_out: String,
    chosen: bool,
    /// Whether there is anything to hold a proof against.
    can_choose: bool,
}

struct CorrectionForm {
    hidden: Hidden,
    /// The part of the shelf that it begins with.
    picked: Option<Picked>,
    shelf_href: String,
    kinds: Picks,
    /// The kinds that do not fit the springs that are there, with why.
    not_here: Vec<String>,
    site: SiteForm,
    /// Whether it goes together with the option looked at.
    with: Option<Picks>,
    name: Field,
    settings: Vec<Field>,
    /// Units that bare settings are read in.
    settings_in: Units,
}

/// The kinds that are not offered, a sentence a reason.
fn not_here(vehicle: &VehicleFacts) -> Vec<String> {
    let mut reasons: Vec<(NoFit, Vec<&str>)> = Vec::new();
    for (name, no_fit) in kinds::kinds_that_do_not_fit(vehicle) {
        match reasons.iter_mut().find(|(reason, _)| *reason == no_fit) {
            Some((_, names)) => names.push(name),
            None => reasons.push((no_fit, vec![name])),
        }
    }
    reasons.iter().map(|(no_fit, names)| format!("{}: {}.", names.join(", "), no_fit_words(no_fit))).collect()
}

impl CorrectionForm {
    fn is_open(&self) -> bool {
        !self.name.is_blank() || self.settings.iter().any(|field| !field.is_blank())
    }
}

/// Whether more may be put to what is so ruled out: what is too short is made good by what goes with it.
fn goes_on_with(gates: &[Gate]) -> bool {
    gates.iter().all(|gate| matches!(gate, Gate::TooShort(_)))
}

/// Whether what is typed goes by itself, or together with the option that is looked at.
fn with_field(sheet: &Sheet, shown: Option<&Worked<'_>>, class: VehicleClass, units: Units) -> Option<Picks> {
    let shown = shown?;
    let together = format!("together with {}", option_name(shown.entry, class, units));
    Some(sheet.picks("with", "It goes", [(String::new(), "by itself".to_owned()), (shown.id.0.to_string(), together)]).tall())
}

/// The program, as a promise names it.
const PROGRAM: &str = concat!("Wise Badger ", env!("CARGO_PKG_VERSION"));

#[derive(Deserialize)]
pub(crate) struct Looking {
    show: Option<i64>,
    withdrawn: Option<i64>,
    /// Asked for after another was put on the list: that one, whatever is chosen.
    newest: Option<String>,
    /// A part of the shelf to begin with.
    shelf: Option<i64>,
    /// How it is to be set.
    set: Option<String>,
}

/// Where the option that was put on the list last is looked at.
pub(crate) fn newest_of(number: JobNumber) -> String {
    format!("{}?newest=yes", Stage::Options.path(number))
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    looking: Query<Looking>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::blank(worker.units());
    if let Some(id) = looking.shelf {
        picked::begin_with(&database, &worker, &mut sheet, id, looking.set.as_deref()).await?;
    } else if let Some(part) = looked_at(&file, &looking).and_then(|place| file.case().options.get(place)?.parts.last()) {
        kinds::fill(&mut sheet, &part.correction);
    }
    kinds::begin(&mut sheet, &file.work.found().vehicle, &file.case().sheet);
    drawn(move |gone| options_page(gone, &worker, &file, &sheet, &looking, None)).await
}

pub(crate) async fn consider(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let looking = Looking { show: None, withdrawn: None, newest: None, shelf: None, set: None };
    let picked = picked::sent_with(&database, &worker, &mut sheet).await?;
    let checked = parts::check(&mut sheet, &file, picked.as_ref());
    let parts = checked.as_ref().and_then(|entry| entry.corrections(None));
    let out = parts.map(|parts| ruled_out(&file.work.gate(&parts)));
    if let Some(why) = out.filter(|why| !why.is_empty()) {
        sheet.refuse("kind", why);
    }
    let Some(entry) = checked.filter(|_| sheet.is_sound()) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |gone| options_page(gone, &worker, &file, &sheet, &looking, Some(&refusal))).await;
    };
    let job = file.job.id;
    let kept = keep(&database, &worker, &sheet, job, move |connection, person| {
        correction::consider(connection, person, job, &entry).map(|_| ())
    });
    match kept.await? {
        Kept::Saved => Ok(see_other(newest_of(file.job.number))),
        Kept::Refused(refusal) => {
            let file = job_file(&database, &worker, *number).await?;
            sheet.go_by_the_file();
            drawn(move |gone| options_page(gone, &worker, &file, &sheet, &looking, Some(&refusal))).await
        }
    }
}

pub(crate) async fn choose(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let units = worker.units();
    let place = file.considered.iter().position(|considered| *considered == CorrectionId(id));
    let place = place.ok_or(WebError::NotFound("correction"))?;
    file.work.option(place).ok_or(WebError::NotFound("correction"))?;
    if !file.work.gate_of(place).is_empty() {
        return Err(WebError::NotNow(
            "This correction is ruled out: Options says by what. Put that right first, or pick another.",
        ));
    }
    let (file, promised) = run(move |_| {
        let promised = file.work.promise(place, PROGRAM);
        Ok((file, promised))
    })
    .await?;
    let Some((predicted, promise)) = promised.filter(|(predicted, _)| !predicted.is_empty()) else {
        return Err(WebError::NotNow("Nothing is predicted for this correction yet; put the rear heights on Tape first."));
    };
    let sheet = Sheet::posted(posted, units);
    let (job, id) = (file.job.id, CorrectionId(id));
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        fitting::choose(connection, person, job, id, &predicted, Some(&promise))
    })
    .await?;
    Ok(see_other(Stage::Plan.path(file.job.number)))
}

pub(crate) async fn choose_none(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| fitting::withdraw(connection, person, job)).await?;
    Ok(see_other(Stage::Options.path(file.job.number)))
}

pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    if file.fitting.as_ref().is_some_and(|fitting| fitting.correction_id == CorrectionId(id)) {
        return Err(WebError::NotNow("That correction is the one chosen; take the choice back first."));
    }
    let sheet = Sheet::posted(posted, worker.units());
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        correction::withdraw(connection, person, job, CorrectionId(id))
    })
    .await?;
    Ok(see_other(format!("{}?withdrawn={id}", Stage::Options.path(file.job.number))))
}

pub(crate) async fn restore(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, i64)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, id) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        correction::restore(connection, person, job, CorrectionId(id))
    })
    .await?;
    Ok(see_other(format!("{}?show={id}", Stage::Options.path(file.job.number))))
}

/// Over a rating, or on a failed part, no correction is offered and none is taken.
pub(crate) fn refuse_what_cannot_be_cured(file: &JobFile) -> Result<(), WebError> {
    match file.work.nothing_fits() {
        None => Ok(()),
        Some(NothingFits::OverARating) => {
            Err(WebError::NotNow("The vehicle is over a rating. Weight comes off first; no spring changes that."))
        }
        Some(NothingFits::Stopped) => {
            Err(WebError::NotNow("The look-over says stop. Repair comes first; nothing is fitted on a failed part."))
        }
    }
}

/// The place of the option asked for, the one chosen, or the newest.
fn looked_at(file: &JobFile, looking: &Looking) -> Option<usize> {
    let asked = looking.show.and_then(|id| file.considered.iter().position(|considered| *considered == CorrectionId(id)));
    let chosen = || file.case().chosen.filter(|_| looking.newest.is_none());
    asked.or_else(chosen).or_else(|| file.considered.len().checked_sub(1))
}

/// Each goal of a job with several, and whether a correction meets it.
fn goal_lines(work: &Casework, option: &Worked<'_>, units: Units) -> Vec<(String, String, &'static str)> {
    let names = goal_names(work, units);
    let several = names.len() > 1;
    let line = |(place, name): (usize, String)| {
        let said = goal_sentence(work, place, option.place, units);
        let (tone, text) = said.unwrap_or((Tone::Plain, "A height that it hangs on is not read yet.".to_owned()));
        (sentence(&name), text, tone.class())
    };
    names.into_iter().enumerate().filter(|_| several).map(line).collect()
}

/// A correction with its prediction on the job's survey.
struct Worked<'a> {
    id: CorrectionId,
    place: usize,
    entry: &'a OptionEntry,
    parts: &'a [Correction],
    prediction: &'a Prediction,
    verdict: Option<(Tone, String)>,
}

impl<'a> Worked<'a> {
    fn all(file: &'a JobFile, units: Units, gone: &Gone) -> Result<Vec<Self>, WebError> {
        let work = &file.work;
        let most = file.case().aim.as_ref().map_or(0, |aim| aim.most);
        let mut all = Vec::with_capacity(file.considered.len());
        for (place, id) in file.considered.iter().enumerate() {
            gone.check()?;
            let Some(((entry, parts), prediction)) = work.option(place).zip(work.predicted(place)) else { continue };
            let verdict = goal_sentence(work, most, place, units);
            all.push(Worked { id: *id, place, entry, parts, prediction, verdict });
        }
        Ok(all)
    }

    fn verdict(&self) -> (String, &'static str) {
        self.verdict.as_ref().map_or((String::new(), ""), |(tone, text)| (text.clone(), tone.class()))
    }
}

/// The options beside one another, in the order of the list: the one looked at, the one chosen, and the newest of the others.
fn beside<'w, 'a>(worked: &'w [Worked<'a>], looked_at: Option<usize>, chosen: Option<usize>) -> Vec<&'w Worked<'a>> {
    let wanted = |option: &&Worked<'_>| Some(option.place) == looked_at || Some(option.place) == chosen;
    let mut beside: Vec<&Worked<'_>> = worked.iter().filter(wanted).collect();
    let others = worked.iter().rev().filter(|option| !wanted(option));
    beside.extend(others.take(MOST_BESIDE.saturating_sub(beside.len())));
    beside.sort_by_key(|option| option.place);
    beside
}

fn options_page(
    gone: &Gone,
    worker: &Worker,
    file: &JobFile,
    sheet: &Sheet,
    looking: &Looking,
    refusal: Option<&Refusal>,
) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let class = survey.vehicle.class;
    let overload = overload_words(&file.work, units);
    let look_over = file.work.look_over();
    let stops: Vec<String> = look_over.stops().iter().map(gate_words).collect();
    let worked = if file.work.nothing_fits().is_some() { Vec::new() } else { Worked::all(file, units, gone)? };
    let (looked_at, chosen) = (looked_at(file, looking), file.case().chosen);
    let shown = worked.iter().find(|option| Some(option.place) == looked_at);
    let number = file.job.number;
    let line = |option: &Worked<'_>| {
        let (verdict, verdict_class) = option.verdict();
        OptionLine {
            name: option_name(option.entry, class, units),
            line: prediction_line(survey, option.prediction, units),
            verdict,
            verdict_class,
            href: format!("{}?show={}", Stage::Options.path(number), option.id.0),
            shown: Some(option.place) == looked_at,
            chosen: Some(option.place) == chosen,
        }
    };
    let look = |option: &Worked<'_>| {
        let (verdict, verdict_class) = option.verdict();
        let gates = file.work.gate_of(option.place);
        ShownOption {
            id: option.id.0,
            name: option_name(option.entry, class, units),
            figures: prediction_figures(file.work.predictor(), option.parts, option.prediction, Detail::Sides, units),
            consequences: consequence_figures(&file.work, option.place, units),
            verdict,
            verdict_class,
            out_of_date: file.work.is_out_of_date(option.place),
            settings: parts::setting_words(option.entry, file, units),
            from_the_shelf: option.entry.parts.iter().filter_map(|part| part.shelf.as_deref()).map(shelf_words).collect(),
            goals: goal_lines(&file.work, option, units),
            cases: case_heights(file.work.predictor(), file.work.cases(), |case| file.work.in_case(option.place, case), units),
            steel: sides_steel_words(file.work.benches_of(option.place), units),
            cautions: Cautions::of(&file.work.cautions(option.parts)),
            ruled_out: ruled_out(&gates),
            chosen: Some(option.place) == chosen,
            can_choose: gates.is_empty() && (option.prediction.empty.is_ok() || option.prediction.loaded.is_ok()),
        }
    };
    let beside = beside(&worked, looked_at, chosen);
    let column = |(letter, option): (char, &&Worked<'_>)| {
        let (verdict, verdict_class) = option.verdict();
        CompareColumn {
            letter,
            name: option_name(option.entry, class, units),
            href: format!("{}?show={}", Stage::Options.path(number), option.id.0),
            shown: Some(option.place) == looked_at,
            chosen: Some(option.place) == chosen,
            verdict,
            verdict_class,
        }
    };
    let places: Vec<usize> = beside.iter().map(|option| option.place).collect();
    let pictured = with_prediction(&file.work, shown.map(|option| option.prediction));
    let template = OptionsPage {
        frame: JobFrame::new(worker, file, Some(Stage::Options), &pictured),
        number: number.0,
        overload,
        stops,
        additions: put_right_words(&file.work, shown.map(|option| option.place)),
        not_looked_over: file.case().look_over.is_none(),
        missing: missing(&file.work),
        aim: aim_words(&file.work, units),
        considered: worked.iter().map(line).collect(),
        columns: ('A'..).zip(&beside).map(column).collect(),
        rows: if places.is_empty() { Vec::new() } else { compare_rows(&file.work, &places, units) },
        shown: shown.map(look),
        form: CorrectionForm {
            hidden: Hidden::new(sheet, file.job.revision),
            picked: Picked::of(sheet),
            shelf_href: format!("/jobs/{}/shelf", number.0),
            kinds: kinds::kinds_form(sheet, &survey.vehicle),
            not_here: not_here(&survey.vehicle),
            site: kinds::site_form(sheet, class),
            with: with_field(sheet, shown.filter(|option| goes_on_with(&file.work.gate_of(option.place))), class, units),
            name: sheet.text_field("option_name", "What to call the option").hint("may stay empty"),
            settings: parts::settings_form(sheet, file),
            settings_in: sheet.units(),
        },
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
        withdrawn: looking.withdrawn,
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
