//! What a sum takes from a job: a row for every input that the job can fill.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::Typed;
use wise_badger_casework::survey::{End, Item, LoadState};
use wise_badger_casework::words::Word;
use wise_badger_mechanics::units::Length;

use super::ShopSum;
use crate::form::Sheet;
use crate::view::Units;

/// What a job gives: words as they were typed, or a figure that was worked out.
enum Given {
    Typed(Typed),
    Text(String),
}

type FromJob = fn(&Casework, Units) -> Option<Given>;

/// Sum, input, and where a job has it.
const ROWS: [(&str, &str, FromJob); 14] = [
    ("pitch", "wheelbase", wheelbase),
    ("pitch", "front", |work, units| rise(work, End::Front, units)),
    ("pitch", "rear", |work, units| rise(work, End::Rear, units)),
    ("tongue", "wheelbase", wheelbase),
    ("tongue", "weight", |work, units| Some(Given::Text(plain(&units.weight(tongue(work)?.weight))))),
    ("tongue", "behind", |work, units| Some(length(tongue(work)?.behind_rear_axle, units))),
    ("stands", "weight", |work, units| {
        let empty = work.found().axle_loads().empty;
        has_kerb(work).then(|| Given::Text(plain(&units.weight(empty.front + empty.rear))))
    }),
    ("stands", "centre", |work, units| {
        // From the front axle, where the rear is the end that is lifted.
        let empty = work.found().axle_loads().empty;
        let share = (empty.rear / (empty.front + empty.rear)).value;
        has_kerb(work).then(|| length(work.case().intake.wheelbase.length() * share, units))
    }),
    ("tyre-change", "old", |work, _| {
        Some(Given::Text(work.case().sheet.rear_tyre.clone())).filter(|_| !work.case().sheet.rear_tyre.is_empty())
    }),
    ("frequency", "rate", |work, units| Some(Given::Text(plain(&units.rate(work.rate().measured()?.rate))))),
    ("travel", "bump", |work, units| Some(length(work.found().gap(LoadState::Empty)?, units))),
    ("travel", "raise", |work, units| rise(work, End::Rear, units)),
    ("datums", "datum", |work, _| Some(Given::Text(work.case().measured.datum?.word().to_owned()))),
    ("datums", "height", |work, units| Some(length(work.found().height(End::Rear, LoadState::Empty)?.value, units))),
];

/// Fills what the job has; gives how many inputs that were.
pub(crate) fn fill(sheet: &mut Sheet, sum: &ShopSum, work: &Casework) -> usize {
    let units = sheet.units();
    let given = ROWS.iter().filter(|(of, ..)| *of == sum.word);
    let given: Vec<_> = given.filter_map(|(_, input, of_job)| Some((*input, of_job(work, units)?))).collect();
    for (input, given) in &given {
        match given {
            Given::Typed(typed) => sheet.set_typed(input, typed),
            Given::Text(text) => sheet.set(input, text.clone()),
        }
    }
    given.len()
}

fn wheelbase(work: &Casework, _: Units) -> Option<Given> {
    Some(Given::Typed(work.case().intake.wheelbase.clone()))
}

/// How far an end comes up empty with what was chosen.
fn rise(work: &Casework, end: End, units: Units) -> Option<Given> {
    let after = work.chosen_predicted()?.at(LoadState::Empty).ok()?;
    let after = if end == End::Front { after.front? } else { after.rear };
    Some(length(after.value - work.found().height(end, LoadState::Empty)?.value, units))
}

/// What presses on the hitch, as the plan has it.
fn tongue(work: &Casework) -> Option<Item> {
    let plan = work.case().plan.as_ref()?;
    plan.items.iter().find(|item| item.on_hitch).map(|item| item.item())
}

fn has_kerb(work: &Casework) -> bool {
    let intake = &work.case().intake;
    intake.kerb_front.is_some() && intake.kerb_rear.is_some()
}

fn length(length: Length, units: Units) -> Given {
    Given::Text(plain(&units.height(length)))
}

/// A figure as somebody would type it.
fn plain(figure: &str) -> String {
    figure.replace('\u{a0}', " ").replace('−', "-")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sums;

    #[test]
    fn every_row_is_an_input_of_its_sum() {
        for (word, input, _) in ROWS {
            let sum = sums::find(word).unwrap_or_else(|| panic!("no sum {word}"));
            assert!(sum.inputs.iter().any(|of| of.name == input), "{word} asks for no {input}");
        }
    }
}
