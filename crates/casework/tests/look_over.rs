//! What findings rule out and add, against the rules of the trade and the regulation.

use wise_badger_casework::look_over::PutRight;
use wise_badger_casework::look_over::{Addition, Area, Defect, Finding, Gate, Grade, LookOver, Measure, Measured};
use wise_badger_casework::survey::{Ends, RearWheels, SpringKind, VehicleClass, VehicleFacts};
use wise_badger_mechanics::correction::{AddedLeaf, Correction, HelperSpring, LiftBlock, RearchedPack};
use wise_badger_mechanics::units::{inches, pounds, pounds_per_inch};

fn found(defects: &[Defect]) -> LookOver {
    let findings = defects.iter().map(|defect| Finding {
        area: defect.rule().area,
        grade: Grade::Fine,
        defects: vec![*defect],
        measured: vec![],
    });
    LookOver { findings: findings.collect(), ..LookOver::default() }
}

fn measured(what: Measure, value: f64) -> LookOver {
    let measured = vec![Measured { what, value: inches(value) }];
    LookOver {
        findings: vec![Finding { area: what.area(), grade: Grade::Fine, defects: vec![], measured }],
        ..LookOver::default()
    }
}

fn corrections() -> [Correction; 4] {
    [
        Correction::at_the_rear(LiftBlock { thickness: inches(2.0) }),
        Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(400.0), engagement_gap: inches(0.5) }),
        Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(150.0), lift: inches(1.0) }),
        Correction::at_the_rear(RearchedPack { free_height_gained: inches(1.5) }),
    ]
}

fn barred(look_over: &LookOver) -> [bool; 4] {
    corrections().map(|correction| !look_over.gate(&correction.works()).is_empty())
}

#[test]
fn a_failed_leaf_rules_out_everything_but_repair() {
    // The sense of 49 CFR 393.207(c), from memory.
    for leaf in [Defect::LeafCracked, Defect::LeafBroken, Defect::LeafMissing, Defect::LeafShifted] {
        assert_eq!(barred(&found(&[leaf])), [true; 4], "{leaf:?}");
        assert_eq!(found(&[leaf]).stops(), [Gate::Defect(leaf)]);
    }
}

#[test]
fn worn_eyes_and_bushes_rule_out_an_added_leaf() {
    assert_eq!(barred(&found(&[Defect::BushWorn])), [false, false, true, false]);
    assert_eq!(barred(&found(&[Defect::EyeWorn])), [false, false, true, true]);
    assert_eq!(found(&[Defect::BushWorn]).additions(), [(Addition::NewBushes, Defect::BushWorn)]);
    assert_eq!(found(&[Defect::EyeWorn]).additions(), [(Addition::NewLeaf, Defect::EyeWorn)], "a bush does not cure an eye");
}

#[test]
fn a_finding_bars_until_the_repair_that_cures_it_is_on_the_job_and_a_stop_until_it_is_done() {
    let with = |defects: &[Defect], repairs: &[Addition]| LookOver { repairs: repairs.to_vec(), ..found(defects) };
    assert_eq!(barred(&with(&[Defect::BushWorn], &[Addition::NewBushes])), [false; 4]);
    assert_eq!(barred(&with(&[Defect::EyeWorn], &[Addition::NewBushes])), [false, false, true, true], "not the eye's repair");
    assert_eq!(barred(&with(&[Defect::EyeWorn], &[Addition::NewLeaf])), [false; 4]);
    assert_eq!(barred(&with(&[Defect::EyeWorn, Defect::BushWorn], &[Addition::NewPack])), [false; 4]);
    for repairs in [&[Addition::NewLeaf][..], &[Addition::NewPack]] {
        assert_eq!(barred(&with(&[Defect::LeafCracked], repairs)), [true; 4], "on the job is not done");
    }
    for addition in Addition::ALL {
        // That a shock ends the travel before the stop is an option's doing, and no finding.
        let of_an_option = addition == Addition::ShorterShocks;
        assert!(of_an_option || !addition.cures().is_empty(), "{addition:?} cures nothing");
    }
    for defect in Defect::ALL {
        let asked = defect.rule().adds;
        let cured = |addition: &Addition| addition.cures().contains(&defect);
        let bars = !defect.rule().bars.is_empty() && defect.rule().least == Grade::PutRight;
        assert!(!bars || asked.iter().any(cured), "{defect:?} bars, and nothing that it asks for cures it");
    }
}

#[test]
fn everything_graded_put_right_is_to_be_put_right() {
    let graded = |area, defects: &[Defect]| LookOver {
        findings: vec![Finding { area, grade: Grade::PutRight, defects: defects.to_vec(), measured: vec![] }],
        ..LookOver::default()
    };
    let mount = graded(Area::Shocks, &[Defect::ShockMountDamaged]).to_put_right();
    assert_eq!(mount, [PutRight::Repair(Addition::ShockMount, Some(Defect::ShockMountDamaged))]);
    assert_eq!(graded(Area::Frame, &[]).to_put_right(), [PutRight::Area(Area::Frame)], "by its words alone");
    assert_eq!(graded(Area::Leaves, &[Defect::LeafPitted]).to_put_right(), [PutRight::Defect(Defect::LeafPitted)]);
    assert_eq!(found(&[Defect::StopHasBeenHitting]).to_put_right(), [], "only watched");
}

#[test]
fn a_stretched_u_bolt_and_a_short_hose_are_put_right_with_the_job() {
    let both = found(&[Defect::UBoltStretched, Defect::HoseAtLimit, Defect::CentreBoltLoose]);
    let additions: Vec<Addition> = both.additions().into_iter().map(|(addition, _)| addition).collect();
    assert_eq!(additions, [Addition::NewUBolts, Addition::LongerHose, Addition::NewCentreBolt]);
    assert_eq!(barred(&both), [false; 4]);
}

#[test]
fn a_grade_given_too_mildly_is_raised_by_the_defect_and_never_lowered() {
    let finding = Finding { area: Area::Leaves, grade: Grade::Watch, defects: vec![Defect::LeafCracked], measured: vec![] };
    assert_eq!(finding.counted_grade(), Grade::Stop);
    let graver = Finding { area: Area::Shocks, grade: Grade::Stop, defects: vec![Defect::ShockWitnessMark], measured: vec![] };
    assert_eq!(graver.counted_grade(), Grade::Stop);
    let look_over = LookOver { findings: vec![graver], ..LookOver::default() };
    assert_eq!(look_over.stops(), [Gate::Stop(Area::Shocks)]);
}

#[test]
fn a_measured_figure_past_its_limit_is_a_defect_and_at_its_limit_is_none() {
    for (what, at_limit, past, defect) in [
        (Measure::HoseSlack, 1.0, 0.75, Defect::HoseAtLimit),
        (Measure::BushPlay, 0.125, 0.1875, Defect::BushWorn),
        (Measure::FrontTread, 4.0 / 32.0, 3.0 / 32.0, Defect::TreadWornOut),
        (Measure::RearTread, 2.0 / 32.0, 1.5 / 32.0, Defect::TreadWornOut),
    ] {
        assert_eq!(measured(what, at_limit).defects(), [], "{what:?}");
        assert_eq!(measured(what, past).defects(), [defect], "{what:?}");
    }
}

#[test]
fn what_nobody_looked_at_is_named() {
    let look_over = found(&[Defect::LeafPitted]);
    assert_eq!(look_over.not_looked_at(&Area::ALL).len(), Area::ALL.len() - 1);
    assert!(!look_over.not_looked_at(&Area::ALL).contains(&Area::Leaves));
}

#[test]
fn only_areas_that_the_vehicle_has_are_looked_over() {
    let ratings = Ends { front: pounds(3_900.0), rear: pounds(4_100.0) };
    let vehicle = |class| VehicleFacts::new(class, RearWheels::Single, inches(145.0), ratings);
    let areas = |vehicle: &VehicleFacts, bags: bool| -> Vec<Area> {
        Area::ALL.into_iter().filter(|area| area.is_on(vehicle, bags)).collect()
    };
    let truck = vehicle(VehicleClass::HalfTonPickup);
    let nobody_said = areas(&truck, false);
    assert!(nobody_said.contains(&Area::Leaves) && !nobody_said.contains(&Area::CoilSeats), "{nobody_said:?}");
    assert!(nobody_said.contains(&Area::SteeringJoints) && !nobody_said.contains(&Area::AirHelper));
    let on = |front, rear| VehicleFacts { springs: Ends { front: Some(front), rear: Some(rear) }, ..truck.clone() };
    let coils = areas(&on(SpringKind::Coil, SpringKind::Coil), false);
    for of_leaves in
        [Area::Leaves, Area::EyesAndBushes, Area::CentreBolt, Area::Clips, Area::UBoltsAndSeats, Area::ShacklesAndHangers]
    {
        assert!(!coils.contains(&of_leaves), "{of_leaves:?} on coils");
    }
    assert!(coils.contains(&Area::CoilSeats) && coils.contains(&Area::BumpStops));
    let mixed = areas(&on(SpringKind::Coil, SpringKind::Leaf), true);
    assert!([Area::Leaves, Area::CoilSeats, Area::AirHelper].iter().all(|area| mixed.contains(area)), "{mixed:?}");
    assert!(areas(&on(SpringKind::Torsion, SpringKind::Torsion), false).contains(&Area::CoilSeats), "something bears it");
    let trailer = areas(&vehicle(VehicleClass::TandemTrailer), false);
    for steered in [Area::SteeringJoints, Area::AntiRollBar, Area::Driveline] {
        assert!(!trailer.contains(&steered), "{steered:?} on a trailer");
    }
}

#[test]
fn what_fails_and_hurts_is_looked_at_by_itself() {
    let own: Vec<Area> = Area::ALL.into_iter().filter(|area| area.needs_its_own_look()).collect();
    for area in
        [Area::Leaves, Area::ShacklesAndHangers, Area::Frame, Area::UBoltsAndSeats, Area::HosesAndWires, Area::SteeringJoints]
    {
        assert!(own.contains(&area), "{area:?}");
    }
    assert!(!own.contains(&Area::Shocks) && !own.contains(&Area::Clips));
}

#[test]
fn a_broken_coil_and_a_worn_joint_stop_everything_and_name_their_repair() {
    for (defect, repair) in [(Defect::CoilBroken, Addition::NewCoils), (Defect::SteeringJointWorn, Addition::SteeringJoint)] {
        let look_over = found(&[defect]);
        assert_eq!(look_over.stops(), [Gate::Defect(defect)]);
        assert!(
            look_over.to_put_right().iter().any(|asked| matches!(asked, PutRight::Repair(of, _) if *of == repair)),
            "{defect:?}"
        );
        assert_eq!(repair.cures(), [defect]);
    }
}

#[test]
fn every_area_has_something_to_find_and_every_defect_its_source() {
    for area in Area::ALL {
        assert!(Defect::of_area(area).count() > 0, "{area:?}");
    }
    for defect in Defect::ALL {
        assert!(!defect.rule().source.is_empty(), "{defect:?}");
    }
}

#[test]
fn every_correction_says_what_work_it_takes_so_that_none_passes_for_want_of_it() {
    for correction in corrections() {
        assert_eq!(correction.works().len(), 1, "{correction:?}");
    }
}
