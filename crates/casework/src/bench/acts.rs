//! Work on a pack as a person does it: leaves put in, taken out, turned, put in order, bent.

use crate::entry::{HelperEntry, LeafEntry, OverloadEntry, PackEntry, TypedIn};
use wise_badger_mechanics::pack::{ArchSheet, Leaf, OverloadLeaf, Pack, PackError, PartKind, YOUNG_MODULUS_PA};
use wise_badger_mechanics::units::InShopUnits;

/// Something done to a pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Act {
    /// A leaf from the shelf, at a place or where its length puts it.
    Insert {
        /// Which leaf.
        kind: PartKind,
        /// Under how many of the leaves that are there; `None` where its length puts it.
        at: Option<usize>,
    },
    /// Taken out.
    Remove(usize),
    /// End for end.
    Turn(usize),
    /// One place up.
    Up(usize),
    /// One place down.
    Down(usize),
    /// Longest first, an overload leaf last.
    Sort,
    /// A flatter overload leaf in the place of the one that is there.
    FlatterOverload,
}

/// Most leaves that the bench holds.
pub const MOST_LEAVES: usize = 12;

/// Why something cannot be done to a pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Cannot {
    /// The bench holds no more leaves than [`MOST_LEAVES`].
    Full,
    /// There is no main leaf that a new one could be cut for.
    NoMainLeaf,
    /// A pack keeps one leaf at least.
    LastLeaf,
    /// There is no leaf in that row.
    NoSuchLeaf,
    /// It is at the end of the pack already.
    AtTheEnd,
    /// Nobody has said which leaf is the overload leaf, and none looks like one.
    NoOverloadLeaf,
}

/// The pack with it done; `made` is the pack as it is worked out before.
///
/// # Errors     [`Cannot`] says why it cannot be
pub fn done(entry: &PackEntry, made: &Pack, act: Act, units: TypedIn) -> Result<PackEntry, Cannot> {
    let mut done = entry.clone();
    let leaves = &mut done.leaves;
    match act {
        Act::Insert { kind, at } => {
            if leaves.len() >= MOST_LEAVES {
                return Err(Cannot::Full);
            }
            let new = kind.leaf_for(made).ok_or(Cannot::NoMainLeaf)?;
            let by_itself = || if kind == PartKind::OverloadLeaf { leaves.len() } else { made.place_by_length(&new) };
            let place = at.unwrap_or_else(by_itself).clamp(1, leaves.len());
            let name = free_name(entry, &new.name);
            if kind == PartKind::OverloadLeaf && made.overload_leaf().is_none() {
                done.overload = Some(OverloadEntry::Leaf(name.clone()));
            }
            leaves.insert(place, leaf_entry(&Leaf { name, ..new }, units));
        }
        Act::FlatterOverload => {
            let place = made.overload_leaf().ok_or(Cannot::NoOverloadLeaf)?;
            let there = made.leaves.get(place).ok_or(Cannot::NoOverloadLeaf)?;
            leaves.truncate(place);
            let name = free_name(entry, "Flatter overload leaf");
            done.overload = Some(OverloadEntry::Leaf(name.clone()));
            leaves.push(leaf_entry(&Leaf { name, ..there.flatter() }, units));
        }
        Act::Remove(row) if leaves.len() > 1 && row < leaves.len() => drop(leaves.remove(row)),
        Act::Remove(_) => return Err(Cannot::LastLeaf),
        Act::Turn(row) => {
            let (leaf, made) = leaves.get_mut(row).zip(made.leaves.get(row)).ok_or(Cannot::NoSuchLeaf)?;
            // What was not read of it goes round with it.
            let front = leaf.front.take().unwrap_or_else(|| units.length(made.front));
            leaf.front = Some(leaf.rear.take().unwrap_or_else(|| units.length(made.rear)));
            leaf.rear = Some(front);
        }
        Act::Up(row) if row > 0 && row < leaves.len() => leaves.swap(row - 1, row),
        Act::Down(row) if row + 1 < leaves.len() => leaves.swap(row, row + 1),
        Act::Up(_) | Act::Down(_) => return Err(Cannot::AtTheEnd),
        Act::Sort => {
            let lengths = made.leaves.iter().map(|leaf| (leaf.front + leaf.rear).si());
            let overload = made.overload_leaf().map(|place| leaves.split_off(place)).unwrap_or_default();
            let mut by_length: Vec<(f64, LeafEntry)> = lengths.zip(std::mem::take(leaves)).collect();
            by_length.sort_by(|one, other| other.0.total_cmp(&one.0));
            leaves.extend(by_length.into_iter().map(|(_, leaf)| leaf).chain(overload));
        }
    }
    Ok(done)
}

/// The name, or the same with a number where it is taken.
fn free_name(entry: &PackEntry, name: &str) -> String {
    let taken = |name: &str| entry.leaves.iter().any(|leaf| leaf.name == name);
    let numbered = (2..).map(|number| format!("{name} {number}"));
    std::iter::once(name.to_owned()).chain(numbered).find(|name| !taken(name)).unwrap_or_default()
}

/// A leaf as it would be typed; its chord follows from its length.
fn leaf_entry(leaf: &Leaf, units: TypedIn) -> LeafEntry {
    let made = |length| units.length(length);
    LeafEntry {
        name: leaf.name.clone(),
        width: Some(made(leaf.width)),
        thickness: Some(made(leaf.thickness)),
        front: Some(made(leaf.front)),
        rear: Some(made(leaf.rear)),
        arch: Some(made(ArchSheet::of(leaf).sagitta())),
        chord: None,
        spacer: (leaf.spacer_above.si() > 0.0).then(|| made(leaf.spacer_above)),
    }
}

/// A pack from elsewhere as it would be typed.
pub fn pack_entry(pack: &Pack, units: TypedIn) -> PackEntry {
    let made = |length| units.length(length);
    let modulus = pack.young_modulus.value;
    let mut entry = PackEntry {
        leaves: Vec::with_capacity(pack.leaves.len()),
        clamp_front: made(pack.clamp.front),
        clamp_rear: made(pack.clamp.rear),
        pack_arch: None,
        helper: pack.helper.as_ref().map(|helper| HelperEntry::made(helper, units)),
        young_modulus_pa: ((modulus / YOUNG_MODULUS_PA - 1.0).abs() > 1e-9).then_some(modulus),
        overload: None,
    };
    for leaf in &pack.leaves {
        // Elsewhere leaves may share a name; here each has its own, by which it is known again in the plan.
        let name = free_name(&entry, &leaf.name);
        entry.leaves.push(LeafEntry { name, ..leaf_entry(leaf, units) });
    }
    entry.overload = match pack.overload {
        OverloadLeaf::ByCurvature => None,
        OverloadLeaf::None => Some(OverloadEntry::None),
        OverloadLeaf::From(place) => entry.leaves.get(place).map(|leaf| OverloadEntry::Leaf(leaf.name.clone())),
    };
    entry
}

/// The pack found with its leaves bent as a worked-out pack has them, so that none of its arches is open any more; what was read of
/// leaves that stay as they are is kept.
///
/// # Errors     as the pack's own
pub fn found_bent_like(found: &PackEntry, bent: &Pack, units: TypedIn) -> Result<PackEntry, PackError> {
    let mut entry = PackEntry { pack_arch: None, ..bent_like(found, &found.pack()?.pack, bent, units) };
    let open = entry.leaves.iter_mut().zip(&bent.leaves).filter(|(leaf, _)| leaf.arch.is_none());
    open.for_each(|(leaf, bent)| leaf.arch = Some(units.length(ArchSheet::of(bent).sagitta())));
    Ok(entry)
}

/// A pack with its leaves bent from what they are as worked out to what they are to be; leaves that stay as they are are left alone.
pub(super) fn bent_like(entry: &PackEntry, before: &Pack, bent: &Pack, units: TypedIn) -> PackEntry {
    let mut entry = entry.clone();
    for ((leaf, before), bent) in entry.leaves.iter_mut().zip(&before.leaves).zip(&bent.leaves) {
        if (before.curvature - bent.curvature).value.abs() > 1e-9 {
            leaf.arch = Some(units.length(ArchSheet::of(bent).sagitta()));
            leaf.chord = None;
        }
    }
    entry
}

/// A planned pack before any leaf of it was bent: leaves that came in as they came in, leaves that were added as they are.
pub fn as_before(found: &PackEntry, planned: &PackEntry) -> PackEntry {
    let mut before = planned.clone();
    for leaf in &mut before.leaves {
        if let Some(came_in) = found.leaves.iter().find(|came_in| came_in.name == leaf.name) {
            (leaf.arch, leaf.chord) = (came_in.arch.clone(), came_in.chord.clone());
        }
    }
    before
}

/// One thing that is planned on a pack, as far as a few words tell it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum WorkOn {
    /// A leaf goes in.
    In(String),
    /// A leaf comes out.
    Out(String),
    /// Leaves that were there are bent.
    Rearched,
    /// A helper is set.
    HelperSet,
    /// The helper comes off.
    HelperOff,
}

/// Everything that is planned on a pack; nothing, where it is only put in another order.
pub fn work_on(found: &PackEntry, planned: &PackEntry) -> Vec<WorkOn> {
    let is_in = |pack: &PackEntry, name: &str| pack.leaves.iter().any(|leaf| leaf.name == name);
    let only_in = |one: &PackEntry, other: &PackEntry, work: fn(String) -> WorkOn| -> Vec<WorkOn> {
        one.leaves.iter().filter(|leaf| !is_in(other, &leaf.name)).map(|leaf| work(leaf.name.clone())).collect()
    };
    let bent = |leaf: &LeafEntry| found.leaves.iter().any(|before| before.name == leaf.name && before.arch != leaf.arch);
    let bent = planned.leaves.iter().any(bent).then_some(WorkOn::Rearched);
    let helper = if planned.helper.is_some() { WorkOn::HelperSet } else { WorkOn::HelperOff };
    let helper = (planned.helper != found.helper).then_some(helper);
    let mut work = only_in(planned, found, WorkOn::In);
    work.extend(only_in(found, planned, WorkOn::Out));
    work.extend(bent.into_iter().chain(helper));
    work
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_mechanics::pack::Clamp;
    use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
    use wise_badger_mechanics::units::{inches, per_metre};

    const SHOP: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    const METRIC: TypedIn = TypedIn { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms };

    fn leaf(name: &str, front: f64, rear: f64, radius: f64) -> Leaf {
        let curvature = per_metre(if radius > 0.0 { 1.0 / inches(radius).si() } else { 0.0 });
        Leaf { front: inches(front), rear: inches(rear), curvature, ..Leaf::flat(name, inches(2.5), inches(0.31), inches(front)) }
    }

    fn pack() -> Pack {
        let clamp = Clamp { front: inches(3.0), rear: inches(3.0) };
        Pack::of(vec![leaf("Main", 26.0, 30.0, 60.0), leaf("Second", 20.0, 23.0, 55.0), leaf("Overload", 11.0, 11.0, 0.0)], clamp)
    }

    fn after(entry: &PackEntry, act: Act) -> Result<PackEntry, Cannot> {
        done(entry, &entry.pack().expect("sound").pack, act, SHOP)
    }

    fn names(entry: &PackEntry) -> Vec<&str> {
        entry.leaves.iter().map(|leaf| leaf.name.as_str()).collect()
    }

    #[test]
    fn a_pack_typed_by_the_program_is_the_pack_it_came_from() {
        for units in [SHOP, METRIC] {
            let made = pack_entry(&pack(), units).pack().expect("sound").pack;
            for (one, other) in made.leaves.iter().zip(&pack().leaves) {
                assert!((one.front - other.front).si().abs() < 2e-5 && (one.thickness - other.thickness).si().abs() < 2e-5);
                assert!((one.curvature - other.curvature).value.abs() < 1e-4, "{}", one.name);
            }
        }
    }

    #[test]
    fn leaves_go_in_by_their_length_or_where_they_are_put_each_under_a_name_of_its_own() {
        let start = pack_entry(&pack(), SHOP);
        let short = |at| Act::Insert { kind: PartKind::ShortAddedLeaf, at };
        let once = after(&start, short(None)).expect("put in");
        assert_eq!(names(&once), ["Main", "Second", "Add-a-leaf", "Overload"]);
        let twice = after(&once, short(Some(1))).expect("put in");
        assert_eq!(names(&twice), ["Main", "Add-a-leaf 2", "Second", "Add-a-leaf", "Overload"]);
        assert_eq!(names(&after(&once, short(Some(0))).expect("put in"))[0], "Main", "never above the main leaf");
        let sorted = after(&twice, Act::Sort).expect("sorted");
        assert_eq!(names(&sorted), ["Main", "Second", "Add-a-leaf 2", "Add-a-leaf", "Overload"]);
        let flatter = after(&sorted, Act::FlatterOverload).expect("changed");
        assert_eq!(names(&flatter).last(), Some(&"Flatter overload leaf"));
        assert_eq!(flatter.leaves.len(), sorted.leaves.len(), "in the place of the one that was there");
    }

    #[test]
    fn what_cannot_be_done_to_a_pack_is_said() {
        let start = pack_entry(&pack(), SHOP);
        for (asked, why) in [
            (Act::Up(0), Cannot::AtTheEnd),
            (Act::Down(2), Cannot::AtTheEnd),
            (Act::Remove(7), Cannot::LastLeaf),
            (Act::Turn(9), Cannot::NoSuchLeaf),
        ] {
            assert_eq!(after(&start, asked), Err(why), "{asked:?}");
        }
        let full = PackEntry { leaves: vec![start.leaves[1].clone(); MOST_LEAVES], ..start.clone() };
        let insert = Act::Insert { kind: PartKind::OwnMaking, at: None };
        assert_eq!(after(&full, insert), Err(Cannot::Full));
        let single = PackEntry { leaves: start.leaves[..1].to_vec(), ..start };
        assert!(after(&single, Act::Remove(0)).is_err());
    }

    #[test]
    fn a_turned_leaf_has_its_other_end_ahead_and_what_is_planned_is_told() {
        let found = pack_entry(&pack(), SHOP);
        let turned = after(&found, Act::Turn(1)).expect("turned");
        assert_eq!(
            turned.leaves[1]
                .front
                .as_ref()
                .zip(turned.leaves[1].rear.as_ref())
                .map(|(front, rear)| (front.text.as_str(), rear.text.as_str())),
            Some(("23", "20"))
        );
        assert_eq!(work_on(&found, &turned), []);
        let added = after(&found, Act::Insert { kind: PartKind::LongAddedLeaf, at: None }).expect("put in");
        let put_in = || WorkOn::In("Long add-a-leaf".to_owned());
        assert_eq!(work_on(&found, &added), [put_in()]);
        let out = after(&added, Act::Remove(2)).expect("taken out");
        assert_eq!(work_on(&found, &out), [put_in(), WorkOn::Out("Second".to_owned())]);
        let bent = {
            let before = added.pack_after(&found).expect("sound").pack;
            bent_like(&added, &before, &before.bent_by(per_metre(0.1)), SHOP)
        };
        assert_eq!(work_on(&found, &bent), [put_in(), WorkOn::Rearched]);
        // Before any leaf was bent the ones that came in are as they came, and the one put in as it was put.
        let before = as_before(&found, &bent);
        assert_eq!(before.leaves[0].arch, found.leaves[0].arch);
        assert_eq!(before.leaves[1].arch, bent.leaves[1].arch);
    }
}
