//! What must be on the bench before anything comes apart.

use wise_badger_mechanics::units::Length;

use super::apart::agreed_repairs;
use super::card::Card;
use crate::casework::Casework;
use crate::consequence::Consequence;
use crate::look_over::{Addition, Measure, PutRight};

/// Something that is used up, or never used twice.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Consumable {
    /// U-bolts with nuts and washers, all new: how long their legs must be, where the old ones were measured.
    UBolts(Option<Length>),
    /// A center bolt for each pack that comes apart.
    CenterBolts,
    /// Axle nuts and cotter pins.
    AxleNuts,
    /// Bushings for every eye and shackle that comes apart.
    Bushings,
    /// Grease for bushings by their material.
    BushingGrease,
    /// Brake fluid and washers.
    BrakeFluid,
}

/// What is needed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum What {
    /// The part at a place of the option.
    Part(usize),
    /// What the look-over or the option asks to be put right with it.
    Addition(Addition),
    /// Something that is used up.
    Consumable(Consumable),
}

/// One line of the list.
#[derive(Debug, Clone, PartialEq)]
pub struct Needed {
    /// What it goes by among the ticks.
    pub key: String,
    /// What it is.
    pub what: What,
}

/// What a step of the card calls for.
const OF_STEPS: &[(&str, &str)] = &[
    ("u_bolts_on", "u_bolts"),
    ("center_bolt_in", "center_bolts"),
    ("axle_nut_new", "axle_nuts"),
    ("bushings_in", "bushings"),
    ("bushings_in", "bushing_grease"),
    ("bled", "brake_fluid"),
];

impl Needed {
    /// Everything that the option at a place of the job's list takes, with what its card calls for.
    pub fn of(work: &Casework, place: usize, card: &Card) -> Vec<Needed> {
        let parts = work.case().options.get(place).map_or(0, |option| option.parts.len());
        let parts = (0..parts).map(|part| Needed { key: format!("part.option.{part}"), what: What::Part(part) });
        let additions = work.to_put_right(Some(place)).into_iter().filter_map(|put_right| match put_right {
            PutRight::Repair(addition, _) => Some(addition),
            PutRight::Defect(_) | PutRight::Area(_) => None,
        });
        let mut all: Vec<Needed> = parts.collect();
        for addition in additions.chain(agreed_repairs(&work.case().work_plan)) {
            let key = format!("part.repair.{}", word_of(addition));
            if !all.iter().any(|there| there.key == key) {
                all.push(Needed { key, what: What::Addition(addition) });
            }
        }
        let has_u_bolts = work.option(place).is_some_and(|(_, parts)| parts.iter().any(|part| part.row().word == "u_bolts"));
        let repairs: Vec<What> = all.iter().map(|needed| needed.what).collect();
        let has = |addition| repairs.contains(&What::Addition(addition));
        let steps = OF_STEPS.iter().filter(|(step, _)| card.steps.iter().any(|there| there.operation.word == *step));
        for (_, word) in steps {
            let consumable = match *word {
                "u_bolts" if has_u_bolts || has(Addition::NewUBolts) => continue,
                "u_bolts" => Consumable::UBolts(leg(work, place)),
                "center_bolts" => Consumable::CenterBolts,
                "axle_nuts" => Consumable::AxleNuts,
                "bushings" if has(Addition::NewBushes) => continue,
                "bushings" => Consumable::Bushings,
                "bushing_grease" => Consumable::BushingGrease,
                _ => Consumable::BrakeFluid,
            };
            all.push(Needed { key: format!("part.used.{word}"), what: What::Consumable(consumable) });
        }
        all
    }
}

/// How long the legs of new U-bolts must be, where those of the old ones were measured.
fn leg(work: &Casework, place: usize) -> Option<Length> {
    let measured = || work.look_over().measured(Measure::UBoltLeg);
    let longer = work.consequences(place).iter().find_map(|changed| match changed {
        Consequence::UBoltLeg { measured, longer, .. } => Some(((*measured)?, *longer)),
        _ => None,
    });
    longer.map(|(measured, longer)| measured + longer).or_else(measured)
}

fn word_of(addition: Addition) -> String {
    serde_json::to_value(addition).ok().and_then(|word| word.as_str().map(str::to_owned)).unwrap_or_default()
}
