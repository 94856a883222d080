//! What stands on the rulers: heights measured, aimed at and predicted, taken from a job.

use wise_badger_casework::aim::TargetBand;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::survey::{End, LoadState, Survey};
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
#[derive(Debug, Clone, Default)]
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

impl Marks {
    pub(crate) fn new(found: &Survey, shown: &Shown, units: Units) -> Self {
        let survey = shown.fitted.as_ref().unwrap_or(found);
        let after = if shown.fitted.is_some() { " after" } else { "" };
        let front_name = crate::view::sentence(crate::view::end_name(found.vehicle.class, End::Front));
        let mut marks = Marks { front_name, ..Marks::default() };
        for state in LoadState::BOTH {
            let word = crate::view::state_name(state);
            for end in [End::Front, End::Rear] {
                if let Some(height) = survey.height(end, state) {
                    marks.put(
                        end,
                        Mark {
                            kind: MarkKind::Measured,
                            state,
                            height: height.value,
                            band: Length::default(),
                            text: units.height(height.value),
                            name: format!("{word}{after}"),
                        },
                    );
                }
            }
            let gap = survey.stop_gap.get(state);
            if let Some(gap) = gap {
                marks.stop_gap.push((state, *gap, format!("{} {word}", units.height(*gap))));
            }
            if let Some(Ok(predicted)) = shown.prediction.as_ref().map(|prediction| prediction.get(state)) {
                marks.put(
                    End::Rear,
                    Mark {
                        kind: MarkKind::Predicted,
                        state,
                        height: predicted.rear.value,
                        band: predicted.rear.band(),
                        text: units.predicted(predicted.rear),
                        name: format!("predicted {word}"),
                    },
                );
            }
        }
        if let Some((state, target)) = shown.aim {
            let text = format!("{} ± {}", units.height(target.height), units.height(target.tolerance));
            let name = format!("aim {}", crate::view::state_name(state));
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

    /// Height of an axle's mark of a kind in a state.
    pub(crate) fn height(&self, end: End, kind: MarkKind, state: LoadState) -> Option<Length> {
        let marks = if end == End::Front { &self.front } else { &self.rear };
        marks.iter().find(|mark| mark.kind == kind && mark.state == state).map(|mark| mark.height)
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
