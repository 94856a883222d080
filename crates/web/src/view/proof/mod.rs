//! Predicted against measured, in words.

mod after;

pub(crate) use after::{adjust_words, cause_words, check_name, checked_name, otherwise_name, phase_name, settled_rows};

use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{OtherwiseWord, PredictedHeight, PredictedHeights, PredictedSides};
use wise_badger_casework::proof::{ProofCheck, ProofGrade};
use wise_badger_casework::survey::{End, is_a_lean};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, metres};

use super::prediction::Detail;
use super::{Figure, Sum, Tone, Units, end_name, sentence, state_of};

/// One line for each height that was predicted and measured again.
pub(crate) fn proof_figures(work: &Casework, predicted: &PredictedHeights, detail: Detail, units: Units) -> Vec<Figure> {
    graded_proof(work, predicted, detail, units).into_iter().map(|(_, figure)| figure).collect()
}

/// The same with how each is graded.
pub(crate) fn graded_proof(
    work: &Casework,
    predicted: &PredictedHeights,
    detail: Detail,
    units: Units,
) -> Vec<(ProofGrade, Figure)> {
    let fitted = work.fitted();
    let ends = [End::Rear, End::Front].into_iter();
    let heights = ends.flat_map(|end| fitted.states().map(move |state| (end, state, predicted.get(end, state))));
    let class = fitted.vehicle.class;
    let mut figures = Vec::new();
    for (end, state, height) in heights {
        let label = |side: &str| format!("{}{side}, {}", sentence(end_name(class, end)), state_of(fitted, state));
        let axle = height.zip(fitted.height(end, state));
        let planned = |measured: Uncertain<Length>| end == End::Front && work.means_the_front_at(state, measured.value);
        let otherwise = work.case().otherwise_at(state, end);
        figures.extend(axle.map(|(predicted, measured)| {
            let beside = Beside { meant: planned(measured), tyres: work.case().by_new_tyres(end), otherwise: &otherwise };
            proof(label(""), predicted, measured, beside, units)
        }));
        let sides = predicted.sides.iter().filter(|_| detail == Detail::Sides);
        let sides = sides.into_iter().find(|sides| sides.end == end && sides.state == state);
        let leans =
            |sides: &PredictedSides| fitted.leans(end, state) || is_a_lean(metres(sides.right.height_m - sides.left.height_m));
        for side in sides.filter(|sides| leans(sides)).into_iter().flat_map(|_| Side::BOTH) {
            let predicted = sides.map(|sides| if side == Side::Left { sides.left } else { sides.right });
            let both = predicted.zip(fitted.side(end, state, side));
            figures.extend(both.map(|(predicted, measured)| {
                let beside = Beside { meant: planned(measured), tyres: work.case().by_new_tyres(end), otherwise: &otherwise };
                proof(label(&format!(" {}", side.name())), predicted, measured, beside, units)
            }));
        }
    }
    figures
}

/// What is known of a height beside its prediction.
#[derive(Clone, Copy)]
struct Beside<'o> {
    /// Whether the aim wants it where it was read, whatever the correction at the other end does.
    meant: bool,
    /// What tires changed with the job add to the reading, taken out already.
    tyres: Length,
    /// What was not as before when it was read.
    otherwise: &'o [OtherwiseWord],
}

fn proof(
    label: String,
    predicted: PredictedHeight,
    measured: Uncertain<Length>,
    beside: Beside<'_>,
    units: Units,
) -> (ProofGrade, Figure) {
    let of_a_reading = predicted.tape_band_m.is_some();
    let band = metres(predicted.band_of_a_reading());
    let check = ProofCheck { predicted: metres(predicted.height_m), band, of_a_reading, measured };
    let (read, check) = (measured.value + beside.tyres, check.in_steps_of(units.step()));
    let on_old_tyres = units.exact(measured.value);
    let measured = check.measured;
    let off = check.difference();
    let grade = if beside.meant { ProofGrade::Inside } else { check.grade() };
    let by = match units.height(off.abs()) {
        _ if units.is_nothing(off) => "as predicted".to_owned(),
        by if off.si() > 0.0 => format!("{by} above the figure"),
        by => format!("{by} below the figure"),
    };
    let (tone, words) = match grade {
        ProofGrade::Inside if beside.meant => (Tone::Good, format!("as the aim wants it, {by}")),
        ProofGrade::Inside => (Tone::Good, format!("inside the band, {by}")),
        ProofGrade::WithinTheTape => (Tone::Plain, format!("just outside the band, {by}; the tape's own doubt explains it")),
        ProofGrade::Outside => (Tone::Act, format!("outside the band, {by}; find out why before it leaves")),
    };
    // A height that was read otherwise proves nothing, wherever it lies.
    let tone = if beside.otherwise.is_empty() || tone == Tone::Act { tone } else { Tone::Plain };
    let tyres = (!units.is_nothing(beside.tyres)).then(|| {
        let sign = if beside.tyres.si() < 0.0 { '+' } else { '−' };
        let (read, off) = (units.exact(read), units.exact(beside.tyres.abs()));
        format!("on the tires it came with: {read} {sign} {off} = {on_old_tyres}, taken to the next printed step")
    });
    let mut numbers = vec![
        format!(
            "predicted {} ± {}, {}",
            units.exact(check.predicted),
            units.exact(check.band),
            match of_a_reading {
                true => "as the tape will read it: settling, tape and leaf friction of a fresh reading are in it",
                false => "where it comes to rest: the tape's own doubt comes on top",
            }
        ),
        format!("measured {} ± {}", units.exact(measured.value), units.exact(measured.band())),
        format!("{} − {} = {}", units.exact(measured.value), units.exact(check.predicted), units.exact(off)),
    ];
    numbers.extend(tyres);
    let sum = Sum::new(
        "inside, when measured − predicted is no more than the band",
        numbers,
        "The prediction as it was said when the correction was chosen.",
    );
    let foretold = units.predicted(Uncertain::new(check.predicted, check.band / 2.0));
    let note = format!("predicted {foretold}: {words}");
    let note = if units.is_nothing(beside.tyres) { note } else { format!("{note}; the new tires taken out") };
    let note = match beside.otherwise {
        [] => note,
        words => {
            format!("{note}; no proof yet: {}", words.iter().map(|word| otherwise_name(*word)).collect::<Vec<_>>().join(", "))
        }
    };
    (grade, Figure::new(label, units.height(measured.value), sum).note(note).tone(tone))
}
