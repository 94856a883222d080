//! Pages against bare pages on one database, side by side: requests a second of the page over those of the bare one.
//!
//! `ratio NAME-vs-bare R`: the bare page looks as many single rows up by their key as the page makes SELECTs.
//! `ratio NAME-vs-same-selects R`: the bare page makes the page's own SELECTs and shows nothing of them, so that what
//! is left is computing, drawing and the template, of a job worked out for the page before. `scripts/bench` starts the server that this wants.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::time::{Duration, Instant};

use actix_web::{App, HttpResponse, HttpServer, web};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::{self, Which};
use wise_badger_store::{Database, JobNumber, PersonId, PgConnection, ShopId, StoreError, call, due, person, reading, session};

#[allow(dead_code, reason = "the tests' alone")]
#[path = "../tests/support/site.rs"]
mod site;

const CONNECTIONS: usize = 32;
const WARM_UP: Duration = Duration::from_secs(1);
const MEASURED: Duration = Duration::from_secs(4);

/// Page, the job it shows, and how many SELECTs it makes: two for the session and who is working; for a list two, and three more of what is
/// due and who called; six or seven for a job, two for the record of who did what, four for what is around it.
const PAGES: [(&str, &str, Option<i32>, usize); 5] = [
    ("yard", "/", None, 7),
    ("search", "/?q=route", None, 4),
    ("job", "/jobs/1", Some(1), 14),
    ("tape", "/jobs/4/tape", Some(4), 10),
    ("options", "/jobs/4/options", Some(4), 8),
];

/// 200 shops with 500 jobs each, one in ten of them open, and ten readings a job: copies of the demo's, with where they stand.
const FILL: &str = "
    INSERT INTO shops (name, handle) SELECT 'Shop ' || n, 'shop-of-the-bench-' || n FROM generate_series(2, 200) n;
    INSERT INTO people (shop_id, name, trade, role) SELECT id, 'Somebody', 'Lead', 'owner' FROM shops WHERE handle LIKE 'shop-of-the-bench-%';
    INSERT INTO jobs (shop_id, number, label, vehicle_class, rear_wheels, wheelbase, front_rating, rear_rating, datum, revised_by, opened_by,
                      finished_at, searched)
      SELECT p.shop_id, 1000 + n, 'Route truck ' || n, 'half_ton_pickup', 'single', j.wheelbase, j.front_rating, j.rear_rating, j.datum, p.id,
             p.id, CASE WHEN n % 10 > 0 THEN now() - interval '1 day' * n END, 'route truck ' || n || ' larkfield ' || (n * 7919 % 997)
        FROM (SELECT DISTINCT ON (shop_id) shop_id, id FROM people ORDER BY shop_id, id) p, generate_series(1, 500) n,
             (SELECT * FROM jobs ORDER BY id LIMIT 1) j;
    INSERT INTO job_standings (job_id, shop_id, revision, rules, standing)
      SELECT j.id, j.shop_id, j.revision, s.rules, s.standing FROM jobs j, (SELECT * FROM job_standings ORDER BY job_id LIMIT 1) s
       WHERE j.number > 1000;
    INSERT INTO readings (shop_id, job_id, phase, load_state, place, ordinal, datum, value_text, value_unit, value_si, taken_by)
      SELECT j.shop_id, j.id, 'found', CASE WHEN n > 5 THEN 'loaded' ELSE 'empty' END,
             (ARRAY['front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap'])[1 + n % 5], 0, 'hub_to_arch', '21', 'in', 0.5334, j.opened_by
        FROM jobs j, generate_series(1, 10) n WHERE j.number > 1000;
    ANALYZE";

fn main() {
    let site = site::Site::demo();
    fill(&site);
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
            let (person, ..) = person::working(connection, ShopId(1), PersonId(1))?;
            let Some(number) = job else {
                let which = if path == "/" { Which::Open } else { Which::Found(vec!["route".to_owned()]) };
                let listed = job_list::newest(connection, person.shop_id, &which, "none", 101, None)?;
                person::of_shop(connection, person.shop_id)?;
                if path == "/" {
                    call::expected(connection, person.shop_id, 30)?;
                    let ahead = chrono::Local::now().date_naive() + chrono::Days::new(7);
                    due::until(
                        connection,
                        person.shop_id,
                        &["promised", "wanted", "parts", "lug_nuts", "u_bolts", "heights"],
                        ahead,
                        200,
                    )?;
                }
                return Ok(listed.len());
            };
            let file = JobFile::find(connection, person.shop_id, JobNumber(number))?;
            if selects > 8 {
                person::of_shop(connection, person.shop_id)?;
                reading::withdrawn(connection, person.shop_id, file.job.id)?;
            }
            Ok(file.case().readings.len())
        });
        let (page_rate, page_p99) = requests_per_second(&address, path, &cookie);
        let (single_rate, single_p99) = requests_per_second(&single, "/", "");
        let (same_rate, _) = requests_per_second(&same, "/", "");
        println!(
            "{name}: {page_rate:.0} a second, p99 {page_p99:.1} ms; bare {single_rate:.0}, p99 {single_p99:.1} ms; with the same SELECTs {same_rate:.0}"
        );
        println!("ratio {name}-vs-bare {:.2}", page_rate / single_rate);
        println!("ratio {name}-p99-vs-bare-p99 {:.2}", page_p99 / single_p99);
        println!("ratio {name}-vs-same-selects {:.2}", page_rate / same_rate);
    }
}

/// Fills the records, once where the demo's own jobs stand is gathered.
fn fill(site: &site::Site) {
    for _ in 0..600 {
        if site.ask_database("SELECT 'there' AS line FROM job_standings LIMIT 1").is_empty() {
            std::thread::sleep(Duration::from_millis(100));
        }
    }
    site.tell_database(FILL);
    let counted = site.ask_database("SELECT count(*)::TEXT AS line FROM jobs UNION ALL SELECT count(*)::TEXT FROM readings");
    println!("{} jobs and readings", counted.join(" and "));
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
        "POST /sign-in/demo HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\nContent-Type: application/x-www-form-urlencoded\r\n\
         Content-Length: {}\r\n\r\n{body}",
        body.len()
    )
    .expect("sent");
    let mut answer = String::new();
    stream.read_to_string(&mut answer).expect("an answer");
    let cookie = answer.lines().find_map(|line| line.strip_prefix("set-cookie: ")).expect("a session");
    cookie.split(';').next().unwrap_or_default().to_owned()
}

/// Answers a second, and how long the slowest of a hundred took, in milliseconds.
fn requests_per_second(address: &str, path: &str, cookie: &str) -> (f64, f64) {
    let (done, stop) = (Arc::new(AtomicU64::new(0)), Arc::new(AtomicBool::new(false)));
    let request = format!("GET {path} HTTP/1.1\r\nHost: {address}\r\nCookie: {cookie}\r\n\r\n");
    let workers: Vec<_> = (0..CONNECTIONS)
        .map(|_| {
            let (address, request) = (address.to_owned(), request.clone());
            let (done, stop) = (done.clone(), stop.clone());
            std::thread::spawn(move || {
                let stream = TcpStream::connect(address).expect("a connection");
                let mut reader = BufReader::with_capacity(64 * 1024, stream);
                let mut took = Vec::new();
                while !stop.load(Ordering::Relaxed) {
                    let begun = Instant::now();
                    reader.get_mut().write_all(request.as_bytes()).expect("sent");
                    read_answer(&mut reader);
                    took.push(begun.elapsed());
                    done.fetch_add(1, Ordering::Relaxed);
                }
                took
            })
        })
        .collect();
    std::thread::sleep(WARM_UP);
    let before = done.load(Ordering::Relaxed);
    std::thread::sleep(MEASURED);
    let counted = done.load(Ordering::Relaxed) - before;
    stop.store(true, Ordering::Relaxed);
    let mut took: Vec<Duration> = workers.into_iter().flat_map(|worker| worker.join().expect("a worker")).collect();
    took.sort_unstable();
    let p99 = took.get(took.len() * 99 / 100).map_or(0.0, |slow| slow.as_secs_f64() * 1_000.0);
    #[expect(clippy::cast_precision_loss, reason = "a few thousand requests")]
    let rate = counted as f64 / MEASURED.as_secs_f64();
    (rate, p99)
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
