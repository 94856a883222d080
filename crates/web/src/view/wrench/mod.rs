//! The wrench card in words.

mod headings;
mod words;

pub(crate) use headings::{headings, side_words};
pub(crate) use words::{setting_of, words_of};

use wise_badger_casework::survey::{End, Survey, VehicleClass};
use wise_badger_casework::wrench::{
    Catch, Consumable, Fastener, Loose, Phase, Place, RATED_FOR, SHARE_OF_THE_WORSE, STANDS_FROM_THE_AXLE_IN, on_the_worse_stand,
    tips_back,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Force, inches};

use super::{Units, end_name, percent, sentence, state_name};

/// Where a step is done: “Rear left”; nothing of one that is done once.
pub(crate) fn place_words(place: &Place, class: VehicleClass) -> String {
    let end = place.end.map(|end| match (end, class.is_trailer()) {
        (End::Rear, true) => place.axle.map_or_else(|| "axles".to_owned(), |axle| format!("axle {axle}")),
        _ => end_name(class, end).to_owned(),
    });
    let side = place.side.map(|side| if side == Side::Left { "left".to_owned() } else { "right".to_owned() });
    sentence(&end.into_iter().chain(side).collect::<Vec<_>>().join(" "))
}

/// What a part of the card is headed with.
fn phase_words(phase: Phase) -> &'static str {
    match phase {
        Phase::Before => "Before it goes up",
        Phase::Raise => "Up",
        Phase::Apart => "Apart",
        Phase::Together => "Together",
        Phase::Hanging => "While it hangs",
        Phase::Lower => "Down",
        Phase::OnWheels => "Weight on the wheels",
        Phase::Drive => "The drive, and after it",
    }
}

/// What holds, in words.
pub(crate) fn fastener_words(fastener: Fastener) -> &'static str {
    match fastener {
        Fastener::LugNuts => "lug nuts",
        Fastener::UBolts => "U-bolts",
        Fastener::CenterBolt => "center bolt",
        Fastener::EyeBolt => "eye bolt",
        Fastener::ShackleBolts => "shackle",
        Fastener::ShockBolts => "shock",
        Fastener::BarLinks => "sway-bar link",
        Fastener::BarBrackets => "sway-bar brackets",
        Fastener::TrackBar => "track bar",
        Fastener::RadiusArms => "radius arms",
        Fastener::StrutTop => "strut at the body",
        Fastener::StrutBottom => "strut at the knuckle",
        Fastener::AxleNut => "axle nut",
        Fastener::Differential => "front differential",
        Fastener::Stop => "stop",
        Fastener::Helper => "helper",
        Fastener::BagBrackets => "bag brackets",
        Fastener::HoseBracket => "hose bracket",
    }
}

fn catch_words(catch: Catch) -> &'static str {
    match catch {
        Catch::Clips => "clips open",
        Catch::BrakeCircuit => "brakes not bled",
        Catch::CotterPins => "cotter pin out",
    }
}

/// What the worse of two stands carries at an end, and what it must be rated for.
pub(crate) fn stands_words(survey: &Survey, end: End, units: Units) -> String {
    let from = units.height(inches(STANDS_FROM_THE_AXLE_IN));
    if tips_back(survey, end) {
        return format!(
            "With stands {from} from the axle its weight lies past them, and it tips back: stands nearer to the axle, or weight off first."
        );
    }
    let each = on_the_worse_stand(survey, end);
    let heaviest = each.iter().map(|of| of.load).fold(Force::default(), Force::max);
    let loads = each.iter().map(|of| format!("{} {}", units.about(of.load), state_name(of.state)));
    let loads = loads.collect::<Vec<_>>().join(", ");
    if loads.is_empty() {
        return String::new();
    }
    let assumed = if each.iter().any(|of| of.assumed) { ", by assumed weights" } else { "" };
    format!(
        "Under the frame {from} from the axle the worse of two stands carries about {loads}{assumed} (lever arms, {} of the pair). Each must be rated for at least {}.",
        percent(SHARE_OF_THE_WORSE),
        units.about(heaviest * RATED_FOR)
    )
}

/// Something that is used up, or never used twice.
pub(crate) fn consumable_words(consumable: Consumable, units: Units) -> String {
    match consumable {
        Consumable::UBolts(Some(leg)) => {
            format!(
                "New U-bolts, nuts and washers: legs of at least {} inside, thread and seat as the old ones",
                units.height(leg)
            )
        }
        Consumable::UBolts(None) => "New U-bolts, nuts and washers: measure a leg of the old ones first".to_owned(),
        Consumable::CenterBolts => "A new center bolt for each pack, head as the old one".to_owned(),
        Consumable::AxleNuts => "New axle nuts and cotter pins".to_owned(),
        Consumable::Bushings => {
            "New bushings for every eye and shackle that comes apart: bore, outside, length, material".to_owned()
        }
        Consumable::BushingGrease => "Grease for the bushings by their material".to_owned(),
        Consumable::BrakeFluid => "Brake fluid of the kind on the cap, new washers".to_owned(),
    }
}

/// One thing that is loose or open, and where.
pub(crate) fn loose_words(loose: &Loose, class: VehicleClass) -> String {
    let (what, place) = match loose {
        Loose::Fastener(fastener, place) => (fastener_words(*fastener), place),
        Loose::Catch(catch, place) => (catch_words(*catch), place),
    };
    let place = place_words(place, class).to_lowercase();
    if place.is_empty() { sentence(what) } else { format!("{}, {place}", sentence(what)) }
}
