//! What rules an option out on a job, and what to be careful of with one.

use wise_badger_mechanics::correction::{Caution, Correction, Needs, Work, cautions_of};

use super::{Casework, NothingFits, PlannedCase};
use crate::consequence::{Consequence, OptionFitted, consequences};
use crate::look_over::{Addition, Gate};
use crate::prediction::{CaseHeights, Prediction, Unpredicted};
use crate::survey::End;

impl Casework {
    /// Why nothing may be fitted at all, if that is so.
    pub fn nothing_fits(&self) -> Option<NothingFits> {
        if self.overload().is_some() {
            return Some(NothingFits::OverARating);
        }
        (!self.look_over().stops().is_empty()).then_some(NothingFits::Stopped)
    }

    /// What rules parts out that are to be fitted together: the springs that are there, and what was found.
    pub fn gate(&self, parts: &[Correction]) -> Vec<Gate> {
        let of_part = |part: &Correction| {
            let no_fit = self.found().vehicle.no_fit_of(part).map(Gate::NoFit);
            no_fit.into_iter().chain(self.look_over().gate(&part.works()))
        };
        parts.iter().flat_map(of_part).fold(Vec::new(), |mut once, gate| {
            if !once.contains(&gate) {
                once.push(gate);
            }
            once
        })
    }

    /// The same of an option on the list, and what its own steel rules out.
    pub fn gate_of(&self, place: usize) -> Vec<Gate> {
        let parts = self.option(place).map_or(&[][..], |(_, parts)| parts);
        let yields = self.benches_of(place).iter().any(|bench| bench.work.refused().is_some());
        let pressed_past = self.options.get(place).is_some_and(|option| {
            let in_case = |case: &PlannedCase| self.in_case(place, case);
            *option.pressed_past.get_or_init(|| self.is_pressed_past(parts, self.predicted(place), in_case))
        });
        let own = [(yields, Gate::Yields), (pressed_past, Gate::PastItsCapacity)];
        let own = own.into_iter().filter_map(|(holds, gate)| holds.then_some(gate));
        let too_short = self.too_short(&self.consequences(place)).into_iter().map(Gate::TooShort);
        self.gate(parts).into_iter().chain(own).chain(too_short).collect()
    }

    /// The repairs that would make good what is too short for any option on the list.
    pub fn repairs_for_options(&self) -> Vec<Addition> {
        let short = (0..self.options.len()).flat_map(|place| self.consequences(place));
        short.filter_map(|of| of.too_short()).filter(|of| *of != Addition::NewUBolts).collect()
    }

    /// The same of parts that are on no list, set alike in every state and case, by what is predicted of them.
    pub fn gate_with(&self, parts: &[Correction], prediction: &Prediction) -> Vec<Gate> {
        let in_case = |case: &PlannedCase| self.predictor().in_case(&case.survey, parts);
        let pressed_past = self.is_pressed_past(parts, Some(prediction), in_case).then_some(Gate::PastItsCapacity);
        let fitted =
            OptionFitted { survey: self.found(), parts, prediction: Some(prediction), benches: &[], look_over: self.look_over() };
        let too_short = self.too_short(&consequences(&fitted)).into_iter().map(Gate::TooShort);
        self.gate(parts).into_iter().chain(pressed_past).chain(too_short).collect()
    }

    /// What is too short, and is neither in the option nor among the repairs of the job. U-bolts of the option itself are never made
    /// good by others.
    fn too_short(&self, consequences: &[Consequence]) -> Vec<Addition> {
        let repairs = &self.look_over().repairs;
        let short = consequences.iter().filter_map(Consequence::too_short);
        short.filter(|of| *of == Addition::NewUBolts || !repairs.contains(of)).collect()
    }

    /// Whether any of some parts is pressed past what it is made for, in any state that was read or any case of the load plan.
    fn is_pressed_past(
        &self,
        parts: &[Correction],
        predicted: Option<&Prediction>,
        in_case: impl Fn(&PlannedCase) -> Result<CaseHeights, Unpredicted>,
    ) -> bool {
        if !parts.iter().any(|part| part.most_pressed().or_else(|| part.solid_after()).is_some()) {
            return false;
        }
        let past = |why: Option<&Unpredicted>| why == Some(&Unpredicted::PastThePart);
        let in_a_state = predicted.is_some_and(|states| states.each().any(|(_, state)| past(state.as_ref().err())));
        in_a_state || self.cases().iter().any(|case| past(in_case(case).as_ref().err()))
    }

    /// The cautions to show with parts before they are chosen: all of them that this vehicle can have to do with.
    pub fn cautions(&self, parts: &[Correction]) -> Vec<Caution> {
        let trailer = self.found().vehicle.class.is_trailer();
        cautions_of(parts)
            .into_iter()
            .filter_map(|caution| if trailer { caution.on_a_trailer() } else { Some(caution) })
            .collect()
    }

    /// What rules a kind of work at the rear out, before any part of it is known.
    pub fn gate_at_the_rear(&self, needs: Needs, work: Work) -> Vec<Gate> {
        self.look_over().gate_at(&self.found().vehicle, End::Rear, needs, &[work])
    }
}
