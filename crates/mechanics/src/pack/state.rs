//! A pack under a load.

use super::arch::arch_with_large_deflection;
use super::check::{PackError, check_load};
use super::contact::Bearing;
use super::half::{HELPER, Half, Station};
use super::{HalfName, LEAF_FRICTION, Pack};
use crate::units::{
    Angle, Force, InShopUnits, Length, Pressure, SpringRate, metres, newtons, newtons_per_metre, pascals, radians,
};

/// A pack made ready, to be loaded again and again.
pub struct Prepared<'a> {
    pack: &'a Pack,
    front: Half,
    rear: Half,
    full_load: f64,
    /// Height of each half's eye with no load.
    assembled: [f64; 2],
    /// What bears with no load: where every solve begins, so that its answer owes nothing to the one before.
    unloaded: [Bearing; 2],
}

/// How often the stations are set closer where leaves press.
const TIMES_CLOSER: usize = 2;

/// Where a pack stands under a load.
#[derive(Debug, Clone, PartialEq)]
pub struct PackState {
    /// The load on the whole spring at its seat.
    pub load: Force,
    /// Eye chord above the seat, by small slopes.
    pub arch_linear: Length,
    /// The same with the large-arch correction; `None` where that does not hold.
    pub arch: Option<Length>,
    /// Secant rate over one hundredth of full load to either side, by small slopes.
    pub rate: SpringRate,
    /// Turn of the seat: front half higher than rear, over the spring's length.
    pub seat_tilt: Angle,
    /// Each half's eye over the seat, by small slopes, front then rear.
    pub eyes: [Length; 2],
    /// By leaf, from the top.
    pub leaves: Vec<LeafStress>,
    /// Where leaves press on each other.
    pub contacts: Vec<Contact>,
    /// What each end of a helper over the pack pushes with, front then rear; `None` where there is no helper.
    pub helper: Option<[Force; 2]>,
}

impl PackState {
    /// How far friction between the leaves may hold it from its height, either way: `F/k` with `F` a share [`LEAF_FRICTION`] of
    /// the load. Up to three times that dry or rusty, half of it once the vehicle was rolled and bounced.
    ///
    /// # Source     common practice
    pub fn friction_band(&self) -> Length {
        metres(LEAF_FRICTION * self.load.si() / self.rate.si())
    }

    /// Largest stress of any leaf in either half.
    pub fn largest_stress(&self) -> Pressure {
        self.leaves.iter().map(LeafStress::largest).fold(pascals(0.0), Pressure::max)
    }
}

impl LeafStress {
    /// The larger of both halves.
    pub fn largest(&self) -> Pressure {
        self.front.max(self.rear)
    }
}

/// A leaf as it lies under a load: its middle line, from the front end to the rear, over the middle line of the main leaf at
/// the centre bolt. Towards the rear positive, heights up.
#[derive(Debug, Clone, PartialEq)]
pub struct LeafLine {
    /// Along and up.
    pub points: Vec<(Length, Length)>,
}

/// One point of a pack's curve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CurvePoint {
    /// The load on the whole spring at its seat.
    pub load: Force,
    /// Eye chord above the seat, by small slopes.
    pub arch_linear: Length,
    /// The same with the large-arch correction; `None` where that does not hold.
    pub arch: Option<Length>,
}

/// Largest stress of a leaf in either half, of either sign.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LeafStress {
    /// In the front half.
    pub front: Pressure,
    /// In the rear half.
    pub rear: Pressure,
}

/// A stretch along which one leaf presses on another.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contact {
    /// The upper leaf, counted from 0 at the main leaf.
    pub upper: usize,
    /// The lower leaf.
    pub lower: usize,
    /// In which half.
    pub half: HalfName,
    /// From the centre bolt to where it begins.
    pub from: Length,
    /// To where it ends.
    pub to: Length,
    /// All of its force.
    pub force: Force,
}

impl Pack {
    /// Makes the pack ready; `full_load` is the load that its rate is taken over a hundredth of.
    ///
    /// # Errors     [`PackError`] names what has no meaning
    pub fn prepare(&self, full_load: Force) -> Result<Prepared<'_>, PackError> {
        self.check()?;
        self.check_helper()?;
        if !(full_load.si().is_finite() && full_load.si() > 0.0) {
            return Err(PackError::NoFigure("full load".to_owned()));
        }
        let (mut front, mut rear) = (Half::new(self, HalfName::Front), Half::new(self, HalfName::Rear));
        if let Some(helper) = &self.helper {
            let [front_share, rear_share] = self.shares();
            helper.set_on(&mut front, front_share)?;
            helper.set_on(&mut rear, rear_share)?;
        }
        let unloaded = [unloaded(&front)?, unloaded(&rear)?];
        let [front_bearing, rear_bearing] = &unloaded;
        let assembled = [front.eye(0.0, front_bearing), rear.eye(0.0, rear_bearing)];
        Ok(Prepared { pack: self, front, rear, full_load: full_load.si(), assembled, unloaded })
    }
}

impl Pack {
    /// Shares of a load on the two eyes, which are also the shares of their heights at the seat: `b/L` and `a/L`.
    fn shares(&self) -> [f64; 2] {
        let (front, rear) = self.leaves.first().map_or((1.0, 1.0), |main| (main.front.si(), main.rear.si()));
        [rear / (front + rear), front / (front + rear)]
    }
}

fn unloaded(half: &Half) -> Result<Bearing, PackError> {
    let mut bearing = half.unloaded();
    if half.load(0.0, &mut bearing) { Ok(bearing) } else { Err(PackError::NotSolved) }
}

/// Both halves under a load on the whole spring.
struct Loaded {
    load: f64,
    bearings: [Bearing; 2],
    eyes: [f64; 2],
}

impl<'a> Prepared<'a> {
    fn shares(&self) -> [f64; 2] {
        self.pack.shares()
    }

    fn length(&self) -> f64 {
        self.pack.leaves.first().map_or(1.0, |main| (main.front + main.rear).si())
    }

    fn load(&self, load: f64, mut bearings: [Bearing; 2]) -> Result<Loaded, PackError> {
        let [front_share, rear_share] = self.shares();
        let [front, rear] = &mut bearings;
        if !(self.front.load(load * front_share, front) && self.rear.load(load * rear_share, rear)) {
            return Err(PackError::NotSolved);
        }
        let eyes = [self.front.eye(load * front_share, front), self.rear.eye(load * rear_share, rear)];
        Ok(Loaded { load, bearings, eyes })
    }

    /// `H = (b·H_f + a·H_r)/L`.
    fn seat_arch(&self, eyes: [f64; 2]) -> f64 {
        self.shares().into_iter().zip(eyes).map(|(share, eye)| share * eye).sum()
    }

    /// Where the pack stands under a load.
    ///
    /// # Errors     [`PackError::Load`] for one that has no meaning
    pub fn state(&self, load: Force) -> Result<PackState, PackError> {
        check_load(load)?;
        let loaded = self.load(load.si(), self.unloaded.clone())?;
        self.read(&loaded)
    }

    /// The same for one load after another, each begun where the last one ended.
    ///
    /// # Errors     as [`Self::state`]
    pub fn states(&self, loads: &[Force]) -> Result<Vec<PackState>, PackError> {
        let mut bearings = self.unloaded.clone();
        let mut states = Vec::with_capacity(loads.len());
        for load in loads {
            check_load(*load)?;
            let loaded = self.load(load.si(), bearings)?;
            states.push(self.read(&loaded)?);
            bearings = loaded.bearings;
        }
        Ok(states)
    }

    /// Height against load alone, each load begun where the last one ended.
    ///
    /// # Errors     as [`Self::state`]
    pub fn curve(&self, loads: &[Force]) -> Result<Vec<CurvePoint>, PackError> {
        let mut bearings = self.unloaded.clone();
        let mut points = Vec::with_capacity(loads.len());
        for load in loads {
            check_load(*load)?;
            let loaded = self.load(load.si(), bearings)?;
            let arch_linear = metres(self.seat_arch(loaded.eyes));
            points.push(CurvePoint { load: *load, arch_linear, arch: self.corrected_arch(loaded.eyes) });
            bearings = loaded.bearings;
        }
        Ok(points)
    }

    /// The load at which the overload leaf, or without one the lowest leaf, begins to bear on the one above it, up to full load;
    /// `None` where it bears from the start, never does, or is the only leaf.
    pub fn second_stage_load(&self) -> Option<Force> {
        let lowest = || self.pack.leaves.len().checked_sub(1).filter(|last| *last > 0);
        let joins = self.pack.overload_leaf().or_else(lowest)?;
        let mut bearings = self.unloaded.clone();
        let mut carries = |load: f64| {
            // Each begins where the last one ended.
            let loaded = self.load(load, bearings.clone()).ok()?;
            bearings = loaded.bearings.clone();
            let force = |half: &Half, bearing: &Bearing| -> f64 {
                half.stations
                    .iter()
                    .zip(&bearing.force)
                    .filter(|(station, _)| station.lower == joins)
                    .map(|(_, force)| force)
                    .sum()
            };
            let [front, rear] = &loaded.bearings;
            Some(force(&self.front, front) + force(&self.rear, rear) > 1e-9 * self.full_load)
        };
        if carries(0.0)? || !carries(self.full_load)? {
            return None;
        }
        let (mut low, mut high) = (0.0, self.full_load);
        while high - low > 1e-6 * self.full_load {
            let middle = 0.5 * (low + high);
            if carries(middle)? { high = middle } else { low = middle }
        }
        Some(newtons(high))
    }

    /// How every leaf lies under a load, with so many steps to a half.
    ///
    /// # Errors     as [`Self::state`]
    pub fn lines(&self, load: Force, steps: u32) -> Result<Vec<LeafLine>, PackError> {
        check_load(load)?;
        let loaded = self.load(load.si(), self.unloaded.clone())?;
        let [front_share, rear_share] = self.shares();
        let [front_bearing, rear_bearing] = &loaded.bearings;
        let seats = self.pack.seats();
        let line = |(leaf, seat): (usize, Length)| {
            let along = |half: &Half, share: f64, bearing: &Bearing, sign: f64| -> Vec<(Length, Length)> {
                let active = half.active_of(leaf);
                let step = |step: u32| {
                    let x = active * f64::from(step) / f64::from(steps);
                    let height = half.height(leaf, x, loaded.load * share, bearing);
                    (metres(sign * (half.clamp + x)), seat + metres(height))
                };
                (0..=steps).map(step).collect()
            };
            let mut points = along(&self.front, front_share, front_bearing, -1.0);
            points.reverse();
            points.extend(along(&self.rear, rear_share, rear_bearing, 1.0));
            LeafLine { points }
        };
        Ok(seats.into_iter().enumerate().map(line).collect())
    }

    /// What there is to say of a load, and of a little less and a little more, for the rate; with stations set closer and closer where
    /// leaves press in any of the three.
    fn read(&self, loaded: &Loaded) -> Result<PackState, PackError> {
        let window = 0.01 * self.full_load;
        let around = [(loaded.load - window).max(0.0), loaded.load, loaded.load + window];
        let [below, at, above] = around.map(|load| self.load(load, loaded.bearings.clone()));
        let mut states = [below?, at?, above?];
        let mut closer: Option<Prepared<'a>> = None;
        for _ in 0..TIMES_CLOSER {
            let Some((next, begun)) = closer.as_ref().unwrap_or(self).closer(&states) else { break };
            let [below, at, above] = begun;
            states = [next.load(around[0], below)?, next.load(around[1], at)?, next.load(around[2], above)?];
            closer = Some(next);
        }
        let [below, at, above] = states;
        closer.as_ref().unwrap_or(self).said(&at, [&below, &above])
    }

    /// The same pack with stations set closer where leaves press in any of three states, and what bears in each.
    fn closer(&self, states: &[Loaded; 3]) -> Option<(Prepared<'a>, [[Bearing; 2]; 3])> {
        let [[front_1, rear_1], [front_2, rear_2], [front_3, rear_3]] = states.each_ref().map(|state| &state.bearings);
        let (front, [front_1, front_2, front_3]) = self.front.finer(self.pack, [front_1, front_2, front_3])?;
        let (rear, [rear_1, rear_2, rear_3]) = self.rear.finer(self.pack, [rear_1, rear_2, rear_3])?;
        let unloaded = self.unloaded.clone();
        let closer = Prepared { pack: self.pack, front, rear, full_load: self.full_load, assembled: self.assembled, unloaded };
        Some((closer, [[front_1, rear_1], [front_2, rear_2], [front_3, rear_3]]))
    }

    fn said(&self, loaded: &Loaded, [less, more]: [&Loaded; 2]) -> Result<PackState, PackError> {
        let rate = (more.load - less.load) / (self.seat_arch(less.eyes) - self.seat_arch(more.eyes));
        let [front_eye, rear_eye] = loaded.eyes;
        let [front_share, rear_share] = self.shares();
        let [front_bearing, rear_bearing] = &loaded.bearings;
        let leaves = (0..self.pack.leaves.len()).map(|leaf| LeafStress {
            front: pascals(self.front.peak_stress(leaf, loaded.load * front_share, front_bearing)),
            rear: pascals(self.rear.peak_stress(leaf, loaded.load * rear_share, rear_bearing)),
        });
        let mut contacts = touching(&self.front, front_bearing, HalfName::Front);
        contacts.extend(touching(&self.rear, rear_bearing, HalfName::Rear));
        let leaves: Vec<LeafStress> = leaves.collect();
        let helper = self
            .pack
            .helper
            .as_ref()
            .map(|_| [newtons(self.front.helper_force(front_bearing)), newtons(self.rear.helper_force(rear_bearing))]);
        let stresses = leaves.iter().flat_map(|leaf| [leaf.front.value, leaf.rear.value]);
        if !stresses.chain([rate, front_eye, rear_eye]).all(f64::is_finite) {
            return Err(PackError::PastAllFigures);
        }
        Ok(PackState {
            load: newtons(loaded.load),
            arch_linear: metres(self.seat_arch(loaded.eyes)),
            arch: self.corrected_arch(loaded.eyes),
            rate: newtons_per_metre(rate),
            seat_tilt: radians((front_eye - rear_eye) / self.length()),
            eyes: [metres(front_eye), metres(rear_eye)],
            leaves,
            contacts,
            helper,
        })
    }

    fn corrected_arch(&self, eyes: [f64; 2]) -> Option<Length> {
        let ([front, rear], [front_0, rear_0]) = (eyes, self.assembled);
        let front = arch_with_large_deflection(metres(front), metres(front_0), metres(self.front.active()))?;
        let rear = arch_with_large_deflection(metres(rear), metres(rear_0), metres(self.rear.active()))?;
        Some(metres(self.seat_arch([front.si(), rear.si()])))
    }
}

/// Neighbouring stations that bear, as one stretch.
fn touching(half: &Half, bearing: &Bearing, name: HalfName) -> Vec<Contact> {
    let mut contacts: Vec<Contact> = Vec::new();
    let mut before: Option<Station> = None;
    for (station, force) in half.stations.iter().zip(&bearing.force) {
        let bears = *force > 0.0 && station.lower != HELPER;
        let at = metres(station.x + half.clamp);
        let goes_on = before.is_some_and(|before| before.upper == station.upper && before.lower == station.lower);
        match contacts.last_mut().filter(|_| bears && goes_on) {
            Some(contact) => {
                contact.to = at;
                contact.force += newtons(*force);
            }
            None if bears => {
                let (upper, lower) = (station.upper, station.lower);
                contacts.push(Contact { upper, lower, half: name, from: at, to: at, force: newtons(*force) });
            }
            None => {}
        }
        before = bears.then_some(*station);
    }
    contacts
}
