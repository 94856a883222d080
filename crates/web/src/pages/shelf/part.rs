//! One part of the shelf: put there, changed, taken off and put back.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::entry::{
    EndWord, LONGEST_NAME, LONGEST_NUMBER, LONGEST_WORDS, MOST_COUNTED, MoneyEntry, ShelfPart, ShelfProblem,
};
use wise_badger_store::shelf;
use wise_badger_store::{Database, PgConnection, ShelfPartId, StoreError, person::Person};

use super::super::{Hidden, Page, Refusal, once, page, see_other};
use super::{SHELF, drawn_effect};
use crate::correction::on_the_shelf::{bought_kinds_form, fill_figures, read_figures};
use crate::drawing::Drawing;
use crate::error::WebError;
use crate::form::{Field, Picks, Posted, Sheet};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::intake::currency_name;
use crate::view::sentence;
use crate::view::shelf::record_words;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "shelf_part.html")]
struct PartPage {
    shell: Shell,
    hidden: Hidden,
    title: String,
    /// Where the form is sent to.
    action: String,
    /// The part that is changed; none of a new one.
    id: Option<i64>,
    /// Whether the part is what it was once, and stands on the shelf no more.
    is_past: bool,
    /// What it does, as it stands on the shelf.
    effect: Option<(Drawing, String)>,
    /// What proofs say of it; empty while they say nothing that counts.
    record: String,
    which: Vec<Field>,
    kinds: Picks,
    end: Picks,
    terms: Vec<Field>,
    removable: Picks,
    words: Vec<Field>,
    wheels: Vec<Field>,
    coil: Vec<Field>,
    refusal: String,
}

/// Texts of a part beside its figures: field, and longest.
const WORDS: [(&str, usize); 8] = [
    ("number", LONGEST_NUMBER),
    ("name", LONGEST_NAME),
    ("supplier", LONGEST_WORDS),
    ("upkeep", LONGEST_WORDS),
    ("in_the_box", LONGEST_WORDS),
    ("not_in_the_box", LONGEST_WORDS),
    ("largest_tire", LONGEST_WORDS),
    ("note", LONGEST_WORDS),
];

pub(crate) async fn new(worker: Worker) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::blank(worker.units());
    drawn(move |_| part_page(&worker, &sheet, None, true, None)).await
}

pub(crate) async fn put(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    saved(database, worker, posted, None).await
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), ShelfPartId(*id));
    let (part, stands) = database.read(move |connection| shelf::find(connection, shop, id)).await?;
    let mut sheet = Sheet::blank(worker.units());
    fill(&mut sheet, &part);
    drawn(move |_| part_page(&worker, &sheet, Some((id, Some(&part))), stands, None)).await
}

pub(crate) async fn change(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    saved(database, worker, posted, Some(ShelfPartId(*id))).await
}

async fn saved(
    database: Data<Database>,
    worker: Worker,
    posted: Posted,
    id: Option<ShelfPartId>,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let Some(part) = read(&mut sheet) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| part_page(&worker, &sheet, id.map(|id| (id, None)), true, Some(&refusal))).await;
    };
    let number = part.number.clone();
    let work = move |connection: &mut PgConnection, person: &Person| match id {
        None => shelf::put(connection, person, &part).map(|_| ()),
        Some(id) => shelf::change(connection, person, id, &part).map(|_| ()),
    };
    match once(&database, &worker, &sheet, work).await {
        Ok(()) => Ok(see_other(SHELF)),
        Err(WebError::Store(StoreError::Taken { .. })) => {
            sheet.refuse("number", format!("Another part of the shelf has the number {number}: a number is one part's."));
            let refusal = Refusal::Fields(1);
            drawn(move |_| part_page(&worker, &sheet, id.map(|id| (id, None)), true, Some(&refusal))).await
        }
        Err(WebError::Store(StoreError::NotFound(_))) => {
            let text = "This part was changed or taken off the shelf after this page was opened, so this was not saved. What you typed is still here: find the part on the shelf as it is now.";
            let refusal = Refusal::Conflict(text.to_owned());
            drawn(move |_| part_page(&worker, &sheet, id.map(|id| (id, None)), false, Some(&refusal))).await
        }
        Err(error) => Err(error),
    }
}

pub(crate) async fn withdraw(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (sheet, id) = (Sheet::posted(posted, worker.units()), ShelfPartId(*id));
    once(&database, &worker, &sheet, move |connection, person| shelf::withdraw(connection, person, id)).await?;
    Ok(see_other(format!("{SHELF}?withdrawn={}", id.0)))
}

pub(crate) async fn restore(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (sheet, id) = (Sheet::posted(posted, worker.units()), ShelfPartId(*id));
    once(&database, &worker, &sheet, move |connection, person| shelf::restore(connection, person, id)).await?;
    Ok(see_other(SHELF))
}

fn fill(sheet: &mut Sheet, part: &ShelfPart) {
    fill_figures(sheet, part);
    let texts = [
        ("number", &part.number),
        ("name", &part.name),
        ("supplier", &part.supplier),
        ("upkeep", &part.upkeep),
        ("in_the_box", &part.in_the_box),
        ("not_in_the_box", &part.not_in_the_box),
        ("largest_tire", &part.largest_tire),
        ("note", &part.note),
    ];
    for (name, text) in texts {
        sheet.set(name, text.clone());
    }
    sheet.set("end", part.end.map_or("", EndWord::word));
    sheet.set("price", part.price.as_ref().map(|price| price.text.clone()).unwrap_or_default());
    sheet.set("hours", part.hours.map(|hours| hours.to_string()).unwrap_or_default());
    sheet.set("in_stock", part.in_stock.map(|count| count.to_string()).unwrap_or_default());
    sheet.set("lead_days", part.lead_days.map(|days| days.to_string()).unwrap_or_default());
    sheet.set("removable", part.removable.map_or("", |removable| if removable { "yes" } else { "no" }));
    let lengths = [
        ("wheel_width", &part.wheel_width),
        ("wheel_offset", &part.wheel_offset),
        ("coil_inside", &part.coil_inside),
        ("coil_height", &part.coil_height),
    ];
    for (name, typed) in lengths {
        if let Some(typed) = typed {
            sheet.set_typed(name, typed);
        }
    }
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
fn read(sheet: &mut Sheet) -> Option<ShelfPart> {
    for (name, most) in WORDS {
        if sheet.text(name).chars().count() > most {
            sheet.refuse(name, format!("Keep it under {most} characters."));
        }
    }
    for (name, what) in [("number", "the number it is ordered by"), ("name", "what it is called")] {
        if !sheet.is_filled(name) {
            sheet.refuse(name, format!("Type {what}."));
        }
    }
    let figures = read_figures(sheet);
    let text = |sheet: &Sheet, name: &str| sheet.text(name).to_owned();
    let price = read_price(sheet);
    let (in_stock, lead_days) = (read_count(sheet, "in_stock"), read_count(sheet, "lead_days"));
    let hours = if sheet.is_filled("hours") { sheet.number("hours") } else { None };
    let optional = |sheet: &mut Sheet, name: &str| if sheet.is_filled(name) { sheet.signed_length(name) } else { None };
    let (wheel_width, wheel_offset) = (optional(sheet, "wheel_width"), optional(sheet, "wheel_offset"));
    let (coil_inside, coil_height) = (optional(sheet, "coil_inside"), optional(sheet, "coil_height"));
    let figures = figures?;
    let part = ShelfPart {
        end: EndWord::from_word(sheet.text("end")),
        sold: figures.sold,
        found: figures.found,
        price,
        hours,
        in_stock,
        supplier: text(sheet, "supplier"),
        lead_days,
        upkeep: text(sheet, "upkeep"),
        removable: match sheet.text("removable") {
            "yes" => Some(true),
            "no" => Some(false),
            _ => None,
        },
        in_the_box: text(sheet, "in_the_box"),
        not_in_the_box: text(sheet, "not_in_the_box"),
        largest_tire: text(sheet, "largest_tire"),
        wheel_width,
        wheel_offset,
        coil_inside,
        coil_height,
        note: text(sheet, "note"),
        ..ShelfPart::new(text(sheet, "number"), text(sheet, "name"), figures.kind)
    };
    if sheet.is_sound()
        && let Some((at, problem)) = part.problem()
    {
        let field = if at.contains('.') { "kind" } else { at.as_str() };
        sheet.refuse(field, problem_words(&problem));
    }
    sheet.is_sound().then_some(part)
}

fn problem_words(problem: &ShelfProblem) -> String {
    format!("{}.", sentence(&problem.to_string()))
}

fn read_price(sheet: &mut Sheet) -> Option<MoneyEntry> {
    if !sheet.is_filled("price") {
        return None;
    }
    let (text, currency) = (sheet.text("price").to_owned(), sheet.units().currency);
    let price = MoneyEntry::read(&text, currency);
    if price.is_none() {
        sheet.refuse("price", format!("“{text}” is no sum of money; type one like 1,250 or 1,250.50."));
    }
    price
}

fn read_count(sheet: &mut Sheet, name: &str) -> Option<u32> {
    if !sheet.is_filled(name) {
        return None;
    }
    let count = sheet.text(name).parse::<u32>().ok().filter(|count| *count <= MOST_COUNTED);
    if count.is_none() {
        sheet.refuse(name, format!("Type a whole number from 0 to {MOST_COUNTED}."));
    }
    count
}

fn part_page(
    worker: &Worker,
    sheet: &Sheet,
    of: Option<(ShelfPartId, Option<&ShelfPart>)>,
    stands: bool,
    refusal: Option<&Refusal>,
) -> Result<Page, WebError> {
    let id = of.map(|(id, _)| id);
    let action = id.map_or_else(|| format!("{SHELF}/new"), |id| format!("{SHELF}/parts/{}", id.0));
    let title = if id.is_some() { sheet.text("name").to_owned() } else { "New part".to_owned() };
    let template = PartPage {
        shell: Shell::new(worker, title.clone(), action.clone()),
        hidden: Hidden::new(sheet, 0),
        title,
        action,
        id: id.map(|id| id.0),
        is_past: !stands,
        record: of.and_then(|(_, part)| record_words(part?, worker.units())).unwrap_or_default(),
        effect: of.and_then(|(id, part)| drawn_effect(id, part?, worker.units())),
        which: vec![
            sheet.text_field("number", "Number").hint("that it is ordered by"),
            sheet.text_field("name", "Name").hint("what the shop calls it"),
        ],
        kinds: bought_kinds_form(sheet),
        end: sheet.picks("end", "Made for", [("", "either end"), ("rear", "the rear"), ("front", "the front")]).or_first(),
        terms: vec![
            sheet.number_field("price", "Price", currency_name(sheet.units().currency)).hint("all that is in the box together"),
            sheet.number_field("hours", "To fit", "h").hint("one person, nothing rusted"),
            sheet.number_field("in_stock", "In stock", ""),
            sheet.number_field("lead_days", "To order", "days"),
            sheet.text_field("supplier", "Ordered from"),
        ],
        removable: sheet.picks("removable", "Comes off again without harm", [("yes", "yes"), ("no", "no")]),
        words: vec![
            sheet.text_field("upkeep", "Upkeep").hint("like: air checked every week; empty where it wants none"),
            sheet.text_field("in_the_box", "In the box").lines(2),
            sheet
                .text_field("not_in_the_box", "Not in the box")
                .lines(2)
                .hint("what else it takes: U-bolts, a center bolt, a drill"),
            sheet.text_field("note", "Note").lines(2),
        ],
        wheels: vec![
            sheet.text_field("largest_tire", "Largest tire").hint("like 265/70R17"),
            sheet.length_field("wheel_width", "on a wheel so wide"),
            sheet.length_field("wheel_offset", "of this offset").hint("a minus for outward"),
        ],
        coil: vec![
            sheet.length_field("coil_inside", "Least inside diameter of the coil").hint("of a bag that stands in one"),
            sheet.length_field("coil_height", "Least height of the coil"),
        ],
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
