//! What is asked of every leaf at rated load and at the stop, held against what its steel may be asked.
//!
//! A leaf that a plan adds or bends and that yields under rated load is refused where the pack's sizes were read. Everything else that
//! is past its limit is told before the plan is chosen: past the allowable, past yield only at the stop or on estimated sizes; and what
//! was past it as the pack came in is a finding. (Add-a-leafs commonly reach 0.8 to 1.3 GPa: common practice.)

use wise_badger_mechanics::pack::{Estimated, LeafStress, Pack, PackError, Steel};
use wise_badger_mechanics::units::{Force, Pressure};

/// What a leaf is past.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Limit {
    /// What it may be asked.
    Allowable,
    /// Where it begins to take a set.
    Yield,
}

/// When it is past it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum StrainedAt {
    /// Pressed to the bump stop.
    Stop,
    /// Under the load that the axle is rated for.
    Rated,
}

/// What follows from it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum StrainGrade {
    /// It was so as the pack came in.
    AsFound,
    /// Told before the plan is chosen.
    Warned,
    /// The plan is not taken.
    Refused,
}

/// A leaf that is worked past a limit.
#[derive(Debug, Clone, PartialEq)]
pub struct LeafStrain {
    /// Its name.
    pub leaf: String,
    /// Its stress, before it takes any set.
    pub stress: Pressure,
    /// The same in the pack as it came in, of a leaf that was there.
    pub found: Option<Pressure>,
    /// What it is past.
    pub limit: Limit,
    /// How much that is.
    pub limit_at: Pressure,
    /// When.
    pub at: StrainedAt,
    /// Whether sizes or arches of its pack are estimated.
    pub estimated: bool,
    /// What follows.
    pub grade: StrainGrade,
}

/// A pack's leaves at rated load, and at the stop where it reaches it.
struct Worked {
    rated: Vec<Pressure>,
    at_stop: Option<Vec<Pressure>>,
}

impl Worked {
    fn of(pack: &Pack, rated: Force, stop: Option<Force>) -> Result<Self, PackError> {
        let under = |load: Force| -> Result<Vec<Pressure>, PackError> {
            Ok(pack.prepare(load)?.state(load)?.leaves.iter().map(LeafStress::largest).collect())
        };
        Ok(Worked { rated: under(rated)?, at_stop: stop.map(under).transpose()? })
    }

    fn leaf(&self, at: StrainedAt, place: usize) -> Option<Pressure> {
        match at {
            StrainedAt::Rated => self.rated.get(place).copied(),
            StrainedAt::Stop => self.at_stop.as_ref()?.get(place).copied(),
        }
    }

    /// The most that a leaf is ever asked.
    fn most(&self, place: usize) -> Option<Pressure> {
        let each = [StrainedAt::Rated, StrainedAt::Stop].into_iter().filter_map(|at| self.leaf(at, place));
        each.reduce(Pressure::max)
    }
}

/// Both packs under what presses on them: rated load, and what presses each to the stop.
pub(super) struct Strains {
    /// Leaves of the planned pack past a limit, the gravest of each leaf.
    pub(super) leaves: Vec<LeafStrain>,
    /// The planned pack once its leaves have taken their set.
    pub(super) settled: Pack,
}

impl Strains {
    pub(super) fn of(
        [found, planned]: [&Pack; 2],
        rated: Force,
        [stop_found, stop_planned]: [Option<Force>; 2],
        steel: &Steel,
        estimated: bool,
    ) -> Result<Self, PackError> {
        let (before, after) = (Worked::of(found, rated, stop_found)?, Worked::of(planned, rated, stop_planned)?);
        let was = |name: &str| found.leaves.iter().position(|leaf| leaf.name == name);
        let (mut strains, mut held) = (Vec::new(), Vec::with_capacity(planned.leaves.len()));
        for (place, leaf) in planned.leaves.iter().enumerate() {
            let place_before = was(&leaf.name);
            let bent = place_before
                .and_then(|place| found.leaves.get(place))
                .is_none_or(|before| (before.curvature - leaf.curvature).value.abs() > SAME_CURVATURE_PER_M);
            // What a leaf that is left alone was asked already it has set to.
            let set_to = place_before.filter(|_| !bent).and_then(|place| before.most(place)).unwrap_or(steel.yields);
            held.push(set_to.max(steel.yields));
            let of = |limit: Limit, at: StrainedAt| {
                let limit_at = match (limit, at) {
                    (Limit::Yield, _) => steel.yields,
                    (Limit::Allowable, StrainedAt::Rated) => steel.rated,
                    (Limit::Allowable, StrainedAt::Stop) => steel.at_stop,
                };
                let stress = after.leaf(at, place).filter(|stress| *stress > limit_at)?;
                let found = place_before.and_then(|place| before.leaf(at, place));
                let was_past = found.is_some_and(|stress| stress > limit_at);
                let grade = match (limit, at) {
                    (Limit::Yield, StrainedAt::Rated) if bent && !estimated => StrainGrade::Refused,
                    _ if was_past && !bent => StrainGrade::AsFound,
                    _ => StrainGrade::Warned,
                };
                Some(LeafStrain { leaf: leaf.name.clone(), stress, found, limit, limit_at, at, estimated, grade })
            };
            let each = [
                of(Limit::Yield, StrainedAt::Rated),
                of(Limit::Yield, StrainedAt::Stop),
                of(Limit::Allowable, StrainedAt::Rated),
                of(Limit::Allowable, StrainedAt::Stop),
            ];
            strains.extend(each.into_iter().flatten().next());
        }
        let hardest = stop_planned.map_or(rated, |stop| stop.max(rated));
        Ok(Strains { leaves: strains, settled: planned.after_its_set(hardest, &held)? })
    }
}

/// Whether a size or an arch of a pack was not read. A chord follows from what was.
pub(super) fn is_estimated(estimated: &[Estimated]) -> bool {
    estimated.iter().any(|what| !matches!(what, Estimated::Chord(_)))
}

/// Leaves whose curvatures differ by no more were not bent, 1/m.
const SAME_CURVATURE_PER_M: f64 = 1e-6;
