//! What every kind of part and every repair asks to be done, as a shop would say it: what must stand on its card, and what has no place there.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use wise_badger_casework::look_over::Addition;
use wise_badger_casework::survey::End;
use wise_badger_casework::wrench::work::{OF_KINDS, OF_REPAIRS};
use wise_badger_casework::wrench::{Asks, Card, Fastener, Lifting, Ordered, Phase, Setting};
use wise_badger_mechanics::correction::{Axles, Ends, KindRow, Site};
use wise_badger_mechanics::side::Side;

const PICKUP: Setting = Setting { lifting: Lifting::Floor, trailer: false, front_driven: true };

/// A kind, what its card must have, and what it must not.
type Rule = (&'static str, &'static [&'static str], &'static [&'static str]);

const LEAF: &[&str] = &[
    "parts_checked",
    "tip_back",
    "chocked",
    "stands_set",
    "axle_carried",
    "stack_pictured",
    "hoses_slack",
    "pack_clamped",
    "drawn_by_clamps",
    "center_bolt_in",
    "clips_closed",
    "pin_seated",
    "u_bolts_tight",
    "u_bolts_again",
    "lug_nuts",
    "slack_at_droop",
    "nothing_loose",
    "driven",
];
const BLOCK: &[&str] = &["axle_carried", "hoses_slack", "block_in", "pin_seated", "u_bolts_on", "u_bolts_tight", "u_bolts_again"];
const COIL: &[&str] =
    &["axle_carried", "coils_chained", "axle_down_level", "coil_out", "coil_in", "coils_seated", "track_bar_tight", "lug_nuts"];
const STRUT: &[&str] = &["cams_marked", "axle_nut_new", "strut_in", "strut_bottom_on", "cv_axle_whole", "lug_nuts"];
const RUBBER: &[&str] = &["chocked", "stop_off", "seat_clean", "rubber_in", "stop_held", "clearance_read", "nothing_loose"];
const HELPER: &[&str] = &["nothing_cut", "helper_on", "helper_set", "helper_locked", "nothing_loose"];
const NO_PACK: &[&str] = &["pack_clamped", "center_bolt_out", "clips_open", "eye_off"];
const NO_U_BOLTS: &[&str] = &["u_bolts_off", "u_bolts_on", "center_bolt_out", "coil_out"];

/// Common practice, kind by kind.
const RULES: &[Rule] = &[
    ("leaf_by_lift", LEAF, &["coil_out", "block_in", "eye_off"]),
    ("added_leaf", LEAF, &["coil_out", "block_in", "eye_off"]),
    ("half_pack", &["half_pack_under", "pack_clamped", "u_bolts_tight", "clips_closed"], &["eye_off", "coil_out"]),
    (
        "new_packs",
        &["eye_off", "pack_out", "pack_in", "eye_tight", "shackle_tight", "bushings_in", "pin_seated"],
        &["pack_clamped"],
    ),
    ("rearched_pack", &["eye_off", "pack_out", "pack_clamped", "drawn_by_clamps", "pack_in", "eye_tight"], &["coil_out"]),
    ("reworked_pack", &["eye_off", "pack_out", "pack_clamped", "drawn_by_clamps", "pack_in", "eye_tight"], &["coil_out"]),
    ("overload_pads", &["axle_carried", "pads_on"], NO_U_BOLTS),
    ("other_overload_leaf", &["overload_leaf_changed", "pack_clamped", "center_bolt_in", "clips_closed"], &["eye_off"]),
    ("longer_shackle", &["axle_carried", "shackle_off", "shackle_in", "shackle_tight"], &["u_bolts_off", "eye_off"]),
    ("spring_over", &["seats_welded", "room_at_bump", "u_bolts_tight"], &["pack_clamped"]),
    ("lift_block", BLOCK, NO_PACK),
    ("exchanged_block", BLOCK, NO_PACK),
    ("tapered_block", &["taper_turned_right", "block_in", "u_bolts_tight"], NO_PACK),
    ("exchanged_taper", &["taper_turned_right", "block_in", "u_bolts_tight"], NO_PACK),
    ("coil_spacer", COIL, NO_PACK),
    ("new_coils", COIL, &["spacer_in", "u_bolts_off"]),
    ("measured_coils", COIL, &["spacer_in", "u_bolts_off"]),
    ("wound_coils", COIL, &["spacer_in", "u_bolts_off"]),
    ("strut_spacer", &["strut_spacer_on", "strut_turned", "cams_marked", "axle_nut_new"], &["coil_out", "u_bolts_off"]),
    ("taller_struts", STRUT, &["strut_spacer_on", "u_bolts_off"]),
    ("helper_by_capacity", HELPER, NO_U_BOLTS),
    ("helper_spring", HELPER, NO_U_BOLTS),
    ("helper_coils", HELPER, NO_U_BOLTS),
    ("rubber_by_capacity", RUBBER, NO_U_BOLTS),
    ("load_rubber", RUBBER, NO_U_BOLTS),
    ("stop_extension", &["stop_longer", "stop_held", "room_at_bump"], NO_U_BOLTS),
    ("air_helper", &["bag_brackets_on", "line_run", "air_holds", "pressure_set", "room_at_bump", "no_leaks"], NO_U_BOLTS),
    ("bags_in_coils", &["axle_carried", "bag_in", "coils_seated", "line_run", "air_holds", "no_leaks"], NO_U_BOLTS),
    ("shocks", &["axle_carried", "shocks_off", "shocks_on", "shocks_tight", "slack_at_droop"], NO_U_BOLTS),
    ("brake_hoses", &["hose_off", "hose_on", "bled", "slack_at_droop", "pedal_firm", "no_leaks"], NO_U_BOLTS),
    ("u_bolts", &["axle_carried", "hoses_slack", "pin_seated", "u_bolts_tight", "u_bolts_again"], NO_PACK),
    ("bar_links", &["links_off", "links_on", "links_tight"], NO_U_BOLTS),
    ("anti_roll_bar", &["nothing_cut", "bar_off", "bar_on", "bar_tight", "links_tight", "room_at_bump"], NO_U_BOLTS),
    ("track_bar", &["axle_carried", "track_bar_off", "track_bar_on", "track_bar_tight"], NO_U_BOLTS),
    ("radius_arm_drop", &["axle_carried", "radius_arms_off", "radius_arms_tight", "hoses_slack"], NO_U_BOLTS),
    ("differential_drop", &["differential_held", "differential_off", "differential_lowered", "cv_axle_whole"], NO_U_BOLTS),
    ("tires", &["wheels_off", "wheels_on", "lug_nuts", "lug_nuts_again", "room_at_bump"], NO_U_BOLTS),
];

/// The same of repairs.
const REPAIRS: &[(Addition, &[&str], &[&str])] = &[
    (Addition::NewLeaf, &["pack_out", "pack_clamped", "leaves_looked_at", "clips_closed", "eye_tight"], &["coil_out"]),
    (Addition::NewPack, &["pack_out", "pack_in", "eye_tight", "shackle_tight"], &["pack_clamped"]),
    (Addition::NewUBolts, &["axle_carried", "pin_seated", "u_bolts_tight", "u_bolts_again"], NO_PACK),
    (Addition::LongerHose, &["hose_off", "bled", "pedal_firm", "slack_at_droop"], NO_U_BOLTS),
    (Addition::NewHose, &["hose_off", "bled", "pedal_firm", "slack_at_droop"], NO_U_BOLTS),
    (Addition::NewBushes, &["eye_off", "bushings_in", "eye_tight", "shackle_tight"], &["pack_clamped"]),
    (Addition::NewCentreBolt, &["pack_clamped", "drawn_by_clamps", "center_bolt_in", "pin_seated"], &["eye_off"]),
    (Addition::Clips, &["clips_open", "clips_closed"], NO_U_BOLTS),
    (Addition::Shocks, &["shocks_off", "shocks_tight"], NO_U_BOLTS),
    (Addition::LongerShocks, &["shocks_off", "shocks_tight"], NO_U_BOLTS),
    (Addition::ShorterShocks, &["shocks_off", "shocks_tight"], NO_U_BOLTS),
    (Addition::BumpStops, &["stop_off", "stop_held"], NO_U_BOLTS),
    (Addition::Shackles, &["shackle_off", "bushings_in", "shackle_tight"], &["u_bolts_off"]),
];

fn card_of(word: &str, setting: Setting) -> Card {
    let row = KindRow::of(word).unwrap();
    let axles = if matches!(row.ends, Ends::Front) { Axles::Front } else { Axles::Rear };
    let parts = [(row, Site { axles, side: None })];
    Card::of(&Ordered { parts: &parts, repairs: &[], rear_axles: 1, setting, first: Side::Left })
}

fn has(card: &Card, word: &str) -> bool {
    card.steps.iter().any(|step| step.operation.word == word)
}

#[test]
fn every_kind_is_done_as_practitioners_do_it() {
    assert_eq!(RULES.len(), OF_KINDS.len(), "a rule for every kind");
    for (kind, must, must_not) in RULES {
        let card = card_of(kind, PICKUP);
        for step in *must {
            assert!(has(&card, step), "{kind} without {step}");
        }
        for step in *must_not {
            assert!(!has(&card, step), "{kind} with {step}");
        }
    }
}

#[test]
fn every_repair_is_done_as_practitioners_do_it() {
    assert_eq!(REPAIRS.len(), OF_REPAIRS.len(), "a rule for every repair");
    for (repair, must, must_not) in REPAIRS {
        let repairs = [*repair];
        let card = Card::of(&Ordered { parts: &[], repairs: &repairs, rear_axles: 1, setting: PICKUP, first: Side::Left });
        for step in *must {
            assert!(has(&card, step), "{repair:?} without {step}");
        }
        for step in *must_not {
            assert!(!has(&card, step), "{repair:?} with {step}");
        }
    }
}

/// Whoever takes a wheel off torques it, and again after the drive; a card on which no wheel comes off asks for none.
#[test]
fn lug_nuts_are_torqued_wherever_a_wheel_comes_off() {
    for (kind, ..) in RULES {
        let card = card_of(kind, PICKUP);
        let torques = card.steps.iter().filter(|step| step.operation.asks == Asks::Torque(Fastener::LugNuts)).count();
        assert_eq!(torques, if has(&card, "wheels_off") { 2 } else { 0 }, "{kind}");
    }
}

/// A trailer has no pedal that is felt, no system that levels it, and a coupler that is held; a lift has pads and no stands.
#[test]
fn a_card_is_for_the_vehicle_and_for_the_way_it_is_raised() {
    let trailer = Setting { trailer: true, front_driven: false, ..PICKUP };
    let lift = Setting { lifting: Lifting::Lift, ..PICKUP };
    for (kind, ..) in RULES {
        let (on_stands, towed, lifted) = (card_of(kind, PICKUP), card_of(kind, trailer), card_of(kind, lift));
        assert_eq!(has(&on_stands, "stands_set"), has(&lifted, "pads_checked"), "{kind}");
        assert!(!has(&lifted, "stands_set") && !has(&on_stands, "pads_set"), "{kind}");
        assert_eq!(has(&towed, "coupler_held"), has(&towed, "chocked"), "{kind}: what is raised is held at its coupler");
        assert!(!has(&towed, "leveling_off") && !has(&on_stands, "coupler_held"), "{kind}");
    }
}

/// On one side only that side is gone about, and the end as a whole is raised and lowered all the same.
#[test]
fn on_one_side_the_other_is_left_alone() {
    for (kind, ..) in RULES {
        let row = KindRow::of(kind).unwrap();
        if !row.goes_on_one_side {
            continue;
        }
        let axles = if matches!(row.ends, Ends::Front) { Axles::Front } else { Axles::Rear };
        let parts = [(row, Site { axles, side: Some(Side::Right) })];
        let card = Card::of(&Ordered { parts: &parts, repairs: &[], rear_axles: 1, setting: PICKUP, first: Side::Left });
        assert!(card.steps.iter().all(|step| step.place.side != Some(Side::Left)), "{kind}");
        assert!(has(&card, "chocked") && has(&card, "lowered"), "{kind}");
    }
}

/// Where both ends are worked on, one is down again before the other goes up.
#[test]
fn one_end_is_down_before_the_other_goes_up() {
    let (block, spacer) = (KindRow::of("lift_block").unwrap(), KindRow::of("strut_spacer").unwrap());
    let parts = [(block, Site { axles: Axles::Rear, side: None }), (spacer, Site { axles: Axles::Front, side: None })];
    let card = Card::of(&Ordered { parts: &parts, repairs: &[], rear_axles: 1, setting: PICKUP, first: Side::Left });
    let at = |word: &str, end: End| {
        card.steps.iter().position(|step| step.operation.word == word && step.place.end == Some(end)).unwrap()
    };
    assert!(at("lowered", End::Rear) < at("raised", End::Front));
    // What waits for the weight waits until both are down.
    let first = card.steps.iter().position(|step| step.operation.phase == Phase::OnWheels).unwrap();
    assert!(at("lowered", End::Front) < first);
}
