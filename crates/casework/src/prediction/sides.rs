//! Left and right: where either side of an end stands, and how far it leans.

use wise_badger_mechanics::correction::{Axles, Correction};
use wise_badger_mechanics::identification::Forecast;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::Change;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Length, metres};

use super::model::{side_mark, stiffer_in_roll};
use super::predictor::{Passage, Predictor, SAME_M};
use super::weighed::Weighed;
use crate::survey::{End, LoadState, Survey};

/// Both sides of an end, and how far the right one stands above the left.
#[derive(Clone, Copy)]
pub(super) struct BothSides {
    pub(super) sides: Sides<Uncertain<Length>>,
    pub(super) lean: Uncertain<Length>,
}

/// Of what a lean that is there empty comes down by with a new pair of springs, so much is in doubt as one standard deviation: some of
/// it may be the load's, or the frame's (our own working rule).
const LEAN_IN_DOUBT: f64 = 0.25;

/// What parts take out of the lean that an end has empty, right above left: all of it where a new pair of springs comes, nothing else.
pub(crate) fn lean_taken_out<'c>(
    survey: &Survey,
    end: End,
    parts: impl IntoIterator<Item = &'c Correction>,
) -> Uncertain<Length> {
    let of_end = |part: &Correction| (part.site().axles == Axles::Front) == (end == End::Front);
    let renewed = parts.into_iter().any(|part| of_end(part) && part.renews_the_pair());
    let lean = survey.lean(end, LoadState::Empty).filter(|_| renewed).unwrap_or_default();
    Uncertain::new(lean, lean.abs() * LEAN_IN_DOUBT)
}

impl Predictor {
    /// Either side of an end, where both were read: the reading of the side plus its own rise; a new pair of springs takes out the lean
    /// that is there empty. That the springs of a pair are not quite alike is in doubt with everything else. How stiff the vehicle is in
    /// roll is not known: where the sides rise unlike, the answer lies half-way between bare springs and a stiff bar in front, and half
    /// of what lies between them is one standard deviation.
    pub(super) fn sides(
        &self,
        weighed: &Weighed,
        change: &Passage<'_>,
        end: End,
        state: LoadState,
        axle_sd: Length,
        rolled: impl Fn(&[Change]) -> Option<(Forecast, Forecast)>,
    ) -> Option<BothSides> {
        let (identified, before, after) = (&weighed.leading().identified, change.from.leading(), change.to.leading());
        let half_lean_sd = self.survey.half_lean_sd(end, state)?;
        let readings = self.survey.readings(end, state);
        let corner = Sides { left: readings.corner(Side::Left)?, right: readings.corner(Side::Right)? };
        let rise =
            |from: &Forecast, to: &Forecast, side| Some(identified.rise(from, to, &side_mark(&self.survey, end, side)?)?.value);
        let bare = Sides { left: rise(before, after, Side::Left)?, right: rise(before, after, Side::Right)? };
        let unlike = (bare.left - bare.right).abs() > metres(SAME_M);
        let stiffer = stiffer_in_roll(&self.survey).filter(|_| unlike);
        let stiff = match stiffer {
            None => bare,
            Some(bar) => {
                let (from, to) = rolled(&[bar])?;
                Sides { left: rise(&from, &to, Side::Left)?, right: rise(&from, &to, Side::Right)? }
            }
        };
        // One spring of a pair is a little stiffer than its fellow: what that leaves open of the roll, half of it on either side.
        let [left, right] = [side_mark(&self.survey, end, Side::Left)?, side_mark(&self.survey, end, Side::Right)?];
        let side_to_side = identified.rise_apart(before, after, &right, &left)?.sd / 2.0;
        let of_reading = Length::hypot(Length::hypot(axle_sd, half_lean_sd), side_to_side);
        let taken_out = lean_taken_out(&self.survey, end, change.parts);
        let of_reading = Length::hypot(of_reading, taken_out.sd / 2.0);
        let sides = Sides::from_fn(|side| {
            let (bare, stiff) = (*bare.get(side), *stiff.get(side));
            let own_mark = if side == Side::Left { &left } else { &right };
            let sd = Length::hypot(Length::hypot(of_reading, (bare - stiff).abs() / 2.0), change.off.sd(after, own_mark));
            let from = *corner.get(side) + taken_out.value / if side == Side::Left { 2.0 } else { -2.0 };
            Uncertain::new(from + (bare + stiff) / 2.0, sd)
        });
        // Both sides' own: the tape on either, unlike springs, how far it rolls, and parts that are off on one side.
        let roll = ((bare.right - bare.left) - (stiff.right - stiff.left)).abs() / 2.0;
        let own = Length::hypot(2.0 * Length::hypot(half_lean_sd, side_to_side), taken_out.sd);
        let lean_sd = Length::hypot(Length::hypot(own, roll), change.off.apart_sd(after, &right, &left));
        let lean = Uncertain::new(sides.right.value - sides.left.value, lean_sd);
        Some(BothSides { sides, lean })
    }
}
