//! Everything that is allowed, as a list that is sorted and narrowed, and as a picture of fit against cost.

use wise_badger_casework::entry::OptionEntry;
use wise_badger_casework::finder::{Ranked, School, Weights};

use super::address;
use super::weighing::along;
use crate::drawing::{Drawing, FitPoint, fit_cost_drawing};
use crate::form::Sheet;
use crate::view::finder::{in_a_hundred, price_words};

/// The head of a column of the list, by which it is sorted when it is pressed.
pub(super) struct Head {
    pub(super) label: &'static str,
    pub(super) href: String,
    pub(super) sorted: bool,
}

/// What the list may be sorted by: the word in the address, and the head of the column.
const SORTED_BY: [(&str, &str); 5] =
    [("", "Place"), ("chance", "Meets the aim"), ("price", "Parts"), ("hours", "Work"), ("days", "To have it")];

/// An option in the list.
pub(super) struct Line {
    pub(super) rank: usize,
    pub(super) name: String,
    pub(super) school: String,
    pub(super) chance: String,
    pub(super) rear: String,
    pub(super) price: String,
    pub(super) hours: String,
    pub(super) days: String,
    pub(super) against: String,
    pub(super) folded: &'static str,
    pub(super) key: String,
}

/// What the list is narrowed to.
pub(super) struct Narrowed {
    pub(super) without: Vec<School>,
    pub(super) only_wished: bool,
}

impl Narrowed {
    pub(super) fn of(sheet: &Sheet) -> Self {
        let without = School::ALL.into_iter().filter(|school| sheet.is_filled(&format!("without_{}", school.word())));
        Narrowed { without: without.collect(), only_wished: sheet.is_filled("only_wished") }
    }

    pub(super) fn shows(&self, option: &Ranked) -> bool {
        let left_out = option.schools.iter().any(|school| self.without.contains(school));
        let goes_by_the_wishes = !self.only_wished || option.worth.against_a_wish.is_empty();
        !left_out && goes_by_the_wishes
    }

    pub(super) fn is_any(&self) -> bool {
        self.only_wished || !self.without.is_empty()
    }
}

/// What an option is sorted by, the least first; what is not known comes last.
pub(super) fn sorted_value(by: &str, place: usize, ranked: &Ranked) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "neither a place nor a price has so many figures")]
    let value = match by {
        "chance" => ranked.chance.as_ref().map(|chance| -chance.all),
        "price" => ranked.worth.price.map(|(price, _)| price as f64),
        "hours" => ranked.worth.hours,
        "days" => ranked.worth.days.map(f64::from),
        _ => Some(place as f64),
    };
    value.unwrap_or(f64::INFINITY)
}

pub(super) fn heads(number: i32, weights: &Weights, by: &str) -> Vec<Head> {
    let head = |(word, label): &(&'static str, &'static str)| {
        let sort: &[(&str, &str)] = if word.is_empty() { &[] } else { &[("sort", word)] };
        Head { label, href: format!("{}?{}#list", address(number), along(weights, sort)), sorted: by == *word }
    };
    SORTED_BY.iter().map(head).collect()
}

/// Fit against cost: a point for every option whose price and chance are known.
pub(super) fn picture(ranked: &[Ranked], first: &[usize], name: &impl Fn(&OptionEntry) -> String) -> Option<Drawing> {
    let point = |(place, option): (usize, &Ranked)| {
        let (price, _) = option.worth.price?;
        let chance = option.chance.as_ref()?.all;
        #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
        let price = price as f64 / 100.0;
        let name = format!("{}: {}, {}, {}", place + 1, name(&option.option), in_a_hundred(chance), price_words(&option.worth));
        Some(FitPoint { rank: place + 1, name, chance, price, first: first.contains(&place) })
    };
    let points: Vec<FitPoint> = ranked.iter().enumerate().filter_map(point).collect();
    let dearest =
        ranked.iter().filter(|option| option.worth.price.is_some()).max_by_key(|option| option.worth.price.map(|price| price.0));
    let most = dearest.map(|option| price_words(&option.worth)).unwrap_or_default();
    (points.len() > 1).then(|| fit_cost_drawing(&points, &most))
}
