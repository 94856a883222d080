//! The shop's sums: one at a time, asked by address, so that an answer can be linked to and printed. Asked for a job, a sum begins with the
//! job's figures, and can be kept with it.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use form_urlencoded::Serializer;
use wise_badger_casework::entry::{KeptSum, KeptSumsEntry, MOST_SUMS};
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::{Hidden, Page, job_file, keep_sheet, or_fail, page, see_other};
use crate::error::WebError;
use crate::form::{Field, Picks, Posted, Sheet};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::sums::{self, GROUPS, JOB, ShopSum, answer, is_asked};
use crate::view::Figure;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "sums.html")]
struct SumsPage {
    shell: Shell,
    groups: Vec<Group>,
    name: &'static str,
    about: &'static str,
    path: String,
    length_unit: &'static str,
    weight_unit: &'static str,
    picks: Vec<Picks>,
    fields: Vec<Field>,
    figures: Vec<Figure>,
    problem: String,
    job: Option<ForJob>,
}

/// The job that a sum is asked for.
struct ForJob {
    number: i32,
    label: String,
    /// How many figures of it stand in the form.
    filled: usize,
    /// What is sent to keep the answer with it, once there is one.
    keep: Option<Keep>,
}

struct Keep {
    hidden: Hidden,
    word: &'static str,
    inputs: Vec<(String, String)>,
}

/// Sums about one thing, for the list.
struct Group {
    name: &'static str,
    links: Vec<Link>,
}

struct Link {
    name: &'static str,
    href: String,
    here: bool,
}

type Typed = Query<Vec<(String, String)>>;

pub(crate) async fn first(database: Data<Database>, worker: Worker, typed: Typed) -> Result<HttpResponse, WebError> {
    let (_, [first, ..]) = GROUPS[0] else { return Err(WebError::NotFound("sum")) };
    asked(&database, worker, first, typed.into_inner()).await
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    word: Path<String>,
    typed: Typed,
) -> Result<HttpResponse, WebError> {
    let sum = sums::find(&word).ok_or(WebError::NotFound("sum"))?;
    asked(&database, worker, sum, typed.into_inner()).await
}

async fn asked(
    database: &Data<Database>,
    worker: Worker,
    sum: &'static ShopSum,
    typed: Vec<(String, String)>,
) -> Result<HttpResponse, WebError> {
    let job = typed.iter().find(|(name, _)| name == JOB).and_then(|(_, number)| number.parse().ok());
    let file = match job {
        Some(number) => Some(job_file(database, &worker, number).await?),
        None => None,
    };
    drawn(move |_| sum_page(&worker, sum, typed, file.as_ref())).await
}

fn sum_page(
    worker: &Worker,
    sum: &'static ShopSum,
    typed: Vec<(String, String)>,
    file: Option<&JobFile>,
) -> Result<Page, WebError> {
    let is_asked = is_asked(&typed);
    let mut answer = answer(sum, typed, worker.units());
    let filled = file.filter(|_| !is_asked).map_or(0, |file| sums::fill(&mut answer.sheet, sum, &file.work));
    let (sheet, there) = (&answer.sheet, answer.is_there());
    let wrong = !sheet.is_sound() || !answer.problem.is_empty();
    let job = file.map(|file| ForJob {
        number: file.job.number.0,
        label: file.case().intake.label.clone(),
        filled,
        keep: there.then(|| Keep {
            hidden: Hidden::new(&Sheet::blank(sheet.units()), file.job.revision),
            word: sum.word,
            inputs: inputs_of(sum, sheet),
        }),
    });
    let path = format!("/sums/{}", sum.word);
    let for_job = file.map(|file| format!("?{JOB}={}", file.job.number.0)).unwrap_or_default();
    let link =
        |each: &ShopSum| Link { name: each.name, href: format!("/sums/{}{for_job}", each.word), here: each.word == sum.word };
    let template = SumsPage {
        shell: Shell::new(worker, sum.name, path.clone()),
        groups: GROUPS.map(|(name, sums)| Group { name, links: sums.iter().map(link).collect() }).into_iter().collect(),
        name: sum.name,
        about: sum.about,
        path,
        length_unit: sheet.units().length_name(),
        weight_unit: sheet.units().weight_name(),
        picks: sum.inputs.iter().filter_map(|input| input.picks(sheet)).collect(),
        fields: sum.inputs.iter().filter_map(|input| input.field(sheet)).collect(),
        figures: answer.figures,
        problem: answer.problem,
        job,
    };
    page(if wrong { StatusCode::UNPROCESSABLE_ENTITY } else { StatusCode::OK }, &template)
}

fn inputs_of(sum: &ShopSum, sheet: &Sheet) -> Vec<(String, String)> {
    sum.inputs.iter().map(|input| (input.name.to_owned(), sheet.text(input.name).to_owned())).collect()
}

/// Puts an answer on a job's page.
pub(crate) async fn keep(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let sum = sums::find(sheet.text("sum")).ok_or(WebError::NotFound("sum"))?;
    let units = sheet.units();
    let kept = KeptSum {
        sum: sum.word.to_owned(),
        length_unit: units.length_name().to_owned(),
        weight_unit: units.weight_name().to_owned(),
        inputs: inputs_of(sum, &sheet).into_iter().collect(),
    };
    if !answer(sum, asked_again(&kept), worker.units()).is_there() {
        return Err(WebError::NotNow("That sum has no answer to keep. Go back and work it out first."));
    }
    let entry = file.case().sums.with(kept);
    let entry = entry.ok_or_else(|| WebError::Refused(format!("A job keeps {MOST_SUMS} sums; take one off its page first.")))?;
    put(&database, &worker, &sheet, &file, entry).await
}

/// Takes a kept sum off a job.
pub(crate) async fn drop(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, usize)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, place) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let entry = file.case().sums.without(place);
    put(&database, &worker, &sheet, &file, entry).await
}

/// Puts a job's sums on record, and leads back to its page.
async fn put(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    file: &JobFile,
    entry: KeptSumsEntry,
) -> Result<HttpResponse, WebError> {
    or_fail(keep_sheet(database, worker, sheet, file.job.id, entry).await?)?;
    Ok(see_other(format!("/jobs/{}", file.job.number.0)))
}

/// A kept sum as its address asks it.
fn asked_again(kept: &KeptSum) -> Vec<(String, String)> {
    let units = [("length_unit", &kept.length_unit), ("weight_unit", &kept.weight_unit)];
    let units = units.map(|(name, unit)| (name.to_owned(), unit.clone()));
    kept.inputs.clone().into_iter().chain(units).collect()
}

/// A kept sum on a job's page.
pub(super) struct KeptLine {
    /// Its place among the job's sums.
    pub(super) place: usize,
    pub(super) name: String,
    /// Where it is asked again; nowhere where this program has no such sum.
    pub(super) href: String,
    /// Every figure of it in a few words, or that there is none.
    pub(super) figures: String,
    pub(super) hidden: Hidden,
}

/// The sums kept with a job, worked out anew for a reader.
pub(super) fn kept_lines(worker: &Worker, file: &JobFile) -> Vec<KeptLine> {
    let line = |(place, kept): (usize, &KeptSum)| {
        let hidden = Hidden::new(&Sheet::blank(worker.units()), file.job.revision);
        let Some(sum) = sums::find(&kept.sum) else {
            let figures = "this version of the program has no such sum".to_owned();
            return KeptLine { place, name: kept.sum.clone(), href: String::new(), figures, hidden };
        };
        let asked = asked_again(kept);
        let for_job = std::iter::once((JOB.to_owned(), file.job.number.0.to_string()));
        let query = Serializer::new(String::new()).extend_pairs(asked.iter().cloned().chain(for_job)).finish();
        let answer = answer(sum, asked, worker.units());
        let figures: Vec<_> = answer.figures.iter().map(|figure| format!("{} {}", figure.label, figure.value)).collect();
        let figures = if answer.is_there() { figures.join("; ") } else { "has no answer; open it to see why".to_owned() };
        KeptLine { place, name: sum.name.to_owned(), href: format!("/sums/{}?{query}", sum.word), figures, hidden }
    };
    file.case().sums.sums.iter().enumerate().map(line).collect()
}
