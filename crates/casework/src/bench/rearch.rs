//! A height wanted at the rear, as an arch for every leaf, and what speaks against it.

use wise_badger_mechanics::correction::{Needs, Work};
use wise_badger_mechanics::pack::{PackError, Rearch, RearchRefusal, Rule, WantedArch};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::Length;

use super::acts::{as_before, bent_like};
use super::loads::BenchWork;
use super::strain::LeafStrain;
use crate::case::{Case, PlannedCase};
use crate::entry::{BenchEntry, PackEntry, TypedIn};
use crate::look_over::{Gate, LookOver};
use crate::survey::{End, LoadState, Survey};
use crate::verdict::Overload;

/// What is asked for.
#[derive(Debug, Clone)]
pub struct Asked {
    /// The state that the height counts in.
    pub state: LoadState,
    /// The side whose pack it is; both alike where there is none.
    pub side: Option<Side>,
    /// The rear height wanted there, from the job's datum.
    pub height: Length,
    /// How the arch is shared among the leaves.
    pub rule: Rule,
    /// The bench of that side, with what is asked of its steel and its setting.
    pub bench: BenchEntry,
}

/// Why a re-arch cannot be worked out.
#[derive(Debug, Clone, PartialEq)]
pub enum CannotRearch {
    /// The rear was not read in the state.
    NotMeasured(LoadState),
    /// What was put on is not known.
    LoadNotKnown,
    /// Under what it carries in the state the pack, as read, is outside the model.
    OutsideTheModel(LoadState),
    /// Something about the pack cannot be.
    Pack(PackError),
}

impl From<PackError> for CannotRearch {
    fn from(error: PackError) -> Self {
        CannotRearch::Pack(error)
    }
}

/// Something that speaks against a re-arch.
#[derive(Debug, Clone, PartialEq)]
pub enum Against {
    /// The look-over rules it out.
    RuledOut(Vec<Gate>),
    /// A rating is passed, and no arch changes that.
    OverARating,
    /// The leaves do not allow it.
    Refused(RearchRefusal),
    /// Once bent, a leaf would yield under rated load.
    Yields(LeafStrain),
}

/// A re-arch that was worked out, with the plan that it makes.
#[derive(Debug, Clone)]
pub struct RearchPlan {
    /// The leaves before and after.
    pub rearch: Rearch,
    /// The bench before any leaf is bent.
    pub bench: BenchWork,
    /// The pack as it is to be built, as it would be typed.
    pub planned: PackEntry,
    /// The bench with that plan.
    pub bent: BenchWork,
    /// What speaks against it.
    pub against: Vec<Against>,
    /// How much higher it is to stand than it does.
    pub raised: Length,
}

/// Works it out on the vehicle as found.
///
/// # Errors     [`CannotRearch`]
pub fn plan_rearch(
    case: &Case,
    survey: &Survey,
    cases: &[PlannedCase],
    look_over: &LookOver,
    overload: Option<&Overload>,
    asked: &Asked,
    units: TypedIn,
) -> Result<RearchPlan, CannotRearch> {
    let read = match asked.side {
        Some(side) => survey.side(End::Rear, asked.state, side),
        None => survey.height(End::Rear, asked.state),
    };
    let measured = read.ok_or(CannotRearch::NotMeasured(asked.state))?;
    let base = as_before(&asked.bench.found, &asked.bench.planned);
    let with = |planned: PackEntry| BenchWork::new(case, survey, cases, &BenchEntry { planned, ..asked.bench.clone() });
    let bench = with(base.clone())?;
    let load = bench.measured.get(asked.state).copied().flatten().ok_or(CannotRearch::LoadNotKnown)?;
    if load > bench.work.found.reaches() {
        return Err(CannotRearch::OutsideTheModel(asked.state));
    }
    let raised = asked.height - measured.value;
    let wanted = WantedArch { arch: bench.work.found.height(load) + raised, load, full_load: bench.packs.rated };
    let rearch = Rearch::new(&bench.packs.planned, &wanted, asked.rule)?;
    let gates = look_over.gate_at(&survey.vehicle, End::Rear, Needs::Leaves, &[Work::Rearching]);
    let mut against: Vec<Against> = Vec::new();
    against.extend((!gates.is_empty()).then_some(Against::RuledOut(gates)));
    against.extend(overload.map(|_| Against::OverARating));
    let refusals = rearch.refusals(bench.packs.rated, &bench.packs.steel)?;
    against.extend(refusals.into_iter().map(Against::Refused));
    let planned = bent_like(&base, &bench.packs.planned, &rearch.wanted, units);
    let bent = with(planned.clone())?;
    against.extend(bent.refused().cloned().map(Against::Yields));
    Ok(RearchPlan { rearch, bench, planned, bent, against, raised })
}
