//! The program served from this process on a free port, with a database of its own.

use std::net::TcpListener;
use std::thread::JoinHandle;

use tokio::sync::oneshot;
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{Database, Role, person, shop};
use wise_badger_web::{Settings, load_demo_data, serve};

/// A running server. It stops when dropped.
pub(crate) struct Site {
    pub(crate) address: String,
    stop: Option<oneshot::Sender<()>>,
    server: Option<JoinHandle<()>>,
    database: TestDatabase,
}

impl Site {
    /// An empty shop where Ada and Bo work.
    pub(crate) fn empty() -> Site {
        Site::start(|store| {
            let connection = &mut store.connection().expect("a connection");
            let shop = shop::open_demo(connection, "Shop under test").expect("a shop");
            for (name, trade, role) in [("Ada", "Lead", Role::Owner), ("Bo", "Technician", Role::Technician)] {
                person::take_on(connection, shop.id, name, trade, role).expect("somebody");
            }
        })
    }

    /// The demo shop.
    pub(crate) fn demo() -> Site {
        Site::start(|store| load_demo_data(&mut store.connection().expect("a connection")).expect("the demo data"))
    }

    /// A database with no shop in it, and nobody signed in with one press.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn bare() -> Site {
        Site::start_as(|_| (), Settings::default())
    }

    /// Its database, as a PostgreSQL connection string.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn database_url(&self) -> String {
        self.database.url()
    }

    /// A pool of one's own on the site's database.
    #[allow(dead_code, reason = "the benchmark's alone")]
    pub(crate) fn open_again(&self) -> Database {
        self.database.open()
    }

    /// Tells the site's database something, as whoever looks after it would.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn tell_database(&self, command: &str) {
        self.database.tell(command);
    }

    /// Asks the site's database for lines.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn ask_database(&self, query: &str) -> Vec<String> {
        self.database.ask(query)
    }

    /// Shuts the database, or opens it again.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn shut_database(&self, shut: bool) {
        self.database.shut(shut);
    }

    fn start(fill: impl FnOnce(&Database)) -> Site {
        Site::start_as(fill, Settings { one_press_demo: true, ..Settings::default() })
    }

    fn start_as(fill: impl FnOnce(&Database), settings: Settings) -> Site {
        let database = TestDatabase::create();
        let store = database.open();
        fill(&store);
        let store = database.to_serve(store);
        let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
        let address = format!("http://{}", listener.local_addr().expect("a bound port"));
        let (stop, stopped) = oneshot::channel();
        let server = std::thread::spawn(move || {
            let shutdown = async move { drop(stopped.await) };
            let serving = serve(listener, store, &settings, || (), shutdown);
            actix_web::rt::System::new().block_on(serving).expect("the server ends well");
        });
        Site { address, stop: Some(stop), server: Some(server), database }
    }
}

impl Drop for Site {
    fn drop(&mut self) {
        drop(self.stop.take());
        if let Some(server) = self.server.take() {
            let _ = server.join();
        }
    }
}
