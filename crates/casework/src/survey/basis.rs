//! Whether somebody knows a figure.

/// Where a figure came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Basis {
    /// Weighed or stated for this vehicle.
    Stated,
    /// Assumed for its class, or the usual one of such a thing.
    Assumed,
}
