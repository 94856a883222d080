//! The page of the finder, put together.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::OptionEntry;
use wise_badger_casework::finder::{Found, Lead, Ranked, School, Weights};
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::Stage;
use wise_badger_mechanics::correction::Correction;
use wise_badger_store::job_file::JobFile;

use super::columns::{Column, Row, column_pictures, first_of, rows};
use super::list::{Head, Line, Narrowed, heads, picture, sorted_value};
use super::looking::Stands;
use super::schools::{SchoolLine, school_line};
use super::weighing::{along, weight_fields};
use super::why_not::{WhyNot, why_not};
use super::{address, key_of};
use crate::correction::option_name;
use crate::drawing::Drawing;
use crate::error::WebError;
use crate::form::{Field, Sheet};
use crate::job_route::StageWords as _;
use crate::pages::{Hidden, Page, page};
use crate::shell::Shell;
use crate::view::aim::aim_words;
use crate::view::finder::{
    came_words, counted_words, days_words, hours_words, in_a_hundred, lead_words, price_words, rear_now, refused_words,
    school_name, school_words, to_the_customer, wanting_words, wish_words,
};
use crate::view::{Cautions, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "finder.html")]
struct FinderPage {
    shell: Shell,
    hidden: Hidden,
    number: i32,
    label: String,
    options: String,
    not_looked_over: bool,
    aim: String,
    /// How far the search has come, while it goes on.
    looking: Option<LookingOn>,
    /// The search's key, and where the page asks how it stands.
    look: u64,
    asks: String,
    /// The page's own address, what counts with it.
    here: String,
    /// Whether it was called off, and shows what was found by then.
    called_off: bool,
    leads: Vec<(String, String, &'static str)>,
    columns: Vec<Column>,
    pictures: Vec<Drawing>,
    rows: Vec<Row>,
    cautions: Cautions,
    picture: Option<Drawing>,
    list: Vec<Line>,
    /// Those that others are better than, or that do what others do.
    folded: Vec<Line>,
    heads: Vec<Head>,
    refused: Vec<WhyNot>,
    refused_count: usize,
    /// The best of each school by itself.
    schools: Vec<SchoolLine>,
    /// What the list may be narrowed to.
    kinds: Vec<(&'static str, String, bool)>,
    only_wished: bool,
    /// Whether anything is left out of what is shown.
    narrowed: bool,
    counted: String,
    /// Parts that ask for figures of the vehicle that nobody took.
    wanting: Vec<String>,
    weights: Vec<Field>,
    /// The same, to go along unseen.
    along: Vec<(&'static str, f64)>,
}

/// How far a search has come.
struct LookingOn {
    words: String,
    done: usize,
    of: usize,
    found: usize,
}

/// The page of a search as it stands.
pub(super) fn finder_page(
    worker: &Worker,
    file: &JobFile,
    sheet: &Sheet,
    weights: Weights,
    look: u64,
    stands: &Stands,
) -> Result<Page, WebError> {
    let nothing = Found::default();
    let (found, looking) = match stands {
        Stands::Ended(found) => (found.as_ref(), None),
        Stands::GoesOn(found, came) => {
            let so_far = found.as_deref().unwrap_or(&nothing);
            let (done, of) = came.map_or((0, 0), |came| (came.done, came.of));
            (so_far, Some(LookingOn { words: came_words(*came), done, of, found: so_far.ranked.len() }))
        }
    };
    let (work, units, number) = (&file.work, worker.units(), file.job.number.0);
    let class = work.found().vehicle.class;
    let name = |option: &OptionEntry| option_name(option, class, units);
    let narrowed = Narrowed::of(sheet);
    let first = first_of(&found.ranked, &narrowed);
    let trials: Vec<(usize, &Ranked, Casework)> = first
        .iter()
        .filter_map(|place| {
            let ranked = found.ranked.get(*place)?;
            Some((*place, ranked, work.trying(ranked.option.clone(), file.case().plan.clone())))
        })
        .collect();
    let (state, now) = rear_now(work);
    let columns = trials.iter().map(|(place, ranked, trial)| {
        let loaded = trial.predicted(0).and_then(|predicted| predicted.at(state).ok()).map(|at| at.rear.value);
        Column {
            rank: place + 1,
            name: name(&ranked.option),
            school: school_words(&ranked.schools),
            customer: to_the_customer(ranked, state, loaded.zip(now), units),
            key: key_of(&ranked.option),
        }
    });
    // Of everything that can be put on the list from here, not of the columns alone.
    let offered: Vec<Correction> = found.ranked.iter().filter_map(|ranked| ranked.option.corrections(None)).flatten().collect();
    let line = |(place, ranked): (usize, &Ranked)| {
        let trial = work.trying(ranked.option.clone(), file.case().plan.clone());
        let rear =
            trial.predicted(0).and_then(|predicted: &Prediction| predicted.at(state).ok()).map(|at| units.predicted(at.rear));
        let against = ranked.worth.against_a_wish.iter().map(|wish| sentence(wish_words(*wish))).collect::<Vec<_>>();
        Line {
            rank: place + 1,
            name: name(&ranked.option),
            school: school_words(&ranked.schools),
            chance: ranked.chance.as_ref().map_or_else(String::new, |chance| in_a_hundred(chance.all)),
            rear: rear.unwrap_or_default(),
            price: price_words(&ranked.worth),
            hours: hours_words(&ranked.worth),
            days: days_words(&ranked.worth),
            against: against.join("; "),
            folded: match (ranked.dominated, ranked.another_way) {
                (true, _) => "another is as good in everything and better in something",
                (false, true) => "another way of doing what stands above",
                _ => "",
            },
            key: key_of(&ranked.option),
        }
    };
    let by = sheet.text("sort").to_owned();
    let mut places: Vec<usize> = (0..found.ranked.len()).collect();
    places.sort_by(|one, other| {
        let value = |place: &usize| found.ranked.get(*place).map_or(f64::INFINITY, |ranked| sorted_value(&by, *place, ranked));
        value(one).total_cmp(&value(other))
    });
    let shown_of = |place: &usize| found.ranked.get(*place).filter(|option| narrowed.shows(option));
    let lines = places.iter().filter_map(|place| Some(line((*place, shown_of(place)?))));
    let (folded, list): (Vec<Line>, Vec<Line>) = lines.partition(|line| by.is_empty() && !line.folded.is_empty());
    let template = FinderPage {
        shell: Shell::new(worker, "Find options", address(number)),
        hidden: Hidden::new(sheet, file.job.revision),
        number,
        label: file.case().intake.label.clone(),
        options: Stage::Options.path(file.job.number),
        not_looked_over: file.case().look_over.is_none(),
        aim: aim_words(work, units),
        looking,
        look,
        asks: format!("{}/look?{}", address(number), along(&weights, &[("look", &look.to_string())])),
        here: format!("{}?{}", address(number), along(&weights, &[])),
        called_off: found.called_off,
        leads: found
            .leads
            .iter()
            .map(|lead| {
                let (text, stage, link) = lead_words(lead, work, units);
                (text, format!("/jobs/{number}/{stage}"), link)
            })
            .collect(),
        rows: rows(work, &trials, units),
        pictures: column_pictures(work, &trials, units),
        columns: columns.collect(),
        cautions: Cautions::of(&work.cautions(&offered)),
        picture: picture(&found.ranked, &first, &name),
        list,
        folded,
        heads: heads(number, &weights, &by),
        refused: why_not(&found.refused, &name, &|refused| refused_words(refused, units, work)),
        refused_count: found.refused.len(),
        schools: found.by_school().into_iter().map(|(school, ranked)| school_line(file, school, ranked, units)).collect(),
        kinds: School::ALL
            .into_iter()
            .filter(|school| found.ranked.iter().any(|option| option.schools.contains(school)))
            .map(|school| (school_name(school), format!("without_{}", school.word()), narrowed.without.contains(&school)))
            .collect(),
        only_wished: narrowed.only_wished,
        narrowed: narrowed.is_any(),
        counted: if found.leads.iter().any(Lead::bars_everything) {
            "The shelf is looked through once that is settled.".to_owned()
        } else {
            counted_words(&found.counted)
        },
        wanting: found.wanting.iter().map(wanting_words).collect(),
        along: weights.each().to_vec(),
        weights: weight_fields(sheet, &weights),
    };
    page(StatusCode::OK, &template)
}
