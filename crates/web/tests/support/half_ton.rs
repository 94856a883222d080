//! The half-ton whose sums are done by hand: 145 in between the axles, nothing stated about its empty weight.

pub(crate) const INTAKE: [(&str, &str); 6] = [
    ("label", "Half-ton by hand"),
    ("class", "half_ton_pickup"),
    ("rear_wheels", "single"),
    ("wheelbase", "145"),
    ("front_rating", "3900"),
    ("rear_rating", "4100"),
];

/// Names of the walk's fields with front and rear heights, empty and loaded, both sides alike.
pub(crate) fn walk<'a>(front: [&'a str; 2], rear: [&'a str; 2]) -> [(&'static str, &'a str); 8] {
    [
        ("empty.front_left.0", front[0]),
        ("empty.front_right.0", front[0]),
        ("empty.rear_left.0", rear[0]),
        ("empty.rear_right.0", rear[0]),
        ("loaded.front_left.0", front[1]),
        ("loaded.front_right.0", front[1]),
        ("loaded.rear_left.0", rear[1]),
        ("loaded.rear_right.0", rear[1]),
    ]
}
