//! What a sum is given: inputs as typed, read once into quantities.

use std::collections::BTreeMap;

use wise_badger_mechanics::side_effect::{Offending, OutOfRange};
use wise_badger_mechanics::tape::{TyreSizeError, WeightUnit};
use wise_badger_mechanics::units::{
    Angle, Force, Length, Moment, NEWTON_METRES_PER_POUND_FOOT, RollStiffness, SpringRate, metres, newton_metres_per_radian,
    newtons, newtons_per_metre, radians,
};

use crate::form::{Field, Picks, Sheet};
use crate::view::{Units, sentence};

/// One input of a sum.
pub(crate) struct Input {
    pub(crate) name: &'static str,
    pub(crate) label: &'static str,
    pub(crate) kind: InputKind,
    /// What stands in it at first.
    pub(crate) usual: &'static str,
}

/// What an input is read as.
#[derive(Clone, Copy)]
pub(crate) enum InputKind {
    /// A length, nought or more.
    Length,
    /// A length with a sign.
    SignedLength,
    Weight,
    Rate,
    /// An angle in degrees, with a sign.
    Degrees,
    /// A torque, in lb·ft or N·m.
    Torque,
    /// A number without a unit.
    Number,
    /// A tyre's size as it stands on its side.
    TyreSize,
    /// One of a few.
    Pick(&'static [(&'static str, &'static str)]),
}

impl Input {
    pub(crate) const fn new(name: &'static str, label: &'static str, kind: InputKind) -> Self {
        Input { name, label, kind, usual: "" }
    }

    /// With what stands in it at first: a figure common to most.
    pub(crate) const fn usual(self, usual: &'static str) -> Self {
        Input { usual, ..self }
    }

    /// The field that is typed into, unless it is a pick.
    pub(crate) fn field(&self, sheet: &Sheet) -> Option<Field> {
        let pounds = sheet.units().weight == WeightUnit::Pounds;
        Some(match self.kind {
            InputKind::Length | InputKind::SignedLength => sheet.length_field(self.name, self.label),
            InputKind::Weight => sheet.weight_field(self.name, self.label),
            InputKind::Rate => sheet.rate_field(self.name, self.label),
            InputKind::Degrees => sheet.number_field(self.name, self.label, "°"),
            InputKind::Torque => sheet.number_field(self.name, self.label, if pounds { "ft-lb" } else { "N·m" }),
            InputKind::Number => sheet.number_field(self.name, self.label, ""),
            InputKind::TyreSize => sheet.text_field(self.name, self.label).hint("as on its side: 245/75R16, 35x12.50R15"),
            InputKind::Pick(_) => return None,
        })
    }

    /// What may be picked, if it is a pick.
    pub(crate) fn picks(&self, sheet: &Sheet) -> Option<Picks> {
        if let InputKind::Pick(offered) = self.kind {
            Some(sheet.picks(self.name, self.label, offered.iter().copied()))
        } else {
            None
        }
    }
}

/// Why a sum has no answer.
#[derive(Debug, thiserror::Error)]
pub(crate) enum SumError {
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
    #[error(transparent)]
    Tyre(#[from] TyreSizeError),
    /// A sum that asks for what its table does not list.
    #[error("this sum lacks its {0}")]
    Lacks(&'static str),
}

impl SumError {
    /// In the reader's units.
    pub(crate) fn words(&self, units: Units) -> String {
        let SumError::OutOfRange(OutOfRange { what, value, range }) = self else {
            return format!("{}.", sentence(&self.to_string()));
        };
        let value = match *value {
            Offending::Length(length) => units.exact(length),
            Offending::Weight(force) => units.weight(force),
            Offending::Rate(rate) => units.rate(rate),
            Offending::Angle(angle) => InputValues::degrees(angle),
            Offending::Moment(moment) => torque_words(moment, units),
            Offending::Number(number) => format!("{number}"),
        };
        format!("{} is {value}, and must be {range}.", sentence(what))
    }
}

/// A torque, in whole units.
pub(crate) fn torque_words(moment: Moment, units: Units) -> String {
    match units.weight {
        WeightUnit::Pounds => format!("{:.0}\u{a0}ft-lb", moment.value / NEWTON_METRES_PER_POUND_FOOT),
        WeightUnit::Kilograms => format!("{:.0}\u{a0}N·m", moment.value),
    }
}

/// Inputs read, by name: SI values, and texts.
pub(crate) struct InputValues {
    pub(crate) units: Units,
    values: BTreeMap<&'static str, f64>,
    texts: BTreeMap<&'static str, String>,
}

impl InputValues {
    /// Reads every input; `None` with complaints on the sheet when any is wrong. Answers are written in `reader`'s units.
    pub(crate) fn read(inputs: &'static [Input], sheet: &mut Sheet, reader: Units) -> Option<InputValues> {
        let mut given = InputValues { units: reader, values: BTreeMap::new(), texts: BTreeMap::new() };
        for input in inputs {
            given.read_one(input, sheet);
        }
        sheet.is_sound().then_some(given)
    }

    fn read_one(&mut self, input: &'static Input, sheet: &mut Sheet) {
        let name = input.name;
        let value = match input.kind {
            InputKind::Length => sheet.length(name).map(|typed| typed.si),
            InputKind::SignedLength => sheet.signed_length(name).map(|typed| typed.si),
            InputKind::Weight => sheet.weight(name).map(|typed| typed.si),
            InputKind::Rate => sheet.rate(name).map(|typed| typed.si),
            InputKind::Degrees => sheet.number(name).map(f64::to_radians),
            InputKind::Torque => {
                let unit = if sheet.units().weight == WeightUnit::Pounds { NEWTON_METRES_PER_POUND_FOOT } else { 1.0 };
                sheet.number(name).map(|torque| torque * unit)
            }
            InputKind::Number => sheet.number(name),
            InputKind::TyreSize | InputKind::Pick(_) => {
                if !sheet.is_filled(name) {
                    sheet.refuse(name, "Give this too.");
                }
                self.texts.insert(name, sheet.text(name).to_owned());
                None
            }
        };
        if let Some(value) = value {
            self.values.insert(name, value);
        }
    }

    pub(crate) fn number(&self, name: &'static str) -> Result<f64, SumError> {
        self.values.get(name).copied().ok_or(SumError::Lacks(name))
    }

    pub(crate) fn length(&self, name: &'static str) -> Result<Length, SumError> {
        self.number(name).map(metres)
    }

    pub(crate) fn weight(&self, name: &'static str) -> Result<Force, SumError> {
        self.number(name).map(newtons)
    }

    pub(crate) fn rate(&self, name: &'static str) -> Result<SpringRate, SumError> {
        self.number(name).map(newtons_per_metre)
    }

    pub(crate) fn angle(&self, name: &'static str) -> Result<Angle, SumError> {
        self.number(name).map(radians)
    }

    pub(crate) fn torque(&self, name: &'static str) -> Result<Moment, SumError> {
        self.number(name).map(newton_metres_per_radian)
    }

    /// A roll stiffness typed as a torque per degree.
    pub(crate) fn roll_stiffness(&self, name: &'static str) -> Result<RollStiffness, SumError> {
        self.number(name).map(|per_degree| newton_metres_per_radian(per_degree.to_degrees()))
    }

    pub(crate) fn text(&self, name: &'static str) -> Result<&str, SumError> {
        self.texts.get(name).map(String::as_str).ok_or(SumError::Lacks(name))
    }

    /// An angle in words: degrees to a tenth.
    pub(crate) fn degrees(angle: Angle) -> String {
        let degrees = angle.value.to_degrees();
        let sign = if degrees <= -0.05 { "−" } else { "" };
        format!("{sign}{:.1}°", degrees.abs())
    }
}
