//! A vehicle over all its visits.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_store::job_list::{self, Which};
use wise_badger_store::vehicle::{self, Vehicle};
use wise_badger_store::{Database, StoreError, VehicleId};

use super::page;
use super::yard::{RULES, with_stands};
use crate::drawing::Drawing;
use crate::drawing::visits::{VisitHeights, visits_drawing};
use crate::error::WebError;
use crate::shell::Shell;
use crate::view::visit::VisitLine;
use crate::worker::Worker;

const MOST_VISITS: i64 = 60;

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

pub(crate) async fn show(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), VehicleId(*id));
    let read = database.read(move |connection| {
        let vehicle = vehicle::find(connection, shop, id)?;
        let visits = job_list::newest(connection, shop, &Which::OfVehicle(id), &RULES, MOST_VISITS, None)?;
        Ok::<_, StoreError>((vehicle, visits))
    });
    let (vehicle, visits) = read.await?;
    let units = worker.units();
    let known = with_stands(&database, visits).await?;
    let known: Vec<_> = known.into_iter().map(|known| (known.job, known.stands.map(|stands| stands.visit))).collect();
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
