//! What it would take for the rear to stand where the aim wants it: what each kind would have to be, and what of the shelf comes near.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use form_urlencoded::Serializer;
use wise_badger_casework::back_solve::{KindNeeded, Near, Needed, WhatItTakes, kinds_looked_through, nearest, what_it_takes};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ShelfPart, WhenEntry};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::LoadState;
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::units::Length;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::shelf::{OnTheShelf, Search};
use wise_badger_store::{Database, shelf};

use super::options::refuse_what_cannot_be_cured;
use super::{Page, job_file, page};
use crate::correction::on_the_shelf::kind_name;
use crate::correction::parts::setting_field;
use crate::correction::{figure_label, figure_words};
use crate::error::WebError;
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::aim::aim_words;
use crate::view::look_over::ruled_out;
use crate::view::prediction::unpredicted_words;
use crate::view::shelf::{money_words, stock_words};
use crate::view::{Cautions, Units, sentence, state_of};
use crate::worker::Worker;

/// Most parts of the shelf that are looked through.
const MOST: i64 = 1_000;

#[derive(Template)]
#[template(path = "takes.html")]
struct TakesPage {
    shell: Shell,
    number: i32,
    label: String,
    options: String,
    /// Whether nobody has looked the vehicle over yet.
    not_looked_over: bool,
    aim: String,
    /// Where it stands, where it is to, and what must be carried for that; none while the aim asks nothing of the rear.
    sum: Vec<String>,
    kinds: Vec<KindLine>,
    near: Vec<NearLine>,
    /// What to heed with any of them, before one is tried.
    cautions: Cautions,
}

struct KindLine {
    name: &'static str,
    needs: String,
    rear: String,
    problem: String,
}

struct NearLine {
    number: String,
    name: String,
    set: String,
    rear: String,
    /// What must go with it.
    problem: String,
    price: String,
    stock: String,
    href: String,
    /// The same to be tried by slider.
    what_if: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let kinds = kinds_looked_through(&file.work).into_iter().map(str::to_owned).collect();
    let (shop, search) = (worker.shop_id(), Search { kinds, ..Search::default() });
    let parts = database.read(move |connection| shelf::page(connection, shop, &search, MOST)).await?;
    drawn(move |_| takes_page(&worker, &file, parts)).await
}

fn takes_page(worker: &Worker, file: &JobFile, on_the_shelf: Vec<OnTheShelf>) -> Result<Page, WebError> {
    let (work, units, number) = (&file.work, worker.units(), file.job.number);
    let takes = what_it_takes(work);
    let options = Stage::Options.path(number);
    let (ids, parts): (Vec<i64>, Vec<ShelfPart>) = on_the_shelf.into_iter().map(|found| (found.id.0, found.part.0)).unzip();
    let near = takes.as_ref().filter(|takes| takes.wanted > takes.stands).map(|takes| nearest(work, takes, &parts));
    let of_kinds = takes.iter().flat_map(|takes| &takes.kinds).filter_map(|kind| match &kind.answer {
        Needed::Of { part, .. } => Some(part.clone()),
        _ => None,
    });
    let shown: Vec<Correction> = of_kinds.chain(near.iter().flatten().map(|near| near.part.clone())).collect();
    let cautions = Cautions::of(&work.cautions(&shown));
    let line = |near: Near| {
        let (part, id) = (parts.get(near.place)?, ids.get(near.place)?);
        let set = near.setting.map(|(figure, value)| (figure_label(part.kind, figure), figure_words(&value, units)));
        let by_case: Vec<(WhenEntry, String)> =
            near.by_case.iter().map(|(when, value)| (*when, figure_words(value, units))).collect();
        let (mut query, mut what_if) = (Serializer::new(String::new()), Serializer::new(String::new()));
        query.append_pair("shelf", &id.to_string());
        what_if.append_pair("p0_shelf", &id.to_string());
        if let Some((_, text)) = &set {
            query.append_pair("set", &text.replace('\u{a0}', " "));
            what_if.append_pair("p0_set", &text.replace('\u{a0}', " "));
        }
        for (when, text) in &by_case {
            what_if.append_pair(&format!("p0_{}", setting_field(*when)), &text.replace('\u{a0}', " "));
        }
        let set = set.map(|(label, text)| format!("{}: {text}", label.split(',').next().unwrap_or_default()));
        let others = by_case.iter().map(|(when, text)| format!("{} {text}", called(work, *when)));
        Some(NearLine {
            number: part.number.clone(),
            name: part.name.clone(),
            set: set.into_iter().chain(others).collect::<Vec<_>>().join("; "),
            rear: units.predicted(near.rear),
            problem: ruled_out(&near.gates),
            price: part.price.as_ref().map(money_words).unwrap_or_default(),
            stock: stock_words(part),
            href: format!("{options}?{}#try", query.finish()),
            what_if: format!("/jobs/{}/what-if?{}", number.0, what_if.finish()),
        })
    };
    let template = TakesPage {
        shell: Shell::new(worker, "What it would take", format!("/jobs/{}/takes", number.0)),
        number: number.0,
        label: file.case().intake.label.clone(),
        not_looked_over: file.case().look_over.is_none(),
        aim: aim_words(work, units),
        sum: takes.as_ref().map(|takes| sum_words(work, takes, units)).unwrap_or_default(),
        kinds: takes
            .iter()
            .flat_map(|takes| &takes.kinds)
            .map(|kind| kind_line(kind, takes.as_ref().is_some_and(|takes| takes.state != LoadState::Empty), units))
            .collect(),
        near: near.into_iter().flatten().filter_map(line).collect(),
        cautions,
        options,
    };
    page(StatusCode::OK, &template)
}

/// What a state or a case is called.
fn called(work: &Casework, when: WhenEntry) -> String {
    match when {
        WhenEntry::State(state) => state_of(work.found(), state).to_owned(),
        WhenEntry::Case(key) => {
            work.cases().iter().find(|case| case.key == key).map(|case| case.name.clone()).unwrap_or_default()
        }
    }
}

fn sum_words(work: &Casework, takes: &WhatItTakes, units: Units) -> Vec<String> {
    let (state, gain) = (sentence(state_of(work.found(), takes.state)), takes.wanted - takes.stands);
    let stands = format!(
        "{state}, the rear stands at {}; the middle of the aim is {}.",
        units.height(takes.stands),
        units.height(takes.wanted)
    );
    if gain <= Length::default() {
        return vec![stands, "It stands there already: nothing that lifts is asked for.".to_owned()];
    }
    let carries = takes.more_to_carry.map(|force| {
        let rate = work.rate().measured().map(|measured| units.rate(measured.rate)).unwrap_or_default();
        format!(
            "To gain {}, what holds it up must carry {} ± {} more there, both sides together: {rate} × {}, which the springs let go of on the way up.",
            units.exact(gain),
            units.weight(force.value),
            units.weight(force.band()),
            units.exact(gain)
        )
    });
    std::iter::once(stands).chain(carries).collect()
}

fn kind_line(kind: &KindNeeded, loaded: bool, units: Units) -> KindLine {
    let line = |needs: String, rear: String, problem: String| KindLine { name: kind_name(kind.row), needs, rear, problem };
    match &kind.answer {
        Needed::Of { value, rear, gates, .. } => {
            let label = figure_label(kind.row, kind.figure);
            line(format!("{label}: {}", figure_words(value, units)), units.predicted(*rear), ruled_out(gates))
        }
        Needed::TooMuch => line(String::new(), String::new(), "The least there is of it lifts it higher.".to_owned()),
        Needed::NotEnough => line(String::new(), String::new(), "The most there is of it does not lift it as high.".to_owned()),
        Needed::Unpredicted(why) => line(String::new(), String::new(), unpredicted_words(*why, loaded)),
    }
}
