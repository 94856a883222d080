//! Parts of the shelf that go onto the vehicle of a job.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use form_urlencoded::Serializer;
use wise_badger_casework::route::Stage;
use wise_badger_store::shelf::Search;
use wise_badger_store::{Database, JobNumber};

use super::super::job_file;
use super::{Asked, PartLine, lines, look};
use crate::correction::on_the_shelf::{bought_kinds, kinds_that_fit};
use crate::error::WebError;
use crate::form::{Choice, Sheet, asked_by_address, clean};
use crate::job_route::StageWords as _;
use crate::pages::options::refuse_what_cannot_be_cured;
use crate::pages::what_if::trial::{free_place, part_name};
use crate::shell::Shell;
use crate::view::Units;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "shelf_pick.html")]
struct PickPage {
    shell: Shell,
    number: i32,
    label: String,
    parts: Vec<PartLine>,
    words: String,
    kinds: Vec<Choice>,
    count: i64,
    next: Option<String>,
    /// What is being tried, sent along with the next search.
    what_if: String,
    /// Where it goes back to, what that is called, and what an address there begins with that a part is picked by.
    back: String,
    back_to: &'static str,
    try_it: String,
}

/// Where a part that is picked goes: to the form of an option, or to what is being tried.
struct Way {
    back: String,
    back_to: &'static str,
    try_it: String,
}

impl Way {
    fn new(number: JobNumber, what_if: &str, units: Units) -> Self {
        let options = Stage::Options.path(number);
        if what_if.is_empty() {
            return Way { try_it: format!("{options}?shelf="), back: options, back_to: "Options" };
        }
        let asked = form_urlencoded::parse(what_if.as_bytes()).into_owned().collect();
        let sheet = Sheet::posted(asked_by_address(asked), units);
        let back = format!("/jobs/{}/what-if?{}", number.0, sheet.as_query());
        // With all the parts that it may have, nothing more goes along.
        let try_it = free_place(&sheet).map_or_else(|| back.clone(), |place| format!("{back}&{}shelf=", part_name(place)));
        Way { back, back_to: "What if", try_it }
    }
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Asked>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let fits = kinds_that_fit(&file.work.found().vehicle);
    let search = asked.search();
    let kinds = if search.kinds.is_empty() {
        fits.clone()
    } else {
        search.kinds.into_iter().filter(|kind| fits.contains(kind)).collect()
    };
    let nothing_fits = kinds.is_empty();
    let search = Search { kinds, ..search };
    let (parts, next, count) = match nothing_fits {
        true => (Vec::new(), None, 0),
        false => look(&database, &worker, search.clone()).await?,
    };
    let units = worker.units();
    let mut sheet = Sheet::blank(units);
    sheet.set("kind", asked.kind.clone());
    let here = format!("/jobs/{number}/shelf");
    let next = next.map(|after| {
        let pairs = [
            ("words", search.words.as_str()),
            ("kind", asked.kind.as_str()),
            ("after", after.as_str()),
            ("what_if", asked.what_if.as_str()),
        ];
        format!("{here}?{}", Serializer::new(String::new()).extend_pairs(pairs).finish())
    });
    let offered = bought_kinds().filter(|(word, _)| fits.iter().any(|fit| fit == word));
    let way = Way::new(file.job.number, &clean(&asked.what_if), units);
    let page = PickPage {
        shell: Shell::new(&worker, "From the shelf", here),
        number: *number,
        label: file.case().intake.label.clone(),
        parts: lines(parts, units).await?,
        words: search.words,
        kinds: sheet.choices("kind", [("", "Any kind that fits")].into_iter().chain(offered)),
        count,
        next,
        what_if: clean(&asked.what_if),
        back: way.back,
        back_to: way.back_to,
        try_it: way.try_it,
    };
    Ok(super::super::page(StatusCode::OK, &page)?.answer())
}
