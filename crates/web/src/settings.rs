//! What the server is told when it starts.

use std::path::PathBuf;

/// How to serve.
#[derive(Debug, Clone, Default)]
pub struct Settings {
    /// A PostgreSQL connection string.
    pub database_url: String,
    /// Largest number of database connections.
    pub connections: u32,
    /// File of the key that seals cookies, made when absent. Without one, everybody picks themselves anew after a restart.
    pub cookie_key: Option<PathBuf>,
    /// Whether cookies travel over HTTPS only.
    pub secure_cookies: bool,
}
