//! A vehicle over all its visits, and the customer whose it is.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_store::customer::{self, CustomerWords};
use wise_badger_store::job_list::{self, Which};
use wise_badger_store::vehicle::{self, Vehicle};
use wise_badger_store::{CustomerId, Database, StoreError, VehicleId};

use super::shown_again::{self, ShownAgain, must_be_shown};
use super::yard::{RULES, with_stands};
use super::{Hidden, once, page, see_other};
use crate::drawing::Drawing;
use crate::drawing::visits::{VisitHeights, visits_drawing};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::shell::Shell;
use crate::view::visit::VisitLine;
use crate::worker::Worker;

const MOST_VISITS: i64 = 60;
const LONGEST: usize = 80;
const LONGEST_NOTE: usize = 500;

#[derive(Template)]
#[template(path = "vehicle.html")]
struct VehiclePage {
    shell: Shell,
    title: String,
    customer: Option<(i64, String, String)>,
    plate: String,
    visits: Vec<VisitLine>,
    picture: Option<Drawing>,
    next_visit: String,
}

#[derive(Template)]
#[template(path = "customer.html")]
struct CustomerPage {
    shell: Shell,
    id: i64,
    name: String,
    phone: String,
    note: String,
    erased: bool,
    vehicles: Vec<(i64, String, String)>,
    hidden: Hidden,
    shown_again: ShownAgain,
    may_erase: bool,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), VehicleId(*id));
    let read = database.read(move |connection| {
        let vehicle = vehicle::find(connection, shop, id)?;
        let visits = job_list::newest(connection, shop, &Which::OfVehicle(id), &RULES, MOST_VISITS, None)?;
        Ok::<_, StoreError>((vehicle, visits))
    });
    let (vehicle, visits) = read.await?;
    let units = worker.units();
    let known: Vec<_> = with_stands(&database, visits).await?;
    let known: Vec<_> = known.into_iter().map(|(job, stands)| (job, stands.map(|stands| stands.visit))).collect();
    let heights: Vec<VisitHeights> =
        known.iter().rev().filter_map(|(job, visit)| VisitHeights::of(job, visit.as_ref()?)).collect();
    let template = VehiclePage {
        shell: Shell::new(&worker, "Vehicle", format!("/vehicles/{}", id.0)),
        title: title_of(&vehicle),
        customer: vehicle.customer.as_ref().map(|of| (of.id.0, of.name.clone(), of.phone.clone())),
        next_visit: format!("/jobs/new?vehicle={}", id.0),
        plate: vehicle.plate,
        picture: (heights.len() > 1).then(|| visits_drawing(&heights, units)),
        visits: known.iter().map(|(job, visit)| VisitLine::new(job, visit.as_ref(), units)).collect(),
    };
    Ok(page(StatusCode::OK, &template)?.answer())
}

fn title_of(vehicle: &Vehicle) -> String {
    let customer = vehicle.customer.as_ref().map(|of| of.name.clone());
    let words: Vec<String> = [vehicle.plate.clone()].into_iter().filter(|plate| !plate.is_empty()).chain(customer).collect();
    if words.is_empty() { "A vehicle".to_owned() } else { words.join(", ") }
}

pub(crate) async fn customer(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), CustomerId(*id));
    let read = database.read(move |connection| {
        Ok::<_, StoreError>((customer::find(connection, shop, id)?, vehicle::of_customer(connection, shop, id)?))
    });
    let (found, vehicles) = read.await?;
    let template = CustomerPage {
        shell: Shell::new(&worker, "Customer", format!("/customers/{}", id.0)),
        id: id.0,
        name: found.name,
        phone: found.phone,
        note: found.note,
        erased: found.erased_at.is_some(),
        vehicles: vehicles.into_iter().map(|(id, plate, labels)| (id.0, plate, labels)).collect(),
        hidden: Hidden::new(&Sheet::blank(worker.units()), found.revision),
        shown_again: ShownAgain::new(&worker, "erase"),
        may_erase: worker.may(Right::People),
    };
    Ok(page(StatusCode::OK, &template)?.answer())
}

pub(crate) async fn change_customer(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let text = |name: &str, most: usize| sheet.text(name).chars().take(most).collect::<String>();
    let words = CustomerWords { name: text("name", LONGEST), phone: text("phone", LONGEST), note: text("note", LONGEST_NOTE) };
    if words.name.is_empty() {
        return Err(WebError::Refused("Nothing was saved: a customer is called something.".to_owned()));
    }
    let (seen, of) = (sheet.revision()?, CustomerId(*id));
    once(&database, &worker, &sheet, move |connection, person| customer::change(connection, person, of, seen, &words)).await?;
    Ok(see_other(format!("/customers/{id}")))
}

/// Erases what is written of a customer; what was measured of their vehicles stays.
pub(crate) async fn erase_customer(
    database: Data<Database>,
    worker: Worker,
    id: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    must_be_shown(&database, &worker, shown_again::sent(&posted)).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let of = CustomerId(*id);
    once(&database, &worker, &sheet, move |connection, person| customer::erase(connection, person, of)).await?;
    Ok(see_other(format!("/customers/{id}")))
}
