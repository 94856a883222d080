//! What was posted, as it comes off the wire: the one place where texts from outside are cleaned and a sending gets its name.

use std::future::Future;
use std::pin::Pin;
use std::time::Duration;

use actix_web::dev::Payload;
use actix_web::web::Form;
use actix_web::{FromRequest, HttpRequest};
use sha2::{Digest, Sha256};
use tokio::time::timeout;

use crate::error::WebError;

/// Names and texts, in order, and what tells this sending from others.
#[derive(Debug, Clone)]
pub(crate) struct Posted {
    pub(crate) pairs: Vec<(String, String)>,
    /// The path it was sent to.
    pub(crate) form: String,
    /// Hash of everything in it but its token.
    pub(crate) content_hash: String,
}

/// Longest time for a form's body to arrive.
const LONGEST_BODY: Duration = Duration::from_secs(20);

/// The field that tells one drawing of a form from the next.
pub(crate) const TOKEN: &str = "token";

/// The field in which somebody shows once more who they are: nothing of it is kept, not even in a hash.
pub(crate) const SHOWN_AGAIN: &str = "shown_again";

impl Posted {
    /// What was sent to a path. A file that came with it is known by its bytes.
    pub(crate) fn new(form: &str, pairs: Vec<(String, String)>, file: &[u8]) -> Self {
        let pairs: Vec<(String, String)> = pairs.into_iter().map(|(name, text)| (clean(&name), clean(&text))).collect();
        let mut hash = Sha256::new();
        for (name, text) in pairs.iter().filter(|(name, _)| name != TOKEN && name != SHOWN_AGAIN) {
            // Lengths go in too, so that no two forms run together into one text.
            for part in [name, text] {
                hash.update(part.len().to_be_bytes());
                hash.update(part.as_bytes());
            }
        }
        hash.update(file);
        let content_hash = hash.finalize().iter().map(|byte| format!("{byte:02x}")).collect();
        Posted { pairs, form: form.to_owned(), content_hash }
    }
}

impl Posted {
    /// The last text of a name.
    pub(crate) fn text(&self, name: &str) -> Option<&str> {
        self.pairs.iter().rev().find(|(of, _)| of == name).map(|(_, text)| text.as_str())
    }
}

/// Texts of an address are cleaned like those of a form.
pub(crate) fn asked_by_address(pairs: Vec<(String, String)>) -> Posted {
    Posted::new("", pairs, &[])
}

/// A text without what no field holds: control characters other than a tab and the end of a line (which is one sign, however the
/// device writes it), marks that turn the direction of what follows, and code points that are no characters.
pub(crate) fn clean(text: &str) -> String {
    let kept = |sign: &char| match *sign {
        '\n' | '\t' => true,
        '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}' | '\u{feff}' | '\u{fdd0}'..='\u{fdef}' => false,
        sign => !sign.is_control() && (sign as u32) & 0xFFFE != 0xFFFE,
    };
    text.replace("\r\n", "\n").chars().filter(kept).collect()
}

impl FromRequest for Posted {
    type Error = actix_web::Error;
    type Future = Pin<Box<dyn Future<Output = Result<Self, Self::Error>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let path = request.path().to_owned();
        let form = Form::<Vec<(String, String)>>::from_request(request, payload);
        Box::pin(async move {
            match timeout(LONGEST_BODY, form).await {
                Ok(form) => Ok(Posted::new(&path, form?.into_inner(), &[])),
                Err(_late) => Err(WebError::TooSlow.into()),
            }
        })
    }
}

/// Which sending it is, once it shows a token that a page of ours could have sent.
///
/// # Errors     [`WebError::Malformed`] when there is none
pub(crate) fn token(text: &str) -> Result<String, WebError> {
    let sound = (16..=64).contains(&text.len()) && text.chars().all(|sign| sign.is_ascii_alphanumeric());
    if sound { Ok(text.to_owned()) } else { Err(WebError::Malformed("no token".to_owned())) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn pair(name: &str, text: &str) -> (String, String) {
        (name.to_owned(), text.to_owned())
    }

    #[test]
    fn texts_lose_what_no_field_holds_and_keep_everything_else() {
        assert_eq!(clean("38 3/4\u{0}\u{7}"), "38 3/4");
        assert_eq!(clean("a\r\nb\tc\rd"), "a\nb\tcd");
        assert_eq!(clean("nip\u{202e}txt\u{fffe}\u{1f4a9}½″é"), "niptxt\u{1f4a9}½″é");
    }

    #[test]
    fn a_sending_is_known_by_all_it_holds_but_its_token() {
        let hash = |pairs: &[(String, String)], file: &[u8]| Posted::new("/jobs/1/tape", pairs.to_vec(), file).content_hash;
        let first = hash(&[pair("token", "a"), pair("rear", "21 5/8")], b"");
        assert_eq!(first, hash(&[pair("token", "b"), pair("rear", "21 5/8")], b""));
        assert_ne!(first, hash(&[pair("token", "a"), pair("rear", "22")], b""));
        assert_ne!(first, hash(&[pair("token", "a"), pair("rear", "21 5/8")], b"x"));
        assert_ne!(hash(&[pair("ab", "c")], b""), hash(&[pair("a", "bc")], b""));
    }

    proptest! {
        #[test]
        fn a_cleaned_text_is_clean(text in "\\PC*|[\\x00-\\x1f\\PC]*") {
            let cleaned = clean(&text);
            prop_assert!(!cleaned.chars().any(|sign| sign.is_control() && sign != '\n' && sign != '\t'));
            prop_assert_eq!(clean(&cleaned), cleaned);
        }
    }
}
