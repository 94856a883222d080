//! The arching sheet for the press, full-size templates, and the bolts and bits that follow.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Path, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_mechanics::pack::{ArchSheet, Bits, BitsGiven, Leaf, Offset, Pack, PackState};
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};
use wise_badger_store::Database;
use wise_badger_store::entry::BenchEntry;
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::{found, planned_cases};
use super::super::{job_file, page};
use crate::error::WebError;
use crate::form::{Field, Sheet};
use crate::full_size::{Paper, Template as FullSize, dxf, pdf, svg};
use crate::job_route::Stage;
use crate::shell::Shell;
use crate::view::bench::Bench;
use crate::view::{Units, degrees, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "arching_sheet.html")]
struct SheetPage {
    shell: Shell,
    number: i32,
    label: String,
    /// What of the arch gained settles again.
    lost: String,
    step: String,
    leaves: Vec<LeafSheet>,
    given: [Field; 4],
    bits: Vec<(String, String)>,
    bits_problem: String,
}

/// A leaf's part of the sheet.
struct LeafSheet {
    place: usize,
    name: String,
    section: String,
    /// What of it: name, as found (absent of a leaf that is new), to settle at, to press to.
    figures: Vec<[String; 4]>,
    /// Offsets of the front half and of the rear half.
    halves: [OffsetTable; 2],
    is_new: bool,
    files: Vec<(String, String)>,
}

/// Offsets of one half: a column for each place, a row for each state of the leaf.
struct OffsetTable {
    places: Vec<String>,
    rows: Vec<(&'static str, Vec<String>)>,
}

/// A leaf as found, as it is to settle, and as it is pressed.
struct Arcs {
    found: Option<ArchSheet>,
    settled: ArchSheet,
    pressed: ArchSheet,
}

fn arcs(bench: &Bench, entry: &BenchEntry) -> Vec<Arcs> {
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
fn step(units: Units) -> Length {
    if units.length == LengthUnit::Inches { inches(2.0) } else { metres(0.05) }
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    typed: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let (entry, bench) = worked(&worker, &file)?;
    let units = worker.units();
    let mut sheet = Sheet::posted(typed.into_inner(), units);
    let (bits, bits_problem) = bits(&mut sheet, &bench, units);
    let pairs = bench.packs.planned.leaves.iter().zip(arcs(&bench, &entry));
    let leaves = pairs.enumerate().map(|(place, (leaf, arcs))| leaf_sheet(*number, place, leaf, &arcs, units)).collect();
    let template = SheetPage {
        shell: Shell::new(
            &worker,
            format!("Arching sheet: {}", file.job.intake.label),
            format!("{}/sheet", Stage::Bench.path_of(*number)),
        ),
        number: *number,
        label: file.job.intake.label.clone(),
        lost: format!("{} %", entry.presetting().lost * 100.0),
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

fn worked(worker: &Worker, file: &JobFile) -> Result<(BenchEntry, Bench), WebError> {
    let entry = file.bench.clone().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    let (_, survey) = found(worker, file);
    let cases = planned_cases(file, &survey);
    let bench = Bench::new(file, &survey, &cases, &entry);
    let bench = bench.ok().ok_or(WebError::NotNow("The pack cannot be worked out as it stands; put its figures right."))?;
    Ok((entry, bench))
}

fn leaf_sheet(number: i32, place: usize, leaf: &Leaf, arcs: &Arcs, units: Units) -> LeafSheet {
    let radius = |sheet: &ArchSheet| sheet.radius().map_or_else(|| "flat".to_owned(), |radius| units.height(radius));
    let row = |what: &str, figure: &dyn Fn(&ArchSheet) -> String| {
        let found = arcs.found.as_ref().map_or_else(|| "new leaf".to_owned(), figure);
        [what.to_owned(), found, figure(&arcs.settled), figure(&arcs.pressed)]
    };
    let figures = vec![
        row("Radius", &radius),
        row("Sagitta, middle of the chord", &|sheet| units.fine(sheet.sagitta())),
        row("Chord, end to end", &|sheet| units.fine(sheet.chord())),
        row("Offset at the centre hole", &|sheet| units.fine(sheet.offset(metres(0.0)))),
    ];
    let step = step(units);
    let half = |is_front: bool| {
        let of_half = |offset: &Offset| if is_front { offset.along.si() < 1e-9 } else { offset.along.si() > -1e-9 };
        let of = |sheet: &ArchSheet| -> Vec<String> {
            sheet.offsets(step).iter().filter(|offset| of_half(offset)).map(|offset| bare(offset.offset, units)).collect()
        };
        let place = |offset: &Offset| match offset.along {
            along if along.si().abs() < 1e-9 => "bolt".to_owned(),
            along => format!("{}{}", if along.si() < 0.0 { "F " } else { "R " }, plain(along.abs(), units)),
        };
        let mut rows: Vec<(&'static str, Vec<String>)> = Vec::new();
        rows.extend(arcs.found.as_ref().map(|found| ("as found", of(found))));
        rows.push(("settles at", of(&arcs.settled)));
        rows.push(("press to", of(&arcs.pressed)));
        OffsetTable { places: arcs.settled.offsets(step).iter().filter(|offset| of_half(offset)).map(place).collect(), rows }
    };
    let files = [("svg", "SVG"), ("dxf", "DXF"), ("a4.pdf", "PDF, A4"), ("letter.pdf", "PDF, Letter")];
    let path = |file: &str| format!("{}/leaf/{place}/{file}", Stage::Bench.path_of(number));
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
        halves: [half(true), half(false)],
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

/// A length without its unit, as fine as a smith reads it: the table says the unit once.
fn bare(length: Length, units: Units) -> String {
    let text = units.fine(length);
    text.trim_end_matches(units.length_name()).trim_end_matches('\u{a0}').to_owned()
}

fn bits(sheet: &mut Sheet, bench: &Bench, units: Units) -> (Vec<(String, String)>, String) {
    let pack = &bench.packs.planned;
    let mut lines = vec![("All leaves and spacers at the bolt".to_owned(), units.fine(pack.stack()))];
    let asked = ["tube", "plate", "block", "u_bolt"].iter().any(|name| sheet.is_filled(name));
    if !asked {
        return (lines, String::new());
    }
    if !sheet.is_filled("block") {
        sheet.set("block", "0");
    }
    let given = (sheet.length("tube"), sheet.length("plate"), sheet.length("block"), sheet.length("u_bolt"));
    let (Some(tube), Some(plate), Some(block), Some(u_bolt)) = given else { return (lines, String::new()) };
    let tilt = |pack: &Pack| -> Option<PackState> {
        let load = bench.loads.first()?.load;
        pack.prepare(bench.packs.rated).ok()?.state(load).ok()
    };
    let (Some(before), Some(after)) = (tilt(&bench.packs.found), tilt(pack)) else { return (lines, String::new()) };
    let given = BitsGiven {
        tube_and_seat: tube.length(),
        plate: plate.length(),
        block: block.length(),
        u_bolt: u_bolt.length(),
        tilted: after.seat_tilt - before.seat_tilt,
    };
    match Bits::of(pack, &given) {
        Ok(bits) => {
            lines.push((
                "Centre bolt, usual for this width".to_owned(),
                format!(
                    "{} × {} under the head; the leaves' hole decides",
                    units.fine(bits.centre_bolt),
                    units.height(bits.centre_bolt_length)
                ),
            ));
            lines.push((
                "U-bolt leg".to_owned(),
                format!("{}; order the next length up, new every time", units.height(bits.u_bolt_leg)),
            ));
            for clip in &bits.clips {
                let name = pack.leaves.get(clip.leaf).map_or("", |leaf| leaf.name.as_str());
                let size =
                    format!("{} inside width, {} inside height; bolt-on", units.height(clip.width), units.height(clip.height));
                lines.push((format!("Clips on {name}, one each end"), size));
            }
            lines.push(("Shim".to_owned(), shim_words(&bits)));
            if block.si > 0.0 {
                lines.push((
                    "Block".to_owned(),
                    format!(
                        "{} in one piece, on the rear axle only, in place of any that is there",
                        units.height(block.length())
                    ),
                ));
            }
            (lines, String::new())
        }
        Err(error) => (lines, format!("{}.", sentence(&error.to_string()))),
    }
}

fn shim_words(bits: &Bits) -> String {
    match bits.shim {
        None => "none: the seat turns by less than half a degree".to_owned(),
        Some(angle) if angle.value > 0.0 => {
            format!("{} between spring and seat, thin end to the rear where the axle is below its spring", degrees(angle))
        }
        Some(angle) => {
            format!("{} between spring and seat, thin end to the front where the axle is below its spring", degrees(-angle))
        }
    }
}

/// Which template is wanted.
#[derive(Deserialize)]
pub(crate) struct Wanted {
    /// `found`, `settled`, or what the leaf is pressed to.
    of: Option<String>,
}

pub(crate) async fn template(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, usize, String)>,
    wanted: Query<Wanted>,
) -> Result<HttpResponse, WebError> {
    let (number, place, form) = path.into_inner();
    let file = job_file(&database, &worker, number).await?;
    let (entry, bench) = worked(&worker, &file)?;
    let leaf = bench.packs.planned.leaves.get(place).ok_or(WebError::NotFound("leaf"))?;
    let arcs = arcs(&bench, &entry);
    let arcs = arcs.get(place).ok_or(WebError::NotFound("leaf"))?;
    let (sheet, what) = match wanted.of.as_deref() {
        Some("found") => (arcs.found.as_ref().ok_or(WebError::NotFound("leaf"))?, "as found"),
        Some("settled") => (&arcs.settled, "as it is to settle"),
        _ => (&arcs.pressed, "as it is pressed"),
    };
    let units = worker.units();
    let radius = sheet.radius().map_or_else(|| "flat".to_owned(), |radius| format!("radius {}", units.height(radius)));
    let words = vec![
        format!("Job {number}, leaf {}: {}, {what}", place + 1, leaf.name),
        format!(
            "{radius}, sagitta {}, chord {}; under side of the leaf is the long arc below",
            units.fine(sheet.sagitta()),
            units.fine(sheet.chord())
        ),
    ];
    let inches = units.length == LengthUnit::Inches;
    let full_size = FullSize::new(sheet, leaf.thickness, step(units), inches, words);
    let (kind, body, ending) = match form.as_str() {
        "svg" => ("image/svg+xml", svg(&full_size).into_bytes(), "svg"),
        "dxf" => ("image/vnd.dxf", dxf(&full_size).into_bytes(), "dxf"),
        "a4.pdf" => ("application/pdf", pdf(&full_size, Paper::A4), "pdf"),
        "letter.pdf" => ("application/pdf", pdf(&full_size, Paper::Letter), "pdf"),
        _ => return Err(WebError::NotFound("template")),
    };
    let name = format!("attachment; filename=\"job-{number}-leaf-{}.{ending}\"", place + 1);
    Ok(HttpResponse::Ok().insert_header((CONTENT_TYPE, kind)).insert_header((CONTENT_DISPOSITION, name)).body(body))
}
