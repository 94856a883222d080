//! One's own page: password, PIN, where one is signed in.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_store::person::{self, Secrets};
use wise_badger_store::{Database, StoreError, session};

use super::join::check_password;
use super::shown_again::{self, ShownAgain, must_be_shown};
use super::{page, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::password;
use crate::rights::{RIGHTS, Right, role_name};
use crate::shell::Shell;
use crate::worker::{Again, Worker};

#[derive(Template)]
#[template(path = "me.html")]
struct MePage {
    shell: Shell,
    role: String,
    /// What they may do, and what not.
    may: Vec<(&'static str, bool)>,
    said: &'static str,
    has_pin: bool,
    on_tablet: bool,
    sessions: i64,
    password_again: ShownAgain,
    pin_again: ShownAgain,
    password_problem: String,
    repeat_problem: String,
    pin_problem: String,
    demo: bool,
}

#[derive(Deserialize)]
pub(crate) struct Done {
    #[serde(default)]
    done: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, done: Query<Done>) -> Result<HttpResponse, WebError> {
    let said = match done.done.as_str() {
        "password" => "Your password is set. Wherever else you were signed in, you are signed out.",
        "pin" => "Your PIN is set.",
        "no-pin" => "You have no PIN any more.",
        _ => "",
    };
    me_page(&database, &worker, &Sheet::blank(worker.units()), StatusCode::OK, said).await
}

async fn me_page(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    status: StatusCode,
    said: &'static str,
) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), worker.person.id);
    let read = database.read(move |connection| {
        Ok::<_, StoreError>((person::secrets(connection, shop, id)?, session::count_of(connection, shop, id)?))
    });
    let (Secrets { pin_hash, .. }, sessions) = read.await?;
    let may = RIGHTS.iter().filter(|(right, ..)| !matches!(right, Right::Open | Right::Look));
    let template = MePage {
        shell: Shell::new(worker, worker.person.name.clone(), "/me"),
        role: role_name(worker.person.role).to_owned(),
        may: may.map(|(right, _, what)| (*what, worker.may(*right))).collect(),
        said,
        has_pin: pin_hash.is_some(),
        on_tablet: worker.tablet.is_some(),
        sessions,
        password_again: ShownAgain::new(worker, "password"),
        pin_again: ShownAgain::new(worker, "pin"),
        password_problem: sheet.problem("password").to_owned(),
        repeat_problem: sheet.problem("repeat").to_owned(),
        pin_problem: sheet.problem("pin").to_owned(),
        demo: worker.shop.demo,
    };
    Ok(page(status, &template)?.answer())
}

/// Takes a new password, after the one that is theirs now.
pub(crate) async fn set_password(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    if worker.shop.demo {
        return Err(WebError::NotNow(
            "In the demo shop everybody signs in with one press; a password would shut the others out.",
        ));
    }
    // What opens a shared tablet is no proof for what opens everything.
    if worker.again == Some(Again::Pin) {
        return Err(WebError::NotNow("A password is set on a device of your own, not on a shared tablet."));
    }
    must_be_shown(&database, &worker, shown_again::sent(&posted)).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    check_password(&mut sheet, &worker.person.name, &worker.shop.name);
    if !sheet.is_sound() {
        return me_page(&database, &worker, &sheet, StatusCode::UNPROCESSABLE_ENTITY, "").await;
    }
    let hash = password::hash(sheet.as_typed("password")).await?;
    let set: Result<(), StoreError> = database
        .write(move |connection| person::set_password(connection, &worker.person, worker.person.id, &hash, Some(&worker.session)))
        .await;
    set?;
    Ok(see_other("/me?done=password"))
}

/// Takes a new PIN, or takes it away where none is typed.
pub(crate) async fn set_pin(database: Data<Database>, worker: Worker, posted: Posted) -> Result<HttpResponse, WebError> {
    must_be_shown(&database, &worker, shown_again::sent(&posted)).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let pin = sheet.text("pin").to_owned();
    if let Some(problem) = password::unfit_pin(&pin).filter(|_| !pin.is_empty()) {
        sheet.refuse("pin", problem);
        return me_page(&database, &worker, &sheet, StatusCode::UNPROCESSABLE_ENTITY, "").await;
    }
    let hash = if pin.is_empty() { None } else { Some(password::hash(&pin).await?) };
    let done = if hash.is_some() { "pin" } else { "no-pin" };
    let set: Result<(), StoreError> =
        database.write(move |connection| person::set_pin(connection, &worker.person, hash.as_deref())).await;
    set?;
    Ok(see_other(format!("/me?done={done}")))
}
