//! Re-arching: the arch for every leaf that a height needs, how far to press for it, and when not to.

use super::{Leaf, LeafStress, Pack, PackError, PackState, Steel};
use crate::units::{Curvature, Force, InShopUnits, Length, Pressure, inches, pascals, per_metre};

/// How the arch is shared among the leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rule {
    /// Every leaf is bent by as much: the nip between them stays.
    KeepNip,
    /// Leaves are bent so that, under full load, all are worked alike.
    EvenStress,
}

/// Where the pack is to stand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WantedArch {
    /// Eye chord above the seat.
    pub arch: Length,
    /// Under this load on the whole spring.
    pub load: Force,
    /// The load at which leaves are compared.
    pub full_load: Force,
}

/// How far past the arch that is wanted a leaf is pressed, for what it loses in its first loads.
///
/// # Source     common practice; a rule of the shop's own takes its place once its proofs say better
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Presetting {
    /// Share of the arch that is gained which is lost again as the leaf settles.
    pub lost: f64,
}

impl Default for Presetting {
    fn default() -> Self {
        Presetting { lost: 0.10 }
    }
}

impl Presetting {
    /// What to press a leaf to, so that it settles where it is wanted: `κ + (κ_wanted − κ)/(1 − lost)`.
    ///
    /// # Valid      `lost` from 0 to 0.5
    pub fn pressed(&self, from: Curvature, wanted: Curvature) -> Curvature {
        from + (wanted - from) / (1.0 - self.lost.clamp(0.0, 0.5))
    }

    /// The same for every leaf of a planned pack; a leaf that was not there before is made or bought to its arch.
    pub fn pressed_leaves(&self, found: &Pack, planned: &Pack) -> Vec<Curvature> {
        let from = |leaf: &Leaf| found.leaves.iter().find(|before| before.name == leaf.name).map(|before| before.curvature);
        let press = |leaf: &Leaf| from(leaf).map_or(leaf.curvature, |from| self.pressed(from, leaf.curvature));
        planned.leaves.iter().map(press).collect()
    }
}

/// A pack as it is to be re-arched.
#[derive(Debug, Clone, PartialEq)]
pub struct Rearch {
    /// As it came in.
    pub found: Pack,
    /// As it is to settle.
    pub wanted: Pack,
}

/// Why a pack is not to be re-arched.
#[derive(Debug, Clone, PartialEq)]
#[non_exhaustive]
pub enum RearchRefusal {
    /// A leaf is too thin to hold a new arch.
    TooThin {
        /// Its name.
        leaf: String,
        /// How thick it is.
        thickness: Length,
        /// The least.
        least: Length,
    },
    /// As found, the load alone works a leaf past its allowable: it needs more rate, not more arch.
    NeedsRate {
        /// The leaf.
        leaf: String,
        /// What the load alone makes.
        stress: Pressure,
        /// What is allowed.
        allowed: Pressure,
    },
    /// The arch wanted is lower than the pack has.
    NothingToGain,
}

/// Leaves under this are not re-arched: they are past holding a set (common practice).
const THINNEST_IN: f64 = 0.2;
const MOST_TURNS: usize = 40;

impl Rearch {
    /// The pack that stands where it is wanted.
    ///
    /// # Errors     [`PackError`] where no arch brings it there
    pub fn new(found: &Pack, wanted: &WantedArch, rule: Rule) -> Result<Self, PackError> {
        let (kept, _) = found.standing_at(wanted.arch, wanted.load)?;
        let settled = match rule {
            Rule::KeepNip => kept,
            Rule::EvenStress => evened(kept, wanted)?,
        };
        Ok(Rearch { found: found.clone(), wanted: settled })
    }

    /// What stands against bending these leaves at all. What the bent leaves are asked then is judged as of any pack that is planned, and
    /// what the look-over found beside it.
    ///
    /// # Errors     as the pack's own states
    pub fn refusals(&self, full_load: Force, steel: &Steel) -> Result<Vec<RearchRefusal>, PackError> {
        let mut refusals = Vec::new();
        let least = inches(THINNEST_IN);
        let bent = |(from, to): (&Leaf, &Leaf)| (to.curvature - from.curvature).value.abs() > 1e-9;
        let gained: f64 = self.found.leaves.iter().zip(&self.wanted.leaves).map(|(a, b)| (b.curvature - a.curvature).value).sum();
        for (from, to) in self.found.leaves.iter().zip(&self.wanted.leaves) {
            if bent((from, to)) && from.thickness < least {
                refusals.push(RearchRefusal::TooThin { leaf: from.name.clone(), thickness: from.thickness, least });
            }
        }
        if gained <= 1e-9 {
            refusals.push(RearchRefusal::NothingToGain);
        }
        let found = self.found.prepare(full_load)?;
        let (empty, full) = (found.state(Force::default())?, found.state(full_load)?);
        let by_load = full.leaves.iter().enumerate().map(|(leaf, stress)| stress.largest() - nip(&empty, leaf));
        let hardest = self.found.leaves.iter().zip(by_load).max_by(|one, other| one.1.value.total_cmp(&other.1.value));
        refusals.extend(hardest.filter(|(_, stress)| *stress > steel.rated).map(|(leaf, stress)| {
            let (leaf, allowed) = (leaf.name.clone(), steel.rated);
            RearchRefusal::NeedsRate { leaf, stress, allowed }
        }));
        Ok(refusals)
    }
}

/// The stress that being drawn together leaves in a leaf, unloaded.
fn nip(unloaded: &PackState, leaf: usize) -> Pressure {
    unloaded.leaves.get(leaf).map_or(pascals(0.0), LeafStress::largest)
}

/// Bends the lower leaves against the main leaf until all are worked alike under full load, and the whole until it stands where it is
/// wanted again: what is given to a leaf's nip is taken from its neighbours', `Δσ ≈ E t Δκ/2`. Keeps the evenest it comes by.
fn evened(pack: Pack, wanted: &WantedArch) -> Result<Pack, PackError> {
    let ordinary = pack.ordinary_leaves();
    let takes_part = |index: &usize| *index < ordinary;
    let spread = |pack: &Pack| -> Result<(f64, Vec<f64>), PackError> {
        let state = pack.prepare(wanted.full_load)?.state(wanted.full_load)?;
        let stresses: Vec<f64> = state.leaves.iter().map(|leaf| leaf.largest().value).collect();
        let parts: Vec<f64> = stresses.iter().enumerate().filter(|(index, _)| takes_part(index)).map(|(_, s)| *s).collect();
        let (least, most) = parts.iter().fold((f64::INFINITY, 0.0_f64), |(low, high), s| (low.min(*s), high.max(*s)));
        Ok((most - least, stresses))
    };
    let mut best = (spread(&pack)?.0, pack.clone());
    let mut trial = pack;
    for _ in 0..MOST_TURNS {
        let (_, stresses) = spread(&trial)?;
        let parts = || stresses.iter().enumerate().filter(|(index, _)| takes_part(index)).map(|(_, stress)| *stress);
        #[expect(clippy::cast_precision_loss, reason = "a pack has few leaves")]
        let mean = parts().sum::<f64>() / parts().count().max(1) as f64;
        let mut next = trial.clone();
        for (index, (leaf, stress)) in next.leaves.iter_mut().zip(&stresses).enumerate() {
            if takes_part(&index) {
                // Half a step: the neighbours give way too.
                leaf.curvature += per_metre((mean - stress) / (trial.young_modulus.value * leaf.thickness.si()));
            }
        }
        trial = match next.standing_at(wanted.arch, wanted.load) {
            Ok((stands, _)) => stands,
            Err(PackError::TooMuchArch(_) | PackError::NotReached(_)) => break,
            Err(error) => return Err(error),
        };
        let off = spread(&trial)?.0;
        if off < best.0 {
            best = (off, trial.clone());
        }
    }
    Ok(best.1)
}
