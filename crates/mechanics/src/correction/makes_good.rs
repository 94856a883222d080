//! What a lift uses up beside the springs, as far as a part of its own makes it good.

/// One thing that a lift uses up, as a length.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MakesGood {
    /// Slack of the brake hose.
    HoseSlack,
    /// What a shock draws out by.
    ShockOpens,
    /// What a shock closes by.
    ShockCloses,
    /// The leg of the U-bolts, all of it.
    UBoltLeg,
    /// How far the track bar's end on the frame lies above its end on the axle.
    TrackBarDrop,
    /// The track bar's length.
    TrackBarLength,
    /// How far the radius arms' ends on the frame lie above where they lay.
    RadiusArmDrop,
    /// How far the differential lies above the wheels' ends of its shafts.
    DifferentialDrop,
    /// The length of the sway bar's links.
    BarLinks,
}
