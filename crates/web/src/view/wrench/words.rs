//! What every kind of step is called on the card, with what bites there.

/// The words of a step.
pub(crate) struct OperationWords {
    pub(crate) word: &'static str,
    /// What is done; of a hold, what must be so.
    pub(crate) text: &'static str,
    /// One line where it bites; empty where nothing does.
    pub(crate) caution: &'static str,
}

const fn plain(word: &'static str, text: &'static str) -> OperationWords {
    OperationWords { word, text, caution: "" }
}

const fn with(word: &'static str, text: &'static str, caution: &'static str) -> OperationWords {
    OperationWords { word, text, caution }
}

/// The words of every kind of step.
pub(crate) static WORDS: &[OperationWords] = &[
    with(
        "parts_checked",
        "Every part is here and held against the vehicle: side, thread, count",
        "Nothing comes apart until all of it is here.",
    ),
    plain("leveling_off", "A system that levels the vehicle by itself is switched off"),
    with(
        "threads_soaked",
        "Rusty threads soaked, worked both ways",
        "No flame near bushings, fuel, lines or tank. Eye protection against rust.",
    ),
    with(
        "tip_back",
        "It cannot tip back: looked at before the load comes off the bed or the rear goes on stands",
        "A camper or a tank behind the axle lifts the front.",
    ),
    with(
        "chocked",
        "Wheels that stay down are chocked, both ways; parking brake on where it holds those wheels",
        "Nobody under a vehicle on a jack.",
    ),
    plain("coupler_held", "The coupler is latched on a ball or on its jack, and cannot come up"),
    plain("lug_nuts_cracked", "Lug nuts cracked loose while the wheels are on the ground"),
    with("raised", "Raised at the maker's points or under the axle", "Base square, hands out, lines clear."),
    with(
        "stands_set",
        "Stands under the frame, each rated for its share, weight let down on them and rocked by hand",
        "A pair's rating may be told for one stand or for both: read it.",
    ),
    plain("pads_set", "Pads of the lift under the lift points"),
    plain("pads_checked", "A foot off the ground: pads looked at again, vehicle rocked by hand"),
    plain("wheels_off", "Wheels off"),
    with(
        "axle_carried",
        "The axle is carried by itself and cannot drop or roll",
        "A leaf spring that lets go of its axle leaves nothing to hold it: carried at both ends.",
    ),
    with(
        "nothing_cut",
        "Nothing of frame, bracket or fender is cut, trimmed or drilled, or the lead has said yes to it",
        "What was cut stands on the customer's sheet. Nothing is welded on or drilled through a working leaf.",
    ),
    plain("stack_pictured", "Stack photographed as it lies: order, which way round, clips"),
    plain("marked", "Left and right, front and rear marked on what comes off"),
    plain("cams_marked", "Cams of the alignment marked and photographed"),
    plain("hose_bracket_off", "Bracket of the brake hose let go"),
    with(
        "hoses_slack",
        "Brake hoses and lines hang slack as far down as the axle will go",
        "A stretched hose fails later, not now.",
    ),
    plain("wires_off", "Sensor wires unclipped, not pulled"),
    with("hose_off", "Brake hose off, line plugged", "Fluid off paint and skin. From here the brakes are open."),
    plain("links_off", "Sway-bar links let go"),
    plain("bar_off", "Sway bar off"),
    with("shocks_off", "Shocks let go at the axle", "A gas shock pushes out by itself. Grip no shaft where it enters a seal."),
    plain("track_bar_off", "Track bar let go at the axle"),
    plain("radius_arms_off", "Radius arms let go at the frame, one at a time"),
    plain("differential_held", "The front differential hangs on a jack of its own"),
    plain("differential_off", "Its mounts let go"),
    plain("stop_off", "Old stop out"),
    plain("axle_nut_off", "Cotter pin and axle nut off, half-shaft free in the hub"),
    plain("strut_bottom_off", "Strut let go at the knuckle, knuckle tied up"),
    with(
        "strut_top_off",
        "Strut let go at the body, not at the shaft's own nut",
        "The nut in the middle holds the spring: it stays on.",
    ),
    with("u_bolts_off", "U-bolts off, crosswise and little by little", "They are scrap: new ones go on."),
    with("coils_chained", "Coils chained to frame or axle", "A coil that jumps out hits hard."),
    with(
        "axle_down",
        "Axle let down off the spring, little by little",
        "Stop when a hose, a line, a wire or a shaft comes tight.",
    ),
    with(
        "axle_down_level",
        "Axle let down level until the coils are loose",
        "Stop when a hose, a line, a wire or a shaft comes tight.",
    ),
    plain("shackle_off", "Shackle let go"),
    with("eye_off", "Bolt of the fixed eye out", "The pack is heavy and turns over: two people or a jack."),
    plain("pack_out", "Pack out and on the bench"),
    plain("coil_out", "Coil out"),
    with("clips_open", "Clips unbolted or cut; none heated on a leaf", "No heat on a working leaf."),
    with(
        "pack_clamped",
        "Two clamps hold the pack, one either side of the center bolt",
        "A pack under clamps stores energy. Eye protection; stand beside it, not over it.",
    ),
    plain("center_bolt_out", "Center bolt out, clamps let go evenly"),
    with(
        "leaves_looked_at",
        "Every leaf cleaned and looked at: no crack, no deep pit, no worn end",
        "A cracked leaf stops the job: Look-over.",
    ),
    plain(
        "leaves_stacked",
        "Leaves stacked in their order, the new one in its place, right way round, greased as their maker says",
    ),
    plain("overload_leaf_changed", "Overload leaf changed, right way round"),
    plain("drawn_by_clamps", "The pack is drawn together by clamps, not by the center bolt"),
    with(
        "center_bolt_in",
        "New center bolt, head the way it came",
        "About 30 ft-lb is common practice where the maker says nothing.",
    ),
    plain("clips_closed", "Every clip is closed, counted against the photograph"),
    with(
        "seats_welded",
        "New spring seats are on, square and at the right angle, by a licensed welder",
        "Pinion angle set before they are welded.",
    ),
    plain("pack_in", "Pack in, front end first"),
    plain("eye_in", "Eye bolt in, nut snug"),
    plain("bushings_in", "New bushings in; rubber gets rubber grease, polymer and bronze what their maker says"),
    plain("shackle_in", "Shackle in, nuts snug"),
    plain("half_pack_under", "Half-pack under the main pack with its block, long bolt and keepers"),
    with("block_in", "Block between pack and axle, flat on both", "One block a side, never one on another."),
    plain("taper_turned_right", "The taper lies as planned: short end the way the plan says, alike on both sides"),
    plain("axle_up", "Axle up to the spring"),
    with(
        "pin_seated",
        "The head of the center bolt sits in its hole, seen from both sides",
        "A pin beside its hole shears: the axle walks.",
    ),
    plain("u_bolts_on", "New U-bolts on, snugged crosswise until even all round"),
    plain("pads_on", "Contact pads on the overload leaf, bolted as their maker says"),
    plain("spacer_in", "Spacer in its seat with its isolator"),
    plain("bag_in", "Bag in the coil, right way up, not twisted"),
    plain("coil_in", "Coil in, isolators on, pigtail to its stop"),
    plain("axle_up_level", "Axle up level until the coils take their seats"),
    plain("coils_seated", "Both coils sit in their seats, pigtails at their stops, isolators in"),
    plain("strut_spacer_on", "Spacer on the strut, nuts snug"),
    plain("strut_turned", "The strut is turned as its spacer asks, so that the fork or the bracket points right"),
    plain("strut_in", "Strut up, nuts at the body tight"),
    plain("strut_bottom_on", "Strut to the knuckle, cams to their marks, bolts tight"),
    plain("axle_nut_new", "Half-shaft in, new axle nut, new cotter pin or stake"),
    plain("seat_clean", "Cup and seat clean, no burr, no rust scale"),
    with(
        "rubber_in",
        "Load rubber in, axle hanging; pushed in with soapy water and a wood block, or bolted",
        "No oil, no grease: rubber swells.",
    ),
    plain("stop_longer", "Extension in between stop and frame"),
    plain("stop_held", "It sits all round and holds: bolted to its figure, or over its bead"),
    plain("helper_on", "Helper on, both sides alike, nuts snug"),
    plain("bag_brackets_on", "Brackets of the bag on, bolts tight"),
    with(
        "line_run",
        "Air line away from exhaust and edges, with slack for full droop",
        "A bag never stands without its least pressure.",
    ),
    with(
        "air_holds",
        "Pressed up and soaped: no bubble, and the gauge stands",
        "A charged bag stores energy: let it down before anything is loosened.",
    ),
    plain("differential_lowered", "Differential on its lowered mounts, bolts tight"),
    plain("radius_arms_lowered", "Radius arms on their lowered brackets, bolts snug"),
    plain("track_bar_on", "Track bar on, bolts snug"),
    plain("bar_on", "Sway bar on, bolts snug"),
    plain("links_on", "Sway-bar links on, nuts snug"),
    plain("shocks_on", "Shocks on, nuts snug"),
    plain("hose_on", "New hose on, new washers, not twisted at full lock"),
    plain("hose_bracket_on", "Bracket of the brake hose back on, tight"),
    plain("wires_on", "Sensor wires clipped back, warning lamps out"),
    with("bled", "Brakes bled until no air comes, reservoir full", "Brakes belong to those licensed for them."),
    with(
        "slack_at_droop",
        "Axle hangs as low as it will: hoses, lines and wires slack, shocks not at their end",
        "Looked at on both sides.",
    ),
    plain("cv_axle_whole", "Half-shafts seated, boots whole, none pulled apart"),
    plain("room_at_bump", "Room at full bump and full lock: tire, frame, line, exhaust"),
    plain("wheels_on", "Wheels on, lug nuts snug crosswise"),
    plain("all_clear", "Nobody and nothing is under it"),
    plain("lowered", "Down on its wheels"),
    with(
        "lug_nuts",
        "Lug nuts tight, crosswise",
        "Last resort, from memory: 12 mm stud 80 to 90 ft-lb, 14 mm 130 to 150, dry. The maker's figure comes first.",
    ),
    plain("rolled", "Rolled back and forth, bounced"),
    plain("pressure_set", "Pressure set as planned, both sides"),
    plain("helper_set", "Set with the weight on, alike on both sides and both ends"),
    plain("helper_locked", "Locked with second nuts"),
    plain("clearance_read", "Clearance between rubber and axle as planned, read with the tape"),
    with(
        "u_bolts_tight",
        "U-bolts tight, crosswise, in steps, weight on the wheels",
        "Last resort, from memory, grade 5 dry: 1/2-20 85 ft-lb, 9/16-18 120, 5/8-18 170; a quarter less oiled or with thread locker.",
    ),
    with("eye_tight", "Eye bolt tight at ride height", "Tightened in the air a bonded bushing is twisted and adds false height."),
    plain("shackle_tight", "Shackle nuts tight at ride height"),
    plain("shocks_tight", "Shock bolts tight at ride height"),
    plain("links_tight", "Sway-bar links tight at ride height"),
    plain("bar_tight", "Sway-bar brackets tight"),
    plain("track_bar_tight", "Track bar tight at ride height, axle in the middle"),
    plain("radius_arms_tight", "Radius arms tight at ride height"),
    plain("pedal_firm", "Brake pedal firm and high before the wheels turn"),
    with("nothing_loose", "Nothing is loose, nothing is open, no tool is left on it", "No figure, no release."),
    plain("driven", "Driven 10 to 15 miles, the same road as before"),
    plain("u_bolts_again", "U-bolts again, after the drive"),
    plain("lug_nuts_again", "Lug nuts again, after the drive; the customer is told to have them done after 50 to 100 miles"),
    plain("no_leaks", "No leak at hose, line or bag"),
];

/// The figure of a part that is set at a step, for what is planned of it.
pub(crate) fn setting_of(step: &str) -> Option<&'static str> {
    let set = [("pressure_set", "pressure"), ("helper_set", "engagement_gap"), ("clearance_read", "clearance")];
    set.into_iter().find(|(word, _)| *word == step).map(|(_, figure)| figure)
}

/// The words of a kind of step.
pub(crate) fn words_of(word: &str) -> Option<&'static OperationWords> {
    WORDS.iter().find(|words| words.word == word)
}

#[cfg(test)]
mod tests {
    use wise_badger_casework::wrench::OPERATIONS;
    use wise_badger_mechanics::correction::KINDS;

    use super::*;

    #[test]
    fn every_kind_of_step_has_its_words_and_none_is_called_twice() {
        for operation in OPERATIONS {
            assert!(words_of(operation.word).is_some(), "no words for {}", operation.word);
        }
        assert_eq!(WORDS.len(), OPERATIONS.len());
        let mut texts: Vec<&str> = WORDS.iter().map(|words| words.text).collect();
        texts.sort_unstable();
        assert!(texts.windows(2).all(|pair| pair[0] != pair[1]));
    }

    /// A kind to come that is set by a figure of its own is seen here, and not by a step that does not say to what.
    #[test]
    fn whatever_is_set_on_the_vehicle_has_a_step_that_says_to_what() {
        let told: Vec<&str> = OPERATIONS.iter().filter_map(|operation| setting_of(operation.word)).collect();
        for kind in KINDS {
            assert!(kind.set_by_case.is_none_or(|figure| told.contains(&figure)), "{}", kind.word);
        }
    }
}
