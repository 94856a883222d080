//! What an option puts right of what was found to be behind it.

use wise_badger_mechanics::correction::rearched_pack;

use super::pool::{Piece, Role};
use super::school::School;
use super::worth::Cures;
use crate::aim::GoalCase;
use crate::casework::Casework;
use crate::survey::{End, LoadState};
use crate::verdict::Cause;

/// The likely causes that parts put right, the likeliest first, each with what puts it right and by how much it counts.
pub(super) struct Faults {
    each: Vec<(Cause, CuredBy, f64)>,
}

impl Faults {
    /// Those of a job; that it comes down under a load is none where nobody came for that.
    pub(super) fn of(work: &Casework, for_the_load: bool) -> Self {
        let likely = work.causes().iter().filter(|judged| judged.is_likely());
        let likely = likely.filter(|judged| for_the_load || judged.cause != Cause::CarriedLoad);
        let cured = likely.filter_map(|judged| Some((judged.cause, cured_by(judged.cause)?, f64::from(judged.score()))));
        Faults { each: cured.collect() }
    }

    /// What parts put right of them; `None` where there are none.
    pub(super) fn cured(&self, pieces: &[&Piece]) -> Option<Cures> {
        let all: f64 = self.each.iter().map(|(_, _, weight)| weight).sum();
        if self.each.is_empty() {
            return None;
        }
        let is_cured = |cured_by: CuredBy| pieces.iter().any(|piece| puts_right(piece, cured_by));
        let first = self.each.iter().take_while(|(_, cured_by, _)| is_cured(*cured_by));
        let cured = first.fold(0.0, |sum, (_, _, weight)| sum + weight);
        let (right, left): (Vec<_>, Vec<_>) = self.each.iter().partition(|(_, cured_by, _)| is_cured(*cured_by));
        let causes = |of: Vec<&(Cause, CuredBy, f64)>| of.into_iter().map(|(cause, ..)| *cause).collect();
        Some(Cures { right: causes(right), left: causes(left), share: cured / all })
    }
}

/// What puts a cause right.
#[derive(Debug, Clone, Copy)]
enum CuredBy {
    /// Any of these schools.
    Schools(&'static [School]),
    /// Any of these that bears more: a pack arched again carries as it did.
    Bearing(&'static [School]),
    /// Springs of both sides that are alike: a new pair, or what is low arched again; not what is added on one side.
    APairAlike,
}

/// Whether a part puts right, behind, what is put right so.
fn puts_right(piece: &Piece, cured_by: CuredBy) -> bool {
    let arched = *piece.correction.row() == rearched_pack::ROW;
    let school = School::of(piece.correction.row()).filter(|_| piece.role != Role::Front);
    school.is_some_and(|school| match cured_by {
        CuredBy::Schools(schools) => schools.contains(&school),
        CuredBy::Bearing(schools) => schools.contains(&school) && !arched,
        CuredBy::APairAlike => piece.correction.renews_the_pair() || arched,
    })
}

/// A tired spring is made right or another, a load is helped; what only sets the vehicle higher cures neither (common practice). `None` of
/// what no part puts right.
fn cured_by(cause: Cause) -> Option<CuredBy> {
    use School::{Air, Coils, Leaf, OverloadLeaf, Pack, Rubber, Steel};
    match cause {
        Cause::SpringSet => Some(CuredBy::Schools(&[Leaf, Pack, Coils])),
        Cause::WeakSprings => Some(CuredBy::Bearing(&[Leaf, Pack, Coils, Steel])),
        Cause::LeanBySpring => Some(CuredBy::APairAlike),
        Cause::CarriedLoad | Cause::PermanentLoad | Cause::OnTheOverloadLeaf => {
            Some(CuredBy::Schools(&[Leaf, Pack, Coils, OverloadLeaf, Steel, Rubber, Air]))
        }
        Cause::Overload
        | Cause::FailedPart
        | Cause::OnTheStops
        | Cause::WeightBehind
        | Cause::WeightAhead
        | Cause::LeanByLoad
        | Cause::Tyres
        | Cause::EarlierWork
        | Cause::AirSprings
        | Cause::ShocksAndBars => None,
    }
}

/// Whether how it stands with a load on is any of what the customer came for: that it comes down under one is no fault that he wants
/// put right where he speaks of the vehicle empty alone. Where nobody read it empty, how it stands with a load on is all there is.
pub(super) fn comes_for_the_load(work: &Casework) -> bool {
    let read_empty = work.found().height(End::Rear, LoadState::Empty).is_some();
    let complains = work.case().sheet.complaints.iter().any(|complaint| complaint.is_of_the_load());
    !read_empty
        || complains
        || work.goals().any(|goal| goal.when() != GoalCase::State(LoadState::Empty))
        || work.goals().next().is_none()
}
