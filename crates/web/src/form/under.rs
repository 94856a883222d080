//! A form within a form: fields whose names begin alike, worked with as a form of their own.

use form_urlencoded::Serializer;

use super::Sheet;
use super::posted::TOKEN;

/// Fields of every form that say nothing of what was asked.
const OF_THE_SENDING: [&str; 3] = [TOKEN, "revision", "act"];

impl Sheet {
    /// The fields whose names begin so, by what is left of their names.
    pub(crate) fn under(&self, beginning: &str) -> Sheet {
        let mut inner = Sheet::blank(self.units);
        let of = |name: &String| name.strip_prefix(beginning).map(str::to_owned);
        inner.values = self.values.iter().filter_map(|(name, text)| Some((of(name)?, text.clone()))).collect();
        inner.first_typed = self.first_typed.iter().filter_map(|(name, typed)| Some((of(name)?, typed.clone()))).collect();
        inner
    }

    /// Puts the fields of such a form here, under names that begin so: what stood under them before is gone.
    pub(crate) fn put_under(&mut self, beginning: &str, inner: &Sheet) {
        self.clear_under(beginning);
        self.values.extend(inner.values.iter().map(|(name, text)| (format!("{beginning}{name}"), text.clone())));
        self.first_typed.extend(inner.first_typed.iter().map(|(name, typed)| (format!("{beginning}{name}"), typed.clone())));
    }

    /// Empties the fields whose names begin so.
    pub(crate) fn clear_under(&mut self, beginning: &str) {
        self.values.retain(|name, _| !name.starts_with(beginning));
        self.first_typed.retain(|name, _| !name.starts_with(beginning));
    }

    /// Says what is wrong with such a form beside its fields here.
    pub(crate) fn refuse_under(&mut self, beginning: &str, inner: &Sheet) {
        for (name, problem) in inner.problems() {
            self.refuse(&format!("{beginning}{name}"), problem);
        }
    }

    /// Keeps of the form only the fields that are asked for.
    pub(crate) fn keep_only(&mut self, wanted: impl Fn(&str) -> bool) {
        self.values.retain(|name, _| wanted(name));
        self.first_typed.retain(|name, _| wanted(name));
    }

    /// What stands on the form, as an address asks for it.
    pub(crate) fn as_query(&self) -> String {
        let asked = self.values.iter().filter(|(name, text)| !text.is_empty() && !OF_THE_SENDING.contains(&name.as_str()));
        Serializer::new(String::new()).extend_pairs(asked).finish()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_casework::entry::Currency;
    use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

    use crate::view::Units;

    const SHOP: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };

    #[test]
    fn what_is_done_to_a_form_within_a_form_is_done_to_its_fields() {
        let mut sheet = Sheet::blank(SHOP);
        sheet.set("p1_kind", "block");
        sheet.set("p1_thickness", "wide");
        sheet.set("p10_kind", "helper");
        let mut inner = sheet.under("p1_");
        assert_eq!((inner.text("kind"), inner.text("thickness")), ("block", "wide"));
        assert!(inner.length("thickness").is_none());
        sheet.refuse_under("p1_", &inner);
        assert!(!sheet.problem("p1_thickness").is_empty() && sheet.problem("thickness").is_empty());
        inner.keep_only(|name| name == "kind");
        sheet.put_under("p1_", &inner);
        assert_eq!((sheet.text("p1_thickness"), sheet.text("p10_kind")), ("", "helper"));
    }

    #[test]
    fn an_address_asks_for_all_that_stands_on_a_form_but_its_sending() {
        let mut sheet = Sheet::blank(SHOP);
        for (name, text) in [("token", "a"), ("revision", "3"), ("act", "show"), ("p0_thickness", "1 7/8"), ("name", "")] {
            sheet.set(name, text);
        }
        assert_eq!(sheet.as_query(), "p0_thickness=1+7%2F8");
    }
}
