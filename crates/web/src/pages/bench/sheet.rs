//! The arching sheet for the press, with the bolts and bits that follow.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use wise_badger_casework::bench::{BenchWork, Benches};
use wise_badger_casework::entry::BenchEntry;
use wise_badger_casework::route::Stage;
use wise_badger_mechanics::pack::{ArchSheet, HalfName, Leaf};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::{Page, job_file, page};
use super::bits::{Bit, all_bits};
use crate::error::WebError;
use crate::form::bench::Which;
use crate::form::{Field, Sheet, asked_by_address};
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::Units;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "arching_sheet.html")]
struct SheetPage {
    shell: Shell,
    number: i32,
    /// The word of the pack.
    pack: &'static str,
    /// Of which pack it is.
    of_what: String,
    /// Where the other side's sheet is, and which side that is.
    other: Option<(String, &'static str)>,
    label: String,
    /// What of the arch gained settles again.
    lost: String,
    step: String,
    leaves: Vec<LeafSheet>,
    given: [Field; 4],
    bits: Vec<Bit>,
    bits_problem: String,
}

/// A leaf's part of the sheet.
struct LeafSheet {
    place: usize,
    name: String,
    section: String,
    /// What of it: name, as found (absent of a leaf that is new), to settle at, to press to.
    figures: Vec<[String; 4]>,
    /// Offsets of the front half and of the rear half; none of a leaf that is flat and stays so.
    halves: Vec<OffsetTable>,
    is_new: bool,
    files: Vec<(String, String)>,
}

/// Offsets of one half: a column for each place, a row for each state of the leaf.
struct OffsetTable {
    places: Vec<String>,
    rows: Vec<(&'static str, Vec<String>)>,
}

/// A leaf as found, as it is to settle, and as it is pressed.
pub(super) struct Arcs {
    pub(super) found: Option<ArchSheet>,
    pub(super) settled: ArchSheet,
    pub(super) pressed: ArchSheet,
}

pub(super) fn arcs(bench: &BenchWork, entry: &BenchEntry) -> Vec<Arcs> {
    let (found, planned) = (&bench.packs.found, &bench.packs.planned);
    let press = entry.presetting().pressed_leaves(found, planned);
    let one = |(leaf, press): (&Leaf, _)| {
        let before = found.leaves.iter().find(|before| before.name == leaf.name);
        let settled = ArchSheet::of(leaf);
        Arcs { found: before.map(ArchSheet::of), settled, pressed: settled.bent_to(press) }
    };
    planned.leaves.iter().zip(press).map(one).collect()
}

/// Where the smith measures: every 2 in, or every 50 mm.
pub(super) fn step(units: Units) -> Length {
    if units.length == LengthUnit::Inches { inches(2.0) } else { metres(0.05) }
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    typed: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(asked_by_address(typed.into_inner()), worker.units());
    drawn(move |_| sheet_page(&worker, &file, sheet)).await
}

fn sheet_page(worker: &Worker, file: &JobFile, mut sheet: Sheet) -> Result<Page, WebError> {
    let (which, entry, benches) = worked(file, sheet.text("pack"))?;
    let bench = benches.of_side(which.side);
    let (number, units) = (file.job.number.0, worker.units());
    let (bits, bits_problem) = all_bits(&mut sheet, &file.work, &benches, which.side);
    let pairs = bench.packs.planned.leaves.iter().zip(arcs(bench, &entry));
    let leaves = pairs.enumerate().map(|(place, (leaf, arcs))| leaf_sheet(number, place, leaf, &arcs, which, units)).collect();
    let template = SheetPage {
        shell: Shell::new(
            worker,
            format!("Arching sheet: {}", file.case().intake.label),
            format!("{}/sheet", Stage::Bench.path_of(number)),
        ),
        number,
        pack: which.word(),
        of_what: match which.side {
            None => "One pack of two alike".to_owned(),
            Some(side) => format!("The {} pack", side.name()),
        },
        other: file.case().bench.iter().flat_map(|bench| bench.sides()).find(|side| **side != which.side).map(|side| {
            let other = Which { side: *side, ..which };
            (format!("{}/sheet?pack={}", Stage::Bench.path_of(number), other.word()), side.map_or("", Side::name))
        }),
        label: file.case().intake.label.clone(),
        lost: format!("{}%", entry.lost_in_percent()),
        step: units.height(step(units)),
        leaves,
        given: [
            sheet.length_field("tube", "Inside of the U-bolt's bend to the top of tube and seat"),
            sheet.length_field("plate", "Plate under the nuts"),
            sheet.length_field("block", "Block, where there is one").hint("a block there is replaced, never added to"),
            sheet.length_field("u_bolt", "U-bolt thread"),
        ],
        bits,
        bits_problem,
    };
    page(StatusCode::OK, &template)
}

/// The bench of the side that a pack's word asks for, worked out.
pub(super) fn worked(file: &JobFile, pack: &str) -> Result<(Which, BenchEntry, Benches), WebError> {
    let entry = file.case().bench.as_ref().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    let which = Which::of(pack, Some(entry));
    let benches = file.work.benches(entry);
    let benches = benches.ok().ok_or(WebError::NotNow("The pack cannot be worked out as it stands; fix its figures."))?;
    Ok((which, entry.of_side(which.side), benches))
}

fn leaf_sheet(number: i32, place: usize, leaf: &Leaf, arcs: &Arcs, which: Which, units: Units) -> LeafSheet {
    let radius = |sheet: &ArchSheet| sheet.radius().map_or_else(|| "flat".to_owned(), |radius| units.height(radius));
    let row = |what: &str, figure: &dyn Fn(&ArchSheet) -> String| {
        let found = arcs.found.as_ref().map_or_else(|| "new leaf".to_owned(), figure);
        [what.to_owned(), found, figure(&arcs.settled), figure(&arcs.pressed)]
    };
    let states = arcs.found.iter().chain([&arcs.settled, &arcs.pressed]);
    let is_bent = states.into_iter().any(|sheet| sheet.radius().is_some());
    let figures = vec![
        row("Radius", &radius),
        row("Arch, at the middle of the chord", &|sheet| units.fine(sheet.sagitta())),
        row("Chord, end to end", &|sheet| units.fine(sheet.chord())),
        row("Offset at the center hole", &|sheet| units.fine(sheet.offset(metres(0.0)))),
    ];
    let step = step(units);
    // From the bolt outwards, every row at the same places; where a leaf was shorter it has none.
    let half = |end: HalfName| {
        let (sign, mark, of_leaf): (f64, &str, fn(&ArchSheet) -> Length) = match end {
            HalfName::Front => (-1.0, "F", |sheet| sheet.front),
            HalfName::Rear => (1.0, "R", |sheet| sheet.rear),
        };
        let outwards = arcs.settled.offsets(step).into_iter().map(|offset| sign * offset.along);
        let mut places: Vec<Length> = outwards.filter(|out| *out > metres(-1e-9)).collect();
        places.sort_by(|one, other| one.value.total_cmp(&other.value));
        let of = |sheet: &ArchSheet| -> Vec<String> {
            let offset = |out: &Length| if *out > of_leaf(sheet) { String::new() } else { units.bare(sheet.offset(sign * *out)) };
            places.iter().map(offset).collect()
        };
        let place = |out: &Length| match out.si() < 1e-9 {
            true => "bolt".to_owned(),
            false => format!("{mark} {}", plain(*out, units)),
        };
        let mut rows: Vec<(&'static str, Vec<String>)> = Vec::new();
        rows.extend(arcs.found.as_ref().map(|found| ("as found", of(found))));
        rows.push(("settles at", of(&arcs.settled)));
        rows.push(("press to", of(&arcs.pressed)));
        OffsetTable { places: places.iter().map(place).collect(), rows }
    };
    let files = [("svg", "SVG"), ("dxf", "DXF"), ("a4.pdf", "PDF, A4"), ("letter.pdf", "PDF, Letter")];
    let path = |file: &str| format!("{}/leaf/{place}/{file}?pack={}", Stage::Bench.path_of(number), which.word());
    LeafSheet {
        place: place + 1,
        name: leaf.name.clone(),
        section: format!(
            "{} × {}, {} to the front end, {} to the rear",
            units.exact(leaf.width),
            units.exact(leaf.thickness),
            units.height(leaf.front),
            units.height(leaf.rear)
        ),
        figures,
        halves: if is_bent { HalfName::BOTH.map(half).into() } else { Vec::new() },
        is_new: arcs.found.is_none(),
        files: files.into_iter().map(|(file, name)| (path(file), name.to_owned())).collect(),
    }
}

/// A whole number of the person's unit.
fn plain(length: Length, units: Units) -> String {
    match units.length {
        LengthUnit::Inches => format!("{:.0}", length.customary()),
        LengthUnit::Millimetres => format!("{:.0}", length.si() * 1e3),
    }
}
