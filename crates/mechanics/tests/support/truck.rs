//! A light truck's pack.

use wise_badger_mechanics::pack::{Clamp, Leaf, Pack};
use wise_badger_mechanics::units::InShopUnits;
use wise_badger_mechanics::units::{Force, Length, inches, per_metre, pounds};

pub(crate) fn leaf(name: &str, thickness: f64, half: f64, radius: f64) -> Leaf {
    Leaf { curvature: per_metre(1.0 / inches(radius).si()), ..Leaf::flat(name, inches(2.5), inches(thickness), inches(half)) }
}

/// A light truck's pack: three arched leaves over a flat overload leaf.
pub(crate) fn truck() -> Pack {
    let overload = Leaf { spacer_above: inches(0.25), ..Leaf::flat("overload", inches(2.5), inches(0.6), inches(13.0)) };
    let leaves =
        vec![leaf("main", 0.31, 28.0, 60.0), leaf("second", 0.31, 25.0, 55.0), leaf("third", 0.28, 19.0, 52.0), overload];
    Pack::of(leaves, Clamp { front: inches(3.0), rear: inches(3.0) })
}

pub(crate) fn arch(pack: &Pack, load: Force) -> Length {
    pack.prepare(pounds(1600.0)).unwrap().state(load).unwrap().arch.unwrap()
}
