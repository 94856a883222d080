//! What was put on a vehicle between its two states.

crate::standing_entry::standing_entry!(loads, LoadEntry);
