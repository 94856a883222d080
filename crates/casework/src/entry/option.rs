//! An option, as typed: parts fitted together, each in its place, some of them set otherwise in some load cases.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::correction::{Correction, not_together};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::Force;

use super::{BenchEntry, CorrectionEntry, MoneyEntry, NoCorrection, PackEntry, ShelfPart, Typed, WhenEntry};

/// Most parts of an option.
pub const MOST_PARTS: usize = 12;

/// Parts that would be fitted together.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct OptionEntry {
    /// What the shop calls it; it goes by its parts where that is empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// Its parts, in the order put together.
    pub parts: Vec<PartEntry>,
}

/// A part in its place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PartEntry {
    /// What it is, with its figures, and where it goes.
    pub correction: CorrectionEntry,
    /// How it is set otherwise in a state or a load case.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub settings: Vec<SettingEntry>,
    /// The part of the shop's shelf that it is, as it stood there then: its figures, its price, and what it takes to have it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shelf: Option<Box<ShelfPart>>,
}

/// How a part is set in a state or a case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SettingEntry {
    /// When.
    pub when: WhenEntry,
    /// What the figure that may be set is then.
    pub value: Typed,
}

impl From<CorrectionEntry> for OptionEntry {
    fn from(correction: CorrectionEntry) -> Self {
        OptionEntry { name: String::new(), parts: vec![PartEntry::by_itself(correction)] }
    }
}

impl OptionEntry {
    /// What its parts cost together by the shelf. `None` where the price of one is not known, or they are in different currencies.
    pub fn price(&self) -> Option<MoneyEntry> {
        Self::price_of(self.parts.iter())
    }

    /// What some parts cost together, as [`Self::price`].
    pub fn price_of<'p>(parts: impl Iterator<Item = &'p PartEntry>) -> Option<MoneyEntry> {
        let mut sum: Option<MoneyEntry> = None;
        for part in parts {
            let price = part.shelf.as_deref()?.price.as_ref()?;
            let before = sum.get_or_insert_with(|| MoneyEntry::of(0, price.currency));
            if before.currency != price.currency {
                return None;
            }
            sum = Some(MoneyEntry::of(before.hundredths + price.hundredths, price.currency));
        }
        sum
    }

    /// The packs planned on a bench, one part for both sides or one for each side that anything is planned on; `words` says what is
    /// done to a side's, and they are worked out up to a load.
    ///
    /// # Errors     [`NoCorrection`], as of any correction
    pub fn of_bench(bench: &BenchEntry, words: impl Fn(&BenchEntry) -> String, most: Force) -> Result<Self, NoCorrection> {
        let of_side = |side: &Option<Side>| (*side, bench.of_side(*side));
        let changed = bench.sides().iter().map(of_side).filter(|(_, one)| one.is_changed());
        let parts = changed.map(|(side, one)| {
            let words = words(&one);
            let correction = CorrectionEntry::of_bench(one, side, words, most)?;
            Ok(PartEntry::by_itself(correction))
        });
        Ok(OptionEntry { name: String::new(), parts: parts.collect::<Result<_, _>>()? })
    }

    /// Its parts as the mechanics take them, set as they are in a state or a case; `None` when one of them is none any more.
    pub fn corrections(&self, when: Option<WhenEntry>) -> Option<Vec<Correction>> {
        self.parts.iter().map(|part| part.correction(when)).collect()
    }

    /// The first thing about it that cannot be: the path of the field, and what is wrong there.
    pub fn problem(&self) -> Option<(String, String)> {
        if self.parts.is_empty() || self.parts.len() > MOST_PARTS {
            return Some(("parts".to_owned(), format!("an option has from 1 to {MOST_PARTS} parts")));
        }
        let of_parts = self.parts.iter().enumerate().find_map(|(index, part)| {
            let (at, what) = part.problem()?;
            Some((format!("parts[{index}].{at}"), what))
        });
        let together = || {
            let clash = not_together(&self.corrections(None)?)?;
            Some((format!("parts[{}]", clash.other), format!("it takes up at one corner what parts[{}] does", clash.one)))
        };
        of_parts.or_else(together)
    }

    /// Whether any of its parts is set otherwise somewhere.
    pub fn is_set_by_case(&self) -> bool {
        self.parts.iter().any(|part| !part.settings.is_empty())
    }

    /// Whether a pack of its parts was planned on a bench that has been worked on since.
    pub fn is_out_of_date(&self, bench: Option<&BenchEntry>) -> bool {
        let is_now = |of_then: &CorrectionEntry, (found, planned): (&PackEntry, &PackEntry)| {
            let side = of_then.site.side;
            bench.filter(|bench| bench.sides().contains(&side)).is_some_and(|bench| bench.entries(side) == [found, planned])
        };
        let mut of_then = self.parts.iter().filter_map(|part| Some((&part.correction, part.correction.packs()?)));
        of_then.any(|(of_then, packs)| !is_now(of_then, packs))
    }
}

impl PartEntry {
    /// A correction set alike everywhere, from no shelf.
    pub fn by_itself(correction: CorrectionEntry) -> Self {
        PartEntry { correction, settings: Vec::new(), shelf: None }
    }

    fn problem(&self) -> Option<(String, String)> {
        let of = |correction: Option<Correction>| match correction {
            None => Some("its figures make no correction".to_owned()),
            Some(correction) => correction.problems().first().map(ToString::to_string),
        };
        let usual = of(self.correction.correction()).map(|what| ("correction".to_owned(), what));
        let of_the_shelf = || {
            let part = self.shelf.as_deref()?;
            if part.kind != self.correction.row {
                return Some(("shelf.kind".to_owned(), "it is another kind of part than the correction".to_owned()));
            }
            part.problem().map(|(at, problem)| (format!("shelf.{at}"), problem.to_string()))
        };
        usual.or_else(of_the_shelf).or_else(|| {
            self.settings.iter().enumerate().find_map(|(index, setting)| {
                let what = match self.correction.row.set_by_case {
                    None => Some("this part has nothing that is set by case".to_owned()),
                    Some(_) => of(self.correction(Some(setting.when))),
                };
                Some((format!("settings[{index}]"), what?))
            })
        })
    }

    /// As the mechanics take it, set as it is in a state or a case; `None` when it is none any more.
    pub fn correction(&self, when: Option<WhenEntry>) -> Option<Correction> {
        let setting = self.settings.iter().find(|setting| Some(setting.when) == when);
        let correction = match (setting, self.correction.row.set_by_case) {
            (Some(setting), Some(figure)) => self.correction.with_figure(figure, setting.value.clone().into()).correction(),
            _ => self.correction.correction(),
        };
        match self.shelf.as_deref().and_then(|shelf| shelf.record) {
            Some(record) if record.is_sound() => correction.map(|known| known.known_as(record.deviations, record.left)),
            _ => correction,
        }
    }
}
