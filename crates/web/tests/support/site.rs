//! The program served from this process on a free port, with a database of its own.

use std::net::TcpListener;
use std::thread::JoinHandle;

use tokio::sync::oneshot;
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{Database, person, shop};
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
            let shop = shop::open(connection, "Shop under test").expect("a shop");
            for (name, trade) in [("Ada", "Lead"), ("Bo", "Technician")] {
                person::take_on(connection, shop.id, name, trade).expect("somebody");
            }
        })
    }

    /// The demo shop.
    pub(crate) fn demo() -> Site {
        Site::start(|store| load_demo_data(&mut store.connection().expect("a connection")).expect("the demo data"))
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

    /// Shuts the database, or opens it again.
    #[allow(dead_code, reason = "the HTTP tests' alone")]
    pub(crate) fn shut_database(&self, shut: bool) {
        self.database.shut(shut);
    }

    fn start(fill: impl FnOnce(&Database)) -> Site {
        let database = TestDatabase::create();
        let store = database.open();
        fill(&store);
        let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
        let address = format!("http://{}", listener.local_addr().expect("a bound port"));
        let (stop, stopped) = oneshot::channel();
        let server = std::thread::spawn(move || {
            let shutdown = async move { drop(stopped.await) };
            let settings = Settings::default();
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
