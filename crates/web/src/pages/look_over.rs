//! Look-over: what is found on the vehicle before any part is chosen.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::LookOverEntry;
use wise_badger_casework::look_over::{Addition, Area, Defect, Gate, Grade, Measure};
use wise_badger_casework::route::Stage;
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job_sheet};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::photographs::Album;
use super::{Hidden, Page, Record, Refusal, page};
use crate::error::WebError;
use crate::form::look_over::{self, defect_field, field_name, measure_field, repair_field, word};
use crate::form::{Field, Sheet, Tick};
use crate::job_route::StageWords as _;
use crate::view::look_over::{
    addition_name, area_name, defect_name, gate_words, grade_name, look_for, measure_name, put_right_words,
};
use crate::view::{Units, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "look_over.html")]
struct LookOverPage {
    frame: JobFrame,
    hidden: Hidden,
    areas: Vec<AreaForm>,
    /// Repairs that what was found asks for: those on the job bar nothing any more.
    repairs: Vec<Tick>,
    outcome: Outcome,
    album: Album,
    refusal: String,
}

/// What the look-over on file comes to.
struct Outcome {
    /// What stops everything but repair.
    stops: Vec<String>,
    /// What is to be put right with the job, and why.
    additions: Vec<String>,
    /// Areas nobody has looked at.
    left: Vec<&'static str>,
    begun: bool,
}

/// One area on the form.
struct AreaForm {
    word: String,
    name: &'static str,
    look_for: &'static str,
    grades: Vec<Grading>,
    grade_problem: String,
    defects: Vec<Tick>,
    measures: Vec<Field>,
    words: Field,
    /// Whether it is never passed with the rest.
    its_own: bool,
    /// What was found there, in a line.
    said: String,
    /// Whether what was found is not all on file.
    open: bool,
}

struct Grading {
    word: String,
    label: &'static str,
    chosen: bool,
}

/// The look-over's form.
pub(crate) struct LookOverForm;

impl JobForm for LookOverForm {
    type Read = Record;
    type Entry = LookOverEntry;

    fn on_file(units: Units, record: &Record) -> Sheet {
        look_over::on_file(units, record.file.case().look_over.as_ref())
    }

    fn check(sheet: &mut Sheet, record: &Record) -> Option<LookOverEntry> {
        look_over::pass_the_rest(sheet, &record.file.work.areas());
        look_over::check(sheet)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &LookOverEntry) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        look_over_page(worker, record, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::LookOver.path(number)
    }
}

fn look_over_page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let file = &record.file;
    let units = worker.units();
    let template = LookOverPage {
        frame: JobFrame::new(worker, file, Some(Stage::LookOver), &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        areas: file.work.areas().into_iter().map(|area| area_form(sheet, area, units)).collect(),
        repairs: repair_ticks(sheet, &file.work),
        outcome: Outcome::of(&file.work),
        album: Album::of_look_over(record, units),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

impl Outcome {
    fn of(work: &Casework) -> Self {
        let look_over = work.look_over();
        Outcome {
            stops: look_over.stops().iter().map(|gate: &Gate| gate_words(gate)).collect(),
            additions: put_right_words(work, None),
            left: look_over.not_looked_at(&work.areas()).into_iter().map(area_name).collect(),
            begun: !look_over.findings.is_empty(),
        }
    }
}

/// A box for each repair that what was found or an option on the list asks for, and for each that is on the job already; a new pack goes in
/// the place of leaves.
fn repair_ticks(sheet: &Sheet, work: &Casework) -> Vec<Tick> {
    let found = work.look_over().additions().into_iter().map(|(addition, _)| addition);
    let asked: Vec<Addition> = found.chain(work.repairs_for_options()).collect();
    let offered = |repair: &Addition| {
        let instead = *repair == Addition::NewPack && asked.contains(&Addition::NewLeaf);
        asked.contains(repair) || instead || sheet.is_filled(&repair_field(*repair))
    };
    Addition::ALL
        .into_iter()
        .filter(offered)
        .map(|repair| sheet.tick(repair_field(repair), sentence(addition_name(repair))))
        .collect()
}

/// What was found in an area: its defects, what was measured, and what was said of it.
fn said(defects: &[Tick], measures: &[Field], words: &Field) -> String {
    let defects = defects.iter().filter(|defect| defect.ticked).map(|defect| defect.label.clone());
    let measured = measures.iter().filter_map(Field::said);
    defects.chain(measured).chain(words.text_said()).collect::<Vec<_>>().join("; ")
}

fn area_form(sheet: &Sheet, area: Area, units: Units) -> AreaForm {
    let grade_field = field_name(area, "grade");
    let grading =
        |grade: Grade| Grading { word: word(grade), label: grade_name(grade), chosen: sheet.text(&grade_field) == word(grade) };
    let tick = |defect: Defect| sheet.tick(defect_field(defect), defect_name(defect));
    let measures = Measure::ALL.into_iter().filter(|measure| measure.area() == area);
    let measure = |measure: Measure| {
        let decides = if matches!(measure, Measure::BushPlay) { "past" } else { "under" };
        let hint = measure.limit().map_or_else(
            || "for what each option does to it".to_owned(),
            |limit| format!("{decides} {} it is a defect", units.height(limit)),
        );
        sheet.length_field(&measure_field(measure), measure_name(measure)).hint(hint)
    };
    let defects: Vec<Tick> = Defect::of_area(area).map(tick).collect();
    let words = sheet.text_field(&field_name(area, "words"), "In words");
    let measures: Vec<Field> = measures.map(measure).collect();
    AreaForm {
        word: word(area),
        name: area_name(area),
        look_for: look_for(area),
        grades: Grade::ALL.into_iter().map(grading).collect(),
        grade_problem: sheet.problem(&grade_field).to_owned(),
        its_own: area.needs_its_own_look(),
        said: said(&defects, &measures, &words),
        open: words.has_problem() || measures.iter().any(Field::has_problem),
        defects,
        measures,
        words,
    }
}
