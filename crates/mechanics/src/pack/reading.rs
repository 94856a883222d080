//! From what is read on the bench to leaves with their free curvature; what was not read is estimated, and said so.

use super::{Clamp, Leaf, OverloadLeaf, Pack, PackError, radius_from_sagitta};
use crate::side_effect::leaf_end::chord;
use crate::units::{Curvature, InShopUnits, Length, metres, newtons, per_metre};

/// A leaf below bends sharper than the one above by this share, so that the pack is drawn together (common practice).
const SHARPER: f64 = 0.04;

/// The shortest leaf of a pack whose lengths are not known, as a share of the main leaf (common practice).
const SHORTEST: f64 = 0.4;

/// A leaf as read with the tape on the bench; `None` is what was not read. Of the main leaf all but its arch and chord must be.
#[derive(Debug, Clone, PartialEq)]
pub struct LeafReading {
    /// What it is called.
    pub name: String,
    /// Its width.
    pub width: Option<Length>,
    /// Its thickness.
    pub thickness: Option<Length>,
    /// Along the leaf from the centre hole to its front end.
    pub front: Option<Length>,
    /// To its rear end.
    pub rear: Option<Length>,
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
    /// Which of them is the overload leaf.
    pub overload: OverloadLeaf,
}

/// What was not read, and is estimated.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Estimated {
    /// A leaf's chord, from its length and its arch.
    Chord(usize),
    /// A leaf's arch: as much sharper than the leaf above it as leaves usually are.
    ArchFromAbove(usize),
    /// The arch of an overload leaf, or of one under it: flat, as they usually are.
    Flat(usize),
    /// The arch of every leaf that was not read, so that the pack stands as it was read.
    ArchFromPack,
    /// A leaf's length, one half or both: stepped evenly between the leaves that were read, or down to the shortest.
    Length(usize),
    /// A leaf's width or thickness: that of the leaf above it.
    Section(usize),
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
    /// The pack.
    ///
    /// # Errors     [`PackError::NoArch`] when neither the pack's arch nor the main leaf's was read; [`PackError::NotRead`] for a
    /// size of the main leaf that was not; [`PackError::TooMuchArch`] for an arch past half its chord; otherwise as for any pack
    pub fn pack(&self) -> Result<ReadPack, PackError> {
        let (mut pack, mut estimated, any_unread) = self.leaf_by_leaf(None)?;
        if let Some(arch) = self.pack_arch.filter(|_| any_unread) {
            // The arch read over the whole main leaf counts from the eyes' chord; the pack stands clamped.
            let marked = pack.overload;
            pack = pack.standing_at(over_the_clamp(&pack, arch), newtons(0.0))?.0;
            pack.overload = marked;
            estimated.retain(|what| !matches!(what, Estimated::ArchFromAbove(_)));
            estimated.push(Estimated::ArchFromPack);
        }
        Ok(ReadPack { pack, estimated })
    }

    /// The pack made of one that was there before: leaves are known again by their names, and what is not read of them is what it was.
    /// The arch of the bolted pack was read before, and says nothing of this one.
    ///
    /// # Errors     as [`Self::pack`]
    pub fn pack_after(&self, before: &Pack) -> Result<ReadPack, PackError> {
        let (pack, estimated, _) = self.leaf_by_leaf(Some(before))?;
        Ok(ReadPack { pack, estimated })
    }

    /// The pack as its leaves were read each by itself, what was not read estimated, and whether any arch that is to be found was not.
    fn leaf_by_leaf(&self, before: Option<&Pack>) -> Result<(Pack, Vec<Estimated>, bool), PackError> {
        let was = |name: &str| before?.leaves.iter().find(|leaf| leaf.name == name);
        let mut estimated = Vec::new();
        let mut leaves = self.sizes(&was, &mut estimated)?;
        let mut any_unread = false;
        for (index, reading) in self.leaves.iter().enumerate() {
            let Some((above, [leaf, ..])) = leaves.split_at_mut_checked(index) else { break };
            if let Some(before) = was(&reading.name).filter(|_| reading.arch.is_none()) {
                leaf.curvature = before.curvature;
                continue;
            }
            let read = reading.arch.map(|arch| curvature(leaf, reading.chord, arch)).transpose()?;
            if read.is_some() && reading.chord.is_none() && reading.arch.is_some_and(|arch| arch.si().abs() > 0.0) {
                estimated.push(Estimated::Chord(index));
            }
            if read.is_none() && matches!(self.overload, OverloadLeaf::From(place) if (1..=index).contains(&place)) {
                estimated.push(Estimated::Flat(index));
                continue;
            }
            any_unread |= read.is_none();
            leaf.curvature = match (read, above.last()) {
                (Some(read), _) => read,
                (None, Some(above)) => {
                    estimated.push(Estimated::ArchFromAbove(index));
                    above.curvature * (1.0 + SHARPER)
                }
                (None, None) => {
                    let arch = self.pack_arch.ok_or(PackError::NoArch)?;
                    curvature(leaf, None, arch.min((leaf.front + leaf.rear) / 3.5))?
                }
            };
        }
        let pack = Pack { overload: self.overload, ..Pack::of(leaves, self.clamp) };
        pack.check()?;
        Ok((pack, estimated, any_unread))
    }

    /// The leaves with their sizes, flat.
    fn sizes<'a>(&self, was: &impl Fn(&str) -> Option<&'a Leaf>, estimated: &mut Vec<Estimated>) -> Result<Vec<Leaf>, PackError> {
        let readings: Vec<LeafReading> = self.leaves.iter().map(|reading| reading.with_sizes_of(was(&reading.name))).collect();
        let fronts = stepped(&readings.iter().map(|leaf| leaf.front).collect::<Vec<_>>());
        let rears = stepped(&readings.iter().map(|leaf| leaf.rear).collect::<Vec<_>>());
        let mut leaves: Vec<Leaf> = Vec::with_capacity(readings.len());
        for (index, (reading, (front, rear))) in readings.iter().zip(fronts.into_iter().zip(rears)).enumerate() {
            let above = leaves.last();
            let not_read = |what| PackError::NotRead { leaf: reading.name.clone(), what };
            let width = reading.width.or(above.map(|above| above.width)).ok_or_else(|| not_read("width"))?;
            let thickness = reading.thickness.or(above.map(|above| above.thickness)).ok_or_else(|| not_read("thickness"))?;
            let (front, rear) = (front.ok_or_else(|| not_read("front half"))?, rear.ok_or_else(|| not_read("rear half"))?);
            if reading.front.is_none() || reading.rear.is_none() {
                estimated.push(Estimated::Length(index));
            }
            if reading.width.is_none() || reading.thickness.is_none() {
                estimated.push(Estimated::Section(index));
            }
            leaves.push(Leaf {
                name: reading.name.clone(),
                width,
                thickness,
                // The shortest still reaches past the clamp.
                front: front.max(if reading.front.is_none() { self.clamp.front * 1.3 } else { front }),
                rear: rear.max(if reading.rear.is_none() { self.clamp.rear * 1.3 } else { rear }),
                curvature: per_metre(0.0),
                spacer_above: reading.spacer_above,
            });
        }
        Ok(leaves)
    }
}

impl LeafReading {
    /// What was not read of it taken from the leaf that it was before.
    fn with_sizes_of(&self, before: Option<&Leaf>) -> Self {
        let size = |read: Option<Length>, of: fn(&Leaf) -> Length| read.or(before.map(of));
        LeafReading {
            width: size(self.width, |leaf| leaf.width),
            thickness: size(self.thickness, |leaf| leaf.thickness),
            front: size(self.front, |leaf| leaf.front),
            rear: size(self.rear, |leaf| leaf.rear),
            ..self.clone()
        }
    }
}

/// Lengths with those that were not read stepped evenly between their neighbours that were; below the last of these down to two fifths
/// of the main leaf, or to one share of it where the leaves are few.
fn stepped(read: &[Option<Length>]) -> Vec<Option<Length>> {
    #[expect(clippy::cast_precision_loss, reason = "a pack has few leaves")]
    let number = |count: usize| count as f64;
    let Some(Some(main)) = read.first().copied() else { return read.to_vec() };
    let last = read.len() - 1;
    let shortest = main * (1.0 / number(read.len())).max(SHORTEST);
    let known = |range: std::ops::Range<usize>| range.filter_map(|index| Some((index, read.get(index).copied()??)));
    let step = |index: usize| {
        let (above, long) = known(0..index + 1).next_back().unwrap_or((0, main));
        let (below, short) = known(index + 1..read.len()).next().unwrap_or((last, shortest.min(long)));
        let apart = number(below - above).max(1.0);
        long + (short - long) * (number(index - above) / apart)
    };
    (0..read.len()).map(|index| read.get(index).copied().flatten().or_else(|| Some(step(index)))).collect()
}

/// Free curvature from an arch over a chord, or over what the leaf's length leaves of it.
fn curvature(leaf: &Leaf, chord_read: Option<Length>, arch: Length) -> Result<Curvature, PackError> {
    let too_much = || PackError::TooMuchArch(leaf.name.clone());
    if arch.si().abs() <= 0.0 {
        return Ok(per_metre(0.0));
    }
    let length = leaf.front + leaf.rear;
    let over = match chord_read {
        Some(chord) if chord > length * 1.01 => return Err(PackError::ChordPastLength(leaf.name.clone())),
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
