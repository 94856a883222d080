//! What the sheet says, heading by heading: as it is signed, and as it goes into a file.

use wise_badger_casework::entry::PaperSection;

use super::HandoverSheet;

/// Every heading that has anything under it.
pub(super) fn sections(sheet: &HandoverSheet) -> Vec<PaperSection> {
    let heights = sheet.heights.iter().map(|line| {
        let change = if line.change.is_empty() { String::new() } else { format!(" ({})", line.change) };
        format!("{}: {} before, {} after{change}", line.name, line.before, line.after)
    });
    let measured = sheet.not_measured.iter().map(|state| format!("Still to be measured after the work: {state}"));
    let three = |(label, value, note): &(String, String, String)| format!("{label}: {value}, {note}");
    let never = sheet.too_much.iter().map(|case| format!("Never loaded like this: {case}"));
    let torque = sheet
        .torques
        .iter()
        .map(|line| format!("{}: {} asked, {} read with {}, by {}", line.what, line.figure, line.read, line.wrench, line.by));
    let not_done = sheet.not_checked.iter().map(|check| format!("Not done: {check}"));
    let not_noted = sheet.not_noted.iter().map(|check| format!("Not noted whether done: {check}"));
    let carries = std::iter::once("No rating is raised by what was fitted.".to_owned());
    let last = "The maker’s data and local law come before this sheet.".to_owned();
    let released = (!sheet.released.is_empty()).then(|| format!("Released by whoever did the work: {}", sheet.released));
    let all: [(&str, Vec<String>); 12] = [
        ("Fitted", sheet.fitted.clone()),
        ("Heights", heights.chain(measured).collect()),
        ("Held against what was promised", sheet.promised.iter().map(three).collect()),
        ("What it can carry", carries.chain(sheet.ratings.iter().map(three)).chain(never).collect()),
        ("Come back", sheet.due.clone()),
        ("To look after", sheet.upkeep.clone()),
        ("Torques", torque.collect()),
        ("With it", sheet.put_right.iter().chain(&sheet.agreed).cloned().collect()),
        ("Advised and declined", sheet.declined.clone()),
        ("What else was seen, to be watched", sheet.seen.clone()),
        ("Checked", sheet.checked.iter().cloned().chain(not_done).chain(not_noted).chain(released).collect()),
        ("To heed", sheet.cautions.iter().map(|caution| (*caution).to_owned()).chain([last]).collect()),
    ];
    let sections = all.into_iter().filter(|(_, lines)| !lines.is_empty());
    sections.map(|(title, lines)| PaperSection { title: title.to_owned(), lines }).collect()
}
