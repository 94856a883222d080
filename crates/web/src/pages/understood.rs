//! How a text being typed is understood: the page's script shows it beside the field.

use actix_web::web::{Json, Query};
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::tape::{
    Beside, LengthUnit, ReadingDoubt, TypedError, WeightUnit, parse_length, parse_rate, parse_weight,
};

use wise_badger_mechanics::units::inches;

use crate::error::WebError;
use crate::view::Units;
use crate::worker::Worker;

#[derive(Deserialize)]
pub(crate) struct Question {
    reads: String,
    text: String,
    length_unit: String,
    weight_unit: String,
    /// What stands in the field of another reading of the same corner, of the other side, of the same corner empty.
    repeat: Option<String>,
    side: Option<String>,
    empty: Option<String>,
    /// Whether it is a height on the walk round the vehicle.
    height: Option<String>,
}

/// The answer: a figure in the reader's units, or what is wrong.
#[derive(Serialize)]
pub(crate) struct Understood {
    #[serde(skip_serializing_if = "Option::is_none")]
    understood: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    problem: Option<String>,
    /// What does not fit the readings beside it: a question, no refusal.
    #[serde(skip_serializing_if = "Option::is_none")]
    doubt: Option<String>,
}

/// No arch or frame is read higher than this, and few lower (common practice).
const TALLEST_IN: f64 = 80.0;
const LEAST_IN: f64 = 4.0;

impl Question {
    /// What does not fit.
    fn doubt(&self, bare: Units, reader: Units) -> Option<String> {
        let length = |text: &str| parse_length(text, bare.length).ok();
        let read = length(&self.text).filter(|_| self.reads == "length")?;
        if self.height.is_some() && read > inches(TALLEST_IN) {
            let point = read / 100.0;
            let meant = if point > inches(LEAST_IN) { format!(": {} meant?", bare.exact(point)) } else { String::new() };
            return Some(format!("more than any vehicle stands at{meant}"));
        }
        let other = |text: &Option<String>| text.as_deref().and_then(length);
        let beside = Beside { repeat: other(&self.repeat), other_side: other(&self.side), empty: other(&self.empty) };
        ReadingDoubt::of(read, &beside).map(|doubt| match doubt {
            ReadingDoubt::Repeat(by) => format!("{} from the other reading of this corner: read it again", reader.height(by)),
            ReadingDoubt::Side(by) => format!("{} from the other side: look again", reader.height(by)),
            ReadingDoubt::Rise(by) => format!("{} higher loaded than empty: look again", reader.height(by)),
        })
    }
}

pub(crate) async fn show(worker: Worker, question: Query<Question>) -> Result<Json<Understood>, WebError> {
    let bare = Units {
        currency: worker.units().currency,
        length: if question.length_unit == "mm" { LengthUnit::Millimetres } else { LengthUnit::Inches },
        weight: if question.weight_unit == "kg" { WeightUnit::Kilograms } else { WeightUnit::Pounds },
    };
    let (text, reader) = (question.text.as_str(), worker.units());
    let read = match question.reads.as_str() {
        "length" => parse_length(text, bare.length).map(|length| reader.height(length)),
        "weight" => parse_weight(text, bare.weight).map(|force| reader.weight(force)),
        "rate" => parse_rate(text, bare.weight).map(|rate| reader.rate(rate)),
        other => return Err(WebError::Malformed(format!("reads {other}"))),
    };
    Ok(Json(match read {
        Ok(understood) => Understood { understood: Some(understood), problem: None, doubt: question.doubt(bare, reader) },
        Err(TypedError::Empty) => Understood { understood: None, problem: None, doubt: None },
        Err(error) => Understood { understood: None, problem: Some(error.to_string()), doubt: None },
    }))
}
