//! What else an option changes, and what of it comes short, as a document has it.

use std::collections::BTreeMap;

use serde::Serialize;
use wise_badger_mechanics::units::InShopUnits;

use crate::consequence::Consequence;
use crate::look_over::Addition;
use crate::survey::{End, LoadState};

/// One thing that changes, with its figures by name.
#[derive(Debug, Serialize)]
pub(super) struct Changed {
    what: &'static str,
    #[serde(skip_serializing_if = "Option::is_none")]
    end: Option<&'static str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    state: Option<LoadState>,
    #[serde(flatten)]
    figures: BTreeMap<&'static str, f64>,
    /// What has to be fitted with it, since it comes short.
    #[serde(skip_serializing_if = "Option::is_none")]
    needs: Option<Addition>,
}

impl Changed {
    pub(super) fn of(consequence: &Consequence) -> Self {
        let (mut end, mut state) = (None, None);
        let (what, mut figures) = match consequence {
            Consequence::HoseSlack { end: of, measured, hangs_lower, longer } => {
                end = Some(*of);
                let figures = [("measured_m", measured), ("hangs_lower_m", hangs_lower), ("longer_m", longer)];
                ("hose_slack", figures.map(|(name, length)| (name, length.si())).to_vec())
            }
            Consequence::ShockRod { end: of, measured, apart, longer } => {
                end = Some(*of);
                let figures = [("measured_m", measured), ("apart_m", apart), ("longer_m", longer)];
                ("shock_draws_out", figures.map(|(name, length)| (name, length.si())).to_vec())
            }
            Consequence::ShockCloses { measured, apart, further, stop, .. } => {
                end = Some(End::Rear);
                let figures = [("measured_m", Some(measured)), ("apart_m", Some(apart)), ("further_m", Some(further))];
                let figures = figures.into_iter().chain([("stop_m", stop.as_ref())]);
                ("shock_closes", figures.filter_map(|(name, length)| Some((name, length?.si()))).collect())
            }
            Consequence::StopOpens(opens) => ("stop_opens", vec![("by_m", opens.si())]),
            Consequence::UBoltLeg { measured, longer, new } => {
                let figures = [("measured_m", measured.as_ref()), ("longer_m", Some(longer)), ("new_m", new.as_ref())];
                let figures = figures.into_iter();
                ("u_bolt_leg", figures.filter_map(|(name, length)| Some((name, length?.si()))).collect())
            }
            Consequence::Shaft { before, after } => {
                ("shaft_slope", vec![("before_rad", before.value), ("after_rad", after.value)])
            }
            Consequence::HalfShaft { before, after } => {
                ("half_shaft_slope", vec![("before_rad", before.value), ("after_rad", after.value)])
            }
            Consequence::FrontHangsLower(lower) => ("front_hangs_lower", vec![("by_m", lower.si())]),
            Consequence::TrackBar { end: of, by_the_lift, shift } => {
                end = Some(*of);
                ("track_bar_shift", vec![("by_the_lift_m", by_the_lift.si()), ("shift_m", shift.si())])
            }
            Consequence::Caster { by_rake, by_arms } => {
                ("caster", vec![("by_rake_rad", by_rake.value), ("by_arms_rad", by_arms.value)])
            }
            Consequence::BarLinks { end: of, short } => {
                end = Some(*of);
                ("bar_links", vec![("short_m", short.si())])
            }
            Consequence::OverloadLeaf { state: of, before, after } => {
                state = Some(*of);
                ("overload_leaf_clear", vec![("before_m", before.si()), ("after_m", after.si())])
            }
            Consequence::AgainstLeaning { share, .. } => ("against_leaning", vec![("share", *share)]),
            Consequence::AtItsRating { before, after } => {
                ("to_the_stop_at_its_rating", vec![("before_m", before.si()), ("after_m", after.si())])
            }
            Consequence::CoilBindsFirst { end: of, by } => {
                end = Some(*of);
                ("coil_binds_before_the_stop", vec![("by_m", by.si())])
            }
            Consequence::CoilLoose { end: of, by } => {
                end = Some(*of);
                ("coil_loose_at_droop", vec![("by_m", by.si())])
            }
            Consequence::NeverBears => ("never_bears", Vec::new()),
            Consequence::SeatTurns(turned) => ("seat_turns", vec![("by_rad", turned.value)]),
            Consequence::PinionTurned(turned) => ("pinion_turned", vec![("by_rad", turned.value)]),
        };
        figures.extend(consequence.left().map(|left| ("left_m", left.si())));
        let end = end.map(|end| if end == End::Front { "front" } else { "rear" });
        Changed { what, end, state, figures: figures.into_iter().collect(), needs: consequence.asks_for() }
    }
}
