//! What the smith bends to: the arc of a leaf by its radius, its sagitta and its offsets from the chord.

use super::Leaf;
use crate::units::{Curvature, InShopUnits, Length, metres};

/// A leaf's free arc.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ArchSheet {
    /// From the centre hole along the leaf to its front end.
    pub front: Length,
    /// To its rear end.
    pub rear: Length,
    /// Free curvature, positive with the ends above the seat.
    pub curvature: Curvature,
}

/// How far the leaf stands off its chord at a place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Offset {
    /// Along the leaf from the centre hole; towards the rear positive.
    pub along: Length,
    /// From the chord to the leaf; of a leaf bent upwards at its ends, the leaf lies below the chord and this is positive.
    pub offset: Length,
}

impl ArchSheet {
    /// The arc of a leaf.
    pub fn of(leaf: &Leaf) -> Self {
        ArchSheet { front: leaf.front, rear: leaf.rear, curvature: leaf.curvature }
    }

    /// The same leaf bent otherwise.
    #[must_use]
    pub fn bent_to(self, curvature: Curvature) -> Self {
        ArchSheet { curvature, ..self }
    }

    /// Radius of the arc; `None` for a leaf that is flat.
    pub fn radius(&self) -> Option<Length> {
        (self.curvature.value.abs() > 1e-9).then(|| metres(1.0 / self.curvature.value))
    }

    fn half_turn(&self) -> f64 {
        (self.front + self.rear).si() * self.curvature.value / 2.0
    }

    /// Straight from end to end: `2R sin(L/2R)`.
    pub fn chord(&self) -> Length {
        let length = self.front + self.rear;
        match self.radius() {
            Some(radius) => radius * (2.0 * self.half_turn().sin()),
            None => length,
        }
    }

    /// From the chord to the middle of the arc: `R(1 − cos(L/2R))`.
    pub fn sagitta(&self) -> Length {
        self.radius().map_or(metres(0.0), |radius| radius * (1.0 - self.half_turn().cos()))
    }

    /// From the chord to the leaf at a place along it: `R(cos((s − m)/R) − cos(L/2R))`, `m` the middle of its length.
    pub fn offset(&self, along: Length) -> Length {
        let middle = (self.rear - self.front) / 2.0;
        let turned = (along - middle).si() * self.curvature.value;
        self.radius().map_or(metres(0.0), |radius| radius * (turned.cos() - self.half_turn().cos()))
    }

    /// Offsets at the centre hole and at every step from it to either end, from front to rear. The ends stand on the chord.
    pub fn offsets(&self, step: Length) -> Vec<Offset> {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a leaf is some metres long")]
        let steps = |half: Length| ((half / step).value - 1e-9).floor().clamp(0.0, 10_000.0) as u32;
        let ahead = (1..=steps(self.front)).rev().map(|count| -step * f64::from(count));
        let behind = (1..=steps(self.rear)).map(|count| step * f64::from(count));
        let places = ahead.chain(std::iter::once(metres(0.0))).chain(behind);
        places.map(|along| Offset { along, offset: self.offset(along) }).collect()
    }

    /// The arc drawn out: along the chord from the front end, and up from the chord (below it negative), so many pieces of it.
    pub fn arc(&self, pieces: u32) -> Vec<(Length, Length)> {
        let length = self.front + self.rear;
        (0..=pieces).map(|piece| self.on_arc(length * (f64::from(piece) / f64::from(pieces)))).collect()
    }

    /// The place on the arc that lies so far along the leaf from its front end.
    pub fn on_arc(&self, from_front: Length) -> (Length, Length) {
        let along = from_front - self.front;
        let middle = (self.rear - self.front) / 2.0;
        let turned = (along - middle).si() * self.curvature.value;
        let across = match self.radius() {
            Some(radius) => radius * (turned.sin() + self.half_turn().sin()),
            None => from_front,
        };
        (across, -self.offset(along))
    }
}
