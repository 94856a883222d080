//! Forms as posted: what was typed, and what is wrong with it. Nothing typed is ever lost on the way.

pub(crate) mod aim;
pub(crate) mod bench;
pub(crate) mod call;
pub(crate) mod drive;
mod field;
pub(crate) mod goals;
pub(crate) mod intake;
pub(crate) mod intake_sheet;
pub(crate) mod load_plan;
pub(crate) mod look_over;
mod picks;
mod posted;
mod slider;
pub(crate) mod tape;
pub(crate) mod tape_states;
mod under;
pub(crate) mod work_plan;

pub(crate) use field::{Choice, Field, Tick};
pub(crate) use picks::{Part, Picks};
pub(crate) use posted::{Posted, SHOWN_AGAIN, asked_by_address, clean};
pub(crate) use slider::{Reach, Slider};

use std::collections::{BTreeMap, BTreeSet};

use wise_badger_casework::entry::{Typed, UnitWord};
use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::tape::{
    LengthUnit, TypedError, WeightUnit, parse_angle, parse_length, parse_pressure, parse_rate, parse_stress, parse_torque,
    parse_turns, parse_volume, parse_weight,
};
use wise_badger_mechanics::units::{InShopUnits, metres, newtons, newtons_per_metre, pascals};
use wise_badger_store::submission::Sending;

use self::posted::TOKEN;
use crate::error::WebError;
use crate::view::{Units, turns, typed_text};

/// Longest text taken in one ordinary field.
const LONGEST_TEXT: usize = 60;

/// One form: its texts by name, and the complaint about each that is wrong.
#[derive(Debug, Clone)]
pub(crate) struct Sheet {
    values: BTreeMap<String, String>,
    problems: BTreeMap<String, String>,
    /// What is asked about a field that is not refused.
    questions: BTreeMap<String, String>,
    /// Names whose text on file differs, with that text: shown when somebody else saved in between.
    on_file: BTreeMap<String, String>,
    /// Whether it goes by what is on file now, not by what its page was drawn from.
    compared: bool,
    /// Quantities by name as they were first typed, which a page shows in its reader's own way.
    first_typed: BTreeMap<String, Typed>,
    /// The units bare numbers are read in: those the page showed when it was drawn.
    units: Units,
    /// The path it was sent to, and the hash of what it held as it came.
    form: String,
    content_hash: String,
}

impl Sheet {
    /// An empty form whose bare numbers are in `units`.
    pub(crate) fn blank(units: Units) -> Self {
        let (values, problems, questions) = (BTreeMap::new(), BTreeMap::new(), BTreeMap::new());
        let (form, content_hash) = (String::new(), String::new());
        let (on_file, first_typed) = (BTreeMap::new(), BTreeMap::new());
        Sheet { values, problems, questions, on_file, compared: false, first_typed, units, form, content_hash }
    }

    /// A form as posted. It says itself in which units its page was drawn.
    pub(crate) fn posted(posted: Posted, reader: Units) -> Self {
        let mut sheet = Sheet::blank(reader);
        sheet.values.extend(posted.pairs);
        (sheet.form, sheet.content_hash) = (posted.form, posted.content_hash);
        match sheet.text("length_unit") {
            "in" => sheet.units.length = LengthUnit::Inches,
            "mm" => sheet.units.length = LengthUnit::Millimetres,
            _ => {}
        }
        match sheet.text("weight_unit") {
            "lb" => sheet.units.weight = WeightUnit::Pounds,
            "kg" => sheet.units.weight = WeightUnit::Kilograms,
            _ => {}
        }
        sheet
    }

    pub(crate) fn units(&self) -> Units {
        self.units
    }

    /// What stands in a field, trimmed.
    pub(crate) fn text(&self, name: &str) -> &str {
        self.values.get(name).map_or("", |text| text.trim())
    }

    /// What stands in a field, with every space that was typed: a password's count.
    pub(crate) fn as_typed(&self, name: &str) -> &str {
        self.values.get(name).map_or("", String::as_str)
    }

    pub(crate) fn is_filled(&self, name: &str) -> bool {
        !self.text(name).is_empty()
    }

    pub(crate) fn set(&mut self, name: &str, text: impl Into<String>) {
        self.values.insert(name.to_owned(), text.into());
    }

    /// Puts back what was typed before.
    pub(crate) fn set_typed(&mut self, name: &str, typed: &Typed) {
        self.set(name, typed_text(typed, self.units));
        self.first_typed.insert(name.to_owned(), typed.clone());
    }

    /// Lets every quantity that says what is on file keep the words and the unit it was first typed in.
    pub(crate) fn keep_words_of(&mut self, on_file: &Sheet) {
        self.first_typed.clone_from(&on_file.first_typed);
    }

    /// Notes what is wrong with a field; the first complaint stays.
    pub(crate) fn refuse(&mut self, name: &str, problem: impl Into<String>) {
        self.problems.entry(name.to_owned()).or_insert_with(|| problem.into());
    }

    /// Asks about what stands in a field; nothing is refused for it.
    pub(crate) fn question(&mut self, name: &str, question: impl Into<String>) {
        self.questions.entry(name.to_owned()).or_insert_with(|| question.into());
    }

    pub(crate) fn problem(&self, name: &str) -> &str {
        self.problems.get(name).map_or("", String::as_str)
    }

    /// Whether anything was refused of the fields whose names begin so: then whatever folds them away stands open.
    pub(crate) fn has_problem_in(&self, beginning: &str) -> bool {
        self.problems.keys().any(|name| name.starts_with(beginning))
    }

    /// Every complaint with the field it is about.
    pub(crate) fn problems(&self) -> impl Iterator<Item = (&str, &str)> {
        self.problems.iter().map(|(name, problem)| (name.as_str(), problem.as_str()))
    }

    pub(crate) fn is_sound(&self) -> bool {
        self.problems.is_empty()
    }

    /// How many fields are wrong.
    pub(crate) fn problem_count(&self) -> usize {
        self.problems.len()
    }

    /// Marks every field whose text differs from what is on file now.
    pub(crate) fn compare_with(&mut self, on_file: &Sheet) {
        self.go_by_the_file();
        let names: BTreeSet<&String> = self.values.keys().chain(on_file.values.keys()).collect();
        let differing = names.into_iter().filter(|name| self.text(name) != on_file.text(name));
        let told = |text: &str| if text.is_empty() { "nothing".to_owned() } else { text.to_owned() };
        self.on_file = differing.map(|name| (name.clone(), told(on_file.text(name)))).collect();
    }

    /// Lets it be sent again on the job as it stands now: whoever filled it in was told that it is not as it was.
    pub(crate) fn go_by_the_file(&mut self) {
        self.compared = true;
    }

    /// Whether it goes by what is on file now.
    pub(crate) fn is_compared(&self) -> bool {
        self.compared
    }

    /// A length counted upwards from nought; complains when absent or not understood.
    pub(crate) fn length(&mut self, name: &str) -> Option<Typed> {
        let typed = self.signed_length(name)?;
        self.above_nought(name, typed)
    }

    /// What was typed, unless it is below nought.
    fn above_nought(&mut self, name: &str, typed: Typed) -> Option<Typed> {
        if typed.si < 0.0 {
            let text = typed.text;
            self.refuse(name, format!("“{text}” is below zero; type how much, without a minus."));
            return None;
        }
        Some(typed)
    }

    /// A length with a sign.
    pub(crate) fn signed_length(&mut self, name: &str) -> Option<Typed> {
        let unit = self.units.length_word();
        self.quantity(name, unit, |text, units| parse_length(text, units.length).map(|length| length.si()))
    }

    /// A figure between its bounds; a length that is outside in the unit it was read in, and inside in another, is asked about
    /// with that.
    pub(crate) fn within(&mut self, name: &str, what: &str, typed: Typed, bound: &Bound) -> Option<Typed> {
        if bound.holds(typed.si) {
            return Some(typed);
        }
        let likely = if bound.dimension == Dimension::Length { likely_length(&typed, bound) } else { None };
        let guess = likely.map_or_else(String::new, |unit| format!(" Did you mean {} {unit}?", typed.text));
        self.refuse(name, format!("{}{guess}", outside(what, bound, self.units)));
        None
    }

    /// Refuses a figure that is outside its bounds, with what was likely meant.
    pub(crate) fn ask_about(&mut self, name: &str, what: &str, bound: &Bound) {
        if let Some(typed) = self.of_dimension(name, bound) {
            self.within(name, what, typed, bound);
        }
    }

    /// A figure of what a bound measures, with a sign where the bound lets it have one.
    pub(crate) fn of_dimension(&mut self, name: &str, bound: &Bound) -> Option<Typed> {
        let signed = bound.least < 0.0;
        match bound.dimension {
            Dimension::Length if signed => self.signed_length(name),
            Dimension::Length => self.length(name),
            Dimension::Weight => self.weight(name),
            Dimension::Rate if signed => self.signed_rate(name),
            Dimension::Rate => self.rate(name),
            Dimension::Pressure => self.pressure(name),
            Dimension::Count => self.turns(name),
        }
    }

    /// A weight.
    pub(crate) fn weight(&mut self, name: &str) -> Option<Typed> {
        let unit = self.units.weight_word();
        self.quantity(name, unit, |text, units| parse_weight(text, units.weight).map(|force| force.si()))
    }

    /// A volume of liquid.
    pub(crate) fn volume(&mut self, name: &str) -> Option<Typed> {
        let unit = if self.units.weight == WeightUnit::Pounds { UnitWord::Gal } else { UnitWord::L };
        self.quantity(name, unit, |text, units| parse_volume(text, units.weight).map(|volume| volume.si()))
    }

    /// An angle in degrees.
    pub(crate) fn angle(&mut self, name: &str) -> Option<Typed> {
        self.quantity(name, UnitWord::Deg, |text, _| parse_angle(text).map(|angle| angle.value))
    }

    /// A gauge pressure.
    pub(crate) fn pressure(&mut self, name: &str) -> Option<Typed> {
        let unit = if self.units.length == LengthUnit::Inches { UnitWord::Psi } else { UnitWord::Kpa };
        self.quantity(name, unit, |text, units| parse_pressure(text, units.length).map(|pressure| pressure.value))
    }

    /// A stress.
    pub(crate) fn stress(&mut self, name: &str) -> Option<Typed> {
        let unit = if self.units.length == LengthUnit::Inches { UnitWord::Ksi } else { UnitWord::Mpa };
        self.quantity(name, unit, |text, units| parse_stress(text, units.length).map(|stress| stress.value))
    }

    /// The turns of a coil.
    pub(crate) fn turns(&mut self, name: &str) -> Option<Typed> {
        self.quantity(name, UnitWord::Turns, |text, _| parse_turns(text))
    }

    /// A torque.
    pub(crate) fn torque(&mut self, name: &str) -> Option<Typed> {
        let unit = if self.units.weight == WeightUnit::Pounds { UnitWord::LbFt } else { UnitWord::Nm };
        self.quantity(name, unit, |text, units| parse_torque(text, units.weight).map(|torque| torque.value))
    }

    /// A weight that may be left out.
    pub(crate) fn optional_weight(&mut self, name: &str) -> Option<Typed> {
        if self.is_filled(name) { self.weight(name) } else { None }
    }

    /// A length that may be left out.
    pub(crate) fn optional_length(&mut self, name: &str) -> Option<Typed> {
        if self.is_filled(name) { self.length(name) } else { None }
    }

    /// A spring rate.
    pub(crate) fn rate(&mut self, name: &str) -> Option<Typed> {
        let typed = self.signed_rate(name)?;
        self.above_nought(name, typed)
    }

    /// A rate with a sign: what one spring has more than another.
    pub(crate) fn signed_rate(&mut self, name: &str) -> Option<Typed> {
        let unit = if self.units.weight == WeightUnit::Pounds { UnitWord::LbPerIn } else { UnitWord::NPerMm };
        self.quantity(name, unit, |text, units| parse_rate(text, units.weight).map(|rate| rate.si()))
    }

    /// A number without a unit, or in the one unit its field names.
    pub(crate) fn number(&mut self, name: &str) -> Option<f64> {
        let plain = self.text(name).replace('−', "-");
        let number = plain.parse::<f64>().ok().filter(|number| number.is_finite() && number.abs() < 1e9);
        if number.is_none() {
            self.refuse(name, format!("“{plain}” is not a number; type one like 2.5."));
        }
        number
    }

    fn quantity(&mut self, name: &str, unit: UnitWord, read: impl Fn(&str, Units) -> Result<f64, TypedError>) -> Option<Typed> {
        let text = self.text(name).to_owned();
        if text.chars().count() > LONGEST_TEXT {
            self.refuse(name, format!("That is longer than {LONGEST_TEXT} characters; type one figure."));
            return None;
        }
        match read(&text, self.units) {
            Ok(si) => {
                let same = |first: &&Typed| (first.si - si).abs() <= 1e-9 * si.abs();
                Some(self.first_typed.get(name).filter(same).cloned().unwrap_or(Typed { text, unit, si }))
            }
            Err(error) => {
                // A bare figure far too large in inches was read off a metric tape.
                let bare = text.chars().all(|sign| sign.is_ascii_digit() || " .,".contains(sign));
                let metric = unit == UnitWord::In && bare && matches!(error, TypedError::OutOfRange { .. });
                let guess = if metric { format!(" Did you mean {text} mm?") } else { String::new() };
                self.refuse(name, format!("{error}{guess}"));
                None
            }
        }
    }

    /// The revision of the job that the page showed.
    ///
    /// # Errors     [`WebError::Malformed`] when no page of ours would send such a one
    pub(crate) fn revision(&self) -> Result<i32, WebError> {
        self.text("revision").parse().map_err(|error| WebError::Malformed(format!("no revision: {error}")))
    }

    /// Which sending of which form this is.
    ///
    /// # Errors     [`WebError::Malformed`] when no page of ours would send such a one
    pub(crate) fn sending(&self) -> Result<Sending, WebError> {
        let token = posted::token(self.text(TOKEN))?;
        Ok(Sending { form: self.form.clone(), token, content_hash: self.content_hash.clone() })
    }
}

/// The other unit in which a bare length would lie within its bounds.
fn likely_length(typed: &Typed, bound: &Bound) -> Option<&'static str> {
    let (own, others) = match typed.unit {
        UnitWord::In => (0.0254, [("mm", 0.001), ("cm", 0.01), ("ft", 0.3048)]),
        _ => (0.001, [("cm", 0.01), ("in", 0.0254), ("m", 1.0)]),
    };
    // What was typed with its unit was meant.
    let bare = typed.text.chars().all(|sign| sign.is_ascii_digit() || " .,/-".contains(sign));
    let mut fitting = others.into_iter().filter(|(_, metres)| bare && bound.holds(typed.si / own * metres));
    fitting.next().map(|(unit, _)| unit)
}

/// A problem from the mechanics as a sentence of its own.
pub(crate) fn complete_sentence(text: &str) -> String {
    if text.ends_with('.') { text.to_owned() } else { format!("{text}.") }
}

/// A token for a form about to be drawn.
pub(crate) fn new_token() -> String {
    rand::distr::SampleString::sample_string(&rand::distr::Alphanumeric, &mut rand::rng(), 24)
}

/// Says the least and the most of something that is outside both.
fn outside(what: &str, bound: &Bound, units: Units) -> String {
    let [least, most] = [bound.least, bound.most].map(|si| match bound.dimension {
        Dimension::Length => units.height(metres(si)),
        Dimension::Weight => units.weight(newtons(si)),
        Dimension::Rate => units.rate(newtons_per_metre(si)),
        Dimension::Pressure => units.pressure(pascals(si)),
        Dimension::Count => turns(si),
    });
    format!("{what} is between {least} and {most}; check the figure and its unit.")
}
