//! A part of the shelf on the form of a correction.

use actix_web::web::Data;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_store::{Database, ShelfPartId, shelf};

use crate::correction::on_the_shelf::{fill_from_the_shelf, fill_setting};
use crate::error::WebError;
use crate::form::{Sheet, clean};
use crate::view::shelf::shelf_words;
use crate::worker::Worker;

/// The hidden field of its key, and where its words stand.
const KEY: &str = "shelf";
const WORDS: &str = "shelf_words";

/// A part of the shelf as the form shows it.
pub(crate) struct Picked {
    pub(crate) key: String,
    pub(crate) words: String,
    pub(crate) problem: String,
}

impl Picked {
    /// The one that a form began with, or was sent with.
    pub(crate) fn of(sheet: &Sheet) -> Option<Self> {
        let text = |name: &str| sheet.text(name).to_owned();
        sheet.is_filled(KEY).then(|| Picked { key: text(KEY), words: text(WORDS), problem: sheet.problem(KEY).to_owned() })
    }
}

/// Takes its words off a form that is not shown by itself.
pub(crate) fn forget_words(sheet: &mut Sheet) {
    sheet.set(WORDS, "");
}

/// Begins a form with a part, set as its box says or otherwise.
pub(crate) async fn begin_with(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &mut Sheet,
    id: i64,
    set: Option<&str>,
) -> Result<(), WebError> {
    sheet.set(KEY, id.to_string());
    let part = find(database, worker, sheet, id).await?;
    fill_from_the_shelf(sheet, &part);
    if let Some(set) = set {
        fill_setting(sheet, &part, &clean(set));
    }
    Ok(())
}

/// The part that a form was sent with.
pub(crate) async fn sent_with(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &mut Sheet,
) -> Result<Option<ShelfPart>, WebError> {
    if !sheet.is_filled(KEY) {
        return Ok(None);
    }
    let id = sheet.text(KEY).parse().map_err(|error| WebError::Malformed(format!("no part of the shelf: {error}")))?;
    find(database, worker, sheet, id).await.map(Some)
}

/// One that was changed or taken off meanwhile is refused: what stands on the form is not what the shelf says any more.
async fn find(database: &Data<Database>, worker: &Worker, sheet: &mut Sheet, id: i64) -> Result<ShelfPart, WebError> {
    let shop = worker.shop_id();
    let (part, stands) = database.read(move |connection| shelf::find(connection, shop, ShelfPartId(id))).await?;
    sheet.set(WORDS, shelf_words(&part));
    if !stands {
        let number = &part.number;
        let text =
            format!("{number} was changed or taken off the shelf meanwhile: pick it again, or put this down without the shelf.");
        sheet.refuse(KEY, text);
    }
    Ok(part)
}
