//! What intake writes down beside the vehicle itself: springs, wheels, what the customer wants, what was done before.

use chrono::{Datelike, NaiveDate};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::Typed;
use crate::survey::{Complaint, Ends, Modification, PartThere, SpringKind, VehicleFacts};
use crate::verdict::SoundHeight;

/// One sheet, as typed. Nothing on it must be known.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(default)]
#[serde(deny_unknown_fields)]
pub struct IntakeSheetEntry {
    /// Which wheels drive it.
    pub driven: Option<DrivenWord>,
    /// What the front rests on.
    pub front_spring: Option<SpringKind>,
    /// What the rear rests on.
    pub rear_spring: Option<SpringKind>,
    /// Whether the rear spring sits over its axle or under it.
    pub rear_spring_over: Option<bool>,
    /// Tyre sizes as they stand on the sidewall.
    pub front_tyre: String,
    /// The rear's.
    pub rear_tyre: String,
    /// What one tyre may carry.
    pub front_tyre_rating: Option<Typed>,
    /// The rear's, as used there.
    pub rear_tyre_rating: Option<Typed>,
    /// What one wheel may carry.
    pub front_wheel_rating: Option<Typed>,
    /// The rear's.
    pub rear_wheel_rating: Option<Typed>,
    /// What may press on the hitch.
    pub hitch_rating: Option<Typed>,
    /// Between the middles of the rear wheels.
    pub rear_track: Option<Typed>,
    /// From the rear axle to the tail.
    pub rear_overhang: Option<Typed>,
    /// Rear height, empty, when it was sound.
    pub sound_rear: Option<Typed>,
    /// What all rear springs together should have.
    pub sound_rate: Option<Typed>,
    /// The complaint in the customer's words.
    pub complaint_words: String,
    /// The complaint as picked.
    pub complaints: Vec<Complaint>,
    /// What it may cost.
    pub budget: Option<MoneyEntry>,
    /// What else was said of the price.
    pub budget_words: String,
    /// The day it is wanted.
    pub wanted_by: Option<DayEntry>,
    /// What else was said of when it is wanted.
    pub wanted_words: String,
    /// Whether the customer will look after something that wants upkeep.
    pub upkeep: Option<bool>,
    /// Whether it must come off again.
    pub removable: Option<bool>,
    /// Ride or stability first.
    pub first: Option<FirstWord>,
    /// Share of the time that it spends in each load case.
    pub shares: Vec<ShareEntry>,
    /// What was done to it before.
    pub modifications: Vec<ModificationEntry>,
    /// Whether somebody looked for earlier work and saw none.
    pub no_earlier_work: bool,
}

/// Money, as typed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MoneyEntry {
    /// What was typed.
    pub text: String,
    /// In hundredths of the currency.
    pub hundredths: i64,
    /// The shop's currency when it was typed.
    pub currency: Currency,
}

impl MoneyEntry {
    /// A sum that the program worked out.
    pub fn of(hundredths: i64, currency: Currency) -> Self {
        MoneyEntry { text: format!("{}.{:02}", hundredths / 100, hundredths % 100), hundredths, currency }
    }

    /// A sum as it is written: with or without its sign, thousands set apart, cents after a point or a comma (`1,250.50`, `12,50`).
    /// `None` where that could be read in two ways, or in none.
    ///
    /// # Example
    /// ```
    /// use wise_badger_casework::entry::{Currency, MoneyEntry};
    /// let hundredths = |text| MoneyEntry::read(text, Currency::Usd).map(|money| money.hundredths);
    /// assert_eq!(hundredths("$1,250.50"), Some(125_050));
    /// assert_eq!(hundredths("12,50"), Some(1_250));
    /// assert_eq!(hundredths("1.250"), None);
    /// ```
    pub fn read(text: &str, currency: Currency) -> Option<Self> {
        let bare: String = text.chars().filter(|sign| !"$€£ \u{a0}".contains(*sign)).collect();
        let last = bare.rfind(['.', ',']);
        let (whole, part) = match last.and_then(|at| bare.split_at_checked(at)) {
            Some((whole, rest)) if (2..=3).contains(&rest.len()) => (whole, &rest[1..]),
            _ => (bare.as_str(), ""),
        };
        let mark = if last.is_some_and(|at| bare[at..].starts_with(',')) && !part.is_empty() { '.' } else { ',' };
        let groups: Vec<&str> = whole.split(mark).collect();
        let digits = |text: &str| !text.is_empty() && text.chars().all(|sign| sign.is_ascii_digit());
        let grouped = groups.iter().enumerate().all(|(place, group)| digits(group) && (group.len() == 3 || place == 0));
        let first = groups.first().is_some_and(|first| groups.len() == 1 || first.len() <= 3);
        let whole = groups.concat();
        let sound = grouped && first && whole.len() <= 9 && (part.is_empty() || digits(part));
        let hundredths = 100 * whole.parse::<i64>().ok().filter(|_| sound)? + format!("{part:0<2}").parse::<i64>().ok()?;
        Some(MoneyEntry { text: text.to_owned(), hundredths, currency })
    }
}

/// A currency that a shop reckons in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "UPPERCASE")]
pub enum Currency {
    /// Dollars of the United States.
    #[default]
    Usd,
    /// Dollars of Canada.
    Cad,
    /// Pesos of Mexico.
    Mxn,
    /// Euros.
    Eur,
    /// Pounds sterling.
    Gbp,
    /// Dollars of Australia.
    Aud,
    /// Dollars of New Zealand.
    Nzd,
}

/// A day, as typed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct DayEntry {
    /// What was typed.
    pub text: String,
    /// The day, as YYYY-MM-DD.
    pub day: String,
}

impl DayEntry {
    /// The day; `None` of what is no day, and of one outside the years that a shop has to do with, 2000 to 2099.
    pub fn date(&self) -> Option<NaiveDate> {
        Self::read(&self.day)
    }

    /// A day from its words: `2027-05-14` or `5/14/2027`, from 2000 to 2099.
    pub fn read(text: &str) -> Option<NaiveDate> {
        let read = ["%Y-%m-%d", "%m/%d/%Y"].into_iter().find_map(|way| NaiveDate::parse_from_str(text, way).ok());
        read.filter(|day| (2000..2100).contains(&day.year()))
    }
}

/// How much of the time a vehicle spends in a load case.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ShareEntry {
    /// Which.
    pub of: ShareOf,
    /// In hundredths of the time.
    pub percent: u8,
}

/// A load case that takes a share of the time.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum ShareOf {
    /// Empty.
    Empty,
    /// The usual load, while no case of the plan says which.
    Usual,
    /// Full, while no case of the plan says which.
    Full,
    /// A case of the load plan, by its key.
    Case(u8),
}

/// Which wheels drive a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum DrivenWord {
    /// The front ones.
    Front,
    /// The rear ones.
    Rear,
    /// All of them.
    All,
}

impl DrivenWord {
    /// Every one, in the order offered.
    pub const ALL: [DrivenWord; 3] = [DrivenWord::Front, DrivenWord::Rear, DrivenWord::All];
}

/// What the customer puts first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum FirstWord {
    /// A soft ride.
    Ride,
    /// Stability under load.
    Stability,
}

/// Earlier work, and its size where it has one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ModificationEntry {
    /// What was done.
    pub what: Modification,
    /// How high or long, as measured.
    pub size: Option<Typed>,
}

impl IntakeSheetEntry {
    /// Lays what is known over the facts of the vehicle.
    pub fn complete(&self, vehicle: VehicleFacts) -> VehicleFacts {
        let force = |typed: &Option<Typed>| typed.as_ref().map(Typed::force);
        let length = |typed: &Option<Typed>| typed.as_ref().map(Typed::length);
        VehicleFacts {
            tyre_ratings: Ends { front: force(&self.front_tyre_rating), rear: force(&self.rear_tyre_rating) },
            wheel_ratings: Ends { front: force(&self.front_wheel_rating), rear: force(&self.rear_wheel_rating) },
            hitch_rating: force(&self.hitch_rating),
            rear_overhang: length(&self.rear_overhang),
            rear_track: length(&self.rear_track),
            springs: Ends { front: self.front_spring, rear: self.rear_spring },
            rear_spring_over: self.rear_spring_over,
            rear_block: self.noted(Modification::RearBlock),
            spacers: self.spacers(),
            rear_rate_when_sound: self.sound_rate.as_ref().map(Typed::rate),
            ..vehicle
        }
    }

    fn noted(&self, what: Modification) -> Option<PartThere> {
        let noted = self.modifications.iter().find(|done| done.what == what)?;
        Some(PartThere { height: noted.size.as_ref().map(Typed::length) })
    }

    /// Spacers of which nobody said where they are may be at either end that rests on coils.
    fn spacers(&self) -> Ends<Option<PartThere>> {
        let somewhere = |on: Option<SpringKind>| self.noted(Modification::Spacer).filter(|_| on == Some(SpringKind::Coil));
        Ends {
            front: self.noted(Modification::FrontSpacer).or_else(|| somewhere(self.front_spring)),
            rear: self.noted(Modification::RearSpacer).or_else(|| somewhere(self.rear_spring)),
        }
    }

    /// The height the rear had when sound.
    pub fn sound_height(&self) -> Option<SoundHeight> {
        self.sound_rear.as_ref().map(|typed| SoundHeight { rear: typed.length() })
    }

    /// What was done before, without sizes.
    pub fn modified(&self) -> Vec<Modification> {
        self.modifications.iter().map(|entry| entry.what).collect()
    }
}
