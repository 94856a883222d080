//! What else changes with an option, figure by figure.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::consequence::Consequence;
use wise_badger_mechanics::pack::shim_for;
use wise_badger_mechanics::units::{InShopUnits, Length};

use super::bench::shim_words;
use super::look_over::addition_name;
use super::{Figure, Sum, Tone, Units, degrees, sentence};

const GEOMETRY: &str = "Geometry, from what was measured on Look-over.";

/// Everything that changes with an option on the list.
pub(crate) fn consequence_figures(work: &Casework, place: usize, units: Units) -> Vec<Figure> {
    let vehicle = &work.found().vehicle;
    let over = vehicle.rear_spring_over;
    // A trailer's axle has no pinion to turn.
    let told = |consequence: &&Consequence| !(vehicle.class.is_trailer() && matches!(consequence, Consequence::PinionTurned(_)));
    work.consequences(place).iter().filter(told).map(|consequence| figure(consequence, over, units)).collect()
}

fn figure(consequence: &Consequence, over: Option<bool>, units: Units) -> Figure {
    let figure = match consequence {
        Consequence::HoseSlack { measured, hangs_lower } => {
            used_up("Hose slack at full droop", consequence, *measured, *hangs_lower, "the axle hangs lower by", units)
        }
        Consequence::ShockRod { measured, rise } => {
            used_up("Shock draws out further, empty", consequence, *measured, *rise, "the axle stands further off by", units)
        }
        Consequence::StopOpens(opens) => {
            let sum = Sum::new("the stop stays on the frame, the axle goes away from it", Vec::new(), GEOMETRY);
            let (value, note) = match opens.si() > 0.0 {
                true => (format!("{} further off", units.exact(*opens)), "extend it by as much to keep its gap"),
                false => (format!("{} nearer", units.exact(-*opens)), "less bump travel; look where it bears"),
            };
            Figure::new("Bump stop", value, sum).note(note)
        }
        Consequence::UBoltLeg { measured, longer } => {
            let by = if longer.si() > 0.0 {
                format!("{} longer", units.exact(*longer))
            } else {
                format!("{} shorter", units.exact(-*longer))
            };
            let numbers = measured
                .map(|leg| vec![format!("{} + {} = {}", units.exact(leg), units.exact(*longer), units.exact(leg + *longer))]);
            let sum = Sum::new("leg = leg as it is + what it reaches round more", numbers.unwrap_or_default(), GEOMETRY);
            let value = measured.map_or_else(|| by.clone(), |leg| units.height(leg + *longer));
            let note = if measured.is_some() {
                format!("{by} than the ones there; new, never used again")
            } else {
                "new, never used again".to_owned()
            };
            Figure::new("U-bolt leg", value, sum).note(note)
        }
        Consequence::Shaft { before, after } => {
            let numbers = vec![format!("{} now, {} then", degrees(*before), degrees(*after))];
            let sum = Sum::new("slope = drop of its rear joint over its span; the drop grows by the rise", numbers, GEOMETRY)
                .doubt("Where gearbox and pinion lie parallel both joints change alike; measure them after.");
            Figure::new("Shaft slope, empty", degrees(*after), sum)
                .note(format!("{} now; try it at full droop", degrees(*before)))
        }
        Consequence::NeverBears => {
            let sum = Sum::new("the rise in every state that was read, to what the tape can tell", Vec::new(), GEOMETRY);
            let note = "nothing is gained in any state read: set it closer, or look at the clearance again";
            return Figure::new("It bears", "never", sum).note(note).tone(Tone::Act);
        }
        Consequence::PinionTurned(turned) => {
            let sum = Sum::new("rise of its ends over its length, as an angle; short end forward, nose up", Vec::new(), GEOMETRY);
            let nose = if turned.value > 0.0 { "up" } else { "down" };
            Figure::new("Block turns the pinion", format!("{} nose {nose}", degrees(turned.abs())), sum)
                .note("hold it against the shaft's slope; both joints alike, to the maker's limit")
        }
        Consequence::SeatTurns(turned) => {
            let sum = Sum::new("tilt of the seat, planned less found, by the halves of both packs", Vec::new(), GEOMETRY);
            Figure::new("Seat and pinion turn", degrees(*turned), sum)
                .note(format!("shim: {}", shim_words(shim_for(*turned), over)))
        }
    };
    if consequence.asks_for().is_some() { figure.tone(Tone::Act) } else { figure }
}

/// A length of which the option takes some.
fn used_up(label: &str, consequence: &Consequence, measured: Length, taken: Length, how: &str, units: Units) -> Figure {
    let left = consequence.left().unwrap_or(measured - taken);
    let numbers = vec![format!("{} − {} = {}", units.exact(measured), units.exact(taken), units.exact(left))];
    let sum = Sum::new("what was measured − what the option takes of it", numbers, GEOMETRY);
    let value = match left.si() < 0.0 {
        true => format!("{} short", units.height(-left)),
        false => format!("{} left", units.height(left)),
    };
    let taken =
        if taken.si() < 0.0 { format!("{how} −{}", units.height(-taken)) } else { format!("{how} {}", units.height(taken)) };
    let asks =
        consequence.asks_for().map(|addition| format!(". {} with it", sentence(addition_name(addition)))).unwrap_or_default();
    Figure::new(label, value, sum).note(format!("{} measured, {taken}{asks}", units.height(measured)))
}
