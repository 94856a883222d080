//! Full-size templates of a leaf's arc, as files.

use actix_web::HttpResponse;
use actix_web::http::header::{CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Path, Query};
use serde::Deserialize;
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::job_file;
use super::sheet::{arcs, step, worked};
use crate::error::WebError;
use crate::full_size::{Paper, Template, dxf, pdf, svg};
use crate::reckoning::run;
use crate::worker::Worker;

/// Which template is wanted.
#[derive(Deserialize)]
pub(crate) struct Wanted {
    /// `found`, `settled`, or what the leaf is pressed to.
    of: Option<String>,
    /// Of which pack.
    pack: Option<String>,
}

pub(crate) async fn send(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, usize, String)>,
    wanted: Query<Wanted>,
) -> Result<HttpResponse, WebError> {
    let (number, place, form) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let wanted = wanted.into_inner();
    let (kind, body, ending) = run(move |_| drawn(&worker, &file, place, &form, &wanted)).await?;
    let name = format!("attachment; filename=\"job-{number}-leaf-{}.{ending}\"", place + 1);
    Ok(HttpResponse::Ok().insert_header((CONTENT_TYPE, kind)).insert_header((CONTENT_DISPOSITION, name)).body(body))
}

/// Kind, body and ending of a template's file.
fn drawn(
    worker: &Worker,
    file: &JobFile,
    place: usize,
    form: &str,
    wanted: &Wanted,
) -> Result<(&'static str, Vec<u8>, &'static str), WebError> {
    let number = file.job.number.0;
    let (which, entry, benches) = worked(file, wanted.pack.as_deref().unwrap_or_default())?;
    let bench = benches.of_side(which.side);
    let leaf = bench.packs.planned.leaves.get(place).ok_or(WebError::NotFound("leaf"))?;
    let arcs = arcs(bench, &entry);
    let arcs = arcs.get(place).ok_or(WebError::NotFound("leaf"))?;
    let (sheet, what) = match wanted.of.as_deref() {
        Some("found") => (arcs.found.as_ref().ok_or(WebError::NotFound("leaf"))?, "as found"),
        Some("settled") => (&arcs.settled, "as it is to settle"),
        _ => (&arcs.pressed, "as it is pressed"),
    };
    let units = worker.units();
    let side = which.side.map_or_else(String::new, |side| format!("{} pack, ", side.name()));
    let radius = sheet.radius().map_or_else(|| "flat".to_owned(), |radius| format!("radius {}", units.height(radius)));
    let words = vec![
        format!("Job {number}, {side}leaf {}: {}, {what}", place + 1, leaf.name),
        format!(
            "{radius}, arch {}, chord {}; under side of the leaf is the long arc below",
            units.fine(sheet.sagitta()),
            units.fine(sheet.chord())
        ),
    ];
    let inches = units.length == LengthUnit::Inches;
    let full_size = Template::new(sheet, leaf.thickness, step(units), inches, words);
    Ok(match form {
        "svg" => ("image/svg+xml", svg(&full_size).into_bytes(), "svg"),
        "dxf" => ("image/vnd.dxf", dxf(&full_size).into_bytes(), "dxf"),
        "a4.pdf" => ("application/pdf", pdf(&full_size, Paper::A4), "pdf"),
        "letter.pdf" => ("application/pdf", pdf(&full_size, Paper::Letter), "pdf"),
        _ => return Err(WebError::NotFound("template")),
    })
}
