//! Arcs, and what bending as far as a truck spring does adds to the small-slope height.

use crate::units::{InShopUnits, Length, metres};

/// Radius of an arc from its sagitta over a chord: `R = S/2 + C²/(8S)`.
///
/// # Sign       the radius has the sagitta's sign
/// # Valid      `0 < |S| ≤ C/2`: past half the chord it is no leaf's arc
/// # Errors     `None` outside that
/// # Source     geometry of the circle
/// # Example
/// ```
/// use wise_badger_mechanics::pack::radius_from_sagitta;
/// use wise_badger_mechanics::units::{InShopUnits, inches};
/// let radius = radius_from_sagitta(inches(5.0), inches(50.0)).expect("an arc");
/// assert!((radius.customary() - 65.0).abs() < 1e-9);
/// ```
pub fn radius_from_sagitta(sagitta: Length, chord: Length) -> Option<Length> {
    let (s, c) = (sagitta.si(), chord.si());
    let is_arc = s.abs() > 0.0 && s.abs() <= c / 2.0;
    is_arc.then(|| metres(s / 2.0 + c * c / (8.0 * s)))
}

/// Sagitta of an arc of a radius over a chord: `S = R − √(R² − C²/4)`, [`radius_from_sagitta`] turned round.
///
/// # Valid      `C ≤ 2|R|`; `None` outside that
/// # Source     geometry of the circle
pub fn sagitta_of_arc(radius: Length, chord: Length) -> Option<Length> {
    let (r, c) = (radius.si(), chord.si());
    let under = r * r - c * c / 4.0;
    (under >= 0.0).then(|| metres(r - r.signum() * under.sqrt()))
}

/// Slope of the end, past flat, up to which contact that slides along the leaves may be left out.
const STEEPEST_PAST_FLAT: f64 = -0.2;
/// Where the fifth-order terms that are left out, about `0.0065 (b' − 1.2 a')⁵` of the length, come to a quarter of a hundredth of it.
const FURTHEST_APART: f64 = 0.8;
/// Slope of the unloaded end up to which they stay as small where the load's share goes with the arch's and hides them from
/// [`FURTHEST_APART`].
const STEEPEST_ARCH: f64 = 1.2;

/// The eye's true height over the clamp's edge from the small-slope one: with `a' = 2H₀/l` and `b' = 3(H₀ − H)/l`,
/// `H_true = H + l(−a'³/24 + 3a'²b'/20 − 11a'b'²/80 + 4b'³/105)`.
///
/// `assembled` is the height of that half with no load, `active` the main leaf's active length there.
///
/// # Valid      by slopes: the end no steeper than 0.2 past flat (`a' − b'/2 ≥ −0.2`), the load's share no further from the arch's
/// than `|b' − 1.2 a'| ≤ 0.8`, and an arch of no more than `a' ≤ 1.2` (0.6 of the half's length), where what is left out stays
/// under a quarter of a hundredth of the length: within 0.2 mm of the exact elastica for arches of 100 to 250 mm down to
/// `−0.3 H₀`. `None` outside that
/// # Source     third-order expansion of the elastica; held against the exact curve in the tests
pub fn arch_with_large_deflection(height: Length, assembled: Length, active: Length) -> Option<Length> {
    let (h, h0, l) = (height.si(), assembled.si(), active.si());
    let (a, b) = (2.0 * h0 / l, 3.0 * (h0 - h) / l);
    if a - b / 2.0 < STEEPEST_PAST_FLAT || (b - 1.2 * a).abs() > FURTHEST_APART || a > STEEPEST_ARCH {
        return None;
    }
    let added = -a.powi(3) / 24.0 + 3.0 * a * a * b / 20.0 - 11.0 * a * b * b / 80.0 + 4.0 * b.powi(3) / 105.0;
    Some(metres(h + l * added))
}
