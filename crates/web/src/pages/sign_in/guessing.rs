//! Whether somebody is who they say, and how often that may be tried.
//!
//! Tries are counted by account and by address; on a device on which somebody has signed in before, by that device alone, so that
//! strangers who guess at a name do not keep its owner out. A try counts before it is looked into, and no longer once it was right.

use actix_web::HttpRequest;
use actix_web::web::Data;
use wise_badger_store::person::{self, Person, Secrets};
use wise_badger_store::shop::{self, Shop, Shops};
use wise_badger_store::sign_in::{self, Counted, Try};
use wise_badger_store::tablet::Tablet;
use wise_badger_store::{Database, PersonId, PgConnection, StoreError};

use crate::error::WebError;
use crate::guard::address_of;
use crate::worker::{Again, Worker};
use crate::{keys, log, password};

/// Tries that may fail within a quarter of an hour: on one account, …
const OF_ACCOUNT: i64 = 10;
/// … from one address, behind which a whole shop may sit, …
const OF_ADDRESS: i64 = 100;
/// … and of a PIN, which is short.
const OF_PIN: i64 = 5;

/// What somebody says to be let in.
pub(super) struct Guess {
    pub(super) shop: String,
    pub(super) name: String,
    pub(super) secret: String,
    /// The hash of the key that their device holds.
    pub(super) device: Option<String>,
}

/// What came of it.
pub(super) enum Outcome {
    Right(Box<Person>),
    Wrong,
}

/// A try under way: who it would be, what proves them, and what it is counted under.
struct Begun {
    of: Option<(Person, Secrets)>,
    tried: Try,
    /// Under what it no longer counts once it was right.
    cleared: Vec<String>,
}

fn counted(what: &str, of: &str, most: i64) -> Counted {
    Counted { subject: keys::hash(&format!("{what}\n{of}")), most }
}

pub(super) async fn by_password(database: &Data<Database>, guess: Guess, request: &HttpRequest) -> Result<Outcome, WebError> {
    let (secret, address) = (guess.secret.clone(), address_of(request));
    let begun = database.write(move |connection| begin_by_password(connection, &guess, &address)).await?;
    settle(database, begun, &secret, |secrets| secrets.password_hash).await
}

fn begin_by_password(connection: &mut PgConnection, guess: &Guess, address: &str) -> Result<Option<Begun>, StoreError> {
    let shop: Option<Shop> = match (guess.shop.is_empty(), shop::shops(connection)?) {
        (true, Shops::One(shop)) => Some(shop),
        (true, _) => None,
        (false, _) => shop::find_by_handle(connection, &guess.shop)?,
    };
    let found = shop.as_ref().map(|shop| person::find_by_name(connection, shop.id, &guess.name)).transpose()?.flatten();
    let found = found.filter(Person::is_here);
    let known_on = match (&found, &guess.device) {
        (Some(person), Some(device)) => sign_in::knows_device(connection, person.shop_id, person.id, device)?,
        _ => false,
    };
    let by = match (&found, &guess.device) {
        (Some(person), Some(device)) if known_on => {
            vec![counted("device", &format!("{device} {}", person.id.0), OF_ACCOUNT)]
        }
        _ => {
            // A name that is not there counts as one that is: nobody learns from the count which are.
            let shop = shop.map_or_else(|| format!("? {}", guess.shop.to_lowercase()), |shop| shop.id.0.to_string());
            let account = format!("{shop}\n{}", guess.name.to_lowercase());
            vec![counted("account", &account, OF_ACCOUNT), counted("address", address, OF_ADDRESS)]
        }
    };
    begin(connection, found, by, 1)
}

/// Begins a try; of what it is counted under, the first few are cleared once it was right.
fn begin(
    connection: &mut PgConnection,
    found: Option<Person>,
    by: Vec<Counted>,
    cleared: usize,
) -> Result<Option<Begun>, StoreError> {
    let Some(tried) = sign_in::begin_try(connection, &by)? else { return Ok(None) };
    let secrets = found.as_ref().map(|person| person::secrets(connection, person.shop_id, person.id)).transpose()?;
    let cleared = by.into_iter().take(cleared).map(|one| one.subject).collect();
    Ok(Some(Begun { of: found.zip(secrets), tried, cleared }))
}

pub(super) async fn by_pin(database: &Data<Database>, tablet: &Tablet, person: PersonId, pin: &str) -> Result<Outcome, WebError> {
    let (shop, tablet) = (tablet.shop_id, tablet.id);
    let begun = database.write(move |connection| {
        let found = person::find(connection, shop, person).ok().filter(Person::is_here);
        let by = vec![counted("pin", &format!("{} {}", tablet.0, person.0), OF_PIN)];
        begin(connection, found, by, 1)
    });
    settle(database, begun.await?, pin, |secrets| secrets.pin_hash).await
}

async fn settle(
    database: &Data<Database>,
    begun: Option<Begun>,
    secret: &str,
    hash: impl FnOnce(Secrets) -> Option<String>,
) -> Result<Outcome, WebError> {
    let Some(Begun { of, tried, cleared }) = begun else {
        log::security("too many sign-ins failed", "");
        return Err(WebError::TooOften);
    };
    let (person, secrets) = of.unzip();
    let hash = secrets.and_then(hash);
    let right = password::is_the_one(secret, hash.as_deref()).await?;
    let Some(person) = person.filter(|_| right) else { return Ok(Outcome::Wrong) };
    let settled: Result<(), StoreError> = database.write(move |connection| sign_in::was_good(connection, &tried, &cleared)).await;
    settled?;
    Ok(Outcome::Right(Box::new(person)))
}

/// Whether whoever is working shows once more that they are who they are: by password, or by PIN on a shared tablet.
///
/// # Errors     [`WebError::NotShownAgain`] when it is not theirs, [`WebError::TooOften`]
pub(in crate::pages) async fn tried_again(database: &Data<Database>, worker: &Worker, secret: &str) -> Result<(), WebError> {
    let Some(again) = worker.again else { return Ok(()) };
    let (person, tablet) = (worker.person.clone(), worker.tablet);
    let begun = database.write(move |connection| {
        let by = match (again, tablet) {
            (Again::Pin, Some(tablet)) => counted("pin", &format!("{} {}", tablet.0, person.id.0), OF_PIN),
            _ => counted("again", &person.id.0.to_string(), OF_ACCOUNT),
        };
        begin(connection, Some(person), vec![by], 1)
    });
    let hash = move |secrets: Secrets| match again {
        Again::Password => secrets.password_hash,
        Again::Pin => secrets.pin_hash,
    };
    match settle(database, begun.await?, secret, hash).await? {
        Outcome::Right(_) => Ok(()),
        Outcome::Wrong => {
            log::security("not shown again", "");
            Err(WebError::NotShownAgain)
        }
    }
}
