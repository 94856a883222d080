//! A one-ton pickup whose packs went flat: one of them read leaf by leaf on the bench, re-arched and a leaf added.

use wise_badger_casework::bench::work_on;
use wise_badger_casework::entry::{AimSheet, BenchEntry, GoalEntry, IntakeSheetEntry, LeafEntry, OptionEntry, PackEntry, Typed};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{Complaint, LoadState, VehicleClass};
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, correction, job_sheet, reading};

use super::{DemoError, Walk, length, open, put_on, tape, walks};
use crate::view::bench::work_words;

/// Name, thickness, front and rear half, arch as found and as planned, in inches.
const LEAVES: [(&str, &str, &str, &str, &str, &str); 5] = [
    ("Main leaf", "0.36", "28", "30", "4 3/16", "4 7/8"),
    ("Second", "0.36", "26", "28", "3 3/4", "4 3/8"),
    ("Third", "0.36", "22", "24", "2 3/4", "3 3/16"),
    ("Fourth", "0.36", "18", "19", "1 13/16", "2 1/8"),
    ("Fifth", "0.36", "16", "17", "1 7/16", "1 11/16"),
];

pub(super) fn flat_packs(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Quarry road pickup, packs gone flat, thumps over humps",
        VehicleClass::OneTonPickup,
        "158",
        ["5,200", "4,600"],
        Some(["3,640", "2,240"]),
    )?;
    let heights = Walk { front: ["20 7/8", "20 13/16"], rear: ["21 5/8", "21 1/2"] };
    let loaded = Walk { front: ["20 7/8", "20 7/8"], rear: ["19 7/8", "19 13/16"] };
    tape(connection, technician, &job, Datum::HubToArch, [&heights, &loaded], [Some("3 1/2"), Some("1 3/4")])?;
    let mut readings = walks(Phase::Found, Datum::HubToArch, [&heights, &loaded], [Some("3 1/2"), Some("1 3/4")])?;
    for (place, text) in [(Place::ArchLeft, "1 15/16"), (Place::ArchRight, "1 7/8")] {
        let spot = Spot { phase: Phase::Found, state: LoadState::Empty, place };
        readings.push(Reading { spot, datum: Datum::HubToArch, value: length(text)? });
    }
    reading::replace(connection, technician, job.id, Phase::Found, &readings, "")?;
    put_on(connection, technician, &job, "1,700", "2", true)?;
    let asked = IntakeSheetEntry {
        complaints: vec![Complaint::LowEmpty, Complaint::Bottoms],
        sound_rear: Some(length("22 1/2")?),
        ..IntakeSheetEntry::default()
    };
    job_sheet::replace(connection, technician, job.id, &asked)?;
    let stock = GoalEntry::StockHeight { rear: length("22 1/2")?, tolerance: length("3/8")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(stock))?;
    let bench = bench()?;
    job_sheet::replace(connection, technician, job.id, &BenchEntry::found(bench.found.clone()))?;
    job_sheet::replace(connection, technician, job.id, &bench)?;
    let vehicle = JobFile::find(connection, technician.shop_id, job.number)?.case().vehicle();
    let words = |bench: &BenchEntry| work_words(&work_on(&bench.found, &bench.planned));
    let work = OptionEntry::of_bench(&bench, words, vehicle.most_spring_load())?;
    correction::consider(connection, technician, job.id, &work)?;
    Ok(())
}

fn bench() -> Result<BenchEntry, DemoError> {
    let leaf = |name: &str, sizes: [&str; 4]| -> Result<LeafEntry, DemoError> {
        let [thickness, front, rear, arch] = sizes.map(length);
        Ok(LeafEntry {
            name: name.to_owned(),
            width: Some(length("3")?),
            thickness: Some(thickness?),
            front: Some(front?),
            rear: Some(rear?),
            arch: Some(arch?),
            chord: None,
            spacer: None,
        })
    };
    let overload = || -> Result<LeafEntry, DemoError> {
        Ok(LeafEntry { spacer: Some(length("1/8")?), ..leaf("Overload leaf", ["0.55", "11", "11", "0"])? })
    };
    let pack = |leaves: Vec<LeafEntry>| -> Result<PackEntry, DemoError> {
        let clamp = || -> Result<Typed, DemoError> { Ok(length("3")?) };
        let (clamp_front, clamp_rear) = (clamp()?, clamp()?);
        Ok(PackEntry { leaves, clamp_front, clamp_rear, pack_arch: None, helper: None, young_modulus_pa: None, overload: None })
    };
    let found = LEAVES.iter().map(|(name, thick, front, rear, arch, _)| leaf(name, [thick, front, rear, arch]));
    let planned = LEAVES.iter().map(|(name, thick, front, rear, _, arch)| leaf(name, [thick, front, rear, arch]));
    let mut found = found.collect::<Result<Vec<_>, _>>()?;
    let mut planned = planned.collect::<Result<Vec<_>, _>>()?;
    found.push(overload()?);
    planned.insert(3, leaf("Add-a-leaf", ["0.28", "20", "22", "3 1/8"])?);
    planned.push(overload()?);
    Ok(BenchEntry { planned: pack(planned)?, ..BenchEntry::found(pack(found)?) })
}
