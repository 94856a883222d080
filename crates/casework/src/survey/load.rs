//! What was put on between the empty and the loaded heights, and what each axle carries of it.

use super::basis::Basis;
use super::end::{End, Ends};
use super::item::{Item, scale_sd};
use super::things::{half_width, reach};
use super::vehicle::VehicleFacts;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, newtons};

/// What was put on, as the shop knows it.
#[derive(Debug, Clone, PartialEq)]
pub enum LoadPut {
    /// A weight at a place.
    Placed {
        /// Its weight.
        weight: Force,
        /// Rearward from the rear axle; negative is ahead of it.
        behind_rear_axle: Length,
    },
    /// The axles were weighed.
    Weighed {
        /// Rear axle, empty and loaded.
        rear: EmptyAndLoaded,
        /// Front axle, empty and loaded, when weighed too.
        front: Option<EmptyAndLoaded>,
    },
    /// Things of the load plan, each at its place.
    Planned {
        /// What came aboard.
        items: Vec<Item>,
        /// What a scale said of an axle with all of it aboard.
        scale: Ends<Option<Force>>,
    },
}

/// A pair of axle weights.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct EmptyAndLoaded {
    /// Without the load.
    pub empty: Force,
    /// With it.
    pub loaded: Force,
}

/// Something about a load that cannot be.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum LoadProblem {
    /// The place is not on the vehicle.
    OffTheVehicle {
        /// The furthest ahead of the rear axle that is.
        most_ahead: Length,
        /// The furthest behind it that is.
        most_behind: Length,
    },
    /// There is no weight.
    Nothing,
    /// The lever arm lifts the front axle off the ground.
    LiftsTheFront,
    /// An axle weighs no more loaded than empty, or less than its wheels.
    ScaleOrder(End),
    /// An item of the plan sits past the vehicle's sides.
    PastTheSide {
        /// The furthest from the middle that is still aboard.
        most: Length,
    },
}

/// What the axles carry.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleLoads {
    /// Empty.
    pub empty: Ends<Force>,
    /// Whether the empty weights are stated or assumed.
    pub empty_basis: Ends<Basis>,
    /// What the load adds; the front's is not known when only the rear was weighed.
    pub change: Ends<Option<Uncertain<Force>>>,
}

impl AxleLoads {
    /// What an axle carries with the load on.
    pub fn loaded(&self, end: End) -> Option<Force> {
        self.change.get(end).map(|change| *self.empty.get(end) + change.value)
    }
}

impl AxleLoads {
    /// What they carry with a weight more at a place, shared by lever arms.
    #[must_use]
    pub fn and_more(self, weight: Force, behind_rear_axle: Length, vehicle: &VehicleFacts) -> AxleLoads {
        let more = planned_changes(&[Item::at(weight, behind_rear_axle)], vehicle);
        let sum = |before: Option<Uncertain<Force>>, more: Option<Uncertain<Force>>| {
            let before = before.unwrap_or(Uncertain::new(newtons(0.0), newtons(0.0)));
            more.map(|more| Uncertain::new(before.value + more.value, before.sd.hypot(more.sd)))
        };
        let change = Ends { front: sum(self.change.front, more.front), rear: sum(self.change.rear, more.rear) };
        AxleLoads { change, ..self }
    }
}

impl LoadPut {
    /// What the axles carry with nothing put on.
    pub fn empty_loads(vehicle: &VehicleFacts) -> AxleLoads {
        let (front, front_basis) = vehicle.kerb_weight(End::Front);
        let (rear, rear_basis) = vehicle.kerb_weight(End::Rear);
        AxleLoads {
            empty: Ends { front, rear },
            empty_basis: Ends { front: front_basis, rear: rear_basis },
            change: Ends { front: None, rear: None },
        }
    }

    /// What the axles carry, empty and with the load.
    ///
    /// A placed load is shared by lever arms, `ΔR = W·x/L`, `ΔF = W − ΔR`, with
    /// `σ² = (x/L·σ_W)² + (W·σ_x/L)²`, `x` from the front axle. Weighed axles are taken as weighed.
    pub fn axle_loads(&self, vehicle: &VehicleFacts) -> AxleLoads {
        let mut loads = Self::empty_loads(vehicle);
        match self {
            LoadPut::Placed { weight, behind_rear_axle } => {
                loads.change = planned_changes(&[Item::at(*weight, *behind_rear_axle)], vehicle);
            }
            LoadPut::Weighed { rear, front } => {
                let change = |pair: &EmptyAndLoaded| Uncertain::new(pair.loaded - pair.empty, weighings_sd());
                loads.empty.rear = rear.empty;
                loads.empty_basis.rear = Basis::Stated;
                loads.change.rear = Some(change(rear));
                if let Some(front) = front {
                    loads.empty.front = front.empty;
                    loads.empty_basis.front = Basis::Stated;
                    loads.change.front = Some(change(front));
                }
            }
            LoadPut::Planned { items, scale } => {
                loads.change = planned_changes(items, vehicle);
                loads.take_scale(scale);
            }
        }
        loads
    }

    /// How much more a scale said an axle carries than empty weight and load plan make; `None` where the empty weight is not
    /// known, since then the scale is what tells it.
    pub fn scale_over_plan(&self, vehicle: &VehicleFacts, end: End) -> Option<Uncertain<Force>> {
        let LoadPut::Planned { items, scale } = self else { return None };
        let ((kerb, basis), weighed) = (vehicle.kerb_weight(end), (*scale.get(end))?);
        let planned = (*planned_changes(items, vehicle).get(end))?;
        (basis == Basis::Stated).then(|| Uncertain::new(weighed - kerb - planned.value, weighings_sd().hypot(planned.sd)))
    }

    /// Everything about the load that cannot be.
    pub fn problems(&self, vehicle: &VehicleFacts) -> Vec<LoadProblem> {
        match self {
            LoadPut::Placed { weight, behind_rear_axle } => {
                let items = vec![Item::at(*weight, *behind_rear_axle)];
                match Item::at(*weight, *behind_rear_axle).problem(vehicle) {
                    Some(problem) => vec![problem],
                    None => LoadPut::Planned { items, scale: Ends::default() }.problems(vehicle),
                }
            }
            LoadPut::Weighed { rear, .. } => {
                let least = 1.2 * vehicle.assumptions().rear_unsprung;
                let wrong = rear.loaded <= rear.empty || rear.empty < least;
                if wrong { vec![LoadProblem::ScaleOrder(End::Rear)] } else { Vec::new() }
            }
            LoadPut::Planned { items, .. } => {
                let mut problems: Vec<LoadProblem> = items.iter().filter_map(|item| item.problem(vehicle)).collect();
                let loads = self.axle_loads(vehicle);
                // A coupler can be pulled up; that is an answer, and is warned of.
                let lifted = |end| loads.loaded(end).is_some_and(|load| load.si() < 0.0);
                if lifted(End::Rear) || lifted(End::Front) && !vehicle.class.is_trailer() {
                    problems.push(LoadProblem::LiftsTheFront);
                }
                problems
            }
        }
    }
}

impl AxleLoads {
    /// Lets a weighed axle count as weighed: against a known empty weight it tells what came aboard, and otherwise, less
    /// what came aboard, the empty weight.
    fn take_scale(&mut self, scale: &Ends<Option<Force>>) {
        let ends = [
            (scale.front, &mut self.empty.front, &mut self.empty_basis.front, &mut self.change.front),
            (scale.rear, &mut self.empty.rear, &mut self.empty_basis.rear, &mut self.change.rear),
        ];
        for (weighed, empty, basis, change) in ends {
            let Some(weighed) = weighed else { continue };
            match (*basis, change.as_ref()) {
                (Basis::Assumed, Some(planned)) => (*empty, *basis) = (weighed - planned.value, Basis::Stated),
                _ => *change = Some(Uncertain::new(weighed - *empty, weighings_sd())),
            }
        }
    }
}

impl Item {
    /// What about it cannot be.
    pub fn problem(&self, vehicle: &VehicleFacts) -> Option<LoadProblem> {
        let (most_ahead, most_behind) = reach(vehicle);
        if self.weight.si() <= 0.0 {
            Some(LoadProblem::Nothing)
        } else if self.behind_rear_axle > most_behind || -self.behind_rear_axle > most_ahead {
            Some(LoadProblem::OffTheVehicle { most_ahead, most_behind })
        } else {
            let most = half_width();
            (self.lateral.abs() > most).then_some(LoadProblem::PastTheSide { most })
        }
    }
}

/// What items add to both axles, their errors independent of each other.
fn planned_changes(items: &[Item], vehicle: &VehicleFacts) -> Ends<Option<Uncertain<Force>>> {
    let wheelbase = vehicle.wheelbase;
    Ends::from_fn(|end| {
        let nothing = Uncertain::new(newtons(0.0), newtons(0.0));
        Some(
            items
                .iter()
                .map(|item| item.adds(item.share_on(end, wheelbase), wheelbase))
                .fold(nothing, |sum, each| Uncertain::new(sum.value + each.value, sum.sd.hypot(each.sd))),
        )
    })
}

/// Of the difference between two weighings.
fn weighings_sd() -> Force {
    scale_sd() * std::f64::consts::SQRT_2
}
