//! Signing a paper on the screen: what was shown is what is signed, and it is kept word for word.

use actix_web::web::Data;
use askama::Template;
use sha2::{Digest as _, Sha256};
use wise_badger_casework::entry::{DRAWN, Drawn, PaperEntry, PaperSection, PaperWord};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::paper::{self, Paper};
use wise_badger_store::{Database, StoreError, saving};

use super::{Names, was_kept};
use crate::error::WebError;
use crate::form::{Field, Sheet, new_token};
use crate::view::clock;
use crate::worker::Worker;

/// The heading of what hangs on the day on which a paper is looked at: it makes no other paper of it.
pub(super) const WHEN: &str = "When";

/// The form that a paper is signed with.
#[derive(Template)]
#[template(path = "parts/sign.html")]
pub(crate) struct SignForm {
    action: String,
    legend: &'static str,
    token: String,
    seen: String,
    name: Field,
    width: u32,
    height: u32,
    /// Whether the job is closed: then nothing is signed any more.
    closed: bool,
}

impl askama::filters::HtmlSafe for SignForm {}

impl SignForm {
    pub(crate) fn new(worker: &Worker, file: &JobFile, shown: &[PaperSection], action: String, legend: &'static str) -> Self {
        let sheet = Sheet::blank(worker.units());
        let [width, height] = DRAWN;
        SignForm {
            action,
            legend,
            token: new_token(),
            seen: told(shown),
            name: sheet.text_field("signed_by", "Name in letters"),
            width,
            height,
            closed: file.job.finished_at.is_some(),
        }
    }
}

/// A paper that was signed, as it is shown.
pub(crate) struct SignedView {
    pub(crate) by: String,
    pub(crate) taken: String,
    /// The strokes; empty where it was signed by name alone.
    pub(crate) path: String,
    /// What it said, where that is not what stands above it now.
    pub(crate) sections: Vec<PaperSection>,
}

impl SignedView {
    /// The papers of a kind, the newest first.
    pub(crate) fn of(papers: &[Paper], kind: PaperWord, now: &[PaperSection], names: &Names) -> Vec<Self> {
        let of_kind = papers.iter().rev().filter(|paper| paper.entry.0.paper == kind);
        let view = |paper: &Paper| SignedView {
            by: paper.entry.0.signed_by.clone(),
            taken: format!("{}, {}", clock(paper.recorded_at), names.of(paper.recorded_by)),
            path: paper.entry.0.drawn.as_ref().map(|drawn| drawn.path().to_owned()).unwrap_or_default(),
            sections: if says_the_same(&paper.entry.0.sections, now) { Vec::new() } else { paper.entry.0.sections.clone() },
        };
        of_kind.map(view).collect()
    }
}

/// Whether two papers say the same, but for days that are counted from today.
pub(super) fn says_the_same(one: &[PaperSection], other: &[PaperSection]) -> bool {
    let lasting = |sections: &[PaperSection]| sections.iter().filter(|of| of.title != WHEN).cloned().collect::<Vec<_>>();
    lasting(one) == lasting(other)
}

/// What stands for what a paper says.
fn told(sections: &[PaperSection]) -> String {
    let mut hash = Sha256::new();
    for section in sections {
        for line in std::iter::once(&section.title).chain(&section.lines) {
            hash.update(line.as_bytes());
            hash.update([0]);
        }
    }
    hash.finalize().iter().map(|byte| format!("{byte:02x}")).collect()
}

/// Takes a signature in: once, under what was shown.
///
/// # Errors     [`WebError::Refused`] where it says something else by now, or nobody's name is given
pub(crate) async fn sign(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    file: &JobFile,
    kind: PaperWord,
    sections: Vec<PaperSection>,
) -> Result<(), WebError> {
    const LONGEST_NAME: usize = 120;
    if sheet.text("seen") != told(&sections) {
        return Err(WebError::Refused(
            "It says something else by now than when this page was opened, so it was not signed. Open it again, read it, and sign."
                .to_owned(),
        ));
    }
    let signed_by = sheet.text("signed_by").trim().to_owned();
    if signed_by.is_empty() || signed_by.chars().count() > LONGEST_NAME {
        return Err(WebError::Refused(
            "Not signed: the name of whoever signs is missing. Go back and put it in letters.".to_owned(),
        ));
    }
    let drawn = sheet.text("drawn").trim();
    let drawn: Option<Drawn> = match drawn {
        "" => None,
        path => Some(path.parse().map_err(|error| WebError::Malformed(format!("a signature: {error}")))?),
    };
    let entry = PaperEntry { paper: kind, sections, signed_by, drawn };
    let (sending, person, job) = (sheet.sending()?, worker.person.clone(), file.job.id);
    let sent = sending.clone();
    let kept: Result<(), StoreError> = database
        .write(move |connection| {
            saving::add(connection, &person, &sent, job, |connection, person| paper::keep(connection, person, job, &entry))
        })
        .await;
    match kept {
        Err(StoreError::OutcomeUnknown(_)) => was_kept(database, worker, sending).await,
        kept => kept.map_err(WebError::from),
    }
}
