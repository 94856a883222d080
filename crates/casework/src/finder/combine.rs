//! Parts put together: one of a role at most, and nothing twice in one place.

use wise_badger_mechanics::correction::{Correction, Site, not_together};
use wise_badger_mechanics::units::{InShopUnits, inches};

use super::found::Refused;
use super::pool::{Piece, Role};
use super::screen::{Alone, Ground};
use super::search::{Counted, MOST_SCREENED, Search};
use super::watch::{At, Came, Watch};
use super::worth::Worth;
use crate::entry::OptionEntry;

/// Parts of a kind that lift alike to so much do the same; the cheapest of them is combined.
const THE_SAME_IN: f64 = 0.125;
/// Most pieces of a role that are combined with others.
const MOST_OF_A_ROLE: usize = 16;

const ROLES: [Role; 4] = [Role::MainSpring, Role::LoadHelp, Role::Height, Role::Front];

/// Parts of a kind in a place that lift alike: its word, the place, and how far in steps.
type Alike = (&'static str, Site, i64);

/// The pieces that are predicted by themselves, of those that do the same the one that goes against the fewest wishes, and of those the
/// cheapest; and what is not predicted even by itself.
pub(super) fn apart(
    search: &Search<'_>,
    ground: &Ground<'_>,
    pieces: Vec<Piece>,
    counted: &mut Counted,
    watch: &dyn Watch,
) -> (Vec<(Piece, Alone)>, Vec<Refused>) {
    let first = ground.first_moment();
    let (mut kept, mut refused): (Vec<(Alike, Piece, Alone)>, Vec<Refused>) = (Vec::new(), Vec::new());
    let (mut left_out, mut idle): (Vec<usize>, Vec<usize>) = (Vec::new(), Vec::new());
    let of = pieces.len();
    for (done, piece) in pieces.into_iter().enumerate().take_while(|_| watch.goes_on()) {
        watch.comes(Came { at: At::Parts, done, of });
        let alone = match ground.alone(&piece.correction) {
            Ok(alone) => alone,
            Err(why) => {
                // One that is set otherwise may be: of each part it is said once.
                if refused.last().is_none_or(|last| last.places != [piece.place]) {
                    let option = OptionEntry { name: String::new(), parts: vec![piece.entry] };
                    let (places, unpredicted) = (vec![piece.place], Some(why));
                    refused.push(Refused {
                        option,
                        places,
                        gates: Vec::new(),
                        unpredicted,
                        misses_the_aim: None,
                        asks: Vec::new(),
                    });
                }
                continue;
            }
        };
        if ground.is_for_the_load_alone(&alone) {
            idle.extend(piece.place);
            continue;
        }
        let rise = alone.rises.get(first).map_or(0.0, |rise| rise.front + rise.rear);
        #[expect(clippy::cast_possible_truncation, reason = "a rise is a few inches")]
        let step = (rise / inches(THE_SAME_IN).si()).round() as i64;
        let key = (piece.correction.row().word, piece.correction.site(), step);
        match kept.iter_mut().find(|(of, ..)| *of == key) {
            None => kept.push((key, piece, alone)),
            Some((_, there, of_it)) => {
                let mut other = piece;
                if costs(search, &other) < costs(search, there) {
                    std::mem::swap(there, &mut other);
                    *of_it = alone;
                }
                left_out.extend(other.place);
            }
        }
    }
    // A part that is kept set in one way is not left out for being set in another too.
    let is_kept = |place: &usize| kept.iter().any(|(_, piece, _)| piece.place == Some(*place));
    for of in [&mut left_out, &mut idle] {
        of.retain(|place| !is_kept(place));
        of.sort_unstable();
        of.dedup();
    }
    counted.left_out = left_out.len();
    counted.move_nothing = idle.len();
    refused.retain(|refused| !refused.places.iter().flatten().any(|place| is_kept(place) || left_out.contains(place)));
    (kept.into_iter().map(|(_, piece, alone)| (piece, alone)).collect(), refused)
}

/// How many wishes a piece passes over, what it costs, and for how long it is waited: what has less of them goes first.
fn costs(search: &Search<'_>, piece: &Piece) -> (usize, i64, u32, String) {
    let part = piece.entry.shelf.as_deref();
    let wishes = Worth::of(std::iter::once(&piece.entry)).wishes_passed_over(search).len();
    let price = part.and_then(|part| part.price.as_ref()).map_or(i64::MAX, |price| price.hundredths);
    let days = part.and_then(|part| part.lead_days).unwrap_or(0);
    (wishes, price, days, part.map_or_else(String::new, |part| part.number.clone()))
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
