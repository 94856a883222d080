//! What can be done on a job.

/// What was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Deed {
    /// The job was opened.
    Opened,
    /// What intake says of the vehicle was changed.
    VehicleChanged,
    /// The intake sheet was written.
    Asked,
    /// The load plan was written.
    Planned,
    /// How the heights are read was changed.
    MannerChanged,
    /// Readings were taken.
    Read,
    /// Readings were corrected, or taken off.
    Corrected,
    /// What was put on was told.
    Loaded,
    /// The vehicle was looked over.
    LookedOver,
    /// A pack was worked on at the bench.
    Benched,
    /// The bench went a step back.
    SteppedBack,
    /// The bench went a step forward again.
    SteppedForward,
    /// A control drive was scored.
    Drove,
    /// The plan of the work was written.
    WorkPlanned,
    /// Something was said of the proof.
    Proved,
    /// A sum was kept with the job, or taken off it.
    Reckoned,
    /// A photograph was sent.
    Photographed,
    /// A photograph was taken off.
    PhotographOff,
    /// The aim was set.
    Aimed,
    /// A correction was considered.
    Considered,
    /// A correction was taken off the list.
    CorrectionOff,
    /// A correction was put back on the list.
    CorrectionBack,
    /// A correction was chosen.
    Chose,
    /// The choice was taken back.
    ChoiceOff,
    /// Somebody else has it, or it was promised for another day.
    Handed,
    /// The job was finished.
    Finished,
    /// The job was taken up again.
    Reopened,
}
