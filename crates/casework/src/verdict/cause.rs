//! Why it sags: what speaks for each cause and against it, and the order that follows.

use super::breakdown::{Breakdown, PartKind};
use super::contact::{contact_suspicion, gap_left, is_clear_of_the_stop};
use super::judged::{Cause, Evidence, Judged, Settling};
use super::rate::RateVerdict;
use super::ratings::Overload;
use crate::look_over::{Defect, Gate, LookOver};
use crate::survey::{Centre, Complaint, End, Item, LoadPut, LoadState, Modification, SpringKind, Survey, is_a_lean};
use wise_badger_mechanics::axle_rate::ContactSuspicion;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches, pounds};

/// A part of the way smaller than this is seldom worth a correction of its own (common practice).
const WORTH_CURING_IN: f64 = 0.25;

/// Less than this on an axle is nothing to speak of.
const WORTH_A_WORD_LB: f64 = 50.0;

/// Everything the ranking looks at.
#[derive(Debug, Clone, Copy)]
pub struct Grounds<'a> {
    /// What was measured and stated.
    pub survey: &'a Survey,
    /// The rear rate.
    pub rate: &'a RateVerdict,
    /// Which rating is passed, if any.
    pub overload: Option<&'a Overload>,
    /// What was found.
    pub look_over: &'a LookOver,
    /// What the customer complains of.
    pub complaints: &'a [Complaint],
    /// What was done to it before.
    pub modifications: &'a [Modification],
    /// Where the inches went, where that can be said.
    pub breakdown: Option<&'a Breakdown>,
}

/// Ranks the causes, the likeliest first. A cause about which nothing is known either way is left out: it is not guessed at.
///
/// Each piece of evidence counts one to five, by how much it tells: a passed rating or a failed part five, a measured part
/// of the way down past its band three, a witness mark two, a complaint one. Common practice, no probabilities.
pub fn rank_causes(grounds: &Grounds<'_>) -> Vec<Judged> {
    let mut causes: Vec<Judged> = [
        overload(grounds),
        failed_part(grounds),
        // What is always aboard is named before what is left over for set.
        permanent_load(grounds),
        spring_set(grounds),
        weak_springs(grounds),
        on_the_overload_leaf(grounds),
        air_springs(grounds),
        carried_load(grounds),
        on_the_stops(grounds),
        weight_behind(grounds),
        weight_ahead(grounds),
        shocks_and_bars(grounds),
        lean_by_spring(grounds),
        lean_by_load(grounds),
        tyres(grounds),
        earlier_work(grounds),
    ]
    .into_iter()
    .filter(|judged| !judged.evidence_for.is_empty() || !judged.evidence_against.is_empty())
    .collect();
    causes.sort_by_key(|judged| -judged.score());
    causes
}

impl Judged {
    /// Counts a part of the way down: for the cause when past its band, against it when within.
    fn with_part(self, grounds: &Grounds<'_>, kind: PartKind) -> Self {
        match grounds.part(kind) {
            // Seen, but too little to be what the customer came for.
            Some(down) if down.value > down.band() && down.value < inches(WORTH_CURING_IN) => {
                self.with(1, Evidence::Part(kind, down))
            }
            Some(down) if down.value > down.band() => self.with(3, Evidence::Part(kind, down)),
            Some(down) => self.against(2, Evidence::PartWithinItsBand(kind, down)),
            None => self,
        }
    }

    fn with_complaint(self, grounds: &Grounds<'_>, complaints: &[Complaint]) -> Self {
        let of = grounds.complaints.iter().filter(|complaint| complaints.contains(complaint));
        of.fold(self, |judged, complaint| judged.with(1, Evidence::Complaint(*complaint)))
    }

    fn with_found(self, grounds: &Grounds<'_>, points: i32, defects: &[Defect]) -> Self {
        let found = defects.iter().filter(|defect| grounds.look_over.found(**defect));
        found.fold(self, |judged, defect| judged.with(points, Evidence::Found(*defect)))
    }
}

impl Grounds<'_> {
    fn rests_on_air(&self) -> bool {
        self.survey.vehicle.springs.rear == Some(SpringKind::Air)
    }

    fn part(&self, kind: PartKind) -> Option<Uncertain<Length>> {
        self.breakdown.and_then(|breakdown| breakdown.part(kind))
    }
}

fn overload(grounds: &Grounds<'_>) -> Judged {
    let over = grounds.overload.map(|overload| overload.over.as_slice()).unwrap_or_default();
    let judged = over.iter().fold(Judged::new(Cause::Overload), |judged, check| match check.is_surely_over() {
        true => judged.with(5, Evidence::OverRating(-check.margin())),
        false => judged.with(2, Evidence::OverRatingAsAssumed(-check.margin())),
    });
    judged.settled_by(Some(Settling::WeighAxles))
}

/// What has failed and holds the vehicle up; a chafed hose stops the job, and lets nothing sag.
fn failed_part(grounds: &Grounds<'_>) -> Judged {
    let holds_it_up = |gate: &Gate| match gate {
        Gate::Defect(defect) => defect.rule().area.holds_the_vehicle_up(),
        Gate::Stop(area) => area.holds_the_vehicle_up(),
        Gate::NoFit(_) | Gate::Yields | Gate::PastItsCapacity | Gate::TooShort(_) => false,
    };
    let stops = grounds.look_over.stops().into_iter().filter(holds_it_up);
    stops.fold(Judged::new(Cause::FailedPart), |judged, gate| judged.with(5, Evidence::Stopped(gate)))
}

fn permanent_load(grounds: &Grounds<'_>) -> Judged {
    let judged = by_part(grounds, Cause::PermanentLoad, PartKind::PermanentLoad, Some(Settling::TakeOutAndRead));
    let always = grounds.survey.vehicle.always_on(End::Rear);
    let judged = match grounds.part(PartKind::PermanentLoad) {
        // How much of the way it makes is not known while the height when sound is not.
        None if always > pounds(WORTH_A_WORD_LB) => judged.with(2, Evidence::AlwaysAboard(always)),
        _ => judged,
    };
    if always > pounds(WORTH_A_WORD_LB) { judged.with_complaint(grounds, &[Complaint::LowEmpty]) } else { judged }
}

fn on_the_overload_leaf(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::OnTheOverloadLeaf);
    match grounds.survey.overload_leaves.bears.empty {
        Some(true) => judged.with(3, Evidence::BearsEmpty).with_complaint(grounds, &[Complaint::TooHarsh]),
        _ => judged,
    }
}

/// Where the rear rests on air, its height is the valve's, and no spring has set or is too weak.
fn air_springs(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::AirSprings);
    let low = [Complaint::LowEmpty, Complaint::LowLoaded];
    let sinks = grounds.survey.drop(End::Rear).is_some_and(|drop| drop.value > drop.band());
    if !grounds.rests_on_air() || !(sinks || grounds.complaints.iter().any(|complaint| low.contains(complaint))) {
        return judged;
    }
    let judged = judged.with(3, Evidence::RestsOnAir).with_complaint(grounds, &low);
    judged.with_found(grounds, 2, &[Defect::AirLeak])
}

fn weight_ahead(grounds: &Grounds<'_>) -> Judged {
    let (survey, judged) = (grounds.survey, Judged::new(Cause::WeightAhead));
    if survey.vehicle.class.is_trailer() {
        return judged;
    }
    let aboard = survey.vehicle.always.iter().chain(survey.items_in(LoadState::Loaded));
    let put = match &survey.load {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => Some(Item::at(*weight, *behind_rear_axle)),
        _ => None,
    };
    let shares = aboard.copied().chain(put).map(|item| item.weight * item.rear_share(survey.vehicle.wheelbase));
    let off: Force = shares.filter(|share| share.si() < 0.0).map(|share| -share).sum();
    if off < pounds(WORTH_A_WORD_LB) {
        return judged;
    }
    let judged = judged.with(2, Evidence::RearLightened(off));
    judged.with_complaint(grounds, &[Complaint::TooMuchRake]).settled_by(Some(Settling::TakeOutAndRead))
}

fn shocks_and_bars(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::ShocksAndBars);
    let floats = grounds.complaints.contains(&Complaint::FloatsOrSways);
    // Loaded, the load speaks first; these do where it floats with nothing aboard.
    let judged = if grounds.survey.load.is_none() { judged.with_complaint(grounds, &[Complaint::FloatsOrSways]) } else { judged };
    if floats { judged.with_found(grounds, 2, &[Defect::ShockWorn, Defect::LinkBroken]) } else { judged }
}

fn spring_set(grounds: &Grounds<'_>) -> Judged {
    if grounds.rests_on_air() {
        return Judged::new(Cause::SpringSet);
    }
    let judged = Judged::new(Cause::SpringSet).with_part(grounds, PartKind::SpringSet);
    let judged = judged.with_complaint(grounds, &[Complaint::LowEmpty]).with_found(grounds, 1, &[Defect::LeafPitted]);
    let known = grounds.part(PartKind::SpringSet).is_some();
    judged.settled_by((!known).then_some(Settling::SoundHeight))
}

fn weak_springs(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::WeakSprings);
    if grounds.rests_on_air() {
        return judged;
    }
    match (grounds.rate.measured(), grounds.survey.vehicle.rear_rate_when_sound) {
        (Some(figure), Some(sound)) => {
            let share = figure.rate.si() / sound.si();
            match share < 1.0 - 2.0 * figure.relative_sd {
                true => judged.with(3, Evidence::RateOverSound(share)),
                false => judged.against(2, Evidence::RateOverSound(share)),
            }
        }
        (None, Some(_)) => judged.settled_by(Some(Settling::MoreLoad)),
        _ => judged.settled_by(Some(Settling::SoundRate)),
    }
}

fn by_part(grounds: &Grounds<'_>, cause: Cause, kind: PartKind, settles: Option<Settling>) -> Judged {
    Judged::new(cause).with_part(grounds, kind).settled_by(settles)
}

fn carried_load(grounds: &Grounds<'_>) -> Judged {
    if grounds.rests_on_air() {
        return Judged::new(Cause::CarriedLoad);
    }
    // What was put on for the reading alone is nothing that the vehicle carries.
    if grounds.survey.test_weight {
        return Judged::new(Cause::CarriedLoad).with(0, Evidence::TestWeight);
    }
    let together = [PartKind::SpringsAndOverloadLeaf, PartKind::SpringsAndStops];
    let kind = together.into_iter().find(|kind| grounds.part(*kind).is_some()).unwrap_or(PartKind::CarriedLoad);
    let judged = by_part(grounds, Cause::CarriedLoad, kind, None);
    if grounds.survey.load.is_none() {
        return judged;
    }
    judged.with_complaint(grounds, &[Complaint::LowLoaded, Complaint::FloatsOrSways])
}

fn on_the_stops(grounds: &Grounds<'_>) -> Judged {
    let mut judged = Judged::new(Cause::OnTheStops);
    if matches!(grounds.rate, RateVerdict::OnTheStops { .. }) {
        // Where the gap was seen to be gone, nothing else that is read says anything of the springs.
        let gone = grounds.survey.gap(LoadState::Loaded).is_some();
        judged = judged.with(if gone { 5 } else { 3 }, Evidence::StopsClose);
    }
    judged = judged.with_found(grounds, 2, &[Defect::StopHasBeenHitting]).with_found(grounds, 1, &[Defect::ShockWitnessMark]);
    judged = judged.with_complaint(grounds, &[Complaint::Bottoms]);
    let left = gap_left(grounds.survey, grounds.rate);
    match left.filter(|_| is_clear_of_the_stop(grounds.survey, grounds.rate)) {
        Some(left) => judged.against(2, Evidence::GapLoaded(left)),
        None => {
            if let Some(ContactSuspicion::StifferThanItsClass { times }) = contact_suspicion(grounds.survey, grounds.rate) {
                judged = judged.with(1, Evidence::StifferThanItsClass(times));
            }
            judged.settled_by(grounds.survey.gap(LoadState::Loaded).is_none().then_some(Settling::GapLoaded))
        }
    }
}

fn weight_behind(grounds: &Grounds<'_>) -> Judged {
    let survey = grounds.survey;
    let mut judged = Judged::new(Cause::WeightBehind);
    let change = survey.axle_loads().change.front.filter(|_| !survey.vehicle.class.is_trailer());
    // A twentieth off the front axle is where the nose is seen to come up.
    if let Some(off) = change.map(|change| -change.value).filter(|off| *off > 0.05 * survey.axle_loads().empty.front) {
        judged = judged.with(2, Evidence::FrontLightened(off));
    }
    if let Some(on) = change.map(|change| change.value).filter(|on| on.value > 0.0) {
        judged = judged.against(2, Evidence::FrontWeighedDown(on));
    }
    match survey.drop(End::Front).filter(|_| !survey.vehicle.class.is_trailer()) {
        Some(drop) if -drop.value > drop.band() => judged = judged.with(2, Evidence::FrontRose(-drop.value)),
        Some(_) => {}
        None => judged = judged.settled_by(Some(Settling::FrontHeights)),
    }
    judged.with_complaint(grounds, &[Complaint::NoseUp, Complaint::LightsHigh])
}

fn lean_by_spring(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::LeanBySpring);
    let Some(lean) = grounds.survey.lean(End::Rear, LoadState::Empty) else {
        let complains = grounds.complaints.contains(&Complaint::Leans);
        return if complains {
            judged.with_complaint(grounds, &[Complaint::Leans]).settled_by(Some(Settling::CornersEmpty))
        } else {
            judged
        };
    };
    let part = Uncertain::new(lean.abs(), inches(1.0 / 8.0));
    let judged = match lean.abs() > part.band() {
        true => judged.with(3, Evidence::Part(PartKind::LeanBySpring, part)),
        false => judged.against(2, Evidence::PartWithinItsBand(PartKind::LeanBySpring, part)),
    };
    let judged = if grounds.look_over.found(Defect::TyresUnlike) {
        judged.against(1, Evidence::Found(Defect::TyresUnlike))
    } else {
        judged
    };
    let from_ground = grounds.survey.datum.includes_tyre();
    judged.settled_by(from_ground.then(|| without_tyres(grounds)))
}

fn lean_by_load(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::LeanByLoad);
    let lean = |state| grounds.survey.lean(End::Rear, state);
    let (Some(empty), Some(loaded)) = (lean(LoadState::Empty), lean(LoadState::Loaded)) else { return judged };
    let gained = loaded - empty;
    if !is_a_lean(gained) {
        return judged;
    }
    let part = Uncertain::new(gained.abs(), inches(1.0 / 8.0));
    let judged = match gained.abs() > part.band() {
        true => judged.with(3, Evidence::Part(PartKind::LeanByLoad, part)),
        false => judged.against(1, Evidence::PartWithinItsBand(PartKind::LeanByLoad, part)),
    };
    let centre = match &grounds.survey.load {
        Some(LoadPut::Planned { items, .. }) => Centre::of(items).map(|centre| centre.lateral),
        _ => None,
    };
    // Right less left: a load on the left (negative) makes the left low, which is a positive lean.
    let judged = match centre.filter(|lateral| lateral.abs() > inches(1.0)) {
        Some(lateral) if lateral.si() * gained.si() < 0.0 => judged.with(1, Evidence::LoadToOneSide(lateral)),
        Some(lateral) => judged.against(2, Evidence::LoadToOneSide(lateral)),
        None => judged,
    };
    judged.settled_by(Some(Settling::LoadInTheMiddle))
}

fn tyres(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::Tyres).with_found(grounds, 2, &[Defect::TyresUnlike]);
    let load = grounds.survey.axle_loads().change.rear;
    // Where the gap closed by so little that it does not go with the heights, what is left of them went into the tyres, or was misread.
    let by_gap = grounds.rate.measured().and_then(|figure| {
        let gap = figure.by_gap.filter(|gap| !gap.agrees && gap.spring_drop.value.si() > 0.0)?;
        let sd = Length::hypot(figure.drop.sd, gap.spring_drop.sd);
        Some(Uncertain::new(figure.drop.value - gap.spring_drop.value, sd))
    });
    let part = by_gap.filter(|_| grounds.survey.datum.includes_tyre()).or(grounds.part(PartKind::Tyres));
    // What tyres of the class squash under a load is no cause of anything; half as much again, past its band, is worth a word.
    let ordinary = load.map(|load| load.value / grounds.survey.vehicle.assumptions().rear_tyres());
    match (ordinary, part) {
        (Some(ordinary), Some(part)) if part.value - part.band() > 1.5 * ordinary => {
            judged.with(1, Evidence::Part(PartKind::Tyres, part)).settled_by(Some(without_tyres(grounds)))
        }
        _ => judged.settled_by(Some(without_tyres(grounds))),
    }
}

/// How the part of the tyres is told from that of the springs.
fn without_tyres(grounds: &Grounds<'_>) -> Settling {
    if grounds.survey.vehicle.class.is_trailer() { Settling::HubFromTheGround } else { Settling::ReadFromTheHub }
}

fn earlier_work(grounds: &Grounds<'_>) -> Judged {
    let judged = Judged::new(Cause::EarlierWork).with_found(
        grounds,
        2,
        &[Defect::HomeMadeWedge, Defect::StackedBlocks, Defect::LeafDrilled],
    );
    let modified = grounds.modifications.iter();
    modified
        .fold(judged, |judged, modification| judged.with(1, Evidence::Modified(*modification)))
        .settled_by(Some(Settling::TakeOutAndRead))
}
