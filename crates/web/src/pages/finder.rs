//! The finder: what the shelf has for a job, the best beside one another, all that is allowed in a list, and why not the others.

use std::hash::{DefaultHasher, Hash as _, Hasher as _};

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use chrono::Local;
use form_urlencoded::Serializer;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::consequence::Consequence;
use wise_badger_casework::entry::{OptionEntry, ShelfPart};
use wise_badger_casework::finder::{Found, Ranked, Refused, School, Search, Weights, find};
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::Stage;
use wise_badger_mechanics::correction::Correction;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, correction, shelf};

use super::options::{newest_of, refuse_what_cannot_be_cured};
use super::{Hidden, Page, job_file, keep_or_fail, page, see_other};
use crate::correction::option_name;
use crate::drawing::{Drawing, FitPoint, fit_cost_drawing};
use crate::error::WebError;
use crate::form::{Field, Posted, Sheet, asked_by_address};
use crate::job_route::StageWords as _;
use crate::reckoning::{Gone, drawn, run};
use crate::shell::Shell;
use crate::view::aim::aim_words;
use crate::view::consequence::consequence_figures;
use crate::view::finder::{
    chance_words, counted_words, days_words, hours_words, in_a_hundred, lead_words, leaning_words, limited_by, price_words,
    rear_now, refused_words, ride_words, school_name, school_words, state_head, to_the_customer, wish_words,
};
use crate::view::load_plan::unpredicted_words;
use crate::view::shelf::stock_words;
use crate::view::{Cautions, Units, sentence};
use crate::worker::Worker;

/// Options that stand beside one another.
const MOST_COLUMNS: usize = 3;
/// What else changes that a column has room for.
const MOST_CHANGES: usize = 5;

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
    leads: Vec<(String, String, &'static str)>,
    columns: Vec<Column>,
    rows: Vec<Row>,
    cautions: Cautions,
    picture: Option<Drawing>,
    list: Vec<Line>,
    /// Those that others are better than, or that do what others do.
    folded: Vec<Line>,
    heads: Vec<Head>,
    refused: Vec<(String, String)>,
    /// The best of each school by itself.
    schools: Vec<SchoolLine>,
    /// What the list may be narrowed to.
    kinds: Vec<(&'static str, String, bool)>,
    only_wished: bool,
    /// Whether anything is left out of what is shown.
    narrowed: bool,
    counted: String,
    weights: Vec<Field>,
    /// The same, to go along unseen.
    along: Vec<(&'static str, f64)>,
}

/// The head and the foot of an option's column.
struct Column {
    rank: usize,
    name: String,
    school: String,
    customer: String,
    key: String,
}

/// A row over all columns.
struct Row {
    label: String,
    cells: Vec<Vec<String>>,
}

/// The best of a school by itself.
struct SchoolLine {
    school: String,
    name: String,
    chance: String,
    rear: String,
    ride: [String; 2],
    leaning: String,
    upkeep: &'static str,
    price: String,
    hours: String,
}

/// The head of a column of the list, by which it is sorted when it is pressed.
struct Head {
    label: &'static str,
    href: String,
    sorted: bool,
}

/// What the list may be sorted by: the word in the address, and the head of the column.
const SORTED_BY: [(&str, &str); 5] =
    [("", "Place"), ("chance", "Meets the aim"), ("price", "Parts"), ("hours", "Work"), ("days", "To have it")];

/// An option in the list.
struct Line {
    rank: usize,
    name: String,
    school: String,
    chance: String,
    rear: String,
    price: String,
    hours: String,
    days: String,
    against: String,
    folded: &'static str,
    key: String,
}

fn address(number: i32) -> String {
    format!("/jobs/{number}/finder")
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let parts = parts_of(&database, &worker).await?;
    let sheet = Sheet::posted(asked_by_address(asked.into_inner()), worker.units());
    drawn(move |gone| {
        let weights = weights_of(&sheet);
        let found = look(&file, &parts, weights, worker.units(), gone)?;
        finder_page(&worker, &file, &sheet, weights, &found)
    })
    .await
}

/// Puts an option that was found on the job's list. It is looked for again: what has changed meanwhile is found otherwise.
pub(crate) async fn keep(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let parts = parts_of(&database, &worker).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let units = worker.units();
    let (file, sheet, kept) = run(move |gone| {
        let found = look(&file, &parts, weights_of(&sheet), units, gone)?;
        let key = sheet.text("option").to_owned();
        let kept = found.ranked.into_iter().map(|ranked| ranked.option).find(|option| key_of(option) == key);
        Ok((file, sheet, kept))
    })
    .await?;
    let entry = kept.ok_or(WebError::NotNow(
        "The readings, the aim or the shelf have changed since, and this option is not found any more. Go back and look again.",
    ))?;
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        correction::consider(connection, person, job, &entry).map(|_| ())
    })
    .await?;
    Ok(see_other(newest_of(file.job.number)))
}

async fn parts_of(database: &Data<Database>, worker: &Worker) -> Result<Vec<ShelfPart>, WebError> {
    let shop = worker.shop_id();
    Ok(database.read(move |connection| shelf::all(connection, shop)).await?)
}

fn look(file: &JobFile, parts: &[ShelfPart], weights: Weights, units: Units, gone: &Gone) -> Result<Found, WebError> {
    let today = Local::now().date_naive().to_string();
    let search = Search { work: &file.work, shelf: parts, weights, today: Some(&today), units: units.typed_in() };
    let found = find(&search, &|| gone.check().is_ok());
    gone.check()?;
    Ok(found)
}

/// What an option goes by between two looks: its parts and how they are set.
fn key_of(option: &OptionEntry) -> String {
    let mut hasher = DefaultHasher::new();
    serde_json::to_string(option).unwrap_or_default().hash(&mut hasher);
    format!("{:016x}", hasher.finish())
}

/// The words of the weights on the form.
const WEIGHTS: [(&str, &str); 7] = [
    ("aim", "Meets the aim"),
    ("cause", "Puts the cause right"),
    ("ride", "Ride"),
    ("upkeep", "No upkeep"),
    ("removable", "Comes off again"),
    ("price", "Price"),
    ("time", "Time"),
];
const MOST_WEIGHT: f64 = 100.0;

/// Weights off the address; what is none is as a shop begins.
fn weights_of(sheet: &Sheet) -> Weights {
    let usual = Weights::default();
    let weight = |name: &str, usual: f64| {
        let typed = sheet.text(name).trim().parse::<f64>().ok();
        typed.filter(|weight| (0.0..=MOST_WEIGHT).contains(weight)).unwrap_or(usual)
    };
    Weights {
        aim: weight("aim", usual.aim),
        cause: weight("cause", usual.cause),
        ride: weight("ride", usual.ride),
        upkeep: weight("upkeep", usual.upkeep),
        removable: weight("removable", usual.removable),
        price: weight("price", usual.price),
        time: weight("time", usual.time),
    }
}

/// What the list is narrowed to.
struct Narrowed {
    without: Vec<School>,
    only_wished: bool,
}

impl Narrowed {
    fn of(sheet: &Sheet) -> Self {
        let without = School::ALL.into_iter().filter(|school| sheet.is_filled(&format!("without_{}", school.word())));
        Narrowed { without: without.collect(), only_wished: sheet.is_filled("only_wished") }
    }

    fn shows(&self, option: &Ranked) -> bool {
        let left_out = option.schools.iter().any(|school| self.without.contains(school));
        let goes_by_the_wishes = !self.only_wished || option.worth.against_a_wish.is_empty();
        !left_out && goes_by_the_wishes
    }

    fn is_any(&self) -> bool {
        self.only_wished || !self.without.is_empty()
    }
}

fn finder_page(worker: &Worker, file: &JobFile, sheet: &Sheet, weights: Weights, found: &Found) -> Result<Page, WebError> {
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
            customer: to_the_customer(ranked, loaded, now, units),
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
        leads: found
            .leads
            .iter()
            .map(|lead| {
                let (text, stage, link) = lead_words(lead, work, units);
                (text, format!("/jobs/{number}/{stage}"), link)
            })
            .collect(),
        rows: rows(work, &trials, units),
        columns: columns.collect(),
        cautions: Cautions::of(&work.cautions(&offered)),
        picture: picture(&found.ranked, &first, &name),
        list,
        folded,
        heads: heads(number, &weights, &by),
        refused: found.refused.iter().map(|refused| why_not(refused, &name, units, work)).collect(),
        schools: found.by_school().into_iter().map(|(school, ranked)| school_line(file, school, ranked, units)).collect(),
        kinds: School::ALL
            .into_iter()
            .filter(|school| found.ranked.iter().any(|option| option.schools.contains(school)))
            .map(|school| (school_name(school), format!("without_{}", school.word()), narrowed.without.contains(&school)))
            .collect(),
        only_wished: narrowed.only_wished,
        narrowed: narrowed.is_any(),
        counted: counted_words(&found.counted),
        along: weights.each().to_vec(),
        weights: weight_fields(sheet, &weights),
    };
    page(StatusCode::OK, &template)
}

/// What an option is sorted by, the least first; what is not known comes last.
fn sorted_value(by: &str, place: usize, ranked: &Ranked) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "neither a place nor a price has so many figures")]
    let value = match by {
        "chance" => ranked.chance.as_ref().map(|chance| -chance.all),
        "price" => ranked.worth.price.map(|(price, _)| price as f64),
        "hours" => ranked.worth.hours,
        "days" => ranked.worth.days.map(f64::from),
        _ => Some(place as f64),
    };
    value.unwrap_or(f64::INFINITY)
}

fn heads(number: i32, weights: &Weights, by: &str) -> Vec<Head> {
    let head = |(word, label): &(&'static str, &'static str)| {
        let mut query = Serializer::new(String::new());
        if *weights != Weights::default() {
            weights.each().iter().for_each(|(name, weight)| {
                query.append_pair(name, &weight.to_string());
            });
        }
        if !word.is_empty() {
            query.append_pair("sort", word);
        }
        Head { label, href: format!("{}?{}#list", address(number), query.finish()), sorted: by == *word }
    };
    SORTED_BY.iter().map(head).collect()
}

/// The places of those that stand beside one another: the best of each school, and failing that the best.
fn first_of(ranked: &[Ranked], narrowed: &Narrowed) -> Vec<usize> {
    let shown = || ranked.iter().enumerate().filter(|(_, option)| narrowed.shows(option));
    let heads = shown().filter(|(_, option)| !option.another_way && !option.dominated);
    let heads: Vec<usize> = heads.map(|(place, _)| place).take(MOST_COLUMNS).collect();
    // Of what is left once the list is narrowed, the best may be what others do better that are not shown.
    if heads.is_empty() { shown().map(|(place, _)| place).take(MOST_COLUMNS).collect() } else { heads }
}

/// The best of a school by itself, in a line.
fn school_line(file: &JobFile, school: School, ranked: &Ranked, units: Units) -> SchoolLine {
    let work = &file.work;
    let trial = work.trying(ranked.option.clone(), file.case().plan.clone());
    let (state, _) = rear_now(work);
    let rear = trial.predicted(0).and_then(|predicted| predicted.at(state).ok()).map(|at| units.predicted(at.rear));
    let stiffer = trial.consequences(0).iter().find_map(|changed| match changed {
        Consequence::AgainstLeaning { share, .. } => Some(*share),
        _ => None,
    });
    SchoolLine {
        school: sentence(school_name(school)),
        name: option_name(&ranked.option, work.found().vehicle.class, units),
        chance: ranked.chance.as_ref().map_or_else(String::new, |chance| in_a_hundred(chance.all)),
        rear: rear.unwrap_or_default(),
        ride: ride_words(&ranked.worth),
        leaning: leaning_words(stiffer),
        upkeep: if ranked.worth.upkeep.is_empty() { "none" } else { "wants looking after" },
        price: price_words(&ranked.worth),
        hours: hours_words(&ranked.worth),
    }
}

fn why_not(refused: &Refused, name: &impl Fn(&OptionEntry) -> String, units: Units, work: &Casework) -> (String, String) {
    (name(&refused.option), refused_words(refused, units, work))
}

/// What every column says, row by row.
fn rows(work: &Casework, trials: &[(usize, &Ranked, Casework)], units: Units) -> Vec<Row> {
    if trials.is_empty() {
        return Vec::new();
    }
    let one = |label: &str, cell: &dyn Fn(&Ranked, &Casework) -> Vec<String>| Row {
        label: label.to_owned(),
        cells: trials.iter().map(|(_, ranked, trial)| cell(ranked, trial)).collect(),
    };
    let mut rows = vec![one("Chance", &|ranked, _| {
        let (words, figure) = chance_words(ranked.chance.as_ref());
        [words, figure, limited_by(ranked.chance.as_ref(), work, units)].into_iter().filter(|line| !line.is_empty()).collect()
    })];
    for state in work.found().states() {
        rows.push(one(&format!("Rear, {}", state_head(work, state).to_lowercase()), &|_, trial| {
            let at = trial.predicted(0).map(|predicted| predicted.at(state));
            vec![at.map_or_else(String::new, |at| {
                at.map_or_else(|why| unpredicted_words(why).to_owned(), |at| units.predicted(at.rear))
            })]
        }));
    }
    for case in work.cases() {
        rows.push(one(&format!("Rear, {}", case.name), &|_, trial| {
            let of_trial = trial.cases().iter().find(|of| of.key == case.key).map(|of| trial.in_case(0, of));
            let words = |at: Result<_, _>| {
                at.map_or_else(
                    |why| unpredicted_words(why).to_owned(),
                    |at: wise_badger_casework::prediction::CaseHeights| units.predicted(at.rear),
                )
            };
            vec![of_trial.map_or_else(String::new, words)]
        }));
    }
    rows.push(one("Ride, empty", &|ranked, _| vec![ride_words(&ranked.worth)[0].clone()]));
    rows.push(one("Ride, loaded", &|ranked, _| vec![ride_words(&ranked.worth)[1].clone()]));
    rows.push(one("What else changes", &|_, trial| {
        let figures = consequence_figures(trial, 0, units);
        figures.iter().take(MOST_CHANGES).map(|figure| format!("{}: {}", figure.label, figure.value)).collect()
    }));
    rows.push(one("Against a wish", &|ranked, _| {
        ranked.worth.against_a_wish.iter().map(|wish| sentence(wish_words(*wish))).collect()
    }));
    rows.push(one("Upkeep", &|ranked, _| {
        if ranked.worth.upkeep.is_empty() { vec!["none".to_owned()] } else { ranked.worth.upkeep.clone() }
    }));
    rows.push(one("Parts", &|ranked, _| vec![price_words(&ranked.worth)]));
    rows.push(one("Work", &|ranked, _| vec![hours_words(&ranked.worth)]));
    rows.push(one("To have it", &|ranked, _| {
        let part = |part: &ShelfPart| format!("{}: {}", part.number, stock_words(part));
        ranked.option.parts.iter().filter_map(|entry| entry.shelf.as_deref()).map(part).collect()
    }));
    rows.retain(|row| row.cells.iter().any(|cell| cell.iter().any(|line| !line.is_empty())));
    rows
}

fn picture(ranked: &[Ranked], first: &[usize], name: &impl Fn(&OptionEntry) -> String) -> Option<Drawing> {
    let point = |(place, option): (usize, &Ranked)| {
        let (price, _) = option.worth.price?;
        let chance = option.chance.as_ref()?.all;
        #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
        let price = price as f64 / 100.0;
        let name = format!("{}: {}, {}, {}", place + 1, name(&option.option), in_a_hundred(chance), price_words(&option.worth));
        Some(FitPoint { rank: place + 1, name, chance, price, first: first.contains(&place) })
    };
    let points: Vec<FitPoint> = ranked.iter().enumerate().filter_map(point).collect();
    let dearest =
        ranked.iter().filter(|option| option.worth.price.is_some()).max_by_key(|option| option.worth.price.map(|price| price.0));
    let most = dearest.map(|option| price_words(&option.worth)).unwrap_or_default();
    (points.len() > 1).then(|| fit_cost_drawing(&points, &most))
}

fn weight_fields(sheet: &Sheet, weights: &Weights) -> Vec<Field> {
    let mut shown = sheet.clone();
    for (word, weight) in weights.each() {
        shown.set(word, weight.to_string());
    }
    WEIGHTS.iter().map(|(word, label)| shown.text_field(word, label)).collect()
}
