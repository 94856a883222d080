//! What the shop keeps.
