//! The shop's shelf as files: what is given out is taken in as it was, and what cannot be is said by its row.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::entry::{BareUnits, Currency, EndWord, FigureEntry, MoneyEntry, ShelfPart, ShelfProblem};
use wise_badger_casework::shelf::{
    ReadShelf, RowError, ShelfChange, ShelfDocument, ShelfFileError, changes, read_table, write_table,
};
use wise_badger_mechanics::correction::{FigureRole, KINDS, KindRow, Site, Takes};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

const SHOP: BareUnits = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
const METRIC: BareUnits = BareUnits { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms };

fn kind(word: &str) -> &'static KindRow {
    KindRow::of(word).unwrap()
}

fn part(number: &str, word: &str, units: BareUnits, figures: &[(&str, &str)]) -> ShelfPart {
    let mut part = ShelfPart::new(number, format!("{word}, as sold"), kind(word));
    for (name, text) in figures {
        let figure = part.kind.figures.iter().find(|figure| figure.name == *name).unwrap();
        part.sold.insert((*name).to_owned(), units.figure(figure.takes, text).unwrap());
    }
    part
}

fn of(read: ReadShelf) -> (Vec<ShelfPart>, Vec<RowError>) {
    (read.parts.into_iter().map(|(_, part)| part).collect(), read.wrong)
}

fn read(text: &str) -> (Vec<ShelfPart>, Vec<RowError>) {
    of(read_table(text, SHOP, Currency::Usd).unwrap())
}

fn some_parts() -> Vec<ShelfPart> {
    let rubber = ShelfPart {
        price: MoneyEntry::read("1,250.50", Currency::Usd),
        hours: Some(0.5),
        in_stock: Some(0),
        lead_days: Some(4),
        removable: Some(true),
        end: Some(EndWord::Rear),
        note: "quoted \"twice\", with a comma".to_owned(),
        ..part("RB 1", "load_rubber", SHOP, &[("force", "0 ; 0\n1/2 ; 180 lb\n1 ; 520"), ("clearance", "1/2")])
    };
    let mut helper = part("HS-1", "helper_by_capacity", SHOP, &[("capacity", "1,000"), ("working_travel", "6")]);
    let capacity = kind("helper_by_capacity").figures[0];
    helper.found.insert("capacity".to_owned(), SHOP.figure(capacity.takes, "1,150").unwrap());
    let metric = part("NP-1", "new_packs", METRIC, &[("lift", "40"), ("added_rate", "-2,5")]);
    let mixed = part("BL-1", "lift_block", METRIC, &[("thickness", "2 in")]);
    let coils = [("new_height", "15"), ("new_wire", "5/8"), ("new_outside", "5 3/4"), ("new_turns", "6 1/2")];
    vec![rubber, helper, metric, mixed, part("CO-1", "wound_coils", SHOP, &coils)]
}

#[test]
fn a_shelf_reads_back_as_it_was_from_either_file() {
    let parts = some_parts();
    assert!(parts.iter().all(|part| part.problem().is_none()));
    let (again, wrong) = read(&write_table(&parts).unwrap());
    assert_eq!((again, wrong), (parts.clone(), vec![]));
    let text = serde_json::to_string(&ShelfDocument::new(parts.clone())).unwrap();
    assert_eq!(of(ShelfDocument::read(&text).unwrap()), (parts.clone(), vec![]));
    // Taken in once more nothing changes.
    assert_eq!(changes(&parts, parts.clone()), (vec![], parts.len()));
}

#[test]
fn its_example_is_a_shelf_by_its_schema() {
    let example = include_str!("../../../docs/shelf.example.json");
    let (parts, wrong) = of(ShelfDocument::read(example).unwrap());
    assert!(parts.len() > 2 && wrong.is_empty(), "{wrong:?}");
    let schema: serde_json::Value = serde_json::from_str(include_str!("../../../docs/shelf.schema.json")).unwrap();
    assert_eq!(
        schema,
        serde_json::to_value(ShelfDocument::schema()).unwrap(),
        "wise-badger shelf schema > docs/shelf.schema.json"
    );
    let validator = jsonschema::validator_for(&schema).unwrap();
    assert!(validator.is_valid(&serde_json::from_str(example).unwrap()));
}

#[test]
fn a_table_is_read_as_spreadsheets_of_either_side_of_the_water_write_it() {
    let text =
        "Number;Name;Kind;Length unit;Weight unit;Price;Hours;Lift;Added rate\nA1;packs;new packs;mm;kg;1.250,50;1,5;37,5;-2,5\n";
    let (parts, wrong) = read(text);
    assert_eq!(wrong, []);
    let part = &parts[0];
    assert_eq!((part.price.as_ref().unwrap().hundredths, part.hours), (125_050, Some(1.5)));
    let si = |name: &str| match part.best(name) {
        Some(FigureEntry::Typed(typed)) => typed.si,
        other => panic!("{other:?}"),
    };
    assert!((si("lift") - 0.0375).abs() < 1e-12 && (si("added_rate") + 2_500.0).abs() < 1e-9);
    let (parts, wrong) =
        read("\u{feff}number,name,kind,capacity,working_travel\nH1,helpers,helper_by_capacity,\"1,000 lb\",150 mm\n\n,,,,\n");
    assert_eq!((parts.len(), wrong), (1, vec![]));
}

#[test]
fn what_cannot_be_is_said_by_its_row_and_its_column() {
    let heads = "number,name,kind,length_unit,weight_unit,price,in_stock,end,thickness,force,clearance,lift,added_rate";
    let wrong_of = |row: &str| {
        let (parts, wrong) = read(&format!("{heads}\n{row}\nOK,a good one,lift_block,,,,,,2\n"));
        assert_eq!(parts.len(), 1, "the others stand: {row}");
        assert_eq!(wrong.len(), 1, "{row}");
        (wrong[0].row, wrong[0].at.clone(), wrong[0].what.clone())
    };
    for (row, at, what) in [
        ("A,part,lift_bolck,,,,,,2", "kind", "no kind"),
        ("A,part,lift_block,furlong,,,,,2", "length_unit", "in or mm"),
        ("A,part,lift_block,,stone,,,,2", "weight_unit", "lb or kg"),
        ("A,part,lift_block,,,dear,,,2", "price", "no sum of money"),
        ("A,part,lift_block,,,,-3,,2", "in_stock", "whole number"),
        ("A,part,lift_block,,,,,middle,2", "end", "front or rear"),
        ("A,part,lift_block,,,,,front,2", "end", "does not go on the front"),
        ("A,part,lift_block,mm,,,,,2", "thickness", "outside"),
        ("A,part,lift_block,,,,,,two", "thickness", "“two”"),
        ("A,part,lift_block", "thickness", "wants its"),
        ("A,part,lift_block,,,,,,2,,,1", "lift", "no such figure"),
        ("A,part,rearched_pack", "kind", "on no shelf"),
        (",part,lift_block,,,,,,2", "number", "every part has"),
        ("A,,lift_block,,,,,,2", "name", "every part has"),
        ("A,part,load_rubber,,,,,,,0=0", "force", "2 points or more"),
        ("A,part,load_rubber,,,,,,,\"0=0\n1=500\n2=300\"", "force", "fall"),
        ("A,part,lift_block,,,,,,2,,,,,,", "the row", "more cells"),
        ("ok ,twin,lift_block,,,,,,2", "number", "is also in row"),
    ] {
        if row.starts_with("ok") {
            let (parts, wrong) = read(&format!("{heads}\n{row}\nOK,a good one,lift_block,,,,,,2\nB,other,lift_block,,,,,,3\n"));
            assert_eq!((parts.len(), wrong.len(), wrong[0].row, wrong[1].row), (1, 2, 2, 3));
            assert!(wrong.iter().all(|wrong| wrong.what.contains(what)));
            continue;
        }
        let (line, said_at, said) = wrong_of(row);
        assert_eq!((line, said_at.as_str()), (2, at), "{row}: {said}");
        assert!(said.contains(what), "{row}: {said}");
    }
}

#[test]
fn a_file_that_is_no_shelf_is_refused_whole() {
    let table = |text: &str| read_table(text, SHOP, Currency::Usd).unwrap_err();
    assert_eq!(table("number,name\nA,part\n"), ShelfFileError::NoColumn("kind"));
    assert_eq!(table("number,name,kind,colour\n"), ShelfFileError::Column("colour".to_owned()));
    assert_eq!(table("number,name,kind,Name\n"), ShelfFileError::Twice("name".to_owned()));
    let document = |text: &str| ShelfDocument::read(text).unwrap_err();
    assert_eq!(
        document(r#"{"format":"wise-badger/shelf","version":2,"parts":[]}"#),
        ShelfFileError::Other("wise-badger/shelf".to_owned(), 2)
    );
    assert_eq!(document("{\n\"format\": "), ShelfFileError::NotJson(2));
    assert!(matches!(document("[1]"), ShelfFileError::Other(..)));
    let good = serde_json::to_value(ShelfDocument::new(some_parts())).unwrap();
    for (path, value, said) in [
        ("/parts/0/name", serde_json::json!("nul \u{0}"), "a sign in it"),
        ("/parts/0/price/hundredths", serde_json::json!(1), "does not read as"),
        ("/parts/0/sold/force/points_si/2/1", serde_json::json!(9.0e4), "does not read as"),
        ("/parts/0/in_stock", serde_json::json!(-1), "invalid value"),
        ("/parts/0/kind", serde_json::json!("wings"), "no kind of part"),
        ("/parts/0/colour", serde_json::json!("red"), "unknown field"),
    ] {
        let mut spoilt = good.clone();
        let (parent, name) = path.rsplit_once('/').unwrap();
        match spoilt.pointer_mut(parent).unwrap() {
            serde_json::Value::Object(fields) => drop(fields.insert(name.to_owned(), value)),
            serde_json::Value::Array(items) => items[name.parse::<usize>().unwrap()] = value,
            other => panic!("{other}"),
        }
        let read = ShelfDocument::read(&spoilt.to_string()).unwrap();
        assert_eq!((read.parts.len(), read.wrong.len()), (4, 1), "{path}");
        assert!(read.wrong[0].what.contains(said), "{path}: {}", read.wrong[0].what);
    }
    let mut spoilt = good.clone();
    spoilt["parts"][2]["sold"]["lift"]["si"] = serde_json::json!(4.0);
    let (parts, wrong) = of(ShelfDocument::read(&spoilt.to_string()).unwrap());
    assert_eq!((parts.len(), wrong[0].row, wrong[0].at.as_str()), (4, 3, "sold.lift"));
    assert!(wrong[0].what.contains("does not read as"), "{}", wrong[0].what);
}

#[test]
fn ten_thousand_parts_are_read_each() {
    let mut text = "number,name,kind,thickness\n".to_owned();
    for number in 0..10_000 {
        text += &format!("N{number},block {number},lift_block,{}\n", if number % 100 == 7 { "20 in" } else { "2" });
    }
    let (parts, wrong) = read(&text);
    assert_eq!((parts.len(), wrong.len()), (9_900, 100));
    assert_eq!((wrong[0].row, wrong[0].number.as_str()), (9, "N7"));
}

/// A kind's figures are of its part, of how it is set, or of the vehicle; what is on a shelf is made whole by those of the vehicle.
#[test]
fn a_part_of_the_shelf_is_made_whole_by_the_vehicle() {
    for row in KINDS.iter().copied().filter(|row| ShelfPart::is_bought(row)) {
        let entry = |takes: Takes| match takes {
            Takes::Within(bound) => {
                let text = format!("{}", f64::midpoint(bound.least, bound.most));
                let unit = BareUnits { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms };
                // Any figure within its bounds will do.
                let mut typed = unit.quantity(bound.dimension, "1").unwrap();
                (typed.si, typed.text) = (f64::midpoint(bound.least, bound.most), text);
                FigureEntry::Typed(typed)
            }
            Takes::Table => SHOP.figure(takes, "0;0\n1;300").unwrap(),
            _ => panic!("{} has a figure that nobody types", row.word),
        };
        let mut part = ShelfPart::new("A", "part", row);
        part.sold = ShelfPart::figures_of(row).map(|figure| (figure.name.to_owned(), entry(figure.takes))).collect();
        assert_eq!(part.problem(), None, "{}", row.word);
        let vehicle = row.figures.iter().filter(|figure| figure.role == FigureRole::OfTheVehicle);
        let vehicle = vehicle.map(|figure| (figure.name.to_owned(), entry(figure.takes))).collect();
        let correction = part.on(Site::default(), vehicle).unwrap();
        assert!(correction.correction().is_some(), "{}", row.word);
        let own = ShelfPart::figures_of(row).find(|figure| figure.role == FigureRole::OfThePart).unwrap();
        part.sold.remove(own.name);
        let missing = ShelfProblem::Figure { kind: row.word, figure: own.name };
        assert_eq!(part.problem(), Some((format!("sold.{}", own.name), missing)), "{}", row.word);
    }
}

#[test]
fn a_file_says_what_it_would_change() {
    let on_the_shelf = some_parts();
    let dearer =
        ShelfPart { price: MoneyEntry::read("199", Currency::Usd), number: "hs-1".to_owned(), ..on_the_shelf[1].clone() };
    let new = part("NEW", "lift_block", SHOP, &[("thickness", "1")]);
    let (changed, same) = changes(&on_the_shelf, vec![on_the_shelf[0].clone(), dearer.clone(), new.clone()]);
    assert_eq!((changed.len(), same), (2, 1));
    assert_eq!(changed[0].fields(), ["number", "price"]);
    assert_eq!((changed[0].after(), &changed[1]), (&dearer, &ShelfChange::New(Box::new(new))));
}

#[test]
fn no_word_of_a_part_is_taken_for_a_formula() {
    for words in ["=1+1", "+49 555 0123", "-10 % until May", "@home", "'=quoted", "''+twice"] {
        let named = ShelfPart {
            name: words.to_owned(),
            supplier: words.to_owned(),
            note: words.to_owned(),
            ..part(words, "lift_block", SHOP, &[("thickness", "2")])
        };
        let table = write_table(std::slice::from_ref(&named)).unwrap();
        let cells = csv::Reader::from_reader(table.as_bytes()).records().next().unwrap().unwrap();
        let formulas: Vec<&str> = cells.iter().filter(|cell| cell.starts_with(['=', '+', '-', '@'])).collect();
        assert!(formulas.is_empty(), "{words}: {formulas:?}");
        assert_eq!(read(&table), (vec![named], vec![]), "{words} reads back as it was");
    }
}

proptest! {
    /// Whatever stands in the words of a part, and however long its numbers are, a table gives it back.
    #[test]
    fn any_words_survive_the_table(
        number in "['=+@-]{0,2}[^\\s\\p{C}][^\\p{C}]{0,20}", name in "[^\\s\\p{C}][^\\p{C}]{0,40}", note in "[^\\p{C}]{0,60}",
        hundredths in 0..100_000_000_i64, hours in proptest::option::of(0.0..100.0_f64), stock in proptest::option::of(0..9_999_u32),
        thickness in 0.25..6.0_f64,
    ) {
        let price = format!("{}.{:02}", hundredths / 100, hundredths % 100);
        let block = ShelfPart {
            name: name.trim().to_owned(),
            note: note.trim().to_owned(),
            price: MoneyEntry::read(&price, Currency::Usd),
            hours,
            in_stock: stock,
            ..part(number.trim(), "lift_block", SHOP, &[("thickness", &format!("{thickness:.3}"))])
        };
        prop_assert_eq!(block.price.as_ref().unwrap().hundredths, hundredths);
        let (again, wrong) = read(&write_table(std::slice::from_ref(&block)).unwrap());
        prop_assert_eq!((again, wrong), (vec![block], vec![]));
    }
}
