//! What is predicted: a height with its band, or why there is none.

use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Angle, Force, Frequency, Length, SpringRate};

use crate::survey::{Ends, LoadState, States};

/// What a correction does to one state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PredictedState {
    /// Rear height at rest, with tape, rate, load, tyre, friction and the parts' own doubt in its standard deviation.
    pub rear: Uncertain<Length>,
    /// How far a fresh reading of the rear lies off from rest, as one standard deviation: the tape, settling and leaf friction anew.
    pub fresh: Length,
    /// Either side of the rear, where both were read: how far the body rolls is in their standard deviations too.
    pub rear_sides: Option<Sides<Uncertain<Length>>>,
    /// Front height; a correction at the rear of a two-axle vehicle does not move it.
    pub front: Option<Uncertain<Length>>,
    /// Either side of the front, where both were read.
    pub front_sides: Option<Sides<Uncertain<Length>>>,
    /// Right above left at either end, where both sides were read: what they have in common is not in its standard deviation.
    pub lean: Ends<Option<Uncertain<Length>>>,
    /// Rear height as measured, before the correction.
    pub rear_before: Length,
    /// How much the rear rises at rest: what is common to both heights is not in its standard deviation, and a block's rise is exact.
    pub rise: Uncertain<Length>,
    /// How much further the frame comes to stand off its axle at either end: what shocks, shafts and bars feel, tires left out.
    pub off_the_axle: Ends<Sides<Length>>,
    /// By how much the body tilts, rear up positive.
    pub tilt: Angle,
    /// Half-width of what leaf friction leaves open of a height that is read in this state.
    pub friction: Length,
    /// Half-width of the height that the parts themselves leave open; part of the band.
    pub part: Length,
    /// Clearance left at the bump stop, or at the load rubber (negative: it bears by so much); absent when no gap was read.
    pub travel_left: Option<Length>,
    /// The same as it is, at the stops that are there; absent when no gap was read.
    pub travel_before: Option<Length>,
    /// How far the overload leaf is clear before (negative: it bears by so much); absent where nobody looked at it.
    pub overload_clear_before: Option<Length>,
    /// How the rear axle bounces before, where the rate is known.
    pub bounce_before: Option<Bounce>,
    /// And after.
    pub bounce_after: Option<Bounce>,
}

impl PredictedState {
    /// The same with the bands within which the tape will read it.
    #[must_use]
    fn as_read(mut self) -> Self {
        let read = |height: Uncertain<Length>| Uncertain::new(height.value, Length::hypot(height.sd, self.fresh));
        self.rear_sides = self.rear_sides.map(|sides| Sides { left: read(sides.left), right: read(sides.right) });
        // Either side is read anew.
        let apart = self.fresh * std::f64::consts::SQRT_2;
        self.lean.rear = self.lean.rear.map(|lean| Uncertain::new(lean.value, Length::hypot(lean.sd, apart)));
        self.rear = self.tape();
        self
    }

    /// What the tape will read of the rear once it is fitted.
    pub fn tape(&self) -> Uncertain<Length> {
        Uncertain::new(self.rear.value, Length::hypot(self.rear.sd, self.fresh))
    }
}

/// How an axle bounces on its springs, tyres left out.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bounce {
    /// Rate of everything that bears there.
    pub rate: SpringRate,
    /// What bounces on it.
    pub sprung: Force,
    /// How quick.
    pub frequency: Frequency,
}

/// Why a state is not predicted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[non_exhaustive]
pub enum Unpredicted {
    /// The heights of that state, or what was put on, were not measured.
    NotMeasured,
    /// The answer depends on the rear rate, and the readings are too weak to give one.
    NeedsRate,
    /// The bump stops carry part of the load as measured.
    OnTheStops,
    /// Readings and vehicle do not come together: [`Predictor::failure`](super::Predictor::failure) says why.
    NotIdentified,
    /// The vehicle does not stand, as it is or with the correction.
    DoesNotStand,
    /// The forces did not come to balance: [`Predictor::failure`](super::Predictor::failure) says what was met.
    NotSolved,
    /// The pack, found or planned, is bent further than it can be worked out.
    PastThePack,
    /// A part is pressed further than it is made for: what it carries there is past its capacity.
    PastThePart,
    /// It changes the overload leaf, and nobody read its gap nor saw it bear.
    NeedsTheOverloadLeaf,
    /// It brings the stops nearer, and nobody read how near they are.
    NeedsTheStopGap,
    /// The vehicle has no axle where the correction goes.
    NoSuchAxle,
}

/// What a correction does to every state.
pub type Prediction = States<Result<PredictedState, Unpredicted>>;

impl Prediction {
    /// The same with the bands within which the tape will read every rear.
    #[must_use]
    pub fn as_read(&self) -> Self {
        let further = self.further.iter().map(|(key, _)| *key);
        States::from_fn(further, |state| self.at(state).copied().map(PredictedState::as_read))
    }

    /// What it does to one state.
    ///
    /// # Errors     why that is not predicted; [`Unpredicted::NotMeasured`] of a state that the job does not have
    pub fn at(&self, state: LoadState) -> Result<&PredictedState, Unpredicted> {
        self.get(state).map_or(Err(Unpredicted::NotMeasured), |predicted| predicted.as_ref().map_err(|why| *why))
    }
}

/// Where a vehicle stands in a load case that was not measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CaseHeights {
    /// Rear height, with readings, rate, tyre, load and friction in its standard deviation.
    pub rear: Uncertain<Length>,
    /// Either side of the rear, where both were read empty.
    pub rear_sides: Option<Sides<Uncertain<Length>>>,
    /// Right above left at the rear, where both were read empty.
    pub rear_lean: Option<Uncertain<Length>>,
    /// Front height; of a trailer, where its coupler was held empty. Absent where it was not read.
    pub front: Option<Uncertain<Length>>,
    /// Clearance left at the bump stop, or at the load rubber (negative: it bears by so much); absent when no gap was read.
    pub travel_left: Option<Length>,
    /// Whether the rear rate behind it was measured, and not only assumed for the class.
    pub rate_measured: bool,
}
