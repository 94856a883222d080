//! What an option would do to a job, as a document.

use serde::Serialize;
use wise_badger_mechanics::correction::Caution;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length};

use super::changes::Changed;
use super::{OptionDocument, OptionDocumentError};
use crate::aim::GoalMark;
use crate::case::PlannedCase;
use crate::casework::{Casework, NothingFits};
use crate::entry::WhenEntry;
use crate::job_document::JobDocument;
use crate::look_over::{Addition, Area, Defect, Gate};
use crate::prediction::{CaseHeights, PredictedState, Unpredicted};
use crate::survey::{End, LoadState, NoFit};
use crate::words::Word as _;

/// Where an option would leave a vehicle, in every state that was read and every case of its load plan.
#[derive(Debug, Serialize)]
pub struct PredictionDocument {
    format: &'static str,
    version: u32,
    /// By which rules it may not be fitted; none where it may.
    refused: Vec<Refusal>,
    #[serde(flatten)]
    outcome: Outcome,
}

/// What an option does.
#[derive(Debug, Serialize)]
pub(super) struct Outcome {
    states: Vec<InState>,
    cases: Vec<InCase>,
    changes: Vec<Changed>,
    cautions: Vec<Caution>,
}

impl Outcome {
    /// Of the option at a place of a job's list. Over a rating no part is proposed, and nothing is predicted of one.
    pub(super) fn of(work: &Casework, place: usize) -> Self {
        let predicted = work.predicted(place);
        let of_states = predicted.into_iter().flat_map(|predicted| predicted.each());
        let in_case = |planned: &PlannedCase| InCase {
            case: planned.key,
            name: planned.name.clone(),
            stands: Stands::in_case(&work.in_case(place, planned), points(work, |mark| work.point_in_case(place, mark, planned))),
        };
        let cases = work.cases().iter().filter(|_| predicted.is_some());
        let parts = work.option(place).map_or(&[][..], |(_, parts)| parts);
        Outcome {
            states: of_states
                .map(|(state, stands)| InState {
                    state,
                    stands: Stands::in_state(stands, points(work, |mark| work.point_with(place, mark, state))),
                })
                .collect(),
            cases: cases.map(in_case).collect(),
            changes: work.consequences(place).iter().map(Changed::of).collect(),
            cautions: work.cautions(parts),
        }
    }
}

/// A rule that speaks against it.
#[derive(Debug, PartialEq, Serialize)]
pub(super) struct Refusal {
    rule: &'static str,
    #[serde(skip_serializing_if = "Option::is_none")]
    found: Option<Found>,
}

/// What was found that a rule goes by.
#[derive(Debug, PartialEq, Serialize)]
#[serde(untagged)]
enum Found {
    Defect(Defect),
    Area(Area),
    Missing(Addition),
}

#[derive(Debug, Serialize)]
struct InState {
    state: LoadState,
    #[serde(flatten)]
    stands: Stands,
}

#[derive(Debug, Serialize)]
struct InCase {
    case: u8,
    name: String,
    #[serde(flatten)]
    stands: Stands,
}

/// Where it stands, or by which rule that is not told.
#[derive(Debug, Serialize)]
#[serde(untagged)]
enum Stands {
    Told {
        heights: Vec<Height>,
        /// Left before the stop, or the load rubber; less than nothing where it bears.
        #[serde(skip_serializing_if = "Option::is_none")]
        travel_left_m: Option<f64>,
        #[serde(skip_serializing_if = "Option::is_none")]
        ride_hz: Option<f64>,
    },
    Untold {
        unpredicted: &'static str,
    },
}

/// The height of an end, or of one side of it, at rest.
#[derive(Debug, Serialize)]
struct Height {
    mark: &'static str,
    /// Of a point of the body.
    #[serde(skip_serializing_if = "Option::is_none")]
    name: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    side: Option<&'static str>,
    value_m: f64,
    sd_m: f64,
    /// Of what the tape will read.
    #[serde(skip_serializing_if = "Option::is_none")]
    tape_sd_m: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    rise_m: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    rise_sd_m: Option<f64>,
}

impl PredictionDocument {
    /// What an option would do to a job.
    ///
    /// # Errors     [`OptionDocumentError`] where the option is set for a state or a case that the job does not have
    pub fn of(job: &JobDocument, option: &OptionDocument) -> Result<Self, OptionDocumentError> {
        let mut case = job.case();
        let place = case.options.len();
        case.options.push(option.option());
        let work = Casework::new(case);
        let states = work.found().states().map(WhenEntry::State);
        let whens: Vec<WhenEntry> = states.chain(work.cases().iter().map(|case| WhenEntry::Case(case.key))).collect();
        if let Some(error) = option.set_elsewhere(&whens) {
            return Err(error);
        }
        let outcome = Outcome::of(&work, place);
        Ok(PredictionDocument { format: "wise-badger/prediction", version: 1, refused: refused(&work, place), outcome })
    }

    /// As text.
    ///
    /// # Panics
    /// never: it is made of numbers and words alone.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).expect("numbers and words")
    }
}

/// Hitch, step and whatever else of the body was read, where each stands.
fn points(work: &Casework, stands: impl Fn(&GoalMark) -> Option<Uncertain<Length>>) -> Vec<Height> {
    let of_point = |(name, mark): (Option<&str>, GoalMark)| {
        let stands = stands(&mark)?;
        Some(Height {
            mark: if name.is_some() { "point" } else { "hitch" },
            name: name.map(str::to_owned),
            ..Height::of(End::Rear, None, &stands)
        })
    };
    work.points().into_iter().filter_map(of_point).collect()
}

fn refused(work: &Casework, place: usize) -> Vec<Refusal> {
    let over = (work.nothing_fits() == Some(NothingFits::OverARating)).then_some(Refusal { rule: "over_a_rating", found: None });
    over.into_iter().chain(work.gate_of(place).iter().map(Refusal::of)).collect()
}

impl Refusal {
    /// That it meets the aim too seldom.
    pub(super) fn misses_the_aim() -> Self {
        Refusal { rule: "misses_the_aim", found: None }
    }

    /// Of what is not predicted.
    pub(super) fn untold(why: Unpredicted) -> Self {
        Refusal { rule: unpredicted_rule(why), found: None }
    }

    pub(super) fn of(gate: &Gate) -> Self {
        let (rule, found) = match gate {
            Gate::Defect(defect) => ("defect", Some(Found::Defect(*defect))),
            Gate::Stop(area) => ("repair_first", Some(Found::Area(*area))),
            Gate::NoFit(no_fit) => (no_fit_rule(no_fit), None),
            Gate::Yields => ("yields", None),
            Gate::PastItsCapacity => ("past_its_capacity", None),
            Gate::TooShort(what) => ("too_short", Some(Found::Missing(*what))),
        };
        Refusal { rule, found }
    }
}

fn no_fit_rule(no_fit: &NoFit) -> &'static str {
    match no_fit {
        NoFit::NoLeaves(..) => "no_leaves_there",
        NoFit::NothingClamped(..) => "nothing_clamped_there",
        NoFit::Lowers(_) => "lowers_where_the_spring_is_under_the_axle",
        NoFit::OnABlock(_) => "block_on_a_block",
        NoFit::NoBlockThere(_) => "no_block_there",
        NoFit::NoCoils(..) => "no_coils_there",
        NoFit::OnAir(_) => "rests_on_air_springs",
        NoFit::NotUnder(_) => "spring_not_under_the_axle",
        NoFit::NoFront => "no_front_axle",
        NoFit::NoShackles => "no_shackles_there",
        NoFit::NoneComesOut(_) => "none_is_there_to_come_out",
        NoFit::OneComesOut(_) => "the_one_there_must_come_out",
        NoFit::OtherComesOut(_) => "another_height_comes_out",
        NoFit::NotSaid(_) => "springs_not_said",
        NoFit::CoilsNotSaid(_) => "coils_not_said",
    }
}

pub(super) fn unpredicted_rule(why: Unpredicted) -> &'static str {
    match why {
        Unpredicted::NotMeasured => "not_measured",
        Unpredicted::NeedsRate => "needs_the_rate",
        Unpredicted::OnTheStops => "on_the_stops",
        Unpredicted::NotIdentified => "readings_do_not_go_together",
        Unpredicted::DoesNotStand => "does_not_stand",
        Unpredicted::NotSolved => "not_solved",
        Unpredicted::PastThePack => "past_the_pack",
        Unpredicted::PastThePart => "past_its_capacity",
        Unpredicted::NeedsTheOverloadLeaf => "needs_the_overload_leaf",
        Unpredicted::NeedsTheStopGap => "needs_the_stop_gap",
        Unpredicted::NoSuchAxle => "no_such_axle",
    }
}

impl Stands {
    fn in_state(predicted: &Result<PredictedState, Unpredicted>, points: Vec<Height>) -> Self {
        let stands = match predicted {
            Err(why) => return Stands::Untold { unpredicted: unpredicted_rule(*why) },
            Ok(stands) => stands,
        };
        let rear = Height {
            tape_sd_m: Some(stands.tape().sd.si()),
            rise_m: Some(stands.rise.value.si()),
            rise_sd_m: Some(stands.rise.sd.si()),
            ..Height::of(End::Rear, None, &stands.rear)
        };
        let front = stands.front.iter().map(|front| Height::of(End::Front, None, front));
        let sides = Height::of_sides(End::Rear, stands.rear_sides).chain(Height::of_sides(End::Front, stands.front_sides));
        Stands::Told {
            heights: [rear].into_iter().chain(front).chain(sides).chain(points).collect(),
            travel_left_m: stands.travel_left.map(|left| left.si()),
            ride_hz: stands.bounce_after.map(|bounce| bounce.frequency.si()),
        }
    }

    fn in_case(predicted: &Result<CaseHeights, Unpredicted>, points: Vec<Height>) -> Self {
        let stands = match predicted {
            Err(why) => return Stands::Untold { unpredicted: unpredicted_rule(*why) },
            Ok(stands) => stands,
        };
        let front = stands.front.iter().map(|front| Height::of(End::Front, None, front));
        let rear = [Height::of(End::Rear, None, &stands.rear)].into_iter();
        Stands::Told {
            heights: rear.chain(front).chain(Height::of_sides(End::Rear, stands.rear_sides)).chain(points).collect(),
            travel_left_m: stands.travel_left.map(|left| left.si()),
            ride_hz: None,
        }
    }
}

impl Height {
    fn of(end: End, side: Option<Side>, height: &Uncertain<Length>) -> Self {
        let mark = if end == End::Front { "front" } else { "rear" };
        let side = side.map(|side| side.word());
        Height {
            mark,
            name: None,
            side,
            value_m: height.value.si(),
            sd_m: height.sd.si(),
            tape_sd_m: None,
            rise_m: None,
            rise_sd_m: None,
        }
    }

    fn of_sides(end: End, sides: Option<Sides<Uncertain<Length>>>) -> impl Iterator<Item = Height> {
        let of = move |sides: Sides<Uncertain<Length>>| Side::BOTH.map(|side| Height::of(end, Some(side), sides.get(side)));
        sides.into_iter().flat_map(of)
    }
}
