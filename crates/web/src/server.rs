//! Putting the server together.

use std::fs;
use std::io;
use std::net::TcpListener;
use std::path::Path;

use actix_session::SessionMiddleware;
use actix_session::config::{PersistentSession, TtlExtensionPolicy};
use actix_web::cookie::{Key, SameSite, time::Duration};
use actix_web::middleware::{Compress, from_fn};
use actix_web::{App, HttpServer, web};
use tracing_actix_web::TracingLogger;
use wise_badger_store::Database;

use crate::session_store::PgSessionStore;
use crate::{Settings, guard, routes};

/// Serves on a listener that is already bound, until `shutdown` comes true; requests under way are then finished.
///
/// # Errors     when the cookie key cannot be read or made, or the listener fails
pub async fn serve(
    listener: TcpListener,
    database: Database,
    settings: &Settings,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> io::Result<()> {
    let key = cookie_key(settings.cookie_key.as_deref())?;
    let secure = settings.secure_cookies;
    HttpServer::new(move || {
        let sessions = SessionMiddleware::builder(PgSessionStore::new(database.clone()), key.clone())
            .cookie_name("wise_badger".to_owned())
            .cookie_secure(secure)
            .cookie_same_site(SameSite::Lax)
            .session_lifecycle(
                PersistentSession::default()
                    .session_ttl(Duration::days(30))
                    .session_ttl_extension_policy(TtlExtensionPolicy::OnStateChanges),
            )
            .build();
        App::new()
            .app_data(web::Data::new(database.clone()))
            .configure(routes::configure)
            .wrap(sessions)
            .wrap(from_fn(guard::same_site_only))
            .wrap(guard::headers())
            .wrap(Compress::default())
            .wrap(TracingLogger::default())
    })
    .listen(listener)?
    .shutdown_signal(shutdown)
    .workers(2)
    .shutdown_timeout(5)
    .run()
    .await
}

/// The key that seals cookies: from its file, or made and put there, or made for this run only.
fn cookie_key(file: Option<&Path>) -> io::Result<Key> {
    let Some(file) = file else { return Ok(Key::generate()) };
    match fs::read(file) {
        Ok(bytes) => Key::try_from(bytes.as_slice()).map_err(|error| io::Error::other(format!("{}: {error}", file.display()))),
        Err(error) if error.kind() == io::ErrorKind::NotFound => {
            let key = Key::generate();
            write_private(file, key.master())?;
            Ok(key)
        }
        Err(error) => Err(error),
    }
}

fn write_private(file: &Path, bytes: &[u8]) -> io::Result<()> {
    use std::io::Write;
    use std::os::unix::fs::OpenOptionsExt;
    fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(file)?.write_all(bytes)
}
