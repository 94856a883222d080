//! Defects, and what each one means for the job.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::correction::Work;

use super::area::{Area, Grade};

/// Something found wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Defect {
    /// A leaf is cracked.
    LeafCracked,
    /// A leaf is broken.
    LeafBroken,
    /// A leaf is missing.
    LeafMissing,
    /// A leaf has shifted out of its place.
    LeafShifted,
    /// A leaf was drilled.
    LeafDrilled,
    /// A leaf was welded or heated.
    LeafWelded,
    /// A wedge of somebody's own making sits in the pack.
    HomeMadeWedge,
    /// Rust has eaten into the leaves.
    LeafPitted,
    /// The leaves rub on each other dry, or rusted together.
    LeavesDry,
    /// A spring eye is worn or has opened.
    EyeWorn,
    /// A bush is worn out.
    BushWorn,
    /// The centre bolt is sheared, and the axle may have moved.
    CentreBoltSheared,
    /// The centre bolt is loose.
    CentreBoltLoose,
    /// A clip is open or missing.
    ClipOpenOrMissing,
    /// A U-bolt is stretched, or was used before.
    UBoltStretched,
    /// A U-bolt is loose.
    UBoltLoose,
    /// A spring seat is worn or cracked.
    SeatDamaged,
    /// Blocks stand on blocks.
    StackedBlocks,
    /// A block sits on a steered axle.
    BlockOnSteeredAxle,
    /// A shackle or its bolt is worn.
    ShackleWorn,
    /// A hanger is cracked or loose.
    HangerCracked,
    /// The frame is cracked.
    FrameCracked,
    /// Rust has eaten into the frame.
    FrameRusted,
    /// A captive nut is gone or turns.
    CaptiveNutGone,
    /// A bump stop has been hitting.
    StopHasBeenHitting,
    /// A bump stop is missing or perished.
    StopMissing,
    /// A shock leaks or is worn out for what it carries.
    ShockWorn,
    /// A shock's body or rod shows that it has closed up: bottomed.
    ShockWitnessMark,
    /// A shock has been drawn out to its full length: topped out.
    ShockToppedOut,
    /// A shock's mount is cracked or bent.
    ShockMountDamaged,
    /// An anti-roll link is broken or off.
    LinkBroken,
    /// A link or the bar has been rubbing.
    LinkWitnessMark,
    /// A brake hose is at its limit with the axle hanging.
    HoseAtLimit,
    /// A brake hose or line is chafed or rusted through its cover.
    HoseChafed,
    /// A wire is broken inside a whole sheath.
    WireBrokenInSheath,
    /// Tyres across an axle differ in size, pressure or wear.
    TyresUnlike,
    /// A tread is worn past its limit.
    TreadWornOut,
    /// A wheel is cracked, or its seats are drawn out.
    WheelCracked,
    /// A shaft joint is worn.
    JointWorn,
    /// The shaft has been touching something.
    ShaftWitnessMark,
    /// An air bag or its line leaks or is chafed.
    AirLeak,
    /// A coil or torsion bar is cracked, broken or out of its seat.
    CoilBroken,
    /// A coil's isolator or seat is worn through or missing.
    IsolatorWorn,
    /// A ball joint or another joint of the steering has play.
    SteeringJointWorn,
}

/// A thing to be done along with the job: a repair, or what is ordered for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Addition {
    /// A new leaf in the place of the one that failed, eye and all.
    NewLeaf,
    /// A new pack.
    NewPack,
    /// The shock's mount mended or renewed.
    ShockMount,
    /// New U-bolts, both sides.
    NewUBolts,
    /// A longer brake hose, or its bracket moved.
    LongerHose,
    /// New hose or line.
    NewHose,
    /// New bushes.
    NewBushes,
    /// New centre bolt.
    NewCentreBolt,
    /// Clips closed or new ones bolted on.
    Clips,
    /// A pair of shocks.
    Shocks,
    /// Longer shocks, or their mounts moved.
    LongerShocks,
    /// Shocks that close further, or their mounts moved.
    ShorterShocks,
    /// A pair of bump stops.
    BumpStops,
    /// Shackles and their bolts.
    Shackles,
    /// Lamps tried and the wire mended.
    LampCheck,
    /// A nut that holds, without welding near the spring.
    CaptiveNut,
    /// Links.
    Links,
    /// Tyres or pressures made alike across the axle before anything is read again.
    TyresAlike,
    /// One block in place of several, or the spring made right instead.
    OneBlock,
    /// The wedge taken out.
    WedgeOut,
    /// Joint of the shaft.
    ShaftJoint,
    /// Air line or bag.
    AirLine,
    /// A pair of coils, or of torsion bars.
    NewCoils,
    /// Isolators, both sides.
    Isolators,
    /// The joint renewed, and the alignment set.
    SteeringJoint,
}

impl Addition {
    /// Every one.
    pub const ALL: [Addition; 25] = [
        Addition::NewLeaf,
        Addition::NewPack,
        Addition::ShockMount,
        Addition::NewUBolts,
        Addition::LongerHose,
        Addition::NewHose,
        Addition::NewBushes,
        Addition::NewCentreBolt,
        Addition::Clips,
        Addition::Shocks,
        Addition::LongerShocks,
        Addition::ShorterShocks,
        Addition::BumpStops,
        Addition::Shackles,
        Addition::LampCheck,
        Addition::CaptiveNut,
        Addition::Links,
        Addition::TyresAlike,
        Addition::OneBlock,
        Addition::WedgeOut,
        Addition::ShaftJoint,
        Addition::AirLine,
        Addition::NewCoils,
        Addition::Isolators,
        Addition::SteeringJoint,
    ];

    /// The defects that are cured once it is done: what a new bush does, it does not do to a worn eye.
    pub fn cures(self) -> &'static [Defect] {
        use Defect::*;
        match self {
            Addition::NewLeaf => &[LeafCracked, LeafBroken, LeafMissing, LeafDrilled, LeafWelded, EyeWorn],
            Addition::NewPack => &[
                LeafCracked,
                LeafBroken,
                LeafMissing,
                LeafShifted,
                LeafDrilled,
                LeafWelded,
                LeafPitted,
                LeavesDry,
                EyeWorn,
                BushWorn,
            ],
            Addition::ShockMount => &[ShockMountDamaged],
            Addition::NewUBolts => &[UBoltStretched, UBoltLoose],
            Addition::LongerHose => &[HoseAtLimit],
            Addition::NewHose => &[HoseAtLimit, HoseChafed],
            Addition::NewBushes => &[BushWorn],
            Addition::NewCentreBolt => &[CentreBoltSheared, CentreBoltLoose],
            Addition::Clips => &[ClipOpenOrMissing],
            Addition::Shocks => &[ShockWorn],
            Addition::LongerShocks => &[ShockToppedOut],
            Addition::ShorterShocks => &[],
            Addition::BumpStops => &[StopMissing],
            Addition::Shackles => &[ShackleWorn],
            Addition::LampCheck => &[WireBrokenInSheath],
            Addition::CaptiveNut => &[CaptiveNutGone],
            Addition::Links => &[LinkBroken],
            Addition::TyresAlike => &[TyresUnlike],
            Addition::OneBlock => &[StackedBlocks],
            Addition::WedgeOut => &[HomeMadeWedge],
            Addition::ShaftJoint => &[JointWorn],
            Addition::AirLine => &[AirLeak],
            Addition::NewCoils => &[CoilBroken],
            Addition::Isolators => &[IsolatorWorn],
            Addition::SteeringJoint => &[SteeringJointWorn],
        }
    }
}

/// What a defect means.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DefectRule {
    /// Where it is found.
    pub area: Area,
    /// The mildest grade it can be given.
    pub least: Grade,
    /// What it bars, beside everything that a "stop" bars.
    pub bars: &'static [Work],
    /// What it adds to the job.
    pub adds: &'static [Addition],
    /// Where the rule comes from.
    pub source: &'static str,
}

const PRACTICE: &str = "common practice";
/// The sense of the regulation, from memory: no leaf cracked, broken, missing or shifted out of position.
const LEAF_RULE: &str = "49 CFR 393.207(c): no leaf cracked, broken, missing or shifted (its sense, from memory)";
const POSITION_RULE: &str =
    "49 CFR 393.207(a): no axle positioning part cracked, broken, loose or missing (its sense, from memory)";
const COIL_RULE: &str = "49 CFR 393.207(d): no coil spring cracked or broken (its sense, from memory)";
const STEERING_RULE: &str = "49 CFR 393.209: no steering joint worn or loose past its limit (its sense, from memory)";
const FRAME_RULE: &str = "49 CFR 393.201: no frame cracked, loose or broken (its sense, from memory)";
const TREAD_RULE: &str = "49 CFR 393.75: tread 4/32 in on a steered axle, 2/32 in elsewhere (from memory)";
const WHEEL_RULE: &str = "49 CFR 393.205: no wheel cracked or broken (its sense, from memory)";
const HOSE_RULE: &str = "49 CFR 393.45: brake hose and tubing not chafed, damaged or leaking (its sense, from memory)";

impl Defect {
    /// Every defect, area by area.
    pub const ALL: [Defect; 44] = [
        Defect::LeafCracked,
        Defect::LeafBroken,
        Defect::LeafMissing,
        Defect::LeafShifted,
        Defect::LeafDrilled,
        Defect::LeafWelded,
        Defect::HomeMadeWedge,
        Defect::LeafPitted,
        Defect::LeavesDry,
        Defect::EyeWorn,
        Defect::BushWorn,
        Defect::CentreBoltSheared,
        Defect::CentreBoltLoose,
        Defect::ClipOpenOrMissing,
        Defect::UBoltStretched,
        Defect::UBoltLoose,
        Defect::SeatDamaged,
        Defect::StackedBlocks,
        Defect::BlockOnSteeredAxle,
        Defect::ShackleWorn,
        Defect::HangerCracked,
        Defect::FrameCracked,
        Defect::FrameRusted,
        Defect::CaptiveNutGone,
        Defect::StopHasBeenHitting,
        Defect::StopMissing,
        Defect::ShockWorn,
        Defect::ShockWitnessMark,
        Defect::ShockToppedOut,
        Defect::ShockMountDamaged,
        Defect::LinkBroken,
        Defect::LinkWitnessMark,
        Defect::HoseAtLimit,
        Defect::HoseChafed,
        Defect::WireBrokenInSheath,
        Defect::TyresUnlike,
        Defect::TreadWornOut,
        Defect::WheelCracked,
        Defect::JointWorn,
        Defect::ShaftWitnessMark,
        Defect::AirLeak,
        Defect::CoilBroken,
        Defect::IsolatorWorn,
        Defect::SteeringJointWorn,
    ];

    /// What it means for the job.
    pub fn rule(self) -> DefectRule {
        use Addition as A;
        use Area::*;
        use Defect::*;
        use Grade::{PutRight, Stop, Watch};
        use Work as B;
        let rule = |area, least, bars, adds, source| DefectRule { area, least, bars, adds, source };
        match self {
            LeafCracked | LeafBroken | LeafMissing | LeafShifted => {
                rule(Leaves, Stop, &[], &[A::NewLeaf, A::NewCentreBolt], LEAF_RULE)
            }
            // A hole or a weld is where the next crack begins: the leaf is not worked on or added to.
            LeafDrilled | LeafWelded => rule(Leaves, PutRight, &[B::AddedLeaf, B::Rearching], &[A::NewLeaf], PRACTICE),
            HomeMadeWedge => rule(Leaves, PutRight, &[], &[A::WedgeOut], PRACTICE),
            LeafPitted => rule(Leaves, Watch, &[B::Rearching], &[], PRACTICE),
            LeavesDry => rule(Leaves, Watch, &[], &[], PRACTICE),
            EyeWorn => rule(EyesAndBushes, PutRight, &[B::AddedLeaf, B::Rearching, B::Shackle], &[A::NewLeaf], PRACTICE),
            BushWorn => rule(EyesAndBushes, PutRight, &[B::AddedLeaf, B::Shackle], &[A::NewBushes], PRACTICE),
            CentreBoltSheared => rule(CentreBolt, Stop, &[], &[A::NewCentreBolt, A::NewUBolts], POSITION_RULE),
            CoilBroken => rule(CoilSeats, Stop, &[], &[A::NewCoils], COIL_RULE),
            IsolatorWorn => rule(CoilSeats, PutRight, &[B::CoilSeat], &[A::Isolators], PRACTICE),
            SteeringJointWorn => rule(SteeringJoints, Stop, &[], &[A::SteeringJoint], STEERING_RULE),
            CentreBoltLoose => rule(CentreBolt, PutRight, &[], &[A::NewCentreBolt, A::NewUBolts], PRACTICE),
            ClipOpenOrMissing => rule(Clips, PutRight, &[], &[A::Clips], PRACTICE),
            UBoltStretched => rule(UBoltsAndSeats, PutRight, &[], &[A::NewUBolts], PRACTICE),
            UBoltLoose => rule(UBoltsAndSeats, PutRight, &[], &[A::NewUBolts], POSITION_RULE),
            SeatDamaged => rule(UBoltsAndSeats, Stop, &[], &[], POSITION_RULE),
            StackedBlocks => rule(UBoltsAndSeats, Stop, &[B::Block], &[A::OneBlock, A::NewUBolts], PRACTICE),
            BlockOnSteeredAxle => rule(UBoltsAndSeats, Stop, &[B::Block], &[A::NewUBolts], PRACTICE),
            ShackleWorn => rule(ShacklesAndHangers, PutRight, &[B::WholePack], &[A::Shackles], PRACTICE),
            HangerCracked => rule(ShacklesAndHangers, Stop, &[], &[], POSITION_RULE),
            FrameCracked => rule(Frame, Stop, &[], &[], FRAME_RULE),
            FrameRusted => rule(Frame, Watch, &[B::BearsOnTheFrame], &[], PRACTICE),
            CaptiveNutGone => rule(Frame, PutRight, &[], &[A::CaptiveNut], PRACTICE),
            StopHasBeenHitting => rule(BumpStops, Watch, &[], &[], PRACTICE),
            StopMissing => rule(BumpStops, PutRight, &[], &[A::BumpStops], PRACTICE),
            ShockWorn => rule(Shocks, PutRight, &[], &[A::Shocks], PRACTICE),
            ShockWitnessMark => rule(Shocks, Watch, &[], &[], PRACTICE),
            ShockToppedOut => rule(Shocks, PutRight, &[], &[A::LongerShocks], PRACTICE),
            ShockMountDamaged => rule(Shocks, PutRight, &[], &[A::ShockMount], PRACTICE),
            LinkBroken => rule(AntiRollBar, PutRight, &[], &[A::Links], PRACTICE),
            LinkWitnessMark => rule(AntiRollBar, Watch, &[], &[], PRACTICE),
            HoseAtLimit => rule(HosesAndWires, PutRight, &[], &[A::LongerHose], PRACTICE),
            HoseChafed => rule(HosesAndWires, Stop, &[], &[A::NewHose], HOSE_RULE),
            WireBrokenInSheath => rule(HosesAndWires, PutRight, &[], &[A::LampCheck], PRACTICE),
            TyresUnlike => rule(TyresAndWheels, PutRight, &[], &[A::TyresAlike], PRACTICE),
            TreadWornOut => rule(TyresAndWheels, Stop, &[], &[], TREAD_RULE),
            WheelCracked => rule(TyresAndWheels, Stop, &[], &[], WHEEL_RULE),
            JointWorn => rule(Driveline, PutRight, &[], &[A::ShaftJoint], PRACTICE),
            ShaftWitnessMark => rule(Driveline, Watch, &[], &[], PRACTICE),
            AirLeak => rule(AirHelper, PutRight, &[], &[A::AirLine], PRACTICE),
        }
    }

    /// The defects of an area.
    pub fn of_area(area: Area) -> impl Iterator<Item = Defect> {
        Self::ALL.into_iter().filter(move |defect| defect.rule().area == area)
    }
}
