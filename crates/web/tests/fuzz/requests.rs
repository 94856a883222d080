//! Requests made hostile: every row of the table, its forms as the pages draw them, and then spoilt.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex};
use std::time::Duration;

use reqwest::{Client, RequestBuilder};
use scraper::{Html, Selector};
use wise_badger_web::{ADDRESSES, Address};

use crate::bombs;
use crate::dice::Dice;
use crate::tally::Knocked;

/// Texts that have broken programs.
const HOSTILE: &[&str] = &[
    "",
    "0",
    "-1",
    "1e308",
    "-1e308",
    "NaN",
    "inf",
    "1/0",
    "9999999999999999999",
    "38 3/4",
    "22",
    "1,000",
    "985 mm",
    "3' 2\"",
    "\0",
    "a\r\nb",
    "a\r\nSet-Cookie: x=1",
    "\u{202e}gnp",
    "\u{1f4a9}",
    "\u{fffe}",
    "½",
    "<script>alert(1)</script>",
    "'; DROP TABLE jobs; --",
    "../../etc/passwd",
    "%00",
    "%",
    "{{7*7}}",
    "yes",
    "none",
    "lift_block",
    "planned",
    "weighed",
    "loaded",
    "found",
    "loose",
    "0 ; 0\n1 ; 1e9\n2 ; 1e300",
    "load_rubber",
    "added_leaf",
    "helper_spring",
    "rearched_pack",
    "level_loaded",
    "clearance",
    "1e-308",
    "5e-324",
];

/// Words of a path's parameters, sound and unsound.
const NUMBERS: &[&str] =
    &["1", "2", "3", "4", "5", "6", "7", "8", "0", "-1", "88", "99", "2147483647", "99999999999", "x", "%00", "1%0a", "%2e%2e"];
const KEYS: &[&str] = &["1", "2", "3", "4", "5", "6", "9", "17", "0", "-1", "9223372036854775807", "x", "%00"];
const WORDS: &[&str] =
    &["svg", "dxf", "a4.pdf", "letter.pdf", "tyre-size", "u-bolt", "coil-rate", "%00", "..", "x", "%f0%9f%92%a9"];
const QUERY: &[&str] = &[
    "show",
    "withdrawn",
    "pack",
    "load",
    "before",
    "of",
    "next",
    "reads",
    "text",
    "length_unit",
    "weight_unit",
    "state",
    "height",
];

/// What a person could have typed into an empty field.
const SOUND: &[&str] = &["20 1/2", "21", "145", "3,900", "1,000", "1/4", "2", "0", "4", "0.31"];

/// A form as a page draws it.
#[derive(Default, Clone)]
struct DrawnForm {
    /// What it would send as it stands.
    fields: Vec<(String, String)>,
    /// What else could be picked or pressed on it.
    more: Vec<(String, String)>,
}

/// The forms that pages draw, by the path they are sent to.
#[derive(Default)]
pub(crate) struct Forms(Mutex<BTreeMap<String, DrawnForm>>);

/// Somebody signed on who means no good.
pub(crate) struct Attacker {
    address: String,
    client: Client,
    /// Without a session, for what would end it.
    nobody: Client,
    dice: Dice,
    forms: Arc<Forms>,
}

/// The pages of a job that draw forms.
const PAGES: [&str; 11] =
    ["", "/intake", "/load", "/tape", "/look-over", "/verdict", "/aim", "/options", "/bench", "/proof", "/drive"];

impl Attacker {
    pub(crate) async fn sign_on(address: &str, person: u64, dice: Dice, forms: Arc<Forms>) -> Self {
        let client = || Client::builder().no_proxy().redirect(reqwest::redirect::Policy::none()).timeout(Duration::from_secs(30));
        let attacker = Attacker {
            address: address.to_owned(),
            client: client().cookie_store(true).build().unwrap(),
            nobody: client().build().unwrap(),
            dice,
            forms,
        };
        let person = person.to_string();
        let signed_on =
            attacker.client.post(format!("{address}/sign-in/demo")).form(&[("person", person.as_str())]).send().await.unwrap();
        assert_eq!(signed_on.status().as_u16(), 303);
        attacker
    }

    /// Reads the forms of every page of the demo shop.
    pub(crate) async fn harvest_all(&self) {
        for job in 1..=7 {
            for page in PAGES {
                self.harvest(&format!("/jobs/{job}{page}")).await;
            }
        }
        for page in ["/jobs/new", "/sign-in", "/"] {
            self.harvest(page).await;
        }
    }

    /// Those of the jobs' pages that do not open.
    pub(crate) async fn open_all(&self) -> Vec<String> {
        let mut closed = Vec::new();
        let pages = (1..=7).flat_map(|job| PAGES.map(|page| format!("/jobs/{job}{page}"))).chain(["/".to_owned()]);
        for path in pages {
            let (status, said) = match self.client.get(format!("{}{path}", self.address)).send().await {
                Ok(answer) => (answer.status().as_u16(), answer.text().await.unwrap_or_default()),
                Err(_) => (0, String::new()),
            };
            // A rear that was put on coils has no bench, and says so.
            let no_bench = status == 409 && path.ends_with("/bench") && said.contains("rests on no leaf springs");
            if status != 200 && !no_bench {
                closed.push(format!("{status} {path}"));
            }
        }
        closed
    }

    async fn harvest(&self, path: &str) {
        let answer = self.client.get(format!("{}{path}", self.address)).send().await.unwrap();
        let html = Html::parse_document(&answer.text().await.unwrap_or_default());
        let (form, control) =
            (Selector::parse("form[action]").unwrap(), Selector::parse("input, textarea, select, button[name]").unwrap());
        let option = Selector::parse("option").unwrap();
        let mut forms = self.forms.0.lock().unwrap();
        for form in html.select(&form) {
            let mut drawn = DrawnForm::default();
            for control in form.select(&control) {
                let Some(name) = control.attr("name") else { continue };
                let first = control.select(&option).next().and_then(|option| option.attr("value"));
                let value = control.attr("value").or(first).map_or_else(|| control.text().collect(), str::to_owned);
                let open = matches!(control.attr("type"), Some("radio" | "checkbox")) && control.attr("checked").is_none();
                let pressed = control.value().name() == "button";
                if open || pressed { &mut drawn.more } else { &mut drawn.fields }.push((name.to_owned(), value));
            }
            forms.insert(form.attr("action").unwrap().to_owned(), drawn);
        }
    }

    /// Sends one hostile request; what it was, and the answer's status, nought where there was none.
    pub(crate) async fn knock(&mut self) -> (Knocked, u16) {
        let row = *self.dice.pick(ADDRESSES);
        let path = self.path(row);
        // Every second form is of the job as it stands now, so that it is really taken in.
        if row.method == "POST" && row.path.starts_with("/jobs/{") && !path.contains('%') && self.dice.once_in(2) {
            let page: Vec<&str> = path.split('/').take(4).collect();
            let page = page.join("/");
            let drawn_on = [("/finish", "/proof"), ("/reopen", "/proof"), ("/photographs", "/tape")];
            self.harvest(&drawn_on.iter().fold(page, |page, (form, on)| page.replace(form, on))).await;
        }
        let mut told = path.clone();
        let url = format!("{}{path}", self.address);
        // What ends sessions, or what somebody may do, is knocked at by whoever has none: the others would attack nothing any more. So is
        // the stream, which has no end.
        let ends = row.path.starts_with("/sign-") || row.path.starts_with("/people/{person}/");
        let client = if ends || row.path == "/events" { self.nobody.clone() } else { self.client.clone() };
        let request = match row.method {
            "GET" => self.get(&client, &url, &mut told),
            _ if row.path.ends_with("/photographs") || row.path.ends_with("/import") => {
                self.file(&client, row, &path, &url, &mut told)
            }
            _ => self.post(&client, &path, &url, &mut told),
        };
        let request = self.headers(request);
        let status = match request.send().await {
            Ok(answer) => {
                let status = answer.status().as_u16();
                let _ = answer.bytes().await;
                status
            }
            // Some requests cannot be sent at all, which is the client's doing.
            Err(error) if error.is_builder() => 200,
            Err(_) => 0,
        };
        (Knocked { row: format!("{} {}", row.method, row.path), told: told.chars().take(400).collect() }, status)
    }

    fn path(&mut self, row: Address) -> String {
        let mut path = String::new();
        for part in row.path.split('/').skip(1) {
            path.push('/');
            match part {
                "{number}" if !self.dice.once_in(6) => path.push_str(&(1 + self.dice.below(8)).to_string()),
                "{number}" => path.push_str(self.dice.pick::<&str>(NUMBERS)),
                "{sum}" | "{form}" => path.push_str(self.dice.pick::<&str>(WORDS)),
                part if part.starts_with('{') => path.push_str(self.dice.pick::<&str>(KEYS)),
                part => path.push_str(part),
            }
        }
        if path.is_empty() { "/".to_owned() } else { path }
    }

    fn hostile(&mut self) -> String {
        match self.dice.below(40) {
            0 => "9".repeat(400),
            1 => "\u{20000}".repeat(700),
            2 => "a".repeat(70_000),
            _ => (*self.dice.pick(HOSTILE)).to_owned(),
        }
    }

    fn get(&mut self, client: &Client, url: &str, told: &mut String) -> RequestBuilder {
        let pairs: Vec<(String, String)> = (0..self.dice.below(4))
            .map(|_| ((*self.dice.pick(QUERY)).to_owned(), self.hostile().chars().take(2_000).collect()))
            .collect();
        told.push_str(&format!(" ?{pairs:?}"));
        let query = form_urlencoded::Serializer::new(String::new()).extend_pairs(&pairs).finish();
        let url = format!("{url}?{query}");
        if self.dice.once_in(12) { client.head(url) } else { client.get(url) }
    }

    /// A form as its page draws it, spoilt in a few places.
    fn post(&mut self, client: &Client, path: &str, url: &str, told: &mut String) -> RequestBuilder {
        let mut fields = self.spoilt(path);
        self.fresh_token(&mut fields);
        told.push_str(&format!(" {fields:?}"));
        if self.dice.once_in(40) {
            return client.post(url).header("content-type", "application/json").body("{\"a\":[1]}");
        }
        client.post(url).form(&fields)
    }

    /// The form with something picked and some of its empty fields filled, as a person would.
    fn filled(&mut self, drawn: DrawnForm) -> Vec<(String, String)> {
        let mut fields = drawn.fields;
        for _ in 0..self.dice.below(4) {
            if let Some((name, value)) = drawn.more.get(self.dice.below(drawn.more.len())) {
                fields.retain(|(other, _)| other != name);
                fields.push((name.clone(), value.clone()));
            }
        }
        let blank = if self.dice.once_in(2) { 2 } else { 12 };
        for (_, value) in fields.iter_mut().filter(|(_, value)| value.is_empty()) {
            if self.dice.once_in(blank) {
                *value = (*self.dice.pick(SOUND)).to_owned();
            }
        }
        fields
    }

    fn spoilt(&mut self, path: &str) -> Vec<(String, String)> {
        let known = self.forms.0.lock().unwrap().get(path).cloned();
        let mut fields = known.map_or_else(Vec::new, |known| self.filled(known));
        if fields.is_empty() {
            let plain = QUERY.iter().chain(&["kind", "label"]).map(|name| ((*name).to_owned(), "1".to_owned()));
            let revision = (1 + self.dice.below(9)).to_string();
            fields.extend(plain.chain([("token".to_owned(), "x".repeat(24)), ("revision".to_owned(), revision)]));
        }
        let spoilt = if self.dice.once_in(3) { 0 } else { self.dice.below(4) };
        for _ in 0..spoilt {
            let at = self.dice.below(fields.len());
            let text = self.hostile();
            match self.dice.below(6) {
                0 if !fields.is_empty() => drop(fields.remove(at)),
                1 => fields.push((fields.get(at).map_or("x", |(name, _)| name).to_owned(), text)),
                2 => fields.push((text.chars().take(300).collect(), "x".to_owned())),
                _ => {
                    if let Some((_, value)) = fields.get_mut(at) {
                        *value = text;
                    }
                }
            }
        }
        fields
    }

    /// Mostly a token that no form had before, so that the form is really taken in.
    fn fresh_token(&mut self, fields: &mut [(String, String)]) {
        let fresh = format!("fuzz{:020}", self.dice.below(usize::MAX));
        for (name, value) in fields.iter_mut() {
            if name == "token" && value.len() > 10 && !self.dice.once_in(8) {
                value.clone_from(&fresh);
            }
        }
    }

    fn file(&mut self, client: &Client, row: Address, path: &str, url: &str, told: &mut String) -> RequestBuilder {
        let mut fields = self.spoilt(path);
        self.fresh_token(&mut fields);
        let kind = self.dice.below(12);
        told.push_str(&format!(" file {kind} {fields:?}"));
        let bytes = match kind {
            0 => Vec::new(),
            1 => bombs::png_head(12_000, 12_000),
            2 => bombs::png_head(u32::MAX, u32::MAX),
            3 => b"\xff\xd8\xff\xe0\x00\x10JFIF\x00".to_vec(),
            4 => vec![0; 200_000],
            _ => bombs::json(kind).into_bytes(),
        };
        if self.dice.once_in(6) {
            // The form ends before its end is told.
            let body =
                [b"--x\r\nContent-Disposition: form-data; name=\"photo\"; filename=\"a\"\r\n\r\n".to_vec(), bytes].concat();
            return client.post(url).header("content-type", "multipart/form-data; boundary=x").body(body);
        }
        let field = if row.path.ends_with("/import") { "file" } else { "photo" };
        let mut form = reqwest::multipart::Form::new();
        for (name, text) in fields.into_iter().filter(|(name, _)| name != field) {
            form = form.text(name, text);
        }
        for empty in 0..if self.dice.once_in(10) { 60 } else { 0 } {
            form = form.text(format!("n{empty}"), "");
        }
        client.post(url).multipart(form.part(field, reqwest::multipart::Part::bytes(bytes).file_name("sent")))
    }

    fn headers(&mut self, request: RequestBuilder) -> RequestBuilder {
        match self.dice.below(60) {
            0 => request.header("host", "evil.example"),
            1 => request.header("sec-fetch-site", "cross-site"),
            2 => request.header("cookie", "wise_badger=forged"),
            3 => request.header("x-long", "y".repeat(4_000)),
            _ => request,
        }
    }
}
