//! What a bench looks like under a load: drawn anew while the slider moves and the leaves are typed.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_mechanics::pack::{PackError, PackWork};
use wise_badger_mechanics::survey::Survey;
use wise_badger_mechanics::units::Force;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::{found, planned_cases};
use super::super::{Posted, job_file, page};
use super::{arch_on_tape, load_asked, with_pack};
use crate::drawing::{Drawing, DrawnCurve, PackDrawing, curve_drawing};
use crate::error::WebError;
use crate::form::Sheet;
use crate::form::bench::{self, Which};
use crate::view::bench::{Bench, HeightLine, agreement_words, doubt_words, drawn, estimated_words, height_lines, load_figures};
use crate::view::{Figure, Units};
use crate::worker::Worker;

/// The packs, as found over as planned.
#[derive(Template)]
#[template(path = "parts/bench_picture.html")]
pub(super) struct BenchPicture {
    drawing: PackDrawing,
    curve: Drawing,
    doubts: Vec<String>,
    estimated: Vec<String>,
}

impl askama::filters::HtmlSafe for BenchPicture {}

/// Figures, heights and the curve.
#[derive(Template)]
#[template(path = "parts/bench_figures.html")]
pub(super) struct BenchFigures {
    load: String,
    figures: Vec<Figure>,
    heights: Vec<HeightLine>,
    changed: bool,
    agreement: Vec<String>,
}

impl askama::filters::HtmlSafe for BenchFigures {}

#[derive(Template)]
#[template(path = "parts/bench_preview.html")]
struct Preview {
    picture: BenchPicture,
    figures: BenchFigures,
}

impl BenchPicture {
    pub(super) fn new(bench: &Bench, load: Option<Force>, changed: bool, units: Units) -> Result<Self, PackError> {
        let mut packs = vec![drawn(bench, &bench.found, Which::Found.name(), load, units)?];
        if changed {
            packs.push(drawn(bench, &bench.planned, Which::Planned.name(), load, units)?);
        }
        let mut curves = vec![DrawnCurve {
            curve: &bench.found.curve,
            class: "found",
            name: "as found",
            second_stage: bench.found.second_stage,
        }];
        if changed {
            let (curve, second_stage) = (&bench.planned.curve, bench.planned.second_stage);
            curves.push(DrawnCurve { curve, class: "planned", name: "as planned", second_stage });
        }
        let named: Vec<(String, Force)> = bench.loads.iter().map(|named| (named.name.clone(), named.load)).collect();
        let told: Vec<String> = packs
            .iter()
            .map(|pack| {
                let leaves = pack.marks.iter().map(|mark| format!("{} {}", mark.name, mark.words)).collect::<Vec<_>>().join(", ");
                format!("{}: {}; {leaves}", pack.title, pack.arch.as_deref().unwrap_or("unbolted"))
            })
            .collect();
        Ok(BenchPicture {
            drawing: PackDrawing::new(&packs, &told.join(". ")),
            curve: curve_drawing(&curves, &named, units),
            doubts: doubt_words(&bench.planned.pack),
            estimated: estimated_words(&bench.found),
        })
    }
}

impl BenchFigures {
    pub(super) fn new(
        file: &JobFile,
        survey: &Survey,
        cases: &[(String, Survey)],
        bench: &Bench,
        load: Option<Force>,
        changed: bool,
        units: Units,
    ) -> Result<Self, PackError> {
        let at = load.unwrap_or_default();
        let work = PackWork::new(&bench.found.pack, &bench.planned.pack, survey.vehicle.most_spring_load())?;
        Ok(BenchFigures {
            load: units.weight(at),
            figures: load_figures(bench, at, changed, units)?,
            heights: height_lines(file, survey, cases, work, units),
            changed,
            agreement: agreement_words(survey, bench, arch_on_tape(file), units),
        })
    }
}

/// The picture of a bench being worked on. Nothing is saved; while a field cannot be read, the picture stays as it is.
pub(crate) async fn preview(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted.into_inner(), worker.units());
    let Some(pack) = bench::check(&mut sheet) else { return Ok(HttpResponse::NoContent().finish()) };
    let which = Which::of(sheet.text("pack"));
    let entry = with_pack(file.bench.as_ref(), which, pack);
    // The vehicle stands on the packs as they are typed, not as they are on file.
    let changed = entry.is_changed();
    let file = JobFile { bench: Some(entry.clone()), ..file };
    let (units, survey) = found(&worker, &file);
    let cases = planned_cases(&file, &survey);
    let drawn = Bench::new(&file, &survey, &cases, &entry).and_then(|bench| {
        let load = load_asked(&bench, sheet.text("load"), units);
        let picture = BenchPicture::new(&bench, load, changed, units)?;
        let figures = BenchFigures::new(&file, &survey, &cases, &bench, load, changed, units)?;
        Ok(Preview { picture, figures })
    });
    match drawn {
        Ok(preview) => page(StatusCode::OK, &preview),
        Err(_) => Ok(HttpResponse::NoContent().finish()),
    }
}
