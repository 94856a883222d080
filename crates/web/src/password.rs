//! Passwords and PINs: what is taken for one, and argon2id hashes of them.
//!
//! A hash takes memory and tens of milliseconds by design. They are worked out off the threads that answer, a few at once, so that
//! somebody who guesses keeps nobody else's page waiting.

use std::sync::{Arc, LazyLock};
use std::time::Duration;

use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use argon2::{Algorithm, Argon2, Params, Version};

use crate::error::WebError;
use crate::turns::Turns;

/// What the hash costs: 19 MiB, twice over, on one lane. OWASP's Password Storage Cheat Sheet asks for at least that of argon2id.
const MEMORY_KIB: u32 = 19 * 1024;
const PASSES: u32 = 2;
const LANES: u32 = 1;

const SHORTEST: usize = 10;
const LONGEST: usize = 200;
const SHORTEST_PIN: usize = 4;
const LONGEST_PIN: usize = 8;

/// Longest wait for a turn at a hash.
const LONGEST_WAIT: Duration = Duration::from_secs(8);

/// Half the cores at most: the others answer pages.
static TURNS: LazyLock<Turns> =
    LazyLock::new(|| Turns::new((std::thread::available_parallelism().map_or(2, usize::from) / 2).max(1), LONGEST_WAIT));

/// A hash of nobody's password: whoever is not there takes as long to refuse as whoever is.
static NOBODYS: LazyLock<String> = LazyLock::new(|| hash_of("nobody has this one").unwrap_or_default());

fn argon2() -> Argon2<'static> {
    let params = Params::new(MEMORY_KIB, PASSES, LANES, None).unwrap_or_default();
    Argon2::new(Algorithm::Argon2id, Version::V0x13, params)
}

fn hash_of(secret: &str) -> Result<String, WebError> {
    let hashed = argon2().hash_password(secret.as_bytes());
    Ok(hashed.map_err(|error| WebError::Failed(error.to_string()))?.to_string())
}

fn verifies(secret: &str, hash: &str) -> bool {
    PasswordHash::new(hash).is_ok_and(|hash| argon2().verify_password(secret.as_bytes(), &hash).is_ok())
}

async fn in_turn<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, WebError> {
    let turn = TURNS.take().await?;
    let task = tokio::task::spawn_blocking(move || {
        let _turn = turn;
        work()
    });
    task.await.map_err(|failed| WebError::Failed(failed.to_string()))
}

/// The hash of a secret, with a salt of its own.
pub(crate) async fn hash(secret: &str) -> Result<String, WebError> {
    let secret = secret.to_owned();
    in_turn(move || hash_of(&secret)).await?
}

/// Whether a secret is the one that a hash was made from. Against no hash it takes as long, and never is.
pub(crate) async fn is_the_one(secret: &str, hash: Option<&str>) -> Result<bool, WebError> {
    let (secret, hash) = (secret.to_owned(), hash.map(Arc::<str>::from));
    in_turn(move || {
        let there = hash.is_some();
        verifies(&secret, hash.as_deref().unwrap_or(&NOBODYS)) && there
    })
    .await
}

/// Why a text is no password for somebody; `None` where it is one.
pub(crate) fn unfit(password: &str, name: &str, shop: &str) -> Option<String> {
    let length = password.chars().count();
    if length < SHORTEST {
        return Some(format!("At least {SHORTEST} characters; a short sentence is easy to keep in mind."));
    }
    if length > LONGEST {
        return Some(format!("At most {LONGEST} characters."));
    }
    let small = password.to_lowercase();
    let told = |word: &str| word.chars().count() > 2 && small.replace(word, "").chars().count() < 6;
    if told(&name.to_lowercase()) || told(&shop.to_lowercase()) {
        return Some("That is little more than a name that everybody here knows; take another.".to_owned());
    }
    let few: std::collections::BTreeSet<char> = small.chars().collect();
    if few.len() < 5 || is_a_run(&small) || COMMON.iter().any(|common| small.contains(common) && length < common.len() + 5) {
        return Some("That is one of the first that anybody would try; take another.".to_owned());
    }
    None
}

/// Why a text is no PIN; `None` where it is one.
pub(crate) fn unfit_pin(pin: &str) -> Option<String> {
    let digits = pin.chars().all(|sign| sign.is_ascii_digit());
    if !digits || !(SHORTEST_PIN..=LONGEST_PIN).contains(&pin.len()) {
        return Some(format!("From {SHORTEST_PIN} to {LONGEST_PIN} digits."));
    }
    let few: std::collections::BTreeSet<char> = pin.chars().collect();
    (few.len() < 2 || is_a_run(pin)).then(|| "That is one of the first that anybody would try; take another.".to_owned())
}

/// What people take for a password before they think.
const COMMON: [&str; 12] = [
    "password",
    "passwort",
    "qwerty",
    "letmein",
    "welcome",
    "iloveyou",
    "admin",
    "changeme",
    "suspension",
    "springshop",
    "wisebadger",
    "wise badger",
];

/// Whether each sign follows the one before it: 1234, fedcba.
fn is_a_run(text: &str) -> bool {
    let signs: Vec<u32> = text.chars().map(u32::from).collect();
    let steps = || signs.windows(2).filter_map(|two| Some(i64::from(*two.get(1)?) - i64::from(*two.first()?)));
    signs.len() > 2 && (steps().all(|step| step == 1) || steps().all(|step| step == -1))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn a_hash_verifies_only_the_secret_it_was_made_from() {
        let made = hash("spring over axle").await.expect("a hash");
        assert!(made.starts_with("$argon2id$v=19$m=19456,t=2,p=1$"), "{made}");
        assert!(is_the_one("spring over axle", Some(&made)).await.expect("an answer"));
        for other in ["spring over axle ", "Spring over axle", ""] {
            assert!(!is_the_one(other, Some(&made)).await.expect("an answer"), "{other}");
        }
        assert_ne!(made, hash("spring over axle").await.expect("a hash"), "each with a salt of its own");
        assert!(!is_the_one("nobody has this one", None).await.expect("an answer"), "nobody's opens nothing");
        assert!(!is_the_one("x", Some("no hash at all")).await.expect("an answer"));
    }

    #[test]
    fn what_anybody_would_try_is_no_password() {
        for weak in
            ["short", "aaaaaaaaaaaa", "abcdefghijkl", "9876543210", "password123", "Odalys2026", "millrace12", "wisebadger1"]
        {
            assert!(unfit(weak, "Odalys", "millrace").is_some(), "{weak}");
        }
        for good in ["three loose u-bolts", "kettle on the anvil", "Xk7#pq!29dLm"] {
            assert_eq!(unfit(good, "Odalys", "Millrace Spring Works"), None, "{good}");
        }
        assert!(unfit(&"kettle anvil ".repeat(40), "Odalys", "m").is_some());
    }

    #[test]
    fn a_pin_is_a_few_digits_that_are_not_the_first_tried() {
        for weak in ["", "123", "1234", "4321", "0000", "123456789", "12a4"] {
            assert!(unfit_pin(weak).is_some(), "{weak}");
        }
        assert_eq!(unfit_pin("4071"), None);
    }
}
