//! What else changes with an option, from the job's own figures: hose, shock, stop, U-bolts, shafts, bars, caster and seat.
//!
//! A row a kind; each says what it makes of the parts, and nothing where the figure that it hangs on was not taken.

use wise_badger_mechanics::correction::{Axles, Caution, Correction, MakesGood, TakesUp, on_the_coil_seat, solid_after};
use wise_badger_mechanics::pack::shim_for;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::side_effect::attitude::{joint_angle, track_bar_span};
use wise_badger_mechanics::side_effect::driveline::shaft_angles;
use wise_badger_mechanics::units::{Angle, InShopUnits, Length, inches, metres, radians};

use crate::bench::SideBench;
use crate::look_over::{Addition, LookOver, Measure};
use crate::prediction::{Bounce, PredictedState, Prediction, Unpredicted};
use crate::survey::{End, LoadState, Survey};

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
/// Changes smaller than this nobody sees.
const NOTHING_M: f64 = 2e-4;
/// A change of caster smaller than this nobody feels at the wheel (our own working rule).
const NOTHING_RAD: f64 = 0.25 / 180.0 * std::f64::consts::PI;

/// Between the springs of a rear axle (common practice).
const SPRING_BASE_IN: f64 = 42.0;
/// A smaller share of its roll stiffness nobody feels.
const NO_STIFFER: f64 = 0.03;

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

/// What the rows go by.
#[derive(Clone, Copy)]
pub struct OptionFitted<'a> {
    /// What was measured before it.
    pub survey: &'a Survey,
    /// Its parts.
    pub parts: &'a [Correction],
    /// Where it would leave the vehicle, where that is predicted.
    pub prediction: Option<&'a Prediction>,
    /// The benches that its packs were planned on.
    pub benches: &'a [SideBench],
    /// What was found and measured.
    pub look_over: &'a LookOver,
}

impl<'a> OptionFitted<'a> {
    fn at(&self, end: End) -> impl Iterator<Item = &'a Correction> {
        self.parts.iter().filter(move |part| (part.site().axles == Axles::Front) == (end == End::Front))
    }

    /// What the parts at an end come to together.
    fn together_at(&self, end: End, of: impl Fn(&Correction) -> Length) -> Length {
        together(self.at(end), of)
    }

    /// What the parts at an end make good.
    fn made_good_at(&self, end: End, what: MakesGood) -> Length {
        self.together_at(end, |part| part.makes_good(what))
    }

    fn empty(&self) -> Option<&'a PredictedState> {
        self.prediction?.empty.as_ref().ok()
    }

    /// How far the frame comes up off its axle at an end, empty: larger tires raise both.
    fn rise(&self, end: End) -> Option<Length> {
        let sides = self.empty()?.off_the_axle.get(end);
        Some((sides.left + sides.right) / 2.0)
    }

    /// How far the mounts of an end's shocks come apart empty, on the side where that is most: what goes up with the shock takes it along.
    fn apart(&self, end: End) -> Option<Length> {
        let sides = self.empty()?.off_the_axle.get(end);
        Some(sides.left.max(sides.right) - self.together_at(end, Correction::takes_the_shock_along))
    }

    fn measured(&self, what: Measure) -> Option<Length> {
        self.look_over.measured(what)
    }
}

type Row = fn(&OptionFitted<'_>) -> Vec<Consequence>;

/// Every kind, in the order told.
static ROWS: &[Row] = &[
    never_bears,
    hose,
    shock,
    shock_closes,
    stop,
    overload_leaf,
    against_leaning,
    at_its_rating,
    coil_binds,
    coil_loose,
    u_bolts,
    shaft,
    half_shaft,
    front_droop,
    track_bar,
    caster,
    bar_links,
    seat,
    taper,
];

/// Everything that changes with an option.
pub fn consequences(option: &OptionFitted<'_>) -> Vec<Consequence> {
    ROWS.iter().flat_map(|row| row(option)).collect()
}

/// What parts of one end come to together, on the side where that is most: parts on either side do not add up.
fn together<'a>(parts: impl Iterator<Item = &'a Correction>, of: impl Fn(&Correction) -> Length) -> Length {
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
fn never_bears(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let [part] = option.parts else { return Vec::new() };
    let Some(prediction) = option.prediction.filter(|_| part.set_to_a_clearance().is_some()) else { return Vec::new() };
    let rises: Vec<Length> = prediction.each().filter_map(|(_, state)| Some(state.as_ref().ok()?.rise.value)).collect();
    let never = !rises.is_empty() && !rises.into_iter().any(is_something);
    never.then_some(Consequence::NeverBears).into_iter().collect()
}

/// Of the shortest hose it is not known which axle's it is: the end that is left with less counts. A longer shock lets the axle hang lower
/// where the old one ended its droop.
fn hose(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let Some(measured) = option.measured(Measure::HoseSlack) else { return Vec::new() };
    let of_end = |end| {
        let by_the_shock = option.made_good_at(end, MakesGood::ShockOpens);
        let hangs_lower = option.together_at(end, Correction::hangs_lower).max(by_the_shock);
        let longer = option.made_good_at(end, MakesGood::HoseSlack);
        let touched = is_something(hangs_lower) || is_something(longer);
        touched.then_some(Consequence::HoseSlack { end, measured, hangs_lower, longer })
    };
    let ends = End::BOTH.into_iter().filter_map(of_end);
    ends.reduce(|one, other| if other.left() < one.left() { other } else { one }).into_iter().collect()
}

fn shock(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, what)| {
        let (measured, apart) = (option.measured(what)?, option.apart(end)?);
        let longer = option.made_good_at(end, MakesGood::ShockOpens);
        (is_something(apart) || is_something(longer)).then_some(Consequence::ShockRod { end, measured, apart, longer })
    };
    [(End::Rear, Measure::ShockRod), (End::Front, Measure::FrontShockRod)].into_iter().filter_map(of_end).collect()
}

fn shock_closes(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let closes = || {
        let (measured, apart) = (option.measured(Measure::ShockCloses)?, option.apart(End::Rear)?);
        let further = option.made_good_at(End::Rear, MakesGood::ShockCloses);
        let stands = option.empty()?;
        let (stop, stop_before) = (stands.travel_left, stands.travel_before);
        let changes = is_something(apart) || is_something(further);
        changes.then_some(Consequence::ShockCloses { measured, apart, further, stop, stop_before })
    };
    closes().into_iter().collect()
}

fn stop(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let opens = option.together_at(End::Rear, Correction::opens_the_stop);
    is_something(opens).then_some(Consequence::StopOpens(opens)).into_iter().collect()
}

/// What carries beside the pack takes the overload leaf off its pad by as much as it raises; a block takes the whole pack along. What
/// changes the pack itself says nothing of where its overload leaf then is.
fn overload_leaf(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let mut of_the_pack = option.at(End::Rear).map(Correction::takes_up);
    if of_the_pack.any(|takes| matches!(takes, TakesUp::MainSpring | TakesUp::OverloadLeaf)) {
        return Vec::new();
    }
    let along = option.together_at(End::Rear, Correction::off_the_seat);
    let of_state = |(state, stands): (LoadState, &Result<PredictedState, Unpredicted>)| {
        let stands = stands.as_ref().ok().filter(|_| !option.survey.manner(state).is_held_by_friction())?;
        let before = stands.overload_clear_before?;
        let rear = stands.off_the_axle.rear;
        let after = before + (rear.left + rear.right) / 2.0 - along;
        let changes = is_something(after - before) && (before.si() < 0.0 || after.si() < 0.0);
        changes.then_some(Consequence::OverloadLeaf { state, before, after })
    };
    option.prediction.into_iter().flat_map(Prediction::each).filter_map(of_state).collect()
}

/// By the axle's rate, which stands at the same base before and after; a bar by its own stiffness against that of springs 42 in apart
/// (common practice).
fn against_leaning(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let share = || {
        let prediction = option.prediction?;
        let stands = prediction.loaded.as_ref().or(prediction.empty.as_ref()).ok()?;
        let (before, after) = (stands.bounce_before?.rate.si(), stands.bounce_after?.rate.si());
        let bars: f64 = option.at(End::Rear).map(|part| part.adds_roll_stiffness().value).sum();
        let per_rate = inches(SPRING_BASE_IN).si().powi(2) / 4.0;
        let share = after / before - 1.0 + bars / (before * per_rate);
        let with_air = option.at(End::Rear).any(|part| part.cautions().contains(&Caution::SharedLine));
        (share.abs() > NO_STIFFER).then_some(Consequence::AgainstLeaning { share, with_air })
    };
    share().into_iter().collect()
}

/// From where it stands with the most on it that was read, by the rates there: a softer spring comes nearer its stop, however high it
/// stands empty.
fn at_its_rating(option: &OptionFitted<'_>) -> Vec<Consequence> {
    // What takes the stop's place is made to bear.
    if option.at(End::Rear).any(Correction::replaces_stops) {
        return Vec::new();
    }
    let left = || {
        let (prediction, vehicle) = (option.prediction?, &option.survey.vehicle);
        let stands = prediction.loaded.as_ref().or(prediction.empty.as_ref()).ok()?;
        let rated = 2.0 * vehicle.on_one_spring(vehicle.axle_ratings.rear);
        let left = |travel: Length, bounce: Bounce| travel - Length::from((rated - bounce.sprung) / bounce.rate);
        let before = left(stands.travel_before?, stands.bounce_before?);
        let after = left(stands.travel_left?, stands.bounce_after?);
        (rated.value > 0.0 && is_something(after - before)).then_some(Consequence::AtItsRating { before, after })
    };
    left().into_iter().collect()
}

/// Counted from where the corner stood empty before: the stop's gap there, and what the coil then still has to its solid height.
fn coil_binds(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |end| {
        let longer = option.at(end).filter(|part| part.takes_up() == TakesUp::Stop);
        let gap = option.survey.stop_gap.empty.least(end)? + together(longer, Correction::opens_the_stop);
        let solid = option.at(end).filter_map(|part| solid_after(option.parts, part)).reduce(Length::min)?;
        (gap > solid).then(|| Consequence::CoilBindsFirst { end, by: gap - solid })
    };
    End::BOTH.into_iter().filter_map(of_end).collect()
}

/// Full droop is what the shock draws out to, be it another.
fn coil_loose(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, rod)| {
        let droop = option.measured(rod)? + option.made_good_at(end, MakesGood::ShockOpens);
        let loose = option.at(end).filter_map(|part| Some(part.loose_after()? + on_the_coil_seat(option.parts, part)));
        let loose = loose.reduce(Length::min)?;
        (droop > loose).then(|| Consequence::CoilLoose { end, by: droop - loose })
    };
    [(End::Rear, Measure::ShockRod), (End::Front, Measure::FrontShockRod)].into_iter().filter_map(of_end).collect()
}

fn u_bolts(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let higher = |bench: &SideBench| bench.work.packs.planned.stack() - bench.work.packs.found.stack();
    // The longest leg of either side, so that it reaches on both.
    let stack = option.benches.iter().map(higher).reduce(Length::max).unwrap_or_default();
    let longer = option.together_at(End::Rear, Correction::off_the_seat) + stack;
    let new = Some(option.made_good_at(End::Rear, MakesGood::UBoltLeg)).filter(|leg| is_something(*leg));
    let leg = Consequence::UBoltLeg { measured: option.measured(Measure::UBoltLeg), longer, new };
    (is_something(longer) || new.is_some()).then_some(leg).into_iter().collect()
}

fn shaft(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let slopes = || {
        let (length, drop) = (option.measured(Measure::ShaftLength)?, option.measured(Measure::ShaftDrop)?);
        let rise = option.rise(End::Rear).filter(|rise| is_something(*rise))?;
        // Measured along the shaft, the span is a little shorter; the rear joint comes down from the frame as the frame comes up.
        let slope = |drop: Length| {
            let span = metres((length.si().powi(2) - drop.si().powi(2)).max(0.0).sqrt());
            shaft_angles(drop, span, radians(0.0), radians(0.0)).ok().map(|angles| angles.shaft)
        };
        Some(Consequence::Shaft { before: slope(drop)?, after: slope(drop + rise)? })
    };
    slopes().into_iter().collect()
}

/// The outer joint goes down from the frame as the front comes up; a differential that is lowered goes with it.
fn half_shaft(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let slopes = || {
        let (length, drop) = (option.measured(Measure::HalfShaftLength)?, option.measured(Measure::HalfShaftDrop)?);
        let lower = option.rise(End::Front)? - option.made_good_at(End::Front, MakesGood::DifferentialDrop);
        let (before, after) = (joint_angle(length, drop).ok()?, joint_angle(length, drop + lower).ok()?);
        is_something(lower).then_some(Consequence::HalfShaft { before, after })
    };
    slopes().into_iter().collect()
}

fn front_droop(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let along = option.together_at(End::Front, Correction::takes_the_shock_along);
    let lower = along + option.made_good_at(End::Front, MakesGood::ShockOpens);
    is_something(lower).then_some(Consequence::FrontHangsLower(lower)).into_iter().collect()
}

fn track_bar(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, length, drop)| {
        let (length, drop) = (option.measured(length)?, option.measured(drop)?);
        let (rise, fixed) = (option.rise(end)?, |what| option.made_good_at(end, what));
        let (down, longer) = (fixed(MakesGood::TrackBarDrop), fixed(MakesGood::TrackBarLength));
        let stands = track_bar_span(length, drop).ok()?;
        let by_the_lift = track_bar_span(length, drop + rise).ok()? - stands;
        let shift = track_bar_span(length + longer, drop + rise - down).ok()? - stands;
        let moved = is_something(by_the_lift) || is_something(shift);
        moved.then_some(Consequence::TrackBar { end, by_the_lift, shift })
    };
    let ends = [
        (End::Rear, Measure::RearTrackBarLength, Measure::RearTrackBarDrop),
        (End::Front, Measure::FrontTrackBarLength, Measure::FrontTrackBarDrop),
    ];
    ends.into_iter().filter_map(of_end).collect()
}

/// The frame that comes up behind leans the steering axis forward; so does an axle that hangs on arms, as their ends on the frame come up.
fn caster(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let changes = || {
        let by_rake = -option.empty().filter(|_| !option.survey.vehicle.class.is_trailer())?.tilt;
        let up = option.rise(End::Front)? - option.made_good_at(End::Front, MakesGood::RadiusArmDrop);
        let by_arms = option.measured(Measure::RadiusArmLength).and_then(|arm| joint_angle(arm, up).ok());
        let by_arms = by_arms.map_or(radians(0.0), |turned| -turned);
        let told = by_rake.value.abs() > NOTHING_RAD || by_arms.value.abs() > NOTHING_RAD;
        told.then_some(Consequence::Caster { by_rake, by_arms })
    };
    changes().into_iter().collect()
}

/// Told where links are in the option: whether there is a bar at all nobody says otherwise.
fn bar_links(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |end| {
        let longer = option.made_good_at(end, MakesGood::BarLinks);
        let short = option.rise(end)? - longer;
        is_something(longer).then_some(Consequence::BarLinks { end, short })
    };
    End::BOTH.into_iter().filter_map(of_end).collect()
}

fn seat(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_packs = option.benches.iter().filter_map(|bench| bench.work.seat_turned());
    let of_packs = furthest(of_packs);
    // One shackle a corner: those of both sides turn their own seats.
    let by_itself = of_packs + furthest(option.at(End::Rear).map(Correction::turns_the_seat));
    // What a taper turns on purpose is told by itself, and takes from what a shim would have to.
    let turned = by_itself + furthest(option.at(End::Rear).map(Correction::tapers));
    let told = shim_for(by_itself).and(shim_for(turned));
    told.map(|_| Consequence::SeatTurns(turned)).into_iter().collect()
}

fn taper(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let turned = furthest(option.at(End::Rear).map(Correction::tapers));
    shim_for(turned).map(|_| Consequence::PinionTurned(turned)).into_iter().collect()
}

/// The widest of some angles, with its sign.
fn furthest(angles: impl Iterator<Item = Angle>) -> Angle {
    angles.reduce(|one, other| if other.abs() > one.abs() { other } else { one }).unwrap_or(radians(0.0))
}
