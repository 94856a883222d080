//! The leaves unbolted, laid on each other in their order.

use super::{Leaf, LeafLine, Pack};
use crate::units::{InShopUnits, Length, metres};

impl Pack {
    /// How the leaves lie before the centre bolt draws them together: each as close under the one above as it comes, from the
    /// middle line of the main leaf at its centre hole. What is open between them there is the nip.
    pub fn loose_lines(&self, steps: u32) -> Vec<LeafLine> {
        let mut lines: Vec<LeafLine> = Vec::with_capacity(self.leaves.len());
        let mut seat = 0.0;
        let mut above: Option<&Leaf> = None;
        for leaf in &self.leaves {
            if let Some(above) = above {
                let thick = (above.thickness + leaf.thickness).si() / 2.0 + leaf.spacer_above.si();
                seat -= thick + stands_off(above, leaf, steps);
            }
            let place = |half: Length, sign: f64, step: u32| {
                let along = half.si() * f64::from(step) / f64::from(steps);
                let (across, up) = arc(leaf, along);
                (metres(sign * across), metres(seat + up))
            };
            let mut points: Vec<_> = (0..=steps).map(|step| place(leaf.front, -1.0, step)).collect();
            points.reverse();
            points.extend((0..=steps).map(|step| place(leaf.rear, 1.0, step)));
            lines.push(LeafLine { points });
            above = Some(leaf);
        }
        lines
    }

    /// What stands open at the centre bolt between each leaf and the one above it, before they are drawn together: its nip.
    pub fn nips(&self) -> Vec<Length> {
        let pairs = self.leaves.iter().zip(self.leaves.iter().skip(1));
        pairs.map(|(above, leaf)| metres(stands_off(above, leaf, 40))).collect()
    }
}

/// Where a leaf's arc stands so far along it from the centre hole: across and up.
fn arc(leaf: &Leaf, along: f64) -> (f64, f64) {
    let bend = leaf.curvature.value;
    let turned = along * bend;
    if turned.abs() < 1e-9 { (along, 0.0) } else { (turned.sin() / bend, (1.0 - turned.cos()) / bend) }
}

/// How far a leaf stands off the one above at the centre hole because its ends reach it first.
fn stands_off(above: &Leaf, leaf: &Leaf, steps: u32) -> f64 {
    let halves = [(above.front.min(leaf.front)), (above.rear.min(leaf.rear))];
    let rises = |leaf: &Leaf, along: f64| leaf.curvature.value * along * along / 2.0;
    let at = |half: Length| {
        (0..=steps).map(move |step| {
            let along = half.si() * f64::from(step) / f64::from(steps);
            rises(leaf, along) - rises(above, along)
        })
    };
    halves.into_iter().flat_map(at).fold(0.0, f64::max)
}
