//! Brackets that bring down the radius arms' ends on the frame, so that a front axle turns back with its caster.

use super::beside::{Sort, read};
use super::{Caution, Ends, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "radius_arm_drop",
    figures: &[KindFigure::within("dropped", Bound::inches(0.25, 8.0), PartDoubt::Exact)],
    ends: Ends::Front,
    goes_on_one_side: false,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| read(&RADIUS_ARM_DROP, given),
};

static RADIUS_ARM_DROP: Sort = Sort {
    row: &ROW,
    figure: "dropped",
    makes_good: MakesGood::RadiusArmDrop,
    takes_up: TakesUp::RadiusArms,
    work: Work::BearsOnTheFrame,
    cautions: &[
        Caution::AxleHeld,
        Caution::PivotsAtRideHeight,
        Caution::HoseSlack,
        Caution::ShockLength,
        Caution::DrivelineAngle,
        Caution::WheelNuts,
        Caution::AimAndAlignment,
    ],
};
