//! U-bolts, clamp loads and stands.

use wise_badger_mechanics::side_effect::fastening::{
    BoltGrade, NUT_FACTOR_DRY, NUT_FACTOR_OILED, UboltStack, clamp_load, worst_stand,
};

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum, Tone, percent};

const THREADS: &[(&str, &str)] = &[("dry", "Dry"), ("oiled", "Oiled")];
const GRADES: &[(&str, &str)] =
    &[("sae5", "SAE grade 5"), ("sae8", "SAE grade 8"), ("iso8.8", "ISO class 8.8"), ("iso10.9", "ISO class 10.9")];

pub(super) const SUMS: [ShopSum; 3] = [
    ShopSum {
        word: "u-bolt",
        name: "U-bolt leg",
        about: "How long a leg must be. New U-bolts every time.",
        inputs: &[
            Input::new("tube", "Inside of the bend to the top of tube and seat", InputKind::Length),
            Input::new("pack", "Pack", InputKind::Length),
            Input::new("block", "Block or shim", InputKind::Length).usual("0"),
            Input::new("plate", "Plate", InputKind::Length),
            Input::new("washer", "Washer", InputKind::Length),
            Input::new("nut", "Nut", InputKind::Length),
            Input::new("pitch", "Thread pitch", InputKind::Length),
        ],
        work: u_bolt,
    },
    ShopSum {
        word: "clamp",
        name: "Clamp load",
        about: "What a torque clamps, against what the thread is proved for.",
        inputs: &[
            Input::new("torque", "Torque", InputKind::Torque),
            Input::new("diameter", "Thread diameter", InputKind::Length),
            Input::new("pitch", "Thread pitch", InputKind::Length),
            Input::new("thread", "Thread", InputKind::Pick(THREADS)).usual("dry"),
            Input::new("grade", "Grade", InputKind::Pick(GRADES)).usual("sae8"),
        ],
        work: clamp,
    },
    ShopSum {
        word: "stands",
        name: "Stands",
        about: "What the worse of two stands carries with one end in the air. Stands under the frame, wheels chocked.",
        inputs: &[
            Input::new("weight", "Whole vehicle", InputKind::Weight),
            Input::new("centre", "Its weight lies from the axle that stays down", InputKind::Length),
            Input::new("stands", "The stands are from that axle", InputKind::Length),
            Input::new("uneven", "Share of the worse stand, 0.5 to 1", InputKind::Number).usual("0.6"),
        ],
        work: stands,
    },
];

fn u_bolt(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let stack = UboltStack {
        tube_and_seat: given.length("tube")?,
        pack: given.length("pack")?,
        block: given.length("block")?,
        plate: given.length("plate")?,
        washer: given.length("washer")?,
        nut: given.length("nut")?,
        thread_pitch: given.length("pitch")?,
    };
    let (leg, units) = (stack.leg()?, given.units);
    let numbers = vec![format!("{} with three threads showing", units.exact(leg))];
    let sum = Sum::new("leg = tube and seat + pack + block + plate + washer + nut + 3 pitches", numbers, "Common practice.");
    Ok(vec![Figure::new("Leg", units.height(leg), sum).note("order the next length up")])
}

fn clamp(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (diameter, pitch, units) = (given.length("diameter")?, given.length("pitch")?, given.units);
    let factor = if given.text("thread")? == "oiled" { NUT_FACTOR_OILED } else { NUT_FACTOR_DRY };
    let grade = match given.text("grade")? {
        "sae5" => BoltGrade::SaeGrade5,
        "iso8.8" => BoltGrade::Iso8_8,
        "iso10.9" => BoltGrade::Iso10_9,
        _ => BoltGrade::SaeGrade8,
    };
    let load = clamp_load(given.torque("torque")?, diameter, factor)?;
    let proof = grade.proof_load(diameter, pitch)?;
    let share = (load / proof).value;
    let numbers = vec![format!("K {factor:.2}, diameter {}: {}", units.exact(diameter), units.weight(load))];
    let clamped = Sum::new(
        "clamp load = torque / (K × diameter)",
        numbers,
        "Shigley, Mechanical Engineering Design (from memory); K by common practice.",
    )
    .doubt("The true load scatters by a quarter either way.");
    let numbers = vec![format!("{} of {}", units.weight(load), units.weight(proof))];
    let proved = Sum::new("proof load = proof stress × stress area", numbers, "SAE J429, ISO 898-1 (from memory).");
    let over = share > 0.9;
    Ok(vec![
        Figure::new("Clamps with", units.weight(load), clamped),
        Figure::new("Of its proof load", percent(share), proved)
            .note(if over { "too much: a stretched U-bolt is scrap" } else { "three quarters is usual" })
            .tone(if over { Tone::Act } else { Tone::Plain }),
    ])
}

fn stands(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (weight, centre, stands) = (given.weight("weight")?, given.length("centre")?, given.length("stands")?);
    let (uneven, units) = (given.number("uneven")?, given.units);
    let load = worst_stand(weight, centre, stands, uneven)?;
    let numbers = vec![format!(
        "{} × {} / {} × {uneven:.2} = {}",
        units.weight(weight),
        units.exact(centre),
        units.exact(stands),
        units.weight(load)
    )];
    let sum = Sum::new("weight × its distance / the stands' distance × share of the worse", numbers, "Lever arms.");
    Ok(vec![Figure::new("On the worse stand", units.about(load), sum).note("the stand's rating must be above this")])
}
