//! The program as it is run: a process of its own, with its log in a file, to be watched and to be killed.

use std::fs::File;
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

/// A serving program. It is killed when dropped.
pub(crate) struct Program {
    child: Child,
    pub(crate) address: String,
    log: PathBuf,
}

impl Program {
    /// Serves a database at an address, with the demo shop in it; what it logs goes to the end of a file. `None` when it ended
    /// before it served.
    pub(crate) fn serve(database_url: &str, listen: &str, log: &Path) -> Option<Program> {
        let file = File::options().create(true).append(true).open(log).expect("a log file");
        let key = log.with_extension("key");
        let mut child = Command::new(env!("CARGO_BIN_EXE_wise-badger"))
            .args(["serve", "--demo-data", "--wait-for-database", "20", "--listen", listen, "--cookie-key"])
            .arg(key)
            .env("DATABASE_URL", database_url)
            .stdout(Stdio::piped())
            .stderr(file)
            .spawn()
            .expect("the program starts");
        let lines = BufReader::new(child.stdout.take().expect("its output is piped")).lines();
        let told = lines.map_while(Result::ok).find_map(|line| line.strip_prefix("Wise Badger is at ").map(str::to_owned));
        let Some(address) = told else {
            let _ = child.wait();
            return None;
        };
        Some(Program { child, address: address.trim_end_matches('/').to_owned(), log: log.to_owned() })
    }

    /// Memory it holds, in MB.
    #[allow(dead_code, reason = "not every test weighs it")]
    pub(crate) fn memory(&self) -> u64 {
        let status = std::fs::read_to_string(format!("/proc/{}/status", self.child.id())).unwrap_or_default();
        let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:"));
        line.and_then(|rest| rest.split_whitespace().next()?.parse::<u64>().ok()).unwrap_or(0) / 1024
    }

    /// What it logged.
    pub(crate) fn logged(&self) -> String {
        std::fs::read_to_string(&self.log).unwrap_or_default()
    }

    /// Ends it as a power cut would.
    pub(crate) fn kill(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

impl Drop for Program {
    fn drop(&mut self) {
        self.kill();
    }
}
