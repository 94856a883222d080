//! Signing in and out: by shop, name and password; by PIN on a tablet of the shop; with one press in the demo.

mod guessing;

pub(super) use guessing::tried_again;

use actix_session::Session;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use serde::Deserialize;
use wise_badger_store::person::{self, Person};
use wise_badger_store::shop::{self, Shop, Shops};
use wise_badger_store::tablet::{self, Tablet};
use wise_badger_store::{Database, PersonId, StoreError, sign_in};

use self::guessing::{Guess, Outcome};
use super::{Page, local, page, see_other};
use crate::error::WebError;
use crate::form::Posted;
use crate::keys::{self, BehindTls, DEVICE, TABLET};
use crate::log;
use crate::worker::Worker;

/// Whether the demo shop's people sign in with one press.
#[derive(Debug, Clone, Copy)]
pub(crate) struct OnePress(pub(crate) bool);

/// What every sign-in that fails is told, whatever of it was wrong.
const FAILED: &str = "That is not how anybody here signs in. Check each field and try again, or have an owner give you a link.";

#[derive(Template)]
#[template(path = "sign_in.html")]
struct SignInPage {
    next: String,
    /// Whether the shop must be named: not where there is but one.
    asks_shop: bool,
    shop: String,
    name: String,
    refusal: &'static str,
    /// The demo shop and its people, where one press is enough.
    demo: Option<(String, Vec<Person>)>,
    /// The tablet that this is, and who has a PIN.
    tablet: Option<(String, Vec<Person>)>,
    picked: i64,
    /// Who is signed in; empty when nobody is.
    working: String,
    no_shop: bool,
}

#[derive(Deserialize)]
pub(crate) struct Wanted {
    #[serde(default)]
    next: String,
}

/// What the page is drawn from.
struct Found {
    shops: Shops,
    demo: Option<(Shop, Vec<Person>)>,
    tablet: Option<(Tablet, Vec<Person>)>,
}

async fn find(database: &Data<Database>, request: &HttpRequest, one_press: OnePress) -> Result<Found, WebError> {
    let tablet_key = TABLET.of(request).map(|key| keys::hash(&key));
    let read = database.read(move |connection| {
        let demo = match shop::demo(connection)?.filter(|_| one_press.0) {
            Some(shop) => {
                let people = person::of_shop(connection, shop.id)?;
                Some((shop, people.into_iter().filter(Person::is_here).collect()))
            }
            None => None,
        };
        let tablet = match tablet_key.map(|key| tablet::find(connection, &key)).transpose()?.flatten() {
            Some(tablet) => {
                let people = person::with_pin(connection, tablet.shop_id)?;
                Some((tablet, people))
            }
            None => None,
        };
        Ok::<_, StoreError>(Found { shops: shop::shops(connection)?, demo, tablet })
    });
    Ok(read.await?)
}

pub(crate) async fn show(
    database: Data<Database>,
    one_press: Data<OnePress>,
    worker: Option<Worker>,
    request: HttpRequest,
    wanted: Query<Wanted>,
) -> Result<HttpResponse, WebError> {
    let found = find(&database, &request, *one_press.get_ref()).await?;
    let working = worker.map(|worker| worker.person.name).unwrap_or_default();
    Ok(sign_in_page(found, StatusCode::OK, local(&wanted.next), &Posted::new("", Vec::new(), &[]), "", working)?.answer())
}

fn sign_in_page(
    found: Found,
    status: StatusCode,
    next: &str,
    typed: &Posted,
    refusal: &'static str,
    working: String,
) -> Result<Page, WebError> {
    let text = |name: &str| typed.text(name).unwrap_or_default().to_owned();
    let template = SignInPage {
        next: next.to_owned(),
        asks_shop: found.shops == Shops::Several,
        shop: text("shop"),
        name: text("name"),
        refusal,
        demo: found.demo.map(|(shop, people)| (shop.name, people)),
        tablet: found.tablet.map(|(tablet, people)| (tablet.name, people)),
        picked: text("person").parse().unwrap_or_default(),
        working,
        no_shop: found.shops == Shops::None,
    };
    page(status, &template)
}

/// Signs somebody in by shop, name and password.
pub(crate) async fn by_password(
    database: Data<Database>,
    one_press: Data<OnePress>,
    tls: Data<BehindTls>,
    session: Session,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let text = |name: &str| posted.text(name).unwrap_or_default().trim().to_owned();
    let guess = Guess {
        shop: text("shop"),
        name: text("name"),
        secret: posted.text("password").unwrap_or_default().to_owned(),
        device: DEVICE.of(&request).map(|key| keys::hash(&key)),
    };
    match guessing::by_password(&database, guess, &request).await? {
        Outcome::Right(person) => {
            let next = local(posted.text("next").unwrap_or_default());
            signed_in(&database, &session, &request, *tls.get_ref(), &person, None, next).await
        }
        Outcome::Wrong => refused(&database, *one_press.get_ref(), &request, &posted).await,
    }
}

/// Signs somebody in by their PIN on a tablet of the shop.
pub(crate) async fn by_pin(
    database: Data<Database>,
    one_press: Data<OnePress>,
    tls: Data<BehindTls>,
    session: Session,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let key = TABLET.of(&request).map(|key| keys::hash(&key));
    let found = match key {
        Some(key) => database.read(move |connection| tablet::find(connection, &key)).await?,
        None => None,
    };
    let picked = posted.text("person").and_then(|person| person.parse().ok()).map(PersonId);
    let Some((tablet, picked)) = found.zip(picked) else {
        return refused(&database, *one_press.get_ref(), &request, &posted).await;
    };
    let pin = posted.text("pin").unwrap_or_default().to_owned();
    match guessing::by_pin(&database, &tablet, picked, &pin).await? {
        Outcome::Right(person) => {
            let next = local(posted.text("next").unwrap_or_default());
            signed_in(&database, &session, &request, *tls.get_ref(), &person, Some(&tablet), next).await
        }
        Outcome::Wrong => refused(&database, *one_press.get_ref(), &request, &posted).await,
    }
}

/// Signs somebody of the demo shop in, where the server was started for the demo.
pub(crate) async fn in_the_demo(
    database: Data<Database>,
    one_press: Data<OnePress>,
    session: Session,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    if !one_press.0 {
        return Err(WebError::NotFound("page"));
    }
    let id = posted.text("person").and_then(|person| person.parse().ok());
    let id = PersonId(id.ok_or_else(|| WebError::Malformed("no person".to_owned()))?);
    let found = database.read(move |connection| {
        let shop = shop::demo(connection)?.ok_or(StoreError::NotFound("demo shop"))?;
        person::working(connection, shop.id, id).map(|(person, ..)| person)
    });
    let person = found.await.inspect_err(|_| log::security("sign-in refused", "demo"))?;
    Worker::sign_in(&session, &person, None)?;
    Ok(see_other(local(posted.text("next").unwrap_or_default())))
}

async fn refused(
    database: &Data<Database>,
    one_press: OnePress,
    request: &HttpRequest,
    posted: &Posted,
) -> Result<HttpResponse, WebError> {
    log::security("sign-in refused", "");
    let found = find(database, request, one_press).await?;
    let next = local(posted.text("next").unwrap_or_default());
    Ok(sign_in_page(found, StatusCode::UNPROCESSABLE_ENTITY, next, posted, FAILED, String::new())?.answer())
}

/// Makes the session somebody's, and the device one that they are known on.
pub(super) async fn signed_in(
    database: &Data<Database>,
    session: &Session,
    request: &HttpRequest,
    tls: BehindTls,
    person: &Person,
    tablet: Option<&Tablet>,
    next: &str,
) -> Result<HttpResponse, WebError> {
    Worker::sign_in(session, person, tablet.map(|tablet| tablet.id))?;
    let mut answer = see_other(next);
    if tablet.is_none() {
        let key = DEVICE.of(request).unwrap_or_else(keys::new_key);
        let (of, key_hash) = (person.clone(), keys::hash(&key));
        let kept: Result<(), StoreError> =
            database.write(move |connection| sign_in::know_device(connection, &of, &key_hash)).await;
        kept?;
        keys::lay(&mut answer, &DEVICE.keep(&key, tls))?;
    }
    tracing::info!(target: "wise_badger_web::security", event = "sign-in", person = person.id.0);
    Ok(answer)
}

/// Ends the session, here and in the store.
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    see_other("/sign-in")
}

/// Ends every session of whoever is working, on any device.
pub(crate) async fn sign_out_everywhere(
    database: Data<Database>,
    worker: Worker,
    session: Session,
) -> Result<HttpResponse, WebError> {
    let ended: Result<usize, StoreError> =
        database.write(move |connection| person::end_sessions(connection, &worker.person, None)).await;
    ended?;
    session.purge();
    Ok(see_other("/sign-in"))
}
