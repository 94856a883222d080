//! What a file would change of a shelf.

use std::collections::HashMap;

use super::document::same_number;
use crate::entry::ShelfPart;

/// What a part of a file would do to the shelf.
#[derive(Debug, Clone, PartialEq)]
pub enum ShelfChange {
    /// The shelf has none of that number.
    New(Box<ShelfPart>),
    /// It has another of that number: before, and after.
    Changed(Box<(ShelfPart, ShelfPart)>),
}

/// What some parts would change of a shelf, and how many of them are there already just so. What the shelf has besides stays.
pub fn changes(on_the_shelf: &[ShelfPart], parts: Vec<ShelfPart>) -> (Vec<ShelfChange>, usize) {
    let there: HashMap<String, &ShelfPart> = on_the_shelf.iter().map(|part| (same_number(&part.number), part)).collect();
    let all = parts.len();
    let change = |part: ShelfPart| match there.get(&same_number(&part.number)) {
        None => Some(ShelfChange::New(Box::new(part))),
        Some(before) if **before == part => None,
        Some(before) => Some(ShelfChange::Changed(Box::new(((*before).clone(), part)))),
    };
    let changes: Vec<ShelfChange> = parts.into_iter().filter_map(change).collect();
    let same = all - changes.len();
    (changes, same)
}

impl ShelfChange {
    /// The part as it would then be.
    pub fn after(&self) -> &ShelfPart {
        match self {
            ShelfChange::New(part) => part,
            ShelfChange::Changed(both) => &both.1,
        }
    }

    /// The names of the fields that are other than they were; none of a new part.
    pub fn fields(&self) -> Vec<String> {
        let ShelfChange::Changed(both) = self else { return Vec::new() };
        let as_object = |part: &ShelfPart| match serde_json::to_value(part) {
            Ok(serde_json::Value::Object(fields)) => fields,
            _ => serde_json::Map::new(),
        };
        let (before, after) = (as_object(&both.0), as_object(&both.1));
        let mut names: Vec<String> = before.keys().chain(after.keys()).cloned().collect();
        names.sort_unstable();
        names.dedup();
        names.retain(|name| before.get(name) != after.get(name));
        names
    }
}
