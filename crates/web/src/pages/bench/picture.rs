//! What a bench looks like under a load: drawn anew while the slider moves and the leaves are typed.

use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::bench::{BenchWork, Benches, Packs};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::BenchEntry;
use wise_badger_casework::intake::Intake;
use wise_badger_casework::survey::VehicleFacts;
use wise_badger_mechanics::pack::PackError;
use wise_badger_mechanics::units::Force;
use wise_badger_store::job as jobs;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, JobNumber, PgConnection, ShopId, StoreError, job_sheet};

use super::super::{job_file, page};
use super::{arch_on_tape, found_before, load_asked, with_pack};
use crate::drawing::{Drawing, DrawnCurve, PackDrawing, curve_drawing};
use crate::error::WebError;
use crate::form::bench::{self, As, Which};
use crate::form::{Posted, Sheet};
use crate::reckoning::run;
use crate::view::bench::{
    AgreementWords, ContactLine, HeightLine, PackUnder, agreement_words, contact_lines, doubt_words, drawn, drawn_loose,
    estimated_words, height_lines, load_figures, load_name, second_stage_figure, steel_words,
};
use crate::view::{Figure, Units};
use crate::worker::Worker;

/// The packs under a load, as found over as planned.
#[derive(Template)]
#[template(path = "parts/bench_picture.html")]
pub(super) struct BenchPicture {
    drawing: PackDrawing,
}

/// Figures under that load.
#[derive(Template)]
#[template(path = "parts/bench_at_load.html")]
pub(super) struct BenchAtLoad {
    load: String,
    changed: bool,
    figures: Vec<Figure>,
    contacts: Vec<ContactLine>,
}

/// The curve, and what is said of the packs under any load.
#[derive(Template)]
#[template(path = "parts/bench_curve.html")]
pub(super) struct BenchCurve {
    curve: Drawing,
    doubts: Vec<String>,
    estimated: Vec<String>,
}

/// Heights of the vehicle, and how the leaves agree with the tape.
#[derive(Template)]
#[template(path = "parts/bench_heights.html")]
pub(super) struct BenchHeights {
    heights: Vec<HeightLine>,
    second_stage: Figure,
    changed: bool,
    /// How its leaves are worked past what they may be, and how each is to look.
    steel: Vec<(&'static str, String)>,
    agreement: AgreementWords,
}

impl askama::filters::HtmlSafe for BenchPicture {}
impl askama::filters::HtmlSafe for BenchAtLoad {}
impl askama::filters::HtmlSafe for BenchCurve {}
impl askama::filters::HtmlSafe for BenchHeights {}

/// What changes with the load alone.
pub(super) struct UnderLoad {
    pub(super) picture: BenchPicture,
    pub(super) at_load: BenchAtLoad,
}

/// What changes with the leaves alone.
pub(super) struct OverAll {
    pub(super) curve: BenchCurve,
    pub(super) heights: BenchHeights,
}

#[derive(Template)]
#[template(path = "parts/bench_preview.html")]
struct Preview {
    under_load: UnderLoad,
    /// Absent while only the load changes.
    over_all: Option<OverAll>,
}

impl UnderLoad {
    pub(super) fn new(packs: &Packs, load: Option<Force>, units: Units) -> Result<Self, PackError> {
        let at = load.unwrap_or_default();
        let found = PackUnder::new(&packs.found, at, packs.rated)?;
        let planned = if packs.changed { Some(PackUnder::new(&packs.planned, at, packs.rated)?) } else { None };
        let picture = |pack, which: As, standing| match load {
            Some(_) => drawn(packs, pack, which.name(), standing, units),
            None => drawn_loose(pack, which.name(), units),
        };
        let mut pictured = vec![picture(&packs.found, As::Found, &found)];
        pictured.extend(planned.as_ref().map(|planned| picture(&packs.planned, As::Planned, planned)));
        let told: Vec<String> = pictured
            .iter()
            .map(|pack| {
                let leaves = pack.marks.iter().map(|mark| format!("{} {}", mark.name, mark.words)).collect::<Vec<_>>().join(", ");
                format!("{}: {}; {leaves}", pack.title, pack.arch.as_deref().unwrap_or("unbolted"))
            })
            .collect();
        Ok(UnderLoad {
            picture: BenchPicture { drawing: PackDrawing::new(&pictured, &told.join(". ")) },
            at_load: BenchAtLoad {
                load: units.weight(at),
                changed: packs.changed,
                figures: load_figures(packs, &found, planned.as_ref().unwrap_or(&found), units),
                contacts: contact_lines(&packs.planned, planned.as_ref().unwrap_or(&found), units),
            },
        })
    }
}

impl OverAll {
    /// Of the side that is looked at; the vehicle stands on all of them.
    pub(super) fn new(file: &JobFile, benches: &Benches, which: Which, units: Units) -> Self {
        let bench = benches.of_side(which.side);
        let (packs, work) = (&bench.packs, &bench.work);
        let [found, planned] = bench.second_stage;
        let mut curves = vec![DrawnCurve { curve: &work.found, class: "found", name: "as found", second_stage: found }];
        if packs.changed {
            curves.push(DrawnCurve { curve: &work.planned, class: "planned", name: "as planned", second_stage: planned });
        }
        let named: Vec<(String, Force)> = bench.loads.iter().map(|named| (load_name(&named.name), named.load)).collect();
        OverAll {
            curve: BenchCurve {
                curve: curve_drawing(&curves, &named, units),
                doubts: doubt_words(&packs.planned),
                estimated: estimated_words(packs),
            },
            heights: BenchHeights {
                heights: height_lines(&file.work, benches, units),
                second_stage: second_stage_figure(bench, units),
                changed: packs.changed,
                steel: steel_words(bench, units),
                agreement: agreement_words(&file.work, benches, bench, arch_on_tape(file, which.side), units),
            },
        }
    }
}

/// The picture of a bench being worked on. Nothing is saved; while a field cannot be read, the picture stays as it is.
pub(crate) async fn preview(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let drawn = match sheet.text("part") {
        "load" => {
            let (shop, number) = (worker.shop_id(), JobNumber(*number));
            let (intake, bench) = database.read(move |connection| on_the_bench(connection, shop, number)).await?;
            let which = Which::of(sheet.text("pack"), bench.as_ref());
            let Some(pack) = bench::check(&mut sheet, found_before(bench.as_ref(), which)) else { return Ok(nothing_to_draw()) };
            let entry = with_pack(bench.as_ref(), which, pack).of_side(which.side);
            run(move |_| Ok(under_load(&intake.vehicle(), &sheet, &entry))).await?
        }
        _ => {
            let file = job_file(&database, &worker, *number).await?;
            let which = Which::of(sheet.text("pack"), file.case().bench.as_ref());
            let Some(pack) = bench::check(&mut sheet, found_before(file.case().bench.as_ref(), which)) else {
                return Ok(nothing_to_draw());
            };
            let entry = with_pack(file.case().bench.as_ref(), which, pack);
            run(move |_| Ok(whole(&worker, file, &sheet, &entry, which))).await?
        }
    };
    match drawn {
        Ok(preview) => Ok(page(StatusCode::OK, &preview)?.answer()),
        Err(_) => Ok(nothing_to_draw()),
    }
}

/// The picture stays as it is.
fn nothing_to_draw() -> HttpResponse {
    HttpResponse::NoContent().finish()
}

/// A job's vehicle with its bench, and nothing else of it.
fn on_the_bench(
    connection: &mut PgConnection,
    shop: ShopId,
    number: JobNumber,
) -> Result<(Intake, Option<BenchEntry>), StoreError> {
    let found = jobs::find(connection, shop, number)?;
    let bench = job_sheet::of_job(connection, shop, found.job.id)?;
    Ok((found.intake, bench))
}

/// Only what the load changes, which is quick: a slider is moved by many small steps.
fn under_load(vehicle: &VehicleFacts, sheet: &Sheet, entry: &BenchEntry) -> Result<Preview, PackError> {
    let (units, packs) = (sheet.units(), Packs::new(vehicle, entry)?);
    let load = load_asked(sheet.text("load"), Force::default(), vehicle.most_spring_load(), units);
    Ok(Preview { under_load: UnderLoad::new(&packs, load, units)?, over_all: None })
}

/// The vehicle stands on the packs as they are typed, not as they are on file.
fn whole(worker: &Worker, file: JobFile, sheet: &Sheet, entry: &BenchEntry, which: Which) -> Result<Preview, PackError> {
    let case = file.case().clone().with_bench(Some(entry.clone()));
    let file = JobFile { work: Arc::new(Casework::new(case)), ..file };
    let units = worker.units();
    let benches = file.work.benches(entry)?;
    let bench = benches.of_side(which.side);
    let load = asked_of(bench, sheet.text("load"), units);
    let over_all = Some(OverAll::new(&file, &benches, which, units));
    Ok(Preview { under_load: UnderLoad::new(&bench.packs, load, units)?, over_all })
}

/// The load asked for on a bench; empty when nothing is asked, and none for a loose pack.
pub(super) fn asked_of(bench: &BenchWork, text: &str, units: Units) -> Option<Force> {
    let first = bench.loads.first().map(|named| named.load);
    load_asked(text, first.unwrap_or_default(), bench.most(), units)
}
