//! A part of a shelf with its figures as they would be typed.

use wise_badger_casework::entry::{BareUnits, ShelfPart};
use wise_badger_mechanics::correction::KindRow;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

pub(crate) fn part(number: &str, word: &str, figures: &[(&str, &str)]) -> ShelfPart {
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let mut part = ShelfPart::new(number, word, KindRow::of(word).unwrap());
    for (name, text) in figures {
        let figure = part.kind.figures.iter().find(|figure| figure.name == *name).unwrap();
        part.sold.insert((*name).to_owned(), units.figure(figure.takes, text).unwrap());
    }
    assert_eq!(part.problem(), None);
    part
}
