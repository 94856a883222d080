//! Tyre sizes, and heights from one datum as heights from another.

use wise_badger_casework::survey::VehicleClass;
use wise_badger_mechanics::side_effect::ride::speed_ratio;
use wise_badger_mechanics::tape::{Datum, TyreSize, WheelChange, WheelGeometry};

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum, datum_name, sentence};

const DATUMS: &[(&str, &str)] = &[
    ("ground_to_arch", "Ground to arch"),
    ("hub_to_arch", "Hub center to arch"),
    ("rim_to_arch", "Rim lip to arch"),
    ("tyre_top_to_arch", "Tire top to arch"),
    ("stop_gap", "Axle to bump stop"),
];

pub(super) const SUMS: [ShopSum; 2] = [
    ShopSum {
        word: "tyre-change",
        name: "Another tire size",
        about: "How tall two sizes are, what the change does to each way of measuring, and to the speed shown.",
        inputs: &[Input::new("old", "Size now", InputKind::TyreSize), Input::new("new", "Size to come", InputKind::TyreSize)],
        work: tyre_change,
    },
    ShopSum {
        word: "datums",
        name: "One height, five datums",
        about: "A height measured one way, as it would read measured the other ways at the same wheel.",
        inputs: &[
            Input::new("datum", "The height was read from", InputKind::Pick(DATUMS)),
            Input::new("height", "Height", InputKind::SignedLength),
            Input::new("hub", "Hub center above the ground", InputKind::Length),
            Input::new("lip", "Hub center to the rim's lower lip", InputKind::Length),
            Input::new("radius", "Tire's free radius", InputKind::Length),
            Input::new("arch_at_stop", "Hub to arch where the stop would touch", InputKind::Length),
        ],
        work: datums,
    },
];

fn tyre_change(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (old, new): (TyreSize, TyreSize) = (given.text("old")?.parse()?, given.text("new")?.parse()?);
    let units = given.units;
    let size = |label: &str, size: &TyreSize| {
        let numbers = vec![format!("diameter {}, radius {}", units.exact(size.diameter), units.exact(size.free_radius()))];
        let sum = Sum::new(
            "metric: diameter = rim × 25.4 + 2 × width × aspect / 100 mm; flotation: the first figure, in inches",
            numbers,
            "ISO 4000-1 and ETRTO designation; flotation sizes by common practice. A tire's own maker may differ a little.",
        );
        Figure::new(label, units.exact(size.diameter), sum)
    };
    let gained = new.free_radius() - old.free_radius();
    let mut figures = vec![size("Diameter now", &old), size("Diameter to come", &new)];
    for datum in Datum::ALL {
        let moved = datum.moved_by(WheelChange::TyreSize, gained);
        let numbers = vec![format!("radius gained {}", units.exact(gained))];
        let sum = Sum::new(
            "from the ground + radius gained; from the tire's top − radius gained; others as they were",
            numbers,
            "Geometry.",
        );
        figures.push(Figure::new(sentence(datum_name(VehicleClass::HalfTonPickup, datum)), units.change(moved), sum));
    }
    let ratio = speed_ratio(old.free_radius(), new.free_radius())?;
    let numbers = vec![format!("{} / {} = {ratio:.4}", units.exact(new.free_radius()), units.exact(old.free_radius()))];
    let sum = Sum::new("true speed = speed shown × new radius / old radius", numbers, "Rolling without slip.");
    figures.push(Figure::new("At 60 shown, the true speed is", format!("{:.1}", 60.0 * ratio), sum));
    Ok(figures)
}

fn datums(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let wheel = WheelGeometry {
        hub_height: given.length("hub")?,
        rim_lip_radius: given.length("lip")?,
        free_radius: given.length("radius")?,
        arch_at_stop: given.length("arch_at_stop")?,
    };
    let word = given.text("datum")?;
    let from = DATUMS.iter().zip(Datum::ALL).find(|((each, _), _)| *each == word).map(|(_, datum)| datum);
    let from = from.ok_or(SumError::Lacks("datum"))?;
    let (height, units) = (given.length("height")?, given.units);
    let hub = wheel.to_hub(height, from);
    let figure = |datum| {
        let reading = wheel.from_hub(hub, datum);
        let numbers = vec![format!("hub center to arch {}, so {}", units.exact(hub), units.exact(reading))];
        let sum = Sum::new(
            "hub to arch = ground to arch − hub height = rim to arch − lip radius = tire top to arch + free radius = gap + hub to arch at the stop",
            numbers,
            "Geometry; the gap counts where the stop stands as far out as the arch, or left and right are alike.",
        );
        Figure::new(sentence(datum_name(VehicleClass::HalfTonPickup, datum)), units.height(reading), sum)
    };
    Ok(Datum::ALL.map(figure).to_vec())
}
