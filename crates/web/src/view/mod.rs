//! Numbers to text: every figure a page shows is written here, with its unit.

pub(crate) mod aim;
pub(crate) mod bench;
pub(crate) mod call;
mod caution;
pub(crate) mod comparison;
pub(crate) mod consequence;
mod figure;
pub(crate) mod finder;
pub(crate) mod glance;
pub(crate) mod help;
pub(crate) mod intake;
pub(crate) mod load_plan;
pub(crate) mod look_over;
mod moment;
pub(crate) mod overload;
pub(crate) mod pack_error;
pub(crate) mod prediction;
pub(crate) mod proof;
pub(crate) mod shelf;
pub(crate) mod slips;
pub(crate) mod story;
pub(crate) mod verdict;
pub(crate) mod visit;
pub(crate) mod what_if;
pub(crate) mod why;
pub(crate) mod work_plan;
pub(crate) mod wrench;

pub(crate) use caution::{Cautions, caution_text};
pub(crate) use figure::{Figure, Opened, Sum, Tone};
pub(crate) use moment::{ago, clock, day_of, moment};

use wise_badger_casework::entry::{BareUnits, Currency, Typed, TypedIn, UnitWord};
use wise_badger_casework::reading::Place;
use wise_badger_casework::survey::{End, LoadState, RearWheels, Survey, VehicleClass};
use wise_badger_casework::verdict::Rated;
use wise_badger_mechanics::tape::{Datum, LengthUnit, WeightUnit, format_length, format_rate, format_weight};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{
    Angle, Force, Frequency, InShopUnits, Length, METRES_PER_INCH, NEWTONS_PER_POUND, Pressure, STANDARD_GRAVITY, SpringRate,
    inches, kilograms, nearest_step, pounds,
};

/// The units a person reads.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Units {
    pub(crate) length: LengthUnit,
    pub(crate) weight: WeightUnit,
    /// What the shop reckons in.
    pub(crate) currency: Currency,
}

impl Units {
    /// As the units that a figure of the program's own is typed in.
    pub(crate) fn typed_in(self) -> TypedIn {
        TypedIn { length: self.length, weight: self.weight }
    }

    /// A height as the tape reads it: to 1/16 in, or to the millimetre.
    pub(crate) fn height(self, height: Length) -> String {
        together(&format_length(height, self.length, 16))
    }

    /// A change of height, with its sign.
    pub(crate) fn change(self, change: Length) -> String {
        let text = self.height(change);
        if text.starts_with('−') || self.is_nothing(change) { text } else { format!("+{text}") }
    }

    /// Whether it rounds to nought as the tape reads.
    pub(crate) fn is_nothing(self, length: Length) -> bool {
        self.height(length) == self.height(Length::default())
    }

    /// What heights are printed in steps of, as the tape is read: 1/16 in, or a millimetre.
    pub(crate) fn step(self) -> Length {
        match self.length {
            LengthUnit::Inches => inches(1.0 / 16.0),
            LengthUnit::Millimetres => inches(1.0 / 25.4),
        }
    }

    /// A predicted height with its band, as a reading is printed: what is judged by it is judged by just this.
    pub(crate) fn predicted(self, height: Uncertain<Length>) -> String {
        format!("{} ± {}", self.height(height.value), self.band(height.band()))
    }

    /// Half the width of a band, rounded up, so that it never promises more than it keeps.
    pub(crate) fn band(self, band: Length) -> String {
        self.height(Uncertain::new(Length::default(), band / 2.0).in_steps_of(self.step()).band())
    }

    /// A load in the unit that goes with a rate as it is printed: pounds, or newtons.
    pub(crate) fn load_of_rate(self, load: Force) -> String {
        match self.weight {
            WeightUnit::Pounds => self.weight(load),
            WeightUnit::Kilograms => together(&format!("{:.0} N", load.si())),
        }
    }

    /// A length with decimals in the unit that goes with a rate as it is printed.
    pub(crate) fn length_of_rate(self, length: Length) -> String {
        let unit = if self.weight == WeightUnit::Pounds { LengthUnit::Inches } else { LengthUnit::Millimetres };
        Units { length: unit, ..self }.exact(length)
    }

    /// A height with decimals, for the opened sum.
    pub(crate) fn exact(self, length: Length) -> String {
        let (value, digits, unit) = match self.length {
            LengthUnit::Inches => (length.customary(), 2, "in"),
            LengthUnit::Millimetres => (length.si() * 1000.0, 1, "mm"),
        };
        let figure = format!("{:.digits$}", value.abs());
        let nothing = figure.chars().all(|sign| matches!(sign, '0' | '.'));
        let sign = if value < 0.0 && !nothing { "−" } else { "" };
        together(&format!("{sign}{figure} {unit}"))
    }

    pub(crate) fn weight(self, force: Force) -> String {
        together(&format_weight(force, self.weight))
    }

    /// A weight to work to, rounded up to ten so that it does not fall short.
    pub(crate) fn about(self, force: Force) -> String {
        let ten = match self.weight {
            WeightUnit::Pounds => pounds(10.0),
            WeightUnit::Kilograms => kilograms(10.0),
        };
        self.weight(ten * ((force / ten).value - 1e-6).ceil())
    }

    pub(crate) fn rate(self, rate: SpringRate) -> String {
        together(&format_rate(rate, self.weight))
    }

    /// What a bare number is read in.
    pub(crate) fn of_bare_numbers(self) -> BareUnits {
        BareUnits { length: self.length, weight: self.weight }
    }

    pub(crate) fn length_word(self) -> UnitWord {
        if self.length == LengthUnit::Inches { UnitWord::In } else { UnitWord::Mm }
    }

    pub(crate) fn weight_word(self) -> UnitWord {
        if self.weight == WeightUnit::Pounds { UnitWord::Lb } else { UnitWord::Kg }
    }

    /// The unit a bare length is read in, as it is written beside a field.
    /// A length as a bare number of the reader's own unit.
    pub(crate) fn in_length(self, length: Length) -> f64 {
        if self.length == LengthUnit::Inches { length.si() / METRES_PER_INCH } else { length.si() * 1_000.0 }
    }

    /// A weight as a bare number of the reader's own unit.
    pub(crate) fn in_weight(self, force: Force) -> f64 {
        if self.weight == WeightUnit::Pounds { force.customary() } else { force.si() / STANDARD_GRAVITY }
    }

    pub(crate) fn length_name(self) -> &'static str {
        if self.length == LengthUnit::Inches { "in" } else { "mm" }
    }

    /// The unit a bare weight is read in.
    pub(crate) fn weight_name(self) -> &'static str {
        if self.weight == WeightUnit::Pounds { "lb" } else { "kg" }
    }

    /// The unit a bare volume is read in.
    pub(crate) fn volume_name(self) -> &'static str {
        if self.weight == WeightUnit::Pounds { "gal" } else { "L" }
    }

    /// The unit a bare pressure is read in.
    pub(crate) fn pressure_name(self) -> &'static str {
        if self.length == LengthUnit::Inches { "psi" } else { "kPa" }
    }

    /// A gauge pressure, to the psi or the kPa.
    pub(crate) fn pressure(self, pressure: Pressure) -> String {
        match self.length {
            LengthUnit::Inches => format!("{:.0}\u{a0}psi", pressure.customary()),
            LengthUnit::Millimetres => format!("{:.0}\u{a0}kPa", pressure.si() / 1e3),
        }
    }

    /// A stress, to the ksi or the MPa.
    pub(crate) fn stress(self, stress: Pressure) -> String {
        match self.length {
            LengthUnit::Inches => format!("{:.0}\u{a0}ksi", stress.value / PASCALS_PER_KSI),
            LengthUnit::Millimetres => format!("{:.0}\u{a0}MPa", stress.value / 1e6),
        }
    }

    /// A length for a smith: to a 1/32 in, or to half a millimetre.
    pub(crate) fn fine(self, length: Length) -> String {
        match self.length {
            LengthUnit::Inches => together(&format_length(length, self.length, 32)),
            LengthUnit::Millimetres => {
                let value = nearest_step(length.si() * 2000.0) / 2.0;
                format!("{}{:.1}\u{a0}mm", if value < 0.0 { "−" } else { "" }, value.abs())
            }
        }
    }

    /// The same without its unit, for a table that says it once.
    pub(crate) fn bare(self, length: Length) -> String {
        self.without_unit(&self.fine(length))
    }

    /// A height as the tape reads it, without its unit, where a heading says that once.
    pub(crate) fn bare_height(self, height: Length) -> String {
        self.without_unit(&self.height(height))
    }

    /// Half the width of a band in the same way.
    pub(crate) fn bare_band(self, band: Length) -> String {
        self.without_unit(&self.band(band))
    }

    fn without_unit(self, text: &str) -> String {
        text.trim_end_matches(self.length_name()).trim_end_matches('\u{a0}').to_owned()
    }

    /// The unit a bare stress is read in.
    pub(crate) fn stress_name(self) -> &'static str {
        if self.length == LengthUnit::Inches { "ksi" } else { "MPa" }
    }

    /// The unit a bare rate is read in.
    pub(crate) fn rate_name(self) -> &'static str {
        if self.weight == WeightUnit::Pounds { "lb/in" } else { "N/mm" }
    }
}

/// A figure and its unit, never parted at the end of a line.
fn together(text: &str) -> String {
    text.replace(' ', "\u{a0}")
}

/// What was typed, as it goes back into a field of a page that reads bare numbers in other units: the unit it was typed in is then said.
pub(crate) fn typed_text(typed: &Typed, page: Units) -> String {
    let bare = typed.text.chars().all(|c| c.is_ascii_digit() || " .,/-".contains(c));
    let (same, name) = match typed.unit {
        UnitWord::In => (page.length == LengthUnit::Inches, "in"),
        UnitWord::Mm => (page.length == LengthUnit::Millimetres, "mm"),
        UnitWord::Lb => (page.weight == WeightUnit::Pounds, "lb"),
        UnitWord::Kg => (page.weight == WeightUnit::Kilograms, "kg"),
        UnitWord::LbPerIn => (page.weight == WeightUnit::Pounds, "lb/in"),
        UnitWord::NPerMm => (page.weight == WeightUnit::Kilograms, "N/mm"),
        UnitWord::Gal => (page.weight == WeightUnit::Pounds, "gal"),
        UnitWord::L => (page.weight == WeightUnit::Kilograms, "L"),
        UnitWord::Deg => (true, "°"),
        UnitWord::Turns => (true, "turns"),
        UnitWord::LbFt => (page.weight == WeightUnit::Pounds, "ft-lb"),
        UnitWord::Nm => (page.weight == WeightUnit::Kilograms, "N·m"),
        UnitWord::Psi => (page.length == LengthUnit::Inches, "psi"),
        UnitWord::Ksi => (page.length == LengthUnit::Inches, "ksi"),
        UnitWord::Mpa => (page.length == LengthUnit::Millimetres, "MPa"),
        UnitWord::Kpa => (page.length == LengthUnit::Millimetres, "kPa"),
    };
    if same || !bare { typed.text.clone() } else { format!("{} {name}", typed.text) }
}

/// A torque as it was typed, with its unit, wherever it is read.
pub(crate) fn torque_words(typed: &Typed) -> String {
    let bare = typed.text.chars().all(|sign| sign.is_ascii_digit() || " .,/-".contains(sign));
    let unit = if typed.unit == UnitWord::Nm { "N·m" } else { "ft-lb" };
    if bare { format!("{}\u{a0}{unit}", typed.text) } else { typed.text.clone() }
}

/// Turns of a coil.
pub(crate) fn turns(count: f64) -> String {
    let rounded = (count * 100.0).round() / 100.0;
    format!("{rounded} turns")
}

/// A ride frequency.
pub(crate) fn frequency(frequency: Frequency) -> String {
    format!("{:.2} Hz", frequency.si())
}

/// How a ride frequency comes of a rate and what bounces on it, in units that go together.
pub(crate) fn frequency_sum(rate: SpringRate, sprung: Force, hertz: Frequency, units: Units) -> String {
    let gravity = match units.weight {
        WeightUnit::Pounds => "386.1 in/s²",
        // A newton on a kilogram makes a thousand millimeters per second, every second.
        WeightUnit::Kilograms => "1,000",
    };
    format!("√({} × {gravity} / {}) / 6.283 = {}", units.rate(rate), units.weight(sprung), frequency(hertz))
}

/// A thousand pounds per square inch.
const PASCALS_PER_KSI: f64 = 1000.0 * NEWTONS_PER_POUND / (METRES_PER_INCH * METRES_PER_INCH);

/// An angle in degrees.
pub(crate) fn degrees(angle: Angle) -> String {
    let text = format!("{:.1}", angle.value.to_degrees().abs());
    let nothing = text == "0.0";
    format!("{}{text}°", if angle.value < 0.0 && !nothing { "−" } else { "" })
}

/// A share as a percentage.
pub(crate) fn percent(share: f64) -> String {
    format!("{:.0}%", share * 100.0)
}

pub(crate) fn class_name(class: VehicleClass) -> &'static str {
    match class {
        VehicleClass::HalfTonPickup => "Pickup, half-ton",
        VehicleClass::MidSizePickup => "Pickup, mid-size",
        VehicleClass::ThreeQuarterTonPickup => "Pickup, three-quarter-ton",
        VehicleClass::OneTonPickup => "Pickup, one-ton",
        VehicleClass::Flatbed => "Flatbed",
        VehicleClass::ServiceBody => "Service body",
        VehicleClass::Wagon => "SUV or wagon",
        VehicleClass::Van => "Van",
        VehicleClass::BoxTruck => "Box truck",
        VehicleClass::Motorhome => "Motorhome or camper van",
        VehicleClass::SingleTrailer => "Trailer, one axle",
        VehicleClass::TandemTrailer => "Trailer, tandem",
        VehicleClass::TripleTrailer => "Trailer, three axles",
    }
}

pub(crate) fn wheels_name(wheels: RearWheels) -> &'static str {
    if wheels == RearWheels::Dual { "dual rear wheels" } else { "single rear wheels" }
}

pub(crate) fn datum_name(class: VehicleClass, datum: Datum) -> &'static str {
    match datum {
        Datum::GroundToArch if class.is_trailer() => "ground to frame",
        Datum::GroundToArch => "ground to arch",
        Datum::HubToArch => "hub center to arch",
        Datum::RimToArch => "rim lip to arch",
        Datum::TyreTopToArch => "tire top to arch",
        Datum::StopGap => "axle to bump stop",
    }
}

/// A state without the name its job gives it.
pub(crate) fn state_name(state: LoadState) -> &'static str {
    match state {
        LoadState::Empty => "empty",
        LoadState::Loaded => "loaded",
        LoadState::Further(_) => "in a further state",
    }
}

/// A state by the name it has on its job.
pub(crate) fn state_of(survey: &Survey, state: LoadState) -> &str {
    survey.further(state).map_or(state_name(state), |further| &further.name)
}

/// Where a height is read.
pub(crate) fn end_name(class: VehicleClass, end: End) -> &'static str {
    match (end, class.is_trailer()) {
        (End::Front, false) => "front",
        (End::Front, true) => "coupler",
        (End::Rear, _) => "rear",
    }
}

/// A place on the walk round the vehicle.
pub(crate) fn place_name(class: VehicleClass, place: Place) -> &'static str {
    match (place, class.is_trailer()) {
        (Place::FrontLeft, false) => "Front left",
        (Place::FrontRight, false) => "Front right",
        (Place::RearLeft, false) => "Rear left",
        (Place::RearRight, false) => "Rear right",
        (Place::StopGap, false) => "Rear bump-stop gap",
        (Place::FrontLeft, true) => "Coupler, left",
        (Place::FrontRight, true) => "Coupler, right",
        (Place::RearLeft, true) => "Over axles, left",
        (Place::RearRight, true) => "Over axles, right",
        (Place::StopGap, true) => "Axle bump-stop gap",
        (Place::HubFront, _) => "Ground to hub, front",
        (Place::HubRear, _) => "Ground to hub, rear",
        (Place::Step, _) => "Ground to step",
        (Place::Hitch, _) => "Ground to hitch",
        (Place::FrameRail, _) => "Ground to frame rail, behind the axle",
        (Place::Headlamp, _) => "Ground to headlight middle",
        (Place::ArchLeft, _) => "Arch of the left pack",
        (Place::ArchRight, _) => "Arch of the right pack",
        (Place::WeightFrontLeft, _) => "Scale, front left",
        (Place::WeightFrontRight, _) => "Scale, front right",
        (Place::WeightRearLeft, _) => "Scale, rear left",
        (Place::WeightRearRight, _) => "Scale, rear right",
        (Place::WeightFront, _) => "Scale, whole front",
        (Place::WeightRear, _) => "Scale, whole rear",
        (Place::ShackleLeft, _) => "Shackle, left, from upright",
        (Place::ShackleRight, _) => "Shackle, right, from upright",
        (Place::Pinion, _) => "Pinion, nose up",
        (Place::FrameAngle, _) => "Frame, rear up",
        (Place::TyreFrontLeft, _) => "Tire, front left",
        (Place::TyreFrontRight, _) => "Tire, front right",
        (Place::TyreRearLeft, _) => "Tire, rear left",
        (Place::TyreRearRight, _) => "Tire, rear right",
        (Place::GapFrontLeft, _) => "Stop gap, front left",
        (Place::GapFrontRight, _) => "Stop gap, front right",
        (Place::GapRearLeft, _) => "Stop gap, rear left",
        (Place::GapRearRight, _) => "Stop gap, rear right",
        (Place::PadFrontLeft, _) => "Overload leaf to its pad, left, front half",
        (Place::PadRearLeft, _) => "Overload leaf to its pad, left, rear half",
        (Place::PadFrontRight, _) => "Overload leaf to its pad, right, front half",
        (Place::PadRearRight, _) => "Overload leaf to its pad, right, rear half",
        (Place::CoilFrontLeft, _) => "Coil as it stands, front left",
        (Place::CoilFrontRight, _) => "Coil as it stands, front right",
        (Place::CoilRearLeft, _) => "Coil as it stands, rear left",
        (Place::CoilRearRight, _) => "Coil as it stands, rear right",
        (Place::BagFrontLeft, _) => "Air bag, front left",
        (Place::BagFrontRight, _) => "Air bag, front right",
        (Place::BagRearLeft, _) => "Air bag, rear left",
        (Place::BagRearRight, _) => "Air bag, rear right",
    }
}

/// What carries the weight there.
pub(crate) fn support_name(class: VehicleClass, end: End) -> &'static str {
    match (end, class.is_trailer()) {
        (End::Front, false) => "front axle",
        (End::Rear, false) => "rear axle",
        (End::Front, true) => "hitch",
        (End::Rear, true) => match class.rear_axles() {
            1 => "axle",
            2 => "axle pair",
            _ => "axle group",
        },
    }
}

/// What a rating is for.
pub(crate) fn rated_name(class: VehicleClass, rated: Rated) -> String {
    match rated {
        Rated::Axle(end) => sentence(support_name(class, end)),
        Rated::Tyres(end) => format!("{} tires", sentence(end_name(class, end))),
        Rated::Wheels(end) => format!("{} wheels", sentence(end_name(class, end))),
        Rated::Gross => "Whole vehicle".to_owned(),
        Rated::Hitch => "Hitch".to_owned(),
    }
}

/// First letter small, as a name stands inside a sentence.
pub(crate) fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// First letter large.
pub(crate) fn sentence(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_mechanics::units::metres;

    const SHOP: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };
    const METRIC: Units = Units { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms, currency: Currency::Usd };

    #[test]
    fn a_prediction_is_printed_as_finely_as_the_tape_reads_and_its_band_no_narrower() {
        let wide = Uncertain::new(inches(20.8125), inches(0.1));
        assert_eq!(SHOP.predicted(wide), "20\u{a0}13/16\u{a0}in ± 1/4\u{a0}in");
        assert_eq!(METRIC.predicted(wide), "529\u{a0}mm ± 6\u{a0}mm");
        let fine = Uncertain::new(inches(20.8125), inches(0.03));
        assert_eq!(SHOP.predicted(fine), "20\u{a0}13/16\u{a0}in ± 1/16\u{a0}in");
        assert_eq!(SHOP.exact(inches(-0.405)), "−0.41\u{a0}in");
    }

    #[test]
    fn what_was_typed_keeps_its_meaning_when_the_units_change() {
        let typed = |text: &str| Typed { text: text.to_owned(), unit: UnitWord::In, si: metres(0.98425).si() };
        assert_eq!(typed_text(&typed("38 3/4"), SHOP), "38 3/4");
        assert_eq!(typed_text(&typed("38 3/4"), METRIC), "38 3/4 in");
        assert_eq!(typed_text(&typed("985 mm"), METRIC), "985 mm");
    }
}
