//! Which leaf is the overload leaf: the one that bears only once the pack has come down.

use super::Pack;

/// The overload leaf of a pack, with whatever lies under it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum OverloadLeaf {
    /// Nobody has said: the lowest leaf, where it is much flatter than the main leaf.
    #[default]
    ByCurvature,
    /// There is none.
    None,
    /// The leaf at this place, counted from the main leaf at nought, and every leaf under it.
    From(usize),
}

impl Pack {
    /// Place of the overload leaf; those under it bear with it.
    pub fn overload_leaf(&self) -> Option<usize> {
        match self.overload {
            OverloadLeaf::None => None,
            OverloadLeaf::From(place) => (1..self.leaves.len()).contains(&place).then_some(place),
            OverloadLeaf::ByCurvature => {
                let (main, last) = (self.leaves.first()?, self.leaves.last()?);
                let flat = self.leaves.len() > 1 && last.curvature.value < 0.5 * main.curvature.value.max(0.0);
                flat.then(|| self.leaves.len() - 1)
            }
        }
    }

    /// How many leaves there are over the overload leaf: all of them where there is none.
    pub fn ordinary_leaves(&self) -> usize {
        self.overload_leaf().unwrap_or(self.leaves.len())
    }
}
