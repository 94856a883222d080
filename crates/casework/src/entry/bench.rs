//! The pack bench, as typed: a pack as found and as it is to be built.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::pack::{
    Clamp, LeafReading, OverHelper, OverloadLeaf, PackError, PackReading, Presetting, ReadPack, Steel,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Length, metres, pascals};

use super::Typed;

/// The rear packs on the bench: one that both sides are like, or each by itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchEntry {
    /// As it came in: both sides', or the left one's where the right one is told apart.
    pub found: PackEntry,
    /// As it is to be built.
    pub planned: PackEntry,
    /// The right pack, where it is not like the left one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<Box<SidePackEntry>>,
    /// What its steel may be asked, where the shop says otherwise than usual.
    pub steel: Option<SteelEntry>,
    /// Hundredths of the arch gained that settle again, where the shop says otherwise than usual.
    pub lost_percent: Option<f64>,
}

/// The pack of one side.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SidePackEntry {
    /// As it came in.
    pub found: PackEntry,
    /// As it is to be built.
    pub planned: PackEntry,
}

/// A pack, leaf by leaf.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PackEntry {
    /// From the main leaf down.
    pub leaves: Vec<LeafEntry>,
    /// Inactive length from the centre bolt towards the front.
    pub clamp_front: Typed,
    /// Towards the rear.
    pub clamp_rear: Typed,
    /// Arch of the bolted pack, where it was read.
    pub pack_arch: Option<Typed>,
    /// A helper over the pack.
    pub helper: Option<HelperEntry>,
    /// Young's modulus of its steel in Pa, where a pack file said otherwise than usual.
    pub young_modulus_pa: Option<f64>,
    /// Which leaf is the overload leaf, where somebody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overload: Option<OverloadEntry>,
}

/// What was said of the overload leaf.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum OverloadEntry {
    /// There is none.
    None,
    /// The leaf of this name, with what lies under it.
    Leaf(String),
}

/// A leaf; `None` is what was not read.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct LeafEntry {
    /// What it is called.
    pub name: String,
    /// Its width.
    pub width: Option<Typed>,
    /// Its thickness.
    pub thickness: Option<Typed>,
    /// Along it from the centre hole to its front end.
    pub front: Option<Typed>,
    /// To its rear end.
    pub rear: Option<Typed>,
    /// Its free arch, where it was read.
    pub arch: Option<Typed>,
    /// The chord that the arch was read over, where it was read.
    pub chord: Option<Typed>,
    /// A spacer between it and the leaf above.
    pub spacer: Option<Typed>,
}

/// A helper over the pack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct HelperEntry {
    /// From the centre bolt to where each end holds the main leaf.
    pub reach: Typed,
    /// Rate of one end.
    pub end_rate: Typed,
    /// What each end pushes with as it is set.
    pub tension: Typed,
    /// The load on this pack when it is set.
    pub set_under: Typed,
}

/// Allowable stresses.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SteelEntry {
    /// Under rated load.
    pub rated: Typed,
    /// At the bump stop.
    pub at_stop: Typed,
    /// Where it begins to take a set.
    pub yields: Typed,
}

impl BenchEntry {
    /// A pack that came in, with nothing planned on it yet.
    pub fn found(found: PackEntry) -> Self {
        BenchEntry { planned: found.clone(), found, right: None, steel: None, lost_percent: None }
    }

    /// The sides that have a pack of their own; `None` alone where both are alike.
    pub fn sides(&self) -> &'static [Option<Side>] {
        if self.right.is_some() { &[Some(Side::Left), Some(Side::Right)] } else { &[None] }
    }

    /// The packs of one side, as found and as planned; of either where both are alike.
    pub fn entries(&self, side: Option<Side>) -> [&PackEntry; 2] {
        match self.right.as_deref().filter(|_| side == Some(Side::Right)) {
            Some(right) => [&right.found, &right.planned],
            None => [&self.found, &self.planned],
        }
    }

    /// The bench of one side by itself; of either where both are alike.
    #[must_use]
    pub fn of_side(&self, side: Option<Side>) -> BenchEntry {
        let [found, planned] = self.entries(side).map(Clone::clone);
        BenchEntry { found, planned, right: None, steel: self.steel.clone(), lost_percent: self.lost_percent }
    }

    /// The same with one side's bench in place of what it had; what its steel may be asked counts for both.
    #[must_use]
    pub fn with_side(&self, side: Option<Side>, one: BenchEntry) -> BenchEntry {
        let BenchEntry { found, planned, steel, lost_percent, .. } = one;
        match (side, &self.right) {
            (Some(Side::Right), Some(_)) => {
                let right = Some(Box::new(SidePackEntry { found, planned }));
                BenchEntry { right, steel, lost_percent, ..self.clone() }
            }
            (_, right) => BenchEntry { found, planned, right: right.clone(), steel, lost_percent },
        }
    }

    /// The same with the right pack told apart from the left, as it stands.
    #[must_use]
    pub fn told_apart(self) -> BenchEntry {
        let right =
            self.right.or_else(|| Some(Box::new(SidePackEntry { found: self.found.clone(), planned: self.planned.clone() })));
        BenchEntry { right, ..self }
    }

    /// The same with both sides like the left.
    #[must_use]
    pub fn alike(self) -> BenchEntry {
        BenchEntry { right: None, ..self }
    }

    /// The packs of one side, or of both alike, as the mechanics take them, as found and as planned.
    ///
    /// # Errors     [`PackError`] names what about one of them cannot be
    pub fn packs(&self) -> Result<[ReadPack; 2], PackError> {
        Ok([self.found.pack()?, self.planned.pack_after(&self.found)?])
    }

    /// What its steel may be asked.
    pub fn steel(&self) -> Steel {
        let stress = |typed: &Typed| pascals(typed.si);
        self.steel.as_ref().map_or_else(Steel::usual, |steel| Steel {
            rated: stress(&steel.rated),
            at_stop: stress(&steel.at_stop),
            yields: stress(&steel.yields),
        })
    }

    /// How much of an arch that is gained settles again.
    pub fn presetting(&self) -> Presetting {
        self.lost_percent.map_or_else(Presetting::default, |percent| Presetting { lost: percent / 100.0 })
    }

    /// The same in hundredths, as it was typed.
    pub fn lost_in_percent(&self) -> f64 {
        self.lost_percent.unwrap_or_else(|| (Presetting::default().lost * 100.0).round())
    }

    /// Whether anything is planned on it, on either side.
    pub fn is_changed(&self) -> bool {
        self.found != self.planned || self.right.as_ref().is_some_and(|right| right.found != right.planned)
    }
}

impl PackEntry {
    /// As the mechanics take it.
    ///
    /// # Errors     [`PackError`] names what about it cannot be
    pub fn pack(&self) -> Result<ReadPack, PackError> {
        let overload = self.marked().unwrap_or_default();
        Ok(self.completed(self.reading(overload).pack()?))
    }

    /// The same of a pack that is planned on one that was found: what is not said of a leaf that was there is as it was found, so that
    /// nothing is estimated anew when a leaf goes in or comes out.
    ///
    /// # Errors     as [`Self::pack`]
    pub fn pack_after(&self, found: &PackEntry) -> Result<ReadPack, PackError> {
        let found = found.pack()?.pack;
        let stays = || found.leaves.get(found.overload_leaf()?).and_then(|leaf| self.place_of(&leaf.name));
        let as_found = || match found.overload {
            OverloadLeaf::None => OverloadLeaf::None,
            _ => stays().map_or_else(OverloadLeaf::default, OverloadLeaf::From),
        };
        let overload = self.marked().unwrap_or_else(as_found);
        Ok(self.completed(self.reading(overload).pack_after(&found)?))
    }

    fn place_of(&self, name: &str) -> Option<usize> {
        self.leaves.iter().position(|leaf| leaf.name == name)
    }

    /// What was said of the overload leaf; nothing where the leaf is no longer there.
    fn marked(&self) -> Option<OverloadLeaf> {
        match self.overload.as_ref()? {
            OverloadEntry::None => Some(OverloadLeaf::None),
            OverloadEntry::Leaf(name) => self.place_of(name).map(OverloadLeaf::From),
        }
    }

    fn reading(&self, overload: OverloadLeaf) -> PackReading {
        let clamp = Clamp { front: self.clamp_front.length(), rear: self.clamp_rear.length() };
        let leaves = self.leaves.iter().map(LeafEntry::reading).collect();
        PackReading { leaves, clamp, pack_arch: self.pack_arch.as_ref().map(Typed::length), overload }
    }

    /// With what is not read leaf by leaf.
    fn completed(&self, mut read: ReadPack) -> ReadPack {
        if let Some(modulus) = self.young_modulus_pa {
            read.pack.young_modulus = pascals(modulus);
        }
        read.pack.helper = self.helper.as_ref().map(HelperEntry::helper);
        read
    }
}

impl LeafEntry {
    /// As the mechanics take it.
    pub fn reading(&self) -> LeafReading {
        let length = |typed: &Option<Typed>| -> Option<Length> { typed.as_ref().map(Typed::length) };
        LeafReading {
            name: self.name.clone(),
            width: length(&self.width),
            thickness: length(&self.thickness),
            front: length(&self.front),
            rear: length(&self.rear),
            arch: length(&self.arch),
            chord: length(&self.chord),
            spacer_above: length(&self.spacer).unwrap_or(metres(0.0)),
        }
    }
}

impl HelperEntry {
    fn helper(&self) -> OverHelper {
        OverHelper {
            reach: self.reach.length(),
            end_rate: self.end_rate.rate(),
            tension: self.tension.force(),
            set_under: self.set_under.force(),
        }
    }
}
