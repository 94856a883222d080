//! Shaft, pinion and joint angles.

use wise_badger_mechanics::side_effect::attitude::joint_angle;
use wise_badger_mechanics::side_effect::driveline::{AxlePlace, ShimEnd, shaft_angles, shim_angle, shim_end_forward};
use wise_badger_mechanics::units::radians;

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum};

const PLACES: &[(&str, &str)] = &[("below", "Axle below its spring"), ("above", "Axle on top of its spring")];

pub(super) const SUMS: [ShopSum; 3] = [
    ShopSum {
        word: "shaft",
        name: "Shaft and pinion",
        about: "Both joint angles of a one-piece shaft, and the shim that makes them alike.",
        inputs: &[
            Input::new("drop", "The shaft falls by", InputKind::SignedLength),
            Input::new("span", "Over a length of", InputKind::Length),
            Input::new("gearbox", "Gearbox points down by", InputKind::Degrees),
            Input::new("pinion", "Pinion's line falls to the rear by", InputKind::Degrees),
            Input::new("place", "Layout", InputKind::Pick(PLACES)).usual("below"),
        ],
        work: shaft,
    },
    ShopSum {
        word: "shim",
        name: "A shim's angle",
        about: "The angle of a tapered shim by its two ends.",
        inputs: &[
            Input::new("thick", "Thick end", InputKind::Length),
            Input::new("thin", "Thin end", InputKind::Length),
            Input::new("length", "Length", InputKind::Length),
        ],
        work: shim,
    },
    ShopSum {
        word: "joint",
        name: "CV axles and ball joints",
        about: "The slope of a CV axle or a control arm before and after a lift at an independent wheel.",
        inputs: &[
            Input::new("length", "Length between the joints", InputKind::Length),
            Input::new("drop", "Its outer end lies lower by", InputKind::SignedLength),
            Input::new("rise", "The body comes up by", InputKind::SignedLength),
        ],
        work: joint,
    },
];

fn shaft(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (drop, span, units) = (given.length("drop")?, given.length("span")?, given.units);
    let (gearbox, pinion) = (given.angle("gearbox")?, given.angle("pinion")?);
    let angles = shaft_angles(drop, span, gearbox, pinion)?;
    let degrees = InputValues::degrees;
    let sum = |formula, numbers| Sum::new(formula, numbers, "Geometry; equal joint angles cancel.");
    let slope = sum("tan(shaft) = drop / span", vec![format!("{} / {}", units.exact(drop), units.exact(span))]);
    let joint = |what, angle| vec![format!("{} − {} = {}", degrees(angles.shaft), degrees(what), degrees(angle))];
    // The pinion must turn by as much as its joint is off the other; the more its line falls to the rear, the higher its nose.
    let turn = angles.rear_joint - angles.front_joint;
    let up = turn.value > 0.0;
    let place = if given.text("place")? == "above" { AxlePlace::AboveSpring } else { AxlePlace::BelowSpring };
    let end = if shim_end_forward(place, up) == ShimEnd::Thin { "thin" } else { "thick" };
    let numbers = vec![format!("{} − {} = {}", degrees(angles.rear_joint), degrees(angles.front_joint), degrees(turn))];
    let even = turn.value.abs() < radians(0.05_f64.to_radians()).value;
    let note = match even {
        true => "the joints are alike already".to_owned(),
        false => format!("{end} end forward turns the pinion {}", if up { "up" } else { "down" }),
    };
    Ok(vec![
        Figure::new("Shaft", degrees(angles.shaft), slope),
        Figure::new("Front joint", degrees(angles.front_joint), sum("shaft − gearbox", joint(gearbox, angles.front_joint))),
        Figure::new("Rear joint", degrees(angles.rear_joint), sum("shaft − pinion", joint(pinion, angles.rear_joint))),
        Figure::new("Shim for equal joints", degrees(turn.abs()), sum("rear joint − front joint", numbers)).note(note),
    ])
}

fn shim(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (thick, thin, length) = (given.length("thick")?, given.length("thin")?, given.length("length")?);
    let (angle, units) = (shim_angle(thick, thin, length)?, given.units);
    let numbers = vec![format!("({} − {}) / {}", units.exact(thick), units.exact(thin), units.exact(length))];
    let sum = Sum::new("tan(angle) = (thick − thin) / length", numbers, "Geometry.");
    Ok(vec![Figure::new("Shim", InputValues::degrees(angle), sum)])
}

fn joint(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (length, drop, rise) = (given.length("length")?, given.length("drop")?, given.length("rise")?);
    let units = given.units;
    let figure = |label: &str, drop| -> Result<Figure, SumError> {
        let numbers = vec![format!("{} / {}", units.exact(drop), units.exact(length))];
        let sum = Sum::new("sin(slope) = drop / length", numbers, "Geometry.").doubt("The joint's own limit is its maker's.");
        Ok(Figure::new(label, InputValues::degrees(joint_angle(length, drop)?), sum))
    };
    Ok(vec![figure("Slope now", drop)?, figure("Slope after", drop + rise)?])
}
