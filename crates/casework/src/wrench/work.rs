//! What every kind of part, and every repair, asks to be done.

use crate::look_over::Addition;

/// What is done at a corner or an end for a part: words of steps, in any order.
pub type Steps = &'static [&'static str];

/// How both sides of an end are gone about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Sides {
    /// One side at a time: the other holds the axle, and the hoses stay slack.
    OneAtATime,
    /// Both together: the axle comes down level.
    Together,
}

/// The work that a part asks for.
#[derive(Debug, Clone, Copy)]
pub struct Work {
    /// How both sides are gone about.
    pub sides: Sides,
    /// Sets of steps, put together.
    pub steps: &'static [Steps],
}

const START: Steps = &["parts_checked", "leveling_off"];
const UP: Steps = &["chocked", "coupler_held", "raised", "stands_set", "pads_set", "pads_checked", "all_clear", "lowered"];
const WHEELS: Steps = &["lug_nuts_cracked", "wheels_off", "wheels_on", "lug_nuts", "lug_nuts_again"];
const END: Steps = &["rolled", "nothing_loose", "driven"];
const CARRIED: Steps = &["threads_soaked", "tip_back", "axle_carried"];
const HOSES: Steps = &["hose_bracket_off", "hoses_slack", "hose_bracket_on", "slack_at_droop"];
const SHOCKS: Steps = &["shocks_off", "shocks_on", "shocks_tight"];
const LINKS: Steps = &["links_off", "links_on", "links_tight"];
const U_BOLTS: Steps = &[
    "stack_pictured",
    "marked",
    "u_bolts_off",
    "axle_down",
    "axle_up",
    "pin_seated",
    "u_bolts_on",
    "u_bolts_tight",
    "u_bolts_again",
];
const EYES: Steps = &["shackle_off", "eye_off", "pack_out", "pack_in", "eye_in", "shackle_in", "eye_tight", "shackle_tight"];
const STACK: Steps =
    &["clips_open", "pack_clamped", "center_bolt_out", "leaves_looked_at", "drawn_by_clamps", "center_bolt_in", "clips_closed"];
const COILS: Steps = &[
    "marked",
    "track_bar_off",
    "coils_chained",
    "axle_down_level",
    "coil_out",
    "coil_in",
    "axle_up_level",
    "coils_seated",
    "track_bar_on",
    "track_bar_tight",
];
const STRUTS: Steps = &[
    "cams_marked",
    "wires_off",
    "axle_nut_off",
    "strut_bottom_off",
    "strut_top_off",
    "strut_in",
    "strut_bottom_on",
    "axle_nut_new",
    "wires_on",
    "cv_axle_whole",
];
const STOP: Steps = &["stop_off", "seat_clean", "stop_held", "clearance_read"];
const HELPER: Steps = &["nothing_cut", "helper_on", "helper_set", "helper_locked"];
const AIR: Steps = &["nothing_cut", "line_run", "air_holds", "room_at_bump", "pressure_set", "no_leaks"];

const fn one_at_a_time(steps: &'static [Steps]) -> Work {
    Work { sides: Sides::OneAtATime, steps }
}

const fn together(steps: &'static [Steps]) -> Work {
    Work { sides: Sides::Together, steps }
}

const LEAF_INTO_THE_PACK: Work =
    one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, U_BOLTS, STACK, &["leaves_stacked"], END]);
const OVERLOAD_LEAF: Work =
    one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, U_BOLTS, STACK, &["overload_leaf_changed"], END]);
const PACK_OUT: Work = one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, U_BOLTS, EYES, &["bushings_in"], END]);
const PACK_REWORKED: Work = one_at_a_time(&[
    START,
    UP,
    WHEELS,
    CARRIED,
    HOSES,
    SHOCKS,
    LINKS,
    U_BOLTS,
    EYES,
    STACK,
    &["leaves_stacked", "bushings_in"],
    END,
]);
const BLOCK: Work =
    one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, U_BOLTS, &["block_in", "wires_off", "wires_on"], END]);
const TAPER: Work = one_at_a_time(&[
    START,
    UP,
    WHEELS,
    CARRIED,
    HOSES,
    SHOCKS,
    LINKS,
    U_BOLTS,
    &["block_in", "taper_turned_right", "wires_off", "wires_on"],
    END,
]);
const COIL: Work = together(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, COILS, END]);
const COIL_ON_A_SPACER: Work = together(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, COILS, &["spacer_in"], END]);
const STRUT: Work = one_at_a_time(&[START, UP, WHEELS, HOSES, LINKS, STRUTS, END]);
const STRUT_ON_A_SPACER: Work =
    one_at_a_time(&[START, UP, WHEELS, HOSES, LINKS, STRUTS, &["strut_spacer_on", "strut_turned"], END]);
const STEEL_HELPER: Work = together(&[START, UP, HELPER, END]);
const RUBBER: Work = together(&[START, UP, STOP, &["rubber_in"], END]);
const LONGER_STOP: Work = together(&[START, UP, STOP, &["stop_longer", "room_at_bump"], END]);
const SHOCK: Work = one_at_a_time(&[START, UP, CARRIED, SHOCKS, &["slack_at_droop"], END]);

/// What every kind of part asks for.
pub static OF_KINDS: &[(&str, Work)] = &[
    ("leaf_by_lift", LEAF_INTO_THE_PACK),
    ("added_leaf", LEAF_INTO_THE_PACK),
    ("half_pack", one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, LINKS, U_BOLTS, STACK, &["half_pack_under"], END])),
    ("new_packs", PACK_OUT),
    ("rearched_pack", PACK_REWORKED),
    ("reworked_pack", PACK_REWORKED),
    ("overload_pads", one_at_a_time(&[START, UP, CARRIED, &["pads_on"], END])),
    ("other_overload_leaf", OVERLOAD_LEAF),
    (
        "longer_shackle",
        one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, &["shackle_off", "bushings_in", "shackle_in", "shackle_tight"], END]),
    ),
    ("spring_over", one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, U_BOLTS, &["seats_welded", "room_at_bump"], END])),
    ("lift_block", BLOCK),
    ("exchanged_block", BLOCK),
    ("tapered_block", TAPER),
    ("exchanged_taper", TAPER),
    ("coil_spacer", COIL_ON_A_SPACER),
    ("strut_spacer", STRUT_ON_A_SPACER),
    ("new_coils", COIL),
    ("measured_coils", COIL),
    ("wound_coils", COIL),
    ("taller_struts", STRUT),
    ("helper_by_capacity", STEEL_HELPER),
    ("helper_spring", STEEL_HELPER),
    ("helper_coils", STEEL_HELPER),
    ("rubber_by_capacity", RUBBER),
    ("load_rubber", RUBBER),
    ("stop_extension", LONGER_STOP),
    ("air_helper", together(&[START, UP, WHEELS, AIR, &["bag_brackets_on"], END])),
    ("bags_in_coils", together(&[START, UP, AIR, &["axle_carried", "bag_in", "coils_seated"], END])),
    ("shocks", SHOCK),
    (
        "brake_hoses",
        one_at_a_time(&[START, UP, WHEELS, &["hose_off", "hose_on", "bled", "slack_at_droop", "pedal_firm", "no_leaks"], END]),
    ),
    ("u_bolts", one_at_a_time(&[START, UP, CARRIED, HOSES, U_BOLTS, END])),
    ("bar_links", one_at_a_time(&[START, UP, LINKS, END])),
    ("anti_roll_bar", together(&[START, UP, &["nothing_cut", "bar_off", "bar_on", "bar_tight", "room_at_bump"], LINKS, END])),
    ("track_bar", together(&[START, UP, CARRIED, &["track_bar_off", "track_bar_on", "track_bar_tight"], END])),
    (
        "radius_arm_drop",
        together(&[START, UP, WHEELS, CARRIED, HOSES, &["radius_arms_off", "radius_arms_lowered", "radius_arms_tight"], END]),
    ),
    (
        "differential_drop",
        together(&[START, UP, WHEELS, &["differential_held", "differential_off", "differential_lowered", "cv_axle_whole"], END]),
    ),
    ("tires", together(&[UP, WHEELS, &["room_at_bump", "rolled", "nothing_loose", "driven"]])),
];

/// What a repair of the job asks for; one that has no steps of its own at a wrench is none of these.
pub static OF_REPAIRS: &[(Addition, Work)] = &[
    (Addition::NewLeaf, PACK_REWORKED),
    (Addition::NewPack, PACK_OUT),
    (Addition::NewUBolts, one_at_a_time(&[START, UP, CARRIED, HOSES, U_BOLTS, END])),
    (
        Addition::LongerHose,
        one_at_a_time(&[START, UP, WHEELS, &["hose_off", "hose_on", "bled", "slack_at_droop", "pedal_firm", "no_leaks"], END]),
    ),
    (
        Addition::NewHose,
        one_at_a_time(&[START, UP, WHEELS, &["hose_off", "hose_on", "bled", "slack_at_droop", "pedal_firm", "no_leaks"], END]),
    ),
    (Addition::NewBushes, PACK_OUT),
    (Addition::NewCentreBolt, one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, SHOCKS, U_BOLTS, STACK, END])),
    (Addition::Clips, one_at_a_time(&[START, UP, CARRIED, &["clips_open", "clips_closed"], END])),
    (Addition::Shocks, SHOCK),
    (Addition::LongerShocks, SHOCK),
    (Addition::ShorterShocks, SHOCK),
    (Addition::BumpStops, RUBBER),
    (
        Addition::Shackles,
        one_at_a_time(&[START, UP, WHEELS, CARRIED, HOSES, &["shackle_off", "bushings_in", "shackle_in", "shackle_tight"], END]),
    ),
];

/// What a part of a kind asks for.
pub fn of_kind(word: &str) -> Option<&'static Work> {
    OF_KINDS.iter().find(|(of, _)| *of == word).map(|(_, work)| work)
}

/// What a repair asks for, where it is done at a wrench.
pub fn of_repair(repair: Addition) -> Option<&'static Work> {
    OF_REPAIRS.iter().find(|(of, _)| *of == repair).map(|(_, work)| work)
}
