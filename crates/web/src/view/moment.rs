//! When something happened.

use chrono::{DateTime, Local, Utc};

/// Time of day, with the date when it was not today.
pub(crate) fn clock(at: DateTime<Utc>) -> String {
    let (local, today) = (at.with_timezone(&Local), Local::now().date_naive());
    let form = if local.date_naive() == today { "%H:%M" } else { "%-d %b %Y, %H:%M" };
    local.format(form).to_string()
}

/// A day alone.
pub(crate) fn day_of(at: DateTime<Utc>) -> String {
    at.with_timezone(&Local).format("%-d %b %Y").to_string()
}

/// How long ago, roughly.
pub(crate) fn ago(at: DateTime<Utc>) -> String {
    let minutes = (Utc::now() - at).num_minutes();
    let several = |count: i64, one: &str| if count == 1 { format!("1 {one} ago") } else { format!("{count} {one}s ago") };
    match minutes {
        ..1 => "just now".to_owned(),
        1..60 => several(minutes, "minute"),
        60..1440 => several(minutes / 60, "hour"),
        _ => several(minutes / 1440, "day"),
    }
}

/// Day and time.
pub(crate) fn moment(at: DateTime<Utc>) -> String {
    at.with_timezone(&Local).format("%-d %b %Y, %H:%M").to_string()
}
