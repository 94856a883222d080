//! Everything that a job knows, together, and what follows from it: the vehicle, what was put on, what was measured.

use std::sync::OnceLock;

use wise_badger_mechanics::pack::PackCurve;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings, Repeats, TyreSize, WheelGeometry};
use wise_badger_mechanics::units::{Force, Length, metres};

use crate::aim::Aim;
use crate::entry::{
    AimSheet, BenchEntry, CaseEntry, DriveEntry, GoalEntry, IntakeSheetEntry, KeptSumsEntry, LoadEntry, LoadPlanEntry,
    LookOverEntry, OptionEntry, OtherwiseWord, ProofSheetEntry, ShareOf, StateEntry, TapeSheetEntry, Typed, WhenEntry,
    WorkPlanEntry,
};
use crate::intake::{Intake, Measured};
use crate::look_over::{Defect, LookOver};
use crate::reading::{Phase, Place, Reading, Spot};
use crate::survey::{
    Complaint, End, Ends, Gaps, LoadPut, LoadState, Modification, OverloadLeaves, Seen, States, Survey, VehicleFacts,
};
use crate::verdict::rear_set;

/// What stands on a job, as typed.
#[derive(Debug, Clone)]
pub struct Case {
    /// What intake wrote down of the vehicle.
    pub intake: Intake,
    /// How its heights were read.
    pub measured: Measured,
    /// Its readings, in the order put down.
    pub readings: Vec<Reading>,
    /// What intake wrote down beside the vehicle itself.
    pub sheet: IntakeSheetEntry,
    /// Its load plan.
    pub plan: Option<LoadPlanEntry>,
    /// Its look-over.
    pub look_over: Option<LookOverEntry>,
    /// The pack on its bench.
    pub bench: Option<BenchEntry>,
    /// Its control drives.
    pub drive: DriveEntry,
    /// The plan of its work.
    pub work_plan: WorkPlanEntry,
    /// What its proof says beside the heights.
    pub proof: ProofSheetEntry,
    /// Sums that were kept with it.
    pub sums: KeptSumsEntry,
    /// The states it was read in, with what was put on in each.
    pub tape: TapeSheetEntry,
    /// Its aim.
    pub aim: Option<AimSheet>,
    /// The options considered, in the order put down.
    pub options: Vec<OptionEntry>,
    /// The one chosen, by its place among them.
    pub chosen: Option<usize>,
    /// The packs found on its bench as springs: worked out once, when they are first asked for.
    rear_pack: OnceLock<Option<Sides<PackCurve>>>,
}

impl Case {
    /// A case of which nothing but its vehicle is known yet.
    pub fn opened(intake: Intake) -> Self {
        Case {
            intake,
            measured: Measured::default(),
            readings: Vec::new(),
            sheet: IntakeSheetEntry::default(),
            plan: None,
            look_over: None,
            bench: None,
            drive: DriveEntry::default(),
            work_plan: WorkPlanEntry::default(),
            proof: ProofSheetEntry::default(),
            sums: KeptSumsEntry::default(),
            tape: TapeSheetEntry::default(),
            aim: None,
            options: Vec::new(),
            chosen: None,
            rear_pack: OnceLock::new(),
        }
    }

    /// The same vehicle with nothing on its list but one option, and with another load plan.
    #[must_use]
    pub(crate) fn trying(&self, option: OptionEntry, plan: Option<LoadPlanEntry>) -> Self {
        Case { options: vec![option], chosen: None, plan, ..self.clone() }
    }

    /// Whether another case says the same: then the same follows from both.
    #[must_use]
    pub fn says_the_same(&self, other: &Case) -> bool {
        // Taken apart, so that a field to come cannot be left out unnoticed; what was worked out follows from the rest.
        let Case {
            intake,
            measured,
            readings,
            sheet,
            plan,
            look_over,
            bench,
            drive,
            work_plan,
            proof,
            sums,
            tape,
            aim,
            options,
            chosen,
            rear_pack: _,
        } = self;
        *intake == other.intake
            && *measured == other.measured
            && *readings == other.readings
            && *sheet == other.sheet
            && *plan == other.plan
            && *look_over == other.look_over
            && *bench == other.bench
            && *drive == other.drive
            && *work_plan == other.work_plan
            && *proof == other.proof
            && *sums == other.sums
            && *tape == other.tape
            && *aim == other.aim
            && *options == other.options
            && *chosen == other.chosen
    }

    /// The same job standing on the springs of its class, not on the pack of its bench: enough to say how far it has come, and no
    /// pack is worked out for that.
    #[must_use]
    pub fn on_usual_springs(self) -> Self {
        Case { rear_pack: OnceLock::from(None), ..self }
    }

    /// The readings of one spot, in the order put down.
    pub fn at(&self, spot: Spot) -> impl Iterator<Item = &Reading> {
        self.readings.iter().filter(move |reading| reading.spot == spot)
    }

    /// What was found on the vehicle; nothing while nobody looked.
    pub fn looked_over(&self) -> LookOver {
        self.look_over.as_ref().map(LookOverEntry::look_over).unwrap_or_default()
    }

    /// The vehicle, with what it always carries.
    pub fn vehicle(&self) -> VehicleFacts {
        let always = self.plan.as_ref().map(LoadPlanEntry::always).unwrap_or_default();
        let vehicle = self.sheet.complete(self.intake.vehicle());
        // What stood on a scale, empty, counts where intake states no empty weight.
        let weighed = self.weighed(LoadState::Empty);
        let kerb = Ends::from_fn(|end| (*vehicle.kerb.get(end)).or(*weighed.get(end)));
        let worked_out = || {
            let bench = self.bench.as_ref()?;
            let curve =
                |side| bench.of_side(side).found.pack().and_then(|read| read.pack.curve_to(vehicle.most_spring_load())).ok();
            match bench.sides() {
                [None] => curve(None).map(Sides::both),
                _ => Some(Sides { left: curve(Some(Side::Left))?, right: curve(Some(Side::Right))? }),
            }
        };
        let rear_pack = self.rear_pack.get_or_init(worked_out).clone();
        VehicleFacts { always, kerb, rear_pack, ..vehicle }
    }

    /// The same job with another pack on its bench, or with none.
    #[must_use]
    pub fn with_bench(self, bench: Option<BenchEntry>) -> Self {
        Case { bench, rear_pack: OnceLock::new(), ..self }
    }

    /// The same job with another load plan.
    #[must_use]
    pub fn with_plan(self, plan: LoadPlanEntry) -> Self {
        Case { plan: Some(plan), ..self }
    }

    /// What a scale said of the axles in a state, whole or corner by corner, as read on Tape.
    pub fn weighed(&self, state: LoadState) -> Ends<Option<Force>> {
        let read = |place| self.at(Spot { phase: Phase::Found, state, place }).last().map(|reading| reading.value.force());
        let whole = |axle, left, right| read(axle).or_else(|| Some(read(left)? + read(right)?));
        Ends {
            front: whole(Place::WeightFront, Place::WeightFrontLeft, Place::WeightFrontRight),
            rear: whole(Place::WeightRear, Place::WeightRearLeft, Place::WeightRearRight),
        }
    }

    /// What else on the job speaks of a case of the load plan: it must not be taken off under that.
    pub fn speaks_of(&self, case: u8) -> Option<SpeaksOf> {
        let goal = |goal: &GoalEntry| matches!(goal, GoalEntry::Mark { when: WhenEntry::Case(key), .. } if *key == case);
        let state = |entry: &StateEntry| matches!(&entry.load, Some(LoadEntry::Planned { case: key }) if *key == case);
        let set = |option: &OptionEntry| {
            option.parts.iter().flat_map(|part| &part.settings).any(|setting| setting.when == WhenEntry::Case(case))
        };
        let share = self.sheet.shares.iter().any(|share| share.of == ShareOf::Case(case));
        let all = [
            (self.aim.iter().flat_map(|aim| &aim.goals).any(goal), SpeaksOf::Aim),
            (self.tape.states.iter().any(state), SpeaksOf::Tape),
            (self.options.iter().any(set), SpeaksOf::Options),
            (share, SpeaksOf::Intake),
        ];
        all.into_iter().find(|(speaks, _)| *speaks).map(|(_, what)| what)
    }

    /// A goal as it is judged; `None` where what it is about is not on Tape any more.
    pub fn goal(&self, entry: &GoalEntry) -> Option<Aim> {
        entry.aim(&self.tape, self.sheet.rear_overhang.as_ref().map(Typed::length))
    }

    /// What a point of the body read in a state, by its place among the job's; `None` is the hitch.
    pub fn point_height(&self, place: Option<usize>, state: LoadState) -> Option<Length> {
        match place {
            Some(place) => self.tape.points.get(place)?.height(state).map(Typed::length),
            None => self.at(Spot { phase: Phase::Found, state, place: Place::Hitch }).last().map(|read| read.value.length()),
        }
    }

    /// What was put on, as the mechanics take it: axles weighed on Tape with a case of the plan aboard count as its scale.
    pub fn load_put(&self) -> Option<LoadPut> {
        let put = self.tape.load()?.load_put(self.plan.as_ref())?;
        let weighed = self.weighed(LoadState::Loaded);
        Some(match put {
            LoadPut::Planned { items, scale } => {
                let scale = Ends::from_fn(|end| (*scale.get(end)).or(*weighed.get(end)));
                LoadPut::Planned { items, scale }
            }
            other => other,
        })
    }

    /// The case of the plan that was aboard when the loaded heights were read, where it was one.
    pub fn measured_case(&self) -> Option<&CaseEntry> {
        match self.tape.load() {
            Some(LoadEntry::Planned { case }) => self.plan.as_ref()?.case(*case),
            _ => None,
        }
    }

    /// Names of the things that came aboard, where the load is a case of the plan.
    pub fn names_aboard(&self) -> Vec<String> {
        let aboard = self.measured_case().zip(self.plan.as_ref());
        aboard.map(|(case, plan)| plan.put_for(case.key).map(|item| item.name.clone()).collect()).unwrap_or_default()
    }

    /// A height as one from the job's datum; `None` where what turns the one into the other was not read.
    fn in_job_datum(&self, reading: &Reading, end: End) -> Option<Length> {
        let (height, to) = (metres(reading.value.si), self.measured.datum.unwrap_or(reading.datum));
        if reading.datum == to {
            return Some(height);
        }
        let (hub, tyre) = match end {
            End::Front => (Place::HubFront, &self.sheet.front_tyre),
            End::Rear => (Place::HubRear, &self.sheet.rear_tyre),
        };
        let hub = self.at(Spot { place: hub, ..reading.spot }).last().map(|reading| metres(reading.value.si));
        let tyre = tyre.parse::<TyreSize>().ok();
        let asks = |datum: Datum| match datum {
            Datum::GroundToArch => hub.is_some(),
            Datum::RimToArch | Datum::TyreTopToArch => tyre.is_some(),
            Datum::HubToArch => true,
            Datum::StopGap => false,
        };
        let nothing = metres(0.0);
        let wheel = WheelGeometry {
            hub_height: hub.unwrap_or(nothing),
            rim_lip_radius: tyre.map_or(nothing, |tyre| tyre.rim_lip_radius()),
            free_radius: tyre.map_or(nothing, |tyre| tyre.free_radius()),
            arch_at_stop: nothing,
        };
        (asks(reading.datum) && asks(to)).then(|| wheel.convert(height, reading.datum, to))
    }

    /// The heights of a phase that cannot be turned into the job's datum yet, each with what it was read from.
    pub fn not_converted(&self, phase: Phase) -> Vec<&Reading> {
        let ends = |reading: &&Reading| match reading.spot.place {
            Place::FrontLeft | Place::FrontRight => self.in_job_datum(reading, End::Front).is_none(),
            Place::RearLeft | Place::RearRight => self.in_job_datum(reading, End::Rear).is_none(),
            _ => false,
        };
        self.readings.iter().filter(|reading| reading.spot.phase == phase).filter(ends).collect()
    }

    /// How much higher an end reads from the job's datum for the tyres that were changed with the job: they are no part of what was
    /// promised. Nothing where either size is not known.
    pub fn by_new_tyres(&self, end: End) -> Length {
        let (before, now) = match end {
            End::Front => (&self.sheet.front_tyre, &self.proof.front_tyre),
            End::Rear => (&self.sheet.rear_tyre, &self.proof.rear_tyre),
        };
        let (Ok(before), Ok(now)) = (before.parse::<TyreSize>(), now.parse::<TyreSize>()) else { return metres(0.0) };
        match self.measured.datum.unwrap_or(Datum::GroundToArch) {
            Datum::GroundToArch => now.free_radius() - before.free_radius(),
            Datum::TyreTopToArch => before.free_radius() - now.free_radius(),
            Datum::RimToArch => now.rim_lip_radius() - before.rim_lip_radius(),
            Datum::HubToArch | Datum::StopGap => metres(0.0),
        }
    }

    /// Gap of the overload leaves to their pads, empty: the mean of those read.
    fn pad_gap(&self, phase: Phase) -> Option<Length> {
        let places = [Place::PadFrontLeft, Place::PadRearLeft, Place::PadFrontRight, Place::PadRearRight];
        let read = |place| self.at(Spot { phase, state: LoadState::Empty, place }).last().map(|reading| reading.value.length());
        let read: Vec<Length> = places.into_iter().filter_map(read).collect();
        Repeats::of(&read).map(|repeats| repeats.mean)
    }

    /// What the look-over and the customer say of leaves and stops.
    fn seen(&self) -> Seen {
        let look_over = self.looked_over();
        Seen {
            dry_leaves: [Defect::LeavesDry, Defect::LeafPitted].into_iter().any(|defect| look_over.found(defect)),
            stops_hit: look_over.found(Defect::StopHasBeenHitting) || self.sheet.complaints.contains(&Complaint::Bottoms),
        }
    }

    /// The survey that the readings of a phase make. Loads are those put on before; a job with no datum yet reads from the ground.
    pub fn survey(&self, phase: Phase) -> Survey {
        let survey = self.survey_of(|_, _| phase);
        // What was done to the rear since, lifts it or lets it down beside what its springs have set.
        let untouched = self.sheet.modifications.iter().all(|done| done.what == Modification::FrontSpacer);
        let sound = self.sheet.sound_height().filter(|_| untouched && phase == Phase::Found);
        let rear_set = sound.and_then(|sound| rear_set(&survey, sound));
        Survey { vehicle: VehicleFacts { rear_set, ..survey.vehicle }, ..survey }
    }

    /// The survey that the last readings after fitting make: of each end in each state those of the last time that it was read.
    pub fn survey_after(&self) -> Survey {
        self.survey_of(|state, end| self.last_after(state, end).unwrap_or(Phase::Fitted))
    }

    /// When an end was read last in a state after fitting; `None` while it was not.
    pub fn last_after(&self, state: LoadState, end: End) -> Option<Phase> {
        let corners = if end == End::Front { [Place::FrontLeft, Place::FrontRight] } else { [Place::RearLeft, Place::RearRight] };
        let read =
            |phase: &Phase| corners.into_iter().any(|place| self.at(Spot { phase: *phase, state, place }).next().is_some());
        Phase::AFTER.into_iter().rev().find(read)
    }

    /// What was not as before when an end was read last in a state, of what bears on that height.
    pub fn otherwise_at(&self, state: LoadState, end: End) -> Vec<OtherwiseWord> {
        self.last_after(state, end).map(|phase| self.otherwise_in(phase, state)).unwrap_or_default()
    }

    /// What was not as before at one time, of what bears on a height in a state: floor and tires where heights are taken from the ground, what
    /// is aboard where there is something aboard.
    pub fn otherwise_in(&self, phase: Phase, state: LoadState) -> Vec<OtherwiseWord> {
        let from_the_ground = self.measured.datum.unwrap_or(Datum::GroundToArch).includes_tyre();
        let bears = |word: &OtherwiseWord| match word {
            OtherwiseWord::Floor | OtherwiseWord::Tires => from_the_ground,
            OtherwiseWord::Load => state != LoadState::Empty,
            OtherwiseWord::NotRolled | OtherwiseWord::LeftOff => true,
        };
        phase.otherwise(&self.proof.otherwise).iter().copied().filter(bears).collect()
    }

    fn survey_of(&self, phase_of: impl Fn(LoadState, End) -> Phase) -> Survey {
        let corner = |state, place, end| {
            let phase = phase_of(state, end);
            let readings = self.at(Spot { phase, state, place });
            let on_old_tyres = |height| if phase.is_after() { height - self.by_new_tyres(end) } else { height };
            readings.filter_map(|reading| self.in_job_datum(reading, end)).map(on_old_tyres).collect()
        };
        let axle = |state, end, left, right| {
            let mut readings = AxleReadings::default();
            *readings.corners.get_mut(Side::Left) = corner(state, left, end);
            *readings.corners.get_mut(Side::Right) = corner(state, right, end);
            readings
        };
        let heights = |state: LoadState| HeightReadings {
            front: axle(state, End::Front, Place::FrontLeft, Place::FrontRight),
            rear: axle(state, End::Rear, Place::RearLeft, Place::RearRight),
        };
        let gap = |state, end, place| {
            let phase = phase_of(state, end);
            let gaps = self.at(Spot { phase, state, place }).map(|reading| reading.value.length());
            Repeats::of(&gaps.collect::<Vec<_>>()).map(|repeats| repeats.mean)
        };
        // One at the rear counts for both, unless a corner has its own.
        let gaps = |state: LoadState| Gaps {
            front: Sides {
                left: gap(state, End::Front, Place::GapFrontLeft),
                right: gap(state, End::Front, Place::GapFrontRight),
            },
            rear: Sides {
                left: gap(state, End::Rear, Place::GapRearLeft).or_else(|| gap(state, End::Rear, Place::StopGap)),
                right: gap(state, End::Rear, Place::GapRearRight).or_else(|| gap(state, End::Rear, Place::StopGap)),
            },
        };
        Survey {
            vehicle: self.vehicle(),
            datum: self.measured.datum.unwrap_or(Datum::GroundToArch),
            heights: States::from_fn(self.tape.further_keys(), heights),
            load: self.load_put(),
            stop_gap: States::from_fn(self.tape.further_keys(), gaps),
            manner: States::from_fn(self.tape.further_keys(), |state| {
                self.tape.state(state).map(|of| of.manner).unwrap_or_default()
            }),
            further: self.tape.further(self.plan.as_ref()),
            overload_leaves: OverloadLeaves {
                bears: States::from_fn(self.tape.further_keys(), |state| self.tape.state(state)?.contact.bears()),
                pad_gap: self.pad_gap(phase_of(LoadState::Empty, End::Rear)),
            },
            test_weight: self.tape.state(LoadState::Loaded).is_some_and(|state| state.test_weight),
            seen: self.seen(),
        }
    }
}

/// What on a job speaks of a case of its load plan.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SpeaksOf {
    /// A goal of the aim.
    Aim,
    /// A state that is read.
    Tape,
    /// A part of an option, set for it.
    Options,
    /// A share of the time.
    Intake,
}

/// A case of the load plan that was not the measured one, with what is aboard in it.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedCase {
    /// Its key in the plan.
    pub key: u8,
    /// What it is called.
    pub name: String,
    /// The vehicle with that aboard.
    pub survey: Survey,
    /// Whether it comes later.
    pub later: bool,
}
