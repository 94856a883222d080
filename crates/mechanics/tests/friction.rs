//! Leaf friction as an error of every state: what it does to bands, and how two readings measure it. The truth is one axle in closed form.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/errors.rs"]
mod errors;
#[path = "support/plain_axle.rs"]
mod plain_axle;

use errors::Errors;
use plain_axle::axle;
use wise_badger_mechanics::identification::{
    Doubt, Doubtful, Experiment, IdentificationError, Identified, LeafFriction, LoadDoubt, MeasuredState, Measurement, Rest,
    TapeMark,
};
use wise_badger_mechanics::stance::{Load, State, Vehicle};
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

const TAPE_IN: f64 = 0.05;
/// What the springs of the axle carry at kerb: 2,400 lb less 450 of wheels and beam.
const SPRUNG_LB: f64 = 1_950.0;
const WHEELBASE_IN: f64 = 145.0;

fn truck() -> Vehicle {
    let axles = vec![axle("front", 0.0, 370.0), axle("rear", WHEELBASE_IN, 370.0)];
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
}

/// The axle of a rate, held by a share of what it carries.
struct Truth {
    rate: f64,
}

impl Truth {
    fn at_rest(&self, load: f64) -> f64 {
        21.5 - load / self.rate
    }

    fn read(&self, load: f64, held: f64, rest: Rest, errors: &mut Errors) -> MeasuredState {
        let height = self.at_rest(load) + held * (SPRUNG_LB + load) / self.rate + TAPE_IN * errors.normal();
        let height = Uncertain::new(inches(height), inches(TAPE_IN));
        MeasuredState {
            state: State::with_loads(format!("{load} lb"), vec![Load::at(pounds(load), inches(WHEELBASE_IN))]),
            load_doubts: vec![LoadDoubt::default()],
            settling: inches(0.0),
            rest,
            readings: vec![Measurement::Height { mark: TapeMark::axle("rear", Datum::HubToArch), height }],
        }
    }
}

fn identify(share: f64, states: Vec<MeasuredState>) -> Result<Identified, IdentificationError> {
    let friction = vec![LeafFriction { axle: "rear".into(), share, relative_sd: 0.5 }];
    let doubts = vec![Doubt { what: Doubtful::SpringRate, axles: vec!["rear".into()], relative_sd: 0.35 }];
    Experiment { vehicle: truck(), doubts, friction, states }.identify()
}

#[test]
fn the_band_holds_a_rate_and_a_height_read_with_friction() {
    let (mut errors, cases) = (Errors::new(5), 400);
    let (mut rates, mut heights) = (0, 0);
    for _ in 0..cases {
        let truth = Truth { rate: 370.0 * (0.35 * errors.normal()).exp() };
        let share = 0.025 * (1.0 + 0.5 * errors.normal()).abs();
        let mut read = |load| {
            let held = share * errors.normal();
            truth.read(load, held, Rest::AsItStood, &mut errors)
        };
        let found = identify(0.05, vec![read(0.0), read(600.0), read(1_200.0)]).unwrap();
        let rate = found.shares()[0];
        rates += u32::from((rate.log_factor - (truth.rate / 370.0).ln()).abs() <= 2.0 * rate.relative_sd);
        let mark = TapeMark::axle("rear", Datum::HubToArch);
        let height = found.height(&found.forecast(2, |_| vec![]).unwrap(), &mark).unwrap();
        heights += u32::from((height.value.customary() - truth.at_rest(1_200.0)).abs() <= height.band().customary());
    }
    assert!(rates * 100 >= 92 * cases && heights * 100 >= 92 * cases, "{rates} rates, {heights} heights of {cases}");
}

#[test]
fn pressing_down_and_lifting_measures_the_friction_and_finds_the_height_at_rest() {
    let (truth, mut errors) = (Truth { rate: 370.0 }, Errors::new(3));
    let mut read = |load, held, rest| truth.read(load, held, rest, &mut errors);
    // Dry leaves hold 12 % where 5 % are believed; empty it stands as it happens to, 5 % high.
    let plain = vec![read(0.0, 0.05, Rest::AsItStood), read(1_000.0, 0.12, Rest::Lifted)];
    let measured = [plain.clone(), vec![read(1_000.0, -0.12, Rest::PressedDown)]].concat();
    let mark = TapeMark::axle("rear", Datum::HubToArch);
    let loaded = |found: &Identified| found.height(&found.forecast(1, |_| vec![]).unwrap(), &mark).unwrap();
    let (before, after) = (identify(0.05, plain).unwrap(), identify(0.05, measured).unwrap());
    let friction = after.friction("rear").unwrap();
    // What two readings measure is F/k: as sure as the rate is.
    let off = (friction.share / 0.12).ln().abs();
    assert!(friction.share > 0.08 && off < 2.0 * friction.relative_sd && friction.relative_sd < 0.2, "{friction:?}");
    assert!((loaded(&after).value.customary() - truth.at_rest(1_000.0)).abs() < 0.15);
    assert!(loaded(&after).sd < 0.6 * loaded(&before).sd, "{:?} {:?}", loaded(&before), loaded(&after));
    assert!(after.friction("front").is_none() && after.friction_measured().count() == 1);
}

#[test]
fn rolled_and_bounced_leaves_less_in_doubt_than_as_it_stood() {
    let found = |rest| {
        let truth = Truth { rate: 370.0 };
        let found = identify(
            0.05,
            vec![truth.read(0.0, 0.0, rest, &mut Errors::new(1)), truth.read(1_000.0, 0.0, rest, &mut Errors::new(2))],
        );
        found.unwrap().shares()[0].relative_sd
    };
    let (stood, rolled) = (found(Rest::AsItStood), found(Rest::RolledAndBounced));
    assert!(rolled < 0.7 * stood, "{rolled} {stood}");
}

#[test]
fn friction_past_what_leaves_have_is_refused() {
    for share in [0.0, -0.1, 1.5, f64::NAN] {
        let refused = identify(share, vec![]).unwrap_err();
        assert_eq!(
            refused.to_string(),
            "the leaf friction of axle “rear” and its doubt must be shares above 0, at most 1, and given once"
        );
    }
}
