//! The control drive's form.

use wise_badger_casework::entry::{DriveEntry, Felt, Run, Score};

use super::Sheet;
use super::look_over::word;
use crate::view::Units;

/// Longest answer in words.
const LONGEST_WORDS: usize = 300;

/// Name of a score's field.
pub(crate) fn score_field(run: Run, felt: Felt) -> String {
    format!("{}.{}", word(run), word(felt))
}

/// The form as it stands for the drives on file.
pub(crate) fn on_file(units: Units, drive: &DriveEntry) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("route", drive.route.clone());
    sheet.set("words", drive.words.clone());
    drive.scores.iter().for_each(|(run, felt, score)| sheet.set(&score_field(*run, *felt), word(*score)));
    sheet
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet) -> Option<DriveEntry> {
    let mut scores = Vec::new();
    for run in Run::ALL {
        for felt in Felt::ALL {
            let score = Score::ALL.into_iter().find(|score| word(*score) == sheet.text(&score_field(run, felt)));
            scores.extend(score.map(|score| (run, felt, score)));
        }
    }
    let mut words = |name: &str| {
        let text = sheet.text(name).to_owned();
        if text.chars().count() > LONGEST_WORDS {
            sheet.refuse(name, format!("Keep it under {LONGEST_WORDS} characters."));
        }
        text
    };
    let (route, words) = (words("route"), words("words"));
    if !scores.is_empty() && route.is_empty() {
        sheet.refuse("route", "Name the route, so that the drive after fitting takes the same one.");
    }
    sheet.is_sound().then_some(DriveEntry { route, scores, words })
}
