//! What an option puts right of what was found to be behind it.

use wise_badger_mechanics::correction::rearched_pack;

use super::pool::{Piece, Role};
use super::school::School;
use super::worth::Cures;
use crate::aim::GoalCase;
use crate::casework::Casework;
use crate::survey::{End, LoadState};
use crate::verdict::Cause;

/// What its parts put right of the likely causes that parts put right at all; `None` where none was found.
pub(super) fn cures(work: &Casework, pieces: &[&Piece]) -> Option<Cures> {
    let for_the_load = comes_for_the_load(work);
    let likely = work.causes().iter().filter(|judged| judged.is_likely());
    let likely = likely.filter(|judged| for_the_load || judged.cause != Cause::CarriedLoad);
    let each: Vec<(Cause, bool, f64)> = likely
        .filter_map(|judged| Some((judged.cause, cured_by(judged.cause)?, f64::from(judged.score()))))
        .map(|(cause, schools, weight)| (cause, pieces.iter().any(|piece| puts_right(piece, schools)), weight))
        .collect();
    let (_, likeliest, _) = *each.first()?;
    let all: f64 = each.iter().map(|(_, _, weight)| weight).sum();
    let cured = each.iter().take_while(|(_, cured, _)| *cured).fold(0.0, |sum, (_, _, weight)| sum + weight);
    let (right, left): (Vec<_>, Vec<_>) = each.into_iter().partition(|(_, cured, _)| *cured);
    let causes = |of: Vec<(Cause, bool, f64)>| of.into_iter().map(|(cause, ..)| cause).collect();
    Some(Cures { likeliest, right: causes(right), left: causes(left), share: cured / all })
}

/// Whether a part is of one of these schools, behind. Arching and a new pair make springs alike again, what is added on one side does not.
fn puts_right(piece: &Piece, cured_by: CuredBy) -> bool {
    let school = School::of(piece.correction.row()).filter(|_| piece.role != Role::Front);
    school.is_some_and(|school| match cured_by {
        CuredBy::Schools(schools) => schools.contains(&school),
        CuredBy::APairAlike => piece.correction.renews_the_pair() || *piece.correction.row() == rearched_pack::ROW,
    })
}

/// What puts a cause right.
#[derive(Debug, Clone, Copy)]
enum CuredBy {
    Schools(&'static [School]),
    /// Springs of both sides that are alike.
    APairAlike,
}

/// A tired spring is made right or another, a load is helped; what only sets the vehicle higher cures neither (common practice). `None` of
/// what no part puts right.
fn cured_by(cause: Cause) -> Option<CuredBy> {
    use School::{Air, Coils, Leaf, OverloadLeaf, Pack, Rubber, Steel};
    match cause {
        Cause::SpringSet | Cause::WeakSprings => Some(CuredBy::Schools(&[Leaf, Pack, Coils])),
        Cause::LeanBySpring => Some(CuredBy::APairAlike),
        Cause::CarriedLoad | Cause::PermanentLoad | Cause::OnTheOverloadLeaf => {
            Some(CuredBy::Schools(&[Leaf, Pack, Coils, OverloadLeaf, Steel, Rubber, Air]))
        }
        _ => None,
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
