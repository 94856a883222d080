//! The tape: heights round the vehicle, empty and loaded, and what was put on between.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::reading::{Phase, Place, ReadingKind, Spot};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{LoadState, SpringKind, VehicleClass};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::tape::Repeats;
use wise_badger_mechanics::units::Length;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::reading::Withdrawn;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job, job_sheet, reading};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::photographs::Album;
use super::{Hidden, Names, Page, Record, Refusal, page};
use crate::drawing::{Drawing, plan_outline};
use crate::error::WebError;
use crate::form::tape::{self, GAP, TapeEntry, WALK, field_name, fields_shown};
use crate::form::tape_states::{self, FurtherForm, PointForm, Question};
use crate::form::{Field, Picks, Sheet};
use crate::job_route::StageWords as _;
use crate::view::story::next_words;
use crate::view::{Units, clock, datum_name, place_name, sentence, state_of};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "tape.html")]
struct TapePage {
    frame: JobFrame,
    hidden: Hidden,
    datums: Picks,
    /// Whether it is a trailer, whose frame is read instead of arches.
    trailer: bool,
    rolled: bool,
    walk: PlanWalk,
    /// How many of the fields of that walk hold something, of how many.
    read: (usize, usize),
    /// The states beside empty and loaded.
    states: Vec<StateForm>,
    /// One more to add, where there is room.
    new_state: Option<StateForm>,
    /// Whether something typed of it was refused.
    new_state_open: bool,
    /// The reading that would settle most, once there is a rate to settle.
    next: Option<String>,
    /// Whether two quick readings that measure leaf friction are offered.
    quick: bool,
    points_open: bool,
    points: Vec<PointForm>,
    rise_problem: String,
    rise_confirmed: bool,
    load: Picks,
    refusal: String,
    /// Where the front is measured from, when not as the rear; none where there is but one way.
    front_datums: Option<Picks>,
    /// Front heights that wait for something to be turned into the job's datum.
    not_converted: String,
    floor: Field,
    more: Vec<MoreForm>,
    why: Option<Picks>,
    /// Readings that were corrected since and stay on record, a line each.
    corrected: Vec<String>,
    album: Album,
}

/// What may be read beside the walk, in one state.
struct MoreForm {
    title: String,
    fields: Vec<Field>,
    open: bool,
    /// Where the overload leaves bear, on leaf springs.
    contacts: Vec<Question>,
}

/// The walk round the vehicle in one state beside empty and loaded.
pub(super) struct StateForm {
    pub(super) title: String,
    pub(super) corners: Vec<Corner>,
    /// What is asked of a state beside empty and loaded.
    pub(super) further: Option<FurtherForm>,
}

/// The walk round the vehicle from above, empty beside loaded at every place.
pub(super) struct PlanWalk {
    pub(super) outline: Drawing,
    /// What each column of fields is called.
    pub(super) titles: Vec<String>,
    pub(super) stations: Vec<Station>,
}

/// A place on it.
pub(super) struct Station {
    pub(super) place: &'static str,
    pub(super) label: &'static str,
    /// Its field in each state, with what the state is called.
    pub(super) cells: Vec<(String, Corner)>,
}

impl PlanWalk {
    /// Of the walks of some states.
    pub(super) fn of(file: &JobFile, forms: Vec<StateForm>) -> Self {
        let titles = forms.iter().map(|form| form.title.clone()).collect();
        let mut stations: Vec<Station> = Vec::new();
        for form in forms {
            for corner in form.corners {
                match stations.iter_mut().find(|station| station.place == corner.place) {
                    Some(station) => station.cells.push((form.title.clone(), corner)),
                    None => {
                        let (place, label) = (corner.place, corner.label);
                        stations.push(Station { place, label, cells: vec![(form.title.clone(), corner)] });
                    }
                }
            }
        }
        PlanWalk { outline: plan_outline(&file.work.found().vehicle), titles, stations }
    }
}

/// One place on the walk.
pub(super) struct Corner {
    /// Where it comes in the walk, from 1.
    pub(super) number: usize,
    pub(super) place: &'static str,
    pub(super) label: &'static str,
    pub(super) first: Field,
    /// Fields for reading it a second time and more.
    pub(super) again: Vec<Field>,
    /// Who read it, and when.
    pub(super) taken: String,
}

impl Corner {
    /// Whether its further fields hold or say anything.
    pub(super) fn is_read_again(&self) -> bool {
        self.again.iter().any(|field| !field.is_blank())
    }
}

/// The walks of these states, with who took what.
///
/// `hint` says under a first field what is to be expected there.
pub(super) fn state_forms(
    sheet: &Sheet,
    file: &JobFile,
    states: &[LoadState],
    phase: Phase,
    names: &Names,
    hint: impl Fn(LoadState, Place) -> String,
) -> Vec<StateForm> {
    let mut walk = 0;
    let mut state_form = |state: LoadState| {
        let called = tape_states::called(sheet, file, state);
        let mut corner = |(place, word): (Place, &'static str)| {
            walk += 1;
            let label = place_name(file.case().intake.class, place);
            let field = |index| {
                let name = field_name(state, word, index);
                let again = if index == 0 { label.to_owned() } else { format!("{label}, read again") };
                let field = sheet.length_field(&name, &format!("{again}, {called}"));
                let field = held_against(field, state, place, word, index);
                // Enter moves to the next corner; a second reading is taken by whoever wants one.
                if index == 0 { field.walk(walk).hint(hint(state, place)).small() } else { field.small() }
            };
            let (first, again) = (field(0), (1..fields_shown(sheet, state, word)).map(field).collect());
            let taken = file.last_taken(Spot { phase, state, place });
            let taken =
                taken.map(|(by, at)| format!("{}, {}{}", names.of(by), clock(at), spread(file, phase, state, place, sheet)));
            Corner { number: walk, place: word, label, first, again, taken: taken.unwrap_or_default() }
        };
        let [front_left, rear_left, rear_right, front_right] = WALK;
        let corners = [front_left, rear_left, GAP, rear_right, front_right].into_iter().map(&mut corner).collect();
        StateForm { title: sentence(&called), corners, further: None }
    };
    states.iter().copied().map(&mut state_form).collect()
}

/// A height is held against what else was read of its corner, its axle and the empty state.
fn held_against(field: Field, state: LoadState, place: Place, word: &str, index: usize) -> Field {
    let opposite = match place {
        Place::FrontLeft => Some("front_right"),
        Place::FrontRight => Some("front_left"),
        Place::RearLeft => Some("rear_right"),
        Place::RearRight => Some("rear_left"),
        _ => None,
    };
    let Some(opposite) = opposite else { return field };
    let repeat = field_name(state, word, usize::from(index == 0));
    let field = field.against("repeat", &repeat).against("side", &field_name(state, opposite, 0));
    match (state, place) {
        (LoadState::Loaded, Place::RearLeft | Place::RearRight) => field.against("empty", &field_name(LoadState::Empty, word, 0)),
        _ => field,
    }
}

/// How far apart several reads of a corner lie, and their mean.
fn spread(file: &JobFile, phase: Phase, state: LoadState, place: Place, sheet: &Sheet) -> String {
    let reads: Vec<Length> = file.case().at(Spot { phase, state, place }).map(|reading| reading.value.length()).collect();
    let units = sheet.units();
    let several = Repeats::of(&reads).filter(|repeats| repeats.count > 1);
    several.map_or_else(String::new, |Repeats { count, apart, mean }| {
        format!("; {count} reads {} apart, mean {}", units.height(apart), units.exact(mean))
    })
}

/// The form of the walk round the vehicle.
pub(crate) struct TapeForm;

impl JobForm for TapeForm {
    type Read = Record;
    type Entry = TapeEntry;

    fn on_file(units: Units, record: &Record) -> Sheet {
        tape::on_file(units, &record.file)
    }

    fn change_the_page(sheet: &mut Sheet, record: &Record) -> bool {
        tape_states::press_and_lift(sheet, &record.file)
    }

    fn check(sheet: &mut Sheet, record: &Record) -> Option<TapeEntry> {
        tape::check(sheet, &record.file)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &TapeEntry) -> Result<(), StoreError> {
        reading::replace(connection, person, job, Phase::Found, &entry.readings, &entry.why)?;
        job::set_tape_manner(connection, person, job, entry.manner.clone())?;
        job_sheet::replace(connection, person, job, &entry.tape)
    }

    fn page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        tape_page(worker, record, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Verdict.path(number)
    }
}

fn front_datums(sheet: &Sheet, class: VehicleClass) -> Option<Picks> {
    let offered = tape::datums(class);
    let named = offered.iter().map(|(word, datum)| (*word, datum_name(class, *datum)));
    let picks = || sheet.picks("front_datum", "The front is measured from", [("same", "as the rear")].into_iter().chain(named));
    (offered.len() > 1).then(picks)
}

fn not_converted(file: &JobFile) -> String {
    let waiting = file.case().not_converted(Phase::Found);
    let Some(first) = waiting.first() else { return String::new() };
    let class = file.case().intake.class;
    let (from, to) = (datum_name(class, first.datum), datum_name(class, file.case().measured.datum.unwrap_or(first.datum)));
    format!(
        "{} front readings from {from} wait to be turned into {to}: read ground to hub in the same state, below, or give the \
         tire size at Intake.",
        waiting.len()
    )
}

/// Whether the rear rests on leaves, as far as anybody said.
fn on_leaves(file: &JobFile) -> bool {
    file.case().sheet.rear_spring.is_none_or(|rear| rear == SpringKind::Leaf)
}

fn more_form(sheet: &Sheet, file: &JobFile, state: LoadState) -> MoreForm {
    let class = file.case().intake.class;
    let units = sheet.units();
    let leaves = on_leaves(file);
    let field = |place: Place| {
        let (name, label) = (tape::further_name(state, place), place_name(class, place));
        match place.kind() {
            ReadingKind::Height | ReadingKind::Length => sheet.length_field(&name, label),
            ReadingKind::Weight => sheet.weight_field(&name, label),
            ReadingKind::Angle => sheet.number_field(&name, label, "°"),
            ReadingKind::Pressure => sheet.number_field(&name, label, units.pressure_name()),
        }
    };
    let (fuel, called) = (format!("fuel_{}", tape::state_word(state)), tape_states::called(sheet, file, state));
    let fields: Vec<Field> = std::iter::once(sheet.text_field(&fuel, "Fuel in the tank").hint("like half"))
        .chain(tape::further_places(file).map(field))
        .collect();
    MoreForm {
        title: format!("More, {called}"),
        open: fields.iter().any(|field| !field.is_blank()),
        fields,
        contacts: if leaves { tape_states::contact_questions(sheet, state) } else { Vec::new() },
    }
}

/// What was corrected, a line each.
fn corrected(record: &Record) -> Vec<String> {
    let class = record.file.case().intake.class;
    let line = |withdrawn: &Withdrawn| {
        let by = withdrawn.withdrawn_by.map_or("somebody", |by| record.names.of(by));
        let at = withdrawn.withdrawn_at.map_or_else(String::new, |at| format!(", {}", clock(at)));
        let why = withdrawn.why.as_ref().map_or("no reason given", String::as_str);
        format!(
            "{}, {}: {} by {}; corrected by {by}{at}: {why}",
            place_name(class, withdrawn.spot.place),
            state_of(record.file.work.found(), withdrawn.spot.state),
            withdrawn.value.text,
            record.names.of(withdrawn.taken_by),
        )
    };
    record.withdrawn.iter().map(line).collect()
}

/// The walk of every state, with what is asked of those beside empty and loaded.
fn walks(sheet: &Sheet, record: &Record, states: &[LoadState]) -> Vec<StateForm> {
    let forms = state_forms(sheet, &record.file, states, Phase::Found, &record.names, |_, _| String::new());
    let further = |state: &LoadState| match state {
        LoadState::Further(key) => Some(tape_states::further_form(sheet, &record.file, *key)),
        LoadState::Empty | LoadState::Loaded => None,
    };
    forms.into_iter().zip(states).map(|(form, state)| StateForm { further: further(state), ..form }).collect()
}

/// A state to be added.
fn new_state(sheet: &Sheet, record: &Record) -> Option<StateForm> {
    let key = tape_states::next_key(sheet, &record.file)?;
    walks(sheet, record, &[LoadState::Further(key)]).pop()
}

fn filled(forms: &[StateForm]) -> (usize, usize) {
    let corners = || forms.iter().flat_map(|form| &form.corners);
    (corners().filter(|corner| !corner.first.is_blank()).count(), corners().count())
}

fn tape_page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let file = &record.file;
    let class = file.case().intake.class;
    let datums = tape::datums(class).into_iter().map(|(word, datum)| (word, sentence(datum_name(class, datum))));
    let states = tape_states::states(sheet, file);
    let mut first = walks(sheet, record, &states);
    let further = first.split_off(LoadState::BOTH.len().min(first.len()));
    let added = tape_states::next_key(sheet, file).map(|key| format!("{}.", LoadState::Further(key).word()));
    let points = tape_states::point_forms(sheet, file);
    let template = TapePage {
        frame: JobFrame::new(worker, file, Some(Stage::Tape), &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        datums: sheet.picks("datum", "Heights are measured from", datums),
        trailer: class.is_trailer(),
        rolled: sheet.is_filled("rolled"),
        read: filled(&first),
        walk: PlanWalk::of(file, first),
        states: further,
        new_state: new_state(sheet, record),
        new_state_open: added.is_some_and(|names| sheet.has_problem_in(&names)),
        next: next_words(file.work.predictor(), sheet.units()),
        quick: on_leaves(file) && tape_states::room_for_both(sheet, file).is_some(),
        points_open: points.len() > 1 || sheet.has_problem_in("point."),
        points,
        rise_problem: sheet.problem("rise_confirmed").to_owned(),
        rise_confirmed: sheet.is_filled("rise_confirmed"),
        load: tape::load_picks(sheet, file),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
        front_datums: front_datums(sheet, class),
        not_converted: not_converted(file),
        floor: sheet.text_field("floor", "The floor").hint("level slab, lift, apron"),
        more: states.iter().map(|state| more_form(sheet, file, *state)).collect(),
        why: (!file.case().readings.is_empty()).then(|| sheet.picks("why", "If a reading on file is changed: why", tape::WHY)),
        corrected: corrected(record),
        album: Album::of_readings(record, sheet.units()),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
