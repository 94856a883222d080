//! Inputs of a relation, held against the range it holds for.

use crate::units::{Angle, Force, InShopUnits, Length, Moment, SpringRate};

/// An input outside the range a relation holds for.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{what} is {}, and must be {range}", value.si())]
pub struct OutOfRange {
    /// Which input.
    pub what: &'static str,
    /// What it is, to be told in whatever units its reader has.
    pub value: Offending,
    /// What it must be.
    pub range: &'static str,
}

/// A figure that is out of range, with what it measures.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Offending {
    /// A length.
    Length(Length),
    /// A weight or another force.
    Weight(Force),
    /// A spring rate.
    Rate(SpringRate),
    /// An angle.
    Angle(Angle),
    /// A torque, or a roll stiffness.
    Moment(Moment),
    /// A number that measures nothing.
    Number(f64),
}

impl Offending {
    /// Its value in SI units.
    pub fn si(&self) -> f64 {
        match self {
            Offending::Length(length) => length.si(),
            Offending::Weight(force) => force.si(),
            Offending::Rate(rate) => rate.si(),
            Offending::Angle(angle) => angle.value,
            Offending::Moment(moment) => moment.value,
            Offending::Number(number) => *number,
        }
    }
}

macro_rules! offending {
    ($($Quantity:ty => $kind:ident),*) => {
        $(impl From<$Quantity> for Offending {
            fn from(quantity: $Quantity) -> Self {
                Offending::$kind(quantity)
            }
        })*
    };
}

offending!(Length => Length, Force => Weight, SpringRate => Rate, Angle => Angle, Moment => Moment, f64 => Number);

pub(crate) fn positive(what: &'static str, quantity: impl Into<Offending>) -> Result<f64, OutOfRange> {
    let value = quantity.into();
    within(what, value, value.si() > 0.0, "a finite number above zero")
}

pub(crate) fn within(
    what: &'static str,
    value: impl Into<Offending>,
    holds: bool,
    range: &'static str,
) -> Result<f64, OutOfRange> {
    let value = value.into();
    if value.si().is_finite() && holds { Ok(value.si()) } else { Err(OutOfRange { what, value, range }) }
}
