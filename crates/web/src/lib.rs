//! Pages.
