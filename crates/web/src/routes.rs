//! Every address of the program.

use actix_web::guard::{Any, Get, Head};
use actix_web::middleware::from_fn;
use actix_web::web::{self, FormConfig, PathConfig, QueryConfig, ServiceConfig};

use crate::error::WebError;
use crate::gate;
use crate::pages::aim::AimForm;
use crate::pages::drive::DriveForm;
use crate::pages::intake::IntakeVehicleForm;
use crate::pages::intake_sheet::IntakeSheetForm;
use crate::pages::load::LoadForm;
use crate::pages::look_over::LookOverForm;
use crate::pages::plan::PlanForm;
use crate::pages::proof::{AfterFitting, AfterSettling, AfterTheDrive, ProofForm};
use crate::pages::tape::TapeForm;
use crate::pages::{
    assets, bays, bench, call, customers, events, finder, handover, hands, health, help, history, intake, job, job_document,
    job_form, join, ledger, load, me, options, people, photographs, plan, proof, record, shelf, sign_in, sums, takes, understood,
    units, vehicles, verdict, what_if, wrench, yard,
};
use crate::rights::Right;

/// Most bytes of one form: a load plan or a pack filled to the last field, in any script, is less.
const LARGEST_FORM: usize = 256 * 1024;

/// One address, and what is done there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Address {
    /// `GET` (which answers `HEAD` too) or `POST`.
    pub method: &'static str,
    /// The path, with its parameters in braces.
    pub path: &'static str,
    /// What it takes of whoever asks.
    pub right: Right,
}

/// The table: registers every row behind its gate, and lists them for whoever wants to knock at each.
macro_rules! addresses {
    ($($method:ident $path:literal $right:ident => $handler:expr;)*) => {
        /// Every address below the pages' own session, in the order of the table.
        pub const ADDRESSES: &[Address] =
            &[$(Address { method: stringify!($method), path: $path, right: Right::$right }),*];

        fn register(config: &mut ServiceConfig) {
            config$(.route(
                $path,
                addresses!(@route $method)
                    .to($handler)
                    .wrap(from_fn(|request, next| gate::pass(Right::$right, request, next))),
            ))*;
        }
    };
    (@route GET) => { web::route().guard(Any(Get()).or(Head())) };
    (@route POST) => { web::post() };
}

addresses! {
    GET "/" Look => yard::show;
    GET "/sign-in" Open => sign_in::show;
    POST "/sign-in" Open => sign_in::by_password;
    POST "/sign-in/pin" Open => sign_in::by_pin;
    POST "/sign-in/demo" Open => sign_in::in_the_demo;
    POST "/sign-out" Open => sign_in::sign_out;
    POST "/sign-out/everywhere" Look => sign_in::sign_out_everywhere;
    GET "/join" Open => join::show;
    POST "/join" Open => join::come_in;
    GET "/me" Look => me::show;
    POST "/me/password" Look => me::set_password;
    POST "/me/pin" Look => me::set_pin;
    GET "/people" Look => people::show;
    POST "/people/invite" People => people::invite;
    POST "/people/invitations/{invitation}/revoke" People => people::revoke_invitation;
    POST "/people/tablets" People => people::enroll_tablet;
    POST "/people/tablets/{tablet}/revoke" People => people::revoke_tablet;
    POST "/people/{person}/role" People => people::set_role;
    POST "/people/{person}/reset" People => people::reset;
    POST "/people/{person}/leave" People => people::leave;
    POST "/people/{person}/come-back" People => people::come_back;
    POST "/units" Look => units::set_units;
    GET "/bays" Look => bays::show;
    POST "/bays/new" Terms => bays::add;
    GET "/bays/book" Look => bays::ask;
    POST "/bays/book" Plan => bays::put;
    GET "/bays/bookings/{booking}" Look => bays::show_booking;
    POST "/bays/bookings/{booking}" Plan => bays::change;
    POST "/bays/bookings/{booking}/move" Plan => bays::move_on;
    POST "/bays/bookings/{booking}/withdraw" Plan => bays::withdraw;
    POST "/bays/calendar" Terms => bays::make_link;
    POST "/bays/calendar/{link}/revoke" Terms => bays::revoke_link;
    POST "/bays/{bay}/withdraw" Terms => bays::take_off;
    GET "/bays.ics" Open => bays::calendar_file;
    GET "/ledger" Look => ledger::show;
    GET "/ledger.csv" Look => ledger::csv;
    POST "/ledger/switch" Terms => ledger::switch;
    GET "/vehicles/{vehicle}" Look => vehicles::show;
    GET "/customers" People => customers::long_gone;
    GET "/customers/{customer}" Look => customers::show;
    POST "/customers/{customer}" Receive => customers::change;
    POST "/customers/{customer}/erase" People => customers::erase;
    GET "/events" Look => events::stream;
    GET "/help" Look => help::show;
    GET "/understood" Look => understood::show;
    GET "/sums" Look => sums::first;
    GET "/sums/{sum}" Look => sums::show;
    GET "/shelf" Look => shelf::show;
    GET "/shelf.csv" Look => shelf::files::csv;
    GET "/shelf.json" Look => shelf::files::json;
    GET "/shelf/new" Look => shelf::part::new;
    POST "/shelf/new" Shelf => shelf::part::put;
    GET "/shelf/import/progress" Look => shelf::progress::show;
    GET "/shelf/import" Look => shelf::files::ask;
    POST "/shelf/import" Shelf => shelf::files::import;
    GET "/shelf/parts/{part}" Look => shelf::part::show;
    POST "/shelf/parts/{part}" Shelf => shelf::part::change;
    POST "/shelf/parts/{part}/withdraw" Shelf => shelf::part::withdraw;
    POST "/shelf/parts/{part}/restore" Shelf => shelf::part::restore;
    GET "/quick" Look => call::ask;
    POST "/quick" Receive => call::put;
    POST "/quick/preview" Look => call::preview;
    GET "/quick/{call}" Look => call::show;
    POST "/quick/{call}" Receive => call::change;
    POST "/quick/{call}/withdraw" Receive => call::withdraw;
    POST "/quick/{call}/restore" Receive => call::restore;
    GET "/jobs/new" Look => intake::new;
    POST "/jobs/new" Receive => intake::open;
    GET "/jobs/import" Look => job_document::ask;
    POST "/jobs/import" Receive => job_document::import;
    GET "/jobs/{number}" Look => job::show;
    POST "/jobs/{number}/hands" Receive => hands::set;
    POST "/jobs/{number}/vehicle" Receive => hands::set_whose;
    POST "/jobs/{number}/due/{what}" Receive => yard::mark;
    GET "/jobs/{number}/intake" Look => job_form::show::<IntakeVehicleForm>;
    POST "/jobs/{number}/intake" Receive => job_form::save::<IntakeVehicleForm>;
    POST "/jobs/{number}/intake/sheet" Receive => job_form::save::<IntakeSheetForm>;
    GET "/jobs/{number}/load" Look => job_form::show::<LoadForm>;
    POST "/jobs/{number}/load" Measure => job_form::save::<LoadForm>;
    POST "/jobs/{number}/load/preview" Look => load::preview;
    GET "/jobs/{number}/tape" Look => job_form::show::<TapeForm>;
    POST "/jobs/{number}/tape" Measure => job_form::save::<TapeForm>;
    GET "/jobs/{number}/drive" Look => job_form::show::<DriveForm>;
    POST "/jobs/{number}/drive" Measure => job_form::save::<DriveForm>;
    POST "/jobs/{number}/sums" Judge => sums::keep;
    POST "/jobs/{number}/sums/{place}/drop" Judge => sums::drop;
    GET "/jobs/{number}/history" Look => history::show;
    GET "/jobs/{number}/record.json" Look => record::send;
    GET "/jobs/{number}/job.json" Look => job_document::export;
    GET "/jobs/{number}/readings.csv" Look => job_document::readings;
    POST "/jobs/{number}/photographs" Measure => photographs::send;
    GET "/jobs/{number}/photographs/{photograph}" Look => photographs::show;
    POST "/jobs/{number}/photographs/{photograph}/withdraw" Measure => photographs::withdraw;
    GET "/jobs/{number}/look-over" Look => job_form::show::<LookOverForm>;
    POST "/jobs/{number}/look-over" Measure => job_form::save::<LookOverForm>;
    GET "/jobs/{number}/verdict" Look => verdict::show;
    GET "/jobs/{number}/aim" Look => job_form::show::<AimForm>;
    POST "/jobs/{number}/aim" Judge => job_form::save::<AimForm>;
    GET "/jobs/{number}/shelf" Look => shelf::pick::show;
    GET "/jobs/{number}/takes" Look => takes::show;
    GET "/jobs/{number}/finder" Look => finder::show;
    POST "/jobs/{number}/finder" Judge => finder::keep;
    GET "/jobs/{number}/finder/look" Look => finder::look;
    POST "/jobs/{number}/finder/stop" Look => finder::stop;
    POST "/jobs/{number}/finder/again" Look => finder::again;
    POST "/jobs/{number}/finder/weights" Terms => finder::keep_weights;
    GET "/jobs/{number}/what-if" Look => what_if::show;
    POST "/jobs/{number}/what-if" Judge => what_if::work;
    POST "/jobs/{number}/what-if/preview" Look => what_if::preview;
    GET "/jobs/{number}/options" Look => options::show;
    POST "/jobs/{number}/options" Judge => options::consider;
    POST "/jobs/{number}/options/{correction}/choose" Judge => options::choose;
    POST "/jobs/{number}/options/{correction}/withdraw" Judge => options::withdraw;
    POST "/jobs/{number}/options/{correction}/restore" Judge => options::restore;
    POST "/jobs/{number}/options/none" Judge => options::choose_none;
    GET "/jobs/{number}/bench" Look => bench::show;
    POST "/jobs/{number}/bench" Judge => bench::work::save;
    POST "/jobs/{number}/bench/begin" Judge => bench::work::begin;
    POST "/jobs/{number}/bench/preview" Look => bench::picture::preview;
    POST "/jobs/{number}/bench/fit" Judge => bench::work::fit;
    POST "/jobs/{number}/bench/step" Judge => bench::work::step;
    POST "/jobs/{number}/bench/sides" Judge => bench::work::tell_sides;
    POST "/jobs/{number}/bench/option" Judge => bench::work::consider;
    GET "/jobs/{number}/bench/pack.json" Look => bench::files::export;
    POST "/jobs/{number}/bench/import" Judge => bench::files::import;
    GET "/jobs/{number}/bench/re-arch" Look => bench::rearch::show;
    POST "/jobs/{number}/bench/re-arch" Judge => bench::rearch::take;
    GET "/jobs/{number}/bench/sheet" Look => bench::sheet::show;
    GET "/jobs/{number}/bench/leaf/{place}/{form}" Look => bench::template::send;
    GET "/jobs/{number}/plan" Look => job_form::show::<PlanForm>;
    POST "/jobs/{number}/plan" Plan => job_form::save::<PlanForm>;
    POST "/jobs/{number}/plan/terms" Terms => plan::keep_terms;
    GET "/jobs/{number}/estimate" Look => plan::estimate;
    GET "/jobs/{number}/estimate.pdf" Look => plan::estimate_file;
    POST "/jobs/{number}/estimate/sign" Plan => plan::sign_estimate;
    GET "/jobs/{number}/wrench" Look => wrench::show;
    GET "/jobs/{number}/wrench/card" Look => wrench::since;
    POST "/jobs/{number}/wrench/ticks" Work => wrench::tick;
    GET "/jobs/{number}/handover" Look => handover::show;
    POST "/jobs/{number}/handover/sign" Plan => handover::sign_handover;
    GET "/jobs/{number}/handover.pdf" Look => handover::file;
    GET "/jobs/{number}/due.ics" Look => handover::due_dates;
    GET "/jobs/{number}/proof" Look => job_form::show::<ProofForm<AfterFitting>>;
    POST "/jobs/{number}/proof" Measure => job_form::save::<ProofForm<AfterFitting>>;
    GET "/jobs/{number}/proof/driven" Look => job_form::show::<ProofForm<AfterTheDrive>>;
    POST "/jobs/{number}/proof/driven" Measure => job_form::save::<ProofForm<AfterTheDrive>>;
    GET "/jobs/{number}/proof/settled" Look => job_form::show::<ProofForm<AfterSettling>>;
    POST "/jobs/{number}/proof/settled" Measure => job_form::save::<ProofForm<AfterSettling>>;
    POST "/jobs/{number}/finish" Release => proof::finish;
    POST "/jobs/{number}/reopen" Release => proof::reopen;
}

/// What saving takes on the page at a path: the right of the form that is sent to the page itself, where it has one.
pub(crate) fn right_to_save(path: &str) -> Option<Right> {
    let path = path.split('?').next().unwrap_or(path);
    let is_at = |row: &str| {
        let (parts, of_path) = (row.split('/'), path.split('/'));
        row.split('/').count() == path.split('/').count()
            && parts.zip(of_path).all(|(part, of_path)| part.starts_with('{') || part == of_path)
    };
    // What is spelled out comes before what is matched by a parameter.
    let rows = ADDRESSES.iter().filter(|address| address.method == "POST" && is_at(address.path));
    rows.min_by_key(|address| address.path.matches('{').count()).map(|address| address.right)
}

/// Styles, scripts and fonts, and whether the program is well: they ask nobody who they are.
pub(crate) fn assets(config: &mut ServiceConfig) {
    config
        .route("/health", addresses!(@route GET).to(health::up))
        .route("/ready", addresses!(@route GET).to(health::ready))
        .route("/static/{path:.*}", addresses!(@route GET).to(assets::show));
}

/// Registers all pages, each behind the gate that its row asks for.
pub(crate) fn pages(config: &mut ServiceConfig) {
    config
        .app_data(FormConfig::default().limit(LARGEST_FORM).error_handler(|error, _| {
            let too_large = matches!(error, actix_web::error::UrlencodedError::Overflow { .. });
            if too_large { WebError::TooLarge.into() } else { WebError::Malformed(error.to_string()).into() }
        }))
        .app_data(PathConfig::default().error_handler(|_, _| WebError::NotFound("job").into()))
        .app_data(QueryConfig::default().error_handler(|error, _| WebError::Malformed(error.to_string()).into()));
    register(config);
    config.default_service(web::to(|| async { Err::<actix_web::HttpResponse, _>(WebError::NotFound("page")) }));
}
