//! A database server of the test's own that keeps what it says it keeps, to be killed.

use std::process::Command;
use std::time::Duration;

/// A cluster on a port of its own. It is taken away when dropped.
pub(crate) struct Cluster {
    folder: tempfile::TempDir,
    port: u16,
    url: String,
}

/// A port that nobody has at the moment.
pub(crate) fn free_port() -> u16 {
    std::net::TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port()
}

impl Cluster {
    pub(crate) fn make() -> Cluster {
        let folder = tempfile::Builder::new().prefix("wise-badger-kill").tempdir().unwrap();
        let mut cluster = Cluster { folder, port: free_port(), url: String::new() };
        let made = cluster.shell("if is_root; then chown postgres \"$folder\"; fi; make_cluster \"$folder/data\"");
        assert!(made.is_some(), "a cluster is made");
        cluster.start();
        cluster
    }

    pub(crate) fn url(&self) -> &str {
        &self.url
    }

    /// Starts it, and again until what a kill left behind has gone.
    pub(crate) fn start(&mut self) {
        for _ in 0..100 {
            let started =
                self.shell(&format!("cluster_port={}; start_cluster \"$folder/data\"; printf %s \"$cluster_url\"", self.port));
            if let Some(url) = started {
                self.url = format!("{url}/postgres");
                return;
            }
            std::thread::sleep(Duration::from_millis(100));
        }
        panic!("the database does not start again");
    }

    /// Ends it as a power cut would: no process of it does anything more.
    pub(crate) fn kill(&self) {
        let killed = self.shell(
            "pid=$(head -n 1 \"$folder/data/postmaster.pid\"); children=$(pgrep -P \"$pid\" || true); kill -9 $pid $children 2>/dev/null || true",
        );
        assert!(killed.is_some(), "the database is killed");
    }

    /// What a few lines of shell print, with the functions that `demo` and `check` share; `None` when they fail.
    fn shell(&self, lines: &str) -> Option<String> {
        let root = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");
        let lines =
            format!("set -euo pipefail; cd '{root}'; . scripts/machine.sh; folder='{}'; {lines}", self.folder.path().display());
        let done = Command::new("bash").args(["-c", &lines]).output().unwrap();
        done.status.success().then(|| String::from_utf8_lossy(&done.stdout).into_owned())
    }
}

impl Drop for Cluster {
    fn drop(&mut self) {
        let _ = self.shell("stop_cluster \"$folder/data\"");
    }
}
