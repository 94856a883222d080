//! Every address of the program.

use actix_web::web::{self, FormConfig, PathConfig, QueryConfig, ServiceConfig, get, post};

use crate::error::WebError;
use crate::pages::{
    aim, assets, bench, drive, history, intake, intake_sheet, job, load, look_over, options, photographs, proof, sums, tape,
    understood, verdict, who, yard,
};

/// Most bytes of one form.
const LARGEST_FORM: usize = 64 * 1024;

/// Registers all pages. Everything but the picker, its sign-on and the assets asks who is working.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .app_data(FormConfig::default().limit(LARGEST_FORM).error_handler(|error, _| {
            let too_large = matches!(error, actix_web::error::UrlencodedError::Overflow { .. });
            if too_large { WebError::TooLarge.into() } else { WebError::Malformed(error.to_string()).into() }
        }))
        .app_data(PathConfig::default().error_handler(|_, _| WebError::NotFound("job").into()))
        .app_data(QueryConfig::default().error_handler(|error, _| WebError::Malformed(error.to_string()).into()))
        .route("/", get().to(yard::show))
        .route("/who", get().to(who::show))
        .route("/who", post().to(who::sign_on))
        .route("/units", post().to(who::set_units))
        .route("/understood", get().to(understood::show))
        .route("/sums", get().to(sums::first))
        .route("/sums/{sum}", get().to(sums::show))
        .route("/jobs/new", get().to(intake::new))
        .route("/jobs/new", post().to(intake::open))
        .route("/jobs/{number}", get().to(job::show))
        .route("/jobs/{number}/intake", get().to(intake::show))
        .route("/jobs/{number}/intake", post().to(intake::save))
        .route("/jobs/{number}/intake/sheet", post().to(intake_sheet::save))
        .route("/jobs/{number}/load", get().to(load::show))
        .route("/jobs/{number}/load", post().to(load::save))
        .route("/jobs/{number}/load/preview", post().to(load::preview))
        .route("/jobs/{number}/tape", get().to(tape::show))
        .route("/jobs/{number}/tape", post().to(tape::save))
        .route("/jobs/{number}/drive", get().to(drive::show))
        .route("/jobs/{number}/drive", post().to(drive::save))
        .route("/jobs/{number}/history", get().to(history::show))
        .route("/jobs/{number}/photographs", post().to(photographs::send))
        .route("/jobs/{number}/photographs/{photograph}", get().to(photographs::show))
        .route("/jobs/{number}/photographs/{photograph}/withdraw", post().to(photographs::withdraw))
        .route("/jobs/{number}/look-over", get().to(look_over::show))
        .route("/jobs/{number}/look-over", post().to(look_over::save))
        .route("/jobs/{number}/verdict", get().to(verdict::show))
        .route("/jobs/{number}/aim", get().to(aim::show))
        .route("/jobs/{number}/aim", post().to(aim::save))
        .route("/jobs/{number}/options", get().to(options::show))
        .route("/jobs/{number}/options", post().to(options::consider))
        .route("/jobs/{number}/options/{correction}/choose", post().to(options::choose))
        .route("/jobs/{number}/options/{correction}/withdraw", post().to(options::withdraw))
        .route("/jobs/{number}/options/{correction}/restore", post().to(options::restore))
        .route("/jobs/{number}/options/none", post().to(options::choose_none))
        .route("/jobs/{number}/bench", get().to(bench::show))
        .route("/jobs/{number}/bench", post().to(bench::work::save))
        .route("/jobs/{number}/bench/begin", post().to(bench::work::begin))
        .route("/jobs/{number}/bench/preview", post().to(bench::picture::preview))
        .route("/jobs/{number}/bench/fit", post().to(bench::work::fit))
        .route("/jobs/{number}/bench/step", post().to(bench::work::step))
        .route("/jobs/{number}/bench/option", post().to(bench::work::consider))
        .route("/jobs/{number}/bench/pack.json", get().to(bench::files::export))
        .route("/jobs/{number}/bench/import", post().to(bench::files::import))
        .route("/jobs/{number}/bench/re-arch", get().to(bench::rearch::show))
        .route("/jobs/{number}/bench/re-arch", post().to(bench::rearch::take))
        .route("/jobs/{number}/bench/sheet", get().to(bench::sheet::show))
        .route("/jobs/{number}/bench/leaf/{place}/{form}", get().to(bench::template::send))
        .route("/jobs/{number}/proof", get().to(proof::show))
        .route("/jobs/{number}/proof", post().to(proof::save))
        .route("/jobs/{number}/finish", post().to(proof::finish))
        .route("/jobs/{number}/reopen", post().to(proof::reopen))
        .route("/static/{path:.*}", get().to(assets::show))
        .default_service(web::to(|| async { Err::<actix_web::HttpResponse, _>(WebError::NotFound("page")) }));
}
