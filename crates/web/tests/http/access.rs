//! Who gets in, what is turned away, and what every answer carries.

use reqwest::StatusCode;

use crate::{INTAKE, Site, Visitor, open_half_ton, shop};

#[tokio::test]
async fn nobody_sees_a_page_before_signing_in() {
    let site = Site::demo();
    let visitor = Visitor::new(&site.address);
    for path in ["/", "/jobs/new", "/jobs/1", "/jobs/1/tape", "/understood?reads=length&text=1&length_unit=in&weight_unit=lb"] {
        let page = visitor.get(path).await;
        assert_eq!(page.text("h1"), "Sign in", "{path}");
    }
    let posted = visitor.post("/jobs/new", &[]).await;
    assert_eq!(posted.path, "/sign-in");
    let picker = visitor.get("/jobs/3/tape").await;
    let next = picker.html.select(&scraper::Selector::parse("[name='next']").unwrap()).next().unwrap();
    assert_eq!(next.value().attr("value"), Some("/jobs/3/tape"));
}

#[tokio::test]
async fn every_page_of_the_demo_shop_is_drawn() {
    let site = Site::demo();
    let visitor = Visitor::working(&site.address, "Tuck").await;
    for job in 1..=11 {
        for stage in ["", "/intake", "/load", "/tape", "/look-over", "/verdict", "/aim", "/options", "/bench", "/proof"] {
            let page = visitor.get(&format!("/jobs/{job}{stage}")).await;
            if job == 8 && stage == "/bench" {
                assert_eq!(page.status, StatusCode::CONFLICT, "it rests on coils, and a bench is for leaves");
                continue;
            }
            assert_eq!(page.status, StatusCode::OK, "{job}{stage}");
            match stage {
                "/load" => assert_eq!(page.texts("svg.plan").len(), 2, "{job}{stage}"),
                "/bench" if job == 7 => assert!(page.text("svg.stance-wide desc").starts_with("As found"), "{job}{stage}"),
                "/bench" => assert!(page.text(".empty").starts_with("No pack on the bench yet"), "{job}{stage}"),
                _ => {
                    let begins = if job == 5 { "Coupler: " } else { "Front: " };
                    assert!(page.text("svg.stance-wide desc").starts_with(begins), "{job}{stage}");
                }
            }
            assert!(!page.text("h1").is_empty());
        }
    }
    let stands = visitor.get("/").await.texts(".jobs:not(.calls) .job-stands");
    assert_eq!(stands[0], "Over a rating: weight must come off");
    let finished = visitor.get("/?finished=true").await.texts(".job-stands");
    assert_eq!((finished.len(), finished[0].as_str()), (6, "Finished"));
    assert_eq!(visitor.get("/jobs/3/verdict").await.figure("Rear axle rate, both springs").0, "too weak to say");
}

#[tokio::test]
async fn what_is_not_there_is_said_plainly() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    for path in ["/jobs/99", "/jobs/99/tape", "/jobs/elephant", "/jobs/99999999999999", "/nowhere", "/static/none.css"] {
        let page = ada.get(path).await;
        assert_eq!(page.status, StatusCode::NOT_FOUND, "{path}");
        assert!(page.text("main").contains("There is no such"), "{path}: {}", page.text("main"));
    }
    let choose = ada.post(&format!("{job}/options/77/choose"), &[]).await;
    assert_eq!(choose.status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn oversized_and_malformed_requests_are_turned_away_whole() {
    let (_site, ada) = shop().await;
    let large = ada.form("/jobs/new").await.with(&INTAKE).with(&[("label", &"x".repeat(300_000))]);
    let page = ada.send(&large).await;
    assert_eq!(page.status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(page.text("main").contains("More was sent than a form holds"));
    let no_token = ada.form("/jobs/new").await.with(&INTAKE).with(&[("token", "short")]);
    assert_eq!(ada.send(&no_token).await.status, StatusCode::BAD_REQUEST);
    let json = ada.client().post(ada.url("/jobs/new")).header("content-type", "application/json").body("{}");
    assert_eq!(json.send().await.unwrap().status(), StatusCode::BAD_REQUEST);
    let bytes = ada.client().post(ada.url("/jobs/new")).header("content-type", "application/x-www-form-urlencoded");
    let answer = bytes.body(&b"label=%FF%FE&token=\xff"[..]).send().await.unwrap();
    assert!(answer.status().is_client_error());
    assert_eq!(ada.get("/").await.texts(".job-line").len(), 0, "nothing stored");
}

#[tokio::test]
async fn a_form_sent_from_another_site_is_not_taken() {
    let (_site, ada) = shop().await;
    for (header, value) in [("origin", "http://elsewhere.example"), ("sec-fetch-site", "cross-site")] {
        let answer = ada.client().post(ada.url("/units")).header(header, value).form(&[("length", "mm")]).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::FORBIDDEN, "{header}");
    }
    assert_eq!(ada.get("/jobs/new").await.text(".field-unit"), "in");
}

#[tokio::test]
async fn answers_carry_a_strict_policy_and_pages_are_not_kept() {
    let (_site, ada) = shop().await;
    let page = ada.client().get(ada.url("/")).send().await.unwrap();
    let header = |name: &str| page.headers().get(name).and_then(|value| value.to_str().ok()).unwrap_or_default();
    let policy = header("content-security-policy");
    assert!(policy.contains("script-src 'self'") && !policy.contains("unsafe"), "{policy}");
    assert_eq!((header("x-content-type-options"), header("cache-control")), ("nosniff", "no-store"));
    let html = page.text().await.unwrap();
    assert!(!html.contains(" style=") && !html.contains("<style") && !html.contains(" onclick="));
    let asset = ada.client().get(ada.url("/static/css/theme.css")).send().await.unwrap();
    let tag = asset.headers().get("etag").unwrap().clone();
    let again = ada.client().get(ada.url("/static/css/theme.css")).header("if-none-match", tag).send().await.unwrap();
    assert_eq!(again.status(), StatusCode::NOT_MODIFIED);
}

#[tokio::test]
async fn the_yard_comes_in_pages_with_the_newest_first() {
    let (site, ada) = shop().await;
    let form = ada.form("/jobs/new").await.with(&INTAKE).with(&[("label", "Job 1")]);
    ada.send(&form).await;
    site.tell_database(
        "INSERT INTO jobs (shop_id, number, label, vehicle_class, rear_wheels, wheelbase, front_rating, rear_rating, revised_by, opened_by)
         SELECT shop_id, n, 'Job ' || n, vehicle_class, rear_wheels, wheelbase, front_rating, rear_rating, revised_by, opened_by
           FROM jobs, generate_series(2, 101) n WHERE number = 1",
    );
    let yard = ada.get("/").await;
    let names = yard.texts(".job-name strong");
    assert_eq!((names.len(), names[0].as_str(), names[99].as_str()), (100, "Job 101", "Job 2"));
    let older = yard.attributes(".yard-more a", "href")[0].clone();
    assert_eq!(ada.get(&older).await.texts(".job-name strong"), ["Job 1"]);
}
