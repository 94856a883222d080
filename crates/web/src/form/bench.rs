//! The bench's form: one pack, a row for each leaf.

use wise_badger_casework::bench::MOST_LEAVES;
use wise_badger_casework::bounds::{HALF_CLAMP, LEAF_HALF, LEAF_THICKNESS, LEAF_WIDTH};
use wise_badger_casework::entry::{BenchEntry, HelperEntry, LeafEntry, OverloadEntry, PackEntry, Typed};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::pack::PackError;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::newtons;

use super::Sheet;
use crate::view::pack_error::pack_error_words;
use crate::view::{Units, sentence};

/// Longest name of a leaf.
const LONGEST_NAME: usize = 30;
/// What a leaf's row asks, in the order of its columns.
pub(crate) const PARTS: [&str; 8] = ["name", "width", "thickness", "front", "rear", "arch", "chord", "spacer"];

/// What the form says where there is no overload leaf.
pub(crate) const NO_OVERLOAD_LEAF: &str = "none";

/// As it came in, or as it is to be built.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum As {
    Found,
    Planned,
}

impl As {
    pub(crate) const BOTH: [As; 2] = [As::Found, As::Planned];

    pub(crate) fn name(self) -> &'static str {
        match self {
            As::Found => "As found",
            As::Planned => "As planned",
        }
    }
}

/// Which pack of the bench is worked on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Which {
    pub(crate) of: As,
    /// On which side; both alike where there is none.
    pub(crate) side: Option<Side>,
}

impl Which {
    /// Both alike, as found.
    pub(crate) const FOUND: Which = Which { of: As::Found, side: None };

    /// By its word in forms and addresses, on a bench as it stands: whatever is no word of ours is the plan, and a side that it does not
    /// tell apart is either.
    pub(crate) fn of(word: &str, bench: Option<&BenchEntry>) -> Self {
        let (of, side) = word.split_once('_').unwrap_or((word, ""));
        let of = if of == "found" { As::Found } else { As::Planned };
        let sides = bench.map_or(&[None][..], BenchEntry::sides);
        let side = sides.iter().copied().find(|told| *told == Side::from_word(side)).or_else(|| sides.first().copied());
        Which { of, side: side.flatten() }
    }

    pub(crate) fn word(self) -> &'static str {
        match (self.of, self.side) {
            (As::Found, None) => "found",
            (As::Planned, None) => "planned",
            (As::Found, Some(Side::Left)) => "found_left",
            (As::Planned, Some(Side::Left)) => "planned_left",
            (As::Found, Some(Side::Right)) => "found_right",
            (As::Planned, Some(Side::Right)) => "planned_right",
        }
    }

    pub(crate) fn planned(self) -> Self {
        Which { of: As::Planned, ..self }
    }

    pub(crate) fn found(self) -> Self {
        Which { of: As::Found, ..self }
    }

    pub(crate) fn name(self) -> String {
        match self.side {
            None => self.of.name().to_owned(),
            Some(side) => format!("{}, {}", sentence(side.name()), self.of.name().to_lowercase()),
        }
    }
}

/// Name of a row's field.
pub(crate) fn leaf_field(row: usize, what: &str) -> String {
    format!("l{row}_{what}")
}

/// The form of a pack on file.
pub(crate) fn on_file(units: Units, pack: Option<&PackEntry>) -> Sheet {
    let mut sheet = Sheet::blank(units);
    let Some(pack) = pack else { return sheet };
    for (row, leaf) in pack.leaves.iter().enumerate() {
        let name = |what: &str| leaf_field(row, what);
        sheet.set(&name("name"), leaf.name.clone());
        for (what, typed) in [
            ("width", leaf.width.as_ref()),
            ("thickness", leaf.thickness.as_ref()),
            ("front", leaf.front.as_ref()),
            ("rear", leaf.rear.as_ref()),
            ("arch", leaf.arch.as_ref()),
            ("chord", leaf.chord.as_ref()),
            ("spacer", leaf.spacer.as_ref()),
        ] {
            set_where_typed(&mut sheet, &name(what), typed);
        }
    }
    sheet.set_typed("clamp_front", &pack.clamp_front);
    sheet.set_typed("clamp_rear", &pack.clamp_rear);
    set_where_typed(&mut sheet, "pack_arch", pack.pack_arch.as_ref());
    match &pack.overload {
        Some(OverloadEntry::None) => sheet.set("overload", NO_OVERLOAD_LEAF),
        Some(OverloadEntry::Leaf(name)) => {
            let row = pack.leaves.iter().position(|leaf| leaf.name == *name);
            sheet.set("overload", row.map(|row| row.to_string()).unwrap_or_default());
        }
        None => {}
    }
    if let Some(modulus) = pack.young_modulus_pa {
        sheet.set("young_modulus_pa", modulus.to_string());
    }
    if let Some(helper) = &pack.helper {
        sheet.set_typed("helper_reach", &helper.reach);
        sheet.set_typed("helper_rate", &helper.end_rate);
        sheet.set_typed("helper_tension", &helper.tension);
        sheet.set_typed("helper_under", &helper.set_under);
    }
    sheet
}

fn set_where_typed(sheet: &mut Sheet, name: &str, typed: Option<&Typed>) {
    if let Some(typed) = typed {
        sheet.set_typed(name, typed);
    }
}

/// Whether anything is typed in a row.
pub(crate) fn is_used(sheet: &Sheet, row: usize) -> bool {
    PARTS.iter().any(|what| sheet.is_filled(&leaf_field(row, what)))
}

/// How many rows a page shows: those used, and one more.
pub(crate) fn rows_shown(sheet: &Sheet) -> usize {
    let used = (0..MOST_LEAVES).rev().find(|row| is_used(sheet, *row)).map_or(0, |row| row + 1);
    (used + 1).min(MOST_LEAVES)
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong. A planned pack goes by the one found where its leaves do
/// not say.
pub(crate) fn check(sheet: &mut Sheet, found: Option<&PackEntry>) -> Option<PackEntry> {
    let rows: Vec<usize> = (0..MOST_LEAVES).filter(|row| is_used(sheet, *row)).collect();
    if rows.is_empty() {
        sheet.refuse(&leaf_field(0, "name"), "A pack has one leaf or more; type the main leaf here.");
        return None;
    }
    let leaves: Vec<Option<LeafEntry>> = rows.iter().map(|row| read_leaf(sheet, *row)).collect();
    let (clamp_front, clamp_rear) = (clamp(sheet, "clamp_front"), clamp(sheet, "clamp_rear"));
    let pack_arch = if sheet.is_filled("pack_arch") { sheet.signed_length("pack_arch") } else { None };
    let helper = read_helper(sheet);
    let leaves: Vec<LeafEntry> = leaves.into_iter().collect::<Option<_>>()?;
    for (row, (place, leaf)) in rows.iter().zip(leaves.iter().enumerate()) {
        if leaves.iter().take(place).any(|above| above.name == leaf.name) {
            sheet.refuse(&leaf_field(*row, "name"), "Another leaf has this name; give each one of its own.");
        }
    }
    let young_modulus_pa = young_modulus(sheet);
    let (clamp_front, clamp_rear, helper) = (clamp_front?, clamp_rear?, helper.ok()?);
    let overload = overload(sheet, &rows, &leaves);
    let pack = PackEntry { leaves, clamp_front, clamp_rear, pack_arch, helper, young_modulus_pa, overload };
    if sheet.is_sound()
        && let Err(error) = whole(&pack, found)
    {
        complain(sheet, &rows, &pack, &error);
    }
    sheet.is_sound().then_some(pack)
}

/// Everything that can be wrong with a pack shows once it is clamped and not loaded.
pub(crate) fn whole(pack: &PackEntry, found: Option<&PackEntry>) -> Result<(), PackError> {
    let read = found.map_or_else(|| pack.pack(), |found| pack.pack_after(found))?;
    read.pack.prepare(newtons(1.0))?;
    Ok(())
}

/// The leaf that was marked, by the row that it was picked by; a row that is no longer used marks none.
fn overload(sheet: &Sheet, rows: &[usize], leaves: &[LeafEntry]) -> Option<OverloadEntry> {
    if sheet.text("overload") == NO_OVERLOAD_LEAF {
        return Some(OverloadEntry::None);
    }
    let row = sheet.text("overload").parse::<usize>().ok()?;
    let place = rows.iter().position(|used| *used == row).filter(|place| *place > 0)?;
    leaves.get(place).map(|leaf| OverloadEntry::Leaf(leaf.name.clone()))
}

/// Young's modulus as a pack file stated it, carried along on the page.
fn young_modulus(sheet: &mut Sheet) -> Option<f64> {
    const STIFFNESSES_PA: std::ops::RangeInclusive<f64> = 1e9..=1e12;
    if !sheet.is_filled("young_modulus_pa") {
        return None;
    }
    let modulus = sheet.text("young_modulus_pa").parse().ok().filter(|modulus| STIFFNESSES_PA.contains(modulus));
    if modulus.is_none() {
        sheet.refuse("young_modulus_pa", "A spring's Young's modulus is between 1e9 and 1e12 Pa; steel has 206e9.");
    }
    modulus
}

/// A pack from elsewhere, held against the bounds of the form as if it had been typed.
///
/// # Errors     what is wrong, a sentence each, with the field that has it
pub(crate) fn check_from_elsewhere(pack: &PackEntry, units: Units) -> Result<PackEntry, Vec<String>> {
    let mut sheet = on_file(units, Some(pack));
    check(&mut sheet, None).ok_or_else(|| {
        let place = |name: &str| {
            let of_leaf = (0..MOST_LEAVES).find_map(|row| Some((row + 1, name.strip_prefix(&leaf_field(row, ""))?)));
            of_leaf.map_or_else(|| name.replace('_', " "), |(number, part)| format!("leaf {number}, {part}"))
        };
        sheet.problems().map(|(name, problem)| format!("{}: {problem}", place(name))).collect()
    })
}

/// A clamp that was left out takes nothing away.
fn clamp(sheet: &mut Sheet, name: &str) -> Option<Typed> {
    if !sheet.is_filled(name) {
        sheet.set(name, "0");
    }
    let typed = sheet.length(name)?;
    sheet.within(name, "Half of a clamp", typed, &HALF_CLAMP)
}

fn read_leaf(sheet: &mut Sheet, row: usize) -> Option<LeafEntry> {
    let name = |what: &str| leaf_field(row, what);
    let called = sheet.text(&name("name")).to_owned();
    let called = match called.chars().count() {
        0 if row == 0 => "Main leaf".to_owned(),
        0 => format!("Leaf {}", row + 1),
        count if count > LONGEST_NAME => {
            sheet.refuse(&name("name"), format!("Keep the name under {LONGEST_NAME} characters."));
            return None;
        }
        _ => called,
    };
    // Below the main leaf, what was not read is estimated.
    let within = |sheet: &mut Sheet, what: &str, whose: &str, bound: &Bound| {
        if row > 0 && !sheet.is_filled(&name(what)) {
            return Some(None);
        }
        let typed = sheet.length(&name(what))?;
        sheet.within(&name(what), whose, typed, bound).map(Some)
    };
    let width = within(sheet, "width", "A leaf's width", &LEAF_WIDTH);
    let thickness = within(sheet, "thickness", "A leaf's thickness", &LEAF_THICKNESS);
    let front = within(sheet, "front", "A leaf's half", &LEAF_HALF);
    let rear = within(sheet, "rear", "A leaf's half", &LEAF_HALF);
    let mut signed = |what: &str| if sheet.is_filled(&name(what)) { sheet.signed_length(&name(what)) } else { None };
    let arch = signed("arch");
    let (chord, spacer) = (sheet.optional_length(&name("chord")), sheet.optional_length(&name("spacer")));
    Some(LeafEntry { name: called, width: width?, thickness: thickness?, front: front?, rear: rear?, arch, chord, spacer })
}

/// A helper, where any of its fields is filled; then all of them are asked for.
fn read_helper(sheet: &mut Sheet) -> Result<Option<HelperEntry>, ()> {
    if !["helper_reach", "helper_rate", "helper_tension", "helper_under"].iter().any(|name| sheet.is_filled(name)) {
        return Ok(None);
    }
    let (reach, end_rate) = (sheet.length("helper_reach"), sheet.rate("helper_rate"));
    let (tension, set_under) = (sheet.weight("helper_tension"), sheet.weight("helper_under"));
    let all = reach.zip(end_rate).zip(tension.zip(set_under));
    all.map(|((reach, end_rate), (tension, set_under))| Some(HelperEntry { reach, end_rate, tension, set_under })).ok_or(())
}

fn complain(sheet: &mut Sheet, rows: &[usize], pack: &PackEntry, error: &PackError) {
    let row_of = |leaf: &str| {
        let place = pack.leaves.iter().position(|of| of.name == leaf).unwrap_or(0);
        rows.get(place).copied().unwrap_or(0)
    };
    let text = pack_error_words(error, sheet.units());
    let field = match error {
        PackError::InsideTheClamp { leaf, half } | PackError::LongerThanMain { leaf, half } => leaf_field(row_of(leaf), half),
        PackError::TooMuchArch(leaf) => leaf_field(row_of(leaf), "arch"),
        PackError::ChordPastLength(leaf) => leaf_field(row_of(leaf), "chord"),
        PackError::NotPositive { leaf, .. } | PackError::PastAnyLeaf { leaf, .. } => leaf_field(row_of(leaf), "thickness"),
        PackError::NoArch => leaf_field(0, "arch"),
        PackError::NotReached(_) => "pack_arch".to_owned(),
        PackError::NoFigure(what) if what.contains("helper") => "helper_reach".to_owned(),
        _ => leaf_field(0, "name"),
    };
    sheet.refuse(&field, text);
}
