//! A pack as a spring under a vehicle: its height against its load, as a line of few straight pieces. Raw SI `f64` inside.

use super::{Pack, PackError};
use crate::stance::{MainSpring, SpringDifference, SpringStage};
use crate::units::{Force, InShopUnits, Length, SpringRate, metres, newtons, newtons_per_metre};

/// Loads that a curve is taken at.
const LOADS: u32 = 60;
/// A straight piece may pass this far from the heights it stands for, m.
const STRAIGHT_M: f64 = 1e-4;

/// Height over the seat against the load on the whole spring, with the large-arch correction, from no load up to the most that
/// was asked about or to where the model ends.
#[derive(Debug, Clone, PartialEq)]
pub struct PackCurve {
    /// Load and height of the ends of the straight pieces, the load growing.
    corners: Vec<(f64, f64)>,
}

impl Pack {
    /// The pack's curve from nought to a load.
    ///
    /// # Errors     [`PackError`] names what has no meaning
    pub fn curve_to(&self, most: Force) -> Result<PackCurve, PackError> {
        let prepared = self.prepare(most)?;
        let loads: Vec<Force> = (0..=LOADS).map(|step| most * f64::from(step) / f64::from(LOADS)).collect();
        let points = prepared.curve(&loads)?;
        let inside = points.iter().map_while(|point| Some((point.load.si(), point.arch?.si())));
        let corners = straightened(&inside.collect::<Vec<_>>());
        if corners.len() < 2 { Err(PackError::PastAllFigures) } else { Ok(PackCurve { corners }) }
    }
}

/// The fewest of these points that a straight line between neighbours passes close to all the others (Ramer, Douglas and
/// Peucker, with the distance taken along the height).
fn straightened(points: &[(f64, f64)]) -> Vec<(f64, f64)> {
    let ([Some(first), Some(last)], true) = ([points.first(), points.last()], points.len() > 2) else { return points.to_vec() };
    let between = |load: f64| first.1 + (last.1 - first.1) * (load - first.0) / (last.0 - first.0);
    let off = points.iter().map(|(load, height)| (height - between(*load)).abs()).enumerate();
    match off.max_by(|one, other| one.1.total_cmp(&other.1)) {
        Some((at, off)) if off > STRAIGHT_M && at > 0 => {
            let (before, after) = points.split_at(at);
            let mut corners = straightened(&[before, after.get(..1).unwrap_or_default()].concat());
            corners.pop();
            corners.extend(straightened(after));
            corners
        }
        _ => vec![*first, *last],
    }
}

impl PackCurve {
    /// The highest load that it reaches: past it the pack is outside the model.
    pub fn reaches(&self) -> Force {
        newtons(self.corners.last().map_or(0.0, |corner| corner.0))
    }

    /// The same, reaching no further than a load.
    #[must_use]
    pub fn up_to(&self, load: Force) -> Self {
        let mut corners: Vec<(f64, f64)> = self.corners.iter().copied().filter(|corner| corner.0 < load.si()).collect();
        corners.push((load.si(), self.height(load).si()));
        PackCurve { corners }
    }

    /// Height at that load.
    pub fn lowest(&self) -> Length {
        metres(self.corners.last().map_or(0.0, |corner| corner.1))
    }

    /// Load and height of the ends of its straight pieces.
    pub fn corners(&self) -> impl Iterator<Item = (Force, Length)> {
        self.corners.iter().map(|(load, height)| (newtons(*load), metres(*height)))
    }

    /// The straight piece that a thing lies on; the first and the last go on past their ends.
    fn piece(&self, is_past: impl Fn(&(f64, f64)) -> bool) -> [(f64, f64); 2] {
        let ends = self.corners.windows(2).filter_map(|ends| <[(f64, f64); 2]>::try_from(ends).ok());
        let pieces: Vec<_> = ends.collect();
        let found = pieces.iter().find(|[_, to]| is_past(to)).or(pieces.last());
        found.copied().unwrap_or([(0.0, 0.0), (1.0, -1.0)])
    }

    /// Height under a load.
    pub fn height(&self, load: Force) -> Length {
        let load = load.si();
        let [from, to] = self.piece(|to| to.0 >= load);
        metres(from.1 + (to.1 - from.1) * (load - from.0) / (to.0 - from.0))
    }

    /// Load at a height; above the free height it pulls.
    pub fn load(&self, height: Length) -> Force {
        let height = height.si();
        let [from, to] = self.piece(|to| to.1 <= height);
        newtons(from.0 + (to.0 - from.0) * (height - from.1) / (to.1 - from.1))
    }

    /// Rate under a load, of the straight piece there.
    pub fn rate(&self, load: Force) -> SpringRate {
        let load = load.si();
        let [from, to] = self.piece(|to| to.0 > load);
        newtons_per_metre((to.0 - from.0) / (from.1 - to.1))
    }

    /// The pack as the main spring of a corner that carries `kerb` at the vehicle's empty weight: rates join and leave at the ends
    /// of the straight pieces.
    pub fn main_spring(&self, kerb: Force) -> MainSpring {
        let at_kerb = self.height(kerb);
        let (rate, stages) = rates(self.corners.iter().map(|(load, height)| (at_kerb.si() - height, *load)).collect());
        MainSpring { stages, ..MainSpring::linear(rate) }
    }
}

/// Rate before the first inner corner of a line of straight pieces (travel growing, force), and what joins at each.
fn rates(line: Vec<(f64, f64)>) -> (SpringRate, Vec<SpringStage>) {
    let slope = |ends: &[(f64, f64)]| match ends {
        [from, to] => (to.1 - from.1) / (to.0 - from.0),
        _ => 0.0,
    };
    let slopes: Vec<f64> = line.windows(2).map(slope).collect();
    let joins = line.iter().skip(1).zip(slopes.iter().zip(slopes.iter().skip(1)));
    let stages = joins.map(|((travel, _), (before, after))| SpringStage {
        at_travel: metres(*travel),
        added_rate: newtons_per_metre(after - before),
    });
    (newtons_per_metre(slopes.first().copied().unwrap_or(0.0)), stages.collect())
}

/// A pack as found and as it is to be: what the vehicle gets when the one takes the place of the other.
#[derive(Debug, Clone, PartialEq)]
pub struct PackWork {
    /// As it came in.
    pub found: PackCurve,
    /// As it is to be built.
    pub planned: PackCurve,
    /// Whether it has leaves that were not there before.
    pub adds_leaves: bool,
    /// Whether leaves that were there are bent anew.
    pub rearches: bool,
    /// How much of the difference is taken: all of it, unless what is worked out from leaves is to be off.
    taken: f64,
}

impl PackWork {
    /// What was found and what is planned, each up to a load.
    ///
    /// # Errors     [`PackError`] names what has no meaning in either
    pub fn new(found: &Pack, planned: &Pack, most: Force) -> Result<Self, PackError> {
        let was_there = |leaf: &super::Leaf| found.leaves.iter().find(|before| before.name == leaf.name);
        let bent =
            |leaf: &super::Leaf| was_there(leaf).is_some_and(|before| (before.curvature - leaf.curvature).value.abs() > 1e-6);
        Ok(PackWork {
            found: found.curve_to(most)?,
            planned: planned.curve_to(most)?,
            adds_leaves: planned.leaves.iter().any(|leaf| was_there(leaf).is_none()),
            rearches: planned.leaves.iter().any(bent),
            taken: 1.0,
        })
    }

    /// The same work with the planned pack come down to what it settles to. One that settles past all that can be worked out stands
    /// nowhere under load.
    #[must_use]
    pub fn settled_to(&self, settled: &Pack, most: Force) -> Self {
        let planned = settled.curve_to(most).unwrap_or_else(|_past| self.planned.up_to(newtons(1.0)));
        PackWork { planned, ..self.clone() }
    }

    /// The same with so many times the difference taken.
    #[must_use]
    pub fn carrying(&self, times: f64) -> Self {
        PackWork { taken: self.taken * times, ..self.clone() }
    }

    /// What the planned pack carries more at the same length, on a corner that carries `kerb` empty and has `rate` there.
    ///
    /// Where the rate was measured it is not quite the pack's own; the pack's forces are taken in the same proportion, so that what
    /// its arch lifts stays what it is.
    pub fn difference(&self, kerb: Force, rate: SpringRate) -> SpringDifference {
        let at_kerb = self.found.height(kerb).si();
        let share = self.taken * (rate / self.found.rate(kerb)).value;
        let carries = |travel: f64| {
            let height = metres(at_kerb - travel);
            share * (self.planned.load(height) - self.found.load(height)).si()
        };
        let corners = self.found.corners.iter().chain(&self.planned.corners);
        let mut travels: Vec<f64> = corners.map(|(_, height)| at_kerb - height).collect();
        travels.sort_by(f64::total_cmp);
        travels.dedup_by(|one, other| (*one - *other).abs() < 1e-6);
        // A step past either end, so that the slopes there are those of the pieces that go on.
        let (first, last) = (travels.first().copied().unwrap_or(0.0), travels.last().copied().unwrap_or(0.0));
        travels.insert(0, first - 0.01);
        travels.push(last + 0.01);
        let (rate, stages) = rates(travels.into_iter().map(|travel| (travel, carries(travel))).collect());
        SpringDifference { force: newtons(carries(0.0)), rate, stages }
    }

    /// How far a corner that carries `kerb` empty may come down from there with the planned pack, before it is outside the model.
    pub fn travel_inside_the_model(&self, kerb: Force) -> Length {
        self.found.height(kerb) - self.planned.lowest().max(self.found.lowest())
    }
}
