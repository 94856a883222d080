//! Reading a `wise-badger/pack` document, version 1, into a pack and the loads asked about.

use serde::{Deserialize, Serialize};

use super::reading::{at_most, document};
use super::{DocumentError, PackResult};
use crate::pack::{Clamp, Leaf, OverHelper, OverloadLeaf, Pack, PackError};
use crate::units::{Force, InShopUnits, Length, metres, newtons, newtons_per_metre, pascals, per_metre};

const FORMAT: &str = "wise-badger/pack";
const MOST_LEAVES: usize = 30;
const MOST_LOADS: usize = 1_000;
const LONGEST_NAME: usize = 200;

/// A pack and the loads asked about, as read from a document.
#[derive(Debug, Clone, PartialEq)]
pub struct PackDocument {
    /// The pack.
    pub pack: Pack,
    /// Loads on the whole spring at its seat, in the document's order.
    pub loads: Vec<Force>,
    /// The load that rates are taken over a hundredth of.
    pub full_load: Force,
}

impl PackDocument {
    /// Reads a document.
    ///
    /// # Errors     [`DocumentError`] names the field
    pub fn read(json: &str) -> Result<Self, DocumentError> {
        let text: DocumentText = document(json, FORMAT)?;
        at_most("leaves", text.leaves.len(), MOST_LEAVES)?;
        at_most("loads_n", text.loads_n.len(), MOST_LOADS)?;
        for (index, load) in text.loads_n.iter().enumerate() {
            nought_or_more(&format!("loads_n[{index}]"), *load)?;
        }
        let largest = text.loads_n.iter().copied().fold(0.0, f64::max);
        let full_load = text.full_load_n.unwrap_or(largest);
        if !(full_load.is_finite() && full_load > 0.0) {
            return Err(DocumentError::field("full_load_n", "must be above 0; give it where no load is"));
        }
        positive("young_modulus_pa", text.young_modulus_pa)?;
        let clamp = Clamp {
            front: nought_or_more("clamp.front_m", text.clamp.front_m)?,
            rear: nought_or_more("clamp.rear_m", text.clamp.rear_m)?,
        };
        let leaves = text.leaves.into_iter().enumerate();
        let leaves = leaves.map(|(index, leaf)| leaf.into_leaf(index)).collect::<Result<Vec<_>, _>>()?;
        let helper = text.helper.map(HelperText::into_helper).transpose()?;
        let overload = overload_leaf(text.overload_leaf, leaves.len())?;
        let pack = Pack { young_modulus: pascals(text.young_modulus_pa), clamp, leaves, helper, overload };
        // A pack that has no meaning is told at once, not with its first load.
        pack.prepare(newtons(full_load)).map_err(|error| named(&pack, error))?;
        Ok(PackDocument { pack, loads: text.loads_n.into_iter().map(newtons).collect(), full_load: newtons(full_load) })
    }

    /// The document's text, which [`Self::read`] reads again.
    pub fn to_json(&self) -> String {
        let leaf = |leaf: &Leaf| LeafText {
            name: leaf.name.clone(),
            width_m: leaf.width.si(),
            thickness_m: leaf.thickness.si(),
            front_m: leaf.front.si(),
            rear_m: leaf.rear.si(),
            curvature_per_m: leaf.curvature.value,
            spacer_above_m: leaf.spacer_above.si(),
        };
        let helper = self.pack.helper.as_ref().map(|helper| HelperText {
            reach_m: helper.reach.si(),
            end_rate_n_per_m: helper.end_rate.si(),
            tension_n: helper.tension.si(),
            set_under_n: helper.set_under.si(),
        });
        let text = DocumentText {
            format: FORMAT.to_owned(),
            version: 1,
            young_modulus_pa: self.pack.young_modulus.value,
            clamp: ClampText { front_m: self.pack.clamp.front.si(), rear_m: self.pack.clamp.rear.si() },
            leaves: self.pack.leaves.iter().map(leaf).collect(),
            helper,
            overload_leaf: match self.pack.overload {
                OverloadLeaf::ByCurvature => None,
                OverloadLeaf::None => Some(0),
                OverloadLeaf::From(place) => Some(place),
            },
            loads_n: self.loads.iter().map(|load| load.si()).collect(),
            full_load_n: Some(self.full_load.si()),
        };
        serde_json::to_string_pretty(&text).expect("lists of text and finite numbers are always JSON")
    }

    /// Works out every load.
    ///
    /// # Errors     [`DocumentError::Field`] names what has no meaning
    pub fn solve(&self) -> Result<PackResult, DocumentError> {
        let whole = |error: PackError| named(&self.pack, error);
        let prepared = self.pack.prepare(self.full_load).map_err(whole)?;
        let states = prepared.states(&self.loads).map_err(whole)?;
        Ok(PackResult::new(&self.pack, &states, prepared.second_stage_load()))
    }
}

/// A pack's problem at the field that has it.
fn named(pack: &Pack, error: PackError) -> DocumentError {
    let place = |leaf: &str| pack.leaves.iter().position(|of| of.name == leaf);
    let path = match &error {
        PackError::NotPositive { leaf, .. }
        | PackError::PastAnyLeaf { leaf, .. }
        | PackError::InsideTheClamp { leaf, .. }
        | PackError::LongerThanMain { leaf, .. }
        | PackError::TooMuchArch(leaf) => place(leaf).map_or_else(|| "leaves".to_owned(), |index| format!("leaves[{index}]")),
        PackError::Load => "loads_n".to_owned(),
        _ => "leaves".to_owned(),
    };
    DocumentError::field(path, error.to_string())
}

fn overload_leaf(place: Option<usize>, leaves: usize) -> Result<OverloadLeaf, DocumentError> {
    match place {
        None => Ok(OverloadLeaf::ByCurvature),
        Some(0) => Ok(OverloadLeaf::None),
        Some(place) if place < leaves => Ok(OverloadLeaf::From(place)),
        Some(_) => Err(DocumentError::field("overload_leaf", "must be the place of a leaf under the main leaf, which is 0")),
    }
}

fn positive(path: &str, value: f64) -> Result<f64, DocumentError> {
    let sound = value.is_finite() && value > 0.0;
    if sound { Ok(value) } else { Err(DocumentError::field(path, "must be above 0")) }
}

fn nought_or_more(path: &str, value: f64) -> Result<Length, DocumentError> {
    let sound = value.is_finite() && value >= 0.0;
    if sound { Ok(metres(value)) } else { Err(DocumentError::field(path, "must be 0 or more")) }
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct DocumentText {
    format: String,
    version: u64,
    young_modulus_pa: f64,
    clamp: ClampText,
    leaves: Vec<LeafText>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    helper: Option<HelperText>,
    /// Place of the overload leaf, the main leaf's being 0; 0 where there is none. Left out, it goes by the curvatures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    overload_leaf: Option<usize>,
    loads_n: Vec<f64>,
    full_load_n: Option<f64>,
}

/// A helper spring over the pack; a pack without one leaves it out.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct HelperText {
    reach_m: f64,
    end_rate_n_per_m: f64,
    tension_n: f64,
    set_under_n: f64,
}

impl HelperText {
    fn into_helper(self) -> Result<OverHelper, DocumentError> {
        nought_or_more("helper.tension_n", self.tension_n)?;
        nought_or_more("helper.set_under_n", self.set_under_n)?;
        Ok(OverHelper {
            reach: positive("helper.reach_m", self.reach_m).map(metres)?,
            end_rate: positive("helper.end_rate_n_per_m", self.end_rate_n_per_m).map(newtons_per_metre)?,
            tension: newtons(self.tension_n),
            set_under: newtons(self.set_under_n),
        })
    }
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ClampText {
    front_m: f64,
    rear_m: f64,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct LeafText {
    name: String,
    width_m: f64,
    thickness_m: f64,
    front_m: f64,
    rear_m: f64,
    curvature_per_m: f64,
    #[serde(default)]
    spacer_above_m: f64,
}

impl LeafText {
    fn into_leaf(self, index: usize) -> Result<Leaf, DocumentError> {
        let path = |field: &str| format!("leaves[{index}].{field}");
        let length = |field: &str, value: f64| positive(&path(field), value).map(metres);
        if !self.curvature_per_m.is_finite() {
            return Err(DocumentError::field(path("curvature_per_m"), "must be a finite number"));
        }
        if self.name.chars().count() > LONGEST_NAME {
            return Err(DocumentError::field(path("name"), format!("is longer than {LONGEST_NAME} characters")));
        }
        Ok(Leaf {
            width: length("width_m", self.width_m)?,
            thickness: length("thickness_m", self.thickness_m)?,
            front: length("front_m", self.front_m)?,
            rear: length("rear_m", self.rear_m)?,
            curvature: per_metre(self.curvature_per_m),
            spacer_above: nought_or_more(&path("spacer_above_m"), self.spacer_above_m)?,
            name: self.name,
        })
    }
}
