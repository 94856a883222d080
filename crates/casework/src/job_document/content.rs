//! What the document of a job holds, from a job and back to one.

use std::borrow::Cow;

use schemars::{JsonSchema, Schema, SchemaGenerator, schema_for};
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use wise_badger_mechanics::tape::Datum;

use crate::case::Case;
use crate::entry::{
    AimSheet, BenchEntry, DriveEntry, IntakeSheetEntry, KeptSumsEntry, LoadPlanEntry, LookOverEntry, OptionEntry, PaperEntry,
    PromiseEntry, ProofSheetEntry, TapeSheetEntry, TickEntry, Typed, WorkPlanEntry,
};
use crate::intake::{Intake, Measured};
use crate::reading::{Phase, Place, Reading, Spot};
use crate::survey::{LoadState, RearWheels, VehicleClass};
use crate::words::{Word, words_schema};

/// What the document calls itself.
pub const FORMAT: &str = "wise-badger/job";
/// The version written, and the highest that is read.
pub const VERSION: u32 = 5;
/// A job, to take along.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct JobDocument {
    /// `wise-badger/job`.
    pub format: String,
    /// From 1 to 5.
    pub version: u32,
    /// What the shop calls the job.
    pub label: String,
    /// The vehicle.
    pub vehicle: VehicleContent,
    /// What the heights are measured from, once chosen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub datum: Option<WordOf<Datum>>,
    /// Whether somebody said that a rear that stands higher loaded is right.
    #[serde(default)]
    pub rear_rise_confirmed: bool,
    /// What was read, in the order put down.
    #[serde(default)]
    pub readings: Vec<ReadingContent>,
    /// What intake asked beside the vehicle itself.
    #[serde(default)]
    pub intake: IntakeSheetEntry,
    /// The load plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_plan: Option<LoadPlanEntry>,
    /// The states it was read in, and points of the body.
    #[serde(default)]
    pub tape: TapeSheetEntry,
    /// What was found on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub look_over: Option<LookOverEntry>,
    /// The aim.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub aim: Option<AimSheet>,
    /// The pack on the bench.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bench: Option<BenchEntry>,
    /// The options considered.
    #[serde(default)]
    pub options: Vec<OptionEntry>,
    /// The one chosen, by its place among them, from 0.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chosen: Option<usize>,
    /// What was promised when it was chosen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub promise: Option<PromiseEntry>,
    /// The plan of its work.
    #[serde(default)]
    pub work_plan: WorkPlanEntry,
    /// What was ticked on its wrench card, in the order in which it came in.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ticks: Vec<TickContent>,
    /// What was signed, in the order in which it was.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub papers: Vec<PaperContent>,
    /// The control drives.
    #[serde(default)]
    pub drive: DriveEntry,
    /// What the proof says beside the heights.
    #[serde(default)]
    pub proof: ProofSheetEntry,
    /// Sums kept with the job.
    #[serde(default)]
    pub sums: KeptSumsEntry,
}

/// What intake wrote down of a vehicle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct VehicleContent {
    /// Its class.
    pub class: WordOf<VehicleClass>,
    /// Its rear wheels.
    pub rear_wheels: WordOf<RearWheels>,
    /// Between the axles; of a trailer, from the coupler to the middle between its axles.
    pub wheelbase: Typed,
    /// Between a trailer's axles.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub axle_spread: Option<Typed>,
    /// Whether rockers make a trailer's axles carry alike.
    #[serde(default)]
    pub equalised: bool,
    /// Front axle rating; of a trailer, what the hitch may carry.
    pub front_rating: Typed,
    /// Rear axle rating; of a trailer, all axles together.
    pub rear_rating: Typed,
    /// Gross rating.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gross_rating: Option<Typed>,
    /// Front axle, empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kerb_front: Option<Typed>,
    /// Rear axle, empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kerb_rear: Option<Typed>,
}

/// A figure as it was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingContent {
    /// Before or after fitting.
    pub phase: WordOf<Phase>,
    /// In which state.
    pub state: LoadState,
    /// Where on the vehicle.
    pub place: WordOf<Place>,
    /// What a height was measured from.
    pub datum: WordOf<Datum>,
    /// What it came to.
    pub value: Typed,
    /// Who took it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taken_by: Option<String>,
    /// When, as RFC 3339 writes it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taken_at: Option<String>,
}

/// A tick of the wrench card.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TickContent {
    /// What was ticked.
    pub tick: TickEntry,
    /// Who ticked it.
    pub by: String,
    /// When, as RFC 3339 writes it.
    pub at: String,
}

/// A paper of the job that was signed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PaperContent {
    /// What was signed, and by whom.
    pub paper: PaperEntry,
    /// Who of the shop had it signed.
    pub by: String,
    /// When, as RFC 3339 writes it.
    pub at: String,
}

/// Something that goes by one of a few words.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WordOf<W>(pub W);

impl<W: Word> Serialize for WordOf<W> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.0.word().serialize(serializer)
    }
}

impl<'de, W: Word> Deserialize<'de> for WordOf<W> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let text = String::deserialize(deserializer)?;
        let known = W::from_word(&text).map(WordOf);
        known.ok_or_else(|| serde::de::Error::custom(format!("“{text}” is no {}", W::WHAT)))
    }
}

impl<W: Word> JsonSchema for WordOf<W> {
    fn schema_name() -> Cow<'static, str> {
        W::WHAT.into()
    }

    fn json_schema(_: &mut SchemaGenerator) -> Schema {
        words_schema::<W>(W::WHAT)
    }
}

impl JobDocument {
    /// Everything a case knows, without who took its readings, and without what was ticked and signed.
    pub fn of(case: &Case, promise: Option<PromiseEntry>) -> Self {
        JobDocument {
            format: FORMAT.to_owned(),
            version: VERSION,
            label: case.intake.label.clone(),
            vehicle: VehicleContent::of(&case.intake),
            datum: case.measured.datum.map(WordOf),
            rear_rise_confirmed: case.measured.rear_rise_confirmed,
            readings: case.readings.iter().map(ReadingContent::of).collect(),
            intake: case.sheet.clone(),
            load_plan: case.plan.clone(),
            tape: case.tape.clone(),
            look_over: case.look_over.clone(),
            aim: case.aim.clone(),
            bench: case.bench.clone(),
            options: case.options.clone(),
            chosen: case.chosen,
            promise,
            work_plan: case.work_plan.clone(),
            ticks: Vec::new(),
            papers: Vec::new(),
            drive: case.drive.clone(),
            proof: case.proof.clone(),
            sums: case.sums.clone(),
        }
    }

    /// What it says, as a case.
    pub fn case(&self) -> Case {
        let mut case = Case::opened(self.vehicle.intake(&self.label));
        case.measured = Measured { datum: self.datum.map(|datum| datum.0), rear_rise_confirmed: self.rear_rise_confirmed };
        case.readings = self.readings.iter().map(ReadingContent::reading).collect();
        case.sheet = self.intake.clone();
        case.plan = self.load_plan.clone();
        case.tape = self.tape.clone();
        case.look_over = self.look_over.clone();
        case.aim = self.aim.clone();
        case.bench = self.bench.clone();
        case.options = self.options.clone();
        case.chosen = self.chosen;
        case.work_plan = self.work_plan.clone();
        case.drive = self.drive.clone();
        case.proof = self.proof.clone();
        case.sums = self.sums.clone();
        case
    }

    /// Its JSON Schema.
    pub fn schema() -> Schema {
        schema_for!(JobDocument)
    }
}

impl VehicleContent {
    fn of(intake: &Intake) -> Self {
        let intake = intake.clone();
        VehicleContent {
            class: WordOf(intake.class),
            rear_wheels: WordOf(intake.rear_wheels),
            wheelbase: intake.wheelbase,
            axle_spread: intake.axle_spread,
            equalised: intake.equalised,
            front_rating: intake.front_rating,
            rear_rating: intake.rear_rating,
            gross_rating: intake.gross_rating,
            kerb_front: intake.kerb_front,
            kerb_rear: intake.kerb_rear,
        }
    }

    fn intake(&self, label: &str) -> Intake {
        let vehicle = self.clone();
        Intake {
            label: label.to_owned(),
            class: vehicle.class.0,
            rear_wheels: vehicle.rear_wheels.0,
            wheelbase: vehicle.wheelbase,
            axle_spread: vehicle.axle_spread,
            equalised: vehicle.equalised,
            front_rating: vehicle.front_rating,
            rear_rating: vehicle.rear_rating,
            gross_rating: vehicle.gross_rating,
            kerb_front: vehicle.kerb_front,
            kerb_rear: vehicle.kerb_rear,
        }
    }
}

impl ReadingContent {
    /// A reading, without who took it.
    pub fn of(reading: &Reading) -> Self {
        let Spot { phase, state, place } = reading.spot;
        ReadingContent {
            phase: WordOf(phase),
            state,
            place: WordOf(place),
            datum: WordOf(reading.datum),
            value: reading.value.clone(),
            taken_by: None,
            taken_at: None,
        }
    }

    /// What it says.
    pub fn reading(&self) -> Reading {
        let spot = Spot { phase: self.phase.0, state: self.state, place: self.place.0 };
        Reading { spot, datum: self.datum.0, value: self.value.clone() }
    }
}
