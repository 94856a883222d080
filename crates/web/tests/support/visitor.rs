//! Somebody with a browser that runs no script: reads pages, fills forms, sends them.

use reqwest::{Client, StatusCode};
use scraper::{ElementRef, Html, Selector};

/// A visitor with cookies of their own.
pub(crate) struct Visitor {
    address: String,
    client: Client,
}

/// A page as it came.
pub(crate) struct Page {
    pub(crate) status: StatusCode,
    /// Where it came from in the end.
    pub(crate) path: String,
    pub(crate) html: Html,
}

/// A form of a page, as it stands, to be filled and sent.
#[derive(Clone)]
pub(crate) struct Form {
    action: String,
    fields: Vec<(String, String)>,
}

fn selector(css: &str) -> Selector {
    Selector::parse(css).expect("a selector")
}

/// Text as a reader sees it: one space where there are several or one that does not break.
fn plain(text: impl Iterator<Item = impl AsRef<str>>) -> String {
    let joined: String = text.map(|part| part.as_ref().to_owned()).collect::<Vec<_>>().join(" ");
    joined.split_whitespace().collect::<Vec<_>>().join(" ")
}

impl Visitor {
    pub(crate) fn new(address: &str) -> Visitor {
        let client = Client::builder().cookie_store(true).no_proxy().build().expect("a client");
        Visitor { address: address.to_owned(), client }
    }

    /// A visitor who has said who is working.
    pub(crate) async fn working(address: &str, name: &str) -> Visitor {
        let visitor = Visitor::new(address);
        let picker = visitor.get("/sign-in").await;
        let button = picker
            .html
            .select(&selector(".person"))
            .find(|button| plain(button.text()).starts_with(name))
            .unwrap_or_else(|| panic!("{name} is not on the picker"));
        let person = button.value().attr("value").expect("a key").to_owned();
        let yard = visitor.post("/sign-in/demo", &[("person".to_owned(), person), ("next".to_owned(), "/".to_owned())]).await;
        assert_eq!((yard.status, yard.path.as_str()), (StatusCode::OK, "/"));
        visitor
    }

    pub(crate) fn client(&self) -> &Client {
        &self.client
    }

    pub(crate) fn url(&self, path: &str) -> String {
        format!("{}{path}", self.address)
    }

    pub(crate) async fn get(&self, path: &str) -> Page {
        Page::read(self.client.get(self.url(path)).send().await.expect("an answer")).await
    }

    pub(crate) async fn post(&self, path: &str, fields: &[(String, String)]) -> Page {
        Page::read(self.client.post(self.url(path)).form(fields).send().await.expect("an answer")).await
    }

    /// The page's main form.
    pub(crate) async fn form(&self, path: &str) -> Form {
        let page = self.get(path).await;
        // The form that is sent to the page's own address, where there are several.
        let own = format!("form[data-draft][action='{}']", path.split('?').next().unwrap_or(path));
        page.form(if page.attributes(&own, "action").is_empty() { "form[data-draft]" } else { &own })
    }

    /// Fills the page's main form and sends it.
    pub(crate) async fn fill(&self, path: &str, values: &[(&str, &str)]) -> Page {
        self.send(&self.form(path).await.with(values)).await
    }

    pub(crate) async fn send(&self, form: &Form) -> Page {
        self.post(&form.action, &form.fields).await
    }

    /// Sends a form with a photograph in it.
    pub(crate) async fn send_file(&self, path: &str, texts: &[(&str, &str)], file: Vec<u8>) -> Page {
        self.send_file_as("photo", path, texts, file).await
    }

    /// Sends a form with a file in the field of a name.
    pub(crate) async fn send_file_as(&self, field: &'static str, path: &str, texts: &[(&str, &str)], file: Vec<u8>) -> Page {
        let texts = texts.iter().map(|(name, text)| ((*name).to_owned(), (*text).to_owned()));
        let form = texts.fold(reqwest::multipart::Form::new(), |form, (name, text)| form.text(name, text));
        let form = form.part(field, reqwest::multipart::Part::bytes(file).file_name("sent"));
        let answer = self.client.post(format!("{}{path}", self.address)).multipart(form).send().await.expect("an answer");
        Page::read(answer).await
    }

    /// Presses the button of a form that has nothing to fill in.
    pub(crate) async fn press(&self, path: &str, action_end: &str) -> Page {
        let form = self.get(path).await.form(&format!("form[action$='{action_end}']"));
        self.send(&form).await
    }
}

impl Page {
    async fn read(answer: reqwest::Response) -> Page {
        let (status, path) = (answer.status(), answer.url().path().to_owned());
        let html = Html::parse_document(&answer.text().await.expect("a body"));
        Page { status, path, html }
    }

    /// What a reader sees of the parts a selector finds.
    pub(crate) fn texts(&self, css: &str) -> Vec<String> {
        self.html.select(&selector(css)).map(|part| plain(part.text())).collect()
    }

    /// What a reader sees of the first.
    pub(crate) fn text(&self, css: &str) -> String {
        self.texts(css).into_iter().next().unwrap_or_default()
    }

    /// An attribute of the parts a selector finds.
    pub(crate) fn attributes(&self, css: &str, name: &str) -> Vec<String> {
        self.html.select(&selector(css)).filter_map(|part| part.attr(name)).map(str::to_owned).collect()
    }

    /// The figure with a label: its value, its note, and its opened sum.
    pub(crate) fn figure(&self, label: &str) -> (String, String, String) {
        let figures: Vec<ElementRef<'_>> = self.html.select(&selector(".figure")).collect();
        let part = |figure: ElementRef<'_>, css: &str| {
            figure.select(&selector(css)).next().map(|part| plain(part.text())).unwrap_or_default()
        };
        let labels: Vec<String> = figures.iter().map(|figure| part(*figure, ".figure-label")).collect();
        figures
            .into_iter()
            .find(|figure| part(*figure, ".figure-label") == label)
            .map(|figure| (part(figure, ".figure-value"), part(figure, ".figure-note"), part(figure, ".sum")))
            .unwrap_or_else(|| panic!("no figure “{label}” among {labels:?}"))
    }

    /// Every opened sum: what its figure is called, what it says, its formula, and the lines of numbers under it.
    pub(crate) fn sums(&self) -> Vec<(String, String, String, Vec<String>)> {
        let first = |of: ElementRef<'_>, css: &str| of.select(&selector(css)).next().map(|part| plain(part.text()));
        let sum = |of: ElementRef<'_>| {
            let lines = of.select(&selector(".sum li")).map(|line| plain(line.text())).collect();
            let label = first(of, ".figure-label").unwrap_or_default();
            let value = first(of, ".figure-value").or_else(|| first(of, "summary")).unwrap_or_default();
            (label, value, first(of, ".sum-formula").unwrap_or_default(), lines)
        };
        self.html.select(&selector(".figure, .opened")).map(sum).collect()
    }

    /// What stands in a field, and what is said about it.
    pub(crate) fn field(&self, name: &str) -> (String, String) {
        let field = self.html.select(&selector(&format!("[name='{name}']"))).next();
        let field = field.unwrap_or_else(|| panic!("no field {name} on {}", self.path));
        (value_of(field), self.text(&format!("[id='{name}-said']")))
    }

    pub(crate) fn form(&self, css: &str) -> Form {
        let form = self.html.select(&selector(css)).next();
        let form = form.unwrap_or_else(|| panic!("no form {css} on {}: {}", self.path, self.text("main")));
        let controls = selector("input, textarea, select");
        let sent = form.select(&controls).filter(|control| {
            let picks = matches!(control.value().attr("type"), Some("radio" | "checkbox"));
            !picks || control.value().attr("checked").is_some()
        });
        let fields = sent.filter_map(|control| Some((control.value().attr("name")?.to_owned(), value_of(control)))).collect();
        Form { action: form.value().attr("action").expect("an action").to_owned(), fields }
    }
}

fn value_of(control: ElementRef<'_>) -> String {
    if control.value().name() == "select" {
        // The first option is chosen where none is marked.
        let options: Vec<ElementRef<'_>> = control.select(&selector("option")).collect();
        let chosen = options.iter().find(|option| option.value().attr("selected").is_some()).or(options.first());
        return chosen.and_then(|option| option.value().attr("value")).unwrap_or_default().to_owned();
    }
    control.value().attr("value").map_or_else(|| control.text().collect(), str::to_owned)
}

impl Form {
    /// The same with some fields set.
    pub(crate) fn with(mut self, values: &[(&str, &str)]) -> Form {
        for (name, value) in values {
            self.fields.retain(|(other, _)| other != name);
            self.fields.push(((*name).to_owned(), (*value).to_owned()));
        }
        self
    }

    /// Everything that it would send.
    pub(crate) fn fields(&self) -> &[(String, String)] {
        &self.fields
    }

    pub(crate) fn value(&self, name: &str) -> &str {
        self.fields.iter().find(|(other, _)| other == name).map_or("", |(_, value)| value)
    }
}
