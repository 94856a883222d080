//! Parts put together: one of a role at most, and nothing twice in one place.

use std::collections::HashMap;

use wise_badger_mechanics::correction::{Correction, not_together};
use wise_badger_mechanics::units::{InShopUnits, inches};

use super::pool::{Piece, Role};
use super::screen::{Alone, Ground};
use super::search::{Counted, MOST_SCREENED};

/// Parts of a kind that lift alike to so much do the same; the cheapest of them is combined.
const THE_SAME_IN: f64 = 0.125;
/// Most pieces of a role that are combined with others.
const MOST_OF_A_ROLE: usize = 16;

const ROLES: [Role; 4] = [Role::MainSpring, Role::LoadHelp, Role::Height, Role::Front];

/// The pieces that are predicted by themselves, of those that do the same the cheapest.
pub(super) fn apart(ground: &Ground<'_>, pieces: Vec<Piece>, counted: &mut Counted) -> Vec<(Piece, Alone)> {
    let first = ground.first_moment();
    let mut best: HashMap<(&str, String, i64), (Piece, Alone)> = HashMap::new();
    let before = pieces.len();
    for piece in pieces {
        let Some(alone) = ground.alone(&piece.correction) else { continue };
        let rise = alone.rises.get(first).map_or(0.0, |rise| rise.front + rise.rear);
        #[expect(clippy::cast_possible_truncation, reason = "a rise is a few inches")]
        let step = (rise / inches(THE_SAME_IN).si()).round() as i64;
        let key = (piece.correction.row().word, format!("{:?}", piece.correction.site()), step);
        let cheaper = best.get(&key).is_none_or(|(there, _)| costs(&piece) < costs(there));
        if cheaper {
            best.insert(key, (piece, alone));
        }
    }
    let mut kept: Vec<(Piece, Alone)> = best.into_values().collect();
    kept.sort_by(|(one, _), (other, _)| {
        (one.place, one.correction.row().word, format!("{:?}", one.entry.correction))
            .partial_cmp(&(other.place, other.correction.row().word, format!("{:?}", other.entry.correction)))
            .unwrap_or(std::cmp::Ordering::Equal)
    });
    counted.left_out = before - kept.len();
    kept
}

/// What a piece costs, and for how long it is waited: what is cheaper goes first.
fn costs(piece: &Piece) -> (i64, u32, String) {
    let part = piece.entry.shelf.as_deref();
    let price = part.and_then(|part| part.price.as_ref()).map_or(i64::MAX, |price| price.hundredths);
    let days = part.and_then(|part| part.lead_days).unwrap_or(0);
    (price, days, part.map_or_else(String::new, |part| part.number.clone()))
}

/// Every combination, by the places of its pieces: those of one part first, and of more those that come nearest to what is wanted.
pub(super) fn combinations(ground: &Ground<'_>, pieces: &[(Piece, Alone)], counted: &mut Counted) -> Vec<Vec<usize>> {
    let (first, wanted) = (ground.first_moment(), ground.wanted_rise());
    let rise = |place: usize| {
        let alone = pieces.get(place).and_then(|(_, alone)| alone.rises.get(first));
        alone.map_or(0.0, |rise| rise.rear - rise.front)
    };
    let miss = |places: &[usize]| {
        let lifted: f64 = places.iter().map(|place| rise(*place)).sum();
        wanted.map_or(lifted, |wanted| (lifted - wanted).abs())
    };
    let mut all: Vec<Vec<usize>> = vec![Vec::new()];
    for role in ROLES {
        let mut of_role: Vec<usize> =
            pieces.iter().enumerate().filter_map(|(place, (piece, _))| (piece.role == role).then_some(place)).collect();
        of_role.sort_by(|one, other| miss(&[*one]).total_cmp(&miss(&[*other])));
        // The nearest by itself is not always the best in company: some of every size are kept.
        let step = of_role.len().div_ceil(MOST_OF_A_ROLE).max(1);
        let chosen: Vec<usize> = of_role.iter().copied().step_by(step).collect();
        let with = all.iter().flat_map(|places| {
            let chosen = if places.is_empty() { &of_role } else { &chosen };
            chosen.iter().map(|place| [&places[..], &[*place]].concat())
        });
        let with: Vec<_> = with.collect();
        all.extend(with);
    }
    let go_together = |places: &Vec<usize>| {
        let parts: Vec<Correction> = places.iter().filter_map(|place| Some(pieces.get(*place)?.0.correction.clone())).collect();
        !places.is_empty() && not_together(&parts).is_none()
    };
    all.retain(go_together);
    all.sort_by(|one, other| (one.len() > 1).cmp(&(other.len() > 1)).then(miss(one).total_cmp(&miss(other))));
    counted.not_screened = all.len().saturating_sub(MOST_SCREENED);
    all.truncate(MOST_SCREENED);
    all
}
