//! Pages against bare pages on one database, side by side: requests a second of the page over those of the bare one.
//!
//! `ratio NAME-vs-bare R`: the bare page looks as many single rows up by their key as the page makes SELECTs.
//! `ratio NAME-vs-same-selects R`: the bare page makes the page's own SELECTs and shows nothing of them, so that what
//! is left is computing, drawing and the template, of a job worked out for the page before. `scripts/bench` starts the server that this wants.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::time::Duration;

use actix_web::{App, HttpResponse, HttpServer, web};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, JobNumber, PersonId, PgConnection, ShopId, StoreError, job_list, person, reading, session};

#[allow(dead_code, reason = "the tests' alone")]
#[path = "../tests/support/site.rs"]
mod site;

const CONNECTIONS: usize = 16;
const WARM_UP: Duration = Duration::from_secs(1);
const MEASURED: Duration = Duration::from_secs(4);

/// Page, the job it shows, and how many SELECTs it makes: two for the session and who is working, one for a list, six or seven for a
/// job, two for the record of who did what.
const PAGES: [(&str, &str, Option<i32>, usize); 4] = [
    ("yard", "/", None, 3),
    ("job", "/jobs/1", Some(1), 10),
    ("tape", "/jobs/4/tape", Some(4), 10),
    ("options", "/jobs/4/options", Some(4), 8),
];

fn main() {
    let site = site::Site::demo();
    let address = site.address.trim_start_matches("http://").to_owned();
    let cookie = sign_on(&address);
    for (name, path, job, selects) in PAGES {
        let single = bare_server(site.open_again(), move |connection| {
            (0..selects)
                .map(|_| person::find(connection, ShopId(1), PersonId(1)))
                .collect::<Result<Vec<_>, _>>()
                .map(|rows| rows.len())
        });
        let same = bare_server(site.open_again(), move |connection| {
            let _ = session::find(connection, "none", chrono::Utc::now())?;
            let (person, _) = person::working(connection, ShopId(1), PersonId(1))?;
            let Some(number) = job else { return Ok(job_list::newest(connection, person.shop_id, 51, None)?.len()) };
            let file = JobFile::find(connection, person.shop_id, JobNumber(number))?;
            if selects > 8 {
                person::of_shop(connection, person.shop_id)?;
                reading::withdrawn(connection, person.shop_id, file.job.id)?;
            }
            Ok(file.case().readings.len())
        });
        let page_rate = requests_per_second(&address, path, &cookie);
        let single_rate = requests_per_second(&single, "/", "");
        let same_rate = requests_per_second(&same, "/", "");
        println!("{name}: {page_rate:.0} a second; bare {single_rate:.0}, with the same SELECTs {same_rate:.0}");
        println!("ratio {name}-vs-bare {:.2}", page_rate / single_rate);
        println!("ratio {name}-vs-same-selects {:.2}", page_rate / same_rate);
    }
}

fn bare_server(
    store: Database,
    selects: impl Fn(&mut PgConnection) -> Result<usize, StoreError> + Clone + Send + 'static,
) -> String {
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    let address = listener.local_addr().expect("bound").to_string();
    std::thread::spawn(move || {
        let server = HttpServer::new(move || {
            let selects = selects.clone();
            let bare = move |store: web::Data<Database>| {
                let selects = selects.clone();
                async move {
                    HttpResponse::Ok().body(store.read(move |connection| selects(connection)).await.unwrap_or(0).to_string())
                }
            };
            App::new().app_data(web::Data::new(store.clone())).route("/", web::get().to(bare))
        });
        actix_web::rt::System::new().block_on(server.workers(2).listen(listener).expect("it listens").run()).expect("it serves");
    });
    address
}

/// The session cookie of somebody at work.
fn sign_on(address: &str) -> String {
    let body = "person=1&next=/";
    let mut stream = TcpStream::connect(address).expect("a connection");
    write!(
        stream,
        "POST /who HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\nContent-Type: application/x-www-form-urlencoded\r\n\
         Content-Length: {}\r\n\r\n{body}",
        body.len()
    )
    .expect("sent");
    let mut answer = String::new();
    stream.read_to_string(&mut answer).expect("an answer");
    let cookie = answer.lines().find_map(|line| line.strip_prefix("set-cookie: ")).expect("a session");
    cookie.split(';').next().unwrap_or_default().to_owned()
}

fn requests_per_second(address: &str, path: &str, cookie: &str) -> f64 {
    let (done, stop) = (Arc::new(AtomicU64::new(0)), Arc::new(AtomicBool::new(false)));
    let request = format!("GET {path} HTTP/1.1\r\nHost: {address}\r\nCookie: {cookie}\r\n\r\n");
    let workers: Vec<_> = (0..CONNECTIONS)
        .map(|_| {
            let (address, request) = (address.to_owned(), request.clone());
            let (done, stop) = (done.clone(), stop.clone());
            std::thread::spawn(move || {
                let stream = TcpStream::connect(address).expect("a connection");
                let mut reader = BufReader::with_capacity(64 * 1024, stream);
                while !stop.load(Ordering::Relaxed) {
                    reader.get_mut().write_all(request.as_bytes()).expect("sent");
                    read_answer(&mut reader);
                    done.fetch_add(1, Ordering::Relaxed);
                }
            })
        })
        .collect();
    std::thread::sleep(WARM_UP);
    let before = done.load(Ordering::Relaxed);
    std::thread::sleep(MEASURED);
    let counted = done.load(Ordering::Relaxed) - before;
    stop.store(true, Ordering::Relaxed);
    workers.into_iter().for_each(|worker| worker.join().expect("a worker"));
    #[expect(clippy::cast_precision_loss, reason = "a few thousand requests")]
    let rate = counted as f64 / MEASURED.as_secs_f64();
    rate
}

/// Reads one answer whose length is given, and wants it to be a page.
fn read_answer(reader: &mut BufReader<TcpStream>) {
    let mut length = 0;
    let mut line = String::new();
    reader.read_line(&mut line).expect("a status");
    assert!(line.starts_with("HTTP/1.1 200"), "{line}");
    loop {
        line.clear();
        reader.read_line(&mut line).expect("a header");
        if let Some(value) = line.to_ascii_lowercase().strip_prefix("content-length: ") {
            length = value.trim().parse().expect("a length");
        }
        if line == "\r\n" {
            break;
        }
    }
    let mut body = vec![0; length];
    reader.read_exact(&mut body).expect("a body");
}
