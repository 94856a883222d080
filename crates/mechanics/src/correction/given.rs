//! The figures of a correction by their names, as documents and forms hold them.

use crate::bound::Dimension;
use crate::pack::Pack;
use crate::stance::ForceTable;
use crate::units::{Force, InShopUnits, Length, Pressure, SpringRate, metres, newtons, newtons_per_metre, pascals};

/// A figure, whatever it measures.
#[derive(Debug, Clone, PartialEq)]
pub enum Quantity {
    /// A length.
    Length(Length),
    /// A weight or another force.
    Weight(Force),
    /// A spring rate.
    Rate(SpringRate),
    /// A gauge pressure.
    Pressure(Pressure),
    /// A count that need not be whole.
    Count(f64),
    /// A force against a travel.
    Table(ForceTable),
    /// A leaf pack.
    Pack(Box<Pack>),
}

impl Quantity {
    /// One number of a dimension, in SI units.
    pub fn of(dimension: Dimension, si: f64) -> Self {
        match dimension {
            Dimension::Length => Quantity::Length(metres(si)),
            Dimension::Weight => Quantity::Weight(newtons(si)),
            Dimension::Rate => Quantity::Rate(newtons_per_metre(si)),
            Dimension::Pressure => Quantity::Pressure(pascals(si)),
            Dimension::Count => Quantity::Count(si),
        }
    }

    /// Its value in SI units, where it is one number.
    pub fn si(&self) -> Option<f64> {
        match self {
            Quantity::Length(length) => Some(length.si()),
            Quantity::Weight(force) => Some(force.si()),
            Quantity::Rate(rate) => Some(rate.si()),
            Quantity::Pressure(pressure) => Some(pressure.si()),
            Quantity::Count(count) => Some(*count),
            Quantity::Table(_) | Quantity::Pack(_) => None,
        }
    }
}

/// Figures by name.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Given(Vec<(&'static str, Quantity)>);

impl Given {
    /// One more figure.
    #[must_use]
    pub fn with(mut self, name: &'static str, quantity: Quantity) -> Self {
        self.0.push((name, quantity));
        self
    }

    /// The same of a length.
    #[must_use]
    pub fn with_length(self, name: &'static str, length: Length) -> Self {
        self.with(name, Quantity::Length(length))
    }

    /// The same of a weight.
    #[must_use]
    pub fn with_weight(self, name: &'static str, weight: Force) -> Self {
        self.with(name, Quantity::Weight(weight))
    }

    /// The same of a rate.
    #[must_use]
    pub fn with_rate(self, name: &'static str, rate: SpringRate) -> Self {
        self.with(name, Quantity::Rate(rate))
    }

    /// The same of a pressure.
    #[must_use]
    pub fn with_pressure(self, name: &'static str, pressure: Pressure) -> Self {
        self.with(name, Quantity::Pressure(pressure))
    }

    /// The same with another figure in the place of one of a name.
    #[must_use]
    pub(super) fn replacing(mut self, name: &str, quantity: Quantity) -> Self {
        if let Some((_, of_name)) = self.0.iter_mut().find(|(of, _)| *of == name) {
            *of_name = quantity;
        }
        self
    }

    /// Every figure with its name.
    pub fn each(&self) -> impl Iterator<Item = (&'static str, &Quantity)> {
        self.0.iter().map(|(name, quantity)| (*name, quantity))
    }

    /// The figure of a name.
    pub fn get(&self, name: &str) -> Option<&Quantity> {
        self.0.iter().find(|(of, _)| *of == name).map(|(_, quantity)| quantity)
    }

    /// A length by its name.
    pub fn length(&self, name: &str) -> Option<Length> {
        match self.get(name)? {
            Quantity::Length(length) => Some(*length),
            _ => None,
        }
    }

    /// A weight by its name.
    pub fn weight(&self, name: &str) -> Option<Force> {
        match self.get(name)? {
            Quantity::Weight(force) => Some(*force),
            _ => None,
        }
    }

    /// A rate by its name.
    pub fn rate(&self, name: &str) -> Option<SpringRate> {
        match self.get(name)? {
            Quantity::Rate(rate) => Some(*rate),
            _ => None,
        }
    }

    /// A pressure by its name.
    pub fn pressure(&self, name: &str) -> Option<Pressure> {
        match self.get(name)? {
            Quantity::Pressure(pressure) => Some(*pressure),
            _ => None,
        }
    }

    /// A count by its name.
    pub fn count(&self, name: &str) -> Option<f64> {
        match self.get(name)? {
            Quantity::Count(count) => Some(*count),
            _ => None,
        }
    }

    /// A force table by its name.
    pub fn table(&self, name: &str) -> Option<&ForceTable> {
        match self.get(name)? {
            Quantity::Table(table) => Some(table),
            _ => None,
        }
    }

    /// A pack by its name.
    pub fn pack(&self, name: &str) -> Option<&Pack> {
        match self.get(name)? {
            Quantity::Pack(pack) => Some(pack),
            _ => None,
        }
    }
}
