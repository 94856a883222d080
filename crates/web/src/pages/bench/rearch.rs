//! Re-arch: the height wanted, the arch for every leaf that brings it, and what speaks against it.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use wise_badger_casework::bench::{Asked, CannotRearch, RearchPlan};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{BenchEntry, SteelEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::pack::{ArchSheet, Leaf, LeafStress, PackError, Rule, Steel};
use wise_badger_mechanics::units::{Curvature, Force};
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::{JobFrame, as_chosen};
use super::super::{Hidden, Kept, Page, Refusal, job_file, keep_sheet, page, see_other};
use super::here;
use super::state_choices;
use crate::error::WebError;
use crate::form::bench::{As, Which};
use crate::form::{Field, Picks, Posted, Sheet, asked_by_address};
use crate::reckoning::{drawn, run};
use crate::view::bench::{HeightLine, against_words, cannot_rearch_words, height_lines, steel_words};
use crate::view::{Units, datum_name, percent, state_of};
use crate::worker::Worker;

const RULES: [(&str, &str); 2] = [("keep_nip", "Keep the nip"), ("even_stress", "Even the stress")];

#[derive(Template)]
#[template(path = "rearch.html")]
struct RearchPage {
    frame: JobFrame,
    number: i32,
    hidden: Hidden,
    title: String,
    /// The word of the pack that is re-arched.
    pack: String,
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
    /// How the bent leaves are worked past what they may be, and how each is to look.
    steel: Vec<(&'static str, String)>,
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
    let mut sheet = Sheet::posted(asked_by_address(typed.into_inner()), worker.units());
    let bench = file.case().bench.as_ref().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    // Which side's pack it is may come alone, from the bench.
    if !sheet.is_filled("height") {
        let which = Which::of(sheet.text("pack"), Some(bench));
        fill(&mut sheet, &file.work, &bench.of_side(which.side), which);
    }
    drawn(move |_| rearch_page(&worker, &file, &mut sheet, None)).await
}

/// What is asked first: the middle of the aim, and what the shop asks of its steel.
fn fill(sheet: &mut Sheet, work: &Casework, bench: &BenchEntry, which: Which) {
    let units = sheet.units();
    let target = work.target().map(|(state, target)| (state, target.height));
    let stands = || Some((LoadState::Empty, work.found().height(End::Rear, LoadState::Empty)?.value));
    if let Some((state, height)) = target.or_else(stands) {
        sheet.set("state", state.word());
        sheet.set_typed("height", &units.typed_in().length(height));
    }
    sheet.set("pack", which.word());
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

fn read(sheet: &mut Sheet, bench: &BenchEntry) -> Option<Asked> {
    let side = Which::of(sheet.text("pack"), Some(bench)).side;
    let bench = bench.of_side(side);
    let state = LoadState::from_word(sheet.text("state")).unwrap_or(LoadState::Empty);
    let rule = if sheet.text("rule") == "even_stress" { Rule::EvenStress } else { Rule::KeepNip };
    let height = sheet.signed_length("height");
    let lost = sheet.number("lost");
    if lost.is_some_and(|lost| !(0.0..=50.0).contains(&lost)) {
        sheet.refuse("lost", "Of the arch that is gained, from 0 to 50% settle again.");
    }
    let (rated, at_stop, yields) = (sheet.stress("rated"), sheet.stress("at_stop"), sheet.stress("yields"));
    let steel = SteelEntry { rated: rated?, at_stop: at_stop?, yields: yields? };
    let bench = BenchEntry { steel: Some(steel), lost_percent: Some(lost?), ..bench };
    if !bench.steel().is_sound() {
        sheet.refuse("rated", "A steel takes less at rated load than at the stop, and less there than where it yields.");
    }
    let height = height?;
    sheet.is_sound().then_some(Asked { state, side, height: height.length(), rule, bench })
}

pub(crate) async fn take(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let entry = file.case().bench.clone().ok_or(WebError::NotNow("There is no pack on the bench yet. Put one in first."))?;
    let units = worker.units();
    let Some(asked) = read(&mut sheet, &entry) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&refusal))).await;
    };
    let (file, asked, worked) = run(move |_| {
        let worked = file.work.rearch(&asked, units.typed_in());
        Ok((file, asked, worked))
    })
    .await?;
    let Some(worked) = worked.ok().filter(|worked| worked.against.is_empty()) else {
        return drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&Refusal::Fields(1)))).await;
    };
    let side = asked.side;
    let entry = entry.with_side(side, BenchEntry { planned: worked.planned, ..asked.bench });
    match keep_sheet(&database, &worker, &sheet, file.job.id, entry).await? {
        Kept::Saved => Ok(see_other(here(file.job.number.0, Which { of: As::Planned, side }, ""))),
        Kept::Refused(refusal) => {
            let file = job_file(&database, &worker, *number).await?;
            sheet.go_by_the_file();
            drawn(move |_| rearch_page(&worker, &file, &mut sheet, Some(&refusal))).await
        }
    }
}

fn rearch_page(worker: &Worker, file: &JobFile, sheet: &mut Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let mut problem = String::new();
    let mut result = None;
    if let Some(bench) = &file.case().bench
        && let Some(asked) = read(sheet, bench)
    {
        let worked = file.work.rearch(&asked, units.typed_in());
        let worked = worked.and_then(|worked| shown(&file.work, bench, &asked, worked, units).map_err(CannotRearch::from));
        match worked {
            Ok(shown) => result = Some(shown),
            Err(why) => problem = cannot_rearch_words(&why, units),
        }
    }
    let datum = datum_name(survey.vehicle.class, survey.datum);
    let side = Which::of(sheet.text("pack"), file.case().bench.as_ref()).side;
    let (title, wanted) = match side {
        None => ("Re-arch".to_owned(), "Rear height wanted".to_owned()),
        Some(side) => (format!("Re-arch, {}", side.name()), format!("Rear height wanted, {}", side.name())),
    };
    let stress = |name: &str, label: &str| sheet.number_field(name, label, units.stress_name());
    let template = RearchPage {
        frame: JobFrame::new(worker, file, Some(Stage::Bench), &as_chosen(&file.work)),
        number: file.job.number.0,
        hidden: Hidden::new(sheet, file.job.revision),
        states: sheet.picks("state", "The height counts", state_choices(file.work.found())),
        height: sheet.length_field("height", &wanted).hint(datum),
        pack: sheet.text("pack").to_owned(),
        title,
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

fn shown(
    work: &Casework,
    entry: &BenchEntry,
    asked: &Asked,
    worked: RearchPlan,
    units: Units,
) -> Result<RearchResult, PackError> {
    let survey = work.found();
    let RearchPlan { rearch, bench, bent, against, raised, .. } = worked;
    let full: Force = bench.packs.rated;
    let before = rearch.found.prepare(full).and_then(|pack| pack.state(full))?;
    let after = rearch.wanted.prepare(full).and_then(|pack| pack.state(full))?;
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
    let datum = datum_name(survey.vehicle.class, survey.datum);
    Ok(RearchResult {
        asked: format!(
            "{} {} at the {}, {}: {} on what it stands at.",
            units.height(asked.height),
            state_of(survey, asked.state),
            asked.side.map_or_else(|| "rear".to_owned(), |side| format!("rear {}", side.name())),
            datum,
            units.change(raised)
        ),
        leaves,
        steel: steel_words(&bent, units).into_iter().filter(|(class, _)| *class != "problem").collect(),
        heights: height_lines(work, &work.benches(entry)?.with_side(asked.side, bent), units),
        against: against.iter().map(|against| against_words(against, units)).collect(),
    })
}
