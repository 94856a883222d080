//! Left and right of the vehicle, seen from the driver's seat.

/// One side of the vehicle, seen from the driver's seat.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Side {
    /// The left side, y negative.
    Left,
    /// The right side, y positive.
    Right,
}

impl Side {
    /// Left, then right.
    pub const BOTH: [Side; 2] = [Side::Left, Side::Right];

    /// The sign of the side's lateral position: −1 left, +1 right.
    pub fn sign(self) -> f64 {
        match self {
            Side::Left => -1.0,
            Side::Right => 1.0,
        }
    }

    /// The side's name as the documents write it.
    pub fn name(self) -> &'static str {
        match self {
            Side::Left => "left",
            Side::Right => "right",
        }
    }
}

/// A pair of like things, one a side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Sides<T> {
    /// The left one.
    pub left: T,
    /// The right one.
    pub right: T,
}

impl<T> Sides<T> {
    /// The same on both sides.
    pub fn both(value: T) -> Self
    where
        T: Clone,
    {
        Sides { left: value.clone(), right: value }
    }

    /// The one on `side`.
    pub fn get(&self, side: Side) -> &T {
        match side {
            Side::Left => &self.left,
            Side::Right => &self.right,
        }
    }

    /// The one on `side`, to change.
    pub fn get_mut(&mut self, side: Side) -> &mut T {
        match side {
            Side::Left => &mut self.left,
            Side::Right => &mut self.right,
        }
    }

    /// A pair made side by side.
    pub fn from_fn(mut make: impl FnMut(Side) -> T) -> Self {
        Sides { left: make(Side::Left), right: make(Side::Right) }
    }
}
