//! Symmetric positive definite systems, dense and small, row by row. Raw `f64`.

/// Unknowns of a vehicle on two axles, the commonest there is: at a size known beforehand the loops are unrolled.
const TWO_AXLES: usize = 7;

/// Sum of the products.
pub(crate) fn dot(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(x, y)| x * y).sum()
}

/// Cholesky factor of `matrix + lent·I`, from and to lower halves, its diagonal turned upside down, since it is only ever
/// divided by; false when it is not positive definite.
pub(crate) fn factorise(matrix: &[f64], factor: &mut [f64], n: usize, lent: f64) -> bool {
    match n {
        TWO_AXLES => factorise_rows(matrix, factor, TWO_AXLES, lent),
        _ => factorise_rows(matrix, factor, n, lent),
    }
}

#[inline(always)]
#[expect(clippy::indexing_slicing, reason = "row and column are below n, and both matrices are n by n")]
fn factorise_rows(matrix: &[f64], factor: &mut [f64], n: usize, lent: f64) -> bool {
    for row in 0..n {
        let (above, this) = factor.split_at_mut(row * n);
        let (this, given) = (&mut this[..n], &matrix[row * n..row * n + n]);
        let mut left = given[row] + lent;
        for column in 0..row {
            let other = &above[column * n..column * n + n];
            let value = (given[column] - dot(&this[..column], &other[..column])) * other[column];
            this[column] = value;
            left -= value * value;
        }
        // Below this share of its own stiffness a pivot is rounding error.
        if left <= 1e-12 * (given[row].abs() + lent) {
            return false;
        }
        this[row] = left.sqrt().recip();
    }
    true
}

/// Solves for `x`, given as the right-hand side, with a factor made by [`factorise`].
pub(crate) fn solve_factorised(factor: &[f64], x: &mut [f64], n: usize) {
    match n {
        TWO_AXLES => solve_rows(factor, x, TWO_AXLES),
        _ => solve_rows(factor, x, n),
    }
}

#[inline(always)]
#[expect(clippy::indexing_slicing, reason = "row and column are below n, and the matrix is n by n")]
fn solve_rows(factor: &[f64], x: &mut [f64], n: usize) {
    for row in 0..n {
        let this = &factor[row * n..row * n + n];
        x[row] = (x[row] - dot(&this[..row], &x[..row])) * this[row];
    }
    for row in (0..n).rev() {
        let this = &factor[row * n..row * n + n];
        x[row] *= this[row];
        let solved = x[row];
        for (below, coefficient) in x[..row].iter_mut().zip(&this[..row]) {
            *below -= coefficient * solved;
        }
    }
}
