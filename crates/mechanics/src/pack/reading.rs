//! From what is read on the bench to leaves with their free curvature; what was not read is estimated, and said so.

use super::{Clamp, Leaf, Pack, PackError, radius_from_sagitta};
use crate::side_effect::leaf_end::chord;
use crate::units::{Curvature, InShopUnits, Length, metres, newtons, per_metre};

/// A leaf below bends sharper than the one above by this share, so that the pack is drawn together (common practice).
const SHARPER: f64 = 0.04;

/// The shortest leaf of a pack whose lengths are not known, as a share of the main leaf.
const SHORTEST: f64 = 0.4;

/// A leaf as read with the tape on the bench.
#[derive(Debug, Clone, PartialEq)]
pub struct LeafReading {
    /// What it is called.
    pub name: String,
    /// Its width.
    pub width: Length,
    /// Its thickness.
    pub thickness: Length,
    /// Along the leaf from the centre hole to its front end.
    pub front: Length,
    /// To its rear end.
    pub rear: Length,
    /// From the chord up to the leaf, free; negative when it is bent the other way. `None` when it was not read.
    pub arch: Option<Length>,
    /// Straight from end to end, free; `None` when it was not read.
    pub chord: Option<Length>,
    /// Thickness of a spacer between it and the leaf above.
    pub spacer_above: Length,
}

/// A whole pack as read on the bench.
#[derive(Debug, Clone, PartialEq)]
pub struct PackReading {
    /// From the main leaf down.
    pub leaves: Vec<LeafReading>,
    /// What the clamp takes out of the bending.
    pub clamp: Clamp,
    /// Arch of the main leaf with the pack bolted together and free of load, where it was read.
    pub pack_arch: Option<Length>,
}

/// What was not read, and is estimated.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Estimated {
    /// A leaf's chord, from its length and its arch.
    Chord(usize),
    /// A leaf's arch: as much sharper than the leaf above it as leaves usually are.
    ArchFromAbove(usize),
    /// The arch of every leaf that was not read, so that the pack stands as it was read.
    ArchFromPack,
    /// Lengths of the leaves under the main leaf: stepped evenly.
    SteppedLengths,
}

/// A pack made of readings.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadPack {
    /// The pack.
    pub pack: Pack,
    /// What about it is estimated.
    pub estimated: Vec<Estimated>,
}

impl PackReading {
    /// A pack of which only its arch, its count of leaves and its main leaf are known: the others step down evenly, the shortest to
    /// two fifths of the main leaf (common practice), or to one share of it where the leaves are few.
    pub fn stepped(main: LeafReading, count: u8, clamp: Clamp, pack_arch: Option<Length>) -> Self {
        let leaves = f64::from(count.max(1));
        let shortest = (1.0 / leaves).max(SHORTEST);
        let leaf = |index: u8| {
            let share = 1.0 - (1.0 - shortest) * f64::from(index) / (leaves - 1.0).max(1.0);
            // The shortest still reaches past the clamp.
            let reach = |half: Length, clamp: Length| (half * share).max(clamp + (half - clamp) * 0.2);
            LeafReading {
                name: if index == 0 { main.name.clone() } else { format!("Leaf {}", index + 1) },
                front: reach(main.front, clamp.front),
                rear: reach(main.rear, clamp.rear),
                arch: if index == 0 { main.arch } else { None },
                chord: if index == 0 { main.chord } else { None },
                ..main.clone()
            }
        };
        PackReading { leaves: (0..count).map(leaf).collect(), clamp, pack_arch }
    }

    /// The pack.
    ///
    /// # Errors     [`PackError::NoArch`] when neither the pack's arch nor the main leaf's was read; [`PackError::TooMuchArch`] for an
    /// arch past half its chord; otherwise as for any pack
    pub fn pack(&self) -> Result<ReadPack, PackError> {
        let mut estimated = Vec::new();
        let mut leaves: Vec<Leaf> = Vec::with_capacity(self.leaves.len());
        let mut any_unread = false;
        for (index, reading) in self.leaves.iter().enumerate() {
            let read = reading.arch.map(|arch| curvature(reading, arch)).transpose()?;
            if read.is_some() && reading.chord.is_none() && reading.arch.is_some_and(|arch| arch.si().abs() > 0.0) {
                estimated.push(Estimated::Chord(index));
            }
            let bent = match (read, leaves.last()) {
                (Some(read), _) => read,
                (None, Some(above)) => {
                    any_unread = true;
                    estimated.push(Estimated::ArchFromAbove(index));
                    above.curvature * (1.0 + SHARPER)
                }
                (None, None) => {
                    any_unread = true;
                    let length = reading.front + reading.rear;
                    let arch = self.pack_arch.ok_or(PackError::NoArch)?;
                    curvature(&LeafReading { chord: None, ..reading.clone() }, arch.min(length / 3.5))?
                }
            };
            leaves.push(Leaf {
                name: reading.name.clone(),
                width: reading.width,
                thickness: reading.thickness,
                front: reading.front,
                rear: reading.rear,
                curvature: bent,
                spacer_above: reading.spacer_above,
            });
        }
        let mut pack = Pack::of(leaves, self.clamp);
        pack.check()?;
        if let Some(arch) = self.pack_arch.filter(|_| any_unread) {
            // The arch read over the whole main leaf counts from the eyes' chord; the pack stands clamped.
            pack = pack.standing_at(over_the_clamp(&pack, arch), newtons(0.0))?.0;
            estimated.retain(|what| !matches!(what, Estimated::ArchFromAbove(_)));
            estimated.push(Estimated::ArchFromPack);
        }
        Ok(ReadPack { pack, estimated })
    }
}

/// Free curvature from an arch over a chord, or over what the leaf's length leaves of it.
fn curvature(reading: &LeafReading, arch: Length) -> Result<Curvature, PackError> {
    let too_much = || PackError::TooMuchArch(reading.name.clone());
    if arch.si().abs() <= 0.0 {
        return Ok(per_metre(0.0));
    }
    let length = reading.front + reading.rear;
    let over = match reading.chord {
        Some(chord) if chord > length * 1.01 => return Err(PackError::ChordPastLength(reading.name.clone())),
        Some(chord) => chord,
        None => chord(length, arch.abs()).map_err(|_past_a_half_circle| too_much())?,
    };
    let radius = radius_from_sagitta(arch, over).ok_or_else(too_much)?;
    Ok(per_metre(1.0 / radius.si()))
}

/// The part of a main leaf's arch that stands over the clamp's edges: what lies flat in the clamp adds nothing.
fn over_the_clamp(pack: &Pack, arch: Length) -> Length {
    let Some(main) = pack.leaves.first() else { return arch };
    let share = |half: Length, clamp: Length| ((half - clamp) / half).value;
    let (front, rear) = (share(main.front, pack.clamp.front), share(main.rear, pack.clamp.rear));
    metres(arch.si() * (front * front + rear * rear) / 2.0)
}
