//! A load case in figures: what the axles carry, what is left, where it sits.

use wise_badger_casework::case::PlannedCase;
use wise_badger_casework::prediction::{CaseHeights, Predictor, Unpredicted};
use wise_badger_casework::survey::{Centre, End, Item, LoadState, Survey};
use wise_badger_casework::verdict::RatingCheck;
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches};

use super::prediction::log_failure;
use super::verdict::rating_figure;
use super::{Figure, Opened, Sum, Tone, Units, end_name, percent, sentence, support_name};

/// A line of the table of cases.
pub(crate) struct CaseLine {
    pub(crate) name: String,
    pub(crate) front: String,
    pub(crate) rear: String,
    pub(crate) whole: String,
    pub(crate) rear_height: Opened,
    pub(crate) front_height: String,
    /// What is wrong with it, if anything.
    pub(crate) warning: String,
    pub(crate) shown: bool,
}

/// One case of the table. Its survey has the case's things aboard; a case that was measured comes with the survey that
/// has its readings.
pub(crate) fn case_line(
    name: &str,
    case: &Survey,
    state: LoadState,
    measured: Option<&Survey>,
    predictor: &Predictor,
    units: Units,
) -> CaseLine {
    let loads = case.axle_loads();
    let of = |end: End| if state == LoadState::Empty { Some(*loads.empty.get(end)) } else { loads.loaded(end) };
    let weight = |end| of(end).map_or_else(String::new, |load| units.weight(load));
    let mut warning = over_words(case, state, units);
    let lifted = of(End::Front).is_some_and(|load| load.si() < 0.0);
    if lifted {
        "the front is lifted off".clone_into(&mut warning);
    }
    let read = measured.filter(|survey| survey.height(End::Rear, state).is_some());
    let (rear_height, front_height) = match (predictor.in_case(case, NOTHING_FITTED), read) {
        (_, Some(survey)) => {
            let read = |end| survey.height(end, state).map(|height| format!("{}, measured", units.height(height.value)));
            (Opened::plain(read(End::Rear).unwrap_or_default()), read(End::Front).unwrap_or_default())
        }
        (Ok(heights), _) => {
            let front = heights.front.map_or_else(String::new, |front| units.predicted(front));
            (Opened::new(units.predicted(heights.rear), height_sum(case, predictor, &heights, None, units)), front)
        }
        (Err(why), _) => (Opened::plain(unpredicted_words(why)), String::new()),
    };
    let whole = of(End::Front).zip(of(End::Rear)).map_or_else(String::new, |(front, rear)| units.weight(front + rear));
    CaseLine {
        name: name.to_owned(),
        front: weight(End::Front),
        rear: weight(End::Rear),
        whole,
        rear_height,
        front_height,
        warning,
        shown: false,
    }
}

/// By how much the rating that is passed furthest is passed; empty where none is.
pub(crate) fn over_words(case: &Survey, state: LoadState, units: Units) -> String {
    let over = RatingCheck::of_state(case, state).into_iter().filter(|check| check.margin().si() < 0.0);
    let worst = over.max_by(|a, b| (-a.margin().si()).total_cmp(&-b.margin().si()));
    worst.map_or_else(String::new, |check| {
        format!("{} over by {}", super::rated_name(case.vehicle.class, check.rated), units.weight(-check.margin()))
    })
}

/// Why a height is not predicted, in the room of a table's cell.
pub(crate) fn unpredicted_words(why: Unpredicted) -> &'static str {
    match why {
        Unpredicted::OnTheStops => "on the stops",
        Unpredicted::NotMeasured => "not measured yet",
        Unpredicted::NeedsRate => "too weak to say",
        Unpredicted::DoesNotStand => "does not stand",
        Unpredicted::NeedsTheOverloadLeaf => "overload leaf unread",
        Unpredicted::NeedsTheStopGap => "stop gap unread",
        Unpredicted::NoSuchAxle => "no such axle",
        _ => "outside the model",
    }
}

/// The vehicle as it is.
pub(crate) const NOTHING_FITTED: &[Correction] = &[];

/// Where a correction would leave one case.
pub(crate) struct CaseHeightsLine {
    pub(crate) name: String,
    pub(crate) before: Opened,
    pub(crate) rear: Opened,
    pub(crate) front: String,
}

/// What is fitted in every case that was not measured; `after` says where it would leave one.
pub(crate) fn case_heights(
    predictor: &Predictor,
    cases: &[PlannedCase],
    after: impl Fn(&PlannedCase) -> Result<CaseHeights, Unpredicted>,
    units: Units,
) -> Vec<CaseHeightsLine> {
    let height = |case: &Survey, heights: &Result<CaseHeights, Unpredicted>, with: Option<&str>| match heights {
        Ok(heights) => Opened::new(units.predicted(heights.rear), height_sum(case, predictor, heights, with, units)),
        Err(why) => {
            log_failure(predictor);
            Opened::plain(unpredicted_words(*why))
        }
    };
    let line = |planned: &PlannedCase| {
        let (case, name) = (&planned.survey, &planned.name);
        let (before, after) = (predictor.in_case(case, NOTHING_FITTED), after(planned));
        let front =
            after.as_ref().ok().and_then(|heights| heights.front).map_or_else(String::new, |front| units.predicted(front));
        let (before, rear) = (height(case, &before, None), height(case, &after, Some("with the correction fitted")));
        CaseHeightsLine { name: name.clone(), before, rear, front }
    };
    cases.iter().map(line).collect()
}

/// The figures of the case that is shown: ratings, what is aboard and where, how far the front is lightened.
pub(crate) fn case_figures(case: &Survey, state: LoadState, items: &[Item], names: &[String], units: Units) -> Vec<Figure> {
    let mut figures: Vec<Figure> =
        RatingCheck::of_state(case, state).iter().map(|check| rating_figure(case, check, names, units)).collect();
    figures.extend(scale_figures(case, units));
    figures.extend(lightened(case, state, units));
    figures.extend(centre_figure(case, items, units));
    figures
}

/// Where the rear sits in a case, with how that is worked out.
pub(crate) fn height_figure(case: &Survey, predictor: &Predictor, units: Units) -> Option<Figure> {
    let heights = predictor.in_case(case, NOTHING_FITTED).ok()?;
    let sum = height_sum(case, predictor, &heights, None, units);
    let note = if heights.rate_measured { "by the measured rate" } else { "by the class's rate: measure a load to be surer" };
    let note =
        if !heights.rate_measured && predictor.survey().vehicle.rear_pack.is_some() { "by the pack on the bench" } else { note };
    Some(Figure::new("Rear sits at", units.predicted(heights.rear), sum).note(note))
}

/// How the rear height of a case comes about, with a correction fitted or without.
fn height_sum(case: &Survey, predictor: &Predictor, heights: &CaseHeights, with: Option<&str>, units: Units) -> Sum {
    let found = predictor.survey();
    let mut numbers: Vec<String> = Vec::new();
    numbers.extend(case.axle_loads().change.rear.map(|change| format!("on the rear {} more", units.weight(change.value))));
    let basis = match (predictor.rate().measured(), &found.vehicle.rear_pack) {
        (Some(figure), _) => format!("rate as measured {}", units.rate(figure.rate)),
        (None, Some(_)) => "rate and stages of the pack on the bench, to 10%".to_owned(),
        (None, None) => format!("rate assumed for the class {}", units.rate(found.vehicle.assumptions().rear_rate)),
    };
    numbers.push(basis);
    numbers.extend(with.map(str::to_owned));
    numbers.extend(found.height(End::Rear, LoadState::Empty).map(|empty| {
        let (empty, there) = (empty.value, heights.rear.value);
        format!("{} − {} = {}", units.exact(empty), units.exact(empty - there), units.exact(there))
    }));
    Sum::new(
        "height = height empty − what the load presses springs, overload leaf and tires down",
        numbers,
        "Static balance of springs, stops and tires over all axles; uncertainty by JCGM 100:2008 (GUM), 5.2.",
    )
    .doubt(format!(
        "± {}, two standard deviations: readings, rate, tires, load and leaf friction.",
        units.exact(heights.rear.band())
    ))
}

/// What the scale says beyond the plan.
fn scale_figures(case: &Survey, units: Units) -> Vec<Figure> {
    let Some(load) = &case.load else { return Vec::new() };
    let class = case.vehicle.class;
    let figure = |end: End| {
        let over = load.scale_over_plan(&case.vehicle, end)?;
        let seen = over.value.abs() > over.band();
        let note = match (seen, over.value.si() > 0.0) {
            (false, _) => "scale and plan agree as well as they can",
            (true, true) => "more is aboard than the plan says: find it, or weigh what is on it",
            (true, false) => "less is aboard than the plan says, or it sits elsewhere",
        };
        let numbers = vec![format!("{} ± {}", units.weight(over.value), units.weight(over.band()))];
        let sum = Sum::new(
            "difference = scale − (empty weight + what the plan puts on this axle)",
            numbers,
            "Scale and places as stated; a scale is taken as good to 26 lb (12 kg), a place to 2 in (50 mm).",
        );
        let value = if over.value.si() > 0.0 { format!("+{}", units.weight(over.value)) } else { units.weight(over.value) };
        let tone = if seen { Tone::Act } else { Tone::Plain };
        Some(Figure::new(format!("Scale against plan, {}", support_name(class, end)), value, sum).note(note).tone(tone))
    };
    End::BOTH.into_iter().filter_map(figure).collect()
}

fn lightened(case: &Survey, state: LoadState, units: Units) -> Option<Figure> {
    let change = case.axle_loads().change.front.filter(|change| state == LoadState::Loaded && change.value.si() < 0.0)?;
    let empty = case.axle_loads().empty.front;
    let share = -change.value.si() / empty.si();
    let numbers = vec![format!("{} off {}: {}", units.weight(-change.value), units.weight(empty), percent(share))];
    let sum = Sum::new(
        "what sits d behind the rear axle takes W × d / wheelbase off the front",
        numbers,
        "Lever arms, any statics text.",
    );
    let what = sentence(support_name(case.vehicle.class, End::Front));
    // Common practice: past about a tenth, steering and headlamps are noticed.
    let (note, tone) = match share > 0.1 {
        true => ("steering goes light and the nose comes up; a rear spring does not put weight back on it", Tone::Act),
        false => ("the nose comes up a little", Tone::Plain),
    };
    Some(Figure::new(format!("{what} lightened by"), units.weight(-change.value), sum).note(note).tone(tone))
}

fn centre_figure(case: &Survey, items: &[Item], units: Units) -> Option<Figure> {
    let centre = Centre::of(items)?;
    let rear = support_name(case.vehicle.class, End::Rear);
    let side = place_words(centre.lateral, units);
    let height = centre.height.map_or_else(String::new, |height| format!(", {} above the ground", units.height(height)));
    let numbers = vec![
        format!("{} in all", units.weight(centre.weight)),
        format!("along: {}", mean_of(items, |item| item.behind_rear_axle, centre.behind_rear_axle, units)),
        format!("across: {}", mean_of(items, |item| item.lateral, centre.lateral, units)),
    ];
    let sum = Sum::new(
        "center = Σ (weight × place) / Σ weight",
        numbers,
        "Center of gravity of the things on the plan; any statics text.",
    );
    let value = along_words(centre.behind_rear_axle, rear, units);
    Some(Figure::new(format!("Center of {} aboard", units.weight(centre.weight)), value, sum).note(format!("{side}{height}")))
}

/// A mean place, each thing's counted by its weight.
fn mean_of(items: &[Item], of: impl Fn(&Item) -> Length, mean: Length, units: Units) -> String {
    let each: Vec<String> =
        items.iter().map(|item| format!("{} × {}", units.weight(item.weight), units.exact(of(item)))).collect();
    let all: Force = items.iter().map(|item| item.weight).sum();
    format!("({}) / {} = {}", each.join(" + "), units.weight(all), units.exact(mean))
}

/// A place along the vehicle.
pub(crate) fn along_words(behind: Length, rear: &str, units: Units) -> String {
    match behind {
        at if at.abs() < inches(0.25) => format!("over the {rear}"),
        at if at.si() > 0.0 => format!("{} behind the {rear}", units.height(at)),
        at => format!("{} ahead of the {rear}", units.height(-at)),
    }
}

fn place_words(lateral: Length, units: Units) -> String {
    match lateral {
        at if at.abs() < inches(0.25) => "in the middle".to_owned(),
        at if at.si() > 0.0 => format!("{} right of the middle", units.height(at)),
        at => format!("{} left of the middle", units.height(-at)),
    }
}

/// Name of an end for the table's head.
pub(crate) fn end_heads(survey: &Survey) -> [String; 2] {
    End::BOTH.map(|end| sentence(end_name(survey.vehicle.class, end)))
}
