//! What a height is measured from.

/// The two ends a ride height is measured between.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Datum {
    /// From the ground to the lip of the wheel arch: includes the tyre.
    GroundToArch,
    /// From the wheel's centre to the lip of the wheel arch: leaves the tyre out.
    HubToArch,
}

impl Datum {
    /// Whether the tyre's own squash is part of the height.
    pub fn includes_tyre(self) -> bool {
        self == Datum::GroundToArch
    }
}
