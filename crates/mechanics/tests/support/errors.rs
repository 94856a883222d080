//! Made-up reading errors that are the same at every run.

/// A generator of normal errors: 64-bit linear congruence (Knuth's MMIX constants) and the sum of twelve uniforms.
pub(crate) struct Errors(u64);

impl Errors {
    pub(crate) fn new(seed: u64) -> Self {
        Errors(seed.wrapping_mul(0x9e37_79b9_7f4a_7c15))
    }

    #[allow(clippy::cast_precision_loss, reason = "53 bits fit")]
    pub(crate) fn uniform(&mut self) -> f64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 11) as f64 / (1_u64 << 53) as f64
    }

    pub(crate) fn normal(&mut self) -> f64 {
        (0..12).map(|_| self.uniform()).sum::<f64>() - 6.0
    }
}
