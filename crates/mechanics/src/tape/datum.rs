//! placeholder
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
/// d
pub enum Datum {
    /// g
    GroundToArch,
    /// h
    HubToArch,
}
