//! Vehicles over all their visits.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::survey::VehicleClass;
use wise_badger_casework::words::Word;

use crate::customer::{self, Customer, CustomerWords};
use crate::person::Person;
use crate::schema::{jobs, vehicles};
use crate::{CustomerId, JobId, JobNumber, ShopId, StoreError, VehicleId, job_list};

/// A vehicle, with whose it is.
#[derive(Debug, Clone, PartialEq)]
pub struct Vehicle {
    /// Its key.
    pub id: VehicleId,
    /// Its plate, as typed.
    pub plate: String,
    /// Word of its class.
    pub class: String,
    /// Whose it is.
    pub customer: Option<Customer>,
}

/// A visit of a vehicle.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = jobs)]
pub struct Visit {
    /// Its job.
    pub number: JobNumber,
    /// What the shop calls it.
    pub label: String,
    /// When it began.
    pub opened_at: DateTime<Utc>,
    /// When it was finished.
    pub finished_at: Option<DateTime<Utc>>,
    /// The job that it came back from.
    pub comes_back_from: Option<JobId>,
    /// Its key.
    pub id: JobId,
}

/// What is said at the counter of whose vehicle it is.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Whose {
    /// The customer.
    pub customer: String,
    /// Telephone.
    pub phone: String,
    /// The plate.
    pub plate: String,
}

/// A plate by its letters and digits alone, in capitals.
pub fn plate_key(plate: &str) -> String {
    plate.chars().filter(|sign| sign.is_alphanumeric()).flat_map(char::to_uppercase).collect()
}

type Row = (VehicleId, String, String, Option<CustomerId>);

fn with_customer(connection: &mut PgConnection, shop: ShopId, row: Row) -> Result<Vehicle, StoreError> {
    let (id, plate, class, customer) = row;
    let customer = customer.map(|customer| customer::find(connection, shop, customer)).transpose()?;
    Ok(Vehicle { id, plate, class, customer })
}

const COLUMNS: (vehicles::id, vehicles::plate, vehicles::vehicle_class, vehicles::customer_id) =
    (vehicles::id, vehicles::plate, vehicles::vehicle_class, vehicles::customer_id);

/// A vehicle by key.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId, id: VehicleId) -> Result<Vehicle, StoreError> {
    let one = vehicles::table.filter(vehicles::shop_id.eq(shop)).filter(vehicles::id.eq(id)).select(COLUMNS);
    let row = one.first(connection).optional()?.ok_or(StoreError::NotFound("vehicle"))?;
    with_customer(connection, shop, row)
}

/// The vehicle of a plate, however it is spaced.
pub fn find_by_plate(connection: &mut PgConnection, shop: ShopId, plate: &str) -> Result<Option<Vehicle>, StoreError> {
    let key = plate_key(plate);
    if key.is_empty() {
        return Ok(None);
    }
    let one = vehicles::table.filter(vehicles::shop_id.eq(shop)).filter(vehicles::plate_key.eq(key)).select(COLUMNS);
    one.first(connection).optional()?.map(|row| with_customer(connection, shop, row)).transpose()
}

/// The vehicle of a job.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Option<Vehicle>, StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).select(jobs::vehicle_id);
    let id: Option<VehicleId> = one.first(connection).optional()?.ok_or(StoreError::NotFound("job"))?;
    id.map(|id| find(connection, shop, id)).transpose()
}

/// The vehicles of a customer: key, plate, and what the shop called their jobs.
pub fn of_customer(
    connection: &mut PgConnection,
    shop: ShopId,
    id: CustomerId,
) -> Result<Vec<(VehicleId, String, String)>, StoreError> {
    let theirs = vehicles::table.filter(vehicles::shop_id.eq(shop)).filter(vehicles::customer_id.eq(id));
    let theirs: Vec<(VehicleId, String)> = theirs.order(vehicles::id).select((vehicles::id, vehicles::plate)).load(connection)?;
    let ids: Vec<VehicleId> = theirs.iter().map(|(id, _)| *id).collect();
    let of_them = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::vehicle_id.eq_any(ids)).order(jobs::number.desc());
    let labels: Vec<(Option<VehicleId>, String)> = of_them.select((jobs::vehicle_id, jobs::label)).load(connection)?;
    let of = |id: VehicleId| {
        let labels: Vec<&str> = labels.iter().filter(|(of, _)| *of == Some(id)).map(|(_, label)| label.as_str()).collect();
        labels.join("; ")
    };
    Ok(theirs.into_iter().map(|(id, plate)| (id, plate, of(id))).collect())
}

/// The visits of a vehicle, the latest first.
pub fn visits(connection: &mut PgConnection, shop: ShopId, id: VehicleId) -> Result<Vec<Visit>, StoreError> {
    let of_vehicle = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::vehicle_id.eq(id));
    Ok(of_vehicle.order(jobs::number.desc()).limit(200).select(Visit::as_select()).load(connection)?)
}

/// Says whose vehicle a job is about: the one of that plate, where the shop knows it; the one that the job is about already; or a new one.
/// Nothing said, and nothing is known of it.
pub fn tell(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    class: VehicleClass,
    whose: &Whose,
) -> Result<Option<VehicleId>, StoreError> {
    let shop = person.shop_id;
    let known = find_by_plate(connection, shop, &whose.plate)?;
    let of_job = of_job(connection, shop, job)?;
    if *whose == Whose::default() {
        return Ok(of_job.map(|vehicle| vehicle.id));
    }
    let customer = match (whose.customer.is_empty(), &known) {
        (true, Some(known)) => known.customer.as_ref().map(|customer| customer.id),
        (true, None) => of_job.as_ref().and_then(|vehicle| vehicle.customer.as_ref()).map(|customer| customer.id),
        (false, _) => {
            let words = CustomerWords { name: whose.customer.clone(), phone: whose.phone.clone(), note: String::new() };
            let same = customer::find_same(connection, shop, &words)?;
            Some(same.map_or_else(|| customer::put(connection, person, &words), |same| Ok(same.id))?)
        }
    };
    let alone = match &of_job {
        Some(vehicle) => visits(connection, shop, vehicle.id)?.len() == 1,
        None => false,
    };
    let id = match (known, of_job.filter(|_| alone)) {
        (Some(known), _) => known.id,
        // What this job is about, and no other is: it is put right.
        (None, Some(own)) => own.id,
        (None, None) => diesel::insert_into(vehicles::table)
            .values((vehicles::shop_id.eq(shop), vehicles::vehicle_class.eq(class.word()), vehicles::recorded_by.eq(person.id)))
            .returning(vehicles::id)
            .get_result(connection)?,
    };
    let one = vehicles::table.filter(vehicles::shop_id.eq(shop)).filter(vehicles::id.eq(id));
    diesel::update(one)
        .set((
            vehicles::plate.eq(&whose.plate),
            vehicles::plate_key.eq(plate_key(&whose.plate)),
            vehicles::customer_id.eq(customer),
            vehicles::vehicle_class.eq(class.word()),
            vehicles::revision.eq(vehicles::revision + 1),
            vehicles::recorded_by.eq(person.id),
        ))
        .execute(connection)?;
    let of_job = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job));
    diesel::update(of_job).set(jobs::vehicle_id.eq(id)).execute(connection)?;
    // Its other visits are found by whose it is, too.
    let visits = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::vehicle_id.eq(id)).select(jobs::id);
    let visits: Vec<JobId> = visits.load(connection)?;
    job_list::forget(connection, &visits)?;
    Ok(Some(id))
}

/// Says that a job is about what was done on an earlier one of the same shop; or that it is not.
///
/// # Errors     [`StoreError::NotFound`]
pub fn comes_back_from(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    earlier: Option<JobNumber>,
) -> Result<(), StoreError> {
    let earlier: Option<JobId> = match earlier {
        Some(number) => {
            let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::number.eq(number));
            Some(one.filter(jobs::id.ne(job)).select(jobs::id).first(connection).optional()?.ok_or(StoreError::NotFound("job"))?)
        }
        None => None,
    };
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    diesel::update(one).set(jobs::comes_back_from.eq(earlier)).execute(connection)?;
    Ok(())
}

/// The number of the job that one came back from, and of those that came back from it.
pub fn comebacks(
    connection: &mut PgConnection,
    shop: ShopId,
    job: JobId,
) -> Result<(Option<JobNumber>, Vec<JobNumber>), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).select(jobs::comes_back_from);
    let from: Option<JobId> = one.first(connection).optional()?.flatten();
    let from = match from {
        Some(from) => Some(crate::job::number(connection, shop, from)?),
        None => None,
    };
    let back = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::comes_back_from.eq(job)).select(jobs::number);
    Ok((from, back.order(jobs::number).load(connection)?))
}
