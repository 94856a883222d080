//! What the customer comes back for.

use super::card::Card;

/// What is due.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DueWhat {
    /// Lug nuts again.
    LugNuts,
    /// U-bolts again.
    UBolts,
    /// Heights read again, once it has settled.
    Heights,
}

/// Something that is due after so many miles.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Due {
    /// What.
    pub what: DueWhat,
    /// Not before, and not after (common practice).
    pub miles: [u32; 2],
    /// Not later than so many days, however little it is driven (our own working rule).
    pub days: u64,
}

/// What is due after the work of a card.
pub fn due(card: &Card) -> Vec<Due> {
    let has = |word: &str| card.steps.iter().any(|step| step.operation.word == word);
    let each = [
        (has("lug_nuts"), Due { what: DueWhat::LugNuts, miles: [50, 100], days: 7 }),
        (has("u_bolts_tight"), Due { what: DueWhat::UBolts, miles: [500, 1_000], days: 42 }),
        (!card.steps.is_empty(), Due { what: DueWhat::Heights, miles: [500, 1_000], days: 42 }),
    ];
    each.into_iter().filter_map(|(is_due, due)| is_due.then_some(due)).collect()
}
