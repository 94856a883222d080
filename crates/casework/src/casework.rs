//! A job being worked out: what follows from its case, each thing worked out at most once, when it is first asked for.

mod gates;
mod known;

use std::sync::{Arc, OnceLock};

use wise_badger_mechanics::correction::{Correction, TakesUp};
use wise_badger_mechanics::pack::PackError;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

pub(crate) use known::as_known;

use crate::aim::{Aim, AimVerdict, GoalCase, GoalMark, PointRise, Stands, TargetBand};
use crate::bench::{Asked, BenchWork, Benches, CannotRearch, RearchPlan, SideBench, plan_rearch};
use crate::case::{Case, PlannedCase};
use crate::consequence::{Consequence, OptionFitted, consequences};
use crate::entry::{
    BenchEntry, LoadPlanEntry, OptionEntry, PartEntry, PredictedHeights, PromiseEntry, PromisedRate, TypedIn, WhenEntry, marks_of,
};
use crate::job_document::{JobDocument, ReadingContent};
use crate::look_over::{Area, LookOver, PutRight};
use crate::prediction::{CaseHeights, Prediction, Predictor, Unpredicted};
use crate::reading::Phase;
use crate::slips::{Slip, slips};
use crate::survey::{End, LoadState, Modification, Survey, VehicleFacts};
use crate::verdict::{Breakdown, Grounds, Judged, Overload, RateFigure, RateVerdict, rank_causes};

/// Every screen of a job asks one of these, so that no two can disagree.
#[derive(Debug)]
pub struct Casework {
    case: Case,
    found: OnceLock<Survey>,
    fitted: OnceLock<Survey>,
    look_over: OnceLock<LookOver>,
    overload: OnceLock<Option<Overload>>,
    /// Shared with whoever only tries something on the same vehicle.
    predictor: OnceLock<Arc<Predictor>>,
    cases: OnceLock<Vec<PlannedCase>>,
    causes: OnceLock<Vec<Judged>>,
    options: Vec<Considered>,
}

/// An option on the list, worked out.
#[derive(Debug, Default)]
struct Considered {
    benches: OnceLock<Vec<SideBench>>,
    parts: OnceLock<Option<Parts>>,
    prediction: OnceLock<Option<Prediction>>,
    pressed_past: OnceLock<bool>,
}

/// The parts of an option as the mechanics take them: as they usually are, and as they are set where that is otherwise.
#[derive(Debug)]
struct Parts {
    usual: Vec<Correction>,
    set: Vec<(WhenEntry, Vec<Correction>)>,
}

impl Parts {
    /// The pack of a bench as it is worked out there, so that what its leaves settle to is counted here too.
    fn of(entry: &OptionEntry, benches: &[SideBench], vehicle: &VehicleFacts) -> Option<Self> {
        let part = |part: &PartEntry, when| {
            let planned = |bench: &&SideBench| part.correction.packs().is_some() && bench.side == part.correction.site.side;
            match benches.iter().find(planned) {
                Some(bench) => Some(bench.correction().on(part.correction.site)),
                None => part.correction(when).map(|correction| as_known(vehicle, correction)),
            }
        };
        let at = |when| entry.parts.iter().map(|of| part(of, when)).collect::<Option<Vec<_>>>();
        let whens = entry.parts.iter().flat_map(|part| part.settings.iter().map(|setting| setting.when));
        let set = whens.map(|when| Some((when, at(Some(when))?))).collect::<Option<_>>()?;
        Some(Parts { usual: at(None)?, set })
    }

    fn at(&self, when: WhenEntry) -> &[Correction] {
        self.set.iter().find(|(of, _)| *of == when).map_or(&self.usual, |(_, parts)| parts)
    }
}

/// Why nothing may be fitted at all.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NothingFits {
    /// A rating is passed, and no spring changes that.
    OverARating,
    /// Something on the look-over comes first: nothing is fitted on a failed part.
    Stopped,
}

impl Casework {
    /// A case, of which nothing is worked out yet.
    pub fn new(case: Case) -> Self {
        let options = case.options.iter().map(|_| Considered::default()).collect();
        Casework {
            case,
            found: OnceLock::new(),
            fitted: OnceLock::new(),
            look_over: OnceLock::new(),
            overload: OnceLock::new(),
            predictor: OnceLock::new(),
            cases: OnceLock::new(),
            causes: OnceLock::new(),
            options,
        }
    }

    /// The same vehicle with nothing on its list but one option, and with another load plan: to be looked at, not kept. What follows from
    /// the readings alone is shared; where the plan changes what was aboard in them, it is worked out anew.
    #[must_use]
    pub fn trying(&self, option: OptionEntry, plan: Option<LoadPlanEntry>) -> Self {
        let other = Casework::new(self.case.trying(option, plan));
        if other.found() == self.found() {
            self.predictor();
            other
                .predictor
                .get_or_init(|| self.predictor.get().map_or_else(|| Arc::new(Predictor::new(other.found())), Arc::clone));
        }
        other
    }

    /// What stands on the job, as typed.
    pub fn case(&self) -> &Case {
        &self.case
    }

    /// The vehicle as it came in.
    pub fn found(&self) -> &Survey {
        self.found.get_or_init(|| self.case.survey(Phase::Found))
    }

    /// The vehicle after fitting, as it was read last.
    pub fn fitted(&self) -> &Survey {
        self.fitted.get_or_init(|| self.case.survey_after())
    }

    /// Whether the rear was measured after fitting, in either state.
    pub fn is_measured_again(&self) -> bool {
        self.fitted().states().any(|state| self.fitted().height(End::Rear, state).is_some())
    }

    /// Figures that are worth a second look.
    pub fn slips(&self) -> Vec<Slip> {
        slips(&self.case, self.found())
    }

    /// What was found on the vehicle.
    pub fn look_over(&self) -> &LookOver {
        self.look_over.get_or_init(|| self.case.looked_over())
    }

    /// Where this vehicle is looked over, in the order of the walk; what was found elsewhere stays among it.
    pub fn areas(&self) -> Vec<Area> {
        let air_helper = self.case.sheet.modified().contains(&Modification::AirHelper);
        let is_on = |area: &Area| area.is_on(&self.found().vehicle, air_helper) || self.look_over().of(*area).is_some();
        Area::ALL.into_iter().filter(is_on).collect()
    }

    /// The ratings passed, if any, by what was weighed and by what is assumed.
    pub fn over_a_rating(&self) -> Option<&Overload> {
        self.overload.get_or_init(|| Overload::of(self.found())).as_ref()
    }

    /// The ratings passed, if any, by what was weighed or stated: nothing is fitted then.
    pub fn overload(&self) -> Option<&Overload> {
        self.over_a_rating().filter(|overload| overload.is_sure())
    }

    /// The ratings passed by assumed weights alone: what follows hangs on that until it is weighed.
    pub fn weigh_first(&self) -> Option<&Overload> {
        self.over_a_rating().filter(|overload| !overload.is_sure())
    }

    /// The vehicle behind the readings.
    pub fn predictor(&self) -> &Predictor {
        self.predictor.get_or_init(|| Arc::new(Predictor::new(self.found())))
    }

    /// The same where anything asked for it already.
    pub fn predictor_asked_for(&self) -> Option<&Predictor> {
        self.predictor.get().map(Arc::as_ref)
    }

    /// The rear rate.
    pub fn rate(&self) -> &RateVerdict {
        self.predictor().rate()
    }

    /// Where the inches went, where that can be said.
    pub fn breakdown(&self) -> Option<Breakdown> {
        Breakdown::of(self.found(), self.rate(), self.case.sheet.sound_height())
    }

    /// Why it sits as it does, the likeliest first.
    pub fn causes(&self) -> &[Judged] {
        self.causes.get_or_init(|| {
            rank_causes(&Grounds {
                survey: self.found(),
                rate: self.rate(),
                overload: self.over_a_rating(),
                look_over: self.look_over(),
                complaints: &self.case.sheet.complaints,
                modifications: &self.case.sheet.modified(),
                breakdown: self.breakdown().as_ref(),
            })
        })
    }

    /// Every case of the load plan with something in it, but the measured one.
    pub fn cases(&self) -> &[PlannedCase] {
        let of_plan = |plan: &LoadPlanEntry| -> Vec<PlannedCase> {
            let measured = self.case.measured_case().map(|measured| measured.key);
            let aboard = plan.cases.iter().map(|case| (case, plan.items_of(case.key)));
            let aboard = aboard.filter(|(case, items)| !items.is_empty() && Some(case.key) != measured);
            let planned = aboard.map(|(case, items)| PlannedCase {
                key: case.key,
                name: case.name.clone(),
                survey: self.found().in_case(items, case.scale()),
                later: case.later,
            });
            planned.collect()
        };
        self.cases.get_or_init(|| self.case.plan.as_ref().map(of_plan).unwrap_or_default())
    }

    /// Whether a case of the load plan is not aboard yet, and comes later.
    pub fn is_later(&self, key: u8) -> bool {
        self.cases().iter().any(|case| case.key == key && case.later)
    }

    /// Every side of a bench worked out on this vehicle.
    ///
    /// # Errors     [`PackError`] names what about a pack cannot be
    pub fn benches(&self, entry: &BenchEntry) -> Result<Benches, PackError> {
        let work_out = |side| Ok(SideBench { side, work: self.bench(&entry.of_side(side))? });
        Ok(match entry.right {
            None => Benches { first: work_out(None)?, right: None },
            Some(_) => Benches { first: work_out(Some(Side::Left))?, right: Some(work_out(Some(Side::Right))?) },
        })
    }

    /// A bench of both sides alike, or of one side, worked out on this vehicle.
    ///
    /// # Errors     [`PackError`] names what about a pack cannot be
    pub fn bench(&self, entry: &BenchEntry) -> Result<BenchWork, PackError> {
        BenchWork::new(&self.case, self.found(), self.cases(), entry)
    }

    /// A re-arch worked out on this vehicle.
    ///
    /// # Errors     [`CannotRearch`]
    pub fn rearch(&self, asked: &Asked, units: TypedIn) -> Result<RearchPlan, CannotRearch> {
        plan_rearch(&self.case, self.found(), self.cases(), self.look_over(), self.overload(), asked, units)
    }

    /// The height policy that the job's screens go by: its first goal.
    pub fn aim(&self) -> Option<Aim> {
        self.goal(0)
    }

    /// A goal, by its place; `None` where what it is about is not on Tape any more.
    pub fn goal(&self, place: usize) -> Option<Aim> {
        self.case.goal(self.case.aim.as_ref()?.goals.get(place)?)
    }

    /// Every goal of the aim that still means something.
    pub fn goals(&self) -> impl Iterator<Item = Aim> {
        (0..self.case.aim.as_ref().map_or(0, |aim| aim.goals.len())).filter_map(|place| self.goal(place))
    }

    /// What the aim asks of the rear, and in which state; `None` while a height it hangs on is not read.
    pub fn target(&self) -> Option<(LoadState, TargetBand)> {
        let aim = self.aim()?;
        Some((aim.state(), aim.target(self.found())?))
    }

    /// The same once something is fitted: what hangs on the front goes by where that is predicted to stand.
    pub fn target_with(&self, prediction: &Prediction) -> Option<(LoadState, TargetBand)> {
        let aim = self.aim()?;
        let front = prediction.at(aim.state()).ok().and_then(|predicted| predicted.front);
        let front = front.or_else(|| self.found().height(End::Front, aim.state()));
        Some((aim.state(), aim.target_over(front.map(|height| height.value), self.found())?))
    }

    /// Whether a goal is met with an option fitted, by its height as it is printed in steps of a length; `None` where what it is about is
    /// not predicted.
    pub fn judged(&self, place: usize, option: usize, step: Length) -> Option<AimVerdict> {
        let goal = self.goal(place)?;
        let stands = match goal.when() {
            GoalCase::State(state) => Stands::predicted(self.predicted(option)?.at(state).ok()?),
            GoalCase::Planned(key) => {
                let case = self.cases().iter().find(|case| case.key == key)?;
                Stands::in_case(&self.in_case(option, case).ok()?)
            }
        };
        let point = match (goal.wanted(self.found())?.0, goal.when()) {
            (GoalMark::Point { place, .. }, GoalCase::State(state)) => Some(self.risen_with(option, place, state, &stands)?),
            // A case is counted from the empty vehicle.
            (GoalMark::Point { place, .. }, GoalCase::Planned(_)) => {
                Some(self.risen_with(option, place, LoadState::Empty, &stands)?)
            }
            _ => None,
        };
        goal.judge(self.found(), &Stands { point, ..stands }, step)
    }

    /// Every point of the body whose place along the vehicle is known: those of the tape, by name, and the hitch, which has none.
    pub fn points(&self) -> Vec<(Option<&str>, GoalMark)> {
        let of_tape = self.case.tape.points.iter().enumerate().map(|(place, point)| {
            let mark = GoalMark::Point { behind_rear_axle: point.behind_rear_axle(), place: Some(place) };
            (Some(point.name.as_str()), mark)
        });
        let overhang = self.case.sheet.rear_overhang.as_ref().map(|overhang| overhang.length());
        let hitch = overhang.map(|behind_rear_axle| (None, GoalMark::Point { behind_rear_axle, place: None }));
        hitch.into_iter().chain(of_tape).collect()
    }

    /// Where a point of the body stands in a state with an option fitted; `None` where it was not read there.
    pub fn point_with(&self, option: usize, mark: &GoalMark, state: LoadState) -> Option<Uncertain<Length>> {
        let GoalMark::Point { place, .. } = mark else { return None };
        let stands = Stands::predicted(self.predicted(option)?.at(state).ok()?);
        let point = self.risen_with(option, *place, state, &stands)?;
        mark.of(self.found(), &Stands { point: Some(point), ..stands })
    }

    /// The same in a case of the load plan; `None` where it was not read empty.
    pub fn point_in_case(&self, option: usize, mark: &GoalMark, case: &PlannedCase) -> Option<Uncertain<Length>> {
        let GoalMark::Point { place, .. } = mark else { return None };
        let stands = Stands::in_case(&self.in_case(option, case).ok()?);
        let point = self.risen_with(option, *place, LoadState::Empty, &stands)?;
        mark.of(self.found(), &Stands { point: Some(point), ..stands })
    }

    /// How far both ends rise with an option. Other tires raise what no tape from the hub sees.
    fn risen_with(&self, option: usize, place: Option<usize>, state: LoadState, stands: &Stands) -> Option<PointRise> {
        let (_, parts) = self.option(option)?;
        let unseen = !self.found().datum.includes_tyre() && parts.iter().any(|part| part.takes_up() == TakesUp::Tires);
        if unseen { None } else { self.risen(place, state, stands) }
    }

    /// How far both ends rise from where they stood when a point was read.
    fn risen(&self, place: Option<usize>, state: LoadState, stands: &Stands) -> Option<PointRise> {
        let read = self.case.point_height(place, state)?;
        let rise = |end, after: Option<Uncertain<Length>>| {
            let (before, after) = (self.found().height(end, state)?, after?);
            Some(Uncertain::new(after.value - before.value, after.sd))
        };
        Some(PointRise { read, front: rise(End::Front, stands.front)?, rear: rise(End::Rear, stands.rear)? })
    }

    /// Whether a goal is met as the vehicle came in; `None` where what it is about was not read.
    pub fn as_found(&self, place: usize, step: Length) -> Option<AimVerdict> {
        let goal = self.goal(place)?;
        let GoalCase::State(state) = goal.when() else { return None };
        let stands = Stands::read(self.found(), state);
        let still = Uncertain::new(Length::default(), Length::default());
        let point = match goal.wanted(self.found())?.0 {
            GoalMark::Point { place, .. } => {
                Some(PointRise { read: self.case.point_height(place, state)?, front: still, rear: still })
            }
            _ => None,
        };
        goal.judge(self.found(), &Stands { point, ..stands }, step)
    }

    /// How far it stands above a goal as it is, as finely as heights are printed; less than nothing where it stands lower, `None` where the
    /// goal is met or what it speaks of was not read.
    pub fn above_goal(&self, place: usize) -> Option<Length> {
        match self.as_found(place, inches(1.0 / 16.0))? {
            AimVerdict::MayMiss { off } | AimVerdict::Misses { off } => Some(off),
            AimVerdict::Meets | AimVerdict::LikelyMeets => None,
        }
    }

    fn parts(&self, place: usize) -> Option<(&OptionEntry, &Parts)> {
        let (entry, option) = (self.case.options.get(place)?, self.options.get(place)?);
        let parts = option.parts.get_or_init(|| Parts::of(entry, self.benches_of(place), &self.found().vehicle));
        parts.as_ref().map(|parts| (entry, parts))
    }

    /// The benches that packs of an option were planned on, with what their steel may be asked today; none of an option without one.
    pub fn benches_of(&self, place: usize) -> &[SideBench] {
        let Some((entry, option)) = self.case.options.get(place).zip(self.options.get(place)) else { return &[] };
        let work_out = |part: &PartEntry| {
            let (found, planned) = part.correction.packs()?;
            let today = self.case.bench.as_ref();
            let bench = BenchEntry {
                steel: today.and_then(|bench| bench.steel.clone()),
                lost_percent: today.and_then(|bench| bench.lost_percent),
                planned: planned.clone(),
                ..BenchEntry::found(found.clone())
            };
            Some(SideBench { side: part.correction.site.side, work: self.bench(&bench).ok()? })
        };
        option.benches.get_or_init(|| entry.parts.iter().filter_map(work_out).collect())
    }

    /// An option on the list, by its place: as typed, and its parts as the mechanics take them, as they usually are. `None` past the
    /// list, or for what is no option any more.
    pub fn option(&self, place: usize) -> Option<(&OptionEntry, &[Correction])> {
        self.parts(place).map(|(entry, parts)| (entry, parts.usual.as_slice()))
    }

    /// Its parts as they are set in a state or a case.
    pub fn option_at(&self, place: usize, when: WhenEntry) -> Option<&[Correction]> {
        self.parts(place).map(|(_, parts)| parts.at(when))
    }

    /// Where an option on the list would leave the vehicle. Over a rating nothing is predicted.
    pub fn predicted(&self, place: usize) -> Option<&Prediction> {
        let (_, parts) = self.parts(place).filter(|_| self.overload().is_none())?;
        let predict = || Some(self.predictor().predict_set(|state| parts.at(WhenEntry::State(state))));
        self.options.get(place)?.prediction.get_or_init(predict).as_ref()
    }

    /// What else changes with it.
    pub fn consequences(&self, place: usize) -> Vec<Consequence> {
        let Some((_, parts)) = self.option(place) else { return Vec::new() };
        let (prediction, benches) = (self.predicted(place), self.benches_of(place));
        consequences(&OptionFitted { survey: self.found(), parts, prediction, benches, look_over: self.look_over() })
    }

    /// Whether a goal of the aim wants the front where it stands now, in a state: then it was meant to go there, whatever was fitted at
    /// the rear.
    pub fn means_the_front_at(&self, state: LoadState, height: Length) -> bool {
        self.goals().any(|goal| {
            let wanted = goal.wanted(self.found()).filter(|(mark, _)| *mark == GoalMark::Front);
            let there = Uncertain::new(height, Length::default());
            goal.when() == GoalCase::State(state)
                && wanted.is_some_and(|(_, band)| matches!(band.judge(there), AimVerdict::Meets | AimVerdict::LikelyMeets))
        })
    }

    /// What has to be put right along with an option: what was found, and what the option itself asks for.
    pub fn to_put_right(&self, place: Option<usize>) -> Vec<PutRight> {
        let mut all = self.look_over().to_put_right();
        let asked = place.map(|place| self.consequences(place)).unwrap_or_default();
        for addition in asked.iter().filter_map(Consequence::asks_for) {
            if !all.iter().any(|there| matches!(there, PutRight::Repair(of, _) if *of == addition)) {
                all.push(PutRight::Repair(addition, None));
            }
        }
        all
    }

    /// Where it would leave the vehicle in a case of the load plan that was not measured.
    ///
    /// # Errors     why that is not predicted
    pub fn in_case(&self, place: usize, case: &PlannedCase) -> Result<CaseHeights, Unpredicted> {
        let parts = self.option_at(place, WhenEntry::Case(case.key)).unwrap_or_default();
        self.predictor().in_case(&case.survey, parts)
    }

    /// What would be promised of an option: what was worked out of it, with all that it was worked out from. `None` where nothing is
    /// predicted of it.
    pub fn promise(&self, place: usize, program: &str) -> Option<(PredictedHeights, PromiseEntry)> {
        let option = self.case.options.get(place)?.clone();
        let price = option.price();
        let heights = PredictedHeights::of(self.predicted(place)?);
        let rate = |figure: &RateFigure| PromisedRate { rate_n_per_m: figure.rate.si(), relative_sd: figure.relative_sd };
        let promise = PromiseEntry {
            program: program.to_owned(),
            option,
            marks: marks_of(&heights, self.found().states()),
            rear_rate: self.rate().measured().map(rate),
            inputs: serde_json::to_value(JobDocument::of(&self.case, None)).ok(),
            price,
        };
        Some((heights, promise))
    }

    /// Whether what a promise was said from has been changed since: the vehicle, the readings before fitting, what is aboard.
    pub fn has_changed_since(&self, promise: &PromiseEntry) -> bool {
        let inputs = promise.inputs.clone().and_then(|inputs| serde_json::from_value::<JobDocument>(inputs).ok());
        inputs.is_some_and(|then| {
            let now = JobDocument::of(&self.case, None);
            let found = |of: &JobDocument| -> Vec<ReadingContent> {
                of.readings.iter().filter(|reading| reading.phase.0 == Phase::Found).cloned().collect()
            };
            let same = now.vehicle == then.vehicle
                && now.datum == then.datum
                && now.tape == then.tape
                && now.load_plan == then.load_plan
                && now.bench == then.bench
                && found(&now) == found(&then);
            !same
        })
    }

    /// Whether an option holds a pack that was planned on a bench worked on since.
    pub fn is_out_of_date(&self, place: usize) -> bool {
        self.case.options.get(place).is_some_and(|option| option.is_out_of_date(self.case.bench.as_ref()))
    }

    /// The option chosen, as typed, and its parts as the mechanics take them.
    pub fn chosen(&self) -> Option<(&OptionEntry, &[Correction])> {
        self.option(self.case.chosen?)
    }

    /// Where the option chosen would leave the vehicle.
    pub fn chosen_predicted(&self) -> Option<&Prediction> {
        self.predicted(self.case.chosen?)
    }
}
