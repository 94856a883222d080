//! Packs under one load: drawn, and figure by figure.

use wise_badger_casework::bench::Packs;
use wise_badger_mechanics::pack::{Contact, Leaf, LeafLine, LeafStress, Pack, PackError, PackState, Strained};
use wise_badger_mechanics::side_effect::ride::bounce_frequency;
use wise_badger_mechanics::units::{Force, Frequency, Length, Pressure, SpringRate};

use super::PACK_SOURCE;
use crate::drawing::{DrawnPack, LeafMark};
use crate::view::{Figure, Sum, Tone, Units, degrees, frequency, frequency_sum, percent, sentence};

/// Steps of a leaf's half in a drawing.
const STEPS: u32 = 10;

const BY_LEAVES: &str = "By the leaves alone. Where the tape measured a rate, heights and Options go by that one.";

/// A pack clamped and loaded: how it bears, and how its leaves lie.
pub(crate) struct PackUnder {
    state: PackState,
    lines: Vec<LeafLine>,
}

impl PackUnder {
    pub(crate) fn new(pack: &Pack, load: Force, rated: Force) -> Result<Self, PackError> {
        let prepared = pack.prepare(rated)?;
        Ok(PackUnder { state: prepared.state(load)?, lines: prepared.lines(load, STEPS)? })
    }
}

/// A pack as it is drawn before its leaves are bolted together.
pub(crate) fn drawn_loose<'a>(pack: &'a Pack, title: &str, units: Units) -> DrawnPack<'a> {
    let nips = std::iter::once(None).chain(pack.nips().into_iter().map(Some));
    let mark = |(leaf, nip): (&Leaf, Option<Length>)| LeafMark {
        name: leaf.name.clone(),
        words: match nip {
            None => String::new(),
            Some(nip) if units.is_nothing(nip) => "no nip".to_owned(),
            Some(nip) => format!("{} nip", units.height(nip)),
        },
        strained: None,
    };
    DrawnPack {
        title: format!("{title}, loose"),
        pack,
        lines: pack.loose_lines(STEPS),
        contacts: Vec::new(),
        marks: pack.leaves.iter().zip(nips).map(mark).collect(),
        arch: None,
    }
}

/// A pack as it is drawn under a load.
pub(crate) fn drawn<'a>(packs: &Packs, pack: &'a Pack, title: &str, standing: &PackUnder, units: Units) -> DrawnPack<'a> {
    let (state, load) = (&standing.state, standing.state.load);
    let allowed = packs.allowed(load);
    let mark = |(leaf, stress): (&Leaf, &LeafStress)| {
        let stress = stress.largest();
        LeafMark {
            name: leaf.name.clone(),
            words: format!("{} · {}", units.stress(stress), percent((stress / allowed).value)),
            strained: Some(Strained::of(stress, allowed)),
        }
    };
    DrawnPack {
        title: format!("{title}, under {}", units.weight(load)),
        pack,
        lines: standing.lines.clone(),
        marks: pack.leaves.iter().zip(&state.leaves).map(mark).collect(),
        contacts: state.contacts.clone(),
        arch: Some(state.arch.map_or_else(|| "outside the model".to_owned(), |arch| format!("arch {}", units.height(arch)))),
    }
}

fn ride(rate: SpringRate, load: Force) -> Option<Frequency> {
    bounce_frequency(rate, load).ok()
}

/// The two packs under one load, figure by figure: what is planned, and what was found beside it.
pub(crate) fn load_figures(packs: &Packs, found: &PackUnder, planned: &PackUnder, units: Units) -> Vec<Figure> {
    let (changed, load) = (packs.changed, planned.state.load);
    let (before, after) = (&found.state, &planned.state);
    let was = |text: String| if changed { format!("found {text}") } else { String::new() };
    let arch = |state: &PackState| state.arch.map_or_else(|| "outside the model".to_owned(), |arch| units.height(arch));
    let exact = |state: &PackState| {
        state.arch.map_or_else(|| "outside the model: past flat by too much".to_owned(), |arch| units.exact(arch))
    };
    let mut figures = Vec::new();
    let friction = after.friction_band();
    let numbers = vec![
        format!("small slopes {}", units.exact(after.arch_linear)),
        format!("with the large-arch correction {}", exact(after)),
    ];
    let doubt = format!(
        "± {} of leaf friction at 5% of the load; up to three times that dry or rusty, half once bounced. The seat holds the pack \
         flat where it is clamped, so the eyes stand lower over it than an arch read on a bolted pack lying loose.",
        units.exact(friction)
    );
    let sum = Sum::new("height of the eyes over the seat: contact solved at 20 places along each overlap, where leaves end, and closer where they press", numbers, PACK_SOURCE)
        .doubt(doubt);
    let tone = if after.arch.is_none() { Tone::Act } else { Tone::Plain };
    let held = format!("± {} of friction{}", units.band(friction), if changed { "; " } else { "" });
    figures.push(Figure::new("Arch", arch(after), sum).note(format!("{held}{}", was(arch(before)))).tone(tone));
    let both = units.rate(2.0 * after.rate);
    let numbers = vec![
        format!("{} of one pack", units.rate(after.rate)),
        format!("2 × {} = {both} of both rear packs", units.rate(after.rate)),
    ];
    let sum = Sum::new("rate = load gained / height lost, over one hundredth of rated load either way", numbers, PACK_SOURCE)
        .doubt(BY_LEAVES);
    figures.push(Figure::new("Rate of one pack", units.rate(after.rate), sum).note(was(units.rate(before.rate))));
    if let Some((leaf, stress)) = packs.planned.hardest_worked(after) {
        figures.push(stress_figure(packs, load, (leaf, stress), before, units));
    }
    if let Some((after_hz, before_hz)) = ride(after.rate, load).zip(ride(before.rate, load)) {
        let numbers = vec![frequency_sum(after.rate, load, after_hz, units)];
        let sum = Sum::new("f = √(rate × g / load) / 2π, tires left out", numbers, "Any vibration text.").doubt(BY_LEAVES);
        figures.push(Figure::new("Ride frequency", frequency(after_hz), sum).note(was(frequency(before_hz))));
    }
    let [front, rear] = after.eyes.map(|eye| units.exact(eye));
    let long: Length = packs.planned.leaves.first().map_or(Length::default(), |main| main.front + main.rear);
    let tilt = degrees(after.seat_tilt);
    let numbers = vec![
        format!("({front} − {rear}) / {} × 57.30 = {tilt}", units.exact(long)),
        "above zero: the front eye stands higher, the pinion of an axle below its spring turns down".to_owned(),
    ];
    let sum = Sum::new("tilt = (front half's height − rear half's) / length", numbers, PACK_SOURCE);
    figures.push(Figure::new("Seat tilt", degrees(after.seat_tilt), sum).note(was(degrees(before.seat_tilt))));
    if let Some([front, rear]) = after.helper {
        let numbers = vec![format!("front end {}, rear end {}", units.weight(front), units.weight(rear))];
        let sum = Sum::new("tension as set, and its rate times what the main leaf came down since", numbers, PACK_SOURCE);
        figures.push(Figure::new("Helper's ends", units.weight(front.max(rear)), sum));
    }
    figures
}

fn stress_figure(packs: &Packs, load: Force, (leaf, stress): (usize, Pressure), before: &PackState, units: Units) -> Figure {
    let allowed = packs.allowed(load);
    let name = packs.planned.leaves.get(leaf).map_or("", |leaf| leaf.name.as_str());
    let (which, past) = (if allowed > packs.steel.rated { "at the stop" } else { "under rated load" }, stress > allowed);
    let share = (stress / allowed).value;
    let numbers = vec![
        format!("{name}: {} of {} allowed {which}", units.stress(stress), units.stress(allowed)),
        format!("{} / {} = {share:.2}", units.stress(stress), units.stress(allowed)),
    ];
    let sum = Sum::new(
        "stress = moment × t / 2I from the leaf's free shape, what being drawn together leaves in it included",
        numbers,
        "Allowables from memory (SAE HS-788, EN 10089), editable on Re-arch.",
    );
    let found = if packs.changed { format!("; found {}", units.stress(before.largest_stress())) } else { String::new() };
    let sets = if packs.steel.sets_at(stress) { "; it begins to take a set" } else { "" };
    let note = format!("{} of what {} may be asked{found}{sets}", percent((stress / allowed).value), sentence(name));
    Figure::new("Hardest worked", units.stress(stress), sum).note(note).tone(if past { Tone::Act } else { Tone::Plain })
}

/// A stretch along which leaves press, ready to print.
pub(crate) struct ContactLine {
    pub(crate) leaves: String,
    pub(crate) place: String,
    pub(crate) force: String,
}

/// Where the leaves of a pack press on each other, from the main leaf down.
pub(crate) fn contact_lines(pack: &Pack, standing: &PackUnder, units: Units) -> Vec<ContactLine> {
    let name = |leaf: usize| pack.leaves.get(leaf).map_or("", |leaf| leaf.name.as_str());
    let line = |contact: &Contact| {
        let (from, to) = (units.height(contact.from), units.height(contact.to));
        ContactLine {
            leaves: format!("{} on {}", name(contact.upper), name(contact.lower)),
            place: format!("{} {}", contact.half.name(), if from == to { from } else { format!("{from} to {to}") }),
            force: units.weight(contact.force),
        }
    };
    standing.state.contacts.iter().map(line).collect()
}
