//! Labels moved apart until none overlaps another.

/// Moves places apart to at least `room`, keeping their order, inside `limits` where they fit at all.
pub(super) fn spread(wanted: &[f64], room: f64, limits: (f64, f64)) -> Vec<f64> {
    let mut order: Vec<usize> = (0..wanted.len()).collect();
    let at = |index: usize| wanted.get(index).copied().unwrap_or_default();
    order.sort_by(|a, b| at(*a).total_cmp(&at(*b)));
    // Groups of labels that touch, each centred on the mean of what its members want.
    let mut groups: Vec<(f64, usize)> = Vec::new();
    for index in &order {
        groups.push((at(*index), 1));
        while let [.., (above, above_count), (below, below_count)] = groups.as_slice() {
            #[expect(clippy::cast_precision_loss, reason = "a handful of labels")]
            let (n, m) = (*above_count as f64, *below_count as f64);
            if below - above >= room * (n + m) / 2.0 {
                break;
            }
            let merged = ((above * n + below * m) / (n + m), above_count + below_count);
            groups.truncate(groups.len() - 2);
            groups.push(merged);
        }
    }
    let mut places = Vec::with_capacity(wanted.len());
    for (middle, count) in groups {
        #[expect(clippy::cast_precision_loss, reason = "a handful of labels")]
        let first = middle - room * (count as f64 - 1.0) / 2.0;
        let mut y = first;
        for _ in 0..count {
            places.push(y);
            y += room;
        }
    }
    keep_inside(&mut places, room, limits);
    let mut in_order = vec![0.0; wanted.len()];
    for (index, place) in order.into_iter().zip(places) {
        if let Some(slot) = in_order.get_mut(index) {
            *slot = place;
        }
    }
    in_order
}

fn keep_inside(places: &mut [f64], room: f64, (least, most): (f64, f64)) {
    let mut floor = most;
    for place in places.iter_mut().rev() {
        *place = place.min(floor);
        floor = *place - room;
    }
    let mut ceiling = least;
    for place in places {
        *place = place.max(ceiling);
        ceiling = *place + room;
    }
}

#[cfg(test)]
mod tests {
    use super::spread;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn labels_never_overlap_and_keep_their_order(wanted in prop::collection::vec(0.0_f64..300.0, 1..7)) {
            let places = spread(&wanted, 29.0, (0.0, 300.0));
            let mut pairs: Vec<(f64, f64)> = wanted.iter().copied().zip(places.iter().copied()).collect();
            pairs.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1)));
            for pair in pairs.windows(2) {
                prop_assert!(pair[1].1 - pair[0].1 >= 29.0 - 1e-9, "{places:?}");
            }
            prop_assert!(places.iter().all(|y| (-1e-9..=300.0 + 1e-9).contains(y)), "{places:?}");
        }
    }

    #[test]
    fn labels_with_room_stay_at_their_marks() {
        assert_eq!(spread(&[100.0, 20.0], 29.0, (0.0, 300.0)), vec![100.0, 20.0]);
        assert_eq!(spread(&[100.0, 110.0], 30.0, (0.0, 300.0)), vec![90.0, 120.0]);
    }
}
