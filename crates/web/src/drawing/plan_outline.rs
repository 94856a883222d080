//! The vehicle from above, nose up, between the fields of the walk round it.

use wise_badger_casework::survey::{RearWheels, VehicleFacts};
use wise_badger_mechanics::units::InShopUnits;

use super::outline::outline;
use super::svg::{Anchor, Canvas, Drawing};

/// Room for the picture.
const WIDTH: f64 = 120.0;
const LENGTH: f64 = 220.0;
/// Width of a body and of a wheel, and a wheel's length, inches.
const BODY: f64 = 74.0;
const WHEEL: f64 = 9.0;
const WHEEL_LENGTH: f64 = 28.0;

/// The vehicle from above, to scale.
pub(crate) fn plan_outline(vehicle: &VehicleFacts) -> Drawing {
    let side = outline(vehicle);
    let scale = (LENGTH / (side.tail - side.nose)).min((WIDTH - 12.0) / (BODY + 2.0 * WHEEL));
    let middle = WIDTH / 2.0;
    let y = |along: f64| (along - side.nose) * scale;
    let mut canvas = Canvas::new();
    let half = BODY / 2.0 * scale;
    let trailer = vehicle.class.is_trailer();
    let dual = vehicle.rear_wheels == RearWheels::Dual;
    let front = side.front_wheel.map(|along| (along, false));
    for (along, dual) in front.into_iter().chain(side.rear_wheels.iter().map(|along| (*along, dual))) {
        let wide = if dual { 2.0 * WHEEL } else { WHEEL } * scale;
        let (long, top) = (WHEEL_LENGTH * scale, y(along - WHEEL_LENGTH / 2.0));
        canvas.rect("tyre", (middle - half - wide * 0.55, top), (wide, long));
        canvas.rect("tyre", (middle + half - wide * 0.45, top), (wide, long));
    }
    // The tongue of a trailer, the bonnet of everything else, and behind them the body.
    let length = vehicle.wheelbase.customary();
    let (tongue, shoulder) = if trailer { (2.0, 0.26 * length) } else { (0.82 * half, 12.0) };
    let body = [
        (middle - tongue, y(side.nose)),
        (middle + tongue, y(side.nose)),
        (middle + half, y(side.nose + shoulder.max(10.0))),
        (middle + half, y(side.tail)),
        (middle - half, y(side.tail)),
        (middle - half, y(side.nose + shoulder.max(10.0))),
    ];
    canvas.polygon("body-solid", &body);
    // Glass ahead of the driver says which way it looks.
    if !trailer {
        let glass = [(0.86, 16.0), (0.8, 34.0)].map(|(share, along)| (half * share, y(along)));
        let [(wide, fore), (narrow, aft)] = glass;
        canvas.polygon("window", &[(middle - wide, fore), (middle + wide, fore), (middle + narrow, aft), (middle - narrow, aft)]);
    }
    canvas.text("mark-name", (middle, y(side.nose) - 4.0), Anchor::Middle, "front");
    canvas.finish("plan-outline", "plan-outline", WIDTH, "The vehicle from above", "Front up")
}
