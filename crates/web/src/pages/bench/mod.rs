//! The bench: a pack as found and as it is to be built, leaf by leaf.

mod bits;
pub(crate) mod files;
pub(crate) mod picture;
pub(crate) mod rearch;
pub(crate) mod sheet;
pub(crate) mod template;
pub(crate) mod work;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_casework::bench::{BenchWork, MOST_LEAVES, NamedLoad};
use wise_badger_casework::entry::{BenchEntry, OverloadEntry, PackEntry};
use wise_badger_casework::reading::{Phase, Place, Spot};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState, NoFit, Survey};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::Needs;
use wise_badger_mechanics::pack::{ArchSheet, Leaf, Pack, PackError, PartKind};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{Repeats, WeightUnit};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, STANDARD_GRAVITY, kilograms, pounds};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, job_sheet};

use self::picture::{OverAll, UnderLoad, asked_of};
use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Page, Refusal, job_file, page};
use crate::error::WebError;
use crate::form::bench::{self, As, Which, leaf_field};
use crate::form::{Choice, Field, Sheet, clean};
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::view::bench::load_name;
use crate::view::look_over::gate_words;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::pack_error::pack_error_words;
use crate::view::{Units, sentence, state_of};
use crate::worker::Worker;

/// Word and name of each leaf on the shelf.
const SHELF: [(&str, PartKind, &str); 4] = [
    ("short", PartKind::ShortAddedLeaf, "Short add-a-leaf"),
    ("long", PartKind::LongAddedLeaf, "Long add-a-leaf"),
    ("own", PartKind::OwnMaking, "Leaf of own making"),
    ("overload", PartKind::OverloadLeaf, "Overload leaf"),
];
/// Rows of an empty table.
const FEWEST_ROWS: usize = 4;

#[derive(Template)]
#[template(path = "bench.html")]
struct BenchPage {
    frame: JobFrame,
    number: i32,
    which: &'static str,
    tabs: Vec<Tab>,
    /// Whether a pack is on file.
    has_pack: bool,
    /// Whether this is a pack as planned.
    is_planned: bool,
    /// The words of this side's packs.
    found: &'static str,
    planned: &'static str,
    /// Whether left and right are told apart.
    tells_sides: bool,
    /// Whether anything is planned on it.
    changed: bool,
    slider: Option<Slider>,
    under_load: Option<UnderLoad>,
    over_all: Option<OverAll>,
    /// Why the pack on file cannot be worked out.
    problem: String,
    hidden: Hidden,
    /// Young's modulus from a pack file, carried along.
    young: String,
    rows: Vec<LeafRow>,
    unit: &'static str,
    clamp: [Field; 2],
    /// Of the pack found alone: a plan goes by its leaves.
    pack_arch: Option<Field>,
    overload: Vec<Choice>,
    helper: [Field; 4],
    helper_open: bool,
    /// Whether the clamp was refused.
    has_problem_below: bool,
    shelf: Vec<Choice>,
    places: Vec<(usize, String)>,
    act_problem: String,
    begin: [Field; 6],
    fit: Field,
    fit_states: Vec<Choice>,
    back: bool,
    forward: bool,
    stops: Vec<String>,
    /// Over a rating it says what comes off, before anything about springs.
    over_a_rating: Option<OverloadWords>,
    refusal: String,
}

struct Tab {
    href: String,
    name: String,
    here: bool,
}

/// The load slider, in the person's unit.
struct Slider {
    most: i64,
    step: i64,
    at: i64,
    unit: &'static str,
    picks: Vec<Pick>,
    loose: bool,
    loose_href: String,
}

struct Pick {
    href: String,
    name: String,
    load: i64,
    here: bool,
}

/// A leaf's row.
struct LeafRow {
    row: usize,
    used: bool,
    last: bool,
    /// What it is called, for those who hear the buttons read out.
    called: String,
    cells: Vec<Field>,
}

#[derive(Deserialize)]
pub(crate) struct Looking {
    pack: Option<String>,
    /// In the person's unit, or `loose`.
    load: Option<String>,
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    looking: Query<Looking>,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    on_leaves(&file)?;
    let bench = file.case().bench.as_ref();
    let which = if bench.is_none() { Which::FOUND } else { Which::of(looking.pack.as_deref().unwrap_or_default(), bench) };
    let mut sheet = bench::on_file(worker.units(), file.case().bench.as_ref().map(|bench| pack_of(bench, which)));
    sheet.set("pack", which.word());
    sheet.set("load", clean(looking.load.as_deref().unwrap_or_default()));
    bench_page(&database, worker, file, sheet, None).await
}

/// Refuses a bench where Intake has something else than leaves; one that is on file already stays, so that nothing is lost.
fn on_leaves(file: &JobFile) -> Result<(), WebError> {
    let no_fit = file.case().vehicle().no_fit(End::Rear, Needs::Leaves).filter(|no_fit| matches!(no_fit, NoFit::NoLeaves(..)));
    match no_fit.filter(|_| file.case().bench.is_none()) {
        Some(_) => {
            Err(WebError::NotNow("The rear rests on no leaf springs, as Intake has it: there is no pack to put on the bench."))
        }
        None => Ok(()),
    }
}

/// One of the packs of a bench.
fn pack_of(bench: &BenchEntry, which: Which) -> &PackEntry {
    let [found, planned] = bench.entries(which.side);
    if which.of == As::Found { found } else { planned }
}

/// The pack found that a planned pack goes by where its own leaves do not say.
fn found_before(bench: Option<&BenchEntry>, which: Which) -> Option<&PackEntry> {
    bench.filter(|_| which.of == As::Planned).map(|bench| pack_of(bench, which.found()))
}

/// The bench with one of its packs put in place of what was there; a plan that changed nothing follows what is found.
fn with_pack(bench: Option<&BenchEntry>, which: Which, pack: PackEntry) -> BenchEntry {
    let Some(bench) = bench else { return BenchEntry::found(pack) };
    let one = bench.of_side(which.side);
    let one = match which.of {
        // The arch of the bolted pack was read once, as it came in.
        As::Planned => BenchEntry { planned: PackEntry { pack_arch: one.found.pack_arch.clone(), ..pack }, ..one },
        As::Found if one.is_changed() => BenchEntry { planned: renamed_like(&one, &pack), found: pack, ..one },
        As::Found => BenchEntry { planned: pack.clone(), found: pack, ..one },
    };
    bench.with_side(which.side, one)
}

/// The plan with the leaves called what the pack found calls them now: by their names they are known again.
fn renamed_like(bench: &BenchEntry, found: &PackEntry) -> PackEntry {
    let mut planned = PackEntry { pack_arch: found.pack_arch.clone(), ..bench.planned.clone() };
    if bench.found.leaves.len() != found.leaves.len() {
        return planned;
    }
    let renamed = |name: &str| {
        let place = bench.found.leaves.iter().position(|leaf| leaf.name == name)?;
        // A leaf moved to another row keeps its name.
        let now = &found.leaves.get(place)?.name;
        (!found.leaves.iter().any(|leaf| leaf.name == name)).then(|| now.clone())
    };
    for leaf in &mut planned.leaves {
        leaf.name = renamed(&leaf.name).unwrap_or_else(|| leaf.name.clone());
    }
    if let Some(OverloadEntry::Leaf(name)) = &mut planned.overload {
        *name = renamed(name).unwrap_or_else(|| name.clone());
    }
    planned
}

/// The same to be kept: the first pack of a job begins with what the shop last asked of its steel and its setting.
async fn bench_with(
    database: &Data<Database>,
    worker: &Worker,
    bench: Option<&BenchEntry>,
    which: Which,
    pack: PackEntry,
) -> Result<BenchEntry, WebError> {
    let entry = with_pack(bench, which, pack);
    if bench.is_some() {
        return Ok(entry);
    }
    let shop = worker.shop_id();
    let newest = database.read(move |connection| job_sheet::newest_of_shop::<BenchEntry>(connection, shop)).await?;
    let (steel, lost_percent) = newest.map(|newest| (newest.steel, newest.lost_percent)).unwrap_or_default();
    Ok(BenchEntry { steel, lost_percent, ..entry })
}

/// Where a bench is looked at.
fn here(number: i32, which: Which, load: &str) -> String {
    let load: String = form_urlencoded::byte_serialize(load.as_bytes()).collect();
    let load = if load.is_empty() { load } else { format!("&load={load}") };
    format!("{}?pack={}{load}", Stage::Bench.path_of(number), which.word())
}

/// Pounds, or kilograms, as a whole number.
#[expect(clippy::cast_possible_truncation, reason = "a spring carries some tonnes")]
fn whole_units(load: Force, units: Units) -> i64 {
    let plain = match units.weight {
        WeightUnit::Pounds => load.customary(),
        WeightUnit::Kilograms => load.si() / STANDARD_GRAVITY,
    };
    plain.round() as i64
}

/// The load asked for: a number in the person's unit, a usual one when nothing is asked, and none for a loose pack.
fn load_asked(text: &str, usual: Force, most: Force, units: Units) -> Option<Force> {
    if text == "loose" {
        return None;
    }
    let number = text.parse::<f64>().ok().filter(|load| load.is_finite() && *load >= 0.0);
    let asked = number.map(|load| if units.weight == WeightUnit::Pounds { pounds(load) } else { kilograms(load) });
    Some(asked.unwrap_or(usual).min(most))
}

impl Slider {
    fn new(bench: &BenchWork, number: i32, which: Which, load: Option<Force>, units: Units) -> Self {
        let step = if units.weight == WeightUnit::Pounds { 10 } else { 5 };
        let most = (whole_units(bench.most(), units) / step + 1) * step;
        let at = load.map_or(0, |load| whole_units(load, units));
        let pick = |named: &NamedLoad| {
            let load = whole_units(named.load, units);
            Pick { href: here(number, which, &load.to_string()), name: load_name(&named.name), load, here: at == load }
        };
        let mut picks = vec![Pick { href: here(number, which, "0"), name: "No load".to_owned(), load: 0, here: at == 0 }];
        picks.extend(bench.loads.iter().map(pick));
        Slider {
            most,
            step,
            at,
            unit: units.weight_name(),
            picks,
            loose: load.is_none(),
            loose_href: here(number, which, "loose"),
        }
    }
}

/// The page with a form as it stands, or as it was refused.
async fn bench_page(
    database: &Data<Database>,
    worker: Worker,
    file: JobFile,
    sheet: Sheet,
    refusal: Option<Refusal>,
) -> Result<HttpResponse, WebError> {
    let (shop, job) = (worker.shop_id(), file.job.id);
    let steps = database.read(move |connection| job_sheet::steps::<BenchEntry>(connection, shop, job)).await?;
    drawn(move |_| bench_drawn(&worker, &file, &sheet, steps, refusal.as_ref())).await
}

fn bench_drawn(
    worker: &Worker,
    file: &JobFile,
    sheet: &Sheet,
    [back, forward]: [bool; 2],
    refusal: Option<&Refusal>,
) -> Result<Page, WebError> {
    let units = worker.units();
    let entry = file.case().bench.as_ref();
    let (number, which) = (file.job.number.0, Which::of(sheet.text("pack"), entry));
    let worked = entry.map(|entry| file.work.benches(entry));
    let (mut slider, mut under_load, mut over_all, mut problem) = (None, None, None, String::new());
    match worked {
        Some(Ok(benches)) => {
            let bench = benches.of_side(which.side);
            let load = asked_of(bench, sheet.text("load"), units);
            slider = Some(Slider::new(bench, number, which, load, units));
            over_all = Some(OverAll::new(file, &benches, which, units));
            match UnderLoad::new(&bench.packs, load, units) {
                Ok(drawn) => under_load = Some(drawn),
                Err(error) => problem = pack_error_words(&error, units),
            }
        }
        Some(Err(error)) => problem = pack_error_words(&error, units),
        None => {}
    }
    let made = entry.and_then(|bench| made_of(bench, which).ok());
    let made_leaves = made.as_ref().map(|pack| pack.leaves.as_slice()).unwrap_or_default();
    let (fit, fit_states) = fit_field(file, sheet, which.side, units);
    let rows = bench::rows_shown(sheet).max(if entry.is_none() { FEWEST_ROWS } else { 0 });
    let used = (0..MOST_LEAVES).filter(|row| bench::is_used(sheet, *row)).count();
    let template = BenchPage {
        frame: JobFrame::new(worker, file, Some(Stage::Bench), &as_chosen(&file.work)),
        number,
        which: which.word(),
        tabs: tabs(entry, which, |tab| here(number, tab, sheet.text("load"))),
        has_pack: entry.is_some(),
        is_planned: which.of == As::Planned,
        found: which.found().word(),
        planned: which.planned().word(),
        tells_sides: entry.is_some_and(|entry| entry.right.is_some()),
        changed: entry.is_some_and(BenchEntry::is_changed),
        slider,
        under_load,
        over_all,
        problem,
        hidden: Hidden::new(sheet, file.job.revision),
        young: sheet.text("young_modulus_pa").to_owned(),
        rows: (0..rows).map(|row| leaf_row(sheet, row, used, made_leaves.get(row), units)).collect(),
        unit: units.length_name(),
        clamp: [sheet.length_field("clamp_front", "Clamp, front half"), sheet.length_field("clamp_rear", "Clamp, rear half")],
        pack_arch: (which.of == As::Found).then(|| {
            let field = sheet.length_field("pack_arch", "Arch of the bolted pack");
            field.hint("counts where leaves' own arches are not read")
        }),
        overload: sheet.choices("overload", overload_choices(sheet, made.as_ref())),
        helper: [
            sheet.length_field("helper_reach", "Ends from the center bolt"),
            sheet.rate_field("helper_rate", "Rate of one end"),
            sheet.weight_field("helper_tension", "Tension of one end, as set"),
            sheet.weight_field("helper_under", "Set with this on the pack"),
        ],
        has_problem_below: ["clamp_front", "clamp_rear", "pack_arch"].iter().any(|name| !sheet.problem(name).is_empty()),
        helper_open: ["helper_reach", "helper_rate", "helper_tension", "helper_under"].iter().any(|name| sheet.is_filled(name)),
        shelf: sheet.choices("kind", SHELF.map(|(word, _, label)| (word, label))),
        places: places(sheet),
        act_problem: sheet.problem("act").to_owned(),
        begin: begin_fields(sheet),
        fit,
        fit_states,
        back,
        forward,
        over_a_rating: overload_words(&file.work, units),
        stops: file.work.look_over().stops().iter().map(gate_words).collect(),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

/// A pack of the bench as it is worked out, what was not read estimated.
fn made_of(bench: &BenchEntry, which: Which) -> Result<Pack, PackError> {
    let [found, planned] = bench.of_side(which.side).packs()?;
    Ok(match which.of {
        As::Found => found.pack,
        As::Planned => planned.pack,
    })
}

/// A tab for every pack of the bench.
fn tabs(entry: Option<&BenchEntry>, here: Which, href: impl Fn(Which) -> String) -> Vec<Tab> {
    let sides = entry.map_or(&[None][..], BenchEntry::sides);
    let all = sides.iter().flat_map(|side| As::BOTH.map(|of| Which { of, side: *side }));
    all.map(|tab| Tab { href: href(tab), name: tab.name(), here: tab == here }).collect()
}

/// What may be said of the overload leaf; what it looks like while nobody has said.
fn overload_choices(sheet: &Sheet, made: Option<&Pack>) -> Vec<(String, String)> {
    let looks = made.and_then(|pack| pack.leaves.get(pack.overload_leaf()?)).map_or("none", |leaf| leaf.name.as_str());
    let below = leaf_names(sheet).into_iter().skip(1);
    let proposed = (String::new(), format!("as it looks: {looks}"));
    let none = (bench::NO_OVERLOAD_LEAF.to_owned(), "there is none".to_owned());
    [proposed, none].into_iter().chain(below.map(|(row, name)| (row.to_string(), name))).collect()
}

fn leaf_row(sheet: &Sheet, row: usize, used: usize, made: Option<&Leaf>, units: Units) -> LeafRow {
    const LABELS: [(&str, &str); 7] = [
        ("width", "Width"),
        ("thickness", "Thickness"),
        ("front", "Front half"),
        ("rear", "Rear half"),
        ("arch", "Free arch"),
        ("chord", "Chord"),
        ("spacer", "Spacer above"),
    ];
    let number = row + 1;
    let name = |what: &str| leaf_field(row, what);
    let mut cells = vec![sheet.text_field(&name("name"), &format!("Leaf {number}: name")).small()];
    // An empty box says what is taken for it.
    let taken = |what: &str| {
        let made = made?;
        let sheet = ArchSheet::of(made);
        let length = match what {
            "width" => made.width,
            // Read with a caliper, not with a tape.
            "thickness" => return Some(format!("~ {}", units.typed_in().length(made.thickness).text)),
            "front" => made.front,
            "rear" => made.rear,
            "arch" => sheet.sagitta(),
            "chord" => sheet.chord(),
            _ => return None,
        };
        Some(format!("~ {}", units.bare(length)))
    };
    cells.extend(LABELS.map(|(what, label)| {
        let field = sheet.length_field(&name(what), &format!("Leaf {number}: {label}")).small();
        field.stand_in(taken(what).unwrap_or_default())
    }));
    let called = sheet.text(&name("name"));
    let called = if called.is_empty() { format!("leaf {number}") } else { called.to_owned() };
    LeafRow { row, used: bench::is_used(sheet, row), last: number >= used, called, cells }
}

/// Places a leaf can be put in: under each leaf that is there.
fn places(sheet: &Sheet) -> Vec<(usize, String)> {
    leaf_names(sheet).into_iter().enumerate().map(|(place, (_, name))| (place + 1, format!("under {name}"))).collect()
}

/// The rows that are used, with what their leaves are called.
fn leaf_names(sheet: &Sheet) -> Vec<(usize, String)> {
    let name = |row: usize| {
        let name = sheet.text(&leaf_field(row, "name"));
        if name.is_empty() { format!("leaf {}", row + 1) } else { name.to_owned() }
    };
    (0..MOST_LEAVES).filter(|row| bench::is_used(sheet, *row)).map(|row| (row, name(row))).collect()
}

fn begin_fields(sheet: &Sheet) -> [Field; 6] {
    [
        sheet.number_field("few_count", "Leaves", ""),
        sheet.length_field("few_width", "Width"),
        sheet.length_field("few_thickness", "Thickness of a leaf"),
        sheet.length_field("few_front", "Main leaf, front half"),
        sheet.length_field("few_rear", "Main leaf, rear half"),
        sheet.length_field("few_arch", "Arch of the bolted pack").hint("eyes' chord to the main leaf, no load"),
    ]
}

/// The arch that Tape read under the vehicle, empty or else loaded: a side's, or of both packs together where both were read.
fn arch_on_tape(file: &JobFile, side: Option<Side>) -> Option<(LoadState, Length)> {
    let places = match side {
        None => &[Place::ArchLeft, Place::ArchRight][..],
        Some(Side::Left) => &[Place::ArchLeft],
        Some(Side::Right) => &[Place::ArchRight],
    };
    let of_state = |state| {
        let read = |place: &Place| file.case().at(Spot { phase: Phase::Found, state, place: *place }).last();
        let read = places.iter().filter_map(read).map(|reading| reading.value.length());
        Repeats::of(&read.collect::<Vec<_>>()).map(|repeats| (state, repeats.mean))
    };
    file.work.found().states().find_map(of_state)
}

/// Every state of a job, to pick from.
fn state_choices(survey: &Survey) -> Vec<(&'static str, String)> {
    survey.states().map(|state| (state.word(), sentence(state_of(survey, state)))).collect()
}

/// The arch under the vehicle, filled from Tape where it was read there.
fn fit_field(file: &JobFile, sheet: &Sheet, side: Option<Side>, units: Units) -> (Field, Vec<Choice>) {
    let mut sheet = sheet.clone();
    if let Some((state, read)) = arch_on_tape(file, side).filter(|_| !sheet.is_filled("fit_arch")) {
        sheet.set_typed("fit_arch", &units.typed_in().length(read));
        sheet.set("fit_state", state.word());
    }
    let field = sheet.length_field("fit_arch", "Arch under the vehicle").hint("eyes' chord to the main leaf, read or from Tape");
    (field, sheet.choices("fit_state", state_choices(file.work.found())))
}
