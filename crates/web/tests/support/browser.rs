//! A headless browser on a driver of its own.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use thirtyfour::prelude::*;

/// Longest that anything on a page may take to appear.
pub(crate) const PATIENCE: Duration = Duration::from_secs(10);

/// Looks again and again until something holds. A page that is just being replaced is looked at once more.
pub(crate) async fn until(what: &str, holds: impl AsyncFn() -> WebDriverResult<bool>) -> WebDriverResult<()> {
    let deadline = Instant::now() + PATIENCE;
    while !holds().await.unwrap_or(false) {
        assert!(Instant::now() < deadline, "waited in vain until {what}");
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    Ok(())
}

/// A browser with its driver process, which ends with it.
pub(crate) struct Browser {
    pub(crate) page: WebDriver,
    driver: Child,
    _profile: tempfile::TempDir,
}

impl Browser {
    /// Opens a window whose page is `width` by `height`.
    pub(crate) async fn open(width: u32, height: u32) -> Browser {
        let (driver, port) = start_driver();
        let profile = tempfile::tempdir().expect("a folder for the browser's profile");
        let mut wanted = DesiredCapabilities::chrome();
        let folder = format!("--user-data-dir={}", profile.path().display());
        for argument in ARGUMENTS.into_iter().chain([folder.as_str()]) {
            wanted.add_arg(argument).expect("an argument the driver takes");
        }
        let page = WebDriver::new(format!("http://127.0.0.1:{port}"), wanted).await.expect("a browser session");
        let browser = Browser { page, driver, _profile: profile };
        browser.resize(width, height).await;
        browser
    }

    /// Goes to an address.
    pub(crate) async fn goto(&self, address: &str) -> WebDriverResult<()> {
        self.page.goto(address).await?;
        self.until_whole().await
    }

    /// Waits until the page is there with its styles and scripts: on a busy machine the driver comes back while it is still
    /// read, laid out without what is missing.
    pub(crate) async fn until_whole(&self) -> WebDriverResult<()> {
        let state = "return document.readyState === 'complete'";
        until("the page is whole", async || self.page.execute(state, vec![]).await?.convert()).await
    }

    /// Makes the page `width` by `height`, whatever the window's own frame takes.
    pub(crate) async fn resize(&self, width: u32, height: u32) {
        let size = serde_json::json!({"width": width, "height": height, "deviceScaleFactor": 1, "mobile": false});
        self.tell("Emulation.setDeviceMetricsOverride", size).await;
    }

    /// Gives the browser a command of its debugging protocol.
    pub(crate) async fn tell(&self, command: &str, parameters: serde_json::Value) {
        self.page.cdp().send_raw(command, parameters).await.expect("a command the browser knows");
    }

    /// Ends the session, then the driver.
    pub(crate) async fn close(mut self) {
        let _ = self.page.clone().quit().await;
        let _ = self.driver.kill();
        let _ = self.driver.wait();
    }
}

const ARGUMENTS: [&str; 17] = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--hide-scrollbars",
    "--force-device-scale-factor=1",
    "--window-size=1280,943",
    "--no-first-run",
    "--no-default-browser-check",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-quic",
    "--disable-extensions",
    "--disable-default-apps",
    "--password-store=basic",
    "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost",
];

/// Several drivers that start at once now and then pick one port, and one of them ends: it is started again.
fn start_driver() -> (Child, u16) {
    const ATTEMPTS: usize = 5;
    (0..ATTEMPTS).find_map(|_| try_driver()).expect("a driver says its port")
}

fn try_driver() -> Option<(Child, u16)> {
    let mut driver = Command::new("chromedriver")
        .arg("--port=0")
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .expect("chromedriver; ./check installs it");
    let lines = BufReader::new(driver.stdout.take().expect("its output is piped")).lines();
    // It says "… was started successfully on port N."
    let port = lines
        .map_while(Result::ok)
        .find_map(|line| line.trim_end_matches('.').rsplit_once("successfully on port ").and_then(|(_, port)| port.parse().ok()));
    if port.is_none() {
        let _ = driver.wait();
    }
    port.map(|port| (driver, port))
}
