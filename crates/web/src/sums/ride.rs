//! Ride, roll, coils and travel.

use wise_badger_mechanics::side_effect::coil::{Coil, DualRateCoil};
use wise_badger_mechanics::side_effect::ride::{bounce_frequency, roll_angle};
use wise_badger_mechanics::side_effect::travel::{RaisedBy, Shock, TravelEnd, TravelLeft, TravelLimits, hangs_lower};
use wise_badger_mechanics::units::{InShopUnits, newtons};

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum, Tone, frequency};

const RAISED_BY: &[(&str, &str)] = &[("away", "Block, spring or coil spacer"), ("strut", "Spacer on top of the strut")];

pub(super) const SUMS: [ShopSum; 5] = [
    ShopSum {
        word: "frequency",
        name: "Ride frequency",
        about: "How quickly an axle bounces on its springs.",
        inputs: &[
            Input::new("rate", "Rate of both springs", InputKind::Rate),
            Input::new("weight", "Weight on them, wheels and axle left out", InputKind::Weight),
        ],
        work: ride_frequency,
    },
    ShopSum {
        word: "roll",
        name: "Body roll",
        about: "How far the body leans under a sideways push.",
        inputs: &[
            Input::new("push", "Push, in g", InputKind::Number).usual("0.3"),
            Input::new("weight", "Sprung weight", InputKind::Weight),
            Input::new("arm", "Center of gravity above the roll axis", InputKind::Length),
            Input::new("stiffness", "Roll stiffness, torque per degree", InputKind::Torque),
        ],
        work: roll,
    },
    ShopSum {
        word: "coil",
        name: "A coil by its wire",
        about: "Rate, length under a load, and travel to bind. Equal free lengths do not make equal heights.",
        inputs: &[
            Input::new("wire", "Wire diameter", InputKind::Length),
            Input::new("mean", "Mean coil diameter", InputKind::Length),
            Input::new("active", "Active coils", InputKind::Number),
            Input::new("total", "All coils", InputKind::Number),
            Input::new("free", "Free length", InputKind::Length),
            Input::new("load", "Load on it", InputKind::Weight),
        ],
        work: coil,
    },
    ShopSum {
        word: "dual-rate-coil",
        name: "A coil wound in two parts",
        about: "Its rate at first and once the softer part has bound, and how far off both are under a load.",
        inputs: &[
            Input::new("wire", "Wire diameter", InputKind::Length),
            Input::new("mean", "Mean coil diameter", InputKind::Length),
            Input::new("soft_coils", "Coils of the softer part", InputKind::Number),
            Input::new("soft_free", "Its free length", InputKind::Length),
            Input::new("stiff_coils", "Coils of the stiffer part", InputKind::Number),
            Input::new("stiff_free", "Its free length, alone", InputKind::Length),
            Input::new("load", "Load on it", InputKind::Weight),
        ],
        work: dual_rate_coil,
    },
    ShopSum {
        word: "travel",
        name: "Travel left",
        about: "Bump and droop travel against stops and shock, before and after a raise. Hoses and wires have limits of their own.",
        inputs: &[
            Input::new("length", "Shock as it stands", InputKind::Length),
            Input::new("closed", "Shock closed", InputKind::Length),
            Input::new("extended", "Shock extended", InputKind::Length),
            Input::new("ratio", "Shock travel over wheel travel", InputKind::Number).usual("1"),
            Input::new("bump", "Bump-stop gap", InputKind::Length),
            Input::new("raise", "Raised at the wheel by", InputKind::SignedLength),
            Input::new("how", "By", InputKind::Pick(RAISED_BY)).usual("away"),
        ],
        work: travel,
    },
];

fn ride_frequency(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (rate, weight, units) = (given.rate("rate")?, given.weight("weight")?, given.units);
    let numbers = vec![format!("{} under {}", units.rate(rate), units.weight(weight))];
    let sum = Sum::new("f = √(rate × g / weight) / 2π, tires left out", numbers, "Any vibration text.");
    Ok(vec![Figure::new("Ride frequency", frequency(bounce_frequency(rate, weight)?), sum)])
}

fn roll(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (push, weight, arm) = (given.number("push")?, given.weight("weight")?, given.length("arm")?);
    let (stiffness, units) = (given.roll_stiffness("stiffness")?, given.units);
    let numbers = vec![format!("{push} g on {} at {}", units.weight(weight), units.exact(arm))];
    let sum = Sum::new("roll = push × weight × arm / (stiffness − weight × arm)", numbers, "Moments about the roll axis.");
    Ok(vec![Figure::new("The body leans by", InputValues::degrees(roll_angle(push, weight, arm, stiffness)?), sum)])
}

fn coil(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let coil = Coil {
        wire: given.length("wire")?,
        mean_diameter: given.length("mean")?,
        active_coils: given.number("active")?,
        total_coils: given.number("total")?,
        free_length: given.length("free")?,
    };
    let (load, units) = (given.weight("load")?, given.units);
    let (rate, bind) = (coil.rate()?, coil.bind_length()?);
    let length = coil.free_length - load / rate;
    let left = length - bind;
    let bound = left.si() <= 0.0;
    let sum =
        |formula, numbers| Sum::new(formula, numbers, "Shigley, Mechanical Engineering Design, helical springs (from memory).");
    let wound =
        vec![format!("wire {}, mean {}, {} active", units.exact(coil.wire), units.exact(coil.mean_diameter), coil.active_coils)];
    let stood = vec![format!("{} − {} / {}", units.exact(coil.free_length), units.weight(load), units.rate(rate))];
    let solid = vec![format!("{} coils × {} = {}", coil.total_coils, units.exact(coil.wire), units.exact(bind))];
    Ok(vec![
        Figure::new("Rate", units.rate(rate), sum("k = G·d⁴ / (8·D³·n), G 79.3 GPa", wound)),
        Figure::new("Length under the load", units.height(length), sum("length = free length − load / rate", stood)),
        Figure::new("Travel to bind", units.change(left), sum("bind length = all coils × wire", solid))
            .note(if bound { "the load binds it" } else { "left before its coils touch" })
            .tone(if bound || load <= newtons(0.0) { Tone::Act } else { Tone::Plain }),
    ])
}

fn dual_rate_coil(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let part = |coils, free| -> Result<Coil, SumError> {
        let coils = given.number(coils)?;
        Ok(Coil {
            wire: given.length("wire")?,
            mean_diameter: given.length("mean")?,
            active_coils: coils,
            total_coils: coils,
            free_length: given.length(free)?,
        })
    };
    let coil = DualRateCoil { soft: part("soft_coils", "soft_free")?, stiff: part("stiff_coils", "stiff_free")? };
    let (load, units) = (given.weight("load")?, given.units);
    let spring = coil.main_spring(load, 1.0)?;
    let [softer_binds, solid] = spring.stages.as_slice() else { return Err(SumError::Lacks("stages")) };
    let stiff = spring.rate + softer_binds.added_rate;
    let parts = format!(
        "{} and {} by themselves, {} on them",
        units.rate(coil.soft.rate()?),
        units.rate(coil.stiff.rate()?),
        units.weight(load)
    );
    let sum = |formula| Sum::new(formula, vec![parts.clone()], "Springs in series; Shigley, helical springs (from memory).");
    let bound = softer_binds.at_travel.si() <= 0.0;
    Ok(vec![
        Figure::new("Rate at first", units.rate(spring.rate), sum("1 / k = 1 / k soft + 1 / k stiff")),
        Figure::new("Rate once the softer part has bound", units.rate(stiff), sum("the stiffer part alone")),
        Figure::new("The softer part binds", units.change(softer_binds.at_travel), sum("(its force when bound − load) / rate"))
            .note(if bound { "bound already under this load" } else { "further down than it stands under this load" }),
        Figure::new("All of it is solid", units.change(solid.at_travel), sum("until the stiffer part binds too"))
            .note("further down than it stands under this load"),
    ])
}

fn travel(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let shock = Shock {
        length: given.length("length")?,
        closed: given.length("closed")?,
        extended: given.length("extended")?,
        motion_ratio: given.number("ratio")?,
    };
    let now = TravelLimits { shock, bump_gap: Some(given.length("bump")?), droop_gap: None };
    let how = if given.text("how")? == "strut" { RaisedBy::WholeStrut } else { RaisedBy::AxleAway };
    let raise = given.length("raise")?;
    let (after, lower) = (now.raised(raise, how), hangs_lower(raise, how));
    let hangs = {
        let (numbers, formula) = match how {
            RaisedBy::WholeStrut => {
                (format!("the strut goes down by {}", given.units.exact(lower)), "its droop limit goes with the strut")
            }
            RaisedBy::AxleAway => ("the shock is drawn out where it was".to_owned(), "the shock as it is still ends the droop"),
        };
        let figure = Figure::new(
            "At full droop the wheel hangs lower by",
            given.units.change(lower),
            Sum::new(formula, vec![numbers], "Geometry."),
        );
        match how {
            RaisedBy::WholeStrut => figure.note("half-shafts, ball joints, brake hose and wires must reach that").tone(Tone::Act),
            RaisedBy::AxleAway => figure.note("as low as before"),
        }
    };
    let figure = |label: &str, left: TravelLeft, formula| {
        let numbers = vec![format!("at the wheel {}", given.units.exact(left.travel))];
        let ends = if left.ends_on == TravelEnd::Stop { "ends on the stop" } else { "ends on the shock" };
        // A shock that closes before the stop, or has no droop left, is what breaks.
        let act = left.travel.si() <= 0.0 || (left.ends_on == TravelEnd::Shock && label.starts_with("Bump"));
        let sum = Sum::new(formula, numbers, "Geometry.");
        Figure::new(label, given.units.height(left.travel), sum).note(ends).tone(if act { Tone::Act } else { Tone::Plain })
    };
    const BUMP: &str = "the lesser of stop gap and (length − closed) / ratio";
    const DROOP: &str = "(extended − length) / ratio";
    Ok(vec![
        figure("Bump travel now", now.bump()?, BUMP),
        figure("Bump travel after", after.bump()?, BUMP),
        figure("Droop travel now", now.droop()?, DROOP),
        figure("Droop travel after", after.droop()?, DROOP),
        hangs,
    ])
}
