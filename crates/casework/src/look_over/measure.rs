//! Figures taken during the look-over where a number decides.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use super::area::Area;
use super::defect::Defect;

/// What is measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    /// Slack left in the shortest brake hose with the axle hanging at full droop.
    HoseSlack,
    /// Play of the pin in a spring eye's bush.
    BushPlay,
    /// Least tread on a steered axle.
    FrontTread,
    /// Least tread elsewhere.
    RearTread,
    /// What a rear shock could still draw out by, as the vehicle stands empty.
    ShockRod,
    /// What a rear shock could still close by, as the vehicle stands empty.
    ShockCloses,
    /// What a front shock could still draw out by, as the vehicle stands empty.
    FrontShockRod,
    /// Leg of the rear U-bolts, from inside the bend to the end.
    UBoltLeg,
    /// Length of the shaft between its joints.
    ShaftLength,
    /// How much lower its rear joint lies than its front one, as the vehicle stands empty.
    ShaftDrop,
    /// Length of a front half-shaft between its joints.
    HalfShaftLength,
    /// How much lower its outer joint lies than its inner one, as the vehicle stands empty.
    HalfShaftDrop,
    /// Length of the front track bar between its ends.
    FrontTrackBarLength,
    /// How much lower its end on the axle lies than its end on the frame, as the vehicle stands empty.
    FrontTrackBarDrop,
    /// Length of the rear track bar between its ends.
    RearTrackBarLength,
    /// How much lower its end on the axle lies than its end on the frame, as the vehicle stands empty.
    RearTrackBarDrop,
    /// Length of the front radius arms, from the middle of the axle to their end on the frame.
    RadiusArmLength,
}

impl Measure {
    /// Every measure.
    pub const ALL: [Measure; 17] = [
        Measure::HoseSlack,
        Measure::BushPlay,
        Measure::FrontTread,
        Measure::RearTread,
        Measure::ShockRod,
        Measure::ShockCloses,
        Measure::FrontShockRod,
        Measure::UBoltLeg,
        Measure::ShaftLength,
        Measure::ShaftDrop,
        Measure::HalfShaftLength,
        Measure::HalfShaftDrop,
        Measure::FrontTrackBarLength,
        Measure::FrontTrackBarDrop,
        Measure::RearTrackBarLength,
        Measure::RearTrackBarDrop,
        Measure::RadiusArmLength,
    ];

    /// Where it is taken.
    pub fn area(self) -> Area {
        match self {
            Measure::HoseSlack => Area::HosesAndWires,
            Measure::BushPlay => Area::EyesAndBushes,
            Measure::FrontTread | Measure::RearTread => Area::TyresAndWheels,
            Measure::ShockRod | Measure::ShockCloses | Measure::FrontShockRod => Area::Shocks,
            Measure::UBoltLeg => Area::UBoltsAndSeats,
            Measure::ShaftLength | Measure::ShaftDrop | Measure::HalfShaftLength | Measure::HalfShaftDrop => Area::Driveline,
            Measure::FrontTrackBarLength
            | Measure::FrontTrackBarDrop
            | Measure::RearTrackBarLength
            | Measure::RearTrackBarDrop
            | Measure::RadiusArmLength => Area::CoilSeats,
        }
    }

    /// The figure that decides; none of one that is taken only for what a lift does to it.
    ///
    /// # Source     slack of an inch and play of an eighth: common practice; treads: 49 CFR 393.75, 4/32 in on a steered axle
    /// and 2/32 in elsewhere, from memory (local law may ask for more)
    pub fn limit(self) -> Option<Length> {
        match self {
            Measure::HoseSlack => Some(inches(1.0)),
            Measure::BushPlay => Some(inches(1.0 / 8.0)),
            Measure::FrontTread => Some(inches(4.0 / 32.0)),
            Measure::RearTread => Some(inches(2.0 / 32.0)),
            _ => None,
        }
    }
}

/// A figure that was taken.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measured {
    /// What.
    pub what: Measure,
    /// How much.
    pub value: Length,
}

impl Measured {
    /// The defect it amounts to, if any.
    pub fn defect(&self) -> Option<Defect> {
        // What was typed as the limit itself must not fall to either side by rounding.
        let past = self.value.si() - self.what.limit()?.si();
        match self.what {
            Measure::HoseSlack => (past < -1e-6).then_some(Defect::HoseAtLimit),
            Measure::BushPlay => (past > 1e-6).then_some(Defect::BushWorn),
            Measure::FrontTread | Measure::RearTread => (past < -1e-6).then_some(Defect::TreadWornOut),
            _ => None,
        }
    }
}
