//! Putting the server together.

use std::fs;
use std::io;
use std::net::TcpListener;
use std::path::Path;
use std::time::Duration as Wait;

use actix_session::SessionMiddleware;
use actix_session::config::{PersistentSession, TtlExtensionPolicy};
use actix_web::cookie::{Key, SameSite, time::Duration};
use actix_web::middleware::{Compress, from_fn};
use actix_web::{App, HttpServer, web};
use tokio::sync::watch;
use tracing_actix_web::TracingLogger;
use wise_badger_store::Database;

use crate::guard::Hosts;
use crate::keys::BehindTls;
use crate::log::RequestLine;
use crate::pages::events::Stopping;
use crate::pages::sign_in::OnePress;
use crate::pages::yard;
use crate::session_store::PgSessionStore;
use crate::{Settings, guard, routes};

/// How long a browser may take to send the head of a request, and to say nothing between two of them.
const LONGEST_HEAD: Wait = Wait::from_secs(10);
const LONGEST_PAUSE: Wait = Wait::from_secs(30);

/// Serves on a listener that is already bound, says `ready` when it does, and goes on until `shutdown` comes true; requests under
/// way are then finished.
///
/// # Errors     when the cookie key cannot be read or made, or the listener fails
pub async fn serve(
    listener: TcpListener,
    database: Database,
    settings: &Settings,
    ready: impl FnOnce(),
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> io::Result<()> {
    let key = cookie_key(settings.cookie_key.as_deref())?;
    let behind_tls = settings.behind_tls;
    let hosts = web::Data::new(Hosts::new(&settings.hosts));
    let (tls, one_press) = (web::Data::new(BehindTls(behind_tls)), web::Data::new(OnePress(settings.one_press_demo)));
    let (stop, stops) = watch::channel(false);
    let stopping = web::Data::new(Stopping(stops));
    let shutdown = async move {
        shutdown.await;
        let _ = stop.send(true);
    };
    let of_workers = database.clone();
    let server = HttpServer::new(move || {
        let database = of_workers.clone();
        let sessions = SessionMiddleware::builder(PgSessionStore::new(database.clone()), key.clone())
            // A browser keeps a cookie of this prefix only where it is sent over TLS, to this host and from its root.
            .cookie_name(if behind_tls { "__Host-wise_badger" } else { "wise_badger" }.to_owned())
            .cookie_secure(behind_tls)
            .cookie_same_site(SameSite::Lax)
            .session_lifecycle(
                PersistentSession::default()
                    .session_ttl(Duration::days(30))
                    .session_ttl_extension_policy(TtlExtensionPolicy::OnStateChanges),
            )
            .build();
        App::new()
            .app_data(web::Data::new(database.clone()))
            .app_data(hosts.clone())
            .app_data(tls.clone())
            .app_data(one_press.clone())
            .app_data(stopping.clone())
            .configure(routes::assets)
            .service(web::scope("").wrap(sessions).wrap(from_fn(guard::same_site_only)).configure(routes::pages))
            .wrap(from_fn(guard::a_page_for_every_failure))
            .wrap(from_fn(guard::known_host_only))
            .wrap(guard::headers(behind_tls))
            .wrap(Compress::default())
            .wrap(TracingLogger::<RequestLine>::new())
    })
    .listen(listener)?
    .client_request_timeout(LONGEST_HEAD)
    .keep_alive(LONGEST_PAUSE)
    // Whoever closes their side has gone: what was asked is dropped, and stops at the next look.
    .h1_allow_half_closed(false)
    .shutdown_signal(shutdown)
    .workers(2)
    .shutdown_timeout(15)
    .run();
    ready();
    // Ahead of whoever looks: a new version reckons by its own rules where jobs stand.
    actix_web::rt::spawn(yard::keep_gathered(web::Data::new(database.clone())));
    server.await
}

/// The key that seals cookies: from its file, or made and put there, or made for this run only.
fn cookie_key(file: Option<&Path>) -> io::Result<Key> {
    let Some(file) = file else { return Ok(Key::generate()) };
    let name = file.display();
    match fs::read(file) {
        Ok(bytes) => {
            if others_may_read(file)? {
                return Err(io::Error::other(format!(
                    "{name} can be read by others, who could forge sign-ons; run chmod 600 {name}"
                )));
            }
            let unfit =
                |_| io::Error::other(format!("{name} is no cookie key of 64 bytes or more; take it away to have one made"));
            Key::try_from(bytes.as_slice()).map_err(unfit)
        }
        Err(error) if error.kind() == io::ErrorKind::NotFound => {
            let key = Key::generate();
            write_private(file, key.master()).map_err(|error| io::Error::other(format!("{name} cannot be written: {error}")))?;
            Ok(key)
        }
        Err(error) => Err(io::Error::other(format!("{name} cannot be read: {error}"))),
    }
}

fn others_may_read(file: &Path) -> io::Result<bool> {
    use std::os::unix::fs::PermissionsExt;
    Ok(fs::metadata(file)?.permissions().mode() & 0o077 != 0)
}

fn write_private(file: &Path, bytes: &[u8]) -> io::Result<()> {
    use std::io::Write;
    use std::os::unix::fs::OpenOptionsExt;
    fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(file)?.write_all(bytes)
}
