//! The kinds that may be the answer, and what of the shelf comes near.

use wise_badger_mechanics::correction::{
    Correction, KindRow, Quantity, added_leaf, air_helper, bags_in_coils, coil_spacer, half_pack, helper_by_capacity,
    helper_coils, helper_spring, leaf_by_lift, lift_block, load_rubber, new_coils, new_packs, rubber_by_capacity,
};
use wise_badger_mechanics::units::Length;

use super::answer::{Behind, FromTheShelf, KindAnswer};
use super::heard::Heard;
use crate::back_solve::{Wanted, best_set, size_of};
use crate::entry::ShelfPart;
use crate::prediction::Predictor;
use crate::survey::{End, SpringKind, Survey};

/// Most kinds that are told, and most parts of the shelf of each.
const MOST_KINDS: usize = 3;
const MOST_PARTS: usize = 3;

/// A kind that may be the answer, and where it stands among them: the lower, the likelier; none where it is not.
struct Offer {
    row: &'static KindRow,
    /// Kinds of the shelf that are the same thing bought otherwise.
    also: &'static [&'static KindRow],
    on: Option<SpringKind>,
    for_the_load: Option<u8>,
    for_tired_springs: Option<u8>,
    upkeep: bool,
    removable: bool,
    height_alone: bool,
}

static OFFERS: &[Offer] = &[
    Offer {
        row: &helper_by_capacity::ROW,
        also: &[&helper_spring::ROW, &helper_coils::ROW],
        on: Some(SpringKind::Leaf),
        for_the_load: Some(1),
        for_tired_springs: Some(4),
        upkeep: false,
        removable: true,
        height_alone: false,
    },
    Offer {
        row: &rubber_by_capacity::ROW,
        also: &[&load_rubber::ROW],
        on: None,
        for_the_load: Some(2),
        for_tired_springs: None,
        upkeep: false,
        removable: true,
        height_alone: false,
    },
    Offer {
        row: &air_helper::ROW,
        also: &[],
        on: Some(SpringKind::Leaf),
        for_the_load: Some(3),
        for_tired_springs: None,
        upkeep: true,
        removable: true,
        height_alone: false,
    },
    Offer {
        row: &bags_in_coils::ROW,
        also: &[],
        on: Some(SpringKind::Coil),
        for_the_load: Some(1),
        for_tired_springs: None,
        upkeep: true,
        removable: true,
        height_alone: false,
    },
    Offer {
        row: &new_coils::ROW,
        also: &[],
        on: Some(SpringKind::Coil),
        for_the_load: Some(3),
        for_tired_springs: Some(1),
        upkeep: false,
        removable: false,
        height_alone: false,
    },
    Offer {
        row: &leaf_by_lift::ROW,
        also: &[&added_leaf::ROW, &half_pack::ROW],
        on: Some(SpringKind::Leaf),
        for_the_load: Some(4),
        for_tired_springs: Some(2),
        upkeep: false,
        removable: false,
        height_alone: false,
    },
    Offer {
        row: &new_packs::ROW,
        also: &[],
        on: Some(SpringKind::Leaf),
        for_the_load: None,
        for_tired_springs: Some(1),
        upkeep: false,
        removable: false,
        height_alone: false,
    },
    Offer {
        row: &coil_spacer::ROW,
        also: &[],
        on: Some(SpringKind::Coil),
        for_the_load: None,
        for_tired_springs: Some(2),
        upkeep: false,
        removable: false,
        height_alone: true,
    },
    Offer {
        row: &lift_block::ROW,
        also: &[],
        on: Some(SpringKind::Leaf),
        for_the_load: None,
        for_tired_springs: Some(3),
        upkeep: false,
        removable: false,
        height_alone: true,
    },
];

/// Words of the kinds that may be the answer, as they stand on the shelf.
pub fn kinds_answered() -> Vec<&'static str> {
    OFFERS.iter().flat_map(|offer| std::iter::once(offer.row).chain(offer.also.iter().copied())).map(|row| row.word).collect()
}

/// The kinds that probably do it, the likeliest first.
pub(super) fn kinds(
    heard: &Heard<'_>,
    behind: Behind,
    predictor: &Predictor,
    case: &Survey,
    wanted: &Wanted<'_>,
    shelf: &[ShelfPart],
) -> Vec<KindAnswer> {
    let rank = |offer: &Offer| match behind {
        Behind::TheLoad => offer.for_the_load,
        Behind::TiredSprings => offer.for_tired_springs,
        Behind::Either => offer.for_the_load.into_iter().chain(offer.for_tired_springs).min(),
    };
    let (no_upkeep, comes_off) = (heard.call.upkeep == Some(false), heard.call.removable == Some(true));
    let wished = |offer: &Offer| !(no_upkeep && offer.upkeep) && (offer.removable || !comes_off);
    let rests_on = heard.vehicle.springs.rear.unwrap_or(SpringKind::Leaf);
    let goes =
        |offer: &Offer| offer.on.is_none_or(|on| on == rests_on) && heard.vehicle.no_fit(End::Rear, offer.row.needs).is_none();
    let ranked = OFFERS.iter().filter(|offer| wished(offer) && goes(offer)).filter_map(|offer| Some((rank(offer)?, offer)));
    let mut offers: Vec<(u8, &Offer)> = ranked.collect();
    offers.sort_by_key(|(rank, _)| *rank);
    let answers = offers.into_iter().filter_map(|(_, offer)| kind_answer(offer, wanted, predictor, case, shelf));
    answers.take(MOST_KINDS).collect()
}

/// A part of the shelf as it is best set, and how far off what is wanted it then stands.
struct Near {
    off: Length,
    place: usize,
    part: Correction,
    setting: Option<(&'static str, Quantity)>,
}

/// What a kind would have to be, and what of the shelf comes near; `None` where no size of it does, and nothing on the shelf.
fn kind_answer(
    offer: &Offer,
    wanted: &Wanted<'_>,
    predictor: &Predictor,
    case: &Survey,
    shelf: &[ShelfPart],
) -> Option<KindAnswer> {
    let rises = |part: &Correction| predictor.rises_in_case(case, std::slice::from_ref(part)).ok();
    let sized = size_of(offer.row, wanted);
    let rise = sized.as_ref().and_then(|(_, _, part)| rises(part));
    let is_one = |part: &ShelfPart| part.kind == offer.row || offer.also.contains(&part.kind);
    let tried = |(place, part): (usize, &ShelfPart)| {
        let tried = best_set(wanted, part)?;
        Some(Near { off: (tried.height - wanted.wanted).abs(), place, part: tried.part, setting: tried.setting })
    };
    let mut near: Vec<Near> = shelf.iter().enumerate().filter(|(_, part)| is_one(part)).filter_map(tried).collect();
    near.sort_by(|one, other| one.off.partial_cmp(&other.off).unwrap_or(std::cmp::Ordering::Equal));
    let first_near = near.first().map(|near| near.part.clone());
    let shelf_near: Vec<FromTheShelf> = near
        .into_iter()
        .filter_map(|near| Some(FromTheShelf { place: near.place, setting: near.setting, rise: rises(&near.part)? }))
        .take(MOST_PARTS)
        .collect();
    if sized.is_none() && shelf_near.is_empty() {
        return None;
    }
    let parts = || shelf_near.iter().filter_map(|near| shelf.get(near.place));
    let prices = || parts().filter_map(|part| part.price.clone());
    let least = prices().min_by_key(|price| price.hundredths);
    let hours = || parts().filter_map(|part| part.hours);
    let (from, to) = (hours().reduce(f64::min), hours().reduce(f64::max));
    Some(KindAnswer {
        row: offer.row,
        part: sized.as_ref().map(|(_, _, part)| part.clone()).or_else(|| first_near.clone()),
        size: sized.map(|(figure, value, _)| (figure, value)),
        rise,
        price: least.zip(prices().max_by_key(|price| price.hundredths)),
        hours: from.zip(to),
        shelf: shelf_near,
        upkeep: offer.upkeep,
        height_alone: offer.height_alone,
    })
}
