//! An option put together of parts of a shelf, by their numbers.

use wise_badger_mechanics::correction::{Axles, Site};
use wise_badger_mechanics::side::Side;

use super::{FORMAT, OptionDocument, OptionDocumentError, VERSION, wrong};
use crate::casework::Casework;
use crate::entry::{BareUnits, FigureEntry, PartEntry, ShelfPart, TypedIn};
use crate::job_document::JobDocument;
use crate::shelf_fit::{Setting, entry_of, settable};
use crate::words::Word as _;

impl OptionDocument {
    /// Parts of a shelf for a job, each as it is asked for: its number, then where it goes and how it is set, where that is not both
    /// sides of the rear as its box says: `RB-731`, `SS-541@front`, `CS-531@left`, `AB-801=35 psi`, `CS-531@front@left`.
    ///
    /// # Errors     [`OptionDocumentError`] with what was asked, where there is no such part or place, or it cannot be set so
    pub fn of_shelf(job: &JobDocument, shelf: &[ShelfPart], asked: &[String]) -> Result<Self, OptionDocumentError> {
        let work = Casework::new(job.case());
        let vehicle = &work.found().vehicle;
        let units = TypedIn::default();
        let part = |asked: &String| -> Result<PartEntry, OptionDocumentError> {
            let (place, set) = asked.split_once('=').map_or((asked.as_str(), None), |(place, set)| (place, Some(set)));
            let mut words = place.split('@').map(str::trim);
            let number = words.next().unwrap_or_default();
            let found = shelf.iter().find(|part| part.number.eq_ignore_ascii_case(number));
            let part = found.ok_or_else(|| wrong(asked.as_str(), "the shelf has no part of this number"))?;
            let mut site = Site::default();
            for word in words {
                match (Axles::from_word(word), Side::from_word(word)) {
                    (Some(axles), _) => site.axles = axles,
                    (None, Some(side)) => site.side = Some(side),
                    (None, None) => return Err(wrong(asked.as_str(), format!("a part does not go on “{word}”"))),
                }
            }
            let set = set.map(|text| setting(part, asked, text)).transpose()?;
            let entry = entry_of(vehicle, part, site, set, units);
            let entry = entry
                .ok_or_else(|| wrong(asked.as_str(), "it asks for a figure of the vehicle; put it in an option's document"))?;
            Ok(PartEntry { shelf: Some(Box::new(part.clone())), ..PartEntry::by_itself(entry) })
        };
        let parts = asked.iter().map(part).collect::<Result<Vec<_>, _>>()?;
        let document = OptionDocument { format: FORMAT.to_owned(), version: VERSION, name: String::new(), parts };
        match document.option().problem() {
            Some((at, what)) => Err(wrong(at, what)),
            None => Ok(document),
        }
    }
}

/// How a part is to be set, as typed.
fn setting(part: &ShelfPart, asked: &str, text: &str) -> Result<Setting, OptionDocumentError> {
    let nothing = || wrong(asked, "nothing of this part is set when it is fitted");
    let (figure, bound) = settable(part).ok_or_else(nothing)?;
    let figure_of_kind = part.kind.figures.iter().find(|of| of.name == figure).ok_or_else(nothing)?;
    let units = BareUnits { length: TypedIn::default().length, weight: TypedIn::default().weight };
    match units.figure(figure_of_kind.takes, text) {
        Ok(FigureEntry::Typed(typed)) => Ok(Setting { figure, dimension: bound.dimension, si: typed.si }),
        _ => Err(wrong(asked, format!("“{text}” is no setting of this part"))),
    }
}
