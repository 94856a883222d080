//! What is done at the bench: saved, leaf by leaf or all at once, and taken back again.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use wise_badger_casework::bench::{Act, MOST_LEAVES, done, found_bent_like, work_on};
use wise_badger_casework::bounds::{LEAF_THICKNESS, LEAF_WIDTH, MAIN_LEAF_HALF};
use wise_badger_casework::entry::{BenchEntry, LeafEntry, OptionEntry, PackEntry, Typed};
use wise_badger_casework::survey::LoadState;
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::correction::{Needs, Work};
use wise_badger_mechanics::pack::Clamp;
use wise_badger_mechanics::units::metres;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_sheet::{self, Step};
use wise_badger_store::{Database, JobId, correction};

use super::super::options::{newest_of, refuse_what_cannot_be_cured};
use super::super::{Kept, Refusal, job_file, keep_or_fail, keep_sheet, see_other};
use super::{SHELF, bench_page, bench_with, found_before, here, made_of, on_leaves, pack_of, with_pack};
use crate::error::WebError;
use crate::form::bench::{self, As, Which};
use crate::form::{Posted, Sheet};
use crate::view::bench::{cannot_words, strain_words, work_words};
use crate::view::look_over::ruled_out;
use crate::view::pack_error::pack_error_words;
use crate::worker::Worker;

pub(crate) async fn save(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let which = Which::of(sheet.text("pack"), file.case().bench.as_ref());
    sheet.keep_words_of(&bench::on_file(sheet.units(), file.case().bench.as_ref().map(|bench| pack_of(bench, which))));
    let Some(pack) = bench::check(&mut sheet, found_before(file.case().bench.as_ref(), which)) else {
        return refused(&database, worker, file, sheet).await;
    };
    let entry = bench_with(&database, &worker, file.case().bench.as_ref(), which, pack).await?;
    let Some((entry, which)) = acted(&mut sheet, &file, entry, which) else {
        return refused(&database, worker, file, sheet).await;
    };
    keep_bench(&database, worker, file.job.id, *number, sheet, which, entry).await
}

async fn refused(database: &Data<Database>, worker: Worker, file: JobFile, sheet: Sheet) -> Result<HttpResponse, WebError> {
    let refusal = Refusal::Fields(sheet.problem_count());
    bench_page(database, worker, file, sheet, Some(refusal)).await
}

/// The bench with what was asked for done to one of its packs, and which that was; complains where it cannot be.
fn acted(sheet: &mut Sheet, file: &JobFile, bench: BenchEntry, which: Which) -> Option<(BenchEntry, Which)> {
    let Some(asked) = act_asked(sheet) else { return Some((bench, which)) };
    let added = matches!(asked, Act::Insert { .. });
    // A leaf from the shelf was never in the pack as it came in.
    let which = if added || asked == Act::FlatterOverload { which.planned() } else { which };
    let barred = if added { ruled_out(&file.work.gate_at_the_rear(Needs::Leaves, Work::AddedLeaf)) } else { String::new() };
    if !barred.is_empty() {
        sheet.refuse("act", barred);
        return None;
    }
    let no_pack = |error| format!("That makes no pack: {}", pack_error_words(&error, sheet.units()));
    let with_it = || {
        let made = made_of(&bench, which).map_err(no_pack)?;
        let with_it = done(pack_of(&bench, which), &made, asked, sheet.units().typed_in()).map_err(cannot_words)?;
        bench::whole(&with_it, found_before(Some(&bench), which)).map_err(no_pack)?;
        Ok(with_it)
    };
    match with_it() {
        Ok(with_it) => Some((with_pack(Some(&bench), which, with_it), which)),
        Err(why) => {
            let why: String = why;
            sheet.refuse("act", why);
            None
        }
    }
}

fn act_asked(sheet: &Sheet) -> Option<Act> {
    let number = |name: &str| sheet.text(name).parse::<usize>().ok().filter(|number| *number < MOST_LEAVES);
    // Rows left blank between leaves are none of the pack's.
    let row = |name: &str| number(name).map(|row| (0..row).filter(|above| bench::is_used(sheet, *above)).count());
    if sheet.is_filled("insert") {
        let kind = SHELF.iter().find(|(word, ..)| *word == sheet.text("kind")).map_or(SHELF[0].1, |(_, kind, _)| *kind);
        return Some(Act::Insert { kind, at: number("at") });
    }
    let plain = [("sort", Act::Sort), ("flatter", Act::FlatterOverload)];
    let plain = plain.into_iter().find(|(name, _)| sheet.is_filled(name)).map(|(_, act)| act);
    let by_row = || {
        let removed = row("remove").map(Act::Remove).or_else(|| row("turn").map(Act::Turn));
        removed.or_else(|| row("up").map(Act::Up)).or_else(|| row("down").map(Act::Down))
    };
    plain.or_else(by_row)
}

async fn keep_bench(
    database: &Data<Database>,
    worker: Worker,
    job: JobId,
    number: i32,
    mut sheet: Sheet,
    which: Which,
    entry: BenchEntry,
) -> Result<HttpResponse, WebError> {
    match keep_sheet(database, &worker, &sheet, job, entry).await? {
        Kept::Saved => Ok(see_other(here(number, which, sheet.text("load")))),
        Kept::Refused(refusal) => {
            let file = job_file(database, &worker, number).await?;
            let on_file = bench::on_file(sheet.units(), file.case().bench.as_ref().map(|bench| pack_of(bench, which)));
            sheet.compare_with(&on_file);
            bench_page(database, worker, file, sheet, Some(refusal)).await
        }
    }
}

/// Begins a bench with a pack of which little is known.
pub(crate) async fn begin(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    on_leaves(&file)?;
    let mut sheet = Sheet::posted(posted, worker.units());
    match few(&mut sheet) {
        Some(pack) => {
            let entry = bench_with(&database, &worker, file.case().bench.as_ref(), Which::FOUND, pack).await?;
            keep_bench(&database, worker, file.job.id, *number, sheet, Which::FOUND, entry).await
        }
        None => {
            sheet.set("pack", Which::FOUND.word());
            let refusal = Refusal::Fields(sheet.problem_count());
            bench_page(&database, worker, file, sheet, Some(refusal)).await
        }
    }
}

/// A pack from its count of leaves, their section, the main leaf's length and the pack's arch.
fn few(sheet: &mut Sheet) -> Option<PackEntry> {
    let count = sheet.number("few_count");
    let whole = count.filter(|count| (1.0..=12.0).contains(count) && count.fract().abs() < 1e-9);
    if count.is_some() && whole.is_none() {
        sheet.refuse("few_count", "A pack on the bench has from 1 to 12 leaves.");
    }
    let mut within = |name: &str, what: &str, bound: &Bound| {
        let typed = sheet.length(name)?;
        sheet.within(name, what, typed, bound)
    };
    let (width, thickness) =
        (within("few_width", "A leaf's width", &LEAF_WIDTH), within("few_thickness", "A leaf's thickness", &LEAF_THICKNESS));
    let (front, rear) =
        (within("few_front", "A leaf's half", &MAIN_LEAF_HALF), within("few_rear", "A leaf's half", &MAIN_LEAF_HALF));
    let pack_arch = sheet.signed_length("few_arch");
    let name = |number: u8| if number == 1 { "Main leaf".to_owned() } else { format!("Leaf {number}") };
    let main = LeafEntry {
        name: name(1),
        width: Some(width?),
        thickness: Some(thickness?),
        front: Some(front?),
        rear: Some(rear?),
        ..LeafEntry::default()
    };
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "from 1 to 12")]
    let count = whole? as u8;
    let others = (2..=count).map(|number| LeafEntry { name: name(number), ..LeafEntry::default() });
    let half = |half: &Option<Typed>| half.as_ref().map_or(metres(0.0), Typed::length);
    let clamp = Clamp::usual(half(&main.front), half(&main.rear));
    let pack = PackEntry {
        clamp_front: sheet.units().typed_in().length(clamp.front),
        clamp_rear: sheet.units().typed_in().length(clamp.rear),
        leaves: std::iter::once(main).chain(others).collect(),
        pack_arch: Some(pack_arch?),
        helper: None,
        young_modulus_pa: None,
        overload: None,
    };
    if let Err(error) = pack.pack() {
        sheet.refuse("few_arch", pack_error_words(&error, sheet.units()));
        return None;
    }
    sheet.is_sound().then_some(pack)
}

/// Bends the pack as found until it stands as it was read under the vehicle.
pub(crate) async fn fit(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let Some(entry) = file.case().bench.clone() else { return Err(WebError::NotNow("There is no pack on the bench yet.")) };
    let units = worker.units();
    let mut sheet = Sheet::posted(posted, units);
    let which = Which::of(sheet.text("pack"), Some(&entry)).found();
    let one = entry.of_side(which.side);
    let typed = sheet.signed_length("fit_arch");
    let state = LoadState::from_word(sheet.text("fit_state")).unwrap_or(LoadState::Empty);
    let load = file.work.bench(&one).ok().and_then(|bench| bench.measured.get(state).copied().flatten());
    if load.is_none() {
        sheet.refuse("fit_arch", "What was put on is not known; tell it on Tape first.");
    }
    let fitted = typed.zip(load).and_then(|(typed, load)| {
        let fitted = one.found.pack().and_then(|read| read.pack.standing_at(typed.length(), load));
        match fitted.and_then(|(pack, _)| found_bent_like(&one.found, &pack, units.typed_in())) {
            Ok(pack) => Some(pack),
            Err(error) => {
                sheet.refuse("fit_arch", pack_error_words(&error, units));
                None
            }
        }
    });
    match fitted {
        Some(pack) => {
            let entry = with_pack(Some(&entry), which, pack);
            keep_bench(&database, worker, file.job.id, *number, sheet, which, entry).await
        }
        None => {
            let mut page = bench::on_file(units, Some(&one.found));
            page.set("pack", which.word());
            page.set("fit_arch", sheet.text("fit_arch"));
            page.set("fit_state", sheet.text("fit_state"));
            page.refuse("fit_arch", sheet.problem("fit_arch"));
            bench_page(&database, worker, file, page, Some(Refusal::Fields(1))).await
        }
    }
}

/// Tells the right pack apart from the left, or takes both to be like the left again.
pub(crate) async fn tell_sides(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let Some(entry) = file.case().bench.clone() else { return Err(WebError::NotNow("There is no pack on the bench yet.")) };
    let sheet = Sheet::posted(posted, worker.units());
    let which = Which::of(sheet.text("pack"), Some(&entry));
    let entry = if sheet.text("sides") == "alike" { entry.alike() } else { entry.told_apart() };
    let which = Which::of(which.word(), Some(&entry));
    keep_bench(&database, worker, file.job.id, *number, sheet, which, entry).await
}

/// Takes a step back, or forward again.
pub(crate) async fn step(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let way = if sheet.text("way") == "forward" { Step::Forward } else { Step::Back };
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        job_sheet::step::<BenchEntry>(connection, person, job, way)
    })
    .await?;
    let which = Which::of(sheet.text("pack"), file.case().bench.as_ref());
    Ok(see_other(here(file.job.number.0, which, sheet.text("load"))))
}

/// Puts the planned pack to the options, where it is predicted and can be chosen.
pub(crate) async fn consider(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let (units, survey) = (worker.units(), file.work.found());
    let Some(bench) = file.case().bench.clone().filter(BenchEntry::is_changed) else {
        return Err(WebError::NotNow("Nothing is planned on the pack yet. Add, change or re-arch a leaf first."));
    };
    let worked = file.work.benches(&bench);
    let worked = worked.ok().ok_or(WebError::NotNow("The planned pack cannot be worked out; fix its figures."))?;
    if let Some((side, strain)) = worked.each().find_map(|one| Some((one.side, one.work.refused()?))) {
        let which = Which { of: As::Planned, side };
        let mut page = bench::on_file(units, Some(pack_of(&bench, which)));
        page.set("pack", which.word());
        page.refuse("act", strain_words(strain, units));
        return bench_page(&database, worker, file, page, Some(Refusal::Fields(1))).await;
    }
    let words = |one: &BenchEntry| work_words(&work_on(&one.found, &one.planned));
    let entry = OptionEntry::of_bench(&bench, words, survey.vehicle.most_spring_load());
    let entry = entry.map_err(|error| WebError::Malformed(error.to_string()))?;
    let parts = entry.corrections(None).ok_or(WebError::NotNow("The planned pack cannot be worked out; fix its figures."))?;
    if !file.work.gate(&parts).is_empty() {
        return Err(WebError::NotNow(
            "This work is ruled out by what was found on Look-over, or by the springs on Intake. Put that right first.",
        ));
    }
    let sheet = Sheet::posted(posted, units);
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        correction::consider(connection, person, job, &entry).map(|_| ())
    })
    .await?;
    Ok(see_other(newest_of(file.job.number)))
}
