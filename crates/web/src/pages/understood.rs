//! How a text being typed is understood: the page's script shows it beside the field.

use actix_web::web::{Json, Query};
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::tape::{LengthUnit, TypedError, WeightUnit, parse_length, parse_rate, parse_weight};

use crate::error::WebError;
use crate::view::Units;
use crate::worker::Worker;

#[derive(Deserialize)]
pub(crate) struct Question {
    reads: String,
    text: String,
    length_unit: String,
    weight_unit: String,
}

/// The answer: a figure in the reader's units, or what is wrong.
#[derive(Serialize)]
pub(crate) struct Understood {
    #[serde(skip_serializing_if = "Option::is_none")]
    understood: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    problem: Option<String>,
}

pub(crate) async fn show(worker: Worker, question: Query<Question>) -> Result<Json<Understood>, WebError> {
    let bare = Units {
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
        Ok(understood) => Understood { understood: Some(understood), problem: None },
        Err(TypedError::Empty) => Understood { understood: None, problem: None },
        Err(error) => Understood { understood: None, problem: Some(error.to_string()) },
    }))
}
