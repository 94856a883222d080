//! The `wise-badger` program. See `wise-badger --help`.

use std::process::ExitCode;

/// Gives memory back to the system soon after it was used: the usual one holds on to hundreds of MB after a few photographs.
/// How soon is said in `.cargo/config.toml`.
#[global_allocator]
static MEMORY: tikv_jemallocator::Jemalloc = tikv_jemallocator::Jemalloc;

fn main() -> ExitCode {
    wise_badger_web::command::run()
}
