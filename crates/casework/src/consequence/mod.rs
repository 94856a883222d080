//! What else changes with an option, from the job's own figures: hose, shock, stop, U-bolts, shafts, bars, caster and seat.
//!
//! A row a kind; each says what it makes of the parts, and nothing where the figure that it hangs on was not taken.

mod geometry;
mod kind;
mod option;
mod springs;
mod used_up;

pub use kind::Consequence;
pub use option::OptionFitted;

type Row = fn(&OptionFitted<'_>) -> Vec<Consequence>;

/// Every kind, in the order told.
static ROWS: &[Row] = &[
    springs::never_bears,
    used_up::hose,
    used_up::shock,
    used_up::shock_closes,
    used_up::stop,
    springs::overload_leaf,
    springs::against_leaning,
    springs::at_its_rating,
    springs::coil_binds,
    springs::coil_loose,
    used_up::u_bolts,
    geometry::shaft,
    geometry::half_shaft,
    geometry::front_droop,
    geometry::track_bar,
    geometry::caster,
    geometry::bar_links,
    geometry::seat,
    geometry::taper,
];

/// Everything that changes with an option.
pub fn consequences(option: &OptionFitted<'_>) -> Vec<Consequence> {
    ROWS.iter().flat_map(|row| row(option)).collect()
}
