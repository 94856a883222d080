//! What the server is told when it starts.

use std::path::PathBuf;

/// How to serve.
#[derive(Debug, Clone, Default)]
pub struct Settings {
    /// File of the key that seals cookies, made when absent. Without one, everybody picks themselves anew after a restart.
    pub cookie_key: Option<PathBuf>,
    /// Whether TLS stands in front: cookies then travel over HTTPS only, and browsers are told to come that way.
    pub behind_tls: bool,
    /// Names this server answers to, beside those of this machine to itself.
    pub hosts: Vec<String>,
    /// Whether the demo shop's people sign in with one press.
    pub one_press_demo: bool,
}
