//! Rear heights of a vehicle over its visits: as found and as it left, empty and loaded, to one scale.

use chrono::Local;
use wise_badger_mechanics::units::metres;
use wise_badger_store::job_list::JobListed;

use super::svg::{Anchor, Canvas, Drawing};
use crate::view::Units;
use crate::view::visit::VisitFigures;

const WIDTH: f64 = 860.0;
const LEFT: f64 = 84.0;
const TOP: f64 = 24.0;
const TALL: f64 = 220.0;

/// A visit's heights, of one datum.
pub(crate) struct VisitHeights {
    number: i32,
    day: String,
    datum: String,
    found: [Option<f64>; 2],
    fitted: [Option<f64>; 2],
}

impl VisitHeights {
    /// `None` where nothing was read.
    pub(crate) fn of(job: &JobListed, visit: &VisitFigures) -> Option<Self> {
        visit.found.iter().chain(&visit.fitted).any(Option::is_some).then(|| VisitHeights {
            number: job.number.0,
            day: job.opened_at.with_timezone(&Local).format("%b %-d, %Y").to_string(),
            datum: visit.datum.clone(),
            found: visit.found,
            fitted: visit.fitted,
        })
    }
}

/// The picture. Heights of another datum than the last visit's are left out: they do not compare.
pub(crate) fn visits_drawing(visits: &[VisitHeights], units: Units) -> Drawing {
    let datum = visits.last().map(|visit| visit.datum.clone()).unwrap_or_default();
    let shown: Vec<&VisitHeights> = visits.iter().filter(|visit| visit.datum == datum).collect();
    let all: Vec<f64> = shown.iter().flat_map(|visit| visit.found.iter().chain(&visit.fitted)).flatten().copied().collect();
    let (least, most) = all.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(least, most), at| (least.min(*at), most.max(*at)));
    // Never closer than three inches, so that a sixteenth does not look like a fall.
    let span = (most - least).max(0.0762);
    let middle = (most + least) / 2.0;
    let y = |height: f64| TOP + TALL * (0.5 - 0.9 * (height - middle) / span);
    let step = (WIDTH - LEFT) / shown.len().max(1) as f64;
    let mut canvas = Canvas::new();
    let mut said = Vec::new();
    for (place, visit) in shown.iter().enumerate() {
        let x = LEFT + step * (place as f64 + 0.5);
        canvas.begin_link(&format!("/jobs/{}", visit.number), &format!("Job {}, {}", visit.number, visit.day));
        canvas.text("ledger-text", (x, TOP + TALL + 22.0), Anchor::Middle, &format!("{}: {}", visit.number, visit.day));
        for (state, name) in ["empty", "loaded"].into_iter().enumerate() {
            let (found, fitted) = (visit.found.get(state).copied().flatten(), visit.fitted.get(state).copied().flatten());
            let x = x + if state == 0 { -14.0 } else { 14.0 };
            if let (Some(found), Some(fitted)) = (found, fitted) {
                canvas.line("ledger-band", (x, y(found)), (x, y(fitted)));
            }
            for (height, class, when) in [(found, "mark-solid", "found"), (fitted, "mark-open", "after")] {
                let Some(height) = height else { continue };
                if state == 0 {
                    canvas.circle(class, (x, y(height)), 7.0);
                } else {
                    let (top, side) = (y(height), 8.0);
                    canvas.polygon(class, &[(x, top - side), (x + side, top), (x, top + side), (x - side, top)]);
                }
                said.push(format!("job {} {when} {name} {}", visit.number, units.height(metres(height))));
            }
        }
        canvas.end_link();
    }
    for height in [least, most] {
        canvas.text("ledger-text", (0.0, y(height) + 5.0), Anchor::Start, &units.height(metres(height)));
        canvas.line("ledger-zero", (LEFT - 8.0, y(height)), (WIDTH, y(height)));
    }
    canvas.finish("visits", "ledger-picture", WIDTH, "Rear heights over the visits", &said.join("; "))
}
