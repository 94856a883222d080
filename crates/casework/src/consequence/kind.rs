//! The things that change with an option, and what of each is left.

use wise_badger_mechanics::units::{Angle, Length, inches, metres};

use crate::look_over::Addition;
use crate::survey::{End, LoadState};

/// One thing that changes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Consequence {
    /// Slack of the shortest brake hose at full droop.
    HoseSlack {
        /// Of the end that is left with less.
        end: End,
        /// As it was taken.
        measured: Length,
        /// How much lower the axle hangs.
        hangs_lower: Length,
        /// How much longer the hose is made.
        longer: Length,
    },
    /// What a shock can still draw out by, as the vehicle stands empty.
    ShockRod {
        /// At which end.
        end: End,
        /// As it was taken.
        measured: Length,
        /// How much further its mounts stand apart.
        apart: Length,
        /// How much further other shocks draw out.
        longer: Length,
    },
    /// What a rear shock can still close by, as the vehicle stands empty.
    ShockCloses {
        /// As it was taken.
        measured: Length,
        /// How much further its mounts stand apart.
        apart: Length,
        /// How much further other shocks close.
        further: Length,
        /// The travel to the stop, where it is known: the shock must not end it before.
        stop: Option<Length>,
        /// The same as it is, without the option.
        stop_before: Option<Length>,
    },
    /// The rear stops stand further off the axle by so much.
    StopOpens(Length),
    /// The rear U-bolts reach round so much more.
    UBoltLeg {
        /// The leg as it was taken, where it was.
        measured: Option<Length>,
        /// How much longer it must be.
        longer: Length,
        /// The leg of new ones in the option.
        new: Option<Length>,
    },
    /// The shaft's slope, down to the rear positive.
    Shaft {
        /// As it stands empty.
        before: Angle,
        /// With the option.
        after: Angle,
    },
    /// The slope of the front half-shafts, down to the wheel positive.
    HalfShaft {
        /// As it stands empty.
        before: Angle,
        /// With the option.
        after: Angle,
    },
    /// The front wheels hang so much lower at full droop, with half-shafts, ball joints and hoses.
    FrontHangsLower(Length),
    /// The track bar of an end carries its axle sideways, away from the bar's end on the frame positive.
    TrackBar {
        /// Of which end.
        end: End,
        /// By the lift alone.
        by_the_lift: Length,
        /// With what the option makes good of it.
        shift: Length,
    },
    /// The caster of the front wheels changes, more caster positive.
    Caster {
        /// As the frame tilts, rear up.
        by_rake: Angle,
        /// As the axle turns on its radius arms; nothing where it hangs on none.
        by_arms: Angle,
    },
    /// The ends of an end's sway bar stand so much further off what its links hang on than they are made for, longer links counted.
    BarLinks {
        /// Of which end.
        end: End,
        /// What the links are still short of.
        short: Length,
    },
    /// How far the overload leaf is clear in a state; negative, it bears by so much.
    OverloadLeaf {
        /// In which state.
        state: LoadState,
        /// As it is.
        before: Length,
        /// With the option.
        after: Length,
    },
    /// The rear's springs and bars stiffen against leaning, loaded where that was read: by which share, softer negative.
    AgainstLeaning {
        /// The share.
        share: f64,
        /// Whether bags are part of it, which on one shared line hold up no lean.
        with_air: bool,
    },
    /// What is left to the stop once the rear carries all that its axle is rated for; negative, it bears by so much.
    AtItsRating {
        /// As it is.
        before: Length,
        /// With the option.
        after: Length,
    },
    /// A coil of an end is pressed solid so much before the stop bears.
    CoilBindsFirst {
        /// At which end.
        end: End,
        /// How much before.
        by: Length,
    },
    /// A coil of an end is so much too short at full droop, and loose in its seats.
    CoilLoose {
        /// At which end.
        end: End,
        /// How much too short.
        by: Length,
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

impl Consequence {
    /// What is left of a length that the option uses up; negative, it comes short by so much.
    pub fn left(&self) -> Option<Length> {
        match self {
            Consequence::HoseSlack { measured, hangs_lower, longer, .. } => Some(*measured - *hangs_lower + *longer),
            Consequence::ShockRod { measured, apart, longer, .. } => Some(*measured - *apart + *longer),
            Consequence::ShockCloses { measured, apart, further, stop, .. } => {
                let closes = *measured + *apart + *further;
                Some(stop.map_or(closes, |stop| closes - stop))
            }
            Consequence::UBoltLeg { measured, longer, new } => Some((*new)? - ((*measured)? + *longer)),
            _ => None,
        }
    }

    /// What has to be put right along with the option, because of it.
    pub fn asks_for(&self) -> Option<Addition> {
        let to_spare = match self {
            Consequence::HoseSlack { .. } | Consequence::ShockRod { .. } => inches(TO_SPARE_IN),
            _ => Length::default(),
        };
        (self.left()? < to_spare - metres(1e-6)).then(|| self.cured_by()).flatten()
    }

    /// What is too short for the option: without what cures that it is not fitted.
    pub fn too_short(&self) -> Option<Addition> {
        // A shock that ended the travel before the stop as it came in is no fault of an option that makes it no worse.
        let as_it_was = match self {
            Consequence::ShockCloses { measured, stop_before: Some(stop), .. } => *measured - *stop,
            _ => Length::default(),
        };
        (self.left()? < as_it_was.min(Length::default()) - metres(1e-6)).then(|| self.cured_by()).flatten()
    }

    fn cured_by(&self) -> Option<Addition> {
        match self {
            Consequence::HoseSlack { .. } => Some(Addition::LongerHose),
            Consequence::ShockRod { .. } => Some(Addition::LongerShocks),
            Consequence::ShockCloses { .. } => Some(Addition::ShorterShocks),
            Consequence::UBoltLeg { .. } => Some(Addition::NewUBolts),
            _ => None,
        }
    }
}
