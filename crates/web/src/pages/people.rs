//! Who works in the shop, as what, and on which tablets. Everybody sees it; an owner says it.

use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use wise_badger_store::invitation::{self, Invitation};
use wise_badger_store::person::{self, Person};
use wise_badger_store::shop_change::{self, ShopChange, ShopWhat};
use wise_badger_store::tablet::{self, Tablet};
use wise_badger_store::{Database, InvitationId, PersonId, PgConnection, Role, StoreError, TabletId};

use super::join::check_name;
use super::{Names, page, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::keys::{self, BehindTls, TABLET};
use crate::rights::{Right, role_name};
use crate::shell::Shell;
use crate::view::{moment, sentence};
use crate::worker::Worker;

const PEOPLE: &str = "/people";
/// Most changes told on the page.
const MOST_CHANGES: i64 = 40;

#[derive(Template)]
#[template(path = "people.html")]
struct PeoplePage {
    shell: Shell,
    handle: String,
    people: Vec<PersonLine>,
    left: Vec<PersonLine>,
    /// Who is expected, and until when their link is good.
    expected: Vec<(i64, String, String)>,
    tablets: Vec<(i64, String, String)>,
    /// The tablet that this is, where it is one.
    this_tablet: String,
    roles: Vec<(&'static str, String)>,
    changes: Vec<(String, String)>,
    /// A link just made: for whom, and the link. It is shown once.
    link: Option<(String, String)>,
    /// Whether whoever looks may change anything here.
    may_change: bool,
    name: String,
    name_problem: String,
    tablet_problem: String,
}

struct PersonLine {
    id: i64,
    name: String,
    trade: String,
    role: &'static str,
    role_name: String,
    me: bool,
}

/// What the page is drawn from.
struct Read {
    people: Vec<Person>,
    expected: Vec<invitation::Open>,
    tablets: Vec<Tablet>,
    here: Option<Tablet>,
    changes: Vec<ShopChange>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, request: HttpRequest) -> Result<HttpResponse, WebError> {
    people_page(&database, &worker, &request, &Sheet::blank(worker.units()), None).await
}

async fn people_page(
    database: &Data<Database>,
    worker: &Worker,
    request: &HttpRequest,
    sheet: &Sheet,
    link: Option<(String, String)>,
) -> Result<HttpResponse, WebError> {
    let (shop, key) = (worker.shop_id(), TABLET.of(request).map(|key| keys::hash(&key)));
    let read = database.read(move |connection| {
        let here = key.map(|key| tablet::find(connection, &key)).transpose()?.flatten();
        Ok::<_, StoreError>(Read {
            people: person::of_shop(connection, shop)?,
            expected: invitation::open_of_shop(connection, shop)?,
            tablets: tablet::of_shop(connection, shop)?,
            here: here.filter(|tablet| tablet.shop_id == shop),
            changes: shop_change::latest(connection, shop, MOST_CHANGES)?,
        })
    });
    let Read { people, expected, tablets, here, changes } = read.await?;
    let names = Names::of_people(&people);
    let line = |person: &Person| PersonLine {
        id: person.id.0,
        name: person.name.clone(),
        trade: person.trade.clone(),
        role: person.role.word(),
        role_name: sentence(role_name(person.role)),
        me: person.id == worker.person.id,
    };
    let (here_now, left): (Vec<&Person>, Vec<&Person>) = people.iter().partition(|person| person.is_here());
    let expected = expected.into_iter().map(|open| {
        let role = open.role.map_or("", role_name);
        (open.id.0, format!("{}, as {role}", open.name.unwrap_or_default()), moment(open.expires_at))
    });
    let template = PeoplePage {
        shell: Shell::new(worker, "People", PEOPLE),
        handle: worker.shop.handle.clone(),
        people: here_now.into_iter().map(line).collect(),
        left: left.into_iter().map(line).collect(),
        expected: expected.collect(),
        tablets: tablets.into_iter().map(|tablet| (tablet.id.0, tablet.name, moment(tablet.enrolled_at))).collect(),
        this_tablet: here.map(|tablet| tablet.name).unwrap_or_default(),
        roles: Role::WORDS.iter().map(|(role, word)| (*word, sentence(role_name(*role)))).collect(),
        changes: changes.iter().map(|change| (moment(change.at), change_words(change, &names))).collect(),
        link,
        may_change: worker.may(Right::People),
        name: sheet.text("name").to_owned(),
        name_problem: sheet.problem("name").to_owned(),
        tablet_problem: sheet.problem("tablet").to_owned(),
    };
    let status = if sheet.is_sound() { StatusCode::OK } else { StatusCode::UNPROCESSABLE_ENTITY };
    Ok(page(status, &template)?.answer())
}

fn change_words(change: &ShopChange, names: &Names) -> String {
    let of = &change.subject;
    let what = match change.what {
        ShopWhat::Opened => format!("opened {of}"),
        ShopWhat::Invited => format!("invited {of}"),
        ShopWhat::InvitationOff => format!("took back the invitation of {of}"),
        ShopWhat::Joined => "joined".to_owned(),
        ShopWhat::Role => format!("changed what {of} is"),
        ShopWhat::Left => format!("put {of} down as having left"),
        ShopWhat::CameBack => format!("took {of} on again"),
        ShopWhat::Password => format!("set the password of {of}"),
        ShopWhat::Reset => format!("gave {of} a link to set the password anew"),
        ShopWhat::Pin => "set a PIN".to_owned(),
        ShopWhat::PinOff => "gave up the PIN".to_owned(),
        ShopWhat::TabletOn => format!("let the tablet {of} in"),
        ShopWhat::TabletOff => format!("shut the tablet {of} out"),
        ShopWhat::Terms => "changed what the shop charges, or when it works".to_owned(),
        ShopWhat::Weights => "changed what counts when options are ranked".to_owned(),
        ShopWhat::Customer => "changed what is written of a customer".to_owned(),
        ShopWhat::Erased => "erased what was written of a customer".to_owned(),
        ShopWhat::BayOn => format!("put down the bay {of}"),
        ShopWhat::BayOff => format!("took off the bay {of}"),
        ShopWhat::CalendarOn => "made a calendar link".to_owned(),
        ShopWhat::CalendarOff => "took a calendar link back".to_owned(),
    };
    let told = |side: &Option<String>| side.clone().unwrap_or_else(|| "nothing".to_owned());
    let differed: Vec<String> = change
        .differences
        .iter()
        .map(|difference| format!("{}: {} → {}", difference.place, told(&difference.before), told(&difference.after)))
        .collect();
    let by = names.of(change.by);
    if differed.is_empty() { format!("{by} {what}") } else { format!("{by} {what} ({})", differed.join("; ")) }
}

fn role_of(sheet: &Sheet) -> Result<Role, WebError> {
    Role::of(sheet.text("role")).ok_or_else(|| WebError::Malformed("no role".to_owned()))
}

/// Where the program is reached, by the name that the request came to.
pub(super) fn origin_of(request: &HttpRequest, tls: BehindTls) -> String {
    let host = request.headers().get("host").and_then(|host| host.to_str().ok()).unwrap_or_default();
    format!("{}://{host}", if tls.0 { "https" } else { "http" })
}

/// The link of a key.
fn link_of(request: &HttpRequest, tls: BehindTls, key: &str) -> String {
    format!("{}/join?key={key}", origin_of(request, tls))
}

/// Makes an invitation, and shows its link this once.
pub(crate) async fn invite(
    database: Data<Database>,
    worker: Worker,
    tls: Data<BehindTls>,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    check_name(&mut sheet, "name");
    let role = role_of(&sheet)?;
    let name = sheet.text("name").to_owned();
    let shop = worker.shop_id();
    let wanted = name.clone();
    if database.read(move |connection| person::find_by_name(connection, shop, &wanted)).await?.is_some() {
        sheet.refuse("name", "Somebody in the shop is, or was, called so already; add something to it.");
    }
    if !sheet.is_sound() {
        return people_page(&database, &worker, &request, &sheet, None).await;
    }
    let invitation = Invitation::Join { shop, name: name.clone(), role };
    make_link(&database, &worker, *tls.get_ref(), &request, invitation, format!("{name}, as {}", role_name(role))).await
}

/// Makes a link by which somebody sets their password anew, and shows it this once.
pub(crate) async fn reset(
    database: Data<Database>,
    worker: Worker,
    tls: Data<BehindTls>,
    request: HttpRequest,
    person: Path<i64>,
) -> Result<HttpResponse, WebError> {
    let (shop, id) = (worker.shop_id(), PersonId(*person));
    let of = database.read(move |connection| person::find(connection, shop, id)).await?;
    let invitation = Invitation::Reset { shop, person: id };
    make_link(&database, &worker, *tls.get_ref(), &request, invitation, format!("{}, to set the password anew", of.name)).await
}

async fn make_link(
    database: &Data<Database>,
    worker: &Worker,
    tls: BehindTls,
    request: &HttpRequest,
    invitation: Invitation,
    whom: String,
) -> Result<HttpResponse, WebError> {
    let key = keys::new_key();
    let (by, hash) = (worker.person.clone(), keys::hash(&key));
    let made: Result<(), StoreError> =
        database.write(move |connection| invitation::make(connection, Some(&by), &invitation, &hash)).await;
    made?;
    let link = Some((whom, link_of(request, tls, &key)));
    people_page(database, worker, request, &Sheet::blank(worker.units()), link).await
}

/// Does something to the shop's people and shows them again.
async fn change(
    database: &Data<Database>,
    worker: Worker,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<HttpResponse, WebError> {
    let done: Result<(), StoreError> = database.write(move |connection| work(connection, &worker.person)).await;
    done?;
    Ok(see_other(PEOPLE))
}

pub(crate) async fn revoke_invitation(database: Data<Database>, worker: Worker, id: Path<i64>) -> Result<HttpResponse, WebError> {
    change(&database, worker, move |connection, by| invitation::revoke(connection, by, InvitationId(*id))).await
}

pub(crate) async fn set_role(
    database: Data<Database>,
    worker: Worker,
    person: Path<i64>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    let role = role_of(&sheet)?;
    check_name(&mut sheet, "trade");
    let problem = sheet.problem("trade").to_owned();
    if !problem.is_empty() {
        return Err(WebError::Refused(format!("Nothing was saved. What they do there: {problem}")));
    }
    let trade = sheet.text("trade").to_owned();
    change(&database, worker, move |connection, by| person::set_role(connection, by, PersonId(*person), role, &trade)).await
}

pub(crate) async fn leave(database: Data<Database>, worker: Worker, person: Path<i64>) -> Result<HttpResponse, WebError> {
    change(&database, worker, move |connection, by| person::leave(connection, by, PersonId(*person))).await
}

pub(crate) async fn come_back(database: Data<Database>, worker: Worker, person: Path<i64>) -> Result<HttpResponse, WebError> {
    change(&database, worker, move |connection, by| person::come_back(connection, by, PersonId(*person))).await
}

/// Lets the device that this is into the shop as a shared tablet.
pub(crate) async fn enroll_tablet(
    database: Data<Database>,
    worker: Worker,
    tls: Data<BehindTls>,
    request: HttpRequest,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let mut sheet = Sheet::posted(posted, worker.units());
    check_name(&mut sheet, "tablet");
    if !sheet.is_sound() {
        return people_page(&database, &worker, &request, &sheet, None).await;
    }
    let (key, name) = (keys::new_key(), sheet.text("tablet").to_owned());
    let hash = keys::hash(&key);
    let mut answer =
        change(&database, worker, move |connection, by| tablet::enroll(connection, by, &name, &hash).map(|_| ())).await?;
    keys::lay(&mut answer, &TABLET.keep(&key, *tls.get_ref()))?;
    Ok(answer)
}

pub(crate) async fn revoke_tablet(
    database: Data<Database>,
    worker: Worker,
    tls: Data<BehindTls>,
    request: HttpRequest,
    id: Path<i64>,
) -> Result<HttpResponse, WebError> {
    let key = TABLET.of(&request).map(|key| keys::hash(&key));
    let here = match key {
        Some(key) => database.read(move |connection| tablet::find(connection, &key)).await?,
        None => None,
    };
    let is_this = here.is_some_and(|tablet| tablet.id == TabletId(*id));
    let mut answer = change(&database, worker, move |connection, by| tablet::revoke(connection, by, TabletId(*id))).await?;
    if is_this {
        keys::lay(&mut answer, &TABLET.forget(*tls.get_ref()))?;
    }
    Ok(answer)
}
