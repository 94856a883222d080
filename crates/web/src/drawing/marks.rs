//! What stands on the rulers: heights measured, aimed at and predicted, taken from a job.

use wise_badger_casework::aim::TargetBand;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::survey::{End, LoadState, Survey, is_a_lean};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::Repeats;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::Length;

use crate::view::Units;

/// What a mark is. Each has a shape of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum MarkKind {
    /// Read with the tape: solid.
    Measured,
    /// Worked out: open, in its band.
    Predicted,
    /// Wanted: a hatched band.
    Aim,
}

/// One mark on one ruler.
#[derive(Debug, Clone)]
pub(crate) struct Mark {
    pub(crate) kind: MarkKind,
    pub(crate) state: LoadState,
    pub(crate) height: Length,
    /// Half the width of its band; nought when it has none.
    pub(crate) band: Length,
    pub(crate) text: String,
    pub(crate) name: String,
}

/// What is to be shown beside the heights as found.
#[derive(Debug, Clone, Default, PartialEq)]
pub(crate) struct Shown {
    pub(crate) aim: Option<(LoadState, TargetBand)>,
    pub(crate) prediction: Option<Prediction>,
    /// The survey after fitting, which then takes the place of the one before.
    pub(crate) fitted: Option<Survey>,
}

/// The marks of both rulers.
#[derive(Debug, Clone, Default)]
pub(crate) struct Marks {
    pub(crate) front: Vec<Mark>,
    pub(crate) rear: Vec<Mark>,
    /// Clearance at the rear stops, with its label, by state.
    pub(crate) stop_gap: Vec<(LoadState, Length, String)>,
    /// What the front ruler stands at.
    pub(crate) front_name: String,
}

/// Both sides where they lean, otherwise the axle's own height.
fn each_side(survey: &Survey, end: End, state: LoadState) -> Vec<(Length, &'static str)> {
    let Some(axle) = survey.height(end, state) else { return Vec::new() };
    let sides = Sides::from_fn(|side| survey.side(end, state, side));
    let sides = sides.left.zip(sides.right).map(|(left, right)| Sides { left, right });
    sides_or_axle(axle, sides).into_iter().map(|(height, side)| (height.value, side)).collect()
}

/// What is alike is shown once, what leans is shown for both.
fn sides_or_axle(axle: Uncertain<Length>, sides: Option<Sides<Uncertain<Length>>>) -> Vec<(Uncertain<Length>, &'static str)> {
    let leaning = sides.filter(|sides| is_a_lean(sides.right.value - sides.left.value));
    leaning.map_or_else(|| vec![(axle, "")], |sides| vec![(sides.left, ", left"), (sides.right, ", right")])
}

impl Marks {
    pub(crate) fn new(found: &Survey, shown: &Shown, units: Units) -> Self {
        let survey = shown.fitted.as_ref().unwrap_or(found);
        let after = if shown.fitted.is_some() { " after" } else { "" };
        let front_name = crate::view::sentence(crate::view::end_name(found.vehicle.class, End::Front));
        let mut marks = Marks { front_name, ..Marks::default() };
        for state in found.states() {
            let word = crate::view::state_of(found, state);
            for end in [End::Front, End::Rear] {
                let measured = |height: Length, side: &str| Mark {
                    kind: MarkKind::Measured,
                    state,
                    height,
                    band: Length::default(),
                    text: units.height(height),
                    name: format!("{word}{after}{side}"),
                };
                for (height, side) in each_side(survey, end, state) {
                    marks.put(end, measured(height, side));
                }
            }
            if let Some(gap) = survey.gap(state) {
                marks.stop_gap.push((state, gap, format!("{} {word}", units.height(gap))));
            }
            if let Some(Ok(predicted)) = shown.prediction.as_ref().map(|prediction| prediction.at(state)) {
                let mark = |height: Uncertain<Length>, side: &str| Mark {
                    kind: MarkKind::Predicted,
                    state,
                    height: height.value,
                    band: height.band(),
                    text: units.predicted(height),
                    name: format!("predicted {word}{side}"),
                };
                let front = predicted.front.filter(|_| predicted.front_sides.is_some());
                for (height, side) in front.into_iter().flat_map(|front| sides_or_axle(front, predicted.front_sides)) {
                    marks.put(End::Front, mark(height, side));
                }
                for (height, side) in sides_or_axle(predicted.rear, predicted.rear_sides) {
                    marks.put(End::Rear, mark(height, side));
                }
            }
        }
        if let Some((state, target)) = shown.aim {
            let text = format!("{} ± {}", units.height(target.height), units.height(target.tolerance));
            let name = format!("aim {}", crate::view::state_of(found, state));
            marks.put(End::Rear, Mark { kind: MarkKind::Aim, state, height: target.height, band: target.tolerance, text, name });
        }
        marks
    }

    fn put(&mut self, end: End, mark: Mark) {
        match end {
            End::Front => self.front.push(mark),
            End::Rear => self.rear.push(mark),
        }
    }

    /// Only what belongs to one state.
    pub(crate) fn of_state(&self, state: LoadState) -> Marks {
        let of = |marks: &[Mark]| marks.iter().filter(|mark| mark.state == state).cloned().collect();
        let stop_gap = self.stop_gap.iter().filter(|(of, _, _)| *of == state).cloned().collect();
        Marks { front: of(&self.front), rear: of(&self.rear), stop_gap, front_name: self.front_name.clone() }
    }

    /// Height of an end by its marks of a kind in a state: the mean of both sides where each has its own.
    pub(crate) fn height(&self, end: End, kind: MarkKind, state: LoadState) -> Option<Length> {
        let marks = if end == End::Front { &self.front } else { &self.rear };
        let heights: Vec<Length> =
            marks.iter().filter(|mark| mark.kind == kind && mark.state == state).map(|mark| mark.height).collect();
        Repeats::of(&heights).map(|heights| heights.mean)
    }

    /// All of it in words, for those who cannot see the drawing.
    pub(crate) fn in_words(&self) -> String {
        let side = |name: &str, marks: &[Mark]| {
            let each: Vec<String> = marks.iter().map(|mark| format!("{} {}", mark.name, mark.text)).collect();
            if each.is_empty() { format!("{name}: no heights yet.") } else { format!("{name}: {}.", each.join(", ")) }
        };
        let gaps: Vec<String> = self.stop_gap.iter().map(|(_, _, text)| text.clone()).collect();
        let gaps = if gaps.is_empty() { String::new() } else { format!(" Rear stop gap: {}.", gaps.join(", ")) };
        format!("{} {}{gaps}", side(&self.front_name, &self.front), side("Rear", &self.rear))
    }
}
