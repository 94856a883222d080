//! A correction: a part of some kind with its figures, in its place, and as well as it is known.

use std::sync::Arc;

use super::kind::{BUMP_STOP, CorrectionKind, FittedOn, KindFigure, KindRow, Takes};
use super::{Axles, Caution, CorrectionProblem, Given, MakesGood, PartDoubt, Site, TakesUp, Work};
use crate::stance::{Change, Vehicle};
use crate::units::{Angle, Force, Length, RollStiffness};

/// A kind of correction with its figures, and where it goes.
#[derive(Debug, Clone)]
pub struct Correction {
    kind: Arc<dyn CorrectionKind>,
    site: Site,
    /// What is left of the doubt of figures that are known better than their kind's, as shares of that.
    known: Vec<(&'static str, f64)>,
}

/// One correction is a list of one, wherever several may be fitted together.
impl AsRef<[Correction]> for Correction {
    fn as_ref(&self) -> &[Correction] {
        std::slice::from_ref(self)
    }
}

impl Correction {
    /// On both sides of the rear axle; of a trailer, on all its axles alike.
    pub fn at_the_rear(kind: impl CorrectionKind + 'static) -> Self {
        Correction { kind: Arc::new(kind), site: Site::default(), known: Vec::new() }
    }

    /// The same somewhere else.
    #[must_use]
    pub fn on(self, site: Site) -> Self {
        Correction { site, ..self }
    }

    /// Where it goes.
    pub fn site(&self) -> Site {
        self.site
    }

    /// What is known of its kind.
    pub fn row(&self) -> &'static KindRow {
        self.kind.row()
    }

    /// The figures that its opened sum tells of.
    pub fn account(&self) -> Given {
        self.kind.account()
    }

    /// What it takes up at its corners.
    pub fn takes_up(&self) -> TakesUp {
        self.kind.takes_up()
    }

    /// Whether all springs of its end are new ones, alike.
    pub fn renews_the_pair(&self) -> bool {
        let all_of_the_end = self.site.side.is_none() && !matches!(self.site.axles, Axles::OneOfRear(_));
        all_of_the_end && self.kind.renews_the_spring()
    }

    /// Every kind of work that it takes.
    pub fn works(&self) -> Vec<Work> {
        self.kind.works()
    }

    /// The cautions to show with it: those of where it goes, then its own, the most particular first.
    pub fn cautions(&self) -> Vec<Caution> {
        let of_site = [
            (self.site.axles == Axles::Front, Caution::SteeredAxle),
            (matches!(self.site.axles, Axles::OneOfRear(_)), Caution::OneAxleOfSeveral),
            (self.site.side.is_some(), Caution::OneSideOnly),
        ];
        let of_site = of_site.into_iter().filter(|(applies, _)| *applies).map(|(_, caution)| caution);
        // On one side nothing is set alike on both.
        let own = self.kind.cautions().into_iter();
        let own = own.filter(|caution| !(self.site.side.is_some() && *caution == Caution::SetEqualSides));
        of_site.chain(own).collect()
    }

    /// Everything about the correction that cannot be.
    pub fn problems(&self) -> Vec<CorrectionProblem> {
        let (row, given) = (self.row(), self.kind.given());
        let outside = |figure: &KindFigure| match figure.takes {
            Takes::Within(bound) if !given.get(figure.name).and_then(|it| it.si()).is_some_and(|si| bound.holds(si)) => {
                Some(CorrectionProblem::OutOfBounds { figure: figure.name, bound })
            }
            _ => None,
        };
        let end = match self.site.axles {
            Axles::Front => (!row.ends.have_a_front()).then_some(CorrectionProblem::NotOnTheFront),
            Axles::Rear | Axles::OneOfRear(_) => (!row.ends.have_a_rear()).then_some(CorrectionProblem::NotAtTheRear),
        };
        let side = (self.site.side.is_some() && !row.goes_on_one_side).then_some(CorrectionProblem::NotOnOneSide);
        row.figures.iter().filter_map(outside).chain(end).chain(side).chain(self.kind.problem()).collect()
    }

    /// The part as it may be instead, for each figure that it may be off in: one standard deviation up, and one down.
    pub fn one_deviation_off(&self) -> Vec<(&'static KindFigure, [Correction; 2])> {
        let off = |figure: &'static KindFigure| {
            let doubt = self.doubt_of(figure);
            Some((figure, [self.moved(figure, doubt, 1.0)?, self.moved(figure, doubt, -1.0)?]))
        };
        self.row().figures.iter().filter_map(off).collect()
    }

    /// How far a figure may be from what was said of it, where the part goes and as well as it is known.
    pub fn doubt_of(&self, figure: &KindFigure) -> PartDoubt {
        let left = self.known.iter().find(|(name, _)| *name == figure.name).map_or(1.0, |(_, left)| *left);
        // That a part is known better says nothing of the vehicle that it goes on.
        self.kind.doubt_at(&KindFigure { doubt: figure.doubt.left(left), ..*figure }, self.site)
    }

    /// The same part with a figure so many of its kind's standard deviations off.
    pub fn by_deviations(&self, figure: &'static KindFigure, deviations: f64) -> Option<Correction> {
        self.moved(figure, figure.doubt, deviations)
    }

    fn moved(&self, figure: &KindFigure, doubt: PartDoubt, deviations: f64) -> Option<Correction> {
        Some(Correction { kind: self.kind.moved(&KindFigure { doubt, ..*figure }, deviations)?, ..self.clone() })
    }

    /// The figure that heights measured after fitting say the most of, where they may say anything.
    pub fn learned_from_heights(&self) -> Option<&'static KindFigure> {
        self.row().learned_from_heights()
    }

    /// The same part as it is known from earlier ones: the figure that heights say the most of lies so many of its kind's standard deviations
    /// off what was said of it, and what is left of its doubt is such a share. As it was, where there is no such figure or it would be none
    /// any more.
    ///
    /// # Valid      `left` in 0 to 1
    #[must_use]
    pub fn known_as(self, deviations: f64, left: f64) -> Self {
        let moved = self.learned_from_heights().and_then(|figure| Some((figure, self.by_deviations(figure, deviations)?)));
        match moved {
            Some((figure, moved)) if moved.problems().is_empty() => moved.knowing(figure, left),
            _ => self,
        }
    }

    /// The same part where one of its figures is known better than its kind takes it to be: such a share of its doubt is left.
    ///
    /// # Valid      `left` in 0 to 1
    #[must_use]
    pub fn knowing(mut self, figure: &'static KindFigure, left: f64) -> Self {
        self.known.retain(|(name, _)| *name != figure.name);
        self.known.push((figure.name, left.clamp(0.0, 1.0)));
        self
    }

    /// What it changes on these axles of a vehicle, each corner taking its share of the rates.
    pub fn changes(&self, vehicle: &Vehicle, axles: &[&str]) -> Vec<Change> {
        #[expect(clippy::cast_precision_loss, reason = "three axles at most")]
        let corners = axles.len() as f64 * if self.site.side.is_some() { 1.0 } else { 2.0 };
        let of_axle = |name: &&str| vehicle.axles.iter().find(|axle| axle.name == **name);
        let each = axles.iter().filter_map(of_axle);
        each.filter_map(|axle| self.kind.change(&FittedOn { axle, side: self.site.side, corners })).collect()
    }

    /// Whether a corner that carries so much empty, and has come down by so much from there, is still inside the model with it.
    pub fn holds_at(&self, carried: Force, down: Length) -> bool {
        self.kind.holds_at(carried, down)
    }

    /// How far a corner may come down from where it stood empty until the part is pressed solid.
    pub fn solid_after(&self) -> Option<Length> {
        self.kind.solid_after()
    }

    /// How far a corner may droop from where it stood empty until the part is loose in its seats.
    pub fn loose_after(&self) -> Option<Length> {
        self.kind.loose_after()
    }

    /// What it adds to the roll stiffness beside what its rate does.
    pub fn adds_roll_stiffness(&self) -> RollStiffness {
        self.kind.adds_roll_stiffness()
    }

    /// How much lower the axle hangs from the frame at full droop; what raises no spring hangs it no lower.
    pub fn hangs_lower(&self) -> Length {
        self.kind.hangs_lower()
    }

    /// How much of what it raises the shock and its limits go along with.
    pub fn takes_the_shock_along(&self) -> Length {
        self.kind.takes_the_shock_along()
    }

    /// How much it makes good of one thing that a lift uses up; nought where it does nothing for that.
    pub fn makes_good(&self, what: MakesGood) -> Length {
        let of = self.kind.makes_good().into_iter().filter(|(of, _)| *of == what);
        of.fold(Length::default(), |all, (_, by)| all + by)
    }

    /// How much further the spring stands off its seat.
    pub fn off_the_seat(&self) -> Length {
        self.kind.off_the_seat()
    }

    /// How much further the axle stands off the stop by the part alone.
    pub fn opens_the_stop(&self) -> Length {
        self.kind.opens_the_stop()
    }

    /// The height of the part that comes out for it, nought where none does; `None` of what goes in no part's place.
    pub fn takes_out(&self) -> Option<Length> {
        self.kind.takes_out()
    }

    /// How far it turns the spring's seat, nose of the pinion up positive.
    pub fn turns_the_seat(&self) -> Angle {
        self.kind.turns_the_seat()
    }

    /// How far it is meant to turn the axle on its seat, nose of the pinion up positive.
    pub fn tapers(&self) -> Angle {
        self.kind.tapers()
    }

    /// The element whose clearance is set empty, with everything else fitted: whatever else raises the axle has no part in it.
    pub fn set_to_a_clearance(&self) -> Option<&'static str> {
        self.kind.set_to_a_clearance()
    }

    /// How far past its clearance the part that has one may be pressed.
    pub fn most_pressed(&self) -> Option<Length> {
        self.kind.most_pressed()
    }

    /// The element that takes the rear bump stops' place, where one does.
    fn stands_for_the_rear_stop(&self) -> Option<&'static str> {
        self.kind.stands_for_the_stop().filter(|_| self.site.axles != Axles::Front)
    }

    /// Whether it takes the place of the rear bump stops, so that their gap no longer exists.
    pub fn replaces_stops(&self) -> bool {
        self.stands_for_the_rear_stop().is_some()
    }

    /// The element whose clearance tells how much travel is left at the rear.
    pub fn travel_element(&self) -> &'static str {
        self.stands_for_the_rear_stop().unwrap_or(BUMP_STOP)
    }
}

impl KindRow {
    /// A correction of this kind with these figures; `None` where one is missing, or measures something else.
    pub fn correction(&self, given: &Given, site: Site) -> Option<Correction> {
        (self.read)(given).map(|kind| Correction { kind, site, known: Vec::new() })
    }
}
