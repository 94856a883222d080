//! What parts change on the vehicle behind the readings, and how far down that still has a meaning.

use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Correction, TakesUp, kerb_spring_force, solid_after};
use wise_badger_mechanics::identification::Identified;
use wise_badger_mechanics::pack::PackCurve;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{Axle, AxleStance, Change, Stance, Vehicle};

use super::answer::Unpredicted;
use super::model::{rear_axles, site_axles};
use super::predictor::Predictor;
use crate::survey::{End, LoadState};
use wise_badger_mechanics::units::{Length, metres};

impl Predictor {
    pub(super) fn goes_on(&self, parts: &[Correction]) -> Result<(), Unpredicted> {
        let nowhere = |part: &Correction| site_axles(&self.survey, part.site()).is_empty();
        if parts.iter().any(nowhere) {
            return Err(Unpredicted::NoSuchAxle);
        }
        // Nobody knows what moves an overload leaf that nobody looked at: it may join in just past what was read.
        if parts.iter().any(|part| part.takes_up() == TakesUp::OverloadLeaf) && !self.survey.has_seen_its_overload_leaf() {
            return Err(Unpredicted::NeedsTheOverloadLeaf);
        }
        if End::BOTH.into_iter().any(|end| self.brings_down_unread_stops(parts, end)) {
            return Err(Unpredicted::NeedsTheStopGap);
        }
        Ok(())
    }

    /// Whether stops of which nobody read how near they are come nearer: they may then bear, and hold the height up.
    fn brings_down_unread_stops(&self, parts: &[Correction], end: End) -> bool {
        let here = || parts.iter().filter(|part| (part.site().axles == Axles::Front) == (end == End::Front));
        let longer = here().any(|part| part.takes_up() == TakesUp::Stop && part.opens_the_stop() < Length::default());
        let opens = here().map(Correction::opens_the_stop).fold(Length::default(), |all, each| all + each);
        let read = self.survey.stop_gap.get(LoadState::Empty).and_then(|gaps| gaps.least(end));
        longer && opens < metres(-1e-6) && read.is_none()
    }

    /// What the parts change, in their order; one that takes the stops' place takes them off.
    ///
    /// A clearance is one that the shop sets with everything else fitted: by what the other parts raise the empty axle, its gap is less
    /// than counted from the vehicle as it came in.
    pub(super) fn changes(&self, parts: &[Correction], vehicle: &Vehicle) -> Vec<Change> {
        let of_parts = parts.iter().flat_map(|part| self.changes_of(part, vehicle));
        let (set, others): (Vec<_>, Vec<_>) = parts.iter().partition(|part| part.set_to_a_clearance().is_some());
        let raised = if set.is_empty() || others.is_empty() { None } else { self.raised_empty(&others) };
        let closed = set.into_iter().flat_map(|part| raised.iter().flat_map(|raised| self.closed(part, raised)));
        of_parts.chain(closed).collect()
    }

    /// Where the axles stand empty with parts fitted, from where they stood.
    fn raised_empty(&self, parts: &[&Correction]) -> Option<(Stance, &Stance)> {
        let changes = |vehicle: &Vehicle| parts.iter().flat_map(|part| self.changes_of(part, vehicle)).collect();
        let fitted = self.weighed().ok()?.leading().identified.stand(self.index(LoadState::Empty), changes).ok()?;
        Some((fitted, &self.plain(LoadState::Empty).ok()?.leading().stance))
    }

    /// Closes the clearance of a part by what others raise its corners.
    fn closed(&self, part: &Correction, (fitted, plain): &(Stance, &Stance)) -> Vec<Change> {
        let (site, element) = (part.site(), part.set_to_a_clearance().unwrap_or_default());
        let corner = |axle: &str, side: Side| {
            let stands = |stance: &Stance| Some(*stance.axle(axle)?.hub_to_arch_change.get(side));
            let by = stands(plain)? - stands(fitted)?;
            Some(Change::Gap { axle: axle.to_owned(), side: Some(side), element: element.to_owned(), by })
        };
        let sides = || Side::BOTH.into_iter().filter(|side| site.side.is_none_or(|of| of == *side));
        site_axles(&self.survey, site).iter().flat_map(|axle| sides().filter_map(|side| corner(axle, side))).collect()
    }

    fn changes_of(&self, part: &Correction, vehicle: &Vehicle) -> Vec<Change> {
        let site = part.site();
        let axles = site_axles(&self.survey, site);
        let mut changes = part.changes(vehicle, axles);
        // A stop that nobody read is none of the model's, and is made no longer in it.
        let is_there = |axle: &str, element: &str| {
            let corners = vehicle.axles.iter().find(|of| of.name == *axle).map(|of| &of.corners);
            corners.is_some_and(|of| of.left.elements.iter().chain(&of.right.elements).any(|of| of.name == *element))
        };
        changes.retain(|change| !matches!(change, Change::Gap { axle, element, .. } if !is_there(axle, element)));
        if part.replaces_stops() {
            for axle in axles {
                // A corner has a stop in the model where its gap was read, or where an account has one.
                let corners = vehicle.axles.iter().find(|of| of.name == *axle).map(|of| &of.corners);
                let has_one = |side| corners.is_some_and(|of| of.get(side).elements.iter().any(|of| of.name == BUMP_STOP));
                let there = |side: &Side| has_one(*side) && site.side.is_none_or(|of| of == *side);
                let off = |side| Change::Remove { axle: (*axle).to_owned(), side: Some(side), element: BUMP_STOP.to_owned() };
                changes.extend(Side::BOTH.into_iter().filter(there).map(off));
            }
        }
        changes
    }

    /// Whether what is fitted, and the pack, still have a meaning where the vehicle stands.
    ///
    /// # Errors     [`Unpredicted::PastThePack`], [`Unpredicted::PastThePart`]
    pub(super) fn holds_where_it_stands(
        &self,
        parts: &[Correction],
        identified: &Identified,
        stance: &Stance,
    ) -> Result<(), Unpredicted> {
        if !self.holds_at(parts, identified, stance) {
            return Err(Unpredicted::PastThePack);
        }
        if self.is_pressed_past(parts, stance) {
            return Err(Unpredicted::PastThePart);
        }
        Ok(())
    }

    /// Whether a part is pressed at any of its corners past what it is made for.
    fn is_pressed_past(&self, parts: &[Correction], stance: &Stance) -> bool {
        parts.iter().any(|part| {
            let site = part.site();
            let mut axles = site_axles(&self.survey, site).iter().filter_map(|axle| stance.axle(axle));
            let past = |axle: &AxleStance, side: Side| {
                let clearance = part.set_to_a_clearance().zip(part.most_pressed());
                let pressed = clearance.and_then(|(element, most)| Some(-axle.gap(side, element)? > most));
                pressed.unwrap_or(false)
                    || solid_after(parts, part).is_some_and(|most| -*axle.hub_to_arch_change.get(side) >= most)
            };
            axles.any(|axle| Side::BOTH.into_iter().any(|side| site.side.is_none_or(|of| of == side) && past(axle, side)))
        })
    }

    /// Whether the correction, and a pack read on the bench, still have a meaning as far down as each rear axle stands.
    fn holds_at(&self, parts: &[Correction], identified: &Identified, stance: &Stance) -> bool {
        let vehicle = identified.vehicle();
        let packs = self.survey.vehicle.rear_pack.as_ref();
        let holds = |(axle, stance): (&Axle, &AxleStance)| {
            let (fell, carried) = (Sides::from_fn(|side| -*stance.hub_to_arch_change.get(side)), kerb_spring_force(axle));
            let down = fell.left.max(fell.right);
            let in_its_range = |side, pack: &PackCurve| *fell.get(side) <= pack.height(carried) - pack.lowest();
            packs.is_none_or(|packs| Side::BOTH.into_iter().all(|side| in_its_range(side, packs.get(side))))
                && parts.iter().all(|part| part.holds_at(carried, down))
        };
        let at_the_rear = vehicle.axles.iter().filter(|axle| rear_axles(&self.survey).contains(&axle.name.as_str()));
        at_the_rear.filter_map(|axle| Some((axle, stance.axle(&axle.name)?))).all(holds)
    }
}
