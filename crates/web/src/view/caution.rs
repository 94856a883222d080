//! The words of the cautions.

use askama::Template;
use wise_badger_mechanics::correction::Caution;

/// How many stand open; the others are folded under them.
const OPEN: usize = 3;

/// The cautions of a correction, all of them.
#[derive(Template)]
#[template(path = "parts/cautions.html")]
pub(crate) struct Cautions {
    all: Vec<&'static str>,
}

impl Cautions {
    pub(crate) fn of(cautions: &[Caution]) -> Self {
        Cautions { all: cautions.iter().copied().map(caution_text).collect() }
    }

    fn open(&self) -> &[&'static str] {
        self.all.get(..OPEN).unwrap_or(&self.all)
    }

    fn folded(&self) -> &[&'static str] {
        self.all.get(OPEN..).unwrap_or_default()
    }
}

impl askama::filters::HtmlSafe for Cautions {}

pub(crate) fn caution_text(caution: Caution) -> &'static str {
    match caution {
        Caution::AddsNoCapacity => "It adds no capacity: it raises no axle, tire, wheel or gross rating.",
        Caution::OneBlockOnly => {
            "Rear axle only, one block a side. Never stack blocks; a block already there is replaced, not added to."
        }
        Caution::NewUBolts => "New U-bolts and nuts every time. Torque them again with the weight on, and after the first miles.",
        Caution::HoseSlack => "Before the first drive: slack in brake hoses, lines and sensor wires at full droop.",
        Caution::DrivelineAngle => "The shaft angle changes with the height; check it, and shim if the maker's limit says so.",
        Caution::ShockLength => "Shocks: neither at full length at droop nor bottomed at full bump with the new height.",
        Caution::PivotsAtRideHeight => {
            "Tighten eyes, shackles and other bonded pivots at ride height, never with the axle hanging."
        }
        Caution::PinSeated => "The head of the center bolt sits in its hole before the U-bolts are drawn up.",
        Caution::ClampsDraw => "Clamps draw a pack together; the center bolt never does.",
        Caution::BarLinks => "Sway bar links: free, straight and not at their end at the new height.",
        Caution::WheelNuts => "Wheel nuts by torque wrench to the maker's figure, and again after the first 50 to 100 miles.",
        Caution::AimAndAlignment => "Afterward: headlight aim, alignment and the load-sensing brake valve.",
        Caution::AlignmentAndHitch => "Afterward: axle alignment, hitch height and tire clearance at full bump.",
        Caution::FirmerEmpty => "It rides firmer empty as well as loaded; say so to the customer first.",
        Caution::SetEqualSides => "Set it with the weight on, the same both sides, then lock it.",
        Caution::TravelUsed => "It takes up bump travel; check tire and frame clearance at full bump.",
        Caution::StoredEnergy => {
            "A pack under clamps stores energy: clamp it before the center bolt goes, and wear eye protection."
        }
        Caution::CoilStoresEnergy => {
            "A coil under load stores energy: take it off it by the maker's method, and keep clear of its ends."
        }
        Caution::TireClearance => {
            "Room at full lock and at full bump, a load index no lower, a spare that fits, and what the speed then reads: check all four."
        }
        Caution::SeatsWelded => {
            "New spring seats are welded by a licensed welder, square to the axle and at the angle of the old ones."
        }
        Caution::ChargedBag => {
            "A charged bag stores energy: let all air out before anything is loosened or the frame is jacked up."
        }
        Caution::BagKept => {
            "Never below the bag's least pressure on the road, nor past its most; clear of the exhaust and of every edge, at full bump and droop."
        }
        Caution::SharedLine => {
            "On one shared line air goes across and holds up no lean; with a line a side, set both to the gauge."
        }
        Caution::UnequalPair => {
            "Stand both new ones side by side: the taller goes on the driver's side, unless the readings lean the other way."
        }
        Caution::CoilSeated => "Both ends of each coil in their pockets, isolators in, at full droop too.",
        Caution::CoilBind => "At the stop the coil is shorter by the spacer: check at full bump that it does not bind first.",
        Caution::ShackleSlope => "Shackles neither lie flat nor turn over: look at their slope empty, loaded and at full droop.",
        Caution::SoundPackOnly => "Only on a sound pack: no cracked, broken or shifted leaf, no worn eyes or bushings.",
        Caution::OneSideOnly => "One side only: first know why it leans, look at both packs, and weigh both corners afterward.",
        Caution::SteeredAxle => "A steered axle: alignment, steering stops and hose slack checked before it drives.",
        Caution::OneAxleOfSeveral => "One axle of several: it then carries more than its share; keep to that axle's own rating.",
        Caution::BrakesBled => "A brake circuit that was opened is bled, and the pedal firm, before the vehicle moves.",
        Caution::GasShock => "A gas shock drives its rod out by itself: hold it until the strap is off and both bolts are in.",
        Caution::AxleHeld => {
            "With arms, bars or shocks loose the axle may roll or drop: wheels chocked, axle carried, body on stands."
        }
        Caution::HeavyOnAJack => "Lower the differential on a jack made for it, strapped down, never by its bolts.",
        Caution::SteeringParallel => {
            "In front, track bar and drag link stay parallel: bring both down alike, or the wheel turns by itself over bumps."
        }
        Caution::TakesASet => "A new arch takes a set in the first weeks; measure again after it has settled.",
    }
}
