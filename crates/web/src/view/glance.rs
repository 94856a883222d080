//! The few figures that stand under the picture on every page of a job; each opens to its sum where it is worked out, on Verdict.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::survey::{Basis, End, LoadState};
use wise_badger_casework::verdict::RatingCheck;
use wise_badger_mechanics::axle_rate::RateGrade;
use wise_badger_mechanics::units::InShopUnits;

use super::aim::aim_words;
use super::{Units, rated_name, sentence, state_of};
use crate::correction::option_name;

/// Label and figure of each, the most telling first; at most six.
pub(crate) fn key_figures(work: &Casework, units: Units) -> Vec<(String, String)> {
    let rows = [tightest_rating, rear_rate, rear_drop, rakes, aim, chosen];
    rows.iter().filter_map(|row| row(work, units)).collect()
}

/// The rating that leaves the smallest share of itself.
fn tightest_rating(work: &Casework, units: Units) -> Option<(String, String)> {
    let survey = work.found();
    let share = |check: &RatingCheck| (check.margin() / check.rating).value;
    // Empty there is room enough, unless there is none.
    let tells = |check: &RatingCheck| check.state != LoadState::Empty || check.margin().si() < 0.0;
    let checks = RatingCheck::all(survey).into_iter().filter(tells);
    let check = checks.min_by(|one, other| share(one).total_cmp(&share(other)))?;
    let margin = check.margin();
    let label = format!("{}, {}", rated_name(survey.vehicle.class, check.rated), state_of(survey, check.state));
    let side = if margin.si() < 0.0 { "over" } else { "under" };
    let assumed = if check.basis == Basis::Assumed { ", by assumed weights" } else { "" };
    Some((sentence(&label), format!("{} {side} its rating{assumed}", units.weight(margin.abs()))))
}

/// Once it was measured after fitting, what it stood at before is said to be that.
fn as_found(label: &str, work: &Casework) -> String {
    if work.is_measured_again() { format!("{label}, as found") } else { label.to_owned() }
}

fn rear_rate(work: &Casework, units: Units) -> Option<(String, String)> {
    let figure = work.rate().measured()?;
    let grade = if figure.grade == RateGrade::Good { "good" } else { "rough" };
    Some(("Rear rate".to_owned(), format!("{}, {grade}", units.rate(figure.rate))))
}

fn rear_drop(work: &Casework, units: Units) -> Option<(String, String)> {
    let drop = work.found().drop(End::Rear)?.value;
    let way = if drop.si() < 0.0 { "up" } else { "down" };
    Some((as_found("Rear, with the load", work), format!("{way} {}", units.height(drop.abs()))))
}

fn rakes(work: &Casework, units: Units) -> Option<(String, String)> {
    let survey = work.found();
    if survey.vehicle.class.is_trailer() {
        return None;
    }
    let rake = |state| Some(format!("{} {}", units.change(survey.rake(state)?), state_of(survey, state)));
    let each: Vec<String> = LoadState::BOTH.into_iter().filter_map(rake).collect();
    (!each.is_empty()).then(|| (as_found("Rear over front", work), each.join(", ")))
}

fn aim(work: &Casework, units: Units) -> Option<(String, String)> {
    let words = aim_words(work, units);
    (!words.is_empty()).then(|| ("Aim".to_owned(), words))
}

fn chosen(work: &Casework, units: Units) -> Option<(String, String)> {
    let (entry, _) = work.chosen()?;
    Some(("Chosen".to_owned(), option_name(entry, work.case().intake.class, units)))
}
