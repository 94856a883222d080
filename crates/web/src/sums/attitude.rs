//! What the frame and the axles do when the rear moves or a weight hangs behind.

use wise_badger_mechanics::side_effect::attitude::{
    beam_drop, front_lightening, pitch_change, point_rise, spot_drop, track_bar_shift,
};
use wise_badger_mechanics::units::Length;

use super::{Input, InputKind, InputValues, ShopSum, SumError};
use crate::view::{Figure, Sum};

pub(super) const SUMS: [ShopSum; 3] = [
    ShopSum {
        word: "pitch",
        name: "Frame pitch and headlights",
        about: "How the frame tilts when an end comes up, how far the spots of the headlights move on a screen, and a step or hitch behind.",
        inputs: &[
            Input::new("front", "Front comes up by", InputKind::SignedLength).usual("0"),
            Input::new("rear", "Rear comes up by", InputKind::SignedLength),
            Input::new("wheelbase", "Wheelbase", InputKind::Length),
            Input::new("screen", "Distance of the screen", InputKind::Length).usual("25'"),
            Input::new("lamps", "Lamps ahead of front axle", InputKind::SignedLength).usual("24\""),
            Input::new("behind", "Point behind rear axle", InputKind::SignedLength).usual("0"),
        ],
        work: pitch,
    },
    ShopSum {
        word: "tongue",
        name: "Weight behind the axle",
        about: "What a tongue or an overhanging load takes off the front axle and puts on the rear.",
        inputs: &[
            Input::new("weight", "Weight", InputKind::Weight),
            Input::new("behind", "So far behind the rear axle", InputKind::Length),
            Input::new("wheelbase", "Wheelbase", InputKind::Length),
        ],
        work: tongue,
    },
    ShopSum {
        word: "track-bar",
        name: "Track bar",
        about: "How far a track bar carries its axle sideways when the height changes.",
        inputs: &[
            Input::new("length", "Length of the bar", InputKind::Length),
            Input::new("drop", "It falls from frame to axle by", InputKind::SignedLength),
            Input::new("rise", "The frame comes up by", InputKind::SignedLength),
        ],
        work: track_bar,
    },
];

fn pitch(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (front, rear, wheelbase) = (given.length("front")?, given.length("rear")?, given.length("wheelbase")?);
    let (screen, behind, units) = (given.length("screen")?, given.length("behind")?, given.units);
    let angle = pitch_change(front, rear, wheelbase)?;
    let lamps = given.length("lamps")?;
    let (drop, spot) = (beam_drop(angle, screen)?, spot_drop(front, rear, wheelbase, lamps, screen)?);
    let lamp = drop - spot;
    let point = point_rise(front, rear, behind, wheelbase)?;
    let numbers = vec![format!("({} − {}) / {}", units.exact(rear), units.exact(front), units.exact(wheelbase))];
    let tilt = Sum::new("tan(pitch) = (rear rise − front rise) / wheelbase", numbers, "Geometry.");
    let (way, own) = (|drop: Length| if drop.value > 0.0 { "down" } else { "up" }, -lamp);
    let numbers = vec![
        format!(
            "tilt: {} × ({} − {}) / {} = {} {}",
            units.exact(screen),
            units.exact(rear),
            units.exact(front),
            units.exact(wheelbase),
            units.exact(drop.abs()),
            way(drop)
        ),
        format!("the lamp itself, {} ahead of the front axle: {} {}", units.exact(lamps), units.exact(own.abs()), way(own)),
        format!("both: {} {}", units.exact(spot.abs()), way(spot)),
    ];
    let beam = Sum::new(
        "spot moves = distance × tan(pitch), and with the lamp's own rise",
        numbers,
        "Geometry; 25 ft aiming screen, SAE J599.",
    );
    let numbers = vec![format!("{} behind: {}", units.exact(behind), units.exact(point))];
    let far = Sum::new("rise = rear rise + (rear rise − front rise) × distance / wheelbase", numbers, "Geometry.");
    Ok(vec![
        Figure::new("Frame tilts, rear up", InputValues::degrees(angle), tilt),
        Figure::new("Spots move on the screen", format!("{} {}", units.height(spot.abs()), way(spot)), beam).note(format!(
            "{} {} by the tilt, {} {} by the lamp's own rise; aim the headlights afterward",
            units.height(drop.abs()),
            way(drop),
            units.height(own.abs()),
            way(own)
        )),
        Figure::new("The point comes up by", units.change(point), far),
    ])
}

fn tongue(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (weight, behind, wheelbase) = (given.weight("weight")?, given.length("behind")?, given.length("wheelbase")?);
    let units = given.units;
    let off = front_lightening(weight, behind, wheelbase)?;
    let numbers = || {
        vec![format!("{} × {} / {} = {}", units.weight(weight), units.exact(behind), units.exact(wheelbase), units.weight(off))]
    };
    let front = Sum::new("off the front = weight × distance behind / wheelbase", numbers(), "Lever arms.");
    let rear = Sum::new("on the rear = weight + what comes off the front", numbers(), "Lever arms.");
    Ok(vec![
        Figure::new("Comes off the front axle", units.weight(off), front),
        Figure::new("Goes on the rear axle", units.weight(weight + off), rear).note("hold it against the axle's rating"),
    ])
}

fn track_bar(given: &InputValues) -> Result<Vec<Figure>, SumError> {
    let (length, drop, rise) = (given.length("length")?, given.length("drop")?, given.length("rise")?);
    let units = given.units;
    let shift = track_bar_shift(length, drop, rise)?;
    let numbers = vec![format!("bar {}, drop {} and then {}", units.exact(length), units.exact(drop), units.exact(drop + rise))];
    let sum = Sum::new("span = √(length² − drop²), before and after", numbers, "Pythagoras.");
    let way = if shift.value < 0.0 { "towards" } else { "away from" };
    let figure = Figure::new("The axle goes sideways by", units.exact(shift.abs()), sum);
    Ok(vec![figure.note(format!("{way} the end that is on the frame"))])
}
