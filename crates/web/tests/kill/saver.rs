//! A technician who saves a height again and again, and remembers what they were told of each.

use std::collections::BTreeMap;
use std::sync::Arc;
use std::sync::Mutex;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use reqwest::Client;
use scraper::{Html, Selector};

/// What was said of a height that was sent.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Said {
    /// Saved.
    Saved,
    /// Nothing was saved.
    NotSaved,
    /// It is not known; or no answer came.
    NotKnown,
}

/// What every technician was told, and what of it is not so.
#[derive(Default)]
pub(crate) struct Told {
    of_job: Mutex<BTreeMap<usize, Vec<(String, Said)>>>,
    untrue: Mutex<Vec<String>>,
}

impl Told {
    fn note(&self, job: usize, height: &str, said: Said) {
        let mut told = self.of_job.lock().unwrap();
        let told = told.entry(job).or_default();
        // What was sent again counts by what was said last, unless it was said to be saved before.
        match told.iter_mut().find(|(of, _)| of == height) {
            Some((_, before)) if *before == Said::Saved => {}
            // That a second sending saved nothing says nothing of the first.
            Some((_, Said::NotKnown)) if said == Said::NotSaved => {}
            Some((_, before)) => *before = said,
            None => told.push((height.to_owned(), said)),
        }
    }

    fn count(&self, of: Said) -> u64 {
        let told = self.of_job.lock().unwrap();
        told.values().flatten().filter(|(_, said)| *said == of).count().try_into().unwrap()
    }

    pub(crate) fn acknowledged(&self) -> u64 {
        self.count(Said::Saved)
    }

    pub(crate) fn summary(&self) -> String {
        let (saved, not, unknown) = (self.count(Said::Saved), self.count(Said::NotSaved), self.count(Said::NotKnown));
        format!("{saved} saved, {not} told not saved, {unknown} not known")
    }

    pub(crate) fn untrue(&self) -> Vec<String> {
        self.untrue.lock().unwrap().clone()
    }

    /// Looks every height up in the record: what was said to be saved is there once, what was said not to be is not.
    pub(crate) async fn hold_against_the_record(&self, address: &str) -> String {
        let client = sign_on(address, 1).await.expect("the program serves");
        let (mut there, mut lost, mut twice, mut false_alarms) = (0, 0, 0, 0);
        let told = self.of_job.lock().unwrap().clone();
        for (job, heights) in told {
            let record = client.get(format!("{address}/jobs/{job}/record.json")).send().await.unwrap().text().await.unwrap();
            let record: serde_json::Value = serde_json::from_str(&record).unwrap();
            let readings = record["readings"].as_array().unwrap();
            for (height, said) in heights {
                let count = readings.iter().filter(|reading| reading["value_text"] == height.as_str()).count();
                there += usize::from(count == 1);
                let untrue = match (said, count) {
                    (Said::Saved, 0) => {
                        lost += 1;
                        true
                    }
                    (_, 2..) => {
                        twice += 1;
                        true
                    }
                    (Said::NotSaved, 1) => {
                        false_alarms += 1;
                        true
                    }
                    _ => false,
                };
                if untrue {
                    self.untrue.lock().unwrap().push(format!("job {job}, {height}: told {said:?}, {count} times on record"));
                }
            }
        }
        format!("{there} on record, {lost} lost, {twice} twice, {false_alarms} told not saved and there")
    }
}

async fn sign_on(address: &str, person: usize) -> Option<Client> {
    let client = Client::builder().cookie_store(true).no_proxy().timeout(Duration::from_secs(20)).build().unwrap();
    let person = person.to_string();
    let answer = client.post(format!("{address}/sign-in/demo")).form(&[("person", person.as_str())]).send().await.ok()?;
    (answer.status().as_u16() == 200).then_some(client)
}

/// The Tape form of a job as its page draws it.
async fn tape(client: &Client, address: &str, job: usize) -> Option<Vec<(String, String)>> {
    let answer = client.get(format!("{address}/jobs/{job}/tape")).send().await.ok()?;
    if answer.status().as_u16() != 200 || !answer.url().path().ends_with("/tape") {
        return None;
    }
    let html = Html::parse_document(&answer.text().await.ok()?);
    let (form, control) = (Selector::parse("form[data-draft]").unwrap(), Selector::parse("input, select").unwrap());
    let fields = html.select(&form).next()?.select(&control).filter_map(|control| {
        let picks = matches!(control.attr("type"), Some("radio" | "checkbox"));
        let counts = !picks || control.attr("checked").is_some();
        Some((control.attr("name")?.to_owned(), control.attr("value").unwrap_or_default().to_owned())).filter(|_| counts)
    });
    Some(fields.collect())
}

/// Saves one height after another until told to stop; each is sent again, as its page drew it, until it is known what became of it
/// or the page has grown old.
pub(crate) async fn saver(address: String, job: usize, told: Arc<Told>, stop: Arc<AtomicBool>) {
    let mut client = None;
    let mut count = 0_u32;
    while !stop.load(Ordering::Relaxed) {
        if client.is_none() {
            client = sign_on(&address, job).await;
        }
        let Some(working) = &client else {
            tokio::time::sleep(Duration::from_millis(100)).await;
            continue;
        };
        let Some(mut form) = tape(working, &address, job).await else {
            tokio::time::sleep(Duration::from_millis(50)).await;
            continue;
        };
        count += 1;
        let stands = form.iter().find(|(name, _)| name == "empty.rear_left.0").map(|(_, text)| text.clone()).unwrap_or_default();
        // No two savings ever write the same text: a ten-thousandth of an inch more each, round what stands there.
        let height = format!("{:.2}{count:05}", whole(&stands));
        form.iter_mut().filter(|(name, _)| name == "empty.rear_left.0").for_each(|(_, text)| text.clone_from(&height));
        for attempt in 0..4 {
            let said = send(working, &address, job, &form).await;
            told.note(job, &height, said);
            if said == Said::Saved || (said == Said::NotSaved && attempt > 0) {
                break;
            }
            tokio::time::sleep(Duration::from_millis(60)).await;
        }
    }
}

/// A height to a quarter of an inch, whatever follows it.
fn whole(text: &str) -> f64 {
    let plain: f64 = text.split([' ', '/']).next().and_then(|text| text.parse().ok()).unwrap_or(21.0);
    plain.trunc()
}

async fn send(client: &Client, address: &str, job: usize, form: &[(String, String)]) -> Said {
    let Ok(answer) = client.post(format!("{address}/jobs/{job}/tape")).form(form).send().await else { return Said::NotKnown };
    let (status, path) = (answer.status().as_u16(), answer.url().path().to_owned());
    if path.ends_with("/verdict") || (path == "/sign-in" && status == 200) {
        return if path == "/sign-in" { Said::NotKnown } else { Said::Saved };
    }
    let text = answer.text().await.unwrap_or_default();
    if text.contains("Nothing was saved") || text.contains("were not saved") || status == 409 {
        Said::NotSaved
    } else {
        Said::NotKnown
    }
}
