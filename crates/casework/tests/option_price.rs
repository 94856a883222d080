//! What an option costs by the shelf.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use wise_badger_casework::entry::{CorrectionEntry, Currency, MoneyEntry, OptionEntry, PartEntry, ShelfPart, Typed, UnitWord};
use wise_badger_mechanics::correction::KindRow;

fn part(price: Option<(i64, Currency)>) -> PartEntry {
    let row = KindRow::of("lift_block").unwrap();
    let mut shelf = ShelfPart::new("B", "block", row);
    shelf.price = price.map(|(hundredths, currency)| MoneyEntry::of(hundredths, currency));
    let thick = Typed { text: "1".to_owned(), unit: UnitWord::In, si: 0.0254 };
    let correction = CorrectionEntry::of(row, [("thickness", thick.into())]).unwrap();
    PartEntry { shelf: Some(Box::new(shelf)), ..PartEntry::by_itself(correction) }
}

#[test]
fn a_price_is_told_where_all_of_it_is_known_and_in_one_currency() {
    let of = |prices: &[Option<(i64, Currency)>]| {
        let option = OptionEntry { name: String::new(), parts: prices.iter().map(|price| part(*price)).collect() };
        option.price().map(|price| (price.text, price.hundredths))
    };
    let (dollars, others) = (Some((5_805, Currency::Usd)), Some((12_000, Currency::Cad)));
    assert_eq!(of(&[dollars, Some((200, Currency::Usd))]), Some(("60.05".to_owned(), 6_005)));
    assert_eq!(of(&[dollars, None]), None);
    assert_eq!(of(&[dollars, others]), None);
    assert_eq!(of(&[]), None);
}
