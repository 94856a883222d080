//! The figures of the verdict, each with its sum.

use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{Basis, End, Item, LoadPut, LoadState, Survey};
use wise_badger_casework::verdict::{RateFigure, RateVerdict, Rated, RatingCheck, carried};
use wise_badger_mechanics::axle_rate::RateGrade;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, Length, newtons_per_metre};

use super::{Figure, Sum, Tone, Units, datum_name, end_name, percent, rated_name, sentence, state_of, support_name};

const TAPE: &str = "The tape readings of this job.";
const TAPE_DOUBT: &str =
    "One reading is good to 1/16 in (1.6 mm), and the vehicle settles to 1/16 in; a band is two standard deviations.";
const ENDS: [End; 2] = [End::Front, End::Rear];

/// Sag, front change, rake and lean.
pub(crate) fn height_figures(survey: &Survey, units: Units) -> Vec<Figure> {
    let mut figures: Vec<Figure> = [End::Rear, End::Front].into_iter().filter_map(|end| drop(survey, end, units)).collect();
    figures.extend(survey.states().filter_map(|state| rake(survey, state, units)));
    for state in survey.states() {
        figures.extend(ENDS.into_iter().filter_map(|end| lean(survey, end, state, units)));
    }
    figures
}

fn drop(survey: &Survey, end: End, units: Units) -> Option<Figure> {
    let drop = survey.drop(end)?;
    let height = |state| survey.height(end, state).map(|height| units.exact(height.value)).unwrap_or_default();
    let (label, value, formula) = match end {
        End::Rear => {
            ("Rear sag under the load".to_owned(), units.height(drop.value), "rear sag = rear height empty − rear height loaded")
        }
        End::Front => {
            let label = format!("{} change", sentence(end_name(survey.vehicle.class, end)));
            (label, units.change(-drop.value), "change = height loaded − height empty")
        }
    };
    let (empty, loaded) = (height(LoadState::Empty), height(LoadState::Loaded));
    let numbers = match end {
        End::Rear => vec![format!("{empty} − {loaded} = {}", units.exact(drop.value))],
        End::Front => vec![format!("{loaded} − {empty} = {}", units.exact(-drop.value))],
    };
    let seen = drop.value.abs() > drop.band();
    let note = match (end, drop.value.si() < 0.0) {
        _ if !seen => format!("± {}: no change the tape can tell", units.band(drop.band())),
        (End::Rear, true) => "it stands higher loaded".to_owned(),
        (End::Front, true) => "the nose comes up".to_owned(),
        _ => format!("± {}", units.band(drop.band())),
    };
    let sum = Sum::new(formula, numbers, TAPE).doubt(format!("± {}. {TAPE_DOUBT}", units.exact(drop.band())));
    Some(Figure::new(label, value, sum).note(note))
}

fn rake(survey: &Survey, state: LoadState, units: Units) -> Option<Figure> {
    let rake = survey.rake(state)?;
    let height = |end| survey.height(end, state).map(|height| units.exact(height.value)).unwrap_or_default();
    let numbers = vec![format!("{} − {} = {}", height(End::Rear), height(End::Front), units.exact(rake))];
    let sum = Sum::new("rake = rear height − front height", numbers, TAPE).doubt(TAPE_DOUBT);
    Some(Figure::new(format!("Rake {}", state_of(survey, state)), units.change(rake), sum).note(rake_words(rake)))
}

/// What a rake looks like from the kerb.
pub(crate) fn rake_words(rake: Length) -> &'static str {
    let sixteenth = 0.0254 / 16.0;
    match rake.si() {
        r if r > sixteenth => "rear high",
        r if r < -sixteenth => "nose up",
        _ => "level",
    }
}

fn lean(survey: &Survey, end: End, state: LoadState, units: Units) -> Option<Figure> {
    let lean = survey.lean(end, state)?;
    let low = if lean.si() > 0.0 { Side::Left } else { Side::Right };
    let value = match units.is_nothing(lean) {
        true => "level".to_owned(),
        false => format!("{} {} low", low.name(), units.height(lean.abs())),
    };
    let note = if lean.si().abs() < 0.0254 / 8.0 { "within the tape" } else { "" };
    let side = |side| survey.readings(end, state).corner(side).map(|height| units.exact(height)).unwrap_or_default();
    let numbers = vec![format!("{} − {} = {}", side(Side::Right), side(Side::Left), units.exact(lean))];
    let sum = Sum::new("lean = mean of the right readings − mean of the left", numbers, TAPE).doubt(TAPE_DOUBT);
    Some(Figure::new(format!("Lean {}, {}", end_name(survey.vehicle.class, end), state_of(survey, state)), value, sum).note(note))
}

/// Axle loads and the margin to each rating.
pub(crate) fn load_figures(survey: &Survey, names: &[String], units: Units) -> Vec<Figure> {
    RatingCheck::all(survey).iter().map(|check| rating_figure(survey, check, names, units)).collect()
}

/// One rating with its margin; `names` are those of the things aboard, where the load is a case of the plan.
pub(crate) fn rating_figure(survey: &Survey, check: &RatingCheck, names: &[String], units: Units) -> Figure {
    let (margin, over) = (check.margin(), check.margin().si() < 0.0);
    let what = format!("{}, {}", rated_name(survey.vehicle.class, check.rated), state_of(survey, check.state));
    let lifted = check.load.si() < 0.0;
    let note = match over {
        _ if lifted => "the coupler is pulled up: move the load forward before it goes on the road".to_owned(),
        true => format!("{} over its rating of {}", units.weight(-margin), units.weight(check.rating)),
        false => format!("{} under its rating of {}", units.weight(margin), units.weight(check.rating)),
    };
    let mut numbers = load_numbers(survey, check, names, units);
    numbers.push(format!("{} − {} = {}", units.weight(check.rating), units.weight(check.load), units.weight(margin)));
    let basis = match check.basis {
        Basis::Stated => "Weights as stated for this vehicle.",
        Basis::Assumed => {
            "The class's empty weight, or the usual weight of a thing aboard, is assumed (common practice); weigh the axle to be sure."
        }
    };
    let sum = Sum::new(lever_arms(survey), numbers, "Lever arms, any statics text; ratings as given at intake.").doubt(basis);
    let assumed = if check.basis == Basis::Assumed { " (assumed in part: weigh it)" } else { "" };
    let nearly = !over && margin < LITTLE_LEFT * check.rating && check.state != LoadState::Empty;
    let note = if nearly { format!("only {note}: nothing more goes on") } else { note };
    Figure::new(what, units.weight(check.load), sum).note(format!("{note}{assumed}")).tone(if over || lifted || nearly {
        Tone::Act
    } else {
        Tone::Plain
    })
}

/// A margin under this share of its rating is said loudly.
const LITTLE_LEFT: f64 = 0.03;

fn lever_arms(survey: &Survey) -> &'static str {
    match survey.vehicle.class.is_trailer() {
        true => {
            "load by lever arms: axles = W × (span + distance behind them) / span, span from coupler to the axles' middle; margin = rating − load"
        }
        false => "load by lever arms: rear = W × (wheelbase + distance behind the rear axle) / wheelbase; margin = rating − load",
    }
}

fn load_numbers(survey: &Survey, check: &RatingCheck, names: &[String], units: Units) -> Vec<String> {
    let (load, rating) = (units.weight(check.load), units.weight(check.rating));
    let end = match check.rated {
        Rated::Axle(end) => end,
        Rated::Gross => {
            let loads = survey.axle_loads_in(check.state);
            let at = |end| loads.as_ref().and_then(|loads| carried(loads, end, check.state)).map(|load| units.weight(load));
            let both = at(End::Front).zip(at(End::Rear));
            return both.map(|(front, rear)| format!("{front} + {rear} = {load}")).into_iter().collect();
        }
        Rated::Tyres(end) | Rated::Wheels(end) => {
            let count = survey.vehicle.tyre_count(end);
            let each = check.rating / f64::from(count);
            return vec![format!("they carry {load}"), format!("{count} × {} = {rating}", units.weight(each))];
        }
        Rated::Hitch => return vec![format!("on the ball {load}")],
    };
    let Some(loads) = survey.axle_loads_in(check.state) else { return Vec::new() };
    let empty = units.weight(*loads.empty.get(end));
    let mut numbers = vec![format!("empty {empty}")];
    let Some(change) = (*loads.change.get(end)).filter(|_| check.state != LoadState::Empty) else { return numbers };
    let wheelbase = survey.vehicle.wheelbase;
    match survey.put_in(check.state) {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => {
            numbers.push(lever_arm(&Item::at(*weight, *behind_rear_axle), end, wheelbase, units));
        }
        Some(LoadPut::Planned { items, .. }) if survey.load_is_as_planned() => {
            let name = |place: usize| names.get(place).map_or("a thing", String::as_str);
            let each = items.iter().enumerate();
            numbers.extend(each.map(|(place, item)| format!("{}: {}", name(place), lever_arm(item, end, wheelbase, units))));
        }
        _ => numbers.push(format!("the scale says {} more loaded", units.weight(change.value))),
    }
    numbers.push(format!("{empty} + {} = {load}", units.weight(change.value)));
    numbers
}

/// What a thing puts on an end, by its arm about the other.
fn lever_arm(item: &Item, end: End, wheelbase: Length, units: Units) -> String {
    let (weight, long) = (units.weight(item.weight), units.exact(wheelbase));
    let behind = item.behind_rear_axle;
    let (sign, away) = if behind.si() < 0.0 { ("−", units.exact(-behind)) } else { ("+", units.exact(behind)) };
    let here = units.weight(item.weight * item.share_on(end, wheelbase));
    match end {
        End::Rear => format!("{weight} × ({long} {sign} {away}) / {long} = {here}"),
        End::Front if behind.si() > 0.0 => format!("−{weight} × {away} / {long} = {here}"),
        End::Front => format!("{weight} × {away} / {long} = {here}"),
    }
}

fn rate_label(survey: &Survey) -> String {
    let class = survey.vehicle.class;
    match class.is_trailer() {
        true => format!("Rate of the {}, all springs", support_name(class, End::Rear)),
        false => "Rear axle rate, both springs".to_owned(),
    }
}

/// The rear rate, or why there is none.
pub(crate) fn rate_figures(predictor: &Predictor, units: Units) -> Vec<Figure> {
    let (survey, rate) = (predictor.survey(), predictor.rate());
    let label = rate_label(survey);
    match *rate {
        RateVerdict::Measured(figure) => {
            std::iter::once(measured_rate(survey, &figure, units)).chain(tyre_figure(survey, &figure, units)).collect()
        }
        RateVerdict::TooWeak { relative_sd, load_change, drop, .. } if predictor.weighs_stories() => {
            let numbers = vec![
                format!("load change {} ± {}", units.weight(load_change.value), units.weight(load_change.band())),
                format!("drop {} ± {}", units.exact(drop.value), units.exact(drop.band())),
            ];
            let sure = relative_sd.map_or_else(String::new, |sd| {
                format!("As it is, one standard deviation is {} of the rate, every story that fits counted.", percent(sd))
            });
            let sum = Sum::new("a rate is given only when one standard deviation is under 25% of it", numbers, GUM).doubt(sure);
            let note = "load and drop are ample, but more than the springs alone may have borne; heights are predicted with bands as wide";
            vec![Figure::new(label, "too weak to say", sum).note(note)]
        }
        RateVerdict::TooWeak { relative_sd, load_needed, load_change, drop } => {
            let sure = relative_sd
                .map_or_else(String::new, |sd| format!("As it is, one standard deviation is {} of the rate.", percent(sd)));
            let numbers = vec![
                format!("load change {} ± {}", units.weight(load_change.value), units.weight(load_change.band())),
                format!("drop {} ± {}", units.exact(drop.value), units.exact(drop.band())),
            ];
            let sum = Sum::new("a rate is given only when one standard deviation is under 25% of it", numbers, GUM).doubt(sure);
            let note = format!(
                "put on about {} for a rate good to 10%; blocks and re-arching are predicted without it",
                units.about(load_needed)
            );
            vec![Figure::new(label, "too weak to say", sum).note(note)]
        }
        RateVerdict::WrongWay { load_change, drop } => {
            let numbers =
                vec![format!("load change {}", units.weight(load_change.value)), format!("drop {}", units.exact(drop.value))];
            let sum = Sum::new("rate = load change / drop", numbers, TAPE);
            vec![
                Figure::new(label, "no rate", sum)
                    .note("the rear moved the wrong way for the load; read it again")
                    .tone(Tone::Act),
            ]
        }
        RateVerdict::OnTheStops { gap_empty } => {
            let loaded = survey.gap(LoadState::Loaded).map(|gap| format!("gap loaded {}", units.exact(gap)));
            let empty = gap_empty.map(|gap| format!("gap empty {}", units.exact(gap)));
            let numbers = empty.into_iter().chain(loaded).collect();
            let sum = Sum::new("a rate needs the stops clear in both states", numbers, TAPE);
            let note = "the bump stops carry part of the load; take some off and measure again with the stops clear";
            vec![Figure::new(label, "on the stops", sum).note(note).tone(Tone::Act)]
        }
        _ => Vec::new(),
    }
}

const GUM: &str =
    "First-order propagation of uncertainty, JCGM 100:2008 (GUM), 5.1.2; precision of tape, scale and place: common practice.";

fn measured_rate(survey: &Survey, figure: &RateFigure, units: Units) -> Figure {
    let spring_drop = figure.spring_drop.value;
    let mut numbers = vec![format!("load change on the rear axle {}", units.weight(figure.load_change.value))];
    numbers.push(format!("drop {}", units.exact(figure.drop.value)));
    if survey.datum.includes_tyre() {
        numbers.push(format!(
            "of it the tires {}, so the springs {}",
            units.exact(figure.drop.value - spring_drop),
            units.exact(spring_drop)
        ));
    }
    if let Some(gap) = figure.by_gap {
        let closed = units.exact(gap.spring_drop.value);
        numbers.push(match gap.agrees {
            true => format!("the stop gap closed by {closed}, which leaves the tires out: weighed with the heights above"),
            false => format!(
                "the stop gap closed by {closed}, which does not go with the heights: one of them may be misread; read both again"
            ),
        });
    }
    let divided = |load, drop| format!("{} / {}", units.load_of_rate(load), units.length_of_rate(drop));
    let by_hand = divided(figure.load_change.value, spring_drop);
    let alone = newtons_per_metre(figure.load_change.value.si() / spring_drop.si());
    let agreed = figure.agreed.filter(|_| units.rate(alone) != units.rate(figure.rate));
    numbers.push(format!("{by_hand} = {}", units.rate(alone)));
    numbers.extend(agreed.map(|agreed| {
        format!(
            "brought into agreement with every reading, and with what the class usually has: {} = {}",
            divided(agreed.load_change, agreed.spring_drop),
            units.rate(figure.rate)
        )
    }));
    let two_sd = units.rate(figure.rate * (2.0 * figure.relative_sd));
    let grade = match figure.grade {
        RateGrade::Good => format!("good, ± {two_sd}"),
        RateGrade::Rough => {
            // More load is what it takes only where load is what is missing.
            let short = figure.load_change.value.abs() < figure.load_for_ten_percent;
            let more =
                short.then(|| format!("; about {} on the axle would make it good", units.about(figure.load_for_ten_percent)));
            format!("rough, ± {two_sd}{}", more.unwrap_or_default())
        }
    };
    let past = match (figure.past_second_stage, &figure.stages) {
        (_, Some(stages)) => format!(
            "; past {} an overload leaf usually bears, so this is two rates: taken as {} at first and {} past it",
            units.height(stages.from),
            units.rate(stages.first),
            units.rate(stages.first + stages.added)
        ),
        (true, None) => "; the drop goes past where an overload leaf usually bears: look whether it does".to_owned(),
        (false, None) => String::new(),
    };
    let doubt = format!(
        "One standard deviation is {} of the rate: tape, settling, leaf friction, scale, place and tire rate, and every story that fits.",
        percent(figure.relative_sd)
    );
    let sum = Sum::new("rate = load change / (drop − drop of the tires)", numbers, GUM).doubt(doubt);
    Figure::new(rate_label(survey), units.rate(figure.rate), sum).note(format!("{grade}{past}"))
}

fn tyre_figure(survey: &Survey, figure: &RateFigure, units: Units) -> Option<Figure> {
    if !survey.datum.includes_tyre() {
        return None;
    }
    let (springs, tyres) = (figure.springs_down(), figure.drop.value - figure.springs_down());
    let numbers = vec![format!("{} − {} = {}", units.exact(figure.drop.value), units.exact(springs), units.exact(tyres))];
    let told_apart = match (figure.by_gap.is_some_and(|gap| gap.agrees), survey.vehicle.class.is_trailer()) {
        (true, _) => "Told apart by the stop gap, which leaves the tires out, and by the tire rate of the class, good to 15%.",
        (false, true) => {
            "The tire rate is assumed for the class, to 15%; read ground to hub, empty and loaded, to see what the tires do."
        }
        (false, false) => {
            "The tire rate is assumed for the class, to 15%; read the stop gap empty and loaded, or from the hub, to leave the tire out."
        }
    };
    let sum = Sum::new(
        "drop of the tires = drop − what the springs come down",
        numbers,
        "The vehicle that agrees best with all readings, its tires as usual for the class (common practice).",
    )
    .doubt(told_apart);
    Some(
        Figure::new("Of the sag, the tires", units.height(tyres), sum)
            .note(format!("heights are measured {}", datum_name(survey.vehicle.class, survey.datum))),
    )
}
