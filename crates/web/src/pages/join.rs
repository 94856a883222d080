//! Coming in by a link: opening a shop, joining one, setting one's password anew. A link is good once.

use actix_session::Session;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use serde::Deserialize;
use wise_badger_casework::entry::Currency;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::invitation::{self, Invitation};
use wise_badger_store::person::{self, Person};
use wise_badger_store::shop::{self, Shop};
use wise_badger_store::shop_change::{self, ShopWhat};
use wise_badger_store::{Database, PgConnection, Role, StoreError};

use super::sign_in::signed_in;
use super::{Page, page};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::keys::{self, BehindTls};
use crate::rights::role_name;
use crate::view::Units;
use crate::{log, password};

/// Nothing on its page is a quantity.
const NO_UNITS: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };

/// Longest name of a shop or a person.
pub(super) const LONGEST_NAME: usize = 60;

#[derive(Template)]
#[template(path = "join.html")]
struct JoinPage {
    key: String,
    /// What the link is for, as its heading.
    title: String,
    lead: String,
    /// Whether a shop is opened, and so named.
    opens: bool,
    /// Whether somebody comes in who is not there yet, and so says their name.
    names: bool,
    shop: String,
    shop_problem: String,
    name: String,
    name_problem: String,
    password_problem: String,
    repeat_problem: String,
    button: &'static str,
}

#[derive(Deserialize)]
pub(crate) struct Link {
    #[serde(default)]
    key: String,
}

/// What a link is for, with the names that its page tells.
struct Invited {
    invitation: Invitation,
    shop: Option<Shop>,
    person: Option<Person>,
}

fn find(connection: &mut PgConnection, key_hash: &str) -> Result<Invited, StoreError> {
    let invitation = invitation::find(connection, key_hash)?;
    let (shop, person) = match &invitation {
        Invitation::OpenShop => (None, None),
        Invitation::Join { shop, .. } => (Some(shop::find(connection, *shop)?), None),
        Invitation::Reset { shop, person } => {
            (Some(shop::find(connection, *shop)?), Some(person::find(connection, *shop, *person)?))
        }
    };
    Ok(Invited { invitation, shop, person })
}

async fn invited(database: &Data<Database>, key: &str) -> Result<Invited, WebError> {
    let hash = keys::hash(key);
    let found = database.read(move |connection| find(connection, &hash)).await;
    found.map_err(|error| match error {
        StoreError::NotFound(_) => {
            log::security("link good for nothing", "");
            WebError::LinkUsed
        }
        error => error.into(),
    })
}

pub(crate) async fn show(database: Data<Database>, link: Query<Link>) -> Result<HttpResponse, WebError> {
    let invited = invited(&database, &link.key).await?;
    let mut sheet = Sheet::blank(NO_UNITS);
    if let Invitation::Join { name, .. } = &invited.invitation {
        sheet.set("name", name.clone());
    }
    Ok(join_page(&link.key, &invited, &sheet, StatusCode::OK)?.answer())
}

fn join_page(key: &str, invited: &Invited, sheet: &Sheet, status: StatusCode) -> Result<Page, WebError> {
    let shop = invited.shop.as_ref().map_or("", |shop| shop.name.as_str());
    let (title, lead, button) = match &invited.invitation {
        Invitation::OpenShop => (
            "Open your shop".to_owned(),
            "You will be its owner: you say who works in it, and what they may do.".to_owned(),
            "Open the shop",
        ),
        Invitation::Join { role, .. } => (
            format!("Join {shop}"),
            format!("You will be there as: {}. What you put down is kept with your name.", role_name(*role)),
            "Join",
        ),
        Invitation::Reset { .. } => (
            "Set your password anew".to_owned(),
            format!(
                "For {} in {shop}. Wherever else you are signed in, you are signed out.",
                invited.person.as_ref().map_or("", |person| person.name.as_str())
            ),
            "Set the password",
        ),
    };
    let opens = invited.invitation == Invitation::OpenShop;
    let template = JoinPage {
        key: key.to_owned(),
        title,
        lead,
        opens,
        names: opens || matches!(invited.invitation, Invitation::Join { .. }),
        shop: sheet.text("shop").to_owned(),
        shop_problem: sheet.problem("shop").to_owned(),
        name: sheet.text("name").to_owned(),
        name_problem: sheet.problem("name").to_owned(),
        password_problem: sheet.problem("password").to_owned(),
        repeat_problem: sheet.problem("repeat").to_owned(),
        button,
    };
    page(status, &template)
}

/// Looks for what is wrong with names and password.
fn check(sheet: &mut Sheet, invited: &Invited) {
    let opens = invited.invitation == Invitation::OpenShop;
    if opens {
        check_name(sheet, "shop");
    }
    if invited.person.is_none() {
        check_name(sheet, "name");
    }
    let name = invited.person.as_ref().map_or_else(|| sheet.text("name").to_owned(), |person| person.name.clone());
    let shop = invited.shop.as_ref().map_or_else(|| sheet.text("shop").to_owned(), |shop| shop.name.clone());
    check_password(sheet, &name, &shop);
}

/// Looks for what is wrong with a name.
pub(super) fn check_name(sheet: &mut Sheet, field: &str) {
    let length = sheet.text(field).chars().count();
    if length == 0 {
        sheet.refuse(field, "Type a name.");
    } else if length > LONGEST_NAME || sheet.text(field).contains(['\n', '\t']) {
        sheet.refuse(field, format!("A name has up to {LONGEST_NAME} characters, on one line."));
    }
}

/// Looks for what is wrong with a new password and its repetition.
pub(super) fn check_password(sheet: &mut Sheet, name: &str, shop: &str) {
    let (typed, repeat) = (sheet.as_typed("password").to_owned(), sheet.as_typed("repeat").to_owned());
    if let Some(problem) = password::unfit(&typed, name, shop) {
        sheet.refuse("password", problem);
    } else if typed != repeat {
        sheet.refuse("repeat", "The two are not the same; type it once more.");
    }
}

/// Does what the link is for, once.
pub(crate) async fn come_in(
    database: Data<Database>,
    tls: Data<BehindTls>,
    session: Session,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let key = posted.text("key").unwrap_or_default().to_owned();
    let invited = invited(&database, &key).await?;
    let mut sheet = Sheet::posted(posted, NO_UNITS);
    check(&mut sheet, &invited);
    if !sheet.is_sound() {
        return Ok(join_page(&key, &invited, &sheet, StatusCode::UNPROCESSABLE_ENTITY)?.answer());
    }
    let hash = password::hash(sheet.as_typed("password")).await?;
    let (key_hash, shop, name) = (keys::hash(&key), sheet.text("shop").to_owned(), sheet.text("name").to_owned());
    let done = database.write(move |connection| use_link(connection, &key_hash, &shop, &name, &hash)).await;
    match done {
        Ok(person) => {
            log::security("came in by a link", "");
            signed_in(&database, &session, &request, *tls.get_ref(), &person, None, "/").await
        }
        Err(StoreError::Taken { .. }) => {
            sheet.refuse("name", "Somebody in the shop is called so already; add something to it.");
            Ok(join_page(&key, &invited, &sheet, StatusCode::UNPROCESSABLE_ENTITY)?.answer())
        }
        Err(StoreError::NotFound("invitation")) => Err(WebError::LinkUsed),
        Err(error) => Err(error.into()),
    }
}

fn use_link(
    connection: &mut PgConnection,
    key_hash: &str,
    shop_name: &str,
    name: &str,
    password_hash: &str,
) -> Result<Person, StoreError> {
    let person = match invitation::use_up(connection, key_hash)? {
        Invitation::OpenShop => {
            let shop = shop::open(connection, shop_name)?;
            let person = person::take_on(connection, shop.id, name, "Owner", Role::Owner)?;
            shop_change::note(connection, &person, ShopWhat::Opened, &shop.name, None, None)?;
            person
        }
        Invitation::Join { shop, role, .. } => {
            let person = person::take_on(connection, shop, name, &crate::view::sentence(role_name(role)), role)?;
            shop_change::note(connection, &person, ShopWhat::Joined, name, None, None)?;
            person
        }
        Invitation::Reset { shop, person } => person::find(connection, shop, person)?,
    };
    person::set_password(connection, &person, person.id, password_hash, None)?;
    Ok(person)
}
