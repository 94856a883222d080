//! What is tried, as it stands on the form: parts, a load, a pull to one side.

use actix_web::web::Data;
use wise_badger_casework::entry::{ItemEntry, LoadPlanEntry, MOST_PARTS, OptionEntry, PartEntry, Typed};
use wise_badger_casework::survey::LoadProblem;
use wise_badger_casework::what_if::{Aboard, CannotTry, LoadTried};
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::units::{Length, metres};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{CorrectionId, Database};

use super::super::shelf::picked::{self, Picked};
use crate::correction::begin;
use crate::correction::on_the_shelf::fill_own_figures;
use crate::correction::parts::{read_name, read_part, why_not_together};
use crate::correction::tried::{fill_to_try, keep_the_kind};
use crate::error::WebError;
use crate::form::Sheet;
use crate::form::load_plan::CASES;
use crate::view::shelf::shelf_words;
use crate::view::what_if::Pull;
use crate::worker::Worker;

/// Where a part of an option is told: its option's key and its place there.
pub(super) const OF: &str = "of";
/// How far what is aboard is moved, and how hard and how high it is pulled.
pub(super) const MOVED: Bound = Bound::inches(-120.0, 120.0);
pub(super) const ASIDE: Bound = Bound::inches(-48.0, 48.0);
pub(super) const MORE: Bound = Bound::pounds(0.0, 5_000.0);
pub(super) const PULL: Bound = Bound::pounds(50.0, 3_000.0);
pub(super) const PULL_HEIGHT: Bound = Bound::inches(24.0, 120.0);
/// What a load is called until somebody names it.
pub(super) const UNNAMED: &str = "What-if load";
/// The key of a load that the plan has no room for: it can be looked at, not kept.
pub(super) const NO_CASE: u8 = u8::MAX;
/// Longest name of a case.
const LONGEST_NAME: usize = 40;

/// What the names of a part's fields begin with.
pub(crate) fn part_name(place: usize) -> String {
    format!("p{place}_")
}

/// Whether anything stands at a place.
pub(super) fn is_part(sheet: &Sheet, place: usize) -> bool {
    ["kind", "shelf", OF].iter().any(|name| sheet.is_filled(&format!("{}{name}", part_name(place))))
}

/// The first free place; `None` where an option has all the parts it may have.
pub(crate) fn free_place(sheet: &Sheet) -> Option<usize> {
    (0..MOST_PARTS).find(|place| !is_part(sheet, *place))
}

/// Takes a part off; those after it move up.
pub(super) fn take_off(sheet: &mut Sheet, place: usize) {
    for place in place..MOST_PARTS {
        let next = sheet.under(&part_name(place + 1));
        sheet.put_under(&part_name(place), &next);
    }
}

/// What stands on the form, read.
pub(super) struct Trial {
    pub(super) sheet: Sheet,
    /// The part of the shelf at each place, if it is one.
    pub(super) picked: Vec<Option<Picked>>,
    /// The parts together; none while any of them cannot be read.
    pub(super) entry: Option<OptionEntry>,
    /// The load plan with the load that is tried, and its case.
    pub(super) load: Option<(LoadPlanEntry, u8)>,
    pub(super) pull: Option<Pull>,
}

impl Trial {
    /// Reads a form; what is wrong is said beside its fields.
    pub(super) async fn read(
        database: &Data<Database>,
        worker: &Worker,
        file: &JobFile,
        mut sheet: Sheet,
    ) -> Result<Self, WebError> {
        let mut parts: Vec<PartEntry> = Vec::new();
        let (mut all, mut shelf) = (true, Vec::new());
        for place in 0..MOST_PARTS {
            let beginning = part_name(place);
            if !is_part(&sheet, place) {
                shelf.push(None);
                continue;
            }
            let mut inner = sheet.under(&beginning);
            let (read, words) = read_tried(database, worker, file, &mut inner).await?;
            shelf.push(words);
            sheet.put_under(&beginning, &inner);
            sheet.refuse_under(&beginning, &inner);
            all &= read.is_some();
            parts.extend(read);
        }
        let entry = OptionEntry { name: read_name(&mut sheet), parts };
        let clash = why_not_together(file, &entry, sheet.units());
        if let Some(why) = &clash {
            sheet.refuse("parts", why.clone());
        }
        let load = read_load(&mut sheet, file);
        let pull = read_pull(&mut sheet);
        let entry = (all && clash.is_none()).then_some(entry);
        Ok(Trial { sheet, picked: shelf, entry, load, pull })
    }
}

/// Reads one part, and what the shelf says of it where it is from there.
async fn read_tried(
    database: &Data<Database>,
    worker: &Worker,
    file: &JobFile,
    inner: &mut Sheet,
) -> Result<(Option<PartEntry>, Option<Picked>), WebError> {
    if inner.is_filled(OF) {
        return Ok(of_an_option(inner, file));
    }
    if !inner.is_filled("shelf") {
        return Ok((read_part(inner, file, None), None));
    }
    if !inner.is_filled("kind") {
        begin_with_the_shelf(database, worker, file, inner).await?;
    }
    let part = picked::sent_with(database, worker, inner).await?;
    let words = Picked::of(inner);
    picked::forget_words(inner);
    if let Some(part) = &part {
        fill_own_figures(inner, part);
    }
    Ok((read_part(inner, file, part.as_ref()), words))
}

/// A part just picked, set as its box says or as was asked; what neither says is as usual.
async fn begin_with_the_shelf(
    database: &Data<Database>,
    worker: &Worker,
    file: &JobFile,
    inner: &mut Sheet,
) -> Result<(), WebError> {
    let id = inner.text("shelf").parse().map_err(|error| WebError::Malformed(format!("no part of the shelf: {error}")))?;
    let set = Some(inner.text("set").to_owned()).filter(|set| !set.is_empty());
    picked::begin_with(database, worker, inner, id, set.as_deref()).await?;
    inner.set("set", "");
    begin(inner, &file.work.found().vehicle, &file.case().sheet);
    keep_the_kind(inner);
    Ok(())
}

/// A part of an option on the list, as it stands there; of one from the shelf, set as the form says.
fn of_an_option(inner: &mut Sheet, file: &JobFile) -> (Option<PartEntry>, Option<Picked>) {
    let told = inner.text(OF).split_once('.');
    let told = told.and_then(|(id, place)| Some((CorrectionId(id.parse().ok()?), place.parse::<usize>().ok()?)));
    let part = told.and_then(|(id, place)| {
        let option = file.considered.iter().position(|considered| *considered == id)?;
        file.case().options.get(option)?.parts.get(place).cloned()
    });
    let Some(part) = part else {
        inner.refuse(OF, "Its option is no longer on the list: take this part off.");
        return (None, None);
    };
    let Some(copy) = part.shelf.as_deref() else { return (Some(part), None) };
    if !inner.is_filled("kind") {
        fill_to_try(inner, &part, file);
    }
    fill_own_figures(inner, copy);
    let words = Picked { key: String::new(), words: shelf_words(copy), problem: String::new() };
    (read_part(inner, file, Some(copy)), Some(words))
}

fn read_pull(sheet: &mut Sheet) -> Option<Pull> {
    let force = sheet.weight("pull").and_then(|typed| sheet.within("pull", "A pull", typed, &PULL))?;
    let height = sheet.length("pull_height").and_then(|typed| sheet.within("pull_height", "Its height", typed, &PULL_HEIGHT))?;
    Some(Pull { force: force.force(), height: height.length() })
}

/// A length that may be left empty, for nought.
fn signed(sheet: &mut Sheet, name: &str, what: &str, bound: &Bound) -> Option<Length> {
    if !sheet.is_filled(name) {
        return Some(metres(0.0));
    }
    let typed = sheet.signed_length(name)?;
    sheet.within(name, what, typed, bound).map(|typed| typed.length())
}

/// The load that is tried, on the plan; none where nothing is aboard in it, or something is wrong with it.
fn read_load(sheet: &mut Sheet, file: &JobFile) -> Option<(LoadPlanEntry, u8)> {
    let from = match sheet.text("load_from") {
        "" => Aboard::Nothing,
        "loaded" => Aboard::AsLoaded,
        // What is no key at all is none of the plan's either.
        case => Aboard::Case(case.parse().unwrap_or(NO_CASE)),
    };
    let rearward = signed(sheet, "load_back", "How far it is moved", &MOVED);
    let to_the_right = signed(sheet, "load_right", "How far it is moved", &ASIDE);
    let more = read_more(sheet);
    let name = sheet.text("load_name").to_owned();
    if name.chars().count() > LONGEST_NAME {
        sheet.refuse("load_name", format!("Keep the name under {LONGEST_NAME} characters."));
        return None;
    }
    let name = if name.is_empty() { UNNAMED.to_owned() } else { name };
    let tried = LoadTried { name, from, rearward: rearward?, to_the_right: to_the_right?, more: more? };
    let key = free_key(file);
    match tried.on_the_plan(&file.work, key, sheet.units().typed_in()) {
        Ok(plan) => Some((plan, key)),
        Err(problem) => {
            complain(sheet, &problem);
            None
        }
    }
}

/// One thing more; `Some(None)` where there is none, nothing with a complaint where it cannot be read.
fn read_more(sheet: &mut Sheet) -> Option<Option<ItemEntry>> {
    if !sheet.is_filled("more") {
        return Some(None);
    }
    let amount: Typed = sheet.weight("more").and_then(|typed| sheet.within("more", "It", typed, &MORE))?;
    let behind = signed(sheet, "more_back", "Its place", &Bound::inches(-400.0, 400.0))?;
    let right = signed(sheet, "more_right", "Its place", &ASIDE)?;
    if amount.si <= 0.0 {
        return Some(None);
    }
    let (name, units) = (sheet.text("load_name").to_owned(), sheet.units().typed_in());
    let name = if name.is_empty() { "One thing more".to_owned() } else { name };
    Some(Some(ItemEntry::weight_at(&name, amount, behind, right, units)))
}

/// A case that is not on the plan yet, or one that holds nothing and that nothing speaks of; past the plan's own where all are taken.
fn free_key(file: &JobFile) -> u8 {
    let plan = file.case().plan.as_ref();
    let named = |key: u8| plan.is_some_and(|plan| plan.case(key).is_some());
    let taken = |key: u8| plan.is_some_and(|plan| plan.put_for(key).next().is_some()) || file.case().speaks_of(key).is_some();
    let keys = || CASES.iter().map(|(key, _)| *key).rev().filter(|key| !taken(*key));
    keys().find(|key| !named(*key)).or_else(|| keys().next()).unwrap_or(NO_CASE)
}

fn complain(sheet: &mut Sheet, problem: &CannotTry) {
    let units = sheet.units();
    let of_place = |problem: &LoadProblem| match problem {
        LoadProblem::OffTheVehicle { most_ahead, most_behind } => format!(
            "That is off the vehicle: at most {} ahead of the rear axle, or {} behind it.",
            units.height(*most_ahead),
            units.height(*most_behind)
        ),
        LoadProblem::PastTheSide { most } => format!("That is past the side: at most {} from the middle.", units.height(*most)),
        _ => "It weighs nothing; type how much it is.".to_owned(),
    };
    match problem {
        CannotTry::NothingAboard => {}
        CannotTry::NothingWasRead => {
            sheet.refuse("load_from", "Tape does not say what was aboard; pick a case, or type one thing.")
        }
        CannotTry::NoSuchCase => sheet.refuse("load_from", "That case is no longer on the load plan; pick another."),
        CannotTry::Moved(problem) => {
            let aside = matches!(problem, LoadProblem::PastTheSide { .. });
            sheet.refuse(if aside { "load_right" } else { "load_back" }, of_place(problem));
        }
        CannotTry::More(problem) => {
            let aside = matches!(problem, LoadProblem::PastTheSide { .. });
            sheet.refuse(if aside { "more_right" } else { "more_back" }, of_place(problem));
        }
        CannotTry::LiftsAnAxle => sheet.refuse("more", "So loaded, an axle is lifted off the ground; check weights and places."),
    }
}
