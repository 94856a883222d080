//! The look-over: what was found on the vehicle before any part is chosen, and what that rules out or adds.
//!
//! A person gives each area a grade and names defects; some defects carry a grade of their own that no person lowers.
//! [`LookOver::gate`] says which corrections a finding rules out, and why; [`LookOver::additions`] what has to be put right
//! along with any job.

mod area;
mod defect;
mod measure;

pub use area::{Area, Grade};
pub use defect::{Addition, Defect, DefectRule};
pub use measure::{Measure, Measured};

use wise_badger_mechanics::correction::{Needs, Work};
use wise_badger_mechanics::units::Length;

use crate::survey::{End, NoFit, VehicleFacts};

/// What was found in one area.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// Where.
    pub area: Area,
    /// The grade that was given.
    pub grade: Grade,
    /// What was named.
    pub defects: Vec<Defect>,
    /// What was measured there.
    pub measured: Vec<Measured>,
}

impl Finding {
    /// What was named, and what a measured figure amounts to.
    pub fn all_defects(&self) -> Vec<Defect> {
        let mut defects = self.defects.clone();
        for defect in self.measured.iter().filter_map(Measured::defect) {
            if !defects.contains(&defect) {
                defects.push(defect);
            }
        }
        defects
    }

    /// The grade that counts: the one given, or a graver one that a defect carries.
    pub fn counted_grade(&self) -> Grade {
        self.all_defects().into_iter().map(|defect| defect.rule().least).fold(self.grade, Grade::max)
    }
}

/// The whole look-over, as far as it has come.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct LookOver {
    /// What was found, area by area.
    pub findings: Vec<Finding>,
    /// The repairs that are on the job.
    pub repairs: Vec<Addition>,
}

/// Something to be put right with a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PutRight {
    /// A repair, with the defect that asks for it; nothing where an option does.
    Repair(Addition, Option<Defect>),
    /// A defect that no usual repair goes with.
    Defect(Defect),
    /// An area that was graded so without a defect being named.
    Area(Area),
}

/// Why a correction is ruled out.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Gate {
    /// By a defect.
    Defect(Defect),
    /// By an area that was graded "stop" without a defect being named.
    Stop(Area),
    /// By the springs that are there.
    NoFit(NoFit),
    /// By its own steel: a leaf that is added or bent would yield under rated load.
    Yields,
    /// By something beside the springs that is too short for it, and that neither it nor a repair makes longer.
    TooShort(Addition),
    /// By its own capacity: in a state that was read, or in a load case, it is pressed past it.
    PastItsCapacity,
}

impl LookOver {
    /// Every defect found, area by area.
    pub fn defects(&self) -> Vec<Defect> {
        self.findings.iter().flat_map(Finding::all_defects).collect()
    }

    /// Whether a defect was found.
    pub fn found(&self, defect: Defect) -> bool {
        self.findings.iter().any(|finding| finding.all_defects().contains(&defect))
    }

    /// A figure that was taken.
    pub fn measured(&self, what: Measure) -> Option<Length> {
        let all = self.findings.iter().flat_map(|finding| &finding.measured);
        all.filter(|measured| measured.what == what).map(|measured| measured.value).next_back()
    }

    /// What was found in an area; `None` while nobody looked.
    pub fn of(&self, area: Area) -> Option<&Finding> {
        self.findings.iter().find(|finding| finding.area == area)
    }

    /// The areas nobody has looked at yet.
    pub fn not_looked_at(&self, areas: &[Area]) -> Vec<Area> {
        areas.iter().copied().filter(|area| self.of(*area).is_none()).collect()
    }

    /// What stops everything but repair: a cracked, broken, missing or shifted leaf, or whatever was graded so.
    pub fn stops(&self) -> Vec<Gate> {
        let stops = self.findings.iter().filter(|finding| finding.counted_grade() == Grade::Stop);
        let of_finding = |finding: &Finding| {
            let defects = finding.all_defects().into_iter().filter(|defect| defect.rule().least == Grade::Stop);
            let gates: Vec<Gate> = defects.map(Gate::Defect).collect();
            if gates.is_empty() { vec![Gate::Stop(finding.area)] } else { gates }
        };
        stops.flat_map(of_finding).collect()
    }

    /// What rules work out (of a correction: [`Correction::works`](wise_badger_mechanics::correction::Correction::works)), the gravest
    /// first; empty when nothing does.
    pub fn gate(&self, works: &[Work]) -> Vec<Gate> {
        let mut gates = self.stops();
        let barring = |defect: &Defect| defect.rule().bars.iter().any(|bars| works.contains(bars));
        for defect in self.defects().into_iter().filter(barring).filter(|defect| !self.is_cured(*defect)) {
            let gate = Gate::Defect(defect);
            if !gates.contains(&gate) {
                gates.push(gate);
            }
        }
        gates
    }

    /// Whether the repair that cures a defect is on the job. What stops the job stops it until it is done.
    fn is_cured(&self, defect: Defect) -> bool {
        let stops =
            self.findings.iter().any(|finding| finding.counted_grade() == Grade::Stop && finding.all_defects().contains(&defect));
        !stops && self.repairs.iter().any(|repair| repair.cures().contains(&defect))
    }

    /// What rules work at an end out: the springs that are there, then what was found.
    pub fn gate_at(&self, vehicle: &VehicleFacts, end: End, needs: Needs, works: &[Work]) -> Vec<Gate> {
        vehicle.no_fit(end, needs).map(Gate::NoFit).into_iter().chain(self.gate(works)).collect()
    }

    /// Everything that has to be put right along with any job: the repairs that defects ask for, and what is graded so and goes by no
    /// usual repair.
    pub fn to_put_right(&self) -> Vec<PutRight> {
        let repairs = self.additions().into_iter().map(|(addition, defect)| PutRight::Repair(addition, Some(defect)));
        let graded = self.findings.iter().filter(|finding| finding.counted_grade() == Grade::PutRight);
        let others = graded.flat_map(|finding| {
            let defects = finding.all_defects();
            let bare = defects.iter().filter(|defect| defect.rule().adds.is_empty()).map(|defect| PutRight::Defect(*defect));
            let area = defects.is_empty().then_some(PutRight::Area(finding.area));
            bare.chain(area).collect::<Vec<_>>()
        });
        repairs.chain(others).collect()
    }

    /// What has to be put right along with any job, each once, with the defect that asks for it.
    pub fn additions(&self) -> Vec<(Addition, Defect)> {
        let mut additions: Vec<(Addition, Defect)> = Vec::new();
        for defect in self.defects() {
            for addition in defect.rule().adds {
                if !additions.iter().any(|(there, _)| there == addition) {
                    additions.push((*addition, defect));
                }
            }
        }
        additions
    }
}
