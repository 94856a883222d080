//! What counts, on the form and in the address.

use form_urlencoded::Serializer;
use wise_badger_casework::finder::Weights;

use crate::form::{Field, Sheet};

/// The words of the weights on the form.
const WEIGHTS: [(&str, &str); 8] = [
    ("aim", "Meets the aim"),
    ("cause", "Puts the cause right"),
    ("ride", "Ride"),
    ("upkeep", "No upkeep"),
    ("removable", "Comes off again"),
    ("price", "Price"),
    ("time", "Time"),
    ("headroom", "Travel left for what is planned"),
];
const MOST_WEIGHT: f64 = 100.0;

/// Weights off the address; what is none is the shop's.
pub(super) fn weights_of(sheet: &Sheet, usual: Weights) -> Weights {
    let weight = |name: &str, usual: f64| {
        let typed = sheet.text(name).trim().parse::<f64>().ok();
        typed.filter(|weight| (0.0..=MOST_WEIGHT).contains(weight)).unwrap_or(usual)
    };
    Weights {
        aim: weight("aim", usual.aim),
        cause: weight("cause", usual.cause),
        ride: weight("ride", usual.ride),
        upkeep: weight("upkeep", usual.upkeep),
        removable: weight("removable", usual.removable),
        price: weight("price", usual.price),
        time: weight("time", usual.time),
        headroom: weight("headroom", usual.headroom),
    }
}

/// The weights as they go along in an address, with what else is asked.
pub(super) fn along(weights: &Weights, more: &[(&str, &str)]) -> String {
    let mut query = Serializer::new(String::new());
    for (name, weight) in weights.each() {
        query.append_pair(name, &weight.to_string());
    }
    query.extend_pairs(more);
    query.finish()
}

pub(super) fn weight_fields(sheet: &Sheet, weights: &Weights) -> Vec<Field> {
    let mut shown = sheet.clone();
    for (word, weight) in weights.each() {
        shown.set(word, weight.to_string());
    }
    WEIGHTS.iter().map(|(word, label)| shown.text_field(word, label)).collect()
}
