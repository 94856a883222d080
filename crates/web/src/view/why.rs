//! Where the inches went and why, in words.

use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_casework::verdict::{Breakdown, Cause, Evidence, Judged, Part, PartKind, RateVerdict, Settling, first_rate};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate};

use super::intake::{complaint_name, modification_name};
use super::look_over::{defect_name, gate_words};
use super::{Figure, Sum, Units, percent, sentence, state_name};
use crate::drawing::{BreakdownDrawing, RowWords};

/// A cause as the page prints it.
pub(crate) struct CauseWords {
    pub(crate) name: &'static str,
    /// What follows from it.
    pub(crate) so: &'static str,
    pub(crate) evidence_for: Vec<String>,
    pub(crate) evidence_against: Vec<String>,
    /// What would settle it, and where that is done.
    pub(crate) settles: &'static str,
    pub(crate) settled_at: Option<Stage>,
    pub(crate) likely: bool,
}

pub(crate) fn part_name(kind: PartKind) -> &'static str {
    match kind {
        PartKind::SpringSet => "Spring set",
        PartKind::PermanentLoad => "What is always aboard",
        PartKind::CarriedLoad => "The load, on the springs",
        PartKind::SpringsAndOverloadLeaf => "The load, on springs and overload leaf together",
        PartKind::SpringsAndStops => "The load, on springs and bump stops together",
        PartKind::Tyres => "The load, on the tires",
        PartKind::SecondStage => "Held up by the overload leaf",
        PartKind::StopContact => "Held up by the bump stops",
        PartKind::LeanBySpring => "Lean that is there empty, low side",
        PartKind::LeanByLoad => "Lean that the load adds, low side",
    }
}

/// How much lower a part makes the rear.
fn part_value(part: &Part, units: Units) -> String {
    format!("{} ± {}", units.change(-part.down.value), units.band(part.down.band()))
}

fn measured_name(breakdown: &Breakdown) -> String {
    let side = match breakdown.low_side {
        None => "rear",
        Some(Side::Left) => "rear left",
        Some(Side::Right) => "rear right",
    };
    format!("Measured, {side} {}", state_name(breakdown.state))
}

/// The picture of the way, with its words.
pub(crate) fn breakdown_drawing(breakdown: &Breakdown, units: Units) -> BreakdownDrawing {
    let row = |name: &str, value: String| RowWords { name: name.to_owned(), value };
    let start = if breakdown.from_sound { "When sound, empty" } else { "Measured, rear empty" };
    let mut rows = vec![row(start, units.height(breakdown.start))];
    rows.extend(breakdown.parts.iter().map(|part| row(part_name(part.kind), part_value(part, units))));
    rows.push(row(&measured_name(breakdown), units.height(breakdown.measured)));
    let said: Vec<String> = rows.iter().map(|row| format!("{}: {}", row.name, row.value)).collect();
    BreakdownDrawing::new(breakdown, &rows, &said.join("; "))
}

/// Each part with its sum.
pub(crate) fn part_figures(breakdown: &Breakdown, survey: &Survey, rate: &RateVerdict, units: Units) -> Vec<Figure> {
    let figure = |part: &Part| {
        let mut sum = part_sum(part, breakdown, survey, rate, units);
        // Where rates are read in other units than lengths, what comes out is said in both.
        if units.length_of_rate(part.down.value) != units.exact(part.down.value) {
            sum.numbers.push(format!("= {}", units.exact(part.down.value)));
        }
        let sum = sum.doubt(format!("± {}, two standard deviations.", units.exact(part.down.band())));
        let small = part.down.value.abs() <= part.down.band();
        let figure = Figure::new(part_name(part.kind), part_value(part, units), sum);
        if small { figure.note("within its band: too small to tell from zero") } else { figure }
    };
    breakdown.parts.iter().map(figure).collect()
}

const STATICS: &str = "Springs in series; any statics text. First-order propagation, JCGM 100:2008 (GUM), 5.1.2.";

fn part_sum(part: &Part, breakdown: &Breakdown, survey: &Survey, rate: &RateVerdict, units: Units) -> Sum {
    let load = survey.axle_loads().change.rear.map(|change| change.value).unwrap_or_default();
    let rear = |state| survey.height(End::Rear, state).map(|height| height.value).unwrap_or_default();
    let (empty, loaded) = (rear(LoadState::Empty), rear(LoadState::Loaded));
    let exact = |length: Length| units.exact(length);
    let less = |from: Length, parts: &[Length], comes_to: Length| {
        let parts: String = parts.iter().map(|part| format!(" − {}", exact(*part))).collect();
        vec![format!("{}{parts} = {}", exact(from), exact(comes_to))]
    };
    let over = |load: Force, rate: SpringRate| {
        format!("{} / {} = {}", units.load_of_rate(load), units.rate(rate), units.length_of_rate(load / rate))
    };
    let down = part.down.value;
    let of = |kind| breakdown.part(kind).map(|down| down.value);
    let first = first_rate(survey, rate).0;
    let on_springs = (empty - loaded) - of(PartKind::Tyres).unwrap_or_default();
    match part.kind {
        PartKind::SpringSet => {
            let permanent = of(PartKind::PermanentLoad);
            let parts: Vec<Length> = std::iter::once(empty).chain(permanent).collect();
            let numbers = less(breakdown.start, &parts, down);
            Sum::new(
                "set = height when sound − height empty − what is always aboard",
                numbers,
                "A remainder, so that all parts add up.",
            )
        }
        PartKind::PermanentLoad => {
            let always = survey.vehicle.always_on(End::Rear);
            let mut numbers = vec![over(always, first)];
            if survey.datum.includes_tyre() {
                numbers.push(over(always, survey.vehicle.assumptions().rear_tyres()));
            }
            numbers.push(format!("together {}", exact(down)));
            Sum::new("W / spring rate + W / tire rate", numbers, STATICS)
        }
        PartKind::CarriedLoad if of(PartKind::SecondStage).is_some() => {
            Sum::new("ΔW / first rate", vec![over(load, first)], STATICS)
        }
        PartKind::CarriedLoad if of(PartKind::StopContact).is_some() => {
            Sum::new("ΔW / rate usual for the class", vec![over(load, first)], STATICS)
        }
        PartKind::CarriedLoad | PartKind::SpringsAndOverloadLeaf | PartKind::SpringsAndStops => {
            let tyres: Vec<Length> = std::iter::once(loaded).chain(of(PartKind::Tyres)).collect();
            Sum::new("height empty − height loaded − tires", less(empty, &tyres, down), STATICS)
        }
        PartKind::Tyres => match rate.measured() {
            Some(_) => Sum::new(
                "height empty − height loaded − what the springs came down",
                less(empty, &[loaded, on_springs], down),
                "The springs as in the vehicle that agrees best with all readings, the stop gap too where it was read.",
            ),
            None => {
                let tyres = survey.vehicle.assumptions().rear_tyres();
                Sum::new("ΔW / rate of all rear tires", vec![over(load, tyres)], STATICS)
            }
        },
        PartKind::SecondStage => Sum::new(
            "drop on the springs − ΔW / first rate",
            less(on_springs, &[load / first], down),
            "The measured rate taken apart into two, by the overload leaf's gap as read or as usual for the class (common practice).",
        ),
        PartKind::StopContact => Sum::new(
            "drop on the springs − ΔW / rate usual for the class",
            less(on_springs, &[load / first], down),
            "On the stops no rate can be measured; the class's stands in.",
        ),
        PartKind::LeanBySpring => Sum::new("half of the lean read empty", vec![format!("= {}", exact(down))], TAPE_READ),
        PartKind::LeanByLoad => {
            Sum::new("half of what the lean gains with the load", vec![format!("= {}", exact(down))], TAPE_READ)
        }
    }
}

const TAPE_READ: &str = "The tape readings of this job.";

/// The causes, the likeliest first.
pub(crate) fn cause_words(judged: &[Judged], units: Units) -> Vec<CauseWords> {
    let words = |judged: &Judged| {
        let (settles, settled_at) = judged.settles.map_or(("", None), settling_words);
        let say = |evidence: &Vec<Evidence>| evidence.iter().map(|evidence| sentence(&evidence_words(evidence, units))).collect();
        CauseWords {
            name: cause_name(judged.cause),
            so: so(judged.cause),
            evidence_for: say(&judged.evidence_for),
            evidence_against: say(&judged.evidence_against),
            settles,
            settled_at,
            likely: judged.is_likely(),
        }
    };
    judged.iter().map(words).collect()
}

pub(crate) fn cause_name(cause: Cause) -> &'static str {
    match cause {
        Cause::Overload => "It carries more than it may",
        Cause::FailedPart => "Something has failed",
        Cause::SpringSet => "The springs have set",
        Cause::WeakSprings => "The springs are weaker than they should be",
        Cause::PermanentLoad => "What is always aboard",
        Cause::CarriedLoad => "The load itself, within its ratings",
        Cause::OnTheStops => "It rests on its bump stops",
        Cause::WeightBehind => "Weight behind the rear axle lifts the nose",
        Cause::LeanBySpring => "One spring stands lower than the other",
        Cause::LeanByLoad => "The load sits to one side",
        Cause::Tyres => "The tires",
        Cause::EarlierWork => "What was done to it before",
        Cause::WeightAhead => "Weight ahead of the front axle lifts the rear",
        Cause::OnTheOverloadLeaf => "The pack lives on its overload leaf",
        Cause::AirSprings => "Its air springs do not hold it up",
        Cause::ShocksAndBars => "Shocks and sway bars, not the springs",
    }
}

/// What follows.
fn so(cause: Cause) -> &'static str {
    match cause {
        Cause::Overload => "Weight comes off or moves first; no spring raises a rating.",
        Cause::FailedPart => "Repair comes first; nothing is fitted on a failed part.",
        Cause::SpringSet => "Re-arched, replaced or helped by a leaf, as the look-over allows.",
        Cause::WeakSprings => "More rate, not more arch: a leaf, a helper or a new pack.",
        Cause::PermanentLoad => "It is there on every road, so the spring itself may be made to fit it.",
        Cause::CarriedLoad => "Sound springs doing their work: load help, or a stiffer pack if it is there most of the time.",
        Cause::OnTheStops => "What is measured there is not the spring; heights with the stops clear tell more.",
        Cause::WeightBehind => {
            "A spring is not the first answer: move weight forward, lighten the tongue, or spread it to the front."
        }
        Cause::LeanBySpring => "Look at both packs before raising one side; both sides get the same correction.",
        Cause::LeanByLoad => "Move what is heavy to the other side; unequal springs follow the load only while it is there.",
        Cause::Tyres => "Sizes and pressures alike, then read again.",
        Cause::WeightAhead => {
            "Read with it off too: ballast behind the axle or less ahead of it, before any spring is made lower."
        }
        Cause::OnTheOverloadLeaf => {
            "It is stiff and has little left: more rate above it, a leaf or a pack, so that the leaf is for the load alone."
        }
        Cause::AirSprings => {
            "Leaks, lines, compressor and leveling valve first, by the maker’s sheet: no part holds up what the valve lets down."
        }
        Cause::ShocksAndBars => "Look at shocks, bars and links first; a stiffer spring sways less and floats all the same.",
        Cause::EarlierWork => "Heights hide what was done: a block is replaced, never added to, and its rise is new less old.",
    }
}

fn evidence_words(evidence: &Evidence, units: Units) -> String {
    let either = |length: Length, right: &'static str, left: &'static str| if length.si() > 0.0 { right } else { left };
    match evidence {
        Evidence::OverRatingAsAssumed(over) => {
            format!("a rating is passed by {}, going by weights that nobody weighed", units.weight(*over))
        }
        Evidence::OverRating(over) => format!("a rating is passed by {}", units.weight(*over)),
        Evidence::Stopped(gate) => gate_words(gate),
        Evidence::Part(kind, down) => {
            format!("{}: {} ± {}", part_name(*kind).to_lowercase(), units.height(down.value), units.band(down.band()))
        }
        Evidence::PartWithinItsBand(kind, down) => {
            format!(
                "{}: {} ± {}, too small to tell from zero",
                part_name(*kind).to_lowercase(),
                units.height(down.value),
                units.band(down.band())
            )
        }
        Evidence::RateOverSound(share) => format!("the measured rate is {} of what it should be", percent(*share)),
        Evidence::Found(defect) => format!("found: {}", defect_name(*defect)),
        Evidence::Complaint(complaint) => format!("the customer says: {}", complaint_name(*complaint)),
        Evidence::GapLoaded(gap) => format!("{} of stop gap is left with the load on", units.height(*gap)),
        Evidence::StopsClose => "the stops close in the readings".to_owned(),
        Evidence::StifferThanItsClass(times) => format!("the rate is {times:.1} times the class's, as when a stop bears unseen"),
        Evidence::FrontRose(by) => format!("the front came up by {} with the load on", units.height(*by)),
        Evidence::FrontWeighedDown(by) => format!("the load puts {} on the front axle", units.weight(*by)),
        Evidence::FrontLightened(by) => format!("{} is taken off the front axle", units.weight(*by)),
        Evidence::LoadToOneSide(by) => {
            format!("the load's center is {} {} of the middle", units.height(by.abs()), either(*by, "right", "left"))
        }
        Evidence::AlwaysAboard(weight) => format!("{} of what is always aboard is on the rear axle", units.weight(*weight)),
        Evidence::RearLightened(by) => format!("{} is taken off the rear axle", units.weight(*by)),
        Evidence::RestsOnAir => "the rear rests on air springs".to_owned(),
        Evidence::BearsEmpty => "the overload leaf bears with nothing put on".to_owned(),
        Evidence::TestWeight => "a test weight, put on for the reading alone".to_owned(),
        Evidence::Modified(what) => format!("found: {}", modification_name(*what)),
    }
}

/// What would settle it, and the stage where that is done.
fn settling_words(settling: Settling) -> (&'static str, Option<Stage>) {
    match settling {
        Settling::SoundHeight => ("the height it had when sound, from the maker's sheet or a sound twin", Some(Stage::Intake)),
        Settling::SoundRate => ("the rate it should have, from the maker or the spring's sheet", Some(Stage::Intake)),
        Settling::WeighAxles => ("every axle on a scale", Some(Stage::Load)),
        Settling::GapLoaded => ("the stop gap, read with the load on", Some(Stage::Tape)),
        Settling::ReadFromTheHub => ("heights read from the hub, which leave the tires out", Some(Stage::Tape)),
        Settling::HubFromTheGround => ("ground to hub, empty and loaded: what changes there is the tires", Some(Stage::Tape)),
        Settling::CornersEmpty => ("all four corners, read empty", Some(Stage::Tape)),
        Settling::LoadInTheMiddle => ("the same load in the middle, read again", Some(Stage::Tape)),
        Settling::FrontHeights => ("front heights, empty and loaded", Some(Stage::Tape)),
        Settling::TakeOutAndRead => ("taking it off and reading again", Some(Stage::Tape)),
        Settling::MoreLoad => ("more load, for a rate that can be leant on", Some(Stage::Tape)),
    }
}
