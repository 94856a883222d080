//! What the packs do under the vehicle: its heights, and how the leaves agree with the tape.

use wise_badger_casework::bench::{BenchWork, Benches};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::pack::{ArchAgreement, Pack, RateAgreement};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Force, Length};

use super::PACK_SOURCE;
use crate::view::load_plan::{case_heights, unpredicted_words};
use crate::view::prediction::{height_sum, sides_in_short};
use crate::view::{Figure, Opened, Sum, Units, sentence, state_of};

/// Where the vehicle stands in a case with the pack as found and as planned.
pub(crate) struct HeightLine {
    pub(crate) name: String,
    pub(crate) found: Opened,
    pub(crate) planned: Opened,
}

/// Heights in every case, before and after, with what is planned on every side.
pub(crate) fn height_lines(work: &Casework, benches: &Benches, units: Units) -> Vec<HeightLine> {
    let (survey, predictor) = (work.found(), work.predictor());
    let planned = benches.corrections();
    let prediction = predictor.predict(&planned);
    let mut lines = Vec::new();
    for (state, predicted) in prediction.each() {
        let Some(read) = survey.height(End::Rear, state) else { continue };
        let planned = match predicted {
            Ok(predicted) => {
                let sum = height_sum(predictor, &planned, predicted, state, units);
                Opened::new(format!("{}{}", units.predicted(predicted.rear), sides_in_short(predicted, units)), sum)
            }
            Err(why) => Opened::plain(unpredicted_words(*why)),
        };
        let name = match state {
            LoadState::Empty => "Empty".to_owned(),
            LoadState::Loaded => work.case().measured_case().map_or_else(|| "Loaded".to_owned(), |case| case.name.clone()),
            LoadState::Further(_) => sentence(state_of(survey, state)),
        };
        lines.push(HeightLine { name, found: Opened::plain(format!("{}, measured", units.height(read.value))), planned });
    }
    let cases = case_heights(predictor, work.cases(), |case| predictor.in_case(&case.survey, &planned), units);
    lines.extend(cases.into_iter().map(|case| HeightLine { name: case.name, found: case.before, planned: case.rear }));
    lines
}

/// How the leaves agree with what the tape says of the springs under the vehicle, in sentences: what does not agree apart, to be said
/// in the open.
#[derive(Default)]
pub(crate) struct AgreementWords {
    pub(crate) agree: Vec<String>,
    pub(crate) disagree: Vec<String>,
}

impl AgreementWords {
    fn push(&mut self, agrees: bool, words: String) {
        if agrees { self.agree.push(words) } else { self.disagree.push(words) }
    }
}

/// How the leaves agree with the tape.
pub(crate) fn agreement_words(
    work: &Casework,
    benches: &Benches,
    bench: &BenchWork,
    read_arch: Option<(LoadState, Length)>,
    units: Units,
) -> AgreementWords {
    let survey = work.found();
    let mut words = AgreementWords { agree: sag_words(work, units).into_iter().collect(), ..AgreementWords::default() };
    let stands_on = |bench: &BenchWork, state| {
        let load = bench.measured.get(state).copied().flatten()?;
        bench.packs.found.prepare(bench.packs.rated).and_then(|pack| pack.state(load)).ok()
    };
    if let Some((load_state, read)) = read_arch
        && let Some(state) = stands_on(bench, load_state)
        && let Some((made, agreement)) = state.arch.zip(state.against_arch(read))
    {
        let judged = match agreement {
            ArchAgreement::Agrees => "no more apart than leaf friction explains".to_owned(),
            ArchAgreement::ReadLower(by) => format!(
                "{} of sag that is not in these figures; check the arches, or bend the pack to what the tape read",
                units.height(by)
            ),
            ArchAgreement::ReadHigher(by) => {
                format!("{} higher than these figures; check the arches and the thickness", units.height(by))
            }
        };
        let (read, made) = (units.height(read), units.height(made));
        let state = state_of(survey, load_state);
        let told = format!("Under the vehicle, {state}, the tape read {read} of arch; these leaves make {made}: {judged}.");
        words.push(matches!(agreement, ArchAgreement::Agrees), told);
    }
    // Both sides carry the axle, whichever of them is looked at.
    let rate_of = |side| stands_on(benches.of_side(Some(side)), LoadState::Empty).map(|state| state.rate);
    let of_both = rate_of(Side::Left).zip(rate_of(Side::Right)).map(|(left, right)| left + right);
    if let Some((measured, of_both)) = work.predictor().two_states().measured().zip(of_both) {
        let leaves = f64::from(survey.vehicle.assumptions().rear_axles) * of_both;
        let agreement = RateAgreement::of(leaves, measured.rate, measured.relative_sd);
        let judged = match agreement {
            RateAgreement::Agrees => "they agree as well as tape and thickness can tell",
            RateAgreement::StifferOnPaper => {
                "the leaves are stiffer on paper: a thickness read too large, worn leaves, or a leaf that does not bear"
            }
            RateAgreement::SofterOnPaper => {
                "the leaves are softer on paper: a thickness read too small, a helper or stop that bears, or leaves rusted together"
            }
        };
        let (measured, leaves) = (units.rate(measured.rate), units.rate(leaves));
        let told = format!("The tape made a rear rate of {measured}; these leaves make {leaves}: {judged}.");
        words.push(matches!(agreement, RateAgreement::Agrees), told);
    }
    words
}

/// How much lower it stands empty than it did when sound, where that is known.
fn sag_words(work: &Casework, units: Units) -> Option<String> {
    let (survey, case) = (work.found(), work.case());
    let sound = case.sheet.sound_rear.as_ref()?.length();
    let stands = survey.height(End::Rear, LoadState::Empty)?.value;
    let lost = sound - stands;
    if lost <= Length::default() || units.is_nothing(lost) {
        return None;
    }
    let (sound, stands, lost) = (units.height(sound), units.height(stands), units.height(lost));
    Some(format!(
        "Sound it stood at {sound}, now at {stands}: {lost} lower, which is so much arch lost as far as the springs did it."
    ))
}

/// The load at which the lowest leaf joins in, before and after.
pub(crate) fn second_stage_figure(bench: &BenchWork, units: Units) -> Figure {
    let told = |(load, pack): (Option<Force>, &Pack)| match (load, pack.overload_leaf()) {
        (Some(load), Some(_)) => units.weight(load),
        (None, Some(_)) => "not within these loads".to_owned(),
        (_, None) => "no overload leaf".to_owned(),
    };
    let sum = Sum::new("the load on one pack at which its lowest leaf begins to bear on the one above", Vec::new(), PACK_SOURCE);
    let [found, planned] = bench.second_stage;
    let (found, planned) = (told((found, &bench.packs.found)), told((planned, &bench.packs.planned)));
    let note = if bench.packs.changed { format!("found {found}") } else { String::new() };
    Figure::new("Second stage from", planned, sum).note(note)
}
