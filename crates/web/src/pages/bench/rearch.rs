//! Re-arch: the height wanted, the arch for every leaf that brings it, and what speaks against it.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use wise_badger_casework::entry::{BenchEntry, PackEntry, SteelEntry};
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_casework::verdict::Overload;
use wise_badger_mechanics::correction::Work;
use wise_badger_mechanics::pack::{ArchSheet, Leaf, LeafStress, PackError, PackWork, Rearch, Rule, Steel, WantedArch};
use wise_badger_mechanics::units::{Curvature, Force, Length};
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::{JobFrame, as_chosen, found, planned_cases};
use super::super::{Hidden, Kept, Page, Refusal, job_file, keep_sheet, page, see_other};
use super::here;
use crate::bench::{as_before, bent_like};
use crate::error::WebError;
use crate::form::bench::{Which, made_length};
use crate::form::{Field, Picks, Posted, Sheet, asked_by_address};
use crate::job_route::Stage;
use crate::reckoning::{drawn, run};
use crate::view::bench::{Bench, HeightLine, height_lines, rearch_refusal_words};
use crate::view::look_over::ruled_out;
use crate::view::{Units, datum_name, percent, sentence, state_name};
use crate::worker::Worker;

const RULES: [(&str, &str); 2] = [("keep_nip", "Keep the nip"), ("even_stress", "Even the stress")];

#[derive(Template)]
#[template(path = "rearch.html")]
struct RearchPage {
    frame: JobFrame,
    number: i32,
    hidden: Hidden,
    states: Picks,
    height: Field,
    rules: Picks,
    lost: Field,
    steel: [Field; 3],
    /// What is asked for, once it can be worked out.
    result: Option<RearchResult>,
    problem: String,
    refusal: String,
}

struct RearchResult {
    asked: String,
    leaves: Vec<LeafLine>,
    heights: Vec<HeightLine>,
    /// What speaks against it, each with what to do instead.
    against: Vec<String>,
}

/// A leaf, before and after.
struct LeafLine {
    name: String,
    found: String,
    settles: String,
    pressed: String,
    radius: String,
    stress: String,
    stress_before: String,
    is_past: bool,
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    typed: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let asked = !typed.is_empty();
    let mut sheet = Sheet::posted(asked_by_address(typed.into_inner()), worker.units());
    let (_, survey) = found(&worker, &file);
    let bench = file.case.bench.clone().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    if !asked {
        fill(&mut sheet, &file, &survey, &bench);
    }
    drawn(move |_| rearch_page(&worker, &file, &mut sheet, None)).await
}

/// What is asked first: the middle of the aim, and what the shop asks of its steel.
fn fill(sheet: &mut Sheet, file: &JobFile, survey: &Survey, bench: &BenchEntry) {
    let units = sheet.units();
    let aim = file.case.aim.as_ref().map(|aim| aim.aim());
    let target = aim.and_then(|aim| Some((aim.state(), aim.target(survey)?.height)));
    let stands = || Some((LoadState::Empty, survey.height(End::Rear, LoadState::Empty)?.value));
    if let Some((state, height)) = target.or_else(stands) {
        sheet.set("state", state_name(state));
        sheet.set_typed("height", &made_length(height, units));
    }
    sheet.set("rule", "keep_nip");
    sheet.set("lost", bench.lost_in_percent().to_string());
    match &bench.steel {
        Some(steel) => {
            sheet.set_typed("rated", &steel.rated);
            sheet.set_typed("at_stop", &steel.at_stop);
            sheet.set_typed("yields", &steel.yields);
        }
        None => {
            let usual = Steel::usual();
            for (name, stress) in [("rated", usual.rated), ("at_stop", usual.at_stop), ("yields", usual.yields)] {
                sheet.set(name, units.stress(stress).split('\u{a0}').next().unwrap_or_default());
            }
        }
    }
}

/// What the form asks for.
struct Asked {
    state: LoadState,
    height: Length,
    rule: Rule,
    /// The bench with what is asked of its steel and its setting.
    bench: BenchEntry,
}

fn read(sheet: &mut Sheet, bench: &BenchEntry) -> Option<Asked> {
    let state = if sheet.text("state") == "loaded" { LoadState::Loaded } else { LoadState::Empty };
    let rule = if sheet.text("rule") == "even_stress" { Rule::EvenStress } else { Rule::KeepNip };
    let height = sheet.signed_length("height");
    let lost = sheet.number("lost");
    if lost.is_some_and(|lost| !(0.0..=50.0).contains(&lost)) {
        sheet.refuse("lost", "Of the arch that is gained, from 0 to 50 % settle again.");
    }
    let (rated, at_stop, yields) = (sheet.stress("rated"), sheet.stress("at_stop"), sheet.stress("yields"));
    let steel = SteelEntry { rated: rated?, at_stop: at_stop?, yields: yields? };
    let bench = BenchEntry { steel: Some(steel), lost_percent: Some(lost?), ..bench.clone() };
    if !bench.steel().is_sound() {
        sheet.refuse("rated", "A steel takes less at rated load than at the stop, and less there than where it yields.");
    }
    let height = height?;
    sheet.is_sound().then_some(Asked { state, height: height.length(), rule, bench })
}

/// A re-arch that was worked out, with the plan that it makes.
struct WorkedOut {
    rearch: Rearch,
    bench: Bench,
    planned: PackEntry,
    against: Vec<String>,
    raised: Length,
}

/// Works it out.
///
/// # Errors     a sentence that says why it cannot be
fn work_out(file: &JobFile, survey: &Survey, asked: &Asked, units: Units) -> Result<WorkedOut, String> {
    let said = |error: PackError| format!("{}.", sentence(&error.to_string()));
    let measured = survey.height(End::Rear, asked.state);
    let measured =
        measured.ok_or_else(|| format!("The rear height {} is not on Tape yet; measure it first.", state_name(asked.state)))?;
    let cases = planned_cases(file, survey);
    let base = as_before(&asked.bench.found, &asked.bench.planned);
    let bench = BenchEntry { planned: base.clone(), ..asked.bench.clone() };
    let bench = Bench::new(file, survey, &cases, &bench).map_err(said)?;
    let load = bench.measured.get(asked.state).ok_or("What was put on is not known; tell it on Tape first.")?;
    if load > bench.work.found.reaches() {
        let state = state_name(asked.state);
        return Err(format!(
            "As read, the pack is outside the model under what it carries {state}; check its thicknesses and arches."
        ));
    }
    let raised = asked.height - measured.value;
    let wanted = WantedArch { arch: bench.work.found.height(load) + raised, load, full_load: bench.packs.rated };
    let rearch = Rearch::new(&bench.packs.planned, &wanted, asked.rule).map_err(said)?;
    let mut against: Vec<String> = Vec::new();
    let barred = ruled_out(&file.case.found(), &[Work::Rearching]);
    against.extend((!barred.is_empty()).then_some(barred));
    let over = Overload::of(survey).is_some();
    against.extend(over.then(|| "The vehicle is over a rating. Weight comes off first; no arch changes that.".to_owned()));
    let refusals =
        rearch.refusals(bench.packs.rated, bench.at_stop, survey.vehicle.most_spring_load(), &bench.packs.steel).map_err(said)?;
    against.extend(refusals.iter().map(|refusal| rearch_refusal_words(refusal, units)));
    let planned = bent_like(&base, &rearch.wanted, units).map_err(said)?;
    Ok(WorkedOut { rearch, bench, planned, against, raised })
}

pub(crate) async fn take(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let entry = file.case.bench.clone().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    let (units, survey) = found(&worker, &file);
    let Some(asked) = read(&mut sheet, &entry) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&refusal))).await;
    };
    let (file, asked, worked) = run(move |_| {
        let worked = work_out(&file, &survey, &asked, units);
        Ok((file, asked, worked))
    })
    .await?;
    let Some(worked) = worked.ok().filter(|worked| worked.against.is_empty()) else {
        return drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&Refusal::Fields(1)))).await;
    };
    let entry = BenchEntry { planned: worked.planned, ..asked.bench };
    match keep_sheet(&database, &worker, &sheet, file.job.id, entry).await? {
        Kept::Saved => Ok(see_other(here(file.job.number.0, Which::Planned, ""))),
        Kept::Refused(refusal) => drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&refusal))).await,
    }
}

fn rearch_page(worker: &Worker, file: &JobFile, sheet: &mut Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, survey) = found(worker, file);
    let mut problem = String::new();
    let mut result = None;
    if let Some(bench) = &file.case.bench
        && let Some(asked) = read(sheet, bench)
    {
        match work_out(file, &survey, &asked, units).and_then(|worked| shown(file, &survey, &asked, worked, units)) {
            Ok(shown) => result = Some(shown),
            Err(why) => problem = why,
        }
    }
    let datum = datum_name(survey.vehicle.class, survey.datum);
    let stress = |name: &str, label: &str| sheet.number_field(name, label, units.stress_name());
    let template = RearchPage {
        frame: JobFrame::new(worker, file, Some(Stage::Bench), &as_chosen(file, &survey)),
        number: file.job.number.0,
        hidden: Hidden::new(sheet, file.job.revision),
        states: sheet.picks("state", "The height counts", [("empty", "Empty"), ("loaded", "Loaded")]),
        height: sheet.length_field("height", "Rear height wanted").hint(datum),
        rules: sheet.picks("rule", "Arch is shared so as to", RULES),
        lost: sheet
            .number_field("lost", "Of the arch gained, settles again", "%")
            .hint("common practice, until your own proofs say better"),
        steel: [
            stress("rated", "Under rated load"),
            stress("at_stop", "At the bump stop"),
            stress("yields", "Begins to take a set"),
        ],
        result,
        problem,
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

fn shown(file: &JobFile, survey: &Survey, asked: &Asked, worked: WorkedOut, units: Units) -> Result<RearchResult, String> {
    let said = |error: PackError| format!("{}.", sentence(&error.to_string()));
    let WorkedOut { rearch, bench, against, raised, .. } = worked;
    let full: Force = bench.packs.rated;
    let before = rearch.found.prepare(full).and_then(|pack| pack.state(full)).map_err(said)?;
    let after = rearch.wanted.prepare(full).and_then(|pack| pack.state(full)).map_err(said)?;
    let stresses = before.leaves.iter().zip(&after.leaves);
    let pressed = asked.bench.presetting().pressed_leaves(&bench.packs.found, &rearch.wanted);
    let arch = |sheet: ArchSheet| units.fine(sheet.sagitta());
    let line = |((from, to), pressed): ((&Leaf, &Leaf), &Curvature), before: &LeafStress, after: &LeafStress| {
        let (sheet, stress) = (ArchSheet::of(to), after.largest());
        LeafLine {
            name: to.name.clone(),
            found: arch(ArchSheet::of(from)),
            settles: arch(sheet),
            pressed: arch(sheet.bent_to(*pressed)),
            radius: sheet.bent_to(*pressed).radius().map_or_else(|| "flat".to_owned(), |radius| units.height(radius)),
            stress: format!("{} · {}", units.stress(stress), percent((stress / bench.packs.steel.rated).value)),
            stress_before: units.stress(before.largest()),
            is_past: stress > bench.packs.steel.rated,
        }
    };
    let leaves = rearch.found.leaves.iter().zip(&rearch.wanted.leaves).zip(&pressed);
    let leaves = leaves.zip(stresses).map(|(leaf, (before, after))| line(leaf, before, after)).collect();
    let work = PackWork::new(&bench.packs.found, &rearch.wanted, survey.vehicle.most_spring_load()).map_err(said)?;
    let (cases, bench) = (planned_cases(file, survey), Bench { work, ..bench });
    let datum = datum_name(survey.vehicle.class, survey.datum);
    Ok(RearchResult {
        asked: format!(
            "{} {} at the rear, {}: {} on what it stands at.",
            units.height(asked.height),
            state_name(asked.state),
            datum,
            units.change(raised)
        ),
        leaves,
        heights: height_lines(file, survey, &cases, &bench, units),
        against,
    })
}
