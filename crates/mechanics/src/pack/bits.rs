//! The bolts and bits that follow from a pack.

use super::Pack;
use crate::side_effect::OutOfRange;
use crate::side_effect::fastening::UboltStack;
use crate::units::{Angle, InShopUnits, Length, inches, metres, radians};

/// What the bits hang on beside the pack.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BitsGiven {
    /// Inside of the U-bolt's bend to the top of tube and seat.
    pub tube_and_seat: Length,
    /// The plate under the nuts.
    pub plate: Length,
    /// A block between pack and seat; nought without one.
    pub block: Length,
    /// Diameter of the U-bolt's thread.
    pub u_bolt: Length,
}

/// The bits.
#[derive(Debug, Clone, PartialEq)]
pub struct Bits {
    /// All leaves and spacers at the centre bolt.
    pub stack: Length,
    /// Diameter of the centre bolt that is usual for the width; the leaves' own hole decides.
    pub centre_bolt: Length,
    /// Its length under the head, through the stack and its nut.
    pub centre_bolt_length: Length,
    /// Clips, one for each end of the leaves that want one.
    pub clips: Vec<Clip>,
    /// Length of a U-bolt's leg.
    pub u_bolt_leg: Length,
}

/// A clip round the leaves above the end of a short one.
#[derive(Debug, Clone, PartialEq)]
pub struct Clip {
    /// Place of the leaf it is riveted or bolted to.
    pub leaf: usize,
    /// Inside width: the widest leaf, and room to slide.
    pub width: Length,
    /// Inside height: every leaf from the main leaf down to this one, and room to move.
    pub height: Length,
}

/// Room that a clip leaves beside and over the leaves (common practice).
const CLIP_ROOM_IN: f64 = 1.0 / 16.0;
/// A turn of the seat under this wants no shim: half a degree (common practice).
const NO_SHIM_RAD: f64 = 0.0087;

/// Centre bolt by the leaf's width (common practice): width up to, diameter, in.
const CENTRE_BOLTS: [(f64, f64); 4] = [(2.01, 0.3125), (2.51, 0.375), (3.01, 0.5), (f64::INFINITY, 0.625)];

/// A nut is about seven eighths as thick as its thread (SAE J995 hex nuts, from memory).
const NUT_PER_DIAMETER: f64 = 0.875;
/// A plain washer, in.
const WASHER_IN: f64 = 0.1;

/// Pitch of the fine thread that such bolts have, by their diameter (UNF, ASME B1.1, from memory): diameter up to, threads per inch.
const FINE_THREADS: [(f64, f64); 7] =
    [(0.32, 24.0), (0.38, 24.0), (0.44, 20.0), (0.51, 20.0), (0.57, 18.0), (0.64, 18.0), (f64::INFINITY, 16.0)];

/// The shim that brings a seat back that was turned by so much, its tilt after less before; `None` where it hardly turned.
pub fn shim_for(turned: Angle) -> Option<Angle> {
    (turned.value.abs() > NO_SHIM_RAD).then(|| radians(-turned.value))
}

fn by_size(table: &[(f64, f64)], size: Length) -> f64 {
    table.iter().find(|(up_to, _)| size.customary() <= *up_to).or(table.last()).map_or(0.0, |(_, value)| *value)
}

impl Bits {
    /// The bits of a pack.
    ///
    /// # Errors     [`OutOfRange`] names what was given and cannot be
    pub fn of(pack: &Pack, given: &BitsGiven) -> Result<Self, OutOfRange> {
        let stack = pack.stack();
        let width = pack.leaves.iter().map(|leaf| leaf.width).fold(metres(0.0), Length::max);
        let centre_bolt = inches(by_size(&CENTRE_BOLTS, width));
        let pitch = |diameter: Length| inches(1.0 / by_size(&FINE_THREADS, diameter));
        let nut = |diameter: Length| diameter * NUT_PER_DIAMETER;
        let leg = UboltStack {
            tube_and_seat: given.tube_and_seat,
            pack: stack,
            block: given.block,
            plate: given.plate,
            washer: inches(WASHER_IN),
            nut: nut(given.u_bolt),
            thread_pitch: pitch(given.u_bolt),
        };
        Ok(Bits {
            stack,
            centre_bolt,
            // Through the stack, the nut, and three threads showing.
            centre_bolt_length: stack + nut(centre_bolt) + 3.0 * pitch(centre_bolt),
            clips: clips(pack, width),
            u_bolt_leg: leg.leg()?,
        })
    }
}

/// Clips on the second and third leaf, where there are such that are shorter than the main leaf and no overload leaf.
fn clips(pack: &Pack, width: Length) -> Vec<Clip> {
    let room = inches(CLIP_ROOM_IN);
    let Some(main) = pack.leaves.first() else { return Vec::new() };
    let mut height = main.thickness;
    let mut clips = Vec::new();
    for (place, leaf) in pack.leaves.iter().enumerate().take(pack.ordinary_leaves()).skip(1) {
        height += leaf.thickness + leaf.spacer_above;
        let shorter = leaf.front + leaf.rear < (main.front + main.rear) * 0.98;
        if shorter && clips.len() < 2 {
            clips.push(Clip { leaf: place, width: width + 2.0 * room, height: height + room });
        }
    }
    clips
}
