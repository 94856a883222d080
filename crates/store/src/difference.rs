//! What differs between two documents of the record, in the words they were typed in.

use std::collections::BTreeMap;

use serde_json::Value;

/// One thing that differs.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Difference {
    /// Where in the document, in its own words.
    pub place: String,
    /// What stood there; `None` where nothing did.
    pub before: Option<String>,
    /// What stands there now.
    pub after: Option<String>,
}

/// What differs, in the documents' order of words.
pub fn between(before: &Value, after: &Value) -> Vec<Difference> {
    let (mut was, mut is) = (BTreeMap::new(), BTreeMap::new());
    flatten("", before, &mut was);
    flatten("", after, &mut is);
    let places: std::collections::BTreeSet<&String> = was.keys().chain(is.keys()).collect();
    let differing = places.into_iter().filter(|place| was.get(*place) != is.get(*place));
    let difference =
        |place: &String| Difference { place: place.clone(), before: was.get(place).cloned(), after: is.get(place).cloned() };
    differing.map(difference).collect()
}

/// Every leaf of a document under its place. A typed quantity is one leaf: what was typed, with its unit where that was bare.
fn flatten(place: &str, value: &Value, leaves: &mut BTreeMap<String, String>) {
    let under = |name: &str| match place {
        "" => name.replace('_', " "),
        _ => format!("{place}, {}", name.replace('_', " ")),
    };
    let text = match value {
        Value::Null => return,
        Value::Object(fields) => match typed(value) {
            Some(text) => text,
            None => return fields.iter().for_each(|(name, value)| flatten(&under(name), value, leaves)),
        },
        Value::Array(items) if items.iter().all(|item| item.is_string() || item.is_number()) => {
            items.iter().map(plain).collect::<Vec<_>>().join(", ")
        }
        Value::Array(items) => {
            return items.iter().zip(1..).for_each(|(item, number)| flatten(&under(&number.to_string()), item, leaves));
        }
        other => plain(other),
    };
    if !text.is_empty() {
        leaves.insert(place.to_owned(), text);
    }
}

fn plain(value: &Value) -> String {
    match value {
        Value::String(text) => text.replace('_', " "),
        Value::Bool(yes) => if *yes { "yes" } else { "no" }.to_owned(),
        other => other.to_string(),
    }
}

fn typed(value: &Value) -> Option<String> {
    let (text, unit) = (value.get("text")?.as_str()?, value.get("unit")?.as_str()?);
    value.get("si")?;
    let unit = match unit {
        "lb_per_in" => "lb/in",
        "n_per_mm" => "N/mm",
        other => other,
    };
    let bare = !text.chars().any(|sign| sign.is_alphabetic() || "\"'″′°".contains(sign));
    Some(if bare { format!("{text} {unit}") } else { text.to_owned() })
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn a_changed_rating_is_told_as_it_was_typed() {
        let typed = |text: &str, si: f64| json!({ "text": text, "unit": "lb", "si": si });
        let before = json!({ "label": "Van", "rear_rating": typed("4,100", 18238.0), "gross_rating": null });
        let after = json!({ "label": "Van", "rear_rating": typed("4,500 lb", 20017.0), "gross_rating": typed("7,000", 31138.0) });
        let differs = between(&before, &after);
        let told: Vec<_> = differs.iter().map(|d| (d.place.as_str(), d.before.as_deref(), d.after.as_deref())).collect();
        assert_eq!(
            told,
            [("gross rating", None, Some("7,000 lb")), ("rear rating", Some("4,100 lb"), Some("4,500 lb"))],
            "what did not change is not told"
        );
    }

    #[test]
    fn lists_are_told_item_by_item_and_sameness_is_silence() {
        let bench = |thickness: &str| json!({ "leaves": [{ "name": "Main" }, { "thickness": thickness }], "cases": [1, 2] });
        assert_eq!(between(&bench("a"), &bench("a")), []);
        let differs = between(&bench("a"), &bench("b"));
        assert_eq!(differs.len(), 1);
        assert_eq!(differs[0].place, "leaves, 2, thickness");
    }
}
