//! Every kind of step, in the order in which they are done.

use super::operation::{Asks, Catch, Each, Effect, Fastener, Lifting, Operation, Phase, Setting};
use Asks::{Done, Hold, Picture, Torque};
use Each::{Corner, End, Job};
use Effect::{Closes, Final, Loosens, Opens, Snug};
use Phase::{Apart, Before, Drive, Hanging, Lower, OnWheels, Raise, Together};

const fn step(word: &'static str, phase: Phase, each: Each, asks: Asks, effects: &'static [Effect]) -> Operation {
    Operation { word, phase, each, asks, effects, applies: always }
}

const fn only(operation: Operation, applies: fn(&Setting) -> bool) -> Operation {
    Operation { applies, ..operation }
}

fn always(_: &Setting) -> bool {
    true
}

fn on_the_floor(setting: &Setting) -> bool {
    setting.lifting == Lifting::Floor
}

fn on_a_lift(setting: &Setting) -> bool {
    setting.lifting == Lifting::Lift
}

fn a_trailer(setting: &Setting) -> bool {
    setting.trailer
}

fn no_trailer(setting: &Setting) -> bool {
    !setting.trailer
}

fn driven_in_front(setting: &Setting) -> bool {
    setting.front_driven
}

/// Every kind of step, in the order of the work; a card takes those that its parts ask for.
pub static OPERATIONS: &[Operation] = &[
    step("parts_checked", Before, Job, Hold, &[]),
    only(step("leveling_off", Before, Job, Hold, &[]), no_trailer),
    step("threads_soaked", Before, Job, Done, &[]),
    step("tip_back", Before, Job, Hold, &[]),
    step("chocked", Raise, End, Hold, &[]),
    only(step("coupler_held", Raise, End, Hold, &[]), a_trailer),
    step("lug_nuts_cracked", Raise, End, Done, &[]),
    only(step("raised", Raise, End, Done, &[]), on_the_floor),
    only(step("stands_set", Raise, End, Hold, &[]), on_the_floor),
    only(step("pads_set", Raise, End, Done, &[]), on_a_lift),
    only(step("pads_checked", Raise, End, Hold, &[]), on_a_lift),
    step("wheels_off", Raise, End, Done, &[Loosens(Fastener::LugNuts)]),
    step("axle_carried", Raise, End, Hold, &[]),
    step("nothing_cut", Raise, End, Hold, &[]),
    step("stack_pictured", Apart, Corner, Picture, &[]),
    step("marked", Apart, Corner, Done, &[]),
    step("cams_marked", Apart, Corner, Picture, &[]),
    step("hose_bracket_off", Apart, Corner, Done, &[Loosens(Fastener::HoseBracket)]),
    step("hoses_slack", Apart, Corner, Hold, &[]),
    step("wires_off", Apart, Corner, Done, &[]),
    step("hose_off", Apart, Corner, Done, &[Opens(Catch::BrakeCircuit)]),
    step("links_off", Apart, Corner, Done, &[Loosens(Fastener::BarLinks)]),
    step("bar_off", Apart, End, Done, &[Loosens(Fastener::BarBrackets)]),
    step("shocks_off", Apart, Corner, Done, &[Loosens(Fastener::ShockBolts)]),
    step("track_bar_off", Apart, End, Done, &[Loosens(Fastener::TrackBar)]),
    step("radius_arms_off", Apart, End, Done, &[Loosens(Fastener::RadiusArms)]),
    step("differential_held", Apart, End, Hold, &[]),
    step("differential_off", Apart, End, Done, &[Loosens(Fastener::Differential)]),
    step("stop_off", Apart, Corner, Done, &[Loosens(Fastener::Stop)]),
    only(step("axle_nut_off", Apart, Corner, Done, &[Loosens(Fastener::AxleNut), Opens(Catch::CotterPins)]), driven_in_front),
    step("strut_bottom_off", Apart, Corner, Done, &[Loosens(Fastener::StrutBottom)]),
    step("strut_top_off", Apart, Corner, Done, &[Loosens(Fastener::StrutTop)]),
    step("u_bolts_off", Apart, Corner, Done, &[Loosens(Fastener::UBolts)]),
    step("coils_chained", Apart, End, Hold, &[]),
    step("axle_down", Apart, Corner, Done, &[]),
    step("axle_down_level", Apart, End, Done, &[]),
    step("shackle_off", Apart, Corner, Done, &[Loosens(Fastener::ShackleBolts)]),
    step("eye_off", Apart, Corner, Done, &[Loosens(Fastener::EyeBolt)]),
    step("pack_out", Apart, Corner, Done, &[]),
    step("coil_out", Apart, Corner, Done, &[]),
    step("clips_open", Apart, Corner, Done, &[Opens(Catch::Clips)]),
    step("pack_clamped", Apart, Corner, Hold, &[]),
    step("center_bolt_out", Apart, Corner, Done, &[Loosens(Fastener::CenterBolt)]),
    step("leaves_looked_at", Together, Corner, Hold, &[]),
    step("leaves_stacked", Together, Corner, Done, &[]),
    step("overload_leaf_changed", Together, Corner, Done, &[]),
    step("drawn_by_clamps", Together, Corner, Hold, &[]),
    step("center_bolt_in", Together, Corner, Torque(Fastener::CenterBolt), &[Final(Fastener::CenterBolt)]),
    step("clips_closed", Together, Corner, Hold, &[Closes(Catch::Clips)]),
    step("seats_welded", Together, Corner, Hold, &[]),
    step("pack_in", Together, Corner, Done, &[]),
    step("eye_in", Together, Corner, Done, &[Snug(Fastener::EyeBolt)]),
    step("bushings_in", Together, Corner, Done, &[]),
    step("shackle_in", Together, Corner, Done, &[Snug(Fastener::ShackleBolts)]),
    step("half_pack_under", Together, Corner, Done, &[]),
    step("block_in", Together, Corner, Done, &[]),
    step("taper_turned_right", Together, Corner, Hold, &[]),
    step("axle_up", Together, Corner, Done, &[]),
    step("pin_seated", Together, Corner, Hold, &[]),
    step("u_bolts_on", Together, Corner, Done, &[Snug(Fastener::UBolts)]),
    step("pads_on", Together, Corner, Done, &[]),
    step("spacer_in", Together, Corner, Done, &[]),
    step("bag_in", Together, Corner, Done, &[]),
    step("coil_in", Together, Corner, Done, &[]),
    step("axle_up_level", Together, End, Done, &[]),
    step("coils_seated", Together, End, Hold, &[]),
    step("strut_spacer_on", Together, Corner, Done, &[]),
    step("strut_turned", Together, Corner, Hold, &[]),
    step("strut_in", Together, Corner, Torque(Fastener::StrutTop), &[Final(Fastener::StrutTop)]),
    step("strut_bottom_on", Together, Corner, Torque(Fastener::StrutBottom), &[Final(Fastener::StrutBottom)]),
    only(
        step("axle_nut_new", Together, Corner, Torque(Fastener::AxleNut), &[Final(Fastener::AxleNut), Closes(Catch::CotterPins)]),
        driven_in_front,
    ),
    step("seat_clean", Together, Corner, Done, &[]),
    step("rubber_in", Together, Corner, Done, &[]),
    step("stop_longer", Together, Corner, Done, &[]),
    step("stop_held", Together, Corner, Hold, &[Final(Fastener::Stop)]),
    step("helper_on", Together, Corner, Done, &[Snug(Fastener::Helper)]),
    step("bag_brackets_on", Together, Corner, Torque(Fastener::BagBrackets), &[Final(Fastener::BagBrackets)]),
    step("line_run", Together, Corner, Hold, &[]),
    step("air_holds", Together, End, Hold, &[]),
    step("differential_lowered", Together, End, Torque(Fastener::Differential), &[Final(Fastener::Differential)]),
    step("radius_arms_lowered", Together, End, Done, &[Snug(Fastener::RadiusArms)]),
    step("track_bar_on", Together, End, Done, &[Snug(Fastener::TrackBar)]),
    step("bar_on", Together, End, Done, &[Snug(Fastener::BarBrackets)]),
    step("links_on", Together, Corner, Done, &[Snug(Fastener::BarLinks)]),
    step("shocks_on", Together, Corner, Done, &[Snug(Fastener::ShockBolts)]),
    step("hose_on", Together, Corner, Done, &[]),
    step("hose_bracket_on", Together, Corner, Done, &[Final(Fastener::HoseBracket)]),
    step("wires_on", Together, Corner, Done, &[]),
    step("bled", Hanging, End, Hold, &[Closes(Catch::BrakeCircuit)]),
    step("slack_at_droop", Hanging, End, Hold, &[]),
    step("cv_axle_whole", Hanging, End, Hold, &[]),
    step("room_at_bump", Hanging, End, Hold, &[]),
    step("wheels_on", Hanging, End, Done, &[Snug(Fastener::LugNuts)]),
    step("all_clear", Lower, End, Hold, &[]),
    step("lowered", Lower, End, Done, &[]),
    step("lug_nuts", OnWheels, End, Torque(Fastener::LugNuts), &[Final(Fastener::LugNuts)]),
    step("rolled", OnWheels, End, Done, &[]),
    step("pressure_set", OnWheels, End, Done, &[]),
    step("helper_set", OnWheels, End, Hold, &[]),
    step("helper_locked", OnWheels, Corner, Torque(Fastener::Helper), &[Final(Fastener::Helper)]),
    step("clearance_read", OnWheels, Corner, Done, &[]),
    step("u_bolts_tight", OnWheels, Corner, Torque(Fastener::UBolts), &[Final(Fastener::UBolts)]),
    step("eye_tight", OnWheels, Corner, Torque(Fastener::EyeBolt), &[Final(Fastener::EyeBolt)]),
    step("shackle_tight", OnWheels, Corner, Torque(Fastener::ShackleBolts), &[Final(Fastener::ShackleBolts)]),
    step("shocks_tight", OnWheels, Corner, Torque(Fastener::ShockBolts), &[Final(Fastener::ShockBolts)]),
    step("links_tight", OnWheels, Corner, Torque(Fastener::BarLinks), &[Final(Fastener::BarLinks)]),
    step("bar_tight", OnWheels, End, Torque(Fastener::BarBrackets), &[Final(Fastener::BarBrackets)]),
    step("track_bar_tight", OnWheels, End, Torque(Fastener::TrackBar), &[Final(Fastener::TrackBar)]),
    step("radius_arms_tight", OnWheels, End, Torque(Fastener::RadiusArms), &[Final(Fastener::RadiusArms)]),
    step("pedal_firm", OnWheels, Job, Hold, &[]),
    step("nothing_loose", OnWheels, Job, Hold, &[]),
    step("driven", Drive, Job, Done, &[]),
    step("u_bolts_again", Drive, Corner, Torque(Fastener::UBolts), &[Final(Fastener::UBolts)]),
    step("lug_nuts_again", Drive, End, Torque(Fastener::LugNuts), &[Final(Fastener::LugNuts)]),
    step("no_leaks", Drive, Job, Hold, &[]),
];

/// The hold that counts only while all parts are there, or the lead has given a reason.
pub(super) const PARTS_CHECKED: &str = "parts_checked";
/// The hold that counts only while nothing is loose.
pub(super) const NOTHING_LOOSE: &str = "nothing_loose";

impl Operation {
    /// The kind of step that goes by a word.
    pub fn of(word: &str) -> Option<&'static Operation> {
        OPERATIONS.iter().find(|operation| operation.word == word)
    }
}
