//! The ends of a leaf spring.

use wise_badger_mechanics::side_effect::leaf_end::{chord, longer_shackle, shackle_angle};

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum};

pub(super) const SUMS: [ShopSum; 2] = [
    ShopSum {
        word: "shackle",
        name: "Shackle angle",
        about: "Where the shackle stands for an arched main leaf, from its length and arch.",
        inputs: &[
            Input::new("arc", "Main leaf along the arc, eye to eye", InputKind::Length),
            Input::new("sagitta", "Arch, eye line to seat", InputKind::Length),
            Input::new("shackle", "Shackle, hole to hole", InputKind::Length),
            Input::new("ahead", "Shackle's pivot behind the fixed eye by", InputKind::Length),
            Input::new("above", "And higher than it by", InputKind::SignedLength),
        ],
        work: shackle,
    },
    ShopSum {
        word: "longer-shackle",
        name: "Longer shackle",
        about: "What a longer shackle raises, and how far it tilts the axle's seat.",
        inputs: &[
            Input::new("lowered", "The rear eye goes down by", InputKind::SignedLength),
            Input::new("front", "Front eye to axle", InputKind::Length),
            Input::new("whole", "Front eye to rear eye", InputKind::Length),
        ],
        work: longer,
    },
];

fn shackle(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (arc, sagitta, units) = (given.length("arc")?, given.length("sagitta")?, given.units);
    let eyes = chord(arc, sagitta)?;
    let numbers = vec![format!("arc {}, arch {}: {}", units.exact(arc), units.exact(sagitta), units.exact(eyes))];
    let chord_sum =
        Sum::new("chord = S·sin α / α with arch = S·(1 − cos α) / 2α; nearly S − 8c² / 3S", numbers, "Circle geometry.");
    let (link, ahead, above) = (given.length("shackle")?, given.length("ahead")?, given.length("above")?);
    let angle = shackle_angle(eyes, link, ahead, above)?;
    let numbers = vec![format!("eyes {} apart, shackle {}", units.exact(eyes), units.exact(link))];
    let sum = Sum::new("where the eye's circle round the fixed eye meets the shackle's round its pivot", numbers, "Geometry.");
    Ok(vec![
        Figure::new("Eye to eye", units.exact(eyes), chord_sum),
        Figure::new("Shackle from upright", InputValues::degrees(angle), sum).note("rearward positive"),
    ])
}

fn longer(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (lowered, front, whole) = (given.length("lowered")?, given.length("front")?, given.length("whole")?);
    let (rise, tilt) = longer_shackle(lowered, front, whole)?;
    let units = given.units;
    let numbers = || vec![format!("{} × {} / {}", units.exact(lowered), units.exact(front), units.exact(whole))];
    Ok(vec![
        Figure::new(
            "The axle point comes up by",
            units.exact(rise),
            Sum::new("lowered × front half / whole", numbers(), "Lever arms."),
        ),
        Figure::new("The seat tilts by", InputValues::degrees(tilt), Sum::new("lowered / whole", numbers(), "Geometry."))
            .note("the pinion turns with it"),
    ])
}
