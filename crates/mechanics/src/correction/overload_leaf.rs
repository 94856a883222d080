//! What is done about the overload leaf: where it joins in, and how hard.

use super::FittedOn;
use crate::side::Side;
use crate::stance::{Change, SpringDifference, SpringStage};
use crate::units::{Length, SpringRate};

/// What a corner carries more where its second stage joins in so much earlier, and adds so much more.
///
/// `F = (k₂ + Δ)·max(0, s − (g − c)) − k₂·max(0, s − g)` at a travel `s` from rest empty, `g` the gap there, `c` what it closes by.
/// Where no second stage is known or believed in, nothing is changed.
pub(super) fn second_stage_moved(on: &FittedOn<'_>, closes: Length, added: SpringRate) -> Change {
    let spring = &on.axle.corners.get(on.side.unwrap_or(Side::Left)).spring;
    let nothing = SpringDifference { force: Default::default(), rate: Default::default(), stages: Vec::new() };
    let difference = spring.stages.first().map_or(nothing, |old| {
        let new = SpringStage {
            at_travel: old.at_travel - closes,
            // No leaf pushes less than nothing.
            added_rate: (old.added_rate + added / on.corners).max(SpringRate::default()),
        };
        let at_kerb = |stage: &SpringStage| stage.added_rate * (-stage.at_travel).max(Length::default());
        let gone = SpringStage { added_rate: -old.added_rate, ..*old };
        SpringDifference { force: at_kerb(&new) - at_kerb(old), rate: Default::default(), stages: vec![new, gone] }
    });
    Change::OtherSpring { axle: on.axle.name.clone(), side: on.side, difference }
}
