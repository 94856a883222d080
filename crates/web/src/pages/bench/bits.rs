//! The bolts and bits that follow from a pack, line by line.

use wise_badger_casework::aim::AimVerdict;
use wise_badger_casework::bench::{BenchWork, Benches};
use wise_badger_casework::casework::Casework;
use wise_badger_mechanics::correction::Work;
use wise_badger_mechanics::pack::{Bits, BitsGiven, shim_for};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::units::{Length, inches, metres};

use crate::form::Sheet;
use crate::view::bench::shim_words;
use crate::view::look_over::ruled_out;
use crate::view::{Units, sentence};

/// What a bit is, and its size.
pub(super) type Bit = (String, String);

/// All of them for the pack of a side, and what is wrong with what was given.
pub(super) fn all_bits(sheet: &mut Sheet, work: &Casework, benches: &Benches, side: Option<Side>) -> (Vec<Bit>, String) {
    let (units, bench) = (sheet.units(), benches.of_side(side));
    let (mut lines, problem) = bits(sheet, bench, work.found().vehicle.rear_spring_over, units);
    lines.extend(spacer(bench, units).map(|words| ("Spacer over the overload leaf".to_owned(), words)));
    lines.extend(block(work, benches, units).map(|words| ("Block".to_owned(), words)));
    (lines, problem)
}

fn bits(sheet: &mut Sheet, bench: &BenchWork, spring_over_axle: Option<bool>, units: Units) -> (Vec<Bit>, String) {
    let pack = &bench.packs.planned;
    let mut lines = vec![("All leaves and spacers at the bolt".to_owned(), units.fine(pack.stack()))];
    let asked = ["tube", "plate", "block", "u_bolt"].iter().any(|name| sheet.is_filled(name));
    if !asked {
        return (lines, String::new());
    }
    if !sheet.is_filled("block") {
        sheet.set("block", "0");
    }
    let given = (sheet.length("tube"), sheet.length("plate"), sheet.length("block"), sheet.length("u_bolt"));
    let (Some(tube), Some(plate), Some(block), Some(u_bolt)) = given else { return (lines, String::new()) };
    let Some(tilted) = bench.seat_turned() else { return (lines, String::new()) };
    let given = BitsGiven { tube_and_seat: tube.length(), plate: plate.length(), block: block.length(), u_bolt: u_bolt.length() };
    match Bits::of(pack, &given) {
        Ok(bits) => {
            lines.push((
                "Center bolt, usual for this width".to_owned(),
                format!(
                    "{} × {} under the head; the leaves' hole decides",
                    units.fine(bits.centre_bolt),
                    units.height(bits.centre_bolt_length)
                ),
            ));
            lines.push((
                "U-bolt leg".to_owned(),
                format!("{}; order the next length up, new every time", units.height(bits.u_bolt_leg)),
            ));
            for clip in &bits.clips {
                let name = pack.leaves.get(clip.leaf).map_or("", |leaf| leaf.name.as_str());
                let size =
                    format!("{} inside width, {} inside height; bolt-on", units.height(clip.width), units.height(clip.height));
                lines.push((format!("Clips on {name}, one each end"), size));
            }
            lines.push(("Shim".to_owned(), shim_words(shim_for(tilted), spring_over_axle)));
            (lines, String::new())
        }
        Err(error) => (lines, format!("{}.", sentence(&error.to_string()))),
    }
}

/// The spacer that lets the overload leaf bear where it did, once the leaves above it stand otherwise.
fn spacer(bench: &BenchWork, units: Units) -> Option<String> {
    let [found, planned] = bench.second_stage;
    let (found, planned) = (found?, planned?);
    let most = bench.work.found.reaches();
    let moved = ((planned / found).value - 1.0).abs() > 0.02;
    let spacer = if moved { bench.packs.planned.spacer_for_second_stage(found, most).ok()? } else { None };
    Some(match spacer {
        _ if !moved => format!("as it is: the second stage begins at {} as before", units.weight(planned)),
        Some(spacer) => format!(
            "{} lets it bear from {} as before; as planned, from {}. A purpose-made one, never a wedge",
            units.fine(spacer),
            units.weight(found),
            units.weight(planned)
        ),
        None => format!("none lets it bear from {} as before; as planned, from {}", units.weight(found), units.weight(planned)),
    })
}

/// What a block would have to make up for the aim, beside the packs.
fn block(work: &Casework, benches: &Benches, units: Units) -> Option<String> {
    let (state, target) = work.target()?;
    let prediction = work.predictor().predict(&benches.corrections());
    let predicted = prediction.at(state).ok()?.rear;
    let short = match target.judge(predicted.in_steps_of(units.step())) {
        AimVerdict::MayMiss { off } | AimVerdict::Misses { off } if off < metres(0.0) => -off,
        _ => return Some("none: the pack makes the aim".to_owned()),
    };
    if work.overload().is_some() {
        return Some("none: the vehicle is over a rating, and a block carries nothing. Weight comes off first".to_owned());
    }
    let vehicle = &work.found().vehicle;
    let barred = ruled_out(&work.gate_at_the_rear(vehicle.needs_of_a_block(), Work::Block));
    if !barred.is_empty() {
        return Some(format!("{} short of the aim, and no block: {barred}", units.height(short)));
    }
    // Blocks come in quarters of an inch, or in steps of 5 mm.
    let step = if units.length == LengthUnit::Inches { inches(0.25) } else { metres(0.005) };
    let in_steps = |height: Length| units.height(step * (height / step).value.round().max(1.0));
    let one = match vehicle.rear_block.map(|there| there.height) {
        None => format!("one of {}", in_steps(short)),
        Some(Some(there)) => format!("one of {}, in place of the {} that is there", in_steps(there + short), units.height(there)),
        Some(None) => format!("one {} higher than the one that is there, in its place", in_steps(short)),
    };
    let short = units.height(short);
    Some(format!("{short} short of the aim: {one}, in one piece, on the rear axle only. It adds height, and no load capacity"))
}
