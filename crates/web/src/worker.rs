//! Who is working: taken from the session of each request, so that no handler can forget to ask.

use std::future::{Ready, ready};

use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest};
use serde::{Deserialize, Serialize};
use wise_badger_store::ShopId;
use wise_badger_store::person::Person;
use wise_badger_store::shop::Shop;

use crate::device_units::DeviceUnits;
use crate::error::WebError;
use crate::log;
use crate::view::Units;

pub(crate) const SHOP: &str = "shop";
pub(crate) const PERSON: &str = "person";
/// Under this name the session store hands over who is working; it is never stored.
pub(crate) const WORKER: &str = "worker";

/// The person whose browser this is, and the shop they work in.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Worker {
    pub(crate) person: Person,
    pub(crate) shop: Shop,
    /// Units of the device they work at, where it has its own.
    #[serde(skip)]
    pub(crate) device_units: Option<DeviceUnits>,
}

impl Worker {
    pub(crate) fn shop_id(&self) -> ShopId {
        self.person.shop_id
    }

    pub(crate) fn units(&self) -> Units {
        let DeviceUnits { length, weight } = self.device_units.unwrap_or_else(|| self.own_units());
        Units { length, weight, currency: self.shop.currency() }
    }

    /// Their own, on any device that has none.
    pub(crate) fn own_units(&self) -> DeviceUnits {
        DeviceUnits { length: self.person.length_unit(), weight: self.person.weight_unit() }
    }

    /// Makes this session theirs.
    pub(crate) fn sign_on(session: &Session, person: &Person) -> Result<(), WebError> {
        let put = |name: &str, id: i64| session.insert(name, id).map_err(|error| WebError::Malformed(error.to_string()));
        session.renew();
        put(SHOP, person.shop_id.0)?;
        put(PERSON, person.id.0)
    }
}

impl FromRequest for Worker {
    type Error = WebError;
    type Future = Ready<Result<Self, WebError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let path = request.uri().path_and_query().map_or("/", |path| path.as_str());
        let wanted = if request.method().is_safe() { path } else { request.uri().path() };
        let working = request.get_session().get::<Worker>(WORKER).ok().flatten();
        if let Some(worker) = &working {
            log::note_person(worker.person.id.0);
        }
        let working = working.map(|worker| Worker { device_units: DeviceUnits::of(request), ..worker });
        ready(working.ok_or_else(|| WebError::NobodyWorking { wanted: wanted.to_owned() }))
    }
}
