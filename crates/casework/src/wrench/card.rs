//! The card of a job: every step of its parts and repairs, in order, each in its place.

use wise_badger_mechanics::correction::{Axles, KindRow, Site};
use wise_badger_mechanics::side::Side;

use super::operation::{Asks, Each, Operation, Phase, Setting};
use super::operations::OPERATIONS;
use super::work::{Sides, Work, of_kind, of_repair};
use crate::look_over::Addition;
use crate::survey::End;

/// Where a step is done: at an end, on one of several axles there, on a side; all of it where none is named.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Place {
    /// The end.
    pub end: Option<End>,
    /// The axle, from 1, of a trailer that has several.
    pub axle: Option<u8>,
    /// The side.
    pub side: Option<Side>,
}

impl Place {
    /// Whether one who works at a place has to do with another: the whole job with everything, an end with its corners and the whole.
    pub fn is_met_by(&self, other: &Place) -> bool {
        fn meet<T: PartialEq>(one: Option<T>, other: Option<T>) -> bool {
            one.zip(other).is_none_or(|(one, other)| one == other)
        }
        meet(self.end, other.end) && meet(self.axle, other.axle) && meet(self.side, other.side)
    }
}

/// One step of a card.
#[derive(Debug, Clone, Copy)]
pub struct Step {
    /// What is done.
    pub operation: &'static Operation,
    /// Where.
    pub place: Place,
}

impl Step {
    /// What the step goes by in records, whatever else stands on the card: its place and its word.
    pub fn key(&self) -> String {
        let end = self.place.end.map(|end| if end == End::Front { "front" } else { "rear" }.to_owned());
        let axle = self.place.axle.map(|axle| axle.to_string());
        let side = self.place.side.map(|side| side.name().to_owned());
        let parts = [end, axle, side, Some(self.operation.word.to_owned())];
        parts.into_iter().flatten().collect::<Vec<_>>().join(".")
    }
}

/// What a card is made for.
#[derive(Debug, Clone)]
pub struct Ordered<'a> {
    /// The parts that are fitted: their kinds, and where they go.
    pub parts: &'a [(&'static KindRow, Site)],
    /// The repairs of the job.
    pub repairs: &'a [Addition],
    /// How many axles the rear has.
    pub rear_axles: u8,
    /// The vehicle, and how it is raised.
    pub setting: Setting,
    /// The side that is begun with: the harder one, where one is.
    pub first: Side,
}

/// A card: its steps in order.
#[derive(Debug, Clone)]
pub struct Card {
    /// The steps.
    pub steps: Vec<Step>,
    /// Kinds of parts that nobody wrote a card for.
    pub unknown: Vec<&'static str>,
}

/// The work at one end.
struct AtAnEnd {
    end: End,
    /// Every corner and what is done there.
    corners: Vec<(Option<u8>, Side, Vec<&'static Work>)>,
}

impl AtAnEnd {
    fn works(&self) -> impl Iterator<Item = &'static Work> {
        self.corners.iter().flat_map(|(.., works)| works.iter().copied())
    }

    /// Whether both sides are gone about together: as soon as one part asks for that.
    fn is_together(&self) -> bool {
        self.works()
            .any(|work| work.sides == Sides::Together && work.steps.iter().any(|steps| steps.contains(&"axle_down_level")))
    }
}

fn asks_for(work: &Work, operation: &Operation) -> bool {
    work.steps.iter().any(|steps| steps.contains(&operation.word))
}

impl Card {
    /// The card of some parts and repairs.
    pub fn of(ordered: &Ordered<'_>) -> Self {
        let mut ends = [End::Rear, End::Front].map(|end| AtAnEnd { end, corners: Vec::new() });
        let mut unknown = Vec::new();
        for (row, site) in ordered.parts {
            match of_kind(row.word) {
                Some(work) => put(&mut ends, ordered, *site, work),
                None => unknown.push(row.word),
            }
        }
        for work in ordered.repairs.iter().filter_map(|repair| of_repair(*repair)) {
            put(&mut ends, ordered, Site::default(), work);
        }
        let worked: Vec<&AtAnEnd> = ends.iter().filter(|at| !at.corners.is_empty()).collect();
        let mut card = Card { steps: Vec::new(), unknown };
        for (least, most) in [(Phase::Before, Phase::Before), (Phase::Raise, Phase::Lower), (Phase::OnWheels, Phase::Drive)] {
            let phases = least..=most;
            match least {
                // One end after the other comes off the ground.
                Phase::Raise => worked.iter().for_each(|at| card.raise(at, ordered)),
                _ => {
                    for operation in OPERATIONS.iter().filter(|of| phases.contains(&of.phase)) {
                        card.everywhere(operation, &worked, ordered);
                    }
                }
            }
        }
        card
    }

    /// The holds before a step that keep it waiting as long as they are not answered with a yes.
    pub fn holds_up(&self, place: usize) -> impl Iterator<Item = usize> {
        let here = self.steps.get(place).map(|step| step.place);
        let before = self.steps.iter().enumerate().take(place);
        let holds = before.filter(|(_, step)| step.operation.asks == Asks::Hold);
        holds.filter_map(move |(at, step)| step.place.is_met_by(&here?).then_some(at))
    }

    /// A step wherever it is asked for.
    fn everywhere(&mut self, operation: &'static Operation, worked: &[&AtAnEnd], ordered: &Ordered<'_>) {
        if operation.each == Each::Job {
            let asked = worked.iter().any(|at| at.works().any(|work| asks_for(work, operation)));
            self.put(operation, Place::default(), asked, ordered);
            return;
        }
        for at in worked {
            self.at_end(operation, at, ordered);
            for side in sides(ordered) {
                self.at_corners(operation, at, side, ordered);
            }
        }
    }

    /// An end from the ground to the ground.
    fn raise(&mut self, at: &AtAnEnd, ordered: &Ordered<'_>) {
        let of_phases = |least: Phase, most: Phase| OPERATIONS.iter().filter(move |of| (least..=most).contains(&of.phase));
        for operation in of_phases(Phase::Raise, Phase::Raise) {
            self.everywhere(operation, &[at], ordered);
        }
        if at.is_together() {
            for operation in of_phases(Phase::Apart, Phase::Together) {
                self.everywhere(operation, &[at], ordered);
            }
        } else {
            of_phases(Phase::Apart, Phase::Apart).for_each(|operation| self.at_end(operation, at, ordered));
            for side in sides(ordered) {
                of_phases(Phase::Apart, Phase::Together).for_each(|operation| self.at_corners(operation, at, side, ordered));
            }
            of_phases(Phase::Together, Phase::Together).for_each(|operation| self.at_end(operation, at, ordered));
        }
        for operation in of_phases(Phase::Hanging, Phase::Lower) {
            self.everywhere(operation, &[at], ordered);
        }
    }

    fn at_end(&mut self, operation: &'static Operation, at: &AtAnEnd, ordered: &Ordered<'_>) {
        if operation.each == Each::End {
            let asked = at.works().any(|work| asks_for(work, operation));
            self.put(operation, Place { end: Some(at.end), ..Place::default() }, asked, ordered);
        }
    }

    fn at_corners(&mut self, operation: &'static Operation, at: &AtAnEnd, side: Side, ordered: &Ordered<'_>) {
        if operation.each != Each::Corner {
            return;
        }
        for (axle, _, works) in at.corners.iter().filter(|(_, of, _)| *of == side) {
            let place = Place { end: Some(at.end), axle: *axle, side: Some(side) };
            self.put(operation, place, works.iter().any(|work| asks_for(work, operation)), ordered);
        }
    }

    fn put(&mut self, operation: &'static Operation, place: Place, asked: bool, ordered: &Ordered<'_>) {
        if asked && (operation.applies)(&ordered.setting) {
            self.steps.push(Step { operation, place });
        }
    }
}

fn sides(ordered: &Ordered<'_>) -> [Side; 2] {
    if ordered.first == Side::Left { [Side::Left, Side::Right] } else { [Side::Right, Side::Left] }
}

/// Puts the work of a part to the corners that it goes on.
fn put(ends: &mut [AtAnEnd; 2], ordered: &Ordered<'_>, site: Site, work: &'static Work) {
    let end = if site.axles == Axles::Front { End::Front } else { End::Rear };
    let axles: Vec<Option<u8>> = match (site.axles, ordered.rear_axles) {
        (Axles::Front, _) | (_, 0 | 1) => vec![None],
        (Axles::OneOfRear(axle), _) => vec![Some(axle)],
        (Axles::Rear, count) => (1..=count).map(Some).collect(),
    };
    let Some(at) = ends.iter_mut().find(|at| at.end == end) else { return };
    for axle in axles {
        for side in Side::BOTH.into_iter().filter(|side| site.side.is_none_or(|only| only == *side)) {
            match at.corners.iter_mut().find(|(of, there, _)| (*of, *there) == (axle, side)) {
                Some((.., works)) => works.push(work),
                None => at.corners.push((axle, side, vec![work])),
            }
        }
    }
}
