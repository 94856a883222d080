//! A job in a few figures, made into a document and read as one.

#![allow(dead_code, reason = "not every test needs it all")]

use serde::Deserialize;
use serde_json::{Value, json};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{BareUnits, Currency, ShelfPart};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::shelf::read_table;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

const SHELF: &str = include_str!("../../../web/src/demo_data/shelf.csv");

/// A job in short, lengths in inches and weights in pounds.
#[derive(Clone, Deserialize)]
pub(crate) struct InShort {
    pub(crate) name: String,
    pub(crate) why: String,
    pub(crate) class: String,
    pub(crate) wheelbase: f64,
    pub(crate) ratings: [f64; 2],
    pub(crate) kerb: Option<[f64; 2]>,
    pub(crate) springs: Option<[String; 2]>,
    pub(crate) datum: Option<String>,
    pub(crate) empty: [Option<f64>; 2],
    pub(crate) loaded: [Option<f64>; 2],
    /// Left and right of the rear, empty and loaded.
    pub(crate) sides_empty: Option<[f64; 2]>,
    pub(crate) sides_loaded: Option<[f64; 2]>,
    /// Weight, and how far behind the rear axle.
    pub(crate) load: Option<[f64; 2]>,
    /// Things aboard: weight, behind the rear axle, to the left.
    #[serde(default)]
    pub(crate) items: Vec<[f64; 3]>,
    /// The same in a case of the plan that nobody read.
    #[serde(default)]
    pub(crate) planned: Vec<[f64; 3]>,
    /// Whether that comes later.
    #[serde(default)]
    pub(crate) later: bool,
    pub(crate) gap_empty: Option<f64>,
    pub(crate) gap_loaded: Option<f64>,
    #[serde(default)]
    pub(crate) contact_empty: bool,
    pub(crate) aim: Vec<Value>,
    #[serde(default)]
    pub(crate) intake: Value,
    #[serde(default)]
    pub(crate) intake_weights: std::collections::BTreeMap<String, f64>,
    pub(crate) sound: Option<f64>,
    pub(crate) sound_rate: Option<f64>,
    pub(crate) budget: Option<i64>,
    pub(crate) wanted: Option<String>,
    #[serde(default)]
    pub(crate) earlier: Vec<(String, f64)>,
    /// Area, grade, defects.
    #[serde(default)]
    pub(crate) findings: Vec<(String, String, Vec<String>)>,
    /// Area, what was measured there, inches.
    #[serde(default)]
    pub(crate) measured: Vec<(String, String, f64)>,
    #[serde(default)]
    pub(crate) shelf: String,
}

fn inches(value: f64) -> Value {
    json!({ "text": value.to_string(), "unit": "in", "si": value * 0.0254 })
}

fn pounds(value: f64) -> Value {
    json!({ "text": value.to_string(), "unit": "lb", "si": value * 4.448_221_615_260_5 })
}

fn reading(state: &str, place: &str, datum: &str, value: f64) -> Value {
    json!({
        "phase": "found", "state": state, "place": place, "datum": datum, "value": inches(value),
        "taken_by": "Odalys", "taken_at": "2026-11-28T10:00:00+00:00",
    })
}

impl InShort {
    pub(crate) fn work(&self) -> Casework {
        let datum = self.datum.as_deref().unwrap_or("hub_to_arch");
        let mut readings = Vec::new();
        for (state, ends) in [("empty", self.empty), ("loaded", self.loaded)] {
            let rear_sides = if state == "loaded" { self.sides_loaded } else { self.sides_empty };
            for (end, height) in [("front", ends[0]), ("rear", ends[1])] {
                let Some(height) = height else { continue };
                let sides = rear_sides.filter(|_| end == "rear").unwrap_or([height, height]);
                readings.push(reading(state, &format!("{end}_left"), datum, sides[0]));
                readings.push(reading(state, &format!("{end}_right"), datum, sides[1]));
            }
        }
        for (state, gap) in [("empty", self.gap_empty), ("loaded", self.gap_loaded)] {
            readings.extend(gap.map(|gap| reading(state, "stop_gap", datum, gap)));
        }
        let mut vehicle = json!({
            "class": self.class, "rear_wheels": "single", "wheelbase": inches(self.wheelbase), "equalised": true,
            "front_rating": pounds(self.ratings[0]), "rear_rating": pounds(self.ratings[1]),
        });
        if let Some([front, rear]) = self.kerb {
            vehicle["kerb_front"] = pounds(front);
            vehicle["kerb_rear"] = pounds(rear);
        }
        let mut intake = if self.intake.is_object() { self.intake.clone() } else { json!({}) };
        if let Some([front, rear]) = &self.springs {
            intake["front_spring"] = json!(front);
            intake["rear_spring"] = json!(rear);
        }
        for (name, weight) in &self.intake_weights {
            intake[name] = pounds(*weight);
        }
        if let Some(sound) = self.sound {
            intake["sound_rear"] = inches(sound);
        }
        if let Some(rate) = self.sound_rate {
            intake["sound_rate"] = json!({ "text": rate.to_string(), "unit": "lb_per_in", "si": rate * 175.126_835_246_476 });
        }
        if let Some(budget) = self.budget {
            intake["budget"] = json!({ "text": budget.to_string(), "hundredths": budget * 100, "currency": "USD" });
        }
        if let Some(day) = &self.wanted {
            intake["wanted_by"] = json!({ "text": day, "day": day });
        }
        let earlier = self.earlier.iter().map(|(what, size)| json!({ "what": what, "size": inches(*size) }));
        intake["modifications"] = earlier.collect();
        let mut loaded = json!({ "state": "loaded", "manner": "rolled" });
        if let Some([weight, behind]) = self.load {
            let (distance, ahead) = (inches(behind.abs()), behind < 0.0);
            loaded["load"] = json!({ "kind": "placed", "weight": pounds(weight), "distance": distance, "ahead": ahead });
        }
        let contact =
            json!({ "left_front": null, "left_rear": self.contact_empty, "right_front": null, "right_rear": self.contact_empty });
        let mut empty = json!({ "state": "empty", "manner": "rolled" });
        if self.contact_empty {
            empty["contact"] = contact;
        }
        let goals: Vec<Value> = self.aim.iter().map(goal).collect();
        let mut document = json!({
            "format": "wise-badger/job", "version": 3, "label": self.name, "vehicle": vehicle, "datum": datum,
            "rear_rise_confirmed": false, "readings": readings, "intake": intake, "tape": { "states": [empty, loaded] },
        });
        if !goals.is_empty() {
            document["aim"] = json!({ "goals": goals, "most": 0 });
        }
        let item = |case: u8| {
            move |[weight, behind, left]: &[f64; 3]| {
                json!({
                    "name": "Thing", "liquid": null, "amount": pounds(*weight), "distance": inches(behind.abs()),
                    "ahead": *behind < 0.0, "lateral": inches(*left), "left": true, "height": null, "on_hitch": false, "always": false,
                    "cases": [case],
                })
            }
        };
        if !self.items.is_empty() {
            document["tape"]["states"][1]["load"] = json!({ "kind": "planned", "case": 1 });
        }
        let items: Vec<Value> = self.items.iter().map(item(1)).chain(self.planned.iter().map(item(2))).collect();
        let names = [(1, "Usual", self.items.is_empty()), (2, "Full", self.planned.is_empty())];
        let cases = names.iter().filter(|(.., empty)| !empty);
        let cases: Vec<Value> =
            cases.map(|(key, name, _)| json!({ "key": key, "name": name, "front_scale": null, "rear_scale": null, "later": self.later && *key == 2 })).collect();
        if !cases.is_empty() {
            document["load_plan"] = json!({ "cases": cases, "items": items });
        }
        if !self.findings.is_empty() {
            let finding = |(area, grade, defects): &(String, String, Vec<String>)| json!({ "area": area, "grade": grade, "defects": defects, "measured": [], "words": "" });
            document["look_over"] = json!({ "findings": self.findings.iter().map(finding).collect::<Vec<_>>() });
        }
        if !self.measured.is_empty() {
            let finding = |(area, what, value): &(String, String, f64)| {
                let measured = json!([{ "what": what, "value": inches(*value) }]);
                json!({ "area": area, "grade": "fine", "defects": [], "measured": measured, "words": "" })
            };
            document["look_over"] = json!({ "findings": self.measured.iter().map(finding).collect::<Vec<_>>() });
        }
        let read = JobDocument::read(&document.to_string());
        Casework::new(read.unwrap_or_else(|error| panic!("{}: {error}", self.name)).case())
    }
}

fn goal(short: &Value) -> Value {
    let (word, figures) = short.as_object().unwrap().iter().next().unwrap();
    let figure = |place: usize| inches(figures[place].as_f64().unwrap());
    let mark = |mark: &str, state: &str| json!({ "kind": "mark", "mark": mark, "when": { "state": state }, "way": "within", "height": figure(0), "tolerance": figure(1) });
    match word.as_str() {
        "level_loaded" => json!({ "kind": "level_loaded", "rake": figure(0), "tolerance": figure(1) }),
        "stock" => json!({ "kind": "stock_height", "rear": figure(0), "tolerance": figure(1) }),
        "stock_loaded" => mark("rear", "loaded"),
        "front" => mark("front", "empty"),
        "lean" => mark("lean_rear", "empty"),
        "planned" => json!({
            "kind": "mark", "mark": "rear", "when": { "case": 2 }, "way": "at_least", "height": figure(0), "tolerance": figure(1),
        }),
        other => panic!("no goal {other}"),
    }
}

/// The demo shop's shelf.
pub(crate) fn demo_shelf() -> Vec<ShelfPart> {
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let read = read_table(SHELF, units, Currency::Usd).unwrap();
    assert!(read.wrong.is_empty(), "{:?}", read.wrong);
    read.parts.into_iter().map(|(_, part)| part).collect()
}
