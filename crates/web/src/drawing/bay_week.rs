//! A week by bay: a row a bay, a column a day of the hours that the shop works, a block a vehicle.

use chrono::{NaiveDate, NaiveDateTime};
use wise_badger_casework::bay_plan::WorkDays;

use super::svg::{Anchor, Canvas, Drawing};

const WIDTH: f64 = 1200.0;
const LEFT: f64 = 104.0;
const HEAD: f64 = 30.0;
const ROW: f64 = 66.0;
/// A letter of a block's text, about.
const LETTER: f64 = 7.4;

/// A vehicle in a bay.
pub(crate) struct BayBlock {
    pub(crate) id: i64,
    /// The row.
    pub(crate) bay: usize,
    pub(crate) begins: NaiveDateTime,
    pub(crate) ends: NaiveDateTime,
    pub(crate) name: String,
    pub(crate) who: String,
    /// Whether something about it clashes.
    pub(crate) clashes: bool,
    /// Everything of it, said to who cannot see it.
    pub(crate) said: String,
}

/// The picture. Each block leads to its booking.
pub(crate) fn bay_week_drawing(
    days: &[NaiveDate],
    work: &WorkDays,
    bays: &[(String, bool)],
    blocks: &[BayBlock],
    now: NaiveDateTime,
) -> Drawing {
    let wide = (WIDTH - LEFT) / (days.len().max(1) as f64);
    let x = |at: NaiveDateTime| -> f64 {
        let day = days.iter().take_while(|day| **day <= at.date()).count();
        let Some(date) = day.checked_sub(1).and_then(|day| days.get(day)) else { return LEFT };
        let (opens, closes) = (work.opens(*date), work.closes(*date));
        let long = (closes - opens).num_minutes().max(1) as f64;
        let past = if at.date() > *date { long } else { ((at - opens).num_minutes() as f64).clamp(0.0, long) };
        LEFT + wide * ((day - 1) as f64 + past / long)
    };
    let y = |bay: usize| HEAD + ROW * bay as f64;
    let bottom = y(bays.len());
    let mut canvas = Canvas::new();
    for (place, day) in days.iter().enumerate() {
        let at = LEFT + wide * place as f64;
        let class = if *day == now.date() { "bay-day is-today" } else { "bay-day" };
        canvas.text(class, (at + 6.0, HEAD - 10.0), Anchor::Start, &day.format("%a %b %-d").to_string());
        canvas.rect(if work.works_on(*day) { "bay-open" } else { "bay-closed" }, (at, HEAD), (wide, bottom - HEAD));
        canvas.line("bay-edge", (at, HEAD), (at, bottom));
        let hours = (work.closes(*day) - work.opens(*day)).num_hours();
        for hour in (2..hours).step_by(2) {
            let at = at + wide * hour as f64 / hours as f64;
            canvas.line("bay-hour", (at, HEAD), (at, bottom));
        }
    }
    for (place, (name, lift)) in bays.iter().enumerate() {
        canvas.line("bay-edge", (0.0, y(place)), (WIDTH, y(place)));
        canvas.text("bay-name", (0.0, y(place) + 28.0), Anchor::Start, &cut(name, LEFT - 8.0));
        canvas.text("bay-note", (0.0, y(place) + 46.0), Anchor::Start, if *lift { "lift" } else { "floor" });
    }
    canvas.line("bay-edge", (0.0, bottom), (WIDTH, bottom));
    if days.contains(&now.date()) {
        canvas.line("bay-now", (x(now), HEAD), (x(now), bottom));
    }
    for block in blocks {
        let (from, to) = (x(block.begins), x(block.ends));
        if to <= from + 1.0 {
            continue;
        }
        let (top, width) = (y(block.bay) + 5.0, to - from - 2.0);
        canvas.begin_link(&format!("/bays/bookings/{}", block.id), &block.said);
        canvas.rect(if block.clashes { "bay-block is-clash" } else { "bay-block" }, (from + 1.0, top), (width, ROW - 10.0));
        canvas.text("bay-text", (from + 8.0, top + 23.0), Anchor::Start, &cut(&block.name, width - 14.0));
        canvas.text("bay-who", (from + 8.0, top + 42.0), Anchor::Start, &cut(&block.who, width - 14.0));
        canvas.end_link();
    }
    canvas.finish_with_links("bay-week", "bay-week", WIDTH, "The week by bay")
}

/// As much of a text as there is room for.
fn cut(text: &str, room: f64) -> String {
    let letters = (room / LETTER).max(0.0).floor();
    if (text.chars().count() as f64) <= letters {
        return text.to_owned();
    }
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "letters of a line")]
    let kept = (letters as usize).saturating_sub(1);
    if kept == 0 { String::new() } else { format!("{}…", text.chars().take(kept).collect::<String>().trim_end()) }
}
