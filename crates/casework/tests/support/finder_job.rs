//! Jobs that the finder is tried on.

#![allow(dead_code, reason = "not every test needs it all")]

use serde_json::{Value, json};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ShelfPart, TypedIn};
use wise_badger_casework::finder::{Found, Search, ToTheEnd, Weights, find};

use crate::in_short::InShort;

pub(crate) fn in_short(value: Value) -> InShort {
    serde_json::from_value(value).unwrap()
}

/// A half-ton that sags under half a ton.
pub(crate) fn half_ton() -> Value {
    json!({
        "name": "half-ton", "why": "", "class": "half_ton_pickup", "wheelbase": 145.0, "ratings": [3900.0, 4100.0],
        "empty": [20.5, 21.5], "loaded": [20.5, 18.8125], "load": [1000.0, 0.0], "gap_loaded": 2.0, "aim": [{ "level_loaded": [0.0, 0.5] }],
    })
}

/// A wagon on coils: no leaf rubs there, and no second stage joins in.
pub(crate) fn wagon(aim: Value) -> Casework {
    in_short(json!({
        "name": "wagon", "why": "", "class": "wagon", "wheelbase": 112.0, "ratings": [2900.0, 3300.0], "springs": ["coil", "coil"],
        "empty": [20.0, 20.5], "loaded": [20.0, 18.25], "load": [600.0, 0.0], "gap_loaded": 2.0, "aim": aim,
    }))
    .work()
}

pub(crate) fn look(work: &Casework, shelf: &[ShelfPart]) -> Found {
    find(&Search { work, shelf, weights: Weights::default(), today: None, units: TypedIn::default() }, &ToTheEnd)
}
