//! Predicted against measured, in words.

use wise_badger_casework::entry::{PredictedHeight, PredictedHeights};
use wise_badger_casework::proof::{ProofCheck, ProofGrade};
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, metres};

use super::{Figure, Sum, Tone, Units, end_name, sentence, state_name};

/// One line for each height that was predicted and measured again.
pub(crate) fn proof_figures(predicted: &PredictedHeights, fitted: &Survey, units: Units) -> Vec<Figure> {
    let heights = [
        (End::Rear, LoadState::Empty, predicted.rear_empty),
        (End::Rear, LoadState::Loaded, predicted.rear_loaded),
        (End::Front, LoadState::Empty, predicted.front_empty),
        (End::Front, LoadState::Loaded, predicted.front_loaded),
    ];
    heights.into_iter().filter_map(|(end, state, height)| proof(end, state, height?, fitted, units)).collect()
}

fn proof(end: End, state: LoadState, predicted: PredictedHeight, fitted: &Survey, units: Units) -> Option<Figure> {
    let measured = fitted.height(end, state)?;
    let check = ProofCheck { predicted: metres(predicted.height_m), band: metres(predicted.band_m), measured };
    let (off, grade) = (check.difference(), check.grade());
    let by = match units.height(off.abs()) {
        _ if units.is_nothing(off) => "as predicted".to_owned(),
        by if off.si() > 0.0 => format!("{by} above the figure"),
        by => format!("{by} below the figure"),
    };
    let (tone, words) = match grade {
        ProofGrade::Inside => (Tone::Good, format!("inside the band, {by}")),
        ProofGrade::WithinTheTape => (Tone::Plain, format!("just outside the band, {by}; the tape's own doubt explains it")),
        ProofGrade::Outside => (Tone::Act, format!("outside the band, {by}; find out why before it leaves")),
    };
    let numbers = vec![
        format!("predicted {} ± {}", units.exact(check.predicted), units.exact(check.band)),
        format!("measured {} ± {}", units.exact(measured.value), units.exact(measured.band())),
        format!("measured − predicted = {}", units.exact(off)),
    ];
    let sum = Sum::new(
        "inside, when measured − predicted is no more than the band",
        numbers,
        "The prediction as it stood when the correction was chosen.",
    );
    let label = format!("{}, {}", sentence(end_name(fitted.vehicle.class, end)), state_name(state));
    let foretold = units.predicted(Uncertain::new(check.predicted, check.band / 2.0));
    let note = format!("predicted {foretold}: {words}");
    Some(Figure::new(label, units.height(measured.value), sum).note(note).tone(tone))
}
