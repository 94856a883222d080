//! How long the steps of a card take.

use crate::entry::{RustWord, WorkPlanEntry};
use crate::wrench::{Asks, Card, Effect, Operation, Phase};

/// Under what work is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Conditions {
    /// How rusty it is.
    pub rust: RustWord,
    /// Two people on it.
    pub two_people: bool,
    /// No air tools.
    pub hand_tools: bool,
    /// Done for the first time.
    pub first_time: bool,
    /// On a lift.
    pub on_a_lift: bool,
    /// A trailer: nothing above the axle but its frame.
    pub trailer: bool,
}

impl Conditions {
    /// As a plan says them; what it does not say is as usual.
    pub fn of(plan: &WorkPlanEntry, on_a_lift: bool, trailer: bool) -> Self {
        Conditions {
            rust: plan.rust.unwrap_or(RustWord::None),
            two_people: plan.two_people,
            hand_tools: plan.hand_tools,
            first_time: plan.first_time,
            on_a_lift,
            trailer,
        }
    }

    /// As work is usually quoted: one person who has done it before, air tools, no rust, from the floor.
    pub fn usual() -> Self {
        Conditions::of(&WorkPlanEntry::default(), false, false)
    }
}

/// Hours, with how far they may be off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hours {
    /// When all goes well.
    pub least: f64,
    /// As it usually goes.
    pub likely: f64,
    /// When something seizes, shears or does not fit.
    pub most: f64,
}

impl Hours {
    /// Hours that are known.
    pub fn exactly(hours: f64) -> Self {
        Hours { least: hours, likely: hours, most: hours }
    }

    /// With others on top.
    #[must_use]
    pub fn and(self, other: Hours) -> Self {
        Hours { least: self.least + other.least, likely: self.likely + other.likely, most: self.most + other.most }
    }

    /// As they are told and paid for: to the quarter of an hour, and never none.
    #[must_use]
    pub fn to_the_quarter(self) -> Self {
        let quarter = |hours: f64| if hours > 0.0 { (hours * 4.0).round().max(1.0) / 4.0 } else { 0.0 };
        Hours { least: quarter(self.least), likely: quarter(self.likely), most: quarter(self.most) }
    }

    /// So many times as long.
    #[must_use]
    pub fn times(self, factor: f64) -> Self {
        Hours { least: self.least * factor, likely: self.likely * factor, most: self.most * factor }
    }
}

/// What each kind of step takes, in minutes of one person (our own working rules, held as whole jobs against what the trade quotes).
pub const MINUTES: &[(&str, f64)] = &[
    ("parts_checked", 5.0),
    ("leveling_off", 1.0),
    ("threads_soaked", 4.0),
    ("tip_back", 1.0),
    ("chocked", 2.0),
    ("coupler_held", 2.0),
    ("lug_nuts_cracked", 2.0),
    ("raised", 6.0),
    ("stands_set", 4.0),
    ("pads_set", 4.0),
    ("pads_checked", 2.0),
    ("wheels_off", 4.0),
    ("axle_carried", 3.0),
    ("nothing_cut", 1.0),
    ("stack_pictured", 1.0),
    ("marked", 1.0),
    ("cams_marked", 2.0),
    ("hose_bracket_off", 1.0),
    ("hoses_slack", 1.0),
    ("wires_off", 2.0),
    ("hose_off", 5.0),
    ("links_off", 2.0),
    ("bar_off", 8.0),
    ("shocks_off", 2.0),
    ("track_bar_off", 3.0),
    ("radius_arms_off", 12.0),
    ("differential_held", 3.0),
    ("differential_off", 20.0),
    ("stop_off", 4.0),
    ("axle_nut_off", 6.0),
    ("strut_bottom_off", 8.0),
    ("strut_top_off", 4.0),
    ("u_bolts_off", 8.0),
    ("coils_chained", 2.0),
    ("axle_down", 2.0),
    ("axle_down_level", 3.0),
    ("shackle_off", 6.0),
    ("eye_off", 8.0),
    ("pack_out", 5.0),
    ("coil_out", 3.0),
    ("clips_open", 3.0),
    ("pack_clamped", 2.0),
    ("center_bolt_out", 2.0),
    ("leaves_looked_at", 3.0),
    ("leaves_stacked", 4.0),
    ("overload_leaf_changed", 4.0),
    ("drawn_by_clamps", 3.0),
    ("center_bolt_in", 3.0),
    ("clips_closed", 3.0),
    ("seats_welded", 60.0),
    ("pack_in", 8.0),
    ("eye_in", 5.0),
    ("bushings_in", 12.0),
    ("shackle_in", 5.0),
    ("half_pack_under", 8.0),
    ("block_in", 4.0),
    ("taper_turned_right", 1.0),
    ("axle_up", 3.0),
    ("pin_seated", 1.0),
    ("u_bolts_on", 7.0),
    ("pads_on", 6.0),
    ("spacer_in", 4.0),
    ("bag_in", 12.0),
    ("coil_in", 4.0),
    ("axle_up_level", 3.0),
    ("coils_seated", 2.0),
    ("strut_spacer_on", 8.0),
    ("strut_turned", 1.0),
    ("strut_in", 6.0),
    ("strut_bottom_on", 10.0),
    ("axle_nut_new", 5.0),
    ("seat_clean", 2.0),
    ("rubber_in", 5.0),
    ("stop_longer", 6.0),
    ("stop_held", 2.0),
    ("helper_on", 12.0),
    ("bag_brackets_on", 20.0),
    ("line_run", 12.0),
    ("air_holds", 5.0),
    ("differential_lowered", 30.0),
    ("radius_arms_lowered", 25.0),
    ("track_bar_on", 5.0),
    ("bar_on", 12.0),
    ("links_on", 3.0),
    ("shocks_on", 3.0),
    ("hose_on", 8.0),
    ("hose_bracket_on", 1.0),
    ("wires_on", 2.0),
    ("bled", 20.0),
    ("slack_at_droop", 3.0),
    ("cv_axle_whole", 2.0),
    ("room_at_bump", 4.0),
    ("wheels_on", 4.0),
    ("all_clear", 1.0),
    ("lowered", 3.0),
    ("lug_nuts", 3.0),
    ("rolled", 2.0),
    ("pressure_set", 3.0),
    ("helper_set", 5.0),
    ("helper_locked", 3.0),
    ("clearance_read", 2.0),
    ("u_bolts_tight", 4.0),
    ("eye_tight", 2.0),
    ("shackle_tight", 3.0),
    ("shocks_tight", 2.0),
    ("links_tight", 2.0),
    ("bar_tight", 4.0),
    ("track_bar_tight", 2.0),
    ("radius_arms_tight", 6.0),
    ("pedal_firm", 1.0),
    ("nothing_loose", 3.0),
    // The drive is nobody's work at the vehicle, but the bay waits for it.
    ("driven", 25.0),
    ("u_bolts_again", 3.0),
    ("lug_nuts_again", 3.0),
    ("no_leaks", 2.0),
];

/// When all goes well, and when it does not (our own working rules): of clean threads, of rusty ones, of seized ones.
const LEAST: f64 = 0.85;
fn most(rust: RustWord) -> f64 {
    match rust {
        RustWord::None => 1.35,
        RustWord::Some => 1.6,
        RustWord::Heavy => 2.2,
    }
}

/// What comes apart, rusty or seized, takes so many times as long.
fn rusty(rust: RustWord) -> f64 {
    match rust {
        RustWord::None => 1.0,
        RustWord::Some => 1.25,
        RustWord::Heavy => 1.75,
    }
}

/// What is loosened and tightened by hand.
const BY_HAND: f64 = 1.3;
/// Whoever does it for the first time: a kit of five hours took two days (common practice).
const FIRST_TIME: f64 = 1.8;
/// Two people are together so much longer at it than half.
const TWO_PEOPLE: f64 = 0.6;
/// What is done standing upright, on a lift.
const ON_A_LIFT: f64 = 0.85;
/// What is done under a trailer.
const TRAILER: f64 = 0.9;

/// What a kind of step takes under conditions, in minutes; `None` of a kind that nobody timed.
pub fn minutes_of(operation: &Operation, conditions: Conditions) -> Option<f64> {
    let (_, minutes) = MINUTES.iter().find(|(word, _)| *word == operation.word)?;
    let loosens = operation.effects.iter().any(|effect| matches!(effect, Effect::Loosens(_) | Effect::Opens(_)));
    let turns = loosens
        || matches!(operation.asks, Asks::Torque(_))
        || operation.effects.iter().any(|effect| matches!(effect, Effect::Snug(_)));
    let under = matches!(operation.phase, Phase::Apart | Phase::Together | Phase::Hanging);
    let each = [
        (loosens || operation.phase == Phase::Apart, rusty(conditions.rust)),
        (conditions.hand_tools && turns, BY_HAND),
        (conditions.on_a_lift && under, ON_A_LIFT),
        (conditions.trailer && under, TRAILER),
        (conditions.first_time && operation.phase != Phase::Drive, FIRST_TIME),
        (conditions.two_people && operation.word != "driven", TWO_PEOPLE),
    ];
    Some(each.into_iter().filter(|(applies, _)| *applies).fold(*minutes, |minutes, (_, factor)| minutes * factor))
}

/// What some steps of a card take under conditions, by the clock; the drive only where it is asked for.
pub fn hours_of(card: &Card, conditions: Conditions, with_the_drive: bool) -> Hours {
    let steps = card.steps.iter().map(|step| step.operation).filter(|of| with_the_drive || of.word != "driven");
    let likely = steps.filter_map(|operation| minutes_of(operation, conditions)).sum::<f64>() / 60.0;
    Hours { least: likely * LEAST, likely, most: likely * most(conditions.rust) }
}

/// By how much a shop's own hours for parts differ from those by their steps, under usual conditions: everything else is scaled so.
/// `card` is that of the parts alone. One where the shop said none, and never so far that its figure must be a slip.
pub fn shelf_scale(card: &Card, by_the_shelf: Option<f64>) -> f64 {
    const FURTHEST: f64 = 4.0;
    let by_steps = hours_of(card, Conditions::usual(), false).likely;
    match by_the_shelf {
        Some(hours) if hours > 0.0 && by_steps > 0.0 => (hours / by_steps).clamp(1.0 / FURTHEST, FURTHEST),
        _ => 1.0,
    }
}
