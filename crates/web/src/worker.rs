//! Who is working: taken from the session of each request, so that no handler can forget to ask.

use std::future::Future;
use std::pin::Pin;

use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, web};
use wise_badger_store::person::{self, Person};
use wise_badger_store::{Database, PersonId, ShopId, StoreError};

use crate::error::WebError;
use crate::view::Units;

pub(crate) const SHOP: &str = "shop";
pub(crate) const PERSON: &str = "person";

/// The person whose browser this is, and the shop they work in.
#[derive(Debug, Clone)]
pub(crate) struct Worker {
    pub(crate) person: Person,
    pub(crate) shop: String,
}

impl Worker {
    pub(crate) fn shop_id(&self) -> ShopId {
        self.person.shop_id
    }

    pub(crate) fn units(&self) -> Units {
        Units { length: self.person.length_unit(), weight: self.person.weight_unit() }
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
    type Future = Pin<Box<dyn Future<Output = Result<Self, WebError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let session = request.get_session();
        let database = request.app_data::<web::Data<Database>>().cloned();
        let path = request.uri().path_and_query().map_or("/", |path| path.as_str());
        let wanted = if request.method().is_safe() { path } else { request.uri().path() }.to_owned();
        Box::pin(async move {
            let id = |name: &str| session.get::<i64>(name).ok().flatten();
            let (Some(shop), Some(who), Some(database)) = (id(SHOP), id(PERSON), database) else {
                return Err(WebError::NobodyWorking { wanted });
            };
            let working = database.read(move |connection| person::working(connection, ShopId(shop), PersonId(who))).await;
            match working {
                Ok((person, shop)) => Ok(Worker { person, shop }),
                // The shop's data was started afresh under an old session.
                Err(StoreError::NotFound(_)) => Err(WebError::NobodyWorking { wanted }),
                Err(error) => Err(error.into()),
            }
        })
    }
}
