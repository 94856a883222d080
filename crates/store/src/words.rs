//! Words of text columns, read back.

use wise_badger_casework::words::Word;

use crate::StoreError;

/// What goes by a word in a column.
///
/// # Errors     [`StoreError::Unreadable`] for a word that this program does not know
pub(crate) fn read<T: Word>(text: &str) -> Result<T, StoreError> {
    T::from_word(text).ok_or_else(|| StoreError::Unreadable { what: T::WHAT, text: text.to_owned() })
}
