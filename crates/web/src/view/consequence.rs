//! What else changes with an option, figure by figure.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::consequence::Consequence;
use wise_badger_casework::survey::{End, Survey};
use wise_badger_mechanics::pack::shim_for;
use wise_badger_mechanics::units::{Angle, InShopUnits, Length, inches};

use super::bench::shim_words;
use super::look_over::addition_name;
use super::{Figure, Sum, Tone, Units, degrees, percent, sentence, state_of};

const GEOMETRY: &str = "Geometry, from what was measured on Look-over.";

/// Everything that changes with an option on the list.
pub(crate) fn consequence_figures(work: &Casework, place: usize, units: Units) -> Vec<Figure> {
    let vehicle = &work.found().vehicle;
    // A trailer's axle has no pinion to turn.
    let told = |consequence: &&Consequence| !(vehicle.class.is_trailer() && matches!(consequence, Consequence::PinionTurned(_)));
    work.consequences(place).iter().filter(told).map(|consequence| figure(consequence, work.found(), units)).collect()
}

fn figure(consequence: &Consequence, survey: &Survey, units: Units) -> Figure {
    let figure = match consequence {
        Consequence::HoseSlack { end, measured, hangs_lower, longer } => {
            let hangs = match end {
                End::Rear => "the rear axle hangs lower by",
                End::Front => "the front axle hangs lower by",
            };
            let changes = [(hangs, -*hangs_lower), ("longer by", *longer)];
            used_up("Hose slack at full droop", consequence, *measured, changes, units)
        }
        Consequence::ShockRod { end, measured, apart, longer } => {
            let label = match end {
                End::Rear => "Rear shock draws out further, empty",
                End::Front => "Front shock draws out further, empty",
            };
            let changes = [("the mounts stand apart by", -*apart), ("the new ones draw out further by", *longer)];
            used_up(label, consequence, *measured, changes, units)
        }
        Consequence::ShockCloses { measured, apart, further, stop, .. } => {
            shock_closes(*measured, *apart, *further, *stop, units)
        }
        Consequence::StopOpens(opens) => {
            let sum = Sum::new("the stop stays on the frame, the axle goes away from it", Vec::new(), GEOMETRY);
            let (value, note) = match opens.si() > 0.0 {
                true => (format!("{} further off", units.exact(*opens)), "extend it by as much to keep its gap"),
                false => (format!("{} nearer", units.exact(-*opens)), "less bump travel; look where it bears"),
            };
            Figure::new("Bump stop", value, sum).note(note)
        }
        Consequence::UBoltLeg { measured, longer, new } => u_bolt_leg(*measured, *longer, *new, units),
        Consequence::Shaft { before, after } => {
            let numbers = vec![format!("{} now, {} then", degrees(*before), degrees(*after))];
            let sum = Sum::new("slope = drop of its rear joint over its span; the drop grows by the rise", numbers, GEOMETRY)
                .doubt("Where gearbox and pinion lie parallel both joints change alike; measure them after.");
            Figure::new("Shaft slope, empty", degrees(*after), sum)
                .note(format!("{} now; try it at full droop", degrees(*before)))
        }
        Consequence::HalfShaft { before, after } => {
            let numbers = vec![format!("{} now, {} then", degrees(*before), degrees(*after))];
            let how = "slope = drop of its outer joint over its length; the drop grows by the rise, less what the differential comes down";
            Figure::new("Half-shaft slope, empty", degrees(*after), Sum::new(how, numbers, GEOMETRY))
                .note(format!("{} now; to the maker's limit, at full droop too", degrees(*before)))
        }
        Consequence::FrontHangsLower(lower) => {
            let sum = Sum::new("what goes up with the strut, and what longer shocks draw out further", Vec::new(), GEOMETRY);
            Figure::new("Front wheels at full droop", format!("{} lower", units.exact(*lower)), sum).note(
                "half-shafts, ball joints, hoses and wires hang as much steeper: turn the wheels there by hand, lock to lock",
            )
        }
        Consequence::TrackBar { end, by_the_lift, shift } => {
            let label = match end {
                End::Rear => "Rear axle, sideways by its track bar",
                End::Front => "Front axle, sideways by its track bar",
            };
            let numbers = vec![format!("by the lift alone {}", sideways(*by_the_lift, units))];
            let how = "√(length² − drop²), then less now; a bracket takes from the drop, an adjustable bar adds to the length";
            let figure = Figure::new(label, sideways(*shift, units), Sum::new(how, numbers, GEOMETRY));
            let off = shift.abs() > inches(OFF_CENTER_IN);
            let note = if off { "bring its end down, or make the bar longer or shorter" } else { "as good as under the middle" };
            if off { figure.note(note).tone(Tone::Act) } else { figure.note(note) }
        }
        Consequence::Caster { by_rake, by_arms } => {
            let numbers = vec![format!("by the rake {}, by the arms {}", signed_degrees(*by_rake), signed_degrees(*by_arms))];
            let how = "rake: (front − rear) ÷ wheelbase; arms: what their ends on the frame come up, over their length";
            Figure::new("Caster, front", signed_degrees(*by_rake + *by_arms), Sum::new(how, numbers, GEOMETRY))
                .note("less makes it wander: set it to the maker's figure")
        }
        Consequence::BarLinks { end, short } => {
            let label = match end {
                End::Rear => "Rear sway bar, its ends off level",
                End::Front => "Front sway bar, its ends off level",
            };
            let sum = Sum::new("rise − what the links are longer", Vec::new(), GEOMETRY);
            Figure::new(label, sideways_free(*short, units), sum).note("nought: the bar lies as it lay before")
        }
        Consequence::OverloadLeaf { state, before, after } => {
            let how = "how far it is clear by the readings + the rise, less what goes under the whole pack";
            let bears = |clear: Length| match clear.si() < 0.0 {
                true => format!("bears by {}", units.height(clear.abs())),
                false => format!("clear by {}", units.height(clear)),
            };
            let numbers = vec![format!("{} now, {} then", bears(*before), bears(*after))];
            let label = format!("Overload leaf, {}", state_of(survey, *state));
            let lives = after.si() < 0.0;
            let note = match lives {
                true => format!("now it {}; a pack that lives on its overload leaf rides hard", bears(*before)),
                false => format!("now it {}", bears(*before)),
            };
            Figure::new(label, bears(*after), Sum::new(how, numbers, GEOMETRY)).note(note)
        }
        Consequence::AgainstLeaning { share, with_air } => {
            let how = "rate of the rear with the option over its rate now, less one; a bar adds its own stiffness";
            let value = format!("{} {}", percent(share.abs()), if *share > 0.0 { "stiffer" } else { "softer" });
            let note = match (*share > 0.0, with_air) {
                (true, true) => "with a line a side; on one shared line the bags hold up no lean",
                (true, false) => "leans less in a bend",
                (false, _) => "leans further in a bend",
            };
            Figure::new("Rear against leaning", value, Sum::new(how, Vec::new(), GEOMETRY)).note(note)
        }
        Consequence::AtItsRating { before, after } => {
            let how = "to the stop with the most on it that was read − what the springs still come down to the axle's rating";
            let left = |left: Length| match left.si() < 0.0 {
                true => format!("bears by {}", units.height(left.abs())),
                false => units.height(left),
            };
            let numbers = vec![format!("{} now, {} then", left(*before), left(*after))];
            let note = match after < before {
                true => format!("now {}: it reaches its stop with less on it", left(*before)),
                false => format!("now {}; the rating stays", left(*before)),
            };
            Figure::new("To the stop at the rating", format!("about {}", left(*after)), Sum::new(how, numbers, GEOMETRY))
                .note(note)
        }
        Consequence::CoilBindsFirst { end, by } => {
            let how = "stop gap empty − (height as the old one stands − solid height)";
            let label = match end {
                End::Rear => "Rear coil, at full bump",
                End::Front => "Front coil, at full bump",
            };
            Figure::new(label, format!("solid {} before the stop", units.exact(*by)), Sum::new(how, Vec::new(), GEOMETRY))
                .note("the stop must bear first: extend it by more than that, or take a coil with fewer or thinner turns")
                .tone(Tone::Act)
        }
        Consequence::CoilLoose { end, by } => {
            let how = "height as the old one stands + what the shock draws out by − free height";
            let label = match end {
                End::Rear => "Rear coil, at full droop",
                End::Front => "Front coil, at full droop",
            };
            Figure::new(label, format!("loose by {}", units.exact(*by)), Sum::new(how, Vec::new(), GEOMETRY))
                .note("it may leave its seats: a limit strap, a retainer, or shocks that draw out less")
                .tone(Tone::Act)
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
                .note(format!("shim: {}", shim_words(shim_for(*turned), survey.vehicle.rear_spring_over)))
        }
    };
    if consequence.asks_for().is_some() { figure.tone(Tone::Act) } else { figure }
}

/// Further off the middle than this a track bar is put right (common practice).
const OFF_CENTER_IN: f64 = 0.25;

fn signed_degrees(angle: Angle) -> String {
    let sign = if angle.value < 0.0 { "−" } else { "+" };
    format!("{sign}{}", degrees(angle.abs()))
}

fn sideways(shift: Length, units: Units) -> String {
    let toward = if shift.si() < 0.0 { "toward" } else { "away from" };
    format!("{} {toward} the bar's end on the frame", units.exact(shift.abs()))
}

fn sideways_free(short: Length, units: Units) -> String {
    if short.si() < 0.0 { format!("−{}", units.exact(short.abs())) } else { units.exact(short) }
}

/// The stop should end the travel, never the shock.
fn shock_closes(measured: Length, apart: Length, further: Length, stop: Option<Length>, units: Units) -> Figure {
    let closes = measured + apart + further;
    let numbers = vec![format!(
        "{} + {} + {} = {}",
        units.exact(measured),
        signed(apart, units),
        signed(further, units),
        units.exact(closes)
    )];
    let sum = Sum::new("what was measured + what its mounts come apart + what the new ones close further", numbers, GEOMETRY);
    let figure = Figure::new("Rear shock closes by, empty", units.height(closes), sum);
    match stop {
        None => figure.note("read the stop gap: the stop must end the travel, not the shock"),
        Some(stop) if stop > closes => {
            figure.note(format!("{} to the stop: the shock ends first, and is hammered", units.height(stop))).tone(Tone::Act)
        }
        Some(stop) => figure.note(format!("{} to the stop, which ends the travel first", units.height(stop))),
    }
}

fn signed(length: Length, units: Units) -> String {
    if length.si() < 0.0 { format!("(−{})", units.exact(length.abs())) } else { units.exact(length) }
}

fn u_bolt_leg(measured: Option<Length>, longer: Length, new: Option<Length>, units: Units) -> Figure {
    let by =
        if longer.si() < 0.0 { format!("{} shorter", units.exact(-longer)) } else { format!("{} longer", units.exact(longer)) };
    let numbers =
        measured.map(|leg| vec![format!("{} + {} = {}", units.exact(leg), signed(longer, units), units.exact(leg + longer))]);
    let sum = Sum::new("leg = leg as it is + what it reaches round more", numbers.unwrap_or_default(), GEOMETRY);
    let value = measured.map_or_else(|| by.clone(), |leg| units.height(leg + longer));
    let figure = Figure::new("U-bolt leg", value, sum);
    let than = if measured.is_some() { format!("{by} than the ones there; ") } else { String::new() };
    match (new, measured.map(|leg| leg + longer)) {
        (Some(new), Some(needed)) if new.si() < needed.si() - 1e-6 => {
            figure.note(format!("{than}the new ones, {}, are too short", units.height(new))).tone(Tone::Act)
        }
        (Some(new), Some(_)) => figure.note(format!("{than}the new ones, {}, reach", units.height(new))),
        (Some(new), None) => {
            figure.note(format!("measure the old ones on Look-over: whether {} reaches nobody knows", units.height(new)))
        }
        (None, _) => figure.note(format!("{than}new, never used again")),
    }
}

/// A length of which the option takes some, and to which it may give some.
fn used_up(label: &str, consequence: &Consequence, measured: Length, changes: [(&str, Length); 2], units: Units) -> Figure {
    let left = consequence.left().unwrap_or(measured);
    let term = |by: Length| if by.si() < 0.0 { format!(" − {}", units.exact(-by)) } else { format!(" + {}", units.exact(by)) };
    let changes = || changes.iter().filter(|(_, by)| by.si() != 0.0);
    let terms: String = changes().map(|(_, by)| term(*by)).collect();
    let numbers = vec![format!("{}{terms} = {}", units.exact(measured), units.exact(left))];
    let sum = Sum::new("what was measured − what the option takes of it + what it gives", numbers, GEOMETRY);
    let value = match left.si() < 0.0 {
        true => format!("{} short", units.height(-left)),
        false => format!("{} left", units.height(left)),
    };
    let said = changes().map(|(how, by)| format!(", {how} {}", units.height(by.abs())));
    let asks =
        consequence.asks_for().map(|addition| format!(". {} with it", sentence(addition_name(addition)))).unwrap_or_default();
    Figure::new(label, value, sum).note(format!("{} measured{}{asks}", units.height(measured), said.collect::<String>()))
}
