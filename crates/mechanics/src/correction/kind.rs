//! What every kind of correction answers to.

use std::fmt;
use std::sync::Arc;

use super::{Caution, CorrectionProblem, Ends, Given, MakesGood, Needs, PartDoubt, Site, TakesUp, Work};
use crate::bound::{Bound, Dimension};
use crate::side::Side;
use crate::stance::{Axle, Change, Element, ElementKind, MainSpring, Mount};
use crate::units::{Angle, Force, Length, RollStiffness, SpringRate, newton_metres_per_radian, radians};

/// Name of the element that stands for a corner's bump stop.
pub const BUMP_STOP: &str = "bump stop";

/// What a figure of a correction takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Takes {
    /// A number between two bounds.
    Within(Bound),
    /// Any number of a dimension: the program puts it in, nobody types it.
    Any(Dimension),
    /// A force against a travel.
    Table,
    /// A leaf pack.
    Pack,
    /// A leaf pack made of the one that the figure of this name takes: what is not said of its leaves is as it was there.
    PackAfter(&'static str),
}

/// Whose a figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FigureRole {
    /// The part's own: it comes with it out of its box.
    OfThePart,
    /// How it is set when it is fitted; a box may say how it usually is.
    AsSet,
    /// The vehicle's that it goes on: no box knows it.
    OfTheVehicle,
}

/// A figure that a kind of correction has.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct KindFigure {
    /// Its name in documents.
    pub name: &'static str,
    /// What it takes.
    pub takes: Takes,
    /// How far the part may be from it.
    pub doubt: PartDoubt,
    /// Whose it is.
    pub role: FigureRole,
}

impl KindFigure {
    /// A figure between two bounds.
    pub(super) const fn within(name: &'static str, bound: Bound, doubt: PartDoubt) -> Self {
        KindFigure { name, takes: Takes::Within(bound), doubt, role: FigureRole::OfThePart }
    }

    /// The same, as it is set when it is fitted.
    pub(super) const fn as_set(self) -> Self {
        KindFigure { role: FigureRole::AsSet, ..self }
    }

    /// The same, of the vehicle that it goes on.
    pub(super) const fn of_the_vehicle(self) -> Self {
        KindFigure { role: FigureRole::OfTheVehicle, ..self }
    }

    /// A rate: anything from what a hand can push to past any road vehicle's.
    pub(super) const fn rate(name: &'static str) -> Self {
        KindFigure::within(name, Bound::pounds_per_inch(1.0, 50_000.0), PartDoubt::PART_RATE)
    }
}

/// What is known of a kind before any of its figures.
#[derive(Debug)]
pub struct KindRow {
    /// The word it goes by in documents.
    pub word: &'static str,
    /// Its figures.
    pub figures: &'static [KindFigure],
    /// The ends of a vehicle that it may go on.
    pub ends: Ends,
    /// Whether it may go on one side alone.
    pub goes_on_one_side: bool,
    /// What must be there for it to go onto.
    pub needs: Needs,
    /// The figure that may be set otherwise in a load case once it is fitted, where one may.
    pub set_by_case: Option<&'static str>,
    pub(super) read: fn(&Given) -> Option<Arc<dyn CorrectionKind>>,
}

impl PartialEq for KindRow {
    fn eq(&self, other: &Self) -> bool {
        self.word == other.word
    }
}

impl KindRow {
    /// The figure of a kind that heights measured after fitting say the most of: the first length or rate of the part's own that it may be
    /// off in. What a part may carry is not learned so: a limit is its maker's.
    pub fn learned_from_heights(&'static self) -> Option<&'static KindFigure> {
        let may_be_off = |figure: &&KindFigure| {
            let of_a_height =
                matches!(figure.takes, Takes::Within(bound) if matches!(bound.dimension, Dimension::Length | Dimension::Rate));
            figure.role == FigureRole::OfThePart && figure.doubt != PartDoubt::Exact && of_a_height
        };
        self.figures.iter().find(may_be_off)
    }
}

/// The corner or corners that a correction is being fitted on.
#[derive(Debug, Clone, Copy)]
pub struct FittedOn<'a> {
    /// The axle.
    pub axle: &'a Axle,
    /// On one side alone.
    pub side: Option<Side>,
    /// Over how many corners of the vehicle it is spread.
    pub corners: f64,
}

impl FittedOn<'_> {
    /// Rate of one main spring of the axle before any stage joins, on its side or as the mean of both.
    pub fn corner_rate(&self) -> SpringRate {
        self.of_spring(|spring| spring.rate)
    }

    /// The same where the vehicle stands empty.
    pub(super) fn corner_rate_at_kerb(&self) -> SpringRate {
        self.of_spring(|spring| {
            let joined = spring.stages.iter().filter(|stage| stage.at_travel < Length::default());
            joined.fold(spring.rate, |rate, stage| rate + stage.added_rate)
        })
    }

    fn of_spring(&self, rate: impl Fn(&MainSpring) -> SpringRate) -> SpringRate {
        let of_side = |side| rate(&self.axle.corners.get(side).spring);
        self.side.map_or_else(|| (of_side(Side::Left) + of_side(Side::Right)) / 2.0, of_side)
    }

    /// An element more on it.
    pub fn adds(&self, name: &str, mount: Mount, kind: ElementKind) -> Change {
        let element = Element { name: name.to_owned(), lateral: None, motion_ratio: 1.0, mount, kind };
        Change::Add { axle: self.axle.name.clone(), side: self.side, element }
    }
}

/// What one kind of correction, with its figures, does.
pub trait CorrectionKind: fmt::Debug + Send + Sync {
    /// What is known of it before its figures.
    fn row(&self) -> &'static KindRow;

    /// Its figures by name, those that are held against their bounds.
    fn given(&self) -> Given;

    /// The figures that its opened sum tells of; its own, unless it says otherwise.
    fn account(&self) -> Given {
        self.given()
    }

    /// How far a figure may be from what was said of it where the part goes, what the vehicle makes of it with it; the part's own doubt alone,
    /// unless a kind says otherwise.
    fn doubt_at(&self, figure: &KindFigure, _site: Site) -> PartDoubt {
        figure.doubt
    }

    /// The same part with a figure so many standard deviations off; `None` where the figure is exact.
    fn moved(&self, figure: &KindFigure, deviations: f64) -> Option<Arc<dyn CorrectionKind>> {
        let given = self.given();
        let off = figure.doubt.moved(given.get(figure.name)?, deviations)?;
        (self.row().read)(&given.replacing(figure.name, off))
    }

    /// What it changes on one axle; nothing of what carries nothing.
    fn change(&self, _on: &FittedOn<'_>) -> Option<Change> {
        None
    }

    /// What it makes good of what a lift uses up, and by how much.
    fn makes_good(&self) -> Vec<(MakesGood, Length)> {
        Vec::new()
    }

    /// What it takes up at its corners, of which each has room for one.
    fn takes_up(&self) -> TakesUp;

    /// Every kind of work that it takes.
    fn works(&self) -> Vec<Work>;

    /// The cautions to show with it, the most particular first.
    fn cautions(&self) -> Vec<Caution>;

    /// Whether a corner that carries so much empty, and has come down by so much from there, is still inside the model with it.
    fn holds_at(&self, _carried: Force, _down: Length) -> bool {
        true
    }

    /// How far a corner may come down from where it stood empty until the part is pressed solid; `None` where nobody says.
    fn solid_after(&self) -> Option<Length> {
        None
    }

    /// How far a corner may droop from where it stood empty until the part is loose in its seats; `None` where nobody says.
    fn loose_after(&self) -> Option<Length> {
        None
    }

    /// What it adds to the roll stiffness beside what its rate does.
    fn adds_roll_stiffness(&self) -> RollStiffness {
        newton_metres_per_radian(0.0)
    }

    /// How much lower the axle hangs from the frame at full droop.
    fn hangs_lower(&self) -> Length {
        Length::default()
    }

    /// How much of what it raises the shock and its limits go along with, as on a strut that goes up whole.
    fn takes_the_shock_along(&self) -> Length {
        Length::default()
    }

    /// How much further the spring stands off its seat: what a U-bolt must reach round.
    fn off_the_seat(&self) -> Length {
        Length::default()
    }

    /// How much further the axle stands off the stop by the part alone, which the spring does not lift it by.
    fn opens_the_stop(&self) -> Length {
        self.off_the_seat()
    }

    /// The height of the part that comes out for it, nought where none does; `None` of what goes in no part's place.
    fn takes_out(&self) -> Option<Length> {
        None
    }

    /// How far it turns the spring's seat, nose of the pinion up positive.
    fn turns_the_seat(&self) -> Angle {
        radians(0.0)
    }

    /// How far it is meant to turn the axle on its seat, nose of the pinion up positive.
    fn tapers(&self) -> Angle {
        radians(0.0)
    }

    /// The element whose clearance is set empty, with everything else fitted.
    fn set_to_a_clearance(&self) -> Option<&'static str> {
        None
    }

    /// How far past its clearance the part that has one may be pressed: there it carries what it is made for. `None` where nobody says.
    fn most_pressed(&self) -> Option<Length> {
        None
    }

    /// Whether a new spring takes the whole place of the old one: what the old one was unlike its fellow goes with it.
    fn renews_the_spring(&self) -> bool {
        false
    }

    /// What is wrong with its figures beside each other.
    fn problem(&self) -> Option<CorrectionProblem> {
        None
    }

    /// The element that takes the bump stops' place, so that their gap no longer exists.
    fn stands_for_the_stop(&self) -> Option<&'static str> {
        None
    }
}

/// What one main spring of an axle carries empty; left and right are alike here.
pub fn kerb_spring_force(axle: &Axle) -> Force {
    (axle.kerb_load() - axle.unsprung_weight) / 2.0
}
