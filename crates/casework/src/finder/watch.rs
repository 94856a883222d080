//! Who waits for a search, and how far it has come.

use std::cell::Cell;

use super::found::Found;

/// What a search is at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum At {
    /// Parts, each by itself.
    Parts,
    /// Combinations, solved once each.
    Combinations,
    /// The best of them, with all that is in doubt.
    TheBest,
}

/// How far a search has come.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Came {
    /// What it is at.
    pub at: At,
    /// How many of them are done.
    pub done: usize,
    /// Of how many.
    pub of: usize,
}

/// Who waits for a search.
pub trait Watch {
    /// Whether it goes on: asked between one combination and the next. What was found until then is given.
    fn goes_on(&self) -> bool;

    /// Hears how far it has come.
    fn comes(&self, came: Came);

    /// Hears that an option was found; all that is found so far is put into order when it is asked for.
    fn found(&self, so_far: &dyn Fn() -> Found);
}

/// Waits to the end and wants to hear of nothing before.
#[derive(Debug, Clone, Copy)]
pub struct ToTheEnd;

impl Watch for ToTheEnd {
    fn goes_on(&self) -> bool {
        true
    }

    fn comes(&self, _: Came) {}

    fn found(&self, _: &dyn Fn() -> Found) {}
}

/// Another watch, and whether it called the search off.
pub(super) struct Remembering<'w> {
    watch: &'w dyn Watch,
    called_off: Cell<bool>,
}

impl<'w> Remembering<'w> {
    pub(super) fn new(watch: &'w dyn Watch) -> Self {
        Remembering { watch, called_off: Cell::new(false) }
    }

    pub(super) fn was_called_off(&self) -> bool {
        self.called_off.get()
    }
}

impl Watch for Remembering<'_> {
    fn goes_on(&self) -> bool {
        // Called off once, it stays so.
        let goes_on = !self.called_off.get() && self.watch.goes_on();
        self.called_off.set(!goes_on);
        goes_on
    }

    fn comes(&self, came: Came) {
        self.watch.comes(came);
    }

    fn found(&self, so_far: &dyn Fn() -> Found) {
        self.watch.found(so_far);
    }
}
