//! What else changes with an option, from the job's own figures: hose, shock, stop, U-bolts, shaft and seat.
//!
//! A row a kind; each says what it makes of the parts, and nothing where the figure that it hangs on was not taken.

use wise_badger_mechanics::correction::{Axles, Correction};
use wise_badger_mechanics::pack::shim_for;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::side_effect::driveline::shaft_angles;
use wise_badger_mechanics::units::{Angle, InShopUnits, Length, inches, metres, radians};

use crate::bench::SideBench;
use crate::look_over::{Addition, LookOver, Measure};
use crate::prediction::Prediction;

/// One thing that changes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Consequence {
    /// Slack of the shortest brake hose at full droop.
    HoseSlack {
        /// As it was taken.
        measured: Length,
        /// How much lower the axle hangs.
        hangs_lower: Length,
    },
    /// What a rear shock can still draw out by, as the vehicle stands empty.
    ShockRod {
        /// As it was taken.
        measured: Length,
        /// How much further the axle stands from the frame.
        rise: Length,
    },
    /// The rear stops stand further off the axle by so much.
    StopOpens(Length),
    /// The rear U-bolts reach round so much more.
    UBoltLeg {
        /// The leg as it was taken, where it was.
        measured: Option<Length>,
        /// How much longer it must be.
        longer: Length,
    },
    /// The shaft's slope, down to the rear positive.
    Shaft {
        /// As it stands empty.
        before: Angle,
        /// With the option.
        after: Angle,
    },
    /// It never bears in any state that was read.
    NeverBears,
    /// The seat, and the pinion with it, turn by so much, nose up positive.
    SeatTurns(Angle),
    /// A tapered part turns the pinion by so much on purpose, nose up positive.
    PinionTurned(Angle),
}

/// Less than this of slack or rod is none to spare (common practice).
const TO_SPARE_IN: f64 = 1.0;
/// Changes smaller than this nobody sees.
const NOTHING_M: f64 = 2e-4;

impl Consequence {
    /// What is left of a length that the option uses up; negative, it comes short by so much.
    pub fn left(&self) -> Option<Length> {
        match self {
            Consequence::HoseSlack { measured, hangs_lower } => Some(*measured - *hangs_lower),
            Consequence::ShockRod { measured, rise } => Some(*measured - *rise),
            _ => None,
        }
    }

    /// What has to be put right along with the option, because of it.
    pub fn asks_for(&self) -> Option<Addition> {
        let short = self.left()? < inches(TO_SPARE_IN) - metres(1e-6);
        let addition = match self {
            Consequence::HoseSlack { .. } => Addition::LongerHose,
            Consequence::ShockRod { .. } => Addition::LongerShocks,
            _ => return None,
        };
        short.then_some(addition)
    }
}

/// What the rows go by.
#[derive(Clone, Copy)]
pub struct OptionFitted<'a> {
    /// Its parts.
    pub parts: &'a [Correction],
    /// Where it would leave the vehicle, where that is predicted.
    pub prediction: Option<&'a Prediction>,
    /// The benches that its packs were planned on.
    pub benches: &'a [SideBench],
    /// What was found and measured.
    pub look_over: &'a LookOver,
}

impl OptionFitted<'_> {
    fn at_the_rear(&self) -> impl Iterator<Item = &Correction> {
        self.parts.iter().filter(|part| part.site().axles != Axles::Front)
    }

    /// What the parts at the rear come to together.
    fn at_the_rear_together(&self, of: fn(&Correction) -> Length) -> Length {
        together(self.at_the_rear(), of)
    }

    /// How far the rear comes up empty.
    fn rise(&self) -> Option<Length> {
        self.prediction?.empty.as_ref().ok().map(|empty| empty.rise.value)
    }
}

type Row = fn(&OptionFitted<'_>) -> Option<Consequence>;

/// Every kind, in the order told.
static ROWS: &[Row] = &[never_bears, hose, shock, stop, u_bolts, shaft, seat, taper];

/// Everything that changes with an option.
pub fn consequences(option: &OptionFitted<'_>) -> Vec<Consequence> {
    ROWS.iter().filter_map(|row| row(option)).collect()
}

/// What parts of one end come to together, on the side where that is most: parts on either side do not add up.
fn together<'a>(parts: impl Iterator<Item = &'a Correction>, of: fn(&Correction) -> Length) -> Length {
    let mut sides = Sides::both(Length::default());
    for part in parts {
        for side in Side::BOTH.into_iter().filter(|side| part.site().side.is_none_or(|only| only == *side)) {
            *sides.get_mut(side) += of(part);
        }
    }
    if sides.right.abs() > sides.left.abs() { sides.right } else { sides.left }
}

fn is_something(length: Length) -> bool {
    length.si().abs() > NOTHING_M
}

/// A helper or a rubber by itself that changes nothing anywhere hangs there for nothing.
fn never_bears(option: &OptionFitted<'_>) -> Option<Consequence> {
    let [part] = option.parts else { return None };
    part.set_to_a_clearance()?;
    let rises: Vec<Length> = option.prediction?.each().filter_map(|(_, state)| Some(state.as_ref().ok()?.rise.value)).collect();
    (!rises.is_empty() && !rises.into_iter().any(is_something)).then_some(Consequence::NeverBears)
}

/// Of the shortest hose it is not known which axle's it is: the end that hangs lower counts.
fn hose(option: &OptionFitted<'_>) -> Option<Consequence> {
    let measured = option.look_over.measured(Measure::HoseSlack)?;
    let at = |front: bool| -> Length {
        let there = option.parts.iter().filter(|part| (part.site().axles == Axles::Front) == front);
        together(there, Correction::hangs_lower)
    };
    let hangs_lower = at(true).max(at(false));
    is_something(hangs_lower).then_some(Consequence::HoseSlack { measured, hangs_lower })
}

fn shock(option: &OptionFitted<'_>) -> Option<Consequence> {
    let (measured, rise) = (option.look_over.measured(Measure::ShockRod)?, option.rise()?);
    is_something(rise).then_some(Consequence::ShockRod { measured, rise })
}

fn stop(option: &OptionFitted<'_>) -> Option<Consequence> {
    let opens = option.at_the_rear_together(Correction::opens_the_stop);
    is_something(opens).then_some(Consequence::StopOpens(opens))
}

fn u_bolts(option: &OptionFitted<'_>) -> Option<Consequence> {
    let higher = |bench: &SideBench| bench.work.packs.planned.stack() - bench.work.packs.found.stack();
    // The longest leg of either side, so that it reaches on both.
    let stack = option.benches.iter().map(higher).reduce(Length::max).unwrap_or_default();
    let longer = option.at_the_rear_together(Correction::off_the_seat) + stack;
    let measured = option.look_over.measured(Measure::UBoltLeg);
    is_something(longer).then_some(Consequence::UBoltLeg { measured, longer })
}

fn shaft(option: &OptionFitted<'_>) -> Option<Consequence> {
    let (length, drop) = (option.look_over.measured(Measure::ShaftLength)?, option.look_over.measured(Measure::ShaftDrop)?);
    let rise = option.rise().filter(|rise| is_something(*rise))?;
    // Measured along the shaft, the span is a little shorter; the rear joint comes down from the frame as the frame comes up.
    let slope = |drop: Length| {
        let span = metres((length.si().powi(2) - drop.si().powi(2)).max(0.0).sqrt());
        shaft_angles(drop, span, radians(0.0), radians(0.0)).ok().map(|angles| angles.shaft)
    };
    Some(Consequence::Shaft { before: slope(drop)?, after: slope(drop + rise)? })
}

fn seat(option: &OptionFitted<'_>) -> Option<Consequence> {
    let of_packs = option.benches.iter().filter_map(|bench| bench.work.seat_turned());
    let of_packs = furthest(of_packs);
    // One shackle a corner: those of both sides turn their own seats.
    let by_itself = of_packs + furthest(option.at_the_rear().map(Correction::turns_the_seat));
    // What a taper turns on purpose is told by itself, and takes from what a shim would have to.
    shim_for(by_itself)?;
    let turned = by_itself + furthest(option.at_the_rear().map(Correction::tapers));
    shim_for(turned).map(|_| Consequence::SeatTurns(turned))
}

fn taper(option: &OptionFitted<'_>) -> Option<Consequence> {
    let turned = furthest(option.at_the_rear().map(Correction::tapers));
    shim_for(turned).map(|_| Consequence::PinionTurned(turned))
}

/// The widest of some angles, with its sign.
fn furthest(angles: impl Iterator<Item = Angle>) -> Angle {
    angles.reduce(|one, other| if other.abs() > one.abs() { other } else { one }).unwrap_or(radians(0.0))
}
