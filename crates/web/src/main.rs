//! The `wise-badger` program. See `wise-badger --help`.

use std::process::ExitCode;

fn main() -> ExitCode {
    wise_badger_web::command::run()
}
