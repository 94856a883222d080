//! Over a rating: what must come off, and from where.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{End, Survey, VehicleClass};
use wise_badger_casework::verdict::{Overload, Rated, RatingCheck, Relief};
use wise_badger_mechanics::units::{InShopUnits, Length};

use super::{Units, lower, rated_name, state_name, support_name};

/// What is over a rating by assumed weights alone, and that all else hangs on them.
pub(crate) fn weigh_first_words(work: &Casework, units: Units) -> Option<String> {
    let overload = work.weigh_first()?;
    let class = work.found().vehicle.class;
    let over = overload.over.iter().map(|check| line(class, check, units)).collect::<Vec<_>>().join(" ");
    Some(format!(
        "By weights that are assumed, not weighed: {over} Everything said here hangs on that; over it, nothing may be fitted."
    ))
}

/// An overload in words.
pub(crate) struct OverloadWords {
    /// Whether it is one by what was weighed or stated, and shuts everything.
    pub(crate) sure: bool,
    /// What to do.
    pub(crate) lead: String,
    /// What else would do.
    pub(crate) or: String,
    /// Which ratings are passed, a line each.
    pub(crate) over: Vec<String>,
    /// Where the rear would sit once that is done, with nothing fitted.
    pub(crate) then: String,
}

/// The overload of a job, if there is one.
pub(crate) fn overload_words(work: &Casework, units: Units) -> Option<OverloadWords> {
    let overload = work.overload()?;
    let relieved = || work.predictor().rear_with_less(overload.rear_relief);
    Some(words(work.found().vehicle.class, overload, relieved, &work.case().names_aboard(), units))
}

/// The overload of a case of the load plan, if there is one; `then` is where the rear would sit once it is put right.
pub(crate) fn overload_of_case(case: &Survey, names: &[String], units: Units) -> Option<OverloadWords> {
    let overload = Overload::of(case)?;
    let relieved = || Predictor::new(case).rear_with_less(overload.rear_relief);
    Some(words(case.vehicle.class, &overload, relieved, names, units))
}

fn words(
    class: VehicleClass,
    overload: &Overload,
    relieved: impl FnOnce() -> Option<Length>,
    names: &[String],
    units: Units,
) -> OverloadWords {
    let (lead, or) = relief_words(class, &overload.relief, names, units);
    let then = if overload.rear_relief.si() > 0.0 { relieved() } else { None };
    let sure = overload.is_sure();
    OverloadWords {
        sure,
        lead: if sure { lead } else { format!("Weigh it first. By assumed weights: {}", lower(&lead)) },
        or,
        over: overload.over.iter().map(|check| line(class, check, units)).collect(),
        then: then.map_or_else(String::new, |height| {
            format!("With that off and nothing fitted, the rear sits at about {} loaded.", units.height(height))
        }),
    }
}

fn relief_words(class: VehicleClass, relief: &Relief, names: &[String], units: Units) -> (String, String) {
    let [front, rear] = [End::Front, End::Rear].map(|end| support_name(class, end));
    match relief {
        Relief::TakeOff { weight, behind_rear_axle, or_move_forward } => {
            let weight = units.about(*weight);
            let place = match behind_rear_axle.map(|place| (place, place.si())) {
                None => String::new(),
                Some((_, at)) if at.abs() < 1e-3 => format!(", from over the {rear}"),
                Some((place, at)) if at > 0.0 => format!(", from {} behind the {rear}", units.height(place)),
                Some((place, _)) => format!(", from {} ahead of the {rear}", units.height(-place)),
            };
            let or = or_move_forward.map_or_else(String::new, |by| {
                format!("Or move the whole load forward by {}; the {front} has room for it.", units.height(by))
            });
            (format!("Take {weight} off{place}."), or)
        }
        Relief::TakeOffItems { off, or_move_forward } => {
            let name = |index: usize| names.get(index).map_or("load", String::as_str);
            let parts: Vec<String> =
                off.iter().map(|(index, weight)| format!("{} of the {}", units.about(*weight), lower(name(*index)))).collect();
            let first = off.first().map_or("load", |(index, _)| name(*index));
            let or = or_move_forward.map_or_else(String::new, |by| {
                format!("Or move the {} forward by {}; the {front} has room for it.", lower(first), units.height(by))
            });
            if parts.is_empty() {
                ("The scale finds more than is on the plan: find it and take it off.".to_owned(), or)
            } else {
                (format!("Take off {}.", parts.join(" and ")), or)
            }
        }
        Relief::EmptyIsOver => (
            "The empty vehicle is over a rating by itself: it cannot carry this load, and no spring changes that.".to_owned(),
            "Check the ratings and the empty weights at intake.".to_owned(),
        ),
    }
}

fn line(class: VehicleClass, check: &RatingCheck, units: Units) -> String {
    let (what, whose) = match check.rated {
        Rated::Axle(end) => (format!("The {} carries", support_name(class, end)), "its"),
        Rated::Tyres(_) | Rated::Wheels(_) => (format!("The {} carry", lower(&rated_name(class, check.rated))), "their"),
        Rated::Gross | Rated::Hitch => (format!("The {} carries", lower(&rated_name(class, check.rated))), "its"),
    };
    format!(
        "{what} {} {}, {} over {whose} rating of {}.",
        units.weight(check.load),
        state_name(check.state),
        units.weight(-check.margin()),
        units.weight(check.rating)
    )
}
