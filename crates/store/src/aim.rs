//! The aim of a job.

crate::standing_entry::standing_entry!(aims, AimSheet);
