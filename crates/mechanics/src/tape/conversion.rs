//! Heights from one datum turned into heights from another.

use super::datum::Datum;
use crate::units::Length;

/// What turns one into another at one wheel, as it stood when the height was read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WheelGeometry {
    /// Hub centre above the ground, with the weight on it.
    pub hub_height: Length,
    /// From the hub centre down to the rim's bottom lip.
    pub rim_lip_radius: Length,
    /// The tyre's free radius, which stands at its top whatever the load.
    pub free_radius: Length,
    /// Hub-to-arch height at which the stop gap would be nought.
    pub arch_at_stop: Length,
}

/// What was changed between two readings.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WheelChange {
    /// Another pressure.
    Pressure,
    /// Another tyre on the same rim.
    TyreSize,
    /// Another wheel with a tyre of the same diameter.
    WheelSize,
}

impl WheelGeometry {
    /// The hub-to-arch height behind a height from any datum.
    ///
    /// `hub_arch = ground_arch − hub height = rim_arch − lip radius = tyretop_arch + free radius = gap + arch_at_stop`
    ///
    /// # Sign       heights count upward from the datum to the arch
    /// # Valid      the gap: the stop stands as far out as the arch is measured, or left and right are alike
    /// # Source     geometry
    pub fn to_hub(&self, height: Length, datum: Datum) -> Length {
        match datum {
            Datum::GroundToArch => height - self.hub_height,
            Datum::HubToArch => height,
            Datum::RimToArch => height - self.rim_lip_radius,
            Datum::TyreTopToArch => height + self.free_radius,
            Datum::StopGap => height + self.arch_at_stop,
        }
    }

    /// The height from any datum that a hub-to-arch height makes: [`Self::to_hub`] turned round.
    pub fn from_hub(&self, hub_to_arch: Length, datum: Datum) -> Length {
        match datum {
            Datum::GroundToArch => hub_to_arch + self.hub_height,
            Datum::HubToArch => hub_to_arch,
            Datum::RimToArch => hub_to_arch + self.rim_lip_radius,
            Datum::TyreTopToArch => hub_to_arch - self.free_radius,
            Datum::StopGap => hub_to_arch - self.arch_at_stop,
        }
    }

    /// A height from one datum as one from another.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::tape::{Datum, WheelGeometry};
    /// use wise_badger_mechanics::units::{InShopUnits, inches};
    /// let wheel = WheelGeometry { hub_height: inches(14.5), rim_lip_radius: inches(8.5), free_radius: inches(15.25), arch_at_stop: inches(17.0) };
    /// let hub = wheel.convert(inches(36.0), Datum::GroundToArch, Datum::HubToArch);
    /// assert!((hub.customary() - 21.5).abs() < 1e-9);
    /// assert!((wheel.convert(hub, Datum::HubToArch, Datum::TyreTopToArch).customary() - 6.25).abs() < 1e-9);
    /// ```
    pub fn convert(&self, height: Length, from: Datum, to: Datum) -> Length {
        self.from_hub(self.to_hub(height, from), to)
    }
}

impl Datum {
    /// How far a height from this datum moves, with the body and axle where they were, when tyre or wheel is changed:
    /// `rise` is what the free radius gains (a pressure: what the loaded radius gains; a wheel: what its lip radius gains).
    ///
    /// Pressure moves only what is measured from the ground; tyre size the ground (`+ΔR`) and the tyre's top (`−ΔR`);
    /// wheel size the rim.
    ///
    /// # Source     geometry
    pub fn moved_by(self, change: WheelChange, rise: Length) -> Length {
        match (self, change) {
            (Datum::GroundToArch, WheelChange::Pressure | WheelChange::TyreSize) => rise,
            (Datum::TyreTopToArch, WheelChange::TyreSize) => -rise,
            (Datum::RimToArch, WheelChange::WheelSize) => rise,
            _ => Length::default(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::{InShopUnits, inches};
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn every_datum_leads_to_every_other_and_back(height in 2.0_f64..50.0, hub in 10.0_f64..20.0, lip in 6.0_f64..10.0, free in 11.0_f64..20.0) {
            let wheel = WheelGeometry { hub_height: inches(hub), rim_lip_radius: inches(lip), free_radius: inches(free), arch_at_stop: inches(17.0) };
            for from in Datum::ALL {
                for to in Datum::ALL {
                    let there = wheel.convert(inches(height), from, to);
                    prop_assert!((wheel.convert(there, to, from) - inches(height)).si().abs() < 1e-12);
                }
            }
        }
    }

    #[test]
    fn only_the_datums_that_a_change_touches_move() {
        let moved =
            |change| Datum::ALL.map(|datum| (datum.moved_by(change, inches(1.0)) / inches(1.0)).value.total_cmp(&0.0) as i8);
        assert_eq!(moved(WheelChange::Pressure), [1, 0, 0, 0, 0]);
        assert_eq!(moved(WheelChange::TyreSize), [1, 0, 0, -1, 0]);
        assert_eq!(moved(WheelChange::WheelSize), [0, 0, 1, 0, 0]);
    }

    #[test]
    fn a_tyre_top_datum_shows_the_rake() {
        // Common practice: front 6 1/4, rear 7 1/4 in from the tyre's top: 1 in of rake on tyres alike.
        let wheel = WheelGeometry {
            hub_height: inches(14.5),
            rim_lip_radius: inches(8.5),
            free_radius: inches(15.2),
            arch_at_stop: inches(17.0),
        };
        let hub = |height| wheel.to_hub(inches(height), Datum::TyreTopToArch);
        assert!(((hub(7.25) - hub(6.25)).customary() - 1.0).abs() < 1e-12);
    }
}
