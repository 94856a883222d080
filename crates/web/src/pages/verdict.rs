//! The verdict: what the readings say, each figure with its sum.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::route::Stage;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::job_frame::{JobFrame, as_chosen};
use super::{Page, job_file, page};
use crate::drawing::BreakdownDrawing;
use crate::error::WebError;
use crate::job_route::{StageWords as _, missing};
use crate::reckoning::drawn;
use crate::view::Figure;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::slips::{SlipWords, slip_words};
use crate::view::story::story_figures;
use crate::view::verdict::{height_figures, load_figures, rate_figures};
use crate::view::why::{CauseWords, breakdown_drawing, cause_words, part_figures};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "verdict.html")]
struct VerdictPage {
    frame: JobFrame,
    missing: Vec<String>,
    /// Figures that are worth a second look, each with the way there.
    look_again: Vec<SlipWords>,
    overload: Option<OverloadWords>,
    /// Where the inches went, once there is a way to take apart.
    way: Option<Way>,
    causes: Option<Causes>,
    number: i32,
    heights: Vec<Figure>,
    loads: Vec<Figure>,
    rates: Vec<Figure>,
}

/// The way down to the height measured: from the height when sound, and failing that from empty.
struct Way {
    drawing: BreakdownDrawing,
    parts: Vec<Figure>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    drawn(move |_| verdict_page(&worker, &file)).await
}

/// The causes ranked: the first that something speaks for stand open, the others folded.
struct Causes {
    open: Vec<CauseWords>,
    folded: Vec<CauseWords>,
}

impl Causes {
    const MOST_OPEN: usize = 3;

    /// `None` where nothing speaks for or against any.
    fn of(ranked: Vec<CauseWords>) -> Option<Self> {
        let stands_open = |(place, cause): &(usize, CauseWords)| *place < Self::MOST_OPEN && cause.likely;
        let (open, folded): (Vec<_>, Vec<_>) = ranked.into_iter().enumerate().partition(stands_open);
        let causes = |placed: Vec<(usize, CauseWords)>| placed.into_iter().map(|(_, cause)| cause).collect::<Vec<_>>();
        let causes = Causes { open: causes(open), folded: causes(folded) };
        (!causes.open.is_empty() || !causes.folded.is_empty()).then_some(causes)
    }

    /// What the fold with the others is called.
    fn folded_words(&self) -> String {
        match self.folded.len() {
            1 => "One more, less likely or not shown".to_owned(),
            folded => format!("{folded} more, less likely or not shown"),
        }
    }
}

fn verdict_page(worker: &Worker, file: &JobFile) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let way = file.work.breakdown();
    let causes = Causes::of(cause_words(file.work.causes(), units));
    let template = VerdictPage {
        way: way.map(|breakdown| Way {
            drawing: breakdown_drawing(&breakdown, units),
            parts: part_figures(&breakdown, survey, file.work.rate(), units),
        }),
        causes,
        number: file.job.number.0,
        frame: JobFrame::new(worker, file, Some(Stage::Verdict), &as_chosen(&file.work)),
        missing: missing(&file.work),
        look_again: slip_words(&file.work, units),
        overload: overload_words(&file.work, units),
        heights: height_figures(survey, units),
        loads: load_figures(survey, &file.case().names_aboard(), units),
        rates: rate_figures(file.work.predictor(), units)
            .into_iter()
            .chain(story_figures(file.work.predictor(), units))
            .collect(),
    };
    page(StatusCode::OK, &template)
}
