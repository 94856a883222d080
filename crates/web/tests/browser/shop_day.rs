//! Two people in two browsers, and the yard, the bays and the help by keyboard.

use std::time::Duration;

use thirtyfour::prelude::*;

use crate::browser::Browser;
use crate::site::Site;
use crate::workbench::at;

/// A second browser at the same site, signed in.
async fn second(address: &str, name: &str) -> Browser {
    let browser = Browser::open(1280, 800).await;
    browser.goto(&format!("{address}/sign-in")).await.unwrap();
    let button = browser.page.find(By::XPath(format!("//button[contains(@class, 'person')][contains(., '{name}')]")));
    button.await.unwrap().click().await.unwrap();
    browser
}

/// What is seen of the parts that a selector finds, once it contains a text.
async fn seen(page: &WebDriver, css: &str, text: &str) -> bool {
    for _ in 0..100 {
        for part in page.find_all(By::Css(css)).await.unwrap() {
            // It may just be put in anew.
            if part.is_displayed().await.unwrap_or(false) && part.text().await.unwrap_or_default().contains(text) {
                return true;
            }
        }
        tokio::time::sleep(Duration::from_millis(100)).await;
    }
    false
}

#[tokio::test]
async fn two_people_see_what_the_other_does_without_a_reload() {
    at(Site::empty(), "two_people", async |bench| {
        bench.sign_on("Ada").await?;
        let bo = second(&bench.site.address, "Bo").await;
        bo.goto(&format!("{}/", bench.site.address)).await?;
        bench.open_half_ton().await?;
        assert!(seen(&bo.page, ".job-line", "Half-ton by hand").await, "the yard follows");
        // Both open the same page; whoever did not save is told, and keeps what was typed.
        bench.goto("/jobs/1/intake").await?;
        bo.goto(&format!("{}/jobs/1/intake", bench.site.address)).await?;
        let words = bo.page.find(By::Css("[name='complaint_words']")).await?;
        words.send_keys("Typed by Bo").await?;
        bench.type_in("complaint_words", "Typed by Ada").await?;
        bench.send().await?;
        assert!(seen(&bo.page, ".somebody-saved", "Somebody saved this job").await);
        assert_eq!(words.prop("value").await?.unwrap_or_default(), "Typed by Bo", "nothing under his hands is touched");
        bo.page.find(By::Css(".send button")).await?.click().await?;
        assert!(seen(&bo.page, ".refusal, .on-file, main", "Ada saved this job").await, "and is asked what counts");
        bo.close().await;
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn the_yard_is_worked_by_keys_and_help_lies_over_the_page() {
    at(Site::demo(), "keys", async |bench| {
        bench.sign_on("Bram").await?;
        bench.find("body").await?.send_keys("j").await?;
        let first = bench.page.active_element().await?;
        assert!(first.attr("class").await?.unwrap_or_default().contains("job-line"));
        first.send_keys("j").await?;
        assert_ne!(bench.page.active_element().await?.attr("href").await?, first.attr("href").await?);
        bench.page.active_element().await?.send_keys("?").await?;
        bench.wait_for("dialog .help h1", "Yard").await?;
        assert!(bench.text("dialog .help").await?.contains("find a job"));
        bench.find("dialog").await?.send_keys(Key::Escape + "").await?;
        bench.find("body").await?.send_keys("/").await?;
        assert_eq!(bench.focused().await?, "q");
        bench.page.active_element().await?.send_keys("larkfield?" + Key::Enter).await?;
        bench.wait_for(".empty", "No job is found").await?;
        bench.type_in("q", "larkfield").await?;
        bench.page.active_element().await?.send_keys(Key::Enter + "").await?;
        bench.wait_for("h1", "Found").await?;
        bench.find("body").await?.send_keys("b").await?;
        bench.wait_for_path("/bays").await
    })
    .await;
}

#[tokio::test]
async fn a_booking_is_moved_by_arrow_keys_and_by_dragging() {
    at(Site::empty(), "bays", async |bench| {
        bench.sign_on("Ada").await?;
        for name in ["Bay 1", "Bay 2"] {
            bench.goto("/bays").await?;
            bench.type_in("bay", name).await?;
            bench.press("//button[contains(., 'Put it down')]").await?;
            bench.wait_for(".bays", name).await?;
        }
        bench.open_half_ton().await?;
        bench.goto("/bays/book?job=1").await?;
        bench.press("//ul[contains(@class, 'slots')]//button").await?;
        let said = async || bench.find("svg.bay-week a").await?.attr("aria-label").await.map(Option::unwrap_or_default);
        let begun = said().await?;
        assert!(begun.starts_with("Bay 1: "), "{begun}");
        bench.page.execute("document.querySelector('svg.bay-week a').focus()", vec![]).await?;
        bench.page.active_element().await?.send_keys(Key::Down + "").await?;
        for _ in 0..50 {
            if said().await.unwrap_or_default().starts_with("Bay 2: ") {
                break;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        assert!(said().await?.starts_with("Bay 2: "), "{}", said().await?);
        let block = bench.find("svg.bay-week a rect").await?;
        let chain = bench.page.action_chain().move_to_element_center(&block).click_and_hold();
        chain.move_by_offset(0, -60).release().perform().await?;
        for _ in 0..50 {
            if said().await.unwrap_or_default().starts_with("Bay 1: ") {
                break;
            }
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        assert!(said().await?.starts_with("Bay 1: "), "{}", said().await?);
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn on_a_phone_the_yard_the_bays_and_signing_in_fit() {
    at(Site::demo(), "shop_phone", async |bench| {
        bench.sign_on("Halvard").await?;
        bench.browser.resize(390, 844).await;
        for path in
            ["/", "/bays", "/bays/book?job=11", "/ledger", "/people", "/me", "/jobs/11", "/jobs/new", "/help?at=/", "/sign-in"]
        {
            bench.goto(path).await?;
            let wide = bench.page.execute("return document.documentElement.scrollWidth", vec![]).await?;
            assert!(wide.json().as_f64().unwrap_or(9e9) <= 390.0, "{path} is {} wide", wide.json());
        }
        bench.goto("/bays?week=2026-01-05").await?;
        assert!(
            bench.find(".bay-list").await?.is_displayed().await?
                || bench.page.find_all(By::Css(".bay-list li")).await?.is_empty()
        );
        Ok(())
    })
    .await;
}
