//! What intake writes down beside the vehicle itself: springs, wheels, what the customer wants, what was done before.

use serde::{Deserialize, Serialize};

use super::Typed;
use crate::survey::{Complaint, Ends, Modification, VehicleFacts};
use crate::verdict::SoundHeight;

/// One sheet, as typed. Nothing on it must be known.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(default)]
pub struct IntakeSheetEntry {
    /// Which wheels drive it.
    pub driven: Option<DrivenWord>,
    /// What the front rests on.
    pub front_spring: Option<SpringWord>,
    /// What the rear rests on.
    pub rear_spring: Option<SpringWord>,
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
    /// What it may cost, in words.
    pub budget: String,
    /// When it is wanted, in words.
    pub wanted_by: String,
    /// Whether the customer will look after something that wants upkeep.
    pub upkeep: Option<bool>,
    /// Whether it must come off again.
    pub removable: Option<bool>,
    /// Ride or stability first.
    pub first: Option<FirstWord>,
    /// Share of the time empty, usual and full, in hundredths.
    pub shares: [Option<u8>; 3],
    /// What was done to it before.
    pub modifications: Vec<ModificationEntry>,
    /// Whether somebody looked for earlier work and saw none.
    pub no_earlier_work: bool,
}

/// What an axle rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum SpringWord {
    /// Leaf springs.
    Leaf,
    /// Coil springs.
    Coil,
    /// Torsion bars, or a rubber torsion axle.
    Torsion,
    /// Air springs.
    Air,
}

/// Which wheels drive a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
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
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum FirstWord {
    /// A soft ride.
    Ride,
    /// Stability under load.
    Stability,
}

/// Earlier work, and its size where it has one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ModificationEntry {
    /// What was done.
    pub what: Modification,
    /// How high or long, as measured.
    pub size: Option<Typed>,
}

impl SpringWord {
    /// Every one, in the order offered.
    pub const ALL: [SpringWord; 4] = [SpringWord::Leaf, SpringWord::Coil, SpringWord::Torsion, SpringWord::Air];
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
            rear_rate_when_sound: self.sound_rate.as_ref().map(Typed::rate),
            ..vehicle
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
