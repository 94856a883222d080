//! What stands on the rulers: heights measured, aimed at and predicted, taken from a job.

use wise_badger_casework::aim::TargetBand;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::survey::{End, LoadState, Survey, is_a_lean};
use wise_badger_mechanics::side::{Side, Sides};
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
    /// Read at an earlier visit: a dash.
    Earlier,
}

/// One mark on one ruler.
#[derive(Debug, Clone)]
pub(crate) struct Mark {
    pub(crate) kind: MarkKind,
    pub(crate) state: LoadState,
    /// The mean of both sides.
    pub(crate) height: Length,
    /// Either side, where they differ.
    pub(crate) sides: Option<Sides<Length>>,
    /// Half the width of its band; nought when it has none.
    pub(crate) band: Length,
    /// What it comes to, in full.
    pub(crate) text: String,
    /// The same as it stands beside the ruler, whose heading has the unit.
    pub(crate) label: String,
    pub(crate) name: String,
}

impl Mark {
    /// Its highest and its lowest point.
    pub(crate) fn reach(&self) -> [Length; 2] {
        let sides = self.sides.unwrap_or_else(|| Sides::both(self.height));
        [sides.left.min(sides.right) - self.band, sides.left.max(sides.right) + self.band]
    }
}

/// A rear height of an earlier visit.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct EarlierHeight {
    /// Number of its job.
    pub(crate) visit: i32,
    pub(crate) state: LoadState,
    pub(crate) height: Length,
}

/// What is to be shown beside the heights as found.
#[derive(Debug, Clone, Default, PartialEq)]
pub(crate) struct Shown {
    pub(crate) aim: Option<(LoadState, TargetBand)>,
    pub(crate) prediction: Option<Prediction>,
    /// The survey after fitting, which then takes the place of the one before.
    pub(crate) fitted: Option<Survey>,
    /// What was read at the rear when the vehicle was here before, from the same datum.
    pub(crate) earlier: Vec<EarlierHeight>,
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

/// Both sides of an end that was read, where they lean.
fn leaning_sides(survey: &Survey, end: End, state: LoadState) -> Option<Sides<Length>> {
    let side = |side| survey.side(end, state, side).map(|height| height.value);
    leaning(side(Side::Left)?, side(Side::Right)?)
}

fn leaning(left: Length, right: Length) -> Option<Sides<Length>> {
    is_a_lean(right - left).then_some(Sides { left, right })
}

/// Either side as it is printed, or the one height of both.
fn of_sides(height: Length, sides: Option<Sides<Length>>, print: impl Fn(Length) -> String) -> String {
    match sides {
        None => print(height),
        Some(sides) => format!("L {}  R {}", print(sides.left), print(sides.right)),
    }
}

impl Marks {
    /// Those of some states alone and of the aim, both sides together: for a small picture.
    pub(crate) fn in_short(mut self, states: &[LoadState], units: Units) -> Self {
        for marks in [&mut self.front, &mut self.rear] {
            marks.retain(|mark| mark.kind == MarkKind::Aim || states.contains(&mark.state));
            for mark in marks.iter_mut().filter(|mark| mark.sides.is_some()) {
                mark.sides = None;
                mark.label = units.bare_height(mark.height);
            }
        }
        self.stop_gap.clear();
        self
    }

    pub(crate) fn new(found: &Survey, shown: &Shown, units: Units) -> Self {
        let survey = shown.fitted.as_ref().unwrap_or(found);
        let after = if shown.fitted.is_some() { " after" } else { "" };
        let front_name = crate::view::sentence(crate::view::end_name(found.vehicle.class, End::Front));
        let mut marks = Marks { front_name, ..Marks::default() };
        for state in found.states() {
            let word = crate::view::state_of(found, state);
            for end in [End::Front, End::Rear] {
                let Some(height) = survey.height(end, state).map(|height| height.value) else { continue };
                let sides = leaning_sides(survey, end, state);
                let mark = Mark {
                    kind: MarkKind::Measured,
                    state,
                    height,
                    sides,
                    band: Length::default(),
                    text: of_sides(height, sides, |height| units.height(height)),
                    label: of_sides(height, sides, |height| units.bare_height(height)),
                    name: format!("{word}{after}"),
                };
                marks.put(end, mark);
            }
            if let Some(gap) = survey.gap(state) {
                let read = of_sides(gap, survey.gaps_that_differ(state), |gap| units.height(gap));
                marks.stop_gap.push((state, gap, format!("{read} {word}")));
            }
            if let Some(Ok(predicted)) = shown.prediction.as_ref().map(|prediction| prediction.at(state)) {
                let mark = |height: Uncertain<Length>, sides: Option<Sides<Uncertain<Length>>>| {
                    let sides = sides.and_then(|sides| leaning(sides.left.value, sides.right.value));
                    let band = units.bare_band(height.band());
                    Mark {
                        kind: MarkKind::Predicted,
                        state,
                        height: height.value,
                        sides,
                        band: height.band(),
                        text: format!("{} ± {}", of_sides(height.value, sides, |of| units.height(of)), units.band(height.band())),
                        label: match sides {
                            None => format!("{} ± {band}", units.bare_height(height.value)),
                            Some(_) => of_sides(height.value, sides, |of| units.bare_height(of)),
                        },
                        name: match sides {
                            None => format!("predicted {word}"),
                            Some(_) => format!("± {band} predicted {word}"),
                        },
                    }
                };
                if let Some(front) = predicted.front.filter(|_| predicted.front_sides.is_some()) {
                    marks.put(End::Front, mark(front, predicted.front_sides));
                }
                marks.put(End::Rear, mark(predicted.rear, predicted.rear_sides));
            }
        }
        for earlier in &shown.earlier {
            let mark = Mark {
                kind: MarkKind::Earlier,
                state: earlier.state,
                height: earlier.height,
                sides: None,
                band: Length::default(),
                text: units.height(earlier.height),
                label: units.bare_height(earlier.height),
                name: format!("job {}, {}", earlier.visit, crate::view::state_of(found, earlier.state)),
            };
            marks.put(End::Rear, mark);
        }
        if let Some((state, target)) = shown.aim {
            let [low, high] = [target.height - target.tolerance, target.height + target.tolerance];
            let mark = Mark {
                kind: MarkKind::Aim,
                state,
                height: target.height,
                sides: None,
                band: target.tolerance,
                text: format!("{} ± {}", units.height(target.height), units.height(target.tolerance)),
                label: format!("{}  to {}", units.bare_height(low), units.bare_height(high)),
                name: format!("aim {}", crate::view::state_of(found, state)),
            };
            marks.put(End::Rear, mark);
        }
        marks
    }

    fn put(&mut self, end: End, mark: Mark) {
        match end {
            End::Front => self.front.push(mark),
            End::Rear => self.rear.push(mark),
        }
    }

    /// The marks of an end.
    pub(crate) fn of(&self, end: End) -> &[Mark] {
        if end == End::Front { &self.front } else { &self.rear }
    }

    /// Height of an end by its mark of a kind in a state.
    pub(crate) fn height(&self, end: End, kind: MarkKind, state: LoadState) -> Option<Length> {
        self.of(end).iter().find(|mark| mark.kind == kind && mark.state == state).map(|mark| mark.height)
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
