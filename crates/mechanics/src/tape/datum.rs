//! What a height is measured from.

/// The two ends a ride height is measured between.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Datum {
    /// Ground to the arch's lip: includes the tyre.
    GroundToArch,
    /// Hub centre to the arch's lip: the tyre has no part in it.
    HubToArch,
    /// Bottom lip of the rim to the arch's lip.
    RimToArch,
    /// Top of the tyre to the arch's lip.
    TyreTopToArch,
    /// The gap between axle and bump stop.
    StopGap,
}

impl Datum {
    /// Every datum.
    pub const ALL: [Datum; 5] = [Datum::GroundToArch, Datum::HubToArch, Datum::RimToArch, Datum::TyreTopToArch, Datum::StopGap];

    /// Whether the tyre's own squash is part of the height.
    pub fn includes_tyre(self) -> bool {
        self == Datum::GroundToArch
    }
}
