//! Who is working: taken from the session of each request, so that no handler can forget to ask.

use std::future::{Ready, ready};

use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest};
use serde::{Deserialize, Serialize};
use wise_badger_store::person::Person;
use wise_badger_store::shop::Shop;
use wise_badger_store::{ShopId, TabletId};

use crate::device_units::DeviceUnits;
use crate::error::WebError;
use crate::log;
use crate::rights::Right;
use crate::view::Units;

pub(crate) const SHOP: &str = "shop";
pub(crate) const PERSON: &str = "person";
pub(crate) const TABLET: &str = "tablet";
/// Under this name the session store hands over who is working; it is never stored.
pub(crate) const WORKER: &str = "worker";

/// The person whose browser this is, and the shop they work in.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Worker {
    pub(crate) person: Person,
    pub(crate) shop: Shop,
    /// The shared tablet that they are signed in on, where it is one.
    pub(crate) tablet: Option<TabletId>,
    /// What they are asked for again before something dangerous.
    pub(crate) again: Option<Again>,
    /// The hash by which this session is kept.
    pub(crate) session: String,
    /// Units of the device they work at, where it has its own.
    #[serde(skip)]
    pub(crate) device_units: Option<DeviceUnits>,
}

/// What somebody shows once more that they are who they are by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub(crate) enum Again {
    /// Their password.
    Password,
    /// Their PIN, on a shared tablet.
    Pin,
}

impl Worker {
    /// Who is working by a session; `None` where nobody is.
    pub(crate) fn of_session(session: &Session) -> Option<Worker> {
        session.get::<Worker>(WORKER).ok().flatten()
    }

    pub(crate) fn shop_id(&self) -> ShopId {
        self.person.shop_id
    }

    /// Whether their role has a right.
    pub(crate) fn may(&self, right: Right) -> bool {
        right.is_of(self.person.role)
    }

    pub(crate) fn units(&self) -> Units {
        let DeviceUnits { length, weight } = self.device_units.unwrap_or_else(|| self.own_units());
        Units { length, weight, currency: self.shop.currency() }
    }

    /// Their own, on any device that has none.
    pub(crate) fn own_units(&self) -> DeviceUnits {
        DeviceUnits { length: self.person.length_unit(), weight: self.person.weight_unit() }
    }

    /// Makes this session theirs, under a key that it did not have before.
    pub(crate) fn sign_in(session: &Session, person: &Person, tablet: Option<TabletId>) -> Result<(), WebError> {
        let put = |name: &str, id: i64| session.insert(name, id).map_err(|error| WebError::Malformed(error.to_string()));
        session.clear();
        session.renew();
        put(SHOP, person.shop_id.0)?;
        tablet.map_or(Ok(()), |tablet| put(TABLET, tablet.0))?;
        put(PERSON, person.id.0)
    }
}

impl FromRequest for Worker {
    type Error = WebError;
    type Future = Ready<Result<Self, WebError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let working = Worker::of_session(&request.get_session());
        if let Some(worker) = &working {
            log::note_person(worker.person.id.0);
        }
        let working = working.map(|worker| Worker { device_units: DeviceUnits::of(request), ..worker });
        ready(working.ok_or_else(|| WebError::nobody_working(request)))
    }
}
