//! One half of a pack: its leaves as cantilevers and the stations where they may touch. Raw SI `f64` inside.

use super::contact::{Bearing, Contacts};
use super::{HalfName, Leaf, Pack};
use crate::units::InShopUnits;

/// Stations along each overlap: with 20, heights are good to 0.02 mm; with 10, to 0.1 mm.
const STATIONS: u32 = 20;
/// The fewest, in a pack of very many leaves, and how many there are over all of its leaves together.
const FEWEST_STATIONS: u32 = 8;
const STATIONS_OF_A_PACK: u32 = 200;
/// Into how many parts the stretch to the next station is divided on either side of one that bears, where stresses are asked for.
const PARTS: u32 = 4;
/// Most stations of a half that bear where they are set closer: where more do, leaves lie on each other along all their length.
const MOST_DIVIDED: usize = 40;
/// Most leaves of a pack whose stations are set closer.
const MOST_LEAVES_DIVIDED: usize = 12;

/// Stations nearer to each other than this share of what lies between two of them are one.
const CLOSE: f64 = 0.2;

/// Where a station counts its lower leaf when that is the end of a helper.
pub(super) const HELPER: usize = usize::MAX;

/// A leaf's half.
#[derive(Debug, Clone)]
struct Cantilever {
    active: f64,
    curvature: f64,
    /// Young's modulus times second moment of area.
    stiffness: f64,
    /// Stress per bending moment: half the thickness over the second moment of area.
    stress_per_moment: f64,
}

/// A place where one leaf may press on another below it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Station {
    pub(super) upper: usize,
    pub(super) lower: usize,
    /// From the clamp's edge.
    pub(super) x: f64,
}

/// A half, ready to be loaded.
pub(super) struct Half {
    leaves: Vec<Cantilever>,
    pub(super) stations: Vec<Station>,
    contacts: Contacts,
    /// Inactive length, to count from the centre bolt again.
    pub(super) clamp: f64,
}

/// Deflection at `x` per force at `s` of a cantilever of unit stiffness: `lo²(3hi − lo)/6`.
///
/// # Source     any beam table
fn influence(x: f64, s: f64) -> f64 {
    let (low, high) = (x.min(s), x.max(s));
    low * low * (3.0 * high - low) / 6.0
}

impl Half {
    pub(super) fn new(pack: &Pack, half: HalfName) -> Self {
        let clamp = match half {
            HalfName::Front => pack.clamp.front.si(),
            HalfName::Rear => pack.clamp.rear.si(),
        };
        let length = |leaf: &Leaf| match half {
            HalfName::Front => leaf.front.si(),
            HalfName::Rear => leaf.rear.si(),
        };
        let leaves: Vec<Cantilever> = pack
            .leaves
            .iter()
            .map(|leaf| {
                let thickness = leaf.thickness.si();
                // I = w t³/12.
                let second_moment = leaf.width.si() * thickness.powi(3) / 12.0;
                Cantilever {
                    active: length(leaf) - clamp,
                    curvature: leaf.curvature.value,
                    stiffness: pack.young_modulus.value * second_moment,
                    stress_per_moment: thickness / (2.0 * second_moment),
                }
            })
            .collect();
        let stations = stations(&leaves);
        let contacts = contacts(pack, &leaves, &stations);
        Half { leaves, stations, contacts, clamp }
    }

    /// The same half with more stations on either side of those that bear in any of some states, and each of those states told of them:
    /// where leaves press moves a little with every load, and a thin leaf between thick ones feels it. `None` where a helper's end is
    /// among the stations, or there are plenty.
    pub(super) fn finer<const N: usize>(&self, pack: &Pack, states: [&Bearing; N]) -> Option<(Half, [Bearing; N])> {
        let bears = |place: usize| states.iter().any(|state| state.force.get(place).is_some_and(|force| *force > 0.0));
        let bearing = (0..self.stations.len()).filter(|place| bears(*place)).count();
        if bearing > MOST_DIVIDED
            || self.leaves.len() > MOST_LEAVES_DIVIDED
            || self.stations.iter().any(|station| station.lower == HELPER)
        {
            return None;
        }
        let of_one_pair = |one: &Station, other: &Station| one.upper == other.upper && one.lower == other.lower;
        let (mut stations, mut now_at) = (Vec::new(), Vec::with_capacity(self.stations.len()));
        for (place, station) in self.stations.iter().enumerate() {
            let before = place.checked_sub(1).and_then(|before| self.stations.get(before)).filter(|it| of_one_pair(it, station));
            if let Some(before) = before.filter(|_| bears(place) || place.checked_sub(1).is_some_and(bears)) {
                let part = (station.x - before.x) / f64::from(PARTS);
                stations.extend((1..PARTS).map(|step| Station { x: before.x + part * f64::from(step), ..*station }));
            }
            now_at.push(stations.len());
            stations.push(*station);
        }
        let contacts = contacts(pack, &self.leaves, &stations);
        let told = states.map(|state| state.moved_to(&now_at, stations.len()));
        Some((Half { leaves: self.leaves.clone(), stations, contacts, clamp: self.clamp }, told))
    }

    /// Nothing bears yet.
    pub(super) fn unloaded(&self) -> Bearing {
        Bearing::nothing(self.stations.len())
    }

    /// Brings the bearing to a load on the eye; false when it was not found.
    pub(super) fn load(&self, load: f64, bearing: &mut Bearing) -> bool {
        self.contacts.solve(load, bearing)
    }

    /// Adds a helper's end under the main leaf: one more place that pushes and never pulls, with a spring behind it.
    #[expect(clippy::indexing_slicing, reason = "the old matrix is as large as its count says")]
    pub(super) fn add_helper(&mut self, from_clamp: f64, rate: f64) {
        let Some(main) = self.leaves.first() else { return };
        let (old, count) = (&self.contacts, self.contacts.count);
        let helper = Station { upper: 0, lower: HELPER, x: from_clamp };
        let with_helper = |station: &Station| match station.upper {
            0 => influence(from_clamp, station.x) / main.stiffness,
            _ => 0.0,
        };
        let mut compliance = Vec::with_capacity((count + 1) * (count + 1));
        for (row, station) in self.stations.iter().enumerate() {
            compliance.extend_from_slice(&old.compliance[row * count..(row + 1) * count]);
            compliance.push(with_helper(station));
        }
        compliance.extend(self.stations.iter().map(with_helper));
        compliance.push(influence(from_clamp, from_clamp) / main.stiffness + 1.0 / rate);
        let (mut gap, mut per_load) = (old.gap.clone(), old.per_load.clone());
        gap.push(main.curvature * from_clamp * from_clamp / 2.0);
        per_load.push(-influence(from_clamp, main.active) / main.stiffness);
        self.contacts = Contacts { count: count + 1, compliance, gap, per_load };
        self.stations.push(helper);
    }

    /// Sets how high the helper's free end stands over the clamp's edge.
    pub(super) fn set_helper_height(&mut self, height: f64) {
        let free = self.leaves.first().map_or(0.0, |main| main.curvature);
        if let (Some(station), Some(gap)) = (self.stations.last(), self.contacts.gap.last_mut()) {
            *gap = free * station.x * station.x / 2.0 - height;
        }
    }

    /// What the helper's end pushes with.
    pub(super) fn helper_force(&self, bearing: &Bearing) -> f64 {
        let helpers = self.stations.iter().zip(&bearing.force).filter(|(station, _)| station.lower == HELPER);
        helpers.map(|(_, force)| force).sum()
    }

    /// How far a newton at `x` lifts the main leaf there, the others not helping.
    pub(super) fn lift_of_main(&self, x: f64) -> f64 {
        self.leaves.first().map_or(0.0, |main| influence(x, x) / main.stiffness)
    }

    /// Active length of a leaf.
    pub(super) fn active_of(&self, leaf: usize) -> f64 {
        self.leaves.get(leaf).map_or(0.0, |leaf| leaf.active)
    }

    /// Height of a leaf over its own seat at `x` from the clamp's edge: `κx²/2 − P f(x, l) + Σ σλ f(x, x_c)`.
    pub(super) fn height(&self, leaf: usize, x: f64, load: f64, bearing: &Bearing) -> f64 {
        let Some(cantilever) = self.leaves.get(leaf) else { return 0.0 };
        let pressed: f64 = self.on_leaf(leaf, bearing).map(|(at, force)| force * influence(x, at)).sum();
        let sunk = if leaf == 0 { load * influence(x, cantilever.active) } else { 0.0 };
        cantilever.curvature * x * x / 2.0 + (pressed - sunk) / cantilever.stiffness
    }

    /// Active length of the main leaf.
    pub(super) fn active(&self) -> f64 {
        self.leaves.first().map_or(0.0, |main| main.active)
    }

    /// Height of the eye over the clamp's edge: `H = κ₀l²/2 − P f(l, l) + Σ σλ f(l, x)`.
    pub(super) fn eye(&self, load: f64, bearing: &Bearing) -> f64 {
        self.height(0, self.active(), load, bearing)
    }

    /// Contact forces on a leaf, upwards positive: from below they lift it, from above they press it down.
    fn on_leaf(&self, leaf: usize, bearing: &Bearing) -> impl Iterator<Item = (f64, f64)> {
        self.stations.iter().zip(&bearing.force).filter_map(move |(station, force)| {
            if station.upper == leaf {
                Some((station.x, *force))
            } else if station.lower == leaf {
                Some((station.x, -*force))
            } else {
                None
            }
        })
    }

    /// Largest stress of a leaf, either sign, from its free shape: bending it to where it lies, nip and all.
    ///
    /// The moment is straight between stations, so it is largest at one of them or at the clamp's edge.
    pub(super) fn peak_stress(&self, leaf: usize, load: f64, bearing: &Bearing) -> f64 {
        let Some(cantilever) = self.leaves.get(leaf) else { return 0.0 };
        let mut forces: Vec<(f64, f64)> = self.on_leaf(leaf, bearing).filter(|(_, force)| force.abs() > 0.0).collect();
        if leaf == 0 {
            forces.push((cantilever.active, -load));
        }
        let moment = |at: f64| forces.iter().map(|(x, force)| force * (x - at).max(0.0)).sum::<f64>();
        let places = std::iter::once(0.0).chain(forces.iter().map(|(x, _)| *x));
        places.map(|at| moment(at).abs()).fold(0.0, f64::max) * cantilever.stress_per_moment
    }
}

/// Where leaves may touch: neighbours along their overlap, and past the end of a short leaf those above and below it.
fn stations(leaves: &[Cantilever]) -> Vec<Station> {
    let mut stations = Vec::new();
    for (upper, above) in leaves.iter().enumerate() {
        // How far out the leaves between reach: only past that can the two touch.
        let mut between: f64 = 0.0;
        for (lower, below) in leaves.iter().enumerate().skip(upper + 1) {
            let overlap = above.active.min(below.active);
            let places = places(overlap, leaves).into_iter();
            stations.extend(places.filter(|x| *x > between + 1e-9).map(|x| Station { upper, lower, x }));
            between = between.max(below.active);
        }
    }
    stations
}

/// Where two leaves are looked at along their overlap, from the clamp's edge: evenly, its end among them, and where another leaf ends
/// on either of them, since that is where it presses: without those an inner leaf's stress is off by up to twice.
fn places(overlap: f64, leaves: &[Cantilever]) -> Vec<f64> {
    let count = STATIONS.min((STATIONS_OF_A_PACK / u32::try_from(leaves.len()).unwrap_or(u32::MAX)).max(FEWEST_STATIONS));
    let apart = overlap / f64::from(count);
    let mut tips: Vec<f64> = leaves.iter().map(|leaf| leaf.active).filter(|tip| *tip < overlap - CLOSE * apart).collect();
    tips.push(overlap);
    tips.sort_unstable_by(f64::total_cmp);
    tips.dedup_by(|one, other| (*one - *other).abs() < CLOSE * apart);
    // Two places closer than that tell nothing apart, and spoil the figures.
    let even = (1..count).map(|step| apart * f64::from(step));
    let even = even.filter(|x| tips.iter().all(|tip| (x - tip).abs() >= CLOSE * apart));
    let mut places: Vec<f64> = even.chain(tips.iter().copied()).collect();
    places.sort_unstable_by(f64::total_cmp);
    places
}

fn contacts(pack: &Pack, leaves: &[Cantilever], stations: &[Station]) -> Contacts {
    let sign = |station: &Station, leaf: usize| match leaf {
        _ if station.upper == leaf => 1.0,
        _ if station.lower == leaf => -1.0,
        _ => 0.0,
    };
    let count = stations.len();
    let mut compliance = Vec::with_capacity(count * count);
    for one in stations {
        for other in stations {
            let shared = [one.upper, one.lower].into_iter().filter_map(|leaf| Some((leaf, leaves.get(leaf)?)));
            let both = shared
                .map(|(leaf, cantilever)| sign(one, leaf) * sign(other, leaf) * influence(one.x, other.x) / cantilever.stiffness);
            compliance.push(both.sum());
        }
    }
    let curvature = |leaf: usize| leaves.get(leaf).map_or(0.0, |cantilever| cantilever.curvature);
    let gap = stations.iter().map(|station| {
        let bent_apart = (curvature(station.upper) - curvature(station.lower)) * station.x * station.x / 2.0;
        bent_apart + stacked_between(pack, station)
    });
    let main = leaves.first();
    let per_load = stations.iter().map(|station| match (station.upper, main) {
        (0, Some(main)) => -influence(station.x, main.active) / main.stiffness,
        _ => 0.0,
    });
    Contacts { count, compliance, gap: gap.collect(), per_load: per_load.collect() }
}

/// What lies between two leaves at the clamp: spacers, and leaves that end before they touch.
fn stacked_between(pack: &Pack, station: &Station) -> f64 {
    let below = pack.leaves.iter().enumerate().skip(station.upper + 1).take(station.lower - station.upper);
    below.map(|(index, leaf)| leaf.spacer_above.si() + if index < station.lower { leaf.thickness.si() } else { 0.0 }).sum()
}
