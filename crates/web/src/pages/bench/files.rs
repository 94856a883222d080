//! Pack files: taken in, and given out.

use actix_web::http::header::{CONTENT_DISPOSITION, ContentType};
use actix_web::web::{Data, Path, Payload, Query};
use actix_web::{HttpRequest, HttpResponse};
use wise_badger_casework::bench::{MOST_LEAVES, pack_entry};
use wise_badger_casework::entry::PackEntry;
use wise_badger_mechanics::document::PackDocument;
use wise_badger_mechanics::units::Force;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::{Kept, Refusal, job_file, keep_sheet, see_other};
use super::{Looking, bench_page, bench_with, here, pack_of};
use crate::error::WebError;
use crate::form::bench::{self, As, Which};
use crate::form::{Sheet, clean};
use crate::reckoning::run;
use crate::upload;
use crate::view::Units;
use crate::worker::Worker;

/// Most bytes of a pack file: as many as the document may have.
const LARGEST_FILE: u64 = 1_000_000;
/// Most problems of a file told at once.
const MOST_PROBLEMS: usize = 4;

/// One of the packs as a `wise-badger/pack` document, under the loads that matter on this vehicle.
pub(crate) async fn export(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    looking: Query<Looking>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let entry = file.case().bench.as_ref().ok_or(WebError::NotFound("pack"))?;
    let which = Which::of(looking.pack.as_deref().unwrap_or_default(), Some(entry));
    let entry = entry.of_side(which.side);
    let text = run(move |_| {
        let bench = file.work.bench(&entry);
        let bench = bench.ok().ok_or(WebError::NotNow("The pack cannot be worked out as it stands; fix its figures."))?;
        let packs = bench.packs;
        let pack = match which.of {
            As::Found => packs.found,
            As::Planned => packs.planned,
        };
        let loads = std::iter::once(Force::default()).chain(bench.loads.iter().map(|named| named.load)).collect();
        Ok(PackDocument { pack, loads, full_load: packs.rated }.to_json())
    });
    let text = text.await?;
    let name = format!("attachment; filename=\"pack-{}-{}.json\"", *number, which.word());
    Ok(HttpResponse::Ok().insert_header(ContentType::json()).insert_header((CONTENT_DISPOSITION, name)).body(text))
}

/// Takes a pack file in as one of the packs: within the bounds of what is typed.
pub(crate) async fn import(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    request: HttpRequest,
    payload: Payload,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sent = upload::read(&request, payload, "file", LARGEST_FILE).await?;
    let sheet = Sheet::posted(sent.posted, worker.units());
    let which = Which::of(sheet.text("pack"), file.case().bench.as_ref());
    let units = sheet.units();
    let text = String::from_utf8_lossy(&sent.file).into_owned();
    let read = run(move |_| Ok(read_pack(&text, units)));
    match read.await? {
        Ok(pack) => {
            let entry = bench_with(&database, &worker, file.case().bench.as_ref(), which, pack).await?;
            match keep_sheet(&database, &worker, &sheet, file.job.id, entry).await? {
                Kept::Saved => Ok(see_other(here(file.job.number.0, which, ""))),
                Kept::Refused(refusal) => {
                    let file = job_file(&database, &worker, *number).await?;
                    let page = as_on_file(&file, which, units);
                    bench_page(&database, worker, file, page, Some(refusal)).await
                }
            }
        }
        Err(problem) => {
            let mut page = as_on_file(&file, which, units);
            page.refuse("act", problem);
            bench_page(&database, worker, file, page, Some(Refusal::Fields(1))).await
        }
    }
}

/// The pack of a file, as it would be typed.
///
/// # Errors     what is wrong with it, in a sentence
fn read_pack(text: &str, units: Units) -> Result<PackEntry, String> {
    let mut document = PackDocument::read(text).map_err(|error| format!("The file was not taken in: {error}."))?;
    // Signs that were escaped in the file come to light only now.
    document.pack.leaves.iter_mut().for_each(|leaf| leaf.name = clean(&leaf.name).replace('\n', " "));
    if document.pack.leaves.len() > MOST_LEAVES {
        return Err(format!("The file has {} leaves; the bench holds {MOST_LEAVES}.", document.pack.leaves.len()));
    }
    let problems = |problems: Vec<String>| {
        let told: Vec<String> = problems.into_iter().take(MOST_PROBLEMS).collect();
        format!("The file was not taken in: {}", told.join(" "))
    };
    bench::check_from_elsewhere(&pack_entry(&document.pack, units.typed_in()), units).map_err(problems)
}

/// The table as it is on file: what a file would have put into it was not taken in.
fn as_on_file(file: &JobFile, which: Which, units: Units) -> Sheet {
    let mut page = bench::on_file(units, file.case().bench.as_ref().map(|bench| pack_of(bench, which)));
    page.set("pack", which.word());
    page
}
