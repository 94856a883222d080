//! A browser at a running site, with what a test does to its pages.

use std::path::Path;
use std::time::Duration;

use thirtyfour::prelude::*;

use crate::browser::{self, Browser, PATIENCE};
use crate::half_ton::INTAKE;
use crate::site::Site;

/// The page a test works on.
pub(crate) struct Workbench {
    pub(crate) page: WebDriver,
    pub(crate) browser: Browser,
    pub(crate) site: Site,
}

/// Runs a test at a site, and leaves a picture and the page behind when it fails.
pub(crate) async fn at<F>(site: Site, name: &str, work: F)
where
    F: AsyncFnOnce(&Workbench) -> WebDriverResult<()>,
{
    let browser = Browser::open(1280, 800).await;
    let bench = Workbench { page: browser.page.clone(), browser, site };
    let outcome = futures_util::FutureExt::catch_unwind(std::panic::AssertUnwindSafe(work(&bench))).await;
    if !matches!(outcome, Ok(Ok(()))) {
        let folder = Path::new(env!("CARGO_TARGET_TMPDIR"));
        let _ = bench.page.screenshot(&folder.join(format!("{name}.png"))).await;
        let source = bench.page.source().await.unwrap_or_default();
        let _ = std::fs::write(folder.join(format!("{name}.html")), source);
        eprintln!("{name}: see {}/{name}.png and .html", folder.display());
    }
    bench.browser.close().await;
    match outcome {
        Ok(done) => done.expect("the page did what was asked"),
        Err(panic) => std::panic::resume_unwind(panic),
    }
}

impl Workbench {
    /// Goes to a path of the site.
    pub(crate) async fn goto(&self, path: &str) -> WebDriverResult<()> {
        self.browser.goto(&format!("{}{path}", self.site.address)).await
    }

    /// Asks for the page again.
    pub(crate) async fn reload(&self) -> WebDriverResult<()> {
        self.page.refresh().await?;
        self.browser.until_whole().await
    }

    /// Picks who is working.
    pub(crate) async fn sign_on(&self, name: &str) -> WebDriverResult<()> {
        self.goto("/sign-in").await?;
        let button = self.page.query(By::XPath(format!("//button[contains(@class, 'person')][contains(., '{name}')]")));
        button.first().await?.click().await?;
        self.find(".masthead[data-person]").await.map(drop)
    }

    /// The first element of a selector, once it is there.
    pub(crate) async fn find(&self, css: &str) -> WebDriverResult<WebElement> {
        self.page.query(By::Css(css)).wait(PATIENCE, Duration::from_millis(50)).first().await
    }

    /// Text a reader sees in the first element of a selector.
    pub(crate) async fn text(&self, css: &str) -> WebDriverResult<String> {
        Ok(self.find(css).await?.text().await?.replace('\u{a0}', " "))
    }

    /// Waits until an element says something.
    pub(crate) async fn wait_for(&self, css: &str, words: &str) -> WebDriverResult<()> {
        browser::until(&format!("{css} says “{words}”"), async || {
            for element in self.page.find_all(By::Css(css)).await? {
                if element.text().await?.replace('\u{a0}', " ").contains(words) {
                    return Ok(true);
                }
            }
            Ok(false)
        })
        .await
    }

    /// Waits until the address ends so.
    pub(crate) async fn wait_for_path(&self, end: &str) -> WebDriverResult<()> {
        browser::until(&format!("the address ends in {end}"), async || Ok(self.page.current_url().await?.path().ends_with(end)))
            .await?;
        self.browser.until_whole().await
    }

    /// Waits until something reads otherwise than it did.
    pub(crate) async fn until_differs(
        &self,
        before: &str,
        now: impl AsyncFn() -> WebDriverResult<String>,
    ) -> WebDriverResult<()> {
        browser::until(&format!("{before} has changed"), async || Ok(now().await? != before)).await
    }

    /// Waits until nothing is at a path of the page any more.
    pub(crate) async fn until_gone(&self, path: &str) -> WebDriverResult<()> {
        browser::until(&format!("{path} is gone"), async || Ok(self.page.find_all(By::XPath(path)).await?.is_empty())).await
    }

    /// Opens the folds that something is in, and shows every corner where the walk shows one at a time.
    async fn bring(&self, css: &str) -> WebDriverResult<()> {
        let script = "const part = document.querySelector(arguments[0]);
            for (let fold = part.closest('details:not([open])'); fold; fold = fold.parentElement.closest('details:not([open])')) fold.open = true;
            if (!part.checkVisibility()) part.closest('.one-at-a-time')?.querySelector('.walk-ways button:last-child').click();
            part.scrollIntoView({ block: 'center' });";
        self.page.execute(script, vec![serde_json::json!(css)]).await.map(drop)
    }

    /// Types into a field in place of what stands there.
    pub(crate) async fn type_in(&self, name: &str, text: &str) -> WebDriverResult<()> {
        let css = format!("[name='{name}']");
        let field = self.find(&css).await?;
        self.bring(&css).await?;
        field.clear().await?;
        field.send_keys(text).await
    }

    /// Presses what is at a path of the page, scrolled to where nothing lies over it.
    pub(crate) async fn press(&self, path: &str) -> WebDriverResult<()> {
        let part = self.page.query(By::XPath(path)).wait(PATIENCE, Duration::from_millis(50)).first().await?;
        self.page.execute("arguments[0].scrollIntoView({ block: 'center' })", vec![part.to_json()?]).await?;
        part.click().await
    }

    /// What stands in a field.
    pub(crate) async fn value(&self, name: &str) -> WebDriverResult<String> {
        Ok(self.find(&format!("[name='{name}']")).await?.prop("value").await?.unwrap_or_default())
    }

    /// Picks one of a few.
    pub(crate) async fn pick(&self, id: &str) -> WebDriverResult<()> {
        let css = format!("label[for='{id}']");
        let label = self.find(&css).await?;
        self.bring(&css).await?;
        label.click().await
    }

    /// Presses the button that sends the page's main form.
    pub(crate) async fn send(&self) -> WebDriverResult<()> {
        self.find(".send button").await?.click().await
    }

    /// The name of the element that has the focus.
    pub(crate) async fn focused(&self) -> WebDriverResult<String> {
        let focused = self.page.active_element().await?;
        Ok(focused.attr("name").await?.unwrap_or_default())
    }

    /// Opens the half-ton's job and leaves its Tape page open.
    pub(crate) async fn open_half_ton(&self) -> WebDriverResult<()> {
        self.goto("/jobs/new").await?;
        self.pick("class-half_ton_pickup").await?;
        self.pick("rear_wheels-single").await?;
        for (name, text) in INTAKE {
            if !matches!(name, "class" | "rear_wheels") {
                self.type_in(name, text).await?;
            }
        }
        self.send().await?;
        self.wait_for_path("/tape").await
    }
}
