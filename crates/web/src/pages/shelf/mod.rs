//! The shop's shelf: its parts, found by words and kinds.

pub(crate) mod files;
pub(crate) mod part;
pub(crate) mod pick;
pub(crate) mod picked;
pub(crate) mod progress;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use form_urlencoded::Serializer;
use serde::Deserialize;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::shelf::effect;
use wise_badger_store::shelf::{self, OnTheShelf, Search};
use wise_badger_store::{Database, ShelfPartId, StoreError};

use super::Hidden;
use crate::correction::on_the_shelf::{bought_kinds, kind_name, part_words};
use crate::drawing::{Drawing, effect_drawing};
use crate::error::WebError;
use crate::form::{Choice, Sheet, clean};
use crate::reckoning::run;
use crate::shell::Shell;
use crate::view::Units;
use crate::view::shelf::{effect_words, money_words, stock_words};
use crate::worker::Worker;

/// Where the shelf is.
pub(crate) const SHELF: &str = "/shelf";
/// Parts on one page.
const MOST: usize = 50;
/// Longest search.
const LONGEST_SEARCH: usize = 80;

#[derive(Template)]
#[template(path = "shelf.html")]
struct ShelfPage {
    shell: Shell,
    parts: Vec<PartLine>,
    words: String,
    kinds: Vec<Choice>,
    /// How many there are of what is looked for.
    count: i64,
    /// Whether the shelf has nothing at all.
    is_bare: bool,
    next: Option<String>,
    hidden: Hidden,
    /// A part just taken off, to be put back.
    withdrawn: Option<i64>,
    /// Nothing is being tried from here.
    what_if: &'static str,
}

/// A part in a list.
pub(super) struct PartLine {
    id: i64,
    number: String,
    name: String,
    kind: &'static str,
    does: String,
    /// What it does to a vehicle that all parts are told by, and in words; none of what carries nothing.
    effect: Option<(Drawing, String)>,
    price: String,
    stock: String,
}

impl PartLine {
    fn new(on_the_shelf: &OnTheShelf, units: Units) -> Self {
        let part: &ShelfPart = &on_the_shelf.part.0;
        PartLine {
            id: on_the_shelf.id.0,
            number: part.number.clone(),
            name: part.name.clone(),
            kind: kind_name(part.kind),
            does: part_words(part, units),
            effect: drawn_effect(on_the_shelf.id, part, units),
            price: part.price.as_ref().map(money_words).unwrap_or_default(),
            stock: stock_words(part),
        }
    }
}

/// A line each, worked out off the threads that answer.
pub(super) async fn lines(parts: Vec<OnTheShelf>, units: Units) -> Result<Vec<PartLine>, WebError> {
    run(move |gone| {
        let line = |part: &OnTheShelf| gone.check().map(|()| PartLine::new(part, units));
        parts.iter().map(line).collect()
    })
    .await
}

/// What a part does, drawn and in words.
pub(super) fn drawn_effect(id: ShelfPartId, part: &ShelfPart, units: Units) -> Option<(Drawing, String)> {
    let effect = effect(part)?;
    let found = if part.found.is_empty() { "" } else { ", as we found it" };
    let words = format!("{}{found}", effect_words(&effect, units));
    Some((effect_drawing(id.0, &effect, &words), words))
}

/// What is looked for, as an address says it.
#[derive(Debug, Default, Deserialize)]
pub(crate) struct Asked {
    #[serde(default)]
    words: String,
    #[serde(default)]
    kind: String,
    after: Option<String>,
    withdrawn: Option<i64>,
    /// What is being tried on a job, as the address of its page asks for it: a part picked goes along with that.
    #[serde(default)]
    what_if: String,
}

impl Asked {
    fn search(&self) -> Search {
        let words: String = clean(&self.words).chars().take(LONGEST_SEARCH).collect();
        let kinds = if self.kind.is_empty() { Vec::new() } else { vec![clean(&self.kind)] };
        Search { words, kinds, after: self.after.as_deref().map(clean) }
    }
}

/// One page of what is looked for, where the next one begins, and how many there are in all.
type Found = (Vec<OnTheShelf>, Option<String>, i64);

async fn look(database: &Data<Database>, worker: &Worker, search: Search) -> Result<Found, WebError> {
    let shop = worker.shop_id();
    let most = i64::try_from(MOST + 1).unwrap_or(i64::MAX);
    let found = database.read(move |connection| {
        let parts = shelf::page(connection, shop, &search, most)?;
        let count = shelf::count(connection, shop, &Search { after: None, ..search })?;
        Ok::<_, StoreError>((parts, count))
    });
    let (mut parts, count) = found.await?;
    let more = parts.len() > MOST;
    parts.truncate(MOST);
    let next = parts.last().filter(|_| more).map(|last| last.part.0.number.clone());
    Ok((parts, next, count))
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, asked: Query<Asked>) -> Result<HttpResponse, WebError> {
    let search = asked.search();
    let anything = !search.words.is_empty() || !search.kinds.is_empty() || search.after.is_some();
    let (parts, next, count) = look(&database, &worker, search.clone()).await?;
    let units = worker.units();
    let mut sheet = Sheet::blank(units);
    sheet.set("kind", asked.kind.clone());
    let next = next.map(|after| {
        let pairs = [("words", search.words.as_str()), ("kind", asked.kind.as_str()), ("after", after.as_str())];
        format!("{SHELF}?{}", Serializer::new(String::new()).extend_pairs(pairs).finish())
    });
    let page = ShelfPage {
        shell: Shell::new(&worker, "Shelf", SHELF),
        is_bare: count == 0 && !anything,
        parts: lines(parts, units).await?,
        words: search.words,
        kinds: sheet.choices("kind", [("", "Any kind")].into_iter().chain(bought_kinds())),
        count,
        next,
        hidden: Hidden::new(&sheet, 0),
        withdrawn: asked.withdrawn,
        what_if: "",
    };
    Ok(super::page(StatusCode::OK, &page)?.answer())
}
