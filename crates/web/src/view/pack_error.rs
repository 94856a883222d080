//! Why a pack cannot be worked out, in the reader's units.

use wise_badger_mechanics::pack::PackError;

use super::{Units, sentence};

/// A sentence that says what is wrong and what to do.
pub(crate) fn pack_error_words(error: &PackError, units: Units) -> String {
    let text = match error {
        PackError::PastAnyLeaf { leaf, what, most } => {
            format!("{what} of {leaf} is past anything a leaf has; at most {}", units.height(*most))
        }
        PackError::NotReached(height) => {
            format!("no arch that these leaves can have brings the pack to {}", units.height(*height))
        }
        other => other.to_string(),
    };
    format!("{}.", sentence(&text).trim_end_matches('.'))
}
