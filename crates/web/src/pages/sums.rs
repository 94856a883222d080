//! The shop's sums: one at a time, asked by address, so that an answer can be linked to and printed.

use std::collections::BTreeSet;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Path, Query};
use askama::Template;

use super::{Page, page};
use crate::error::WebError;
use crate::form::{Field, Picks, Sheet, asked_by_address};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::sums::{self, GROUPS, InputValues, ShopSum};
use crate::view::Figure;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "sums.html")]
struct SumsPage {
    shell: Shell,
    groups: Vec<Group>,
    name: &'static str,
    about: &'static str,
    path: String,
    length_unit: &'static str,
    weight_unit: &'static str,
    picks: Vec<Picks>,
    fields: Vec<Field>,
    figures: Vec<Figure>,
    problem: String,
}

/// Sums about one thing, for the list.
struct Group {
    name: &'static str,
    links: Vec<Link>,
}

struct Link {
    name: &'static str,
    href: String,
    here: bool,
}

type Typed = Query<Vec<(String, String)>>;

pub(crate) async fn first(worker: Worker) -> Result<HttpResponse, WebError> {
    let (_, [first, ..]) = GROUPS[0] else { return Err(WebError::NotFound("sum")) };
    drawn(move |_| sum_page(&worker, first, Vec::new())).await
}

pub(crate) async fn show(worker: Worker, word: Path<String>, typed: Typed) -> Result<HttpResponse, WebError> {
    let sum = sums::find(&word).ok_or(WebError::NotFound("sum"))?;
    let typed = typed.into_inner();
    drawn(move |_| sum_page(&worker, sum, typed)).await
}

fn sum_page(worker: &Worker, sum: &'static ShopSum, typed: Vec<(String, String)>) -> Result<Page, WebError> {
    let asked = !typed.is_empty();
    let named: BTreeSet<String> = typed.iter().map(|(name, _)| name.clone()).collect();
    let mut sheet = Sheet::posted(asked_by_address(typed), worker.units());
    // An address of before an input came in asks with what is usual.
    for input in sum.inputs.iter().filter(|input| !input.usual.is_empty() && !named.contains(input.name)) {
        sheet.set(input.name, input.usual);
    }
    let given = if asked { InputValues::read(sum.inputs, &mut sheet, worker.units()) } else { None };
    let (figures, problem) = match given.map(|given| (sum.work)(&given)) {
        None => (Vec::new(), String::new()),
        Some(Ok(figures)) => (figures, String::new()),
        Some(Err(error)) => (Vec::new(), error.words(worker.units())),
    };
    let wrong = !sheet.is_sound() || !problem.is_empty();
    let path = format!("/sums/{}", sum.word);
    let link = |each: &ShopSum| Link { name: each.name, href: format!("/sums/{}", each.word), here: each.word == sum.word };
    let template = SumsPage {
        shell: Shell::new(worker, sum.name, path.clone()),
        groups: GROUPS.map(|(name, sums)| Group { name, links: sums.iter().map(link).collect() }).into_iter().collect(),
        name: sum.name,
        about: sum.about,
        path,
        length_unit: sheet.units().length_name(),
        weight_unit: sheet.units().weight_name(),
        picks: sum.inputs.iter().filter_map(|input| input.picks(&sheet)).collect(),
        fields: sum.inputs.iter().filter_map(|input| input.field(&sheet)).collect(),
        figures,
        problem,
    };
    page(if wrong { StatusCode::UNPROCESSABLE_ENTITY } else { StatusCode::OK }, &template)
}
