//! Four half-tons that a leaf of the shelf was fitted to, one after another, each a little under what its box says: what the ledger knows
//! that leaf by.

use wise_badger_casework::entry::{AimSheet, CorrectionEntry, GoalEntry, OptionEntry, PartEntry, Typed, UnitWord};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadState, VehicleClass};
use wise_badger_mechanics::correction::Site;
use wise_badger_mechanics::tape::{Datum, LengthUnit, format_length, parse_length};
use wise_badger_mechanics::units::{InShopUnits as _, metres};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, StoreError, correction, job, job_sheet, reading, shelf};

use super::{DemoError, Walk, choose, length, open, put_on, tape};

/// The leaf, by its number on the demo shelf.
const LEAF: &str = "AL-102";

/// What each is called, its rear empty and loaded, what was put on, and by how much it came lower than promised, in inches.
const JOBS: [(&str, &str, &str, &str, f64); 4] = [
    ("Pool service half-ton, sags with the chlorine drums", "21 3/8", "18 5/8", "1,000", 0.38),
    ("Tile setter's half-ton, tail down with the saw", "21 1/2", "18 7/8", "950", 0.44),
    ("Farrier's half-ton, low with the forge in", "21 1/4", "18 11/16", "980", 0.31),
    ("Window cleaner's half-ton, rubs with the tank full", "21 7/16", "18 3/4", "1,000", 0.5),
];

pub(super) fn load(connection: &mut PgConnection, technician: &Person, lead: &Person) -> Result<(), DemoError> {
    let leaf = shelf::all(connection, lead.shop_id)?.into_iter().find(|part| part.number == LEAF);
    let leaf = leaf.ok_or(StoreError::NotFound("part of the demo shelf"))?;
    for (label, empty, loaded, put, under) in JOBS {
        let job = open(connection, technician, label, VehicleClass::HalfTonPickup, "145", ["3,900", "4,100"], None)?;
        let walk = |rear| Walk { front: ["20 1/2", "20 1/2"], rear: [rear, rear] };
        tape(connection, technician, &job, Datum::HubToArch, [&walk(empty), &walk(loaded)], [Some("3 1/4"), Some("3/4")])?;
        put_on(connection, technician, &job, put, "4", true)?;
        let level = GoalEntry::LevelLoaded { rake: length("0")?, tolerance: length("1")? };
        job_sheet::replace(connection, technician, job.id, &AimSheet::from(level))?;
        let fitted = CorrectionEntry::new(leaf.kind, Site::default(), leaf.sold.clone())?;
        let part = PartEntry { correction: fitted, settings: Vec::new(), shelf: Some(Box::new(leaf.clone())) };
        let option = OptionEntry { name: String::new(), parts: vec![part] };
        let chosen = correction::consider(connection, lead, job.id, &option)?;
        choose(connection, lead, &job, chosen)?;
        let promised = JobFile::find(connection, lead.shop_id, job.number)?.fitting.ok_or(DemoError::Correction)?.predicted.0;
        let mut readings = Vec::new();
        for state in LoadState::BOTH {
            let rear = promised.get(End::Rear, state).ok_or(DemoError::Correction)?.height_m - under * 0.0254;
            for (place, text) in [
                (Place::FrontLeft, "20 1/2".to_owned()),
                (Place::FrontRight, "20 1/2".to_owned()),
                (Place::RearLeft, format_length(metres(rear), LengthUnit::Inches, 16)),
                (Place::RearRight, format_length(metres(rear), LengthUnit::Inches, 16)),
            ] {
                let si = parse_length(&text, LengthUnit::Inches)?.si();
                let value = Typed { text, unit: UnitWord::In, si };
                readings.push(Reading { spot: Spot { phase: Phase::Fitted, state, place }, datum: Datum::HubToArch, value });
            }
        }
        reading::replace(connection, technician, job.id, Phase::Fitted, &readings, "")?;
        job::set_finished(connection, lead, job.id, true)?;
    }
    Ok(())
}
