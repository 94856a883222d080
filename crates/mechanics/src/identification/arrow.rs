//! The curvature of an experiment is an arrow: what belongs to one state alone (its loads, how it settled) meets only itself and what
//! all states share. Solved state by state, hundreds of states cost hundreds of times as much as one, and not millions of times.
//! Raw SI `f64` inside.

use super::experiment::Unknown;
use crate::cholesky::{dot, factorise, solve_factorised};

/// Which figures all states share, and which belong to one.
pub(super) struct Layout {
    shared: Vec<usize>,
    of_state: Vec<Vec<usize>>,
}

/// A curvature made ready: factors of each state's own part, and of what is left for the shared figures.
pub(super) struct Arrow<'l> {
    layout: &'l Layout,
    states: Vec<Block>,
    /// Factor of the shared figures' curvature less what the states take of it.
    shared: Vec<f64>,
}

struct Block {
    factor: Vec<f64>,
    /// The state's own part, inverted, times what it has to do with the shared figures: a row for each own figure.
    to_shared: Vec<Vec<f64>>,
}

impl Layout {
    /// The layout of figures over so many states.
    pub(super) fn new(figures: &[Unknown], states: usize) -> Self {
        let mut layout = Layout { shared: Vec::new(), of_state: vec![Vec::new(); states] };
        for (place, figure) in figures.iter().enumerate() {
            match figure.owner().and_then(|state| layout.of_state.get_mut(state)) {
                Some(own) => own.push(place),
                None => layout.shared.push(place),
            }
        }
        layout
    }

    /// The figures that move a state's readings: its own, and those that all states share.
    pub(super) fn moving(&self, state: usize) -> impl Iterator<Item = usize> + '_ {
        self.of_state.get(state).into_iter().flatten().chain(&self.shared).copied()
    }

    /// Makes a curvature ready, given row by row; `None` where it is not positive definite.
    pub(super) fn factorise(&self, curvature: &[f64], n: usize) -> Option<Arrow<'_>> {
        let at = |row: usize, column: usize| curvature.get(row * n + column).copied().unwrap_or(f64::NAN);
        let m = self.shared.len();
        let mut left: Vec<f64> =
            self.shared.iter().flat_map(|row| self.shared.iter().map(move |column| at(*row, *column))).collect();
        let mut states = Vec::with_capacity(self.of_state.len());
        for own in &self.of_state {
            let size = own.len();
            let matrix: Vec<f64> = own.iter().flat_map(|row| own.iter().map(move |column| at(*row, *column))).collect();
            let mut factor = vec![0.0; size * size];
            if !factorise(&matrix, &mut factor, size, 0.0) {
                return None;
            }
            let mut to_shared = vec![vec![0.0; m]; size];
            for (place, column) in self.shared.iter().enumerate() {
                let mut solved: Vec<f64> = own.iter().map(|row| at(*row, *column)).collect();
                solve_factorised(&factor, &mut solved, size);
                for (row, value) in to_shared.iter_mut().zip(solved) {
                    if let Some(there) = row.get_mut(place) {
                        *there = value;
                    }
                }
            }
            for (row, one) in self.shared.iter().enumerate() {
                for column in 0..m {
                    let taken: f64 =
                        own.iter().zip(&to_shared).map(|(own, to)| at(*own, *one) * to.get(column).unwrap_or(&0.0)).sum();
                    if let Some(there) = left.get_mut(row * m + column) {
                        *there -= taken;
                    }
                }
            }
            states.push(Block { factor, to_shared });
        }
        let mut shared = vec![0.0; m * m];
        factorise(&left, &mut shared, m, 0.0).then_some(Arrow { layout: self, states, shared })
    }
}

impl Arrow<'_> {
    /// Solves for `x`, given as the right-hand side.
    pub(super) fn solve(&self, x: &mut [f64]) {
        let pick = |x: &[f64], places: &[usize]| -> Vec<f64> {
            places.iter().map(|place| x.get(*place).copied().unwrap_or(0.0)).collect()
        };
        let mut shared = pick(x, &self.layout.shared);
        let mut own_solved = Vec::with_capacity(self.states.len());
        for (own, block) in self.layout.of_state.iter().zip(&self.states) {
            let given = pick(x, own);
            for (value, to) in given.iter().zip(&block.to_shared) {
                shared.iter_mut().zip(to).for_each(|(shared, to)| *shared -= value * to);
            }
            let mut solved = given;
            solve_factorised(&block.factor, &mut solved, own.len());
            own_solved.push(solved);
        }
        solve_factorised(&self.shared, &mut shared, self.layout.shared.len());
        let mut put = |place: usize, value: f64| {
            if let Some(there) = x.get_mut(place) {
                *there = value;
            }
        };
        for ((own, block), solved) in self.layout.of_state.iter().zip(&self.states).zip(own_solved) {
            for ((place, value), to) in own.iter().zip(solved).zip(&block.to_shared) {
                put(*place, value - to.iter().zip(&shared).map(|(to, shared)| to * shared).sum::<f64>());
            }
        }
        self.layout.shared.iter().zip(shared).for_each(|(place, value)| put(*place, value));
    }

    /// Natural logarithm of the curvature's determinant.
    pub(super) fn log_determinant(&self) -> f64 {
        // A factor's diagonal is kept turned upside down.
        let of_factor =
            |factor: &[f64], n: usize| -2.0 * factor.iter().step_by(n + 1).map(|upside_down| upside_down.ln()).sum::<f64>();
        let states = self.layout.of_state.iter().zip(&self.states);
        states.map(|(own, block)| of_factor(&block.factor, own.len())).sum::<f64>()
            + of_factor(&self.shared, self.layout.shared.len())
    }

    /// The inverse, row by row: `T S⁻¹ Tᵀ` with the shared figures' own `S⁻¹` and a row of `T` for every figure, and each state's own
    /// part inverted.
    pub(super) fn inverse(&self, n: usize) -> Vec<f64> {
        let m = self.layout.shared.len();
        let mut to_shared = vec![vec![0.0; m]; n];
        for (place, figure) in self.layout.shared.iter().enumerate() {
            if let Some(there) = to_shared.get_mut(*figure).and_then(|row| row.get_mut(place)) {
                *there = 1.0;
            }
        }
        let own = || self.layout.of_state.iter().zip(&self.states);
        for (figure, to) in own().flat_map(|(own, block)| own.iter().zip(&block.to_shared)) {
            if let Some(row) = to_shared.get_mut(*figure) {
                *row = to.iter().map(|to| -to).collect();
            }
        }
        let mut inverse = Vec::with_capacity(n * n);
        for row in &to_shared {
            let mut by_shared = row.clone();
            solve_factorised(&self.shared, &mut by_shared, m);
            inverse.extend(to_shared.iter().map(|to| dot(&by_shared, to)));
        }
        for (own, block) in own() {
            for (place, column) in own.iter().enumerate() {
                let mut solved: Vec<f64> = (0..own.len()).map(|row| if row == place { 1.0 } else { 0.0 }).collect();
                solve_factorised(&block.factor, &mut solved, own.len());
                for (row, value) in own.iter().zip(solved) {
                    if let Some(there) = inverse.get_mut(row * n + column) {
                        *there += value;
                    }
                }
            }
        }
        inverse
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        /// State by state comes to what the whole matrix comes to at once.
        #[test]
        fn an_arrow_is_solved_as_the_whole_matrix_is(slopes in prop::collection::vec(-1.0..1.0_f64, 4 * 3 * 5), given in prop::collection::vec(-1.0..1.0_f64, 14)) {
            // Two shared figures, and three of each of four states: rows of readings that know of those alone.
            let n = 14;
            let layout = Layout { shared: vec![0, 7], of_state: vec![vec![1, 2, 3], vec![4, 5, 6], vec![8, 9, 10], vec![11, 12, 13]] };
            let mut curvature: Vec<f64> = (0..n * n).map(|place| if place % (n + 1) == 0 { 0.5 } else { 0.0 }).collect();
            for (reading, row) in slopes.chunks(5).enumerate() {
                let moving: Vec<usize> = layout.moving(reading % 4).collect();
                for (one, a) in moving.iter().zip(row) {
                    for (other, b) in moving.iter().zip(row) {
                        if let Some(there) = curvature.get_mut(one * n + other) {
                            *there += a * b;
                        }
                    }
                }
            }
            let (mut factor, mut whole, mut parted) = (vec![0.0; n * n], given.clone(), given.clone());
            prop_assert!(factorise(&curvature, &mut factor, n, 0.0));
            solve_factorised(&factor, &mut whole, n);
            let arrow = layout.factorise(&curvature, n).expect("positive definite");
            arrow.solve(&mut parted);
            let of_whole: f64 = factor.iter().step_by(n + 1).map(|upside_down| -2.0 * upside_down.ln()).sum();
            prop_assert!((of_whole - arrow.log_determinant()).abs() < 1e-9);
            let by_inverse = arrow.inverse(n).chunks(n).map(|row| dot(row, &given)).collect::<Vec<_>>();
            prop_assert!(whole.iter().zip(&by_inverse).all(|(whole, by)| (whole - by).abs() < 1e-9), "{whole:?} {by_inverse:?}");
            prop_assert!(whole.iter().zip(&parted).all(|(whole, parted)| (whole - parted).abs() < 1e-9), "{whole:?} {parted:?}");
        }
    }
}
