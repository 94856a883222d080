//! The estimate for the customer: printed, and signed on the screen or on paper.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use chrono::{Local, NaiveDate};
use wise_badger_casework::entry::{PaperSection, PaperWord};
use wise_badger_casework::route::Stage;
use wise_badger_casework::work_plan::{Line, Told};
use wise_badger_store::Database;
use wise_badger_store::paper::{self, Paper};

use super::super::job_form::ReadJob as _;
use super::super::signing::{SignForm, SignedView, WHEN, says_the_same, sign};
use super::super::wrench::may_be_worked_on;
use super::super::{Page, page, see_other};
use super::{PlanRead, Reckoned};
use crate::correction::option_name;
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::job_route::StageWords as _;
use crate::paper_pdf::{Rulers, pdf, sent};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::class_name;
use crate::view::work_plan::{done_words, hours_words, needed_words, sum_words, sums_words};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "estimate.html")]
struct EstimatePage {
    shell: Shell,
    number: i32,
    plan: String,
    label: String,
    vehicle: String,
    shop: String,
    today: String,
    sections: Vec<PaperSection>,
    sign: SignForm,
    signed: Vec<SignedView>,
}

pub(crate) async fn estimate(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let read = PlanRead::read(&database, &worker, *number).await?;
    let papers = papers(&database, &worker, &read).await?;
    drawn(move |_| estimate_page(&worker, &read, &papers)).await
}

pub(crate) async fn sign_estimate(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let read = PlanRead::read(&database, &worker, *number).await?;
    let sections = sections(&worker, &read, Local::now().date_naive())?;
    let sheet = Sheet::posted(posted, worker.units());
    sign(&database, &worker, &sheet, &read.file, PaperWord::Estimate, sections).await?;
    Ok(see_other(format!("/jobs/{number}/estimate")))
}

/// The estimate as a file.
pub(crate) async fn estimate_file(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let read = PlanRead::read(&database, &worker, *number).await?;
    let papers = papers(&database, &worker, &read).await?;
    let sections = sections(&worker, &read, Local::now().date_naive())?;
    let intake = &read.file.case().intake;
    let today = Local::now().format("%B %-d, %Y");
    let heading = format!("{}, job {number}, {today}. {}.", worker.shop.name, class_name(intake.class));
    let signed = papers.iter().rev().map(|paper| &paper.entry.0).find(|paper| paper.paper == PaperWord::Estimate);
    let signed = signed.filter(|paper| says_the_same(&paper.sections, &sections));
    let body = pdf(&format!("Estimate: {}", intake.label), &heading, &Rulers(Vec::new()), &sections, signed);
    Ok(sent(body, &format!("job-{number}-estimate.pdf")))
}

async fn papers(database: &Data<Database>, worker: &Worker, read: &PlanRead) -> Result<Vec<Paper>, WebError> {
    let (shop, job) = (worker.shop_id(), read.file.job.id);
    database.read(move |connection| paper::of_job(connection, shop, job)).await.map_err(WebError::from)
}

fn estimate_page(worker: &Worker, read: &PlanRead, papers: &[Paper]) -> Result<Page, WebError> {
    let file = &read.file;
    let sections = sections(worker, read, Local::now().date_naive())?;
    let number = file.job.number;
    let class = file.case().intake.class;
    let template = EstimatePage {
        shell: Shell::new(worker, format!("Estimate, {}", file.case().intake.label), format!("/jobs/{}/estimate", number.0)),
        number: number.0,
        plan: Stage::Plan.path(number),
        label: file.case().intake.label.clone(),
        vehicle: class_name(class).to_owned(),
        shop: worker.shop.name.clone(),
        today: Local::now().format("%B %-d, %Y").to_string(),
        sign: SignForm::new(worker, file, &sections, format!("/jobs/{}/estimate/sign", number.0), "The customer agrees to this"),
        signed: SignedView::of(papers, PaperWord::Estimate, &sections, &read.names),
        sections,
    };
    page(StatusCode::OK, &template)
}

/// What the estimate says, heading by heading.
fn sections(worker: &Worker, read: &PlanRead, today: NaiveDate) -> Result<Vec<PaperSection>, WebError> {
    let (file, units) = (&read.file, worker.units());
    let plan = &file.case().work_plan;
    let Some((option, _)) = file.work.chosen() else {
        return Err(WebError::NotNow(
            "Nothing is chosen on this job yet, so there is nothing to estimate. Choose on Options first.",
        ));
    };
    if let Err((words, ..)) = may_be_worked_on(&file.work) {
        return Err(WebError::Refused(words));
    }
    let work = read.work();
    let Some(Reckoned { schedule, estimate, .. }) = read.reckoned(&work, units.currency, today) else {
        return Err(WebError::NotFound("estimate"));
    };
    let price = |hundredths: Option<i64>| hundredths.map_or("not priced yet".to_owned(), |sum| sum_words(sum, estimate.currency));
    let line = |line: &Line<'_>| {
        let what = match line.of {
            Told::Needed(place) => work.needed.get(place).map(|needed| needed_words(needed, file, units).0).unwrap_or_default(),
            Told::Extra(extra) => format!("{} (agreed to: {})", extra.what, extra.said_by),
        };
        format!("{what}: {}", price(line.hundredths))
    };
    let mut money = vec![format!("Parts together: {}", sum_words(estimate.parts, estimate.currency))];
    match estimate.work {
        Some(cost) => money.push(format!("Work, {}: {}", hours_words(work.labor), sums_words(cost, estimate.currency))),
        None => money.push(format!("Work, {}: not priced yet", hours_words(work.labor))),
    }
    if estimate.tax != [0, 0] {
        money.push(format!("Tax: {}", sums_words(estimate.tax, estimate.currency)));
    }
    let open = if estimate.not_priced > 0 || estimate.work.is_none() { ", and what is not priced yet" } else { "" };
    money.push(format!("All together: {}{open}", sums_words(estimate.total, estimate.currency)));
    let declined = plan.extras.iter().filter(|extra| extra.agreed == Some(false));
    let declined: Vec<String> = declined.map(|extra| format!("{} (declined: {})", extra.what, extra.said_by)).collect();
    let all = [
        ("To be fitted", vec![option_name(option, file.case().intake.class, units)]),
        ("Parts", estimate.lines.iter().map(line).collect()),
        ("Cost", money),
        ("Advised and declined", declined),
        (WHEN, vec![format!("Done {}, if parts come as they are promised and a bay is free.", done_words(&schedule))]),
        (
            "To know",
            vec![
                "No rating of the vehicle is raised by this work.".to_owned(),
                "Work found on the way is done only once you have said yes to it and its price.".to_owned(),
            ],
        ),
    ];
    let sections = all.into_iter().filter(|(_, lines)| !lines.is_empty());
    Ok(sections.map(|(title, lines)| PaperSection { title: title.to_owned(), lines }).collect())
}
