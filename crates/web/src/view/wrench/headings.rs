//! Under what the steps of a card stand: a part of the work, and where it is done.

use std::ops::Range;

use wise_badger_casework::survey::VehicleClass;
use wise_badger_casework::wrench::{Place, Step};
use wise_badger_mechanics::side::Side;

use super::{phase_words, place_words};

/// Sides that take turns more often than this are worked on together.
const ONE_SIDE_AFTER_THE_OTHER: usize = 2;

/// What some steps of a card stand under.
#[derive(Debug, PartialEq, Eq)]
pub(crate) struct Heading {
    /// In words.
    pub(crate) title: String,
    /// Which steps.
    pub(crate) steps: Range<usize>,
    /// Whether both sides are under it, so that each step says its own.
    pub(crate) of_both_sides: bool,
}

/// What the steps of a card stand under, in their order. Where one side is done after the other, as leaves are, each has its own; where
/// they take turns, as with coils that come down level, or there is but a step on each, a heading a step would be none.
pub(crate) fn headings(steps: &[Step], class: VehicleClass) -> Vec<Heading> {
    let of_one_place = |one: &Step, other: &Step| {
        (one.operation.phase, one.place.end, one.place.axle) == (other.operation.phase, other.place.end, other.place.axle)
    };
    let blocks = runs(steps, 0, of_one_place);
    let of_block = |block: Range<usize>| {
        let of_one_side = |one: &Step, other: &Step| one.place.side == other.place.side;
        let by_side = runs(steps.get(block.clone()).unwrap_or_default(), block.start, of_one_side);
        let of_a_side = |run: &&Range<usize>| steps.get(run.start).is_some_and(|step| step.place.side.is_some());
        let sides: Vec<usize> = by_side.iter().filter(of_a_side).map(Range::len).collect();
        let a_step_each = sides.len() > 1 && sides.iter().all(|steps| *steps == 1);
        let together = a_step_each || sides.len() > ONE_SIDE_AFTER_THE_OTHER;
        let of = if together { vec![block] } else { by_side };
        of.into_iter().map(move |run| (run, together))
    };
    let heading = |(run, of_both_sides): (Range<usize>, bool)| {
        let step = steps.get(run.start)?;
        let place = if of_both_sides { Place { side: None, ..step.place } } else { step.place };
        let (phase, place) = (phase_words(step.operation.phase), place_words(&place, class));
        let title = if place.is_empty() { phase.to_owned() } else { format!("{place}: {}", phase.to_lowercase()) };
        Some(Heading { title, steps: run, of_both_sides })
    };
    blocks.into_iter().flat_map(of_block).filter_map(heading).collect()
}

/// On which side a step is done, at the head of its line.
pub(crate) fn side_words(step: &Step) -> &'static str {
    match step.place.side {
        Some(Side::Left) => "Left",
        Some(Side::Right) => "Right",
        None => "",
    }
}

/// The runs of steps that are alike, by their places from `first` on.
fn runs(steps: &[Step], first: usize, alike: impl Fn(&Step, &Step) -> bool) -> Vec<Range<usize>> {
    let lengths = steps.chunk_by(alike).map(<[Step]>::len);
    let ends = lengths.scan(first, |from, length| {
        let run = *from..*from + length;
        *from = run.end;
        Some(run)
    });
    ends.collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use wise_badger_casework::survey::End;
    use wise_badger_casework::wrench::{OPERATIONS, Phase};

    fn step(phase: Phase, side: Option<Side>) -> Step {
        let operation = OPERATIONS.iter().find(|operation| operation.phase == phase).expect("every part of the work has steps");
        Step { operation, place: Place { end: Some(End::Rear), axle: None, side } }
    }

    fn titles(steps: &[Step]) -> Vec<(String, usize, bool)> {
        let of = headings(steps, VehicleClass::HalfTonPickup).into_iter();
        of.map(|heading| (heading.title, heading.steps.len(), heading.of_both_sides)).collect()
    }

    #[test]
    fn one_side_after_the_other_has_a_heading_each() {
        let (left, right) = (Some(Side::Left), Some(Side::Right));
        let apart = |side| step(Phase::Apart, side);
        let told = titles(&[apart(None), apart(left), apart(left), apart(right), apart(right)]);
        let expected = [("Rear: apart", 1, false), ("Rear left: apart", 2, false), ("Rear right: apart", 2, false)];
        assert_eq!(told, expected.map(|(title, count, both)| (title.to_owned(), count, both)));
    }

    #[test]
    fn a_step_on_each_side_is_no_two_headings() {
        let told = titles(&[None, Some(Side::Right), Some(Side::Left)].map(|side| step(Phase::OnWheels, side)));
        assert_eq!(told, [("Rear: weight on the wheels".to_owned(), 3, true)]);
        let alone = titles(&[step(Phase::OnWheels, Some(Side::Right))]);
        assert_eq!(alone, [("Rear right: weight on the wheels".to_owned(), 1, false)]);
    }

    #[test]
    fn sides_that_take_turns_stand_under_one_with_what_both_share() {
        let turns = [Some(Side::Left), Some(Side::Right), None, Some(Side::Left), Some(Side::Right)];
        let told = titles(&turns.map(|side| step(Phase::Apart, side)));
        assert_eq!(told, [("Rear: apart".to_owned(), 5, true)]);
    }

    proptest! {
        /// Whatever the order, every step stands under one heading, and in its order.
        #[test]
        fn every_step_stands_under_one(picked in prop::collection::vec((0..2_usize, 0..3_usize), 0..40)) {
            let sides = [None, Some(Side::Left), Some(Side::Right)];
            let steps: Vec<Step> =
                picked.iter().map(|(phase, side)| step([Phase::Apart, Phase::Together][*phase], sides[*side])).collect();
            let told = headings(&steps, VehicleClass::Wagon);
            let under: Vec<usize> = told.iter().flat_map(|heading| heading.steps.clone()).collect();
            prop_assert_eq!(under, (0..steps.len()).collect::<Vec<_>>());
            for heading in told {
                let of = &steps[heading.steps.clone()];
                prop_assert!(of.iter().all(|step| step.operation.phase == of[0].operation.phase));
                prop_assert!(heading.of_both_sides || of.iter().all(|step| step.place.side == of[0].place.side));
            }
        }
    }
}
