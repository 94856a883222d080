//! The table of truth: how often bands hold what is so, row by row, over so many made-up jobs. Seeds are stated; no time is measured.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "made-up jobs are sound")]

#[path = "../tests/support/truth.rs"]
mod truth;

use truth::{ROWS, Read, Tally, median};

const JOBS: u32 = 1_000;
const SEED: u64 = 16;

fn main() {
    let jobs = std::env::var("TRUTH_JOBS").ok().and_then(|jobs| jobs.parse().ok()).unwrap_or(JOBS);
    println!(
        "| what is really so | read | told | rate inside | heights inside (block, helper, leaf, rubber) | tape inside | good and over 20 % wrong | rate band | height band | no rate |"
    );
    println!("|---|---|---|---|---|---|---|---|---|---|");
    let settled = truth::settled(SEED + 100, jobs / 5);
    println!("of the band of the rate the reading named leaves {:.2} (median of {} jobs)\n", median(&settled), settled.len());
    println!("| said to meet two goals at once with a chance of | of so many | do so |\n|---|---|---|");
    let row = &ROWS[0];
    let promised = truth::promised(row, SEED + 200, jobs);
    for (from, to) in [(0.0, 0.1), (0.1, 0.2), (0.2, 0.4), (0.4, 0.6), (0.6, 0.8), (0.8, 0.9), (0.9, 0.97), (0.97, 1.01)] {
        let (met, of) = truth::came_true(&promised, from, to);
        println!("| {from} to {:.2} | {of} | {:.1} % |", f64::min(to, 1.0), 100.0 * Tally::share(met, of));
    }
    println!();
    let only: Option<usize> = std::env::var("TRUTH_ROW").ok().and_then(|row| row.parse().ok());
    let rows = || (0_usize..).zip(ROWS).filter(|(number, _)| only.is_none_or(|only| only == *number));
    // A row a thread: the machine's cores share them out.
    let tallies: Vec<Tally> = std::thread::scope(|scope| {
        let each = rows().map(|(number, row)| scope.spawn(move || truth::run(row, SEED + number as u64, jobs)));
        each.collect::<Vec<_>>().into_iter().map(|tally| tally.join().unwrap()).collect()
    });
    for ((_, row), tally) in rows().zip(tallies) {
        let percent = |part, of| format!("{:.1} %", 100.0 * Tally::share(part, of));
        let read = match row.read {
            Read::Three => "three states",
            Read::TwoWithGaps => "two, gap in both",
            Read::Two => "two, no gap",
        };
        let by_part = tally.by_part.map(|(of, inside)| format!("{:.0}", 100.0 * Tally::share(inside, of))).join(", ");
        println!(
            "| {} | {read} | {} | {} | {} ({by_part}) | {} | {} of {} | ±{:.0} % | ±{:.2} in | {} |",
            row.what,
            row.told,
            percent(tally.rates_inside, tally.rates),
            percent(tally.heights_inside, tally.heights),
            percent(tally.tapes_inside, tally.heights),
            tally.good_and_wrong,
            tally.good,
            100.0 * median(&tally.rate_bands),
            median(&tally.height_bands),
            percent(tally.jobs - tally.rates, tally.jobs),
        );
        let suspected = |which: usize, least: f64| tally.suspected.iter().filter(|odds| odds[which] >= least).count();
        let curve = |which| {
            [0.1, 0.2, 0.3, 0.5, 0.65, 0.8, 0.9]
                .map(|least| format!("{:.1}", 100.0 * suspected(which, least) as f64 / f64::from(jobs)))
                .join(" ")
        };
        println!(
            "    suspected at odds of 0.1 0.2 0.3 0.5 0.65 0.8 0.9: stop {}; stage {}; misread {}",
            curve(0),
            curve(1),
            curve(2)
        );
    }
}
