//! Pack files: taken in, and given out.

use actix_multipart::Multipart;
use actix_web::HttpResponse;
use actix_web::http::header::{CONTENT_DISPOSITION, ContentType};
use actix_web::web::{Data, Path, Query};
use futures_util::TryStreamExt;
use wise_badger_mechanics::document::{LARGEST_DOCUMENT, PackDocument};
use wise_badger_mechanics::units::Force;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::{found, planned_cases};
use super::super::{Kept, Refusal, job_file, keep_sheet, see_other};
use super::{Looking, bench_page, bench_with, here, pack_of};
use crate::bench::pack_entry;
use crate::error::WebError;
use crate::form::Sheet;
use crate::form::bench::{self, MOST_LEAVES, Which};
use crate::view::Units;
use crate::view::bench::Bench;
use crate::worker::Worker;

/// One of the packs as a `wise-badger/pack` document, under the loads that matter on this vehicle.
pub(crate) async fn export(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    looking: Query<Looking>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let entry = file.bench.as_ref().ok_or(WebError::NotFound("pack"))?;
    let which = Which::of(looking.pack.as_deref().unwrap_or_default());
    let (_, survey) = found(&worker, &file);
    let cases = planned_cases(&file, &survey);
    let bench = Bench::new(&file, &survey, &cases, entry);
    let bench = bench.ok().ok_or(WebError::NotNow("The pack cannot be worked out as it stands; put its figures right."))?;
    let packs = bench.packs;
    let pack = match which {
        Which::Found => packs.found,
        Which::Planned => packs.planned,
    };
    let loads: Vec<Force> = std::iter::once(Force::default()).chain(bench.loads.iter().map(|named| named.load)).collect();
    let document = PackDocument { pack, loads, full_load: packs.rated };
    let name = format!("attachment; filename=\"pack-{}-{}.json\"", *number, which.word());
    Ok(HttpResponse::Ok().insert_header(ContentType::json()).insert_header((CONTENT_DISPOSITION, name)).body(document.to_json()))
}

/// Takes a pack file in as one of the packs.
pub(crate) async fn import(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    parts: Multipart,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = taken_in(parts, &worker).await?;
    let which = Which::of(sheet.text("pack"));
    let text = sheet.text("file").to_owned();
    let units = sheet.units();
    let read = PackDocument::read(&text).map_err(|error| format!("The file was not taken in: {error}."));
    let read = read.and_then(|document| match document.pack.leaves.len() {
        count if count > MOST_LEAVES => Err(format!("The file has {count} leaves; the bench holds {MOST_LEAVES}.")),
        _ => Ok(document.pack),
    });
    match read {
        Ok(pack) => {
            let entry = bench_with(&database, &worker, file.bench.as_ref(), which, pack_entry(&pack, units)).await?;
            match keep_sheet(&database, &worker, &sheet, file.job.id, entry).await? {
                Kept::Saved => Ok(see_other(here(file.job.number.0, which, ""))),
                Kept::Stale(refusal) => {
                    let file = job_file(&database, &worker, *number).await?;
                    bench_page(&database, &worker, &file, &as_on_file(&file, which, units), Some(&refusal)).await
                }
            }
        }
        Err(problem) => {
            let mut page = as_on_file(&file, which, units);
            page.refuse("act", problem);
            bench_page(&database, &worker, &file, &page, Some(&Refusal::Fields(1))).await
        }
    }
}

/// The table as it is on file: what a file would have put into it was not taken in.
fn as_on_file(file: &JobFile, which: Which, units: Units) -> Sheet {
    let mut page = bench::on_file(units, file.bench.as_ref().map(|bench| pack_of(bench, which)));
    page.set("pack", which.word());
    page
}

/// The fields and the file of the form.
async fn taken_in(mut parts: Multipart, worker: &Worker) -> Result<Sheet, WebError> {
    let malformed = |error: actix_multipart::MultipartError| WebError::Malformed(error.to_string());
    let mut pairs = Vec::new();
    let mut left = LARGEST_DOCUMENT + 4_096;
    while let Some(mut field) = parts.try_next().await.map_err(malformed)? {
        let name = field.name().unwrap_or_default().to_owned();
        let mut bytes = Vec::new();
        while let Some(chunk) = field.try_next().await.map_err(malformed)? {
            left = left.checked_sub(chunk.len()).ok_or(WebError::TooLarge)?;
            bytes.extend_from_slice(&chunk);
        }
        pairs.push((name, String::from_utf8_lossy(&bytes).into_owned()));
    }
    Ok(Sheet::posted(pairs, worker.units()))
}
