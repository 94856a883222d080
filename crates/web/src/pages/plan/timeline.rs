//! The days of the work, drawn.

use std::fmt::Write as _;

use chrono::{Datelike, Days, NaiveDate, Weekday};
use wise_badger_casework::work_plan::Schedule;

use crate::view::work_plan::days_words;

const WIDTH: f64 = 640.0;
const LEFT: f64 = 84.0;
const ROW: f64 = 30.0;
const TOP: f64 = 26.0;
/// Further off, the latest days run off the end.
const MOST_DAYS: i64 = 60;

/// A row for what it waits for, one for the work: solid where it goes at its earliest, hatched where it may end at its latest.
pub(super) struct Timeline {
    svg: String,
}

impl std::fmt::Display for Timeline {
    fn fmt(&self, formatter: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        formatter.write_str(&self.svg)
    }
}

impl askama::filters::HtmlSafe for Timeline {}

impl Timeline {
    pub(super) fn of(schedule: &Schedule, today: NaiveDate) -> Self {
        let days = |day: NaiveDate| (day - today).num_days();
        let span = (days(schedule.done[1]) + 1).clamp(4, MOST_DAYS);
        let width = (WIDTH - LEFT - 8.0) / span as f64;
        let at = |day: i64| LEFT + width * day.min(span) as f64;
        let height = TOP + 2.0 * ROW + 8.0;
        let words = format!(
            "Parts here {}, begun {}, done {}",
            days_words(schedule.here),
            days_words(schedule.begun),
            days_words(schedule.done)
        );
        let mut svg = format!(r#"<svg class="timeline" viewBox="0 0 {WIDTH} {height}" role="img" aria-label="{words}">"#);
        let every = if span <= 10 {
            1
        } else if span <= 24 {
            2
        } else {
            7
        };
        for day in 0..span {
            let date = today + Days::new(day.unsigned_abs());
            let x = at(day);
            if matches!(date.weekday(), Weekday::Sat | Weekday::Sun) {
                put(
                    &mut svg,
                    format_args!(r#"<rect class="off" x="{x:.1}" y="{TOP}" width="{width:.1}" height="{:.1}"/>"#, 2.0 * ROW),
                );
            }
            if day % every == 0 {
                let label = if day == 0 { "today".to_owned() } else { date.format("%b %-d").to_string() };
                put(&mut svg, format_args!(r#"<text class="day" x="{:.1}" y="{}">{label}</text>"#, x + 2.0, TOP - 8.0));
            }
        }
        let rows = [
            ("Parts", 0, [0, 0], [days(schedule.here[0]), days(schedule.here[1])]),
            (
                "Work",
                1,
                [days(schedule.begun[0]), days(schedule.begun[1])],
                [days(schedule.done[0]) + 1, days(schedule.done[1]) + 1],
            ),
        ];
        for (name, row, from, to) in rows {
            let y = TOP + ROW * f64::from(row);
            put(&mut svg, format_args!(r#"<text class="what" x="0" y="{:.1}">{name}</text>"#, y + 20.0));
            let bar = |from: i64, to: i64, class: &str| {
                let (x, end) = (at(from), at(to));
                format!(r#"<rect class="{class}" x="{x:.1}" y="{:.1}" width="{:.1}" height="16"/>"#, y + 7.0, (end - x).max(3.0))
            };
            if to[1] > to[0] {
                put(&mut svg, format_args!("{}", bar(to[0].min(from[1]), to[1], "late")));
            }
            put(&mut svg, format_args!("{}", bar(from[0], to[0], "early")));
        }
        svg.push_str("</svg>");
        Timeline { svg }
    }
}

fn put(svg: &mut String, what: std::fmt::Arguments<'_>) {
    svg.write_fmt(what).expect("a string takes everything that is written to it");
}
