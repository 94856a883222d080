//! Packs rebuilt on the bench, leaf by leaf.

use std::sync::Arc;

use super::kind::kerb_spring_force;
use super::{
    Caution, CorrectionKind, Ends, FigureRole, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, Takes, TakesUp, Work,
};
use crate::bound::Dimension;
use crate::pack::PackWork;
use crate::stance::Change;
use crate::units::{Force, Length};

/// The packs rebuilt on the bench, leaf by leaf: all alike, or the one of a side.
#[derive(Debug, Clone, PartialEq)]
pub struct ReworkedPack(pub PackWork);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "reworked_pack",
    figures: &[
        KindFigure { name: "found", takes: Takes::Pack, doubt: PartDoubt::Exact, role: FigureRole::OfTheVehicle },
        KindFigure {
            name: "planned",
            takes: Takes::PackAfter("found"),
            doubt: PartDoubt::WORKED_OUT_FROM_LEAVES,
            role: FigureRole::OfTheVehicle,
        },
        // The load that both are worked out up to.
        KindFigure {
            name: "most_n",
            takes: Takes::Any(Dimension::Weight),
            doubt: PartDoubt::Exact,
            role: FigureRole::OfTheVehicle,
        },
    ],
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| {
        let (found, planned) = (given.pack("found")?, given.pack("planned")?);
        Some(Arc::new(ReworkedPack(PackWork::new(found, planned, given.weight("most_n")?).ok()?)))
    },
};

impl CorrectionKind for ReworkedPack {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    /// The bench has looked at it leaf by leaf, and keeps its figures.
    fn given(&self) -> Given {
        Given::default()
    }

    fn account(&self) -> Given {
        let unloaded = Force::default();
        Given::default()
            .with_length("found_arch", self.0.found.height(unloaded))
            .with_length("planned_arch", self.0.planned.height(unloaded))
    }

    /// What it carries more is off as a whole.
    fn moved(&self, figure: &KindFigure, deviations: f64) -> Option<Arc<dyn CorrectionKind>> {
        let PartDoubt::Share(share) = figure.doubt else { return None };
        Some(Arc::new(ReworkedPack(self.0.carrying(1.0 + share * deviations))))
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let difference = self.0.difference(kerb_spring_force(on.axle), on.corner_rate_at_kerb());
        Some(Change::OtherSpring { axle: on.axle.name.clone(), side: on.side, difference })
    }

    fn hangs_lower(&self) -> Length {
        self.0.planned.height(Force::default()) - self.0.found.height(Force::default())
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        let added = self.0.adds_leaves.then_some(Work::AddedLeaf);
        added.into_iter().chain(self.0.rearches.then_some(Work::Rearching)).collect()
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        let firmer = self.0.adds_leaves.then_some(FirmerEmpty);
        let settles = self.0.rearches.then_some(TakesASet);
        let always = [SoundPackOnly, StoredEnergy, NewUBolts, ClampsDraw, PinSeated].into_iter();
        let after = [HoseSlack, ShockLength, DrivelineAngle, BarLinks, PivotsAtRideHeight, WheelNuts, AimAndAlignment];
        always.chain(firmer).chain(settles).chain(after).collect()
    }

    fn holds_at(&self, carried: Force, down: Length) -> bool {
        down <= self.0.travel_inside_the_model(carried)
    }
}
