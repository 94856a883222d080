//! A shelf as the table that a spreadsheet opens: a part a row, its columns named by the first line.
//!
//! A bare number of a row is read in the row's `length_unit` (`in` or `mm`) and `weight_unit` (`lb` or `kg`); a cell may name its own
//! unit. Cells are set apart by commas, semicolons or tabs, whichever the first line is; a decimal comma is one (`37,5`), unless it
//! groups thousands (`1,000`).

use std::collections::BTreeMap;

use csv::{ReaderBuilder, StringRecord, WriterBuilder};
use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::{KINDS, KindRow};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

use super::document::refuse_twins;
use super::error::{ReadShelf, RowError, ShelfFileError};
use super::{LARGEST, MOST_PARTS};
use crate::entry::{BareUnits, Currency, EndWord, FigureEntry, MoneyEntry, ShelfPart, Typed, UnitWord};
use crate::table_cell;

/// Before the name of a figure that the shop found.
const FOUND: &str = "found_";
const LENGTH_UNIT: &str = "length_unit";
const WEIGHT_UNIT: &str = "weight_unit";

/// A column that has nothing to do with a part's kind.
struct Column {
    name: &'static str,
    write: fn(&ShelfPart) -> String,
    /// Puts a cell that is not empty to a part.
    read: fn(&mut ShelfPart, &str, &Row) -> Result<(), String>,
}

/// What a row's cells are read by.
struct Row {
    units: BareUnits,
    currency: Currency,
}

/// Every such column, in the order written, beside the three that say which part it is and the two of its units.
const COLUMNS: &[Column] = &[
    Column {
        name: "end",
        write: |part| part.end.map_or("", EndWord::word).to_owned(),
        read: |part, cell, _| {
            let end = EndWord::from_word(&cell.to_lowercase()).ok_or_else(|| "write front or rear".to_owned())?;
            put(&mut part.end, end)
        },
    },
    Column {
        name: "price",
        write: |part| part.price.as_ref().map(|price| price.text.clone()).unwrap_or_default(),
        read: |part, cell, row| {
            let price = MoneyEntry::read(cell, row.currency);
            put(&mut part.price, price.ok_or_else(|| format!("“{cell}” is no sum of money; write it like 1,250.50"))?)
        },
    },
    Column {
        name: "hours",
        write: |part| part.hours.map(|hours| hours.to_string()).unwrap_or_default(),
        read: |part, cell, _| {
            let hours = cell.replace(',', ".").parse::<f64>().ok().filter(|hours| hours.is_finite());
            put(&mut part.hours, hours.ok_or_else(|| format!("“{cell}” is no number of hours; write it like 1.5"))?)
        },
    },
    Column {
        name: "in_stock",
        write: |part| counted(part.in_stock),
        read: |part, cell, _| put(&mut part.in_stock, count(cell)?),
    },
    Column {
        name: "supplier",
        write: |part| table_cell::written(&part.supplier),
        read: |part, cell, _| words(&mut part.supplier, cell),
    },
    Column {
        name: "lead_days",
        write: |part| counted(part.lead_days),
        read: |part, cell, _| put(&mut part.lead_days, count(cell)?),
    },
    Column {
        name: "upkeep",
        write: |part| table_cell::written(&part.upkeep),
        read: |part, cell, _| words(&mut part.upkeep, cell),
    },
    Column {
        name: "removable",
        write: |part| part.removable.map_or("", |removable| if removable { "yes" } else { "no" }).to_owned(),
        read: |part, cell, _| {
            let removable = match cell.to_lowercase().as_str() {
                "yes" | "y" | "true" | "1" => true,
                "no" | "n" | "false" | "0" => false,
                _ => return Err("write yes or no".to_owned()),
            };
            put(&mut part.removable, removable)
        },
    },
    Column {
        name: "in_the_box",
        write: |part| table_cell::written(&part.in_the_box),
        read: |part, cell, _| words(&mut part.in_the_box, cell),
    },
    Column {
        name: "not_in_the_box",
        write: |part| table_cell::written(&part.not_in_the_box),
        read: |part, cell, _| words(&mut part.not_in_the_box, cell),
    },
    Column {
        name: "largest_tire",
        write: |part| table_cell::written(&part.largest_tire),
        read: |part, cell, _| words(&mut part.largest_tire, cell),
    },
    Column {
        name: "wheel_width",
        write: |part| length_text(part, part.wheel_width.as_ref()),
        read: |part, cell, row| put(&mut part.wheel_width, length(cell, row)?),
    },
    Column {
        name: "wheel_offset",
        write: |part| length_text(part, part.wheel_offset.as_ref()),
        read: |part, cell, row| put(&mut part.wheel_offset, length(cell, row)?),
    },
    Column {
        name: "coil_inside",
        write: |part| length_text(part, part.coil_inside.as_ref()),
        read: |part, cell, row| put(&mut part.coil_inside, length(cell, row)?),
    },
    Column {
        name: "coil_height",
        write: |part| length_text(part, part.coil_height.as_ref()),
        read: |part, cell, row| put(&mut part.coil_height, length(cell, row)?),
    },
    Column { name: "note", write: |part| table_cell::written(&part.note), read: |part, cell, _| words(&mut part.note, cell) },
];

/// Which part it is, and in which units its bare numbers are.
const HEAD: [&str; 5] = ["number", "name", "kind", LENGTH_UNIT, WEIGHT_UNIT];

fn put<T>(place: &mut Option<T>, value: T) -> Result<(), String> {
    *place = Some(value);
    Ok(())
}

fn words(place: &mut String, cell: &str) -> Result<(), String> {
    cell.clone_into(place);
    Ok(())
}

fn counted(count: Option<u32>) -> String {
    count.map(|count| count.to_string()).unwrap_or_default()
}

fn count(cell: &str) -> Result<u32, String> {
    cell.parse().ok().ok_or_else(|| format!("“{cell}” is no whole number from 0 up"))
}

fn length(cell: &str, row: &Row) -> Result<Typed, String> {
    row.units.quantity(Dimension::Length, cell).map_err(|error| error.to_string())
}

/// Names of all figures that parts on a shelf have, each once.
fn figure_names() -> Vec<&'static str> {
    let mut names: Vec<&str> = Vec::new();
    for figure in KINDS.iter().flat_map(|kind| ShelfPart::figures_of(kind)) {
        if !names.contains(&figure.name) {
            names.push(figure.name);
        }
    }
    names
}

/// Reads a table: the parts that can be taken in, each with its line, and what is wrong with the others.
///
/// # Errors     [`ShelfFileError`] where it is no shelf at all
pub fn read_table(text: &str, units: BareUnits, currency: Currency) -> Result<ReadShelf, ShelfFileError> {
    if text.len() > LARGEST {
        return Err(ShelfFileError::TooLarge);
    }
    let text = text.trim_start_matches('\u{feff}');
    let mut reader =
        ReaderBuilder::new().delimiter(set_apart_by(text)).flexible(true).has_headers(true).from_reader(text.as_bytes());
    let columns = columns(reader.headers().map_err(|error| not_a_table(&error))?)?;
    let (mut parts, mut wrong) = (Vec::new(), Vec::new());
    for record in reader.records() {
        let record = record.map_err(|error| not_a_table(&error))?;
        let row = record.position().and_then(|position| usize::try_from(position.line()).ok()).unwrap_or_default();
        if record.iter().all(|cell| cell.trim().is_empty()) {
            continue;
        }
        if parts.len() + wrong.len() >= MOST_PARTS {
            return Err(ShelfFileError::TooLarge);
        }
        let cells = Cells { columns: &columns, record: &record };
        match cells.part(units, currency) {
            Ok(part) => parts.push((row, part)),
            Err((at, what)) => wrong.push(RowError { row, number: cells.get("number").to_owned(), at, what }),
        }
    }
    Ok(refuse_twins(ReadShelf { parts, wrong }))
}

fn not_a_table(error: &csv::Error) -> ShelfFileError {
    ShelfFileError::NotATable(error.position().map_or(1, csv::Position::line))
}

/// What the first line sets its names apart by.
fn set_apart_by(text: &str) -> u8 {
    let first = text.lines().next().unwrap_or_default();
    let often = |mark: &u8| first.bytes().filter(|byte| byte == mark).count();
    [b',', b';', b'\t'].into_iter().max_by_key(often).unwrap_or(b',')
}

fn columns(heads: &StringRecord) -> Result<Vec<String>, ShelfFileError> {
    let named: Vec<String> = heads.iter().map(|head| head.trim().to_lowercase().replace([' ', '-'], "_")).collect();
    let figures = figure_names();
    let is_known = |name: &str| {
        HEAD.contains(&name)
            || COLUMNS.iter().any(|column| column.name == name)
            || figures.contains(&name.strip_prefix(FOUND).unwrap_or(name))
    };
    if let Some(missing) = ["number", "name", "kind"].into_iter().find(|name| !named.iter().any(|of| of == name)) {
        return Err(ShelfFileError::NoColumn(missing));
    }
    if let Some(unknown) = named.iter().find(|name| !name.is_empty() && !is_known(name)) {
        return Err(ShelfFileError::Column(unknown.clone()));
    }
    let twice =
        named.iter().enumerate().find(|(place, name)| !name.is_empty() && named.iter().take(*place).any(|of| of == *name));
    match twice {
        Some((_, name)) => Err(ShelfFileError::Twice(name.clone())),
        None => Ok(named),
    }
}

/// A row by the names of its columns.
struct Cells<'r> {
    columns: &'r [String],
    record: &'r StringRecord,
}

impl<'r> Cells<'r> {
    fn each(&self) -> impl Iterator<Item = (&'r str, &'r str)> {
        self.columns.iter().map(String::as_str).zip(self.record.iter().map(str::trim).map(table_cell::read))
    }

    fn get(&self, name: &str) -> &'r str {
        self.each().find(|(of, _)| *of == name).map_or("", |(_, cell)| cell)
    }

    fn part(&self, units: BareUnits, currency: Currency) -> Result<ShelfPart, (String, String)> {
        if self.record.len() > self.columns.len() {
            let what =
                "the row has more cells than the first line has columns; quote a text that has the mark between cells in it";
            return Err(("the row".to_owned(), what.to_owned()));
        }
        let word = self.get("kind");
        let kind = KindRow::of(&word.to_lowercase().replace([' ', '-'], "_"));
        let kind = kind.ok_or_else(|| ("kind".to_owned(), format!("there is no kind of part “{word}”")))?;
        let row = Row { units: self.units(units)?, currency };
        let mut part = ShelfPart::new(self.get("number"), self.get("name"), kind);
        for (name, cell) in self.each().filter(|(name, cell)| !cell.is_empty() && !HEAD.contains(name)) {
            let told = |what: String| (name.to_owned(), what);
            if let Some(column) = COLUMNS.iter().find(|column| column.name == name) {
                (column.read)(&mut part, cell, &row).map_err(told)?;
                continue;
            }
            let (figure, found) = name.strip_prefix(FOUND).map_or((name, false), |figure| (figure, true));
            let of_kind = ShelfPart::figures_of(kind).find(|of| of.name == figure);
            let of_kind = of_kind.ok_or_else(|| told(format!("“{}” has no such figure; leave the cell empty", kind.word)))?;
            let entry = row.units.figure(of_kind.takes, cell).map_err(|error| told(error.to_string()))?;
            let list = if found { &mut part.found } else { &mut part.sold };
            list.insert(figure.to_owned(), entry);
        }
        match part.problem() {
            Some((at, problem)) => {
                // As the table names it.
                let at = at.strip_prefix("sold.").map(str::to_owned).unwrap_or(at);
                let at = at.strip_prefix("found.").map(|name| format!("{FOUND}{name}")).unwrap_or(at);
                Err((at, problem.to_string()))
            }
            None => Ok(part),
        }
    }

    fn units(&self, usual: BareUnits) -> Result<BareUnits, (String, String)> {
        let length = match self.get(LENGTH_UNIT).to_lowercase().as_str() {
            "" => usual.length,
            "in" => LengthUnit::Inches,
            "mm" => LengthUnit::Millimetres,
            other => return Err((LENGTH_UNIT.to_owned(), format!("“{other}” is no unit of a shelf's lengths; write in or mm"))),
        };
        let weight = match self.get(WEIGHT_UNIT).to_lowercase().as_str() {
            "" => usual.weight,
            "lb" => WeightUnit::Pounds,
            "kg" => WeightUnit::Kilograms,
            other => return Err((WEIGHT_UNIT.to_owned(), format!("“{other}” is no unit of a shelf's weights; write lb or kg"))),
        };
        Ok(BareUnits { length, weight })
    }
}

/// Writes parts as a table that reads back as they are.
///
/// # Errors     [`ShelfFileError::NotWritten`] when a row cannot be written
pub fn write_table(parts: &[ShelfPart]) -> Result<String, ShelfFileError> {
    let has = |list: fn(&ShelfPart) -> &BTreeMap<String, FigureEntry>, name: &str| {
        parts.iter().any(|part| list(part).contains_key(name))
    };
    let sold: Vec<&str> = figure_names().into_iter().filter(|name| has(|part| &part.sold, name)).collect();
    let found: Vec<&str> = figure_names().into_iter().filter(|name| has(|part| &part.found, name)).collect();
    let failed = |error: csv::Error| ShelfFileError::NotWritten(error.to_string());
    let mut writer = WriterBuilder::new().from_writer(Vec::new());
    let heads = HEAD.iter().map(ToString::to_string).chain(COLUMNS.iter().map(|column| column.name.to_owned()));
    let figures = sold.iter().map(ToString::to_string).chain(found.iter().map(|name| format!("{FOUND}{name}")));
    writer.write_record(heads.chain(figures)).map_err(failed)?;
    for part in parts {
        let units = units_of(part);
        let cell = |list: &BTreeMap<String, FigureEntry>, name: &str| match list.get(name) {
            Some(FigureEntry::Typed(typed)) => typed_text(typed, units),
            Some(FigureEntry::Table(table)) => table.text.clone(),
            _ => String::new(),
        };
        let length = if units.length == LengthUnit::Inches { "in" } else { "mm" };
        let weight = if units.weight == WeightUnit::Pounds { "lb" } else { "kg" };
        let [number, name] = [&part.number, &part.name].map(|words| table_cell::written(words));
        let head = [number, name, part.kind.word.to_owned(), length.to_owned(), weight.to_owned()];
        let of_kind = sold.iter().map(|name| cell(&part.sold, name)).chain(found.iter().map(|name| cell(&part.found, name)));
        let row = head.into_iter().chain(COLUMNS.iter().map(|column| (column.write)(part))).chain(of_kind);
        writer.write_record(row).map_err(failed)?;
    }
    let bytes = writer.into_inner().map_err(|error| ShelfFileError::NotWritten(error.to_string()))?;
    String::from_utf8(bytes).map_err(|error| ShelfFileError::NotWritten(error.to_string()))
}

/// The units that a part's bare numbers were typed in, by the first of each that it has.
fn units_of(part: &ShelfPart) -> BareUnits {
    let mut words = Vec::new();
    for entry in part.sold.values().chain(part.found.values()) {
        match entry {
            FigureEntry::Typed(typed) => words.push(typed.unit),
            FigureEntry::Table(table) => words.extend([table.length_unit, table.weight_unit]),
            _ => {}
        }
    }
    words.extend(
        [&part.wheel_width, &part.wheel_offset, &part.coil_inside, &part.coil_height]
            .into_iter()
            .flatten()
            .map(|typed| typed.unit),
    );
    let length = words.iter().find_map(|word| match word {
        UnitWord::In | UnitWord::Psi => Some(LengthUnit::Inches),
        UnitWord::Mm | UnitWord::Kpa => Some(LengthUnit::Millimetres),
        _ => None,
    });
    let weight = words.iter().find_map(|word| match word {
        UnitWord::Lb | UnitWord::LbPerIn => Some(WeightUnit::Pounds),
        UnitWord::Kg | UnitWord::NPerMm => Some(WeightUnit::Kilograms),
        _ => None,
    });
    BareUnits { length: length.unwrap_or(LengthUnit::Inches), weight: weight.unwrap_or(WeightUnit::Pounds) }
}

fn length_text(part: &ShelfPart, typed: Option<&Typed>) -> String {
    typed.map(|typed| typed_text(typed, units_of(part))).unwrap_or_default()
}

/// What was typed; with its unit where a bare number would be read in another.
fn typed_text(typed: &Typed, units: BareUnits) -> String {
    let bare = typed.text.chars().all(|sign| sign.is_ascii_digit() || " .,/-−+".contains(sign));
    let (same, name) = match typed.unit {
        UnitWord::In => (units.length == LengthUnit::Inches, "in"),
        UnitWord::Mm => (units.length == LengthUnit::Millimetres, "mm"),
        UnitWord::Psi => (units.length == LengthUnit::Inches, "psi"),
        UnitWord::Kpa => (units.length == LengthUnit::Millimetres, "kPa"),
        UnitWord::Lb => (units.weight == WeightUnit::Pounds, "lb"),
        UnitWord::Kg => (units.weight == WeightUnit::Kilograms, "kg"),
        UnitWord::LbPerIn => (units.weight == WeightUnit::Pounds, "lb/in"),
        UnitWord::NPerMm => (units.weight == WeightUnit::Kilograms, "N/mm"),
        _ => (true, ""),
    };
    if same || !bare { typed.text.clone() } else { format!("{} {name}", typed.text) }
}
