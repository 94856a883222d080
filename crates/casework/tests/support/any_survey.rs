//! Made-up surveys of every class, from every datum, read on both sides or one, with and without what is often left out.

use proptest::prelude::*;
use proptest::sample::select;
use wise_badger_casework::survey::{
    Ends, FurtherLoad, FurtherState, Gaps, LoadPut, LoadState, Manner, OverloadLeaves, RearWheels, Seen, States, Survey,
    VehicleClass, VehicleFacts,
};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{inches, pounds};

pub(crate) fn other(side: Side) -> Side {
    match side {
        Side::Left => Side::Right,
        Side::Right => Side::Left,
    }
}

/// How an axle was read: both sides, or one of them, or not at all.
fn corners(height: f64, lean: f64, read: (bool, bool)) -> AxleReadings {
    let reading = |read: bool, height: f64| if read { vec![inches(height)] } else { Vec::new() };
    AxleReadings { corners: Sides { left: reading(read.0, height - lean / 2.0), right: reading(read.1, height + lean / 2.0) } }
}

fn any_read() -> impl Strategy<Value = (bool, bool)> {
    prop_oneof![6 => Just((true, true)), 1 => Just((true, false)), 1 => Just((false, true))]
}

fn gaps(inch: Option<f64>) -> Gaps {
    inch.map(|inch| Gaps::at_the_rear(inches(inch))).unwrap_or_default()
}

/// What was put on and a weight more right over the axle, for the reading alone.
fn with_more(weight: f64, pressed: bool) -> FurtherState {
    let load = FurtherLoad::Over { state: LoadState::Loaded, more: Some((pounds(weight), inches(0.0))) };
    let name = if pressed { "more, pressed down" } else { "more" };
    FurtherState { key: 3, name: name.to_owned(), load, test_weight: true }
}

fn manner(rolled: bool) -> Manner {
    if rolled { Manner::Rolled } else { Manner::AsItStood }
}

/// A vehicle of any class; loaded it comes down by about what its class would.
pub(crate) fn any_survey() -> impl Strategy<Value = Survey> {
    let classes: Vec<_> = VehicleClass::WORDS.iter().map(|(class, _)| *class).collect();
    let vehicle = (select(classes), prop::bool::ANY, 90.0..220.0_f64, 2_500.0..6_000.0_f64, 3_000.0..9_000.0_f64);
    let datum = select(vec![Datum::GroundToArch, Datum::HubToArch, Datum::RimToArch, Datum::TyreTopToArch]);
    let read = (18.0..40.0_f64, -1.5..1.5_f64, any_read(), any_read());
    let load = (0.05..0.4_f64, 0.4..1.6_f64, -20.0..20.0_f64);
    let more = prop::option::of((0.1..0.5_f64, prop::bool::ANY));
    let bears = prop::bool::ANY;
    let rest = (prop::option::of(1.0..5.0_f64), prop::bool::ANY, more, bears);
    (vehicle, datum, read, load, rest).prop_map(|(vehicle, datum, read, load, (gap, rolled, more, bears))| {
        let (class, dual, wheelbase, front, rear) = vehicle;
        let wheels = if dual { RearWheels::Dual } else { RearWheels::Single };
        let ratings = Ends { front: pounds(front), rear: pounds(rear) };
        let vehicle = VehicleFacts::new(class, wheels, inches(wheelbase), ratings);
        let (height, lean, front_read, rear_read) = read;
        let (share, softer, behind) = load;
        let weight = rear * share;
        let down = pounds(weight).value / vehicle.assumptions().rear_rate.value / inches(1.0).value * softer;
        let heights = |rear: f64| HeightReadings {
            front: corners(height - 1.0, lean / 2.0, front_read),
            rear: corners(rear, lean, rear_read),
        };
        Survey {
            vehicle,
            datum,
            heights: States {
                further: more.map(|(more, _)| (3, heights(height - down * (1.0 + more)))).into_iter().collect(),
                ..States::of(heights(height), heights(height - down))
            },
            load: Some(LoadPut::Placed { weight: pounds(weight), behind_rear_axle: inches(behind) }),
            stop_gap: States::of(gaps(gap.map(|gap| gap + down)), gaps(gap)),
            manner: States {
                further: more
                    .map(|(_, pressed)| (3, if pressed { Manner::PressedDown } else { manner(rolled) }))
                    .into_iter()
                    .collect(),
                ..States::of(manner(rolled), manner(rolled))
            },
            further: more.map(|(more, pressed)| with_more(weight * more, pressed)).into_iter().collect(),
            overload_leaves: OverloadLeaves { bears: States::of(None, bears.then_some(true)), ..OverloadLeaves::default() },
            test_weight: false,
            seen: Seen::default(),
        }
    })
}

/// The same vehicle seen in a mirror.
pub(crate) fn mirrored(survey: &Survey) -> Survey {
    let axle = |axle: &AxleReadings| AxleReadings { corners: Sides::from_fn(|side| axle.corners.get(other(side)).clone()) };
    let both = |read: &HeightReadings| HeightReadings { front: axle(&read.front), rear: axle(&read.rear) };
    let further = survey.heights.further.iter().map(|(key, read)| (*key, both(read))).collect();
    let heights = States { further, ..States::of(both(&survey.heights.empty), both(&survey.heights.loaded)) };
    Survey { heights, ..survey.clone() }
}

/// The same with the empty vehicle read alone.
pub(crate) fn without_loaded(survey: Survey) -> Survey {
    let heights = States::of(survey.heights.empty, HeightReadings::default());
    let stop_gap = States::of(survey.stop_gap.empty, Gaps::default());
    Survey { heights, stop_gap, load: None, further: Vec::new(), ..survey }
}
