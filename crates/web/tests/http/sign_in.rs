//! Opening a shop, joining it, signing in, and what stands in the way of those who guess.

use std::process::Command;

use reqwest::StatusCode;
use wise_badger_store::{Role, person, shop};

use crate::{INTAKE, Page, Site, Visitor};

const GOOD: &str = "kettle on the anvil";
const FAILED: &str = "That is not how anybody here signs in.";

/// The path of a link that opens a shop, as whoever looks after the program is given it.
fn invitation(site: &Site) -> String {
    let program = env!("CARGO_BIN_EXE_wise-badger");
    let said = Command::new(program).args(["invite-shop", "--database-url", &site.database_url()]).output().unwrap();
    let said = String::from_utf8(said.stdout).unwrap();
    format!("/join?key={}", said.trim().rsplit('=').next().unwrap())
}

/// Fills a link's page and sends it.
async fn come_in(visitor: &Visitor, link: &str, values: &[(&str, &str)]) -> Page {
    let form = visitor.get(link).await.form("form[action='/join']");
    visitor.send(&form.with(&[("password", GOOD), ("repeat", GOOD)]).with(values)).await
}

/// Somebody who opened a shop and owns it.
async fn owner(site: &Site, shop: &str, name: &str) -> Visitor {
    let visitor = Visitor::new(&site.address);
    let yard = come_in(&visitor, &invitation(site), &[("shop", shop), ("name", name)]).await;
    assert_eq!((yard.status, yard.path.as_str()), (StatusCode::OK, "/"), "{}", yard.text("main"));
    visitor
}

/// A link that the owner makes, as its path.
async fn link(owner: &Visitor, action: &str, fields: &[(&str, &str)]) -> String {
    let fields: Vec<(String, String)> = fields.iter().map(|(name, text)| ((*name).to_owned(), (*text).to_owned())).collect();
    let page = owner.post(action, &fields).await;
    let link = page.attributes(".link-once input", "value").pop().unwrap_or_else(|| panic!("no link: {}", page.text("main")));
    link.split_once("/join").map(|(_, rest)| format!("/join{rest}")).unwrap()
}

async fn sign_in(visitor: &Visitor, shop: &str, name: &str, password: &str) -> Page {
    let fields = [("shop", shop), ("name", name), ("password", password), ("next", "/sums")];
    visitor.post("/sign-in", &fields.map(|(name, text)| (name.to_owned(), text.to_owned()))).await
}

#[tokio::test]
async fn a_shop_is_opened_by_a_link_and_its_people_join_by_links() {
    let site = Site::bare();
    let nobody = Visitor::new(&site.address);
    assert!(nobody.get("/").await.text("main").contains("No shop is open here yet"));
    let ada = owner(&site, "Corner Springs", "Ada").await;
    assert!(ada.get("/").await.text("main").contains("No jobs here yet"));
    let bo = Visitor::new(&site.address);
    let invited = link(&ada, "/people/invite", &[("name", "Bo"), ("role", "technician")]).await;
    assert!(bo.get(&invited).await.text(".lead").contains("You will be there as: technician"));
    assert_eq!(come_in(&bo, &invited, &[]).await.path, "/");
    assert_eq!(bo.get("/me").await.text("h1"), "Bo");
    assert_eq!(nobody.get(&invited).await.status, StatusCode::NOT_FOUND, "a link is good once");
    let page = ada.get("/people").await;
    assert_eq!(page.texts(".people-table tbody th").len(), 2);
    assert!(page.text("main").contains("signs in by the word corner-springs"));
    let opened = ada.fill("/jobs/new", &INTAKE).await;
    assert_eq!(opened.status, StatusCode::OK);
    assert_eq!(bo.get("/").await.texts(".job-line").len(), 1);
}

#[tokio::test]
async fn any_number_of_shops_share_one_program_and_see_nothing_of_each_other() {
    let site = Site::bare();
    let (ada, cy) = (owner(&site, "Corner Springs", "Ada").await, owner(&site, "Corner Springs", "Cy").await);
    ada.fill("/jobs/new", &INTAKE).await;
    assert_eq!(cy.get("/").await.texts(".job-line").len(), 0);
    assert_eq!(cy.get("/jobs/1").await.status, StatusCode::NOT_FOUND);
    let visitor = Visitor::new(&site.address);
    assert!(!visitor.get("/sign-in").await.attributes("input#shop", "name").is_empty(), "which shop must be said");
    assert!(sign_in(&visitor, "", "Ada", GOOD).await.text("main").contains(FAILED));
    assert!(sign_in(&visitor, "corner-springs-2", "Ada", GOOD).await.text("main").contains(FAILED));
    assert_eq!(sign_in(&visitor, "Corner-Springs", " ada ", GOOD).await.path, "/sums", "and then it leads on");
}

#[tokio::test]
async fn every_sign_in_that_fails_is_told_the_same_and_no_name_is_told() {
    let site = Site::bare();
    let _ada = owner(&site, "Corner Springs", "Ada").await;
    let visitor = Visitor::new(&site.address);
    let page = visitor.get("/sign-in").await;
    assert!(!page.text("body").contains("Ada") && !page.text("body").contains("Corner"), "{}", page.text("body"));
    let mut said = Vec::new();
    for (name, password) in [("Ada", "wrong"), ("Nobody", GOOD), ("Ada", ""), ("", ""), ("Ada", "Kettle on the anvil")] {
        let page = sign_in(&visitor, "", name, password).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        said.push(page.text(".problem"));
    }
    assert!(said.iter().all(|one| *one == said[0] && one.starts_with(FAILED)), "{said:?}");
    assert_eq!(sign_in(&visitor, "", "Ada", GOOD).await.path, "/sums");
}

#[tokio::test]
async fn whoever_guesses_is_stopped_and_whoever_is_known_is_not() {
    let site = Site::bare();
    let ada = owner(&site, "Corner Springs", "Ada").await;
    let guesser = Visitor::new(&site.address);
    let mut told = Vec::new();
    for guess in 0..14 {
        told.push(sign_in(&guesser, "", "Ada", &format!("guess number {guess}")).await.status);
    }
    assert_eq!(told.iter().filter(|status| **status == StatusCode::UNPROCESSABLE_ENTITY).count(), 10, "{told:?}");
    assert_eq!(told.last(), Some(&StatusCode::TOO_MANY_REQUESTS));
    assert_eq!(sign_in(&guesser, "", "Ada", GOOD).await.status, StatusCode::TOO_MANY_REQUESTS, "not even with the right one");
    assert_eq!(ada.post("/sign-out", &[]).await.path, "/sign-in");
    assert_eq!(sign_in(&ada, "", "Ada", GOOD).await.path, "/sums", "her own device lets her in all the same");
}

#[tokio::test]
async fn a_password_is_set_anew_by_a_link_that_signs_out_everywhere_else() {
    let site = Site::bare();
    let ada = owner(&site, "Corner Springs", "Ada").await;
    let bo = Visitor::new(&site.address);
    come_in(&bo, &link(&ada, "/people/invite", &[("name", "Bo"), ("role", "desk")]).await, &[]).await;
    let reset = link(&ada, "/people/2/reset", &[]).await;
    let elsewhere = Visitor::new(&site.address);
    let another = [("password", "three loose u-bolts"), ("repeat", "three loose u-bolts")];
    assert_eq!(come_in(&elsewhere, &reset, &another).await.path, "/");
    assert_eq!(bo.get("/").await.path, "/sign-in", "signed out where he was");
    assert!(sign_in(&bo, "", "Bo", GOOD).await.text("main").contains(FAILED));
    assert_eq!(sign_in(&bo, "", "Bo", "three loose u-bolts").await.path, "/sums");
    let own = [("shown_again", "three loose u-bolts"), ("password", GOOD), ("repeat", GOOD)];
    let own = own.map(|(name, text)| (name.to_owned(), text.to_owned()));
    let wrong = bo.post("/me/password", &own[1..]).await;
    assert_eq!(wrong.status, StatusCode::FORBIDDEN, "the one that is his now comes first");
    assert_eq!(bo.post("/me/password", &own).await.status, StatusCode::OK);
    assert_eq!(elsewhere.get("/").await.path, "/sign-in");
    assert_eq!(bo.get("/").await.path, "/");
    assert_eq!(bo.post("/sign-out/everywhere", &[]).await.path, "/sign-in");
}

#[tokio::test]
async fn a_link_refuses_what_anybody_would_guess_and_keeps_what_was_typed() {
    let site = Site::bare();
    let link = invitation(&site);
    let visitor = Visitor::new(&site.address);
    for (values, problem) in [
        (vec![("shop", ""), ("name", "Ada")], "Type a name."),
        (vec![("shop", "Corner"), ("name", "Ada"), ("password", "short"), ("repeat", "short")], "At least 10 characters"),
        (vec![("shop", "Corner"), ("name", "Ada"), ("password", "password123"), ("repeat", "password123")], "anybody would try"),
        (vec![("shop", "Corner"), ("name", "Ada"), ("repeat", "kettle on the stove")], "not the same"),
    ] {
        let page = come_in(&visitor, &link, &values).await;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.texts(".problem").iter().any(|said| said.contains(problem)), "{problem}: {:?}", page.texts(".problem"));
        assert_eq!(page.field("name").0, "Ada");
        assert!(page.attributes("[type=password]", "value").is_empty(), "a password is never sent back");
    }
    for bad in ["/join", "/join?key=", "/join?key=x", "/join?key=%00"] {
        let page = visitor.get(bad).await;
        assert!(page.status == StatusCode::NOT_FOUND || page.status == StatusCode::BAD_REQUEST, "{bad}");
    }
    assert_eq!(come_in(&visitor, &link, &[("shop", "Corner"), ("name", "Ada")]).await.path, "/");
}

#[tokio::test]
async fn on_a_tablet_of_the_shop_a_pin_is_enough_and_elsewhere_it_is_nothing() {
    let site = Site::bare();
    let ada = owner(&site, "Corner Springs", "Ada").await;
    let set = |again: &str, pin: &str| vec![("shown_again".to_owned(), again.to_owned()), ("pin".to_owned(), pin.to_owned())];
    assert_eq!(ada.post("/me/pin", &set("wrong", "4071")).await.status, StatusCode::FORBIDDEN);
    assert!(ada.post("/me/pin", &set(GOOD, "1234")).await.text("main").contains("first that anybody would try"));
    assert_eq!(ada.post("/me/pin", &set(GOOD, "4071")).await.status, StatusCode::OK);
    let by_pin = |pin: &str| [("person", "1"), ("pin", pin)].map(|(name, text)| (name.to_owned(), text.to_owned()));
    let stranger = Visitor::new(&site.address);
    assert!(!stranger.get("/sign-in").await.text("body").contains("Ada"));
    assert_eq!(stranger.post("/sign-in/pin", &by_pin("4071")).await.status, StatusCode::UNPROCESSABLE_ENTITY);
    ada.post("/people/tablets", &[("tablet".to_owned(), "Bay 1".to_owned())]).await;
    ada.post("/sign-out", &[]).await;
    let page = ada.get("/sign-in").await;
    assert_eq!((page.text("#tablet-head").as_str(), page.texts(".pick")), ("On this tablet: Bay 1", vec!["Ada".to_owned()]));
    assert!(ada.post("/sign-in/pin", &by_pin("4072")).await.text("main").contains(FAILED));
    assert_eq!(ada.post("/sign-in/pin", &by_pin("4071")).await.path, "/");
    let wrong = [("shown_again", GOOD), ("password", "three loose u-bolts"), ("repeat", "three loose u-bolts")];
    let wrong = wrong.map(|(name, text)| (name.to_owned(), text.to_owned()));
    assert_eq!(ada.post("/me/password", &wrong).await.status, StatusCode::CONFLICT, "a PIN opens no way to a password");
    ada.post("/sign-out", &[]).await;
    let mut last = StatusCode::OK;
    for guess in 0..6 {
        last = ada.post("/sign-in/pin", &by_pin(&format!("90{guess}1"))).await.status;
    }
    assert_eq!(last, StatusCode::TOO_MANY_REQUESTS);
    assert_eq!(sign_in(&ada, "", "Ada", GOOD).await.path, "/sums", "the password still does");
    ada.post("/people/tablets/1/revoke", &[]).await;
    ada.post("/sign-out", &[]).await;
    assert!(!ada.get("/sign-in").await.text("body").contains("Ada"), "shut out, it knows nobody");
}

#[tokio::test]
async fn one_press_signs_in_only_in_the_demo_and_only_there() {
    let site = Site::bare();
    let _ada = owner(&site, "Corner Springs", "Ada").await;
    let store = site.open_again();
    let demo = shop::open_demo(&mut store.connection().unwrap(), "Demo").unwrap();
    person::take_on(&mut store.connection().unwrap(), demo.id, "Dee", "Lead", Role::Lead).unwrap();
    let visitor = Visitor::new(&site.address);
    assert!(!visitor.get("/sign-in").await.text("body").contains("Dee"), "a server that serves no demo shows nobody");
    for person in ["1", "2"] {
        let page = visitor.post("/sign-in/demo", &[("person".to_owned(), person.to_owned())]).await;
        assert_eq!(page.status, StatusCode::NOT_FOUND);
    }
    let empty = sign_in(&visitor, "demo", "Dee", "").await;
    assert_eq!(empty.status, StatusCode::UNPROCESSABLE_ENTITY, "whoever has no password signs in with none");
    let served = Site::demo();
    let store = served.open_again();
    let other = shop::open(&mut store.connection().unwrap(), "Another").unwrap();
    let cy = person::take_on(&mut store.connection().unwrap(), other.id, "Cy", "Lead", Role::Owner).unwrap();
    let visitor = Visitor::new(&served.address);
    let page = visitor.post("/sign-in/demo", &[("person".to_owned(), cy.id.0.to_string())]).await;
    assert_eq!(page.status, StatusCode::NOT_FOUND, "nobody of another shop");
}

#[tokio::test]
async fn the_key_of_a_session_is_another_one_after_signing_in() {
    let site = Site::bare();
    let _ada = owner(&site, "Corner Springs", "Ada").await;
    let client = reqwest::Client::builder().no_proxy().redirect(reqwest::redirect::Policy::none()).build().unwrap();
    let send = async |cookie: &str| {
        let form = [("name", "Ada"), ("password", GOOD)];
        let answer = client.post(format!("{}/sign-in", site.address)).header("cookie", cookie).form(&form).send().await.unwrap();
        let cookies: Vec<String> =
            answer.headers().get_all("set-cookie").iter().map(|one| one.to_str().unwrap().to_owned()).collect();
        cookies.into_iter().find(|one| one.starts_with("wise_badger=")).expect("a session")
    };
    let first = send("").await;
    let key = |cookie: &str| cookie.split(';').next().unwrap().to_owned();
    let second = send(&key(&first)).await;
    assert_ne!(key(&first), key(&second));
    for one in [&first, &second] {
        assert!(one.contains("HttpOnly") && one.contains("SameSite=Lax"), "{one}");
    }
    let old = client.get(format!("{}/", site.address)).header("cookie", key(&first)).send().await.unwrap();
    assert_eq!(old.status(), StatusCode::SEE_OTHER, "the key before is worth nothing");
}

#[tokio::test]
async fn who_is_over_a_rating_raises_one_only_by_showing_who_they_are() {
    let site = Site::bare();
    let ada = owner(&site, "Corner Springs", "Ada").await;
    let heavy = [("kerb_rear", "4,600")];
    ada.send(&ada.form("/jobs/new").await.with(&INTAKE).with(&heavy)).await;
    let page = ada.get("/jobs/1/intake").await;
    assert!(page.text("main").contains("Your password, once more"), "over a rating it is asked");
    let raised = page.form("form[action='/jobs/1/intake']").with(&[("rear_rating", "9,000")]);
    let refused = ada.send(&raised).await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert_eq!(refused.field("rear_rating").0, "9,000", "nothing typed is lost");
    let refused = refused.form("form[action='/jobs/1/intake']");
    assert_eq!(ada.send(&refused.clone().with(&[("shown_again", "wrong")])).await.status, StatusCode::CONFLICT);
    assert_eq!(ada.send(&refused.with(&[("shown_again", GOOD)])).await.status, StatusCode::OK);
    assert!(ada.get("/jobs/1/intake").await.field("rear_rating").0.starts_with("9,000"));
}
