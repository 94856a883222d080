//! Every address of the program.

use actix_web::guard::{Any, Get, Head};
use actix_web::web::{self, FormConfig, PathConfig, QueryConfig, ServiceConfig};

use crate::error::WebError;
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
    assets, bench, call, finder, handover, history, intake, job, job_document, job_form, load, options, photographs, plan, proof,
    record, shelf, sums, takes, understood, verdict, what_if, who, wrench, yard,
};

/// Most bytes of one form: a load plan or a pack filled to the last field, in any script, is less.
const LARGEST_FORM: usize = 256 * 1024;

/// One address, and what is done there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Address {
    /// `GET` (which answers `HEAD` too) or `POST`.
    pub method: &'static str,
    /// The path, with its parameters in braces.
    pub path: &'static str,
}

/// The table: registers every row, and lists them for whoever wants to knock at each.
macro_rules! addresses {
    ($($method:ident $path:literal => $handler:expr;)*) => {
        /// Every address below the pages' own session, in the order of the table.
        pub const ADDRESSES: &[Address] = &[$(Address { method: stringify!($method), path: $path }),*];

        fn register(config: &mut ServiceConfig) {
            config$(.route($path, addresses!(@route $method).to($handler)))*;
        }
    };
    (@route GET) => { web::route().guard(Any(Get()).or(Head())) };
    (@route POST) => { web::post() };
}

addresses! {
    GET "/" => yard::show;
    GET "/who" => who::show;
    POST "/who" => who::sign_on;
    POST "/sign-out" => who::sign_out;
    POST "/units" => who::set_units;
    GET "/understood" => understood::show;
    GET "/sums" => sums::first;
    GET "/sums/{sum}" => sums::show;
    GET "/shelf" => shelf::show;
    GET "/shelf.csv" => shelf::files::csv;
    GET "/shelf.json" => shelf::files::json;
    GET "/shelf/new" => shelf::part::new;
    POST "/shelf/new" => shelf::part::put;
    GET "/shelf/import/progress" => shelf::progress::show;
    GET "/shelf/import" => shelf::files::ask;
    POST "/shelf/import" => shelf::files::import;
    GET "/shelf/parts/{part}" => shelf::part::show;
    POST "/shelf/parts/{part}" => shelf::part::change;
    POST "/shelf/parts/{part}/withdraw" => shelf::part::withdraw;
    POST "/shelf/parts/{part}/restore" => shelf::part::restore;
    GET "/quick" => call::ask;
    POST "/quick" => call::put;
    POST "/quick/preview" => call::preview;
    GET "/quick/{call}" => call::show;
    POST "/quick/{call}" => call::change;
    POST "/quick/{call}/withdraw" => call::withdraw;
    POST "/quick/{call}/restore" => call::restore;
    GET "/jobs/new" => intake::new;
    POST "/jobs/new" => intake::open;
    GET "/jobs/import" => job_document::ask;
    POST "/jobs/import" => job_document::import;
    GET "/jobs/{number}" => job::show;
    GET "/jobs/{number}/intake" => job_form::show::<IntakeVehicleForm>;
    POST "/jobs/{number}/intake" => job_form::save::<IntakeVehicleForm>;
    POST "/jobs/{number}/intake/sheet" => job_form::save::<IntakeSheetForm>;
    GET "/jobs/{number}/load" => job_form::show::<LoadForm>;
    POST "/jobs/{number}/load" => job_form::save::<LoadForm>;
    POST "/jobs/{number}/load/preview" => load::preview;
    GET "/jobs/{number}/tape" => job_form::show::<TapeForm>;
    POST "/jobs/{number}/tape" => job_form::save::<TapeForm>;
    GET "/jobs/{number}/drive" => job_form::show::<DriveForm>;
    POST "/jobs/{number}/drive" => job_form::save::<DriveForm>;
    POST "/jobs/{number}/sums" => sums::keep;
    POST "/jobs/{number}/sums/{place}/drop" => sums::drop;
    GET "/jobs/{number}/history" => history::show;
    GET "/jobs/{number}/record.json" => record::send;
    GET "/jobs/{number}/job.json" => job_document::export;
    GET "/jobs/{number}/readings.csv" => job_document::readings;
    POST "/jobs/{number}/photographs" => photographs::send;
    GET "/jobs/{number}/photographs/{photograph}" => photographs::show;
    POST "/jobs/{number}/photographs/{photograph}/withdraw" => photographs::withdraw;
    GET "/jobs/{number}/look-over" => job_form::show::<LookOverForm>;
    POST "/jobs/{number}/look-over" => job_form::save::<LookOverForm>;
    GET "/jobs/{number}/verdict" => verdict::show;
    GET "/jobs/{number}/aim" => job_form::show::<AimForm>;
    POST "/jobs/{number}/aim" => job_form::save::<AimForm>;
    GET "/jobs/{number}/shelf" => shelf::pick::show;
    GET "/jobs/{number}/takes" => takes::show;
    GET "/jobs/{number}/finder" => finder::show;
    POST "/jobs/{number}/finder" => finder::keep;
    GET "/jobs/{number}/finder/look" => finder::look;
    POST "/jobs/{number}/finder/stop" => finder::stop;
    POST "/jobs/{number}/finder/again" => finder::again;
    POST "/jobs/{number}/finder/weights" => finder::keep_weights;
    GET "/jobs/{number}/what-if" => what_if::show;
    POST "/jobs/{number}/what-if" => what_if::work;
    POST "/jobs/{number}/what-if/preview" => what_if::preview;
    GET "/jobs/{number}/options" => options::show;
    POST "/jobs/{number}/options" => options::consider;
    POST "/jobs/{number}/options/{correction}/choose" => options::choose;
    POST "/jobs/{number}/options/{correction}/withdraw" => options::withdraw;
    POST "/jobs/{number}/options/{correction}/restore" => options::restore;
    POST "/jobs/{number}/options/none" => options::choose_none;
    GET "/jobs/{number}/bench" => bench::show;
    POST "/jobs/{number}/bench" => bench::work::save;
    POST "/jobs/{number}/bench/begin" => bench::work::begin;
    POST "/jobs/{number}/bench/preview" => bench::picture::preview;
    POST "/jobs/{number}/bench/fit" => bench::work::fit;
    POST "/jobs/{number}/bench/step" => bench::work::step;
    POST "/jobs/{number}/bench/sides" => bench::work::tell_sides;
    POST "/jobs/{number}/bench/option" => bench::work::consider;
    GET "/jobs/{number}/bench/pack.json" => bench::files::export;
    POST "/jobs/{number}/bench/import" => bench::files::import;
    GET "/jobs/{number}/bench/re-arch" => bench::rearch::show;
    POST "/jobs/{number}/bench/re-arch" => bench::rearch::take;
    GET "/jobs/{number}/bench/sheet" => bench::sheet::show;
    GET "/jobs/{number}/bench/leaf/{place}/{form}" => bench::template::send;
    GET "/jobs/{number}/plan" => job_form::show::<PlanForm>;
    POST "/jobs/{number}/plan" => job_form::save::<PlanForm>;
    POST "/jobs/{number}/plan/terms" => plan::keep_terms;
    GET "/jobs/{number}/estimate" => plan::estimate;
    GET "/jobs/{number}/estimate.pdf" => plan::estimate_file;
    POST "/jobs/{number}/estimate/sign" => plan::sign_estimate;
    GET "/jobs/{number}/wrench" => wrench::show;
    GET "/jobs/{number}/wrench/card" => wrench::since;
    POST "/jobs/{number}/wrench/ticks" => wrench::tick;
    GET "/jobs/{number}/handover" => handover::show;
    POST "/jobs/{number}/handover/sign" => handover::sign_handover;
    GET "/jobs/{number}/handover.pdf" => handover::file;
    GET "/jobs/{number}/due.ics" => handover::due_dates;
    GET "/jobs/{number}/proof" => job_form::show::<ProofForm<AfterFitting>>;
    POST "/jobs/{number}/proof" => job_form::save::<ProofForm<AfterFitting>>;
    GET "/jobs/{number}/proof/driven" => job_form::show::<ProofForm<AfterTheDrive>>;
    POST "/jobs/{number}/proof/driven" => job_form::save::<ProofForm<AfterTheDrive>>;
    GET "/jobs/{number}/proof/settled" => job_form::show::<ProofForm<AfterSettling>>;
    POST "/jobs/{number}/proof/settled" => job_form::save::<ProofForm<AfterSettling>>;
    POST "/jobs/{number}/finish" => proof::finish;
    POST "/jobs/{number}/reopen" => proof::reopen;
}

/// Styles, scripts and fonts: they ask nobody who they are, and no database.
pub(crate) fn assets(config: &mut ServiceConfig) {
    config.route("/static/{path:.*}", addresses!(@route GET).to(assets::show));
}

/// Registers all pages. Everything but the picker and its sign-on asks who is working.
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
