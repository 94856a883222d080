//! What each kind of correction is called and asked for in: a file a kind, beside the one that the mechanics have of it.

mod added_leaf;
mod air_helper;
mod anti_roll_bar;
mod bags_in_coils;
mod bar_links;
mod bought_springs;
mod brake_hoses;
mod coil_spacer;
mod differential_drop;
mod exchanged_block;
mod exchanged_taper;
mod form;
mod half_pack;
mod helper_by_capacity;
mod helper_coils;
mod helper_spring;
mod leaf_by_lift;
mod lift_block;
mod load_rubber;
mod longer_shackle;
mod measured_coils;
mod new_coils;
mod new_packs;
pub(crate) mod on_the_shelf;
mod other_overload_leaf;
mod overload_pads;
pub(crate) mod parts;
mod radius_arm_drop;
mod rearched_pack;
mod reworked_pack;
mod rubber_by_capacity;
mod shocks;
mod spring_over;
mod stop_extension;
mod strut_spacer;
mod taller_struts;
mod tapered_block;
mod tires;
mod track_bar;
pub(crate) mod tried;
mod u_bolts;
mod words;
mod wound_coils;

pub(crate) use form::{SiteForm, begin, check, fill, kinds_form, kinds_that_do_not_fit, site_form};
pub(crate) use words::{account, correction_name, figure_label, figure_words, formula, option_name, parts_doubt};

use wise_badger_casework::entry::{Typed, UnitWord};
use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::correction::{KindRow, Takes};
use wise_badger_mechanics::tape::{LengthUnit, parse_length, parse_pressure};
use wise_badger_mechanics::units::InShopUnits;

/// The words of every kind, in the order offered, under what stands over a row of them.
static GROUPS: &[(&str, &[&KindWords])] = &[
    (
        "Leaf packs",
        &[
            &leaf_by_lift::WORDS,
            &added_leaf::WORDS,
            &half_pack::WORDS,
            &new_packs::WORDS,
            &rearched_pack::WORDS,
            &overload_pads::WORDS,
            &other_overload_leaf::WORDS,
            &longer_shackle::WORDS,
            &spring_over::WORDS,
        ],
    ),
    (
        "Blocks and spacers",
        &[
            &lift_block::WORDS,
            &exchanged_block::WORDS,
            &tapered_block::WORDS,
            &exchanged_taper::WORDS,
            &coil_spacer::WORDS,
            &strut_spacer::WORDS,
        ],
    ),
    ("Coils and struts", &[&new_coils::WORDS, &measured_coils::WORDS, &wound_coils::WORDS, &taller_struts::WORDS]),
    (
        "Helpers, rubbers, air",
        &[
            &helper_by_capacity::WORDS,
            &helper_spring::WORDS,
            &helper_coils::WORDS,
            &rubber_by_capacity::WORDS,
            &load_rubber::WORDS,
            &stop_extension::WORDS,
            &air_helper::WORDS,
            &bags_in_coils::WORDS,
        ],
    ),
    (
        "Goes with it",
        &[
            &shocks::WORDS,
            &brake_hoses::WORDS,
            &u_bolts::WORDS,
            &bar_links::WORDS,
            &anti_roll_bar::WORDS,
            &track_bar::WORDS,
            &radius_arm_drop::WORDS,
            &differential_drop::WORDS,
            &tires::WORDS,
        ],
    ),
    ("Planned on Bench", &[&reworked_pack::WORDS]),
];

/// The words of every kind, in the order offered.
fn kinds() -> impl Iterator<Item = &'static KindWords> {
    GROUPS.iter().flat_map(|(_, kinds)| kinds.iter().copied())
}

/// The words of one kind. A figure's name in braces stands for what was typed of it, or for what it comes to; what stands in square
/// brackets is left out where its figure is nought.
struct KindWords {
    row: &'static KindRow,
    /// What it is called where it is picked.
    name: &'static str,
    /// What it is called in a list.
    in_a_list: &'static str,
    /// Its fields on the form; none where it does not come from one.
    fields: &'static [FieldWords],
    /// What its opened sum was given, a line each.
    account: &'static [&'static str],
    /// How its height comes about.
    formula: &'static str,
}

/// A field of the form.
struct FieldWords {
    /// The figure it is for.
    figure: &'static str,
    /// Its name on the form, which no other kind has.
    field: &'static str,
    label: &'static str,
    hint: &'static str,
    /// What it begins with, in inches or psi; nothing where that must be typed.
    usual: &'static str,
    /// What lies between the bounds, to begin a sentence with.
    what: &'static str,
}

impl KindWords {
    /// The words of a kind. A kind without any is a fault of ours, and not to be shown under another's name.
    fn of(row: &KindRow) -> &'static KindWords {
        kinds().find(|words| words.row == row).expect("every kind of the mechanics has its words")
    }

    /// What a field begins with, as it would have been typed; `None` for nothing, which is nothing in every unit.
    fn usual(&self, field: &FieldWords) -> Option<Typed> {
        let figure = self.row.figures.iter().find(|figure| figure.name == field.figure)?;
        let (si, unit) = match figure.takes {
            Takes::Within(Bound { dimension: Dimension::Pressure, .. }) => {
                (parse_pressure(field.usual, LengthUnit::Inches).ok()?.si(), UnitWord::Psi)
            }
            _ => (parse_length(field.usual, LengthUnit::Inches).ok()?.si(), UnitWord::In),
        };
        (si > 0.0).then(|| Typed { text: field.usual.to_owned(), unit, si })
    }

    /// Whether it is typed on the form of Options, and not worked out elsewhere.
    fn is_typed(&self) -> bool {
        !self.fields.is_empty()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_mechanics::correction;

    #[test]
    fn every_kind_of_the_mechanics_has_its_words_and_every_field_its_figure() {
        let known: Vec<&str> = correction::KINDS.iter().map(|row| row.word).collect();
        let worded: Vec<&str> = kinds().map(|words| words.row.word).collect();
        assert_eq!(known, worded);
        for words in kinds() {
            for field in words.fields {
                assert!(words.row.figures.iter().any(|figure| figure.name == field.figure), "{}: {}", words.name, field.figure);
            }
            let asked = words.fields.len();
            assert!(asked == 0 || asked == words.row.figures.len(), "{}: a figure that nobody can type", words.name);
        }
        let mut fields: Vec<&str> = kinds().flat_map(|words| words.fields).map(|field| field.field).collect();
        fields.sort_unstable();
        let all = fields.len();
        fields.dedup();
        assert_eq!(fields.len(), all, "no two kinds share a field");
    }
}
