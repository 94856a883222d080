//! Words in the cells of a table: what begins like a formula is marked as text, so that no table program reckons it, and reads back as
//! it was.

/// What a formula begins with, in one table program or another.
const FORMULA: [char; 6] = ['=', '+', '-', '@', '\t', '\r'];
/// What marks a cell as text.
const MARK: char = '\'';

fn is_to_be_marked(text: &str) -> bool {
    text.trim_start_matches(MARK).starts_with(FORMULA)
}

/// Words as a cell.
///
/// # Example
/// ```
/// use wise_badger_casework::table_cell::{read, written};
/// assert_eq!(written("=1+1"), "'=1+1");
/// assert_eq!(read("'=1+1"), "=1+1");
/// assert_eq!(written("5' bed"), "5' bed");
/// ```
pub fn written(text: &str) -> String {
    if is_to_be_marked(text) { format!("{MARK}{text}") } else { text.to_owned() }
}

/// Words of a cell as [`written`] wrote them.
pub fn read(cell: &str) -> &str {
    cell.strip_prefix(MARK).filter(|text| is_to_be_marked(text)).unwrap_or(cell)
}
