//! What is said of a pack in sentences: what is estimated, what looks wrong, why it is not to be re-arched.

use wise_badger_casework::bench::{
    Against, BenchWork, Cannot, CannotRearch, LeafStrain, Limit, LoadName, MOST_LEAVES, NamedLoad, Packs, SideBench, StrainGrade,
    StrainedAt, WorkOn,
};
use wise_badger_mechanics::pack::{Estimated, Pack, PackDoubt, RearchRefusal};
use wise_badger_mechanics::units::{Angle, Length, Pressure};

use super::super::pack_error::pack_error_words;

use crate::view::look_over::gates_words;
use crate::view::{Units, degrees, percent, sentence, state_name};

/// What about a pack is estimated, in sentences.
pub(crate) fn estimated_words(packs: &Packs) -> Vec<String> {
    let name = |leaf: &usize| packs.found.leaves.get(*leaf).map_or("a leaf", |leaf| leaf.name.as_str());
    let chords = packs.estimated.iter().filter(|what| matches!(what, Estimated::Chord(_))).count();
    let mut words: Vec<String> = Vec::new();
    if chords > 0 {
        words.push("Chords that were not read follow from each leaf's length and arch.".to_owned());
    }
    words.extend(packs.estimated.iter().filter_map(|what| match what {
        Estimated::ArchFromAbove(leaf) => {
            Some(format!("The arch of {} is estimated: a little sharper than the leaf above it.", name(leaf)))
        }
        Estimated::Flat(leaf) => Some(format!("{} is taken as flat, as overload leaves usually are.", sentence(name(leaf)))),
        Estimated::ArchFromPack => {
            Some("Arches that were not read are estimated so that the pack stands as it was read.".to_owned())
        }
        Estimated::Chord(_) | Estimated::Length(_) | Estimated::Section(_) => None,
    }));
    let named = |of: fn(&Estimated) -> Option<usize>| {
        let names: Vec<&str> = packs.estimated.iter().filter_map(of).map(|leaf| name(&leaf)).collect();
        (!names.is_empty()).then(|| names.join(", "))
    };
    let lengths = named(|what| if let Estimated::Length(leaf) = what { Some(*leaf) } else { None });
    words.extend(lengths.map(|names| format!("Lengths that were not read are stepped evenly: {names}.")));
    let sections = named(|what| if let Estimated::Section(leaf) = what { Some(*leaf) } else { None });
    words.extend(sections.map(|names| format!("Width or thickness that was not read is that of the leaf above: {names}.")));
    words
}

/// What looks wrong about a pack, in sentences.
pub(crate) fn doubt_words(pack: &Pack) -> Vec<String> {
    let name = |leaf: usize| pack.leaves.get(leaf).map_or("a leaf", |leaf| leaf.name.as_str());
    let word = |doubt: PackDoubt| match doubt {
        PackDoubt::LongerThanAbove { leaf } => {
            format!(
                "{} reaches past the leaf above it. Put the leaves in order of length, or check the lengths.",
                sentence(name(leaf))
            )
        }
        PackDoubt::OtherWidth { leaf } => {
            format!("{} is of another width than the main leaf; clips and plate may not take it.", sentence(name(leaf)))
        }
        PackDoubt::EndForEnd { leaf } => {
            format!(
                "{} has its long end where the main leaf has its short one. Check which end is the front, or turn it.",
                sentence(name(leaf))
            )
        }
        PackDoubt::Thickness { leaf } => {
            format!("{} is thinner or thicker than leaves of road vehicles are; check the figure.", sentence(name(leaf)))
        }
        PackDoubt::Gapes { leaf } => {
            format!("{} is flatter than the leaf above it: they gape at the ends until it is loaded.", sentence(name(leaf)))
        }
        _ => "Something about the leaves looks wrong; check them.".to_owned(),
    };
    pack.doubts().into_iter().map(word).collect()
}

/// Why a pack is not to be re-arched, in a sentence that says what to do instead.
fn rearch_refusal_words(refusal: &RearchRefusal, units: Units) -> String {
    match refusal {
        RearchRefusal::TooThin { leaf, thickness, least } => format!(
            "{} is {} thick; under {} a leaf does not hold a new arch. Replace it.",
            sentence(leaf),
            units.exact(*thickness),
            units.exact(*least)
        ),
        RearchRefusal::NeedsRate { leaf, stress, allowed } => format!(
            "It needs more rate, not more arch: rated load alone works {leaf} to {}, and {} is allowed. Add a leaf, or take weight off.",
            units.stress(*stress),
            units.stress(*allowed)
        ),
        RearchRefusal::NothingToGain => "It stands that high already; there is no arch to put in.".to_owned(),
        _ => "It is not to be re-arched.".to_owned(),
    }
}

/// How hard leaves are worked past one limit, in a sentence that says what to do about it; all of them alike but for the stress.
fn strains_words(strains: &[&LeafStrain], units: Units) -> String {
    let Some(first) = strains.first() else { return String::new() };
    let when = match first.at {
        StrainedAt::Rated => "under rated load",
        StrainedAt::Stop => "pressed to the stop",
    };
    let of_what = match first.limit {
        Limit::Yield => "where it yields",
        Limit::Allowable => "what it may be asked",
    };
    let share = |stress: Pressure| percent((stress / first.limit_at).value);
    let leaf = |strain: &&LeafStrain| {
        let found = strain.found.filter(|found| share(*found) != share(strain.stress));
        let found = found.map(|found| format!(", found {}", share(found))).unwrap_or_default();
        format!("{} ({}{found})", share(strain.stress), units.stress(strain.stress))
    };
    let leaves: Vec<String> = strains.iter().map(|strain| format!("{} {}", strain.leaf, leaf(strain))).collect();
    let comes_to = format!("{} of {of_what} {when}, which is {}", sentence(&leaves.join(", ")), units.stress(first.limit_at));
    let then = match (first.grade, first.limit) {
        (StrainGrade::Refused, _) => {
            "The plan is not taken: give it less arch, or a thinner or shorter leaf, or spread the load over one leaf more"
        }
        (_, _) if first.estimated => "That hangs on sizes or arches that were not read: read every leaf, then decide",
        (StrainGrade::AsFound, Limit::Yield) => {
            "So it was as the pack came in: it has taken a set, and more arch comes out of it again. Renew it, or carry less"
        }
        (StrainGrade::AsFound, Limit::Allowable) => {
            "So it was as the pack came in: overworked, it sags on and may crack. One leaf more, or less weight, eases it"
        }
        (StrainGrade::Warned, Limit::Yield) => {
            "It takes a set there. Less arch or one leaf more spares it; read the height again after it has worked"
        }
        (StrainGrade::Warned, Limit::Allowable) => {
            "It holds, and tires sooner. Less arch or one leaf more eases it; read the height again after 500 to 1,000 miles"
        }
    };
    format!("{comes_to}. {then}.")
}

/// How hard one leaf is worked past a limit.
pub(crate) fn strain_words(strain: &LeafStrain, units: Units) -> String {
    strains_words(&[strain], units)
}

/// Everything that the steel of a planned pack says before it is chosen, the gravest first, each with how it is to look.
pub(crate) fn steel_words(bench: &BenchWork, units: Units) -> Vec<(&'static str, String)> {
    let alike = |strain: &LeafStrain| std::cmp::Reverse((strain.grade, strain.limit, strain.at));
    let mut strains: Vec<&LeafStrain> = bench.strains.iter().collect();
    strains.sort_by_key(|strain| alike(strain));
    let class = |grade: StrainGrade| match grade {
        StrainGrade::Refused => "problem",
        StrainGrade::Warned => "doubt",
        StrainGrade::AsFound => "finding",
    };
    let groups = strains.chunk_by(|one, other| alike(one) == alike(other));
    let line = |group: &[&LeafStrain]| Some((class(group.first()?.grade), strains_words(group, units)));
    let mut words: Vec<_> = groups.filter_map(line).collect();
    words.extend(bench.set.filter(|set| !units.is_nothing(*set)).map(|set| {
        let set = units.height(set);
        ("doubt", format!("What its leaves settle by is taken off the heights: {set} with no load."))
    }));
    let lost: Vec<&(NamedLoad, Length)> = bench.lost_support.iter().filter(|(_, lost)| !units.is_nothing(*lost)).collect();
    if !lost.is_empty() {
        let words_of = |(at, lost): &(NamedLoad, Length)| format!("{} ({})", units.height(*lost), load_name(&at.name));
        let lost = lost.into_iter().map(words_of).collect::<Vec<_>>().join(", ");
        words.push(("doubt", format!("The other overload leaf holds up less than the one that comes out: lower by {lost}.")));
    }
    words
}

/// How the leaves planned on every side are worked past what they may be.
pub(crate) fn sides_steel_words(benches: &[SideBench], units: Units) -> Vec<(&'static str, String)> {
    let of_side = |bench: &SideBench| {
        let lines = steel_words(&bench.work, units).into_iter();
        lines
            .map(|(class, words)| match bench.side {
                Some(side) => (class, format!("{}: {words}", sentence(side.name()))),
                None => (class, words),
            })
            .collect::<Vec<_>>()
    };
    benches.iter().flat_map(of_side).collect()
}

/// What speaks against a re-arch, in a sentence.
pub(crate) fn against_words(against: &Against, units: Units) -> String {
    match against {
        Against::RuledOut(gates) => gates_words(gates),
        Against::OverARating => "The vehicle is over a rating. Weight comes off first; no arch changes that.".to_owned(),
        Against::Refused(refusal) => rearch_refusal_words(refusal, units),
        Against::Yields(strain) => strain_words(strain, units),
    }
}

/// Why a re-arch cannot be worked out, in a sentence.
pub(crate) fn cannot_rearch_words(why: &CannotRearch, units: Units) -> String {
    match why {
        CannotRearch::NotMeasured(state) => {
            format!("The rear height {} is not on Tape yet; measure it first.", state_name(*state))
        }
        CannotRearch::LoadNotKnown => "What was put on is not known; tell it on Tape first.".to_owned(),
        CannotRearch::OutsideTheModel(state) => {
            let state = state_name(*state);
            format!("As read, the pack is outside the model under what it carries {state}; check its thicknesses and arches.")
        }
        CannotRearch::Pack(error) => pack_error_words(error, units),
    }
}

/// Why something cannot be done to a pack, in a sentence.
pub(crate) fn cannot_words(why: Cannot) -> String {
    match why {
        Cannot::Full => format!("The bench holds {MOST_LEAVES} leaves."),
        Cannot::NoMainLeaf => "There is no main leaf to cut it for yet.".to_owned(),
        Cannot::LastLeaf => "A pack keeps one leaf at least.".to_owned(),
        Cannot::NoSuchLeaf => "There is no such leaf.".to_owned(),
        Cannot::AtTheEnd => "It is at the end of the pack already.".to_owned(),
        Cannot::NoOverloadLeaf => {
            "No leaf here looks like an overload leaf. Say below the leaves which it is, or put one in from the list.".to_owned()
        }
    }
}

/// What is planned on a pack, in a few words.
pub(crate) fn work_words(work: &[WorkOn]) -> String {
    let words = |work: &WorkOn| match work {
        WorkOn::In(leaf) => format!("{leaf} in"),
        WorkOn::Out(leaf) => format!("{leaf} out"),
        WorkOn::Rearched => "re-arched".to_owned(),
        WorkOn::HelperSet => "helper set".to_owned(),
        WorkOn::HelperOff => "helper off".to_owned(),
    };
    if work.is_empty() { "rebuilt".to_owned() } else { work.iter().map(words).collect::<Vec<_>>().join(", ") }
}

/// What a load on a pack is called.
pub(crate) fn load_name(name: &LoadName) -> String {
    match name {
        LoadName::Empty => "Empty".to_owned(),
        LoadName::Loaded => "Loaded".to_owned(),
        LoadName::Case(name) => name.clone(),
        LoadName::Rated => "Rated".to_owned(),
        LoadName::StopFound => "Stop, found".to_owned(),
        LoadName::StopPlanned => "Stop, planned".to_owned(),
        LoadName::Stop => "At the stop".to_owned(),
    }
}

/// A shim that turns the seat back, and which way it goes in: with the axle above its spring the other way round than below it.
pub(crate) fn shim_words(shim: Option<Angle>, spring_over_axle: Option<bool>) -> String {
    let Some(angle) = shim else { return "none: the seat turns by less than half a degree".to_owned() };
    let (below, above) = if angle.value > 0.0 { ("rear", "front") } else { ("front", "rear") };
    let thin_end = match spring_over_axle {
        Some(true) => format!("thin end to the {below}"),
        Some(false) => format!("thin end to the {above}, the axle being above its spring"),
        None => format!("thin end to the {below} where the axle is below its spring, to the {above} where it is above"),
    };
    format!("{} between spring and seat, {thin_end}", degrees(angle.abs()))
}
